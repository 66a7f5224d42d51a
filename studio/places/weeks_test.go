package places_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/studiotest"
)

// covered are the days from one to another, both among them, on which the family has a sheet.
func covered(r *studiotest.Room, from, to calendar.Date) (out []calendar.Date) {
	r.T.Helper()
	w := r.Week()
	require.NotNil(r.T, w.Sheet)
	for d := from; d <= to; d = d.Add(1) {
		for _, day := range w.Sheet.Days {
			if day.Date == d {
				out = append(out, d)
			}
		}
	}
	return out
}

// on sets the clock to noon of a day.
func on(r *studiotest.Room, day calendar.Date) { r.Now = day.Time().Add(12 * time.Hour) }

// The lesson of 18 November gave a sheet; from then on the family has one on every day of the term, whatever
// becomes of the next lessons. The next would be on Wednesday 25.
func TestAFamilyIsNeverWithoutASheet(t *testing.T) {
	for _, c := range []struct {
		says   string
		happen func(r *studiotest.Room)
		until  calendar.Date // the last day that is looked at
	}{
		{"the lesson is told missed on its day", func(r *studiotest.Room) {
			on(r, "2026-11-25")
			r.Tell(fact.LessonMissed{Day: "2026-11-25", Why: "ill"})
		}, "2026-12-01"},
		{"and before it", func(r *studiotest.Room) {
			on(r, "2026-11-20")
			r.Tell(fact.LessonMissed{Day: "2026-11-25", Why: "ill"})
		}, "2026-12-01"},
		{"nothing is told of it", func(r *studiotest.Room) { on(r, "2026-11-27") }, "2026-12-01"},
		{"it is moved to Friday", func(r *studiotest.Room) {
			on(r, "2026-11-24")
			r.Tell(fact.LessonMoved{Day: "2026-11-25", To: "2026-11-27", Start: "15:00"})
		}, "2026-11-26"},
		{"three weeks of illness", func(r *studiotest.Room) {
			for _, day := range []calendar.Date{"2026-11-25", "2026-12-02", "2026-12-09"} {
				on(r, day)
				r.Tell(fact.LessonMissed{Day: day, Why: "ill"})
				r.Week()
			}
		}, "2026-12-11"},
		{"nobody tells anything for three weeks", func(r *studiotest.Room) { on(r, "2026-12-10") }, "2026-12-11"},
		{"lessons come by agreement, and none is agreed", func(r *studiotest.Room) {
			require.NoError(r.T, diary.SetSlot(ctx, r.App, r.Who, r.Student, studio.Set(calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: calendar.Irregular})))
			on(r, "2026-12-05")
		}, "2026-12-11"},
		{"every second week", func(r *studiotest.Room) {
			require.NoError(r.T, diary.SetSlot(ctx, r.App, r.Who, r.Student, studio.Set(calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 30, Rhythm: calendar.Fortnightly, Since: "2026-11-18"})))
		}, "2026-12-01"},
	} {
		t.Run(c.says, func(t *testing.T) {
			r := studiotest.New(t)
			r.InHand()
			before := r.Week().Sheet
			c.happen(r)
			first := calendar.Date("2026-11-18")
			assert.Len(t, covered(r, first, c.until), c.until.Sub(first)+1, "each day")
			after := r.Week().Sheet
			for i, d := range before.Days {
				if d.Date > after.Ends() {
					break
				}
				assert.Equal(t, d.Tasks, after.Days[i].Tasks, "%s reads as it was given", d.Date)
			}
			revisions := r.Week().Revisions
			assert.Equal(t, document.NextLesson, revisions[len(revisions)-1].Reason)
			r.Week()
			assert.Len(t, r.Week().Revisions, len(revisions), "looking gives no other")
		})
	}
}

// An extra lesson comes sooner than the next: the sheet is cut, and the one that follows goes on where the first
// stood, since most of its days never came.
func TestAnExtraLessonDoesNotSkipTheLearning(t *testing.T) {
	r := studiotest.New(t)
	rope := r.InHand()
	first := r.Week().Sheet
	asked := func(day int) (bars [][2]int) {
		for _, task := range r.Week().Sheet.Days[day].Tasks {
			if task.Rung == rope {
				bars = append(bars, [2]int{task.From, task.To})
			}
		}
		return bars
	}
	begins := asked(1)
	require.NotEqual(t, [2]int{}, begins[0], "small chunks first")
	r.Tell(fact.LessonExtra{Day: "2026-11-19", Start: "16:00"})
	assert.Equal(t, calendar.Date("2026-11-18"), r.Week().Sheet.Ends(), "it runs to the extra lesson")
	on(r, "2026-11-19")
	r.Tell(fact.LessonOpened{Day: "2026-11-19"})
	r.Tell(fact.LessonClosed{Day: "2026-11-19"})
	assert.Equal(t, begins, asked(1), "nothing was taught, and no day went by: the same again")
	assert.NotEqual(t, first.From, r.Week().Sheet.From)
}
