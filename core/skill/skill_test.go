package skill

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestGraphNamesWhatIsWrong(t *testing.T) {
	for _, c := range []struct {
		name   string
		skills []Skill
		says   string
	}{
		{"twice", []Skill{{ID: "beat"}, {ID: "beat"}}, `"beat" stands twice`},
		{"missing", []Skill{{ID: "dotted", RestsOn: []string{"halves"}}}, `"halves", which is not in the graph`},
		{"circle", []Skill{{ID: "a", RestsOn: []string{"b"}}, {ID: "b", RestsOn: []string{"c"}}, {ID: "c", RestsOn: []string{"a"}}}, "rests on itself"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := New(c.skills)
			assert.ErrorContains(t, err, c.says)
		})
	}
}

func TestCatalogue(t *testing.T) {
	g := Catalogue()
	assert.Equal(t, "First finger reached back", g.Name("reach-back"))
	assert.Equal(t, "no-such-skill", g.Name("no-such-skill"))
	assert.Len(t, g, len(catalogue))
	for _, s := range g {
		assert.NotEmpty(t, s.Name)
		for _, below := range s.RestsOn {
			assert.Contains(t, []Family{Shared, s.Family}, g[below].Family, "%s rests on another family's skill", s.ID)
		}
	}
}
