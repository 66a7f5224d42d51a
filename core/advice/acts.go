// Package advice says what a person may do next.
//
// An act is a code, the key that does it, and the facts that it tells; a screen
// draws it and sends it, and decides nothing. What is not among the acts of a view
// cannot be done there now.
package advice

import (
	"patientladder/core/approach"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// Proposed is the acts of a rung that is proposed and not on the ladder: to place
// it, or to lay it aside so that it is not proposed again.
func Proposed(r *ladder.Rung) []fact.Act {
	place := fact.RungAdded{Item: r.Item.ID, Strand: string(r.Strand), After: fact.Top, Revision: r.Item.Revision}
	aside := place
	aside.Parked = true
	return []fact.Act{fact.Do("place", "a", place), fact.Do("leave-out", "x", aside)}
}

// OnLadder is what a teacher may do to each rung in its lane, by rung: what is secure
// stays where it is, and nothing sinks below it; what was not begun may be taken off again.
func OnLadder(s ladder.Standing) map[string][]fact.Act {
	out := make(map[string][]fact.Act, len(s.Rungs))
	var below []string // ids of the lane so far, and whether the last of them is secure
	var secure bool
	for i := range s.Rungs {
		r := &s.Rungs[i]
		if i == 0 || s.Rungs[i-1].Strand != r.Strand {
			below, secure = below[:0], false
		}
		acts := []fact.Act{}
		switch n := len(below); {
		case r.Foothold != nil:
			if !r.Polished {
				acts = append(acts, fact.Do("polish", "m", fact.Polished{Rung: r.ID}))
			}
		default:
			if n > 0 && !secure {
				after := ""
				if n > 1 {
					after = below[n-2]
				}
				acts = append(acts, fact.Do("down", "[", fact.RungMoved{Rung: r.ID, After: after}))
			}
			if i+1 < len(s.Rungs) && s.Rungs[i+1].Strand == r.Strand {
				acts = append(acts, fact.Do("up", "]", fact.RungMoved{Rung: r.ID, After: s.Rungs[i+1].ID}))
			}
			if r.Parked {
				acts = append(acts, fact.Do("resume", "p", fact.RungResumed{Rung: r.ID}))
			} else {
				acts = append(acts, fact.Do("park", "p", fact.RungParked{Rung: r.ID}))
			}
			for _, strand := range shelf.Strands {
				if strand != r.Strand {
					acts = append(acts, fact.Do("lane-"+string(strand), "", fact.RungMoved{Rung: r.ID, After: fact.Top, Strand: string(strand)}))
				}
			}
			if r.Taught == nil && r.MetPoints() == 0 {
				acts = append(acts, fact.Do("take-off", "x", fact.Retracted{Ref: r.ID})) // that it was placed
			}
		}
		if r.Revision < r.Item.Revision {
			acts = append(acts, fact.Do("take-over", "v", fact.RungRevised{Rung: r.ID, Revision: r.Item.Revision}))
		}
		out[r.ID] = acts
		below, secure = append(below, r.ID), r.Foothold != nil
	}
	return out
}

// criteria are what a foothold asks for, all of it: through unaided, notes and
// rhythm right, fingering or strokes right, tone and pitch tolerable. Common
// practice, no source.
var criteria = []string{"unaided", "notes", "rhythm", "fingering", "tone"}

// OnPiece is what a teacher may do to a piece in hand in its lesson: give it its
// first lesson, grant the foothold of it or of the part that is due by the student's
// approach, or of another part, or say what is still missing.
func OnPiece(r *ladder.Rung, a approach.Approach) []fact.Act {
	acts := []fact.Act{}
	if r.Foothold != nil {
		return acts
	}
	if r.Taught == nil {
		acts = append(acts, fact.Do("taught", "t", fact.Taught{Rung: r.ID}))
	}
	part := ""
	if due := r.DuePart(a); due >= 0 {
		part = r.Parts[due].ID
	}
	acts = append(acts, fact.Do("grant", "f", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.Granted}),
		fact.Do("not-yet", "g", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.NotYet}))
	for _, c := range criteria {
		acts = append(acts, fact.Do("not-yet:"+c, "", fact.FootholdTried{Rung: r.ID, Part: part, Outcome: fact.NotYet, Note: c}))
	}
	for _, p := range r.Parts {
		if p.Foothold == nil && p.ID != part {
			acts = append(acts, fact.Do("grant:"+p.ID, "", fact.FootholdTried{Rung: r.ID, Part: p.ID, Outcome: fact.Granted}))
		}
	}
	return acts
}
