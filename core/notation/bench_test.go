package notation

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime/debug"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation/musicxml"
	"patientladder/core/pitch"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/internal/yardstick"
)

// long makes a score for two hands: the right mostly in eighths, the left in
// halves and quarters, some bars the same again, some moved, as pieces have them.
func long(b *testing.B, bars int) score.Score {
	p := score.Part{Staves: 2}
	for i := range bars {
		bar := score.Bar{Length: score.Quarters(4)}
		if i == 0 {
			bar.Meter, bar.Key = &score.Meter{Beats: 4, BeatType: 4}, &pitch.Key{Fifths: 1, Mode: "major"}
		}
		figure := i * i % 11
		put := func(voice, line int, onset, length score.Time) {
			at, err := pitch.New("CDEFGAB"[line%7], 0, 5-2*(voice-1))
			require.NoError(b, err)
			bar.Notes = append(bar.Notes, score.Note{Onset: onset, Duration: length, Pitch: at, Voice: voice, Staff: voice})
		}
		for j := range int64(8 - 2*(i%2)) {
			put(1, figure+int(j), score.Frac(j, 2), score.Frac(1, 2))
		}
		if i%2 == 1 {
			put(1, figure, score.Quarters(3), score.Quarters(1))
		}
		for j := range int64(2 + figure%3) {
			length := score.Frac(4, 2+int64(figure%3))
			onset, err := length.Scaled(j, 1)
			require.NoError(b, err)
			put(2, 3*figure+2*int(j), onset, length)
		}
		p.Bars = append(p.Bars, bar)
	}
	s := score.Score{Title: "Long", Parts: []score.Part{p}}
	s.Finish()
	return s
}

// exported writes a score as notation programs export it: with what they say of
// the page at each note, stem and bar, which a reader has to get past.
func exported(s score.Score) []byte {
	text := string(musicxml.Write(s))
	text = strings.ReplaceAll(text, "<note id", `<note default-x="142.35" default-y="-35.00" id`)
	text = strings.ReplaceAll(text, "</type>", `</type><stem default-y="5.00">up</stem>`)
	return []byte(strings.ReplaceAll(text, "<measure ", `<measure width="213.60" `))
}

// analysed reads a file with all that a teacher reads off it.
func analysed(b *testing.B, file []byte) {
	s, err := Read("long.musicxml", file)
	require.NoError(b, err)
	page := reading.Read(s, instrument.Shipped.Of("piano"))
	require.NotEmpty(b, page.Minute(page.Demands()))
	require.NotEmpty(b, page.Chunks(4))
}

// onceFile names the file that BenchmarkReadOnce reads, in a process of its own.
const onceFile = "LADDER_BENCH_READ_ONCE"

// BenchmarkReadOnce reads and analyses one file once, as a new process does, and
// prints how long that took.
func BenchmarkReadOnce(b *testing.B) {
	name := os.Getenv(onceFile)
	if name == "" {
		b.Skip("BenchmarkRead asks for it")
	}
	file, err := os.ReadFile(name)
	require.NoError(b, err)
	debug.SetGCPercent(400) // as the program does
	fmt.Println(yardstick.Took(func() { analysed(b, file) }))
}

// BenchmarkRead measures reading a 200-bar two-hand score against Go's own XML
// decoder going through the same file token by token; and reading it with all
// that a teacher reads off it against an npm library merely parsing it, each for
// the first time in a new process, as a file is imported, and each when warm.
func BenchmarkRead(b *testing.B) {
	file := exported(long(b, 200))
	yardstick.Print("read-200-bars", 40, func() {
		s, err := Read("long.musicxml", file)
		require.NoError(b, err)
		require.Equal(b, 200, s.Bars())
	}, func() {
		d := xml.NewDecoder(bytes.NewReader(file))
		for {
			if _, err := d.Token(); err == io.EOF {
				return
			} else if err != nil {
				b.Fatal(err)
			}
		}
	}, fmt.Sprintf("encoding/xml going through the same %d kB", len(file)>>10))

	name := filepath.Join(b.TempDir(), "long.musicxml")
	require.NoError(b, os.WriteFile(name, file, 0o600))
	own, err := os.Executable()
	require.NoError(b, err)
	printed := func(cmd *exec.Cmd) (ms float64) {
		out, err := cmd.Output()
		require.NoError(b, err)
		for line := range strings.Lines(string(out)) {
			if _, err := fmt.Sscan(line, &ms); err == nil {
				return ms
			}
		}
		b.Fatalf("no time in %q", out)
		return 0
	}
	parse := func(rounds string) float64 {
		return printed(exec.Command("node", "../../web/checks/parse.mjs", name, rounds))
	}
	var ours, theirs []float64
	for range 25 { // a machine has its moods
		once := exec.Command(own, "-test.run", "^$", "-test.bench", "^BenchmarkReadOnce$", "-test.benchtime", "1x")
		once.Env = append(os.Environ(), onceFile+"="+name)
		ours, theirs = append(ours, printed(once)), append(theirs, parse("1"))
	}
	first, firstTheirs := yardstick.Median(ours), yardstick.Median(theirs)
	ours = nil
	defer debug.SetGCPercent(debug.SetGCPercent(400))
	for range 40 {
		ours = append(ours, yardstick.Took(func() { analysed(b, file) }))
	}
	warm, warmTheirs := yardstick.Median(ours), parse("40")
	fmt.Printf("read-and-analyse-200-bars ratio %.2f (ours %.2f ms, yardstick %.2f ms: an npm reader parsing the same file, each once in a new process)\n", first/firstTheirs, first, firstTheirs)
	fmt.Printf("read-and-analyse-200-bars-warm ratio %.2f (ours %.2f ms, yardstick %.2f ms: the same, after forty times in one process)\n", warm/warmTheirs, warm, warmTheirs)
}

// BenchmarkGrowth measures how reading off a score grows with its bars, beside copying
// the same chords, which grows as n, and sorting them, as n log n: all meet the same
// caches, in which a short piece has room and a long one has not. The fastest of a
// size's rounds counts: the one that the machine disturbed least.
func BenchmarkGrowth(b *testing.B) {
	defer debug.SetGCPercent(debug.SetGCPercent(400)) // as the program does
	sizes := []float64{625, 1250, 2500, 5000}
	rng := rand.New(rand.NewPCG(5, 8))
	steps := []struct {
		name string
		do   func(s score.Score, line []reading.Chord)
	}{
		{"copying the same chords", func(_ score.Score, line []reading.Chord) { _ = slices.Clone(line) }},
		{"sorting the same chords", func(_ score.Score, line []reading.Chord) {
			mixed := slices.Clone(line)
			rng.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
			slices.SortFunc(mixed, func(a, b reading.Chord) int { return a.Onset.Cmp(b.Onset) })
		}},
		{"direction", func(_ score.Score, line []reading.Chord) { reading.Directions(line) }},
		{"intervals", func(_ score.Score, line []reading.Chord) { reading.Melodic(line) }},
		{"positions", func(_ score.Score, line []reading.Chord) { reading.Positions(line, reading.Right, false) }},
		{"bar patterns", func(s score.Score, _ []reading.Chord) { reading.Bars(s) }},
		{"figures", func(s score.Score, _ []reading.Chord) { reading.Figures(s) }},
	}
	for _, step := range steps {
		var times []float64
		for _, n := range sizes {
			s := long(b, int(n))
			line := reading.Line(s.Parts[0], 1, s.Written())
			var ms []float64
			for range 25 {
				ms = append(ms, yardstick.Took(func() { step.do(s, line) }))
			}
			times = append(times, slices.Min(ms))
		}
		fmt.Printf("growth of %s: exponent %.2f (%.0f to %.0f bars: %.2f to %.2f ms)\n", step.name, yardstick.Exponent(sizes, times), sizes[0], sizes[3], times[0], times[3])
	}
}
