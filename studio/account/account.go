// Package account lets teachers in: signing up and in, passwords, codes and passkeys, and what an owner is
// told of changes.
package account

import (
	"cmp"
	"context"
	"crypto/sha256"
	_ "embed"
	"encoding/hex"
	"errors"
	netmail "net/mail"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"patientladder/core/calendar"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/words"
)

// usual are the first eight bytes of the SHA-256 of the passwords of ten characters and more
// among the thirty thousand most used (the list of zxcvbn 4.4.2, MIT), in small letters.
//
//go:embed usual.sha256
var usual string

// shortest is how many characters a password has at least, as NIST SP 800-63B-4 asks more
// than eight of.
const shortest = 10

// checkNew says what is wrong with a new password.
func checkNew(password, email string) error {
	plain := strings.ToLower(strings.TrimSpace(password))
	sum := sha256.Sum256([]byte(plain))
	name, _, _ := strings.Cut(strings.ToLower(email), "@")
	switch {
	case utf8.RuneCountInString(password) < shortest, plain == "":
		return studio.Refuse("The password needs at least %d characters; three unrelated words do well.", shortest)
	case len(password) > 200:
		return studio.Refuse("The password is longer than 200 characters.")
	case plain == strings.ToLower(email) || plain == name:
		return studio.Refuse("The password must not be the email address.")
	case strings.Contains(usual, hex.EncodeToString(sum[:8])+"\n") || strings.Count(plain, plain[:1]) == len(plain):
		return studio.Refuse("That password is among those that are tried first; three unrelated words do well.")
	}
	return nil
}

// A SignUp is a new teacher with a new studio.
type SignUp struct {
	Name     string
	Email    string
	Password string
	Studio   string
	Zone     string
	Language string // empty for the base
	Calendar calendar.Calendar
	Demo     bool
	Shift    time.Duration // of a demo's clock

	Invitation string // where new studios come by invitation
	From       string // network address; empty for who runs the program
}

// Studios that one network address may make in a while.
const (
	signUps      = 10
	signUpWindow = time.Hour
)

// welcome says whether somebody may make a studio: by invitation where the copy is closed, and only so many
// from one address, whoever asks.
func welcome(ctx context.Context, a *studio.App, in SignUp) error {
	if in.From == "" {
		return nil
	}
	if a.ByInvitation && in.Invitation == "" {
		return &studio.Error{Kind: studio.Denied, Says: "This copy takes new studios by invitation. Ask who runs it for one."}
	}
	_, n, _, err := a.Store.ReserveSignIn(ctx, "sign-up "+in.From, signUpWindow, a.Now())
	if err != nil {
		return studio.Failed(err, "account")
	}
	if n >= signUps {
		return &studio.Error{Kind: studio.TooMany, Says: "Too many studios were made from here. Try again in an hour.", Cause: Wait(signUpWindow.Seconds())}
	}
	return nil
}

// Invite makes an invitation to make one studio; it holds for some weeks.
func Invite(ctx context.Context, a *studio.App) (string, error) {
	token := studio.Token()
	return token, studio.Failed(a.Store.AddInvitation(ctx, token), "invitation")
}

// Make makes a studio and its teacher. Where addresses are confirmed nobody is signed in yet: a mail is on its
// way, and who is empty.
func Make(ctx context.Context, a *studio.App, in SignUp) (studio.Who, error) {
	in.Name, in.Email, in.Studio = strings.TrimSpace(in.Name), mailKey(in.Email), strings.TrimSpace(in.Studio)
	addr, err := netmail.ParseAddress(in.Email)
	switch {
	case err != nil || addr.Address != in.Email:
		return studio.Who{}, studio.Refuse("%q is not an email address.", in.Email)
	case in.Name == "" || in.Studio == "":
		return studio.Who{}, studio.Refuse("Your name and the studio's name are needed.")
	}
	if err := studio.CheckNames(in.Name, in.Studio, in.Email); err != nil {
		return studio.Who{}, err
	}
	if err := checkNew(in.Password, in.Email); err != nil {
		return studio.Who{}, err
	}
	if _, err := time.LoadLocation(in.Zone); err != nil || in.Zone == "" {
		return studio.Who{}, studio.Refuse("%q is not a time zone such as Europe/London.", in.Zone)
	}
	if err := welcome(ctx, a, in); err != nil {
		return studio.Who{}, err
	}
	hash, err := hashPassword(ctx, in.Password)
	if err != nil {
		return studio.Who{}, err
	}
	new := store.SignUp{Name: in.Name, Email: in.Email, Password: hash, Studio: in.Studio, Zone: in.Zone, Language: language(in.Language), Calendar: in.Calendar, Demo: in.Demo, Shift: in.Shift, Invitation: in.Invitation}
	if a.Confirms && in.From != "" {
		return studio.Who{}, askToConfirm(ctx, a, new)
	}
	return found(ctx, a, new)
}

// language is one of the program's, by the first that a browser names.
func language(asked string) string {
	if slices.Contains(words.Languages, asked) {
		return asked
	}
	return words.Base
}

// A SignIn is what somebody signs in with.
type SignIn struct {
	Email    string
	Password string
	Code     string   // of the app, or a recovery code; empty where none was asked for yet
	From     string   // network address
	Browser  string   // that asks; empty for one that never signed in
	Knows    []string // ids of the teachers who signed in with it
}

// Admit lets a teacher in by email address and password, and by a code where one is asked for.
func Admit(ctx context.Context, a *studio.App, in SignIn) (studio.Who, error) {
	t, err := a.Store.TeacherByEmail(ctx, mailKey(in.Email))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return studio.Who{}, studio.Failed(err, "account")
	}
	tried, err := patient(ctx, a, in.counters(t.ID)...)
	if err != nil {
		return studio.Who{}, err
	}
	encoded := t.Password
	if encoded == "" {
		encoded = dummy()
	}
	right, err := checkPassword(ctx, encoded, in.Password)
	if err != nil {
		return studio.Who{}, errors.Join(err, tried.refund(ctx))
	}
	if !right || t.ID == "" {
		return studio.Who{}, &studio.Error{Kind: studio.Denied, Says: "The email address or the password is wrong."}
	}
	f, err := a.Store.FactorsOf(ctx, t.ID)
	if err != nil {
		return studio.Who{}, studio.Failed(err, "account")
	}
	switch {
	case f.AppSecret == "":
	case in.Code == "":
		return studio.Who{}, errors.Join(tried.refund(ctx), &studio.Error{Kind: studio.AnotherFactor, Says: "Write the six digits that your app shows, or one of your recovery codes."})
	default:
		right, err := takeCode(ctx, a, t.ID, in.Code)
		if err != nil {
			return studio.Who{}, err
		}
		if !right {
			return studio.Who{}, &studio.Error{Kind: studio.Denied, Says: "That code is not right, or was used before. Wait for the next one."}
		}
	}
	return studio.Who{Teacher: t.ID, Studio: t.Studio}, tried.refund(ctx)
}

// OpenDevice keeps that somebody signed in with a browser, and returns the id of that.
func OpenDevice(ctx context.Context, a *studio.App, who studio.Who, agent string) (string, error) {
	id := studio.NewID()
	return id, studio.Failed(errors.Join(a.Store.AddDevice(ctx, who.Teacher, id, agent), a.Store.ForgetTold(ctx)), "account")
}

// Holds reports whether a sign-in still holds.
func Holds(ctx context.Context, a *studio.App, who studio.Who, device string) (holds bool, language string, err error) {
	holds, language, err = a.Store.SeeDevice(ctx, who.Teacher, device)
	return holds, language, studio.Failed(err, "account")
}

// A Device is a sign-in as the teacher sees it.
type Device struct {
	ID    string    `json:"id"`
	Agent string    `json:"agent" doc:"what the browser calls itself"`
	Made  time.Time `json:"made"`
	Seen  time.Time `json:"seen"`
	Ended bool      `json:"ended"`
	Here  bool      `json:"here" doc:"it is the one that asks"`
}

// An AccountView is a teacher's account.
type AccountView struct {
	Name     string        `json:"name"`
	Email    string        `json:"email"`
	Studio   string        `json:"studio"`
	Zone     string        `json:"zone"`
	Language string        `json:"language" doc:"of screens, and of homes that have none of their own"`
	Speaks   []string      `json:"speaks" doc:"the languages of the program, the base first"`
	Devices  []Device      `json:"devices" doc:"sign-ins, the last first"`
	App      bool          `json:"app" doc:"a code of an app is asked for"`
	Recovery int           `json:"recovery" doc:"codes that are left"`
	Passkeys []PasskeyView `json:"passkeys"`
}

// Show shows the account of who asks, from a device.
func Show(ctx context.Context, a *studio.App, who studio.Who, device string) (AccountView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return AccountView{}, err
	}
	t, err1 := a.Store.Teacher(ctx, who.Teacher)
	devices, err2 := a.Store.Devices(ctx, who.Teacher)
	f, err3 := a.Store.FactorsOf(ctx, who.Teacher)
	if err := errors.Join(err1, err2, err3); err != nil {
		return AccountView{}, studio.Failed(err, "account")
	}
	v := AccountView{Name: t.Name, Email: t.Email, Studio: r.Row.Name, Zone: r.Row.Zone, Language: r.Row.Language, Speaks: words.Languages, Devices: []Device{}, App: f.AppSecret != "", Recovery: len(f.Recovery), Passkeys: []PasskeyView{}}
	for _, d := range devices {
		v.Devices = append(v.Devices, Device{d.ID, d.Agent, d.Made, d.Seen, d.Ended, d.ID == device})
	}
	for _, k := range passkeysOf(f) {
		v.Passkeys = append(v.Passkeys, PasskeyView{k.ID, k.Name, k.Made})
	}
	return v, nil
}

// Names are the teacher's name and what the studio is called, its zone and its language.
type Names struct {
	Name     string `json:"name" maxLength:"200"`
	Studio   string `json:"studio" maxLength:"200"`
	Zone     string `json:"zone" maxLength:"60"`
	Language string `json:"language,omitempty" maxLength:"35" doc:"one of the program's; empty for as it is"`
}

// SetAccount keeps the teacher's name and what the studio is called, its zone and its language.
func SetAccount(ctx context.Context, a *studio.App, who studio.Who, c studio.Change[Names]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		t, err := a.Store.Teacher(ctx, who.Teacher)
		if err != nil {
			return studio.Failed(err, "account")
		}
		n, err := c.Onto(&Names{t.Name, r.Row.Name, r.Row.Zone, r.Row.Language})
		if err != nil {
			return err
		}
		n.Name, n.Studio = strings.TrimSpace(n.Name), strings.TrimSpace(n.Studio)
		if n.Name == "" || n.Studio == "" {
			return studio.Refuse("Your name and the studio's name are needed.")
		}
		if err := studio.CheckNames(n.Name, n.Studio); err != nil {
			return err
		}
		if _, err := time.LoadLocation(n.Zone); err != nil || n.Zone == "" || n.Zone == "Local" {
			return studio.Refuse("%q is not a time zone such as Europe/London.", n.Zone)
		}
		n.Language = cmp.Or(n.Language, r.Row.Language) // an older page does not name it
		if !slices.Contains(words.Languages, n.Language) {
			return studio.Refuse("%q is not a language of the program.", n.Language)
		}
		return studio.Failed(r.SetNames(ctx, who.Teacher, n.Name, n.Studio, n.Zone, n.Language), "account")
	})
}

// Knows asks a teacher for the password before something that a stranger at an open laptop
// must not do.
func Knows(ctx context.Context, a *studio.App, who studio.Who, password string) (store.Teacher, error) {
	t, err := a.Store.Teacher(ctx, who.Teacher)
	if err != nil {
		return t, studio.Failed(err, "account")
	}
	tried, err := patient(ctx, a, counter{"again " + t.ID, freeFailures})
	if err != nil {
		return t, err
	}
	right, err := checkPassword(ctx, t.Password, password)
	if err != nil {
		return t, errors.Join(err, tried.refund(ctx))
	}
	if !right {
		return t, studio.Refuse("That is not your password, so nothing was changed.")
	}
	return t, tried.refund(ctx)
}

// SetEmail changes the email address that a teacher signs in with.
func SetEmail(ctx context.Context, a *studio.App, who studio.Who, email, password string) error {
	email = mailKey(email)
	if addr, err := netmail.ParseAddress(email); err != nil || addr.Address != email {
		return studio.Refuse("%q is not an email address.", email)
	}
	if err := studio.CheckNames(email); err != nil {
		return err
	}
	t, err := Knows(ctx, a, who, password)
	if err != nil {
		return err
	}
	before := t.Email
	t.Email = email
	if err = a.Store.SetTeacher(ctx, t); errors.Is(err, store.ErrTaken) {
		return &studio.Error{Kind: studio.Conflict, Says: "This email address has another account.", Cause: err}
	}
	if err == nil && before != email {
		warn(ctx, a, before, newAddress)
	}
	return studio.Failed(err, "account")
}

// SetPassword changes a teacher's password; all other sign-ins end.
func SetPassword(ctx context.Context, a *studio.App, who studio.Who, device, old, password string) error {
	t, err := Knows(ctx, a, who, old)
	if err != nil {
		return err
	}
	if err := checkNew(password, t.Email); err != nil {
		return err
	}
	if t.Password, err = hashPassword(ctx, password); err != nil {
		return err
	}
	return warned(ctx, a, t.ID, newPassword, studio.Failed(errors.Join(a.Store.SetTeacher(ctx, t), a.Store.EndOtherDevices(ctx, t.ID, device)), "account"))
}

// SetPasswordOf sets the password of an account, for who runs the program; all its sign-ins
// end.
func SetPasswordOf(ctx context.Context, a *studio.App, email, password string) error {
	t, err := a.Store.TeacherByEmail(ctx, mailKey(email))
	if err != nil {
		return studio.Failed(err, "account")
	}
	if err := checkNew(password, email); err != nil {
		return err
	}
	if t.Password, err = hashPassword(ctx, password); err != nil {
		return err
	}
	return studio.Failed(errors.Join(a.Store.SetTeacher(ctx, t), a.Store.EndOtherDevices(ctx, t.ID, "")), "account")
}

// EndDevice ends a sign-in.
func EndDevice(ctx context.Context, a *studio.App, who studio.Who, device string) error {
	return studio.Failed(a.Store.EndDevice(ctx, who.Teacher, device), "account")
}

// EndOthers ends all sign-ins but one.
func EndOthers(ctx context.Context, a *studio.App, who studio.Who, but string) error {
	return studio.Failed(a.Store.EndOtherDevices(ctx, who.Teacher, but), "account")
}

// resetHolds is how long a link for another password opens, once.
const resetHolds = 30 * time.Minute

// Forgot mails a link for another password to an address, if it has an account. Whether it
// has one is not told.
func Forgot(ctx context.Context, a *studio.App, email, from string) error {
	if a.Mailer == nil {
		return &studio.Error{Kind: studio.Unavailable, Says: "This copy of the program sends no mail, so that no link can be sent. Who runs it can set another password: ladder password."}
	}
	// each asking counts, whoever has an account
	if _, err := patient(ctx, a, counter{"reset mail " + mailKey(email), freeFailures}, counter{"reset from " + from, freeFrom}); err != nil {
		return err
	}
	t, err := a.Store.TeacherByEmail(ctx, mailKey(email))
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return studio.Failed(err, "account")
	}
	token := studio.Token()
	if err := a.Store.AddReset(ctx, t.ID, token); err != nil {
		return studio.Failed(err, "account")
	}
	link := a.Base + "/reset#" + token
	text := "Somebody, perhaps you, asked for another password for Patient Ladder.\n\nSet it here within half an hour; the link works once:\n" + link + "\n\nIf it was not you, nothing has changed and there is nothing to do.\n"
	return mailOwner(ctx, a, t.Email, "Another password", text,
		"<p>Somebody, perhaps you, asked for another password for Patient Ladder.</p><p><a href=\""+link+"\">Set another password</a> within half an hour; the link works once.</p><p>If it was not you, nothing has changed and there is nothing to do.</p>")
}

// Reset sets the password of whom a link was mailed to; all sign-ins end.
func Reset(ctx context.Context, a *studio.App, token, password string) error {
	if err := checkNew(password, ""); err != nil {
		return err
	}
	hash, err := hashPassword(ctx, password)
	if err != nil {
		return err
	}
	teacher, err := a.Store.Reset(ctx, token, hash, resetHolds)
	if errors.Is(err, store.ErrNotFound) {
		return &studio.Error{Kind: studio.Gone, Says: "This link was used or is older than half an hour. Ask for another.", Cause: err}
	}
	return warned(ctx, a, teacher, newPassword, studio.Failed(err, "account"))
}
