package week

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/fact"
)

// What a family is told when the sheet that it has is changed.
func TestWhatASheetAsksOtherwise(t *testing.T) {
	sh := drafted()
	line := sh.Days[1].Tasks[0]
	other := func(bodies ...fact.Body) (said []string) {
		var facts []fact.Fact
		for i, b := range bodies {
			facts = append(facts, fact.Fact{ID: string(rune('a' + i)), Body: b})
		}
		for _, l := range Changed(english, sh, Edit(sh, facts, Adds{Ask: Ask{Voice: english}})) {
			said = append(said, l.Says)
		}
		return said
	}
	add := func(text string) fact.Body { return fact.LineAdded{Day: from, Text: text} }
	for _, c := range []struct {
		name string
		told []fact.Body
		want []string
	}{
		{"nothing", nil, nil},
		{"a sentence is on top anyway", []fact.Body{fact.SheetNoted{Text: "Well done."}}, nil},
		{"a line that is new", []fact.Body{add("Sing it.")}, []string{"New: Sing it."}},
		{"one that is gone", []fact.Body{fact.LineStruck{Line: line.Key}}, []string{"No longer asked: " + line.Title + ": " + line.Says.What + "."}},
		{"another count", []fact.Body{fact.LineChanged{Line: line.Key, Count: 9}}, []string{"Changed: " + line.Title + ": bars 1–4, 9 times."}},
		{"other days", []fact.Body{fact.LineChanged{Line: line.Key, Weekdays: []int{0}}}, []string{line.Title + " stands on other days."}},
		{"six are told one by one", []fact.Body{add("1."), add("2."), add("3."), add("4."), add("5."), add("6.")}, []string{"New: 1.", "New: 2.", "New: 3.", "New: 4.", "New: 5.", "New: 6."}},
		{"seven make another sheet", []fact.Body{add("1."), add("2."), add("3."), add("4."), add("5."), add("6."), add("7.")}, []string{"Most of this sheet is new: please read it through."}},
	} {
		assert.Equal(t, c.want, other(c.told...), c.name)
	}
}
