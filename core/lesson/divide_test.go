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
