package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// A scale is chosen for a student by name, seen with its fingers, heard, and put on the
// ladder; the same again is the same item.
func TestAScaleFromTheTools(t *testing.T) {
	p := atWork(t)
	priya := p.student("Priya")
	p.goTo("/workbench/exercises?student=" + priya)
	p.sees("E flat major, right hand") // this week's key
	p.press(said("workbench.together"))
	p.until("document.querySelectorAll('[role=img] svg g.note').length === 30", "both hands are drawn")
	p.sees(said("workbench.whereHandsMeet"))
	p.look("exercises")
	p.key(" ")
	p.sees(said("family.stop"))
	p.key(" ")
	p.press(said("workbench.putSLadder", "firstName", "Priya"))
	p.press(said("item.startNow"))
	p.sees(said("item.sLadder", "firstName", "Priya", "state", "current"))
	p.goTo("/students/" + priya + "/ladder")
	p.sees("E flat major")
	p.goTo("/workbench/exercises?student=" + p.student("Emil"))
	p.sees("D major")
	p.press("Bow")
	p.sees(spoken("exercise.bows"))
	p.look("exercises-cello")
	p.goTo("/workbench/exercises?student=" + p.student("Nikolai"))
	p.press("Roll")
	p.sees("Roll p i m a")
	p.until("document.querySelectorAll('[role=img] svg g.note').length >= 24", "the roll is drawn, and nothing moves any more")
	p.look("exercises-guitar")
	p.press(said("workbench.putSLadder", "firstName", "Nikolai"))
	p.sees(said("item.startNow"))
	p.goTo("/workbench/exercises")
	p.sees("C major")
	p.press("3")
	p.sees(spoken("so-many-octaves.3"))
	p.look("exercises-anybody")
}

// The lesson shows this week's key with its fingering, both hands by themselves; a key
// that goes already is granted by a touch, and opens the next key's aims.
func TestThisWeeksKeyInTheLesson(t *testing.T) {
	full.Only(t, "TestAScaleFromTheTools")
	p := atWork(t)
	priya := p.student("Priya")
	p.begins(priya)
	p.press("Twelve keys, one a week")
	p.sees("E flat major, right hand")
	p.sees("E flat major, left hand")
	p.until("document.querySelectorAll('.score svg g.note').length === 30", "two lines of fifteen notes")
	p.until("[...document.querySelectorAll('.score svg text, .score svg tspan')].length > 10 || document.querySelectorAll('.score svg g.fing').length >= 30", "with their fingers")
	p.sees(said("ladder.reached", "value", " Mon 16 Nov"))
	before := told(p, priya)["foothold_tried"]
	p.key("f")
	p.sees("B flat major, right hand")
	assert.Equal(t, before+1, told(p, priya)["foothold_tried"])
	p.until("!document.body.innerText.includes('met Mon 16 Nov')", "the aims are open again")
}

// Cards are shown, answered and marked with one key each; how much of the deck is known
// stands beside them.
func TestCardsAreAsked(t *testing.T) {
	p := atWork(t)
	tobias := p.student("Tobias")
	p.begins(tobias)
	p.press("Landmark C and G")
	p.sees(said("lesson.cardOf", "n", "1", "asked", "3"))
	before := told(p, tobias)
	p.sees(spoken("sheet.card-landmark"))
	p.key("h")
	p.sees("the middle C, left of the two black keys")
	p.key("k")
	p.sees(said("lesson.cardOf", "n", "2", "asked", "3"))
	p.key("i")
	p.sees(said("lesson.cardOf", "n", "3", "asked", "3"))
	p.key("z")
	p.sees(said("lesson.allAskedToday"))
	p.sees(said("lesson.ofKnown", "known", "0", "of", "5"))
	require.Eventually(t, func() bool { return told(p, tobias)["card_answered"] == 3 }, 5*time.Second, 100*time.Millisecond)
	assert.Equal(t, before["seen"], told(p, tobias)["seen"], "no fault is noted by a card's key")
}

// A cross-rhythm stands on its common grid with its phrase, and is heard, either hand
// alone.
func TestACrossRhythmIsHeard(t *testing.T) {
	full.Only(t, "TestHowEvenItWas, and the tests of core/touch")
	p := atWork(t)
	p.goTo("/workbench/exercises")
	p.sees("C major")
	p.press(spoken("exercise-group.cross-rhythms"))
	p.press("3 : 2")
	p.sees("Three against two")
	p.sees("salt")
	p.until("document.querySelectorAll('table[aria-label=\"The common grid\"] tr').length === 3", "a row a hand and the phrase")
	p.until("document.querySelector('.score svg')", "it is drawn")
	p.key("e")
	p.sees(said("workbench.handAlone", "hand", "right"))
	p.key(" ")
	p.sees(said("family.stop"))
	p.until("document.querySelector('.score .sounding')", "what sounds stands out")
	p.key(" ")
	p.key("k")
	p.key("g")
	p.sees("C major")
}
