package notation

import (
	"bytes"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/midifile"
	"patientladder/core/notation/musicxml"
	"patientladder/core/score"
)

// A Format is a kind of score file, by its key.
type Format string

// The formats that the program asks for by name. A compressed file is read as MusicXML.
const (
	MusicXML   Format = "musicxml"
	Compressed Format = "mxl"
	ABC        Format = "abc"
	MIDI       Format = "midi"
)

// A codec is all that the program knows of a format: a new one is a package that reads
// and writes it, and its entry here.
type codec struct {
	format  Format
	name    string
	endings []string // of file names, the usual first
	media   string   // type of a download

	// is tells a file by its first bytes, past a byte order mark and white space, or by
	// the ending of its name; the first codec that says so reads it.
	is    func(ending string, head []byte) bool
	read  func(data []byte) (score.Score, error)
	write func(s score.Score) ([]byte, error)
	// losses lists what the format cannot hold of a score; nil where it holds all.
	losses func(s score.Score) []score.Unread
	// split returns the tunes of a file that may hold several; nil where it holds one.
	split func(data []byte) []Tune
	// engraved returns a file's own text with the ids of Read; nil where the score is
	// written anew.
	engraved func(data []byte) ([]byte, error)
}

// codecs are the formats, in the order in which a file is tried and copies are offered.
var codecs = []codec{
	{format: MusicXML, name: "MusicXML", endings: []string{".musicxml", ".xml"}, media: "application/vnd.recordare.musicxml+xml",
		is: func(_ string, head []byte) bool {
			return bytes.HasPrefix(head, []byte("<")) || bytes.HasPrefix(head, []byte{0xFF, 0xFE}) || bytes.HasPrefix(head, []byte{0xFE, 0xFF})
		},
		read: musicxml.Read, write: func(s score.Score) ([]byte, error) { return musicxml.Write(s), nil }, engraved: musicxml.WithIDs},
	{format: Compressed, name: "MusicXML (mxl)", endings: []string{".mxl"}, media: "application/vnd.recordare.musicxml",
		is:   func(_ string, head []byte) bool { return bytes.HasPrefix(head, []byte("PK\x03\x04")) },
		read: musicxml.Read, write: func(s score.Score) ([]byte, error) { return musicxml.Compress(musicxml.Write(s)) }, engraved: musicxml.WithIDs},
	{format: MIDI, name: "MIDI", endings: []string{".mid", ".midi"}, media: "audio/midi",
		is:   func(_ string, head []byte) bool { return bytes.HasPrefix(head, []byte("MThd")) },
		read: midifile.Read, write: midifile.Write, losses: midifile.Losses},
	{format: ABC, name: "ABC", endings: []string{".abc"}, media: "text/vnd.abc; charset=utf-8",
		is: func(ending string, head []byte) bool {
			return ending == ".abc" || bytes.HasPrefix(head, []byte("X:")) || bytes.Contains(head, []byte("\nX:"))
		},
		read: abc.Read, write: abc.Write, losses: abc.Losses, split: tunesOf},
}

// tunesOf are those of a file in ABC.
func tunesOf(data []byte) []Tune {
	var out []Tune
	for _, t := range abc.Split(data) {
		out = append(out, Tune{t.Data, t.Line})
	}
	return out
}

// find returns the codec of a format, or nil.
func find(f Format) *codec {
	for i := range codecs {
		if codecs[i].format == f {
			return &codecs[i]
		}
	}
	return nil
}
