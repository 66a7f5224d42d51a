// Package notation reads and writes score files of any format the program
// knows, and converts one into another.
package notation

import (
	"bytes"
	"fmt"
	"path"
	"strings"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/midifile"
	"patientladder/core/notation/musicxml"
	"patientladder/core/score"
)

// MaxFile is the largest score file read, in bytes.
const MaxFile = 16 << 20

// A Format is a kind of score file.
type Format string

// The formats. A compressed file is read as MusicXML.
const (
	MusicXML   Format = "musicxml"
	Compressed Format = "mxl"
	ABC        Format = "abc"
	MIDI       Format = "midi"
)

// endings gives the format that a file name asks for.
var endings = map[string]Format{".musicxml": MusicXML, ".xml": MusicXML, ".mxl": Compressed, ".abc": ABC, ".mid": MIDI, ".midi": MIDI}

// Named returns the format that a file name's ending asks for.
func Named(name string) (Format, bool) {
	f, ok := endings[strings.ToLower(path.Ext(name))]
	return f, ok
}

// Ending returns the usual ending of a format's file names.
func Ending(f Format) string {
	return map[Format]string{MusicXML: ".musicxml", Compressed: ".mxl", ABC: ".abc", MIDI: ".mid"}[f]
}

// Write writes a score in a format. What the format cannot hold is left out:
// Losses names it.
func Write(f Format, s score.Score) ([]byte, error) {
	switch f {
	case MusicXML:
		return musicxml.Write(s), nil
	case Compressed:
		return musicxml.Compress(musicxml.Write(s))
	case ABC:
		return abc.Write(s)
	case MIDI:
		return midifile.Write(s)
	}
	return nil, fmt.Errorf("%q is not a format that is written: musicxml, mxl, abc or midi", f)
}

// Losses lists what a format cannot hold of a score, each with the first bar in
// which it stands. MusicXML holds all of it.
func Losses(f Format, s score.Score) []score.Unread {
	switch f {
	case ABC:
		return abc.Losses(s)
	case MIDI:
		return midifile.Losses(s)
	}
	return nil
}

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
	case bytes.HasPrefix(data, []byte("MThd")):
		return MIDI, nil
	case ext == ".abc", bytes.HasPrefix(head, []byte("X:")), bytes.Contains(head, []byte("\nX:")):
		return ABC, nil
	}
	return "", &score.SyntaxError{Msg: "neither MusicXML (.musicxml, .xml, .mxl), nor ABC (.abc), nor MIDI (.mid)"}
}

// MaxBar is the most notes that a bar of a part may hold. The densest written music
// stays far below it; what is worked out about a bar grows faster than its notes.
const MaxBar = 4000

// Read reads the score in a file; of an ABC file with several tunes, the first.
func Read(name string, data []byte) (score.Score, error) {
	f, err := Detect(name, data)
	if err != nil {
		return score.Score{}, err
	}
	var s score.Score
	switch f {
	case ABC:
		s, err = abc.Read(data)
	case MIDI:
		s, err = midifile.Read(data)
	default:
		s, err = musicxml.Read(data)
	}
	if err != nil {
		return s, err
	}
	for _, p := range s.Parts {
		for i, b := range p.Bars {
			if len(b.Notes) > MaxBar {
				return score.Score{}, &score.SyntaxError{Bar: i + 1, Msg: fmt.Sprintf("the bar holds %d notes; at most %d can be read", len(b.Notes), MaxBar)}
			}
		}
	}
	return s, nil
}

// Engraved returns the MusicXML that shows the score: a MusicXML file's own
// text, so that the page keeps all it has, or one written from another format.
// Each note carries its id of the score that Read returns.
func Engraved(name string, data []byte) ([]byte, error) {
	f, err := Detect(name, data)
	if err != nil {
		return nil, err
	}
	if f == MusicXML {
		return musicxml.WithIDs(data)
	}
	s, err := Read(name, data)
	if err != nil {
		return nil, err
	}
	return musicxml.Write(s), nil
}
