package advice

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/home"
	"patientladder/core/judgement"
	"patientladder/core/reason"
)

// mostMoves is how many forecasts that moved are told.
const mostMoves = 3

// Since says what moved since an earlier standing of the student: footholds, what was taken up, the
// forecasts that shifted most, head starts, and the days practised.
func (w Way) Since(was climb.Student) []reason.Reason {
	s, then, before := was.Standing, was.Now, climb.Foresee(was)
	passed := 0.0
	if len(w.Calendar.Lessons(w.Slot, calendar.On(then).Add(1), w.Today())) > 0 {
		passed = 1
	}
	type moved struct {
		weeks float64
		why   reason.Reason
	}
	out, moves := []reason.Reason{}, []moved{}
	for _, r := range w.Standing.Rungs {
		was, there := s.Rung(r.ID)
		switch {
		case r.Foothold != nil && was.Foothold == nil:
			out = append(out, reason.Of("foothold", "title", r.Item.Title))
		case r.Taught != nil && was.Taught == nil:
			out = append(out, reason.Of("taught", "title", r.Item.Title))
		case there:
			e, ok1 := w.Expect(r.ID)
			f, ok2 := before.Expect(r.ID)
			if !ok1 || !ok2 {
				continue
			}
			switch by := e.In.Mid + passed - f.In.Mid; {
			case by >= judgement.ForecastShift:
				moves = append(moves, moved{by, reason.Of("shifted-later", "title", r.Item.Title, "weeks", weeks(by))})
			case by <= -judgement.ForecastShift:
				moves = append(moves, moved{-by, reason.Of("shifted-sooner", "title", r.Item.Title, "weeks", weeks(-by))})
			}
		}
	}
	slices.SortStableFunc(moves, func(a, b moved) int { return cmp.Compare(b.weeks, a.weeks) })
	for _, m := range moves[:min(len(moves), mostMoves)] {
		out = append(out, m.why)
	}
	for _, id := range slices.Sorted(maps.Keys(w.Standing.Prepared)) {
		if done := w.Standing.Prepared[id].Done; done > s.Prepared[id].Done {
			out = append(out, reason.Of("prepared-more", "skill", w.Graph.Name(id), "done", strconv.Itoa(done), "of", strconv.Itoa(len(w.Graph[id].Chain))))
		}
	}
	from := calendar.On(then).Add(1)
	practised := len(home.Days(w.Standing, from, w.Today()))
	mean, told := home.Minutes(w.Standing, from, w.Today())
	return append(out, reason.Of("practised-week", "days", strconv.Itoa(practised), "minutes", strconv.Itoa(int(math.Round(mean*float64(told))))))
}

func weeks(w float64) string { return strconv.Itoa(int(w + 0.5)) }
