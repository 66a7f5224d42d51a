package web_test

import (
	"bytes"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/reason"
)

// A given is a reason as the Go code gives it: where, and with which arguments.
type given struct {
	at   string
	args map[string]bool
	open bool // some arguments are put together elsewhere
}

// reasons finds what is given as reason.Of("code", "argument", value, ...).
func reasons(t *testing.T) map[string][]given {
	out := map[string][]given{}
	files := token.NewFileSet()
	for _, dir := range []string{"../core", "../studio"} {
		require.NoError(t, filepath.WalkDir(dir, func(path string, _ fs.DirEntry, err error) error {
			if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			file, err := parser.ParseFile(files, path, nil, 0)
			if err != nil {
				return err
			}
			ast.Inspect(file, func(n ast.Node) bool {
				call, ok := n.(*ast.CallExpr)
				if !ok || len(call.Args) == 0 {
					return true
				}
				of, ok := call.Fun.(*ast.SelectorExpr)
				if !ok || of.Sel.Name != "Of" {
					return true
				}
				if from, ok := of.X.(*ast.Ident); !ok || from.Name != "reason" {
					return true
				}
				if code := text(call.Args[0]); code != "" { // one that is worked out is not looked at
					g := given{files.Position(call.Pos()).String(), map[string]bool{}, call.Ellipsis.IsValid()}
					for i := 1; i < len(call.Args); i += 2 {
						g.args[text(call.Args[i])] = true
					}
					out[code] = append(out[code], g)
				}
				return true
			})
			return nil
		}))
	}
	return out
}

// text returns the text of a literal, or nothing.
func text(e ast.Expr) string {
	lit, ok := e.(*ast.BasicLit)
	if !ok {
		return ""
	}
	s, _ := strconv.Unquote(lit.Value)
	return s
}

var (
	said    = regexp.MustCompile(`(?m)^  (?:"([a-z-]+)"|([a-z]+)): (?:\(a\)|\(\)|[a-z]+,)`)
	onSheet = regexp.MustCompile(`(?m)^\t"([a-z-]+)(?: [a-z]+)?":`)
	uses    = regexp.MustCompile(`\ba\.([a-z]+)`)
)

// Every reason that the core gives has a sentence, on the screen or on the sheet,
// and is given whatever stands in that.
func TestEveryReasonHasItsSentence(t *testing.T) {
	screen, err := os.ReadFile("src/parts/sentences.ts")
	require.NoError(t, err)
	screen, _, found := bytes.Cut(screen, []byte("\n};\n"))
	require.True(t, found, "the end of the list")
	sheet, err := os.ReadFile("../core/week/words.go")
	require.NoError(t, err)
	sentences := map[string]string{} // on the screen, with what stands in them
	places := said.FindAllSubmatchIndex(screen, -1)
	for i, at := range places {
		end := len(screen)
		if i+1 < len(places) {
			end = places[i+1][0]
		}
		name := said.ReplaceAllString(string(screen[at[0]:at[1]]), "$1$2")
		sentences[name] = string(screen[at[1]:end])
	}
	printed := map[string]bool{}
	for _, m := range onSheet.FindAllSubmatch(sheet, -1) {
		printed[string(m[1])] = true
	}
	all := reasons(t)
	require.Greater(t, len(all), 80)
	for _, code := range reason.Codes {
		_, ok := sentences[code]
		assert.True(t, ok || printed[code], "%s has no sentence", code)
	}
	for code, list := range all {
		assert.Contains(t, reason.Codes, code, "given at %s", list[0].at)
		body, ok := sentences[code]
		assert.True(t, ok || printed[code], "%s has no sentence; it is given at %s", code, list[0].at)
		for _, g := range list {
			for _, m := range uses.FindAllStringSubmatch(body, -1) {
				assert.True(t, g.open || g.args[m[1]] || without[code+" "+m[1]], "%s says %q, which is not given at %s", code, m[1], g.at)
			}
		}
	}
}

// without are arguments that a sentence can do without.
var without = map[string]bool{"ready-to-try weeks": true}
