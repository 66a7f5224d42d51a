package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/activity"
	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/studio"
	"patientladder/studio/library"
)

type importInput struct {
	ID         string        `query:"id" required:"true" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
	Name       string        `query:"name" required:"true" minLength:"1" maxLength:"200"`
	Book       string        `query:"book" maxLength:"200"`
	Unit       string        `query:"unit" maxLength:"200"`
	Instrument instrument.ID `query:"instrument" required:"true"`
	Strand     shelf.Strand  `query:"strand" required:"true" enum:"book,technique,reading,repertoire"`
	Again      bool          `query:"again" doc:"though the same file is there already"`
	Parts      []int         `query:"parts" maxItems:"64" doc:"that the student plays, from 1, of a score for several"`
	RawBody    []byte        `contentType:"application/octet-stream"`
}

// libraryRoutes registers the shelf and what is the studio's own.
func (s *Server) libraryRoutes() {
	get(s, "/api/activities", "activities", "Games and studies that lessons draw on", func(ctx context.Context, w studio.Who, _ *none) (library.ActivitiesView, error) {
		return library.Activities(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/activities/{activity}", "save-activity", "Keep an activity of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
		Body     studio.Change[activity.Activity]
	}) error {
		return library.SaveActivity(ctx, s.app, w, in.Activity, in.Body)
	})
	change(s, http.MethodDelete, "/api/activities/{activity}", "drop-activity", "Take an activity of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
		Body     wasSeen[activity.Activity]
	}) error {
		return library.DropActivity(ctx, s.app, w, in.Activity, &in.Body.Was)
	})
	get(s, "/api/shelf", "shelf", "All materials with their loads", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"whose loads; a typical student's when left out"`
		From    int    `query:"from" minimum:"0" doc:"the place of the first item: that which the part before gave as next"`
	}) (library.ShelfView, error) {
		return library.Shelf(ctx, s.app, w, in.Student, in.From)
	})
	get(s, "/api/skills", "skills", "The skill graph, and the numbers that are ours", func(ctx context.Context, w studio.Who, _ *none) (library.SkillsView, error) {
		return library.Skills(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/skills/{skill}", "save-skill", "Keep a skill of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
		Body  studio.Change[skill.Skill]
	}) error {
		return library.SaveSkill(ctx, s.app, w, in.Skill, in.Body)
	})
	change(s, http.MethodDelete, "/api/skills/{skill}", "drop-skill", "Take a skill of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
		Body  wasSeen[skill.Skill]
	}) error {
		return library.DropSkill(ctx, s.app, w, in.Skill, &in.Body.Was)
	})
	get(s, "/api/instruments", "instruments", "The instruments that students may play", func(ctx context.Context, w studio.Who, _ *none) (library.InstrumentsView, error) {
		return library.Instruments(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/instruments/{instrument}", "save-instrument", "Keep an instrument or a tuning of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
		Body       studio.Change[library.InstrumentView]
	}) error {
		return library.SaveInstrument(ctx, s.app, w, in.Instrument, in.Body)
	})
	change(s, http.MethodDelete, "/api/instruments/{instrument}", "drop-instrument", "Take an instrument of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
		Body       wasSeen[library.InstrumentView]
	}) error {
		return library.DropInstrument(ctx, s.app, w, in.Instrument, &in.Body.Was)
	})
	get(s, "/api/items/{item}", "item", "One item and what its score tells", func(ctx context.Context, w studio.Who, in *ofItem) (library.ItemView, error) {
		return library.Item(ctx, s.app, w, in.Item)
	})
	post(s, "/api/exercise", "exercise", "Make an exercise by rule; keeps nothing", func(ctx context.Context, w studio.Who, in library.ExerciseAsk) (library.ExerciseView, error) {
		return library.Exercise(ctx, s.app, w, in)
	})
	answer(s, huma.Operation{OperationID: "keep-exercise", Method: http.MethodPut, Path: "/api/exercises/{exercise}", Summary: "Put an exercise made by rule on the shelf; the same again is the same item"},
		func(ctx context.Context, w studio.Who, in *struct {
			Exercise string `path:"exercise" minLength:"26" maxLength:"26" doc:"id of the item, made by the client: a ULID"`
			Body     library.ExerciseAsk
		}) (shelf.Item, error) {
			return library.KeepExercise(ctx, s.app, w, in.Exercise, in.Body)
		})
	answer(s, huma.Operation{OperationID: "import", Method: http.MethodPost, Path: "/api/import", Summary: "Put a score file on the shelf", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, w studio.Who, in *importInput) (library.Imported, error) {
			return library.BringIn(ctx, s.app, w, library.Import{ID: in.ID, FileName: in.Name, Data: in.RawBody, Book: in.Book, Unit: in.Unit, Instrument: in.Instrument, Strand: in.Strand, Again: in.Again, Parts: in.Parts})
		})
	post(s, "/api/items/check", "check-item", "What is wrong with an item; keeps nothing", func(ctx context.Context, w studio.Who, in shelf.Item) (library.FaultsView, error) {
		return library.CheckItem(ctx, s.app, w, in)
	})
	change(s, http.MethodPut, "/api/items/{item}", "save-item", "Keep an item edited by hand, or a new one", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body studio.Change[shelf.Item]
	}) error {
		return library.SaveItem(ctx, s.app, w, in.Item, in.Body)
	})
	change(s, http.MethodPut, "/api/items/{item}/same", "same-item", "Tell that an item is the same as another; as nothing, that it is one of its own again", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body struct {
			As string `json:"as" maxLength:"60"`
		}
	}) error {
		return library.SameItem(ctx, s.app, w, in.Item, in.Body.As)
	})
	change(s, http.MethodDelete, "/api/items/{item}", "drop-item", "Take an item off the shelf for good; one that a student has or had is archived instead", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body wasSeen[shelf.Item]
	}) error {
		return library.DropItem(ctx, s.app, w, in.Item, &in.Body.Was)
	})
	answer(s, huma.Operation{OperationID: "replace-score", Method: http.MethodPut, Path: "/api/items/{item}/score", Summary: "Give an item another score file; marks stay", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, w studio.Who, in *struct {
			Item    string `path:"item" maxLength:"60"`
			Name    string `query:"name" required:"true" minLength:"1" maxLength:"200"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (library.Replaced, error) {
			return library.ReplaceScore(ctx, s.app, w, in.Item, in.Name, in.RawBody)
		})
	change(s, http.MethodPut, "/api/books", "rename-book", "Give a book, or a unit of one, another title", func(ctx context.Context, w studio.Who, in *body[struct {
		Book  string `json:"book" maxLength:"200"`
		Unit  string `json:"unit,omitempty" maxLength:"200" doc:"the book itself when left out"`
		Title string `json:"title" minLength:"1" maxLength:"200"`
	}]) error {
		return library.RenameBook(ctx, s.app, w, in.Body.Book, in.Body.Unit, in.Body.Title)
	})
	change(s, http.MethodPut, "/api/books/away", "archive-book", "Lay a book away, or bring it back", func(ctx context.Context, w studio.Who, in *body[struct {
		Book string `json:"book" maxLength:"200"`
		Away bool   `json:"away"`
	}]) error {
		return library.ArchiveBook(ctx, s.app, w, in.Body.Book, in.Body.Away)
	})
	change(s, http.MethodDelete, "/api/books", "drop-book", "Take a book off the shelf for good; one of which a student has or had something is laid away instead", func(ctx context.Context, w studio.Who, in *struct {
		Book string `query:"book" required:"true" maxLength:"200"`
	}) error {
		return library.DropBook(ctx, s.app, w, in.Book)
	})
	download(s, "/api/shelf.csv", "shelf-table", "The shelf as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, _ *none) (studio.Archive, error) {
		return library.ShelfTable(ctx, s.app, w)
	})
	answer(s, huma.Operation{OperationID: "merge-table", Method: http.MethodPost, Path: "/api/shelf.csv", Summary: "Read a table against the shelf: what it would change, or keep it", MaxBodyBytes: maxTable},
		func(ctx context.Context, w studio.Who, in *struct {
			Save    bool   `query:"save"`
			Twins   bool   `query:"twins" doc:"also new items that seem to stand there already"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (library.TableView, error) {
			return library.Table(ctx, s.app, w, in.RawBody, in.Save, in.Twins)
		})
	answer(s, huma.Operation{OperationID: "add-titles", Method: http.MethodPost, Path: "/api/shelf/titles", Summary: "Put a book on the shelf from a list of its titles"},
		func(ctx context.Context, w studio.Who, in *body[library.TitleList]) (library.Imported, error) {
			return library.AddTitles(ctx, s.app, w, in.Body)
		})
}
