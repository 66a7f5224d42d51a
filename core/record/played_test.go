package record

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

func TestATakeIsFollowedByWhatWasNamedMostOften(t *testing.T) {
	day := func(n int) time.Time { return time.Date(2026, 11, n, 16, 0, 0, 0, time.UTC) }
	thumb := func(heft float64) []fact.Touch {
		return []fact.Touch{{Hand: "right", Finger: "p", Heft: heft}, {Hand: "right", Finger: "a", Heft: -2}}
	}
	s := ladder.Standing{Takes: []ladder.Take{
		{At: day(3), PlayedIn: fact.PlayedIn{Asked: "roll pima", Figure: "lope", Lope: 1.2, Size: 1.2, Fingers: thumb(21)}},
		{At: day(10), PlayedIn: fact.PlayedIn{Asked: "roll pima", Figure: "strong", Hand: "right", Finger: "p", Size: 15, Fingers: thumb(15)}},
		{At: day(11), PlayedIn: fact.PlayedIn{Asked: "scale C", Figure: "even", Spread: 0.02}},
		{At: day(12), PlayedIn: fact.PlayedIn{Asked: "tap 3:2 together", Figure: "even", Off: 31}},
		{At: day(17), PlayedIn: fact.PlayedIn{Asked: "roll pima", Figure: "strong", Hand: "right", Finger: "p", Size: 9, Fingers: thumb(9)}},
	}}
	got := Played(s)
	require.Len(t, got, 3)
	assert.Equal(t, "roll pima", got[0].Asked, "played last")
	assert.Equal(t, "heft", got[0].Figure)
	assert.Equal(t, reason.SaidOf("list.finger", "finger", "p"), got[0].Finger)
	var values []float64
	for _, at := range got[0].Takes {
		values = append(values, at.Value)
	}
	assert.Equal(t, []float64{21, 15, 9}, values, "of the thumb, also where something else was said first")
	assert.Equal(t, "take-lope", got[0].Takes[0].Why.Code)
	assert.Equal(t, "off", got[1].Figure, "a step that is tapped")
	assert.InDelta(t, 31, got[1].Takes[0].Value, 0)
	assert.Equal(t, "spread", got[2].Figure, "nothing was named")
	assert.True(t, got[2].Takes[0].Even)
	assert.Empty(t, Played(ladder.Standing{}))
}
