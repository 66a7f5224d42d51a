package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/webauthn"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// A lesson that nobody closed on its day is asked after the next morning, closed with two
// touches, and its sheet goes out with its own date.
func TestYesterdaysLessonIsClosedToday(t *testing.T) {
	p := atWork(t)
	emil := p.student("Emil")
	p.begins(emil)
	p.key("u")
	p.sees("Begin the lesson") // begun by mistake, taken back where it was begun
	p.begins(emil)
	p.setClock("2026-11-19T09:00:00Z")
	p.goTo("/")
	p.sees("Emil, Wed 18 Nov, begun")
	p.press("Emil, Wed 18 Nov")
	p.sees("This is the lesson of Wednesday 18 November")
	p.press("Close the lesson")
	p.sees("Lesson closed")
	p.press("Mark something more")
	p.sees("they are dated to that lesson")
	p.key("e")
	p.key("forgot to say: sings at home")
	p.key(kb.Enter)
	p.sees("forgot to say")
	p.press("That is all")
	p.goTo("/sheets?day=2026-11-18")
	p.sees("Send 1 sheet")
	p.press("Send 1 sheet")
	p.sees("Sent to")

	p.press("Tobias, Wed 18 Nov")
	p.press("It was not given")
	p.sees("was not given.")
	p.press("Take it back")
	p.sees("Tobias, Wed 18 Nov: given?")

	freya := p.student("Freya") // whose lesson is today at 16:30
	p.goTo("/students/" + freya + "/lesson")
	p.sees("Begin the lesson")
	meilin := p.student("Mei-Lin") // tomorrow
	p.goTo("/students/" + meilin + "/lesson")
	p.press("Give it now instead")
	p.sees("Close the lesson")
	p.goTo("/calendar")
	p.sees("not given")
}

// Everything is two keys and a name away.
func TestFindingByOneKey(t *testing.T) {
	p := atWork(t)
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("niko")
	p.sees("Nikolai Abara, ladder")
	p.key(kb.Enter)
	p.until("location.pathname.endsWith('/ladder') && document.title.startsWith('Nikolai Abara: Ladder')", "his ladder, and its name in the tab")
	p.until("document.activeElement.closest('#content') !== null", "the focus is on the page")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.sees("Lately")
	p.key("niko week")
	p.sees("Nikolai Abara, week sheet")
	p.key(kb.Escape)
	for words, sees := range map[string]string{"skye": "Skye boat tune", "two swings": "Two swings of three", "mailb": "Mailbox"} {
		p.key("/")
		p.until("document.querySelector('[cmdk-input]')", "the field of search")
		p.key(words)
		p.sees(sees)
		p.key(kb.Escape)
		p.until("!document.querySelector('[cmdk-input]')", "search is closed")
	}
	p.key("?")
	p.sees("Everywhere")
	p.key(kb.Escape)
	p.key(">")
	p.sees("Thu 19 Nov")
	p.until("document.querySelector('nav[aria-label=\"Lessons on Thu 19 Nov\"]')", "tomorrow's lessons")
}

func TestTheDayAndAllStudentsLaidOut(t *testing.T) {
	p := atWork(t)
	p.goTo("/studio/today")
	p.sees("Print 4 plans")
	p.sees("To have ready")
	pages := eval[int](p, "document.querySelectorAll('.one-page').length")
	assert.Equal(t, 4, pages, "a page a lesson")
	assert.Contains(t, eval[string](p, "document.querySelector('.one-page').textContent"), "Anselm Boateng", "which says whose it is")
	p.press("Later")
	p.sees("Thursday 19 November")
	p.goTo("/studio/students")
	p.sees("Weather Glass: In its week 9")
	p.press("stuck")
	p.sees("What helps, the likeliest first")
}

// A student is corrected, pauses, leaves and comes back; another is deleted for good.
func TestAStudentsStay(t *testing.T) {
	p := atWork(t)
	zuri := p.student("Zuri")
	p.goTo("/students/" + zuri + "/settings")
	p.fill("familyName", "Haddad-Lund")
	p.press("Keep")
	p.sees("Zuri Haddad-Lund")
	p.press("Zuri has left")
	p.sees("All that was told stays here")
	p.goTo("/studio")
	p.until("[...document.querySelectorAll('section[aria-label=Left] b')].some(b => b.innerText.startsWith('Zuri'))", "listed among those who left")
	p.goTo("/students/" + zuri + "/settings")
	p.press("Zuri is back")
	p.sees("Zuri comes every week")
	p.press("Pause")
	p.overwrite("document.querySelector('[name=until]')", "2026-12-04")
	p.press("Pause the lessons")
	p.sees("Zuri pauses until Friday 4 December")

	p.press("Delete for good")
	p.fill("name", "Zara")
	p.press("Delete Zuri for good")
	p.sees("Nothing was deleted")
	p.fill("name", "Zuri")
	p.press("Delete Zuri for good")
	p.sees("it names nobody")
	p.press("To the studio")
	p.sees("14 students")
	p.goTo("/students/" + zuri + "/record")
	p.sees("This student is not here")
	p.goTo("/nowhere/at/all")
	p.sees("There is no such page")
}

// An address that somebody wanted before signing in is where they come to; a forgotten
// password is set by mail; a passkey opens the account without one.
func TestSigningInAgain(t *testing.T) {
	site := newSite(t, true)
	p := open(t, strings.Replace(site.URL, "127.0.0.1", "localhost", 1), 1280, 800) // passkeys hold for names
	p.goTo("/studio/account")
	p.sees("Sign in")
	p.fill("email", demo.Email)
	p.fill("password", demo.Password)
	p.key(kb.Enter)
	p.sees("Sign-ins")
	p.sees("this one")

	_, err := chromedp.Call(p.ctx, webauthn.Enable, webauthn.EnableParams{})
	require.NoError(t, err)
	_, err = chromedp.Call(p.ctx, webauthn.AddVirtualAuthenticator, webauthn.AddVirtualAuthenticatorParams{Options: &webauthn.VirtualAuthenticatorOptions{
		Protocol: "ctap2", Transport: "internal", HasResidentKey: true, HasUserVerification: true, IsUserVerified: true, AutomaticPresenceSimulation: true}})
	require.NoError(t, err)
	form := func(title, field, text string) {
		at := fmt.Sprintf("document.querySelector('form[aria-label=%q] [name=%s]')", title, field)
		p.overwrite(at, text)
	}
	form("Passkeys", "name", "the studio's laptop")
	form("Passkeys", "password", demo.Password)
	p.press("Make a passkey on this device")
	p.sees("the studio's laptop, since")
	p.goTo("/studio")
	p.press("Sign out")
	p.press("Sign in by passkey")
	p.sees("What follows, and why")

	p.goTo("/studio")
	p.press("Sign out")
	p.press("I forgot my password")
	p.fill("email", demo.Email)
	p.press("Send me a link")
	p.sees("a mail is on its way")
	var link string
	for deadline := time.Now().Add(patience); link == "" && time.Now().Before(deadline); time.Sleep(100 * time.Millisecond) {
		for _, l := range site.box.Letters() {
			if _, after, found := strings.Cut(l.Text, "/reset#"); found {
				link = strings.Fields(after)[0]
			}
		}
	}
	require.NotEmpty(t, link)
	p.goTo("/reset#" + link)
	p.fill("password", "qwertyuiop")
	p.key(kb.Enter)
	p.sees("tried first")
	p.fill("password", "harbour gull lantern")
	p.key(kb.Enter)
	p.sees("The password is set")
	p.press("Sign in")
	p.fill("email", demo.Email)
	p.fill("password", "harbour gull lantern")
	p.key(kb.Enter)
	p.sees("What follows, and why")
}

// The lessons of today open without a connection, a reload included; what is marked waits and
// arrives; a second tab shows it at once.
func TestAnAfternoonWithoutAConnection(t *testing.T) {
	site := newSite(t, true)
	p := open(t, strings.Replace(site.URL, "127.0.0.1", "localhost", 1), 1280, 800) // workers need a name or https
	p.signIn()
	emil, tobias := p.student("Emil"), p.student("Tobias")
	p.until("navigator.serviceWorker.controller", "the worker keeps the page")
	kept := func(path string) string {
		return fmt.Sprintf("(window.found = window.found || {}, caches.open('studio-api').then(c => c.match(%q)).then(r => { window.found[%[1]q] = !!r }), window.found[%[1]q])", path)
	}
	for _, id := range []string{emil, tobias} {
		for _, place := range []string{"lesson", "ladder", "week"} {
			p.until(kept("/api/students/"+id+"/"+place), "the "+place+" is at hand")
		}
	}
	p.goTo("/students/" + emil + "/lesson")
	p.sees("The plan")
	p.key("b")
	p.sees("Close the lesson")
	site.off.Store(true)
	p.key("e")
	p.key("liked the storm")
	p.key(kb.Enter)
	p.sees("liked the storm")
	p.goTo("/students/" + emil + "/lesson") // a reload
	p.sees("No connection.")
	p.sees("liked the storm")
	p.goTo("/students/" + tobias + "/lesson")
	p.sees("The plan")
	p.sees("Shore Path")
	site.off.Store(false)
	p.until("!document.body.innerText.includes('No connection.')", "the connection is back")
	p.goTo("/students/" + emil + "/record")
	p.sees("liked the storm")
	assert.NotContains(t, eval[string](p, "document.body.innerText"), "kept on this device")
}

// rosterOfForty is a table of forty students, twelve of them on the day of a moment.
func rosterOfForty(now time.Time) string {
	first := []string{"Alma", "Bertil", "Clementine", "Dagny", "Eskil", "Frida", "Gustava", "Halvard", "Ingeborg", "Jannike", "Kristoffer", "Linnea", "Magnus", "Nora", "Oskar", "Petronella", "Ragnhild", "Sigurd", "Tove", "Ulrik"}
	table := "First name;Family name;Born;Instrument;Day;Start;Minutes;Books\r\n"
	for i := range 40 {
		day, start := now.Weekday(), 13*60+35*i
		if i >= 12 {
			day, start = time.Weekday((int(now.Weekday())+1+i%5)%7), 14*60+35*(i/5)
		}
		table += fmt.Sprintf("%s;Dahl%c;%d-05;piano;%s;%d:%02d;30;Tidelines: Harbour\r\n", first[i%20], 'a'+i/20, now.Year()-8-i%6, day, start/60, start%60)
	}
	return table
}

// Forty students come as a table with semicolons; a day of twelve lessons can be read on its
// ribbon, and all is taken back as a whole. A book comes as a list of its titles.
func TestFortyStudentsFromATable(t *testing.T) {
	p := open(t, newSite(t, false).URL, 1280, 800)
	p.goTo("/")
	p.press("I am new here")
	p.fill("name", "Ingrid Dahl")
	p.fill("studio", "The Attic")
	p.fill("email", "ingrid@attic.example")
	p.fill("password", "three unrelated words")
	p.press("Open the studio")
	p.sees("No students yet")
	p.press("Put them on the shelf")
	p.until("document.querySelectorAll('form[aria-label=\"New student\"] fieldset input').length > 3", "the books are on the shelf")

	table := rosterOfForty(time.Now())
	file := filepath.Join(t.TempDir(), "students.csv")
	require.NoError(t, os.WriteFile(file, []byte(table+"Olaf;Dahl;soon;piano;Monday;15:00;30;\r\n"), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="A table of students"]`), []string{file}))
	p.sees("40 new, 0 changed, 0 the same, 1 line not taken")
	p.sees(`Line 42: "soon" is not a month of birth`)
	p.press("Keep 40 changes")
	p.sees("40 students, by")
	p.goTo("/studio/today")
	p.sees("12 lessons")
	cut := eval[string](p, `[...document.querySelectorAll('nav[aria-label="Lessons today"] a')].filter(a => a.scrollWidth > a.clientWidth + 1).map(a => a.innerText).join(', ')`)
	assert.Empty(t, cut, "names cut on the ribbon")
	p.look("ribbon-of-twelve")
	p.goTo("/studio/students")
	p.sees("To order or print")
	p.key("/")
	p.until("document.querySelector('[cmdk-input]')", "the field of search")
	p.key("ulrik dahlb")
	p.sees("Ulrik Dahlb, ladder")
	p.key(kb.Enter)
	p.until("location.pathname.endsWith('/ladder')", "his ladder")
	p.sees("What follows, and why")

	p.goTo("/shelf")
	p.fill("listBook", "Attic songs")
	eval[bool](p, `(() => { const a = document.querySelector('[name=listTitles]'); a.focus(); return true })()`)
	p.do(chromedp.KeyEvent("First:\n1. Rope Walk\n2. Slack Water\n3. Rafters"))
	p.press("Put them on the shelf")
	p.sees("3 titles put on the shelf")
	p.press("Put them on the shelf")
	p.sees("0 titles put on the shelf; 3 stood there already")
}

// One child on two instruments: taken on for the second from the settings of the first, and both
// weeks open from one link.
func TestOneChildTwoInstruments(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	emil := p.student("Emil")
	p.goTo("/students/" + emil + "/settings")
	p.press("Plays another instrument too")
	p.pick("Lesson on", "Monday")
	p.press("Take Emil on for it")
	p.until("!location.pathname.includes('"+emil+"')", "the other instrument's settings")
	p.sees("8 · piano")
	p.press("also cello")
	p.until("location.pathname === '/students/"+emil+"/ladder'", "back on the cello")
	p.goTo(evalAsync(p, `fetch('/api/students/`+emil+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`))
	p.sees("Emil's practice")
	p.press("piano")
	p.sees("first week sheet comes after the first lesson")
	p.press("cello")
	p.sees("Emil's practice")
}
