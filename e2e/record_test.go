package e2e

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A term's report: drafted from what was told, reworded, kept, mailed and found again; then those of
// all students in one go.
func TestATermsReport(t *testing.T) {
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/record")
	p.sees("lessons given")
	p.press("Term report")
	p.sees("A draft from what was told")
	learnt := eval[string](p, "document.querySelector('[name=learnt]').value")
	assert.Contains(t, learnt, "Emil has had 9 lessons and finished 6 things: “Coil of Rope”")
	assert.NotContains(t, eval[string](p, "document.body.innerText"), "Send the report", "a draft is not sent")
	p.overwrite("document.querySelector('[name=word]')", "Emil plays with a tone to listen to.")
	p.press("Keep the report")
	p.sees("Kept 1 time")
	p.press("Send the report")
	p.sees("Sent to")
	p.goTo("/mailbox")
	p.sees("Emil: autumn")
	p.goTo("/students/" + emil + "/report")
	p.until("document.querySelector('[name=word]')?.value === 'Emil plays with a tone to listen to.'", "it is found again as it was kept")
	p.overwrite("document.querySelector('[name=word]')", "Emil plays with a warm tone.")
	p.press("Keep the report")
	p.sees("Kept 2 times")
	p.press("As drafted from the facts of now")
	p.until("document.querySelector('[name=word]').value === ''", "the draft is back")

	p.press("All reports of the term")
	p.sees("nobody is held against another")
	p.press("Keep ")
	p.until("[...document.querySelectorAll('main li')].every(li => !li.innerText.includes('a draft'))", "all drafts are kept")
	p.press("Send ")
	p.until("[...document.querySelectorAll('main li')].filter(li => li.innerText.includes('Sent to')).length > 3", "they go out in one go")
	pages := evalAsync(p, "fetch(document.querySelector('a[download]').getAttribute('href')).then(async r => r.headers.get('content-type') + ' ' + ((await r.text()).match(/\\/Type \\/Page\\b/g) || []).length)")
	rows := eval[float64](p, "document.querySelectorAll('main li').length")
	assert.Equal(t, "application/pdf "+strconv.Itoa(int(rows)), pages, "a page each")
}

// The year as pictures leads to lessons and sheets.
func TestTheYearLeadsToItsLessons(t *testing.T) {
	p := atWork(t)
	p.goTo("/students/" + p.student("Emil") + "/record")
	p.sees("footholds")
	p.until("document.querySelectorAll('main figure svg a').length > 30", "lessons and sheets stand in the picture")
	p.press("In words, week by week")
	p.sees("practised")
	eval[bool](p, "(document.querySelector('main figure svg a[aria-label^=\"Lesson of\"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true})), true)")
	p.until("location.pathname.endsWith('/lesson') && location.search.includes('day=')", "a lesson is opened")
}
