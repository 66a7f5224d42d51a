package record

import (
	"slices"
	"strings"

	"patientladder/core/calendar"
)

// A TermSpan is a span of the studio's year, as far as it has come, and the one before it as far
// as that had come on the same day of it, so that like is held against like.
type TermSpan struct {
	calendar.Span
	SoFar  calendar.Span  `json:"soFar"`
	Before *calendar.Span `json:"before,omitempty" doc:"absent of the first"`
}

// season is how many days stand for a term where a studio has none: twelve weeks, as a term's
// usual length.
const season = 12 * 7

// Terms lists the terms that have begun by a day, the newest first. Where a studio has no
// terms, the last twelve weeks stand for one, and the twelve before those.
func Terms(c calendar.Calendar, today calendar.Date) []TermSpan {
	spans := slices.DeleteFunc(slices.Clone(c.Terms), func(s calendar.Span) bool { return s.From > today })
	if len(c.Terms) == 0 {
		from := today.Add(1 - season)
		spans = []calendar.Span{{Name: "the last twelve weeks", From: from, To: today}, {Name: "the twelve weeks before", From: from.Add(-season), To: from.Add(-1)}}
	}
	slices.SortFunc(spans, func(a, b calendar.Span) int { return strings.Compare(string(b.From), string(a.From)) })
	list := []TermSpan{}
	for i, s := range spans {
		t := TermSpan{Span: s, SoFar: s}
		t.SoFar.To = min(s.To, today)
		if i+1 < len(spans) {
			before := spans[i+1]
			if s.To > today {
				before.To = min(before.To, before.From.Add(today.Sub(s.From)))
			}
			t.Before = &before
		}
		list = append(list, t)
	}
	return list
}
