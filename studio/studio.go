// Package studio loads what is needed, asks core, and saves what was told: a pupil with all that is known, what
// follows for it, the documents that it is given. The use cases of each part of the program stand in the
// packages beneath, each a function of an App.
package studio

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/mail"
	"patientladder/store"
	"patientladder/words"
)

// An App is the studio's use cases over a store.
type App struct {
	Store  *store.Store
	Now    func() time.Time // the machine's clock
	Mailer Mailer           // nil where no mail is sent
	Base   string           // of the links in mails
	Hold   time.Duration    // how long a letter waits in which it can be undone

	ByInvitation bool // new studios come by invitation only
	// A studio is made only when the link in a mail to its address is opened. What a sign-up answers
	// is then the same whoever has an account.
	Confirms bool

	kept *histories
	aDay store.Limits // of facts
}

// New makes the use cases. now is the machine's clock.
func New(s *store.Store, now func() time.Time) *App {
	return &App{Store: s, Now: now, Hold: hold, aDay: DailyLimits, kept: newHistories()}
}

// hold is how long a letter waits before it goes out. A judgement.
const hold = 5 * time.Second

// Who is signed in.
type Who struct {
	Teacher string
	Studio  string
	Reader  words.Reader // how an answer is read; empty for as the studio reads
}

// List is a list that goes out as one, empty rather than null.
func List[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}

// NewID makes an id for what the server itself makes.
func NewID() string { return ulid.Make().String() }

// A Mailer sends letters.
type Mailer interface {
	Send(ctx context.Context, l mail.Letter) error
}

// Mails makes the use cases send through a mailer, with links that begin with a
// base such as https://ladder.example.
func (a *App) Mails(m Mailer, base string) { a.Mailer, a.Base = m, strings.TrimRight(base, "/") }

// An Archive is a file to keep.
type Archive struct {
	Name string
	Data []byte
}

// FileName leaves only letters, digits and hyphens of a name.
func FileName(name string) string {
	kept := strings.Map(func(r rune) rune {
		if r == '-' || r >= '0' && r <= '9' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' {
			return r
		}
		return -1
	}, name)
	if kept == "" {
		return "sheet"
	}
	return kept
}

// Token makes a token that nobody guesses.
func Token() string {
	raw := make([]byte, tokenLen)
	rand.Read(raw) // never fails
	return base64.RawURLEncoding.EncodeToString(raw)
}

// tokenLen is the bytes of chance in a family link's address.
const tokenLen = 32
