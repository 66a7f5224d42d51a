package studio

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// So many scores are read at once as there are turns; who waits goes with the request, and a turn that is given back
// is the next one's.
func TestReadingsTakeTurns(t *testing.T) {
	a := &App{reads: make(chan struct{}, 2)}
	first, err := a.turn(t.Context())
	require.NoError(t, err)
	_, err = a.turn(t.Context())
	require.NoError(t, err)
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, err = a.turn(gone)
	assert.ErrorIs(t, err, context.Canceled, "a third waits, and ends with its request")
	first()
	_, err = a.turn(t.Context())
	assert.NoError(t, err)
}

// Two passwords are hashed at once; who waits goes with the request.
func TestHashingTakesTurns(t *testing.T) {
	for range cap(hashing) {
		hashing <- struct{}{}
	}
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, err := hashPassword(gone, "a long password")
	var says *Error
	require.ErrorAs(t, err, &says)
	assert.Equal(t, Unavailable, says.Kind)
	for range cap(hashing) {
		<-hashing
	}
	assert.Equal(t, 2, cap(hashing))
	_, err = hashPassword(t.Context(), "a long password")
	assert.NoError(t, err)
}
