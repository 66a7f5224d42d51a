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

// overTheNotes are the fingers that a teacher writes over the melodies of the marked tunes, phrase by
// phrase; where teachers differ, each way. Common practice, no source.
var overTheNotes = map[string]string{
	"folk-alouette":            "3455434531, 345543453",
	"folk-auld":                "13335434511245/13335434533134, 54221212342214/54331212342214, 54221212542245, 54221212342214/54331212342214",
	"folk-aura":                "143452543234, 143452543234, 33333332123/44444443234, 445452543234/334352543234",
	"folk-clair":               "11123213221/33345435443, 55552254321, 11123213221/33345435443",
	"folk-cuckoo":              "53532121, 2234233453, 53534321",
	"folk-drunken":             "55555551355555555135/55555551354444444124, 2222222345421211/1111111234314211",
	"folk-greensleeves":        "1234545312342212421, 1234545312354321233, 554353123422124211, 5543531235432123",
	"folk-jacques":             "12311231, 345345/234234, 454321454321, 414414",
	"folk-kookaburra":          "5334221234555, 53342213551, 22222343333345, 53342213551",
	"folk-korobeiniki":         "5234321135432345311, 135435354322345311",
	"folk-london":              "4543234123234, 454323414311/454323414211",
	"folk-michael":             "1242454, 2454, 353432, 12321",
	"folk-saints":              "1345, 1345, 13453132, 3321135544, 3453121",
	"folk-sakura":              "334334/223223, 3454343142454421, 3454343142454421, 334334125421/223223125421",
	"folk-scarborough":         "11552321, 24542312, 5554221431, 15432121",
	"folk-silent":              "23212321553441/34313431553441, 335432321335432321, 33531242535421",
	"folk-skye":                "545221341/545554341, 3434455",
	"folk-susanna":             "123445421233212, 123445421233221, 3355544212, 123445421233221",
	"Ode to Joy":               "334554321123322, 334554321123211, 223123431234321 21, 334554321123211",
	"Row, Row, Row Your Boat":  "1112332345, 55533322211154321/11155533311154321",
	"Go Tell Aunt Rhody":       "33211224321, 55433211",
	"Amazing Grace":            "135354321, 13535455/13533255, 353154321, 13535433",
	"Good King Wenceslas":      "4445441212344, 4445441212344, 5432321212344, 11231125432141",
	"Jingle Bells, the chorus": "33333335123, 444443333322325, 33333335123, 44444333355421",
	"Yankee Doodle":            "33453541334532, 22345432312344/22345432112344, 2321234343213/2321234343211, 23212342143544",
	"Skip to My Lou":           "3311333522112224/3311333533113335, 3311333523432111",
	"Bobby Shafto":             "2254231135434, 2254231135344, 33543212243211/33543212244321, 3354321135344",
	"This Old Man":             "4244245432123, 34511123455224321",
	"Branle, in three strains: two with repeats, the last in F": "123453122345, 543231243212, 123453123421, 123453123212",
	"A jig whose second strain has endings":                     "254553143421234143451, 45453454321323432132123453144",
}

// Of the fingers that a teacher writes over the tunes, nine in ten are the page's.
func TestFingersAreATeachers(t *testing.T) {
	agree, of := 0, 0
	for _, m := range marked {
		name, page := readMarked(t, m.tune)
		line, fingers := page.Staves[0].Line, strings.Join(page.Staves[0].Fingers(), "")
		require.Len(t, fingers, len(line), name)
		phrases := phrased(t, line, m.phrases)
		at := 0
		for k, ways := range strings.Split(overTheNotes[name], ",") {
			require.Less(t, k, len(phrases), name)
			n := 0
			for at+n < len(line) && (k+1 == len(phrases) || line[at+n].at().before(phrases[k+1][0])) {
				n++
			}
			best := 0
			for way := range strings.SplitSeq(strings.TrimSpace(ways), "/") {
				way = strings.ReplaceAll(way, " ", "")
				require.Len(t, way, n, "%s, phrase %d: %s", name, k+1, fingers[at:at+n])
				same := 0
				for i := range n {
					if way[i] == fingers[at+i] {
						same++
					}
				}
				best = max(best, same)
			}
			if best < n {
				t.Logf("%s, phrase %d: %d of %d; %s for %s", name, k+1, best, n, fingers[at:at+n], ways)
			}
			agree, of, at = agree+best, of+n, at+n
		}
		require.Equal(t, len(line), at, name)
	}
	t.Logf("%d of %d", agree, of)
	assert.GreaterOrEqual(t, float64(agree), 0.9*float64(of))
}
