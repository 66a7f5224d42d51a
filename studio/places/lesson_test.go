package places_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// The plan that was agreed when a lesson was opened is what the lesson shows, also
// after a setting was changed in the middle of it; what the teacher changes in it is a
// revision.
func TestThePlanThatWasAgreed(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	r.Now = time.Date(2026, 11, 25, 16, 0, 0, 0, r.Now.Location())
	r.Tell(fact.LessonOpened{Day: "2026-11-25"})
	agreed := r.Lesson()
	require.NotNil(t, agreed.Document)
	r.Tell(fact.ApproachSet{Question: "upkeep", School: "three-quarters"})
	r.Tell(fact.ApproachSet{Question: "hand-image", School: "round"})
	assert.Equal(t, studiotest.JSON(t, agreed.Plan), studiotest.JSON(t, r.Lesson().Plan))
	block := agreed.Plan.Blocks[1]
	r.Tell(fact.BlockTimed{Day: "2026-11-25", Block: block.Key, Minutes: block.Minutes + 3})
	v := r.Lesson()
	assert.Equal(t, document.PlanChanged, v.Document.Reason)
	assert.Equal(t, block.Minutes+3, v.Plan.Blocks[1].Minutes)
	pace, err := places.Pace(ctx, r.App, r.Who, r.Student, v.Plan.Blocks[1].Key, 29)
	require.NoError(t, err)
	assert.Positive(t, pace.Over)
	r.Tell(fact.LessonClosed{Day: "2026-11-25"})

	past, err := places.Lesson(ctx, r.App, r.Who, r.Student, "2026-11-18")
	require.NoError(t, err)
	assert.Equal(t, "closed", past.State)
	assert.Equal(t, []string{"2026-11-25", "2026-11-18"}, []string{string(past.Given[0]), string(past.Given[1])})
	require.NotNil(t, past.After)
	assert.Contains(t, studiotest.JSON(t, past.After.Changed), "taught", "what that lesson changed, not what came later")
	assert.Empty(t, past.After.Sketch)
}

// What waits for its first lesson is told before the lesson is begun, so that one finished at once
// still asks; once it was taught, it is told no more.
func TestWhatWaitsToBeTaught(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{Item: shelf.Item{ID: "fog", Title: "Fog Signal", Instrument: "cello", Strand: shelf.Book, Bars: 8, Points: shelf.PointsOf("Tone")}}}))
	fog := r.Tell(fact.RungAdded{Item: "fog", Strand: "book"}) // started at once
	waits := func() (titles []string) {
		for _, u := range r.Lesson().Untaught {
			titles = append(titles, u.Title)
		}
		return titles
	}
	r.Now = time.Date(2026, 11, 25, 15, 0, 0, 0, r.Now.Location())
	assert.Equal(t, "planned", r.Lesson().State)
	assert.Equal(t, []string{"Fog Signal"}, waits())
	r.Tell(fact.LessonOpened{Day: "2026-11-25"})
	assert.Equal(t, []string{"Fog Signal"}, waits())
	r.Tell(fact.Taught{Rung: fog})
	assert.Empty(t, waits())
}

// A lesson that nobody closed on its day is asked after, marked and closed late with its own
// date, and gives the sheet of its own week.
func TestALessonIsMarkedTheDayAfter(t *testing.T) {
	r := studiotest.New(t)
	rung := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Now = r.Now.Add(20 * time.Hour) // Thursday
	day, err := diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	require.Len(t, day.Open, 1)
	assert.Equal(t, advice.Unclosed{Day: "2026-11-18", Begun: true}, day.Open[0].Unclosed)

	v, err := places.Lesson(ctx, r.App, r.Who, r.Student, "2026-11-18")
	require.NoError(t, err)
	assert.Equal(t, "open", v.State)
	require.NotNil(t, v.Late)
	assert.Equal(t, calendar.Date("2026-11-18"), calendar.On(*v.Late), "on its own day")
	for i, b := range []fact.Body{fact.Taught{Rung: rung}, fact.PointMarked{Rung: rung, Point: "tone", State: fact.Met}, fact.LessonClosed{Day: "2026-11-18"}} {
		require.NoError(t, r.App.Tell(ctx, r.Who, []fact.Fact{{ID: studio.NewID(), Student: r.Student, At: v.Late.Add(time.Duration(i) * time.Second), Body: b}}))
	}
	v, err = places.Lesson(ctx, r.App, r.Who, r.Student, "2026-11-18")
	require.NoError(t, err)
	assert.Equal(t, "closed", v.State)
	assert.Len(t, v.Noted, 4)
	w, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, calendar.Date("2026-11-18"), w.Sheet.From)
	day, err = diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Empty(t, day.Open)

	r.Now = r.Now.Add(14 * 24 * time.Hour) // a fortnight later: the lessons of 25 November and 2 December
	day, err = diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Len(t, day.Open, 2)
	r.Tell(fact.LessonMissed{Day: "2026-11-25", Why: "ill"})
	day, err = diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	require.Len(t, day.Open, 1)
	assert.Equal(t, advice.Unclosed{Day: "2026-12-02"}, day.Open[0].Unclosed)
}

func TestALessonFromPlanToSheet(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})

	v := r.Lesson()
	assert.Equal(t, "planned", v.State)
	assert.Equal(t, calendar.Date("2026-11-18"), v.Day)
	blocks := len(v.Plan.Blocks)

	w, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Nil(t, w.Sheet, "no sheet before a lesson was closed")

	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	v = r.Lesson()
	assert.Equal(t, "open", v.State)
	assert.Equal(t, "refused", v.Rungs[0].LastTry.Outcome)
	assert.Equal(t, "refused", v.Noted[1].Note)
	r.Tell(fact.Taught{Rung: lamp})
	spot := r.Tell(fact.SpotNoted{Rung: lamp, Where: "bar 11", Goal: 5})
	r.Tell(fact.SpotDrilled{Rung: lamp, Spot: spot, Run: 3})
	r.Tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	slip := r.Tell(fact.PointMarked{Rung: lamp, Point: "tuning", State: fact.Open})
	assert.Len(t, r.Lesson().Plan.Blocks, blocks, "marks do not move the plan of the lesson in hand")
	r.Tell(fact.Retracted{Ref: slip})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})

	v = r.Lesson()
	assert.Equal(t, "closed", v.State)
	var changed []string
	for _, c := range v.After.Changed {
		changed = append(changed, c.Code+" "+c.Args["more"])
	}
	assert.Equal(t, []string{"taught ", "point-met Tone", "spot-count bar 11, 3 of 5 in a row"}, changed, "what was taken back did not happen")
	assert.Equal(t, "spot-carried", v.After.Follows[0].Code)
	assert.Equal(t, calendar.Date("2026-11-25"), v.After.Next)

	w, err = places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	require.NotNil(t, w.Sheet)
	assert.Len(t, w.Sheet.Days, 7)
	assert.Equal(t, "bar 11", w.Sheet.Days[1].Tasks[0].Spot)

	// Next week knows: the sheet stays, the plan is fresh.
	r.Now = time.Date(2026, 11, 25, 15, 0, 0, 0, time.UTC)
	v = r.Lesson()
	assert.Equal(t, "planned", v.State)
	assert.Equal(t, calendar.Date("2026-11-25"), v.Day)
	for _, b := range v.Plan.Blocks {
		if b.Rung == lamp {
			assert.Equal(t, "still-open", b.Why[0].Code)
		}
	}
	again, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	assert.Equal(t, w.Sheet, again.Sheet)
}

// The seat, a pain and the pace of a lesson through the use cases.
func TestALessonAnswers(t *testing.T) {
	s := storetest.New(t)
	app := studio.New(s, func() time.Time { return time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC) })
	who, err := account.Make(ctx, app, account.SignUp{Name: "T", Studio: "S", Email: "answers@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(t, err)
	require.NoError(t, demo.OwnBooks(ctx, app, who))
	id := studio.NewID()
	_, err = roster.AddStudent(ctx, app, who, roster.NewStudent{ID: id, FirstName: "Una", BirthYear: 2017, BirthMonth: 1, Instrument: "piano",
		Slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}, Books: []string{"Tidelines: Shore"}})
	require.NoError(t, err)
	at := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	tell := func(b fact.Body) {
		at = at.Add(time.Second)
		require.NoError(t, app.Tell(ctx, who, []fact.Fact{{ID: studio.NewID(), Student: id, At: at, Body: b}}))
	}
	seat, err := places.Seat(ctx, app, who, id)
	require.NoError(t, err)
	assert.Contains(t, seat.Home.Wrong, "a tape measure is better")
	assert.Equal(t, "measure-first", seat.Again.Code)
	tell(fact.SeatMeasured{Elbow: 18, LowerLeg: 33})
	require.NoError(t, roster.SetHome(ctx, app, who, id, studio.Set(shelf.Home{KeyTops: 72, BenchLow: 46, BenchHigh: 48, Tile: 3})))
	seat, err = places.Seat(ctx, app, who, id)
	require.NoError(t, err)
	assert.Equal(t, 2, seat.Home.Fit.Tiles)
	assert.Nil(t, seat.Again)

	tell(fact.LessonOpened{Day: "2026-11-18"})
	v, err := places.Lesson(ctx, app, who, id, "")
	require.NoError(t, err)
	assert.Equal(t, "first", v.Plan.Mode)
	second := v.Plan.Blocks[1]
	pace, err := places.Pace(ctx, app, who, id, second.Key, second.Start+second.Minutes+5)
	require.NoError(t, err)
	assert.Equal(t, 5, pace.Over)
	assert.NotEmpty(t, pace.Says)

	tell(fact.Probed{Probe: "steady-beat", Outcome: "not-yet"})
	settings, err := places.Approach(ctx, app, who, id)
	require.NoError(t, err)
	assert.EqualValues(t, "rhythm", settings.Student.Approach["first"], "what was seen sets the defaults")

	tell(fact.Pained{Side: "left"})
	v, err = places.Lesson(ctx, app, who, id, "")
	require.NoError(t, err)
	assert.Equal(t, "pain", v.Plan.Mode)
	assert.Equal(t, "left", v.Ache.Side)
	tell(fact.LessonClosed{Day: "2026-11-18"})
	v, err = places.Lesson(ctx, app, who, id, "")
	require.NoError(t, err)
	assert.NotEmpty(t, v.After.Sketch)

	mine := activity.Activity{ID: "mine", Title: "Mine", Aim: "steady-beat", From: 5, Least: 1, Most: 3, Family: "shared", Levels: []string{"Walk."}}
	require.NoError(t, library.SaveActivity(ctx, app, who, mine.ID, studio.Set(mine)))
	mine.ID = "palm-taps"
	assert.ErrorContains(t, library.SaveActivity(ctx, app, who, mine.ID, studio.Set(mine)), "comes with the program")
	all, err := library.Activities(ctx, app, who)
	require.NoError(t, err)
	assert.Equal(t, "mine", all.Activities[0].ID)
	require.NoError(t, library.DropActivity(ctx, app, who, "mine", nil))
}

// What was taken back by a slip is put back from the record, as it was told and when.
func TestATakeBackIsTakenBack(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	granted := r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	entry := func() places.Entry {
		v, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
		require.NoError(t, err)
		i := slices.IndexFunc(v.Entries, func(e places.Entry) bool { return e.Fact.ID == granted })
		require.GreaterOrEqual(t, i, 0)
		return v.Entries[i]
	}
	footholds := func() int {
		v, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
		require.NoError(t, err)
		return v.Footholds
	}
	for _, want := range []int{0, 1, 0, 1} {
		assert.Equal(t, want == 1, entry().Back, "it stands before it is taken back, and the other way round")
		for _, b := range entry().Undo {
			r.Tell(b)
		}
		assert.Equal(t, want, footholds())
	}
	assert.False(t, entry().Back)
}

// A sentence to the family, told in the lesson, stands on the sheet that is given when the
// lesson is closed.
func TestALessonsSentenceStandsOnItsSheet(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.SheetNoted{Day: "2026-11-18", Text: "Sing it in the bath."})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	v, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
	require.NoError(t, err)
	require.NotNil(t, v.Sheet)
	assert.Equal(t, "Sing it in the bath.", v.Sheet.Word)
	assert.Equal(t, 1, v.Document.Revision, "no revision for it")
}
