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

// Among returns the paces of a studio's students but one.
func (a *App) Among(ctx context.Context, r Room, but string) ([]float64, error) {
	at := a.paces.studio(r.Row.ID)
	at.mu.Lock()
	defer at.mu.Unlock()
	if at.day != r.Today() {
		standings, err := r.Standings(ctx, speeds)
		if err != nil {
			return nil, err
		}
		at.day, at.mean = r.Today(), map[string]float64{}
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
