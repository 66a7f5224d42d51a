package studio

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"patientladder/core/merge"
	"patientladder/store"
)

// A Change is a thing that is kept as a whole, as somebody saw it and as they want it. What they
// saw is the version that the change was made from: nothing that another device kept since is
// overwritten unseen.
type Change[T any] struct {
	Was *T `json:"was,omitempty" doc:"as it was seen; left out for a new one"`
	Now T  `json:"now" doc:"as it shall be"`

	anyhow bool
}

// Set is a change by the program itself, whatever was there.
func Set[T any](now T) Change[T] { return Change[T]{Now: now, anyhow: true} }

// A Clashed is a change that another device was faster than, in the same fields.
type Clashed struct {
	Present any           `json:"present" doc:"the thing as it is; null where it was taken away"`
	Merged  any           `json:"merged" doc:"with every change of both, and this one's where both touched a field"`
	Fields  []merge.Clash `json:"fields" doc:"that both touched"`
}

func (c *Clashed) Error() string {
	return fmt.Sprintf("%d fields were changed by another device too", len(c.Fields))
}

// Onto brings a change onto the thing as it is now, nil for none. A *Clashed, as the cause of an
// Error, where both touched the same.
func (c Change[T]) Onto(is *T) (T, error) {
	switch {
	case c.anyhow, is == nil && c.Was == nil:
		return c.Now, nil
	case is == nil:
		return c.Now, &Error{Stale, "Another device has removed this. Save yours to bring it back, or leave it removed.", &Clashed{nil, c.Now, []merge.Clash{}}}
	}
	merged, clashes, err := c.Now, []merge.Clash(nil), error(nil)
	if c.Was == nil {
		clashes, err = merge.Differ(c.Now, *is)
	} else {
		merged, clashes, err = merge.Things(*c.Was, c.Now, *is)
	}
	if err == nil && len(clashes) > 0 {
		err = &Error{Stale, "Another device has changed this too. Your change is not saved yet: choose which version to save.", &Clashed{*is, merged, clashes}}
	}
	return merged, err
}

// Find returns a copy of the thing in a list that a condition holds of; nil for none.
func Find[T any](list []T, is func(T) bool) *T {
	i := slices.IndexFunc(list, is)
	if i < 0 {
		return nil
	}
	one := list[i]
	return &one
}

// Unseen is an error where a thing that shall be taken away is no longer as it was seen.
func Unseen[T any](seen, is *T) error {
	if seen == nil || is == nil {
		return nil
	}
	same, err := merge.Same(*seen, *is)
	if err == nil && !same {
		err = &Error{Stale, "Another device has changed this. Look at the new version before you remove it.", &Clashed{*is, *is, []merge.Clash{}}}
	}
	return err
}

// tries is how often a change is begun again that others were faster than.
const tries = 30

// Edit enters a studio to change what it holds beside facts. change reads, checks and keeps, and
// is begun again, on the studio as it is then, when another change was faster.
func (a *App) Edit(ctx context.Context, who Who, change func(Room) error) error {
	for n := 1; ; n++ {
		r, err := a.Enter(ctx, who)
		if err != nil {
			return err
		}
		r.Studio = r.At(r.Row)
		if err = change(r); !errors.Is(err, store.ErrStale) || n == tries {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(time.Duration(rand.IntN(15*n)+1) * time.Millisecond):
		}
	}
}
