// Package card makes reading and theory cards by rule: what is shown, what is asked, and
// when it is right.
//
// A deck is named by what it asks ("landmarks"), several by a list ("steps, skips"). Its
// cards come in an order, the nearest first, and grow with what is known (hand.go). What
// is shown is written for the instrument: its clef, its strings, its compass. All of it is
// common practice, no source.
package card

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
	"patientladder/core/score"
)

// A Kind says what the cards of a deck ask.
type Kind string

// The kinds.
const (
	Direction  Kind = "direction"   // up, down or same
	Landmarks  Kind = "landmarks"   // which it is, and where it lies
	Names      Kind = "names"       // notes between landmarks
	Steps      Kind = "steps"       // from a landmark, which way, how far, which note
	Skips      Kind = "skips"       //
	Fourths    Kind = "fourths"     // and fifths
	Wide       Kind = "wide"        // sixths to octaves
	Ledger     Kind = "ledger"      // beyond the staff
	Accidental Kind = "accidentals" // which key, or where on the string
	Staves     Kind = "staves"      // two notes on two staves
	OtherClef  Kind = "other-clef"  // notes in the clef that the instrument reads beside its own
	Rhythm     Kind = "rhythm"      // to be said
	Rests      Kind = "rests"       // to be said, with its silences
	Signatures Kind = "signatures"  // major and minor key
	HalfWhole  Kind = "half-whole"  // half or whole step
	MajorFive  Kind = "major-five"  // what makes five notes major
	MinorFive  Kind = "minor-five"  //
	Chords     Kind = "chords"      // which, and home or away
	Strings    Kind = "strings"     // number and name
	Tablature  Kind = "tablature"   // which note, which string
)

// A Card shows something and asks for something.
type Card struct {
	ID    string // among all cards of an instrument
	Score score.Score
	Shown reason.Reason // the same in words, for where it cannot be drawn
	Stops []Stop        // of tablature, in order; the score is then empty
	Asks  reason.Reason
	Right reason.Reason
}

// A Stop is a sign of tablature.
type Stop struct {
	String int `json:"string"`
	Fret   int `json:"fret"`
}

// A maker makes the cards of a kind for an instrument, in the order in which they grow.
type maker func(table) []Card

var makers = map[Kind]maker{
	Direction: directions, Landmarks: landmarks, Names: between, Steps: distances(1), Skips: distances(2), Fourths: distances(3, 4), Wide: distances(5, 6, 7),
	Ledger: ledger, Accidental: accidentals, Staves: staves, OtherClef: otherClef, Rhythm: rhythms(plainRhythms), Rests: rhythms(restRhythms),
	Signatures: signatures, HalfWhole: halfWhole, MajorFive: fives(true), MinorFive: fives(false), Chords: chords, Strings: byString, Tablature: tablature,
}

// Parse reads the kinds of a deck.
func Parse(text string) ([]Kind, error) {
	var out []Kind
	for part := range strings.SplitSeq(text, ",") {
		k := Kind(strings.TrimSpace(part))
		if makers[k] == nil {
			return nil, fmt.Errorf("%q is not a set of flashcards: %s", k, strings.Join(kinds(), ", "))
		}
		out = append(out, k)
	}
	return out, nil
}

func kinds() []string {
	var out []string
	for k := range makers {
		out = append(out, string(k))
	}
	slices.Sort(out)
	return out
}

// Deck returns the cards of some kinds for an instrument, kind by kind. A kind that the
// instrument has nothing of (tablature at a keyboard) gives none.
func Deck(kinds []Kind, on instrument.Profile) []Card {
	t := tableOf(on)
	var out []Card
	for _, k := range kinds {
		for _, c := range makers[k](t) {
			c.ID = string(k) + " " + c.ID
			out = append(out, c)
		}
	}
	return out
}

// A table is what cards are made from: the staff of an instrument and its landmarks.
type table struct {
	on        instrument.Profile
	clef      score.Clef
	open      []pitch.Pitch // strings as written, string 1 first
	landmarks []pitch.Pitch // nearest first
	low, high pitch.Pitch   // the staff with a ledger line either side, in the compass
}

// staffs are the clefs that instruments read: their bottom lines.
var staffs = map[string]pitch.Pitch{
	"G2": pitch.MustParse("E4"), "F4": pitch.MustParse("G2"), "C3": pitch.MustParse("F3"), "C4": pitch.MustParse("D3"),
}

func clefNamed(name string) score.Clef {
	return score.Clef{Staff: 1, Sign: name[:1], Line: int(name[1] - '0')}
}

func tableOf(on instrument.Profile) table {
	name, _, _ := strings.Cut(on.Clef, "-")
	if staffs[name].Step() == 0 {
		name = "G2"
	}
	t := table{on: on, clef: clefNamed(name)}
	bottom := staffs[name]
	t.low, t.high = bottom.Octaves(-1), bottom.Octaves(2)
	for _, p := range on.Strings {
		t.open = append(t.open, p.Octaves(on.Written/12))
	}
	if on.Low.Valid() && on.Low.Line() > t.low.Line() {
		t.low = on.Low
	}
	if on.High.Valid() && on.High.Line() < t.high.Line() {
		t.high = on.High
	}
	switch {
	case on.Family == instrument.Keyboard:
		t.landmarks = pitch.MustParseAll("C4", "G4", "F3", "C5", "C3")
	case len(t.open) > 0: // open strings on or near the staff, from the middle of the staff outwards
		for _, p := range t.open {
			if p.Line() >= bottom.Line()-8 && p.Line() <= bottom.Line()+10 && !slices.Contains(t.landmarks, p) {
				t.landmarks = append(t.landmarks, p)
			}
		}
		slices.SortStableFunc(t.landmarks, func(a, b pitch.Pitch) int { return fromMiddle(a, bottom) - fromMiddle(b, bottom) })
	default:
		for _, above := range []int{4, 2, 8, 0} { // the middle line, the line of a G clef, top and bottom
			t.landmarks = append(t.landmarks, natural(bottom.Line()+above))
		}
	}
	return t
}

func fromMiddle(p, bottom pitch.Pitch) int {
	return max(p.Line()-bottom.Line()-4, bottom.Line()+4-p.Line())
}

// natural returns the white note of a line of the endless staff.
func natural(line int) pitch.Pitch {
	p, err := pitch.New("CDEFGAB"[line%7], 0, line/7)
	if err != nil {
		return pitch.MustParse("C4")
	}
	return p
}

// clefFor is the clef that a keyboard's note stands in; the instrument's own for others.
func (t table) clefFor(p pitch.Pitch) score.Clef {
	if t.on.Family == instrument.Keyboard && p.Line() < pitch.MustParse("C4").Line() {
		return clefNamed("F4")
	}
	return t.clef
}

// shown writes notes, each as long as a bar holds them, under a clef.
func shown(clef score.Clef, key pitch.Key, notes ...pitch.Pitch) score.Score {
	bar := score.Bar{Length: score.Quarters(len(notes)), Clefs: []score.Clef{clef}, Key: &key}
	for i, p := range notes {
		bar.Notes = append(bar.Notes, score.Note{Onset: score.Quarters(i), Duration: score.Quarters(1), Pitch: p, Voice: 1, Staff: 1})
	}
	s := score.Score{Parts: []score.Part{{Staves: 1, Bars: []score.Bar{bar}}}}
	s.Finish()
	return s
}

// spot says where a note stands on the staff of a clef: "line 2 of the treble staff".
func spot(clef score.Clef, p pitch.Pitch) reason.Reason {
	from := p.Line() - staffs[clef.Sign+strconv.Itoa(clef.Line)].Line()
	staff := clefNames[clef.Sign+strconv.Itoa(clef.Line)]
	sign := map[int]string{-1: "flat", 1: "sharp"}[p.Alter()]
	switch {
	case from < -1 || from > 9:
		side, n := "below", (-from)/2
		if from > 9 {
			side, n = "above", (from-8)/2
		}
		where := "on"
		if from%2 != 0 {
			where = map[string]string{"below": "under", "above": "over"}[side]
		}
		return reason.Of("card-shown-ledger", "sign", sign, "where", where, "n", strconv.Itoa(n), "side", side, "staff", staff)
	case from%2 == 0:
		return reason.Of("card-shown-line", "sign", sign, "n", strconv.Itoa(from/2+1), "staff", staff)
	case from < 0:
		return reason.Of("card-shown-under", "sign", sign, "staff", staff)
	case from > 8:
		return reason.Of("card-shown-over", "sign", sign, "staff", staff)
	}
	return reason.Of("card-shown-space", "sign", sign, "n", strconv.Itoa(from/2+1), "staff", staff)
}

var clefNames = map[string]string{"G2": "treble", "F4": "bass", "C3": "alto", "C4": "tenor"}

// listed shows notes by their names.
func listed(notes []pitch.Pitch) reason.Reason {
	var all []string
	for _, p := range notes {
		all = append(all, name(p))
	}
	return reason.Of("card-shown-notes", "notes", strings.Join(all, " "))
}

// name is a pitch without its octave: F#.
func name(p pitch.Pitch) string { return strings.TrimRight(p.String(), "-0123456789") }

// where says which one of its name a note is: by the middle C on keys, by the string
// elsewhere. It is a place that catalogues name, with the number or note in it.
func (t table) where(p pitch.Pitch) string {
	if len(t.open) > 0 {
		for i, o := range t.open {
			if o == p {
				return "open " + strconv.Itoa(i+1)
			}
		}
		best := -1
		for i, o := range t.open {
			if i+1 != t.on.Drone && o.MIDI() <= p.MIDI() && (best < 0 || o.MIDI() > t.open[best].MIDI()) {
				best = i
			}
		}
		if best < 0 {
			return ""
		}
		return "string " + name(t.open[best])
	}
	if t.on.Family != instrument.Keyboard {
		return ""
	}
	switch octaves := p.Octave() - 4; {
	case p == pitch.MustParse("C4"):
		return "middle-c"
	case p.Step() == 'C' && octaves > 0:
		return "c-above " + strconv.Itoa(octaves)
	case p.Step() == 'C':
		return "c-below " + strconv.Itoa(-octaves)
	case octaves >= 1:
		return "second-above"
	case octaves == 0:
		return "first-above"
	case octaves == -1:
		return "first-below"
	}
	return "second-below"
}
