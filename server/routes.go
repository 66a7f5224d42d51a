package server

import (
	"context"
	"encoding/json"
	"mime"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/fact"
	"patientladder/studio"
)

// body wraps an answer.
type body[T any] struct{ Body T }

// A file is an answer that is not JSON.
type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// maxTable is the largest table of the shelf taken, in bytes.
const maxTable = 4 << 20

// maxArchive is the largest archive of a studio taken, in bytes.
const maxArchive = 256 << 20

type none struct{}

type ofStudent struct {
	Student string `path:"student" maxLength:"26"`
}

type ofItem struct {
	Item string `path:"item" maxLength:"60"`
}

// answer registers what asks one use case and answers with what it gives.
func answer[I, O any](s *Server, op huma.Operation, ask func(context.Context, studio.Who, *I) (O, error)) {
	huma.Register(s.api, op, func(ctx context.Context, in *I) (*body[O], error) {
		v, err := ask(ctx, who(ctx), in)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		return &body[O]{v}, nil
	})
}

// get registers a view: a GET.
func get[I, O any](s *Server, path, id, summary string, ask func(context.Context, studio.Who, *I) (O, error)) {
	answer(s, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary}, ask)
}

// change registers what changes something and answers with nothing.
func change[I any](s *Server, method, path, id, summary string, do func(context.Context, studio.Who, *I) error) {
	huma.Register(s.api, huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *I) (*none, error) { return nil, s.problem(ctx, do(ctx, who(ctx), in)) })
}

// post registers an ask that needs a body: a POST of it to one use case.
func post[I, O any](s *Server, path, id, summary string, ask func(context.Context, studio.Who, I) (O, error)) {
	answer(s, huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary},
		func(ctx context.Context, w studio.Who, in *body[I]) (O, error) { return ask(ctx, w, in.Body) })
}

// calendarFile registers a GET that answers with an iCalendar file.
func calendarFile[I any](s *Server, path, id, summary string, metadata map[string]any, write func(context.Context, *I) ([]byte, error)) {
	huma.Register(s.api, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary, Metadata: metadata},
		func(ctx context.Context, in *I) (*file, error) {
			data, err := write(ctx, in)
			if err != nil {
				return nil, s.problem(ctx, err)
			}
			return &file{"text/calendar; charset=utf-8", `attachment; filename="lessons.ics"`, data}, nil
		})
}

// download registers a GET that answers with a file to keep.
func download[I any](s *Server, path, id, summary, media string, ask func(context.Context, studio.Who, *I) (studio.Archive, error)) {
	huma.Register(s.api, huma.Operation{OperationID: id, Method: http.MethodGet, Path: path, Summary: summary},
		func(ctx context.Context, in *I) (*file, error) {
			out, err := ask(ctx, who(ctx), in)
			if err != nil {
				return nil, s.problem(ctx, err)
			}
			return &file{media, mime.FormatMediaType("attachment", map[string]string{"filename": out.Name}), out.Data}, nil
		})
}

// openToAll marks what answers without a sign-in.
var openToAll = map[string]any{public: true}

func (s *Server) routes() {
	s.accountRoutes()
	s.diaryRoutes()
	s.placesRoutes()
	s.familyRoutes()
	s.libraryRoutes()
	s.notesRoutes()
	s.sendingRoutes()
	s.rosterRoutes()
	s.mailbox()
	change(s, http.MethodPost, "/api/shelf/own-books", "own-books", "Put the shipped books on the shelf", func(ctx context.Context, w studio.Who, _ *none) error {
		if s.ownBooks == nil {
			return &studio.Error{Kind: studio.Missing, Says: "No books are shipped with this copy."}
		}
		return s.ownBooks(ctx, s.app, w)
	})
	change(s, http.MethodPost, "/api/facts", "tell", "Tell what happened; telling it twice changes nothing", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Facts []fact.Fact `json:"facts"`
		}
	}) error {
		return s.app.Tell(ctx, w, in.Body.Facts)
	})
}

// writeProblem answers with a problem where no operation does.
func writeProblem(w http.ResponseWriter, status int, says string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	// the answer is lost when the browser is gone; there is no one to tell
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: says})
}
