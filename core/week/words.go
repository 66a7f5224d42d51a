package week

import (
	"fmt"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/phrase"
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
	w := Words{Place: t.place(reader), Times: plural(t.Count, "time"), Why: told(t.Why, reader)}
	if t.InRow {
		w.Times = fmt.Sprintf("%d in a row", t.Count)
	}
	if t.Hands != "" && t.Spot == "" {
		w.Hand = map[string]string{"right": "right hand", "left": "left hand", "together": "both hands"}[t.Hands]
	}
	begins := ""
	if t.Start != nil && t.Spot == "" && t.From > 0 {
		w.Mark, w.Start, begins = mark(t.Start.StartOf, ""), t.Start.begins("", false), t.Start.begins("finger ", reader == "parent" && t.Start.Keys && !t.Start.Label)
	}
	if w.Hand == "" && t.Start != nil && t.Start.Keys && t.Spot == "" {
		w.Hand = map[string]string{"right": "right hand", "left": "left hand"}[t.Start.Hand]
	}
	switch {
	case t.Band == "now" && t.drilled() != "":
		w.What = t.drilled()
		if t.Think != nil {
			w.What = ended(w.What) + told(*t.Think, reader)
		}
		w.Again = w.Place + ", as before: " + w.Times
	case t.Band == "now":
		var parts []string
		for _, part := range []string{w.Place, w.Hand, begins, w.Times} {
			if part != "" {
				parts = append(parts, part)
			}
		}
		w.What = strings.Join(parts, ", ")
		if t.Way != "" {
			w.What += ": " + told(reason.Of("way-"+t.Way), reader)
		}
		if t.Tempo != nil {
			w.Tempo = told(*t.Tempo, reader)
			w.What = ended(w.What) + w.Tempo
		}
		if t.Think != nil && t.Spot == "" {
			w.What = ended(w.What) + told(*t.Think, reader)
		}
		if t.Start != nil && t.Start.Rhythm != "" && t.Spot == "" {
			w.What = ended(w.What) + "First in rhythm: “" + t.Start.Rhythm + "”"
		}
		if t.Start != nil && t.Start.Say != "" && t.Spot == "" {
			w.What = ended(w.What) + "Say while pointing: " + t.Start.Say
		}
	case t.Do != "":
		w.What = t.Do
	case t.Listen:
		w.What = "listen to it"
	default:
		w.What = through[min(max(t.Count, 1), len(through))-1]
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

// through is how an old friend is played, by its count.
var through = []string{"once through", "twice through, the second time slowly", "three times through, each with another thing in mind"}

// begins says with which finger each hand begins; finger stands before its number. Where
// it is to be found says which key of its name it is.
func (s *Start) begins(finger string, found bool) string {
	mark := func(s reading.StartOf, finger string) string {
		says := mark(s, finger)
		if key := which(s.Key); found && says != "" && key != "" {
			says += " (" + key + ")"
		}
		return says
	}
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
func (t *Task) place(reader string) string {
	switch {
	case t.Spot != "":
		return t.Spot
	case t.From > 0 && t.From == t.To:
		return fmt.Sprintf("bar %d", t.From)
	case t.From > 0:
		return fmt.Sprintf("bars %d–%d", t.From, t.To)
	case len(t.Plays) > 0:
		return t.Plays[0].Title
	case len(t.Cards) > 0:
		return "cards"
	case t.Game != "" && reader != "parent":
		return "study"
	case len(t.Steps) > 0 || t.Game != "":
		return "game"
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
// goes on in the middle of a sentence, {name:date} for a day.
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
		name, dated := strings.CutSuffix(name, ":date")
		value := r.Args[name]
		if dated {
			value = calendar.Date(value).Time().Format("Monday 2 January")
		}
		if lower {
			value = phrase.Within(value)
		}
		out.WriteString(value)
		words = after
	}
}

// sentences are what a sheet says, by code, and where a reader is told otherwise
// by code and reader.
var sentences = map[string]string{
	// why a task is there
	"small-first":             "A small chunk by itself first.",
	"stuck-small":             "It has been hard for a while: small pieces again, without hurry.",
	"join-two":                "Two chunks you know, joined.",
	"join-two parent":         "The two chunks just learnt, joined; nothing new in it.",
	"hold-this":               "The whole, with one thing in mind: {point:lower}.",
	"whole-piece":             "The whole piece, listening to how it sounds.",
	"polish-for":              "It has its day on {day:date}: play it as you will then.",
	"ready-to-try":            "Every point is met: try for the foothold at the lesson.",
	"ready-to-try parent":     "Every point is met: it may get its foothold at the lesson.",
	"spot-first":              "The hard place first, while fresh: {done} of {goal} in a row so far.",
	"way-own-tempo":           "once slowly, once at its own tempo",
	"way-by-heart":            "as far as it goes by heart",
	"way-to-someone":          "once for somebody who listens",
	"tempo-word":              "At its head stands “{word}”",
	"tempo-title":             "At its head stands “{word}”, and “{clue}” in the title says why",
	"tempo-words":             "At its head stands “{word}”, and “{clue}” in its words says why",
	"tempo-word parent":       "Ask first: at its head stands “{word}”; how does that go?",
	"tempo-title parent":      "Ask first: at its head stands “{word}”; which word of the title says why (“{clue}”)?",
	"tempo-words parent":      "Ask first: at its head stands “{word}”; which of its words says why (“{clue}”)?",
	"tempo-clue-title":        "How it goes: “{clue}” in the title says it",
	"tempo-clue-words":        "How it goes: “{clue}” in its words says it",
	"a-pattern":               "A pattern: the same each time, counted in a row.",
	"a-scale":                 "Slowly and evenly; smooth to see is smooth to hear.",
	"a-cycle":                 "This week's key: read the three aims first.",
	"a-card":                  "Show it, ask, wait; tell only after an answer.",
	"a-card student":          "Cover the answer, say it, then look.",
	"a-card adult":            "Cover the answer, say it, then look; what was slow comes first tomorrow.",
	"a-game":                  "A game: stop while it is still fun.",
	"a-game student":          "A minute or two, away from any hurry.",
	"a-game adult":            "A minute or two, calmly.",
	"card-shown-line":         "{sign}line {n} of the {staff} staff",
	"card-shown-space":        "{sign}space {n} of the {staff} staff",
	"card-shown-under":        "{sign}just under the {staff} staff",
	"card-shown-over":         "{sign}just over the {staff} staff",
	"card-shown-ledger":       "{sign}{where} ledger line {n} {side} the {staff} staff",
	"card-shown-notes":        "{notes}",
	"card-shown-both":         "{high} of the treble staff, {low} of the bass staff",
	"card-shown-rhythm":       "{lengths}",
	"card-shown-signature":    "{n} {sign}",
	"card-shown-tab":          "fret {fret} on string {string}",
	"card-ways":               "Look before playing: up, down or same?",
	"card-ways-right":         "{ways}",
	"card-landmark":           "Which landmark is it, and where does it lie?",
	"card-note":               "Which note is it, and where does it lie?",
	"card-note-right":         "{note}, {where}",
	"card-distance":           "From {from}: which way, how far, which note?",
	"card-distance-right":     "{far} {way}: {note}",
	"card-accidental":         "Which note is it, and where does it lie?",
	"card-black-right":        "{note}: the key just {side} of {of}",
	"card-staves":             "Name both, the lower one first.",
	"card-staves-right":       "{low} below, {high} above",
	"card-rhythm":             "Say it in time, counting.",
	"card-rhythm-right":       "{says}",
	"card-signature":          "Which major key is it, and which minor one?",
	"card-signature-right":    "{major} or {minor}",
	"card-half-or-whole":      "Half step or whole step?",
	"card-half":               "a half step",
	"card-whole":              "a whole step",
	"card-five":               "Five notes: major or minor?",
	"card-five-right":         "{key}",
	"card-five-steps":         "Between which two of the five is the half step?",
	"card-five-steps-right":   "{half} and {next}",
	"card-chord":              "In {key}: which chord, and is it home?",
	"card-home":               "{root}: home",
	"card-away":               "{root}: away",
	"card-aside":              "{root}: neither home nor away",
	"card-string":             "Which string is it?",
	"card-string-right":       "string {string}, {note}",
	"card-tab":                "Which note is it?",
	"card-tab-right":          "{note}: string {string}, fret {fret}",
	"a-pattern adult":         "A pattern: the same movement each time, in a row, so that it runs by itself later.",
	"newest-kept":             "Newly secure: it needs playing most often.",
	"carries":                 "It carries {skill:lower}, which is being learnt now.",
	"pinned":                  "Your teacher wants this one to go on.",
	"keep-alive":              "An old friend: it is played so that it stays.",
	"hear-it-early":           "{title} comes next: hearing it now makes it lighter.",
	"hear-far-ahead":          "{title} is far off: hearing it long before is the widest head start.",
	"hear-far-ahead parent":   "{title} is far off. Just have it on; nothing to do.",
	"gap":                     "Closes a gap: {skill:lower}. A little every day.",
	"gap parent":              "Something small that was passed over before: {skill:lower}. A little every day.",
	"head-start":              "Gets {skill:lower} ready for {title}. It need not succeed yet.",
	"head-start parent":       "A game towards {title}: {skill:lower}. It need not succeed yet.",
	"head-start-shown":        "As it was shown in the lesson. It need not succeed yet.",
	"head-start-late":         "Gets {skill:lower} ready for {title}, a little every day.",
	"rests-the-hands":         "Needs no playing.",
	"seat-first":              "The seat first: feet firm, front half of the seat, one slow breath.",
	"seat-first parent":       "The seat first: feet on something firm, front half of the seat, one slow breath.",
	"corrected":               "One thing at a time this week: {seen}. Try: {try}.",
	"corrected parent":        "One thing to watch for this week: {seen}. Try: {try}.",
	"start-drawn":             "Where the hand begins is drawn: set the finger there first, then look at the notes.",
	"seat-book":               "Where the seat is low and no tile is at hand: a thick closed book that cannot slip.",
	"keys-labelled":           "A small label names each key that is in use; take one away as soon as the key is found without it.",
	"seat-tiles":              "Firm tiles on the bench at its highest: {n}.",
	"seat-platform":           "Under the feet: something firm, {cm} cm high.",
	"seat-platform-pedals":    "Under the feet: a firm platform of {cm} cm that carries them up to the pedals.",
	"seat-footstool":          "Under the left foot: a footstool of {cm} cm.",
	"seat-too-high":           "The seat is {cm} cm too high even at its lowest: a lower one, please.",
	"rest-within":             "Rest five minutes in each half hour.",
	"aims-card-keyboard":      "Reread the card for {title} each day: natural place, idle fingers quiet, thumb early. A beat track behind it helps.",
	"aims-card-bowed":         "Three things in {title} each day: in tune, bow straight, fingers left down. A drone behind it helps.",
	"aims-card-plucked":       "Three things in {title} each day: fingers in turn, even, each note held until the next. A beat track behind it helps.",
	"aims-card-shared":        "Three things in {title} each day: even, calm, a tone you like. A beat track behind it helps.",
	"earlier-help":            "If {skill:lower} is lost: go back to {title}, where it was new.",
	"child-leads":             "Let the child be the teacher once in each game, and get something wrong.",
	"first-drawing":           "Draw the two who walked in the music; the drawing comes along next time.",
	"script-direction":        "For the grown-up: show the first key, say “up”, “down” or “same” for each note, then let the child play.",
	"script-ear":              "For the grown-up: sing or play it once, let the child find it; wait before helping.",
	"script-count":            "For the grown-up: count the times aloud; wait before helping.",
	"praise-generous":         "Praise every chunk that goes, and say what went.",
	"praise-generous student": "After each chunk that goes, say what went.",
	"praise-specific":         "Name one thing that went well, and let the child name two.",
	"praise-specific student": "Afterwards, name two things that went well.",
	"later-again":             "After that, until {until:date}, go through the same days again, in the same order. Play each new piece as you played it on its last day.",
	"later-lighter":           "After that, until {until:date}, practise less: on most days one or two of {titles}.",
	"one-hand":                "No playing with the {side} side until a licensed clinician has allowed it. The {hand} hand may play a little; stop if anything hurts. This sheet makes no diagnosis.",
	"short-sittings":          "Coming back slowly: play in several short sittings, with a rest between them. Stop if anything hurts.",
	"changed-lesson":          "The next lesson is on {day:date}; practise until {until:date}.",
	"changed-no-lesson":       "The day of the next lesson is not settled yet; practise until {until:date}.",
	"lighter-week":            "A shorter plan this week. A little on most days is better than much on one.",
	"count-by-age":            "Count every time through, slowly; a slip is no reason to start over.",
	"count-correct-only":      "Count only the times that were right.",
	"count-quality":           "Stop as soon as it went calmly and right; do not count.",
	"changed-new":             "New: {title}: {says}",
	"changed-line":            "Changed: {title}: {says}",
	"changed-new-own":         "New: {says}",
	"changed-line-own":        "Changed: {says}",
	"changed-gone-own":        "No longer asked: {says}",
	"changed-gone":            "No longer asked: {title}: {says}",
	"changed-days":            "{title} stands on other days",
	"changed-much":            "Most of this sheet is new: please read it through",
	"think-even":              "It was even: keep the feeling of it",
	"think-slips":             "Think of the notes first: slower, until all of them are there",
	"think-stops":             "Think ahead: slower, so that nothing has to wait",
	"think-lope":              "Think of the second of each two: as long as the first",
	"think-lope-short":        "Think of the first of each two: as long as the second",
	"think-quicker":           "Think of the end: no quicker than the beginning",
	"think-slower":            "Think of the end: no slower than the beginning",
	"think-spread":            "Think of a clock: each note at its stroke, slower if need be",
	"think-late":              "Think of the {finger}: ready sooner",
	"think-early":             "Think of the {finger}: it waits its turn",
	"think-strong":            "Think of the {finger}: as light as the others",
	"think-weak":              "Think of the {finger}: as clear as the others",
	"think-apart":             "Think of the {hand} hand: down together with the other",
	"think-scatter":           "Think of both hands: down together, slowly, each time",
	"stop-if-it-hurts":        "If anything hurts, stop for the day and tell us.",
	"no-playing":              "Pain was told ({side} side): listening only, no playing with it until a licensed clinician has seen it. This sheet makes no diagnosis.",
}
