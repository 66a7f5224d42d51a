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

	"github.com/alexedwards/argon2id"

	"patientladder/core/calendar"
	"patientladder/mail"
	"patientladder/store"
)

// passwords are hashed by RFC 9106, section 4, the second recommended option (64 MiB, 3
// passes), with 2 lanes.
var passwords = &argon2id.Params{Memory: 64 << 10, Iterations: 3, Parallelism: 2, SaltLength: 16, KeyLength: 32}

func hashPassword(password string) string {
	hash, err := argon2id.CreateHash(password, passwords)
	if err != nil {
		panic(err) // the machine has no randomness
	}
	return hash
}

func checkPassword(encoded, password string) bool {
	same, err := argon2id.ComparePasswordAndHash(password, encoded)
	return err == nil && same
}

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
}

// SignUp makes a studio and its teacher.
func (a *App) SignUp(ctx context.Context, in SignUp) (Who, error) {
	in.Name, in.Email, in.Studio = strings.TrimSpace(in.Name), strings.TrimSpace(in.Email), strings.TrimSpace(in.Studio)
	addr, err := netmail.ParseAddress(in.Email)
	switch {
	case err != nil || addr.Address != in.Email:
		return Who{}, invalid("%q is not a mail address.", in.Email)
	case in.Name == "" || in.Studio == "":
		return Who{}, invalid("Your name and the studio's name are needed.")
	}
	if err := checkNew(in.Password, in.Email); err != nil {
		return Who{}, err
	}
	if _, err := time.LoadLocation(in.Zone); err != nil || in.Zone == "" {
		return Who{}, invalid("%q is not a time zone such as Europe/London.", in.Zone)
	}
	who := Who{NewID(), NewID()}
	err = a.store.AddStudio(ctx,
		store.StudioRow{ID: who.Studio, Name: in.Studio, Zone: in.Zone, Calendar: in.Calendar, Demo: in.Demo, ClockShift: in.Shift},
		store.Teacher{ID: who.Teacher, Email: in.Email, Name: in.Name, Password: hashPassword(in.Password)})
	if errors.Is(err, store.ErrTaken) {
		return Who{}, &Error{Conflict, "This mail address has an account already; sign in instead.", err}
	}
	return who, told(err, "studio")
}

// Sign-in is refused for a while after so many failures from one address.
const (
	maxFailures   = 10
	failureWindow = 15 * time.Minute
)

// dummy takes as long to check as a real password, so that the time does not
// tell which mail addresses have accounts.
var dummy = hashPassword("no one's password")

// A SignIn is what somebody signs in with.
type SignIn struct {
	Email    string
	Password string
	Code     string // of the app, or a recovery code; empty where none was asked for yet
	From     string // network address
}

// keys are by what failures are counted.
func (in SignIn) keys() []string {
	return []string{"mail " + strings.ToLower(strings.TrimSpace(in.Email)), "from " + in.From}
}

// SignIn lets a teacher in by mail address and password, and by a code where one is asked for.
func (a *App) SignIn(ctx context.Context, in SignIn) (Who, error) {
	if err := a.patient(ctx, in.keys()); err != nil {
		return Who{}, err
	}
	t, err := a.store.TeacherByEmail(ctx, strings.TrimSpace(in.Email))
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return Who{}, told(err, "account")
	}
	encoded := t.Password
	if encoded == "" {
		encoded = dummy
	}
	if !checkPassword(encoded, in.Password) || t.ID == "" {
		return Who{}, a.failed(ctx, in.keys(), "The mail address or the password is wrong.")
	}
	f, err := a.store.FactorsOf(ctx, t.ID)
	if err != nil {
		return Who{}, told(err, "account")
	}
	switch {
	case f.AppSecret == "":
	case in.Code == "":
		return Who{}, &Error{Kind: AnotherFactor, Says: "Write the six digits that your app shows, or one of your recovery codes."}
	default:
		right, err := a.takeCode(ctx, t.ID, in.Code)
		if err != nil {
			return Who{}, err
		}
		if !right {
			return Who{}, a.failed(ctx, in.keys(), "That code is not right, or was used before. Wait for the next one.")
		}
	}
	return Who{t.ID, t.Studio}, nil
}

// patient refuses for a while after too many failures.
func (a *App) patient(ctx context.Context, keys []string) error {
	for _, key := range keys {
		n, err := a.store.FailedSignIns(ctx, key, failureWindow)
		if err != nil {
			return told(err, "account")
		}
		if n >= maxFailures {
			return &Error{Kind: TooMany, Says: "Too many sign-ins failed. Wait a quarter of an hour and try again."}
		}
	}
	return nil
}

// failed counts a failure and says why.
func (a *App) failed(ctx context.Context, keys []string, says string) error {
	for _, key := range keys {
		if err := a.store.AddFailedSignIn(ctx, key); err != nil {
			return told(err, "account")
		}
	}
	return &Error{Kind: Denied, Says: says}
}

// OpenDevice keeps that somebody signed in with a browser, and returns the id of that.
func (a *App) OpenDevice(ctx context.Context, who Who, agent string) (string, error) {
	id := NewID()
	return id, told(a.store.AddDevice(ctx, who.Teacher, id, agent), "account")
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
	keys := []string{"mail " + strings.ToLower(t.Email)}
	if err := a.patient(ctx, keys); err != nil {
		return t, err
	}
	if !checkPassword(t.Password, password) {
		err := a.failed(ctx, keys, "")
		var refused *Error
		if errors.As(err, &refused) && refused.Kind == Denied {
			return t, invalid("That is not your password, so nothing was changed.")
		}
		return t, err
	}
	return t, nil
}

// SetEmail changes the mail address that a teacher signs in with.
func (a *App) SetEmail(ctx context.Context, who Who, email, password string) error {
	email = strings.TrimSpace(email)
	if addr, err := netmail.ParseAddress(email); err != nil || addr.Address != email {
		return invalid("%q is not a mail address.", email)
	}
	t, err := a.knows(ctx, who, password)
	if err != nil {
		return err
	}
	t.Email = email
	if err = a.store.SetTeacher(ctx, t); errors.Is(err, store.ErrTaken) {
		return &Error{Conflict, "This mail address has another account.", err}
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
	t.Password = hashPassword(password)
	return told(errors.Join(a.store.SetTeacher(ctx, t), a.store.EndOtherDevices(ctx, t.ID, device)), "account")
}

// SetPasswordOf sets the password of an account, for who runs the program; all its sign-ins
// end.
func (a *App) SetPasswordOf(ctx context.Context, email, password string) error {
	t, err := a.store.TeacherByEmail(ctx, email)
	if err != nil {
		return told(err, "account")
	}
	if err := checkNew(password, email); err != nil {
		return err
	}
	t.Password = hashPassword(password)
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
	in := SignIn{Email: "reset " + email, From: "reset " + from}
	if err := a.patient(ctx, in.keys()); err != nil {
		return err
	}
	for _, key := range in.keys() { // each asking counts, whoever has an account
		if err := a.store.AddFailedSignIn(ctx, key); err != nil {
			return told(err, "account")
		}
	}
	t, err := a.store.TeacherByEmail(ctx, strings.TrimSpace(email))
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
	l := mail.Letter{ID: NewID(), FromName: "Patient Ladder", To: t.Email, Subject: "Another password", Text: text,
		HTML: "<p>Somebody, perhaps you, asked for another password for Patient Ladder.</p><p><a href=\"" + link + "\">Set another password</a> within half an hour; the link works once.</p><p>If it was not you, nothing has changed and there is nothing to do.</p>"}
	if err := a.mailer.Send(ctx, l); err != nil {
		return &Error{Unavailable, "The mail could not be sent just now; try again in a while.", err}
	}
	return nil
}

// Reset sets the password of whom a link was mailed to; all sign-ins end.
func (a *App) Reset(ctx context.Context, token, password string) error {
	if err := checkNew(password, ""); err != nil {
		return err
	}
	err := a.store.Reset(ctx, token, hashPassword(password), resetHolds)
	if errors.Is(err, store.ErrNotFound) {
		return &Error{Gone, "This link was used or is older than half an hour. Ask for another.", err}
	}
	return told(err, "account")
}
