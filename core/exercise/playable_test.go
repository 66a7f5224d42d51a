package exercise

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/score"
)

// reach is how many semitones two fingers of a grown hand span with comfort, by how many
// fingers apart they are: common practice, no source. An octave is the most.
var reach = map[int]int{1: 5, 2: 7, 3: 9, 4: 12}

// Everything that is made for keys in every usual key and both hands can be played by the
// hand that its staff names: no finger on two keys, the keys of two fingers that sound
// together within their reach and in the hand's order, and no finger twice running on
// another key but where the hand is lifted: by a rest, before another key of a cycle, or
// where pairs and chords are set one by one.
func TestEveryExerciseCanBePlayed(t *testing.T) {
	piano := instrument.Shipped.Of("piano")
	made := 0
	for _, o := range offers[instrument.Keyboard] {
		for _, form := range []Form{Major, Harmonic} {
			for _, tonic := range Tonics(form) {
				for _, hands := range []Hands{Right, Left, Both} {
					spec := Spec{Kind: o.Kind, Tonic: tonic, Form: form, Hands: hands}
					if o.Kind == Cycle && tonic != "C" {
						continue
					}
					s, err := Make(spec, piano)
					require.NoError(t, err, spec.String())
					made++
					for staff := 1; staff <= s.Parts[0].Staves; staff++ {
						playable(t, spec, s, staff)
					}
				}
			}
		}
	}
	assert.Greater(t, made, 1000)
}

// playable checks one staff.
func playable(t *testing.T, spec Spec, s score.Score, staff int) {
	t.Helper()
	name := fmt.Sprintf("%s, staff %d", spec, staff)
	left := s.Parts[0].Bars[0].Clefs[staff-1].Sign == "F"
	var last *score.Note
	for _, b := range s.Parts[0].Bars {
		var chord []score.Note
		for i := range b.Notes {
			n := &b.Notes[i]
			if n.Staff != staff {
				continue
			}
			if n.Rest {
				last = nil
				continue
			}
			if len(chord) > 0 && chord[0].Onset != n.Onset {
				chord = nil
			}
			if len(n.Fingers) == 0 { // the teacher's part
				continue
			}
			for _, other := range chord {
				apart := int(n.Fingers[0][0]) - int(other.Fingers[0][0])
				require.NotZero(t, apart, "%s: one finger on two keys", name)
				assert.Equal(t, n.Pitch.MIDI() > other.Pitch.MIDI(), apart > 0 != left, "%s: fingers cross", name)
				assert.LessOrEqual(t, max(n.Pitch.MIDI()-other.Pitch.MIDI(), other.Pitch.MIDI()-n.Pitch.MIDI()), reach[max(apart, -apart)], "%s: too wide", name)
			}
			if last != nil && last.Onset != n.Onset && last.Pitch != n.Pitch && !slices.Contains([]Kind{Sixths, Chord, Skips, Thirds, Cross, Cycle}, spec.Kind) {
				assert.NotEqual(t, last.Fingers[0], n.Fingers[0], "%s: one finger on two keys in turn, %s after %s", name, n.Pitch, last.Pitch)
			}
			chord = append(chord, *n)
			last = n
		}
	}
}
