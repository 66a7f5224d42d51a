package ladder

import (
	"slices"

	"patientladder/core/approach"
	"patientladder/core/exercise"
)

// stage is how far a rung's exercise is: which keys of a cycle are learnt, and in how
// many lessons the one that is due was worked on.
func (r Rung) stage() exercise.Stage {
	at := exercise.Stage{Week: 1}
	if r.Taught == nil {
		return at
	}
	begun := *r.Taught
	for i, p := range r.Parts {
		if p.Foothold != nil {
			at.Done = append(at.Done, i)
			if p.Foothold.After(begun) {
				begun = *p.Foothold
			}
		}
	}
	at.Week = r.LessonsOn(begun)
	return at
}

// Exercises returns what is practised now of a rung whose notes are made by rule; none of
// another.
func (r Rung) Exercises(a approach.Approach) []exercise.Spec {
	spec, err := exercise.Parse(r.Item.Exercise)
	if err != nil {
		return nil
	}
	return spec.Fit(a, r.stage())
}

// InTurn returns the places of a rung's parts in the order in which they are learnt: of a
// cycle of keys that of the student's school.
func (r Rung) InTurn(a approach.Approach) []int {
	out := make([]int, len(r.Parts))
	for i := range out {
		out[i] = i
	}
	if spec, err := exercise.Parse(r.Item.Exercise); err == nil && r.Item.Cycle() {
		if order := spec.Order(a); len(order) == len(out) {
			return order
		}
	}
	return out
}

// DuePart returns the place of the part that is learnt now; -1 where there are no parts
// or all are learnt.
func (r Rung) DuePart(a approach.Approach) int {
	turn := r.InTurn(a)
	i := slices.IndexFunc(turn, func(place int) bool { return r.Parts[place].Foothold == nil })
	if i < 0 {
		return -1
	}
	return turn[i]
}
