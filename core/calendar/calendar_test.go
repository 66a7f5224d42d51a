package calendar

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

var autumn = Calendar{
	Terms: []Span{{"autumn", "2026-09-07", "2026-12-11"}, {"spring", "2027-01-11", "2027-03-26"}},
	Free:  []Span{{"half term", "2026-10-26", "2026-10-30"}},
}

var wednesday = Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}

func TestWeekOfTerm(t *testing.T) {
	for _, c := range []struct {
		day      Date
		week, of int
	}{
		{"2026-09-07", 1, 14}, {"2026-09-13", 1, 14}, {"2026-11-18", 11, 14},
		{"2026-12-11", 14, 14}, {"2026-12-12", 0, 0}, {"2027-01-11", 1, 11},
	} {
		w, of := autumn.Week(c.day)
		assert.Equal(t, [2]int{c.week, c.of}, [2]int{w, of}, c.day)
	}
}

func TestNextLesson(t *testing.T) {
	for _, c := range []struct{ name, from, want string }{
		{"a week on", "2026-11-18", "2026-11-25"},
		{"later the same week", "2026-11-16", "2026-11-18"},
		{"over the free week", "2026-10-21", "2026-11-04"},
		{"over the winter break", "2026-12-09", "2027-01-13"},
		{"no term in sight", "2027-03-24", ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			assert.Equal(t, Date(c.want), autumn.Next(wednesday, Date(c.from)))
		})
	}
	assert.Equal(t, Date("2026-11-25"), Calendar{}.Next(wednesday, "2026-11-18"), "no terms: all year")
}

func TestSlots(t *testing.T) {
	assert.NoError(t, wednesday.Check())
	for _, bad := range []Slot{{Weekday: 3, Start: "4pm", Minutes: 30}, {Weekday: 7, Start: "16:00", Minutes: 30}, {Weekday: 3, Start: "16:00", Minutes: 5}, {Weekday: 3, Start: "23:30", Minutes: 60}} {
		assert.Error(t, bad.Check(), bad)
	}
	zone := time.FixedZone("east", 3600)
	assert.Equal(t, "2026-11-18T16:00:00+01:00", wednesday.On("2026-11-18", zone).Format(time.RFC3339))
	assert.Len(t, autumn.Lessons(wednesday, "2026-09-07", "2026-12-11"), 13, "fourteen weeks, one free")
}

func TestDates(t *testing.T) {
	for _, bad := range []string{"", "2026-2-3", "2026-02-30", "18 Nov", "2026-11-18T00:00:00Z"} {
		_, err := ParseDate(bad)
		assert.Error(t, err, bad)
	}
	d, err := ParseDate("2028-02-28")
	assert.NoError(t, err)
	assert.Equal(t, Date("2028-03-01"), d.Add(2), "a leap year")
	assert.Equal(t, 366, Date("2029-01-01").Sub("2028-01-01"))
	assert.Equal(t, Date("2026-11-16"), Date("2026-11-22").Monday())
}

func TestTaughtWeeksJumpOverBreaks(t *testing.T) {
	marks := autumn.Marks(wednesday, "2026-11-18", 15)
	for _, c := range []struct{ weeks, want float64 }{
		{0, 0}, {0.5, 0.5}, {3, 3}, {4, 8}, {3.2, 8}, {14, 18}, {16, 20},
	} {
		assert.InDelta(t, c.want, marks.At(c.weeks), 1e-9, "%v taught weeks", c.weeks)
	}
}

// Lessons that are not given, and those given outside the slot.
func TestMissedAndExtraLessons(t *testing.T) {
	c := Calendar{Terms: []Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}}
	wed := Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
	assert.Equal(t, []float64{0, 1, 2}, []float64(c.Marks(wed, "2026-11-18", 3)))
	c.Off = map[Date]bool{"2026-11-18": true}
	assert.Empty(t, c.Lessons(wed, "2026-11-18", "2026-11-18"))
	assert.Equal(t, Date("2026-11-25"), c.Next(wed, "2026-11-17"))
	assert.Equal(t, []float64{1, 2, 3}, []float64(c.Marks(wed, "2026-11-18", 3)), "no taught week runs until the next lesson")
	c.On = map[Date]bool{"2026-11-20": true}
	assert.Equal(t, Date("2026-11-20"), c.Next(wed, "2026-11-18"), "made up on Friday")
	assert.Equal(t, []Date{"2026-11-20", "2026-11-25"}, c.Lessons(wed, "2026-11-18", "2026-11-25"))
	assert.InDelta(t, 2.0/7, c.Marks(wed, "2026-11-18", 2)[0], 1e-9)
}

func TestCalendarsThatDoNotWork(t *testing.T) {
	for _, c := range []struct {
		name, says string
		change     func(*Calendar)
	}{
		{"a term that ends before it begins", "before it begins", func(c *Calendar) { c.Terms[0].To = "2026-09-01" }},
		{"two terms at once", "before autumn has ended", func(c *Calendar) { c.Terms[1].From = "2026-12-01" }},
		{"no name", "need a name", func(c *Calendar) { c.Free[0].Name = " " }},
		{"no day", "is not a day", func(c *Calendar) { c.Free[0].To = "2026-02-30" }},
		{"a term of two years", "longer than a year", func(c *Calendar) { c.Terms[1].To = "2028-12-01" }},
	} {
		t.Run(c.name, func(t *testing.T) {
			cal := Calendar{Terms: slices.Clone(autumn.Terms), Free: slices.Clone(autumn.Free)}
			c.change(&cal)
			assert.ErrorContains(t, cal.Check(), c.says)
		})
	}
	assert.NoError(t, autumn.Check())
}

func TestWarnings(t *testing.T) {
	at := func(name, start string, long int) Booked {
		return Booked{Name: name, On: "Wednesday", Start: start, Long: long}
	}
	full := func(n, gap int) (day []Booked) {
		for i := range n {
			day = append(day, at(fmt.Sprint("S", i), fmt.Sprintf("%02d:%02d", 9+i*(45+gap)/60, i*(45+gap)%60), 45))
		}
		return day
	}
	for _, c := range []struct {
		name string
		day  []Booked
		want []string
	}{
		{"one after another", []Booked{at("Emil", "16:00", 30), at("Tobias", "16:30", 30)}, nil},
		{"a quarter of an hour too early", []Booked{at("Tobias", "16:15", 30), at("Emil", "16:00", 30)}, []string{"calendar-clash Emil Tobias"}},
		{"a short one inside a long one, and one after it", []Booked{at("Walter", "10:00", 60), at("Pip", "10:15", 15), at("Wren", "10:45", 15)}, []string{"calendar-clash Walter Pip", "calendar-clash Walter Wren"}},
		{"three hours and a half without a pause", full(5, 0), []string{"calendar-no-pause  "}},
		{"the same with pauses", full(5, 10), nil},
		{"seven hours", full(9, 10), []string{"calendar-long-day  "}},
	} {
		var got []string
		for _, r := range Warnings(c.day) {
			got = append(got, r.Code+" "+r.Args["a"]+" "+r.Args["b"])
		}
		assert.Equal(t, c.want, got, c.name)
	}
	assert.Empty(t, Warnings([]Booked{{Name: "Emil", On: "Wednesday", Start: "16:00", Long: 30}, {Name: "Tobias", On: "Thursday", Start: "16:00", Long: 30}}))
}

func TestDaysOutsideTheBounds(t *testing.T) {
	for day, ok := range map[string]bool{"1899-12-31": false, "1900-01-01": true, "2200-12-31": true, "2201-01-01": false, "9999-12-31": false} {
		_, err := ParseDate(day)
		assert.Equal(t, ok, err == nil, day)
	}
	for year, ok := range map[int]bool{1: false, 1899: false, 1900: true, 2200: true, 2201: false} {
		assert.Equal(t, ok, InBounds(time.Date(year, 6, 1, 0, 0, 0, 0, time.UTC)), year)
	}
	assert.Len(t, Calendar{}.Lessons(wednesday, "9999-12-20", "9999-12-31"), 2, "the last year that is written with four digits ends too")
}

func TestGapsOfACalendar(t *testing.T) {
	half := Span{"half-term", "2026-10-26", "2026-10-30"}
	autumn, spring, summer := Span{"autumn", "2026-09-07", "2026-12-18"}, Span{"spring", "2027-01-04", "2027-03-26"}, Span{"summer", "2027-03-27", "2027-06-30"}
	assert.Equal(t, []Span{half, {"", "2026-12-19", "2027-01-03"}}, Calendar{Terms: []Span{summer, spring, autumn}, Free: []Span{half}}.Gaps(), "terms in any order; none where one term follows the other at once")
	assert.Equal(t, []Span{}, Calendar{Terms: []Span{autumn}}.Gaps())
	assert.Equal(t, []Span{{"", "2026-12-19", "2026-12-19"}}, Calendar{Terms: []Span{autumn, {"spring", "2026-12-20", "2027-03-26"}}}.Gaps(), "a gap of one day")
}
