package touch

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// cheapest goes over every alignment there is.
func cheapest(a alignment) float64 {
	type match struct{ m, from, to int }
	best := math.Inf(1)
	var go_ func(m, s int, had []match, cost float64)
	go_ = func(m, s int, had []match, cost float64) {
		if m == len(a.moments) {
			if c := cost + float64(len(a.played)-s); c < best {
				best = c
			}
			return
		}
		go_(m+1, s, had, cost+float64(len(a.moments[m].dues))) // it was not played
		for from := s; from < len(a.played); from++ {
			for to := from + 1; to <= len(a.played) && to-from <= a.moments[m].most(); to++ {
				c := cost + float64(from-s) + float64(pair(a.asked, a.moments[m], a.played, from, to, nil))
				if n := len(had); n > 0 {
					was := had[n-1]
					if m-was.m <= reach+1 && from-was.to <= reach {
						c += float64(stretch(a.moments[m].onset-a.moments[was.m].onset, a.played[from].At-a.played[was.from].At, a.beat))
					} else {
						c += lost
					}
				}
				go_(m+1, to, append(had[:len(had):len(had)], match{m, from, to}), c)
			}
		}
	}
	go_(0, 0, nil, 0)
	return best
}

// cost reckons what an alignment that was found costs.
func cost(a alignment) float64 {
	sum, used := 0.0, 0
	last := -1
	for i, m := range a.moments {
		for _, d := range m.dues {
			switch {
			case a.stroke[d] < 0:
				sum++
			default:
				used++
				if !a.right[d] {
					sum++
				}
			}
		}
		t, played := a.time(i)
		if !played {
			continue
		}
		if last >= 0 {
			before, _ := a.time(last)
			between := 0
			for _, s := range a.played {
				if s.At > before && s.At < t {
					between++
				}
			}
			if i-last <= reach+1 && between <= reach+len(a.moments[last].dues) {
				sum += float64(stretch(m.onset-a.moments[last].onset, t-before, a.beat))
			} else {
				sum += lost
			}
		}
		last = i
	}
	return sum + float64(len(a.played)-used)
}

func TestAnAlignmentIsTheCheapestOfAllOnShortTakes(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for k := range 400 {
		var asked []Due
		for i := range 1 + random.IntN(5) {
			d := Due{Onset: float64(i), Key: 60 + random.IntN(3)}
			asked = append(asked, d)
			if k%3 == 0 && random.IntN(2) == 0 { // two at once
				d.Key += 3
				asked = append(asked, d)
			}
		}
		var played []Stroke
		at := 0.0
		for range random.IntN(7) {
			at += 50 + 900*random.Float64()
			played = append(played, Stroke{At: at, Key: 60 + random.IntN(6)})
		}
		a := alignment{asked: asked, played: played, moments: moments(asked)}
		beat := []float64{0, 500}[k%2]
		got := a.at(beat)
		require.InDelta(t, cheapest(alignment{asked: asked, played: played, moments: a.moments, beat: beat}), got.cost, 1e-4, "%v %v %v", asked, played, beat)
		if k%3 > 0 {
			require.InDelta(t, cost(got), got.cost, 1e-4, "what was found is what was counted: %v %v", asked, played)
		}
	}
}

// A line of keys, an eighth each.
func line(keys ...int) []Due {
	var out []Due
	for i, k := range keys {
		out = append(out, Due{ID: fmt.Sprint(i), Onset: float64(i) / 2, Length: 0.5, Key: k})
	}
	return out
}

func at(ms ...float64) []Stroke {
	var out []Stroke
	for _, m := range ms {
		out = append(out, Stroke{At: m})
	}
	return out
}

func keyed(step float64, keys ...int) []Stroke {
	var out []Stroke
	for i, k := range keys {
		out = append(out, Stroke{At: float64(i) * step, Key: k})
	}
	return out
}

func TestWrongMissingAndFurtherNotesAreToldApart(t *testing.T) {
	scale := line(60, 62, 64, 65, 67)
	taps := []Due{{Onset: 0}, {Onset: 1}, {Onset: 2}, {Onset: 3}}
	for _, c := range []struct {
		what   string
		asked  []Due
		played []Stroke
		want   string // a letter a note: r right, w wrong, m missing
		extra  int
	}{
		{"as asked", scale, keyed(200, 60, 62, 64, 65, 67), "rrrrr", 0},
		{"a key beside the right one", scale, keyed(200, 60, 62, 63, 65, 67), "rrwrr", 0},
		{"one was left out, its time with it", scale, keyed(200, 60, 62, 65, 67), "rrmrr", 0},
		{"one was struck twice", scale, keyed(200, 60, 62, 62, 64, 65, 67), "rrrrr", 1},
		{"an octave higher throughout", scale, keyed(200, 72, 74, 76, 77, 79), "rrrrr", 0},
		{"one an octave higher", scale, keyed(200, 60, 62, 76, 65, 67), "rrwrr", 0},
		{"nothing", scale, nil, "mmmmm", 0},
		{"all at once", taps, at(5, 5, 5, 5), "rrrr", 0},
		{"four taps", taps, at(0, 500, 1000, 1500), "rrrr", 0},
		{"the third tap left out", taps, at(0, 500, 1500), "rrmr", 0},
		{"a tap too many between the second and the third", taps, at(0, 500, 700, 1000, 1500), "rrrr", 1},
	} {
		m, err := Read(c.asked, c.played, 500)
		require.NoError(t, err)
		got := ""
		for _, n := range m.Notes {
			got += n.Went[:1]
		}
		assert.Equal(t, c.want, got, c.what)
		assert.Equal(t, c.extra, m.Extra, c.what)
		_, err = json.Marshal(m)
		assert.NoError(t, err, c.what+": every figure is a number")
	}
}

func TestNotesOfAChordComeInAnyOrder(t *testing.T) {
	chord := []Due{{Onset: 0, Key: 60}, {Onset: 0, Key: 64}, {Onset: 0, Key: 67}, {Onset: 1, Key: 62}}
	m, err := Read(chord, []Stroke{{At: 0, Key: 67}, {At: 8, Key: 60}, {At: 11, Key: 64}, {At: 500, Key: 62}}, 0)
	require.NoError(t, err)
	assert.Equal(t, 4, m.Right)
	assert.Zero(t, m.Extra)
}

func TestAnExercisePlayedOverIsTakenAsOften(t *testing.T) {
	m, err := Read(line(60, 62, 64, 65), keyed(200, 60, 62, 64, 65, 60, 62, 64, 65, 60, 62, 64, 65), 0)
	require.NoError(t, err)
	assert.Equal(t, 12, m.Asked)
	assert.Equal(t, 12, m.Right)
}

func TestATakeHasBounds(t *testing.T) {
	for _, bad := range []Stroke{{At: -1}, {At: math.NaN()}, {At: 1e9}, {Key: 128}, {Strength: -1}} {
		_, err := Read(line(60), []Stroke{bad}, 0)
		assert.Error(t, err, "%v", bad)
	}
	_, err := Read(line(60), make([]Stroke, MostStrokes+1), 0)
	assert.ErrorContains(t, err, "longest")
	_, err = Read(nil, nil, 0)
	assert.ErrorContains(t, err, "nothing was asked")
}
