package abc

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// music returns what we write of a tune below its key.
func music(t *testing.T, tune string) string {
	s, err := Read([]byte("X:1\n" + tune + "\n"))
	require.NoError(t, err, tune)
	out, err := Write(s)
	require.NoError(t, err, tune)
	again, err := Read(out)
	require.NoError(t, err, "%s", out)
	again.Parts[0].Name = s.Parts[0].Name
	assert.Equal(t, s, again, "%s", out)
	_, body, _ := strings.Cut(string(out), "K:")
	_, body, _ = strings.Cut(body, "\n")
	return strings.TrimSpace(body)
}

// ABC 2.1: 4.7 beams, 4.2 and 11.3 accidentals, 4.11 ties, 4.13 tuplets, 4.9
// endings, 4.8 bar lines, 5.1 words, 4.6 clefs.
func TestMusicAsWeWriteIt(t *testing.T) {
	for _, c := range []struct{ name, tune, want string }{
		{"eighths of a beat stand together", "M:4/4\nL:1/8\nK:C\nCDEF GABc|c4 C4|]", "CD EF GA Bc | c4 C4 |]"},
		{"in six eight by threes", "M:6/8\nL:1/8\nQ:3/8=60\nK:Ddor\nDEF G3|A,6|]", "[Q:3/8=60]DEF G3 | A,6 |]"},
		{"a dotted pair", "M:2/4\nL:1/8\nK:C\nC>D E<F|C4|]", "C3/2D/2 E/2F3/2 | C4 |]"},
		{"a rest parts a beam", "M:2/4\nL:1/8\nK:C\nCz zD|C4|]", "C z z D | C4 |]"},
		{"a pickup counts from its end", "M:2/4\nL:1/8\nK:C\nC|DE FG|A3|]", "C | DE FG | A3 |]"},
		{"an accidental holds to the bar line", "M:4/4\nL:1/4\nK:G\nF =F F ^F|F4|]", "F2 =F2 F2 ^F2 | F8 |]"},
		{"a tie over the bar line tells an accidental anew", "M:4/4\nL:1/4\nK:C\n^F4-|^F4|]", "^F8- | ^F8 |]"},
		{"but not one of the key", "M:4/4\nL:1/4\nK:G\nF4-|F4|]", "F8- | F8 |]"},
		{"a chord, tied", "M:4/4\nL:1/4\nK:C\n[CEG]2 [DF]2-|[DF]4|]", "[CEG]4 [D-F-]4 | [DF]8 |]"},
		{"a triplet, even and uneven", "M:4/4\nL:1/8\nK:C\n(3CDE (3:2:2F2G c4|]", "(3CDE (3:2:2F2 G c4 |]"},
		{"a repeat with two endings", "M:3/4\nL:1/4\nK:C\n|:CDE|1 F3:|2 G3|]", "|:C2 D2 E2 | [1 F6 :| [2 G6 |]"},
		{"fingers, signs and grace notes", "M:4/4\nL:1/4\nK:C\n!1!C !5!G {ab}g2|!p!.c .d !fermata!e2|]", "!1!C2 !5!G2 {ab}g4 | !p!.c2 .d2 !fermata!e4 |]"},
		{"a slur and a swell", "M:4/4\nL:1/4\nK:C\n(C D E) F|!<(!C D !<)!E F|]", "(C2 D2 E2) F2 | !<(!C2 D2 !<)!E2 F2 |]"},
		{"meter and key change", "M:2/4\nL:1/8\nK:C\nC4|[M:3/8][K:G]GAB|]", "C4 | [M:3/8][K:Gmaj]GAB |]"},
		{"low and high notes", "M:4/4\nL:1/4\nK:C\nC,, c' c'' B,|]", "C,,2 c'2 c''2 B,2 |]"},
		{"words, a syllable and a held one", "M:4/4\nL:1/4\nK:C\nC D E F|G4|]\nw: a-long the~old pier_", "C2 D2 E2 F2 | G8 |]\nw: a-long the~old pier *"},
		{"a word that goes on under a held note", "M:4/4\nL:1/4\nK:C\nC D E F|]\nw: o-*ver there", "C2 D2 E2 F2 |]\nw: o- * ver there"},
		{"chord symbols, and words in the same quotation marks", "M:4/4\nL:1/4\nK:G\n\"G\"G B \"Em/b\"d2|\"gently\"\"D7\"F4|]", "\"G\"G2 B2 \"Em/B\"d4 | \"^gently\"\"D7\"F8 |]"},
		{"a sign over the second voice's note", "M:4/4\nL:1/4\n%%score (1 2)\nV:1\nV:2\nK:C\nV:1\ne4|]\nV:2\nc2 \"^now\"c2|]", "V:1\ne8 |]\nV:2\nc4 \"^now\"c4 |]"},
		{"three voices on a staff and one below", "M:2/4\nL:1/4\n%%score {(1 2 3) 4}\nV:1\nV:2\nV:3\nV:4 clef=bass\nK:C\nV:1\nc2|]\nV:2\nE2|]\nV:3\nC2|]\nV:4\nC,2|]", "V:1\nc4 |]\nV:2\nE4 |]\nV:3\nC4 |]\nV:4\nC,4 |]"},
		{"an ending over two bars", "M:2/4\nL:1/4\nK:C\n|:CD|1 EF|G2:|2 E2|]", "|:C2 D2 | [1 E2 F2 | G4 :| [2 E4 |]"},
		{"where to go, by its sign and in words", "M:2/4\nL:1/4\nK:C\nCD!fine!|E2!D.C.!|]", "C2 D2 !fine!| E4 !D.C.!|]"},
		{"two voices on a staff", "M:4/4\nL:1/4\n%%score (1 2)\nV:1\nV:2\nK:C\nV:1\ne f g2|]\nV:2\nc4|]", "V:1\ne2 f2 g4 |]\nV:2\nc8 |]"},
	} {
		t.Run(c.name, func(t *testing.T) { assert.Equal(t, c.want, music(t, c.tune)) })
	}
}

// What a tune cannot hold is told with its bar; what it can is not.
func TestWhatATuneCannotHold(t *testing.T) {
	q := score.Quarters(1)
	c, g := pitch.MustParseAll("C4")[0], pitch.MustParseAll("G4")[0]
	n := func(p pitch.Pitch, at, long int) score.Note {
		return score.Note{Pitch: p, Onset: score.Quarters(at), Duration: score.Quarters(long), Voice: 1, Staff: 1}
	}
	with := func(n score.Note, change func(*score.Note)) score.Note { change(&n); return n }
	for _, row := range []struct {
		says string
		bar  score.Bar
		want string
	}{
		{"plain notes", score.Bar{Notes: []score.Note{n(c, 0, 1), n(g, 1, 1)}}, ""},
		{"a chord", score.Bar{Notes: []score.Note{n(c, 0, 1), n(g, 0, 1)}}, ""},
		{"tablature", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.String = 1 })}}, "strings and frets"},
		{"a finger", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.Fingers = []string{"5", "0"} })}}, ""},
		{"a plucking finger", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.Fingers = []string{"p"} })}}, "plucking fingers"},
		{"a sixth", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.Fingers = []string{"6"} })}}, "plucking fingers"},
		{"a sign", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.Articulations = []string{"staccato"} })}}, ""},
		{"one of another notation", score.Bar{Notes: []score.Note{with(n(c, 0, 1), func(n *score.Note) { n.Articulations = []string{"doit"} })}}, "the sign doit"},
		{"a chord that ends unevenly", score.Bar{Notes: []score.Note{n(c, 0, 1), n(g, 0, 2)}}, "notes of a chord that end at different times"},
		{"a note held under the next", score.Bar{Notes: []score.Note{n(c, 0, 2), n(g, 1, 1)}}, "notes that overlap in one voice"},
		{"the same in another voice", score.Bar{Notes: []score.Note{n(c, 0, 2), with(n(g, 1, 1), func(n *score.Note) { n.Voice = 2 })}}, ""},
		{"or under a rest", score.Bar{Notes: []score.Note{n(c, 0, 2), with(n(g, 1, 1), func(n *score.Note) { n.Rest = true })}}, ""},
		{"or a grace note", score.Bar{Notes: []score.Note{with(n(g, 0, 0), func(n *score.Note) { n.Grace = true }), n(c, 0, 2)}}, ""},
		{"a clef within", score.Bar{Notes: []score.Note{n(c, 0, 2)}, Clefs: []score.Clef{{Onset: q, Staff: 1, Sign: "F", Line: 4}}}, "another clef inside a bar"},
		{"a clef at the beginning", score.Bar{Notes: []score.Note{n(c, 0, 2)}, Clefs: []score.Clef{{Staff: 1, Sign: "F", Line: 4}}}, ""},
		{"loudness at a note", score.Bar{Length: score.Quarters(2), Notes: []score.Note{n(c, 0, 2)}, Marks: []score.Mark{{Kind: "dynamic", Text: "mf"}}}, ""},
		{"at the end of the bar", score.Bar{Length: score.Quarters(2), Notes: []score.Note{n(c, 0, 2)}, Marks: []score.Mark{{Onset: score.Quarters(2), Kind: "words", Text: "gently"}}}, ""},
		{"within a note", score.Bar{Length: score.Quarters(2), Notes: []score.Note{n(c, 0, 2)}, Marks: []score.Mark{{Onset: q, Kind: "dynamic", Text: "mf"}}}, "signs in the middle of a note (set at the next)"},
		{"loudness that it has no sign for", score.Bar{Length: score.Quarters(2), Notes: []score.Note{n(c, 0, 2)}, Marks: []score.Mark{{Kind: "dynamic", Text: "niente"}}}, "the loudness niente"},
		{"pedal", score.Bar{Length: score.Quarters(2), Notes: []score.Note{n(c, 0, 2)}, Marks: []score.Mark{{Kind: "pedal", Text: "ped."}}}, "pedal"},
	} {
		var got []string
		for _, u := range Losses(score.Score{Parts: []score.Part{{Bars: []score.Bar{{}, row.bar}}}}) {
			got = append(got, u.What)
			assert.Equal(t, 2, u.Bar, row.says)
		}
		assert.Equal(t, row.want, strings.Join(got, ", "), row.says)
	}
}

func TestClefsAsWeWriteThem(t *testing.T) {
	for _, clef := range []string{"treble", "bass", "alto", "tenor", "treble-8", "treble+8", "bass-8"} {
		s, err := Read([]byte("X:1\nM:4/4\nL:1/4\nK:C clef=" + clef + "\nC D E F|]\n"))
		require.NoError(t, err)
		out, err := Write(s)
		require.NoError(t, err)
		assert.Contains(t, string(out), "K:Cmaj clef="+clef+"\n")
		again, err := Read(out)
		require.NoError(t, err)
		assert.Equal(t, s, again, clef)
	}
}

var middleC, _ = pitch.New('C', 0, 4)

// What a note or a text holds beside plain letters does no harm in the tune.
func TestTextsThatABCWouldTakeForItsOwn(t *testing.T) {
	bar := score.Bar{Length: score.Quarters(4)}
	for i, lyric := range []string{"a|b", "well-known", "-", "100%"} {
		bar.Notes = append(bar.Notes, score.Note{Onset: score.Quarters(i), Duration: score.Quarters(1), Pitch: middleC, Voice: 1, Staff: 1, Lyric: lyric})
	}
	bar.Marks = []score.Mark{{Kind: "words", Text: `say "now" 50%`}}
	s := score.Score{Title: "One % two\nK:G", Parts: []score.Part{{Staves: 1, Bars: []score.Bar{bar}}}}
	s.Finish()
	out, err := Write(s)
	require.NoError(t, err)
	again, err := Read(out)
	require.NoError(t, err, "%s", out)
	assert.Equal(t, "One  two K:G", again.Title)
	var lyrics []string
	for _, n := range again.Parts[0].Bars[0].Notes {
		lyrics = append(lyrics, n.Lyric)
	}
	assert.Equal(t, []string{"a b", "well-known", "", "100 "}, lyrics)
	assert.Equal(t, "say 'now' 50", again.Parts[0].Bars[0].Marks[0].Text)
}

func TestALengthThatABCCannotWrite(t *testing.T) {
	s := score.Score{Parts: []score.Part{{Staves: 1, Bars: []score.Bar{{Length: score.Quarters(4), Notes: []score.Note{
		{Duration: score.Frac(1, 2520), Pitch: middleC, Voice: 1, Staff: 1}}}}}}}
	s.Finish()
	_, err := Write(s)
	assert.ErrorContains(t, err, "bar 1: a length of 1/2520 quarter notes")
	_, err = Write(score.Score{})
	assert.ErrorContains(t, err, "no music")
}

func TestALineOfADrawingIsAsLongAsAPhoneShows(t *testing.T) {
	for _, c := range []struct {
		name, tune string
		lines      []int // bars in each
	}{
		{"four bars of three", "M:3/4\nL:1/4\nK:C\nCDE|FGA|Bcd|efg|gfe|]", []int{4, 1}},
		{"twelve moments, not thirteen", "M:4/4\nL:1/8\nK:C\nC2DEFGAB|C2DEF2G2|C8|]", []int{2, 1}},
		{"a bar that is longer stands alone", "M:4/4\nL:1/16\nK:C\nCDEFGABcCDEFGABc|C16|]", []int{1, 1}},
		{"both hands at once are one moment", "M:4/4\nL:1/4\n%%score {1 2}\nV:1\nV:2 clef=bass\nK:C\nV:1\nCDEF|GABc|cBAG|]\nV:2\nC,D,E,F,|C,4|C,4|]", []int{3}},
	} {
		s, err := Read([]byte("X:1\nT:Lamp Room\n" + c.tune + "\n"))
		require.NoError(t, err)
		d, err := Draw(s)
		require.NoError(t, err)
		assert.NotContains(t, d.Text, "Lamp Room")
		var lines []int
		voice, of := "", "V:1"
		_, body, _ := strings.Cut(d.Text, "K:")
		for _, line := range strings.Split(body, "\n")[1:] {
			if strings.HasPrefix(line, "V:") {
				voice = line
			} else if bars := strings.Count(line, "|"); bars > 0 && (voice == "" || voice == of) {
				lines = append(lines, bars)
			}
		}
		assert.Equal(t, c.lines, lines, "%s:\n%s", c.name, d.Text)
	}
}

func TestADrawingNamesItsNotesInOrder(t *testing.T) {
	s, err := Read([]byte("X:1\nM:4/4\nL:1/4\n%%score {1 2}\nV:1\nV:2 clef=bass\nK:C\nV:1\n{d}C z [EG]2|]\nV:2\nC,D,z2|]\n"))
	require.NoError(t, err)
	d, err := Draw(s)
	require.NoError(t, err)
	id := func(name string) string {
		for _, n := range s.Parts[0].Bars[0].Notes {
			if !n.Grace && !n.Rest && n.Pitch.String() == name {
				return n.ID
			}
		}
		return ""
	}
	require.Len(t, d.Voices, 2)
	assert.Equal(t, []string{id("C4"), id("E4") + " " + id("G4")}, d.Voices[0].Chords, "neither rests nor grace notes")
	assert.Len(t, d.Voices[1].Chords, 2)
	_, err = Draw(score.Score{})
	assert.Error(t, err)
}
