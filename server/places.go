package server

import (
	"context"

	"patientladder/core/calendar"
	"patientladder/core/lesson"
	"patientladder/studio"
	"patientladder/studio/places"
)

// placesRoutes registers what shows one student: ladder, lesson, sheet, record, seat, settings.
func (s *Server) placesRoutes() {
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
	get(s, "/api/students/{student}/seat", "seat", "How a student sits, here and at home", func(ctx context.Context, w studio.Who, in *ofStudent) (places.SeatView, error) {
		return places.Seat(ctx, s.app, w, in.Student)
	})
	post(s, "/api/seat", "try-seat", "Work out a seat; keeps nothing", func(ctx context.Context, w studio.Who, in places.SeatAsk) (places.SeatAt, error) {
		return places.TrySeat(ctx, s.app, w, in)
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
}
