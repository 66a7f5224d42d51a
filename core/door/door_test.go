package door

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

const (
	emil  = "01KTESTEMJ0000000000000000"
	priya = "01KTESTPRJYA00000000000000"
)

var now = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)

func id(n byte) string { return "01KTESTFACT00000000000000" + string(n) }

func told(n byte, student string, b fact.Body) fact.Fact {
	return fact.Fact{ID: id(n), Student: student, At: now, By: fact.Teacher, Body: b}
}

// known is a studio with a piece on Emil's ladder, a point of his own, a spot, a
// question of the family and a sheet.
func known() Known {
	k := Known{Now: now, Stored: map[string]fact.Fact{}, Graph: skill.Graph{"reach-back": {}}, Own: []activity.Activity{{ID: "own-game"}},
		Items: map[string]shelf.Item{"lamp": {ID: "lamp", Book: "Shore", Cards: "landmarks, steps", Points: shelf.PointsOf("Tone"), Parts: shelf.PartsOf("one"),
			Past: []shelf.Past{{Points: shelf.PointsOf("Bow hold"), Parts: shelf.PartsOf("coda")}}}},
		Lines: map[string][]string{DocumentKey(emil, id('D')): {"now r1"}}}
	for _, f := range []fact.Fact{
		told('A', emil, fact.RungAdded{Item: "lamp", Strand: "book"}),
		told('B', emil, fact.OwnPoint{Name: "Elbow free"}),
		told('C', emil, fact.SpotNoted{Rung: id('A'), Where: "bar 3", Goal: 5}),
		{ID: id('E'), Student: emil, At: now, By: fact.Family, Body: fact.QuestionAsked{Text: "Which bow?"}},
		told('F', priya, fact.RungAdded{Item: "lamp", Strand: "book"}),
	} {
		k.Stored[f.ID] = f
	}
	return k
}

func TestWhatTheLogTakes(t *testing.T) {
	a := id('A')
	for _, c := range []struct {
		name string
		by   fact.Author
		body fact.Body
		says string // empty where it is taken
	}{
		{"a piece taught", fact.Teacher, fact.Taught{Rung: a}, ""},
		{"a piece that is not on the ladder", fact.Teacher, fact.Taught{Rung: id('Z')}, "is not a rung of this student"},
		{"another student's piece", fact.Teacher, fact.Taught{Rung: id('F')}, "is not a rung of this student"},
		{"a point of the piece", fact.Teacher, fact.PointMarked{Rung: a, Point: "tone", State: "met"}, ""},
		{"the student's own point", fact.Teacher, fact.PointMarked{Rung: a, Point: "own-" + id('B'), State: "met"}, ""},
		{"an own point that is none", fact.Teacher, fact.PointMarked{Rung: a, Point: "own-" + a, State: "met"}, "is not a point of this piece"},
		{"a point of no piece", fact.Teacher, fact.PointHeld{Rung: a, Point: "colour"}, "is not a point of this piece"},
		{"a point of an earlier revision", fact.Teacher, fact.PointMarked{Rung: a, Point: "bow-hold", State: "met"}, ""},
		{"a part of an earlier revision", fact.Teacher, fact.FootholdTried{Rung: a, Part: "coda", Outcome: "granted"}, ""},
		{"nothing at all", fact.Teacher, nil, "no body"},
		{"a card of its decks", fact.Teacher, fact.CardAnswered{Rung: a, Card: "steps C4 D4", Outcome: "pass"}, ""},
		{"a card of another deck", fact.Teacher, fact.CardAnswered{Rung: a, Card: "chords C 1", Outcome: "pass"}, "is not a card of this item"},
		{"a card from home", fact.Family, fact.CardAnswered{Rung: a, Card: "steps C4 D4", Outcome: "pass"}, "not for the family's page"},
		{"a spot", fact.Teacher, fact.SpotDrilled{Rung: a, Spot: id('C'), Run: 3}, ""},
		{"a spot that is none", fact.Teacher, fact.SpotDrilled{Rung: a, Spot: a, Run: 3}, "is not a spot of this student"},
		{"a part", fact.Teacher, fact.FootholdTried{Rung: a, Part: "one", Outcome: "granted"}, ""},
		{"a part that is none", fact.Teacher, fact.FootholdTried{Rung: a, Part: "two", Outcome: "granted"}, "is not a part of this piece"},
		{"an item of the shelf", fact.Teacher, fact.RungAdded{Item: "lamp", Strand: "book", After: a}, ""},
		{"an item of no shelf", fact.Teacher, fact.RungAdded{Item: "none", Strand: "book"}, `there is no item "none" here`},
		{"above a rung that is none", fact.Teacher, fact.RungMoved{Rung: a, After: id('F')}, "is not a rung of this student"},
		{"to the top", fact.Teacher, fact.RungMoved{Rung: a, After: fact.Top}, ""},
		{"a book", fact.Teacher, fact.BookChosen{Book: "Shore", From: "lamp"}, ""},
		{"a book that is none", fact.Teacher, fact.BookChosen{Book: "Open Sea"}, "there is no book"},
		{"a skill", fact.Teacher, fact.Prepared{Skill: "reach-back", Step: 1}, ""},
		{"a skill that is none", fact.Teacher, fact.Prepared{Skill: "flying", Step: 1}, "there is no skill"},
		{"the test for the first book", fact.Teacher, fact.Probed{Probe: fact.FirstBook, Outcome: "pass"}, ""},
		{"a probe that is none", fact.Teacher, fact.Probed{Probe: "juggling", Outcome: "pass"}, "there is no probe"},
		{"a game of the studio's own", fact.Teacher, fact.ActivityDone{Activity: "own-game", Outcome: "pass"}, ""},
		{"a game that is none", fact.Teacher, fact.ActivityAsked{Activity: "none"}, "there is no activity"},
		{"a school", fact.Teacher, fact.ApproachSet{Question: "upkeep", School: "third"}, ""},
		{"a school of another question", fact.Teacher, fact.ApproachSet{Question: "upkeep", School: "c"}, "is not a school of the question upkeep"},
		{"a question that is none", fact.Teacher, fact.ApproachSet{Question: "feet", School: "bare"}, "is not a question of the approach"},
		{"an answer", fact.Teacher, fact.QuestionAnswered{Question: id('E')}, ""},
		{"an answer to nothing", fact.Teacher, fact.QuestionAnswered{Question: a}, "is not a question of this student"},
		{"a line added from the shelf", fact.Teacher, fact.LineAdded{Day: "2026-11-18", Item: "lamp"}, ""},
		{"an exercise added", fact.Teacher, fact.LineAdded{Day: "2026-11-18", Exercise: "scale Eb major both"}, ""},
		{"an exercise that is none", fact.Teacher, fact.LineAdded{Day: "2026-11-18", Exercise: "juggle Eb"}, "there is no exercise"},
		{"a line that says nothing", fact.Teacher, fact.LineAdded{Day: "2026-11-18", Minutes: 5}, "says nothing"},
		{"a line of the sheet", fact.Family, fact.Ticked{Day: "2026-11-18", Document: id('D'), Line: "now r1"}, ""},
		{"a line of no sheet", fact.Family, fact.Ticked{Day: "2026-11-18", Document: id('D'), Line: "now r2"}, "is not a line of that sheet"},
		{"a sheet that was never given", fact.Family, fact.Ticked{Day: "2026-11-18", Document: id('X'), Line: "now r1"}, "is not a sheet of this student"},
		{"a tick of before sheets were kept", fact.Family, fact.Ticked{Day: "2026-11-18", Line: "now r1"}, ""},
		{"the teacher takes back a question", fact.Teacher, fact.Retracted{Ref: id('E')}, ""},
		{"the family takes back its question", fact.Family, fact.Retracted{Ref: id('E')}, ""},
		{"the family takes back a piece", fact.Family, fact.Retracted{Ref: a}, "did not tell"},
		{"nothing is taken back", fact.Teacher, fact.Retracted{Ref: id('Z')}, "is not a fact of this student"},
		{"the family grants a foothold", fact.Family, fact.FootholdTried{Rung: a, Outcome: "granted"}, "not for the family's page"},
		{"the family notes", fact.Family, fact.Noted{Text: "x"}, "not for the family's page"},
		{"the family asks", fact.Family, fact.QuestionAsked{Text: "How long?"}, ""},
		{"a form that is wrong", fact.Teacher, fact.Noted{}, "text is missing"},
	} {
		f := fact.Fact{ID: id('N'), Student: emil, At: now, Body: c.body}
		fresh, err := known().Take(c.by, []fact.Fact{f})
		if c.says != "" {
			assert.ErrorContains(t, err, c.says, c.name)
			continue
		}
		require.NoError(t, err, c.name)
		f.By = c.by
		assert.Equal(t, []fact.Fact{f}, fresh, c.name)
	}
}

func TestADeliveryIsTakenWholeOrNotAtAll(t *testing.T) {
	good := fact.Fact{ID: id('M'), Student: emil, At: now, Body: fact.Noted{Text: "x"}}
	bad := fact.Fact{ID: id('N'), Student: emil, At: now, Body: fact.Taught{Rung: id('Z')}}
	_, err := known().Take(fact.Teacher, []fact.Fact{good, bad, good})
	var refused *Refusal
	require.True(t, errors.As(err, &refused))
	assert.Equal(t, [2]int{2, 3}, [2]int{refused.At, refused.Of}, "the place of the first bad one")
	assert.False(t, refused.Conflict)
}

func TestAnIDStandsForOneThing(t *testing.T) {
	before := known().Stored[id('A')]
	for _, c := range []struct {
		name     string
		change   func(*fact.Fact)
		conflict bool
	}{
		{"the same again", func(*fact.Fact) {}, false},
		{"the same in another zone", func(f *fact.Fact) { f.At = f.At.In(time.FixedZone("east", 3600)) }, false},
		{"another body", func(f *fact.Fact) { f.Body = fact.RungAdded{Item: "lamp", Strand: "repertoire"} }, true},
		{"another kind", func(f *fact.Fact) { f.Body = fact.Noted{Text: "x"} }, true},
		{"another student", func(f *fact.Fact) { f.Student = priya }, true},
		{"another moment", func(f *fact.Fact) { f.At = f.At.Add(time.Microsecond) }, true},
	} {
		f := before
		c.change(&f)
		fresh, err := known().Take(fact.Teacher, []fact.Fact{f})
		var refused *Refusal
		assert.Equal(t, c.conflict, errors.As(err, &refused) && refused.Conflict, c.name)
		assert.Empty(t, fresh, "%s: nothing new", c.name)
	}
	twice := []fact.Fact{{ID: id('M'), Student: emil, At: now, Body: fact.Noted{Text: "x"}}, {ID: id('M'), Student: emil, At: now, Body: fact.Noted{Text: "y"}}}
	_, err := known().Take(fact.Teacher, twice)
	assert.ErrorContains(t, err, "with other content", "two things under one id in one delivery")
}

func TestWhatIsToldBesideMayBeNamed(t *testing.T) {
	added := fact.Fact{ID: id('M'), Student: emil, At: now, Body: fact.RungAdded{Item: "lamp", Strand: "book"}}
	list := []fact.Fact{added, {ID: id('N'), Student: emil, At: now, Body: fact.Taught{Rung: added.ID}},
		{ID: id('P'), Student: emil, At: now, Body: fact.Retracted{Ref: id('N')}}, {ID: id('Q'), Student: emil, At: now, Body: fact.Retracted{Ref: id('P')}}}
	fresh, err := known().Take(fact.Teacher, append(list, list[1]))
	require.NoError(t, err)
	assert.Equal(t, 4, len(fresh), "once each")
	assert.Equal(t, []string{id('M'), id('N'), id('P'), id('Q')}, Named(list))
	tick := fact.Fact{ID: id('M'), Student: emil, At: now, Body: fact.Ticked{Day: "2026-11-18", Document: id('D'), Line: "now r1"}}
	back := fact.Fact{ID: id('N'), Student: emil, At: now, Body: fact.Retracted{Ref: tick.ID}}
	_, err = known().Take(fact.Family, []fact.Fact{tick, back})
	assert.NoError(t, err, "made and taken back without a connection")
	assert.Equal(t, []string{id('D')}, Documents([]fact.Fact{tick, tick, back}))
	borrowed := tick
	borrowed.ID = id('A')
	_, err = known().Take(fact.Family, []fact.Fact{borrowed, {ID: id('N'), Student: emil, At: now, Body: fact.Retracted{Ref: id('A')}}})
	assert.ErrorContains(t, err, "with other content", "a tick that borrows the id of the teacher's fact")
}

// What a student of twelve or more tells alone, and what the family settles.
func TestAStudentAlone(t *testing.T) {
	for b, may := range map[fact.Body]bool{fact.Ticked{}: true, fact.Practised{}: true, fact.Tripped{}: true, fact.QuestionAsked{}: true, fact.Retracted{}: true, fact.TreatSet{}: false, fact.TreatDropped{}: false} {
		assert.Equal(t, may, FromStudent(b), "%T", b)
	}
	assert.False(t, FromStudent(fact.DaysSet{}))
}
