package letter

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/report"
	"patientladder/words"
)

// unmarked is what of a text stands outside the marks of the tests' language, without what people typed.
func unmarked(text string, typed ...string) string {
	marked := regexp.MustCompile(`⟦[^⟦⟧]*⟧`)
	for was := ""; was != text; {
		was, text = text, marked.ReplaceAllString(text, " ")
	}
	for _, t := range typed {
		text = strings.ReplaceAll(text, t, " ")
	}
	return strings.Join(regexp.MustCompile(`[A-Za-zÀ-ÿ]{2,}`).FindAllString(text, -1), " ")
}

var tags = regexp.MustCompile(`(?s)<head>.*?</head>|<[^>]*>|&\w+;`)

// pdfText is what a file of pages says.
func pdfText(t *testing.T, page []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "page.pdf")
	require.NoError(t, os.WriteFile(file, page, 0o600))
	text, err := exec.Command("pdftotext", "-raw", file, "-").Output()
	require.NoError(t, err, "pdftotext comes with the Debian package poppler-utils")
	return strings.Join(strings.Fields(string(text)), " ")
}

// A letter, its page and a report say nothing that no catalogue holds, save what people typed.
func TestLettersComeFromTheCatalogue(t *testing.T) {
	in := words.Pseudo()
	one := ask(2, A4)
	one.Words, one.Sheet.Lines = in, nil
	for d := range one.Sheet.Days {
		for i := range one.Sheet.Days[d].Tasks {
			one.Sheet.Days[d].Tasks[i].Says.What, one.Sheet.Days[d].Tasks[i].Says.Why = "1–4", ""
		}
	}
	typed := []string{one.FirstName, one.Studio, one.Teacher, one.Link, "Fog <Signal> & Bell", "Fog  Bell", "Fog Signal Bell", "Fog", "Bell", "Frère Jacques"}
	l, err := Write(one)
	require.NoError(t, err)
	require.Contains(t, l.Text, "⟦")
	assert.Empty(t, unmarked(l.Subject, typed...))
	assert.Empty(t, unmarked(l.Text, typed...))
	assert.Empty(t, unmarked(tags.ReplaceAllString(l.HTML, " "), append(typed, "Signal")...))
	page := pdfText(t, l.Page)
	require.Contains(t, page, "⟦", page)
	assert.Empty(t, unmarked(page, typed...))

	term := ReportAsk{FirstName: "Emil", Studio: "The Ferry House", Teacher: "Ottilie", Words: in, Report: report.Report{Term: calendar.Span{Name: "autumn", From: "2026-09-07", To: "2026-12-11"},
		Paragraphs: []report.Paragraph{{Key: "home", Title: "⟦At home⟧", Text: "12"}}}}
	r, err := WriteReport(term)
	require.NoError(t, err)
	pages, err := ReportPages([]ReportAsk{term})
	require.NoError(t, err)
	typed = []string{term.FirstName, term.Studio, term.Teacher, "autumn"}
	assert.Empty(t, unmarked(r.Subject, typed...))
	assert.Empty(t, unmarked(r.Text, typed...))
	assert.Empty(t, unmarked(tags.ReplaceAllString(r.HTML, " "), typed...))
	assert.Empty(t, unmarked(pdfText(t, pages), typed...))
}
