// Package notation reads a score file of any format the program knows.
package notation

import (
	"bytes"
	"fmt"
	"path"
	"strings"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/score"
)

// MaxFile is the largest score file read, in bytes.
const MaxFile = 16 << 20

// A Format is a kind of score file.
type Format string

// The formats that are read.
const (
	MusicXML Format = "musicxml"
	ABC      Format = "abc"
)

// Detect tells the format from the name and the first bytes.
func Detect(name string, data []byte) (Format, error) {
	head := bytes.TrimLeft(bytes.TrimPrefix(data[:min(len(data), 4096)], []byte("\xEF\xBB\xBF")), " \t\r\n")
	switch ext := strings.ToLower(path.Ext(name)); {
	case len(data) == 0:
		return "", &score.SyntaxError{Msg: "the file is empty"}
	case len(data) > MaxFile:
		return "", &score.SyntaxError{Msg: fmt.Sprintf("the file is larger than %d MB", MaxFile>>20)}
	case bytes.HasPrefix(head, []byte("PK\x03\x04")), bytes.HasPrefix(head, []byte("<")),
		bytes.HasPrefix(data, []byte{0xFF, 0xFE}), bytes.HasPrefix(data, []byte{0xFE, 0xFF}):
		return MusicXML, nil
	case ext == ".abc", bytes.HasPrefix(head, []byte("X:")), bytes.Contains(head, []byte("\nX:")):
		return ABC, nil
	}
	return "", &score.SyntaxError{Msg: "neither MusicXML (.musicxml, .xml, .mxl) nor ABC (.abc)"}
}

// Read reads the score in a file; of an ABC file with several tunes, the first.
func Read(name string, data []byte) (score.Score, error) {
	f, err := Detect(name, data)
	if err != nil {
		return score.Score{}, err
	}
	if f == ABC {
		return abc.Read(data)
	}
	return musicxml.Read(data)
}

// Engraved returns the MusicXML that shows the score: a MusicXML file's own
// text, so that the page keeps all it has, or one written from an ABC tune.
func Engraved(name string, data []byte) ([]byte, error) {
	f, err := Detect(name, data)
	if err != nil {
		return nil, err
	}
	if f == MusicXML {
		return musicxml.Text(data)
	}
	s, err := abc.Read(data)
	if err != nil {
		return nil, err
	}
	return musicxml.Write(s), nil
}
