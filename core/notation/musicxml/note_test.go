package musicxml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

// bars reads bars of four quarters, or whatever their attributes say.
func bars(t *testing.T, bars ...string) score.Score {
	var text strings.Builder
	text.WriteString(`<score-partwise><part-list><score-part id="P"/></part-list><part id="P">`)
	for i, b := range bars {
		if i == 0 {
			b = `<attributes><divisions>2</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>` + b
		}
		fmt.Fprintf(&text, `<measure number="%d">%s</measure>`, i+1, b)
	}
	text.WriteString(`</part></score-partwise>`)
	s, err := Read([]byte(text.String()))
	require.NoError(t, err, text.String())
	return s
}

// quarter is one note, with more inside it.
func quarter(step, more string) string {
	return `<note>` + "<pitch><step>" + step + "</step><octave>4</octave></pitch><duration>2</duration><voice>1</voice>" + more + `</note>`
}

// MusicXML 4.0, <lyric> and <syllabic>.
func TestSyllables(t *testing.T) {
	lyric := func(inside string) string { return quarter("C", "<lyric>"+inside+"</lyric>") }
	for _, c := range []struct{ name, lyric, want string }{
		{"a whole word", "<syllabic>single</syllabic><text>pier</text>", "pier"},
		{"the first of a word", "<syllabic>begin</syllabic><text>har</text>", "har-"},
		{"inside a word", "<syllabic>middle</syllabic><text>na</text>", "na-"},
		{"the last of a word", "<syllabic>end</syllabic><text>bour</text>", "bour"},
		{"a hyphen written out", "<text>har-</text>", "har-"},
		{"both", "<syllabic>begin</syllabic><text>har-</text>", "har-"},
		{"two words on one note", "<syllabic>single</syllabic><text>the</text><elision>~</elision><syllabic>begin</syllabic><text>o</text>", "theo-"},
		{"only an extender", "<extend/>", ""},
		{"nothing but space", "<syllabic>begin</syllabic><text> </text>", ""},
	} {
		s := bars(t, lyric(c.lyric))
		assert.Equal(t, c.want, s.Parts[0].Bars[0].Notes[0].Lyric, c.name)
	}

	s := bars(t, quarter("C", "<lyric><syllabic>begin</syllabic><text>bar</text></lyric>")+
		quarter("D", "<lyric><syllabic>middle</syllabic><text>na</text></lyric>")+
		quarter("E", "")+
		quarter("F", "<lyric><syllabic>end</syllabic><text>cle</text></lyric>"),
		quarter("G", "<lyric><text>bay</text></lyric>"))
	out := string(Write(s))
	for _, want := range []string{"<lyric><syllabic>begin</syllabic><text>bar</text></lyric>", "<lyric><syllabic>middle</syllabic><text>na</text></lyric>",
		"<lyric><syllabic>end</syllabic><text>cle</text></lyric>", "<lyric><text>bay</text></lyric>"} {
		assert.Contains(t, out, want)
	}
	again, err := Read([]byte(out))
	require.NoError(t, err)
	assert.Equal(t, lyrics(s), lyrics(again))
}

func lyrics(s score.Score) (out []string) {
	for _, b := range s.Parts[0].Bars {
		for _, n := range b.Notes {
			out = append(out, n.Lyric)
		}
	}
	return out
}

// The tempo is that of the first mark, or of a <sound> where no mark tells one.
func TestTempos(t *testing.T) {
	mark := `<direction-type><metronome><beat-unit>half</beat-unit><per-minute>50</per-minute></metronome></direction-type>`
	about := `<direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>ca. 70</per-minute></metronome></direction-type>`
	for _, c := range []struct {
		name, bar string
		want      []float64
	}{
		{"a mark, and the same for players", `<direction>` + mark + `<sound tempo="100"/></direction>`, []float64{100}},
		{"only for players, in words", `<direction><direction-type><words>Gently</words></direction-type><sound tempo="72"/></direction>`, []float64{72}},
		{"only for players, by itself", `<sound tempo="88.5"/>`, []float64{88.5}},
		{"a mark that says about", `<direction>` + about + `<sound tempo="70"/></direction>`, []float64{70}},
		{"slowing down that only a player is told", `<sound tempo="88"/>` + quarter("C", "") + `<sound tempo="80"/>` + quarter("D", "") + `<sound tempo="72"/>`, []float64{88}},
		{"nonsense", `<sound tempo="fast"/><sound tempo="-3"/><sound tempo="99999"/>`, nil},
	} {
		s := bars(t, c.bar+quarter("C", ""))
		var got []float64
		for _, m := range s.Parts[0].Bars[0].Marks {
			if m.Kind == "tempo" {
				got = append(got, m.QPM)
			}
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

// A tie is heard, a slur of the same shape is not; some write only one of a tie's
// two elements.
func TestTies(t *testing.T) {
	for _, c := range []struct{ name, first, second, heard string }{
		{"both elements", `<tie type="start"/><notations><tied type="start"/></notations>`, `<tie type="stop"/><notations><tied type="stop"/></notations>`, "C4@0+2"},
		{"what is heard", `<tie type="start"/>`, `<tie type="stop"/>`, "C4@0+2"},
		{"what is drawn", `<notations><tied type="start"/></notations>`, `<notations><tied type="stop"/></notations>`, "C4@0+2"},
		{"a slur over one note twice", `<notations><slur type="start"/></notations>`, `<notations><slur type="stop"/></notations>`, "C4@0+1 C4@1+1"},
		{"left to ring", `<notations><tied type="let-ring"/></notations>`, "", "C4@0+1 C4@1+1"},
	} {
		s := bars(t, quarter("C", c.first)+quarter("C", c.second))
		assert.Equal(t, c.heard, scoretest.Heard(s, 0, 1, s.Written()), c.name)
		assert.Empty(t, s.Unread, c.name)
	}
}

// MusicXML 4.0, "The <harmony> element", "The <offset> element".
func TestChordSymbolsAndOffsets(t *testing.T) {
	offset := func(n int) string { return fmt.Sprintf("<offset>%d</offset>", n) }
	chord := func(root, kind, rest string) string {
		return `<harmony><root><root-step>` + root + `</root-step></root><kind text="x">` + kind + `</kind>` + rest + `</harmony>`
	}
	s := bars(t,
		chord("G", "major", "")+quarter("C", "")+chord("D", "dominant", `<bass><bass-step>F</bass-step><bass-alter>1</bass-alter></bass>`+offset(1))+quarter("D", "")+
			`<backup><duration>4</duration></backup>`+chord("E", "minor", offset(-9))+chord("A", "power", offset(99))+`<direction><direction-type><words>now</words></direction-type>`+offset(1)+`</direction>`)
	var got []string
	for _, m := range s.Parts[0].Bars[0].Marks {
		got = append(got, fmt.Sprintf("%s %s at %s", m.Kind, m.Text, m.Onset))
	}
	assert.Equal(t, []string{"chord G at 0", "chord Em at 0", "words now at 1/2", "chord D7/F# at 3/2", "chord A5 at 2"}, got, "in order of time, none outside the bar")
	assert.Empty(t, s.Unread)
	again, err := Read(Write(s))
	require.NoError(t, err)
	assert.Equal(t, s.Parts, again.Parts)
	s.Parts[0].Bars[0].Marks[0].Text = "G, or so"
	assert.Contains(t, string(Write(s)), "<words>G, or so</words>", "what is no chord symbol is written as words")
}

// What is not kept is told, and what stands beside it is read as if it were not
// there.
func TestWhatIsNotKeptIsTold(t *testing.T) {
	around := func(inside string) string { return quarter("C", "") + inside + quarter("D", "") }
	plain := "C4@0+1 D4@1+1"
	for _, c := range []struct{ name, bar, says, heard string }{
		{"a small note of another player", around(`<note><cue/><pitch><step>G</step><octave>5</octave></pitch><duration>2</duration></note>`), "cue note", "C4@0+1 D4@2+1"},
		{"a tuplet rounded by a program", quarter("C", "") + `<backup><duration>2.05</duration></backup><forward><duration>2</duration></forward>` + quarter("D", ""), "lengths that do not fill their tuplet", plain},
		{"a drum", around(`<note><unpitched><display-step>E</display-step><display-octave>4</display-octave></unpitched><duration>2</duration></note>`), "unpitched note", "C4@0+1 D4@2+1"},
		{"a rest of no length", around(`<note><grace/><rest/></note>`), "rests among grace notes", plain},
		{"a second verse", quarter("C", `<lyric number="1"><text>one</text></lyric><lyric number="2"><text>two</text></lyric>`) + quarter("D", ""), "second verse", plain},
		{"an instrument that sounds elsewhere", `<attributes><transpose><chromatic>-2</chromatic></transpose></attributes>` + around(""), "transposing instrument (notes kept as written)", plain},
		{"two meters at once", `<attributes><time><beats>3</beats><beat-type>4</beat-type><beats>2</beats><beat-type>4</beat-type></time></attributes>` + around(""), "further meters at once", plain},
		{"no meter", `<attributes><time><senza-misura/></time></attributes>` + around(""), "senza-misura", plain},
		{"a key of single signs", `<attributes><key><key-step>F</key-step><key-alter>1</key-alter></key></attributes>` + around(""), "key without fifths", plain},
		{"a chord by its degree of the key", around(`<harmony><numeral><numeral-root>5</numeral-root></numeral><kind>major</kind></harmony>`), "chord symbol", plain},
		{"a chord for which there is no sign", around(`<harmony><root><root-step>G</root-step></root><kind>Neapolitan</kind></harmony>`), "chord symbol", plain},
		{"a note added to a chord", around(`<harmony><root><root-step>G</root-step></root><kind>dominant</kind><degree><degree-value>9</degree-value></degree></harmony>`), "chord symbol: added or altered notes", plain},
		{"a picture of a chord", around(`<harmony><root><root-step>G</root-step></root><kind>major</kind><frame><frame-strings>6</frame-strings></frame></harmony>`), "chord diagram", plain},
		{"a tempo in a way that is not known", around(`<direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>fast</per-minute></metronome></direction-type></direction>`), "metronome mark", plain},
		{"a fret beyond any neck", quarter("C", `<notations><technical><string>2</string><fret>99</fret></technical></notations>`) + quarter("D", ""), "fret", plain},
		{"a sign of a bow we do not know", quarter("C", `<notations><technical><thumb-position/></technical></notations>`) + quarter("D", ""), "thumb-position", plain},
	} {
		t.Run(c.name, func(t *testing.T) {
			s := bars(t, c.bar)
			require.Len(t, s.Unread, 1, "%v", s.Unread)
			assert.Equal(t, score.Unread{What: c.says, Bar: 1, Count: 1}, s.Unread[0])
			assert.Equal(t, c.heard, scoretest.Heard(s, 0, 1, s.Written()))
		})
	}
	quiet := bars(t, `<print new-system="yes"/>`+quarter("C", `<stem>up</stem><beam number="1">begin</beam><notehead>normal</notehead>`)+quarter("D", ""))
	assert.Empty(t, quiet.Unread, "layout is passed over without a word")
}
