package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/instrument"
)

// What a student practises of an exercise this week, by the schools chosen.
func TestFit(t *testing.T) {
	sameWeek := approach.School("same-week")
	for _, c := range []struct {
		text       string
		key, hands approach.School
		done       []int
		week       int
		want       []string
	}{
		{"scale C", "c", sameWeek, nil, 1, []string{"scale C major right", "scale C major left"}},
		{"scale C", "c", approach.OneHandAWeek, nil, 1, []string{"scale C major right"}},
		{"scale C", "c", approach.OneHandAWeek, nil, 2, []string{"scale C major left"}},
		{"scale C", "c", approach.OneHandAWeek, nil, 3, []string{"scale C major right"}},
		{"scale C", "c", approach.ByMeeting, nil, 1, []string{"meetings C major right"}},
		{"half C", "c", approach.ByMeeting, nil, 1, []string{"half C major right", "half C major left"}},
		{"scale C", approach.FiveBlacks, sameWeek, nil, 1, []string{"scale B major right", "scale B major left"}},
		{"scale G", approach.FiveBlacks, sameWeek, nil, 1, []string{"scale G major right", "scale G major left"}},
		{"scale C both 2", approach.FiveBlacks, sameWeek, nil, 1, []string{"scale C major both 2"}},
		{"five C", approach.FiveBlacks, approach.OneHandAWeek, nil, 2, []string{"five C major right"}},
		{"cycle", "c", sameWeek, []int{0, 1}, 1, []string{"scale D major right", "scale D major left"}},
		{"cycle", approach.FiveBlacks, approach.OneHandAWeek, nil, 1, []string{"scale B major right"}},
		{"cycle", approach.ByFifths, approach.OneHandAWeek, []int{0, 1}, 1, []string{"scale F major right"}},
		{"cycle", approach.BySemitone, approach.OneHandAWeek, []int{0}, 2, []string{"scale Db major left"}},
		{"cycle D,G,A right", approach.FiveBlacks, approach.OneHandAWeek, []int{0}, 1, []string{"scale G major right"}},
		{"cycle D,G,A right", "c", approach.OneHandAWeek, []int{0, 1, 2}, 1, []string{"cycle D,G,A C major right"}},
		{"cycle both", "c", sameWeek, []int{0}, 1, []string{"scale G major both"}},
		{"cycle", "c", sameWeek, []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}, 1, []string{"cycle C major right"}},
	} {
		spec, err := Parse(c.text)
		require.NoError(t, err)
		var got []string
		for _, s := range spec.Fit(approach.Approach{approach.ScaleKey: c.key, approach.ScaleHands: c.hands}, Stage{c.done, c.week}) {
			got = append(got, s.String())
		}
		assert.Equal(t, c.want, got, "%s, %s, %s, week %d", c.text, c.key, c.hands, c.week)
	}
}

// Every order has each key once: sharps and flats in turn, semitones, from five blacks.
func TestOrderOfKeys(t *testing.T) {
	for school, want := range map[approach.School][]string{
		"c":                 {"C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"},
		approach.FiveBlacks: {"B", "F#", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E"},
		approach.ByFifths:   {"C", "G", "F", "D", "Bb", "A", "Eb", "E", "Ab", "B", "Db", "F#"},
		approach.BySemitone: {"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"},
	} {
		var got []string
		for _, place := range order(school) {
			got = append(got, fifths[true][place])
		}
		assert.Equal(t, want, got, school)
	}
}

// What each hand is told, as a book prints it: common practice, no source.
func TestVoices(t *testing.T) {
	for _, c := range []struct {
		text, on string
		want     []Voice
	}{
		{"scale Eb", "piano", []Voice{{Hand: Right, Fingers: "3 1 2 3 4 1 2 3"}}},
		{"scale Eb left", "piano", []Voice{{Hand: Left, Fingers: "3 2 1 4 3 2 1 3"}}},
		{"five G both", "piano", []Voice{{Hand: Right, Fingers: "1 2 3 4 5"}, {Hand: Left, Fingers: "5 4 3 2 1"}}},
		{"five C mirrored", "piano", []Voice{{Hand: Right, Fingers: "1 2 3 4 5"}, {Hand: Left, Fingers: "1 2 3 4 5"}}},
		{"half C left", "piano", []Voice{{Hand: Left, Fingers: "4 3 2 1"}}},
		{"duet C", "piano", []Voice{{Hand: Right}}},
		{"chord C", "piano", []Voice{{Hand: Right}}},
		{"figure 1353", "piano", []Voice{{Hand: Right, Fingers: "1 3 5 3"}}},
		{"roll pami", "guitar", []Voice{{Fingers: "p a m i"}}},
		{"roll pimami 632123", "guitar", []Voice{{Fingers: "p i m a m i", Strings: "6 3 2 1 2 3"}}},
		{"scale D", "cello", []Voice{{}}},
		{"cross 3:2", "piano", []Voice{{}}},
	} {
		spec, err := Parse(c.text)
		require.NoError(t, err)
		assert.Equal(t, c.want, spec.Voices(instrument.Shipped.Of(instrument.ID(c.on))), c.text)
	}
}
