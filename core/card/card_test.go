package card

import (
	"flag"
	"fmt"
	"maps"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reason"
	"patientladder/words"
)

// english are the words in which these tests read cards.
var english = words.In(words.Reader{})

func deck(t *testing.T, kinds, on string) []Card {
	t.Helper()
	list, err := Parse(kinds)
	require.NoError(t, err)
	return Deck(list, instrument.Shipped.Of(instrument.ID(on)))
}

// told writes what a card shows and what is right.
func told(c Card) string {
	var shown []string
	for _, p := range c.Score.Parts {
		for _, n := range p.Bars[0].Notes {
			if n.Rest {
				shown = append(shown, "-")
				continue
			}
			shown = append(shown, n.Pitch.String())
		}
	}
	return strings.Join(shown, " ") + " = " + english.Reason(c.Right)
}

// What is shown and when it is right, the first cards of each deck: common practice, no
// source.
func TestWhatIsAsked(t *testing.T) {
	for _, c := range []struct {
		kinds, on string
		want      []string
	}{
		{"direction", "piano", []string{"G4 G4 A4 = same, up", "G4 A4 A4 = up, same", "G4 F4 F4 = down, same"}},
		{"landmarks", "piano", []string{"C4 = C, the middle C, left of the two black keys in the middle", "G4 = G, the first one above the middle C", "F3 = F, the first one below the middle C", "C5 = C, an octave above the middle C", "C3 = C, an octave below the middle C"}},
		{"landmarks", "cello", []string{"D3 = D, the open string 2", "A3 = A, the open string 1", "G2 = G, the open string 3", "C2 = C, the open string 4"}},
		{"landmarks", "violin", []string{"A4 = A, the open string 2", "E5 = E, the open string 1", "D4 = D, the open string 3", "G3 = G, the open string 4"}},
		{"names", "piano", []string{"D4 = D, the first one above the middle C", "B3 = B, the first one below the middle C", "A4 = A, the first one above the middle C"}},
		{"steps", "piano", []string{"C4 D4 = a step up: D", "C4 B3 = a step down: B"}},
		{"skips", "piano", []string{"C4 E4 = a skip up: E", "C4 A3 = a skip down: A"}},
		{"fourths", "piano", []string{"C4 F4 = a fourth up: F", "C4 G3 = a fourth down: G", "C4 G4 = a fifth up: G"}},
		{"wide", "piano", []string{"C4 A4 = a sixth up: A", "C4 E3 = a sixth down: E"}},
		{"ledger", "piano", []string{"A5 = A, the second one above the middle C", "C4 = C, the middle C, left of the two black keys in the middle"}},
		{"accidentals", "piano", []string{"F#4 = F sharp: the black key just right of F", "Bb4 = B flat: the black key just left of B"}},
		{"accidentals", "cello", []string{"F#3 = F sharp, on the D string", "Bb3 = B flat, on the A string"}},
		{"staves", "piano", []string{"C4 C3 = C below, C above", "G4 C3 = C below, G above"}},
		{"other-clef", "cello", []string{"C4 = C, on the A string"}},
		{"rhythm", "guitar", []string{"G4 G4 G4 = 1 2 3", "G4 G4 G4 = 1 3 4", "G4 G4 G4 G4 = 1 2 and 3"}},
		{"rests", "piano", []string{"G4 - G4 = 1 hush 3"}},
		{"signatures", "piano", []string{"C5 = C major or A minor", "G4 = G major or E minor", "F4 = F major or D minor", "D5 = D major or B minor", "Bb4 = B flat major or G minor"}},
		{"half-whole", "piano", []string{"E4 F4 = a semitone", "C5 D5 = a tone", "B4 C5 = a semitone"}},
		{"major-five", "piano", []string{"C5 D5 E5 F5 G5 = E and F"}},
		{"minor-five", "piano", []string{"C5 D5 E5 F5 G5 = C major", "C5 D5 Eb5 F5 G5 = C minor"}},
		{"chords", "piano", []string{"C5 E5 G5 = C: home", "G5 B5 D6 = G: away", "F5 A5 C6 = F: neither home nor away"}},
		{"strings", "guitar", []string{"E5 = string 1, E", "B4 = string 2, B", "G4 = string 3, G", "D4 = string 4, D"}},
		{"tablature", "guitar", []string{" = E: string 1, fret 0", " = B: string 2, fret 0"}},
	} {
		var got []string
		for _, card := range deck(t, c.kinds, c.on) {
			got = append(got, told(card))
		}
		require.GreaterOrEqual(t, len(got), len(c.want), c.kinds)
		assert.Equal(t, c.want, got[:len(c.want)], "%s of the %s", c.kinds, c.on)
	}
	assert.Empty(t, deck(t, "tablature", "violin"))
	assert.Empty(t, deck(t, "staves", "cello"))
	_, err := Parse("landmarks, colours")
	assert.ErrorContains(t, err, "colours")
}

// Every deck of every instrument: ids once, and what is shown can be drawn and read again.
func TestAllCards(t *testing.T) {
	for _, on := range instrument.Shipped {
		for kind := range makers {
			seen := map[string]bool{}
			for _, c := range Deck([]Kind{kind}, on) {
				assert.False(t, seen[c.ID], "%s stands twice for the %s", c.ID, on)
				seen[c.ID] = true
				assert.NotEmpty(t, c.Asks.Code)
				assert.NotEmpty(t, c.Shown.Code, c.ID)
				assert.NotEmpty(t, c.Right.Code)
				if len(c.Stops) > 0 {
					continue
				}
				again, err := notation.Read("card.musicxml", musicxml.Write(c.Score))
				require.NoError(t, err, c.ID)
				assert.Equal(t, c.Score.Pitches(), again.Pitches(), c.ID)
			}
		}
	}
}

// A deck grows: three new cards at once; what is passed and lasts makes room; what failed
// comes first.
func TestDeckGrows(t *testing.T) {
	cards := deck(t, "landmarks, steps", "piano")
	day := func(d int) time.Time { return time.Date(2026, 9, d, 16, 0, 0, 0, time.UTC) }
	ids := func(h Hand) (out []string) {
		for _, c := range h.Cards {
			out = append(out, c.ID)
		}
		return out
	}
	for _, c := range []struct {
		name    string
		answers []Answer
		at      int
		want    []string
		known   int
	}{
		{"nothing asked yet: three new ones", nil, 1, []string{"landmarks C4", "landmarks G4", "landmarks F3"}, 0},
		{"one passed once is not known yet", []Answer{{"landmarks C4", fact.Pass, day(1)}}, 1, []string{"landmarks C4", "landmarks G4", "landmarks F3"}, 0},
		{"passed a week apart it is, and makes room", []Answer{{"landmarks C4", fact.Pass, day(1)}, {"landmarks C4", fact.Pass, day(8)}}, 9, []string{"landmarks G4", "landmarks F3", "landmarks C5", "landmarks C4"}, 1},
		{"failed after that it is due first", []Answer{{"landmarks C4", fact.Pass, day(1)}, {"landmarks C4", fact.Pass, day(8)}, {"landmarks C4", fact.NotYet, day(9)}}, 9, []string{"landmarks C4", "landmarks G4", "landmarks F3"}, 0},
		{"three open leave no room for new ones", []Answer{{"landmarks C4", fact.NotYet, day(1)}, {"landmarks G4", fact.Nearly, day(1)}, {"landmarks F3", fact.Pass, day(1)}}, 3, []string{"landmarks C4", "landmarks G4", "landmarks F3"}, 0},
	} {
		h := Next(cards, States(c.answers, day(c.at)), 4)
		assert.Equal(t, c.want, ids(h), c.name)
		assert.Equal(t, c.known, h.Known, c.name)
		assert.Equal(t, len(cards), h.Of)
	}
	long := States([]Answer{{"landmarks C4", fact.Pass, day(1)}, {"landmarks C4", fact.Pass, day(8)}}, day(8).AddDate(0, 2, 0))
	assert.Equal(t, "landmarks C4", ids(Next(cards, long, 4))[0], "known long ago, it is asked again first")
}

var update = flag.Bool("update", false, "write testdata/decks.txt anew")

// Every card of every deck for three instruments, as it is drawn, asked, shown again and right:
// whoever changes a rule sees which cards it changes. What they say is common practice, no source.
func TestEveryCard(t *testing.T) {
	var out strings.Builder
	for _, on := range []string{"piano", "cello", "guitar"} {
		plays := instrument.Shipped.Of(instrument.ID(on))
		for _, kind := range slices.Sorted(maps.Keys(makers)) {
			for _, c := range Deck([]Kind{kind}, plays) {
				fmt.Fprintf(&out, "%s | %s | %s | %s | %s | %s\n", on, c.ID, drawn(c), inWords(c.Asks), inWords(c.Shown), inWords(c.Right))
			}
		}
	}
	if *update {
		require.NoError(t, os.WriteFile("testdata/decks.txt", []byte(out.String()), 0o644))
	}
	want, err := os.ReadFile("testdata/decks.txt")
	require.NoError(t, err)
	assert.Equal(t, strings.Split(string(want), "\n"), strings.Split(out.String(), "\n"))
}

// drawn writes a card's notes with their places, clefs, key and meter, or its tablature.
func drawn(c Card) string {
	var out []string
	for _, p := range c.Score.Parts {
		for _, b := range p.Bars {
			for _, clef := range b.Clefs {
				out = append(out, fmt.Sprintf("%s%d/%d", clef.Sign, clef.Line, clef.Staff))
			}
			if b.Key != nil {
				out = append(out, fmt.Sprintf("key %d", b.Key.Fifths))
			}
			if b.Meter != nil {
				out = append(out, fmt.Sprintf("%d/%d", b.Meter.Beats, b.Meter.BeatType))
			}
			for _, n := range b.Notes {
				name := n.Pitch.String()
				if n.Rest {
					name = "-"
				}
				out = append(out, fmt.Sprintf("%s@%s+%s/%d", name, n.Onset, n.Duration, n.Staff))
			}
		}
	}
	for _, s := range c.Stops {
		out = append(out, fmt.Sprintf("string %d fret %d", s.String, s.Fret))
	}
	return strings.Join(out, " ")
}

func inWords(r reason.Reason) string { return english.Reason(r) }
