// Package scoretest writes scores as short text for tests.
package scoretest

import (
	"fmt"
	"strings"

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
