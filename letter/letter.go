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
	texttemplate "text/template"

	"patientladder/core/calendar"
	"patientladder/core/week"
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

	words     = map[string]any{"day": day}
	plainText = texttemplate.Must(texttemplate.New("letter").Funcs(words).Parse(plain))
	richText  = template.Must(template.New("letter").Funcs(words).Parse(rich))
)

// day writes a date as a family reads it: Wednesday 18 November.
func day(d calendar.Date) string { return d.Time().Format("Monday 2 January") }

// Write writes a sheet's letter.
func Write(ask Ask) (Letter, error) {
	l := Letter{Subject: fmt.Sprintf("%s's week from %s", ask.FirstName, day(ask.Sheet.From))}
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
