package ladder

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

// Who pauses and leaves, and what stands of it when more is told.
func TestTimesWithoutLessons(t *testing.T) {
	span := func(name string, from, to calendar.Date) Away {
		return Away{calendar.Span{Name: name, From: from, To: to}, name == "left"}
	}
	autumn := fact.Paused{From: "2026-09-07", Until: "2026-12-18"}
	for _, c := range []struct {
		name string
		told []fact.Body
		want []Away
	}{
		{"nobody", nil, nil},
		{"a term", []fact.Body{autumn}, []Away{span("paused", "2026-09-07", "2026-12-18")}},
		{"until further notice", []fact.Body{fact.Paused{From: "2026-09-07"}}, []Away{span("paused", "2026-09-07", calendar.Last)}},
		{"back sooner", []fact.Body{autumn, fact.Returned{Day: "2026-11-02"}}, []Away{span("paused", "2026-09-07", "2026-11-01")}},
		{"back on the day it began", []fact.Body{autumn, fact.Returned{Day: "2026-09-07"}}, []Away{}},
		{"back the day after it began", []fact.Body{autumn, fact.Returned{Day: "2026-09-08"}}, []Away{span("paused", "2026-09-07", "2026-09-07")}},
		{"back after its end changes nothing", []fact.Body{autumn, fact.Returned{Day: "2027-01-04"}}, []Away{span("paused", "2026-09-07", "2026-12-18")}},
		{"left", []fact.Body{fact.Left{Day: "2026-11-18"}}, []Away{span("left", "2026-11-18", calendar.Last)}},
		{"left while pausing", []fact.Body{autumn, fact.Left{Day: "2026-11-18"}}, []Away{span("paused", "2026-09-07", "2026-11-17"), span("left", "2026-11-18", calendar.Last)}},
		{"left and back after a year", []fact.Body{fact.Left{Day: "2026-11-18"}, fact.Returned{Day: "2027-11-15"}}, []Away{span("left", "2026-11-18", "2027-11-14")}},
		{"two pauses", []fact.Body{fact.Paused{From: "2026-09-07", Until: "2026-09-20"}, fact.Paused{From: "2026-11-02", Until: "2026-11-15"}},
			[]Away{span("paused", "2026-09-07", "2026-09-20"), span("paused", "2026-11-02", "2026-11-15")}},
		{"a pause told anew, shorter", []fact.Body{autumn, fact.Paused{From: "2026-09-07", Until: "2026-10-02"}}, []Away{span("paused", "2026-09-07", "2026-10-02")}},
	} {
		s := &story{}
		for _, b := range c.told {
			s.tell(b)
		}
		assert.Equal(t, c.want, s.standing().Away, c.name)
	}
	s := &story{}
	s.tell(autumn)
	l := s.standing().Lessons
	for day, away := range map[calendar.Date]bool{"2026-09-06": false, "2026-09-07": true, "2026-12-18": true, "2026-12-19": false} {
		_, is := l.AwayOn(day)
		assert.Equal(t, away, is, day)
	}
}
