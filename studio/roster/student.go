// Package roster takes students on, corrects and erases them, and carries a studio in and out whole.
package roster

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/charset"
	"patientladder/core/instrument"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/sending"
	"patientladder/words"
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
	Student studio.StudentCard `json:"student"`
	Person  Person             `json:"person"`
	Away    []AwayView         `json:"away" doc:"times without lessons, in order"`
	Kept    store.Erased       `json:"kept" doc:"what would be deleted with the student"`
}

// An AwayView is a time without lessons.
type AwayView struct {
	From calendar.Date `json:"from"`
	To   calendar.Date `json:"to" doc:"its last day; empty where that is not known"`
	Left bool          `json:"left" doc:"the student has left"`
	Now  bool          `json:"now" doc:"today lies in it"`
}

// Student shows what is kept of a student.
func Student(ctx context.Context, a *studio.App, who studio.Who, student string) (StudentView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return StudentView{}, err
	}
	v := StudentView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Person: Person{p.FirstName, p.FamilyName, p.BirthYear, p.BirthMonth, p.Instrument}, Away: []AwayView{}}
	for _, away := range p.Standing.Away {
		one := AwayView{away.From, away.To, away.Left, away.Holds(p.Today())}
		if away.To == calendar.Last {
			one.To = ""
		}
		v.Away = append(v.Away, one)
	}
	v.Kept, err = p.CountStudent(ctx, student)
	return v, studio.Failed(err, "student")
}

// CorrectStudent keeps a student's names, birth and instrument as they should have been.
func CorrectStudent(ctx context.Context, a *studio.App, who studio.Who, student string, c studio.Change[Person]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		is, err := r.Student(ctx, student)
		if err != nil {
			return studio.Failed(err, "student")
		}
		in, err := c.Onto(&Person{is.FirstName, is.FamilyName, is.BirthYear, is.BirthMonth, is.Instrument})
		if err != nil {
			return err
		}
		st := store.Student{ID: student, FirstName: strings.TrimSpace(in.FirstName), FamilyName: strings.TrimSpace(in.FamilyName),
			BirthYear: in.BirthYear, BirthMonth: in.BirthMonth, Instrument: in.Instrument}
		if err := checkPerson(r, st); err != nil {
			return err
		}
		return studio.Failed(r.SetStudent(ctx, st), "student")
	})
}

// checkPerson says what cannot be kept of a student's names, birth and instrument.
func checkPerson(r studio.Room, st store.Student) error {
	if st.FirstName == "" {
		return studio.Refuse("The student needs a first name.")
	}
	if err := studio.CheckNames(st.FirstName, st.FamilyName); err != nil {
		return err
	}
	if _, known := r.Instruments.Find(st.Instrument); !known {
		return studio.Refuse("%q is not an instrument here: %s, or add it to the studio.", st.Instrument, r.Instruments.Names())
	}
	if years := studio.Age(st, r.Today()); years < 2 || years > 110 {
		return studio.Refuse("Born %d-%02d would make the student %d years old.", st.BirthYear, st.BirthMonth, years)
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
func EraseStudent(ctx context.Context, a *studio.App, who studio.Who, student, name string) (Erasure, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return Erasure{}, err
	}
	st, err := r.Student(ctx, student)
	if err != nil {
		return Erasure{}, studio.Failed(err, "student")
	}
	if !strings.EqualFold(strings.TrimSpace(name), st.FirstName) {
		return Erasure{}, studio.Refuse("Nothing was deleted: write the first name, %s, to delete all that is kept of this student.", st.FirstName)
	}
	out := Erasure{Receipt: studio.NewID()}
	out.Deleted, err = r.EraseStudent(ctx, student, out.Receipt)
	a.Forget(r.Row.ID, student)
	return out, studio.Failed(err, "student")
}

// contact checks the addresses that sheets should go to and writes them as they are kept.
func contact(given string) (string, error) {
	list := sending.Addresses(given)
	if len(list) > mostAddresses {
		return "", studio.Refuse("Sheets go to %d addresses at most; these are %d.", mostAddresses, len(list))
	}
	for _, address := range list {
		if err := mail.CheckAddress(address); err != nil || len(address) > 190 || charset.Steers(address) {
			return "", studio.Refuse("%q is not an email address such as name@home.example.", address)
		}
	}
	return strings.Join(slices.Compact(list), ", "), nil
}

// mostAddresses is how many addresses a student's sheets go to: of guardians in two homes, or
// of some and the student.
const mostAddresses = 4

// SetContact keeps the mail addresses that a student's sheets go to; an empty text
// takes them away.
func SetContact(ctx context.Context, a *studio.App, who studio.Who, student string, c studio.Change[Contact]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		st, err := r.Student(ctx, student)
		if err != nil {
			return studio.Failed(err, "student")
		}
		to, err := c.Onto(&Contact{st.Contact, st.Language})
		if err != nil {
			return err
		}
		kept, err := contact(to.Address)
		if err != nil {
			return err
		}
		if to.Language != "" && !slices.Contains(words.Languages, to.Language) {
			return studio.Refuse("%q is not a language of the program.", to.Language)
		}
		return studio.Failed(r.SetContact(ctx, student, kept, to.Language), "student")
	})
}

// A Contact is where a student's sheets go to, and the language they are read in.
type Contact struct {
	Address  string `json:"address" maxLength:"800" doc:"four at most, with a comma between them; empty for none"`
	Language string `json:"language,omitempty" maxLength:"35" doc:"that is read there, one of the program's; empty for the studio's"`
}
