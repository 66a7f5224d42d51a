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
	paced bool              // a tempo was told
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
		m.sound(e, m.cursor)
	case "harmony":
		m.harmony(e)
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
