package year

import (
	"fmt"
	"strconv"

	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/studio/places"
)

// onLadder holds a ladder, as it stands after a lesson, against the rules of ladders.
func (r *run) onLadder(v places.LadderView) {
	name := fmt.Sprintf("%s, ladder of %s", r.life.name, v.Today)
	r.seen.mixture = v.Mixture != nil
	sticks := map[string]bool{}
	why := map[string]string{}  // by rung
	said := map[string]bool{}   // rung or lane, and code
	over := r.seen.refused != 0 // what was turned down is not said again
	for _, s := range v.Suggestions {
		said[s.Rung+" "+s.Why.Code] = true
		if lane := s.Why.Args["lane"]; lane != "" {
			said[lane] = true
		}
		if len(s.Remedies) > 0 {
			why[s.Rung] = s.Why.Code
		}
		if len(s.Remedies) == 0 || s.Rung == "" {
			continue
		}
		sticks[s.Rung] = true
		p := r.mind.pieces[s.Rung]
		if s.Why.Code != "past-its-range" || p == nil {
			continue
		}
		if n, err := strconv.Atoi(s.Why.Args["week"]); err == nil {
			r.ledger.hold("14 false", n <= p.lessons+1, func() string {
				return fmt.Sprintf("%s: %s “in its week %d” after %d lessons", name, s.Title, n, p.lessons)
			})
		}
	}
	r.seen.sticks = sticks
	r.ledger.Count("weeks said to stick", float64(len(sticks)))
	coming := map[shelf.Strand]int{}
	for _, rv := range v.Rungs {
		if rv.Expected != nil && why[rv.ID] == "past-its-range" {
			r.ledger.hold("14 agree", rv.Expected.Past, func() string {
				return fmt.Sprintf("%s: %s is said to stick, and to be in its usual range", name, rv.Title)
			})
		}
		if rv.Foothold != nil && !rv.Polished && rv.Target >= v.Today && rv.Target != "" && rv.Target.Sub(v.Today) <= 21 {
			r.ledger.hold("20 polished", over || said[rv.ID+" polish-for"], func() string { return fmt.Sprintf("%s: %s has its day on %s", name, rv.Title, rv.Target) })
		}
		if rv.State == ladder.Current && rv.Taught != nil {
			if _, told := r.seen.told[rv.ID]; !told && rv.Expected != nil {
				if p := r.mind.pieces[rv.ID]; p != nil && p.lessons <= 1 {
					r.seen.told[rv.ID] = *rv.Expected
				}
			}
		}
		if rv.State == ladder.Ahead || rv.State == "proposed" || rv.State == ladder.Current {
			coming[rv.Strand]++
		}
		if rv.State != "proposed" {
			continue
		}
		unknown := 0
		for _, id := range r.items[rv.Item].Needs {
			if !r.mind.knows[id] && !r.onTheWay(v, rv, id) {
				unknown++
			}
		}
		r.ledger.hold("17 fit", unknown < 3, func() string {
			return fmt.Sprintf("%s proposes %s, of which %d needs are unknown", name, rv.Title, unknown)
		})
	}
	for _, lane := range []shelf.Strand{shelf.Book, shelf.Technique, shelf.Reading, shelf.Repertoire} {
		if len(v.Rungs) > 0 && !over && v.Mixture == nil && !r.seen.ache {
			r.ledger.hold("17 lanes", coming[lane] > 0 || said[string(lane)], func() string { return fmt.Sprintf("%s: nothing of %s comes, and no word of it", name, lane) })
		}
	}
	for _, h := range v.HeadStarts {
		was, foretold := r.seen.due[h.Skill]
		r.seen.due[h.Skill] = h.Due
		if h.Done == len(h.Tasks) && len(h.Tasks) > 0 {
			if _, before := r.seen.finished[h.Skill]; !before {
				r.seen.finished[h.Skill] = v.Today
				due := h.Due // as the teacher saw it when the last step was shown
				if foretold {
					due = min(due, was)
				}
				r.ledger.hold("16 ahead", due <= 5, func() string { return fmt.Sprintf("%s: %s is ready %d weeks before %s", name, h.Name, h.Due, h.Title) })
			}
		}
	}
}

// onTheWay reports whether a skill is brought by something before a proposal.
func (r *run) onTheWay(v places.LadderView, at places.RungView, skill string) bool {
	for _, rv := range v.Rungs {
		if rv.ID == at.ID {
			return false
		}
		for _, id := range r.items[rv.Item].Brings {
			if id == skill {
				return true
			}
		}
	}
	return false
}
