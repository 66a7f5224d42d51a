package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// A lesson that nobody closed on its day is asked after the next morning, closed with two
// touches, and its sheet goes out with its own date.
func TestYesterdaysLessonIsClosedToday(t *testing.T) {
	full.Only(t, "TestAHalfHourByKeys, and the server's tests")
	p := atWork(t)
	emil := p.student("Emil")
	p.begins(emil)
	p.key("u")
	p.sees(said("lesson.startLesson")) // begun by mistake, taken back where it was begun
	p.begins(emil)
	p.setClock("2026-11-19T09:00:00Z")
	p.goTo("/")
	p.sees("Emil, Wed 18 Nov, started")
	p.acts = 0
	p.press("Emil, Wed 18 Nov")
	p.sees("This is the lesson of Wednesday 18 November")
	p.press(said("lesson.finishLesson"))
	p.sees(said("lesson.lessonClosed"))
	p.within(2, "a lesson of yesterday is closed")
	p.press(said("lesson.markSomethingMore"))
	p.sees(said("lesson.marksTheyAreDatedLesson"))
	p.key("e")
	p.key("forgot to say: sings at home")
	p.key(kb.Enter)
	p.sees("forgot to say")
	p.press(said("lesson.thatIsAll"))
	p.goTo("/sheets?day=2026-11-18")
	p.sees(said("week.sendSheets", "ready", "1"))
	p.acts = 0
	p.press(said("week.sendSheets", "ready", "1"))
	p.sees(said("week.sentTo"))
	p.within(1, "and its sheet sent")

	p.press("Tobias, Wed 18 Nov")
	p.press(said("lesson.cancelLesson"))
	p.press(said("lesson.cancelStudent"))
	p.sees("is cancelled by the student.")
	p.press(said("ladder.undo"))
	p.sees("Tobias, Wed 18 Nov: given?")

	freya := p.student("Freya") // whose lesson is today at 16:30
	p.goTo("/students/" + freya + "/lesson")
	p.sees(said("lesson.startLesson"))
	meilin := p.student("Mei-Lin") // tomorrow
	p.goTo("/students/" + meilin + "/lesson")
	p.acts = 0
	p.press(said("lesson.startLessonNow"))
	p.sees(said("lesson.finishLesson"))
	p.goTo("/calendar")
	p.sees(said("calendar.notDay"))
}

// Everything is two keys and a name away.
func TestFindingByOneKey(t *testing.T) {
	p := atWork(t)
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("niko")
	p.sees("Nikolai Abara, ladder")
	p.key(kb.Enter)
	p.until("location.pathname.endsWith('/ladder') && document.title.startsWith('Nikolai Abara: Ladder')", "his ladder, and its name in the tab")
	p.until("document.activeElement.closest('#content') !== null", "the focus is on the page")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.sees(said("parts.lately"))
	p.key("niko sheet")
	p.sees("Nikolai Abara, practice sheet")
	p.key(kb.Escape)
	for words, sees := range map[string]string{"skye": "Skye boat tune", "six-eight": "Six-eight time", "mailb": "Mailbox"} {
		p.key("/")
		p.until("document.querySelector('[cmdk-input]')", "the field of search")
		p.key(words)
		p.sees(sees)
		p.key(kb.Escape)
		p.until("!document.querySelector('[cmdk-input]')", "search is closed")
	}
	p.key("?")
	p.sees(said("parts.everywhere"))
	p.key(kb.Escape)
	p.key(">")
	p.sees("Thu 19 Nov")
	p.until("document.querySelector('nav[aria-label=\"Lessons on Thu 19 Nov\"]')", "tomorrow's lessons")
}

func TestTheDayAndAllStudentsLaidOut(t *testing.T) {
	full.Only(t, "TestEveryTextComesFromTheCatalogue")
	p := atWork(t)
	p.goTo("/studio/today")
	p.sees("Print 4 plans")
	p.sees(said("today.haveReady"))
	pages := eval[int](p, "document.querySelectorAll('.one-page').length")
	assert.Equal(t, 4, pages, "a page a lesson")
	assert.Contains(t, eval[string](p, "document.querySelector('.one-page').textContent"), "Anselm Boateng", "which says whose it is")
	p.press(said("ladder.later"))
	p.sees("Thursday 19 November")
	p.goTo("/studio/students")
	p.sees("Weather Glass: In week 9")
	p.press(said("parts.need-stuck"))
	p.sees(said("ladder.whatHelpsLikeliestFirst"))
}

// A term at a glance: each student beside the own term before, and two side by side.
func TestATermAtAGlance(t *testing.T) {
	full.Only(t, "TestATermsReport")
	p := atWork(t)
	p.goTo("/studio/term")
	p.sees(said("today.atAGlance", "name", "Autumn"))
	p.sees(said("today.chooseTwoStudentsSeeThem"))
	p.press("Emil")
	p.goTo("/studio/term")
	for _, name := range []string{"Mei-Lin", "Nikolai"} {
		p.do(chromedp.Click(chromedp.CSS(`input[aria-label^="` + name + `"]`)))
	}
	p.until("document.querySelectorAll('section[aria-label=\"Side by side\"] h2').length === 2", "two side by side")
	p.do(chromedp.Reload())
	p.until("document.querySelectorAll('section[aria-label=\"Side by side\"] h2').length === 2", "and the address keeps them")
	p.axe("term")
}

// What was marked for the wrong student is taken over to the right one; a note is written anew
// where it stands; and this device may say four o'clock as it likes.
func TestMarksOfTheWrongStudent(t *testing.T) {
	full.Only(t, "the tests of studio/roster")
	p := atWork(t)
	tobias, emil := p.student("Tobias"), p.student("Emil")
	p.begins(tobias)
	p.key("e")
	p.key("sang the second line by heart")
	p.key(kb.Enter)
	p.sees("sang the second line by heart")
	p.acts = 0
	p.press(said("lesson.theseAreAnotherStudents"))
	p.pick(said("lesson.whoseTheyAre"), "Emil")
	p.press("Move 2 notes") // with the beginning of the lesson
	p.sees(said("lesson.marksTakenOver"))
	p.within(4, "marks of the wrong student")
	p.goTo("/students/" + emil + "/record")
	p.sees("sang the second line by heart")
	p.acts = 0
	p.press(said("record.edit", "what", "sang the second line by heart"))
	p.overwrite("document.querySelector('[name=note]')", "sang both lines by heart")
	p.press(said("account.save"))
	p.sees("sang both lines by heart")
	p.within(2, "a note edited")
	p.goTo("/students/" + tobias + "/record")
	p.sees("pieces learnt")
	assert.NotContains(t, eval[string](p, "[...document.querySelectorAll('li')].filter(li => !li.innerText.includes('undone')).map(li => li.innerText).join()"), "by heart")

	p.goTo("/studio")
	p.press("4:30 pm")
	p.sees("4:00 pm")
	p.goTo("/calendar")
	p.sees("pm")
}

// What a teacher looks up, and what a teacher did by mistake, from a student's ladder on: each in
// few touches and keys.
func TestFewTouches(t *testing.T) {
	full.Only(t, "TestAHalfHourByKeys")
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/ladder")
	p.sees("Cooper's Jig")
	p.acts = 0

	p.press(said("parts.practiceSheet"))
	p.press(said("lesson.earlier"))
	p.until("location.search.includes('day=2026-11-04')", "the sheet before")
	p.press(said("lesson.earlier"))
	p.until("location.search.includes('day=2026-10-21')", "the sheet of three weeks ago")
	p.within(3, "what was asked three weeks ago")
	p.press(said("parts.lesson"))
	p.press(said("lesson.earlier"))
	p.sees("Landmark D and A marked as learnt")
	p.within(2, "what the last lesson was")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("skye boat")
	p.until("document.querySelector('[cmdk-item][aria-selected=true]')?.innerText.startsWith('Skye boat tune')", "the piece is found")
	p.key(kb.Enter)
	p.sees(said("item.whoPlaysWhoPlayed"))
	p.within(2, "who plays a piece")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("emil progress")
	p.sees("Emil Castellano, progress")
	p.key(kb.Enter)
	p.sees("Landmark D and A")
	p.within(2, "when a piece was reached")

	p.press(said("ladder.show"))
	p.press("Undo: Landmark D and A: marked as learnt")
	p.until("document.querySelector('button[aria-label^=\"Redo: Landmark D and A: marked as learnt\"]')", "undone")
	p.within(2, "a foothold granted by error weeks ago")
	p.press("Redo: Landmark D and A: marked as learnt")
	p.until("document.querySelector('button[aria-label^=\"Undo: Landmark D and A: marked as learnt\"]')", "it stands again")
	p.within(1, "a taking back by error")

	p.press(said("ladder.ladder"))
	p.sees("Cooper's Jig")
	p.press(lane(p)[0]) // far ahead
	p.sees(said("account.dropIt"))
	p.press(said("account.dropIt"))
	p.until("!document.body.innerText.includes('Remove it')", "off the ladder")
	p.within(3, "a placed rung is taken off")
	p.press(said("parts.settings"))
	p.fill("contact", "ana@castellano.example, leo@castellano.example")
	p.press(said("week.saveAddress"))
	p.sees(said("calendar.saved"))
	p.within(3, "a second guardian's address")
}

// A student is corrected, pauses, leaves and comes back; another is deleted for good.
func TestAStudentsStay(t *testing.T) {
	full.Only(t, "the tests of studio/roster")
	p := atWork(t)
	zuri := p.student("Zuri")
	p.goTo("/students/" + zuri + "/settings")
	p.fill("familyName", "Haddad-Lund")
	p.press(said("account.save"))
	p.sees("Zuri Haddad-Lund")
	p.within(1, "a misspelt name")
	p.press(said("settings.hasLeft", "name", "Zuri"))
	p.sees(said("settings.hasLeftEverythingNotedStays"))
	p.within(1, "a student leaves")
	p.goTo("/studio")
	p.until("[...document.querySelectorAll('section[aria-label=Left] b')].some(b => b.innerText.startsWith('Zuri'))", "listed among those who left")
	p.goTo("/students/" + zuri + "/settings")
	p.press(said("settings.isBack", "name", "Zuri"))
	p.sees(said("settings.comesEveryWeek", "name", "Zuri"))
	p.acts = 0
	p.press(said("settings.pause"))
	p.overwrite("document.querySelector('[name=until]')", "2026-12-04")
	p.press(said("settings.pauseLessons"))
	p.sees("Zuri pauses until Friday 4 December")
	p.within(2, "a student pauses")

	p.press(said("settings.deleteGood"))
	p.fill("name", "Zara")
	p.press(said("settings.deleteGood2", "name", "Zuri"))
	p.sees("Nothing was deleted")
	p.fill("name", "Zuri")
	p.press(said("settings.deleteGood2", "name", "Zuri"))
	p.sees(said("settings.deletedGoodReceiptNamesNobody"))
	p.within(3, "a student is deleted, after one slip")
	p.press(said("settings.toTheStudio"))
	p.sees("14 students")
	p.goTo("/students/" + zuri + "/record")
	p.sees(said("parts.studentNotHere"))
	p.goTo("/nowhere/at/all")
	p.sees(said("parts.thereNoSuchPage"))
}

// The lessons of today open without a connection, a reload included; what is marked waits and
// arrives; a second tab shows it at once.
func TestAnAfternoonWithoutAConnection(t *testing.T) {
	site := newSite(t, true)
	p := open(t, strings.Replace(site.URL, "127.0.0.1", "localhost", 1), 1280, 800) // workers need a name or https
	p.signIn()
	emil, tobias := p.student("Emil"), p.student("Tobias")
	p.until("navigator.serviceWorker.controller", "the worker keeps the page")
	kept := func(path string) string {
		return fmt.Sprintf("(window.found = window.found || {}, caches.open('studio-api').then(c => c.match(%q)).then(r => { window.found[%[1]q] = !!r }), window.found[%[1]q])", path)
	}
	for _, id := range []string{emil, tobias} {
		for _, place := range []string{"lesson", "ladder", "week"} {
			p.until(kept("/api/students/"+id+"/"+place), "the "+place+" is at hand")
		}
	}
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("hours.thePlan"))
	p.key("b")
	p.sees(said("lesson.finishLesson"))
	site.off.Store(true)
	p.key("e")
	p.key("liked the storm")
	p.key(kb.Enter)
	p.sees(said("lesson.likedStorm"))
	p.goTo("/students/" + emil + "/lesson") // a reload
	p.sees("No connection.")
	p.sees(said("lesson.likedStorm"))
	p.goTo("/students/" + tobias + "/lesson")
	p.sees(said("hours.thePlan"))
	p.sees("Shore Path")
	site.off.Store(false)
	p.until("!document.body.innerText.includes('No connection.')", "the connection is back")
	p.goTo("/students/" + emil + "/record")
	p.sees(said("lesson.likedStorm"))
	assert.NotContains(t, eval[string](p, "document.body.innerText"), "kept on this device")
}

// rosterOfForty is a table of forty students, twelve of them on the day of a moment.
func rosterOfForty(now time.Time) string {
	first := []string{"Alma", "Bertil", "Clementine", "Dagny", "Eskil", "Frida", "Gustava", "Halvard", "Ingeborg", "Jannike", "Kristoffer", "Linnea", "Magnus", "Nora", "Oskar", "Petronella", "Ragnhild", "Sigurd", "Tove", "Ulrik"}
	table := "First name;Family name;Born;Instrument;Day;Start;Minutes;Books\r\n"
	for i := range 40 {
		day, start := now.Weekday(), 13*60+35*i
		if i >= 12 {
			day, start = time.Weekday((int(now.Weekday())+1+i%5)%7), 14*60+35*(i/5)
		}
		table += fmt.Sprintf("%s;Dahl%c;%d-05;piano;%s;%d:%02d;30;Tidelines: Harbour\r\n", first[i%20], 'a'+i/20, now.Year()-8-i%6, day, start/60, start%60)
	}
	return table
}

// Forty students come as a table with semicolons; a day of twelve lessons can be read on its
// ribbon, and all is taken back as a whole. A book comes as a list of its titles.
func TestFortyStudentsFromATable(t *testing.T) {
	full.Only(t, "the tests of core/roster and studio/roster")
	p := open(t, newSite(t, false).URL, 1280, 800)
	p.newStudio()
	p.goTo("/studio/term")
	p.sees(said("today.whatTermBringsStudentsWill"))
	p.goTo("/studio")
	p.press(said("shelf.putThemShelf"))
	p.until("document.querySelectorAll('form[aria-label=\"New student\"] fieldset input').length > 3", "the books are on the shelf")

	table := rosterOfForty(time.Now())
	file := filepath.Join(t.TempDir(), "students.csv")
	require.NoError(t, os.WriteFile(file, []byte(table+"Olaf;Dahl;soon;piano;Monday;15:00;30;\r\n"), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="A table of students"]`), []string{file}))
	p.sees("40 new, 0 changed, 0 the same, 1 line not taken")
	p.sees(`Line 42: "soon" is not a month of birth`)
	p.press(said("studio.saveChanges", "changes", "40"))
	p.sees("40 students, by")
	p.goTo("/studio/today")
	p.sees("12 lessons")
	cut := eval[string](p, `[...document.querySelectorAll('nav[aria-label="Lessons today"] a')].filter(a => a.scrollWidth > a.clientWidth + 1).map(a => a.innerText).join(', ')`)
	assert.Empty(t, cut, "names cut on the ribbon")
	p.look("ribbon-of-twelve")
	p.goTo("/studio/students")
	p.sees(said("today.orderPrint"))
	p.goTo("/studio/term")
	p.until("document.querySelectorAll('tbody tr').length === 40", "forty students at a glance")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("ulrik dahlb")
	p.sees("Ulrik Dahlb, ladder")
	p.key(kb.Enter)
	p.until("location.pathname.endsWith('/ladder')", "his ladder")
	p.sees(said("ladder.suggestions"))

	p.goTo("/shelf")
	p.fill("listBook", "Attic songs")
	eval[bool](p, `(() => { const a = document.querySelector('[name=listTitles]'); a.focus(); return true })()`)
	p.do(chromedp.KeyEvent("First:\n1. Rope Walk\n2. Slack Water\n3. Rafters"))
	p.press(said("shelf.putTitlesShelf"))
	p.sees(said("shelf.titlesPutShelf", "items", "3"))
	p.press(said("shelf.putTitlesShelf"))
	p.sees("0 titles put on the shelf; 3 were there already")
}

// One child on two instruments: taken on for the second from the settings of the first, and both
// weeks open from one link.
func TestOneChildTwoInstruments(t *testing.T) {
	full.Only(t, "the tests of studio/roster")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/settings")
	p.acts = 0
	p.press(said("settings.playsAnotherInstrumentToo"))
	p.pick(said("parts.lessonOn"), "Monday")
	p.press(said("settings.takeOnForIt", "firstName", "Emil"))
	p.until("!location.pathname.includes('"+emil+"')", "the other instrument's settings")
	p.within(4, "a second instrument")
	p.sees("8 · piano")
	p.press(said("parts.also2", "plays", "cello"))
	p.until("location.pathname === '/students/"+emil+"/ladder'", "back on the cello")
	p.goTo(evalAsync(p, `fetch('/api/students/`+emil+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`))
	p.sees(said("family.sPractice", "firstName", "Emil"))
	p.press("piano")
	p.sees(said("family.firstPracticeSheetComesAfter"))
	p.press("cello")
	p.sees(said("family.sPractice", "firstName", "Emil"))
}
