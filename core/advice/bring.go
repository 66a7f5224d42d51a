package advice

import (
	"slices"

	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A Bring is something that must be at hand for a lesson: notes of what begins in it, a
// book, things that a game needs, a tape to measure with.
type Bring struct {
	Sort  string `json:"sort" enum:"notes,book,things,tape"`
	Says  string `json:"says" doc:"the title of what begins, or the things; empty of the tape"`
	Book  string `json:"book,omitempty" doc:"of what begins"`
	Item  string `json:"item,omitempty" doc:"of which the notes can be printed"`
	After string `json:"after,omitempty" doc:"title of what must get its foothold first; empty of what begins for certain"`
}

// Brings lists what must be at hand for a lesson as it is planned: what begins in it and what
// follows on a piece that is ready to try, then things for its games.
func (w Way) Brings(plan lesson.Plan, seat *reason.Reason) []Bring {
	var out []Bring
	begins := func(it shelf.Item, after string) {
		b := Bring{Sort: "book", Says: it.Title, Book: it.Book, After: after}
		switch {
		case it.HasScore:
			b.Sort, b.Item = "notes", it.ID
		case kindOf(it) != "piece": // told by the program
			return
		}
		if !slices.ContainsFunc(out, func(o Bring) bool { return o.Says == b.Says && o.Book == b.Book }) {
			out = append(out, b)
		}
	}
	for _, b := range plan.Blocks {
		if r, placed := w.Standing.Rung(b.Rung); placed && r.Taught == nil {
			begins(r.Item, "")
		}
	}
	for _, r := range w.Standing.In(ladder.Current) {
		if !r.Ready() {
			continue
		}
		all := w.Standing.Rungs
		at := slices.IndexFunc(all, func(o ladder.Rung) bool { return o.ID == r.ID })
		next := slices.IndexFunc(all[at+1:], func(o ladder.Rung) bool { return o.Strand == r.Strand && o.Taught == nil && !o.Parked })
		if next >= 0 {
			begins(all[at+1+next].Item, r.Item.Title)
		}
	}
	for _, b := range plan.Blocks {
		if b.Activity != nil && b.Activity.Things != "" {
			out = append(out, Bring{Sort: "things", Says: b.Activity.Things})
		}
	}
	if seat != nil {
		out = append(out, Bring{Sort: "tape"})
	}
	return out
}
