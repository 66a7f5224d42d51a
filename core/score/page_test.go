package score

import (
	"errors"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
)

// line makes a bar of quarter notes from names; a bow in front is a tie from the note before,
// and a figure behind a colon is the staff.
func line(key *pitch.Key, names ...string) Bar {
	b := Bar{Key: key}
	for _, name := range names {
		name, tied := strings.CutPrefix(name, "~")
		name, below := strings.CutSuffix(name, ":2")
		n := note(name, b.Length, Quarters(1), tied, false)
		if below {
			n.Staff = 2
		}
		b.Notes, b.Length = append(b.Notes, n), b.Length.Add(Quarters(1))
	}
	return b
}

// Where a sharp, flat or natural stands. Common practice, no source: a sign holds to the bar
// line, on its staff and in its octave; a tie carries it over the line for that note alone; one
// that could be thought to hold elsewhere is cancelled.
func TestWhereSignsStand(t *testing.T) {
	c, g, f := pitch.Key{}, pitch.Key{Fifths: 1, Mode: "major"}, pitch.Key{Fifths: -1, Mode: "major"}
	for _, row := range []struct {
		says string
		bars []Bar
		want string // ids with their alterations
	}{
		{"a sharp that the key has not", []Bar{line(&c, "F#4")}, "p1b1n1+1"},
		{"holds in its bar", []Bar{line(&c, "F#4", "F#4")}, "p1b1n1+1"},
		{"and not in the next", []Bar{line(&c, "F#4"), line(nil, "F#4")}, "p1b1n1+1 p1b2n1+1"},
		{"is taken back by a natural", []Bar{line(&c, "F#4", "F4", "F4")}, "p1b1n1+1 p1b1n2+0"},
		{"what the key has needs none", []Bar{line(&g, "F#4")}, ""},
		{"a natural against the key", []Bar{line(&g, "F4")}, "p1b1n1+0"},
		{"a flat", []Bar{line(&f, "Bb4", "E4", "Eb4")}, "p1b1n3-1"},
		{"the key holds until another", []Bar{line(&g, "F#4"), line(nil, "F#4"), line(&c, "F#4")}, "p1b3n1+1"},
		{"in another octave it is written again", []Bar{line(&c, "F#4", "F#5")}, "p1b1n1+1 p1b1n2+1"},
		{"and a plain note there is told", []Bar{line(&c, "F#4", "F5")}, "p1b1n1+1 p1b1n2+0"},
		{"another letter is not meant", []Bar{line(&c, "F#4", "G4")}, "p1b1n1+1"},
		{"nor the other staff", []Bar{line(&c, "F#4", "F4:2")}, "p1b1n1+1"},
		{"tied over the line it needs none", []Bar{line(&c, "F#4"), line(nil, "~F#4")}, "p1b1n1+1"},
		{"a new one after it does", []Bar{line(&c, "F#4"), line(nil, "~F#4", "F#4")}, "p1b1n1+1 p1b2n2+1"},
		{"and a plain one after it is told", []Bar{line(&c, "F#4"), line(nil, "~F#4", "F4")}, "p1b1n1+1 p1b2n2+0"},
	} {
		s := Score{Parts: []Part{{Bars: row.bars}}}
		s.Finish()
		signs := s.Parts[0].Accidentals()
		var got []string
		for _, id := range slices.Sorted(maps.Keys(signs)) {
			got = append(got, id+map[int]string{-1: "-1", 0: "+0", 1: "+1"}[signs[id]])
		}
		assert.Equal(t, row.want, strings.Join(got, " "), row.says)
	}
	rest := Score{Parts: []Part{{Bars: []Bar{{Length: Quarters(1), Notes: []Note{{Rest: true, Duration: Quarters(1), Staff: 1}}}}}}}
	rest.Finish()
	assert.Empty(t, rest.Parts[0].Accidentals(), "a rest has none")
	assert.Empty(t, rest.Pitches())
}

// How eighths are beamed: within a quarter, or three eighths where the meter counts in threes; a
// pickup is the end of a bar. Common practice, no source.
func TestBeamGroups(t *testing.T) {
	for _, c := range []struct {
		says  string
		bar   Bar
		meter Meter
		onset Time
		want  int
	}{
		{"3/4, the last eighth", Bar{Length: Quarters(3)}, Meter{3, 4}, Frac(5, 2), 2},
		{"6/8, the third eighth", Bar{Length: Quarters(3)}, Meter{6, 8}, Quarters(1), 0},
		{"6/8, the fourth eighth", Bar{Length: Quarters(3)}, Meter{6, 8}, Frac(3, 2), 1},
		{"9/8, the seventh eighth", Bar{Length: Frac(9, 2)}, Meter{9, 8}, Quarters(3), 2},
		{"5/8 counts in quarters", Bar{Length: Frac(5, 2)}, Meter{5, 8}, Quarters(1), 1},
		{"a pickup of an eighth in 6/8 is the sixth", Bar{Length: Frac(1, 2)}, Meter{6, 8}, Time{}, 1},
		{"a pickup of two eighths in 4/4 stands on four", Bar{Length: Quarters(1)}, Meter{4, 4}, Frac(1, 2), 3},
		{"a short bar later on begins with its first beat", Bar{Start: Quarters(4), Length: Quarters(1)}, Meter{4, 4}, Frac(1, 2), 0},
		{"no meter", Bar{Length: Quarters(1)}, Meter{}, Frac(3, 2), 1},
	} {
		assert.Equal(t, c.want, c.bar.Beamed(c.meter, c.onset), c.says)
	}
	assert.Equal(t, Frac(9, 2), Meter{9, 8}.Length())
	assert.Equal(t, Quarters(4), Meter{2, 2}.Length())
}

func TestMetersInText(t *testing.T) {
	for _, s := range []string{"3/4", "6/8", "1/1", "64/64"} {
		m, err := ParseMeter(s)
		require.NoError(t, err)
		assert.Equal(t, s, m.String())
	}
	for _, s := range []string{"", "4", "C", "0/4", "65/4", "3/0", "3/3", "3/128", "-1/4", "3/4/2"} {
		_, err := ParseMeter(s)
		assert.ErrorContains(t, err, "is not a meter", s)
	}
}

func TestWhatAPickupIs(t *testing.T) {
	for _, c := range []struct {
		lengths []int
		want    bool
	}{{[]int{1, 4}, true}, {[]int{4, 4}, false}, {[]int{4, 1}, false}, {[]int{1}, false}} {
		p := Part{}
		for _, n := range c.lengths {
			p.Bars = append(p.Bars, Bar{Length: Quarters(n)})
		}
		assert.Equal(t, c.want, p.Pickup(), "%v", c.lengths)
	}
}

func TestWhereAFileIsWrong(t *testing.T) {
	for want, e := range map[string]*SyntaxError{
		"a stop":                           {Msg: "a stop"},
		"line 1: a stop":                   {Line: 1, Msg: "a stop"},
		"line 2, column 1, bar 1: a stop":  {Line: 2, Column: 1, Bar: 1, Msg: "a stop"},
		"line 12, column 3, bar 7: a stop": {Line: 12, Column: 3, Bar: 7, Msg: "a stop"},
	} {
		assert.Equal(t, want, errors.Join(e).Error())
	}
}

func TestLengthsThatSignsShow(t *testing.T) {
	eighth := Note{Duration: Frac(1, 3), Tuplet: &Tuplet{3, 2}}
	shown, err := eighth.Shown()
	require.NoError(t, err)
	assert.Equal(t, Frac(1, 2), shown, "of three in the time of two")
	shown, err = Note{Duration: Quarters(2)}.Shown()
	require.NoError(t, err)
	assert.Equal(t, Quarters(2), shown)
}

// What every reader leaves to the end: bars of all parts begin together, nothing stands after the
// end of its bar, the last bar line is no double one, a thing that was not read is counted.
func TestAFinishedScore(t *testing.T) {
	s := Score{Parts: []Part{
		{Bars: []Bar{{Length: Quarters(4), Double: true, Marks: []Mark{{Onset: Quarters(9), Text: "late"}, {Onset: Quarters(4), Text: "end"}, {Onset: Quarters(1), Text: "early"}}}, {Length: Quarters(4), Double: true}}},
		{Staves: 2, Bars: []Bar{{Length: Quarters(3), Notes: []Note{{Rest: true}, {Rest: true}}}}},
	}}
	s.Finish()
	first := s.Parts[0].Bars
	assert.True(t, first[0].Double)
	assert.False(t, first[1].Double, "the end has its own line")
	var marks []string
	for _, m := range first[0].Marks {
		marks = append(marks, m.Text+" "+m.Onset.String())
	}
	assert.Equal(t, []string{"early 1", "late 4", "end 4"}, marks)
	assert.Equal(t, []int{1, 2}, []int{s.Parts[0].Staves, s.Parts[1].Staves})
	assert.Equal(t, 2, len(s.Parts[1].Bars), "a short part is filled up")
	assert.Equal(t, Quarters(4), s.Parts[1].Bars[1].Start)
	assert.Equal(t, Quarters(4), s.Parts[1].Bars[1].Length)
	assert.Equal(t, "p2b1n2", s.Parts[1].Bars[0].Notes[1].ID)

	s.Note("a wedge", 1)
	s.Note("a trill", 2)
	s.Note("a wedge", 2)
	assert.Equal(t, []Unread{{"a wedge", 1, 2}, {"a trill", 2, 1}}, s.Unread)
}

// What is heard of a staff: in order of time and then from low to high; a note is joined to the one
// that it is tied to only where that begins as it ends.
func TestWhatIsHeardOfAStaff(t *testing.T) {
	q := Quarters(1)
	below := note("C3", Time{}, q, false, false)
	below.Staff = 2
	grace := note("A4", Time{}, Time{}, false, false)
	grace.Grace = true
	second := note("E4", Time{}, Quarters(2), false, false)
	second.Voice = 2
	second.Fingers = []string{"3", "1"}
	p := Part{Staves: 2, Bars: []Bar{
		{Length: Quarters(2), Notes: []Note{grace, note("G4", Time{}, q, false, true), note("G4", q, q, true, false), second, below}},
		{Length: Quarters(2), Notes: []Note{note("C5", Time{}, q, false, true), note("A4", q, q, false, false)}},
		{Length: Quarters(2), Notes: []Note{note("C5", q, q, true, false), note("C4", q, q, false, false)}},
	}}
	heard := func(order ...int) (out []string) {
		for _, s := range p.Sounding(1, order) {
			out = append(out, s.Pitch.String()+" "+s.Onset.String()+" "+s.Duration.String()+s.Finger)
		}
		return out
	}
	assert.Equal(t, []string{"E4 0 23", "G4 0 2", "C5 2 1", "A4 3 1", "C4 5 1", "C5 5 1"}, heard(1, 2, 3))
	assert.Equal(t, []string{"C4 1 1", "C5 1 1"}, heard(3))
	assert.Equal(t, []string{"C4 1 1", "C5 1 1"}, heard(3, 4), "a bar that the part has not is passed")
	assert.Len(t, p.Sounding(2, []int{1, 2, 3}), 1)
	assert.Nil(t, p.Sounding(3, []int{1, 2, 3}))
}
