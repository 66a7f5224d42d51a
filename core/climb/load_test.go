package climb

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// What an item weighs, term by term, of skills that weigh 1 and 2: the sums by hand from
// the numbers that the app shows (core/judgement).
func TestTermsOfALoad(t *testing.T) {
	g := skill.Graph{"one": {ID: "one", Name: "One", Weight: 1}, "two": {ID: "two", Name: "Two", Weight: 2}}
	piece := func(change func(*shelf.Item)) shelf.Item {
		it := shelf.Item{Strand: shelf.Book, Different: 8}
		change(&it)
		return it
	}
	for _, c := range []struct {
		name  string
		it    shelf.Item
		knows func(*Knows)
		want  float64
		codes []string
	}{
		{"nothing new", piece(func(*shelf.Item) {}), nil, 0, []string{}},
		{"two new skills", piece(func(it *shelf.Item) { it.Brings = []string{"one", "two"} }), nil, 3, []string{"load-new", "load-new"}},
		{"one half prepared", piece(func(it *shelf.Item) { it.Brings = []string{"two"} }), func(k *Knows) { k.prepared["two"] = 0.5 }, 2 * (1 - 0.6*0.5), []string{"load-prepared"}},
		{"wholly prepared", piece(func(it *shelf.Item) { it.Brings = []string{"two"} }), func(k *Knows) { k.prepared["two"] = 1 }, 2 * 0.4, []string{"load-prepared"}},
		{"brought again while it is learnt", piece(func(it *shelf.Item) { it.Brings = []string{"two"} }), func(k *Knows) { k.state["two"] = upkeep.Learning }, 2 * 0.35, []string{"load-learning"}},
		{"brought again, secure", piece(func(it *shelf.Item) { it.Brings = []string{"two"} }), func(k *Knows) { k.state["two"] = upkeep.Secure }, 0, []string{}},
		{"needed and rusty", piece(func(it *shelf.Item) { it.Needs = []string{"two"} }), func(k *Knows) { k.state["two"] = upkeep.Rusty }, 2 * 0.5, []string{"load-rusty"}},
		{"needed and learning", piece(func(it *shelf.Item) { it.Needs = []string{"one"} }), func(k *Knows) { k.state["one"] = upkeep.Learning }, 0.35, []string{"load-learning"}},
		{"needed and unknown", piece(func(it *shelf.Item) { it.Needs = []string{"two"} }), nil, 2 * 1.15, []string{"load-unknown"}},
		{"needed, but not in the graph", piece(func(it *shelf.Item) { it.Needs = []string{"none"} }), nil, 0, []string{}},
		{"twice the bars of recent pieces", piece(func(it *shelf.Item) { it.Different = 16 }), func(k *Knows) { k.bars = []float64{8, 8, 8} }, 0.8, []string{"load-material"}},
		{"as many", piece(func(*shelf.Item) {}), func(k *Knows) { k.bars = []float64{8} }, 0, []string{}},
		{"fewer take nothing off", piece(func(it *shelf.Item) { it.Different = 4 }), func(k *Knows) { k.bars = []float64{8} }, 0, []string{}},
		{"the middle of the recent ones counts", piece(func(it *shelf.Item) { it.Different = 16 }), func(k *Knows) { k.bars = []float64{40, 8, 2} }, 0.8, []string{"load-material"}},
		{"a technique page is no material", piece(func(it *shelf.Item) { it.Strand, it.Different = shelf.Technique, 64 }), func(k *Knows) { k.bars = []float64{8} }, 0, []string{}},
		{"without recent pieces nothing is long", piece(func(it *shelf.Item) { it.Different = 64 }), nil, 0, []string{}},
		{"the first for both hands", piece(func(it *shelf.Item) { it.Staves = 2 }), nil, 0.8, []string{"load-hands"}},
		{"not the second", piece(func(it *shelf.Item) { it.Staves = 2 }), func(k *Knows) { k.twoHands = true }, 0, []string{}},
		{"one staff", piece(func(it *shelf.Item) { it.Staves = 1 }), nil, 0, []string{}},
		{"a fifth faster than the fastest", piece(func(it *shelf.Item) { it.Tempo = 120 }), func(k *Knows) { k.fastest = 100 }, 0.5, []string{"load-tempo"}},
		{"as fast", piece(func(it *shelf.Item) { it.Tempo = 100 }), func(k *Knows) { k.fastest = 100 }, 0, []string{}},
		{"no tempo written", piece(func(*shelf.Item) {}), func(k *Knows) { k.fastest = 100 }, 0, []string{}},
		{"no tempo known", piece(func(it *shelf.Item) { it.Tempo = 200 }), nil, 0, []string{}},
	} {
		k := Begin(g, nil)
		if c.knows != nil {
			c.knows(&k)
		}
		load := k.Weigh(c.it)
		codes := []string{}
		for _, term := range load.Terms {
			codes = append(codes, term.Why.Code)
		}
		assert.InDelta(t, c.want, load.Total, 1e-9, c.name)
		assert.InDelta(t, c.want, k.Total(c.it), 1e-9, c.name)
		assert.Equal(t, c.codes, codes, c.name)
	}
}

// A climb is one over the usual, a landing six tenths under it: both sides.
func TestSlopes(t *testing.T) {
	k := Knows{Usual: 2}
	for total, want := range map[float64]Slope{3: Climb, 2.99: Step, 2: Step, 1.41: Step, 1.4: Landing, 0: Landing} {
		assert.Equal(t, want, k.slope(total), "%g", total)
	}
}

// Of what the bars are counted: different ones, all where no score tells, a key's of a
// cycle, and those of a piece in parts together.
func TestMaterial(t *testing.T) {
	parts := shelf.PartsOf("C", "G", "D", "A")
	for _, c := range []struct {
		it   shelf.Item
		want float64
	}{
		{shelf.Item{Bars: 16}, 16}, {shelf.Item{Bars: 16, Different: 6}, 6}, {shelf.Item{}, 0},
		{shelf.Item{Bars: 16, Different: 8, Parts: parts}, 8}, {shelf.Item{Different: 8, Parts: parts, Exercise: "cycle right"}, 2},
		{shelf.Item{Different: 8, Exercise: "scale C"}, 8}, {shelf.Item{Different: 8, Parts: parts[:1], Exercise: "scale C"}, 8}, {shelf.Item{Bars: 7, Parts: parts, Exercise: "cycle"}, 7},
	} {
		assert.Equal(t, c.want, material(c.it), "%+v", c.it)
	}
}

// What an item leaves behind: its skills and what they rest on, the bars of the last five
// pieces, both hands, the fastest tempo; and a copy goes on by itself.
func TestWhatIsLearnt(t *testing.T) {
	g := skill.Graph{"base": {ID: "base"}, "top": {ID: "top", RestsOn: []string{"base"}}}
	k := Begin(g, nil)
	copied := k.Clone()
	for n := 1; n <= 6; n++ {
		k.Learn(shelf.Item{Strand: shelf.Book, Different: n, Brings: []string{"top"}, Staves: 2, Tempo: float64(60 * n)})
	}
	k.Learn(shelf.Item{Strand: shelf.Reading, Different: 99})
	assert.Equal(t, []float64{2, 3, 4, 5, 6}, k.bars)
	assert.Equal(t, []any{true, 360.0, true, true}, []any{k.twoHands, k.fastest, k.Has("base"), k.Has("top")})
	assert.False(t, copied.Has("top"))
	assert.Empty(t, copied.bars)
	presumed := Begin(g, []string{"top"})
	assert.True(t, presumed.Has("base"))
	loads := Along(Begin(skill.Graph{"a": {ID: "a", Weight: 2}}, nil), []shelf.Item{{Brings: []string{"a"}}, {Brings: []string{"a"}}})
	assert.Equal(t, []float64{2, 0}, []float64{loads[0].Total, loads[1].Total}, "new once")
}

// The usual load: 2.2 counted four times, and each finished rung's own, those in parts
// left out.
func TestTheUsualLoad(t *testing.T) {
	g := skill.Graph{"a": {ID: "a", Weight: 3}, "b": {ID: "b", Weight: 1}}
	done := ladder.Rung{ID: "a", Item: shelf.Item{Brings: []string{"a"}}, Taught: day("2026-09-09"), Foothold: day("2026-10-01")}
	later := ladder.Rung{ID: "b", Item: shelf.Item{Brings: []string{"a", "b"}}, Taught: day("2026-10-14")}
	s := ladder.Standing{Rungs: []ladder.Rung{later, done, {ID: "c"}}}
	loads, usual := begun(s, g, nil)
	assert.Equal(t, map[string]float64{"a": 3, "b": 1}, loads, "in the order in which they were taught")
	assert.InDelta(t, (4*2.2+3)/5, usual, 1e-9)
	s.Rungs[1].Parts = []ladder.Part{{ID: "one"}}
	_, usual = begun(s, g, nil)
	assert.InDelta(t, 2.2, usual, 1e-9)
}
