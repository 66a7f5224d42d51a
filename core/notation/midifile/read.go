// Package midifile reads and writes Standard MIDI Files to and from
// score.Score.
//
// Source: MIDI Manufacturers Association, Standard MIDI Files 1.0 (1988).
//
// A MIDI file holds keys pressed and let go in ticks, not notes on a page. The
// reader puts onsets and ends on the nearest usual note value, spells keys by
// the key signature, cuts notes at bar lines and ties them, and gathers voices.
// What it had to settle, and what it does not keep, is listed in Score.Unread.
package midifile

import (
	"encoding/binary"
	"errors"
	"fmt"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

const (
	maxBars   = 10000
	maxParts  = 64
	maxEvents = 1 << 20
)

// Read reads a file of format 0 or 1. Errors are *score.SyntaxError.
func Read(data []byte) (score.Score, error) {
	f, err := parse(data)
	if err == nil {
		var s score.Score
		if s, err = f.score(); err == nil {
			s.Finish()
			return s, nil
		}
	}
	var known *score.SyntaxError
	if errors.As(err, &known) {
		return score.Score{}, err
	}
	return score.Score{}, &score.SyntaxError{Msg: err.Error()}
}

// A file is what the chunks hold: all times in ticks.
type file struct {
	division int64 // ticks of a quarter note
	tracks   []track
	tempos   []at[float64] // quarter notes a minute
	meters   []at[score.Meter]
	keys     []at[pitch.Key]
	unread   score.Score // only its Unread is used
	end      int64
}

type at[T any] struct {
	tick int64
	is   T
}

// A track is one MTrk chunk.
type track struct {
	name    string
	channel int
	program int
	notes   []press
	words   []at[string]
}

// A press is a key held from one tick to another.
type press struct {
	on, off  int64
	key      int
	velocity int
}

type reader struct {
	data []byte
	pos  int
}

var errShort = errors.New("the file ends before the music does")

func (r *reader) take(n int) ([]byte, error) {
	if n < 0 || n > len(r.data)-r.pos {
		return nil, errShort
	}
	b := r.data[r.pos : r.pos+n]
	r.pos += n
	return b, nil
}

func (r *reader) byte() (byte, error) {
	b, err := r.take(1)
	if err != nil {
		return 0, err
	}
	return b[0], nil
}

// quantity reads a variable-length quantity of at most four bytes.
func (r *reader) quantity() (int64, error) {
	n := int64(0)
	for range 4 {
		b, err := r.byte()
		if err != nil {
			return 0, err
		}
		n = n<<7 | int64(b&0x7f)
		if b < 0x80 {
			return n, nil
		}
	}
	return 0, errors.New("a number of more than four bytes")
}

// chunk reads a chunk's four letters and its content.
func (r *reader) chunk() (name string, content []byte, err error) {
	head, err := r.take(8)
	if err != nil {
		return "", nil, err
	}
	length := binary.BigEndian.Uint32(head[4:])
	if int64(length) > int64(len(r.data)-r.pos) {
		return "", nil, errShort
	}
	content, err = r.take(int(length))
	return string(head[:4]), content, err
}

func parse(data []byte) (*file, error) {
	r := &reader{data: data}
	name, head, err := r.chunk()
	if err != nil || name != "MThd" || len(head) < 6 {
		return nil, errors.New("this is not a MIDI file: it does not begin with its MThd chunk")
	}
	format, tracks, division := binary.BigEndian.Uint16(head), binary.BigEndian.Uint16(head[2:]), binary.BigEndian.Uint16(head[4:])
	switch {
	case format == 2:
		return nil, errors.New("a file of format 2 holds patterns, not one piece; save it as format 0 or 1")
	case format > 2:
		return nil, fmt.Errorf("format %d is none of Standard MIDI Files 1.0", format)
	case division&0x8000 != 0:
		return nil, errors.New("the file counts frames of a film instead of beats; save it with ticks of a quarter note")
	case division == 0:
		return nil, errors.New("a quarter note of no ticks")
	}
	f := &file{division: int64(division)}
	events := 0
	for read := 0; read < int(tracks) && r.pos < len(data); {
		name, content, err := r.chunk()
		if err != nil {
			return nil, err
		}
		if name != "MTrk" {
			continue // section 2: alien chunks are passed over
		}
		if read++; read > maxParts*4 {
			return nil, fmt.Errorf("more than %d tracks", maxParts*4)
		}
		if err := f.track(content, &events); err != nil {
			return nil, fmt.Errorf("track %d: %w", read, err)
		}
	}
	return f, nil
}

// track reads the events of one MTrk chunk.
func (f *file) track(content []byte, events *int) error {
	r, t := &reader{data: content}, track{channel: -1}
	var status byte
	tick := int64(0)
	held := map[[2]int][]int{} // presses not let go, by channel and key
	for r.pos < len(content) {
		if *events++; *events > maxEvents {
			return fmt.Errorf("more than a million events")
		}
		delta, err := r.quantity()
		if err != nil {
			return err
		}
		if tick += delta; tick/f.division > 1<<19 {
			return fmt.Errorf("music longer than any piece")
		}
		b, err := r.byte()
		if err != nil {
			return err
		}
		switch {
		case b == 0xff:
			over, err := f.meta(r, tick, &t)
			if err != nil {
				return err
			}
			if over {
				f.close(&t, tick)
				return nil
			}
			continue
		case b == 0xf0 || b == 0xf7:
			n, err := r.quantity()
			if err != nil {
				return err
			}
			if _, err := r.take(int(n)); err != nil {
				return err
			}
			f.unread.Note("system messages", 0)
			status = 0
			continue
		case b >= 0xf0:
			return fmt.Errorf("the status byte %#x belongs to a wire, not to a file", b)
		case b >= 0x80:
			status = b
		case status == 0:
			return fmt.Errorf("running status with no status before it")
		default:
			r.pos-- // running status: b is data
		}
		if err := f.message(r, status, tick, &t, held); err != nil {
			return err
		}
	}
	f.close(&t, tick)
	return nil
}

// close keeps a track; keys still held end with it.
func (f *file) close(t *track, tick int64) {
	f.end = max(f.end, tick)
	for i := range t.notes {
		if t.notes[i].off < 0 {
			t.notes[i].off = tick
		}
	}
	f.tracks = append(f.tracks, *t)
}

// message reads one channel message.
func (f *file) message(r *reader, status byte, tick int64, t *track, held map[[2]int][]int) error {
	kind, channel := status>>4, int(status&0x0f)
	size := 2
	if kind == 0xc || kind == 0xd {
		size = 1
	}
	d, err := r.take(size)
	if err != nil {
		return err
	}
	for _, b := range d {
		if b >= 0x80 {
			return fmt.Errorf("a data byte of %#x", b)
		}
	}
	k := [2]int{channel, int(d[0])}
	switch {
	case kind == 9 && d[1] > 0:
		if channel == 9 {
			f.unread.Note("drums", 0)
			return nil
		}
		t.channel = channel
		held[k] = append(held[k], len(t.notes))
		t.notes = append(t.notes, press{tick, -1, int(d[0]), int(d[1])})
	case kind == 9 || kind == 8:
		if open := held[k]; len(open) > 0 {
			t.notes[open[0]].off = tick
			held[k] = open[1:]
		}
	case kind == 0xc:
		t.program = int(d[0])
	case kind == 0xb && d[0] == 64:
		f.unread.Note("pedal", 0)
	case kind == 0xb || kind == 0xe || kind == 0xa || kind == 0xd:
		f.unread.Note("controllers", 0)
	}
	return nil
}

// meta reads a meta event; it reports the end of the track.
func (f *file) meta(r *reader, tick int64, t *track) (over bool, err error) {
	kind, err := r.byte()
	if err != nil {
		return false, err
	}
	n, err := r.quantity()
	if err != nil {
		return false, err
	}
	d, err := r.take(int(n))
	if err != nil {
		return false, err
	}
	switch {
	case kind == 0x2f:
		return true, nil
	case kind == 0x03 && t.name == "":
		t.name = clean(d)
	case kind == 0x05:
		t.words = append(t.words, at[string]{tick, clean(d)})
	case kind == 0x51 && len(d) == 3:
		if us := int(d[0])<<16 | int(d[1])<<8 | int(d[2]); us > 30000 {
			f.tempos = append(f.tempos, at[float64]{tick, 60e6 / float64(us)})
		}
	case kind == 0x58 && len(d) >= 2:
		if d[0] == 0 || d[0] > 64 || d[1] > 6 {
			return false, fmt.Errorf("a meter of %d over 2 to the power of %d", d[0], d[1])
		}
		f.meters = append(f.meters, at[score.Meter]{tick, score.Meter{Beats: int(d[0]), BeatType: 1 << d[1]}})
	case kind == 0x59 && len(d) >= 2:
		k := pitch.Key{Fifths: int(int8(d[0])), Mode: "major"}
		if d[1] == 1 {
			k.Mode = "minor"
		}
		if k.Fifths < -7 || k.Fifths > 7 {
			return false, fmt.Errorf("a key of %d fifths", k.Fifths)
		}
		f.keys = append(f.keys, at[pitch.Key]{tick, k})
	}
	return false, nil
}

// clean keeps the readable characters of a text, which may be in any code.
func clean(d []byte) string {
	out := make([]rune, 0, len(d))
	for _, r := range string(d) {
		if r >= ' ' && r != 0xfffd && len(out) < 200 {
			out = append(out, r)
		}
	}
	return string(out)
}
