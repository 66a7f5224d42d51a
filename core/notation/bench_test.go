package notation

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"io"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/musicxml"
	"patientladder/core/pitch"
	"patientladder/core/score"
	"patientladder/internal/yardstick"
)

// BenchmarkRead measures reading a 200-bar two-hand score against Go's own XML
// decoder going through the same file token by token.
func BenchmarkRead(b *testing.B) {
	p := score.Part{Staves: 2}
	for i := range 200 {
		bar := score.Bar{Length: score.Quarters(4)}
		if i == 0 {
			bar.Meter, bar.Key = &score.Meter{Beats: 4, BeatType: 4}, &pitch.Key{Fifths: 1, Mode: "major"}
		}
		for j := range 8 {
			up, err := pitch.New("CDEFGAB"[(i+j)%7], 0, 5)
			require.NoError(b, err)
			down, err := pitch.New("CDEFGAB"[(i*3+j)%7], 0, 3)
			require.NoError(b, err)
			bar.Notes = append(bar.Notes,
				score.Note{Onset: score.Frac(int64(j), 2), Duration: score.Frac(1, 2), Pitch: up, Voice: 1, Staff: 1, Fingers: []string{"1"}},
				score.Note{Onset: score.Frac(int64(j), 2), Duration: score.Frac(1, 2), Pitch: down, Voice: 2, Staff: 2})
		}
		p.Bars = append(p.Bars, bar)
	}
	s := score.Score{Title: "Long", Parts: []score.Part{p}}
	s.Finish()
	file := musicxml.Write(s)
	read := func() {
		got, err := Read("long.musicxml", file)
		require.NoError(b, err)
		require.Equal(b, 200, got.Bars())
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
	yardstick.Print("read-200-bars", 40, read, tokens, fmt.Sprintf("encoding/xml going through the same %d kB", len(file)>>10))
}
