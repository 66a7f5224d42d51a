package notation

import (
	"encoding/xml"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
	"patientladder/internal/full"
)

// drawnNote is a note as far as it is drawn, and the alteration that is meant.
type drawnNote struct {
	place
	onset        int
	sign         string
	means        int
	tied, tieing bool
}

type place struct {
	staff  int
	letter string
	octave int
}

type drawnBar struct {
	fifths *int // where the key is set
	notes  []drawnNote
}

// drawn returns the bars of each part of what the engraver is given of a file,
// their notes in order of time.
func drawn(t *testing.T, name string, data []byte) [][]drawnBar {
	text, err := Engraved(name, data)
	require.NoError(t, err, name)
	type tie struct {
		Type string `xml:"type,attr"`
	}
	var doc struct {
		Parts []struct {
			Measures []struct {
				Elements []struct {
					XMLName  xml.Name
					Fifths   *int      `xml:"key>fifths"`
					Duration int       `xml:"duration"`
					Step     string    `xml:"pitch>step"`
					Alter    int       `xml:"pitch>alter"`
					Octave   int       `xml:"pitch>octave"`
					Staff    int       `xml:"staff"`
					Sign     string    `xml:"accidental"`
					Chord    *struct{} `xml:"chord"`
					Ties     []tie     `xml:"tie"`
				} `xml:",any"`
			} `xml:"measure"`
		} `xml:"part"`
	}
	require.NoError(t, xml.Unmarshal(text, &doc), name)
	var out [][]drawnBar
	for _, p := range doc.Parts {
		var bars []drawnBar
		for _, m := range p.Measures {
			bar, now, before := drawnBar{}, 0, 0
			for _, e := range m.Elements {
				switch e.XMLName.Local {
				case "attributes":
					if e.Fifths != nil {
						bar.fifths = e.Fifths
					}
				case "forward":
					now += e.Duration
				case "backup":
					now -= e.Duration
				case "note":
					if e.Chord == nil {
						before, now = now, now+e.Duration
					}
					if e.Step != "" {
						bar.notes = append(bar.notes, drawnNote{place{e.Staff, e.Step, e.Octave}, before, e.Sign, e.Alter,
							slices.Contains(e.Ties, tie{"stop"}), slices.Contains(e.Ties, tie{"start"})})
					}
				}
			}
			slices.SortStableFunc(bar.notes, func(a, b drawnNote) int { return a.onset - b.onset })
			bars = append(bars, bar)
		}
		out = append(out, bars)
	}
	return out
}

// What stands before each note, as a player needs it: common practice, no source.
func TestAccidentalsDrawn(t *testing.T) {
	for _, c := range []struct{ name, key, tune, want string }{
		{"none but the key's", "D", "D F c d|", "- - - -"},
		{"a sharp, which holds to the bar line", "C", "F ^F F G|F4|", "- sharp - - -"},
		{"taken back in the bar", "C", "^F =F F ^F|", "sharp natural - sharp"},
		{"a sign of the key taken back", "G", "F =F ^F F|F4|", "- natural sharp - -"},
		{"two flats and two sharps", "C", "__B ^^F _B ^F|", "flat-flat double-sharp flat sharp"},
		{"another octave has its own", "C", "^F ^f F f|", "sharp sharp - -"},
		{"the plain note of another octave is told", "C", "^F =f f ^F|", "sharp natural - -"},
		{"tied over the bar line without a sign", "C", "^F4-|F2 G2|", "sharp - -"},
		{"and anew when struck again", "C", "^F4-|F2 ^F2|", "sharp - sharp"},
		{"and taken back behind the tie", "C", "^F4-|F2 =F2|", "sharp - natural"},
		{"a chord", "C", "[^CE^G]2 [CEG]2|", "sharp - sharp - - -"},
		{"a grace note counts", "C", "{^g}a g =g a|", "sharp - - natural -"},
		{"a new key", "C", "^F4|[K:G]F2 =F2|", "sharp - natural"},
	} {
		t.Run(c.name, func(t *testing.T) {
			var got []string
			for _, bar := range drawn(t, "t.abc", []byte("X:1\nM:4/4\nL:1/4\nK:"+c.key+"\n"+c.tune+"\n"))[0] {
				for _, n := range bar.notes {
					if n.sign == "" {
						n.sign = "-"
					}
					got = append(got, n.sign)
				}
			}
			assert.Equal(t, c.want, strings.Join(got, " "))
		})
	}
}

// A player who sees only what is drawn plays what is meant: every shipped score,
// as it is and through each format, by its keys, signs and ties.
func TestWhatIsDrawnIsWhatIsMeant(t *testing.T) {
	seen := 0
	for name, data := range shippedFiles(t) {
		s, err := Read(name, data)
		require.NoError(t, err)
		files := map[string][]byte{name: data}
		for f, ext := range map[Format]string{ABC: ".abc", MIDI: ".mid", MusicXML: ".musicxml"} {
			files["again"+ext], err = Write(f, s)
			require.NoError(t, err)
		}
		for file, data := range files {
			for _, bars := range drawn(t, file, data) {
				seen += played(t, name+" as "+file, bars)
			}
		}
	}
	assert.Greater(t, seen, 100, "some scores have accidentals")
}

// played reads the notes of a part as a player does, checks each against what is
// meant, and returns how many signs it met.
func played(t *testing.T, what string, bars []drawnBar) (seen int) {
	signs := map[string]int{"flat-flat": -2, "flat": -1, "natural": 0, "sharp": 1, "double-sharp": 2}
	key, tied := pitch.Key{}, map[place]int{}
	for i, bar := range bars {
		if bar.fifths != nil {
			key.Fifths = *bar.fifths
		}
		holds := map[place]int{}
		for _, n := range bar.notes {
			reads, held := holds[n.place]
			switch {
			case n.sign != "":
				seen++
				reads = signs[n.sign]
				holds[n.place] = reads
			case n.tied:
				reads = tied[n.place]
			case !held:
				reads = key.Alter(n.letter[0])
			}
			assert.Equal(t, n.means, reads, "%s: bar %d, %s%d", what, i+1, n.letter, n.octave)
			if n.tieing {
				tied[n.place] = n.means
			}
		}
	}
	return seen
}

// engraved is what is drawn of a score beside its notes: pairs of their ids, and
// the engraver's letters for accidentals.
type engraved struct {
	Slurs, Ties [][2]string
	Accidentals map[string]string
}

// What the engraver draws of every shipped score, and of two hands whose slurs and
// ties overlap: the slurs of each voice from note to note, the ties, and the
// accidentals.
func TestWhatTheEngraverDraws(t *testing.T) {
	dir := t.TempDir()
	scores, files := shippedFiles(t), []string{}
	scores["two-hands.abc"] = []byte("X:1\nM:4/4\nL:1/4\n%%score {1 2}\nV:1\nV:2 clef=bass\nK:G\nV:1\n(c (B A) G-|G =F [Ec]2-|[Ec]2) (^d e)|\nV:2\n(C, D, E, F,-|F,2) (A,2-|A,2 G,2)|\n")
	names := slices.Sorted(maps.Keys(scores))
	for i, name := range names {
		if name != "two-hands.abc" && i%full.Or(4, 1) != 0 {
			continue
		}
		data := scores[name]
		text, err := Engraved(name, data)
		require.NoError(t, err)
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, text, 0o600))
		files = append(files, file)
	}
	got := checked[engraved](t, "engraved.mjs", files)
	for _, file := range files {
		name := filepath.Base(file)
		s, err := Read(name, scores[name])
		require.NoError(t, err)
		want := toEngrave(t, name, s)
		assert.ElementsMatch(t, want.Slurs, got[file].Slurs, "slurs of %s", name)
		assert.ElementsMatch(t, want.Ties, got[file].Ties, "ties of %s", name)
		assert.Equal(t, want.Accidentals, got[file].Accidentals, "accidentals of %s", name)
	}
}

// toEngrave is what is to be drawn of a score.
func toEngrave(t *testing.T, name string, s score.Score) engraved {
	letters := map[int]string{-2: "ff", -1: "f", 0: "n", 1: "s", 2: "x"}
	out := engraved{Slurs: [][2]string{}, Ties: [][2]string{}, Accidentals: map[string]string{}}
	for _, p := range s.Parts {
		for id, alter := range p.Accidentals() {
			out.Accidentals[id] = letters[alter]
		}
		slurs, ties := map[int][]string{}, map[place]string{}
		for _, b := range p.Bars {
			for _, n := range b.Notes {
				for range n.SlurEnds {
					last := len(slurs[n.Voice]) - 1
					require.GreaterOrEqual(t, last, 0, "a slur of %s ends that never began, at %s", name, n.ID)
					out.Slurs = append(out.Slurs, [2]string{slurs[n.Voice][last], n.ID})
					slurs[n.Voice] = slurs[n.Voice][:last]
				}
				for range n.SlurStarts {
					slurs[n.Voice] = append(slurs[n.Voice], n.ID)
				}
				at := place{n.Staff, string(n.Pitch.Step()), n.Pitch.Octave()}
				if n.TieFrom {
					out.Ties = append(out.Ties, [2]string{ties[at], n.ID})
				}
				if n.TieTo {
					ties[at] = n.ID
				}
			}
		}
	}
	return out
}
