package studio

import (
	"context"

	"patientladder/core/calendar"
	"patientladder/core/week"
)

// A WeekView is a student's week sheet.
type WeekView struct {
	Student StudentCard `json:"student"`
	Studio  string      `json:"studio"`
	Sheet   *week.Sheet `json:"sheet,omitempty" doc:"none before a lesson was closed"`
}

// Week shows the sheet that follows from the last closed lesson.
func (a *App) Week(ctx context.Context, who Who, student string) (WeekView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return WeekView{}, err
	}
	v := WeekView{Student: p.card(p.Student, p.lessonDay()), Studio: p.row.Name}
	last := calendar.Date("")
	for day := range p.standing.Closed {
		last = max(last, day)
	}
	if last == "" {
		return v, nil
	}
	at := p.standing.Closed[last]
	sheet := p.sheet(p.way(p.until(at), p.Approach, at), last)
	v.Sheet = &sheet
	return v, nil
}
