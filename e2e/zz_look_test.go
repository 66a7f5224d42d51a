package e2e

import (
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 1000)
	p.signIn()
	p.goTo("/workbench/hours")
	p.sees("Another hour")
	p.shot("/tmp/h1.png")
	p.fill("name", "Piano together")
	p.press("All of the piano")
	eval[bool](p, "(() => { const d = document.querySelector('input[name=day]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value').set.call(d,'2026-11-18'); d.dispatchEvent(new Event('input',{bubbles:true})); return true })()")
	p.press("Plan it")
	p.sees("Who stands where")
	time.Sleep(time.Second)
	p.shot("/tmp/h2.png")
	eval[bool](p, "(document.querySelector('[aria-label=\"What they can play\"] input').click(), true)")
	p.sees("handed on")
	time.Sleep(time.Second)
	p.shot("/tmp/h3.png")
	eval[bool](p, "(document.querySelector('[aria-label=\"Handed on\"]').scrollIntoView({block:'center'}), true)")
	time.Sleep(500*time.Millisecond)
	p.shot("/tmp/h4.png")
	p.goTo("/students/" + p.student("Priya")+"/ladder")
	p.press("Who could play with these?")
	p.sees("With others")
	time.Sleep(3*time.Second)
	eval[bool](p, "(document.querySelector('[aria-label=\"With others\"]').scrollIntoView({block:'center'}), true)")
	time.Sleep(500*time.Millisecond)
	p.shot("/tmp/h5.png")
}
