package mariadb

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func write(t *testing.T, s *Server, q string) {
	db, err := sql.Open("mysql", s.DSN("ladder"))
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec(q)
	require.NoError(t, err)
}

func rows(t *testing.T, s *Server) (n int) {
	db, err := sql.Open("mysql", s.DSN("ladder"))
	require.NoError(t, err)
	defer db.Close()
	require.NoError(t, db.QueryRow("SELECT COUNT(*) FROM kept").Scan(&n))
	return
}

// A server killed outright loses no row that it said it had.
func TestKilledAndStartedAgain(t *testing.T) {
	ctx, dir := context.Background(), filepath.Join(t.TempDir(), "db")
	s, err := Start(ctx, dir)
	require.NoError(t, err)
	write(t, s, "CREATE TABLE kept (n INT PRIMARY KEY)")
	write(t, s, "INSERT INTO kept VALUES (1), (2)")
	require.NoError(t, syscall.Kill(s.Pid(), syscall.SIGKILL))
	<-s.Done()
	s, err = Start(ctx, dir)
	require.NoError(t, err)
	assert.Equal(t, 2, rows(t, s))

	require.NoError(t, syscall.Kill(s.Pid(), syscall.SIGKILL))
	<-s.Done()
	require.NoError(t, s.Restart(ctx))
	assert.Equal(t, 2, rows(t, s), "again at the same address")

	// The app was killed and its server runs on: the next start takes over.
	second, err := Start(ctx, dir)
	require.NoError(t, err)
	<-s.Done()
	assert.Equal(t, 2, rows(t, second))
	require.NoError(t, second.Stop())
	_, err = os.Stat(second.pidFile())
	assert.True(t, os.IsNotExist(err))
}

// What was filled in a hurry is as durable afterwards as anything else.
func TestRelaxedForAWhile(t *testing.T) {
	ctx, dir := context.Background(), filepath.Join(t.TempDir(), "db")
	s, err := Start(ctx, dir)
	require.NoError(t, err)
	require.NoError(t, s.Relaxed(ctx, func() error {
		write(t, s, "CREATE TABLE kept (n INT PRIMARY KEY)")
		write(t, s, "INSERT INTO kept VALUES (1), (2), (3)")
		return nil
	}))
	db, err := sql.Open("mysql", s.DSN(""))
	require.NoError(t, err)
	defer db.Close()
	var flush int
	require.NoError(t, db.QueryRow("SELECT @@innodb_flush_log_at_trx_commit").Scan(&flush))
	assert.Equal(t, 1, flush)
	require.NoError(t, syscall.Kill(s.Pid(), syscall.SIGKILL))
	<-s.Done()
	require.NoError(t, s.Restart(ctx))
	assert.Equal(t, 3, rows(t, s))
	require.NoError(t, s.Stop())
}

func TestOnlyThePrivateAccountGetsIn(t *testing.T) {
	s, err := Start(context.Background(), filepath.Join(t.TempDir(), "db"), Fast...)
	require.NoError(t, err)
	defer s.Stop()
	db, err := sql.Open("mysql", "root@tcp(127.0.0.1:"+s.DSN("")[len("ladder:")+len(s.password)+len("@tcp(127.0.0.1:"):])
	require.NoError(t, err)
	defer db.Close()
	assert.ErrorContains(t, db.Ping(), "Access denied")
}

func TestAFolderThatCannotBeWritten(t *testing.T) {
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	_, err := Start(context.Background(), filepath.Join(file, "db"))
	assert.ErrorContains(t, err, "make the database's folder")
}
