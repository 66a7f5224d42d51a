package advice

import (
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/week"
)

// A LineAct is what a family may tell of a line of its sheet on a day.
type LineAct struct {
	Day  calendar.Date `json:"day"`
	Key  string        `json:"key" doc:"of the line"`
	Tell fact.Bodies   `json:"tell" doc:"that it was done"`
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

// A SheetLine is a line of a sheet as a teacher changes it, with the days it stands on.
type SheetLine struct {
	Key    string      `json:"key"`
	Band   string      `json:"band" enum:"now,upkeep,ahead"`
	Title  string      `json:"title"`
	Says   string      `json:"says"`
	Count  int         `json:"count" doc:"times; 0 where none is asked"`
	Hands  string      `json:"hands" enum:",right,left,together"`
	Days   int         `json:"days"`
	Own    bool        `json:"own" doc:"in the teacher's words"`
	From   int         `json:"from" doc:"first bar of a stretch; 0 for the whole or no bars"`
	To     int         `json:"to"`
	Stands []int       `json:"stands" doc:"weekdays on which it stands, 0 for Sunday"`
	Pinned bool        `json:"pinned" doc:"it goes on, on the sheets to come"`
	Acts   []fact.Act  `json:"acts" doc:"strike, up, down; of what is in hand also more and fewer; of two hands right, left and together; of a piece in hand pin or unpin"`
	Change fact.Bodies `json:"change" doc:"of a piece in hand: the fact whose bars and weekdays are filled in; empty for others"`
}

// OnLines lists the lines of a sheet with what the teacher may do to each by a touch.
func OnLines(document string, sh week.Sheet, pinned map[string]ladder.Pin) []SheetLine {
	out := []SheetLine{}
	at := map[string]int{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if i, there := at[t.Key]; there {
				out[i].Days++
				if on := int(d.Date.Weekday()); !slices.Contains(out[i].Stands, on) {
					out[i].Stands = append(out[i].Stands, on)
				}
				continue
			}
			at[t.Key] = len(out)
			own := strings.HasPrefix(t.Key, week.OwnLine(""))
			l := SheetLine{Key: t.Key, Band: t.Band, Title: t.Title, Says: t.Says.What, Hands: t.Hands, Days: 1, Own: own, From: t.From, To: t.To, Stands: []int{int(d.Date.Weekday())}, Change: fact.Bodies{}}
			l.Acts = append(l.Acts, fact.Do("strike", "", fact.LineStruck{Day: sh.From, Document: document, Line: t.Key, Sort: t.Sort()}))
			for _, to := range []string{"up", "down"} {
				l.Acts = append(l.Acts, fact.Do(to, "", fact.LineMoved{Day: sh.From, Document: document, Line: t.Key, To: to}))
			}
			if own || t.Band != "now" || len(t.Cards) > 0 || len(t.Steps) > 0 {
				out = append(out, l)
				continue
			}
			l.Count = t.Count
			change := func(do string, c fact.LineChanged) {
				c.Day, c.Document, c.Line, c.Sort = sh.From, document, t.Key, t.Counted()
				l.Acts = append(l.Acts, fact.Do(do, "", c))
			}
			if len(t.Plays) == 0 && t.Rung != "" && t.Spot == "" {
				if pin, is := pinned[t.Key]; is {
					l.Pinned = true
					l.Acts = append(l.Acts, fact.Do("unpin", "", fact.Retracted{Ref: pin.Fact}))
				} else {
					l.Acts = append(l.Acts, fact.Do("pin", "", fact.LinePinned{Day: sh.From, Document: document, Line: t.Key}))
				}
				l.Change = fact.Bodies{fact.LineChanged{Day: sh.From, Document: document, Line: t.Key}}
			}
			change("more", fact.LineChanged{Count: t.Count + 1})
			if t.Count > 1 {
				change("fewer", fact.LineChanged{Count: t.Count - 1})
			}
			if t.Hands != "" {
				for _, h := range []string{"right", "left", "together"} {
					if h != t.Hands {
						change(h, fact.LineChanged{Hands: h})
					}
				}
			}
			out = append(out, l)
		}
	}
	return out
}
