package studio

import (
	"context"
	"errors"
	"net/mail"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"

	"patientladder/core/calendar"
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
	addr, err := mail.ParseAddress(in.Email)
	switch {
	case err != nil || addr.Address != in.Email:
		return Who{}, invalid("%q is not a mail address.", in.Email)
	case in.Name == "" || in.Studio == "":
		return Who{}, invalid("Your name and the studio's name are needed.")
	case len([]rune(in.Password)) < 10:
		return Who{}, invalid("The password needs at least 10 characters; three unrelated words do well.")
	case len(in.Password) > 200:
		return Who{}, invalid("The password is longer than 200 characters.")
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

// SignIn checks a mail address and password. from is the network address.
func (a *App) SignIn(ctx context.Context, email, password, from string) (Who, error) {
	email = strings.TrimSpace(email)
	for _, key := range []string{"mail " + strings.ToLower(email), "from " + from} {
		n, err := a.store.FailedSignIns(ctx, key, failureWindow)
		if err != nil {
			return Who{}, told(err, "account")
		}
		if n >= maxFailures {
			return Who{}, &Error{Kind: TooMany, Says: "Too many sign-ins failed. Wait a quarter of an hour and try again."}
		}
	}
	t, err := a.store.TeacherByEmail(ctx, email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return Who{}, told(err, "account")
	}
	encoded := t.Password
	if encoded == "" {
		encoded = dummy
	}
	if !checkPassword(encoded, password) || t.ID == "" {
		for _, key := range []string{"mail " + strings.ToLower(email), "from " + from} {
			if err := a.store.AddFailedSignIn(ctx, key); err != nil {
				return Who{}, told(err, "account")
			}
		}
		return Who{}, &Error{Kind: Denied, Says: "The mail address or the password is wrong."}
	}
	return Who{t.ID, t.Studio}, nil
}
