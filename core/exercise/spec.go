// Package exercise makes music by rule: scales, five-finger patterns, chords, long bows,
// rolls and cross-rhythms, from a short specification, as a score with its fingers.
//
// Everything is worked out from rules and nothing from tables: the notes from the key, a
// keyboard's fingers from where hand and black keys let the thumb pass (fingers.go), the
// compass of strings and the shapes of chords from the instrument's profile. Facts of the
// trade are common practice, no source; the fingerings are checked against Hanon, The
// Virtuoso Pianist (1873), Nos. 39 and 41, from memory.
package exercise

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
)

// A Kind says what an exercise is made of.
type Kind string

// The kinds.
const (
	Scale    Kind = "scale"
	Arpeggio Kind = "arpeggio"

	// of keyboards
	Cycle     Kind = "cycle"    // a scale of an octave in each of the twelve keys, by fifths
	Half      Kind = "half"     // the first four notes of a scale
	Duet      Kind = "duet"     // the lower half for the student, the upper one for the teacher
	MeetOnly  Kind = "meetings" // only the notes where the hands of a scale meet, then all of it
	Chromatic Kind = "chromatic"
	Five      Kind = "five" // five fingers on five neighbouring keys
	Skips     Kind = "skips"
	Figure    Kind = "figure" // an order of fingers, a key higher each time, then back
	Thirds    Kind = "thirds"
	Sixths    Kind = "sixths"
	Chord     Kind = "chord"   // a triad in its positions, broken and at once
	Levels    Kind = "levels"  // six degrees of loudness on five fingers, then on their chord
	Shaped    Kind = "shaped"  // a long broken chord from pp to ff and back
	Voicing   Kind = "voicing" // one hand full, the other without sound, then soft; then swapped
	Cross     Kind = "cross"   // as many notes against as many

	// of bowed strings
	Bows       Kind = "bows"        // long bows and crossings on open strings
	Divide     Kind = "divide"      // a bow, its halves, its quarters
	Pattern    Kind = "pattern"     // the fingers of a key, string by string
	Shift      Kind = "shift"       // from first finger to first finger along each string
	DoubleOpen Kind = "double-open" // neighbouring open strings, one by one, then together
	DoubleNear Kind = "double-near" // with a finger a semitone above an open string

	// of plucked ones
	Roll      Kind = "roll"       // a fixed order of plucking fingers over open strings
	Shape     Kind = "shape"      // a scale under one place of the hand
	Change    Kind = "change"     // two chords in turn
	ThumbTune Kind = "thumb-tune" // a tune over the thumb's strings
	Hammer    Kind = "hammer"     // notes that the left hand sounds
	Slide     Kind = "slide"
)

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
	// Pick is what is chosen of a kind that has an order of its own: of a roll its
	// plucking fingers ("pima"), of a figure its fingers ("14253524"), of a
	// cross-rhythm the notes of the right hand against those of the left ("3:2"), of a
	// cycle its keys ("C,G,D"), the twelve by fifths when empty.
	Pick    string
	Strings string // of a roll: the string of each stroke ("6321"); each finger's own when empty
}

// picks are what a Pick looks like, and the usual one, by kind.
var picks = map[Kind]struct {
	looks *regexp.Regexp
	usual string
	says  string
}{
	Roll:   {regexp.MustCompile(`^[pima]{2,8}$`), "pima", "two to eight of p, i, m and a"},
	Figure: {regexp.MustCompile(`^[1-5]{4,8}$`), "14253524", "four to eight fingers from 1 to 5"},
	Cycle:  {regexp.MustCompile(`^[A-G][b#]?(,[A-G][b#]?){1,23}$`), "", "a list of keys, as C,G,D"},
	Cross:  {regexp.MustCompile(`^[2-5]:[2-5]$`), "3:2", "two to five notes against another number of them, as 3:2"},
}

var places = regexp.MustCompile(`^[1-9]{2,8}$`)

// Lies reports whether a specification makes an exercise that can be played on an instrument: one
// of a skill that many share may not.
func Lies(text string, on instrument.Profile) bool {
	spec, err := Parse(text)
	if err == nil {
		_, err = Make(spec, on)
	}
	return err == nil
}

// Parse reads a specification as it is written: its kind, then in any order a tonic, a
// form, hands, octaves, and the pick of a roll, a figure or a cross-rhythm:
// "scale Eb major both 2", "roll pami", "cross 3:2".
func Parse(text string) (Spec, error) {
	words := strings.Fields(text)
	if len(words) == 0 {
		return Spec{}, fmt.Errorf("an exercise names its kind: %s", kinds())
	}
	s := Spec{Kind: Kind(words[0])}
	pick := picks[s.Kind]
	for _, w := range words[1:] {
		n, err := strconv.Atoi(w)
		switch {
		case pick.looks != nil && s.Pick == "" && pick.looks.MatchString(w):
			s.Pick = w
		case s.Kind == Roll && places.MatchString(w):
			s.Strings = w
		case err == nil:
			s.Octaves = n
		case slices.Contains(Forms, Form(w)):
			s.Form = Form(w)
		case slices.Contains(AllHands, Hands(w)):
			s.Hands = Hands(w)
		case s.Tonic == "" && tonic(w):
			s.Tonic = w
		case pick.looks != nil:
			return s, fmt.Errorf("%q is not understood in %q: this kind takes %s", w, text, pick.says)
		default:
			return s, fmt.Errorf("%q is not understood in %q: a tonic such as Eb, major, natural, harmonic or melodic, right, left, both or mirrored, and a number of octaves", w, text)
		}
	}
	return s, s.Check()
}

var every = []Kind{Scale, Arpeggio, Cycle, Half, Duet, MeetOnly, Chromatic, Five, Skips, Figure, Thirds, Sixths, Chord, Levels, Shaped, Voicing, Cross, Bows, Divide, Pattern, Shift, DoubleOpen, DoubleNear, Roll, Shape, Change, ThumbTune, Hammer, Slide}

// Kinds lists the kinds.
func Kinds() []Kind {
	all := slices.Clone(every)
	slices.Sort(all)
	return all
}

func kinds() string {
	var all []string
	for _, k := range Kinds() {
		all = append(all, string(k))
	}
	return strings.Join(all, ", ")
}

func tonic(w string) bool {
	_, err := pitch.Parse(w + "4")
	return err == nil && len(w) <= 2
}

// Usual fills in what was left out.
func (s Spec) Usual() Spec {
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
	if s.Pick == "" {
		s.Pick = picks[s.Kind].usual
	}
	return s
}

// Check says what is wrong with a specification.
func (s Spec) Check() error {
	s = s.Usual()
	pick := picks[s.Kind]
	switch {
	case !slices.Contains(every, s.Kind):
		return fmt.Errorf("%q is not a kind of exercise: %s", s.Kind, kinds())
	case !slices.Contains(Forms, s.Form):
		return fmt.Errorf("%q is not a form: major, natural, harmonic or melodic", s.Form)
	case !slices.Contains(AllHands, s.Hands):
		return fmt.Errorf("%q is not a choice of hands: right, left, both or mirrored", s.Hands)
	case s.Octaves < 1 || s.Octaves > MostOctaves:
		return fmt.Errorf("an exercise has one to four octaves, not %d", s.Octaves)
	case pick.looks != nil && s.Pick != "" && !pick.looks.MatchString(s.Pick) || s.Kind == Cross && s.Pick[0] == s.Pick[2]:
		return fmt.Errorf("this exercise takes %s, not %q", pick.says, s.Pick)
	case s.Strings != "" && (!places.MatchString(s.Strings) || len(s.Strings)%len(s.Pick) != 0):
		return fmt.Errorf("%q does not give each of the strokes %s a string", s.Strings, s.Pick)
	}
	if s.Kind == Cycle {
		for _, tonic := range s.keys() {
			one := s
			one.Tonic = tonic
			if _, err := one.key(); err != nil {
				return err
			}
		}
		return nil
	}
	_, err := s.key()
	return err
}

// keys are the tonics of a cycle, in the order of its parts.
func (s Spec) keys() []string {
	if s.Pick != "" {
		return strings.Split(s.Pick, ",")
	}
	return fifths[s.Form == Major]
}

// key returns the signature.
func (s Spec) key() (pitch.Key, error) {
	mode := "minor"
	if s.Form == Major {
		mode = "major"
	}
	return pitch.KeyOf(s.Tonic, mode)
}

// keyless are the kinds that stand in no key.
var keyless = []Kind{Bows, Divide, DoubleOpen, DoubleNear, Shift, Roll, Hammer, Slide}

// String writes a specification so that Parse reads it.
func (s Spec) String() string {
	u := s.Usual()
	words := []string{string(u.Kind)}
	if u.Pick != "" {
		words = append(words, u.Pick)
	}
	if u.Strings != "" {
		words = append(words, u.Strings)
	}
	if u.Kind == Roll {
		return strings.Join(words, " ")
	}
	if !slices.Contains(keyless, u.Kind) {
		words = append(words, u.Tonic, string(u.Form))
	}
	words = append(words, string(u.Hands))
	if u.Octaves > 1 {
		words = append(words, strconv.Itoa(u.Octaves))
	}
	return strings.Join(words, " ")
}

// Name says what it is, as a heading: "E flat major, two octaves".
func (s Spec) Name() reason.Label {
	u := s.Usual()
	key := "exercise." + string(u.Kind)
	args := []string{"key", u.Tonic + " " + string(u.Form), "tonic", u.Tonic, "form", string(u.Form), "octaves", strconv.Itoa(u.Octaves)}
	switch {
	case u.Kind == Cycle && u.Pick != "":
		key += "-of-some"
	case u.Kind == Cross:
		args = append(args, "over", u.Pick[:1], "under", u.Pick[2:])
	case u.Kind == Roll || u.Kind == Figure:
		args = append(args, "pick", spaced(u.Pick))
	}
	return reason.SaidOf(key, args...)
}

func spaced(letters string) string { return strings.Join(strings.Split(letters, ""), " ") }
