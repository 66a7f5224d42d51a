// Package sending mails what is written, week sheets and reports, and prints them.
package sending

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/places"
)

// SendSheet mails the week sheet that a student's lesson of a day gave, of the last for the
// empty day, to the family: with a new link, and as a page that prints. The id is made by
// the client, so that asking twice sends once.
func SendSheet(ctx context.Context, a *studio.App, who studio.Who, student string, day calendar.Date, id string, paper letter.Paper) (places.Sending, error) {
	if a.Mailer == nil {
		return places.Sending{}, &studio.Error{Kind: studio.Unavailable, Says: "This copy of the program sends no mail: no mail server is set."}
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
		return places.Sending{}, &studio.Error{Kind: studio.Conflict, Says: p.FirstName + " has no week sheet yet: it is written when a lesson is closed."}
	case p.Contact == "":
		return places.Sending{}, studio.Refuse("%s has no mail address yet. Put one in, and send again.", p.FirstName)
	}
	before, err1 := p.Mailings(ctx, document.Sheet, sheet.From)
	revisions, err2 := p.Revisions(ctx, student, document.Sheet, sheet.From)
	if err := errors.Join(err1, err2); err != nil {
		return places.Sending{}, studio.Failed(err, "student")
	}
	changed, err := p.Changed(ctx, *sheet, revisions, before)
	if err != nil {
		return places.Sending{}, err
	}
	for i, address := range Addresses(p.Contact) { // each its own letter, with a link of its own
		m := store.Mailing{ID: places.Twin(id, i), Student: student, Kind: document.Sheet, Day: sheet.From, Address: address, State: store.Sending, At: p.Room.Now}
		ask := letter.Ask{FirstName: p.FirstName, Studio: p.Row.Name, Sheet: *sheet, Changed: changed, Paper: paper}
		if err := post(ctx, a, &p, m, func() (letter.Letter, error) { return write(ctx, a, who, m.Student, ask) }); err != nil {
			return places.Sending{}, err
		}
	}
	sent, err := p.Mailings(ctx, document.Sheet, sheet.From)
	if err != nil {
		return places.Sending{}, studio.Failed(err, "student")
	}
	return places.Together(sent, p.Room.Now, func(m store.Mailing) bool { return places.Twins(m.ID, id) }), nil
}

// Addresses are those that a student's sheets go to.
func Addresses(contact string) []string {
	return strings.FieldsFunc(contact, func(r rune) bool { return r == ',' || r == ' ' || r == ';' })
}

// post sends one letter; one that was sent before is not sent again.
func post(ctx context.Context, a *studio.App, p *studio.Pupil, m store.Mailing, write func() (letter.Letter, error)) error {
	if added, err := p.AddMailing(ctx, m); err != nil || !added {
		return studio.Failed(err, "student")
	}
	m.State, m.Says = store.Sent, ""
	l, err := write()
	if err != nil {
		m.State, m.Says = store.Failed, "The letter could not be written; try again"
	} else if err = a.Mailer.Send(ctx, mail.Letter{ID: m.ID, FromName: diary.Line(p.Row.Name), To: m.Address, Subject: diary.Line(l.Subject), Text: l.Text, HTML: l.HTML,
		Files: []mail.File{{Name: fmt.Sprintf("%s-%s.pdf", studio.FileName(p.FirstName), m.Day), Type: "application/pdf", Data: l.Page}}}); err != nil {
		var refused *mail.Refused
		if m.State, m.Says = store.Failed, "The mail server cannot be reached just now; try again in a while"; errors.As(err, &refused) {
			m.State, m.Says = store.Refused, refused.Says
		}
	}
	if err != nil {
		slog.Warn(string(m.Kind)+" not sent", "sending", m.ID, "cause", err)
	}
	// what was sent is sent, also when the browser has gone meanwhile
	return studio.Failed(p.EndMailing(context.WithoutCancel(ctx), m.ID, m.State, m.Says), "student")
}

// write writes a sheet's letter, with a new link in it.
func write(ctx context.Context, a *studio.App, who studio.Who, student string, ask letter.Ask) (letter.Letter, error) {
	link, err := family.MakeLink(ctx, a, who, student, false)
	if err != nil {
		return letter.Letter{}, err
	}
	teacher, err := a.Store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return letter.Letter{}, err
	}
	ask.Link, ask.LastDay, ask.Teacher = a.Base+link.Path, link.LastDay, teacher
	return letter.Write(ask)
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
		one := DaySheet{Student: s.Student, Name: s.Name, Start: s.Start, Closed: closed, Sending: places.LastOf(sent, s.Student, day.Date, r.Now)}
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
