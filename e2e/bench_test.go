package e2e

import (
	"bytes"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"testing"
	"time"

	cdp "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/internal/yardstick"
)

// interactive returns how long a page takes, in milliseconds from the start of
// its navigation, until a condition holds: then it answers to keys and touches.
func interactive(b *testing.B, base, student, place, when string) float64 {
	p := open(b, base, 1280, 800)
	p.signIn()
	path := "/students/" + p.student(student) + "/" + place
	_, err := chromedp.Call(p.ctx, cdp.AddScriptToEvaluateOnNewDocument, cdp.AddScriptToEvaluateOnNewDocumentParams{
		Source: "const timer = setInterval(() => { if (document.body && (" + when + ")) { clearInterval(timer); window.answersAt = performance.now() } }, 1)"})
	require.NoError(b, err)
	var ms []float64
	for range 15 {
		p.goTo(path)
		p.until("window.answersAt", "the page answers: "+path)
		ms = append(ms, eval[float64](p, "window.answersAt"))
	}
	return yardstick.Median(ms)
}

// BenchmarkInteractive measures the ladder of a demo student against a page of
// the same app that holds nothing but the frame and one line: the week of a
// student who has had no lesson.
func BenchmarkInteractive(b *testing.B) {
	s := newSite(b, true)
	full := interactive(b, s.URL, "Emil", "ladder", "document.querySelector('ol[aria-labelledby=lane-book] button')")
	empty := interactive(b, s.URL, "Pip", "week", "document.body.innerText.includes('No practice sheet yet')")
	fmt.Printf("ladder-interactive ratio %.2f (ours %.0f ms, yardstick %.0f ms: an empty page of the same app)\n", full/empty, full, empty)
}

// BenchmarkForty measures the same ladder with forty students more in the studio.
func BenchmarkForty(b *testing.B) {
	s := newSite(b, true)
	p := open(b, s.URL, 1280, 800)
	p.signIn()
	took := evalAsync(p, fmt.Sprintf(`fetch('/api/students.csv?save=true', {method: 'POST', headers: {'Content-Type': 'application/octet-stream'}, body: %q}).then(r => r.json()).then(v => String(v.added.length))`, rosterOfForty(time.Now())))
	require.Equal(b, "40", took)
	full := interactive(b, s.URL, "Emil", "ladder", "document.querySelector('ol[aria-labelledby=lane-book] button')")
	empty := interactive(b, s.URL, "Pip", "week", "document.body.innerText.includes('No practice sheet yet')")
	fmt.Printf("forty-students-interactive ratio %.2f (ours %.0f ms, yardstick %.0f ms: an empty page of the same app)\n", full/empty, full, empty)
}

// BenchmarkFamily measures how long a family's page takes on a phone that has never
// seen it, until it answers, against a static page: the same, as it stands when it is
// drawn, with its styles and type, served without a script.
func BenchmarkFamily(b *testing.B) {
	s := newSite(b, true)
	p := open(b, s.URL, 1280, 800)
	p.signIn()
	path := evalAsync(p, `fetch('/api/students/`+p.student("Emil")+`/links', {method: 'POST'}).then(r => r.json()).then(l => l.path)`)
	p.goTo(path)
	p.sees(said("family.sPractice", "firstName", "Emil"))
	drawn := []byte(eval[string](p, `(document.querySelectorAll('script, link[rel=modulepreload]').forEach(e => e.remove()), '<!doctype html>' + document.documentElement.outerHTML)`))
	require.True(b, bytes.Contains(drawn, []byte("Emil's practice")))
	static := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if strings.HasPrefix(r.URL.Path, "/assets/") {
			s.Config.Handler.ServeHTTP(w, r)
			return
		}
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		_, _ = w.Write(drawn)
	}))
	defer static.Close()
	first := func(address, when string) float64 {
		var ms []float64
		for range 9 {
			phone := open(b, "", 390, 844)
			_, err := chromedp.Call(phone.ctx, cdp.AddScriptToEvaluateOnNewDocument, cdp.AddScriptToEvaluateOnNewDocumentParams{
				Source: "const timer = setInterval(() => { if (document.body && (" + when + ")) { clearInterval(timer); window.answersAt = performance.now() } }, 1)"})
			require.NoError(b, err)
			phone.goTo(address)
			phone.until("window.answersAt", "the page answers: "+address)
			ms = append(ms, eval[float64](phone, "window.answersAt"))
		}
		return yardstick.Median(ms)
	}
	ours := first(s.URL+path, "document.querySelector('[data-testid=family] h1')")
	plain := first(static.URL, "document.readyState === 'complete' && document.querySelector('[data-testid=family] h1')")
	fmt.Printf("family-page-first-load ratio %.2f (ours %.0f ms, yardstick %.0f ms: the same page without a script)\n", ours/plain, ours, plain)
}

// frame is how long one frame lasts at 60 a second, in milliseconds.
const frame = 1000. / 60

// BenchmarkMark measures how long a mark takes to stand on the page, ready for the
// next frame to show it, against one frame.
func BenchmarkMark(b *testing.B) {
	p := open(b, newSite(b, true).URL, 1280, 800)
	p.signIn()
	p.begins(p.student("Emil"))
	p.press("Lamp Room")
	p.sees(said("lesson.markLearnt2"))
	var marks []float64
	for i := range 20 {
		key := strconv.Itoa(1 + i%4) // another point is held each time
		eval[bool](p, fmt.Sprintf(`(() => { window.took = 0; let at = 0;
			const seen = new MutationObserver(() => { window.took ||= performance.now() - at; seen.disconnect() });
			seen.observe(document.querySelector('[aria-label="Goals"]'), {subtree: true, attributes: true, childList: true, characterData: true});
			at = performance.now();
			document.body.dispatchEvent(new KeyboardEvent('keydown', {key: %q, bubbles: true}));
			return true })()`, key))
		p.until("window.took > 0", "the mark shows")
		marks = append(marks, eval[float64](p, "window.took"))
	}
	fmt.Printf("mark-on-screen ratio %.2f (ours %.1f ms, yardstick %.1f ms: one frame at 60 a second)\n", yardstick.Median(marks)/frame, yardstick.Median(marks), frame)
}
