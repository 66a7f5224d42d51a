package studio

import (
	"context"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/store"
)

// A Person is what may be corrected of a student.
type Person struct {
	FirstName  string        `json:"firstName" maxLength:"100"`
	FamilyName string        `json:"familyName" maxLength:"100"`
	BirthYear  int           `json:"birthYear" minimum:"1900" maximum:"2100"`
	BirthMonth int           `json:"birthMonth" minimum:"1" maximum:"12"`
	Instrument instrument.ID `json:"instrument"`
}

// A StudentView is a student as kept, to be corrected, paused, sent on or erased.
type StudentView struct {
	Student StudentCard  `json:"student"`
	Person  Person       `json:"person"`
	Away    []AwayView   `json:"away" doc:"times without lessons, in order"`
	Kept    store.Erased `json:"kept" doc:"what would be deleted with the student"`
}

// An AwayView is a time without lessons.
type AwayView struct {
	From calendar.Date `json:"from"`
	To   calendar.Date `json:"to" doc:"its last day; empty where that is not known"`
	Left bool          `json:"left" doc:"the student has left"`
	Now  bool          `json:"now" doc:"today lies in it"`
}

// Student shows what is kept of a student.
func (a *App) Student(ctx context.Context, who Who, student string) (StudentView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return StudentView{}, err
	}
	v := StudentView{Student: p.card(p.Student, p.standing, p.lessonDay()), Person: Person{p.FirstName, p.FamilyName, p.BirthYear, p.BirthMonth, p.Instrument}, Away: []AwayView{}}
	for _, away := range p.standing.Away {
		one := AwayView{away.From, away.To, away.Left, away.Holds(p.today())}
		if away.To == calendar.Last {
			one.To = ""
		}
		v.Away = append(v.Away, one)
	}
	v.Kept, err = p.CountStudent(ctx, student)
	return v, told(err, "student")
}

// CorrectStudent keeps a student's names, birth and instrument as they should have been.
func (a *App) CorrectStudent(ctx context.Context, who Who, student string, in Person) error {
	r, err := a.enter(ctx, who)
	if err != nil {
		return err
	}
	st := store.Student{ID: student, FirstName: strings.TrimSpace(in.FirstName), FamilyName: strings.TrimSpace(in.FamilyName),
		BirthYear: in.BirthYear, BirthMonth: in.BirthMonth, Instrument: in.Instrument}
	if err := r.checkPerson(st); err != nil {
		return err
	}
	return told(r.SetStudent(ctx, st), "student")
}

// checkPerson says what cannot be kept of a student's names, birth and instrument.
func (r room) checkPerson(st store.Student) error {
	if st.FirstName == "" {
		return invalid("The student needs a first name.")
	}
	if err := plain(st.FirstName, st.FamilyName); err != nil {
		return err
	}
	if _, known := r.instruments.Find(st.Instrument); !known {
		return invalid("%q is not an instrument here: %s, or add it to the studio.", st.Instrument, r.instruments.Names())
	}
	if years := age(st, r.today()); years < 2 || years > 110 {
		return invalid("Born %d-%02d would make the student %d years old.", st.BirthYear, st.BirthMonth, years)
	}
	return nil
}

// An Erasure is the receipt of what was deleted.
type Erasure struct {
	Receipt string       `json:"receipt"`
	Deleted store.Erased `json:"deleted"`
}

// EraseStudent deletes all that is kept of a student for good. The name must be given, as
// a person types it who knows what is meant.
func (a *App) EraseStudent(ctx context.Context, who Who, student, name string) (Erasure, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return Erasure{}, err
	}
	st, err := r.Student(ctx, student)
	if err != nil {
		return Erasure{}, told(err, "student")
	}
	if !strings.EqualFold(strings.TrimSpace(name), st.FirstName) {
		return Erasure{}, invalid("Nothing was deleted: write the first name, %s, to delete all that is kept of this student.", st.FirstName)
	}
	out := Erasure{Receipt: NewID()}
	out.Deleted, err = r.EraseStudent(ctx, student, out.Receipt)
	a.kept.forget(r.row.ID, student)
	a.paces.forget(r.row.ID)
	return out, told(err, "student")
}
