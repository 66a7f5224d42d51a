package diary

import (
	"context"
	"errors"
	"slices"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/document"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/record"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/places"
)

// A StudentNeeds is a student among all, with what is to be seen to.
type StudentNeeds struct {
	Student studio.StudentCard `json:"student"`
	Needs   []advice.Need      `json:"needs" doc:"what presses most first"`
}

// A Wanted is something to order, lend or print before a student's next lesson.
type Wanted struct {
	Student string        `json:"student"`
	Name    string        `json:"name"`
	Day     calendar.Date `json:"day" doc:"of the lesson"`
	advice.Bring
}

// A Round is a need that is seen to for several students in one go.
type Round struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	advice.Need
}

// An OverviewView looks over all students who come.
type OverviewView struct {
	Today    calendar.Date  `json:"today"`
	Students []StudentNeeds `json:"students" doc:"those with most to see to first, without what is in the rounds"`
	Rounds   []Round        `json:"rounds" doc:"what is seen to in one go: sheets to send or to ask after, students to measure"`
	Wanted   []Wanted       `json:"wanted" doc:"for the lessons of the next seven days, by day"`
}

// prepared is how many days of lessons are prepared for at once.
const prepared = 7

// Overview looks over all students.
func Overview(ctx context.Context, a *studio.App, who studio.Who) (OverviewView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return OverviewView{}, err
	}
	v := OverviewView{Today: r.Today(), Students: []StudentNeeds{}, Rounds: []Round{}, Wanted: []Wanted{}}
	students, err1 := r.Students(ctx)
	sent, err2 := r.Mailings(ctx, document.Sheet, r.Today().Add(-2*prepared))
	opened, err3 := r.LastOpened(ctx)
	if err := errors.Join(err1, err2, err3); err != nil {
		return v, studio.Failed(err, "studio")
	}
	for _, st := range students {
		p, err := a.Taught(ctx, who, st.ID)
		if err != nil {
			return v, err
		}
		next := p.LessonDay()
		card := p.Card(p.Student, p.Standing, next)
		if card.State == "left" {
			continue
		}
		w := p.WayNow()
		one := StudentNeeds{card, []advice.Need{}}
		for _, n := range needs(&p, w, sent, opened[st.ID]) {
			if n.Round() {
				v.Rounds = append(v.Rounds, Round{st.ID, st.FirstName, n})
			} else {
				one.Needs = append(one.Needs, n)
			}
		}
		v.Students = append(v.Students, one)
		if next == "" || next.Sub(v.Today) >= prepared {
			continue
		}
		for _, b := range w.Brings(p.Plan(w, next), nil) {
			if b.Sort == "notes" || b.Sort == "book" {
				v.Wanted = append(v.Wanted, Wanted{st.ID, st.FirstName, next, b})
			}
		}
	}
	slices.SortStableFunc(v.Students, func(a, b StudentNeeds) int { return advice.Presses(a.Needs) - advice.Presses(b.Needs) })
	slices.SortStableFunc(v.Wanted, func(a, b Wanted) int { return a.Day.Sub(b.Day) })
	return v, nil
}

// needs are what is to be seen to of a student, by what was sent and when a link was opened
// last.
func needs(p *studio.Pupil, w studio.Way, sent []store.Mailing, opened calendar.Date) []advice.Need {
	day := studio.Latest(p.Standing.Closed)
	given := advice.Given{Day: day, Contact: p.Contact != "", Opened: opened >= day}
	if s := places.LastOf(sent, p.ID, day); s != nil {
		given.Sent = s.State == store.Sent || s.State == store.Sending || s.State == store.Waiting
	}
	return w.Needs(p.FromHome(), places.MeasureAgain(p), given)
}

// A TodayLesson is a lesson of a day with what it needs.
type TodayLesson struct {
	Student studio.StudentCard `json:"student"`
	Start   string             `json:"start" doc:"15:04"`
	State   string             `json:"state" enum:"planned,open,closed"`
	Plan    lesson.Plan        `json:"plan" doc:"as agreed, or as it would be now"`
	Brings  []advice.Bring     `json:"brings" doc:"what must be at hand"`
	Needs   []advice.Need      `json:"needs"`
	Asked   []string           `json:"asked" doc:"from home"`
}

// A TodayView is a teaching day laid out.
type TodayView struct {
	Studio  string        `json:"studio"`
	Date    calendar.Date `json:"date"`
	Today   calendar.Date `json:"today"`
	Lessons []TodayLesson `json:"lessons" doc:"by time"`
}

// Today lays out the lessons of a day, with their plans; the empty date is today.
func Today(ctx context.Context, a *studio.App, who studio.Who, date calendar.Date) (TodayView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return TodayView{}, err
	}
	day, err := DayOf(ctx, r, date)
	if err != nil {
		return TodayView{}, err
	}
	v := TodayView{Studio: day.Studio, Date: day.Date, Today: day.Today, Lessons: []TodayLesson{}}
	sent, err1 := r.Mailings(ctx, document.Sheet, r.Today().Add(-2*prepared))
	opened, err2 := r.LastOpened(ctx)
	if err := errors.Join(err1, err2); err != nil {
		return v, studio.Failed(err, "studio")
	}
	for _, s := range day.Segments {
		p, err := a.Taught(ctx, who, s.Student)
		if err != nil {
			return v, err
		}
		w := p.WayNow()
		one := TodayLesson{Student: p.Card(p.Student, p.Standing, day.Date), Start: s.Start, State: "planned", Needs: studio.List(needs(&p, w, sent, opened[s.Student])), Asked: []string{}}
		if _, opened := p.Standing.Opened[day.Date]; opened {
			one.State = "open"
			if _, one.Plan, err = p.PlanOf(ctx, day.Date); err != nil {
				return v, err
			}
		} else {
			one.Plan = p.Plan(w, day.Date)
		}
		if _, closed := p.Standing.Closed[day.Date]; closed {
			one.State = "closed"
		}
		one.Brings = studio.List(w.Brings(one.Plan, places.MeasureAgain(&p)))
		for _, q := range p.Standing.Questions {
			one.Asked = append(one.Asked, q.Text)
		}
		v.Lessons = append(v.Lessons, one)
	}
	return v, nil
}

// A StudentTerm is what a term has brought a student.
type StudentTerm struct {
	Student studio.StudentCard `json:"student"`
	On      []string           `json:"on" doc:"titles in hand, the book's first"`
	Now     record.Brought     `json:"now"`
	Minutes int                `json:"minutes" doc:"of its lessons"`
	Before  *record.Brought    `json:"before,omitempty" doc:"by the same day of the term before; absent of the first, and of who had no lesson in it"`
}

// A StudentBook is a book of a student's, and when it will be used up.
type StudentBook struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	record.BookEnd
}

// A TermView is a term at a glance.
type TermView struct {
	Today    calendar.Date     `json:"today"`
	Terms    []record.TermSpan `json:"terms" doc:"those that have begun, the newest first"`
	Shown    int               `json:"shown" doc:"place in the list of terms; -1 while none has begun"`
	Minutes  int               `json:"minutes" doc:"taught in the term so far"`
	Foretold int               `json:"foretold" doc:"footholds of all students whose weeks were foretold at their first lesson"`
	Kept     int               `json:"kept" doc:"of them, how many came in their weeks"`
	Books    []StudentBook     `json:"books" doc:"books that are begun: used up first, then by when they will be"`
	Students []StudentTerm     `json:"students" doc:"those with lessons in it and those who come, by name"`
}

// Term shows a term at a glance: the one that began on a day, or the newest for the empty date.
func Term(ctx context.Context, a *studio.App, who studio.Who, from calendar.Date) (TermView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return TermView{}, err
	}
	v := TermView{Today: r.Today(), Books: []StudentBook{}, Students: []StudentTerm{}}
	if v.Terms, v.Shown, err = ShownTerm(r, from); err != nil || v.Shown < 0 {
		return v, err
	}
	term := v.Terms[v.Shown]
	students, err := r.Students(ctx)
	if err != nil {
		return v, studio.Failed(err, "studio")
	}
	for _, st := range students {
		p, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return v, err
		}
		over := func(span calendar.Span) record.Brought {
			return record.Over(p.Standing, p.Graph, p.Presumed(p.Standing), span)
		}
		one := StudentTerm{Student: p.Card(p.Student, p.Standing, p.LessonDay()), On: []string{}, Now: over(term.SoFar)}
		if one.Student.State == "left" && one.Now.Lessons == 0 {
			continue
		}
		for day := range p.Standing.Closed {
			if term.SoFar.Holds(day) {
				one.Minutes += lesson.Length(p.Standing.Changes[day], p.Slot.Minutes)
			}
		}
		v.Minutes += one.Minutes
		if one.Student.State != "left" {
			for _, b := range record.Books(p.Standing, p.Shelved, r.Today()) {
				v.Books = append(v.Books, StudentBook{st.ID, st.FirstName, b})
			}
		}
		foretold := climb.Foretell(p.AsStudent(p.Standing, p.Approach, p.Room.Now))
		v.Foretold, v.Kept = v.Foretold+len(foretold), v.Kept+climb.Kept(foretold)
		for _, rung := range p.Standing.In(ladder.Current) {
			if rung.Taught != nil {
				one.On = append(one.On, rung.Item.Title)
			}
		}
		if term.Before != nil {
			if before := over(*term.Before); before.Lessons > 0 {
				one.Before = &before
			}
		}
		v.Students = append(v.Students, one)
	}
	slices.SortStableFunc(v.Books, func(a, b StudentBook) int { return record.Sooner(a.BookEnd, b.BookEnd) })
	return v, nil
}

// ShownTerm finds the term that began on a day among those that have; the newest for the empty day,
// and -1 while none has begun.
func ShownTerm(r studio.Room, from calendar.Date) ([]record.TermSpan, int, error) {
	terms := record.Terms(r.Row.Calendar, r.Today())
	shown := slices.IndexFunc(terms, func(t record.TermSpan) bool { return from == "" || t.From == from })
	if shown < 0 && from != "" {
		return terms, shown, studio.Refuse("No term has begun on %s. Choose one of those that have.", from)
	}
	return terms, shown, nil
}
