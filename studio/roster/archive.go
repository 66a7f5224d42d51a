package roster

import (
	"archive/zip"
	"bytes"
	"cmp"
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"slices"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/report"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/letter"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/places"
)

// A StudentArchive is all that is kept of one student.
type StudentArchive struct {
	ID         string             `json:"id"`
	FirstName  string             `json:"firstName"`
	FamilyName string             `json:"familyName"`
	BirthYear  int                `json:"birthYear"`
	BirthMonth int                `json:"birthMonth"`
	Instrument instrument.ID      `json:"instrument"`
	Slot       calendar.Slot      `json:"slot"`
	Approach   approach.Approach  `json:"approach"`
	Home       shelf.Home         `json:"home"`
	Contact    string             `json:"contact"`
	Language   string             `json:"language,omitempty" doc:"that the home reads; empty for the studio's"`
	Person     string             `json:"person,omitempty" doc:"the student who is the same person on the first instrument"`
	Facts      []fact.Fact        `json:"facts"`
	Documents  []ArchivedDocument `json:"documents"`
}

// An ArchivedDocument is a plan or a sheet as it was given.
type ArchivedDocument struct {
	document.Document
	Kind  document.Kind   `json:"kind" enum:"plan,sheet"`
	Cause string          `json:"cause" doc:"the state of the facts that it was made for"`
	Body  json.RawMessage `json:"body"`
}

// archived gathers all that is kept of a student.
func archived(ctx context.Context, r studio.Room, st store.Student) (StudentArchive, error) {
	facts, err1 := r.Facts(ctx, st.ID)
	docs, err2 := r.AllDocuments(ctx, st.ID)
	if err := errors.Join(err1, err2); err != nil {
		return StudentArchive{}, studio.Failed(err, "student")
	}
	out := StudentArchive{ID: st.ID, FirstName: st.FirstName, FamilyName: st.FamilyName, BirthYear: st.BirthYear, BirthMonth: st.BirthMonth, Instrument: st.Instrument,
		Slot: st.Slot, Approach: st.Approach, Home: st.Home, Contact: st.Contact, Language: st.Language, Person: st.Person, Facts: studio.List(facts), Documents: []ArchivedDocument{}}
	for _, d := range docs {
		out.Documents = append(out.Documents, ArchivedDocument{d.Document, d.Kind, d.Cause.String(), d.Body})
	}
	return out, nil
}

// readable are the pages of a student's archive.
var (
	//go:embed record.html
	recordHTML string
	readable   = template.Must(template.New("record").Parse(recordHTML))
)

// ExportStudent packs all that is kept of one student: as JSON for programs, and as pages
// for people.
func ExportStudent(ctx context.Context, a *studio.App, who studio.Who, student string) (studio.Archive, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return studio.Archive{}, err
	}
	all, err := archived(ctx, p.Room, p.Student)
	if err != nil {
		return studio.Archive{}, err
	}
	teacher, err := a.Store.TeacherName(ctx, who.Teacher)
	if err != nil {
		return studio.Archive{}, studio.Failed(err, "account")
	}
	var file bytes.Buffer
	pack := zip.NewWriter(&file)
	put := func(name string, data []byte) {
		w, failed := pack.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: p.Room.Now})
		if failed == nil {
			_, failed = w.Write(data)
		}
		err = cmp.Or(err, failed)
	}
	raw, failed := json.MarshalIndent(all, "", " ")
	err = cmp.Or(err, failed)
	put("student.json", raw)
	var sheets []calendar.Date
	for i, d := range all.Documents {
		if d.Kind == document.Report {
			var r report.Report
			err = cmp.Or(err, json.Unmarshal(d.Body, &r))
			l, failed := letter.WriteReport(letter.ReportAsk{FirstName: p.FirstName, Studio: p.Row.Name, Teacher: teacher, Report: r, Words: p.Voice()})
			err = cmp.Or(err, failed)
			put(fmt.Sprintf("pages/report-%s-%d.html", d.Day, d.Revision), []byte(l.HTML))
		}
		if d.Kind != document.Sheet || i+1 < len(all.Documents) && all.Documents[i+1].Kind == d.Kind && all.Documents[i+1].Day == d.Day {
			continue // the newest revision of each sheet
		}
		var sheet week.Sheet
		err = cmp.Or(err, json.Unmarshal(d.Body, &sheet))
		l, failed := letter.Write(letter.Ask{FirstName: p.FirstName, Studio: p.Row.Name, Teacher: teacher, Sheet: sheet, Words: p.Voice()})
		err = cmp.Or(err, failed)
		put("pages/sheet-"+string(d.Day)+".html", []byte(l.HTML))
		sheets = append(sheets, d.Day)
	}
	var page bytes.Buffer
	err = cmp.Or(err, readable.Execute(&page, pages(&p, sheets)))
	put("pages/record.html", page.Bytes())
	err = cmp.Or(err, pack.Close())
	return studio.Archive{Name: fmt.Sprintf("%s-%s.zip", studio.FileName(p.FirstName), p.Today()), Data: file.Bytes()}, err
}

// A recordPage is what the readable record of a student shows.
type recordPage struct {
	Name, Studio, Plays, Contact string
	Born                         string
	Made                         calendar.Date
	Sheets                       []calendar.Date
	Told                         []toldLine
}

// A toldLine is a fact as a person reads it.
type toldLine struct {
	At                 string
	By                 fact.Author
	What, Title, Point string
	Text               string
	Back               bool
}

func pages(p *studio.Pupil, sheets []calendar.Date) recordPage {
	out := recordPage{Name: p.Student.Name(), Studio: p.Row.Name, Plays: p.Plays.Name, Contact: p.Contact,
		Born: fmt.Sprintf("%s %d", time.Month(p.BirthMonth), p.BirthYear), Made: p.Today(), Sheets: sheets}
	for _, e := range slices.Backward(places.Entries(p, p.Facts)) {
		l := toldLine{e.Fact.At.Format("2006-01-02 15:04"), e.Fact.By, e.Fact.Kind().Words(), e.Title, e.Point, "", e.Back}
		var fields map[string]any
		if raw, err := json.Marshal(e.Fact.Body); err == nil && json.Unmarshal(raw, &fields) == nil {
			for _, name := range []string{"text", "name", "where", "note", "outcome", "state", "grade", "felt", "minutes", "says"} {
				if v := fields[name]; v != nil && v != "" {
					l.Text = strings.TrimPrefix(fmt.Sprintf("%s, %v", l.Text, v), ", ")
				}
			}
		}
		out.Told = append(out.Told, l)
	}
	return out
}
