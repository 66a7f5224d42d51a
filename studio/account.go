package studio

import (
	"context"
	"crypto/sha256"
	_ "embed"
	"encoding/hex"
	"errors"
	netmail "net/mail"
	"strings"
	"time"
	"unicode/utf8"

	"patientladder/core/calendar"
	"patientladder/core/charset"
	"patientladder/store"
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
		return invalid("The password needs at least %d characters; three unrelated words do well.", shortest)
	case len(password) > 200:
		return invalid("The password is longer than 200 characters.")
	case plain == strings.ToLower(email) || plain == name:
		return invalid("The password must not be the mail address.")
	case strings.Contains(usual, hex.EncodeToString(sum[:8])+"\n") || strings.Count(plain, plain[:1]) == len(plain):
		return invalid("That password is among those that are tried first; three unrelated words do well.")
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
	Calendar calendar.Calendar
	Demo     bool
	Shift    time.Duration // of a demo's clock

	Invitation string // where new studios come by invitation
	From       string // network address; empty for who runs the program
}

// plain refuses names that hold characters which are not written.
func plain(names ...string) error {
	for _, name := range names {
		if charset.Steers(name) {
			return invalid("%q holds characters that are not written, such as a line's end. Type it anew.", name)
		}
	}
	return nil
}

// Studios that one network address may make in a while.
const (
	signUps      = 10
	signUpWindow = time.Hour
)

// welcome says whether somebody may make a studio: by invitation where the copy is closed, and only so many
// from one address, whoever asks.
func (a *App) welcome(ctx context.Context, in SignUp) error {
	if in.From == "" {
		return nil
	}
	if a.closed && in.Invitation == "" {
		return &Error{Kind: Denied, Says: "This copy takes new studios by invitation. Ask who runs it for one."}
	}
	_, n, _, err := a.store.ReserveSignIn(ctx, "sign-up "+in.From, signUpWindow)
	if err != nil {
		return told(err, "account")
	}
	if n >= signUps {
		return &Error{TooMany, "Too many studios were made from here. Try again in an hour.", Wait(signUpWindow.Seconds())}
	}
	return nil
}

// ByInvitation has new studios come by invitation only.
func (a *App) ByInvitation() { a.closed = true }

// Invite makes an invitation to make one studio; it holds for some weeks.
func (a *App) Invite(ctx context.Context) (string, error) {
	token := chance()
	return token, told(a.store.AddInvitation(ctx, token), "invitation")
}

// SignUp makes a studio and its teacher. Where addresses are confirmed nobody is signed in yet: a mail is on its
// way, and who is empty.
func (a *App) SignUp(ctx context.Context, in SignUp) (Who, error) {
	in.Name, in.Email, in.Studio = strings.TrimSpace(in.Name), mailKey(in.Email), strings.TrimSpace(in.Studio)
	addr, err := netmail.ParseAddress(in.Email)
	switch {
	case err != nil || addr.Address != in.Email:
		return Who{}, invalid("%q is not a mail address.", in.Email)
	case in.Name == "" || in.Studio == "":
		return Who{}, invalid("Your name and the studio's name are needed.")
	}
	if err := plain(in.Name, in.Studio, in.Email); err != nil {
		return Who{}, err
	}
	if err := checkNew(in.Password, in.Email); err != nil {
		return Who{}, err
	}
	if _, err := time.LoadLocation(in.Zone); err != nil || in.Zone == "" {
		return Who{}, invalid("%q is not a time zone such as Europe/London.", in.Zone)
	}
	if err := a.welcome(ctx, in); err != nil {
		return Who{}, err
	}
	hash, err := hashPassword(ctx, in.Password)
	if err != nil {
		return Who{}, err
	}
	new := store.SignUp{Name: in.Name, Email: in.Email, Password: hash, Studio: in.Studio, Zone: in.Zone, Calendar: in.Calendar, Demo: in.Demo, Shift: in.Shift, Invitation: in.Invitation}
	if a.confirms && in.From != "" {
		return Who{}, a.askToConfirm(ctx, new)
	}
	return a.found(ctx, new)
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

// SignIn lets a teacher in by mail address and password, and by a code where one is asked for.
func (a *App) SignIn(ctx context.Context, in SignIn) (Who, error) {
	t, err := a.store.TeacherByEmail(ctx, mailKey(in.Email))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return Who{}, told(err, "account")
	}
	tried, err := a.patient(ctx, in.counters(t.ID)...)
	if err != nil {
		return Who{}, err
	}
	encoded := t.Password
	if encoded == "" {
		encoded = dummy
	}
	right, err := checkPassword(ctx, encoded, in.Password)
	if err != nil {
		return Who{}, errors.Join(err, tried.refund(ctx))
	}
	if !right || t.ID == "" {
		return Who{}, &Error{Kind: Denied, Says: "The mail address or the password is wrong."}
	}
	f, err := a.store.FactorsOf(ctx, t.ID)
	if err != nil {
		return Who{}, told(err, "account")
	}
	switch {
	case f.AppSecret == "":
	case in.Code == "":
		return Who{}, errors.Join(tried.refund(ctx), &Error{Kind: AnotherFactor, Says: "Write the six digits that your app shows, or one of your recovery codes."})
	default:
		right, err := a.takeCode(ctx, t.ID, in.Code)
		if err != nil {
			return Who{}, err
		}
		if !right {
			return Who{}, &Error{Kind: Denied, Says: "That code is not right, or was used before. Wait for the next one."}
		}
	}
	return Who{t.ID, t.Studio}, tried.refund(ctx)
}

// OpenDevice keeps that somebody signed in with a browser, and returns the id of that.
func (a *App) OpenDevice(ctx context.Context, who Who, agent string) (string, error) {
	id := NewID()
	return id, told(errors.Join(a.store.AddDevice(ctx, who.Teacher, id, agent), a.store.ForgetTold(ctx)), "account")
}

// Holds reports whether a sign-in still holds.
func (a *App) Holds(ctx context.Context, who Who, device string) (bool, error) {
	holds, err := a.store.SeeDevice(ctx, who.Teacher, device)
	return holds, told(err, "account")
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
	Devices  []Device      `json:"devices" doc:"sign-ins, the last first"`
	App      bool          `json:"app" doc:"a code of an app is asked for"`
	Recovery int           `json:"recovery" doc:"codes that are left"`
	Passkeys []PasskeyView `json:"passkeys"`
}

// Account shows the account of who asks, from a device.
func (a *App) Account(ctx context.Context, who Who, device string) (AccountView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return AccountView{}, err
	}
	t, err1 := a.store.Teacher(ctx, who.Teacher)
	devices, err2 := a.store.Devices(ctx, who.Teacher)
	f, err3 := a.store.FactorsOf(ctx, who.Teacher)
	if err := errors.Join(err1, err2, err3); err != nil {
		return AccountView{}, told(err, "account")
	}
	v := AccountView{Name: t.Name, Email: t.Email, Studio: r.row.Name, Zone: r.row.Zone, Devices: []Device{}, App: f.AppSecret != "", Recovery: len(f.Recovery), Passkeys: []PasskeyView{}}
	for _, d := range devices {
		v.Devices = append(v.Devices, Device{d.ID, d.Agent, d.Made, d.Seen, d.Ended, d.ID == device})
	}
	for _, k := range passkeysOf(f) {
		v.Passkeys = append(v.Passkeys, PasskeyView{k.ID, k.Name, k.Made})
	}
	return v, nil
}

// SetAccount keeps the teacher's and the studio's name, and its zone.
func (a *App) SetAccount(ctx context.Context, who Who, name, studio, zone string) error {
	name, studio = strings.TrimSpace(name), strings.TrimSpace(studio)
	if name == "" || studio == "" {
		return invalid("Your name and the studio's name are needed.")
	}
	if err := plain(name, studio); err != nil {
		return err
	}
	if _, err := time.LoadLocation(zone); err != nil || zone == "" {
		return invalid("%q is not a time zone such as Europe/London.", zone)
	}
	t, err := a.store.Teacher(ctx, who.Teacher)
	if err != nil {
		return told(err, "account")
	}
	t.Name = name
	return told(errors.Join(a.store.SetTeacher(ctx, t), a.store.In(who.Studio).SetStudioName(ctx, studio, zone)), "account")
}

// knows asks a teacher for the password before something that a stranger at an open laptop
// must not do.
func (a *App) knows(ctx context.Context, who Who, password string) (store.Teacher, error) {
	t, err := a.store.Teacher(ctx, who.Teacher)
	if err != nil {
		return t, told(err, "account")
	}
	tried, err := a.patient(ctx, counter{"again " + t.ID, freeFailures})
	if err != nil {
		return t, err
	}
	right, err := checkPassword(ctx, t.Password, password)
	if err != nil {
		return t, errors.Join(err, tried.refund(ctx))
	}
	if !right {
		return t, invalid("That is not your password, so nothing was changed.")
	}
	return t, tried.refund(ctx)
}

// SetEmail changes the mail address that a teacher signs in with.
func (a *App) SetEmail(ctx context.Context, who Who, email, password string) error {
	email = mailKey(email)
	if addr, err := netmail.ParseAddress(email); err != nil || addr.Address != email {
		return invalid("%q is not a mail address.", email)
	}
	if err := plain(email); err != nil {
		return err
	}
	t, err := a.knows(ctx, who, password)
	if err != nil {
		return err
	}
	before := t.Email
	t.Email = email
	if err = a.store.SetTeacher(ctx, t); errors.Is(err, store.ErrTaken) {
		return &Error{Conflict, "This mail address has another account.", err}
	}
	if err == nil && before != email {
		a.warn(ctx, before, newAddress)
	}
	return told(err, "account")
}

// SetPassword changes a teacher's password; all other sign-ins end.
func (a *App) SetPassword(ctx context.Context, who Who, device, old, password string) error {
	t, err := a.knows(ctx, who, old)
	if err != nil {
		return err
	}
	if err := checkNew(password, t.Email); err != nil {
		return err
	}
	if t.Password, err = hashPassword(ctx, password); err != nil {
		return err
	}
	return a.warned(ctx, t.ID, newPassword, told(errors.Join(a.store.SetTeacher(ctx, t), a.store.EndOtherDevices(ctx, t.ID, device)), "account"))
}

// SetPasswordOf sets the password of an account, for who runs the program; all its sign-ins
// end.
func (a *App) SetPasswordOf(ctx context.Context, email, password string) error {
	t, err := a.store.TeacherByEmail(ctx, mailKey(email))
	if err != nil {
		return told(err, "account")
	}
	if err := checkNew(password, email); err != nil {
		return err
	}
	if t.Password, err = hashPassword(ctx, password); err != nil {
		return err
	}
	return told(errors.Join(a.store.SetTeacher(ctx, t), a.store.EndOtherDevices(ctx, t.ID, "")), "account")
}

// EndDevice ends a sign-in.
func (a *App) EndDevice(ctx context.Context, who Who, device string) error {
	return told(a.store.EndDevice(ctx, who.Teacher, device), "account")
}

// EndOthers ends all sign-ins but one.
func (a *App) EndOthers(ctx context.Context, who Who, but string) error {
	return told(a.store.EndOtherDevices(ctx, who.Teacher, but), "account")
}

// resetHolds is how long a link for another password opens, once.
const resetHolds = 30 * time.Minute

// Forgot mails a link for another password to an address, if it has an account. Whether it
// has one is not told.
func (a *App) Forgot(ctx context.Context, email, from string) error {
	if a.mailer == nil {
		return &Error{Kind: Unavailable, Says: "This copy of the program sends no mail, so that no link can be sent. Who runs it can set another password: ladder password."}
	}
	// each asking counts, whoever has an account
	if _, err := a.patient(ctx, counter{"reset mail " + mailKey(email), freeFailures}, counter{"reset from " + from, freeFrom}); err != nil {
		return err
	}
	t, err := a.store.TeacherByEmail(ctx, mailKey(email))
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return told(err, "account")
	}
	token := chance()
	if err := a.store.AddReset(ctx, t.ID, token); err != nil {
		return told(err, "account")
	}
	link := a.base + "/reset#" + token
	text := "Somebody, perhaps you, asked for another password for Patient Ladder.\n\nSet it here within half an hour; the link works once:\n" + link + "\n\nIf it was not you, nothing has changed and there is nothing to do.\n"
	return a.mailOwner(ctx, t.Email, "Another password", text,
		"<p>Somebody, perhaps you, asked for another password for Patient Ladder.</p><p><a href=\""+link+"\">Set another password</a> within half an hour; the link works once.</p><p>If it was not you, nothing has changed and there is nothing to do.</p>")
}

// Reset sets the password of whom a link was mailed to; all sign-ins end.
func (a *App) Reset(ctx context.Context, token, password string) error {
	if err := checkNew(password, ""); err != nil {
		return err
	}
	hash, err := hashPassword(ctx, password)
	if err != nil {
		return err
	}
	teacher, err := a.store.Reset(ctx, token, hash, resetHolds)
	if errors.Is(err, store.ErrNotFound) {
		return &Error{Gone, "This link was used or is older than half an hour. Ask for another.", err}
	}
	return a.warned(ctx, teacher, newPassword, told(err, "account"))
}
