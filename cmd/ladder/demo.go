package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"os"
	"path/filepath"
	"syscall"
	"time"

	"patientladder/demo"
	"patientladder/server"
	"patientladder/store"
	"patientladder/store/mariadb"
)

// needed is the least free disk space that the demo starts with, in bytes.
const needed = 300 << 20

// demoSeed fixes the demo's history.
const demoSeed = 17

func demoCommand(ctx context.Context, args []string, out io.Writer) (err error) {
	flags := flag.NewFlagSet("demo", flag.ContinueOnError)
	flags.SetOutput(io.Discard)
	data := flags.String("data", ".data", "")
	port := flags.Int("port", 8080, "")
	if err := flags.Parse(args); err != nil {
		return err
	}
	dsn := os.Getenv("LADDER_DSN")
	filling := func(_ context.Context, fill func() error) error { return fill() }
	if dsn == "" {
		unlock, err := lock(*data)
		if err != nil {
			return err
		}
		defer unlock()
		if err := room(*data); err != nil {
			return err
		}
		db, err := mariadb.Start(ctx, filepath.Join(*data, "mariadb"))
		if err != nil {
			return err
		}
		keep, stopKeeping := context.WithCancel(context.WithoutCancel(ctx))
		kept := make(chan error, 1)
		go func() { kept <- keepRunning(keep, db, out, 3*time.Second) }()
		defer func() { // after the app has stopped
			stopKeeping()
			err = errors.Join(err, <-kept)
			fmt.Fprintln(out, "Stopped; the data is kept in "+*data+".")
		}()
		dsn, filling = db.DSN("ladder"), db.Relaxed
	}
	s, err := openStore(ctx, dsn)
	if err != nil {
		return err
	}
	defer s.Close()
	if _, err := s.TeacherByEmail(ctx, demo.Email); errors.Is(err, store.ErrNotFound) {
		fmt.Fprintln(out, "Filling the demo studio …")
		if err := filling(ctx, func() error { return demo.Seed(ctx, s, demoSeed, time.Now) }); err != nil {
			return err
		}
	} else if err != nil {
		return err
	}
	l, err := listenFrom(*port)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "\nPatient Ladder is at   http://%s\nSign in as             %s\nwith the password      %s\nStop it with           Ctrl-C\n\n", l.Addr(), demo.Email, demo.Password)
	return serve(ctx, l, s, server.Options{OwnBooks: demo.OwnBooks})
}

// keepRunning starts the database again when it ends by itself, however often that takes, and stops it when
// the context ends. A disk that is full, and is freed later, is no reason to give up.
func keepRunning(ctx context.Context, db *mariadb.Server, out io.Writer, pause time.Duration) error {
	for {
		select {
		case <-ctx.Done():
			return db.Stop()
		case <-db.Done():
			fmt.Fprintln(out, "The database ended by itself; starting it again.")
		}
		for says := ""; ; {
			err := db.Restart(ctx)
			if err == nil {
				if says != "" {
					fmt.Fprintln(out, "The database is back.")
				}
				break
			}
			if now := err.Error(); now != says {
				says = now
				fmt.Fprintf(out, "The database does not start, and is tried again every %s: %s\n", pause, oneLine(err))
			}
			select {
			case <-ctx.Done():
				return nil // there is nothing to stop
			case <-time.After(pause):
			}
		}
	}
}

// listenFrom takes the first free port of twenty.
func listenFrom(port int) (net.Listener, error) {
	for p := port; p < port+20; p++ {
		l, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", p))
		if err == nil {
			return l, nil
		}
		if !errors.Is(err, syscall.EADDRINUSE) {
			return nil, fmt.Errorf("cannot serve at port %d: %w", p, err)
		}
	}
	return nil, fmt.Errorf("ports %d to %d are all taken; choose another with --port", port, port+19)
}

// lock makes sure that one demo at a time uses the data.
func lock(dir string) (unlock func(), err error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the folder %s cannot be made: %w", dir, errors.Unwrap(err))
	}
	f, err := os.OpenFile(filepath.Join(dir, "lock"), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("%s cannot be written: %w", dir, errors.Unwrap(err))
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		f.Close()
		return nil, fmt.Errorf("the demo in %s is running already; stop it first, or look for its address where it was started", dir)
	}
	return func() { f.Close() }, nil
}

// room checks the free space of a folder's disk.
func room(dir string) error {
	var st syscall.Statfs_t
	if err := syscall.Statfs(dir, &st); err != nil {
		return fmt.Errorf("the disk of %s cannot be asked for its free space: %w", dir, err)
	}
	if free := st.Bavail * uint64(st.Bsize); free < needed {
		return fmt.Errorf("the disk is full: %s has %d MB left and the demo needs %d MB; free some space and start again", dir, free>>20, needed>>20)
	}
	return nil
}
