package week

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestWhatIsBracketedOverTheNotes(t *testing.T) {
	chunk := func(rung, from, to, hand string, bars [2]int, level int) Task {
		return Task{Band: "now", Rung: rung, Title: "The " + rung, From: bars[0], To: bars[1], Start: &Start{From: from, To: to, Hand: hand, Level: level}, Says: Words{Mark: hand + " hand"}}
	}
	sheet := Sheet{Days: []Day{
		{Tasks: []Task{chunk("jig", "n5", "n8", "right", [2]int{3, 4}, 0), chunk("air", "a1", "a4", "left", [2]int{1, 1}, 0)}},
		{Tasks: []Task{
			chunk("jig", "n5", "n8", "right", [2]int{3, 4}, 0), // again
			chunk("jig", "n5", "n8", "left", [2]int{3, 4}, 0),
			chunk("jig", "n1", "n8", "right", [2]int{1, 4}, 1),
			{Band: "now", Rung: "jig", From: 1, To: 4},                                            // without notes
			{Band: "now", Rung: "jig", From: 9, To: 9, Spot: "bar 9", Start: &Start{From: "n30"}}, // a spot
			{Band: "now", Rung: "jig", Start: &Start{From: "n1"}},                                 // the whole
			{Band: "upkeep", Rung: "old", From: 1, To: 2, Start: &Start{From: "o1"}},
		}},
	}}
	assert.Equal(t, []Bracketed{
		{"jig", "item of jig", "The jig", 1, 4, []Bracket{
			{"n5", "n8", "right", 0, "right hand", 1}, {"n5", "n8", "left", 0, "left hand", 2}, {"n1", "n8", "right", 1, "right hand", 3}}},
		{"air", "item of air", "The air", 1, 1, []Bracket{{"a1", "a4", "left", 0, "left hand", 1}}},
	}, sheet.Bracketed(func(t Task) string { return "item of " + t.Rung }))
}
