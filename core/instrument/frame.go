package instrument

import (
	"fmt"
	"strconv"
)

// A Shape is how the four fingers lie, in semitones against the hand's place, which
// is that of the second finger in a closed hand, or of the first where the frame
// counts from it. None is a finger that stops nothing in that shape.
type Shape struct {
	Name string // how the hand is opened; empty for its usual shapes
	Lie  [4]int
	Cost float64 // beside the usual shapes; a judgement
}

// None is a finger that stops nothing in a shape.
const None = 1 << 10

// A Frame is how a stopping hand lies on the neck.
type Frame struct {
	Name    string
	Fretted bool
	Shapes  []Shape
	Home    int // the hand's place in first position, in semitones above the open string
	Lowest  int // the lowest place of the hand
	// Reshape is what changing the shape from one stopped note to the next costs: on a
	// violin each string has its own finger pattern, on a cello the whole hand opens.
	// A judgement.
	Reshape float64
	// Places names the hand's places from the lowest; past them Beyond. A fretted neck
	// counts the first finger's fret instead.
	Places []string
	Beyond string
	// Letters counts, by place, the letters between the open string and the first
	// finger's less one: where it is told each finger has its letter, so that B and B
	// flat are the same finger moved.
	Letters []int
}

// Place is a place of the hand as catalogues name it: first, or fret 5 on a fretted neck.
func (f Frame) Place(at int) string {
	i := at - f.Lowest
	switch {
	case i >= 0 && i < len(f.Places):
		return f.Places[i]
	case f.Beyond != "":
		return f.Beyond
	case at > f.Home:
		return "fret " + strconv.Itoa(at+f.Shapes[0].Lie[0])
	}
	return "first"
}

// Letter returns how many letters above the open string's next one the first finger
// of a place stops, if the frame has fingers by letter.
func (f Frame) Letter(at int) (int, bool) {
	i := at - f.Lowest
	if i < 0 || i >= len(f.Letters) {
		return 0, false
	}
	return f.Letters[i] + 1, true
}

// What an opened hand costs, and opening or closing it. A judgement.
const (
	opened   = 1.2
	reshaped = 2.5
)

// The frames. A hand whose fingers lie a semitone apart opens back or forward (the
// cello); one with a finger a fret opens for the fourth; on a short neck each finger
// has two semitones and a pattern a string (violin, mandolin); on a long one the
// first, second and fourth share three semitones (double bass). Common practice, no
// source.
var (
	SemitoneHand = Frame{Name: "semitones", Home: 3, Lowest: 2, Reshape: reshaped,
		Shapes: []Shape{{"", [4]int{-1, 0, 1, 2}, 0}, {"back", [4]int{-2, 0, 1, 2}, opened}, {"forward", [4]int{-1, 1, 2, 3}, opened}},
		Places: positions, Beyond: "thumb"}
	FretHand = Frame{Name: "frets", Fretted: true, Home: 2, Lowest: 2, Reshape: reshaped,
		Shapes: []Shape{{"", [4]int{-1, 0, 1, 2}, 0}, {"back", [4]int{-2, 0, 1, 2}, opened}, {"forward", [4]int{-1, 0, 1, 3}, opened}}}
	PatternHand = Frame{Name: "patterns", Home: 2, Lowest: 1,
		Shapes: patterns, Places: positions, Beyond: "high", Letters: letters}
	ShortFrets = Frame{Name: "short-frets", Fretted: true, Home: 2, Lowest: 1, Shapes: patterns, Places: positions, Beyond: "high", Letters: letters}
	BassHand   = Frame{Name: "one-two-four", Home: 3, Lowest: 2,
		Shapes: []Shape{{"", [4]int{-1, 0, None, 1}, 0}},
		Places: []string{"half", "first", "second", "second-and-half", "third", "third-and-half", "fourth", "fifth", "fifth-and-half", "sixth", "sixth-and-half", "seventh"}, Beyond: "thumb"}
)

// patterns are the finger patterns of a short neck: which neighbours touch. The
// place is the first finger's.
var patterns = []Shape{
	{"", [4]int{0, 2, 3, 5}, 0},             // second and third touch
	{"", [4]int{0, 1, 3, 5}, 0},             // first and second
	{"", [4]int{0, 2, 4, 5}, 0},             // third and fourth
	{"", [4]int{0, 1, 3, 4}, 0},             // first and second, third and fourth
	{"", [4]int{0, 2, 4, 6}, 0.1},           // none
	{"back", [4]int{-1, 1, 3, 5}, 0.3},      // the first drawn back
	{"back", [4]int{-1, 1, 2, 4}, 0.3},      // and the fourth with it
	{"forward", [4]int{0, 2, 3, 6}, opened}, // the fourth alone stretched
}

// Frames lists them.
var Frames = []Frame{SemitoneHand, FretHand, PatternHand, ShortFrets, BassHand}

// The positions of a short neck from the first finger a semitone above the open
// string, and the letters that they have moved.
var (
	positions = []string{"half", "first", "second", "second", "third", "third", "fourth", "fifth", "fifth", "sixth", "sixth", "seventh"}
	letters   = []int{0, 0, 1, 1, 2, 2, 3, 4, 4, 5, 5, 6}
)

// MarshalText writes a frame by its name, by which UnmarshalText finds it.
func (f Frame) MarshalText() ([]byte, error) { return []byte(f.Name), nil }

// UnmarshalText finds a frame by its name; nothing is the zero Frame.
func (f *Frame) UnmarshalText(text []byte) error {
	if len(text) == 0 {
		*f = Frame{}
		return nil
	}
	var err error
	*f, err = FrameNamed(string(text))
	return err
}

// FrameNamed finds a frame by its name.
func FrameNamed(name string) (Frame, error) {
	for _, f := range Frames {
		if f.Name == name {
			return f, nil
		}
	}
	return Frame{}, fmt.Errorf("%q is not a way in which a hand lies on strings", name)
}
