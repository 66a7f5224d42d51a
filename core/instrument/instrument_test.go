package instrument

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
)

// What every profile must hold, so that a new entry says when something of it is
// missing.
func TestShipped(t *testing.T) {
	seen := map[ID]bool{}
	for _, p := range Shipped {
		require.NoError(t, p.Check(), p.ID)
		assert.False(t, seen[p.ID], "%s stands once", p.ID)
		seen[p.ID] = true
		assert.NotEmpty(t, p.Clef, p.ID)
		assert.NotEmpty(t, p.Seat, p.ID)
		assert.NotEmpty(t, p.First, p.ID)
		assert.NotEmpty(t, p.Points, p.ID)
		assert.Equal(t, p.Family != Keyboard, p.Holds != "", p.ID)
		if p.Kin != "" {
			assert.True(t, seen[p.Kin], "%s plays from a shelf that is there", p.ID)
		}
		if len(p.Strings) > 0 && p.Low.Valid() {
			lowest := p.Strings[0].MIDI()
			for i, s := range p.Strings {
				if i+1 != p.Drone {
					lowest = min(lowest, s.MIDI())
				}
			}
			assert.Equal(t, lowest+p.Written, p.Low.MIDI(), "%s: the compass begins at its lowest string, as written", p.ID)
		}
		if len(p.Roll) > 0 {
			assert.Len(t, p.Roll, len(p.Strings), p.ID)
		}
	}
}

// Open strings and what each staff is written at: common practice, no source.
func TestTunings(t *testing.T) {
	for id, want := range map[ID][]int{
		"violin": {76, 69, 62, 55}, "viola": {69, 62, 55, 48}, "cello": {57, 50, 43, 36}, "double-bass": {43, 38, 33, 28},
		"guitar": {64, 59, 55, 50, 45, 40}, "bass-guitar": {43, 38, 33, 28}, "ukulele": {69, 64, 60, 67}, "mandolin": {76, 69, 62, 55},
		"five-string": {62, 59, 55, 50, 67},
	} {
		var got []int
		for _, s := range Shipped.Of(id).Strings {
			got = append(got, s.MIDI())
		}
		assert.Equal(t, want, got, id)
	}
	for _, pair := range [][2]ID{{"violin", "viola"}, {"viola", "cello"}} {
		high, low := Shipped.Of(pair[0]).Strings, Shipped.Of(pair[1]).Strings
		for i := range high {
			assert.Equal(t, map[ID]int{"violin": 7, "viola": 12}[pair[0]], high[i].MIDI()-low[i].MIDI(), "a viola lies a fifth under a violin, a cello an octave under a viola")
		}
	}
	for id, octave := range map[ID]int{"guitar": 12, "bass-guitar": 12, "double-bass": 12, "five-string": 12, "cello": 0, "violin": 0, "ukulele": 0} {
		assert.Equal(t, octave, Shipped.Of(id).Written, "%s is written so far above its sound", id)
	}
}

func TestPlacesOfTheHand(t *testing.T) {
	for _, c := range []struct {
		frame Frame
		at    int
		want  string
	}{
		{SemitoneHand, 2, "half"}, {SemitoneHand, 3, "first"}, {SemitoneHand, 8, "fourth"}, {SemitoneHand, 13, "seventh"}, {SemitoneHand, 14, "thumb"},
		{PatternHand, 1, "half"}, {PatternHand, 2, "first"}, {PatternHand, 5, "third"}, {PatternHand, 9, "fifth"}, {PatternHand, 13, "high"},
		{FretHand, 2, "first"}, {FretHand, 6, "fret 5"}, {ShortFrets, 5, "third"},
		{BassHand, 2, "half"}, {BassHand, 3, "first"}, {BassHand, 8, "fourth"},
	} {
		assert.Equal(t, c.want, c.frame.Place(c.at), "%s at %d", c.frame.Name, c.at)
	}
}

func TestWhatIsWrongWithAProfile(t *testing.T) {
	good := Profile{ID: "x", Name: "small harp", Family: Other}
	require.NoError(t, good.Check())
	for _, c := range []struct {
		change func(*Profile)
		says   string
	}{
		{func(p *Profile) { p.Name = " " }, "needs a name"},
		{func(p *Profile) { p.Family = "brass" }, "not a family"},
		{func(p *Profile) { p.Keys = 61 }, "25 to 97 keys"},
		{func(p *Profile) { p.Family, p.Keys = Keyboard, 24 }, "25 to 97 keys"},
		{func(p *Profile) { p.Family, p.Keys = Keyboard, 98 }, "25 to 97 keys"},
		{func(p *Profile) { p.Clef = "G1" }, "not a clef"},
		{func(p *Profile) { p.Written = 37 }, "three octaves"},
		{func(p *Profile) { p.Written = -37 }, "three octaves"},
		{func(p *Profile) { p.Family, p.Frame = Plucked, FretHand }, "open strings"},
		{func(p *Profile) { p.Strings = pitch.MustParseAll("A4") }, "only bowed and plucked"},
		{func(p *Profile) { p.Family, p.Strings = Bowed, pitch.MustParseAll("A4") }, "how the hand lies"},
		{func(p *Profile) {
			p.Family, p.Strings, p.Frame, p.Drone = Plucked, pitch.MustParseAll("A4"), FretHand, 2
		}, "only sounds open"},
		{func(p *Profile) { p.Family, p.Strings, p.Frame = Bowed, pitch.MustParseAll("A4", "B-1"), PatternHand }, "string 2"},
		{func(p *Profile) { p.Seat = "floor" }, "not a seat"},
		{func(p *Profile) { p.Low, p.High = pitch.MustParse("C4"), pitch.MustParse("C4") }, "must lie above"},
	} {
		p := good
		c.change(&p)
		assert.ErrorContains(t, p.Check(), c.says)
	}
	for _, keys := range []int{25, 97} {
		assert.NoError(t, Profile{Name: "k", Family: Keyboard, Keys: keys}.Check())
	}
	for _, by := range []int{-36, 36} {
		assert.NoError(t, Profile{Name: "w", Family: Other, Written: by}.Check())
	}
}

func TestSets(t *testing.T) {
	assert.True(t, Shipped.Together("piano", "keyboard-61"), "a smaller keyboard plays from the piano's shelf")
	assert.False(t, Shipped.Together("violin", "viola"))
	assert.NotContains(t, Shipped.Shelves(), ID("keyboard-61"))
	assert.Equal(t, Other, Shipped.Of("kazoo").Family)
	p, known := Shipped.Named(" Double Bass ")
	assert.True(t, known)
	assert.Equal(t, ID("double-bass"), p.ID)

	dropped := Shipped.Complete(Profile{ID: "drop", Name: "guitar in D", Family: Plucked, Kin: "guitar", Strings: pitch.MustParseAll("E4", "B3", "G3", "D3", "A2", "D2"), Frame: FretHand, Own: true})
	all := Shipped.With([]Profile{dropped})
	assert.Len(t, all, len(Shipped)+1)
	assert.True(t, all.Together("guitar", "drop"))
	assert.Equal(t, Footrest, dropped.Seat)
	assert.Equal(t, []string{"a", "m", "i", "p", "p", "p"}, dropped.Roll)
	assert.Equal(t, "guitar-seat", dropped.Holds)
	dropped.Name = "guitar in low D"
	assert.Len(t, all.With([]Profile{dropped}), len(all), "the same again takes its place")
	assert.Len(t, Shipped, len(all)-1, "what is shipped is not changed")
	assert.Equal(t, "piano or violin", Set{{Name: "piano"}, {Name: "violin"}}.Names())
	alto := Shipped.Complete(Profile{Name: "gamba", Family: Bowed, Strings: pitch.MustParseAll("D4", "A3"), Frame: SemitoneHand, Seat: Standing, Clef: "C3"})
	assert.Equal(t, []any{Standing, "C3", "cello-seat"}, []any{alto.Seat, alto.Clef, alto.Holds}, "what was said stays")
}

func TestAProfileIsKeptWhole(t *testing.T) {
	for _, p := range append(Shipped[:len(Shipped):len(Shipped)], Profile{ID: "whistle", Name: "whistle", Family: Other}) {
		data, err := json.Marshal(p)
		require.NoError(t, err)
		var again Profile
		require.NoError(t, json.Unmarshal(data, &again), string(data))
		assert.Equal(t, p, again)
	}
	var f Frame
	assert.ErrorContains(t, f.UnmarshalText([]byte("claws")), "claws")
}

// The first line far above the staff: a second ledger line; on frets, whose first
// position reaches the first one, that one.
func TestLedger(t *testing.T) {
	for id, want := range map[ID]string{"cello": "E4", "violin": "C6", "viola": "D5", "double-bass": "E4", "guitar": "A5", "piano": "C6", "kazoo": "C6"} {
		assert.Equal(t, pitch.MustParse(want).Line(), Shipped.Of(id).Ledger(), id)
	}
}

// How the hands lie, finger by finger against the hand's place; a finger that stops
// nothing is None. Common practice, no source.
func TestShapesOfTheHand(t *testing.T) {
	lies := func(f Frame) (out [][4]int) {
		for _, s := range f.Shapes {
			out = append(out, s.Lie)
		}
		return out
	}
	assert.Equal(t, [][4]int{{-1, 0, 1, 2}, {-2, 0, 1, 2}, {-1, 1, 2, 3}}, lies(SemitoneHand), "closed, the first reached back, opened forward")
	assert.Equal(t, [][4]int{{-1, 0, 1, 2}, {-2, 0, 1, 2}, {-1, 0, 1, 3}}, lies(FretHand), "the fourth reaches a fret on")
	assert.Equal(t, [][4]int{{-1, 0, None, 1}}, lies(BassHand), "one, two and four over three semitones")
	assert.Equal(t, lies(PatternHand), lies(ShortFrets))
	assert.Contains(t, lies(PatternHand), [4]int{-1, 1, 3, 5}, "the first drawn back")
	assert.Contains(t, lies(PatternHand), [4]int{-1, 1, 2, 4})
	for _, f := range Frames {
		for _, s := range f.Shapes {
			for i := 1; i < 4; i++ {
				if s.Lie[i] != None && s.Lie[i-1] != None {
					assert.Less(t, s.Lie[i-1], s.Lie[i], "fingers of %s lie in order", f.Name)
				}
			}
		}
		again, err := FrameNamed(f.Name)
		require.NoError(t, err)
		assert.Equal(t, f, again)
	}
}

// In first position the first finger has the next letter over the open string, in third
// the third; past the table no letter is told.
func TestLettersOfTheFingers(t *testing.T) {
	for _, c := range []struct{ at, letters int }{{1, 1}, {2, 1}, {3, 2}, {5, 3}, {7, 4}, {12, 7}} {
		got, known := PatternHand.Letter(c.at)
		assert.True(t, known)
		assert.Equal(t, c.letters, got, "at %d", c.at)
	}
	for _, at := range []int{0, 13} {
		_, known := PatternHand.Letter(at)
		assert.False(t, known, "at %d", at)
	}
	_, known := SemitoneHand.Letter(3)
	assert.False(t, known, "a cello's fingers have semitones")
}

func TestEndsOfAProfile(t *testing.T) {
	long := func(n int) Profile { return Profile{Name: strings.Repeat("x", n), Family: Other} }
	assert.NoError(t, long(60).Check())
	assert.Error(t, long(61).Check())
	strung := func(n, drone int) Profile {
		p := Profile{Name: "lyre", Family: Plucked, Frame: FretHand, Drone: drone}
		for range n {
			p.Strings = append(p.Strings, pitch.MustParse("A4"))
		}
		return p
	}
	for n, fits := range map[int]bool{0: false, 1: true, 10: true, 11: false} {
		assert.Equal(t, fits, strung(n, 0).Check() == nil, "%d strings", n)
	}
	for drone, fits := range map[int]bool{-1: false, 0: true, 4: true, 5: false} {
		assert.Equal(t, fits, strung(4, drone).Check() == nil, "drone %d of four", drone)
	}
	for name, fits := range map[string]bool{"B-1": false, "C0": true, "C8": true, "C#8": false} {
		p := strung(0, 0)
		p.Strings = pitch.MustParseAll(name)
		assert.Equal(t, fits, p.Check() == nil, name)
	}
	assert.True(t, Shipped.Of("guitar").Fretted())
	assert.False(t, Shipped.Of("violin").Fretted())
	assert.False(t, Profile{Frame: FretHand}.Fretted(), "no strings, no frets")
	assert.Equal(t, []string{"p", "t", "p"}, []string{Shipped.Of("guitar").Thumb(), Shipped.Of("five-string").Thumb(), Profile{}.Thumb()})
	assert.True(t, Shipped.Of("piano").HandsApart())
	assert.False(t, Shipped.Of("guitar").HandsApart())
	assert.Equal(t, "piano", Shipped[0].Name)
	_, there := Shipped.Find(Shipped[0].ID)
	assert.True(t, there, "the first is found")
	first, there := Shipped.Named("PIANO")
	assert.True(t, there)
	assert.Equal(t, ID("piano"), first.ID)
	assert.Equal(t, "piano", Set{{Name: "piano"}}.Names())
	assert.Empty(t, Set{}.Names())
	mine := Profile{ID: "piano", Name: "my piano", Family: Keyboard, Own: true}
	assert.Equal(t, "my piano", Shipped.With([]Profile{mine}).Of("piano").Name)
	like := Shipped.Complete(Profile{Family: Plucked, Frame: FretHand, Strings: pitch.MustParseAll("A4", "E4", "C4", "G4", "D4", "A3", "E3")})
	assert.Equal(t, []string{"a", "m", "i", "p", "p", "p", "p"}, like.Roll, "strings past the roll have its last finger")
	assert.Equal(t, Profile{Family: Bowed, Frame: FretHand}, Shipped.Complete(Profile{Family: Bowed, Frame: FretHand}), "nothing is like it")
}

func TestASmallHandDoesNotOpen(t *testing.T) {
	piano := Shipped.Of("piano")
	assert.True(t, piano.PlayedAt(6).SmallHand)
	assert.False(t, piano.PlayedAt(7).SmallHand)
	assert.False(t, piano.SmallHand, "the item's own page is read for a hand that opens")
}
