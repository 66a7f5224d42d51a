package main

import (
	"fmt"
	"go/ast"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"golang.org/x/tools/go/packages"
)

// A mutant is one change, behind its number.
type mutant struct {
	number   int
	at       token.Position
	old, new string
}

// helpers are the functions that changed expressions call. The number of the change that is
// asked for stands in MUTANT; where MUTANTS_REACHED names a file, the numbers that were come
// by are written into it, each once.
const helpers = `
import (
	"cmp"
	"fmt"
	"os"
	"strconv"
	"sync"
)

var mutant__active, _ = strconv.Atoi(os.Getenv("MUTANT"))

var (
	mutant__reached, _ = os.OpenFile(os.Getenv("MUTANTS_REACHED"), os.O_APPEND|os.O_CREATE|os.O_WRONLY, 0o600)
	mutant__seen       sync.Map
)

func mutant__on(id int) bool {
	if mutant__reached != nil {
		if _, seen := mutant__seen.LoadOrStore(id, true); !seen {
			fmt.Fprintln(mutant__reached, id)
		}
	}
	return mutant__active == id
}

func mutant__flip(id int, is bool) bool { return is != mutant__on(id) }

func mutant__compare[T cmp.Ordered](id int, op, one, two string, a, b T) bool {
	switch {
	case mutant__on(id):
		op = one
	case mutant__on(id + 1):
		op = two
	}
	switch op {
	case "<":
		return a < b
	case "<=":
		return a <= b
	case ">":
		return a > b
	}
	return a >= b
}

type mutant__number interface {
	~int | ~int8 | ~int16 | ~int32 | ~int64 | ~uint | ~uint8 | ~uint16 | ~uint32 | ~uint64 | ~uintptr | ~float32 | ~float64
}

func mutant__add[T mutant__number](id int, a, b T) T {
	if mutant__on(id) {
		return a - b
	}
	return a + b
}

func mutant__sub[T mutant__number](id int, a, b T) T {
	if mutant__on(id) {
		return a + b
	}
	return a - b
}

func mutant__mul[T mutant__number](id int, a, b T) T {
	if mutant__on(id) {
		return a / b
	}
	return a * b
}

func mutant__quo[T mutant__number](id int, a, b T) T {
	if mutant__on(id) {
		return a * b
	}
	return a / b
}

type mutant__integer interface {
	~int | ~int8 | ~int16 | ~int32 | ~int64 | ~uint | ~uint8 | ~uint16 | ~uint32 | ~uint64 | ~uintptr
}

func mutant__rem[T mutant__integer](id int, a, b T) T {
	if mutant__on(id) {
		return a * b
	}
	return a % b
}

func mutant__neg[T mutant__number](id int, a T) T {
	if mutant__on(id) {
		return a
	}
	return -a
}
`

var calls = map[token.Token]string{token.ADD: "add", token.SUB: "sub", token.MUL: "mul", token.QUO: "quo", token.REM: "rem"}

// swapped is what arithmetic becomes, and moved what comparisons do.
var swapped = map[token.Token]string{token.ADD: "-", token.SUB: "+", token.MUL: "/", token.QUO: "*", token.REM: "*"}

var moved = map[token.Token][2]string{token.LSS: {"<=", ">="}, token.LEQ: {"<", ">"}, token.GTR: {">=", "<="}, token.GEQ: {">", "<"}}

// An edit writes something before a place of a file, or for what stood up to another.
type edit struct {
	at, to int // offsets; equal to write before
	text   string
	order  int // among those of one place
}

// switched writes the files of a package with all changes in them, and returns the changes and
// an overlay.
func switched(dir, tmp string) ([]mutant, string, error) {
	list, err := packages.Load(&packages.Config{Mode: packages.NeedName | packages.NeedFiles | packages.NeedSyntax | packages.NeedTypes | packages.NeedTypesInfo | packages.NeedImports | packages.NeedDeps}, "./"+filepath.Clean(dir))
	if err != nil {
		return nil, "", err
	}
	if len(list) != 1 || len(list[0].Errors) > 0 {
		return nil, "", fmt.Errorf("%s cannot be read: %v", dir, list)
	}
	p := list[0]
	w := writer{pkg: p}
	files := map[string]string{}
	for _, f := range p.Syntax {
		name := p.Fset.Position(f.Pos()).Filename
		text, err := os.ReadFile(name)
		if err != nil {
			return nil, "", err
		}
		w.edits = nil
		ast.Inspect(f, w.visit)
		files[name] = apply(string(text), w.edits)
	}
	absolute, err := filepath.Abs(dir)
	if err != nil {
		return nil, "", err
	}
	files[filepath.Join(absolute, "mutants__helpers.go")] = "package " + p.Name + "\n" + helpers
	overlay, err := lay(tmp, files)
	return w.mutants, overlay, err
}

type writer struct {
	pkg     *packages.Package
	mutants []mutant
	edits   []edit
}

// visit notes the changes of a node; constants are left alone, and what only types may hold.
func (w *writer) visit(n ast.Node) bool {
	switch n := n.(type) {
	case *ast.GenDecl:
		return n.Tok != token.CONST
	case *ast.ArrayType:
		return false
	case *ast.BinaryExpr:
		w.binary(n)
	case *ast.UnaryExpr:
		if n.Op == token.SUB && w.plain(n) {
			id := w.add(n.OpPos, "-", " ")
			w.replace(n.OpPos, n.OpPos+1, fmt.Sprintf("mutant__neg(%d, ", id))
			w.before(n.End(), ")")
		}
	case *ast.IncDecStmt:
		w.counted(n)
	}
	return true
}

// plain reports whether an expression is a number that is not constant and of no type parameter.
func (w *writer) plain(e ast.Expr) bool {
	tv := w.pkg.TypesInfo.Types[e]
	if tv.Value != nil || tv.Type == nil {
		return false
	}
	if _, is := tv.Type.(*types.TypeParam); is {
		return false
	}
	basic, is := tv.Type.Underlying().(*types.Basic)
	return is && basic.Info()&(types.IsInteger|types.IsFloat) != 0 && basic.Info()&types.IsUntyped == 0
}

func (w *writer) binary(n *ast.BinaryExpr) {
	tv := w.pkg.TypesInfo.Types[ast.Expr(n)]
	if tv.Value != nil {
		return
	}
	switch {
	case n.Op == token.EQL || n.Op == token.NEQ:
		id := w.add(n.OpPos, n.Op.String(), map[token.Token]string{token.EQL: "!=", token.NEQ: "=="}[n.Op])
		w.before(n.Pos(), fmt.Sprintf("mutant__flip(%d, ", id))
		w.before(n.End(), ")")
	case moved[n.Op] != [2]string{}:
		if !w.ordered(n.X) && !w.ordered(n.Y) {
			return
		}
		to := moved[n.Op]
		id := w.add(n.OpPos, n.Op.String(), to[0])
		w.add(n.OpPos, n.Op.String(), to[1])
		w.before(n.Pos(), fmt.Sprintf("mutant__compare(%d, %q, %q, %q, ", id, n.Op, to[0], to[1]))
		w.replace(n.OpPos, n.OpPos+token.Pos(len(n.Op.String())), ",")
		w.before(n.End(), ")")
	case calls[n.Op] != "" && w.plain(n):
		id := w.add(n.OpPos, n.Op.String(), swapped[n.Op])
		w.before(n.Pos(), fmt.Sprintf("mutant__%s(%d, ", calls[n.Op], id))
		w.replace(n.OpPos, n.OpPos+1, ",")
		w.before(n.End(), ")")
	}
}

// ordered reports whether an expression can be handed to a comparison of ordered values.
func (w *writer) ordered(e ast.Expr) bool {
	t := w.pkg.TypesInfo.Types[e].Type
	if _, is := t.(*types.TypeParam); is || t == nil {
		return false
	}
	basic, is := t.Underlying().(*types.Basic)
	return is && basic.Info()&types.IsOrdered != 0
}

// counted changes the direction of counting.
func (w *writer) counted(n *ast.IncDecStmt) {
	if !w.plain(n.X) {
		return
	}
	call, new := "add", "--"
	if n.Tok == token.DEC {
		call, new = "sub", "++"
	}
	id := w.add(n.TokPos, n.Tok.String(), new)
	from, to := w.offset(n.X.Pos()), w.offset(n.X.End())
	file := w.pkg.Fset.Position(n.Pos()).Filename
	text, err := os.ReadFile(file)
	if err != nil {
		return
	}
	w.replace(n.TokPos, n.TokPos+2, fmt.Sprintf(" = mutant__%s(%d, %s, 1)", call, id, text[from:to]))
}

func (w *writer) add(pos token.Pos, old, new string) int {
	w.mutants = append(w.mutants, mutant{len(w.mutants) + 1, w.pkg.Fset.Position(pos), old, new})
	return len(w.mutants)
}

func (w *writer) offset(pos token.Pos) int { return w.pkg.Fset.Position(pos).Offset }

func (w *writer) before(pos token.Pos, text string) {
	at := w.offset(pos)
	w.edits = append(w.edits, edit{at, at, text, len(w.edits)})
}

func (w *writer) replace(from, to token.Pos, text string) {
	w.edits = append(w.edits, edit{w.offset(from), w.offset(to), text, len(w.edits)})
}

// apply writes the edits into a text. Of those at one place, ends come before beginnings, the inner
// end first and the outer beginning first.
func apply(text string, edits []edit) string {
	slices.SortStableFunc(edits, func(a, b edit) int {
		if a.at != b.at {
			return a.at - b.at
		}
		closes := func(e edit) bool { return e.text == ")" }
		switch {
		case closes(a) != closes(b):
			if closes(a) {
				return -1
			}
			return 1
		case closes(a):
			return b.order - a.order
		}
		return a.order - b.order
	})
	var out strings.Builder
	at := 0
	for _, e := range edits {
		out.WriteString(text[at:max(at, e.at)])
		out.WriteString(e.text)
		at = max(at, e.to)
	}
	out.WriteString(text[at:])
	return out.String()
}
