package score

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/pitch"
)

func TestTimesAreExact(t *testing.T) {
	for _, c := range []struct{ name, a, b, sum, diff string }{
		{"quarter and eighth", "1", "1/2", "3/2", "1/2"},
		{"three triplet eighths make a quarter", "2/3", "1/3", "1", "1/3"},
		{"dotted eighth and sixteenth", "3/4", "1/4", "1", "1/2"},
		{"quintuplet against triplet", "1/5", "1/3", "8/15", "-2/15"},
		{"nothing", "0", "0", "0", "0"},
	} {
		t.Run(c.name, func(t *testing.T) {
			a, err := ParseTime(c.a)
			require.NoError(t, err)
			b, err := ParseTime(c.b)
			require.NoError(t, err)
			assert.Equal(t, c.sum, a.Add(b).String())
			assert.Equal(t, c.diff, a.Sub(b).String())
		})
	}
	assert.Equal(t, Time{}, Frac(0, 7), "the zero value is nought, and equal times are equal structs")
	for _, bad := range []string{"", "x", "1/0", "1/-2", "1/17", "9999999"} {
		_, err := ParseTime(bad)
		assert.Error(t, err, bad)
	}
}

func TestPartOfABeat(t *testing.T) {
	assert.Equal(t, Frac(1, 2), Frac(7, 2).Fractional())
	assert.Equal(t, Time{}, Quarters(3).Fractional())
	assert.Equal(t, Frac(-1, 3), Frac(-4, 3).Fractional())
}

func TestTimeLaws(t *testing.T) {
	dens := []int64{1, 2, 3, 4, 5, 6, 7, 8, 9, 12, 16, 24, 32, 48, 64, 128, 256, 480, 1024, 10080}
	gen := rapid.Custom(func(t *rapid.T) Time {
		return Frac(rapid.Int64Range(-100000, 100000).Draw(t, "num"), rapid.SampledFrom(dens).Draw(t, "den"))
	})
	rapid.Check(t, func(t *rapid.T) {
		a, b, c := gen.Draw(t, "a"), gen.Draw(t, "b"), gen.Draw(t, "c")
		assert.Equal(t, a.Add(b), b.Add(a))
		assert.Equal(t, a.Add(b).Add(c), a.Add(b.Add(c)))
		assert.Equal(t, a, a.Add(b).Sub(b))
		assert.Equal(t, -1*a.Cmp(b), b.Cmp(a))
		parsed, err := ParseTime(a.String())
		assert.NoError(t, err)
		assert.Equal(t, a, parsed)
	})
}

func bars(repeats ...Repeat) Score {
	p := Part{}
	for _, r := range repeats {
		p.Bars = append(p.Bars, Bar{Length: Quarters(1), Repeat: r})
	}
	return Score{Parts: []Part{p}}
}

func TestRepeatsUnfolded(t *testing.T) {
	plain := Repeat{}
	for _, c := range []struct {
		name string
		in   Score
		want []int
	}{
		{"straight through", bars(plain, plain), []int{1, 2}},
		{"back to the start", bars(plain, Repeat{Ends: 2}, plain), []int{1, 2, 1, 2, 3}},
		{"between signs", bars(plain, Repeat{Starts: true}, Repeat{Ends: 2}, plain), []int{1, 2, 3, 2, 3, 4}},
		{"two halves, each twice", bars(Repeat{Ends: 2}, Repeat{Starts: true, Ends: 2}), []int{1, 1, 2, 2}},
		{"second closes without opening", bars(Repeat{Ends: 2}, Repeat{Ends: 2}), []int{1, 1, 2, 2}},
		{"first and second ending", bars(plain, Repeat{Ends: 2, Endings: []int{1}}, Repeat{Endings: []int{2}}, plain), []int{1, 2, 1, 3, 4}},
		{"three endings", bars(plain, Repeat{Ends: 2, Endings: []int{1}}, Repeat{Ends: 2, Endings: []int{2}}, Repeat{Endings: []int{3}}), []int{1, 2, 1, 3, 1, 4}},
		{"one ending for two passes", bars(plain, Repeat{Ends: 2, Endings: []int{1, 2}}, Repeat{Endings: []int{3}}), []int{1, 2, 1, 2, 1, 3}},
		{"second ending closes a repeat too", bars(plain, Repeat{Ends: 2, Endings: []int{1}}, Repeat{Ends: 2, Endings: []int{2}}, plain), []int{1, 2, 1, 3, 4}},
		{"three times", bars(Repeat{Ends: 3}), []int{1, 1, 1}},
		{"endings, then another repeat", bars(plain, Repeat{Ends: 2, Endings: []int{1}}, Repeat{Endings: []int{2}}, Repeat{Starts: true}, Repeat{Ends: 2}), []int{1, 2, 1, 3, 4, 5, 4, 5}},
	} {
		t.Run(c.name, func(t *testing.T) { assert.Equal(t, c.want, c.in.Played()) })
	}
}

// Whatever the signs, unfolding ends and plays only bars that exist.
func TestUnfoldingEnds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var rs []Repeat
		for range rapid.IntRange(0, 12).Draw(t, "bars") {
			rs = append(rs, Repeat{
				Starts:  rapid.Bool().Draw(t, "starts"),
				Ends:    rapid.SampledFrom([]int{0, 0, 0, 2, 3}).Draw(t, "ends"),
				Endings: rapid.SampledFrom([][]int{nil, nil, nil, {1}, {2}, {1, 2}}).Draw(t, "endings"),
			})
		}
		s := bars(rs...)
		played := s.Played()
		assert.LessOrEqual(t, len(played), 12*4)
		for _, b := range played {
			assert.True(t, b >= 1 && b <= len(rs))
		}
	})
}

func note(name string, onset, dur Time, from, to bool) Note {
	p, err := pitch.Parse(name)
	if err != nil {
		panic(err)
	}
	return Note{Pitch: p, Onset: onset, Duration: dur, Voice: 1, Staff: 1, TieFrom: from, TieTo: to}
}

func TestTiesJoin(t *testing.T) {
	q := Quarters(1)
	s := Score{Parts: []Part{{Bars: []Bar{
		{Length: Quarters(2), Notes: []Note{note("C4", Time{}, q, false, false), note("G4", q, q, false, true)}},
		{Length: Quarters(2), Notes: []Note{note("G4", Time{}, q, true, true), note("G4", q, q, true, false)}},
		{Length: Quarters(2), Notes: []Note{note("G4", Time{}, q, false, false), {Onset: q, Duration: q, Rest: true, Voice: 1, Staff: 1}}},
	}}}}
	s.Finish()
	got := s.Parts[0].Sounding(1, s.Written())
	require.Len(t, got, 3)
	assert.Equal(t, "3", got[1].Duration.String(), "tied across the bar line and on")
	assert.Equal(t, "4", got[2].Onset.String(), "struck again, not tied")
	assert.Equal(t, 1, got[1].Bar)
	assert.Equal(t, "p1b2n1", s.Parts[0].Bars[1].Notes[0].ID)
}

func TestBarsOfAllPartsAlign(t *testing.T) {
	s := Score{Parts: []Part{
		{Bars: []Bar{{Length: Quarters(1)}, {Length: Quarters(4)}}},
		{Bars: []Bar{{}, {Length: Quarters(3)}, {Length: Quarters(4)}}},
	}}
	s.Finish()
	for _, p := range s.Parts {
		require.Len(t, p.Bars, 3)
		assert.Equal(t, "1", p.Bars[1].Start.String())
		assert.Equal(t, "5", p.Bars[2].Start.String())
	}
}
