package server_test

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/studio/sending"
)

// Reasons go out as sentences, in the language that the studio has chosen and the unit of the device; a
// home reads its own.
func TestAnswersAreReadInALanguage(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "languages@example.com")
	h.app.Hold = 0
	at := "/api/students/" + emil
	says := func(headers ...string) (says []string, language string) {
		t.Helper()
		var answer struct {
			Suggestions []struct{ Why struct{ Code, Says string } }
		}
		status, text := teacher.do("GET", at+"/ladder", "", nil, headers...)
		require.Equal(t, 200, status, text)
		require.NoError(t, json.Unmarshal([]byte(text), &answer))
		for _, s := range answer.Suggestions {
			says = append(says, s.Why.Says)
		}
		return says, teacher.heard.Get("Content-Language")
	}
	list, language := says()
	assert.Equal(t, "en-GB", language)
	assert.NotEmpty(t, list)
	assert.NotContains(t, list, "", "every reason has its sentence")

	speaks := func(was, now string) []byte {
		return fmt.Appendf(nil, `{"was":{"name":"T","studio":"S","zone":"Europe/London","language":%q},"now":{"name":"T","studio":"S","zone":"Europe/London","language":%q}}`, was, now)
	}
	status, text := teacher.do("PUT", "/api/account", "application/json", speaks("en-GB", "tlh"))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "not a language of the program")
	status, text = teacher.do("PUT", "/api/account", "application/json", speaks("en-GB", "en-US"))
	require.Equal(t, 204, status, text)
	_, language = says()
	assert.Equal(t, "en-US", language)

	// the home reads British English, and its letter is written in it
	status, text = teacher.do("PUT", at+"/contact", "application/json", []byte(`{"was":{"address":""},"now":{"address":"parent@homes.example","language":"en-GB"}}`))
	require.Equal(t, 204, status, text)
	day := time.Now().UTC().Format(time.DateOnly)
	status, text = teacher.post("/api/facts", facts(fact(emil, "lesson_opened", `,"day":"`+day+`"`), fact(emil, "lesson_closed", `,"day":"`+day+`"`)))
	require.Equal(t, 204, status, text)
	letter := func() (subject string) {
		t.Helper()
		status, text := teacher.post(at+"/sendings", `{"id":"`+ulid.Make().String()+`","paper":"A4"}`)
		require.Equal(t, 200, status, text)
		require.NoError(t, sending.Deliver(t.Context(), h.app))
		var box struct{ Letters []struct{ Subject string } }
		_, text = teacher.get("/api/mailbox")
		require.NoError(t, json.Unmarshal([]byte(text), &box))
		return box.Letters[0].Subject
	}
	today := time.Now().UTC()
	assert.Contains(t, letter(), today.Format("Monday 2 January"))
	home := h.client(t)
	status, text = home.get("/api/family/" + teacher.link(emil))
	require.Equal(t, 200, status, text)
	assert.Equal(t, "en-GB", home.heard.Get("Content-Language"))

	// a home that has none of its own reads the studio's
	status, text = teacher.do("PUT", at+"/contact", "application/json", []byte(`{"was":{"address":"parent@homes.example","language":"en-GB"},"now":{"address":"parent@homes.example","language":""}}`))
	require.Equal(t, 204, status, text)
	assert.Contains(t, letter(), today.Format("Monday, January 2"))
	_, _ = home.get("/api/family/" + teacher.link(emil))
	assert.Equal(t, "en-US", home.heard.Get("Content-Language"))
}
