package skill

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
)

// What a teacher may put into the graph: both sides of each bound.
func TestASkillOfTheTeachersOwn(t *testing.T) {
	g := Catalogue().Named(func(s Skill) Skill {
		s.Name = "Named " + s.ID
		return s
	})
	task := Link{Do: "Sway", Minutes: 1, Weeks: 1}
	good := Skill{ID: "own", Name: "Sways in time", Family: instrument.Bowed, Area: Rhythm, Weight: 1, RestsOn: []string{"steady-beat", "bow-hold"}, Chain: []Link{task}}
	require.NoError(t, g.Check(good))
	for _, c := range []struct {
		name   string
		change func(*Skill)
		fits   bool
	}{
		{"no name", func(s *Skill) { s.Name = "  " }, false},
		{"80 letters", func(s *Skill) { s.Name = strings.Repeat("x", 80) }, true},
		{"81 letters", func(s *Skill) { s.Name = strings.Repeat("x", 81) }, false},
		{"no such family", func(s *Skill) { s.Family = "brass" }, false},
		{"another instrument", func(s *Skill) { s.Family, s.RestsOn = instrument.Other, nil }, true},
		{"no such area", func(s *Skill) { s.Area = "dance" }, false},
		{"the least weight", func(s *Skill) { s.Weight = 0.3 }, true},
		{"less", func(s *Skill) { s.Weight = 0.29 }, false},
		{"the most weight", func(s *Skill) { s.Weight = 3 }, true},
		{"more", func(s *Skill) { s.Weight = 3.01 }, false},
		{"rests on twelve", func(s *Skill) { s.RestsOn = firsts(g, 12) }, true},
		{"on thirteen", func(s *Skill) { s.RestsOn = firsts(g, 13) }, false},
		{"on another family's", func(s *Skill) { s.RestsOn = []string{"pima"} }, false},
		{"on nothing there is", func(s *Skill) { s.RestsOn = []string{"nothing"} }, false},
		{"on itself", func(s *Skill) { s.RestsOn = []string{"own"} }, false},
		{"a name that is there", func(s *Skill) { s.Name = "named bow-HOLD" }, false},
		{"a name of another family's", func(s *Skill) { s.Name = "Named pima" }, true},
		{"no task", func(s *Skill) { s.Chain = nil }, false},
		{"five tasks", func(s *Skill) { s.Chain = []Link{task, task, task, task, task} }, true},
		{"six tasks", func(s *Skill) { s.Chain = []Link{task, task, task, task, task, task} }, false},
		{"a task of 200 letters, 15 minutes, 20 weeks", func(s *Skill) { s.Chain = []Link{{strings.Repeat("x", 200), 15, 20, "", ""}} }, true},
		{"201 letters", func(s *Skill) { s.Chain = []Link{{strings.Repeat("x", 201), 1, 1, "", ""}} }, false},
		{"16 minutes", func(s *Skill) { s.Chain = []Link{{"Sway", 16, 1, "", ""}} }, false},
		{"21 weeks", func(s *Skill) { s.Chain = []Link{{"Sway", 1, 21, "", ""}} }, false},
		{"no words", func(s *Skill) { s.Chain = []Link{{"", 1, 1, "", ""}} }, false},
		{"no minutes", func(s *Skill) { s.Chain = []Link{{"Sway", 0, 1, "", ""}} }, false},
		{"no weeks", func(s *Skill) { s.Chain = []Link{{"Sway", 1, 0, "", ""}} }, false},
	} {
		s := good
		c.change(&s)
		assert.Equal(t, c.fits, g.Check(s) == nil, "%s: %v", c.name, g.Check(s))
	}
	with := g.With([]Skill{good})
	assert.Len(t, with, len(g)+1)
	assert.Equal(t, "Sways in time", with.Name("own"))
	require.NoError(t, with.Check(good), "itself again")
	over := good
	over.ID, over.Name, over.RestsOn = "over", "Sways and sings", []string{"own"}
	require.NoError(t, with.Check(over))
	good.RestsOn = []string{"over"}
	assert.ErrorContains(t, with.With([]Skill{over}).Check(good), "circle")
	assert.Len(t, g.With(nil), len(g))
}

func firsts(g Graph, n int) []string {
	var ids []string
	for _, s := range g.Sorted() {
		if s.Family == instrument.Shared && len(ids) < n {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

// The catalogue is listed by family, then by what a skill is about, then by name.
func TestSorted(t *testing.T) {
	g := Graph{}
	for _, s := range []Skill{
		{ID: "a", Name: "B", Family: instrument.Bowed, Area: Posture}, {ID: "b", Name: "A", Family: instrument.Bowed, Area: Posture},
		{ID: "c", Name: "A", Family: instrument.Shared, Area: Ear}, {ID: "d", Name: "Z", Family: instrument.Shared, Area: Rhythm},
	} {
		g[s.ID] = s
	}
	var ids []string
	for _, s := range g.Sorted() {
		ids = append(ids, s.ID)
	}
	assert.Equal(t, []string{"d", "c", "b", "a"}, ids)
	assert.Equal(t, 3, Skill{Chain: []Link{{Weeks: 1}, {Weeks: 2}}}.Weeks())
}

func TestAGraphThatCannotBe(t *testing.T) {
	task := []Link{{"x", 1, 1, "", ""}}
	for says, list := range map[string][]Skill{
		"stands twice":      {{ID: "a", Weight: 1, Chain: task}, {ID: "a", Weight: 1, Chain: task}},
		"has no weight":     {{ID: "a", Chain: task}},
		"not one to five":   {{ID: "a", Weight: 1}},
		"lacks its minutes": {{ID: "a", Weight: 1, Chain: []Link{{"x", 0, 1, "", ""}}}},
		"not in the graph":  {{ID: "a", Weight: 1, Chain: task, RestsOn: []string{"b"}}},
		"a → b → a":         {{ID: "a", Weight: 1, Chain: task, RestsOn: []string{"b"}}, {ID: "b", Weight: 1, Chain: task, RestsOn: []string{"a"}}},
	} {
		_, err := New(list)
		assert.ErrorContains(t, err, says)
	}
	g, err := New([]Skill{{ID: "a", Weight: 0.01, Chain: []Link{{"x", 1, 1, "", ""}, {"x", 1, 1, "", ""}, {"x", 1, 1, "", ""}, {"x", 1, 1, "", ""}, {"x", 1, 1, "", ""}}}})
	require.NoError(t, err)
	assert.NotNil(t, g["a"].RestsOn)
}
