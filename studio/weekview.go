package studio

import (
	"context"
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/week"
)

// A WeekView is a student's week sheet.
type WeekView struct {
	Student StudentCard `json:"student"`
	Studio  string      `json:"studio"`
	Sheet   *week.Sheet `json:"sheet,omitempty" doc:"none before a lesson was closed"`
	Ticks   []Tick      `json:"ticks" nullable:"false" doc:"made at home"`
	Links   int         `json:"links" doc:"that open this week to the family now"`
}

// Week shows the sheet that follows from the last closed lesson.
func (a *App) Week(ctx context.Context, who Who, student string) (WeekView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return WeekView{}, err
	}
	v := WeekView{Student: p.card(p.Student, p.lessonDay()), Studio: p.row.Name, Ticks: []Tick{}}
	if v.Sheet, err = p.week(ctx); err != nil {
		return WeekView{}, err
	}
	if v.Sheet != nil {
		v.Ticks = p.ticks(v.Sheet.From)
	}
	links, err := p.FamilyLinks(ctx, student)
	for _, l := range links {
		if l.LastDay >= p.today() {
			v.Links++
		}
	}
	return v, told(err, "student")
}

// week writes the sheet of the last closed lesson; nil before there was one.
func (p *pupil) week(ctx context.Context) (*week.Sheet, error) {
	last := calendar.Date("")
	for day := range p.standing.Closed {
		last = max(last, day)
	}
	if last == "" {
		return nil, nil
	}
	if err := p.cut(ctx); err != nil {
		return nil, err
	}
	at := p.standing.Closed[last]
	sheet := p.sheet(p.way(p.until(at), p.Approach, at), last)
	return &sheet, nil
}

// cut reads the chunk trees of the rungs in hand off their scores.
func (p *pupil) cut(ctx context.Context) error {
	var ids []string
	rungs := map[string]string{} // by item
	for _, r := range p.standing.In(ladder.Current) {
		if r.Item.HasScore && r.Taught != nil {
			ids = append(ids, r.Item.ID)
			rungs[r.Item.ID] = r.ID
		}
	}
	files, err := p.Scores(ctx, ids)
	if err != nil {
		return told(err, "scores")
	}
	p.trees = make(map[string][]reading.Chunk, len(files))
	size := reading.Size(age(p.Student, p.today()), p.readsSolidly())
	for id, f := range files {
		s, err := notation.Read(f.Name, f.Data)
		if err != nil {
			return err // it was read when it came onto the shelf
		}
		p.trees[rungs[id]] = reading.Read(s, p.Instrument.Plays()).Chunks(size)
	}
	return nil
}

// readsSolidly reports whether four bars at first sight are secure.
func (p *pupil) readsSolidly() bool {
	for _, r := range p.standing.In(ladder.Secure) {
		if slices.Contains(r.Item.Brings, "sight-four-bars") {
			return true
		}
	}
	return false
}
