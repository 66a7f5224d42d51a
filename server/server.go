// Package server speaks HTTP: routes, sessions, limits and errors. No rule of
// the job stands here.
package server

import (
	"cmp"
	"context"
	"errors"
	"io/fs"
	"log/slog"
	"net/http"
	"runtime/debug"
	"strconv"
	"strings"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"
	"github.com/klauspost/compress/gzip"

	"patientladder/core/notation"
	"patientladder/mail/mailbox"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
)

// Options of a server.
type Options struct {
	SecureCookies bool // behind HTTPS
	// Proxies are the addresses whose word on where a request came from is taken, as 127.0.0.1 or 10.0.0.0/8.
	Proxies []string
	Log     *slog.Logger
	// OwnBooks puts the shipped books on a studio's shelf; nil when there are none.
	OwnBooks func(context.Context, *studio.App, studio.Who) error
	// Mailbox holds what the app sends; nil where mail goes out into the world.
	Mailbox *mailbox.Box
	// Deadline is how long a request may take; 0 for 25 seconds.
	Deadline time.Duration
}

// A Server answers the API and hands out the front end.
type Server struct {
	app      *studio.App
	sessions *scs.SessionManager
	api      huma.API
	handler  http.Handler
	cleanup  *mysqlstore.MySQLStore
	log      *slog.Logger
	ownBooks func(context.Context, *studio.App, studio.Who) error
	box      *mailbox.Box
	longest  time.Duration
	watch    *watch
}

// New makes a server. s may be nil when only the API's description is wanted.
func New(app *studio.App, s *store.Store, files fs.FS, opt Options) *Server {
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	if err := engine.SetTrustedProxies(opt.Proxies); err != nil {
		panic(err) // they were looked at when they were read
	}
	srv := &Server{app: app, sessions: scs.New(), log: opt.Log, ownBooks: opt.OwnBooks, box: opt.Mailbox, longest: cmp.Or(opt.Deadline, 25*time.Second), watch: newWatch(s)}
	if srv.log == nil {
		srv.log = slog.Default()
	}
	srv.sessions.Lifetime = 30 * 24 * time.Hour
	srv.sessions.HashTokenInStore = true
	srv.sessions.Cookie.Name = "ladder"
	if opt.SecureCookies {
		srv.sessions.Cookie.Name = "__Host-ladder" // set by this host alone, and only over HTTPS (RFC 6265bis)
	}
	srv.sessions.Cookie.HttpOnly = true
	srv.sessions.Cookie.SameSite = http.SameSiteLaxMode
	srv.sessions.Cookie.Secure = opt.SecureCookies
	srv.sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		srv.log.Error("session", "cause", err)
		writeProblem(w, http.StatusServiceUnavailable, "The database cannot be reached just now. What you marked waits here and is sent when it is back.")
	}
	if s != nil {
		srv.cleanup = mysqlstore.NewWithCleanupInterval(s.DB(), time.Hour)
		srv.sessions.Store = srv.cleanup
	}

	huma.DefaultArrayNullable = false // an empty list goes out as one
	config := huma.DefaultConfig("Patient Ladder", "1")
	config.OpenAPIPath, config.DocsPath, config.SchemasPath = "/api/openapi", "", ""
	config.CreateHooks = nil // no $schema links in answers
	config.Formats = map[string]huma.Format{"application/json": jsonFormat(), "json": jsonFormat()}
	config.Transformers = append(config.Transformers, speak)
	srv.api = humagin.New(engine, config)
	vocabulary(srv.api.OpenAPI().Components.Schemas)
	srv.api.UseMiddleware(srv.watched, srv.signedIn)
	srv.health(s)
	srv.routes()
	engine.NoRoute(gin.WrapH(static(files)))

	guard := http.NewCrossOriginProtection()
	guard.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		writeProblem(w, http.StatusForbidden, "This request came from another site, so it was refused.")
	}))
	srv.handler = headers(opt.SecureCookies, srv.recovered(guard.Handler(limitBody(srv.deadline(srv.onlyAPI(engine))))))
	return srv
}

// Handler returns the server's handler.
func (s *Server) Handler() http.Handler { return s.handler }

// OpenAPI returns the description of the API as JSON.
func (s *Server) OpenAPI() ([]byte, error) { return s.api.OpenAPI().MarshalJSON() }

// Close ends what the server keeps running.
func (s *Server) Close() {
	if s.cleanup != nil {
		s.cleanup.StopCleanup()
	}
}

// onlyAPI loads sessions for the API and not for files.
func (s *Server) onlyAPI(next http.Handler) http.Handler {
	withSession := compressed(s.sessions.LoadAndSave(next))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if len(r.URL.Path) >= 5 && r.URL.Path[:5] == "/api/" && r.URL.Path != "/api/openapi.json" {
			withSession.ServeHTTP(w, r)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// compressed sends answers as gzip to browsers that take it. Nothing that a request brings and
// nobody may learn stands in one, so that its length tells nothing.
func compressed(next http.Handler) http.Handler {
	quickly, err := gzhttp.NewWrapper(gzhttp.CompressionLevel(gzip.BestSpeed)) // a tenth longer than at the usual level, in half the time
	if err != nil {
		panic(err) // the level is known
	}
	return quickly(next)
}

// deadline ends what a request started, in the program and in the database, when
// it takes too long; a browser that goes away ends it too.
func (s *Server) deadline(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, cancel := context.WithTimeout(r.Context(), s.longest)
		defer cancel()
		next.ServeHTTP(w, r.WithContext(ctx))
	})
}

// bodyLimit holds the largest request: one score file.
const bodyLimit = notation.MaxFile + 1<<10

func limitBody(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		most := int64(bodyLimit)
		if r.Method == http.MethodPost && r.URL.Path == "/api/studio" {
			most = maxArchive
		}
		r.Body = http.MaxBytesReader(w, r.Body, most)
		next.ServeHTTP(w, r)
	})
}

// drawnStyle is the one style that stands in pages: abcjs 6 puts it into the notes that it draws, always the
// same.
const drawnStyle = "'sha256-BCpnf71gZdCsSCHDzyB1RsBbZ0qQdqseK6v+yJsgg30='"

// year is how long a browser keeps to HTTPS, in seconds.
const year = "31536000"

func headers(secure bool, next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		if secure {
			h.Set("Strict-Transport-Security", "max-age="+year)
		}
		if strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store") // what is personal is kept nowhere on its way
		}
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), payment=(), usb=(), midi=(self)")
		h.Set("Content-Security-Policy", "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' "+drawnStyle+"; "+
			"img-src 'self' data:; font-src 'self' data:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		next.ServeHTTP(w, r)
	})
}

// withoutToken is a path as it may stand in a log: without the token that opens a family's week or a feed.
func withoutToken(path string) string {
	for _, before := range []string{"/api/family/", "/api/feeds/", "/family/"} {
		if rest, is := strings.CutPrefix(path, before); is {
			_, more, _ := strings.Cut(rest, "/")
			return before + "…/" + more
		}
	}
	return path
}

func (s *Server) recovered(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		defer func() {
			if v := recover(); v != nil {
				s.log.Error("panic", "path", withoutToken(r.URL.Path), "cause", v, "stack", string(debug.Stack()))
				writeProblem(w, http.StatusInternalServerError, "The program made a mistake. "+stopped(r.Method, r.URL.Path))
			}
		}()
		next.ServeHTTP(w, r)
	})
}

// stopped is what a person is told of a request that a mistake in the program, or its
// deadline, has ended: what is lost depends on what was asked.
func stopped(method, path string) string {
	switch {
	case method == http.MethodGet || method == http.MethodHead:
		return "Nothing was lost. Try again."
	case strings.HasSuffix(path, "/facts"): // the device keeps them until they are taken
		return "What you marked is kept on this device and sent again."
	}
	return "Your change may not be saved: reload the page and look before you try again."
}

type key int

const (
	whoKey key = iota
	fromKey
	stoppedKey
)

// who returns who is signed in; only handlers behind signedIn call it.
func who(ctx context.Context) studio.Who {
	w, _ := ctx.Value(whoKey).(studio.Who)
	return w
}

// public marks operations that need no sign-in.
const public = "public"

// signedIn lets a request pass that is signed in or whose operation is public.
func (s *Server) signedIn(ctx huma.Context, next func(huma.Context)) {
	ctx = seen(ctx)
	if ctx.Operation().Metadata[public] == true {
		next(ctx)
		return
	}
	w := studio.Who{Teacher: s.sessions.GetString(ctx.Context(), "teacher"), Studio: s.sessions.GetString(ctx.Context(), "studio")}
	holds := w.Teacher != ""
	if holds {
		var err error
		if holds, w.Reader.Language, err = account.Holds(ctx.Context(), s.app, w, s.device(ctx.Context())); err != nil {
			var status huma.StatusError
			if errors.As(s.problem(ctx.Context(), err), &status) {
				_ = huma.WriteErr(s.api, ctx, status.GetStatus(), status.Error())
			}
			return
		}
	}
	if !holds {
		if err := huma.WriteErr(s.api, ctx, http.StatusUnauthorized, "Sign in first."); err != nil {
			s.log.Error("write answer", "cause", err)
		}
		return
	}
	w.Reader.Inches = ctx.Header(unitsHeader) == "in"
	next(huma.WithValue(ctx, whoKey, w))
}

// statuses holds the HTTP status of each kind of failure.
var statuses = map[studio.ErrorKind]int{
	studio.Invalid:       http.StatusUnprocessableEntity,
	studio.Missing:       http.StatusNotFound,
	studio.Conflict:      http.StatusConflict,
	studio.Denied:        http.StatusUnauthorized,
	studio.AnotherFactor: http.StatusPreconditionRequired,
	studio.Gone:          http.StatusGone,
	studio.TooMany:       http.StatusTooManyRequests,
	studio.Stale:         http.StatusPreconditionFailed,
	studio.Unavailable:   http.StatusServiceUnavailable,
	studio.Full:          http.StatusInsufficientStorage,
}

// problem is the one place where a failure becomes an answer: an RFC 9457
// problem with a sentence for the person. The cause goes to the log.
func (s *Server) problem(ctx context.Context, err error) error {
	if err == nil {
		return nil
	}
	var known *studio.Error
	if errors.As(err, &known) {
		if known.Kind == studio.Unavailable || known.Kind == studio.Full {
			s.log.Error("store", "cause", err)
		}
		answer := huma.NewError(statuses[known.Kind], known.Says)
		var clashed *studio.Clashed
		if errors.As(err, &clashed) {
			return &overtaken{answer.(*huma.ErrorModel), clashed}
		}
		var wait account.Wait
		if errors.As(err, &wait) {
			return huma.ErrorWithHeaders(answer, http.Header{"Retry-After": {strconv.Itoa(int(wait))}})
		}
		return answer
	}
	if errors.Is(err, context.Canceled) {
		return huma.NewError(499, "The browser went away.")
	}
	if errors.Is(err, context.DeadlineExceeded) {
		s.log.Error("deadline", "cause", err)
		return huma.NewError(http.StatusServiceUnavailable, "This took too long, so it was stopped. "+tellOf(ctx))
	}
	s.log.Error("request", "cause", err)
	return huma.NewError(http.StatusInternalServerError, "The program made a mistake. "+tellOf(ctx))
}

// An overtaken change is answered with the thing as it is now, beside the problem, so that the
// page can show both.
type overtaken struct {
	*huma.ErrorModel
	Clash *studio.Clashed `json:"clash"`
}

// wasSeen is the body of a request that takes a thing away: the thing as it was seen.
type wasSeen[T any] struct {
	Was T `json:"was"`
}

// tellOf is what the person who asked is told of a request that was ended.
func tellOf(ctx context.Context) string {
	says, _ := ctx.Value(stoppedKey).(string)
	return says
}
