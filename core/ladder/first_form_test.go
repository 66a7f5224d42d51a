package ladder

import (
	"compress/gzip"
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/shelf"
)

// The facts of nine students as they were written in the first form of the log,
// eight from the demo and one with every kind of fact, and the standing that the
// program of that time made of them. They must go on meaning the same.
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
		var facts []Fact
		for _, raw := range st.Facts {
			var f Fact
			require.NoError(t, json.Unmarshal(raw, &f))
			facts = append(facts, f)
		}
		b.WriteString("== " + st.Name + "\n" + digest(Fold(facts, items)))
	}
	const golden = "testdata/first-form.txt"
	if os.Getenv("WRITE_GOLDEN") != "" {
		require.NoError(t, os.WriteFile(golden, []byte(b.String()), 0o644))
	}
	want, err := os.ReadFile(golden)
	require.NoError(t, err)
	assert.Equal(t, string(want), b.String())
}
