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
	}) (studio.DayView, error) {
		return s.app.Day(ctx, w, calendar.Date(in.Date))
	})
	get(s, "/api/overview", "overview", "What all students need, and what to order or print for the next week", func(ctx context.Context, w studio.Who, _ *none) (studio.OverviewView, error) {
		return s.app.Overview(ctx, w)
	})
	get(s, "/api/today", "today", "The lessons of a day with their plans and what they need", func(ctx context.Context, w studio.Who, in *struct {
		Date calendar.Date `query:"date" maxLength:"10"`
	}) (studio.TodayView, error) {
		return s.app.Today(ctx, w, in.Date)
	})
	get(s, "/api/term", "term", "A term at a glance: what it has brought each student, beside the term before", func(ctx context.Context, w studio.Who, in *struct {
		From calendar.Date `query:"from" maxLength:"10" doc:"its first day; the newest when left out"`
	}) (studio.TermView, error) {
		return s.app.Term(ctx, w, in.From)
	})
	get(s, "/api/search", "search", "Pieces, skills, notes and sheets by words", func(ctx context.Context, w studio.Who, in *struct {
		Words string `query:"words" required:"true" maxLength:"200"`
	}) (studio.SearchView, error) {
		return s.app.Search(ctx, w, in.Words)
	})
	get(s, "/api/students/{student}", "student", "A student as kept", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.StudentView, error) {
		return s.app.Student(ctx, w, in.Student)
	})
	change(s, http.MethodPut, "/api/students/{student}", "correct-student", "Keep a student's names, birth and instrument as they should have been", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    studio.Person
	}) error {
		return s.app.CorrectStudent(ctx, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "erase-student", Method: http.MethodDelete, Path: "/api/students/{student}", Summary: "Delete all that is kept of a student for good"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Name    string `query:"name" required:"true" maxLength:"100" doc:"the first name, as a person types it who knows what is meant"`
		}) (studio.Erasure, error) {
			return s.app.EraseStudent(ctx, w, in.Student, in.Name)
		})
	download(s, "/api/students/{student}/export", "export-student", "All that is kept of a student, as JSON and as pages", "application/zip", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.Archive, error) {
		return s.app.ExportStudent(ctx, w, in.Student)
	})
	get(s, "/api/students/{student}/ladder", "ladder", "A student's ladder", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.LadderView, error) {
		return s.app.Ladder(ctx, w, in.Student)
	})
	get(s, "/api/students/{student}/lesson", "lesson", "A student's lesson, planned, in progress or closed", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Day     string `query:"day" maxLength:"10" doc:"of the lesson; today's or the next when left out"`
	}) (studio.LessonView, error) {
		return s.app.Lesson(ctx, w, in.Student, calendar.Date(in.Day))
	})
	get(s, "/api/students/{student}/lesson/pace", "pace", "What the rest of a running lesson comes to", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Block   string `query:"block" maxLength:"100" doc:"key of the block in hand"`
		Minute  int    `query:"minute" minimum:"0" maximum:"600" doc:"of the lesson"`
	}) (lesson.Pace, error) {
		return s.app.Pace(ctx, w, in.Student, in.Block, in.Minute)
	})
	answer(s, huma.Operation{OperationID: "move-marks", Method: http.MethodPost, Path: "/api/students/{student}/moved", Summary: "Take marks of the wrong student over to the right one"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Body    struct {
				To    string   `json:"to" maxLength:"26"`
				Marks []string `json:"marks" maxItems:"250" doc:"ids of facts"`
			}
		}) (studio.Moved, error) {
			return s.app.MoveMarks(ctx, w, in.Student, in.Body.To, in.Body.Marks)
		})
	get(s, "/api/students/{student}/seat", "seat", "How a student sits, here and at home", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.SeatView, error) {
		return s.app.Seat(ctx, w, in.Student)
	})
	post(s, "/api/seat", "try-seat", "Work out a seat; keeps nothing", func(ctx context.Context, w studio.Who, in studio.SeatAsk) (studio.SeatAt, error) {
		return s.app.TrySeat(ctx, w, in)
	})
	get(s, "/api/activities", "activities", "Games and studies that lessons draw on", func(ctx context.Context, w studio.Who, _ *none) (studio.ActivitiesView, error) {
		return s.app.Activities(ctx, w)
	})
	change(s, http.MethodPut, "/api/activities/{activity}", "save-activity", "Keep an activity of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
		Body     activity.Activity
	}) error {
		in.Body.ID = in.Activity
		return s.app.SaveActivity(ctx, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/activities/{activity}", "drop-activity", "Take an activity of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Activity string `path:"activity" maxLength:"40"`
	}) error {
		return s.app.DropActivity(ctx, w, in.Activity)
	})
	get(s, "/api/students/{student}/addable", "addable", "What may be added to a student's week sheet", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Find    string `query:"find" maxLength:"100" doc:"words of its title or book"`
	}) (studio.AddableView, error) {
		return s.app.Addable(ctx, w, in.Student, in.Find)
	})
	get(s, "/api/students/{student}/week", "week", "A student's week sheet as it was given", func(ctx context.Context, w studio.Who, in *struct {
		Student  string `path:"student" maxLength:"26"`
		Day      string `query:"day" maxLength:"10" doc:"of the lesson that gave it; the last when left out"`
		Revision int    `query:"revision" minimum:"0" maximum:"10000" doc:"the newest when left out"`
	}) (studio.WeekView, error) {
		return s.app.Week(ctx, w, in.Student, calendar.Date(in.Day), in.Revision)
	})
	answer(s, huma.Operation{OperationID: "make-link", Method: http.MethodPost, Path: "/api/students/{student}/links", Summary: "Make a link that opens the week to the family; its token is told this once"},
		func(ctx context.Context, w studio.Who, in *ofLinks) (studio.NewLink, error) {
			return s.app.MakeLink(ctx, w, in.Student, in.Own)
		})
	change(s, http.MethodDelete, "/api/students/{student}/links", "end-links", "End the family's links to a student's week, or the student's own", func(ctx context.Context, w studio.Who, in *ofLinks) error {
		return s.app.EndLinks(ctx, w, in.Student, in.Own)
	})
	answer(s, huma.Operation{OperationID: "family", Method: http.MethodGet, Path: "/api/family/{token}", Summary: "The week that a family's link opens", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (studio.FamilyView, error) {
			return s.app.Family(ctx, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-weeks", Method: http.MethodGet, Path: "/api/family/{token}/weeks", Summary: "The sheets that the family was given before", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (studio.FamilyPast, error) {
			return s.app.FamilyWeeks(ctx, in.Token)
		})
	answer(s, huma.Operation{OperationID: "hear-at-home", Method: http.MethodGet, Path: "/api/family/{token}/sounds", Summary: "A line of the week's sheet, as it is heard", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofLine) (studio.Model, error) {
			return s.app.FamilyModel(ctx, in.Token, in.Line)
		})
	answer(s, huma.Operation{OperationID: "see-at-home", Method: http.MethodGet, Path: "/api/family/{token}/notes", Summary: "The notes of a line of the week's sheet", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofLine) (studio.FamilyNotes, error) {
			return s.app.FamilyNotes(ctx, in.Token, in.Line)
		})
	calendarFile(s, "/api/family/{token}/lessons.ics", "family-lessons", "The lessons of the student that a link opens", open, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return s.app.FamilyLessons(ctx, in.Token)
	})
	calendarFile(s, "/api/feeds/{token}", "feed", "The studio's lessons, for a calendar program to follow", open, func(ctx context.Context, in *ofFamily) ([]byte, error) {
		return s.app.Feed(ctx, in.Token)
	})
	calendarFile(s, "/api/lessons.ics", "lessons", "The studio's lessons as a calendar file", nil, func(ctx context.Context, _ *none) ([]byte, error) {
		return s.app.Lessons(ctx, who(ctx))
	})
	get(s, "/api/calendar", "calendar", "Terms, free spans, weekly lessons and what is moved", func(ctx context.Context, w studio.Who, _ *none) (studio.CalendarView, error) {
		return s.app.Calendar(ctx, w)
	})
	change(s, http.MethodPut, "/api/calendar", "set-calendar", "Keep terms and free spans", func(ctx context.Context, w studio.Who, in *body[calendar.Calendar]) error {
		return s.app.SetCalendar(ctx, w, in.Body)
	})
	change(s, http.MethodPut, "/api/students/{student}/slot", "set-slot", "Keep a student's weekly lesson", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    calendar.Slot
	}) error {
		return s.app.SetSlot(ctx, w, in.Student, in.Body)
	})
	answer(s, huma.Operation{OperationID: "make-feed", Method: http.MethodPost, Path: "/api/feed", Summary: "Make a new address of the calendar feed; its token is told this once"},
		func(ctx context.Context, w studio.Who, _ *none) (studio.NewLink, error) {
			return s.app.MakeFeed(ctx, w)
		})
	get(s, "/api/sheets", "sheets", "The week sheets of a day's lessons", func(ctx context.Context, w studio.Who, in *struct {
		Date string `query:"date" maxLength:"10" doc:"today when left out"`
	}) (studio.SheetsView, error) {
		return s.app.Sheets(ctx, w, calendar.Date(in.Date))
	})
	answer(s, huma.Operation{OperationID: "send-sheet", Method: http.MethodPost, Path: "/api/students/{student}/sendings", Summary: "Mail the week sheet to the family; sending the same id twice sends once"},
		func(ctx context.Context, w studio.Who, in *struct {
			Student string `path:"student" maxLength:"26"`
			Body    struct {
				ID    string        `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
				Paper letter.Paper  `json:"paper" enum:"A4,Letter"`
				Day   calendar.Date `json:"day,omitempty" doc:"of the lesson that gave it; the last when left out"`
			}
		}) (studio.Sending, error) {
			return s.app.SendSheet(ctx, w, in.Student, in.Body.Day, in.Body.ID, in.Body.Paper)
		})
	change(s, http.MethodPut, "/api/students/{student}/contact", "set-contact", "Keep the mail address that sheets go to", func(ctx context.Context, w studio.Who, in *struct {
		Student string `path:"student" maxLength:"26"`
		Body    struct {
			Address string `json:"address" maxLength:"400" doc:"two at most, with a comma between them"`
		}
	}) error {
		return s.app.SetContact(ctx, w, in.Student, in.Body.Address)
	})
	s.mailbox()
	huma.Register(s.api, huma.Operation{OperationID: "tell-from-home", Method: http.MethodPost, Path: "/api/family/{token}/facts", Summary: "Tell what happened at home; telling it twice changes nothing", DefaultStatus: 204, Metadata: open},
		func(ctx context.Context, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  struct {
				Facts []fact.Fact `json:"facts"`
			}
		}) (*none, error) {
			return nil, s.problem(s.app.TellFamily(ctx, in.Token, in.Body.Facts))
		})
	get(s, "/api/students/{student}/placement", "placement", "What a student from elsewhere can do, and what to ask after next", func(ctx context.Context, w studio.Who, in *struct {
		Student string   `path:"student" maxLength:"26"`
		Skip    []string `query:"skip" maxItems:"200" doc:"skills that are not to be asked after"`
	}) (studio.PlacementView, error) {
		return s.app.Placement(ctx, w, in.Student, in.Skip)
	})
	get(s, "/api/students/{student}/approach", "approach", "A student's settings where teachers disagree", func(ctx context.Context, w studio.Who, in *ofStudent) (studio.ApproachView, error) {
		return s.app.Approach(ctx, w, in.Student)
	})
	get(s, "/api/students/{student}/approach/{question}/{school}", "effects", "What answering a question otherwise would change", func(ctx context.Context, w studio.Who, in *struct {
		Student  string `path:"student" maxLength:"26"`
		Question string `path:"question" maxLength:"40"`
		School   string `path:"school" maxLength:"40"`
	}) (studio.EffectsView, error) {
		return s.app.Effects(ctx, w, in.Student, in.Question, in.School)
	})
	get(s, "/api/shelf", "shelf", "All materials with their loads", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"whose loads; a typical student's when left out"`
		From    int    `query:"from" minimum:"0" doc:"the place of the first item: that which the part before gave as next"`
	}) (studio.ShelfView, error) {
		return s.app.Shelf(ctx, w, in.Student, in.From)
	})
	get(s, "/api/forecasts", "forecasts", "How the studio's forecasts held", func(ctx context.Context, w studio.Who, _ *none) (studio.ForecastsView, error) {
		return s.app.Forecasts(ctx, w)
	})
	get(s, "/api/skills", "skills", "The skill graph, and the numbers that are ours", func(ctx context.Context, w studio.Who, _ *none) (studio.SkillsView, error) {
		return s.app.Skills(ctx, w)
	})
	change(s, http.MethodPut, "/api/skills/{skill}", "save-skill", "Keep a skill of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
		Body  skill.Skill
	}) error {
		in.Body.ID = in.Skill
		return s.app.SaveSkill(ctx, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/skills/{skill}", "drop-skill", "Take a skill of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Skill string `path:"skill" maxLength:"40"`
	}) error {
		return s.app.DropSkill(ctx, w, in.Skill)
	})
	get(s, "/api/instruments", "instruments", "The instruments that students may play", func(ctx context.Context, w studio.Who, _ *none) (studio.InstrumentsView, error) {
		return s.app.Instruments(ctx, w)
	})
	change(s, http.MethodPut, "/api/instruments/{instrument}", "save-instrument", "Keep an instrument or a tuning of the studio's own", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
		Body       studio.InstrumentView
	}) error {
		in.Body.ID = in.Instrument
		return s.app.SaveInstrument(ctx, w, in.Body)
	})
	change(s, http.MethodDelete, "/api/instruments/{instrument}", "drop-instrument", "Take an instrument of the studio's own away", func(ctx context.Context, w studio.Who, in *struct {
		Instrument instrument.ID `path:"instrument" maxLength:"40"`
	}) error {
		return s.app.DropInstrument(ctx, w, in.Instrument)
	})
	get(s, "/api/items/{item}", "item", "One item and what its score tells", func(ctx context.Context, w studio.Who, in *ofItem) (studio.ItemView, error) {
		return s.app.Item(ctx, w, in.Item)
	})

	huma.Register(s.api, huma.Operation{OperationID: "score", Method: http.MethodGet, Path: "/api/items/{item}/score", Summary: "An item's score as MusicXML",
		Responses: map[string]*huma.Response{"200": {Description: "MusicXML", Content: map[string]*huma.MediaType{"application/vnd.recordare.musicxml+xml": {}}}}},
		func(ctx context.Context, in *struct {
			Item      string `path:"item" maxLength:"60"`
			Tablature string `query:"tablature" enum:"under,instead" doc:"of fretted instruments: beside the staff, or without it"`
			Minor     bool   `query:"minor" doc:"in its minor form, of a piece in a major key"`
		}) (*file, error) {
			xml, err := s.app.Engraved(ctx, who(ctx), in.Item, in.Tablature, in.Minor)
			if err != nil {
				return nil, s.problem(err)
			}
			return &file{Type: "application/vnd.recordare.musicxml+xml", Body: xml}, nil
		})
	get(s, "/api/items/{item}/reading", "reading", "An item's score as a teacher reads it", func(ctx context.Context, w studio.Who, in *struct {
		Item    string `path:"item" maxLength:"60"`
		Student string `query:"student" maxLength:"26" doc:"for whom; anybody when left out"`
	}) (studio.ReadingView, error) {
		return s.app.Reading(ctx, w, in.Item, in.Student)
	})
	get(s, "/api/items/{item}/layers/{layer}", "layer", "One kind of annotation over an item's score", func(ctx context.Context, w studio.Who, in *struct {
		Item    string `path:"item" maxLength:"60"`
		Layer   string `path:"layer" maxLength:"20"`
		Student string `query:"student" maxLength:"26" doc:"for whom; anybody when left out"`
	}) (reading.Layer, error) {
		return s.app.Layer(ctx, w, in.Item, in.Layer, in.Student)
	})
	huma.Register(s.api, huma.Operation{OperationID: "convert", Method: http.MethodGet, Path: "/api/items/{item}/file", Summary: "An item's score in another format, or with layers written into it"},
		func(ctx context.Context, in *struct {
			Item    string          `path:"item" maxLength:"60"`
			Format  notation.Format `query:"format" required:"true" maxLength:"20"`
			Layers  []string        `query:"layers" doc:"written into the copy; none when left out"`
			Student string          `query:"student" maxLength:"26"`
		}) (*file, error) {
			out, err := s.app.Convert(ctx, who(ctx), in.Item, in.Format, in.Layers, in.Student)
			if err != nil {
				return nil, s.problem(err)
			}
			return &file{in.Format.Media(), mime.FormatMediaType("attachment", map[string]string{"filename": out.Name}), out.Data}, nil
		})
	post(s, "/api/exercise", "exercise", "Make an exercise by rule; keeps nothing", func(ctx context.Context, w studio.Who, in studio.ExerciseAsk) (studio.ExerciseView, error) {
		return s.app.Exercise(ctx, w, in)
	})
	post(s, "/api/played", "played", "Measure what was played in beside what was asked; keeps nothing", func(ctx context.Context, w studio.Who, in studio.PlayedAsk) (studio.PlayedView, error) {
		return s.app.Played(ctx, w, in)
	})
	get(s, "/api/taps/{right}/{left}", "taps", "The steps to a cross-rhythm", func(ctx context.Context, w studio.Who, in *struct {
		Right   int    `path:"right" minimum:"2" maximum:"5" doc:"notes of the right hand"`
		Left    int    `path:"left" minimum:"2" maximum:"5"`
		Student string `query:"student" maxLength:"26" doc:"whose takes tell what holds; empty for anybody"`
	}) (studio.TapView, error) {
		return s.app.Taps(ctx, w, in.Right, in.Left, in.Student)
	})
	get(s, "/api/listening", "listening", "What can be listened to and answered", func(ctx context.Context, w studio.Who, in *struct {
		Student string `query:"student" maxLength:"26" doc:"empty for anybody"`
	}) (studio.ListenView, error) {
		return s.app.Listening(ctx, w, in.Student)
	})
	post(s, "/api/listening/call", "call", "Ask a question of a round of listening", func(ctx context.Context, w studio.Who, in studio.CallAsk) (echo.Call, error) {
		return s.app.Call(ctx, w, in)
	})
	post(s, "/api/listening/reply", "reply", "Judge its answer; keeps nothing", func(ctx context.Context, w studio.Who, in studio.ReplyAsk) (studio.ReplyView, error) {
		return s.app.Reply(ctx, w, in)
	})
	answer(s, huma.Operation{OperationID: "family-listening", Method: http.MethodGet, Path: "/api/family/{token}/listening", Summary: "What can be listened to and answered at home", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *ofFamily) (studio.ListenView, error) {
			return s.app.FamilyListening(ctx, in.Token)
		})
	answer(s, huma.Operation{OperationID: "family-call", Method: http.MethodPost, Path: "/api/family/{token}/listening/call", Summary: "Ask a question of a round of listening at home", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  studio.CallAsk
		}) (echo.Call, error) {
			return s.app.FamilyCall(ctx, in.Token, in.Body)
		})
	answer(s, huma.Operation{OperationID: "family-reply", Method: http.MethodPost, Path: "/api/family/{token}/listening/reply", Summary: "Judge its answer; keeps nothing", Metadata: open},
		func(ctx context.Context, _ studio.Who, in *struct {
			Token string `path:"token" maxLength:"80" doc:"of a link, and after a ~ which instrument's student"`
			Body  studio.ReplyAsk
		}) (studio.ReplyView, error) {
			return s.app.FamilyReply(ctx, in.Token, in.Body)
		})
	huma.Register(s.api, huma.Operation{OperationID: "keep-exercise", Method: http.MethodPut, Path: "/api/exercises/{exercise}", Summary: "Put an exercise made by rule on the shelf; the same again is the same item"},
		func(ctx context.Context, in *struct {
			Exercise string `path:"exercise" minLength:"26" maxLength:"26" doc:"id of the item, made by the client: a ULID"`
			Body     studio.ExerciseAsk
		}) (*body[shelf.Item], error) {
			it, err := s.app.KeepExercise(ctx, who(ctx), in.Exercise, in.Body)
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[shelf.Item]{it}, nil
		})
	post(s, "/api/draft", "draft", "Read a tune as it is typed; keeps nothing", func(ctx context.Context, w studio.Who, in studio.Draft) (studio.DraftView, error) {
		return s.app.Draft(ctx, w, in)
	})
	get(s, "/api/words", "words", "Spoken phrases for rhythms", func(ctx context.Context, w studio.Who, _ *none) (studio.WordsView, error) {
		return s.app.Words(ctx, w)
	})
	change(s, http.MethodPut, "/api/words", "set-words", "Keep the spoken phrases; an empty list takes back those the program brings", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Words reading.Words `json:"words"`
		}
	}) error {
		return s.app.SetWords(ctx, w, in.Body.Words)
	})
	huma.Register(s.api, huma.Operation{OperationID: "import", Method: http.MethodPost, Path: "/api/import", Summary: "Put a score file on the shelf", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, in *importInput) (*body[studio.Imported], error) {
			out, err := s.app.Import(ctx, who(ctx), studio.Import{ID: in.ID, FileName: in.Name, Data: in.RawBody, Book: in.Book, Unit: in.Unit, Instrument: in.Instrument, Strand: in.Strand, Again: in.Again, Parts: in.Parts})
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[studio.Imported]{out}, nil
		})
	post(s, "/api/students", "add-student", "Take on a student", func(ctx context.Context, w studio.Who, in studio.NewStudent) (studio.StudentCard, error) {
		return s.app.AddStudent(ctx, w, in)
	})
	post(s, "/api/students/preview", "begin", "How a new student would begin; keeps nothing", func(ctx context.Context, w studio.Who, in studio.NewStudent) (studio.Beginning, error) {
		return s.app.Begin(ctx, w, in)
	})
	post(s, "/api/items/check", "check-item", "What is wrong with an item; keeps nothing", func(ctx context.Context, w studio.Who, in shelf.Item) (studio.FaultsView, error) {
		return s.app.CheckItem(ctx, w, in)
	})
	change(s, http.MethodPut, "/api/items/{item}", "save-item", "Keep an item edited by hand, or a new one", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body shelf.Item
	}) error {
		in.Body.ID = in.Item
		return s.app.SaveItem(ctx, w, in.Body)
	})
	change(s, http.MethodPut, "/api/items/{item}/same", "same-item", "Tell that an item is the same as another; as nothing, that it is one of its own again", func(ctx context.Context, w studio.Who, in *struct {
		Item string `path:"item" maxLength:"60"`
		Body struct {
			As string `json:"as" maxLength:"60"`
		}
	}) error {
		return s.app.SameItem(ctx, w, in.Item, in.Body.As)
	})
	change(s, http.MethodDelete, "/api/items/{item}", "drop-item", "Take an item off the shelf for good; one that a student has or had is archived instead", func(ctx context.Context, w studio.Who, in *ofItem) error {
		return s.app.DropItem(ctx, w, in.Item)
	})
	huma.Register(s.api, huma.Operation{OperationID: "replace-score", Method: http.MethodPut, Path: "/api/items/{item}/score", Summary: "Give an item another score file; marks stay", MaxBodyBytes: notation.MaxFile},
		func(ctx context.Context, in *struct {
			Item    string `path:"item" maxLength:"60"`
			Name    string `query:"name" required:"true" minLength:"1" maxLength:"200"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (*body[studio.Replaced], error) {
			out, err := s.app.ReplaceScore(ctx, who(ctx), in.Item, in.Name, in.RawBody)
			if err != nil {
				return nil, s.problem(err)
			}
			return &body[studio.Replaced]{out}, nil
		})
	change(s, http.MethodPut, "/api/books", "rename-book", "Give a book, or a unit of one, another title", func(ctx context.Context, w studio.Who, in *body[struct {
		Book  string `json:"book" maxLength:"200"`
		Unit  string `json:"unit,omitempty" maxLength:"200" doc:"the book itself when left out"`
		Title string `json:"title" minLength:"1" maxLength:"200"`
	}]) error {
		return s.app.RenameBook(ctx, w, in.Body.Book, in.Body.Unit, in.Body.Title)
	})
	change(s, http.MethodPut, "/api/books/away", "archive-book", "Lay a book away, or bring it back", func(ctx context.Context, w studio.Who, in *body[struct {
		Book string `json:"book" maxLength:"200"`
		Away bool   `json:"away"`
	}]) error {
		return s.app.ArchiveBook(ctx, w, in.Body.Book, in.Body.Away)
	})
	change(s, http.MethodDelete, "/api/books", "drop-book", "Take a book off the shelf for good; one of which a student has or had something is laid away instead", func(ctx context.Context, w studio.Who, in *struct {
		Book string `query:"book" required:"true" maxLength:"200"`
	}) error {
		return s.app.DropBook(ctx, w, in.Book)
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
		return s.app.SetHome(ctx, w, in.Student, in.Body)
	})
	download(s, "/api/shelf.csv", "shelf-table", "The shelf as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, _ *none) (studio.Archive, error) {
		return s.app.ShelfTable(ctx, w)
	})
	answer(s, huma.Operation{OperationID: "merge-table", Method: http.MethodPost, Path: "/api/shelf.csv", Summary: "Read a table against the shelf: what it would change, or keep it", MaxBodyBytes: maxTable},
		func(ctx context.Context, w studio.Who, in *struct {
			Save    bool   `query:"save"`
			Twins   bool   `query:"twins" doc:"also new items that seem to stand there already"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (studio.TableView, error) {
			return s.app.Table(ctx, w, in.RawBody, in.Save, in.Twins)
		})
	download(s, "/api/students.csv", "roster", "The students as a table", "text/csv; charset=utf-8", func(ctx context.Context, w studio.Who, _ *none) (studio.Archive, error) {
		return s.app.Roster(ctx, w)
	})
	answer(s, huma.Operation{OperationID: "merge-roster", Method: http.MethodPost, Path: "/api/students.csv", Summary: "Read a table of students: what it would change, or keep it", MaxBodyBytes: maxTable},
		func(ctx context.Context, w studio.Who, in *struct {
			Save    bool   `query:"save"`
			RawBody []byte `contentType:"application/octet-stream"`
		}) (studio.RosterView, error) {
			return s.app.MergeRoster(ctx, w, in.RawBody, in.Save)
		})
	answer(s, huma.Operation{OperationID: "add-titles", Method: http.MethodPost, Path: "/api/shelf/titles", Summary: "Put a book on the shelf from a list of its titles"},
		func(ctx context.Context, w studio.Who, in *body[studio.TitleList]) (studio.Imported, error) {
			return s.app.AddTitles(ctx, w, in.Body)
		})
	get(s, "/api/studio", "export-studio", "All that the studio holds beside accounts, links and letters", func(ctx context.Context, w studio.Who, _ *none) (studio.StudioArchive, error) {
		return s.app.ExportStudio(ctx, w)
	})
	huma.Register(s.api, huma.Operation{OperationID: "import-studio", Method: http.MethodPost, Path: "/api/studio", Summary: "Bring an archive into an empty studio", DefaultStatus: http.StatusNoContent, MaxBodyBytes: maxArchive},
		func(ctx context.Context, in *body[studio.StudioArchive]) (*none, error) {
			return nil, s.problem(s.app.ImportStudio(ctx, who(ctx), in.Body))
		})
	change(s, http.MethodDelete, "/api/studio", "delete-studio", "Delete all that the studio holds, or the studio with its accounts", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Name     string `json:"name" maxLength:"200" doc:"of the studio, as a person types it who knows what is meant"`
			Password string `json:"password" maxLength:"200"`
			Content  bool   `json:"content" doc:"only what it holds: students, items, games"`
		}
	}) error {
		if in.Body.Content {
			return s.app.EmptyStudio(ctx, w, in.Body.Name, in.Body.Password)
		}
		if err := s.app.DeleteStudio(ctx, w, in.Body.Name, in.Body.Password); err != nil {
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
		return s.app.SetClock(ctx, w, in.Body.To)
	})
}

// writeProblem answers with a problem where no operation does.
func writeProblem(w http.ResponseWriter, status int, says string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	// the answer is lost when the browser is gone; there is no one to tell
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: says})
}
