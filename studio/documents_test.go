package studio_test

import (
	"encoding/json"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/studiotest"
)

// anyTask is a task of a sheet and its day.
func anyTask(t *testing.T, s *week.Sheet) (week.Day, week.Task) {
	for _, d := range s.Days {
		if len(d.Tasks) > 0 && !d.Lesson {
			return d, d.Tasks[0]
		}
	}
	t.Fatal("nothing to do on this sheet")
	return week.Day{}, week.Task{}
}

// What was given reads the same ever after, whatever is set, renamed or learnt later;
// a pain and other days at home make a revision that says so, and every revision can
// be read again.
func TestWhatWasGivenStaysAsItWas(t *testing.T) {
	r := studiotest.New(t)
	rope := r.InHand()
	first := r.Week()
	require.NotNil(t, first.Sheet)
	require.NotNil(t, first.Document)
	assert.Equal(t, document.Given, first.Document.Reason)
	assert.Equal(t, fact.Teacher, first.Document.By)
	assert.NotEmpty(t, first.Document.Program)

	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	day, task := anyTask(t, first.Sheet)
	home := func(b fact.Body) {
		r.Now = r.Now.Add(time.Minute)
		require.NoError(t, family.Tell(ctx, r.App, token, []fact.Fact{{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: b}}))
	}
	r.Now = day.Date.Time().Add(17 * time.Hour)
	home(fact.Ticked{Day: day.Date, Document: first.Document.ID, Line: task.Key, Rung: task.Rung})

	same := func(name string) {
		t.Helper()
		v := r.Week()
		assert.Equal(t, studiotest.JSON(t, first.Sheet), studiotest.JSON(t, v.Sheet), name)
		assert.Len(t, v.Revisions, 1, name)
		assert.Len(t, v.Ticks, 1, "%s: no tick is orphaned", name)
		family, err := family.Page(ctx, r.App, token)
		require.NoError(t, err)
		assert.Equal(t, studiotest.JSON(t, first.Sheet), studiotest.JSON(t, family.Sheet), "%s: phone and paper are the same", name)
		assert.Equal(t, v.Ticks, family.Ticks, name)
	}
	same("ticked")
	for _, set := range [][2]string{{"upkeep", "third"}, {"hands", "together"}, {"counts", "quality"}, {"reading", "names"}} {
		r.Tell(fact.ApproachSet{Question: set[0], School: set[1]})
		same(set[0])
	}
	item, err := library.Item(ctx, r.App, r.Who, "rope")
	require.NoError(t, err)
	item.Item.Title, item.Item.Points = "Another title", shelf.PointsOf("Colour")
	require.NoError(t, library.SaveItem(ctx, r.App, r.Who, item.Item.ID, studio.Set(item.Item)))
	same("an item edited")
	r.Tell(fact.FootholdTried{Rung: rope, Outcome: "granted"})
	same("a late foothold")

	home(fact.DaysSet{Weekdays: []int{int(day.Date.Weekday())}, Minutes: 9})
	v := r.Week()
	require.Len(t, v.Revisions, 2)
	assert.Equal(t, document.Days, v.Document.Reason)
	assert.Equal(t, fact.Family, v.Document.By)
	assert.Equal(t, 9, v.Sheet.Budget)
	assert.Len(t, v.Ticks, 1, "a tick of the revision before still stands")
	r.Tell(fact.Pained{Side: "left"})
	cleared := r.Tell(fact.PainCleared{})
	v = r.Week()
	require.Len(t, v.Revisions, 4)
	assert.Equal(t, document.PainCleared, v.Document.Reason)
	r.Tell(fact.Retracted{Ref: cleared})
	assert.Equal(t, document.Pain, r.Week().Document.Reason, "the take-back is a revision too")

	again, err := places.Week(ctx, r.App, r.Who, r.Student, "2026-11-18", 1)
	require.NoError(t, err)
	assert.Equal(t, studiotest.JSON(t, first.Sheet), studiotest.JSON(t, again.Sheet), "the first can be read again")
	_, err = places.Week(ctx, r.App, r.Who, r.Student, "2026-11-18", 9)
	assert.ErrorContains(t, err, "no such revision")
	_, err = places.Week(ctx, r.App, r.Who, r.Student, "2026-11-11", 0)
	assert.ErrorContains(t, err, "Nothing was given in a lesson on that day")

	record, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
	require.NoError(t, err)
	require.Len(t, record.Weeks, 1)
	ticked := 0
	for _, l := range record.Weeks[0].Lines {
		ticked += l.Ticked
	}
	assert.Equal(t, 5, record.Weeks[0].Revisions)
	assert.LessOrEqual(t, ticked, 1, "a line that the last revision has no more is not counted")

	// the next lesson's sheet leaves this one alone
	last := r.Week()
	r.Now = time.Date(2026, 11, 25, 16, 0, 0, 0, r.Now.Location())
	r.Tell(fact.LessonOpened{Day: "2026-11-25"})
	r.Tell(fact.LessonClosed{Day: "2026-11-25"})
	home(fact.DaysSet{Weekdays: []int{0, 1}, Minutes: 12})
	before, err := places.Week(ctx, r.App, r.Who, r.Student, "2026-11-18", 0)
	require.NoError(t, err)
	assert.Equal(t, studiotest.JSON(t, last.Sheet), studiotest.JSON(t, before.Sheet), "days set now are for the sheet that holds now")
	assert.Equal(t, 6, r.Week().Sheet.Budget, "half of the twelve: it still hurts")
}

// A studio from before documents were kept, and from before facts were typed: what
// was given is made once, from the facts of then, and kept from then on.
func TestAStudioFromBefore(t *testing.T) {
	r := studiotest.New(t)
	r.InHand()
	_, err := r.Store.DB().Exec("DELETE FROM documents")
	require.NoError(t, err)
	rows, err := r.Store.DB().Query("SELECT id, at, kind, detail FROM facts WHERE student_id = ?", r.Student)
	require.NoError(t, err)
	type row struct{ id, kind, detail string }
	var old []row
	for rows.Next() {
		var one row
		var at time.Time
		require.NoError(t, rows.Scan(&one.id, &at, &one.kind, &one.detail))
		var whole map[string]any
		require.NoError(t, json.Unmarshal([]byte(one.detail), &whole))
		whole["id"], whole["student"], whole["at"] = one.id, r.Student, at // these kinds read the same in both forms
		one.detail = studiotest.JSON(t, whole)
		old = append(old, one)
	}
	require.NoError(t, rows.Err())
	for _, one := range old {
		_, err := r.Store.DB().Exec("UPDATE facts SET form = 1, author = '', detail = ? WHERE id = ?", one.detail, one.id)
		require.NoError(t, err)
	}
	made := r.Week()
	require.NotNil(t, made.Sheet)
	r.Tell(fact.ApproachSet{Question: "upkeep", School: "third"})
	assert.Equal(t, studiotest.JSON(t, made.Sheet), studiotest.JSON(t, r.Week().Sheet))
	assert.Len(t, r.Week().Revisions, 1)
	assert.Equal(t, fact.Teacher, r.Lesson().Noted[0].Fact.By)
}

// Twenty devices that tell the same twenty facts at once keep each once, and close the
// lesson with one sheet.
func TestManyDevicesTellTheSame(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	facts := []fact.Fact{{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: fact.LessonOpened{Day: "2026-11-18"}}}
	for i := range 18 {
		facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.Student, At: r.Now.Add(time.Duration(i) * time.Second), Body: fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met}})
	}
	facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.Student, At: r.Now.Add(time.Minute), Body: fact.LessonClosed{Day: "2026-11-18"}})
	var all sync.WaitGroup
	for n := range 20 {
		all.Go(func() {
			mine := slices.Clone(facts[n%3:])
			if assert.NoError(t, r.App.Tell(ctx, r.Who, mine)) && n%3 > 0 {
				assert.NoError(t, r.App.Tell(ctx, r.Who, slices.Clone(facts)))
			}
		})
	}
	all.Wait()
	var kept, sheets int
	require.NoError(t, r.Store.DB().QueryRow("SELECT COUNT(*) FROM facts WHERE student_id = ?", r.Student).Scan(&kept))
	require.NoError(t, r.Store.DB().QueryRow("SELECT COUNT(*) FROM documents WHERE student_id = ? AND kind = 'sheet'", r.Student).Scan(&sheets))
	assert.Equal(t, 22, kept)
	assert.Equal(t, 1, sheets)
}
