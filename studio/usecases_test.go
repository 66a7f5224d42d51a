package studio_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

// furnished is a room whose shelf holds the shipped books.
func furnished(t *testing.T) *room {
	r := newRoom(t)
	require.NoError(t, demo.OwnBooks(ctx, r.app, r.who))
	return r
}

func newcomer(change func(*roster.NewStudent)) roster.NewStudent {
	in := roster.NewStudent{ID: studio.NewID(), FirstName: "Ida", BirthYear: 2016, BirthMonth: 5, Instrument: "piano",
		Slot: calendar.Slot{Weekday: 1, Start: "16:00", Minutes: 30}, Books: []string{"Tidelines: Harbour", "Folk tunes and others"}}
	change(&in)
	return in
}

func titlesOf(b roster.Beginning, strand shelf.Strand) (out []string) {
	for _, r := range b.Rungs {
		if r.Strand == strand {
			out = append(out, r.Title)
		}
	}
	return
}

func TestWhereANewStudentBegins(t *testing.T) {
	r := furnished(t)
	begin := func(change func(*roster.NewStudent)) roster.Beginning {
		b, err := roster.Begin(ctx, r.app, r.who, newcomer(change))
		require.NoError(t, err)
		return b
	}
	foot := begin(func(*roster.NewStudent) {})
	assert.Equal(t, 10, foot.Age)
	assert.EqualValues(t, "landmarks", foot.Approach["reading"])
	assert.Contains(t, foot.Presumed, "Both hands moving", "what the book takes for granted")
	assert.NotContains(t, foot.Presumed, "Swings of three", "not what it brings")
	assert.Len(t, foot.Rungs, 12)
	assert.Equal(t, "Nine Fathoms", titlesOf(foot, shelf.Book)[0])

	later := begin(func(in *roster.NewStudent) { in.Begin = "harbour-lock" })
	assert.Equal(t, "The Lock Keeper", titlesOf(later, shelf.Book)[0], "at the unit chosen")
	assert.Contains(t, later.Presumed, "Swings of three", "what comes before it is taken for granted")
	assert.NotContains(t, titlesOf(later, shelf.Technique), "Thumb passes")

	before := begin(func(in *roster.NewStudent) {
		in.Begin, in.BirthYear, in.Books = "before", 2022, []string{"Tidelines: Pebbles"}
	})
	assert.Len(t, before.Rungs, 12, "every small thing")
	ear := begin(func(in *roster.NewStudent) { in.Approach = approach.Approach{"upkeep": "three-quarters"} })
	assert.EqualValues(t, "three-quarters", ear.Approach["upkeep"])

	for says, change := range map[string]func(*roster.NewStudent){
		"no book":              func(in *roster.NewStudent) { in.Books = []string{"Nobody's Book"} },
		"not on the shelf":     func(in *roster.NewStudent) { in.Begin = "bow-jig" },
		"approach does not":    func(in *roster.NewStudent) { in.Approach = approach.Approach{"upkeep": "all"} },
		"instrument at home":   func(in *roster.NewStudent) { in.Home = &shelf.Home{Keys: 3} },
		"lesson time does not": func(in *roster.NewStudent) { in.Slot.Minutes = 1 },
	} {
		_, err := roster.Begin(ctx, r.app, r.who, newcomer(change))
		assert.ErrorContains(t, err, says)
	}
}

func TestTakingOnTwiceAddsOne(t *testing.T) {
	r := furnished(t)
	in := newcomer(func(*roster.NewStudent) {})
	for range 2 {
		_, err := roster.AddStudent(ctx, r.app, r.who, in)
		require.NoError(t, err)
	}
	v, err := places.Ladder(ctx, r.app, r.who, in.ID)
	require.NoError(t, err)
	placed := 0
	for _, rung := range v.Rungs {
		if rung.State != "proposed" {
			placed++
		}
	}
	assert.Equal(t, 12, placed, "each of the first rungs once")
	assert.Equal(t, in.Books, v.Books)
	day, err := diary.Day(ctx, r.app, r.who, "")
	require.NoError(t, err)
	assert.Len(t, day.Students, 2)
}

func TestTheHomeInstrumentFiltersWhatIsOffered(t *testing.T) {
	r := furnished(t)
	in := newcomer(func(in *roster.NewStudent) { in.Books = nil })
	in.Home = &shelf.Home{Keys: 61, NoTouch: true, NoPedals: true}
	_, err := roster.AddStudent(ctx, r.app, r.who, in)
	require.NoError(t, err)
	r.student = in.ID
	r.tell(fact.BookChosen{Book: "Tidelines: Shore", From: "shore-sailcloth"})
	offered := func() bool {
		v, err := places.Ladder(ctx, r.app, r.who, in.ID)
		require.NoError(t, err)
		for _, rung := range v.Rungs {
			if rung.Title == "Driftwood" { // near, then far
				return true
			}
		}
		return false
	}
	assert.False(t, offered())
	require.NoError(t, roster.SetHome(ctx, r.app, r.who, in.ID, shelf.Home{}))
	assert.True(t, offered(), "a piano with touch came")
	require.NoError(t, roster.SetHome(ctx, r.app, r.who, "", shelf.Home{Keys: 88, NoTouch: true}))
	assert.False(t, offered(), "but the studio's cannot do it either")
	assert.ErrorContains(t, roster.SetHome(ctx, r.app, r.who, studio.NewID(), shelf.Home{}), "no such student")
	assert.ErrorContains(t, roster.SetHome(ctx, r.app, r.who, in.ID, shelf.Home{Keys: 7}), "25 to 97")
}

func TestAnApproachIsTriedBeforeItIsTold(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	slip := r.tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: slip})
	codes := func(question, school string) (out []string) {
		v, err := places.Effects(ctx, r.app, r.who, r.student, question, school)
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
	_, err := places.Effects(ctx, r.app, r.who, r.student, "upkeep", "all")
	assert.ErrorContains(t, err, "choose one of")

	set := r.tell(fact.ApproachSet{Question: "upkeep", School: "third"})
	share := func() string {
		v, err := places.Approach(ctx, r.app, r.who, r.student)
		require.NoError(t, err)
		return string(v.Student.Approach["upkeep"])
	}
	assert.Equal(t, "third", share())
	r.tell(fact.Retracted{Ref: set})
	assert.Equal(t, "half", share(), "taken back like anything that was told")
}

func TestASuggestionTurnedDownStaysAway(t *testing.T) {
	r := furnished(t)
	r.tell(fact.BookChosen{Book: "Under the Bow 1"})
	fill := func() *advice.Suggestion {
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
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
	r.tell(fact.Overruled{Suggestion: s.Key, Until: "later"})
	assert.Nil(t, fill())
	r.now = r.now.AddDate(0, 0, 15)
	require.NotNil(t, fill(), "put off, not turned down")
	for _, f := range fill().Accept {
		r.tell(f)
	}
	v, err := places.Ladder(ctx, r.app, r.who, r.student)
	require.NoError(t, err)
	placed := 0
	for _, rung := range v.Rungs {
		if rung.State != "proposed" {
			placed++
		}
	}
	assert.Equal(t, 12, placed, "accepting places what was proposed")
}

func TestTheShelfIsEdited(t *testing.T) {
	r := furnished(t)
	item := func(id string) shelf.Item {
		v, err := library.Item(ctx, r.app, r.who, id)
		require.NoError(t, err)
		return v.Item
	}
	jig := item("bow-jig")
	bars := jig.Bars
	jig.Bars, jig.Title, jig.Taste = 999, "The Cooper's Other Jig", shelf.Lively
	require.NoError(t, library.SaveItem(ctx, r.app, r.who, jig))
	assert.Equal(t, "The Cooper's Other Jig", item("bow-jig").Title)
	assert.Equal(t, bars, item("bow-jig").Bars, "a score knows its bars")
	jig.Brings = []string{"juggling"}
	assert.ErrorContains(t, library.SaveItem(ctx, r.app, r.who, jig), "not a skill")
	jig.Brings, jig.Needs = []string{"halves"}, []string{"halves", "scale-white"}
	check, err := library.CheckItem(ctx, r.app, r.who, jig)
	require.NoError(t, err)
	var faults []string
	for _, f := range check.Faults {
		faults = append(faults, f.Why.Code)
	}
	assert.Equal(t, []string{"other-family", "brings-and-needs", "nothing-brings"}, faults)

	table := []byte("id,title,instrument,strand,brings\nbow-fog,Fog Horn Again,cello,book,slow-bows\nbow-half,Half Tide,cello,book,juggling\n")
	v, err := library.Table(ctx, r.app, r.who, table, false, false)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 1}, []int{len(v.Changes), len(v.Bad)})
	assert.Equal(t, "Fog Horn", item("bow-fog").Title, "looked at, not kept")
	v, err = library.Table(ctx, r.app, r.who, table, true, false)
	require.NoError(t, err)
	assert.True(t, v.Saved)
	assert.Equal(t, "Fog Horn Again", item("bow-fog").Title)
	_, err = library.Table(ctx, r.app, r.who, []byte("colour\n"), true, false)
	var known *studio.Error
	require.True(t, errors.As(err, &known))
	assert.Contains(t, known.Says, "there is no column")
	out, err := library.ShelfTable(ctx, r.app, r.who)
	require.NoError(t, err)
	assert.Contains(t, string(out.Data), "Fog Horn Again")
}

func TestLoadsOnTheShelfAreAStudentsOwn(t *testing.T) {
	r := furnished(t)
	typical, err := library.Shelf(ctx, r.app, r.who, "", 0)
	require.NoError(t, err)
	slopes := map[string]int{}
	for _, it := range typical.Items {
		if it.Book == "Tidelines: Harbour" {
			slopes[string(typical.Loads[it.ID].Slope)]++
		}
	}
	assert.GreaterOrEqual(t, slopes["climb"], 2, "a book has climbs")
	assert.GreaterOrEqual(t, slopes["landing"], 8, "and landings")
	own, err := library.Shelf(ctx, r.app, r.who, r.student, 0)
	require.NoError(t, err)
	assert.Contains(t, own.Loads, "bow-jig")
	assert.NotContains(t, own.Loads, "shore-rope-walk", "another instrument's")
}

// A shelf that was changed is read anew, by whichever copy of the app asks.
func TestACopyOfTheAppSeesAChangedShelf(t *testing.T) {
	r := furnished(t)
	_, err := library.Shelf(ctx, r.app, r.who, "", 0)
	require.NoError(t, err)
	for i := range 2 {
		id := fmt.Sprintf("late-%d", i)
		require.NoError(t, library.AddItems(ctx, r.app, r.who, []store.NewItem{{Item: shelf.Item{ID: id, Title: id, Instrument: "cello", Strand: shelf.Book}}}))
		v, err := library.Shelf(ctx, r.app, r.who, "", 0)
		require.NoError(t, err)
		assert.Equal(t, id, v.Items[len(v.Items)-1].ID)
	}
	bad := []store.NewItem{{Item: shelf.Item{ID: "fine", Title: "Fine", Instrument: "cello", Strand: shelf.Book}}, {Item: shelf.Item{ID: "bad", Title: strings.Repeat("x", 300)}}}
	assert.Error(t, library.AddItems(ctx, r.app, r.who, bad))
	_, err = library.Item(ctx, r.app, r.who, "fine")
	assert.Error(t, err, "all or none")
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
	require.NoError(t, roster.SetHome(ctx, app, who, id, shelf.Home{KeyTops: 72, BenchLow: 46, BenchHigh: 48, Tile: 3}))
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
	require.NoError(t, library.SaveActivity(ctx, app, who, mine))
	mine.ID = "palm-taps"
	assert.ErrorContains(t, library.SaveActivity(ctx, app, who, mine), "comes with the program")
	all, err := library.Activities(ctx, app, who)
	require.NoError(t, err)
	assert.Equal(t, "mine", all.Activities[0].ID)
	require.NoError(t, library.DropActivity(ctx, app, who, "mine"))
}

// Who plays a piece and who played it stands with the piece, those who play it first.
func TestWhoPlaysAPiece(t *testing.T) {
	r := newRoom(t)
	players := func() (out []string) {
		v, err := library.Item(ctx, r.app, r.who, "lamp")
		require.NoError(t, err)
		for _, p := range v.Players {
			out = append(out, fmt.Sprint(p.Name, " ", p.State, " ", p.Polished, " ", p.Since != nil))
		}
		return out
	}
	assert.Empty(t, players())
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	r.tell(fact.Polished{Rung: lamp})
	ines := studio.NewID()
	_, err := roster.AddStudent(ctx, r.app, r.who, roster.NewStudent{ID: ines, FirstName: "Ines", FamilyName: "O", BirthYear: 2017, BirthMonth: 3, Instrument: "cello",
		Slot: calendar.Slot{Weekday: time.Thursday, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	r.student = ines
	hers := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	assert.Equal(t, []string{"Ines O current false false", "Emil secure true true"}, players())
	r.tell(fact.RungParked{Rung: hers})
	assert.Equal(t, []string{"Emil secure true true", "Ines O parked false false"}, players())
}

// A book that is renamed, by hand, by table or piece by piece, goes on being the book
// that the student chose.
func TestARenamedBookIsTheSameBook(t *testing.T) {
	r := newRoom(t)
	own := func() []string {
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
		require.NoError(t, err)
		return v.Books
	}
	item, err := library.Item(ctx, r.app, r.who, "lamp")
	require.NoError(t, err)
	item.Item.Book, item.Item.Unit = "Shore", "1"
	require.NoError(t, library.SaveItem(ctx, r.app, r.who, item.Item))
	r.tell(fact.BookChosen{Book: "Shore"})
	require.NoError(t, library.RenameBook(ctx, r.app, r.who, "Shore", "", "Strand"))
	assert.Equal(t, []string{"Strand"}, own())
	table, err := library.ShelfTable(ctx, r.app, r.who)
	require.NoError(t, err)
	_, err = library.Table(ctx, r.app, r.who, []byte(strings.ReplaceAll(string(table.Data), "Strand", "Beach")), true, false)
	require.NoError(t, err)
	assert.Equal(t, []string{"Beach"}, own())
	require.NoError(t, library.RenameBook(ctx, r.app, r.who, "Beach", "1", "First steps"))
	r.tell(fact.BookDropped{Book: "Beach"})
	assert.Empty(t, own(), "dropped by the title that it has now")
	assert.ErrorContains(t, library.RenameBook(ctx, r.app, r.who, "Sea", "", "Ocean"), "there is no book")
}

// An item that nobody has can be taken off the shelf; one on a ladder is archived, goes
// on there and is offered to nobody; another score keeps its marks.
func TestTakingThingsOffTheShelf(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	assert.ErrorContains(t, library.DropItem(ctx, r.app, r.who, "lamp"), "Archive it")
	require.NoError(t, library.DropItem(ctx, r.app, r.who, "slipway"))
	_, err := library.Item(ctx, r.app, r.who, "slipway")
	assert.ErrorContains(t, err, "no such item")
	assert.ErrorContains(t, library.DropItem(ctx, r.app, r.who, "slipway"), "no such item", "gone is gone")

	said, err := library.ReplaceScore(ctx, r.app, r.who, "lamp", "lamp.abc", []byte("X:1\nT:Lamp\nL:1/4\nK:C clef=bass\nC, D, E, F,|G,4|\n"))
	require.NoError(t, err)
	assert.Equal(t, library.Replaced{Was: 16, Bars: 2, Says: "It had 16 bars and has 2 now: look at spots that name a bar."}, said)
	_, err = library.ReplaceScore(ctx, r.app, r.who, "lamp", "lamp.abc", []byte("X:1\nK:C\nC|[CE|\n"))
	assert.ErrorContains(t, err, "could not be read")
	item, err := library.Item(ctx, r.app, r.who, "lamp")
	require.NoError(t, err)
	assert.True(t, item.Item.HasScore)
	assert.Equal(t, "lamp.abc", item.File)

	half, err := library.Item(ctx, r.app, r.who, "half")
	require.NoError(t, err)
	half.Item.Book = "Shore"
	require.NoError(t, library.SaveItem(ctx, r.app, r.who, half.Item))
	r.tell(fact.BookChosen{Book: "Shore"})
	proposed := func() (n int) {
		v, err := places.Ladder(ctx, r.app, r.who, r.student)
		require.NoError(t, err)
		for _, rung := range v.Rungs {
			if rung.State == "proposed" {
				n++
			}
			if rung.ID == lamp {
				assert.EqualValues(t, "met", rung.Points[0].State)
			}
		}
		return n
	}
	assert.Equal(t, 1, proposed())
	for _, id := range []string{"half", "lamp"} {
		v, err := library.Item(ctx, r.app, r.who, id)
		require.NoError(t, err)
		v.Item.Archived = true
		require.NoError(t, library.SaveItem(ctx, r.app, r.who, v.Item))
	}
	assert.Zero(t, proposed(), "archived is not offered; what is on the ladder goes on")
}

// What was taken back by a slip is put back from the record, as it was told and when.
func TestATakeBackIsTakenBack(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	granted := r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	entry := func() places.Entry {
		v, err := places.Record(ctx, r.app, r.who, r.student, 0)
		require.NoError(t, err)
		i := slices.IndexFunc(v.Entries, func(e places.Entry) bool { return e.Fact.ID == granted })
		require.GreaterOrEqual(t, i, 0)
		return v.Entries[i]
	}
	footholds := func() int {
		v, err := places.Record(ctx, r.app, r.who, r.student, 0)
		require.NoError(t, err)
		return v.Footholds
	}
	for _, want := range []int{0, 1, 0, 1} {
		assert.Equal(t, want == 1, entry().Back, "it stands before it is taken back, and the other way round")
		for _, b := range entry().Undo {
			r.tell(b)
		}
		assert.Equal(t, want, footholds())
	}
	assert.False(t, entry().Back)
}

// A line that is pinned stands on the next sheet as it was given, until the pin is taken out.
func TestAPinnedLineStandsOnTheNextSheet(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	lesson := func(day calendar.Date) places.WeekView {
		r.now = day.Time().Add(16 * time.Hour)
		r.tell(fact.LessonOpened{Day: day})
		r.tell(fact.Taught{Rung: lamp})
		r.tell(fact.LessonClosed{Day: day})
		v, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
		require.NoError(t, err)
		return v
	}
	stands := func(v places.WeekView, key string) bool {
		_, there := v.Sheet.Line(key)
		return there
	}
	first := lesson("2026-11-18")
	line := first.Lines[0]
	require.Positive(t, line.From, "a stretch of the piece")
	pin := r.tell(fact.LinePinned{Day: "2026-11-18", Document: first.Document.ID, Line: line.Key})
	again, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	assert.True(t, again.Lines[0].Pinned)
	assert.Equal(t, 1, again.Document.Revision, "this sheet stays as it is")
	second := lesson("2026-11-25")
	assert.True(t, stands(second, line.Key))
	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	past, err := family.Weeks(ctx, r.app, link.Path[len("/family/"):])
	require.NoError(t, err)
	require.Len(t, past.Weeks, 1, "the sheet of before, without the one that holds")
	assert.Equal(t, calendar.Date("2026-11-18"), past.Weeks[0].Day)
	assert.Equal(t, "Lamp Room", past.Weeks[0].Lines[0].Title)
	_, err = family.Weeks(ctx, r.app, "nobody")
	assert.ErrorContains(t, err, "opens no week")
	r.tell(fact.Retracted{Ref: pin})
	assert.True(t, stands(lesson("2026-11-25"), line.Key), "what was given stays")
	assert.False(t, stands(lesson("2026-12-02"), line.Key))
}

// A family that has begun with its sheet is told what the teacher changed on it since, until
// it tells something again.
func TestAFamilyIsToldWhatChanged(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.LessonOpened{Day: "2026-11-18"})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.LessonClosed{Day: "2026-11-18"})
	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	changed := func() (says []string) {
		v, err := family.Page(ctx, r.app, token)
		require.NoError(t, err)
		for _, l := range v.Changed {
			says = append(says, l.Says)
		}
		return says
	}
	tick := func() {
		v, err := family.Page(ctx, r.app, token)
		require.NoError(t, err)
		r.now = r.now.Add(time.Hour)
		line := v.Sheet.Days[1].Tasks[0]
		require.NoError(t, family.Tell(ctx, r.app, token, []fact.Fact{{ID: studio.NewID(), Student: r.student, At: r.now, Body: fact.Ticked{Day: v.Sheet.Days[1].Date, Document: v.Document.ID, Line: line.Key, Rung: line.Rung}}}))
	}
	assert.Empty(t, changed())
	r.now = r.now.Add(time.Hour)
	r.tell(fact.LineAdded{Day: "2026-11-18", Text: "Sing it."})
	assert.Empty(t, changed(), "nobody has seen the sheet of before")
	tick()
	r.now = r.now.Add(time.Hour)
	r.tell(fact.LineAdded{Day: "2026-11-18", Text: "Clap it."})
	assert.Equal(t, []string{"New: Clap it."}, changed())
	tick()
	assert.Empty(t, changed(), "it has been seen")
}

// A student of twelve may hold a link of their own: it opens the same week, tells what was
// done and asks, leaves the family's days and treats to the family, and ends by itself.
func TestAStudentsOwnLink(t *testing.T) {
	r := newRoom(t)
	_, err := family.MakeLink(ctx, r.app, r.who, r.student, true)
	assert.ErrorContains(t, err, "is under 12")
	older := studio.NewID()
	_, err = roster.AddStudent(ctx, r.app, r.who, roster.NewStudent{ID: older, FirstName: "Idris", Instrument: "piano", BirthYear: 2014, BirthMonth: 11, Slot: calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	own, err := family.MakeLink(ctx, r.app, r.who, older, true)
	require.NoError(t, err)
	theirs, err := family.MakeLink(ctx, r.app, r.who, older, false)
	require.NoError(t, err)
	token := func(l family.NewLink) string { return l.Path[len("/family/"):] }
	v, err := family.Page(ctx, r.app, token(own))
	require.NoError(t, err)
	assert.True(t, v.Own)
	assert.False(t, v.Treats)
	tell := func(l family.NewLink, b fact.Body) error {
		return family.Tell(ctx, r.app, token(l), []fact.Fact{{ID: studio.NewID(), Student: older, At: r.now, Body: b}})
	}
	assert.NoError(t, tell(own, fact.QuestionAsked{Text: "Which finger on the black key?"}))
	assert.ErrorContains(t, tell(own, fact.DaysSet{Weekdays: []int{1, 3}}), "for the family to settle")
	assert.NoError(t, tell(theirs, fact.DaysSet{Weekdays: []int{1, 3}}))
	require.NoError(t, family.EndLinks(ctx, r.app, r.who, older, true))
	_, err = family.Page(ctx, r.app, token(own))
	assert.ErrorContains(t, err, "ended this link")
	_, err = family.Page(ctx, r.app, token(theirs))
	assert.NoError(t, err, "the family's stays")
}

// A sentence to the family, told in the lesson, stands on the sheet that is given when the
// lesson is closed.
func TestALessonsSentenceStandsOnItsSheet(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.LessonOpened{Day: "2026-11-18"})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.SheetNoted{Day: "2026-11-18", Text: "Sing it in the bath."})
	r.tell(fact.LessonClosed{Day: "2026-11-18"})
	v, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(t, err)
	require.NotNil(t, v.Sheet)
	assert.Equal(t, "Sing it in the bath.", v.Sheet.Word)
	assert.Equal(t, 1, v.Document.Revision, "no revision for it")
}

// What was foretold is held against what came, for a student and for the studio; and what a
// studio's students take says what a new one is foretold, from the next day on.
func TestForecastsAreLookedBackOn(t *testing.T) {
	r := newRoom(t)
	none, err := diary.Forecasts(ctx, r.app, r.who)
	require.NoError(t, err)
	assert.Zero(t, none.Of)
	fresh := none.Usual
	r.now = time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	for _, item := range []string{"lamp", "slipway", "half"} {
		rung := r.tell(fact.RungAdded{Item: item, Strand: "book", After: fact.Top})
		r.tell(fact.Taught{Rung: rung})
		for range 4 {
			r.tell(fact.LessonClosed{Day: calendar.On(r.now)})
			r.now = r.now.AddDate(0, 0, 7)
		}
		r.tell(fact.FootholdTried{Rung: rung, Outcome: "granted"})
	}
	r.now = r.now.AddDate(0, 0, 1)
	v, err := diary.Forecasts(ctx, r.app, r.who)
	require.NoError(t, err)
	assert.Equal(t, 3, v.Of)
	assert.Equal(t, 3, v.Kept)
	assert.Greater(t, v.Usual.Mid, fresh.Mid, "four weeks each here, a little over three in common")
	record, err := places.Record(ctx, r.app, r.who, r.student, 0)
	require.NoError(t, err)
	require.Len(t, record.Foretold, 3)
	assert.Equal(t, []any{"Half Tide", 4.0, 3}, []any{record.Foretold[0].Title, record.Foretold[0].Weeks, record.Kept})
}
