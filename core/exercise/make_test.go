package exercise

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading"
	"patientladder/core/score"
)

// tune writes the notes of a staff, chords joined by +, and their fingers.
func tune(s score.Score, staff int) (notes, fingers string) {
	var names, under []string
	for _, b := range s.Parts[0].Bars {
		var last *score.Note
		for i := range b.Notes {
			n := &b.Notes[i]
			if n.Staff != staff {
				continue
			}
			f := strings.Join(n.Fingers, "")
			if last != nil && last.Onset.Cmp(n.Onset) == 0 {
				names[len(names)-1] += "+" + n.Pitch.String()
				under[len(under)-1] += f
			} else {
				names, under = append(names, n.Pitch.String()), append(under, f)
			}
			last = n
		}
	}
	return strings.Join(names, " "), strings.Join(under, " ")
}

func made(t *testing.T, text, on string) score.Score {
	t.Helper()
	spec, err := Parse(text)
	require.NoError(t, err, text)
	s, err := Make(spec, instrument.Shipped.Of(instrument.ID(on)))
	require.NoError(t, err, text)
	return s
}

// What each kind is, by hand: common practice, no source.
func TestWhatIsMade(t *testing.T) {
	for _, c := range []struct{ text, on, right, fingers, left string }{
		{"scale C", "piano", "C4 D4 E4 F4 G4 A4 B4 C5 B4 A4 G4 F4 E4 D4 C4", "1 2 3 1 2 3 4 5 4 3 2 1 3 2 1", ""},
		{"scale Eb both", "piano", "Eb4 F4 G4 Ab4 Bb4 C5 D5 Eb5 D5 C5 Bb4 Ab4 G4 F4 Eb4", "3 1 2 3 4 1 2 3 2 1 4 3 2 1 3", "Eb3 F3 G3 Ab3 Bb3 C4 D4 Eb4 D4 C4 Bb3 Ab3 G3 F3 Eb3"},
		{"scale C mirrored", "piano", "C4 D4 E4 F4 G4 A4 B4 C5 B4 A4 G4 F4 E4 D4 C4", "1 2 3 1 2 3 4 5 4 3 2 1 3 2 1", "C4 B3 A3 G3 F3 E3 D3 C3 D3 E3 F3 G3 A3 B3 C4"},
		{"half D", "piano", "D4 E4 F#4 G4 F#4 E4 D4", "1 2 3 4 3 2 1", ""},
		{"five G both", "piano", "G4 A4 B4 C5 D5 C5 B4 A4 G4", "1 2 3 4 5 4 3 2 1", "G3 A3 B3 C4 D4 C4 B3 A3 G3"},
		{"five C mirrored", "piano", "C4 D4 E4 F4 G4 F4 E4 D4 C4", "1 2 3 4 5 4 3 2 1", "G3 F3 E3 D3 C3 D3 E3 F3 G3"},
		{"skips A natural", "piano", "A4 C5 E5 C5 A4 A4+C5+E5", "1 3 5 3 1 135", ""},
		{"chord C", "piano", "C4 E4 G4 C4+E4+G4 E4 G4 C5 E4+G4+C5 G4 C5 E5 G4+C5+E5 C5+E5+G5", "1 3 5 135 1 2 5 125 1 3 5 135 135", ""},
		{"chromatic C", "piano", "C4 C#4 D4 Eb4 E4 F4 F#4 G4 Ab4 A4 Bb4 B4 C5 B4 Bb4 A4 Ab4 G4 F#4 F4 E4 Eb4 D4 C#4 C4", "2 3 1 3 1 2 3 1 3 1 3 1 2 1 3 1 3 1 3 2 1 3 1 3 2", ""},
		{"scale D", "cello", "D3 E3 F#3 G3 A3 B3 C#4 D4 C#4 B3 A3 G3 F#3 E3 D3", "", ""},
		{"scale C 2", "cello", "C2 D2 E2 F2 G2 A2 B2 C3 D3 E3 F3 G3 A3 B3 C4 B3 A3 G3 F3 E3 D3 C3 B2 A2 G2 F2 E2 D2 C2", "", ""},
		{"scale G 2", "violin", "G3 A3 B3 C4 D4 E4 F#4 G4 A4 B4 C5 D5 E5 F#5 G5 F#5 E5 D5 C5 B4 A4 G4 F#4 E4 D4 C4 B3 A3 G3", "", ""},
		{"bows", "violin", "G3 G3 D4 D4 A4 A4 E5 E5 G3 D4 G3 D4 D4 A4 D4 A4 A4 E5 A4 E5 E5", "", ""},
		{"double-open", "cello", "C2 G2 C2+G2 G2 D3 G2+D3 D3 A3 D3+A3", "", ""},
		{"pattern D", "cello", "A3 B3 C#4 D4 C#4 B3 A3 D3 E3 F#3 G3 F#3 E3 D3 G2 A2 B2 A2 G2 D2 E2 D2", "", ""},
		{"roll pima", "guitar", "A3 G4 B4 E5", "", ""},
		{"scale C", "guitar", "C4 D4 E4 F4 G4 A4 B4 C5 B4 A4 G4 F4 E4 D4 C4", "", ""},
	} {
		s := made(t, c.text, c.on)
		right, fingers := tune(s, 1)
		if c.on == "guitar" && strings.HasPrefix(c.text, "roll") {
			assert.True(t, strings.HasPrefix(right, "E3 G4 B4 E5 E3"), right)
			assert.True(t, strings.HasPrefix(fingers, "p i m a p i m a p"), fingers)
			continue
		}
		assert.Equal(t, c.right, right, c.text)
		if c.fingers != "" {
			assert.Equal(t, c.fingers, fingers, c.text)
		}
		if c.left != "" {
			left, _ := tune(s, 2)
			assert.Equal(t, c.left, left, c.text)
		}
	}
}

// Everything that can be made for every shipped instrument: bars are full, each note has
// its id, it is written and read again the same, and what is read off it holds together.
func TestAllThatCanBeMade(t *testing.T) {
	n := 0
	for _, on := range instrument.Shipped {
		for _, kind := range Kinds {
			for _, tonic := range []string{"C", "Eb", "F#"} {
				for _, hands := range AllHands {
					spec := Spec{Kind: kind, Tonic: tonic, Hands: hands}
					s, err := Make(spec, on)
					if err != nil {
						continue
					}
					n++
					name := fmt.Sprint(spec, " on ", on)
					for _, b := range s.Parts[0].Bars {
						assert.Equal(t, score.Quarters(4), b.Length, name)
					}
					again, err := notation.Read("x.musicxml", musicxml.Write(s))
					require.NoError(t, err, name)
					assert.Equal(t, s.Pitches(), again.Pitches(), name)
					page := reading.Read(s, on)
					assert.NotEmpty(t, page.Minute(page.Demands()), name)
					for _, st := range page.Staves {
						for i := range st.Stops {
							for _, stop := range st.Stops[i] {
								assert.Positive(t, stop.String, "%s: every note lies on the instrument", name)
							}
						}
						if on.Family == instrument.Bowed && on.ID != "double-bass" {
							for _, p := range st.Positions {
								assert.Contains(t, []string{"first position", "half position"}, p.Place, name)
							}
						}
					}
				}
			}
		}
	}
	assert.Greater(t, n, 300)
}

func TestWhatCannotBeMade(t *testing.T) {
	for says, c := range map[string][2]string{
		"names its kind":               {"", "piano"},
		"is not a kind":                {"dance C", "piano"},
		"is not understood":            {"scale C sideways", "piano"},
		"one to four octaves":          {"scale C 5", "piano"},
		"two to eight":                 {"roll p", "guitar"},
		"more than seven accidentals":  {"scale G# major", "piano"},
		"not an exercise of the cello": {"five C", "cello"},
		"not an exercise of the piano": {"roll pima", "piano"},
		"room for 3 octaves":           {"scale C 3", "guitar"},
		"plectrum":                     {"roll pima", "mandolin"},
		"has no room":                  {"scale B 4 both", "keyboard-49"},
		"finger a":                     {"roll pima", "five-string"},
	} {
		spec, err := Parse(c[0])
		if err == nil {
			_, err = Make(spec, instrument.Shipped.Of(instrument.ID(c[1])))
		}
		assert.ErrorContains(t, err, says, c[0])
	}
	for _, text := range []string{"scale Eb harmonic both 2", "five G mirrored", "roll pami", "bows", "chord A natural left"} {
		spec, err := Parse(text)
		require.NoError(t, err)
		again, err := Parse(spec.String())
		require.NoError(t, err)
		assert.Equal(t, spec.usual(), again.usual(), text)
		assert.NotEmpty(t, spec.Title())
	}
	whistle := instrument.Profile{ID: "w", Name: "whistle", Family: instrument.Other}
	s, err := Make(Spec{Kind: Scale, Tonic: "D"}, whistle)
	require.NoError(t, err)
	notes, _ := tune(s, 1)
	assert.True(t, strings.HasPrefix(notes, "D4 E4 F#4"), notes)
}

// A cycle has a key in every four bars, each fingered as its scale is.
func TestACycleOfKeys(t *testing.T) {
	s := made(t, "cycle right", "piano")
	require.Len(t, s.Parts[0].Bars, 48)
	for i, tonic := range fifths[true] {
		spec := Spec{Kind: Cycle}
		from, to := spec.Bars(i)
		assert.Equal(t, []int{4*i + 1, 4*i + 4}, []int{from, to})
		bar := s.Parts[0].Bars[from-1]
		require.NotNil(t, bar.Key, tonic)
		assert.True(t, strings.HasPrefix(bar.Notes[0].Pitch.String(), tonic), tonic)
		assert.Equal(t, bar.Notes[0].Pitch, s.Parts[0].Bars[to-1].Notes[2].Pitch, "down to where it began")
		fingers := ""
		for _, b := range s.Parts[0].Bars[from-1 : from+1] {
			for _, n := range b.Notes {
				fingers += n.Fingers[0]
			}
		}
		assert.Equal(t, fingersOf(Spec{Tonic: tonic, Form: Major, Octaves: 1}, Right), fingers, tonic)
	}
	for _, place := range []int{-1, 12} {
		from, _ := Spec{Kind: Cycle}.Bars(place)
		assert.Zero(t, from)
	}
	from, _ := Spec{Kind: Scale}.Bars(3)
	assert.Zero(t, from)
	minor := made(t, "cycle harmonic both", "piano")
	assert.Equal(t, 2, minor.Parts[0].Staves)
	assert.Len(t, minor.Parts[0].Bars, 48)
}
