package studio

import (
	"context"
	"slices"
	"sync"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
)

// paces remembers of each studio how long its students take, reckoned once a day: it moves
// slowly, and asks for the facts of all.
type paces struct {
	mu sync.Mutex
	of map[string]pacesOf
}

type pacesOf struct {
	day  calendar.Date
	mean map[string]float64 // of ln(weeks), by student
}

func newPaces() *paces { return &paces{of: map[string]pacesOf{}} }

// among returns the paces of a studio's students but one.
func (a *App) among(ctx context.Context, r room, but string) ([]float64, error) {
	a.paces.mu.Lock()
	at, there := a.paces.of[r.row.ID]
	a.paces.mu.Unlock()
	if !there || at.day != r.today() {
		items, err := r.Items(ctx)
		if err != nil {
			return nil, told(err, "shelf")
		}
		standings, err := r.standings(ctx, byID(items), fact.RungAdded{}, fact.Taught{}, fact.FootholdTried{}, fact.LessonClosed{})
		if err != nil {
			return nil, err
		}
		at = pacesOf{r.today(), map[string]float64{}}
		for id, s := range standings {
			if mean, ok := climb.Middle(s); ok {
				at.mean[id] = mean
			}
		}
		a.paces.mu.Lock()
		a.paces.of[r.row.ID] = at
		a.paces.mu.Unlock()
	}
	out := make([]float64, 0, len(at.mean))
	for id, mean := range at.mean {
		if id != but {
			out = append(out, mean)
		}
	}
	slices.Sort(out) // sums are the same every time
	return out, nil
}

// A ForecastsView tells how the studio's forecasts held.
type ForecastsView struct {
	Kept  int         `json:"kept" doc:"footholds that came in the weeks foretold at the first lesson"`
	Of    int         `json:"of"`
	Usual climb.Range `json:"usual" doc:"weeks of a usual piece that a new student is foretold here"`
}

// Forecasts looks back over what was foretold of all students.
func (a *App) Forecasts(ctx context.Context, who Who) (ForecastsView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return ForecastsView{}, err
	}
	students, err := r.Students(ctx)
	if err != nil {
		return ForecastsView{}, told(err, "studio")
	}
	var all []climb.Foretold
	for _, st := range students {
		p, err := a.pupil(ctx, who, st.ID)
		if err != nil {
			return ForecastsView{}, err
		}
		all = append(all, climb.Foretell(p.asStudent(p.standing, p.Approach, p.room.now))...)
	}
	everyone, err := a.among(ctx, r, "")
	if err != nil {
		return ForecastsView{}, err
	}
	return ForecastsView{climb.Kept(all), len(all), climb.Prior.Among(everyone).Range()}, nil
}
