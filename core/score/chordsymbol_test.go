package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Kinds: MusicXML 4.0, "kind-value"; the ways of writing them: ABC 2.1, section
// 4.18, and common practice, no source.
func TestChordSymbolsAsWritten(t *testing.T) {
	for _, c := range []struct{ written, root, kind, bass, ours string }{
		{"G", "G", "major", "", "G"}, {"Gmaj", "G", "major", "", "G"}, {"Am", "A", "minor", "", "Am"}, {"Amin", "A", "minor", "", "Am"},
		{"D7", "D", "dominant", "", "D7"}, {"Bbmaj7", "Bb", "major-seventh", "", "Bbmaj7"}, {"F#m7", "F#", "minor-seventh", "", "F#m7"},
		{"C/g", "C", "major", "G", "C/G"}, {"D7/F♯", "D", "dominant", "F#", "D7/F#"}, {"B♭dim", "Bb", "diminished", "", "Bbdim"},
		{"C+", "C", "augmented", "", "Caug"}, {"Bm7b5", "B", "half-diminished", "", "Bm7b5"}, {"Asus", "A", "suspended-fourth", "", "Asus4"}, {"E5", "E", "power", "", "E5"},
	} {
		got, err := ParseChordSymbol(c.written)
		require.NoError(t, err, c.written)
		assert.Equal(t, []string{c.root, c.kind, c.bass}, []string{got.Root, got.Kind, got.Bass}, c.written)
		made, err := NewChordSymbol(c.root, c.kind, c.bass)
		require.NoError(t, err, c.written)
		assert.Equal(t, made, got, c.written)
		assert.Equal(t, c.ours, got.String())
	}
	for _, other := range []string{"", "Gently", "H", "am", "Am/", "Fine", "D.C.", "Cmajor", "C7#11"} {
		_, err := ParseChordSymbol(other)
		assert.ErrorContains(t, err, "is not a chord symbol", other)
	}
	_, err := NewChordSymbol("G", "Neapolitan", "")
	assert.ErrorContains(t, err, "Neapolitan")
	_, err = NewChordSymbol("H", "major", "")
	assert.ErrorContains(t, err, "H")
	_, err = NewChordSymbol("G", "major", "b")
	assert.ErrorContains(t, err, "over \"b\"")
}

func TestEachKindIsWrittenInItsOwnWay(t *testing.T) {
	seen := map[string]string{}
	for _, k := range chordKinds {
		for _, w := range k.written {
			assert.Empty(t, seen[w], "%q stands for %s and %s", w, seen[w], k.kind)
			seen[w] = k.kind
		}
	}
}
