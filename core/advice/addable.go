package advice

import (
	"slices"
	"strings"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// An Addable is something that may be put on a week sheet beside what it has.
type Addable struct {
	Title string      `json:"title"`
	Kind  string      `json:"kind" enum:"piece,exercise,cards,game"`
	From  string      `json:"from" doc:"its book; empty of what is no page"`
	Tell  fact.Bodies `json:"tell" doc:"that puts it there; words, minutes and weekdays may be filled in"`
}

// mostAddable is how many are offered at once.
const mostAddable = 12

// AddableTo finds what may be added to the sheet of a day by words of its title or book:
// what stands on the shelf for the instrument, games for the age, and exercises made by
// rule. Those of which the title begins with what is sought come first, then those that hold
// it. Words may be cut short, not to a letter: that is a key. Name
// says how exercises are called.
func AddableTo(day calendar.Date, sought string, s ladder.Standing, items []shelf.Item, games []activity.Activity, plays instrument.Profile, age int, name func(reason.Label) string) []Addable {
	words := wordsOf(sought)
	out := []Addable{}
	if len(words) == 0 {
		return out
	}
	matches := func(a Addable) bool {
		has := wordsOf(a.Title + " " + a.From + " " + a.Kind)
		return !slices.ContainsFunc(words, func(w string) bool {
			return !slices.ContainsFunc(has, func(h string) bool { return h == w || len(w) > 1 && strings.HasPrefix(h, w) })
		})
	}
	offer := func(a Addable, say fact.LineAdded) {
		if !matches(a) {
			return
		}
		say.Day = day
		a.Tell = fact.Bodies{say}
		out = append(out, a)
	}
	for _, it := range items {
		say := fact.LineAdded{Item: it.ID}
		if i := slices.IndexFunc(s.Rungs, func(r ladder.Rung) bool { return r.Item.ID == it.ID }); i >= 0 {
			say.Rung = s.Rungs[i].ID
		}
		offer(Addable{Title: it.Title, Kind: kindOf(it), From: it.Book}, say)
	}
	for _, g := range games {
		if g.Fits(age, plays.Family) {
			offer(Addable{Title: g.Title, Kind: "game"}, fact.LineAdded{Game: g.ID})
		}
	}
	for _, spec := range exercise.All(plays) {
		a := Addable{Title: name(spec.Name()), Kind: "exercise"}
		if !matches(a) || slices.ContainsFunc(out, func(b Addable) bool { return b.Kind == a.Kind && b.Title == a.Title && b.From == "" }) {
			continue // many stand in keys of which their titles do not tell
		}
		if _, err := exercise.Make(spec, plays); err == nil {
			offer(a, fact.LineAdded{Exercise: spec.String()})
		}
	}
	phrase := strings.ToLower(strings.TrimSpace(sought))
	slices.SortStableFunc(out, func(a, b Addable) int { return near(b, phrase) - near(a, phrase) })
	return out[:min(len(out), mostAddable)]
}

func wordsOf(text string) []string {
	return strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return r == ' ' || r == ',' })
}

// near says how near a title is to what is sought.
func near(a Addable, phrase string) int {
	switch title := strings.ToLower(a.Title); {
	case strings.HasPrefix(title, phrase):
		return 2
	case strings.Contains(title, phrase):
		return 1
	}
	return 0
}

func kindOf(it shelf.Item) string {
	switch {
	case it.Exercise != "":
		return "exercise"
	case it.Cards != "":
		return "cards"
	case len(it.Steps) > 0:
		return "game"
	}
	return "piece"
}
