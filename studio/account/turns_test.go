package account

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/studio"
)

// The second recommended option of RFC 9106, section 4, has 64 MiB and three passes.
func TestPasswordsAreHashedAsPublished(t *testing.T) {
	assert.EqualValues(t, 64<<10, strong.Memory, "KiB")
	assert.EqualValues(t, 3, strong.Iterations)
	assert.EqualValues(t, 16, strong.SaltLength)
	assert.EqualValues(t, 32, strong.KeyLength)
}

// Two passwords are hashed at once; who waits goes with the request.
func TestHashingTakesTurns(t *testing.T) {
	for range cap(hashing) {
		hashing <- struct{}{}
	}
	gone, leave := context.WithCancel(t.Context())
	leave()
	_, err := hashPassword(gone, "a long password")
	var says *studio.Error
	require.ErrorAs(t, err, &says)
	assert.Equal(t, studio.Unavailable, says.Kind)
	for range cap(hashing) {
		<-hashing
	}
	assert.Equal(t, 2, cap(hashing))
	_, err = hashPassword(t.Context(), "a long password")
	assert.NoError(t, err)
}
