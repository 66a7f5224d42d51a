package roster_test

import (
	"bytes"
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
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

// lived is a room in which something of each kind has happened.
func lived(t *testing.T) *studiotest.Room {
	r := studiotest.Furnished(t)
	require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{Item: shelf.Item{ID: "mine", Title: "Mine", Instrument: "cello", Strand: shelf.Book, Points: shelf.PointsOf("Tone")}, File: &store.ScoreFile{Name: "mine.abc", Data: []byte("X:1\nT:Mine\nM:4/4\nL:1/4\nK:C clef=bass\nC, D, E, F,|\n")}}}))
	require.NoError(t, library.SaveActivity(ctx, r.App, r.Who, "own-game", studio.Set(activity.Activity{ID: "own-game", Title: "Own game", Aim: "left-right", Family: "shared", From: 4, Least: 2, Most: 4, Levels: []string{"Do it."}})))
	rung := r.Tell(fact.RungAdded{Item: "mine", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: rung})
	slip := r.Tell(fact.Noted{Text: "of somebody else"})
	r.Tell(fact.Retracted{Ref: slip})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	return r
}

func archive(r *studiotest.Room) roster.StudioArchive {
	v, err := roster.ExportStudio(ctx, r.App, r.Who)
	require.NoError(r.T, err)
	return v
}

// What leaves one studio and comes into another leaves it again the same, and what was
// brought in is taken out as a whole.
func TestAStudioMovesHouse(t *testing.T) {
	r := lived(t)
	out := archive(r)
	raw, err := json.Marshal(out)
	require.NoError(t, err)

	other, err := account.Make(ctx, r.App, account.SignUp{Name: "N", Studio: "New", Email: "new@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(t, err)
	var in roster.StudioArchive
	require.NoError(t, json.NewDecoder(bytes.NewReader(raw)).Decode(&in))
	require.NoError(t, roster.ImportStudio(ctx, r.App, other, in))
	again, err := roster.ExportStudio(ctx, r.App, other)
	require.NoError(t, err)
	second, err := json.Marshal(again)
	require.NoError(t, err)
	assert.JSONEq(t, string(raw), string(second))
	week, err := places.Week(ctx, r.App, other, r.Student, "", 0)
	require.NoError(t, err)
	require.NotNil(t, week.Sheet, "the sheet came along")
	search, err := diary.Search(ctx, r.App, other, "mine")
	require.NoError(t, err)
	assert.NotEmpty(t, search.Hits)

	assert.ErrorContains(t, roster.ImportStudio(ctx, r.App, other, in), "holds students or items already")
	assert.ErrorContains(t, roster.EmptyStudio(ctx, r.App, other, "Old", "a long password"), "Nothing was deleted")
	assert.ErrorContains(t, roster.EmptyStudio(ctx, r.App, other, "S", "wrong password"), "not your password")
	require.NoError(t, roster.EmptyStudio(ctx, r.App, other, "S", "a long password"))
	empty, err := roster.ExportStudio(ctx, r.App, other)
	require.NoError(t, err)
	assert.Empty(t, empty.Students)
	assert.Empty(t, empty.Items)
	require.NoError(t, roster.ImportStudio(ctx, r.App, other, in), "and it may be brought in again")
	assert.JSONEq(t, string(raw), func() string { b, _ := json.Marshal(archive(r)); return string(b) }(), "the first studio is as it was")
}

func TestArchivesThatAreNotTaken(t *testing.T) {
	r := lived(t)
	good := archive(r)
	other, err := account.Make(ctx, r.App, account.SignUp{Name: "N", Studio: "New", Email: "new@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(t, err)
	for says, change := range map[string]func(*roster.StudioArchive){
		"no archive of a studio": func(a *roster.StudioArchive) { a.Format = "something else" },
		"not a time zone":        func(a *roster.StudioArchive) { a.Zone = "Mars" },
		"stands twice":           func(a *roster.StudioArchive) { a.Students = append(a.Students, a.Students[0]) },
		"Mark 1 of Emil": func(a *roster.StudioArchive) {
			a.Students[0].Facts = append([]fact.Fact{{ID: "short"}}, a.Students[0].Facts...)
		},
		"cannot be brought in": func(a *roster.StudioArchive) {
			a.Items = append([]roster.ArchivedItem{{Item: shelf.Item{ID: "x"}}}, a.Items...)
		},
	} {
		raw, err := json.Marshal(good)
		require.NoError(t, err)
		var bad roster.StudioArchive
		require.NoError(t, json.Unmarshal(raw, &bad))
		change(&bad)
		assert.ErrorContains(t, roster.ImportStudio(ctx, r.App, other, bad), says)
		after, err := roster.ExportStudio(ctx, r.App, other)
		require.NoError(t, err)
		assert.Empty(t, after.Items, "nothing of it stays")
	}
}

func TestAStudioIsDeleted(t *testing.T) {
	r := lived(t)
	other, err := account.Make(ctx, r.App, account.SignUp{Name: "N", Studio: "New", Email: "new@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(t, err)
	_, err = account.OpenDevice(ctx, r.App, r.Who, "a browser")
	require.NoError(t, err)
	_, err = diary.MakeFeed(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.ErrorContains(t, roster.DeleteStudio(ctx, r.App, r.Who, "T", "a long password"), "Nothing was deleted")
	require.NoError(t, roster.DeleteStudio(ctx, r.App, r.Who, "S", "a long password"))
	assert.Error(t, r.SignIn("a long password", ""), "the account is gone")
	_, err = diary.Day(ctx, r.App, other, "")
	assert.NoError(t, err, "the other studio is not")
	rows, err := r.Store.DB().Query("SELECT table_name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'studio_id'")
	require.NoError(t, err)
	defer rows.Close()
	for rows.Next() {
		var table string
		require.NoError(t, rows.Scan(&table))
		var n int
		require.NoError(t, r.Store.DB().QueryRow("SELECT COUNT(*) FROM "+table+" WHERE studio_id = ?", r.Who.Studio).Scan(&n))
		assert.Zero(t, n, table)
	}
}

// A backup restores into an empty database as it was, and nowhere else.
func TestABackupRestores(t *testing.T) {
	r := lived(t)
	require.NoError(t, demo.OwnBooks(ctx, r.App, r.Who))
	before := archive(r)
	var file bytes.Buffer
	n, err := r.Store.Backup(ctx, &file)
	require.NoError(t, err)
	assert.Greater(t, n, int64(100))

	_, err = r.Store.Restore(ctx, bytes.NewReader(file.Bytes()))
	assert.ErrorIs(t, err, store.ErrNotEmpty)
	fresh := storetest.New(t)
	_, err = fresh.Restore(ctx, bytes.NewReader(file.Bytes()[:file.Len()/2]))
	assert.ErrorContains(t, err, "damaged")
	_, err = fresh.Restore(ctx, bytes.NewReader([]byte("no backup")))
	assert.ErrorContains(t, err, "no backup")
	back, err := fresh.Restore(ctx, bytes.NewReader(file.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, n, back)

	r.Store, r.App = fresh, studio.New(fresh, func() time.Time { return r.Now })
	assert.NoError(t, r.SignIn("a long password", ""))
	assert.Equal(t, before, archive(r))
}
