package places_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/advice"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/mixture"
	"patientladder/core/skill"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

func TestSuggestionsSayWhatFollows(t *testing.T) {
	r := studiotest.New(t)
	codes := func() (out []string) {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		for _, s := range v.Suggestions {
			out = append(out, s.Why.Code)
		}
		return
	}
	assert.Equal(t, []string{"nothing-placed"}, codes())
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	assert.Equal(t, []string{"first-lesson"}, codes())
	r.Tell(fact.Taught{Rung: lamp})
	assert.Equal(t, []string{"in-hand"}, codes())
	r.Tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	r.Tell(fact.PointMarked{Rung: lamp, Point: "tuning", State: fact.Met})
	spot := r.Tell(fact.SpotNoted{Rung: lamp, Where: "bar 3", Goal: 3})
	r.Tell(fact.SpotDrilled{Rung: lamp, Spot: spot, Run: 3})
	assert.Equal(t, []string{"ready-to-try"}, codes())
	r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	r.Now = r.Now.AddDate(0, 0, 21)
	assert.Equal(t, []string{"fading", "nothing-placed"}, codes())

	late := r.Now
	r.Now = time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	slow := r.Tell(fact.RungAdded{Item: "half", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: slow})
	r.Now = late
	assert.Contains(t, codes(), "past-its-range", "twelve weeks on one piece")
}

// Before the first book the ladder counts what is there of the test, and offers to
// enter the book as soon as a sign at most is missing.
func TestTheWayToTheFirstBook(t *testing.T) {
	r := studiotest.Furnished(t)
	in := studiotest.Newcomer(func(in *roster.NewStudent) {
		in.Begin, in.BirthYear, in.Books = "before", 2022, []string{"Tidelines: Pebbles"}
	})
	_, err := roster.AddStudent(ctx, r.App, r.Who, in)
	require.NoError(t, err)
	r.Student = in.ID
	book := func() advice.Suggestion {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		for _, s := range v.Suggestions {
			if strings.HasSuffix(s.Why.Code, "-book") {
				return s
			}
		}
		return advice.Suggestion{}
	}
	first := book()
	assert.Equal(t, "before-the-book", first.Why.Code)
	assert.Equal(t, "0", first.Why.Args["met"])
	assert.NotEmpty(t, first.Why.Args["missing"], "what to work for is named")
	assert.Empty(t, first.Accept)

	for _, s := range mixture.FirstBook(ladder.Standing{}, skill.Catalogue(), instrument.Shipped.Of("piano")).Signs {
		r.Tell(fact.Probed{Probe: s.Skill, Outcome: "pass"})
	}
	ready := book()
	assert.Equal(t, "try-first-book", ready.Why.Code)
	require.Len(t, ready.Accept, 1)
	r.Tell(ready.Accept[0])
	assert.Empty(t, book().Why.Code, "the book is entered")
}

func TestAnApproachIsTriedBeforeItIsTold(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	slip := r.Tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: slip})
	codes := func(question, school string) (out []string) {
		v, err := places.Effects(ctx, r.App, r.Who, r.Student, question, school)
		require.NoError(t, err)
		for _, e := range v.Effects {
			out = append(out, e.Code)
		}
		return
	}
	assert.Contains(t, codes("upkeep", "three-quarters"), "effect-share")
	assert.Equal(t, []string{"effect-counts"}, codes("counts", "quality"))
	assert.Equal(t, []string{"effect-cue"}, codes("hand-image", "round"))
	assert.Equal(t, []string{"effect-treats"}, codes("rewards", "music"))
	_, err := places.Effects(ctx, r.App, r.Who, r.Student, "upkeep", "all")
	assert.ErrorContains(t, err, "choose one of")

	set := r.Tell(fact.ApproachSet{Question: "upkeep", School: "third"})
	share := func() string {
		v, err := places.Approach(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		return string(v.Student.Approach["upkeep"])
	}
	assert.Equal(t, "third", share())
	r.Tell(fact.Retracted{Ref: set})
	assert.Equal(t, "half", share(), "taken back like anything that was told")
}

func TestASuggestionTurnedDownStaysAway(t *testing.T) {
	r := studiotest.Furnished(t)
	r.Tell(fact.BookChosen{Book: "Under the Bow 1"})
	fill := func() *advice.Suggestion {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		for _, s := range v.Suggestions {
			if s.Why.Code == "fill-ladder" {
				return &s
			}
		}
		return nil
	}
	s := fill()
	require.NotNil(t, s)
	require.Len(t, s.Accept, 12)
	r.Tell(fact.Overruled{Suggestion: s.Key, Until: "later"})
	assert.Nil(t, fill())
	r.Now = r.Now.AddDate(0, 0, 15)
	require.NotNil(t, fill(), "put off, not turned down")
	for _, f := range fill().Accept {
		r.Tell(f)
	}
	v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	placed := 0
	for _, rung := range v.Rungs {
		if rung.State != "proposed" {
			placed++
		}
	}
	assert.Equal(t, 12, placed, "accepting places what was proposed")
}
