package server_test

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/internal/full"
	"patientladder/server"
	"patientladder/studio"
	"patientladder/studio/studiotest"
)

// No list of any view is null: a screen counts and walks its lists without
// asking first. Every operation that shows something, in a new studio without
// anything, in a full one, and with the clock on the first day of a break.
func TestNoListIsEverNull(t *testing.T) {
	h := houseOn(t, studiotest.FerryHouse(t, time.Now))
	whole := h.client(t)
	status, text := whole.post("/api/sign-in", fmt.Sprintf(`{"email":%q,"password":%q}`, demo.Email, demo.Password))
	require.Equal(t, 204, status, text)
	empty := h.client(t)
	status, text = empty.post("/api/sign-up", `{"name":"T","studio":"S","email":"empty@example.com","password":"a long password","zone":"Europe/London"}`)
	require.Equal(t, 204, status, text)
	lone, newcomer := h.teacher(t, "lone@example.com")
	tuneID := ulid.Make().String()
	status, text = lone.imports(tuneID, "mine.abc", tune)
	require.Equal(t, 200, status, text)

	empty.views(nil, "")
	lone.views([]string{newcomer}, tuneID)
	for name, body := range map[string]string{"a term and no free week": `{"terms":[{"name":"Autumn","from":"2026-09-07","to":"2026-12-11"}],"free":[]}`, "no term left": `{"terms":[],"free":[]}`} {
		status, text = lone.do("PUT", "/api/calendar", "application/json", []byte(`{"was":`+calendarOf(lone)+`,"now":`+body+`}`))
		require.Equal(t, 204, status, "%s: %s", name, text)
		lone.views([]string{newcomer}, tuneID)
	}
	var day struct {
		Students []struct{ ID, FirstName string }
	}
	_, text = whole.get("/api/day")
	require.NoError(t, json.Unmarshal([]byte(text), &day))
	wanted := full.Or([]string{"Pip", "Emil"}, []string{"Pip", "Wren", "Emil", "Nikolai"}) // one had no lesson yet
	var some []string
	for _, st := range day.Students {
		if slices.Contains(wanted, st.FirstName) {
			some = append(some, st.ID)
		}
	}
	require.Len(t, some, len(wanted))
	whole.views(some, "cello-ode")
	for _, at := range []string{"2026-12-12T09:00:00Z", "2027-07-19T09:00:00Z"} { // the morning after a term's last day; a summer without any term
		status, text = whole.do("PUT", "/api/clock", "application/json", []byte(`{"to":"`+at+`"}`))
		require.Equal(t, 204, status, text)
		whole.views(some[1:2], "cello-ode")
	}
}

// views asks every operation that shows something.
func (c *client) views(students []string, item string) {
	c.t.Helper()
	var api struct {
		Paths map[string]map[string]struct{ Parameters []struct{ Name, In string } }
	}
	_, text := c.get("/api/openapi.json")
	require.NoError(c.t, json.Unmarshal([]byte(text), &api))
	seen := 0
	for path, methods := range api.Paths {
		if _, shows := methods["get"]; !shows {
			continue
		}
		var at []string
		switch {
		case strings.HasPrefix(path, "/api/family/{token}"):
			for _, st := range students {
				_, text := c.post("/api/students/"+st+"/links", "")
				var link struct{ Path string }
				require.NoError(c.t, json.Unmarshal([]byte(text), &link))
				at = append(at, strings.Replace(path, "{token}", strings.TrimPrefix(link.Path, "/family/"), 1))
			}
		case strings.Contains(path, "{student}"):
			for _, st := range students {
				at = append(at, strings.NewReplacer("{student}", st, "{question}", "upkeep", "{school}", "third").Replace(path))
			}
		case strings.Contains(path, "{item}"):
			if item != "" {
				at = append(at, strings.Replace(path, "{item}", item, 1))
			}
		default:
			at = append(at, path)
		}
		for _, one := range at {
			status, text := c.get(one)
			var v any
			if status != 200 || json.Unmarshal([]byte(text), &v) != nil {
				continue // files and letters are tested by themselves
			}
			seen++
			for _, where := range nulls(v, "") {
				assert.Fail(c.t, "null", "%s: %s is null", one, where)
			}
		}
	}
	assert.GreaterOrEqual(c.t, seen, 8)
}

// nulls are the places of a JSON value that hold null.
func nulls(v any, at string) (out []string) {
	switch v := v.(type) {
	case nil:
		return []string{at}
	case []any:
		for i, x := range v {
			out = append(out, nulls(x, fmt.Sprintf("%s[%d]", at, i))...)
		}
	case map[string]any:
		for k, x := range v {
			out = append(out, nulls(x, at+"."+k)...)
		}
	}
	return out
}

// The same request has the same answer, byte for byte, as long as nothing was told
// and the clock stands: every view of a lesson just closed, again and again, and from another
// copy of the program.
func TestTheSameRequestHasTheSameAnswer(t *testing.T) {
	now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	s := studiotest.FerryHouse(t, func() time.Time { return now })
	copied := func() *client { // a copy of the program on that database
		app := studio.New(s, func() time.Time { return now })
		srv := server.New(app, s, fstest.MapFS{}, server.Options{Log: slog.New(slog.DiscardHandler)})
		t.Cleanup(srv.Close)
		web := httptest.NewServer(srv.Handler())
		t.Cleanup(web.Close)
		c := house{web, s, app, nil}.client(t)
		status, text := c.post("/api/sign-in", fmt.Sprintf(`{"email":%q,"password":%q}`, demo.Email, demo.Password))
		require.Equal(t, 204, status, text)
		return c
	}
	c := copied()
	var day struct {
		Now      time.Time
		Students []struct{ ID, FirstName string }
	}
	_, text := c.get("/api/day")
	require.NoError(t, json.Unmarshal([]byte(text), &day))
	var wren string
	for _, st := range day.Students {
		if st.FirstName == "Wren" {
			wren = st.ID
		}
	}
	at := day.Now
	tell := func(kind, more string) {
		at = at.Add(time.Second)
		f := fmt.Sprintf(`{"id":%q,"student":%q,"at":%q,"body":{"kind":%q%s}}`, ulid.Make(), wren, at.Format(time.RFC3339Nano), kind, more)
		status, text := c.post("/api/facts", facts(f))
		require.Equal(t, 204, status, text)
	}
	tell("lesson_opened", `,"day":"2026-11-18"`)
	for _, probe := range []string{"left-right", "high-low", "steady-beat", "echo-rhythm", "higher-lower", "one-finger"} {
		tell("probed", `,"probe":"`+probe+`","outcome":"nearly"`)
	}
	tell("lesson_closed", `,"day":"2026-11-18"`)
	granted := 0
	for _, st := range day.Students { // footholds that were told change the paces of the whole studio
		_, text := c.get("/api/students/" + st.ID + "/ladder")
		var ladder struct {
			Rungs []struct{ ID, State string }
		}
		require.NoError(t, json.Unmarshal([]byte(text), &ladder))
		for _, r := range ladder.Rungs {
			if r.State == "current" && st.ID != wren {
				at = at.Add(time.Second)
				if status, _ := c.post("/api/facts", facts(fmt.Sprintf(`{"id":%q,"student":%q,"at":%q,"body":{"kind":"foothold_tried","rung":%q,"outcome":"granted"}}`, ulid.Make(), st.ID, at.Format(time.RFC3339Nano), r.ID))); status == 204 {
					granted++
				}
				break
			}
		}
	}
	require.Greater(t, granted, 5)
	other := copied() // which knows no more than the database, as after a restart
	for _, path := range []string{"/api/day", "/api/calendar", "/api/sheets", "/api/shelf", "/api/skills", "/api/activities", "/api/words", "/api/items/cello-ode", "/api/items/shore-sailcloth/reading?student=" + wren,
		"/api/shelf?student=" + wren, "/api/shelf.csv", "/api/students/" + wren + "/ladder", "/api/students/" + wren + "/lesson", "/api/students/" + wren + "/lesson?day=2026-11-11",
		"/api/students/" + wren + "/week", "/api/students/" + wren + "/record", "/api/students/" + wren + "/approach", "/api/students/" + wren + "/approach/upkeep/third", "/api/students/" + wren + "/seat"} {
		status, first := c.get(path)
		require.Equal(t, 200, status, "%s: %s", path, first)
		if _, there := other.get(path); !assert.Equal(t, first, there, "%s answers otherwise from another copy", path) {
			break
		}
		for range full.Or(9, 49) {
			_, again := c.get(path)
			if !assert.True(t, first == again, "%s answers otherwise the second time", path) {
				break
			}
		}
	}
	_, text = c.get("/api/students/" + wren + "/lesson")
	assert.Contains(t, text, "probe-answered")
}
