package score

import (
	"regexp"
	"slices"
)

// Jumps are the texts of marks of the kind jump: a sign and a coda stand at the head of
// their bar, the others are obeyed at its end.
const (
	Segno    = "segno"
	Coda     = "coda"
	ToCoda   = "to coda"
	Fine     = "fine"
	DaCapo   = "da capo"
	DalSegno = "dal segno"
)

// Jump is the mark of one of the jumps.
func Jump(text string, at Time) Mark { return Mark{Onset: at, Kind: "jump", Text: text} }

// written finds the jumps that words tell: "D.C. al Fine".
var written = []struct {
	words *regexp.Regexp
	jump  string
}{
	{regexp.MustCompile(`(?i)^\s*(d\.?\s?c\b|da\s+capo\b)`), DaCapo},
	{regexp.MustCompile(`(?i)^\s*(d\.?\s?s\b|dal\s+segno\b)`), DalSegno},
	{regexp.MustCompile(`(?i)^\s*fine\s*$`), Fine},
	{regexp.MustCompile(`(?i)^\s*to\s+coda\b`), ToCoda},
}

// JumpInWords returns the jump that words above the staff tell; empty for none.
func JumpInWords(words string) string {
	for _, w := range written {
		if w.words.MatchString(words) {
			return w.jump
		}
	}
	return ""
}

// Jumps reports whether a bar has the mark of a jump.
func (b Bar) Jumps(jump string) bool {
	return slices.ContainsFunc(b.Marks, func(m Mark) bool { return m.Kind == "jump" && m.Text == jump })
}

// Says returns the words in a bar that tell a jump; empty where its sign stands alone.
func (b Bar) Says(jump string) string {
	for _, m := range b.Marks {
		if m.Kind == "words" && JumpInWords(m.Text) == jump {
			return m.Text
		}
	}
	return ""
}

// A course is how a score is played through: its repeats, and the jumps in each bar.
type course struct {
	repeat []Repeat
	jumps  []map[string]bool
}

func (s Score) course() course {
	n := s.Bars()
	c := course{make([]Repeat, n), make([]map[string]bool, n)}
	for _, p := range s.Parts {
		for i, b := range p.Bars {
			r := &c.repeat[i]
			r.Starts = r.Starts || b.Repeat.Starts
			r.Ends = max(r.Ends, b.Repeat.Ends)
			if len(r.Endings) == 0 {
				r.Endings = b.Repeat.Endings
			}
			for _, m := range b.Marks {
				if m.Kind == "jump" {
					if c.jumps[i] == nil {
						c.jumps[i] = map[string]bool{}
					}
					c.jumps[i][m.Text] = true
				}
			}
		}
	}
	return c
}

// Played returns the order in which bars are played: repeats and numbered endings
// unfolded, da capo and dal segno followed. A repeat that closes without opening goes back
// to the start, or to the end of the repeat before it. After a jump back repeats are not
// made again and the last ending is taken (common practice, no source); the piece ends at
// the fine, or goes on at the coda where the sign for it says so.
func (s Score) Played() []int {
	c := s.course()
	rep := c.repeat
	var order []int
	open, pass, passes := 0, 1, 1
	for i := 0; i < len(rep); {
		if rep[i].Starts && i != open {
			open, pass, passes = i, 1, 1
		}
		if len(rep[i].Endings) > 0 && !slices.Contains(rep[i].Endings, pass) {
			i++
			continue
		}
		order = append(order, i+1)
		if rep[i].Ends > 0 {
			passes = max(passes, rep[i].Ends, last(rep, i))
			if pass < passes && laterPass(rep[i], pass) {
				pass++
				i = open
				continue
			}
			if len(rep[i].Endings) == 0 || pass >= passes {
				open, pass, passes = i+1, 1, 1
			}
		}
		switch {
		case c.jumps[i][DaCapo]:
			return append(order, c.again(0)...)
		case c.jumps[i][DalSegno]:
			return append(order, c.again(c.find(Segno, 0))...)
		}
		i++
	}
	return order
}

// again is what is played after a jump back to a bar.
func (c course) again(from int) []int {
	var order []int
	for i := from; i < len(c.repeat); i++ {
		if e := c.repeat[i].Endings; len(e) > 0 && !slices.Contains(e, c.final(i)) {
			continue
		}
		order = append(order, i+1)
		if c.jumps[i][Fine] {
			break
		}
		if c.jumps[i][ToCoda] {
			i = max(c.find(Coda, i+1)-1, i)
		}
	}
	return order
}

// final is the last pass of the endings that bar i stands among.
func (c course) final(i int) int {
	first := i
	for first > 0 && len(c.repeat[first-1].Endings) > 0 && !c.repeat[first].Starts {
		first--
	}
	return last(c.repeat, first)
}

// find returns the first bar from one on with a jump's mark; that itself where none is.
func (c course) find(text string, from int) int {
	for i := from; i < len(c.jumps); i++ {
		if c.jumps[i][text] {
			return i
		}
	}
	return from
}

// leaveForCoda takes the first of several coda signs for the place where the coda is gone to,
// where no other sign says so.
func (s *Score) leaveForCoda() {
	c := s.course()
	var bars []int
	for i, jumps := range c.jumps {
		if jumps[ToCoda] {
			return
		}
		if jumps[Coda] {
			bars = append(bars, i)
		}
	}
	if len(bars) < 2 {
		return
	}
	for _, p := range s.Parts {
		if bars[0] >= len(p.Bars) {
			continue
		}
		marks := p.Bars[bars[0]].Marks
		for i := range marks {
			if marks[i].Kind == "jump" && marks[i].Text == Coda {
				marks[i].Text = ToCoda
			}
		}
	}
}
