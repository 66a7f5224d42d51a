package server_test

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/server"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
)

// later lets the time of failures pass.
func (h house) later(t *testing.T, by time.Duration) {
	_, err := h.store.DB().Exec("UPDATE sign_ins SET at = at - INTERVAL ? SECOND", int(by.Seconds()))
	require.NoError(t, err)
}

const (
	wrongly = `{"email":"limit@example.com","password":"wrong"}`
	rightly = `{"email":"limit@example.com","password":"a long password"}`
)

// stopped is a clock that stands still.
func stopped() func() time.Time {
	at := time.Now()
	return func() time.Time { return at }
}

// Guessing slows down, and locks nobody out.
func TestSignInSlowsDown(t *testing.T) {
	h := newHouse(t)
	h.app.Now = stopped() // however long a password takes here
	h.teacher(t, "limit@example.com")
	c := h.client(t)
	for i := range 5 {
		status, text := c.post("/api/sign-in", wrongly)
		assert.Equal(t, 401, status, "try %d", i)
		assert.Contains(t, text, "The email address or the password is wrong.")
	}
	for try, seconds := range []int{1, 2, 4, 8, 16, 32, 60, 60} {
		status, text := c.post("/api/sign-in", wrongly)
		assert.Equal(t, 429, status, "after %d", 5+try)
		assert.Contains(t, text, "Try again in")
		h.later(t, time.Duration(seconds)*time.Second)
		status, _ = c.post("/api/sign-in", wrongly)
		assert.Equal(t, 401, status, "after %d, %d seconds later", 5+try, seconds)
	}
	h.later(t, time.Minute)
	status, _ := c.post("/api/sign-in", rightly)
	assert.Equal(t, 204, status, "the owner gets in after a minute at most")
}

// A burst is counted before a password is hashed.
func TestABurstOfGuesses(t *testing.T) {
	h := newHouse(t)
	h.app.Now = stopped()
	h.teacher(t, "limit@example.com")
	var wg sync.WaitGroup
	var mu sync.Mutex
	answers := map[int]int{}
	for range 24 {
		c := h.client(t)
		wg.Go(func() {
			status, _ := c.post("/api/sign-in", wrongly)
			mu.Lock()
			defer mu.Unlock()
			answers[status]++
		})
	}
	wg.Wait()
	assert.LessOrEqual(t, answers[401], 5, "%v", answers)
	assert.Equal(t, 24, answers[401]+answers[429], "%v", answers)
}

// What strangers try does not keep out whoever signed in with a browser before.
func TestABrowserThatIsKnown(t *testing.T) {
	h := newHouse(t)
	h.app.Now = stopped()
	mine, _ := h.teacher(t, "limit@example.com")
	status, _ := mine.post("/api/sign-out", "")
	require.Equal(t, 204, status)
	status, _ = mine.get("/api/day")
	require.Equal(t, 401, status, "it is signed out")
	stranger := h.client(t)
	for range 30 {
		stranger.post("/api/sign-in", wrongly)
	}
	status, _ = h.client(t).post("/api/sign-in", rightly)
	assert.Equal(t, 429, status, "a browser that nobody knows waits")
	status, _ = mine.post("/api/sign-in", rightly)
	assert.Equal(t, 204, status)
	for range 5 {
		mine.post("/api/sign-in", wrongly)
	}
	status, _ = mine.post("/api/sign-in", wrongly)
	assert.Equal(t, 429, status, "guessing in it slows down too")
}

// Behind a proxy that is named, visitors are told apart; without one, what a request says of itself is not
// believed.
func TestWhereARequestComesFrom(t *testing.T) {
	s := storetest.New(t)
	app := studio.New(s, stopped())
	for _, proxies := range [][]string{nil, {"127.0.0.1"}} {
		srv := server.New(app, s, os.DirFS(t.TempDir()), server.Options{Proxies: proxies})
		t.Cleanup(srv.Close)
		web := httptest.NewServer(srv.Handler())
		t.Cleanup(web.Close)
		guess := func(visitor string, n int) int {
			req, err := http.NewRequest("POST", web.URL+"/api/sign-in", strings.NewReader(fmt.Sprintf(`{"email":"nobody%d-%s@example.com","password":"x"}`, n, visitor)))
			require.NoError(t, err)
			req.Header.Set("Content-Type", "application/json")
			req.Header.Set("X-Forwarded-For", visitor)
			res, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			res.Body.Close()
			return res.StatusCode
		}
		for n := range freeFrom {
			assert.Equal(t, 401, guess("203.0.113.7", n))
		}
		assert.Equal(t, 429, guess("203.0.113.7", 99))
		want := 429
		if proxies != nil {
			want = 401
		}
		assert.Equal(t, want, guess("203.0.113.8", 1), "another visitor, proxies %v", proxies)
		_, err := s.DB().Exec("DELETE FROM sign_ins")
		require.NoError(t, err)
	}
}

// freeFrom is how many failures an address has free.
const freeFrom = 20

// Accents make another address, capitals do not.
func TestMailAddressesAreCompared(t *testing.T) {
	h := newHouse(t)
	h.teacher(t, "jose@example.com")
	h.teacher(t, "josé@example.com")
	for email, want := range map[string]int{"jose@example.com": 204, "JOSE@Example.com": 204, " josé@example.com": 204, "jóse@example.com": 401, "jose\u0301@example.com": 204} {
		status, text := h.client(t).post("/api/sign-in", `{"email":"`+email+`","password":"a long password"}`)
		assert.Equal(t, want, status, "%s: %s", email, text)
	}
}

// Studios are made a few at a time from one address, and by invitation where the copy is closed.
func TestWhoMayMakeAStudio(t *testing.T) {
	h := newHouse(t)
	sign := func(n int, more string) (int, string) {
		return h.client(t).post("/api/sign-up", fmt.Sprintf(`{"name":"N","studio":"S","email":"new%d@example.com","password":"a long password","zone":"UTC"%s}`, n, more))
	}
	for n := range 10 {
		status, text := sign(n, "")
		require.Equal(t, 204, status, text)
	}
	status, text := sign(10, "")
	assert.Equal(t, 429, status)
	assert.Contains(t, text, "in an hour")
	h.later(t, time.Hour)
	h.app.ByInvitation = true
	status, text = sign(11, "")
	assert.Equal(t, 401, status)
	assert.Contains(t, text, "by invitation")
	token, err := account.Invite(context.Background(), h.app)
	require.NoError(t, err)
	status, text = sign(11, `,"invitation":"`+token+`"`)
	assert.Equal(t, 204, status, text)
	status, _ = sign(12, `,"invitation":"`+token+`"`)
	assert.Equal(t, 410, status, "it was used")
}

// What is personal is kept nowhere on its way; over HTTPS a browser stays there, and the cookie is this
// host's alone.
func TestWhatAnswersCarry(t *testing.T) {
	s := storetest.New(t)
	app := studio.New(s, time.Now)
	for _, secure := range []bool{false, true} {
		srv := server.New(app, s, os.DirFS(t.TempDir()), server.Options{SecureCookies: secure})
		t.Cleanup(srv.Close)
		w := httptest.NewRecorder()
		req := httptest.NewRequest("POST", "/api/sign-up", strings.NewReader(fmt.Sprintf(`{"name":"N","studio":"S","email":"s%v@example.com","password":"a long password","zone":"UTC"}`, secure)))
		req.Header.Set("Content-Type", "application/json")
		srv.Handler().ServeHTTP(w, req)
		require.Equal(t, 204, w.Code, w.Body.String())
		assert.Contains(t, w.Header().Get("Cache-Control"), "no-store")
		assert.Equal(t, "same-origin", w.Header().Get("Cross-Origin-Opener-Policy"))
		assert.Contains(t, w.Header().Get("Permissions-Policy"), "microphone=()")
		cookie := w.Header().Get("Set-Cookie")
		assert.Equal(t, secure, strings.HasPrefix(cookie, "__Host-ladder="), cookie)
		assert.Equal(t, secure, strings.Contains(cookie, "Secure"), cookie)
		assert.Contains(t, cookie, "Path=/")
		assert.NotContains(t, cookie, "Domain")
		assert.Equal(t, secure, w.Header().Get("Strict-Transport-Security") != "")
	}
}

// Where mail goes out, a sign-up answers the same whoever has an account; the mail makes the difference.
func TestSignUpTellsNobody(t *testing.T) {
	h := newHouse(t)
	h.teacher(t, "old@example.com")
	h.app.Confirms = true
	ask := func(email string) (status int, text, letter string) {
		before := len(h.box.Letters())
		status, text = h.client(t).post("/api/sign-up", fmt.Sprintf(`{"name":"N","studio":"S","email":%q,"password":"a long password","zone":"UTC"}`, email))
		require.Eventually(t, func() bool { return len(h.box.Letters()) > before }, 5*time.Second, 5*time.Millisecond)
		for _, l := range h.box.Letters() {
			if strings.Contains(fmt.Sprint(l.To), email) {
				letter = l.Text
			}
		}
		return status, text, letter
	}
	status, text, old := ask("old@example.com")
	assert.Equal(t, 202, status)
	again, same, fresh := ask("new@example.com")
	assert.Equal(t, 202, again)
	assert.Equal(t, text, same)
	assert.Contains(t, old, "has an account already")
	assert.NotContains(t, old, "/confirm#")

	guest := h.client(t)
	status, _ = guest.post("/api/sign-in", `{"email":"new@example.com","password":"a long password"}`)
	assert.Equal(t, 401, status, "there is no account yet")
	_, rest, found := strings.Cut(fresh, "http://ladder.example/confirm#")
	require.True(t, found)
	open := `{"token":"` + strings.Fields(rest)[0] + `"}`
	status, text = guest.post("/api/confirm", `{"token":"guessed"}`)
	assert.Equal(t, 410, status)
	assert.Contains(t, text, "older than an hour")
	_, err := h.store.DB().Exec("UPDATE sign_ups SET made = made - INTERVAL 61 MINUTE")
	require.NoError(t, err)
	status, _ = guest.post("/api/confirm", open)
	assert.Equal(t, 410, status, "an hour later")
	_, err = h.store.DB().Exec("UPDATE sign_ups SET made = made + INTERVAL 2 MINUTE")
	require.NoError(t, err)
	status, _ = guest.post("/api/confirm", open)
	assert.Equal(t, 204, status, "just within the hour")
	status, _ = guest.get("/api/day")
	assert.Equal(t, 200, status, "and is signed in")
	status, _ = guest.post("/api/confirm", open)
	assert.Equal(t, 410, status, "once")
}

// Whoever owns an account is told by mail when how one signs in has changed.
func TestTheOwnerIsTold(t *testing.T) {
	h := newHouse(t)
	c, _ := h.teacher(t, "owner@example.com")
	told := func(what string) func() bool {
		return func() bool {
			for _, l := range h.box.Letters() {
				if strings.Contains(fmt.Sprint(l.To), "owner@example.com") && strings.Contains(l.Text, what) {
					return true
				}
			}
			return false
		}
	}
	status, _ := c.do("PUT", "/api/account/password", "application/json", []byte(`{"old":"a long password","password":"four-lanterns-north"}`))
	require.Equal(t, 204, status)
	assert.Eventually(t, told("The password was changed."), 5*time.Second, 5*time.Millisecond)
	status, _ = c.do("PUT", "/api/account/email", "application/json", []byte(`{"email":"another@example.com","password":"four-lanterns-north"}`))
	require.Equal(t, 204, status)
	assert.Eventually(t, told("was changed to another"), 5*time.Second, 5*time.Millisecond, "at the address before")
}
