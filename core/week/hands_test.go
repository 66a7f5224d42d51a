package week

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/shelf"
)

// Right hand, left hand, together: by the lessons in which a piece was worked on; one in which the student rested a
// pain counts for nothing. Common practice, no source.
func TestHandsFromLessonToLesson(t *testing.T) {
	for _, c := range []struct {
		says   string
		staves int
		worked []int // days before the sheet
		rests  []calendar.Span
		ready  bool
		school approach.School
		want   string
	}{
		{"one staff", 1, []int{0}, nil, false, "", ""},
		{"the first lesson", 2, []int{0}, nil, false, "", "right"},
		{"the second", 2, []int{7, 0}, nil, false, "", "left"},
		{"the third", 2, []int{14, 7, 0}, nil, false, "", "together"},
		{"the second, rested", 2, []int{7, 0}, []calendar.Span{{From: from.Add(-3), To: from.Add(3)}}, false, "", "right"},
		{"the third, with one rested", 2, []int{14, 7, 0}, []calendar.Span{{From: from.Add(-10), To: from.Add(-5)}}, false, "", "left"},
		{"rested before it began", 2, []int{21, 7, 0}, []calendar.Span{{From: from.Add(-23), To: from.Add(-20)}}, false, "", "left"},
		{"all points met", 2, []int{0}, nil, true, "", "together"},
		{"a school that begins together", 2, []int{0}, nil, false, approach.Together, "together"},
	} {
		r := rung("one", 8, c.staves, at(from.Add(-7*(len(c.worked)-1))), nil)
		for _, n := range c.worked {
			r.Worked = append(r.Worked, from.Add(-n))
		}
		if c.worked[0] == 21 {
			r.Taught = at(from.Add(-7))
		}
		if c.ready {
			r.Points[0].State = ladder.Met
		}
		w := writer{Ask: Ask{Voice: english, From: from, Approach: approach.Approach{approach.Hands: c.school}, Standing: ladder.Standing{Rests: c.rests}}}
		assert.Equal(t, c.want, w.hands(r), c.says)
	}
	w := writer{Ask: Ask{Voice: english, InTurn: map[string]bool{"one": true}}}
	assert.Equal(t, "together", w.hands(rung("one", 8, 2, at(from), nil)), "hands that take turns are one line")
}

// A lesson that leaves a piece out does not keep it at the left hand: that hand's week goes on to both hands. Of an
// extra lesson within the week nothing follows. Common practice, no source.
func TestTheLeftHandHasOneWeek(t *testing.T) {
	r := rung("one", 8, 2, at(from.Add(-14)), nil)
	r.Worked = []calendar.Date{from.Add(-14), from.Add(-7)}
	asked := func(rung, hand string) map[string]int {
		return map[string]int{"now " + rung + "    " + hand + " n1 n4 0 0": 0}
	}
	for _, c := range []struct {
		says string
		past []Past
		want string
	}{
		{"no sheet yet", nil, "left"},
		{"six days of the left hand", []Past{{Day: from.Add(-6), Ticked: asked("one", "left")}}, "together"},
		{"five days of it", []Past{{Day: from.Add(-5), Ticked: asked("one", "left")}}, "left"},
		{"only the right hand", []Past{{Day: from.Add(-7), Ticked: asked("one", "right")}}, "left"},
		{"another piece's", []Past{{Day: from.Add(-7), Ticked: asked("two", "left")}}, "left"},
		{"from before its first lesson", []Past{{Day: from.Add(-15), Ticked: asked("one", "left")}}, "left"},
	} {
		w := writer{Ask: Ask{Voice: english, From: from, Past: c.past}}
		assert.Equal(t, c.want, w.hands(r), c.says)
	}
}

// The lines of a piece without a score: in chunks where the week has room for them, whole where its points are nearly
// met, otherwise where the whole was asked for twice, and small again where it sticks.
func TestLinesByBarsAlone(t *testing.T) {
	lines := func(day, turn, total, room, wholes int, change func(*writer, *ladder.Rung)) string {
		r := rung("r", 8, 1, at(from), nil)
		r.Points = append(r.Points, ladder.Point{Key: "tuning"}, ladder.Point{Key: "rhythm"})
		w := writer{sheet: &Sheet{}, Ask: Ask{Voice: english, From: from, Stuck: map[string]bool{}}}
		for range wholes {
			w.Past = append(w.Past, Past{Ticked: map[string]int{"now r    0 0": 0}})
		}
		change(&w, &r)
		var out []string
		for _, task := range w.fromBars(r, Task{}, day, turn, total, room) {
			out = append(out, strings.TrimSuffix(fmt.Sprintf("%d-%d %s", task.From, task.To, task.Way), " "))
		}
		return strings.Join(out, ", ")
	}
	plain := func(*writer, *ladder.Rung) {}
	later := func(w *writer, _ *ladder.Rung) {
		w.Standing.Closed = map[calendar.Date]time.Time{from.Add(7): {}, from.Add(14): {}}
	}
	stuck := func(w *writer, r *ladder.Rung) { later(w, r); w.Stuck["r"] = true }
	ready := func(w *writer, r *ladder.Rung) {
		stuck(w, r)
		for i := range r.Points {
			r.Points[i].State = ladder.Met
		}
	}
	for _, c := range []struct {
		says                           string
		day, turn, total, room, wholes int
		change                         func(*writer, *ladder.Rung)
		want                           string
	}{
		{"room for two a day", 3, 3, practice, 2, 0, plain, "1-4, 5-8"},
		{"room for one", 1, 1, practice, 1, 0, plain, "1-4"},
		{"room for one, the second turn", 3, 2, practice, 1, 0, plain, "5-8"},
		{"a turn less than every day", 3, 3, practice - 1, 2, 0, plain, "0-0"},
		{"after three lessons whole", 3, 3, practice, 2, 0, later, "0-0"},
		{"the whole asked for twice before: otherwise", 3, 3, practice, 2, 2, later, "0-0 own-tempo"},
		{"three times", 3, 3, practice, 2, 3, later, "0-0 by-heart"},
		{"five times: from the beginning", 3, 3, practice, 2, 5, later, "0-0 own-tempo"},
		{"stuck after a whole: small again", 3, 3, practice, 2, 1, stuck, "1-4, 5-8"},
		{"stuck before any whole: whole", 3, 3, practice, 2, 0, stuck, "0-0"},
		{"stuck with all points met: whole", 3, 3, practice, 2, 1, ready, "0-0"},
	} {
		assert.Equal(t, c.want, lines(c.day, c.turn, c.total, c.room, c.wholes, c.change), c.says)
	}
}

// Who is in pain listens, to two pieces a day in turn, and plays nothing.
func TestAWeekOfRest(t *testing.T) {
	run := func(titles ...string) (out []string) {
		sh := Sheet{Days: make([]Day, 7)}
		w := writer{sheet: &sh, days: []int{1, 2, 3}, rungs: map[ladder.State][]ladder.Rung{ladder.Current: {}, ladder.Ahead: {}}, Ask: Ask{Voice: english, Standing: ladder.Standing{Ache: &ladder.Ache{Side: "left", Where: "wrist"}}}}
		for i, title := range titles {
			at := ladder.Current
			if i > 0 {
				at = ladder.Ahead
			}
			w.rungs[at] = append(w.rungs[at], coming(title, shelf.Book, true))
		}
		w.rungs[ladder.Ahead] = append(w.rungs[ladder.Ahead], coming("no notes", shelf.Book, false))
		w.rest()
		for _, d := range sh.Days[1:4] {
			var day []string
			for _, task := range d.Tasks {
				assert.True(t, task.Listen)
				day = append(day, task.Title)
			}
			out = append(out, strings.Join(day, "+"))
		}
		assert.Equal(t, "pain-stop", sh.LeftOut[0].Code)
		return out
	}
	assert.Equal(t, []string{"", "", ""}, run())
	assert.Equal(t, []string{"a", "a", "a"}, run("a"))
	assert.Equal(t, []string{"a+b", "b+a", "a+b"}, run("a", "b"))
	assert.Equal(t, []string{"a+b", "b+c", "c+a"}, run("a", "b", "c"))
}

// A piece that sticks is taken small again, in another cut each sheet.
func TestAPieceThatSticks(t *testing.T) {
	leaf := func(i int) reading.Chunk {
		return reading.Chunk{From: reading.Place{Bar: i}, To: reading.Place{Bar: i}, FromID: fmt.Sprint("n", i), ToID: fmt.Sprint("n", i)}
	}
	tree := func(n int) reading.Chunk {
		out := leaf(1)
		for i := 2; i <= n; i++ {
			next := leaf(i)
			out = reading.Chunk{From: out.From, To: next.To, FromID: out.FromID, ToID: next.ToID, Parts: []reading.Chunk{out, next}}
		}
		return out
	}
	learn := func(leaves, sheets, turns, room int) string {
		r := rung("r", leaves, 1, at(from), nil)
		r.Points = append(r.Points, ladder.Point{Key: "tuning"}, ladder.Point{Key: "rhythm"})
		w := writer{Ask: Ask{Voice: english, From: from, Next: from.Add(7), Stuck: map[string]bool{"r": true}}}
		for range sheets {
			w.Past = append(w.Past, Past{Ticked: map[string]int{fmt.Sprintf("now r     n1 n%d 1 %d", leaves, leaves): 0}})
		}
		var out []string
		for _, d := range w.learn(r, tree(leaves), turns, room) {
			var day []string
			for _, b := range d {
				s := fmt.Sprintf("%d-%d", b.bars[0], b.bars[1])
				if b.whole {
					s = "whole"
				}
				day = append(day, strings.TrimSuffix(s+" "+b.way, " "))
			}
			out = append(out, strings.Join(day, "+"))
		}
		return strings.Join(out, ", ")
	}
	for _, c := range []struct {
		says                        string
		leaves, sheets, turns, room int
		want                        string
	}{
		{"two neighbours a turn", 6, 0, 3, 2, "1-1+2-2, 3-3+4-4, 5-5+6-6"},
		{"one where there is room for one", 6, 0, 3, 1, "1-1, 3-3, 5-5"},
		{"the next sheet from its end", 6, 1, 3, 2, "6-6, whole, whole"},
		{"the one after begins with the third", 6, 2, 3, 2, "3-3+4-4, 5-5+6-6, 1-1+2-2"},
		{"the last has no neighbour", 5, 0, 3, 2, "1-1+2-2, 3-3+4-4, 5-5"},
		{"a short piece is played as it stands at the end", 2, 0, 3, 2, "1-1+2-2, 1-1+2-2, whole"},
		{"on two turns it is not", 2, 0, 2, 2, "1-1+2-2, 1-1+2-2"},
		{"its next sheet: the whole, otherwise", 2, 1, 2, 2, "whole by-heart, whole by-heart"},
		{"one leaf is the whole", 1, 0, 2, 2, "whole own-tempo, whole own-tempo"},
	} {
		assert.Equal(t, c.want, learn(c.leaves, c.sheets, c.turns, c.room), c.says)
	}
}

// While one hand hurts, the other plays what the lessons since then gave it, on an instrument on which one hand
// alone makes music; on the day of the pain nobody plays. Common practice, no source: the clinician who clears the
// hand decides.
func TestTheHandThatDoesNotHurt(t *testing.T) {
	pained := calendar.Date("2026-11-11")
	for _, c := range []struct {
		says, side, plays string
		pained            calendar.Date
		worked            calendar.Date
		staves            int
		turns             bool
		want              string
		line              string
	}{
		{"worked on since", "right", "piano", pained, from, 2, false, "left", "one-hand"},
		{"the other side", "left", "piano", pained, from, 2, false, "right", "one-hand"},
		{"worked on that same day", "right", "piano", pained, pained, 2, false, "left", "one-hand"},
		{"not worked on since", "right", "piano", pained, "2026-11-10", 2, false, "", "one-hand"},
		{"one staff is for both", "right", "piano", pained, from, 1, false, "", "one-hand"},
		{"hands that take turns", "right", "piano", pained, from, 2, true, "", "one-hand"},
		{"both sides", "both", "piano", pained, from, 2, false, "", "no-playing"},
		{"today", "right", "piano", from, from, 2, false, "", "no-playing"},
		{"a guitar wants both", "right", "guitar", pained, from, 2, false, "", "no-playing"},
	} {
		s := only(rung("duet", 8, c.staves, at("2026-11-04"), nil))
		s.Rungs[0].Worked = []calendar.Date{"2026-11-04", c.worked}
		s.Ache = &ladder.Ache{Side: c.side, Where: "wrist", At: c.pained.Time().Add(16 * time.Hour)}
		a := ask(s, approach.Default(9), 9, from, next)
		a.Plays = instrument.Shipped.Of(instrument.ID(c.plays))
		a.InTurn = map[string]bool{"duet": c.turns}
		sh := Make(a)
		got := map[string]bool{}
		for _, d := range sh.Days {
			for _, task := range d.Tasks {
				if !task.Listen {
					got[task.Hands] = true
				}
			}
		}
		want := map[string]bool{}
		if c.want != "" {
			want[c.want] = true
		}
		assert.Equal(t, want, got, c.says)
		assert.Equal(t, c.line, sh.Lines[0].Code, c.says)
	}
}
