package e2e

import (
	"os"
	"testing"
	"time"
)

func TestAdhoc(t *testing.T) {
	p := atWork(t)
	shot := func(n string) { time.Sleep(900 * time.Millisecond); p.shot("/tmp/shots/" + n + ".png") }
	has := func(n string) bool { return os.Getenv("SHOT") == "" || os.Getenv("SHOT") == n }
	drawn := func() { p.until("document.querySelector('[role=img] svg g.note')", "drawn") }
	if has("tobias") {
		p.goTo("/items/shore-lights")
		drawn()
		eval[any](p, "(s=>{s.value=[...s.options].find(o=>o.text.startsWith('Tobias')).value; s.dispatchEvent(new Event('change',{bubbles:true}))})([...document.querySelectorAll('aside select')][0])")
		p.sees("New for Tobias")
		p.key("d")
		p.key("f")
		shot("tobias")
	}
	if has("patterns") {
		p.goTo("/items/shore-tar-barrel")
		drawn()
		p.key("c")
		p.key("t")
		p.key("n")
		shot("patterns")
		p.key("t")
		p.key("p")
		p.key("l")
		p.key("w")
		shot("positions")
	}
	if has("cello") {
		p.goTo("/items/bow-jig")
		drawn()
		p.key("p")
		p.key("f")
		p.press("Hear it")
		shot("cello")
	}
	if has("guitar") {
		p.goTo("/items/low-six")
		drawn()
		eval[any](p, "(s=>{s.value='under'; s.dispatchEvent(new Event('change',{bubbles:true}))})(document.querySelector('[aria-label=Tablature]'))")
		p.key("f")
		shot("guitar")
		eval[any](p, "(s=>{s.value='instead'; s.dispatchEvent(new Event('change',{bubbles:true}))})(document.querySelector('[aria-label=Tablature]'))")
		shot("guitar-tab")
	}
	if has("studio") {
		p.goTo("/studio")
		p.sees("Rhythm words")
		eval[any](p, "document.querySelector('[aria-label=\"Rhythm words\"]').scrollIntoView({block:'center'})")
		shot("studio")
		p.goTo("/items/shore-pebble")
		drawn()
		p.key("w")
		p.key("i")
		p.press("What it asks for")
		shot("asks")
		p.press("Copies to take out")
		eval[any](p, "document.querySelector('a[href*=midi]').scrollIntoView({block:'center'})")
		shot("copies")
	}
	if has("type") {
		p.goTo("/shelf/type")
		drawn()
		shot("type")
		eval[any](p, "(t=>{t.focus(); t.setSelectionRange(t.value.length-4, t.value.length-4)})(document.querySelector('textarea'))")
		p.key("[CE| D")
		shot("type-wrong")
	}
}
