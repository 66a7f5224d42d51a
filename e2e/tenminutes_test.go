package e2e

import (
	"fmt"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A typist does things on a page and adds up how long a person's hands and head take for them,
// by the keystroke-level model.
//
// Source: Card, Moran and Newell, The keystroke-level model for user performance time with
// interactive systems, Communications of the ACM 23 (1980), from memory: a key of an average
// typist 0.28 s, pointing 1.1 s, a press of the button 0.1 s, a hand from keyboard to mouse and
// back 0.4 s, making up one's mind 1.35 s. What the program takes is not counted.
type typist struct {
	*page
	seconds float64
	typing  bool // the hand is on the keyboard
}

const (
	keyed, pointed, button, homed, decided = 0.28, 1.1, 0.1, 0.4, 1.35
)

func (y *typist) hand(typing bool) {
	if y.typing != typing {
		y.typing, y.seconds = typing, y.seconds+homed
	}
}

// touches presses a control with the mouse.
func (y *typist) touches(name string) {
	y.t.Helper()
	y.hand(false)
	y.seconds += decided + pointed + button
	y.press(name)
}

// chooses takes an option of a list: opens it, and points again.
func (y *typist) chooses(label, option string) {
	y.t.Helper()
	y.hand(false)
	y.seconds += decided + 2*(pointed+button)
	y.pick(label, option)
}

// types points at a field and writes into it.
func (y *typist) types(name, text string) {
	y.t.Helper()
	y.writes(fmt.Sprintf("document.querySelector('[name=%s]')", name), text)
}

func (y *typist) writes(field, text string) {
	y.t.Helper()
	y.hand(false)
	y.seconds += decided + pointed + button
	y.hand(true)
	y.seconds += keyed * float64(utf8.RuneCountInString(text))
	if strings.HasPrefix(field, "document.querySelector('[name=listTitles]") {
		y.do(chromedp.KeyEvent(text))
		return
	}
	y.overwrite(field, text)
}

// A new teacher in an empty studio: two terms, an own book of thirty titles pasted as a list,
// three students, the first lesson's plan and the first practice sheet, within ten minutes of what
// hands and head take.
func TestTheFirstTenMinutes(t *testing.T) {
	y := &typist{page: open(t, newSite(t, false).URL, 1280, 800)}
	y.goTo("/")
	y.touches("I am new here")
	y.types("name", "Ingrid Vale")
	y.types("studio", "Attic Strings")
	y.types("email", "ingrid@attic.example")
	y.types("password", "three unrelated words")
	y.touches("Open the studio")
	y.sees(said("today.noStudentsYet"))

	y.touches("Calendar")
	for i, span := range [][3]string{{"Autumn", "2026-09-07", "2026-12-18"}, {"Spring", "2027-01-11", "2027-03-26"}} {
		y.touches("Add a term")
		y.until(fmt.Sprintf("document.querySelectorAll('input[aria-label=\"Name of the term\"]').length === %d", i+1), "a row for a term")
		for k, field := range []string{"Name of the term", "First day of", "Last day of"} {
			y.writes(fmt.Sprintf("[...document.querySelectorAll('input[aria-label^=%q]')].at(-1)", field), span[k])
		}
	}
	y.touches("Save terms and holidays")
	y.sees(said("calendar.saved"))

	titles := make([]string, 30)
	for i := range titles {
		titles[i] = fmt.Sprintf("%d. Attic tune %d", i+1, i+1)
	}
	y.touches("Shelf")
	y.types("listBook", "Attic songs")
	had := y.seconds
	eval[bool](y.page, `document.querySelector('[name=listTitles]').focus(), true`)
	y.do(chromedp.KeyEvent(strings.Join(titles, "\n")))
	y.seconds = had + decided + pointed + button + 2*keyed // pasted
	y.touches("Put the titles on the shelf")
	y.sees(said("shelf.titlesPutShelf", "items", "30"))

	for _, s := range [][4]string{{"Una", "Berg", "2017", "Monday"}, {"Jory", "Lund", "2014", "Tuesday"}, {"Maud", "Hale", "1980", "Wednesday"}} {
		y.touches("Studio")
		y.types("firstName", s[0])
		y.types("familyName", s[1])
		y.types("birthYear", s[2])
		y.chooses("Lesson on", s[3])
		y.touches("Attic songs")
		y.sees(said("studio.firstPieces"))
		y.touches("Add student")
		y.sees(said("ladder.suggestions"))
	}
	y.touches("Lesson")
	y.sees(said("hours.thePlan"))
	y.sees("Attic tune 1")
	y.touches("Start ") // today's or the next
	y.sees(said("lesson.finishLesson"))
	y.touches("Finish lesson")
	y.sees(said("lesson.taughtTodayOnlyWhatWas"))
	y.touches("Taught today")
	y.sees(said("lesson.allMarked"))
	y.touches("Finish lesson")
	y.sees(said("lesson.lessonClosed"))
	y.touches("Practice sheet")
	y.sees("Attic tune 1")
	t.Logf("%.0f s by the keystroke-level model", y.seconds)
	assert.Less(t, y.seconds, 600.0)
}
