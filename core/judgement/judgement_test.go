package judgement

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestEachNumberSaysWhatItMoves(t *testing.T) {
	seen := map[string]bool{}
	for _, n := range All() {
		assert.NotEmpty(t, n.Moves, n.Name)
		assert.Positive(t, n.Value, n.Name)
		assert.False(t, seen[n.About+n.Name], "%s stands twice", n.Name)
		seen[n.About+n.Name] = true
	}
	assert.Greater(t, len(all), 25)
}
