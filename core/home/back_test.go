package home

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
)

// Pain on 1 October, cleared on 12 November; before it 20 minutes a day were told.
func TestComingBackAfterPain(t *testing.T) {
	told := func(from calendar.Date, days, minutes int) (out []ladder.Practice) {
		for d := range days {
			out = append(out, ladder.Practice{Day: from.Add(d), Minutes: minutes})
		}
		return out
	}
	once := []calendar.Span{{From: "2026-10-01", To: "2026-11-12"}}
	for _, c := range []struct {
		says  string
		rests []calendar.Span
		told  []ladder.Practice
		day   calendar.Date
		want  int
	}{
		{"never a pain", nil, nil, "2026-11-12", 0},
		{"while it lasts", []calendar.Span{{From: "2026-10-01"}}, nil, "2026-11-12", 0},
		{"before it is cleared", once, nil, "2026-11-11", 0},
		{"the day it is cleared: half", once, told("2026-09-20", 6, 20), "2026-11-12", 10},
		{"the first week's last day", once, told("2026-09-20", 6, 20), "2026-11-18", 10},
		{"the second week: a third more", once, told("2026-09-20", 6, 20), "2026-11-19", 13},
		{"the third", once, told("2026-09-20", 6, 20), "2026-11-26", 17},
		{"the fourth: as before", once, told("2026-09-20", 6, 20), "2026-12-03", 0},
		{"too little was told: the usual", once, told("2026-09-20", 3, 20), "2026-11-12", 15},
		{"four days say enough", once, told("2026-09-20", 4, 20), "2026-11-12", 10},
		{"told too long ago", once, told("2026-09-01", 9, 20), "2026-11-12", 15},
		{"told within three weeks, to the day", once, told("2026-09-11", 4, 20), "2026-11-12", 10},
		{"a day earlier", once, told("2026-09-10", 4, 20), "2026-11-12", 15},
		{"it came back in the first week: half of a half", []calendar.Span{{From: "2026-10-01", To: "2026-11-12"}, {From: "2026-11-15", To: "2026-11-25"}}, told("2026-09-20", 6, 20), "2026-11-25", 5},
		{"it came back long after", []calendar.Span{{From: "2026-10-01", To: "2026-10-02"}, {From: "2026-11-15", To: "2026-11-25"}}, told("2026-11-01", 6, 20), "2026-11-25", 10},
		{"a minute at least", once, told("2026-09-20", 6, 1), "2026-11-12", 1},
	} {
		s := ladder.Standing{Rests: c.rests, Practice: c.told}
		got := Back(s, c.day, 30)
		assert.Equal(t, c.want, got.Minutes, c.says)
		assert.Equal(t, c.want > 0, got.On(), c.says)
	}
}

// While playing is forbidden nothing is asked, and nothing is said of practice.
func TestNoWordAboutPracticeInPain(t *testing.T) {
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{"2026-11-04": {}, "2026-11-11": {}}},
		Rests: []calendar.Span{{From: "2026-11-06", To: "2026-11-09"}}}
	assert.Equal(t, []calendar.Date{"2026-11-05", "2026-11-10", "2026-11-12"}, Asked(s, "2026-11-05", "2026-11-12"))
	s.Practice = []ladder.Practice{{Day: "2026-11-05"}}
	assert.NotEmpty(t, Read(s, "2026-11-12", 9).Try)
	s.Ache = &ladder.Ache{Side: "right"}
	now := Read(s, "2026-11-12", 9)
	assert.Empty(t, now.Try)
	assert.Equal(t, Untold, now.Practice)
}
