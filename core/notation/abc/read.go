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
	"cmp"
	"errors"
	"fmt"
	"regexp"
	"strconv"
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

// field reads an information field, of the head, the body or inline.
func (r *reader) field(name byte, value string) error {
	switch name {
	case 'T':
		if r.s.Title == "" {
			r.s.Title = value
		}
	case 'C':
		if r.s.Composer == "" {
			r.s.Composer = value
		}
	case 'M':
		return r.meterField(value)
	case 'L':
		t, err := fraction(value)
		if err != nil || t.Sign() <= 0 {
			return fmt.Errorf("the unit length %q is not a fraction such as 1/8", value)
		}
		r.unit, err = t.Scaled(4, 1)
		return err
	case 'Q':
		if !r.body {
			r.tempo = value
			return nil
		}
		return r.tempoMark(r.v, value)
	case 'K':
		return r.keyField(value)
	case 'V':
		return r.voiceField(value)
	case 'w':
		if !r.body {
			return fmt.Errorf("words stand before the music they belong to")
		}
		r.v.lyrics(value, func() { r.s.Note("words beyond the notes", max(len(r.v.bars), 1)) })
	case 'U':
		return r.userSign(value)
	case 'P', 'm', 's', 'I', 'd':
		r.s.Note(string(name)+": field", 0)
	}
	return nil // other fields tell about the tune, not how it goes
}

// userSign is section 4.16 of the standard: U: T = !trill! gives a letter to a
// decoration, and to nothing again by !nil! or !none!.
func (r *reader) userSign(value string) error {
	sign, means, eq := strings.Cut(value, "=")
	sign, means = strings.TrimSpace(sign), strings.Trim(strings.TrimSpace(means), "!+\"")
	if !eq || len(sign) != 1 || !isLetter(sign[0]) && sign != "~" {
		r.s.Note("U: field", 0)
		return nil
	}
	if r.signs == nil {
		r.signs = map[byte]string{}
	}
	r.signs[sign[0]] = means
	return nil
}

// meterWritten finds the meter in what stands beside it: "C.C = 4/4", of "2/4 3/4"
// the first, "2" being two halves.
var meterWritten = regexp.MustCompile(`^(?:[^=]*=\s*)?(\(?\d[\d+ ]*\)?)(?:\s*(/)\s*(\d+))?(\s.*)?$`)

func (r *reader) meterField(value string) error {
	var m *score.Meter
	switch value {
	case "C":
		m = &score.Meter{Beats: 4, BeatType: 4}
	case "C|":
		m = &score.Meter{Beats: 2, BeatType: 2}
	case "none", "":
	default:
		top, bottom, ok := strings.Cut(value, "/")
		if found := meterWritten.FindStringSubmatch(value); found != nil && (found[2] == "" || found[4] != "" || strings.Contains(value, "=")) {
			r.s.Note("meter "+value, max(r.bars(), 1))
			top, bottom, ok = found[1], cmp.Or(found[3], "2"), true
		}
		beats := 0
		for part := range strings.SplitSeq(strings.Trim(strings.TrimSpace(top), "()"), "+") {
			n, err := strconv.Atoi(strings.TrimSpace(part))
			ok = ok && err == nil && n > 0 && n <= 64
			beats += n
		}
		bt, err := strconv.Atoi(strings.TrimSpace(bottom))
		if !ok || err != nil || bt < 1 || bt > 64 || bt&(bt-1) != 0 || beats > 64 {
			return fmt.Errorf("the meter %q is not one such as 3/4", value)
		}
		m = &score.Meter{Beats: beats, BeatType: bt}
	}
	if !r.body {
		r.meter = m
		return nil
	}
	r.meter, r.v.meter = m, m
	if m != nil {
		r.v.bar.Meter = m
	}
	return nil
}

// defaultUnit is section 3.1.7 of the standard: sixteenths for meters below
// three quarters of a whole note, else eighths.
func (r *reader) defaultUnit() score.Time {
	if r.meter != nil && r.meter.Length().Less(score.Quarters(3)) {
		return score.Frac(1, 4)
	}
	return score.Frac(1, 2)
}

func (r *reader) keyField(value string) error {
	key, clef, err := parseKey(value, r.s.Note)
	if err != nil {
		return err
	}
	if r.body {
		r.v.key, r.v.bar.Key = key, &key.Key
		if clef != "" {
			r.v.take(clefNamed(clef))
		}
		return nil
	}
	r.key, r.clef, r.body = key, clef, true
	if r.unit.Sign() == 0 {
		r.unit = r.defaultUnit()
	}
	if len(r.voices) == 0 {
		r.voice("1")
	}
	r.v = r.voices[0]
	for _, v := range r.voices {
		r.begin(v)
	}
	if r.tempo != "" {
		return r.tempoMark(r.v, r.tempo)
	}
	return nil
}

// begin gives a voice what the head of the tune says.
func (r *reader) begin(v *voice) {
	key := r.key
	v.key, v.meter, v.bar.Key = key, r.meter, &key.Key
	v.bar.Meter = r.meter
	if v.clef == "" {
		v.clef = r.clef
	}
	if v.clef == "" {
		v.clef = "treble"
	}
	v.take(clefNamed(v.clef))
}

// bars counts the bars of the voice being written.
func (r *reader) bars() int {
	if r.v == nil {
		return 0
	}
	return len(r.v.bars) + 1
}

func knownClef(s string) bool {
	_, ok := clefs[bareClef(s)]
	return ok
}

// bareClef is a clef's name without the line and the small 8 beside it: section 4.6 of
// the standard.
func bareClef(s string) string { return strings.TrimRight(octaves.Replace(s), "12345") }

var clefs = map[string]score.Clef{
	"treble": {Sign: "G", Line: 2}, "bass": {Sign: "F", Line: 4}, "alto": {Sign: "C", Line: 3},
	"tenor": {Sign: "C", Line: 4}, "perc": {Sign: "percussion"}, "none": {Sign: "G", Line: 2},
}

// octaves takes the small 8 off a clef's name: section 4.6 of the standard.
var octaves = strings.NewReplacer("-8", "", "+8", "")

func clefNamed(s string) score.Clef {
	name := octaves.Replace(s)
	c, ok := clefs[bareClef(s)]
	if !ok {
		c = clefs["treble"]
	}
	if line := name[len(bareClef(s)):]; ok && len(line) == 1 && c.Line > 0 {
		c.Line = int(line[0] - '0')
	}
	c.Staff = 1
	switch {
	case strings.HasSuffix(s, "-8"):
		c.Octave = -1
	case strings.HasSuffix(s, "+8"):
		c.Octave = 1
	}
	return c
}

var spokenTempo = regexp.MustCompile(`^\s*([A-Za-z][A-Za-z. ]*?)\s*(\d+(?:\.\d+)?)\s*$`)

// tempoMark reads 1/4=96, "Gently" 1/4=60, or words alone.
func (r *reader) tempoMark(v *voice, value string) error {
	if open := strings.IndexByte(value, '"'); open >= 0 {
		words, after, closed := strings.Cut(value[open+1:], `"`)
		if !closed {
			return fmt.Errorf("the tempo %q opens a quote and does not close it", value)
		}
		v.mark("words", words)
		value = strings.TrimSpace(value[:open] + after)
	}
	if value == "" {
		return nil
	}
	beat, per, ok := strings.Cut(value, "=")
	if !ok {
		beat, per = "1/4", value
	}
	if said := spokenTempo.FindStringSubmatch(per); said != nil { // "ca. 80"
		v.mark("words", said[1])
		per = said[2]
	}
	t, err := fraction(strings.TrimSpace(beat))
	qpm, err2 := strconv.ParseFloat(strings.TrimSpace(per), 64)
	if err != nil || err2 != nil || qpm <= 0 || qpm > 2000 || t.Sign() <= 0 {
		return fmt.Errorf("the tempo %q is not one such as 1/4=96", value)
	}
	counted, err := t.Scaled(4, 1)
	if err != nil {
		return err
	}
	v.bar.Marks = append(v.bar.Marks, score.Mark{Onset: v.cursor, Kind: "tempo", QPM: qpm * counted.Float(), Beat: counted})
	return nil
}

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
	if len(r.voices) > maxVoices {
		return fmt.Errorf("more than %d voices", maxVoices)
	}
	before := len(r.voices)
	v := r.voice(id)
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

func fraction(s string) (score.Time, error) {
	n, d, slash := strings.Cut(s, "/")
	num, err := strconv.ParseInt(n, 10, 32)
	den := int64(1)
	if err == nil && slash {
		den, err = strconv.ParseInt(d, 10, 32)
	}
	if err != nil {
		return score.Time{}, err
	}
	return score.NewTime(num, den)
}
