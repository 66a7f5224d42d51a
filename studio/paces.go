package studio

import (
	"context"
	"slices"

	"patientladder/core/climb"
)

// Among returns the paces of a studio's students but one: the means of ln(weeks), in order, so that sums
// are the same every time. They follow from the facts as the database has them now, so that every copy
// of the program says the same.
func (a *App) Among(ctx context.Context, r Room, but string) ([]float64, error) {
	students, err := r.Turns(ctx)
	if err != nil {
		return nil, Failed(err, "student")
	}
	lived, err := r.Lived(ctx, students, speeds)
	if err != nil {
		return nil, err
	}
	out := make([]float64, 0, len(lived))
	for id, h := range lived {
		if mean, ok := climb.Middle(h.Standing); ok && id != but {
			out = append(out, mean)
		}
	}
	slices.Sort(out)
	return out, nil
}
