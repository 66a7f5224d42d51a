package places_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/studio/family"
	"patientladder/studio/places"
	"patientladder/studio/studiotest"
)

// A line that is pinned stands on the next sheet as it was given, until the pin is taken out.
func TestAPinnedLineStandsOnTheNextSheet(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	lesson := func(day calendar.Date) places.WeekView {
		r.Now = day.Time().Add(16 * time.Hour)
		r.Tell(fact.LessonOpened{Day: day})
		r.Tell(fact.Taught{Rung: lamp})
		r.Tell(fact.LessonClosed{Day: day})
		v, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
		require.NoError(t, err)
		return v
	}
	stands := func(v places.WeekView, key string) bool {
		_, there := v.Sheet.Line(key)
		return there
	}
	first := lesson("2026-11-18")
	line := first.Lines[0]
	require.Positive(t, line.From, "a stretch of the piece")
	pin := r.Tell(fact.LinePinned{Day: "2026-11-18", Document: first.Document.ID, Line: line.Key})
	again, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.True(t, again.Lines[0].Pinned)
	assert.Equal(t, 1, again.Document.Revision, "this sheet stays as it is")
	second := lesson("2026-11-25")
	assert.True(t, stands(second, line.Key))
	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	past, err := family.Weeks(ctx, r.App, link.Path[len("/family/"):])
	require.NoError(t, err)
	require.Len(t, past.Weeks, 1, "the sheet of before, without the one that holds")
	assert.Equal(t, calendar.Date("2026-11-18"), past.Weeks[0].Day)
	assert.Equal(t, "Lamp Room", past.Weeks[0].Lines[0].Title)
	_, err = family.Weeks(ctx, r.App, "nobody")
	assert.ErrorContains(t, err, "opens no week")
	r.Tell(fact.Retracted{Ref: pin})
	assert.True(t, stands(lesson("2026-11-25"), line.Key), "what was given stays")
	assert.False(t, stands(lesson("2026-12-02"), line.Key))
}

// What the family says of its days and a pain that is told change the sheet that is
// out already; a tick of an old piece is a playing of it.
func TestTheSheetListens(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	r.Tell(fact.DaysSet{Minutes: 9, Weekdays: []int{4, 6}})
	view, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	var days []time.Weekday
	for _, d := range view.Sheet.Days[1:] {
		if !d.Off {
			days = append(days, d.Date.Weekday())
		}
	}
	assert.Equal(t, []time.Weekday{time.Thursday, time.Saturday}, days)
	assert.Equal(t, 9, view.Sheet.Budget)
	r.Tell(fact.Pained{Side: "right", Where: "wrist"})
	view, err = places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, "no-playing", view.Sheet.Lines[0].Code)
	for _, d := range view.Sheet.Days {
		for _, task := range d.Tasks {
			assert.True(t, task.Listen)
		}
	}
}
