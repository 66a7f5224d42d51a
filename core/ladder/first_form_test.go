package ladder

import (
	"compress/gzip"
	"encoding/json"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/shelf"
)

// The facts of nine students as they were written in the first form of the log,
// eight from the demo and one with every kind of fact, and the standing that the
// program of that time made of them. They must go on meaning the same; but marks of
// points and spots that are not there are kept aside now, where they had vanished, and
// standing points are no longer written on cards.
func TestFactsOfTheFirstFormMeanTheSame(t *testing.T) {
	file, err := os.Open("testdata/first-form.json.gz")
	require.NoError(t, err)
	defer file.Close()
	plain, err := gzip.NewReader(file)
	require.NoError(t, err)
	var log struct {
		Items    []shelf.Item
		Students []struct {
			Name  string
			Facts []json.RawMessage
		}
	}
	require.NoError(t, json.NewDecoder(plain).Decode(&log))
	items := map[string]shelf.Item{}
	for _, it := range log.Items {
		items[it.ID] = it
	}
	var b strings.Builder
	for _, st := range log.Students {
		var facts []fact.Fact
		for _, raw := range st.Facts {
			var f struct { // a row of the log
				ID, Student string
				At          time.Time
				Kind        fact.Kind
			}
			require.NoError(t, json.Unmarshal(raw, &f))
			body, err := fact.Lift(f.Kind, 1, raw)
			require.NoError(t, err)
			facts = append(facts, fact.Fact{ID: f.ID, Student: f.Student, At: f.At, Body: body})
		}
		b.WriteString("== " + st.Name + "\n" + digest(Fold(facts, items)))
	}
	const golden = "testdata/first-form.txt"
	if os.Getenv("WRITE_GOLDEN") != "" {
		require.NoError(t, os.WriteFile(golden, []byte(b.String()), 0o644))
	}
	want, err := os.ReadFile(golden)
	require.NoError(t, err)
	lines := strings.Split(b.String(), "\n")
	for i, line := range strings.Split(string(want), "\n") {
		require.Less(t, i, len(lines), "%s is missing", line)
		require.Equal(t, line, lines[i], "line %d", i+1)
	}
}
