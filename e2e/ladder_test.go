package e2e

import (
	"fmt"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// laneJS lists the titles that are placed in the book lane in reading order,
// from the top down.
const laneJS = "[...document.querySelectorAll('ol[aria-labelledby=lane-book] li b')].filter(b => !b.parentElement.innerText.includes('suggested')).map(b => b.innerText)"

func lane(p *page) []string { return eval[[]string](p, laneJS) }

// The teacher moves, parks and takes up rungs by keys; the lane answers.
func TestMovingRungsByKeys(t *testing.T) {
	p := atWork(t)
	p.goTo("/students/" + p.student("Emil") + "/ladder")
	p.sees("Cooper's Jig")
	require.Equal(t, []string{"Fog Horn", "The Cooper's Jig", "Tar Barrel Reel", "Half Tide", "Slipway Song", "Lamp Room"}, lane(p)[:6])
	order := func(want ...string) {
		p.until(fmt.Sprintf("JSON.stringify(%s.slice(0, %d)) === %q", laneJS, len(want), jsonList(want)), fmt.Sprint("the lane is ", want))
	}
	p.press("Slipway Song")
	p.sees(said("ladder.thisItem"))
	p.key("]")
	order("Fog Horn", "The Cooper's Jig", "Tar Barrel Reel", "Slipway Song", "Half Tide", "Lamp Room")
	p.key("[")
	order("Fog Horn", "The Cooper's Jig", "Tar Barrel Reel", "Half Tide", "Slipway Song", "Lamp Room")
	p.key("p")
	order("Fog Horn", "The Cooper's Jig", "Tar Barrel Reel", "Half Tide", "Lamp Room")
	p.sees(said("ladder.onHold"))
	p.key("p")
	order("Fog Horn", "The Cooper's Jig", "Tar Barrel Reel", "Half Tide", "Slipway Song", "Lamp Room")
	p.key(kb.Escape)
	p.sees(said("ladder.suggestions"))
}

func jsonList(list []string) string {
	out := "["
	for i, s := range list {
		if i > 0 {
			out += ","
		}
		out += `"` + s + `"`
	}
	return out + "]"
}

// A piece is placed from the shelf, found by a few letters.
func TestPlacingFromTheLadder(t *testing.T) {
	p := atWork(t)
	p.goTo("/students/" + p.student("Tobias") + "/ladder")
	p.sees("Ferry Whistle")
	p.press(said("ladder.placePiece"))
	p.sees(said("ladder.placePieceSLadder", "firstName", "Tobias"))
	p.press(said("ladder.findTitleBookUnit"))
	p.key("fathoms")
	p.press(said("ladder.place", "title", "Nine Fathoms"))
	p.sees(said("ladder.nothingLeftShelfImportScore"))
	p.key(kb.Escape)
	p.until("[...document.querySelectorAll('ol[aria-labelledby=lane-book] li b')].some(b => b.innerText === 'Nine Fathoms')", "it stands on the ladder")
	assert.Equal(t, "Nine Fathoms", lane(p)[0], "at the top of its lane")
}

// A whole book goes on the ladder in its own order, each item in its lane.
func TestPlacingABook(t *testing.T) {
	full.Only(t, "TestPlacingFromTheLadder")
	p := atWork(t)
	p.goTo("/students/" + p.student("Tobias") + "/ladder")
	p.sees("Ferry Whistle")
	p.press(said("ladder.placePiece"))
	before := len(lane(p))
	p.press(said("ladder.placeAll", "list", "42", "book", "Tidelines: Harbour"))
	p.until("![...document.querySelectorAll('button')].some(b => b.ariaLabel?.includes('of Tidelines: Harbour'))", "the book is on the ladder")
	p.key(kb.Escape)
	p.until(fmt.Sprintf("%s.length === %d", laneJS, before+30), "thirty pieces more")
	assert.Equal(t, []string{"The Mole", "Breakwater", "Two Ships"}, lane(p)[:3])
	p.until("[...document.querySelectorAll('ol[aria-labelledby=lane-technique] li b')].some(b => b.innerText === 'Twelve keys, one a week')", "technique in its own lane")
}

// What is written in a lesson stands where it was said: a note, a spot, a
// standing point on every piece in hand; a secure piece can be polished.
func TestWritingInALesson(t *testing.T) {
	full.Only(t, "TestAHalfHourByKeys")
	p := atWork(t)
	tobias := p.student("Tobias")
	p.begins(tobias)
	p.press("Ferry Whistle")
	p.sees(said("lesson.goalEveryPiece"))
	write := func(key, field, text string) {
		p.key(key)
		p.until("document.activeElement.getAttribute('aria-label') === '"+field+"'", "the line is open")
		p.key(text)
		p.key(kb.Enter)
	}
	write("e", "What do you want to remember?", "wants the storm again")
	p.sees("wants the storm again")
	write("p", "Where is the tricky spot?", "bar 7")
	p.sees(said("parts.trickySpotAimRow", "where", "bar 7", "goal", "5"))
	write("w", "What should this student keep in mind in every piece?", "soft wrist")
	p.sees("for every piece, to do")
	p.press("Lightly Row")
	p.sees("soft wrist")
	p.goTo("/students/" + tobias + "/ladder")
	p.sees("Lamp Room Stairs")
	p.press("Lamp Room Stairs")
	p.sees(said("ladder.performanceReady"))
	p.key("m")
	p.sees("Performance-ready. Learnt")
}

// What a screen reader says of a ladder: each rung by name, kind and weeks, the one in hand with
// its points in words, the lane it stands in, and where now is.
func TestALadderReadAloud(t *testing.T) {
	full.Only(t, "TestAccessibility")
	p := atWork(t)
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/ladder")
	p.sees("Cooper's Jig")
	names := eval[string](p, `[...document.querySelectorAll('#content section button, #content ol button, #content ul button')].map(b => (b.getAttribute('aria-label') || b.innerText).replace(/\s+/g, ' ').trim()).join('\n')`)
	assert.Regexp(t, `(?m)^The Cooper's Jig .*weeks`, names)
	assert.Regexp(t, `(?m)Lamp Room.*of \d goals reached|of \d goals reached.*Lamp Room`, names)
	lanes := eval[string](p, `[...document.querySelectorAll('#content [aria-label]')].map(e => e.getAttribute('aria-label')).join('\n')`)
	for _, lane := range []string{"Method book", "Technique", "Reading and theory", "Repertoire"} {
		assert.Contains(t, lanes+names+eval[string](p, "document.querySelector('#content').innerText"), lane)
	}
}

// What the level of a student from elsewhere takes for granted is ticked off by a touch each; what is
// missing is a card on the ladder, a block of the next plan, and stands first on the record, until
// it is passed.
func TestAGapIsToldAndClosed(t *testing.T) {
	p := atWork(t)
	idris := p.student("Idris")
	p.goTo("/students/" + idris + "/ladder")
	p.sees(said("parts.takenGrantedSkills"))
	p.press("Assumed known")
	missing := eval[string](p, `document.querySelector('[aria-label^="Missing: "]').getAttribute('aria-label').slice(9)`)
	there := eval[string](p, `document.querySelectorAll('[aria-label^="There: "]')[1].getAttribute('aria-label').slice(7)`)
	touches := p.acts
	p.press(said("parts.missingNamed") + " " + missing)
	p.sees(said("ladder.missingSkill") + " " + missing)
	assert.Equal(t, 1, p.acts-touches)
	p.press(said("parts.thereNamed") + " " + there)
	p.until(`![...document.querySelectorAll('[aria-label^="There: "]')].some(e => e.getAttribute('aria-label').endsWith(`+strconv.Quote(there)+`))`, "what is there is asked no more")
	p.goTo("/students/" + idris + "/lesson")
	p.sees(missing)
	p.sees("was missing at the placement")
	p.goTo("/students/" + idris + "/record")
	p.sees(said("parts.missingNamed", "name", "1 skill"))
	p.goTo("/students/" + idris + "/ladder")
	p.press(said("ladder.passed3"))
	p.until("!document.body.innerText.includes('Missing skill: ')", "a gap that is closed is gone")
	p.goTo("/students/" + idris + "/record")
	p.sees(said("record.everythingNoted"))
	p.until("!document.body.innerText.includes('Missing: ')", "nothing is missing any more")
}
