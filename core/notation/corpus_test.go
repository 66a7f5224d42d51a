package notation

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
			ours, missed := map[int]int{}, 0
			for _, p := range s.Parts {
				for staff := 1; staff <= p.Staves; staff++ {
					for _, n := range p.Sounding(staff, s.Played()) {
						ours[n.Pitch.MIDI()]++
					}
				}
			}
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
	keys := map[int]int{}
	for line := range strings.Lines(string(text)) {
		var at, channel, key, velocity int
		if n, _ := fmt.Sscanf(line, "Time=%d Note on, chan=%d pitch=%d vol=%d", &at, &channel, &key, &velocity); n == 4 && velocity > 0 && channel != 10 {
			keys[key]++
		}
	}
	return keys
}
