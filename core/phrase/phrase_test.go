package phrase

import (
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func TestTheFirstLetter(t *testing.T) {
	for _, c := range []struct{ name, within, begins string }{
		{"Écoute la basse", "écoute la basse", "Écoute la basse"},
		{"élan", "élan", "Élan"},
		{"Évenness", "évenness", "Évenness"},
		{"Øre", "øre", "Øre"},
		{"Tone", "tone", "Tone"},
		{"C sharp clean", "C sharp clean", "C sharp clean"},
		{"G string in tune", "G string in tune", "G string in tune"},
		{"I lead", "I lead", "I lead"},
		{"FAST", "FAST", "FAST"},
		{"L’écoute", "l’écoute", "L’écoute"},
		{"音", "音", "音"},
		{"p i m a", "p i m a", "p i m a"},
		{"a scale", "a scale", "A scale"},
		{"D", "D", "D"},
		{"", "", ""},
	} {
		assert.Equal(t, c.within, Within(c.name), c.name)
		assert.Equal(t, c.begins, Begin(c.name), c.name)
	}
}

// No text is cut inside a character.
func TestTextsAreWholeCharacters(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.String().Draw(t, "name")
		for _, out := range []string{Begin(s), Within(s)} {
			if !utf8.ValidString(out) {
				t.Fatalf("%q became %q", s, out)
			}
		}
	})
}
