// Mutants makes small wrong changes to the files of a package and runs the package's own
// tests against each: those that no test notices live.
//
//	go run ./internal/mutants [-sample n] ./core/climb ./core/lesson
//
// The changes are the usual ones of mutation testing: a comparison's boundary moved (<
// for <=), a condition turned round (== for !=), arithmetic swapped (+ for -), a sign
// dropped, counting down instead of up. All of a package stand in one test binary, each
// behind a number: an expression such as a < b is written as a call that compares otherwise
// when its number is asked for (switch.go). The binary is built once; which changes its
// tests come by is noted in a first run, and only those are tried. What is compiled is laid
// over the files (-overlay), so that nothing in the repository is touched.
package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"
)

func main() {
	sample := flag.Int("sample", 0, "try only so many of a package, always the same; 0 for all")
	flag.Parse()
	if flag.NArg() == 0 {
		fmt.Fprintln(os.Stderr, "mutants needs packages: go run ./internal/mutants ./core/climb")
		os.Exit(2)
	}
	for _, dir := range flag.Args() {
		if err := try(dir, *sample); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	}
}

// A binary is a package's tests with all changes in them.
type binary struct {
	dir  string // of the package
	file string
}

// try runs a package's mutants and prints those that lived, and how many did not.
func try(dir string, sample int) error {
	tmp, err := os.MkdirTemp("", "mutants-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(tmp)
	all, overlay, err := switched(dir, tmp)
	if err != nil {
		return err
	}
	b := binary{dir, filepath.Join(tmp, "tests")}
	build := exec.Command("go", "test", "-c", "-vet=off", "-overlay", overlay, "-o", b.file, "./"+filepath.Clean(dir))
	if out, err := build.CombinedOutput(); err != nil {
		return fmt.Errorf("the changes of %s do not compile: %s", dir, out)
	}
	if _, err := os.Stat(b.file); err != nil {
		return fmt.Errorf("%s has no tests", dir)
	}
	reached := filepath.Join(tmp, "reached")
	began := time.Now()
	if out, err := b.run(10*time.Minute, "MUTANTS_REACHED="+reached); err != nil {
		return fmt.Errorf("the tests of %s fail as they are (%w): %s", dir, err, out)
	}
	patience := 4*time.Since(began) + 10*time.Second
	come, err := numbers(reached)
	if err != nil {
		return err
	}
	if sample > 0 && sample < len(all) {
		rand.New(rand.NewPCG(1, 2)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		all = all[:sample]
	}
	killed := 0
	var mu sync.Mutex
	var wg sync.WaitGroup
	next := make(chan mutant)
	for range runtime.NumCPU() {
		wg.Go(func() {
			for m := range next {
				dead := false
				if come[m.number] {
					_, err := b.run(patience, "MUTANT="+strconv.Itoa(m.number))
					dead = err != nil // also one that never ends
				}
				mu.Lock()
				if dead {
					killed++
				} else {
					fmt.Printf("lived: %s:%d:%d  %s for %s\n", filepath.Join(dir, filepath.Base(m.at.Filename)), m.at.Line, m.at.Column, m.new, m.old)
				}
				mu.Unlock()
			}
		})
	}
	for _, m := range all {
		next <- m
	}
	close(next)
	wg.Wait()
	fmt.Printf("%s: %d of %d killed, %.0f %%, in %s\n", dir, killed, len(all), 100*float64(killed)/float64(max(len(all), 1)), time.Since(began).Round(time.Second))
	return nil
}

// numbers reads those of the changes that the tests came by.
func numbers(file string) (map[int]bool, error) {
	text, err := os.ReadFile(file)
	if err != nil {
		return nil, fmt.Errorf("no change was come by: %w", err)
	}
	out := map[int]bool{}
	for _, field := range strings.Fields(string(text)) {
		n, err := strconv.Atoi(field)
		if err != nil {
			return nil, err
		}
		out[n] = true
	}
	return out, nil
}

// run runs the tests; those that never end are ended, with all that they started.
func (b binary) run(patience time.Duration, env string) (string, error) {
	ctx, stop := context.WithTimeout(context.Background(), patience)
	defer stop()
	cmd := exec.CommandContext(ctx, b.file, "-test.short", "-test.failfast")
	cmd.Dir = b.dir
	cmd.Env = append(os.Environ(), env)
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	cmd.Cancel = func() error { return syscall.Kill(-cmd.Process.Pid, syscall.SIGKILL) }
	cmd.WaitDelay = time.Second
	out, err := cmd.CombinedOutput()
	return string(out), err
}

// lay writes an overlay: files by the path that they stand for.
func lay(tmp string, files map[string]string) (string, error) {
	replace := map[string]string{}
	for path, text := range files {
		stands := filepath.Join(tmp, filepath.Base(path))
		if err := os.WriteFile(stands, []byte(text), 0o600); err != nil {
			return "", err
		}
		replace[path] = stands
	}
	data, err := json.Marshal(map[string]map[string]string{"Replace": replace})
	if err != nil {
		return "", err
	}
	name := filepath.Join(tmp, "overlay.json")
	return name, os.WriteFile(name, data, 0o600)
}
