package reading

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
)

func pageOf(t *testing.T, file string) Page {
	t.Helper()
	data, err := os.ReadFile("../../demo/scores/" + file)
	require.NoError(t, err)
	s, err := notation.Read(file, data)
	require.NoError(t, err)
	return Read(s, instrument.Shipped.Of("piano"))
}

// Pieces of the first book whose hands take turns, and of the second whose hands play
// together; one staff has no turns.
func TestHandsInTurn(t *testing.T) {
	for file, want := range map[string]bool{"shore-stairs.musicxml": true, "shore-two-gulls.abc": true, "harbour-wall.abc": false, "shore-rope-walk.abc": false} {
		assert.Equal(t, want, pageOf(t, file).InTurn(), file)
	}
}

// Bars that come back are known again: the third line of Lightly Row's first is.
func TestChunksThatSoundAlike(t *testing.T) {
	seen := map[string]int{}
	var count func(c Chunk)
	count = func(c Chunk) {
		if len(c.Parts) == 0 {
			assert.NotEmpty(t, c.Like)
			seen[c.Like]++
		}
		for _, part := range c.Parts {
			assert.Empty(t, c.Like)
			count(part)
		}
	}
	count(pageOf(t, "folk-kookaburra.abc").Chunks(4)[0])
	again := 0
	for _, n := range seen {
		again += n - 1
	}
	assert.GreaterOrEqual(t, again, 4, "its first two bars stand three times")
}

// Each smallest chunk of the tune knows its rhythms; none stands twice or is lost, and the
// other hand is told none.
func TestTheRhythmOfAChunk(t *testing.T) {
	page := written(t, instrument.Keyboard, "", "C/D/ E F/G/ E|C2 z2|E F G2|C4")
	var got []string
	var walk func(c Chunk)
	walk = func(c Chunk) {
		if len(c.Parts) > 0 {
			assert.Empty(t, c.Rhythm)
		}
		got = append(got, c.Rhythm...)
		for _, part := range c.Parts {
			walk(part)
		}
	}
	walk(page.Chunks(4)[0])
	assert.Equal(t, []string{"1/2 1/2", "1", "1/2 1/2", "1", "2", "1", "1", "2", "4"}, got, "the rest after the last note of a chunk is said by nobody")
	got = nil
	walk(pageOf(t, "harbour-wall.abc").Chunks(4)[1])
	assert.Empty(t, got)
}
