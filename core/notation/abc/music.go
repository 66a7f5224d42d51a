package abc

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/score"
)

// music reads one line of the tune's body.
func (r *reader) music(line string) error {
	v := r.v
	v.lineStart, v.lineNote = len(v.bars), len(v.bar.Notes)
	s := &scanner{text: line}
	for !s.done() {
		from := s.pos
		if err := r.element(s); err != nil {
			r.column = from + 1
			return err
		}
		if len(r.v.bars) > maxBars {
			return fmt.Errorf("more than %d bars", maxBars)
		}
	}
	return nil
}

type scanner struct {
	text string
	pos  int
}

func (s *scanner) done() bool { return s.pos >= len(s.text) }

// peek returns the byte n places on, or 0.
func (s *scanner) peek(n int) byte {
	if s.pos+n < len(s.text) {
		return s.text[s.pos+n]
	}
	return 0
}

// take returns the longest run of the given characters.
func (s *scanner) take(chars string) string {
	from := s.pos
	for !s.done() && strings.IndexByte(chars, s.text[s.pos]) >= 0 {
		s.pos++
	}
	return s.text[from:s.pos]
}

// until returns what stands before the closing character and passes it.
func (s *scanner) until(closing byte) (string, error) {
	i := strings.IndexByte(s.text[s.pos:], closing)
	if i < 0 {
		return "", fmt.Errorf("a %q is missing", closing)
	}
	out := s.text[s.pos : s.pos+i]
	s.pos += i + 1
	return out, nil
}

const noteLetters = "CDEFGABcdefgab"

func isNoteStart(c byte) bool {
	return strings.IndexByte(noteLetters+"^_=", c) >= 0 && c != 0
}

func (r *reader) element(s *scanner) error {
	v, c := r.v, s.peek(0)
	switch {
	case c == 'y': // room on the page, section 6.1.2
		s.pos++
		s.take("0123456789")
	case c == ' ' || c == '\t' || c == '`' || c == '\\' || c == '$':
		s.pos++
	case c == '.' && s.peek(1) == '|': // dotted
		s.pos++
		return r.barLine(s)
	case isNoteStart(c):
		return r.note(s)
	case strings.IndexByte("zxZX", c) >= 0:
		return r.silence(s)
	case c == '[' && isLetter(s.peek(1)) && s.peek(2) == ':':
		return r.inline(s)
	case c == '[' && namedEnding.MatchString(s.text[s.pos:]):
		s.pos++
		r.s.Note("ending named in words", len(v.bars)+1)
	case c == '[' && (isNoteStart(s.peek(1)) || isLetter(s.peek(1)) || strings.IndexByte("!.~\"", s.peek(1)) >= 0 && s.peek(1) != 0):
		return r.chord(s)
	case c == '|' || c == ':' || c == '[' || c == ']':
		return r.barLine(s)
	case c == '(' && s.peek(1) >= '0' && s.peek(1) <= '9':
		return r.openTuplet(s)
	case c == '(' && s.peek(1) == '&', c == '&' && s.peek(1) == ')':
		return fmt.Errorf("an overlay over several bars is not read; give each voice its own V: line")
	case c == '(':
		s.pos++
		s.take("',") // above or below
		v.slurs++
	case c == ')':
		s.pos++
		r.endSlur()
	case c == '-':
		s.pos++
		v.tie()
	case c == '>' || c == '<':
		return v.breakRhythm(s.take("><"))
	case c == '{' || c == '}':
		s.pos++
		if c == '{' && s.peek(0) == '/' {
			s.pos++
		}
		v.grace = c == '{'
	case c == '!' || c == '+':
		s.pos++
		if name, named := s.decoration(c); named {
			r.decoration(name)
		} else { // as older programs end a line of the page
			r.s.Note("'"+string(c)+"' that names no decoration", len(v.bars)+1)
		}
	case c == '"':
		return v.quoted(s)
	case c == '&':
		s.pos++
		if v.tuplet.left > 0 || v.grace || v.broken.Sign() > 0 {
			return fmt.Errorf("an overlay begins before the tuplet, the grace notes or the broken rhythm before it are done")
		}
		v.overlay()
	case c == '.' || c == '~' || isLetter(c):
		s.pos++
		r.letter(c)
	default:
		return fmt.Errorf("%q is not ABC music", string([]rune(s.text[s.pos:])[:1]))
	}
	return nil
}

// decoration returns the name up to the closing sign: one that holds a blank, a bar line or
// no end is none.
func (s *scanner) decoration(closing byte) (string, bool) {
	name, _, closed := strings.Cut(s.text[s.pos:], string(closing))
	if !closed || name == "" || strings.ContainsAny(name, " |") {
		return "", false
	}
	s.pos += len(name) + 1
	return name, true
}

// letter reads a decoration that is one letter: as a U: line has it, or as the standard.
func (r *reader) letter(c byte) {
	name, own := r.signs[c]
	if !own {
		name = shorthand[c]
	}
	switch {
	case own && (name == "" || name == "nil" || name == "none"):
	case name != "":
		r.decoration(name)
	default:
		r.s.Note("the letter "+string(c)+" as a decoration", len(r.v.bars)+1)
	}
}

// namedEnding is an ending with words for a number, and no chord with words in it.
var namedEnding = regexp.MustCompile(`^\["[^"]*"[^\]|]*(?:\||$)`)

// shorthand is section 4.14 of the standard.
var shorthand = map[byte]string{
	'.': "staccato", '~': "roll", 'H': "fermata", 'L': "accent", 'M': "lowermordent", 'O': "coda",
	'P': "uppermordent", 'S': "segno", 'T': "trill", 'u': "upbow", 'v': "downbow",
}

// articulations maps ABC decorations to the score's words.
var articulations = map[string]string{
	"staccato": "staccato", "accent": "accent", ">": "accent", "emphasis": "accent", "tenuto": "tenuto",
	"trill": "trill-mark", "lowermordent": "mordent", "mordent": "mordent", "uppermordent": "inverted-mordent", "pralltriller": "inverted-mordent", "turn": "turn",
	"fermata": "fermata", "upbow": "up-bow", "downbow": "down-bow", "breath": "breath-mark", "wedge": "staccatissimo",
}

var dynamics = map[string]string{
	"pppp": "pppp", "ppp": "ppp", "pp": "pp", "p": "p", "mp": "mp", "mf": "mf", "f": "f", "ff": "ff", "fff": "fff", "ffff": "ffff",
	"sfz": "sfz", "crescendo(": "crescendo", "<(": "crescendo", "diminuendo(": "diminuendo", ">(": "diminuendo",
	"crescendo)": "stop", "<)": "stop", "diminuendo)": "stop", ">)": "stop",
}

// jumps are the decorations that say where the playing goes: section 4.14 of the standard, and
// what other programs write; with the words that stand on the page.
// Of several for one jump the plainest stands first.
var jumps = []jump{
	{"segno", score.Segno, ""}, {"coda", score.Coda, ""}, {"dacoda", score.ToCoda, "To Coda"}, {"tocoda", score.ToCoda, "To Coda"}, {"fine", score.Fine, "Fine"},
	{"D.C.", score.DaCapo, "D.C."}, {"dacapo", score.DaCapo, "D.C."}, {"D.C.alfine", score.DaCapo, "D.C. al Fine"}, {"D.C.alcoda", score.DaCapo, "D.C. al Coda"},
	{"D.S.", score.DalSegno, "D.S."}, {"dalsegno", score.DalSegno, "D.S."}, {"D.S.alfine", score.DalSegno, "D.S. al Fine"}, {"D.S.alcoda", score.DalSegno, "D.S. al Coda"},
}

// A jump is a decoration, where it has the playing go, and what is written over it.
type jump struct{ name, to, says string }

func (r *reader) decoration(name string) {
	v := r.v
	at := slices.IndexFunc(jumps, func(j jump) bool { return j.name == name })
	switch {
	case at >= 0:
		v.jumps = append(v.jumps, jumps[at])
	case len(name) == 1 && name[0] >= '0' && name[0] <= '5':
		v.pending.fingers = append(v.pending.fingers, name)
	case articulations[name] != "":
		v.pending.articulations = append(v.pending.articulations, articulations[name])
	case dynamics[name] != "":
		v.mark("dynamic", dynamics[name])
	default:
		r.s.Note("decoration "+name, len(v.bars)+1)
	}
}

func (r *reader) inline(s *scanner) error {
	name := s.peek(1)
	s.pos += 3
	value, err := s.until(']')
	if err != nil {
		return err
	}
	return r.field(name, strings.TrimSpace(value))
}

// barLine reads bar lines, repeats and endings: sections 4.8 to 4.10.
func (r *reader) barLine(s *scanner) error {
	v := r.v
	sign := s.take("|:]")
	if sign == "" && s.peek(0) == '[' {
		switch next := s.peek(1); {
		case next == '|':
			s.pos++
			sign = s.take("|:]")
		case next == ']': // invisible, as some programs have it
			s.pos += 2
			sign = "|"
		case next >= '1' && next <= '9':
		default:
			return fmt.Errorf("a '[' that opens neither chord, field nor ending")
		}
	}
	if v.tuplet.left > 0 && sign != "" && v.filled() {
		return fmt.Errorf("a bar line cuts a tuplet short")
	}
	if v.grace && sign != "" {
		return fmt.Errorf("a bar line stands before the '}' that closes the grace notes")
	}
	if v.broken.Sign() > 0 {
		r.s.Note("broken rhythm over a bar line", len(v.bars)+1)
		v.broken = score.Time{}
	}
	if strings.HasSuffix(sign, "|") { // "| :" is "|:"
		if rest := strings.TrimLeft(s.text[s.pos:], " \t"); len(rest) > 1 && len(rest) < len(s.text)-s.pos && rest[0] == ':' && strings.IndexByte("|:]", rest[1]) < 0 {
			s.pos = len(s.text) - len(rest) + 1
			sign += ":"
		}
	}
	if sign == ":" { // dashed, as some programs draw it
		r.s.Note("dashed bar line", len(v.bars)+1)
	}
	if sign != "" {
		v.close()
		if strings.HasPrefix(sign, ":") && sign != ":" && len(v.bars) > 0 {
			times := len(sign) - len(strings.TrimLeft(sign, ":")) + 1
			if strings.Trim(sign, ":") == "" { // "::" closes and opens
				times = 2
			}
			v.bars[len(v.bars)-1].Repeat.Ends = min(times, 16)
			v.endings = nil
		}
		if strings.HasSuffix(sign, ":") && (strings.ContainsAny(sign, "|]") || sign == "::") {
			v.bar.Repeat.Starts = true
			v.endings = nil
		}
		if strings.Contains(sign, "||") || strings.Contains(sign, "|]") {
			v.endings = nil
			if len(v.bars) > 0 {
				v.bars[len(v.bars)-1].Double = true
			}
		}
	}
	if s.peek(0) == '[' && s.peek(1) >= '1' && s.peek(1) <= '9' {
		s.pos++
	} else if sign == "" || s.peek(0) < '1' || s.peek(0) > '9' {
		return nil
	}
	list := s.take("0123456789,.-")
	v.endings = nil
	for part := range strings.FieldsFuncSeq(list, func(c rune) bool { return c == ',' || c == '.' }) {
		from, to, ranged := strings.Cut(part, "-")
		a, err := strconv.Atoi(from)
		b := a
		if ranged && err == nil {
			b, err = strconv.Atoi(to)
		}
		if err != nil || a < 1 || b < a || b > 15 {
			return fmt.Errorf("the ending %q is not a number", list)
		}
		for ; a <= b; a++ {
			v.endings = append(v.endings, a)
		}
	}
	return nil
}
