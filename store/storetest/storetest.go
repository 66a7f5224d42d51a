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
	dir, err := os.MkdirTemp("", "ladder-test-")
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
	defer server.Stop()
	return m.Run()
}

// DSN returns the address of a new, empty database.
func DSN(t testing.TB) string {
	name := fmt.Sprintf("test%d", databases.Add(1))
	db, err := sql.Open("mysql", server.DSN(""))
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec("CREATE DATABASE " + name + " CHARACTER SET utf8mb4")
	require.NoError(t, err)
	return server.DSN(name)
}

// New returns a store on a new database with all tables.
func New(t testing.TB) *store.Store {
	ctx := context.Background()
	s, err := store.Open(ctx, DSN(t), 5*time.Second)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	_, err = s.Migrate(ctx)
	require.NoError(t, err)
	return s
}
