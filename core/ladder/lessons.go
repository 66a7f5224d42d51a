package ladder

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

// Lessons are what was told of the lessons themselves, each by its day.
type Lessons struct {
	Opened  map[calendar.Date]time.Time
	Closed  map[calendar.Date]time.Time
	Missed  map[calendar.Date]Cancelled   // lessons that were not given
	Extra   map[calendar.Date]string      // lessons outside the weekly slot, with their time; empty for the usual
	Remote  map[calendar.Date]bool        // lessons given from afar
	Rated   map[calendar.Date]string      // how lessons went for the teacher: flowed, mixed or uphill
	Changes map[calendar.Date][]fact.Body // what the teacher did to a lesson's plan, in order
	Away    []Away                        // times without lessons of this student's own, in order
}

// A Cancelled is why a lesson was not given on its day.
type Cancelled struct {
	Fact string        // that told it
	By   string        // student, teacher or illness; empty where that is not known
	Why  string        // in the teacher's words
	To   calendar.Date // where it was moved to; empty of one that was cancelled
}

// An Away is a time without lessons: a pause, or all that comes after a student has left.
// Its span ends with calendar.Last while nobody knows when it does.
type Away struct {
	calendar.Span
	Left bool
}

// AwayOn returns the time without lessons that a day lies in.
func (l Lessons) AwayOn(d calendar.Date) (Away, bool) {
	i := slices.IndexFunc(l.Away, func(a Away) bool { return a.Holds(d) })
	if i < 0 {
		return Away{}, false
	}
	return l.Away[i], true
}

// away begins a time without lessons. What was told of the days in it before holds no more.
func (l *Lessons) away(from, until calendar.Date, left bool) {
	l.returned(from)
	name := "paused"
	if left {
		name = "left"
	}
	l.Away = append(l.Away, Away{calendar.Span{Name: name, From: from, To: cmp.Or(until, calendar.Last)}, left})
}

// returned ends the times without lessons on the day before one.
func (l *Lessons) returned(day calendar.Date) {
	for i := range l.Away {
		l.Away[i].To = min(l.Away[i].To, day.Add(-1))
	}
	l.Away = slices.DeleteFunc(l.Away, func(a Away) bool { return a.To < a.From })
}

func newLessons() Lessons {
	return Lessons{Opened: map[calendar.Date]time.Time{}, Closed: map[calendar.Date]time.Time{}, Missed: map[calendar.Date]Cancelled{}, Extra: map[calendar.Date]string{},
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
		l.Missed[b.Day] = Cancelled{Fact: t.ID, By: b.By, Why: b.Why}
	case fact.LessonMoved: // off its day, and on another
		l.Missed[b.Day] = Cancelled{Fact: t.ID, To: b.To}
		delete(l.Missed, b.To)
		l.Extra[b.To] = b.Start
	case fact.LessonExtra:
		l.Extra[b.Day] = b.Start
	case fact.LessonRemote:
		l.Remote[b.Day] = b.Remote
	case fact.Paused:
		l.away(b.From, b.Until, false)
	case fact.Left:
		l.away(b.Day, "", true)
	case fact.Returned:
		l.returned(b.Day)
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
