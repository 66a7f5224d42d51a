package advice

import (
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/week"
)

// A LineAct is what a family may tell of a line of its sheet on a day.
type LineAct struct {
	Day  calendar.Date `json:"day"`
	Key  string        `json:"key" doc:"of the line"`
	Tell fact.Bodies   `json:"tell" nullable:"false" doc:"that it was done"`
}

// OnSheet is what a family may tell of a sheet: each line of each day as done. A tick
// names its document and line, and the rung that it is about, so that an old piece
// counts as played.
func OnSheet(document string, sh week.Sheet) []LineAct {
	out := []LineAct{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			out = append(out, LineAct{d.Date, t.Key, fact.Bodies{fact.Ticked{Day: d.Date, Document: document, Line: t.Key, Rung: t.Rung}}})
		}
	}
	return out
}
