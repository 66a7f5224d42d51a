package advice

import (
	"fmt"
	"maps"
	"slices"

	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// Between says what marks changed from one standing to a later one, and what follows
// from them.
func Between(before, after ladder.Standing, g skill.Graph) (changed, follows []reason.Reason) {
	say := func(code, title, more string) {
		changed = append(changed, reason.Of(code, "title", title, "more", more))
	}
	for _, r := range after.Rungs {
		was, known := before.Rung(r.ID)
		if !known {
			say("placed", r.Item.Title, "")
		}
		if r.Taught != nil && was.Taught == nil {
			say("taught", r.Item.Title, "")
		}
		for _, pt := range r.Points {
			if pt.Key == shelf.Spots {
				continue // the spots themselves are told below
			}
			old := ladder.Unmarked
			for _, o := range was.Points {
				if o.Key == pt.Key {
					old = o.State
				}
			}
			if pt.State != old && pt.State == ladder.Met {
				say("point-met", r.Item.Title, pt.Name)
			} else if pt.State != old && pt.State == ladder.Open {
				say("point-open", r.Item.Title, pt.Name)
			}
		}
		for _, s := range r.Spots {
			old := 0
			for _, o := range was.Spots {
				if o.ID == s.ID {
					old = o.Done
				}
			}
			if s.Done > old {
				say("spot-count", r.Item.Title, fmt.Sprintf("%s, %d of %d in a row", s.Where, s.Done, s.Goal))
			}
		}
		if r.Foothold != nil && was.Foothold == nil {
			say("foothold", r.Item.Title, "")
		}
		now, then := after.State(r), before.State(was)
		if known && now == ladder.Current && then == ladder.Ahead {
			follows = append(follows, reason.Of("now-current", "title", r.Item.Title))
		}
		if r.Ready() && after.Ache == nil {
			follows = append(follows, reason.Of("ready-to-try", "title", r.Item.Title))
		}
		for _, s := range r.Spots {
			if !s.Met() && r.Foothold == nil {
				follows = append(follows, reason.Of("spot-carried", "title", r.Item.Title, "where", s.Where))
			}
		}
	}
	for _, aim := range slices.Sorted(maps.Keys(after.Probes)) {
		if was, there := before.Probes[aim]; !there || was.Outcome != after.Probes[aim].Outcome {
			changed = append(changed, reason.Of("probe-answered", "aim", g.Name(aim), "outcome", after.Probes[aim].Outcome))
		}
	}
	return changed, follows
}

// Starts says which head starts a lesson gives home, with their next task.
func (w Way) Starts() []reason.Reason {
	var out []reason.Reason
	for _, h := range w.Ahead {
		if task, on := h.Now(); on {
			out = append(out, reason.Of("head-start-next", "skill", h.Name, "do", task.Do))
		}
	}
	return out
}
