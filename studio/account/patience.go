package account

import (
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"golang.org/x/text/unicode/norm"

	"patientladder/studio"
)

// Sign-ins that fail slow down whoever makes them, and lock nobody out: after some, each further one waits
// twice as long as the one before, up to a minute. They are counted by account and by network address; in
// a browser that has signed in to the account before, by that browser instead, so that what strangers try
// does not keep its owner waiting.
const (
	freeFailures  = 5 // of an account or a browser
	freeFrom      = 20
	failureWindow = 15 * time.Minute
	longestWait   = time.Minute
)

// A counter is by what failures are counted, and how many are free.
type counter struct {
	who  string
	free int
}

// mailKey is an email address as it is compared: without spaces around, in small letters, composed. Accents
// differ.
func mailKey(email string) string { return norm.NFC.String(strings.ToLower(strings.TrimSpace(email))) }

// counters are by what the failures of a sign-in are counted.
func (in SignIn) counters(teacher string) []counter {
	for _, known := range in.Knows {
		if known == teacher && teacher != "" && in.Browser != "" {
			return []counter{{"browser " + in.Browser, freeFailures}}
		}
	}
	return []counter{{"mail " + mailKey(in.Email), freeFailures}, {"from " + in.From, freeFrom}}
}

// A Wait is how many seconds there are to wait, as the cause of a refusal.
type Wait int

func (w Wait) Error() string { return fmt.Sprintf("%d seconds to wait", int(w)) }

// A reserve is failures counted before it is known whether they are ones, so that a burst is counted as
// what it is.
type reserve struct {
	a   *studio.App
	ids []int64
}

// wait is how long after the last of some failures the next may be tried.
func wait(failures, free int) time.Duration {
	if failures < free {
		return 0
	}
	return min(time.Second*time.Duration(math.Exp2(float64(min(failures-free, 10)))), longestWait)
}

// patient counts an attempt as a failure for the time being, or refuses it where the last ones are too near.
func patient(ctx context.Context, a *studio.App, counters ...counter) (reserve, error) {
	r := reserve{a: a}
	for _, c := range counters {
		id, n, last, err := a.Store.ReserveSignIn(ctx, c.who, failureWindow, a.Now())
		if err != nil {
			return r, studio.Failed(err, "account")
		}
		r.ids = append(r.ids, id)
		if left := wait(n, c.free) - last; left > 0 {
			if err := r.refund(ctx); err != nil { // being asked to wait is no failure
				return r, err
			}
			seconds := int(math.Ceil(left.Seconds()))
			return r, &studio.Error{Kind: studio.TooMany, Says: fmt.Sprintf("Too many sign-ins failed. Try again in %d s.", seconds), Cause: Wait(seconds)}
		}
	}
	return r, nil
}

// refund takes the count back: it was no failure.
func (r reserve) refund(ctx context.Context) error {
	return studio.Failed(r.a.Store.RefundSignIns(ctx, r.ids), "account")
}
