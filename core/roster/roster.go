// Package roster reads and writes a studio's students as a table: who they are, when they
// come, and where their sheets go.
package roster

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/table"
)

// A Listed is a student as a line of the roster.
type Listed struct {
	ID         string        `json:"id" doc:"empty of somebody new"`
	FirstName  string        `json:"firstName"`
	FamilyName string        `json:"familyName"`
	BirthYear  int           `json:"birthYear"`
	BirthMonth int           `json:"birthMonth"`
	Instrument instrument.ID `json:"instrument"`
	Slot       calendar.Slot `json:"slot"`
	Contact    string        `json:"contact"`
	Books      []string      `json:"books" doc:"of somebody new: those to climb through"`
}

// An Update is what a roster would do to one student.
type Update struct {
	Line   int      `json:"line"`
	Pupil  Listed   `json:"pupil" doc:"as it would be"`
	New    bool     `json:"new"`
	Fields []string `json:"fields" doc:"columns that differ from what is kept"`
}

// columns are those of a roster, where some instruments are known.
func columns(all instrument.Set) []table.Column[Listed] {
	return []table.Column[Listed]{
		table.Field("id", func(e Listed) string { return e.ID }, func(e *Listed, s string) error { e.ID = s; return nil }),
		table.Field("first name", func(e Listed) string { return e.FirstName }, func(e *Listed, s string) error { e.FirstName = s; return nil }, "first", "name", "firstname", "given name"),
		table.Field("family name", func(e Listed) string { return e.FamilyName }, func(e *Listed, s string) error { e.FamilyName = s; return nil }, "last name", "surname", "familyname", "lastname"),
		table.Field("born", func(e Listed) string { return fmt.Sprintf("%d-%02d", e.BirthYear, e.BirthMonth) }, readBorn, "birth", "birthday", "date of birth", "born in"),
		table.Field("instrument", func(e Listed) string { return string(e.Instrument) }, func(e *Listed, s string) error { return readInstrument(e, s, all) }),
		table.Field("day", func(e Listed) string { return e.Slot.Weekday.String() }, readDay, "weekday", "lesson day"),
		table.Field("start", func(e Listed) string { return e.Slot.Start }, readStart, "time", "at"),
		table.Field("minutes", func(e Listed) string { return strconv.Itoa(e.Slot.Minutes) }, func(e *Listed, s string) error {
			n, err := strconv.Atoi(strings.TrimSuffix(strings.TrimSuffix(s, "utes"), " min"))
			if err != nil {
				return fmt.Errorf("%q is not a number of minutes", s)
			}
			e.Slot.Minutes = n
			return nil
		}, "length", "duration"),
		table.Field("mail", func(e Listed) string { return e.Contact }, func(e *Listed, s string) error { e.Contact = s; return nil }, "email", "e-mail", "contact"),
		table.Field("books", func(e Listed) string { return strings.Join(e.Books, "; ") }, func(e *Listed, s string) error {
			e.Books = []string{}
			for b := range strings.SplitSeq(s, ";") {
				if b = strings.TrimSpace(b); b != "" {
					e.Books = append(e.Books, b)
				}
			}
			return nil
		}, "book"),
	}
}

// Write writes students as a table.
func Write(entries []Listed) []byte { return table.Of(columns(nil), entries) }

// usual are a lesson's minutes where a roster says nothing of them.
const usual = 30

// Merge reads a table against the students who are there: what it asks for, how many lines
// change nothing, and those that cannot be taken. A line without an id is somebody new.
// Columns that are left out keep what stands; an empty cell of somebody who is there does so
// too.
func Merge(there []Listed, all instrument.Set, data []byte) (changes []Update, same int, bad []table.Bad, err error) {
	t, err := table.Read(data)
	if err != nil {
		return nil, 0, nil, err
	}
	head, err := table.Columns(t, columns(all))
	if err != nil {
		return nil, 0, nil, err
	}
	bad = t.Bad
	for _, row := range t.Rows {
		c, err := read(there, head, row)
		switch {
		case err != nil:
			bad = append(bad, table.Bad{Line: row.Line, Says: err.Error()})
		case !c.New && len(c.Fields) == 0:
			same++
		case c.New && slices.ContainsFunc(there, func(e Listed) bool { return twins(e, c.Pupil) }):
			bad = append(bad, table.Bad{Line: row.Line, Says: c.Pupil.FirstName + " " + c.Pupil.FamilyName + " is a student here already"})
		case c.New && slices.ContainsFunc(changes, func(o Update) bool { return o.New && twins(o.Pupil, c.Pupil) }):
			bad = append(bad, table.Bad{Line: row.Line, Says: c.Pupil.FirstName + " " + c.Pupil.FamilyName + " stands in the table already"})
		default:
			changes = append(changes, c)
		}
	}
	slices.SortFunc(bad, func(a, b table.Bad) int { return a.Line - b.Line })
	return changes, same, bad, nil
}

// twins reports whether two are the same person on the same instrument.
func twins(a, b Listed) bool {
	return strings.EqualFold(a.FirstName, b.FirstName) && strings.EqualFold(a.FamilyName, b.FamilyName) && a.BirthYear == b.BirthYear && a.BirthMonth == b.BirthMonth && a.Instrument == b.Instrument
}

func read(there []Listed, head []table.Column[Listed], row table.Row) (Update, error) {
	c := Update{Line: row.Line, New: true, Pupil: Listed{Books: []string{}, Slot: calendar.Slot{Minutes: usual}}, Fields: []string{}}
	for i, k := range head {
		if k.Name != "id" || row.Cells[i] == "" {
			continue
		}
		j := slices.IndexFunc(there, func(e Listed) bool { return e.ID == row.Cells[i] })
		if j < 0 {
			return c, fmt.Errorf("there is no student with the id %q; leave it empty for a new student", row.Cells[i])
		}
		c.New, c.Pupil = false, there[j]
	}
	was, day := c.Pupil, !c.New
	for i, k := range head {
		if row.Cells[i] == "" {
			continue
		}
		day = day || k.Name == "day"
		if err := k.Read(&c.Pupil, row.Cells[i]); err != nil {
			return c, err
		}
		if k.Write(was) != k.Write(c.Pupil) && !c.New && k.Name != "books" {
			c.Fields = append(c.Fields, k.Name)
		}
	}
	switch {
	case c.Pupil.FirstName == "":
		return c, fmt.Errorf("the first name is missing")
	case c.Pupil.BirthYear == 0:
		return c, fmt.Errorf("when %s was born is missing; write 2016-05", c.Pupil.FirstName)
	case c.Pupil.Instrument == "":
		return c, fmt.Errorf("the instrument of %s is missing", c.Pupil.FirstName)
	case !day:
		return c, fmt.Errorf("the day of %s's lesson is missing", c.Pupil.FirstName)
	}
	if err := c.Pupil.Slot.Check(); err != nil {
		return c, fmt.Errorf("the lesson of %s does not work: %w", c.Pupil.FirstName, err)
	}
	return c, nil
}

// births are the ways in which a birth is written; of a whole day only the month is kept.
var births = []string{"2006-01", "2006-1", "01/2006", "1/2006", "1.2006", "Jan 2006", "January 2006", time.DateOnly, "02/01/2006", "2/1/2006", "2.1.2006", "2006/01/02", "2 January 2006", "2 Jan 2006"}

func readBorn(e *Listed, s string) error {
	for _, form := range births {
		if t, err := time.Parse(form, s); err == nil {
			e.BirthYear, e.BirthMonth = t.Year(), int(t.Month())
			return nil
		}
	}
	return fmt.Errorf("%q is not a month of birth such as 2016-05", s)
}

func readInstrument(e *Listed, s string, all instrument.Set) error {
	if p, known := all.Find(instrument.ID(strings.ToLower(s))); known {
		e.Instrument = p.ID
		return nil
	}
	if p, known := all.Named(s); known {
		e.Instrument = p.ID
		return nil
	}
	return fmt.Errorf("%q is not an instrument here: %s", s, all.Names())
}

func readDay(e *Listed, s string) error {
	for d := time.Sunday; d <= time.Saturday; d++ {
		if len(s) >= 2 && strings.HasPrefix(strings.ToLower(d.String()), strings.ToLower(strings.TrimSuffix(s, "."))) {
			e.Slot.Weekday = d
			return nil
		}
	}
	return fmt.Errorf("%q is not a day of the week", s)
}

// starts are the ways in which a time of day is written.
var starts = []string{"15:04", "15.04", "15:04:05", "3:04 pm", "3:04pm", "3 pm", "3pm", "3:04 PM", "3:04PM", "3 PM", "3PM"}

func readStart(e *Listed, s string) error {
	for _, form := range starts {
		if t, err := time.Parse(form, s); err == nil {
			e.Slot.Start = t.Format("15:04")
			return nil
		}
	}
	return fmt.Errorf("%q is not a time of day such as 16:00", s)
}
