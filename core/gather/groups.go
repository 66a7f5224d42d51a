package gather

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
)

// A Group is students who might share an hour, and why.
type Group struct {
	Why      string   `json:"why" enum:"neighbours,family,instrument"`
	Of       string   `json:"of" doc:"the weekday, the family or the instrument"`
	Students []string `json:"students"`
}

// Attends is when a student comes, and with what.
type Attends struct {
	ID         string
	FamilyName string
	Contact    string // where the family's mail goes
	Plays      string
	Slot       calendar.Slot
}

// apart is how many minutes may lie between the lessons of neighbours.
const apart = 15

// mostTogether is how many neighbours are proposed at once.
const mostTogether = 6

// Groups proposes who might share an hour: lessons that follow each other, families, and all of an
// instrument for a term's workshop.
func Groups(list []Attends) []Group {
	var out []Group
	list = slices.Clone(list)
	start := func(a Attends) int {
		at, err := time.Parse("15:04", a.Slot.Start)
		if err != nil {
			return 0
		}
		return at.Hour()*60 + at.Minute()
	}
	slices.SortStableFunc(list, func(a, b Attends) int {
		return cmp.Or(cmp.Compare(a.Slot.Weekday, b.Slot.Weekday), cmp.Compare(start(a), start(b)), cmp.Compare(a.ID, b.ID))
	})
	var run []string
	for i, a := range list {
		if i > 0 {
			before := list[i-1]
			follows := before.Slot.Weekday == a.Slot.Weekday && start(a)-start(before)-before.Slot.Minutes <= apart
			if !follows || len(run) == mostTogether {
				if len(run) > 1 {
					out = append(out, Group{"neighbours", before.Slot.Weekday.String(), run})
				}
				run = nil
			}
		}
		run = append(run, a.ID)
		if i == len(list)-1 && len(run) > 1 {
			out = append(out, Group{"neighbours", a.Slot.Weekday.String(), run})
		}
	}
	out = append(out, alike(list, "family", func(a Attends) (string, string) {
		return strings.ToLower(cmp.Or(a.Contact, a.FamilyName)), a.FamilyName
	})...)
	return append(out, alike(list, "instrument", func(a Attends) (string, string) { return a.Plays, a.Plays })...)
}

// alike groups those who have something in common, in order of what it is called.
func alike(list []Attends, why string, of func(Attends) (key, name string)) []Group {
	names, ids := map[string]string{}, map[string][]string{}
	for _, a := range list {
		key, name := of(a)
		names[key], ids[key] = name, append(ids[key], a.ID)
	}
	var out []Group
	for key, students := range ids {
		if len(students) > 1 {
			out = append(out, Group{why, names[key], students})
		}
	}
	slices.SortFunc(out, func(a, b Group) int { return cmp.Compare(a.Of, b.Of) })
	return out
}
