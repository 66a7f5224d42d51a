package sending

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"patientladder/core/document"
	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/places"
)

// A letter is a row of the database with the time at which it is due, so that no browser has to
// stay open and no program has to run on until it goes out. Whichever copy of the program finds
// it due takes it, for a while: one that stops in the middle leaves it to another.
const (
	lease  = 2 * time.Minute // longer than any server takes over a letter
	begins = 3               // how often a letter is begun at most
	stale  = 24 * time.Hour  // a letter that is due for longer is not sent unasked: a copy of long ago was restored
	look   = time.Second     // between two looks for letters that are due
)

// Run sends letters as they come due, until the context ends.
func Run(ctx context.Context, a *studio.App) {
	tick := time.NewTicker(look)
	defer tick.Stop()
	for {
		if err := Deliver(ctx, a); err != nil && ctx.Err() == nil {
			slog.Warn("letters wait", "cause", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// Deliver sends the letters that are due now, each once however many copies of the program ask.
func Deliver(ctx context.Context, a *studio.App) error {
	if a.Mailer == nil {
		return nil
	}
	list, err := a.Store.DueMailings(ctx, a.Now())
	if err != nil {
		return err
	}
	for _, m := range list {
		mine, err := a.Store.TakeMailing(ctx, m, a.Now().Add(lease))
		if err != nil {
			return err
		}
		if !mine {
			continue
		}
		begun := context.WithoutCancel(ctx) // a letter that was begun is finished, also when the program is stopping
		state, says := send(begun, a, m)
		if err := a.Store.In(m.Studio).EndMailing(begun, m.ID, state, says); err != nil {
			return err
		}
	}
	return nil
}

// send sends one letter, and says how that went.
func send(ctx context.Context, a *studio.App, m store.DueMailing) (state, says string) {
	switch {
	case m.Tries >= begins:
		return store.Failed, "It was cut off, and may have gone out or not; send it again"
	case a.Now().Sub(m.Due) > stale:
		return store.Failed, "It was not sent in time; send it again"
	}
	l, err := write(ctx, a, studio.Who{Teacher: m.Teacher, Studio: m.Studio}, m.Mailing)
	if err != nil {
		slog.Warn(string(m.Kind)+" not written", "sending", m.ID, "cause", err)
		return store.Failed, "The letter could not be written; try again"
	}
	if err := a.Mailer.Send(ctx, l); err != nil {
		slog.Warn(string(m.Kind)+" not sent", "sending", m.ID, "cause", err)
		if refused := (*mail.Refused)(nil); errors.As(err, &refused) {
			return store.Refused, refused.Says
		}
		return store.Failed, "The mail server cannot be reached just now; try again in a while"
	}
	return store.Sent, ""
}

// write writes a letter as it is sent: a sheet with a new link in it, or a report as it was kept.
func write(ctx context.Context, a *studio.App, who studio.Who, m store.Mailing) (mail.Letter, error) {
	p, err := a.Taught(ctx, who, m.Student)
	if err != nil {
		return mail.Letter{}, err
	}
	teacher, err := a.Store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return mail.Letter{}, err
	}
	writes := writeSheet
	if m.Kind == document.Report {
		writes = writeReport
	}
	l, err := writes(ctx, a, who, &p, m, teacher)
	if err != nil {
		return mail.Letter{}, err
	}
	return mail.Letter{ID: m.ID, FromName: diary.Line(p.Row.Name), To: m.Address, Subject: diary.Line(l.Subject), Text: l.Text, HTML: l.HTML,
		Files: []mail.File{{Name: fmt.Sprintf("%s-%s.pdf", studio.FileName(p.FirstName), m.Day), Type: "application/pdf", Data: l.Page}}}, nil
}

func writeSheet(ctx context.Context, a *studio.App, who studio.Who, p *studio.Pupil, m store.Mailing, teacher string) (letter.Letter, error) {
	_, sheet, err := p.SheetOf(ctx, m.Day, 0)
	if err != nil {
		return letter.Letter{}, err
	}
	sent, err1 := p.Mailings(ctx, document.Sheet, m.Day)
	revisions, err2 := p.Revisions(ctx, m.Student, document.Sheet, m.Day)
	if err := errors.Join(err1, err2); err != nil {
		return letter.Letter{}, err
	}
	var before []store.Mailing // that the family may have
	for _, o := range sent {
		if !places.Twins(o.ID, m.ID) && o.State != store.Undone && o.State != store.Waiting {
			before = append(before, o)
		}
	}
	changed, err := p.Changed(ctx, *sheet, revisions, before)
	if err != nil {
		return letter.Letter{}, err
	}
	link, err := family.MakeLink(ctx, a, who, m.Student, false)
	if err != nil {
		return letter.Letter{}, err
	}
	return letter.Write(letter.Ask{FirstName: p.FirstName, Studio: p.Row.Name, Teacher: teacher, Sheet: sheet.Fold(p.Today()), Changed: changed, Paper: letter.Paper(m.Paper), Words: p.Voice(), Link: a.Base + link.Path, LastDay: link.LastDay})
}

func writeReport(ctx context.Context, _ *studio.App, _ studio.Who, p *studio.Pupil, m store.Mailing, teacher string) (letter.Letter, error) {
	kept, there, err := reportOf(ctx, p, m.Day)
	if err != nil || !there {
		return letter.Letter{}, errors.Join(err, fmt.Errorf("the report of %s is kept: %v", m.Day, there))
	}
	return letter.WriteReport(letter.ReportAsk{FirstName: p.FirstName, Studio: p.Row.Name, Teacher: teacher, Report: kept, Paper: letter.Paper(m.Paper), Words: p.Voice()})
}
