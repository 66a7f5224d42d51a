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
	r := &reader{d: newDocument(data)}
	type flaw struct {
		at  int
		err error
	}
	checked := make(chan flaw, 1) // the characters are checked beside the reading
	go func() {
		at, err := check(data)
		checked <- flaw{at, err}
	}()
	err = r.document()
	if f := <-checked; f.err != nil {
		err, r.d.at, r.bar = f.err, f.at, 0
	}
	if err != nil {
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
	d     *document
	s     score.Score
	bar   int
	names map[string]string // part names by id
	tags  [][][]int64       // where the tag of each note ends, by part, bar and place
}

// wrap gives an error the place where the reader stands.
func (r *reader) wrap(err error) error {
	msg := err.Error()
	if errors.Is(err, io.ErrUnexpectedEOF) {
		msg = "the file ends before the score does"
	}
	return &score.SyntaxError{Line: r.d.line(), Bar: r.bar, Msg: strings.ReplaceAll(msg, "\n", " ")}
}

func (r *reader) document() error {
	e, _, err := r.d.enter()
	if errors.Is(err, io.EOF) {
		return fmt.Errorf("there is no score in this file")
	}
	if err != nil {
		return err
	}
	switch e.name() {
	case "score-partwise":
		return r.partwise()
	case "score-timewise":
		return fmt.Errorf("a timewise score; save it as partwise MusicXML")
	}
	return fmt.Errorf("<%s> is not a MusicXML score", e.name())
}

// children calls f for each child element until the parent ends. f must fill or
// pass the child.
func (r *reader) children(f func(element) error) error {
	for {
		e, more, err := r.d.enter()
		if err != nil || !more {
			return err
		}
		if err := f(e); err != nil {
			return err
		}
	}
}

func (r *reader) partwise() error {
	parts := map[string]bool{}
	err := r.children(func(e element) error {
		if e.name() == "part" {
			id := e.attr("id")
			name, listed := r.names[id]
			switch {
			case parts[id]:
				return fmt.Errorf("the part %q stands twice", id)
			case len(parts) == maxParts:
				return fmt.Errorf("more than %d parts", maxParts)
			case !listed:
				return fmt.Errorf("the part %q is not in the part list", id)
			}
			parts[id] = true
			return r.part(name)
		}
		if err := r.d.fill(); err != nil {
			return err
		}
		switch e.name() {
		case "work":
			if r.s.Title == "" {
				r.s.Title = e.child("work-title").text()
			}
		case "movement-title":
			if title := e.text(); title != "" {
				r.s.Title = title
			}
		case "identification":
			for c := e.first(); c.here(); c = c.next() {
				if c.name() == "creator" && c.attr("type") == "composer" {
					r.s.Composer = c.text()
				}
			}
		case "part-list":
			r.names = map[string]string{}
			for c := e.first(); c.here(); c = c.next() {
				if c.name() == "score-part" {
					r.names[c.attr("id")] = c.child("part-name").text()
				}
			}
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

// partState is what carries from one bar of a part to the next.
type partState struct {
	divisions int64
	meter     score.Meter
	voices    map[string]int
	notes     int // of the bar before: the next has about as many

	// room for sorting a bar
	order   []int
	was     []score.Note
	wasTags []int64
}

func (r *reader) part(name string) error {
	p := score.Part{Name: name, Staves: 1}
	st := &partState{voices: map[string]int{}}
	r.bar = 0
	var endings []int
	var tags [][]int64
	err := r.children(func(e element) error {
		if e.name() != "measure" {
			return r.d.pass()
		}
		if r.bar == maxBars {
			return fmt.Errorf("more than %d bars", maxBars)
		}
		r.bar++
		m := measure{r: r, st: st, part: &p, endings: endings}
		m.bar.Notes, m.tags = make([]score.Note, 0, st.notes), make([]int64, 0, st.notes)
		if err := r.children(m.child); err != nil {
			return err
		}
		p.Bars = append(p.Bars, m.finish())
		st.notes = len(m.bar.Notes)
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
	m.st.sort(m.bar.Notes, m.tags)
	return m.bar
}

// sort puts notes in order of onset, each voice in its own order: voices are
// written one after another. Their tags go with them.
func (st *partState) sort(notes []score.Note, tags []int64) {
	st.order = st.order[:0]
	sorted := true
	for i := range notes {
		st.order = append(st.order, i)
		sorted = sorted && (i == 0 || !notes[i].Onset.Less(notes[i-1].Onset))
	}
	if sorted {
		return
	}
	slices.SortStableFunc(st.order, func(a, b int) int { return notes[a].Onset.Cmp(notes[b].Onset) })
	st.was, st.wasTags = append(st.was[:0], notes...), append(st.wasTags[:0], tags...)
	for i, from := range st.order {
		notes[i], tags[i] = st.was[from], st.wasTags[from]
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

func (m *measure) child(e element) error {
	m.tag = int64(m.r.d.at)
	if err := m.r.d.fill(); err != nil {
		return err
	}
	switch e.name() {
	case "attributes":
		return m.attributes(e)
	case "note":
		return m.note(e)
	case "backup", "forward":
		t, err := m.time(e.child("duration").text())
		if err != nil {
			return err
		}
		m.hasLast = false
		if e.name() == "forward" {
			m.move(t)
		} else if m.cursor = m.cursor.Sub(t); m.cursor.Sign() < 0 {
			return fmt.Errorf("the music is backed up to before the bar begins")
		}
	case "direction":
		m.direction(e)
	case "barline":
		m.barline(e)
	case "sound":
		for _, jump := range []string{"dacapo", "dalsegno", "tocoda", "fine"} {
			if e.attr(jump) != "" {
				m.unread(jump + " jump")
			}
		}
	default:
		m.unread(e.name())
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

func (m *measure) attributes(e element) error {
	for c := e.first(); c.here(); c = c.next() {
		if err := m.attribute(c); err != nil {
			return err
		}
	}
	return nil
}

func (m *measure) attribute(e element) error {
	switch e.name() {
	case "divisions":
		n, err := strconv.ParseInt(e.text(), 10, 64)
		if err != nil || n <= 0 || n > score.Grid {
			return fmt.Errorf("<divisions> is %q; it must be a positive whole number", e.text())
		}
		m.st.divisions = n
	case "staves":
		n, err := strconv.Atoi(e.text())
		if err != nil || n < 1 || n > 8 {
			return fmt.Errorf("%q staves in one part", e.text())
		}
		m.part.Staves = n
	case "key":
		fifths := e.child("fifths").text()
		if fifths == "" {
			m.unread("key without fifths")
			return nil
		}
		n, err := strconv.Atoi(fifths)
		if err != nil || n < -7 || n > 7 {
			return fmt.Errorf("a key of %q fifths", fifths)
		}
		m.bar.Key = &pitch.Key{Fifths: n, Mode: knownMode(e.child("mode").text())}
	case "time":
		return m.meter(e)
	case "clef":
		line, err1 := e.child("line").number()
		octave, err2 := e.child("clef-octave-change").number()
		if err := errors.Join(err1, err2); err != nil {
			return err
		}
		staff, _ := strconv.Atoi(e.attr("number")) // none is written where there is one staff
		if m.cursor.Sign() > 0 {
			m.unread("clef change inside a bar")
			return nil
		}
		m.bar.Clefs = append(m.bar.Clefs, score.Clef{Staff: max(staff, 1), Sign: e.child("sign").text(), Line: line, Octave: min(max(octave, -2), 2)})
	case "transpose":
		m.unread("transposing instrument (notes kept as written)")
	default:
		m.unread(e.name())
	}
	return nil
}

// meter reads a <time>, of which the first of several meters is kept.
func (m *measure) meter(e element) error {
	var beats, beatType element
	for c := e.first(); c.here(); c = c.next() {
		switch {
		case c.name() == "beats" && beats.here():
			m.unread("further meters at once")
		case c.name() == "beats":
			beats = c
		case c.name() == "beat-type" && !beatType.here():
			beatType = c
		}
	}
	if !beats.here() || e.child("senza-misura").here() {
		m.unread("senza-misura")
		return nil
	}
	of := ""
	if beatType.here() {
		of = beatType.text()
	}
	meter, err := readMeter(beats.text(), of)
	if err != nil {
		return err
	}
	m.bar.Meter, m.st.meter = &meter, meter
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

// note reads a <note>: MusicXML 4.0, "The <note> element".
func (m *measure) note(e element) error {
	n := score.Note{Staff: 1}
	var cue, chord, sounds bool
	var duration, voice, verse string
	for c := e.first(); c.here(); c = c.next() {
		switch name := c.name(); name {
		case "grace":
			n.Grace = true
		case "cue":
			cue = true
		case "chord":
			chord = true
		case "rest":
			n.Rest, sounds = true, true
		case "unpitched":
			m.unread("unpitched note")
			n.Rest, sounds = true, true
		case "pitch":
			p, err := readPitch(c)
			if err != nil {
				return err
			}
			n.Pitch, sounds = p, true
		case "duration":
			duration = c.text()
		case "voice":
			voice = c.text()
		case "staff":
			staff, err := c.number()
			if err != nil {
				return err
			}
			if n.Staff = max(staff, 1); n.Staff > 8 {
				return fmt.Errorf("a note on staff %d", n.Staff)
			}
		case "dot":
			n.Dots++
		case "tie":
			n.TieTo = n.TieTo || c.attr("type") == "start"
			n.TieFrom = n.TieFrom || c.attr("type") == "stop"
		case "time-modification":
			actual, err1 := c.child("actual-notes").number()
			normal, err2 := c.child("normal-notes").number()
			if err := errors.Join(err1, err2); err != nil {
				return err
			}
			if actual > 0 && normal > 0 {
				n.Tuplet = &score.Tuplet{Actual: actual, Normal: normal}
			}
		case "notations":
			m.notations(&n, c)
		case "lyric":
			text := ""
			for t := c.first(); t.here(); t = t.next() {
				if t.name() == "text" {
					text += c.d.nodes[t.i].text
				}
			}
			if text = strings.TrimSpace(text); text != "" && verse != "" {
				m.unread("second verse")
			} else if text != "" {
				verse = text
			}
		case "type":
		default:
			m.unread(name)
		}
	}
	if cue {
		m.unread("cue note")
		if t, err := m.time(duration); err == nil && !chord {
			m.move(t)
		}
		return nil
	}
	if !sounds {
		return fmt.Errorf("a note with neither pitch nor rest")
	}
	if n.Rest {
		n.Pitch = pitch.Pitch{}
	}
	n.Lyric = verse
	m.part.Staves = max(m.part.Staves, n.Staff)
	known := false
	if n.Voice, known = m.st.voices[voice]; !known {
		n.Voice = len(m.st.voices) + 1
		m.st.voices[voice] = n.Voice
	}
	if n.Grace {
		m.unread("time of grace notes")
	} else {
		t, err := m.time(duration)
		if err != nil {
			return err
		}
		n.Duration = t
	}
	if chord {
		if !m.hasLast {
			return fmt.Errorf("a chord note with no note before it")
		}
		n.Onset = m.lastOn
	} else {
		n.Onset = m.cursor
		m.lastOn, m.hasLast = m.cursor, true
		m.move(n.Duration)
	}
	m.bar.Notes, m.tags = append(m.bar.Notes, n), append(m.tags, m.tag)
	return nil
}

func readPitch(e element) (pitch.Pitch, error) {
	var step, alter, octave string
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "step":
			step = c.text()
		case "alter":
			alter = c.text()
		case "octave":
			octave = c.text()
		}
	}
	by := 0.0
	oct, err := strconv.Atoi(octave)
	if err == nil && alter != "" {
		by, err = strconv.ParseFloat(alter, 64)
	}
	if err != nil || len(step) != 1 {
		return pitch.Pitch{}, fmt.Errorf("a pitch of step %q, alter %q, octave %q", step, alter, octave)
	}
	if by != float64(int(by)) {
		return pitch.Pitch{}, fmt.Errorf("a quarter-tone alteration of %s", alter)
	}
	return pitch.New(step[0], int(by), oct)
}

func (m *measure) notations(n *score.Note, e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "slur":
			switch c.attr("type") {
			case "start":
				n.SlurStarts++
			case "stop":
				n.SlurEnds++
			}
		case "articulations":
			for one := c.first(); one.here(); one = one.next() {
				n.Articulations = append(n.Articulations, one.name())
			}
		case "ornaments":
			for one := c.first(); one.here(); one = one.next() {
				if ornaments[one.name()] {
					n.Articulations = append(n.Articulations, one.name())
				} else {
					m.unread(one.name())
				}
			}
		case "fermata":
			n.Articulations = append(n.Articulations, "fermata")
		case "technical":
			for one := c.first(); one.here(); one = one.next() {
				switch one.name() {
				case "fingering", "pluck":
					n.Fingers = append(n.Fingers, one.text())
				case "up-bow", "down-bow":
					n.Articulations = append(n.Articulations, one.name())
				case "string", "fret":
					m.tablature(n, one)
				default:
					m.unread(one.name())
				}
			}
		case "tied", "tuplet":
		default:
			m.unread(c.name())
		}
	}
}

// ornaments are those kept with a note.
var ornaments = map[string]bool{"trill-mark": true, "mordent": true, "inverted-mordent": true, "turn": true}

// tablature keeps a string or a fret where it is a small number.
func (m *measure) tablature(n *score.Note, e element) {
	at, err := strconv.Atoi(e.text())
	switch {
	case err != nil || at < 0 || at > 36 || at > 12 && e.name() == "string":
		m.unread(e.name())
	case e.name() == "string":
		n.String = at
	default:
		n.Fret = at
	}
}

func (m *measure) direction(e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "direction-type":
			for one := c.first(); one.here(); one = one.next() {
				m.mark(one)
			}
		case "sound":
			for _, jump := range []string{"dacapo", "dalsegno", "tocoda", "fine"} {
				if c.attr(jump) != "" {
					m.unread("jump (da capo, segno, coda)")
				}
			}
		case "staff", "voice":
		default:
			m.unread(c.name())
		}
	}
}

// mark reads what a direction says at the moment that the bar has come to.
func (m *measure) mark(e element) {
	add := func(kind, text string) {
		m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: kind, Text: text})
	}
	switch e.name() {
	case "dynamics":
		for one := e.first(); one.here(); one = one.next() {
			add("dynamic", one.name())
		}
	case "words":
		if text := e.text(); text != "" {
			add("words", text)
		}
	case "metronome":
		if qpm, beat, ok := tempo(e); ok {
			m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: "tempo", QPM: qpm, Beat: beat})
		} else {
			m.unread("metronome mark")
		}
	case "wedge":
		add("dynamic", e.attr("type"))
	case "pedal":
		if t := e.attr("type"); t == "start" || t == "stop" || t == "change" {
			add("pedal", t)
		}
	default:
		m.unread(e.name())
	}
}

func (m *measure) barline(e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "ending":
			switch c.attr("type") {
			case "start":
				m.endings = nil
				for f := range strings.FieldsFuncSeq(c.attr("number"), func(r rune) bool { return r == ',' || r == ' ' || r == '.' }) {
					if n, err := strconv.Atoi(f); err == nil && n > 0 && n < 16 {
						m.endings = append(m.endings, n)
					}
				}
			case "stop", "discontinue":
				m.closing = true
			}
		case "repeat":
			if c.attr("direction") == "forward" {
				m.bar.Repeat.Starts = true
				continue
			}
			times, _ := strconv.Atoi(c.attr("times")) // twice where it does not say
			m.bar.Repeat.Ends = min(max(times, 2), 16)
		default:
			m.unread(c.name())
		}
	}
}
