package lesson

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// every tries each way to give out the minutes and returns the least lack of
// upkeep, and the most that any way with it is worth.
func every(wants []want, minutes int, share float64) (lack, worth float64) {
	lack, worth = math.Inf(1), math.Inf(-1)
	most := 0
	for _, w := range wants {
		if w.band == "upkeep" {
			most += w.most
		}
	}
	var try func(i, left, kept, now int, sum float64)
	try = func(i, left, kept, now int, sum float64) {
		if i == len(wants) {
			if left > 0 {
				return
			}
			need := math.Min(math.Ceil(share*float64(kept+now)-1e-9), float64(most))
			l := math.Max(need-float64(kept), 0)
			if l < lack || l == lack && sum > worth {
				lack, worth = l, sum
			}
			return
		}
		w := wants[i]
		for n := 0; n <= min(left, w.most); n++ {
			v := w.worth(n)
			if math.IsInf(v, -1) {
				continue
			}
			k, m := kept, now
			switch w.band {
			case "upkeep":
				k += n
			case "now":
				m += n
			}
			try(i+1, left-n, k, m, sum+v)
		}
	}
	try(0, minutes, 0, 0, 0)
	return lack, worth
}

// The division against every other, on 500 small lessons.
func TestDivisionIsTheBest(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 5))
	tried := 0
	for tried < 500 {
		minutes := 5 + rng.IntN(14)
		var wants []want
		for range 2 + rng.IntN(4) {
			least := 1 + rng.IntN(3)
			best := least + rng.IntN(3)
			wants = append(wants, want{least: least, best: best, most: best + rng.IntN(4), weight: 0.3 + 2*rng.Float64(),
				band: []string{"upkeep", "now", "", "ahead"}[rng.IntN(4)], must: rng.IntN(3) == 0})
		}
		share := []float64{0, 0.13, 0.2, 0.3, 0.75}[rng.IntN(5)]
		lack, worth := every(wants, minutes, share)
		if math.IsInf(worth, -1) {
			continue // the mosts do not fill it: raised together, tested below
		}
		tried++
		given, over := divide(wants, minutes, share)
		require.False(t, over)
		sum, all, kept, now, most := 0.0, 0, 0, 0, 0
		for i, n := range given {
			sum, all = sum+wants[i].worth(n), all+n
			switch wants[i].band {
			case "upkeep":
				kept, most = kept+n, most+wants[i].most
			case "now":
				now += n
			}
		}
		require.Equal(t, minutes, all, "minutes add up")
		got := math.Max(math.Min(math.Ceil(share*float64(kept+now)-1e-9), float64(most))-float64(kept), 0)
		require.InDelta(t, lack, got, 1e-9, "%v in %d", wants, minutes)
		require.InDelta(t, worth, sum, 1e-9, "%v in %d", wants, minutes)
	}
}

func TestALessonTooLongOrTooShort(t *testing.T) {
	one := want{least: 1, best: 2, most: 3, weight: 0.8, must: true}
	given, over := divide([]want{one, {least: 2, best: 4, most: 8, weight: 1}}, 20, 0)
	assert.True(t, over, "nothing else fills it: said")
	assert.Equal(t, 20, given[0]+given[1])
	assert.LessOrEqual(t, given[0], 3, "what is brief stays so")
	given, _ = divide([]want{one, one, one}, 2, 0)
	assert.Equal(t, []int{1, 1, 0}, given, "shorter than its parts")
	pinned := want{least: 7, best: 7, most: 7, weight: 1, must: true, fixed: true}
	given, _ = divide([]want{one, pinned, {least: 2, best: 3, most: 5, weight: 1}}, 20, 0)
	assert.Equal(t, 7, given[1], "what the teacher set is kept, whatever fills the rest")
}

// What the teacher sets, in a lesson of 30 minutes with sitting down, a close and
// what to do at home, and a piece that may be left out.
func TestBlocksThatTheTeacherSets(t *testing.T) {
	must := want{least: 1, best: 2, most: 3, weight: 0.8, must: true}
	piece := want{least: 4, best: 9, most: 12, weight: 2.4, band: "now"}
	pin := func(n int) want {
		return want{least: n, best: n, most: n, weight: 2.4, band: "now", must: true, fixed: true}
	}
	for _, c := range []struct {
		name  string
		wants []want
		given []int
	}{
		{"one set: the rest answers", []want{must, must, must, pin(20), piece}, []int{2, 2, 1, 20, 5}},
		{"one set to all that is left: the piece falls out", []want{must, must, must, pin(27), piece}, []int{1, 1, 1, 27, 0}},
		{"a minute more than there is", []want{must, must, must, pin(28), piece}, []int{1, 1, 1, 27, 0}},
		{"two set to half the lesson each: in proportion", []want{must, must, must, pin(15), pin(15)}, []int{1, 1, 1, 13, 14}},
		{"two set to more than the lesson: a long and a short", []want{must, must, must, pin(40), pin(10)}, []int{1, 1, 1, 21, 6}},
		{"as long as the lesson, and one of a minute", []want{pin(30), pin(1), pin(1), must}, []int{27, 1, 1, 1}},
	} {
		given, over := divide(c.wants, 30, 0)
		assert.Equal(t, c.given, given, c.name)
		assert.False(t, over, c.name)
	}
	rng := rand.New(rand.NewPCG(7, 7))
	for range 2000 {
		wants, pins, others := []want{must}, 0, 1
		for range 1 + rng.IntN(8) {
			switch rng.IntN(3) {
			case 0:
				wants, others = append(wants, must), others+1
			case 1:
				n := 1 + rng.IntN(60)
				wants, pins = append(wants, pin(n)), pins+n
			default:
				wants = append(wants, piece)
			}
		}
		minutes := len(wants) + rng.IntN(60)
		given, _ := divide(wants, minutes, 0.3)
		sum := 0
		for i, n := range given {
			sum += n
			switch w := wants[i]; {
			case w.fixed && pins+others <= minutes && count(wants, set) < len(wants): // else nothing but what was set fills the lesson
				require.Equal(t, w.least, n, "what was set is kept: %v in %d", wants, minutes)
			case w.must:
				require.GreaterOrEqual(t, n, 1, "%v in %d", wants, minutes)
			}
		}
		require.Equal(t, minutes, sum, "%v", wants)
	}
}
