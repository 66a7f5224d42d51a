package week

import (
	"slices"
	"strings"

	"patientladder/core/activity"
	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// Adds is what the lines that a teacher adds are written from: of the ask the approach,
// the instrument, the age and what was told of cards and games.
type Adds struct {
	Ask
	Titles map[string]string // of rungs, by id
	Items  map[string]shelf.Item
	All    []activity.Activity // games and studies that may be added
}

// loose is the title of a line that is about nothing on the sheet.
const loose = "Also"

// line writes a line that a teacher added: something of the shelf, an exercise or a game as
// the sheet would write it, with the teacher's words behind it; else those words alone.
func (a Adds) line(sh *Sheet, id string, b fact.LineAdded) Task {
	w := writer{Ask: a.Ask, sheet: sh}
	t := Task{Key: OwnLine(id), Band: "now", Rung: b.Rung, Title: a.Titles[b.Rung], Do: strings.TrimSpace(b.Text), Count: 1, Minutes: b.Minutes}
	game := slices.IndexFunc(a.All, func(g activity.Activity) bool { return g.ID == b.Game })
	it, onShelf := a.Items[b.Item]
	switch {
	case b.Game != "" && game >= 0:
		t = w.play(t, a.All[game])
	case b.Exercise != "":
		spec, err := exercise.Parse(b.Exercise)
		if err != nil {
			break // it was read when it was told
		}
		t.Title = a.Voice.Label(spec.Name())
		t = w.drill(ladder.Rung{Item: shelf.Item{Title: t.Title, Exercise: b.Exercise}}, t)
	case b.Item != "" && onShelf:
		t.Item, t.Title = it.ID, it.Title
		r, inHand := a.Standing.Rung(b.Rung)
		if !inHand {
			r = ladder.Rung{Item: it}
		}
		if !isPiece(it) {
			t = w.drill(r, t)
		}
	default:
		if t.Title == "" {
			t.Title = loose
		}
		t.Says = Words{What: t.Do, Place: w.tell().line("to-do"), Again: t.Do}
		return t
	}
	t.Says = t.words(w.tell())
	if t.Do != "" {
		t.Says.What += ". " + t.Do
		t.Says.Again = t.Says.What
	}
	return t
}

// play writes a game at the level that it has come to.
func (w *writer) play(t Task, a activity.Activity) Task {
	level := max(min(w.Standing.Activities[a.ID].Level, len(a.Levels)), 1)
	t.Game, t.Title, t.Count, t.Why = a.ID, a.Title, 1, reason.Of("a-game", "title", a.Title)
	t.Steps = []string{a.Says(level, w.Age), w.tell().line("right-when", "exit", a.Exit)}
	if activity.Reasoned(a.Aim, w.Age) {
		t.Steps = append(t.Steps, w.tell().told(reason.Of("probe-for", "aim", a.Aim)))
	}
	return t
}
