package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// card reads a suggestion by its heading.
func card(p *page, heading string) string {
	p.t.Helper()
	js := fmt.Sprintf("[...document.querySelectorAll('aside li')].find(li => li.querySelector('b')?.innerText.startsWith(%q))", heading)
	p.until(js, "a card: "+heading)
	return strings.Join(strings.Fields(eval[string](p, js+".innerText")), " ")
}

// What makes each student of the demo a case of its own can be read on the
// ladder, with a sentence of why.
func TestTheCasesOfTheFerryHouse(t *testing.T) {
	p := atWork(t)
	ladder := func(name string) {
		p.goTo("/students/" + p.student(name) + "/ladder")
		p.sees(said("ladder.suggestions"))
		p.sees(name)
	}
	ladder("Emil")
	why := card(p, "Go on preparing: Backward extension")
	assert.Contains(t, why, "The next 4 pieces introduce it: The Cooper's Jig. Also new there: Fast string crossings. 1 of 4 small tasks done, ready in")
	thread := eval[string](p, "document.querySelector('[data-testid=thread-reach-back]').textContent")
	assert.Contains(t, thread, "Preparation for The Cooper's Jig, Backward extension: 1 of 4 tasks done, ready in")

	ladder("Priya")
	p.sees("Twelve keys, one a week")
	p.sees(said("parts.weekOf", "week", "10", "weeks", "12"))

	ladder("Wren")
	p.sees(said("ladder.nextLessonsMixture"))
	assert.GreaterOrEqual(t, eval[int](p, "document.querySelectorAll('section[aria-label=\"Next lesson\"] li').length"), 2)
	assert.Zero(t, eval[int](p, "document.querySelectorAll('ol[aria-labelledby=lane-book]').length"), "no ladder yet")
	assert.Contains(t, card(p, "Before the first book"), "Still to come: Steady beat")

	ladder("Luca")
	stuck := card(p, "Weather Glass is stuck")
	assert.Contains(t, stuck, "Nine in ten pieces like this are learnt by week")
	assert.Contains(t, stuck, "practice was called dull on")
	assert.GreaterOrEqual(t, eval[int](p, "document.querySelectorAll('aside ol li').length"), 4, "remedies in order")

	ladder("Saoirse")
	assert.Contains(t, card(p, "Three quarters review"), "75% of practice is review")

	ladder("Walter")
	assert.Contains(t, card(p, "Difficulty stays low"), "At most one new thing in a piece, as you set it. Hardest piece ahead: difficulty")

	ladder("Hyacinth")
	assert.Contains(t, card(p, "Londonderry Air may come too late"), "Wanted by 20 March")
}

// The teacher accepts one suggestion, turns another down, and the ladder
// answers; both can be taken back.
func TestAcceptingAndOverruling(t *testing.T) {
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/ladder")
	card(p, "Fill the ladder")
	before := len(lane(p))
	p.press(said("ladder.addThem"))
	p.until(fmt.Sprintf("%s.length > %d", laneJS, before), "what was proposed is placed")
	p.until("![...document.querySelectorAll('aside li b')].some(b => b.innerText === 'Fill the ladder')", "nothing is left to fill")
	card(p, "Go on preparing: Backward extension")
	p.press(said("ladder.doneToday"))
	p.until("![...document.querySelectorAll('aside li b')].some(b => b.innerText === 'Prepare: Three notes in a bow')", "its one task is done")
	eval[bool](p, "(() => { const li = [...document.querySelectorAll('aside li')].find(li => li.querySelector('b')?.innerText.startsWith('Go on preparing: Backward')); [...li.querySelectorAll('button')].find(b => b.innerText === 'Dismiss').click(); return true })()")
	p.until("!document.querySelector('[data-testid=thread-reach-back]')", "the plan respects it")
	counts := told(p, emil)
	assert.Equal(t, 1, counts["overruled"])
	p.goTo("/students/" + emil + "/record")
	p.sees(said("parts.suggestionTurnedDown"))
	p.press("Undo: suggestion dismissed")
	p.until(`document.querySelector('button[aria-label^="Redo: suggestion dismissed"]')`, "undone")
	p.goTo("/students/" + emil + "/ladder")
	card(p, "Go on preparing: Backward extension")
	p.goTo("/students/" + emil + "/record")
	p.press("Redo: suggestion dismissed")
	p.until(`document.querySelector('button[aria-label^="Undo: suggestion dismissed"]')`, "it stands again")
	p.goTo("/students/" + emil + "/ladder")
	p.sees(said("ladder.ladder"))
	p.until("!document.querySelector('[data-testid=thread-reach-back]')", "a take-back can be taken back")
}

// A rung is dragged to another height of its lane, and a bridge is put in where
// it is wanted.
func TestDraggingARung(t *testing.T) {
	full.Only(t, "TestMovingRungsByKeys")
	p := atWork(t)
	p.goTo("/students/" + p.student("Emil") + "/ladder")
	p.sees("Slipway Song")
	order := lane(p)
	require.Equal(t, []string{"Half Tide", "Slipway Song", "Lamp Room"}, order[3:6])
	at := func(title, first string) []float64 {
		return eval[[]float64](p, fmt.Sprintf("(b => { %s; const r = b.getBoundingClientRect(); return [r.x + 30, r.y + 8] })([...document.querySelectorAll('ol[aria-labelledby=lane-book] li b')].find(b => b.innerText === %q))", first, title))
	}
	at("Slipway Song", "b.scrollIntoView({block: 'center'})")
	from, to := at("Slipway Song", ""), at("Half Tide", "")
	mouse := func(kind input.DispatchMouseEventType, x, y float64) {
		_, err := chromedp.Call(p.ctx, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: input.MouseButtonLeft, Buttons: 1, ClickCount: 1})
		require.NoError(t, err)
	}
	gap := to[1] - from[1]
	mouse(input.DispatchMouseEventTypeMousePressed, from[0], from[1])
	for i := 1; i <= 6; i++ {
		mouse(input.DispatchMouseEventTypeMouseMoved, from[0], from[1]+float64(i)*(gap-14)/6)
	}
	mouse(input.DispatchMouseEventTypeMouseReleased, from[0], from[1]+gap-14)
	p.until(fmt.Sprintf("JSON.stringify(%s.slice(3, 6)) === %q", laneJS, jsonList([]string{"Slipway Song", "Half Tide", "Lamp Room"})), "the two have changed places")
	p.press("Slipway Song")
	p.sees(said("ladder.thisItem"))
	p.press(said("ladder.insertAbove"))
	p.sees(said("ladder.insertAbove2", "title", "Slipway Song"))
	p.press(said("ladder.findTitleBookUnit"))
	p.key("nettle")
	p.press(said("ladder.place", "title", "Nettle and Dock"))
	p.until(fmt.Sprintf("%s[3] === 'Nettle and Dock'", laneJS), "it stands right above")
}

// A change of the approach says what it would do before it is saved.
func TestAChangeOfTheApproachIsShownFirst(t *testing.T) {
	full.Only(t, "the tests of core/approach")
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/settings")
	p.sees(said("settings.approachWhereTeachersDisagree"))
	p.press("a third")
	p.sees("Review: 7")
	assert.Zero(t, told(p, emil)["approach_set"], "nothing is kept yet")
	p.press(said("settings.saveThis"))
	p.until("!document.querySelector('[aria-label=\"What it would change\"]')", "saved")
	p.goTo("/students/" + emil + "/settings")
	p.until("[...document.querySelectorAll('label')].find(l => l.innerText.trim() === 'a third')?.querySelector('input').checked", "it stands")
	assert.Equal(t, 1, told(p, emil)["approach_set"])
	assert.Equal(t, 17, eval[int](p, "document.querySelectorAll('section[aria-label=Approach] fieldset').length"), "what concerns other instruments is not asked")
}

// An item is edited by hand with the graph answering, found by its skill, and
// the shelf goes out and comes back as a table with its bad rows named.
func TestTheShelfByHandAndByTable(t *testing.T) {
	full.Only(t, "the tests of core/shelf and studio/library")
	p := atWork(t)
	p.goTo("/numbers")
	p.sees(said("parts.whatPlansRest"))
	p.sees(said("studio.numbersAreOurs"))
	p.sees("Bowed strings: 32")
	p.goTo("/items/bow-jig")
	p.press(said("activities.edit"))
	p.press(said("parts.addSkill", "name", "Needs"))
	p.key("Spiccato")
	p.press(said("parts.addSkill", "name", "Needs"))
	p.key("Backward extension")
	p.sees(spoken("reason.brings-and-needs", "title", "The Cooper's Jig", "skill", "Backward extension"))
	p.press(said("parts.takeOff", "name", "Needs", "label", "Backward extension"))
	p.until("!document.body.innerText.includes('both introduces and needs')", "the fault is gone")
	p.press(said("account.save"))
	p.sees("Placing fingers one at a time, Quavers, Spiccato")

	p.goTo("/shelf")
	p.press(said("shelf.findShelf"))
	p.key("spiccato")
	p.until("[...document.querySelectorAll('section[aria-label=Books] a')].some(a => a.innerText.includes(\"Cooper's Jig\"))", "found by its skill")
	p.until("![...document.querySelectorAll('section[aria-label=Books] a')].some(a => a.innerText.includes('Rope Walk'))", "and others are not")

	p.press(said("shelf.writeNewItem"))
	p.sees(said("item.goals"))
	p.press(said("activities.title"))
	p.key("Boat Shed Blues")
	p.press(said("item.bookCollection"))
	p.key("Our own")
	p.press(said("parts.addSkill", "name", "Introduces"))
	p.key("Syncopation")
	p.until("document.querySelector('[aria-label=\"Introduces: take Syncopation off\"]')", "the skill is taken in")
	p.press(said("account.save"))
	p.until("!document.body.innerText.includes('Goals')", "it is kept")
	p.goTo("/shelf")
	p.press(said("shelf.findShelf"))
	p.key("syncopation")
	p.sees("Boat Shed Blues")

	table := evalAsync(p, "fetch('/api/shelf.csv').then(r => r.text())")
	lines := strings.SplitN(table, "\n", 3)
	file := write(t, "shelf.csv", lines[0]+"\n"+strings.Replace(lines[1], "March to the drum", "March to the big drum", 1)+"\n,Row Home,,kazoo,book,,,,,,,,,,,,,,,\n,Row Home,,cello,book,Own,,,,,,,,,,,,,,8\n")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=csv]"), []string{file}))
	p.sees("Would change from shelf.csv: 1 new, 1 changed, 0 the same, 1 bad row")
	p.sees("Line 3: \"kazoo\" is not an instrument here: piano, keyboard of 76 keys")
	p.sees("Line 2: March to the big drum title")
	p.press(said("shelf.saveChanges", "changes", "2"))
	p.sees("Saved from shelf.csv")
	p.goTo("/shelf")
	p.press(said("shelf.findShelf"))
	p.key("big drum")
	p.sees("March to the big drum")
}

// A name may change: Lamp Room's points are named anew on the shelf, and Emil's marks
// stand; a point that is added reaches his ladder when it is taken over.
func TestNamesMayChange(t *testing.T) {
	full.Only(t, "the tests of core/shelf and studio/library")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/items/bow-lamp")
	p.press(said("activities.edit"))
	p.sees(said("item.saidBeforePlaying"))
	p.overwrite(`document.querySelector('[aria-label="Goal 1"]')`, "Klang")
	p.press(said("shelf.addNamed", "one", "Goal"))
	p.until("document.querySelector('[aria-label=\"Goal 5\"]')?.focus() === undefined && document.activeElement.ariaLabel === 'Goal 5'", "a line for one more")
	p.key("Long bows")
	p.press(said("account.save"))
	p.sees("Klang")
	p.goTo("/students/" + emil + "/ladder")
	p.press("Lamp Room")
	p.sees("Klang")
	met := `[...document.querySelectorAll('article li')].find(li => li.innerText.includes('Klang'))?.innerText`
	require.Contains(t, eval[string](p, met), "reached", "the mark stands")
	require.NotContains(t, eval[string](p, "document.querySelector('article').innerText"), "Long bows")
	p.press(said("ladder.takeOverItsNewGoals"))
	p.sees("Long bows")
	require.Contains(t, eval[string](p, met), "reached")
}

// A book is renamed on the shelf and stays the one that Emil chose; a piece that nobody
// has is taken off, one that somebody has is laid away.
func TestKeepingTheShelf(t *testing.T) {
	full.Only(t, "TestATuneTyped")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/shelf")
	p.press(said("shelf.rename", "now", "Under the Bow 1"))
	p.until("document.activeElement.name === 'title'", "the title may be written")
	p.overwrite("document.activeElement", "First Bow Book")
	p.press(said("account.save"))
	p.sees("First Bow Book")
	p.goTo("/students/" + emil + "/settings")
	p.sees("First Bow Book")
	p.until("[...document.querySelectorAll('label')].find(l => l.innerText.includes('First Bow Book'))?.querySelector('input').checked", "it is still the one he chose")

	p.goTo("/items/bow-lamp")
	p.sees(said("item.whoPlaysWhoPlayed"))
	p.sees("Emil Castellano")
	p.sees("Section 15") // the score has come and moves nothing below it any more
	p.until("![...document.querySelectorAll('button')].some(b => b.innerText === 'Remove from the shelf')", "what somebody has is not taken off")
	p.press(said("item.archiveIt"))
	p.sees(said("item.archivedStudentsWhoHaveCarry"))
	p.press(said("item.restoreIt"))
	p.until("!document.body.innerText.includes('students who have it carry on')", "back again")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{write(t, "lamp.abc", "X:1\nT:Lamp Room\nM:4/4\nL:1/4\nK:D clef=bass\nD, E, F, G,|A,4|\n")}))
	p.sees("It had 16 bars and has 2 now")

	p.goTo("/shelf")
	p.press(said("shelf.writeNewItem"))
	p.sees(said("item.goals"))
	p.press(said("activities.title"))
	p.key("Gone Tomorrow")
	p.press(said("account.save"))
	p.press(said("shelf.findShelf"))
	p.key("Gone Tom")
	p.press("Gone Tomorrow")
	p.sees(said("item.nobodysLadderYet"))
	p.press(said("item.removeFromShelf"))
	p.until("location.pathname === '/shelf'", "back on the shelf")
	p.until("!document.body.innerText.includes('Gone Tomorrow')", "and it is gone")
}
