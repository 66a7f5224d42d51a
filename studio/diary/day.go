// Package diary shows a whole studio in time: the day, the term, the calendar and its files, concerts and
// shared hours.
package diary

import (
	"context"
	"sort"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
)

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
	Studio   string               `json:"studio"`
	Demo     bool                 `json:"demo"`
	Zone     string               `json:"zone"`
	Now      time.Time            `json:"now" doc:"by the studio's clock"`
	Today    calendar.Date        `json:"today"`
	Date     calendar.Date        `json:"date" doc:"the day shown"`
	Week     int                  `json:"week" doc:"of the term; 0 outside terms"`
	WeekOf   int                  `json:"weekOf"`
	Free     string               `json:"free" doc:"name of the free span the day lies in"`
	Segments []Segment            `json:"segments"`
	Students []studio.StudentCard `json:"students" doc:"all of the studio, by name; approaches as they were when each came"`
	Home     shelf.Home           `json:"home" doc:"the instrument taught on"`
	Open     []OpenLesson         `json:"open" doc:"lessons of days before today that are not closed, by day"`
}

// An OpenLesson is a lesson of a day before today that is not closed.
type OpenLesson struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	advice.Unclosed
}

// Day shows a teaching day; the empty date is today.
func Day(ctx context.Context, a *studio.App, who studio.Who, date calendar.Date) (DayView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return DayView{}, err
	}
	return DayOf(ctx, r, date)
}

// DayOf shows a teaching day of a room.
func DayOf(ctx context.Context, r studio.Room, date calendar.Date) (DayView, error) {
	if date == "" {
		date = r.Today()
	} else if _, err := calendar.ParseDate(string(date)); err != nil {
		return DayView{}, studio.Refuse("That day cannot be shown: %v.", err)
	}
	students, err := r.Students(ctx)
	if err != nil {
		return DayView{}, studio.Failed(err, "student")
	}
	v := DayView{Studio: r.Row.Name, Demo: r.Row.Demo, Zone: r.Zone.String(), Now: r.Now, Today: r.Today(), Date: date,
		Segments: []Segment{}, Students: []studio.StudentCard{}, Home: r.Row.Home, Open: []OpenLesson{}}
	v.Week, v.WeekOf = r.Row.Calendar.Week(date)
	for _, f := range r.Row.Calendar.Free {
		if f.Holds(date) {
			v.Free = f.Name
		}
	}
	moved, err := r.Lived(ctx, students, studio.Comings)
	if err != nil {
		return DayView{}, err
	}
	for _, st := range students {
		s := moved[st.ID].Standing
		own := studio.OwnCalendar(r.Row.Calendar, s)
		v.Students = append(v.Students, r.Card(st, s, own.Next(st.Slot, r.Today().Add(-1))))
		for _, open := range advice.LeftOpen(s.Lessons, own, st.Slot, came(st, s, r.Today()), r.Today()) {
			v.Open = append(v.Open, OpenLesson{st.ID, st.FirstName, open})
		}
		if len(own.Lessons(st.Slot, date, date)) == 1 {
			_, extra := s.Extra[date]
			v.Segments = append(v.Segments, Segment{st.ID, st.FirstName, studio.SlotOn(st.Slot, s, date).Start, st.Slot.Minutes, extra})
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

// SetClock moves a demo studio's clock to a moment.
func SetClock(ctx context.Context, a *studio.App, who studio.Who, to time.Time) error {
	if !calendar.InBounds(to) {
		return studio.Refuse("The clock can stand between %s and %s.", calendar.First, calendar.Last)
	}
	return studio.Failed(a.Store.In(who.Studio).SetClock(ctx, to.Sub(a.Now())), "demo clock")
}
