package e2e

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/internal/full"
)

// twoDevices opens the demo studio on two devices of its teacher.
func twoDevices(t *testing.T) (s *site, a, b *page) {
	s = newSite(t, true)
	a, b = open(t, s.URL, 1280, 800), open(t, s.URL, 1280, 800)
	a.signIn()
	b.signIn()
	return s, a, b
}

// Two devices edit one piece: what only one touched stands, what both changed is asked about with
// both texts, and what was typed stays in its form until then.
func TestTwoDevicesEditOnePiece(t *testing.T) {
	s, a, b := twoDevices(t)
	for _, p := range []*page{a, b} {
		p.goTo("/items/bow-lamp")
		p.press(said("activities.edit"))
		p.sees(said("item.saidBeforePlaying"))
	}
	title, unit := `document.querySelector('form[aria-label^=Edit] input[required]')`, `[...document.querySelectorAll('form[aria-label^=Edit] label')].find(l => l.innerText.startsWith('Unit')).querySelector('input')`
	b.overwrite(unit, "3 Lamplight")
	b.overwrite(title, "The Lamp Room")
	b.press(said("account.save"))
	b.sees("The Lamp Room")
	a.overwrite(title, "Lamp Room by Night") // from a page that is older
	a.press(said("account.save"))
	a.sees("Another device has changed this too.")
	a.sees(said("parts.thisDevice") + " Lamp Room by Night")
	a.sees(said("parts.otherDevice") + " The Lamp Room")
	assert.Equal(t, "Lamp Room by Night", eval[string](a, title+".value"), "what was typed is still there")
	a.goTo("/items/bow-lamp") // a reload
	a.press(said("activities.edit"))
	a.sees(said("parts.thisDevice") + " Lamp Room by Night")
	s.unplug()
	a.press(said("parts.saveChoice"))
	a.sees("The studio's server cannot be reached.")
	a.sees(said("parts.otherDevice") + " The Lamp Room")
	s.plug()
	a.press(said("parts.saveChoice"))
	a.until("!document.body.innerText.includes('Another device has') && document.querySelector('h1')?.innerText.startsWith('Lamp Room by Night')", "it is kept")
	b.goTo("/items/bow-lamp")
	b.sees("Lamp Room by Night")
	assert.Equal(t, "3 Lamplight", evalAsync(b, "fetch('/api/items/bow-lamp').then(r => r.json()).then(v => v.item.unit)"), "the other field of the other device stands")
}

// Two devices keep free days of one calendar: both stand.
func TestTwoDevicesKeepOneCalendar(t *testing.T) {
	full.Only(t, "TestTwoDevicesEditOnePiece, and TestSeveralDevicesAtOnce")
	_, a, b := twoDevices(t)
	for _, p := range []*page{a, b} {
		p.goTo("/calendar")
		p.sees(said("calendar.holidays"))
	}
	add := func(p *page, name, day string) {
		p.press(said("calendar.addA", "one", "holiday"))
		row := "[...document.querySelectorAll('[aria-label=\"Name of the holiday\"]')].at(-1)"
		p.overwrite(row, name)
		p.overwrite(`document.querySelector('[aria-label="First day of `+name+`"]')`, day)
		p.overwrite(`document.querySelector('[aria-label="Last day of `+name+`"]')`, day)
		p.press(said("calendar.saveTermsHolidays"))
		p.until("[...document.querySelectorAll('button')].some(b => b.innerText === 'Saved')", "kept")
	}
	add(a, "Harbour day", "2026-12-01")
	add(b, "Regatta", "2026-12-02") // whose page knows nothing of the other
	free := evalAsync(a, "fetch('/api/calendar').then(r => r.json()).then(v => v.free.map(f => f.name).join('|'))")
	assert.True(t, strings.Contains(free, "Harbour day") && strings.Contains(free, "Regatta"), free)
	b.until(`[...document.querySelectorAll('[aria-label="Name of the holiday"]')].some(i => i.value === 'Harbour day')`, "the form shows both")
}

// Two devices plan one concert: pieces that one adds and another takes out, and its going away under
// an older page, which says so.
func TestTwoDevicesPlanOneConcert(t *testing.T) {
	full.Only(t, "TestTwoDevicesEditOnePiece, and TestSeveralDevicesAtOnce")
	_, a, b := twoDevices(t)
	a.goTo("/studio/dates")
	a.press("Concert at the Ferry House")
	a.sees(said("dates.whatCouldPlayed"))
	b.goTo(eval[string](a, "location.pathname"))
	b.sees(said("dates.whatCouldPlayed"))
	count := "fetch('/api' + location.pathname.replace('studio/dates', 'events')).then(r => r.json()).then(v => v.event.entries.map(e => e.rung).join('|'))"
	before := strings.Split(evalAsync(a, count), "|")
	withdraw := "document.querySelectorAll('main ol > li button[aria-label^=\"Remove:\"]')[%s].click()"
	eval[any](a, strings.Replace(withdraw, "%s", "0", 1))
	eval[any](b, strings.Replace(withdraw, "%s", "1", 1)) // at once, from a page with both
	left := len(before)
	for range 100 {
		if left = len(strings.Split(evalAsync(b, count), "|")); left == len(before)-2 {
			break
		}
	}
	assert.Equal(t, len(before)-2, left, "both are out")
	a.goTo(eval[string](b, "location.pathname"))
	a.sees(said("dates.whatCouldPlayed"))
	a.press(said("activities.remove"))
	a.until("location.pathname === '/studio/dates'", "it is away")
	eval[any](b, strings.Replace(withdraw, "%s", "0", 1))
	b.sees("Another device has removed this.")
	b.press(said("parts.leaveRemoved"))
	b.sees("There is no such day in this studio.")
}

// Two devices plan one shared hour: each chooses a tune, and both are played.
func TestTwoDevicesPlanOneHour(t *testing.T) {
	full.Only(t, "TestTwoDevicesEditOnePiece, and TestSeveralDevicesAtOnce")
	_, a, b := twoDevices(t)
	made := evalAsync(a, `(async () => {
		const day = await (await fetch('/api/day')).json();
		const id = '01K' + Math.random().toString(32).slice(2).toUpperCase().replace(/[^0-9A-HJKMNP-TV]/g, '').padEnd(23, '0').slice(0, 23);
		const now = {id, name: 'Five of us', day: '2026-12-05', minutes: 60, students: day.students.slice(0, 5).map(s => s.id), tunes: [], fresh: false, sitOut: false, left: [], marked: false};
		return (await fetch('/api/hours/' + id, {method: 'PUT', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({now})})).status + ' ' + id;
	})()`)
	assert.True(t, strings.HasPrefix(made, "204 "), made)
	at := "/workbench/hours/" + strings.TrimPrefix(made, "204 ")
	tunes := "[...document.querySelectorAll('section[aria-label=\"What they can play\"] input[type=checkbox]')]"
	for _, p := range []*page{a, b} {
		p.goTo(at)
		p.until(tunes+".length > 1", "tunes to choose from")
	}
	eval[any](a, tunes+"[0].click()")
	eval[any](b, tunes+"[1].click()")
	n := ""
	for tries := 0; tries < 100 && n != "2"; tries++ {
		n = evalAsync(a, "fetch('/api/hours/' + location.pathname.split('/').at(-1)).then(r => r.json()).then(v => String(v.hour.tunes.length))")
	}
	for _, p := range []*page{a, b} {
		p.goTo(at)
		p.until(tunes+".filter(i => i.checked).length === 2", "both are chosen")
	}
}
