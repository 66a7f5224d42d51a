// Package report drafts what a teacher tells a family of a term, on one page.
//
// It takes what the term brought, what is in hand and what comes, and gives paragraphs in the
// reader's words: of a child to the family, of a grown-up to the student. It tells one student by
// that student's own past; it counts nothing against others and ranks nobody. The teacher's word
// stands over each paragraph.
package report

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/calendar"
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

// A Voice says a message of a catalogue to one reader: a parent, or an adult who is the student.
type Voice interface {
	For(reader, key string, args map[string]string) string
	List(things []string, most int) string
}

// Ask is what a report is drafted from.
type Ask struct {
	Name    string // the first name
	Adult   bool   // it speaks to the student
	Before  bool   // before the first book: games and small tunes
	Span    calendar.Span
	Brought record.Brought
	Can     []string // what the student can do now, of Brought
	Hand    []InHand
	Next    []string       // titles of what comes next
	Ahead   []string       // names of skills that are prepared
	Kept    int            // pieces that are kept fresh
	Words   map[string]int // how practice felt, as told
	Agreed  string         // at the last check-in; empty for none
	Voice   Voice
}

// An InHand is a piece that is being learnt.
type InHand struct {
	Title   string
	Missing []string // names of its goals that are left
}

// few is how many things a paragraph names before it says how many more there are.
const few = 8

// Draft drafts the report of a term.
func Draft(ask Ask) Report {
	r := Report{Term: ask.Span}
	put := func(key, text string) {
		r.Paragraphs = append(r.Paragraphs, Paragraph{key, ask.say("title-" + key), text})
	}
	put("word", "")
	put("learnt", ask.learnt())
	if len(ask.Can) > 0 {
		put("skills", ask.say("can", "can", ask.Voice.List(ask.Can, few)))
	}
	if ask.Kept > 0 && !ask.Before {
		put("old", ask.say("kept", "pieces", strconv.Itoa(ask.Kept)))
	}
	put("home", ask.home())
	if len(ask.Hand) > 0 {
		put("hand", ask.hand())
	}
	if len(ask.Next)+len(ask.Ahead) > 0 {
		put("next", ask.next())
	}
	return r
}

// say is a message of the report; pairs are argument and value, beside the student's name.
func (ask Ask) say(key string, pairs ...string) string {
	reader := "parent"
	if ask.Adult {
		reader = "adult"
	}
	args := map[string]string{"name": ask.Name}
	for i := 0; i+1 < len(pairs); i += 2 {
		args[pairs[i]] = pairs[i+1]
	}
	return ask.Voice.For(reader, "report."+key, args)
}

// learnt says what was learnt. That a piece takes one to ten weeks is normal, and is said where
// nothing was. Common practice, no source.
func (ask Ask) learnt() string {
	b := ask.Brought
	if b.Lessons == 0 {
		return ask.say("no-lesson", "from", string(ask.Span.From), "to", string(ask.Span.To))
	}
	lessons := strconv.Itoa(b.Lessons)
	if len(b.Footholds) == 0 {
		return ask.say("nothing-learnt", "lessons", lessons)
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
		thing := ask.say("piece", "title", title)
		if of := parts[title]; of[0] != "" {
			thing = ask.say("piece-in-parts", "title", title, "parts", ask.Voice.List(of, few))
		}
		things = append(things, thing)
	}
	means := "means"
	if ask.Before {
		means = "means-games"
	}
	return ask.say("learnt", "lessons", lessons, "things", strconv.Itoa(len(things)), "list", ask.Voice.List(things, few)) + " " + ask.say(means)
}

// home says how often there was practice and how it felt; practice and enjoyment apart.
func (ask Ask) home() string {
	b := ask.Brought
	if b.Asked == 0 {
		return ask.say("nothing-asked")
	}
	text := ask.say("practised", "days", strconv.Itoa(b.Days), "asked", strconv.Itoa(b.Asked))
	if b.Days == 0 {
		text = ask.say("nothing-heard", "asked", strconv.Itoa(b.Asked))
	}
	word, most := "", 0
	for _, w := range []string{"fun", "easy", "fine", "hard", "dull"} {
		if ask.Words[w] > most {
			word, most = w, ask.Words[w]
		}
	}
	if word != "" {
		text += " " + ask.say("felt-"+word)
	}
	if ask.Agreed != "" {
		text += " " + ask.say("agreed", "text", strings.TrimRight(ask.Agreed, "."))
	}
	return text
}

func (ask Ask) hand() string {
	var out []string
	for _, h := range ask.Hand {
		if len(h.Missing) == 0 {
			out = append(out, ask.say("nearly", "title", h.Title))
			continue
		}
		out = append(out, ask.say("working", "title", h.Title, "goals", ask.Voice.List(h.Missing, few)))
	}
	return strings.Join(out, " ")
}

func (ask Ask) next() string {
	var out []string
	if len(ask.Next) > 0 {
		var titles []string
		for _, title := range ask.Next {
			titles = append(titles, ask.say("piece", "title", title))
		}
		out = append(out, ask.say("next", "list", ask.Voice.List(titles, few)))
	}
	if len(ask.Ahead) > 0 {
		out = append(out, ask.say("preparing", "list", ask.Voice.List(ask.Ahead, few)))
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
