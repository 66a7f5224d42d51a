package server_test

import (
	"encoding/json"
	"fmt"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/mail/mailbox"
	"patientladder/studio/family"
	"patientladder/studio/places"
	"patientladder/studio/sending"
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
	tick := fact(emil, "ticked", today+`,"line":"now r1"`)
	for _, c := range []struct {
		name string
		body string
		want int
	}{
		{"a tick", tick, 204},
		{"the same tick again", tick, 204},
		{"a day at home", fact(emil, "practised", today+`,"minutes":12,"felt":"fine"`), 204},
		{"a question", fact(emil, "question_asked", `,"text":"Which bow hold?"`), 204},
		{"days of practice", fact(emil, "days_set", `,"weekdays":[1,3,5],"minutes":15`), 204},
		{"a treat", fact(emil, "treat_set", `,"name":"Chips","counts":"days","goal":5`), 204},
		{"a treat that counts something else", fact(emil, "treat_set", `,"name":"Chips","counts":"money","goal":5`), 422},
		{"a tick taken back", fact(emil, "retracted", `,"ref":`+tick[6:34]), 204},
		{"days that are none", fact(emil, "days_set", `,"weekdays":[1,9]`), 422},
		{"another student", fact(stranger, "ticked", today+`,"line":"now r1"`), 422},
		{"a foothold", fact(emil, "foothold_tried", `,"rung":"r1","outcome":"granted"`), 422},
		{"a note of the teacher", fact(emil, "noted", `,"text":"x"`), 422},
		{"something that the family did not tell", fact(emil, "retracted", `,"ref":"01ARZ3NDEKTSV4RRFFQ69G5FAV"`), 422},
	} {
		status, text := home.post(at+"/facts", facts(c.body))
		assert.Equal(t, c.want, status, "%s: %s", c.name, text)
	}
	_, text = home.get(at)
	var view family.FamilyView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	assert.Equal(t, []int{1, 3, 5}, view.Weekdays)
	assert.Equal(t, 15, view.Budget)
	assert.Equal(t, &family.TreatView{Name: "Chips", Counts: "days", Goal: 5}, view.Treat, "what lies before it was named does not count")
	status, text = home.get(at + "/sounds?line=r1")
	assert.Equal(t, 404, status, "only what is on the sheet is heard")
	assert.Contains(t, text, "not on the week's sheet")
	status, text = home.get(at + "/lessons.ics")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, "BEGIN:VCALENDAR")
	_, text = teacher.get("/api/students/" + emil + "/record")
	assert.Contains(t, text, "Which bow hold?")
	assert.NotContains(t, text, `"noted"`)
}

// Whatever address a family makes out of its link, another student's data stays out
// of reach: over every route of the API's own description, with the link's token and
// another student's ids in every place.
func TestAFamilyReachesNoOtherStudent(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "routes@example.com")
	other := ulid.Make().String()
	status, text := teacher.post("/api/students", strings.Replace(newStudent(other), "Emil", "Saoirse", 1))
	require.Equal(t, 200, status, text)
	token := teacher.link(emil)
	home := h.client(t)
	_, text = teacher.get("/api/openapi.json")
	var api struct{ Paths map[string]map[string]any }
	require.NoError(t, json.Unmarshal([]byte(text), &api))
	parameter := regexp.MustCompile(`\{[a-z]+\}`)
	tried := 0
	for path, methods := range api.Paths {
		if path == "/api/health" {
			continue // it asks for nothing, and tells nothing
		}
		for method := range methods {
			for _, with := range []string{token, other, token + "/../" + other, "..%2F" + other} {
				at := parameter.ReplaceAllString(path, with)
				if strings.HasPrefix(path, "/api/family/{token}") {
					at = strings.Replace(parameter.ReplaceAllString(strings.Replace(path, "{token}", token, 1), with), "//", "/", 1)
				}
				for _, query := range []string{"", "?student=" + other, "?token=" + token + "&student=" + other} {
					status, text := home.do(strings.ToUpper(method), at+query, "application/json", []byte(facts(fact(other, "ticked", `,"day":"2026-11-24","line":"x"`))))
					assert.NotContains(t, text, "Saoirse", "%s %s: %d", method, at+query, status)
					if own := strings.HasPrefix(path, "/api/family/{token}") && (method == "get" && !strings.Contains(path, "{rung}")); !own {
						assert.GreaterOrEqual(t, status, 400, "%s %s", method, at+query)
					}
					tried++
				}
			}
		}
	}
	t.Logf("%d addresses", tried)
	_, text = teacher.get("/api/students/" + other + "/record")
	assert.NotContains(t, text, `"ticked"`)
}

// A sheet goes out by mail, once for an id however often it is asked; what is refused
// or comes back is said.
func TestSheetsByMail(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "mailing@example.com")
	at := "/api/students/" + emil
	h.app.Hold = 0
	send := func(id string) (int, string) { return teacher.post(at+"/sendings", `{"id":"`+id+`","paper":"A4"}`) }
	contact := func(address string) int {
		var kept struct{ Student struct{ Contact string } }
		_, text := teacher.get(at)
		require.NoError(t, json.Unmarshal([]byte(text), &kept))
		status, _ := teacher.do("PUT", at+"/contact", "application/json", fmt.Appendf(nil, `{"was":{"address":%q},"now":{"address":%q}}`, kept.Student.Contact, address))
		return status
	}
	status, text := send(ulid.Make().String())
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "written when a lesson is finished")
	day := time.Now().UTC().Format(time.DateOnly)
	status, text = teacher.post("/api/facts", facts(fact(emil, "lesson_opened", `,"day":"`+day+`"`), fact(emil, "lesson_closed", `,"day":"`+day+`"`)))
	require.Equal(t, 204, status, text)
	status, text = send(ulid.Make().String())
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no email address")

	assert.Equal(t, 422, contact("nowhere"))
	assert.Equal(t, 204, contact("parent@homes.example"))
	id := ulid.Make().String()
	for range 2 {
		status, text = send(id)
		assert.Equal(t, 200, status, text)
	}
	var box struct {
		On      bool
		Letters []struct {
			ID, To, Subject, Text, HTML string
			Files                       []string
		}
	}
	deliver := func() { require.NoError(t, sending.Deliver(t.Context(), h.app)) }
	deliver()
	_, text = teacher.get("/api/mailbox")
	require.NoError(t, json.Unmarshal([]byte(text), &box))
	require.Len(t, box.Letters, 1, "asked twice, sent once")
	l := box.Letters[0]
	assert.Equal(t, "parent@homes.example", l.To)
	assert.Contains(t, l.Subject, "Emil: practice")
	link := regexp.MustCompile(`http://ladder\.example(/family/\S+)`).FindStringSubmatch(l.Text)
	require.Len(t, link, 2, l.Text)
	assert.Contains(t, l.HTML, link[0])
	status, text = h.client(t).get("/api" + link[1])
	assert.Equal(t, 200, status, text)
	status, pdf := teacher.get("/api/mailbox/" + id + "/" + l.Files[0])
	assert.Equal(t, 200, status)
	assert.True(t, strings.HasPrefix(pdf, "%PDF-"))

	stranger, _ := h.teacher(t, "stranger@example.com")
	_, text = stranger.get("/api/mailbox")
	assert.NotContains(t, text, "Emil")
	status, _ = stranger.get("/api/mailbox/" + id + "/" + l.Files[0])
	assert.Equal(t, 404, status)

	for _, c := range []struct{ address, state, says string }{
		{"parent@" + mailbox.Refused, "refused", "No such mailbox here"},
		{"parent@" + mailbox.Bounced, "bounced", "The mailbox is full"},
		{"parent@homes.example", "sent", ""},
	} {
		assert.Equal(t, 204, contact(c.address))
		_, _ = send(ulid.Make().String())
		deliver()
		_, text = teacher.get(at + "/week")
		var week struct{ Sending places.Sending }
		require.NoError(t, json.Unmarshal([]byte(text), &week))
		assert.Equal(t, []string{c.address, c.state, c.says}, []string{week.Sending.Address, week.Sending.State, week.Sending.Says})
	}
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
	status, _ = home.post("/api/family/"+first+"/facts", facts(fact(emil, "ticked", `,"day":"2026-11-24","line":"x"`)))
	assert.Equal(t, 410, status)
	var kept int
	require.NoError(t, h.store.DB().QueryRow(`SELECT COUNT(*) FROM family_links WHERE token = ?`, first).Scan(&kept))
	assert.Zero(t, kept, "only the hash is kept")
}

// A tick that borrows the id of something the teacher told does not make that the
// family's own, to be taken back by the link.
func TestAFamilyCannotTakeBackWhatTheTeacherTold(t *testing.T) {
	h := newHouse(t)
	teacher, emil := h.teacher(t, "borrowed@example.com")
	note := fact(emil, "noted", `,"text":"bow hold"`)
	id := note[7:33]
	status, text := teacher.post("/api/facts", facts(note))
	require.Equal(t, 204, status, text)
	home, at := h.client(t), "/api/family/"+teacher.link(emil)+"/facts"
	borrowed := strings.Replace(fact(emil, "ticked", `,"day":"2026-11-24","line":"x"`), `"id":"`, `"id":"`+id+`","was":"`, 1)
	borrowed = regexp.MustCompile(`,"was":"[^"]*"`).ReplaceAllString(borrowed, "")
	back := fact(emil, "retracted", `,"ref":"`+id+`"`)
	for name, list := range map[string][]string{"alone": {back}, "with a tick of the same id": {borrowed, back}, "the tick first": {back, borrowed}} {
		status, _ := home.post(at, facts(list...))
		assert.GreaterOrEqual(t, status, 400, name)
	}
	_, text = teacher.get("/api/students/" + emil + "/record")
	assert.Contains(t, text, `"back":false`)
	assert.NotContains(t, text, `"back":true`)

	tick := fact(emil, "ticked", `,"day":"2026-11-24","line":"y"`)
	status, text = home.post(at, facts(tick, fact(emil, "retracted", `,"ref":"`+tick[7:33]+`"`)))
	assert.Equal(t, 204, status, "a tick made and taken back without a connection arrives with its retraction: %s", text)
}
