package studio

import (
	"context"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/placement"
	"patientladder/core/reason"
)

// An ApproachView is a student's settings where teachers disagree.
type ApproachView struct {
	Student StudentCard       `json:"student"`
	Rows    []approach.Row    `json:"rows" doc:"those asked for this instrument"`
	Usual   approach.Approach `json:"usual" doc:"for the age"`
	Books   []string          `json:"books" doc:"chosen"`
	Offered []string          `json:"offered" doc:"books and pools on the shelf for the instrument"`
	Taste   string            `json:"taste" enum:",lively,lyrical,familiar" doc:"as asked"`
	Before  bool              `json:"before" doc:"before the first book"`

	Habits []advice.Habit `json:"habits" doc:"what the teacher does to sheet after sheet"`

	HomeDays    []int `json:"homeDays" doc:"weekdays of practice, 0 for Sunday; empty for every day"`
	HomeMinutes int   `json:"homeMinutes" doc:"a day, as the family has set them; 0 for the usual"`
}

// Approach shows a student's settings.
func (a *App) Approach(ctx context.Context, who Who, student string) (ApproachView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return ApproachView{}, err
	}
	v := ApproachView{Student: p.card(p.Student, p.standing, p.lessonDay()), Rows: approach.For(p.plays), Usual: approach.Default(age(p.Student, p.today())),
		Books: append([]string{}, p.standing.Books...), Offered: []string{}, Taste: string(p.standing.Taste), Before: p.standing.BeforeBook,
		HomeDays: p.homeDays(), HomeMinutes: p.standing.HomeDays.Minutes}
	v.Habits = advice.Habits(p.standing, p.Approach, p.graph)
	seen := map[string]bool{}
	for _, it := range p.shelf {
		if it.Instrument == p.Instrument && !seen[it.Book] {
			seen[it.Book] = true
			v.Offered = append(v.Offered, it.Book)
		}
	}
	return v, nil
}

// An EffectsView is what a change of the approach would do.
type EffectsView struct {
	Effects []reason.Reason `json:"effects"`
}

// Effects says what answering one question otherwise would change, before it
// is saved: in the coming lesson, the week and the ladder.
func (a *App) Effects(ctx context.Context, who Who, student, question, school string) (EffectsView, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return EffectsView{}, err
	}
	change := approach.Approach{approach.Question(question): approach.School(school)}
	if err := change.Check(); err != nil {
		return EffectsView{}, invalid("That cannot be chosen: %v.", err)
	}
	day := p.lessonDay()
	try := func(w way) advice.Try {
		t := advice.Try{Way: w.Way, Lesson: p.plan(w, day), Sheet: p.sheet(w, day)}
		if approach.Question(question) == approach.Transfers {
			t.Begins = placement.Believe(p.asks(w)).Begin(w.Shelf, w.Approach.Doubt(), false).At
		}
		return t
	}
	return EffectsView{advice.Effects(try(p.now()), try(p.way(p.standing, p.Approach.With(change), p.room.now)))}, nil
}
