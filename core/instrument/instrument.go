// Package instrument holds the profiles of instruments: what a rule needs to know
// of one, told once. No rule elsewhere asks for an instrument by name; it asks the
// profile. An instrument of a known family is one entry in that family's file.
//
// Pitches are as they sound, in scientific notation (A4 is 440 Hz), unless a field
// says that they are as written. All profiles are common practice, no source.
package instrument

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/judgement"
	"patientladder/core/pitch"
)

// A Family says what hands do on an instrument, and which skills it shares.
type Family string

// The families. Shared is that of skills which belong to no instrument.
const (
	Shared   Family = "shared"
	Keyboard Family = "keyboard"
	Bowed    Family = "bowed"
	Plucked  Family = "plucked"
	Other    Family = "other" // winds, voice, anything: shared skills only
)

// Families lists those that an instrument may be of.
var Families = []Family{Keyboard, Bowed, Plucked, Other}

// An ID names a profile; of the shipped ones it is a short word.
type ID string

// A Seat is how one sits or stands to an instrument.
type Seat string

// The seats.
const (
	AtKeys   Seat = "keys"      // elbow by the height of the keys
	Spike    Seat = "spike"     // on a chair's front, the instrument on its spike
	Footrest Seat = "footstool" // one foot raised
	Standing Seat = "standing"  // or on a plain chair
)

// Seats lists them.
var Seats = []Seat{AtKeys, Spike, Footrest, Standing}

// A Profile is one instrument. The zero Profile is an instrument of which nothing is
// known but that it is played.
type Profile struct {
	ID     ID
	Name   string
	Family Family
	// Kin is the instrument on whose shelf its pieces stand: a keyboard of 61 keys
	// plays from the piano's. Empty for a shelf of its own.
	Kin  ID
	Keys int // of a keyboard; 0 for a full one or for none

	Strings []pitch.Pitch // open, string 1 first; none where there are no strings
	Drone   int           // the number of a string that is only plucked open; 0 for none
	Frame   Frame         // how the hand lies on the strings
	Roll    []string      // the plucking hand's usual finger by string; empty for bow and plectrum

	Clef    string // of its usual staff: sign and line, "G2", "C3", "F4"; with an octave, "G2-8"
	Written int    // semitones from its sound to how it is written: 12 for a guitar
	Low     pitch.Pitch
	High    pitch.Pitch // the usual compass, as written; invalid where none is told

	Seat   Seat
	Holds  string   // the skill of holding it at rest, the first of all; empty for none
	First  []string // skills of its own that the first book takes for granted
	Points []string // focus points of its own that a piece starts with
	Own    bool     // a teacher's

	SmallHand bool // whose hand opens no further than five keys, as PlayedAt has it
}

func (p Profile) String() string { return p.Name }

// PlayedAt returns the instrument in the hands of somebody of an age in years.
func (p Profile) PlayedAt(age int) Profile {
	p.SmallHand = float64(age) < judgement.HandOpens
	return p
}

// Shelf returns the instrument on whose shelf its pieces stand.
func (p Profile) Shelf() ID {
	if p.Kin != "" {
		return p.Kin
	}
	return p.ID
}

// HandsApart reports whether one hand alone makes music on it, so that hands can be
// practised, or rested, one at a time.
func (p Profile) HandsApart() bool { return p.Family == Keyboard }

// Fretted reports whether its strings have frets.
func (p Profile) Fretted() bool { return len(p.Strings) > 0 && p.Frame.Fretted }

// Thumb is the letter of the thumb of its plucking hand.
func (p Profile) Thumb() string {
	if slices.Contains(p.Roll, "t") {
		return "t"
	}
	return "p"
}

// clefTops are the top lines of staves by clef, as pitch.Pitch.Line.
var clefTops = map[string]pitch.Pitch{
	"G2": pitch.MustParse("F5"), "G2-8": pitch.MustParse("F4"), "G2+8": pitch.MustParse("F6"),
	"C3": pitch.MustParse("G4"), "C4": pitch.MustParse("E4"), "F4": pitch.MustParse("A3"), "F4-8": pitch.MustParse("A2"),
}

// Clefs lists the clefs that a profile may name.
var Clefs = []string{"G2", "G2-8", "G2+8", "C3", "C4", "F4", "F4-8"}

// Ledger returns the first line or space, as pitch.Pitch.Line, that is far above the
// instrument's staff: a second ledger line, the first on frets.
func (p Profile) Ledger() int {
	top, known := clefTops[p.Clef]
	if !known {
		top = clefTops["G2"]
	}
	if p.Family == Plucked {
		return clefTops["G2"].Line() + 2 // as written, whatever the small 8 says
	}
	return top.Line() + 4
}

// Check says what is wrong with a profile.
func (p Profile) Check() error {
	name := strings.TrimSpace(p.Name)
	switch {
	case name == "" || len(name) > 60:
		return fmt.Errorf("an instrument needs a name of at most 60 letters")
	case !slices.Contains(Families, p.Family):
		return fmt.Errorf("%q is not a family: keyboard, bowed, plucked or other", p.Family)
	case p.Keys != 0 && (p.Family != Keyboard || p.Keys < 25 || p.Keys > 97):
		return fmt.Errorf("a keyboard has 25 to 97 keys, not %d", p.Keys)
	case p.Clef != "" && !slices.Contains(Clefs, p.Clef):
		return fmt.Errorf("%q is not a clef here: %s", p.Clef, strings.Join(Clefs, ", "))
	case p.Written < -36 || p.Written > 36:
		return fmt.Errorf("an instrument is written at most three octaves from its sound, not %d semitones", p.Written)
	case p.stringed() && (len(p.Strings) < 1 || len(p.Strings) > 10):
		return fmt.Errorf("name one to ten open strings, the highest first")
	case !p.stringed() && len(p.Strings) > 0:
		return fmt.Errorf("only bowed and plucked instruments have strings here")
	case p.Drone < 0 || p.Drone > len(p.Strings):
		return fmt.Errorf("the string that only sounds open is one of the %d", len(p.Strings))
	case p.stringed() && p.Frame.Name == "":
		return fmt.Errorf("say how the hand lies on the strings")
	case p.Seat != "" && !slices.Contains(Seats, p.Seat):
		return fmt.Errorf("%q is not a seat: keys, spike, footstool or standing", p.Seat)
	case p.Low.Valid() && p.High.Valid() && p.Low.MIDI() >= p.High.MIDI():
		return fmt.Errorf("the highest note, %s, must lie above the lowest, %s", p.High, p.Low)
	}
	for i, s := range p.Strings {
		if m := s.MIDI(); m < 12 || m > 108 {
			return fmt.Errorf("string %d is %s, which no string is tuned to here", i+1, s)
		}
	}
	return nil
}

func (p Profile) stringed() bool { return p.Family == Bowed || p.Family == Plucked }

// A Set is the instruments of a studio: the shipped ones and its own.
type Set []Profile

// Shipped are the instruments that come with the program, in the order they are
// offered.
var Shipped = slices.Concat(Set{}, keyboards, bowed, plucked)

// Of returns the profile of an id: for one that is not there a zero profile with
// that id, of the family Other.
func (s Set) Of(id ID) Profile {
	if p, there := s.Find(id); there {
		return p
	}
	return Profile{ID: id, Name: string(id), Family: Other}
}

// Find returns the profile of an id, if it is there.
func (s Set) Find(id ID) (Profile, bool) {
	i := slices.IndexFunc(s, func(p Profile) bool { return p.ID == id })
	if i < 0 {
		return Profile{}, false
	}
	return s[i], true
}

// Named returns the instrument of a name or an id, whatever its capitals.
func (s Set) Named(name string) (Profile, bool) {
	name = strings.TrimSpace(name)
	i := slices.IndexFunc(s, func(p Profile) bool {
		return strings.EqualFold(string(p.ID), name) || strings.EqualFold(p.Name, name)
	})
	if i < 0 {
		return Profile{}, false
	}
	return s[i], true
}

// Names lists the names, as in a sentence.
func (s Set) Names() string {
	names := make([]string, 0, len(s))
	for _, p := range s {
		names = append(names, p.Name)
	}
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " or " + names[n-1]
	}
	return strings.Join(names, "")
}

// With returns the set with a studio's own instruments, which take the place of
// those with the same id.
func (s Set) With(own []Profile) Set {
	if len(own) == 0 {
		return s
	}
	out := slices.Clone(s)
	for _, p := range own {
		if i := slices.IndexFunc(out, func(q Profile) bool { return q.ID == p.ID }); i >= 0 {
			out[i] = p
		} else {
			out = append(out, p)
		}
	}
	return out
}

// Shelves lists the instruments that have a shelf of their own, in the set's order.
func (s Set) Shelves() []ID {
	var out []ID
	for _, p := range s {
		if id := p.Shelf(); !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	return out
}

// Together reports whether a player of one instrument plays what is written for the
// other.
func (s Set) Together(a, b ID) bool { return s.Of(a).Shelf() == s.Of(b).Shelf() }

// Complete fills in what a teacher's form does not ask for, from the set's first
// instrument of the same family and hand: the roll of the plucking hand by as many
// strings, the skill of holding, the first skills and points.
func (s Set) Complete(p Profile) Profile {
	i := slices.IndexFunc(s, func(q Profile) bool { return q.Family == p.Family && q.Frame.Name == p.Frame.Name })
	if i < 0 {
		return p
	}
	like := s[i]
	if kin, there := s.Find(p.Kin); there {
		like = kin
	}
	p.Holds, p.First, p.Points = like.Holds, like.First, like.Points
	if p.Seat == "" {
		p.Seat = like.Seat
	}
	if p.Clef == "" {
		p.Clef = like.Clef
	}
	if len(like.Roll) > 0 {
		p.Roll = nil
		for n := range p.Strings {
			p.Roll = append(p.Roll, like.Roll[min(n, len(like.Roll)-1)])
		}
	}
	return p
}
