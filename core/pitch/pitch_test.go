package pitch

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPitchesAsWritten(t *testing.T) {
	for _, c := range []struct {
		name, text string
		midi, line int
	}{
		{"middle C", "C4", 60, 28},
		{"the tuning A, ISO 16", "A4", 69, 33},
		{"F sharp above middle C", "F#4", 66, 31},
		{"the same key spelt G flat", "Gb4", 66, 32},
		{"B sharp belongs to its own octave", "B#3", 60, 27},
		{"C flat too", "Cb4", 59, 28},
		{"double sharp", "F##4", 67, 31},
		{"lowest string of a cello", "C2", 36, 14},
		{"lowest A of a piano", "A0", 21, 5},
	} {
		t.Run(c.name, func(t *testing.T) {
			p, err := Parse(c.text)
			require.NoError(t, err)
			assert.Equal(t, c.text, p.String())
			assert.Equal(t, c.midi, p.MIDI())
			assert.Equal(t, c.line, p.Line())
		})
	}
}

func TestNotAPitch(t *testing.T) {
	for _, s := range []string{"", "H4", "F", "F###4", "Abbb3", "c4", "C99", "#4"} {
		_, err := Parse(s)
		assert.Error(t, err, s)
	}
	assert.Equal(t, "", Pitch{}.String())
	assert.False(t, Pitch{}.Valid())
}

// Key signatures and their order: common practice, no source.
func TestKeySignatures(t *testing.T) {
	for _, c := range []struct {
		tonic, mode string
		fifths      int
		altered     string // letters the signature alters
	}{
		{"C", "major", 0, ""},
		{"G", "major", 1, "F"},
		{"D", "major", 2, "FC"},
		{"F", "major", -1, "B"},
		{"Eb", "major", -3, "BEA"},
		{"C#", "major", 7, "FCGDAEB"},
		{"Cb", "major", -7, "BEADGCF"},
		{"A", "minor", 0, ""},
		{"F#", "minor", 3, "FCG"},
		{"D", "dorian", 0, ""},
		{"A", "mixolydian", 2, "FC"},
		{"F", "lydian", 0, ""},
	} {
		t.Run(c.tonic+" "+c.mode, func(t *testing.T) {
			k, err := KeyOf(c.tonic, c.mode)
			require.NoError(t, err)
			assert.Equal(t, c.fifths, k.Fifths)
			assert.Equal(t, c.tonic+" "+c.mode, k.String())
			want := 1
			if c.fifths < 0 {
				want = -1
			}
			for _, l := range []byte("ABCDEFG") {
				expect := 0
				for i := range c.altered {
					if c.altered[i] == l {
						expect = want
					}
				}
				assert.Equal(t, expect, k.Alter(l), "%c", l)
			}
		})
	}
	for _, bad := range [][2]string{{"G#", "major"}, {"H", "major"}, {"C", "hexatonic"}, {"", "minor"}, {"C##", "major"}} {
		_, err := KeyOf(bad[0], bad[1])
		assert.Error(t, err, bad)
	}
}
