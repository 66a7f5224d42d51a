package notes

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// So many scores are read at once as there are turns; who waits goes with the request, and a turn that is given back
// is the next one's.
func TestReadingsTakeTurns(t *testing.T) {
	for range cap(reads) - 1 {
		reads <- struct{}{}
	}
	last, err := turn(t.Context())
	require.NoError(t, err)
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, err = turn(gone)
	assert.ErrorIs(t, err, context.Canceled, "the next waits, and ends with its request")
	last()
	again, err := turn(t.Context())
	require.NoError(t, err)
	again()
	for range cap(reads) - 1 { // others read too
		<-reads
	}
}
