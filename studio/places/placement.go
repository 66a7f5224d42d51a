package places

import (
	"context"
	"slices"

	"patientladder/core/card"
	"patientladder/core/exercise"
	"patientladder/core/placement"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
	"patientladder/core/week"
	"patientladder/studio"
)

// A PlacementView is what is known of a student from elsewhere, and what to ask after next.
type PlacementView struct {
	Student studio.StudentCard `json:"student"`
	Asked   int                `json:"asked" doc:"skills that were asked after so far"`
	Next    *Question          `json:"next,omitempty" doc:"none when nothing would tell more"`
	Begin   *Beginner          `json:"begin,omitempty" doc:"where to begin; none while that is not known well enough, and when no book goes so far"`
	From    *Beginner          `json:"from,omitempty" doc:"between which pieces it lies, while too little was asked"`
	To      *Beginner          `json:"to,omitempty" doc:"none when it may lie beyond every book"`
	Unsure  []Question         `json:"unsure" doc:"skills that are neither there nor missing for sure"`
	Missing []Question         `json:"missing" doc:"skills under that place that are not there, in the order in which they are taught"`
}

// A Question is a skill and how to try it at the instrument.
type Question struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	Try   string `json:"try" doc:"what to have the student do"`

	Exercise string    `json:"exercise,omitempty" doc:"of the next question: the specification of what is played"`
	Card     *CardView `json:"card,omitempty" doc:"of the next question: a card that is shown"`
}

// A Beginner is a piece to begin at.
type Beginner struct {
	Item  string `json:"item"`
	Title string `json:"title"`
	Book  string `json:"book"`
	Unit  string `json:"unit"`
}

// asks gathers what is known of a student for a placement.
func asks(p *studio.Pupil, w studio.Way) placement.Ask {
	ask := placement.Ask{Graph: p.Graph, Order: placement.Order(p.Graph, w.Shelf), Answers: map[string]string{}}
	known := upkeep.Know(p.Standing, nil, p.Room.Now)
	for _, id := range ask.Order {
		if probe, was := p.Standing.Probes[id]; was {
			ask.Answers[id] = probe.Outcome
			continue
		}
		switch known.State[id] {
		case upkeep.Secure:
			ask.Heard = append(ask.Heard, id)
		case upkeep.Rusty:
			ask.Once = append(ask.Once, id)
		}
	}
	return ask
}

// Placement reckons what a student can do from what was asked after so far, and what to ask next;
// what is to be skipped is not asked.
func Placement(ctx context.Context, a *studio.App, who studio.Who, student string, skip []string) (PlacementView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return PlacementView{}, err
	}
	v := PlacementView{Student: p.Card(p.Student, p.Standing, p.LessonDay())}
	w := p.WayNow()
	ask := asks(&p, w)
	v.Asked = len(ask.Answers)
	belief, doubt := placement.Believe(ask), p.Approach.Doubt()
	next, more := belief.Next(func(id string) bool {
		_, was := ask.Answers[id]
		return !was && !slices.Contains(skip, id)
	})
	if more {
		q := Questions(&p, []string{next})[0]
		q.Exercise, q.Card = shown(&p, next, w.Shelf)
		v.Next = &q
	}
	place := belief.Begin(w.Shelf, doubt, more)
	v.Begin = beginner(place.At)
	if len(ask.Answers)+len(ask.Heard)+len(ask.Once) > 0 { // else it is anywhere
		v.From, v.To = beginner(place.From), beginner(place.To)
	}
	v.Unsure, v.Missing = Questions(&p, belief.Unsure()), Questions(&p, belief.Missing(doubt))
	return v, nil
}

func beginner(it *shelf.Item) *Beginner {
	if it == nil {
		return nil
	}
	return &Beginner{it.ID, it.Title, it.Book, it.Unit}
}

// shown is what is put before a student who is asked after a skill: the notes of the last task of
// its chain that has any, else a card from the middle of a deck that brings it.
func shown(p *studio.Pupil, id string, items []shelf.Item) (notes string, shows *CardView) {
	for _, task := range slices.Backward(p.Graph[id].Chain) {
		if exercise.Lies(task.Notes, p.Plays) {
			return task.Notes, nil
		}
	}
	for _, it := range items {
		kinds, err := card.Parse(it.Cards)
		if err != nil || !slices.Equal(it.Brings, []string{id}) {
			continue
		}
		if deck := card.Deck(kinds, p.Plays); len(deck) > 0 {
			c := deck[len(deck)/2]
			v := cardView(p, c, week.CardIn(p.Voice(), "student", c))
			return "", &v
		}
	}
	return "", nil
}

// Questions are skills with how to try each.
func Questions(p *studio.Pupil, skills []string) []Question {
	out := []Question{}
	for _, id := range skills {
		q := Question{Skill: id, Name: p.Graph.Name(id)}
		if chain := p.Graph[id].Chain; len(chain) > 0 {
			q.Try = chain[len(chain)-1].Do
		}
		out = append(out, q)
	}
	return out
}
