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
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/internal/full"
)

// An address that somebody wanted before signing in is where they come to; a forgotten
// password is set by mail; a passkey opens the account without one.
func TestSigningInAgain(t *testing.T) {
	site := newSite(t, true)
	p := open(t, strings.Replace(site.URL, "127.0.0.1", "localhost", 1), 1280, 800) // passkeys hold for names
	p.goTo("/studio/account")
	p.sees(said("signin.signIn"))
	p.fill("email", demo.Email)
	p.fill("password", demo.Password)
	p.key(kb.Enter)
	p.sees(said("account.signIns"))
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
	p.press(said("account.makePasskeyDevice"))
	p.sees("the studio's laptop, since")
	p.goTo("/studio")
	p.press(said("studio.signOut"))
	p.press(said("signin.signPasskey"))
	p.sees(said("ladder.suggestions"))

	p.goTo("/studio")
	p.press(said("studio.signOut"))
	p.goTo("/sign-in?to=/%5Celsewhere.example/") // a browser takes \ for /: an address of another site
	p.press(said("signin.signPasskey"))
	p.sees(said("ladder.suggestions"))

	p.goTo("/studio")
	p.press(said("studio.signOut"))
	p.press(said("signin.iForgotMyPassword"))
	p.fill("email", demo.Email)
	p.press(said("signin.sendMeLink"))
	p.sees(said("signin.ifAddressHasAccountMail"))
	p.goTo("/reset#" + site.mailed(t, "/reset#"))
	p.fill("password", "qwertyuiop")
	p.key(kb.Enter)
	p.sees("tried first")
	p.fill("password", "harbour gull lantern")
	p.key(kb.Enter)
	p.sees(said("signin.passwordSetEverySignBefore"))
	p.press(said("signin.signIn"))
	p.fill("email", demo.Email)
	p.fill("password", "harbour gull lantern")
	p.key(kb.Enter)
	p.sees(said("ladder.suggestions"))
}

// A code of an app is set up, asked for at the next sign-in, and answered by the app or by a
// recovery code.
func TestACodeBesideThePassword(t *testing.T) {
	full.Only(t, "TestSigningInAgain, and the tests of studio/account")
	p := atWork(t)
	p.goTo("/studio/account")
	p.press(said("account.setUp"))
	p.sees(said("account.letAppReadType"))
	secret := eval[string](p, `document.body.innerText.match(/type in ((?:[A-Z2-7]{2,4} ?)+)/)[1].replaceAll(' ', '')`)
	code := func(at time.Time) string {
		c, err := totp.GenerateCode(secret, at)
		require.NoError(t, err)
		return c
	}
	const form = `document.querySelector('form[aria-label="A code beside the password"] [name=%s]')`
	p.overwrite(fmt.Sprintf(form, "code"), code(time.Now()))
	p.overwrite(fmt.Sprintf(form, "password"), demo.Password)
	p.press(said("account.askCodesFromNow"))
	p.sees(said("account.shownOncePrintThemWrite"))
	recovery := eval[string](p, `document.querySelector('section[aria-label="Recovery codes"] li').innerText`)
	p.press(said("account.iHaveThem"))
	signIn := func(code string) {
		p.goTo("/studio")
		p.press(said("studio.signOut"))
		p.fill("email", demo.Email)
		p.fill("password", demo.Password)
		p.key(kb.Enter)
		p.fill("code", code)
		p.key(kb.Enter)
	}
	signIn(code(time.Now().Add(30 * time.Second))) // the app's next one: each code opens once
	p.sees(said("ladder.suggestions"))
	signIn(recovery)
	p.sees(said("ladder.suggestions"))
}

// Backup of the whole studio is taken along as one file and brought into a new one, which it makes the
// same.
func TestAStudioTakenAlong(t *testing.T) {
	full.Only(t, "the tests of studio/roster")
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	file := filepath.Join(t.TempDir(), "studio.json")
	require.NoError(t, os.WriteFile(file, []byte(evalAsync(p, `fetch('/api/studio').then(r => r.text())`)), 0o600))

	p = open(t, s.URL, 1280, 800)
	p.newStudio()
	p.goTo("/studio/account")
	p.sees(said("account.wholeStudio"))
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="A studio's backup file"]`), []string{file}))
	p.sees(said("account.imported"))
	p.goTo("/studio")
	p.sees("15 students")
	p.goTo("/students/" + p.student("Emil") + "/record")
	p.sees("10 pieces learnt, 21 lessons given")
}

// mailed waits for a letter with a link and returns what stands behind its #.
func (s *site) mailed(t *testing.T, link string) string {
	for deadline := time.Now().Add(patience); time.Now().Before(deadline); time.Sleep(50 * time.Millisecond) {
		for _, l := range s.box.Letters() {
			if _, after, found := strings.Cut(l.Text, link); found {
				return strings.Fields(after)[0]
			}
		}
	}
	t.Fatalf("no letter has %s", link)
	return ""
}

// Where mail goes out, a new studio is opened by the link of a mail, in another tab or later.
func TestANewStudioIsConfirmed(t *testing.T) {
	site := newSite(t, false)
	site.app.Confirms = true
	p := open(t, site.URL, 1280, 800)
	p.goTo("/sign-in")
	p.press(said("signin.iAmNewHere"))
	for at, text := range map[string]string{"name": "Ines Falk", "studio": "The Net Loft", "email": "ines@netloft.example", "password": "four-lanterns-north"} {
		p.fill(at, text)
	}
	p.press(said("signin.openStudio2"))
	p.sees("A mail is on its way to ines@netloft.example")
	link := site.mailed(t, "/confirm#")
	p.goTo("/confirm#" + link + "x")
	p.press(said("signin.openStudio2"))
	p.sees("older than an hour")
	p.goTo("/sign-in") // an address that differs behind # alone loads no page anew
	p.goTo("/confirm#" + link)
	p.press(said("signin.openStudio2"))
	p.sees("The Net Loft")
}
