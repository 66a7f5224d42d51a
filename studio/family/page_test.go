package family_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/week"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// A family tells up to a thousand facts a day; what is more waits for the next.
func TestHowMuchAFamilyTellsInADay(t *testing.T) {
	r := studiotest.New(t)
	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	tell := func(n int) error {
		var facts []fact.Fact
		for range n {
			facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: fact.QuestionAsked{Text: "why?"}})
		}
		return family.Tell(ctx, r.App, link.Path[len("/family/"):], facts)
	}
	require.NoError(t, tell(500))
	require.NoError(t, tell(500))
	assert.ErrorContains(t, tell(1), "sent tomorrow")
	r.Tell(fact.Noted{Text: "the teacher goes on"})
}

// A family that has begun with its sheet is told what the teacher changed on it since, until
// it tells something again.
func TestAFamilyIsToldWhatChanged(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	changed := func() (says []string) {
		v, err := family.Page(ctx, r.App, token)
		require.NoError(t, err)
		for _, l := range v.Changed {
			says = append(says, l.Says)
		}
		return says
	}
	tick := func() {
		v, err := family.Page(ctx, r.App, token)
		require.NoError(t, err)
		r.Now = r.Now.Add(time.Hour)
		line := v.Sheet.Days[1].Tasks[0]
		require.NoError(t, family.Tell(ctx, r.App, token, []fact.Fact{{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: fact.Ticked{Day: v.Sheet.Days[1].Date, Document: v.Document.ID, Line: line.Key, Rung: line.Rung}}}))
	}
	assert.Empty(t, changed())
	r.Now = r.Now.Add(time.Hour)
	r.Tell(fact.LineAdded{Day: "2026-11-18", Text: "Sing it."})
	assert.Empty(t, changed(), "nobody has seen the sheet of before")
	tick()
	r.Now = r.Now.Add(time.Hour)
	r.Tell(fact.LineAdded{Day: "2026-11-18", Text: "Clap it."})
	assert.Equal(t, []string{"New: Clap it."}, changed())
	tick()
	assert.Empty(t, changed(), "it has been seen")
}

// A student of twelve may hold a link of their own: it opens the same week, tells what was
// done and asks, leaves the family's days and treats to the family, and ends by itself.
func TestAStudentsOwnLink(t *testing.T) {
	r := studiotest.New(t)
	_, err := family.MakeLink(ctx, r.App, r.Who, r.Student, true)
	assert.ErrorContains(t, err, "is under 12")
	older := studio.NewID()
	_, err = roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: older, FirstName: "Idris", Instrument: "piano", BirthYear: 2014, BirthMonth: 11, Slot: calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	own, err := family.MakeLink(ctx, r.App, r.Who, older, true)
	require.NoError(t, err)
	theirs, err := family.MakeLink(ctx, r.App, r.Who, older, false)
	require.NoError(t, err)
	token := func(l family.NewLink) string { return l.Path[len("/family/"):] }
	v, err := family.Page(ctx, r.App, token(own))
	require.NoError(t, err)
	assert.True(t, v.Own)
	assert.False(t, v.Treats)
	tell := func(l family.NewLink, b fact.Body) error {
		return family.Tell(ctx, r.App, token(l), []fact.Fact{{ID: studio.NewID(), Student: older, At: r.Now, Body: b}})
	}
	assert.NoError(t, tell(own, fact.QuestionAsked{Text: "Which finger on the black key?"}))
	assert.ErrorContains(t, tell(own, fact.DaysSet{Weekdays: []int{1, 3}}), "for the family to settle")
	assert.NoError(t, tell(theirs, fact.DaysSet{Weekdays: []int{1, 3}}))
	require.NoError(t, family.EndLinks(ctx, r.App, r.Who, older, true))
	_, err = family.Page(ctx, r.App, token(own))
	assert.ErrorContains(t, err, "ended this link")
	_, err = family.Page(ctx, r.App, token(theirs))
	assert.NoError(t, err, "the family's stays")
}

// The sheet's chunks are numbered in the order of learning, small ones before what is
// joined from them; the piece is heard at home, and no other.
func TestChunksOfTheWeek(t *testing.T) {
	r := studiotest.New(t)
	rope := r.InHand()
	view, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	require.Len(t, view.Chunks, 1)
	piece := view.Chunks[0]
	assert.Equal(t, []any{rope, "rope", "Rope Walk", 1}, []any{piece.Rung, piece.Item, piece.Title, piece.From})
	require.NotEmpty(t, piece.Chunks)
	level := map[int]int{}
	for i, c := range piece.Chunks {
		assert.Equal(t, i+1, c.Number)
		level[c.Level]++
		if c.Level == 0 {
			assert.Contains(t, c.Says, " on ", "where the hand starts")
		}
	}
	assert.Greater(t, level[0], 1)
	assert.Greater(t, level[1], 0, "two are joined")

	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	page, err := family.Page(ctx, r.App, token)
	require.NoError(t, err)
	i := slices.IndexFunc(page.Sheet.Days[1].Tasks, func(t week.Task) bool { return t.Rung == rope && t.Start != nil })
	line := page.Sheet.Days[1].Tasks[i]
	assert.Contains(t, page.Heard, line.Key)
	notes, err := family.Notes(ctx, r.App, token, line.Key)
	require.NoError(t, err)
	require.Len(t, notes.Drawn, 1)
	assert.NotEmpty(t, notes.Drawn[0].Bracket)
	assert.Equal(t, line.Says.Mark, notes.Drawn[0].Says)
	assert.Contains(t, strings.Join(notes.Drawn[0].Voices[0].Chords, " "), notes.Drawn[0].Bracket[0], "the bracket stands over notes that are drawn")
	_, err = family.Notes(ctx, r.App, token, "lamp")
	assert.ErrorContains(t, err, "not on the week's sheet")
	model, err := family.Model(ctx, r.App, token, line.Key)
	require.NoError(t, err)
	assert.Len(t, model.Sounds, 22)
	assert.Equal(t, []string{"left"}, model.Hands)
	_, err = family.Model(ctx, r.App, token, "lamp")
	assert.ErrorContains(t, err, "not on the week's sheet")
}

// Counting towards a treat is offered to the young where nobody has said, to others
// when it is chosen, and to nobody who wants the music only.
func TestWhoIsOfferedTreats(t *testing.T) {
	for _, c := range []struct {
		born    int
		rewards approach.School
		want    bool
	}{{2018, "asked", true}, {2010, "asked", false}, {2010, "counted", true}, {2018, "music", false}} {
		r := studiotest.New(t)
		id := studio.NewID()
		_, err := roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: id, FirstName: "A", BirthYear: c.born, BirthMonth: 1, Instrument: "piano",
			Slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}, Approach: approach.Approach{"rewards": c.rewards}})
		require.NoError(t, err)
		link, err := family.MakeLink(ctx, r.App, r.Who, id, false)
		require.NoError(t, err)
		v, err := family.Page(ctx, r.App, link.Path[len("/family/"):])
		require.NoError(t, err)
		assert.Equal(t, c.want, v.Treats, "born %d, %s", c.born, c.rewards)
	}
}
