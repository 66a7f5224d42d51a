package studio

import (
	"context"
	"slices"
	"sync"

	"patientladder/core/calendar"
	"patientladder/core/climb"
)

// paces remembers of each studio how long its students take, reckoned once a day: it moves
// slowly, and asks for the facts of all.
type paces struct {
	mu sync.Mutex
	of map[string]*pacesOf
}

type pacesOf struct {
	mu   sync.Mutex // who asks while it is reckoned waits for it
	day  calendar.Date
	mean map[string]float64 // of ln(weeks), by student
}

func newPaces() *paces { return &paces{of: map[string]*pacesOf{}} }

// studio is what is remembered of one.
func (p *paces) studio(id string) *pacesOf {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.of[id] == nil {
		p.of[id] = &pacesOf{}
	}
	return p.of[id]
}

// forget drops what is remembered of a studio.
func (p *paces) forget(id string) {
	p.mu.Lock()
	defer p.mu.Unlock()
	delete(p.of, id)
}

// among returns the paces of a studio's students but one.
func (a *App) among(ctx context.Context, r room, but string) ([]float64, error) {
	at := a.paces.studio(r.row.ID)
	at.mu.Lock()
	defer at.mu.Unlock()
	if at.day != r.today() {
		standings, err := r.standings(ctx, speeds)
		if err != nil {
			return nil, err
		}
		at.day, at.mean = r.today(), map[string]float64{}
		for id, s := range standings {
			if mean, ok := climb.Middle(s); ok {
				at.mean[id] = mean
			}
		}
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
