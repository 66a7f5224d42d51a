package studio

import (
	"cmp"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/store"
)

// A StudentCard is what a screen shows of a student at its head.
type StudentCard struct {
	ID         string            `json:"id"`
	FirstName  string            `json:"firstName"`
	FamilyName string            `json:"familyName"`
	Age        int               `json:"age"`
	Instrument instrument.ID     `json:"instrument"`
	Plays      string            `json:"plays" doc:"the instrument's name"`
	Slot       calendar.Slot     `json:"slot"`
	Approach   approach.Approach `json:"approach" doc:"the school chosen for each question"`
	Home       shelf.Home        `json:"home" doc:"the instrument practised on"`
	Language   string            `json:"language" doc:"that the home reads; empty for the studio's"`
	Contact    string            `json:"contact" doc:"mail addresses that the week sheet goes to, joined by a comma; empty for none"`
	Next       calendar.Date     `json:"next" doc:"day of this or the next lesson; empty when the calendar ends"`
	State      string            `json:"state" enum:"here,paused,left"`
	Until      calendar.Date     `json:"until" doc:"last day of a pause; empty where that is not known"`
	Person     string            `json:"person" doc:"the same of all students who are one person, on an instrument each"`
}

// Card is a student's, of whom the times away at least are known.
func (r Room) Card(st store.Student, s ladder.Standing, next calendar.Date) StudentCard {
	c := StudentCard{st.ID, st.FirstName, st.FamilyName, Age(st, r.Today()), st.Instrument, r.Instruments.Of(st.Instrument).Name, st.Slot, st.Approach, st.Home, st.Language, st.Contact, next, "here", "", cmp.Or(st.Person, st.ID)}
	if away, is := s.AwayOn(r.Today()); is {
		c.State = away.Name
		if away.To != calendar.Last {
			c.Until = away.To
		}
	}
	return c
}
