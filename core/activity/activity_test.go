package activity

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

func TestTheBank(t *testing.T) {
	g := skill.Catalogue()
	ids := map[string]bool{}
	moving := 0
	for _, a := range Bank() {
		named := a // words are a language's
		named.Title, named.Levels = a.ID, slices.Repeat([]string{"Tap."}, len(a.Levels))
		require.NoError(t, named.Check(g), a.ID)
		assert.False(t, ids[a.ID], "%s stands once", a.ID)
		ids[a.ID] = true
		// the longest usual single activity, first time: common practice, no source
		for age, longest := range map[int]int{3: 3, 4: 3, 5: 5, 6: 5} {
			if a.Fits(age, instrument.Keyboard) {
				assert.LessOrEqual(t, a.Least, longest, "%s at %d", a.ID, age)
			}
		}
		if a.Moving {
			moving++
		}
	}
	assert.GreaterOrEqual(t, len(ids), 90)
	assert.Greater(t, moving, 15, "enough to alternate sitting and moving")
}

// The aims of a first meeting have at least three games each at three to five;
// common practice, no source.
func TestEachAimOfTheVeryYoungHasThreeGames(t *testing.T) {
	for f, group := range map[instrument.Family]string{instrument.Keyboard: "key-groups", instrument.Bowed: "open-strings", instrument.Plucked: "thumb-bass"} {
		for _, aim := range []string{"left-right", "hand-swap", "high-low", "steady-beat", group} {
			n := 0
			for _, a := range Bank() {
				if a.Aim == aim && a.Fits(4, f) {
					n++
				}
			}
			assert.GreaterOrEqual(t, n, 3, "%s on %s", aim, f)
		}
	}
	for _, f := range []instrument.Family{instrument.Keyboard, instrument.Bowed, instrument.Plucked} {
		for age := 3; age < 70; age++ {
			for _, p := range Probes(age, f) {
				found := false
				for _, a := range Bank() {
					found = found || a.Aim == p.Key && a.Fits(age, f)
				}
				assert.True(t, found, "%s at %d on %s has an activity", p.Key, age, f)
			}
		}
	}
}

// What is asked first, by age: common practice, no source.
func TestProbesByAge(t *testing.T) {
	keys := func(age int, f instrument.Family) (out []string) {
		for _, p := range Probes(age, f) {
			out = append(out, p.Key)
		}
		return
	}
	for _, c := range []struct {
		age    int
		family instrument.Family
		first  []string
	}{
		{3, instrument.Keyboard, []string{"left-right", "hand-swap", "key-groups", "steady-beat", "high-low"}},
		{4, instrument.Bowed, []string{"left-right", "hand-swap", "open-strings", "steady-beat", "high-low"}},
		{4, instrument.Plucked, []string{"left-right", "hand-swap", "thumb-bass", "steady-beat", "high-low"}},
		{5, instrument.Keyboard, []string{"sing-back", "find-by-ear", "echo-rhythm", "seat", "rote-tune", "hand-shape", "left-right", "steady-beat", "key-groups"}},
		{7, instrument.Bowed, []string{"sing-back", "find-by-ear", "echo-rhythm", "seat", "rote-tune", "bow-hold", "left-right", "steady-beat", "open-strings"}},
		{8, instrument.Plucked, []string{"seat", "resting-hand", "finger-numbers", "landmarks", "first-position", "steady-beat"}},
		{34, instrument.Keyboard, []string{"seat", "hand-shape", "finger-numbers", "landmarks", "five-fingers", "steady-beat"}},
		{34, instrument.Bowed, []string{"seat", "bow-hold", "finger-numbers", "landmarks", "block-fingers", "steady-beat"}},
	} {
		assert.Equal(t, c.first, keys(c.age, c.family)[:len(c.first)], "at %d on %s", c.age, c.family)
	}
	assert.NotContains(t, keys(34, instrument.Keyboard), "left-right", "an adult is not asked for left and right")
	assert.True(t, Young(4))
	assert.False(t, Young(5))
	for _, p := range Probes(40, instrument.Keyboard) {
		assert.True(t, Reasoned(p.Key, 40), "who is older hears why: %s", p.Key)
	}
	assert.Contains(t, keys(6, instrument.Bowed), "open-strings")
	assert.True(t, IsProbe("sing-back"))
	assert.False(t, IsProbe("improvise"))
}

func TestAnOwnActivityIsChecked(t *testing.T) {
	g := skill.Catalogue()
	good := Activity{ID: "own", Title: "Ours", Aim: "steady-beat", From: 4, To: 9, Least: 1, Most: 3, Family: instrument.Shared, Levels: []string{"Walk."}}
	require.NoError(t, good.Check(g))
	for says, spoil := range map[string]func(*Activity){
		"needs a title":       func(a *Activity) { a.Title = " " },
		"is no aim":           func(a *Activity) { a.Aim = "flying" },
		"do not make a range": func(a *Activity) { a.To = 3 },
		"minutes do not make": func(a *Activity) { a.Most = 0 },
		"one to three levels": func(a *Activity) { a.Levels = nil },
		"not a family":        func(a *Activity) { a.Family = "brass" },
		"is not a caution":    func(a *Activity) { a.Cautions = []string{"noise"} },
	} {
		bad := good
		spoil(&bad)
		assert.ErrorContains(t, bad.Check(g), says)
	}
}
