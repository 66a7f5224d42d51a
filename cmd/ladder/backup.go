package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"time"

	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
)

// backupCommand writes the whole database into a file, which stands whole or not at all.
func backupCommand(ctx context.Context, args []string, out io.Writer) error {
	if len(args) != 1 {
		return errors.New("backup needs the file to write: ladder backup studio.backup")
	}
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	half := args[0] + ".half"
	f, err := os.OpenFile(half, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600) // it holds children's data
	if err != nil {
		return fmt.Errorf("cannot write the backup: %w", err)
	}
	defer os.Remove(half)
	n, err := s.Backup(ctx, f)
	if err = errors.Join(err, f.Sync(), f.Close()); err != nil {
		return fmt.Errorf("cannot write the backup: %w", err)
	}
	if err := os.Rename(half, args[0]); err != nil {
		return fmt.Errorf("cannot write the backup: %w", err)
	}
	_, err = fmt.Fprintf(out, "%d rows are in %s. It holds passwords' hashes and children's data: keep it where only you can read it.\n", n, args[0])
	return err
}

// restoreCommand brings a backup into an empty database.
func restoreCommand(ctx context.Context, args []string, out io.Writer) error {
	if len(args) != 1 {
		return errors.New("restore needs a backup: ladder restore studio.backup")
	}
	f, err := os.Open(args[0])
	if err != nil {
		return fmt.Errorf("cannot read the backup: %w", err)
	}
	defer f.Close()
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	n, err := s.Restore(ctx, f)
	if errors.Is(err, store.ErrNotEmpty) {
		return errors.New("the database of LADDER_DSN holds a studio already; restore into a new one, so that nothing is lost")
	}
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "%d rows are restored.\n", n)
	return err
}

// passwordCommand sets another password for who cannot get mail.
func passwordCommand(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	if len(args) != 1 {
		return errors.New("password needs an email address, and reads the new password: ladder password you@studio.example")
	}
	var password string
	if _, err := fmt.Fscanln(in, &password); err != nil {
		return errors.New("write the new password on one line, without blanks")
	}
	s, err := openStore(ctx, os.Getenv("LADDER_DSN"))
	if err != nil {
		return err
	}
	defer s.Close()
	if err := account.SetPasswordOf(ctx, studio.New(s, time.Now), args[0], password); err != nil {
		return err
	}
	_, err = fmt.Fprintln(out, "The password is set, and every sign-in of that account has ended.")
	return err
}
