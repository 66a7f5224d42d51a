package server

import (
	"bytes"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
	"patientladder/studio"
)

// What is to be told in the log are operations that there are.
func TestWhatIsGuardedIsThere(t *testing.T) {
	var ids []string
	for _, path := range New(nil, nil, fstest.MapFS{}, Options{}).api.OpenAPI().Paths {
		for _, op := range []*huma.Operation{path.Get, path.Post, path.Put, path.Delete} {
			if op != nil {
				ids = append(ids, op.OperationID)
			}
		}
	}
	for _, id := range guarded {
		assert.Contains(t, ids, id)
	}
}

// The log tells who signed in from where, and who was refused; never with what.
func TestWhatTheLogTells(t *testing.T) {
	var out bytes.Buffer
	s := storetest.New(t)
	srv := New(studio.New(s, time.Now), s, fstest.MapFS{}, Options{Log: slog.New(slog.NewTextHandler(&out, nil))})
	t.Cleanup(srv.Close)
	post := func(path, body string) int {
		r := httptest.NewRequest(http.MethodPost, path, strings.NewReader(body))
		r.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		srv.Handler().ServeHTTP(w, r)
		return w.Code
	}
	require.Equal(t, 204, post("/api/sign-up", `{"name":"N","studio":"S","email":"a@example.com","password":"four-lanterns-north","zone":"UTC"}`))
	require.Equal(t, 401, post("/api/sign-in", `{"email":"a@example.com","password":"five-lanterns-south"}`))
	require.Equal(t, 401, post("/api/facts", `{"facts":[]}`))
	for _, want := range []string{"operation=sign-up status=204", "operation=sign-in status=401", "operation=tell status=401", "from=192.0.2.1"} {
		assert.Contains(t, out.String(), want)
	}
	for _, secret := range []string{"lanterns", "a@example.com"} {
		assert.NotContains(t, out.String(), secret)
	}
	w := httptest.NewRecorder()
	srv.Metrics().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/metrics", nil))
	assert.Contains(t, w.Body.String(), `ladder_requests_total{operation="sign-in",status="401"} 1`)
	assert.Contains(t, w.Body.String(), "go_sql_open_connections")
	w = httptest.NewRecorder()
	srv.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/metrics", nil))
	assert.NotContains(t, w.Body.String(), "ladder_requests_total", "the world does not see it")
}

// A copy without its database is not well.
func TestHealth(t *testing.T) {
	s := storetest.New(t)
	srv := New(studio.New(s, time.Now), s, fstest.MapFS{}, Options{Log: slog.New(slog.DiscardHandler)})
	t.Cleanup(srv.Close)
	ask := func() int {
		w := httptest.NewRecorder()
		srv.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/api/health", nil))
		return w.Code
	}
	assert.Equal(t, 204, ask())
	require.NoError(t, s.Close())
	assert.Equal(t, 503, ask())
}
