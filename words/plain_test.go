package words

import (
	"encoding/json"
	"os"
	"regexp"
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
