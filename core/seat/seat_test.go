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

// What can be of a body and a place: both ends of each range, and just past them.
func TestTheEndsOfWhatCanBe(t *testing.T) {
	good := Player{Stature: 170, Elbow: 24, LowerLeg: 46}
	for _, c := range []struct {
		name        string
		set         func(*Player, *Bench, float64)
		least, most float64
	}{
		{"stature", func(b *Player, _ *Bench, v float64) { *b = Player{Stature: v} }, 70, 230},
		{"elbow", func(b *Player, _ *Bench, v float64) { b.Elbow, b.Stature = v, 200 }, 8, 40},
		{"lower leg", func(b *Player, _ *Bench, v float64) { b.LowerLeg, b.Stature = v, 200 }, 15, 65},
		{"keys", func(_ *Player, p *Bench, v float64) { p.KeyTops = v }, 45, 95},
		{"lowest seat", func(_ *Player, p *Bench, v float64) { p.BenchLow = v }, 15, 80},
		{"highest seat", func(_ *Player, p *Bench, v float64) { p.BenchHigh = v }, 15, 90},
		{"tile", func(_ *Player, p *Bench, v float64) { p.Tile = v }, 0.5, 10},
	} {
		for v, fits := range map[float64]bool{c.least: true, c.most: true, c.least - 0.1: false, c.most + 0.1: false} {
			b, p := good, Bench{}
			c.set(&b, &p, v)
			err := Check(b, p)
			assert.Equal(t, fits, err == nil, "%s of %g: %v", c.name, v, err)
		}
	}
	for _, c := range []struct {
		name string
		b    Player
		p    Bench
		fits bool
	}{
		{"an elbow of a quarter of the stature", Player{Stature: 120, Elbow: 30, LowerLeg: 30}, Bench{}, true},
		{"and a touch more", Player{Stature: 120, Elbow: 30.1, LowerLeg: 30}, Bench{}, false},
		{"a leg of 36 in 100", Player{Stature: 100, LowerLeg: 36}, Bench{}, true},
		{"and a touch more", Player{Stature: 100, LowerLeg: 36.1}, Bench{}, false},
		{"a seat that cannot be set", Player{Stature: 170}, Bench{BenchLow: 48, BenchHigh: 48}, true},
		{"lowest above highest", Player{Stature: 170}, Bench{BenchLow: 48.1, BenchHigh: 48}, false},
		{"only a lowest", Player{Stature: 170}, Bench{BenchLow: 48}, true},
		{"no stature, both measured", Player{Elbow: 20, LowerLeg: 40}, Bench{}, true},
		{"no stature, no leg", Player{Elbow: 20}, Bench{}, false},
		{"no stature, no elbow", Player{LowerLeg: 40}, Bench{}, false},
	} {
		assert.Equal(t, c.fits, Check(c.b, c.p) == nil, c.name)
	}
}

// The figure by hand, of 170 cm on a seat of 46.5: thigh 0.245 of stature, half of it on
// the seat; shoulder 0.818, sitting height 0.520, forearm 0.146 (Drillis and Contini
// 1966). What stands 0.01 to 0.03 before another is only how it is drawn.
func TestTheFigureByHand(t *testing.T) {
	f, err := Work(Player{Stature: 170}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 56}, instrument.AtKeys, 0)
	require.NoError(t, err)
	for name, want := range map[string][2]float64{
		"hip": {-20.825, 46.5}, "knee": {20.825, 46.2}, "heel": {20.825, 0}, "shoulder": {-17.425, 103.96}, "elbow": {-12.325, 72}, "wrist": {12.495, 72}, "head": {-15.725, 134.9},
	} {
		for _, p := range f.Figure {
			if p.Name == name {
				assert.InDelta(t, want[0], p.X, 0.001, name)
				assert.InDelta(t, want[1], p.Y, 0.001, name)
			}
		}
	}
	bare, err := Work(Player{Elbow: 25.5, LowerLeg: 46.2}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 56}, instrument.AtKeys, 0)
	require.NoError(t, err)
	for i, p := range f.Figure {
		assert.InDelta(t, p.X, bare.Figure[i].X, 0.001, "%s: the stature follows from the elbow", p.Name)
		assert.InDelta(t, p.Y, bare.Figure[i].Y, 0.001, p.Name)
	}
}

// How sure an estimate is goes into the seat, the platform and the footstool.
func TestTheSpreadIsSaid(t *testing.T) {
	f, err := Work(Player{Stature: 110, Child: true}, Bench{KeyTops: 72, BenchLow: 46, BenchHigh: 56}, instrument.AtKeys, 0)
	require.NoError(t, err)
	assert.True(t, f.Estimated)
	assert.InDelta(t, 72-16.5-3.2, f.Seat.Low, 0.01)
	assert.InDelta(t, 72-16.5+3.2, f.Seat.High, 0.01)
	assert.InDelta(t, 55.5-30.6, f.Platform.Best, 0.01)
	assert.InDelta(t, 55.5-30.6-3.2, f.Platform.Low, 0.01)
	assert.InDelta(t, 55.5-30.6+3.2, f.Platform.High, 0.01)
	assert.Equal(t, map[string]string{"cm": "55.5", "low": "52", "high": "59"}, f.Says[0].Args)
	for _, p := range []Player{{Stature: 110, Elbow: 16, Child: true}, {Stature: 110, LowerLeg: 30, Child: true}} {
		f, err = Work(p, Bench{}, instrument.AtKeys, 0)
		require.NoError(t, err)
		assert.True(t, f.Estimated, "half of it is")
	}
	f, err = Work(Player{Stature: 110, Elbow: 16, LowerLeg: 30, Child: true}, Bench{}, instrument.AtKeys, 0)
	require.NoError(t, err)
	assert.False(t, f.Estimated)
	guitar, err := Work(Player{Elbow: 25.5, LowerLeg: 46}, Bench{}, instrument.Footrest, 0)
	require.NoError(t, err)
	assert.InDelta(t, 15.3, guitar.Footstool.Best, 0.01, "by a stature that follows from the elbow")
	assert.InDelta(t, 12.3, guitar.Footstool.Low, 0.01)
	assert.InDelta(t, 18.3, guitar.Footstool.High, 0.01)
}

// Usual places where none is known: keys at 73 cm, a bench from 46 to 56, tiles of 3;
// and what is noticed only past a firm sole's centimetre.
func TestUsualPlaces(t *testing.T) {
	for _, c := range []struct {
		name    string
		b       Player
		p       Bench
		setting float64
		tiles   int
		codes   []string
	}{
		{"usual keys", Player{Elbow: 24, LowerLeg: 49}, Bench{}, 49, 0, []string{"seat-height", "seat-firm"}},
		{"usual top of the bench, two tiles", Player{Elbow: 12, LowerLeg: 61}, Bench{}, 55, 2, nil},
		{"only its lowest known", Player{Elbow: 12, LowerLeg: 61}, Bench{BenchLow: 50}, 55, 2, nil},
		{"a lowest above the usual top", Player{Elbow: 12, LowerLeg: 61}, Bench{BenchLow: 58}, 58, 1, nil},
		{"only its highest known, under the usual lowest", Player{Elbow: 24, LowerLeg: 49}, Bench{BenchHigh: 40}, 40, 3, nil},
		{"a seat a centimetre too high is not said", Player{Elbow: 24, LowerLeg: 50}, Bench{BenchLow: 50, BenchHigh: 50}, 50, 0, []string{"seat-height", "seat-firm"}},
		{"more is", Player{Elbow: 24, LowerLeg: 50.1}, Bench{BenchLow: 50.1, BenchHigh: 50.1}, 50.1, 0, []string{"seat-height", "seat-too-high", "seat-firm"}},
		{"a gap of a centimetre under the feet is left", Player{Elbow: 24, LowerLeg: 48}, Bench{}, 49, 0, []string{"seat-height", "seat-firm"}},
		{"more is not", Player{Elbow: 24, LowerLeg: 47.9}, Bench{}, 49, 0, []string{"seat-height", "seat-platform", "seat-firm"}},
	} {
		f, err := Work(c.b, c.p, instrument.AtKeys, 0)
		require.NoError(t, err, c.name)
		assert.InDelta(t, c.setting, f.Setting, 0.01, c.name)
		assert.Equal(t, c.tiles, f.Tiles, c.name)
		if c.codes != nil {
			assert.Equal(t, c.codes, codes(f.Says), c.name)
		}
	}
	pedals, err := Work(Player{Elbow: 18, LowerLeg: 32}, Bench{Pedals: true}, instrument.Spike, 0)
	require.NoError(t, err)
	assert.NotContains(t, codes(pedals.Says), "seat-platform-pedals", "only keys have them")
	high, err := Work(Player{Elbow: 30, LowerLeg: 46}, Bench{KeyTops: 72, BenchLow: 46.4, BenchHigh: 56}, instrument.AtKeys, 0)
	require.NoError(t, err)
	assert.Equal(t, "4", high.Says[1].Args["cm"])
}

// Measured again: each kind of reminder on its last and its first day.
func TestTheDayToMeasureAgain(t *testing.T) {
	day := calendar.Date("2026-11-18")
	want := map[int]string{0: ""}
	last := ""
	for ago := range 300 {
		got := ""
		if r := Again(day.Add(-ago), day, 8); r != nil {
			got = r.Code
		}
		if got != last {
			want[ago], last = got, got
		}
	}
	assert.Equal(t, map[int]string{0: "", 99: "measure-term", 183: "measure-grown"}, want, "a term of fourteen weeks; three centimetres at six a year")
	assert.Nil(t, Again(day.Add(-300), day, 18), "grown up")
	assert.NotNil(t, Again(day.Add(-300), day, 17))
	assert.NotNil(t, Again("", day, 40), "never measured")
}

func TestGrowth(t *testing.T) {
	for age, want := range map[int]float64{2: 9, 3: 6, 9: 6, 10: 6.5, 14: 6.5, 15: 2, 17: 2, 18: 0} {
		assert.Equal(t, want, growth(age), "at %d", age)
	}
}
