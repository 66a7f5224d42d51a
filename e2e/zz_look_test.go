package e2e

import (
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 1000)
	p.signIn()
	p.goTo("/workbench/exercises?student=" + p.student("Nikolai")+"&exercise=roll%20pima")
	p.press("the simulated keyboard")
	p.overwrite("[...document.querySelectorAll('input[type=range]')][1]", "1.3")
	p.press("Let it play")
	p.sees("It lopes")
	p.overwrite("[...document.querySelectorAll('input[type=range]')][1]", "1")
	p.overwrite("[...document.querySelectorAll('input[type=range]')][3]", "18")
	p.press("Let it play")
	p.sees("too strong")
	p.shot("/tmp/l2.png")
	p.goTo("/students/" + p.student("Nikolai")+"/record")
	p.sees("Played in")
	p.do()
	eval[bool](p, "(document.querySelector('[aria-label=\"Played in\"]').scrollIntoView({block:'center'}), true)")
	time.Sleep(time.Second)
	p.shot("/tmp/l3.png")
	p.goTo("/students/" + p.student("Nikolai")+"/week")
	p.sees("Think of")
	p.shot("/tmp/l5.png")
	p.goTo("/workbench/listen?student=" + p.student("Tobias"))
	p.sees("comes next")
	p.press("Begin")
	time.Sleep(5*time.Second)
	p.shot("/tmp/l4.png")
}
