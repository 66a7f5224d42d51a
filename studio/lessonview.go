package studio

import (
	"context"
	"fmt"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A LessonView is a lesson planned, in progress or closed.
type LessonView struct {
	Student StudentCard   `json:"student"`
	Day     calendar.Date `json:"day" doc:"of the lesson; empty when the calendar has none ahead"`
	Today   bool          `json:"today"`
	State   string        `json:"state" enum:"planned,open,closed"`
	Opened  *time.Time    `json:"opened,omitempty"`
	Plan    lesson.Plan   `json:"plan"`
	Rungs   []RungView    `json:"rungs" nullable:"false" doc:"as they stand now"`
	Noted   []Entry       `json:"noted" nullable:"false" doc:"told in this lesson, in order"`
	After   *After        `json:"after,omitempty" doc:"of a closed lesson"`
}

// After is what a closed lesson changed and what follows.
type After struct {
	Changed []reason.Reason `json:"changed" nullable:"false"`
	Follows []reason.Reason `json:"follows" nullable:"false"`
	Next    calendar.Date   `json:"next"`
}

// Lesson shows a student's lesson of today, or the next one. The plan is that
// of the moment the lesson was opened, so that marks do not move it.
func (a *App) Lesson(ctx context.Context, who Who, student string) (LessonView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return LessonView{}, err
	}
	day := p.lessonDay()
	v := LessonView{Student: p.card(p.Student, day), Day: day, Today: day == p.today(), State: "planned", Rungs: p.rungs(p.now()), Noted: []Entry{}}
	before, at := p.standing, p.room.now
	opened, isOpen := p.standing.Opened[day]
	if isOpen {
		v.State, v.Opened = "open", &opened
		before, at = p.until(opened), opened
		var told []ladder.Fact
		for _, f := range p.facts {
			if !f.At.Before(opened) && calendar.On(f.At) == day {
				told = append(told, f)
			}
		}
		v.Noted = p.entries(told)
	}
	v.Plan = p.plan(p.way(before, p.Approach, at), day)
	if _, closed := p.standing.Closed[day]; closed {
		v.State = "closed"
		v.After = p.after(before)
	}
	return v, nil
}

// after compares the standing before a lesson with the present one.
func (p *pupil) after(before ladder.Standing) *After {
	out := &After{Changed: []reason.Reason{}, Follows: []reason.Reason{}, Next: p.row.Calendar.Next(p.Slot, p.today())}
	changed := func(code, title, more string) {
		out.Changed = append(out.Changed, reason.Of(code, "title", title, "more", more))
	}
	for _, r := range p.standing.Rungs {
		was, known := before.Rung(r.ID)
		if !known {
			changed("placed", r.Item.Title, "")
		}
		if r.Taught != nil && was.Taught == nil {
			changed("taught", r.Item.Title, "")
		}
		for _, pt := range r.Points {
			if pt.Key == shelf.Spots {
				continue // the spots themselves are told below
			}
			old := ladder.Unmarked
			for _, o := range was.Points {
				if o.Key == pt.Key {
					old = o.State
				}
			}
			if pt.State != old && pt.State == ladder.Met {
				changed("point-met", r.Item.Title, pt.Name)
			} else if pt.State != old && pt.State == ladder.Open {
				changed("point-open", r.Item.Title, pt.Name)
			}
		}
		for _, s := range r.Spots {
			old := 0
			for _, o := range was.Spots {
				if o.ID == s.ID {
					old = o.Done
				}
			}
			if s.Done > old {
				changed("spot-count", r.Item.Title, fmt.Sprintf("%s, %d of %d in a row", s.Where, s.Done, s.Goal))
			}
		}
		if r.Foothold != nil && was.Foothold == nil {
			changed("foothold", r.Item.Title, "")
		}
		now, then := p.standing.State(r), before.State(was)
		if known && now == ladder.Current && then == ladder.Ahead {
			out.Follows = append(out.Follows, reason.Of("now-current", "title", r.Item.Title))
		}
		if r.Ready() {
			out.Follows = append(out.Follows, reason.Of("ready-to-try", "title", r.Item.Title))
		}
		for _, s := range r.Spots {
			if !s.Met() && r.Foothold == nil {
				out.Follows = append(out.Follows, reason.Of("spot-carried", "title", r.Item.Title, "where", s.Where))
			}
		}
	}
	return out
}
