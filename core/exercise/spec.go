// Package exercise makes music by rule: scales, five-finger patterns, chords, long bows
// and rolls, from a short specification, as a score with its fingers.
//
// Everything is worked out from rules and nothing from tables: the notes from the key, a
// keyboard's fingers from where hand and black keys let the thumb pass (scale.go), the
// compass of strings from the instrument's profile. Facts of the trade are common
// practice, no source; the fingerings are checked against Hanon, The Virtuoso Pianist
// (1873), No. 39, from memory.
package exercise

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/pitch"
)

// A Kind says what an exercise is made of.
type Kind string

// The kinds. Five, Chord, Chromatic and Levels are for keyboards; Bows, Pattern and
// DoubleOpen for bowed strings; Roll for plucked ones; Scale for all.
const (
	Scale      Kind = "scale"
	Cycle      Kind = "cycle" // a scale of an octave in each of the twelve keys, by fifths
	Half       Kind = "half"  // the first four notes of a scale
	Five       Kind = "five"  // five fingers on five neighbouring keys
	Skips      Kind = "skips"
	Chord      Kind = "chord" // a triad in its positions, broken and at once
	Chromatic  Kind = "chromatic"
	Levels     Kind = "levels"      // six degrees of loudness on five fingers
	Bows       Kind = "bows"        // long bows and crossings on open strings
	Pattern    Kind = "pattern"     // the fingers of a key, string by string
	DoubleOpen Kind = "double-open" // neighbouring open strings, one by one, then together
	Roll       Kind = "roll"        // a fixed order of plucking fingers over open strings
)

// Kinds lists them.
var Kinds = []Kind{Scale, Cycle, Half, Five, Skips, Chord, Chromatic, Levels, Bows, Pattern, DoubleOpen, Roll}

// A Form says which notes a scale has.
type Form string

// The forms; a melodic minor falls as a natural one.
const (
	Major    Form = "major"
	Natural  Form = "natural"
	Harmonic Form = "harmonic"
	Melodic  Form = "melodic"
)

// Forms lists them.
var Forms = []Form{Major, Natural, Harmonic, Melodic}

// Hands says who plays, on keyboards.
type Hands string

// The hands: one, both in parallel, or both in mirrored motion.
const (
	Right    Hands = "right"
	Left     Hands = "left"
	Both     Hands = "both"
	Mirrored Hands = "mirrored"
)

// AllHands lists them.
var AllHands = []Hands{Right, Left, Both, Mirrored}

// MostOctaves is the widest scale.
const MostOctaves = 4

// A Spec says which exercise. The zero fields have their usual values.
type Spec struct {
	Kind    Kind
	Tonic   string // a letter with # or b; C when empty
	Form    Form   // Major when empty
	Hands   Hands  // of keyboards: Right when empty
	Octaves int    // 1 to MostOctaves; 1 when nought
	Fingers string // of a roll: plucking fingers in order, "pima"
}

// Parse reads a specification as it is written: its kind, then in any order a tonic, a
// form, hands, octaves, and for a roll the fingers: "scale Eb major both 2", "roll pami".
func Parse(text string) (Spec, error) {
	words := strings.Fields(text)
	if len(words) == 0 {
		return Spec{}, fmt.Errorf("an exercise names its kind: %s", kinds())
	}
	s := Spec{Kind: Kind(words[0])}
	for _, w := range words[1:] {
		n, err := strconv.Atoi(w)
		switch {
		case err == nil:
			s.Octaves = n
		case slices.Contains(Forms, Form(w)):
			s.Form = Form(w)
		case slices.Contains(AllHands, Hands(w)):
			s.Hands = Hands(w)
		case s.Kind == Roll && strings.Trim(w, "pima") == "":
			s.Fingers = w
		case s.Tonic == "" && tonic(w):
			s.Tonic = w
		default:
			return s, fmt.Errorf("%q is not understood in %q: a tonic such as Eb, major, natural, harmonic or melodic, right, left, both or mirrored, and a number of octaves", w, text)
		}
	}
	return s, s.Check()
}

func kinds() string {
	var names []string
	for _, k := range Kinds {
		names = append(names, string(k))
	}
	return strings.Join(names, ", ")
}

func tonic(w string) bool {
	_, err := pitch.Parse(w + "4")
	return err == nil && len(w) <= 2
}

// usual fills in what was left out.
func (s Spec) usual() Spec {
	if s.Tonic == "" {
		s.Tonic = "C"
	}
	if s.Form == "" {
		s.Form = Major
	}
	if s.Hands == "" {
		s.Hands = Right
	}
	if s.Octaves == 0 {
		s.Octaves = 1
	}
	if s.Fingers == "" {
		s.Fingers = "pima"
	}
	return s
}

// Check says what is wrong with a specification.
func (s Spec) Check() error {
	s = s.usual()
	switch {
	case !slices.Contains(Kinds, s.Kind):
		return fmt.Errorf("%q is not a kind of exercise: %s", s.Kind, kinds())
	case !slices.Contains(Forms, s.Form):
		return fmt.Errorf("%q is not a form: major, natural, harmonic or melodic", s.Form)
	case !slices.Contains(AllHands, s.Hands):
		return fmt.Errorf("%q is not a choice of hands: right, left, both or mirrored", s.Hands)
	case s.Octaves < 1 || s.Octaves > MostOctaves:
		return fmt.Errorf("an exercise has one to four octaves, not %d", s.Octaves)
	case len(s.Fingers) < 2 || len(s.Fingers) > 8 || strings.Trim(s.Fingers, "pima") != "":
		return fmt.Errorf("a roll has two to eight of p, i, m and a, not %q", s.Fingers)
	}
	_, err := s.key()
	return err
}

// key returns the signature.
func (s Spec) key() (pitch.Key, error) {
	mode := "minor"
	if s.Form == Major {
		mode = "major"
	}
	return pitch.KeyOf(s.Tonic, mode)
}

// String writes a specification so that Parse reads it.
func (s Spec) String() string {
	u := s.usual()
	words := []string{string(u.Kind)}
	if u.Kind == Roll {
		return string(u.Kind) + " " + u.Fingers
	}
	if u.Kind != Bows && u.Kind != DoubleOpen {
		words = append(words, u.Tonic, string(u.Form))
	}
	words = append(words, string(u.Hands))
	if u.Octaves > 1 {
		words = append(words, strconv.Itoa(u.Octaves))
	}
	return strings.Join(words, " ")
}

// Title says what it is, as a heading: "E flat major, hands together, two octaves".
func (s Spec) Title() string {
	u := s.usual()
	name := strings.NewReplacer("#", " sharp", "b", " flat").Replace(u.Tonic)
	switch u.Kind {
	case Scale:
		return name + " " + formNames[u.Form] + octaveNames[u.Octaves-1]
	case Cycle:
		return "Twelve keys, " + formNames[u.Form]
	case Half:
		return "Half of " + name + " " + formNames[u.Form]
	case Five:
		return "Five fingers from " + name
	case Skips:
		return "Skips and chord on " + name
	case Chord:
		return "The chord of " + name + " " + formNames[u.Form]
	case Chromatic:
		return "Chromatic scale from " + name + octaveNames[u.Octaves-1]
	case Levels:
		return "Six levels from " + name
	case Bows:
		return "Long bows on open strings"
	case Pattern:
		return "Fingers of " + name + " " + formNames[u.Form] + ", string by string"
	case DoubleOpen:
		return "Two open strings"
	}
	return "Roll " + strings.Join(strings.Split(u.Fingers, ""), " ")
}

var (
	formNames   = map[Form]string{Major: "major", Natural: "natural minor", Harmonic: "harmonic minor", Melodic: "melodic minor"}
	octaveNames = []string{"", ", two octaves", ", three octaves", ", four octaves"}
)
