package main

import (
	"bytes"
	"context"
	"database/sql"
	"io"
	"net"
	"net/http"
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

// A body that comes a byte at a time does not hold its connection.
func TestSlowBodiesAreClosed(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	h := answering(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if _, err := io.ReadAll(r.Body); err != nil {
			w.WriteHeader(http.StatusRequestTimeout)
		}
	}), 300*time.Millisecond)
	go h.Serve(l)
	t.Cleanup(func() { h.Close() })
	conn, err := net.Dial("tcp", l.Addr().String())
	require.NoError(t, err)
	defer conn.Close()
	_, err = io.WriteString(conn, "POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 1000\r\n\r\n")
	require.NoError(t, err)
	for range 20 { // two seconds at this pace
		time.Sleep(100 * time.Millisecond)
		if _, err = io.WriteString(conn, "x"); err != nil {
			return // closed
		}
	}
	require.NoError(t, conn.SetReadDeadline(time.Now().Add(2*time.Second)))
	all, err := io.ReadAll(conn)
	assert.NoError(t, err, "it is closed after its answer: %s", all)
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
