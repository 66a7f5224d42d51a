package roster_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

func titlesOf(b roster.Beginning, strand shelf.Strand) (out []string) {
	for _, r := range b.Rungs {
		if r.Strand == strand {
			out = append(out, r.Title)
		}
	}
	return
}

func TestWhereANewStudentBegins(t *testing.T) {
	r := studiotest.Furnished(t)
	begin := func(change func(*roster.NewStudent)) roster.Beginning {
		b, err := roster.Begin(ctx, r.App, r.Who, studiotest.Newcomer(change))
		require.NoError(t, err)
		return b
	}
	foot := begin(func(*roster.NewStudent) {})
	assert.Equal(t, 10, foot.Age)
	assert.EqualValues(t, "landmarks", foot.Approach["reading"])
	assert.Contains(t, foot.Presumed, "Both hands moving", "what the book takes for granted")
	assert.NotContains(t, foot.Presumed, "Six-eight time", "not what it brings")
	assert.Len(t, foot.Rungs, 12)
	assert.Equal(t, "Nine Fathoms", titlesOf(foot, shelf.Book)[0])

	later := begin(func(in *roster.NewStudent) { in.Begin = "harbour-lock" })
	assert.Equal(t, "The Lock Keeper", titlesOf(later, shelf.Book)[0], "at the unit chosen")
	assert.Contains(t, later.Presumed, "Six-eight time", "what comes before it is taken for granted")
	assert.NotContains(t, titlesOf(later, shelf.Technique), "Thumb passes")

	before := begin(func(in *roster.NewStudent) {
		in.Begin, in.BirthYear, in.Books = "before", 2022, []string{"Tidelines: Pebbles"}
	})
	assert.Len(t, before.Rungs, 12, "every small thing")
	assert.True(t, before.Before)
	for _, c := range []struct {
		says   string
		books  []string
		rungs  bool
		before bool
		empty  string
	}{
		{"only a book from before the first", []string{"Tidelines: Pebbles"}, true, true, ""},
		{"that and a first book", []string{"Tidelines: Pebbles", "Tidelines: Shore"}, true, false, ""},
		{"the first book", []string{"Tidelines: Shore"}, true, false, ""},
		{"no book", nil, false, false, "begins-empty"},
	} {
		b := begin(func(in *roster.NewStudent) { in.Begin, in.BirthYear, in.Books = "", 2021, c.books })
		assert.Equal(t, c.rungs, len(b.Rungs) > 0, c.says)
		assert.Equal(t, c.before, b.Before, c.says)
		if c.empty == "" {
			assert.Nil(t, b.Empty, c.says)
		} else if assert.NotNil(t, b.Empty, c.says) {
			assert.Equal(t, c.empty, b.Empty.Code, c.says)
		}
	}
	ear := begin(func(in *roster.NewStudent) { in.Approach = approach.Approach{"upkeep": "three-quarters"} })
	assert.EqualValues(t, "three-quarters", ear.Approach["upkeep"])

	for says, change := range map[string]func(*roster.NewStudent){
		"no book":              func(in *roster.NewStudent) { in.Books = []string{"Nobody's Book"} },
		"not on the shelf":     func(in *roster.NewStudent) { in.Begin = "bow-jig" },
		"approach does not":    func(in *roster.NewStudent) { in.Approach = approach.Approach{"upkeep": "all"} },
		"instrument at home":   func(in *roster.NewStudent) { in.Home = &shelf.Home{Keys: 3} },
		"lesson time does not": func(in *roster.NewStudent) { in.Slot.Minutes = 1 },
	} {
		_, err := roster.Begin(ctx, r.App, r.Who, studiotest.Newcomer(change))
		assert.ErrorContains(t, err, says)
	}
}

func TestTakingOnTwiceAddsOne(t *testing.T) {
	r := studiotest.Furnished(t)
	in := studiotest.Newcomer(func(*roster.NewStudent) {})
	for range 2 {
		_, err := roster.AddStudent(ctx, r.App, r.Who, in)
		require.NoError(t, err)
	}
	v, err := places.Ladder(ctx, r.App, r.Who, in.ID)
	require.NoError(t, err)
	placed := 0
	for _, rung := range v.Rungs {
		if rung.State != "proposed" {
			placed++
		}
	}
	assert.Equal(t, 12, placed, "each of the first rungs once")
	assert.Equal(t, in.Books, v.Books)
	day, err := diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Len(t, day.Students, 2)
}

func TestTheHomeInstrumentFiltersWhatIsOffered(t *testing.T) {
	r := studiotest.Furnished(t)
	in := studiotest.Newcomer(func(in *roster.NewStudent) { in.Books = nil })
	in.Home = &shelf.Home{Keys: 61, NoTouch: true, NoPedals: true}
	_, err := roster.AddStudent(ctx, r.App, r.Who, in)
	require.NoError(t, err)
	r.Student = in.ID
	r.Tell(fact.BookChosen{Book: "Tidelines: Shore", From: "shore-sailcloth"})
	offered := func() bool {
		v, err := places.Ladder(ctx, r.App, r.Who, in.ID)
		require.NoError(t, err)
		for _, rung := range v.Rungs {
			if rung.Title == "Driftwood" { // near, then far
				return true
			}
		}
		return false
	}
	assert.False(t, offered())
	require.NoError(t, roster.SetHome(ctx, r.App, r.Who, in.ID, studio.Set(shelf.Home{})))
	assert.True(t, offered(), "a piano with touch came")
	require.NoError(t, roster.SetHome(ctx, r.App, r.Who, "", studio.Set(shelf.Home{Keys: 88, NoTouch: true})))
	assert.False(t, offered(), "but the studio's cannot do it either")
	assert.ErrorContains(t, roster.SetHome(ctx, r.App, r.Who, studio.NewID(), studio.Set(shelf.Home{})), "no such student")
	assert.ErrorContains(t, roster.SetHome(ctx, r.App, r.Who, in.ID, studio.Set(shelf.Home{Keys: 7})), "25 to 97")
}
