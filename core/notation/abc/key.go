package abc

import (
	"fmt"
	"regexp"
	"strings"

	"patientladder/core/pitch"
)

// A signature is a key with the accidentals a K: line gives beside it: section
// 3.1.14 of the standard, "K:D Phr ^f".
type signature struct {
	pitch.Key
	own map[byte]int // alteration by letter; nil in a usual key
}

// Alter is the alteration of a letter under the signature, in semitones.
func (s signature) Alter(letter byte) int {
	if alter, ok := s.own[letter]; ok {
		return alter
	}
	return s.Key.Alter(letter)
}

var (
	modes    = []string{"major", "minor", "dorian", "phrygian", "lydian", "mixolydian", "aeolian", "locrian", "ionian"}
	ownSigns = regexp.MustCompile(`^(?:(?:\^\^?|__?|=)[A-Ga-g])+$`)
	ownSign  = regexp.MustCompile(`([\^_=]+)([A-Ga-g])`)
)

// parseKey reads a K: field: tonic, mode, explicit accidentals and clef.
func parseKey(value string, note func(string, int)) (signature, string, error) {
	clef := ""
	words := strings.Fields(value)
	var rest []string
	var own map[byte]int
	for i, w := range words {
		if w = strings.TrimSuffix(w, ","); w == "" {
			continue
		}
		property, _, eq := strings.Cut(w, "=")
		if at := strings.IndexAny(w, "^_="); at >= 0 && ownSigns.MatchString(w[at:]) && (!eq || len(property) < 4) {
			if own == nil {
				own = map[byte]int{}
			}
			for _, m := range ownSign.FindAllStringSubmatch(w[at:], -1) {
				own[strings.ToUpper(m[2])[0]], _ = alterOf(m[1])
			}
			if w = w[:at]; w == "" {
				continue
			}
		}
		name, v, eq := strings.Cut(w, "=")
		switch {
		case eq && name == "clef":
			if clef = strings.Trim(v, `"`); !knownClef(clef) {
				note("clef "+clef, 0)
			}
		case eq:
			note("K: "+name, 0)
		case knownClef(w) && (i > 0 || len(words) == 1 && w != "none"):
			clef = w
		default:
			rest = append(rest, w)
		}
	}
	if len(rest) == 0 || rest[0] == "none" {
		return withOwn(pitch.Key{Mode: "major"}, own, note), clef, nil
	}
	if rest[0] == "HP" || rest[0] == "Hp" {
		note("bagpipe key", 0)
		return withOwn(pitch.Key{Fifths: 2, Mode: "mixolydian"}, own, note), clef, nil
	}
	tonic := rest[0][:1]
	tail := rest[0][1:]
	if strings.HasPrefix(tail, "#") || strings.HasPrefix(tail, "b") {
		tonic, tail = tonic+tail[:1], tail[1:]
	}
	mode := strings.ToLower(tail + strings.Join(rest[1:], ""))
	full := ""
	switch {
	case mode == "", mode == "exp":
		full = "major"
	case mode == "m":
		full = "minor"
	case len(mode) >= 3:
		for _, m := range modes {
			if strings.HasPrefix(m, mode[:3]) && (strings.HasPrefix(m, mode) || len(mode) > 3 && strings.HasPrefix(mode, m)) {
				full = m
			}
		}
	}
	key, err := pitch.KeyOf(tonic, full)
	if err != nil {
		return signature{}, "", fmt.Errorf("the key %q is not one such as G, Em or Ddor", value)
	}
	if mode == "exp" { // the accidentals given are all there are
		all := map[byte]int{}
		for _, letter := range []byte(noteLetters[:7]) {
			all[letter] = own[letter]
		}
		own = all
	}
	return withOwn(key, own, note), clef, nil
}

// withOwn gives the mode on the same tonic that the accidentals make, "D major
// =c" being D mixolydian, and where they make none the key with them.
func withOwn(key pitch.Key, own map[byte]int, note func(string, int)) signature {
	s := signature{key, own}
	if own == nil {
		return s
	}
	tonic, _, _ := strings.Cut(key.String(), " ")
	for _, mode := range modes {
		usual, err := pitch.KeyOf(tonic, mode)
		if err == nil && alike(s, signature{Key: usual}) {
			return signature{Key: usual}
		}
	}
	note("accidentals of the key's own, which stand at the notes", 0)
	return s
}

func alike(a, b signature) bool {
	for _, letter := range []byte(noteLetters[:7]) {
		if a.Alter(letter) != b.Alter(letter) {
			return false
		}
	}
	return true
}
