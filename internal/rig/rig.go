// Package rig runs the program, and what stands around it, as processes of their own, and speaks to them as a
// browser does: for trials from outside.
package rig

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/go-sql-driver/mysql"
)

// Quiet silences the driver of the database: the connections of who watches a trial are cut as well.
func Quiet() { _ = mysql.SetLogger(log.New(io.Discard, "", 0)) } // it refuses only none

// A Process is one that a trial started.
type Process struct {
	cmd  *exec.Cmd
	done chan error
}

// Run starts a process; what it says goes to log.
func Run(log io.Writer, env []string, program string, args ...string) (*Process, error) {
	return RunAs(log, env, nil, program, args...)
}

// RunAs starts a process as somebody else, who may be nil.
func RunAs(log io.Writer, env []string, as *syscall.Credential, program string, args ...string) (*Process, error) {
	p := &Process{cmd: exec.Command(program, args...), done: make(chan error, 1)}
	p.cmd.Env, p.cmd.Stdout, p.cmd.Stderr = append(os.Environ(), env...), log, log
	p.cmd.SysProcAttr = &syscall.SysProcAttr{Credential: as, Pdeathsig: syscall.SIGKILL}
	if err := p.cmd.Start(); err != nil {
		return nil, err
	}
	go func() { p.done <- p.cmd.Wait() }()
	return p, nil
}

// Kill ends the process at once, whatever it is doing; none is no error.
func (p *Process) Kill() { p.end(syscall.SIGKILL) }

// Stop asks the process to end, and waits.
func (p *Process) Stop() { p.end(syscall.SIGTERM) }

func (p *Process) end(by syscall.Signal) {
	if p == nil {
		return // it was never started
	}
	_ = p.cmd.Process.Signal(by) // one that has ended is what is wanted
	err := <-p.done
	p.done <- err
}

// Ended reports whether the process has ended.
func (p *Process) Ended() bool { return len(p.done) > 0 }

// Signal sends the process a signal.
func (p *Process) Signal(s syscall.Signal) error { return p.cmd.Process.Signal(s) }

// Usage is what a process has used so far.
type Usage struct {
	CPU    time.Duration
	Memory int64 // resident now, in bytes
}

// Used returns what the process has used.
func (p *Process) Used() (Usage, error) { return UsedBy(p.cmd.Process.Pid) }

// UsedBy returns what a process has used, by proc(5).
func UsedBy(pid int) (Usage, error) {
	stat, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", pid))
	if err != nil {
		return Usage{}, err
	}
	fields := strings.Fields(string(stat[bytes.LastIndexByte(stat, ')')+1:])) // from the third, the state
	var n [3]int64
	for i, at := range []int{14, 15, 24} {
		if n[i], err = strconv.ParseInt(fields[at-3], 10, 64); err != nil {
			return Usage{}, err
		}
	}
	const tick = 10 * time.Millisecond // of USER_HZ, 100 on Linux
	return Usage{time.Duration(n[0]+n[1]) * tick, n[2] * int64(os.Getpagesize())}, nil
}

// FreePorts returns ports of loopback that nobody listens at.
func FreePorts(n int) ([]int, error) {
	var out []int
	for range n {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			return nil, err
		}
		defer l.Close()
		out = append(out, l.Addr().(*net.TCPAddr).Port)
	}
	return out, nil
}

// Serve starts a copy of the program at a port and waits until it answers.
func Serve(ctx context.Context, log io.Writer, port int, dsn string) (*Process, error) {
	p, err := Run(log, []string{"LADDER_DSN=" + dsn}, "bin/ladder", "serve", "--addr", fmt.Sprintf("127.0.0.1:%d", port))
	if err != nil {
		return nil, err
	}
	if err := Answers(ctx, fmt.Sprintf("http://127.0.0.1:%d", port), time.Minute); err != nil {
		p.Kill()
		return nil, err
	}
	return p, nil
}

// Answers waits until a copy of the program answers and reaches its database.
func Answers(ctx context.Context, base string, patience time.Duration) error {
	var last error
	for until := time.Now().Add(patience); time.Now().Before(until) && ctx.Err() == nil; time.Sleep(50 * time.Millisecond) {
		if _, last = NewBrowser(base).Do(ctx, http.MethodGet, "/api/health", nil, nil); last == nil {
			return nil
		}
	}
	return fmt.Errorf("%s does not answer: %w", base, last)
}

// A Browser keeps cookies.
type Browser struct {
	Base   string
	Client *http.Client
}

// NewBrowser opens a browser at an address.
func NewBrowser(base string) *Browser {
	jar, _ := cookiejar.New(nil) // it never fails
	return &Browser{base, &http.Client{Jar: jar, Timeout: 30 * time.Second, Transport: &http.Transport{MaxIdleConnsPerHost: 4}}}
}

// Do asks; in is sent as JSON and out is filled from it, where they are not nil.
func (b *Browser) Do(ctx context.Context, method, path string, in, out any) (status int, err error) {
	var body io.Reader
	if in != nil {
		data, err := json.Marshal(in)
		if err != nil {
			return 0, err
		}
		body = bytes.NewReader(data)
	}
	req, err := http.NewRequestWithContext(ctx, method, b.Base+path, body)
	if err != nil {
		return 0, err
	}
	if in != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	resp, err := b.Client.Do(req)
	if err != nil {
		return 0, err
	}
	defer resp.Body.Close()
	answer, err := io.ReadAll(resp.Body)
	if err != nil {
		return resp.StatusCode, err
	}
	if resp.StatusCode >= http.StatusBadRequest {
		return resp.StatusCode, fmt.Errorf("%s %s: %s: %.300s", method, path, resp.Status, answer)
	}
	if out != nil {
		return resp.StatusCode, json.Unmarshal(answer, out)
	}
	return resp.StatusCode, nil
}
