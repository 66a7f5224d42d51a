package musicxml

import (
	"archive/zip"
	"bytes"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"unicode/utf16"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

func file(t testing.TB) []byte {
	data, err := os.ReadFile("testdata/two-staves.musicxml")
	require.NoError(t, err)
	return data
}

func TestTwoStaves(t *testing.T) {
	s, err := Read(file(t))
	require.NoError(t, err)
	assert.Equal(t, "Two Staves", s.Title)
	assert.Equal(t, "The Ferry House", s.Composer)
	require.Len(t, s.Parts, 1)
	assert.Equal(t, 2, s.Parts[0].Staves)
	assert.Equal(t, "D5@0+1 G4@1+3/2 A4@5/2+1/2 Bb4@3+2 C5@5+1/3 Bb4@16/3+1/3 A4@17/3+1/3 G4@7+2", scoretest.Heard(s, 0, 1, s.Written()))
	assert.Equal(t, "G2@1+2 D3@1+2 F#3@4+3", scoretest.Heard(s, 0, 2, s.Written()))
	assert.Equal(t, []int{1, 2, 3, 2, 3, 4}, s.Played())
	first := s.Parts[0].Bars[0]
	assert.Equal(t, "G minor", first.Key.String())
	assert.Equal(t, score.Meter{Beats: 3, BeatType: 4}, *first.Meter)
	assert.Equal(t, []string{"3"}, first.Notes[0].Fingers)
	assert.Equal(t, 90.0, first.Marks[1].QPM, "a dotted quarter at 60")
	assert.Equal(t, []score.Unread{{What: "time of grace notes", Bar: 4, Count: 1}}, s.Unread)
}

// timewise is a score of two parts whose bars hold parts.
func timewise(bars ...string) string {
	text := `<score-timewise><part-list><score-part id="A"><part-name>Oboe</part-name></score-part><score-part id="B"/></part-list>`
	for _, b := range bars {
		text += "<measure>" + b + "</measure>"
	}
	return text + "</score-timewise>"
}

// MusicXML 4.0, "The <score-timewise> element".
func TestTimewise(t *testing.T) {
	head := `<attributes><divisions>2</divisions><time><beats>2</beats><beat-type>4</beat-type></time></attributes>`
	text := timewise(
		`<part id="A">`+head+quarter("C", "")+quarter("D", "")+`</part>`,
		`<part id="B">`+head+quarter("E", `<tie type="start"/>`)+quarter("E", `<tie type="stop"/>`)+`</part>`,
		`<part id="A">`+quarter("F", "")+`</part><part id="B">`+quarter("G", "")+`</part>`)
	s, err := Read([]byte(text))
	require.NoError(t, err)
	require.Len(t, s.Parts, 2)
	assert.Equal(t, "Oboe", s.Parts[0].Name)
	assert.Equal(t, "C4@0+1 D4@1+1 F4@4+1", scoretest.Heard(s, 0, 1, s.Written()), "silent in the second bar")
	assert.Equal(t, "E4@2+2 G4@4+1", scoretest.Heard(s, 1, 1, s.Written()), "silent in the first")
	drawn, err := WithIDs([]byte(text))
	require.NoError(t, err)
	assert.Contains(t, string(drawn), "<score-partwise")
	again, err := Read(drawn)
	require.NoError(t, err)
	assert.Equal(t, s.Parts[1].Bars[1].Notes, again.Parts[1].Bars[1].Notes)
}

// What Write writes, Read reads back: all that a score holds.
func TestRoundTrip(t *testing.T) {
	s, err := Read(file(t))
	require.NoError(t, err)
	s.Unread = nil
	again, err := Read(Write(s))
	require.NoError(t, err)
	again.Unread = nil
	assert.Equal(t, s, again)
}

// Compressed files: MusicXML 4.0, "Compressed .MXL files".
func TestCompressed(t *testing.T) {
	s, err := Read(pack(t, map[string]string{"META-INF/container.xml": container, "score.xml": string(file(t))}))
	require.NoError(t, err)
	assert.Equal(t, 4, s.Bars())
	for _, c := range []struct {
		name  string
		files map[string]string
		says  string
	}{
		{"no container", map[string]string{"score.xml": "<x/>"}, "no META-INF/container.xml"},
		{"container names nothing", map[string]string{"META-INF/container.xml": "<container/>"}, "does not name a score"},
		{"score is missing", map[string]string{"META-INF/container.xml": container}, "no score.xml"},
		{"unpacks without end", map[string]string{"META-INF/container.xml": container, "score.xml": strings.Repeat(" ", maxUnpacked+1)}, "more than 64 MB"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := Read(pack(t, c.files))
			assert.ErrorContains(t, err, c.says)
		})
	}
}

const container = `<container><rootfiles><rootfile full-path="score.xml"/></rootfiles></container>`

func pack(t *testing.T, files map[string]string) []byte {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for name, text := range files {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

func TestUTF16(t *testing.T) {
	text := strings.Replace(string(file(t)), "UTF-8", "UTF-16", 1)
	out := []byte{0xFF, 0xFE}
	for _, u := range utf16.Encode([]rune(text)) {
		out = append(out, byte(u), byte(u>>8))
	}
	s, err := Read(out)
	require.NoError(t, err)
	assert.Equal(t, "Two Staves", s.Title)
}

// Older programs declare Latin-1 or Windows-1252.
func TestOldCodes(t *testing.T) {
	for _, code := range []string{"ISO-8859-1", "windows-1252", "latin1"} {
		text := strings.Replace(strings.Replace(string(file(t)), "UTF-8", code, 1), "Two Staves", "Deux port\xe9es", 1)
		s, err := Read([]byte(text))
		require.NoError(t, err, code)
		assert.Equal(t, "Deux port\u00e9es", s.Title, code)
		shown, err := WithIDs([]byte(text))
		require.NoError(t, err)
		assert.Contains(t, string(shown), "Deux port\u00e9es")
		assert.Contains(t, string(shown), `encoding="UTF-8"`)
	}
}

func TestWhereItWentWrong(t *testing.T) {
	good := string(file(t))
	change := func(old, new string) string {
		require.Contains(t, good, old)
		return strings.Replace(good, old, new, 1)
	}
	for _, c := range []struct {
		name, text string
		line, bar  int
		says       string
	}{
		{"entities of its own", "<!DOCTYPE a [<!ENTITY x \"boom\">]>\n<score-partwise/>", 1, 0, "entities"},
		{"not a score", "<html></html>", 1, 0, "not a MusicXML score"},
		{"timewise, empty", "<score-timewise/>", 1, 0, "no bars"},
		{"timewise, a part twice", timewise(`<part id="A"/><part id="A"/>`), 1, 1, "stands twice in a bar"},
		{"timewise, a part of no list", timewise(`<part id="C"/>`), 1, 0, "not in the part list"},
		{"nothing", "", 1, 0, "no score"},
		{"cut off", good[:len(good)/2], 32, 2, "ends before"},
		{"mismatched tag", change("</pitch><duration>9", "</pitsch><duration>9"), 25, 2, "well-formed"},
		{"strange step", change("<step>G</step><octave>4", "<step>H</step><octave>4"), 26, 2, "pitch letter"},
		{"no duration", change("<duration>9</duration>", ""), 26, 2, "not a duration"},
		{"too fine", change("<divisions>6", "<divisions>17"), 20, 1, "finer"},
		{"backed up too far", change("<backup><duration>18", "<backup><duration>180"), 31, 2, "before the bar begins"},
		{"chord on nothing", change("<note><pitch><step>G</step><octave>2", "<note><chord/><pitch><step>G</step><octave>2"), 32, 2, "chord"},
		{"quarter tone", change("<alter>1</alter>", "<alter>0.5</alter>"), 49, 3, "quarter-tone"},
		{"part not listed", change(`<part id="P1">`, `<part id="P9">`), 7, 0, "part list"},
		{"a code that is not read", change("UTF-8", "koi8-r"), 1, 0, "UTF-8"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := Read([]byte(c.text))
			var at *score.SyntaxError
			require.True(t, errors.As(err, &at), "%v", err)
			assert.Contains(t, at.Msg, c.says)
			assert.Equal(t, [2]int{c.line, c.bar}, [2]int{at.Line, at.Bar}, at.Msg)
			assert.NotContains(t, err.Error(), "\n")
		})
	}
}

func FuzzRead(f *testing.F) {
	f.Add(file(f))
	files, _ := filepath.Glob("../../../demo/scores/*.musicxml")
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		if len(data) > 1<<17 {
			return
		}
		s, err := Read(data)
		if scoretest.Refused(t, err) {
			return
		}
		if len(s.Parts)*s.Bars() < 1000 {
			s.Played()
			if _, err := Read(Write(s)); err != nil {
				t.Fatalf("does not read what it wrote: %v", err)
			}
		}
	})
}
