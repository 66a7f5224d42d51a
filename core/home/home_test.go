package home

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
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

// A treat counts from when the family named it.
func TestAHugePieceCountsForMore(t *testing.T) {
	for bars, want := range map[int]int{0: 1, 8: 1, 63: 1, 64: 2, 95: 2, 96: 3, 400: 3} {
		assert.Equal(t, want, worth(shelf.Item{Bars: bars}), "%d bars", bars)
	}
}

func TestTowardsATreat(t *testing.T) {
	on := func(d calendar.Date) *time.Time { at := d.Time(); return &at }
	s := ladder.Standing{Practice: []ladder.Practice{{Day: today.Add(-1)}, {Day: today.Add(1)}}, Ticks: []ladder.Tick{{Day: today}, {Day: today.Add(1)}},
		Rungs: []ladder.Rung{{Foothold: on(today.Add(-3))}, {Foothold: on(today.Add(3))}, {}}}
	assert.Equal(t, 2, Towards(ladder.Treat{Counts: fact.KeptDays, Goal: 5, Since: today.Time()}, s), "a day ticked and told is one")
	assert.Equal(t, 1, Towards(ladder.Treat{Counts: fact.Footholds, Goal: 5, Since: today.Time()}, s))
	assert.Equal(t, 1, Towards(ladder.Treat{Counts: fact.Footholds, Since: *on(today.Add(3))}, s), "at that very moment")
}

// What is told of days at home, and what each rule makes of it: both sides of each
// boundary.
func TestWhatIsToldOfDays(t *testing.T) {
	s := at(1)
	s.Ticks = []ladder.Tick{{Day: today.Add(-Window + 1)}}
	assert.Equal(t, []calendar.Date{today.Add(-27), today}, Days(s, today.Add(-27), today))
	assert.Equal(t, []calendar.Date{today}, Days(s, today.Add(-26), today))
	assert.Empty(t, Days(s, today.Add(1), today.Add(9)))
	assert.Empty(t, Days(s, today.Add(-20), today.Add(-1)))
	only := ladder.Standing{Ticks: s.Ticks}
	assert.False(t, Silent(only, today), "a tick 27 days ago speaks")
	assert.True(t, Silent(only, today.Add(1)), "28 days ago is silence")

	for ago, want := range map[int]bool{6: false, 7: true, 27: true, 28: false} {
		given := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{today.Add(-ago): {}}}}
		assert.Equal(t, want, Unanswered(given, today), "a sheet of %d days ago: its week must have run, and holidays ask nothing", ago)
		given.Practice = []ladder.Practice{{Day: today.Add(-26)}}
		assert.False(t, Unanswered(given, today))
	}

	s.Practice = []ladder.Practice{{Day: today, Minutes: 10}, {Day: today.Add(-2), Minutes: 20}, {Day: today.Add(-1)}, {Day: today.Add(-9), Minutes: 90}}
	mean, days := Minutes(s, today.Add(-2), today)
	assert.Equal(t, []any{15.0, 2}, []any{mean, days}, "a day without minutes says nothing of minutes")
	_, days = Minutes(s, today.Add(1), today.Add(9))
	assert.Zero(t, days)

	for _, c := range []struct {
		name string
		feel []string
		want Level
	}{
		{"dull twice is not an opinion", []string{"dull", "dull"}, Untold},
		{"three times is", []string{"dull", "dull", "dull"}, Little},
		{"unless fun is said as often", []string{"dull", "dull", "dull", "fun", "easy", "fun"}, Untold},
		{"fun once more than dull", []string{"dull", "fun", "easy"}, Much},
		{"fine and hard say neither", []string{"fine", "hard", "hard", "fine"}, Untold},
	} {
		_, joy := Feelings(at(len(c.feel), c.feel...), today)
		assert.Equal(t, c.want, joy, c.name)
	}
	old := ladder.Standing{Practice: []ladder.Practice{{Day: today.Add(-28), Feel: "fun"}, {Day: today.Add(1), Feel: "fun"}}}
	words, _ := Feelings(old, today)
	assert.Empty(t, words, "neither what is over nor what is to come")
}

func TestMuchIsPartOfWhatWasAsked(t *testing.T) {
	asked := len(Asked(at(0), today.Add(-27), today))
	assert.Equal(t, 24, asked)
	assert.Equal(t, Little, Read(at(14), today, 10).Practice, "14 of 24")
	assert.Equal(t, Much, Read(at(15), today, 10).Practice, "15 of 24")
	for age, three := range map[int]bool{12: false, 13: true, 17: true, 18: false} {
		codes := Read(at(20, "dull", "dull", "dull"), today, age).Try
		assert.Equal(t, three, codes[len(codes)-1].Code == "home-three-way", "at %d", age)
	}
}
