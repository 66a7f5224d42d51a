// Package sending mails what is written, week sheets and reports, and prints them.
package sending

import (
	"context"
	"errors"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/letter"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
)

// noMail is told where the program has no mail server.
func noMail(a *studio.App) error {
	if a.Mailer == nil {
		return &studio.Error{Kind: studio.Unavailable, Says: "This copy of the program sends no email: no mail server is set."}
	}
	return nil
}

// SendSheet puts the week sheet that a student's lesson of a day gave, of the last for the empty day,
// into the post to the family. It waits there for a few seconds, in which it can be undone. The id is
// made by the client, so that asking twice sends once.
func SendSheet(ctx context.Context, a *studio.App, who studio.Who, student string, day calendar.Date, id string, paper letter.Paper) (places.Sending, error) {
	if err := noMail(a); err != nil {
		return places.Sending{}, err
	}
	if err := studio.CheckDay(day); err != nil {
		return places.Sending{}, err
	}
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return places.Sending{}, err
	}
	_, sheet, err := p.SheetOf(ctx, day, 0)
	switch {
	case err != nil:
		return places.Sending{}, err
	case sheet == nil:
		return places.Sending{}, &studio.Error{Kind: studio.Conflict, Says: p.FirstName + " has no practice sheet yet: it is written when a lesson is finished."}
	}
	return put(ctx, a, who, &p, store.Mailing{ID: id, Student: student, Kind: document.Sheet, Day: sheet.From, Paper: string(paper)})
}

// put puts a document into the post, a letter to each of the student's addresses.
func put(ctx context.Context, a *studio.App, who studio.Who, p *studio.Pupil, m store.Mailing) (places.Sending, error) {
	if p.Contact == "" {
		return places.Sending{}, studio.Refuse("%s has no email address yet. Add one, and send again.", p.FirstName)
	}
	first := m.ID
	m.Teacher, m.At, m.Due = who.Teacher, p.Room.Now, a.Now().Add(a.Hold)
	for i, address := range Addresses(p.Contact) { // each its own letter, with a link of its own
		m.ID, m.Address = places.Twin(first, i), address
		if _, err := p.AddMailing(ctx, m); err != nil {
			return places.Sending{}, studio.Failed(err, "student")
		}
	}
	return Fared(ctx, a, who, first)
}

// most is to how many addresses a student's sheets go.
const most = 4

// Fared is how the letters of a sending stand.
func Fared(ctx context.Context, a *studio.App, who studio.Who, id string) (places.Sending, error) {
	sent, err := a.Store.In(who.Studio).MailingsNamed(ctx, twins(id))
	if err != nil {
		return places.Sending{}, studio.Failed(err, "sending")
	}
	if len(sent) == 0 {
		return places.Sending{}, &studio.Error{Kind: studio.Missing, Says: "No letter of that kind was sent from this studio."}
	}
	return places.Together(sent, func(store.Mailing) bool { return true }), nil
}

// twins are the ids of the letters of a sending.
func twins(id string) []string {
	ids := make([]string, most)
	for i := range ids {
		ids[i] = places.Twin(id, i)
	}
	return ids
}

// Undo takes back the letters of a sending that still wait.
func Undo(ctx context.Context, a *studio.App, who studio.Who, id string) (places.Sending, error) {
	undone := 0
	for _, one := range twins(id) {
		did, err := a.Store.In(who.Studio).UndoMailing(ctx, one)
		if err != nil {
			return places.Sending{}, studio.Failed(err, "sending")
		}
		if did {
			undone++
		}
	}
	fared, err := Fared(ctx, a, who, id)
	if err == nil && undone == 0 && fared.State != store.Undone {
		return fared, &studio.Error{Kind: studio.Conflict, Says: "It is too late: the letter has gone out."}
	}
	return fared, err
}

// Addresses are those that a student's sheets go to.
func Addresses(contact string) []string {
	return strings.FieldsFunc(contact, func(r rune) bool { return r == ',' || r == ' ' || r == ';' })
}

// Returned keeps that a letter came back.
func Returned(ctx context.Context, a *studio.App, id, says string) error {
	return a.Store.Return(ctx, id, says)
}

// A DaySheet is one student's sheet among those of a day.
type DaySheet struct {
	Student string          `json:"student"`
	Name    string          `json:"name"`
	Start   string          `json:"start" doc:"of the lesson, 15:04"`
	Closed  bool            `json:"closed" doc:"the lesson is closed, so that there is a sheet"`
	Contact string          `json:"contact" doc:"empty where no address is known"`
	Sending *places.Sending `json:"sending,omitempty" doc:"the last of this sheet"`
}

// A SheetsView is a day's sheets.
type SheetsView struct {
	Date   calendar.Date `json:"date"`
	Today  calendar.Date `json:"today"`
	Sheets []DaySheet    `json:"sheets"`
}

// Sheets shows the sheets of the lessons of a day, and how each is on its way; the
// empty date is today.
func Sheets(ctx context.Context, a *studio.App, who studio.Who, date calendar.Date) (SheetsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return SheetsView{}, err
	}
	day, err := diary.DayOf(ctx, r, date)
	if err != nil {
		return SheetsView{}, err
	}
	sent, err1 := r.Mailings(ctx, document.Sheet, day.Date)
	lessons, err2 := r.Standings(ctx, studio.Comings)
	if err := errors.Join(err1, err2); err != nil {
		return SheetsView{}, studio.Failed(err, "studio")
	}
	v := SheetsView{Date: day.Date, Today: day.Today, Sheets: []DaySheet{}}
	for _, s := range day.Segments {
		_, closed := lessons[s.Student].Closed[day.Date]
		one := DaySheet{Student: s.Student, Name: s.Name, Start: s.Start, Closed: closed, Sending: places.LastOf(sent, s.Student, day.Date)}
		for _, st := range day.Students {
			if st.ID == s.Student {
				one.Contact = st.Contact
			}
		}
		v.Sheets = append(v.Sheets, one)
	}
	return v, nil
}

// SentFrom returns the ids of all letters that a studio has sent.
func SentFrom(ctx context.Context, a *studio.App, who studio.Who) (map[string]bool, error) {
	list, err := a.Store.In(who.Studio).SentIDs(ctx)
	if err != nil {
		return nil, studio.Failed(err, "studio")
	}
	out := make(map[string]bool, len(list))
	for _, id := range list {
		out[id] = true
	}
	return out, nil
}
