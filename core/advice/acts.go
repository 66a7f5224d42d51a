// Package advice says what a person may do next.
//
// An act is a code, the key that does it, and the facts that it tells; a screen
// draws it and sends it, and decides nothing. What is not among the acts of a view
// cannot be done there now.
package advice

import (
	"slices"

	"patientladder/core/fact"
	"patientladder/core/ladder"
)

// Proposed is the acts of a rung that is proposed and not on the ladder: to place
// it, or to lay it aside so that it is not proposed again.
func Proposed(r ladder.Rung) []fact.Act {
	place := fact.RungAdded{Item: r.Item.ID, Strand: string(r.Strand), After: fact.Top}
	aside := place
	aside.Parked = true
	return []fact.Act{fact.Do("place", "a", place), fact.Do("leave-out", "x", aside)}
}

// OnRung is what a teacher may do to a rung in its lane: what is secure stays where
// it is, and nothing sinks below it.
func OnRung(s ladder.Standing, r ladder.Rung) []fact.Act {
	var lane []ladder.Rung
	for _, other := range s.Rungs {
		if other.Strand == r.Strand {
			lane = append(lane, other)
		}
	}
	i := slices.IndexFunc(lane, func(o ladder.Rung) bool { return o.ID == r.ID })
	acts := []fact.Act{}
	state := s.State(r)
	if state == ladder.Secure {
		if !r.Polished {
			acts = append(acts, fact.Do("polish", "m", fact.Polished{Rung: r.ID}))
		}
		return acts
	}
	if i > 0 && s.State(lane[i-1]) != ladder.Secure {
		after := ""
		if i > 1 {
			after = lane[i-2].ID
		}
		acts = append(acts, fact.Do("down", "[", fact.RungMoved{Rung: r.ID, After: after}))
	}
	if i >= 0 && i < len(lane)-1 {
		acts = append(acts, fact.Do("up", "]", fact.RungMoved{Rung: r.ID, After: lane[i+1].ID}))
	}
	if state == ladder.Parked {
		return append(acts, fact.Do("resume", "p", fact.RungResumed{Rung: r.ID}))
	}
	return append(acts, fact.Do("park", "p", fact.RungParked{Rung: r.ID}))
}

// criteria are what a foothold asks for, all of it: through unaided, notes and
// rhythm right, fingering or strokes right, tone and pitch tolerable. Common
// practice, no source.
var criteria = []string{"unaided", "notes", "rhythm", "fingering", "tone"}

// OnPiece is what a teacher may do to a piece in hand in its lesson: give it its
// first lesson, grant the foothold of it or of the part that is due, or say what is
// still missing.
func OnPiece(r ladder.Rung) []fact.Act {
	acts := []fact.Act{}
	if r.Foothold != nil {
		return acts
	}
	if r.Taught == nil {
		acts = append(acts, fact.Do("taught", "t", fact.Taught{Rung: r.ID}))
	}
	part := ""
	if i := slices.IndexFunc(r.Parts, func(p ladder.Part) bool { return p.Foothold == nil }); i >= 0 {
		part = r.Parts[i].Name
	}
	acts = append(acts, fact.Do("grant", "f", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.Granted}),
		fact.Do("not-yet", "g", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.NotYet}))
	for _, c := range criteria {
		acts = append(acts, fact.Do("not-yet:"+c, "", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.NotYet, Note: c}))
	}
	return acts
}
