package climb

import (
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/home"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
)

// A Break is a stretch without lesson or practice that a student is just
// coming back from. The zero Break is none.
type Break struct {
	Days    int // without anything
	Lessons int // lessons closed since
}

// Light reports whether plans should be lighter now: for the two lessons after
// a break of two weeks or more (common practice, no source).
func (b Break) Light() bool { return b.Days > 0 }

// First reports whether no lesson was given since.
func (b Break) First() bool { return b.Days > 0 && b.Lessons == 0 }

// breakOf finds the break that the coming lesson, or one of the last few,
// follows.
func breakOf(s ladder.Standing, today calendar.Date) Break {
	b, told := breakSince(s, today.Add(-120), today) // years of facts are seldom asked
	if !told {
		b, _ = breakSince(s, "", today)
	}
	return b
}

// breakSince is the same from what was told since a day; false where that is too little.
func breakSince(s ladder.Standing, from, today calendar.Date) (Break, bool) {
	days := home.Days(s, from, today)
	for d := range s.Closed {
		if d >= from {
			days = append(days, d)
		}
	}
	if len(days) == 0 {
		return Break{}, false
	}
	slices.Sort(days)
	days = append(slices.Compact(days), today)
	lessons := 0
	for i := len(days) - 1; i > 0; i-- {
		if _, closed := s.Closed[days[i]]; closed && i < len(days)-1 {
			if lessons++; lessons == int(judgement.BreakLessons) {
				return Break{}, true
			}
		}
		if gap := days[i].Sub(days[i-1]); gap > int(judgement.BreakDays) {
			return Break{gap, lessons}, true
		}
	}
	return Break{}, false
}
