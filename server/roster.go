package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/shelf"
	"patientladder/studio"
	"patientladder/studio/roster"
)

// rosterRoutes registers students as they come and go, and the studio as a whole.
func (s *Server) rosterRoutes() {
	get(s, "/api/students/{student}", "student", "A student as kept", func(ctx context.Context, w studio.Who, in *ofStudent) (roster.StudentView, error) {
		return roster.Student(ctx, s.app, w, in.Student)
	})
	change(s, http.MethodPut, "/api/students/{student}", "correct-student", "Keep a student's names, birth and instrument as they should have been", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    studio.Change[roster.Person]
	}) error {
		return roster.CorrectStudent(ctx, s.app, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "erase-student", Method: http.MethodDelete, Path: "/api/students/{student}", Summary: "Delete all that is kept of a student for good"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Name    string `query:"name" required:"true" maxLength:"100" doc:"the first name, as a person types it who knows what is meant"`
		}) (roster.Erasure, error) {
			return roster.EraseStudent(ctx, s.app, w, in.Student, in.Name)
		})
	download(s, "/api/students/{student}/export", "export-student", "All that is kept of a student, as JSON and as pages", "application/zip", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.Archive, error) {
		return roster.ExportStudent(ctx, s.app, w, in.Student)
	})
	answer(s, huma.Operation{OperationID: "move-marks", Method: http.MethodPost, Path: "/api/students/{student}/moved", Summary: "Take marks of the wrong student over to the right one"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Body    struct {
				To    string   `json:"to" maxLength:"26"`
				Marks []string `json:"marks" maxItems:"250" doc:"ids of facts"`
			}
		}) (roster.Moved, error) {
			return roster.MoveMarks(ctx, s.app, w, in.Student, in.Body.To, in.Body.Marks)
		})
	change(s, http.MethodPut, "/api/students/{student}/contact", "set-contact", "Keep the email address that sheets go to", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    studio.Change[roster.Contact]
	}) error {
		return roster.SetContact(ctx, s.app, w, in.Student, in.Body)
	})
	post(s, "/api/students", "add-student", "Take on a student", func(ctx context.Context, w studio.Who, in roster.NewStudent) (studio.StudentCard, error) {
		return roster.AddStudent(ctx, s.app, w, in)
	})
	post(s, "/api/students/preview", "begin", "How a new student would begin; keeps nothing", func(ctx context.Context, w studio.Who, in roster.NewStudent) (roster.Beginning, error) {
		return roster.Begin(ctx, s.app, w, in)
	})
	change(s, http.MethodPut, "/api/home", "set-home", "Keep what an instrument can do: a student's, or the studio's", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"the studio's own when left out"`
		Body    studio.Change[shelf.Home]
	}) error {
		return roster.SetHome(ctx, s.app, w, in.Student, in.Body)
	})
	download(s, "/api/students.csv", "roster", "The students as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, _ *none) (studio.Archive, error) {
		return roster.Roster(ctx, s.app, w)
	})
	answer(s, huma.Operation{OperationID: "merge-roster", Method: http.MethodPost, Path: "/api/students.csv", Summary: "Read a table of students: what it would change, or keep it", MaxBodyBytes: maxTable},
		func(ctx context.Context, w studio.Who, in *struct {
			Save    bool   `query:"save"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (roster.RosterView, error) {
			return roster.MergeRoster(ctx, s.app, w, in.RawBody, in.Save)
		})
	get(s, "/api/studio", "export-studio", "All that the studio holds beside accounts, links and letters", func(ctx context.Context, w studio.Who, _ *none) (roster.StudioArchive, error) {
		return roster.ExportStudio(ctx, s.app, w)
	})
	huma.Register(s.api, huma.Operation{OperationID: "import-studio", Method: http.MethodPost, Path: "/api/studio", Summary: "Bring an archive into an empty studio", DefaultStatus: http.StatusNoContent, MaxBodyBytes: maxArchive},
		func(ctx context.Context, in *body[roster.StudioArchive]) (*none, error) {
			return nil, s.problem(ctx, roster.ImportStudio(ctx, s.app, who(ctx), in.Body))
		})
	change(s, http.MethodDelete, "/api/studio", "delete-studio", "Delete all that the studio holds, or the studio with its accounts", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Name     string `json:"name" maxLength:"200" doc:"of the studio, as a person types it who knows what is meant"`
			Password string `json:"password" maxLength:"200"`
			Content  bool   `json:"content" doc:"only what it holds: students, items, games"`
		}
	}) error {
		if in.Body.Content {
			return roster.EmptyStudio(ctx, s.app, w, in.Body.Name, in.Body.Password)
		}
		if err := roster.DeleteStudio(ctx, s.app, w, in.Body.Name, in.Body.Password); err != nil {
			return err
		}
		return s.sessions.Destroy(ctx)
	})
	download(s, "/api/numbers.csv", "numbers-out", "What was told, footholds or practice of all students, as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, in *struct {
		Of string `query:"of" enum:"facts,footholds,practice" default:"facts"`
	}) (studio.Archive, error) {
		return roster.Numbers(ctx, s.app, w, in.Of)
	})
}
