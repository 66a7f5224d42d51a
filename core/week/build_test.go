package week

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
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

// Nothing before its parts, the whole on the last two of a week's turns, no turn
// with more than fits: over random pieces.
func TestBuildingUp(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 6))
	for range 2000 {
		whole := tree(rng, 0, 4+rng.IntN(90), 3+rng.IntN(6))
		turns, room, week, oneWeek := 1+rng.IntN(6), 1+rng.IntN(6), 1+rng.IntN(8), rng.IntN(2) == 0
		days := bits(whole, week, turns, room, oneWeek)
		require.Len(t, days, turns)
		seen := map[string]bool{}
		for d, day := range days {
			require.NotEmpty(t, day)
			require.LessOrEqual(t, len(day), room, "turn %d of %d", d, turns)
			for _, b := range day {
				for _, part := range b.chunk.Parts {
					if turns > 1 && (!b.whole || week == 1) { // one turn a week is the whole
						require.True(t, week > 1 || seen[part.FromID+part.ToID], "nothing before its parts")
					}
				}
				seen[b.chunk.FromID+b.chunk.ToID] = true
			}
		}
		last := days[turns-1]
		require.Len(t, last, 1)
		if turns >= 3 {
			require.Len(t, days[turns-2], 1)
			require.Equal(t, last[0].chunk.FromID+last[0].chunk.ToID, days[turns-2][0].chunk.FromID+days[turns-2][0].chunk.ToID, "whole by the last two days")
		}
		if oneWeek || len(nodes(whole)) <= max(building(turns), 1)*room && week == 1 {
			require.True(t, last[0].whole, "what fits a week is whole at its end")
		}
	}
}

func TestALongPieceComesInStretches(t *testing.T) {
	whole := tree(rand.New(rand.NewPCG(1, 1)), 0, 64, 4)
	var ends []string
	for week := 1; week <= 12; week++ {
		days := bits(whole, week, 6, 2, false)
		ends = append(ends, days[5][0].chunk.FromID+"-"+days[5][0].chunk.ToID)
	}
	assert.Equal(t, "n0", ends[0][:2], "begins at the beginning")
	assert.NotEqual(t, ends[0], ends[1], "another stretch each week")
	assert.Equal(t, "n0-n63", ends[11], "and whole in the end")
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
	assert.Equal(t, "script-direction", sh.Lines[len(sh.Lines)-2].Code)
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
