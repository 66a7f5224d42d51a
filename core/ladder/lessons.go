package ladder

import (
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

// Lessons are what was told of the lessons themselves, each by its day.
type Lessons struct {
	Opened  map[calendar.Date]time.Time
	Closed  map[calendar.Date]time.Time
	Missed  map[calendar.Date]string      // lessons that were not given, with the reason told
	Extra   map[calendar.Date]string      // lessons outside the weekly slot, with their time; empty for the usual
	Remote  map[calendar.Date]bool        // lessons given from afar
	Rated   map[calendar.Date]string      // how lessons went for the teacher: flowed, mixed or uphill
	Changes map[calendar.Date][]fact.Body // what the teacher did to a lesson's plan, in order
}

func newLessons() Lessons {
	return Lessons{Opened: map[calendar.Date]time.Time{}, Closed: map[calendar.Date]time.Time{}, Missed: map[calendar.Date]string{}, Extra: map[calendar.Date]string{},
		Remote: map[calendar.Date]bool{}, Rated: map[calendar.Date]string{}, Changes: map[calendar.Date][]fact.Body{}}
}

// tell does what a fact tells of a lesson or its plan.
func (l *Lessons) tell(t fact.Fact) {
	first := func(into map[calendar.Date]time.Time, day calendar.Date) {
		if _, told := into[day]; !told {
			into[day] = t.At
		}
	}
	switch b := t.Body.(type) {
	case fact.LessonOpened:
		first(l.Opened, b.Day)
	case fact.LessonClosed:
		first(l.Closed, b.Day)
	case fact.LessonMissed:
		l.Missed[b.Day] = b.Why
	case fact.LessonMoved: // off its day, and on another
		l.Missed[b.Day] = ""
		delete(l.Missed, b.To)
		l.Extra[b.To] = b.Start
	case fact.LessonExtra:
		l.Extra[b.Day] = b.Start
	case fact.LessonRemote:
		l.Remote[b.Day] = b.Remote
	case fact.LessonRated:
		l.Rated[b.Day] = b.Rating
	default:
		if day, changed := fact.PlanDay(b); changed {
			l.Changes[day] = append(l.Changes[day], b)
		}
	}
}

// Games lists what was played on a day, in the order of the alphabet: activities by id, and
// aims of probes that were tried.
func (s Standing) Games(day calendar.Date) []string {
	var out []string
	for id, m := range s.Activities {
		if slices.Contains(m.Days, day) {
			out = append(out, id)
		}
	}
	for aim, p := range s.Probes {
		if calendar.On(p.At) == day {
			out = append(out, aim)
		}
	}
	slices.Sort(out)
	return out
}
