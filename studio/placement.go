package studio

import (
	"context"
	"slices"

	"patientladder/core/placement"
	"patientladder/core/upkeep"
)

// A PlacementView is what is known of a student from elsewhere, and what to ask after next.
type PlacementView struct {
	Student StudentCard `json:"student"`
	Asked   int         `json:"asked" doc:"skills that were asked after so far"`
	Next    *Question   `json:"next,omitempty" doc:"none when nothing would tell more"`
	Begin   *Beginner   `json:"begin,omitempty" doc:"where to begin, by what is known; none when no book goes so far"`
	Unsure  []Question  `json:"unsure" doc:"skills that are neither there nor missing for sure"`
	Missing []Question  `json:"missing" doc:"skills under that place that are not there, in the order in which they are taught"`
}

// A Question is a skill and how to try it at the instrument.
type Question struct {
	Skill string `json:"skill"`
	Name  string `json:"name"`
	Try   string `json:"try" doc:"what to have the student do"`
}

// A Beginner is a piece to begin at.
type Beginner struct {
	Item  string `json:"item"`
	Title string `json:"title"`
	Book  string `json:"book"`
	Unit  string `json:"unit"`
}

// Placement reckons what a student can do from what was asked after so far, and what to ask next;
// what is to be skipped is not asked.
func (a *App) Placement(ctx context.Context, who Who, student string, skip []string) (PlacementView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return PlacementView{}, err
	}
	v := PlacementView{Student: p.card(p.Student, p.standing, p.lessonDay())}
	items := p.way(p.standing, p.Approach, p.room.now).Shelf
	ask := placement.Ask{Graph: p.graph, Order: placement.Order(p.graph, items), Answers: map[string]string{}}
	known := upkeep.Know(p.standing, nil, p.room.now)
	for _, id := range ask.Order {
		if probe, was := p.standing.Probes[id]; was {
			ask.Answers[id] = probe.Outcome
			v.Asked++
		} else if s := known.State[id]; s == upkeep.Secure || s == upkeep.Rusty {
			ask.Once = append(ask.Once, id)
		}
	}
	belief, doubt := placement.Believe(ask), p.Approach.Doubt()
	if next, ok := belief.Next(func(id string) bool {
		_, was := ask.Answers[id]
		return !was && !slices.Contains(skip, id)
	}); ok {
		v.Next = &p.questions([]string{next})[0]
	}
	if it, ok := belief.Begin(items, doubt); ok {
		v.Begin = &Beginner{it.ID, it.Title, it.Book, it.Unit}
	}
	v.Unsure, v.Missing = p.questions(belief.Unsure()), p.questions(belief.Missing(doubt))
	return v, nil
}

// questions are skills with how to try each.
func (p *pupil) questions(skills []string) []Question {
	out := []Question{}
	for _, id := range skills {
		q := Question{Skill: id, Name: p.graph.Name(id)}
		if chain := p.graph[id].Chain; len(chain) > 0 {
			q.Try = chain[len(chain)-1].Do
		}
		out = append(out, q)
	}
	return out
}
