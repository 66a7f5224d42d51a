// Package mariadb runs a private MariaDB server: its data, socket and log in
// one folder, its port on loopback, no system service touched.
package mariadb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"time"

	_ "github.com/go-sql-driver/mysql" // for the first connection

	"patientladder/internal/tied"
)

// A Server is a running private server.
type Server struct {
	dir      string
	port     int
	password string
	settings []string
	tied     bool // ends when this process does, however that ends
	cmd      *exec.Cmd
	done     chan error
}

// durable are the settings of a server whose data matters: the defaults.
var durable = []string{"--innodb-buffer-pool-size=64M"}

// Fast are settings for tests: quick to start, and careless of a power cut.
var Fast = []string{
	"--skip-log-bin", "--innodb-flush-log-at-trx-commit=0", "--innodb-doublewrite=0", "--innodb-flush-method=nosync",
	"--innodb-buffer-pool-size=128M", "--innodb-log-file-size=32M", "--performance-schema=0", "--max-connections=400",
}

// Start starts a server on the data in dir, which it makes when there is none.
// Without settings the server is durable. A server left over from a process
// that was killed is stopped first.
func Start(ctx context.Context, dir string, settings ...string) (*Server, error) {
	return start(ctx, &Server{settings: settings}, dir)
}

// StartTied starts a server that ends when this process does, also when that is
// killed: its data may be thrown away.
func StartTied(ctx context.Context, dir string, settings ...string) (*Server, error) {
	return start(ctx, &Server{settings: settings, tied: true}, dir)
}

func start(ctx context.Context, s *Server, dir string) (*Server, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	if len(s.settings) == 0 {
		s.settings = durable
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make the database's folder: %w", err)
	}
	s.dir = dir
	if err := s.stopLeftOver(); err != nil {
		return nil, err
	}
	if err := s.install(ctx); err != nil {
		return nil, err
	}
	if s.password, err = s.secret(); err != nil {
		return nil, err
	}
	if s.port, err = freePort(); err != nil {
		return nil, err
	}
	if err := s.launch(ctx); err != nil {
		return nil, err
	}
	return s, nil
}

// Restart starts a server that has ended, at the address it had.
func (s *Server) Restart(ctx context.Context) error { return s.launch(ctx) }

func (s *Server) data() string    { return filepath.Join(s.dir, "data") }
func (s *Server) pidFile() string { return filepath.Join(s.dir, "pid") }
func (s *Server) logFile() string { return filepath.Join(s.dir, "log.err") } // mariadbd adds an ending where there is none

// DSN returns the data source name of a database on this server.
func (s *Server) DSN(database string) string {
	return fmt.Sprintf("ladder:%s@tcp(127.0.0.1:%d)/%s", s.password, s.port, database)
}

// Relaxed runs f while commits need not reach the disk one by one, which fills
// a new database many times faster on a slow disk. Before it returns, all is on
// disk and every commit waits for it again.
func (s *Server) Relaxed(ctx context.Context, f func() error) error {
	db, err := sql.Open("mysql", s.DSN(""))
	if err != nil {
		return err
	}
	defer db.Close()
	if _, err := db.ExecContext(ctx, "SET GLOBAL innodb_flush_log_at_trx_commit = 0"); err != nil {
		return fmt.Errorf("relax the database: %w", err)
	}
	err = f()
	for _, q := range []string{"SET GLOBAL innodb_flush_log_at_trx_commit = 1", "FLUSH ENGINE LOGS"} {
		if _, tight := db.ExecContext(context.WithoutCancel(ctx), q); tight != nil {
			err = errors.Join(err, fmt.Errorf("make the database durable again: %w", tight))
		}
	}
	return err
}

// Pid returns the server's process id.
func (s *Server) Pid() int { return s.cmd.Process.Pid }

// Done tells when the server has ended, wanted or not.
func (s *Server) Done() <-chan error { return s.done }

// Stop ends the server and waits until its data is safe.
func (s *Server) Stop() error {
	if err := s.cmd.Process.Signal(syscall.SIGTERM); err != nil && !errors.Is(err, os.ErrProcessDone) {
		return err
	}
	select {
	case <-s.done:
	case <-time.After(30 * time.Second):
		return fmt.Errorf("the database did not stop within 30 seconds; its log is %s", s.logFile())
	}
	return os.RemoveAll(s.pidFile())
}

func find(name string) (string, error) {
	if p, err := exec.LookPath(name); err == nil {
		return p, nil
	}
	for _, dir := range []string{"/usr/sbin", "/usr/bin"} {
		if p, err := exec.LookPath(filepath.Join(dir, name)); err == nil {
			return p, nil
		}
	}
	return "", fmt.Errorf("%s is not installed; install the Debian package mariadb-server-core", name)
}

func (s *Server) install(ctx context.Context) error {
	if _, err := os.Stat(filepath.Join(s.dir, "installed")); err == nil {
		return nil
	}
	program, err := find("mariadb-install-db")
	if err != nil {
		return err
	}
	me, err := user.Current()
	if err != nil {
		return err
	}
	var out []byte
	for try := range installTries {
		time.Sleep(time.Duration(try) * time.Second)
		if err := os.RemoveAll(s.data()); err != nil { // an install that was cut short
			return err
		}
		out, err = exec.CommandContext(ctx, program, "--no-defaults", "--user="+me.Username, "--auth-root-authentication-method=normal",
			"--skip-test-db", "--innodb-log-file-size=8M", "--datadir="+s.data()).CombinedOutput()
		if err == nil || ctx.Err() != nil {
			break
		}
	}
	if err != nil {
		return fmt.Errorf("make a database in %s: %w: %s", s.data(), err, worst(string(out)))
	}
	return nil
}

// installTries is how often a new database is begun: several that are made in the
// same second may lack a resource of the machine for a moment.
const installTries = 4

// worst is the line of an output that tells what went wrong: the first error in it,
// else the last line.
func worst(out string) string {
	for line := range strings.Lines(out) {
		if strings.Contains(line, "[ERROR]") {
			return strings.TrimSpace(line)
		}
	}
	return lastLine(out)
}

// secret returns the password of the private account, made once.
func (s *Server) secret() (string, error) {
	name := filepath.Join(s.dir, "password")
	if b, err := os.ReadFile(name); err == nil && len(b) > 0 {
		return string(b), nil
	}
	p := rand.Text()
	return p, os.WriteFile(name, []byte(p), 0o600)
}

func (s *Server) launch(ctx context.Context) error {
	program, err := find("mariadbd")
	if err != nil {
		return err
	}
	args := append([]string{"--no-defaults", "--datadir=" + s.data(), "--socket=ladder.sock", "--bind-address=127.0.0.1",
		"--port=" + strconv.Itoa(s.port), "--log-error=" + s.logFile(), "--pid-file=" + s.pidFile(), "--skip-name-resolve",
		"--tmpdir=" + s.data(), "--character-set-server=utf8mb4", "--collation-server=utf8mb4_uca1400_ai_ci"}, s.settings...)
	if os.Geteuid() == 0 {
		args = append(args, "--user=root") // refused without
	}
	s.cmd = exec.Command(program, args...)
	s.cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true} // Ctrl-C stops the app first, then the app stops this
	var end syscall.Signal
	if s.tied {
		end = syscall.SIGKILL
	}
	if s.done, err = tied.Start(s.cmd, end); err != nil {
		return fmt.Errorf("start mariadbd: %w", err)
	}
	return s.ready(ctx)
}

// ready waits for the server and, the first time, closes it to all but the
// private account.
func (s *Server) ready(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, 60*time.Second)
	defer cancel()
	marker := filepath.Join(s.dir, "installed")
	_, err := os.Stat(marker)
	fresh := err != nil
	dsn := s.DSN("")
	if fresh {
		dsn = fmt.Sprintf("root@tcp(127.0.0.1:%d)/", s.port)
	}
	db, err := sql.Open("mysql", dsn)
	if err != nil {
		return err
	}
	defer db.Close()
	for db.PingContext(ctx) != nil {
		select {
		case err := <-s.done:
			s.done <- err
			return fmt.Errorf("the database ended at its start: %s", s.lastError())
		case <-ctx.Done():
			return fmt.Errorf("the database was not ready within 60 seconds: %s", s.lastError())
		case <-time.After(20 * time.Millisecond):
		}
	}
	if !fresh {
		return nil
	}
	for _, q := range []string{
		"CREATE OR REPLACE USER ladder@'127.0.0.1' IDENTIFIED BY '" + s.password + "'",
		"GRANT ALL ON *.* TO ladder@'127.0.0.1'",
		"CREATE DATABASE IF NOT EXISTS ladder CHARACTER SET utf8mb4",
		"DELETE FROM mysql.global_priv WHERE User = '' OR User = 'root' AND Host <> 'localhost'",
		"ALTER USER root@localhost IDENTIFIED BY '" + s.password + "'",
		"FLUSH PRIVILEGES",
	} {
		if _, err := db.ExecContext(ctx, q); err != nil {
			return fmt.Errorf("prepare the new database: %w", err)
		}
	}
	return os.WriteFile(marker, nil, 0o600)
}

// stopLeftOver stops a server that still runs on this folder's data.
func (s *Server) stopLeftOver() error {
	b, err := os.ReadFile(s.pidFile())
	if err != nil {
		return nil
	}
	pid, err := strconv.Atoi(strings.TrimSpace(string(b)))
	if err != nil {
		return nil
	}
	ours := func() bool {
		line, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
		return err == nil && strings.Contains(string(line), "--datadir="+s.data())
	}
	if !ours() {
		return os.Remove(s.pidFile())
	}
	if err := syscall.Kill(pid, syscall.SIGTERM); err != nil {
		return fmt.Errorf("stop the database left over from before (process %d): %w", pid, err)
	}
	for range 300 {
		if !ours() {
			return nil
		}
		time.Sleep(100 * time.Millisecond)
	}
	return fmt.Errorf("the database left over from before (process %d) does not stop", pid)
}

func (s *Server) lastError() string {
	b, err := os.ReadFile(s.logFile())
	if err != nil {
		return "it left no log"
	}
	last := ""
	for line := range strings.Lines(string(b)) {
		if strings.Contains(line, "[ERROR]") {
			last = line
		}
	}
	if last == "" {
		last = lastLine(string(b))
	}
	return strings.TrimSpace(last)
}

func lastLine(s string) string {
	lines := strings.Split(strings.TrimSpace(s), "\n")
	return lines[len(lines)-1]
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}
