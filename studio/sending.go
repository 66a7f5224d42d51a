package studio

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/charset"
	"patientladder/core/document"
	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
)

// A Mailer sends letters.
type Mailer interface {
	Send(ctx context.Context, l mail.Letter) error
}

// Mails makes the use cases send through a mailer, with links that begin with a
// base such as https://ladder.example.
func (a *App) Mails(m Mailer, base string) { a.mailer, a.base = m, strings.TrimRight(base, "/") }

// A Sending is how a week sheet's mail fared.
type Sending struct {
	ID      string    `json:"id"`
	Address string    `json:"address"`
	State   string    `json:"state" enum:"sending,sent,failed,refused,bounced"`
	Says    string    `json:"says" doc:"why it was not delivered"`
	At      time.Time `json:"at"`
}

// sendingOf is how a mail stands at a moment. One that has been on its way for long
// was cut off, by a program that stopped.
func sendingOf(m store.Mailing, now time.Time) *Sending {
	if m.State == store.Sending && now.Sub(m.At) > longSending {
		m.State, m.Says = store.Failed, "It was cut off, and may have gone out or not; send it again"
	}
	return &Sending{m.ID, m.Address, m.State, m.Says, m.At}
}

// longSending is longer than any server takes over a letter.
const longSending = 2 * time.Minute

// SendSheet mails the week sheet that a student's lesson of a day gave, of the last for the
// empty day, to the family: with a new link, and as a page that prints. The id is made by
// the client, so that asking twice sends once.
func (a *App) SendSheet(ctx context.Context, who Who, student string, day calendar.Date, id string, paper letter.Paper) (Sending, error) {
	if a.mailer == nil {
		return Sending{}, &Error{Kind: Unavailable, Says: "This copy of the program sends no mail: no mail server is set."}
	}
	if err := checkDay(day); err != nil {
		return Sending{}, err
	}
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return Sending{}, err
	}
	_, sheet, err := p.sheetOf(ctx, day, 0)
	switch {
	case err != nil:
		return Sending{}, err
	case sheet == nil:
		return Sending{}, &Error{Kind: Conflict, Says: p.FirstName + " has no week sheet yet: it is written when a lesson is closed."}
	case p.Contact == "":
		return Sending{}, invalid("%s has no mail address yet. Put one in, and send again.", p.FirstName)
	}
	before, err1 := p.Mailings(ctx, document.Sheet, sheet.From)
	revisions, err2 := p.Revisions(ctx, student, document.Sheet, sheet.From)
	if err := errors.Join(err1, err2); err != nil {
		return Sending{}, told(err, "student")
	}
	changed, err := p.changed(ctx, *sheet, revisions, before)
	if err != nil {
		return Sending{}, err
	}
	for i, address := range addresses(p.Contact) { // each its own letter, with a link of its own
		m := store.Mailing{ID: twin(id, i), Student: student, Kind: document.Sheet, Day: sheet.From, Address: address, State: store.Sending, At: p.room.now}
		ask := letter.Ask{FirstName: p.FirstName, Studio: p.row.Name, Sheet: *sheet, Changed: changed, Paper: paper}
		if err := a.post(ctx, &p, m, func() (letter.Letter, error) { return a.write(ctx, who, m.Student, ask) }); err != nil {
			return Sending{}, err
		}
	}
	sent, err := p.Mailings(ctx, document.Sheet, sheet.From)
	if err != nil {
		return Sending{}, told(err, "student")
	}
	return together(sent, p.room.now, func(m store.Mailing) bool { return twins(m.ID, id) }), nil
}

// addresses are those that a student's sheets go to.
func addresses(contact string) []string {
	return strings.FieldsFunc(contact, func(r rune) bool { return r == ',' || r == ' ' || r == ';' })
}

// idLetters are those of an id, in order.
const idLetters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"

// twin is the id of the letter to one of a family's addresses, so that asking twice sends
// each once: it differs from the first in its last letter.
func twin(id string, i int) string {
	if i == 0 || id == "" {
		return id
	}
	last := len(id) - 1
	return id[:last] + string(idLetters[(strings.IndexByte(idLetters, id[last])+i)%len(idLetters)])
}

// twins reports whether two letters went out together.
func twins(a, b string) bool { return len(a) == len(b) && len(a) > 0 && a[:len(a)-1] == b[:len(b)-1] }

// post sends one letter; one that was sent before is not sent again.
func (a *App) post(ctx context.Context, p *pupil, m store.Mailing, write func() (letter.Letter, error)) error {
	if added, err := p.AddMailing(ctx, m); err != nil || !added {
		return told(err, "student")
	}
	m.State, m.Says = store.Sent, ""
	l, err := write()
	if err != nil {
		m.State, m.Says = store.Failed, "The letter could not be written; try again"
	} else if err = a.mailer.Send(ctx, mail.Letter{ID: m.ID, FromName: line(p.row.Name), To: m.Address, Subject: line(l.Subject), Text: l.Text, HTML: l.HTML,
		Files: []mail.File{{Name: fmt.Sprintf("%s-%s.pdf", fileName(p.FirstName), m.Day), Type: "application/pdf", Data: l.Page}}}); err != nil {
		var refused *mail.Refused
		if m.State, m.Says = store.Failed, "The mail server cannot be reached just now; try again in a while"; errors.As(err, &refused) {
			m.State, m.Says = store.Refused, refused.Says
		}
	}
	if err != nil {
		slog.Warn(string(m.Kind)+" not sent", "sending", m.ID, "cause", err)
	}
	// what was sent is sent, also when the browser has gone meanwhile
	return told(p.EndMailing(context.WithoutCancel(ctx), m.ID, m.State, m.Says), "student")
}

// worse orders how letters fared, the best first.
var worse = []string{store.Sent, store.Sending, store.Failed, store.Refused, store.Bounced}

// together tells how the letters of one sending fared: all addresses, and the worst.
func together(sent []store.Mailing, now time.Time, of func(store.Mailing) bool) Sending {
	var list []*Sending
	for _, m := range sent {
		if of(m) {
			list = append(list, sendingOf(m, now))
		}
	}
	if len(list) == 0 {
		return Sending{}
	}
	slices.SortFunc(list, func(a, b *Sending) int { return strings.Compare(a.Address, b.Address) })
	out := *slices.MaxFunc(list, func(a, b *Sending) int { return slices.Index(worse, a.State) - slices.Index(worse, b.State) })
	if len(list) > 1 {
		if out.Says != "" {
			out.Says = out.Address + ": " + out.Says
		}
		var all []string
		for _, one := range list {
			all = append(all, one.Address)
		}
		out.Address = strings.Join(all, ", ")
	}
	return out
}

// write writes a sheet's letter, with a new link in it.
func (a *App) write(ctx context.Context, who Who, student string, ask letter.Ask) (letter.Letter, error) {
	link, err := a.MakeLink(ctx, who, student, false)
	if err != nil {
		return letter.Letter{}, err
	}
	teacher, err := a.store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return letter.Letter{}, err
	}
	ask.Link, ask.LastDay, ask.Teacher = a.base+link.Path, link.LastDay, teacher
	return letter.Write(ask)
}

// fileName leaves only letters, digits and hyphens of a name.
func fileName(name string) string {
	kept := strings.Map(func(r rune) rune {
		if r == '-' || r >= '0' && r <= '9' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' {
			return r
		}
		return -1
	}, name)
	if kept == "" {
		return "sheet"
	}
	return kept
}

// Returned keeps that a letter came back.
func (a *App) Returned(ctx context.Context, id, says string) error {
	return a.store.Return(ctx, id, says)
}

// mostAddresses is how many addresses a student's sheets go to: of guardians in two homes, or
// of some and the student.
const mostAddresses = 4

// contact checks the addresses that sheets should go to and writes them as they are kept.
func contact(given string) (string, error) {
	list := addresses(given)
	if len(list) > mostAddresses {
		return "", invalid("Sheets go to %d addresses at most; these are %d.", mostAddresses, len(list))
	}
	for _, address := range list {
		if err := mail.CheckAddress(address); err != nil || len(address) > 190 || charset.Steers(address) {
			return "", invalid("%q is not a mail address such as name@home.example.", address)
		}
	}
	return strings.Join(slices.Compact(list), ", "), nil
}

// SetContact keeps the mail addresses that a student's sheets go to; an empty text
// takes them away.
func (a *App) SetContact(ctx context.Context, who Who, student, given string) error {
	kept, err := contact(given)
	if err != nil {
		return err
	}
	return told(a.store.In(who.Studio).SetContact(ctx, student, kept), "student")
}

// A DaySheet is one student's sheet among those of a day.
type DaySheet struct {
	Student string   `json:"student"`
	Name    string   `json:"name"`
	Start   string   `json:"start" doc:"of the lesson, 15:04"`
	Closed  bool     `json:"closed" doc:"the lesson is closed, so that there is a sheet"`
	Contact string   `json:"contact" doc:"empty where no address is known"`
	Sending *Sending `json:"sending,omitempty" doc:"the last of this sheet"`
}

// A SheetsView is a day's sheets.
type SheetsView struct {
	Date   calendar.Date `json:"date"`
	Today  calendar.Date `json:"today"`
	Sheets []DaySheet    `json:"sheets"`
}

// Sheets shows the sheets of the lessons of a day, and how each is on its way; the
// empty date is today.
func (a *App) Sheets(ctx context.Context, who Who, date calendar.Date) (SheetsView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return SheetsView{}, err
	}
	day, err := r.day(ctx, date)
	if err != nil {
		return SheetsView{}, err
	}
	sent, err1 := r.Mailings(ctx, document.Sheet, day.Date)
	lessons, err2 := r.standings(ctx, comings)
	if err := errors.Join(err1, err2); err != nil {
		return SheetsView{}, told(err, "studio")
	}
	v := SheetsView{Date: day.Date, Today: day.Today, Sheets: []DaySheet{}}
	for _, s := range day.Segments {
		_, closed := lessons[s.Student].Closed[day.Date]
		one := DaySheet{Student: s.Student, Name: s.Name, Start: s.Start, Closed: closed, Sending: lastOf(sent, s.Student, day.Date, r.now)}
		for _, st := range day.Students {
			if st.ID == s.Student {
				one.Contact = st.Contact
			}
		}
		v.Sheets = append(v.Sheets, one)
	}
	return v, nil
}

// lastOf is the newest sending of a student's sheet of a day.
func lastOf(sent []store.Mailing, student string, day calendar.Date, now time.Time) *Sending {
	for _, m := range sent { // newest first
		if m.Student == student && m.Day == day {
			s := together(sent, now, func(o store.Mailing) bool { return twins(o.ID, m.ID) })
			return &s
		}
	}
	return nil
}

// SentFrom returns the ids of all letters that a studio has sent.
func (a *App) SentFrom(ctx context.Context, who Who) (map[string]bool, error) {
	list, err := a.store.In(who.Studio).SentIDs(ctx)
	if err != nil {
		return nil, told(err, "studio")
	}
	out := make(map[string]bool, len(list))
	for _, id := range list {
		out[id] = true
	}
	return out, nil
}
