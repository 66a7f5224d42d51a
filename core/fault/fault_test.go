package fault

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
)

func TestFaults(t *testing.T) {
	keys := map[string]bool{}
	for _, f := range All {
		assert.False(t, keys[f.Key], f.Key)
		keys[f.Key] = true
	}
	for family, first := range map[instrument.Family]string{instrument.Keyboard: "joints-cave", instrument.Bowed: "thumb-squeezes", instrument.Plucked: "wrist-sideways"} {
		list := For(family)
		assert.Equal(t, first, list[0].Key)
		assert.GreaterOrEqual(t, len(list), 5, family)
		for _, f := range list {
			assert.Contains(t, []instrument.Family{family, instrument.Shared}, f.Family)
		}
	}
	f, ok := Named("claw")
	assert.True(t, ok)
	assert.Equal(t, instrument.Shared, f.Family)
	_, ok = Named("gone")
	assert.False(t, ok)
}

// Every fault is found by its key, the first and the last too.
func TestEachFaultByItsKey(t *testing.T) {
	for _, want := range All {
		got, there := Named(want.Key)
		assert.True(t, there)
		assert.Equal(t, want, got)
	}
	_, there := Named("nothing")
	assert.False(t, there)
}
