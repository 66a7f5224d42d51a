package report

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/record"
)

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
	ask := Ask{Name: "Emil", Span: autumn, Brought: record.Brought{Lessons: 10, Days: 34, Asked: 55, Footholds: []record.Won{{Title: "Lamp Room"}, {Title: "Twelve keys", Part: "G"}, {Title: "Twelve keys", Part: "D"}}, Skills: []string{"Dotted rhythm", "G position"}},
		Hand: []InHand{{"The Cooper's Jig", []string{"Tuning", "Spots"}}, {"Slack Water", nil}}, Next: []string{"Half Tide"}, Ahead: []string{"First finger reached back"}, Kept: 7,
		Words: map[string]int{"easy": 9, "hard": 3}, Agreed: "two short sittings a day."}
	got := texts(Draft(ask))
	assert.Equal(t, map[string]string{
		"word":   "",
		"learnt": "Emil has had 10 lessons and finished 2 things: “Lamp Room” and “Twelve keys” (G and D). Finished means: played through alone, with the right notes, rhythm and fingers. It goes on to be polished, often for a year.",
		"skills": "Dotted rhythm; G position.",
		"old":    "7 finished pieces are there by now, and they are heard again and again, so that nothing learnt is lost.",
		"home":   "There was practice on 34 of the 55 days that were asked for. The word told most often: easy. What we agreed on: two short sittings a day.",
		"hand":   "“The Cooper's Jig”, still open: tuning and spots. “Slack Water” is nearly there.",
		"next":   "Next comes “Half Tide”. Already being prepared, a minute at a time: first finger reached back.",
	}, got)
	ask.Adult = true
	assert.True(t, strings.HasPrefix(texts(Draft(ask))["learnt"], "You have had 10 lessons"), "a grown-up is spoken to")
	assert.Equal(t, "One finished piece is there by now, and it is heard again and again, so that nothing learnt is lost.", texts(Draft(Ask{Adult: true, Kept: 1}))["old"])
}

func TestATermInWhichLittleHappened(t *testing.T) {
	slow := texts(Draft(Ask{Name: "Luca", Span: autumn, Brought: record.Brought{Lessons: 9, Asked: 50}}))
	assert.Contains(t, slow["learnt"], "Luca has had 9 lessons. Nothing was finished in this time, which is nothing out of the ordinary: a piece takes between one week and ten")
	assert.Contains(t, slow["home"], "We have heard nothing of the 50 days")
	for _, none := range []string{"skills", "old", "hand", "next"} {
		assert.NotContains(t, slow, none, "what there is not is not told")
	}
	away := texts(Draft(Ask{Name: "Luca", Span: autumn}))
	assert.Equal(t, "There was no lesson from 7 September to 11 December.", away["learnt"])
	assert.Equal(t, "Nothing was asked for at home in this time.", away["home"])
	dull := texts(Draft(Ask{Name: "Luca", Brought: record.Brought{Lessons: 9, Asked: 50, Days: 40}, Words: map[string]int{"dull": 8, "fun": 1}}))
	assert.Equal(t, "There was practice on 40 of the 50 days that were asked for. The word told most often: dull. We take that seriously, and choose pieces together.", dull["home"])
	games := texts(Draft(Ask{Name: "Wren", Before: true, Kept: 3, Brought: record.Brought{Lessons: 9, Footholds: []record.Won{{Title: "Palm to palm"}}}}))
	assert.Contains(t, games["learnt"], "its game makes room for the next")
	assert.NotContains(t, games, "old", "games are not kept up")
	one := texts(Draft(Ask{Name: "Luca", Span: autumn, Brought: record.Brought{Lessons: 1, Footholds: []record.Won{{Title: "A"}}}, Hand: []InHand{{"B", []string{"Tone"}}}, Next: []string{"C", "D"}}))
	assert.Contains(t, one["learnt"], "Luca has had one lesson and finished one thing: “A”.")
	assert.Equal(t, "“B”, still open: tone.", one["hand"])
	assert.Equal(t, "Next come “C” and “D”.", one["next"])
}

// A page holds so much: of many things the first are named, and what is longer is refused.
func TestItStandsOnAPage(t *testing.T) {
	var won []record.Won
	for i := range 11 {
		won = append(won, record.Won{Title: fmt.Sprintf("P%d", i)})
	}
	assert.Contains(t, texts(Draft(Ask{Name: "A", Brought: record.Brought{Lessons: 2, Footholds: won}}))["learnt"], "“P5”, “P6”, “P7” and 3 more.")
	assert.Contains(t, texts(Draft(Ask{Name: "A", Brought: record.Brought{Lessons: 2, Footholds: won[:8]}}))["learnt"], "“P6” and “P7”.")
	long := Report{Paragraphs: []Paragraph{{Text: strings.Repeat("ä", Longest)}}}
	assert.NoError(t, long.Check())
	long.Paragraphs[0].Title = "x"
	assert.ErrorContains(t, long.Check(), "shorten it by 1")
	assert.Equal(t, []Paragraph{{Key: "home", Text: "x"}}, Report{Paragraphs: []Paragraph{{Key: "word", Text: " "}, {Key: "home", Text: "x"}}}.Said())
}
