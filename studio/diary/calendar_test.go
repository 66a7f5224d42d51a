package diary_test

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// The calendar file is read by an npm iCalendar parser to the same lessons, at the
// same moments: over the change to summer time, with a free week left out, a lesson
// moved and one not given. RFC 5545, sections 3.6.1 (events), 3.8.2.4 (all-day events
// end on the day after).
func TestTheCalendarFile(t *testing.T) {
	r := studiotest.New(t)
	require.NoError(t, diary.SetCalendar(ctx, r.App, r.Who, studio.Set(calendar.Calendar{
		Terms: []calendar.Span{{Name: "autumn, first half", From: "2026-09-07", To: "2026-12-11"}, {Name: "spring", From: "2027-01-11", To: "2027-04-30"}},
		Free:  []calendar.Span{{Name: "free week", From: "2026-11-23", To: "2026-11-27"}},
	})))
	require.NoError(t, diary.SetSlot(ctx, r.App, r.Who, r.Student, studio.Set(calendar.Slot{Weekday: 3, Start: "16:00", Minutes: 45})))
	r.Tell(fact.LessonMoved{Day: "2026-12-02", To: "2026-12-04", Start: "17:30"})
	r.Tell(fact.LessonMissed{Day: "2026-12-09"})
	data, err := diary.Lessons(ctx, r.App, r.Who)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "lessons.ics")
	require.NoError(t, os.WriteFile(file, data, 0o600))
	out, err := exec.Command("node", "../../web/checks/ical.mjs", file).Output()
	require.NoError(t, err)
	var read struct {
		Version string
		Events  []struct{ UID, Summary, Start, End string }
	}
	require.NoError(t, json.Unmarshal(out, &read))
	assert.Equal(t, "2.0", read.Version)
	at := map[string]string{}
	uids := map[string]bool{}
	for _, e := range read.Events {
		at[e.Start] = e.Summary + " to " + e.End
		assert.False(t, uids[e.UID], "an id of its own")
		uids[e.UID] = true
	}
	assert.Equal(t, "free week to 2026-11-28", at["2026-11-23"], "all day, to the day after")
	assert.NotContains(t, at, "2026-11-25T16:00:00.000Z", "none in the free week")
	assert.NotContains(t, at, "2026-12-02T16:00:00.000Z", "moved")
	assert.NotContains(t, at, "2026-12-09T16:00:00.000Z", "not given")
	assert.Contains(t, at["2026-12-04T17:30:00.000Z"], "to 2026-12-04T18:15:00.000Z")
	assert.Contains(t, at, "2027-03-24T16:00:00.000Z")
	assert.Contains(t, at, "2027-03-31T15:00:00.000Z", "in summer time four o'clock is an hour earlier")
	assert.NotContains(t, at, "2027-05-05T15:00:00.000Z", "none is promised after the last term")
	lines := 0
	for line := range splitLines(data) {
		lines++
		assert.LessOrEqual(t, len(line), 75, "section 3.1: long lines are folded")
		assert.NotContains(t, line, "\r", "a line's end alone")
		assert.NotContains(t, line, "\n")
	}
	assert.Greater(t, lines, 100, "they end with CR LF")
	assert.Equal(t, 1, strings.Count(string(data), "REFRESH-INTERVAL"))
	assert.Equal(t, 1, strings.Count(string(data), "VALUE=DURATION"), "a parameter stands once")
}

// A name cannot end a line of the file and begin another: new ones are refused, and those from before are
// written without what steers.
func TestNamesThatSteer(t *testing.T) {
	r := studiotest.New(t)
	for _, name := range []string{"Joe\r\nEND:VEVENT", "Joe\rX", "Joe\u2028X", "Joe\u202eX", "Joe\x00"} {
		assert.ErrorContains(t, roster.CorrectStudent(ctx, r.App, r.Who, r.Student, studio.Set(roster.Person{FirstName: name, BirthYear: 2018, BirthMonth: 3, Instrument: "cello"})), "are not written", "%q", name)
		assert.ErrorContains(t, account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: "T", Studio: name, Zone: "Europe/London"})), "are not written", "%q", name)
		_, err := account.Make(ctx, r.App, account.SignUp{Name: name, Studio: "S", Email: "new@example.com", Password: "a long password", Zone: "UTC"})
		assert.ErrorContains(t, err, "are not written", "%q", name)
	}
	_, err := r.Store.DB().Exec("UPDATE students SET first_name = ?", "Joe\r\nEND:VEVENT\rX-INJECTED:1")
	require.NoError(t, err)
	_, err = r.Store.DB().Exec("UPDATE studios SET name = ?", "Studio\r\nBcc: all@example.com")
	require.NoError(t, err)
	data, err := diary.Lessons(ctx, r.App, r.Who)
	require.NoError(t, err)
	for line := range splitLines(data) {
		assert.False(t, strings.HasPrefix(line, "X-INJECTED") || strings.HasPrefix(line, "Bcc"), line)
	}
	assert.NotContains(t, string(data), "\rX")
}

// splitLines gives the lines of a file that ends them with CR LF.
func splitLines(data []byte) func(func(string) bool) {
	return func(yield func(string) bool) {
		from := 0
		for i := 1; i < len(data); i++ {
			if data[i-1] == '\r' && data[i] == '\n' {
				if !yield(string(data[from : i-1])) {
					return
				}
				from = i + 1
			}
		}
	}
}

func TestCalendarsAndSlotsThatDoNotWork(t *testing.T) {
	r := studiotest.New(t)
	assert.ErrorContains(t, diary.SetCalendar(ctx, r.App, r.Who, studio.Set(calendar.Calendar{Terms: []calendar.Span{{Name: "x", From: "2026-09-07", To: "2026-09-01"}}})), "before it begins")
	assert.ErrorContains(t, diary.SetSlot(ctx, r.App, r.Who, r.Student, studio.Set(calendar.Slot{Weekday: 3, Start: "23:50", Minutes: 45})), "past midnight")
	_, err := diary.Feed(ctx, r.App, "no such token")
	assert.ErrorContains(t, err, "opens no calendar")
	first, err := diary.MakeFeed(ctx, r.App, r.Who)
	require.NoError(t, err)
	_, err = diary.MakeFeed(ctx, r.App, r.Who)
	require.NoError(t, err)
	_, err = diary.Feed(ctx, r.App, first.Path[len("/api/feeds/"):])
	assert.ErrorContains(t, err, "opens no calendar", "a new address ends the one before")
}

// The calendar shows the week's lessons in order, what is out of turn in the days to
// come, and what runs into what: each week, or on the one day that a lesson moves to.
func TestTheCalendarShowsWhatRunsIntoWhat(t *testing.T) {
	r := studiotest.New(t)
	take := func(name string, slot calendar.Slot) string {
		in := studiotest.Newcomer(func(in *roster.NewStudent) { in.FirstName, in.Slot, in.Books = name, slot, nil })
		_, err := roster.AddStudent(ctx, r.App, r.Who, in)
		require.NoError(t, err)
		return in.ID
	}
	ida := take("Ida", calendar.Slot{Weekday: time.Monday, Start: "16:00", Minutes: 30})
	take("Jory", calendar.Slot{Weekday: time.Monday, Start: "16:20", Minutes: 30})
	take("Mara", calendar.Slot{Weekday: time.Sunday, Start: "10:00", Minutes: 45})
	show := func() diary.CalendarView {
		v, err := diary.Calendar(ctx, r.App, r.Who)
		require.NoError(t, err)
		return v
	}
	v := show()
	var order []string
	for _, s := range v.Slots {
		order = append(order, s.Name)
	}
	assert.Equal(t, []string{"Ida", "Jory", "Emil", "Mara"}, order, "Monday comes first, Sunday last")
	assert.Equal(t, []calendar.Date{"2026-11-23", "2026-11-30", "2026-12-07"}, v.Slots[0].Next, "to the end of the term")
	assert.Empty(t, v.Changes)
	require.Equal(t, []string{"calendar-clash"}, studiotest.Codes(v.Warnings))
	assert.Equal(t, map[string]string{"on": "Monday", "a": "Ida", "b": "Jory", "start": "16:20"}, v.Warnings[0].Args)

	// Ida moves into Emil's lesson of one Wednesday
	r.Student = ida
	r.Tell(fact.LessonMoved{Day: "2026-11-23", To: "2026-11-25", Start: "16:15"})
	r.Tell(fact.LessonMissed{Day: "2026-12-07"})
	v = show()
	assert.Equal(t, []diary.MoveView{
		{Student: ida, Name: "Ida", Day: "2026-11-23", Kind: "off"},
		{Student: ida, Name: "Ida", Day: "2026-11-25", Kind: "besides", Start: "16:15"},
		{Student: ida, Name: "Ida", Day: "2026-12-07", Kind: "off"},
	}, v.Changes)
	require.Equal(t, []string{"calendar-clash", "calendar-clash"}, studiotest.Codes(v.Warnings))
	assert.Equal(t, "2026-11-25", v.Warnings[1].Args["on"], "only that Wednesday")
}

// A feed is the calendar file at an address of its own.
func TestTheCalendarFeed(t *testing.T) {
	r := studiotest.New(t)
	link, err := diary.MakeFeed(ctx, r.App, r.Who)
	require.NoError(t, err)
	fed, err := diary.Feed(ctx, r.App, link.Path[len("/api/feeds/"):])
	require.NoError(t, err)
	file, err := diary.Lessons(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Equal(t, string(file), string(fed))
	assert.Equal(t, 12, strings.Count(string(fed), "BEGIN:VEVENT"), "sixty days back, and on to the end of the term")
}
