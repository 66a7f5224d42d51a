package studio

import (
	"context"
	"errors"
	"slices"
	"time"

	"patientladder/core/fact"
	"patientladder/core/ladder"
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

// placing are the kinds of facts that say where a rung stands.
var placing = []fact.Body{fact.RungAdded{}, fact.RungMoved{}, fact.RungParked{}, fact.RungResumed{}, fact.Taught{}, fact.FootholdTried{}, fact.Polished{}, fact.BeforeBook{}, fact.Probed{}}

// players lists who has an item on the ladder.
func (r room) players(ctx context.Context, item string) ([]PlayedBy, error) {
	students, err1 := r.Students(ctx)
	standings, err2 := r.lived(ctx, students, places)
	if err := errors.Join(err1, err2); err != nil {
		return nil, told(err, "studio")
	}
	out := []PlayedBy{}
	for _, st := range students {
		s := standings[st.ID].standing
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
