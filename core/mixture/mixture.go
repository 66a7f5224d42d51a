// Package mixture plans for a student who has not begun the first book: there
// is no order yet, only many small things, each a success of its own, and one
// test that says when book one can begin.
package mixture

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// A Bit is one small thing of a lesson's mixture.
type Bit struct {
	Rung string        `json:"rung"`
	Item string        `json:"item"`
	Why  reason.Reason `json:"why"`
}

// size is how many bits a lesson mixes: four to six aims are usual at three to
// five years (common practice, no source).
const size = 5

// Of picks the mixture of the next lesson: one thing that goes already, to
// begin with, then things of different areas, those in hand before new ones and
// those not seen for longest first.
func Of(s ladder.Standing, g skill.Graph, known upkeep.Known) []Bit {
	var going, open []ladder.Rung
	for _, r := range s.Rungs {
		switch {
		case r.Parked:
		case r.Foothold == nil && passed(s, r.Item): // its test was passed: its games have stopped
		case r.Foothold != nil:
			going = append(going, r)
		default:
			open = append(open, r)
		}
	}
	var out []Bit
	put := func(r ladder.Rung, code string, pairs ...string) {
		out = append(out, Bit{r.ID, r.Item.ID, reason.Of(code, append([]string{"title", r.Item.Title}, pairs...)...)})
	}
	slices.SortStableFunc(going, func(a, b ladder.Rung) int { return cmp.Compare(known.Recall[b.ID], known.Recall[a.ID]) })
	if len(going) > 0 {
		put(going[0], "goes-already")
	}
	slices.SortStableFunc(open, func(a, b ladder.Rung) int { return cmp.Compare(turn(a), turn(b)) })
	taken := map[skill.Area]bool{}
	for range 2 { // first one of each area, then what is left
		for _, r := range open {
			area := areaOf(r.Item, g)
			if len(out) >= size || taken[area] || slices.ContainsFunc(out, func(b Bit) bool { return b.Rung == r.ID }) {
				continue
			}
			taken[area] = true
			if r.Taught == nil {
				put(r, "new-small-thing", "area", string(area))
			} else {
				put(r, "small-thing-going", "area", string(area))
			}
		}
		clear(taken)
	}
	return out
}

// passed reports whether all that a thing brings was passed in a first meeting.
func passed(s ladder.Standing, it shelf.Item) bool {
	return len(it.Brings) > 0 && !slices.ContainsFunc(it.Brings, func(id string) bool { return s.Probes[id].Outcome != fact.Pass })
}

// turn orders open things: one or two lessons old first, then new, then those
// that were worked at often already.
func turn(r ladder.Rung) int {
	switch marks := len(r.Tries) + r.MetPoints(); {
	case r.Taught != nil && marks < 3:
		return 0
	case r.Taught == nil:
		return 1
	}
	return 2
}

func areaOf(it shelf.Item, g skill.Graph) skill.Area {
	for _, id := range it.Skills() {
		return g[id].Area
	}
	return ""
}

// A Sign is one thing that the test for book one looks for.
type Sign struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	Met   bool   `json:"met" doc:"a thing that brings it is secure, or its probe was passed"`
}

// signs lists what book one takes for granted on every instrument; each adds its own
// (instrument.Profile.First). Common practice, no source.
var signs = []string{"left-right", "high-low", "steady-beat", "echo-rhythm", "sing-back"}

// steady is the sign that cannot be missing: without it no note values.
const steady = "steady-beat"

// A Test says how near book one is. It is passed when the teacher says so: the
// student, shown a tune of five notes once, sets the hand alone and plays it
// back in a steady beat.
type Test struct {
	Signs []Sign     `json:"signs"`
	Near  bool       `json:"near" doc:"all signs but one are met, the beat among them: time to try the test"`
	Tried string     `json:"tried" enum:",pass,nearly,not-yet"`
	At    *time.Time `json:"at,omitempty"`
}

// FirstBook reads the test from a standing. A sign that was there stays: its
// games have stopped.
func FirstBook(s ladder.Standing, g skill.Graph, plays instrument.Profile) Test {
	t := Test{}
	met := 0
	brought := map[string]bool{} // it must have been the point of something, not only used in it
	for _, r := range s.In(ladder.Secure) {
		for _, id := range r.Item.Brings {
			brought[id] = true
		}
	}
	for _, id := range slices.Concat(signs, plays.First) {
		sign := Sign{id, g.Name(id), brought[id] || s.Probes[id].Outcome == "pass"}
		if sign.Met {
			met++
		}
		t.Signs = append(t.Signs, sign)
	}
	t.Near = met >= len(t.Signs)-1 && (brought[steady] || s.Probes[steady].Outcome == "pass")
	if p, tried := s.Probes[fact.FirstBook]; tried {
		t.Tried, t.At = p.Outcome, &p.At
	}
	return t
}
