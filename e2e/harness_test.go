// Package e2e drives the real interface in headless Chromium, against the real
// server and a real database.
package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"
	"unicode/utf8"

	"github.com/BurntSushi/toml"
	"github.com/chromedp/cdproto/input"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/nicksnyder/go-i18n/v2/i18n"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/reason"
	"patientladder/demo"
	"patientladder/mail"
	"patientladder/mail/mailbox"
	"patientladder/server"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/sending"
	"patientladder/studio/studiotest"
	"patientladder/web"
	"patientladder/words"
)

var browser context.Context

func TestMain(m *testing.M) {
	os.Exit(withBrowser(func() int { return storetest.Run(m) }))
}

// withBrowser starts one Chromium for all tests; each page has a profile of
// its own.
func withBrowser(run func() int) int {
	room := storetest.Room()
	dir, err := storetest.Folder()
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	opts := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath("/usr/bin/chromium-headless-shell"), chromedp.NoSandbox, chromedp.UserDataDir(dir),
		chromedp.Flag("disable-dev-shm-usage", room == ""), chromedp.Flag("disable-gpu", true), chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true), chromedp.Flag("no-first-run", true),
		chromedp.Flag("font-render-hinting", "none"), chromedp.Flag("mute-audio", true), chromedp.Flag("process-per-site", true), chromedp.Flag("hide-scrollbars", true), chromedp.Flag("lang", "en-GB"), chromedp.Flag("accept-lang", "en-GB"),
		chromedp.Flag("host-resolver-rules", "MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost"))
	alloc, stop := chromedp.NewExecAllocator(context.Background(), opts...)
	defer stop()
	ctx, cancel := chromedp.NewContext(alloc)
	defer cancel()
	if err := chromedp.Do(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "start chromium:", err)
		return 1
	}
	browser = ctx
	return run()
}

// A site is the app on a database of its own, with a plug that can be pulled
// and a line that can be slow.
type site struct {
	*place
	store *store.Store
	app   *studio.App
	box   *mailbox.Box
	off   atomic.Bool
	lag   atomic.Int64 // how long a view takes on its way back, in ns
}

// unplug drops every connection until plug.
func (s *site) unplug() { s.off.Store(true); s.CloseClientConnections() }
func (s *site) plug()   { s.off.Store(false) }

// newSite starts a site. Tests with a site of their own run side by side: each has its
// database, its server and its pages.
func newSite(t testing.TB, seeded bool) *site {
	if test, is := t.(*testing.T); is {
		test.Parallel()
	}
	var st *store.Store
	if seeded {
		st = studiotest.FerryHouse(t, time.Now)
	} else {
		st = storetest.New(t)
	}
	app := studio.New(st, time.Now)
	box, err := mailbox.Open("127.0.0.1:0", true, func(id, says string) {
		if err := sending.Returned(context.Background(), app, id, says); err != nil {
			t.Error(err)
		}
	})
	require.NoError(t, err)
	t.Cleanup(func() { box.Close() })
	srv := server.New(app, st, web.Files(), server.Options{OwnBooks: demo.OwnBooks, Mailbox: box})
	t.Cleanup(srv.Close)
	s := &site{store: st, app: app, box: box}
	s.place = stand(t, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if s.off.Load() {
			if conn, _, err := w.(http.Hijacker).Hijack(); err == nil {
				conn.Close()
			}
			return
		}
		srv.Handler().ServeHTTP(w, r)
		if r.Method == http.MethodGet {
			time.Sleep(time.Duration(s.lag.Load()))
		}
	}))
	post, err := mail.NewPost(box.Server(), "sheets@ladder.example")
	require.NoError(t, err)
	app.Mails(post, s.URL)
	app.Hold = 2 * time.Second
	posting, stop := context.WithCancel(context.Background())
	var letters sync.WaitGroup
	letters.Go(func() { sending.Run(posting, app) })
	t.Cleanup(func() { stop(); letters.Wait() })
	return s
}

// A page is a tab of a profile that knows nothing yet.
type page struct {
	t    testing.TB
	ctx  context.Context
	base string
	acts int // touches and keys since they were last counted; a text typed or pasted is none
}

func open(t testing.TB, base string, width, height int64) *page {
	in, opts := profile(t, base)
	ctx, cancel := chromedp.NewContext(in, opts...)
	t.Cleanup(cancel)
	ctx, cancel = context.WithTimeout(ctx, 8*time.Minute)
	t.Cleanup(cancel)
	p := &page{t: t, ctx: ctx, base: base}
	p.do(chromedp.EmulateViewport(width, height))
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: countsChangesJS})
	require.NoError(t, err)
	return p
}

// atWork opens the demo studio on a site of its own, signed in as its teacher.
func atWork(t testing.TB) *page {
	p := open(t, newSite(t, true).URL, 1280, 800)
	p.signIn()
	return p
}

func (p *page) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, steps...))
}

// goTo opens an address, once what was just pressed has reached the server: leaving a page cuts
// its requests off.
func (p *page) goTo(path string) {
	p.t.Helper()
	// a page that is itself on its way to another one cannot be asked, and has nothing to lose
	_, _ = chromedp.Run(p.ctx, chromedp.Evaluate[bool](changesSentJS, chromedp.EvalAwaitPromise))
	p.do(chromedp.Navigate(p.base + path))
}

// countsChangesJS counts the changes that are on their way to the server.
const countsChangesJS = `{
  const send = window.fetch;
  window.changesOut = 0;
  window.fetch = (what, how) => {
    if ((how?.method ?? what?.method ?? 'GET') === 'GET') return send(what, how);
    window.changesOut++;
    return send(what, how).finally(() => window.changesOut--);
  };
}`

// changesSentJS waits until none is, for five seconds at most: a test may keep one waiting.
const changesSentJS = `new Promise(done => {
  const late = Date.now() + 5000;
  const look = () => !window.changesOut || Date.now() > late ? done(true) : setTimeout(look, 20);
  setTimeout(look, 0);
})`

func eval[T any](p *page, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js))
	require.NoError(p.t, err, js)
	return v
}

// patience is how long a test waits for the page to show what it should.
const patience = time.Minute

// until waits for a JavaScript condition: it is looked at whenever the page changes.
func (p *page) until(js, what string) {
	p.t.Helper()
	for deadline := time.Now().Add(patience); ; {
		// a page on its way to another one answers with an error, and is asked again
		holds, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](fmt.Sprintf(untilJS, js), chromedp.EvalAwaitPromise))
		if err == nil && holds {
			return
		}
		require.NoError(p.t, p.ctx.Err(), what)
		if time.Now().After(deadline) {
			p.shot(filepath.Join(os.TempDir(), "ladder-failed.png"))
			require.NoError(p.t, err, js)
			require.Fail(p.t, "did not happen: "+what, "the page says: %s", eval[string](p, "document.body.innerText"))
		}
		if err != nil {
			time.Sleep(30 * time.Millisecond)
		}
	}
}

// untilJS looks at a condition at once, after changes of the page, and four times a second for
// what changes nothing in it.
const untilJS = `new Promise((done, fail) => {
  const holds = () => !!(%s);
  let soon = 0;
  const end = (says) => { seen.disconnect(); clearInterval(often); clearTimeout(late); clearTimeout(soon); done(says) };
  const look = () => { soon = 0; try { if (holds()) end(true) } catch (e) { end(false); fail(e) } };
  const seen = new MutationObserver(() => { soon ||= setTimeout(look, 20) });
  const often = setInterval(look, 250), late = setTimeout(() => end(false), 2000);
  seen.observe(document, {subtree: true, childList: true, attributes: true, characterData: true});
  look();
})`

// sees waits for a text on the page.
func (p *page) sees(text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.body?.innerText.replace(/\\s+/g,' ').includes(%q)", text), "sees "+text)
}

// findJS finds the first visible control whose name begins with, or else
// holds, a text.
const findJS = `(name => {
  const named = e => (e.getAttribute('aria-label') || e.innerText || '').replace(/\s+/g, ' ').trim();
  const all = [...document.querySelectorAll('button,a,label,input,select,summary')].filter(e => e.offsetParent !== null && !e.disabled);
  return all.find(e => named(e) === name) || all.find(e => named(e).startsWith(name)) || all.find(e => named(e).includes(name));
})(%q)`

// press clicks a control by its name, with a real mouse.
func (p *page) press(name string) { p.t.Helper(); p.click(name, 1) }

// pressTwice is an impatient double click.
func (p *page) pressTwice(name string) { p.t.Helper(); p.click(name, 2) }

// click clicks a control once it stands still. What lands beside it, because the page grew in
// that very moment, is made again. A click counts when the mouse went down and up on the same
// control; a menu opens when it goes down, and then covers its button.
func (p *page) click(name string, times int) {
	p.t.Helper()
	p.acts++
	find := fmt.Sprintf(findJS, name)
	for tries := 3; ; tries-- {
		p.until(find, "there is a control "+name)
		at := p.still(find, name)
		eval[bool](p, "(e => { window.pressed = false; e?.addEventListener(e.hasAttribute('aria-haspopup') ? 'pointerdown' : 'click', () => { window.pressed = true }, {once: true, capture: true}); return true })("+find+")")
		var steps []chromedp.Action[chromedp.Void]
		for i := range times {
			steps = append(steps, chromedp.MouseClickXY(at[0], at[1], chromedp.ClickCount(i+1)))
		}
		p.do(steps...)
		// another page, there already or on its way, knows nothing of it
		if landed, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("window.pressed !== false")); tries == 1 || err != nil || landed {
			return
		}
	}
}

// still waits until a control neither moves nor lies under something, and returns where it is.
func (p *page) still(find, name string) []float64 {
	p.t.Helper()
	for deadline := time.Now().Add(patience); ; {
		at, err := chromedp.Run(p.ctx, chromedp.Evaluate[[]float64](fmt.Sprintf(stillJS, find), chromedp.EvalAwaitPromise))
		if err == nil && len(at) == 2 {
			return at
		}
		require.NoError(p.t, p.ctx.Err(), name)
		require.True(p.t, time.Now().Before(deadline), "%s does not stand still", name)
		time.Sleep(30 * time.Millisecond)
	}
}

// stillJS is where a control stands, once that was the same for a moment; empty while it moves.
const stillJS = `(async () => {
  const where = () => {
    const e = %s;
    if (!e) return [];
    e.scrollIntoView({block: 'nearest'});
    const r = e.getBoundingClientRect();
    const [x, y] = [r.x + Math.min(r.width/2, 60), r.y + r.height/2];
    const top = document.elementFromPoint(x, y);
    return e.contains(top) || top?.contains(e) || e.labels?.[0]?.contains(top) ? [x, y] : [];
  };
  const at = where();
  for (let i = 0; i < 3; i++) {
    await new Promise((next) => setTimeout(next, 35));
    if (at.length === 0 || String(where()) !== String(at)) return [];
  }
  return at;
})()`

// key presses a key, or types a text. A single letter is sent as a keyboard
// does it, so that a page which takes the key keeps its character out of the
// field that it opens.
func (p *page) key(keys string) {
	p.t.Helper()
	if utf8.RuneCountInString(keys) == 1 {
		p.acts++
	}
	if len(keys) != 1 || keys[0] < ' ' {
		p.do(chromedp.KeyEvent(keys))
		return
	}
	for _, e := range []input.DispatchKeyEventParams{
		{Type: input.DispatchKeyEventTypeKeyDown, Key: keys, Text: keys}, {Type: input.DispatchKeyEventTypeKeyUp, Key: keys},
	} {
		_, err := chromedp.Call(p.ctx, input.DispatchKeyEvent, e)
		require.NoError(p.t, err)
	}
}

// within holds that something took at most so many touches and keys, and begins to count anew.
func (p *page) within(most int, what string) {
	p.t.Helper()
	assert.LessOrEqual(p.t, p.acts, most, what)
	p.acts = 0
}

// fill types into the field of a name attribute.
func (p *page) fill(name, text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.querySelector('[name=%s]')", name), "there is a field "+name)
	eval[bool](p, fmt.Sprintf("document.querySelector('[name=%s]').focus(); document.querySelector('[name=%s]').select?.(); true", name, name))
	p.key(text)
}

// overwrite puts another text into a field that a script finds, at once, as a paste
// over all of it does.
func (p *page) overwrite(field, text string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`(() => {
		const field = %s;
		if (!field) return false;
		Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value').set.call(field, %q);
		field.dispatchEvent(new Event('input', {bubbles: true}));
		return field.value === %[2]q;
	})()`, field, text), "the field reads "+text)
}

// signIn signs the demo's teacher in as the form does, without drawing it.
func (p *page) signIn() {
	p.t.Helper()
	p.goTo("/mark.svg")
	answer := evalAsync(p, fmt.Sprintf(`fetch('/api/sign-in', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({email: %q, password: %q})}).then(r => String(r.status))`, demo.Email, demo.Password))
	require.Equal(p.t, "204", answer)
	p.goTo("/")
	p.sees(said("ladder.suggestions"))
	p.acts = 0
}

// newStudio opens an empty studio of a new teacher.
func (p *page) newStudio() {
	p.t.Helper()
	p.goTo("/")
	p.press(said("signin.iAmNewHere"))
	p.fill("name", "Ingrid Vale")
	p.fill("studio", "Attic Strings")
	p.fill("email", "ingrid@attic.example")
	p.fill("password", "three unrelated words")
	p.press(said("signin.openStudio2"))
	p.sees(said("today.noStudentsYet"))
}

// begins opens a student's lesson and begins it: today's, or the next in its place.
func (p *page) begins(student string) {
	p.t.Helper()
	p.goTo("/students/" + student + "/lesson")
	p.sees(said("lesson.thePlan"))
	if ahead := said("lesson.startLessonNow"); eval[bool](p, fmt.Sprintf("document.body.innerText.includes(%q)", ahead)) {
		p.press(ahead)
	} else {
		p.key("b")
	}
	p.sees(said("lesson.finishLesson"))
}

func (p *page) shot(file string) {
	p.t.Helper()
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(p.t, err)
	require.NoError(p.t, os.WriteFile(file, png, 0o644))
}

// pick takes the option that begins with a text, in the list with a label.
func (p *page) pick(label, option string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('select')].find(s => (s.getAttribute('aria-label') || s.closest('label')?.innerText || '').startsWith(%q) && [...s.options].some(o => o.text.startsWith(%q)))`, label, option)
	p.until(find, "there is a list "+label+" with "+option)
	p.acts += 2
	eval[bool](p, fmt.Sprintf(`(s => { s.value = [...s.options].find(o => o.text.startsWith(%q)).value; s.dispatchEvent(new Event('change', {bubbles: true})); return true })(%s)`, option, find))
}

// student returns the id of a student of the signed-in studio.
func (p *page) student(name string) string {
	p.t.Helper()
	return evalAsync(p, fmt.Sprintf("fetch('/api/day').then(r => r.json()).then(d => d.students.find(s => s.firstName === %q).id)", name))
}

func evalAsync(p *page, js string) string {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](js, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err, js)
	return v
}

// write puts a text into a file of the test's own.
func write(t *testing.T, name, text string) string {
	file := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(file, []byte(text), 0o600))
	return file
}

// closeLesson begins and closes today's lesson of a student, with nothing marked.
func (p *page) closeLesson(student string) {
	p.t.Helper()
	answer := evalAsync(p, fmt.Sprintf(`(async () => {
		const day = await (await fetch('/api/day')).json();
		const at = new Date(day.now).getTime();
		const id = n => '01' + (Date.now().toString(32) + Math.random().toString(32).slice(2)).toUpperCase().replace(/[^0-9A-HJKMNP-TV]/g, '').padEnd(23, '0').slice(0, 23) + n;
		const facts = ['lesson_opened', 'lesson_closed'].map((kind, i) => ({id: id(i), student: %q, at: new Date(at + i * 1000).toISOString(), body: {kind, day: day.today}}));
		return String((await fetch('/api/facts', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({facts})})).status);
	})()`, student))
	require.Equal(p.t, "204", answer)
}

// setClock moves the demo's clock.
func (p *page) setClock(to string) {
	p.t.Helper()
	answer := evalAsync(p, fmt.Sprintf(`fetch('/api/clock', {method: 'PUT', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({to: %q})}).then(r => String(r.status))`, to))
	require.Equal(p.t, "204", answer)
}

// screens are the texts of the screens, and served those of the server, by their keys.
var (
	screens = sync.OnceValue(func() map[string]string { return catalogue("../web/words/en-GB.json") })
	served  = sync.OnceValue(func() map[string]string { return catalogue("../words/en-GB.toml") })
)

// catalogue reads the texts of a file; of a plural the form for several.
func catalogue(path string) map[string]string {
	text, err := os.ReadFile(path)
	if err != nil {
		panic(err)
	}
	file, err := i18n.ParseMessageFileBytes(text, path, map[string]i18n.UnmarshalFunc{"json": json.Unmarshal, "toml": toml.Unmarshal})
	if err != nil {
		panic(err)
	}
	out := map[string]string{}
	for _, m := range file.Messages {
		out[m.ID] = m.Other
	}
	return out
}

// message is the text of a key.
func message(in map[string]string, key string) string {
	text, known := in[key]
	if !known {
		panic("no message is called " + key)
	}
	return text
}

// said is what a screen says by a message of the catalogue, with pairs of argument and value, so that
// what is looked for stays found when it is worded otherwise. Where a value is not given, it is the
// longest part between two that are missing.
func said(key string, pairs ...string) string {
	text := message(screens(), key)
	for i := 0; i+1 < len(pairs); i += 2 {
		text = plurals(text, pairs[i], pairs[i+1])
		text = strings.ReplaceAll(text, "{"+pairs[i]+"}", pairs[i+1])
	}
	return longest(tags.ReplaceAllString(text, ""), missing)
}

var (
	plural  = regexp.MustCompile(`\{(\w+), plural, one \{([^{}]*)\} other \{([^{}]*)\}\}`)
	tags    = regexp.MustCompile(`</?\w+>`)
	missing = regexp.MustCompile(`\{\w+(, plural, one \{[^{}]*\} other \{[^{}]*\})?\}`)
	blank   = regexp.MustCompile(`\{\{([^{}]|\{[^{}]*\})*\}\}`)
)

// plurals writes the numbers of one argument, in the form that English has for them.
func plurals(text, name, value string) string {
	return plural.ReplaceAllStringFunc(text, func(found string) string {
		m := plural.FindStringSubmatch(found)
		if m[1] != name {
			return found
		}
		form := m[3]
		if value == "1" {
			form = m[2]
		}
		return strings.ReplaceAll(form, "#", value)
	})
}

// longest is the longest part of a text between what a pattern matches.
func longest(text string, between *regexp.Regexp) string {
	var best string
	for _, part := range between.Split(text, -1) {
		if part = strings.TrimSpace(part); len(part) > len(best) {
			best = part
		}
	}
	return best
}

// spoken is what the server says by a message of its catalogue, with pairs of argument and value; without
// any it is the longest part that needs none.
func spoken(key string, pairs ...string) string {
	if len(pairs) == 0 {
		return longest(message(served(), key), blank)
	}
	return words.In(words.ReaderOf(words.Base)).Label(reason.SaidOf(key, pairs...))
}
