package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"patientladder/demo"
)

var _ = demo.Email

func TestAdhoc(t *testing.T) {
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	for i, line := range strings.Split(os.Getenv("SHOTS"), ";") {
		f := strings.Fields(line)
		if len(f) == 0 {
			continue
		}
		who := ""
		if len(f) > 1 {
			who = p.student(f[1])
		}
		p.goTo(strings.ReplaceAll(f[0], "ID", who))
		time.Sleep(2500 * time.Millisecond)
		for _, step := range f[min(2, len(f)):] {
			p.press(strings.ReplaceAll(step, "_", " "))
			time.Sleep(900 * time.Millisecond)
		}
		p.shot(fmt.Sprintf("/tmp/shot%d.png", i))
	}
	if os.Getenv("PHONE") != "" {
		id := p.student(os.Getenv("PHONE"))
		told := evalAsync(p, `fetch('/api/students/`+id+`/links',{method:'POST'}).then(r=>r.text())`)
		var l struct{ Path string }
		if err := json.Unmarshal([]byte(told), &l); err != nil {
			t.Fatal(err)
		}
		h := open(t, s.URL, 390, 844)
		h.goTo(l.Path)
		time.Sleep(1500 * time.Millisecond)
		h.shot("/tmp/phone0.png")
		h.press("Thu")
		time.Sleep(300 * time.Millisecond)
		h.press("Hear it")
		time.Sleep(800 * time.Millisecond)
		h.shot("/tmp/phone1.png")
		eval[bool](h, "(window.scrollTo(0, document.body.scrollHeight), true)")
		h.press("Count towards")
		time.Sleep(300 * time.Millisecond)
		eval[bool](h, "(window.scrollTo(0, document.body.scrollHeight), true)")
		time.Sleep(300 * time.Millisecond)
		h.shot("/tmp/phone2.png")
	}
}
