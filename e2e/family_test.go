package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
	"patientladder/mail/mailbox"
)

// familyScript is the most that the scripts of the family's page weigh, compressed.
const familyScript = 90_000

// Tobias's parent opens the link from the mail on a phone: sees the day, hears a
// chunk, ticks, loses the connection, ticks on, opens the page anew without it; and
// the teacher sees all when it is back.
func TestAFamilyTicksItsWeek(t *testing.T) {
	s := newSite(t, true)
	teacher := open(t, s.URL, 1280, 800)
	teacher.signIn()
	tobias := teacher.student("Tobias")
	teacher.setClock("2026-11-18T17:10:00Z")
	teacher.closeLesson(tobias)
	teacher.goTo("/students/" + tobias + "/lesson")
	teacher.press(said("lesson.sendSheet", "contact", "lindqvist-roy@homes.example"))
	teacher.sees(said("week.sentTo") + " lindqvist-roy@homes.example")
	teacher.goTo("/mailbox")
	teacher.press(said("mailbox.plainText"))
	link := eval[string](teacher, `document.querySelector('pre a').href`)
	path := strings.TrimPrefix(link, s.URL)
	require.True(t, strings.HasPrefix(path, "/family/"), link)
	teacher.setClock("2026-11-19T16:00:00Z")

	phone := open(t, s.URL, 390, 844)
	_, err := chromedp.Call(phone.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: listen})
	require.NoError(t, err)
	phone.goTo(path)
	phone.sees(said("family.sPractice", "firstName", "Tobias"))
	phone.sees(said("family.today", "day", "Thursday 19 November"))
	assert.LessOrEqual(t, eval[int](phone, "document.documentElement.scrollWidth"), 390, "nothing to scroll sideways")
	script := eval[int](phone, `performance.getEntriesByType('resource').filter(r => r.name.endsWith('.js') && r.initiatorType !== 'serviceworker').reduce((sum, r) => sum + r.encodedBodySize, 0)`)
	assert.Less(t, script, familyScript, "bytes of compressed script")

	phone.press(said("family.hearIt"))
	phone.press(said("parts.slow"))
	phone.until("window.heard.filter(h => h[0] === 'start').length > 4", "a bar is counted in, then its notes")
	kinds := eval[[]string](phone, "window.heard.filter(h => h[0] === 'start').map(h => h[3])")
	assert.Equal(t, "square", kinds[0], "clicks first")
	assert.Equal(t, "triangle", kinds[len(kinds)-1], "then notes")
	phone.press(said("family.stopIt"))
	phone.until("window.heard.some(h => h[0] === 'close')", "the sound is ended")
	phone.sees(said("family.aloneFirst", "alone", "0"))
	phone.press(said("family.played"))
	phone.sees(said("family.aloneFirst", "alone", "1"))
	phone.press(said("family.againAgain"))
	phone.until("[...document.querySelectorAll('[aria-pressed=true]')].some(b => b.innerText === 'again and again')", "it will go round")
	phone.press(said("family.start"))
	phone.until(fmt.Sprintf("window.heard.filter(h => h[0] === 'start').length > %d", len(kinds)), "the beat clicks on")
	phone.press(said("family.stop"))

	tick := func(n int) {
		phone.until(fmt.Sprintf(`document.querySelectorAll('[data-testid=family] input[type=checkbox]').length > %d`, n), "a task to tick")
		eval[bool](phone, fmt.Sprintf(`(document.querySelectorAll('[data-testid=family] input[type=checkbox]')[%d].click(), true)`, n))
	}
	ticked := func() int {
		return eval[int](phone, `document.querySelectorAll('[data-testid=family] input:checked').length`)
	}
	allSent := `Object.keys(localStorage).every(k => !k.startsWith('ladder.mark.'))`
	tick(0)
	phone.until(`document.querySelectorAll('[data-testid=family] input:checked').length === 1`, "one tick")
	phone.until(allSent, "it was sent")
	phone.until(`navigator.serviceWorker.controller?.state === 'activated'`, "the page is kept")

	s.unplug()
	tick(1)
	phone.sees(said("family.noConnectionJustNow"))
	phone.goTo(path)
	phone.sees(said("family.sPractice", "firstName", "Tobias"))
	assert.Equal(t, 2, ticked(), "kept through a cold start without a connection")
	s.plug()
	phone.until(allSent, "all was sent")
	phone.press(said("parts.feltFun"))
	phone.until(`document.querySelectorAll('[data-testid=family] button[aria-pressed=true]').length === 9`, "the day, the feeling and the seven days of practice are chosen, and no minutes that nobody told")
	phone.fill("question", "May he play it for his aunt?")
	phone.press(said("family.ask"))
	phone.sees(said("family.notedLesson"))
	phone.until(allSent, "all was sent")

	teacher.goTo("/students/" + tobias + "/week")
	teacher.until(`document.querySelectorAll('[data-testid=sheet] table [aria-label=done]').length === 2`, "both ticks on the desk")
	teacher.goTo("/students/" + tobias + "/lesson")
	teacher.sees("May he play it for his aunt?")
	teacher.goTo("/students/" + tobias + "/week")
	teacher.press(said("account.endIt"))
	teacher.until(`!document.body.innerText.includes('open now')`, "no link is open")
	phone.goTo(path)
	phone.sees("Your teacher has ended this link")
	var facts []string
	assert.NoError(t, json.Unmarshal([]byte(eval[string](phone, `JSON.stringify(Object.keys(localStorage).filter(k => k.startsWith('ladder.mark.')))`)), &facts))
	assert.Empty(t, facts)

	teacher.goTo("/students/" + tobias + "/week")
	teacher.press(said("week.makeLink2"))
	teacher.sees(said("week.copyLink"))
	teacher.until(`document.querySelector('img[alt*="phone"]')?.naturalWidth > 0`, "the link as a picture for a camera")
	second := strings.TrimPrefix(eval[string](teacher, `document.querySelector('[name=family-link]').value`), s.URL)
	teacher.setClock("2026-12-12T10:00:00Z") // the day after the term
	phone.goTo(second)
	phone.sees("This link ended with the term")
}

// A family settles its days and counts towards a treat; the sheet follows.
func TestAFamilysOwnWeek(t *testing.T) {
	full.Only(t, "TestAFamilyTicksItsWeek")
	s := newSite(t, true)
	teacher := open(t, s.URL, 1280, 800)
	teacher.signIn()
	priya, luca := teacher.student("Priya"), teacher.student("Luca")
	link := func(student string) string {
		return evalAsync(teacher, `fetch('/api/students/`+student+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`)
	}
	phone := open(t, s.URL, 390, 844)
	phone.goTo(link(priya))
	phone.sees(said("family.ourWeek"))
	eval[bool](phone, `([...document.querySelectorAll('button')].find(b => b.textContent.endsWith('Sunday')).click(), true)`)
	phone.until(`[...document.querySelectorAll('button')].find(b => b.textContent.endsWith('Sunday')).getAttribute('aria-pressed') === 'false'`, "no Sunday")
	phone.press(said("family.countTowardsSomethingIfLike"))
	phone.fill("treat", "Chips on the pier")
	phone.press(said("family.beginCounting"))
	phone.sees("0 of 10 days practised so far")
	phone.until(`document.querySelector('[data-testid=family] input[type=checkbox]')?.closest('label')`, "a task to tick")
	eval[bool](phone, `(document.querySelector('[data-testid=family] input[type=checkbox]').click(), true)`)
	phone.sees("1 of 10 days practised so far")
	teacher.goTo("/students/" + priya + "/week")
	teacher.until(`[...document.querySelectorAll('[data-testid=sheet] thead th')].at(-1)?.innerText.includes('free')`, "Sunday is free on the sheet")
	phone.goTo(link(luca))
	phone.sees(said("family.ourWeek"))
	assert.False(t, eval[bool](phone, `document.body.innerText.includes('Count towards')`), "at fourteen nothing is counted until it is asked for")
}

// A lesson is closed and its sheet on its way in two touches; ten lessons of a day go
// out together, with what failed in a list; two touches at once send one mail.
func TestTenSheetsAtOnce(t *testing.T) {
	full.Only(t, "TestALetterThatWasSentLeaves, and the server's tests of letters")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	for i, name := range []string{"Priya", "Luca", "Hyacinth", "Idris", "Nikolai", "Saoirse", "Freya"} { // ten lessons on one day
		said := evalAsync(p, fmt.Sprintf(`(async () => {
			const of = %q, {slots} = await (await fetch('/api/calendar')).json();
			const body = {was: slots.find(s => s.student === of).slot, now: {weekday: 3, start: '%02d:00', minutes: 45}};
			return String((await fetch('/api/students/' + of + '/slot', {method: 'PUT', headers: {'Content-Type': 'application/json'}, body: JSON.stringify(body)})).status);
		})()`, p.student(name), 7+i))
		require.Equal(t, "204", said)
	}
	p.setClock("2026-11-18T18:00:00Z")
	for _, name := range []string{"Priya", "Luca", "Hyacinth", "Idris", "Nikolai", "Saoirse", "Freya", "Anselm", "Wren"} {
		p.closeLesson(p.student(name))
	}
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/lesson")
	p.press(said("lesson.startLesson"))
	p.press(said("lesson.finishLesson"))
	p.pressTwice(said("lesson.sendSheet", "contact", "castellano@homes.example"))
	p.sees(said("week.sentTo") + " castellano@homes.example")
	require.Len(t, s.box.Letters(), 1)

	p.goTo("/sheets")
	p.sees("10 of 11 lessons finished")
	p.press(said("week.sendSheets", "ready", "9"))
	p.sees("Refused at abara@refused.example, 18:00. No such mailbox here.")
	require.Len(t, s.box.Letters(), 9, "eight more, and one refused at "+mailbox.Refused)
	p.press(said("week.sendSheets", "ready", "1"))
	p.sees("Refused at abara@refused.example")
	require.Len(t, s.box.Letters(), 9)
}

// Terms, free days and lesson times are changed; what runs into what is said.
func TestTheTeachingWeek(t *testing.T) {
	full.Only(t, "the tests of core/calendar")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	p.goTo("/calendar")
	p.sees(said("calendar.teachingWeek"))
	p.press("Tobias 16:40")
	p.sees(said("calendar.sLessonTime", "name", "Tobias"))
	eval[bool](p, `(document.querySelector('[name=start]').value = '16:15', true)`)
	p.press(said("account.save"))
	p.sees("Wednesdays: Tobias at 16:15 begins before Emil has ended.")
	p.pick(said("calendar.student"), "Wren")
	p.pick(said("calendar.lessonOf"), "Wed 25 Nov")
	eval[bool](p, `(document.querySelector('[name=to]').value = '2026-11-26', document.querySelector('[name=at]').value = '15:45', true)`)
	p.press(said("calendar.noteIt"))
	p.sees("Thu 26 Nov")
	p.sees("26 November: Wren at 15:45 begins before Saoirse has ended.")
	p.press(said("calendar.addA", "one", "holiday"))
	p.press(said("calendar.saveTermsHolidays"))
	p.until(`document.querySelectorAll('[aria-label="Name of the holiday"]:invalid').length === 1`, "a free week needs a name")
	p.press(said("calendar.makeAddressFollow"))
	p.until(`document.querySelector('[name=feed]')`, "an address is shown")
	feed := eval[string](p, `document.querySelector('[name=feed]').value`)
	assert.Contains(t, evalAsync(p, `fetch('`+feed+`').then(r => r.text())`), "SUMMARY:Wren\\, piano")
}
