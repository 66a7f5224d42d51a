package week

import (
	"fmt"
	"strings"

	"patientladder/core/reading"
	"patientladder/core/reason"
)

// Words are a task as its reader is told it: the parent of a young child, a
// student who reads the sheet alone, or an adult.
type Words struct {
	Place string `json:"place" doc:"what of the piece: bars 1-4, whole, or the place of a spot"`
	Hand  string `json:"hand" doc:"empty where none is asked"`
	Start string `json:"start" doc:"with which finger each hand begins it, and on which key, in few words; empty where that is not told"`
	Mark  string `json:"mark" doc:"the same of its first note alone, as it stands on a bracket"`
	Times string `json:"times" doc:"how many, or how many in a row"`
	What  string `json:"what" doc:"all of it in one line"`
	Why   string `json:"why"`
}

// A Line holds for every practice of the week.
type Line struct {
	reason.Reason
	Says string `json:"says" doc:"in the reader's words"`
}

// say gives every task and line of a sheet its words.
func (sh *Sheet) say() {
	for i := range sh.Lines {
		sh.Lines[i].Says = told(sh.Lines[i].Reason, sh.Reader)
	}
	for d := range sh.Days {
		for i := range sh.Days[d].Tasks {
			t := &sh.Days[d].Tasks[i]
			t.Says = t.words(sh.Reader)
		}
	}
}

func (t *Task) words(reader string) Words {
	w := Words{Place: t.place(), Times: plural(t.Count, "time"), Why: told(t.Why, reader)}
	if t.InRow {
		w.Times = fmt.Sprintf("%d in a row", t.Count)
	}
	if t.Hands != "" && t.Spot == "" {
		w.Hand = map[string]string{"right": "right hand", "left": "left hand", "together": "both hands"}[t.Hands]
	}
	begins := ""
	if t.Start != nil && t.Spot == "" && t.From > 0 {
		w.Mark, w.Start, begins = mark(t.Start.StartOf, ""), t.Start.begins(""), t.Start.begins("finger ")
	}
	switch {
	case t.Band == "now":
		var parts []string
		for _, part := range []string{w.Place, w.Hand, begins, w.Times} {
			if part != "" {
				parts = append(parts, part)
			}
		}
		w.What = strings.Join(parts, ", ")
	case t.Do != "":
		w.What = t.Do
	case t.Listen:
		w.What = "listen to it"
	default:
		w.What = "once through"
	}
	return w
}

// begins says with which finger each hand begins; finger stands before its number.
func (s *Start) begins(finger string) string {
	if len(s.Starts) == 0 {
		return mark(s.StartOf, finger)
	}
	var hands []string
	for _, h := range s.Starts {
		if says := mark(h.StartOf, finger); says != "" {
			hands = append(hands, string(h.Hand)+" "+says)
		}
	}
	return strings.Join(hands, ", ")
}

// mark writes a beginning as 3 on G; empty where no finger is known.
func mark(s reading.StartOf, finger string) string {
	switch s.Finger {
	case "":
		return ""
	case "0":
		return "open on " + note(s.Key)
	}
	return finger + s.Finger + " on " + note(s.Key)
}

// place says what of a piece a task is.
func (t *Task) place() string {
	switch {
	case t.Spot != "":
		return t.Spot
	case t.From > 0 && t.From == t.To:
		return fmt.Sprintf("bar %d", t.From)
	case t.From > 0:
		return fmt.Sprintf("bars %d–%d", t.From, t.To)
	case t.InRow:
		return "pattern"
	}
	return "whole"
}

// note writes F#4 as F sharp.
func note(key string) string {
	key = strings.TrimRight(key, "0123456789-")
	letter, signs := key[:min(1, len(key))], key[min(1, len(key)):]
	return letter + map[string]string{"#": " sharp", "##": " double sharp", "b": " flat", "bb": " double flat"}[signs]
}

func plural(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// told is a reason in the reader's words: those of everybody, or the reader's own
// where there are any. {name} stands for an argument, {name:lower} for one that
// goes on in the middle of a sentence.
func told(r reason.Reason, reader string) string {
	words, own := sentences[r.Code+" "+reader]
	if !own {
		words = sentences[r.Code]
	}
	var out strings.Builder
	for {
		before, rest, found := strings.Cut(words, "{")
		out.WriteString(before)
		if !found {
			return out.String()
		}
		name, after, _ := strings.Cut(rest, "}")
		name, lower := strings.CutSuffix(name, ":lower")
		value := r.Args[name]
		if lower && value != "" {
			value = strings.ToLower(value[:1]) + value[1:]
		}
		out.WriteString(value)
		words = after
	}
}

// sentences are what a sheet says, by code, and where a reader is told otherwise
// by code and reader.
var sentences = map[string]string{
	// why a task is there
	"small-first":           "A small chunk by itself first.",
	"join-two":              "Two chunks you know, joined.",
	"join-two parent":       "The two chunks just learnt, joined; nothing new in it.",
	"hold-this":             "The whole, with one thing in mind: {point:lower}.",
	"ready-to-try":          "Every point is met: try for the foothold at the lesson.",
	"ready-to-try parent":   "Every point is met: it may get its foothold at the lesson.",
	"spot-first":            "The hard place first, while fresh: {done} of {goal} in a row so far.",
	"a-pattern":             "A pattern: the same each time, counted in a row.",
	"a-pattern adult":       "A pattern: the same movement each time, in a row, so that it runs by itself later.",
	"newest-kept":           "Newly secure: it needs playing most often.",
	"carries":               "It carries {skill:lower}, which is being learnt now.",
	"keep-alive":            "An old friend: once through, so that it stays.",
	"hear-it-early":         "{title} comes next: hearing it now makes it lighter.",
	"hear-far-ahead":        "{title} is far off: hearing it long before is the widest head start.",
	"hear-far-ahead parent": "{title} is far off. Just have it on; nothing to do.",
	"head-start":            "Gets {skill:lower} ready for {title}. It need not succeed yet.",
	"head-start parent":     "A game towards {title}: {skill:lower}. It need not succeed yet.",
	"head-start-late":       "Gets {skill:lower} ready for {title}, a little every day.",
	"rests-the-hands":       "Needs no playing.",
	"seat-first":            "The seat first: feet firm, front half of the seat, one slow breath.",
	"seat-first parent":     "The seat first: feet on something firm, front half of the seat, one slow breath.",
	"rest-within":           "Rest five minutes in each half hour.",
	"aims-card":             "Reread the card for {title} each day: natural place, idle fingers quiet, thumb early. A beat track behind it helps.",
	"earlier-help":          "If {skill:lower} is lost: go back to {title}, where it was new.",
	"script-direction":      "For the grown-up: show the first key, say “up”, “down” or “same” for each note, then let the child play.",
	"script-ear":            "For the grown-up: sing or play it once, let the child find it; wait before helping.",
	"script-count":          "For the grown-up: count the times aloud, name one thing that went well, say nothing else.",
	"lighter-week":          "A shorter plan this week. A little on most days is better than much on one.",
	"count-by-age":          "Count every time through, slowly; a slip is no reason to start over.",
	"count-correct-only":    "Count only the times that were right.",
	"count-quality":         "Stop as soon as it went calmly and right; do not count.",
	"stop-if-it-hurts":      "If anything hurts, stop for the day and tell us.",
	"no-playing":            "Pain was told ({side} side): listening only, no playing with it until a licensed clinician has seen it. This sheet makes no diagnosis.",
}
