package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A family on its phone: ticks, loses the connection, ticks on, opens the page
// anew without it, and the teacher sees all when it is back.
func TestAFamilyTicksItsWeek(t *testing.T) {
	s := newSite(t, true)
	teacher := open(t, s.URL, 1280, 800)
	teacher.signIn()
	tobias := teacher.student("Tobias")
	teacher.goTo("/students/" + tobias + "/week")
	teacher.press("Make a link")
	teacher.sees("Copy the link")
	link := eval[string](teacher, `document.querySelector('[name=family-link]').value`)
	path := strings.TrimPrefix(link, s.URL)
	assert.True(t, strings.HasPrefix(path, "/family/"), link)

	phone := open(t, s.URL, 390, 844)
	phone.goTo(path)
	phone.sees("Tobias's practice")
	assert.LessOrEqual(t, eval[int](phone, "document.documentElement.scrollWidth"), 390, "nothing to scroll sideways")
	tick := func(n int) {
		phone.until(fmt.Sprintf(`document.querySelectorAll('[data-testid=family] input[type=checkbox]').length > %d`, n), "a task to tick")
		eval[bool](phone, fmt.Sprintf(`(document.querySelectorAll('[data-testid=family] input[type=checkbox]')[%d].click(), true)`, n))
	}
	ticked := func() int {
		return eval[int](phone, `document.querySelectorAll('[data-testid=family] input:checked').length`)
	}
	tick(0)
	phone.until(`document.querySelectorAll('[data-testid=family] input:checked').length === 1`, "one tick")
	phone.until(`Object.keys(localStorage).every(k => !k.startsWith('ladder.mark.'))`, "it was sent")
	phone.until(`navigator.serviceWorker.controller?.state === 'activated'`, "the page is kept")

	s.unplug()
	tick(1)
	phone.sees("No connection just now")
	phone.goTo(path)
	phone.sees("Tobias's practice")
	assert.Equal(t, 2, ticked(), "kept through a cold start without a connection")
	s.plug()
	phone.until(`Object.keys(localStorage).every(k => !k.startsWith('ladder.mark.'))`, "all was sent")
	phone.press("fun")
	phone.until(`document.querySelectorAll('[data-testid=family] button[aria-pressed=true]').length === 2`, "the day and the feeling are chosen, and no minutes that nobody told")
	phone.fill("question", "May he play it for his aunt?")
	phone.press("Ask")
	phone.sees("Noted for the lesson")
	phone.until(`Object.keys(localStorage).every(k => !k.startsWith('ladder.mark.'))`, "all was sent")

	teacher.goTo("/students/" + tobias + "/week")
	teacher.until(`document.querySelectorAll('[data-testid=sheet] table [aria-label=done]').length === 2`, "both ticks on the desk")
	teacher.goTo("/students/" + tobias + "/lesson")
	teacher.sees("May he play it for his aunt?")
	teacher.goTo("/students/" + tobias + "/week")
	teacher.press("End it")
	teacher.until(`!document.body.innerText.includes('open now')`, "no link is open")
	phone.goTo(path)
	phone.sees("Your teacher has ended this link")
	var facts []string
	assert.NoError(t, json.Unmarshal([]byte(eval[string](phone, `JSON.stringify(Object.keys(localStorage).filter(k => k.startsWith('ladder.mark.')))`)), &facts))
	assert.Empty(t, facts)
}
