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
)

func (r *room) week() places.WeekView {
	v, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
	require.NoError(r.t, err)
	return v
}

func asJSON(t *testing.T, v any) string {
	out, err := json.Marshal(v)
	require.NoError(t, err)
	return string(out)
}

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
	r := newRoom(t)
	rope := r.inHand()
	first := r.week()
	require.NotNil(t, first.Sheet)
	require.NotNil(t, first.Document)
	assert.Equal(t, document.Given, first.Document.Reason)
	assert.Equal(t, fact.Teacher, first.Document.By)
	assert.NotEmpty(t, first.Document.Program)

	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	day, task := anyTask(t, first.Sheet)
	home := func(b fact.Body) {
		r.now = r.now.Add(time.Minute)
		require.NoError(t, family.Tell(ctx, r.app, token, []fact.Fact{{ID: studio.NewID(), Student: r.student, At: r.now, Body: b}}))
	}
	r.now = day.Date.Time().Add(17 * time.Hour)
	home(fact.Ticked{Day: day.Date, Document: first.Document.ID, Line: task.Key, Rung: task.Rung})

	same := func(name string) {
		t.Helper()
		v := r.week()
		assert.Equal(t, asJSON(t, first.Sheet), asJSON(t, v.Sheet), name)
		assert.Len(t, v.Revisions, 1, name)
		assert.Len(t, v.Ticks, 1, "%s: no tick is orphaned", name)
		family, err := family.Page(ctx, r.app, token)
		require.NoError(t, err)
		assert.Equal(t, asJSON(t, first.Sheet), asJSON(t, family.Sheet), "%s: phone and paper are the same", name)
		assert.Equal(t, v.Ticks, family.Ticks, name)
	}
	same("ticked")
	for _, set := range [][2]string{{"upkeep", "third"}, {"hands", "together"}, {"counts", "quality"}, {"reading", "names"}} {
		r.tell(fact.ApproachSet{Question: set[0], School: set[1]})
		same(set[0])
	}
	item, err := library.Item(ctx, r.app, r.who, "rope")
	require.NoError(t, err)
	item.Item.Title, item.Item.Points = "Another title", shelf.PointsOf("Colour")
	require.NoError(t, library.SaveItem(ctx, r.app, r.who, item.Item))
	same("an item edited")
	r.tell(fact.FootholdTried{Rung: rope, Outcome: "granted"})
	same("a late foothold")

	home(fact.DaysSet{Weekdays: []int{int(day.Date.Weekday())}, Minutes: 9})
	v := r.week()
	require.Len(t, v.Revisions, 2)
	assert.Equal(t, document.Days, v.Document.Reason)
	assert.Equal(t, fact.Family, v.Document.By)
	assert.Equal(t, 9, v.Sheet.Budget)
	assert.Len(t, v.Ticks, 1, "a tick of the revision before still stands")
	r.tell(fact.Pained{Side: "left"})
	cleared := r.tell(fact.PainCleared{})
	v = r.week()
	require.Len(t, v.Revisions, 4)
	assert.Equal(t, document.PainCleared, v.Document.Reason)
	r.tell(fact.Retracted{Ref: cleared})
	assert.Equal(t, document.Pain, r.week().Document.Reason, "the take-back is a revision too")

	again, err := places.Week(ctx, r.app, r.who, r.student, "2026-11-18", 1)
	require.NoError(t, err)
	assert.Equal(t, asJSON(t, first.Sheet), asJSON(t, again.Sheet), "the first can be read again")
	_, err = places.Week(ctx, r.app, r.who, r.student, "2026-11-18", 9)
	assert.ErrorContains(t, err, "no such revision")
	_, err = places.Week(ctx, r.app, r.who, r.student, "2026-11-11", 0)
	assert.ErrorContains(t, err, "Nothing was given in a lesson on that day")

	record, err := places.Record(ctx, r.app, r.who, r.student, 0)
	require.NoError(t, err)
	require.Len(t, record.Weeks, 1)
	ticked := 0
	for _, l := range record.Weeks[0].Lines {
		ticked += l.Ticked
	}
	assert.Equal(t, 5, record.Weeks[0].Revisions)
	assert.LessOrEqual(t, ticked, 1, "a line that the last revision has no more is not counted")

	// the next lesson's sheet leaves this one alone
	last := r.week()
	r.now = time.Date(2026, 11, 25, 16, 0, 0, 0, r.now.Location())
	r.tell(fact.LessonOpened{Day: "2026-11-25"})
	r.tell(fact.LessonClosed{Day: "2026-11-25"})
	home(fact.DaysSet{Weekdays: []int{0, 1}, Minutes: 12})
	before, err := places.Week(ctx, r.app, r.who, r.student, "2026-11-18", 0)
	require.NoError(t, err)
	assert.Equal(t, asJSON(t, last.Sheet), asJSON(t, before.Sheet), "days set now are for the sheet that holds now")
	assert.Equal(t, 12, r.week().Sheet.Budget)
}

// The plan that was agreed when a lesson was opened is what the lesson shows, also
// after a setting was changed in the middle of it; what the teacher changes in it is a
// revision.
func TestThePlanThatWasAgreed(t *testing.T) {
	r := newRoom(t)
	r.inHand()
	r.now = time.Date(2026, 11, 25, 16, 0, 0, 0, r.now.Location())
	r.tell(fact.LessonOpened{Day: "2026-11-25"})
	agreed := r.lesson()
	require.NotNil(t, agreed.Document)
	r.tell(fact.ApproachSet{Question: "upkeep", School: "three-quarters"})
	r.tell(fact.ApproachSet{Question: "hand-image", School: "round"})
	assert.Equal(t, asJSON(t, agreed.Plan), asJSON(t, r.lesson().Plan))
	block := agreed.Plan.Blocks[1]
	r.tell(fact.BlockTimed{Day: "2026-11-25", Block: block.Key, Minutes: block.Minutes + 3})
	v := r.lesson()
	assert.Equal(t, document.PlanChanged, v.Document.Reason)
	assert.Equal(t, block.Minutes+3, v.Plan.Blocks[1].Minutes)
	pace, err := places.Pace(ctx, r.app, r.who, r.student, v.Plan.Blocks[1].Key, 29)
	require.NoError(t, err)
	assert.Positive(t, pace.Over)
	r.tell(fact.LessonClosed{Day: "2026-11-25"})

	past, err := places.Lesson(ctx, r.app, r.who, r.student, "2026-11-18")
	require.NoError(t, err)
	assert.Equal(t, "closed", past.State)
	assert.Equal(t, []string{"2026-11-25", "2026-11-18"}, []string{string(past.Given[0]), string(past.Given[1])})
	require.NotNil(t, past.After)
	assert.Contains(t, asJSON(t, past.After.Changed), "taught", "what that lesson changed, not what came later")
	assert.Empty(t, past.After.Sketch)
}

// A studio from before documents were kept, and from before facts were typed: what
// was given is made once, from the facts of then, and kept from then on.
func TestAStudioFromBefore(t *testing.T) {
	r := newRoom(t)
	r.inHand()
	_, err := r.store.DB().Exec("DELETE FROM documents")
	require.NoError(t, err)
	rows, err := r.store.DB().Query("SELECT id, at, kind, detail FROM facts WHERE student_id = ?", r.student)
	require.NoError(t, err)
	type row struct{ id, kind, detail string }
	var old []row
	for rows.Next() {
		var one row
		var at time.Time
		require.NoError(t, rows.Scan(&one.id, &at, &one.kind, &one.detail))
		var whole map[string]any
		require.NoError(t, json.Unmarshal([]byte(one.detail), &whole))
		whole["id"], whole["student"], whole["at"] = one.id, r.student, at // these kinds read the same in both forms
		one.detail = asJSON(t, whole)
		old = append(old, one)
	}
	require.NoError(t, rows.Err())
	for _, one := range old {
		_, err := r.store.DB().Exec("UPDATE facts SET form = 1, author = '', detail = ? WHERE id = ?", one.detail, one.id)
		require.NoError(t, err)
	}
	made := r.week()
	require.NotNil(t, made.Sheet)
	r.tell(fact.ApproachSet{Question: "upkeep", School: "third"})
	assert.Equal(t, asJSON(t, made.Sheet), asJSON(t, r.week().Sheet))
	assert.Len(t, r.week().Revisions, 1)
	assert.Equal(t, fact.Teacher, r.lesson().Noted[0].Fact.By)
}

// Twenty devices that tell the same twenty facts at once keep each once, and close the
// lesson with one sheet.
func TestManyDevicesTellTheSame(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	facts := []fact.Fact{{ID: studio.NewID(), Student: r.student, At: r.now, Body: fact.LessonOpened{Day: "2026-11-18"}}}
	for i := range 18 {
		facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.student, At: r.now.Add(time.Duration(i) * time.Second), Body: fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met}})
	}
	facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.student, At: r.now.Add(time.Minute), Body: fact.LessonClosed{Day: "2026-11-18"}})
	var all sync.WaitGroup
	for n := range 20 {
		all.Go(func() {
			mine := slices.Clone(facts[n%3:])
			if assert.NoError(t, r.app.Tell(ctx, r.who, mine)) && n%3 > 0 {
				assert.NoError(t, r.app.Tell(ctx, r.who, slices.Clone(facts)))
			}
		})
	}
	all.Wait()
	var kept, sheets int
	require.NoError(t, r.store.DB().QueryRow("SELECT COUNT(*) FROM facts WHERE student_id = ?", r.student).Scan(&kept))
	require.NoError(t, r.store.DB().QueryRow("SELECT COUNT(*) FROM documents WHERE student_id = ? AND kind = 'sheet'", r.student).Scan(&sheets))
	assert.Equal(t, 22, kept)
	assert.Equal(t, 1, sheets)
}
