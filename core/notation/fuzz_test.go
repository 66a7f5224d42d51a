package notation

import (
	"errors"
	"maps"
	"math/rand/v2"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/score"
	"patientladder/internal/full"
)

// seeds returns some shipped scores in every format.
func seeds(t testing.TB) map[string][]byte {
	out := map[string][]byte{}
	for _, name := range []string{"low-six.abc", "harbour-mole.abc", "shore-lights.musicxml", "open-thirds.abc", "bow-jig.abc", "harbour-fog.musicxml"} {
		data, err := os.ReadFile(filepath.Join("../../demo/scores", name))
		require.NoError(t, err)
		out[name] = data
		s, err := Read(name, data)
		require.NoError(t, err)
		for f, ext := range map[Format]string{ABC: ".abc", MIDI: ".mid", Compressed: ".mxl", MusicXML: ".musicxml"} {
			file, err := Write(f, s)
			require.NoError(t, err)
			out[name+ext] = file
		}
	}
	return out
}

// frugal fails when one reading or writing takes more than 256 MB in all.
func frugal[T any](t testing.TB, what string, f func() (T, error)) (T, error) {
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	out, err := f()
	runtime.ReadMemStats(&after)
	if took := after.TotalAlloc - before.TotalAlloc; took > 256<<20 {
		t.Fatalf("%s took %d MB", what, took>>20)
	}
	return out, err
}

// through reads a file and, when it is a score, writes it in every format and
// reads that again.
func through(t testing.TB, data []byte) {
	s, err := frugal(t, "reading", func() (score.Score, error) { return Read("", data) })
	if err != nil {
		var at *score.SyntaxError
		if !errors.As(err, &at) {
			t.Fatalf("not a syntax error: %v", err)
		}
		return
	}
	if s.Bars() > 1000 {
		return // a few bytes of MIDI may be hours of music: read, and that is enough
	}
	if _, err := frugal(t, "drawing", func() ([]byte, error) { return Engraved("", data) }); err != nil {
		t.Fatalf("read, but not drawn: %v", err)
	}
	for _, plays := range instrument.Shipped {
		_, _ = frugal(t, "reading off it", func() ([]reason.Reason, error) {
			page := reading.Read(s, plays)
			for _, layer := range page.LayerNames() {
				page.Layer(layer, reading.Ask{Size: 4, Known: reading.Landmarks, Words: reading.OwnWords})
			}
			return page.Minute(page.Demands()), nil
		})
	}
	for _, f := range []Format{ABC, MIDI, MusicXML} {
		file, err := frugal(t, "writing", func() ([]byte, error) { return Write(f, s) })
		if err != nil {
			continue // said in words: a length that the format has no sign for
		}
		if _, err := frugal(t, "reading back", func() (score.Score, error) { return Read("", file) }); err != nil {
			t.Fatalf("what was written as %s is not read: %v\n%s", f, err, file)
		}
		Losses(f, s)
	}
}

func FuzzThroughEveryFormat(f *testing.F) {
	for _, data := range seeds(f) {
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		if len(data) <= 1<<15 {
			through(t, data)
		}
	})
}

// Files with a few bytes changed, cut out or doubled, ten thousand in full: each is read
// or refused with a syntax error, in at most 256 MB.
func TestDamagedFiles(t *testing.T) {
	rng := rand.New(rand.NewPCG(10, 4))
	good := seeds(t)
	names := slices.Sorted(maps.Keys(good))
	for i := range full.Or(1000, 10000) {
		data := append([]byte{}, good[names[i%len(names)]]...)
		for range 1 + rng.IntN(6) {
			at, n := rng.IntN(len(data)), 1+rng.IntN(8)
			switch end := min(at+n, len(data)); rng.IntN(4) {
			case 0:
				data[at] = byte(rng.IntN(256))
			case 1:
				if len(data) > 64 {
					data = append(data[:at], data[end:]...)
				}
			case 2:
				data = append(data[:end:end], data[at:]...)
			case 3:
				data[at] = "0123456789<>&:|[]()/-"[rng.IntN(21)]
			}
		}
		through(t, data)
	}
}
