package exercise

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/notation"
	"patientladder/core/pitch"
)

// A tune of five notes in its minor form has a lowered third and nothing else changed;
// the sixth goes with it, the seventh leads home still. Common practice, no source.
func TestAnOldTuneInItsMinorForm(t *testing.T) {
	file, err := os.ReadFile("../../demo/scores/folk-kookaburra.abc")
	require.NoError(t, err)
	s, err := notation.Read("row.abc", file)
	require.NoError(t, err)
	minor, ok := Minor(s, pitch.Key{Mode: "major"})
	require.True(t, ok)
	was, _ := tune(s, 1)
	is, _ := tune(minor, 1)
	assert.True(t, strings.HasPrefix(was, "G4 E4 E4 F4 D4 D4 C4 D4 E4 F4 G4"), was)
	assert.Equal(t, strings.ReplaceAll(was, "E4", "Eb4"), is)
	assert.Equal(t, -3, minor.Parts[0].Bars[0].Key.Fifths)
	again, _ := tune(s, 1)
	assert.Equal(t, was, again, "the tune itself stays")
	scale, ok := Minor(made(t, "scale D", "piano"), pitch.Key{Fifths: 2, Mode: "major"})
	require.True(t, ok)
	notes, _ := tune(scale, 1)
	assert.True(t, strings.HasPrefix(notes, "D4 E4 F4 G4 A4 Bb4 C#5 D5"), notes)
	for _, key := range []pitch.Key{{Mode: "minor"}, {Fifths: -5, Mode: "major"}} {
		_, ok := Minor(s, key)
		assert.False(t, ok, key.String())
	}
}
