// Package family is what a link lets a family or a student see, hear and tell.
package family

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/door"
	"patientladder/core/fact"
	"patientladder/core/home"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/places"
)

// noTerm is how long a link holds where no term says when it ends.
const noTerm = 90

// A NewLink is the only time that a family link's token is told.
type NewLink struct {
	Path    string        `json:"path" doc:"of the family's page, with the token"`
	LastDay calendar.Date `json:"lastDay"`
}

// MakeLink makes one more link to a student's week, for the family or the student's own. It
// ends with the term.
func MakeLink(ctx context.Context, a *studio.App, who studio.Who, student string, own bool) (NewLink, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return NewLink{}, err
	}
	if own {
		st, err := r.Student(ctx, student)
		if err != nil {
			return NewLink{}, studio.Failed(err, "student")
		}
		if !advice.OwnLink(studio.Age(st, r.Today())) {
			return NewLink{}, studio.Refuse("%s is under %d: the week goes to the family.", st.FirstName, int(judgement.OwnLinkFrom))
		}
	}
	token := studio.Token()
	last := r.Today().Add(noTerm)
	if term, in := r.Row.Calendar.Term(r.Today()); in {
		last = term.To
	}
	if err := r.AddFamilyLink(ctx, student, token, own, last); err != nil {
		return NewLink{}, studio.Failed(err, "student")
	}
	return NewLink{"/family/" + token, last}, nil
}

// EndLinks ends the family's links to a student's week at once, or the student's own.
func EndLinks(ctx context.Context, a *studio.App, who studio.Who, student string, own bool) error {
	r := a.Store.In(who.Studio)
	if _, err := r.Student(ctx, student); err != nil {
		return studio.Failed(err, "student")
	}
	return studio.Failed(r.EndFamilyLinks(ctx, student, own), "student")
}

// A FamilyDay is what was told of one day at home.
type FamilyDay struct {
	ID      string        `json:"id" doc:"of the fact that told it"`
	Day     calendar.Date `json:"day"`
	Minutes int           `json:"minutes"`
	Felt    string        `json:"felt" enum:",fun,easy,fine,hard,dull"`
}

// A FamilyView is what a family sees: its own student's week and nothing else.
type FamilyView struct {
	Student   string             `json:"student" doc:"id that facts are told of"`
	FirstName string             `json:"firstName"`
	Own       bool               `json:"own" doc:"the student holds this link, not the family"`
	Studio    string             `json:"studio"`
	Language  string             `json:"language" doc:"in which the home reads"`
	Now       time.Time          `json:"now" doc:"by the studio's clock"`
	Today     calendar.Date      `json:"today"`
	Document  *document.Document `json:"document,omitempty" doc:"the revision that the sheet is"`
	Sheet     *week.Sheet        `json:"sheet,omitempty" doc:"none before a lesson was closed"`
	Changed   []week.Line        `json:"changed" doc:"what it asks otherwise than the revision that the family had"`
	Acts      []advice.LineAct   `json:"acts" doc:"what may be told of each line"`
	Ticks     []places.Tick      `json:"ticks"`
	Days      []FamilyDay        `json:"days"`
	Questions []string           `json:"questions" doc:"asked and not answered yet"`
	Minutes   []int              `json:"minutes" doc:"to choose from when a day is told"`
	Heard     []string           `json:"heard" doc:"lines whose notes can be heard and seen, by key"`
	Along     bool               `json:"along" doc:"what is heard is played with from the first; else alone the set number of times before"`
	Weekdays  []int              `json:"weekdays" doc:"on which this family practises, 0 for Sunday; empty for every day"`
	Budget    int                `json:"budget" doc:"minutes a day that the family has set; 0 for the usual"`
	Pieces    []NearView         `json:"pieces" doc:"in hand, on this sheet: how near each is"`
	Parts     []FamilyPart       `json:"parts" doc:"of a student with several instruments; empty of one"`
	Treats    bool               `json:"treats" doc:"counting towards a treat is offered"`
	Treat     *TreatView         `json:"treat,omitempty"`
}

// ReadIn is the language of the home.
func (v FamilyView) ReadIn() string { return v.Language }

// A FamilyPart is the week of one of a student's instruments.
type FamilyPart struct {
	Plays string `json:"plays"`
	Path  string `json:"path" doc:"of its page"`
	Here  bool   `json:"here"`
}

// A NearView is how near a piece in hand is to done, in a family's words.
type NearView struct {
	Rung   string            `json:"rung"`
	Title  string            `json:"title"`
	Points []NearPoint       `json:"points" doc:"to hold in mind, those met ticked"`
	Spots  []places.SpotView `json:"spots"`
	Ready  bool              `json:"ready" doc:"all points are met: it may be tried in the lesson"`
	Next   string            `json:"next" doc:"title of what comes after it; empty for none"`
}

// A NearPoint is a focus point as a family sees it.
type NearPoint struct {
	Name string `json:"name"`
	Met  bool   `json:"met"`
}

// near lists the pieces in hand that stand on a sheet.
func near(p *studio.Pupil, sheet week.Sheet) []NearView {
	out := []NearView{}
	for _, r := range p.Standing.In(ladder.Current) {
		on := slices.ContainsFunc(sheet.Days, func(d week.Day) bool {
			return slices.ContainsFunc(d.Tasks, func(t week.Task) bool { return t.Rung == r.ID && !t.Listen })
		})
		if !on || r.Taught == nil {
			continue
		}
		v := NearView{Rung: r.ID, Title: r.Item.Title, Points: []NearPoint{}, Spots: []places.SpotView{}, Ready: r.Ready() && p.Standing.Ache == nil}
		for _, pt := range r.Points {
			if pt.Key != shelf.Spots {
				v.Points = append(v.Points, NearPoint{pt.Name, pt.State == ladder.Met})
			}
		}
		for _, s := range r.Spots {
			v.Spots = append(v.Spots, places.SpotView{ID: s.ID, Where: s.Where, Goal: s.Goal, Done: s.Done})
		}
		for _, next := range p.Standing.In(ladder.Ahead) {
			if v.Next == "" && next.Strand == r.Strand {
				v.Next = next.Item.Title
			}
		}
		out = append(out, v)
	}
	return out
}

// A TreatView is what a family counts towards.
type TreatView struct {
	Name   string `json:"name"`
	Counts string `json:"counts" enum:"footholds,days"`
	Goal   int    `json:"goal"`
	Done   int    `json:"done" doc:"since it was named"`
}

// treats reports whether counting towards a treat is offered, and towards what.
func treats(p *studio.Pupil) (offered bool, to *TreatView) {
	offered = advice.Treats(p.Approach, studio.Age(p.Student, p.Today()))
	if t := p.Standing.Treat; t != nil && offered {
		to = &TreatView{t.Name, t.Counts, t.Goal, home.Towards(*t, p.Standing)}
	}
	return offered, to
}

// Page shows the week that a link opens.
func Page(ctx context.Context, a *studio.App, token string) (FamilyView, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return FamilyView{}, err
	}
	base, _, _ := strings.Cut(token, "~")
	if err := a.Store.OpenFamilyLink(ctx, base, p.Today()); err != nil {
		return FamilyView{}, studio.Failed(err, "link")
	}
	v := FamilyView{Student: p.ID, FirstName: p.FirstName, Own: p.own, Studio: p.Row.Name, Language: p.Voice().Language(), Now: p.Room.Now, Today: p.Today(), Changed: []week.Line{}, Acts: []advice.LineAct{}, Ticks: []places.Tick{}, Days: []FamilyDay{}, Questions: []string{},
		Minutes: []int{}, Heard: []string{}, Pieces: []NearView{}, Along: p.Approach[approach.Model] == approach.Along, Weekdays: places.HomeDays(&p.Pupil), Budget: p.Standing.HomeDays.Minutes}
	all, err := p.SamePerson(ctx, p.Student)
	if err != nil {
		return v, studio.Failed(err, "student")
	}
	v.Parts = []FamilyPart{}
	for _, st := range all {
		if len(all) > 1 {
			v.Parts = append(v.Parts, FamilyPart{p.Instruments.Of(st.Instrument).Name, "/family/" + base + "~" + st.ID, st.ID == p.ID})
		}
	}
	if !p.own {
		v.Treats, v.Treat = treats(&p.Pupil)
	}
	if v.Document, v.Sheet, err = p.SheetOf(ctx, "", 0); err != nil || v.Sheet == nil {
		return v, err
	}
	revisions, err := p.Revisions(ctx, p.ID, document.Sheet, v.Sheet.From)
	if err != nil {
		return v, studio.Failed(err, "sheet")
	}
	sent, err := p.Mailings(ctx, document.Sheet, v.Sheet.From)
	if err != nil {
		return v, studio.Failed(err, "student")
	}
	if v.Changed, err = p.Changed(ctx, *v.Sheet, revisions, sent); err != nil {
		return v, err
	}
	v.Sheet.Gone = nil // what was struck is the teacher's
	v.Pieces = near(&p.Pupil, *v.Sheet)
	v.Acts = advice.OnSheet(v.Document.ID, *v.Sheet)
	v.Ticks, v.Minutes, v.Heard = places.Ticks(&p.Pupil, v.Sheet.From, revisions), v.Sheet.Choices(), heard(&p.Pupil, *v.Sheet)
	for _, day := range p.Standing.Practice {
		if day.Day >= v.Sheet.From {
			v.Days = append(v.Days, FamilyDay{day.ID, day.Day, day.Minutes, day.Feel})
		}
	}
	for _, q := range p.Standing.Questions {
		v.Questions = append(v.Questions, q.Text)
	}
	return v, nil
}

// A FamilyPast is what a family was asked before.
type FamilyPast struct {
	Weeks []studio.RecordWeek `json:"weeks" doc:"the last first, without the sheet that holds now"`
}

// mostPast is how many weeks back a family sees: a school year.
const mostPast = 44

// Weeks shows the sheets that a family was given before the one that holds.
func Weeks(ctx context.Context, a *studio.App, token string) (FamilyPast, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return FamilyPast{}, err
	}
	weeks, err := p.Weeks(ctx)
	if err != nil {
		return FamilyPast{}, err
	}
	now := studio.Latest(p.Standing.Closed)
	weeks = slices.DeleteFunc(weeks, func(w studio.RecordWeek) bool { return w.Day >= now })
	return FamilyPast{weeks[:min(len(weeks), mostPast)]}, nil
}

// A guest is who holds a link to a student's week: the family, or the student alone.
type guest struct {
	studio.Pupil
	own bool
}

// Enter lets in who holds a link's token, with all that is known of the student.
func Enter(ctx context.Context, a *studio.App, address string) (guest, error) {
	r, st, own, err := invited(ctx, a, address)
	if err != nil {
		return guest{}, err
	}
	p, err := a.PupilOf(ctx, r, st)
	return guest{p, own}, err
}

// invited finds whose week a link's token opens: that of the student that it was made for, or after a ~ of the
// same person on another instrument.
func invited(ctx context.Context, a *studio.App, address string) (r studio.Room, st store.Student, own bool, err error) {
	token, part, _ := strings.Cut(address, "~")
	l, err := a.Store.FamilyLink(ctx, token)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return r, st, false, &studio.Error{Kind: studio.Missing, Says: "This address opens no week. Part of it may have been lost on the way: open the link from the message again, or ask your teacher for a new one.", Cause: err}
	case err != nil:
		return r, st, false, studio.Failed(err, "link")
	case l.Ended:
		return r, st, false, &studio.Error{Kind: studio.Gone, Says: "Your teacher has ended this link. Ask for a new one at the next lesson; what you ticked is kept."}
	}
	if r, err = a.Enter(ctx, studio.Who{Studio: l.Studio}); err != nil {
		return r, st, false, err
	}
	if r.Today() > l.LastDay {
		return r, st, false, &studio.Error{Kind: studio.Gone, Says: "This link ended with the term. Your teacher sends a new one with the first sheet of the next; what you ticked is kept."}
	}
	if st, err = r.Student(ctx, l.Student); err != nil {
		return r, st, false, studio.Failed(err, "student")
	}
	if part != "" && part != l.Student {
		first := cmp.Or(st.Person, st.ID)
		if st, err = r.Student(ctx, part); err == nil && cmp.Or(st.Person, st.ID) != first || errors.Is(err, store.ErrNotFound) {
			return r, st, false, &studio.Error{Kind: studio.Missing, Says: "This address opens no week."}
		}
	}
	return r, st, l.Own, studio.Failed(err, "student")
}

// Tell saves what a family tells of its own student. It may take back what
// a family told, and nothing else.
func Tell(ctx context.Context, a *studio.App, token string, facts []fact.Fact) error {
	r, st, own, err := invited(ctx, a, token)
	if err != nil {
		return err
	}
	for i, f := range facts {
		if own && !door.FromStudent(f.Body) {
			return studio.Refuse("Mark %d of %d is for the family to settle, not for the student's own page.", i+1, len(facts))
		}
		if f.Student != st.ID {
			return studio.Refuse("Mark %d of %d is not of the student whose page this is.", i+1, len(facts))
		}
	}
	return a.TellAs(ctx, studio.Who{Studio: r.Row.ID}, fact.Family, facts)
}
