package score

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// piece makes a score of bars from words, one a bar: |: and :| for repeats, 1 and 2 for
// endings, and the signs of jumps.
func piece(bars ...string) Score {
	p := Part{Staves: 1}
	for _, says := range bars {
		b := Bar{Length: Quarters(4)}
		for word := range strings.FieldsSeq(says) {
			switch word {
			case "|:":
				b.Repeat.Starts = true
			case ":|":
				b.Repeat.Ends = 2
			case "1":
				b.Repeat.Endings = []int{1}
			case "2":
				b.Repeat.Endings = []int{2}
			case "-":
			default:
				b.Marks = append(b.Marks, Jump(map[string]string{"DC": DaCapo, "DS": DalSegno, "fine": Fine, "segno": Segno, "coda": Coda, "to": ToCoda}[word], Time{}))
			}
		}
		p.Bars = append(p.Bars, b)
	}
	s := Score{Parts: []Part{p}}
	s.Finish()
	return s
}

// Forms as they stand in method books. Common practice, no source: repeats are not made
// again after a jump back, and the last ending is taken.
func TestJumpsArePlayed(t *testing.T) {
	for _, c := range []struct {
		form string
		bars []string
		want string
	}{
		{"three parts, the first again to the fine", []string{"-", "fine", "-", "DC"}, "1 2 3 4 1 2"},
		{"without a fine to the end", []string{"-", "-", "DC"}, "1 2 3 1 2 3"},
		{"the first part with a repeat, which is not made again", []string{"|:", ":| fine", "|:", ":| DC"}, "1 2 1 2 3 4 3 4 1 2"},
		{"with endings, the last of which is taken again", []string{"|:", "1 :|", "2 fine", "-", "DC"}, "1 2 1 3 4 5 1 3"},
		{"from the sign", []string{"-", "segno", "fine", "-", "DS"}, "1 2 3 4 5 2 3"},
		{"no sign: from the beginning", []string{"-", "fine", "DS"}, "1 2 3 1 2"},
		{"to the coda", []string{"-", "to", "-", "DC", "coda", "-"}, "1 2 3 4 1 2 5 6"},
		{"from the sign to the coda", []string{"-", "segno", "to", "DS", "coda"}, "1 2 3 4 2 3 5"},
		{"two coda signs: the first leaves for the second", []string{"-", "coda", "-", "DC", "coda", "-"}, "1 2 3 4 1 2 5 6"},
		{"a coda sign that is nowhere is passed", []string{"-", "to", "DC"}, "1 2 3 1 2 3"},
		{"a fine before any jump is passed", []string{"fine", "-", "DC"}, "1 2 3 1"},
		{"a jump in a repeat is made after its last pass", []string{"|: fine", ":| DC"}, "1 2 1 2 1"},
		{"no jump at all", []string{"|:", "1 :|", "2"}, "1 2 1 3"},
		{"two passages with endings, each taken by its last", []string{"|:", "1 :|", "2", "|:", "1 :|", "2 DC"}, "1 2 1 3 4 5 4 6 1 3 4 6"},
		{"a passage that begins in the bar of an ending", []string{"|:", "1 :|", "2", "|: 1 :|", "2", "DC"}, "1 2 1 3 4 5 6 1 3 5 6"},
		{"endings from the first bar on", []string{"1 :|", "2", "DC"}, "1 2 3 2 3"},
		{"the coda's sign in the bar of the jump before is none", []string{"coda", "to", "-", "DC"}, "1 2 3 4 1 2 3 4"},
		{"a coda that follows at once", []string{"-", "to DC", "coda"}, "1 2 1 2 3"},
		{"an ending that closes for a pass that is not the last goes on", []string{"|:", "1", "2 :|", "-"}, "1 2 4"},
	} {
		assert.Equal(t, c.want, strings.Trim(fmt.Sprint(piece(c.bars...).Played()), "[]"), c.form)
	}
}

// The first of two coda signs is left from in every part that has it; a part that ends before it does not matter.
func TestCodasInSeveralParts(t *testing.T) {
	s := piece("-", "coda", "DC", "-")
	s.Parts = append(s.Parts, Part{Bars: make([]Bar, 1)}, piece("-", "coda", "DC", "coda").Parts[0])
	s.Parts[2].Bars[1].Marks[0].Text = Coda // as it is read
	s.Finish()
	assert.True(t, s.Parts[0].Bars[1].Jumps(ToCoda))
	assert.True(t, s.Parts[2].Bars[1].Jumps(ToCoda))
	assert.True(t, s.Parts[2].Bars[3].Jumps(Coda))
	assert.False(t, s.Parts[0].Bars[0].Jumps(Coda))
	alone := piece("-", "coda", "DC")
	assert.True(t, alone.Parts[0].Bars[1].Jumps(Coda), "a single sign stays one")
}

func TestWordsThatTellAJump(t *testing.T) {
	b := Bar{Marks: []Mark{Jump(Fine, Time{}), {Kind: "words", Text: "gently"}, {Kind: "chord", Text: "Fine"}, {Kind: "words", Text: "D.C. al Fine"}}}
	assert.Equal(t, "D.C. al Fine", b.Says(DaCapo))
	assert.Empty(t, b.Says(Fine), "its sign stands alone")
	assert.True(t, b.Jumps(Fine))
	assert.False(t, b.Jumps(DaCapo))
	assert.False(t, b.Jumps("gently"))
}

func TestJumpsInWords(t *testing.T) {
	for words, want := range map[string]string{
		"D.C. al Fine": DaCapo, "D. C.": DaCapo, "DC al fine": DaCapo, "Da Capo al Coda": DaCapo, "D.S. al Coda": DalSegno, "Dal Segno": DalSegno,
		"Fine": Fine, " fine ": Fine, "To Coda": ToCoda, "": "", "fine and clear": "", "Dear": "", "D. Cello": "", "Coda": "",
	} {
		assert.Equal(t, want, JumpInWords(words), words)
	}
}
