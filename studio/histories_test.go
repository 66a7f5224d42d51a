package studio_test

import (
	"encoding/json"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// shown is all that a copy of the program shows of a student and the day, as text.
func shown(r *studiotest.Room, app *studio.App) string {
	r.T.Helper()
	ladder, err1 := places.Ladder(ctx, app, r.Who, r.Student)
	week, err2 := places.Week(ctx, app, r.Who, r.Student, "", 0)
	day, err3 := diary.Day(ctx, app, r.Who, "")
	record, err4 := places.Record(ctx, app, r.Who, r.Student, 0)
	cal, err5 := diary.Calendar(ctx, app, r.Who)
	require.NoError(r.T, err1)
	require.NoError(r.T, err2)
	require.NoError(r.T, err3)
	require.NoError(r.T, err4)
	require.NoError(r.T, err5)
	text, err := json.Marshal([]any{ladder, week, day, record, cal})
	require.NoError(r.T, err)
	return string(text)
}

func anew(r *studiotest.Room) *studio.App {
	return studio.New(r.Store, func() time.Time { return r.Now })
}

// What is kept in memory is what a copy that has just started would show: after each of many tellings by one or the
// other of two copies, in any order of time, with some taken back.
func TestWhatIsKeptInMemoryIsWhatIsThere(t *testing.T) {
	r := studiotest.New(t)
	apps := []*studio.App{r.App, anew(r)}
	rng := rand.New(rand.NewPCG(4, 4))
	rung := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: rung})
	var ids []string
	first := calendar.On(r.Now)
	for n := range 60 {
		r.Now = r.Now.Add(time.Duration(rng.IntN(30)) * time.Hour)
		at := r.Now.Add(-time.Duration(rng.IntN(72)) * time.Hour) // a device that was without a connection
		var body fact.Body
		switch day := first.Add(n / 3); rng.IntN(7) {
		case 0:
			body = fact.LessonOpened{Day: day}
		case 1:
			body = fact.LessonClosed{Day: day}
		case 2:
			body = fact.PointMarked{Rung: rung, Point: "tone", State: fact.Met}
		case 3:
			body = fact.Practised{Day: calendar.On(at), Minutes: 10}
		case 4:
			body = fact.LessonMissed{Day: day.Add(7)}
		case 5:
			body = fact.Noted{Text: "sings"}
		default:
			if len(ids) == 0 {
				continue
			}
			body = fact.Retracted{Ref: ids[rng.IntN(len(ids))]}
			at = r.Now
		}
		f := fact.Fact{ID: studio.NewID(), Student: r.Student, At: at, Body: body}
		require.NoError(t, apps[n%2].Tell(ctx, r.Who, []fact.Fact{f}))
		ids = append(ids, f.ID)
		want := shown(r, anew(r))
		require.Equal(t, want, shown(r, apps[0]), "after %T, %d", body, n)
		require.Equal(t, want, shown(r, apps[1]), "after %T, %d", body, n)
	}
}

// What facts are read by changes too: the zone, the shelf, titles of books.
func TestWhatIsKeptInMemoryFollowsTheStudio(t *testing.T) {
	r := studiotest.New(t)
	rung := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: rung})
	r.Now = time.Date(2026, 11, 18, 23, 30, 0, 0, time.UTC)
	r.Tell(fact.Noted{Text: "late"})
	before := shown(r, r.App)
	require.NoError(t, account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: "T", Studio: "S", Zone: "Asia/Tokyo"}))) // where it is tomorrow already
	assert.NotEqual(t, before, shown(r, r.App))
	assert.Equal(t, shown(r, anew(r)), shown(r, r.App), "another zone")

	_, err := r.Store.DB().Exec(`UPDATE items SET detail = JSON_SET(detail, '$.title', 'Lamp Loft') WHERE id = 'lamp'`)
	require.NoError(t, err)
	_, err = r.Store.DB().Exec(`UPDATE studios SET shelf_version = shelf_version + 1`)
	require.NoError(t, err)
	assert.Contains(t, shown(r, r.App), "Lamp Loft")
	assert.Equal(t, shown(r, anew(r)), shown(r, r.App), "another title")
}

// One who is deleted and comes back by an archive, told otherwise than before, is shown as the tables have it.
func TestWhatIsKeptInMemoryEndsWithTheStudent(t *testing.T) {
	r := studiotest.New(t)
	other := anew(r) // a copy that nobody tells of the deletion
	r.Tell(fact.Noted{Text: "with the old bow"})
	archive, err := roster.ExportStudio(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Contains(t, shown(r, other), "with the old bow")
	require.NoError(t, roster.EmptyStudio(ctx, r.App, r.Who, "S", "a long password"))
	for i, f := range archive.Students[0].Facts {
		if _, noted := f.Body.(fact.Noted); noted {
			archive.Students[0].Facts[i].Body = fact.Noted{Text: "with the new bow"}
		}
	}
	require.NoError(t, roster.ImportStudio(ctx, r.App, r.Who, archive))
	assert.NotContains(t, shown(r, other), "with the old bow")
	assert.Contains(t, shown(r, other), "with the new bow")
}
