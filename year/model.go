package year

import (
	"math"
	"math/rand/v2"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A mind is what a student really can: the truth behind a life. The app never sees it, and
// it reads nothing of the app's but what stands on the shelf of an item.
type mind struct {
	rng    *rand.Rand
	pace   float64 // lesson weeks of a usual piece
	knows  map[string]bool
	pieces map[string]*piece // by rung
	tasted map[string]int    // by skill: tasks of its head start that were done
	met    int               // skills that a piece asked for and that were neither known nor prepared when it began
}

// A piece is what a student knows of an item.
type piece struct {
	item    shelf.Item
	weeks   float64 // of lessons and practice that it takes
	done    float64 // of them
	begun   bool
	secure  bool
	silent  int     // lessons that left it out, running
	keeps   float64 // days until it is half forgotten
	played  calendar.Date
	lessons int // given since it was begun, that one included
}

func newMind(l life, seed uint64, books []shelf.Item) *mind {
	m := &mind{rng: rand.New(rand.NewPCG(seed, 40)), knows: map[string]bool{}, tasted: map[string]int{}, pieces: map[string]*piece{}}
	m.pace = l.pace * math.Exp(0.2*m.rng.NormFloat64())
	for _, it := range books { // what comes before the place to begin
		if it.ID == l.begin || l.begin == "" || l.begin == "before" {
			break
		}
		for _, id := range it.Brings {
			m.learn(id)
		}
	}
	for _, id := range climb.Presumed(skill.Catalogue(), books, l.begin) {
		m.learn(id)
	}
	for _, id := range l.lacks {
		delete(m.knows, id)
	}
	return m
}

// begin draws how long an item takes: more with each thing that is new or not there, and
// with its length.
func (m *mind) begin(p *piece) {
	p.begun = true
	unknown := 0.0
	for _, list := range [][]string{p.item.Brings, p.item.Needs} {
		for _, id := range list {
			if m.knows[id] {
				continue
			}
			ready := m.prepared(id)
			if unknown += 1 - eased*ready; ready < 0.5 && p.item.Strand != shelf.Technique && p.item.Strand != shelf.Reading {
				m.met++
			}
		}
	}
	size := 0.55 + 0.3*unknown + 0.02*float64(min(max(p.item.Different, p.item.Bars/2), 30))
	p.weeks = m.pace * size * math.Exp(0.3*m.rng.NormFloat64())
	if p.item.Staves > 1 { // a hand, the other, both
		p.weeks = max(p.weeks, 3)
	}
}

// eased is the part of what a new skill costs that its whole head start takes off. It is
// an assumption of the model: nobody has measured it.
const eased = 0.5

// prepares is a task of a head start done.
func (m *mind) prepares(skill string) { m.tasted[skill]++ }

// prepared is how much of a skill's head start was done, 0 to 1.
func (m *mind) prepared(id string) float64 {
	if len(graph[id].Chain) == 0 {
		return 0
	}
	return min(float64(m.tasted[id])/float64(len(graph[id].Chain)), 1)
}

// works is a lesson on a piece, or a day of practice.
func (p *piece) works(weeks float64) { p.done += weeks }

// share is how far a piece is: 1 when it can be granted.
func (p *piece) share() float64 {
	if p.weeks <= 0 {
		return 0
	}
	return p.done / p.weeks
}

// secured makes a piece secure.
func (m *mind) secured(p *piece, day calendar.Date) {
	p.secure, p.played, p.keeps = true, day, 14
	for _, id := range p.item.Brings {
		m.learn(id)
	}
}

// learn has a skill known with all that it rests on.
func (m *mind) learn(id string) {
	if m.knows[id] {
		return
	}
	m.knows[id] = true
	for _, below := range graph[id].RestsOn {
		m.learn(below)
	}
}

var graph = skill.Catalogue()

// again is a playing of a secure piece: it keeps longer for it.
func (p *piece) again(day calendar.Date) {
	p.keeps = min(p.keeps*(1+0.12*math.Min(float64(day.Sub(p.played)), 14)/3), 240)
	p.played = day
}

// recall is how likely a secure piece is played well on a day.
func (p *piece) recall(day calendar.Date) float64 {
	return math.Exp2(-float64(day.Sub(p.played)) / p.keeps)
}

// grade is how a secure piece sounds on a day.
func (m *mind) grade(p *piece, day calendar.Date) string {
	switch r := p.recall(day) + 0.12*m.rng.NormFloat64(); {
	case r > 0.85:
		return "easily"
	case r > 0.6:
		return "fine"
	case r > 0.35:
		return "rough"
	}
	return "fell-apart"
}

// chance is true once in a while.
func (m *mind) chance(p float64) bool { return m.rng.Float64() < p }
