package server_test

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// No list of any view is null: a screen counts and walks its lists without
// asking first. Every operation that shows something, in a new studio without
// anything, in a full one, and with the clock on the first day of a break.
func TestNoListIsEverNull(t *testing.T) {
	h := newHouse(t)
	require.NoError(t, demo.Seed(context.Background(), h.store, 1, time.Now))
	full := h.client(t)
	status, text := full.post("/api/sign-in", fmt.Sprintf(`{"email":%q,"password":%q}`, demo.Email, demo.Password))
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
		status, text = lone.do("PUT", "/api/calendar", "application/json", []byte(body))
		require.Equal(t, 204, status, "%s: %s", name, text)
		lone.views([]string{newcomer}, tuneID)
	}
	var day struct {
		Students []struct{ ID, FirstName string }
	}
	_, text = full.get("/api/day")
	require.NoError(t, json.Unmarshal([]byte(text), &day))
	var some []string
	for _, st := range day.Students {
		if strings.Contains("Pip Wren Emil Nikolai", st.FirstName) {
			some = append(some, st.ID)
		}
	}
	require.Len(t, some, 4)
	full.views(some, "cello-ode")
	for _, at := range []string{"2026-12-12T09:00:00Z", "2027-07-19T09:00:00Z"} { // the morning after a term's last day; a summer without any term
		status, text = full.do("PUT", "/api/clock", "application/json", []byte(`{"to":"`+at+`"}`))
		require.Equal(t, 204, status, text)
		full.views(some[1:2], "cello-ode")
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
