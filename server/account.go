package server

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/words"
)

type signUp struct {
	Reads string `header:"Accept-Language" maxLength:"200"`
	Body  struct {
		Name     string `json:"name" maxLength:"200"`
		Studio   string `json:"studio" maxLength:"200"`
		Email    string `json:"email" maxLength:"190"`
		Password string `json:"password" maxLength:"200"`
		Zone     string `json:"zone" maxLength:"60" doc:"IANA time zone"`

		Invitation string `json:"invitation,omitempty" maxLength:"60" doc:"where new studios come by invitation"`
	}
}

type signIn struct {
	Body struct {
		Email    string `json:"email" maxLength:"190"`
		Password string `json:"password" maxLength:"200"`
		Code     string `json:"code,omitempty" maxLength:"40" doc:"of an app or a recovery code, where one was asked for with status 428"`
	}
}

// answered is an answer of which the status is all.
type answered struct{ Status int }

// withPassword is a change that asks for the password again.
type withPassword struct {
	Body struct {
		Password string `json:"password" maxLength:"200"`
	}
}

// A request as the account's routes need it.
const (
	agentKey key = iota + 100
	siteKey
)

// seen puts what a request tells of itself into its context.
func seen(ctx huma.Context) huma.Context {
	ctx = huma.WithValue(ctx, fromKey, humagin.Unwrap(ctx).ClientIP())
	ctx = huma.WithValue(ctx, stoppedKey, stopped(ctx.Method(), ctx.URL().Path))
	ctx = huma.WithValue(ctx, agentKey, ctx.Header("User-Agent"))
	origin, err := url.Parse(ctx.Header("Origin"))
	if err != nil || origin.Host != ctx.Host() {
		return ctx // no page of this site asked
	}
	return huma.WithValue(ctx, siteKey, account.Site{Host: origin.Hostname(), Origin: origin.Scheme + "://" + origin.Host})
}

func from(ctx context.Context) string       { v, _ := ctx.Value(fromKey).(string); return v }
func agent(ctx context.Context) string      { v, _ := ctx.Value(agentKey).(string); return v }
func site(ctx context.Context) account.Site { v, _ := ctx.Value(siteKey).(account.Site); return v }

// device is the sign-in that asks.
func (s *Server) device(ctx context.Context) string { return s.sessions.GetString(ctx, "device") }

// enter signs in.
func (s *Server) enter(ctx context.Context, w studio.Who, err error) error {
	if err != nil {
		return s.problem(ctx, err)
	}
	device, err := account.OpenDevice(ctx, s.app, w, agent(ctx))
	if err != nil {
		return s.problem(ctx, err)
	}
	if err := s.sessions.RenewToken(ctx); err != nil {
		return s.problem(ctx, err)
	}
	s.sessions.Put(ctx, "teacher", w.Teacher)
	s.sessions.Put(ctx, "studio", w.Studio)
	s.sessions.Put(ctx, "device", device)
	browser, knows := s.browser(ctx)
	if browser == "" {
		browser = studio.NewID()
	}
	if !slices.Contains(knows, w.Teacher) {
		knows = append(knows, w.Teacher)
	}
	s.remember(ctx, browser, knows)
	return nil
}

// browser is the browser that asks, where somebody has signed in with it before, and who that was.
func (s *Server) browser(ctx context.Context) (id string, knows []string) {
	return s.sessions.GetString(ctx, "browser"), strings.Fields(s.sessions.GetString(ctx, "knows"))
}

func (s *Server) remember(ctx context.Context, browser string, knows []string) {
	s.sessions.Put(ctx, "browser", browser)
	s.sessions.Put(ctx, "knows", strings.Join(knows, " "))
}

// leave signs out: the session's token is another, and nothing is left in it but that this browser was
// signed in with.
func (s *Server) leave(ctx context.Context) error {
	browser, knows := s.browser(ctx)
	if err := errors.Join(s.sessions.Clear(ctx), s.sessions.RenewToken(ctx)); err != nil {
		return err
	}
	s.remember(ctx, browser, knows)
	return nil
}

// A ceremony is what a browser is asked to do with a passkey.
type ceremony struct {
	Options json.RawMessage `json:"options" doc:"as the Web Authentication API takes them"`
}

// begun remembers the server's half of a passkey's ceremony until the browser's comes.
func (s *Server) begun(ctx context.Context, c account.Ceremony, err error) (ceremony, error) {
	if err != nil {
		return ceremony{}, err
	}
	s.sessions.Put(ctx, "ceremony", c.Kept)
	raw, err := json.Marshal(c.Options)
	return ceremony{raw}, err
}

// accountRoutes are those of signing in and of a teacher's account.
func (s *Server) accountRoutes() {
	public := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, Metadata: openToAll, DefaultStatus: http.StatusNoContent}
	}
	huma.Register(s.api, public("sign-up", "/api/sign-up", "Make a studio and sign in; 202 where the address is to be confirmed first, by a mail that is on its way"), func(ctx context.Context, in *signUp) (*answered, error) {
		w, err := account.Make(ctx, s.app, account.SignUp{Name: in.Body.Name, Studio: in.Body.Studio, Email: in.Body.Email, Password: in.Body.Password, Zone: in.Body.Zone, Language: words.Preferred(in.Reads),
			Invitation: in.Body.Invitation, From: from(ctx)})
		if err == nil && w == (studio.Who{}) {
			return &answered{http.StatusAccepted}, nil
		}
		return &answered{http.StatusNoContent}, s.enter(ctx, w, err)
	})
	huma.Register(s.api, public("confirm", "/api/confirm", "Make the studio that a mail asked to confirm, and sign in"), func(ctx context.Context, in *struct {
		Body struct {
			Token string `json:"token" maxLength:"60"`
		}
	}) (*none, error) {
		w, err := account.Confirm(ctx, s.app, in.Body.Token)
		return nil, s.enter(ctx, w, err)
	})
	huma.Register(s.api, public("sign-in", "/api/sign-in", "Sign in; 428 asks for a code too"), func(ctx context.Context, in *signIn) (*none, error) {
		browser, knows := s.browser(ctx)
		w, err := account.Admit(ctx, s.app, account.SignIn{Email: in.Body.Email, Password: in.Body.Password, Code: in.Body.Code, From: from(ctx), Browser: browser, Knows: knows})
		return nil, s.enter(ctx, w, err)
	})
	huma.Register(s.api, public("forgot", "/api/forgot", "Mail a link for another password, if the address has an account"), func(ctx context.Context, in *struct {
		Body struct {
			Email string `json:"email" maxLength:"190"`
		}
	}) (*none, error) {
		return nil, s.problem(ctx, account.Forgot(ctx, s.app, in.Body.Email, from(ctx)))
	})
	huma.Register(s.api, public("reset", "/api/reset", "Set another password by a link that was mailed"), func(ctx context.Context, in *struct {
		Body struct {
			Token    string `json:"token" maxLength:"60"`
			Password string `json:"password" maxLength:"200"`
		}
	}) (*none, error) {
		return nil, s.problem(ctx, account.Reset(ctx, s.app, in.Body.Token, in.Body.Password))
	})
	change(s, http.MethodPost, "/api/sign-out", "sign-out", "Sign out", func(ctx context.Context, w studio.Who, _ *none) error {
		if err := account.EndDevice(ctx, s.app, w, s.device(ctx)); err != nil {
			return err
		}
		return s.leave(ctx)
	})

	get(s, "/api/account", "account", "The account of who is signed in", func(ctx context.Context, w studio.Who, _ *none) (account.AccountView, error) {
		return account.Show(ctx, s.app, w, s.device(ctx))
	})
	change(s, http.MethodPut, "/api/account", "set-account", "Keep the teacher's and the studio's name, and its zone", func(ctx context.Context, w studio.Who, in *struct {
		Body studio.Change[account.Names]
	}) error {
		return account.SetAccount(ctx, s.app, w, in.Body)
	})
	change(s, http.MethodPut, "/api/account/email", "set-email", "Sign in with another email address", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Email    string `json:"email" maxLength:"190"`
			Password string `json:"password" maxLength:"200"`
		}
	}) error {
		return account.SetEmail(ctx, s.app, w, in.Body.Email, in.Body.Password)
	})
	change(s, http.MethodPut, "/api/account/password", "set-password", "Set another password; other sign-ins end", func(ctx context.Context, w studio.Who, in *struct {
		Body struct {
			Old      string `json:"old" maxLength:"200"`
			Password string `json:"password" maxLength:"200"`
		}
	}) error {
		return account.SetPassword(ctx, s.app, w, s.device(ctx), in.Body.Old, in.Body.Password)
	})
	change(s, http.MethodDelete, "/api/account/devices", "end-devices", "End a sign-in, or all but this one", func(ctx context.Context, w studio.Who, in *struct {
		Device string `query:"device" maxLength:"26" doc:"all others when left out"`
	}) error {
		if in.Device == "" {
			return account.EndOthers(ctx, s.app, w, s.device(ctx))
		}
		return account.EndDevice(ctx, s.app, w, in.Device)
	})

	post(s, "/api/account/app", "begin-app", "Make a secret for an app that shows codes; keeps nothing", func(ctx context.Context, w studio.Who, _ none) (account.NewApp, error) {
		return account.BeginApp(ctx, s.app, w)
	})
	answer(s, huma.Operation{OperationID: "keep-app", Method: http.MethodPut, Path: "/api/account/app", Summary: "Ask for a code of an app from now on; recovery codes are told this once"},
		func(ctx context.Context, w studio.Who, in *struct {
			Body struct {
				Secret   string `json:"secret" maxLength:"64"`
				Code     string `json:"code" maxLength:"10"`
				Password string `json:"password" maxLength:"200"`
			}
		}) (account.Recovery, error) {
			return account.KeepApp(ctx, s.app, w, in.Body.Secret, in.Body.Code, in.Body.Password)
		})
	change(s, http.MethodDelete, "/api/account/app", "drop-app", "Ask for no code any more", func(ctx context.Context, w studio.Who, in *withPassword) error {
		return account.DropApp(ctx, s.app, w, in.Body.Password)
	})
	answer(s, huma.Operation{OperationID: "begin-passkey", Method: http.MethodPost, Path: "/api/account/passkeys", Summary: "Begin to make a passkey"},
		func(ctx context.Context, w studio.Who, in *withPassword) (ceremony, error) {
			c, err := account.BeginPasskey(ctx, s.app, w, site(ctx), in.Body.Password)
			return s.begun(ctx, c, err)
		})
	change(s, http.MethodPut, "/api/account/passkeys", "keep-passkey", "Keep a passkey that the browser has made", func(ctx context.Context, w studio.Who, in *struct {
		Name string `query:"name" maxLength:"60"`
		Body json.RawMessage
	}) error {
		return account.KeepPasskey(ctx, s.app, w, site(ctx), s.sessions.PopBytes(ctx, "ceremony"), in.Body, in.Name)
	})
	change(s, http.MethodDelete, "/api/account/passkeys/{passkey}", "drop-passkey", "Drop a passkey", func(ctx context.Context, w studio.Who, in *struct {
		Passkey string `path:"passkey" maxLength:"1500"`
	}) error {
		return account.DropPasskey(ctx, s.app, w, in.Passkey)
	})
	answer(s, huma.Operation{OperationID: "begin-passkey-sign-in", Method: http.MethodPost, Path: "/api/passkey", Summary: "Begin to sign in by passkey", Metadata: openToAll},
		func(ctx context.Context, _ studio.Who, _ *none) (ceremony, error) {
			c, err := account.BeginPasskeySignIn(ctx, s.app, site(ctx))
			return s.begun(ctx, c, err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "passkey-sign-in", Method: http.MethodPut, Path: "/api/passkey", Summary: "Sign in by passkey", Metadata: openToAll, DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *struct {
			Body json.RawMessage
		}) (*none, error) {
			w, err := account.PasskeySignIn(ctx, s.app, site(ctx), s.sessions.PopBytes(ctx, "ceremony"), in.Body, from(ctx))
			return nil, s.enter(ctx, w, err)
		})
}
