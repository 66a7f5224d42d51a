package abc

import (
	"cmp"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

// Section numbers are those of The ABC music standard 2.1 (2011).
func TestTunes(t *testing.T) {
	for _, c := range []struct{ name, head, body, want string }{
		{"4.1 octaves", "M:4/4\nL:1/4\nK:C", "C, C c c'|", "C3@0+1 C4@1+1 C5@2+1 C6@3+1"},
		{"4.2 accidental lasts to the bar line", "M:4/4\nL:1/4\nK:C", "^F F =F F|F|", "F#4@0+1 F#4@1+1 F4@2+1 F4@3+1 F4@4+1"},
		{"11.3 accidental holds in other octaves", "M:2/4\nL:1/4\nK:C", "^F f|", "F#4@0+1 F#5@1+1"},
		{"3.1.14 key signature", "M:3/4\nL:1/4\nK:D", "F C _B|", "F#4@0+1 C#4@1+1 Bb4@2+1"},
		{"3.1.14 minor and modes", "M:3/4\nL:1/4\nK:E minor", "F G D|", "F#4@0+1 G4@1+1 D4@2+1"},
		{"4.3 lengths", "M:4/4\nL:1/8\nK:C", "C D2 E/ F// G3/2 A/4|", "C4@0+1/2 D4@1/2+1 E4@3/2+1/4 F4@7/4+1/8 G4@15/8+3/4 A4@21/8+1/8"},
		{"3.1.7 unit from the meter, below 0.75", "M:2/4\nK:C", "C D|", "C4@0+1/4 D4@1/4+1/4"},
		{"3.1.7 unit from the meter, 0.75 and over", "M:6/8\nK:C", "C D|", "C4@0+1/2 D4@1/2+1/2"},
		{"4.4 broken rhythm", "M:4/4\nL:1/4\nK:C", "C>D E<F|G>>A", "C4@0+3/2 D4@3/2+1/2 E4@2+1/2 F4@5/2+3/2 G4@4+7/4 A4@23/4+1/4"},
		{"4.5 rests", "M:4/4\nL:1/4\nK:C", "C z D x|Z|E", "C4@0+1 D4@2+1 E4@8+1"},
		{"4.13 triplet", "M:2/4\nL:1/8\nK:C", "(3CDE F2|", "C4@0+1/3 D4@1/3+1/3 E4@2/3+1/3 F4@1+1"},
		{"4.13 triplet of unequal notes", "M:2/4\nL:1/8\nK:C", "(3:2:2C2D E2|", "C4@0+2/3 D4@2/3+1/3 E4@1+1"},
		{"4.13 duplet in compound time", "M:6/8\nL:1/8\nK:C", "(2CD E3|", "C4@0+3/4 D4@3/4+3/4 E4@3/2+3/2"},
		{"4.11 tie over the bar line keeps its accidental", "M:2/4\nL:1/4\nK:C", "C ^F-|F C|", "C4@0+1 F#4@1+2 C4@3+1"},
		{"4.17 chord", "M:2/4\nL:1/4\nK:C", "[CEG] [C2E2]/|", "C4@0+1 E4@0+1 G4@0+1 C4@1+1 E4@1+1"},
		{"4.11 tied chord", "M:4/4\nL:1/4\nK:C", "[CE]2-[CE]2|", "C4@0+4 E4@0+4"},
		{"4.12 grace notes take no time", "M:2/4\nL:1/4\nK:C", "{d}c {/e}d|", "C5@0+1 D5@1+1"},
		{"pickup begins at nought", "M:3/4\nL:1/4\nK:C", "G|C2 E|", "G4@0+1 C4@1+2 E4@3+1"},
		{"2.2.2 a comment line does not end the tune", "M:2/4\nL:1/4\nK:C", "C D|\n% the second half\n  %\nE % third\n%%directive\n F|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1"},
		{"3.2 fields inside a line", "M:2/4\nL:1/4\nK:C", "F [K:G]F|[M:3/4][L:1/8]F4 G2|", "F4@0+1 F#4@1+1 F#4@2+2 G4@4+1"},
	} {
		t.Run(c.name, func(t *testing.T) {
			s, err := Read([]byte("X:1\nT:Case\n" + c.head + "\n" + c.body + "\n"))
			require.NoError(t, err)
			assert.Equal(t, c.want, scoretest.Heard(s, 0, 1, s.Written()))
		})
	}
}

func TestRepeatsAndEndings(t *testing.T) {
	for _, c := range []struct {
		name, body string
		want       []int
	}{
		{"4.8 plain repeat", "|:C4|D4:|", []int{1, 2, 1, 2}},
		{"4.8 repeat without an opening", "C4|D4:|E4|", []int{1, 2, 1, 2, 3}},
		{"4.8 back to back", "|:C4::D4:|", []int{1, 1, 2, 2}},
		{"4.9 endings", "|:C4|1 D4:|2 E4|]", []int{1, 2, 1, 3}},
		{"4.9 endings in brackets", "|:C4|[1 D4:|[2 E4|]", []int{1, 2, 1, 3}},
		{"4.10 ending lists", "|:C4|[1,2 D4:|[3 E4|]", []int{1, 2, 1, 2, 1, 3}},
		{"pickup and repeat", "G|C3 G:|", []int{1, 2, 1, 2}},
	} {
		t.Run(c.name, func(t *testing.T) {
			s, err := Read([]byte("X:1\nM:4/4\nL:1/4\nK:C\n" + c.body + "\n"))
			require.NoError(t, err)
			assert.Equal(t, c.want, s.Played())
		})
	}
}

func TestTwoHandsWordsAndFingers(t *testing.T) {
	s, err := Read([]byte(`X:7
T:Two hands
C:Nobody
%%score {1 2}
M:4/4
L:1/4
Q:"Calmly" 1/4=72
V:1 clef=treble
V:2 clef=bass
K:F
V:1
!1!F !f!G (A .B)|Hc4|
w: One two three_
V:2
F,2 C,2|F,4|
`))
	require.NoError(t, err)
	require.Len(t, s.Parts, 1)
	assert.Equal(t, 2, s.Parts[0].Staves)
	assert.Equal(t, "F3@0+2 C3@2+2 F3@4+4", scoretest.Heard(s, 0, 2, s.Written()))
	notes := s.Parts[0].Bars[0].Notes
	assert.Equal(t, []string{"1"}, notes[0].Fingers)
	assert.Equal(t, "One", notes[0].Lyric)
	var upper []score.Note
	for _, n := range notes {
		if n.Staff == 1 {
			upper = append(upper, n)
		}
	}
	assert.Equal(t, 1, upper[2].SlurStarts)
	assert.Equal(t, 1, upper[3].SlurEnds)
	assert.Equal(t, []string{"staccato"}, upper[3].Articulations)
	assert.Equal(t, []score.Clef{{Staff: 1, Sign: "G", Line: 2}, {Staff: 2, Sign: "F", Line: 4}}, s.Parts[0].Bars[0].Clefs)
	var kinds []string
	for _, m := range s.Parts[0].Bars[0].Marks {
		kinds = append(kinds, m.Kind+" "+m.Text)
	}
	assert.Equal(t, []string{"words Calmly", "tempo ", "dynamic f"}, kinds)
	assert.Empty(t, s.Unread)
}

func TestNothingLostWithoutAWord(t *testing.T) {
	s, err := Read([]byte("X:1\nK:C\n\"Am\"C !crow!D \"Em\"E|{g}F|\n\nX:2\nK:G\nG|\n"))
	require.NoError(t, err)
	assert.Equal(t, []score.Unread{
		{What: "decoration crow", Bar: 1, Count: 1},
		{What: "time of grace notes", Bar: 2, Count: 1},
		{What: "further tunes in the file", Bar: 0, Count: 1},
	}, s.Unread)
	assert.Len(t, Split([]byte("%abc\nX:1\nK:C\nC|\n\nX:2\nK:G\nG|\n")), 2)
}

func TestWhatFollowsTheEmptyLineIsTold(t *testing.T) {
	for body, want := range map[string]string{
		"C4|\n\n":                      "[]",
		"C4|\n\n% a remark\n\n":        "[]",
		"C4|\n\nD4|\nE4|\n":            "[{lines after the empty line that ends the tune 0 2}]",
		"C4|\n\nD4|\nX:2\nK:C\nC4|\n":  "[{lines after the empty line that ends the tune 0 1} {further tunes in the file 0 1}]",
		"C4|\n% not the end\nw: one\n": "[]",
	} {
		s, err := Read([]byte("X:1\nL:1/4\nK:C\n" + body))
		require.NoError(t, err)
		assert.Equal(t, want, fmt.Sprint(s.Unread), body)
	}
}

// voices writes a note each for so many.
func voices(n int) string {
	var b strings.Builder
	for v := range n {
		fmt.Fprintf(&b, "V:%d\nC|\n", v+1)
	}
	return b.String()
}

func TestAsManyVoicesAsAreTaken(t *testing.T) {
	s, err := Read([]byte("X:1\nK:C\n" + voices(maxVoices) + "V:1\nD|\n"))
	require.NoError(t, err)
	assert.Len(t, s.Parts, maxVoices)
	_, err = Read([]byte("X:1\nL:1/1\nK:C\nC/1024|\n"))
	assert.NoError(t, err)
}

func TestTheColumnThatIsWrong(t *testing.T) {
	for text, column := range map[string]int{"C ^|": 3, "?": 1, "C D|E ?": 7} {
		_, err := Read([]byte("X:1\nK:C\n" + text + "\n"))
		var at *score.SyntaxError
		require.ErrorAs(t, err, &at)
		assert.Equal(t, column, at.Column, text)
	}
}

// A tuplet without its other figures. ABC 2.1, section 4.13: five, seven and nine go into the time of
// three in compound time, else of two.
func TestTupletsByTheirMeter(t *testing.T) {
	for _, c := range []struct {
		meter string
		notes int
		into  int
	}{
		{"4/4", 2, 3}, {"4/4", 3, 2}, {"4/4", 4, 3}, {"4/4", 6, 2}, {"4/4", 8, 3},
		{"4/4", 5, 2}, {"6/8", 5, 3}, {"9/8", 7, 3}, {"12/8", 9, 3}, {"3/8", 5, 2}, {"3/4", 5, 2}, {"6/4", 5, 2}, {"5/8", 7, 2},
	} {
		s, err := Read(fmt.Appendf(nil, "X:1\nM:%s\nL:1/8\nK:C\n(%d%s|\n", c.meter, c.notes, strings.Repeat("C", c.notes)))
		require.NoError(t, err, "%v", c)
		assert.Equal(t, score.Tuplet{Actual: c.notes, Normal: c.into}, *s.Parts[0].Bars[0].Notes[0].Tuplet, "%d in %s", c.notes, c.meter)
	}
}

// Words under notes: a bar of them steps to the next bar (ABC 2.1, section 5.1).
func TestWordsByTheBar(t *testing.T) {
	for words, want := range map[string]string{
		"one two|three": "one two - three -", "one|two": "one - - two -", "one|two|three": "one - - two -", "|one two": "one two - - -", "one two three|four": "one two three four -",
	} {
		s, err := Read([]byte("X:1\nM:none\nL:1/4\nK:C\nC D E|F G|\nw: " + words + "\n"))
		require.NoError(t, err, words)
		var got []string
		for _, b := range s.Parts[0].Bars {
			for _, n := range b.Notes {
				got = append(got, cmp.Or(n.Lyric, "-"))
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), words)
	}
}

// A bar line and a colon with blanks between open a repeat; a colon at a line's end, or before a bar line, does not.
func TestABlankInARepeat(t *testing.T) {
	for music, want := range map[string][]int{"C| :D:|": {1, 2, 2}, "C|\t:D:|": {1, 2, 2}, "C|:D:|": {1, 2, 2}, "C|D :|": {1, 2, 1, 2}} {
		s, err := Read([]byte("X:1\nK:C\n" + music + "\n"))
		require.NoError(t, err, music)
		assert.Equal(t, want, s.Played(), music)
	}
}

func TestWhereItWentWrong(t *testing.T) {
	for _, c := range []struct {
		name, text string
		line, bar  int
		says       string
	}{
		{"voices", "X:1\nK:C\n" + voices(maxVoices+1), 2*maxVoices + 3, 2, "more than 64 voices"},
		{"a length of nothing", "X:1\nL:0/8\nK:C\n", 2, 0, "unit length"},
		{"shorter than is written", "X:1\nL:1/4\nK:C\nC/2048|\n", 4, 1, "shorter than a 1024th"},
		{"no tune", "just words\n", 1, 0, "needs an X: line"},
		{"no key", "X:1\nT:No key\nCDEF|\n", 3, 0, "before the key"},
		{"strange letter", "X:1\nK:C\nCD|EH?|\n", 3, 2, `"?" is not ABC music`},
		{"open chord", "X:1\nK:C\nC|[CE|\n", 3, 2, "inside a chord"},
		{"cut tuplet", "X:1\nM:4/4\nK:C\nC4|(3CD|E\n", 4, 2, "tuplet"},
		{"bad meter", "X:1\nM:4/5\nK:C\n", 2, 0, "meter"},
		{"bad length", "X:1\nL:x\nK:C\n", 2, 0, "unit length"},
		{"bad key", "X:1\nK:Qm\n", 2, 0, "key"},
		{"hanging accidental", "X:1\nK:C\nC ^|\n", 3, 1, "accidental"},
		{"quote left open", "X:1\nK:C\n\"Am C|\n", 3, 1, "missing"},
		{"words first", "X:1\nw: la la\nK:C\nC|\n", 2, 0, "words"},
		{"grace notes that go on over the bar line", "X:1\nK:C\n{CD|E F|\n", 3, 1, "before the '}'"},
		{"grace notes that never end", "X:1\nK:C\nC|{DE\n", 3, 2, "is missing"},
		{"no notes", "X:1\nK:C\n|||\n", 3, 1, "no notes"},
		{"too fine", "X:1\nL:1/8\nK:C\nC/1023|\n", 4, 1, "finer"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := Read([]byte(c.text))
			var at *score.SyntaxError
			require.True(t, errors.As(err, &at), "%v", err)
			assert.Equal(t, c.line, at.Line)
			assert.Equal(t, c.bar, at.Bar)
			assert.Contains(t, at.Msg, c.says)
			assert.NotContains(t, err.Error(), "\n")
		})
	}
}

func FuzzRead(f *testing.F) {
	files, err := filepath.Glob("../../../demo/scores/*.abc")
	if err != nil || len(files) == 0 {
		f.Fatal("no seed tunes", err)
	}
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(data)
	}
	f.Add([]byte("X:1\nM:6/8\nL:1/8\nK:Ddor clef=alto\n|:{a}(3ABc [DF]2>G-|1 G4:|2 Z2|]\nw: a-b_ *|c\nV:2\nz8|\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		if len(data) > 1<<16 {
			return
		}
		s, err := Read(data)
		if scoretest.Refused(t, err) {
			return
		}
		for _, p := range s.Parts {
			for staff := 1; staff <= p.Staves; staff++ {
				p.Sounding(staff, s.Played())
			}
		}
	})
}

func TestKeysAsWritten(t *testing.T) {
	for _, c := range []struct {
		text, key, clef string
		bad             bool
	}{
		{"G", "G major", "", false}, {"Gmaj", "G major", "", false}, {"Em", "E minor", "", false}, {"E minor", "E minor", "", false},
		{"Ddor", "D dorian", "", false}, {"D Dorian", "D dorian", "", false}, {"Amix", "A mixolydian", "", false}, {"F#m", "F# minor", "", false},
		{"Bb", "Bb major", "", false}, {"C clef=bass", "C major", "bass", false}, {"D bass", "D major", "bass", false}, {"none", "C major", "", false},
		{"Hp", "A mixolydian", "", false}, {",", "C major", "", false}, {"G#", "", "", true}, {"Xm", "", "", true}, {"Gfoo", "", "", true}, {"D ^", "", "", true},
		{"D =c", "D mixolydian", "", false}, {"D exp ^f^c", "D major", "", false}, {"A minor ^f bass", "A dorian", "bass", false},
	} {
		key, clef, err := parseKey(c.text, func(string, int) {})
		assert.Equal(t, c.bad, err != nil, c.text)
		if err == nil {
			assert.Equal(t, c.key, key.String(), c.text)
			assert.Equal(t, c.clef, clef, c.text)
		}
	}
}

// Section 3.1.14 of the standard: accidentals beside the key hold for the tune,
// "K:D Phr ^f", and alone after "exp", "K:D exp _b _e ^f", the standard's own
// examples.
func TestKeysWithAccidentalsOfTheirOwn(t *testing.T) {
	for _, c := range []struct{ key, drawn, heard string }{
		{"D Phr ^f", "D phrygian", "Eb4@0+1 F#4@1+1 Bb4@2+1 F4@3+1"},
		{"Dphr^F", "D phrygian", "Eb4@0+1 F#4@1+1 Bb4@2+1 F4@3+1"},
		{"D exp _b _e ^f", "D major", "Eb4@0+1 F#4@1+1 Bb4@2+1 F4@3+1"},
		{"C_e", "C major", "Eb4@0+1 F4@1+1 B4@2+1 F4@3+1"},
	} {
		s, err := Read([]byte("X:1\nM:4/4\nL:1/4\nK:" + c.key + "\nE F B =F|\n"))
		require.NoError(t, err, c.key)
		assert.Equal(t, c.drawn, s.Parts[0].Bars[0].Key.String(), c.key)
		assert.Equal(t, c.heard, scoretest.Heard(s, 0, 1, s.Written()), c.key)
		assert.Equal(t, "accidentals of the key's own, which stand at the notes", s.Unread[0].What, c.key)
	}
}

// Section 4.11 of the standard. Each note is written with the slurs that end and
// begin at it.
func TestSlurs(t *testing.T) {
	for _, c := range []struct{ name, music, want, unread string }{
		{"over four notes", "(c d e f)", "c( d e f)", ""},
		{"one ends where the next begins, the standard's own example", "(c d (e) f g a)", "c( d e)( f g a)", ""},
		{"one in another", "(c (d e) f)", "c( d( e) f)", ""},
		{"a note with both ends is none", "(c) d", "c d", ""},
		{"nor one chord", "([ce]) d", "c e d", ""},
		{"to a chord, at its first note", "(c [eg]) d", "c( e) g d", ""},
		{"none at all", "c () d", "c d", ""},
		{"from note to note, not from rest to rest", "(z c | d z)", "c( d)", ""},
		{"begun before a grace note", "({b}c d)", "b c( d)", ""},
		{"one that never began", "c d) e", "c d e", "slur that never began"},
		{"one that never ends", "c (d e", "c d( e", "slur that never ends"},
	} {
		s, err := Read([]byte("X:1\nL:1/4\nK:C\n" + c.music + "|]\n"))
		require.NoError(t, err, c.name)
		var got []string
		for _, b := range s.Parts[0].Bars {
			for _, n := range b.Notes {
				if !n.Rest {
					got = append(got, strings.ToLower(string(n.Pitch.Step()))+strings.Repeat(")", n.SlurEnds)+strings.Repeat("(", n.SlurStarts))
				}
			}
		}
		assert.Equal(t, c.want, strings.Join(got, " "), c.name)
		if c.unread != "" {
			assert.Equal(t, []score.Unread{{What: c.unread, Bar: 1, Count: 1}}, s.Unread, c.name)
		}
	}
}

func TestTempos(t *testing.T) {
	for _, c := range []struct {
		text, words string
		qpm         float64
		beat        string
	}{
		{"1/4=96", "", 96, "1"}, {"3/8=60", "", 90, "3/2"}, {`"Gently" 1/2=40`, "Gently", 80, "2"}, {"120", "", 120, "1"},
	} {
		s, err := Read([]byte("X:1\nM:4/4\nQ:" + c.text + "\nK:C\nC8|\n"))
		require.NoError(t, err, c.text)
		for _, m := range s.Parts[0].Bars[0].Marks {
			switch m.Kind {
			case "tempo":
				assert.Equal(t, c.qpm, m.QPM, c.text)
				assert.Equal(t, c.beat, m.Beat.String(), c.text)
			case "words":
				assert.Equal(t, c.words, m.Text)
			}
		}
	}
	for _, bad := range []string{"fast", "1/4=", "1/4=0", `"Open 1/4=60`, "1/0=60"} {
		_, err := Read([]byte("X:1\nM:4/4\nQ:" + bad + "\nK:C\nC8|\n"))
		assert.ErrorContains(t, err, "tempo", bad)
	}
}

func TestMetersAsWritten(t *testing.T) {
	for text, want := range map[string]string{"C": "4/4", "C|": "2/2", "6/8": "6/8", "(2+3)/8": "5/8", "2+3/8": "5/8", "none": "-"} {
		s, err := Read([]byte("X:1\nM:" + text + "\nL:1/8\nK:C\nC4|\n"))
		require.NoError(t, err, text)
		got := "-"
		if m := s.Parts[0].Bars[0].Meter; m != nil {
			got = fmt.Sprintf("%d/%d", m.Beats, m.BeatType)
		}
		assert.Equal(t, want, got, text)
	}
}

// Section 7 of the standard: voices; without a brace each is a part.
func TestVoicesAsParts(t *testing.T) {
	s, err := Read([]byte("X:1\nM:2/4\nL:1/4\nV:S name=\"Soprano\"\nV:B clef=bass name=Bass\nK:C\n[V:S] c d|\n[V:B] C, D,|\nV:S\ne2|\nV:B\nE,2|\n"))
	require.NoError(t, err)
	require.Len(t, s.Parts, 2)
	assert.Equal(t, "Soprano", s.Parts[0].Name)
	assert.Equal(t, "Bass", s.Parts[1].Name)
	assert.Equal(t, "C3@0+1 D3@1+1 E3@2+2", scoretest.Heard(s, 1, 1, s.Written()))
	assert.Equal(t, "F", s.Parts[1].Bars[0].Clefs[0].Sign)
}
