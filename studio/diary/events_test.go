package diary_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/programme"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// A concert with its pieces: they have its day as their date, one that is withdrawn has none, and an
// earlier day says what that would put at risk.
func TestAConcertAndItsDates(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	slip := r.Tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	for _, rung := range []string{lamp, slip} {
		r.Tell(fact.Taught{Rung: rung})
	}
	r.Tell(fact.FootholdTried{Rung: slip, Outcome: "granted"})
	for range 3 { // points
		r.Tell(fact.PointMarked{Rung: slip, Point: "tone", State: fact.Met})
	}
	e := programme.Event{ID: studio.NewID(), Name: "Winter concert", Kind: "concert", Day: "2026-12-05", Entries: []programme.Listing{{Student: r.Student, Rung: lamp}, {Student: r.Student, Rung: slip, Seconds: 100}}}
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)))
	target := func(rung string) string {
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		require.NoError(t, err)
		i := slices.IndexFunc(v.Rungs, func(x places.RungView) bool { return x.ID == rung })
		return string(v.Rungs[i].Target)
	}
	assert.Equal(t, []string{"2026-12-05", "2026-12-05"}, []string{target(lamp), target(slip)})
	v, err := diary.Event(ctx, r.App, r.Who, e.ID, 0)
	require.NoError(t, err)
	require.Len(t, v.Entries, 2)
	assert.Equal(t, "at-risk", v.Entries[0].Ready.State, "begun today, and the concert is in seventeen days")
	assert.Equal(t, 100, v.Entries[1].Lasts)
	assert.Equal(t, v.Entries[0].Lasts+100, v.Seconds)
	assert.Equal(t, 3, v.Entries[0].Lessons, "today's, and two more")
	earlier, err := diary.Event(ctx, r.App, r.Who, e.ID, 2)
	require.NoError(t, err)
	assert.EqualValues(t, "2026-11-21", earlier.Day)
	assert.Equal(t, 1, earlier.Entries[0].Lessons)
	e.Entries = e.Entries[1:]
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)))
	assert.Equal(t, []string{"", "2026-12-05"}, []string{target(lamp), target(slip)}, "what is withdrawn has no date any more")
	e.Day = "2026-12-12"
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)))
	assert.Equal(t, "2026-12-12", target(slip), "moved with the day")
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)))
	e.Entries = append(e.Entries, programme.Listing{Student: r.Student, Rung: studio.NewID()})
	assert.ErrorContains(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)), "not on the ladder of Emil")
	e.Name = ""
	assert.ErrorContains(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)), "needs a name")
	e.Name, e.Entries = "Winter concert", e.Entries[:1]
	guest := studio.NewID()
	_, err = roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: guest, FirstName: "Ada", BirthYear: 2015, BirthMonth: 1, Instrument: "cello", Slot: calendar.Slot{Weekday: 2, Start: "15:00", Minutes: 30}})
	require.NoError(t, err)
	emil := r.Student
	r.Student = guest
	hers := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Student = emil
	e.Entries = append(e.Entries, programme.Listing{Student: guest, Rung: hers})
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, e.ID, studio.Set(e)))
	_, err = roster.EraseStudent(ctx, r.App, r.Who, guest, "Ada")
	require.NoError(t, err)
	v, err = diary.Event(ctx, r.App, r.Who, e.ID, 0)
	require.NoError(t, err)
	assert.Len(t, v.Event.Entries, 1, "of a student who was deleted nothing is told")
	require.NoError(t, diary.KeepEvent(ctx, r.App, r.Who, v.Event.ID, studio.Set(v.Event)), "and the day is kept as before")
	require.NoError(t, diary.DropEvent(ctx, r.App, r.Who, e.ID, nil))
	assert.Empty(t, target(slip))
	_, err = diary.Event(ctx, r.App, r.Who, e.ID, 0)
	assert.ErrorContains(t, err, "no such day")
}
