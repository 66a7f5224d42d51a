package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"

	"patientladder/internal/full"
)

// look takes a picture while a screen is being worked on: into the folder that LADDER_LOOK
// names, usually none.
func (p *page) look(name string) {
	if dir := os.Getenv("LADDER_LOOK"); dir != "" {
		p.shot(filepath.Join(dir, name+".png"))
	}
}

// A violin student from a new book to the sheet, on a page that names strings and
// fingers.
func TestAViolinStudentFromANewBookToASheet(t *testing.T) {
	p := atWork(t)
	p.goTo("/shelf")
	p.sees("Tidelines: Shore")
	p.overwrite("document.querySelector('section[aria-label=\"Import scores\"] input')", "First Strings")
	p.pick(said("activities.instrument"), "violin")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=musicxml]"), []string{
		write(t, "oars.abc", "X:1\nT:Four Oars\nM:4/4\nL:1/4\nK:D\nA A B c|d2 A2|D E F G|A4|]\n"),
		write(t, "steps.abc", "X:1\nT:Wet Steps\nM:4/4\nL:1/4\nK:A\nA B c d|e2 e2|E F A A|A4|]\n"),
	}))
	p.sees("Four Oars")
	p.sees("Wet Steps")
	p.look("violin-shelf")
	p.press("Four Oars")
	p.until("document.querySelectorAll('[role=img] svg g.note').length === 11", "the score is drawn")
	p.sees("string 2")
	p.look("violin-item")

	p.goTo("/studio")
	p.fill("firstName", "Ottilie")
	p.fill("familyName", "Brandt")
	p.fill("birthYear", "2016")
	p.pick(said("activities.instrument"), "violin")
	p.fill("start", "0915AM")
	p.press("First Strings")
	p.sees("Four Oars")
	p.press(said("studio.takeOn"))
	p.sees(said("ladder.suggestions"))
	p.sees("violin")
	p.sees("Four Oars")
	p.look("violin-ladder")
	ottilie := p.student("Ottilie")
	p.begins(ottilie)
	p.look("violin-lesson")
	p.closeLesson(ottilie)
	p.goTo("/students/" + ottilie + "/week")
	p.sees("Four Oars")
	p.look("violin-week")
	p.goTo("/workbench?student=" + ottilie)
	p.look("violin-seat")
}

// A teacher adds a tuning and an instrument that the program does not know, and takes
// one away again.
func TestInstrumentsOfTheStudio(t *testing.T) {
	full.Only(t, "TestAViolinStudentFromANewBookToASheet")
	p := atWork(t)
	p.goTo("/instruments")
	p.sees("strings E4 B3 G3 D3 A2 E2")
	p.look("instruments")
	guitar := "[...document.querySelectorAll('li')].find(li => li.querySelector('b')?.innerText === 'guitar')"
	p.until(guitar+"?.querySelector('button')", "a tuning of the guitar")
	eval[bool](p, guitar+".querySelector('button').click(); true")
	p.sees(said("instruments.anotherTuning"))
	p.fill("name", "guitar in low D")
	p.overwrite("document.querySelector('[name=strings]')", "E4 B3 G3 D3 A2 H2")
	p.press(said("account.save"))
	p.sees(`String 6, "H2", is not a note with its octave`)
	p.overwrite("document.querySelector('[name=strings]')", "E4 B3 G3 D3 A2 D2")
	p.press(said("account.save"))
	p.sees("strings E4 B3 G3 D3 A2 D2 · written an octave above its sound · plays from the shelf of the guitar")

	p.fill("name", "tin whistle")
	p.fill("low", "D4")
	p.fill("high", "B5")
	p.press(said("account.save"))
	p.sees("D4 to B5")
	p.look("instruments-own")
	p.goTo("/studio")
	p.pick(said("activities.instrument"), "guitar in low D")
	p.sees("Low Water: Shells")
	p.pick(said("activities.instrument"), "tin whistle")
	p.sees("Nothing on the shelf for tin whistle yet")
	p.goTo("/instruments")
	p.press(said("activities.remove"))
	p.until("![...document.querySelectorAll('b')].some(b => b.innerText === 'guitar in low D')", "it is gone")
}

// A skill of the teacher's own with its chain: checked, brought by a piece, and begun
// as a head start on a ladder.
func TestAnOwnSkillOnALadder(t *testing.T) {
	full.Only(t, "the tests of core/skill")
	p := atWork(t)
	p.goTo("/numbers")
	p.press(said("studio.addSkill"))
	p.press(said("studio.nameSay"))
	p.key("Sea shanty sway")
	p.pick(said("studio.for"), "Keyboards")
	p.pick(said("studio.about"), "rhythm")
	p.press(said("studio.task", "n", "1"))
	p.key("Sway from foot to foot with the beat")
	p.look("skill-form")
	p.press(said("account.save"))
	p.until("!document.querySelector('form[aria-label^=\"A skill\"]')", "it is kept")
	p.press("Keyboards:")
	p.sees("Sea shanty sway")
	p.sees("Sway from foot to foot with the beat")
	p.look("skills-own")

	tobias := p.student("Tobias")
	item := evalAsync(p, `fetch('/api/students/`+tobias+`/ladder').then(r => r.json()).then(l => l.rungs.find(r => r.state === 'ahead' && r.strand === 'book').item)`)
	p.goTo("/items/" + item)
	p.press(said("activities.edit"))
	p.press(said("parts.addSkill", "name", "Introduces"))
	p.key("Sea shanty sway")
	p.sees("Sea shanty sway")
	p.press(said("account.save"))
	p.until("!document.querySelector('form[aria-label^=Edit]')", "the piece brings it")
	p.goTo("/students/" + tobias + "/ladder")
	p.sees("Sea shanty sway")
	p.look("skill-ladder")
	p.goTo("/numbers")
	p.press("Keyboards:")
	p.press(said("activities.remove"))
	p.sees("names it; take it off there first")
}

// The same file twice is asked about; brought all the same, the two are told to be
// one: whoever has the first keeps every mark.
func TestTheSameFileTwice(t *testing.T) {
	full.Only(t, "TestScoresAsTheyCome")
	p := atWork(t)
	tune := write(t, "rope.abc", "X:1\nT:Rope Round\nM:4/4\nL:1/4\nK:C\nC D E F|G4|\n")
	bring := func() {
		p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=musicxml]"), []string{tune}))
	}
	p.goTo("/shelf")
	p.sees(said("shelf.importScores"))
	bring()
	p.sees("Rope Round")
	bring()
	p.sees(said("shelf.shelfAlready", "name", "rope.abc", "list", said("shelf.titleOfBook", "title", "Rope Round", "book", "Loose sheets")))
	p.press(said("shelf.bringAllSame"))
	p.until("document.querySelectorAll('section[aria-label=\"Import scores\"] li a').length === 2", "it is there twice")
	p.look("twins")
	p.press("Rope Round")
	p.sees(said("item.itIsTheSameAs"))
	p.pick(said("item.itIsTheSameAs"), "Rope Round")
	p.sees(said("item.thisIsTheSameAs"))
	p.look("same-as")
	p.goTo("/shelf")
	p.until("[...document.querySelectorAll('a')].filter(a => a.innerText.startsWith('Rope Round')).length === 1", "one of the two stands on the shelf")
}
