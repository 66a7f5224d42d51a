package notation

import (
	"bytes"
	"encoding/json"
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/musicxml"
	"patientladder/core/pitch"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/internal/yardstick"
)

// long makes a score for two hands: runs of eighths, some bars the same again,
// some moved, as study books have them.
func long(b *testing.B, bars int) score.Score {
	p := score.Part{Staves: 2}
	for i := range bars {
		bar := score.Bar{Length: score.Quarters(4)}
		if i == 0 {
			bar.Meter, bar.Key = &score.Meter{Beats: 4, BeatType: 4}, &pitch.Key{Fifths: 1, Mode: "major"}
		}
		figure := i * i % 11
		for j := range 8 {
			up, err := pitch.New("CDEFGAB"[(figure+j)%7], 0, 5)
			require.NoError(b, err)
			down, err := pitch.New("CDEFGAB"[(figure*3+j)%7], 0, 3)
			require.NoError(b, err)
			bar.Notes = append(bar.Notes,
				score.Note{Onset: score.Frac(int64(j), 2), Duration: score.Frac(1, 2), Pitch: up, Voice: 1, Staff: 1, Fingers: []string{"1"}[:j%8/7]},
				score.Note{Onset: score.Frac(int64(j), 2), Duration: score.Frac(1, 2), Pitch: down, Voice: 2, Staff: 2})
		}
		p.Bars = append(p.Bars, bar)
	}
	s := score.Score{Title: "Long", Parts: []score.Part{p}}
	s.Finish()
	return s
}

// BenchmarkRead measures reading a 200-bar two-hand score, and reading it with all
// that a teacher reads off it, against Go's own XML decoder going through the same
// file token by token, and against an npm library parsing it.
func BenchmarkRead(b *testing.B) {
	file := musicxml.Write(long(b, 200))
	read := func() score.Score {
		got, err := Read("long.musicxml", file)
		require.NoError(b, err)
		require.Equal(b, 200, got.Bars())
		return got
	}
	whole := func() {
		page := reading.Read(read(), reading.Keyboard)
		demands := page.Demands()
		require.NotEmpty(b, page.Minute(demands))
		require.NotEmpty(b, page.Chunks(4))
	}
	tokens := func() {
		d := xml.NewDecoder(bytes.NewReader(file))
		for {
			if _, err := d.Token(); err == io.EOF {
				return
			} else if err != nil {
				b.Fatal(err)
			}
		}
	}
	yardstick.Print("read-200-bars", 40, func() { read() }, tokens, fmt.Sprintf("encoding/xml going through the same %d kB", len(file)>>10))
	name := filepath.Join(b.TempDir(), "long.musicxml")
	require.NoError(b, os.WriteFile(name, file, 0o600))
	out, err := exec.Command("node", "../../web/checks/parse.mjs", name, "40").Output()
	require.NoError(b, err, "the check needs the packages of web/: run npm ci there")
	var theirs float64
	require.NoError(b, json.Unmarshal(out, &theirs))
	var ours []float64
	for range 40 {
		ours = append(ours, yardstick.Took(whole))
	}
	ms := yardstick.Median(ours)
	fmt.Printf("read-and-analyse-200-bars ratio %.2f (ours %.2f ms, yardstick %.2f ms: an npm reader parsing the same file, warm)\n", ms/theirs, ms, theirs)
}

// BenchmarkGrowth measures how reading off a score grows with its bars, beside
// n log n over the same lengths.
func BenchmarkGrowth(b *testing.B) {
	sizes := []float64{625, 1250, 2500, 5000}
	steps := []struct {
		name string
		do   func(s score.Score, line []reading.Chord)
	}{
		{"direction", func(_ score.Score, line []reading.Chord) { reading.Directions(line) }},
		{"intervals", func(_ score.Score, line []reading.Chord) { reading.Melodic(line) }},
		{"positions", func(_ score.Score, line []reading.Chord) { reading.Positions(line, reading.Right) }},
		{"bar patterns", func(s score.Score, _ []reading.Chord) { reading.Bars(s) }},
		{"figures", func(s score.Score, _ []reading.Chord) { reading.Figures(s) }},
	}
	for _, step := range steps {
		var times, logs []float64
		for _, n := range sizes {
			s := long(b, int(n))
			line := reading.Line(s.Parts[0], 1, s.Written())
			var ms []float64
			for range 9 {
				ms = append(ms, yardstick.Took(func() { step.do(s, line) }))
			}
			times, logs = append(times, yardstick.Median(ms)), append(logs, n*math.Log(n))
		}
		fmt.Printf("growth of %s: exponent %.2f, of n log n %.2f (%.0f to %.0f bars: %.2f to %.2f ms)\n",
			step.name, yardstick.Exponent(sizes, times), yardstick.Exponent(sizes, logs), sizes[0], sizes[3], times[0], times[3])
	}
}
