package advice

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/activity"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/words"
)

func TestWhatMayBeAddedToASheet(t *testing.T) {
	items := []shelf.Item{{ID: "gulls", Title: "Gulls on the Slipway", Book: "Shore"}, {ID: "rest", Title: "Where Gulls Rest", Book: "Shore"}, {ID: "marks", Title: "Landmarks", Book: "Shore", Cards: "landmarks"}}
	games := []activity.Activity{{ID: "gull", Title: "Gull calls", Family: instrument.Shared, From: 3, To: 7}}
	s := ladder.Standing{Rungs: []ladder.Rung{{ID: "r1", Item: items[0]}}}
	find := func(sought string, age int) (titles []string) {
		for _, a := range AddableTo("2026-11-18", sought, s, items, games, instrument.Shipped.Of("piano"), age, words.In(words.Reader{}).Label) {
			titles = append(titles, a.Kind+" "+a.Title)
		}
		return titles
	}
	for _, c := range []struct {
		sought string
		age    int
		want   []string
	}{
		{"gull", 7, []string{"piece Gulls on the Slipway", "game Gull calls", "piece Where Gulls Rest"}}, // what begins so comes first
		{"gull", 8, []string{"piece Gulls on the Slipway", "piece Where Gulls Rest"}},
		{"gulls shore rest", 8, []string{"piece Where Gulls Rest"}},
		{"cards", 8, []string{"cards Landmarks"}},
		{"e flat major, two", 8, []string{"exercise E flat major, two octaves", "exercise Broken chord of E flat major, two octaves", "exercise Two halves of E flat major, for two"}},
		{"two against three", 8, []string{"exercise Two against three", "exercise Three against two"}},
		{" ", 8, nil},
		{"no such thing", 8, nil},
	} {
		assert.Equal(t, c.want, find(c.sought, c.age), c.sought)
	}
	assert.Len(t, find("major", 8), mostAddable)
	tells := func(sought string) fact.LineAdded {
		return AddableTo("2026-11-18", sought, s, items, games, instrument.Shipped.Of("piano"), 8, words.In(words.Reader{}).Label)[0].Tell[0].(fact.LineAdded)
	}
	assert.Equal(t, fact.LineAdded{Day: "2026-11-18", Item: "gulls", Rung: "r1"}, tells("gulls on"), "of what is on the ladder the rung is named")
	assert.Equal(t, fact.LineAdded{Day: "2026-11-18", Exercise: "cross 2:3 C major right"}, tells("two against three"))
}
