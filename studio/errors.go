package studio

import (
	_ "embed"
	"errors"
	"fmt"

	"patientladder/core/charset"
	"patientladder/store"
)

// An Error is a failure with a sentence for the person and, when there is
// one, a cause for the log.
type Error struct {
	Kind  ErrorKind
	Says  string
	Cause error
}

// An ErrorKind tells how a failure answers.
type ErrorKind int

// The kinds of failures.
const (
	Invalid ErrorKind = iota
	Missing
	Conflict
	Denied
	AnotherFactor // the password was right, and a code is needed too
	Gone          // it was there once
	TooMany
	Stale // another device was faster
	Unavailable
	Full
)

func (e *Error) Error() string {
	if e.Cause == nil {
		return e.Says
	}
	return e.Says + ": " + e.Cause.Error()
}

func (e *Error) Unwrap() error { return e.Cause }

// Refuse makes an Error about what was sent.
func Refuse(format string, a ...any) error {
	return &Error{Kind: Invalid, Says: fmt.Sprintf(format, a...)}
}

// Failed turns a failure of the store into one with a sentence. what names the
// thing that was looked for.
func Failed(err error, what string) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, store.ErrNotFound):
		return &Error{Missing, "There is no such " + what + " in this studio.", err}
	case errors.Is(err, store.ErrStale):
		return &Error{Unavailable, "Several devices are changing this studio at once, so this was not saved. Try again.", err}
	case errors.Is(err, store.ErrFull):
		return &Error{Full, "The disk is full, so nothing was saved. Free some space and try again; what you marked waits here.", err}
	case errors.Is(err, store.ErrUnavailable):
		return &Error{Unavailable, "The database cannot be reached just now. What you marked waits here and is sent when it is back.", err}
	}
	return err
}

// CheckNames refuses names that hold characters which are not written.
func CheckNames(names ...string) error {
	for _, name := range names {
		if charset.Steers(name) {
			return Refuse("%q holds characters that are not written, such as a line's end. Type it anew.", name)
		}
	}
	return nil
}
