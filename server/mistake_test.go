package server_test

import (
	"bytes"
	"context"
	"io/fs"
	"log/slog"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/server"
	"patientladder/store/storetest"
	"patientladder/studio"
)

// broken are pages whose reading stops the program.
type broken struct{}

func (broken) Open(string) (fs.File, error) { panic("the pages are broken") }

// A mistake of the program is logged with the place where it happened, and the person is
// told what it means: nothing is lost by looking, and a change may be.
func TestAMistakeOfTheProgramIsToldAsItIs(t *testing.T) {
	s := storetest.New(t)
	app := studio.New(s, time.Now)
	var log bytes.Buffer
	srv := server.New(app, s, broken{}, server.Options{Log: slog.New(slog.NewTextHandler(&log, nil)),
		OwnBooks: func(context.Context, *studio.App, studio.Who) error { panic("the books are broken") }})
	t.Cleanup(srv.Close)
	web := httptest.NewServer(srv.Handler())
	t.Cleanup(web.Close)
	c, _ := house{web, s, app, nil}.teacher(t, "mistakes@example.com")
	status, text := c.get("/anything")
	assert.Equal(t, 500, status)
	assert.Contains(t, text, "Nothing was lost. Try again.")
	status, text = c.post("/api/shelf/own-books", "")
	assert.Equal(t, 500, status)
	assert.NotContains(t, text, "Nothing was lost")
	assert.Contains(t, text, "may not be saved")
	assert.Contains(t, log.String(), "the books are broken")
	assert.Contains(t, log.String(), "mistake_test.go", "the stack names the place")
}
