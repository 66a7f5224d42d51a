package notation

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
)

// A format is its package and one entry: with it files are told, read, split, written,
// listed and offered.
func TestAFormatIsOneEntry(t *testing.T) {
	before := codecs
	defer func() { codecs = before }()
	tune := score.Score{Title: "Hummed"}
	codecs = append(codecs[:len(codecs):len(codecs)], codec{format: "hum", name: "Hummed notes", endings: []string{".hum"}, media: "text/x-hum",
		is:    func(_ string, head []byte) bool { return bytes.HasPrefix(head, []byte("HUM")) },
		read:  func([]byte) (score.Score, error) { return tune, nil },
		write: func(score.Score) ([]byte, error) { return []byte("HUM"), nil },
		split: func(data []byte) (list []Tune) {
			for line := range bytes.SplitSeq(data, []byte("\n")) {
				list = append(list, Tune{Data: line})
			}
			return list
		}})
	f, err := Detect("x", []byte("HUM hm"))
	require.NoError(t, err)
	assert.Equal(t, []string{"hum", "Hummed notes", "text/x-hum", ".hum"}, []string{string(f), f.Name(), f.Media(), f.Ending()})
	s, err := Read("x", []byte("HUM hm"))
	require.NoError(t, err)
	assert.Equal(t, tune, s)
	tunes, err := Split("x", []byte("HUM a\nHUM b"))
	require.NoError(t, err)
	assert.Len(t, tunes, 2)
	data, err := Write("hum", tune)
	require.NoError(t, err)
	assert.Equal(t, "HUM", string(data))
	assert.Empty(t, Losses("hum", tune))
	assert.Contains(t, Formats(), Format("hum"))
	assert.Contains(t, Endings(), ".hum")
	named, known := Named("a.HUM")
	assert.True(t, known && named == "hum")
	engraved, err := Engraved("x", []byte("HUM"))
	require.NoError(t, err)
	assert.Contains(t, string(engraved), "Hummed")
	_, err = Read("x", []byte("hm"))
	assert.ErrorContains(t, err, "or Hummed notes (.hum)")
}

func TestFormatsThatAreNotThere(t *testing.T) {
	var f Format = "tape"
	assert.Equal(t, []string{"tape", "application/octet-stream", ""}, []string{f.Name(), f.Media(), f.Ending()})
	_, err := Write(f, score.Score{})
	assert.ErrorContains(t, err, `"tape" is not a format that is written: musicxml, mxl, midi, abc`)
	_, known := Named("a.tape")
	assert.False(t, known)
	tunes, err := Split("a.tape", []byte("?"))
	require.NoError(t, err)
	assert.Equal(t, []Tune{{Data: []byte("?")}}, tunes)
}
