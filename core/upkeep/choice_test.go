package upkeep

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/memory"
	"patientladder/core/shelf"
)

func randomPieces(rng *rand.Rand, n int) []Piece {
	carried := []string{"halves", "slur-three", "reach-back", "landmarks"}
	out := make([]Piece, n)
	for i := range out {
		p := Piece{ID: fmt.Sprint(i), Minutes: 1 + rng.IntN(4), Silent: rng.IntN(20), Memory: memory.Memory{Stability: 2 + 40*rng.Float64(), Difficulty: 1 + 9*rng.Float64()}, Polished: rng.IntN(5) == 0}
		for _, id := range carried {
			if rng.IntN(4) == 0 {
				p.Carries = append(p.Carries, id)
			}
		}
		out[i] = p
	}
	return out
}

// The optimum by trying every set.
func optimum(pieces []Piece, minutes int) float64 {
	top := 0.0
	for i := range pieces {
		pieces[i].keeps = keeps(pieces[i])
	}
	for set := range 1 << len(pieces) {
		var chosen []Piece
		m := 0
		for i, p := range pieces {
			if set&(1<<i) != 0 {
				chosen, m = append(chosen, p), m+p.Minutes
			}
		}
		if m <= minutes {
			top = max(top, gain(chosen))
		}
	}
	return top
}

func TestChoiceIsNearTheOptimum(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 5))
	worst := 1.0
	for range 400 {
		pieces, minutes := randomPieces(rng, 4+rng.IntN(8)), 3+rng.IntN(14)
		chosen := Choose(pieces, minutes)
		m := 0
		for _, p := range chosen {
			m += p.Minutes
		}
		assert.LessOrEqual(t, m, minutes)
		if top := optimum(pieces, minutes); top > 0 {
			worst = min(worst, gain(chosen)/top)
		}
	}
	assert.GreaterOrEqual(t, worst, 0.95)
	t.Logf("worst of 400: %.4f of the optimum", worst)
}

// A year of weeks, forty pieces: none is silent longer than the stated limit.
func TestNoPieceIsSilentTooLong(t *testing.T) {
	for _, c := range []struct{ pieces, minutes int }{{12, 36}, {40, 30}, {120, 45}, {6, 5}} {
		rng := rand.New(rand.NewPCG(uint64(c.pieces), 1))
		pieces := randomPieces(rng, c.pieces)
		for i := range pieces {
			pieces[i].Silent = rng.IntN(7)
		}
		limit := Limit(pieces, c.minutes)
		longest := 0
		for range 104 {
			chosen := Choose(pieces, c.minutes)
			for i := range pieces {
				p := &pieces[i]
				if slices.ContainsFunc(chosen, func(q Piece) bool { return q.ID == p.ID }) {
					p.Memory, p.Silent = p.Memory.Heard(float64(p.Silent), memory.Fine), 0
				}
				p.Silent += 7
				longest = max(longest, p.Silent)
			}
		}
		assert.LessOrEqual(t, longest, 7*limit, "%d pieces in %d minutes a week", c.pieces, c.minutes)
	}
}

func TestOldPiecesCarryTheNewSkill(t *testing.T) {
	plain := Piece{ID: "plain", Minutes: 2, Silent: 10, Memory: memory.Memory{Stability: 20, Difficulty: 5}}
	carries := plain
	carries.ID, carries.Carries = "carries", []string{"halves"}
	assert.Equal(t, "carries", Choose([]Piece{plain, carries}, 2)[0].ID)
	faded := plain
	faded.ID, faded.Silent = "faded", 60
	assert.Equal(t, "faded", Choose([]Piece{plain, carries, faded}, 2)[0].ID, "a piece near its limit comes before all")
	assert.Empty(t, Choose(nil, 10))
}

// An old piece carries a skill that a piece in hand brings, though others have brought
// it before; not one that is only needed, nor one of a piece that is parked or to come.
func TestOldPiecesCarryWhatIsInHand(t *testing.T) {
	now := time.Date(2026, 11, 18, 15, 0, 0, 0, time.UTC)
	at := func(weeks int) *time.Time { d := now.AddDate(0, 0, -7*weeks); return &d }
	old := ladder.Rung{ID: "old", Item: shelf.Item{Brings: []string{"dotted"}, Needs: []string{"steps"}, Revisits: []string{"accents"}}, Taught: at(20), Foothold: at(10)}
	hand := ladder.Rung{ID: "hand", Item: shelf.Item{Brings: []string{"accents"}, Needs: []string{"steps"}, Revisits: []string{"dotted"}}, Taught: at(1)}
	carries := func(change func(*ladder.Rung)) []string {
		r := hand
		change(&r)
		s := ladder.Standing{Rungs: []ladder.Rung{old, r}}
		return Pieces(s, Know(s, nil, now), now, func(shelf.Item) int { return 3 })[0].Carries
	}
	assert.Equal(t, []string{"dotted", "accents"}, carries(func(*ladder.Rung) {}))
	assert.Empty(t, carries(func(r *ladder.Rung) { r.Parked = true }))
	assert.Empty(t, carries(func(r *ladder.Rung) { r.Taught = nil }))
	assert.Empty(t, carries(func(r *ladder.Rung) { r.Foothold = at(0) }))
}

// How long a playing takes, by the bars that differ and the age. A judgement.
func TestHowLongOnePlayingTakes(t *testing.T) {
	for _, c := range []struct {
		age, bars, different, want int
	}{
		{8, 0, 0, 2}, {9, 0, 0, 3}, // nothing known of it
		{9, 46, 0, 3}, {9, 48, 0, 4}, // half of the bars where the figures are not known
		{9, 16, 23, 3}, {9, 16, 24, 4}, {9, 96, 24, 5}, {9, 40, 48, 5},
		{8, 48, 0, 3}, {9, 400, 0, 8}, {8, 400, 0, 8},
	} {
		assert.Equal(t, c.want, Once(c.age)(shelf.Item{Bars: c.bars, Different: c.different}), "%d years, %d bars, %d different", c.age, c.bars, c.different)
	}
}

// What of a week's minutes can be counted on, and how long a piece may be silent then.
func TestMinutesThatCanBeCountedOn(t *testing.T) {
	of := func(minutes ...int) (out []Piece) {
		for _, m := range minutes {
			out = append(out, Piece{Minutes: m})
		}
		return out
	}
	for _, c := range []struct {
		pieces         []Piece
		minutes        int
		capacity, long int // weeks
	}{
		{of(), 10, 10, 4},
		{of(4, 2), 10, 7, 4}, // a piece of four may find three minutes left
		{of(8, 2), 10, 5, 5}, // half at least
		{of(2), 0, 1, 5},     // and one
		{of(3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3, 3), 6, 4, 15}, // 48 minutes by fours, and three weeks to spare
	} {
		assert.Equal(t, c.capacity, capacity(c.pieces, c.minutes), "%v in %d", c.pieces, c.minutes)
		assert.Equal(t, max(c.long, int(judgement.UpkeepSilence)), Limit(c.pieces, c.minutes))
	}
}

// What a playing keeps of a piece: more of one that fades, more again of one that is kept
// ready, and something of each.
func TestWhatAPlayingKeeps(t *testing.T) {
	young := memory.Memory{Stability: 10, Difficulty: 5}
	fresh, fading := keeps(Piece{Memory: young, Silent: 1}), keeps(Piece{Memory: young, Silent: 20})
	assert.Greater(t, fading, fresh)
	assert.InDelta(t, fading*float64(judgement.UpkeepPolished), keeps(Piece{Memory: young, Silent: 20, Polished: true}), 1e-12)
	want := young.Heard(20, memory.Fine).Recall(28) - young.Recall(48)
	assert.InDelta(t, want, fading, 1e-12, "four weeks on, with it and without")
	assert.Equal(t, 0.001, keeps(Piece{Memory: memory.Memory{Stability: 1e6, Difficulty: 5}}), "never nothing")
}

// What must be played now: what is due by a week, less what the weeks between can hold.
func TestWhatPresses(t *testing.T) {
	piece := func(silent int) Piece { return Piece{Minutes: 3, Silent: silent} }
	for _, c := range []struct {
		silent []int
		want   int
	}{
		{[]int{0, 0}, 0},
		{[]int{7 * 5, 7}, 3},         // at the limit
		{[]int{7*5 - 1, 7}, 3},       // less than a week before it
		{[]int{7 * 4, 7}, 0},         // a week before
		{[]int{7 * 9, 7 * 9}, 6},     // long past it
		{[]int{28, 28, 28}, 3*3 - 4}, // three due in a week that holds four minutes
	} {
		var pieces []Piece
		var order []int
		for i, s := range c.silent {
			pieces, order = append(pieces, piece(s)), append(order, i)
		}
		assert.Equal(t, c.want, pressing(pieces, order, 6, 5), "%v", c.silent)
	}
}
