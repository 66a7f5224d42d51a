package sending

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
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/places"
)

// A ReportView is a student's report of a term: as it was kept last, or as it is drafted from the
// facts.
type ReportView struct {
	Student   studio.StudentCard  `json:"student"`
	Terms     []record.TermSpan   `json:"terms" doc:"those that have begun, the newest first"`
	Shown     int                 `json:"shown" doc:"place in the list of terms; -1 while none has begun"`
	Lessons   int                 `json:"lessons" doc:"given in the term so far"`
	Report    report.Report       `json:"report"`
	Drafted   report.Report       `json:"drafted" doc:"as the facts have it now"`
	Revisions []document.Document `json:"revisions" doc:"as it was kept, the first first"`
	Sending   *places.Sending     `json:"sending,omitempty" doc:"the last of it"`
}

// draft drafts a student's report of a term from what that brought.
func draft(p *studio.Pupil, term record.TermSpan, brought record.Brought) report.Report {
	span := term.SoFar
	ask := report.Ask{Name: p.FirstName, Adult: studio.Age(p.Student, p.Today()) >= 18, Before: p.Standing.BeforeBook, Span: calendar.Span{Name: term.Name, From: span.From, To: span.To},
		Brought: brought, Kept: len(p.Standing.In(ladder.Secure)), Words: home.Words(p.Standing, span.From, span.To)}
	graph := p.SkillsAtHome()
	for _, talk := range p.Standing.Talks {
		if span.Holds(calendar.On(talk.At)) {
			ask.Agreed = talk.Agreed
		}
	}
	for _, r := range p.Standing.In(ladder.Current) {
		if r.Taught != nil && r.Strand.Piece() {
			ask.Hand = append(ask.Hand, report.InHand{Title: r.Item.Title, Missing: r.Missing()})
		}
	}
	for _, r := range p.Standing.In(ladder.Ahead) {
		if r.Strand.Piece() && len(ask.Next) < 2 {
			ask.Next = append(ask.Next, r.Item.Title)
		}
	}
	for _, h := range p.WayNow().Ahead {
		if h.Done > 0 && len(ask.Ahead) < 3 {
			ask.Ahead = append(ask.Ahead, graph.Name(h.Skill))
		}
	}
	for _, id := range brought.Gained {
		ask.Can = append(ask.Can, p.Voice().Can(graph[id]))
	}
	ask.Voice = p.Voice()
	return report.Draft(ask)
}

// reportOf is the report of a term as it was kept last; false where it was not.
func reportOf(ctx context.Context, p *studio.Pupil, from calendar.Date) (report.Report, bool, error) {
	kept, err := p.Studio.Document(ctx, p.ID, document.Report, from, 0)
	if errors.Is(err, store.ErrNotFound) {
		return report.Report{}, false, nil
	}
	if err != nil {
		return report.Report{}, false, studio.Failed(err, "report")
	}
	var out report.Report
	return out, true, json.Unmarshal(kept.Body, &out)
}

// Report shows a student's report of the term that began on a day, or of the newest for the empty
// date.
func Report(ctx context.Context, a *studio.App, who studio.Who, student string, from calendar.Date) (ReportView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return ReportView{}, err
	}
	terms, shown, err := diary.ShownTerm(p.Room, from)
	if err != nil || shown < 0 {
		none := report.Report{Paragraphs: []report.Paragraph{}}
		return ReportView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Terms: terms, Shown: shown, Revisions: []document.Document{}, Report: none, Drafted: none}, err
	}
	sent, err := p.Mailings(ctx, document.Report, terms[shown].From)
	if err != nil {
		return ReportView{}, studio.Failed(err, "report")
	}
	return reported(ctx, &p, terms, shown, sent)
}

// reported is a student's report of one of the terms, with how it fared among all that were sent.
func reported(ctx context.Context, p *studio.Pupil, terms []record.TermSpan, shown int, sent []store.Mailing) (ReportView, error) {
	term := terms[shown]
	brought := record.Over(p.Standing, p.Graph, p.Presumed(p.Standing), term.SoFar)
	drafted := draft(p, term, brought)
	kept, there, err := reportOf(ctx, p, term.From)
	if err != nil {
		return ReportView{}, err
	}
	if !there {
		kept = drafted
	}
	revisions, err := p.Revisions(ctx, p.ID, document.Report, term.From)
	return ReportView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Terms: terms, Shown: shown, Lessons: brought.Lessons, Report: kept, Drafted: drafted,
		Revisions: studio.List(revisions), Sending: places.LastOf(sent, p.ID, term.From)}, studio.Failed(err, "report")
}

// KeepReport keeps a report as the teacher wrote it. What reads as it was kept last changes nothing.
func KeepReport(ctx context.Context, a *studio.App, who studio.Who, student string, c studio.Change[report.Report]) error {
	return a.Edit(ctx, who, func(room studio.Room) error {
		p, err := a.Pupil(ctx, who, student)
		if err != nil {
			return err
		}
		terms, shown, err := diary.ShownTerm(p.Room, c.Now.Term.From)
		if err != nil || shown < 0 {
			return err
		}
		is, there, err := reportOf(ctx, &p, terms[shown].From)
		if err != nil {
			return err
		}
		r := c.Now // over a draft, which nobody wrote
		if there {
			if r, err = c.Onto(&is); err != nil {
				return err
			}
		}
		return keepReport(ctx, room, &p, r)
	})
}

func keepReport(ctx context.Context, room studio.Room, p *studio.Pupil, r report.Report) error {
	if err := r.Check(); err != nil {
		return studio.Refuse("The report cannot be kept: %v.", err)
	}
	body, err := json.Marshal(r)
	if err != nil {
		return err
	}
	student := p.ID
	revisions, err := p.Revisions(ctx, student, document.Report, r.Term.From)
	if err != nil {
		return studio.Failed(err, "student")
	}
	d := store.KeptDocument{Document: document.Document{Student: student, Kind: document.Report, Day: r.Term.From, Revision: len(revisions) + 1, Reason: document.Given, By: fact.Teacher, At: p.Room.Now, Program: studio.Program}, Summary: struct{}{}, Body: body}
	if len(revisions) > 0 {
		before, _, err := reportOf(ctx, p, r.Term.From)
		if err != nil {
			return err
		}
		if slices.Equal(before.Paragraphs, r.Paragraphs) && before.Term == r.Term {
			return nil
		}
		d.Reason = document.Edited
	}
	d.ID = studio.DocumentID(student, document.Report, d.Day, d.Revision, p.Room.Now)
	return studio.Failed(room.AddDocument(ctx, d), "student")
}

// SendReport puts a report, as it was kept, into the post to the addresses that sheets go to. The id
// is made by the client, so that asking twice sends once.
func SendReport(ctx context.Context, a *studio.App, who studio.Who, student string, from calendar.Date, id string, paper letter.Paper) (places.Sending, error) {
	if err := noMail(a); err != nil {
		return places.Sending{}, err
	}
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return places.Sending{}, err
	}
	if _, there, err := reportOf(ctx, &p, from); err != nil {
		return places.Sending{}, err
	} else if !there {
		return places.Sending{}, &studio.Error{Kind: studio.Conflict, Says: "The report of " + p.FirstName + " is still a draft. Read it, save it, and then send it."}
	}
	return put(ctx, a, who, &p, store.Mailing{ID: id, Student: student, Kind: document.Report, Day: from, Paper: string(paper)})
}

// A StudentReport is one student's report among those of a term.
type StudentReport struct {
	Student studio.StudentCard `json:"student"`
	Report  report.Report      `json:"report"`
	Kept    int                `json:"kept" doc:"revisions that were kept; 0 of a draft"`
	Sending *places.Sending    `json:"sending,omitempty"`
}

// A ReportsView is the reports of a term.
type ReportsView struct {
	Terms   []record.TermSpan `json:"terms"`
	Shown   int               `json:"shown"`
	Reports []StudentReport   `json:"reports" doc:"of those who had a lesson in it, by name"`
}

// Reports shows the reports of all students of a term, kept or drafted.
func Reports(ctx context.Context, a *studio.App, who studio.Who, from calendar.Date) (ReportsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return ReportsView{}, err
	}
	return reports(ctx, a, who, r, from, "")
}

// reports are those of a term: of all students, or of one.
func reports(ctx context.Context, a *studio.App, who studio.Who, r studio.Room, from calendar.Date, student string) (v ReportsView, err error) {
	v.Reports = []StudentReport{}
	if v.Terms, v.Shown, err = diary.ShownTerm(r, from); err != nil || v.Shown < 0 {
		return v, err
	}
	students, err1 := r.Students(ctx)
	sent, err2 := r.Mailings(ctx, document.Report, v.Terms[v.Shown].From)
	if err := errors.Join(err1, err2); err != nil {
		return v, studio.Failed(err, "studio")
	}
	for _, st := range students {
		if student != "" && st.ID != student {
			continue
		}
		p, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return v, err
		}
		one, err := reported(ctx, &p, v.Terms, v.Shown, sent)
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
func PrintReports(ctx context.Context, a *studio.App, who studio.Who, from calendar.Date, student string, paper letter.Paper) (studio.Archive, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return studio.Archive{}, err
	}
	v, err := reports(ctx, a, who, r, from, student)
	if err != nil {
		return studio.Archive{}, err
	}
	teacher, err := a.Store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return studio.Archive{}, studio.Failed(err, "studio")
	}
	var asks []letter.ReportAsk
	for _, one := range v.Reports {
		if one.Kept > 0 {
			asks = append(asks, letter.ReportAsk{FirstName: one.Student.FirstName, Studio: r.Row.Name, Teacher: teacher, Report: one.Report, Paper: paper, Words: r.ReadIn(one.Student.Language)})
		}
	}
	if len(asks) == 0 {
		return studio.Archive{}, &studio.Error{Kind: studio.Conflict, Says: "No report of this term is kept yet. Read it, keep it, and print it then."}
	}
	pages, err := letter.ReportPages(asks)
	return studio.Archive{Name: "reports-" + string(v.Terms[v.Shown].From) + ".pdf", Data: pages}, err
}

// CanPlay draws a list for the student to keep: what is secure, the last first.
func CanPlay(ctx context.Context, a *studio.App, who studio.Who, student string, paper letter.Paper) (studio.Archive, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return studio.Archive{}, err
	}
	var out []letter.Playing
	for _, r := range p.Standing.In(ladder.Secure) {
		if r.Strand.Piece() {
			out = append(out, letter.Playing{Title: r.Item.Title, Composer: r.Item.Composer, Since: calendar.On(*r.Foothold), Polished: r.Polished})
		}
	}
	slices.SortStableFunc(out, func(a, b letter.Playing) int { return b.Since.Sub(a.Since) })
	pages, err := letter.PlaysPages(p.Voice(), p.FirstName, studio.Age(p.Student, p.Today()), paper, out)
	return studio.Archive{Name: studio.FileName(p.FirstName) + "-can-play.pdf", Data: pages}, err
}
