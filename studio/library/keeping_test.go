package library_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/studiotest"
)

// A file that is there already is asked about; asked for again it is another item, and
// the two can be told to be the same: whoever has the first keeps every mark.
func TestTheSameThingTwice(t *testing.T) {
	r := studiotest.New(t)
	bring := func(again bool) library.Imported {
		t.Helper()
		out, err := library.BringIn(ctx, r.App, r.Who, library.Import{ID: studio.NewID(), FileName: "kelp.abc", Data: []byte("X:1\nT:Kelp Round\nL:1/4\nM:4/4\nK:C\nCDEF|G4|\n"), Book: "Kelp", Instrument: "piano", Strand: shelf.Repertoire, Again: again})
		require.NoError(t, err)
		return out
	}
	first := bring(false)
	require.Len(t, first.Items, 1)
	twin := bring(false)
	assert.Empty(t, twin.Items)
	assert.Equal(t, []library.Twin{{Item: first.Items[0].ID, Title: "Kelp Round", Book: "Kelp"}}, twin.Twins)
	second := bring(true)
	require.Len(t, second.Items, 1)
	a, b := first.Items[0].ID, second.Items[0].ID

	rung := r.Tell(fact.RungAdded{Item: a, Strand: "repertoire", After: fact.Top})
	r.Tell(fact.Taught{Rung: rung})
	r.Tell(fact.PointMarked{Rung: rung, Point: "tone", State: fact.Met})
	renamed := second.Items[0]
	renamed.Title = "Kelp Canon"
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, renamed.ID, studio.Set(renamed)))
	require.NoError(t, library.SameItem(ctx, r.App, r.Who, a, b))
	ladder, err := places.Ladder(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	found := false
	for _, on := range ladder.Rungs {
		if on.ID == rung {
			found = true
			assert.Equal(t, "Kelp Canon", on.Title)
			assert.EqualValues(t, "met", on.Points[1].State, "%+v", on.Points)
		}
	}
	assert.True(t, found)
	view, err := library.Shelf(ctx, r.App, r.Who, "", 0)
	require.NoError(t, err)
	for _, it := range view.Items {
		assert.NotEqual(t, a, it.ID, "one of the two stands on the shelf")
	}
	page, err := library.Item(ctx, r.App, r.Who, b)
	require.NoError(t, err)
	assert.Len(t, page.Players, 1, "who has the first plays the second")
	assert.ErrorContains(t, library.DropItem(ctx, r.App, r.Who, b, nil), "part them first")
	assert.ErrorContains(t, library.SaveItem(ctx, r.App, r.Who, first.Items[0].ID, studio.Set(first.Items[0])), "edit that one")
	assert.ErrorContains(t, library.SameItem(ctx, r.App, r.Who, b, a), "choose that one")
	require.NoError(t, library.SameItem(ctx, r.App, r.Who, a, ""))
	page, err = library.Item(ctx, r.App, r.Who, a)
	require.NoError(t, err)
	assert.Equal(t, "Kelp Round", page.Item.Title, "parted again, with its own words")

	table := []byte("title,book,instrument,strand\nKelp Round,Kelp,piano,repertoire\nNew One,Kelp,piano,repertoire\n")
	v, err := library.Table(ctx, r.App, r.Who, table, true, false)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 1}, []int{v.Twins, len(v.Changes)}, "what stands there is left out")
	v, err = library.Table(ctx, r.App, r.Who, table, true, true)
	require.NoError(t, err)
	assert.Len(t, v.Changes, 2)
}

// A studio's own instruments and skills: refused with a sentence, kept, used, and taken
// away when nothing is for them.
func TestOwnInstrumentsAndSkills(t *testing.T) {
	r := studiotest.New(t)
	whistle := library.InstrumentView{ID: "01WHISTLE", Name: "tin whistle", Family: instrument.Other, Clef: "G2", Low: "D4", High: "B5", Strings: []string{}}
	require.NoError(t, library.SaveInstrument(ctx, r.App, r.Who, whistle.ID, studio.Set(whistle)))
	for says, bad := range map[string]func(*library.InstrumentView){
		"comes with the program":   func(v *library.InstrumentView) { v.ID = "piano" },
		"not a note":               func(v *library.InstrumentView) { v.Low = "H9x" },
		"must lie above":           func(v *library.InstrumentView) { v.High = "C4" },
		"needs a name":             func(v *library.InstrumentView) { v.Name = " " },
		"There is a piano already": func(v *library.InstrumentView) { v.ID, v.Name = "01OTHER", "Piano" },
		"another family":           func(v *library.InstrumentView) { v.Shelf = "guitar" },
		"how the hand lies":        func(v *library.InstrumentView) { v.Family, v.Strings = instrument.Plucked, []string{"A4"} },
		"not a way in which": func(v *library.InstrumentView) {
			v.Family, v.Strings, v.Hand = instrument.Plucked, []string{"A4"}, "claws"
		},
		`String 1, "x"`: func(v *library.InstrumentView) { v.Family, v.Strings = instrument.Plucked, []string{"x"} },
	} {
		v := whistle
		bad(&v)
		assert.ErrorContains(t, library.SaveInstrument(ctx, r.App, r.Who, v.ID, studio.Set(v)), says)
	}
	whistle.High = "D6"
	require.NoError(t, library.SaveInstrument(ctx, r.App, r.Who, whistle.ID, studio.Set(whistle)), "the same again is changed")
	all, err := library.Instruments(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Len(t, all.Instruments, len(instrument.Shipped)+1)
	last := all.Instruments[len(all.Instruments)-1]
	assert.Equal(t, []any{"D6", true, false}, []any{last.High, last.Own, last.Used})
	it := shelf.Item{ID: "reel", Title: "Reel", Instrument: "01WHISTLE", Strand: shelf.Book, Book: "Reels"}
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, it.ID, studio.Set(it)))
	assert.ErrorContains(t, library.DropInstrument(ctx, r.App, r.Who, "01WHISTLE", nil), "on the shelf is for it")
	assert.ErrorContains(t, library.DropInstrument(ctx, r.App, r.Who, "cello", nil), "comes with the program")
	require.NoError(t, library.DropItem(ctx, r.App, r.Who, "reel", nil))
	require.NoError(t, library.DropInstrument(ctx, r.App, r.Who, "01WHISTLE", nil))
	assert.ErrorContains(t, library.SaveItem(ctx, r.App, r.Who, it.ID, studio.Set(it)), "not an instrument here")

	sway := skill.Skill{ID: "01SWAY", Name: "Sways in time", Family: instrument.Shared, Area: skill.Rhythm, Weight: 1, RestsOn: []string{"steady-beat"}, Chain: []skill.Link{{Do: "Sway", Minutes: 1, Weeks: 1}}}
	require.NoError(t, library.SaveSkill(ctx, r.App, r.Who, sway.ID, studio.Set(sway)))
	for says, bad := range map[string]func(*skill.Skill){
		"comes with the program": func(s *skill.Skill) { s.ID = "steady-beat" },
		"in a circle":            func(s *skill.Skill) { s.RestsOn = []string{"01SWAY"} },
		"not in the graph":       func(s *skill.Skill) { s.RestsOn = []string{"nothing"} },
		"needs a name":           func(s *skill.Skill) { s.Name = "" },
		"between 0.3 and 3":      func(s *skill.Skill) { s.Weight = 9 },
		"one to five":            func(s *skill.Skill) { s.Chain = nil },
		"belongs to other":       func(s *skill.Skill) { s.RestsOn = []string{"bow-hold"} },
	} {
		s := sway
		bad(&s)
		assert.ErrorContains(t, library.SaveSkill(ctx, r.App, r.Who, s.ID, studio.Set(s)), says)
	}
	piece := shelf.Item{ID: "shanty", Title: "Shanty", Instrument: "piano", Strand: shelf.Book, Book: "Own", Brings: []string{"01SWAY"}}
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, piece.ID, studio.Set(piece)))
	r.Tell(fact.Prepared{Skill: "01SWAY", Step: 1})
	view, err := library.Skills(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Equal(t, []string{"01SWAY"}, view.Own)
	assert.ErrorContains(t, library.DropSkill(ctx, r.App, r.Who, "01SWAY", nil), "take it off there first")
	assert.ErrorContains(t, library.DropSkill(ctx, r.App, r.Who, "steady-beat", nil), "comes with the program")
	require.NoError(t, library.DropItem(ctx, r.App, r.Who, "shanty", nil))
	require.NoError(t, library.DropSkill(ctx, r.App, r.Who, "01SWAY", nil))
}

// A long shelf comes in parts that make the whole, in order.
func TestALongShelfComesInParts(t *testing.T) {
	r := studiotest.New(t)
	var items []store.NewItem
	for i := range 2100 {
		items = append(items, store.NewItem{Item: shelf.Item{ID: fmt.Sprintf("i%04d", i), Title: fmt.Sprint("Piece ", i), Instrument: "piano", Strand: shelf.Book, Book: "Long", Brings: []string{"steps"}, Needs: []string{"steps"}}})
	}
	require.NoError(t, library.AddItems(ctx, r.App, r.Who, items))
	var ids []string
	from, parts := 0, 0
	for {
		v, err := library.Shelf(ctx, r.App, r.Who, "", from)
		require.NoError(t, err)
		parts++
		for _, it := range v.Items {
			ids = append(ids, it.ID)
			assert.Contains(t, v.Loads, it.ID)
		}
		assert.Len(t, v.Loads, len(v.Items))
		assert.Equal(t, from == 0, len(v.Faults) == 200, "what is out of order is told once")
		assert.Equal(t, from == 0, v.More > 0)
		if from = v.Next; from == 0 {
			break
		}
	}
	assert.Equal(t, 3, parts)
	assert.Len(t, ids, len(slices.Compact(slices.Clone(ids))))
	assert.Equal(t, "i2099", ids[len(ids)-1])
	beyond, err := library.Shelf(ctx, r.App, r.Who, "", 99999)
	require.NoError(t, err)
	assert.Empty(t, beyond.Items)
	assert.Zero(t, beyond.Next)
}

func TestABookIsLaidAwayAndTakenOff(t *testing.T) {
	r := studiotest.New(t)
	_, err := library.AddTitles(ctx, r.App, r.Who, library.TitleList{Book: "Attic songs", Instrument: "cello", Strand: shelf.Book, Titles: "Rafters\nGable\n"})
	require.NoError(t, err)
	archived := func() (n int) {
		v, err := library.Shelf(ctx, r.App, r.Who, "", 0)
		require.NoError(t, err)
		for _, it := range v.Items {
			if it.Book == "Attic songs" && it.Archived {
				n++
			}
		}
		return n
	}
	require.NoError(t, library.ArchiveBook(ctx, r.App, r.Who, "Attic songs", true))
	assert.Equal(t, 2, archived())
	require.NoError(t, library.ArchiveBook(ctx, r.App, r.Who, "Attic songs", false))
	assert.Zero(t, archived())
	assert.ErrorContains(t, library.ArchiveBook(ctx, r.App, r.Who, "No such book", true), "no book")

	v, err := library.Shelf(ctx, r.App, r.Who, "", 0)
	require.NoError(t, err)
	i := slices.IndexFunc(v.Items, func(it shelf.Item) bool { return it.Title == "Gable" })
	rung := r.Tell(fact.RungAdded{Item: v.Items[i].ID, Strand: "book", After: fact.Top})
	assert.ErrorContains(t, library.DropBook(ctx, r.App, r.Who, "Attic songs"), "Archive it instead")
	require.NoError(t, library.ArchiveBook(ctx, r.App, r.Who, "Attic songs", true))
	now, err := places.Ladder(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(now.Rungs, func(v places.RungView) bool { return v.ID == rung }), "who has it goes on")

	_, err = library.AddTitles(ctx, r.App, r.Who, library.TitleList{Book: "Never used", Instrument: "cello", Strand: shelf.Book, Titles: "One\n"})
	require.NoError(t, err)
	require.NoError(t, library.DropBook(ctx, r.App, r.Who, "Never used"))
	assert.ErrorContains(t, library.DropBook(ctx, r.App, r.Who, "Never used"), "no book")

	_, err = library.AddTitles(ctx, r.App, r.Who, library.TitleList{Book: "Chosen", Instrument: "cello", Strand: shelf.Book, Titles: "Two\n"})
	require.NoError(t, err)
	r.Tell(fact.BookChosen{Book: "Chosen"})
	require.NoError(t, library.RenameBook(ctx, r.App, r.Who, "Chosen", "", "Renamed"))
	assert.ErrorContains(t, library.DropBook(ctx, r.App, r.Who, "Renamed"), "Archive it instead", "under whatever title it was chosen")
}

// Of a score for several players it is asked which part the student plays; only that goes onto the
// shelf, and the same twice is noticed.
func TestAPartOfAScore(t *testing.T) {
	r := studiotest.New(t)
	song := "X:1\nT:Gull Song\nM:4/4\nL:1/4\n%%score 1 {2 3}\nV:1 name=Voice\nV:2 name=Piano\nV:3 clef=bass\nK:C\n[V:1]c d e f|\n[V:2]C E G E|\n[V:3]C,4|\n"
	bring := func(parts ...int) (library.Imported, error) {
		return library.BringIn(ctx, r.App, r.Who, library.Import{ID: studio.NewID(), FileName: "song.abc", Data: []byte(song), Instrument: "piano", Strand: shelf.Repertoire, Parts: parts})
	}
	out, err := bring()
	require.NoError(t, err)
	assert.Empty(t, out.Items, "nothing before it is said")
	require.Len(t, out.Parts, 2)
	assert.Equal(t, "Piano", out.Parts[1].Name)
	assert.True(t, out.Parts[1].Likely)
	_, err = bring(9)
	assert.ErrorContains(t, err, "song.abc has 2 parts, and none with the number 9")
	out, err = bring(2)
	require.NoError(t, err)
	require.Len(t, out.Items, 1)
	assert.Equal(t, "Gull Song", out.Items[0].Title)
	assert.Equal(t, 2, out.Items[0].Staves, "the piano's, without the voice")
	assert.Equal(t, "parts of other players", out.Unread[0].What)
	again, err := bring(2)
	require.NoError(t, err)
	assert.Len(t, again.Twins, 1)
	all, err := bring(1, 2)
	require.NoError(t, err)
	assert.Len(t, all.Items, 1, "the whole is another thing")
}

// A book that is renamed, by hand, by table or piece by piece, goes on being the book
// that the student chose.
func TestARenamedBookIsTheSameBook(t *testing.T) {
	r := studiotest.New(t)
	own := func() []string {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		return v.Books
	}
	item, err := library.Item(ctx, r.App, r.Who, "lamp")
	require.NoError(t, err)
	item.Item.Book, item.Item.Unit = "Shore", "1"
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, item.Item.ID, studio.Set(item.Item)))
	r.Tell(fact.BookChosen{Book: "Shore"})
	require.NoError(t, library.RenameBook(ctx, r.App, r.Who, "Shore", "", "Strand"))
	assert.Equal(t, []string{"Strand"}, own())
	table, err := library.ShelfTable(ctx, r.App, r.Who)
	require.NoError(t, err)
	_, err = library.Table(ctx, r.App, r.Who, []byte(strings.ReplaceAll(string(table.Data), "Strand", "Beach")), true, false)
	require.NoError(t, err)
	assert.Equal(t, []string{"Beach"}, own())
	require.NoError(t, library.RenameBook(ctx, r.App, r.Who, "Beach", "1", "First steps"))
	r.Tell(fact.BookDropped{Book: "Beach"})
	assert.Empty(t, own(), "dropped by the title that it has now")
	assert.ErrorContains(t, library.RenameBook(ctx, r.App, r.Who, "Sea", "", "Ocean"), "there is no book")
}

// An item that nobody has can be taken off the shelf; one on a ladder is archived, goes
// on there and is offered to nobody; another score keeps its marks.
func TestTakingThingsOffTheShelf(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met})
	assert.ErrorContains(t, library.DropItem(ctx, r.App, r.Who, "lamp", nil), "Archive it")
	require.NoError(t, library.DropItem(ctx, r.App, r.Who, "slipway", nil))
	_, err := library.Item(ctx, r.App, r.Who, "slipway")
	assert.ErrorContains(t, err, "no such item")
	assert.ErrorContains(t, library.DropItem(ctx, r.App, r.Who, "slipway", nil), "no such item", "gone is gone")

	said, err := library.ReplaceScore(ctx, r.App, r.Who, "lamp", "lamp.abc", []byte("X:1\nT:Lamp\nL:1/4\nK:C clef=bass\nC, D, E, F,|G,4|\n"))
	require.NoError(t, err)
	assert.Equal(t, library.Replaced{Was: 16, Bars: 2, Says: "It had 16 bars and has 2 now: look at spots that name a bar."}, said)
	_, err = library.ReplaceScore(ctx, r.App, r.Who, "lamp", "lamp.abc", []byte("X:1\nK:C\nC|[CE|\n"))
	assert.ErrorContains(t, err, "could not be read")
	item, err := library.Item(ctx, r.App, r.Who, "lamp")
	require.NoError(t, err)
	assert.True(t, item.Item.HasScore)
	assert.Equal(t, "lamp.abc", item.File)

	half, err := library.Item(ctx, r.App, r.Who, "half")
	require.NoError(t, err)
	half.Item.Book = "Shore"
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, half.Item.ID, studio.Set(half.Item)))
	r.Tell(fact.BookChosen{Book: "Shore"})
	proposed := func() (n int) {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
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
		v, err := library.Item(ctx, r.App, r.Who, id)
		require.NoError(t, err)
		v.Item.Archived = true
		require.NoError(t, library.SaveItem(ctx, r.App, r.Who, v.Item.ID, studio.Set(v.Item)))
	}
	assert.Zero(t, proposed(), "archived is not offered; what is on the ladder goes on")
}
