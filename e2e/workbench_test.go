package e2e

import (
	"fmt"
	"testing"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// slide sets a slider of the simulated keyboard.
func (p *page) slide(name, value string) {
	p.t.Helper()
	p.overwrite(fmt.Sprintf(`[...document.querySelectorAll('label')].find(l => l.innerText.startsWith(%q))?.querySelector('input[type=range]')`, name), value)
}

// The simulated keyboard lopes, the app says so; its thumb is too strong, the app names it; both mended,
// it says even. A take is kept, and followed on the record.
func TestHowEvenItWas(t *testing.T) {
	p := atWork(t)
	nikolai := p.student("Nikolai")
	p.goTo("/workbench/exercises?student=" + nikolai + "&exercise=roll%20pima")
	p.press(said("parts.simulatedKeyboard"))
	p.slide("Uneven pairs", "1.3")
	p.press(said("parts.letPlay"))
	p.sees(spoken("reason.take-lope", "ratio", "1.30"))
	p.sees(spoken("reason.think-lope"))
	p.slide("Uneven pairs", "1")
	p.slide("Thumb", "20")
	p.press(said("parts.letPlay"))
	p.sees("The thumb is too strong, by 20 of 127 over the others.")
	p.sees(said("parts.takeBefore", "says", "Uneven pairs"))
	p.look("play-in")
	p.slide("Thumb", "0")
	p.press(said("parts.letPlay"))
	p.sees(spoken("reason.take-even"))
	before := told(p, nikolai)["played_in"]
	p.press(said("parts.saveSProgress", "student", "Nikolai"))
	p.sees(said("parts.savedSProgress", "student", "Nikolai"))
	p.until(fmt.Sprintf("fetch('/api/students/%s/record').then(r => r.json()).then(r => window.kept = r.entries.filter(e => e.fact.body.kind === 'played_in').length) && window.kept === %d", nikolai, before+1), "the take is kept")

	// his thumb over three weeks
	p.goTo("/students/" + nikolai + "/record")
	p.sees("thumb, strength over the others")
	values := eval[[]string](p, `[...document.querySelectorAll('[aria-label="Played in"] li ol')].flatMap(ol => [...ol.querySelectorAll('b')].map(b => b.innerText))`)
	require.GreaterOrEqual(t, len(values), 3)
	assert.Contains(t, values, "+11")
	p.goTo("/students/" + nikolai + "/week")
	p.sees(spoken("sheet.think-strong", "finger", "1"))
}

// A keyboard that is plugged in is heard by Web MIDI; one that is not says so.
func TestAKeyboardThatIsPluggedIn(t *testing.T) {
	full.Only(t, "TestHowEvenItWas")
	p := atWork(t)
	p.goTo("/workbench/exercises?exercise=five%20C%20right")
	p.press(said("parts.aKeyboard"))
	eval[bool](p, `(navigator.requestMIDIAccess = async () => ({inputs: new Map()}), true)`)
	p.press(said("family.begin"))
	p.sees(said("parts.noKeyboardConnectedPlugOne"))
	eval[bool](p, `(window.fake = {}, navigator.requestMIDIAccess = async () => ({inputs: new Map([['a', window.fake]])}), true)`)
	p.press(said("parts.thatWasIt"))
	p.press(said("family.begin"))
	p.until("!!window.fake.onmidimessage", "the keyboard is listened to")
	keys := eval[[]int](p, `window.keys = [60, 62, 64, 65, 67, 65, 64, 62, 60]`)
	require.Len(t, keys, 9)
	eval[bool](p, `(() => { const t = performance.now() + 50; window.keys.forEach((k, i) => { window.fake.onmidimessage({data: [0x90, k, 64], timeStamp: t + 400 * i}); window.fake.onmidimessage({data: [0x80, k, 0], timeStamp: t + 400 * i + 300}) }); return true })()`)
	p.sees(said("parts.soFar", "count", "9"))
	p.press(said("parts.thatWasIt"))
	p.until("!!document.querySelector('[data-testid=take]')", "it is measured")
	p.sees("9 of 9")
}

// tapOut taps times with keys of the computer, in milliseconds from now, as exactly as the page's clock.
func (p *page) tapOut(taps string) {
	p.t.Helper()
	eval[bool](p, `(() => {
		const taps = `+taps+`.sort((a, b) => a[0] - b[0]);
		const begin = performance.now() + 100;
		for (const [at, key] of taps) {
			while (performance.now() < begin + at);
			window.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true, cancelable: true}));
		}
		return true;
	})()`)
}

// A cross-rhythm is tapped with two keys, step by step; the step that held is passed, and a limp is not.
func TestACrossRhythmTapped(t *testing.T) {
	full.Only(t, "TestHowEvenItWas, and the tests of core/touch")
	p := atWork(t)
	freya := p.student("Freya")
	p.goTo("/workbench/exercises?student=" + freya + "&exercise=cross%203:2")
	p.sees(said("workbench.wayThere"))
	p.press(said("family.begin"))
	p.sees("Tap it now")
	p.tapOut(`[0, 1, 2, 3].map(i => [i * 800, 'j'])`)
	p.sees(said("parts.soFar", "count", "4"))
	p.press(said("parts.thatWasIt"))
	p.until("!!document.querySelector('[data-testid=take]')", "measured")
	p.sees(said("parts.holdsOff"))
	p.look("taps")
	p.press(said("parts.saveSProgress", "student", "Freya"))
	p.sees(said("parts.savedSProgress", "student", "Freya"))
	p.press("6. Three against two, both hands")
	p.press(said("family.begin"))
	p.tapOut(`[0, 1, 2, 3].flatMap(p => [...[0, 1, 2].map(i => [p * 900 + i * 300, 'j']), [p * 900, 'f'], [p * 900 + 450, 'f']])`)
	p.sees(said("parts.soFar", "count", "20"))
	p.press(said("parts.thatWasIt"))
	p.sees(said("parts.holdsOff"))
	p.press(said("family.begin"))
	p.tapOut(`[0, 1, 2, 3].flatMap(p => [...[0, 1, 2].map(i => [p * 900 + i * 300, 'j']), [p * 900, 'f'], [p * 900 + 595, 'f']])`)
	p.sees(said("parts.soFar", "count", "20"))
	p.press(said("parts.thatWasIt"))
	p.sees(said("parts.takeBefore"))
	p.until(`!document.querySelector('[data-testid=take] [role=status]').innerText.startsWith('It holds')`, "a limp does not hold")
}

// remembers has a page keep what was asked last, so that a test can answer.
func (p *page) remembers() {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: answersJS})
	require.NoError(p.t, err)
}

const answersJS = `(() => { const was = window.fetch; window.fetch = async (...a) => { const r = await was(...a); const url = a[0].url ?? a[0]; if (String(url).includes('listening/call')) window.asked = await r.clone().json(); return r }; return true })()`

// A student listens and answers: by a word in a lesson, by taps at home on the phone.
func TestListenAndAnswer(t *testing.T) {
	full.Only(t, "the tests of core/echo")
	p := atWork(t)
	tobias := p.student("Tobias")
	p.remembers()
	p.goTo("/workbench/listen?student=" + tobias)
	p.sees(said("workbench.comesNext"))
	p.press(spoken("skill.higher-lower"))
	for i := range 9 {
		p.press([]string{"Hear the first", "The next one"}[min(i, 1)])
		p.until("document.querySelector('[data-stage=answering]') && window.asked", "it was heard")
		word := eval[string](p, "window.asked.sounds[1].key > window.asked.sounds[0].key ? 'higher' : 'lower'")
		p.key(map[string]string{"higher": "1", "lower": "2"}[word])
		p.sees("Yes: " + word + ".")
	}
	p.sees(said("parts.passed"))
	p.press(said("parts.saveRound"))
	p.until("[...document.querySelectorAll('[aria-label=\"What can be tried\"] button')].some(b => b.innerText.includes('Hearing higher or lower') && b.innerText.includes('passed'))", "it is passed")
	p.look("listen")

	path := evalAsync(p, `fetch('/api/students/`+tobias+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`)
	q := open(t, p.base, 390, 844)
	q.remembers()
	q.goTo(path)
	q.sees(said("family.earRhythmTraining"))
	q.press(said("family.begin"))
	q.pick(said("family.what"), "Quavers")
	q.press(said("parts.hearFirst"))
	q.until("!!document.querySelector('[data-stage=answering]')", "it was heard")
	q.tapOut(`window.asked.sounds.filter(s => !s.click).map(s => [(s.onset - 4) * window.asked.beat, 'j'])`)
	q.press(said("parts.thatWasIt"))
	q.sees(spoken("verdict.right"))
	q.sees("1 right in a row")
	q.press(said("parts.saveRound"))
	q.sees(said("calendar.saved"))
	p.goTo("/students/" + tobias + "/record")
	p.sees("listened and answered, Quavers: 1 of 1 right")
	wide := eval[int](q, "document.documentElement.scrollWidth")
	assert.LessOrEqual(t, wide, 390, "nothing is scrolled sideways")
}

// joins has a student come to the hour that is planned.
func (p *page) joins(name string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('form label')].find(l => l.innerText.trim().startsWith(%q))`, name)
	p.until(find+" !== undefined", name+" is there to be chosen")
	eval[bool](p, "("+find+".click(), true)")
}

// A shared hour of five: planned, given, and one good thing each marked.
func TestASharedHourOfFive(t *testing.T) {
	full.Only(t, "the tests of core/gather")
	p := atWork(t)
	p.goTo("/workbench/hours")
	p.sees(said("hours.nowThenStudentsMeetPlay"))
	p.fill("name", "Piano together")
	for _, name := range []string{"Tobias", "Saoirse", "Anselm", "Priya", "Walter"} {
		p.joins(name)
	}
	p.overwrite("document.querySelector('input[name=day]')", "2026-11-18")
	p.press(said("hours.planIt"))
	p.sees(said("hours.whoStandsWhere"))
	p.sees(said("hours.handedOn2", "title", "Rope Walk"))
	p.sees(spoken("together.hand-on-how-1"))
	p.sees(spoken("together.comes-in"))
	rounds := eval[int](p, `document.querySelectorAll('[aria-label="Handed round"] ol > li').length`)
	assert.Equal(t, 5, rounds, "five players, each passage")
	starts := eval[[]string](p, `[...document.querySelectorAll('[aria-label="Handed round"] ol > li > p')].map(e => e.innerText.split(': ')[1])`)
	assert.ElementsMatch(t, []string{"Tobias starts", "Saoirse starts", "Anselm starts", "Priya starts", "Walter starts"}, starts)
	p.look("shared-hour")
	p.press(said("hours.leaveOut", "name", "Walk it over"))
	p.until("!document.body.innerText.includes('Walk it over')", "it is left out")
	p.pick(said("hours.formOf", "name", "Tobias"), "easier")
	p.sees(spoken("together.easier-keyboard-young"))
	for i, name := range []string{"Tobias", "Saoirse", "Anselm", "Priya", "Walter"} {
		p.overwrite(fmt.Sprintf(`[...document.querySelectorAll('[aria-label=Afterwards] label')].find(l => l.innerText.startsWith(%q))?.querySelector('input')`, name), fmt.Sprintf("came in at every turn, %d", i))
	}
	p.press(said("hours.saveEachStudent"))
	p.sees(said("hours.wasGivenWhatWasGood"))
	for i, name := range []string{"Tobias", "Walter"} {
		p.goTo("/students/" + p.student(name) + "/record")
		p.sees(fmt.Sprintf("went well: came in at every turn, %d", i*4))
	}
	p.goTo("/students/" + p.student("Priya") + "/ladder")
	p.press(said("ladder.whoCouldPlayWithThese"))
	p.sees(said("ladder.withOthers"))
}
