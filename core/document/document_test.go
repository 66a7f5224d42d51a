package document

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

const day = calendar.Date("2026-11-18")

var began = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)

type story struct{ facts []fact.Fact }

// tell adds a fact a minute after the one before and returns its id.
func (s *story) tell(by fact.Author, b fact.Body) string {
	f := fact.Fact{ID: fmt.Sprint("f", len(s.facts)+1), At: began.Add(time.Duration(len(s.facts)) * time.Minute), By: by, Body: b}
	s.facts = append(s.facts, f)
	return f.ID
}

// What brings about another revision of a sheet or a plan, step by step, and what
// does not.
func TestWhenADocumentIsGivenAnew(t *testing.T) {
	type step struct {
		by   fact.Author
		body fact.Body
		why  Reason // empty for none
	}
	for _, c := range []struct {
		kind  Kind
		steps []step
	}{
		{Sheet, []step{
			{fact.Teacher, fact.LessonOpened{Day: day}, ""},
			{fact.Teacher, fact.LessonClosed{Day: day}, Given},
			{fact.Teacher, fact.LessonClosed{Day: day}, ""},
			{fact.Teacher, fact.Noted{Text: "x"}, ""},
			{fact.Teacher, fact.ApproachSet{Question: "upkeep", School: "third"}, ""},
			{fact.Teacher, fact.FootholdTried{Rung: "r", Outcome: "granted"}, ""},
			{fact.Family, fact.Ticked{Day: day, Line: "x"}, ""},
			{fact.Family, fact.DaysSet{Weekdays: []int{1}}, Days},
			{fact.Teacher, fact.Pained{Side: "left"}, Pain},
			{fact.Teacher, fact.PainCleared{}, PainCleared},
			{fact.Teacher, fact.PainCleared{}, ""},
			{fact.Teacher, fact.BlockTimed{Day: day, Block: "close", Minutes: 3}, ""},
			{fact.Teacher, fact.LessonClosed{Day: day.Add(-7)}, ""},
		}},
		{Plan, []step{
			{fact.Teacher, fact.BlockDropped{Day: day, Block: "close"}, ""},
			{fact.Teacher, fact.LessonOpened{Day: day}, Given},
			{fact.Teacher, fact.PointMarked{Rung: "r", Point: "tone", State: "met"}, ""},
			{fact.Teacher, fact.BlockTimed{Day: day, Block: "close", Minutes: 3}, PlanChanged},
			{fact.Teacher, fact.BlockTimed{Day: day.Add(7), Block: "close", Minutes: 3}, ""},
			{fact.Teacher, fact.BlockSwapped{Day: day, Block: "close", Into: "x"}, PlanChanged},
			{fact.Teacher, fact.BlockMoved{Day: day, Block: "close", After: "x"}, PlanChanged},
			{fact.Teacher, fact.BlockAdded{Day: day, Into: "x"}, PlanChanged},
			{fact.Teacher, fact.BlockDropped{Day: day, Block: "x"}, PlanChanged},
			{fact.Teacher, fact.LessonLength{Day: day, Minutes: 20}, PlanChanged},
			{fact.Teacher, fact.LessonRemote{Day: day, Remote: true}, PlanChanged},
			{fact.Teacher, fact.BlockDropped{Day: day, Block: "x"}, PlanChanged},
			{fact.Teacher, fact.Pained{Side: "left"}, Pain},
			{fact.Teacher, fact.PainCleared{}, ""},
			{fact.Teacher, fact.LessonOpened{Day: day}, ""},
			{fact.Family, fact.DaysSet{Weekdays: []int{1}}, ""},
			{fact.Teacher, fact.LessonClosed{Day: day}, ""},
		}},
	} {
		s := &story{}
		var last *Document
		for i, step := range c.steps {
			s.tell(step.by, step.body)
			cause, given := CauseOf(c.kind, day, s.facts)
			var why Reason
			if given {
				var by fact.Author
				var owed bool
				if why, by, owed = Owed(c.kind, last, cause); owed {
					assert.Equal(t, step.by, by, "%s step %d", c.kind, i)
					last = &Document{Cause: ParseCause(cause.String())}
				}
			}
			assert.Equal(t, step.why, why, "%s step %d: %s", c.kind, i, step.body.Kind())
			if step.why != "" && step.why != ClosedAgain {
				assert.True(t, Bears(s.facts[len(s.facts)-1:]), "%s bears a document", step.body.Kind())
			}
		}
	}
}

func TestALessonTakenUpAgain(t *testing.T) {
	s := &story{}
	s.tell(fact.Teacher, fact.LessonOpened{Day: day})
	closed := s.tell(fact.Teacher, fact.LessonClosed{Day: day})
	first, given := CauseOf(Sheet, day, s.facts)
	require.True(t, given)
	s.tell(fact.Teacher, fact.Retracted{Ref: closed})
	_, given = CauseOf(Sheet, day, s.facts)
	assert.False(t, given, "a lesson that is open again owes no sheet")
	s.tell(fact.Teacher, fact.LessonClosed{Day: day})
	again, _ := CauseOf(Sheet, day, s.facts)
	why, _, owed := Owed(Sheet, &Document{Cause: first}, again)
	assert.True(t, owed)
	assert.Equal(t, ClosedAgain, why)
	why, _, _ = Owed(Plan, &Document{Cause: Cause{Lesson: "a"}}, Cause{Lesson: "b"})
	assert.Equal(t, OpenedAgain, why)
	other := &story{}
	other.tell(fact.Teacher, fact.LessonOpened{Day: day})
	before, _ := CauseOf(Plan, day, other.facts)
	ache := fact.Fact{ID: "later", At: began.AddDate(0, 0, 1), Body: fact.Pained{Side: "left"}}
	after, _ := CauseOf(Plan, day, append(other.facts, ache))
	assert.Equal(t, before, after, "a pain of another day leaves that day's plan alone")
	_, given = CauseOf(Plan, day.Add(7), other.facts)
	assert.False(t, given, "a lesson that was not opened has no plan")
	assert.False(t, Bears([]fact.Fact{{Body: fact.Noted{Text: "x"}}, {Body: fact.Heard{}}}), "a mark bears none")
}
