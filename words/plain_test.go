package words

import (
	"encoding/json"
	"fmt"
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
)

// replaced are words that the program once had of its own, each with the one that a teacher says.
var replaced = map[string]string{
	`foothold|\bdone means\b`:              "learnt",
	`\bpolished\b`:                         "performance-ready",
	`\bupkeep\b|kept alive|old friend`:     "review",
	`head start`:                           "preparation",
	`\blandings?\b|\bclimbs?\b|\bloads?\b`: "easy, about right, challenging; difficulty",
	`\blanes?\b|\bstrands?\b`:              "area",
	`\brungs?\b`:                           "piece, exercise, activity, item",
	`\bchunks?\b`:                          "section",
	`\bin hand\b`:                          "current",
	`\bparked?\b`:                          "on hold",
	`\bforetold\b`:                         "expected",
	`\brevisits\b`:                         "reinforces",
	`from afar`:                            "online",
	`\btake(s)? on\b`:                      "add",
	`bring (it |them |one )?in\b`:          "import",
	`lay(s)? away`:                         "archive",
	`\bstruck\b`:                           "removed",
	`\bworkbench\b`:                        "tools",
	`shared hour`:                          "group lesson",
	`\blopes?\b`:                           "uneven",
	`exit test`:                            "passed when",
	`fell apart|\buphill\b`:                "not yet, hard going",
	`\bdecks?\b`:                           "flashcards",
	`losing heart`:                         "losing interest",
	`\bmail address`:                       "email address",
	`\bwhoever\b|\bsomebody\b`:             "anyone, someone",
	`taken for granted`:                    "assumed known",
	`[0-9}]′`:                              "min",
}

// allowed are the places where such a word is meant as it is said elsewhere.
var allowed = map[string]string{
	"game deck":    "the deck of a ship",
	"game climb":   "a sound that climbs",
	"game lane":    "the lanes that a bow keeps to",
	"task landing": "the note that a hand lands on",
}

// What a person reads has the words that teachers use. Lines of the practice sheet are rewritten with the
// sheet itself, and are not looked at here.
func TestPlainWords(t *testing.T) {
	texts := catalogue(t, Base)
	screens, err := os.ReadFile("../web/words/en-GB.json")
	require.NoError(t, err)
	var more map[string]string
	require.NoError(t, json.Unmarshal(screens, &more))
	for key, text := range more {
		texts["screen "+key] = text
	}
	for i, text := range errorTexts(t) {
		texts[fmt.Sprintf("error.%d", i)] = text
	}
	arguments := regexp.MustCompile(`\{\{[^{}]*\}\}|\{\w+`)
	for word, instead := range replaced {
		old := regexp.MustCompile(`(?i)` + word)
		for key, text := range texts {
			section, _, _ := strings.Cut(key, ".")
			if section == "sheet" || section == "line" {
				continue
			}
			found := strings.ToLower(old.FindString(arguments.ReplaceAllString(text, "")))
			if allowed[section+" "+strings.TrimSuffix(found, "s")] != "" {
				continue
			}
			assert.Empty(t, found, "%s says %q: say %s", key, text, instead)
		}
	}
}

// errorTexts are what the program refuses things with: the first texts of calls that make errors for a
// person.
func errorTexts(t *testing.T) (out []string) {
	for _, root := range []string{"../core", "../studio", "../server"} {
		require.NoError(t, filepath.WalkDir(root, func(path string, entry fs.DirEntry, err error) error {
			if err != nil || entry.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
			if err != nil {
				return err
			}
			ast.Inspect(file, func(n ast.Node) bool {
				if call, is := n.(*ast.CallExpr); is {
					of, _ := call.Fun.(*ast.SelectorExpr)
					for _, a := range call.Args {
						if lit, is := a.(*ast.BasicLit); is && of != nil && lit.Kind == token.STRING && (of.Sel.Name == "Errorf" || of.Sel.Name == "Refuse") {
							if text, err := strconv.Unquote(lit.Value); err == nil {
								out = append(out, text)
							}
						}
					}
				}
				if pair, is := n.(*ast.KeyValueExpr); is {
					key, _ := pair.Key.(*ast.Ident)
					if lit, is := pair.Value.(*ast.BasicLit); is && key != nil && key.Name == "Says" && lit.Kind == token.STRING {
						if text, err := strconv.Unquote(lit.Value); err == nil {
							out = append(out, text)
						}
					}
				}
				return true
			})
			return nil
		}))
	}
	return out
}
