package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
		p.sees("What follows, and why")
		p.sees(name)
	}
	ladder("Emil")
	why := card(p, "Go on with: First finger reached back")
	assert.Contains(t, why, "Four rungs away, The Cooper's Jig brings it together with quick string crossings. Task 2 of 4, ready in")
	thread := eval[string](p, "document.querySelector('[data-testid=thread-reach-back]').textContent")
	assert.Contains(t, thread, "Head start on First finger reached back for The Cooper's Jig: 1 of 4 tasks done, ready in")

	ladder("Priya")
	p.sees("Twelve keys, one a week")
	p.sees("week 10 of 12")

	ladder("Wren")
	p.sees("The next lesson's mixture")
	assert.GreaterOrEqual(t, eval[int](p, "document.querySelectorAll('section[aria-label=\"Next lesson\"] li').length"), 2)
	assert.Zero(t, eval[int](p, "document.querySelectorAll('ol[aria-labelledby=lane-book]').length"), "no ladder yet")
	assert.Contains(t, card(p, "Before the first book"), "still to come: steady beat")

	ladder("Luca")
	stuck := card(p, "Weather Glass is stuck")
	assert.Contains(t, stuck, "nine in ten such pieces are done by week")
	assert.Contains(t, stuck, "practice was called dull on")
	assert.GreaterOrEqual(t, eval[int](p, "document.querySelectorAll('aside ol li').length"), 4, "remedies in order")

	ladder("Saoirse")
	assert.Contains(t, card(p, "Three quarters upkeep"), "75 in 100 minutes of practice keep")

	ladder("Walter")
	assert.Contains(t, card(p, "The load stays low"), "At most one new thing in a piece, as set: the heaviest rung ahead weighs")

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
	p.press("Place them")
	p.until(fmt.Sprintf("%s.length > %d", laneJS, before), "what was proposed is placed")
	p.until("![...document.querySelectorAll('aside li b')].some(b => b.innerText === 'Fill the ladder')", "nothing is left to fill")
	card(p, "Go on with: First finger reached back")
	p.press("Task done today")
	p.until("![...document.querySelectorAll('aside li b')].some(b => b.innerText === 'Start: Three notes in a bow')", "its one task is done")
	eval[bool](p, "(() => { const li = [...document.querySelectorAll('aside li')].find(li => li.querySelector('b')?.innerText.startsWith('Go on with: First finger')); [...li.querySelectorAll('button')].find(b => b.innerText === 'Dismiss').click(); return true })()")
	p.until("!document.querySelector('[data-testid=thread-reach-back]')", "the plan respects it")
	counts := told(p, emil)
	assert.Equal(t, 1, counts["overruled"])
	p.goTo("/students/" + emil + "/record")
	p.sees("suggestion turned down")
	p.press("Take back: suggestion turned down")
	p.goTo("/students/" + emil + "/ladder")
	card(p, "Go on with: First finger reached back")
	p.goTo("/students/" + emil + "/record")
	p.press("Put back: suggestion turned down")
	p.goTo("/students/" + emil + "/ladder")
	p.sees("Ladder")
	p.until("!document.querySelector('[data-testid=thread-reach-back]')", "a take-back can be taken back")
}

// A rung is dragged to another height of its lane, and a bridge is put in where
// it is wanted.
func TestDraggingARung(t *testing.T) {
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
	p.sees("This rung")
	p.press("Insert above it")
	p.sees("Insert above Slipway Song")
	p.press("Find by title")
	p.key("nettle")
	p.press("Place Nettle and Dock")
	p.until(fmt.Sprintf("%s[3] === 'Nettle and Dock'", laneJS), "it stands right above")
}

// A change of the approach says what it would do before it is saved.
func TestAChangeOfTheApproachIsShownFirst(t *testing.T) {
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/settings")
	p.sees("Approach: where teachers disagree")
	p.press("a third")
	p.sees("Upkeep in the week: 7")
	assert.Zero(t, told(p, emil)["approach_set"], "nothing is kept yet")
	p.press("Save this")
	p.until("!document.querySelector('[aria-label=\"What it would change\"]')", "saved")
	p.goTo("/students/" + emil + "/settings")
	p.until("[...document.querySelectorAll('label')].find(l => l.innerText.trim() === 'a third')?.querySelector('input').checked", "it stands")
	assert.Equal(t, 1, told(p, emil)["approach_set"])
	assert.Equal(t, 17, eval[int](p, "document.querySelectorAll('section[aria-label=Approach] fieldset').length"), "what concerns other instruments is not asked")
}

// An item is edited by hand with the graph answering, found by its skill, and
// the shelf goes out and comes back as a table with its bad rows named.
func TestTheShelfByHandAndByTable(t *testing.T) {
	p := atWork(t)
	p.goTo("/numbers")
	p.sees("What plans rest on")
	p.sees("Numbers that are ours")
	p.sees("Bowed strings: 32")
	p.goTo("/items/bow-jig")
	p.press("Edit")
	p.press("Needs: add a skill")
	p.key("Bow that springs")
	p.press("Needs: add a skill")
	p.key("First finger reached back")
	p.sees("The Cooper's Jig both brings and needs first finger reached back.")
	p.press("Needs: take First finger reached back off")
	p.until("!document.body.innerText.includes('both brings and needs')", "the fault is gone")
	p.press("Keep")
	p.sees("Fingers stepping one by one, Two to a beat, Bow that springs")

	p.goTo("/shelf")
	p.press("Find on the shelf")
	p.key("springs")
	p.until("[...document.querySelectorAll('section[aria-label=Books] a')].some(a => a.innerText.includes(\"Cooper's Jig\"))", "found by its skill")
	p.until("![...document.querySelectorAll('section[aria-label=Books] a')].some(a => a.innerText.includes('Rope Walk'))", "and others are not")

	p.press("Write a new item")
	p.sees("Focus points")
	p.press("Title")
	p.key("Boat Shed Blues")
	p.press("Book or pool")
	p.key("Our own")
	p.press("Brings: add a skill")
	p.key("Notes between the beats")
	p.until("document.querySelector('[aria-label=\"Brings: take Notes between the beats off\"]')", "the skill is taken in")
	p.press("Keep")
	p.until("!document.body.innerText.includes('Focus points')", "it is kept")
	p.goTo("/shelf")
	p.press("Find on the shelf")
	p.key("between the beats")
	p.sees("Boat Shed Blues")

	table := evalAsync(p, "fetch('/api/shelf.csv').then(r => r.text())")
	lines := strings.SplitN(table, "\n", 3)
	file := write(t, "shelf.csv", lines[0]+"\n"+strings.Replace(lines[1], "March to the drum", "March to the big drum", 1)+"\n,Row Home,,kazoo,book,,,,,,,,,,,,,,,\n,Row Home,,cello,book,Own,,,,,,,,,,,,,,8\n")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=csv]"), []string{file}))
	p.sees("Would change by shelf.csv: 1 new, 1 changed, 0 the same, 1 bad row")
	p.sees("Line 3: \"kazoo\" is not an instrument here: piano, keyboard of 76 keys")
	p.sees("Line 2: March to the big drum title")
	p.press("Keep 2 changes")
	p.sees("Kept by shelf.csv")
	p.goTo("/shelf")
	p.press("Find on the shelf")
	p.key("big drum")
	p.sees("March to the big drum")
}

// A name may change: Lamp Room's points are named anew on the shelf, and Emil's marks
// stand; a point that is added reaches his ladder when it is taken over.
func TestNamesMayChange(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/items/bow-lamp")
	p.press("Edit")
	p.sees("Said before playing")
	p.overwrite(`document.querySelector('[aria-label="Point 1"]')`, "Klang")
	p.press("Add a point")
	p.until("document.querySelector('[aria-label=\"Point 5\"]')?.focus() === undefined && document.activeElement.ariaLabel === 'Point 5'", "a line for one more")
	p.key("Long bows")
	p.press("Keep")
	p.sees("Klang")
	p.goTo("/students/" + emil + "/ladder")
	p.press("Lamp Room")
	p.sees("Klang")
	met := `[...document.querySelectorAll('article li')].find(li => li.innerText.includes('Klang'))?.innerText`
	require.Contains(t, eval[string](p, met), "met", "the mark stands")
	require.NotContains(t, eval[string](p, "document.querySelector('article').innerText"), "Long bows")
	p.press("Take over its new points and parts")
	p.sees("Long bows")
	require.Contains(t, eval[string](p, met), "met")
}

// A book is renamed on the shelf and stays the one that Emil chose; a piece that nobody
// has is taken off, one that somebody has is laid away.
func TestKeepingTheShelf(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/shelf")
	p.press("Rename Under the Bow 1")
	p.until("document.activeElement.name === 'title'", "the title may be written")
	p.overwrite("document.activeElement", "First Bow Book")
	p.press("Keep")
	p.sees("First Bow Book")
	p.goTo("/students/" + emil + "/settings")
	p.sees("First Bow Book")
	p.until("[...document.querySelectorAll('label')].find(l => l.innerText.includes('First Bow Book'))?.querySelector('input').checked", "it is still the one he chose")

	p.goTo("/items/bow-lamp")
	p.sees("Who plays it, who played it")
	p.sees("Emil Castellano")
	p.sees("Chunk 15") // the score has come and moves nothing below it any more
	p.until("![...document.querySelectorAll('button')].some(b => b.innerText === 'Take it off the shelf')", "what somebody has is not taken off")
	p.press("Lay it away")
	p.sees("whoever has it goes on, nobody is offered it")
	p.press("Bring it back")
	p.until("!document.body.innerText.includes('nobody is offered it')", "back again")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{write(t, "lamp.abc", "X:1\nT:Lamp Room\nM:4/4\nL:1/4\nK:D clef=bass\nD, E, F, G,|A,4|\n")}))
	p.sees("It had 16 bars and has 2 now")

	p.goTo("/shelf")
	p.press("Write a new item")
	p.sees("Focus points")
	p.press("Title")
	p.key("Gone Tomorrow")
	p.press("Keep")
	p.press("Find on the shelf")
	p.key("Gone Tom")
	p.press("Gone Tomorrow")
	p.sees("It is on nobody's ladder yet.")
	p.press("Take it off the shelf")
	p.until("location.pathname === '/shelf'", "back on the shelf")
	p.until("!document.body.innerText.includes('Gone Tomorrow')", "and it is gone")
}
