package ahead

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// own is a graph of two skills: one of two tasks of a week, one of one.
var own = skill.Graph{
	"long":  {ID: "long", Name: "Long", Chain: []skill.Link{{Do: "first", Minutes: 1, Weeks: 1}, {Do: "second", Minutes: 1, Weeks: 2}}},
	"short": {ID: "short", Name: "Short", Chain: []skill.Link{{Do: "only", Minutes: 1, Weeks: 1}}},
}

// at is a path on which each rung begins in so many weeks.
func at(begins map[string]float64, rungs ...ladder.Rung) climb.Path {
	p := climb.Path{Rungs: rungs}
	for _, r := range rungs {
		if in, told := begins[r.ID]; told {
			p.Expected = append(p.Expected, climb.Expected{Rung: r.ID, FromIn: in})
		}
	}
	return p
}

func bringing(id string, strand shelf.Strand, skills ...string) ladder.Rung {
	return ladder.Rung{ID: id, Strand: strand, Item: shelf.Item{Title: id, Brings: skills}}
}

// Which skills get a head start: those of a piece that begins in half a week to half a
// year, that nobody has begun; both sides of each boundary.
func TestWhatGetsAHeadStart(t *testing.T) {
	taught := bringing("jig", shelf.Book, "long")
	when := time.Now()
	taught.Taught = &when
	for _, c := range []struct {
		name   string
		rung   ladder.Rung
		begins float64
		s      ladder.Standing
		want   int
	}{
		{"a piece in five weeks", bringing("jig", shelf.Book, "long"), 5, ladder.Standing{}, 1},
		{"repertoire too", bringing("jig", shelf.Repertoire, "long"), 5, ladder.Standing{}, 1},
		{"a technique page is a head start itself", bringing("jig", shelf.Technique, "long"), 5, ladder.Standing{}, 0},
		{"so is a reading page", bringing("jig", shelf.Reading, "long"), 5, ladder.Standing{}, 0},
		{"what is being learnt", taught, 5, ladder.Standing{}, 0},
		{"in half a week", bringing("jig", shelf.Book, "long"), 0.5, ladder.Standing{}, 1},
		{"sooner", bringing("jig", shelf.Book, "long"), 0.49, ladder.Standing{}, 0},
		{"in 26 weeks", bringing("jig", shelf.Book, "long"), 26, ladder.Standing{}, 1},
		{"later", bringing("jig", shelf.Book, "long"), 26.1, ladder.Standing{}, 0},
		{"a skill that is not in the graph", bringing("jig", shelf.Book, "none"), 5, ladder.Standing{}, 0},
		{"before the first book", bringing("jig", shelf.Book, "long"), 5, ladder.Standing{BeforeBook: true}, 0},
		{"turned down", bringing("jig", shelf.Book, "long"), 5, ladder.Standing{Overruled: map[string]ladder.Overrule{Key("long"): {At: monday}}}, 0},
	} {
		got := Plan(c.s, own, at(map[string]float64{"jig": c.begins}, c.rung), 2, monday)
		assert.Len(t, got, c.want, c.name)
	}
	known := at(map[string]float64{"jig": 5}, bringing("jig", shelf.Book, "long"))
	known.Known.State = map[string]upkeep.SkillState{"long": upkeep.Secure}
	assert.Empty(t, Plan(ladder.Standing{}, own, known, 2, monday), "a skill that is there")

	two := at(map[string]float64{"reel": 8, "jig": 5}, bringing("slow", shelf.Book), bringing("reel", shelf.Book, "long"), bringing("jig", shelf.Book, "long", "short"))
	got := Plan(ladder.Standing{}, own, two, 2, monday)
	require.Len(t, got, 2)
	assert.Equal(t, []string{"jig", "jig"}, []string{got[0].Rung, got[1].Rung}, "the first rung that brings it")
	assert.Equal(t, []int{3, 5}, []int{got[0].Rungs, got[0].Due}, "counted in its lane, in whole weeks")
}

// Whose turn it is: running from its first week or once begun, waiting, done, or late.
func TestStatesOfAHeadStart(t *testing.T) {
	for _, c := range []struct {
		name   string
		begins float64
		done   int
		want   State
		start  int
		ready  int
	}{
		{"three weeks of tasks in three weeks", 3, 0, Running, 0, 3},
		{"in two: one too late", 2, 0, Late, 0, 3},
		{"one task done, two weeks left for two", 2, 1, Running, 0, 2},
		{"one task done, one week left for two", 1, 1, Late, 0, 2},
		{"all done", 1, 2, Ready, 0, 0},
		{"more told than there are", 1, 9, Ready, 0, 0},
	} {
		s := ladder.Standing{Prepared: map[string]ladder.HeadStart{"long": {Done: c.done}}}
		got := Plan(s, own, at(map[string]float64{"jig": c.begins}, bringing("jig", shelf.Book, "long")), 1, monday)
		require.Len(t, got, 1)
		assert.Equal(t, []any{c.want, c.start, c.ready}, []any{got[0].State, got[0].Start, got[0].Ready}, c.name)
	}
	both := at(map[string]float64{"jig": 4, "reel": 9}, bringing("jig", shelf.Book, "long"), bringing("reel", shelf.Book, "short"))
	one := Plan(ladder.Standing{}, own, both, 1, monday)
	assert.Equal(t, []State{Running, Waiting}, []State{one[0].State, one[1].State}, "one at once")
	_, now := one[1].Now()
	assert.False(t, now)
	task, now := one[0].Now()
	assert.True(t, now)
	assert.Equal(t, "first", task.Do)
	begun := Plan(ladder.Standing{Prepared: map[string]ladder.HeadStart{"long": {Done: 1}}}, own, both, 2, monday)
	assert.Equal(t, []any{Running, 1, 3}, []any{begun[0].State, begun[0].Start, begun[0].Ready}, "begun; the rest is spread up to a week before the piece")
	shown, was := begun[0].Shown()
	assert.True(t, was)
	assert.Equal(t, "first", shown.Do, "what goes home is what was shown")
	assert.Equal(t, "1", begun[0].Why(both, own).Args["tasks"], "of two, one is left")
	_, was = one[1].Shown()
	assert.False(t, was, "nothing was")
}

// The last task of a chain that is done comes again every two weeks until its piece.
func TestTheLastTaskIsKeptWarm(t *testing.T) {
	for _, c := range []struct {
		name string
		h    HeadStart
		want bool
	}{
		{"shown two weeks ago", HeadStart{State: Ready, Done: 2, Last: monday.AddDate(0, 0, -14)}, true},
		{"thirteen days ago", HeadStart{State: Ready, Done: 2, Last: monday.AddDate(0, 0, -13)}, false},
		{"not done yet", HeadStart{State: Running, Done: 1, Last: monday.AddDate(0, 0, -30)}, false},
	} {
		assert.Equal(t, c.want, c.h.Warm(monday), c.name)
	}
}

// In how many weeks a chain begins, where nothing else is prepared: its tasks about four
// weeks apart at most, the last a week before the piece.
func TestTasksAreSpreadTowardsThePiece(t *testing.T) {
	for _, c := range []struct {
		length, due, begins int
	}{
		{1, 9, 7}, {1, 2, 0}, {1, 1, 0}, {2, 20, 14}, {2, 9, 3}, {3, 4, 0}, {3, 3, 0}, {4, 26, 12}, {4, 13, 2},
	} {
		got, ok := Latest([]Chain{{c.length, c.due}}, 1)
		assert.True(t, ok, c)
		assert.Equal(t, []int{c.begins}, got, "%d tasks, due in %d weeks", c.length, c.due)
	}
}

// Where there is room at all, the late weeks hold what the early ones would.
func TestLatestKeepsToTime(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 8))
	fitted := 0
	for range 2000 {
		chains := make([]Chain, 1+rng.IntN(4))
		for i := range chains {
			chains[i] = Chain{1 + rng.IntN(3), 1 + rng.IntN(14)}
		}
		machines := 1 + rng.IntN(2)
		_, late := Schedule(chains, machines)
		begins, ok := Latest(chains, machines)
		if !ok {
			continue
		}
		fitted++
		assert.LessOrEqual(t, late, 0, "what fits late fits early: %v", chains)
		for i, c := range chains {
			assert.LessOrEqual(t, begins[i]+c.Length, c.Due, "%v", chains)
		}
	}
	assert.Greater(t, fitted, 800)
}

// What to do about a late one: an easier rung, the piece later, or the other head start
// that takes its weeks.
func TestFixesOfALateHeadStart(t *testing.T) {
	late := HeadStart{Skill: "long", Title: "Jig", Ready: 5, Due: 3}
	for _, c := range []struct {
		name  string
		other HeadStart
		drops bool
	}{
		{"another before it", HeadStart{Skill: "short", Name: "Short", Start: 4, State: Running}, true},
		{"another that begins when it is ready", HeadStart{Skill: "short", Start: 5, State: Running}, false},
		{"another that is done", HeadStart{Skill: "short", Start: 0, State: Ready}, false},
		{"itself", HeadStart{Skill: "long", Start: 0, State: Running}, false},
	} {
		got := fixes(late, []HeadStart{c.other})
		assert.Equal(t, c.drops, len(got) == 3, c.name)
		assert.Equal(t, "2", got[0].Why.Args["weeks"], "two weeks short")
	}
}

// A task on an old tune names the newest short secure piece of one staff, and its minor
// form one that is in a major key.
func TestTheOldTuneOfATask(t *testing.T) {
	piece := func(id string, day int, it shelf.Item) ladder.Rung {
		at := time.Date(2026, 9, day, 16, 0, 0, 0, time.UTC)
		it.ID, it.Title = id, "T "+id
		return ladder.Rung{ID: id, Strand: shelf.Book, Item: it, Taught: &at, Foothold: &at}
	}
	score := func(key string, bars, staves int) shelf.Item {
		return shelf.Item{HasScore: true, Key: key, Bars: bars, Staves: staves}
	}
	for _, c := range []struct {
		name   string
		old    skill.Old
		pieces []ladder.Rung
		want   string
	}{
		{"the newest", skill.OldSame, []ladder.Rung{piece("a", 2, score("C major", 8, 1)), piece("b", 9, score("A minor", 8, 1))}, "b"},
		{"of two in the other order too", skill.OldSame, []ladder.Rung{piece("b", 9, score("A minor", 8, 1)), piece("a", 2, score("C major", 8, 1))}, "b"},
		{"a minor form needs a major key", skill.OldMinor, []ladder.Rung{piece("a", 2, score("C major", 8, 1)), piece("b", 9, score("A minor", 8, 1))}, "a"},
		{"twenty bars are short", skill.OldSame, []ladder.Rung{piece("a", 2, score("C major", 20, 1))}, "a"},
		{"twenty-one are not", skill.OldSame, []ladder.Rung{piece("a", 2, score("C major", 21, 1))}, ""},
		{"two staves are too many", skill.OldSame, []ladder.Rung{piece("a", 2, score("C major", 8, 2))}, ""},
		{"no notes, no tune", skill.OldSame, []ladder.Rung{piece("a", 2, shelf.Item{Bars: 8, Staves: 1})}, ""},
		{"a task that is made from none", "", []ladder.Rung{piece("a", 2, score("C major", 8, 1))}, ""},
	} {
		h := HeadStart{Tasks: []skill.Link{{Do: "An old tune", Minutes: 1, Weeks: 1, Old: c.old}}}
		assert.Equal(t, c.want, h.name(0, ladder.Standing{Rungs: c.pieces}, monday), c.name)
		want := "An old tune"
		if c.want != "" {
			want += ": T " + c.want
		}
		assert.Equal(t, want, h.Tasks[0].Do, c.name)
	}
}

// A skill that was found missing is closed at once, whatever lies ahead: what others rest on first,
// then the lightest.
func TestGapsAreClosedAtOnce(t *testing.T) {
	g := skill.Graph{
		"heavy": {ID: "heavy", Name: "Heavy", Area: skill.Hands, Weight: 2, RestsOn: []string{"under"}, Chain: []skill.Link{{Do: "a", Weeks: 1}}},
		"light": {ID: "light", Name: "Light", Area: skill.Hands, Weight: 1, Chain: []skill.Link{{Do: "b", Weeks: 2}}},
		"under": {ID: "under", Name: "Under", Area: skill.Hands, Weight: 1.5, Chain: []skill.Link{{Do: "c", Weeks: 1}}},
		"next":  {ID: "next", Name: "Next", Area: skill.Hands, Weight: 1, Chain: []skill.Link{{Do: "d", Weeks: 1}}},
	}
	p := at(map[string]float64{"jig": 6}, bringing("jig", shelf.Book, "next", "light"))
	p.Known = upkeep.Known{State: map[string]upkeep.SkillState{"heavy": upkeep.Missing, "light": upkeep.Missing, "under": upkeep.Missing}}
	var got []string
	for _, h := range Plan(ladder.Standing{}, g, p, 1, time.Now()) {
		_, now := h.Now()
		got = append(got, fmt.Sprintf("%s gap %t %s from %d, this week %t, %s", h.Name, h.Gap, h.State, h.Start, now, h.Why(p, g).Code))
	}
	assert.Equal(t, []string{"Light gap true running from 0, this week true, gap", "Under gap true waiting from 1, this week false, gap",
		"Heavy gap true waiting from 2, this week false, gap", "Next gap false waiting from 4, this week false, head-start"}, got)
}
