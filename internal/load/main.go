// Load measures how much a copy of the program bears: many studios, made by living one through two school
// years by the use cases and copying its rows, and the mixed traffic of a teaching afternoon. It prints a table.
// Program, database and who asks share the machine, so that the time of the processor that each took is told
// beside what came out.
package main

import (
	"context"
	"database/sql"
	"errors"
	"flag"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"time"

	vegeta "github.com/tsenart/vegeta/v12/lib"

	"patientladder/internal/rig"
	"patientladder/internal/yardstick"
	"patientladder/store"
	"patientladder/store/mariadb"
	"patientladder/year"
)

// now is the moment of the afternoon: the day after the last lesson that was lived.
var now time.Time

func main() {
	var r run
	flag.IntVar(&r.studios, "studios", 200, "how many studios there are at last; a quarter and a half of them are measured first")
	flag.IntVar(&r.teachers, "teachers", 100, "how many teach at once")
	flag.IntVar(&r.weeks, "weeks", 72, "lessons that each student has had")
	flag.DurationVar(&r.long, "long", 15*time.Second, "how long each measurement takes")
	flag.StringVar(&r.dir, "data", ".load", "where the studios are kept, for the next time")
	flag.StringVar(&r.only, "only", "", "one kind of request")
	flag.Parse()
	if err := r.all(context.Background()); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

type run struct {
	studios, teachers, weeks int
	long                     time.Duration
	dir, only                string

	dsn string
	db  *mariadb.Server
	sql *sql.DB
}

func (r *run) all(ctx context.Context) (err error) {
	if err := os.MkdirAll(r.dir, 0o700); err != nil {
		return err
	}
	r.db, err = mariadb.Start(ctx, filepath.Join(r.dir, fmt.Sprintf("db-%d", r.weeks)), "--innodb-buffer-pool-size=2G", "--innodb-log-file-size=512M", "--max-connections=200", "--skip-log-bin")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, r.db.Stop()) }()
	if err := r.open(ctx); err != nil {
		return err
	}
	defer r.sql.Close()
	fmt.Printf("%d processors; %d students a studio, %d lessons each; program, database and who asks share the machine\n\n", runtime.NumCPU(), students, r.weeks)
	fmt.Println("studios  facts       asked              answers/s   p50 ms   p99 ms   errors   processor ms an answer: program, database   memory MB: program, database")
	var sizes, costs []float64
	var have int
	if err := r.sql.QueryRowContext(ctx, "SELECT COUNT(*) FROM teachers").Scan(&have); err != nil {
		return err
	}
	for _, n := range []int{r.studios / 4, r.studios / 2, r.studios} {
		if n < have {
			fmt.Printf("%7d  there are %d already; for fewer, begin anew by deleting %s\n", n, have, r.dir)
			continue
		}
		if err := r.grow(ctx, n); err != nil {
			return err
		}
		cost, err := r.measure(ctx, n, n == r.studios)
		if err != nil {
			return err
		}
		sizes, costs = append(sizes, float64(n)), append(costs, cost)
	}
	if len(sizes) < 2 {
		return nil
	}
	fmt.Printf("\nprocessor time of an answer grows with the studios by an exponent of %.2f\n", yardstick.Exponent(sizes, costs))
	return nil
}

// open makes the first studio, or finds it.
func (r *run) open(ctx context.Context) error {
	root, err := sql.Open("mysql", r.db.DSN(""))
	if err != nil {
		return err
	}
	defer root.Close()
	if _, err := root.ExecContext(ctx, "CREATE DATABASE IF NOT EXISTS `load` CHARACTER SET utf8mb4"); err != nil {
		return err
	}
	r.dsn = r.db.DSN("load")
	s, err := store.Open(ctx, r.dsn, 10*time.Second)
	if err != nil {
		return err
	}
	defer s.Close()
	if _, err := s.Migrate(ctx); err != nil {
		return err
	}
	if r.sql, err = sql.Open("mysql", r.dsn); err != nil {
		return err
	}
	var n int
	if err := r.sql.QueryRowContext(ctx, "SELECT COUNT(*) FROM teachers").Scan(&n); err != nil || n > 0 {
		return err
	}
	return r.db.Relaxed(ctx, func() error {
		start := time.Now()
		st, err := original(ctx, s, r.weeks)
		if err != nil {
			return err
		}
		fmt.Printf("lived one studio in %s\n", time.Since(start).Round(time.Second))
		_, err = r.sql.ExecContext(ctx, "UPDATE teachers SET email = ? WHERE studio_id = ?", mail(0), st.ID())
		return err
	})
}

// grow copies the first studio until there are n.
func (r *run) grow(ctx context.Context, n int) error {
	var have int
	var first string
	if err := r.sql.QueryRowContext(ctx, "SELECT COUNT(*) FROM teachers").Scan(&have); err != nil {
		return err
	}
	if err := r.sql.QueryRowContext(ctx, "SELECT studio_id FROM teachers WHERE email = ?", mail(0)).Scan(&first); err != nil {
		return err
	}
	var last string
	if err := r.sql.QueryRowContext(ctx, "SELECT MAX(day) FROM documents WHERE studio_id = ?", first).Scan(&last); err != nil {
		return err
	}
	day, err := time.Parse(time.DateOnly, last)
	if err != nil {
		return err
	}
	now = day.Add(39*time.Hour + 10*time.Minute)
	err = r.db.Relaxed(ctx, func() error { return copies(ctx, r.sql, first, have, n) })
	if err != nil {
		return err
	}
	return setClocks(ctx, r.sql, now)
}

// measure asks as the afternoon asks, more and more, and returns the processor time of an answer in ms.
func (r *run) measure(ctx context.Context, n int, whole bool) (float64, error) {
	ports, err := rig.FreePorts(1)
	if err != nil {
		return 0, err
	}
	log, err := os.Create(filepath.Join(r.dir, "log"))
	if err != nil {
		return 0, err
	}
	defer log.Close()
	app, err := rig.Serve(ctx, log, ports[0], r.dsn)
	if err != nil {
		return 0, err
	}
	defer app.Stop()
	var facts int
	if err := r.sql.QueryRowContext(ctx, "SELECT COUNT(*) FROM facts").Scan(&facts); err != nil {
		return 0, err
	}
	base := fmt.Sprintf("http://127.0.0.1:%d", ports[0])
	var teachers []*teacher
	for i := range min(n, r.teachers) {
		t, err := arrive(ctx, base, i, year.Password)
		if err != nil {
			return 0, err
		}
		teachers = append(teachers, t)
	}
	row := func(name string, rate vegeta.Rate, at int, only string) (float64, error) {
		before, err := r.used(app)
		if err != nil {
			return 0, err
		}
		m, problems := attack(teachers, rate, at, r.long, only)
		after, err := r.used(app)
		if err != nil {
			return 0, err
		}
		each := func(i int) float64 {
			return float64((after[i].CPU - before[i].CPU).Microseconds()) / 1000 / float64(m.Requests)
		}
		fmt.Printf("%7d  %-10d  %-18s %8.0f %9.1f %8.1f %8.0f   %20.2f %19.2f   %18d %10d\n", n, facts, name, m.Throughput, ms(m.Latencies.P50), ms(m.Latencies.P99), float64(m.Requests)*(1-m.Success), each(0), each(1), after[0].Memory>>20, after[1].Memory>>20)
		for says, n := range problems {
			fmt.Println("         ", n, says)
		}
		return each(0) + each(1), nil
	}
	if _, err := row("warming", vegeta.Rate{Freq: 100, Per: time.Second}, 50, r.only); err != nil {
		return 0, err
	}
	cost, err := row("200 a second", vegeta.Rate{Freq: 200, Per: time.Second}, 200, r.only)
	if err != nil || !whole {
		return cost, err
	}
	for _, freq := range []int{500, 1000} {
		if _, err := row(fmt.Sprintf("%d a second", freq), vegeta.Rate{Freq: freq, Per: time.Second}, 500, r.only); err != nil {
			return 0, err
		}
	}
	for _, at := range []int{1, 50, 500} {
		if _, err := row(fmt.Sprintf("%d at once", at), vegeta.Rate{}, at, r.only); err != nil {
			return 0, err
		}
	}
	fmt.Println("\nof each kind, 8 at once")
	for _, kind := range afternoon {
		if _, err := row(kind.name, vegeta.Rate{}, 8, kind.name); err != nil {
			return 0, err
		}
	}
	return cost, afterAMark(ctx, teachers[0])
}

func (r *run) used(app *rig.Process) (out [2]rig.Usage, err error) {
	if out[0], err = app.Used(); err != nil {
		return out, err
	}
	out[1], err = rig.UsedBy(r.db.Pid())
	return out, err
}

func ms(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }

// attack asks at a rate, by so many at once at most; without a rate as fast as the answers come. Problems are counted
// by what the answers say.
func attack(teachers []*teacher, rate vegeta.Rate, at int, long time.Duration, only string) (*vegeta.Metrics, map[string]int) {
	workers := uint64(at)
	if rate.Freq > 0 {
		workers = 10
	}
	attacker := vegeta.NewAttacker(vegeta.Workers(workers), vegeta.MaxWorkers(uint64(at)), vegeta.Connections(at), vegeta.MaxBody(300), vegeta.Timeout(30*time.Second))
	var m vegeta.Metrics
	problems := map[string]int{}
	for one := range attacker.Attack(targets(teachers, uint64(at+rate.Freq), only), rate, long, "afternoon") {
		m.Add(one)
		if one.Code >= http.StatusBadRequest || one.Code == 0 {
			problems[fmt.Sprintf("%d %s %s %s", one.Code, one.Error, one.URL[max(0, len(one.URL)-40):], one.Body)]++
		}
	}
	m.Close()
	return &m, problems
}

// afterAMark measures a week's view of which a mark has just changed what it is made from.
func afterAMark(ctx context.Context, t *teacher) error {
	var took []float64
	rng := rand.New(rand.NewPCG(1, 2))
	for i := range 60 {
		s := t.playing[i%len(t.playing)]
		method, path, body := mark(t, s, rng)
		if _, err := t.Do(ctx, method, path, body, nil); err != nil {
			return err
		}
		start := time.Now()
		if _, err := t.Do(ctx, http.MethodGet, "/api/students/"+s.id+"/week", nil, nil); err != nil {
			return err
		}
		took = append(took, ms(time.Since(start)))
	}
	fmt.Printf("\nthe week's view after a mark, one teacher: median %.1f ms\n", yardstick.Median(took))
	return nil
}
