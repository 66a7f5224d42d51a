package roster

import (
	"context"
	"errors"
	"fmt"

	"patientladder/core/roster"
	"patientladder/core/table"
	"patientladder/store"
	"patientladder/studio"
)

// A RosterView is what a table would do, or did, to the students.
type RosterView struct {
	Changes []roster.Update      `json:"changes"`
	Same    int                  `json:"same" doc:"lines that change nothing"`
	Bad     []table.Bad          `json:"bad" doc:"lines that cannot be taken"`
	Saved   bool                 `json:"saved"`
	Added   []studio.StudentCard `json:"added" doc:"who was taken on by it"`
}

// mostAtOnce is how many students are taken on by one table.
const mostAtOnce = 200

func entries(r studio.Room, students []store.Student) []roster.Listed {
	out := []roster.Listed{}
	for _, st := range students {
		out = append(out, roster.Listed{ID: st.ID, FirstName: st.FirstName, FamilyName: st.FamilyName, BirthYear: st.BirthYear, BirthMonth: st.BirthMonth,
			Instrument: st.Instrument, Slot: st.Slot, Contact: st.Contact, Books: []string{}})
	}
	return out
}

// Roster writes the students as a table.
func Roster(ctx context.Context, a *studio.App, who studio.Who) (studio.Archive, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return studio.Archive{}, err
	}
	students, err := r.Students(ctx)
	if err != nil {
		return studio.Archive{}, studio.Failed(err, "studio")
	}
	return studio.Archive{Name: fmt.Sprintf("students-%s.csv", r.Today()), Data: roster.Write(entries(r, students))}, nil
}

// MergeRoster reads a table of students and, when it is to be saved, keeps the lines that can
// be taken.
func MergeRoster(ctx context.Context, a *studio.App, who studio.Who, data []byte, save bool) (RosterView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return RosterView{}, err
	}
	students, err := r.Students(ctx)
	if err != nil {
		return RosterView{}, studio.Failed(err, "studio")
	}
	changes, same, bad, err := roster.Merge(entries(r, students), r.Instruments, data)
	if err != nil {
		return RosterView{}, studio.Refuse("The table cannot be read: %v.", err)
	}
	if len(changes) > mostAtOnce {
		return RosterView{}, studio.Refuse("%d students at once; import at most %d.", len(changes), mostAtOnce)
	}
	v := RosterView{Changes: []roster.Update{}, Same: same, Bad: studio.List(bad), Added: []studio.StudentCard{}}
	for _, c := range changes {
		added, err := taken(ctx, a, who, r, c, save)
		var refused *studio.Error
		if errors.As(err, &refused) && refused.Kind == studio.Invalid {
			v.Bad = append(v.Bad, table.Bad{Line: c.Line, Says: refused.Says})
			continue
		}
		if err != nil {
			return v, err
		}
		v.Changes = append(v.Changes, c)
		if added != nil {
			v.Added = append(v.Added, *added)
		}
	}
	v.Saved = save && len(v.Changes) > 0
	return v, nil
}

// taken does what a line asks, or looks whether it could be done. It returns who was taken on.
func taken(ctx context.Context, a *studio.App, who studio.Who, r studio.Room, c roster.Update, save bool) (*studio.StudentCard, error) {
	e := c.Pupil
	mail, err := contact(e.Contact)
	if err != nil {
		return nil, err
	}
	if c.New {
		in := NewStudent{ID: studio.NewID(), FirstName: e.FirstName, FamilyName: e.FamilyName, BirthYear: e.BirthYear, BirthMonth: e.BirthMonth, Instrument: e.Instrument, Slot: e.Slot, Contact: mail, Books: e.Books}
		if !save {
			_, _, err := begin(ctx, a, who, in)
			return nil, err
		}
		card, err := AddStudent(ctx, a, who, in)
		return &card, err
	}
	st := store.Student{ID: e.ID, FirstName: e.FirstName, FamilyName: e.FamilyName, BirthYear: e.BirthYear, BirthMonth: e.BirthMonth, Instrument: e.Instrument}
	if err := checkPerson(r, st); err != nil || !save {
		return nil, err
	}
	return nil, studio.Failed(errors.Join(r.SetStudent(ctx, st), r.SetSlot(ctx, e.ID, e.Slot), r.SetContact(ctx, e.ID, mail, st.Language)), "student")
}
