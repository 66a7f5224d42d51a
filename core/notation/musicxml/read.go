// Package musicxml reads and writes MusicXML score-partwise documents, version
// 3.1 and 4.0, plain or compressed (.mxl), to and from score.Score.
//
// Source: W3C Music Notation Community Group, MusicXML 4.0 (2021).
//
// Positions are kept as exact fractions of a quarter note. What the reader
// does not keep is listed in Score.Unread; page layout is passed over without
// a word. Documents with entities of their own, and files that unpack to more
// than 64 MB, are refused.
package musicxml

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf16"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

const (
	maxUnpacked = 64 << 20
	maxBars     = 10000
	maxParts    = 64
)

// Read reads a plain or compressed document. Errors are *score.SyntaxError.
func Read(data []byte) (score.Score, error) {
	s, _, _, err := read(data)
	return s, err
}

// WithIDs returns a document's text with the id of the score's note at each
// <note>, so that what is drawn can be found again.
func WithIDs(data []byte) ([]byte, error) {
	s, text, tags, err := read(data)
	if err != nil {
		return nil, err
	}
	ids := map[int64]string{} // by where the tag of the note ends
	for pi, part := range tags {
		for bi, bar := range part {
			for ni, end := range bar {
				ids[end] = s.Parts[pi].Bars[bi].Notes[ni].ID
			}
		}
	}
	ends := slices.Sorted(maps.Keys(ids))
	var out bytes.Buffer
	from := int64(0)
	for _, end := range ends {
		start := int64(bytes.LastIndexByte(text[from:end], '<')) + from
		out.Write(text[from:start])
		out.Write(ownID.ReplaceAll(text[start:end-1], nil))
		out.WriteString(` id="` + ids[end] + `">`)
		from = end
	}
	out.Write(text[from:])
	return out.Bytes(), nil
}

// ownID is the id that a tag already has.
var ownID = regexp.MustCompile(`\sid\s*=\s*("[^"]*"|'[^']*')`)

// read also returns the text that was read and, for each note by part, bar and
// place, where its tag ends in it.
func read(data []byte) (score.Score, []byte, [][][]int64, error) {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		inner, err := unpack(data)
		if err != nil {
			return score.Score{}, nil, nil, err
		}
		data = inner
	}
	data, err := decodeText(data)
	if err != nil {
		return score.Score{}, nil, nil, err
	}
	r := &reader{d: xml.NewDecoder(bytes.NewReader(data))}
	r.d.CharsetReader = func(label string, in io.Reader) (io.Reader, error) {
		switch strings.ToLower(label) {
		case "utf-8", "utf-16", "us-ascii", "ascii":
			return in, nil // UTF-16 is already turned into UTF-8
		}
		return nil, fmt.Errorf("the text encoding %q is not read; save the file as UTF-8", label)
	}
	if err := r.document(); err != nil {
		return score.Score{}, nil, nil, r.wrap(err)
	}
	r.s.Finish()
	return r.s, data, r.tags, nil
}

// decodeText turns UTF-16 with a byte order mark into UTF-8.
func decodeText(data []byte) ([]byte, error) {
	var big bool
	switch {
	case bytes.HasPrefix(data, []byte{0xFE, 0xFF}):
		big = true
	case bytes.HasPrefix(data, []byte{0xFF, 0xFE}):
	default:
		return bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF")), nil
	}
	data = data[2:]
	if len(data)%2 != 0 {
		return nil, &score.SyntaxError{Msg: "the UTF-16 text ends in half a character"}
	}
	units := make([]uint16, len(data)/2)
	for i := range units {
		if big {
			units[i] = uint16(data[2*i])<<8 | uint16(data[2*i+1])
		} else {
			units[i] = uint16(data[2*i+1])<<8 | uint16(data[2*i])
		}
	}
	// the declaration still names the code that the text was in
	return declared.ReplaceAll([]byte(string(utf16.Decode(units))), []byte("${1}UTF-8")), nil
}

var declared = regexp.MustCompile(`(?i)^(\s*<\?xml[^>]*encoding=["'])utf-16`)

type reader struct {
	d     *xml.Decoder
	s     score.Score
	bar   int
	names map[string]string // part names by id
	tags  [][][]int64       // where the tag of each note ends, by part, bar and place
}

// wrap gives an error the place where the reader stands.
func (r *reader) wrap(err error) error {
	var known *score.SyntaxError
	if errors.As(err, &known) {
		return err
	}
	line, _ := r.d.InputPos()
	msg := err.Error()
	var syntax *xml.SyntaxError
	if errors.As(err, &syntax) {
		line, msg = syntax.Line, "not well-formed XML: "+syntax.Msg
	}
	if errors.Is(err, io.EOF) || syntax != nil && syntax.Msg == "unexpected EOF" {
		msg = "the file ends before the score does"
	}
	return &score.SyntaxError{Line: line, Bar: r.bar, Msg: strings.ReplaceAll(msg, "\n", " ")}
}

func (r *reader) document() error {
	for {
		tok, err := r.d.Token()
		if err == io.EOF {
			return fmt.Errorf("there is no score in this file")
		}
		if err != nil {
			return err
		}
		switch t := tok.(type) {
		case xml.Directive:
			if bytes.Contains(t, []byte("<!ENTITY")) {
				return fmt.Errorf("the file defines XML entities; scores that do are not read")
			}
		case xml.StartElement:
			switch t.Name.Local {
			case "score-partwise":
				return r.partwise()
			case "score-timewise":
				return fmt.Errorf("a timewise score; save it as partwise MusicXML")
			}
			return fmt.Errorf("<%s> is not a MusicXML score", t.Name.Local)
		}
	}
}

// children calls f for each child element until the parent ends. f must
// consume the child.
func (r *reader) children(f func(xml.StartElement) error) error {
	for {
		tok, err := r.d.Token()
		if err != nil {
			return err
		}
		switch t := tok.(type) {
		case xml.StartElement:
			if err := f(t); err != nil {
				return err
			}
		case xml.EndElement:
			return nil
		}
	}
}

func (r *reader) partwise() error {
	parts := map[string]int{}
	err := r.children(func(e xml.StartElement) error {
		switch e.Name.Local {
		case "work":
			var w struct {
				Title string `xml:"work-title"`
			}
			if err := r.d.DecodeElement(&w, &e); err != nil {
				return err
			}
			if r.s.Title == "" {
				r.s.Title = strings.TrimSpace(w.Title)
			}
		case "movement-title":
			var title string
			if err := r.d.DecodeElement(&title, &e); err != nil {
				return err
			}
			if title = strings.TrimSpace(title); title != "" {
				r.s.Title = title
			}
		case "identification":
			var id struct {
				Creators []struct {
					Type string `xml:"type,attr"`
					Name string `xml:",chardata"`
				} `xml:"creator"`
			}
			if err := r.d.DecodeElement(&id, &e); err != nil {
				return err
			}
			for _, c := range id.Creators {
				if c.Type == "composer" {
					r.s.Composer = strings.TrimSpace(c.Name)
				}
			}
		case "part-list":
			return r.partList(e)
		case "part":
			id := attr(e, "id")
			if _, twice := parts[id]; twice {
				return fmt.Errorf("the part %q stands twice", id)
			}
			if len(parts) == maxParts {
				return fmt.Errorf("more than %d parts", maxParts)
			}
			name, listed := r.names[id]
			if !listed {
				return fmt.Errorf("the part %q is not in the part list", id)
			}
			parts[id] = len(r.s.Parts)
			return r.part(name)
		default:
			return r.d.Skip()
		}
		return nil
	})
	if err != nil {
		return err
	}
	if r.s.Bars() == 0 {
		return fmt.Errorf("the score has no bars")
	}
	return nil
}

func (r *reader) partList(e xml.StartElement) error {
	var list struct {
		Parts []struct {
			ID   string `xml:"id,attr"`
			Name string `xml:"part-name"`
		} `xml:"score-part"`
	}
	if err := r.d.DecodeElement(&list, &e); err != nil {
		return err
	}
	r.names = map[string]string{}
	for _, p := range list.Parts {
		r.names[p.ID] = strings.TrimSpace(p.Name)
	}
	return nil
}

// partState is what carries from one bar of a part to the next.
type partState struct {
	divisions int64
	meter     score.Meter
	voices    map[string]int
}

func (r *reader) part(name string) error {
	p := score.Part{Name: name, Staves: 1}
	st := &partState{voices: map[string]int{}}
	r.bar = 0
	var endings []int
	var tags [][]int64
	err := r.children(func(e xml.StartElement) error {
		if e.Name.Local != "measure" {
			return r.d.Skip()
		}
		if r.bar == maxBars {
			return fmt.Errorf("more than %d bars", maxBars)
		}
		r.bar++
		m := measure{r: r, st: st, part: &p, endings: endings}
		if err := r.children(m.child); err != nil {
			return err
		}
		p.Bars = append(p.Bars, m.finish())
		tags = append(tags, m.tags)
		endings = m.endings
		return nil
	})
	r.tags = append(r.tags, tags)
	r.s.Parts = append(r.s.Parts, p)
	return err
}

// measure reads one bar; cursor is where the next note begins.
type measure struct {
	r       *reader
	st      *partState
	part    *score.Part
	bar     score.Bar
	cursor  score.Time
	filled  score.Time
	lastOn  score.Time // onset of the note before, for chords
	hasLast bool
	endings []int // passes of the ending that is open
	closing bool
	tag     int64   // where the tag of the note being read ends
	tags    []int64 // beside the bar's notes
}

func (m *measure) finish() score.Bar {
	m.bar.Repeat.Endings = m.endings
	if m.closing {
		m.endings = nil
	}
	m.bar.Length = m.filled
	if m.filled.Sign() == 0 && m.st.meter.BeatType > 0 {
		m.bar.Length = m.st.meter.Length()
	}
	sortNotes(m.bar.Notes, m.tags)
	return m.bar
}

// sortNotes puts notes in order of onset, each voice in its own order: voices
// are written one after another. Their tags go with them.
func sortNotes(notes []score.Note, tags []int64) {
	order := make([]int, len(notes))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return notes[a].Onset.Cmp(notes[b].Onset) })
	was, wasTags := slices.Clone(notes), slices.Clone(tags)
	for i, from := range order {
		notes[i], tags[i] = was[from], wasTags[from]
	}
}

// layout names children of a measure or a note that only concern the page.
var layout = map[string]bool{
	"print": true, "stem": true, "beam": true, "accidental": true, "instrument": true, "notehead": true,
	"staff-layout": true, "footnote": true, "level": true, "listen": true, "sound": true, "bar-style": true,
	"offset": true, "staff-lines": true, "part-symbol": true, "bookmark": true, "link": true, "instruments": true,
	"staff-details": true, "play": true,
}

func (m *measure) unread(name string) {
	if !layout[name] {
		m.r.s.Note(name, m.r.bar)
	}
}

func (m *measure) unreadAll(list []any1) {
	for _, a := range list {
		m.unread(a.XMLName.Local)
	}
}

func (m *measure) child(e xml.StartElement) error {
	d := m.r.d
	switch e.Name.Local {
	case "attributes":
		var a xmlAttributes
		if err := d.DecodeElement(&a, &e); err != nil {
			return err
		}
		return m.attributes(a)
	case "note":
		var n xmlNote
		m.tag = d.InputOffset()
		if err := d.DecodeElement(&n, &e); err != nil {
			return err
		}
		return m.note(n)
	case "backup", "forward":
		var b struct {
			Duration string `xml:"duration"`
		}
		if err := d.DecodeElement(&b, &e); err != nil {
			return err
		}
		t, err := m.time(b.Duration)
		if err != nil {
			return err
		}
		m.hasLast = false
		if e.Name.Local == "forward" {
			m.move(t)
		} else if m.cursor = m.cursor.Sub(t); m.cursor.Sign() < 0 {
			return fmt.Errorf("the music is backed up to before the bar begins")
		}
	case "direction":
		var x xmlDirection
		if err := d.DecodeElement(&x, &e); err != nil {
			return err
		}
		m.direction(x)
	case "barline":
		var b xmlBarline
		if err := d.DecodeElement(&b, &e); err != nil {
			return err
		}
		m.barline(b)
	case "sound":
		for _, jump := range []string{"dacapo", "dalsegno", "tocoda", "fine"} {
			if attr(e, jump) != "" {
				m.unread(jump + " jump")
			}
		}
		return d.Skip()
	default:
		m.unread(e.Name.Local)
		return d.Skip()
	}
	return nil
}

func (m *measure) move(t score.Time) {
	m.cursor = m.cursor.Add(t)
	if m.filled.Less(m.cursor) {
		m.filled = m.cursor
	}
}

// time reads a number of divisions, which may have a fraction.
func (m *measure) time(s string) (score.Time, error) {
	s = strings.TrimSpace(s)
	whole, frac, _ := strings.Cut(s, ".")
	if len(frac) > 6 {
		return score.Time{}, fmt.Errorf("the duration %q is too fine", s)
	}
	num, err := strconv.ParseInt(whole+frac, 10, 64)
	if err != nil || num < 0 || num > 1<<40 {
		return score.Time{}, fmt.Errorf("%q is not a duration", s)
	}
	den := int64(1)
	for range frac {
		den *= 10
	}
	if m.st.divisions == 0 {
		return score.Time{}, fmt.Errorf("a duration stands before <divisions> says what it counts")
	}
	return score.NewTime(num, den*m.st.divisions)
}

func (m *measure) attributes(a xmlAttributes) error {
	if a.Divisions != "" {
		n, err := strconv.ParseInt(strings.TrimSpace(a.Divisions), 10, 64)
		if err != nil || n <= 0 || n > score.Grid {
			return fmt.Errorf("<divisions> is %q; it must be a positive whole number", a.Divisions)
		}
		m.st.divisions = n
	}
	if a.Staves != "" {
		n, err := strconv.Atoi(strings.TrimSpace(a.Staves))
		if err != nil || n < 1 || n > 8 {
			return fmt.Errorf("%q staves in one part", a.Staves)
		}
		m.part.Staves = n
	}
	for _, k := range a.Keys {
		if k.Fifths == "" {
			m.unread("key without fifths")
			continue
		}
		n, err := strconv.Atoi(strings.TrimSpace(k.Fifths))
		if err != nil || n < -7 || n > 7 {
			return fmt.Errorf("a key of %q fifths", k.Fifths)
		}
		m.bar.Key = &pitch.Key{Fifths: n, Mode: knownMode(k.Mode)}
	}
	for _, t := range a.Times {
		if t.Senza != nil || len(t.Beats) == 0 {
			m.unread("senza-misura")
			continue
		}
		meter, err := readMeter(t.Beats[0], first(t.BeatType))
		if err != nil {
			return err
		}
		m.bar.Meter, m.st.meter = &meter, meter
		if len(t.Beats) > 1 {
			m.unread("further meters at once")
		}
	}
	for _, c := range a.Clefs {
		clef := score.Clef{Staff: max(c.Number, 1), Sign: c.Sign, Line: c.Line, Octave: min(max(c.Octave, -2), 2)}
		if m.cursor.Sign() > 0 {
			m.unread("clef change inside a bar")
			continue
		}
		m.bar.Clefs = append(m.bar.Clefs, clef)
	}
	if a.Transpose != nil {
		m.unread("transposing instrument (notes kept as written)")
	}
	m.unreadAll(a.Other)
	return nil
}

func knownMode(s string) string {
	s = strings.ToLower(strings.TrimSpace(s))
	if _, err := pitch.KeyOf("C", s); err != nil {
		return ""
	}
	return s
}

func readMeter(beats, beatType string) (score.Meter, error) {
	m := score.Meter{}
	for part := range strings.SplitSeq(beats, "+") {
		n, err := strconv.Atoi(strings.TrimSpace(part))
		if err != nil || n < 1 || n > 64 {
			return m, fmt.Errorf("a meter of %q over %q", beats, beatType)
		}
		m.Beats += n
	}
	n, err := strconv.Atoi(strings.TrimSpace(beatType))
	if err != nil || n < 1 || n > 64 || n&(n-1) != 0 {
		return m, fmt.Errorf("a meter of %q over %q", beats, beatType)
	}
	m.BeatType = n
	return m, nil
}

func (m *measure) note(x xmlNote) error {
	if x.Cue != nil {
		m.unread("cue note")
		if x.Chord == nil {
			if t, err := m.time(x.Duration); err == nil {
				m.move(t)
			}
		}
		return nil
	}
	n := score.Note{Staff: max(x.Staff, 1), Dots: len(x.Dots), Grace: x.Grace != nil}
	if n.Staff > 8 {
		return fmt.Errorf("a note on staff %d", n.Staff)
	}
	m.part.Staves = max(m.part.Staves, n.Staff)
	voice, known := m.st.voices[x.Voice]
	if !known {
		voice = len(m.st.voices) + 1
		m.st.voices[x.Voice] = voice
	}
	n.Voice = voice
	switch {
	case x.Rest != nil:
		n.Rest = true
	case x.Pitch != nil:
		p, err := x.Pitch.read()
		if err != nil {
			return err
		}
		n.Pitch = p
	case x.Unpitched != nil:
		m.unread("unpitched note")
		n.Rest = true
	default:
		return fmt.Errorf("a note with neither pitch nor rest")
	}
	if !n.Grace {
		t, err := m.time(x.Duration)
		if err != nil {
			return err
		}
		n.Duration = t
	} else {
		m.unread("time of grace notes")
	}
	if x.Chord != nil {
		if !m.hasLast {
			return fmt.Errorf("a chord note with no note before it")
		}
		n.Onset = m.lastOn
	} else {
		n.Onset = m.cursor
		m.lastOn, m.hasLast = m.cursor, true
		m.move(n.Duration)
	}
	for _, t := range x.Ties {
		n.TieTo = n.TieTo || t.Type == "start"
		n.TieFrom = n.TieFrom || t.Type == "stop"
	}
	if x.Modification != nil && x.Modification.Actual > 0 && x.Modification.Normal > 0 {
		n.Tuplet = &score.Tuplet{Actual: x.Modification.Actual, Normal: x.Modification.Normal}
	}
	for _, nt := range x.Notations {
		m.notations(&n, nt)
	}
	var syllables []string
	for _, l := range x.Lyrics {
		if text := strings.TrimSpace(strings.Join(l.Text, "")); text != "" {
			syllables = append(syllables, text)
		}
	}
	n.Lyric = first(syllables)
	if len(syllables) > 1 {
		m.unread("second verse")
	}
	m.unreadAll(x.Other)
	m.bar.Notes, m.tags = append(m.bar.Notes, n), append(m.tags, m.tag)
	return nil
}

func (m *measure) notations(n *score.Note, x xmlNotations) {
	for _, s := range x.Slurs {
		switch s.Type {
		case "start":
			n.SlurStarts++
		case "stop":
			n.SlurEnds++
		}
	}
	for _, a := range x.Articulations {
		for _, one := range a.All {
			n.Articulations = append(n.Articulations, one.XMLName.Local)
		}
	}
	for _, o := range x.Ornaments {
		for _, one := range o.All {
			if ornaments[one.XMLName.Local] {
				n.Articulations = append(n.Articulations, one.XMLName.Local)
			} else {
				m.unread(one.XMLName.Local)
			}
		}
	}
	for range x.Fermatas {
		n.Articulations = append(n.Articulations, "fermata")
	}
	for _, t := range x.Technical {
		for _, one := range t.All {
			switch one.XMLName.Local {
			case "fingering", "pluck":
				n.Fingers = append(n.Fingers, strings.TrimSpace(one.Text))
			case "up-bow", "down-bow":
				n.Articulations = append(n.Articulations, one.XMLName.Local)
			case "string", "fret":
				m.tablature(n, one)
			default:
				m.unread(one.XMLName.Local)
			}
		}
	}
	for _, o := range x.Other {
		if name := o.XMLName.Local; name != "tied" && name != "tuplet" {
			m.unread(name)
		}
	}
}

// ornaments are those kept with a note.
var ornaments = map[string]bool{"trill-mark": true, "mordent": true, "inverted-mordent": true, "turn": true}

// tablature keeps a string or a fret where it is a small number.
func (m *measure) tablature(n *score.Note, x any1) {
	at, err := strconv.Atoi(strings.TrimSpace(x.Text))
	switch {
	case err != nil || at < 0 || at > 36 || at > 12 && x.XMLName.Local == "string":
		m.unread(x.XMLName.Local)
	case x.XMLName.Local == "string":
		n.String = at
	default:
		n.Fret = at
	}
}

func (m *measure) direction(x xmlDirection) {
	add := func(kind, text string) {
		m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: kind, Text: text})
	}
	for _, t := range x.Types {
		for _, d := range t.Dynamics {
			for _, one := range d.All {
				add("dynamic", one.XMLName.Local)
			}
		}
		for _, w := range t.Words {
			if text := strings.TrimSpace(w); text != "" {
				add("words", text)
			}
		}
		for _, mt := range t.Metronomes {
			if qpm, beat, ok := mt.tempo(); ok {
				m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: "tempo", QPM: qpm, Beat: beat})
			} else {
				m.unread("metronome mark")
			}
		}
		for _, w := range t.Wedges {
			add("dynamic", w.Type)
		}
		for _, p := range t.Pedals {
			if p.Type == "start" || p.Type == "stop" || p.Type == "change" {
				add("pedal", p.Type)
			}
		}
		m.unreadAll(t.Other)
	}
	for _, jump := range []string{x.Sound.DaCapo, x.Sound.DalSegno, x.Sound.ToCoda, x.Sound.Fine} {
		if jump != "" {
			m.unread("jump (da capo, segno, coda)")
		}
	}
	m.unreadAll(x.Other)
}

func (m *measure) barline(b xmlBarline) {
	if b.Ending != nil {
		switch b.Ending.Type {
		case "start":
			m.endings = nil
			for f := range strings.FieldsFuncSeq(b.Ending.Number, func(r rune) bool { return r == ',' || r == ' ' || r == '.' }) {
				if n, err := strconv.Atoi(f); err == nil && n > 0 && n < 16 {
					m.endings = append(m.endings, n)
				}
			}
		case "stop", "discontinue":
			m.closing = true
		}
	}
	if b.Repeat != nil {
		if b.Repeat.Direction == "forward" {
			m.bar.Repeat.Starts = true
		} else {
			m.bar.Repeat.Ends = min(max(b.Repeat.Times, 2), 16)
		}
	}
	m.unreadAll(b.Other)
}

func attr(e xml.StartElement, name string) string {
	for _, a := range e.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

func first(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return list[0]
}
