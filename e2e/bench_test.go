package e2e

import (
	"fmt"
	"testing"

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
	empty := interactive(b, s.URL, "Pip", "week", "document.body.innerText.includes('No week sheet yet')")
	fmt.Printf("ladder-interactive ratio %.2f (ours %.0f ms, yardstick %.0f ms: an empty page of the same app)\n", full/empty, full, empty)
}
