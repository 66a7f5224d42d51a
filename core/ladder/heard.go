package ladder

import (
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/touch"
)

// A Take is one that was measured and kept.
type Take struct {
	At time.Time
	fact.PlayedIn
}

// An Echo is how far listening and answering goes in a skill.
type Echo struct {
	Level  int // the highest that was reached
	At     time.Time
	Rounds int
	Passed bool // its exit test, in a lesson
}

// echoed takes a round. What is passed at home is shown in a lesson before it counts.
func (f *fold) echoed(t fact.Fact, b fact.Echoed) {
	if f.s.Echoes == nil {
		f.s.Echoes = map[string]Echo{}
	}
	e := f.s.Echoes[b.Skill]
	f.s.Echoes[b.Skill] = Echo{max(e.Level, b.Level), t.At, e.Rounds + 1, e.Passed || b.Passed && t.By != fact.Family}
	if b.Passed && t.By != fact.Family {
		f.probed(b.Skill, fact.Pass, t.At)
	}
}

// LastTake is the last take of a rung that is fresh enough to go by; false for none.
func (s Standing) LastTake(rung string, now time.Time) (Take, bool) {
	for i := len(s.Takes) - 1; i >= 0; i-- {
		t := s.Takes[i]
		if t.Rung == rung {
			return t, now.Sub(t.At).Hours() <= 24*judgement.TakeFresh
		}
	}
	return Take{}, false
}

// Said is what a take said first, and holds what a sheet thinks of.
func (t Take) Said() touch.Saying {
	s := touch.Saying{Figure: t.Figure, Hand: t.Hand, Finger: t.Finger, Size: t.Size}
	switch t.Figure { // these have a side, which their size alone does not tell
	case touch.Drift:
		s.Size = t.Drift
	case touch.Lope:
		s.Size = t.Lope
	}
	return s
}

// Even is what the figure of an even take is called.
const Even = "even"

// Evened reports whether the last takes of a rung, on as many days as it takes, were even.
func (s Standing) Evened(rung string, now time.Time) bool {
	days := map[calendar.Date]bool{}
	for i := len(s.Takes) - 1; i >= 0 && len(days) < int(judgement.TakesEven); i-- {
		t := s.Takes[i]
		if t.Rung != rung {
			continue
		}
		if t.Figure != Even || now.Sub(t.At).Hours() > 24*judgement.TakeFresh {
			return false
		}
		days[calendar.On(t.At)] = true
	}
	return len(days) >= int(judgement.TakesEven)
}

// OfEvenness are the points of a rung that an even playing meets, and that are not met yet: those that
// are named so.
func (r Rung) OfEvenness() []Point {
	var out []Point
	for _, p := range r.Points {
		if first, _, _ := strings.Cut(p.Name, " "); p.State != Met && strings.EqualFold(first, "even") {
			out = append(out, p)
		}
	}
	return out
}
