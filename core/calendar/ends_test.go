package calendar

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// A slot at the ends of what can be.
func TestTheEndsOfASlot(t *testing.T) {
	for _, c := range []struct {
		slot Slot
		fits bool
	}{
		{Slot{Weekday: time.Sunday, Start: "16:00", Minutes: 30}, true}, {Slot{Weekday: time.Saturday, Start: "16:00", Minutes: 30}, true}, {Slot{Weekday: 7, Start: "16:00", Minutes: 30}, false}, {Slot{Weekday: -1, Start: "16:00", Minutes: 30}, false},
		{Slot{Weekday: 1, Start: "16:00", Minutes: 10}, true}, {Slot{Weekday: 1, Start: "16:00", Minutes: 9}, false}, {Slot{Weekday: 1, Start: "16:00", Minutes: 120}, true}, {Slot{Weekday: 1, Start: "16:00", Minutes: 121}, false},
		{Slot{Weekday: 1, Start: "23:30", Minutes: 30}, true}, {Slot{Weekday: 1, Start: "23:31", Minutes: 30}, false}, {Slot{Weekday: 1, Start: "25:00", Minutes: 30}, false}, {Slot{Weekday: 1, Start: "", Minutes: 30}, false},
	} {
		assert.Equal(t, c.fits, c.slot.Check() == nil, "%+v", c.slot)
	}
	assert.True(t, Slot{Start: "late"}.On("2026-11-18", time.UTC).IsZero())
}

// Lessons, given or moved, between two days, both among them.
func TestLessonsBetweenTwoDays(t *testing.T) {
	c := autumn
	c.On = map[Date]bool{"2026-11-13": true, "2026-11-20": true}
	c.Off = map[Date]bool{"2026-11-18": true}
	for _, x := range []struct {
		first, last Date
		want        []Date
	}{
		{"2026-11-11", "2026-11-25", []Date{"2026-11-11", "2026-11-13", "2026-11-20", "2026-11-25"}},
		{"2026-11-12", "2026-11-24", []Date{"2026-11-13", "2026-11-20"}},
		{"2026-11-13", "2026-11-20", []Date{"2026-11-13", "2026-11-20"}},
		{"2026-11-14", "2026-11-19", nil},
		{"2026-11-25", "2026-11-25", []Date{"2026-11-25"}},
		{"2026-11-26", "2026-11-25", nil},
	} {
		assert.Equal(t, x.want, c.Lessons(wednesday, x.first, x.last), "%s to %s", x.first, x.last)
	}
	for _, x := range []struct{ after, want Date }{
		{"2026-11-11", "2026-11-13"}, {"2026-11-12", "2026-11-13"}, {"2026-11-13", "2026-11-20"}, {"2026-11-20", "2026-11-25"}, {"2026-11-25", "2026-12-02"},
	} {
		assert.Equal(t, x.want, c.Next(wednesday, x.after), "after %s", x.after)
	}
	only := Calendar{Terms: []Span{{"later", "2030-01-01", "2030-03-01"}}, On: map[Date]bool{"2026-11-20": true, "2026-11-13": true}}
	assert.Equal(t, Date("2026-11-13"), only.Next(wednesday, "2026-11-01"), "the first of those given besides")
	far := Calendar{Terms: []Span{{"autumn", "2027-06-02", "2027-06-02"}}}
	assert.Equal(t, Date("2027-06-02"), far.Next(wednesday, "2026-11-20"), "28 weeks are past any summer")
	assert.Empty(t, far.Next(wednesday, "2026-11-17"), "29 are not")
}

// The first taught week runs from the lesson of the week around the day, unless that was
// missed and none given in its place.
func TestWhereTheFirstTaughtWeekBegins(t *testing.T) {
	for _, c := range []struct {
		name    string
		day     Date
		off, on []Date
		want    float64
	}{
		{"on the day of the lesson", "2026-11-18", nil, nil, 0},
		{"between lessons", "2026-11-20", nil, nil, 0},
		{"missed: from the next lesson", "2026-11-18", []Date{"2026-11-18"}, nil, 1},
		{"missed two days ago", "2026-11-20", []Date{"2026-11-18"}, nil, 5.0 / 7},
		{"missed, and given on the day itself", "2026-11-20", []Date{"2026-11-18"}, []Date{"2026-11-20"}, 0},
		{"missed, and given on the same day at another time", "2026-11-20", []Date{"2026-11-18"}, []Date{"2026-11-18"}, 0},
		{"missed, to be given tomorrow", "2026-11-20", []Date{"2026-11-18"}, []Date{"2026-11-21"}, 1.0 / 7},
		{"missed, another given before it", "2026-11-20", []Date{"2026-11-18"}, []Date{"2026-11-17"}, 5.0 / 7},
		{"a week before was missed", "2026-11-20", []Date{"2026-11-11"}, nil, 0},
	} {
		cal := autumn
		cal.Off, cal.On = map[Date]bool{}, map[Date]bool{}
		for _, d := range c.off {
			cal.Off[d] = true
		}
		for _, d := range c.on {
			cal.On[d] = true
		}
		assert.InDelta(t, c.want, cal.Marks(wednesday, c.day, 3)[0], 1e-9, c.name)
	}
	end := autumn.Marks(wednesday, "2027-03-24", 4)
	assert.Equal(t, Marks{0, 1, 2, 3}, end, "past the last term a taught week is a calendar week")
	assert.Equal(t, Marks{1, 2}, Calendar{Terms: []Span{{"over", "2026-01-01", "2026-02-01"}}, Off: map[Date]bool{"2026-11-18": true}}.Marks(wednesday, "2026-11-18", 2), "with no term in sight too")
}

// Where a part of a taught week falls: within it, or after a break on the lesson.
func TestPartsOfTaughtWeeks(t *testing.T) {
	m := Marks{0, 1, 4, 5}
	for w, want := range map[float64]float64{-1: 0, 0: 0, 0.5: 0.5, 1: 1, 1.25: 4, 2: 4, 2.5: 4.5, 3: 5, 4.5: 6.5} {
		assert.InDelta(t, want, m.At(w), 1e-9, "%g taught weeks", w)
	}
}

// Lessons that touch do not clash, ten minutes are a pause, six hours are not long yet,
// three hours without a pause are not said yet.
func TestTheEndsOfADay(t *testing.T) {
	day := func(list ...any) (codes []string) {
		var all []Booked
		for i := 0; i < len(list); i += 2 {
			all = append(all, Booked{Name: string(rune('A' + i/2)), On: "Monday", Start: list[i].(string), Long: list[i+1].(int)})
		}
		for _, r := range Warnings(all) {
			codes = append(codes, r.Code)
		}
		return codes
	}
	assert.Empty(t, day("15:00", 30, "15:30", 30))
	assert.Equal(t, []string{"calendar-clash"}, day("15:00", 31, "15:30", 30))
	assert.Empty(t, day("09:00", 90, "10:40", 90, "12:20", 180), "six hours to the minute")
	assert.Equal(t, []string{"calendar-long-day"}, day("09:00", 91, "10:41", 90, "12:21", 180))
	assert.Empty(t, day("09:00", 90, "10:30", 90))
	assert.Equal(t, []string{"calendar-no-pause"}, day("09:00", 90, "10:30", 91))
	assert.Empty(t, day("09:00", 90, "10:40", 91), "ten minutes are a pause")
	assert.Equal(t, []string{"calendar-no-pause"}, day("09:00", 90, "10:39", 91), "nine are not")
	assert.Equal(t, []string{"calendar-clash", "calendar-clash"}, day("15:00", 90, "15:10", 10, "15:20", 10), "the long one is run into twice")
	first := Warnings([]Booked{{Name: "A", On: "Monday", Start: "09:00", Long: 100}, {Name: "B", On: "Monday", Start: "10:40", Long: 100}, {Name: "C", On: "Monday", Start: "13:00", Long: 190}})
	assert.Equal(t, []string{"200", "09:00"}, []string{first[len(first)-1].Args["minutes"], first[len(first)-1].Args["from"]}, "the longest run, and where it began")
	assert.Equal(t, "00:05", Booked{Start: "00:05"}.Start)
	assert.Equal(t, []int{5, 0}, []int{minutes("00:05"), minutes("soon")})
}

// Spans at the ends of what can be.
func TestTheEndsOfASpan(t *testing.T) {
	for _, c := range []struct {
		name string
		span []Span
		fits bool
	}{
		{"one day", []Span{{"day", "2026-09-07", "2026-09-07"}}, true},
		{"none", []Span{{"day", "2026-09-07", "2026-09-06"}}, false},
		{"400 days on", []Span{{"year", "2026-01-01", Date("2026-01-01").Add(400)}}, true},
		{"401", []Span{{"year", "2026-01-01", Date("2026-01-01").Add(401)}}, false},
		{"a name of 100", []Span{{string(make([]byte, 100)), "2026-01-01", "2026-02-01"}}, true},
		{"of 101", []Span{{string(make([]byte, 101)), "2026-01-01", "2026-02-01"}}, false},
		{"no name", []Span{{" ", "2026-01-01", "2026-02-01"}}, false},
		{"one after the other", []Span{{"b", "2026-03-02", "2026-04-01"}, {"a", "2026-02-01", "2026-03-01"}}, true},
		{"on the same day", []Span{{"a", "2026-02-01", "2026-03-01"}, {"b", "2026-03-01", "2026-04-01"}}, false},
		{"no such day", []Span{{"a", "2026-02-30", "2026-03-01"}}, false},
	} {
		assert.Equal(t, c.fits, Calendar{Terms: c.span}.Check() == nil, c.name)
	}
	assert.Equal(t, []bool{true, true, false, false}, []bool{InBounds(time.Date(1900, 1, 1, 0, 0, 0, 0, time.UTC)), InBounds(time.Date(2200, 12, 31, 0, 0, 0, 0, time.UTC)),
		InBounds(time.Date(1899, 12, 31, 0, 0, 0, 0, time.UTC)), InBounds(time.Date(2201, 1, 1, 0, 0, 0, 0, time.UTC))})
	for _, c := range []struct {
		day  string
		fits bool
	}{{"1900-01-01", true}, {"1899-12-31", false}, {"2200-12-31", true}, {"2201-01-01", false}} {
		_, err := ParseDate(c.day)
		assert.Equal(t, c.fits, err == nil, c.day)
	}
	assert.True(t, Date("").Time().IsZero())
}
