package server_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/notation"
	"patientladder/mail"
	"patientladder/mail/mailbox"
	"patientladder/server"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/sending"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// A client is one browser with its cookies.
type client struct {
	t    *testing.T
	base string
	http *http.Client

	heard http.Header // of the last answer
}

func (c *client) do(method, path, contentType string, body []byte, headers ...string) (int, string) {
	req, err := http.NewRequest(method, c.base+path, bytes.NewReader(body))
	require.NoError(c.t, err)
	if contentType != "" {
		req.Header.Set("Content-Type", contentType)
	}
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	res, err := c.http.Do(req)
	require.NoError(c.t, err)
	defer res.Body.Close()
	c.heard = res.Header
	text, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	if res.StatusCode >= 400 && strings.HasPrefix(path, "/api/") {
		assert.Equal(c.t, "application/problem+json", res.Header.Get("Content-Type"), "RFC 9457: %s %s", method, path)
	}
	return res.StatusCode, string(text)
}

func (c *client) post(path, body string) (int, string) {
	return c.do("POST", path, "application/json", []byte(body))
}

// calendarOf is a studio's calendar as it was seen.
func calendarOf(c *client) string {
	_, text := c.get("/api/calendar")
	var v struct{ Terms, Free json.RawMessage }
	if err := json.Unmarshal([]byte(text), &v); err != nil {
		panic(err)
	}
	return fmt.Sprintf(`{"terms":%s,"free":%s}`, v.Terms, v.Free)
}

func (c *client) get(path string) (int, string) { return c.do("GET", path, "", nil) }

type house struct {
	*httptest.Server
	store *store.Store
	app   *studio.App
	box   *mailbox.Box
}

func newHouse(t *testing.T) house { return houseOn(t, storetest.New(t)) }

func houseOn(t *testing.T, s *store.Store) house {
	files := fstest.MapFS{"index.html": {Data: []byte("<title>page</title>")}, "assets/a.js": {Data: []byte("long")}, "assets/a.js.br": {Data: []byte("short")}}
	app := studio.New(s, time.Now)
	box, err := mailbox.Open("127.0.0.1:0", true, func(id, says string) { assert.NoError(t, sending.Returned(context.Background(), app, id, says)) })
	require.NoError(t, err)
	t.Cleanup(func() { box.Close() })
	post, err := mail.NewPost(box.Server(), "sheets@ladder.example")
	require.NoError(t, err)
	app.Mails(post, "http://ladder.example/")
	srv := server.New(app, s, files, server.Options{Log: slog.New(slog.DiscardHandler), Mailbox: box})
	t.Cleanup(srv.Close)
	h := httptest.NewServer(srv.Handler())
	t.Cleanup(h.Close)
	return house{h, s, app, box}
}

func (h house) client(t *testing.T) *client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &client{t: t, base: h.URL, http: &http.Client{Jar: jar}}
}

// teacher signs up a teacher and returns the client and a student's id.
func (h house) teacher(t *testing.T, email string) (*client, string) {
	c := h.client(t)
	status, text := c.post("/api/sign-up", `{"name":"T","studio":"S","email":"`+email+`","password":"a long password","zone":"Europe/London"}`)
	require.Equal(t, 204, status, text)
	id := ulid.Make().String()
	status, text = c.post("/api/students", newStudent(id))
	require.Equal(t, 200, status, text)
	return c, id
}

func newStudent(id string) string {
	return `{"id":"` + id + `","firstName":"Emil","familyName":"C","birthYear":2018,"birthMonth":3,"instrument":"cello","slot":{"weekday":3,"start":"16:00","minutes":30}}`
}

const tune = "X:1\nT:Mine\nM:4/4\nL:1/4\nK:C clef=bass\nC, D, E, F,|\n"

func (c *client) imports(id, name, data string) (int, string) {
	return c.do("POST", "/api/import?instrument=cello&strand=book&id="+id+"&name="+name, "application/octet-stream", []byte(data))
}

func fact(student, kind, more string) string {
	return fmt.Sprintf(`{"id":%q,"student":%q,"at":%q,"body":{"kind":%q%s}}`, ulid.Make(), student, time.Now().UTC().Format(time.RFC3339Nano), kind, more)
}

func facts(list ...string) string { return `{"facts":[` + strings.Join(list, ",") + `]}` }

// Each route, taken from the API's own description, with nobody signed in and
// with another studio's ids.
func TestNothingCrossesFromOneStudioToAnother(t *testing.T) {
	h := newHouse(t)
	mine, emil := h.teacher(t, "mine@example.com")
	item := ulid.Make().String()
	status, text := mine.imports(item, "mine.abc", tune)
	require.Equal(t, 200, status, text)
	theirs, _ := h.teacher(t, "theirs@example.com")
	nobody := h.client(t)

	_, text = mine.get("/api/openapi.json")
	var api struct {
		OpenAPI string
		Paths   map[string]map[string]any
	}
	require.NoError(t, json.Unmarshal([]byte(text), &api))
	assert.True(t, strings.HasPrefix(api.OpenAPI, "3.1"))
	assert.GreaterOrEqual(t, len(api.Paths), 14)
	// what is sent where something is changed
	bodies := map[string]string{"/{student}": `{"now":{"firstName":"X","familyName":"","birthYear":2018,"birthMonth":3,"instrument":"cello"}}`, "/moved": `{"to":"x","marks":[]}`, "/links": "", "/same": `{"as":""}`, "/slot": `{"now":{"weekday":3,"start":"16:00","minutes":30}}`, "/contact": `{"now":{"address":"a@b.example"}}`, "/sendings": `{"id":"` + ulid.Make().String() + `","paper":"A4"}`, "/letters": `{"id":"` + ulid.Make().String() + `","paper":"A4","from":"2026-09-07"}`,
		"/report": `{"now":{"term":{"name":"autumn","from":"2026-09-07","to":"2026-12-11"},"paragraphs":[]}}`}
	for path, methods := range api.Paths {
		at := strings.NewReplacer("{student}", emil, "{item}", item, "{question}", "upkeep", "{school}", "third", "{layer}", "fingers").Replace(path)
		for method := range methods {
			method = strings.ToUpper(method)
			if slices.Contains([]string{"/api/sign-in", "/api/sign-up", "/api/forgot", "/api/reset", "/api/passkey", "/api/health", "/api/confirm"}, path) || strings.HasPrefix(path, "/api/family/") || strings.HasPrefix(path, "/api/feeds/") {
				continue // a family's links are tested by themselves
			}
			status, _ := nobody.do(method, at, "application/json", []byte("{}"))
			assert.Equal(t, 401, status, "%s %s with nobody signed in", method, path)
			if at == path || strings.Contains(path, "{activity}") || path == "/api/items/{item}" && method == "PUT" || strings.Contains(path, "{letter}") {
				continue // a studio's own ids, tested below
			}
			if method == "DELETE" && strings.HasSuffix(path, "{student}") {
				at += "?name=Emil"
			}
			if body, told := bodies[path[strings.LastIndex(path, "/"):]]; told {
				status, text := theirs.do(method, at, "application/json", []byte(body))
				assert.Equal(t, 404, status, "%s %s by another studio: %s", method, path, text)
				continue
			}
			if strings.HasSuffix(path, "/file") {
				at += "?format=abc"
			}
			if strings.HasSuffix(path, "/pace") {
				status, text := theirs.get(at)
				assert.Equal(t, 404, status, "a lesson that has not begun has no pace to be told: %s", text)
				continue
			}
			status, text := mine.get(at)
			assert.Equal(t, 200, status, "%s %s: %s", method, path, text)
			status, text = theirs.get(at)
			assert.Equal(t, 404, status, "%s %s by another studio", method, path)
			assert.NotContains(t, text, "Emil")
		}
	}
	status, _ = theirs.post("/api/facts", facts(fact(emil, "noted", `,"text":"not mine"`)))
	assert.Equal(t, 404, status)
	_, them := h.teacher(t, "more@example.com")
	status, _ = mine.post("/api/facts", facts(fact(them, "noted", `,"text":"x"`)))
	assert.Equal(t, 404, status)
	status, _ = theirs.post("/api/facts", facts(fact(emil, "rung_added", `,"item":"`+item+`","strand":"book"`)))
	assert.Equal(t, 422, status, "there is no such item on their shelf")
	status, _ = theirs.do("PUT", "/api/home?student="+emil, "application/json", []byte(`{"now":{"keys":61,"noTouch":false,"noPedals":false,"smallSize":false,"keyTops":0,"benchLow":0,"benchHigh":0,"tile":0}}`))
	assert.Equal(t, 404, status)
	status, _ = theirs.get("/api/shelf?student=" + emil)
	assert.Equal(t, 404, status)
	for _, path := range []string{"/api/shelf", "/api/shelf.csv"} {
		_, text = theirs.get(path)
		assert.NotContains(t, text, "Mine")
	}
	_, mineAgain := mine.get("/api/items/" + item)
	status, text = theirs.do("PUT", "/api/items/"+item, "application/json", []byte(`{"now":{"id":"`+item+`","title":"Theirs","instrument":"cello","strand":"book","unit":"","book":"B","brings":[],"needs":[],"revisits":[],"parts":[],"points":[],"bars":0,"staves":1,"hasScore":false}}`))
	require.Equal(t, 204, status, text)
	_, text = mine.get("/api/items/" + item)
	assert.Equal(t, mineAgain, text, "another studio's item of the same id is its own")
	_, text = theirs.get("/api/day")
	assert.NotContains(t, text, emil)
}

func TestSessions(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "one@example.com")
	status, _ := c.get("/api/day")
	assert.Equal(t, 200, status)
	var kept *http.Cookie
	req, _ := http.NewRequest("GET", h.URL, nil)
	for _, k := range c.http.Jar.Cookies(req.URL) {
		kept = k
	}
	require.NotNil(t, kept)

	res, err := http.Post(h.URL+"/api/sign-in", "application/json", strings.NewReader(`{"email":"One@example.com","password":"a long password"}`))
	require.NoError(t, err)
	res.Body.Close()
	cookie := res.Header.Get("Set-Cookie")
	assert.Contains(t, cookie, "HttpOnly")
	assert.Contains(t, cookie, "SameSite=Lax")

	status, _ = c.post("/api/sign-out", "")
	assert.Equal(t, 204, status)
	req, _ = http.NewRequest("GET", h.URL+"/api/day", nil)
	req.AddCookie(kept)
	res, err = http.DefaultClient.Do(req)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, 401, res.StatusCode, "the session ended at the server, not only in the browser")
	var stored int
	require.NoError(t, h.store.DB().QueryRow("SELECT COUNT(*) FROM sessions WHERE token = ?", kept.Value).Scan(&stored))
	assert.Zero(t, stored, "tokens are stored hashed")
}

func TestRequestsFromOtherSites(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "cross@example.com")
	body := []byte(facts(fact(emil, "noted", `,"text":"x"`)))
	status, text := c.do("POST", "/api/facts", "application/json", body, "Origin", "https://elsewhere.example", "Sec-Fetch-Site", "cross-site")
	assert.Equal(t, 403, status)
	assert.Contains(t, text, "another site")
	status, _ = c.do("POST", "/api/facts", "application/json", body, "Origin", h.URL, "Sec-Fetch-Site", "same-origin")
	assert.Equal(t, 204, status)
}

// Bad input: what, where, and what to do; nothing half-written.
func TestWhatDoesNotFit(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "bad@example.com")
	for _, c2 := range []struct {
		name, path, body string
		status           int
		says             string
	}{
		{"account twice", "/api/sign-up", `{"name":"T","studio":"S","email":"BAD@example.com","password":"a long password","zone":"UTC"}`, 409, "has an account already"},
		{"no email address", "/api/sign-up", `{"name":"T","studio":"S","email":"bad","password":"a long password","zone":"UTC"}`, 422, "not an email address"},
		{"an email address that holds a line's end", "/api/sign-up", `{"name":"T","studio":"S","email":"x@example.com\u2028x","password":"a long password","zone":"UTC"}`, 422, "x"},
		{"short password", "/api/sign-up", `{"name":"T","studio":"S","email":"x@example.com","password":"short","zone":"UTC"}`, 422, "at least 10"},
		{"unknown zone", "/api/sign-up", `{"name":"T","studio":"S","email":"x@example.com","password":"a long password","zone":"Mars"}`, 422, "time zone"},
		{"cut short", "/api/facts", `{"facts":[`, 400, "cut short, or is no JSON, so nothing was kept"},
		{"nothing", "/api/facts", "", 400, "Nothing was sent: the file or the form is empty."},
		{"an id of spaces", "/api/facts", strings.Replace(facts(fact(emil, "noted", `,"text":"x"`)), `{"id":"01`, `{"id":"  `, 1), 422, "not a ULID"},
		{"wrong type", "/api/students", `{"id":5}`, 422, "firstName"},
		{"strange kind", "/api/facts", facts(fact(emil, "danced", "")), 422, "facts[0].body: expected value to match"},
		{"no rung", "/api/facts", facts(fact(emil, "taught", "")), 422, "facts[0].body: expected required property rung to be present"},
		{"item not on the shelf", "/api/facts", facts(fact(emil, "rung_added", `,"item":"none","strand":"book"`)), 422, `there is no item \"none\" here`},
		{"next year", "/api/facts", facts(strings.Replace(fact(emil, "noted", `,"text":"x"`), fmt.Sprint(time.Now().Year()), fmt.Sprint(time.Now().Year()+1), 1)), 422, "lies in the future"},
		{"one of two", "/api/facts", facts(fact(emil, "noted", `,"text":"good one"`), fact(emil, "seen", `,"fault":"no-such-fault"`)), 422, "Mark 2 of 2"},
		{"too old", "/api/students", strings.Replace(newStudent(ulid.Make().String()), "2018", "1900", 1), 422, "years old"},
		{"an address that holds a line's end", "/api/students", strings.Replace(newStudent(ulid.Make().String()), `"instrument"`, `"contact":"a@b.example\u2028x","instrument"`, 1), 422, "is not an email address"},
		{"told in the year one", "/api/facts", facts(strings.Replace(fact(emil, "noted", `,"text":"x"`), fmt.Sprint(time.Now().Year()), "0001", 1)), 422, "lies too far back"},
		{"at midnight", "/api/students", strings.Replace(newStudent(ulid.Make().String()), "16:00", "23:50", 1), 422, "midnight"},
	} {
		t.Run(c2.name, func(t *testing.T) {
			status, text := c.post(c2.path, c2.body)
			assert.Equal(t, c2.status, status, text)
			assert.Contains(t, text, c2.says)
		})
	}
	_, text := c.get("/api/students/" + emil + "/record")
	assert.NotContains(t, text, "good one", "all of a delivery or none of it")

	status, text := c.imports(ulid.Make().String(), "broken.abc", "X:1\nK:C\nC|[CE|\n")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "broken.abc could not be read. Line 3, column 3, bar 2")
	_, text = c.get("/api/shelf")
	assert.NotContains(t, text, "broken", "nothing of a bad file goes on the shelf")
	status, text = c.imports(ulid.Make().String(), "two.abc", "X:1\nK:C\nC ^|\n\nX:2\nK:C\n[C|\n")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "None of the 2 tunes of two.abc could be read. Of the first: Line 3, column 3, bar 1")
	status, text = c.imports(ulid.Make().String(), "two.abc", tune+"\nX:2\nT:Other\nK:C\nC ^|\n")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, `"left":[{"tune":2,"says":"Line 11, column 3, bar 1: an accidental with no note behind it"}]`)
	status, text = c.imports(ulid.Make().String(), "many.abc", strings.Repeat("X:1\nK:C\nC|\n", notation.MaxTunes+1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "The file holds 2001 tunes")
	status, text = c.get("/api/day?date=tomorrow")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, `is not a day such as 2026-11-18`)
	status, text = c.get("/api/nothing")
	assert.Equal(t, 404, status)
	assert.Contains(t, text, "nothing at this address")
}

// Twenty files at once, from as many tabs: all go on the shelf.
func TestImportsAtOnce(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "tabs@example.com")
	var all sync.WaitGroup
	for n := range 20 {
		all.Go(func() {
			status, text := c.imports(ulid.Make().String(), "one.abc", fmt.Sprintf("X:1\nT:Tune %d\nK:C\nCDEF|\n", n))
			assert.Equal(t, 200, status, text)
		})
	}
	all.Wait()
	var shelf struct{ Items []any }
	_, text := c.get("/api/shelf")
	require.NoError(t, json.Unmarshal([]byte(text), &shelf))
	assert.Len(t, shelf.Items, 20)
	for range 10 {
		all.Go(func() {
			status, text := c.post("/api/feed", "")
			assert.Less(t, status, 300, text)
		})
	}
	all.Wait()
}

func TestSayingItTwice(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "twice@example.com")
	item := ulid.Make().String()
	for range 2 {
		status, text := c.imports(item, "two.abc", tune+"\nX:2\nT:Other\nK:C\nC|\n")
		require.Equal(t, 200, status, text)
	}
	var shelf struct{ Items []any }
	_, text := c.get("/api/shelf")
	require.NoError(t, json.Unmarshal([]byte(text), &shelf))
	assert.Len(t, shelf.Items, 2, "two tunes of one file, once")
	told := facts(fact(emil, "rung_added", `,"item":"`+item+`","strand":"book"`))
	for range 3 {
		status, text := c.post("/api/facts", told)
		assert.Equal(t, 204, status, text)
	}
	var ladder struct{ Rungs []any }
	_, text = c.get("/api/students/" + emil + "/ladder")
	require.NoError(t, json.Unmarshal([]byte(text), &ladder))
	assert.Len(t, ladder.Rungs, 1)
}

func TestDatabaseAway(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "away@example.com")
	require.NoError(t, h.store.Close())
	status, text := c.get("/api/day")
	assert.Equal(t, 503, status)
	assert.Contains(t, text, "The database cannot be reached just now.")
}

func TestFrontEnd(t *testing.T) {
	h := newHouse(t)
	c := h.client(t)
	status, text := c.get("/students/x/ladder")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, "<title>page", "a place inside the app")
	status, text = c.do("GET", "/assets/a.js", "", nil, "Accept-Encoding", "br")
	assert.Equal(t, 200, status)
	assert.Equal(t, "short", text, "the brotli twin")
	status, _ = c.get("/assets/gone.js")
	assert.Equal(t, 404, status)
	res, err := http.Get(h.URL + "/")
	require.NoError(t, err)
	res.Body.Close()
	assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'self'")
	assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"))
}

func TestDemoClock(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "clock@example.com")
	status, text := c.do("PUT", "/api/clock", "application/json", []byte(`{"to":"2026-11-25T15:40:00Z"}`))
	assert.Equal(t, 404, status, "a real studio's clock does not move")
	assert.Contains(t, text, "no such demo clock")
	_, err := h.store.DB().ExecContext(context.Background(), "UPDATE studios SET demo = TRUE")
	require.NoError(t, err)
	status, _ = c.do("PUT", "/api/clock", "application/json", []byte(`{"to":"2026-11-25T15:40:00Z"}`))
	assert.Equal(t, 204, status)
	_, text = c.get("/api/day")
	assert.Contains(t, text, `"today":"2026-11-25"`)
}

// A day near the year 9999 is refused where it comes in: counting towards it once
// took all memory.
func TestDaysOutOfBoundsAreRefused(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "bounds@example.com")
	for _, path := range []string{"/api/day?date=9999-12-31", "/api/sheets?date=9999-12-31", "/api/day?date=1800-01-01"} {
		status, text := c.get(path)
		assert.Equal(t, 422, status, path)
		assert.Contains(t, text, "outside the years 1900 to 2200", path)
	}
	status, text := c.do("PUT", "/api/calendar", "application/json", []byte(`{"was":`+calendarOf(c)+`,"now":{"terms":[{"name":"T","from":"9999-02-01","to":"9999-12-31"}],"free":[]}}`))
	assert.Equal(t, 422, status, text)
	status, text = c.post("/api/facts", facts(fact(emil, "lesson_missed", `,"day":"9999-12-31"`)))
	assert.Equal(t, 422, status, text)
	status, text = c.do("PUT", "/api/clock", "application/json", []byte(`{"to":"9999-12-31T00:00:00Z"}`))
	assert.Equal(t, 422, status, text)
}

// A request that waits too long for the database is told so, and one whose browser
// has gone waits no longer; neither leaves a statement behind.
func TestEveryRequestHasItsDeadline(t *testing.T) {
	s := storetest.New(t)
	app := studio.New(s, time.Now)
	at := func(deadline time.Duration) house {
		srv := server.New(app, s, fstest.MapFS{}, server.Options{Log: slog.New(slog.DiscardHandler), Deadline: deadline})
		t.Cleanup(srv.Close)
		web := httptest.NewServer(srv.Handler())
		t.Cleanup(web.Close)
		return house{web, s, app, nil}
	}
	c, _ := at(0).teacher(t, "slow@example.com")
	c.base = at(300 * time.Millisecond).URL // the same sign-in, at a copy of little patience
	held, err := s.DB().Conn(context.Background())
	require.NoError(t, err)
	defer held.Close()
	_, err = held.ExecContext(context.Background(), "LOCK TABLES students WRITE")
	require.NoError(t, err)
	defer held.ExecContext(context.Background(), "UNLOCK TABLES")

	ctx, leave := context.WithCancel(context.Background())
	gone := make(chan error)
	go func() {
		_, err := s.In("nobody").Students(ctx)
		gone <- err
	}()
	time.AfterFunc(100*time.Millisecond, leave)
	select {
	case err := <-gone:
		assert.ErrorIs(t, err, context.Canceled)
	case <-time.After(5 * time.Second):
		t.Fatal("who has gone still waits")
	}
	status, text := c.get("/api/day")
	assert.Equal(t, 503, status, text)
	assert.Contains(t, text, "took too long")
	assert.Eventually(t, func() bool {
		var waiting int
		err := held.QueryRowContext(context.Background(), "SELECT COUNT(*) FROM information_schema.processlist WHERE state LIKE 'Waiting for table%' AND db = DATABASE()").Scan(&waiting)
		return err == nil && waiting == 0
	}, 10*time.Second, 50*time.Millisecond)
}

// What makes no sense is refused where it comes in, because the log is for ever.
func TestTheDoorTakesOnlySense(t *testing.T) {
	h := newHouse(t)
	c, emil := h.teacher(t, "door@example.com")
	other := ulid.Make().String()
	status, text := c.post("/api/students", strings.Replace(newStudent(other), "Emil", "Mei", 1))
	require.Equal(t, 200, status, text)
	item := ulid.Make().String()
	status, text = c.imports(item, "mine.abc", tune)
	require.Equal(t, 200, status, text)
	placed := fact(emil, "rung_added", `,"item":"`+item+`","strand":"book"`)
	rung := placed[7:33]
	status, text = c.post("/api/facts", facts(placed))
	require.Equal(t, 204, status, text)
	today := `,"day":"` + time.Now().UTC().Format(time.DateOnly) + `"`
	for name, bad := range map[string]string{
		"a school that is none":          fact(emil, "approach_set", `,"question":"hands","school":"three"`),
		"a question that is none":        fact(emil, "approach_set", `,"question":"feet","school":"bare"`),
		"a feeling that is none":         fact(emil, "practised", today+`,"felt":"purple"`),
		"a fault that is none":           fact(emil, "seen", `,"fault":"no-such-fault"`),
		"a probe that is none":           fact(emil, "probed", `,"probe":"no-such-probe","outcome":"pass"`),
		"a game that is none":            fact(emil, "activity_done", `,"activity":"no-such-game","outcome":"pass"`),
		"a book that is none":            fact(emil, "book_chosen", `,"book":"No Such Book"`),
		"a rung that is none":            fact(emil, "taught", `,"rung":"01KNOSVCHRVNG0000000000000"`),
		"a point that is none":           fact(emil, "point_marked", `,"rung":"`+rung+`","point":"no-such-point","state":"met"`),
		"a spot that is none":            fact(emil, "spot_drilled", `,"rung":"`+rung+`","spot":"`+rung+`","run":3`),
		"a plan's block of no minutes":   fact(emil, "block_timed", today+`,"block":"close"`),
		"neither here nor there":         fact(emil, "lesson_remote", today+`,"remote":"perhaps"`),
		"a day of 1800":                  fact(emil, "target_set", `,"rung":"`+rung+`","day":"1800-01-01"`),
		"a way to overrule that is none": fact(emil, "overruled", `,"suggestion":"jump:x","until":"anything"`),
		"a note of 1970":                 strings.Replace(fact(emil, "noted", `,"text":"x"`), fmt.Sprint(time.Now().Year()), "1970", 1),
		"a skill that is none":           fact(emil, "prepared", `,"skill":"flying","step":1`),
		"a question nobody asked":        fact(emil, "question_answered", `,"question":"`+rung+`"`),
		"a part of a piece without any":  fact(emil, "foothold_tried", `,"rung":"`+rung+`","part":"one","outcome":"granted"`),
		"a sheet that was never given":   fact(emil, "ticked", today+`,"document":"`+rung+`","line":"now"`),
		"a place above no rung":          fact(emil, "rung_moved", `,"rung":"`+rung+`","after":"01KNOSVCHRVNG0000000000000"`),
		"another student's rung":         fact(other, "taught", `,"rung":"`+rung+`"`),
		"taking back what nobody told":   fact(emil, "retracted", `,"ref":"01KNOSVCHFACT0000000000000"`),
		"more than the kind has":         fact(emil, "taught", `,"rung":"`+rung+`","count":3`),
	} {
		status, text := c.post("/api/facts", facts(fact(emil, "noted", `,"text":"beside it"`), bad))
		assert.Equal(t, 422, status, "%s: %s", name, text)
	}
	var stored int
	require.NoError(t, h.store.DB().QueryRow("SELECT COUNT(*) FROM facts WHERE student_id = ?", emil).Scan(&stored))
	assert.Equal(t, 1, stored, "nothing of a bad delivery is kept")

	status, text = c.post("/api/facts", facts(strings.Replace(placed, `"book"`, `"repertoire"`, 1)))
	assert.Equal(t, 409, status, "the same id with other content is said so, and which: %s", text)
	assert.Contains(t, text, rung)
	status, text = c.post("/api/facts", facts(strings.Replace(placed, emil, other, 1)))
	assert.Equal(t, 409, status, text)
	taught := fact(emil, "taught", `,"rung":"`+rung+`"`)
	status, text = c.post("/api/facts", facts(placed, taught, fact(emil, "retracted", `,"ref":"`+taught[7:33]+`"`)))
	assert.Equal(t, 204, status, "what is told beside it may be named: %s", text)
	_, text = c.get("/api/students/" + emil + "/record")
	assert.Contains(t, text, `"by":"teacher"`, "who told it is shown")
}

// An answer of some length is compressed for who takes it.
func TestAnswersAreCompressed(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "one@example.com")
	req, err := http.NewRequest("GET", h.URL+"/api/skills", nil)
	require.NoError(t, err)
	req.Header.Set("Accept-Encoding", "gzip")
	res, err := c.http.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	short, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Equal(t, "gzip", res.Header.Get("Content-Encoding"))
	_, whole := c.get("/api/skills")
	assert.Less(t, 3*len(short), len(whole))
}
