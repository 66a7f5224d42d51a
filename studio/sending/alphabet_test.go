package sending_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/letter"
	"patientladder/mail"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/library"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
	"patientladder/studio/studiotest"
)

// A name of whatever alphabet comes whole through sheet, letter, page and report, at the
// beginning of a sentence and in the middle of one.
func TestNamesOfAnyAlphabet(t *testing.T) {
	for _, name := range []string{"Écoute la basse", "Øvre tone", "Änderung", "Šepot"} {
		t.Run(name, func(t *testing.T) {
			r := studiotest.New(t)
			require.NoError(t, library.AddItems(ctx, r.App, r.Who, []store.NewItem{{
				Item: shelf.Item{ID: "own", Title: name, Instrument: "cello", Strand: shelf.Book, Bars: 8, Points: shelf.PointsOf(name, "Tone")}}}))
			own := r.Tell(fact.RungAdded{Item: "own", Strand: "book", After: fact.Top})
			r.Tell(fact.LessonOpened{Day: "2026-11-18"})
			r.Tell(fact.Taught{Rung: own})
			r.Tell(fact.LessonClosed{Day: "2026-11-18"})
			require.NoError(t, roster.SetContact(ctx, r.App, r.Who, r.Student, studio.Set(roster.Contact{Address: "parent@homes.example"})))
			var took []mail.Letter
			r.App.Mails(choosyPost{took: &took}, "http://ladder.example")
			id := studio.NewID()
			sends(r, id)
			fared(r, id, time.Minute)
			drafted, err := sending.Report(ctx, r.App, r.Who, r.Student, "")
			require.NoError(t, err)
			require.NoError(t, sending.KeepReport(ctx, r.App, r.Who, r.Student, studio.Set(drafted.Report)))
			id = studio.NewID()
			_, err = sending.SendReport(ctx, r.App, r.Who, r.Student, drafted.Report.Term.From, id, letter.A4)
			require.NoError(t, err)
			fared(r, id, time.Minute)
			require.Len(t, took, 2)

			sheet := studiotest.JSON(t, r.Week().Sheet)
			whole(t, "sheet", sheet, name)
			for i, what := range []string{"letter", "report"} {
				whole(t, what, took[i].Text, name)
				whole(t, what+" in HTML", took[i].HTML, name)
			}
			file := filepath.Join(t.TempDir(), "page.pdf")
			require.NoError(t, os.WriteFile(file, took[0].Files[0].Data, 0o600))
			page, err := exec.Command("pdftotext", "-layout", file, "-").Output()
			require.NoError(t, err, "pdftotext comes with the Debian package poppler-utils")
			whole(t, "page", string(page), name)
		})
	}
}

// whole holds that a text is of whole characters and has the name, as it is or with a small
// first letter.
func whole(t *testing.T, what, text, name string) {
	t.Helper()
	assert.True(t, utf8.ValidString(text), what)
	assert.NotContains(t, text, string(utf8.RuneError), what)
	first, n := utf8.DecodeRuneInString(name)
	assert.True(t, strings.Contains(text, name) || strings.Contains(text, string(unicode.ToLower(first))+name[n:]), "the %s has no %s: %s", what, name, text)
	assert.NotRegexp(t, `[^`+string(first)+string(unicode.ToLower(first))+`]`+name[n:], text, what)
}
