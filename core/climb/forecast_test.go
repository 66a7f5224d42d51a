package climb

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// 1 to 10 weeks: common practice, no source.
func TestPriorIsTheCommonRange(t *testing.T) {
	r := Prior.Range()
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
	same := make([]float64, 400)
	for i := range same {
		same[i] = 3
	}
	many := Prior.Learn(same)
	assert.InDelta(t, 3, many.Range().Mid, 0.05, "many rungs of three weeks")
	assert.Less(t, many.Range().High, 3.5)
}

// The 80 % range of 1,000 simulated students drawn from the prior: of a rung
// not begun, of one that has taken some time, and of one that has points met.
func TestCoverage(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 11))
	var fresh, begun, pointed int
	inside := func(r Range, w float64) int {
		if r.Low <= w && w <= r.High {
			return 1
		}
		return 0
	}
	for range 1000 {
		variance := Prior.Beta / gamma(rng, Prior.Alpha)
		mu := Prior.Mu + rng.NormFloat64()*math.Sqrt(variance/Prior.Kappa)
		draw := func() float64 { return math.Exp(mu + rng.NormFloat64()*math.Sqrt(variance)) }
		var past []float64
		for range 6 {
			past = append(past, draw())
		}
		pace := Prior.Learn(past)
		fresh += inside(pace.Range(), draw())
		// looked at after two weeks, when it is not done yet
		spent := 2.0
		whole := draw()
		for whole <= spent {
			whole = draw()
		}
		begun += inside(pace.Given(spent, 0, 0), whole)
		const points = 4
		met := 0
		for range points {
			if rng.Float64()*whole < spent {
				met++
			}
		}
		pointed += inside(pace.Given(spent, met, points), whole)
	}
	for name, n := range map[string]int{"not begun": fresh, "two weeks in": begun, "with points met": pointed} {
		assert.True(t, n >= 760 && n <= 840, "%s: %d of 1000", name, n)
	}
	t.Logf("of 1000: %d not begun, %d two weeks in, %d with points met", fresh, begun, pointed)
}

// gamma draws from a gamma distribution of whole shape and rate 1.
func gamma(rng *rand.Rand, shape float64) float64 {
	sum := 0.0
	for range int(shape) {
		sum += rng.ExpFloat64()
	}
	return sum
}

func TestWhatHasHappenedMovesTheRange(t *testing.T) {
	fresh, late := Prior.Range(), Prior.Given(8, 0, 0)
	assert.Greater(t, late.Low, 8.0, "never earlier than now")
	assert.Greater(t, late.High, fresh.High)
	none, most := Prior.Given(2, 0, 4), Prior.Given(2, 4, 4)
	assert.Less(t, most.High, none.High, "points met bring the foothold nearer")
	assert.Less(t, most.Mid, none.Mid/1.4)
	// without points it is the plain conditional: checked against the quantiles of the t cut off below
	cut := Prior.weeks()
	below := cut.CDF(math.Log(3))
	plain := Prior.Given(3, 0, 0)
	for q, got := range map[float64]float64{0.1: plain.Low, 0.5: plain.Mid, 0.9: plain.High} {
		assert.InEpsilon(t, math.Exp(cut.Quantile(below+q*(1-below))), got, 0.02)
	}
}

var (
	terms = calendar.Calendar{
		Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}, {Name: "spring", From: "2027-01-11", To: "2027-03-26"}},
		Free:  []calendar.Span{{Name: "half term", From: "2026-10-26", To: "2026-10-30"}},
	}
	wednesdays = calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
)

func day(s string) *time.Time { d := calendar.Date(s).Time(); return &d }

// someone is a student of piano on Wednesdays, reckoned on a day.
func someone(today string, s ladder.Standing, items ...shelf.Item) Student {
	return Student{Standing: s, Graph: skill.Catalogue(), Shelf: shelf.Offered(items, instrument.Shipped, instrument.Shipped.Of("piano")), Approach: approach.Default(9), Plays: instrument.Shipped.Of("piano"),
		Calendar: terms, Slot: wednesdays, Now: calendar.Date(today).Time().Add(15 * time.Hour)}
}

func TestForecastOnALane(t *testing.T) {
	s := ladder.Standing{Rungs: []ladder.Rung{
		{ID: "done", Strand: shelf.Book, Taught: day("2026-10-14"), Foothold: day("2026-11-11")},
		{ID: "now", Strand: shelf.Book, Taught: day("2026-11-11")},
		{ID: "next", Strand: shelf.Book},
		{ID: "climb", Strand: shelf.Book, Item: shelf.Item{Brings: []string{"hands-together", "dotted", "six-levels"}}},
		{ID: "parked", Strand: shelf.Book, Parked: true},
		{ID: "scale", Strand: shelf.Technique},
	}}
	p := Reckon(someone("2026-11-18", s))
	assert.Equal(t, 3.0, p.Lessons.Weeks("2026-10-14", "2026-11-11"), "the free week does not count")
	got := p.Expected
	require.Len(t, got, 4)
	assert.Equal(t, 1.0, got[0].Spent)
	assert.Equal(t, got[0].In.Mid, got[1].FromIn, "the next begins when this one is likely done")
	assert.Greater(t, got[2].Whole.Mid, 1.5*got[1].Whole.Mid, "a climb takes longer")
	assert.Equal(t, Climb, p.Loads["climb"].Slope)
	assert.Zero(t, got[3].FromIn, "each lane by itself")
	for _, e := range got {
		assert.LessOrEqual(t, e.In.Low, e.In.Mid)
		assert.LessOrEqual(t, e.In.Mid, e.In.High)
		if e.Mid != "" {
			assert.Equal(t, time.Wednesday, e.Mid.Weekday())
			assert.True(t, terms.Teaching(e.Mid))
		}
	}
}

func TestPartsCountByThePart(t *testing.T) {
	first := calendar.Date("2026-09-09")
	begun := first.Time()
	scales := ladder.Rung{ID: "scales", Strand: shelf.Technique, Taught: &begun}
	for i := range 12 {
		p := ladder.Part{Name: string(rune('A' + i))}
		if i < 9 {
			at := first.Add(7 * (i + 1)).Time()
			p.Foothold = &at
		}
		scales.Parts = append(scales.Parts, p)
	}
	at := func(today string) Expected {
		return Reckon(someone(today, ladder.Standing{Rungs: []ladder.Rung{scales}})).Expected[0]
	}
	e := at("2026-11-18")
	assert.Equal(t, 9.0, e.Spent)
	assert.InDelta(t, 3.5, e.In.Mid, 0.6, "three parts left, one a week so far, the prior a little slower")
	assert.Less(t, e.In.High, 6.0)
	assert.False(t, e.Past, "nine weeks are as they should be")
	assert.True(t, at("2027-03-03").Past, "one part has been in hand for two months")
}
