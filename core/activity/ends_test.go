package activity

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

// An activity of a teacher's own, at the ends of what can be.
func TestTheEndsOfAnActivity(t *testing.T) {
	g := skill.Catalogue()
	good := Activity{ID: "own", Title: "Own", Aim: "steady-beat", Family: instrument.Shared, From: 4, Least: 1, Most: 3, Levels: []string{"clap"}}
	assert.NoError(t, good.Check(g))
	for _, c := range []struct {
		name   string
		change func(*Activity)
		fits   bool
	}{
		{"no title", func(a *Activity) { a.Title = " " }, false}, {"no id", func(a *Activity) { a.ID = "" }, false},
		{"no such aim", func(a *Activity) { a.Aim = "dance" }, false}, {"an aim that is no skill", func(a *Activity) { a.Aim = "improvise" }, true},
		{"from two", func(a *Activity) { a.From = 2 }, true}, {"from one", func(a *Activity) { a.From = 1 }, false},
		{"one age", func(a *Activity) { a.To = 4 }, true}, {"to before from", func(a *Activity) { a.To = 3 }, false},
		{"no minutes", func(a *Activity) { a.Least = 0 }, false}, {"as many at most", func(a *Activity) { a.Least = 3 }, true}, {"fewer at most", func(a *Activity) { a.Least = 4 }, false},
		{"twenty minutes", func(a *Activity) { a.Most = 20 }, true}, {"twenty-one", func(a *Activity) { a.Most = 21 }, false},
		{"no level", func(a *Activity) { a.Levels = nil }, false}, {"three levels", func(a *Activity) { a.Levels = []string{"a", "b", "c"} }, true},
		{"four", func(a *Activity) { a.Levels = []string{"a", "b", "c", "d"} }, false}, {"an empty level", func(a *Activity) { a.Levels = []string{"a", ""} }, false},
		{"no such family", func(a *Activity) { a.Family = "brass" }, false}, {"bowed", func(a *Activity) { a.Family = instrument.Bowed }, true},
		{"a caution", func(a *Activity) { a.Cautions = []string{"touch"} }, true}, {"no such caution", func(a *Activity) { a.Cautions = []string{"fire"} }, false},
	} {
		a := good
		c.change(&a)
		assert.Equal(t, c.fits, a.Check(g) == nil, "%s: %v", c.name, a.Check(g))
	}
}

// Who an activity is for: its ages, both ends among them, and its family.
func TestWhomAnActivityFits(t *testing.T) {
	young := Activity{From: 4, To: 6, Family: instrument.Shared}
	for age, fits := range map[int]bool{3: false, 4: true, 6: true, 7: false} {
		assert.Equal(t, fits, young.Fits(age, instrument.Bowed), "at %d", age)
	}
	keys := Activity{From: 4, Family: instrument.Keyboard}
	assert.True(t, keys.Fits(80, instrument.Keyboard), "no oldest age")
	assert.False(t, keys.Fits(80, instrument.Bowed))
}

// Which probes are asked, at the ends of their ages: common practice, no source.
func TestWhichProbesAreAsked(t *testing.T) {
	asked := func(age int, f instrument.Family) map[string]bool {
		out := map[string]bool{}
		for _, p := range Probes(age, f) {
			out[p.Key] = true
		}
		return out
	}
	for _, c := range []struct {
		key      string
		family   instrument.Family
		from, to int
	}{{"left-right", instrument.Keyboard, 3, 7}, {"hand-swap", instrument.Bowed, 3, 5}, {"key-groups", instrument.Keyboard, 3, 7}, {"open-strings", instrument.Bowed, 3, 9}, {"thumb-bass", instrument.Plucked, 4, 9}, {"sing-back", instrument.Keyboard, 4, 12}} {
		assert.False(t, asked(c.from-1, c.family)[c.key], c.key)
		assert.True(t, asked(c.from, c.family)[c.key], c.key)
		assert.True(t, asked(c.to, c.family)[c.key], c.key)
		assert.False(t, asked(c.to+1, c.family)[c.key], c.key)
	}
	assert.True(t, asked(60, instrument.Plucked)["steady-beat"], "at any age")
	assert.False(t, asked(5, instrument.Bowed)["key-groups"], "of another family")
	assert.True(t, IsProbe("seat"))
	assert.False(t, IsProbe("dotted"))
}

// A line of the bank, column by column.
func TestALineOfTheBank(t *testing.T) {
	a, err := parse("own|steady-beat|4|6|1|3|shared|move|touch loud|2")
	assert.NoError(t, err)
	assert.Equal(t, Activity{ID: "own", Aim: "steady-beat", From: 4, To: 6, Least: 1, Most: 3, Family: instrument.Shared, Moving: true, Cautions: []string{"touch", "loud"}, Levels: []string{"", ""}}, a)
	plain, err := parse("own|steady-beat|4|0|1|3|shared|sit||1")
	assert.NoError(t, err)
	assert.False(t, plain.Moving)
	assert.Empty(t, plain.Cautions)
	_, err = parse("too|short")
	assert.Error(t, err)
	_, err = parse("own|steady-beat|four|0|1|3|shared|sit||1")
	assert.Error(t, err)
}

// From ten on nobody is called a child, and reasons are given.
func TestWordsByAge(t *testing.T) {
	a := Activity{Levels: []string{"Tap; the child answers.", "Tap again."}, Grown: []string{"Tap; the student answers.", ""}}
	assert.Equal(t, "Tap; the child answers.", a.Says(1, grownUp-1))
	assert.Equal(t, "Tap; the student answers.", a.Says(1, grownUp))
	assert.Equal(t, "Tap again.", a.Says(2, grownUp), "there is no child in it")
	assert.Equal(t, "Clap.", Activity{Levels: []string{"Clap."}}.Says(1, grownUp), "of a teacher's own")
	assert.False(t, Reasoned("steady-beat", grownUp-1))
	assert.True(t, Reasoned("steady-beat", grownUp))
	assert.False(t, Reasoned("left-right", grownUp), "nobody of that age is asked")
	assert.False(t, Reasoned("no such aim", grownUp))
}

// What goes home after a first meeting where nobody told what was played: the first game of each aim, five at most,
// in the order in which it is asked.
func TestTheFirstGames(t *testing.T) {
	for _, age := range []int{4, 6, 9, 13} {
		var aims []string
		for _, p := range Probes(age, instrument.Keyboard) {
			aims = append(aims, p.Key)
		}
		at := -1
		games := Firsts(Bank(), age, instrument.Keyboard, func(string) bool { return false })
		assert.NotEmpty(t, games, age)
		assert.LessOrEqual(t, len(games), 5, age)
		for _, g := range games {
			assert.True(t, g.Fits(age, instrument.Keyboard), g.ID)
			i := slices.Index(aims, g.Aim)
			assert.Greater(t, i, at, "%s at %d", g.ID, age)
			at = i
			first := slices.IndexFunc(Bank(), func(a Activity) bool { return a.Aim == g.Aim && a.Fits(age, instrument.Keyboard) })
			assert.Equal(t, Bank()[first].ID, g.ID, "the first of its aim")
		}
		passed := aims[:5] // a child that passed the whole first meeting goes on with what comes next
		next := Firsts(Bank(), age, instrument.Keyboard, func(aim string) bool { return slices.Contains(passed, aim) })
		assert.Equal(t, len(aims) > 5, len(next) > 0, age)
		for _, g := range next {
			assert.NotContains(t, passed, g.Aim)
		}
	}
}
