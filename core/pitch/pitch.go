// Package pitch holds written pitches and key signatures.
//
// A Pitch is a spelling, not a frequency: F#4 and Gb4 differ. Octaves are
// numbered so that C4 is middle C and B3 lies just below it.
package pitch

import (
	"fmt"
	"strconv"
	"strings"
)

// A Pitch is a letter, an alteration and an octave. The zero Pitch is not a
// pitch: its String is "". Pitches compare with ==; equal means spelt alike.
type Pitch struct {
	step   byte // 'A'..'G', or 0 in the zero Pitch
	alter  int8 // semitones: 1 sharp, -1 flat
	octave int8
}

const letters = "CDEFGAB"

// By letter: semitones above C, and steps above C.
var (
	semitones = [256]int{'C': 0, 'D': 2, 'E': 4, 'F': 5, 'G': 7, 'A': 9, 'B': 11}
	steps     = [256]int{'C': 0, 'D': 1, 'E': 2, 'F': 3, 'G': 4, 'A': 5, 'B': 6}
)

// New returns the pitch with the given letter (A to G), alteration (-2 to 2)
// and octave (-1 to 10).
func New(step byte, alter, octave int) (Pitch, error) {
	if strings.IndexByte(letters, step) < 0 {
		return Pitch{}, fmt.Errorf("a pitch letter is A to G, not %q", step)
	}
	if alter < -2 || alter > 2 {
		return Pitch{}, fmt.Errorf("%c is altered by %d semitones; at most two are written", step, alter)
	}
	if octave < -1 || octave > 10 {
		return Pitch{}, fmt.Errorf("octave %d is outside -1 to 10", octave)
	}
	return Pitch{step, int8(alter), int8(octave)}, nil
}

// Parse reads the form String writes: "F#4", "Bb3", "C##5".
func Parse(s string) (Pitch, error) {
	if s == "" {
		return Pitch{}, fmt.Errorf("a pitch is a letter, # or b, and an octave, such as F#4")
	}
	rest, alter := s[1:], 0
	for rest != "" && (rest[0] == '#' || rest[0] == 'b') {
		if rest[0] == '#' {
			alter++
		} else {
			alter--
		}
		rest = rest[1:]
	}
	octave, err := strconv.Atoi(rest)
	if err != nil {
		return Pitch{}, fmt.Errorf("%q has no octave number", s)
	}
	return New(s[0], alter, octave)
}

// String writes the pitch with # for sharp and b for flat.
func (p Pitch) String() string {
	if p.step == 0 {
		return ""
	}
	if p.octave >= 0 && p.octave <= 9 {
		names, long := spelled[p.alter+2], 2+abs(int(p.alter))
		at := long * (10*steps[p.step] + int(p.octave))
		return names[at : at+long]
	}
	return string(p.step) + marks[p.alter+2] + strconv.Itoa(int(p.octave))
}

// By alteration, from two flats up: its mark, and the names of all pitches with an octave of one figure, side by side.
var (
	marks   = [5]string{"bb", "b", "", "#", "##"}
	spelled = func() (all [5]string) {
		for i, mark := range marks {
			var b strings.Builder
			for _, letter := range letters {
				for octave := '0'; octave <= '9'; octave++ {
					b.WriteRune(letter)
					b.WriteString(mark)
					b.WriteRune(octave)
				}
			}
			all[i] = b.String()
		}
		return all
	}()
)

// MarshalText writes the form String writes.
func (p Pitch) MarshalText() ([]byte, error) { return []byte(p.String()), nil }

// UnmarshalText reads what MarshalText wrote; nothing is the zero Pitch.
func (p *Pitch) UnmarshalText(text []byte) error {
	if len(text) == 0 {
		*p = Pitch{}
		return nil
	}
	var err error
	*p, err = Parse(string(text))
	return err
}

// Valid reports whether p is a pitch at all.
func (p Pitch) Valid() bool { return p.step != 0 }

// Step returns the letter, 'A' to 'G'.
func (p Pitch) Step() byte { return p.step }

// Alter returns the alteration in semitones.
func (p Pitch) Alter() int { return int(p.alter) }

// Octave returns the octave; middle C opens octave 4.
func (p Pitch) Octave() int { return int(p.octave) }

// MIDI returns the key number of the General MIDI keyboard: C4 is 60.
func (p Pitch) MIDI() int { return 12*(int(p.octave)+1) + semitones[p.step] + int(p.alter) }

// Line returns the place on an endless staff, in steps above C0, whatever the
// alteration: C4 is 28, D4 is 29.
func (p Pitch) Line() int { return 7*int(p.octave) + steps[p.step] }

// A Key is a key signature: sharps counted up, flats down, and the mode's name.
type Key struct {
	Fifths int    `json:"fifths" doc:"sharps, or flats as a negative number"`
	Mode   string `json:"mode" doc:"major, minor or a church mode; empty when not stated"`
}

// sharps lists letters in the order a key signature gains sharps (and, from
// the end, flats).
const sharps = "FCGDAEB"

// Alter returns what the signature does to a letter, in semitones.
func (k Key) Alter(step byte) int {
	i := strings.IndexByte(sharps, step)
	switch {
	case i < 0:
		return 0
	case k.Fifths > 0:
		return (k.Fifths - i + 6) / 7
	case k.Fifths < 0:
		return -((-k.Fifths - (6 - i) + 6) / 7)
	}
	return 0
}

// modes places each mode's signature against the major of the same tonic.
var modes = map[string]int{
	"major": 0, "ionian": 0, "mixolydian": -1, "dorian": -2, "minor": -3,
	"aeolian": -3, "phrygian": -4, "locrian": -5, "lydian": 1,
}

// KeyOf returns the signature of a tonic such as "F#" in a mode such as
// "dorian". It refuses keys beyond seven sharps or flats.
func KeyOf(tonic, mode string) (Key, error) {
	shift, ok := modes[mode]
	if !ok {
		return Key{}, fmt.Errorf("%q is not a mode this program knows", mode)
	}
	if tonic == "" || strings.IndexByte(sharps, tonic[0]) < 0 {
		return Key{}, fmt.Errorf("%q is not a tonic", tonic)
	}
	fifths := strings.IndexByte(sharps, tonic[0]) - 1
	switch tonic[1:] {
	case "":
	case "#":
		fifths += 7
	case "b":
		fifths -= 7
	default:
		return Key{}, fmt.Errorf("%q is not a tonic", tonic)
	}
	fifths += shift
	if fifths < -7 || fifths > 7 {
		return Key{}, fmt.Errorf("%s %s would need more than seven accidentals", tonic, mode)
	}
	return Key{fifths, mode}, nil
}

// String names the key by its tonic: "D major", "B minor". A signature
// without a mode is named as the major.
func (k Key) String() string {
	mode := k.Mode
	if mode == "" {
		mode = "major"
	}
	i := k.Fifths - modes[mode] + 1
	accidental := ""
	for ; i < 0; i += 7 {
		accidental += "b"
	}
	for ; i > 6; i -= 7 {
		accidental += "#"
	}
	return string(sharps[i]) + accidental + " " + mode
}

func abs(n int) int {
	if n < 0 {
		return -n
	}
	return n
}

// Spell returns the usual spelling of a MIDI key number (0 to 127) in a key:
// the seven notes of the signature, and around them from the lowered third to
// the raised fifth of its major. Common practice, no source.
func (k Key) Spell(midi int) Pitch {
	const home = 1 // place of C in the line of fifths that sharps spells from F
	for fifths := k.Fifths + home - 4; fifths <= k.Fifths+home+7; fifths++ {
		i, alter := fifths%7, fifths/7
		if i < 0 {
			i, alter = i+7, alter-1
		}
		p := Pitch{step: sharps[i], alter: int8(alter)}
		if above := midi - p.MIDI(); above%12 == 0 {
			p.octave = int8(above / 12)
			return p
		}
	}
	return Pitch{}
}

// Tonic returns the key's first degree as semitones above C, 0 to 11.
func (k Key) Tonic() int {
	// a signature without a mode is named as the major
	return ((7*(k.Fifths-modes[k.Mode]))%12 + 12) % 12
}

// MustParse is Parse for pitches written in the program; it panics on a fault.
func MustParse(s string) Pitch {
	p, err := Parse(s)
	if err != nil {
		panic(err)
	}
	return p
}

// MustParseAll is MustParse of each name.
func MustParseAll(names ...string) []Pitch {
	out := make([]Pitch, len(names))
	for i, name := range names {
		out[i] = MustParse(name)
	}
	return out
}

// Octaves returns the pitch n octaves higher.
func (p Pitch) Octaves(n int) Pitch {
	p.octave += int8(n)
	return p
}
