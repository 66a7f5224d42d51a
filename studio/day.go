package studio

import (
	"cmp"
	"context"
	"sort"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/store"
)

// A StudentCard is what a screen shows of a student at its head.
type StudentCard struct {
	ID         string            `json:"id"`
	FirstName  string            `json:"firstName"`
	FamilyName string            `json:"familyName"`
	Age        int               `json:"age"`
	Instrument instrument.ID     `json:"instrument"`
	Plays      string            `json:"plays" doc:"the instrument's name"`
	Slot       calendar.Slot     `json:"slot"`
	Approach   approach.Approach `json:"approach" doc:"the school chosen for each question"`
	Home       shelf.Home        `json:"home" doc:"the instrument practised on"`
	Contact    string            `json:"contact" doc:"mail addresses that the week sheet goes to, joined by a comma; empty for none"`
	Next       calendar.Date     `json:"next" doc:"day of this or the next lesson; empty when the calendar ends"`
	State      string            `json:"state" enum:"here,paused,left"`
	Until      calendar.Date     `json:"until" doc:"last day of a pause; empty where that is not known"`
	Person     string            `json:"person" doc:"the same of all students who are one person, on an instrument each"`
}

// card is a student's, of whom the times away at least are known.
func (r room) card(st store.Student, s ladder.Standing, next calendar.Date) StudentCard {
	c := StudentCard{st.ID, st.FirstName, st.FamilyName, age(st, r.today()), st.Instrument, r.instruments.Of(st.Instrument).Name, st.Slot, st.Approach, st.Home, st.Contact, next, "here", "", cmp.Or(st.Person, st.ID)}
	if away, is := s.AwayOn(r.today()); is {
		c.State = away.Name
		if away.To != calendar.Last {
			c.Until = away.To
		}
	}
	return c
}

// A Segment is a lesson on the day's ribbon.
type Segment struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	Start   string `json:"start" doc:"15:04"`
	Minutes int    `json:"minutes"`
	Extra   bool   `json:"extra" doc:"outside the weekly slot"`
}

// A DayView is the teaching day.
type DayView struct {
	Studio   string        `json:"studio"`
	Demo     bool          `json:"demo"`
	Zone     string        `json:"zone"`
	Now      time.Time     `json:"now" doc:"by the studio's clock"`
	Today    calendar.Date `json:"today"`
	Date     calendar.Date `json:"date" doc:"the day shown"`
	Week     int           `json:"week" doc:"of the term; 0 outside terms"`
	WeekOf   int           `json:"weekOf"`
	Free     string        `json:"free" doc:"name of the free span the day lies in"`
	Segments []Segment     `json:"segments"`
	Students []StudentCard `json:"students" doc:"all of the studio, by name; approaches as they were when each came"`
	Home     shelf.Home    `json:"home" doc:"the instrument taught on"`
	Open     []OpenLesson  `json:"open" doc:"lessons of days before today that are not closed, by day"`
}

// An OpenLesson is a lesson of a day before today that is not closed.
type OpenLesson struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	advice.Unclosed
}

// Day shows a teaching day; the empty date is today.
func (a *App) Day(ctx context.Context, who Who, date calendar.Date) (DayView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return DayView{}, err
	}
	return r.day(ctx, date)
}

func (r room) day(ctx context.Context, date calendar.Date) (DayView, error) {
	if date == "" {
		date = r.today()
	} else if _, err := calendar.ParseDate(string(date)); err != nil {
		return DayView{}, invalid("That day cannot be shown: %v.", err)
	}
	students, err := r.Students(ctx)
	if err != nil {
		return DayView{}, told(err, "student")
	}
	v := DayView{Studio: r.row.Name, Demo: r.row.Demo, Zone: r.zone.String(), Now: r.now, Today: r.today(), Date: date,
		Segments: []Segment{}, Students: []StudentCard{}, Home: r.row.Home, Open: []OpenLesson{}}
	v.Week, v.WeekOf = r.row.Calendar.Week(date)
	for _, f := range r.row.Calendar.Free {
		if f.Holds(date) {
			v.Free = f.Name
		}
	}
	moved, err := r.lived(ctx, students, comings)
	if err != nil {
		return DayView{}, err
	}
	for _, st := range students {
		s := moved[st.ID].standing
		own := ownCalendar(r.row.Calendar, s)
		v.Students = append(v.Students, r.card(st, s, own.Next(st.Slot, r.today().Add(-1))))
		for _, open := range advice.LeftOpen(s.Lessons, own, st.Slot, came(st, s, r.today()), r.today()) {
			v.Open = append(v.Open, OpenLesson{st.ID, st.FirstName, open})
		}
		if len(own.Lessons(st.Slot, date, date)) == 1 {
			_, extra := s.Extra[date]
			v.Segments = append(v.Segments, Segment{st.ID, st.FirstName, slotOn(st.Slot, s, date).Start, st.Slot.Minutes, extra})
		}
	}
	sort.SliceStable(v.Open, func(i, j int) bool { return v.Open[i].Day < v.Open[j].Day })
	sort.SliceStable(v.Segments, func(i, j int) bool { return v.Segments[i].Start < v.Segments[j].Start })
	return v, nil
}

// came is the day on which a student came to the studio: that of the first lesson, or of
// being put in, which the id holds.
func came(st store.Student, s ladder.Standing, today calendar.Date) calendar.Date {
	first := today
	if id, err := ulid.ParseStrict(st.ID); err == nil {
		first = calendar.On(ulid.Time(id.Time()))
	}
	for day := range s.Opened {
		first = min(first, day)
	}
	return first
}

// outOfTurn are the kinds that take lessons off their weekly slot or add others.
var outOfTurn = []fact.Body{fact.LessonMissed{}, fact.LessonMoved{}, fact.LessonExtra{}, fact.Paused{}, fact.Left{}, fact.Returned{}}

// SetClock moves a demo studio's clock to a moment.
func (a *App) SetClock(ctx context.Context, who Who, to time.Time) error {
	if !calendar.InBounds(to) {
		return invalid("The clock can stand between %s and %s.", calendar.First, calendar.Last)
	}
	return told(a.store.In(who.Studio).SetClock(ctx, to.Sub(a.now())), "demo clock")
}
