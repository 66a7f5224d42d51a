package climb

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// Both sides of the bounds of rules.

// A break begins a day after the last that counts, and is forgotten after two lessons.
func TestWhatIsABreak(t *testing.T) {
	most := int(judgement.BreakDays)
	const today = calendar.Date("2026-11-18")
	closed := func(ago ...int) ladder.Standing {
		s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
		for _, n := range ago {
			s.Closed[today.Add(-n)] = today.Add(-n).Time()
		}
		return s
	}
	for _, c := range []struct {
		ago  []int // days since each closed lesson
		want Break
	}{
		{[]int{most}, Break{}}, {[]int{most + 1}, Break{most + 1, 0}},
		{[]int{7, 7 + most}, Break{}}, {[]int{7, 8 + most}, Break{most + 1, 1}},
		{[]int{7, 14, 15 + most}, Break{}},       // two lessons since
		{[]int{0, 1 + most}, Break{most + 1, 1}}, // today's own is one
		{[]int{200}, Break{200, 0}}, {[]int{7, 207}, Break{200, 1}},
		{nil, Break{}},
	} {
		got := breakOf(closed(c.ago...), today)
		assert.Equal(t, c.want, got, "%v days ago", c.ago)
		assert.Equal(t, c.want.Days > 0, got.Light())
		assert.Equal(t, c.want.Days > 0 && c.want.Lessons == 0, got.First())
	}
}

// What is far below a student, and what asks for too much.
func TestWhatIsNotOffered(t *testing.T) {
	k := knows("five-fingers", "steps")
	k.bars = []float64{10, 10, 10, 10, 10}
	tune := func(bars int, strand shelf.Strand, needs ...string) shelf.Item {
		return shelf.Item{Strand: strand, Different: bars, Needs: needs}
	}
	for _, c := range []struct {
		it    shelf.Item
		bars  []float64
		below bool
	}{
		{tune(3, shelf.Repertoire, "steps"), k.bars, true},
		{tune(4, shelf.Repertoire, "steps"), k.bars, false}, // two and a half times is not more than that
		{tune(3, shelf.Book, "steps"), k.bars, false},
		{tune(3, shelf.Repertoire, "dotted"), k.bars, false},
		{tune(0, shelf.Repertoire, "steps"), k.bars, false},
		{tune(3, shelf.Repertoire, "steps"), k.bars[:4], false}, // too few to tell
		{tune(3, shelf.Repertoire), []float64{1, 1, 8, 20, 20}, true},
		{tune(3, shelf.Repertoire), []float64{1, 1, 7, 20, 20}, false}, // by the middle one
	} {
		k.bars = c.bars
		assert.Equal(t, c.below, k.below(c.it), "%+v of %v", c.it, c.bars)
	}
	assert.Equal(t, 2, k.unknown(tune(8, shelf.Book, "steps", "dotted", "rests", "no-such-skill")))
	k.state["rests"] = upkeep.Tasted
	assert.Equal(t, 2, k.unknown(tune(8, shelf.Book, "dotted", "rests")), "tasted is not met")
}

// From which place of the shelf each lane goes on.
func TestWhereTheBooksGoOn(t *testing.T) {
	item := func(id string, strand shelf.Strand, unit string) shelf.Item {
		return shelf.Item{ID: id, Strand: strand, Book: "Shore", Unit: unit, Instrument: "piano"}
	}
	items := []shelf.Item{item("a", shelf.Book, "1"), item("t1", shelf.Technique, "1"), item("b", shelf.Book, "2"), item("t2", shelf.Technique, "2"), item("r2", shelf.Reading, "2"), item("c", shelf.Book, "3"), item("tune", shelf.Repertoire, "3")}
	chosen := map[string]bool{"Shore": true}
	rung := func(i int) ladder.Rung { return ladder.Rung{ID: items[i].ID, Item: items[i], Strand: items[i].Strand} }
	for _, c := range []struct {
		name  string
		began string
		on    []int
		want  map[shelf.Strand]int
	}{
		{"empty, from the foot", "", nil, map[shelf.Strand]int{}},
		{"empty, from a unit on", "r2", nil, map[shelf.Strand]int{shelf.Book: 2, shelf.Technique: 2, shelf.Reading: 2, shelf.Repertoire: 2}},
		{"after the last of a lane; other lanes from the lowest rung's unit", "", []int{2, 5}, map[shelf.Strand]int{shelf.Book: 6, shelf.Technique: 2, shelf.Reading: 2, shelf.Repertoire: 2}},
		{"the lowest of several lanes", "", []int{5, 3}, map[shelf.Strand]int{shelf.Book: 6, shelf.Technique: 4, shelf.Reading: 2, shelf.Repertoire: 2}},
		{"repertoire says nothing", "", []int{6}, map[shelf.Strand]int{}},
	} {
		st := someone("2026-11-18", ladder.Standing{Began: c.began}, items...)
		st.Shelf = items
		for _, i := range c.on {
			st.Standing.Rungs = append(st.Standing.Rungs, rung(i))
		}
		assert.Equal(t, c.want, starts(st, chosen), c.name)
	}
	for at, want := range map[int]int{0: 0, 1: 0, 2: 2, 4: 2, 5: 5, 6: 5} {
		assert.Equal(t, want, unitOf(items, at))
	}
	assert.Nil(t, Presumed(skill.Catalogue(), items, "none"))
}

// How much of each lane is looked at.
func TestHowManyCandidates(t *testing.T) {
	var items []shelf.Item
	for i := range 12 {
		for _, s := range shelf.Strands {
			items = append(items, shelf.Item{ID: fmt.Sprint(s, i), Strand: s, Book: "Shore", Unit: "1", Instrument: "piano"})
		}
	}
	st := someone("2026-11-18", ladder.Standing{Books: []string{"Shore"}}, items...)
	count := map[shelf.Strand]int{}
	for _, it := range candidates(st, Begin(st.Graph, nil)) {
		count[it.Strand]++
	}
	assert.Equal(t, map[shelf.Strand]int{shelf.Book: 9, shelf.Technique: 5, shelf.Reading: 4, shelf.Repertoire: 8}, count)
	st.Standing.Books = []string{"Another"}
	assert.Empty(t, candidates(st, Begin(st.Graph, nil)))
}

// Songs have no order: those that fit best are weighed, wherever they stand on the shelf.
func TestSongsThatFit(t *testing.T) {
	g := skill.Graph{}
	for i := range 12 {
		g[fmt.Sprint("s", i)] = skill.Skill{ID: fmt.Sprint("s", i), Weight: 1}
	}
	song := func(id string, skills int) shelf.Item {
		it := shelf.Item{ID: id, Strand: shelf.Repertoire, Book: "Songs", Instrument: "piano"}
		for i := range skills {
			it.Brings = append(it.Brings, fmt.Sprint("s", i))
		}
		return it
	}
	var items []shelf.Item
	for i := range 9 {
		items = append(items, song(fmt.Sprint("heavy", i), 9))
	}
	items = append(items, song("right", 2), song("light", 1))
	st := someone("2026-11-18", ladder.Standing{Books: []string{"Songs"}}, items...)
	st.Graph = g
	k := Begin(g, nil)
	k.Usual = 2
	var got []string
	for _, it := range candidates(st, k) {
		got = append(got, it.ID)
	}
	assert.Len(t, got, songs)
	assert.Contains(t, got, "right")
	assert.Contains(t, got, "light")
	assert.NotContains(t, got, "heavy8", "the last of those that are too heavy gives way")
}

// What is said of a proposed rung.
func TestWhyARungIsProposed(t *testing.T) {
	k := knows("five-fingers", "steps")
	k.Usual = 1
	why := func(wish Wish, at int, items ...shelf.Item) (codes []string) {
		wish.Want, wish.NewSkills = len(items), 9
		for _, r := range choose(k, items, wish)[at].Why {
			codes = append(codes, r.Code)
		}
		return codes
	}
	plain, climb := piece("plain", nil, nil), piece("climb", []string{"held-left-hand", "dotted", "syncopation"}, nil)
	assert.Equal(t, []string{"next-in-book"}, why(Wish{}, 0, plain))
	assert.Equal(t, []string{"next-in-book", "a-climb"}, why(Wish{}, 0, climb))
	assert.Equal(t, []string{"landing-after-climb"}, why(Wish{Last: 9}, 0, plain))
	tune := plain
	tune.Strand, tune.Taste = shelf.Repertoire, shelf.Lively
	for share, want := range map[float64]string{0.5: "to-taste", 0.49: "next-in-book"} {
		assert.Equal(t, []string{want}, why(Wish{Taste: map[shelf.Taste]float64{shelf.Lively: share}}, 0, tune), "%v", share)
	}
	needs := piece("needs", nil, []string{"rests"})
	assert.Equal(t, []string{"before-in-book"}, why(Wish{}, 0, needs, piece("brings", []string{"rests"}, nil)))
}

// A rung is a jump when it is much above the usual even with all that can be prepared.
func TestWhatIsTooSteep(t *testing.T) {
	g := skill.Graph{}
	for id, w := range map[string]float64{"x": 3, "y": 0.5, "z": 1} {
		g[id] = skill.Skill{ID: id, Name: id, Weight: w}
	}
	st := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{{ID: "r", Strand: shelf.Book, Item: piece("r", []string{"x", "y"}, []string{"z"})}}})
	st.Graph = g
	p := Reckon(st)
	total := p.Loads["r"].Total
	require.InDelta(t, 3.5+judgement.LoadUnknown, total, 1e-9)
	for _, c := range []struct {
		usual float64
		jump  bool
	}{{total - judgement.TooSteep, false}, {total - judgement.TooSteep - 0.01, true}} {
		q := p
		q.Usual, q.Jumps, q.Moves = c.usual, nil, nil
		q.jumps(st)
		assert.Equal(t, c.jump, len(q.Jumps) == 1, "usual %v", c.usual)
		if c.jump {
			j := q.Jumps[0]
			assert.InDelta(t, judgement.TooSteep+0.01, j.Over, 1e-9)
			assert.Equal(t, []string{"z"}, j.Lacks)
			assert.Equal(t, []string{"x", "y"}, j.Load.New)
		}
	}
	// the bridge that eases most, if it eases enough and is not steep itself
	bridge := func(id string, weight float64, brings ...string) shelf.Item { return piece(id, brings, nil) }
	p.Usual = total - judgement.TooSteep - 0.01
	for _, c := range []struct {
		name  string
		shelf []shelf.Item
		want  string
	}{
		{"none", nil, ""},
		{"one that takes off enough", []shelf.Item{bridge("z", 1, "z")}, map[bool]string{true: "z"}[judgement.LoadUnknown >= judgement.BridgeEases]},
		{"the better of two", []shelf.Item{bridge("y", 0.5, "y"), bridge("yz", 1.5, "y", "z")}, "yz"},
		{"and the first of two alike", []shelf.Item{bridge("one", 1, "y", "z"), bridge("two", 1, "z", "y")}, "one"},
		{"of another matter", []shelf.Item{piece("else", []string{"other"}, nil)}, ""},
	} {
		st.Shelf, p.Jumps = c.shelf, nil
		q := p
		q.jumps(st)
		got := ""
		if b := q.Jumps[0].Bridge; b != nil {
			got = b.ID
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

// How far head starts on an item's new skills can be, some weeks on.
func TestWhatCanBePreparedByThen(t *testing.T) {
	n := graph["dotted"].Weeks()
	require.Greater(t, n, 1)
	for _, c := range []struct{ weeks, had, want float64 }{
		{0, 0, 0}, {0.9, 0, 0}, {1, 0, 1 / float64(n)}, {float64(n), 0, 1}, {99, 0, 1}, {1, 0.9, 0.9},
	} {
		k := knows()
		k.prepared["dotted"] = c.had
		got := k.foreseen(shelf.Item{Brings: []string{"dotted", "no-chain"}}, c.weeks)
		assert.InDelta(t, c.want, got.prepared["dotted"], 1e-12, "%+v", c)
		assert.NotContains(t, got.prepared, "no-chain")
		assert.Equal(t, c.had, k.prepared["dotted"], "what was known stays")
	}
}

// The signs that a rung sticks, each on both sides of its bound.
func TestSignsOfARungThatSticks(t *testing.T) {
	tries := func(n int) (out []ladder.Try) {
		for range n {
			out = append(out, ladder.Try{Outcome: "not-yet"})
		}
		return out
	}
	met := []ladder.Point{{Key: "rhythm", State: ladder.Met}}
	for _, c := range []struct {
		name string
		r    ladder.Rung
		want []string
	}{
		{"nothing", ladder.Rung{Points: met, Best: 1}, nil},
		{"a try too few", ladder.Rung{Tries: tries(int(judgement.StuckTries) - 1)}, nil},
		{"tries enough", ladder.Rung{Tries: tries(int(judgement.StuckTries))}, []string{"tries-failed"}},
		{"a point too few lost", ladder.Rung{Points: met, Best: int(judgement.StuckFalling)}, nil},
		{"points lost", ladder.Rung{Points: met, Best: int(judgement.StuckFalling) + 1}, []string{"points-lost"}},
	} {
		c.r.ID, c.r.Strand, c.r.Taught, c.r.Item = "r", shelf.Book, day("2026-11-11"), piece("r", nil, nil)
		st := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{c.r}})
		var signs []string
		for _, s := range Reckon(st).StuckRungs(st) {
			for _, w := range s.Signs {
				signs = append(signs, w.Code)
			}
		}
		assert.Equal(t, c.want, signs, c.name)
	}
	st := someone("2026-11-18", ladder.Standing{Rungs: []ladder.Rung{{ID: "r", Strand: shelf.Book, Tries: tries(9), Item: piece("r", nil, nil)}}})
	assert.Empty(t, Reckon(st).StuckRungs(st), "what has not begun cannot stick")
}

// How likely each remedy is.
func TestHowRemediesWeigh(t *testing.T) {
	weigh := func(r ladder.Rung, change func(*Path), s ladder.Standing) map[string]float64 {
		r.ID, r.Strand, r.Taught = "r", shelf.Book, day("2026-11-11")
		s.Rungs = append(s.Rungs, r)
		st := someone("2026-11-18", s, piece("easy", nil, []string{"steps"}))
		p := Reckon(st)
		change(&p)
		out := map[string]float64{}
		for _, m := range p.remedies(st, r) {
			out[m.Do] = m.weight
		}
		return out
	}
	open := func(n int) (out []ladder.Point) {
		for i := range n {
			out = append(out, ladder.Point{Key: fmt.Sprint("p", i), Name: "P", State: ladder.Open})
		}
		return out
	}
	none := func(*Path) {}
	bars := func(n int) ladder.Rung { return ladder.Rung{Item: shelf.Item{Strand: shelf.Book, Different: n}} }
	assert.NotContains(t, weigh(bars(4), none, ladder.Standing{}), "split", "four bars are one piece")
	assert.InDelta(t, judgement.RemedySplit+judgement.RemedySplitBars*5, weigh(bars(5), none, ladder.Standing{})["split"], 1e-12)
	two, three := bars(4), bars(4)
	two.Points, three.Points = open(2), open(3)
	assert.NotContains(t, weigh(two, none, ladder.Standing{}), "fewer-points")
	assert.InDelta(t, judgement.RemedyFewer+judgement.RemedyFewerEach*3, weigh(three, none, ladder.Standing{})["fewer-points"], 1e-12)
	assert.InDelta(t, float64(judgement.RemedyHand), weigh(bars(4), none, ladder.Standing{})["seat-and-hand"], 1e-12)
	bodily, own, done := bars(4), bars(4), bars(4)
	bodily.Points = []ladder.Point{{Key: "even-strokes", State: ladder.Open}}
	own.Points = []ladder.Point{{Key: "mine", Own: true}}
	done.Points = []ladder.Point{{Key: "tone", State: ladder.Met}}
	assert.InDelta(t, float64(judgement.RemedyHandPoint), weigh(bodily, none, ladder.Standing{})["seat-and-hand"], 1e-12)
	assert.InDelta(t, float64(judgement.RemedyHandPoint), weigh(own, none, ladder.Standing{})["seat-and-hand"], 1e-12)
	assert.InDelta(t, float64(judgement.RemedyHand), weigh(done, none, ladder.Standing{})["seat-and-hand"], 1e-12)
	needy := bars(4)
	needy.Item.Needs = []string{"dotted"}
	w := graph["dotted"].Weight
	unknown := func(p *Path) { delete(p.Known.State, "dotted") }
	assert.InDelta(t, judgement.RemedyNeeded*w, weigh(needy, unknown, ladder.Standing{})["prerequisite"], 1e-12)
	learning := func(p *Path) { p.Known.State["dotted"] = upkeep.Learning }
	assert.InDelta(t, judgement.RemedyNeeded*w*judgement.RemedyLearning, weigh(needy, learning, ladder.Standing{})["prerequisite"], 1e-12)
	needy.Item.Brings = []string{"dotted"}
	assert.NotContains(t, weigh(needy, learning, ladder.Standing{}), "prerequisite", "what it brings itself is not missing")
	assert.NotContains(t, weigh(needy, func(p *Path) { p.Known.State["dotted"] = upkeep.Secure }, ladder.Standing{}), "prerequisite")
	steps := bars(4)
	steps.Item.Needs = []string{"steps"}
	known := func(usual, load float64) func(*Path) {
		return func(p *Path) {
			p.now.know("steps")
			p.Usual, p.Loads["r"] = usual, Load{Total: load}
		}
	}
	assert.InDelta(t, float64(judgement.RemedyEasier), weigh(steps, known(2, 2), ladder.Standing{})["easier"], 1e-12)
	assert.InDelta(t, float64(judgement.RemedyHeavy), weigh(steps, known(2, 2.1), ladder.Standing{})["easier"], 1e-12)
	assert.NotContains(t, weigh(steps, known(judgement.Landing-0.01, 2), ladder.Standing{}), "easier", "nothing that is a landing")
}

// The newest secure rung that carries a skill is brought back.
func TestWhichRungCarries(t *testing.T) {
	r := func(id, foothold string, skills ...string) ladder.Rung {
		out := ladder.Rung{ID: id, Item: shelf.Item{Brings: skills}}
		if foothold != "" {
			out.Foothold = day(foothold)
		}
		return out
	}
	s := ladder.Standing{Rungs: []ladder.Rung{r("old", "2026-09-02", "rests"), r("new", "2026-10-07", "rests"), r("middle", "2026-09-30", "rests"), r("hand", "", "rests"), r("else", "2026-11-04", "dotted")}}
	got, ok := carrier(s, "rests")
	assert.Equal(t, "new", got.ID)
	assert.True(t, ok)
	_, ok = carrier(s, "skips")
	assert.False(t, ok)
}

// No move is named where the order as it is costs little, or little more than the best.
func TestMovesAreWorthIt(t *testing.T) {
	lane := func(n int) (out []ladder.Rung) {
		for i := range n {
			id := fmt.Sprintf("r%02d", i)
			out = append(out, ladder.Rung{ID: id, Item: piece(id, nil, nil), Strand: shelf.Book})
		}
		out[n-1].Target = "2026-12-02" // at once
		return out
	}
	// the lowest of the lane is next: it is not moved
	for n, moved := range map[int]bool{1: false, 2: false, 6: true, rungsAhead + 5: true, rungsAhead + 6: false} {
		p := Reckon(someone("2026-11-18", ladder.Standing{Rungs: lane(n)}))
		assert.Equal(t, moved, len(p.Moves) > 0, "%d rungs", n)
		if n == 6 {
			assert.Equal(t, "", p.Moves[0].After, "to the foot of what is ahead")
		}
	}
	// a rung that comes too early for what it needs moves above what brings it
	rungs := []ladder.Rung{{ID: "first", Item: piece("first", nil, nil), Strand: shelf.Book}, {ID: "needs", Item: piece("needs", []string{"syncopation"}, []string{"dotted", "held-left-hand"}), Strand: shelf.Book}, {ID: "brings", Item: piece("brings", []string{"dotted", "held-left-hand"}, nil), Strand: shelf.Book}}
	p := Reckon(someone("2026-11-18", ladder.Standing{Rungs: rungs}))
	require.NotEmpty(t, p.Moves)
	assert.Equal(t, []string{"brings", ""}, []string{p.Moves[0].Rung.ID, p.Moves[0].After})
	assert.Equal(t, "move-brings", p.Moves[0].Why.Code)
}

// A path counts what has been taught since, and no date before there was a lesson.
func TestTaughtWeeks(t *testing.T) {
	lessons := Taught{"2026-11-04", "2026-11-11", "2026-11-18"}
	for _, c := range []struct {
		from, to calendar.Date
		want     float64
	}{
		{"2026-11-04", "2026-11-04", 0.5}, {"2026-11-04", "2026-11-10", 0.5}, {"2026-11-04", "2026-11-11", 1}, {"2026-11-03", "2026-11-11", 2}, {"2026-11-05", "2026-11-18", 2}, {"2026-11-18", "2026-12-31", 0.5},
	} {
		assert.Equal(t, c.want, lessons.Weeks(c.from, c.to), "%s to %s", c.from, c.to)
	}
	assert.True(t, math.Abs(Prior.Range().times(2).Mid-2*Prior.Range().Mid) < 1e-12)
}
