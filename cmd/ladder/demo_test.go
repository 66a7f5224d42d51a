package main

import (
	"bytes"
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/store/mariadb"
)

// A said is what a program printed, by several at once.
type said struct {
	mu sync.Mutex
	b  bytes.Buffer
}

func (s *said) Write(p []byte) (int, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.b.Write(p)
}

func (s *said) String() string {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.b.String()
}

// A database that cannot start is tried again until it can, and the console says why it could not.
func TestTheDatabaseComesBackByItself(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "db")
	db, err := mariadb.Start(t.Context(), dir, mariadb.Fast...)
	require.NoError(t, err)
	ctx, stop := context.WithCancel(context.WithoutCancel(t.Context()))
	var out said
	kept := make(chan error, 1)
	go func() { kept <- keepRunning(ctx, db, &out, 50*time.Millisecond) }()
	data := filepath.Join(dir, "data")
	require.NoError(t, os.Rename(data, data+".away")) // nothing can be read or written there
	require.NoError(t, syscall.Kill(db.Pid(), syscall.SIGKILL))
	require.Eventually(t, func() bool { return strings.Contains(out.String(), "tried again every") }, 20*time.Second, 20*time.Millisecond)
	assert.NotContains(t, out.String(), "left no log", "the log is found")
	require.NoError(t, os.RemoveAll(data))
	require.NoError(t, os.Rename(data+".away", data))
	require.Eventually(t, func() bool { return strings.Contains(out.String(), "The database is back.") }, 20*time.Second, 20*time.Millisecond)
	conn, err := sql.Open("mysql", db.DSN("ladder"))
	require.NoError(t, err)
	defer conn.Close()
	assert.NoError(t, conn.Ping(), "at the address it had")
	stop()
	assert.NoError(t, <-kept)
}

// What the environment sets is looked at when the program starts.
func TestSettingsOfTheEnvironment(t *testing.T) {
	for text, want := range map[string][]string{"": nil, "127.0.0.1": {"127.0.0.1"}, " 10.0.0.0/8 , ::1": {"10.0.0.0/8", "::1"}} {
		t.Setenv("LADDER_PROXIES", text)
		got, err := proxies()
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	t.Setenv("LADDER_PROXIES", "everybody")
	_, err := proxies()
	assert.ErrorContains(t, err, `"everybody" is no address`)
	assert.Greater(t, memoryLimit(), int64(100<<20))
}
