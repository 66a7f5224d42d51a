package midifile

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

// piece is bars of 4/4 of notes such as "C4 1" (quarter notes), one string a staff;
// "-" is a rest.
func piece(t *testing.T, staves ...string) score.Score {
	p := score.Part{Staves: len(staves), Name: "Piano"}
	for staff, line := range staves {
		at, bi := score.Time{}, 0
		words := strings.Fields(line)
		for i := 0; i+1 < len(words); i += 2 {
			if len(p.Bars) == bi {
				p.Bars = append(p.Bars, score.Bar{Length: score.Quarters(4), Meter: &score.Meter{Beats: 4, BeatType: 4}})
			}
			name, lyric, _ := strings.Cut(words[i], "=")
			n := score.Note{Onset: at, Duration: length(t, words[i+1]), Voice: 4*staff + 1, Staff: staff + 1, Rest: name == "-", Lyric: lyric}
			if !n.Rest {
				var err error
				n.Pitch, err = pitch.Parse(name)
				require.NoError(t, err)
			}
			p.Bars[bi].Notes = append(p.Bars[bi].Notes, n)
			if at = at.Add(n.Duration); !at.Less(score.Quarters(4)) {
				at, bi = score.Time{}, bi+1
			}
		}
	}
	p.Bars[0].Key = &pitch.Key{Mode: "major"}
	s := score.Score{Title: "A piece", Parts: []score.Part{p}}
	s.Finish()
	return s
}

func length(t *testing.T, s string) score.Time {
	var l score.Time
	require.NoError(t, l.UnmarshalText([]byte(s)))
	return l
}

// through writes a score and reads it again.
func through(t *testing.T, s score.Score) score.Score {
	data, err := Write(s)
	require.NoError(t, err)
	again, err := Read(data)
	require.NoError(t, err)
	return again
}

func TestTwoHandsStayTwoHands(t *testing.T) {
	s := through(t, piece(t, "C5 1 D5 1 E5 2 F5 4", "C3 2 G3 2 C3 4"))
	require.Len(t, s.Parts, 1)
	assert.Equal(t, 2, s.Parts[0].Staves)
	assert.Equal(t, "C5@0+1 D5@1+1 E5@2+2 F5@4+4", scoretest.Heard(s, 0, 1, s.Written()))
	assert.Equal(t, "C3@0+2 G3@2+2 C3@4+4", scoretest.Heard(s, 0, 2, s.Written()))
	assert.Equal(t, []string{"G", "F"}, []string{s.Parts[0].Bars[0].Clefs[0].Sign, s.Parts[0].Bars[0].Clefs[1].Sign})
}

// A keyboard's single track is parted at middle C, and that is said.
func TestOneTrackForBothHands(t *testing.T) {
	s, err := Read(smf(t, "00 90 48 40 00 90 30 40 83 60 48 00 00 30 00 00 4a 40 00 2b 40 83 60 4a 00 00 2b 00 00 ff 2f 00"))
	require.NoError(t, err)
	assert.Equal(t, "C5@0+1 D5@1+1", scoretest.Heard(s, 0, 1, s.Written()))
	assert.Equal(t, "C3@0+1 G2@1+1", scoretest.Heard(s, 0, 2, s.Written()))
	assert.Equal(t, "hands, told apart at middle C", s.Unread[0].What)
	one, err := Read(smf(t, "00 90 48 40 83 60 48 00 00 3b 40 83 60 3b 00 00 48 40 83 60 48 00 00 4a 40 83 60 4a 00 00 4c 40 83 60 4c 00 00 4d 40 83 60 4d 00 00 ff 2f 00"))
	require.NoError(t, err)
	assert.Equal(t, 1, one.Parts[0].Staves, "one low note makes no left hand")
}

// A time signature begins a bar: written anew after a short bar, it keeps a pickup,
// also where the repeat comes back to it.
func TestPickupsAndShortBars(t *testing.T) {
	in := piece(t, "G4 1")
	bars := &in.Parts[0].Bars
	(*bars)[0].Length = length(t, "1")
	for _, b := range []struct{ notes, long string }{{"C5 2 E5 2", "4"}, {"D5 2 B4 1", "3"}, {"G4 1", "1"}, {"E5 2 C5 2", "4"}} {
		bar := piece(t, b.notes).Parts[0].Bars[0]
		bar.Length, bar.Meter = length(t, b.long), nil
		*bars = append(*bars, bar)
	}
	in.Finish()
	s := through(t, in)
	var lengths []string
	for _, b := range s.Parts[0].Bars {
		lengths = append(lengths, b.Length.String())
	}
	assert.Equal(t, []string{"1", "4", "3", "1", "4"}, lengths)
	assert.NotNil(t, s.Parts[0].Bars[0].Meter)
	for _, b := range s.Parts[0].Bars[1:] {
		assert.Nil(t, b.Meter, "the meter is the same all through")
	}
}

func TestSyllablesAndTempo(t *testing.T) {
	in := piece(t, "C4=har- 1 D4=bour 1 E4 1 F4=light 1")
	in.Parts[0].Bars[0].Marks = []score.Mark{{Kind: "tempo", QPM: 72, Beat: score.Quarters(1)}}
	s := through(t, in)
	var lyrics []string
	for _, n := range s.Parts[0].Bars[0].Notes {
		lyrics = append(lyrics, n.Lyric)
	}
	assert.Equal(t, []string{"har-", "bour", "", "light"}, lyrics)
	assert.InDelta(t, 72, s.Parts[0].Bars[0].Marks[0].QPM, 0.001)
	assert.Equal(t, "A piece", s.Title)

	// a word on no note is told
	s, err := Read(smf(t, "00 90 3c 40 83 60 3c 00 00 ff 05 02 6c 61 83 60 90 3e 40 83 60 3e 00 00 ff 2f 00"))
	require.NoError(t, err)
	assert.Equal(t, "words between notes", s.Unread[0].What)
}

// What overlaps gets a voice of its own, what begins and ends together is a chord,
// and what no single sign shows is tied.
func TestVoicesChordsAndTies(t *testing.T) {
	s, err := Read(smf(t, "00 90 48 40 83 60 90 4c 40 83 60 48 00 83 60 4c 00 00 ff 2f 00"))
	require.NoError(t, err)
	notes := s.Parts[0].Bars[0].Notes
	assert.NotEqual(t, notes[0].Voice, notes[1].Voice, "E begins under the held C")

	s, err = Read(smf(t, "00 90 48 40 00 4c 40 83 60 48 00 00 4c 00 00 ff 2f 00"))
	require.NoError(t, err)
	notes = s.Parts[0].Bars[0].Notes
	require.Len(t, notes, 2)
	assert.Equal(t, notes[0].Voice, notes[1].Voice, "a chord")

	s = through(t, piece(t, "C4 5/2 D4 3/2"))
	notes = s.Parts[0].Bars[0].Notes
	require.Len(t, notes, 3, "two and a half beats are a half note and an eighth")
	assert.Equal(t, []bool{true, false, false}, []bool{notes[0].TieTo, notes[1].TieTo, notes[2].TieTo})
	assert.Equal(t, "C4@0+5/2 D4@5/2+3/2", scoretest.Heard(s, 0, 1, s.Written()))
}

// Where a fifth note comes to four that are held, the one held longest is let go: none is lost.
func TestNotesThatRingOn(t *testing.T) {
	at := func(on, off, key int) sound { return sound{score.Quarters(on), score.Quarters(off), key} }
	for _, c := range []struct {
		name   string
		sounds []sound
		voices []int
		ends   []int64
		short  int
	}{
		{"four hold", []sound{at(0, 9, 60), at(1, 9, 62), at(2, 9, 64), at(3, 9, 65)}, []int{0, 1, 2, 3}, []int64{9, 9, 9, 9}, 0},
		{"the fifth lets the first go", []sound{at(0, 9, 60), at(1, 9, 62), at(2, 9, 64), at(3, 9, 65), at(4, 9, 67)}, []int{0, 1, 2, 3, 0}, []int64{4, 9, 9, 9, 9}, 1},
		{"then the second", []sound{at(0, 9, 60), at(1, 9, 62), at(2, 9, 64), at(3, 9, 65), at(4, 9, 67), at(5, 9, 69)}, []int{0, 1, 2, 3, 0, 1}, []int64{4, 5, 9, 9, 9, 9}, 2},
		{"a chord goes as one", []sound{at(0, 9, 64), at(0, 9, 60), at(1, 9, 62), at(2, 9, 64), at(3, 9, 65), at(4, 9, 67)}, []int{0, 0, 1, 2, 3, 0}, []int64{4, 4, 9, 9, 9, 9}, 1},
		{"one that has ended makes room", []sound{at(0, 4, 60), at(1, 9, 62), at(2, 9, 64), at(3, 9, 65), at(4, 9, 67)}, []int{0, 1, 2, 3, 0}, []int64{4, 9, 9, 9, 9}, 0},
		{"five that begin at once join", []sound{at(0, 2, 67), at(0, 3, 65), at(0, 5, 64), at(0, 9, 62), at(0, 6, 60)}, []int{0, 1, 2, 3, 2}, []int64{2, 3, 5, 9, 5}, 1},
	} {
		short := 0
		assert.Equal(t, c.voices, inVoices(c.sounds, func() { short++ }), c.name)
		var ends []int64
		for _, n := range c.sounds {
			end, _ := n.off.Fraction()
			ends = append(ends, end)
		}
		assert.Equal(t, c.ends, ends, c.name)
		assert.Equal(t, c.short, short, c.name)
	}
	s, err := Read(smf(t, "00 90 48 40 30 90 4a 40 30 90 4c 40 30 90 4d 40 30 90 4f 40 83 60 48 00 00 4a 00 00 4c 00 00 4d 00 00 4f 00 00 ff 2f 00"))
	require.NoError(t, err)
	said := map[string]int{}
	for _, u := range s.Unread {
		said[u.What] = u.Count
	}
	assert.Equal(t, 1, said["notes that ring on over four voices, shortened"])
	assert.Len(t, s.Parts[0].Sounding(1, s.Written()), 5)
}

// A file that names no key, or C major as programs do that know none, has the key of its notes.
// A key that is named stays.
func TestTheKeyOfTheNotes(t *testing.T) {
	for _, c := range []struct {
		name, notes string
		key         *pitch.Key
		fifths      int
		told        bool
	}{
		{"B flat major without a key", "Bb4 1 C5 1 D5 1 Eb5 1 F5 1 D5 1 Bb4 1 F4 1 Bb4 4", nil, -2, true},
		{"the same, called C major", "Bb4 1 C5 1 D5 1 Eb5 1 F5 1 D5 1 Bb4 1 F4 1 Bb4 4", &pitch.Key{Mode: "major"}, -2, true},
		{"C major without a key", "C4 1 D4 1 E4 1 F4 1 G4 1 E4 1 C4 1 G4 1 C4 4", nil, 0, false},
		{"A minor without a key: no signature either", "A4 1 B4 1 C5 1 D5 1 E5 1 G#4 1 A4 1 E4 1 A4 4", nil, 0, false},
		{"D major, called G major: as the file has it", "D4 1 E4 1 F#4 1 G4 1 A4 1 C#5 1 D5 1 A4 1 D4 4", &pitch.Key{Fifths: 1, Mode: "major"}, 1, false},
	} {
		s := piece(t, c.notes)
		s.Parts[0].Bars[0].Key = c.key
		again := through(t, s)
		assert.Equal(t, c.fifths, again.Parts[0].Bars[0].Key.Fifths, c.name)
		told := false
		for _, u := range again.Unread {
			told = told || u.What == "key, told from the notes"
		}
		assert.Equal(t, c.told, told, c.name)
	}
}

// A note beside the key is spelled by where it goes: back up as the letter below, raised; down
// as the letter above, lowered. Common practice, no source.
func TestNeighboursAreSpelledByWhereTheyGo(t *testing.T) {
	for notes, want := range map[string]string{
		"E5 1 Eb5 1 E5 1 Eb5 1": "E5 D#5 E5 Eb5",
		"A4 1 Ab4 1 A4 1 C4 1":  "A4 G#4 A4 C4",
		"G4 1 G#4 1 G4 1 C4 1":  "G4 Ab4 G4 C4",
		"C4 1 C#4 1 D4 1 C4 1":  "C4 C#4 D4 C4",
		"E4 1 Eb4 1 C4 1 C4 1":  "E4 Eb4 C4 C4",
		"B4 1 A#4 1 A4 1 C4 1":  "B4 Bb4 A4 C4",
	} {
		s := piece(t, notes)
		var got []string
		for _, n := range through(t, s).Parts[0].Bars[0].Notes {
			got = append(got, n.Pitch.String())
		}
		assert.Equal(t, want, strings.Join(got, " "), notes)
	}
}

// Signs for lengths: the longest first, dotted and double dotted, triplets.
func TestLengthsAsSigns(t *testing.T) {
	for _, c := range []struct {
		of, first string
		triplet   bool
	}{
		{"1", "1", false}, {"3/2", "3/2", false}, {"7/4", "7/4", false}, {"5/2", "2", false}, {"5", "4", false}, {"1/3", "1/3", true}, {"2/3", "2/3", true},
		{"1/16", "1/16", false}, {"11/8", "1", false},
	} {
		got, tuplet := sign(length(t, c.of))
		assert.Equal(t, length(t, c.first), got, c.of)
		assert.Equal(t, c.triplet, tuplet != nil, c.of)
	}
}
