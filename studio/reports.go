package studio

import (
	"context"
	"encoding/json"
	"errors"
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/record"
	"patientladder/core/report"
	"patientladder/letter"
	"patientladder/store"
)

// A ReportView is a student's report of a term: as it was kept last, or as it is drafted from the
// facts.
type ReportView struct {
	Student   StudentCard         `json:"student"`
	Terms     []record.TermSpan   `json:"terms" doc:"those that have begun, the newest first"`
	Shown     int                 `json:"shown" doc:"place in the list of terms; -1 while none has begun"`
	Lessons   int                 `json:"lessons" doc:"given in the term so far"`
	Report    report.Report       `json:"report"`
	Drafted   report.Report       `json:"drafted" doc:"as the facts have it now"`
	Revisions []document.Document `json:"revisions" doc:"as it was kept, the first first"`
	Sending   *Sending            `json:"sending,omitempty" doc:"the last of it"`
}

// shownTerm finds the term that began on a day among those that have; the newest for the empty day,
// and -1 while none has begun.
func (r room) shownTerm(from calendar.Date) ([]record.TermSpan, int, error) {
	terms := record.Terms(r.row.Calendar, r.today())
	shown := slices.IndexFunc(terms, func(t record.TermSpan) bool { return from == "" || t.From == from })
	if shown < 0 && from != "" {
		return terms, shown, invalid("No term has begun on %s. Choose one of those that have.", from)
	}
	return terms, shown, nil
}

// draft drafts a student's report of a term from what that brought.
func (p *pupil) draft(term record.TermSpan, brought record.Brought) report.Report {
	span := term.SoFar
	ask := report.Ask{Name: p.FirstName, Adult: age(p.Student, p.today()) >= 18, Before: p.standing.BeforeBook, Span: calendar.Span{Name: term.Name, From: span.From, To: span.To},
		Brought: brought, Kept: len(p.standing.In(ladder.Secure)), Words: home.Words(p.standing, span.From, span.To)}
	for _, talk := range p.standing.Talks {
		if span.Holds(calendar.On(talk.At)) {
			ask.Agreed = talk.Agreed
		}
	}
	for _, r := range p.standing.In(ladder.Current) {
		if r.Taught != nil && r.Strand.Piece() {
			ask.Hand = append(ask.Hand, report.InHand{Title: r.Item.Title, Missing: r.Missing()})
		}
	}
	for _, r := range p.standing.In(ladder.Ahead) {
		if r.Strand.Piece() && len(ask.Next) < 2 {
			ask.Next = append(ask.Next, r.Item.Title)
		}
	}
	for _, h := range p.now().Ahead {
		if h.Done > 0 && len(ask.Ahead) < 3 {
			ask.Ahead = append(ask.Ahead, h.Name)
		}
	}
	return report.Draft(ask)
}

// reportOf is the report of a term as it was kept last; false where it was not.
func (p *pupil) reportOf(ctx context.Context, from calendar.Date) (report.Report, bool, error) {
	kept, err := p.Studio.Document(ctx, p.ID, document.Report, from, 0)
	if errors.Is(err, store.ErrNotFound) {
		return report.Report{}, false, nil
	}
	if err != nil {
		return report.Report{}, false, told(err, "report")
	}
	var out report.Report
	return out, true, json.Unmarshal(kept.Body, &out)
}

// Report shows a student's report of the term that began on a day, or of the newest for the empty
// date.
func (a *App) Report(ctx context.Context, who Who, student string, from calendar.Date) (ReportView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return ReportView{}, err
	}
	terms, shown, err := p.shownTerm(from)
	if err != nil || shown < 0 {
		none := report.Report{Paragraphs: []report.Paragraph{}}
		return ReportView{Student: p.card(p.Student, p.standing, p.lessonDay()), Terms: terms, Shown: shown, Revisions: []document.Document{}, Report: none, Drafted: none}, err
	}
	sent, err := p.Mailings(ctx, document.Report, terms[shown].From)
	if err != nil {
		return ReportView{}, told(err, "report")
	}
	return p.reported(ctx, terms, shown, sent)
}

// reported is a student's report of one of the terms, with how it fared among all that were sent.
func (p *pupil) reported(ctx context.Context, terms []record.TermSpan, shown int, sent []store.Mailing) (ReportView, error) {
	term := terms[shown]
	brought := record.Over(p.standing, p.graph, p.presumed(p.standing), term.SoFar)
	drafted := p.draft(term, brought)
	kept, there, err := p.reportOf(ctx, term.From)
	if err != nil {
		return ReportView{}, err
	}
	if !there {
		kept = drafted
	}
	revisions, err := p.Revisions(ctx, p.ID, document.Report, term.From)
	return ReportView{Student: p.card(p.Student, p.standing, p.lessonDay()), Terms: terms, Shown: shown, Lessons: brought.Lessons, Report: kept, Drafted: drafted,
		Revisions: list(revisions), Sending: lastOf(sent, p.ID, term.From, p.room.now)}, told(err, "report")
}

// KeepReport keeps a report as the teacher wrote it. What reads as it was kept last changes nothing.
func (a *App) KeepReport(ctx context.Context, who Who, student string, r report.Report) error {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return err
	}
	if _, _, err := p.shownTerm(r.Term.From); err != nil {
		return err
	}
	if err := r.Check(); err != nil {
		return invalid("The report cannot be kept: %v.", err)
	}
	body, err := json.Marshal(r)
	if err != nil {
		return err
	}
	revisions, err := p.Revisions(ctx, student, document.Report, r.Term.From)
	if err != nil {
		return told(err, "student")
	}
	d := store.KeptDocument{Document: document.Document{Student: student, Kind: document.Report, Day: r.Term.From, Revision: len(revisions) + 1, Reason: document.Given, By: fact.Teacher, At: p.room.now, Program: program}, Summary: struct{}{}, Body: body}
	if len(revisions) > 0 {
		before, _, err := p.reportOf(ctx, r.Term.From)
		if err != nil {
			return err
		}
		if slices.Equal(before.Paragraphs, r.Paragraphs) && before.Term == r.Term {
			return nil
		}
		d.Reason = document.Edited
	}
	d.ID = documentID(student, document.Report, d.Day, d.Revision, p.room.now)
	return told(p.AddTold(ctx, nil, []store.KeptDocument{d}, aDay), "student")
}

// SendReport mails a report as it was kept, to the addresses that sheets go to. The id is made by
// the client, so that asking twice sends once.
func (a *App) SendReport(ctx context.Context, who Who, student string, from calendar.Date, id string, paper letter.Paper) (Sending, error) {
	if a.mailer == nil {
		return Sending{}, &Error{Kind: Unavailable, Says: "This copy of the program sends no mail: no mail server is set."}
	}
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return Sending{}, err
	}
	kept, there, err := p.reportOf(ctx, from)
	switch {
	case err != nil:
		return Sending{}, err
	case !there:
		return Sending{}, &Error{Kind: Conflict, Says: "The report of " + p.FirstName + " is a draft yet. Read it, keep it, and send it then."}
	case p.Contact == "":
		return Sending{}, invalid("%s has no mail address yet. Put one in, and send again.", p.FirstName)
	}
	teacher, err := a.store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return Sending{}, told(err, "studio")
	}
	ask := letter.ReportAsk{FirstName: p.FirstName, Studio: p.row.Name, Teacher: teacher, Report: kept, Paper: paper}
	for i, address := range addresses(p.Contact) {
		m := store.Mailing{ID: twin(id, i), Student: student, Kind: document.Report, Day: from, Address: address, State: store.Sending, At: p.room.now}
		if err := a.post(ctx, &p, m, func() (letter.Letter, error) { return letter.WriteReport(ask) }); err != nil {
			return Sending{}, err
		}
	}
	sent, err := p.Mailings(ctx, document.Report, from)
	if err != nil {
		return Sending{}, told(err, "student")
	}
	return together(sent, p.room.now, func(m store.Mailing) bool { return twins(m.ID, id) }), nil
}

// A StudentReport is one student's report among those of a term.
type StudentReport struct {
	Student StudentCard   `json:"student"`
	Report  report.Report `json:"report"`
	Kept    int           `json:"kept" doc:"revisions that were kept; 0 of a draft"`
	Sending *Sending      `json:"sending,omitempty"`
}

// A ReportsView is the reports of a term.
type ReportsView struct {
	Terms   []record.TermSpan `json:"terms"`
	Shown   int               `json:"shown"`
	Reports []StudentReport   `json:"reports" doc:"of those who had a lesson in it, by name"`
}

// Reports shows the reports of all students of a term, kept or drafted.
func (a *App) Reports(ctx context.Context, who Who, from calendar.Date) (ReportsView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return ReportsView{}, err
	}
	return a.reports(ctx, who, r, from, "")
}

// reports are those of a term: of all students, or of one.
func (a *App) reports(ctx context.Context, who Who, r room, from calendar.Date, student string) (v ReportsView, err error) {
	v.Reports = []StudentReport{}
	if v.Terms, v.Shown, err = r.shownTerm(from); err != nil || v.Shown < 0 {
		return v, err
	}
	students, err1 := r.Students(ctx)
	sent, err2 := r.Mailings(ctx, document.Report, v.Terms[v.Shown].From)
	if err := errors.Join(err1, err2); err != nil {
		return v, told(err, "studio")
	}
	for _, st := range students {
		if student != "" && st.ID != student {
			continue
		}
		p, err := a.pupil(ctx, who, st.ID)
		if err != nil {
			return v, err
		}
		one, err := p.reported(ctx, v.Terms, v.Shown, sent)
		if err != nil {
			return v, err
		}
		if one.Lessons > 0 || len(one.Revisions) > 0 {
			v.Reports = append(v.Reports, StudentReport{one.Student, one.Report, len(one.Revisions), one.Sending})
		}
	}
	return v, nil
}

// PrintReports draws the kept reports of a term as pages that print: of all students, or of one.
func (a *App) PrintReports(ctx context.Context, who Who, from calendar.Date, student string, paper letter.Paper) (Archive, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return Archive{}, err
	}
	v, err := a.reports(ctx, who, r, from, student)
	if err != nil {
		return Archive{}, err
	}
	teacher, err := a.store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return Archive{}, told(err, "studio")
	}
	var asks []letter.ReportAsk
	for _, one := range v.Reports {
		if one.Kept > 0 {
			asks = append(asks, letter.ReportAsk{FirstName: one.Student.FirstName, Studio: r.row.Name, Teacher: teacher, Report: one.Report, Paper: paper})
		}
	}
	if len(asks) == 0 {
		return Archive{}, &Error{Kind: Conflict, Says: "No report of this term is kept yet. Read it, keep it, and print it then."}
	}
	pages, err := letter.ReportPages(asks)
	return Archive{"reports-" + string(v.Terms[v.Shown].From) + ".pdf", pages}, err
}

// CanPlay draws a list for the student to keep: what is secure, the last first.
func (a *App) CanPlay(ctx context.Context, who Who, student string, paper letter.Paper) (Archive, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return Archive{}, err
	}
	var out []letter.Playing
	for _, r := range p.standing.In(ladder.Secure) {
		if r.Strand.Piece() {
			out = append(out, letter.Playing{Title: r.Item.Title, Composer: r.Item.Composer, Since: calendar.On(*r.Foothold), Polished: r.Polished})
		}
	}
	slices.SortStableFunc(out, func(a, b letter.Playing) int { return b.Since.Sub(a.Since) })
	pages, err := letter.PlaysPages(p.FirstName, age(p.Student, p.today()), paper, out)
	return Archive{fileName(p.FirstName) + "-can-play.pdf", pages}, err
}
