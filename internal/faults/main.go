// Faults has devices tell the program facts while it and its database are killed, cut off, slowed down, frozen and
// filled up, a hundred rounds of it, and has a witness outside the program read the tables afterwards. It prints a
// table, and ends with status 1 when anything that was acknowledged is not there, once and whole.
package main

import (
	"context"
	"database/sql"
	"errors"
	"flag"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"time"

	"github.com/Shopify/toxiproxy/v2"
	"github.com/go-sql-driver/mysql"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/rs/zerolog"

	"patientladder/internal/rig"
	"patientladder/internal/witness"
	"patientladder/internal/yardstick"
	"patientladder/store/mariadb"
)

func main() {
	rounds := flag.Int("rounds", 100, "how many rounds of kills")
	devices := flag.Int("devices", 5, "how many tell at once; the last is two that tell the same")
	seed := flag.Uint64("seed", 1, "of what happens when")
	part := flag.String("part", "", "faults, disk or restore; all when left out")
	flag.Parse()
	zerolog.SetGlobalLevel(zerolog.Disabled) // the spoilt line tells all that passes
	rig.Quiet()
	ctx, failed := context.Background(), false
	for _, one := range []struct {
		name string
		do   func() (bad bool, err error)
	}{
		{"faults", func() (bool, error) { return befallen(ctx, *rounds, *devices, *seed) }},
		{"disk", func() (bool, error) { return fullDisk(ctx, *devices, *seed) }},
		{"restore", func() (bool, error) { return restored(ctx, *devices, *seed) }},
	} {
		if *part != "" && *part != one.name {
			continue
		}
		bad, err := one.do()
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
		}
		failed = failed || bad || err != nil
	}
	if failed {
		os.Exit(1)
	}
}

// A trial is a program, its database and the line between them.
type trial struct {
	dir     string
	db      *mariadb.Server
	app     *rig.Process
	port    int
	log     *os.File
	proxy   *toxiproxy.Proxy
	witness *witness.Witness
	rng     *rand.Rand
}

// A fault is done to a trial, and mended before it returns; back is how long nothing was acknowledged afterwards.
type fault struct {
	name   string
	rounds int
	do     func(context.Context, *trial) (mended time.Time, err error)
}

// befallen has the program and its database killed, cut off, slowed down and frozen.
func befallen(ctx context.Context, rounds, devices int, seed uint64) (bad bool, err error) {
	faults := []fault{
		{"database killed (kill -9)", rounds * 2 / 5, killDatabase},
		{"program killed (kill -9)", rounds * 3 / 10, killProgram},
		{"both killed (kill -9)", rounds - rounds*2/5 - rounds*3/10, killBoth},
		{"line between them cut", rounds / 10, cut},
		{"line reset at every answer", rounds / 20, toxic(`{"type":"reset_peer","attributes":{"timeout":20}}`)},
		{"line slow: 300 ms each way", rounds / 20, toxic(`{"type":"latency","attributes":{"latency":300,"jitter":200}}`)},
		{"line narrow: 10 kB a second", rounds / 20, toxic(`{"type":"bandwidth","attributes":{"rate":10}}`)},
		{"database frozen for 10 s", max(1, rounds/50), frozen(10 * time.Second)},
		{"database frozen for 40 s", max(1, rounds/100), frozen(40 * time.Second)},
	}
	t, err := begin(ctx, devices, seed, "", plain...)
	if err != nil {
		return false, err
	}
	defer t.end()
	fmt.Printf("%d devices tell, two of them the same\n\n", devices)
	fmt.Println("what was done                     rounds   answers again after: median, longest")
	err = t.witness.While(ctx, seed, func() error {
		for _, f := range faults {
			if err := t.rounds(ctx, f); err != nil {
				return fmt.Errorf("%s: %w", f.name, err)
			}
		}
		return nil
	})
	if err != nil {
		return false, err
	}
	return t.judge(ctx)
}

// plain are the settings of a database that keeps its promises, small enough for a small disk.
var plain = []string{"--innodb-buffer-pool-size=64M", "--innodb-log-file-size=16M", "--max-connections=100", "--skip-log-bin"}

// begin starts a database, the line to it and the program, in a folder of its own on the disk of dir.
func begin(ctx context.Context, devices int, seed uint64, dir string, settings ...string) (started *trial, err error) {
	t := &trial{rng: rand.New(rand.NewPCG(seed, 11))}
	defer func() {
		if err != nil {
			t.end()
		}
	}()
	if t.dir, err = os.MkdirTemp(dir, "ladder-faults-"); err != nil {
		return nil, err
	}
	if t.log, err = os.Create(filepath.Join(os.TempDir(), "ladder-faults.log")); err != nil {
		return nil, err
	}
	if t.db, err = mariadb.Start(ctx, filepath.Join(t.dir, "db"), settings...); err != nil {
		return nil, err
	}
	ports, err := rig.FreePorts(2)
	if err != nil {
		return nil, err
	}
	t.port = ports[0]
	quiet := zerolog.New(io.Discard)
	t.proxy = toxiproxy.NewProxy(toxiproxy.NewServer(toxiproxy.NewMetricsContainer(prometheus.NewRegistry()), quiet), "database", fmt.Sprintf("127.0.0.1:%d", ports[1]), t.direct())
	t.proxy.Logger = &quiet
	if err := t.proxy.Start(); err != nil {
		return nil, err
	}
	if err := t.serve(ctx); err != nil {
		return nil, err
	}
	t.witness, err = witness.New(ctx, devices, t.base())
	return t, err
}

func (t *trial) base() string { return fmt.Sprintf("http://127.0.0.1:%d", t.port) }

// direct is the database's own address.
func (t *trial) direct() string {
	return account(t.db).Addr
}

// account is how a database is reached.
func account(db *mariadb.Server) *mysql.Config {
	cfg, err := mysql.ParseDSN(db.DSN("ladder"))
	if err != nil {
		panic(err) // it is written by the program itself
	}
	return cfg
}

// client are the arguments that the database's own programs reach it by.
func client(db *mariadb.Server) []string {
	at := account(db)
	host, port, _ := strings.Cut(at.Addr, ":")
	return []string{"--host=" + host, "--port=" + port, "--user=" + at.User, "--password=" + at.Passwd}
}

func (t *trial) serve(ctx context.Context) (err error) {
	dsn := strings.Replace(t.db.DSN("ladder"), t.direct(), t.proxy.Listen, 1)
	t.app, err = rig.Serve(ctx, t.log, t.port, dsn)
	return err
}

func (t *trial) end() {
	t.app.Stop()
	if t.proxy != nil {
		t.proxy.Stop()
	}
	if t.db != nil {
		_ = t.db.Stop() // its data is thrown away
	}
	t.log.Close()
	os.RemoveAll(t.dir)
}

func (t *trial) rounds(ctx context.Context, f fault) error {
	var back []float64
	longest := 0.0
	for range f.rounds {
		time.Sleep(time.Duration(t.rng.IntN(400)) * time.Millisecond) // somewhere in what they are telling
		mended, err := f.do(ctx, t)
		if err != nil {
			return err
		}
		took, err := t.witness.Back(ctx, mended, 90*time.Second)
		if err != nil {
			return err
		}
		back = append(back, took.Seconds())
		longest = max(longest, took.Seconds())
	}
	if len(back) > 0 {
		fmt.Printf("%-33s %6d   %20.2f s %7.2f s\n", f.name, f.rounds, yardstick.Median(back), longest)
	}
	return nil
}

func killDatabase(ctx context.Context, t *trial) (time.Time, error) {
	at := time.Now()
	if err := syscall.Kill(t.db.Pid(), syscall.SIGKILL); err != nil {
		return at, err
	}
	<-t.db.Done()
	return at, t.db.Restart(ctx)
}

func killProgram(ctx context.Context, t *trial) (time.Time, error) {
	at := time.Now()
	t.app.Kill()
	return at, t.serve(ctx)
}

func killBoth(ctx context.Context, t *trial) (time.Time, error) {
	at := time.Now()
	if err := syscall.Kill(t.db.Pid(), syscall.SIGKILL); err != nil {
		return at, err
	}
	t.app.Kill()
	<-t.db.Done()
	if err := t.db.Restart(ctx); err != nil {
		return at, err
	}
	return at, t.serve(ctx)
}

func cut(_ context.Context, t *trial) (time.Time, error) {
	t.proxy.Stop()
	time.Sleep(2 * time.Second)
	return time.Now(), t.proxy.Start()
}

// toxic spoils the line for five seconds.
func toxic(how string) func(context.Context, *trial) (time.Time, error) {
	return func(ctx context.Context, t *trial) (time.Time, error) {
		for _, stream := range []string{"upstream", "downstream"} {
			if _, err := t.proxy.Toxics.AddToxicJson(strings.NewReader(strings.Replace(how, `{`, `{"name":"`+stream+`","stream":"`+stream+`",`, 1))); err != nil {
				return time.Time{}, err
			}
		}
		time.Sleep(5 * time.Second)
		t.proxy.Toxics.ResetToxics(ctx)
		return time.Now(), nil
	}
}

func frozen(long time.Duration) func(context.Context, *trial) (time.Time, error) {
	return func(_ context.Context, t *trial) (time.Time, error) {
		if err := syscall.Kill(t.db.Pid(), syscall.SIGSTOP); err != nil {
			return time.Time{}, err
		}
		time.Sleep(long)
		return time.Now(), syscall.Kill(t.db.Pid(), syscall.SIGCONT)
	}
}

// judge prints what the witness found.
func (t *trial) judge(ctx context.Context) (bad bool, err error) {
	db, err := sql.Open("mysql", t.db.DSN("ladder"))
	if err != nil {
		return false, err
	}
	defer db.Close()
	f, err := t.witness.Look(ctx, db)
	if err != nil {
		return true, err
	}
	fmt.Printf("\n%s", f)
	return f.Bad(), nil
}

// room is how large the disk is that gets full, in MB.
const room = 420

// fullDisk does the same on a small disk in memory that is filled, and freed after a while. It needs the right to
// mount one.
func fullDisk(ctx context.Context, devices int, seed uint64) (bad bool, err error) {
	disk, err := os.MkdirTemp("", "ladder-disk-")
	if err != nil {
		return false, err
	}
	defer os.RemoveAll(disk)
	if err := syscall.Mount("tmpfs", disk, "tmpfs", 0, fmt.Sprintf("size=%dm,mode=700", room)); err != nil {
		fmt.Println("\ndisk full: not tried, for it needs the right to mount a small one:", err)
		return false, nil
	}
	defer func() { err = errors.Join(err, syscall.Unmount(disk, 0)) }()
	t, err := begin(ctx, devices, seed, disk, plain...)
	if err != nil {
		return false, err
	}
	defer t.end()
	fmt.Println("\nwhat was done                     rounds   answers again after: median, longest")
	err = t.witness.While(ctx, seed, func() error {
		return t.rounds(ctx, fault{"disk full for 10 s", 3, full(disk)})
	})
	if err != nil {
		return false, err
	}
	return t.judge(ctx)
}

func full(disk string) func(context.Context, *trial) (time.Time, error) {
	return func(ctx context.Context, t *trial) (time.Time, error) {
		ballast := filepath.Join(disk, "ballast")
		f, err := os.Create(ballast)
		if err != nil {
			return time.Time{}, err
		}
		for block := make([]byte, 1<<16); err == nil; { // again and again: what the database frees is taken too
			_, err = f.Write(block)
		}
		f.Close()
		if !errors.Is(err, syscall.ENOSPC) {
			return time.Time{}, err
		}
		time.Sleep(10 * time.Second)
		if err := os.Remove(ballast); err != nil {
			return time.Time{}, err
		}
		at := time.Now()
		select {
		case <-t.db.Done(): // it ended by itself, as the program that keeps it would notice
			return at, t.db.Restart(ctx)
		default:
			return at, nil
		}
	}
}
