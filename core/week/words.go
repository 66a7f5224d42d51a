package week

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/reading"
	"patientladder/core/reason"
)

// A Voice says a message of a catalogue in the words of one reader of a sheet (parent, student,
// adult), or in those of everybody.
type Voice interface {
	For(reader, key string, args map[string]string) string
	Count(noun string, n int) string
	Label(l reason.Label) string
}

// A teller says what stands on one sheet.
type teller struct {
	Voice
	reader string
}

// told is a reason as the sheet says it.
func (v teller) told(r reason.Reason) string { return v.For(v.reader, "sheet."+r.Code, r.Args) }

// line is a part of a line; pairs are argument and value.
func (v teller) line(key string, pairs ...string) string {
	return v.For(v.reader, "line."+key, reason.Of("", pairs...).Args)
}

// hand names a hand, or both; empty where none is asked.
func (v teller) hand(hand string) string {
	if hand == "" {
		return ""
	}
	return v.line("hand-" + hand)
}

// Words are a task as its reader is told it: the parent of a young child, a
// student who reads the sheet alone, or an adult.
type Words struct {
	Place string `json:"place" doc:"what of the piece: bars 1-4, whole, or the place of a spot"`
	Hand  string `json:"hand" doc:"empty where none is asked"`
	Start string `json:"start" doc:"with which finger each hand begins it, and on which key, in few words; empty where that is not told"`
	Mark  string `json:"mark" doc:"the same of its first note alone, as it stands on a bracket"`
	Times string `json:"times" doc:"how many, or how many in a row"`
	Tempo string `json:"tempo,omitempty" doc:"what says how the piece goes; with the whole of it"`
	What  string `json:"what" doc:"all of it in one line"`
	Again string `json:"again" doc:"the same on a later day, where it was said before"`
	Why   string `json:"why"`
}

// A Line holds for every practice of the week.
type Line struct {
	reason.Reason
	Says string `json:"says" doc:"in the reader's words"`
}

// say gives every task and line of a sheet its words.
func (sh *Sheet) say(v Voice) {
	t := teller{v, sh.Reader}
	for i := range sh.Lines {
		sh.Lines[i].Says = t.told(sh.Lines[i].Reason)
	}
	for d := range sh.Days {
		for i := range sh.Days[d].Tasks {
			task := &sh.Days[d].Tasks[i]
			task.Says = task.words(t)
		}
	}
}

func (t *Task) words(v teller) Words {
	w := Words{Place: t.place(v), Times: v.Count("time", t.Count)}
	if t.Why.Code != "" {
		w.Why = v.told(t.Why)
	}
	if t.InRow {
		w.Times = v.line("in-a-row", "n", strconv.Itoa(t.Count))
	}
	if t.Spot == "" {
		w.Hand = v.hand(t.Hands)
	}
	begins := ""
	if t.Start != nil && t.Spot == "" && t.From > 0 {
		w.Mark, w.Start, begins = v.mark(t.Start.StartOf, "mark"), v.begins(t.Start, "mark", false), v.begins(t.Start, "begins", v.reader == "parent" && t.Start.Keys && !t.Start.Label)
	}
	if w.Hand == "" && t.Start != nil && t.Start.Keys && t.Spot == "" && t.Start.Hand != "both" {
		w.Hand = v.hand(t.Start.Hand)
	}
	drilled := ""
	if t.Band == "now" {
		drilled = t.drilled(v)
	}
	switch {
	case drilled != "":
		w.What = drilled
		if t.Think != nil {
			w.What = ended(w.What) + v.told(*t.Think)
		}
		w.Again = v.line("as-before", "place", w.Place, "times", w.Times)
	case t.Band == "now":
		var parts []string
		for _, part := range []string{w.Place, w.Hand, begins, w.Times} {
			if part != "" {
				parts = append(parts, part)
			}
		}
		w.What = strings.Join(parts, ", ")
		if t.Way != "" {
			w.What += ": " + v.line("way-"+t.Way)
		}
		if t.Tempo != nil {
			w.Tempo = v.told(*t.Tempo)
			w.What = ended(w.What) + w.Tempo
		}
		if t.Think != nil && t.Spot == "" {
			w.What = ended(w.What) + v.told(*t.Think)
		}
		if t.Start != nil && t.Start.Rhythm != "" && t.Spot == "" {
			w.What = ended(w.What) + v.line("in-rhythm", "words", t.Start.Rhythm)
		}
		if t.Start != nil && t.Start.Say != "" && t.Spot == "" {
			w.What = ended(w.What) + v.line("say-pointing", "words", t.Start.Say)
		}
	case t.Do != "":
		w.What = t.Do
	case t.Listen:
		w.What = v.line("listen")
	default:
		w.What = v.line("through-" + strconv.Itoa(min(max(t.Count, 1), 3)))
	}
	if w.Again == "" {
		w.Again = w.What
	}
	return w
}

// ended closes a sentence that another follows.
func ended(s string) string {
	if strings.HasSuffix(s, "?") {
		return s + " "
	}
	return s + ". "
}

// begins says with which finger each hand begins, in one of two ways. Where it is to be found says
// which key of its name it is.
func (v teller) begins(s *Start, way string, found bool) string {
	mark := func(s reading.StartOf) string {
		says := v.mark(s, way)
		if at := v.at(s.Key); found && says != "" && at != "" {
			says += " (" + at + ")"
		}
		return says
	}
	if len(s.Starts) == 0 {
		return mark(s.StartOf)
	}
	var hands []string
	for _, h := range s.Starts {
		if says := mark(h.StartOf); says != "" {
			hands = append(hands, v.line("of-"+string(h.Hand), "begins", says))
		}
	}
	return strings.Join(hands, ", ")
}

// mark writes a beginning as 3 on G; empty where no finger is known.
func (v teller) mark(s reading.StartOf, way string) string {
	switch s.Finger {
	case "":
		return ""
	case "0":
		return v.line("open", "key", s.Key)
	}
	return v.line(way, "finger", s.Finger, "key", s.Key)
}

// place says what of a piece a task is.
func (t *Task) place(v teller) string {
	switch {
	case t.Spot != "":
		return t.Spot
	case t.From > 0 && t.From == t.To:
		return v.line("bars", "bars", strconv.Itoa(t.From))
	case t.From > 0:
		return v.line("bars", "bars", fmt.Sprintf("%d–%d", t.From, t.To))
	case len(t.Plays) > 0:
		return t.Plays[0].Title
	case len(t.Cards) > 0:
		return v.line("cards")
	case t.Game != "" && v.reader != "parent":
		return v.line("study")
	case len(t.Steps) > 0 || t.Game != "":
		return v.line("game")
	}
	return v.line("whole")
}
