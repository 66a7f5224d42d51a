package week

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

// A sheet runs to the next lesson, in three days or after the holidays; after its first week
// it is thinner.
func TestASheetRunsToTheNextLesson(t *testing.T) {
	s := only(rung("new", 8, 1, at(from), nil), rung("old", 8, 1, at("2026-09-01"), at("2026-10-01")), rung("older", 8, 1, at("2026-08-01"), at("2026-09-01")))
	for _, c := range []struct {
		name string
		next calendar.Date
		days int // the lesson's own with them
		thin int
	}{
		{"a lesson tomorrow", from.Add(1), 1, 0}, {"in three days", from.Add(3), 3, 0}, {"in a week", from.Add(7), 7, 0}, {"in eight days", from.Add(8), 8, 1},
		{"after five weeks", from.Add(35), 35, 28}, {"after a summer", from.Add(80), 43, 36}, {"none told", "", 7, 0},
	} {
		sh := sheet(s, approach.Default(9), 9, from, c.next)
		assert.Len(t, sh.Days, c.days, c.name)
		thin := 0
		for _, d := range sh.Days {
			if d.Thin {
				thin++
				assert.NotEmpty(t, d.Tasks, "%s: no day without a thing", c.name)
				assert.LessOrEqual(t, len(d.Tasks), 2, c.name)
			}
		}
		assert.Equal(t, c.thin, thin, c.name)
		later := sh.Later()
		assert.Equal(t, c.thin > 0, later != nil, c.name)
		if later != nil {
			assert.Equal(t, []calendar.Date{from.Add(7), from.Add(c.days - 1)}, []calendar.Date{later.From, later.To})
			assert.Contains(t, later.Titles, "T older", "the one that was silent longest first")
			assert.Equal(t, c.thin > 1, slices.Contains(later.Titles, "T old"), c.name)
		}
	}
}

// After a week of under half the days: one thing less a day, and four days of six.
func TestAfterAThinWeek(t *testing.T) {
	for _, c := range []struct {
		practised int
		off       int
	}{{3, 0}, {2, 2}} {
		before := from.Add(-7)
		s := only(rung("new", 8, 1, at(before), nil))
		for i := range 12 {
			s.Rungs = append(s.Rungs, rung(string(rune('a'+i)), 8, 1, at("2026-08-01"), at("2026-09-01")))
		}
		s.Closed[before] = before.Time()
		for d := range c.practised {
			s.Practice = append(s.Practice, ladder.Practice{Day: before.Add(d + 1), Minutes: 10})
		}
		sh := sheet(s, approach.Default(6), 6, from, next)
		off, most := 0, 0
		for _, d := range sh.Days[1:] {
			if d.Off {
				off++
			}
			things := map[string]bool{}
			for _, task := range d.Tasks {
				things[task.Rung] = true
			}
			most = max(most, len(things))
		}
		assert.Equal(t, c.off, off, "practised on %d days of six", c.practised)
		assert.LessOrEqual(t, most, LinesADay(6))
		assert.Equal(t, c.off > 0, slices.ContainsFunc(sh.Lines, func(l Line) bool { return l.Code == "lighter-week" }))
	}
	for age, want := range map[int]int{6: 4, 7: 6, 9: 6, 10: 8, 40: 8} {
		assert.Equal(t, want, LinesADay(age), age)
	}
}

// How to sit at home, where it was measured: tiles and footrest after the seat, not what
// only a fitter minds.
func TestTheSeatAtHome(t *testing.T) {
	a := ask(only(rung("new", 8, 1, at(from), nil)), approach.Default(5), 5, from, next)
	a.Seat = []reason.Reason{reason.Of("seat-height", "cm", "54"), reason.Of("seat-tiles", "n", "1"), reason.Of("seat-platform", "cm", "32"), reason.Of("seat-firm")}
	var says []string
	for _, l := range Make(a).Lines {
		says = append(says, l.Says)
	}
	assert.Equal(t, []string{"Firm tiles on the bench at its highest: 1.", "Under the feet: something firm, 32 cm high."}, says[1:3])
	assert.NotContains(t, says, "")
}
