package record

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
)

var told = 0

func say(at string, body fact.Body) fact.Fact {
	told++
	when, err := time.Parse("2006-01-02 15:04", at)
	if err != nil {
		panic(err)
	}
	return fact.Fact{ID: fmt.Sprintf("%026d", told), Student: "s", At: when, Body: body}
}

// A fortnight of lessons as facts, and where each stands in the year.
func TestAYearWeekByWeek(t *testing.T) {
	items := map[string]shelf.Item{"lamp": {ID: "lamp", Title: "Lamp Room", Strand: shelf.Book, Brings: []string{"dotted"}}, "skip": {ID: "skip", Title: "Slipway", Strand: shelf.Repertoire}}
	add := say("2026-11-02 10:00", fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	own := say("2026-11-02 10:01", fact.OwnPoint{Name: "Thumb"})
	slip := say("2026-11-18 16:09", fact.Heard{Rung: add.ID, Grade: "easily"})
	facts := []fact.Fact{add, own,
		say("2026-11-11 16:00", fact.LessonOpened{Day: "2026-11-11"}), say("2026-11-11 16:05", fact.Taught{Rung: add.ID}),
		say("2026-11-11 16:10", fact.PointMarked{Rung: add.ID, Point: ladder.OwnKey(own.ID), State: fact.Met}),
		say("2026-11-11 16:11", fact.PointMarked{Rung: add.ID, Point: ladder.OwnKey(own.ID), State: fact.Open}),
		say("2026-11-11 16:20", fact.SeatMeasured{Stature: 130}), say("2026-11-11 16:30", fact.LessonClosed{Day: "2026-11-11"}),
		say("2026-11-13 18:00", fact.Practised{Day: "2026-11-13", Felt: "fun"}), say("2026-11-15 18:00", fact.Practised{Day: "2026-11-15"}),
		say("2026-11-18 16:00", fact.LessonOpened{Day: "2026-11-18"}), say("2026-11-18 16:05", fact.FootholdTried{Rung: add.ID, Outcome: "granted"}),
		say("2026-11-18 16:08", fact.Polished{Rung: add.ID}), slip, say("2026-11-18 16:10", fact.Retracted{Ref: slip.ID}),
		say("2026-11-18 16:30", fact.LessonClosed{Day: "2026-11-18"}), say("2026-11-18 17:00", fact.LessonMissed{Day: "2026-11-04"}),
	}
	y := YearOf(Source{Standing: ladder.Fold(facts, items), Facts: facts, Graph: skill.Catalogue(), Calendar: calendar.Calendar{Terms: []calendar.Span{{From: "2026-09-07", To: "2026-12-11"}}},
		Spent: map[calendar.Date]Spent{"2026-11-11": {Asked: Bands{Now: 50, Upkeep: 20}}, "2026-11-18": {Asked: Bands{Upkeep: 5}, Lesson: Bands{Ahead: 2}}}, Last: "2026-11-19", Today: "2026-11-19"})
	require.Len(t, y.Weeks, Weeks)
	last := y.Weeks[Weeks-1]
	assert.Equal(t, calendar.Date("2026-11-16"), last.From)
	assert.Equal(t, []calendar.Date{"2026-11-18"}, last.Lessons)
	assert.Equal(t, []string{"Lamp Room"}, last.Polished)
	assert.Empty(t, last.Heard, "it was taken back")
	assert.Equal(t, []string{"dotted"}, last.Skills)
	require.Len(t, last.Footholds, 1)
	assert.Equal(t, calendar.Date("2026-11-18"), last.Sheet)
	assert.Equal(t, 3, last.Asked, "Monday and Tuesday by the sheet before, Thursday by this one; nothing is asked of days to come")
	before := y.Weeks[Weeks-2]
	assert.Equal(t, []int{2, 4}, []int{before.Days, before.Asked})
	assert.Equal(t, map[string]int{"fun": 1}, before.Felt)
	assert.Equal(t, []int{1, 0}, []int{before.Light, before.Dull})
	assert.Equal(t, calendar.Date("2026-11-11"), before.Sheet)
	assert.Equal(t, []calendar.Date{"2026-11-04"}, y.Weeks[Weeks-3].Missed)
	assert.Empty(t, y.Weeks[Weeks-3].Sheet)
	assert.True(t, before.Term)
	assert.False(t, y.Weeks[0].Term, "a week of last November, before the terms that are told")
	assert.Equal(t, Counts{Lessons: 2, Missed: 1, Footholds: 1, Polished: 1, Skills: 1, Days: 2, Asked: 7}, y.Counts)
	assert.Equal(t, Spent{Lesson: Bands{Ahead: 2}, Asked: Bands{Now: 50, Upkeep: 25}}, y.Spent)
	assert.Equal(t, []PointMarks{{Name: "Thumb", Marks: []PointMark{{"2026-11-11", "Lamp Room", true}}}}, y.Points, "the first mark on a piece counts")
	assert.Equal(t, []Measurement{{Day: "2026-11-11", Stature: 130}}, y.Grown)

	year := YearOf(Source{Standing: ladder.Fold(facts, items), Facts: facts, Graph: skill.Catalogue(), Last: "2025-11-20", Today: "2026-11-19"})
	assert.Equal(t, Counts{}, year.Counts, "a year before there was nothing")
	assert.Empty(t, year.Points)
	assert.Empty(t, year.Grown)
}

// Minutes of a lesson and its sheet by bands; of a line as many days count as it was ticked.
func TestMinutesByBands(t *testing.T) {
	plan := lesson.Plan{Blocks: []lesson.Block{{Band: "now", Minutes: 10}, {Band: "upkeep", Minutes: 4}, {Band: "ahead", Minutes: 2}, {Minutes: 3}}}
	day := func(tasks ...week.Task) week.Day { return week.Day{Tasks: tasks} }
	a, b := week.Task{Key: "a", Band: "now", Minutes: 6}, week.Task{Key: "b", Band: "upkeep", Minutes: 4}
	got := SpentOn(plan, week.Sheet{Days: []week.Day{day(a, b), day(a), day(a, b)}}, map[string]int{"a": 2, "b": 5, "gone": 1})
	assert.Equal(t, Spent{Lesson: Bands{10, 4, 2}, Asked: Bands{Now: 18, Upkeep: 8}, Ticked: Bands{Now: 12, Upkeep: 8}}, got)
	assert.Zero(t, SpentOn(lesson.Plan{}, week.Sheet{}, nil))
}
