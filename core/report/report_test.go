package report

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/record"
	"patientladder/words"
)

// english are the words in which these tests read reports.
var english = words.In(words.Reader{Language: words.Base})

var autumn = calendar.Span{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}

func texts(r Report) map[string]string {
	out := map[string]string{}
	for _, p := range r.Paragraphs {
		out[p.Key] = p.Text
	}
	return out
}

// A term in the family's words, read aloud. Common practice, no source.
func TestATermInTheFamilysWords(t *testing.T) {
	ask := Ask{Voice: english, Name: "Emil", Span: autumn, Brought: record.Brought{Lessons: 10, Days: 34, Asked: 55, Footholds: []record.Won{{Title: "Lamp Room"}, {Title: "Twelve keys", Part: "G"}, {Title: "Twelve keys", Part: "D"}}, Skills: []string{"Dotted rhythms", "G position"}}, Can: []string{"play dotted rhythms", "play in G position"},
		Hand: []InHand{{"The Cooper's Jig", []string{"Tuning", "Spots"}}, {"Slack Water", nil}}, Next: []string{"Half Tide"}, Ahead: []string{"Backward extension"}, Kept: 7,
		Words: map[string]int{"easy": 9, "hard": 3}, Agreed: "two short sittings a day."}
	got := texts(Draft(ask))
	assert.Equal(t, map[string]string{
		"word":   "",
		"learnt": "Emil had 10 lessons and learnt 2 things: “Lamp Room” and “Twelve keys” (G and D). Learnt means: played through without help, with the right notes, rhythm and fingers, and a good sound.",
		"skills": "Emil can now play dotted rhythms and play in G position.",
		"old":    "7 learnt pieces, played again and again to stay fresh.",
		"home":   "At home, Emil practised on 34 of 55 days. Mostly it was easy. What we agreed: two short sittings a day.",
		"hand":   "In “The Cooper's Jig” we are still working on: Tuning and Spots. “Slack Water” is nearly there.",
		"next":   "Next: “Half Tide”. A minute at a time, we are preparing: Backward extension.",
	}, got)
	ask.Adult = true
	assert.True(t, strings.HasPrefix(texts(Draft(ask))["learnt"], "You had 10 lessons"), "a grown-up is spoken to")
	assert.Equal(t, "1 learnt piece, played again and again to stay fresh.", texts(Draft(Ask{Voice: english, Adult: true, Kept: 1}))["old"])
}

func TestATermInWhichLittleHappened(t *testing.T) {
	slow := texts(Draft(Ask{Voice: english, Name: "Luca", Span: autumn, Brought: record.Brought{Lessons: 9, Asked: 50}}))
	assert.Contains(t, slow["learnt"], "Luca had 9 lessons. No piece was finished, which is quite normal: a piece takes between one and ten weeks.")
	assert.Contains(t, slow["home"], "No practice was logged on the 50 days with a practice sheet.")
	for _, none := range []string{"skills", "old", "hand", "next"} {
		assert.NotContains(t, slow, none, "what there is not is not told")
	}
	away := texts(Draft(Ask{Voice: english, Name: "Luca", Span: autumn}))
	assert.Equal(t, "There were no lessons from 7 September to 11 December.", away["learnt"])
	assert.Equal(t, "No practice was set for this time.", away["home"])
	dull := texts(Draft(Ask{Voice: english, Name: "Luca", Brought: record.Brought{Lessons: 9, Asked: 50, Days: 40}, Words: map[string]int{"dull": 8, "fun": 1}}))
	assert.Equal(t, "At home, Luca practised on 40 of 50 days. Mostly it was dull. That matters, so we choose the next pieces together.", dull["home"])
	games := texts(Draft(Ask{Voice: english, Name: "Wren", Before: true, Kept: 3, Brought: record.Brought{Lessons: 9, Footholds: []record.Won{{Title: "Palm to palm"}}}}))
	assert.Contains(t, games["learnt"], "makes room for the next game")
	assert.NotContains(t, games, "old", "games are not kept up")
	one := texts(Draft(Ask{Voice: english, Name: "Luca", Span: autumn, Brought: record.Brought{Lessons: 1, Footholds: []record.Won{{Title: "A"}}}, Hand: []InHand{{"B", []string{"Tone"}}}, Next: []string{"C", "D"}}))
	assert.Contains(t, one["learnt"], "Luca had 1 lesson and learnt 1 thing: “A”.")
	assert.Equal(t, "In “B” we are still working on: Tone.", one["hand"])
	assert.Equal(t, "Next: “C” and “D”.", one["next"])
}

// A page holds so much: of many things the first are named, and what is longer is refused.
func TestItStandsOnAPage(t *testing.T) {
	var won []record.Won
	for i := range 11 {
		won = append(won, record.Won{Title: fmt.Sprintf("P%d", i)})
	}
	assert.Contains(t, texts(Draft(Ask{Voice: english, Name: "A", Brought: record.Brought{Lessons: 2, Footholds: won}}))["learnt"], "“P5”, “P6”, “P7” and 3 more.")
	assert.Contains(t, texts(Draft(Ask{Voice: english, Name: "A", Brought: record.Brought{Lessons: 2, Footholds: won[:8]}}))["learnt"], "“P6” and “P7”.")
	long := Report{Paragraphs: []Paragraph{{Text: strings.Repeat("ä", Longest)}}}
	assert.NoError(t, long.Check())
	long.Paragraphs[0].Title = "x"
	assert.ErrorContains(t, long.Check(), "shorten it by 1")
	assert.Equal(t, []Paragraph{{Key: "home", Text: "x"}}, Report{Paragraphs: []Paragraph{{Key: "word", Text: " "}, {Key: "home", Text: "x"}}}.Said())
}
