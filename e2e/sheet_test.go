package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// The teacher's word on a sheet: a line struck and brought back, a count changed, a line
// and a sentence of the teacher's own; each is a revision, and the family's page reads the
// same. What is struck from three sheets is no longer drafted, and can be again.
func TestTheSheetIsTheTeachers(t *testing.T) {
	p := atWork(t)
	priya := p.student("Priya")
	p.goTo("/students/" + priya + "/week")
	p.sees(said("week.changeSheet"))
	before := eval[int](p, "document.querySelectorAll('[aria-label=\"Change the sheet\"] li').length")
	p.press(said("calendar.remove", "name", "Semitones and tones"))
	p.until("document.querySelector('[aria-label=\"Change the sheet\"] .line-through')", "it says what was struck")
	p.until("![...document.querySelectorAll('[data-testid=sheet] th b')].some(b => b.innerText === 'Semitones and tones')", "it is off the sheet")
	p.press(said("shelf.bringBack2"))
	p.until("[...document.querySelectorAll('[data-testid=sheet] th b')].some(b => b.innerText === 'Semitones and tones')", "it is on the sheet again")
	assert.Equal(t, before, eval[int](p, "document.querySelectorAll('[aria-label=\"Change the sheet\"] li').length"))
	p.press(said("week.moreTimes", "title", "Twelve keys, one a week"))
	p.sees("2×")
	p.sees("2 times")
	p.press(said("week.moreOf", "title", "Harbour Wall", "says", "bars 1–4, left hand"))
	p.fill("from", "2")
	p.fill("to", "3")
	p.press("Su")
	p.press(said("account.changeIt"))
	p.sees("bars 2–3")
	p.press(said("week.pinWeeksCome"))
	p.until("document.querySelector('[aria-label=\"Change the sheet\"] [aria-pressed=true]')?.innerText === 'Pinned'", "the pin is seen")
	p.press(said("week.down", "title", "Harbour Wall", "says", "bars 2–3"))
	require.Eventually(t, func() bool { return told(p, priya)["line_moved"] == 1 && told(p, priya)["line_pinned"] == 1 }, 5*time.Second, 100*time.Millisecond)
	p.key("a")
	p.fill("text", "Draw the wall and its boats.")
	p.press(said("week.putSheet"))
	p.sees("Draw the wall and its boats.")
	p.press(said("week.addLine"))
	p.fill("find", "e flat major, tw")
	p.press("Broken chord of E flat major, two octaves")
	p.fill("text", "Only upwards.")
	p.press(said("week.putSheet"))
	p.until("[...document.querySelectorAll('[data-testid=sheet] th b')].some(b => b.innerText.startsWith('Broken chord'))", "the exercise is on the sheet")
	p.key("w")
	p.fill("text", "The left hand sang this week.")
	p.press(said("week.putSheet"))
	p.sees("The left hand sang this week.")
	require.Eventually(t, func() bool { return told(p, priya)["sheet_noted"] == 1 }, 5*time.Second, 100*time.Millisecond)
	p.goTo("/students/" + priya + "/week")
	p.sees(said("week.changedLine"))
	p.sees("The left hand sang this week.")
	p.look("sheet-edited")
	p.press(said("week.sendSheet"))
	p.sees(said("week.sentTo") + " halvorsen@homes.example")
	p.goTo("/mailbox")
	p.press(said("mailbox.plainText"))
	for _, says := range []string{"The left hand sang this week.", "Draw the wall and its boats.", "Broken chord of E flat major, two octaves", "Only upwards.", "bars 2–3"} {
		p.sees(says)
	}
	link := eval[string](p, `document.querySelector('pre a').href`)
	p.goTo(strings.TrimPrefix(link, p.base))
	for _, says := range []string{"The left hand sang this week.", "Draw the wall and its boats.", "Broken chord of E flat major, two octaves", "Only upwards."} { // mail and phone agree
		p.sees(says)
	}
	p.seeNotes("Only upwards.")
	p.until("document.querySelectorAll('.light svg .abcjs-note').length === 26", "two octaves up and down, drawn on the phone")
}

// A parent finds hand, finger and key from the page alone, what is ticked of each piece, and
// the answer of a card under a touch.
func TestAParentIsToldEnough(t *testing.T) {
	full.Only(t, "TestAFamilyTicksItsWeek")
	p := atWork(t)
	tobias := p.student("Tobias")
	p.goTo("/students/" + tobias + "/week")
	p.press(said("week.makeLink2"))
	p.sees(said("week.copyLink"))
	link := strings.TrimPrefix(eval[string](p, `document.querySelector('[name=family-link]').value`), p.base)
	p.goTo(link)
	p.press("Thu")
	for _, word := range []string{"right finger 5 on G", "between the first two of the three black keys", "just above the middle C", "How far each piece has come", "Learnt means"} {
		p.sees(word)
	}
	for _, day := range []string{"Thu", "Fri", "Sat", "Sun"} { // cards take turns with other things
		p.press(day)
		if eval[bool](p, "document.body.innerText.includes('Which landmark is it')") {
			break
		}
	}
	p.sees(spoken("sheet.card-landmark"))
	eval[bool](p, "document.querySelectorAll('details').forEach(d => { d.open = true }) ?? true")
	p.sees("C, the middle C, left of the two black keys")
	p.press(said("family.seeCards"))
	p.until("document.querySelectorAll('figure .light svg .abcjs-note').length >= 3", "what the cards show is drawn")
	p.press("Thu")
	p.seeNotes("right finger 5 on G")
	p.until("document.querySelector('.light .bracket') && document.querySelector('.light .mark')?.textContent === '5 on G'", "a bracket says where the hand begins")
	p.press("Wednesday 4 November")
	p.sees("ticked")
}

// A student of twelve holds a page of their own, without what is the family's to settle.
func TestAStudentsOwnPage(t *testing.T) {
	full.Only(t, "TestAFamilyTicksItsWeek")
	p := atWork(t)
	idris := p.student("Idris")
	p.goTo("/students/" + idris + "/week")
	p.press(said("week.makeLink", "firstName", "Idris"))
	p.until("document.querySelector('[name=own-link]')", "a link of his own")
	link := strings.TrimPrefix(eval[string](p, `document.querySelector('[name=own-link]').value`), p.base)
	p.goTo("/students/" + p.student("Tobias") + "/week")
	p.sees(said("week.familysPhone"))
	assert.False(t, eval[bool](p, "document.body.innerText.includes('Make a link for Tobias')"), "he is six")
	p.goTo(link)
	p.sees(said("family.yourPractice"))
	p.press("Thu")
	p.sees(said("family.questionLesson"))
	p.pick(said("family.beatsBar"), "first of 3")
	assert.False(t, eval[bool](p, "/Our week|Count towards/.test(document.body.innerText)"))
	p.look("family-own")
}

// seeNotes shows the notes of the line of the family's page that says something.
func (p *page) seeNotes(says string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => {
		const line = [...document.querySelectorAll('li:has(> label > input)')].find(l => l.innerText.includes(%q));
		const button = [...(line?.querySelectorAll('button') ?? [])].find(b => b.innerText.startsWith('See the notes'));
		if (button?.ariaPressed === 'false') button.click();
		return button?.ariaPressed === 'true';
	})()`, says), "the notes of "+says)
}

// Single keys can be turned off on a device (WCAG 2.2, 2.1.4): none acts and none is shown,
// and all can be done without.
func TestKeysTurnedOff(t *testing.T) {
	full.Only(t, "TestAHalfHourByKeys")
	p := atWork(t)
	priya := p.student("Priya")
	hints := `[...document.querySelectorAll('button span[aria-hidden=true]')].some(s => s.innerText === 'W')`
	p.goTo("/students/" + priya + "/week")
	p.until(hints, "the key stands on its button")
	p.goTo("/studio")
	p.press(said("studio.singleKeysActDeviceSmall"))
	p.goTo("/students/" + priya + "/week")
	p.sees(said("week.sentenceFamily"))
	assert.False(t, eval[bool](p, hints))
	p.key("w")
	assert.False(t, eval[bool](p, "!!document.querySelector('textarea')"), "the key does nothing")
	p.press(said("week.sentenceFamily"))
	p.until("document.querySelector('textarea')", "the button does")
}

// A letter waits for a moment in which it can be undone; a key that marks in a lesson sends nothing when the
// lesson is closed.
func TestALetterCanBeUndone(t *testing.T) {
	s := newSite(t, true)
	s.app.Hold = time.Hour
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	tobias := p.student("Tobias")
	p.begins(tobias)
	p.key("c")
	p.sees(said("lesson.sendSheet", "contact", "lindqvist-roy@homes.example"))
	p.key("s")
	p.key("m")
	p.sees(said("week.goingOutFewSeconds") + " lindqvist-roy@homes.example")
	p.press(said("ladder.undo"))
	p.sees(said("week.undoneNothingWasSent") + " lindqvist-roy@homes.example")
	p.sees(said("lesson.sendSheet", "contact", "lindqvist-roy@homes.example"))
	p.goTo("/students/" + tobias + "/week")
	p.sees(said("week.undoneNothingWasSent") + " lindqvist-roy@homes.example")
}

// A letter goes out though its page is closed at once.
func TestALetterThatWasSentLeaves(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	tobias := p.student("Tobias")
	p.begins(tobias)
	p.key("c")
	p.sees(said("lesson.sendSheet", "contact", "lindqvist-roy@homes.example"))
	p.key("m")
	p.sees(said("week.goingOutFewSeconds"))
	p.goTo("/sheets")
	p.sees(said("week.sentTo") + " lindqvist-roy@homes.example")
}
