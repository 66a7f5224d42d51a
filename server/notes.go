package server

import (
	"context"
	"mime"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/studio"
	"patientladder/studio/notes"
)

// notesRoutes registers scores as they are read, heard and played in.
func (s *Server) notesRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "score", Method: http.MethodGet, Path: "/api/items/{item}/score", Summary: "An item's score as MusicXML",
		Responses: map[string]*huma.Response{"200": {Description: "MusicXML", Content: map[string]*huma.MediaType{"application/vnd.recordare.musicxml+xml": {}}}}},
		func(ctx context.Context, in *struct {
			Item      string `path:"item" maxLength:"60"`
			Tablature string `query:"tablature" enum:"under,instead" doc:"of fretted instruments: beside the staff, or without it"`
			Minor     bool   `query:"minor" doc:"in its minor form, of a piece in a major key"`
		}) (*file, error) {
			xml, err := notes.Engraved(ctx, s.app, who(ctx), in.Item, in.Tablature, in.Minor)
			if err != nil {
				return nil, s.problem(ctx, err)
			}
			return &file{Type: "application/vnd.recordare.musicxml+xml", Body: xml}, nil
		})
	get(s, "/api/items/{item}/reading", "reading", "An item's score as a teacher reads it", func(ctx context.Context, w studio.Who, in *struct {
		Item    string `path:"item" maxLength:"60"`
		Student string `query:"student" maxLength:"26" doc:"for whom; anybody when left out"`
	}) (notes.ReadingView, error) {
		return notes.Reading(ctx, s.app, w, in.Item, in.Student)
	})
	get(s, "/api/items/{item}/layers/{layer}", "layer", "One kind of annotation over an item's score", func(ctx context.Context, w studio.Who, in *struct {
		Item    string `path:"item" maxLength:"60"`
		Layer   string `path:"layer" maxLength:"20"`
		Student string `query:"student" maxLength:"26" doc:"for whom; anybody when left out"`
	}) (reading.Layer, error) {
		return notes.Layer(ctx, s.app, w, in.Item, in.Layer, in.Student)
	})
	huma.Register(s.api, huma.Operation{OperationID: "convert", Method: http.MethodGet, Path: "/api/items/{item}/file", Summary: "An item's score in another format, or with layers written into it"},
		func(ctx context.Context, in *struct {
			Item    string          `path:"item" maxLength:"60"`
			Format  notation.Format `query:"format" required:"true" maxLength:"20"`
			Layers  []string        `query:"layers" doc:"written into the copy; none when left out"`
			Student string          `query:"student" maxLength:"26"`
		}) (*file, error) {
			out, err := notes.Convert(ctx, s.app, who(ctx), in.Item, in.Format, in.Layers, in.Student)
			if err != nil {
				return nil, s.problem(ctx, err)
			}
			return &file{in.Format.Media(), mime.FormatMediaType("attachment", map[string]string{"filename": out.Name}), out.Data}, nil
		})
	post(s, "/api/played", "played", "Measure what was played in beside what was asked; keeps nothing", func(ctx context.Context, w studio.Who, in notes.PlayedAsk) (notes.PlayedView, error) {
		return notes.Played(ctx, s.app, w, in)
	})
	get(s, "/api/taps/{right}/{left}", "taps", "The steps to a cross-rhythm", func(ctx context.Context, w studio.Who, in *struct {
		Right   int    `path:"right" minimum:"2" maximum:"5" doc:"notes of the right hand"`
		Left    int    `path:"left" minimum:"2" maximum:"5"`
		Student string `query:"student" maxLength:"26" doc:"whose takes tell what holds; empty for anybody"`
	}) (notes.TapView, error) {
		return notes.Taps(ctx, s.app, w, in.Right, in.Left, in.Student)
	})
	post(s, "/api/draft", "draft", "Read a tune as it is typed; keeps nothing", func(ctx context.Context, w studio.Who, in notes.Draft) (notes.DraftView, error) {
		return notes.ReadDraft(ctx, s.app, w, in)
	})
	get(s, "/api/words", "words", "Spoken phrases for rhythms", func(ctx context.Context, w studio.Who, _ *none) (notes.WordsView, error) {
		return notes.Words(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/words", "set-words", "Keep the spoken phrases; an empty list takes back those the program brings", func(ctx context.Context, w studio.Who, in *struct {
		Body studio.Change[reading.Words]
	}) error {
		return notes.SetWords(ctx, s.app, w, in.Body)
	})
}
