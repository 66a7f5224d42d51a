package score

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
)

// A ChordSymbol names a chord above the staff: "F#m7/C#".
type ChordSymbol struct {
	Root string // a letter with its # or b
	Kind string // a kind-value of MusicXML 4.0: "minor-seventh"
	Bass string // as Root; empty where the root is lowest
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

var chordForm = regexp.MustCompile(`^([A-G][#b♯♭]?)([^/]*)(?:/([A-Ga-g][#b♯♭]?))?$`)

// ParseChordSymbol reads a chord symbol as it is written. Text that is none is
// an error.
func ParseChordSymbol(text string) (ChordSymbol, error) {
	m := chordForm.FindStringSubmatch(strings.TrimSpace(text))
	if m != nil {
		for _, k := range chordKinds {
			if slices.Contains(k.written, m[2]) {
				bass := m[3]
				if bass != "" {
					bass = strings.ToUpper(bass[:1]) + bass[1:]
				}
				plain := strings.NewReplacer("♯", "#", "♭", "b")
				return ChordSymbol{plain.Replace(m[1]), k.kind, plain.Replace(bass)}, nil
			}
		}
	}
	return ChordSymbol{}, fmt.Errorf("%q is not a chord symbol such as Am, D7 or G/B", text)
}

// Suffix is what stands after the root; of a kind that has no sign here it is
// an error.
func (c ChordSymbol) Suffix() (string, error) {
	for _, k := range chordKinds {
		if k.kind == c.Kind {
			return k.written[0], nil
		}
	}
	return "", fmt.Errorf("no sign for a chord of the kind %q", c.Kind)
}

// Text writes the symbol; it fails where Suffix does.
func (c ChordSymbol) Text() (string, error) {
	suffix, err := c.Suffix()
	if c.Bass != "" {
		suffix += "/" + c.Bass
	}
	return c.Root + suffix, err
}
