package judgement

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestEachNumberStandsOnce(t *testing.T) {
	seen := map[string]bool{}
	for _, n := range All() {
		assert.Positive(t, n.Value, n.Name.Key)
		assert.False(t, seen[n.Name.Key], "%s stands twice", n.Name.Key)
		seen[n.Name.Key] = true
	}
	assert.Greater(t, len(all), 25)
}
