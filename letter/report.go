package letter

import (
	"bytes"
	_ "embed"
	"fmt"
	"html/template"
	"strings"
	texttemplate "text/template"

	"patientladder/core/report"
	"patientladder/words"
)

// A ReportAsk is what the letter of a term's report is written from.
type ReportAsk struct {
	FirstName string
	Studio    string
	Teacher   string
	Report    report.Report
	Paper     Paper
	Words     *words.Words // of the home
}

// Title names the report by its term.
func (ask ReportAsk) Title() string {
	if ask.Report.Term.Name == "" {
		return ask.Words.Text("page.no-term", nil)
	}
	return ask.Words.Text("page.term", words.Args{"term": ask.Report.Term.Name, "year": string(ask.Report.Term.From)[:4]})
}

// Dates is the title with the days that the report is about.
func (ask ReportAsk) Dates() string {
	return ask.Words.Text("page.dates", words.Args{"term": ask.Title(), "from": string(ask.Report.Term.From), "to": string(ask.Report.Term.To)})
}

// Language is the report's.
func (ask ReportAsk) Language() string { return ask.Words.Language() }

var (
	//go:embed report.txt
	plainReport string
	//go:embed report.html
	richReport string

	reportText = texttemplate.Must(texttemplate.New("report").Parse(plainReport))
	reportHTML = template.Must(template.New("report").Parse(richReport))
)

// WriteReport writes the letter of a term's report, with a page that prints.
func WriteReport(ask ReportAsk) (Letter, error) {
	l := Letter{Subject: ask.FirstName + ": " + ask.Title()}
	var text, html bytes.Buffer
	if err := reportText.Execute(&text, ask); err != nil {
		return l, fmt.Errorf("write the report: %w", err)
	}
	if err := reportHTML.Execute(&html, ask); err != nil {
		return l, fmt.Errorf("write the report: %w", err)
	}
	l.Text, l.HTML = text.String(), html.String()
	var err error
	l.Page, err = ReportPages([]ReportAsk{ask})
	return l, err
}

// ReportPages draws reports to be printed, each on a page of its own, in the largest letters in which
// all stand on one.
func ReportPages(asks []ReportAsk) ([]byte, error) {
	if len(asks) == 0 {
		return nil, fmt.Errorf("there is no report to print")
	}
	d, fits := fitted(asks[0].Paper, len(asks), func(d *drawing) {
		for i, ask := range asks {
			if i > 0 {
				d.AddPage()
			}
			d.report(ask)
		}
	})
	if !fits {
		return nil, fmt.Errorf("a report does not fit on one page")
	}
	return d.file()
}

func (d *drawing) report(ask ReportAsk) {
	d.SetTitle(ask.FirstName+", "+ask.Title(), true)
	d.heading(ask.FirstName, ask.Studio, 1.9)
	d.CellFormat(d.width, d.line*1.3, ask.Dates(), "B", 1, "L", false, 0, "")
	for _, p := range ask.Report.Said() {
		d.Ln(d.line * 0.8)
		if p.Key != "word" {
			d.font("B", 1.15)
			d.MultiCell(d.width, d.line*1.3, p.Title, "", "L", false)
		}
		d.font("", map[bool]float64{true: 1.2, false: 1.05}[p.Key == "word"])
		d.MultiCell(d.width, d.line*1.25, strings.TrimSpace(p.Text), "", "L", false)
	}
	d.Ln(d.line * 1.5)
	d.font("", 1)
	d.MultiCell(d.width, d.line*1.2, ask.Teacher, "", "L", false)
}
