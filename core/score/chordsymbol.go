package score

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
)

// A ChordSymbol names a chord above the staff: "F#m7/C#".
type ChordSymbol struct {
	Root   string // a letter with its # or b
	Kind   string // a kind-value of MusicXML 4.0: "minor-seventh"
	Suffix string // what is written for the kind: "m7"
	Bass   string // as Root; empty where the root is lowest
}

// chordKinds are the kinds with what is written for each after the root, the
// first being ours.
var chordKinds = []struct {
	kind    string
	written []string
}{
	{"major", []string{"", "maj", "M"}},
	{"minor", []string{"m", "min", "-"}},
	{"augmented", []string{"aug", "+"}},
	{"diminished", []string{"dim", "o", "°"}},
	{"dominant", []string{"7"}},
	{"major-seventh", []string{"maj7", "M7", "Maj7", "j7"}},
	{"minor-seventh", []string{"m7", "min7", "-7"}},
	{"diminished-seventh", []string{"dim7", "o7", "°7"}},
	{"augmented-seventh", []string{"aug7", "+7", "7+"}},
	{"half-diminished", []string{"m7b5", "ø", "ø7"}},
	{"major-minor", []string{"mM7", "mmaj7", "m(maj7)"}},
	{"major-sixth", []string{"6"}},
	{"minor-sixth", []string{"m6", "min6"}},
	{"dominant-ninth", []string{"9"}},
	{"major-ninth", []string{"maj9", "M9"}},
	{"minor-ninth", []string{"m9", "min9"}},
	{"dominant-11th", []string{"11"}},
	{"major-11th", []string{"maj11"}},
	{"minor-11th", []string{"m11"}},
	{"dominant-13th", []string{"13"}},
	{"major-13th", []string{"maj13"}},
	{"minor-13th", []string{"m13"}},
	{"suspended-second", []string{"sus2"}},
	{"suspended-fourth", []string{"sus4", "sus"}},
	{"power", []string{"5"}},
}

var (
	chordForm = regexp.MustCompile(`^([A-G][#b♯♭]?)([^/]*)(?:/([A-Ga-g][#b♯♭]?))?$`)
	chordRoot = regexp.MustCompile(`^[A-G][#b]?$`)
	plain     = strings.NewReplacer("♯", "#", "♭", "b")
)

// ParseChordSymbol reads a chord symbol as it is written. Text that is none is
// an error.
func ParseChordSymbol(text string) (ChordSymbol, error) {
	if m := chordForm.FindStringSubmatch(strings.TrimSpace(text)); m != nil {
		for _, k := range chordKinds {
			if !slices.Contains(k.written, m[2]) {
				continue
			}
			bass := m[3]
			if bass != "" {
				bass = strings.ToUpper(bass[:1]) + bass[1:]
			}
			return ChordSymbol{plain.Replace(m[1]), k.kind, k.written[0], plain.Replace(bass)}, nil
		}
	}
	return ChordSymbol{}, fmt.Errorf("%q is not a chord symbol such as Am, D7 or G/B", text)
}

// NewChordSymbol makes a symbol from its parts. A root or a bass that is none, or
// a kind for which there is no sign here, is an error.
func NewChordSymbol(root, kind, bass string) (ChordSymbol, error) {
	if !chordRoot.MatchString(root) || bass != "" && !chordRoot.MatchString(bass) {
		return ChordSymbol{}, fmt.Errorf("no chord stands on %q over %q", root, bass)
	}
	for _, k := range chordKinds {
		if k.kind == kind {
			return ChordSymbol{root, kind, k.written[0], bass}, nil
		}
	}
	return ChordSymbol{}, fmt.Errorf("no sign for a chord of the kind %q", kind)
}

// String writes the symbol as ParseChordSymbol reads it.
func (c ChordSymbol) String() string {
	if c.Bass != "" {
		return c.Root + c.Suffix + "/" + c.Bass
	}
	return c.Root + c.Suffix
}
