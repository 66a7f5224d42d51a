package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/calendar"
	"patientladder/core/gather"
	"patientladder/core/programme"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
)

// diaryRoutes registers what shows the whole studio in time: days, terms, the calendar, concerts, shared hours.
func (s *Server) diaryRoutes() {
	get(s, "/api/day", "day", "The teaching day and all students", func(ctx context.Context, w studio.Who, in *struct {
		Date string `query:"date" maxLength:"10" doc:"today when left out"`
	}) (diary.DayView, error) {
		return diary.Day(ctx, s.app, w, calendar.Date(in.Date))
	})
	get(s, "/api/overview", "overview", "What all students need, and what to order or print for the next week", func(ctx context.Context, w studio.Who, _ *none) (diary.OverviewView, error) {
		return diary.Overview(ctx, s.app, w)
	})
	get(s, "/api/today", "today", "The lessons of a day with their plans and what they need", func(ctx context.Context, w studio.Who, in *struct {
		Date calendar.Date `query:"date" maxLength:"10"`
	}) (diary.TodayView, error) {
		return diary.Today(ctx, s.app, w, in.Date)
	})
	get(s, "/api/term", "term", "A term at a glance: what it has brought each student, beside the term before", func(ctx context.Context, w studio.Who, in *struct {
		From calendar.Date `query:"from" maxLength:"10" doc:"its first day; the newest when left out"`
	}) (diary.TermView, error) {
		return diary.Term(ctx, s.app, w, in.From)
	})
	get(s, "/api/search", "search", "Pieces, skills, notes and sheets by words", func(ctx context.Context, w studio.Who, in *struct {
		Words string `query:"words" required:"true" maxLength:"200"`
	}) (diary.SearchView, error) {
		return diary.Search(ctx, s.app, w, in.Words)
	})
	calendarFile(s, "/api/family/{token}/lessons.ics", "family-lessons", "The lessons of the student that a link opens", openToAll, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return diary.FamilyLessons(ctx, s.app, in.Token)
	})
	calendarFile(s, "/api/feeds/{token}", "feed", "The studio's lessons, for a calendar program to follow", openToAll, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return diary.Feed(ctx, s.app, in.Token)
	})
	calendarFile(s, "/api/lessons.ics", "lessons", "The studio's lessons as a calendar file", nil, func(ctx context.Context, _ *none) ([]byte, error) {
		return diary.Lessons(ctx, s.app, who(ctx))
	})
	get(s, "/api/calendar", "calendar", "Terms, free spans, weekly lessons and what is moved", func(ctx context.Context, w studio.Who, _ *none) (diary.CalendarView, error) {
		return diary.Calendar(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/calendar", "set-calendar", "Keep terms and free spans", func(ctx context.Context, w studio.Who, in *body[studio.Change[calendar.Calendar]]) error {
		return diary.SetCalendar(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodPut, "/api/students/{student}/slot", "set-slot", "Keep a student's weekly lesson", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    studio.Change[calendar.Slot]
	}) error {
		return diary.SetSlot(ctx, s.app, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "make-feed", Method: http.MethodPost, Path: "/api/feed", Summary: "Make a new address of the calendar feed; its token is told this once"},
		func(ctx context.Context, w studio.Who, _ *none) (family.NewLink, error) {
			return diary.MakeFeed(ctx, s.app, w)
		})
	get(s, "/api/forecasts", "forecasts", "How the studio's forecasts held", func(ctx context.Context, w studio.Who, _ *none) (diary.ForecastsView, error) {
		return diary.Forecasts(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/clock", "set-clock", "Move a demo studio's clock", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			To time.Time `json:"to"`
		}
	}) error {
		return diary.SetClock(ctx, s.app, w, in.Body.To)
	})
	get(s, "/api/events", "events", "Days on which students play before others", func(ctx context.Context, w studio.Who, _ *none) (diary.EventsView, error) {
		return diary.Events(ctx, s.app, w)
	})
	get(s, "/api/events/{event}", "event", "A day on which students play before others: its programme and how each piece stands for it", func(ctx context.Context, w studio.Who, in *struct {
		Event   string `path:"event" maxLength:"26"`
		Earlier int    `query:"earlier" minimum:"-26" maximum:"26" doc:"weeks by which it would be earlier, to see what then"`
	}) (diary.EventView, error) {
		return diary.Event(ctx, s.app, w, in.Event, in.Earlier)
	})
	change(s, http.MethodPut, "/api/events/{event}", "keep-event", "Keep such a day; its pieces have it as their date", func(ctx context.Context, w studio.Who, in *struct {
		Event string `path:"event" maxLength:"26"`
		Body  studio.Change[programme.Event]
	}) error {
		return diary.KeepEvent(ctx, s.app, w, in.Event, in.Body)
	})
	change(s, http.MethodDelete, "/api/events/{event}", "drop-event", "Take such a day away; its pieces have no date any more", func(ctx context.Context, w studio.Who, in *struct {
		Event string `path:"event" maxLength:"26"`
		Body  wasSeen[programme.Event]
	}) error {
		return diary.DropEvent(ctx, s.app, w, in.Event, &in.Body.Was)
	})
	get(s, "/api/hours", "hours", "Hours that several students share, and who might share one", func(ctx context.Context, w studio.Who, _ *none) (diary.HoursView, error) {
		return diary.Hours(ctx, s.app, w)
	})
	get(s, "/api/hours/{hour}", "hour", "Such an hour, planned: what all can play, who plays when it is handed on, the minutes", func(ctx context.Context, w studio.Who, in *struct {
		Hour string `path:"hour" maxLength:"26"`
	}) (diary.HourView, error) {
		return diary.Hour(ctx, s.app, w, in.Hour)
	})
	change(s, http.MethodPut, "/api/hours/{hour}", "keep-hour", "Keep such an hour", func(ctx context.Context, w studio.Who, in *struct {
		Hour string `path:"hour" maxLength:"26"`
		Body studio.Change[gather.Hour]
	}) error {
		return diary.KeepHour(ctx, s.app, w, in.Hour, in.Body)
	})
	change(s, http.MethodDelete, "/api/hours/{hour}", "drop-hour", "Take such an hour away", func(ctx context.Context, w studio.Who, in *struct {
		Hour string `path:"hour" maxLength:"26"`
		Body wasSeen[gather.Hour]
	}) error {
		return diary.DropHour(ctx, s.app, w, in.Hour, &in.Body.Was)
	})
	get(s, "/api/students/{student}/duets", "duets", "Who of the studio could play with a student's pieces in hand", func(ctx context.Context, w studio.Who, in *ofStudent) ([]diary.Duet, error) {
		return diary.Duets(ctx, s.app, w, in.Student)
	})
}
