package climb

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// 1 to 10 weeks: common practice, no source.
func TestPriorIsTheCommonRange(t *testing.T) {
	r := Prior.Range(0)
	assert.InDelta(t, 1, r.Low, 0.05)
	assert.InDelta(t, 10, r.High, 0.5)
	assert.InDelta(t, math.Sqrt(10), r.Mid, 0.01)
}

// Gelman et al., Bayesian Data Analysis, 3rd ed., section 3.3: learning from
// all rungs at once or one after another gives the same posterior.
func TestLearningInSteps(t *testing.T) {
	weeks := []float64{2, 3, 1, 5, 4, 2.5}
	at := Prior.Learn(weeks)
	step := Prior
	for _, w := range weeks {
		step = step.Learn([]float64{w})
	}
	for _, pair := range [][2]float64{{at.Mu, step.Mu}, {at.Kappa, step.Kappa}, {at.Alpha, step.Alpha}, {at.Beta, step.Beta}} {
		assert.InDelta(t, pair[0], pair[1], 1e-12)
	}
	many := Prior.Learn(make1(400, 3))
	assert.InDelta(t, 3, many.Range(0).Mid, 0.05, "many rungs of three weeks")
	assert.Less(t, many.Range(0).High, 3.5)
}

func make1(n int, w float64) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = w
	}
	return out
}

// The 80 % range, tested on 1,000 simulated students drawn from the prior.
func TestCoverage(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 11))
	held, held2 := 0, 0
	for range 1000 {
		variance := Prior.Beta / gamma(rng, Prior.Alpha)
		mu := Prior.Mu + rng.NormFloat64()*math.Sqrt(variance/Prior.Kappa)
		draw := func() float64 { return math.Exp(mu + rng.NormFloat64()*math.Sqrt(variance)) }
		var past []float64
		for range 6 {
			past = append(past, draw())
		}
		pace := Prior.Learn(past)
		next, r := draw(), pace.Range(0)
		if r.Low <= next && next <= r.High {
			held++
		}
		// and of a rung that already took half its time
		spent := next / 2
		r = pace.Range(spent)
		if next <= r.High {
			held2++
		}
	}
	assert.True(t, held >= 760 && held <= 840, "%d of 1000", held)
	assert.GreaterOrEqual(t, held2, 760)
}

// gamma draws from a gamma distribution of whole shape and rate 1.
func gamma(rng *rand.Rand, shape float64) float64 {
	sum := 0.0
	for range int(shape) {
		sum += rng.ExpFloat64()
	}
	return sum
}

func TestTimeAlreadySpentMovesTheRange(t *testing.T) {
	fresh, late := Prior.Range(0), Prior.Range(8)
	assert.Greater(t, late.Low, 8.0, "never earlier than now")
	assert.Greater(t, late.High, fresh.High)
}

func TestForecastOnALane(t *testing.T) {
	cal := calendar.Calendar{
		Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}, {Name: "spring", From: "2027-01-11", To: "2027-03-26"}},
		Free:  []calendar.Span{{Name: "half term", From: "2026-10-26", To: "2026-10-30"}},
	}
	slot := calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
	day := func(s string) *time.Time { d := calendar.Date(s).Time(); return &d }
	s := ladder.Standing{Rungs: []ladder.Rung{
		{ID: "done", Strand: shelf.Book, Taught: day("2026-10-14"), Foothold: day("2026-11-11")},
		{ID: "now", Strand: shelf.Book, Taught: day("2026-11-11")},
		{ID: "next", Strand: shelf.Book},
		{ID: "far", Strand: shelf.Book},
		{ID: "parked", Strand: shelf.Book, Parked: true},
		{ID: "scale", Strand: shelf.Technique},
	}}
	assert.Equal(t, 3.0, Weeks(cal, slot, "2026-10-14", "2026-11-11"), "the free week does not count")
	got := Forecast(s, cal, slot, "2026-11-18")
	require.Len(t, got, 4)
	assert.Equal(t, 1.0, got[0].Spent)
	assert.Equal(t, got[0].In.Mid, got[1].FromIn, "the next begins when this one is likely done")
	assert.Less(t, got[1].In.Mid, got[2].In.Mid)
	assert.Zero(t, got[3].FromIn, "each lane by itself")
	for _, e := range got {
		assert.LessOrEqual(t, e.In.Low, e.In.Mid)
		assert.LessOrEqual(t, e.In.Mid, e.In.High)
		if e.Mid != "" {
			assert.Equal(t, time.Wednesday, e.Mid.Weekday())
			assert.True(t, cal.Teaching(e.Mid))
		}
	}
}

func TestPartsCountByThePart(t *testing.T) {
	cal := calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}, {Name: "spring", From: "2027-01-11", To: "2027-03-26"}}}
	slot := calendar.Slot{Weekday: time.Monday, Start: "16:00", Minutes: 30}
	first := calendar.Date("2026-09-14")
	scales := ladder.Rung{ID: "scales", Strand: shelf.Technique}
	begun := first.Time()
	scales.Taught = &begun
	for i := range 12 {
		p := ladder.Part{Name: string(rune('A' + i))}
		if i < 9 {
			at := first.Add(7 * (i + 1)).Time()
			p.Foothold = &at
		}
		scales.Parts = append(scales.Parts, p)
	}
	e := Forecast(ladder.Standing{Rungs: []ladder.Rung{scales}}, cal, slot, "2026-11-18")[0]
	assert.Equal(t, 9.0, e.Spent)
	assert.InDelta(t, 3.5, e.In.Mid, 0.5, "three parts left, one a week so far, the prior a little slower")
	assert.Less(t, e.In.High, 6.0)
	assert.False(t, e.Past, "nine weeks are as they should be")
	e = Forecast(ladder.Standing{Rungs: []ladder.Rung{scales}}, cal, slot, "2027-03-03")[0]
	assert.True(t, e.Past, "one part has been in hand for two months")
}
