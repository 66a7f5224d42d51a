package climb

import (
	"fmt"
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

// went is a standing in which pieces took so many lesson weeks, one after another, from 9
// September on.
func went(weeks ...int) ladder.Standing {
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: closedOn(weeks)}}
	at := calendar.Date("2026-09-09")
	for i, w := range weeks {
		taught := at.Time()
		at = at.Add(7 * w)
		foothold := at.Time()
		s.Rungs = append(s.Rungs, ladder.Rung{ID: fmt.Sprint("r", i), Item: shelf.Item{Title: fmt.Sprint("Piece ", i), Strand: shelf.Book}, Strand: shelf.Book, Taught: &taught, Foothold: &foothold})
	}
	return s
}

func TestWhatWasForetold(t *testing.T) {
	without := func(s ladder.Standing) []Foretold {
		st := someone("2028-06-21", s)
		st.Calendar = calendar.Calendar{Terms: []calendar.Span{{Name: "all", From: "2026-09-07", To: "2028-07-09"}}}
		return Foretell(st)
	}
	assert.Empty(t, without(ladder.Standing{}))
	assert.Empty(t, without(ladder.Standing{Rungs: []ladder.Rung{{ID: "hand", Taught: day("2026-09-09")}}}), "nothing is finished")

	got := without(went(3, 3, 3, 9))
	require.Len(t, got, 4)
	assert.Equal(t, "Piece 3", got[0].Title, "the last first")
	assert.Equal(t, 3.0, got[3].Weeks)
	fresh := Prior.Range()
	assert.InDelta(t, fresh.Low*Effort(0, 2.2), got[3].Usual.Low, 1e-9, "the first from nothing but the common range")
	assert.Less(t, got[0].Usual.High-got[0].Usual.Low, got[3].Usual.High-got[3].Usual.Low, "own pieces narrow it")
	assert.Equal(t, 1.0, got[1].In)
	assert.Zero(t, got[0].In, "nine weeks after three of three")
	assert.Equal(t, 3, Kept(got))

	// what came later does not change what was told
	assert.Equal(t, got[1].Usual, without(went(3, 3, 3))[0].Usual)
}

// Weeks drawn from the belief itself and told to whole lessons: eight in ten hold.
func TestForetoldWeeksHoldEightInTen(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 5))
	sum, n := 0.0, 0
	for range 300 {
		variance := Prior.Beta / gamma(rng, Prior.Alpha)
		mu := Prior.Mu + rng.NormFloat64()*math.Sqrt(variance/Prior.Kappa)
		var weeks []int
		total := 0
		for range 8 {
			w := int(math.Round(math.Exp(mu + rng.NormFloat64()*math.Sqrt(variance))))
			if w = max(w, 1); total+w > 80 {
				break
			}
			weeks, total = append(weeks, w), total+w
		}
		if len(weeks) < 8 || mu < math.Log(1.5) {
			continue // too slow for the calendar, or weeks that a whole number says too little of
		}
		st := someone("2028-06-21", went(weeks...))
		st.Calendar = calendar.Calendar{Terms: []calendar.Span{{Name: "all", From: "2026-09-07", To: "2028-07-09"}}}
		for _, f := range Foretell(st)[:5] { // of students chosen by their pace, what was learnt from their own rungs
			sum += f.In
			n++
		}
	}
	require.Greater(t, n, 300)
	assert.InDelta(t, 0.8, sum/float64(n), 0.06)
}

func TestAStudiosOwnStudentsSayWhatIsUsual(t *testing.T) {
	assert.Equal(t, Prior, Prior.Among(nil))
	six := math.Log(6)
	few, many := Prior.Among([]float64{six}), Prior.Among([]float64{six, six, six, six, six, six, six, six, six, six, six, six})
	assert.InDelta(t, (4*Prior.Mu+six)/5, few.Mu, 1e-12)
	assert.InDelta(t, (4*Prior.Mu+12*six)/16, many.Mu, 1e-12)
	assert.Equal(t, Prior.Kappa, many.Kappa, "a student's own rungs count as before")

	_, ok := Middle(went(2, 2))
	assert.False(t, ok, "two pieces say too little")
	mean, ok := Middle(went(2, 8, 4))
	assert.True(t, ok)
	assert.InDelta(t, math.Log(4), mean, 1e-12, "their geometric mean")

	alone := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{{ID: "next", Strand: shelf.Book}}})
	slow := alone
	slow.Among = []float64{six, six, six}
	assert.Greater(t, Reckon(slow).Expected[0].Whole.Mid, Reckon(alone).Expected[0].Whole.Mid)
}

// closedOn gives the lessons, a week apart, that so many weeks take.
func closedOn(weeks []int) map[calendar.Date]time.Time {
	out := map[calendar.Date]time.Time{}
	all := 1
	for _, w := range weeks {
		all += w
	}
	for i := range all {
		d := calendar.Date("2026-09-09").Add(7 * i)
		out[d] = d.Time()
	}
	return out
}
