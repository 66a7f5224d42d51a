package climb

import (
	"math"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// Figures worked out by hand, from the formulas as they are written down.

// Two rungs of two and of eight weeks: Gelman et al., section 3.3.
func TestLearningByHand(t *testing.T) {
	p := Pace{Mu: 1, Kappa: 2, Alpha: 3, Beta: 0.5}
	got := p.Learn([]float64{2, 8})
	mean, spread := math.Log(4), 2*math.Ln2*math.Ln2
	assert.InDelta(t, (2*1+2*mean)/4, got.Mu, 1e-12)
	assert.InDelta(t, 4, got.Kappa, 1e-12)
	assert.InDelta(t, 4, got.Alpha, 1e-12)
	assert.InDelta(t, 0.5+spread/2+2*2*(mean-1)*(mean-1)/(2*4), got.Beta, 1e-12)
	assert.Equal(t, p, p.Learn(nil))
}

// A conditional range against a sum over thousands of values.
func TestGivenAgainstASum(t *testing.T) {
	for _, c := range []struct {
		spent       float64
		met, points int
	}{{1, 0, 0}, {1, 0, 3}, {2, 3, 4}, {5, 1, 6}, {8, 4, 4}} {
		dist := Prior.weeks()
		const steps = 40000
		from := math.Log(c.spent)
		step := (math.Max(from, Prior.Mu) + 12*dist.Sigma - from) / steps
		var mass [steps]float64
		total := 0.0
		for i := range mass {
			x := from + (float64(i)+0.5)*step
			share := c.spent / math.Exp(x)
			mass[i] = dist.Prob(x) * math.Pow(share, float64(c.met)) * math.Pow(1-share, float64(c.points-c.met))
			total += mass[i]
		}
		quantile := func(q float64) float64 {
			sum := 0.0
			for i, m := range mass {
				if sum += m; sum >= q*total {
					return math.Exp(from + float64(i)*step)
				}
			}
			return math.Inf(1)
		}
		got := Prior.Given(c.spent, c.met, c.points)
		for q, is := range map[float64]float64{0.1: got.Low, 0.5: got.Mid, 0.9: got.High} {
			assert.InEpsilon(t, quantile(q), is, 0.02, "%+v at %v", c, q)
		}
	}
	assert.Equal(t, Prior.Range(), Prior.Given(0, 1, 3), "not begun")
}

func TestEffortByHand(t *testing.T) {
	for _, c := range []struct{ load, usual, want float64 }{
		{2, 2, 1}, {5, 2, math.Pow(2, judgement.PaceEffort)}, {0, 3, math.Pow(0.25, judgement.PaceEffort)}, {-1, 3, math.Pow(0.25, judgement.PaceEffort)},
	} {
		assert.InDelta(t, c.want, Effort(c.load, c.usual), 1e-12, "%+v", c)
	}
}

// A pace is learnt from finished rungs alone, each by its effort; one in parts by the part.
func TestPaceOfByHand(t *testing.T) {
	lessons := Taught{"2026-09-09", "2026-09-16", "2026-09-23", "2026-09-30", "2026-10-07", "2026-10-14", "2026-10-21"}
	s := ladder.Standing{Rungs: []ladder.Rung{
		{ID: "done", Taught: day("2026-09-09"), Foothold: day("2026-09-30")},
		{ID: "parts", Taught: day("2026-09-09"), Foothold: day("2026-10-21"), Parts: make([]ladder.Part, 3)},
		{ID: "hand", Taught: day("2026-09-09")},
		{ID: "gift", Foothold: day("2026-09-09")},
	}}
	got := paceOf(s, nil, lessons, map[string]float64{"done": 5, "parts": 9}, 2, nil)
	assert.Equal(t, Prior.Among(nil).Learn([]float64{3 / math.Pow(2, judgement.PaceEffort), 2}), got)
}

// The days of lessons some taught weeks on.
func TestTheDayOfALesson(t *testing.T) {
	days := func() *lessonDays { return &lessonDays{c: terms, slot: wednesdays, day: "2026-11-18"} }
	for _, c := range []struct {
		weeks float64
		want  calendar.Date
	}{
		{0, "2026-11-25"}, {0.5, "2026-11-25"}, {1, "2026-11-25"}, {1.01, "2026-12-02"}, {2, "2026-12-02"}, {3, "2026-12-09"},
		{4, "2027-01-13"}, // after the holidays
		{14, "2027-03-24"}, {15, ""}, {99, ""},
	} {
		assert.Equal(t, c.want, days().after(c.weeks), "%v weeks", c.weeks)
	}
	d := days()
	for _, weeks := range []float64{3, 1, 99, 2} { // in whatever order
		assert.Equal(t, days().after(weeks), d.after(weeks))
	}
}

// Where the rungs of a lane begin and end.
func TestAForecastByHand(t *testing.T) {
	pace := Pace{Mu: math.Log(3), Kappa: 50, Alpha: 50, Beta: 5}
	fresh := pace.Range()
	const today = calendar.Date("2026-11-18")
	lessons := Taught{"2026-10-07", "2026-10-14", "2026-10-21", "2026-11-04", "2026-11-11", "2026-11-18"}
	cycle := shelf.Item{Exercise: "cycle major both", Parts: shelf.PartsOf("C", "G"), Brings: []string{"scale-two"}}
	run := func(path ...ladder.Rung) []Expected {
		return forecast(path, pace, map[string]float64{"heavy": 5}, 2, lessons, terms, wednesdays, today)
	}
	got := run(ladder.Rung{ID: "one", Strand: shelf.Book}, ladder.Rung{ID: "heavy", Strand: shelf.Book}, ladder.Rung{ID: "other", Strand: shelf.Reading})
	effort := math.Pow(2, judgement.PaceEffort)
	light := math.Pow(1/3.0, judgement.PaceEffort) // of a rung without a load
	assert.InDelta(t, fresh.Mid*light, got[0].In.Mid, 1e-9)
	assert.InDelta(t, got[0].In.Mid, got[1].FromIn, 1e-9)
	assert.InDelta(t, fresh.Mid*effort+got[0].In.Mid, got[1].In.Mid, 1e-9)
	assert.InDelta(t, fresh.High*effort+got[0].In.Mid, got[1].In.High, 1e-9)
	assert.Zero(t, got[2].FromIn)
	hand := run(ladder.Rung{ID: "hand", Strand: shelf.Book, Taught: day("2026-11-04")}, ladder.Rung{ID: "next", Strand: shelf.Book})
	assert.Equal(t, 2.0, hand[0].Spent)
	want := pace.Given(2/light, 0, 0).times(light)
	assert.InDelta(t, math.Max(want.Mid-2, 0.2), hand[0].In.Mid, 1e-9)
	assert.InDelta(t, want.High-2, hand[0].In.High, 1e-9)
	assert.InDelta(t, hand[0].In.Mid, hand[1].FromIn, 1e-9)
	late := run(ladder.Rung{ID: "late", Strand: shelf.Book, Taught: day("2026-10-01")}, ladder.Rung{ID: "second", Strand: shelf.Book, Taught: day("2026-11-11")})
	assert.Zero(t, late[1].FromIn, "what is in hand has begun")
	beside := run(ladder.Rung{ID: "cycle", Strand: shelf.Technique, Item: cycle, Taught: day("2026-11-11"), Parts: make([]ladder.Part, 2)}, ladder.Rung{ID: "beside", Strand: shelf.Technique})
	assert.Zero(t, beside[1].FromIn, "what stands beside a cycle in hand does not wait for it")
	behind := run(ladder.Rung{ID: "cycle", Strand: shelf.Technique, Item: cycle, Parts: make([]ladder.Part, 2)}, ladder.Rung{ID: "behind", Strand: shelf.Technique})
	assert.Positive(t, behind[1].FromIn, "behind one to come it does")
}

// What was usual when a piece began stays the measure of whether it sticks, however slowly others were finished
// since.
func TestTheUsualWeeksStayAsTheyWere(t *testing.T) {
	began := *day("2026-09-09")
	slow := func(n int) (out []ladder.Rung) {
		for i := range n {
			out = append(out, ladder.Rung{ID: strconv.Itoa(i), Strand: shelf.Technique, Taught: &began, Foothold: day("2026-12-09")})
		}
		return out
	}
	expect := func(now calendar.Date, others []ladder.Rung) Expected {
		s := ladder.Standing{Rungs: append([]ladder.Rung{{ID: "piece", Strand: shelf.Book, Taught: &began, Item: shelf.Item{Title: "Piece", Bars: 8}}}, others...)}
		e, there := Reckon(Student{Standing: s, Graph: skill.Catalogue(), Calendar: calendar.Calendar{}, Slot: wednesdays, Now: *day(string(now))}).Expect("piece")
		require.True(t, there)
		return e
	}
	first := expect("2026-09-09", nil)
	later := expect("2026-12-16", slow(6))
	assert.Equal(t, first.Usual, later.Usual)
	assert.False(t, first.Past)
	assert.True(t, later.Past)
	weeks := int(math.Ceil(first.Usual.High + judgement.StuckPatience))
	assert.True(t, expect(calendar.Date("2026-09-09").Add(7*weeks), slow(6)).Past)
	assert.False(t, expect(calendar.Date("2026-09-09").Add(7*(weeks-2)), slow(6)).Past, "and not before")
	pain := ladder.Standing{Ache: &ladder.Ache{Side: "left"}, Rungs: []ladder.Rung{{ID: "piece", Strand: shelf.Book, Taught: &began, Item: shelf.Item{Bars: 8}}}}
	e, _ := Reckon(Student{Standing: pain, Graph: skill.Catalogue(), Slot: wednesdays, Now: *day("2026-12-16")}).Expect("piece")
	assert.Equal(t, []any{false, calendar.Date(""), calendar.Date("")}, []any{e.Past, e.Mid, e.High}, "while playing is forbidden nothing is foretold")
}

// A rung in parts: what is left of it, a part at a time.
func TestPartsByHand(t *testing.T) {
	lessons := Taught{"2026-10-07", "2026-10-14", "2026-10-21", "2026-11-04", "2026-11-11", "2026-11-18"}
	pace := Pace{Mu: math.Log(2), Kappa: 5, Alpha: 5, Beta: 1}
	r := ladder.Rung{Taught: day("2026-10-07"), Parts: []ladder.Part{{Foothold: day("2026-10-21")}, {Foothold: day("2026-10-14")}, {}, {}, {}, {}}}
	whole, past := inParts(r, pace, lessons, "2026-11-04", 3)
	part := pace.Learn([]float64{1, 1}).Range()
	middle := 4 * part.Mid
	assert.InDelta(t, 3+middle*math.Sqrt(part.Low/part.Mid), whole.Low, 1e-9)
	assert.InDelta(t, 3+middle, whole.Mid, 1e-9)
	assert.InDelta(t, 3+middle*math.Sqrt(part.High/part.Mid), whole.High, 1e-9)
	assert.False(t, past)
	_, past = inParts(r, Pace{Mu: 0, Kappa: 100, Alpha: 100, Beta: 0.1}, lessons, "2026-11-18", 5)
	assert.True(t, past, "three weeks on a part of one")
	r.Taught = nil
	whole, past = inParts(r, pace, lessons, "2026-11-18", 0)
	assert.False(t, past, "not begun")
	assert.Positive(t, whole.Low)
}

// What an order costs, term by term.
func TestWhatAnOrderCosts(t *testing.T) {
	k := knows("five-fingers", "steps", "steady-beat")
	k.Usual = 1
	cost := func(wish Wish, order []int, items ...shelf.Item) float64 {
		return newOrdering(k, items, wish).costOf(order)
	}
	plain := piece("plain", nil, []string{"steps"})
	wide := Wish{NewSkills: 9, Ahead: map[shelf.Strand]int{}}
	weigh := func(it shelf.Item) float64 { return k.Total(it) }
	one := func(wish Wish, it shelf.Item) float64 { return cost(wish, []int{0}, it) }
	lane := func(n, all int) float64 {
		return judgement.OrderLane * math.Max(float64(n)-judgement.OrderBook*float64(all)/12-0.5, 0)
	}
	assert.InDelta(t, lane(1, 1), one(wide, plain), 1e-12)
	ahead := Wish{NewSkills: 9, Ahead: map[shelf.Strand]int{shelf.Book: 5, shelf.Reading: 1}}
	assert.InDelta(t, lane(6, 7), one(ahead, plain), 1e-12, "six of seven in one lane")
	assert.InDelta(t, lane(1, 1)+lane(2, 2), cost(wide, []int{0, 1}, plain, piece("b", nil, nil)), 1e-12)

	three := piece("three", []string{"rests", "loud-soft", "skips"}, nil)
	steep := judgement.OrderSteep * math.Max(weigh(three)-1-judgement.TooSteep, 0)
	assert.InDelta(t, lane(1, 1)+steep+judgement.OrderExtraSkill*1, one(Wish{NewSkills: 2}, three), 1e-12, "one thing new too many")
	assert.InDelta(t, lane(1, 1)+steep, one(Wish{NewSkills: 3}, three), 1e-12)
	gap := piece("gap", nil, []string{"dotted"})
	assert.InDelta(t, lane(1, 1)+judgement.OrderGap+judgement.OrderSteep*math.Max(weigh(gap)-1-judgement.TooSteep, 0), one(wide, gap), 1e-12, "a need that is unknown")

	b := piece("b", nil, nil)
	assert.InDelta(t, judgement.OrderSwap, cost(wide, []int{1, 0}, plain, b)-cost(wide, []int{0, 1}, plain, b), 1e-12, "against the book's order")
	other := b
	other.Book = "Other"
	assert.InDelta(t, 0, cost(wide, []int{1, 0}, plain, other)-cost(wide, []int{0, 1}, plain, other), 1e-12, "of another book")
	kept := Wish{NewSkills: 9, KeepLanes: true}
	assert.InDelta(t, judgement.OrderSwap, cost(kept, []int{1, 0}, plain, other)-cost(kept, []int{0, 1}, plain, other), 1e-12, "unless lanes are kept")
	reading := b
	reading.Strand = shelf.Reading
	assert.InDelta(t, cost(wide, []int{0, 1}, plain, reading), cost(wide, []int{0, 1}, plain, reading), 1e-12)

	late := Wish{NewSkills: 9, Due: map[string]int{"b": 1}}
	assert.InDelta(t, judgement.OrderLate, cost(late, []int{0, 1}, plain, other)-cost(wide, []int{0, 1}, plain, other), 1e-12, "a place late")
	assert.InDelta(t, 0, cost(late, []int{1, 0}, plain, other)-cost(wide, []int{1, 0}, plain, other), 1e-12)

	liked := piece("liked", nil, nil)
	liked.Strand, liked.Taste = shelf.Repertoire, shelf.Lively
	taste := Wish{NewSkills: 9, Taste: map[shelf.Taste]float64{shelf.Lively: 0.25}}
	assert.InDelta(t, judgement.OrderTaste*0.75, one(taste, liked)-one(wide, liked), 1e-12)

	graded := Wish{NewSkills: 9, Graded: true, Last: 3}
	assert.InDelta(t, judgement.OrderDownhill*(3-weigh(plain)), one(graded, plain)-one(Wish{NewSkills: 9, Last: 3}, plain), 1e-12, "downhill where it should rise")
	up := piece("up", []string{"held-left-hand", "dotted"}, nil)
	require.GreaterOrEqual(t, weigh(up), 1+judgement.Climb)
	assert.InDelta(t, judgement.OrderTwoClimbs, one(Wish{NewSkills: 9, Last: 1 + judgement.Climb}, up)-one(Wish{NewSkills: 9, Last: 1 + judgement.Climb - 0.01}, up), 1e-12, "two climbs in a row")
}

// What lies on the way of a piece with a date: those that begin before it must.
func TestThePlaceForADate(t *testing.T) {
	r := ladder.Rung{ID: "r", Target: "2027-03-24"}
	const today = calendar.Date("2026-11-18") // 18 weeks before
	start := 18 - judgement.PolishWeeks - 3
	for _, c := range []struct {
		begin []float64
		want  int
	}{
		{nil, 1}, {[]float64{0}, 1}, {[]float64{start - 0.1}, 2}, {[]float64{start}, 1}, {[]float64{1, 2, start + 1}, 3},
	} {
		p := &Path{Expected: []Expected{{Rung: "r", FromIn: 0.5, Whole: Range{Mid: 3}}}}
		for i, from := range c.begin {
			p.Expected = append(p.Expected, Expected{Rung: string(rune('a' + i)), FromIn: from})
		}
		place, dated := p.due(r, today)
		assert.True(t, dated)
		assert.Equal(t, c.want, place, "%v", c.begin)
	}
	_, dated := (&Path{}).due(ladder.Rung{}, today)
	assert.False(t, dated)
}

// Why a rung would come sooner.
func TestWhyARungMoves(t *testing.T) {
	p := &Path{Loads: map[string]Load{"light": {Total: 1}, "heavy": {Total: 2}}, now: knows()}
	light, heavy := ladder.Rung{ID: "light", Item: piece("light", []string{"rests"}, nil)}, ladder.Rung{ID: "heavy", Item: piece("heavy", nil, []string{"rests"})}
	plain := ladder.Rung{ID: "heavy", Item: piece("plain", nil, nil)}
	assert.Equal(t, "move-for-date", p.whyMove(light, heavy, Wish{Due: map[string]int{"light": 1}}).Code)
	assert.Equal(t, "move-brings", p.whyMove(light, heavy, Wish{}).Code)
	assert.Equal(t, "move-landing", p.whyMove(light, plain, Wish{}).Code)
	assert.Equal(t, "move-better", p.whyMove(plain, light, Wish{}).Code)
	assert.Equal(t, "move-better", p.whyMove(light, light, Wish{}).Code, "as heavy")
}

// A load, each amount by itself.
func TestAmountsOfALoad(t *testing.T) {
	w := func(id string) float64 { return graph[id].Weight }
	base := func(change func(*Knows)) Knows {
		k := knows("five-fingers", "steps", "long-notes")
		change(&k)
		return k
	}
	bare := shelf.Item{Strand: shelf.Book}
	item := func(change func(*shelf.Item)) shelf.Item {
		it := bare
		change(&it)
		return it
	}
	for _, c := range []struct {
		name string
		k    Knows
		it   shelf.Item
		want float64
		n    string
	}{
		{"nothing", base(func(*Knows) {}), bare, 0, ""},
		{"new", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Brings = []string{"dotted"} }), w("dotted"), "0"},
		{"prepared by half", base(func(k *Knows) { k.prepared["dotted"] = 0.5 }), item(func(it *shelf.Item) { it.Brings = []string{"dotted"} }), w("dotted") * (1 - judgement.LoadPrepared*0.5), "50"},
		{"unknown", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Needs = []string{"dotted"} }), w("dotted") * judgement.LoadUnknown, "0"},
		{"no such skill", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Needs = []string{"none"} }), 0, ""},
		{"twice the bars", base(func(k *Knows) { k.bars = []float64{8, 8, 8} }), item(func(it *shelf.Item) { it.Different = 16 }), judgement.LoadMaterial, "16"},
		{"as many bars", base(func(k *Knows) { k.bars = []float64{8} }), item(func(it *shelf.Item) { it.Different = 8 }), 0, ""},
		{"bars with nothing before", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Different = 64 }), 0, ""},
		{"bars of a drill", base(func(k *Knows) { k.bars = []float64{8} }), item(func(it *shelf.Item) { it.Different, it.Strand = 64, shelf.Technique }), 0, ""},
		{"both hands", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Staves = 2 }), judgement.LoadHands, "0"},
		{"one", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Staves = 1 }), 0, ""},
		{"both again", base(func(k *Knows) { k.twoHands = true }), item(func(it *shelf.Item) { it.Staves = 2 }), 0, ""},
		{"a fifth faster", base(func(k *Knows) { k.fastest = 80 }), item(func(it *shelf.Item) { it.Tempo = 96 }), judgement.LoadTempo, "96"},
		{"as fast", base(func(k *Knows) { k.fastest = 96 }), item(func(it *shelf.Item) { it.Tempo = 96 }), 0, ""},
		{"fast with nothing before", base(func(*Knows) {}), item(func(it *shelf.Item) { it.Tempo = 200 }), 0, ""},
	} {
		l := c.k.Weigh(c.it)
		assert.InDelta(t, c.want, l.Total, 1e-9, c.name)
		if c.n != "" {
			require.NotEmpty(t, l.Terms, c.name)
			assert.Equal(t, c.n, l.Terms[0].Why.Args["n"], c.name)
		} else {
			assert.Empty(t, l.Terms, c.name)
		}
	}
	k := knows()
	k.Learn(shelf.Item{Strand: shelf.Book, Staves: 1})
	assert.Empty(t, k.bars, "without a score nothing tells its bars")
	assert.False(t, k.twoHands)
	for n := range recent + 2 {
		k.Learn(shelf.Item{Strand: shelf.Book, Different: n + 1, Staves: 2})
	}
	assert.Equal(t, []float64{3, 4, 5, 6, 7}, k.bars)
	assert.True(t, k.twoHands)
}

// What a student knows today: of the secure the latest, how far head starts are.
func TestWhatIsBuiltOn(t *testing.T) {
	rungs := func(n int, change func(*ladder.Rung)) (out []ladder.Rung) {
		for i := range n {
			at := calendar.Date("2026-09-01").Add(i).Time()
			r := ladder.Rung{ID: string(rune('a' + i)), Strand: shelf.Book, Taught: &at, Foothold: &at, Item: shelf.Item{Strand: shelf.Book, Different: i + 1, Staves: 1, Tempo: float64(60 + i)}}
			change(&r)
			out = append(out, r)
		}
		return out
	}
	k := Reckon(someone("2026-11-18", ladder.Standing{Rungs: rungs(6, func(*ladder.Rung) {}), Prepared: map[string]ladder.HeadStart{"dotted": {Done: 1}, "nothing": {Done: 1}}})).Knows()
	assert.Equal(t, []float64{2, 3, 4, 5, 6}, k.bars, "of the last five")
	assert.False(t, k.twoHands)
	assert.Equal(t, 65.0, k.fastest)
	assert.InDelta(t, 1/float64(len(graph["dotted"].Chain)), k.prepared["dotted"], 1e-12)
	assert.NotContains(t, k.prepared, "nothing")
	k = Reckon(someone("2026-11-18", ladder.Standing{Rungs: rungs(2, func(r *ladder.Rung) { r.Item.Staves, r.Item.Different, r.Item.Strand = 2, 0, shelf.Technique })})).Knows()
	assert.Empty(t, k.bars, "drills are no pieces")
	assert.True(t, k.twoHands)
	k = Reckon(someone("2026-11-18", ladder.Standing{Rungs: rungs(1, func(r *ladder.Rung) { r.Item.Brings = []string{"dotted"} })})).Knows()
	assert.Equal(t, upkeep.Secure, k.state[graph["dotted"].RestsOn[0]], "with what it rests on")
}
