package week

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
)

// Both sides of the bounds of a sheet's rules.

// The chunks of a piece without a score, day by day. Common practice, no source.
func TestChunksByBarsAlone(t *testing.T) {
	says := func(list []chunk) string {
		var out []string
		for _, c := range list {
			s := "whole"
			if c.from > 0 {
				s = fmt.Sprintf("%d-%d", c.from, c.to)
			}
			if c.joined {
				s = "+" + s
			}
			out = append(out, s)
		}
		return strings.Join(out, " ")
	}
	week := func(bars, lessons int) string {
		var out []string
		for day := 1; day <= practice; day++ {
			out = append(out, says(build(bars, day, lessons)))
		}
		return strings.Join(out, ", ")
	}
	for _, c := range []struct {
		bars, lessons int
		want          string
	}{
		{4, 1, "whole, whole, whole, whole, whole, whole"},
		{5, 1, "1-2, 3-5, 1-2 3-5, +1-5, whole, whole"},
		{8, 1, "1-4, 5-8, 1-4 5-8, +1-8, whole, whole"},
		{9, 2, "1-3 4-6, 7-9, +1-6, +4-9, whole, whole"},
		{16, 1, "1-4 5-8, 9-12 13-16, +1-8, +9-16, whole, whole"},
		{40, 1, "1-10 11-20, 21-30 31-40, +1-20, +21-40, whole, whole"},
		{16, 3, "whole, whole, whole, whole, whole, whole"},
	} {
		assert.Equal(t, c.want, week(c.bars, c.lessons), "%d bars, lesson %d", c.bars, c.lessons)
	}
	for _, c := range []struct {
		bars, turn, total, lessons int
		want                       string
	}{
		{8, 1, 3, 1, "1-4"}, {8, 2, 3, 1, "5-8"}, {8, 3, 3, 1, "whole"}, {9, 1, 3, 2, "1-4"}, {9, 2, 3, 2, "5-9"},
		{4, 1, 3, 1, "whole"}, {5, 1, 3, 1, "1-2"}, {8, 1, 2, 1, "whole"}, {8, 1, 3, 3, "whole"},
	} {
		assert.Equal(t, c.want, says(halves(c.bars, c.turn, c.total, c.lessons)), "%+v", c)
	}
}

// How many sheets running asked for nothing but the whole of a piece without a score.
func TestSheetsThatAskedTheWhole(t *testing.T) {
	whole, part, spot, other := "now r    0 0", "now r    1 4", "now r   bar 3 0", "now q    0 0"
	sheets := func(keys ...[]string) (out []Past) {
		for _, list := range keys {
			p := Past{Ticked: map[string]int{}}
			for _, k := range list {
				p.Ticked[k] = 0
			}
			out = append(out, p)
		}
		return out
	}
	for _, c := range []struct {
		past [][]string
		want int
	}{
		{nil, 0}, {[][]string{{whole}}, 1}, {[][]string{{whole}, {whole}}, 2}, {[][]string{{part}}, 0}, {[][]string{{whole, part}}, 0}, {[][]string{{whole}, {part}, {whole}}, 1},
		{[][]string{{whole}, {other}, {whole}}, 2}, {[][]string{{other}}, 0}, {[][]string{{whole, spot}}, 1}, {[][]string{{"upkeep r    0 0"}}, 0}, {[][]string{{"own x"}}, 0},
	} {
		w := writer{Ask: Ask{Voice: english, Bank: english.Games(), Past: sheets(c.past...)}}
		assert.Equal(t, c.want, w.wholes(ladder.Rung{ID: "r"}), "%v", c.past)
	}
}

// The minutes of a day after a break, after a thin week, and beside what was practised.
func TestTheMinutesOfADay(t *testing.T) {
	run := func(budget int, change func(*writer)) (int, string) {
		sh := Sheet{Budget: budget, Days: make([]Day, 7)}
		w := writer{sheet: &sh, days: []int{1, 2, 3, 4, 5, 6}, Ask: Ask{Voice: english, Bank: english.Games(), From: from}}
		change(&w)
		w.budget()
		code := ""
		if len(sh.LeftOut) > 0 {
			code = sh.LeftOut[0].Code
		}
		return sh.Budget, code
	}
	practised := func(w *writer, minutes float64, days ...int) {
		for _, n := range days {
			w.Standing.Practice = append(w.Standing.Practice, ladder.Practice{Day: from.Add(-n), Minutes: int(minutes)})
		}
	}
	closed := func(w *writer) { w.Standing.Closed = map[calendar.Date]time.Time{from.Add(-7): from.Time()} }
	grown := func(lately float64) int { return int(math.Ceil(judgement.WeekGrowth*lately)) + 1 }
	for _, c := range []struct {
		name   string
		budget int
		change func(*writer)
		want   int
		code   string
	}{
		{"nothing told", 20, func(*writer) {}, 20, ""},
		{"the family's own", 20, func(w *writer) { w.Standing.HomeDays.Minutes = 12 }, 12, ""},
		{"after a break", 20, func(w *writer) { w.Path.Break = climb.Break{Days: 20} }, int(judgement.WeekLight * 20), "after-break"},
		{"three of six days", 20, func(w *writer) { closed(w); practised(w, 20, 6, 5, 4) }, 20, ""},
		{"two of six", 20, func(w *writer) { closed(w); practised(w, 20, 6, 5) }, int(judgement.WeekLight * 20), "thin-week"},
		{"two minutes at least", 2, func(w *writer) { closed(w); practised(w, 20, 6) }, 2, "thin-week"},
		{"three days say nothing of minutes", 60, func(w *writer) { practised(w, 10, 1, 2, 3) }, 60, ""},
		{"four do", 40, func(w *writer) { practised(w, 10, 1, 2, 3, 4) }, max(grown(10), 20), "grown-gently"},
		{"not under half", 60, func(w *writer) { practised(w, 10, 1, 2, 3, 4) }, 30, "grown-gently"},
		{"as much as may be", grown(20), func(w *writer) { practised(w, 20, 1, 2, 3, 4) }, grown(20), ""},
		{"a minute more than may be", grown(20) + 1, func(w *writer) { practised(w, 20, 1, 2, 3, 4) }, grown(20), "grown-gently"},
		{"of three weeks", 40, func(w *writer) { practised(w, 10, 19, 20, 21, 22) }, 40, ""},
	} {
		budget, code := run(c.budget, c.change)
		assert.Equal(t, c.want, budget, c.name)
		assert.Equal(t, c.code, code, c.name)
	}
}

// After a thin week four days are asked for, spread.
func TestDaysAfterAThinWeek(t *testing.T) {
	for n, want := range map[int][]int{4: {1, 2, 3, 4}, 5: {2, 3, 4, 5}, 6: {2, 3, 5, 6}} {
		sh := Sheet{Days: make([]Day, 7)}
		w := writer{sheet: &sh}
		for d := 1; d <= n; d++ {
			w.days = append(w.days, d)
		}
		w.rarer()
		assert.Len(t, w.days, rareDays)
		off := 0
		for _, d := range sh.Days {
			if d.Off {
				off++
			}
		}
		assert.Equal(t, n-rareDays, off)
		assert.Equal(t, want, w.days, "%d days", n)
	}
}

// The minutes that a day may be told to have taken.
func TestMinutesToChooseFrom(t *testing.T) {
	for budget, want := range map[int][]int{2: {2, 3, 4}, 8: {4, 8, 12, 16}, 9: {5, 9, 14, 18}, 10: {5, 10, 15, 20}, 12: {5, 10, 20, 25}, 25: {15, 25, 40, 50}, 40: {20, 40, 60, 80}} {
		assert.Equal(t, want, Sheet{Budget: budget}.Choices(), "%d minutes", budget)
	}
}

// A day keeps to its things: what is for later goes first, then an old friend with another
// day; minutes go to the one before.
func TestADayKeepsToItsThings(t *testing.T) {
	task := func(band, id string, minutes int) Task {
		t := Task{Band: band, Rung: id, Minutes: minutes}
		if band == "ahead" {
			t.Rung, t.Skill = "", id
		}
		return t
	}
	run := func(age int, days ...[]Task) (out []string) {
		sh := Sheet{Days: []Day{{Lesson: true}}}
		w := writer{sheet: &sh, Ask: Ask{Voice: english, Bank: english.Games(), Age: age}}
		for i, list := range days {
			sh.Days = append(sh.Days, Day{Tasks: list})
			w.days = append(w.days, i+1)
		}
		w.few()
		for _, d := range sh.Days[1:] {
			day := ""
			for _, t := range d.Tasks {
				day += fmt.Sprintf("%s%s%d ", t.Rung, t.Skill, t.Minutes)
			}
			out = append(out, strings.TrimSpace(day))
		}
		return out
	}
	now := []Task{task("now", "a", 3), task("now", "a", 2), task("now", "b", 3)}
	with := func(more ...Task) []Task { return append(append([]Task{}, now...), more...) }
	assert.Equal(t, []string{"a3 a2 b3 o2 p2"}, run(6, with(task("upkeep", "o", 2), task("upkeep", "p", 2))), "four things: a piece is one")
	assert.Equal(t, []string{"a3 a2 b3 o2 p2 x1"}, run(6, with(task("upkeep", "o", 2), task("upkeep", "p", 2), task("ahead", "x", 1))), "nothing that has another day")
	old := with(task("upkeep", "o", 2), task("upkeep", "p", 2), task("upkeep", "q", 2))
	assert.Equal(t, []string{"a3 a2 b3 o2 p4", "a3 a2 b3 o4 q2"}, run(6, old, append([]Task{}, old...)), "an old friend that has another day goes; its last day stays")
	later := with(task("upkeep", "o", 2), task("ahead", "x", 1), task("ahead", "y", 1))
	assert.Equal(t, []string{"a3 a2 b3 o2 x2", "a3 a2 b3 o2 x1 y1"}, run(6, later, append([]Task{}, later...)))
	both := with(task("upkeep", "o", 2), task("upkeep", "p", 2), task("ahead", "x", 1), task("ahead", "y", 1))
	got := run(6, both, append([]Task{}, both...))
	assert.Equal(t, "a3 a2 b3 o4 x2", got[0], "what is for later before the old friend")
	listen := Task{Band: "ahead", Rung: "h", Listen: true, Minutes: 1}
	assert.Equal(t, []string{"a3 a2 b3 o2 x2"}, run(6, with(task("upkeep", "o", 2), task("ahead", "x", 1), listen)), "hearing goes though it has no other day")
	for age, want := range map[int]int{6: 4, 7: 6, 9: 6, 10: 8} {
		assert.Equal(t, want, LinesADay(age))
		assert.Equal(t, want-1, (&writer{Ask: Ask{Voice: english, Bank: english.Games(), Age: age}, light: true}).most())
	}
}

// After the first week of a longer time days are lighter.
func TestThinDays(t *testing.T) {
	run := func(last int, tasks ...Task) (out []string) {
		sh := Sheet{Budget: 11, Days: []Day{{Lesson: true, Tasks: []Task{{Band: "ahead", Rung: "hear", Listen: true, Minutes: 1}}}, {Tasks: tasks}}}
		w := writer{sheet: &sh, days: []int{1}, Ask: Ask{Voice: english, Bank: english.Games(), From: from, Calendar: calendar.Calendar{Free: []calendar.Span{{Name: "holidays", From: from, To: from.Add(60)}}}}}
		w.goOn(last)
		for _, d := range sh.Days[2:] {
			day := ""
			for _, t := range d.Tasks {
				day += fmt.Sprintf("%s%d ", t.Rung, t.Minutes)
			}
			assert.True(t, d.Thin)
			out = append(out, strings.TrimSpace(day))
		}
		return out
	}
	old, older := Task{Band: "upkeep", Rung: "o", Minutes: 4}, Task{Band: "upkeep", Rung: "p", Minutes: 4}
	hand, part := Task{Band: "now", Rung: "h", Minutes: 4}, Task{Band: "now", Rung: "h", From: 1, To: 4, Minutes: 4}
	scale := Task{Band: "now", Rung: "s", From: 1, Plays: []Play{{}}, Minutes: 4}
	assert.Empty(t, run(practice, old))
	assert.Equal(t, []string{"o5"}, run(practice+1, old))
	assert.Equal(t, []string{"h2 o2", "p5", "h2 o2", "p5"}, run(practice+4, old, older, hand, hand))
	assert.Equal(t, []string{"h2 o2", "o5", "s2 o2", "o5"}, run(practice+4, old, hand, scale), "pieces in hand take turns")
	assert.Equal(t, []string{"h5", "h5"}, run(practice+2, hand), "with no old friend every day")
	assert.Equal(t, []string{"hear1"}, run(practice+1, part, Task{Band: "now", Rung: "h", Spot: "bar 3"}), "stretches and spots do not go on")
	assert.Len(t, appendOnce([]Task{{Rung: "a", Hands: "left"}}, Task{Rung: "a", Hands: "right"}), 2, "the other hand is another thing")
	assert.Len(t, appendOnce([]Task{{Rung: "a", Hands: "left"}}, Task{Rung: "a", Hands: "left"}), 1)
}

// How long a playing takes at home, and how many chunks a day has time for.
func TestHowLongThingsTake(t *testing.T) {
	assert.InDelta(t, 16*60/(slow*100)+pause, slowly(shelf.Item{Tempo: 100}, 16), 1e-9)
	assert.InDelta(t, 16*60/(slow*moderate)+pause, slowly(shelf.Item{}, 16), 1e-9)
	tree := reading.Chunk{Lasts: 32, Parts: []reading.Chunk{{}, {}, {}, {}}}
	r := ladder.Rung{Item: shelf.Item{Tempo: 100}} // a chunk of eight quarters lasts ten seconds
	for minutes, want := range map[int]int{0: 1, 1: 1, 2: 2, 5: 5} {
		assert.Equal(t, want, chunks(r, tree, minutes), "%d minutes", minutes)
	}
	long := reading.Chunk{Lasts: 4 * 100, Parts: tree.Parts} // of more than a hundred seconds
	assert.Equal(t, []int{1, 1, 2}, []int{chunks(r, long, 1), chunks(r, long, 3), chunks(r, long, 8)})
	for _, c := range []struct{ from, count, want int }{{0, 5, 1}, {1, 1, 1}, {1, 2, 2}, {1, 5, 2}} {
		assert.Equal(t, c.want, (&Task{From: c.from, Count: c.count}).fewest())
	}
	assert.Equal(t, []float64{1, 1, 2}, []float64{(&Task{}).takes(9), (&Task{lasts: 30}).takes(2), (&Task{lasts: 30}).takes(4)})
}

// Minutes of a rung's tasks on a day: what lacks most gets more, counts are cut, and what
// does not fit waits, the known before the new.
func TestWhatFitsADay(t *testing.T) {
	task := func(id string, count int, lasts float64, fresh bool) Task {
		return Task{Rung: id, From: 1, Count: count, lasts: lasts, fresh: fresh}
	}
	run := func(minutes int, tasks ...Task) (out string) {
		for _, t := range fit(tasks, minutes) {
			out += fmt.Sprintf("%s %d×%d′ ", t.Rung, t.Count, t.Minutes)
		}
		return strings.TrimSpace(out)
	}
	assert.Empty(t, run(5))
	assert.Equal(t, "a 3×4′", run(4, task("a", 3, 60, false)), "one takes the day")
	assert.Equal(t, "a 2×2′", run(2, task("a", 3, 60, false)))
	assert.Equal(t, "a 1×1′", run(0, task("a", 3, 60, false)), "a minute at least")
	assert.Equal(t, "a 2×2′ b 4×4′", run(6, task("a", 2, 60, false), task("b", 4, 60, false)), "the rest to the one that lacks most")
	assert.Equal(t, "b 2×3′", run(3, task("a", 2, 60, false), task("b", 2, 60, true)), "what is known waits")
	assert.Equal(t, "a 2×3′", run(3, task("a", 2, 60, true), task("b", 2, 60, true)), "the last of what is new")
	spot := Task{Rung: "s", Spot: "bar 3", Count: 5, InRow: true}
	assert.Equal(t, "s 5×1′", run(1, spot, task("a", 2, 60, false)), "a spot does not wait, nor is it cut")
	assert.Equal(t, "a 3×1′", run(1, task("a", 3, 20, false)), "three of twenty seconds")
	assert.Equal(t, "a 2×1′", run(1, task("a", 5, 31, false)), "the pause after the last is nobody's")
}

// Games go home where nothing is in hand, two a day, in turn.
func TestGamesAtHome(t *testing.T) {
	game := func(id string) activity.Activity {
		return activity.Activity{ID: id, Title: id, Levels: []string{"x"}}
	}
	run := func(budget int, games ...activity.Activity) (out []string) {
		sh := Sheet{Budget: budget, Days: []Day{{}, {}, {Tasks: []Task{{Band: "now", Minutes: 1}}}, {}}}
		w := writer{sheet: &sh, days: []int{1, 2, 3}, Ask: Ask{Voice: english, Bank: english.Games(), Games: games}}
		w.games()
		for _, d := range sh.Days[1:] {
			day := ""
			for _, t := range d.Tasks {
				if t.Game != "" {
					day += fmt.Sprintf("%s%d ", t.Game, t.Minutes)
				}
			}
			out = append(out, strings.TrimSpace(day))
		}
		return out
	}
	assert.Equal(t, []string{"", "", ""}, run(10))
	assert.Equal(t, []string{"a2", "", "a2"}, run(10, game("a")))
	assert.Equal(t, []string{"a2 b2", "", "b2 c2"}, run(10, game("a"), game("b"), game("c")))
	assert.Equal(t, []string{"a1", "", "a1"}, run(1, game("a")))
	tune := game("t")
	tune.Aim = activity.RoteTune
	assert.Equal(t, []string{"t2 a2", "", "t2 a2"}, run(10, game("a"), tune), "the tune each day")
	assert.Equal(t, []string{"t2 a2", "", "t2 c2"}, run(10, game("a"), game("b"), tune, game("c")))
}

// After the first meeting one game a day goes home beside a piece, and where nobody told what was
// played the first of each aim; later neither.
func TestTheFirstMeetingGoesHome(t *testing.T) {
	run := func(closed int, taught bool, played ...activity.Activity) (out []int) {
		s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
		for n := range closed {
			s.Closed[from.Add(-7*n)] = *at(from.Add(-7 * n))
		}
		r := rung("one", 8, 1, nil, nil)
		if taught {
			r.Taught = at(from)
		}
		s.Rungs = []ladder.Rung{r}
		sh := Make(Ask{Voice: english, Bank: english.Games(), Standing: s, Graph: english.SkillsAtHome(""), Approach: approach.Default(6), Plays: instrument.Shipped.Of("piano"), Age: 6, From: from, Next: from.Add(7), Through: from.Add(6), Games: played, At: *at(from)})
		for _, d := range sh.Days[1:3] {
			games := 0
			for _, task := range d.Tasks {
				if task.Game != "" {
					games++
				}
			}
			out = append(out, games)
		}
		return out
	}
	game := activity.Activity{ID: "a", Title: "a", Levels: []string{"x"}}
	assert.Equal(t, []int{1, 1}, run(1, true, game), "beside a piece")
	assert.Equal(t, []int{0, 0}, run(2, true, game), "the second lesson")
	assert.Equal(t, []int{0, 0}, run(1, true), "a piece, and no game was told")
	assert.Equal(t, []int{2, 2}, run(1, false), "nothing was told: never an empty sheet")
	assert.Equal(t, []int{0, 0}, run(2, false))
	sung := english.Games()[slices.IndexFunc(english.Games(), func(a activity.Activity) bool { return a.ID == "sing-gull" })]
	tune := english.Games()[slices.IndexFunc(english.Games(), func(a activity.Activity) bool { return a.Aim == activity.RoteTune })]
	home := func(age int, outcome string, closed bool) (out []string) {
		s := ladder.Standing{Probes: map[string]ladder.Probe{"sing-back": {Outcome: outcome}, activity.RoteTune: {Outcome: fact.Pass}}}
		if closed {
			s.Lessons = ladder.Lessons{Closed: map[calendar.Date]time.Time{from: *at(from)}}
		}
		w := writer{sheet: &Sheet{Reader: reader(age)}, rungs: map[ladder.State][]ladder.Rung{}, Ask: Ask{Voice: english, Bank: english.Games(), Standing: s, From: from, Age: age, Plays: instrument.Shipped.Of("piano"), Games: []activity.Activity{sung, tune}}}
		for _, a := range w.goHome() {
			out = append(out, a.Aim)
		}
		return out
	}
	assert.Equal(t, []string{"sing-back", "rote-tune"}, home(6, fact.Nearly, false))
	assert.Equal(t, []string{"rote-tune"}, home(6, fact.Pass, false), "passed, its games have stopped; a tune is played on")
	assert.Equal(t, []string{"sing-back", "rote-tune"}, home(12, fact.Pass, false), "who is older keeps it up")
	assert.Equal(t, []string{"rote-tune", "find-by-ear", "echo-rhythm", "seat"}, home(6, fact.Pass, true), "aims of the meeting that nobody told of")
}

// The order in which old friends take turns.
func TestTurnsOfOldFriends(t *testing.T) {
	for n, want := range map[int][]int{0: {}, 1: {0}, 2: {0, 1}, 3: {0, 2, 1}, 4: {0, 2, 1, 3, 0}, 5: {0, 2, 1, 3, 0, 4, 1}} {
		assert.Equal(t, want, rotation(n), "%d", n)
	}
	w := writer{Ask: Ask{Voice: english, Bank: english.Games(), Graph: english.SkillsAtHome(""), From: from}}
	secure := func(days int) ladder.Rung { return ladder.Rung{Foothold: at(from.Add(-days))} }
	for place, want := range map[int]string{0: "newest-kept", 1: "newest-kept", 2: "carries"} {
		assert.Equal(t, want, w.kept(secure(7), upkeep.Piece{Carries: []string{"rests"}}, place).Code)
	}
	assert.Equal(t, "keep-alive", w.kept(secure(7), upkeep.Piece{}, 2).Code)
	assert.Equal(t, "newest-kept", w.kept(secure(newly), upkeep.Piece{}, 0).Code, "newly secure for six weeks")
	assert.Equal(t, "keep-alive", w.kept(secure(newly+1), upkeep.Piece{}, 0).Code, "and no longer")
	sh := Sheet{Budget: 20, Days: []Day{{}, {Tasks: []Task{{Band: "now", Rung: "a", Minutes: 5}, {Band: "now", Rung: "a", Minutes: 2}, {Band: "upkeep", Rung: "o", Minutes: 3}, {Band: "ahead", Skill: "x", Minutes: 1}}}, {}}}
	w = writer{sheet: &sh, days: []int{1, 2}, early: map[int]int{1: 1}, Ask: Ask{Voice: english, Bank: english.Games(), Age: 6}}
	assert.Equal(t, []int{9, 20}, []int{w.left(1), w.left(2)})
	assert.Equal(t, []int{7, 0}, []int{w.inHand(1), w.inHand(2)})
	assert.Equal(t, []int{1, 4, 5}, []int{w.room(1), w.room(2), w.slots()})
}

// What a line of a past sheet asked of a piece, and which of its leaves that held.
func TestWhatAPastLineHeld(t *testing.T) {
	for key, want := range map[string]bool{
		"now r  right  right a b 1 4": true, "now r   right a b 1 4": false, "upkeep r  right  right a b 1 4": false, "now r  right bar right a b 1 4": false, "now r  right  right a b x 4": false, "own x": false,
	} {
		_, _, ok := stretchOf(key)
		assert.Equal(t, want, ok, key)
	}
	var list []reading.Chunk
	for i := range 4 {
		c := reading.Chunk{FromID: fmt.Sprint("f", i), ToID: fmt.Sprint("t", i)}
		c.From.Bar, c.To.Bar = 2*i+1, 2*i+2
		list = append(list, c)
	}
	for _, c := range []struct {
		s        stretch
		from, to int
	}{
		{stretch{}, 0, 4}, {stretch{from: "f1", to: "t2", bars: [2]int{3, 6}}, 1, 3}, {stretch{from: "f0", to: "t0", bars: [2]int{1, 2}}, 0, 1},
		{stretch{from: "gone", to: "t2", bars: [2]int{3, 6}}, 1, 3}, {stretch{from: "f2", to: "t1", bars: [2]int{3, 6}}, 1, 3}, {stretch{from: "x", to: "y", bars: [2]int{2, 5}}, 1, 2}, {stretch{from: "x", to: "y", bars: [2]int{9, 12}}, 4, 4},
	} {
		from, to := c.s.covers(list)
		assert.Equal(t, []int{c.from, c.to}, []int{from, to}, "%+v", c.s)
	}
}

// When a piece may be done by the next lesson, and when it is nearly there.
func TestWhenAPieceIsNearlyThere(t *testing.T) {
	points := func(met, all int) ladder.Rung {
		r := ladder.Rung{ID: "r", Taught: at(from)}
		for i := range all {
			p := ladder.Point{Key: fmt.Sprint(i)}
			if i < met {
				p.State = ladder.Met
			}
			r.Points = append(r.Points, p)
		}
		return r
	}
	for _, c := range []struct{ met, all int }{{0, 1}, {0, 2}, {1, 3}} {
		assert.False(t, nearly(points(c.met, c.all)), "%+v", c)
	}
	for _, c := range []struct{ met, all int }{{1, 1}, {1, 2}, {2, 3}, {3, 3}} {
		assert.True(t, nearly(points(c.met, c.all)), "%+v", c)
	}
	soon := func(r ladder.Rung, sheets int, low float64, days int) bool {
		w := writer{Ask: Ask{Voice: english, Bank: english.Games(), From: from, Next: from.Add(days), Path: climb.Path{Expected: []climb.Expected{{Rung: "r", In: climb.Range{Low: low}}}}}}
		return w.soon(r, sheets)
	}
	assert.True(t, soon(points(1, 2), 0, 9, 7))
	assert.False(t, soon(points(1, 3), 0, 9, 7))
	assert.True(t, soon(points(0, 3), 0, 1, 7))
	assert.False(t, soon(points(0, 3), 0, 1.1, 7))
	assert.True(t, soon(points(0, 3), 1, 2, 7))
	assert.False(t, soon(points(0, 3), 1, 2.1, 7))
	assert.False(t, soon(points(0, 3), 0, 9, long))
	assert.True(t, soon(points(0, 3), 0, 9, long+1))
	assert.False(t, soon(points(0, 0), 0, 9, 7), "no points are not half of them")
}

// The whole, otherwise where it was asked for long enough; and a piece from its end.
func TestTheWholeAndFromTheEnd(t *testing.T) {
	tree := four()
	for wholes, way := range map[int]string{0: "", alike - 1: "", alike: ways[0], alike + 1: ways[1], alike + 2: ways[2], alike + 3: ways[0]} {
		for _, d := range (piece{wholes: wholes}).entire(tree, 3) {
			assert.Equal(t, way, d[0].way)
			assert.True(t, d[0].whole)
		}
	}
	var got []string
	for _, d := range backwards(tree, 6) {
		got = append(got, d[0].chunk.FromID+"-"+d[0].chunk.ToID)
	}
	half := func(i int) string { return tree.Parts[i].FromID + "-" + tree.Parts[i].ToID }
	whole := tree.FromID + "-" + tree.ToID
	assert.Equal(t, []string{half(1), half(0), half(1), half(0), whole, whole}, got)
	assert.Equal(t, whole, func() string {
		d := backwards(reading.Chunk{FromID: tree.FromID, ToID: tree.ToID}, 1)
		return d[0][0].chunk.FromID + "-" + d[0][0].chunk.ToID
	}())
	for turns, want := range map[int]int{1: 0, 2: 1, 3: 1, 6: 4} {
		assert.Equal(t, want, building(turns))
	}
}

// What was corrected lately goes home, for two weeks.
func TestHowLongAFaultGoesHome(t *testing.T) {
	all := fault.All
	for days, want := range map[int]bool{0: true, fresh - 1: true, fresh: false} {
		w := writer{Ask: Ask{Voice: english, Bank: english.Games(), From: from, Standing: ladder.Standing{Seen: []ladder.Sight{{Fault: all[1].Key, At: from.Add(-days - 1).Time()}, {Fault: all[0].Key, At: from.Add(-days).Time()}}}}}
		f, seen := w.corrected()
		assert.Equal(t, want, seen, "%d days", days)
		if want {
			assert.Equal(t, all[0].Key, f.Key, "the last that was seen")
		}
	}
	_, seen := (&writer{}).corrected()
	assert.False(t, seen)
}

// Whom a sheet speaks to, minutes and times by age. Common practice, no source.
func TestByAge(t *testing.T) {
	for age, want := range map[int]string{4: "parent", 9: "parent", 10: "student", 17: "student", 18: "adult"} {
		assert.Equal(t, want, reader(age))
	}
	for age, want := range map[int]int{2: 6, 3: 6, 8: 16, 9: 25, 12: 25, 13: 40, 18: 40, 19: 30} {
		assert.Equal(t, want, Budget(age))
	}
	for age, want := range map[int]int{2: 3, 5: 5, 8: 8, 9: 3, 40: 3} {
		assert.Equal(t, want, Times(age))
	}
}

// The lines that hold for every practice, and for whom each stands.
func TestLinesForEveryPractice(t *testing.T) {
	lines := func(age int, on instrument.ID, change func(*writer)) string {
		sh := Sheet{Budget: Budget(age), Reader: reader(age), Counting: "by-age"}
		w := writer{sheet: &sh, rungs: map[ladder.State][]ladder.Rung{}, Ask: Ask{Voice: english, Bank: english.Games(), From: from, Age: age, Approach: approach.Default(age), Plays: instrument.Shipped.Of(on), Graph: english.SkillsAtHome("")}}
		change(&w)
		w.lines()
		var out []string
		for _, l := range sh.Lines {
			out = append(out, l.Code)
		}
		return strings.Join(out, " ")
	}
	none := func(w *writer) {
		w.rungs[ladder.Current] = []ladder.Rung{{Strand: shelf.Book, Taught: at(from)}}
	}
	shownNothing := func(w *writer) {
		w.rungs[ladder.Current] = []ladder.Rung{{Strand: shelf.Book}}
		w.Standing.Closed = map[calendar.Date]time.Time{from: *at(from)}
	}
	assert.Equal(t, "seat-first child-leads praise-generous stop-if-it-hurts", lines(4, "piano", shownNothing), "a first meeting of games")
	assert.Equal(t, "seat-first child-leads first-drawing praise-specific stop-if-it-hurts", lines(7, "piano", shownNothing))
	assert.Equal(t, "seat-first praise-specific stop-if-it-hurts", lines(8, "piano", shownNothing))
	assert.Equal(t, "seat-first praise-generous stop-if-it-hurts", lines(4, "piano", func(w *writer) {
		shownNothing(w)
		w.Standing.Closed[from.Add(-7)] = *at(from.Add(-7))
	}), "a second lesson")
	assert.Equal(t, "seat-first start-drawn count-by-age script-direction praise-generous stop-if-it-hurts", lines(6, "piano", none))
	assert.Equal(t, "seat-first count-by-age script-count praise-specific stop-if-it-hurts", lines(8, "piano", none))
	assert.Equal(t, "seat-first rest-within count-by-age praise-specific stop-if-it-hurts", lines(12, "piano", none))
	assert.Equal(t, "seat-first rest-within count-by-age stop-if-it-hurts", lines(40, "piano", none))
	assert.NotContains(t, lines(6, "cello", none), "start-drawn", "strings have no keys")
	assert.NotContains(t, lines(12, "piano", func(w *writer) { w.sheet.Budget = 24 }), "rest-within")
	assert.Contains(t, lines(12, "piano", func(w *writer) { w.sheet.Budget = 25 }), "rest-within")
	book := func(w *writer) { w.Approach = w.Approach.With(approach.Approach{approach.LowSeat: approach.ThickBook}) }
	assert.Contains(t, lines(6, "piano", book), "seat-book")
	assert.NotContains(t, lines(12, "piano", book), "seat-book")
	assert.NotContains(t, lines(6, "cello", book), "seat-book")
	scale := ladder.Rung{Strand: shelf.Technique, Taught: at(from), Item: shelf.Item{Title: "Scale", Brings: []string{"scale-two"}}}
	state := func(change func(*ladder.Rung)) func(*writer) {
		return func(w *writer) {
			r := scale
			change(&r)
			w.rungs[ladder.Current] = []ladder.Rung{r}
		}
	}
	assert.Contains(t, lines(12, "piano", state(func(*ladder.Rung) {})), "aims-card-keyboard")
	assert.NotContains(t, lines(12, "piano", state(func(r *ladder.Rung) { r.Taught = nil })), "aims-card")
	assert.NotContains(t, lines(12, "piano", state(func(r *ladder.Rung) { r.Strand = shelf.Book })), "aims-card")
	assert.NotContains(t, lines(12, "piano", state(func(r *ladder.Rung) { r.Item.Brings = []string{"rests"} })), "aims-card")
}
