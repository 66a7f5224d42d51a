package reading

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/pitch"
	"patientladder/core/score"
	"patientladder/core/skill"
)

// written reads a tune of one line, or of two hands where bars holds a newline:
// the first line is the right hand's.
func written(t *testing.T, plays instrument.Family, head, bars string) Page {
	text := "X:1\nT:T\nM:4/4\nL:1/4\n" + head
	if right, left, two := strings.Cut(bars, "\n"); two && !strings.Contains(head, "V:") {
		text += "%%score {1 2}\nV:1\nV:2 clef=bass\nK:C\nV:1\n" + right + "\nV:2\n" + left + "\n"
	} else {
		if !strings.Contains(head, "K:") {
			text += "K:C\n"
		}
		text += bars + "\n"
	}
	s, err := notation.Read("t.abc", []byte(text))
	require.NoError(t, err, text)
	return Read(s, usual[plays])
}

// What a page asks for, and in which bars: each sign has a case, and the cases of
// one family stand together. Common practice, no source.
var asked = []struct {
	skill string
	plays instrument.Family
	head  string
	bars  string // the last line for the left hand where there are two
	want  []int
}{
	{"long-notes", instrument.Keyboard, "", "C D E F|G2 E2|C4", []int{2, 3}},
	{"rests", instrument.Keyboard, "", "C D E F|G z E z|C4|z4|C4", []int{2, 4}},
	{"halves", instrument.Keyboard, "", "C D E F|G/A/ G E2", []int{2}},
	{"thirds", instrument.Keyboard, "", "C D E F|(3G/A/G/ E C2", []int{2}},
	{"quarters-of-beat", instrument.Keyboard, "", "C D E F|G/4A/4G/4F/4 E C2", []int{2}},
	{"dotted", instrument.Keyboard, "", "C D E F|G3/2 F/ E2", []int{2}},
	{"dotted", instrument.Keyboard, "M:6/8\nL:1/8\n", "C3 D3|E2 F G3|A3/2B/A G3", []int{3}},
	{"syncopation", instrument.Keyboard, "", "C D E F|C/ D E F G/", []int{2}},
	{"syncopation", instrument.Keyboard, "", "C D E F|C D2 E", []int{2}},
	{"three-time", instrument.Keyboard, "M:3/4\n", "C D E|F3", []int{1}},
	{"six-eight", instrument.Keyboard, "M:6/8\nL:1/8\n", "C3 D3|E3 F3", []int{1}},
	{"six-eight", instrument.Keyboard, "M:9/8\nL:1/8\n", "C3 D3 E3|F3 G3 A3", []int{1}},
	{"key-change", instrument.Keyboard, "", "C D E F|[K:G]G A G2|[K:G]G4", []int{2}},
	{"modes", instrument.Keyboard, "K:Ddor\n", "D E F G|A4", []int{1}},
	{"pickup", instrument.Keyboard, "", "G|C D E F|G3", []int{1}},
	{"ties", instrument.Keyboard, "", "C D E F-|F4", []int{1}},
	{"changing-meter", instrument.Keyboard, "", "C D E F|[M:3/4] G A G|C3", []int{2}},
	{"changing-meter", instrument.Keyboard, "", "C D E F|[M:3/4] G A G|C3\nC,4|[M:3/4] C,3|C,3", []int{2}},
	{"two-against-three", instrument.Keyboard, "", "(3C/D/E/ F G2\nC,/D,/ E, F,2", []int{1}},
	{"three-against-four", instrument.Keyboard, "", "(3C/D/E/ F G2\nC,/4D,/4E,/4D,/4 E, F,2", []int{1}},
	{"steps", instrument.Keyboard, "", "C E G E|C D E C", []int{2}},
	{"skips", instrument.Keyboard, "", "C D E F|G E C2", []int{2}},
	{"fourths-fifths", instrument.Keyboard, "", "C D E F|G C F2", []int{2}},
	{"wide-leaps", instrument.Keyboard, "", "C D E F|G E c2", []int{2}},
	{"accidentals", instrument.Keyboard, "K:G\n", "G A B c|d =f d2", []int{2}},
	{"key-signature", instrument.Keyboard, "K:G\n", "G A B c|d f d2", []int{2}},
	{"second-clef", instrument.Bowed, "K:C bass\n", "C, D, E, F,|[K:C clef=tenor] G, A, B, C", []int{2}},
	{"loud-soft", instrument.Keyboard, "", "!p!C D E F|!f!G4", []int{1, 2}},
	{"six-levels", instrument.Keyboard, "", "!pp!C !p!D !mf!E F|!f!G4", []int{1, 2}},
	{"swell", instrument.Keyboard, "", "C D E F|!<(!G A B !<)!c", []int{2}},
	{"swell", instrument.Keyboard, "", "C D E F|!>(!G A B !>)!c", []int{2}},
	{"swell", instrument.Keyboard, "", "C D E F|\"^poco cresc.\"G4", []int{2}},
	{"accents", instrument.Keyboard, "", "C D E F|!>!G4", []int{2}},
	{"phrase-breath", instrument.Keyboard, "", "C D E !breath!F|G4", []int{1}},
	{"tempo-change", instrument.Keyboard, "", "C D E F|\"^rit.\"G4", []int{2}},

	{"two-staves", instrument.Keyboard, "", "C D E F|G4\nC,4|z4", []int{1}},
	{"hands-in-turn", instrument.Keyboard, "", "C D E F|z4\nz4|C, D, E, F,", []int{1, 2}},
	{"held-left-hand", instrument.Keyboard, "", "C D E F|G2 E2\nC,4|z4", []int{1}},
	{"hands-together", instrument.Keyboard, "", "C D E F|G4\nC,2 D,2|C,4", []int{1}},
	{"parallel-hands", instrument.Keyboard, "", "C D E F|G4\nC, D, E, F,|G,4", []int{1}},
	{"mirrored-hands", instrument.Keyboard, "", "C D E F|G4\nG, F, E, D,|C,4", []int{1}},
	{"g-position", instrument.Keyboard, "", "C D E F|G A B c|d4", []int{2}},
	{"f-position", instrument.Keyboard, "", "F G A _B|c4", []int{1}},
	{"any-position", instrument.Keyboard, "", "D E F G|A4", []int{1}},
	{"position-move", instrument.Keyboard, "", "C D E z|z c d e", []int{2}},
	{"thumb-under", instrument.Keyboard, "", "C D E F|G A B c", []int{1}},
	{"finger-over", instrument.Keyboard, "", "c B A G|F E D C", []int{2}},
	{"extend", instrument.Keyboard, "", "C D E F|[CA]4", []int{2}},
	{"octaves", instrument.Keyboard, "", "C D E F|[Cc]4", []int{2}},
	{"chord-block", instrument.Keyboard, "", "C D E F|[CEG]4", []int{2}},
	{"bass-chord", instrument.Keyboard, "", "C4|D4\nC, [E,G,] C, [E,G,]|z4", []int{1}},
	{"chord-broken", instrument.Keyboard, "", "C D E F|C E G E", []int{2}},
	{"rocking-bass", instrument.Keyboard, "", "C4|D4\nC, E, G, E,|G,4", []int{1}},
	{"arpeggio", instrument.Keyboard, "", "C D E F|C E G c", []int{2}},
	{"touch-joined", instrument.Keyboard, "", "C D E F|(G F E) D", []int{2}},
	{"slur-two", instrument.Keyboard, "", "C D E F|(G F) E D", []int{2}},
	{"slur-long", instrument.Keyboard, "", "(C D E F|G F E D)|C4", []int{1}},
	{"touch-detached", instrument.Keyboard, "", "C D E F|.G .F E D", []int{2}},
	{"two-touches", instrument.Keyboard, "", "(C D E F)|G4\n.C, .D, .E, .F,|G,4", []int{1}},
	{"repeated-notes", instrument.Keyboard, "", "C D E F|G/G/G/G/ E2", []int{2}},
	{"voice-in-hand", instrument.Keyboard, "%%score {(1 3) 2}\nV:1\nV:3\nV:2 clef=bass\nK:C\n", "[V:1] C D E F|G4|\n[V:3] z4|E2 F2|\n[V:2] C,4|C,4|", []int{2}},
	{"trill", instrument.Keyboard, "", "C D E F|!trill!G4", []int{2}},
	{"pedal-joined", instrument.Keyboard, "", "C D E F|\"^ped.\"G4", []int{2}},

	{"open-strings", instrument.Bowed, "K:C bass\n", "G,, E, E, E,|D, A, D, A,", []int{1, 2}},
	{"first-finger", instrument.Bowed, "K:C bass\n", "D, D, D, D,|E,4", []int{2}},
	{"second-finger", instrument.Bowed, "K:C bass\n", "D, E, D, E,|F,4", []int{2}},
	{"stepping-fingers", instrument.Bowed, "K:C bass\n", "D, E, F, G,|D, A, D, A,", []int{1}},
	{"string-levels", instrument.Bowed, "K:C bass\n", "E, F, E, F,|D, A, D, A,", []int{2}},
	{"quick-crossings", instrument.Bowed, "K:C bass\n", "D, A, D, A,|D,/A,/D,/A,/ D,2", []int{2}},
	{"slur-two-notes", instrument.Bowed, "K:C bass\n", "D, E, F, G,|(D, E,) F,2", []int{2}},
	{"slur-three", instrument.Bowed, "K:C bass\n", "D, E, F, G,|(D, E, F,) G,", []int{2}},
	{"slur-crossing", instrument.Bowed, "K:C bass\n", "D, E, F, G,|(G, A,) D,2", []int{2}},
	{"slow-bows", instrument.Bowed, "K:C bass\n", "D, E, F, G,|D,4", []int{2}},
	{"bow-short", instrument.Bowed, "K:C bass\n", "D, E, F, G,|.D, .E, F,2", []int{2}},
	{"pluck-hand", instrument.Bowed, "K:C bass\n", "D, E, F, G,|\"^pizz.\"D,4", []int{2}},
	{"reach-back", instrument.Bowed, "K:C bass\n", "D, E, F, G,|D, _E, D, G,", []int{2}},
	{"reach-forward", instrument.Bowed, "K:C bass\n", "D, E, F, G,|A, ^G, A,2", []int{2}},
	{"shift-up", instrument.Bowed, "K:C bass\n", "B, C D C|A, E F G", []int{2}},
	{"double-open", instrument.Bowed, "K:C bass\n", "D, E, F, G,|[G,,D,]4", []int{2}},
	{"double-notes", instrument.Bowed, "K:C bass\n", "D, E, F, G,|[G,,E,]4", []int{2}},
	{"ledger-lines", instrument.Bowed, "K:C bass\n", "D, E, F, G,|E4", []int{2}},

	{"tablature", instrument.Plucked, "", "", nil}, // see TestTablature
	{"first-position", instrument.Plucked, "", "G B e B|F4", []int{2}},
	{"thumb-bass", instrument.Plucked, "", "G B e B|E,4", []int{2}},
	{"alternating", instrument.Plucked, "", "E, B, G e|G A G A", []int{2}},
	{"pima", instrument.Plucked, "", "e d e d|E G B e", []int{2}},
	{"pami", instrument.Plucked, "", "e d e d|E e B G", []int{2}},
	{"six-pattern", instrument.Plucked, "M:6/8\nL:1/8\n", "e3 e3|E G B e B G", []int{2}},
	{"alternating-bass", instrument.Plucked, "", "G B e B|E, B A, B", []int{2}},
	{"pinch", instrument.Plucked, "", "G B e B|[E,e]4", []int{2}},
	{"tune-and-bass", instrument.Plucked, "", "G B e B|[A,c]4", []int{2}},
	{"strum", instrument.Plucked, "", "G B e B|[E,B,EGBe]4", []int{2}},
	{"chord-two-finger", instrument.Plucked, "", "G B e B|[E,B,EGBe]4", []int{2}},
	{"chord-three-finger", instrument.Plucked, "", "G B e B|[CEGce]4", []int{2}},
	{"chord-change", instrument.Plucked, "", "[CEGce]4|[E,B,EGBe]4", []int{2}},
	{"small-barre", instrument.Plucked, "", "G B e B|[cf]4", []int{2}},
	{"shift-neck", instrument.Plucked, "", "e f g2|c' b a2", []int{2}},
	{"hammer", instrument.Plucked, "", "e f g2|(e f) g2", []int{2}},
	{"pull", instrument.Plucked, "", "e f g2|(g e) g2", []int{2}},
	{"ledger-lines", instrument.Plucked, "", "e f g2|a4", []int{2}},
}

func TestWhatAPageAsksFor(t *testing.T) {
	graph := skill.Catalogue()
	tried := map[string]bool{}
	for _, c := range asked {
		tried[string(c.plays)+c.skill] = true
		if c.want == nil {
			continue
		}
		page := written(t, c.plays, c.head, c.bars)
		var got []int
		for _, d := range page.Demands() {
			if d.Skill == c.skill {
				got = d.Bars
				assert.Equal(t, d.Bar, d.Bars[0], "%s: where it is first asked", c.skill)
				assert.NotEmpty(t, d.Why, c.skill)
			}
			assert.Contains(t, graph, d.Skill)
		}
		assert.Equal(t, c.want, got, "%s in %q on %s", c.skill, c.bars, c.plays)
	}
	for plays, own := range map[instrument.Family][]sign{instrument.Keyboard: keyboardSigns, instrument.Bowed: bowedSigns, instrument.Plucked: pluckedSigns} {
		for _, s := range own {
			assert.True(t, tried[string(plays)+s.skill], "the sign of %s on %s has a case", s.skill, plays)
		}
	}
	for _, s := range sharedSigns {
		assert.True(t, tried[string(instrument.Keyboard)+s.skill] || tried[string(instrument.Bowed)+s.skill], "the sign of %s has a case", s.skill)
	}
}

// Facts of the trade: common practice, no source.
func TestTheory(t *testing.T) {
	for _, c := range []struct {
		name, head, bars, key string
		half, tonic, dominant []int
		whole                 int
		sure                  bool
	}{
		{"C major: home, away, home", "", "C E G E|B, D G F|C4", "C major", []int{}, []int{1}, []int{2}, 1, true},
		{"half steps between 3 and 4, 7 and 8", "", "C D E F|G A B c", "C major", []int{1, 2}, []int{}, []int{}, 5, true},
		{"A minor as the file says", "K:Am\n", "A c e c|^G B e d|A4", "A minor", []int{}, []int{1}, []int{2}, 1, true},
		{"D major", "K:D\n", "D F A F|C E A G|D4", "D major", []int{}, []int{1}, []int{2}, 1, true},
	} {
		got := written(t, instrument.Keyboard, c.head, c.bars).Theory()
		assert.Equal(t, c.key, got.Key, c.name)
		assert.Equal(t, c.tonic, got.Tonic, c.name)
		assert.Equal(t, c.dominant, got.Dominant, c.name)
		assert.Equal(t, c.sure, got.Sure, c.name)
		assert.Equal(t, c.half, got.Half, c.name)
	}
	page := written(t, instrument.Keyboard, "K:Am\n", "A c e c|e2 B2|A4")
	page.Score.Parts[0].Bars[0].Key = &pitch.Key{}
	untold := page.Theory()
	assert.Equal(t, "A minor", untold.Key, "told from where it ends")
	assert.False(t, untold.Sure)
}

// A file's "major" is no evidence; sure means that nothing speaks against it. The first and the
// last note, and the raised leading note, are facts of the trade: common practice, no source.
func TestTheKeyByItsEvidence(t *testing.T) {
	for _, c := range []struct {
		name, head, bars string
		mode             string
		key              string
		sure             bool
	}{
		{"called major, ends and begins on la, with its leading note", "K:Eb\n", "C E G E|D =B, D F|E D C2|C4", "major", "C minor", true},
		{"the same without the leading note", "K:Eb\n", "C E G E|D C D F|E D C2|C4", "major", "C minor", false},
		{"begins on do and ends on la", "K:C\n", "C E G E|D E F D|C B, A,2|A,4", "major", "A minor", false},
		{"begins on la and ends on do", "K:C\n", "A, C E C|D E F D|C D E2|C4", "major", "C major", false},
		{"begins and ends on do", "K:C\n", "C E G E|D E F D|C4", "major", "C major", true},
		{"ends on do after a beginning elsewhere", "K:C\n", "E E F G|G F E D|C4", "", "C major", true},
		{"a G sharp in a piece on do", "K:C\n", "C E G E|F ^G A F|C4", "major", "C major", false},
		{"ends on re", "K:C\n", "D F A F|G E C E|D4", "major", "C major", false},
		{"somebody wrote dorian", "K:C\n", "D F A F|G E C E|D4", "dorian", "D dorian", true},
		{"a pickup is no beginning", "K:C\n", "G|C E G E|D E F D|C3", "major", "C major", true},
	} {
		page := written(t, instrument.Keyboard, c.head, c.bars)
		page.Score.Parts[0].Bars[0].Key.Mode = c.mode
		key, sure := page.Key()
		assert.Equal(t, c.key, key.String(), c.name)
		assert.Equal(t, c.sure, sure, c.name)
	}
}

func TestRhythmsAndTheirWords(t *testing.T) {
	say := func(head, bars string) (out []string) {
		for _, r := range written(t, instrument.Keyboard, head, bars).Rhythms(OwnWords) {
			out = append(out, fmt.Sprintf("%s ×%d: %s", r.Rhythm, r.Times, r.Say))
		}
		return
	}
	assert.Equal(t, []string{"1/2 1/2 ×2: har-bour", "1 ×2: tide", "2 ×1: swe—ll"}, say("", "C/D/ E F/G/ E|C2 z2")[:3])
	assert.Equal(t, []string{"3/2 1/2 ×2: light—house"}, say("", "C3/2 D/ E3/2 F/"))
	assert.Equal(t, []string{"1/3 1/3 1/3 ×2: ma-ri-ner", "2/3 1/3 ×1: rock—ing", "1 ×1: tide"}, say("M:6/8\nL:1/8\n", "CDE FGA|G2F E3"), "beats of three take thirds")
	assert.Equal(t, []string{"1/2 1 1/2 ×1: a fer-ry's", "1 1 ×0: "}[0], say("", "C/ D E/ F2")[0], "held over the beat between: two beats are one rhythm")
	assert.Contains(t, strings.Join(say("", "C/5D/5E/5F/5G/5 A C2"), " "), ": ", "a rhythm without words is still listed")
	assert.Empty(t, Read(score.Score{}, usual[instrument.Keyboard]).Rhythms(OwnWords))

	require.NoError(t, OwnWords.Check())
	for rhythm, wrong := range map[string]string{"1/2": "it must last one, two, three or four", "1/2 x": `a length "x"`, "5": "it must last", "": "lasts 0 beats"} {
		assert.ErrorContains(t, Words{rhythm: "la"}.Check(), wrong)
	}
	assert.ErrorContains(t, Words{"1": " "}.Check(), "needs words")
}

// layer returns the labels or spans of one layer, in order.
func layer(p Page, name string) (out []string) {
	l, _ := p.Layer(name, Ask{Size: 4, Known: Landmarks, Words: OwnWords})
	for _, label := range l.Labels {
		out = append(out, label.Text)
	}
	for _, s := range l.Spans {
		out = append(out, "["+s.Text+"]")
	}
	return out
}

func TestLayers(t *testing.T) {
	piano := written(t, instrument.Keyboard, "", "C D E C|C D E C|^F/F/ G2 z")
	for name, want := range map[string]string{
		"direction": "● ↑ ↑ ↓ = ↑ ↑ ↓ ↑ = ↑",
		"intervals": "2 2 3 1 2 2 3 4 1 2",
		"landmarks": "C C+1 C+2 C C C+1 C+2 C G-1 G-1 G",
		"names":     "C D E C C D E C F♯ F♯ G",
		"fingers":   "1 2 3 1 1 2 3 1 4 4 5",
		"positions": "C [C]",
		"patterns":  "[A] [A=] [B]",
		"rhythm":    "tide tide tide tide tide tide tide tide har-bour swe—ll",
	} {
		assert.ElementsMatch(t, strings.Fields(want), layer(piano, name), name)
	}
	assert.Empty(t, layer(piano, "tablature"), "keys have none")
	chords := written(t, instrument.Keyboard, "", "[CEG]2 [Cc]2|[CE^Gc]4")
	assert.Equal(t, []string{"1 3 5", "1 5", "1 5"}, layer(chords, "fingers"), "every finger of a chord in one place, the outer ones of a wider one")
	chords.Staves[0].Hand = Left
	chords.Staves[0].Positions = Positions(chords.Staves[0].Line, Left, false)
	assert.Equal(t, []string{"5 3 1", "5 1", "5 1"}, layer(chords, "fingers"))
	guitar := written(t, instrument.Plucked, "", "C G c e|[CGce]4")
	assert.Equal(t, []string{"5·3", "3·0", "2·1", "1·0", "5·3 3·0 2·1 1·0"}, layer(guitar, "tablature"))
	assert.Equal(t, []string{"p", "i", "m", "a", "pima"}, layer(guitar, "fingers"), "of the plucking hand")
	assert.Equal(t, []string{"1", "2"}, strings.Split(strings.Trim(strings.ReplaceAll(strings.Join(layer(piano, "chunks"), ""), "[]", ""), "[]"), "][")[:2], "chunks have numbers, their joins none")
}

// Layers written into the score go out with it, so that a notation program shows
// them.
func TestAnnotatedCopy(t *testing.T) {
	page := written(t, instrument.Keyboard, "", "C D E C|C D E C")
	file, err := notation.Write(notation.MusicXML, page.Annotated([]string{"names", "fingers", "patterns"}, Ask{Size: 4, Known: Landmarks}))
	require.NoError(t, err)
	again, err := notation.Read("x.musicxml", file)
	require.NoError(t, err)
	bars := again.Parts[0].Bars
	assert.Equal(t, "D", bars[0].Notes[1].Lyric)
	assert.Equal(t, []string{"2"}, bars[0].Notes[1].Fingers)
	require.Len(t, bars[1].Marks, 1)
	assert.Equal(t, "A=", bars[1].Marks[0].Text)
	assert.Empty(t, page.Score.Parts[0].Bars[0].Notes[1].Lyric, "the page itself stays as it was")
	guitar := written(t, instrument.Plucked, "", "C G c e").Annotated([]string{"tablature"}, Ask{Size: 4})
	assert.Equal(t, 3, guitar.Parts[0].Bars[0].Notes[0].Fret)
	var fingers []string
	for _, n := range written(t, instrument.Keyboard, "", "[CEG]4").Annotated([]string{"fingers"}, Ask{Size: 4}).Parts[0].Bars[0].Notes {
		fingers = append(fingers, n.Fingers...)
	}
	assert.Equal(t, []string{"1", "3", "5"}, fingers, "each note of a chord has its own")
}

func TestNewForAReader(t *testing.T) {
	page := written(t, instrument.Keyboard, "", "C D E F|G A c2")
	known := func(id string) bool { return id != "skips" && id != "thumb-under" }
	met := map[pitch.Pitch]bool{}
	for _, n := range pitch.MustParseAll("C4", "D4", "E4", "F4", "G4") {
		met[n] = true
	}
	var says []string
	for _, r := range page.New(page.Demands(), known, met, func(id string) string { return id }) {
		says = append(says, r.Code+" "+r.Args["skill"]+r.Args["notes"]+" "+r.Args["bar"]+r.Args["bars"])
	}
	assert.Equal(t, []string{"new-skill thumb-under 1", "new-notes A4,C5 2,2", "new-skill skips 2"}, says, "by where they stand")
}
