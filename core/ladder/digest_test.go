package ladder

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/fact"
)

// digest writes a standing as lines, one a thing, in an order of its own: what
// two readings of the same log must agree on.
func digest(s Standing) string {
	var b strings.Builder
	say := func(format string, a ...any) { fmt.Fprintf(&b, format+"\n", a...) }
	at := func(t *time.Time) string {
		if t == nil {
			return "-"
		}
		return t.UTC().Format(time.RFC3339Nano)
	}
	for _, r := range s.Rungs {
		say("rung %s %s %s %s added %s taught %s foothold %s polished %v held %q target %q best %d opened %d failed %d ready %v holding %q",
			r.ID, r.Item.ID, r.Strand, s.State(r), at(&r.Added), at(r.Taught), at(r.Foothold), r.Polished, r.Held, r.Target, r.Best, r.Opened, r.Failed(), r.Ready(), r.Holding())
		for _, p := range r.Parts {
			say("  part %s %s", p.Name, at(p.Foothold))
		}
		for _, p := range r.Points {
			say("  point %s %q own %v %s %s", p.Key, p.Name, p.Own, p.State, at(p.Since))
		}
		for _, p := range r.Spots {
			say("  spot %s %q %d of %d", p.ID, p.Where, p.Done, p.Goal)
		}
		for _, t := range r.Tries {
			why := "-"
			if t.Why != nil {
				why = t.Why.Code
			}
			say("  try %q %s %s %s", t.Part, at(&t.At), t.Outcome, why)
		}
		for _, h := range r.Heard {
			say("  heard %s %s", h.Grade, at(&h.At))
		}
		for _, j := range r.Judged {
			say("  judged %q %s %s", j.Point, j.Outcome, at(&j.At))
		}
		for _, h := range r.Home {
			say("  home %s", at(&h))
		}
	}
	for _, o := range s.Own {
		say("own %s %q since %s run %d gone %v", o.Key, o.Name, at(&o.Since), o.Run, o.Gone)
	}
	for _, p := range s.Practice {
		say("practice %s %s %d %q", p.ID, p.Day, p.Minutes, p.Feel)
	}
	opened := func(word string, m map[string]time.Time) {
		for _, k := range slices.Sorted(maps.Keys(m)) {
			t := m[k]
			say("%s %s %s", word, k, at(&t))
		}
	}
	opened("opened", plain(s.Opened))
	opened("closed", plain(s.Closed))
	opened("asked", s.Asked)
	say("unplaced %v", s.Unplaced)
	say("books %q began %q before %v taste %q", s.Books, s.Began, s.BeforeBook, s.Taste)
	each(say, "probe", s.Probes, func(p Probe) string { return p.Outcome + " " + at(&p.At) })
	each(say, "prepared", s.Prepared, func(h HeadStart) string { return fmt.Sprint(h.Done, " ", at(&h.Last)) })
	each(say, "approach", plain(s.Approach), func(v approach.School) string { return string(v) })
	each(say, "overruled", s.Overruled, func(o Overrule) string { return o.Outcome + " " + at(&o.At) })
	each(say, "missed", plain(s.Missed), func(v Cancelled) string { return v.Why })
	each(say, "extra", plain(s.Extra), func(v string) string { return v })
	each(say, "remote", plain(s.Remote), func(v bool) string { return fmt.Sprint(v) })
	each(say, "changes", plain(s.Changes), changed)
	each(say, "activity", s.Activities, func(m ActivityMark) string { return fmt.Sprint(m.Days, m.Level, m.Outcome) })
	for _, x := range s.Seen {
		say("seen %s %s", x.Fault, at(&x.At))
	}
	say("body %s", at(&s.Body.At))
	for _, m := range []struct {
		name string
		cm   float64
	}{{"elbow", s.Body.CM.Elbow}, {"lowerLeg", s.Body.CM.LowerLeg}, {"stature", s.Body.CM.Stature}} {
		if m.cm > 0 {
			say("  cm %s %v", m.name, m.cm)
		}
	}
	say("mood %q", s.Mood)
	if s.Ache != nil {
		say("ache %s %q %s", s.Ache.Side, s.Ache.Where, at(&s.Ache.At))
	}
	say("home days %v %d", s.HomeDays.Days, s.HomeDays.Minutes)
	for _, q := range s.Questions {
		say("question %s %q %s", q.ID, q.Text, at(&q.At))
	}
	for _, t := range s.Ticks {
		say("tick %s %s %s", t.ID, t.Day, t.Line)
	}
	if t := s.Treat; t != nil {
		say("treat %q %s %d since %s", t.Name, t.Counts, t.Goal, at(&t.Since))
	}
	return b.String()
}

func plain[K ~string, V any](m map[K]V) map[string]V {
	out := make(map[string]V, len(m))
	for k, v := range m {
		out[string(k)] = v
	}
	return out
}

func each[V any](say func(string, ...any), word string, m map[string]V, tell func(V) string) {
	for _, k := range slices.SortedFunc(maps.Keys(m), cmp.Compare[string]) {
		say("%s %s %s", word, k, tell(m[k]))
	}
}

func changed(list []fact.Body) string {
	var out []string
	say := func(block, do string, minutes int, into, after string) {
		out = append(out, fmt.Sprintf("%s %s minutes %d into %q after %q", block, do, minutes, into, after))
	}
	for _, b := range list {
		switch c := b.(type) {
		case fact.BlockTimed:
			say(c.Block, "minutes", c.Minutes, "", "")
		case fact.BlockSwapped:
			say(c.Block, "swap", 0, c.Into, "")
		case fact.BlockMoved:
			say(c.Block, "after", 0, "", c.After)
		case fact.BlockDropped:
			say(c.Block, "drop", 0, "", "")
		case fact.BlockAdded:
			say(c.Into, "add", 0, "", "")
		case fact.LessonLength:
			say("lesson", "length", c.Minutes, "", "")
		}
	}
	return strings.Join(out, "; ")
}
