// Cluster runs two copies of the program behind haproxy on three databases that are one by Galera, all on this
// machine; has devices tell and look while databases and copies are killed and come back; and prints a table of
// what was lost, what was answered meanwhile, and how long it took until all was well again.
package main

import (
	"context"
	"database/sql"
	"errors"
	"flag"
	"fmt"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"time"

	"patientladder/internal/rig"
	"patientladder/internal/witness"
)

func main() {
	devices := flag.Int("devices", 6, "how many tell at once; the last is two that tell the same")
	rounds := flag.Int("rounds", 5, "how often each is done")
	flag.Parse()
	rig.Quiet()
	bad, err := all(context.Background(), *devices, *rounds)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
	if err != nil || bad {
		os.Exit(1)
	}
}

// A cluster is all that runs.
type cluster struct {
	dir    string
	log    *os.File
	nodes  []*node
	proxy  *rig.Process
	web    int // ports of the balancer: for browsers and for databases
	data   int
	copies [2]*rig.Process
	ports  [2]int
	checks []net.Listener
}

func all(ctx context.Context, devices, rounds int) (bad bool, err error) {
	if _, err := os.Stat(provider); err != nil {
		return false, errors.New("a cluster needs the Debian packages galera-4, rsync, socat, lsof, mariadb-server and haproxy")
	}
	c, err := begin(ctx)
	if err != nil {
		return false, err
	}
	defer c.end()
	w, err := witness.New(ctx, devices, fmt.Sprintf("http://127.0.0.1:%d", c.web))
	if err != nil {
		return false, err
	}
	fmt.Printf("%d devices tell and look, two of them the same; two copies of the program, three databases that all take writes\n\n", devices)
	err = w.While(ctx, 3, func() error { return c.trials(ctx, w, rounds) })
	if err != nil {
		return false, err
	}
	return c.judge(ctx, w)
}

// begin starts all.
func begin(ctx context.Context) (started *cluster, err error) {
	c := &cluster{}
	defer func() {
		if err != nil {
			c.end()
		}
	}()
	if c.dir, err = os.MkdirTemp("", "ladder-cluster-"); err != nil {
		return nil, err
	}
	if err := os.Chmod(c.dir, 0o711); err != nil {
		return nil, err
	}
	if c.log, err = os.Create(filepath.Join(os.TempDir(), "ladder-cluster.log")); err != nil {
		return nil, err
	}
	if c.nodes, err = makeNodes(ctx, c.dir); err != nil {
		return nil, err
	}
	for i, nd := range c.nodes {
		if err := nd.start(ctx, c.log, c.nodes, i == 0); err != nil {
			return nil, err
		}
	}
	size, err := c.nodes[0].status(ctx, "wsrep_cluster_size")
	if err != nil {
		return nil, err
	}
	fmt.Println("the cluster has", size, "databases")
	first := c.nodes[0].db
	for _, q := range []string{"CREATE DATABASE ladder CHARACTER SET utf8mb4", "CREATE USER ladder@'%' IDENTIFIED BY 'loopback'", "GRANT ALL ON ladder.* TO ladder@'%'"} {
		if _, err := first.ExecContext(ctx, q); err != nil {
			return nil, err
		}
	}
	if err := c.balance(); err != nil {
		return nil, err
	}
	for i := range c.copies {
		if err := c.serve(ctx, i); err != nil {
			return nil, err
		}
	}
	return c, rig.Answers(ctx, fmt.Sprintf("http://127.0.0.1:%d", c.web), 30*time.Second)
}

func (c *cluster) dsn() string {
	// what is read has all that was acknowledged before, by whichever node
	return fmt.Sprintf("ladder:loopback@tcp(127.0.0.1:%d)/ladder?wsrep_sync_wait=7", c.data)
}

func (c *cluster) serve(ctx context.Context, i int) (err error) {
	c.copies[i], err = rig.Serve(ctx, c.log, c.ports[i], c.dsn())
	return err
}

// balance starts the balancer. It asks a copy of the program for its health, and this program whether a database
// takes part in its cluster.
func (c *cluster) balance() error {
	ports, err := rig.FreePorts(4)
	if err != nil {
		return err
	}
	c.web, c.data, c.ports = ports[0], ports[1], [2]int{ports[2], ports[3]}
	var text strings.Builder
	fmt.Fprintf(&text, balancer, c.web, c.ports[0], c.ports[1], c.data)
	for _, nd := range c.nodes {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			return err
		}
		c.checks = append(c.checks, l)
		go http.Serve(l, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) { //nolint:errcheck // it ends with the listener
			if !nd.takesPart(r.Context()) {
				w.WriteHeader(http.StatusServiceUnavailable)
			}
		}))
		fmt.Fprintf(&text, "    server n%d 127.0.0.1:%d check port %d\n", nd.n, nd.port, l.Addr().(*net.TCPAddr).Port)
	}
	name := filepath.Join(c.dir, "haproxy.cfg")
	if err := os.WriteFile(name, []byte(text.String()), 0o644); err != nil {
		return err
	}
	c.proxy, err = rig.Run(c.log, nil, "haproxy", "-db", "-f", name)
	return err
}

// balancer is haproxy's configuration, up to the databases.
const balancer = `global
    maxconn 2000
defaults
    timeout connect 2s
    timeout client 60s
    timeout server 60s
    option redispatch
    retries 3
frontend web
    mode http
    bind 127.0.0.1:%d
    default_backend copies
backend copies
    mode http
    option httpchk GET /api/health
    http-check expect status 204
    default-server inter 500ms fall 2 rise 1
    server a 127.0.0.1:%d check
    server b 127.0.0.1:%d check
listen databases
    mode tcp
    bind 127.0.0.1:%d
    timeout client 1h
    timeout server 1h
    balance leastconn
    option httpchk GET /
    default-server inter 500ms fall 2 rise 1 on-marked-down shutdown-sessions
`

func (c *cluster) end() {
	c.copies[0].Stop()
	c.copies[1].Stop()
	c.proxy.Kill()
	for _, l := range c.checks {
		l.Close()
	}
	for _, nd := range c.nodes {
		nd.process.Kill() // its data is thrown away
	}
	c.log.Close()
	os.RemoveAll(c.dir)
}

// trials kills and brings back.
func (c *cluster) trials(ctx context.Context, w *witness.Witness, rounds int) error {
	time.Sleep(3 * time.Second)
	fmt.Println("what was done                            no answer for: longest   back in the cluster after: longest   sendings  not acknowledged at once")
	row := func(name string, do func(round int) (back time.Duration, err error)) error {
		var gap, longest time.Duration
		tried, failed := w.Counts()
		for n := range rounds {
			w.Watch()
			back, err := do(n)
			if err != nil {
				return fmt.Errorf("%s: %w", name, err)
			}
			time.Sleep(time.Second)
			gap, longest = max(gap, w.Gap()), max(longest, back)
		}
		t, f := w.Counts()
		fmt.Printf("%-40s %15.2f s %32.1f s %16d %12d\n", name, gap.Seconds(), longest.Seconds(), t-tried, f-failed)
		return nil
	}
	bring := func(nd *node) (time.Duration, error) {
		time.Sleep(3 * time.Second)
		start := time.Now()
		err := nd.start(ctx, c.log, c.nodes, false)
		return time.Since(start), err
	}
	if err := row("nothing", func(int) (time.Duration, error) { time.Sleep(2 * time.Second); return 0, nil }); err != nil {
		return err
	}
	err := row("a database killed (kill -9)", func(n int) (time.Duration, error) {
		nd := c.nodes[n%len(c.nodes)]
		nd.process.Kill()
		return bring(nd)
	})
	if err != nil {
		return err
	}
	err = row("a database stopped, for an upgrade", func(n int) (time.Duration, error) {
		nd := c.nodes[n%len(c.nodes)]
		nd.process.Stop()
		return bring(nd)
	})
	if err != nil {
		return err
	}
	err = row("a copy of the program killed (kill -9)", func(n int) (time.Duration, error) {
		c.copies[n%2].Kill()
		time.Sleep(2 * time.Second)
		start := time.Now()
		err := c.serve(ctx, n%2)
		return time.Since(start), err
	})
	if err != nil {
		return err
	}
	return row("a copy stopped, for an upgrade", func(n int) (time.Duration, error) {
		c.copies[n%2].Stop()
		time.Sleep(2 * time.Second)
		start := time.Now()
		err := c.serve(ctx, n%2)
		return time.Since(start), err
	})
}

// judge has each database looked at by the witness.
func (c *cluster) judge(ctx context.Context, w *witness.Witness) (bad bool, err error) {
	for _, nd := range c.nodes {
		if err := nd.synced(ctx, time.Minute); err != nil {
			return true, err
		}
		db, err := sql.Open("mysql", fmt.Sprintf("ladder:loopback@tcp(127.0.0.1:%d)/ladder?wsrep_sync_wait=7", nd.port))
		if err != nil {
			return true, err
		}
		f, err := w.Look(ctx, db)
		db.Close()
		if err != nil {
			return true, err
		}
		conflicts, err := nd.status(ctx, "wsrep_local_cert_failures")
		if err != nil {
			return true, err
		}
		aborts, err := nd.status(ctx, "wsrep_local_bf_aborts")
		if err != nil {
			return true, err
		}
		fmt.Printf("\ndatabase %d (since it started last: %s writes that failed certification, %s ended for another node's)\n%s", nd.n, conflicts, aborts, f)
		bad = bad || f.Bad()
	}
	return bad, nil
}
