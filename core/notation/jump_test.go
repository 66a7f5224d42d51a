package notation

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
)

// signs lists the jumps and the words over them, by bar.
func signs(s score.Score) string {
	var out []string
	for i, b := range s.Parts[0].Bars {
		for _, m := range b.Marks {
			if m.Kind == "jump" || m.Kind == "words" {
				out = append(out, fmt.Sprintf("%d %s", i+1, m.Text))
			}
		}
	}
	return strings.Join(out, ", ")
}

// D.C. al Fine and its like are played, and go through every format: in MIDI they are played
// out. Section 4.14 of the ABC standard; MusicXML 4.0, the <sound> element.
func TestJumpsGoThroughEveryFormat(t *testing.T) {
	for _, c := range []struct{ tune, signs, played string }{
		{"C2|D2!fine!|E2|F2!D.C.alfine!|]", "2 Fine, 2 fine, 4 D.C. al Fine, 4 da capo", "[1 2 3 4 1 2]"},
		{"C2|SD2|!fine!E2|F2|!D.S.!", "2 segno, 3 Fine, 3 fine, 4 D.S., 4 dal segno", "[1 2 3 4 2 3]"},
		{"C2|!dacoda!D2|E2!D.C.alcoda!|!coda!F2|", "2 To Coda, 2 to coda, 3 D.C. al Coda, 3 da capo, 4 coda", "[1 2 3 1 2 4]"},
		{"C2|OD2|E2!D.C.!|OF2|", "2 to coda, 3 D.C., 3 da capo, 4 coda", "[1 2 3 1 2 4]"},
	} {
		s, err := Read("a.abc", []byte("X:1\nM:2/4\nL:1/4\nK:C\n"+c.tune+"\n"))
		require.NoError(t, err)
		assert.Empty(t, s.Unread, c.tune)
		assert.Equal(t, c.signs, signs(s), c.tune)
		assert.Equal(t, c.played, fmt.Sprint(s.Played()), c.tune)
		for _, f := range []Format{ABC, MusicXML, Compressed} {
			data, err := Write(f, s)
			require.NoError(t, err)
			again, err := Read("a"+f.Ending(), data)
			require.NoError(t, err)
			assert.Equal(t, c.played, fmt.Sprint(again.Played()), "%s as %s", c.tune, f)
			assert.Equal(t, s.Parts[0].Bars[3].Double, again.Parts[0].Bars[3].Double)
			assert.Empty(t, again.Unread)
		}
		data, err := Write(MIDI, s)
		require.NoError(t, err)
		heard, err := Read("a.mid", data)
		require.NoError(t, err)
		assert.Len(t, heard.Parts[0].Bars, len(s.Played()))
		assert.Contains(t, fmt.Sprint(Losses(MIDI, s)), "da capo, dal segno (played out)")
	}
}

// A jump that has only its sign is written by the plainest name, the same each time.
func TestAJumpWithoutWords(t *testing.T) {
	s, err := Read("a.abc", []byte("X:1\nM:2/4\nL:1/4\nK:C\nC2|D2|\n"))
	require.NoError(t, err)
	b := &s.Parts[0].Bars[1]
	for _, jump := range []string{score.DaCapo, score.DalSegno, score.ToCoda} {
		b.Marks = append(b.Marks, score.Jump(jump, b.Length))
	}
	for range 20 {
		data, err := Write(ABC, s)
		require.NoError(t, err)
		assert.Contains(t, string(data), "!D.C.!!D.S.!!dacoda!")
	}
}

// What other programs write of jumps: by a <sound>, by a sign, in words alone.
func TestJumpsInMusicXML(t *testing.T) {
	bar := func(n int, inside string) string {
		return fmt.Sprintf(`<measure number="%d"><attributes><divisions>1</divisions></attributes>%s<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration></note></measure>`, n, inside)
	}
	words := func(says, sound string) string {
		return `<direction><direction-type><words>` + says + `</words></direction-type>` + sound + `</direction>`
	}
	sign := func(name, sound string) string {
		return `<direction><direction-type><` + name + `/></direction-type>` + sound + `</direction>`
	}
	for _, c := range []struct {
		name   string
		bars   [4]string
		played string
	}{
		{"words and sound", [4]string{"", words("Fine", `<sound fine="yes"/>`), "", words("D.C. al Fine", `<sound dacapo="yes"/>`)}, "[1 2 3 4 1 2]"},
		{"words alone", [4]string{"", words("FINE", ""), "", words("D.C. al Fine", "")}, "[1 2 3 4 1 2]"},
		{"sound alone", [4]string{"", `<sound fine="yes"/>`, "", `<sound dacapo="yes"/>`}, "[1 2 3 4 1 2]"},
		{"from the sign", [4]string{"", sign("segno", `<sound segno="s"/>`), words("Fine", ""), words("D.S.", `<sound dalsegno="s"/>`)}, "[1 2 3 4 2 3]"},
		{"to a coda, each with a sign", [4]string{"", sign("coda", `<sound tocoda="c"/>`), words("D.C. al Coda", ""), sign("coda", `<sound coda="c"/>`)}, "[1 2 3 1 2 4]"},
		{"by signs alone", [4]string{"", sign("coda", ""), words("D.C.", ""), sign("coda", "")}, "[1 2 3 1 2 4]"},
		{"that says no", [4]string{"", "", "", `<sound dacapo="no"/>`}, "[1 2 3 4]"},
	} {
		text := `<score-partwise><part-list><score-part id="P1"><part-name>P</part-name></score-part></part-list><part id="P1">`
		for i, b := range c.bars {
			text += bar(i+1, b)
		}
		s, err := Read("a.xml", []byte(text+`</part></score-partwise>`))
		require.NoError(t, err)
		assert.Equal(t, c.played, fmt.Sprint(s.Played()), c.name)
		assert.Empty(t, s.Unread, c.name)
	}
}
