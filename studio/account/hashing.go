package account

import (
	"context"
	"sync"

	"github.com/alexedwards/argon2id"

	"patientladder/studio"
)

// strong is RFC 9106, section 4, the second recommended option (64 MiB, 3 passes), with 2 lanes.
var strong = argon2id.Params{Memory: 64 << 10, Iterations: 3, Parallelism: 2, SaltLength: 16, KeyLength: 32}

// passwords is how new passwords are hashed.
var passwords = &strong

// HashInAMoment makes new hashes cheap, and weak. It is for tests, which sign in often; a program
// never calls it.
func HashInAMoment() {
	passwords = &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
}

// hashing holds as many turns as passwords may be hashed at once: each takes 64 MiB.
var hashing = make(chan struct{}, 2)

// inTurn does something that hashes when its turn comes.
func inTurn(ctx context.Context, do func()) error {
	select {
	case hashing <- struct{}{}:
	case <-ctx.Done():
		return &studio.Error{Kind: studio.Unavailable, Says: "Too many are signing in at this moment. Try again in a while.", Cause: ctx.Err()}
	}
	defer func() { <-hashing }()
	do()
	return nil
}

func hashPassword(ctx context.Context, password string) (string, error) {
	var hash string
	err := inTurn(ctx, func() {
		var err error
		if hash, err = argon2id.CreateHash(password, passwords); err != nil {
			panic(err) // the machine has no randomness
		}
	})
	return hash, err
}

func checkPassword(ctx context.Context, encoded, password string) (bool, error) {
	var same bool
	err := inTurn(ctx, func() {
		ok, err := argon2id.ComparePasswordAndHash(password, encoded)
		same = err == nil && ok
	})
	return same, err
}

// dummy takes as long to check as a real password, so that the time does not
// tell which mail addresses have accounts.
var dummy = sync.OnceValue(func() string {
	hash, err := argon2id.CreateHash("no one's password", passwords)
	if err != nil {
		panic(err) // the machine has no randomness
	}
	return hash
})
