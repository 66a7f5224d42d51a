package approach

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Common practice, no source.
func TestDefaultsByAge(t *testing.T) {
	assert.Equal(t, "direction", Default(7).Reading)
	assert.Equal(t, "landmarks", Default(8).Reading)
	assert.Equal(t, 0.5, Default(9).UpkeepShare())
	assert.Equal(t, 0.75, EarFirst(7).UpkeepShare())
	third := Default(30)
	third.Upkeep = "third"
	assert.InDelta(t, 1.0/3, third.UpkeepShare(), 1e-12)
	for age := 3; age < 80; age++ {
		assert.NoError(t, Default(age).Check())
		assert.NoError(t, EarFirst(age).Check())
	}
	bad := Default(9)
	bad.Hands = "three"
	assert.ErrorContains(t, bad.Check(), "hands")
}
