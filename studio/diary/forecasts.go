package diary

import (
	"context"

	"patientladder/core/climb"
	"patientladder/studio"
)

// A ForecastsView tells how the studio's forecasts held.
type ForecastsView struct {
	Kept  int         `json:"kept" doc:"footholds that came in the weeks foretold at the first lesson"`
	Of    int         `json:"of"`
	Usual climb.Range `json:"usual" doc:"weeks of a usual piece that a new student is foretold here"`
}

// Forecasts looks back over what was foretold of all students.
func Forecasts(ctx context.Context, a *studio.App, who studio.Who) (ForecastsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return ForecastsView{}, err
	}
	students, err := r.Students(ctx)
	if err != nil {
		return ForecastsView{}, studio.Failed(err, "studio")
	}
	var all []climb.Foretold
	for _, st := range students {
		p, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return ForecastsView{}, err
		}
		all = append(all, climb.Foretell(p.AsStudent(p.Standing, p.Approach, p.Room.Now))...)
	}
	everyone, err := a.Among(ctx, r, "")
	if err != nil {
		return ForecastsView{}, err
	}
	return ForecastsView{climb.Kept(all), len(all), climb.Prior.Among(everyone).Range()}, nil
}
