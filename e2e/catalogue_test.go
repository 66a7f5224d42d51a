package e2e

import (
	"encoding/csv"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/words"
)

// visits are the pages of the router: addresses by the names of their parameters, each once with what it
// shows of the demo. A page that the router has and this list has not fails.
var visits = map[string]string{
	"/sign-in": "", "/reset": "", "/confirm": "", "/": "", "$": "/nowhere", // read before a language is chosen, save the last
	"/students/$student/ladder": "/students/{Emil}/ladder", "/students/$student/lesson": "/students/{Tobias}/lesson", "/students/$student/week": "/students/{Tobias}/week",
	"/students/$student/record": "/students/{Emil}/record", "/students/$student/report": "/students/{Emil}/report", "/students/$student/placement": "/students/{Idris}/placement",
	"/students/$student/settings": "/students/{Emil}/settings", "/take-over": "/take-over", "/shelf": "/shelf", "/items/$item": "/items/shore-lights", "/shelf/type": "/shelf/type",
	"/workbench": "/workbench?student={Wren}", "/workbench/exercises": "/workbench/exercises?student={Priya}", "/workbench/listen": "/workbench/listen?student={Tobias}",
	"/workbench/hours": "/workbench/hours", "/workbench/hours/$hour": "", "/sheets": "/sheets", "/mailbox": "/mailbox", "/calendar": "/calendar", "/activities": "/activities",
	"/instruments": "/instruments", "/studio": "/studio", "/studio/today": "/studio/today", "/studio/account": "/studio/account", "/studio/students": "/studio/students",
	"/studio/dates": "/studio/dates", "/studio/dates/$event": "", "/studio/reports": "/studio/reports", "/studio/term": "/studio/term", "/numbers": "/numbers",
}

// routes reads the addresses that the front end's router knows.
func routes(t *testing.T) []string {
	source, err := os.ReadFile("../web/src/router.tsx")
	require.NoError(t, err)
	paths, above := map[string]string{}, map[string]string{}
	var out []string
	for _, m := range regexp.MustCompile(`const (\w+) = createRoute\(\{\s*getParentRoute: \(\) => (\w+),\s*(?:path: "([^"]*)")?`).FindAllStringSubmatch(string(source), -1) {
		above[m[1]], paths[m[1]] = m[2], m[3]
	}
	for name, path := range paths {
		if path == "" || name == "student" { // a frame around others
			continue
		}
		for at := above[name]; at != ""; at = above[at] {
			path = paths[at] + path
		}
		out = append(out, path)
	}
	return out
}

// typed are the texts that people typed: names, titles, places, as the demo has them.
func typed(t *testing.T) map[string]bool {
	out := map[string]bool{}
	add := func(text string) {
		for _, part := range separators.Split(text, -1) {
			out[strings.ToLower(strings.TrimSpace(part))] = true
		}
		out[strings.ToLower(text)] = true
	}
	files, err := filepath.Glob("../demo/*")
	require.NoError(t, err)
	scores, err := filepath.Glob("../demo/scores/*")
	require.NoError(t, err)
	for _, file := range slices.Concat(files, scores) {
		text, err := os.ReadFile(file)
		if err != nil {
			continue // a folder
		}
		switch filepath.Ext(file) {
		case ".csv":
			rows, err := csv.NewReader(strings.NewReader(string(text))).ReadAll()
			require.NoError(t, err)
			for _, row := range rows[1:] {
				for _, cell := range row {
					add(cell)
				}
			}
		case ".go":
			parsed, err := parser.ParseFile(token.NewFileSet(), file, text, 0)
			require.NoError(t, err)
			ast.Inspect(parsed, func(n ast.Node) bool {
				if lit, is := n.(*ast.BasicLit); is && lit.Kind == token.STRING {
					if said, err := strconv.Unquote(lit.Value); err == nil {
						add(said)
					}
				}
				return true
			})
		default:
			for _, m := range regexp.MustCompile(`(?m)^[TCB]:(.*)$|<(?:work-title|creator[^>]*|words)>([^<]*)<`).FindAllStringSubmatch(string(text), -1) {
				add(strings.TrimSpace(m[1] + m[2]))
			}
		}
	}
	return out
}

// strayJS collects the texts of a page that stand outside every mark: of what is seen, and of what is read
// aloud. Notes on a staff are no texts.
const strayJS = `(() => {
  const out = new Set();
  const strip = s => { for (let was = ''; was !== s;) { was = s; s = s.replace(/⟦[^⟦⟧]*⟧/g, ' ¦ ') } return s };
  const block = e => { while (e.parentElement && getComputedStyle(e).display.startsWith('inline')) e = e.parentElement; return e };
  const seen = new Map();
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let n; n = walk.nextNode();) {
    const e = n.parentElement;
    if (!e || e.closest('svg, script, style, noscript, kbd, code, pre, textarea')) continue;
    const b = block(e);
    seen.set(b, (seen.get(b) ?? '') + n.data);
  }
  for (const text of seen.values()) out.add(strip(text));
  for (const e of document.querySelectorAll('[aria-label], [title], [placeholder], [alt]')) {
    for (const a of ['aria-label', 'title', 'placeholder', 'alt']) if (e.getAttribute(a)) out.add(strip(e.getAttribute(a)));
  }
  return [...out];
})()`

var (
	separators = regexp.MustCompile(`[¦.,:;|·/()“”"+&→=–—×′?!%\n\[\]…]+|\d+`)
	notWords   = regexp.MustCompile(`^(?i)(mon|tue|wed|thu|fri|sat|sun|monday|tuesday|wednesday|thursday|friday|saturday|sunday|jan|feb|mar|apr|may|jun|jul|aug|sept|sep|oct|nov|dec|january|february|march|april|june|july|august|september|october|november|december|[a-g](#|b| sharp| flat)?|min|cm|pp|ff|mp|mf|enter|esc|ctrl|abc|musicxml|midi|csv|pdf|zip|mxl|mid|xml|x)$`)
)

// strays are the words of a page that come from no catalogue and that nobody typed.
func (p *page) strays(names map[string]bool) []string {
	var out []string
	for _, text := range eval[[]string](p, strayJS) {
		for _, part := range separators.Split(text, -1) {
			part = strings.TrimSpace(part)
			if len([]rune(part)) < 2 || notWords.MatchString(part) || names[strings.ToLower(part)] {
				continue
			}
			if sideBySide(strings.Fields(strings.ToLower(part)), names) {
				continue
			}
			out = append(out, part+" ‹"+strings.Join(strings.Fields(text), " ")+"›")
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// sideBySide reports whether some words are names and dates, one after another.
func sideBySide(words []string, names map[string]bool) bool {
	if len(words) == 0 {
		return true
	}
	for n := len(words); n > 0; n-- {
		head := strings.Join(words[:n], " ")
		if (names[head] || notWords.MatchString(head)) && sideBySide(words[n:], names) {
			return true
		}
	}
	return false
}

// tooWideJS names what reaches beyond the window.
const tooWideJS = `(over => over.filter(e => !over.some(o => o !== e && e.contains(o))).slice(0, 4).map(e => e.outerHTML.slice(0, 160)).join(' | '))([...document.querySelectorAll('body *')].filter(e => e.getBoundingClientRect().right > %d + 1 && !e.closest('.overflow-x-auto')))`

// With every message in marks and a third longer, nothing that a page says stands outside them, save what
// people typed, no page is wider than its window, and none does what the policy of its origin forbids.
func TestEveryTextComesFromTheCatalogue(t *testing.T) {
	for _, path := range routes(t) {
		_, listed := visits[path]
		assert.True(t, listed, "%s is not looked at", path)
	}
	s := newSite(t, true)
	p := open(t, s.URL, 1280, 800)
	p.signIn()
	teacher, err := s.store.TeacherByEmail(t.Context(), demo.Email)
	require.NoError(t, err)
	room := s.store.In(teacher.Studio)
	row, err := room.Row(t.Context())
	require.NoError(t, err)
	require.NoError(t, room.SetNames(t.Context(), teacher.ID, teacher.Name, row.Name, row.Zone, words.Pseudo().Language()))
	_, err = chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{
		Source: `window.marked = text => text ? '⟦' + text + ('~'.repeat((text.length + 2) / 3)).replace(/~{6}/g, '~~~~~ ') + '⟧' : text`})
	require.NoError(t, err)
	p.hearsViolations()
	names := typed(t)
	names["british english"], names["american english"], names["english"], names["pseudo-accents"] = true, true, true, true // a language is called by its own name
	p.setClock("2026-11-18T17:30:00Z")
	p.closeLesson(p.student("Tobias")) // so that there is a sheet in this language
	student := regexp.MustCompile(`\{(\w+)\}`)
	ids := map[string]string{}
	for _, name := range []string{"Emil", "Tobias", "Idris", "Wren", "Priya"} {
		ids[name] = p.student(name)
	}
	for _, path := range slices.Sorted(maps.Keys(visits)) {
		at := visits[path]
		if at == "" {
			continue
		}
		at = student.ReplaceAllStringFunc(at, func(m string) string { return ids[m[1:len(m)-1]] })
		for _, width := range []int64{1280, 390, 320} {
			p.do(chromedp.EmulateViewport(width, 800))
			if width == 1280 {
				p.goTo(at)
				p.until("document.querySelector('main, [role=main], #root > *') && document.body.innerText.includes('⟦') && !document.querySelector('[aria-busy=true]')", path)
				assert.Empty(t, p.strays(names), path)
				assert.Empty(t, eval[[]string](p, "window.broken"), path)
			}
			if wide := eval[int](p, "document.documentElement.scrollWidth"); wide > int(width) {
				t.Errorf("%s is %d wide at %d: %s", path, wide, width, eval[string](p, fmt.Sprintf(tooWideJS, width)))
			}
		}
	}
}
