// Package calendar knows terms, free weeks and weekly lesson slots.
//
// Days are civil dates without a clock or a zone; weeks begin on Monday.
package calendar

import (
	"fmt"
	"slices"
	"strings"
	"time"
)

// A Date is a civil day, written 2026-11-18. Dates of four-digit years sort as
// strings. The empty Date is no day.
type Date string

// First and Last are the days between which a day told from outside must lie, so
// that a slip of the keyboard starts no count of a million weeks and days go on
// sorting as strings.
const (
	First Date = "1900-01-01"
	Last  Date = "2200-12-31"
)

// ParseDate checks that s is a day from First to Last.
func ParseDate(s string) (Date, error) {
	t, err := time.Parse(time.DateOnly, s)
	if err != nil || t.Format(time.DateOnly) != s {
		return "", fmt.Errorf("%q is not a day such as 2026-11-18", s)
	}
	if d := Date(s); d < First || d > Last {
		return "", fmt.Errorf("%s lies outside the years %s to %s", s, First[:4], Last[:4])
	}
	return Date(s), nil
}

// Foreseen is how many days ahead a day is foretold: what lies further off is told as more than
// two years. A judgement.
const Foreseen = 2 * 365

// Beyond reports whether a day is too far off to be foretold on another.
func (d Date) Beyond(today Date) bool { return d.Sub(today) > Foreseen }

// InBounds reports whether a moment lies between First and Last.
func InBounds(t time.Time) bool {
	return t.Year() >= First.Time().Year() && t.Year() <= Last.Time().Year()
}

// On returns the day of a moment in its own zone.
func On(t time.Time) Date {
	var buf [len(time.DateOnly)]byte
	return Date(t.AppendFormat(buf[:0], time.DateOnly))
}

// Time returns midnight UTC of the day, and the zero time for no day.
func (d Date) Time() time.Time {
	if len(d) != len(time.DateOnly) {
		return time.Time{}
	}
	number := func(digits Date) int { // a Date is checked where it comes in
		n := 0
		for _, c := range digits {
			n = 10*n + int(c-'0')
		}
		return n
	}
	return time.Date(number(d[:4]), time.Month(number(d[5:7])), number(d[8:]), 0, 0, 0, 0, time.UTC)
}

// Midnight returns the moment in a zone at which the day begins.
func (d Date) Midnight(zone *time.Location) time.Time {
	t := d.Time()
	return time.Date(t.Year(), t.Month(), t.Day(), 0, 0, 0, 0, zone)
}

// Add returns the day n days on.
func (d Date) Add(n int) Date { return On(d.Time().AddDate(0, 0, n)) }

// Sub returns the days from e to d.
func (d Date) Sub(e Date) int { return int(d.Time().Sub(e.Time()).Hours() / 24) }

// Weekday returns the day of the week.
func (d Date) Weekday() time.Weekday { return d.Time().Weekday() }

// Monday returns the first day of d's week.
func (d Date) Monday() Date { return d.Add(-(int(d.Weekday()) + 6) % 7) }

// A Span is a run of days, both ends in it.
type Span struct {
	Name string `json:"name"`
	From Date   `json:"from"`
	To   Date   `json:"to"`
}

// Holds reports whether d lies in the span.
func (s Span) Holds(d Date) bool { return s.From <= d && d <= s.To }

// A Calendar is a studio's terms and the free spans inside them.
type Calendar struct {
	Terms []Span `json:"terms"`
	Free  []Span `json:"free" doc:"days without lessons inside terms"`

	// Off and On are days on which one student's lesson was not given, and days
	// on which one is given outside the weekly slot.
	Off map[Date]bool `json:"-"`
	On  map[Date]bool `json:"-"`
}

// Teaching reports whether lessons are given on d. A calendar without terms
// teaches all year.
func (c Calendar) Teaching(d Date) bool {
	for _, f := range c.Free {
		if f.Holds(d) {
			return false
		}
	}
	if len(c.Terms) == 0 {
		return true
	}
	_, ok := c.Term(d)
	return ok
}

// Term returns the term that d lies in.
func (c Calendar) Term(d Date) (Span, bool) {
	for _, t := range c.Terms {
		if t.Holds(d) {
			return t, true
		}
	}
	return Span{}, false
}

// Week returns which week of its term d lies in and how many the term has,
// counted by calendar weeks, free ones included; 0, 0 outside terms.
func (c Calendar) Week(d Date) (week, of int) {
	t, ok := c.Term(d)
	if !ok {
		return 0, 0
	}
	first := t.From.Monday()
	return d.Monday().Sub(first)/7 + 1, t.To.Monday().Sub(first)/7 + 1
}

// Gaps lists the free spans and what lies between terms, which has no name.
func (c Calendar) Gaps() []Span {
	out := append([]Span{}, c.Free...)
	terms := slices.SortedFunc(slices.Values(c.Terms), func(a, b Span) int { return strings.Compare(string(a.From), string(b.From)) })
	for i := 1; i < len(terms); i++ {
		if from, to := terms[i-1].To.Add(1), terms[i].From.Add(-1); from <= to {
			out = append(out, Span{From: from, To: to})
		}
	}
	return out
}

// A Rhythm is how often a student's lessons come.
type Rhythm string

// The rhythms. The zero Rhythm is every week.
const (
	Weekly      Rhythm = ""
	Fortnightly Rhythm = "fortnightly" // every second week
	Twice       Rhythm = "twice"       // two days of every week
	Irregular   Rhythm = "irregular"   // each lesson is agreed by itself
)

// A Slot is when a student's lessons are, as far as that comes again.
type Slot struct {
	Weekday time.Weekday `json:"weekday" doc:"0 for Sunday to 6 for Saturday"`
	Start   string       `json:"start" doc:"15:04"`
	Minutes int          `json:"minutes"`
	Rhythm  Rhythm       `json:"rhythm,omitempty" enum:",fortnightly,twice,irregular" doc:"empty for every week"`
	Since   Date         `json:"since,omitempty" maxLength:"10" doc:"of fortnightly lessons: a day in a week that has one"`
	Second  *TimeOfWeek  `json:"second,omitempty" doc:"of two lessons a week: the other"`
}

// A TimeOfWeek is a weekday and a time on it.
type TimeOfWeek struct {
	Weekday time.Weekday `json:"weekday" doc:"0 for Sunday to 6 for Saturday"`
	Start   string       `json:"start" doc:"15:04"`
}

// Check says what is wrong with a slot.
func (s Slot) Check() error {
	if s.Minutes < 10 || s.Minutes > 120 {
		return fmt.Errorf("a lesson lasts 10 to 120 minutes, not %d", s.Minutes)
	}
	if err := checkHour(s.Weekday, s.Start, s.Minutes); err != nil {
		return err
	}
	switch s.Rhythm {
	case Weekly, Irregular:
	case Fortnightly:
		if _, err := ParseDate(string(s.Since)); err != nil {
			return fmt.Errorf("lessons every second week need a day of one of them: %w", err)
		}
	case Twice:
		if s.Second == nil {
			return fmt.Errorf("two lessons a week need a second day")
		}
		if s.Second.Weekday == s.Weekday {
			return fmt.Errorf("two lessons a week need two days, not %s twice", s.Weekday)
		}
		return checkHour(s.Second.Weekday, s.Second.Start, s.Minutes)
	default:
		return fmt.Errorf("%q is no rhythm of lessons", s.Rhythm)
	}
	return nil
}

func checkHour(day time.Weekday, start string, minutes int) error {
	at, err := time.Parse("15:04", start)
	switch {
	case err != nil:
		return fmt.Errorf("%q is not a time of day such as 16:00", start)
	case day < 0 || day > 6:
		return fmt.Errorf("%d is not a day of the week", day)
	case at.Hour()*60+at.Minute()+minutes > 24*60:
		return fmt.Errorf("a lesson at %s of %d minutes runs past midnight", start, minutes)
	}
	return nil
}

// Hours lists the hours of a week in which the slot may fall, none of irregular lessons.
func (s Slot) Hours() []TimeOfWeek {
	switch {
	case s.Rhythm == Irregular:
		return nil
	case s.Rhythm == Twice && s.Second != nil:
		return []TimeOfWeek{{s.Weekday, s.Start}, *s.Second}
	}
	return []TimeOfWeek{{s.Weekday, s.Start}}
}

// At returns the slot as it is on a day: at the second time where the day is that one's.
func (s Slot) At(d Date) Slot {
	for _, h := range s.Hours() {
		if h.Weekday == d.Weekday() {
			s.Start = h.Start
		}
	}
	return s
}

// On returns the moment of the slot on a day in a zone.
func (s Slot) On(d Date, zone *time.Location) time.Time {
	t, err := time.ParseInLocation("2006-01-02 15:04", string(d)+" "+s.At(d).Start, zone)
	if err != nil {
		return time.Time{}
	}
	return t
}

// from returns the first day of an hour of the slot from d on, and the days to the next
// one.
func (s Slot) from(h TimeOfWeek, d Date) (first Date, step int) {
	first = d.Add((int(h.Weekday) - int(d.Weekday()) + 7) % 7)
	if s.Rhythm != Fortnightly || s.Since == "" {
		return first, 7
	}
	if weeks := first.Monday().Sub(s.Since.Monday()) / 7; weeks%2 != 0 {
		first = first.Add(7)
	}
	return first, 14
}

// Lessons returns the days from first to last on which the slot is taught.
func (c Calendar) Lessons(s Slot, first, last Date) []Date {
	var days []Date
	hours := s.Hours()
	for _, h := range hours {
		d, step := s.from(h, first)
		for left := last.Sub(d); left >= 0; d, left = d.Add(step), left-step {
			if c.Teaching(d) && !c.Off[d] && !c.On[d] {
				days = append(days, d)
			}
		}
	}
	for on := range c.On {
		if first <= on && on <= last {
			days = append(days, on)
		}
	}
	if len(hours) != 1 || len(c.On) > 0 {
		slices.Sort(days)
	}
	return days
}

// horizon is how far ahead Next looks: past any summer.
const horizon = 200

// Next returns the first lesson day after d, or no day when none comes within
// 200 days.
func (c Calendar) Next(s Slot, d Date) Date {
	next := Date("")
	for _, h := range s.Hours() {
		day, step := s.from(h, d.Add(1))
		for range horizon / step {
			if c.Teaching(day) && !c.Off[day] {
				if next == "" || day < next {
					next = day
				}
				break
			}
			day = day.Add(step)
		}
	}
	for on := range c.On {
		if on > d && (next == "" || on < next) {
			next = on
		}
	}
	return next
}

// NextWeek returns the first lesson after d that begins another taught week: of two
// lessons in a week the second begins none.
func (c Calendar) NextWeek(s Slot, d Date) Date {
	next := c.Next(s, d)
	if s.Rhythm == Twice && next != "" && next.Monday() == d.Monday() {
		next = c.Next(s, d.Monday().Add(6))
	}
	return next
}

// Weeks keeps of some lessons, in order, those that begin a taught week: where two are
// given every week, the first of each.
func (s Slot) Weeks(days []Date) []Date {
	if s.Rhythm != Twice {
		return days
	}
	var out []Date
	for i, d := range days {
		if i == 0 || d.Monday() != days[i-1].Monday() {
			out = append(out, d)
		}
	}
	return out
}

// Marks returns where the first n taught weeks from d begin, in calendar weeks
// after d: each taught week runs from one lesson to the next, of two a week from the
// first of one week to the first of the next. Past the last term, and where no lesson
// is agreed, a taught week counts as a calendar week.
func (c Calendar) Marks(s Slot, d Date, n int) Marks {
	marks := make(Marks, n)
	at := d
	for i := range n {
		switch {
		case i == 0 && !c.missed(s, d):
			continue
		case at != "":
			at = c.NextWeek(s, at)
		}
		if at == "" {
			marks[i] = marks[max(i-1, 0)] + 1
		} else {
			marks[i] = float64(at.Sub(d)) / 7
		}
	}
	return marks
}

// missed reports whether the lesson that the week around d would run from was not
// given, and none in its place: then no taught week runs.
func (c Calendar) missed(s Slot, d Date) bool {
	last := Date("")
	for _, h := range s.Hours() {
		day, step := s.from(h, d.Add(-13))
		for ; day <= d; day = day.Add(step) {
			last = max(last, day)
		}
	}
	if last == "" || !c.Off[last] {
		return false
	}
	for on := range c.On {
		if last <= on && on <= d {
			return false
		}
	}
	return true
}

// Marks are the beginnings of taught weeks, in calendar weeks from a day.
type Marks []float64

// At returns how many calendar weeks after the day a time of w taught weeks
// falls. What would fall into a break falls on the lesson after it.
func (m Marks) At(w float64) float64 {
	last := len(m) - 1
	i := int(max(w, 0))
	if i >= last {
		return m[last] + max(w, 0) - float64(last)
	}
	part, step := max(w, 0)-float64(i), m[i+1]-m[i]
	if part > 0 && step > 1 {
		part = 1
	}
	return m[i] + part*step
}
