package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/studio/notes"
)

type ofLinks struct {
	Student string `path:"student" maxLength:"26"`
	Own     bool   `query:"own" doc:"the student's own, not the family's"`
}

type ofFamily struct {
	Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
}

type ofLine struct {
	Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
	Line  string `query:"line" required:"true" maxLength:"200" doc:"its key"`
}

// familyRoutes registers what a link opens, and the links.
func (s *Server) familyRoutes() {
	answer(s, huma.Operation{OperationID: "make-link", Method: http.MethodPost, Path: "/api/students/{student}/links", Summary: "Make a link that opens the week to the family; its token is told this once"},
		func(ctx context.Context, w studio.Who, in *ofLinks) (family.NewLink, error) {
			return family.MakeLink(ctx, s.app, w, in.Student, in.Own)
		})
	change(s, http.MethodDelete, "/api/students/{student}/links", "end-links", "End the family's links to a student's week, or the student's own", func(ctx context.Context, w studio.Who, in *ofLinks) error {
		return family.EndLinks(ctx, s.app, w, in.Student, in.Own)
	})
	answer(s, huma.Operation{OperationID: "family", Method: http.MethodGet, Path: "/api/family/{token}", Summary: "The week that a family's link opens", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.FamilyView, error) {
			return family.Page(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-weeks", Method: http.MethodGet, Path: "/api/family/{token}/weeks", Summary: "The sheets that the family was given before", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.FamilyPast, error) {
			return family.Weeks(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "hear-at-home", Method: http.MethodGet, Path: "/api/family/{token}/sounds", Summary: "A line of the week's sheet, as it is heard", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *ofLine) (notes.Model, error) {
			return family.Model(ctx, s.app, in.Token, in.Line)
		})
	answer(s, huma.Operation{OperationID: "see-at-home", Method: http.MethodGet, Path: "/api/family/{token}/notes", Summary: "The notes of a line of the week's sheet", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *ofLine) (family.FamilyNotes, error) {
			return family.Notes(ctx, s.app, in.Token, in.Line)
		})
	huma.Register(s.api, huma.Operation{OperationID: "tell-from-home", Method: http.MethodPost, Path: "/api/family/{token}/facts", Summary: "Tell what happened at home; telling it twice changes nothing", DefaultStatus: 204, Metadata: openToAll},
		func(ctx context.Context, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  struct {
				Facts []fact.Fact `json:"facts"`
			}
		}) (*none, error) {
			return nil, s.problem(ctx, family.Tell(ctx, s.app, in.Token, in.Body.Facts))
		})
	get(s, "/api/listening", "listening", "What can be listened to and answered", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"empty for anybody"`
	}) (family.ListenView, error) {
		return family.Listening(ctx, s.app, w, in.Student)
	})
	post(s, "/api/listening/call", "call", "Ask a question of a round of listening", func(ctx context.Context, w studio.Who, in family.CallAsk) (family.CallView, error) {
		return family.Call(ctx, s.app, w, in)
	})
	post(s, "/api/listening/reply", "reply", "Judge its answer; keeps nothing", func(ctx context.Context, w studio.Who, in family.ReplyAsk) (family.ReplyView, error) {
		return family.Reply(ctx, s.app, w, in)
	})
	answer(s, huma.Operation{OperationID: "family-listening", Method: http.MethodGet, Path: "/api/family/{token}/listening", Summary: "What can be listened to and answered at home", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.ListenView, error) {
			return family.FamilyListening(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-call", Method: http.MethodPost, Path: "/api/family/{token}/listening/call", Summary: "Ask a question of a round of listening at home", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  family.CallAsk
		}) (family.CallView, error) {
			return family.FamilyCall(ctx, s.app, in.Token, in.Body)
		})
	answer(s, huma.Operation{OperationID: "family-reply", Method: http.MethodPost, Path: "/api/family/{token}/listening/reply", Summary: "Judge its answer; keeps nothing", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  family.ReplyAsk
		}) (family.ReplyView, error) {
			return family.FamilyReply(ctx, s.app, in.Token, in.Body)
		})
}
