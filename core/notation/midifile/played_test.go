package midifile

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Times as Standard MIDI Files 1.0 has them: ticks of 1/480 of a quarter note, 500 ms where no tempo is
// set (Set Tempo), other lengths from each tempo on.
func TestAPerformanceKeepsItsTimesAndStrengths(t *testing.T) {
	for _, c := range []struct {
		name, events string
		want         []Played
	}{
		{"no tempo: 120 quarter notes a minute", "00 90 3c 40 83 60 80 3c 40 00 90 3e 21 81 70 3e 00 00 ff 2f 00", []Played{{0, 500, 60, 64}, {500, 250, 62, 33}}},
		{"a tick late is a tick late", "01 90 3c 40 83 60 80 3c 40 00 ff 2f 00", []Played{{500.0 / 480, 500, 60, 64}}},
		{"60 a minute from the beginning", "00 ff 51 03 0f 42 40 00 90 3c 40 83 60 80 3c 40 00 ff 2f 00", []Played{{0, 1000, 60, 64}}},
		{"slower from the second quarter", "00 90 3c 40 83 60 80 3c 40 00 ff 51 03 0f 42 40 00 90 3e 40 83 60 3e 00 00 ff 2f 00", []Played{{0, 500, 60, 64}, {500, 1000, 62, 64}}},
		{"a key that is never let go", "00 90 3c 7f 83 60 ff 2f 00", []Played{{0, 500, 60, 127}}},
	} {
		got, err := Performance(smf(t, c.events))
		require.NoError(t, err, c.name)
		require.Len(t, got, len(c.want), c.name)
		for i, w := range c.want {
			assert.InDelta(t, w.At, got[i].At, 1e-9, c.name)
			assert.InDelta(t, w.Length, got[i].Length, 1e-9, c.name)
			assert.Equal(t, [2]int{w.Key, w.Velocity}, [2]int{got[i].Key, got[i].Velocity}, c.name)
		}
	}
	_, err := Performance([]byte("RIFF"))
	assert.ErrorContains(t, err, "not a MIDI file")
}
