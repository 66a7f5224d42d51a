// Mutants makes small wrong changes to the files of a package, one at a time, and runs
// the package's own tests against each: those that no test notices live.
//
//	go run ./internal/mutants [-sample n] ./core/climb ./core/lesson
//
// The changes are the usual ones of mutation testing: a comparison's boundary moved (<
// for <=), a condition turned round (== for !=), arithmetic swapped (+ for -), a sign
// dropped, counting down instead of up. The tools at hand count a condition of a case as
// never reached, because Go's coverage has no block for it; here each change is tried,
// whatever coverage says. A change is laid over the file by the compiler (-overlay), so
// that nothing in the repository is touched.
package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"syscall"
	"time"
)

// A mutant is one change: the bytes from an offset on, as long as old, become new.
type mutant struct {
	file     string
	at       token.Position
	old, new string
}

// An outcome is how a mutant fared.
type outcome int

const (
	killed outcome = iota
	lived
	unviable // it does not compile, so that it is none
)

var changes = map[token.Token][]string{
	token.LSS: {"<=", ">="}, token.LEQ: {"<", ">"}, token.GTR: {">=", "<="}, token.GEQ: {">", "<"},
	token.EQL: {"!="}, token.NEQ: {"=="},
	token.ADD: {"-"}, token.SUB: {"+"}, token.MUL: {"/"}, token.QUO: {"*"}, token.REM: {"*"},
}

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

// try runs a package's mutants and prints those that lived, and how many did not.
func try(dir string, sample int) error {
	all, err := mutants(dir)
	if err != nil {
		return err
	}
	if sample > 0 && sample < len(all) {
		rand.New(rand.NewPCG(1, 2)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		all = all[:sample]
	}
	began := time.Now()
	if out, err := test(dir, "", time.Minute); err != nil {
		return fmt.Errorf("the tests of %s fail as they are: %s", dir, out)
	}
	patience := 4*time.Since(began) + 5*time.Second
	counts := map[outcome]int{}
	var mu sync.Mutex
	var wg sync.WaitGroup
	next := make(chan mutant)
	for range runtime.NumCPU() {
		wg.Go(func() {
			for m := range next {
				o := m.run(dir, patience)
				mu.Lock()
				counts[o]++
				if o == lived {
					fmt.Printf("lived: %s:%d:%d  %s for %s\n", m.file, m.at.Line, m.at.Column, m.new, m.old)
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
	n := counts[killed] + counts[lived]
	fmt.Printf("%s: %d of %d killed, %.0f %%\n", dir, counts[killed], n, 100*float64(counts[killed])/float64(max(n, 1)))
	return nil
}

// mutants lists the changes to a package's files, in order.
func mutants(dir string) ([]mutant, error) {
	files, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, err
	}
	var out []mutant
	for _, file := range files {
		if strings.HasSuffix(file, "_test.go") {
			continue
		}
		set := token.NewFileSet()
		tree, err := parser.ParseFile(set, file, nil, 0)
		if err != nil {
			return nil, err
		}
		add := func(pos token.Pos, old, new string) {
			out = append(out, mutant{file, set.Position(pos), old, new})
		}
		ast.Inspect(tree, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.BinaryExpr:
				for _, new := range changes[n.Op] {
					add(n.OpPos, n.Op.String(), new)
				}
			case *ast.UnaryExpr:
				if n.Op == token.SUB {
					add(n.OpPos, "-", " ")
				}
			case *ast.IncDecStmt:
				add(n.TokPos, n.Tok.String(), map[token.Token]string{token.INC: "--", token.DEC: "++"}[n.Tok])
			}
			return true
		})
	}
	return out, nil
}

// run tries one mutant.
func (m mutant) run(dir string, patience time.Duration) outcome {
	tmp, err := os.MkdirTemp("", "mutant-")
	if err != nil {
		return unviable
	}
	defer os.RemoveAll(tmp)
	text, err := os.ReadFile(m.file)
	if err != nil {
		return unviable
	}
	changed := string(text[:m.at.Offset]) + m.new + string(text[m.at.Offset+len(m.old):])
	whole, err := filepath.Abs(m.file)
	if err != nil {
		return unviable
	}
	over, _ := json.Marshal(map[string]map[string]string{"Replace": {whole: filepath.Join(tmp, "changed.go")}})
	if os.WriteFile(filepath.Join(tmp, "changed.go"), []byte(changed), 0o600) != nil || os.WriteFile(filepath.Join(tmp, "overlay.json"), over, 0o600) != nil {
		return unviable
	}
	out, err := test(dir, filepath.Join(tmp, "overlay.json"), patience)
	switch {
	case strings.Contains(out, "[build failed]") || strings.Contains(out, "[setup failed]"):
		return unviable
	case err != nil: // also one that never ends
		return killed
	}
	return lived
}

// test runs a package's tests; those that never end are ended, with all that they
// started.
func test(dir, overlay string, patience time.Duration) (string, error) {
	ctx, stop := context.WithTimeout(context.Background(), patience)
	defer stop()
	args := []string{"test", "-short", "-failfast", "-count=1", "-vet=off"}
	if overlay != "" {
		args = append(args, "-overlay", overlay)
	}
	cmd := exec.CommandContext(ctx, "go", append(args, "./"+filepath.Clean(dir))...)
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	cmd.Cancel = func() error { return syscall.Kill(-cmd.Process.Pid, syscall.SIGKILL) }
	cmd.WaitDelay = time.Second
	out, err := cmd.CombinedOutput()
	return string(out), err
}
