package studio

import (
	"cmp"
	"context"
	"maps"
	"slices"
	"time"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/seat"
	"patientladder/core/upkeep"
	"patientladder/core/week"
)

// A LessonView is a lesson planned, in progress or closed.
type LessonView struct {
	Student  StudentCard        `json:"student"`
	Day      calendar.Date      `json:"day" doc:"of the lesson; empty when the calendar has none ahead"`
	Start    string             `json:"start" doc:"15:04"`
	Today    bool               `json:"today"`
	Coming   calendar.Date      `json:"coming" doc:"day of today's or the next lesson; empty for none ahead"`
	State    string             `json:"state" enum:"planned,open,closed"`
	Given    []calendar.Date    `json:"given" doc:"days of lessons that were opened, the last first"`
	Document *document.Document `json:"document,omitempty" doc:"the plan as agreed; none of a lesson that was not opened"`
	Rating   string             `json:"rating" enum:",flowed,mixed,uphill" doc:"how it went for the teacher"`
	Opened   *time.Time         `json:"opened,omitempty"`
	Remote   bool               `json:"remote"`
	Plan     lesson.Plan        `json:"plan"`
	Rungs    []RungView         `json:"rungs" doc:"as they stand now"`
	Noted    []Entry            `json:"noted" doc:"told in this lesson, in order"`
	Faults   []FaultView        `json:"faults" doc:"of this instrument, those seen lately first"`
	Seat     SeatNote           `json:"seat"`
	Ache     *AcheView          `json:"ache,omitempty" doc:"a pain that is not cleared"`
	Asked    []AskedView        `json:"asked" doc:"at home, and not answered yet"`
	Granted  []Question         `json:"granted" doc:"in the first lessons: skills taken for granted from where the student began, to be ticked off"`
	Home     home.Answer        `json:"home" doc:"what comes back from home, and what to try"`
	After    *After             `json:"after,omitempty" doc:"of a closed lesson"`
	Late     *time.Time         `json:"late,omitempty" doc:"of a lesson of a day before: when what is told now happened, after all that was told of it"`
}

// An AskedView is a question that the family asked.
type AskedView struct {
	ID   string `json:"id" doc:"of the fact that asked it"`
	Text string `json:"text"`
}

// A FaultView is a fault that may be seen, and when it last was.
type FaultView struct {
	fault.Fault
	Last  *time.Time `json:"last,omitempty"`
	Times int        `json:"times" doc:"in the last eight weeks"`
}

// A SeatNote is what the set-up says of the seat.
type SeatNote struct {
	Says  []reason.Reason `json:"says" doc:"how to sit at the studio's instrument; none before anything was measured"`
	Again *reason.Reason  `json:"again,omitempty" doc:"why to measure again"`
}

// An AcheView is a pain that was told.
type AcheView struct {
	Side  string    `json:"side" enum:"right,left,both"`
	Where string    `json:"where"`
	At    time.Time `json:"at"`
}

// After is what a closed lesson changed and what follows.
type After struct {
	Changed []reason.Reason `json:"changed"`
	Follows []reason.Reason `json:"follows"`
	Next    calendar.Date   `json:"next"`
	Sketch  []SketchBlock   `json:"sketch" doc:"of the next lesson, as it would be planned now"`
	Sheet   int             `json:"sheet" doc:"tasks on the week sheet"`
	Sending *Sending        `json:"sending,omitempty" doc:"the last of that sheet"`
}

// A SketchBlock is a block of the next lesson.
type SketchBlock struct {
	Kind    lesson.Kind `json:"kind" enum:"set-up,opener,technique,current,probe,mixture,reading,activity,upkeep,ahead,open,close,home"`
	Title   string      `json:"title"`
	Minutes int         `json:"minutes"`
}

// Lesson shows a student's lesson of a day; for the empty day that of today, or the
// next one. The plan of a lesson that was opened is the one that was agreed then;
// marks do not move it; what the teacher changed in it since, and a pain that was
// told, do.
func (a *App) Lesson(ctx context.Context, who Who, student string, day calendar.Date) (LessonView, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return LessonView{}, err
	}
	if err := checkDay(day); err != nil {
		return LessonView{}, err
	}
	day = cmp.Or(day, p.lessonDay())
	now := p.now()
	v := LessonView{Student: p.card(p.Student, p.standing, day), Day: day, Start: p.slot(day).Start, Today: day == p.today(), State: "planned", Remote: p.standing.Remote[day],
		Coming: p.lessonDay(), Rungs: p.rungs(now), Given: p.opened(), Rating: p.standing.Rated[day], Noted: []Entry{}, Faults: p.faults(), Seat: p.seatNote(), Asked: []AskedView{},
		Granted: p.questions(upkeep.ToTick(p.standing, now.Presumed)),
		Home:    p.home()}
	for _, q := range p.standing.Questions {
		v.Asked = append(v.Asked, AskedView{q.ID, q.Text})
	}
	if ache := p.standing.Ache; ache != nil {
		v.Ache = &AcheView{ache.Side, ache.Where, ache.At}
	}
	if day < p.today() {
		v.Late = p.late(day)
	}
	opened, isOpen := p.standing.Opened[day]
	if isOpen {
		v.State, v.Opened = "open", &opened
		var told []fact.Fact
		for _, f := range p.facts {
			if !f.At.Before(opened) && calendar.On(f.At) == day {
				told = append(told, f)
			}
		}
		v.Noted = p.entries(told)
	}
	if !isOpen {
		v.Plan = p.plan(now, day)
		v.Plan.Offer(day)
		return v, nil
	}
	agreed, plan, err := p.planOf(ctx, day)
	if err != nil {
		return v, err
	}
	v.Document, v.Plan = &agreed, plan
	v.Plan.Offer(day)
	if _, closed := p.standing.Closed[day]; closed {
		v.State = "closed"
		_, sheet, err := p.sheetOf(ctx, day, 0)
		if err != nil {
			return v, err
		}
		v.After = p.after(p.until(opened), now, day, *sheet)
		sent, err := p.Mailings(ctx, document.Sheet, day)
		if err != nil {
			return v, told(err, "student")
		}
		v.After.Sending = lastOf(sent, student, day, p.room.now)
	}
	return v, nil
}

// late is the moment of what is told only now of a lesson of a day before: after all that
// was told on that day, and not on the next.
func (p *pupil) late(day calendar.Date) *time.Time {
	at := p.starts(day)
	for _, f := range p.facts {
		if f.Day() == day && f.By != fact.Family && f.At.After(at) {
			at = f.At
		}
	}
	at = at.Truncate(time.Second).Add(time.Second)
	if end := day.Add(1).Midnight(p.zone).Add(-time.Second); at.After(end) {
		at = end
	}
	return &at
}

// taught loads a pupil with what a lesson is planned from.
func (a *App) taught(ctx context.Context, who Who, student string) (pupil, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return p, err
	}
	if p.own, err = p.Activities(ctx); err != nil {
		return p, told(err, "studio")
	}
	return p, nil
}

// opened are the days of lessons that were opened, the last first.
func (p *pupil) opened() []calendar.Date {
	days := slices.Sorted(maps.Keys(p.standing.Opened))
	slices.Reverse(days)
	return list(days)
}

// Pace says what the rest of a running lesson comes to when a block is in hand at
// a minute.
func (a *App) Pace(ctx context.Context, who Who, student, block string, minute int) (lesson.Pace, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return lesson.Pace{}, err
	}
	day := p.lessonDay()
	opened, open := p.standing.Opened[day]
	if !open {
		return lesson.Pace{}, &Error{Kind: Conflict, Says: "This lesson has not begun."}
	}
	_, plan, err := p.planOf(ctx, day)
	if err != nil {
		return lesson.Pace{}, err
	}
	then := p.until(opened)
	return plan.Pace(block, minute, p.ask(p.way(then, p.approach(then, day), opened), day)), nil
}

// faults lists those of the instrument, with how often each was seen lately.
func (p *pupil) faults() []FaultView {
	out := []FaultView{}
	for _, s := range advice.Seen(fault.For(p.plays.Family), p.standing, p.room.now) {
		out = append(out, FaultView{s.Fault, s.Last, s.Times})
	}
	return out
}

// seatNote works out how to sit at the studio's instrument.
func (p *pupil) seatNote() SeatNote {
	n := SeatNote{Says: []reason.Reason{}, Again: p.measureAgain()}
	if p.standing.Body.At.IsZero() {
		return n
	}
	if fit, err := seat.Work(p.body(), place(p.row.Home), p.plays.Seat, seat.Preference(p.Approach[approach.Bench])); err == nil {
		n.Says = fit.Says
	}
	return n
}

// after compares the standing before a lesson with the one after it, and says what
// follows; from a lesson before the last nothing follows any more.
func (p *pupil) after(before ladder.Standing, now way, day calendar.Date, sheet week.Sheet) *After {
	next := p.calendar().Next(p.Slot, max(p.today(), day))
	last := day == latest(p.standing.Closed)
	out := &After{Changed: []reason.Reason{}, Follows: []reason.Reason{}, Next: next, Sketch: []SketchBlock{}}
	after := p.standing
	if !last {
		after = p.until(day.Add(1).Midnight(p.zone))
	}
	if next != "" && last {
		for _, b := range p.plan(now, next).Blocks {
			out.Sketch = append(out.Sketch, SketchBlock{b.Kind, b.Title, b.Minutes})
		}
	}
	for _, d := range sheet.Days {
		out.Sheet += len(d.Tasks)
	}
	changed, follows := advice.Between(before, after, p.graph)
	out.Changed = append(out.Changed, changed...)
	if last {
		out.Follows = list(slices.Concat(follows, now.Starts()))
	}
	return out
}
