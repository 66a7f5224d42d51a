package notation

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
)

// shippedFiles are all scores that ship with the program, by name.
func shippedFiles(t testing.TB) map[string][]byte {
	out := map[string][]byte{}
	names, err := filepath.Glob("../../demo/scores/*")
	require.NoError(t, err)
	require.Greater(t, len(names), 150)
	for _, name := range names {
		out[filepath.Base(name)], err = os.ReadFile(name)
		require.NoError(t, err)
	}
	return out
}

func shipped(t testing.TB) map[string]score.Score {
	out := map[string]score.Score{}
	for name, data := range shippedFiles(t) {
		s, err := Read(name, data)
		require.NoError(t, err, name)
		out[name] = s
	}
	return out
}

// checked has a script of web/checks go through files and returns what it prints of
// each, by name.
func checked[T any](t *testing.T, script string, files []string) map[string]T {
	out, err := exec.Command("node", append([]string{"../../web/checks/" + script}, files...)...).Output()
	require.NoError(t, err, "the check needs the packages of web/: run npm ci there")
	var read map[string]T
	require.NoError(t, json.Unmarshal(out, &read))
	return read
}

// heard lists what is heard, as (onset, end, key) in ticks of a quarter note.
func heard(s score.Score, order []int, ticks float64) [][3]int {
	var out [][3]int
	for _, p := range s.Parts {
		for staff := 1; staff <= p.Staves; staff++ {
			for _, n := range p.Sounding(staff, order) {
				out = append(out, [3]int{int(math.Round(n.Onset.Float() * ticks)), int(math.Round(n.Onset.Add(n.Duration).Float() * ticks)), n.Pitch.MIDI()})
			}
		}
	}
	slices.SortFunc(out, func(a, b [3]int) int { return slices.Compare(a[:], b[:]) })
	return out
}

// Every shipped score keeps, through every format, what the format can hold:
// notes and times in all; in ABC also spelling, fingers, slurs, ties, meters,
// keys, repeats and words; in a compressed file everything.
func TestShippedScoresThroughEveryFormat(t *testing.T) {
	for name, s := range shipped(t) {
		for f, ext := range map[Format]string{ABC: ".abc", MIDI: ".mid", Compressed: ".mxl", MusicXML: ".musicxml"} {
			file, err := Write(f, s)
			require.NoError(t, err, "%s as %s", name, f)
			again, err := Read("x"+ext, file)
			require.NoError(t, err, "%s as %s:\n%s", name, f, file)
			assert.Equal(t, s.Title, again.Title, "%s as %s", name, f)
			order := again.Written()
			if f != MIDI {
				order = again.Played()
			}
			require.Equal(t, heard(s, s.Played(), 5040), heard(again, order, 5040), "%s as %s", name, f)
			if f == MIDI {
				continue
			}
			require.Equal(t, s.Played(), again.Played(), "%s as %s", name, f)
			lost := map[string]bool{}
			for _, l := range Losses(f, s) {
				lost[l.What] = true
			}
			require.Equal(t, written(s, lost), written(again, lost), "%s as %s", name, f)
		}
	}
}

// written lists what stands on the page beside the notes' times.
func written(s score.Score, lost map[string]bool) []string {
	var out []string
	for pi, p := range s.Parts {
		for bi, b := range p.Bars {
			head := fmt.Sprintf("part %d staves %d bar %d length %v repeat %v", pi, p.Staves, bi+1, b.Length, b.Repeat)
			if b.Key != nil {
				head += " " + b.Key.String()
			}
			if b.Meter != nil {
				head += fmt.Sprint(" ", *b.Meter)
			}
			out = append(out, head)
			for _, m := range b.Marks {
				out = append(out, fmt.Sprint(m.Onset, " ", m.Kind, " ", m.Text, " ", math.Round(m.QPM)))
			}
			for _, n := range b.Notes {
				if n.Rest || lost["plucking fingers"] {
					continue
				}
				out = append(out, fmt.Sprint(n.Onset, " ", n.Duration, " ", n.Pitch, " staff ", n.Staff, " grace ", n.Grace, " ties ", n.TieFrom, n.TieTo, " slurs ", n.SlurStarts, n.SlurEnds, " ", n.Fingers, n.Lyric))
			}
		}
	}
	slices.Sort(out)
	return out
}

// What we write as MIDI, Debian's mftext lists with the same keys at the same
// ticks; what we write as ABC, Debian's abc2midi plays so.
func TestWhatWeWriteAgainstAbcmidi(t *testing.T) {
	for name, s := range shipped(t) {
		want := heard(s, s.Played(), 480)
		dir := t.TempDir()
		mid := filepath.Join(dir, "ours.mid")
		ours, err := Write(MIDI, s)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(mid, ours, 0o600))
		text, err := exec.Command("mftext", mid).Output()
		require.NoError(t, err)
		var division int
		for line := range strings.Lines(string(text)) {
			if _, err := fmt.Sscanf(line, "Header format=1 ntrks=%d division=%d", new(int), &division); err == nil {
				break
			}
		}
		require.Positive(t, division, name)
		got := midiTimes(t, string(text), 0)
		for i := range got {
			got[i][0], got[i][1] = got[i][0]*480/division, got[i][1]*480/division
		}
		slices.SortFunc(got, func(a, b [3]int) int { return slices.Compare(a[:], b[:]) })
		require.Equal(t, want, got, "%s as MIDI", name)

		asABC, err := Write(ABC, s)
		require.NoError(t, err)
		tune := filepath.Join(dir, "ours.abc")
		require.NoError(t, os.WriteFile(tune, []byte(plain(string(asABC))), 0o600))
		out, err := exec.Command("abc2midi", tune, "-o", mid).CombinedOutput()
		require.NoError(t, err, "%s", out)
		text, err = exec.Command("mftext", mid).Output()
		require.NoError(t, err)
		played := midiTimes(t, string(text), 1)
		order(want)
		order(played)
		require.Len(t, played, len(want), "%s as ABC:\n%s", name, asABC)
		for i := range want {
			assert.InDelta(t, want[i][0], played[i][0], 1, "%s: onset of note %d", name, i)
			assert.Equal(t, want[i][2], played[i][2], "%s: key of note %d", name, i)
		}
	}
}

// The reverse: what abc2midi plays of a shipped tune, we read from its MIDI
// file with the same notes and times.
func TestReadingWhatAbc2midiWrites(t *testing.T) {
	for _, name := range tunes(t, ".abc") {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		s, err := Read(name, data)
		require.NoError(t, err)
		dir := t.TempDir()
		even, mid := filepath.Join(dir, "even.abc"), filepath.Join(dir, "theirs.mid")
		require.NoError(t, os.WriteFile(even, []byte(plain(string(data))), 0o600))
		out, err := exec.Command("abc2midi", even, "-o", mid).CombinedOutput()
		require.NoError(t, err, "%s", out)
		theirs, err := os.ReadFile(mid)
		require.NoError(t, err)
		again, err := Read(mid, theirs)
		require.NoError(t, err, name)
		require.Equal(t, heard(s, s.Played(), 5040), heard(again, again.Written(), 5040), name)
	}
}

// What midi2abc makes of our MIDI files, we read with the same keys in the same
// order; its times are rounded to sixteenths, so they are not compared.
func TestReadingWhatMidi2abcWrites(t *testing.T) {
	for name, s := range shipped(t) {
		if len(s.Parts) != 1 || s.Parts[0].Staves != 1 {
			continue
		}
		ours, err := Write(MIDI, s)
		require.NoError(t, err)
		mid := filepath.Join(t.TempDir(), "ours.mid")
		require.NoError(t, os.WriteFile(mid, ours, 0o600))
		text, err := exec.Command("midi2abc", mid).Output()
		require.NoError(t, err)
		again, err := Read("theirs.abc", text)
		require.NoError(t, err, "%s:\n%s", name, text)
		var want, got []int
		for _, n := range heard(s, s.Played(), 480) {
			want = append(want, n[2])
		}
		for _, n := range heard(again, again.Played(), 480) {
			got = append(got, n[2])
		}
		require.Equal(t, want, got, "%s:\n%s", name, text)
	}
}

// An npm reader of MIDI files reads from ours the same keys at the same times.
func TestMIDIAgainstAnotherReader(t *testing.T) {
	dir := t.TempDir()
	all := shipped(t)
	var files []string
	for name, s := range all {
		ours, err := Write(MIDI, s)
		require.NoError(t, err)
		file := filepath.Join(dir, name+".mid")
		require.NoError(t, os.WriteFile(file, ours, 0o600))
		files = append(files, file)
	}
	read := checked[[][3]float64](t, "midi.mjs", files)
	for _, file := range files {
		name := strings.TrimSuffix(filepath.Base(file), ".mid")
		want := heard(all[name], all[name].Played(), 5040)
		var got [][3]int
		for _, n := range read[file] {
			got = append(got, [3]int{int(math.Round(n[0] * 5040)), int(math.Round(n[1] * 5040)), int(n[2])})
		}
		slices.SortFunc(got, func(a, b [3]int) int { return slices.Compare(a[:], b[:]) })
		require.Equal(t, want, got, name)
	}
}

func TestLossesAreNamed(t *testing.T) {
	s, err := Read("t.abc", []byte("X:1\nT:T\nM:2/4\nL:1/4\nK:C\n|:!1!C .D|(E F):|\"^gently\"!mf!{g}^D ^C|\n"))
	require.NoError(t, err)
	var says []string
	for _, l := range Losses(MIDI, s) {
		says = append(says, fmt.Sprintf("%s in bar %d", l.What, l.Bar))
	}
	assert.Equal(t, []string{"repeats and endings (played out) in bar 1", "fingers in bar 1", "articulations in bar 1", "slurs in bar 2",
		"grace notes in bar 3", "the spelling of a note that its key spells otherwise in bar 3", "words above the staff in bar 3", "loudness as written (kept as strength) in bar 3"}, says)
	assert.Empty(t, Losses(ABC, s))
	assert.Empty(t, Losses(MusicXML, s))
	s.Parts[0].Bars[0].Notes[0].Fingers = []string{"p"}
	s.Parts[0].Bars[0].Notes[0].String = 2
	says = nil
	for _, l := range Losses(ABC, s) {
		says = append(says, l.What)
	}
	assert.Equal(t, []string{"strings and frets", "plucking fingers"}, says)
	s.Parts[0].Bars[0].Marks = []score.Mark{{Onset: score.Frac(1, 2), Kind: "chord", Text: "Am"}}
	assert.Contains(t, Losses(ABC, s), score.Unread{What: "signs in the middle of a note (set at the next)", Bar: 1, Count: 1})
	assert.Contains(t, Losses(MIDI, s), score.Unread{What: "chord symbols", Bar: 1, Count: 1})
	_, err = Write("pdf", s)
	assert.ErrorContains(t, err, "not a format")
}
