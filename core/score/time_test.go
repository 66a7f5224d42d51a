package score

import (
	"math"
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func rat(t Time) *big.Rat { return big.NewRat(t.Fraction()) }

// Times are what math/big says they are, up to the longest piece and down to the finest grid.
func TestTimesAgainstMathBig(t *testing.T) {
	dens := []int64{1, 2, 3, 5, 8, 1024, 1 << 10 * 27 * 25, 1 << 10 * 7 * 11 * 13, Grid}
	gen := rapid.Custom(func(t *rapid.T) Time {
		den := rapid.SampledFrom(dens).Draw(t, "den")
		far := rapid.SampledFrom([]int64{100, longest / 2 * den}).Draw(t, "far")
		return Frac(rapid.Int64Range(-far, far).Draw(t, "num"), den)
	})
	rapid.Check(t, func(t *rapid.T) {
		a, b := gen.Draw(t, "a"), gen.Draw(t, "b")
		x, y := rat(a), rat(b)
		assert.Zero(t, new(big.Rat).Add(x, y).Cmp(rat(a.Add(b))), "%s + %s = %s", a, b, a.Add(b))
		assert.Zero(t, new(big.Rat).Sub(x, y).Cmp(rat(a.Sub(b))), "%s - %s = %s", a, b, a.Sub(b))
		assert.Equal(t, x.Cmp(y), a.Cmp(b), "%s against %s", a, b)
		assert.Equal(t, x.Cmp(y) < 0, a.Less(b))
		assert.Equal(t, x.Sign(), a.Sign())
		near, _ := x.Float64()
		assert.InEpsilon(t, 1+math.Abs(near), 1+math.Abs(a.Float()), 1e-12)
		whole := new(big.Int).Quo(x.Num(), x.Denom())
		assert.Zero(t, new(big.Rat).Sub(x, new(big.Rat).SetInt(whole)).Cmp(rat(a.Fractional())), "%s beyond whole quarters", a)
	})
	for _, far := range []Time{Frac(longest*691_200-1, 691_200), Frac(1-longest*691_200, 691_200)} {
		assert.Zero(t, new(big.Rat).Add(rat(far), big.NewRat(1, 1_025_024)).Cmp(rat(far.Add(Frac(1, 1_025_024)))))
	}
}

func TestHowLongALengthMayBe(t *testing.T) {
	for _, c := range []struct {
		num, den int64
		taken    bool
	}{
		{longest, 1, true}, {longest + 1, 1, false}, {-longest, 1, true}, {-longest - 1, 1, false},
		{1, 0, false}, {1, -1, false}, {1, 1024, true}, {1, 2048, false}, {1, Grid, true}, {1, 17, false}, {17, 17, true}, {0, 17, true},
	} {
		_, err := NewTime(c.num, c.den)
		assert.Equal(t, c.taken, err == nil, "%d/%d", c.num, c.den)
	}
	assert.Panics(t, func() { Frac(1, 17) })
	assert.Equal(t, Frac(6, 8), Frac(3, 4))
}

// What tuplets and other units of length ask for: a time times a fraction.
func TestTimesScaled(t *testing.T) {
	for _, c := range []struct {
		of       string
		num, den int64
		want     string // empty where it is not a length
	}{
		{"1", 2, 3, "2/3"}, {"3/2", 2, 3, "1"}, {"2/3", 3, 2, "1"}, {"5/7", 0, 9, "0"}, {"5/7", 9, 9, "5/7"}, {"-3/4", 2, 3, "-1/2"}, {"3/4", -2, 3, "-1/2"},
		{"1/1024", 1, 2, ""}, {"1", 1, 17, ""}, {"17", 1, 17, "1"},
		{"64", 1, 1 << 16, "1/1024"}, {"64", 1, 1<<16 + 1, ""}, {"1/64", 1 << 16, 1, "1024"}, {"1/64", 1<<16 + 1, 1, ""}, {"1/64", -1 << 16, 1, "-1024"}, {"1/64", -1<<16 - 1, 1, ""},
		{"1", 1, 0, ""}, {"1", 1, -1, ""}, {"1048576", 2, 1, ""},
	} {
		of, err := ParseTime(c.of)
		require.NoError(t, err)
		got, err := of.Scaled(c.num, c.den)
		if c.want == "" {
			assert.Error(t, err, "%s times %d/%d", c.of, c.num, c.den)
			continue
		}
		require.NoError(t, err, "%s times %d/%d", c.of, c.num, c.den)
		assert.Equal(t, c.want, got.String(), "%s times %d/%d", c.of, c.num, c.den)
	}
	_, err := Time{num: math.MaxInt64>>17 + 1}.Scaled(3, 2)
	assert.ErrorContains(t, err, "not a length")
	_, err = Time{num: -math.MaxInt64>>17 - 1}.Scaled(3, 2)
	assert.ErrorContains(t, err, "not a length")
}

func TestTimesInText(t *testing.T) {
	b, err := Frac(3, 2).MarshalText()
	require.NoError(t, err)
	assert.Equal(t, "3/2", string(b))
	var back Time
	require.NoError(t, back.UnmarshalText(b))
	assert.Equal(t, Frac(3, 2), back)
	assert.ErrorContains(t, back.UnmarshalText([]byte("half")), `"half" is not a number of quarter notes`)
}
