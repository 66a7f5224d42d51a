package diary_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
	"patientladder/studio/studiotest"
)

// A piece with a day is warned of when its forecast ends after that day.
func TestADayThatComesTooSoon(t *testing.T) {
	r := studiotest.New(t)
	require.NoError(t, diary.SetCalendar(ctx, r.App, r.Who, studio.Set(calendar.Calendar{Terms: []calendar.Span{{Name: "a long one", From: "2026-09-07", To: "2027-08-31"}}})))
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	warned := func(day calendar.Date) bool {
		r.Tell(fact.TargetSet{Rung: lamp, Day: day})
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		return slices.ContainsFunc(v.Suggestions, func(s advice.Suggestion) bool { return s.Why.Code == "date-at-risk" && s.Rung == lamp })
	}
	assert.True(t, warned("2026-11-20"), "in two days")
	assert.False(t, warned("2027-08-20"), "in nine months")
	assert.False(t, warned("2026-11-01"), "a day that is over is not warned of")
}

func TestTheDay(t *testing.T) {
	r := studiotest.New(t)
	v, err := diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Equal(t, [2]int{11, 14}, [2]int{v.Week, v.WeekOf})
	require.Len(t, v.Segments, 1)
	assert.Equal(t, "16:00", v.Segments[0].Start)
	v, err = diary.Day(ctx, r.App, r.Who, "2026-11-19")
	require.NoError(t, err)
	assert.Empty(t, v.Segments)
}

// What was foretold is held against what came, for a student and for the studio; and what a
// studio's students take says what a new one is foretold, from the next day on.
func TestForecastsAreLookedBackOn(t *testing.T) {
	r := studiotest.New(t)
	none, err := diary.Forecasts(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Zero(t, none.Of)
	fresh := none.Usual
	r.Now = time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	for _, item := range []string{"lamp", "slipway", "half"} {
		rung := r.Tell(fact.RungAdded{Item: item, Strand: "book", After: fact.Top})
		r.Tell(fact.Taught{Rung: rung})
		for range 4 {
			r.Tell(fact.LessonClosed{Day: calendar.On(r.Now)})
			r.Now = r.Now.AddDate(0, 0, 7)
		}
		r.Tell(fact.FootholdTried{Rung: rung, Outcome: "granted"})
	}
	r.Now = r.Now.AddDate(0, 0, 1)
	v, err := diary.Forecasts(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Equal(t, 3, v.Of)
	assert.Equal(t, 3, v.Kept)
	assert.Greater(t, v.Usual.Mid, fresh.Mid, "four weeks each here, a little over three in common")
	record, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
	require.NoError(t, err)
	require.Len(t, record.Foretold, 3)
	assert.Equal(t, []any{"Half Tide", 4.0, 3}, []any{record.Foretold[0].Title, record.Foretold[0].Weeks, record.Kept})
}
