// Package letter writes what goes to a family: the week sheet as a mail in plain
// text and HTML, and as a page that prints.
//
// It takes a sheet whose tasks have their words already; it adds none of its own
// but greetings and headings.
package letter

import (
	"bytes"
	_ "embed"
	"fmt"
	"html/template"
	"slices"
	texttemplate "text/template"

	"patientladder/core/calendar"
	"patientladder/core/week"
	"patientladder/words"
)

// An Ask is what a letter is written from.
type Ask struct {
	FirstName string
	Studio    string
	Teacher   string
	Sheet     week.Sheet
	Changed   []week.Line   // since the sheet that the family had
	Link      string        // that opens the family's page; empty for none
	LastDay   calendar.Date // of the link
	Paper     Paper
	Words     *words.Words // of the home
}

// A Letter is a week sheet, written.
type Letter struct {
	Subject string
	Text    string
	HTML    string
	Page    []byte // PDF, one page
}

var (
	//go:embed letter.txt
	plain string
	//go:embed letter.html
	rich string

	plainText = texttemplate.Must(texttemplate.New("letter").Parse(plain))
	richText  = template.Must(template.New("letter").Parse(rich))
)

// Say is a message of the letter; pairs are argument and value, beside the student's name.
func (ask Ask) Say(key string, pairs ...any) string { return ask.say("letter."+key, pairs...) }

func (ask Ask) say(key string, pairs ...any) string {
	args := map[string]string{"name": ask.FirstName}
	for i := 0; i+1 < len(pairs); i += 2 {
		args[fmt.Sprint(pairs[i])] = fmt.Sprint(pairs[i+1])
	}
	return ask.Words.For(ask.Sheet.Reader, key, args)
}

// Language is the letter's.
func (ask Ask) Language() string { return ask.Words.Language() }

// Day writes a date as a family reads it: Wednesday 18 November.
func (ask Ask) Day(d calendar.Date) string { return ask.Words.Day(d) }

// Minutes are how long a task takes.
func (ask Ask) Minutes(n int) string { return ask.Say("minutes", "n", n) }

// Later sums up the days that are not told one by one.
func (ask Ask) Later() []week.Later { return ask.Sheet.Later(ask.Words) }

// Things are what there is to practise that is new or being learnt, each once.
func (ask Ask) Things() []string {
	var out []string
	for _, d := range ask.Sheet.Days {
		for _, t := range d.Tasks {
			if t.Band == "now" && !slices.Contains(out, t.Title) {
				out = append(out, t.Title)
			}
		}
	}
	return out
}

// Opening says what the letter brings.
func (ask Ask) Opening() string {
	n := len(ask.Things())
	if n == 0 {
		return ask.Say("opening-rest", "from", ask.Sheet.From)
	}
	return ask.Say("opening", "n", n, "minutes", ask.Sheet.Budget, "next", ask.Sheet.Next, "until", ask.Sheet.Ends())
}

// Write writes a sheet's letter.
func Write(ask Ask) (Letter, error) {
	l := Letter{Subject: ask.Say("subject", "from", ask.Sheet.From)}
	var text, html bytes.Buffer
	if err := plainText.Execute(&text, ask); err != nil {
		return l, fmt.Errorf("write the letter: %w", err)
	}
	if err := richText.Execute(&html, ask); err != nil {
		return l, fmt.Errorf("write the letter: %w", err)
	}
	l.Text, l.HTML = text.String(), html.String()
	var err error
	l.Page, err = page(ask)
	return l, err
}
