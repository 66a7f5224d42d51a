package reading

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation/abc"
)

// What supports a tempo word, in a title or in what is sung. Common practice, no source.
func TestWhatSaysHowItGoes(t *testing.T) {
	for _, c := range []struct {
		head string
		want Tempo
	}{
		{"T:The Cooper's Jig\nQ:\"Lively\" 1/4=120\n", Tempo{"Lively", "jig", "title"}},
		{"T:Lullaby\nQ:\"Gently\" 1/4=66\n", Tempo{"Gently", "lullaby", "title"}},
		{"T:Lullaby\nQ:1/4=84\n", Tempo{"", "lullaby", "title"}}, // slow by its figure
		{"T:Lullaby\nQ:1/4=85\n", Tempo{}},                       // a walk
		{"T:Walk to the Pier\nQ:1/4=107\n", Tempo{"", "walk", "title"}},
		{"T:Race to the Pier\nQ:1/4=107\n", Tempo{}},
		{"T:Race to the Pier\nQ:1/4=108\n", Tempo{"", "race", "title"}},
		{"T:Lullaby\nQ:\"Briskly\" 1/4=60\n", Tempo{"Briskly", "", ""}}, // what is written out against the figure
		{"T:Two Colours\nQ:\"Thumb between\" 1/4=92\n", Tempo{"Thumb between", "", ""}},
		{"T:Lamp Room\nQ:\"Calmly\" 1/4=70\n", Tempo{"Calmly", "sleep", "words"}},
		{"T:Lamp Room\n", Tempo{}},
	} {
		s, err := abc.Read([]byte("X:1\n" + c.head + "M:4/4\nL:1/4\nK:C\nCDEF|]\nw: now we sle-ep\n"))
		require.NoError(t, err)
		assert.Equal(t, c.want, Read(s, instrument.Shipped.Of("piano")).Tempo(), c.head)
	}
}

func TestHowAPieceGoes(t *testing.T) {
	for _, c := range []struct {
		title string
		qpm   float64
		want  string
	}{{"The Cooper's Jig", 0, "lively"}, {"Quiet Engine", 140, "calm"}, {"Rope Walk", 0, "walking"}, {"Bollard", 0, ""}, {"Bollard", 140, "lively"}, {"Bollard", 50, "calm"}} {
		assert.Equal(t, c.want, Goes(c.title, c.qpm), "%s at %v", c.title, c.qpm)
	}
}
