// Package document says when something that leaves the room is given, and when it
// is given anew.
//
// The plan of a lesson is kept when the lesson is opened, the week sheet when it is
// closed. What is given reads the same ever after; a change that must reach it (a
// pain, other days at home, the teacher's own change, the lesson closed once more)
// makes another revision, with its reason. Nothing else does: not a setting, not a
// birthday, not an edited item, not another version of the program.
//
// A revision stands for a Cause, the state of the facts that it follows from. As
// long as the facts tell the same cause nothing is owed, so that a delivery that
// comes twice, late or from two devices gives no document twice.
package document

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
)

// A Kind is what sort of document it is.
type Kind string

// The kinds.
const (
	Plan   Kind = "plan"
	Sheet  Kind = "sheet"
	Report Kind = "report" // of a term, kept under the term's first day; it follows from the teacher's word alone
)

// A Document is one revision of what was given.
type Document struct {
	ID       string        `json:"id"`
	Day      calendar.Date `json:"day" doc:"of the lesson"`
	Revision int           `json:"revision" doc:"from 1"`
	Reason   Reason        `json:"reason" enum:"given,closed-again,opened-again,pain,pain-cleared,days,plan-changed,edited,next-lesson"`
	By       fact.Author   `json:"by" enum:"teacher,family,program" doc:"whose word brought it about"`
	At       time.Time     `json:"at"`
	Program  string        `json:"program" doc:"version that made it"`
	Kind     Kind          `json:"-"`
	Cause    Cause         `json:"-"`
	Student  string        `json:"-"`
}

// A Reason is why a revision was made.
type Reason string

// The reasons.
const (
	Given       Reason = "given"
	ClosedAgain Reason = "closed-again" // the lesson was taken up again and closed
	OpenedAgain Reason = "opened-again"
	Pain        Reason = "pain"
	PainCleared Reason = "pain-cleared"
	Days        Reason = "days" // the family practises on other days, or longer
	PlanChanged Reason = "plan-changed"
	Edited      Reason = "edited"      // the teacher struck, changed or added a line
	NextLesson  Reason = "next-lesson" // the next lesson is on another day, or was not given
)

// A Cause is the state of the facts that a revision follows from: the id of the
// fact that began or closed the lesson, of the pain that stands, of the days that
// were last set, and of the last change to the plan, or the sheet, with how many there
// were; and of a sheet the day that it must reach to, which whoever knows the calendar adds.
type Cause struct {
	Lesson  string
	Ache    string
	Days    string
	Changes string
	Through calendar.Date
	by      fact.Author // of the last fact in it
}

// String writes a cause for the store.
func (c Cause) String() string {
	return strings.Join([]string{c.Lesson, c.Ache, c.Days, c.Changes, string(c.Through)}, "/")
}

// ParseCause reads it back.
func ParseCause(s string) Cause {
	part := append(strings.Split(s, "/"), "", "", "", "", "")
	return Cause{Lesson: part[0], Ache: part[1], Days: part[2], Changes: part[3], Through: calendar.Date(part[4])}
}

// CauseOf returns what the facts say of a document of a lesson's day; false when the
// lesson was not opened, or not closed, so that there is none.
func CauseOf(k Kind, day calendar.Date, facts []fact.Fact) (Cause, bool) {
	var c Cause
	changes := 0
	ladder.InOrder(facts, func(f fact.Fact) {
		last := func(into *string, id string) {
			*into = id
			c.by = f.By
		}
		switch b := f.Body.(type) {
		case fact.LessonOpened:
			if k == Plan && b.Day == day && c.Lesson == "" {
				last(&c.Lesson, f.ID)
			}
		case fact.LessonClosed:
			if k == Sheet && b.Day == day && c.Lesson == "" {
				last(&c.Lesson, f.ID)
			}
		case fact.Pained:
			if k == Sheet || f.Day() == day {
				last(&c.Ache, f.ID)
			}
		case fact.PainCleared:
			if k == Sheet {
				last(&c.Ache, "")
			}
		case fact.DaysSet:
			if k == Sheet {
				last(&c.Days, f.ID)
			}
		default:
			on, changed := planned(b)
			if k == Sheet {
				on, changed = fact.SheetDay(b)
			}
			if changed && on == day {
				changes++
				last(&c.Changes, fmt.Sprintf("%d.%s", changes, f.ID))
			}
		}
	})
	return c, c.Lesson != ""
}

// planned returns the day whose plan reads otherwise after a fact: the teacher
// changed it, or the lesson is given from afar.
func planned(b fact.Body) (calendar.Date, bool) {
	if remote, is := b.(fact.LessonRemote); is {
		return remote.Day, true
	}
	return fact.PlanDay(b)
}

// Owed returns what a document that was last given for a cause, or never, needs now:
// the reason for another revision and whose word it is, and false for nothing.
func Owed(k Kind, last *Document, now Cause) (Reason, fact.Author, bool) {
	if last == nil {
		return Given, fact.Teacher, true
	}
	before := last.Cause
	for _, c := range []struct {
		differs bool
		why     Reason
		by      fact.Author
	}{
		{before.Lesson != now.Lesson && k == Plan, OpenedAgain, fact.Teacher},
		{before.Lesson != now.Lesson, ClosedAgain, fact.Teacher},
		{before.Ache != now.Ache && now.Ache == "", PainCleared, now.by},
		{before.Ache != now.Ache, Pain, now.by},
		{before.Days != now.Days, Days, now.by},
		{before.Changes != now.Changes && k == Sheet, Edited, now.by},
		{before.Changes != now.Changes, PlanChanged, now.by},
		{k == Sheet && before.Through != now.Through && now.Through != "", NextLesson, fact.Program},
	} {
		if c.differs {
			return c.why, c.by, true
		}
	}
	return "", "", false
}

// Bears reports whether a delivery may bring about a document or another revision of
// one.
func Bears(facts []fact.Fact) bool {
	return slices.ContainsFunc(facts, func(f fact.Fact) bool {
		switch f.Body.(type) {
		case fact.LessonOpened, fact.LessonClosed, fact.Pained, fact.PainCleared, fact.DaysSet, fact.Retracted,
			fact.LessonMissed, fact.LessonMoved, fact.LessonExtra, fact.Paused, fact.Returned:
			return true
		}
		_, changed := planned(f.Body)
		_, edited := fact.SheetDay(f.Body)
		return changed || edited
	})
}
