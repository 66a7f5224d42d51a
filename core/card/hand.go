package card

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/memory"
)

// An Answer is how a card was answered.
type Answer struct {
	Card    string
	Outcome string // fact.Pass, fact.Nearly or fact.NotYet
	At      time.Time
}

// grades are answers as reviews.
var grades = map[string]memory.Grade{fact.Pass: memory.Fine, fact.Nearly: memory.Rough, fact.NotYet: memory.FellApart}

// A State is what is left of a card between answers.
type State struct {
	Met    bool
	Known  bool    // passed the last time, and so that it will last
	Recall float64 // how likely it is still known
}

// States returns the state of each card that was answered.
func States(answers []Answer, at time.Time) map[string]State {
	type review struct {
		memory.Memory
		last    time.Time
		outcome string
	}
	of := map[string]review{}
	for _, a := range answers {
		was := of[a.Card]
		gap := 0.0
		if !was.last.IsZero() {
			gap = float64(calendar.On(a.At).Sub(calendar.On(was.last)))
		}
		of[a.Card] = review{was.Heard(gap, grades[a.Outcome]), a.At, a.Outcome}
	}
	out := map[string]State{}
	for id, r := range of {
		recall := r.Recall(float64(calendar.On(at).Sub(calendar.On(r.last))))
		out[id] = State{Met: true, Known: r.outcome == fact.Pass && r.Stability >= judgement.CardLasts, Recall: recall}
	}
	return out
}

// A Hand is what a deck asks next, and how much of it is known.
type Hand struct {
	Cards []Card
	Known int
	Of    int
}

// Next returns up to n cards to ask now, the most likely forgotten first, and then new
// ones in the order of the deck, as many as may be open at once; where that leaves room,
// what is known is asked again.
func Next(deck []Card, states map[string]State, n int) Hand {
	h := Hand{Of: len(deck)}
	var due, fresh, rest []Card
	open := 0
	for _, c := range deck {
		switch s := states[c.ID]; {
		case !s.Met:
			fresh = append(fresh, c)
		case !s.Known || s.Recall < judgement.CardRecall:
			due = append(due, c)
		default:
			rest = append(rest, c)
		}
		if s := states[c.ID]; s.Known {
			h.Known++
		} else if s.Met {
			open++
		}
	}
	byRecall := func(a, b Card) int { return cmp.Compare(states[a.ID].Recall, states[b.ID].Recall) }
	slices.SortStableFunc(due, byRecall)
	slices.SortStableFunc(rest, byRecall)
	fresh = fresh[:min(len(fresh), max(int(judgement.CardsOpen)-open, 0))]
	h.Cards = slices.Concat(due, fresh, rest)
	h.Cards = h.Cards[:min(len(h.Cards), n)]
	return h
}
