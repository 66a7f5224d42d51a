package main

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"time"

	_ "github.com/go-sql-driver/mysql"

	"patientladder/internal/rig"
)

// A node is one database of the cluster.
type node struct {
	n                          int
	dir                        string
	port, group, receive, more int // of clients, of the cluster, for a copy of all, for what was missed
	process                    *rig.Process
	db                         *sql.DB
	as                         *syscall.Credential
}

// provider is where Debian's package galera-4 puts the library.
const provider = "/usr/lib/galera/libgalera_smm.so"

// unprivileged is who the nodes run as: the programs that copy a node refuse to work for root.
func unprivileged(dir string) (*syscall.Credential, error) {
	if os.Getuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("mysql")
	if err != nil {
		return nil, err
	}
	uid, err1 := strconv.Atoi(u.Uid)
	gid, err2 := strconv.Atoi(u.Gid)
	if err := errors.Join(err1, err2, os.Chown(dir, uid, gid)); err != nil {
		return nil, err
	}
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

// makeNodes prepares three nodes in a folder.
func makeNodes(ctx context.Context, dir string) ([]*node, error) {
	as, err := unprivileged(dir)
	if err != nil {
		return nil, err
	}
	const each = 4
	ports, err := rig.FreePorts(3 * each)
	if err != nil {
		return nil, err
	}
	var out []*node
	for n := range 3 {
		nd := &node{n: n + 1, dir: filepath.Join(dir, fmt.Sprintf("node%d", n+1)), port: ports[each*n], group: ports[each*n+1], receive: ports[each*n+2], more: ports[each*n+3], as: as}
		install := exec.CommandContext(ctx, "mariadb-install-db", "--no-defaults", "--auth-root-authentication-method=normal", "--skip-test-db", "--innodb-log-file-size=16M", "--datadir="+nd.dir)
		install.SysProcAttr, install.Dir = &syscall.SysProcAttr{Credential: as}, dir
		if said, err := install.CombinedOutput(); err != nil {
			return nil, fmt.Errorf("make node %d: %w: %s", n+1, err, said)
		}
		if nd.db, err = sql.Open("mysql", fmt.Sprintf("root@tcp(127.0.0.1:%d)/", nd.port)); err != nil {
			return nil, err
		}
		out = append(out, nd)
	}
	return out, nil
}

func (nd *node) settings(all []*node, more ...string) []string {
	var peers []string
	for _, p := range all {
		peers = append(peers, fmt.Sprintf("127.0.0.1:%d", p.group))
	}
	return append([]string{"--no-defaults", "--datadir=" + nd.dir, "--bind-address=127.0.0.1", fmt.Sprintf("--port=%d", nd.port), "--socket=" + filepath.Join(nd.dir, "sock"), "--pid-file=" + filepath.Join(nd.dir, "pid"),
		"--skip-name-resolve", "--innodb-buffer-pool-size=128M", "--innodb-log-file-size=16M", "--max-connections=200", "--binlog-format=ROW", "--innodb-autoinc-lock-mode=2", "--innodb-flush-log-at-trx-commit=0",
		"--wsrep-on=ON", "--wsrep-provider=" + provider, "--wsrep-cluster-name=ladder", "--wsrep-cluster-address=gcomm://" + strings.Join(peers, ","), fmt.Sprintf("--wsrep-node-address=127.0.0.1:%d", nd.group),
		fmt.Sprintf("--wsrep-node-name=n%d", nd.n), "--wsrep-sst-method=rsync", fmt.Sprintf("--wsrep-sst-receive-address=127.0.0.1:%d", nd.receive),
		fmt.Sprintf("--wsrep-provider-options=base_port=%d;ist.recv_addr=127.0.0.1:%d;gcache.size=64M;evs.keepalive_period=PT0.5S;evs.suspect_timeout=PT2S", nd.group, nd.more), "--log-error=" + filepath.Join(nd.dir, "log.err")}, more...)
}

// start starts the node; the first makes the cluster.
func (nd *node) start(ctx context.Context, log io.Writer, all []*node, first bool) error {
	var more []string
	if first {
		more = append(more, "--wsrep-new-cluster")
	} else if at := nd.position(ctx, all); at != "" {
		more = append(more, "--wsrep-start-position="+at)
	}
	var err error
	if nd.process, err = rig.RunAs(log, nil, nd.as, "mariadbd", nd.settings(all, more...)...); err != nil {
		return err
	}
	return nd.synced(ctx, 3*time.Minute)
}

var recovered = regexp.MustCompile(`Recovered position:?\s*([0-9a-f-]{36}:-?\d+)`)

// position is how far a node that was killed had come, so that it asks only for what it missed.
func (nd *node) position(ctx context.Context, all []*node) string {
	log := filepath.Join(nd.dir, "recover.err")
	cmd := exec.CommandContext(ctx, "mariadbd", append(nd.settings(all), "--wsrep-recover", "--log-error="+log)...)
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: nd.as}
	defer os.Remove(log)
	if cmd.Run() != nil {
		return "" // it asks for all
	}
	said, err := os.ReadFile(log)
	if err != nil {
		return ""
	}
	if m := recovered.FindSubmatch(said); m != nil {
		return string(m[1])
	}
	return ""
}

// synced waits until the node takes part.
func (nd *node) synced(ctx context.Context, patience time.Duration) error {
	for until := time.Now().Add(patience); time.Now().Before(until); time.Sleep(100 * time.Millisecond) {
		if nd.takesPart(ctx) {
			return nil
		}
		if nd.process.Ended() {
			said, _ := os.ReadFile(filepath.Join(nd.dir, "log.err"))
			return fmt.Errorf("node %d ended: %s", nd.n, said[max(0, len(said)-600):])
		}
	}
	return fmt.Errorf("node %d does not join its cluster; see %s", nd.n, filepath.Join(nd.dir, "log.err"))
}

// takesPart reports whether the node is synced with the cluster: what a balancer asks.
func (nd *node) takesPart(ctx context.Context) bool {
	ctx, cancel := context.WithTimeout(ctx, time.Second)
	defer cancel()
	state, err := nd.status(ctx, "wsrep_local_state_comment")
	return err == nil && state == "Synced"
}

func (nd *node) status(ctx context.Context, name string) (string, error) {
	var value string
	err := nd.db.QueryRowContext(ctx, "SHOW GLOBAL STATUS LIKE '"+name+"'").Scan(&name, &value)
	return value, err
}
