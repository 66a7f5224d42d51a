package week

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/card"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// drill is an exercise, a deck or a game that was taught at the lesson.
func drill(it shelf.Item) ladder.Rung {
	it.Title = "T"
	return ladder.Rung{ID: "drill", Strand: shelf.Technique, Taught: at(from), Item: it, Points: []ladder.Point{{Key: "even", Name: "Even"}}}
}

// What technique and reading ask of a family at the piano, on the first day: which key,
// which hand, which fingers, how often; or what is shown and when it is right.
func TestWhatADrillSays(t *testing.T) {
	sameWeek := approach.Approach{approach.ScaleHands: "same-week"}
	done := func(n int) ladder.Rung {
		r := drill(shelf.Item{Exercise: "cycle right", Parts: shelf.PartsOf("C", "G", "D", "A", "E", "B", "F sharp", "D flat", "A flat", "E flat", "B flat", "F")})
		for i := range 12 {
			part := ladder.Part{ID: r.Item.Parts[i].ID, Name: r.Item.Parts[i].Name}
			if i < n {
				part.Foothold = at(from)
			}
			r.Parts = append(r.Parts, part)
		}
		return r
	}
	for _, c := range []struct {
		name string
		r    ladder.Rung
		a    approach.Approach
		age  int
		want string
		why  string
	}{
		{"a scale, each hand in the same week", drill(shelf.Item{Exercise: "scale C right"}), sameWeek, 9,
			"C major, up and down, right hand 1 2 3 1 2 3 4 5; then left hand 5 4 3 2 1 3 2 1; 3 times", "a-scale"},
		{"one hand a week", drill(shelf.Item{Exercise: "scale C right"}), approach.Approach{approach.ScaleHands: approach.OneHandAWeek}, 9,
			"C major, up and down, right hand 1 2 3 1 2 3 4 5; 3 times", "a-scale"},
		{"the tenth key of twelve, once", done(9), approach.Approach{approach.ScaleHands: approach.OneHandAWeek}, 9,
			"E flat major, up and down, right hand 3 1 2 3 4 1 2 3; once, slowly, with full attention", "a-cycle"},
		{"a cycle from five black keys", done(0), approach.Approach{approach.ScaleHands: approach.OneHandAWeek, approach.ScaleKey: approach.FiveBlacks}, 9,
			"B major, up and down, right hand 1 2 3 1 2 3 4 5; once, slowly, with full attention", "a-cycle"},
		{"a pattern, in a row", drill(shelf.Item{Exercise: "five G right"}), nil, 9, "Five fingers from G, five neighbours up and down, right hand 1 2 3 4 5; 5 in a row", "a-pattern"},
		{"no finger numbers before four", drill(shelf.Item{Exercise: "five G right"}), approach.Approach{approach.Numbers: approach.FromFour}, 3, "Five fingers from G, five neighbours up and down, right hand; 5 in a row", "a-pattern"},
		{"from day one", drill(shelf.Item{Exercise: "five G right"}), approach.Approach{approach.Numbers: approach.DayOne}, 3, "Five fingers from G, five neighbours up and down, right hand 1 2 3 4 5; 5 in a row", "a-pattern"},
		{"hands that cannot be told apart by fingers", drill(shelf.Item{Exercise: "voicing C"}), nil, 14, "One hand full, one in the background, from C, one hand full, the other touching its keys without sound; then soft; then swapped, both hands; 5 in a row", "a-pattern"},
		{"a game, step by step", drill(shelf.Item{Steps: []string{"Clap four", "Wait"}}), nil, 6, "Clap four. Wait", "a-game"},
		{"steps beside notes are the lesson's", drill(shelf.Item{Exercise: "five G right", Steps: []string{"Clap four"}}), nil, 9, "Five fingers from G, five neighbours up and down, right hand 1 2 3 4 5; 5 in a row", "a-pattern"},
	} {
		day := sheet(only(c.r), approach.Default(c.age).With(c.a), c.age, from, next).Days[1]
		require.Len(t, day.Tasks, 1, c.name)
		assert.Equal(t, c.want, day.Tasks[0].Says.What, c.name)
		assert.Equal(t, c.why, day.Tasks[0].Why.Code, c.name)
	}
}

// Cards: three at first, each with its answer; what is known makes room.
func TestCardsOfASheet(t *testing.T) {
	r := drill(shelf.Item{Cards: "landmarks"})
	first := sheet(only(r), approach.Default(8), 8, from, next).Days[1].Tasks[0]
	require.Len(t, first.Cards, 3)
	assert.Equal(t, "Which landmark is it, and where does it lie? → C, the middle C, left of the two black keys in the middle", first.Cards[0].Asks+" → "+first.Cards[0].Right)
	assert.Equal(t, "On ledger line 1 below the treble staff", first.Cards[0].Shown)
	assert.Equal(t, "cards", first.Says.Place)
	assert.Equal(t, "cards, as before: 1 time", first.Says.Again)
	r.Answered = []card.Answer{{Card: "landmarks C4", Outcome: fact.Pass, At: from.Add(-14).Time()}, {Card: "landmarks C4", Outcome: fact.Pass, At: from.Add(-7).Time()}}
	later := sheet(only(r), approach.Default(8), 8, from, next).Days[1].Tasks[0]
	assert.Equal(t, "landmarks G4", later.Cards[0].ID)
	r.Item.Cards = "landmarks, nonsense"
	assert.Empty(t, sheet(only(r), approach.Default(8), 8, from, next).Days[1].Tasks[0].Cards, "a deck that is none asks nothing")
}

// Two voices of which neither a hand nor fingers are told read as one.
func TestNothingIsSaidOfTwoVoicesAlike(t *testing.T) {
	for _, c := range []struct {
		plays []Play
		want  string
	}{
		{[]Play{{Title: "C major", How: "up and down"}, {Title: "C major", How: "up and down"}}, "C major, up and down; 3 times"},
		{[]Play{{Title: "C major", How: "up and down", Hand: "right", Fingers: "1 2 3"}, {Title: "C major", How: "up and down", Hand: "left", Fingers: "5 4 3"}}, "C major, up and down, right hand 1 2 3; then left hand 5 4 3; 3 times"},
	} {
		task := Task{Band: "now", Count: 3, Plays: c.plays}
		assert.Equal(t, c.want, task.drilled(teller{english, "student"}))
	}
}
