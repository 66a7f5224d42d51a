package notation

import (
	"bufio"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"sort"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
)

func tunes(t *testing.T, ext string) []string {
	var names []string
	for _, dir := range []string{"../../demo/scores/*", "testdata/*"} {
		more, err := filepath.Glob(dir + ext)
		require.NoError(t, err)
		names = append(names, more...)
	}
	require.GreaterOrEqual(t, len(names), 12)
	return names
}

var (
	keyLine = regexp.MustCompile(`(?m)^K:.*\n`)
	touch   = regexp.MustCompile(`(?:[.~T]|!trill!)([_=^]*[A-Ga-g])`)
)

// plain keeps a tune's notes from being played otherwise than written: chords
// are struck at once, not rolled, and detached notes and ornaments are left as
// notes of their written length.
func plain(tune string) string {
	chords := "%%MIDI chordattack 0\n"
	if strings.Contains(tune, "V:2") {
		even := chords
		chords = ""
		for _, v := range []string{"V:1\n", "V:2\n", "V:3\n", "V:4\n"} {
			if strings.Contains(tune, v) || strings.Contains(tune, "["+v[:3]+"]") {
				chords += v + even
			}
		}
	}
	tune = keyLine.ReplaceAllStringFunc(tune, func(k string) string { return k + chords })
	return touch.ReplaceAllString(tune, "$1")
}

// What we read from ABC is what Debian's abc2midi plays, as mftext tells it:
// the same keys at the same ticks. abc2midi begins a note up to one tick late
// and leaves a tick between notes; a tick is 1/480 of a quarter note.
func TestABCAgainstAbc2midi(t *testing.T) {
	for _, name := range tunes(t, ".abc") {
		t.Run(filepath.Base(name), func(t *testing.T) {
			data, err := os.ReadFile(name)
			require.NoError(t, err)
			mid := filepath.Join(t.TempDir(), "tune.mid")
			even := filepath.Join(t.TempDir(), "even.abc")
			require.NoError(t, os.WriteFile(even, []byte(plain(string(data))), 0o600))
			out, err := exec.Command("abc2midi", even, "-o", mid).CombinedOutput()
			require.NoError(t, err, "abc2midi comes with the Debian package abcmidi: %s", out)
			text, err := exec.Command("mftext", mid).Output()
			require.NoError(t, err)
			want := midiTimes(t, string(text), 1)
			s, err := Read(name, data)
			require.NoError(t, err)
			var got [][3]int // onset, end, key
			for _, p := range s.Parts {
				for staff := 1; staff <= p.Staves; staff++ {
					for _, n := range p.Sounding(staff, s.Played()) {
						tick := func(t score.Time) int { return int(math.Round(t.Float() * 480)) }
						got = append(got, [3]int{tick(n.Onset), tick(n.Onset.Add(n.Duration)), n.Pitch.MIDI()})
					}
				}
			}
			order(got)
			order(want)
			require.Len(t, got, len(want))
			for i := range got {
				assert.InDelta(t, want[i][0], got[i][0], 1, "onset of note %d", i)
				assert.InDelta(t, want[i][1], got[i][1], 1, "end of note %d", i)
				assert.Equal(t, want[i][2], got[i][2], "key of note %d", i)
			}
		})
	}
}

func order(notes [][3]int) {
	sort.Slice(notes, func(i, j int) bool {
		a, b := notes[i], notes[j]
		if a[0]/4 != b[0]/4 {
			return a[0] < b[0]
		}
		return a[2] < b[2]
	})
}

// midiTimes reads mftext's listing of note-on and note-off lines. late is by how
// many ticks notes begin after their time.
func midiTimes(t *testing.T, text string, late int) [][3]int {
	var notes [][3]int
	open := map[[2]int]int{}
	for sc := bufio.NewScanner(strings.NewReader(text)); sc.Scan(); {
		var at, channel, key, velocity int
		line := sc.Text()
		if n, _ := fmt.Sscanf(line, "Time=%d Note on, chan=%d pitch=%d vol=%d", &at, &channel, &key, &velocity); n == 4 && velocity > 0 {
			open[[2]int{channel, key}] = len(notes)
			if at > 0 {
				at -= late
			}
			notes = append(notes, [3]int{at, 0, key})
		} else if n, _ := fmt.Sscanf(line, "Time=%d Note off, chan=%d pitch=%d", &at, &channel, &key); n == 3 {
			notes[open[[2]int{channel, key}]][1] = at
		}
	}
	require.NotEmpty(t, notes)
	return notes
}

// What we read from MusicXML is what an npm reader reads, in files from elsewhere
// and in what we write of every shipped score; and it finds nothing amiss in them.
func TestMusicXMLAgainstAnotherReader(t *testing.T) {
	names := append(tunes(t, ".musicxml"), "musicxml/testdata/two-staves.musicxml")
	dir := t.TempDir()
	for name, s := range shipped(t) {
		file, err := Write(MusicXML, s)
		require.NoError(t, err)
		names = append(names, filepath.Join(dir, name+".musicxml"))
		require.NoError(t, os.WriteFile(names[len(names)-1], file, 0o600))
	}
	agree(t, names, true)
}

// agree holds what we read of MusicXML files against the npm library musicxml-io: the same notes
// in the same places; and where it is asked nothing amiss in the file.
func agree(t *testing.T, names []string, sound bool) {
	read := checked[struct {
		Notes [][6]any
		Flaws []string
	}](t, "musicxml.mjs", names)
	for _, name := range names {
		t.Run(filepath.Base(name), func(t *testing.T) {
			data, err := os.ReadFile(name)
			require.NoError(t, err)
			s, err := Read(name, data)
			require.NoError(t, err)
			var got, want []string
			for pi, p := range s.Parts {
				for bi, b := range p.Bars {
					for _, n := range b.Notes {
						if !n.Rest && !n.Grace {
							got = append(got, fmt.Sprintf("part %d staff %d bar %d at %.4f for %.4f %s", pi+1, n.Staff, bi+1, n.Onset.Float(), n.Duration.Float(), n.Pitch))
						}
					}
				}
			}
			if sound {
				assert.Empty(t, read[name].Flaws)
			}
			for _, n := range read[name].Notes {
				want = append(want, fmt.Sprintf("part %v staff %v bar %v at %.4f for %.4f %v", n[0], n[1], n[2], n[3], n[4], n[5]))
			}
			sort.Strings(got)
			sort.Strings(want)
			assert.NotEmpty(t, want)
			small := 0 // notes of other players, which we tell and leave
			for _, u := range s.Unread {
				if u.What == "cue note" {
					small = u.Count
				}
			}
			if small > 0 && len(want) == len(got)+small {
				ours := slices.Clone(got)
				want = slices.DeleteFunc(want, func(n string) bool {
					i, found := slices.BinarySearch(ours, n)
					if found {
						ours = slices.Delete(ours, i, i+1)
					}
					return !found
				})
			}
			assert.Equal(t, want, got)
		})
	}
}

func TestFilesToldApart(t *testing.T) {
	for _, c := range []struct {
		name, data string
		want       Format
		says       string
	}{
		{"tune.abc", "X:1\nK:C\nC|", ABC, ""},
		{"tune.txt", "% mine\nX:1\nK:C\nC|", ABC, ""},
		{"piece.xml", "<?xml version=\"1.0\"?><score-partwise/>", MusicXML, ""},
		{"piece.mxl", "PK\x03\x04....", Compressed, ""},
		{"wrongly-named.abc", "<score-partwise/>", MusicXML, ""},
		{"empty.xml", "", "", "empty"},
		{"photo.jpg", "\xff\xd8\xff\xe0", "", "not a score that can be read: MusicXML"},
		{"long.abc", strings.Repeat("x", MaxFile+1), "", "larger than 16 MB"},
	} {
		got, err := Detect(c.name, []byte(c.data))
		assert.Equal(t, c.want, got, c.name)
		if c.says != "" {
			assert.ErrorContains(t, err, c.says)
		}
	}
}

// An ABC tune drawn as MusicXML still holds the same notes.
func TestEngravedKeepsTheNotes(t *testing.T) {
	for _, name := range tunes(t, ".abc") {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		s, err := Read(name, data)
		require.NoError(t, err)
		drawn, err := Engraved(name, data)
		require.NoError(t, err)
		again, err := Read("x.xml", drawn)
		require.NoError(t, err, name)
		for i, p := range s.Parts {
			for staff := 1; staff <= p.Staves; staff++ {
				assert.Equal(t, p.Sounding(staff, s.Played()), again.Parts[i].Sounding(staff, again.Played()), name)
			}
		}
	}
}
