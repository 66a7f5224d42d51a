package calendar

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Lessons every second week, twice a week and by agreement, over an autumn with a free week
// from 26 to 30 October.
func TestRhythms(t *testing.T) {
	c := Calendar{Terms: []Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}, Free: []Span{{Name: "free week", From: "2026-10-26", To: "2026-10-30"}}}
	second := Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 45, Rhythm: Fortnightly, Since: "2026-10-07"}
	twice := Slot{Weekday: time.Tuesday, Start: "15:00", Minutes: 45, Rhythm: Twice, Second: &TimeOfWeek{time.Friday, "17:30"}}
	agreed := Slot{Weekday: time.Monday, Start: "15:00", Minutes: 45, Rhythm: Irregular}
	for _, s := range []Slot{second, twice, agreed} {
		assert.NoError(t, s.Check())
	}
	assert.Equal(t, []Date{"2026-10-07", "2026-10-21", "2026-11-04", "2026-11-18"}, c.Lessons(second, "2026-10-01", "2026-11-20"))
	assert.Equal(t, []Date{"2026-09-09", "2026-09-23"}, c.Lessons(second, "2026-09-07", "2026-10-06"), "and back from the day that is known")
	assert.Equal(t, Date("2026-11-04"), c.Next(second, "2026-10-21"))
	second.Since = "2026-10-14"
	assert.Equal(t, []Date{"2026-10-14", "2026-11-11"}, c.Lessons(second, "2026-10-10", "2026-11-20"), "the one of the free week is not given")
	assert.Equal(t, []float64{0, 4, 6}, []float64(c.Marks(second, "2026-10-14", 3)), "a taught week runs from lesson to lesson")

	assert.Equal(t, []Date{"2026-10-20", "2026-10-23", "2026-11-03", "2026-11-06"}, c.Lessons(twice, "2026-10-20", "2026-11-08"))
	assert.Equal(t, Date("2026-10-23"), c.Next(twice, "2026-10-20"))
	assert.Equal(t, Date("2026-11-03"), c.Next(twice, "2026-10-23"))
	assert.Equal(t, Date("2026-11-03"), c.NextWeek(twice, "2026-10-20"), "the second lesson of a week begins no other")
	assert.Equal(t, []Date{"2026-10-20", "2026-11-03"}, twice.Weeks(c.Lessons(twice, "2026-10-20", "2026-11-08")))
	assert.Equal(t, []float64{0, 2, 3}, []float64(c.Marks(twice, "2026-10-20", 3)))
	assert.Equal(t, "17:30", twice.At("2026-10-23").Start)
	assert.Equal(t, "15:00", twice.At("2026-10-20").Start)
	c.Off = map[Date]bool{"2026-10-20": true, "2026-10-23": true}
	assert.Equal(t, []float64{11. / 7, 18. / 7}, []float64(c.Marks(twice, "2026-10-23", 2)), "neither was given")
	c.Off = nil

	assert.Empty(t, c.Lessons(agreed, "2026-10-01", "2026-12-01"))
	assert.Equal(t, Date(""), c.Next(agreed, "2026-10-01"))
	c.On = map[Date]bool{"2026-11-12": true, "2026-11-05": true}
	assert.Equal(t, []Date{"2026-11-05", "2026-11-12"}, c.Lessons(agreed, "2026-10-01", "2026-12-01"))
	assert.Equal(t, Date("2026-11-12"), c.Next(agreed, "2026-11-05"))
	assert.Equal(t, []float64{0, 1, 2}, []float64(c.Marks(agreed, "2026-11-12", 3)), "where nothing is agreed a taught week is a week")

	for says, s := range map[string]Slot{
		"need a day of one of them": {Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: Fortnightly},
		"need a second day":         {Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: Twice},
		"not Wednesday twice":       {Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: Twice, Second: &TimeOfWeek{3, "18:00"}},
		"runs past midnight":        {Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: Twice, Second: &TimeOfWeek{4, "23:45"}},
		"no rhythm of lessons":      {Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: "monthly"},
	} {
		assert.ErrorContains(t, s.Check(), says)
	}
}

// Two fortnightly lessons of one hour clash only where they fall into the same week.
func TestFortnightlyLessonsThatShareAnHour(t *testing.T) {
	for since, clashes := range map[Date]bool{"2026-11-04": true, "2026-11-11": false, "2026-10-28": false} {
		a := Slot{Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: Fortnightly, Since: "2026-11-18"}
		b := a
		b.Since = since
		got := Warnings([]Booked{{Name: "A", On: "Wednesday", Start: "16:00", Long: 30, Turn: a.Turn()}, {Name: "B", On: "Wednesday", Start: "16:00", Long: 30, Turn: b.Turn()}})
		assert.Equal(t, clashes, len(got) > 0, since)
	}
	weekly := Booked{Name: "C", On: "Wednesday", Start: "16:15", Long: 30}
	assert.Len(t, Warnings([]Booked{weekly, {Name: "B", On: "Wednesday", Start: "16:00", Long: 30, Turn: 2}}), 1, "with a weekly one always, and said once")
}
