// Package scoretest writes scores as short text for tests.
package scoretest

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"patientladder/core/score"
)

// Heard writes the notes of one staff of one part as "pitch@onset+duration",
// quarter note = 1, in the given order of bars.
func Heard(s score.Score, part, staff int, order []int) string {
	var out []string
	for _, n := range s.Parts[part].Sounding(staff, order) {
		out = append(out, fmt.Sprintf("%s@%s+%s", n.Pitch, n.Onset, n.Duration))
	}
	return strings.Join(out, " ")
}

// Refused reports whether a file was refused, which must be with a syntax error.
func Refused(t testing.TB, err error) bool {
	t.Helper()
	var at *score.SyntaxError
	if err != nil && !errors.As(err, &at) {
		t.Fatalf("not a syntax error: %v", err)
	}
	return err != nil
}
