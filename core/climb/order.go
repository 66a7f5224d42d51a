package climb

import (
	"cmp"
	"math"
	"math/bits"
	"slices"

	"patientladder/core/judgement"
	"patientladder/core/shelf"
)

// The order of rungs is the sequence of candidates with the least cost. What a
// rung costs depends on the set of rungs before it and on the last of them, so
// that of all sequences with the same set and the same last only the cheapest
// need be kept. Layer by layer this is exact while every such state is kept,
// which exactWidth does up to exactUpTo candidates, and a beam beyond.
const (
	exactUpTo  = 8
	exactWidth = 280 // 8 candidates have at most 8·C(7,3) states in a layer
	width      = 24
	most       = 32 // candidates looked at
)

// A Wish is what an order is asked for.
type Wish struct {
	Want      int  // rungs
	NewSkills int  // at most, in one rung
	Graded    bool // by difficulty, instead of climbs and landings
	Taste     map[shelf.Taste]float64
	Ahead     map[shelf.Strand]int // rungs placed in each lane already
	Due       map[string]int       // by item: the place, from 1, at which it must stand at the latest
	Last      float64              // load of the rung before the first
	KeepLanes bool                 // what comes earlier in a lane should, whatever its book
}

// shares is how many rungs of twelve each lane usually holds.
var shares = map[shelf.Strand]float64{shelf.Book: judgement.OrderBook, shelf.Technique: judgement.OrderTechnique, shelf.Reading: judgement.OrderReading, shelf.Repertoire: judgement.OrderRepertoire}

// A Choice is one rung of an order.
type Choice struct {
	Index      int // of the candidate
	Load       float64
	AfterClimb bool  // comes right after a climb
	Passed     []int // earlier candidates of its book and lane that come later or not at all
}

// Order returns the best order of the wished-for number of candidates and its
// cost. Candidates come in the order of their books. Fewer choices come back
// when there are fewer candidates.
func Order(k Knows, candidates []shelf.Item, wish Wish) ([]Choice, float64) {
	o := newOrdering(k, candidates[:min(len(candidates), most)], wish)
	beam := width
	if len(o.items) <= exactUpTo {
		beam = exactWidth
	}
	layers := [][]state{{{last: -1, load: wish.Last}}}
	type key struct {
		used uint32
		last int
	}
	for range min(wish.Want, len(o.items)) {
		var next []state
		at := map[key]int{}
		for from, s := range layers[len(layers)-1] {
			for free := o.free(s); free != 0; free &= free - 1 {
				t := o.step(s, bits.TrailingZeros32(free))
				t.from = from
				if i, there := at[key{t.used, t.last}]; !there {
					at[key{t.used, t.last}] = len(next)
					next = append(next, t)
				} else if t.cost < next[i].cost {
					next[i] = t
				}
			}
		}
		slices.SortStableFunc(next, func(a, b state) int { return cmp.Compare(a.cost, b.cost) })
		layers = append(layers, next[:min(len(next), beam)])
	}
	return o.trace(layers), layers[len(layers)-1][0].cost
}

// skills is a set of the skills that the candidates speak of.
type skills [2]uint64

func (s skills) or(t skills) skills      { return skills{s[0] | t[0], s[1] | t[1]} }
func (s skills) without(t skills) skills { return skills{s[0] &^ t[0], s[1] &^ t[1]} }
func (s skills) size() int               { return bits.OnesCount64(s[0]) + bits.OnesCount64(s[1]) }
func (s *skills) add(bit int)            { s[bit/64] |= 1 << (bit % 64) }
func (s skills) has(bit int) bool        { return s[bit/64]&(1<<(bit%64)) != 0 }

// A part of a load is borne until its skill is known.
type part struct {
	bit    int
	amount float64
}

// A candidate is an item as the search sees it.
type candidate struct {
	item     shelf.Item
	base     float64 // load whatever comes before
	parts    []part
	fresh    skills // new to the student
	gaps     skills // needed and unknown
	learns   skills // what is known after it
	before   uint32 // candidates that bring what it builds on
	mates    uint32 // earlier candidates of its book and lane
	due      int    // 0 for none
	distaste float64
}

// A state is a set of candidates taken in some order.
type state struct {
	used  uint32
	known skills
	last  int
	load  float64 // of the last
	cost  float64
	from  int // in the layer before
}

type ordering struct {
	items  []candidate
	lanes  map[shelf.Strand]uint32
	placed int // rungs on the ladder already
	wish   Wish
	usual  float64
}

// step returns the state after one more candidate: the one written cost.
func (o *ordering) step(s state, i int) state {
	c := &o.items[i]
	load := c.base
	for _, p := range c.parts {
		if !s.known.has(p.bit) {
			load += p.amount
		}
	}
	place := bits.OnesCount32(s.used) + 1
	cost := judgement.OrderExtraSkill*float64(max(c.fresh.without(s.known).size()-o.wish.NewSkills, 0)) +
		judgement.OrderGap*float64(c.gaps.without(s.known).size()) +
		judgement.OrderSteep*math.Max(load-o.usual-judgement.TooSteep, 0) +
		judgement.OrderSwap*float64(bits.OnesCount32(c.mates&^s.used)) +
		judgement.OrderTaste*c.distaste
	switch {
	case o.wish.Graded:
		cost += judgement.OrderDownhill * math.Max(s.load-load, 0)
	case o.climb(s.load) && o.climb(load):
		cost += judgement.OrderTwoClimbs
	}
	if c.due > 0 {
		cost += judgement.OrderLate * float64(max(place-c.due, 0))
	}
	inLane := o.wish.Ahead[c.item.Strand] + 1 + bits.OnesCount32(s.used&o.lanes[c.item.Strand])
	all := place + o.placed
	cost += judgement.OrderLane * math.Max(float64(inLane)-shares[c.item.Strand]*float64(all)/12-0.5, 0)
	return state{used: s.used | 1<<i, known: s.known.or(c.learns), last: i, load: load, cost: s.cost + cost}
}

func (o *ordering) climb(load float64) bool { return load >= o.usual+judgement.Climb }

// free returns the candidates that may come next: those whose prerequisites
// among the candidates have come. Where candidates wait for each other, all
// that are left may.
func (o *ordering) free(s state) uint32 {
	var ready, left uint32
	for i := range o.items {
		if s.used&(1<<i) != 0 {
			continue
		}
		left |= 1 << i
		if o.items[i].before&^s.used == 0 {
			ready |= 1 << i
		}
	}
	if ready == 0 {
		return left
	}
	return ready
}

func newOrdering(k Knows, items []shelf.Item, wish Wish) *ordering {
	o := &ordering{items: make([]candidate, len(items)), lanes: map[shelf.Strand]uint32{}, wish: wish, usual: k.Usual}
	for _, n := range wish.Ahead {
		o.placed += n
	}
	index := map[string]int{}
	bit := func(id string) int {
		b, there := index[id]
		if !there {
			b = len(index) % 128 // more than 128 skills among 32 items do not occur
			index[id] = b
		}
		return b
	}
	const bothHands = "both hands"
	for i, it := range items {
		c := &o.items[i]
		c.item = it
		o.lanes[it.Strand] |= 1 << i
		k.terms(it, func(amount float64, code, id string, _ float64) {
			if code == "load-hands" {
				id = bothHands
			}
			if id == "" {
				c.base += amount
				return
			}
			c.parts = append(c.parts, part{bit(id), amount})
			switch code {
			case "load-new", "load-prepared":
				c.fresh.add(bit(id))
			case "load-unknown":
				c.gaps.add(bit(id))
			}
		})
		for _, id := range it.Brings {
			c.learns.add(bit(id))
		}
		if it.Staves > 1 {
			c.learns.add(bit(bothHands))
		}
		c.due = wish.Due[it.ID]
		if it.Strand == shelf.Repertoire && it.Taste != "" && len(wish.Taste) > 0 {
			c.distaste = 1 - wish.Taste[it.Taste]
		}
	}
	for i := range o.items {
		for j := range o.items {
			if i == j {
				continue
			}
			a, b := items[i], items[j]
			if j < i && a.Strand == b.Strand && (wish.KeepLanes || a.Book == b.Book && a.Strand != shelf.Repertoire) {
				o.items[i].mates |= 1 << j
			}
			for _, id := range b.Brings {
				if k.state[id].Unmet() && !slices.Contains(a.Brings, id) && (slices.Contains(a.Needs, id) || k.restsOn(a.Brings, id)) {
					o.items[i].before |= 1 << j
				}
			}
		}
	}
	return o
}

// restsOn reports whether one of the skills rests directly on another.
func (k Knows) restsOn(ids []string, below string) bool {
	return slices.ContainsFunc(ids, func(id string) bool { return slices.Contains(k.graph[id].RestsOn, below) })
}

// costOf returns the cost of taking the candidates in the order given.
func (o *ordering) costOf(order []int) float64 {
	s := state{last: -1, load: o.wish.Last}
	for _, i := range order {
		s = o.step(s, i)
	}
	return s.cost
}

// trace follows the cheapest state of the last layer back to the first.
func (o *ordering) trace(layers [][]state) []Choice {
	out := make([]Choice, len(layers)-1)
	i := 0
	for l := len(layers) - 1; l > 0; l-- {
		s := layers[l][i]
		before := layers[l-1][s.from]
		c := Choice{Index: s.last, Load: s.load, AfterClimb: o.climb(before.load)}
		for j := range o.items {
			if o.items[s.last].mates&^before.used&(1<<j) != 0 {
				c.Passed = append(c.Passed, j)
			}
		}
		out[l-1] = c
		i = s.from
	}
	return out
}
