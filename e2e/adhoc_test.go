package e2e
import ("testing";"time";"os";"strings")
func TestAdhoc(t *testing.T){
	os.MkdirAll("/tmp/shots",0o755)
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.goTo("/sign-in"); p.sees("Sign in"); p.signIn()
	shot := func(n string){ time.Sleep(500*time.Millisecond); p.shot("/tmp/shots/"+n+".png") }
	for _, n := range strings.Split(os.Getenv("WHO"), ",") { if n=="" {continue}
		p.goTo("/students/"+p.student(n)+"/"+os.Getenv("PLACE")); p.sees("Settings"); shot(n+"-"+os.Getenv("PLACE")) }
	for _, path := range strings.Split(os.Getenv("PATHS"), ",") { if path=="" {continue}
		p.goTo(path); time.Sleep(700*time.Millisecond); shot(strings.ReplaceAll(path,"/","_")) }
}
