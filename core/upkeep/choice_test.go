package upkeep

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

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
