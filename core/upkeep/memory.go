// Package upkeep keeps secure pieces alive: what is left of each, by its hearings
// (package memory), and which come up this week.
package upkeep

import (
	"math"
	"time"

	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/memory"
)

// grades are hearings as they are told.
var grades = map[string]memory.Grade{"fell-apart": memory.FellApart, "rough": memory.Rough, "fine": memory.Fine, "easily": memory.Easily}

// Of returns the memory of a secure rung and when it was last played. The try
// that brought the foothold counts as a first hearing that went fine. A day it was played
// at home tells less than a hearing, and no piece is kept for longer than some months.
func Of(r ladder.Rung) (memory.Memory, time.Time) {
	if r.Foothold == nil {
		return memory.Memory{}, time.Time{}
	}
	last := *r.Foothold
	m := memory.Memory{}.Heard(0, memory.Fine)
	heard := func(at time.Time, g memory.Grade) {
		if !at.Before(last) {
			m, last = m.Heard(days(last, at), g), at
			m.Stability = math.Min(m.Stability, judgement.UpkeepLongest)
		}
	}
	played := func(at time.Time) {
		was := m
		heard(at, memory.Fine)
		m = memory.Memory{Stability: was.Stability * math.Pow(m.Stability/was.Stability, judgement.UpkeepTick), Difficulty: was.Difficulty}
	}
	home := r.Home
	for _, h := range r.Heard {
		for len(home) > 0 && home[0].Before(h.At) {
			played(home[0])
			home = home[1:]
		}
		if g, known := grades[h.Grade]; known {
			heard(h.At, g)
		}
	}
	for _, at := range home {
		played(at)
	}
	return m, last
}

// days counts midnights between two moments, so that twice in one lesson is
// the same day.
func days(from, to time.Time) float64 {
	return math.Max(0, float64(midnights(to)-midnights(from)))
}

// midnights counts days since 1970 on the clock of t's own zone.
func midnights(t time.Time) int64 {
	_, offset := t.Zone()
	return (t.Unix() + int64(offset)) / 86400
}
