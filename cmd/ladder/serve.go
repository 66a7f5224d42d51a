package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/netip"
	"os"
	"strings"
	"sync"
	"syscall"
	"time"

	"patientladder/demo"
	"patientladder/server"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/sending"
	"patientladder/web"
)

// patience is how long a start waits for the database.
const patience = 30 * time.Second

func openStore(ctx context.Context, dsn string) (*store.Store, error) {
	if dsn == "" {
		return nil, errors.New("LADDER_DSN is not set; it names the database, such as user:password@tcp(127.0.0.1:3306)/ladder")
	}
	s, err := store.Open(ctx, dsn, patience)
	if err != nil {
		return nil, err
	}
	if _, err := s.Migrate(ctx); err != nil {
		s.Close()
		return nil, err
	}
	return s, nil
}

func migrateCommand(ctx context.Context, out io.Writer) error {
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	_, err = fmt.Fprintln(out, "The database is up to date.")
	return err
}

// proxies are the addresses that LADDER_PROXIES lists.
func proxies() ([]string, error) {
	var out []string
	for one := range strings.SplitSeq(os.Getenv("LADDER_PROXIES"), ",") {
		one = strings.TrimSpace(one)
		if one == "" {
			continue
		}
		_, whole := netip.ParseAddr(one)
		_, part := netip.ParsePrefix(one)
		if whole != nil && part != nil {
			return nil, fmt.Errorf("LADDER_PROXIES: %q is no address such as 127.0.0.1 or 10.0.0.0/8", one)
		}
		out = append(out, one)
	}
	return out, nil
}

func inviteCommand(ctx context.Context, out io.Writer) error {
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	token, err := account.Invite(ctx, studio.New(s, time.Now))
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "%s/sign-in?invitation=%s\n", os.Getenv("LADDER_URL"), token)
	return err
}

func serveCommand(ctx context.Context, args []string, out io.Writer) error {
	flags := flag.NewFlagSet("serve", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	addr := flags.String("addr", "127.0.0.1:8080", "")
	secure := flags.Bool("secure-cookies", false, "")
	if err := flags.Parse(args); err != nil {
		return err
	}
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	l, err := listen(*addr)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "Patient Ladder serves at http://%s\n", l.Addr())
	return serve(ctx, l, s, server.Options{SecureCookies: *secure, OwnBooks: demo.OwnBooks})
}

func listen(addr string) (net.Listener, error) {
	l, err := net.Listen("tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return nil, fmt.Errorf("%s is taken by another program; stop it or choose another address with --addr", addr)
	}
	if err != nil {
		return nil, fmt.Errorf("cannot serve at %s: %w", addr, err)
	}
	return l, nil
}

// slowest is how long a request may take to come in whole; a little more than it may take in all.
const slowest = 30 * time.Second

// answering is a server that closes what comes in too slowly, or is taken too slowly, byte by byte.
func answering(h http.Handler, slowest time.Duration) *http.Server {
	return &http.Server{Handler: h, ReadHeaderTimeout: min(10*time.Second, slowest), ReadTimeout: slowest, WriteTimeout: 4 * slowest, IdleTimeout: 2 * time.Minute}
}

// serve answers until the context ends, then lets requests finish.
func serve(ctx context.Context, l net.Listener, s *store.Store, opt server.Options) error {
	app := studio.New(s, time.Now)
	switch by := os.Getenv("LADDER_SIGNUP"); by {
	case "":
	case "invitation":
		app.ByInvitation = true
	default:
		return fmt.Errorf("LADDER_SIGNUP: %q is not known; leave it out, or set it to invitation", by)
	}
	var err error
	if opt.Proxies, err = proxies(); err != nil {
		return err
	}
	box, closeMail, err := post(app, "http://"+l.Addr().String())
	if err != nil {
		return err
	}
	defer closeMail()
	opt.Mailbox = box
	srv := server.New(app, s, web.Files(), opt)
	defer srv.Close()
	var letters sync.WaitGroup
	defer letters.Wait() // what was begun is finished
	posting, stopPosting := context.WithCancel(ctx)
	defer stopPosting()
	letters.Go(func() { sending.Run(posting, app) })
	h := answering(srv.Handler(), slowest)
	done := make(chan error, 2)
	if addr := os.Getenv("LADDER_METRICS"); addr != "" {
		watched, err := listen(addr)
		if err != nil {
			return fmt.Errorf("LADDER_METRICS: %w", err)
		}
		m := answering(srv.Metrics(), slowest)
		defer m.Close()
		go func() { done <- m.Serve(watched) }()
	}
	go func() { done <- h.Serve(l) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	late, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	return h.Shutdown(late)
}
