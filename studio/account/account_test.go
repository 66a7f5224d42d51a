package account_test

import (
	"context"
	"errors"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/mail"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/studiotest"
)

func TestPasswordsThatAreNotTaken(t *testing.T) {
	r := studiotest.New(t)
	for password, says := range map[string]string{
		"nine char":                 "at least 10",
		"            ":              "at least 10", // blanks alone
		"ten chars!":                "",
		"qwertyuiop":                "tried first",
		"QwertyUiop":                "tried first", // in whatever letters
		"aaaaaaaaaaaaaa":            "tried first",
		"t@example.com":             "must not be the email address",
		strings.Repeat("long ", 41): "longer than 200",
		"harbour gull lantern":      "",
	} {
		err := account.SetPassword(ctx, r.App, r.Who, "", "a long password", password)
		if says == "" {
			require.NoError(t, err, password)
			require.NoError(t, account.SetPassword(ctx, r.App, r.Who, "", password, "a long password"))
			continue
		}
		assert.ErrorContains(t, err, says, password)
	}
	assert.ErrorContains(t, account.SetPassword(ctx, r.App, r.Who, "", "not mine at all", "harbour gull lantern"), "not your password")
	assert.NoError(t, r.SignIn("a long password", ""))
}

func TestAnAccountIsCorrected(t *testing.T) {
	r := studiotest.New(t)
	require.NoError(t, account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: " Una Birch ", Studio: "The Mill", Zone: "Europe/Dublin", Language: "en-US"})))
	assert.ErrorContains(t, account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: "Una", Studio: "The Mill", Zone: "Mars"})), "not a time zone")
	assert.ErrorContains(t, account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: "", Studio: "The Mill", Zone: "Europe/Dublin", Language: "en-US"})), "needed")
	require.NoError(t, account.SetEmail(ctx, r.App, r.Who, "una@mill.example", "a long password"))
	v, err := account.Show(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Equal(t, []string{"Una Birch", "una@mill.example", "The Mill", "Europe/Dublin"}, []string{v.Name, v.Email, v.Studio, v.Zone})
	_, err = account.Make(ctx, r.App, account.SignUp{Name: "N", Studio: "S", Email: "taken@example.com", Password: "a long password", Zone: "UTC"})
	require.NoError(t, err)
	assert.ErrorContains(t, account.SetEmail(ctx, r.App, r.Who, "taken@example.com", "a long password"), "another account")
	assert.ErrorContains(t, account.SetEmail(ctx, r.App, r.Who, "una@birch.example", "wrong password"), "not your password")
}

// post keeps what would be sent.
type post struct{ sent []mail.Letter }

func (p *post) Send(_ context.Context, l mail.Letter) error {
	p.sent = append(p.sent, l)
	return nil
}

// A link for another password works once, for half an hour, and ends every sign-in; who has
// no account is told the same.
func TestAForgottenPassword(t *testing.T) {
	r := studiotest.New(t)
	assert.ErrorContains(t, account.Forgot(ctx, r.App, "t@example.com", "here"), "sends no mail")
	box := &post{}
	r.App.Mails(box, "http://ladder.example")
	device, err := account.OpenDevice(ctx, r.App, r.Who, "a browser")
	require.NoError(t, err)
	require.NoError(t, account.Forgot(ctx, r.App, "nobody@example.com", "here"))
	assert.Empty(t, box.sent)
	ask := func() string {
		require.NoError(t, account.Forgot(ctx, r.App, "t@example.com", "here"))
		return regexp.MustCompile(`/reset#(\S+)`).FindStringSubmatch(box.sent[len(box.sent)-1].Text)[1]
	}
	first, token := ask(), ask()
	assert.ErrorContains(t, account.Reset(ctx, r.App, first, "harbour gull lantern"), "was used", "a newer one was sent")
	assert.ErrorContains(t, account.Reset(ctx, r.App, token, "short"), "at least 10")
	require.NoError(t, account.Reset(ctx, r.App, token, "harbour gull lantern"))
	assert.ErrorContains(t, account.Reset(ctx, r.App, token, "another one again"), "was used")
	assert.NoError(t, r.SignIn("harbour gull lantern", ""))
	holds, _, err := account.Holds(ctx, r.App, r.Who, device)
	require.NoError(t, err)
	assert.False(t, holds, "every sign-in has ended")

	old := ask()
	_, err = r.Store.DB().Exec("UPDATE resets SET made = NOW(6) - INTERVAL 31 MINUTE")
	require.NoError(t, err)
	assert.ErrorContains(t, account.Reset(ctx, r.App, old, "another one again"), "half an hour")
	for range 10 {
		err = account.Forgot(ctx, r.App, "t@example.com", "here")
	}
	assert.ErrorContains(t, err, "Too many")
}

func TestSignInsAreListedAndEnded(t *testing.T) {
	r := studiotest.New(t)
	open := func(agent string) string {
		id, err := account.OpenDevice(ctx, r.App, r.Who, agent)
		require.NoError(t, err)
		return id
	}
	holds := func(id string) bool {
		is, _, err := account.Holds(ctx, r.App, r.Who, id)
		require.NoError(t, err)
		return is
	}
	laptop, phone, old := open("laptop"), open("phone"), open("old")
	require.NoError(t, account.EndDevice(ctx, r.App, r.Who, old))
	assert.Equal(t, []bool{true, true, false}, []bool{holds(laptop), holds(phone), holds(old)})
	v, err := account.Show(ctx, r.App, r.Who, laptop)
	require.NoError(t, err)
	require.Len(t, v.Devices, 3)
	assert.True(t, v.Devices[2].Here)
	require.NoError(t, account.SetPassword(ctx, r.App, r.Who, laptop, "a long password", "harbour gull lantern"))
	assert.Equal(t, []bool{true, false}, []bool{holds(laptop), holds(phone)}, "another password ends the others")
	require.NoError(t, account.EndOthers(ctx, r.App, r.Who, phone))
	assert.False(t, holds(laptop))
	assert.False(t, holds(studio.NewID()), "nobody's")
}

// Codes are those of RFC 6238; a published library makes them here as the teacher's app does.
func TestACodeOfAnApp(t *testing.T) {
	r := studiotest.New(t)
	app, err := account.BeginApp(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Contains(t, app.URI, "otpauth://totp/Patient%20Ladder:t@example.com")
	code := func(off time.Duration) string {
		c, err := totp.GenerateCode(app.Secret, r.Now.Add(off))
		require.NoError(t, err)
		return c
	}
	_, err = account.KeepApp(ctx, r.App, r.Who, app.Secret, "000000", "a long password")
	assert.ErrorContains(t, err, "not the one that the app shows")
	_, err = account.KeepApp(ctx, r.App, r.Who, app.Secret, code(0), "wrong password")
	assert.ErrorContains(t, err, "not your password")
	recovery, err := account.KeepApp(ctx, r.App, r.Who, app.Secret, code(0), "a long password")
	require.NoError(t, err)
	assert.Len(t, recovery.Codes, 10)

	var asked *studio.Error
	require.ErrorAs(t, r.SignIn("a long password", ""), &asked)
	assert.Equal(t, studio.AnotherFactor, asked.Kind)
	assert.NoError(t, r.SignIn("a long password", code(0)))
	assert.ErrorContains(t, r.SignIn("a long password", code(0)), "was used before")
	assert.NoError(t, r.SignIn("a long password", code(30*time.Second)), "a clock half a minute ahead")
	assert.Error(t, r.SignIn("a long password", code(2*time.Minute)), "two minutes are too much")
	assert.NoError(t, r.SignIn("a long password", recovery.Codes[3]))
	assert.Error(t, r.SignIn("a long password", recovery.Codes[3]), "each once")
	v, err := account.Show(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	assert.Equal(t, 9, v.Recovery)
	assert.ErrorContains(t, account.DropApp(ctx, r.App, r.Who, "wrong password"), "not your password")
	require.NoError(t, account.DropApp(ctx, r.App, r.Who, "a long password"))
	assert.NoError(t, r.SignIn("a long password", ""))
}

func TestPasswordsAreNotKept(t *testing.T) {
	r := studiotest.New(t)
	_, err := account.Admit(ctx, r.App, account.SignIn{Email: "t@example.com", Password: "a long password", From: "here"})
	assert.NoError(t, err)
	for _, wrong := range [][2]string{{"t@example.com", "a long passwore"}, {"nobody@example.com", "a long password"}, {"", ""}} {
		_, err := account.Admit(ctx, r.App, account.SignIn{Email: wrong[0], Password: wrong[1], From: "here"})
		var known *studio.Error
		require.True(t, errors.As(err, &known))
		assert.Equal(t, studio.Denied, known.Kind)
		assert.Equal(t, "The email address or the password is wrong.", known.Says, "the same sentence whichever is wrong")
	}
}
