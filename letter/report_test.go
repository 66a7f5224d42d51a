package letter

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/report"
)

// A report goes out in plain text, in HTML and as a page; what is empty is left out, and several
// print on as many pages, whatever the paper and however long.
func TestAReportsLetter(t *testing.T) {
	r := report.Report{Term: calendar.Span{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}, Paragraphs: []report.Paragraph{
		{Key: "word", Title: "In a word", Text: "A fine term <indeed>."}, {Key: "skills", Title: "New this term"}, {Key: "home", Title: "At home", Text: strings.Repeat("Practice on most days. ", 60)}}}
	ask := ReportAsk{FirstName: "Emil", Studio: "The Ferry House", Teacher: "Ottilie", Report: r, Words: english}
	l, err := WriteReport(ask)
	require.NoError(t, err)
	assert.Equal(t, "Emil: autumn 2026", l.Subject)
	assert.Contains(t, l.Text, "A fine term <indeed>.")
	assert.Contains(t, l.HTML, "A fine term &lt;indeed&gt;.")
	assert.NotContains(t, l.Text+l.HTML, "New this term")
	assert.NotContains(t, l.HTML, ">In a word<", "the teacher's sentence stands without a heading")
	full := r
	for range 3 {
		full.Paragraphs = append(full.Paragraphs, report.Paragraph{Key: "old", Title: "More", Text: strings.Repeat("word ", report.Longest/20)})
	}
	for _, paper := range []Paper{A4, USLetter} {
		ask.Paper = paper
		long := ask
		long.Report = full
		pages, err := ReportPages([]ReportAsk{ask, long, ask})
		require.NoError(t, err)
		assert.Equal(t, 3, bytes.Count(pages, []byte("/Type /Page\n")), "a page each")
	}
	_, err = ReportPages(nil)
	assert.ErrorContains(t, err, "no report")
}

// What a student can play, in large letters for the young, on as many pages as it takes.
func TestWhatICanPlay(t *testing.T) {
	var list []Playing
	for range 60 {
		list = append(list, Playing{Title: "Rope Walk", Composer: "The Ferry House", Since: "2026-05-06", Polished: true})
	}
	count := func(age int, list []Playing) int {
		pages, err := PlaysPages(english, "Emil", age, A4, list)
		require.NoError(t, err)
		return bytes.Count(pages, []byte("/Type /Page\n"))
	}
	assert.Equal(t, 1, count(8, nil))
	assert.Equal(t, 1, count(8, list[:10]))
	plain := make([]Playing, 40)
	for i := range plain {
		plain[i] = Playing{Title: "Rope Walk", Since: "2026-05-06"}
	}
	assert.Greater(t, count(6, plain), count(40, plain), "large letters take more room")
	assert.Greater(t, count(12, list), 1)
}
