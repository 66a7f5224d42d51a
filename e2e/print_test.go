package e2e

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// A printing is one way of putting a sheet on paper.
type printing struct {
	name, paper string
	large       bool
	size        string // points, as the PDF has them
}

var printings = []printing{
	{"A4", "A4", false, "594.95996 841.91998"},
	{"Letter", "Letter", false, "612 792"},
	{"A4 in large print", "A4", true, "594.95996 841.91998"},
}

// The practice sheet of a student of the demo prints on exactly one page, with the
// chunks over their notes and every task in words; on a phone it does not run off the
// side.
func TestSheetsPrintOnOnePage(t *testing.T) {
	p := atWork(t)
	everybody := []string{"Wren", "Tobias", "Saoirse", "Emil", "Priya", "Nikolai", "Mei-Lin", "Idris", "Freya", "Luca", "Zuri", "Anselm", "Hyacinth", "Walter"}
	for i, name := range full.Or([]string{"Wren", "Tobias", "Nikolai"}, everybody) {
		id := p.student(name)
		tasks, pieces := tasksOf(p, id)
		p.goTo("/students/" + id + "/week")
		p.sees(name + "'s week")
		for _, as := range []printing{printings[i%len(printings)], printings[(i+1)%len(printings)]} { // each for two students, with everybody for nine or ten
			what := name + " on " + as.name
			p.press(as.paper)
			drawn := pieces
			if as.large {
				p.press(said("week.largePrint"))
				drawn = min(drawn, "1") // large letters leave room for those of one piece
			}
			p.until("document.querySelectorAll('[aria-label=\"What is built this week\"] figure g.bands').length === "+drawn, what+": brackets stand over the notes")
			pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
			require.NoError(t, err)
			if dir := os.Getenv("LADDER_PAGES"); dir != "" { // to be looked at
				require.NoError(t, os.WriteFile(filepath.Join(dir, what+".pdf"), pdf, 0o644))
			}
			assert.Equal(t, 1, pages(t, pdf), what)
			assert.Contains(t, string(pdf), "/MediaBox [0 0 "+as.size+"]", what)
			text := spaces.ReplaceAllString(pdfText(t, pdf), "")
			assert.NotContains(t, text, "Printthesheet", "the screen's own buttons stay off the paper")
			for _, task := range tasks {
				assert.True(t, strings.Contains(text, task), "%s does not say %s", what, task)
			}
			if as.large {
				p.press(said("week.largePrint"))
			}
		}
	}
	p.do(chromedp.EmulateViewport(390, 844))
	p.goTo("/students/" + p.student("Tobias") + "/week")
	p.sees(said("week.sWeek", "firstName", "Tobias"))
	assert.LessOrEqual(t, eval[int](p, "document.documentElement.scrollWidth"), 390)
}

var spaces = regexp.MustCompile(`\s+`)

// tasksOf is what each task of a student's sheet has to say on paper, without
// spaces, so that a line that is broken reads as one; and how many pieces are drawn.
func tasksOf(p *page, id string) (tasks []string, pieces string) {
	told := evalAsync(p, `fetch('/api/students/`+id+`/week').then(r => r.json()).then(w => [w.chunks.length, ...w.sheet.days.flatMap(d => d.tasks.flatMap(t =>
		[t.do ?? t.title, ...(t.band === 'now' ? [t.says.place] : [])]))].join('\n'))`)
	list := strings.Split(told, "\n")
	for _, line := range list[1:] {
		tasks = append(tasks, spaces.ReplaceAllString(line, ""))
	}
	return tasks, list[0]
}

// All sheets of a day print one after another, each on its page.
func TestPrintingAllOfADay(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	for _, name := range []string{"Anselm", "Wren"} {
		p.closeLesson(p.student(name))
	}
	p.goTo("/sheets")
	p.sees("2 of 4 lessons finished")
	p.until("document.querySelectorAll('[data-testid=sheet]').length === 2", "both sheets stand ready")
	pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
	require.NoError(t, err)
	assert.Equal(t, 2, pages(t, pdf))
	text := pdfText(t, pdf)
	assert.Less(t, strings.Index(text, "Anselm's week"), strings.Index(text, "Wren's week"))
}
