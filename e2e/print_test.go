package e2e

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// papers are the sizes of a printed page in points.
var papers = map[string]string{"A4": "594.96 x 841.92", "Letter": "612 x 792"}

// The week sheet of every student of the demo prints on exactly one page of either
// paper, with every task on it.
func TestSheetsPrintOnOnePage(t *testing.T) {
	p := atWork(t)
	dir := os.Getenv("LADDER_PAGES") // keeps the pages, to be looked at
	if dir == "" {
		dir = t.TempDir()
	}
	for _, name := range []string{"Wren", "Tobias", "Saoirse", "Emil", "Priya", "Nikolai", "Mei-Lin", "Idris", "Freya", "Luca", "Zuri", "Anselm", "Hyacinth", "Walter"} {
		id := p.student(name)
		pieces := evalAsync(p, `fetch('/api/students/`+id+`/week').then(r => r.json()).then(w => String(w.chunks.length))`)
		p.goTo("/students/" + id + "/week")
		p.sees(name + "'s week")
		for paper, size := range papers {
			for _, large := range []bool{false, true} {
				if large && paper == "Letter" {
					continue // Letter is shorter and wider; one large one is enough
				}
				p.press(paper)
				if large {
					p.press("large print")
				}
				p.until(`document.querySelectorAll('[data-testid=sheet] figure g.bands').length === `+map[bool]string{false: pieces, true: "0"}[large]+` && +document.querySelector('.one-page').style.getPropertyValue('--page-zoom') > 0`, "the notes are drawn and the page is measured")
				pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
				require.NoError(t, err)
				file := filepath.Join(dir, name+paper+map[bool]string{true: "-large"}[large]+".pdf")
				require.NoError(t, os.WriteFile(file, pdf, 0o644))
				info, err := exec.Command("pdfinfo", file).Output()
				require.NoError(t, err)
				assert.Regexp(t, `Pages:\s+1\n`, string(info), "%s on %s", name, paper)
				assert.Contains(t, string(info), size, "%s on %s", name, paper)
				text := words(t, file)
				for _, what := range tasksOf(p, id) {
					assert.True(t, strings.Contains(text, what), "%s on %s does not say %s", name, paper, what)
				}
				if large {
					t.Logf("%s in large print: %s", name, eval[string](p, `document.querySelector('.one-page').style.getPropertyValue('--page-zoom')`))
					p.press("large print")
				}
			}
		}
	}
}

// words are a page's text without its spaces, so that a line that is broken reads as
// one.
func words(t *testing.T, file string) string {
	text, err := exec.Command("pdftotext", "-raw", file, "-").Output()
	require.NoError(t, err)
	return spaces.ReplaceAllString(string(text), "")
}

var spaces = regexp.MustCompile(`\s+`)

// tasksOf is what each task of a student's sheet has to say on paper.
func tasksOf(p *page, id string) []string {
	told := evalAsync(p, `fetch('/api/students/`+id+`/week').then(r => r.json()).then(w => w.sheet.days.flatMap(d => d.tasks.flatMap(t =>
		[t.do ?? t.title, ...(t.band === 'now' ? [t.says.place] : [])])).join('\n'))`)
	var out []string
	for line := range strings.Lines(told) {
		out = append(out, spaces.ReplaceAllString(line, ""))
	}
	return out
}
