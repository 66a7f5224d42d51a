// Package witness tells a copy of the program facts as devices do, whatever befalls it meanwhile, remembers which
// of them were acknowledged, and afterwards reads the tables itself: each that was acknowledged must be there, once
// and whole, with the documents that follow from it; of one that was not, all or nothing.
package witness

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/internal/rig"
)

// A delivery is what a device sends at once.
type delivery struct {
	facts []fact
	day   string // of a lesson that it opens and closes; empty of one that only notes
	acks  int    // how often it was acknowledged
}

type fact struct {
	ID      string         `json:"id"`
	Student string         `json:"student"`
	At      time.Time      `json:"at"`
	Body    map[string]any `json:"body"`
}

// A Witness watches over what devices told.
type Witness struct {
	base     []string // addresses of the program: a device that is not answered turns to the next
	students []string
	email    string

	mu       sync.Mutex
	told     []*delivery
	free     [editors]freeDay // of each editing device, the day of its own in the one calendar
	lessons  map[string]int   // how many each student has had
	answered time.Time        // last
	watched  time.Time        // since when the longest gap is looked for
	gap      time.Duration
	tried    int
	failures map[int]int // answers other than an acknowledgement, by status; 0 for none
	looked   int
	wrong    map[string]int // answers that were neither an acknowledgement nor a failure that is tried again
	slow     time.Duration
}

const password = "lantern-slipway-nine"

// New makes a studio with a student for each device and watches over it.
func New(ctx context.Context, devices int, base ...string) (*Witness, error) {
	w := &Witness{base: base, email: strings.ToLower(ulid.Make().String()) + "@witness.example", lessons: map[string]int{}, failures: map[int]int{}, wrong: map[string]int{}}
	b := rig.NewBrowser(base[0])
	if _, err := b.Do(ctx, http.MethodPost, "/api/sign-up", map[string]string{"name": "W", "studio": "Witness", "email": w.email, "password": password, "zone": "UTC"}, nil); err != nil {
		return nil, err
	}
	for i := range devices {
		id := ulid.Make().String()
		_, err := b.Do(ctx, http.MethodPost, "/api/students", map[string]any{"id": id, "firstName": fmt.Sprintf("S%d", i), "familyName": "", "birthYear": 2016, "birthMonth": 3, "instrument": "piano",
			"slot": map[string]any{"weekday": 3, "start": "16:00", "minutes": 30}, "approach": map[string]string{}}, nil)
		if err != nil {
			return nil, err
		}
		w.students = append(w.students, id)
	}
	return w, nil
}

// next makes a delivery about a student: now and then a whole lesson, else one to five notes.
func (w *Witness) next(student string, rng *rand.Rand) *delivery {
	d := &delivery{}
	say := func(body map[string]any) {
		d.facts = append(d.facts, fact{ulid.Make().String(), student, time.Now().UTC().Truncate(time.Microsecond), body})
	}
	note := func() { say(map[string]any{"kind": "noted", "text": fmt.Sprintf("note %d", rng.IntN(1<<30))}) }
	w.mu.Lock()
	defer w.mu.Unlock()
	if n := w.lessons[student]; rng.IntN(8) == 0 && n < 390 {
		w.lessons[student]++
		d.day = time.Now().UTC().AddDate(0, 0, n-395).Format(time.DateOnly)
		say(map[string]any{"kind": "lesson_opened", "day": d.day})
		note()
		say(map[string]any{"kind": "lesson_closed", "day": d.day})
	} else {
		for range 1 + rng.IntN(5) {
			note()
		}
	}
	w.told = append(w.told, d)
	return d
}

// While has the devices tell as long as f runs, which begins when something was acknowledged.
func (w *Witness) While(ctx context.Context, seed uint64, f func() error) error {
	telling, stop := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() { w.Run(telling, seed); close(done) }()
	_, err := w.Back(ctx, time.Now(), 30*time.Second)
	if err == nil {
		err = f()
	}
	stop()
	<-done
	return err
}

// Run has the devices tell until the context ends: each about a student of its own, and the last is two that tell
// the same at the same time. It returns when all have stopped.
func (w *Witness) Run(ctx context.Context, seed uint64) {
	var all sync.WaitGroup
	devices := len(w.students)
	for i := range devices {
		one, copies := w.students[i], 1
		if i == devices-1 {
			copies = 2
		}
		all.Go(func() {
			rng := rand.New(rand.NewPCG(seed, uint64(i)))
			browsers := make([]*rig.Browser, copies)
			for k := range browsers {
				browsers[k] = w.signIn(ctx, (i+k)%len(w.base))
			}
			for ctx.Err() == nil {
				d := w.next(one, rng)
				var each sync.WaitGroup
				for _, b := range browsers {
					each.Go(func() { w.deliver(ctx, b, d) })
				}
				each.Wait()
				wait(ctx, time.Duration(rng.IntN(30))*time.Millisecond)
			}
		})
	}
	for i := range editors {
		all.Go(func() { w.edit(ctx, i) })
	}
	all.Wait()
}

// signIn signs in, however often that takes.
func (w *Witness) signIn(ctx context.Context, at int) *rig.Browser {
	b := rig.NewBrowser(w.base[at])
	for ctx.Err() == nil {
		if _, err := b.Do(ctx, http.MethodPost, "/api/sign-in", map[string]string{"email": w.email, "password": password}, nil); err == nil {
			break
		}
		wait(ctx, 100*time.Millisecond)
	}
	return b
}

// deliver sends a delivery until it is acknowledged, as the program's screens do.
func (w *Witness) deliver(ctx context.Context, b *rig.Browser, d *delivery) {
	for n := 0; ctx.Err() == nil; n++ {
		start := time.Now()
		status, err := b.Do(ctx, http.MethodPost, "/api/facts", map[string]any{"facts": d.facts}, nil)
		w.mu.Lock()
		w.tried++
		if err == nil {
			d.acks++
			now := time.Now()
			w.gap = max(w.gap, now.Sub(later(w.answered, w.watched)))
			w.answered, w.slow = now, max(w.slow, now.Sub(start))
			w.mu.Unlock()
			w.look(ctx, b, d)
			return
		}
		if ctx.Err() == nil {
			w.failures[status]++
		}
		if status == http.StatusUnprocessableEntity || status == http.StatusConflict || status == http.StatusInternalServerError || status == http.StatusUnauthorized || status == http.StatusNotFound {
			w.wrong[fmt.Sprintf("%d: %.160s", status, err)]++
		}
		w.mu.Unlock()
		b.Base = w.after(b.Base)
		wait(ctx, min(time.Duration(n+1)*20*time.Millisecond, 200*time.Millisecond))
	}
}

// after is the address that may answer where one did not.
func (w *Witness) after(base string) string {
	return w.base[(slices.Index(w.base, base)+1)%len(w.base)]
}

func wait(ctx context.Context, d time.Duration) {
	select {
	case <-ctx.Done():
	case <-time.After(d):
	}
}

func later(a, b time.Time) time.Time {
	if a.After(b) {
		return a
	}
	return b
}

// look asks for the record of a student, which must hold what was acknowledged just now.
func (w *Witness) look(ctx context.Context, b *rig.Browser, d *delivery) {
	var shown json.RawMessage
	if _, err := b.Do(ctx, http.MethodGet, "/api/students/"+d.facts[0].Student+"/record", nil, &shown); err != nil {
		return // it is not there just now
	}
	w.mu.Lock()
	defer w.mu.Unlock()
	w.looked++
	for _, one := range d.facts {
		if text, noted := one.Body["text"].(string); noted && !strings.Contains(string(shown), text) {
			w.wrong["what was acknowledged is not shown"]++
		}
	}
}

// Watch begins to look for the longest time without an acknowledgement, and Gap returns it.
func (w *Witness) Watch() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.watched, w.gap = time.Now(), 0
}

// Gap returns the longest time without an acknowledgement since Watch.
func (w *Witness) Gap() time.Duration {
	w.mu.Lock()
	defer w.mu.Unlock()
	return max(w.gap, time.Since(later(w.answered, w.watched)))
}

// Counts returns how often was sent, and how often without an acknowledgement.
func (w *Witness) Counts() (tried, failed int) {
	w.mu.Lock()
	defer w.mu.Unlock()
	for _, n := range w.failures {
		failed += n
	}
	return w.tried, failed
}

// Answered returns when a delivery was last acknowledged.
func (w *Witness) Answered() time.Time {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.answered
}

// Back waits until something that was told after a moment is acknowledged, and returns how long that took.
func (w *Witness) Back(ctx context.Context, after time.Time, patience time.Duration) (time.Duration, error) {
	for time.Since(after) < patience {
		if at := w.Answered(); at.After(after) {
			return at.Sub(after), nil
		}
		wait(ctx, 5*time.Millisecond)
	}
	return 0, fmt.Errorf("nothing was acknowledged for %s", patience)
}

// A Finding is what the tables hold of what was told.
type Finding struct {
	Deliveries, Acknowledged int // of them
	Facts                    int // acknowledged
	Tried                    int // sendings
	InFlight, Kept           int // deliveries that were not acknowledged; of these, those that are there whole
	Lost, Half, Other        int // acknowledged facts that are not there; deliveries that are there in part; facts that hold something else
	NoSheet, Sheets          int // lessons that are there without their sheet; sheets
	Edits, Overwritten       int // changes of one calendar by several devices that were acknowledged; those that another's change undid
	More                     int // facts that nobody told
	Looked                   int // records that were asked for after an acknowledgement
	Failures                 map[int]int
	Wrong                    map[string]int
	Slowest                  time.Duration
}

// String tells it in some lines.
func (f Finding) String() string {
	var out strings.Builder
	fmt.Fprintf(&out, "%d deliveries in %d sendings, %d acknowledged with %d facts, %d sheets, %d looks at what had just been told:\n%d lost, %d double or never told, %d half there, %d other than told, %d lessons without their sheet, %d wrong answers\n",
		f.Deliveries, f.Tried, f.Acknowledged, f.Facts, f.Sheets, f.Looked, f.Lost, f.More, f.Half, f.Other, f.NoSheet, len(f.Wrong))
	fmt.Fprintf(&out, "%d changes of one calendar by %d devices at once, %d of them overwritten by another\n", f.Edits, editors, f.Overwritten)
	fmt.Fprintf(&out, "%d were not acknowledged when all ended, of which %d had been kept whole; the longest answer took %.1f s", f.InFlight, f.Kept, f.Slowest.Seconds())
	if len(f.Failures) > 0 {
		out.WriteString("; answered meanwhile:")
	}
	for _, status := range slices.Sorted(maps.Keys(f.Failures)) {
		name := strconv.Itoa(status)
		if status == 0 {
			name = "nothing"
		}
		fmt.Fprintf(&out, " %s %d times", name, f.Failures[status])
	}
	out.WriteString("\n")
	for says, n := range f.Wrong {
		fmt.Fprintf(&out, "a wrong answer, %d times: %s\n", n, says)
	}
	return out.String()
}

// Bad reports whether anything is not as it must be.
func (f Finding) Bad() bool {
	return f.Overwritten+f.Lost+f.Half+f.Other+f.NoSheet+f.More+len(f.Wrong) > 0
}

// Look reads the tables and judges.
func (w *Witness) Look(ctx context.Context, db *sql.DB) (Finding, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	f := Finding{Deliveries: len(w.told), Tried: w.tried, Looked: w.looked, Failures: w.failures, Wrong: w.wrong, Slowest: w.slow}
	if err := w.judgeEdits(ctx, db, &f); err != nil {
		return f, err
	}
	there, err := kept(ctx, db, w.email)
	if err != nil {
		return f, err
	}
	sheets, err := given(ctx, db, w.email)
	if err != nil {
		return f, err
	}
	f.Sheets = len(sheets)
	f.More = len(there)
	for _, d := range w.told {
		n := 0
		for _, one := range d.facts {
			body, is := there[one.ID]
			if !is {
				continue
			}
			n++
			f.More--
			if text, noted := one.Body["text"]; noted && body["text"] != text || one.Body["day"] != nil && body["day"] != one.Body["day"] {
				f.Other++
			}
		}
		switch whole := n == len(d.facts); {
		case d.acks > 0:
			f.Acknowledged++
			f.Facts += len(d.facts)
			f.Lost += len(d.facts) - n
		case whole:
			f.InFlight++
			f.Kept++
		default:
			f.InFlight++
		}
		if n > 0 && n < len(d.facts) {
			f.Half++
		}
		if d.day != "" && n == len(d.facts) && !sheets[d.facts[0].Student+" "+d.day] {
			f.NoSheet++
		}
	}
	return f, nil
}

// kept are the facts of the witness's studio, as the tables have them.
func kept(ctx context.Context, db *sql.DB, email string) (map[string]map[string]any, error) {
	rows, err := db.QueryContext(ctx, `SELECT f.id, f.detail FROM facts f JOIN teachers t ON t.studio_id = f.studio_id WHERE t.email = ?`, email)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string]map[string]any{}
	for rows.Next() {
		var id string
		var detail []byte
		if err := rows.Scan(&id, &detail); err != nil {
			return nil, err
		}
		var body map[string]any
		if err := json.Unmarshal(detail, &body); err != nil {
			return nil, errors.Join(fmt.Errorf("fact %s is half there", id), err)
		}
		out[id] = body
	}
	return out, rows.Err()
}

// given are the sheets of the studio, by student and day.
func given(ctx context.Context, db *sql.DB, email string) (map[string]bool, error) {
	rows, err := db.QueryContext(ctx, `SELECT d.student_id, d.day, d.body FROM documents d JOIN teachers t ON t.studio_id = d.studio_id WHERE t.email = ? AND d.kind = 'sheet'`, email)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	out := map[string]bool{}
	for rows.Next() {
		var student, day string
		var body []byte
		if err := rows.Scan(&student, &day, &body); err != nil {
			return nil, err
		}
		if !json.Valid(body) {
			return nil, fmt.Errorf("the sheet of %s is half there", day)
		}
		out[student+" "+day[:10]] = true
	}
	return out, rows.Err()
}
