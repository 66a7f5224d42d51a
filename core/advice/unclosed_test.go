package advice

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
)

func TestLessonsThatWereNotClosed(t *testing.T) {
	wednesdays := calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
	days := func(list ...calendar.Date) map[calendar.Date]time.Time {
		out := map[calendar.Date]time.Time{}
		for _, d := range list {
			out[d] = d.Time()
		}
		return out
	}
	const today = "2026-11-19" // a Thursday
	for _, c := range []struct {
		name           string
		opened, closed []calendar.Date
		off            calendar.Date
		since          calendar.Date
		want           []Unclosed
	}{
		{"all closed", []calendar.Date{"2026-11-11", "2026-11-18"}, []calendar.Date{"2026-11-11", "2026-11-18"}, "", "2026-09-01", nil},
		{"yesterday's was begun", []calendar.Date{"2026-11-11", "2026-11-18"}, []calendar.Date{"2026-11-11"}, "", "2026-09-01", []Unclosed{{"2026-11-18", true}}},
		{"nobody spoke of it", []calendar.Date{"2026-11-11"}, []calendar.Date{"2026-11-11"}, "", "2026-09-01", []Unclosed{{"2026-11-18", false}}},
		{"it was told that it was not given", []calendar.Date{"2026-11-11"}, []calendar.Date{"2026-11-11"}, "2026-11-18", "2026-09-01", nil},
		{"a fortnight ago is asked about, three weeks are not", nil, nil, "", "2026-09-01", []Unclosed{{"2026-11-11", false}, {"2026-11-18", false}}},
		{"nothing before the student came", nil, nil, "", "2026-11-12", []Unclosed{{"2026-11-18", false}}},
		{"one begun in the summer still is", []calendar.Date{"2026-07-01"}, nil, "", today, []Unclosed{{"2026-07-01", true}}},
		{"today's is not late", []calendar.Date{today}, nil, "", today, nil},
	} {
		l := ladder.Lessons{Opened: days(c.opened...), Closed: days(c.closed...)}
		cal := calendar.Calendar{Off: map[calendar.Date]bool{c.off: true}}
		assert.Equal(t, c.want, LeftOpen(l, cal, wednesdays, c.since, today), c.name)
	}
	fortnight := calendar.Calendar{}
	thursdays := calendar.Slot{Weekday: time.Thursday, Start: "16:00", Minutes: 30}
	assert.Equal(t, []Unclosed{{"2026-11-05", false}, {"2026-11-12", false}}, LeftOpen(ladder.Lessons{}, fortnight, thursdays, "2026-09-01", today), "fourteen days back to the day")
}
