package memory

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The npm library ts-fsrs gives the same numbers on 1,000 random histories.
func TestMemoryAgainstAnotherLibrary(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 21))
	var histories [][][2]int
	for range 1000 {
		var h [][2]int
		for range 1 + rng.IntN(25) {
			gap := rng.IntN(60)
			if rng.IntN(8) == 0 {
				gap = 0
			}
			h = append(h, [2]int{gap, 1 + rng.IntN(4)})
		}
		histories = append(histories, h)
	}
	in, err := json.Marshal(histories)
	require.NoError(t, err)
	cmd := exec.Command("node", "../../web/checks/fsrs.mjs")
	cmd.Stdin = bytes.NewReader(in)
	out, err := cmd.Output()
	require.NoError(t, err, "the check needs the packages of web/: run npm ci there")
	var want [][][3]float64
	require.NoError(t, json.Unmarshal(out, &want))
	require.Len(t, want, len(histories))
	for i, h := range histories {
		m := Memory{}
		for j, review := range h {
			m = m.Heard(float64(review[0]), Grade(review[1]))
			require.InEpsilon(t, want[i][j][0], m.Stability, 1e-6, "stability, history %d hearing %d", i, j)
			require.InEpsilon(t, want[i][j][1], m.Difficulty, 1e-6, "difficulty, history %d hearing %d", i, j)
			require.InDelta(t, want[i][j][2], m.Recall(10), 1e-6, "recall, history %d hearing %d", i, j)
		}
	}
}

func TestWhatATeacherExpects(t *testing.T) {
	m := Memory{}.Heard(0, Fine)
	assert.InDelta(t, 0.9, m.Recall(m.Stability), 1e-9, "stability is the time to nine in ten")
	assert.Equal(t, 1.0, m.Recall(0))
	assert.Zero(t, Memory{}.Recall(3), "never heard")
	later := m.Heard(7, Fine)
	assert.Greater(t, later.Stability, m.Stability, "heard in time, it lasts longer")
	assert.Less(t, m.Heard(7, FellApart).Stability, m.Stability, "fallen apart, it lasts less")
	assert.Greater(t, m.Heard(7, Easily).Stability, m.Heard(7, Rough).Stability)
	assert.Less(t, m.Heard(7, Easily).Difficulty, m.Heard(7, Rough).Difficulty)
}
