package studio

import (
	"context"
	"maps"
	"slices"
	"strings"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/judgement"
	"patientladder/core/reason"
)

// An ApproachView is a student's settings where teachers disagree.
type ApproachView struct {
	Student StudentCard       `json:"student"`
	Rows    []approach.Row    `json:"rows" nullable:"false" doc:"those asked for this instrument"`
	Usual   approach.Approach `json:"usual" doc:"for the age"`
	Books   []string          `json:"books" nullable:"false" doc:"chosen"`
	Offered []string          `json:"offered" nullable:"false" doc:"books and pools on the shelf for the instrument"`
	Taste   string            `json:"taste" enum:",lively,lyrical,familiar" doc:"as asked"`
	Before  bool              `json:"before" doc:"before the first book"`

	Struck []StruckSort `json:"struck" nullable:"false" doc:"sorts of lines that are no longer drafted, since they were struck again and again"`

	HomeDays    []int `json:"homeDays" nullable:"false" doc:"weekdays of practice, 0 for Sunday; empty for every day"`
	HomeMinutes int   `json:"homeMinutes" doc:"a day, as the family has set them; 0 for the usual"`
}

// Approach shows a student's settings.
func (a *App) Approach(ctx context.Context, who Who, student string) (ApproachView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return ApproachView{}, err
	}
	v := ApproachView{Student: p.card(p.Student, p.lessonDay()), Rows: approach.For(p.plays), Usual: approach.Default(age(p.Student, p.today())),
		Books: append([]string{}, p.standing.Books...), Offered: []string{}, Taste: string(p.standing.Taste), Before: p.standing.BeforeBook,
		HomeDays: p.homeDays(), HomeMinutes: p.standing.HomeDays.Minutes}
	v.Struck = p.struck()
	seen := map[string]bool{}
	for _, it := range p.shelf {
		if it.Instrument == p.Instrument && !seen[it.Book] {
			seen[it.Book] = true
			v.Offered = append(v.Offered, it.Book)
		}
	}
	return v, nil
}

// A StruckSort is a sort of line that is no longer drafted.
type StruckSort struct {
	Sort  string `json:"sort"`
	Title string `json:"title" doc:"of the rung or the skill that it is about; empty of hearing"`
	Times int    `json:"times"`
}

// struck lists the sorts of lines that the sheets of a student leave out.
func (p *pupil) struck() []StruckSort {
	out := []StruckSort{}
	for _, sort := range slices.Sorted(maps.Keys(p.standing.Struck)) {
		n := p.standing.Strikes(sort)
		if n < int(judgement.StruckOften) {
			continue
		}
		_, id, _ := strings.Cut(sort, " ")
		title := p.graph.Name(id)
		if r, is := p.standing.Rung(id); is {
			title = r.Item.Title
		}
		out = append(out, StruckSort{sort, title, n})
	}
	return out
}

// An EffectsView is what a change of the approach would do.
type EffectsView struct {
	Effects []reason.Reason `json:"effects" nullable:"false"`
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
	try := func(w way) advice.Try { return advice.Try{Way: w.Way, Lesson: p.plan(w, day), Sheet: p.sheet(w, day)} }
	return EffectsView{advice.Effects(try(p.now()), try(p.way(p.standing, p.Approach.With(change), p.room.now)))}, nil
}
