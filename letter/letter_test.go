package letter

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/reason"
	"patientladder/core/week"
	"patientladder/words"
)

// english are the words in which these tests read letters.
var english = words.In(words.Reader{Language: words.Base})

// sheet is a made-up week of one piece and many old ones.
func sheet(old int) week.Sheet {
	sh := week.Sheet{From: "2026-11-18", Next: "2026-11-25", Budget: 12, Lines: []week.Line{
		{Reason: reason.Of("seat-first"), Says: "The seat first: feet firm."},
		{Reason: reason.Of("script-direction"), Says: "For the grown-up: say “up”, “down” or “same”."},
	}}
	for d := range 7 {
		day := week.Day{Date: sh.From.Add(d), Lesson: d == 0, Off: d == 4}
		if d > 0 && d != 4 {
			day.Tasks = append(day.Tasks, week.Task{Band: "now", Title: "Fog <Signal> & Bell", Minutes: 4, Says: week.Words{What: "bars 1–4, right hand, 3 on F sharp, 6 times", Why: "A small chunk by itself first."}})
			for range old {
				day.Tasks = append(day.Tasks, week.Task{Band: "upkeep", Title: "Frère Jacques", Minutes: 2, Says: week.Words{What: "once through", Why: "An old friend: once through, so that it stays."}})
			}
		}
		sh.Days = append(sh.Days, day)
	}
	return sh
}

func ask(old int, paper Paper) Ask {
	return Ask{FirstName: "Tobias", Studio: "The Ferry House", Teacher: "Ottilie Brandvold", Sheet: sheet(old), Link: "https://ladder.example/family/abc", LastDay: "2026-12-11", Paper: paper, Words: english}
}

// Text and HTML say the same: the link, the lines, every day and every task.
func TestTheLetter(t *testing.T) {
	l, err := Write(ask(1, A4))
	require.NoError(t, err)
	assert.Equal(t, "Tobias: practice from Wednesday 18 November", l.Subject)
	for _, says := range []string{"https://ladder.example/family/abc", "Friday 11 December", "The seat first: feet firm.", "Thursday 19 November", "bars 1–4, right hand, 3 on F sharp, 6 times", "a free day", "Ottilie Brandvold"} {
		assert.Contains(t, l.Text, says)
		assert.Contains(t, l.HTML, says)
	}
	assert.Equal(t, 5, strings.Count(l.Text, "[ ] Fog <Signal> & Bell: bars 1–4"), "a task on each day of practice")
	assert.Equal(t, 5, strings.Count(l.HTML, "<b>Fog &lt;Signal&gt; &amp; Bell</b>"), "a title is no markup")
	assert.NotContains(t, l.Text, "{{")
	assert.NotContains(t, l.Text, "Changed since")
	assert.Contains(t, l.Text, "Hello,\n\nThis week Tobias has 1 thing to practise, about 12 minutes a day, up to the lesson on Wednesday 25 November:\n- Fog <Signal> & Bell\n")
	again := ask(1, A4)
	again.Changed = []week.Line{{Says: "New: Also: Sing it <twice>."}}
	l, err = Write(again)
	require.NoError(t, err)
	assert.Contains(t, l.Text, "Changed since the last sheet:\n- New: Also: Sing it <twice>.\n")
	assert.Contains(t, l.HTML, "<li>New: Also: Sing it &lt;twice&gt;.</li>")
}

// The page that goes with the letter is one page, short weeks and long ones; its text
// holds every task.
func TestThePage(t *testing.T) {
	for _, c := range []struct {
		name  string
		old   int
		paper Paper
		size  string
	}{{"few tasks", 0, A4, "A4"}, {"a usual week", 5, A4, "A4"}, {"very many", 25, USLetter, "letter"}} {
		t.Run(c.name, func(t *testing.T) {
			l, err := Write(ask(c.old, c.paper))
			require.NoError(t, err)
			file := filepath.Join(t.TempDir(), "page.pdf")
			require.NoError(t, os.WriteFile(file, l.Page, 0o600))
			info, err := exec.Command("pdfinfo", file).Output()
			require.NoError(t, err, "pdfinfo comes with the Debian package poppler-utils")
			assert.Regexp(t, `Pages:\s+1\n`, string(info))
			assert.Regexp(t, `Page size:.*\(`+c.size+`\)`, string(info))
			text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
			require.NoError(t, err)
			assert.Equal(t, 5, strings.Count(string(text), "3 on F sharp"))
			assert.Equal(t, 5*c.old, strings.Count(string(text), "Frère Jacques"))
			assert.Contains(t, string(text), "say “up”", "letters beyond the plain ones")
		})
	}
	_, err := Write(ask(200, A4))
	assert.ErrorContains(t, err, "does not fit on one page")
}
