package touch

import (
	"maps"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"
)

// together measures how far the hands are apart where they meet, and each hand's distance from the
// line that both keep.
func (m *meter) together() {
	a := m.a
	var apart []float64
	off := map[string][]float64{}
	base := m.line()
	for i, mo := range a.moments {
		l, r := math.NaN(), math.NaN()
		for _, d := range mo.dues {
			if s := a.stroke[d]; s >= 0 {
				at := a.played[s].At
				switch {
				case a.asked[d].Hand == "left" && math.IsNaN(l):
					l = at
				case a.asked[d].Hand == "right" && math.IsNaN(r):
					r = at
				}
				off[a.asked[d].Hand] = append(off[a.asked[d].Hand], math.Abs(at-base[i]))
			}
		}
		if d := l - r; !math.IsNaN(d) {
			apart = append(apart, d)
		}
	}
	for _, h := range slices.Sorted(maps.Keys(off)) {
		m.Hands = append(m.Hands, HandPlayed{Hand: h, Notes: len(off[h]), Off: stat.Mean(off[h], nil)})
	}
	if len(apart) < fewest {
		return
	}
	m.Apart, m.Scatter = median(apart), spread(apart)
	if size := math.Abs(m.Apart); size > ordered && size > sure*errorOf(m.Scatter, len(apart)) {
		hand := "left"
		if m.Apart < 0 {
			hand = "right"
		}
		m.Said = append(m.Said, Saying{Figure: Apart, Hand: hand, Size: size, Times: size / ordered})
	}
	if n := len(apart); m.Scatter-sure*m.Scatter/math.Sqrt(2*float64(n)) > ordered {
		m.Said = append(m.Said, Saying{Figure: Scatter, Size: m.Scatter, Times: m.Scatter / ordered})
	}
}

// line is where each moment would stand on the steady line that a take keeps: its tempo, with the
// middle of the nearest moments as they were played. NaN for what was not played.
func (m *meter) line() []float64 {
	a := m.a
	steady := func(onset float64) float64 { // milliseconds, from any zero
		if math.Abs(m.slope) < 1e-9 {
			return m.Beat * onset
		}
		mid := (a.moments[len(a.moments)-1].onset + m.begin) / 2
		return m.Beat * math.Expm1(m.slope*(onset-mid)) / m.slope
	}
	out := make([]float64, len(a.moments))
	var at []int
	var off, list []float64
	for i := range a.moments {
		out[i] = math.NaN()
		list = list[:0]
		for _, d := range a.moments[i].dues {
			if s := a.stroke[d]; s >= 0 {
				list = append(list, a.played[s].At)
			}
		}
		if len(list) > 0 {
			at, off = append(at, i), append(off, median(list)-steady(a.moments[i].onset))
		}
	}
	for k, i := range at {
		lo, hi := max(0, k-window/2), min(len(at), k+window/2+1)
		out[i] = steady(a.moments[i].onset) + median(off[lo:hi])
	}
	return out
}
