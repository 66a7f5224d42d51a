package programme

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/judgement"
)

func some(n int, rng *rand.Rand) []Piece {
	out := make([]Piece, n)
	for i := range out {
		out[i] = Piece{Student: string(rune('a' + i)), Instrument: []string{"piano", "cello", "guitar"}[rng.IntN(3)], Age: 4 + rng.IntN(30),
			Key: []string{"", "G major", "D minor"}[rng.IntN(3)], Mood: []string{"", "calm", "lively"}[rng.IntN(3)], Seconds: 60}
	}
	return out
}

func put(pieces []Piece, order []int) []Piece {
	var out []Piece
	for _, i := range order {
		out = append(out, pieces[i])
	}
	return out
}

// every is what the cheapest of all orders costs.
func every(pieces []Piece) float64 {
	best := math.Inf(1)
	var try func(k int)
	try = func(k int) {
		if k == len(pieces) {
			best = min(best, Cost(pieces))
			return
		}
		for i := k; i < len(pieces); i++ {
			pieces[k], pieces[i] = pieces[i], pieces[k]
			try(k + 1)
			pieces[k], pieces[i] = pieces[i], pieces[k]
		}
	}
	try(0)
	return best
}

// The order is the best of all orders, up to eight players; beyond twelve it comes near what the exact
// programme finds for the same players.
func TestTheOrderIsTheBestOfAll(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 8))
	for n := range 9 {
		for range max(1, 40/(1+n*n/4)) {
			pieces := some(n, rng)
			got := Order(pieces)
			sorted := slices.Sorted(slices.Values(got))
			for i := range sorted {
				require.Equal(t, i, sorted[i], "each piece once")
			}
			require.Len(t, got, n)
			if n > 0 {
				require.InDelta(t, every(slices.Clone(pieces)), Cost(put(pieces, got)), 1e-9, "%d players", n)
			}
		}
	}
	worst := 1.0
	for range 10 {
		pieces := some(12, rng)
		exact := Cost(put(pieces, Order(pieces)))
		near := Cost(put(pieces, better(turns(pieces))))
		worst = max(worst, (near+1)/(exact+1))
	}
	t.Logf("exchanges alone cost at most %.2f of the best", worst)
	assert.Less(t, worst, 1.5)
	assert.Len(t, Order(some(40, rng)), 40)
}

// What is held against each other. Common practice, no source.
func TestWhatAnOrderGoesBy(t *testing.T) {
	p := func(who, on string, age int, key, mood string) Piece {
		return Piece{Student: who, Title: who, Instrument: on, Age: age, Key: key, Mood: mood}
	}
	who := func(pieces ...Piece) (out string) {
		for _, i := range Order(pieces) {
			out += pieces[i].Title
		}
		return out
	}
	assert.Equal(t, "ab", who(p("b", "piano", 12, "", ""), p("a", "piano", 6, "", "")), "the young do not wait")
	assert.Equal(t, "acb", who(p("a", "piano", 7, "", ""), p("b", "cello", 9, "", ""), p("c", "piano", 8, "", "")), "the cello is moved once")
	assert.Equal(t, "acb", who(p("a", "piano", 7, "C major", ""), p("b", "piano", 9, "C major", ""), p("c", "piano", 8, "F major", "")), "one key not twice running")
	assert.Equal(t, "acb", who(p("a", "piano", 7, "", "lively"), p("b", "piano", 9, "", "lively"), p("c", "piano", 8, "", "calm")), "nor one mood; and it ends with something that goes")
	two := []Piece{p("a", "piano", 8, "", ""), p("b", "piano", 9, "", ""), p("a", "piano", 8, "", "")}
	assert.Equal(t, []int{0, 2, 1}, Order(two), "who plays two pieces comes on once")
	assert.Empty(t, Order(nil))
}

func TestHowLongItLasts(t *testing.T) {
	assert.Equal(t, 48, Lasts(16, "4/4", 80))
	assert.Equal(t, 48, Lasts(16, "", 80), "four beats where no score tells")
	assert.Equal(t, 36, Lasts(16, "3/4", 80))
	assert.Equal(t, 36, Lasts(16, "6/8", 80), "three quarter notes long")
	assert.Equal(t, 24, Lasts(16, "2/4", 80))
	assert.Equal(t, 48, Lasts(16, "4/4", 0), "a moderate tempo where none is written")
	assert.Equal(t, 64, Lasts(16, "4/4", 60))
	assert.EqualValues(t, judgement.PieceSeconds, Lasts(0, "3/4", 0))
	a, b, c := Piece{Student: "a", Instrument: "piano", Seconds: 60}, Piece{Student: "b", Instrument: "piano", Seconds: 60}, Piece{Student: "c", Instrument: "cello", Seconds: 60}
	bow, move := int(judgement.BowSeconds), int(judgement.MoveSeconds)
	assert.Equal(t, 180+bow+move, Length([]Piece{a, b, c}))
	assert.Equal(t, 120, Length([]Piece{a, a}), "one player's pieces follow each other")
	assert.Zero(t, Length(nil))
}

func TestWhatIsWrongWithAnEvent(t *testing.T) {
	good := Event{Name: "Concert", Kind: "concert", Day: "2026-12-05", Start: "15:00", Entries: []Listing{{Student: "a", Rung: "r"}, {Student: "a", Rung: "s"}}}
	assert.NoError(t, good.Check())
	for says, spoil := range map[string]func(*Event){
		"needs a name":       func(e *Event) { e.Name = " " },
		"is no day":          func(e *Event) { e.Day = "5 December" },
		"none of concert":    func(e *Event) { e.Kind = "party" },
		"no time of day":     func(e *Event) { e.Start = "3 pm" },
		"stands in it twice": func(e *Event) { e.Entries = append(e.Entries, e.Entries[0]) },
	} {
		bad := good
		spoil(&bad)
		assert.ErrorContains(t, bad.Check(), says)
	}
	good.Start = ""
	assert.NoError(t, good.Check(), "the time may come later")
}
