package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/internal/full"
	"patientladder/studio/places"
)

// at moves the demo's clock.
func (p *page) at(moment string) {
	p.t.Helper()
	status := evalAsync(p, fmt.Sprintf("fetch('/api/clock', {method: 'PUT', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({to: %q})}).then(r => String(r.status))", moment))
	require.Equal(p.t, "204", status)
}

// lesson is a student's lesson as the server tells it.
func (p *page) lesson(student string) (v places.LessonView) {
	p.t.Helper()
	text := evalAsync(p, fmt.Sprintf("fetch('/api/students/%s/lesson').then(r => r.text())", student))
	require.NoError(p.t, json.Unmarshal([]byte(text), &v))
	return v
}

func minutes(v places.LessonView) (sum int) {
	for _, b := range v.Plan.Blocks {
		sum += b.Minutes
	}
	return sum
}

// Pip's first lesson: fifteen minutes, five aims, short first rounds; one is
// stretched, an exit test retires its games, and what is left over is carried into
// the next plan.
func TestAFirstLesson(t *testing.T) {
	p := atWork(t)
	pip := p.student("Pip")
	p.at("2026-11-21T09:30:00Z")
	p.goTo("/students/" + pip + "/lesson")
	p.sees(said("lesson.startLesson"))
	p.sees("is ready for the next lesson")
	plan := p.lesson(pip)
	var aims []string
	for _, b := range plan.Plan.Blocks {
		if b.Aim != "" {
			aims = append(aims, b.Aim)
			assert.LessOrEqual(t, b.Minutes, 3)
		}
	}
	assert.Len(t, aims, 5)
	assert.Equal(t, 15, minutes(plan))

	p.key("b")
	p.sees(said("lesson.finishLesson"))
	p.key(kb.ArrowDown)
	p.sees(said("lesson.askBeforeTouch"))
	p.sees(said("activities.exitTest2"))
	p.press(spoken("game.hand-outlines.title")) // another game of the same aim
	p.sees(spoken("game.hand-outlines.level-1"))
	p.key("1")
	p.sees(said("ladder.passed2"))
	p.key(kb.ArrowDown)
	p.key("+")
	p.sees(said("lesson.setMinutes", "minutes", "3"))
	p.key("+")
	p.sees(said("lesson.setMinutes", "minutes", "4"))
	p.key("2")
	p.until("document.querySelector('button[aria-pressed=true]')?.innerText.includes('Nearly')", "marked nearly")
	assert.Equal(t, 15, minutes(p.lesson(pip)), "the rest answers")
	p.key("c")
	p.sees(said("lesson.whatChanged"))
	p.sees("Telling left from right: passed")
	p.sees(said("lesson.nextLesson", "day", "Saturday 28 November"))
	p.until("document.querySelector('[aria-label=\"Sketch of the next lesson\"]').innerText.includes('min')", "the next lesson is sketched")
	sketch := eval[string](p, "document.querySelector('[aria-label=\"Sketch of the next lesson\"]').innerText")
	assert.NotContains(t, sketch, "hand is it", "the games of a passed aim are retired")
	assert.Contains(t, sketch, "Every pair of posts", "an aim that was not answered is carried")
	assert.Equal(t, "left-right", p.lesson(pip).Noted[2].Fact.Body.(fact.ActivityDone).Aim)
}

// Emil's half hour by keys alone: a point met, a spot counted, a foothold granted,
// taken back and granted again, with the network gone in the middle; closed in
// under twenty keys.
func TestAHalfHourByKeys(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("lesson.startLesson"))
	keys := 0
	press := func(k string) { p.key(k); keys++ }
	press("b")
	p.sees(said("lesson.finishLesson"))
	press(kb.ArrowDown)
	p.sees(said("dates.howDidGo"))
	press("4")
	p.sees(said("parts.heardGrade", "grade", "easy"))
	press(kb.ArrowDown)
	press(kb.ArrowDown)
	p.sees(said("lesson.reached", "name", "Bow hold"))
	press("s")
	p.sees(said("lesson.inARow", "spotGoal", "4"))
	press("s")
	p.sees(said("lesson.inARow", "spotGoal", "5"))
	s.unplug()
	press(kb.Enter)
	p.sees("kept on this device")
	press("q")
	p.sees(said("lesson.tryThis") + " slide the thumb")
	s.plug()
	p.until("!document.querySelector('[data-testid=waiting]')", "the marks were sent")
	p.sees(said("lesson.allGoalsReached"))
	press("f")
	p.sees(spoken("reason.foothold", "title", "Lamp Room"))
	press("u")
	p.sees(said("lesson.markLearnt2"))
	p.until("!document.body.innerText.includes('is learnt.')", "undone")
	press("f")
	p.sees(spoken("reason.foothold", "title", "Lamp Room"))
	p.until("!document.body.innerText.includes('kept here')", "all is sent")
	press("c")
	p.sees(said("lesson.whatChanged"))
	p.sees(spoken("reason.foothold", "title", "Lamp Room"))
	p.sees(said("lesson.practiceSheetReadySmallTasks"))
	p.sees(said("lesson.nextLesson", "day", "Wednesday 25 November"))
	assert.LessOrEqual(t, keys, 18, "a usual lesson by keyboard")
	kinds := told(p, emil)
	assert.Positive(t, kinds["seen"])
	assert.Positive(t, kinds["lesson_closed"])
}

// A lesson that runs over says what gives in the rest of it.
func TestRunningOver(t *testing.T) {
	full.Only(t, "the tests of core/lesson")
	p := atWork(t)
	emil := p.student("Emil")
	p.at("2026-11-18T15:40:00Z") // the studio's clock goes on while other tests run
	p.begins(emil)
	p.until("!document.body.innerText.includes('kept here')", "the lesson is open")
	p.at("2026-11-18T15:54:00Z")
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("lesson.finishLesson"))
	p.press("D scale, one octave")
	p.sees(said("lesson.atThisPace"))
	p.sees("minutes over.")
	p.until("/is cut to|waits for next time/.test(document.querySelector('[aria-label=\"At this pace\"]').innerText)", "it says what gives")
}

// Walter tells of pain: playing stops on the spot, the app says whom to see, and
// the next lesson asks for the other hand only until it is cleared.
func TestPainIsTold(t *testing.T) {
	p := atWork(t)
	walter := p.student("Walter")
	p.at("2026-11-21T10:00:00Z")
	p.goTo("/students/" + walter + "/lesson")
	p.sees(said("lesson.startLesson"))
	p.key("b")
	p.sees(said("lesson.painNumbnessTingling"))
	p.press(said("lesson.pain2", "side", "right"))
	p.sees(said("lesson.noPlayingSideUntilLicensed"))
	p.sees(spoken("reason.pain-stop"))
	p.press("Fourths and fifths from a landmark")
	p.sees("without playing")
	v := p.lesson(walter)
	assert.Equal(t, "pain", v.Plan.Mode)
	assert.Equal(t, 60, minutes(v))
	for _, b := range v.Plan.Blocks[1:] {
		assert.Contains(t, []string{"activity", "reading", "close", "home"}, string(b.Kind), "%s is not played", b.Title)
	}
	p.key("c")
	p.sees(said("lesson.whatChanged"))
	p.at("2026-11-28T09:00:00Z")
	p.goTo("/students/" + walter + "/lesson")
	p.sees(said("lesson.startLesson"))
	p.sees("The left hand only, gently.")
	p.press(said("lesson.clinicianHasCleared"))
	p.until("!document.body.innerText.includes('The left hand only')", "the plan is whole again")
}

// Lessons that are not given, moved or swapped are told, and calendar, ribbon and
// forecast answer.
func TestMissedMovedAndSwapped(t *testing.T) {
	p := atWork(t)
	emil, tobias := p.student("Emil"), p.student("Tobias")
	// where the rungs ahead are expected, in calendar weeks from now
	forecast := func() (places map[string]float64) {
		text := evalAsync(p, fmt.Sprintf("fetch('/api/students/%s/ladder').then(r => r.json()).then(l => JSON.stringify(Object.fromEntries(l.rungs.filter(r => r.place).map(r => [r.title, r.place.mid]))))", emil))
		require.NoError(t, json.Unmarshal([]byte(text), &places))
		return places
	}
	before := forecast()
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("lesson.cancelLesson"))
	p.press(said("lesson.onlineLesson"))
	p.sees(spoken("reason.remote-lesson"))
	p.press(said("lesson.5MinutesToday"))
	p.sees("25 minutes")
	p.press(said("lesson.cancelLesson"))
	p.sees(said("lesson.cancelLesson2", "day", "Wednesday 18 November"))
	p.press(said("lesson.cancelIllness"))
	p.sees(said("lesson.lessonCancelled", "day", "Wednesday 18 November", "value", " for illness"))
	p.sees("Wednesday 25 November at 16:00")
	p.until("!document.querySelector('nav[aria-label=\"Lessons today\"]').innerText.includes('Emil')", "off the ribbon")
	later := 0
	for title, place := range forecast() {
		if place > before[title]+0.5 {
			later++
		}
	}
	assert.GreaterOrEqual(t, later, 3, "the forecast answers")
	p.goTo("/students/" + emil + "/lesson")
	p.sees(said("lesson.startLessonNow", "day", "Wed 25 Nov"))
	p.press(said("ladder.undo"))
	p.sees(said("lesson.startLesson"))
	p.until("document.querySelector('nav[aria-label=\"Lessons today\"]').innerText.includes('Emil')", "and on it again")

	p.goTo("/students/" + tobias + "/lesson")
	p.press(said("lesson.rescheduleSwap"))
	p.pick(said("lesson.swapWith"), "swap with Saoirse")
	p.press(said("lesson.reschedule"))
	p.sees("Thursday 19 November at 15:30")
	saoirse := p.student("Saoirse")
	require.Eventually(t, func() bool { // a fact of hers, told after his
		v := p.lesson(saoirse)
		return v.Day == "2026-11-18" && v.Start == "16:40"
	}, patience, 100*time.Millisecond)
}

// The seat answers as numbers change, refuses what cannot be, and is kept with the
// student.
func TestTheSeat(t *testing.T) {
	full.Only(t, "the tests of core/seat")
	p := atWork(t)
	priya := p.student("Priya")
	p.goTo("/workbench?student=" + priya)
	p.sees(spoken("reason.measure-first"))
	p.sees("Give a stature, or both the elbow above the seat and the lower leg; a tape measure is better.")
	set := func(label, value string) {
		p.until(fmt.Sprintf("document.querySelector('input[aria-label=%q]')", label), label)
		eval[bool](p, fmt.Sprintf("(i => { i.focus(); i.select(); return true })(document.querySelector('input[aria-label=%q]'))", label))
		p.key(value)
	}
	set("Stature", "13")
	p.sees("A stature of 13 cm cannot be right; measure again")
	set("Stature", "134")
	p.sees(spoken("reason.seat-estimated"))
	set("Elbow above the seat", "18")
	set("Lower leg", "33")
	p.sees(spoken("reason.seat-height", "cm", "54", "low", "54", "high", "54"))
	p.sees("Platform 21 cm")
	p.press(said("settings.atHome"))
	set("Seat at its highest", "48")
	set("Seat at its lowest", "46")
	set("One firm tile", "3")
	set("White keys above the floor", "72")
	p.sees("2 firm tiles on the bench at its highest.")
	p.press(said("workbench.inchesShort"))
	p.sees("Seat at 21.3 in.")
	p.press("cm")
	p.pressTwice(said("workbench.saveTheseNumbers"))
	p.sees(said("calendar.saved"))
	p.goTo("/students/" + priya + "/lesson")
	p.press(said("lesson.posture"))
	p.sees(spoken("reason.seat-height", "cm", "54", "low", "54", "high", "54"))
	assert.Equal(t, 1, told(p, priya)["seat_measured"])
}

// A teacher's own activity is taken, checked, and offered in a lesson.
func TestAnOwnActivity(t *testing.T) {
	full.Only(t, "the tests of core/activity")
	p := atWork(t)
	p.goTo("/activities")
	p.sees(said("count.activity", "n", "117"))
	p.fill("title", "Boathook")
	p.fill("from", "9")
	p.fill("to", "5")
	p.fill("level1", "Hook the note that is called.")
	p.press(said("account.save"))
	p.sees("ages 9 to 5 do not make a range")
	p.fill("to", "12")
	p.pressTwice(said("account.save"))
	p.sees(said("count.activity", "n", "118"))
	p.sees("Boathook")
	p.press(said("activities.remove"))
	p.sees(said("count.activity", "n", "117"))
}

// What was given can be looked up: last week's sheet and lesson stay as they were, a
// setting changed meanwhile moves nothing, a pain told makes a revision that says so,
// and the record says what was asked and ticked.
func TestPastWeeksCanBeOpened(t *testing.T) {
	full.Only(t, "TestTheSheetIsTheTeachers")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/week")
	p.sees(said("week.givenEndLesson"))
	text := "document.querySelector('[data-testid=sheet] table').innerText"
	before := eval[string](p, text)
	p.press(said("lesson.earlier"))
	p.until("location.search.includes('day=2026-11-04')", "the address names the lesson")
	p.sees("Wednesday 4 November")
	p.goTo("/students/" + emil + "/settings")
	p.press("a third")
	p.press(said("settings.saveThis"))
	p.goTo("/students/" + emil + "/week")
	p.sees(said("week.givenEndLesson"))
	assert.Equal(t, before, eval[string](p, text), "the paper on the fridge says the same")

	p.goTo("/students/" + emil + "/lesson?day=2026-11-04")
	p.sees("Lesson finished, Wednesday 4 November")
	p.sees(said("lesson.whatChanged"))
	p.goTo("/students/" + emil + "/record")
	p.sees(said("record.askedHomeTicked"))
	p.goTo("/students/" + emil + "/lesson")
	p.press(said("lesson.startLesson"))
	p.press(said("lesson.pain2", "side", "left"))
	p.sees(said("lesson.noPlayingSideUntilLicensed"))
	p.goTo("/students/" + emil + "/week")
	p.sees("pain was noted, by you")
}

// "+" pressed five times is five minutes, whatever the line does; how the lesson went
// is one touch; U takes back the teacher's mark and never the family's.
func TestTouchesCount(t *testing.T) {
	full.Only(t, "TestAHalfHourByKeys")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	tobias := p.student("Tobias")
	p.begins(tobias)
	p.key(kb.ArrowDown)
	before := p.lesson(tobias).Plan.Blocks[1].Minutes
	s.lag.Store(int64(400 * time.Millisecond))
	for range 5 {
		p.key("+")
	}
	p.sees(fmt.Sprintf("set to %d minutes by you", before+5))
	s.lag.Store(0)
	assert.Eventually(t, func() bool { return p.lesson(tobias).Plan.Blocks[1].Minutes == before+5 }, 5*time.Second, 50*time.Millisecond)
	p.key("c")
	p.sees(said("lesson.forYouThisLesson"))
	p.key("1")
	p.until("document.querySelector('button[aria-pressed=true]')?.innerText.includes('flowed')", "rated in one touch")
	token := strings.TrimPrefix(evalAsync(p, `fetch('/api/students/`+tobias+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`), "/family/")
	ticked := evalAsync(p, `(async () => {
		const at = '/api/family/`+token+`';
		const v = await (await fetch(at)).json();
		const day = v.sheet.days.find(d => d.tasks.length);
		const fact = {id: '01KTESTTJCK000000000000001', student: v.student, at: new Date(new Date(v.now).getTime() + 1000).toISOString(),
			body: {kind: 'ticked', day: v.today, document: v.document.id, line: day.tasks[0].key}};
		return String((await fetch(at + '/facts', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({facts: [fact]})})).status);
	})()`)
	require.Equal(t, "204", ticked)
	p.goTo("/students/" + tobias + "/lesson")
	p.sees(said("lesson.forYouThisLesson"))
	p.key("u")
	p.until("!document.querySelector('button[aria-pressed=true]')", "the teacher's last mark is taken back")
	p.key("u")
	p.sees(said("lesson.finishLesson"))
	entries := evalAsync(p, `fetch('/api/students/`+tobias+`/record').then(r => r.json()).then(v => String(v.entries.filter(e => e.fact.id === '01KTESTTJCK000000000000001' && !e.back).length))`)
	assert.Equal(t, "1", entries, "U never takes back what the family told")
}
