// Package report drafts what a teacher tells a family of a term, on one page.
//
// It takes what the term brought, what is in hand and what comes, and gives paragraphs in the
// reader's words: of a child to the family, of a grown-up to the student. It tells one student by
// that student's own past; it counts nothing against others and ranks nobody. The teacher's word
// stands over each paragraph.
package report

import (
	"fmt"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/phrase"
	"patientladder/core/record"
)

// A Report is one page on a term.
type Report struct {
	Term       calendar.Span `json:"term"`
	Paragraphs []Paragraph   `json:"paragraphs"`
}

// A Paragraph is one part of it.
type Paragraph struct {
	Key   string `json:"key" enum:"learnt,skills,old,home,hand,next,word"`
	Title string `json:"title" maxLength:"100"`
	Text  string `json:"text" maxLength:"2000"`
}

// Longest is how many letters a report holds, so that it stands on one page.
const Longest = 5000

// Ask is what a report is drafted from.
type Ask struct {
	Name    string // the first name
	Adult   bool   // it speaks to the student
	Before  bool   // before the first book: games and small tunes
	Span    calendar.Span
	Brought record.Brought
	Hand    []InHand
	Next    []string       // titles of what comes next
	Ahead   []string       // names of skills that are prepared
	Kept    int            // old pieces that are kept alive
	Words   map[string]int // how practice felt, as told
	Agreed  string         // at the last check-in; empty for none
}

// An InHand is a piece that is being learnt.
type InHand struct {
	Title   string
	Missing []string // names of its points that are not met
}

// A voice names the student: a child by name, a grown-up as you.
type voice struct{ who, has string }

// few is how many things a paragraph names before it says how many more there are.
const few = 8

// Draft drafts the report of a term.
func Draft(ask Ask) Report {
	v := voice{ask.Name, "has"}
	if ask.Adult {
		v = voice{"you", "have"}
	}
	r := Report{Term: ask.Span}
	put := func(key, title, text string) {
		r.Paragraphs = append(r.Paragraphs, Paragraph{key, title, text})
	}
	put("word", "In a word", "")
	put("learnt", "What was learnt", v.learnt(ask))
	if len(ask.Brought.Skills) > 0 {
		put("skills", "New this term", phrase.Begin(list(within(ask.Brought.Skills), "; "))+".")
	}
	if ask.Kept > 0 && !ask.Before {
		put("old", "What is kept alive", fmt.Sprintf("%s %s by now, and %s heard again and again, so that nothing learnt is lost.", phrase.Begin(count(ask.Kept, "finished piece")), verb(ask.Kept, "is there", "are there"), verb(ask.Kept, "it is", "they are")))
	}
	put("home", "At home", v.home(ask))
	if len(ask.Hand) > 0 {
		put("hand", "In hand now", v.hand(ask))
	}
	if len(ask.Next)+len(ask.Ahead) > 0 {
		put("next", "What comes", v.next(ask))
	}
	return r
}

// learnt says what was finished. That a piece takes one to ten weeks is normal, and is said where
// nothing was. Common practice, no source.
func (v voice) learnt(ask Ask) string {
	b := ask.Brought
	if b.Lessons == 0 {
		return fmt.Sprintf("There was no lesson from %s to %s.", day(ask.Span.From), day(ask.Span.To))
	}
	had := fmt.Sprintf("%s %s had %s", phrase.Begin(v.who), v.has, count(b.Lessons, "lesson"))
	if len(b.Footholds) == 0 {
		return had + ". Nothing was finished in this time, which is nothing out of the ordinary: a piece takes between one week and ten, and what was begun is on its way."
	}
	titles, parts := []string{}, map[string][]string{}
	for _, w := range b.Footholds {
		if _, there := parts[w.Title]; !there {
			titles = append(titles, w.Title)
		}
		parts[w.Title] = append(parts[w.Title], w.Part)
	}
	var things []string
	for _, title := range titles {
		thing := "“" + title + "”"
		if of := parts[title]; of[0] != "" {
			thing += " (" + list(of, ", ") + ")"
		}
		things = append(things, thing)
	}
	means := "Finished means: played through alone, with the right notes, rhythm and fingers. It goes on to be polished, often for a year."
	if ask.Before {
		means = "Finished means: it goes by itself, and its game makes room for the next."
	}
	return fmt.Sprintf("%s and finished %s: %s. %s", had, count(len(things), "thing"), list(things, ", "), means)
}

// home says how often there was practice and how it felt; practice and enjoyment apart.
func (v voice) home(ask Ask) string {
	b := ask.Brought
	if b.Asked == 0 {
		return "Nothing was asked for at home in this time."
	}
	text := fmt.Sprintf("There was practice on %d of the %d days that were asked for.", b.Days, b.Asked)
	if b.Days == 0 {
		text = fmt.Sprintf("We have heard nothing of the %d days that were asked for. A tick on the sheet is enough, and helps to plan the next week.", b.Asked)
	}
	word, most := "", 0
	for _, w := range []string{"fun", "easy", "fine", "hard", "dull"} {
		if ask.Words[w] > most {
			word, most = w, ask.Words[w]
		}
	}
	if word != "" {
		text += fmt.Sprintf(" The word told most often: %s.", word)
	}
	if word == "dull" {
		text += " We take that seriously, and choose pieces together."
	}
	if ask.Agreed != "" {
		text += " What we agreed on: " + strings.TrimRight(ask.Agreed, ".") + "."
	}
	return text
}

func (v voice) hand(ask Ask) string {
	var out []string
	for _, h := range ask.Hand {
		switch {
		case len(h.Missing) == 0:
			out = append(out, "“"+h.Title+"” is nearly there.")
		default:
			out = append(out, fmt.Sprintf("“%s”, still open: %s.", h.Title, list(within(h.Missing), ", ")))
		}
	}
	return strings.Join(out, " ")
}

func (v voice) next(ask Ask) string {
	var out []string
	if len(ask.Next) > 0 {
		out = append(out, fmt.Sprintf("Next %s “%s”.", verb(len(ask.Next), "comes", "come"), strings.Join(ask.Next, "” and “")))
	}
	if len(ask.Ahead) > 0 {
		out = append(out, fmt.Sprintf("Already being prepared, a minute at a time: %s.", list(within(ask.Ahead), ", ")))
	}
	return strings.Join(out, " ")
}

// Check says what is wrong with a report as it was edited.
func (r Report) Check() error {
	n := 0
	for _, p := range r.Paragraphs {
		n += len([]rune(p.Title)) + len([]rune(p.Text))
	}
	if n > Longest {
		return fmt.Errorf("it has %d letters and a page holds %d; shorten it by %d", n, Longest, n-Longest)
	}
	return nil
}

// Said returns the paragraphs that say something.
func (r Report) Said() []Paragraph {
	var out []Paragraph
	for _, p := range r.Paragraphs {
		if strings.TrimSpace(p.Text) != "" {
			out = append(out, p)
		}
	}
	return out
}

func day(d calendar.Date) string { return d.Time().Format("2 January") }

func count(n int, one string) string {
	if n == 1 {
		return "one " + one
	}
	return fmt.Sprintf("%d %ss", n, one)
}

func verb(n int, one, more string) string {
	if n == 1 {
		return one
	}
	return more
}

// within is some names as they stand in the middle of a sentence.
func within(names []string) []string {
	out := make([]string, len(names))
	for i, name := range names {
		out[i] = phrase.Within(name)
	}
	return out
}

// list writes some things as a sentence does, with a sign between them; of many the first few.
func list(things []string, between string) string {
	switch n := len(things); {
	case n == 0:
		return ""
	case n > few:
		return strings.Join(things[:few], between) + fmt.Sprintf(" and %d more", n-few)
	case n == 1:
		return things[0]
	case between == "; ":
		return strings.Join(things, between)
	default:
		return strings.Join(things[:n-1], between) + " and " + things[n-1]
	}
}
