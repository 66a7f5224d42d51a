package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/internal/full"
)

// A term's report: drafted from what was told, reworded, kept, mailed and found again; then those of
// all students in one go.
func TestATermsReport(t *testing.T) {
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/record")
	p.sees("lessons given")
	p.press(said("parts.termReport"))
	p.sees(said("record.draftFromNotesRewordEmpty"))
	learnt := eval[string](p, "document.querySelector('[name=learnt]').value")
	assert.Contains(t, learnt, "Emil had 9 lessons and learnt 6 things: “Coil of Rope”")
	assert.NotContains(t, eval[string](p, "document.body.innerText"), "Send the report", "a draft is not sent")
	p.overwrite("document.querySelector('[name=word]')", "Emil plays with a tone to listen to.")
	p.press(said("record.saveReport"))
	p.sees(said("record.savedTimesLast", "revisions", "1"))
	p.press(said("record.sendReport"))
	p.sees(said("week.sentTo"))
	p.goTo("/mailbox")
	p.sees("Emil: autumn")
	p.goTo("/students/" + emil + "/report")
	p.until("document.querySelector('[name=word]')?.value === 'Emil plays with a tone to listen to.'", "it is found again as it was kept")
	p.overwrite("document.querySelector('[name=word]')", "Emil plays with a warm tone.")
	p.press(said("record.saveReport"))
	p.sees(said("record.savedTimesLast", "revisions", "2"))
	p.press(said("record.draftedFromFactsNow"))
	p.until("document.querySelector('[name=word]').value === ''", "the draft is back")

	p.press(said("record.allReportsTerm"))
	p.sees(said("record.eachTellsOneStudentOwn"))
	p.press("Save ")
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
	p.sees(said("dates.learntState"))
	p.until("document.querySelectorAll('main figure svg a').length > 30", "lessons and sheets stand in the picture")
	p.press(said("record.wordsWeekWeek"))
	p.sees("practised")
	eval[bool](p, "(document.querySelector('main figure svg a[aria-label^=\"Lesson of\"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true})), true)")
	p.until("location.pathname.endsWith('/lesson') && location.search.includes('day=')", "a lesson is opened")
}

// The concert of 5 December: planned with four pieces in the best order, one withdrawn, one moved by
// hand, tried two weeks earlier, and its pieces have its day as their date.
func TestTheConcert(t *testing.T) {
	full.Only(t, "the tests of core/programme")
	p := atWork(t)
	p.goTo("/studio/dates")
	p.sees(said("dates.anotherDate"))
	p.fill("name", "Winter concert")
	p.overwrite("document.querySelector('[name=day]')", "2026-12-05")
	p.fill("place", "The old ticket office")
	p.press(said("dates.putDown"))
	p.sees(said("dates.chooseBesideWhatPlayed"))
	choose := func(student, piece string, n int) {
		t.Helper()
		p.until("[...document.querySelectorAll('main details summary')].some(s => s.innerText.startsWith('"+student+"'))", student+" could play")
		eval[bool](p, "([...document.querySelectorAll('main details')].find(d => d.innerText.startsWith('"+student+"')).open = true)")
		p.press(said("dates.play") + " " + piece + ", " + student)
		p.until("document.querySelectorAll('main ol > li b').length === "+strconv.Itoa(n), "it stands in the programme")
	}
	choose("Emil", "Lamp Room", 1)
	choose("Luca", "Weather Glass", 2)
	choose("Mei-Lin", "Bowsprit", 3)
	choose("Tobias", "Ferry Whistle", 4)
	p.sees(said("dates.bestOrderFound"))
	// the page stands as the server has it
	settled := func(first string) []string {
		t.Helper()
		var order string
		for range 40 {
			order = evalAsync(p, "fetch('/api' + location.pathname.replace('studio/dates', 'events')).then(r => r.json()).then(v => v.entries.map(e => e.title).join('|'))")
			shown := eval[int](p, "document.querySelectorAll('main ol > li b').length") // a touch may still be on its way
			if strings.HasPrefix(order, first) && strings.Count(order, "|")+1 == shown {
				break
			}
		}
		p.until("[...document.querySelectorAll('main ol > li b')].map(b => b.innerText).join('|') === "+strconv.Quote(order), "the page has "+order)
		return strings.Split(order, "|")
	}
	settled("")
	moves := eval[float64](p, "[...document.querySelectorAll('main ol > li')].map(li => li.innerText.includes('cello')).filter((c, i, all) => i > 0 && c !== all[i - 1]).length")
	assert.Equal(t, 1.0, moves, "the cello is moved once")
	eval[bool](p, "(e => { e.focus(); e.select(); return true })(document.querySelector('[aria-label^=\"Minutes and seconds of Lamp Room\"]'))")
	p.key("3:30")
	p.key("\t")
	p.until("document.body.innerText.includes('about 7 minutes') || document.body.innerText.includes('about 6 minutes')", "the length is put right by hand")
	p.sees("It should be learnt by 7 Nov to be performance-ready")
	p.pick(said("dates.whatIfWere"), "2 weeks earlier")
	p.sees(said("dates.ifWere"))
	p.pick(said("dates.whatIfWere"), "on its day")
	p.press(said("dates.withdraw", "title", "Weather Glass"))
	p.until("document.querySelectorAll('main ol > li b').length === 3", "it is withdrawn")
	order := settled("")
	first := order[0]
	p.press(said("dates.later") + " " + first)
	p.sees("Your order.")
	assert.Equal(t, first, settled(order[1])[1], "moved by hand")
	p.press(said("dates.putBestOrder"))
	p.sees(said("dates.bestOrderFound"))
	assert.Equal(t, order, settled(first), "the best order is back")

	p.goTo("/students/" + p.student("Emil") + "/ladder")
	p.sees("5 Dec")
	p.setClock("2026-12-06T10:00:00Z")
	p.goTo("/studio/dates")
	p.until("document.body.innerText.split('How did it go?').length === 3", "of both concerts")
	p.press(said("dates.winterConcert"))
	p.overwrite("document.querySelector('[name=went]')", "All came on, nobody stopped.")
	p.press(said("account.save"))
	p.until("document.querySelector('[name=went]').defaultValue === 'All came on, nobody stopped.'", "it stands at once")
	for went := ""; went != "All came on, nobody stopped."; { // and is kept, before the page is left
		went = evalAsync(p, "fetch('/api' + location.pathname.replace('studio/dates', 'events')).then(r => r.json()).then(v => v.event.went ?? '')")
	}
	p.goTo("/studio/dates")
	p.sees(said("dates.over"))
	p.until("document.body.innerText.split('How did it go?').length === 2", "it was told")
}

// A check-in that is due: what to talk about, what was agreed, and what came of it; numbers out as
// tables, dates and check-ins in the calendar file.
func TestACheckIn(t *testing.T) {
	full.Only(t, "the tests of studio/notes and core/report")
	p := atWork(t)
	luca := p.student("Luca")
	p.goTo("/studio/students")
	p.sees(said("today.checkInsAreDue"))
	p.goTo("/students/" + luca + "/record")
	p.sees(said("record.dueSince"))
	p.sees(spoken("reason.talk-three-way"))
	p.press(said("record.weHaveTalked"))
	p.overwrite("document.querySelector('[name=agreed]')", "Two short sittings, and a piece of his own choosing.")
	p.press(said("record.saveCheck"))
	p.sees("What became of your agreement: Two short sittings")
	p.sees(said("record.daysHomeWeekBefore"))
	p.until("!document.body.innerText.includes('Due since')", "the next is half a term ahead")
	p.goTo("/students/" + luca + "/report")
	p.until("document.querySelector('[name=home]')?.value.includes('What we agreed: Two short sittings')", "the report tells it")
	table := evalAsync(p, "fetch('/api/numbers.csv?of=facts').then(r => r.text())")
	assert.Contains(t, table, "Luca Petrosyan")
	assert.Contains(t, table, "talked")
	assert.Contains(t, evalAsync(p, "fetch('/api/numbers.csv?of=practice').then(r => r.text())"), "student,day,minutes,felt")
	assert.Contains(t, evalAsync(p, "fetch('/api/lessons.ics').then(r => r.text())"), "Check-in: Emil")
}
