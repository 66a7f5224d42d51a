package midifile

import (
	"encoding/binary"
	"errors"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

// smf makes a file of format 0 with 480 ticks of a quarter note from the bytes of
// its track, written in hexadecimal.
func smf(t testing.TB, events string) []byte {
	var track []byte
	for b := range strings.FieldsSeq(events) {
		var v byte
		_, err := fmt.Sscanf(b, "%02x", &v)
		require.NoError(t, err, b)
		track = append(track, v)
	}
	out := append([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x01\xe0MTrk"), binary.BigEndian.AppendUint32(nil, uint32(len(track)))...)
	return append(out, track...)
}

// Events as Standard MIDI Files 1.0 writes them; the section of each rule stands
// with its case.
func TestEvents(t *testing.T) {
	for _, c := range []struct{ name, events, want string }{
		{"a quarter note (delta times: variable-length quantities)", "00 90 3c 40 83 60 80 3c 40 00 ff 2f 00", "C4 0 1"},
		{"running status, and a note on of no strength ends the note", "00 90 3c 40 83 60 3c 00 00 3e 40 87 40 3e 00 00 ff 2f 00", "C4 0 1 D4 1 2"},
		{"a track that ends with a key held", "00 90 3c 40 83 60 ff 2f 00", "C4 0 1"},
		{"a system exclusive message is passed over (<sysex event>)", "00 f0 03 01 02 f7 00 90 3c 40 83 60 80 3c 40 00 ff 2f 00", "C4 0 1"},
		{"three flats: the black key is E flat (Key Signature)", "00 ff 59 02 fd 00 00 90 3f 40 83 60 80 3f 40 00 ff 2f 00", "Eb4 0 1"},
		{"a note over the bar line is tied (Time Signature 3/4)", "00 ff 58 04 03 02 18 08 87 40 90 3c 40 87 40 80 3c 40 00 ff 2f 00", "C4 2 2"},
		{"a triplet played a tick late stands where it belongs", "00 90 3c 40 81 21 80 3c 40 00 90 3e 40 81 1f 80 3e 40 00 90 40 40 81 20 80 40 40 00 ff 2f 00", "C4 0 1/3 D4 1/3 1/3 E4 2/3 1/3"},
		{"quarters of which nine tenths sound", "00 90 3c 40 83 30 3c 00 30 3e 40 83 30 3e 00 30 40 40 83 30 40 00 00 ff 2f 00", "C4 0 1 D4 1 1 E4 2 1"},
		{"eighths of which four fifths sound", "00 90 3c 40 81 40 3c 00 30 3e 40 81 40 3e 00 30 40 40 81 40 40 00 00 ff 2f 00", "C4 0 1/2 D4 1/2 1/2 E4 1 1/2"},
		{"a quarter let go early before a rest", "00 90 3c 40 83 30 3c 00 87 70 3e 40 83 60 3e 00 00 ff 2f 00", "C4 0 1 D4 3 1"},
		{"a staccato quarter is as short as it sounds", "00 90 3c 40 81 70 3c 00 81 70 3e 40 83 60 3e 00 00 ff 2f 00", "C4 0 1/2 D4 1 1"},
		{"a group of five keeps its fifths", "00 90 3c 40 60 3c 00 00 3e 40 60 3e 00 00 40 40 60 40 00 00 41 40 60 41 00 60 43 40 83 60 43 00 00 ff 2f 00", "C4 0 1/5 D4 1/5 1/5 E4 2/5 1/5 F4 3/5 1/5 G4 1 1"},
	} {
		s, err := Read(smf(t, c.events))
		require.NoError(t, err, c.name)
		var got []string
		for _, n := range s.Parts[0].Sounding(1, s.Written()) {
			got = append(got, fmt.Sprint(n.Pitch, " ", n.Onset, " ", n.Duration))
		}
		assert.Equal(t, c.want, strings.Join(got, " "), c.name)
	}
}

func TestWhereItWentWrong(t *testing.T) {
	good := smf(t, "00 90 3c 40 83 60 80 3c 40 00 ff 2f 00")
	change := func(at int, b ...byte) []byte {
		out := append([]byte{}, good...)
		copy(out[at:], b)
		return out
	}
	for _, c := range []struct {
		name string
		data []byte
		says string
	}{
		{"no header", []byte("RIFF1234"), "does not begin with its MThd"},
		{"patterns", change(9, 2), "format 2"},
		{"film frames", change(12, 0xe7, 40), "frames of a film"},
		{"no ticks", change(12, 0, 0), "no ticks"},
		{"cut off", good[:len(good)-4], "ends before"},
		{"data with no status", smf(t, "00 3c 40"), "track 1: running status"},
		{"a wire's status byte", smf(t, "00 f8"), "belongs to a wire"},
		{"a data byte too large", smf(t, "00 90 90 40"), "a data byte"},
		{"a number of five bytes", smf(t, "81 81 81 81 01"), "more than four bytes"},
		{"an impossible meter", smf(t, "00 ff 58 04 03 09 18 08"), "a meter of 3"},
		{"silence", smf(t, "00 ff 2f 00"), "no notes"},
	} {
		_, err := Read(c.data)
		var at *score.SyntaxError
		require.True(t, errors.As(err, &at), "%s: %v", c.name, err)
		assert.Contains(t, at.Msg, c.says, c.name)
	}
}

// Whatever stands in a file, it is read or refused with a syntax error, and every
// note that is read begins and ends inside its bar.
func FuzzRead(f *testing.F) {
	for _, events := range []string{
		"00 90 3c 40 83 60 3c 00 00 3e 40 87 40 3e 00 00 ff 2f 00",
		"00 ff 58 04 03 02 18 08 00 ff 59 02 fd 00 87 40 90 3c 40 87 40 80 3c 40 00 ff 2f 00",
		"00 f0 03 01 02 f7 00 ff 51 03 07 a1 20 81 21 90 3c 40 81 1f 80 3c 40 00 ff 2f 00",
	} {
		f.Add(smf(f, events))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		if len(data) > 1<<14 {
			return
		}
		s, err := Read(data)
		if scoretest.Refused(t, err) {
			return
		}
		for _, p := range s.Parts {
			for i, b := range p.Bars {
				for _, n := range b.Notes {
					if n.Onset.Sign() < 0 || b.Length.Less(n.Onset.Add(n.Duration)) {
						t.Fatalf("bar %d of length %s holds a note from %s of length %s", i+1, b.Length, n.Onset, n.Duration)
					}
				}
			}
		}
	})
}
