package roster

import (
	"context"
	"slices"

	"github.com/oklog/ulid/v2"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/studio"
	"patientladder/studio/places"
)

// A Moved tells how marks that were another student's were taken over.
type Moved struct {
	Moved int            `json:"moved"`
	Left  []places.Entry `json:"left" doc:"marks that have no place with the other student: they stay where they are"`
}

// MoveMarks takes marks that were told of the wrong student over to the right one: there they
// are told with the times that they had, here they are taken back; all or none.
func MoveMarks(ctx context.Context, a *studio.App, who studio.Who, student, to string, marks []string) (Moved, error) {
	if student == to {
		return Moved{}, studio.Refuse("Those marks are this student's already.")
	}
	if len(marks) > studio.MaxFacts/2 {
		return Moved{}, studio.Refuse("%d marks at once; move at most %d.", len(marks), studio.MaxFacts/2)
	}
	from, err := a.Pupil(ctx, who, student)
	if err != nil {
		return Moved{}, err
	}
	right, err := a.Pupil(ctx, who, to)
	if err != nil {
		return Moved{}, err
	}
	var facts []fact.Fact
	ladder.InOrder(from.Facts, func(f fact.Fact) {
		if slices.Contains(marks, f.ID) && (f.By == fact.Teacher || f.By == "") && !studio.IsRetraction(f) {
			facts = append(facts, f)
		}
	})
	entropy := ulid.DefaultEntropy()
	tell, left := ladder.Rehome(facts, from.Standing, right.Standing, to, func(f fact.Fact) string {
		return ulid.MustNew(ulid.Timestamp(f.At), entropy).String()
	})
	out := Moved{len(tell) / 2, places.Entries(&from, left)}
	if out.Moved == 0 {
		return out, studio.Refuse("None of these marks has a place with %s: the pieces are not on that ladder.", right.FirstName)
	}
	return out, a.Tell(ctx, who, tell)
}
