package main

import (
	"context"
	"database/sql"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"patientladder/store/mariadb"
)

// logged are the settings of a database of which every moment can be had back.
var logged = []string{"--innodb-buffer-pool-size=64M", "--innodb-log-file-size=16M", "--max-connections=100", "--log-bin=bin", "--server-id=1", "--binlog-format=ROW", "--sync-binlog=1"}

// restored rehearses a loss: devices tell, a backup is made meanwhile, they tell on, then all facts are deleted by
// mistake. A new database is made from the backup and the log up to the moment before, and the witness looks at it.
func restored(ctx context.Context, devices int, seed uint64) (bad bool, err error) {
	for _, program := range []string{"mariadb-backup", "mariadb-binlog", "mariadb"} {
		if _, err := exec.LookPath(program); err != nil {
			fmt.Println("\nrestore to a moment: not tried, for it needs the Debian packages mariadb-backup and mariadb-client")
			return false, nil
		}
	}
	t, err := begin(ctx, devices, seed, "", logged...)
	if err != nil {
		return false, err
	}
	defer t.end()
	backup, again := filepath.Join(t.dir, "backup"), filepath.Join(t.dir, "again")
	var saving time.Duration
	err = t.witness.While(ctx, seed, func() error {
		time.Sleep(2 * time.Second)
		start := time.Now()
		if err := t.tool(nil, "mariadb-backup", append([]string{"--no-defaults", "--backup", "--datadir=" + filepath.Join(t.dir, "db", "data"), "--target-dir=" + backup}, client(t.db)...)...); err != nil {
			return err
		}
		saving = time.Since(start)
		time.Sleep(2 * time.Second)
		return nil
	})
	if err != nil {
		return false, err
	}
	time.Sleep(1100 * time.Millisecond) // the log's moments are whole seconds
	moment := time.Now()
	time.Sleep(1100 * time.Millisecond)
	db, err := sql.Open("mysql", t.db.DSN("ladder"))
	if err != nil {
		return false, err
	}
	defer db.Close()
	if _, err := db.ExecContext(ctx, "DELETE FROM facts"); err != nil {
		return false, err
	}

	start := time.Now()
	if err := t.tool(nil, "mariadb-backup", "--no-defaults", "--prepare", "--target-dir="+backup); err != nil {
		return false, err
	}
	if err := os.MkdirAll(again, 0o700); err != nil {
		return false, err
	}
	if err := t.tool(nil, "mariadb-backup", "--no-defaults", "--copy-back", "--target-dir="+backup, "--datadir="+filepath.Join(again, "data")); err != nil {
		return false, err
	}
	if err := os.WriteFile(filepath.Join(again, "password"), []byte(account(t.db).Passwd), 0o600); err != nil {
		return false, err
	}
	if err := os.WriteFile(filepath.Join(again, "installed"), nil, 0o600); err != nil {
		return false, err
	}
	second, err := mariadb.Start(ctx, again, logged...)
	if err != nil {
		return false, err
	}
	defer second.Stop()
	if err := t.replay(backup, moment, second); err != nil {
		return false, err
	}
	took := time.Since(start)
	back, err := sql.Open("mysql", second.DSN("ladder"))
	if err != nil {
		return false, err
	}
	defer back.Close()
	f, err := t.witness.Look(ctx, back)
	if err != nil {
		return true, err
	}
	fmt.Printf("\nall facts deleted by mistake; backup made in %.1f s while they were told, restored to the moment before in %.1f s\n%s", saving.Seconds(), took.Seconds(), f)
	return f.Bad(), nil
}

// replay brings a database from where a backup was made to a moment, by the log of the one before.
func (t *trial) replay(backup string, moment time.Time, to *mariadb.Server) error {
	at, err := os.ReadFile(filepath.Join(backup, "mariadb_backup_binlog_info"))
	if err != nil { // as versions before 11 name it
		if at, err = os.ReadFile(filepath.Join(backup, "xtrabackup_binlog_info")); err != nil {
			return err
		}
	}
	fields := strings.Fields(string(at))
	if len(fields) < 2 {
		return fmt.Errorf("the backup does not say where it was made: %q", at)
	}
	if _, err := strconv.Atoi(fields[1]); err != nil {
		return err
	}
	data := filepath.Join(t.dir, "db", "data")
	files, err := filepath.Glob(filepath.Join(data, "bin.[0-9]*"))
	if err != nil {
		return err
	}
	args := []string{"--no-defaults", "--start-position=" + fields[1], "--stop-datetime=" + moment.Local().Format(time.DateTime)}
	for _, f := range files {
		if filepath.Base(f) >= fields[0] {
			args = append(args, f)
		}
	}
	log := exec.Command("mariadb-binlog", args...)
	changes, err := log.StdoutPipe()
	if err != nil {
		return err
	}
	log.Stderr = t.log
	if err := log.Start(); err != nil {
		return err
	}
	if err := t.tool(changes, "mariadb", append([]string{"--no-defaults"}, client(to)...)...); err != nil {
		return err
	}
	return log.Wait()
}

// tool runs one of the database's own programs.
func (t *trial) tool(in io.Reader, program string, args ...string) error {
	cmd := exec.Command(program, args...)
	var said strings.Builder
	cmd.Stdin, cmd.Stdout, cmd.Stderr = in, t.log, &said
	if err := cmd.Run(); err != nil {
		text := said.String()
		return fmt.Errorf("%s: %w: %s", program, err, text[max(0, len(text)-600):])
	}
	return nil
}
