package week

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/ahead"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// coming is a rung of a lane that begins in so many weeks; with notes or without.
func coming(title string, lane shelf.Strand, notes bool) ladder.Rung {
	return ladder.Rung{ID: title, Item: shelf.Item{Title: title, Strand: lane, HasScore: notes}, Strand: lane}
}

// What is heard at home of what comes: the piece that begins next, whatever its lane, and the one that begins
// last of those that are not the next of their lane.
func TestWhatIsHeardOfWhatComes(t *testing.T) {
	const book, own = shelf.Book, shelf.Repertoire
	exercise := coming("scale", book, true)
	exercise.Item.Exercise = "scale C major right"
	low := coming("low", book, true)
	low.Item.Low, low.Item.High = 20, 40
	for _, c := range []struct {
		says   string
		rungs  []ladder.Rung
		begins map[string]float64
		want   string
	}{
		{"nothing comes", nil, nil, " "},
		{"one piece", []ladder.Rung{coming("a", book, true)}, map[string]float64{"a": 3}, "a "},
		{"the next of two lanes, whichever it is", []ladder.Rung{coming("a", book, true), coming("b", own, true)}, map[string]float64{"a": 3, "b": 2}, "b "},
		{"the first where both begin at once", []ladder.Rung{coming("a", book, true), coming("b", own, true)}, map[string]float64{"a": 2, "b": 2}, "a "},
		{"the second of a lane is far", []ladder.Rung{coming("a", book, true), coming("b", book, true)}, map[string]float64{"a": 1, "b": 5}, "a b"},
		{"the last of three", []ladder.Rung{coming("a", book, true), coming("b", book, true), coming("c", book, true)}, map[string]float64{"a": 1, "b": 5, "c": 9}, "a c"},
		{"the earlier where two begin at once", []ladder.Rung{coming("a", book, true), coming("b", book, true), coming("c", book, true)}, map[string]float64{"a": 1, "b": 5, "c": 5}, "a b"},
		{"what has no notes is heard nowhere, and stands before its lane all the same", []ladder.Rung{coming("a", book, false), coming("b", book, true)}, map[string]float64{"a": 1, "b": 5}, "b "},
		{"an exercise is none", []ladder.Rung{exercise, coming("b", own, true)}, map[string]float64{"scale": 1, "b": 5}, "b "},
		{"nor what the instrument at home cannot reach", []ladder.Rung{low, coming("b", own, true)}, map[string]float64{"low": 1, "b": 5}, "b "},
	} {
		w := writer{rungs: map[ladder.State][]ladder.Rung{ladder.Ahead: c.rungs}, Ask: Ask{Voice: english, Home: shelf.Home{Keys: 49}, Plays: instrument.Shipped.Of("piano")}}
		for id, in := range c.begins {
			w.Path.Expected = append(w.Path.Expected, climb.Expected{Rung: id, FromIn: in})
		}
		next, far := w.heard()
		title := func(r *ladder.Rung) string {
			if r == nil {
				return ""
			}
			return r.Item.Title
		}
		assert.Equal(t, c.want, title(next)+" "+title(far), c.says)
	}
}

// shownBefore is a head start of so many tasks done, the last shown some days ago.
func shownBefore(id string, done, days int) ahead.HeadStart {
	return ahead.HeadStart{Skill: id, Name: id, Done: done, Tasks: []skill.Link{{Do: id + " one", Minutes: 2}, {Do: id + " two", Minutes: 2}}, Last: from.Add(-days).Time()}
}

// Two head starts go home at once, those that were shown last, for four weeks after they were.
func TestWhichHeadStartsGoHome(t *testing.T) {
	for _, c := range []struct {
		says string
		list []ahead.HeadStart
		want string
	}{
		{"none was shown", []ahead.HeadStart{shownBefore("a", 0, 0)}, ""},
		{"one", []ahead.HeadStart{shownBefore("a", 1, 7)}, "a"},
		{"four weeks on", []ahead.HeadStart{shownBefore("a", 1, kept)}, "a"},
		{"longer ago", []ahead.HeadStart{shownBefore("a", 1, kept+1)}, ""},
		{"the last shown first, and two", []ahead.HeadStart{shownBefore("a", 1, 14), shownBefore("b", 1, 7), shownBefore("c", 2, 0)}, "c b"},
	} {
		w := writer{Ask: Ask{Voice: english, Ahead: c.list, From: from}}
		var got []string
		for _, h := range w.shown() {
			got = append(got, h.Skill)
		}
		assert.Equal(t, c.want, strings.Join(got, " "), c.says)
	}
	g := english.SkillsAtHome("")
	prepared := func(days int, list ...ahead.HeadStart) (out []string) {
		s := ladder.Standing{Prepared: map[string]ladder.HeadStart{"thumb-under": {Done: 1, Last: from.Add(-days).Time()}}}
		for _, h := range (&writer{Ask: Ask{Voice: english, Standing: s, Graph: g, Ahead: list, From: from}}).shown() {
			out = append(out, h.Skill)
		}
		return out
	}
	assert.Equal(t, []string{"thumb-under"}, prepared(0), "shown today, though no longer planned")
	assert.Empty(t, prepared(1), "what is no longer planned ends with its day")
	assert.Len(t, prepared(0, shownBefore("thumb-under", 1, 0)), 1, "it stands once")
}

// A minute or two for what comes later, on alternate days: the head starts that were shown, or else hearing what
// comes next, which stands on the lesson's own day too. A short day has none, nor a week after a break.
func TestMinutesForWhatComesLater(t *testing.T) {
	run := func(budget, days int, change func(*writer)) (string, int) {
		sh := Sheet{Budget: budget, Days: make([]Day, 7)}
		w := writer{sheet: &sh, rungs: map[ladder.State][]ladder.Rung{ladder.Ahead: {coming("next", shelf.Book, true)}}, Ask: Ask{Voice: english, From: from, Graph: english.SkillsAtHome("")}}
		for d := 1; d <= days; d++ {
			w.days = append(w.days, d)
		}
		change(&w)
		w.ahead()
		var out []string
		for d, day := range sh.Days {
			for _, task := range day.Tasks {
				out = append(out, fmt.Sprintf("%d:%s%s%d", d, task.Title, strings.Repeat("*", min(1, len(task.Do))), task.Minutes))
			}
		}
		return strings.Join(out, " "), w.spare
	}
	for _, c := range []struct {
		says   string
		budget int
		days   int
		change func(*writer)
		want   string
		spare  int
	}{
		{"hearing what comes next, every other day", 20, 6, func(*writer) {}, "0:next1 2:next1 4:next1 6:next1", 19},
		{"of three days", 20, 3, func(*writer) {}, "0:next1 2:next1", 20},
		{"at the least budget", least, 6, func(*writer) {}, "0:next1 2:next1 4:next1 6:next1", least - 1},
		{"under it only after the lesson", least - 1, 6, func(*writer) {}, "0:next1", least - 1},
		{"after a break too", 20, 6, func(w *writer) { w.Path.Break = climb.Break{Days: 20} }, "0:next1", 20},
		{"a head start from the first day on, in place of hearing", 20, 6, func(w *writer) { w.Ahead = []ahead.HeadStart{shownBefore("a", 1, 0)} }, "0:next1 1:a*2 3:a*2 5:a*2", 19},
		{"two in turn", 20, 6, func(w *writer) { w.Ahead = []ahead.HeadStart{shownBefore("a", 1, 0), shownBefore("b", 1, 7)} }, "0:next1 1:a*2 2:b*2 3:a*2 4:b*2 5:a*2 6:b*2", 18},
		{"a sixth of a short day", 9, 6, func(w *writer) { w.Ahead = []ahead.HeadStart{shownBefore("a", 1, 0)} }, "0:next1 1:a*1 3:a*1 5:a*1", 8},
		{"nothing comes", 20, 6, func(w *writer) { w.rungs = map[ladder.State][]ladder.Rung{ladder.Ahead: {}} }, "", 20},
	} {
		got, spare := run(c.budget, c.days, c.change)
		assert.Equal(t, c.want, got, c.says)
		assert.Equal(t, c.spare, spare, c.says)
	}
}
