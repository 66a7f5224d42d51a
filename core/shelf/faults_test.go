package shelf

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

func TestFaultsNameItemAndSkill(t *testing.T) {
	one := []skill.Link{{Do: "a small thing", Minutes: 1, Weeks: 1}}
	g, err := skill.New([]skill.Skill{
		{ID: "beat", Name: "Steady beat", Family: instrument.Shared, Weight: 1, Chain: one},
		{ID: "halves", Name: "Two to a beat", Family: instrument.Shared, Weight: 1, Chain: one, RestsOn: []string{"beat"}},
		{ID: "bow", Name: "Bow hold", Family: instrument.Bowed, Weight: 1, Chain: one},
		{ID: "lost", Name: "Nobody's skill", Family: instrument.Shared, Weight: 1, Chain: one},
	})
	require.NoError(t, err)
	items := []Item{
		{ID: "a", Title: "A", Instrument: "piano", Brings: []string{"beat"}},
		{ID: "b", Title: "B", Instrument: "piano", Needs: []string{"beat", "halves"}},
		{ID: "c", Title: "C", Instrument: "piano", Brings: []string{"bow"}},
		{ID: "d", Title: "D", Instrument: "cello", Brings: []string{"bow", "halves"}, Needs: []string{"halves"}, Revisits: []string{"nothing"}},
	}
	var got []string
	for _, f := range Faults(g, instrument.Shipped, items) {
		got = append(got, f.Item+" "+f.Why.Code+" "+f.Why.Args["skill"])
	}
	assert.Equal(t, []string{
		"b nothing-brings Two to a beat", // the cello's does not count
		"c other-family Bow hold",
		"d no-such-skill nothing",
		"d brings-and-needs Two to a beat",
		" orphan-skill Nobody's skill",
	}, got)
	assert.Empty(t, FaultsOf(g, instrument.Shipped.Of("piano"), items[0], nil))
}
