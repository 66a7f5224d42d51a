package studio_test

import (
	"context"
	"errors"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
)

const ropeWalk = "X:1\nT:Rope Walk\nM:4/4\nL:1/4\nK:C clef=bass\nC, D, E, F,|G,2 E,2|C, D, E, D,|C,4|G, F, E, D,|E,2 C,2|D, E, F, D,|C,4|\n"

// inHand puts a piece with its notes on the ladder, gives it its first lesson and
// closes that.
func (r *room) inHand() string {
	require.NoError(r.t, library.AddItems(ctx, r.app, r.who, []store.NewItem{{
		Item: shelf.Item{ID: "rope", Title: "Rope Walk", Instrument: "cello", Strand: shelf.Book, Bars: 8, HasScore: true, Points: shelf.PointsOf("Tone")},
		File: &store.ScoreFile{Name: "rope.abc", Data: []byte(ropeWalk)},
	}}))
	rope := r.tell(fact.RungAdded{Item: "rope", Strand: "book", After: fact.Top})
	r.tell(fact.LessonOpened{Day: "2026-11-18"})
	r.tell(fact.Taught{Rung: rope})
	r.tell(fact.LessonClosed{Day: "2026-11-18"})
	return rope
}

// The sheet's chunks are numbered in the order of learning, small ones before what is
// joined from them; the piece is heard at home, and no other.
func TestChunksOfTheWeek(t *testing.T) {
	r := newRoom(t)
	rope := r.inHand()
	view, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
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

	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	page, err := family.Page(ctx, r.app, token)
	require.NoError(t, err)
	i := slices.IndexFunc(page.Sheet.Days[1].Tasks, func(t week.Task) bool { return t.Rung == rope && t.Start != nil })
	line := page.Sheet.Days[1].Tasks[i]
	assert.Contains(t, page.Heard, line.Key)
	notes, err := family.Notes(ctx, r.app, token, line.Key)
	require.NoError(t, err)
	require.Len(t, notes.Drawn, 1)
	assert.NotEmpty(t, notes.Drawn[0].Bracket)
	assert.Equal(t, line.Says.Mark, notes.Drawn[0].Says)
	assert.Contains(t, strings.Join(notes.Drawn[0].Voices[0].Chords, " "), notes.Drawn[0].Bracket[0], "the bracket stands over notes that are drawn")
	_, err = family.Notes(ctx, r.app, token, "lamp")
	assert.ErrorContains(t, err, "not on the week's sheet")
	model, err := family.Model(ctx, r.app, token, line.Key)
	require.NoError(t, err)
	assert.Len(t, model.Sounds, 22)
	assert.Equal(t, []string{"left"}, model.Hands)
	_, err = family.Model(ctx, r.app, token, "lamp")
	assert.ErrorContains(t, err, "not on the week's sheet")
}

// What the family says of its days and a pain that is told change the sheet that is
// out already; a tick of an old piece is a playing of it.
func TestTheSheetListens(t *testing.T) {
	r := newRoom(t)
	r.inHand()
	r.tell(fact.DaysSet{Minutes: 9, Weekdays: []int{4, 6}})
	view, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	var days []time.Weekday
	for _, d := range view.Sheet.Days[1:] {
		if !d.Off {
			days = append(days, d.Date.Weekday())
		}
	}
	assert.Equal(t, []time.Weekday{time.Thursday, time.Saturday}, days)
	assert.Equal(t, 9, view.Sheet.Budget)
	r.tell(fact.Pained{Side: "right", Where: "wrist"})
	view, err = places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, "no-playing", view.Sheet.Lines[0].Code)
	for _, d := range view.Sheet.Days {
		for _, task := range d.Tasks {
			assert.True(t, task.Listen)
		}
	}
}

// The day's sheets: whose lesson is closed, and where no mail can go.
func TestSheetsOfADay(t *testing.T) {
	r := newRoom(t)
	sheets := func() sending.DaySheet {
		v, err := sending.Sheets(ctx, r.app, r.who, "2026-11-18")
		require.NoError(t, err)
		require.Len(t, v.Sheets, 1)
		return v.Sheets[0]
	}
	assert.Equal(t, sending.DaySheet{Student: r.student, Name: "Emil", Start: "16:00"}, sheets())
	r.inHand()
	require.NoError(t, roster.SetContact(ctx, r.app, r.who, r.student, " parent@homes.example "))
	assert.Equal(t, sending.DaySheet{Student: r.student, Name: "Emil", Start: "16:00", Closed: true, Contact: "parent@homes.example"}, sheets())
	_, err := sending.SendSheet(ctx, r.app, r.who, r.student, "", studio.NewID(), letter.A4)
	assert.ErrorContains(t, err, "no mail server is set")
	assert.ErrorContains(t, roster.SetContact(ctx, r.app, r.who, studio.NewID(), ""), "no such student")
	_, err = sending.Sheets(ctx, r.app, r.who, "someday")
	assert.ErrorContains(t, err, "not a day")
}

// A post that cannot reach its server, or stops in the middle.
type brokenPost struct{ stops func() }

func (b brokenPost) Send(context.Context, mail.Letter) error {
	if b.stops != nil {
		b.stops()
	}
	return errors.New("connection refused")
}

// A server that is away is said in words that ask for another try; a sheet that was
// cut off on its way is not called on its way for ever.
func TestMailThatDoesNotGoOut(t *testing.T) {
	r := newRoom(t)
	r.inHand()
	require.NoError(t, roster.SetContact(ctx, r.app, r.who, r.student, "parent@homes.example"))
	r.app.Mails(brokenPost{}, "http://ladder.example")
	sent, err := sending.SendSheet(ctx, r.app, r.who, r.student, "", studio.NewID(), letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "cannot be reached just now")

	id := studio.NewID()
	r.app.Mails(brokenPost{func() { panic("the program is killed") }}, "http://ladder.example")
	assert.Panics(t, func() { _, _ = sending.SendSheet(ctx, r.app, r.who, r.student, "", id, letter.A4) })
	again, err := sending.SendSheet(ctx, r.app, r.who, r.student, "", id, letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Sending, again.State)
	r.now = r.now.Add(3 * time.Minute)
	view, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, view.Sending.State)
	assert.Contains(t, view.Sending.Says, "cut off")
}

// A post that takes letters to some addresses and refuses others.
type choosyPost struct {
	refuses string
	took    *[]mail.Letter
}

func (c choosyPost) Send(_ context.Context, l mail.Letter) error {
	if l.To == c.refuses {
		return errors.New("connection refused")
	}
	*c.took = append(*c.took, l)
	return nil
}

// Two homes have a letter each, with a link of its own, and do not see each other's
// address; sending the same again sends nothing, and what did not reach one is said.
func TestALetterToTwoHomes(t *testing.T) {
	r := newRoom(t)
	r.inHand()
	assert.ErrorContains(t, roster.SetContact(ctx, r.app, r.who, r.student, "a@h.example, b@h.example, c@h.example, d@h.example, e@h.example"), "4 addresses at most")
	assert.ErrorContains(t, roster.SetContact(ctx, r.app, r.who, r.student, "a@homes.example, b@homes"), `"b@homes" is not a mail address`)
	require.NoError(t, roster.SetContact(ctx, r.app, r.who, r.student, "mother@homes.example;father@homes.example"))
	var took []mail.Letter
	r.app.Mails(choosyPost{took: &took}, "http://ladder.example")
	id := studio.NewID()
	for range 2 {
		sent, err := sending.SendSheet(ctx, r.app, r.who, r.student, "", id, letter.A4)
		require.NoError(t, err)
		assert.Equal(t, []string{store.Sent, "father@homes.example, mother@homes.example"}, []string{sent.State, sent.Address})
	}
	require.Len(t, took, 2)
	assert.Equal(t, []string{"mother@homes.example", "father@homes.example"}, []string{took[0].To, took[1].To})
	assert.NotContains(t, took[0].Text+took[0].HTML, "father@")
	assert.NotEqual(t, took[0].Text, took[1].Text, "each has a link of its own")

	r.app.Mails(choosyPost{"father@homes.example", &took}, "http://ladder.example")
	r.now = r.now.Add(time.Minute)
	sent, err := sending.SendSheet(ctx, r.app, r.who, r.student, "", studio.NewID(), letter.A4)
	require.NoError(t, err)
	assert.Equal(t, store.Failed, sent.State)
	assert.Contains(t, sent.Says, "father@homes.example: ")
	view, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, sent, *view.Sending)
	assert.Len(t, took, 3)
}

// Counting towards a treat is offered to the young where nobody has said, to others
// when it is chosen, and to nobody who wants the music only.
func TestWhoIsOfferedTreats(t *testing.T) {
	for _, c := range []struct {
		born    int
		rewards approach.School
		want    bool
	}{{2018, "asked", true}, {2010, "asked", false}, {2010, "counted", true}, {2018, "music", false}} {
		r := newRoom(t)
		id := studio.NewID()
		_, err := roster.AddStudent(ctx, r.app, r.who, roster.NewStudent{ID: id, FirstName: "A", BirthYear: c.born, BirthMonth: 1, Instrument: "piano",
			Slot: weekly, Approach: approach.Approach{"rewards": c.rewards}})
		require.NoError(t, err)
		link, err := family.MakeLink(ctx, r.app, r.who, id, false)
		require.NoError(t, err)
		v, err := family.Page(ctx, r.app, link.Path[len("/family/"):])
		require.NoError(t, err)
		assert.Equal(t, c.want, v.Treats, "born %d, %s", c.born, c.rewards)
	}
}
