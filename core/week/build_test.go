package week

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/reading"
)

// tree makes a chunk tree of some notes, cut in two again and again down to a
// size.
func tree(rng *rand.Rand, from, to, size int) reading.Chunk {
	c := reading.Chunk{From: reading.Place{Bar: from/4 + 1}, To: reading.Place{Bar: (to-1)/4 + 1}, Notes: to - from,
		FromID: fmt.Sprint("n", from), ToID: fmt.Sprint("n", to-1)}
	if to-from > size {
		at := from + (to-from)/2 + rng.IntN(3) - 1
		c.Parts = []reading.Chunk{tree(rng, from, at, size), tree(rng, at, to, size)}
	}
	return c
}

// The tree's chunks that a plan asks, by turn.
func asked(days [][]bit) (out [][]string) {
	for _, day := range days {
		var list []string
		for _, b := range day {
			list = append(list, b.chunk.FromID+"-"+b.chunk.ToID)
		}
		out = append(out, list)
	}
	return out
}

// A hand that has one week only: nothing before its parts, whole on the last two of a
// week's turns, no turn with more than fits: over random pieces.
func TestAHandInAWeek(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 6))
	for range 2000 {
		whole := tree(rng, 0, 4+rng.IntN(90), 3+rng.IntN(6))
		turns, room := 1+rng.IntN(6), 1+rng.IntN(6)
		days := inAWeek(whole, turns, room)
		require.Len(t, days, turns)
		seen := map[string]bool{}
		for d, day := range days {
			require.NotEmpty(t, day)
			require.LessOrEqual(t, len(day), room, "turn %d of %d", d, turns)
			for _, b := range day {
				for _, part := range b.chunk.Parts {
					require.True(t, turns == 1 || seen[part.FromID+part.ToID], "nothing before its parts")
				}
				seen[b.chunk.FromID+b.chunk.ToID] = true
			}
		}
		require.True(t, days[turns-1][0].whole)
		if turns >= 3 {
			require.True(t, days[turns-2][0].whole, "whole by the last two days")
		}
	}
}

// Week after week, over random pieces, rooms and turns that change from week to week, and
// families that do a part of what is asked: every chunk is asked for, nothing is joined
// before it is known, no turn has more than fits, and the whole comes before long and
// stays.
func TestNoBarIsSkipped(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 7))
	for range map[bool]int{false: 500, true: 60}[testing.Short()] {
		whole := tree(rng, 0, 4+rng.IntN(60), 3+rng.IntN(4))
		whole.Hand = reading.Right
		r := rung("new", 16, 1, at(from), nil)
		w := writer{}
		known, ever := map[string]bool{}, map[string]bool{}
		wholeAt := 0
		for week := 1; week <= 40 && wholeAt == 0; week++ {
			turns, room := 1+rng.IntN(6), 1+rng.IntN(5)
			days := w.learn(r, whole, turns, room)
			require.Len(t, days, turns)
			past := Past{Ticked: map[string]int{}}
			thisWeek := map[string]bool{}
			for _, day := range days {
				require.NotEmpty(t, day)
				require.LessOrEqual(t, len(day), min(room, aDay))
				for _, b := range day {
					for _, l := range leaves(b.chunk) {
						if len(b.chunk.Parts) > 0 {
							require.True(t, known[l.FromID] || thisWeek[l.FromID], "week %d: joined before it was learnt", week)
						}
					}
					if len(b.chunk.Parts) == 0 {
						thisWeek[b.chunk.FromID] = true
						ever[b.chunk.FromID] = true
					}
					task := Task{Band: "now", Rung: "new", From: b.bars[0], To: b.bars[1], Start: &Start{From: b.chunk.FromID, To: b.chunk.ToID, Hand: "right"}}
					if b.whole {
						task.From, task.To = 0, 0
					}
					ticked := rng.IntN(3)
					past.Ticked[task.key()] += ticked
					if b.whole && week > 1 {
						wholeAt = week
					}
				}
			}
			w.Past = append(w.Past, past)
			for i, l := range w.learnt(r, whole).leaves {
				known[l.FromID] = w.learnt(r, whole).known[i] || known[l.FromID]
			}
		}
		require.Positive(t, wholeAt, "the whole comes")
		for _, l := range leaves(whole) {
			require.True(t, ever[l.FromID] || len(whole.Parts) == 0, "no bar is skipped")
		}
	}
}

// four is a piece of four chunks in two pairs; the third is the first again.
func four() reading.Chunk {
	leaf := func(n int, like string) reading.Chunk {
		return reading.Chunk{From: reading.Place{Bar: n}, To: reading.Place{Bar: n}, FromID: fmt.Sprint("a", n), ToID: fmt.Sprint("b", n), Like: like, Hand: reading.Right}
	}
	join := func(a, b reading.Chunk) reading.Chunk {
		return reading.Chunk{From: a.From, To: b.To, FromID: a.FromID, ToID: b.ToID, Parts: []reading.Chunk{a, b}, Hand: reading.Right}
	}
	return join(join(leaf(1, "x"), leaf(2, "y")), join(leaf(3, "x"), leaf(4, "z")))
}

// When the whole is asked for once at the end of a week, in case the next lesson grants it.
func TestWhenThePieceMayBeDone(t *testing.T) {
	for _, c := range []struct {
		name   string
		low    float64 // weeks from now to the foothold, at the least
		met    int     // of four points
		sheets int
		days   int // to the next lesson
		want   bool
	}{
		{"far off", 1.1, 1, 0, 7, false}, {"its usual weeks begin", 1, 0, 0, 7, true},
		{"after its first sheet a week sooner", 2, 0, 1, 7, true}, {"but not two", 2.1, 0, 1, 7, false}, {"on its first sheet not", 2, 0, 0, 7, false},
		{"half its points are met", 5, 2, 0, 7, true}, {"less than half", 5, 1, 3, 7, false},
		{"a fortnight to the next lesson", 5, 0, 0, 14, false}, {"more", 5, 0, 0, 15, true},
	} {
		r := ladder.Rung{ID: "new"}
		for i := range 4 {
			state := ladder.Open
			if i < c.met {
				state = ladder.Met
			}
			r.Points = append(r.Points, ladder.Point{State: state})
		}
		w := writer{Ask: Ask{Voice: english, From: from, Next: from.Add(c.days), Path: climb.Path{Expected: []climb.Expected{{Rung: "new", In: climb.Range{Low: c.low}}}}}}
		assert.Equal(t, c.want, w.soon(r, c.sheets), c.name)
	}
}

// What a week asks of a piece of four bars whose third is its first, by what was done.
func TestWhatAWeekAsks(t *testing.T) {
	key := func(from, to string, bars ...int) string {
		return Task{Band: "now", Rung: "new", From: bars[0], To: bars[1], Start: &Start{From: from, To: to, Hand: "right"}}.key()
	}
	leaf := func(n int) string { return key(fmt.Sprint("a", n), fmt.Sprint("b", n), n, n) }
	points := func(states ...ladder.PointState) (out []ladder.Point) {
		for i, s := range states {
			out = append(out, ladder.Point{Key: fmt.Sprint(i), State: s})
		}
		return out
	}
	all := []string{"a1-b4"}
	for _, c := range []struct {
		name   string
		past   []Past
		points []ladder.Point
		want   [][]string
	}{
		{"the first week: what is different, a chunk a day, pairs joined, the whole at the end", nil, nil,
			[][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, all, all}},
		{"it goes on after what was ticked", []Past{{Ticked: map[string]int{leaf(1): 2, leaf(2): 0}}}, nil,
			[][]string{{"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, {"a1-b4"}, all, all}},
		{"a family that ticks nothing is believed", []Past{{Ticked: map[string]int{leaf(1): 0, leaf(2): 0}}}, nil,
			[][]string{{"a4-b4", "a1-b4"}, {"a1-b4"}, {"a1-b4"}, {"a1-b4"}, all, all}},
		{"what was asked twice is left", []Past{{Ticked: map[string]int{leaf(1): 1, leaf(2): 0}}, {Ticked: map[string]int{leaf(2): 0, leaf(1): 1}}}, nil,
			[][]string{{"a4-b4", "a1-b4"}, {"a1-b4"}, {"a1-b4"}, {"a1-b4"}, all, all}},
		{"all is known, the whole was not asked: halves, then the whole", []Past{{Ticked: map[string]int{leaf(1): 1, leaf(2): 1, leaf(4): 1}}}, nil,
			[][]string{{"a1-b2"}, {"a3-b4"}, {"a1-b2"}, {"a3-b4"}, all, all}},
		{"the whole was asked: the whole", []Past{{Ticked: map[string]int{leaf(1): 1, leaf(2): 1, leaf(4): 1, key("a1", "b4", 0, 0): 1}}}, nil,
			[][]string{all, all, all, all, all, all}},
		{"cut otherwise then: by its bars", []Past{{Ticked: map[string]int{key("q", "r", 1, 2): 1}}}, nil,
			[][]string{{"a4-b4", "a1-b4"}, {"a1-b4"}, {"a1-b4"}, {"a1-b4"}, all, all}},
		{"another hand's past is not this one's", []Past{{Ticked: map[string]int{Task{Band: "now", Rung: "new", From: 1, To: 1, Start: &Start{From: "a1", To: "b1", Hand: "left"}}.key(): 1}}}, nil,
			[][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, all, all}},
		{"another piece's neither", []Past{{Ticked: map[string]int{Task{Band: "now", Rung: "old", From: 1, To: 1, Start: &Start{From: "a1", To: "b1", Hand: "right"}}.key(): 1}}}, nil,
			[][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, all, all}},
		{"all points met but one: whole", nil, points(ladder.Met, ladder.Met, ladder.Open), [][]string{all, all, all, all, all, all}},
		{"two left: built", nil, points(ladder.Met, ladder.Open, ladder.Unmarked), [][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, all, all}},
		{"its only point is still open: built", nil, points(ladder.Open), [][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a4-b4", "a1-b4"}, {"a1-b4"}, all, all}},
	} {
		w := writer{Ask: Ask{Voice: english, Past: c.past}}
		r := ladder.Rung{ID: "new", Points: c.points, Taught: at(from)}
		assert.Equal(t, c.want, asked(w.learn(r, four(), 6, 4)), c.name)
	}
	// two bars that come back as two: joined once
	small := func(n int, like string) reading.Chunk {
		return reading.Chunk{From: reading.Place{Bar: n}, To: reading.Place{Bar: n}, FromID: fmt.Sprint("a", n), ToID: fmt.Sprint("b", n), Like: like, Hand: reading.Right}
	}
	pair := func(n int, likes string) reading.Chunk {
		return reading.Chunk{From: reading.Place{Bar: n}, To: reading.Place{Bar: n + 1}, FromID: fmt.Sprint("a", n), ToID: fmt.Sprint("b", n+1), Hand: reading.Right, Parts: []reading.Chunk{small(n, likes[:1]), small(n+1, likes[1:])}}
	}
	back := reading.Chunk{From: reading.Place{Bar: 1}, To: reading.Place{Bar: 6}, FromID: "a1", ToID: "b6", Hand: reading.Right, Parts: []reading.Chunk{
		{From: reading.Place{Bar: 1}, To: reading.Place{Bar: 4}, FromID: "a1", ToID: "b4", Hand: reading.Right, Parts: []reading.Chunk{pair(1, "xy"), pair(3, "zq")}}, pair(5, "xy")}}
	assert.Equal(t, [][]string{{"a1-b1"}, {"a2-b2", "a1-b2"}, {"a3-b3"}, {"a4-b4", "a1-b6"}, {"a1-b6"}, {"a1-b6"}},
		asked((&writer{}).learn(ladder.Rung{ID: "new", Taught: at(from)}, back, 6, 4)), "the fifth and sixth bar are no news")
	w := writer{Ask: Ask{Voice: english, Stuck: map[string]bool{"new": true}}}
	assert.Equal(t, [][]string{{"a1-b1", "a2-b2"}, {"a3-b3", "a4-b4"}}, asked(w.learn(ladder.Rung{ID: "new", Taught: at(from)}, four(), 2, 4)), "but not where two turns hold its parts")
	assert.Equal(t, [][]string{{"a1-b1", "a2-b2"}, {"a3-b3", "a4-b4"}, {"a1-b4"}}, asked(w.learn(ladder.Rung{ID: "new", Taught: at(from), Points: points(ladder.Met, ladder.Met, ladder.Open)}, four(), 3, 4)), "a piece that sticks is taken small again, and once whole")
	assert.Equal(t, [][]string{{"a1-b1"}}, asked(w.learn(ladder.Rung{ID: "new", Taught: at(from)}, four(), 1, 1)))
	five := four()
	five.Parts = append(five.Parts, reading.Chunk{From: reading.Place{Bar: 5}, To: reading.Place{Bar: 5}, FromID: "a5", ToID: "b5", Hand: reading.Right})
	five.ToID = "b5"
	assert.Equal(t, [][]string{{"a1-b1", "a2-b2"}, {"a3-b3", "a4-b4"}, {"a5-b5"}}, asked(w.learn(ladder.Rung{ID: "new", Taught: at(from)}, five, 3, 4)), "a longer one is not played whole")
	assert.Equal(t, "stuck-small", w.whyChunk(ladder.Rung{ID: "new"}, false, false).Code)
	w = writer{}
	one := asked(w.learn(ladder.Rung{ID: "new", Taught: at(from)}, four(), 1, 1))
	assert.Equal(t, [][]string{{"a1-b1"}}, one, "one turn, one minute: one chunk")
}

// The sheet of a piece with its score, in a family that practises on four days.
func TestASheetFromTheScore(t *testing.T) {
	r := rung("new", 16, 1, at(from), nil)
	s := only(r)
	s.HomeDays = ladder.HomeDays{Days: []time.Weekday{time.Thursday, time.Saturday, time.Monday, time.Tuesday}}
	a := ask(s, approach.Default(6), 6, from, next)
	whole := tree(rand.New(rand.NewPCG(2, 2)), 0, 12, 4)
	whole.Hand, whole.Start = reading.Right, reading.StartOf{Finger: "3", Key: "B4"}
	a.Trees = map[string][]reading.Chunk{"new": {whole}}
	sh := Make(a)
	off, days := 0, [][]Task{}
	for _, d := range sh.Days[1:] {
		if d.Off {
			off++
			assert.Empty(t, d.Tasks, "no practice on %s", d.Date)
			continue
		}
		var now []Task
		for _, task := range d.Tasks {
			if task.Band == "now" {
				now = append(now, task)
				require.NotNil(t, task.Start)
				assert.NotEmpty(t, task.Why.Code, "no task without a reason")
			}
		}
		days = append(days, now)
	}
	assert.Equal(t, 2, off)
	require.Len(t, days, 4)
	assert.Equal(t, "small-first", days[0][0].Why.Code)
	for _, d := range days[2:] {
		require.Len(t, d, 1)
		assert.Zero(t, d[0].From, "whole on the last two days")
	}
	assert.Equal(t, "parent", sh.Reader)
	assert.Equal(t, "seat-first", sh.Lines[0].Code, "the seat first")
	assert.Equal(t, "script-direction", sh.Lines[len(sh.Lines)-3].Code)
	assert.Equal(t, "praise-generous", sh.Lines[len(sh.Lines)-2].Code)
	assert.Equal(t, "stop-if-it-hurts", sh.Lines[len(sh.Lines)-1].Code)
}

// What comes back changes the next plan. Under half the days: shorter. Totals grow
// gently. Pain: nothing is played. Common practice, no source.
func TestWhatComesBack(t *testing.T) {
	before := from.Add(-7)
	week := func(age int, minutes int, days ...int) Sheet {
		s := only(rung("now", 8, 1, at(before), nil))
		s.Closed[before] = before.Time()
		for _, d := range days {
			s.Practice = append(s.Practice, ladder.Practice{Day: before.Add(d), Minutes: minutes})
		}
		return sheet(s, approach.Default(age), age, from, next)
	}
	codes := func(sh Sheet) (out []string) {
		for _, r := range sh.LeftOut {
			out = append(out, r.Code)
		}
		return
	}
	assert.Equal(t, 25, week(10, 25, 1, 2, 3, 4, 5).Budget, "as asked")
	thin := week(10, 25, 1, 3)
	assert.Equal(t, 18, thin.Budget)
	assert.Contains(t, codes(thin), "thin-week")
	assert.Equal(t, 25, week(10, 0).Budget, "nothing told is not a thin week")
	gently := week(14, 20, 1, 2, 3, 4, 5)
	assert.Equal(t, 25, gently.Budget, "a little over the twenty that were practised, not forty")
	assert.Contains(t, codes(gently), "grown-gently")

	s := only(rung("now", 8, 1, at(from), nil))
	s.Ache = &ladder.Ache{Side: "right"}
	for _, d := range sheet(s, approach.Default(12), 12, from, next).Days {
		for _, task := range d.Tasks {
			assert.True(t, task.Listen, "nothing is played")
		}
	}
	s.Ache, s.HomeDays = nil, ladder.HomeDays{Minutes: 12}
	assert.Equal(t, 12, sheet(s, approach.Default(12), 12, from, next).Budget, "the family's minutes")
}
