package main

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"strings"
	"time"

	vegeta "github.com/tsenart/vegeta/v12/lib"

	"patientladder/internal/rig"
	"patientladder/studio"
)

// A teacher is one who teaches this afternoon.
type teacher struct {
	*rig.Browser
	cookie   string
	students []student
	playing  []student // those of them who have pieces in hand
}

// A student is one of theirs.
type student struct {
	id    string
	today string
	rungs []rung // in hand, with points
	token string // of the family's link
	sheet string
	lines []string
}

type rung struct {
	id     string
	points []string
}

// arrive signs a teacher in and looks at what is there.
func arrive(ctx context.Context, base string, n int, password string) (*teacher, error) {
	t := &teacher{Browser: rig.NewBrowser(base)}
	if _, err := t.Do(ctx, http.MethodPost, "/api/sign-in", map[string]string{"email": mail(n), "password": password}, nil); err != nil {
		return nil, err
	}
	if err := t.keepCookie(); err != nil {
		return nil, err
	}
	var day struct {
		Today    string
		Students []struct{ ID string }
	}
	if _, err := t.Do(ctx, http.MethodGet, "/api/day", nil, &day); err != nil {
		return nil, err
	}
	for _, s := range day.Students {
		one, err := t.look(ctx, s.ID, day.Today)
		if err != nil {
			return nil, err
		}
		t.students = append(t.students, one)
		if len(one.rungs) > 0 {
			t.playing = append(t.playing, one)
		}
	}
	return t, nil
}

func (t *teacher) keepCookie() error {
	req, err := http.NewRequest(http.MethodGet, t.Base, nil)
	if err != nil {
		return err
	}
	for _, c := range t.Client.Jar.Cookies(req.URL) {
		t.cookie += c.Name + "=" + c.Value
	}
	return nil
}

func (t *teacher) look(ctx context.Context, id, today string) (student, error) {
	s := student{id: id, today: today}
	var ladder struct {
		Rungs []struct {
			ID, State string
			Taught    *time.Time
			Points    []struct{ Key string }
		}
	}
	if _, err := t.Do(ctx, http.MethodGet, "/api/students/"+id+"/ladder", nil, &ladder); err != nil {
		return s, err
	}
	for _, r := range ladder.Rungs {
		if r.State != "current" || r.Taught == nil || len(r.Points) == 0 {
			continue
		}
		one := rung{id: r.ID}
		for _, p := range r.Points {
			if p.Key != "spots" { // which its spots meet, one by one
				one.points = append(one.points, p.Key)
			}
		}
		s.rungs = append(s.rungs, one)
	}
	var link struct{ Path string }
	if _, err := t.Do(ctx, http.MethodPost, "/api/students/"+id+"/links", nil, &link); err != nil {
		return s, err
	}
	s.token = link.Path[len("/family/"):]
	var family struct {
		Document *struct{ ID string }
		Acts     []struct{ Key string }
	}
	if _, err := t.Do(ctx, http.MethodGet, "/api/family/"+s.token, nil, &family); err != nil {
		return s, err
	}
	if family.Document != nil {
		s.sheet = family.Document.ID
	}
	for _, a := range family.Acts {
		s.lines = append(s.lines, a.Key)
	}
	return s, nil
}

// An afternoon is what a thousand requests are made of: teachers who mark and look, families who look and tick. All
// students are looked over once in three hundred, which is once an afternoon.
// What a teacher asks is about the student in the lesson, once in eight about another; a family may be any.
var afternoon = []struct {
	share int
	name  string
	home  bool
	ask   func(t *teacher, s student, rng *rand.Rand) (method, path string, body any)
}{
	{363, "mark", false, mark},
	{120, "ladder", false, view("ladder")},
	{120, "lesson", false, view("lesson")},
	{80, "week", false, view("week")},
	{74, "day", false, func(*teacher, student, *rand.Rand) (string, string, any) { return http.MethodGet, "/api/day", nil }},
	{20, "record", false, view("record")},
	{3, "overview", false, func(*teacher, student, *rand.Rand) (string, string, any) { return http.MethodGet, "/api/overview", nil }},
	{120, "family", true, func(_ *teacher, s student, _ *rand.Rand) (string, string, any) {
		return http.MethodGet, "/api/family/" + s.token, nil
	}},
	{100, "home", true, home},
}

func view(name string) func(*teacher, student, *rand.Rand) (string, string, any) {
	return func(_ *teacher, s student, _ *rand.Rand) (string, string, any) {
		return http.MethodGet, "/api/students/" + s.id + "/" + name, nil
	}
}

type told struct {
	Facts []map[string]any `json:"facts"`
}

// mark has a point of a piece in hand met, or open again.
func mark(_ *teacher, s student, rng *rand.Rand) (string, string, any) {
	r := s.rungs[rng.IntN(len(s.rungs))]
	return http.MethodPost, "/api/facts", one(s, map[string]any{"kind": "point_marked", "rung": r.id, "point": r.points[rng.IntN(len(r.points))], "state": []string{"met", "open"}[rng.IntN(2)]})
}

// home has a family tick a line of the sheet, or tell of a day.
func home(_ *teacher, s student, rng *rand.Rand) (string, string, any) {
	body := map[string]any{"kind": "practised", "day": s.today, "minutes": 5 + rng.IntN(40), "felt": "fine"}
	if s.sheet != "" && len(s.lines) > 0 && rng.IntN(2) == 0 {
		body = map[string]any{"kind": "ticked", "day": s.today, "document": s.sheet, "line": s.lines[rng.IntN(len(s.lines))]}
	}
	return http.MethodPost, "/api/family/" + s.token + "/facts", one(s, body)
}

// one is the telling of one fact, at this moment of the studio's day.
func one(s student, body map[string]any) told {
	return told{[]map[string]any{{"id": studio.NewID(), "student": s.id, "at": s.today + "T" + now.Format("15:04:05") + "Z", "body": body}}}
}

// targets draws requests of the afternoon; only gives all the same kind.
func targets(teachers []*teacher, seed uint64, only string) vegeta.Targeter {
	draws := make(chan *rand.Rand, 1) // one at a time
	draws <- rand.New(rand.NewPCG(seed, 3))
	return func(out *vegeta.Target) error {
		rng := <-draws
		at := rng.IntN(len(teachers))
		t := teachers[at]
		n, i := rng.IntN(1000), 0
		for ; n >= afternoon[i].share; i++ {
			n -= afternoon[i].share
		}
		for only != "" && afternoon[i].name != only {
			i = (i + 1) % len(afternoon)
		}
		s := t.playing[at%len(t.playing)] // who is in the lesson
		switch {
		case afternoon[i].home:
			s = t.students[rng.IntN(len(t.students))]
		case rng.IntN(8) == 0:
			s = t.playing[rng.IntN(len(t.playing))]
		}
		method, path, body := afternoon[i].ask(t, s, rng)
		draws <- rng
		*out = vegeta.Target{Method: method, URL: t.Base + path, Header: http.Header{"Accept-Encoding": {"gzip"}}}
		if !strings.HasPrefix(path, "/api/family/") {
			out.Header.Set("Cookie", t.cookie)
		}
		if body != nil {
			data, err := json.Marshal(body)
			if err != nil {
				return fmt.Errorf("write a request: %w", err)
			}
			out.Body = data
			out.Header.Set("Content-Type", "application/json")
		}
		return nil
	}
}
