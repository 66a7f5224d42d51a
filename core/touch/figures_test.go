package touch

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/yardstick"
)

// A roll: p i m a over open strings, four to a beat.
func roll(rounds int) []Due {
	var out []Due
	for i := range rounds * 4 {
		out = append(out, Due{Onset: float64(i) / 4, Length: 0.25, Key: []int{40, 55, 59, 64}[i%4], Hand: "right", Finger: []string{"p", "i", "m", "a"}[i%4]})
	}
	return out
}

// A scale of two octaves up and down in the right hand, with its usual fingers, eighths.
func scale() []Due {
	up := []int{60, 62, 64, 65, 67, 69, 71, 72, 74, 76, 77, 79, 81, 83, 84}
	fingers := []string{"1", "2", "3", "1", "2", "3", "4", "1", "2", "3", "1", "2", "3", "4", "5"}
	var out []Due
	for i := range 29 {
		k := i
		if i > 14 {
			k = 28 - i
		}
		out = append(out, Due{Onset: float64(i) / 2, Length: 0.5, Key: up[k], Hand: "right", Finger: fingers[k]})
	}
	return out
}

func both() []Due {
	var out []Due
	for _, d := range scale() {
		l := d
		l.Key, l.Hand, l.Finger = d.Key-24, "left", []string{"", "5", "4", "3", "2", "1"}[d.Finger[0]-'0']
		out = append(out, d, l)
	}
	return out
}

func read(t *testing.T, asked []Due, played []Stroke) Measured {
	t.Helper()
	m, err := Read(asked, played, 0)
	require.NoError(t, err)
	return m
}

// said is the first that is said: its figure and finger, and its size.
func said(m Measured) (string, float64) {
	if len(m.Said) == 0 {
		return "even", 0
	}
	s := m.Said[0]
	out := s.Figure
	if s.Finger != "" {
		out += " " + s.Hand + " " + s.Finger
	}
	return out, s.Size
}

// The thresholds as published: 6 ms below 240 ms, 2.5 % beyond (Friberg & Sundberg 1995); both meet at 240.
func TestWhatListenersNotice(t *testing.T) {
	assert.InDelta(t, 0.06, Noticed(100), 1e-12)
	assert.InDelta(t, 0.03, Noticed(200), 1e-12)
	assert.InDelta(t, 6, Noticed(239.999)*239.999, 1e-9)
	assert.InDelta(t, 0.025, Noticed(240), 1e-12)
	assert.InDelta(t, 0.025, Noticed(1000), 1e-12)
}

func TestEachKnownFaultIsFoundAtItsSize(t *testing.T) {
	for _, c := range []struct {
		what   string
		asked  []Due
		set    Setting
		want   string
		size   float64
		within float64
	}{
		{"a roll that lopes", roll(8), Setting{Beat: 800, Lope: 1.3, Spread: 2}, "lope", 1.3, 0.05},
		{"a roll, the first of two short", roll(8), Setting{Beat: 800, Lope: 0.7, Spread: 2}, "lope", 0.7, 0.05},
		{"a scale that lopes", scale(), Setting{Beat: 500, Lope: 1.5, Spread: 2}, "lope", 1.5, 0.06},
		{"a roll that hurries", roll(12), Setting{Beat: 800, Drift: -15, Spread: 1}, "drift", -0.15, 0.02},
		{"a scale that drags", scale(), Setting{Beat: 500, Drift: 20, Spread: 1}, "drift", 0.20, 0.04},
		{"uneven by chance", roll(24), Setting{Beat: 800, Spread: 10}, "spread", 0.10, 0.03},
		{"the thumb too strong", roll(8), Setting{Beat: 800, Thumb: 20, Spread: 2}, "strong right p", 20, 3},
		{"the thumb of a scale too strong", scale(), Setting{Beat: 500, Thumb: 24, Spread: 2}, "strong right 1", 24, 3},
		{"a weak ring finger", roll(8), Setting{Beat: 800, Fourth: -18, Spread: 2}, "weak right a", 18, 3},
		{"a late ring finger", roll(12), Setting{Beat: 1000, Late: 40, Spread: 2}, "late right a", 40, 8},
		{"a late fourth finger in a scale", append(scale(), shifted(scale(), 15)...), Setting{Beat: 600, Late: 60, Spread: 1}, "late right 4", 60, 12},
		{"the left hand after the right", both(), Setting{Beat: 500, Apart: 45, Spread: 1}, "apart", 45, 5},
	} {
		var sizes []float64
		for seed := range uint64(9) {
			c.set.Seed = seed
			m := read(t, c.asked, Simulate(c.asked, c.set))
			got, size := said(m)
			assert.Equal(t, c.want, got, "%s: %+v", c.what, m.Said)
			sizes = append(sizes, size)
		}
		assert.InDelta(t, c.size, median(sizes), c.within, c.what)
	}
}

func shifted(asked []Due, by float64) []Due {
	out := slices.Clone(asked)
	for i := range out {
		out[i].Onset += by
	}
	return out
}

func TestNothingIsFoundInWhatIsEven(t *testing.T) {
	for name, asked := range map[string][]Due{"roll": roll(8), "scale": scale(), "both hands": both()} {
		m := read(t, asked, Simulate(asked, Setting{Beat: 600}))
		assert.Empty(t, m.Said, name)
		assert.InDelta(t, 0, m.Spread, 1e-9, name)
		assert.InDelta(t, 1, m.Lope, 1e-9, name)
		assert.InDelta(t, 600, m.Beat, 1e-6, name)
		wrongly := 0
		for seed := range uint64(200) { // as even as good players are: under what is noticed
			if m := read(t, asked, Simulate(asked, Setting{Beat: 600, Spread: 1.5, Seed: seed})); len(m.Said) > 0 {
				wrongly++
			}
		}
		assert.LessOrEqual(t, wrongly, 10, name) // one in twenty
	}
}

// Fingers are named by what they did, not by their names: given at random, none stands out.
func TestShuffledFingersAreNotNamed(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	asked := roll(12)
	named := 0
	const tries = 200
	for range tries {
		played := Simulate(asked, Setting{Beat: 800, Spread: 5, Thumb: 20, Late: 30, Seed: random.Uint64()})
		mixed := slices.Clone(asked)
		random.Shuffle(len(mixed), func(i, j int) { mixed[i].Finger, mixed[j].Finger = mixed[j].Finger, mixed[i].Finger })
		if slices.ContainsFunc(read(t, mixed, played).Said, func(s Saying) bool { return s.Finger != "" }) {
			named++
		}
	}
	assert.LessOrEqual(t, named, tries/20)
	t.Logf("a finger named in %d of %d", named, tries)
}

// Intervals in another order have the same spread and no lope and no drift.
func TestShuffledIntervalsDoNotLopeOrDrift(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 6))
	asked := roll(16)
	for i := range asked {
		asked[i].Finger = ""
	}
	found := 0
	const tries = 200
	for range tries {
		played := Simulate(asked, Setting{Beat: 800, Lope: 1.3, Drift: 10, Spread: 3, Seed: random.Uint64()})
		var waits []float64
		for i := 1; i < len(played); i++ {
			waits = append(waits, played[i].At-played[i-1].At)
		}
		random.Shuffle(len(waits), func(i, j int) { waits[i], waits[j] = waits[j], waits[i] })
		for i := 1; i < len(played); i++ {
			played[i].At = played[i-1].At + waits[i-1]
		}
		if slices.ContainsFunc(read(t, asked, played).Said, func(s Saying) bool { return s.Figure == Lope || s.Figure == Drift }) {
			found++
		}
	}
	assert.LessOrEqual(t, found, tries/20)
	t.Logf("found in %d of %d", found, tries)
}

// A spread of normally distributed intervals is their standard deviation: what a median absolute
// deviation is multiplied by is 1/Φ⁻¹(3/4) (Rousseeuw & Croux 1993).
// The median as it is defined: what stands in the middle in order, or half way between two.
func TestAMedianIsTheMiddleInOrder(t *testing.T) {
	random := rand.New(rand.NewPCG(9, 9))
	assert.Zero(t, median(nil))
	for n := 1; n < 60; n++ {
		list := make([]float64, n)
		for i := range list {
			list[i] = float64(random.IntN(20))
		}
		s := slices.Sorted(slices.Values(list))
		require.Equal(t, (s[(n-1)/2]+s[n/2])/2, median(list), "%v", list)
	}
}

func TestASpreadIsAStandardDeviation(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 8))
	list := make([]float64, 20000)
	for i := range list {
		list[i] = 3 + 2*random.NormFloat64()
	}
	assert.InDelta(t, 2, spread(list), 0.05)
	assert.InDelta(t, 1/(math.Sqrt2*math.Erfinv(0.5)), normal, 1e-4)
}

func TestSlipsComeBeforeEvennessWhereTheyAreMany(t *testing.T) {
	asked := roll(16)
	few := Simulate(asked, Setting{Beat: 800, Lope: 1.4})
	few = slices.Delete(few, 10, 11)
	got, _ := said(read(t, asked, few))
	assert.Equal(t, "lope", got, "one of 64 missing")
	m := read(t, asked, Simulate(asked, Setting{Beat: 800, Lope: 1.4, Slips: 25, Seed: 3}))
	assert.Equal(t, Slips, m.Said[0].Figure)
	other := read(t, asked, Simulate(scale(), Setting{Beat: 800}))
	require.Len(t, other.Said, 1, "something else was played")
	assert.Equal(t, Slips, other.Said[0].Figure)
}

// The numbers, said again so that it is noticed when one moves: both sides of each.
func TestFromWhenAFigureIsSaid(t *testing.T) {
	asked := roll(16)
	first := func(set Setting) string {
		got, _ := said(read(t, asked, Simulate(asked, set)))
		return got
	}
	assert.Equal(t, "even", first(Setting{Beat: 800, Thumb: 7}))
	assert.Equal(t, "strong right p", first(Setting{Beat: 800, Thumb: 8}))
	assert.Equal(t, "even", first(Setting{Beat: 800, Late: 5}), "200 ms apart: under 6 ms")
	assert.Equal(t, "late right a", first(Setting{Beat: 800, Late: 7}))
	hands := both()
	for apart, want := range map[float64]string{19: "even", 21: "apart"} {
		got, _ := said(read(t, hands, Simulate(hands, Setting{Beat: 600, Apart: apart})))
		assert.Equal(t, want, got, "%v ms", apart)
	}
	for missing, want := range map[int]string{3: "lope", 4: "slips"} { // of 64: under and over a twentieth
		played := Simulate(asked, Setting{Beat: 800, Lope: 1.4})
		for i := range missing {
			played = slices.Delete(played, 10*(i+1), 10*(i+1)+1)
		}
		got, _ := said(read(t, asked, played))
		assert.Equal(t, want, got, "%d missing", missing)
	}
}

func TestAStopIsAPlaceAndNoSpread(t *testing.T) {
	asked := roll(8)
	played := Simulate(asked, Setting{Beat: 800})
	for i := 17; i < len(played); i++ {
		played[i].At += 1500
	}
	m := read(t, asked, played)
	assert.Equal(t, 1, m.Stops)
	got, _ := said(m)
	assert.Equal(t, Stops, got)
	assert.InDelta(t, 0, m.Spread, 1e-9)
	assert.InDelta(t, 0, m.Drift, 0.001)
}

func TestACrossRhythmHasAnErrorAHand(t *testing.T) {
	var asked []Due
	for bar := range 4 {
		for i := range 3 {
			asked = append(asked, Due{Onset: float64(bar)*2 + float64(i)*2/3, Hand: "right"})
		}
		for i := range 2 {
			asked = append(asked, Due{Onset: float64(bar)*2 + float64(i), Hand: "left"})
		}
	}
	even := Simulate(asked, Setting{Beat: 700})
	for _, s := range even {
		require.NotEmpty(t, s.Hand)
	}
	m := read(t, asked, even)
	require.Len(t, m.Hands, 2)
	assert.Empty(t, m.Said)
	assert.InDelta(t, 0, m.Hands[0].Off, 1e-6)
	// the second of the left hand's two comes late by 90 ms, where the third of three lies: a limp
	for i := range even {
		if even[i].Hand == "left" && math.Mod(math.Round(even[i].At/700), 2) == 1 {
			even[i].At += 90
		}
	}
	m = read(t, asked, even)
	assert.Greater(t, m.Hands[0].Off, 30.0, "left")
	assert.Less(t, m.Hands[1].Off, 10.0, "right")
}

func BenchmarkTenThousandNotes(b *testing.B) {
	asked := roll(2500)
	played := Simulate(asked, Setting{Beat: 800, Spread: 3, Lope: 1.1, Slips: 0.05, Seed: 1})
	random := rand.New(rand.NewPCG(1, 1))
	list := make([]float64, len(asked))
	for i := range list {
		list[i] = random.Float64()
	}
	yardstick.Print("measure-10000-notes", 9, func() {
		if _, err := Read(asked, played, 0); err != nil {
			b.Fatal(err)
		}
	}, func() {
		for range 20 {
			s := slices.Clone(list)
			slices.Sort(s)
		}
	}, "sorting ten thousand numbers twenty times")
}
