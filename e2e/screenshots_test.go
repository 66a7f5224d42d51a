package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// TestScreenshots takes the pictures of the README and docs from demo data. It
// runs only when LADDER_SCREENSHOTS names the folder for them.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("LADDER_SCREENSHOTS")
	if dir == "" {
		t.Skip("LADDER_SCREENSHOTS is not set")
	}
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	settled := func(name string) {
		time.Sleep(400 * time.Millisecond) // fonts and the last paint
		p.shot(filepath.Join(dir, name+".png"))
	}
	p.signIn()
	emil, tobias := p.student("Emil"), p.student("Tobias")
	p.goTo("/students/" + emil + "/ladder")
	p.sees("Cooper's Jig")
	settled("ladder")
	p.press("The Cooper's Jig")
	settled("ladder-rung")
	p.goTo("/students/" + p.student("Luca") + "/ladder")
	p.sees("is stuck")
	settled("ladder-stuck")
	p.goTo("/students/" + p.student("Wren") + "/ladder")
	p.sees("The next lesson's mixture")
	settled("mixture")
	p.goTo("/studio/dates")
	p.press("Concert at the Ferry House")
	p.sees("the young first")
	settled("concert")
	p.goTo("/students/" + p.student("Idris") + "/placement")
	p.sees("The first question")
	settled("placement")
	p.goTo("/students/" + emil + "/settings")
	p.sees("Approach")
	p.press("a third")
	p.sees("Upkeep in the week")
	eval[bool](p, "(document.querySelector('[aria-label=\"What it would change\"]').scrollIntoView({block: 'center'}), true)")
	settled("settings")
	p.goTo("/students/" + emil + "/lesson")
	p.sees("Begin the lesson")
	p.key("b")
	p.sees("Close the lesson")
	p.press("Lamp Room")
	p.key("s")
	p.sees("4 in a row")
	p.key("q")
	p.sees("Try:")
	settled("lesson")
	p.press("Close the lesson")
	p.sees("What changed")
	p.goTo("/students/" + tobias + "/week")
	p.until("document.querySelectorAll('[aria-label=\"What is built this week\"] figure g.bands').length === 2", "brackets stand over the notes")
	settled("week")
	p.goTo("/students/" + emil + "/record")
	p.sees("All that was told")
	settled("record")
	p.goTo("/shelf")
	p.sees("Under the Bow 1")
	settled("shelf")
	p.goTo("/items/shore-lights")
	p.until(scoreDrawn, "the score is drawn")
	p.pick("Read for", "Tobias")
	p.sees("New for Tobias")
	p.key("d")
	p.key("f")
	p.until("document.querySelectorAll('.score .verse').length > 20", "labels stand under the staves")
	settled("item")
	p.goTo("/workbench/exercises?student=" + p.student("Priya"))
	p.sees("E flat major, right hand")
	p.press("together")
	p.until("document.querySelectorAll('[role=img] svg g.note').length === 30", "both hands are drawn")
	settled("exercises")
	p.goTo("/students/" + p.student("Pip") + "/lesson")
	p.press("Palm to palm")
	p.sees("Exit test")
	settled("first-meeting")
	p.goTo("/workbench?student=" + p.student("Wren"))
	p.sees("Keep these numbers")
	settled("seat")
	p.goTo("/studio")
	p.sees("New student")
	settled("studio")
	p.goTo("/calendar")
	p.sees("The teaching week")
	settled("calendar")
	p.goTo("/studio/students")
	p.sees("To order or print")
	settled("all-students")
	p.setClock("2026-11-18T17:30:00Z")
	for _, name := range []string{"Anselm", "Wren", "Tobias"} {
		p.closeLesson(p.student(name))
	}
	p.goTo("/students/" + tobias + "/week")
	p.press("Make a link")
	p.sees("Copy the link")
	p.setClock("2026-11-19T16:00:00Z") // the day after the lesson
	phone := open(t, s.URL, 390, 844)
	phone.do(chromedp.Navigate(eval[string](p, `document.querySelector('[name=family-link]').value`)))
	phone.sees("Tobias's practice")
	phone.until(`(document.querySelector('[data-testid=family] input[type=checkbox]')?.click(), true)`, "a tick")
	time.Sleep(400 * time.Millisecond)
	phone.press("See the notes")
	phone.until("document.querySelector('.light svg .abcjs-note')", "the notes are drawn")
	time.Sleep(300 * time.Millisecond) // their last paint
	phone.shot(filepath.Join(dir, "family.png"))
}
