package witness

import (
	"context"
	"net/http/httptest"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/server"
	"patientladder/store/storetest"
	"patientladder/studio"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// A witness that could not see a loss would be no witness.
func TestTheWitnessSees(t *testing.T) {
	s := storetest.New(t)
	srv := server.New(studio.New(s, time.Now), s, fstest.MapFS{}, server.Options{})
	t.Cleanup(srv.Close)
	web := httptest.NewServer(srv.Handler())
	t.Cleanup(web.Close)
	ctx := t.Context()
	w, err := New(ctx, 2, web.URL)
	require.NoError(t, err)
	telling, stop := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() { w.Run(telling, 1); close(done) }()
	require.Eventually(t, func() bool {
		var lessons int
		return s.DB().QueryRow("SELECT COUNT(*) FROM documents WHERE kind = 'sheet'").Scan(&lessons) == nil && lessons > 2 // two at most are on their way
	}, 30*time.Second, 20*time.Millisecond)
	stop()
	<-done
	f, err := w.Look(ctx, s.DB())
	require.NoError(t, err)
	require.False(t, f.Bad(), f.String())
	require.Positive(t, f.Acknowledged)
	require.Positive(t, f.Edits)
	for range 2 { // a free day that another device's change took out, and one that it brought back
		w.free[0] = freeDay{acked: true, in: !w.free[0].in, edits: w.free[0].edits}
		days := `[]`
		if !w.free[0].in {
			days = `[{"name":"free","from":"` + dayOf(0) + `","to":"` + dayOf(0) + `"}]`
		}
		_, err = s.DB().Exec(`UPDATE studios SET calendar = '{"terms":[],"free":` + days + `}'`)
		require.NoError(t, err)
		for i := 1; i < editors; i++ {
			w.free[i] = freeDay{}
		}
		f, err = w.Look(ctx, s.DB())
		require.NoError(t, err)
		assert.Equal(t, 1, f.Overwritten)
		assert.True(t, f.Bad())
	}
	w.free = [editors]freeDay{}

	for _, c := range []struct {
		name, change string
		n            func(Finding) int
	}{
		{"a fact that is gone", "DELETE FROM facts WHERE kind = 'lesson_opened' ORDER BY at LIMIT 1", func(f Finding) int { return f.Lost }},
		{"and with it a delivery that is there in part", "DO 1", func(f Finding) int { return f.Half }},
		{"one that holds something else", `UPDATE facts SET detail = '{"text":"x"}' WHERE kind = 'noted' LIMIT 1`, func(f Finding) int { return f.Other }},
		{"one that nobody told", "INSERT INTO facts (studio_id, id, student_id, at, kind, form, author, detail) SELECT studio_id, '01ARZ3NDEKTSV4RRFFQ69G5FAV', student_id, at, kind, form, author, detail FROM facts LIMIT 1", func(f Finding) int { return f.More }},
	} {
		_, err := s.DB().Exec(c.change)
		require.NoError(t, err, c.name)
		f, err := w.Look(ctx, s.DB())
		require.NoError(t, err, c.name)
		assert.Equal(t, 1, c.n(f), c.name)
		assert.True(t, f.Bad(), c.name)
	}
	_, err = s.DB().Exec("DELETE FROM documents")
	require.NoError(t, err)
	f, err = w.Look(ctx, s.DB())
	require.NoError(t, err)
	assert.Positive(t, f.NoSheet+f.Half, "a lesson without its sheet")
}
