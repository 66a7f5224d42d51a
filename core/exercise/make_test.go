package exercise

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/notation/musicxml"
	"patientladder/core/pitch"
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
		{"arpeggio Eb", "piano", "Eb4 G4 Bb4 Eb5 Bb4 G4 Eb4", "4 1 2 4 2 1 4", ""},
		{"arpeggio C both 2", "piano", "C4 E4 G4 C5 E5 G5 C6 G5 E5 C5 G4 E4 C4", "1 2 3 1 2 3 5 3 2 1 3 2 1", "C3 E3 G3 C4 E4 G4 C5 G4 E4 C4 G3 E3 C3"},
		{"duet G", "piano", " D5 E5 F#5 G5 G5 F#5 E5 D5 ", "", "G4 A4 B4 C5   C5 B4 A4 G4"},
		{"thirds C", "piano", "C4 E4 C4+E4 D4 F4 D4+F4 E4 G4 E4+G4 D4 F4 D4+F4 C4 E4 C4+E4", "1 3 13 2 4 24 3 5 35 2 4 24 1 3 13", ""},
		{"sixths C left", "piano", "C3 A3 C3+A3 D3 B3 D3+B3 E3 C4 E3+C4 D3 B3 D3+B3 C3 A3 C3+A3", "5 1 51 5 1 51 5 1 51 5 1 51 5 1 51", ""},
		{"figure 1353 C", "piano", "C4 E4 G4 E4 D4 F4 A4 F4 E4 G4 B4 G4 F4 A4 C5 A4 G4 B4 D5 B4 A4 C5 E5 C5 B4 D5 F5 D5 C5 E5 G5 E5 G5 E5 C5 E5 F5 D5 B4 D5 E5 C5 A4 C5 D5 B4 G4 B4 C5 A4 F4 A4 B4 G4 E4 G4 A4 F4 D4 F4 G4 E4 C4 E4 C4",
			strings.Repeat("1 3 5 3 ", 8) + strings.Repeat("5 3 1 3 ", 8) + "1", ""},
		{"shaped C", "piano", "C4 E4 G4 C5 E5 G5 C6 G5 E5 C5 G4 E4 C4", "1 2 3 1 2 3 5 3 2 1 3 2 1", ""},
		{"arpeggio D", "cello", "D3 F#3 A3 D4 A3 F#3 D3", "", ""},
		{"shift", "violin", "G3 A3 A3 C4 C4 A3 G3 G3 D4 E4 E4 G4 G4 E4 D4 D4 A4 B4 B4 D5 D5 B4 A4 A4 E5 F#5 F#5 A5 A5 F#5 E5 E5", strings.TrimSpace(strings.Repeat("0 1 1 1 1 1 0 0 ", 4)), ""},
		{"double-near", "cello", "C2 Ab2 C2+Ab2 C2+G2 G2 Eb3 G2+Eb3 G2+D3 D3 Bb3 D3+Bb3 D3+A3", "0 1 01 00 0 1 01 00 0 1 01 00", ""},
		{"double-near", "double-bass", "F2 A2 F2+A2 E2+A2 Bb2 D3 Bb2+D3 A2+D3 Eb3 G3 Eb3+G3 D3+G3", "1 0 10 00 1 0 10 00 1 0 10 00", ""},
		{"divide", "cello", "C2 C2 C2 C2 C2 C2 C2 G2 G2 G2 G2 G2 G2 G2 D3 D3 D3 D3 D3 D3 D3 A3 A3 A3 A3 A3 A3 A3", "", ""},
		{"roll pima", "guitar", "E3 G4 B4 E5 E3 G4 B4 E5 A3 G4 B4 E5 A3 G4 B4 E5 D4 G4 B4 E5 D4 G4 B4 E5", strings.TrimSpace(strings.Repeat("p i m a ", 6)), ""},
		{"roll pimami 632123", "guitar", "E3 G4 B4 E5 B4 G4 E3 G4", "p i m a m i p i", ""},
		{"roll pim", "five-string", "G5 B4 D5 G5 B4 D5 G5 B4 D4 B4 D5 D4 B4 D5 D4 B4 G4 B4 D5 G4 B4 D5 G4 B4", "", ""},
		{"shape A", "guitar", "A3 B3 C#4 D4 E4 F#4 G#4 A4 G#4 F#4 E4 D4 C#4 B3 A3", "", ""},
		{"hammer", "ukulele", "A4 B4 A4 B4 B4 A4 B4 A4 G4 A4 G4 A4 A4 G4 A4 G4 E4 F#4 E4 F#4 F#4 E4 F#4 E4", "", ""},
		{"thumb-tune C", "guitar", "D4+B4 C5 G4+D5 E5 D4+F5 G5 G4+F5 E5 D4+D5 C5 G4+B4", "", ""},
		{"scale C", "guitar", "C4 D4 E4 F4 G4 A4 B4 C5 B4 A4 G4 F4 E4 D4 C4", "", ""},
	} {
		s := made(t, c.text, c.on)
		right, fingers := tune(s, 1)
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
		for _, kind := range Kinds() {
			for _, tonic := range []string{"C", "Eb", "F#"} {
				for _, hands := range AllHands {
					if hands != Right && on.Family != instrument.Keyboard || tonic != "C" && slices.Contains(keyless, kind) {
						continue
					}
					spec := Spec{Kind: kind, Tonic: tonic, Hands: hands}
					s, err := Make(spec, on)
					if err != nil {
						continue
					}
					n++
					name := fmt.Sprint(spec, " on ", on)
					for _, b := range s.Parts[0].Bars {
						assert.Positive(t, b.Length.Sign(), name)
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
						if on.Family == instrument.Bowed && on.ID != "double-bass" && kind != Shift {
							for _, p := range st.Positions {
								assert.Contains(t, []string{"first", "half"}, p.Place, name)
							}
						}
					}
				}
			}
		}
	}
	assert.Greater(t, n, 400)
}

func TestWhatCannotBeMade(t *testing.T) {
	for says, c := range map[string][2]string{
		"names its kind":               {"", "piano"},
		"is not a kind":                {"dance C", "piano"},
		"is not understood":            {"scale C sideways", "piano"},
		"one to four octaves":          {"scale C 5", "piano"},
		"two to eight":                 {"roll p", "guitar"},
		"another number of them":       {"cross 3:3", "piano"},
		"each of the strokes":          {"roll pima 63", "guitar"},
		"a list of keys":               {"cycle C,H", "piano"},
		"has no string 7":              {"roll pi 72", "guitar"},
		"of the violin":                {"cross 3:2", "violin"},
		"near the nut":                 {"change Db", "guitar"},
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
	for _, text := range []string{"scale Eb harmonic both 2", "five G mirrored", "cross 4:3", "figure 1353 D left", "roll pima 6321", "cycle D,G,A right", "roll pami", "bows", "chord A natural left"} {
		spec, err := Parse(text)
		require.NoError(t, err)
		again, err := Parse(spec.String())
		require.NoError(t, err)
		assert.Equal(t, spec.Usual(), again.Usual(), text)
		assert.NotEmpty(t, spec.Name().Key)
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
		one, there := Spec{Kind: Cycle}.Part(i)
		assert.True(t, there)
		assert.Equal(t, tonic, one.Tonic)
		bars := s.Parts[0].Bars[4*i : 4*i+4]
		require.NotNil(t, bars[0].Key, tonic)
		assert.True(t, strings.HasPrefix(bars[0].Notes[0].Pitch.String(), tonic), tonic)
		assert.Equal(t, bars[0].Notes[0].Pitch, bars[3].Notes[2].Pitch, "down to where it began")
		fingers := ""
		for _, b := range bars[:2] {
			for _, n := range b.Notes {
				fingers += n.Fingers[0]
			}
		}
		assert.Equal(t, fingersOf(Spec{Tonic: tonic, Form: Major, Octaves: 1}, Right), fingers, tonic)
	}
	for _, place := range []int{-1, 12} {
		_, there := Spec{Kind: Cycle}.Part(place)
		assert.False(t, there)
	}
	_, there := Spec{Kind: Scale}.Part(3)
	assert.False(t, there)
	minor := made(t, "cycle harmonic both", "piano")
	assert.Equal(t, 2, minor.Parts[0].Staves)
	assert.Len(t, minor.Parts[0].Bars, 48)
}

// The chords of open strings as every beginner of the guitar holds them, from the sixth
// string to the first: common practice, no source.
func TestChordsNearTheNut(t *testing.T) {
	guitar := instrument.Shipped.Of("guitar")
	tuned, order := open(guitar), usable(guitar)
	for name, c := range map[string]struct {
		form Form
		want grip
	}{
		"C": {Major, grip{-1, 3, 2, 0, 1, 0}}, "G": {Major, grip{3, 2, 0, 0, 0, 3}}, "D": {Major, grip{-1, -1, 0, 2, 3, 2}}, "A": {Major, grip{-1, 0, 2, 2, 2, 0}},
		"E": {Major, grip{0, 2, 2, 1, 0, 0}}, "Em": {Natural, grip{0, 2, 2, 0, 0, 0}}, "Am": {Natural, grip{-1, 0, 2, 2, 1, 0}}, "Dm": {Natural, grip{-1, -1, 0, 2, 3, 1}},
	} {
		got, found := gripFor(pitch.MustParse(name[:1]+"4").MIDI(), c.form, tuned, order)
		assert.True(t, found, name)
		assert.Equal(t, c.want, got, name)
	}
	_, found := gripFor(61, Major, tuned, order)
	assert.False(t, found, "D flat does not lie near the nut")
	words := ""
	for _, b := range made(t, "change A natural", "guitar").Parts[0].Bars[:2] {
		words += b.Marks[0].Text + " "
	}
	assert.Equal(t, "Am E ", words)
}

// A shape is one place of the hand: four frets, no open string, each key the same shape.
func TestShapeMovesWithItsKey(t *testing.T) {
	frets := func(text string) (out []int) {
		for _, b := range made(t, text, "guitar").Parts[0].Bars {
			for _, n := range b.Notes {
				out = append(out, 100*n.String+n.Fret)
			}
		}
		return out
	}
	a, b := frets("shape G"), frets("shape A")
	for i := range a {
		assert.Equal(t, a[i]+2, b[i], "two frets higher on the same string")
		assert.Positive(t, a[i]%100)
	}
}

// Three against two on its common grid of six, with a syllable on each stroke: common
// practice, no source; the phrase is our own.
func TestGrid(t *testing.T) {
	spec, err := Parse("cross 3:2")
	require.NoError(t, err)
	assert.Equal(t, &Grid{Cells: 6, Right: []int{0, 2, 4}, Left: []int{0, 3}, Says: []Said{{0, "Sea,"}, {2, "salt"}, {3, "and"}, {4, "sand"}}}, spec.Grid())
	assert.Nil(t, Spec{Kind: Scale}.Grid())
	for m := 2; m <= 5; m++ {
		for n := 2; n <= 5; n++ {
			if m == n {
				continue
			}
			g := Spec{Kind: Cross, Pick: fmt.Sprintf("%d:%d", m, n)}.Grid()
			require.NotNil(t, g)
			strokes := map[int]bool{}
			for _, cell := range append(g.Right, g.Left...) {
				strokes[cell] = true
			}
			assert.Len(t, g.Right, m)
			assert.Len(t, g.Left, n)
			assert.Len(t, g.Says, len(strokes), "%d against %d: a syllable a stroke", m, n)
			s := made(t, fmt.Sprintf("cross %d:%d", m, n), "piano")
			for _, b := range s.Parts[0].Bars {
				assert.Equal(t, score.Quarters(n), b.Length)
			}
			assert.Equal(t, m, playing(s, 3, 1))
			assert.Equal(t, n, playing(s, 3, 2))
			assert.Zero(t, playing(s, 1, 1), "the left hand alone")
			assert.Zero(t, playing(s, 0, 2), "the right hand alone")
		}
	}
}

// playing counts the notes of a staff in a bar.
func playing(s score.Score, bar, staff int) int {
	n := 0
	for _, note := range s.Parts[0].Bars[bar].Notes {
		if note.Staff == staff && !note.Rest {
			n++
		}
	}
	return n
}

// What a study of meeting notes leaves out is silent in both hands, and what it plays has
// the same finger in both or a crossed pair.
func TestOnlyWhereHandsMeet(t *testing.T) {
	for _, tonic := range majors {
		s := made(t, "meetings "+tonic, "piano")
		right, fingers := tune(s, 1)
		left, under := tune(s, 2)
		assert.Len(t, strings.Fields(right), len(strings.Fields(left)), tonic)
		r, l := strings.Fields(fingers), strings.Fields(under)
		all := len(r) - 29 // after the study comes the scale of two octaves
		assert.Positive(t, all, tonic)
		for i := range all {
			crossed := i > 0 && r[i] == l[i-1] && r[i-1] == l[i] || i+1 < all && r[i] == l[i+1] && r[i+1] == l[i]
			assert.True(t, r[i] == l[i] || crossed, "%s: %s with %s", tonic, r[i], l[i])
		}
	}
}

// Six levels and back again: as many marks, in order.
func TestLevelsAreMarked(t *testing.T) {
	for text, want := range map[string]string{
		"levels C": "pp p mp mf f ff pp p mp mf f ff", "shaped C": "pp p mp mf f ff f mf mp p pp",
		"voicing C": "right full, left without sound right loud, left soft left full, right without sound left loud, right soft",
	} {
		var got []string
		for _, b := range made(t, text, "piano").Parts[0].Bars {
			for _, m := range b.Marks {
				got = append(got, m.Text)
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
}

// Which fingers of a cello touch in D, string by string from the A: common practice, no
// source.
func TestWhichNeighboursTouch(t *testing.T) {
	var got []string
	for _, b := range made(t, "pattern D", "cello").Parts[0].Bars {
		for _, m := range b.Marks {
			got = append(got, m.Text)
		}
	}
	assert.Equal(t, []string{"C sharp and D touch", "F sharp and G touch", "none touch", "none touch"}, got)
}
