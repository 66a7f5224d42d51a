// Package musicxml reads and writes MusicXML documents, version 3.1 and 4.0, plain or
// compressed (.mxl), to and from score.Score. Read are partwise and timewise
// scores, written are partwise ones.
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
	"strings"

	"patientladder/core/charset"
	"patientladder/core/score"
)

const (
	maxUnpacked = 64 << 20
	maxBars     = 10000
	maxParts    = 64
)

// Read reads a plain or compressed document. Errors are *score.SyntaxError.
func Read(data []byte) (score.Score, error) {
	r, _, err := read(data)
	if err != nil {
		return score.Score{}, err
	}
	return r.s, nil
}

// WithIDs returns a document's text with the id of the score's note at each
// <note>, so that what is drawn can be found again. A timewise score, which the
// engraver does not know, is written anew, and so is one that leaves it to its
// reader which accidentals to draw.
func WithIDs(data []byte) ([]byte, error) {
	r, text, err := read(data)
	if err != nil {
		return nil, err
	}
	altered := func(p score.Part) bool { return len(p.Accidentals()) > 0 }
	if r.timewise || !bytes.Contains(text, []byte("<accidental")) && slices.ContainsFunc(r.s.Parts, altered) {
		return Write(r.s), nil
	}
	ids := map[int64]string{} // by where the tag of the note ends
	for pi, p := range r.parts {
		for bi, bar := range p.tags {
			for ni, end := range bar {
				ids[end] = r.s.Parts[pi].Bars[bi].Notes[ni].ID
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

// read returns what has read a document, and the text that was read.
func read(data []byte) (*reader, []byte, error) {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		inner, err := unpack(data)
		if err != nil {
			return nil, nil, err
		}
		data = inner
	}
	data, err := decodeText(data)
	if err != nil {
		return nil, nil, err
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
		return nil, nil, r.wrap(err)
	}
	r.s.Finish()
	return r, data, nil
}

// decodeText turns UTF-16 with a byte order mark, and what says that it is Latin-1 or
// Windows-1252, into UTF-8; the declaration then names that.
func decodeText(data []byte) ([]byte, error) {
	switch wide := bytes.HasPrefix(data, []byte{0xFE, 0xFF}) || bytes.HasPrefix(data, []byte{0xFF, 0xFE}); {
	case wide && len(data)%2 != 0:
		return nil, &score.SyntaxError{Msg: "the UTF-16 text ends in half a character"}
	case wide:
		text, _ := charset.Text(data)
		data = []byte(text)
	default:
		if data = bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF")); !old.Match(data) {
			return data, nil
		}
		data = []byte(charset.Windows1252(data))
	}
	return declared.ReplaceAll(data, []byte("${1}UTF-8")), nil
}

// How a declaration names the codes that are turned into UTF-8.
var (
	old      = regexp.MustCompile(`(?i)^(\s*<\?xml[^>]*encoding=["'])(?:` + oldNames + `)\b`)
	declared = regexp.MustCompile(`(?i)^(\s*<\?xml[^>]*encoding=["'])(?:utf-16|` + oldNames + `)`)
)

const oldNames = `iso-?8859-1|latin-?1|windows-1252|cp1252`

type reader struct {
	d     *document
	s     score.Score
	bar   int
	paced bool              // a tempo was told
	names map[string]string // part names by id
	parts []*part           // in the order of the document

	timewise bool // bars hold parts
	across   int  // bars of a timewise score
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
		return r.score("part", r.partwise)
	case "score-timewise":
		r.timewise = true
		return r.score("measure", r.acrossParts)
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

// score reads a document's head, and its music from each element of a name.
func (r *reader) score(holds string, music func(element) error) error {
	err := r.children(func(e element) error {
		if e.name() == holds {
			return music(e)
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
	for _, p := range r.parts {
		r.s.Parts = append(r.s.Parts, p.part)
	}
	if r.s.Bars() == 0 {
		return fmt.Errorf("the score has no bars")
	}
	return nil
}
