package library_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/library"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

func TestTheShelfIsEdited(t *testing.T) {
	r := studiotest.Furnished(t)
	item := func(id string) shelf.Item {
		v, err := library.Item(ctx, r.App, r.Who, id)
		require.NoError(t, err)
		return v.Item
	}
	jig := item("bow-jig")
	bars := jig.Bars
	jig.Bars, jig.Title, jig.Taste = 999, "The Cooper's Other Jig", shelf.Lively
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, jig.ID, studio.Set(jig)))
	assert.Equal(t, "The Cooper's Other Jig", item("bow-jig").Title)
	assert.Equal(t, bars, item("bow-jig").Bars, "a score knows its bars")
	jig.Brings = []string{"juggling"}
	assert.ErrorContains(t, library.SaveItem(ctx, r.App, r.Who, jig.ID, studio.Set(jig)), "not a skill")
	jig.Brings, jig.Needs = []string{"halves"}, []string{"halves", "scale-white"}
	check, err := library.CheckItem(ctx, r.App, r.Who, jig)
	require.NoError(t, err)
	var faults []string
	for _, f := range check.Faults {
		faults = append(faults, f.Why.Code)
	}
	assert.Equal(t, []string{"other-family", "brings-and-needs", "nothing-brings"}, faults)

	table := []byte("id,title,instrument,strand,brings\nbow-fog,Fog Horn Again,cello,book,slow-bows\nbow-half,Half Tide,cello,book,juggling\n")
	v, err := library.Table(ctx, r.App, r.Who, table, false, false)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 1}, []int{len(v.Changes), len(v.Bad)})
	assert.Equal(t, "Fog Horn", item("bow-fog").Title, "looked at, not kept")
	v, err = library.Table(ctx, r.App, r.Who, table, true, false)
	require.NoError(t, err)
	assert.True(t, v.Saved)
	assert.Equal(t, "Fog Horn Again", item("bow-fog").Title)
	_, err = library.Table(ctx, r.App, r.Who, []byte("colour\n"), true, false)
	var known *studio.Error
	require.True(t, errors.As(err, &known))
	assert.Contains(t, known.Says, "there is no column")
	out, err := library.ShelfTable(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Contains(t, string(out.Data), "Fog Horn Again")
}

func TestLoadsOnTheShelfAreAStudentsOwn(t *testing.T) {
	r := studiotest.Furnished(t)
	typical, err := library.Shelf(ctx, r.App, r.Who, "", 0)
	require.NoError(t, err)
	slopes := map[string]int{}
	for _, it := range typical.Items {
		if it.Book == "Tidelines: Harbour" {
			slopes[string(typical.Loads[it.ID].Slope)]++
		}
	}
	assert.GreaterOrEqual(t, slopes["climb"], 2, "a book has climbs")
	assert.GreaterOrEqual(t, slopes["landing"], 8, "and landings")
	own, err := library.Shelf(ctx, r.App, r.Who, r.Student, 0)
	require.NoError(t, err)
	assert.Contains(t, own.Loads, "bow-jig")
	assert.NotContains(t, own.Loads, "shore-rope-walk", "another instrument's")
}

// A shelf that was changed is read anew, by whichever copy of the app asks.
func TestACopyOfTheAppSeesAChangedShelf(t *testing.T) {
	r := studiotest.Furnished(t)
	_, err := library.Shelf(ctx, r.App, r.Who, "", 0)
	require.NoError(t, err)
	for i := range 2 {
		id := fmt.Sprintf("late-%d", i)
		require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{Item: shelf.Item{ID: id, Title: id, Instrument: "cello", Strand: shelf.Book}}}))
		v, err := library.Shelf(ctx, r.App, r.Who, "", 0)
		require.NoError(t, err)
		assert.Equal(t, id, v.Items[len(v.Items)-1].ID)
	}
	bad := []store.NewItem{{Item: shelf.Item{ID: "fine", Title: "Fine", Instrument: "cello", Strand: shelf.Book}}, {Item: shelf.Item{ID: "bad", Title: strings.Repeat("x", 300)}}}
	assert.Error(t, library.AddItems(ctx, r.App, r.Who, bad))
	_, err = library.Item(ctx, r.App, r.Who, "fine")
	assert.Error(t, err, "all or none")
}

// Who plays a piece and who played it stands with the piece, those who play it first.
func TestWhoPlaysAPiece(t *testing.T) {
	r := studiotest.New(t)
	players := func() (out []string) {
		v, err := library.Item(ctx, r.App, r.Who, "lamp")
		require.NoError(t, err)
		for _, p := range v.Players {
			out = append(out, fmt.Sprint(p.Name, " ", p.State, " ", p.Polished, " ", p.Since != nil))
		}
		return out
	}
	assert.Empty(t, players())
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	r.Tell(fact.Polished{Rung: lamp})
	ines := studio.NewID()
	_, err := roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: ines, FirstName: "Ines", FamilyName: "O", BirthYear: 2017, BirthMonth: 3, Instrument: "cello",
		Slot: calendar.Slot{Weekday: time.Thursday, Start: "16:00", Minutes: 30}})
	require.NoError(t, err)
	r.Student = ines
	hers := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	assert.Equal(t, []string{"Ines O current false false", "Emil secure true true"}, players())
	r.Tell(fact.RungParked{Rung: hers})
	assert.Equal(t, []string{"Emil secure true true", "Ines O parked false false"}, players())
}
