package seat

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/reason"
)

// Worked by hand from the proportions of Drillis and Contini (1966) as tabled in
// Winter, Biomechanics and Motor Control of Human Movement: elbow standing 0.630,
// sitting height 0.520, so the seated elbow 0.150 of stature; knee 0.285.
func TestFromStature(t *testing.T) {
	elbow, leg := FromStature(170, false)
	assert.InDelta(t, 25.5, elbow.Best, 0.01)
	assert.InDelta(t, 170*0.260+2, leg.Best, 0.01, "the hollow is 0.025 under the knee's top, the sole 2 cm")
	assert.InDelta(t, 3.4, elbow.High-elbow.Best, 0.01)
	child, _ := FromStature(110, true)
	assert.InDelta(t, 16.5, child.Best, 0.01)
	assert.InDelta(t, 3.2, child.High-child.Best, 0.01, "less sure of a child")
}

func codes(list []reason.Reason) (out []string) {
	for _, r := range list {
		out = append(out, r.Code)
	}
	return
}

// The arithmetic of the seat, by hand: common practice, no source.
func TestWork(t *testing.T) {
	bench := Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 56, Tile: 3}
	for _, c := range []struct {
		name                    string
		body                    Player
		place                   Bench
		how                     instrument.Seat
		prefer                  float64
		seat, setting, platform float64
		tiles                   int
		says                    []string
	}{
		{"a grown-up, measured", Player{Elbow: 24, LowerLeg: 46}, bench, instrument.AtKeys, 0, 48, 48, 2, 0, []string{"seat-height", "seat-platform", "seat-firm"}},
		{"a grown-up with long legs", Player{Elbow: 24, LowerLeg: 48}, bench, instrument.AtKeys, 0, 48, 48, 0, 0, []string{"seat-height", "seat-firm"}},
		{"a child of four: three tiles and a platform", Player{Elbow: 15, LowerLeg: 25, Child: true}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 49, Tile: 3}, instrument.AtKeys, 0, 57, 48, 32, 3, []string{"seat-height", "seat-tiles", "seat-platform", "seat-firm"}},
		{"tiles are whole ones, rounded up", Player{Elbow: 15, LowerLeg: 56}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 50, Tile: 3}, instrument.AtKeys, 0, 57, 48, 0, 3, nil},
		{"the elbow a touch above", Player{Elbow: 24, LowerLeg: 50}, bench, instrument.AtKeys, 1.5, 49.5, 49.5, 0, 0, nil},
		{"too high even at its lowest", Player{Elbow: 30, LowerLeg: 46}, bench, instrument.AtKeys, 0, 42, 46, 0, 0, []string{"seat-height", "seat-too-high", "seat-firm"}},
		{"with pedals the platform carries them too", Player{Elbow: 18, LowerLeg: 32}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 56, Pedals: true}, instrument.AtKeys, 0, 54, 54, 22, 0, []string{"seat-height", "seat-platform-pedals", "seat-firm"}},
		{"a cellist of eight on a chair of 46", Player{Stature: 128, LowerLeg: 34, Elbow: 19, Child: true}, Bench{BenchLow: 46, BenchHigh: 46}, instrument.Spike, 0, 36, 46, 12, 0, []string{"seat-height", "seat-too-high", "seat-platform", "seat-spike", "seat-firm"}},
		{"a violinist stands, or sits on a chair", Player{Stature: 150, LowerLeg: 40, Elbow: 22}, Bench{BenchLow: 46, BenchHigh: 46}, instrument.Standing, 0, 40, 46, 6, 0, []string{"seat-stand", "seat-height", "seat-too-high", "seat-platform", "seat-firm"}},
		{"a guitarist", Player{Stature: 170, LowerLeg: 46, Elbow: 24}, Bench{BenchLow: 46, BenchHigh: 46}, instrument.Footrest, 0, 46, 46, 0, 0, []string{"seat-height", "seat-footstool", "seat-firm"}},
		{"from stature alone, said so", Player{Stature: 170}, bench, instrument.AtKeys, 0, 46.5, 46.5, 0, 0, []string{"seat-height", "seat-firm", "seat-estimated"}},
	} {
		f, err := Work(c.body, c.place, c.how, c.prefer)
		require.NoError(t, err, c.name)
		assert.InDelta(t, c.seat, f.Seat.Best, 0.01, c.name)
		assert.InDelta(t, c.setting, f.Setting, 0.01, c.name)
		assert.Equal(t, c.tiles, f.Tiles, c.name)
		assert.InDelta(t, c.platform, f.Platform.Best, 0.01, c.name)
		if c.says != nil {
			assert.Equal(t, c.says, codes(f.Says), c.name)
		}
		assert.LessOrEqual(t, f.Seat.Low, f.Seat.High)
	}
	guitar, err := Work(Player{Stature: 170}, Bench{}, instrument.Footrest, 0)
	require.NoError(t, err)
	assert.InDelta(t, 15.3, guitar.Footstool.Best, 0.01)
}

func TestTheFigureStandsOnWhatItIsGiven(t *testing.T) {
	f, err := Work(Player{Elbow: 15, LowerLeg: 25, Child: true}, Bench{KeyTops: 72, BenchHigh: 49, BenchLow: 46}, instrument.AtKeys, 0)
	require.NoError(t, err)
	at := map[string]Joint{}
	for _, p := range f.Figure {
		at[p.Name] = p
	}
	assert.InDelta(t, f.KeyTops, at["elbow"].Y, 0.01, "the forearm is level with the keys")
	assert.InDelta(t, at["elbow"].Y, at["wrist"].Y, 0.01)
	assert.InDelta(t, f.Platform.Best, at["heel"].Y, 0.01, "the feet stand on the platform")
	assert.InDelta(t, 25, at["knee"].Y-at["heel"].Y, 0.01)
	assert.Greater(t, at["head"].Y, at["shoulder"].Y)
}

func TestImpossibleBodiesAndBenches(t *testing.T) {
	for says, c := range map[string]struct {
		b Player
		p Bench
	}{
		"a stature of 17 cm cannot be right; measure again (70 to 230 cm)": {Player{Stature: 17}, Bench{}},
		"measure from the seat, not from the floor":                        {Player{Stature: 110, Elbow: 35}, Bench{}},
		"to the hollow of the knee":                                        {Player{Stature: 110, LowerLeg: 45}, Bench{}},
		"swap the two":                                                     {Player{Stature: 150}, Bench{BenchLow: 60, BenchHigh: 50}},
		"a tape measure is better":                                         {Player{Elbow: 20}, Bench{}},
		"a tile of 25 cm cannot be right":                                  {Player{Stature: 150}, Bench{Tile: 25}},
		"white keys at a height of 30 cm":                                  {Player{Stature: 150}, Bench{KeyTops: 30}},
	} {
		_, err := Work(c.b, c.p, instrument.AtKeys, 0)
		assert.ErrorContains(t, err, says)
	}
}

func TestMeasuredAgain(t *testing.T) {
	day := calendar.Date("2026-11-18")
	for _, c := range []struct {
		name     string
		measured calendar.Date
		age      int
		want     string
	}{
		{"never", "", 8, "measure-first"},
		{"last month", "2026-10-18", 8, ""},
		{"a term ago", "2026-08-01", 8, "measure-term"},
		{"half a year: about three centimetres", "2026-05-10", 8, "measure-grown"},
		{"a grown-up once", "2020-01-01", 34, ""},
	} {
		got := ""
		if r := Again(c.measured, day, c.age); r != nil {
			got = r.Code
		}
		assert.Equal(t, c.want, got, c.name)
	}
	assert.Equal(t, 1.5, Preference("above"))
	assert.Equal(t, -1.5, Preference("below"))
	assert.Zero(t, Preference("level"))
	assert.Len(t, Looks(), 5)
}
