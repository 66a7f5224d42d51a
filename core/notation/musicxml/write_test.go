package musicxml

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

func note(name string, onset, dur score.Time) score.Note {
	p, err := pitch.Parse(name)
	if err != nil {
		panic(err)
	}
	return score.Note{Pitch: p, Onset: onset, Duration: dur, Voice: 1, Staff: 1}
}

func one(bars ...score.Bar) score.Score {
	s := score.Score{Parts: []score.Part{{Name: "Piano", Bars: bars}}}
	s.Finish()
	return s
}

// Every shipped MusicXML score comes back from a round trip as it was.
func TestShippedScoresRoundTrip(t *testing.T) {
	files, err := filepath.Glob("../../../demo/scores/*.musicxml")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		s, err := Read(data)
		require.NoError(t, err, name)
		assert.Empty(t, s.Unread, name)
		again, err := Read(Write(s))
		require.NoError(t, err, name)
		assert.Equal(t, s, again, name)
	}
}

// Eighths and shorter notes join within a beat: common practice, no source.
func TestBeams(t *testing.T) {
	e, s := score.Frac(1, 2), score.Frac(1, 4)
	for _, c := range []struct {
		name  string
		meter score.Meter
		notes []score.Note
		want  string // first beam of each note
	}{
		{"four eighths in 2/4 beam in pairs", score.Meter{Beats: 2, BeatType: 4},
			[]score.Note{note("C4", score.Time{}, e), note("D4", e, e), note("E4", score.Quarters(1), e), note("F4", score.Frac(3, 2), e)}, "begin end begin end"},
		{"six eighths in 6/8 beam in threes", score.Meter{Beats: 6, BeatType: 8},
			[]score.Note{note("C4", score.Time{}, e), note("D4", e, e), note("E4", score.Quarters(1), e), note("F4", score.Frac(3, 2), e), note("G4", score.Quarters(2), e), note("A4", score.Frac(5, 2), e)},
			"begin continue end begin continue end"},
		{"a quarter stands alone", score.Meter{Beats: 2, BeatType: 4},
			[]score.Note{note("C4", score.Time{}, score.Quarters(1)), note("D4", score.Quarters(1), e), note("E4", score.Frac(3, 2), e)}, "- begin end"},
		{"a rest cuts the beam", score.Meter{Beats: 1, BeatType: 4},
			[]score.Note{note("C4", score.Time{}, e), {Onset: e, Duration: e, Rest: true, Voice: 1, Staff: 1}}, "- -"},
		{"dotted eighth and sixteenth", score.Meter{Beats: 1, BeatType: 4},
			[]score.Note{note("C4", score.Time{}, score.Frac(3, 4)), note("D4", score.Frac(3, 4), s)}, "begin end"},
	} {
		t.Run(c.name, func(t *testing.T) {
			sc := one(score.Bar{Meter: &c.meter, Length: c.meter.Length(), Notes: c.notes})
			found := beams(sc.Parts[0].Bars[0], c.meter)
			var got []string
			for _, n := range sc.Parts[0].Bars[0].Notes {
				word := "-"
				if b := found[n.ID]; b != "" {
					word = strings.Split(strings.Split(b, ">")[1], "<")[0]
				}
				got = append(got, word)
			}
			assert.Equal(t, c.want, strings.Join(got, " "))
		})
	}
	sc := one(score.Bar{Length: score.Quarters(1), Notes: []score.Note{note("C4", score.Time{}, score.Frac(3, 4)), note("D4", score.Frac(3, 4), s)}})
	assert.Contains(t, beams(sc.Parts[0].Bars[0], score.Meter{})["p1b1n2"], `<beam number="2">backward hook</beam>`)
}

// A pickup is the end of a bar: its two eighths in 3/4 are one beat.
func TestBeamsOfAPickup(t *testing.T) {
	meter := score.Meter{Beats: 6, BeatType: 8}
	e := score.Frac(1, 2)
	sc := one(score.Bar{Meter: &meter, Length: score.Quarters(2), Notes: []score.Note{note("C4", score.Time{}, e), note("D4", e, e), note("E4", score.Quarters(1), e), note("F4", score.Frac(3, 2), e)}})
	found := beams(sc.Parts[0].Bars[0], meter)
	assert.Empty(t, found["p1b1n1"], "the fourth eighth's beat has only this one here")
	assert.Contains(t, found["p1b1n2"], "begin")
	assert.Contains(t, found["p1b1n4"], "end")
}

// A number stands over a group that fills a plain length: three eighths, a quarter
// and an eighth, five sixteenths, rests among them.
func TestTuplets(t *testing.T) {
	three, five := &score.Tuplet{Actual: 3, Normal: 2}, &score.Tuplet{Actual: 5, Normal: 4}
	for _, c := range []struct {
		name   string
		long   []string // of each note; r before a rest, + for one more note of a chord
		tuplet *score.Tuplet
		want   string
	}{
		{"a triplet", []string{"1/3", "1/3", "1/3"}, three, "[ . ]"},
		{"two triplets", []string{"1/3", "1/3", "1/3", "1/3", "1/3", "1/3"}, three, "[ . ] [ . ]"},
		{"a long and a short", []string{"2/3", "1/3"}, three, "[ ]"},
		{"with a rest", []string{"1/3", "r1/3", "1/3"}, three, "[ . ]"},
		{"with chords", []string{"1/3", "+1/3", "1/3", "+1/3", "1/3"}, three, "[ . . . ]"},
		{"five in the time of four", []string{"1/5", "1/5", "1/5", "1/5", "1/5"}, five, "[ . . . ]"},
		{"one that the bar cuts short", []string{"1/3", "1/3"}, three, "[ ]"},
		{"one note alone has none", []string{"1/3"}, three, "."},
		{"none", []string{"1", "1"}, nil, ". ."},
	} {
		t.Run(c.name, func(t *testing.T) {
			var notes []score.Note
			at, last := score.Time{}, score.Time{}
			for _, l := range c.long {
				var long score.Time
				require.NoError(t, long.UnmarshalText([]byte(strings.Trim(l, "r+"))))
				n := note("C5", at, long)
				if strings.HasPrefix(l, "+") {
					n = note("E5", last, long)
				} else {
					last, at = at, at.Add(long)
				}
				n.Rest, n.Tuplet = strings.HasPrefix(l, "r"), c.tuplet
				notes = append(notes, n)
			}
			bar := one(score.Bar{Length: at, Notes: notes}).Parts[0].Bars[0]
			found := tuplets(bar)
			var got []string
			for _, n := range bar.Notes {
				got = append(got, map[string]string{"": ".", `<tuplet type="start"/>`: "[", `<tuplet type="stop"/>`: "]"}[found[n.ID]])
			}
			assert.Equal(t, c.want, strings.Join(got, " "))
		})
	}
}

func TestSigns(t *testing.T) {
	for _, c := range []struct {
		num, den int64
		name     string
		dots     int
		ok       bool
	}{
		{1, 1, "quarter", 0, true}, {3, 2, "quarter", 1, true}, {7, 4, "quarter", 2, true}, {4, 1, "whole", 0, true},
		{6, 1, "whole", 1, true}, {1, 8, "32nd", 0, true}, {5, 1, "", 0, false}, {1, 3, "", 0, false},
	} {
		name, dots, ok := sign(score.Frac(c.num, c.den))
		assert.Equal(t, c.name, name, "%d/%d", c.num, c.den)
		assert.Equal(t, c.dots, dots)
		assert.Equal(t, c.ok, ok)
	}
}

// All that a score can hold goes out and comes back.
func TestEverythingRoundTrips(t *testing.T) {
	q := score.Quarters(1)
	full := note("Bb4", score.Time{}, q)
	full.Fingers, full.Articulations = []string{"2", "p"}, []string{"up-bow", "staccato", "accent", "fermata"}
	full.SlurStarts, full.Lyric = 1, "rope & tar"
	third := func(name string, i int64) score.Note {
		n := note(name, score.Frac(3+i, 3), score.Frac(1, 3))
		n.Tuplet = &score.Tuplet{Actual: 3, Normal: 2}
		return n
	}
	grace := note("C5", score.Quarters(2), score.Time{})
	grace.Grace = true
	last := note("D5", score.Quarters(2), q)
	last.TieTo, last.SlurEnds = true, 1
	low := note("D5", score.Time{}, score.Quarters(3))
	low.TieFrom = true
	s := score.Score{Title: "Full <house>", Composer: "Nobody & Co", Parts: []score.Part{{Name: "Cello", Staves: 1, Bars: []score.Bar{
		{Length: score.Quarters(3), Key: &pitch.Key{Fifths: -2, Mode: "minor"}, Meter: &score.Meter{Beats: 3, BeatType: 4},
			Clefs: []score.Clef{{Staff: 1, Sign: "C", Line: 4}}, Notes: []score.Note{full, third("C5", 0), third("D5", 1), third("E5", 2), grace, last},
			Marks: []score.Mark{{Kind: "tempo", QPM: 90, Beat: score.Frac(3, 2)}, {Kind: "words", Text: "Warm <ly>"}, {Onset: q, Kind: "dynamic", Text: "mf"}, {Onset: q, Kind: "dynamic", Text: "crescendo"}}, Repeat: score.Repeat{Starts: true}},
		{Length: score.Quarters(3), Notes: []score.Note{low}, Repeat: score.Repeat{Ends: 2, Endings: []int{1}}},
		{Length: score.Quarters(3), Notes: []score.Note{{Onset: score.Time{}, Duration: score.Quarters(3), Rest: true, Voice: 1, Staff: 1}}, Repeat: score.Repeat{Endings: []int{2}}},
	}}}}
	s.Finish()
	again, err := Read(Write(s))
	require.NoError(t, err)
	again.Unread = nil
	// what the reader sees in the signs that the writer chose
	for _, b := range again.Parts[0].Bars {
		for i := range b.Notes {
			b.Notes[i].Dots = 0
		}
	}
	// plucking letters and articulations come back in the order of their elements
	assert.ElementsMatch(t, full.Articulations, again.Parts[0].Bars[0].Notes[0].Articulations)
	again.Parts[0].Bars[0].Notes[0].Articulations = full.Articulations
	assert.Equal(t, s, again)
}

// A mark may stand where no note does, on a finer division than any of them.
func TestAMarkBetweenTheNotes(t *testing.T) {
	bar := score.Bar{Length: score.Quarters(2), Marks: []score.Mark{{Onset: score.Frac(7, 12), Kind: "words", Text: "here"}}}
	bar.Notes = []score.Note{note("C4", score.Time{}, score.Quarters(1)), note("D4", score.Quarters(1), score.Quarters(1))}
	again, err := Read(Write(one(bar)))
	require.NoError(t, err)
	require.Len(t, again.Parts[0].Bars[0].Marks, 1)
	assert.Equal(t, score.Frac(7, 12), again.Parts[0].Bars[0].Marks[0].Onset)
}

// One sign stands for the rest of a whole bar in every meter, and a double bar of
// thin and thick ends the piece: common practice, no source.
func TestRestsOfABarAndTheEnd(t *testing.T) {
	three := score.Meter{Beats: 3, BeatType: 4}
	rest := func(quarters int) score.Note {
		return score.Note{Rest: true, Duration: score.Quarters(quarters), Voice: 1, Staff: 1}
	}
	text := string(Write(one(
		score.Bar{Meter: &three, Length: three.Length(), Notes: []score.Note{rest(3)}},
		score.Bar{Length: three.Length(), Notes: []score.Note{rest(2), note("C4", score.Quarters(2), score.Quarters(1))}},
		score.Bar{Length: three.Length(), Repeat: score.Repeat{Ends: 2}, Notes: []score.Note{note("C4", score.Time{}, three.Length())}})))
	bars := strings.Split(text, "<measure")
	for i, has := range []struct{ rest, end bool }{{true, false}, {false, false}, {false, true}} {
		assert.Equal(t, has.rest, strings.Contains(bars[i+1], `<rest measure="yes"/>`), "bar %d", i+1)
		assert.Equal(t, has.end, strings.Contains(bars[i+1], "<bar-style>light-heavy</bar-style>\n<repeat"), "bar %d", i+1)
	}
}

// A file may leave it to its reader which accidentals to draw; one that draws
// some is drawn as it stands.
func TestAccidentalsThatAFileLeavesOut(t *testing.T) {
	sharp := func(sign string) []byte {
		return []byte(`<score-partwise><part-list><score-part id="P"/></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes>` +
			`<note><pitch><step>F</step><alter>1</alter><octave>4</octave></pitch><duration>1</duration>` + sign + `<stem>down</stem></note></measure></part></score-partwise>`)
	}
	for sign, own := range map[string]bool{"": false, "<accidental>sharp</accidental>": true} {
		text, err := WithIDs(sharp(sign))
		require.NoError(t, err)
		assert.Equal(t, 1, strings.Count(string(text), "<accidental>sharp</accidental>"), sign)
		assert.Equal(t, own, strings.Contains(string(text), "<stem>"), sign)
	}
}

// MusicXML 4.0, "The number-level data type": slurs that overlap, as those of two
// hands do, or that stand in one another, are told apart by number.
func TestSlursThatOverlap(t *testing.T) {
	at := func(name string, quarter, voice, starts, ends int) score.Note {
		n := note(name, score.Quarters(quarter), score.Quarters(1))
		n.Voice, n.Staff, n.SlurStarts, n.SlurEnds = voice, voice, starts, ends
		return n
	}
	s := one(
		score.Bar{Length: score.Quarters(2), Notes: []score.Note{at("G4", 0, 1, 1, 0), at("C3", 0, 2, 1, 0), at("A4", 1, 1, 1, 0), at("D3", 1, 2, 0, 0)}},
		score.Bar{Length: score.Quarters(2), Notes: []score.Note{at("B4", 0, 1, 0, 1), at("E3", 0, 2, 0, 1), at("C5", 1, 1, 0, 1), at("F3", 1, 2, 1, 0)}})
	s.Parts[0].Staves = 2
	var got []string
	for _, m := range regexp.MustCompile(`<step>(.)</step>|<slur type="(\w+)" number="(\d+)"`).FindAllStringSubmatch(string(Write(s)), -1) {
		got = append(got, strings.Join(m[1:], ""))
	}
	assert.Equal(t, "G start1 A start2 C start3 D B stop2 C stop1 E stop3 F start1", strings.Join(got, " "))
}

func TestThePedalStandsUnderTheLowerStaff(t *testing.T) {
	bar := score.Bar{Length: score.Quarters(1), Marks: []score.Mark{{Kind: "dynamic", Text: "p"}, {Kind: "pedal", Text: "start"}}, Notes: []score.Note{note("C4", score.Time{}, score.Quarters(1))}}
	s := one(bar)
	assert.NotContains(t, string(Write(s)), "<staff>")
	s.Parts[0].Staves = 2
	assert.Contains(t, string(Write(s)), `<pedal type="start" line="no"/></direction-type><staff>2</staff>`)
	assert.Contains(t, string(Write(s)), `<p/></dynamics></direction-type></direction>`)
}
