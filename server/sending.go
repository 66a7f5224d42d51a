package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/calendar"
	"patientladder/core/report"
	"patientladder/letter"
	"patientladder/studio"
	"patientladder/studio/places"
	"patientladder/studio/sending"
)

// sendingRoutes registers what is mailed and printed.
func (s *Server) sendingRoutes() {
	get(s, "/api/sheets", "sheets", "The week sheets of a day's lessons", func(ctx context.Context, w studio.Who, in *struct {
		Date string `query:"date" maxLength:"10" doc:"today when left out"`
	}) (sending.SheetsView, error) {
		return sending.Sheets(ctx, s.app, w, calendar.Date(in.Date))
	})
	answer(s, huma.Operation{OperationID: "send-sheet", Method: http.MethodPost, Path: "/api/students/{student}/sendings", Summary: "Send the week sheet to the family in a few seconds; sending the same id twice sends once"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Body    struct {
				ID    string        `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
				Paper letter.Paper  `json:"paper" enum:"A4,Letter"`
				Day   calendar.Date `json:"day,omitempty" doc:"of the lesson that gave it; the last when left out"`
			}
		}) (places.Sending, error) {
			return sending.SendSheet(ctx, s.app, w, in.Student, in.Body.Day, in.Body.ID, in.Body.Paper)
		})
	get(s, "/api/sendings/{sending}", "sending", "How the letters of a sending stand", func(ctx context.Context, w studio.Who, in *struct {
		Sending string `path:"sending" minLength:"26" maxLength:"26"`
	}) (places.Sending, error) {
		return sending.Fared(ctx, s.app, w, in.Sending)
	})
	answer(s, huma.Operation{OperationID: "undo-sending", Method: http.MethodDelete, Path: "/api/sendings/{sending}", Summary: "Take back letters that still wait to go out"},
		func(ctx context.Context, w studio.Who, in *struct {
			Sending string `path:"sending" minLength:"26" maxLength:"26"`
		}) (places.Sending, error) {
			return sending.Undo(ctx, s.app, w, in.Sending)
		})
	get(s, "/api/students/{student}/report", "report", "A student's report of a term, kept or drafted", func(ctx context.Context, w studio.Who, in *struct {
		Student string        `path:"student" maxLength:"26"`
		From    calendar.Date `query:"from" maxLength:"10" doc:"first day of the term; the newest when left out"`
	}) (sending.ReportView, error) {
		return sending.Report(ctx, s.app, w, in.Student, in.From)
	})
	change(s, http.MethodPut, "/api/students/{student}/report", "keep-report", "Keep a report as the teacher wrote it", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    studio.Change[report.Report]
	}) error {
		return sending.KeepReport(ctx, s.app, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "send-report", Method: http.MethodPost, Path: "/api/students/{student}/report/letters", Summary: "Send a report as it was kept in a few seconds; sending the same id twice sends once"},
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
	download(s, "/api/students/{student}/can-play.pdf", "can-play", "What a student can play, as a list to keep", "application/pdf", func(ctx context.Context, w studio.Who, in *struct {
		Student string       `path:"student" maxLength:"26"`
		Paper   letter.Paper `query:"paper" enum:"A4,Letter" default:"A4"`
	}) (studio.Archive, error) {
		return sending.CanPlay(ctx, s.app, w, in.Student, in.Paper)
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
