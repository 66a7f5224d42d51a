package places

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
	"patientladder/studio"
)

// A LessonView is a lesson planned, in progress or closed.
type LessonView struct {
	Student  studio.StudentCard `json:"student"`
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
	Untaught []UntaughtView     `json:"untaught" doc:"pieces of the plan that wait for their first lesson and were not marked as taught"`
	Off      []OffView          `json:"off" doc:"lessons that were cancelled or moved and can be given again: of this day, of today and to come"`
	Late     *time.Time         `json:"late,omitempty" doc:"of a lesson of a day before: when what is told now happened, after all that was told of it"`
}

// An UntaughtView is a piece or exercise that a lesson may have begun.
type UntaughtView struct {
	Rung  string `json:"rung"`
	Title string `json:"title"`
}

// untaught lists what a plan holds that has not had its first lesson, in its order.
func untaught(p *studio.Pupil, plan lesson.Plan) []UntaughtView {
	out := []UntaughtView{}
	for _, b := range plan.Blocks {
		r, placed := p.Standing.Rung(b.Rung)
		begins := b.Kind == lesson.Current || b.Kind == lesson.Technique || b.Kind == lesson.Reading
		if placed && begins && r.Taught == nil {
			out = append(out, UntaughtView{r.ID, r.Item.Title})
		}
	}
	return out
}

// An OffView is a lesson that is not given on its day.
type OffView struct {
	Fact string        `json:"fact" doc:"that told it; retracted, the lesson is given again"`
	Day  calendar.Date `json:"day"`
	By   string        `json:"by" enum:",student,teacher,illness" doc:"who cancelled it, or what"`
	To   calendar.Date `json:"to" doc:"where it was moved to; empty of one that was cancelled"`
}

// off lists lessons that were cancelled or moved: of a day, of today and to come.
func off(p *studio.Pupil, day calendar.Date) []OffView {
	out := []OffView{}
	for _, d := range slices.Sorted(maps.Keys(p.Standing.Missed)) {
		if c := p.Standing.Missed[d]; d >= p.Today() || d == day {
			out = append(out, OffView{c.Fact, d, c.By, c.To})
		}
	}
	return out
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
func Lesson(ctx context.Context, a *studio.App, who studio.Who, student string, day calendar.Date) (LessonView, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return LessonView{}, err
	}
	if err := studio.CheckDay(day); err != nil {
		return LessonView{}, err
	}
	day = cmp.Or(day, p.LessonDay())
	now := p.WayNow()
	v := LessonView{Student: p.Card(p.Student, p.Standing, day), Day: day, Start: p.SlotAt(day).Start, Today: day == p.Today(), State: "planned", Remote: p.Standing.Remote[day],
		Coming: p.LessonDay(), Rungs: rungs(&p, now), Given: opened(&p), Rating: p.Standing.Rated[day], Noted: []Entry{}, Faults: faults(&p), Seat: seatNote(&p), Asked: []AskedView{}, Off: off(&p, day), Untaught: []UntaughtView{},
		Granted: Questions(&p, upkeep.ToTick(p.Standing, now.Presumed)),
		Home:    p.FromHome()}
	for _, q := range p.Standing.Questions {
		v.Asked = append(v.Asked, AskedView{q.ID, q.Text})
	}
	if ache := p.Standing.Ache; ache != nil {
		v.Ache = &AcheView{ache.Side, ache.Where, ache.At}
	}
	if day < p.Today() {
		v.Late = late(&p, day)
	}
	opened, isOpen := p.Standing.Opened[day]
	if isOpen {
		v.State, v.Opened = "open", &opened
		var told []fact.Fact
		for _, f := range p.Facts {
			if !f.At.Before(opened) && calendar.On(f.At) == day {
				told = append(told, f)
			}
		}
		v.Noted = Entries(&p, told)
	}
	if !isOpen {
		v.Plan = p.Plan(now, day)
		v.Plan.Offer(day)
		v.Untaught = untaught(&p, v.Plan) // it may be begun and finished before the next answer
		return v, nil
	}
	agreed, plan, err := p.PlanOf(ctx, day)
	if err != nil {
		return v, err
	}
	v.Document, v.Plan = &agreed, plan
	v.Plan.Offer(day)
	v.Untaught = untaught(&p, plan)
	if _, closed := p.Standing.Closed[day]; closed {
		v.State = "closed"
		_, sheet, err := p.SheetOf(ctx, day, 0)
		if err != nil {
			return v, err
		}
		v.After = after(&p, p.Until(opened), now, day, *sheet)
		sent, err := p.Mailings(ctx, document.Sheet, day)
		if err != nil {
			return v, studio.Failed(err, "student")
		}
		v.After.Sending = LastOf(sent, student, day)
	}
	return v, nil
}

// late is the moment of what is told only now of a lesson of a day before: after all that
// was told on that day, and not on the next.
func late(p *studio.Pupil, day calendar.Date) *time.Time {
	at := p.Starts(day)
	for _, f := range p.Facts {
		if f.Day() == day && f.By != fact.Family && f.At.After(at) {
			at = f.At
		}
	}
	at = at.Truncate(time.Second).Add(time.Second)
	if end := day.Add(1).Midnight(p.Zone).Add(-time.Second); at.After(end) {
		at = end
	}
	return &at
}

// opened are the days of lessons that were opened, the last first.
func opened(p *studio.Pupil) []calendar.Date {
	days := slices.Sorted(maps.Keys(p.Standing.Opened))
	slices.Reverse(days)
	return studio.List(days)
}

// Pace says what the rest of a running lesson comes to when a block is in hand at
// a minute.
func Pace(ctx context.Context, a *studio.App, who studio.Who, student, block string, minute int) (lesson.Pace, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return lesson.Pace{}, err
	}
	day := p.LessonDay()
	opened, open := p.Standing.Opened[day]
	if !open {
		return lesson.Pace{}, &studio.Error{Kind: studio.Conflict, Says: "This lesson has not begun."}
	}
	_, plan, err := p.PlanOf(ctx, day)
	if err != nil {
		return lesson.Pace{}, err
	}
	then := p.Until(opened)
	return plan.Pace(block, minute, p.Ask(p.Way(then, p.ApproachAt(then, day), opened), day)), nil
}

// faults lists those of the instrument, with how often each was seen lately.
func faults(p *studio.Pupil) []FaultView {
	out := []FaultView{}
	for _, s := range advice.Seen(fault.For(p.Plays.Family), p.Standing, p.Room.Now) {
		out = append(out, FaultView{p.In.Fault(s.Fault), s.Last, s.Times})
	}
	return out
}

// seatNote works out how to sit at the studio's instrument.
func seatNote(p *studio.Pupil) SeatNote {
	n := SeatNote{Says: []reason.Reason{}, Again: MeasureAgain(p)}
	if p.Standing.Body.At.IsZero() {
		return n
	}
	if fit, err := seat.Work(p.Body(), studio.BenchOf(p.Row.Home), p.Plays.Seat, seat.Preference(p.Approach[approach.Bench])); err == nil {
		n.Says = fit.Says
	}
	return n
}

// after compares the standing before a lesson with the one after it, and says what
// follows; from a lesson before the last nothing follows any more.
func after(p *studio.Pupil, before ladder.Standing, now studio.Way, day calendar.Date, sheet week.Sheet) *After {
	next := p.Calendar().Next(p.Slot, max(p.Today(), day))
	last := day == studio.Latest(p.Standing.Closed)
	out := &After{Changed: []reason.Reason{}, Follows: []reason.Reason{}, Next: next, Sketch: []SketchBlock{}}
	after := p.Standing
	if !last {
		after = p.Until(day.Add(1).Midnight(p.Zone))
	}
	if next != "" && last {
		for _, b := range p.Plan(now, next).Blocks {
			out.Sketch = append(out.Sketch, SketchBlock{b.Kind, b.Title, b.Minutes})
		}
	}
	for _, d := range sheet.Days {
		out.Sheet += len(d.Tasks)
	}
	changed, follows := advice.Between(before, after, p.Graph)
	out.Changed = append(out.Changed, changed...)
	if last {
		out.Follows = studio.List(slices.Concat(follows, now.Starts()))
	}
	return out
}
