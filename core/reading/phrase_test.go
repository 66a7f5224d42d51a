package reading

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
)

// A marked tune is one whose phrases a teacher has marked by where each begins: a bar, counted
// with a pickup as the first, and the quarter note in it. Common practice, no source. The tunes
// are folk tunes and others out of copyright; those without notes here are of the demo's shelf.
var marked = []struct{ tune, phrases string }{
	{"folk-alouette", "1 3"}, {"folk-auld", "1 5.3 9.3 13.3"}, {"folk-aura", "1 5 9 13"}, {"folk-clair", "1 5 9"}, {"folk-cuckoo", "1 5 9"}, {"folk-drunken", "1 5"},
	{"folk-greensleeves", "1 5.5/2 10 14"}, {"folk-jacques", "1 3 5 7"}, {"folk-kookaburra", "1 5 9 13"}, {"folk-korobeiniki", "1 5"}, {"folk-london", "1 5"},
	{"folk-michael", "1 5 8.2 12"}, {"folk-saints", "1 3.1 5.1 9 13.2"}, {"folk-sakura", "1 3 7 11"}, {"folk-scarborough", "1 5 9 14"}, {"folk-silent", "1 5 9"}, {"folk-skye", "1 5"},
	{"folk-susanna", "1 5.3 10 13.3"},
	{"M:4/4\nL:1/4\nK:D\n% Ode to Joy\nF F G A|A G F E|D D E F|F3/2 E/ E2|F F G A|A G F E|D D E F|E3/2 D/ D2|E E F D|E F/G/ F D|E F/G/ F E|D E A,2|F F G A|A G F E|D D E F|E3/2 D/ D2|]", "1 5 9 13"},
	{"M:6/8\nL:1/8\nK:C\n% Row, Row, Row Your Boat\nC3 C3|C2D E3|E2D E2F|G6|ccc GGG|EEE CCC|G2F E2D|C6|]", "1 5"},
	{"M:4/4\nL:1/4\nK:C\n% Go Tell Aunt Rhody\nE E/D/ C C|D D F/E/ D/C/|G G/F/ E E/D/|C2 C2|]", "1 3"},
	{"M:3/4\nL:1/4\nK:G\n% Amazing Grace\nD|G2 B/G/|B2 A|G2 E|D2 D|G2 B/G/|B2 A|d3|d2 B|d2 B/G/|B2 A|G2 E|D2 D|G2 B/G/|B2 A|G3|G2|]", "1 5.2 9.2 13.2"},
	{"M:4/4\nL:1/4\nK:G\n% Good King Wenceslas\nG G G A|G G D2|E D E F|G2 G2|G G G A|G G D2|E D E F|G2 G2|d c B A|B A G2|E D E F|G2 G2|D D E F|G G A2|d c B A|G2 c2|G4|]", "1 5 9 13"},
	{"M:4/4\nL:1/4\nK:G\n% Jingle Bells, the chorus\nB B B2|B B B2|B d G3/2 A/|B4|c c c3/2 c/|c B B B/B/|B A A B|A2 d2|B B B2|B B B2|B d G3/2 A/|B4|c c c3/2 c/|c B B B/B/|d d c A|G4|]", "1 5 9 13"},
	{"M:2/4\nL:1/8\nK:G\n% Yankee Doodle\nGGAB|GBAD|GGAB|G2 F2|GGAB|cBAG|FDEF|G2 G2|E>FED|EF G2|D>EDC|B,2 D2|E>FED|EFGE|DGFA|G2 G2|]", "1 5 9 13"},
	{"M:4/4\nL:1/4\nK:F\n% Skip to My Lou\nA A F F|A A/A/ c2|G G E E|G G/G/ B2|A A F F|A A/A/ c2|G/A/ B/A/ G F|F2 F2|]", "1 5"},
	{"M:2/4\nL:1/8\nK:C\n% Bobby Shafto\nc2 cf|ec dB|G2 Bd|cB c2|c2 cf|ec dB|GB dB|c2 c2|e2 eg|fe dc|d2 df|ed cB|e2 eg|fe dc|GB dB|c2 c2|]", "1 5 9 13"},
	{"M:4/4\nL:1/8\nK:G\n% This Old Man\nd2B2 d4|d2B2 d4|e2d2 c2B2|A2B2 c4|Bcd2 G2G2|G2AB cd3|d2A2 A2c2|B2A2 G4|]", "1 5"},
	{"M:4/4\nL:1/4\nK:G\n% Branle, in three strains: two with repeats, the last in F\n|:G A B c|d B G2|A A B c|d4:|\n|:d c B A|B G A2|B A G F|G4:|\n[K:F]F G A B|c A F2|G A B G|F4|F G A B|c A F2|G A G E|F4|]", "1 5 9 13"},
	{"M:6/8\nL:1/8\nK:D\n% A jig whose second strain has endings\n|:A|dcd AFD|GFG EDE|FGA dcd|e3 A2:|\n|:f|gfg efg|fed cBA|1 BcB AGF|E3 D2:|2 Bcd ecA|d3 d2|]", "1 6"},
}

// readMarked reads a marked tune.
func readMarked(t *testing.T, tune string) (name string, page Page) {
	name, text := tune, []byte("X:1\n"+tune+"\n")
	if strings.HasPrefix(tune, "folk-") {
		var err error
		text, err = os.ReadFile("../../demo/scores/" + tune + ".abc")
		require.NoError(t, err)
	} else {
		_, after, _ := strings.Cut(tune, "% ")
		name, _, _ = strings.Cut(after, "\n")
	}
	s, err := notation.Read("t.abc", text)
	require.NoError(t, err, name)
	return name, Read(s, usual[instrument.Keyboard])
}

// A teacher's first rule: one fingering a figure. Of the runs of six notes that come back in the
// marked tunes and in Debian's tune books, less than three in a hundred have other fingers.
func TestOneFingeringAFigure(t *testing.T) {
	var pages []Page
	for _, m := range marked {
		_, page := readMarked(t, m.tune)
		pages = append(pages, page)
	}
	books, err := filepath.Glob("/usr/share/doc/abc*/examples/*.abc")
	require.NoError(t, err)
	for _, book := range books {
		data, err := os.ReadFile(book)
		require.NoError(t, err)
		tunes, err := notation.Split(book, data)
		require.NoError(t, err)
		for _, tune := range tunes {
			if s, err := tune.Read(book); err == nil {
				pages = append(pages, Read(s, usual[instrument.Keyboard]))
			}
		}
	}
	again, other := 0, 0
	for _, page := range pages {
		for _, st := range page.Staves {
			fingers := st.Fingers()
			first := map[string]string{}
			for i := 0; i+6 <= len(st.Line); i++ {
				var notes, with []string
				for k := range 6 {
					notes, with = append(notes, fmt.Sprint(st.Line[i+k].Notes)), append(with, fingers[i+k])
				}
				key, played := strings.Join(notes, " "), strings.Join(with, " ")
				if was, heard := first[key]; !heard {
					first[key] = played
				} else if again++; was != played {
					other++
				}
			}
		}
	}
	t.Logf("%d of %d", other, again)
	require.Greater(t, again, 200)
	assert.Less(t, float64(other), 0.03*float64(again))
}

// phrased are the stretches that a teacher's marks part a line into, each as its first and its
// last moment.
func phrased(t *testing.T, line []Chord, marks string) (out [][2]Place) {
	var starts []int
	for mark := range strings.FieldsSeq(marks) {
		bar, beat, _ := strings.Cut(mark, ".")
		var want Place
		_, err := fmt.Sscan(bar, &want.Bar)
		require.NoError(t, err)
		if beat != "" {
			require.NoError(t, want.Beat.UnmarshalText([]byte(beat)))
		}
		i := 0
		for i < len(line) && line[i].at().before(want) {
			i++
		}
		require.Less(t, i, len(line), mark)
		starts = append(starts, i)
	}
	for k, from := range starts {
		to := len(line)
		if k+1 < len(starts) {
			to = starts[k+1]
		}
		out = append(out, [2]Place{line[from].at(), line[to-1].at()})
	}
	return out
}

// nodes lists the stretches of a tree.
func nodes(c Chunk, into map[[2]Place]bool) map[[2]Place]bool {
	into[[2]Place{c.From, c.To}] = true
	for _, part := range c.Parts {
		nodes(part, into)
	}
	return into
}

// Of the phrases that a teacher hears in tunes everybody knows, nine in ten are chunks.
func TestChunksArePhrases(t *testing.T) {
	agree, of := 0, 0
	for _, m := range marked {
		name, page := readMarked(t, m.tune)
		for _, size := range []int{4, 8} {
			found := nodes(page.Chunks(size)[0], map[[2]Place]bool{})
			for _, phrase := range phrased(t, page.Staves[0].Line, m.phrases) {
				if of++; found[phrase] {
					agree++
				} else {
					t.Logf("%s, by %d: %v is no chunk", name, size, phrase)
				}
			}
		}
	}
	t.Logf("%d of %d", agree, of)
	assert.GreaterOrEqual(t, float64(agree), 0.9*float64(of))
}
