package studio

import (
	"cmp"
	"context"
	_ "embed"
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/skill"
	"patientladder/store"
	"patientladder/words"
)

// A Room is a studio with its clock and zone, loaded for one use case.
type Room struct {
	store.Studio
	Row  store.StudioRow // what the studio has set
	Zone *time.Location
	Now  time.Time // by the studio's clock
	kept *histories

	Instruments instrument.Set // the program's and its own
	Graph       skill.Graph    // the same of skills, in the words of who asked
	In          *words.Words   // of who asked
}

// Catalogue is the program's own skills.
var Catalogue = skill.Catalogue()

// Today is the day by the studio's clock.
func (r Room) Today() calendar.Date { return calendar.On(r.Now) }

// Enter loads the studio of who is signed in.
func (a *App) Enter(ctx context.Context, who Who) (Room, error) {
	st := a.Store.In(who.Studio)
	row, err := st.Row(ctx)
	if err != nil {
		return Room{}, Failed(err, "studio")
	}
	zone, err := time.LoadLocation(row.Zone)
	if err != nil {
		zone = time.UTC
	}
	reader := who.Reader
	if reader.Language == "" {
		reader = words.ReaderOf(row.Language)
	}
	in := words.In(reader)
	return Room{st, row, zone, a.Now().Add(row.ClockShift).In(zone), a.kept, in.Instruments().With(row.Instruments), in.Skills("").With(row.Skills), in}, nil
}

// ReadIn are the words of a language; of the studio's where a home has none of its own.
func (r Room) ReadIn(language string) *words.Words {
	return words.In(words.ReaderOf(cmp.Or(language, r.Row.Language)))
}

// Present gives the books that a fact names their present titles.
func (r Room) Present(b fact.Body) fact.Body {
	switch b := b.(type) {
	case fact.BookChosen:
		b.Book = r.Row.Titles.Now(b.Book)
		return b
	case fact.BookDropped:
		b.Book = r.Row.Titles.Now(b.Book)
		return b
	}
	return b
}

// Words are the spoken phrases of a studio: its own, or the program's.
func (r Room) Words() reading.Words {
	if len(r.Row.Words) > 0 {
		return r.Row.Words
	}
	return reading.OwnWords
}

// OwnCalendar is a studio's calendar as it holds for one student.
func OwnCalendar(c calendar.Calendar, s ladder.Standing) calendar.Calendar {
	c.Off, c.On = make(map[calendar.Date]bool, len(s.Missed)), make(map[calendar.Date]bool, len(s.Extra))
	for day := range s.Missed {
		c.Off[day] = true
	}
	c.Free = slices.Clone(c.Free)
	for _, a := range s.Away {
		c.Free = append(c.Free, a.Span)
	}
	for day := range s.Extra {
		if away, _ := s.AwayOn(day); !c.Off[day] && !away.Left { // one who pauses may come once all the same
			c.On[day] = true
		}
	}
	return c
}

// SlotOn is a slot as it is on a day, at another time where the day's lesson was moved.
func SlotOn(slot calendar.Slot, s ladder.Standing, d calendar.Date) calendar.Slot {
	slot = slot.At(d)
	if start := s.Extra[d]; start != "" {
		slot.Start, slot.Second = start, nil
	}
	return slot
}

// Age is in whole years at a day, reckoned from the month of birth.
func Age(st store.Student, d calendar.Date) int {
	t := d.Time()
	years := t.Year() - st.BirthYear
	if int(t.Month()) < st.BirthMonth {
		years--
	}
	return years
}
