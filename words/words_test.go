package words

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"text/template/parse"

	"github.com/BurntSushi/toml"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/reason"
)

// catalogue reads a language's file as it stands, its messages by key.
func catalogue(t *testing.T, tag string) map[string]string {
	t.Helper()
	text, err := catalogues.ReadFile(tag + ".toml")
	require.NoError(t, err)
	var sections map[string]map[string]any
	require.NoError(t, toml.Unmarshal(text, &sections))
	out := map[string]string{}
	for section, messages := range sections {
		for key, m := range messages {
			switch m := m.(type) {
			case string:
				out[section+"."+key] = m
			case map[string]any:
				between := "." // of messages that belong together; else of the forms of one
				if m["other"] != nil {
					between = "#"
				}
				for part, text := range m {
					out[section+"."+key+between+part] = text.(string)
				}
			}
		}
	}
	return out
}

// A use is what a message does with an argument.
type use struct{ argument, function string }

// uses reads what a message calls and which arguments it names, and those of the messages it says.
func uses(t *testing.T, all map[string]string, key string) (out []use) {
	t.Helper()
	functions := map[string]any{}
	for name := range (&Words{}).functions() {
		functions[name] = true
	}
	for name := range map[string]bool{"print": true, "eq": true, "ne": true, "and": true, "or": true, "not": true} {
		functions[name] = true
	}
	trees, err := parse.Parse(key, all[key], "{{", "}}", functions)
	require.NoError(t, err, key)
	var walk func(n parse.Node, function string)
	list := func(l *parse.ListNode) {
		if l == nil {
			return
		}
		for _, n := range l.Nodes {
			walk(n, "")
		}
	}
	branch := func(b parse.BranchNode, function string) {
		walk(b.Pipe, function)
		list(b.List)
		list(b.ElseList)
	}
	walk = func(n parse.Node, function string) {
		switch n := n.(type) {
		case *parse.ActionNode:
			walk(n.Pipe, function)
		case *parse.IfNode:
			branch(n.BranchNode, "if")
		case *parse.WithNode:
			branch(n.BranchNode, "if")
		case *parse.PipeNode:
			for _, c := range n.Cmds {
				called := function
				if id, is := c.Args[0].(*parse.IdentifierNode); is {
					called = id.Ident
				}
				if s, is := c.Args[min(1, len(c.Args)-1)].(*parse.StringNode); is && called == "say" {
					require.Contains(t, all, s.Text, key)
					out = append(out, uses(t, all, s.Text)...)
					continue
				} else if is && called == "count" {
					assert.Contains(t, all, "count."+s.Text+"#other", key)
				}
				for _, a := range c.Args {
					walk(a, called)
				}
			}
		case *parse.FieldNode:
			out = append(out, use{n.Ident[0], function})
		}
	}
	list(trees[key].Root)
	return out
}

// said finds the sentence of a code in a catalogue: on the screen, on the sheet, and there for a reader
// of its own.
func said(all map[string]string, code string) []string {
	var out []string
	for _, key := range []string{"reason." + code, "sheet." + code, "sheet." + code + "@parent", "sheet." + code + "@student", "sheet." + code + "@adult"} {
		if _, is := all[key]; is {
			out = append(out, key)
		}
	}
	return out
}

// Every reason has a sentence, which says all of its arguments and no others, each as what it is.
func TestEveryReasonIsSaid(t *testing.T) {
	all := catalogue(t, Base)
	kinds := map[string]reason.Kind{"count": reason.Number, "hours": reason.Number, "length": reason.Number, "day": reason.Day, "date": reason.Day, "short": reason.Day}
	for _, code := range reason.Codes {
		keys := said(all, code)
		assert.NotEmpty(t, keys, "%s is not said", code)
		takes, _ := reason.Arguments(code)
		used := map[string]bool{}
		for _, key := range keys {
			for _, u := range uses(t, all, key) {
				used[u.argument] = true
				i := slices.IndexFunc(takes, func(a reason.Argument) bool { return a.Name == u.argument && a.Kind != reason.Subject })
				if !assert.GreaterOrEqual(t, i, 0, "%s says %s, which %s does not take", key, u.argument, code) {
					continue
				}
				if kind, asks := kinds[u.function]; asks {
					assert.Equal(t, kind, takes[i].Kind, "%s: %s", key, u.argument)
				}
			}
		}
		for _, a := range takes {
			assert.True(t, a.Kind == reason.Subject || used[a.Name], "%s takes %s, which no sentence says", code, a.Name)
		}
	}
}

// In [reason] and [sheet] stands nothing that nobody can give.
func TestNothingIsLeftOver(t *testing.T) {
	all := catalogue(t, Base)
	known := map[string]bool{}
	for _, code := range reason.Codes {
		for _, key := range said(all, code) {
			known[key] = true
		}
	}
	for key, text := range all {
		if i := strings.Index(text, "{{say `"); i >= 0 {
			name, _, _ := strings.Cut(text[i+len("{{say `"):], "`")
			known[name] = true
		}
		_ = key
	}
	for key := range all {
		if strings.HasPrefix(key, "reason.") || strings.HasPrefix(key, "sheet.") {
			assert.True(t, known[key], "%s is said of nothing", key)
		}
	}
}

// Another language says every message with the arguments that the base has, and none of its own. An
// English names only what differs from the base.
func TestLanguagesAgree(t *testing.T) {
	base := catalogue(t, Base)
	for _, tag := range Languages[1:] {
		other := catalogue(t, tag)
		for key := range other {
			if !assert.Contains(t, base, key, tag) {
				continue
			}
			assert.NotEqual(t, base[key], other[key], "%s: %s says what the base says", tag, key)
			all := maps.Clone(base)
			maps.Copy(all, other)
			assert.Equal(t, arguments(uses(t, base, key)), arguments(uses(t, all, key)), "%s: %s", tag, key)
		}
	}
}

func arguments(list []use) []string {
	var out []string
	for _, u := range list {
		out = append(out, u.argument)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Every message of every language can be written.
func TestEveryMessageIsWritten(t *testing.T) {
	all := catalogue(t, Base)
	samples := map[reason.Kind]string{reason.Number: "3", reason.Day: "2026-11-18", reason.Text: "T"}
	for _, reader := range []Reader{{Language: Base}, {Language: Base, Inches: true}, {Language: "en-US", Inches: true}, {Language: pseudo}} {
		w := In(reader)
		for _, code := range reason.Codes {
			takes, _ := reason.Arguments(code)
			args := Args{}
			for _, a := range takes {
				args[a.Name] = samples[a.Kind]
			}
			for _, key := range said(all, code) {
				text, err := w.find(key, nil, args)
				require.NoError(t, err, key)
				assert.NotContains(t, text, "<no value>", key)
				assert.NotContains(t, text, "{{", key)
				assert.NotEmpty(t, text, key)
			}
		}
	}
}

// A given is a reason as the program gives it: where, and with which arguments.
type given struct {
	at, code string
	args     map[string]bool
	open     bool // some arguments are put together elsewhere
}

// reasons finds what is given as reason.Of("code", "argument", value, ...) and by what stands for it.
func reasons(t *testing.T) (out []given) {
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
				if code := literal(call.Args[0]); code != "" { // one that is worked out is not looked at
					g := given{files.Position(call.Pos()).String(), code, map[string]bool{}, call.Ellipsis.IsValid()}
					for i := 1; i < len(call.Args); i += 2 {
						g.args[literal(call.Args[i])] = true
					}
					out = append(out, g)
				}
				return true
			})
			return nil
		}))
	}
	return out
}

func literal(e ast.Expr) string {
	lit, ok := e.(*ast.BasicLit)
	if !ok {
		return ""
	}
	s, _ := strconv.Unquote(lit.Value)
	return s
}

// What the program gives is declared, with the arguments that are declared.
func TestReasonsAreGivenWhatTheySay(t *testing.T) {
	all := reasons(t)
	require.Greater(t, len(all), 150)
	for _, g := range all {
		takes, known := reason.Arguments(g.code)
		if !assert.True(t, known, "%s: %s is not declared", g.at, g.code) || g.open {
			continue
		}
		for _, a := range takes {
			assert.True(t, g.args[a.Name] || a.Optional || a.Kind == reason.Subject, "%s: %s lacks %s", g.at, g.code, a.Name)
			delete(g.args, a.Name)
		}
		assert.Empty(t, slices.Collect(maps.Keys(g.args)), "%s: %s does not take them", g.at, g.code)
	}
}

// Numbers choose their noun, lengths their unit, notes and keys their names.
func TestHowThingsAreWritten(t *testing.T) {
	british, american := In(Reader{Language: Base}), In(Reader{Language: "en-US", Inches: true})
	for _, c := range []struct {
		name string
		w    *Words
		r    reason.Reason
		want string
	}{
		{"one day", british, reason.Of("fading", "days", "1", "recall", "95"), "Last played 1 day ago. Chance that it still goes well: about 95%."},
		{"many days", british, reason.Of("fading", "days", "23", "recall", "81"), "Last played 23 days ago. Chance that it still goes well: about 81%."},
		{"today", british, reason.Of("fading", "days", "0", "recall", "81"), "Last played today. Chance that it still goes well: about 81%."},
		{"one goal", british, reason.Of("still-open", "count", "1", "first", "Tone"), "One goal left: Tone."},
		{"a date", british, reason.Of("sheet-not-sent", "day", "2026-11-18"), "The practice sheet of 18 November has not been sent."},
		{"centimetres", british, reason.Of("seat-too-high", "cm", "2.5"), "The lowest setting is 2.5 cm too high: find a lower seat."},
		{"inches, at 2.54 cm", american, reason.Of("seat-too-high", "cm", "25.4"), "The lowest setting is 10 in too high: find a lower seat."},
		{"a sharp", british, reason.Of("minute-start", "key", "F#4"), "Begins on F sharp."},
		{"a double flat", british, reason.Of("minute-start", "key", "Bbb2"), "Begins on B double flat."},
		{"a key", british, reason.Of("minute-key", "key", "Eb major", "likely", "", "half", "3"), "Key: E flat major. Semitones in bar 3."},
		{"bars", british, reason.Of("minute-shift", "bars", "3, 5–6"), "The hand moves along the neck in bars 3, 5–6."},
		{"new notes with their bars", british, reason.Of("new-notes", "notes", "F#4,C5", "bars", "3,8", "ids", "a,b"), "New notes: F sharp (bar 3), C (bar 8)."},
		{"a weekday", british, reason.Of("calendar-long-day", "on", "Wednesday", "minutes", "510"), "Wednesdays: 8.5 hours of lessons. That is a long day."},
		{"a day", british, reason.Of("calendar-long-day", "on", "2026-11-18", "minutes", "60"), "18 November: 1 hour of lessons. That is a long day."},
		{"a part of a lesson", british, reason.Of("drops-to", "kind", "upkeep", "title", "", "minutes", "3"), "Review is cut to 3 minutes."},
		{"a piece", british, reason.Of("drops-to", "kind", "current", "title", "Wet Boots", "minutes", "1"), "“Wet Boots” is cut to 1 minute."},
	} {
		assert.Equal(t, c.want, c.w.Reason(c.r), c.name)
	}
}

// An American reads American English: words and dates.
func TestAmericanEnglish(t *testing.T) {
	w := In(ReaderOf("en-US"))
	assert.Equal(t, "“Wet Boots” is learned.", w.Reason(reason.Of("foothold", "title", "Wet Boots")))
	assert.Equal(t, "The practice sheet of November 18 has not been sent.", w.Reason(reason.Of("sheet-not-sent", "day", "2026-11-18")))
	assert.Equal(t, "Wednesday, November 18", w.Day("2026-11-18"))
	assert.Equal(t, "3 measures", w.Count("bar", 3))
	assert.Equal(t, "Eighth notes (two to a beat)", w.SkillsAtHome("piano").Name("halves"))
	assert.Equal(t, "The lowest setting is 10 in too high: find a lower seat.", w.Reason(reason.Of("seat-too-high", "cm", "25.4")))
}

// British and American words never stand in one catalogue.
func TestOneEnglishAtATime(t *testing.T) {
	british := regexp.MustCompile(`(?i)\b(practise[sd]?|learnt|semitones?|crotchets?|(semi)?quavers?|minims?|upbeats?|spike|holidays?|programmes?|colours?)\b`)
	american := regexp.MustCompile(`(?i)\b(practiced|practices|learned|half steps?|(quarter|eighth|sixteenth) notes?|measures? [{0-9]|endpin|colors?)\b`)
	plain := regexp.MustCompile(`\{\{.*?\}\}`)
	for key, text := range catalogue(t, Base) {
		assert.NotRegexp(t, american, plain.ReplaceAllString(text, ""), key)
	}
	base, other := catalogue(t, Base), catalogue(t, "en-US")
	maps.Copy(base, other)
	for key, text := range base {
		assert.NotRegexp(t, british, plain.ReplaceAllString(text, ""), key)
	}
}

// A browser names the languages that its reader likes, the best first.
func TestTheLanguageThatABrowserAsksFor(t *testing.T) {
	for header, want := range map[string]string{"": Base, "en-US,en;q=0.9": "en-US", "en-GB": Base, "en": "en-US", "fi, en-GB;q=0.5": Base, "x;;": Base} {
		assert.Equal(t, want, Preferred(header), header)
	}
}

// A text that is missing stands as its key, so that nothing else is lost with it.
func TestATextThatIsMissing(t *testing.T) {
	assert.Empty(t, In(Reader{Language: Base}).Reason(reason.Reason{}), "no reason is no text")
	assert.Equal(t, "sheet.brand-new", In(Reader{Language: Base}).Reason(reason.Of("brand-new")))
}

func TestTheTestsLanguage(t *testing.T) {
	assert.Equal(t, "⟦Not measured yet. It takes a minute with a tape measure.~~~~~ ~~~~~ ~~~~~ ~⟧", Pseudo().Reason(reason.Of("measure-first")))
}

// A language that nobody has a catalogue of reads the base.
func TestAnUnknownLanguage(t *testing.T) {
	assert.Equal(t, "Needs no playing.", In(Reader{Language: "tlh"}).Reason(reason.Of("rests-the-hands")))
}

func ExampleWords_Count() {
	fmt.Println(In(Reader{Language: Base}).Count("week", 1), In(Reader{Language: Base}).Count("week", 3))
	// Output: 1 week 3 weeks
}
