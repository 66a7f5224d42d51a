package places

import (
	"context"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/placement"
	"patientladder/core/reason"
	"patientladder/studio"
)

// An ApproachView is a student's settings where teachers disagree.
type ApproachView struct {
	Student studio.StudentCard `json:"student"`
	Rows    []approach.Row     `json:"rows" doc:"those asked for this instrument"`
	Usual   approach.Approach  `json:"usual" doc:"for the age"`
	Books   []string           `json:"books" doc:"chosen"`
	Offered []string           `json:"offered" doc:"books and pools on the shelf for the instrument"`
	Taste   string             `json:"taste" enum:",lively,lyrical,familiar" doc:"as asked"`
	Before  bool               `json:"before" doc:"before the first book"`

	Habits []advice.Habit `json:"habits" doc:"what the teacher does to sheet after sheet"`

	HomeDays    []int `json:"homeDays" doc:"weekdays of practice, 0 for Sunday; empty for every day"`
	HomeMinutes int   `json:"homeMinutes" doc:"a day, as the family has set them; 0 for the usual"`
}

// Approach shows a student's settings.
func Approach(ctx context.Context, a *studio.App, who studio.Who, student string) (ApproachView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return ApproachView{}, err
	}
	v := ApproachView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Rows: approach.For(p.Plays), Usual: approach.Default(studio.Age(p.Student, p.Today())),
		Books: append([]string{}, p.Standing.Books...), Offered: []string{}, Taste: string(p.Standing.Taste), Before: p.Standing.BeforeBook,
		HomeDays: HomeDays(&p), HomeMinutes: p.Standing.HomeDays.Minutes}
	v.Habits = advice.Habits(p.Standing, p.Approach)
	seen := map[string]bool{}
	for _, it := range p.Shelved {
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
func Effects(ctx context.Context, a *studio.App, who studio.Who, student, question, school string) (EffectsView, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return EffectsView{}, err
	}
	change := approach.Approach{approach.Question(question): approach.School(school)}
	if err := change.Check(); err != nil {
		return EffectsView{}, studio.Refuse("That cannot be chosen: %v.", err)
	}
	day := p.LessonDay()
	try := func(w studio.Way) advice.Try {
		t := advice.Try{Way: w.Way, Lesson: p.Plan(w, day), Sheet: p.Sheet(w, day)}
		if approach.Question(question) == approach.Transfers {
			t.Begins = placement.Believe(asks(&p, w)).Begin(w.Shelf, w.Approach.Doubt(), false).At
		}
		return t
	}
	return EffectsView{advice.Effects(try(p.WayNow()), try(p.Way(p.Standing, p.Approach.With(change), p.Room.Now)))}, nil
}

// HomeDays are the weekdays of practice, 0 for Sunday; none where the family has not
// said.
func HomeDays(p *studio.Pupil) []int {
	out := []int{}
	for _, d := range p.Standing.HomeDays.Days {
		out = append(out, int(d))
	}
	return out
}
