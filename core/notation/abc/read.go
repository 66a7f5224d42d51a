// Package abc reads ABC notation, version 2.1, into score.Score.
//
// Source: The ABC music standard 2.1 (December 2011), sections named in the
// tests. Read are tunes of one or more voices with keys, meters, unit lengths,
// ties, slurs, tuplets, broken rhythm, chords, overlays, repeats and numbered
// endings, pickups, grace notes, fingerings, decorations and one line of lyrics.
// A sign that is not kept, or that only another program knows, is listed in
// Score.Unread and the tune goes on; what leaves the notes in doubt is refused.
//
// A file may hold several tunes; Split parts them and Read takes the first.
package abc

import (
	"bytes"
	"errors"
	"fmt"
	"strings"

	"patientladder/core/charset"
	"patientladder/core/score"
)

const (
	maxBars   = 10000
	maxVoices = 64
)

// A Tune is one of a file: a file of its own, with the lines before the first X: of
// the whole, which are shared by all.
type Tune struct {
	Data       []byte
	head, from int // lines shared, and lines of the file before its X:
}

// Line returns the line of the file that a line of the tune's own text is.
func (t Tune) Line(line int) int {
	if line <= t.head {
		return line
	}
	return line - t.head + t.from
}

// Split returns the tunes of a file, each beginning at its X: field.
func Split(data []byte) []Tune {
	var head []byte
	var tunes []Tune
	shared, n := 0, 0
	for line := range bytes.Lines(data) {
		if bytes.HasPrefix(line, []byte("X:")) {
			tunes = append(tunes, Tune{bytes.Clone(head), shared, n})
		}
		if n++; len(tunes) > 0 {
			t := &tunes[len(tunes)-1]
			t.Data = append(t.Data, line...)
		} else {
			head, shared = append(head, line...), n
		}
	}
	return tunes
}

// Read reads the first tune of a file. Errors are *score.SyntaxError.
func Read(data []byte) (score.Score, error) {
	text, old := charset.Text(data)
	text = strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(text)
	r := &reader{unit: score.Time{}, s: score.Score{}}
	if old {
		r.s.Note("the file is no UTF-8 and was read as Windows-1252", 0)
	}
	err := r.tune(strings.Split(strings.TrimRight(text, "\n"), "\n"))
	if err == nil {
		err = r.finish()
	}
	if err != nil {
		var at *score.SyntaxError
		if errors.As(err, &at) {
			if at.Line == 0 { // what is missing is missing at the end
				at.Line = r.line
			}
			return score.Score{}, err
		}
		bar := 0
		if r.v != nil && r.body {
			bar = len(r.v.bars) + 1
		}
		return score.Score{}, &score.SyntaxError{Line: r.line, Column: r.column, Bar: bar, Msg: err.Error()}
	}
	r.s.Finish()
	return r.s, nil
}

type reader struct {
	s      score.Score
	line   int
	column int  // of what is wrong in a line of music; 0 for the whole line
	body   bool // the K: field has been passed
	key    signature
	meter  *score.Meter
	unit   score.Time // nought until L: or the meter decides
	tempo  string
	clef   string
	voices []*voice
	v      *voice // the voice being written
	layout map[string]place
	signs  map[byte]string // letters that U: lines give to decorations
	apart  string          // ends the text or the pictures that stand between the lines; empty in music
	goesOn bool            // the field before ends in a backslash
}

func (r *reader) tune(lines []string) error {
	started := false
	for i, line := range lines {
		r.line = i + 1
		if strings.HasPrefix(line, "%%") {
			r.directive(line[2:])
			continue
		}
		if r.apart != "" {
			continue
		}
		line, _, remark := strings.Cut(line, "%")
		line = strings.TrimRight(line, " \t")
		if remark && line == "" {
			continue // a line that is all remark is no line, section 2.2.2: the tune goes on
		}
		if len(line) >= 2 && line[1] == ':' && isLetter(line[0]) {
			name, value := line[0], strings.TrimSpace(line[2:])
			if name == 'X' {
				if started {
					r.s.Note("further tunes in the file", 0)
					return nil
				}
				started = true
				continue
			}
			value, r.goesOn = strings.CutSuffix(value, "\\")
			if err := r.field(name, value); err != nil {
				return err
			}
			continue
		}
		if r.goesOn && !r.body {
			r.s.Note("field that goes on over the line", 0)
			_, r.goesOn = strings.CutSuffix(line, "\\")
			continue
		}
		if line == "" {
			if r.body && r.hasMusic() {
				return r.rest(lines[i:])
			}
			continue
		}
		if !r.body {
			if !started {
				continue // free text before the tune
			}
			return fmt.Errorf("music stands before the key: a K: line must come first")
		}
		if err := r.music(line); err != nil {
			return err
		}
	}
	if !r.body {
		return fmt.Errorf("no tune here: an ABC tune needs an X: line and a K: line")
	}
	return nil
}

// rest tells what follows the empty line that ends a tune and is not read.
func (r *reader) rest(lines []string) error {
	for _, l := range lines {
		switch l = strings.TrimSpace(l); {
		case strings.HasPrefix(l, "X:"):
			r.s.Note("further tunes in the file", 0)
			return nil
		case l != "" && l[0] != '%':
			r.s.Note("lines after the empty line that ends the tune", 0)
		}
	}
	return nil
}

func (r *reader) hasMusic() bool {
	for _, v := range r.voices {
		if len(v.bars) > 0 || len(v.bar.Notes) > 0 {
			return true
		}
	}
	return false
}

func (r *reader) directive(s string) {
	name, value, _ := strings.Cut(strings.TrimSpace(s), " ")
	switch {
	case r.apart != "":
		if name == r.apart {
			r.apart = ""
		}
	case name == "begintext", name == "beginps", name == "beginsvg", name == "beginml": // section 11.4 of the standard
		r.apart = "end" + name[len("begin"):]
		r.s.Note("text and pictures between the lines", 0)
	case name == "score", name == "staves":
		r.layout = places(value)
	case name == "MIDI", name == "propagate-accidentals":
		r.s.Note("%%"+name, 0)
	}
}

// A place is where a voice stands on the page.
type place struct{ part, staff int }

// places reads a %%score line, section 7.1: voices in one brace are the staves of
// one part, voices in one pair of parentheses share a staff.
func places(value string) map[string]place {
	out := map[string]place{}
	at, brace, shared := place{-1, 1}, false, false
	next := func() {
		if brace {
			at.staff++
		} else {
			at = place{at.part + 1, 1}
		}
	}
	for _, sign := range []string{"{", "}", "(", ")", "[", "]", "|", "*"} {
		value = strings.ReplaceAll(value, sign, " "+sign+" ")
	}
	for word := range strings.FieldsSeq(value) {
		switch word {
		case "{":
			at, brace = place{at.part + 1, 0}, true
		case "}":
			brace = false
		case "(":
			next()
			shared = true
		case ")":
			shared = false
		case "[", "]", "|", "*":
		default:
			if !shared {
				next()
			}
			out[word] = at
		}
	}
	return out
}

func isLetter(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }

func (r *reader) voice(id string) *voice {
	for _, v := range r.voices {
		if v.id == id {
			return v
		}
	}
	v := &voice{id: id}
	r.voices = append(r.voices, v)
	return v
}

func (r *reader) voiceField(value string) error {
	id, props, _ := strings.Cut(value, " ")
	if id == "" {
		return fmt.Errorf("a V: line without a voice name")
	}
	before := len(r.voices)
	v := r.voice(id)
	if len(r.voices) > maxVoices {
		return fmt.Errorf("more than %d voices", maxVoices)
	}
	for props = strings.TrimSpace(props); props != ""; props = strings.TrimSpace(props) {
		name, rest, eq := strings.Cut(props, "=")
		if !eq {
			if knownClef(strings.TrimSpace(props)) {
				v.clef = strings.TrimSpace(props)
			}
			break
		}
		val := rest
		if strings.HasPrefix(rest, `"`) {
			val, props, _ = strings.Cut(rest[1:], `"`)
		} else {
			val, props, _ = strings.Cut(rest, " ")
		}
		switch strings.TrimSpace(name) {
		case "clef":
			v.clef = val
		case "name", "nm":
			v.name = val
		case "middle", "octave", "transpose":
			r.s.Note("V: "+strings.TrimSpace(name), 0)
		}
	}
	if r.body {
		if len(r.voices) > before {
			r.begin(v)
		}
		r.v = v
	}
	return nil
}

// finish turns voices into parts.
func (r *reader) finish() error {
	for _, v := range r.voices {
		r.v = v
		if err := v.closeLast(); err != nil {
			return err
		}
		if v.open+v.slurs > 0 {
			r.s.Note("slur that never ends", len(v.bars))
		}
	}
	var music []*voice
	for _, v := range r.voices {
		if len(v.bars) > 0 {
			music = append(music, v)
		}
	}
	if len(music) == 0 {
		return fmt.Errorf("the tune has no notes")
	}
	parts := map[int]int{} // of the layout, by their index in the score
	overlays := len(music) // voices that lie over others have the numbers after them
	for i, v := range music {
		at, laid := r.layout[v.id]
		if !laid {
			at = place{-1 - i, 1}
		}
		for bi := range v.bars {
			b := &v.bars[bi]
			for ci := range b.Clefs {
				b.Clefs[ci].Staff = max(at.staff, 1)
			}
			for ni := range b.Notes {
				n := &b.Notes[ni]
				if n.Staff = max(at.staff, 1); n.Voice > 0 {
					n.Voice += overlays
				} else {
					n.Voice = i + 1
				}
			}
		}
		overlays += v.overlays
		pi, begun := parts[at.part]
		if !begun {
			parts[at.part] = len(r.s.Parts)
			r.s.Parts = append(r.s.Parts, score.Part{Name: v.name, Staves: max(at.staff, 1), Bars: v.bars})
			continue
		}
		p := &r.s.Parts[pi]
		shared := p.Staves >= at.staff // the staff has its clef from the voice before
		p.Staves = max(p.Staves, at.staff)
		for bi, b := range v.bars {
			if bi == len(p.Bars) {
				p.Bars = append(p.Bars, b)
				continue
			}
			into := &p.Bars[bi]
			if !shared {
				into.Clefs = append(into.Clefs, b.Clefs...)
			}
			into.Notes = merge(into.Notes, b.Notes)
			into.Marks = append(into.Marks, b.Marks...)
			if into.Length.Less(b.Length) {
				into.Length = b.Length
			}
		}
	}
	return nil
}

// merge joins two voices of a bar, each in order of onset.
func merge(a, b []score.Note) []score.Note {
	out := make([]score.Note, 0, len(a)+len(b))
	for len(a) > 0 && len(b) > 0 {
		if b[0].Onset.Less(a[0].Onset) {
			out, b = append(out, b[0]), b[1:]
		} else {
			out, a = append(out, a[0]), a[1:]
		}
	}
	return append(append(out, a...), b...)
}
