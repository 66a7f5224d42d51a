package week

import (
	"slices"
	"strconv"
	"strings"

	"patientladder/core/card"
	"patientladder/core/exercise"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

// A Play is what one hand plays of an exercise.
type Play struct {
	Exercise string `json:"exercise" doc:"its specification"`
	Title    string `json:"title" doc:"E flat major, two octaves"`
	Hand     string `json:"hand" enum:",right,left,together" doc:"empty where hands do not play alone"`
	Fingers  string `json:"fingers" doc:"on the way up; empty where they are not told"`
	How      string `json:"how"`
}

// A CardLine is a card in its reader's words.
type CardLine struct {
	ID    string `json:"id"`
	Shown string `json:"shown" doc:"what is shown, in words"`
	Asks  string `json:"asks"`
	Right string `json:"right" doc:"when it is right"`
}

// CardIn gives a card its words for a reader.
func CardIn(v Voice, reader string, c card.Card) CardLine {
	t := teller{v, reader}
	return CardLine{c.ID, t.told(c.Shown), t.told(c.Asks), t.told(c.Right)}
}

// Counts by material: a scale and its like three times a day, a cycle of keys once, a
// pattern in a row. Common practice, no source.
const (
	scaleTimes   = 3
	patternTimes = 5
)

var scaleLike = []exercise.Kind{exercise.Scale, exercise.Arpeggio, exercise.Chromatic, exercise.Half, exercise.Duet, exercise.MeetOnly, exercise.Pattern, exercise.Bows, exercise.Divide}

// drill writes what technique and reading ask on a day: the exercise that is due, cards,
// or the steps of how it goes.
func (w *writer) drill(r ladder.Rung, t Task) Task {
	it := r.Item
	specs := r.Exercises(w.Approach)
	for _, spec := range specs {
		t.Plays = append(t.Plays, w.plays(spec)...)
	}
	switch {
	case r.Item.Cycle():
		t.Count, t.Why = 1, reason.Of("a-cycle", "title", it.Title)
	case len(specs) > 0 && slices.Contains(scaleLike, specs[0].Kind):
		t.Count, t.Why = scaleTimes, reason.Of("a-scale", "title", it.Title)
	case len(specs) > 0:
		t.Count, t.InRow, t.Why = patternTimes, true, reason.Of("a-pattern", "title", it.Title)
	case it.Cards != "":
		t.Count, t.Why = 1, reason.Of("a-card", "title", it.Title)
		t.Cards = w.cards(r)
	default:
		t.Count, t.Why = 1, reason.Of("a-game", "title", it.Title)
	}
	if len(specs) == 0 {
		t.Steps = it.Steps
	}
	return t
}

// plays says what each hand does of an exercise.
func (w *writer) plays(spec exercise.Spec) []Play {
	voices := spec.Voices(w.Plays)
	if len(voices) == 2 && voices[0].Fingers == "" { // nothing to tell the hands apart by
		voices = []exercise.Voice{{Hand: exercise.Both}}
	}
	var out []Play
	for _, v := range voices {
		p := Play{Exercise: spec.String(), Title: w.Voice.Label(spec.Name()), How: w.Voice.Label(spec.How()), Fingers: v.Fingers, Hand: map[exercise.Hands]string{exercise.Right: "right", exercise.Left: "left", exercise.Both: "together"}[v.Hand]}
		if v.Strings != "" {
			p.Fingers = w.tell().line("on-strings", "fingers", v.Fingers, "strings", v.Strings)
		}
		if !w.Approach.Fingered(w.Age) {
			p.Fingers = ""
		}
		out = append(out, p)
	}
	return out
}

// cards are those that a day asks of a rung.
func (w *writer) cards(r ladder.Rung) []CardLine {
	out := []CardLine{}
	kinds, err := card.Parse(r.Item.Cards)
	if err != nil {
		return out
	}
	for _, c := range card.Next(card.Deck(kinds, w.Ask.Plays), card.States(r.Answered, w.At), int(judgement.CardsOpen)).Cards {
		out = append(out, CardIn(w.Voice, w.sheet.Reader, c))
	}
	return out
}

// drilled says what a task of technique or reading asks, in one line; empty of others.
func (t *Task) drilled(v teller) string {
	var parts []string
	for i, p := range t.Plays {
		hand := v.hand(p.Hand)
		if p.Fingers != "" {
			hand = strings.TrimSpace(hand + " " + p.Fingers)
		}
		switch same := i > 0 && t.Plays[i-1].Title == p.Title; {
		case !same && hand != "":
			parts = append(parts, p.Title+", "+p.How+", "+hand)
		case !same:
			parts = append(parts, p.Title+", "+p.How)
		case hand != "":
			parts = append(parts, v.line("then", "hand", hand))
		}
	}
	for i, c := range t.Cards {
		asks := ". " + c.Asks
		if i > 0 && t.Cards[i-1].Asks == c.Asks {
			asks = "" // the same is asked of each
		}
		parts = append(parts, c.Shown+asks+" → "+c.Right)
	}
	if len(t.Steps) > 0 && len(parts) == 0 {
		var says []string
		for _, step := range t.Steps {
			says = append(says, strings.TrimSuffix(step, "."))
		}
		return strings.Join(says, ". ")
	}
	if len(parts) == 0 {
		return ""
	}
	says := strings.Join(parts, "; ")
	switch {
	case len(t.Cards) > 0:
		return says
	case t.InRow:
		return says + "; " + v.line("in-a-row", "n", strconv.Itoa(t.Count))
	case t.Count == 1:
		return says + "; " + v.line("once-slowly")
	}
	return says + "; " + v.Count("time", t.Count)
}
