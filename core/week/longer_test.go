package week

import (
	"maps"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

// To which lesson a sheet runs, and its last day, as it looks on a day. Lessons are on
// Wednesdays, the one that gives the sheet on 18 November; the term ends on 11 December.
func TestHowFarASheetReaches(t *testing.T) {
	term := calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}, {Name: "spring", From: "2027-01-11", To: "2027-03-26"}}}
	wednesdays := calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
	second, agreed := wednesdays, wednesdays
	second.Rhythm, second.Since = calendar.Fortnightly, "2026-11-18"
	agreed.Rhythm = calendar.Irregular
	twice := wednesdays
	twice.Rhythm, twice.Second = calendar.Twice, &calendar.TimeOfWeek{Weekday: time.Friday, Start: "16:00"}
	without := func(days ...calendar.Date) calendar.Calendar {
		c := term
		c.Off = map[calendar.Date]bool{}
		for _, d := range days {
			c.Off[d] = true
		}
		return c
	}
	besides := func(day calendar.Date) calendar.Calendar {
		c := term
		c.On = map[calendar.Date]bool{day: true}
		return c
	}
	for _, c := range []struct {
		says          string
		c             calendar.Calendar
		s             calendar.Slot
		today         calendar.Date
		next, through calendar.Date
	}{
		{"a week", term, wednesdays, from, "2026-11-25", "2026-11-24"},
		{"the lesson of today is still waited for", term, wednesdays, "2026-11-25", "2026-11-25", "2026-11-24"},
		{"a day later nothing was told of it", term, wednesdays, "2026-11-26", "2026-12-02", "2026-12-01"},
		{"told that it is not given", without("2026-11-25"), wednesdays, "2026-11-20", "2026-12-02", "2026-12-01"},
		{"three ill weeks", without("2026-11-25", "2026-12-02", "2026-12-09"), wednesdays, "2026-11-25", "2027-01-13", "2026-12-30"},
		{"an extra lesson tomorrow", besides("2026-11-19"), wednesdays, from, "2026-11-19", "2026-11-18"},
		{"moved to Friday", besides("2026-11-27"), agreed, from, "2026-11-27", "2026-11-26"},
		{"every second week", term, second, from, "2026-12-02", "2026-12-01"},
		{"twice a week", term, twice, from, "2026-11-20", "2026-11-19"},
		{"by agreement, none agreed: a fortnight", term, agreed, from, "", "2026-12-02"},
		{"the fortnight's last day", term, agreed, "2026-12-02", "", "2026-12-02"},
		{"and another in term", term, agreed, "2026-12-03", "", "2026-12-16"},
		{"none in the holidays", term, agreed, "2026-12-20", "", "2026-12-16"},
		{"holidays: six weeks", without("2026-11-25", "2026-12-02", "2026-12-09", "2027-01-13"), wednesdays, from, "2027-01-20", "2026-12-30"},
		{"and on where they are longer", without("2026-11-25", "2026-12-02", "2026-12-09", "2027-01-13"), wednesdays, "2026-12-24", "2027-01-20", "2027-01-13"},
	} {
		next, through := Reach(c.c, c.s, from, c.today)
		assert.Equal(t, []calendar.Date{c.next, c.through}, []calendar.Date{next, through}, c.says)
	}
}

// A sheet runs to its last day: in term the days of its first week come again, with what is in hand as it
// stood last; in the holidays they are lighter.
func TestASheetGoesOn(t *testing.T) {
	s := only(rung("new", 8, 1, at(from), nil), rung("old", 8, 1, at("2026-09-01"), at("2026-10-01")), rung("older", 8, 1, at("2026-08-01"), at("2026-09-01")))
	for _, c := range []struct {
		name        string
		days        int
		holidays    calendar.Date // from when
		again, thin int
	}{
		{"a lesson tomorrow", 0, calendar.Last, 0, 0}, {"in a week", 6, calendar.Last, 0, 0}, {"in eight days", 7, calendar.Last, 1, 0},
		{"a fortnight in term", 13, calendar.Last, 7, 0}, {"five weeks of holidays", 34, from.Add(7), 0, 28}, {"holidays in a week", 20, from.Add(14), 7, 7},
	} {
		a := ask(s, approach.Default(9), 9, from, from.Add(c.days+1))
		a.Calendar.Free = []calendar.Span{{Name: "holidays", From: c.holidays, To: calendar.Last}}
		sh := Make(a)
		assert.Equal(t, from.Add(c.days), sh.Ends(), c.name)
		again, thin := 0, 0
		for _, d := range sh.Days {
			if d.Thin {
				thin++
				assert.LessOrEqual(t, len(d.Tasks), 2, c.name)
			}
			if d.Again {
				again++
				minutes := 0
				for _, task := range d.Tasks {
					minutes += task.Minutes
					if task.Rung == "new" {
						assert.Equal(t, 0, task.From, "the piece as it stood last: whole")
					}
				}
				assert.InDelta(t, sh.Budget, minutes, 1, c.name)
			}
			if d.Thin || d.Again {
				assert.NotEmpty(t, d.Tasks, "%s: no day without a thing", c.name)
			}
		}
		assert.Equal(t, []int{c.again, c.thin}, []int{again, thin}, c.name)
		later := sh.Fold(from).Later(english)
		assert.Len(t, later, min(c.again, 1)+min(c.thin, 1), c.name)
		for _, l := range later {
			assert.NotContains(t, l.Says, "{", c.name)
			assert.Equal(t, !l.Again, strings.Contains(l.Says, "practise less"), l.Says)
			assert.Contains(t, l.Says, l.To.Time().Format("2 January"))
		}
	}
}

// A week of a sheet is told day by day: the first, or from today on once that is over.
func TestWhichDaysAreTold(t *testing.T) {
	sh := Sheet{From: from}
	for d := range 21 {
		sh.Days = append(sh.Days, Day{Date: from.Add(d), Again: d > 6, Tasks: []Task{{Title: "T"}}})
	}
	for today, want := range map[int][2]int{0: {0, 6}, 6: {0, 6}, 7: {7, 13}, 15: {15, 20}, 20: {20, 20}, 21: {0, 6}} {
		var told []int
		for d, day := range sh.Fold(from.Add(today)).Days {
			if !day.Folded {
				told = append(told, d)
			}
		}
		assert.Equal(t, want, [2]int{told[0], told[len(told)-1]}, "day %d", today)
	}
	assert.Nil(t, sh.Fold(from.Add(15)).Later(english), "what is over is not told again")
}

// A sheet that must reach further, or not so far, keeps the days that were given, and the teacher's word on
// them is put on once.
func TestASheetThatReachesFurther(t *testing.T) {
	day := func(d int, titles ...string) Day {
		out := Day{Date: from.Add(d)}
		for _, title := range titles {
			out.Tasks = append(out.Tasks, Task{Title: title, Key: title})
		}
		return out
	}
	given := Sheet{From: from, Next: from.Add(3), Budget: 12, Drafted: []Day{day(0), day(1, "a"), day(2, "b")}, Days: []Day{day(0), day(1, "a", "own"), day(2, "b")}}
	fresh := Sheet{From: from, Next: from.Add(5), Budget: 20, Days: []Day{day(0), day(1, "x"), day(2, "y"), day(3, "z"), day(4, "z")}}
	longer := Extend(given, fresh)
	assert.Equal(t, []Day{day(0), day(1, "a"), day(2, "b"), day(3, "z"), day(4, "z")}, longer.Days)
	assert.Equal(t, []any{from.Add(5), 12, 0}, []any{longer.Next, longer.Budget, len(longer.Drafted)})
	fresh.Days, fresh.Next = fresh.Days[:2], from.Add(2)
	assert.Equal(t, []Day{day(0), day(1, "a")}, Extend(given, fresh).Days, "an earlier lesson cuts it")
}

// What a sheet asked counts as asked only where its days came before the next lesson.
func TestLinesThatNobodyCameTo(t *testing.T) {
	past := []Past{
		{Day: from, Ticked: map[string]int{"first day": 0, "third day": 0, "ticked": 1, "of old": 0}, First: map[string]calendar.Date{"first day": from.Add(1), "third day": from.Add(3), "ticked": from.Add(3)}},
		{Day: from.Add(3), Ticked: map[string]int{"next day": 0}, First: map[string]calendar.Date{"next day": from.Add(4)}},
	}
	keys := func(until calendar.Date) (out []string) {
		for _, p := range lived(past, until) {
			out = append(out, slices.Sorted(maps.Keys(p.Ticked))...)
		}
		return out
	}
	assert.Equal(t, []string{"first day", "of old", "ticked", "next day"}, keys(from.Add(5)), "an extra lesson after three days")
	assert.Equal(t, []string{"first day", "of old", "ticked"}, keys(from.Add(4)), "and one more the day after")
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
