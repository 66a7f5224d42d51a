// Package storetest gives tests a real, private MariaDB: one server for a test
// binary, one database for a test.
package storetest

import (
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store"
	"patientladder/store/mariadb"
)

var (
	server    *mariadb.Server
	databases atomic.Int64
)

// Main runs a package's tests with a server beside them: call it from TestMain.
func Main(m *testing.M) {
	os.Exit(Run(m))
}

// Run runs a package's tests with a server beside them and returns the exit
// code.
func Run(m *testing.M) int {
	dir, err := os.MkdirTemp(Room(), "ladder-test-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	server, err = mariadb.Start(context.Background(), filepath.Join(dir, "db"), mariadb.Fast...)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer func() { // its data is thrown away: nothing to put in order first
		syscall.Kill(server.Pid(), syscall.SIGKILL)
		<-server.Done()
	}()
	return m.Run()
}

// Room returns where tests keep what may be lost: in memory where the machine lends two
// gigabytes of it, else "", the usual place. A slow disk then holds no test up.
func Room() string {
	const shared, enough = "/dev/shm", 2 << 30
	var room syscall.Statfs_t
	if syscall.Statfs(shared, &room) != nil || room.Bavail*uint64(room.Bsize) < enough {
		return ""
	}
	return shared
}

// DSN returns the address of a new, empty database.
func DSN(t testing.TB) string {
	dsn, err := newDatabase()
	require.NoError(t, err)
	return dsn
}

func newDatabase() (dsn string, err error) {
	name := fmt.Sprintf("test%d", databases.Add(1))
	db, err := sql.Open("mysql", server.DSN(""))
	if err != nil {
		return "", err
	}
	defer db.Close()
	_, err = db.Exec("CREATE DATABASE " + name + " CHARACTER SET utf8mb4")
	return server.DSN(name), err
}

// Open returns a store on a new database with all tables, which lasts as long
// as the tests run.
func Open() (*store.Store, error) {
	dsn, err := newDatabase()
	if err != nil {
		return nil, err
	}
	ctx := context.Background()
	s, err := store.Open(ctx, dsn, 5*time.Second)
	if err != nil {
		return nil, err
	}
	_, err = s.Migrate(ctx)
	return s, err
}

// New returns a store on a new database with all tables, closed at the end of
// the test.
func New(t testing.TB) *store.Store {
	s, err := Open()
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

// CopyOf returns a store on a new database with the rows of another: quicker
// than filling it again.
func CopyOf(t testing.TB, from *store.Store) *store.Store {
	s := New(t)
	var source string
	require.NoError(t, from.DB().QueryRow("SELECT DATABASE()").Scan(&source))
	rows, err := from.DB().Query("SELECT table_name FROM information_schema.tables WHERE table_schema = ? AND table_name NOT LIKE 'goose%'", source)
	require.NoError(t, err)
	defer rows.Close()
	conn, err := s.DB().Conn(context.Background())
	require.NoError(t, err)
	defer conn.Close()
	_, err = conn.ExecContext(context.Background(), "SET foreign_key_checks = 0")
	require.NoError(t, err)
	for rows.Next() {
		var table string
		require.NoError(t, rows.Scan(&table))
		_, err := conn.ExecContext(context.Background(), fmt.Sprintf("INSERT INTO %s SELECT * FROM %s.%s", table, source, table))
		require.NoError(t, err, table)
	}
	require.NoError(t, rows.Err())
	_, err = conn.ExecContext(context.Background(), "SET foreign_key_checks = 1")
	require.NoError(t, err)
	return s
}
