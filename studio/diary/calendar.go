package diary

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"patientladder/core/calendar"
	"patientladder/core/charset"
	"patientladder/core/home"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/words"
)

// A CalendarView is when the studio teaches.
type CalendarView struct {
	Today    calendar.Date   `json:"today"`
	Terms    []calendar.Span `json:"terms"`
	Free     []calendar.Span `json:"free"`
	Slots    []SlotView      `json:"slots" doc:"by weekday and time"`
	Changes  []MoveView      `json:"changes" doc:"lessons to come that are not given, moved or besides"`
	Warnings []reason.Reason `json:"warnings"`
}

// A SlotView is a student's weekly lesson.
type SlotView struct {
	Student string          `json:"student"`
	Name    string          `json:"name"`
	Slot    calendar.Slot   `json:"slot"`
	Next    []calendar.Date `json:"next" doc:"of the lessons to come"`
}

// A MoveView is a lesson to come that is not in its weekly slot.
type MoveView struct {
	Student string        `json:"student"`
	Name    string        `json:"name"`
	Day     calendar.Date `json:"day"`
	Kind    string        `json:"kind" enum:"off,besides" doc:"not given on this day, or given besides the slot"`
	Start   string        `json:"start" doc:"15:04; empty of one that is not given"`
}

// daysAhead is how many days of lessons the calendar's screen shows.
const daysAhead = 28

// Calendar shows terms, free spans and slots, what is moved, and what runs into what.
func Calendar(ctx context.Context, a *studio.App, who studio.Who) (CalendarView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return CalendarView{}, err
	}
	students, err1 := r.Students(ctx)
	out, err2 := r.Standings(ctx, studio.Comings)
	if err := errors.Join(err1, err2); err != nil {
		return CalendarView{}, studio.Failed(err, "studio")
	}
	today := r.Today()
	v := CalendarView{Today: today, Terms: studio.List(r.Row.Calendar.Terms), Free: studio.List(r.Row.Calendar.Free), Slots: []SlotView{}, Changes: []MoveView{}}
	var weekly, dated []calendar.Booked
	for _, st := range students {
		if away, is := out[st.ID].AwayOn(today); is && away.Left {
			continue
		}
		own := studio.OwnCalendar(r.Row.Calendar, out[st.ID])
		days := own.Lessons(st.Slot, today, today.Add(daysAhead))
		v.Slots = append(v.Slots, SlotView{st.ID, st.FirstName, st.Slot, studio.List(days)})
		for _, h := range st.Slot.Hours() {
			weekly = append(weekly, calendar.Booked{Name: st.FirstName, On: h.Weekday.String(), Start: h.Start, Long: st.Slot.Minutes, Turn: st.Slot.Turn()})
		}
		for day := range own.Off {
			if day >= today {
				v.Changes = append(v.Changes, MoveView{st.ID, st.FirstName, day, "off", ""})
			}
		}
		for day := range own.On {
			if day >= today {
				v.Changes = append(v.Changes, MoveView{st.ID, st.FirstName, day, "besides", studio.SlotOn(st.Slot, out[st.ID], day).Start})
			}
		}
		for _, day := range days {
			dated = append(dated, calendar.Booked{Name: st.FirstName, On: string(day), Start: studio.SlotOn(st.Slot, out[st.ID], day).Start, Long: st.Slot.Minutes})
		}
	}
	week := func(d time.Weekday) int { return (int(d) + 6) % 7 }
	slices.SortFunc(v.Slots, func(a, b SlotView) int {
		return cmp.Or(week(a.Slot.Weekday)-week(b.Slot.Weekday), cmp.Compare(a.Slot.Start, b.Slot.Start), cmp.Compare(a.Name, b.Name))
	})
	slices.SortFunc(v.Changes, func(a, b MoveView) int {
		return cmp.Or(cmp.Compare(a.Day, b.Day), cmp.Compare(a.Start, b.Start), cmp.Compare(a.Name, b.Name))
	})
	slices.SortStableFunc(weekly, func(a, b calendar.Booked) int { return cmp.Compare(a.Start, b.Start) })
	v.Warnings = calendar.Warnings(weekly)
	// a day with a lesson moved to it is looked at by itself
	v.Warnings = append(v.Warnings, calendar.Warnings(moved(dated, v.Changes))...)
	return v, nil
}

// moved keeps the lessons of days to which one was moved.
func moved(dated []calendar.Booked, changes []MoveView) []calendar.Booked {
	return slices.DeleteFunc(dated, func(b calendar.Booked) bool {
		return !slices.ContainsFunc(changes, func(c MoveView) bool { return c.Kind == "besides" && string(c.Day) == b.On })
	})
}

// SetCalendar keeps the terms and free spans.
func SetCalendar(ctx context.Context, a *studio.App, who studio.Who, change studio.Change[calendar.Calendar]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		c, err := change.Onto(&r.Row.Calendar)
		if err != nil {
			return err
		}
		if len(c.Terms) > 40 || len(c.Free) > 100 {
			return studio.Refuse("At most 40 terms and 100 free spans are kept.")
		}
		if err := c.Check(); err != nil {
			return studio.Refuse("The calendar does not work: %v.", err)
		}
		return studio.Failed(r.SetCalendar(ctx, c), "studio")
	})
}

// SetSlot keeps a student's weekly lesson.
func SetSlot(ctx context.Context, a *studio.App, who studio.Who, student string, change studio.Change[calendar.Slot]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		st, err := r.Student(ctx, student)
		if err != nil {
			return studio.Failed(err, "student")
		}
		slot, err := change.Onto(&st.Slot)
		if err != nil {
			return err
		}
		if err := slot.Check(); err != nil {
			return studio.Refuse("The lesson time does not work: %v.", err)
		}
		return studio.Failed(r.SetSlot(ctx, student, slot), "student")
	})
}

// MakeFeed makes a new address of the studio's calendar feed; the one before ends.
func MakeFeed(ctx context.Context, a *studio.App, who studio.Who) (family.NewLink, error) {
	token := studio.Token()
	if err := a.Store.In(who.Studio).SetFeed(ctx, token); err != nil {
		return family.NewLink{}, studio.Failed(err, "studio")
	}
	return family.NewLink{Path: "/api/feeds/" + token}, nil
}

// Feed writes the calendar that a feed's token opens.
func Feed(ctx context.Context, a *studio.App, token string) ([]byte, error) {
	id, err := a.Store.Feed(ctx, token)
	if errors.Is(err, store.ErrNotFound) {
		return nil, &studio.Error{Kind: studio.Missing, Says: "This address opens no calendar. Make a new one in the studio's calendar.", Cause: err}
	}
	if err != nil {
		return nil, studio.Failed(err, "feed")
	}
	return Lessons(ctx, a, studio.Who{Studio: id})
}

// Lessons writes the studio's lessons as an iCalendar file (RFC 5545).
func Lessons(ctx context.Context, a *studio.App, who studio.Who) ([]byte, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return nil, err
	}
	students, err1 := r.Students(ctx)
	out, err2 := r.Standings(ctx, studio.Talks)
	events, err3 := r.Events(ctx)
	if err := errors.Join(err1, err2, err3); err != nil {
		return nil, studio.Failed(err, "studio")
	}
	says := r.ReadIn(r.Row.Language)
	cal := newCalendar(r, r.Row.Name)
	allDay := func(id, summary string, from, to calendar.Date) {
		e := cal.AddEvent(id + "@ladder")
		e.SetDtStampTime(r.Now)
		e.SetSummary(summary)
		e.SetAllDayStartAt(from.Time())
		e.SetAllDayEndAt(to.Add(1).Time()) // the first day after it
	}
	for _, st := range students {
		write(r, cal, st, out[st.ID], says.Text("calendar.lesson", words.Args{"name": st.FirstName, "instrument": played(r, says, st.Instrument)}))
		p := studio.Pupil{Room: r, Student: st, History: studio.History{Standing: out[st.ID]}, Chosen: st.Approach}
		talk := home.Next(p.Standing, p.ApproachAt(p.Standing, r.Today()), r.Today(), studio.Age(st, r.Today()))
		if due := max(talk.Due, r.Today()); talk.Due != "" {
			allDay("talk-"+st.ID, says.Text("calendar.check-in", words.Args{"name": st.FirstName}), due, due)
		}
	}
	for _, e := range events {
		if start, err := time.ParseInLocation("2006-01-02 15:04", string(e.Day)+" "+e.Start, r.Zone); err == nil {
			one := cal.AddEvent("event-" + e.ID + "@ladder")
			one.SetDtStampTime(r.Now)
			one.SetSummary(e.Name)
			one.SetStartAt(start)
			one.SetEndAt(start.Add(2 * time.Hour))
			one.SetLocation(e.Place)
			continue
		}
		allDay("event-"+e.ID, e.Name, e.Day, e.Day)
	}
	for _, f := range r.Row.Calendar.Free {
		allDay("free-"+string(f.From), f.Name, f.From, f.To)
	}
	return written(cal), nil
}

// FamilyLessons writes the lessons of the student that a family's link opens.
func FamilyLessons(ctx context.Context, a *studio.App, token string) ([]byte, error) {
	p, err := family.Enter(ctx, a, token)
	if err != nil {
		return nil, err
	}
	cal := newCalendar(p.Pupil.Room, p.FirstName+", "+p.Row.Name)
	says := p.Voice()
	write(p.Pupil.Room, cal, p.Student, p.Standing, says.Text("calendar.lesson-at-home", words.Args{"name": p.FirstName, "instrument": played(p.Pupil.Room, says, p.Instrument)}))
	return written(cal), nil
}

// played names an instrument in the words of who reads the file.
func played(r studio.Room, says *words.Words, id instrument.ID) string {
	return says.Instruments().With(r.Row.Instruments).Of(id).Name
}

func newCalendar(r studio.Room, name string) *ics.Calendar {
	cal := ics.NewCalendarFor("Patient Ladder")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName(Line(name))
	cal.SetRefreshInterval("PT6H") // it says by itself that it is a duration
	return cal
}

// written is a calendar as RFC 5545, section 3.1, has it: lines that end with CR LF, and are folded.
func written(cal *ics.Calendar) []byte {
	return []byte(cal.Serialize(ics.WithNewLine("\r\n"), ics.WithLineLength(75)))
}

// Line is a text in which nothing steers: names from before they were refused may hold what would end a line.
func Line(text string) string {
	return strings.Map(func(r rune) rune {
		if charset.Steers(string(r)) {
			return ' '
		}
		return r
	}, text)
}

// Days before and after today that a calendar file holds.
const (
	fileBack  = 60
	fileAhead = 400
)

// write puts a student's lessons into a calendar, each as an event of its own: terms,
// free spans and moves leave no rule that every program reads alike.
func write(r studio.Room, cal *ics.Calendar, st store.Student, s ladder.Standing, summary string) {
	own := studio.OwnCalendar(r.Row.Calendar, s)
	to := r.Today().Add(fileAhead)
	if len(own.Terms) > 0 { // none is promised after the last term
		to = min(to, slices.MaxFunc(own.Terms, func(a, b calendar.Span) int { return cmp.Compare(a.To, b.To) }).To)
	}
	for _, day := range own.Lessons(st.Slot, r.Today().Add(-fileBack), to) {
		slot := studio.SlotOn(st.Slot, s, day)
		begins := slot.On(day, r.Zone)
		e := cal.AddEvent(st.ID + "-" + string(day) + "@ladder")
		e.SetDtStampTime(r.Now)
		e.SetSummary(Line(summary))
		e.SetStartAt(begins)
		e.SetEndAt(begins.Add(time.Duration(slot.Minutes) * time.Minute))
		e.SetLocation(Line(r.Row.Name))
	}
}
