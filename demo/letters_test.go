package demo

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/letter"
	"patientladder/words"
)

// The page that goes with each demo student's mail is one page, and its text holds
// every task.
func TestPagesOfEveryStudent(t *testing.T) {
	app, who, store := seeded(t)
	_, weeks := ferryHouse(t, app, who, store)
	pages := 0
	for name, view := range weeks {
		if view.Sheet == nil {
			continue // Pip has had no lesson
		}
		for _, paper := range []letter.Paper{letter.A4, letter.USLetter} {
			l, err := letter.Write(letter.Ask{FirstName: name, Studio: view.Studio, Sheet: *view.Sheet, Paper: paper, Words: words.In(words.Reader{Language: words.Base})})
			require.NoError(t, err, name)
			file := filepath.Join(t.TempDir(), "page.pdf")
			require.NoError(t, os.WriteFile(file, l.Page, 0o600))
			if dir := os.Getenv("LADDER_PAGES"); dir != "" { // to be looked at
				require.NoError(t, os.WriteFile(filepath.Join(dir, "mail "+name+" "+string(paper)+".pdf"), l.Page, 0o600))
			}
			info, err := exec.Command("pdfinfo", file).Output()
			require.NoError(t, err)
			assert.Regexp(t, `Pages:\s+1\n`, string(info), "%s on %s", name, paper)
			text, err := exec.Command("pdftotext", "-raw", file, "-").Output()
			require.NoError(t, err)
			said := strings.Join(strings.Fields(string(text)), " ")
			for _, d := range view.Sheet.Days {
				for _, task := range d.Tasks {
					assert.Contains(t, said, task.Title)
					if task.Band != "upkeep" {
						assert.Contains(t, said, task.Says.What)
					}
				}
			}
			pages++
		}
	}
	assert.Equal(t, 28, pages)
}
