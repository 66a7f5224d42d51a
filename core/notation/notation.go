// Package notation reads and writes score files of any format the program
// knows, and converts one into another. The formats are a table (codecs).
package notation

import (
	"bytes"
	"errors"
	"fmt"
	"path"
	"slices"
	"strings"

	"patientladder/core/notation/musicxml"
	"patientladder/core/score"
)

// MaxFile is the largest score file read, in bytes.
const MaxFile = 16 << 20

// Formats lists the formats, in the order in which copies are offered.
func Formats() []Format {
	out := make([]Format, 0, len(codecs))
	for _, c := range codecs {
		out = append(out, c.format)
	}
	return out
}

// Endings lists the endings of file names that are read, each format's usual one first.
func Endings() []string {
	var out []string
	for _, c := range codecs {
		out = append(out, c.endings...)
	}
	return out
}

// Name returns what a format is called, or its key where it is not known.
func (f Format) Name() string {
	if c := find(f); c != nil {
		return c.name
	}
	return string(f)
}

// Media returns the media type of a format's files, or of any file.
func (f Format) Media() string {
	if c := find(f); c != nil {
		return c.media
	}
	return "application/octet-stream"
}

// Ending returns the usual ending of a format's file names.
func (f Format) Ending() string {
	if c := find(f); c != nil {
		return c.endings[0]
	}
	return ""
}

// Named returns the format that a file name's ending asks for.
func Named(name string) (Format, bool) {
	ending := strings.ToLower(path.Ext(name))
	for _, c := range codecs {
		if slices.Contains(c.endings, ending) {
			return c.format, true
		}
	}
	return "", false
}

// Write writes a score in a format. What the format cannot hold is left out:
// Losses names it.
func Write(f Format, s score.Score) ([]byte, error) {
	c := find(f)
	if c == nil {
		return nil, fmt.Errorf("%q is not a format that is written: %s", f, known())
	}
	return c.write(s)
}

func known() string {
	var names []string
	for _, c := range codecs {
		names = append(names, string(c.format))
	}
	return strings.Join(names, ", ")
}

// Losses lists what a format cannot hold of a score, each with the first bar in
// which it stands; none where it holds all of it.
func Losses(f Format, s score.Score) []score.Unread {
	if c := find(f); c != nil && c.losses != nil {
		return c.losses(s)
	}
	return nil
}

// Detect tells the format from the name and the first bytes.
func Detect(name string, data []byte) (Format, error) {
	c, err := detect(name, data)
	if err != nil {
		return "", err
	}
	return c.format, nil
}

func detect(name string, data []byte) (*codec, error) {
	switch {
	case len(data) == 0:
		return nil, &score.SyntaxError{Msg: "the file is empty"}
	case len(data) > MaxFile:
		return nil, &score.SyntaxError{Msg: fmt.Sprintf("the file is larger than %d MB", MaxFile>>20)}
	}
	head := bytes.TrimLeft(bytes.TrimPrefix(data[:min(len(data), 4096)], []byte("\xEF\xBB\xBF")), " \t\r\n")
	ending := strings.ToLower(path.Ext(name))
	for i := range codecs {
		if codecs[i].is(ending, head) {
			return &codecs[i], nil
		}
	}
	var says []string
	for _, c := range codecs {
		says = append(says, fmt.Sprintf("%s (%s)", c.name, strings.Join(c.endings, ", ")))
	}
	last := len(says) - 1
	return nil, &score.SyntaxError{Msg: "not a score that can be read: " + strings.Join(says[:last], ", ") + " or " + says[last]}
}

// A Tune is one of a file that may hold several.
type Tune struct {
	Data []byte // as a file of its own

	line func(int) int // of the whole file, for a line of its own; nil where it is the whole file
}

// Read reads the tune; what is wrong with it is told by the lines of the whole file, whose
// name is given.
func (t Tune) Read(name string) (score.Score, error) {
	s, err := Read(name, t.Data)
	var at *score.SyntaxError
	if t.line != nil && errors.As(err, &at) && at.Line > 0 {
		moved := *at
		moved.Line = t.line(at.Line)
		return s, &moved
	}
	return s, err
}

// MaxTunes is how many tunes of one file are read: the largest printed books hold about as
// many, and more are a collection, which comes in by parts.
const MaxTunes = 2000

// Split returns the tunes of a file; of a format that holds one, the file itself.
func Split(name string, data []byte) ([]Tune, error) {
	if c, err := detect(name, data); err == nil && c.split != nil {
		tunes := c.split(data)
		if len(tunes) > MaxTunes {
			return nil, &score.SyntaxError{Msg: fmt.Sprintf("the file holds %d tunes; at most %d are read at once, so part it", len(tunes), MaxTunes)}
		}
		if len(tunes) > 0 {
			return tunes, nil
		}
	}
	return []Tune{{Data: data}}, nil
}

// MaxBar is the most notes that a bar of a part may hold. The densest written music
// stays far below it; what is worked out about a bar grows faster than its notes.
const MaxBar = 4000

// MaxNotes is the most notes that a score may hold. An evening of piano music stays below it.
const MaxNotes = 60000

// Read reads the score in a file; of a file with several tunes, the first.
func Read(name string, data []byte) (score.Score, error) {
	c, err := detect(name, data)
	if err != nil {
		return score.Score{}, err
	}
	s, err := c.read(data)
	if err != nil {
		return s, err
	}
	all := 0
	for _, p := range s.Parts {
		for i, b := range p.Bars {
			all += len(b.Notes)
			if len(b.Notes) > MaxBar {
				return score.Score{}, &score.SyntaxError{Bar: i + 1, Msg: fmt.Sprintf("the bar holds %d notes; at most %d can be read", len(b.Notes), MaxBar)}
			}
		}
	}
	if all > MaxNotes {
		return score.Score{}, &score.SyntaxError{Msg: fmt.Sprintf("the score holds %d notes; at most %d can be read at once, so part it, or bring in one player's part", all, MaxNotes)}
	}
	return s, nil
}

// Engraved returns the MusicXML that shows the score: a MusicXML file's own
// text, so that the page keeps all it has, or one written from another format.
// Each note carries its id of the score that Read returns.
func Engraved(name string, data []byte) ([]byte, error) {
	c, err := detect(name, data)
	if err != nil {
		return nil, err
	}
	if c.engraved != nil {
		return c.engraved(data)
	}
	s, err := Read(name, data)
	if err != nil {
		return nil, err
	}
	return musicxml.Write(s), nil
}
