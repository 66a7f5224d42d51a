package library

import (
	"context"
	"errors"
	"slices"
	"time"

	"patientladder/core/ladder"
	"patientladder/studio"
)

// A PlayedBy is a student who has an item on the ladder.
type PlayedBy struct {
	Student  string       `json:"student"`
	Name     string       `json:"name"`
	Rung     string       `json:"rung"`
	State    ladder.State `json:"state" enum:"ahead,current,secure,parked"`
	Polished bool         `json:"polished"`
	Since    *time.Time   `json:"since,omitempty" doc:"of the state: its first lesson, or its foothold"`
}

// players lists who has an item on the ladder.
func players(ctx context.Context, r studio.Room, item string) ([]PlayedBy, error) {
	students, err1 := r.Students(ctx)
	standings, err2 := r.Lived(ctx, students, studio.Placed)
	if err := errors.Join(err1, err2); err != nil {
		return nil, studio.Failed(err, "studio")
	}
	out := []PlayedBy{}
	for _, st := range students {
		s := standings[st.ID].Standing
		for _, rung := range s.Rungs {
			if rung.Item.ID != item && rung.Item.SameAs != item {
				continue
			}
			p := PlayedBy{Student: st.ID, Name: st.Name(), Rung: rung.ID, State: s.State(rung), Polished: rung.Polished, Since: rung.Taught}
			if rung.Foothold != nil {
				p.Since = rung.Foothold
			}
			out = append(out, p)
		}
	}
	order := []ladder.State{ladder.Current, ladder.Ahead, ladder.Secure, ladder.Parked}
	slices.SortStableFunc(out, func(a, b PlayedBy) int { return slices.Index(order, a.State) - slices.Index(order, b.State) })
	return out, nil
}
