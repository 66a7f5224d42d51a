// Package record tells what a span of days brought a student: lessons, days at home, footholds
// and the skills that came with them. It takes a standing and a span, and gives counts and names;
// it judges nothing and ranks nobody.
package record

import (
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// Brought is what a span of days brought.
type Brought struct {
	Lessons   int      `json:"lessons" doc:"given"`
	Days      int      `json:"days" doc:"on which something was practised at home"`
	Asked     int      `json:"asked" doc:"days on which a sheet asked for it"`
	Footholds []Won    `json:"footholds" doc:"the first first"`
	Skills    []string `json:"skills" doc:"names of those that a piece with a foothold brought for the first time, in that order"`
	Gained    []string `json:"-"` // their ids
}

// A Won is a foothold: of a piece, or of one of its parts.
type Won struct {
	At     time.Time    `json:"at"`
	Title  string       `json:"title"`
	Part   string       `json:"part" doc:"its name; empty of the whole"`
	Strand shelf.Strand `json:"strand" enum:"book,technique,reading,repertoire"`
}

// Over tells what a span brought, as far as a standing goes. presumed are the skills that
// were taken for granted where the student began: nothing brings those.
func Over(s ladder.Standing, g skill.Graph, presumed []string, span calendar.Span) Brought {
	b := Brought{Days: len(home.Days(s, span.From, span.To)), Asked: len(home.Asked(s, span.From, span.To)), Footholds: []Won{}, Skills: []string{}}
	for day := range s.Closed {
		if span.Holds(day) {
			b.Lessons++
		}
	}
	for _, w := range Footholds(s) {
		if span.Holds(calendar.On(w.At)) {
			b.Footholds = append(b.Footholds, w)
		}
	}
	for _, gain := range gains(s, presumed) {
		if span.Holds(gain.day) {
			b.Skills, b.Gained = append(b.Skills, g.Name(gain.skill)), append(b.Gained, gain.skill)
		}
	}
	return b
}

// A gain is a skill that a foothold brought for the first time, and the day.
type gain struct {
	day   calendar.Date
	skill string
}

// gains lists all of a standing, the first first.
func gains(s ladder.Standing, presumed []string) []gain {
	had := map[string]bool{}
	for _, id := range presumed {
		had[id] = true
	}
	secure := slices.DeleteFunc(slices.Clone(s.Rungs), func(r ladder.Rung) bool { return r.Foothold == nil })
	slices.SortStableFunc(secure, func(a, b ladder.Rung) int { return a.Foothold.Compare(*b.Foothold) })
	var out []gain
	for _, r := range secure {
		for _, id := range r.Item.Brings {
			if !had[id] {
				out = append(out, gain{calendar.On(*r.Foothold), id})
			}
			had[id] = true
		}
	}
	return out
}

// Footholds lists all of a standing, the first first. A piece in parts has one for each of its
// parts, and none of its own.
func Footholds(s ladder.Standing) []Won {
	list := []Won{}
	for _, r := range s.Rungs {
		if r.Foothold != nil && len(r.Parts) == 0 {
			list = append(list, Won{*r.Foothold, r.Item.Title, "", r.Strand})
		}
		for _, part := range r.Parts {
			if part.Foothold != nil {
				list = append(list, Won{*part.Foothold, r.Item.Title, part.Name, r.Strand})
			}
		}
	}
	slices.SortStableFunc(list, func(a, b Won) int { return a.At.Compare(b.At) })
	return list
}
