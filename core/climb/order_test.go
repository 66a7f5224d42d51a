package climb

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/shelf"
	"patientladder/core/skill"
)

var graph = skill.Catalogue()

func knows(ids ...string) Knows { return Begin(graph, ids) }

func randomShelf(rng *rand.Rand, n int) []shelf.Item {
	pool := []string{"steps", "skips", "halves", "dotted", "rests", "hands-in-turn", "held-left-hand", "hands-together", "g-position", "loud-soft", "six-levels", "accidentals"}
	items := make([]shelf.Item, n)
	for i := range items {
		it := shelf.Item{ID: fmt.Sprint(i), Instrument: "piano", Book: []string{"Shore", "Harbour"}[rng.IntN(2)],
			Strand: shelf.Strands[rng.IntN(4)], Different: rng.IntN(20), Taste: shelf.Tastes[rng.IntN(3)], Staves: 1 + rng.IntN(2)}
		for _, id := range pool {
			switch rng.IntN(9) {
			case 0:
				it.Brings = append(it.Brings, id)
			case 1:
				it.Needs = append(it.Needs, id)
			}
		}
		items[i] = it
	}
	return items
}

// cheapest tries every sequence that respects what waits for what.
func cheapest(o *ordering, want int) float64 {
	best := math.Inf(1)
	var try func(s state, placed int)
	try = func(s state, placed int) {
		if placed == want {
			best = math.Min(best, s.cost)
			return
		}
		free := o.free(s)
		for i := range o.items {
			if free&(1<<i) != 0 {
				try(o.step(s, i), placed+1)
			}
		}
	}
	try(state{last: -1, load: o.wish.Last}, 0)
	return best
}

func TestOrderIsTheOptimum(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 3))
	for n := range 500 {
		size := 2 + rng.IntN(5)
		if n%25 == 0 {
			size = exactUpTo
		}
		items := randomShelf(rng, size)
		wish := Wish{Want: 1 + rng.IntN(size), NewSkills: 1 + rng.IntN(2), Graded: rng.IntN(3) == 0, KeepLanes: rng.IntN(2) == 0,
			Taste: map[shelf.Taste]float64{shelf.Lively: 0.7, shelf.Lyrical: 0.3}, Ahead: map[shelf.Strand]int{shelf.Book: rng.IntN(3)},
			Due: map[string]int{"1": 1 + rng.IntN(3)}, Last: 5 * rng.Float64()}
		k := knows("direction")
		order, cost := Order(k, items, wish)
		require.Len(t, order, wish.Want)
		o := newOrdering(k, items, wish)
		require.InDelta(t, cheapest(o, wish.Want), cost, 1e-9, "case %d", n)
		var seq []int
		for _, c := range order {
			seq = append(seq, c.Index)
		}
		require.InDelta(t, cost, o.costOf(seq), 1e-9, "the order given has the cost given")
	}
}

func piece(id string, brings, needs []string) shelf.Item {
	return shelf.Item{ID: id, Title: id, Instrument: "piano", Strand: shelf.Book, Book: "Shore", Brings: brings, Needs: needs, Different: 8}
}

func order(k Knows, wish Wish, items ...shelf.Item) (ids []string) {
	wish.Want = len(items)
	if wish.NewSkills == 0 {
		wish.NewSkills = 2
	}
	choices, _ := Order(k, items, wish)
	for _, c := range choices {
		ids = append(ids, items[c.Index].ID)
	}
	return ids
}

func TestWhatAnOrderKeeps(t *testing.T) {
	k := knows("five-fingers", "steps", "steady-beat", "long-notes")
	plain, second := piece("plain", nil, []string{"steps"}), piece("second", nil, []string{"steps"})
	climb := piece("climb", []string{"held-left-hand", "dotted", "syncopation"}, nil)
	higher := piece("higher", []string{"hands-together", "accidentals", "six-levels"}, []string{"held-left-hand"})
	assert.Equal(t, []string{"plain", "second"}, order(k, Wish{}, plain, second), "the book's order, without a reason to change it")
	assert.Equal(t, []string{"climb", "plain", "higher"}, order(k, Wish{}, climb, higher, plain), "a landing between two climbs")
	assert.Equal(t, []string{"climb", "higher"}, order(k, Wish{}, higher, climb), "what brings comes before what needs")
	concert := piece("concert", []string{"rests"}, nil)
	assert.Equal(t, "concert", order(k, Wish{Due: map[string]int{"concert": 1}}, plain, second, concert)[0], "the piece with a date")
	showy, tender := piece("showy", nil, nil), piece("tender", nil, nil)
	showy.Strand, showy.Taste, tender.Strand, tender.Taste = shelf.Repertoire, shelf.Lively, shelf.Repertoire, shelf.Lyrical
	likes := Wish{Want: 1, NewSkills: 2, Taste: map[shelf.Taste]float64{shelf.Lyrical: 1}}
	choices, _ := Order(k, []shelf.Item{showy, tender}, likes)
	assert.Equal(t, 1, choices[0].Index, "the piece that is liked")
	crowded := piece("crowded", []string{"rests", "loud-soft", "skips"}, nil)
	assert.Equal(t, []string{"one", "crowded"}, order(k, Wish{NewSkills: 1}, crowded, piece("one", []string{"skips"}, nil)), "with less new at once")
	slow := order(k, Wish{Graded: true, NewSkills: 9}, climb, plain)
	assert.Equal(t, "plain", slow[0], "graded by difficulty")
	none, cost := Order(k, nil, Wish{Want: 12})
	assert.Empty(t, none)
	assert.Zero(t, cost)
}

func TestLoadShowsItsTerms(t *testing.T) {
	k := knows("five-fingers", "steps", "long-notes")
	k.bars, k.fastest = []float64{8, 8, 8}, 80
	k.prepared["halves"] = 1
	it := shelf.Item{Strand: shelf.Book, Brings: []string{"halves", "held-left-hand"}, Needs: []string{"steps", "dotted"}, Different: 16, Bars: 40, Staves: 2, Tempo: 96}
	l := k.Weigh(it)
	sum, codes := 0.0, []string{}
	for i, term := range l.Terms {
		sum += term.Amount
		codes = append(codes, term.Why.Code)
		if i > 0 {
			assert.LessOrEqual(t, term.Amount, l.Terms[i-1].Amount, "largest first")
		}
	}
	assert.InDelta(t, l.Total, sum, 1e-9)
	assert.InDelta(t, l.Total, k.Total(it), 1e-9)
	assert.ElementsMatch(t, []string{"load-prepared", "load-new", "load-unknown", "load-material", "load-hands", "load-tempo"}, codes)
	assert.Equal(t, []string{"halves", "held-left-hand"}, l.New)
	assert.Equal(t, Climb, l.Slope)

	bars := it
	bars.Bars = 400
	assert.Equal(t, l.Total, k.Total(bars), "different material, not bars")
	cold := k.Clone()
	cold.prepared = map[string]float64{}
	assert.InDelta(t, 0.6*graph["halves"].Weight, cold.Total(it)-l.Total, 1e-9, "what was prepared weighs less")
	k.Learn(it)
	assert.Zero(t, k.Total(shelf.Item{Strand: shelf.Book, Needs: []string{"halves", "hand-shape"}, Different: 8}), "what it brought is known, with what that rests on")
	assert.Positive(t, k.Total(shelf.Item{Strand: shelf.Book, Needs: []string{"dotted"}, Different: 8}), "what it took for granted it does not teach")
}
