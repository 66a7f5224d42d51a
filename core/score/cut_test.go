package score

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/pitch"
)

func TestBarsCutOutKeepWhatHoldsThere(t *testing.T) {
	s := bars(Repeat{Starts: true}, Repeat{Ends: 2}, Repeat{}, Repeat{})
	p := &s.Parts[0]
	p.Staves = 2
	g, f := pitch.Key{Fifths: 1, Mode: "major"}, pitch.Key{Fifths: -1, Mode: "major"}
	p.Bars[0].Key, p.Bars[0].Meter = &g, &Meter{3, 4}
	p.Bars[0].Clefs = []Clef{{Staff: 1, Sign: "G", Line: 2}, {Staff: 2, Sign: "F", Line: 4}}
	p.Bars[1].Clefs = []Clef{{Staff: 2, Sign: "G", Line: 2}}
	p.Bars[2].Key = &f
	for _, c := range []struct {
		from, to, bars int
		key            pitch.Key
		below          string // clef of the lower staff
	}{
		{1, 4, 4, g, "F"},
		{1, 1, 1, g, "F"},
		{2, 3, 2, g, "G"},
		{3, 9, 2, f, "G"},
		{0, 2, 2, g, "F"},
	} {
		cut := s.Cut(c.from, c.to)
		first := cut.Parts[0].Bars[0]
		assert.Equal(t, c.bars, cut.Bars())
		assert.Equal(t, c.key, *first.Key, "%d to %d", c.from, c.to)
		assert.Equal(t, Meter{3, 4}, *first.Meter)
		assert.Equal(t, []string{"G", c.below}, []string{first.Clefs[0].Sign, first.Clefs[1].Sign}, "%d to %d", c.from, c.to)
	}
	p.Bars[2].Clefs = []Clef{{Staff: 2, Sign: "C", Line: 3, Onset: Quarters(1)}, {Staff: 1, Sign: "C", Line: 4}}
	p.Bars[1].Clefs = append(p.Bars[1].Clefs, Clef{Staff: 2, Sign: "F", Line: 3, Onset: Quarters(2)})
	at := func(from int) (out []string) {
		for _, c := range s.Cut(from, 3).Parts[0].Bars[0].Clefs {
			out = append(out, c.Sign+" "+c.Onset.String())
		}
		return out
	}
	assert.Equal(t, []string{"C 0", "F 0", "C 1"}, at(3), "a clef before the cut holds at its beginning; one in its first bar stays where it is")
	assert.Equal(t, []string{"G 0", "G 0", "F 2"}, at(2))
	assert.True(t, s.Cut(1, 4).Parts[0].Bars[0].Repeat.Starts, "the whole keeps its repeats")
	assert.False(t, s.Cut(1, 3).Parts[0].Bars[0].Repeat.Starts)
	assert.True(t, s.Parts[0].Bars[0].Repeat.Starts, "the score itself stays")
	assert.Equal(t, 4, s.Cut(3, 2).Bars(), "no bars: the whole")
}
