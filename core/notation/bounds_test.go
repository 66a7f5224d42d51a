package notation

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A bar that no hand has written is refused with its place, before anything is worked
// out about it.
func TestABarHoldsSoManyNotes(t *testing.T) {
	tune := func(notes int) []byte {
		return []byte("X:1\nL:1/4\nK:C\nC4|" + strings.Repeat("C/64", notes) + "|\n")
	}
	_, err := Read("a.abc", tune(MaxBar))
	assert.NoError(t, err)
	_, err = Read("a.abc", tune(MaxBar+1))
	assert.ErrorContains(t, err, "the bar holds 4001 notes")
	assert.ErrorContains(t, err, "bar 2")
}

// So is a score of more notes than an evening of music has.
func TestAScoreHoldsSoManyNotes(t *testing.T) {
	tune := func(bars int) []byte {
		return []byte("X:1\nL:1/4\nM:none\nK:C\n" + strings.Repeat(strings.Repeat("C/64", 1000)+"|\n", bars))
	}
	_, err := Read("a.abc", tune(MaxNotes/1000))
	assert.NoError(t, err)
	_, err = Read("a.abc", tune(MaxNotes/1000+1))
	assert.ErrorContains(t, err, "the score holds 61000 notes; at most 60000 can be read at once")
}
