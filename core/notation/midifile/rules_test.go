package midifile

import (
	"encoding/binary"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// What a MIDI file cannot hold is told with its bar; what it can is not.
func TestWhatAFileCannotHold(t *testing.T) {
	note := func(change func(*score.Note)) score.Bar {
		n := score.Note{Pitch: pitch.MustParseAll("C4")[0], Duration: score.Quarters(4), Voice: 1, Staff: 1}
		change(&n)
		return score.Bar{Length: score.Quarters(4), Notes: []score.Note{n}}
	}
	plain := func(*score.Note) {}
	spelled := func(name string) func(*score.Note) {
		return func(n *score.Note) { n.Pitch = pitch.MustParseAll(name)[0] }
	}
	mark := func(kind, text string) score.Bar {
		b := note(plain)
		b.Marks = []score.Mark{{Kind: kind, Text: text}}
		return b
	}
	repeat := func(r score.Repeat) score.Bar { b := note(plain); b.Repeat = r; return b }
	short := note(func(n *score.Note) { n.Duration = score.Quarters(3) })
	short.Length = score.Quarters(3)
	for _, c := range []struct {
		says string
		bar  score.Bar
		want string
	}{
		{"a plain note", note(plain), ""},
		{"a last bar of three beats", short, "a last bar that is not full"},
		{"a repeat opens", repeat(score.Repeat{Starts: true}), "repeats and endings (played out)"},
		{"closes", repeat(score.Repeat{Ends: 2}), "repeats and endings (played out)"},
		{"has an ending", repeat(score.Repeat{Endings: []int{1}}), "repeats and endings (played out)"},
		{"a seventh", note(func(n *score.Note) { n.Duration = score.Frac(4, 7) }), ""},
		{"an eleventh", note(func(n *score.Note) { n.Duration = score.Frac(4, 11) }), "values that are no thirds, fifths or sevenths, or shorter than 1/32 of a quarter note (set anew on reading)"},
		{"a finger", note(func(n *score.Note) { n.Fingers = []string{"1"} }), "fingers"},
		{"a string", note(func(n *score.Note) { n.String = 1 }), "strings and frets"},
		{"a dot", note(func(n *score.Note) { n.Articulations = []string{"staccato"} }), "articulations"},
		{"a slur", note(func(n *score.Note) { n.SlurStarts = 1 }), "slurs"},
		{"a grace note", note(func(n *score.Note) { n.Grace = true; spelled("D#4")(n) }), "grace notes"},
		{"the key's own sharp", note(spelled("F#4")), ""},
		{"a flat where the key has sharps", note(spelled("Gb4")), "the spelling of a note that its key spells otherwise"},
		{"a rest has no spelling", note(func(n *score.Note) { n.Rest = true; spelled("Gb4")(n) }), ""},
		{"da capo", mark("jump", score.DaCapo), "da capo, dal segno (played out)"},
		{"words", mark("words", "gently"), "words above the staff"},
		{"a chord symbol", mark("chord", "G"), "chord symbols"},
		{"pedal", mark("pedal", "ped."), "pedal"},
		{"growing", mark("dynamic", "crescendo"), "growing and fading"},
		{"loud", mark("dynamic", "f"), "loudness as written (kept as strength)"},
		{"a tempo", mark("tempo", ""), ""},
	} {
		first := note(plain)
		first.Key, first.Meter = &pitch.Key{Fifths: 1, Mode: "major"}, &score.Meter{Beats: 4, BeatType: 4}
		var got []string
		for _, u := range Losses(score.Score{Parts: []score.Part{{Bars: []score.Bar{first, c.bar}}}}) {
			got = append(got, u.What)
			assert.Equal(t, 2, u.Bar, c.says)
		}
		assert.Equal(t, c.want, strings.Join(got, ", "), c.says)
	}
}

// Loudness marks are strengths from their bar on; a word is none.
func TestLoudnessIsStrength(t *testing.T) {
	s := piece(t, "C4 4 D4 4 E4 4 F4 4")
	bars := s.Parts[0].Bars
	bars[1].Marks = []score.Mark{{Kind: "dynamic", Text: "p"}, {Kind: "words", Text: "ff"}}
	bars[2].Marks = []score.Mark{{Kind: "dynamic", Text: "crescendo"}}
	bars[3].Marks = []score.Mark{{Kind: "dynamic", Text: "f"}}
	data, err := Write(s)
	require.NoError(t, err)
	f, err := parse(data)
	require.NoError(t, err)
	var got []int
	for _, n := range f.tracks[1].notes {
		got = append(got, n.velocity)
	}
	assert.Equal(t, []int{80, 49, 49, 96}, got)
}

func TestMetersKeysAndTemposComeBack(t *testing.T) {
	for _, m := range []score.Meter{{Beats: 2, BeatType: 2}, {Beats: 3, BeatType: 4}, {Beats: 6, BeatType: 8}, {Beats: 12, BeatType: 16}, {Beats: 4, BeatType: 1}} {
		s := piece(t, "C4 1")
		b := &s.Parts[0].Bars[0]
		b.Meter, b.Length = &m, m.Length()
		b.Notes[0].Duration = m.Length()
		assert.Equal(t, m, *through(t, s).Parts[0].Bars[0].Meter)
	}
	for fifths := -7; fifths <= 7; fifths++ {
		for _, mode := range []string{"major", "minor"} {
			s := piece(t, "C4 4")
			s.Parts[0].Bars[0].Key = &pitch.Key{Fifths: fifths, Mode: mode}
			if again := through(t, s).Parts[0].Bars[0].Key; fifths != 0 { // without a signature the notes tell the key
				assert.Equal(t, pitch.Key{Fifths: fifths, Mode: mode}, *again)
			}
		}
	}
	for _, wrong := range []string{"08", "f8"} {
		_, err := Read(smf(t, "00 ff 59 02 "+wrong+" 00 00 90 3c 40 83 60 3c 00"))
		assert.ErrorContains(t, err, "fifths")
	}
	s := piece(t, "C4 4 D4 4 E4 4")
	s.Parts[0].Bars[1].Marks = []score.Mark{{Onset: score.Quarters(2), Kind: "tempo", QPM: 96}}
	s.Parts[0].Bars[2].Marks = []score.Mark{{Kind: "tempo", QPM: 60}}
	again := through(t, s).Parts[0].Bars
	assert.Empty(t, again[0].Marks)
	require.Len(t, again[1].Marks, 1)
	assert.Equal(t, score.Quarters(2), again[1].Marks[0].Onset)
	assert.InDelta(t, 96, again[1].Marks[0].QPM, 0.01)
	assert.Equal(t, score.Time{}, again[2].Marks[0].Onset)
	fast, err := Read(smf(t, "00 ff 51 03 00 75 30 00 90 3c 40 83 60 3c 00"))
	require.NoError(t, err)
	assert.Empty(t, fast.Parts[0].Bars[0].Marks, "two thousand quarters a minute are no tempo")
}

// Which tracks are the hands of one player.
func TestTracksOfOnePlayer(t *testing.T) {
	a := track{name: "Piano", channel: 1, program: 40}
	for _, c := range []struct {
		says string
		b    track
		only bool
		want bool
	}{
		{"the same name and channel", a, false, true},
		{"another channel", track{name: "Piano", channel: 2, program: 40}, false, false},
		{"another name", track{name: "Harp", channel: 1, program: 40}, false, false},
		{"the only two, of other instruments", track{name: "Harp", channel: 2, program: 40}, true, false},
	} {
		assert.Equal(t, c.want, together(a, c.b, c.only), c.says)
	}
	right, left := track{name: "R", channel: 0, program: 7}, track{name: "L", channel: 1, program: 7}
	assert.True(t, together(right, left, true), "the only two, both of a keyboard (General MIDI programs 1 to 8)")
	assert.False(t, together(right, left, false), "two of several")
	left.program = 8
	assert.False(t, together(right, left, true))
	assert.False(t, together(left, right, true))
}

func presses(keys ...int) (out []press) {
	for i, k := range keys {
		out = append(out, press{int64(i), int64(i + 1), k, 64})
	}
	return out
}

// A keyboard's track is two hands where each side of middle C has a fifth of the notes.
func TestWhenATrackIsTwoHands(t *testing.T) {
	for _, c := range []struct {
		says string
		of   track
		want []int // notes of each hand
	}{
		{"one in five below", track{notes: presses(60, 62, 64, 65, 59)}, []int{4, 1}},
		{"one in six", track{notes: presses(60, 62, 64, 65, 67, 59)}, nil},
		{"one in five above", track{notes: presses(59, 57, 55, 53, 60)}, []int{1, 4}},
		{"one in six", track{notes: presses(59, 57, 55, 53, 52, 60)}, nil},
		{"no keyboard", track{program: 8, notes: presses(60, 59)}, nil},
		{"the last keyboard", track{program: 7, notes: presses(60, 59)}, []int{1, 1}},
	} {
		var got []int
		for _, h := range handsOf(c.of) {
			got = append(got, len(h))
		}
		assert.Equal(t, c.want, got, c.says)
	}
	assert.Equal(t, "F", clefFor(presses(57), 1).Sign)
	assert.Equal(t, "G", clefFor(presses(58), 1).Sign)
	assert.Equal(t, "G", clefFor(presses(56, 60), 1).Sign, "in the middle")
	assert.Equal(t, 2, clefFor(presses(57), 2).Staff)
}

// What was let go early is written to its full length up to a limit: a quarter of the time to the
// next note, a fifth of a beat, a half or a quarter of one.
func TestHowEarlyIsALittleEarly(t *testing.T) {
	at := func(on, off string) sound { return sound{length(t, on), length(t, off), 60} }
	for _, c := range []struct {
		says  string
		first sound
		next  string // onset; empty for none
		want  string // the first one's end
	}{
		{"a quarter of silence before the next", at("0", "7/8"), "7/6", "7/6"},
		{"a little more", at("0", "7/8"), "5/4", "1"},
		{"a fifth of a beat missing", at("0", "4/5"), "2", "1"},
		{"more than a fifth of a beat, but not of a half one", at("0", "5/12"), "2", "1/2"},
		{"three tenths of a beat missing: as it sounds", at("0", "7/10"), "2", "3/4"},
		{"on a sixteenth", at("0", "3/4"), "1", "3/4"},
		{"on a triplet eighth", at("0", "5/6"), "1", "5/6"},
		{"no longer than a sixteenth", at("0", "1/5"), "1/4", "1/5"},
		{"that began between the values", at("1/5", "7/8"), "1", "7/8"},
		{"where another begins", at("0", "7/8"), "7/8", "7/8"},
		{"with nothing after it", at("0", "7/8"), "", "1"},
	} {
		sounds := []sound{c.first}
		if c.next != "" {
			on := length(t, c.next)
			sounds = append(sounds, sound{on, on.Add(score.Quarters(1)), 62})
		}
		changed := held(sounds)
		assert.Equal(t, c.want, sounds[0].off.String(), c.says)
		assert.Equal(t, length(t, c.want) != c.first.off, changed, c.says)
	}
}

// Ticks are put on the nearest usual value; what lies beside all of them on a sixteenth or a triplet
// eighth, and that is said.
func TestTicksAsNoteValues(t *testing.T) {
	f := &file{division: 480}
	for _, c := range []struct {
		tick  int64
		want  string
		moved bool
	}{
		{0, "0", false}, {480, "1", false}, {160, "1/3", false}, {15, "1/32", false}, {96, "1/5", false}, {478, "1", false}, {482, "1", false}, {477, "1", true}, {161, "1/3", false}, {105, "7/32", false}, {108, "1/4", true}, {84, "1/6", true}, {720, "3/2", false},
	} {
		got, moved := f.snap(c.tick)
		assert.Equal(t, c.want, got.String(), "tick %d", c.tick)
		assert.Equal(t, c.moved, moved, "tick %d", c.tick)
	}
	for value, want := range map[string]bool{"1/4": true, "1/3": true, "1/6": true, "1/5": false, "1/8": false} {
		assert.Equal(t, want, plain(length(t, value)), value)
	}
}

// Parts have channels of their own, but for the tenth, which is for drums; after fifteen they begin again.
func TestChannelsOfParts(t *testing.T) {
	one := piece(t, "C4 4")
	s := one
	for range 16 {
		s.Parts = append(s.Parts, one.Parts[0])
	}
	data, err := Write(s)
	require.NoError(t, err)
	f, err := parse(data)
	require.NoError(t, err)
	var got []int
	for _, t := range f.tracks[1:] {
		got = append(got, t.channel)
	}
	assert.Equal(t, []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 10, 11, 12, 13, 14, 15, 0, 1}, got)
}

func TestValuesThatMIDICannotCount(t *testing.T) {
	s := piece(t, "C4 1/25 D4 1/27 E4 1/13 F4 1/11")
	_, err := Write(s)
	assert.ErrorContains(t, err, "more than MIDI counts")
	_, err = Write(piece(t, "- 4"))
	assert.ErrorContains(t, err, "no note to write")
	_, err = Write(piece(t, "C4 1/1024"))
	assert.NoError(t, err)
}

// Tracks as a file counts them: as many as its head says, alien chunks passed over, 256 at most.
func TestTracksThatAreRead(t *testing.T) {
	head := func(tracks int) []byte {
		return binary.BigEndian.AppendUint16(binary.BigEndian.AppendUint16([]byte("MThd\x00\x00\x00\x06\x00\x01"), uint16(tracks)), 480)
	}
	one := []byte("MTrk\x00\x00\x00\x0c\x00\x90\x3c\x40\x83\x60\x3c\x00\x00\xff\x2f\x00")
	alien := []byte("XFIH\x00\x00\x00\x01\x00")
	for _, c := range []struct {
		says string
		data []byte
		want int
	}{
		{"two of two", append(append(head(2), one...), one...), 2},
		{"two of three that are told", append(append(head(3), one...), one...), 2},
		{"what follows the last is left", append(append(head(1), one...), one...), 1},
		{"an alien chunk between", append(append(append(head(2), one...), alien...), one...), 2},
	} {
		f, err := parse(c.data)
		require.NoError(t, err, c.says)
		assert.Len(t, f.tracks, c.want, c.says)
	}
	_, err := parse(append(head(256), []byte(strings.Repeat(string(one), 256))...))
	assert.NoError(t, err)
	_, err = parse(append(head(257), []byte(strings.Repeat(string(one), 257))...))
	assert.ErrorContains(t, err, "more than 256 tracks")
	_, err = parse([]byte("MThd\x00\x00\x00\x06\x00\x03\x00\x01\x01\xe0"))
	assert.ErrorContains(t, err, "format 3")
}

// Names may be in any code; what is read of them has bounds.
func TestNamesThatAreRead(t *testing.T) {
	assert.Equal(t, "Gull  Song", clean([]byte("Gull\x01 \xff Song\n")))
	assert.Len(t, clean([]byte(strings.Repeat("a", 300))), 200)
	s, err := Read(smf(t, "00 ff 03 01 41 00 ff 03 01 42 00 90 3c 40 83 60 3c 00"))
	require.NoError(t, err)
	assert.Equal(t, "A", s.Parts[0].Name, "the first name is the track's")
	assert.Equal(t, fmt.Sprint([]string{"system messages", "pedal", "controllers", "drums"}), fmt.Sprint(unread(t, "00 f0 01 f7 00 b0 40 7f 00 b0 07 64 00 c0 05 00 d0 05 00 99 24 40 00 90 3c 40 83 60 3c 00")))
}

func unread(t *testing.T, events string) (out []string) {
	s, err := Read(smf(t, events))
	require.NoError(t, err)
	for _, u := range s.Unread {
		if u.Bar == 0 {
			out = append(out, u.What)
		}
	}
	return out
}
