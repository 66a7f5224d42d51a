package year

import (
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/week"
	"patientladder/studio/places"
)

// home lives the days after a lesson up to the next.
func (r *run) home(k int, after, next calendar.Date) error {
	v, err := places.Week(r.ctx, r.app, r.who, r.id, "", 0)
	if err != nil {
		return err
	}
	if next == "" {
		next = after.Add(7)
	}
	share := r.life.days
	practised := 0
	for d := after.Add(1); d < next; d = d.Add(1) {
		if r.has(k, idle) || r.has(k, thin) && practised > 0 || r.seen.ache || !r.mind.chance(share) {
			continue
		}
		var tasks []week.Task
		asked := false
		if v.Sheet != nil {
			for _, sd := range v.Sheet.Days {
				if sd.Date == d {
					tasks, asked = sd.Tasks, !sd.Off
				}
			}
		}
		if !asked && !r.mind.chance(0.3) {
			continue
		}
		practised++
		r.at = d.Midnight(r.place).Add(18 * time.Hour)
		*r.clock = r.at
		minutes := 0
		for _, t := range tasks {
			minutes += t.Minutes
		}
		r.say(fact.Practised{Day: d, Minutes: max(minutes, 5), Felt: r.life.feel[r.rng.IntN(len(r.life.feel))]})
		r.ledger.Count("minutes practised", float64(max(minutes, 5)))
		r.seen.told3 = append(r.seen.told3, spent{d, max(minutes, 5)})
		for _, t := range tasks {
			if t.Rung != "" && !t.Listen {
				if p := r.mind.pieces[t.Rung]; p != nil && p.secure {
					p.again(d)
				} else if p != nil && p.begun {
					p.works(0.5 / 4.5 / float64(times(tasks, t.Rung)))
				}
			}
			if r.mind.chance(0.7) {
				r.say(fact.Ticked{Day: d, Document: v.Document.ID, Line: t.Key, Rung: t.Rung})
				r.seen.ticked[[2]string{v.Document.ID, t.Key}] = true
			}
		}
		if err := r.deliver(fact.Family); err != nil {
			return err
		}
	}
	r.seen.practised = append(r.seen.practised, practised)
	return r.covered(after.Add(1), next.Add(-1))
}

// times is how many tasks of a day are about a rung.
func times(tasks []week.Task, rung string) int {
	n := 0
	for _, t := range tasks {
		if t.Rung == rung {
			n++
		}
	}
	return n
}
