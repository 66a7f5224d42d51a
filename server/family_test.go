package server_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// link makes a family link and returns its token.
func (c *client) link(student string) string {
	status, text := c.post("/api/students/"+student+"/links", "")
	require.Equal(c.t, 200, status, text)
	var made struct{ Path string }
	require.NoError(c.t, json.Unmarshal([]byte(text), &made))
	token, found := strings.CutPrefix(made.Path, "/family/")
	require.True(c.t, found)
	assert.Len(c.t, token, 43, "32 bytes of chance in base64")
	return token
}

func TestAFamilyTellsOfItsOwnStudentOnly(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "family@example.com")
	_, stranger := h.teacher(t, "strangers@example.com")
	token := teacher.link(emil)
	home := h.client(t)
	at := "/api/family/" + token

	status, text := home.get(at)
	require.Equal(t, 200, status, text)
	assert.Contains(t, text, "Emil")
	today := `,"day":"2026-11-24"`
	tick := fact(emil, "ticked", today+`,"text":"now r1"`)
	for _, c := range []struct {
		name string
		body string
		want int
	}{
		{"a tick", tick, 204},
		{"the same tick again", tick, 204},
		{"a day at home", fact(emil, "practised", today+`,"minutes":12,"text":"fine"`), 204},
		{"a question", fact(emil, "question_asked", `,"text":"Which bow hold?"`), 204},
		{"a tick taken back", fact(emil, "retracted", `,"ref":`+tick[6:34]), 204},
		{"another student", fact(stranger, "ticked", today+`,"text":"now r1"`), 422},
		{"a foothold", fact(emil, "foothold_tried", `,"rung":"r1","outcome":"granted"`), 422},
		{"a note of the teacher", fact(emil, "noted", `,"text":"x"`), 422},
		{"something that the family did not tell", fact(emil, "retracted", `,"ref":"01ARZ3NDEKTSV4RRFFQ69G5FAV"`), 422},
	} {
		status, text := home.post(at+"/facts", facts(c.body))
		assert.Equal(t, c.want, status, "%s: %s", c.name, text)
	}
	_, text = teacher.get("/api/students/" + emil + "/record")
	assert.Contains(t, text, "Which bow hold?")
	assert.NotContains(t, text, `"noted"`)
}

func TestLinksThatOpenNothing(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "links@example.com")
	first, second := teacher.link(emil), teacher.link(emil)
	home := h.client(t)
	for _, token := range []string{first, second} {
		status, _ := home.get("/api/family/" + token)
		assert.Equal(t, 200, status, "a second link does not end the first")
	}
	for _, wrong := range []string{emil, first[:42], first + "A", "%27%20OR%201=1", second[1:] + "A"} {
		status, text := home.get("/api/family/" + wrong)
		assert.Equal(t, 404, status, wrong)
		assert.NotContains(t, text, "Emil")
	}
	for _, path := range []string{"/api/day", "/api/students/" + emil + "/week", "/api/shelf"} {
		status, _ := home.get(path)
		assert.Equal(t, 401, status, "a link is no sign-in")
	}
	_, err := h.store.DB().Exec(`UPDATE family_links SET last_day = '2020-01-01' WHERE token = UNHEX(SHA2(?, 256))`, second)
	require.NoError(t, err)
	status, text := home.get("/api/family/" + second)
	assert.Equal(t, 410, status)
	assert.Contains(t, text, "ended with the term")

	status, _ = teacher.do("DELETE", "/api/students/"+emil+"/links", "", nil)
	assert.Equal(t, 204, status)
	status, text = home.get("/api/family/" + first)
	assert.Equal(t, 410, status)
	assert.Contains(t, text, "Your teacher has ended this link")
	status, _ = home.post("/api/family/"+first+"/facts", facts(fact(emil, "ticked", `,"day":"2026-11-24","text":"x"`)))
	assert.Equal(t, 410, status)
	var kept int
	require.NoError(t, h.store.DB().QueryRow(`SELECT COUNT(*) FROM family_links WHERE token = ?`, first).Scan(&kept))
	assert.Zero(t, kept, "only the hash is kept")
}
