package places

import (
	"context"
	"encoding/json"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/lesson"
	"patientladder/core/record"
	"patientladder/core/week"
	"patientladder/studio"
)

// A YearView is a student's year as a picture.
type YearView struct {
	Student studio.StudentCard `json:"student"`
	Back    int                `json:"back" doc:"how many years ago it ends"`
	Earlier bool               `json:"earlier" doc:"something was told before it"`
	Wish    float64            `json:"wish" doc:"share of upkeep that the approach asks for"`
	Today   calendar.Date      `json:"today"`
	record.Year
}

// mostYears is how many years back a record goes.
const mostYears = 60

// RecordYear shows the year of a student that ends so many years before the present week.
func RecordYear(ctx context.Context, a *studio.App, who studio.Who, student string, back int) (YearView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return YearView{}, err
	}
	last := p.Today().Add(-7 * record.Weeks * min(max(back, 0), mostYears))
	first := last.Monday().Add(-7 * (record.Weeks - 1))
	spent, err := spent(ctx, &p, first, last.Monday().Add(6))
	if err != nil {
		return YearView{}, err
	}
	v := YearView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Back: back, Wish: p.Approach.UpkeepShare(), Today: p.Today()}
	v.Earlier = len(p.Facts) > 0 && calendar.On(p.Facts[0].At) < first
	v.Year = record.YearOf(record.Source{Standing: p.Standing, Facts: p.Facts, Graph: p.Graph, Presumed: p.Presumed(p.Standing), Calendar: p.Calendar(),
		Spent: spent, Last: last, Today: p.Today()})
	return v, nil
}

// spent counts the minutes of the lessons from one day to another, as their plans and sheets were
// given.
func spent(ctx context.Context, p *studio.Pupil, from, to calendar.Date) (map[calendar.Date]record.Spent, error) {
	docs, err := p.DocumentsBetween(ctx, p.ID, from, to)
	if err != nil {
		return nil, studio.Failed(err, "student")
	}
	ticks := map[calendar.Date]map[string]int{} // by the sheet's lesson and line
	sheets, err := p.RevisionsBetween(ctx, p.ID, document.Sheet, from, to)
	if err != nil {
		return nil, studio.Failed(err, "student")
	}
	dayOf := map[string]calendar.Date{}
	for _, d := range sheets {
		dayOf[d.ID] = d.Day
	}
	for _, t := range p.Standing.Ticks {
		day := dayOf[t.Document]
		if ticks[day] == nil {
			ticks[day] = map[string]int{}
		}
		ticks[day][t.Line]++
	}
	plans, given := map[calendar.Date]lesson.Plan{}, map[calendar.Date]week.Sheet{}
	for _, d := range docs {
		var err error
		switch d.Kind {
		case document.Plan:
			var plan lesson.Plan
			err = json.Unmarshal(d.Body, &plan)
			plans[d.Day] = plan
		case document.Sheet:
			var sheet week.Sheet
			err = json.Unmarshal(d.Body, &sheet)
			given[d.Day] = sheet
		}
		if err != nil {
			return nil, err
		}
	}
	out := map[calendar.Date]record.Spent{}
	for day := range p.Standing.Closed {
		out[day] = record.SpentOn(plans[day], given[day], ticks[day])
	}
	return out, nil
}
