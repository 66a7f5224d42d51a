package account

import (
	"cmp"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"
	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"

	"patientladder/store"
	"patientladder/studio"
)

// step is how many seconds a code of an app holds (RFC 6238).
const step = 30

// A NewApp is what an app needs to show codes.
type NewApp struct {
	Secret string `json:"secret" doc:"to be typed in"`
	URI    string `json:"uri" doc:"to be read as a picture"`
}

// BeginApp makes a secret for an app that shows codes; nothing is kept before a code of it
// was told.
func BeginApp(ctx context.Context, a *studio.App, who studio.Who) (NewApp, error) {
	t, err := a.Store.Teacher(ctx, who.Teacher)
	if err != nil {
		return NewApp{}, studio.Failed(err, "account")
	}
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Patient Ladder", AccountName: t.Email})
	if err != nil {
		return NewApp{}, err
	}
	return NewApp{key.Secret(), key.String()}, nil
}

// recoveryCodes is how many are made at once.
const recoveryCodes = 10

// A Recovery is the only time that recovery codes are told.
type Recovery struct {
	Codes []string `json:"codes"`
}

// KeepApp asks for a code of an app from now on, when the app has shown that it knows the
// secret; and makes recovery codes for the day on which it is lost.
func KeepApp(ctx context.Context, a *studio.App, who studio.Who, secret, code, password string) (Recovery, error) {
	if _, err := Knows(ctx, a, who, password); err != nil {
		return Recovery{}, err
	}
	if _, right := codeStep(secret, code, 0, a.Now()); !right {
		return Recovery{}, studio.Refuse("That code is not the one that the app shows now; try the next one.")
	}
	out := Recovery{}
	var hashes []string
	for range recoveryCodes {
		raw := make([]byte, 8)
		rand.Read(raw) // never fails
		text := hex.EncodeToString(raw)
		out.Codes = append(out.Codes, text[:8]+"-"+text[8:])
		hashes = append(hashes, hashOfCode(text))
	}
	return out, warned(ctx, a, who.Teacher, newApp, studio.Failed(a.Store.ChangeFactors(ctx, who.Teacher, func(f *store.Factors) error {
		f.AppSecret, f.AppStep, f.Recovery = secret, 0, hashes
		return nil
	}), "account"))
}

// DropApp asks for no code any more.
func DropApp(ctx context.Context, a *studio.App, who studio.Who, password string) error {
	if _, err := Knows(ctx, a, who, password); err != nil {
		return err
	}
	return warned(ctx, a, who.Teacher, noApp, studio.Failed(a.Store.ChangeFactors(ctx, who.Teacher, func(f *store.Factors) error {
		f.AppSecret, f.Recovery = "", nil
		return nil
	}), "account"))
}

func hashOfCode(code string) string {
	sum := sha256.Sum256([]byte(strings.ReplaceAll(strings.TrimSpace(code), "-", "")))
	return hex.EncodeToString(sum[:])
}

// codeStep finds the step of which a code is, after one that was taken before: now's, or one
// to either side for a clock that is a little wrong.
func codeStep(secret, code string, after int64, now time.Time) (int64, bool) {
	for _, off := range []int64{0, -1, 1} {
		at := now.Unix()/step + off
		want, err := totp.GenerateCodeCustom(secret, time.Unix(at*step, 0), totp.ValidateOpts{Period: step, Digits: otp.DigitsSix, Algorithm: otp.AlgorithmSHA1})
		if err == nil && at > after && want == strings.TrimSpace(code) {
			return at, true
		}
	}
	return 0, false
}

// takeCode takes a code of the app or a recovery code, each once.
func takeCode(ctx context.Context, a *studio.App, teacher, code string) (right bool, err error) {
	err = a.Store.ChangeFactors(ctx, teacher, func(f *store.Factors) error {
		at, is := codeStep(f.AppSecret, code, f.AppStep, a.Now())
		if right = is; is {
			f.AppStep = at
			return nil
		}
		left := slices.DeleteFunc(slices.Clone(f.Recovery), func(h string) bool { return h == hashOfCode(code) })
		right, f.Recovery = len(left) < len(f.Recovery), left
		return nil
	})
	return right, studio.Failed(err, "account")
}

// A passkey is one that a teacher signs in with instead of a password.
type passkey struct {
	ID         string              `json:"id"`
	Name       string              `json:"name"`
	Made       time.Time           `json:"made"`
	Credential webauthn.Credential `json:"credential"`
}

// A PasskeyView is a passkey as the teacher sees it.
type PasskeyView struct {
	ID   string    `json:"id"`
	Name string    `json:"name"`
	Made time.Time `json:"made"`
}

func passkeysOf(f store.Factors) []passkey {
	var out []passkey
	for _, raw := range f.Passkeys {
		var k passkey
		if json.Unmarshal(raw, &k) == nil {
			out = append(out, k)
		}
	}
	return out
}

// A holder is a teacher as package webauthn asks of one.
type holder struct {
	store.Teacher
	keys []passkey
}

func (h holder) WebAuthnID() []byte          { return []byte(h.ID) }
func (h holder) WebAuthnName() string        { return h.Email }
func (h holder) WebAuthnDisplayName() string { return h.Name }
func (h holder) WebAuthnCredentials() (out []webauthn.Credential) {
	for _, k := range h.keys {
		out = append(out, k.Credential)
	}
	return out
}

func holderOf(ctx context.Context, a *studio.App, teacher string) (holder, error) {
	t, err1 := a.Store.Teacher(ctx, teacher)
	f, err2 := a.Store.FactorsOf(ctx, teacher)
	return holder{t, passkeysOf(f)}, studio.Failed(errors.Join(err1, err2), "account")
}

// A Site is the address that a browser shows: passkeys hold for it alone.
type Site struct {
	Host   string // without a port
	Origin string // with scheme and port
}

func (s Site) party() (*webauthn.WebAuthn, error) {
	if s.Host == "" {
		return nil, studio.Refuse("A passkey is asked for by the page itself.")
	}
	return webauthn.New(&webauthn.Config{RPDisplayName: "Patient Ladder", RPID: s.Host, RPOrigins: []string{s.Origin}})
}

// A Ceremony is the half of a passkey's that the browser makes, and what the server must
// remember until then.
type Ceremony struct {
	Options any
	Kept    []byte
}

// BeginPasskey begins to make a passkey.
func BeginPasskey(ctx context.Context, a *studio.App, who studio.Who, at Site, password string) (Ceremony, error) {
	if _, err := Knows(ctx, a, who, password); err != nil {
		return Ceremony{}, err
	}
	h, err := holderOf(ctx, a, who.Teacher)
	if err != nil {
		return Ceremony{}, err
	}
	party, err := at.party()
	if err != nil {
		return Ceremony{}, err
	}
	var there []protocol.CredentialDescriptor
	for _, c := range h.WebAuthnCredentials() {
		there = append(there, c.Descriptor())
	}
	options, session, err := party.BeginRegistration(h, webauthn.WithResidentKeyRequirement(protocol.ResidentKeyRequirementRequired), webauthn.WithExclusions(there))
	if err != nil {
		return Ceremony{}, err
	}
	kept, err := json.Marshal(session)
	return Ceremony{options.Response, kept}, err
}

// mostPasskeys is how many a teacher may have.
const mostPasskeys = 10

// KeepPasskey keeps a passkey that a browser has made.
func KeepPasskey(ctx context.Context, a *studio.App, who studio.Who, at Site, kept, made []byte, name string) error {
	h, err := holderOf(ctx, a, who.Teacher)
	if err != nil {
		return err
	}
	party, session, err := at.resumed(kept)
	if err != nil {
		return err
	}
	parsed, err := protocol.ParseCredentialCreationResponseBytes(made)
	if err != nil {
		return unsure(err)
	}
	credential, err := party.CreateCredential(h, session, parsed)
	if err != nil {
		return unsure(err)
	}
	if len(h.keys) >= mostPasskeys {
		return studio.Refuse("%d passkeys are kept at most; drop one first.", mostPasskeys)
	}
	raw, err := json.Marshal(passkey{ID: base64.RawURLEncoding.EncodeToString(credential.ID), Name: cmp.Or(strings.TrimSpace(name), "Passkey"), Made: a.Now().UTC(), Credential: *credential})
	if err != nil {
		return err
	}
	return warned(ctx, a, who.Teacher, newPasskey, studio.Failed(a.Store.ChangeFactors(ctx, who.Teacher, func(f *store.Factors) error {
		f.Passkeys = append(f.Passkeys, raw)
		return nil
	}), "account"))
}

func (s Site) resumed(kept []byte) (*webauthn.WebAuthn, webauthn.SessionData, error) {
	var session webauthn.SessionData
	if len(kept) == 0 || json.Unmarshal(kept, &session) != nil {
		return nil, session, studio.Refuse("That took too long, or was begun elsewhere. Begin again.")
	}
	party, err := s.party()
	return party, session, err
}

// unsure says that a passkey does not prove what it should.
func unsure(err error) error {
	return &studio.Error{Kind: studio.Denied, Says: "The passkey could not be checked. Try again, or sign in with the password.", Cause: err}
}

// DropPasskey drops one.
func DropPasskey(ctx context.Context, a *studio.App, who studio.Who, id string) error {
	return warned(ctx, a, who.Teacher, noPasskey, studio.Failed(a.Store.ChangeFactors(ctx, who.Teacher, func(f *store.Factors) error {
		f.Passkeys = slices.DeleteFunc(f.Passkeys, func(raw json.RawMessage) bool {
			var k passkey
			return json.Unmarshal(raw, &k) == nil && k.ID == id
		})
		return nil
	}), "account"))
}

// BeginPasskeySignIn begins a sign-in by passkey.
func BeginPasskeySignIn(_ context.Context, a *studio.App, at Site) (Ceremony, error) {
	party, err := at.party()
	if err != nil {
		return Ceremony{}, err
	}
	options, session, err := party.BeginDiscoverableLogin()
	if err != nil {
		return Ceremony{}, err
	}
	kept, err := json.Marshal(session)
	return Ceremony{options.Response, kept}, err
}

// PasskeySignIn lets in who holds a passkey; it stands for password and code.
func PasskeySignIn(ctx context.Context, a *studio.App, at Site, kept, shown []byte, from string) (studio.Who, error) {
	tried, err := patient(ctx, a, counter{"from " + from, freeFrom})
	if err != nil {
		return studio.Who{}, err
	}
	party, session, err := at.resumed(kept)
	if err != nil {
		return studio.Who{}, err
	}
	parsed, err := protocol.ParseCredentialRequestResponseBytes(shown)
	if err != nil {
		return studio.Who{}, unsure(err)
	}
	var found holder
	credential, err := party.ValidateDiscoverableLogin(func(_, id []byte) (webauthn.User, error) {
		var err error
		found, err = holderOf(ctx, a, string(id))
		return found, err
	}, session, parsed)
	if err != nil {
		return studio.Who{}, &studio.Error{Kind: studio.Denied, Says: "This passkey opens no account here. Sign in with the password.", Cause: err}
	}
	err = a.Store.ChangeFactors(ctx, found.ID, func(f *store.Factors) error {
		for i, raw := range f.Passkeys { // its counter has moved on
			var k passkey
			if json.Unmarshal(raw, &k) != nil || string(k.Credential.ID) != string(credential.ID) {
				continue
			}
			k.Credential = *credential
			if again, err := json.Marshal(k); err == nil {
				f.Passkeys[i] = again
			}
		}
		return nil
	})
	return studio.Who{Teacher: found.ID, Studio: found.Studio}, errors.Join(studio.Failed(err, "account"), tried.refund(ctx))
}
