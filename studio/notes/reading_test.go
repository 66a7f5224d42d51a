package notes_test

import (
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/library"
	"patientladder/studio/notes"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// New in a piece are the notes that the pieces already taught have not brought.
func TestWhatIsNewInAPieceForAStudent(t *testing.T) {
	r := studiotest.New(t)
	tune := func(id, title, notes string) {
		require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{
			Item: shelf.Item{ID: id, Title: title, Instrument: "cello", Strand: shelf.Book, HasScore: true},
			File: &store.ScoreFile{Name: id + ".abc", Data: []byte("X:1\nT:" + title + "\nM:4/4\nL:1/4\nK:D clef=bass\n" + notes + "\n")},
		}}))
	}
	tune("low", "Low Tide Round", "D, E, F, G,|A,2 D,2|")
	tune("high", "High Tide Round", "D, E, F, G,|A, B, C D|A,2 D,2|")
	read := func(student string) notes.ReadingView {
		v, err := notes.Reading(ctx, r.App, r.Who, "high", student)
		require.NoError(t, err)
		return v
	}

	anybody := read("")
	assert.Empty(t, anybody.New, "nothing is new for nobody")
	assert.Nil(t, anybody.Load)
	before := read(r.Student)
	assert.NotNil(t, before.Weeks)
	assert.NotNil(t, before.Load)
	assert.Empty(t, before.Fresh, "with no piece taught nobody knows which notes were met")

	rung := r.Tell(fact.RungAdded{Item: "low", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: rung})
	after := read(r.Student)
	assert.Len(t, after.Fresh, 3, "B, C sharp and D stand above the piece that was taught")

	_, err := notes.Reading(ctx, r.App, r.Who, "lamp", "")
	assert.ErrorContains(t, err, "no such score")
	piano := studiotest.Newcomer(func(in *roster.NewStudent) { in.Books = nil })
	_, err = roster.AddStudent(ctx, r.App, r.Who, piano)
	require.NoError(t, err)
	_, err = notes.Reading(ctx, r.App, r.Who, "high", piano.ID)
	assert.ErrorContains(t, err, "plays the piano")
}

// A tune that is typed is drawn as it stands, or what is wrong is told with its
// place; nothing is kept either way.
func TestATuneAsItIsTyped(t *testing.T) {
	r := studiotest.New(t)
	draft := func(abc string) notes.DraftView {
		v, err := notes.ReadDraft(ctx, r.App, r.Who, notes.Draft{ABC: abc, Instrument: "piano"})
		require.NoError(t, err)
		return v
	}
	good := draft("X:1\nT:Ebb\nM:3/4\nL:1/4\nK:G\nG A B|d3|\n")
	assert.Nil(t, good.Wrong)
	assert.Equal(t, "Ebb", good.Title)
	assert.Contains(t, good.XML, "<score-partwise")
	assert.Contains(t, studiotest.Codes(good.Minute), "minute-figures")
	var asks []string
	for _, a := range good.Asks {
		asks = append(asks, a.Name)
	}
	assert.Contains(t, asks, "Three-four time")

	more := draft("X:1\nM:3/4\nL:1/4\nK:G\n!wobble!G A B|d3|\nw: one two three four five\n")
	assert.Equal(t, []score.Unread{{What: "decoration wobble", Bar: 1, Count: 1}, {What: "words beyond the notes", Bar: 2, Count: 1}}, more.Unread)

	for _, c := range []struct {
		name, abc string
		wrong     notes.Wrong
	}{
		{"a letter that is no note", "X:1\nK:C\nCD|EH?|\n", notes.Wrong{Line: 3, Column: 6, Bar: 2}},
		{"no key", "X:1\nT:No key\nCDEF|\n", notes.Wrong{Line: 3}},
		{"nothing yet", "X:1\nK:C\n", notes.Wrong{Line: 2, Bar: 1}},
	} {
		v := draft(c.abc)
		require.NotNil(t, v.Wrong, c.name)
		assert.NotEmpty(t, v.Wrong.Says, c.name)
		assert.Equal(t, strings.ToUpper(v.Wrong.Says[:1]), v.Wrong.Says[:1], "a sentence: %s", c.name)
		v.Wrong.Says = ""
		assert.Equal(t, c.wrong, *v.Wrong, c.name)
		assert.Empty(t, v.XML, c.name)
	}
	items, err := library.Shelf(ctx, r.App, r.Who, "", 0)
	require.NoError(t, err)
	assert.Len(t, items.Items, 3, "what stood there before")
}

func TestTheTeachersOwnRhythmWords(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	said := func() string {
		v, err := notes.Reading(ctx, r.App, r.Who, "rope", "")
		require.NoError(t, err)
		return v.Rhythms[0].Rhythm + " " + v.Rhythms[0].Say
	}
	assert.Equal(t, "1 tide", said())
	require.NoError(t, notes.SetWords(ctx, r.App, r.Who, studio.Set(reading.Words{"1": "oar"})))
	assert.Equal(t, "1 oar", said())
	v, err := notes.Words(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Equal(t, notes.WordsView{Words: reading.Words{"1": "oar"}, Own: true}, v)

	for says, words := range map[string]reading.Words{
		"cannot be kept": {"one": "oar"},
		"200 are enough": func() reading.Words {
			many := reading.Words{}
			for i := range 201 {
				many[strings.Repeat("1 ", i)+"1"] = "oar"
			}
			return many
		}(),
	} {
		err := notes.SetWords(ctx, r.App, r.Who, studio.Set(words))
		assert.ErrorContains(t, err, says)
		var told *studio.Error
		assert.True(t, errors.As(err, &told))
	}
	assert.Equal(t, "1 oar", said(), "what was refused changes nothing")

	require.NoError(t, notes.SetWords(ctx, r.App, r.Who, studio.Set(reading.Words(nil))))
	assert.Equal(t, "1 tide", said(), "the program's own are back")
}

// A score goes out in each format, with layers written into it where asked.
func TestCopiesOfAScore(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	for _, f := range []notation.Format{notation.MusicXML, notation.ABC, notation.MIDI} {
		file, err := notes.Convert(ctx, r.App, r.Who, "rope", f, nil, "")
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(file.Name, "rope."), file.Name)
		s, err := notation.Read(file.Name, file.Data)
		require.NoError(t, err)
		assert.Equal(t, 8, s.Bars(), f)
	}
	plain, err := notes.Convert(ctx, r.App, r.Who, "rope", notation.MusicXML, nil, "")
	require.NoError(t, err)
	full, err := notes.Convert(ctx, r.App, r.Who, "rope", notation.MusicXML, []string{"fingers", "chunks"}, r.Student)
	require.NoError(t, err)
	assert.Equal(t, "rope-annotated.musicxml", full.Name)
	assert.NotContains(t, string(plain.Data), "<fingering>")
	assert.Contains(t, string(full.Data), "<fingering>")

	_, err = notes.Engraved(ctx, r.App, r.Who, "rope", "instead", false)
	assert.ErrorContains(t, err, "has no tablature")
	drawn, err := notes.Engraved(ctx, r.App, r.Who, "rope", "", false)
	require.NoError(t, err)
	assert.Contains(t, string(drawn), `id="p1b1n1"`)
}
