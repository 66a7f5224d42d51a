package server

import (
	"context"
	"encoding/json"
	"mime"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/echo"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/lesson"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/letter"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/library"
	"patientladder/studio/notes"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
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

type ofItem struct {
	Item string `path:"item" maxLength:"60"`
}

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

// answer registers what asks one use case and answers with what it gives.
func answer[I, O any](s *Server, op huma.Operation, ask func(context.Context, studio.Who, *I) (O, error)) {
	huma.Register(s.api, op, func(ctx context.Context, in *I) (*body[O], error) {
		v, err := ask(ctx, who(ctx), in)
		if err != nil {
			return nil, s.problem(err)
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
		func(ctx context.Context, in *I) (*none, error) { return nil, s.problem(do(ctx, who(ctx), in)) })
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
				return nil, s.problem(err)
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
				return nil, s.problem(err)
			}
			return &file{media, mime.FormatMediaType("attachment", map[string]string{"filename": out.Name}), out.Data}, nil
		})
}

func (s *Server) routes() {
	open := map[string]any{public: true}
	s.accountRoutes(open)
	s.recordRoutes()

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
	get(s, "/api/students/{student}", "student", "A student as kept", func(ctx context.Context, w studio.Who, in *ofStudent) (roster.StudentView, error) {
		return roster.Student(ctx, s.app, w, in.Student)
	})
	change(s, http.MethodPut, "/api/students/{student}", "correct-student", "Keep a student's names, birth and instrument as they should have been", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    roster.Person
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
	get(s, "/api/students/{student}/ladder", "ladder", "A student's ladder", func(ctx context.Context, w studio.Who, in *ofStudent) (places.LadderView, error) {
		return places.Ladder(ctx, s.app, w, in.Student)
	})
	get(s, "/api/students/{student}/lesson", "lesson", "A student's lesson, planned, in progress or closed", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Day     string `query:"day" maxLength:"10" doc:"of the lesson; today's or the next when left out"`
	}) (places.LessonView, error) {
		return places.Lesson(ctx, s.app, w, in.Student, calendar.Date(in.Day))
	})
	get(s, "/api/students/{student}/lesson/pace", "pace", "What the rest of a running lesson comes to", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Block   string `query:"block" maxLength:"100" doc:"key of the block in hand"`
		Minute  int    `query:"minute" minimum:"0" maximum:"600" doc:"of the lesson"`
	}) (lesson.Pace, error) {
		return places.Pace(ctx, s.app, w, in.Student, in.Block, in.Minute)
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
	get(s, "/api/students/{student}/seat", "seat", "How a student sits, here and at home", func(ctx context.Context, w studio.Who, in *ofStudent) (places.SeatView, error) {
		return places.Seat(ctx, s.app, w, in.Student)
	})
	post(s, "/api/seat", "try-seat", "Work out a seat; keeps nothing", func(ctx context.Context, w studio.Who, in places.SeatAsk) (places.SeatAt, error) {
		return places.TrySeat(ctx, s.app, w, in)
	})
	get(s, "/api/activities", "activities", "Games and studies that lessons draw on", func(ctx context.Context, w studio.Who, _ *none) (library.ActivitiesView, error) {
		return library.Activities(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/activities/{activity}", "save-activity", "Keep an activity of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
		Body     activity.Activity
	}) error {
		in.Body.ID = in.Activity
		return library.SaveActivity(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/activities/{activity}", "drop-activity", "Take an activity of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
	}) error {
		return library.DropActivity(ctx, s.app, w, in.Activity)
	})
	get(s, "/api/students/{student}/addable", "addable", "What may be added to a student's week sheet", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Find    string `query:"find" maxLength:"100" doc:"words of its title or book"`
	}) (places.AddableView, error) {
		return places.Addable(ctx, s.app, w, in.Student, in.Find)
	})
	get(s, "/api/students/{student}/week", "week", "A student's week sheet as it was given", func(ctx context.Context, w studio.Who, in *struct {
		Student  string `path:"student" maxLength:"26"`
		Day      string `query:"day" maxLength:"10" doc:"of the lesson that gave it; the last when left out"`
		Revision int    `query:"revision" minimum:"0" maximum:"10000" doc:"the newest when left out"`
	}) (places.WeekView, error) {
		return places.Week(ctx, s.app, w, in.Student, calendar.Date(in.Day), in.Revision)
	})
	answer(s, huma.Operation{OperationID: "make-link", Method: http.MethodPost, Path: "/api/students/{student}/links", Summary: "Make a link that opens the week to the family; its token is told this once"},
		func(ctx context.Context, w studio.Who, in *ofLinks) (family.NewLink, error) {
			return family.MakeLink(ctx, s.app, w, in.Student, in.Own)
		})
	change(s, http.MethodDelete, "/api/students/{student}/links", "end-links", "End the family's links to a student's week, or the student's own", func(ctx context.Context, w studio.Who, in *ofLinks) error {
		return family.EndLinks(ctx, s.app, w, in.Student, in.Own)
	})
	answer(s, huma.Operation{OperationID: "family", Method: http.MethodGet, Path: "/api/family/{token}", Summary: "The week that a family's link opens", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.FamilyView, error) {
			return family.Page(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-weeks", Method: http.MethodGet, Path: "/api/family/{token}/weeks", Summary: "The sheets that the family was given before", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.FamilyPast, error) {
			return family.Weeks(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "hear-at-home", Method: http.MethodGet, Path: "/api/family/{token}/sounds", Summary: "A line of the week's sheet, as it is heard", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofLine) (notes.Model, error) {
			return family.Model(ctx, s.app, in.Token, in.Line)
		})
	answer(s, huma.Operation{OperationID: "see-at-home", Method: http.MethodGet, Path: "/api/family/{token}/notes", Summary: "The notes of a line of the week's sheet", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofLine) (family.FamilyNotes, error) {
			return family.Notes(ctx, s.app, in.Token, in.Line)
		})
	calendarFile(s, "/api/family/{token}/lessons.ics", "family-lessons", "The lessons of the student that a link opens", open, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return diary.FamilyLessons(ctx, s.app, in.Token)
	})
	calendarFile(s, "/api/feeds/{token}", "feed", "The studio's lessons, for a calendar program to follow", open, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return diary.Feed(ctx, s.app, in.Token)
	})
	calendarFile(s, "/api/lessons.ics", "lessons", "The studio's lessons as a calendar file", nil, func(ctx context.Context, _ *none) ([]byte, error) {
		return diary.Lessons(ctx, s.app, who(ctx))
	})
	get(s, "/api/calendar", "calendar", "Terms, free spans, weekly lessons and what is moved", func(ctx context.Context, w studio.Who, _ *none) (diary.CalendarView, error) {
		return diary.Calendar(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/calendar", "set-calendar", "Keep terms and free spans", func(ctx context.Context, w studio.Who, in *body[calendar.Calendar]) error {
		return diary.SetCalendar(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodPut, "/api/students/{student}/slot", "set-slot", "Keep a student's weekly lesson", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    calendar.Slot
	}) error {
		return diary.SetSlot(ctx, s.app, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "make-feed", Method: http.MethodPost, Path: "/api/feed", Summary: "Make a new address of the calendar feed; its token is told this once"},
		func(ctx context.Context, w studio.Who, _ *none) (family.NewLink, error) {
			return diary.MakeFeed(ctx, s.app, w)
		})
	get(s, "/api/sheets", "sheets", "The week sheets of a day's lessons", func(ctx context.Context, w studio.Who, in *struct {
		Date string `query:"date" maxLength:"10" doc:"today when left out"`
	}) (sending.SheetsView, error) {
		return sending.Sheets(ctx, s.app, w, calendar.Date(in.Date))
	})
	answer(s, huma.Operation{OperationID: "send-sheet", Method: http.MethodPost, Path: "/api/students/{student}/sendings", Summary: "Mail the week sheet to the family; sending the same id twice sends once"},
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
	change(s, http.MethodPut, "/api/students/{student}/contact", "set-contact", "Keep the mail address that sheets go to", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    struct {
			Address string `json:"address" maxLength:"400" doc:"two at most, with a comma between them"`
		}
	}) error {
		return roster.SetContact(ctx, s.app, w, in.Student, in.Body.Address)
	})
	s.mailbox()
	huma.Register(s.api, huma.Operation{OperationID: "tell-from-home", Method: http.MethodPost, Path: "/api/family/{token}/facts", Summary: "Tell what happened at home; telling it twice changes nothing", DefaultStatus: 204, Metadata: open},
		func(ctx context.Context, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  struct {
				Facts []fact.Fact `json:"facts"`
			}
		}) (*none, error) {
			return nil, s.problem(family.Tell(ctx, s.app, in.Token, in.Body.Facts))
		})
	get(s, "/api/students/{student}/placement", "placement", "What a student from elsewhere can do, and what to ask after next", func(ctx context.Context, w studio.Who, in *struct {
		Student string   `path:"student" maxLength:"26"`
		Skip    []string `query:"skip" maxItems:"200" doc:"skills that are not to be asked after"`
	}) (places.PlacementView, error) {
		return places.Placement(ctx, s.app, w, in.Student, in.Skip)
	})
	get(s, "/api/students/{student}/approach", "approach", "A student's settings where teachers disagree", func(ctx context.Context, w studio.Who, in *ofStudent) (places.ApproachView, error) {
		return places.Approach(ctx, s.app, w, in.Student)
	})
	get(s, "/api/students/{student}/approach/{question}/{school}", "effects", "What answering a question otherwise would change", func(ctx context.Context, w studio.Who, in *struct {
		Student  string `path:"student" maxLength:"26"`
		Question string `path:"question" maxLength:"40"`
		School   string `path:"school" maxLength:"40"`
	}) (places.EffectsView, error) {
		return places.Effects(ctx, s.app, w, in.Student, in.Question, in.School)
	})
	get(s, "/api/shelf", "shelf", "All materials with their loads", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"whose loads; a typical student's when left out"`
		From    int    `query:"from" minimum:"0" doc:"the place of the first item: that which the part before gave as next"`
	}) (library.ShelfView, error) {
		return library.Shelf(ctx, s.app, w, in.Student, in.From)
	})
	get(s, "/api/forecasts", "forecasts", "How the studio's forecasts held", func(ctx context.Context, w studio.Who, _ *none) (diary.ForecastsView, error) {
		return diary.Forecasts(ctx, s.app, w)
	})
	get(s, "/api/skills", "skills", "The skill graph, and the numbers that are ours", func(ctx context.Context, w studio.Who, _ *none) (library.SkillsView, error) {
		return library.Skills(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/skills/{skill}", "save-skill", "Keep a skill of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
		Body  skill.Skill
	}) error {
		in.Body.ID = in.Skill
		return library.SaveSkill(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/skills/{skill}", "drop-skill", "Take a skill of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
	}) error {
		return library.DropSkill(ctx, s.app, w, in.Skill)
	})
	get(s, "/api/instruments", "instruments", "The instruments that students may play", func(ctx context.Context, w studio.Who, _ *none) (library.InstrumentsView, error) {
		return library.Instruments(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/instruments/{instrument}", "save-instrument", "Keep an instrument or a tuning of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
		Body       library.InstrumentView
	}) error {
		in.Body.ID = in.Instrument
		return library.SaveInstrument(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/instruments/{instrument}", "drop-instrument", "Take an instrument of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
	}) error {
		return library.DropInstrument(ctx, s.app, w, in.Instrument)
	})
	get(s, "/api/items/{item}", "item", "One item and what its score tells", func(ctx context.Context, w studio.Who, in *ofItem) (library.ItemView, error) {
		return library.Item(ctx, s.app, w, in.Item)
	})

	huma.Register(s.api, huma.Operation{OperationID: "score", Method: http.MethodGet, Path: "/api/items/{item}/score", Summary: "An item's score as MusicXML",
		Responses: map[string]*huma.Response{"200": {Description: "MusicXML", Content: map[string]*huma.MediaType{"application/vnd.recordare.musicxml+xml": {}}}}},
		func(ctx context.Context, in *struct {
			Item      string `path:"item" maxLength:"60"`
			Tablature string `query:"tablature" enum:"under,instead" doc:"of fretted instruments: beside the staff, or without it"`
			Minor     bool   `query:"minor" doc:"in its minor form, of a piece in a major key"`
		}) (*file, error) {
			xml, err := notes.Engraved(ctx, s.app, who(ctx), in.Item, in.Tablature, in.Minor)
			if err != nil {
				return nil, s.problem(err)
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
				return nil, s.problem(err)
			}
			return &file{in.Format.Media(), mime.FormatMediaType("attachment", map[string]string{"filename": out.Name}), out.Data}, nil
		})
	post(s, "/api/exercise", "exercise", "Make an exercise by rule; keeps nothing", func(ctx context.Context, w studio.Who, in library.ExerciseAsk) (library.ExerciseView, error) {
		return library.Exercise(ctx, s.app, w, in)
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
	get(s, "/api/listening", "listening", "What can be listened to and answered", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"empty for anybody"`
	}) (family.ListenView, error) {
		return family.Listening(ctx, s.app, w, in.Student)
	})
	post(s, "/api/listening/call", "call", "Ask a question of a round of listening", func(ctx context.Context, w studio.Who, in family.CallAsk) (echo.Call, error) {
		return family.Call(ctx, s.app, w, in)
	})
	post(s, "/api/listening/reply", "reply", "Judge its answer; keeps nothing", func(ctx context.Context, w studio.Who, in family.ReplyAsk) (family.ReplyView, error) {
		return family.Reply(ctx, s.app, w, in)
	})
	answer(s, huma.Operation{OperationID: "family-listening", Method: http.MethodGet, Path: "/api/family/{token}/listening", Summary: "What can be listened to and answered at home", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (family.ListenView, error) {
			return family.FamilyListening(ctx, s.app, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-call", Method: http.MethodPost, Path: "/api/family/{token}/listening/call", Summary: "Ask a question of a round of listening at home", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  family.CallAsk
		}) (echo.Call, error) {
			return family.FamilyCall(ctx, s.app, in.Token, in.Body)
		})
	answer(s, huma.Operation{OperationID: "family-reply", Method: http.MethodPost, Path: "/api/family/{token}/listening/reply", Summary: "Judge its answer; keeps nothing", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  family.ReplyAsk
		}) (family.ReplyView, error) {
			return family.FamilyReply(ctx, s.app, in.Token, in.Body)
		})
	huma.Register(s.api, huma.Operation{OperationID: "keep-exercise", Method: http.MethodPut, Path: "/api/exercises/{exercise}", Summary: "Put an exercise made by rule on the shelf; the same again is the same item"},
		func(ctx context.Context, in *struct {
			Exercise string `path:"exercise" minLength:"26" maxLength:"26" doc:"id of the item, made by the client: a ULID"`
			Body     library.ExerciseAsk
		}) (*body[shelf.Item], error) {
			it, err := library.KeepExercise(ctx, s.app, who(ctx), in.Exercise, in.Body)
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[shelf.Item]{it}, nil
		})
	post(s, "/api/draft", "draft", "Read a tune as it is typed; keeps nothing", func(ctx context.Context, w studio.Who, in notes.Draft) (notes.DraftView, error) {
		return notes.ReadDraft(ctx, s.app, w, in)
	})
	get(s, "/api/words", "words", "Spoken phrases for rhythms", func(ctx context.Context, w studio.Who, _ *none) (notes.WordsView, error) {
		return notes.Words(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/words", "set-words", "Keep the spoken phrases; an empty list takes back those the program brings", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Words reading.Words `json:"words"`
		}
	}) error {
		return notes.SetWords(ctx, s.app, w, in.Body.Words)
	})
	huma.Register(s.api, huma.Operation{OperationID: "import", Method: http.MethodPost, Path: "/api/import", Summary: "Put a score file on the shelf", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, in *importInput) (*body[library.Imported], error) {
			out, err := library.BringIn(ctx, s.app, who(ctx), library.Import{ID: in.ID, FileName: in.Name, Data: in.RawBody, Book: in.Book, Unit: in.Unit, Instrument: in.Instrument, Strand: in.Strand, Again: in.Again, Parts: in.Parts})
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[library.Imported]{out}, nil
		})
	post(s, "/api/students", "add-student", "Take on a student", func(ctx context.Context, w studio.Who, in roster.NewStudent) (studio.StudentCard, error) {
		return roster.AddStudent(ctx, s.app, w, in)
	})
	post(s, "/api/students/preview", "begin", "How a new student would begin; keeps nothing", func(ctx context.Context, w studio.Who, in roster.NewStudent) (roster.Beginning, error) {
		return roster.Begin(ctx, s.app, w, in)
	})
	post(s, "/api/items/check", "check-item", "What is wrong with an item; keeps nothing", func(ctx context.Context, w studio.Who, in shelf.Item) (library.FaultsView, error) {
		return library.CheckItem(ctx, s.app, w, in)
	})
	change(s, http.MethodPut, "/api/items/{item}", "save-item", "Keep an item edited by hand, or a new one", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body shelf.Item
	}) error {
		in.Body.ID = in.Item
		return library.SaveItem(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodPut, "/api/items/{item}/same", "same-item", "Tell that an item is the same as another; as nothing, that it is one of its own again", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body struct {
			As string `json:"as" maxLength:"60"`
		}
	}) error {
		return library.SameItem(ctx, s.app, w, in.Item, in.Body.As)
	})
	change(s, http.MethodDelete, "/api/items/{item}", "drop-item", "Take an item off the shelf for good; one that a student has or had is archived instead", func(ctx context.Context, w studio.Who, in *ofItem) error {
		return library.DropItem(ctx, s.app, w, in.Item)
	})
	huma.Register(s.api, huma.Operation{OperationID: "replace-score", Method: http.MethodPut, Path: "/api/items/{item}/score", Summary: "Give an item another score file; marks stay", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, in *struct {
			Item    string `path:"item" maxLength:"60"`
			Name    string `query:"name" required:"true" minLength:"1" maxLength:"200"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (*body[library.Replaced], error) {
			out, err := library.ReplaceScore(ctx, s.app, who(ctx), in.Item, in.Name, in.RawBody)
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[library.Replaced]{out}, nil
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
	change(s, http.MethodPost, "/api/shelf/own-books", "own-books", "Put the shipped books on the shelf", func(ctx context.Context, w studio.Who, _ *none) error {
		if s.ownBooks == nil {
			return &studio.Error{Kind: studio.Missing, Says: "No books are shipped with this copy."}
		}
		return s.ownBooks(ctx, s.app, w)
	})
	change(s, http.MethodPut, "/api/home", "set-home", "Keep what an instrument can do: a student's, or the studio's", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"the studio's own when left out"`
		Body    shelf.Home
	}) error {
		return roster.SetHome(ctx, s.app, w, in.Student, in.Body)
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
	answer(s, huma.Operation{OperationID: "add-titles", Method: http.MethodPost, Path: "/api/shelf/titles", Summary: "Put a book on the shelf from a list of its titles"},
		func(ctx context.Context, w studio.Who, in *body[library.TitleList]) (library.Imported, error) {
			return library.AddTitles(ctx, s.app, w, in.Body)
		})
	get(s, "/api/studio", "export-studio", "All that the studio holds beside accounts, links and letters", func(ctx context.Context, w studio.Who, _ *none) (roster.StudioArchive, error) {
		return roster.ExportStudio(ctx, s.app, w)
	})
	huma.Register(s.api, huma.Operation{OperationID: "import-studio", Method: http.MethodPost, Path: "/api/studio", Summary: "Bring an archive into an empty studio", DefaultStatus: http.StatusNoContent, MaxBodyBytes: maxArchive},
		func(ctx context.Context, in *body[roster.StudioArchive]) (*none, error) {
			return nil, s.problem(roster.ImportStudio(ctx, s.app, who(ctx), in.Body))
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
	change(s, http.MethodPost, "/api/facts", "tell", "Tell what happened; telling it twice changes nothing", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Facts []fact.Fact `json:"facts"`
		}
	}) error {
		return s.app.Tell(ctx, w, in.Body.Facts)
	})
	change(s, http.MethodPut, "/api/clock", "set-clock", "Move a demo studio's clock", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			To time.Time `json:"to"`
		}
	}) error {
		return diary.SetClock(ctx, s.app, w, in.Body.To)
	})
}

// writeProblem answers with a problem where no operation does.
func writeProblem(w http.ResponseWriter, status int, says string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	// the answer is lost when the browser is gone; there is no one to tell
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: says})
}
