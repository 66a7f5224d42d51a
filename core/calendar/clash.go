package calendar

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/judgement"
	"patientladder/core/reason"
)

// Check says what is wrong with a calendar: each span has a name and ends on or
// after its first day; terms do not overlap.
func (c Calendar) Check() error {
	for _, s := range slices.Concat(c.Terms, c.Free) {
		for _, d := range []Date{s.From, s.To} {
			if _, err := ParseDate(string(d)); err != nil {
				return fmt.Errorf("%s: %w", s.Name, err)
			}
		}
		switch {
		case strings.TrimSpace(s.Name) == "" || len(s.Name) > 100:
			return fmt.Errorf("the days from %s need a name of at most 100 characters", s.From)
		case s.To < s.From:
			return fmt.Errorf("%s ends on %s, before it begins on %s", s.Name, s.To, s.From)
		case s.To.Sub(s.From) > 400:
			return fmt.Errorf("%s is longer than a year", s.Name)
		}
	}
	terms := slices.Clone(c.Terms)
	slices.SortFunc(terms, func(a, b Span) int { return cmp.Compare(a.From, b.From) })
	for i := 1; i < len(terms); i++ {
		if terms[i].From <= terms[i-1].To {
			return fmt.Errorf("%s begins on %s, before %s has ended on %s", terms[i].Name, terms[i].From, terms[i-1].Name, terms[i-1].To)
		}
	}
	return nil
}

// A Booked is a lesson that takes its time on some day: a weekday of every week or
// one date.
type Booked struct {
	Name  string
	On    string // weekday or date, as it is told
	Start string // 15:04
	Long  int    // minutes
	Turn  int    // of lessons every second week: 1 or 2, which of the two; 0 for every week
}

// Turn says which of two weeks a fortnightly slot falls into, 1 or 2; 0 of another.
func (s Slot) Turn() int {
	if s.Rhythm != Fortnightly {
		return 0
	}
	weeks := s.Since.Monday().Sub(First.Monday()) / 7
	return 1 + weeks%2
}

// Warnings tells which lessons of a day run into each other, which days are long,
// and where no pause is left for hours.
func Warnings(list []Booked) []reason.Reason {
	out := []reason.Reason{}
	days := map[string][]Booked{}
	var order []string
	for _, b := range list {
		if days[b.On] == nil {
			order = append(order, b.On)
		}
		days[b.On] = append(days[b.On], b)
	}
	for _, on := range order {
		for turn := 1; turn <= 2; turn++ { // what falls into different weeks never meets
			for _, r := range warn(on, slices.DeleteFunc(slices.Clone(days[on]), func(b Booked) bool { return b.Turn != 0 && b.Turn != turn })) {
				if !slices.ContainsFunc(out, func(o reason.Reason) bool { return o.Code == r.Code && maps.Equal(o.Args, r.Args) }) {
					out = append(out, r)
				}
			}
		}
	}
	return out
}

// pause is how many minutes between lessons count as one.
const pause = 10

func warn(on string, day []Booked) (out []reason.Reason) {
	slices.SortStableFunc(day, func(a, b Booked) int { return cmp.Compare(a.Start, b.Start) })
	total, run, worst, from, worstFrom := 0, 0, 0, "", ""
	last := Booked{}
	end := -pause // minutes from midnight, of the lessons so far
	for _, b := range day {
		start := minutes(b.Start)
		if start < end {
			out = append(out, reason.Of("calendar-clash", "on", on, "a", last.Name, "b", b.Name, "start", b.Start))
		}
		if start-end >= pause {
			run, from = 0, b.Start
		}
		run += b.Long
		if run > worst {
			worst, worstFrom = run, from
		}
		total += b.Long
		if start+b.Long > end {
			end, last = start+b.Long, b
		}
	}
	if total > int(judgement.LongDay) {
		out = append(out, reason.Of("calendar-long-day", "on", on, "minutes", strconv.Itoa(total)))
	}
	if worst > int(judgement.LongRun) {
		out = append(out, reason.Of("calendar-no-pause", "on", on, "minutes", strconv.Itoa(worst), "from", worstFrom))
	}
	return out
}

// minutes from midnight of a time that was checked.
func minutes(start string) int {
	t, err := time.Parse("15:04", start)
	if err != nil {
		return 0
	}
	return t.Hour()*60 + t.Minute()
}
