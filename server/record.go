package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/calendar"
	"patientladder/core/gather"
	"patientladder/core/programme"
	"patientladder/core/report"
	"patientladder/letter"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
)

// recordRoutes registers what tells of time that is past, and the days that are to come: records,
// reports, numbers, dates.
func (s *Server) recordRoutes() {
	get(s, "/api/students/{student}/record", "record", "All that was told of a student", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Most    int    `query:"most" minimum:"0" maximum:"50000" doc:"entries, the last ones; a first few when left out"`
	}) (places.RecordView, error) {
		return places.Record(ctx, s.app, w, in.Student, in.Most)
	})
	get(s, "/api/students/{student}/year", "record-year", "A student's year, week by week", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Back    int    `query:"back" minimum:"0" maximum:"60" doc:"years before the present one"`
	}) (places.YearView, error) {
		return places.RecordYear(ctx, s.app, w, in.Student, in.Back)
	})
	get(s, "/api/students/{student}/report", "report", "A student's report of a term, kept or drafted", func(ctx context.Context, w studio.Who, in *struct {
		Student string        `path:"student" maxLength:"26"`
		From    calendar.Date `query:"from" maxLength:"10" doc:"first day of the term; the newest when left out"`
	}) (sending.ReportView, error) {
		return sending.Report(ctx, s.app, w, in.Student, in.From)
	})
	change(s, http.MethodPut, "/api/students/{student}/report", "keep-report", "Keep a report as the teacher wrote it", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    report.Report
	}) error {
		return sending.KeepReport(ctx, s.app, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "send-report", Method: http.MethodPost, Path: "/api/students/{student}/report/letters", Summary: "Mail a report as it was kept; sending the same id twice sends once"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Body    struct {
				ID    string        `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
				Paper letter.Paper  `json:"paper" enum:"A4,Letter"`
				From  calendar.Date `json:"from" doc:"first day of the term"`
			}
		}) (places.Sending, error) {
			return sending.SendReport(ctx, s.app, w, in.Student, in.Body.From, in.Body.ID, in.Body.Paper)
		})
	download(s, "/api/numbers.csv", "numbers-out", "What was told, footholds or practice of all students, as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, in *struct {
		Of string `query:"of" enum:"facts,footholds,practice" default:"facts"`
	}) (studio.Archive, error) {
		return roster.Numbers(ctx, s.app, w, in.Of)
	})
	download(s, "/api/students/{student}/can-play.pdf", "can-play", "What a student can play, as a list to keep", "application/pdf", func(ctx context.Context, w studio.Who, in *struct {
		Student string       `path:"student" maxLength:"26"`
		Paper   letter.Paper `query:"paper" enum:"A4,Letter" default:"A4"`
	}) (studio.Archive, error) {
		return sending.CanPlay(ctx, s.app, w, in.Student, in.Paper)
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
		Body  programme.Event
	}) error {
		in.Body.ID = in.Event
		return diary.KeepEvent(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/events/{event}", "drop-event", "Take such a day away; its pieces have no date any more", func(ctx context.Context, w studio.Who, in *struct {
		Event string `path:"event" maxLength:"26"`
	}) error {
		return diary.DropEvent(ctx, s.app, w, in.Event)
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
		Body gather.Hour
	}) error {
		in.Body.ID = in.Hour
		return diary.KeepHour(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/hours/{hour}", "drop-hour", "Take such an hour away", func(ctx context.Context, w studio.Who, in *struct {
		Hour string `path:"hour" maxLength:"26"`
	}) error {
		return diary.DropHour(ctx, s.app, w, in.Hour)
	})
	get(s, "/api/students/{student}/duets", "duets", "Who of the studio could play with a student's pieces in hand", func(ctx context.Context, w studio.Who, in *ofStudent) ([]diary.Duet, error) {
		return diary.Duets(ctx, s.app, w, in.Student)
	})
	get(s, "/api/reports", "reports", "The reports of all students of a term", func(ctx context.Context, w studio.Who, in *struct {
		From calendar.Date `query:"from" maxLength:"10" doc:"first day of the term; the newest when left out"`
	}) (sending.ReportsView, error) {
		return sending.Reports(ctx, s.app, w, in.From)
	})
	download(s, "/api/reports.pdf", "print-reports", "The kept reports of a term, one page each", "application/pdf", func(ctx context.Context, w studio.Who, in *struct {
		From    calendar.Date `query:"from" maxLength:"10" doc:"first day of the term; the newest when left out"`
		Student string        `query:"student" maxLength:"26" doc:"of one student; of all when left out"`
		Paper   letter.Paper  `query:"paper" enum:"A4,Letter" default:"A4"`
	}) (studio.Archive, error) {
		return sending.PrintReports(ctx, s.app, w, in.From, in.Student, in.Paper)
	})
}
