package placement

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// chained is a graph of some skills: each rests on one or two of the few before it.
func chained(n int, rng *rand.Rand) (skill.Graph, []string) {
	g, order := skill.Graph{}, []string{}
	for i := range n {
		id := fmt.Sprintf("s%03d", i)
		s := skill.Skill{ID: id, Name: id, Weight: 1}
		for range rng.IntN(3) {
			if i > 0 {
				s.RestsOn = append(s.RestsOn, fmt.Sprintf("s%03d", max(0, i-1-rng.IntN(6))))
			}
		}
		slices.Sort(s.RestsOn)
		s.RestsOn = slices.Compact(s.RestsOn)
		g[id] = s
		order = append(order, id)
	}
	return g, order
}

// exact is the belief by going through every state at many levels.
func exact(ask Ask) Belief {
	below, has, lacks := ask.space()
	n := len(ask.Order)
	out := Belief{Order: ask.Order, Known: make([]float64, n), Level: make([]float64, Levels)}
	const levels, per = 10 * Levels, 10
	sum := 0.0
	for state := range 1 << n {
		for l := range levels {
			level, p := (float64(l)+0.5)/levels, 1.0
			for i := range n {
				c := chance(i, n, level)
				for _, j := range below[i] {
					if state>>j&1 == 0 {
						c = 0
					}
				}
				if state>>i&1 == 1 {
					p *= c * has[i]
				} else {
					p *= (1 - c) * lacks[i]
				}
			}
			sum += p
			out.Level[l/per] += p
			for i := range n {
				if state>>i&1 == 1 {
					out.Known[i] += p
				}
			}
		}
	}
	for _, list := range [][]float64{out.Known, out.Level} {
		for i := range list {
			list[i] /= sum
		}
	}
	return out
}

// The sampled belief against that of every state, on small graphs with random answers.
func TestBeliefIsThatOfEveryState(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 9))
	for range 20 {
		g, order := chained(5+rng.IntN(6), rng)
		ask := Ask{Graph: g, Order: order, Answers: map[string]string{}}
		for _, id := range order {
			switch rng.IntN(5) {
			case 0:
				ask.Answers[id] = fact.Pass
			case 1:
				ask.Answers[id] = fact.NotYet
			case 2:
				ask.Answers[id] = fact.Nearly
			}
		}
		got, want := Believe(ask), exact(ask)
		for i := range order {
			require.InDelta(t, want.Known[i], got.Known[i], 0.05, "%v: %s", ask.Answers, order[i])
		}
		require.InDelta(t, want.Reached(judgement.PlacementDoubt), got.Reached(judgement.PlacementDoubt), 1, ask.Answers)
	}
}

// A student answers as one who has some skills does: a slip and a lucky guess now and then.
func answers(has bool, rng *rand.Rand) string {
	if u := rng.Float64(); has && u < 0.85 || !has && u < 0.05 {
		return fact.Pass
	} else if has && u < 0.95 || !has && u < 0.2 {
		return fact.Nearly
	}
	return fact.NotYet
}

// withGaps is a student who has come so far, but for some gaps on which little rests.
func withGaps(g skill.Graph, order []string, level, gaps int, rng *rand.Rand) map[string]bool {
	has := map[string]bool{}
	for _, id := range order[:level] {
		has[id] = true
	}
	for gaps = min(gaps, level/5); gaps > 0; {
		gap := order[rng.IntN(level)]
		var gone []string
		for _, id := range order[:level] {
			under := map[string]bool{}
			g.Under(id, under)
			if under[gap] {
				gone = append(gone, id)
			}
		}
		if len(gone) <= 3 {
			for _, id := range gone {
				delete(has, id)
			}
			gaps--
		}
	}
	return has
}

// Of forty students with 120 skills in question, each with a level of their own and three gaps under
// it, thirty-eight are placed right by twelve questions at most: at their level or a little lower,
// within a tenth of the way, which is a unit of a book.
func TestTwelveQuestionsForAHundredAndTwentySkills(t *testing.T) {
	const placed, n = 40, 120
	var right, asked atomic.Int64
	t.Run("each", func(t *testing.T) {
		for student := range placed {
			t.Run("", func(t *testing.T) {
				t.Parallel()
				rng := rand.New(rand.NewPCG(12, uint64(student)))
				g, order := chained(n, rng)
				level := rng.IntN(n + 1)
				has := withGaps(g, order, level, 3, rng)
				ask := Ask{Graph: g, Order: order, Answers: map[string]string{}}
				belief := Believe(ask)
				for len(ask.Answers) < 12 {
					next, ok := belief.Next(func(id string) bool { _, was := ask.Answers[id]; return !was })
					if !ok {
						break
					}
					ask.Answers[next] = answers(has[next], rng)
					belief = Believe(ask)
				}
				asked.Add(int64(len(ask.Answers)))
				if off := belief.Reached(judgement.PlacementDoubt) - level; off <= n/20 && off >= -n/10 {
					right.Add(1)
				} else {
					t.Logf("begins at %d, is at %d", belief.Reached(judgement.PlacementDoubt), level)
				}
			})
		}
	})
	t.Logf("%d of %d right, %.1f questions each", right.Load(), placed, float64(asked.Load())/float64(placed))
	assert.GreaterOrEqual(t, right.Load()*40, int64(38*placed))
}

func TestWhatIsAskedNext(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	g, order := chained(40, rng)
	all := func(string) bool { return true }
	fresh := Believe(Ask{Graph: g, Order: order})
	first, ok := fresh.Next(all)
	require.True(t, ok)
	assert.InDelta(t, 20, slices.Index(order, first), 8, "about the middle")
	assert.Equal(t, fresh, Believe(Ask{Graph: g, Order: order}), "the same answers, the same belief")

	passed := Believe(Ask{Graph: g, Order: order, Answers: map[string]string{first: fact.Pass}})
	next, _ := passed.Next(all)
	assert.Greater(t, slices.Index(order, next), slices.Index(order, first))
	failed := Believe(Ask{Graph: g, Order: order, Answers: map[string]string{first: fact.NotYet}})
	next, _ = failed.Next(all)
	assert.Less(t, slices.Index(order, next), slices.Index(order, first))
	assert.Greater(t, passed.Reached(judgement.PlacementDoubt), failed.Reached(judgement.PlacementDoubt))

	_, ok = passed.Next(func(string) bool { return false })
	assert.False(t, ok, "nothing can be asked")
	once := Believe(Ask{Graph: g, Order: order, Once: order[:30]})
	assert.Greater(t, once.Reached(judgement.PlacementDoubt), fresh.Reached(judgement.PlacementDoubt), "who comes back is not begun from nothing")
	nothing := Believe(Ask{})
	assert.Zero(t, nothing.Reached(judgement.PlacementDoubt))
	assert.Empty(t, nothing.Unsure())
}

func TestWhereToBegin(t *testing.T) {
	g := skill.Graph{"a": {ID: "a"}, "b": {ID: "b", RestsOn: []string{"a"}}, "c": {ID: "c", RestsOn: []string{"b"}}, "d": {ID: "d"}, "e": {ID: "e", RestsOn: []string{"c"}}}
	items := []shelf.Item{
		{ID: "one", Strand: shelf.Book, Brings: []string{"b"}}, {ID: "song", Strand: shelf.Repertoire, Brings: []string{"e"}},
		{ID: "two", Strand: shelf.Technique, Brings: []string{"d"}}, {ID: "three", Strand: shelf.Book, Brings: []string{"c"}}, {ID: "four", Strand: shelf.Book, Brings: []string{"e", "else"}},
	}
	order := Order(g, items)
	assert.Equal(t, []string{"a", "b", "d", "c", "e"}, order, "each after what it rests on; songs set no order")
	at := func(level int, known ...float64) Belief {
		b := Belief{Order: order, Known: known, Level: make([]float64, Levels)}
		b.Level[level] = 1
		return b
	}
	begins := func(b Belief) string { return b.Begin(items, 0.75, true).At.ID }
	assert.Equal(t, "one", begins(at(0)))
	assert.Equal(t, "three", begins(at(Levels*2/5)))
	assert.Equal(t, "four", begins(at(Levels*4/5)))
	assert.Equal(t, []string{"b"}, at(Levels*3/5, 0.9, 0.4, 0.6, 0.1, 0.1).Missing(0.75), "above the level nothing is missing")
}

// One skill in question, as likely there as not: what each answer makes of it, by hand from the
// numbers as they are written down; and what was secure before.
func TestWhatAnAnswerSays(t *testing.T) {
	g := skill.Graph{"a": {ID: "a"}}
	for outcome, want := range map[string]float64{"": 0.5, fact.Pass: 0.78 / (0.78 + 0.05), fact.Nearly: 0.5, fact.NotYet: 0.07 / (0.07 + 0.8)} {
		assert.InDelta(t, want, Believe(Ask{Graph: g, Order: []string{"a"}, Answers: map[string]string{"a": outcome}}).Known[0], 0.015, outcome)
	}
	assert.InDelta(t, 0.8, Believe(Ask{Graph: g, Order: []string{"a"}, Once: []string{"a"}}).Known[0], 0.015, "once there, four times likelier")
	assert.InDelta(t, 0.78/(0.78+0.05), Believe(Ask{Graph: g, Order: []string{"a"}, Heard: []string{"a"}}).Known[0], 0.015, "a secure piece that is remembered is a pass")
	assert.InDelta(t, 0.07/(0.07+0.8), Believe(Ask{Graph: g, Order: []string{"a"}, Heard: []string{"a"}, Answers: map[string]string{"a": fact.NotYet}}).Known[0], 0.015, "an answer counts, and not the past beside it")
}

func TestHowSureIsSure(t *testing.T) {
	b := Belief{Order: []string{"a", "b", "c", "d"}, Known: []float64{0.86, 0.84, 0.16, 0.14}}
	assert.Equal(t, []string{"b", "c"}, b.Unsure())
	b.Level = make([]float64, Levels)
	for _, c := range []struct {
		further float64
		lower   int
		even    int
	}{{0.74, 1, 3}, {0.76, 3, 3}, {0.51, 1, 3}, {0.49, 1, 1}} {
		b.Level[Levels/4], b.Level[Levels*3/4] = 1-c.further, c.further
		assert.Equal(t, c.lower, b.Reached(judgement.PlacementDoubt), "a little lower, %v", c.further)
		assert.Equal(t, c.even, b.Reached(judgement.PlacementEven), "the same level, %v", c.further)
	}
}

// What is ticked off of who is taken over in a hurry: what most of the pieces to come stand on.
func TestThreeTicks(t *testing.T) {
	g := skill.Graph{"a": {ID: "a", Weight: 1}, "b": {ID: "b", Weight: 1, RestsOn: []string{"a"}}, "c": {ID: "c", Weight: 2}, "d": {ID: "d", Weight: 1}, "e": {ID: "e", Weight: 3, RestsOn: []string{"b"}}}
	coming := []shelf.Item{{Brings: []string{"e"}, Needs: []string{"b"}}, {Needs: []string{"b"}}, {Needs: []string{"c"}}, {Needs: []string{"d"}}, {Brings: []string{"b"}}, {Revisits: []string{"a"}}}
	assert.Equal(t, []string{"b", "c", "a"}, Ticks(g, []string{"a", "d", "c", "b"}, coming, 3), "two stand on b, one each on the others: c is heavier, a is taught before d")
	assert.Equal(t, []string{"b"}, Ticks(g, []string{"b", "e"}, coming, 3), "nothing stands on e")
	assert.Empty(t, Ticks(g, []string{"a"}, nil, 3), "nothing stands on it")
}

// A place is named when it is known within a unit, or when nothing would tell more; until then it
// is told between which pieces it lies.
func TestAPlaceIsNamedWhenItIsKnown(t *testing.T) {
	var order []string
	var items []shelf.Item
	for i := range Levels {
		id := fmt.Sprintf("s%02d", i)
		order, items = append(order, id), append(items, shelf.Item{ID: id, Strand: shelf.Book, Brings: []string{id}}, shelf.Item{ID: "song" + id, Strand: shelf.Repertoire, Brings: []string{id}})
	}
	at := func(levels ...int) Belief {
		b := Belief{Order: order, Level: make([]float64, Levels)}
		for _, l := range levels {
			b.Level[l] += 1 / float64(len(levels))
		}
		return b
	}
	near := int(judgement.PlacementNear)
	sure := at(10, 10, 10+near, 10+near).Begin(items, judgement.PlacementDoubt, true)
	require.NotNil(t, sure.At)
	assert.Equal(t, "s10", sure.At.ID, "in doubt lower")
	assert.Nil(t, sure.From)
	wide := at(10, 10, 11+near, 11+near)
	open := wide.Begin(items, judgement.PlacementDoubt, true)
	assert.Nil(t, open.At)
	assert.Equal(t, "s10", open.From.ID)
	assert.Equal(t, fmt.Sprintf("s%02d", 11+near), open.To.ID)
	assert.Equal(t, "s10", wide.Begin(items, judgement.PlacementDoubt, false).At.ID, "nothing more would tell")
	beyond := at(30, 30, Levels-1, Levels-1)
	beyond.Order = order[:30]
	assert.Nil(t, beyond.Begin(items[:40], judgement.PlacementDoubt, true).To, "it may lie beyond the book")
}

// Who comes back after years and still has what was secure is placed by fewer questions than a
// stranger, and who has lost the upper half is still placed right.
func TestComingBackAfterYears(t *testing.T) {
	const n, level = 60, 40
	ask := func(has, once map[string]bool, g skill.Graph, order []string, rng *rand.Rand) (named, reached int) {
		a := Ask{Graph: g, Order: order, Answers: map[string]string{}}
		for _, id := range order {
			if once[id] {
				a.Once = append(a.Once, id)
			}
		}
		var items []shelf.Item
		for _, id := range order {
			items = append(items, shelf.Item{ID: id, Strand: shelf.Book, Brings: []string{id}})
		}
		belief := Believe(a)
		for len(a.Answers) < 12 {
			if named == 0 && belief.Begin(items, judgement.PlacementDoubt, true).At != nil {
				named = len(a.Answers)
			}
			next, ok := belief.Next(func(id string) bool { _, was := a.Answers[id]; return !was })
			if !ok {
				break
			}
			a.Answers[next] = answers(has[next], rng)
			belief = Believe(a)
		}
		return cmp.Or(named, len(a.Answers)), belief.Reached(judgement.PlacementDoubt)
	}
	same, stranger, placed := 0, 0, 0
	for i := range 6 {
		rng := rand.New(rand.NewPCG(77, uint64(i)))
		g, order := chained(n, rng)
		whole, half := map[string]bool{}, map[string]bool{}
		for k, id := range order[:level] {
			whole[id] = true
			half[id] = k < level/2
		}
		a, _ := ask(whole, whole, g, order, rng)
		b, _ := ask(whole, nil, g, order, rng)
		same, stranger = same+a, stranger+b
		if _, reached := ask(half, whole, g, order, rng); reached >= level/2-n/10 && reached <= level/2+n/10 {
			placed++
		}
	}
	t.Logf("named after %d questions with what was once secure, %d without; %d of 6 who lost half placed right", same, stranger, placed)
	assert.Less(t, same, stranger)
	assert.GreaterOrEqual(t, placed, 5)
}
