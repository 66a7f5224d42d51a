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
)

// shown is all that a copy of the program shows of a student and the day, as text.
func (r *room) shown(app *studio.App) string {
	r.t.Helper()
	ladder, err1 := places.Ladder(ctx, app, r.who, r.student)
	week, err2 := places.Week(ctx, app, r.who, r.student, "", 0)
	day, err3 := diary.Day(ctx, app, r.who, "")
	record, err4 := places.Record(ctx, app, r.who, r.student, 0)
	cal, err5 := diary.Calendar(ctx, app, r.who)
	require.NoError(r.t, err1)
	require.NoError(r.t, err2)
	require.NoError(r.t, err3)
	require.NoError(r.t, err4)
	require.NoError(r.t, err5)
	text, err := json.Marshal([]any{ladder, week, day, record, cal})
	require.NoError(r.t, err)
	return string(text)
}

func (r *room) anew() *studio.App { return studio.New(r.store, func() time.Time { return r.now }) }

// What is kept in memory is what a copy that has just started would show: after each of many tellings by one or the
// other of two copies, in any order of time, with some taken back.
func TestWhatIsKeptInMemoryIsWhatIsThere(t *testing.T) {
	r := newRoom(t)
	apps := []*studio.App{r.app, r.anew()}
	rng := rand.New(rand.NewPCG(4, 4))
	rung := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: rung})
	var ids []string
	first := calendar.On(r.now)
	for n := range 60 {
		r.now = r.now.Add(time.Duration(rng.IntN(30)) * time.Hour)
		at := r.now.Add(-time.Duration(rng.IntN(72)) * time.Hour) // a device that was without a connection
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
			at = r.now
		}
		f := fact.Fact{ID: studio.NewID(), Student: r.student, At: at, Body: body}
		require.NoError(t, apps[n%2].Tell(ctx, r.who, []fact.Fact{f}))
		ids = append(ids, f.ID)
		want := r.shown(r.anew())
		require.Equal(t, want, r.shown(apps[0]), "after %T, %d", body, n)
		require.Equal(t, want, r.shown(apps[1]), "after %T, %d", body, n)
	}
}

// What facts are read by changes too: the zone, the shelf, titles of books.
func TestWhatIsKeptInMemoryFollowsTheStudio(t *testing.T) {
	r := newRoom(t)
	rung := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: rung})
	r.now = time.Date(2026, 11, 18, 23, 30, 0, 0, time.UTC)
	r.tell(fact.Noted{Text: "late"})
	before := r.shown(r.app)
	require.NoError(t, account.SetAccount(ctx, r.app, r.who, "T", "S", "Asia/Tokyo")) // where it is tomorrow already
	assert.NotEqual(t, before, r.shown(r.app))
	assert.Equal(t, r.shown(r.anew()), r.shown(r.app), "another zone")

	_, err := r.store.DB().Exec(`UPDATE items SET detail = JSON_SET(detail, '$.title', 'Lamp Loft') WHERE id = 'lamp'`)
	require.NoError(t, err)
	_, err = r.store.DB().Exec(`UPDATE studios SET shelf_version = shelf_version + 1`)
	require.NoError(t, err)
	assert.Contains(t, r.shown(r.app), "Lamp Loft")
	assert.Equal(t, r.shown(r.anew()), r.shown(r.app), "another title")
}

// One who is deleted and comes back by an archive, told otherwise than before, is shown as the tables have it.
func TestWhatIsKeptInMemoryEndsWithTheStudent(t *testing.T) {
	r := newRoom(t)
	other := r.anew() // a copy that nobody tells of the deletion
	r.tell(fact.Noted{Text: "with the old bow"})
	archive := r.archive()
	assert.Contains(t, r.shown(other), "with the old bow")
	require.NoError(t, roster.EmptyStudio(ctx, r.app, r.who, "S", "a long password"))
	for i, f := range archive.Students[0].Facts {
		if _, noted := f.Body.(fact.Noted); noted {
			archive.Students[0].Facts[i].Body = fact.Noted{Text: "with the new bow"}
		}
	}
	require.NoError(t, roster.ImportStudio(ctx, r.app, r.who, archive))
	assert.NotContains(t, r.shown(other), "with the old bow")
	assert.Contains(t, r.shown(other), "with the new bow")
}
