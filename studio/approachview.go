package studio

import (
	"context"
	"fmt"
	"math"
	"strconv"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/week"
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

	HomeDays    []int `json:"homeDays" nullable:"false" doc:"weekdays of practice, 0 for Sunday; empty for every day"`
	HomeMinutes int   `json:"homeMinutes" doc:"a day, as the family has set them; 0 for the usual"`
}

// Approach shows a student's settings.
func (a *App) Approach(ctx context.Context, who Who, student string) (ApproachView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return ApproachView{}, err
	}
	v := ApproachView{Student: p.card(p.Student, p.lessonDay()), Rows: approach.For(p.plays.Family), Usual: approach.Default(age(p.Student, p.today())),
		Books: append([]string{}, p.standing.Books...), Offered: []string{}, Taste: string(p.standing.Taste), Before: p.standing.BeforeBook,
		HomeDays: p.homeDays(), HomeMinutes: p.standing.HomeDays.Minutes}
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
	Effects []reason.Reason `json:"effects" nullable:"false"`
}

// Effects says what answering one question otherwise would change, before it
// is saved: in the coming lesson, the week and the ladder.
func (a *App) Effects(ctx context.Context, who Who, student, question, school string) (EffectsView, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return EffectsView{}, err
	}
	change := approach.Approach{question: school}
	if err := change.Check(); err != nil {
		return EffectsView{}, invalid("That cannot be chosen: %v.", err)
	}
	day := p.lessonDay()
	was, is := p.now(), p.way(p.standing, p.Approach.With(change), p.room.now)
	out := []reason.Reason{}
	out = append(out, lessonEffects(p.plan(was, day), p.plan(is, day))...)
	out = append(out, weekEffects(p.sheet(was, day), p.sheet(is, day))...)
	out = append(out, ladderEffects(was, is)...)
	if len(out) == 0 {
		out = append(out, reason.Of("effect-none"))
	}
	return EffectsView{out}, nil
}

func lessonEffects(was, is lesson.Plan) []reason.Reason {
	var out []reason.Reason
	sum := func(p lesson.Plan) map[lesson.Kind]int {
		m := map[lesson.Kind]int{}
		for _, b := range p.Blocks {
			m[b.Kind] += b.Minutes
		}
		return m
	}
	a, b := sum(was), sum(is)
	for _, k := range lesson.Kinds {
		if a[k] != b[k] {
			out = append(out, reason.Of("effect-lesson", "kind", string(k), "from", strconv.Itoa(a[k]), "to", strconv.Itoa(b[k])))
		}
	}
	cues := func(p lesson.Plan) map[lesson.Kind]string {
		m := map[lesson.Kind]string{}
		for _, b := range p.Blocks {
			if m[b.Kind] == "" {
				m[b.Kind] = b.Cue
			}
		}
		return m
	}
	c, d := cues(was), cues(is)
	for _, k := range lesson.Kinds {
		if c[k] != d[k] && d[k] != "" && c[k] != "" {
			out = append(out, reason.Of("effect-cue", "kind", string(k), "cue", d[k]))
		}
	}
	return out
}

func weekEffects(was, is week.Sheet) []reason.Reason {
	var out []reason.Reason
	if math.Abs(was.Share-is.Share) >= 0.03 {
		out = append(out, reason.Of("effect-share", "from", percent(was.Share), "to", percent(is.Share)))
	}
	if was.Counting != is.Counting {
		out = append(out, reason.Of("effect-counts", "to", is.Counting))
	}
	hands := func(s week.Sheet) string {
		seen := []string{}
		for _, d := range s.Days {
			for _, t := range d.Tasks {
				if t.Hands != "" {
					seen = append(seen, t.Title+": "+t.Hands)
				}
			}
		}
		return strings.Join(seen, "; ")
	}
	if a, b := hands(was), hands(is); a != b {
		first, _, _ := strings.Cut(b, ";")
		out = append(out, reason.Of("effect-hands", "first", first))
	}
	tasks := func(s week.Sheet) int {
		n := 0
		for _, d := range s.Days {
			for _, t := range d.Tasks {
				if t.Skill != "" {
					n++
				}
			}
		}
		return n
	}
	if a, b := tasks(was), tasks(is); a != b {
		out = append(out, reason.Of("effect-head-starts", "from", strconv.Itoa(a), "to", strconv.Itoa(b)))
	}
	return out
}

func ladderEffects(was, is way) []reason.Reason {
	var out []reason.Reason
	line := func(w way) (titles []string) {
		for _, q := range w.Proposals {
			titles = append(titles, q.Item.Title)
		}
		return
	}
	a, b := line(was), line(is)
	for i := range b {
		if i >= len(a) || a[i] != b[i] {
			out = append(out, reason.Of("effect-order", "place", fmt.Sprint(i+1), "title", b[i]))
			break
		}
	}
	if len(was.Moves) != len(is.Moves) {
		out = append(out, reason.Of("effect-moves", "from", strconv.Itoa(len(was.Moves)), "to", strconv.Itoa(len(is.Moves))))
	}
	for i, h := range is.ahead {
		if i < len(was.ahead) && h.Skill == was.ahead[i].Skill && h.Ready != was.ahead[i].Ready && h.Ready > 0 {
			out = append(out, reason.Of("effect-ready", "skill", h.Name, "weeks", strconv.Itoa(h.Ready)))
			break
		}
	}
	return out
}

func percent(x float64) string { return strconv.Itoa(int(math.Round(100 * x))) }
