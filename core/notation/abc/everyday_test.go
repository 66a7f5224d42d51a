package abc

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score/scoretest"
)

// Signs that stand in tune books are read or told, and the tune goes on. Sections of the
// standard are named; what has none is common practice of other programs.
func TestSignsOfTuneBooks(t *testing.T) {
	for _, c := range []struct {
		name, music, heard string
		told               []string
	}{
		{"a remark between lines, 2.2.2", "CD|\n% second line\nEF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", nil},
		{"a letter of its own, 4.16", "U:n=!tenuto!\nnC D|", "C4@0+1 D4@1+1", nil},
		{"a letter that means nothing, 4.16", "U:T=!nil!\nTC D|", "C4@0+1 D4@1+1", nil},
		{"a letter that nobody explained", "JC D|", "C4@0+1 D4@1+1", []string{"the letter J as a decoration"}},
		{"the same in a chord", "[JCE]2|", "C4@0+2 E4@0+2", []string{"the letter J as a decoration"}},
		{"an overlay, 7.4", "C2&E2|D2|", "C4@0+2 E4@0+2 D4@2+2", nil},
		{"two of them, the second shorter", "CD&E2&G|c2|", "C4@0+1 E4@0+2 G4@0+1 D4@1+1 C5@2+2", nil},
		{"a clef with its line, 4.6", "[K:bass3]CD|", "C4@0+1 D4@1+1", nil},
		{"a clef that is none", "[K:C clef=C]CD|", "C4@0+1 D4@1+1", []string{"clef C"}},
		{"text between the lines, 11.4", "CD|\n%%begintext\nread on\n%%endtext\nEF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", []string{"text and pictures between the lines"}},
		{"the end of a printed line", "CD|!\nEF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", []string{"'!' that names no decoration"}},
		{"the same before notes", "CD! EF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", []string{"'!' that names no decoration"}},
		{"a repeat with a blank in it", "| :CD:|", "C4@0+1 D4@1+1 C4@2+1 D4@3+1", nil},
		{"a dotted bar line, 4.8", "CD.|EF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", nil},
		{"a dashed one", "CD:EF|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1", []string{"dashed bar line"}},
		{"one that is not seen", "CD[]EF[|]GA|", "C4@0+1 D4@1+1 E4@2+1 F4@3+1 G4@4+1 A4@5+1", nil},
		{"a quarter tone", "^/C _/E|", "C4@0+1 E4@1+1", []string{"microtones, played as the nearest half step"}},
		{"one and a half", "^3/2C _3/2E|", "C#4@0+1 Eb4@1+1", []string{"microtones, played as the nearest half step"}},
		{"two thirds", "^2/3C|", "C#4@0+1", []string{"microtones, played as the nearest half step"}},
		{"room on the page, 6.1.2", "y20C yD|", "C4@0+1 D4@1+1", nil},
		{"a slur above, 4.11", "('CD)|", "C4@0+1 D4@1+1", nil},
		{"a broken rhythm over the bar line", "C>|D|", "C4@0+3/2 D4@3/2+1", []string{"broken rhythm over a bar line"}},
		{"an ending with a point, 4.9", "|:CD|1.2 EF:|3 G2|]", "C4@0+1 D4@1+1 E4@2+1 F4@3+1 C4@4+1 D4@5+1 E4@6+1 F4@7+1 C4@8+1 D4@9+1 G4@10+2", nil},
		{"an octave behind a tie", "[C-,]2|[C,]2|", "C3@0+4", nil},
	} {
		t.Run(c.name, func(t *testing.T) {
			s, err := Read([]byte("X:1\nM:none\nL:1/4\nK:C\n" + c.music + "\n"))
			require.NoError(t, err)
			assert.Equal(t, c.heard, scoretest.Heard(s, 0, 1, s.Played()))
			var told []string
			for _, u := range s.Unread {
				told = append(told, u.What)
			}
			assert.Equal(t, c.told, told)
		})
	}
}

// An overlay is a voice of its own, after those that have a line.
func TestAnOverlayIsAVoice(t *testing.T) {
	s, err := Read([]byte("X:1\nM:2/4\nL:1/4\nK:C\nV:1\nc2&E-E|d2&F2|\nw: one two\nV:2\nC2|D2|\n"))
	require.NoError(t, err)
	require.Len(t, s.Parts, 2)
	var got []string
	for _, b := range s.Parts[0].Bars {
		for _, n := range b.Notes {
			got = append(got, n.Pitch.String()+" "+strings.Repeat("*", n.Voice)+n.Lyric)
		}
	}
	assert.Equal(t, []string{"C5 *one", "E4 ***", "E4 ***", "D5 *two", "F4 ***"}, got)
	assert.True(t, s.Parts[0].Bars[0].Notes[1].TieTo)
	assert.True(t, s.Parts[0].Bars[0].Notes[2].TieFrom)
	for _, music := range []string{"(3CD&EF|", "C>&D|", "{C&D}E|", "(&C|D&)|"} {
		_, err := Read([]byte("X:1\nK:C\n" + music + "\n"))
		assert.ErrorContains(t, err, "overlay", music)
	}
}

// What is wrong with a tune of a book is told by the book's lines.
func TestLinesOfABook(t *testing.T) {
	book := "%abc-2.1\nR: reel\n\nX:1\nT:One\nK:C\nC|\n\nX:2\nT:Two\nK:C\n[C|\n"
	list := Split([]byte(book))
	require.Len(t, list, 2)
	_, err := Read(list[1].Data)
	require.ErrorContains(t, err, "line 7")
	assert.Equal(t, 12, list[1].Line(7))
	assert.Equal(t, 9, list[1].Line(4), "its X:")
	assert.Equal(t, 3, list[1].Line(3), "of the head that all share")
	assert.Equal(t, 4, list[0].Line(4))
	assert.Contains(t, string(list[1].Data), "R: reel")
}

func TestMetersThatSayMore(t *testing.T) {
	for text, want := range map[string]string{"2": "2/2", "3": "3/2", "2/4 3/4": "2/4", "C. C=4/4": "4/4", "5/4 (2/4 3/4)": "5/4"} {
		s, err := Read([]byte("X:1\nM:" + text + "\nL:1/8\nK:C\nC4|\n"))
		require.NoError(t, err, text)
		m := s.Parts[0].Bars[0].Meter
		require.NotNil(t, m, text)
		assert.Equal(t, want, fmt.Sprintf("%d/%d", m.Beats, m.BeatType), text)
		assert.Equal(t, "meter "+text, s.Unread[0].What)
	}
}

// Titles of files from before Unicode.
func TestOldLetters(t *testing.T) {
	s, err := Read([]byte("X:1\nT:Jeune fille \xe9t\xe9\nK:C\nC|\n"))
	require.NoError(t, err)
	assert.Equal(t, "Jeune fille \u00e9t\u00e9", s.Title)
	assert.Equal(t, "the file is no UTF-8 and was read as Windows-1252", s.Unread[0].What)
}

func TestTempoInWords(t *testing.T) {
	s, err := Read([]byte("X:1\nL:1/4\nQ:1/4=ca. 80\nK:C\nC|\n"))
	require.NoError(t, err)
	marks := s.Parts[0].Bars[0].Marks
	require.Len(t, marks, 2)
	assert.Equal(t, "ca.", marks[0].Text)
	assert.Equal(t, 80.0, marks[1].QPM)
}
