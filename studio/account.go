package studio

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"net/mail"
	"strings"
	"time"

	"golang.org/x/crypto/argon2"

	"patientladder/core/calendar"
	"patientladder/store"
)

// Parameters of argon2id: RFC 9106, section 4, the second recommended option
// (64 MiB, 3 passes), with 2 lanes.
const (
	passes  = 3
	memory  = 64 << 10 // KiB
	lanes   = 2
	saltLen = 16
	keyLen  = 32
)

func hashPassword(password string) string {
	salt := make([]byte, saltLen)
	rand.Read(salt) // never fails
	key := argon2.IDKey([]byte(password), salt, passes, memory, lanes, keyLen)
	b64 := base64.RawStdEncoding.EncodeToString
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, memory, passes, lanes, b64(salt), b64(key))
}

func checkPassword(encoded, password string) bool {
	var version, m, t, p int
	parts := strings.Split(encoded, "$")
	if len(parts) != 6 {
		return false
	}
	if _, err := fmt.Sscanf(parts[2]+" "+parts[3], "v=%d m=%d,t=%d,p=%d", &version, &m, &t, &p); err != nil {
		return false
	}
	salt, err1 := base64.RawStdEncoding.DecodeString(parts[4])
	key, err2 := base64.RawStdEncoding.DecodeString(parts[5])
	if err1 != nil || err2 != nil || version != argon2.Version {
		return false
	}
	got := argon2.IDKey([]byte(password), salt, uint32(t), uint32(m), uint8(p), uint32(len(key)))
	return subtle.ConstantTimeCompare(got, key) == 1
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
