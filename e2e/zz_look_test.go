package e2e

import (
	"os"
	"testing"
	"time"
)

func TestLook(t *testing.T) {
	if os.Getenv("LOOK") == "" {
		t.Skip()
	}
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	p.goTo("/students/" + p.student("Tobias") + "/record")
	p.sees("What was foretold")
	eval[bool](p, "(document.querySelector('[aria-label=\"What was foretold\"]').scrollIntoView({block: 'center'}), true)")
	time.Sleep(400 * time.Millisecond)
	p.shot("/tmp/look-record.png")
	p.goTo("/numbers")
	p.sees("A new student")
	time.Sleep(400 * time.Millisecond)
	p.shot("/tmp/look-numbers.png")
	p.goTo("/students/" + p.student("Priya") + "/ladder")
	time.Sleep(900 * time.Millisecond)
	p.shot("/tmp/look-ladder.png")
}
