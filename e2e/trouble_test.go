package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// told returns how many facts of each kind stand in a student's record, those
// taken back left out.
func told(p *page, student string) map[string]int {
	text := evalAsync(p, "fetch('/api/students/"+student+"/record?most=50000').then(r => r.text())")
	var view struct {
		Entries []struct {
			Fact struct{ Body struct{ Kind string } }
			Back bool
		}
	}
	require.NoError(p.t, json.Unmarshal([]byte(text), &view))
	n := map[string]int{}
	for _, e := range view.Entries {
		if !e.Back {
			n[e.Fact.Body.Kind]++
		}
	}
	return n
}

// The network drops in the middle of a lesson: the marks are kept, said to be
// kept, and sent once when it is back.
func TestTheNetworkDropsInMidLesson(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("lesson.startLesson"))
	before := told(p, emil)
	p.key("b")
	p.sees(said("lesson.finishLesson"))
	p.until("!document.body.innerText.includes('kept here') && Object.keys(localStorage).every(k => !k.startsWith('ladder.mark'))", "the lesson is begun for the studio too")
	s.unplug()
	p.press("Lamp Room")
	p.sees(said("lesson.reached", "name", "Bow hold"))
	p.key("s")
	p.sees(said("parts.marksKeptDevice", "pending", "1"))
	p.sees("The studio's server cannot be reached.")
	time.Sleep(800 * time.Millisecond) // longer than a double touch
	p.key("s")
	p.key(kb.Enter)
	p.sees("notes kept on this device.")
	assert.Contains(t, eval[string](p, "document.querySelector('section[aria-label=\"Noted today\"]').innerText"), "kept here")
	p.until("[...document.querySelectorAll('button')].some(b => b.innerText.includes('Bow hold') && b.innerText.includes('reached'))", "the mark shows at once")

	s.plug()
	p.until("!document.querySelector('[data-testid=waiting]')", "the marks were sent")
	p.until("!document.body.innerText.includes('kept here')", "and the studio has them")
	after := told(p, emil)
	assert.Equal(t, before["point_marked"]+1, after["point_marked"])
	assert.Equal(t, before["spot_drilled"]+2, after["spot_drilled"])

	// A mark made offline survives the tab: a new tab of the profile sends it.
	s.unplug()
	p.key("y")
	p.sees("kept on this device")
	s.plug()
	p.goTo("/students/" + emil + "/lesson")
	p.until("!document.querySelector('[data-testid=waiting]')", "sent after a reload")
}

// The database stops: a plain sentence, and all is well when it is back.
func TestTheServerSaysThatTheDatabaseIsAway(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	s.store.Close()
	p.goTo("/shelf")
	p.sees(said("parts.pageCannotShownJustNow"))
}

// An impatient hand: everything twice, and each thing happens once.
func TestDoubleClicks(t *testing.T) {
	p := atWork(t)
	tobias := p.student("Tobias")
	before := told(p, tobias)

	p.goTo("/items/folk-sakura")
	p.until("document.querySelector('aside select')", "the place form")
	p.pick(said("item.readFor"), "Tobias")
	p.sees(said("item.newFor", "name", "Tobias"))
	p.pressTwice(said("item.startNow"))
	p.sees("On Tobias's ladder")

	p.goTo("/students/" + tobias + "/lesson")
	p.sees(said("hours.thePlan"))
	p.pressTwice(said("lesson.startLesson"))
	p.sees(said("lesson.finishLesson"))
	p.press("Sakura")
	p.pressTwice(said("lesson.taughtToday"))
	p.sees("Sakura " + said("parts.hadLesson"))
	p.pressTwice(said("lesson.markLearnt2"))
	p.sees(spoken("reason.foothold", "title", "Sakura"))
	p.press("Ferry Whistle")
	p.pressTwice("Tricky spot bar 4")
	p.sees(said("lesson.inARow", "spotGoal", "4"))
	p.pressTwice(said("lesson.reached", "name", "Fingering"))
	p.sees(said("lesson.reached", "name", "Fingering"))
	p.pressTwice(said("lesson.finishLesson"))
	p.sees(said("lesson.whatChanged"))
	p.until("!document.body.innerText.includes('kept here')", "all is sent")

	after := told(p, tobias)
	for _, kind := range []string{"rung_added", "lesson_opened", "taught", "foothold_tried", "spot_drilled", "point_marked", "lesson_closed"} {
		assert.Equal(t, before[kind]+1, after[kind], kind)
	}

	p.goTo("/studio")
	p.fill("firstName", "Nell")
	p.fill("birthYear", "2018")
	p.pressTwice(said("studio.takeOn"))
	p.sees("Nell")
	assert.Equal(t, "16", evalAsync(p, "fetch('/api/day').then(r => r.json()).then(d => String(d.students.length))"))
}

// A line that gets slow in the lesson: what was told later stays later.
func TestASlowLineKeepsTheOrder(t *testing.T) {
	full.Only(t, "TestAnAfternoonWithoutAConnection")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	p.goTo("/items/folk-sakura")
	p.pick(said("item.readFor"), "Tobias")
	p.press(said("item.startNow"))
	p.sees("On Tobias's ladder")
	p.goTo("/students/" + p.student("Tobias") + "/lesson")
	p.sees(said("hours.thePlan"))
	days := "performance.getEntriesByType('resource').filter(e => e.name.endsWith('/api/day')).length"
	before := eval[int](p, days)
	s.lag.Store(int64(3 * time.Second))
	p.press(said("lesson.startLesson"))
	p.press("Sakura")
	time.Sleep(2 * time.Second) // so that less time goes by between the two marks than the line is slow
	p.press(said("lesson.taughtToday"))
	p.until(fmt.Sprintf("%s > %d", days, before), "the day came, late")
	s.lag.Store(0)
	p.press(said("lesson.markLearnt2"))
	p.sees(spoken("reason.foothold", "title", "Sakura"))
}

// Two tabs: a mark in one shows in the other, and both keep their own.
func TestTwoTabs(t *testing.T) {
	s := newSite(t, true)
	a, b := open(t, s.URL, 1280, 800), open(t, s.URL, 1280, 800)
	a.signIn()
	b.signIn()
	emil := a.student("Emil")
	for _, p := range []*page{a, b} {
		p.goTo("/students/" + emil + "/lesson")
		p.sees(said("hours.thePlan"))
	}
	a.key("b")
	a.sees(said("lesson.finishLesson"))
	b.goTo("/students/" + emil + "/lesson")
	b.sees(said("lesson.finishLesson"))
	a.press("Lamp Room")
	b.press("Skye boat tune")
	a.key("s")
	b.key("s")
	a.goTo("/students/" + emil + "/lesson")
	a.sees("Lamp Room spot bar 11: 4 in a row")
	a.sees("Skye boat tune spot bar 5: 4 in a row")
}

// A new teacher opens a studio and is led to the first step on every screen.
func TestANewStudio(t *testing.T) {
	full.Only(t, "TestTheFirstTenMinutes")
	s := newSite(t, false)
	p := open(t, s.URL, 1280, 800)
	p.goTo("/")
	p.press(said("signin.iAmNewHere"))
	p.fill("name", "Ingrid Vale")
	p.fill("studio", "Attic Strings")
	p.fill("email", "ingrid@attic.example")
	p.fill("password", "short")
	p.fill("password", "a long enough one")
	p.key(kb.Enter)
	p.sees(said("today.noStudentsYet"))
	p.fill("firstName", "Una")
	p.fill("birthYear", "2017")
	p.press(said("studio.takeOn"))
	p.sees(said("ladder.rungsWillStandHereChoose"))
	p.press(said("ladder.placePiece"))
	p.sees(said("ladder.nothingLeftShelfImportScore") + " piano.")
	p.key(kb.Escape)
	p.press(said("parts.practiceSheet"))
	p.sees(said("week.noPracticeSheetYet"))
	p.press(said("parts.progress"))
	p.sees(said("record.firstLearntPieceWillAppear"))

	// with the books that come along, a ladder stands at once
	p.press(said("parts.studio"))
	p.sees(said("shelf.shelfEmptyBeginWithBooks"))
	p.press(said("shelf.putThemShelf"))
	p.sees("Tidelines: Shore")
	takeOn := func(name, instrument, book, first string) {
		p.fill("firstName", name)
		p.fill("birthYear", "2018")
		choose(p, "[name=instrument]", instrument)
		p.press(book)
		p.sees(said("studio.firstPieces"))
		p.sees(first)
		p.press(said("studio.takeOn"))
		p.sees(name)
		p.until("document.querySelectorAll('ol[aria-labelledby=lane-book] li b').length >= 4", "a ladder of some rungs")
		titles := lane(p)
		assert.Equal(t, first, titles[len(titles)-1], "begins at the foot of the book")
		p.sees("Start " + first)
		p.press(said("parts.studio"))
	}
	takeOn("Nell", "piano", "Tidelines: Shore", "Rope Walk")
	takeOn("Joss", "cello", "Under the Bow 1", "Open Water Bows")
	p.press(said("studio.signOut"))
	p.sees(said("signin.signIn"))
	p.fill("email", "ingrid@attic.example")
	p.fill("password", "the wrong one!")
	p.key(kb.Enter)
	p.sees("The email address or the password is wrong.")
}

// axe checks a page (WCAG 2.2 AA rules included) by name.
func (p *page) axe(name string) {
	p.t.Helper()
	p.checks(name, "['wcag2a','wcag2aa','wcag21a','wcag21aa','wcag22aa','best-practice']")
}

// contrast asks axe only for what changes with the colours.
func (p *page) contrast(name string) {
	p.t.Helper()
	p.checks(name, "{type: 'rule', values: ['color-contrast','link-in-text-block']}")
}

func (p *page) checks(name, only string) {
	p.t.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(p.t, err)
	time.Sleep(200 * time.Millisecond)
	eval[bool](p, string(axe)+"; true")
	found := evalAsync(p, `axe.run(document, {runOnly: `+only+`}).then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.html.slice(0, 150) + ' ' + (n.any[0]?.message ?? '')).slice(0, 3).join(' | ')).join('\n'))`)
	assert.Empty(p.t, strings.TrimSpace(found), name)
}

// A screen is one of the app, and a text by which it is known to be there.
type screen struct{ path, sees string }

// screensOf are those of a teacher, with a student's.
func screensOf(student string) []screen {
	return []screen{
		{"/students/" + student + "/ladder", "Cooper's Jig"}, {"/students/" + student + "/lesson", "The plan"}, {"/students/" + student + "/week", "Print the sheet"},
		{"/students/" + student + "/record", "Everything noted"}, {"/students/" + student + "/settings", "Days of practice"}, {"/shelf", "Under the Bow 1"}, {"/workbench?student=" + student, "Save these numbers"},
		{"/calendar", "The teaching week"}, {"/sheets", "Sheets of"}, {"/studio", "New student"}, {"/studio/today", "To have ready"}, {"/studio/students", "To order or print"}, {"/studio/term", "at a glance"}, {"/studio/account", "Sign-ins"},
		{"/students/" + student + "/placement", "The first question"}, {"/students/" + student + "/report", "A draft from your notes"}, {"/take-over", "Nobody added yet"},
		{"/workbench/exercises?exercise=cross%203:2", "The way there"}, {"/workbench/listen?student=" + student, "Checked by playing it"}, {"/workbench/hours", "Choose who comes"},
		{"/studio/reports", "compares a student with their own past only"}, {"/studio/dates", "Concert at the Ferry House"},
	}
}

// hearsViolations keeps what the policy of a page's origin forbids and the page does, in window.broken.
func (p *page) hearsViolations() {
	const listen = `window.broken = []; document.addEventListener('securitypolicyviolation', e => window.broken.push(e.violatedDirective + ' ' + e.sourceFile + ' ' + e.blockedURI))`
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: listen})
	require.NoError(p.t, err)
}

// No page does what the policy of its origin forbids: no script and no style but the app's own.
func TestNoPageBreaksItsPolicy(t *testing.T) {
	full.Only(t, "TestEveryTextComesFromTheCatalogue")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	unbroken := func(p *page, what string) { assert.Empty(t, eval[[]string](p, "window.broken"), what) }
	p.hearsViolations()
	p.signIn()
	tobias := p.student("Tobias")
	for _, c := range screensOf(p.student("Emil")) {
		p.goTo(c.path)
		p.sees(c.sees)
		unbroken(p, c.path)
	}
	p.goTo("/items/shore-lights")
	p.until(scoreDrawn, "the score is drawn")
	unbroken(p, "a score")
	assert.NotEmpty(t, eval[string](p, `getComputedStyle(document.querySelector('.score svg g.mNum') ?? document.querySelector('.score svg')).fontStyle`))
	p.goTo("/students/" + tobias + "/week")
	p.until("document.querySelectorAll('[aria-label=\"What is built this week\"] figure').length > 0", "notes of the sheet")
	unbroken(p, "a sheet with its notes")
	p.setClock("2026-11-18T17:10:00Z")
	p.closeLesson(tobias)
	p.setClock("2026-11-19T16:00:00Z") // the day after the lesson
	phone := open(t, s.URL, 390, 844)
	phone.hearsViolations()
	phone.goTo(evalAsync(p, `fetch('/api/students/`+tobias+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`))
	phone.sees(said("family.sPractice", "firstName", "Tobias"))
	phone.press(said("family.seeNotes"))
	phone.until("document.querySelector('.light svg .abcjs-note')", "the notes are drawn")
	unbroken(phone, "the family's page with notes")
}

// The screens pass in the dark too, where each colour is another; with a palette of the
// reader's own, what is met differs from what is open.
func TestAccessibilityInOtherColours(t *testing.T) {
	full.Only(t, "TestAccessibility in light colours")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	media := func(name, value string) {
		_, err := chromedp.Call(p.ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: name, Value: value}}})
		require.NoError(t, err)
	}
	media("prefers-color-scheme", "dark")
	p.signIn()
	emil := p.student("Emil")
	screens := screensOf(emil)
	for _, c := range full.Or(screens[:6], screens) {
		p.goTo(c.path)
		p.sees(c.sees)
		p.contrast(c.path + " in the dark")
	}
	media("forced-colors", "active")
	luca := p.student("Luca")
	for _, c := range screensOf(luca)[1:4] {
		p.goTo(c.path)
		p.sees(c.sees)
		p.contrast(c.path + " in forced colours")
	}
	p.goTo("/students/" + luca + "/ladder")
	p.sees(said("ladder.suggestions"))
	colour := func(of string) string {
		return eval[string](p, `getComputedStyle(document.querySelector('`+of+`')).backgroundColor`)
	}
	assert.NotEqual(t, colour("span.rounded-full.bg-now"), colour("span.rounded-full.bg-raised"), "a point that is met, and one that is open")
	assert.NotEqual(t, colour(".h-0\\\\.5.bg-now"), colour("main"), "the line of now")

	media("prefers-color-scheme", "dark")
	p.goTo(evalAsync(p, `fetch('/api/students/`+emil+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`))
	p.sees(said("family.sPractice", "firstName", "Emil"))
	eval[bool](p, `(document.querySelector('[data-testid=family] input[type=checkbox]').click(), true)`)
	p.contrast("the family's page in the dark")
}

// At four times the size, which leaves 320 pixels, nothing has to be scrolled sideways (WCAG
// 2.2, 1.4.10); the ladder and the sheet are pictures to scale and scroll in themselves.
func TestNothingIsScrolledSideways(t *testing.T) {
	full.Only(t, "TestEveryTextComesFromTheCatalogue, with longer texts")
	s := newSite(t, true)
	p := open(t, s.URL, 320, 640)
	p.signIn()
	for _, c := range screensOf(p.student("Emil")) {
		p.goTo(c.path)
		p.sees(c.sees)
		wide := eval[int](p, "document.documentElement.scrollWidth")
		assert.LessOrEqual(t, wide, 320, "%s: %s", c.path, eval[string](p, `[...document.querySelectorAll('body *')].filter(e => e.getBoundingClientRect().right > 321 && getComputedStyle(e).position !== 'absolute' && !e.closest('.overflow-x-auto')).slice(-4).map(e => e.outerHTML.slice(0, 160)).join(' | ')`))
	}
}

// What is touched in a lesson is large enough for a finger, on a tablet beside the instrument.
func TestTouchTargetsOfALesson(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 820, 1180)
	p.signIn()
	p.begins(p.student("Emil"))
	_, err := chromedp.Call(p.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	p.key(kb.ArrowDown)
	p.key(kb.ArrowDown)
	p.key(kb.ArrowDown)
	p.sees(said("lesson.reached", "name", "Bow hold"))
	small := eval[string](p, `[...document.querySelectorAll('main button')].filter(b => !b.closest('nav')).map(b => [b.getBoundingClientRect(), b]).filter(([r]) => r.width > 0 && r.height < 43.5).map(([r, b]) => Math.round(r.height) + ' ' + b.innerText.replace(/\s+/g, ' ')).join('\n')`)
	assert.Empty(t, small, "lower than 44 pixels")
}

// Every screen passes axe's checks, light and by keyboard: the first touch of the
// lesson is reached by keys alone.
func TestAccessibility(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	check := p.axe
	p.goTo("/sign-in")
	p.sees(said("signin.signIn"))
	check("sign-in")
	p.signIn()
	emil := p.student("Emil")
	screens := screensOf(emil)
	lesson := screens[1]
	all := append(slices.Delete(slices.Clone(screens), 1, 2), screen{"/items/bow-jig", "Hear it"}, screen{"/items/low-six", "Hear it"}, screen{"/items/shore-lights", "Hear it"},
		screen{"/shelf/type", "Type a tune"}, screen{"/activities", "117 activities"})
	some := []screen{screens[0], screens[2], screens[4], {"/items/shore-lights", "Hear it"}} // rungs, a sheet, a form, a score
	for _, c := range append(full.Or(some, all), lesson) {
		p.goTo(c.path)
		p.sees(c.sees)
		check(c.path)
	}
	p.key("b")
	p.sees(said("lesson.finishLesson"))
	for range 3 {
		p.key(kb.ArrowDown)
	}
	p.sees(said("lesson.reached", "name", "Bow hold"))
	p.key("q")
	p.sees(said("lesson.tryThis"))
	check("lesson in progress")
	p.press(evalAsync(p, "fetch('/api/students/"+emil+"/lesson').then(r => r.json()).then(v => v.plan.blocks.find(b => b.kind === 'close').title)"))
	p.sees(said("activities.exitTest2"))
	check("a game")
	p.key("c")
	p.sees(said("lesson.whatChanged"))
	check("lesson finished")
	p.goTo("/students/" + emil + "/week")
	p.press(said("week.sendSheet"))
	p.sees(said("week.sentTo") + " castellano@homes.example")
	p.goTo("/mailbox")
	p.sees(said("mailbox.plainText"))
	check("the mailbox")
	p.goTo("/students/" + emil + "/week")
	p.press(said("week.makeLink2"))
	p.sees(said("week.copyLink"))
	check("the week with a link open")
	p.goTo(strings.TrimPrefix(eval[string](p, `document.querySelector('[name=family-link]').value`), s.URL))
	p.sees(said("family.sPractice", "firstName", "Emil"))
	p.press(said("family.hearIt"))
	p.press(said("family.countTowardsSomethingIfLike"))
	check("the family's page")
}

// choose sets a select as a person does.
func choose(p *page, selector, value string) {
	p.t.Helper()
	eval[bool](p, fmt.Sprintf(`(() => { const s = document.querySelector(%q); const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set;
		set.call(s, %q); s.dispatchEvent(new Event('change', {bubbles: true})); return true })()`, selector, value))
}
