package touch

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAStepHoldsWhenEveryStrokeIsOnItsLine(t *testing.T) {
	for _, pair := range [][2]int{{3, 2}, {2, 3}, {4, 3}, {3, 5}} {
		for _, s := range Steps(pair[0], pair[1]) {
			found, ok := StepOf(s.Key)
			require.True(t, ok, s.Key)
			assert.Equal(t, s, found)
			for _, c := range []struct {
				what string
				set  Setting
				want bool
			}{
				{"exactly", Setting{Beat: 1600}, true},
				{"as steadily as people tap", Setting{Beat: 1600, Spread: 3, Seed: 2}, true},
				{"quicker than the count", Setting{Beat: 1300, Spread: 2, Seed: 2}, true},
			} {
				m, err := Read(s.Dues(), Simulate(s.Dues(), c.set), s.Pulse)
				require.NoError(t, err)
				assert.Equal(t, c.want, s.Held(m), "%s %s: %+v", s.Key, c.what, m.Hands)
			}
			short := Simulate(s.Dues(), Setting{Beat: 1600})
			m, err := Read(s.Dues(), short[:len(short)-1], s.Pulse)
			require.NoError(t, err)
			assert.False(t, s.Held(m), "%s with a stroke missing", s.Key)
		}
	}
	for _, none := range []string{"", "tap 3:2", "tap 6:2 pulse", "tap 3:2 waltz", "scale C"} {
		_, ok := StepOf(none)
		assert.False(t, ok, none)
	}
}

// The usual failure: the two fall to the three's beat, long and short, instead of between.
func TestACrossRhythmThatLimpsDoesNotHold(t *testing.T) {
	s, _ := StepOf("tap 3:2 together")
	dues := s.Dues()
	limp := s.Dues()
	for i := range limp {
		if limp[i].Hand == "left" && limp[i].Onset != float64(int(limp[i].Onset)) {
			limp[i].Onset = float64(int(limp[i].Onset)) + 2.0/3
		}
	}
	m, err := Read(dues, Simulate(limp, Setting{Beat: 1600}), s.Pulse)
	require.NoError(t, err)
	assert.False(t, s.Held(m), "%+v", m.Hands)
	assert.Greater(t, m.Worst(), 60.0)
}

// Each hand holds up to 12 parts in 100 of its own interval off the line.
func TestHowFarOffAStepHolds(t *testing.T) {
	s, _ := StepOf("tap 3:2 together") // a pulse of 1.2 s: the right hand each 400 ms, the left each 600
	for _, c := range []struct {
		right, left float64
		want        bool
	}{{47, 71, true}, {49, 0, false}, {0, 73, false}} {
		m := Measured{Figures: Figures{Beat: 1200, Hands: []HandPlayed{{Hand: "left", Off: c.left}, {Hand: "right", Off: c.right}}}}
		assert.Equal(t, c.want, s.Held(m), "%+v", c)
	}
}
