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

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/mixture"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

// A room is a studio with one student, a piece on the shelf, and a clock that
// the test moves.
type room struct {
	t       *testing.T
	app     *studio.App
	store   *store.Store
	who     studio.Who
	now     time.Time
	student string
}

func newRoom(t *testing.T) *room {
	r := &room{t: t, now: time.Date(2026, 11, 18, 15, 40, 0, 0, time.UTC)}
	r.store = storetest.New(t)
	r.app = studio.New(r.store, func() time.Time { return r.now })
	var err error
	r.who, err = account.Make(ctx, r.app, account.SignUp{Name: "T", Studio: "S", Email: "t@example.com", Password: "a long password", Zone: "Europe/London",
		Calendar: calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}}})
	require.NoError(t, err)
	r.student = studio.NewID()
	_, err = roster.AddStudent(ctx, r.app, r.who, roster.NewStudent{ID: r.student, FirstName: "Emil", BirthYear: 2018, BirthMonth: 3, Instrument: "cello",
		Slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	for _, title := range []string{"Lamp Room", "Slipway Song", "Half Tide"} {
		require.NoError(t, library.AddItems(ctx, r.app, r.who, []store.NewItem{{Item: shelf.Item{ID: strings.ToLower(strings.Fields(title)[0]), Title: title, Instrument: "cello", Strand: shelf.Book, Bars: 16, Points: shelf.PointsOf("Tone", "Tuning", "Spots")}}}))
	}
	return r
}

// tell says a fact a minute after the one before.
func (r *room) tell(b fact.Body) string {
	r.t.Helper()
	r.now = r.now.Add(time.Minute)
	f := fact.Fact{ID: studio.NewID(), Student: r.student, At: r.now, Body: b}
	require.NoError(r.t, r.app.Tell(ctx, r.who, []fact.Fact{f}))
	return f.ID
}

func (r *room) lesson() places.LessonView {
	v, err := places.Lesson(ctx, r.app, r.who, r.student, "")
	require.NoError(r.t, err)
	return v
}

func TestALessonFromPlanToSheet(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})

	v := r.lesson()
	assert.Equal(t, "planned", v.State)
	assert.Equal(t, calendar.Date("2026-11-18"), v.Day)
	blocks := len(v.Plan.Blocks)

	w, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.Nil(t, w.Sheet, "no sheet before a lesson was closed")

	r.tell(fact.LessonOpened{Day: "2026-11-18"})
	r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	v = r.lesson()
	assert.Equal(t, "open", v.State)
	assert.Equal(t, "refused", v.Rungs[0].LastTry.Outcome)
	assert.Equal(t, "refused", v.Noted[1].Note)
	r.tell(fact.Taught{Rung: lamp})
	spot := r.tell(fact.SpotNoted{Rung: lamp, Where: "bar 11", Goal: 5})
	r.tell(fact.SpotDrilled{Rung: lamp, Spot: spot, Run: 3})
	r.tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	slip := r.tell(fact.PointMarked{Rung: lamp, Point: "tuning", State: fact.Open})
	assert.Len(t, r.lesson().Plan.Blocks, blocks, "marks do not move the plan of the lesson in hand")
	r.tell(fact.Retracted{Ref: slip})
	r.tell(fact.LessonClosed{Day: "2026-11-18"})

	v = r.lesson()
	assert.Equal(t, "closed", v.State)
	var changed []string
	for _, c := range v.After.Changed {
		changed = append(changed, c.Code+" "+c.Args["more"])
	}
	assert.Equal(t, []string{"taught ", "point-met Tone", "spot-count bar 11, 3 of 5 in a row"}, changed, "what was taken back did not happen")
	assert.Equal(t, "spot-carried", v.After.Follows[0].Code)
	assert.Equal(t, calendar.Date("2026-11-25"), v.After.Next)

	w, err = places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	require.NotNil(t, w.Sheet)
	assert.Len(t, w.Sheet.Days, 7)
	assert.Equal(t, "bar 11", w.Sheet.Days[1].Tasks[0].Spot)

	// Next week knows: the sheet stays, the plan is fresh.
	r.now = time.Date(2026, 11, 25, 15, 0, 0, 0, time.UTC)
	v = r.lesson()
	assert.Equal(t, "planned", v.State)
	assert.Equal(t, calendar.Date("2026-11-25"), v.Day)
	for _, b := range v.Plan.Blocks {
		if b.Rung == lamp {
			assert.Equal(t, "still-open", b.Why[0].Code)
		}
	}
	again, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, w.Sheet, again.Sheet)
}

func TestSuggestionsSayWhatFollows(t *testing.T) {
	r := newRoom(t)
	codes := func() (out []string) {
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
		require.NoError(t, err)
		for _, s := range v.Suggestions {
			out = append(out, s.Why.Code)
		}
		return
	}
	assert.Equal(t, []string{"nothing-placed"}, codes())
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	assert.Equal(t, []string{"first-lesson"}, codes())
	r.tell(fact.Taught{Rung: lamp})
	assert.Equal(t, []string{"in-hand"}, codes())
	r.tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	r.tell(fact.PointMarked{Rung: lamp, Point: "tuning", State: fact.Met})
	spot := r.tell(fact.SpotNoted{Rung: lamp, Where: "bar 3", Goal: 3})
	r.tell(fact.SpotDrilled{Rung: lamp, Spot: spot, Run: 3})
	assert.Equal(t, []string{"ready-to-try"}, codes())
	r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	r.now = r.now.AddDate(0, 0, 21)
	assert.Equal(t, []string{"fading", "nothing-placed"}, codes())

	late := r.now
	r.now = time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	slow := r.tell(fact.RungAdded{Item: "half", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: slow})
	r.now = late
	assert.Contains(t, codes(), "past-its-range", "twelve weeks on one piece")
}

// Before the first book the ladder counts what is there of the test, and offers to
// enter the book as soon as a sign at most is missing.
func TestTheWayToTheFirstBook(t *testing.T) {
	r := furnished(t)
	in := newcomer(func(in *roster.NewStudent) {
		in.Begin, in.BirthYear, in.Books = "before", 2022, []string{"Tidelines: Pebbles"}
	})
	_, err := roster.AddStudent(ctx, r.app, r.who, in)
	require.NoError(t, err)
	r.student = in.ID
	book := func() advice.Suggestion {
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
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
		r.tell(fact.Probed{Probe: s.Skill, Outcome: "pass"})
	}
	ready := book()
	assert.Equal(t, "try-first-book", ready.Why.Code)
	require.Len(t, ready.Accept, 1)
	r.tell(ready.Accept[0])
	assert.Empty(t, book().Why.Code, "the book is entered")
}

// A piece with a day is warned of when its forecast ends after that day.
func TestADayThatComesTooSoon(t *testing.T) {
	r := newRoom(t)
	require.NoError(t, diary.SetCalendar(ctx, r.app, r.who, calendar.Calendar{Terms: []calendar.Span{{Name: "a long one", From: "2026-09-07", To: "2027-08-31"}}}))
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	warned := func(day calendar.Date) bool {
		r.tell(fact.TargetSet{Rung: lamp, Day: day})
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
		require.NoError(t, err)
		return slices.ContainsFunc(v.Suggestions, func(s advice.Suggestion) bool { return s.Why.Code == "date-at-risk" && s.Rung == lamp })
	}
	assert.True(t, warned("2026-11-20"), "in two days")
	assert.False(t, warned("2027-08-20"), "in nine months")
	assert.False(t, warned("2026-11-01"), "a day that is over is not warned of")
}

func TestTheDay(t *testing.T) {
	r := newRoom(t)
	v, err := diary.Day(ctx, r.app, r.who, "")
	require.NoError(t, err)
	assert.Equal(t, [2]int{11, 14}, [2]int{v.Week, v.WeekOf})
	require.Len(t, v.Segments, 1)
	assert.Equal(t, "16:00", v.Segments[0].Start)
	v, err = diary.Day(ctx, r.app, r.who, "2026-11-19")
	require.NoError(t, err)
	assert.Empty(t, v.Segments)
}

func TestPasswordsAreNotKept(t *testing.T) {
	r := newRoom(t)
	_, err := account.Admit(ctx, r.app, account.SignIn{Email: "t@example.com", Password: "a long password", From: "here"})
	assert.NoError(t, err)
	for _, wrong := range [][2]string{{"t@example.com", "a long passwore"}, {"nobody@example.com", "a long password"}, {"", ""}} {
		_, err := account.Admit(ctx, r.app, account.SignIn{Email: wrong[0], Password: wrong[1], From: "here"})
		var known *studio.Error
		require.True(t, errors.As(err, &known))
		assert.Equal(t, studio.Denied, known.Kind)
		assert.Equal(t, "The mail address or the password is wrong.", known.Says, "the same sentence whichever is wrong")
	}
}
