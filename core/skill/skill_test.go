package skill

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
)

func TestGraphNamesWhatIsWrong(t *testing.T) {
	one := []Link{{"Do it", 1, 1, "", ""}}
	for _, c := range []struct {
		name   string
		skills []Skill
		says   string
	}{
		{"twice", []Skill{{ID: "beat", Weight: 1, Chain: one}, {ID: "beat", Weight: 1, Chain: one}}, `"beat" stands twice`},
		{"missing", []Skill{{ID: "dotted", RestsOn: []string{"halves"}, Weight: 1, Chain: one}}, `"dotted" rests on "halves", which is not in the graph`},
		{"circle", []Skill{{ID: "z", RestsOn: []string{"a"}, Weight: 1, Chain: one}, {ID: "a", RestsOn: []string{"b"}, Weight: 1, Chain: one}, {ID: "b", RestsOn: []string{"c"}, Weight: 1, Chain: one}, {ID: "c", RestsOn: []string{"a"}, Weight: 1, Chain: one}}, "a → b → c → a"},
		{"weightless", []Skill{{ID: "a", Chain: one}}, `"a" has no weight`},
		{"nothing prepares it", []Skill{{ID: "a", Weight: 1}}, `"a" has a chain of 0 tasks`},
		{"a task of no time", []Skill{{ID: "a", Weight: 1, Chain: []Link{{"x", 0, 1, "", ""}}}}, "lacks its minutes"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := New(c.skills)
			assert.ErrorContains(t, err, c.says)
		})
	}
}

func TestCatalogue(t *testing.T) {
	g := Catalogue()
	assert.Equal(t, "reach-back", g.Name("reach-back"), "names are a language's")
	assert.Equal(t, "no-such-skill", g.Name("no-such-skill"))
	assert.GreaterOrEqual(t, len(g), 120)
	areas := map[Area]int{}
	for _, s := range g.Sorted() {
		assert.NotNil(t, s.RestsOn, s.ID)
		areas[s.Area]++
		for _, below := range s.RestsOn {
			assert.Contains(t, []instrument.Family{instrument.Shared, s.Family}, g[below].Family, "%s rests on another family's skill", s.ID)
		}
		assert.True(t, s.Weight >= 0.5 && s.Weight <= 2.5, s.ID)
		for _, task := range s.Chain {
			assert.LessOrEqual(t, task.Minutes, 2, "%s: a head start is a minute or two a day", s.ID)
		}
	}
	assert.Len(t, areas, 7)
}

// What rests on what, however far down: the orders in which the trade teaches
// two hands, rhythm, scales, voicing, finger patterns, double notes and
// plucking. Common practice, no source.
func TestTheChainsOfTheTrade(t *testing.T) {
	g := Catalogue()
	var below func(id, want string) bool
	below = func(id, want string) bool {
		for _, b := range g[id].RestsOn {
			if b == want || below(b, want) {
				return true
			}
		}
		return false
	}
	for name, chain := range map[string][]string{
		"two hands":       {"five-fingers", "hands-in-turn", "held-left-hand", "hands-together", "two-touches", "independence", "two-voices"},
		"polyrhythm":      {"steady-beat", "halves", "thirds", "two-against-three", "three-against-four"},
		"scales":          {"five-fingers", "thumb-under", "scale-white", "meeting-points", "scale-two"},
		"twelve keys":     {"scale-white", "scale-black", "scale-memory"},
		"voicing":         {"loud-soft", "six-levels", "voicing", "tune-changes-hand"},
		"finger patterns": {"first-finger", "block-fingers", "stepping-fingers", "reach-back", "reach-forward"},
		"double notes":    {"bow-hold", "string-levels", "double-open", "double-notes"},
		"plucking":        {"resting-hand", "thumb-bass", "pima", "six-pattern"},
		"slides":          {"first-position", "hammer", "pull"},
	} {
		for i := 1; i < len(chain); i++ {
			assert.True(t, below(chain[i], chain[i-1]), "%s: %s should rest on %s", name, chain[i], chain[i-1])
		}
	}
	assert.Equal(t, 5, g["reach-back"].Weeks()+1, "shoulder, string, scale, minor tune: a month")
	assert.Len(t, g["two-against-three"].Chain, 4)
}

// A student's school may let a skill rest on more; the graph itself stays.
func TestResting(t *testing.T) {
	g := Catalogue()
	same := g.Resting(func(string) []string { return nil })
	assert.Equal(t, len(g), len(same))
	more := g.Resting(func(id string) []string {
		if id == "parallel-hands" {
			return []string{"mirrored-hands"}
		}
		return nil
	})
	assert.Contains(t, more["parallel-hands"].RestsOn, "mirrored-hands")
	assert.NotContains(t, g["parallel-hands"].RestsOn, "mirrored-hands")
}
