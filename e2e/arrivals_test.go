package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
)

// arrives takes on a student of an age who plays the piano, and returns the id.
func (p *page) arrives(name string, born int, books, begin string) string {
	p.t.Helper()
	id := "01KD0000000000000000" + strings.ToUpper(fmt.Sprintf("%06x", born))
	return evalAsync(p, fmt.Sprintf(`fetch('/api/students', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({id: %q, firstName: %q, familyName: '', birthYear: %d, birthMonth: 3, instrument: 'piano', slot: {weekday: 4, start: '15:00', minutes: 30}, books: [%s], begin: %q})}).then(r => r.json()).then(s => s.id)`, id, name, born, books, begin))
}

// A first meeting of a child of four, one of six and of a grown-up, from the plan to what goes home.
// What each is asked first: common practice, no source.
func TestFirstMeetings(t *testing.T) {
	p := atWork(t)
	for _, c := range []struct {
		name        string
		born        int
		book, begin string
		plan        []string // of the plan
		never       string
		passed      string // the game whose exit test is passed
		sheet       []string
	}{
		{"Ylva", 2022, "'Tidelines: Pebbles'", "before", []string{"Palm to palm", "Anchor in the list", "Every pair of posts", "Four on the knees", "let the child be the teacher once"}, "One landmark", "Palm to palm",
			[]string{"Let the child be the teacher once in each game", "Anchor in the list", "Every pair of posts"}},
		{"Aksel", 2020, "'Tidelines: Pebbles'", "before", []string{"The gull sings one", "Find the hidden bell", "Echo under the pier", "Feet, seat, breath", "Over the three posts", "Who walks there?"}, "Palm to palm", "Over the three posts",
			[]string{"Over the three posts", "Draw the two who walked in the music"}},
		{"Rune", 1984, "", "", []string{"Feet, seat, breath", "The wet sleeve", "Which finger is it?", "One landmark", "Five up and back", "A seat that is too low bends the wrist"}, "the child", "Five up and back",
			[]string{"Five up and back", "Alone, a hand shows which finger comes late"}},
	} {
		id := p.arrives(c.name, c.born, c.book, c.begin)
		p.goTo("/students/" + id + "/lesson")
		for _, says := range c.plan {
			p.sees(says)
		}
		p.begins(id)
		p.sees(said("lesson.whatThereHome"))
		assert.NotContains(t, eval[string](p, "document.body.innerText"), c.never, c.name)
		p.press(c.passed)
		p.press(said("ladder.passed3"))
		p.sees(said("lesson.finishLesson"))
		p.press(said("lesson.finishLesson"))
		p.sees(said("lesson.lessonClosed"))
		p.press(said("parts.practiceSheet"))
		for _, says := range c.sheet {
			p.sees(says)
		}
	}
	// what is left open stands on the ladder, in order, until it is passed
	p.goTo("/students/" + p.student("Aksel") + "/ladder")
	p.sees("First meeting:")
	p.press("First meeting:")
	assert.Contains(t, eval[string](p, "document.querySelector('details ol').innerText"), "Sings back")
	assert.NotContains(t, eval[string](p, "document.querySelector('details ol').innerText"), "Learns a small tune")
	p.press(said("ladder.passed", "says", "Sings back one, two, three pitches?"))
	p.until("!document.querySelector('[aria-label^=\"Passed: Sings\"]')", "what is passed goes")
}

// What the home has is asked in the first meeting's first block, and plans and the seat follow.
func TestTheHomeIsAskedInTheFirstMeeting(t *testing.T) {
	full.Only(t, "TestFirstMeetings")
	p := atWork(t)
	p.begins(p.arrives("Signe", 2019, "'Tidelines: Shore'", ""))
	p.pick(said("parts.keys"), "61")
	p.press(said("parts.answersTouchSoftLoud"))
	p.fill("tops", "72")
	p.fill("low", "46")
	p.fill("high", "48")
	p.press(said("account.save"))
	p.until("[...document.querySelectorAll('[name=keys]')].some(s => s.value === '61')", "the answer is kept")
	home := evalAsync(p, `fetch('/api/students/`+p.student("Signe")+`/approach').then(r => r.json()).then(v => JSON.stringify(v.student.home))`)
	for _, says := range []string{`"keys":61`, `"noTouch":true`, `"keyTops":72`, `"benchLow":46`, `"benchHigh":48`} {
		assert.Contains(t, home, says)
	}
}

// Ten students in the middle of their books, taken over by a teacher who is new to the program: within
// five minutes of what hands and head take, half a minute each, and each stands on a ladder.
func TestTenStudentsAreTakenOver(t *testing.T) {
	full.Only(t, "TestTheFirstTenMinutes")
	p := atWork(t)
	y := &typist{page: p}
	p.goTo("/take-over")
	p.sees(said("studio.nobodyTakenOverYet"))
	names := []string{"Alva", "Birk", "Cleo", "Dag", "Edda", "Finn", "Gro", "Heidi", "Isak", "Juni"}
	for i, name := range names {
		p.until("document.activeElement?.name === 'firstName'", "the name is written at once")
		y.hand(true)
		p.key(name)
		p.key("\t")
		age := strconv.Itoa(8 + i)
		p.key(age)
		y.seconds += decided + keyed*float64(len(name)+1+len(age))
		if i%5 == 0 {
			y.chooses("Lesson on", []string{"Friday", "Saturday"}[i/5])
			y.chooses("Book", []string{"Tidelines: Shore", "Tidelines: Harbour"}[i/5])
		}
		y.chooses("Is at", strconv.Itoa(8+i)+" ")
		p.sees(said("studio.threeTicksWhereKnow"))
		for n := range 3 {
			y.hand(false)
			y.seconds += decided + pointed + button
			says := []string{"there: ", "there: ", "missing: "}[n]
			p.press(eval[string](p, fmt.Sprintf("[...document.querySelectorAll('fieldset [aria-label^=%q]')][%d].getAttribute('aria-label')", says, n)))
		}
		y.touches("Take over, and the next")
		p.sees(fmt.Sprintf("%d student", i+1))
		p.sees(name)
	}
	t.Logf("%.0f s by the keystroke-level model", y.seconds)
	assert.Less(t, y.seconds, 300.0)
	p.press(said("studio.allToday"))
	juni := p.student("Juni")
	require.NotEmpty(t, juni)
	p.goTo("/students/" + juni + "/ladder")
	p.sees(said("ladder.missingSkill"))
	p.sees(said("parts.takenGrantedSkills"))
}

// A student from elsewhere is placed at the instrument: one question after another, by keys, until
// it is known where to begin.
func TestPlacingAtTheInstrument(t *testing.T) {
	full.Only(t, "the tests of core/placement")
	p := atWork(t)
	idris := p.student("Idris")
	p.goTo("/students/" + idris + "/ladder")
	p.press("Assumed known")
	p.press(said("parts.askInstrumentInstead"))
	p.sees(said("ladder.firstQuestion"))
	asked := func(n string) { p.t.Helper(); p.sees("After " + n) }
	first := eval[string](p, "document.querySelector('main h2').innerText")
	p.key("1")
	asked("1 answer")
	p.until("document.querySelector('main h2').innerText !== "+strconv.Quote(first), "another thing is asked")
	p.key("3")
	asked("2 answers")
	second := eval[string](p, "document.querySelector('main h2').innerText")
	p.press(said("ladder.skip"))
	p.until("document.querySelector('main h2').innerText !== "+strconv.Quote(second), "what is skipped is not asked")
	p.press(said("ladder.nearly"))
	asked("3 answers")
	for _, key := range []string{"1", "1", "3", "1"} {
		p.key(key)
		p.do(chromedp.WaitReady("main h2"))
	}
	for range 12 { // until the place is known
		if eval[bool](p, "document.body.innerText.includes('starts here')") {
			break
		}
		was := eval[string](p, "document.querySelector('main h2').innerText")
		p.key("3")
		p.until("document.body.innerText.includes('starts here') || document.querySelector('main h2').innerText !== "+strconv.Quote(was), "the next thing is asked")
	}
	p.sees(said("ladder.startHere"))
	p.press(said("ladder.beginsHere", "firstName", "Idris"))
	p.press(said("ladder.enoughLadder"))
	p.sees(said("ladder.suggestions"))
	p.sees(said("ladder.missingSkill"))
	p.goTo("/students/" + idris + "/record")
	p.sees(first + ": pass")
}

// In the first lessons of a student from elsewhere the list stands beside the plan.
func TestWhatIsTakenForGrantedInTheFirstLesson(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	id := evalAsync(p, `fetch('/api/students', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({id: '01KD0000000000000000000TRA', firstName: 'Fenna', familyName: '', birthYear: 2014, birthMonth: 3, instrument: 'piano', slot: {weekday: 4, start: '15:00', minutes: 30}, books: ['Tidelines: Harbour'], begin: 'harbour-lantern'})}).then(r => r.json()).then(s => s.id)`)
	p.goTo("/students/" + id + "/lesson")
	p.sees(said("parts.takenGrantedSkills"))
	p.press("Assumed known")
	name := eval[string](p, `document.querySelector('[aria-label^="Missing: "]').getAttribute('aria-label').slice(9)`)
	p.press(said("parts.missingNamed") + " " + name)
	p.until(`!document.querySelector('[aria-label^="Missing: `+name+`"]')`, "what was answered is asked no more")
	p.goTo("/students/" + id + "/ladder")
	p.sees(said("ladder.missingSkill") + " " + name)
}
