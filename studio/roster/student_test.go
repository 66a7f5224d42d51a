package roster_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
	"patientladder/studio/studiotest"
)

func kept(r *studiotest.Room) roster.StudentView {
	v, err := roster.Student(ctx, r.App, r.Who, r.Student)
	require.NoError(r.T, err)
	return v
}

func TestAStudentIsCorrected(t *testing.T) {
	r := studiotest.New(t)
	right := roster.Person{FirstName: " Emilia ", FamilyName: "Vane", BirthYear: 2019, BirthMonth: 12, Instrument: "violin"}
	require.NoError(t, roster.CorrectStudent(ctx, r.App, r.Who, r.Student, studio.Set(right)))
	v := kept(r)
	assert.Equal(t, roster.Person{FirstName: "Emilia", FamilyName: "Vane", BirthYear: 2019, BirthMonth: 12, Instrument: "violin"}, v.Person)
	assert.Equal(t, 6, v.Student.Age, "seven in December")
	assert.Equal(t, "violin", v.Student.Plays)
	for says, change := range map[string]func(*roster.Person){
		"needs a first name":     func(p *roster.Person) { p.FirstName = "  " },
		"not an instrument":      func(p *roster.Person) { p.Instrument = "kazoo" },
		"would make the student": func(p *roster.Person) { p.BirthYear = 2026 },
	} {
		wrong := right
		change(&wrong)
		assert.ErrorContains(t, roster.CorrectStudent(ctx, r.App, r.Who, r.Student, studio.Set(wrong)), says)
	}
	assert.Equal(t, "Emilia", kept(r).Person.FirstName, "nothing was kept of those")
	assert.Error(t, roster.CorrectStudent(ctx, r.App, r.Who, studio.NewID(), studio.Set(right)), "nobody")
}

// Who pauses or has left stands in no day, no calendar and no feed of that time.
func TestAStudentPausesLeavesAndComesBack(t *testing.T) {
	r := studiotest.New(t)
	lessons := func(day calendar.Date) int {
		d, err := diary.Day(ctx, r.App, r.Who, day)
		require.NoError(t, err)
		s, err := sending.Sheets(ctx, r.App, r.Who, day)
		require.NoError(t, err)
		assert.Len(t, s.Sheets, len(d.Segments))
		return len(d.Segments)
	}
	feed := func() int {
		data, err := diary.Lessons(ctx, r.App, r.Who)
		require.NoError(t, err)
		return strings.Count(string(data), "BEGIN:VEVENT")
	}
	all := feed()
	assert.Equal(t, 1, lessons("2026-11-18"))
	r.Tell(fact.Paused{From: "2026-11-25", Until: "2026-12-02"})
	assert.Equal(t, []int{1, 0, 0, 1}, []int{lessons("2026-11-18"), lessons("2026-11-25"), lessons("2026-12-02"), lessons("2026-12-09")})
	assert.Equal(t, all-2, feed())
	assert.Equal(t, "here", kept(r).Student.State, "today")

	left := r.Tell(fact.Left{Day: "2026-11-18"})
	v := kept(r)
	assert.Equal(t, "left", v.Student.State)
	assert.Empty(t, v.Student.Next)
	assert.Equal(t, []roster.AwayView{{From: "2026-11-18", Left: true, Now: true}}, v.Away)
	assert.Equal(t, 0, lessons("2026-11-18"))
	cal, err := diary.Calendar(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Empty(t, cal.Slots, "the time is free for another")
	plan := r.Lesson()
	assert.Empty(t, plan.Day)

	r.Tell(fact.Returned{Day: "2026-12-09"})
	assert.Equal(t, []int{0, 0, 1}, []int{lessons("2026-11-18"), lessons("2026-12-02"), lessons("2026-12-09")})
	assert.Equal(t, calendar.Date("2026-12-09"), kept(r).Student.Next)
	r.Tell(fact.Retracted{Ref: left})
	assert.Equal(t, 1, lessons("2026-11-18"), "it was a slip")
}

func TestAStudentIsTakenAlongAndErased(t *testing.T) {
	r := studiotest.New(t)
	rung := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: rung})
	r.Tell(fact.Noted{Text: "liked the storm"})
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	_, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)

	out, err := roster.ExportStudent(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	assert.Equal(t, "Emil-2026-11-18.zip", out.Name)
	pack, err := zip.NewReader(bytes.NewReader(out.Data), int64(len(out.Data)))
	require.NoError(t, err)
	read := func(name string) string {
		f, err := pack.Open(name)
		require.NoError(t, err)
		data, err := io.ReadAll(f)
		require.NoError(t, err)
		return string(data)
	}
	var all roster.StudentArchive
	require.NoError(t, json.Unmarshal([]byte(read("student.json")), &all))
	assert.Equal(t, "Emil", all.FirstName)
	assert.Len(t, all.Facts, 5)
	assert.Len(t, all.Documents, 2, "the plan and the sheet")
	assert.Contains(t, read("pages/record.html"), "liked the storm")
	assert.Contains(t, read("pages/record.html"), `href="sheet-2026-11-18.html"`)
	assert.Contains(t, read("pages/sheet-2026-11-18.html"), "Lamp Room")
	assert.NotContains(t, read("pages/sheet-2026-11-18.html"), "on your phone", "a copy holds no link")

	kept := kept(r).Kept
	assert.Equal(t, 5, kept.Facts)
	_, err = roster.EraseStudent(ctx, r.App, r.Who, r.Student, "Emily")
	assert.ErrorContains(t, err, "Nothing was deleted")
	receipt, err := roster.EraseStudent(ctx, r.App, r.Who, r.Student, "emil")
	require.NoError(t, err)
	assert.Equal(t, kept, receipt.Deleted, "as it was said before")
	_, err = roster.Student(ctx, r.App, r.Who, r.Student)
	assert.ErrorContains(t, err, "There is no such student")
	for _, table := range []string{"students", "facts", "documents", "family_links", "sendings"} {
		var n int
		require.NoError(t, r.Store.DB().QueryRow("SELECT COUNT(*) FROM "+table).Scan(&n))
		assert.Zero(t, n, table)
	}
	var kind string
	require.NoError(t, r.Store.DB().QueryRow("SELECT deleted FROM erasures WHERE id = ?", receipt.Receipt).Scan(&kind))
	assert.JSONEq(t, `{"facts":5,"documents":2,"links":1,"letters":0}`, kind, "the receipt names nobody")
}

func TestMarksOfTheWrongStudentAreTakenOver(t *testing.T) {
	r := studiotest.New(t)
	wrong := r.Student
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	slip := r.Tell(fact.RungAdded{Item: "slipway", Strand: "book", After: fact.Top})
	ada := studio.NewID()
	_, err := roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: ada, FirstName: "Ada", BirthYear: 2017, BirthMonth: 3, Instrument: "cello", Slot: calendar.Slot{Weekday: time.Wednesday, Start: "17:00", Minutes: 30}})
	require.NoError(t, err)
	r.Student = ada
	hers := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Student = wrong
	marks := []string{r.Tell(fact.LessonOpened{Day: "2026-11-18"}), r.Tell(fact.Taught{Rung: lamp}), r.Tell(fact.PointMarked{Rung: lamp, Point: "tone", State: fact.Met}), r.Tell(fact.Taught{Rung: slip})}

	out, err := roster.MoveMarks(ctx, r.App, r.Who, wrong, ada, marks)
	require.NoError(t, err)
	assert.Equal(t, 3, out.Moved)
	require.Len(t, out.Left, 1)
	assert.Equal(t, "Slipway Song", out.Left[0].Title, "it is not on her ladder")
	assert.Equal(t, "planned", r.Lesson().State, "his lesson has not begun")
	v, err := places.Lesson(ctx, r.App, r.Who, ada, "2026-11-18")
	require.NoError(t, err)
	assert.Equal(t, "open", v.State)
	assert.Equal(t, hers, v.Rungs[0].ID)
	assert.EqualValues(t, fact.Met, v.Rungs[0].Points[0].State)

	_, err = roster.MoveMarks(ctx, r.App, r.Who, wrong, ada, marks[:3])
	assert.ErrorContains(t, err, "None of these marks", "they are not his any more")
	_, err = roster.MoveMarks(ctx, r.App, r.Who, wrong, wrong, marks)
	assert.ErrorContains(t, err, "this student's already")
}

// One person on two instruments: a ladder and a sheet each, one name, one link; the link of one
// opens nobody else.
func TestTwoInstrumentsOfOnePerson(t *testing.T) {
	r := studiotest.New(t)
	violin, stranger := studio.NewID(), studio.NewID()
	slot := calendar.Slot{Weekday: time.Wednesday, Start: "17:00", Minutes: 30}
	card, err := roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: violin, Person: r.Student, Instrument: "violin", Slot: slot, BirthYear: 1990, BirthMonth: 1})
	require.NoError(t, err)
	assert.Equal(t, []any{"Emil", 8, r.Student}, []any{card.FirstName, card.Age, card.Person}, "names and birth are the same person's")
	_, err = roster.AddStudent(ctx, r.App, r.Who, roster.NewStudent{ID: stranger, FirstName: "Ada", BirthYear: 2017, BirthMonth: 3, Instrument: "cello", Slot: slot})
	require.NoError(t, err)
	require.NoError(t, roster.CorrectStudent(ctx, r.App, r.Who, violin, studio.Set(roster.Person{FirstName: "Emile", BirthYear: 2018, BirthMonth: 4, Instrument: "violin"})))
	assert.Equal(t, "Emile", kept(r).Person.FirstName, "corrected on both")
	assert.EqualValues(t, "cello", kept(r).Person.Instrument)

	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	token := strings.TrimPrefix(link.Path, "/family/")
	v, err := family.Page(ctx, r.App, token)
	require.NoError(t, err)
	require.Len(t, v.Parts, 2)
	assert.Equal(t, []family.FamilyPart{{Plays: "cello", Path: "/family/" + token + "~" + r.Student, Here: true}, {Plays: "violin", Path: "/family/" + token + "~" + violin}}, v.Parts)
	v, err = family.Page(ctx, r.App, token+"~"+violin)
	require.NoError(t, err)
	assert.Equal(t, violin, v.Student)
	assert.True(t, v.Parts[1].Here)
	_, err = family.Page(ctx, r.App, token+"~"+stranger)
	assert.ErrorContains(t, err, "opens no week")
	practised := func(student string) error {
		return family.Tell(ctx, r.App, token+"~"+violin, []fact.Fact{{ID: studio.NewID(), Student: student, At: r.Now, Body: fact.Practised{Day: "2026-11-18", Minutes: 10}}})
	}
	assert.NoError(t, practised(violin))
	assert.Error(t, practised(stranger))

	_, err = roster.EraseStudent(ctx, r.App, r.Who, r.Student, "Emile")
	require.NoError(t, err)
	day, err := diary.Day(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	require.Len(t, day.Students, 2)
	for _, s := range day.Students {
		assert.Equal(t, s.ID, s.Person, "the violin stands by itself now")
	}
}
