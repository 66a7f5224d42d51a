package advice

import (
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
)

// unclosedFor is how many days back a lesson that nobody spoke of is asked about: two
// weeks, after which nobody remembers it. One that was begun is asked about for as long as
// lessons go back to it. Common practice, no source.
const unclosedFor = 14

// An Unclosed is a lesson of a day before, of which it is not told that it was given and
// closed.
type Unclosed struct {
	Day   calendar.Date `json:"day"`
	Begun bool          `json:"begun" doc:"it was begun; else nobody has spoken of it"`
}

// LeftOpen lists a student's lessons before today that were begun and not closed, and those
// by the calendar since a day that were neither begun nor told as not given, in order.
func LeftOpen(l ladder.Lessons, c calendar.Calendar, slot calendar.Slot, since, today calendar.Date) []Unclosed {
	var out []Unclosed
	for day := range l.Opened {
		if _, closed := l.Closed[day]; !closed && day < today {
			out = append(out, Unclosed{day, true})
		}
	}
	for _, day := range c.Lessons(slot, max(since, today.Add(-unclosedFor)), today.Add(-1)) {
		_, opened := l.Opened[day]
		_, closed := l.Closed[day]
		if !opened && !closed {
			out = append(out, Unclosed{day, false})
		}
	}
	slices.SortFunc(out, func(a, b Unclosed) int { return a.Day.Sub(b.Day) })
	return out
}
