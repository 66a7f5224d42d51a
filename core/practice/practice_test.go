package practice

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
)

const today = calendar.Date("2026-11-18")

func at(days int, feels ...string) ladder.Standing {
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{today.Add(-7): {}, today.Add(-14): {}, today.Add(-21): {}, today.Add(-28): {}}}}
	for i := range days {
		p := ladder.Practice{Day: today.Add(-i), Minutes: 20}
		if i < len(feels) {
			p.Feel = feels[i]
		}
		s.Practice = append(s.Practice, p)
	}
	return s
}

// Practice and enjoyment apart: each combination has its answer. Common practice,
// no source.
func TestEachCombinationHasItsAnswer(t *testing.T) {
	for _, c := range []struct {
		name string
		s    ladder.Standing
		age  int
		want []string
	}{
		{"much of both: feed", at(20, "fun", "fun", "fine"), 10, []string{"home-feed"}},
		{"enjoys, practises little: habit and smaller steps", at(6, "fun", "easy"), 10, []string{"home-habit", "home-smaller"}},
		{"practises, says it is dull: do not assume", at(20, "dull", "dull", "fine", "dull"), 10, []string{"home-joyless", "home-ask-parts", "home-choose-together"}},
		{"the same at fourteen: the talk is three-way", at(20, "dull", "dull", "fine", "dull"), 14, []string{"home-joyless", "home-ask-parts", "home-choose-together", "home-three-way"}},
		{"little of both: an honest talk", at(5, "dull", "dull", "dull"), 10, []string{"home-talk"}},
		{"dull once is a mood, not an opinion", at(20, "dull"), 10, []string{"home-ask-feeling"}},
		{"nothing told", at(0), 10, []string{"home-untold"}},
	} {
		t.Run(c.name, func(t *testing.T) {
			var got []string
			for _, r := range Read(c.s, today, c.age).Try {
				got = append(got, r.Code)
			}
			assert.Equal(t, c.want, got)
		})
	}
}

func TestDaysThatCount(t *testing.T) {
	s := at(0)
	s.HomeDays = ladder.HomeDays{Days: []time.Weekday{time.Monday, time.Thursday}}
	assert.Equal(t, 8, Read(s, today, 10).Asked, "two days a week for four weeks")
	s = at(3)
	s.Ticks = []ladder.Tick{{Day: today}, {Day: today.Add(-9)}, {Day: today.Add(-90)}}
	a := Read(s, today, 10)
	assert.Equal(t, 4, a.Days, "a ticked day is a day, and counts once")
	assert.Equal(t, 24, a.Asked)
	delete(s.Closed, today.Add(-14)) // a free week: no sheet, nothing asked
	assert.Equal(t, 18, Read(s, today, 10).Asked)
}
