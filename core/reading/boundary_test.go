package reading

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/pitch"
	"patientladder/core/score"
	catalogue "patientladder/words"
)

// What looks like a sign of the page and is none: the other side of what is asked. Common
// practice, no source.
func TestWhatAPageDoesNotAskFor(t *testing.T) {
	for _, c := range []struct {
		skill string
		plays instrument.Family
		head  string
		bars  string
		why   string
	}{
		{"long-notes", instrument.Keyboard, "", "C D E F|G3/2 E/ C D", "a dotted beat is not a long note"},
		{"halves", instrument.Keyboard, "", "C D E F|G2 E2", "beats"},
		{"quarters-of-beat", instrument.Keyboard, "", "C/D/E/F/ G2", "halves of one"},
		{"syncopation", instrument.Keyboard, "", "C/ D/ E F G", "on the beat again"},
		{"six-eight", instrument.Keyboard, "M:3/8\nL:1/8\n", "C D E|F3", "three eighths are three beats"},
		{"three-time", instrument.Keyboard, "M:6/8\nL:1/8\n", "C3 D3|E3 F3", "six eighths are two"},
		{"three-time", instrument.Keyboard, "M:2/4\n", "C D|E2", "two"},
		{"pickup", instrument.Keyboard, "", "C D E F|G4", "a whole bar"},
		{"ties", instrument.Keyboard, "", "(C D E F)|F4", "a slur is not a tie"},
		{"changing-meter", instrument.Keyboard, "", "C D E F|[M:4/4] G4", "the same again"},
		{"key-change", instrument.Keyboard, "", "C D E F|[K:C]G4", "the same again"},
		{"two-against-three", instrument.Keyboard, "", "(3C/D/E/ F G2\nC, E, F,2", "beats go into three"},
		{"steps", instrument.Keyboard, "", "C E G E|C2 C2", "skips"},
		{"skips", instrument.Keyboard, "", "C D E F|G F E D", "steps"},
		{"fourths-fifths", instrument.Keyboard, "", "C E G B|C2 C2", "thirds"},
		{"fourths-fifths", instrument.Keyboard, "", "C D C2|C A C2", "a sixth"},
		{"wide-leaps", instrument.Keyboard, "", "C D E F|G C G2", "a fifth"},
		{"accidentals", instrument.Keyboard, "K:G\n", "G A B c|d f d2", "of the key"},
		{"loud-soft", instrument.Keyboard, "", "!p!C D E F|!p!G4", "the same again"},

		{"hands-in-turn", instrument.Keyboard, "", "C D E F|z4\nC,4|C,4", "the right hand is never alone"},
		{"hands-in-turn", instrument.Keyboard, "", "C D E F|G4\nz4|C,4", "nor the left here"},
		{"held-left-hand", instrument.Keyboard, "", "C D E F|G4\nC, D, E, F,|C,4", "both move"},
		{"hands-together", instrument.Keyboard, "", "C D E F|G4\nC,4|C,4", "one holds"},
		{"parallel-hands", instrument.Keyboard, "", "C D E F|G4\nG, F, E, D,|C,4", "they run apart"},
		{"parallel-hands", instrument.Keyboard, "", "C C C C|G4\nC, C, C, C,|C,4", "they stay"},
		{"mirrored-hands", instrument.Keyboard, "", "C D E F|G4\nC, D, E, F,|G,4", "they run the same way"},
		{"mirrored-hands", instrument.Keyboard, "", "C D E F|G4\nC, C, C, C,|C,4", "one stays"},
		{"g-position", instrument.Keyboard, "", "C D E F|G F E D", "five fingers from C"},
		{"thumb-under", instrument.Keyboard, "", "C D E F|G F E D", "no thumb passes within five keys"},
		{"finger-over", instrument.Keyboard, "", "C D E F|G F E D", "nor a finger"},
		{"extend", instrument.Keyboard, "", "C D E F|[CG]4", "a fifth lies in the hand"},
		{"octaves", instrument.Keyboard, "", "C D E F|[CB]4", "a seventh"},
		{"chord-block", instrument.Keyboard, "", "C D E F|[CE]4", "two notes"},
		{"chord-broken", instrument.Keyboard, "", "C D E F|C E C E", "two keys"},
		{"chord-broken", instrument.Keyboard, "", "C D E F|C E F D", "a step among them"},
		{"rocking-bass", instrument.Keyboard, "", "C4|z4\nC,4|C, E, G, E,", "with nothing above it"},
		{"rocking-bass", instrument.Keyboard, "", "C E G E|G4\nC,4|C,4", "in the right hand it is a broken chord"},
		{"arpeggio", instrument.Keyboard, "", "C D E F|C E G E", "it turns within the octave"},
		{"slur-two", instrument.Keyboard, "", "C D E F|(G F E) D", "three under a slur"},
		{"slur-long", instrument.Keyboard, "", "C D E F|(G F) E D", "two"},
		{"touch-detached", instrument.Keyboard, "", "C D E F|!>!G F E D", "an accent"},
		{"two-touches", instrument.Keyboard, "", "(C D E F)|G4\n(C, D, E, F,)|G,4", "both joined"},
		{"repeated-notes", instrument.Keyboard, "", "C D E F|G/G/ E G2", "two"},

		{"repeated-notes", instrument.Keyboard, "", "C D E F|G G G G", "three beats are no quick ones"},
		{"parallel-hands", instrument.Keyboard, "", "C D2 E|G4\nC, D, C,2|G,4", "twice running"},
		{"parallel-hands", instrument.Keyboard, "", "C D z E|F4\nC, D, E,2|G,4", "with a pause in one hand between"},
		{"bass-chord", instrument.Keyboard, "", "C4|D4\nC, [D,F,] C,2|z4", "the chord is a step away"},
		{"bass-chord", instrument.Keyboard, "", "C4|D4\nC, z [E,G,] z|z4", "after a rest"},
		{"bass-chord", instrument.Keyboard, "", "C4|D4\n[C,E,] [E,G,] C,2|z4", "after a chord"},
		{"bass-chord", instrument.Keyboard, "", "C [EG] C [EG]|D4\nC,4|z4", "in the right hand"},
		{"any-position", instrument.Keyboard, "", "D E D E|D4", "two keys are no position"},
		{"any-position", instrument.Keyboard, "", "D E F E|D4", "nor three"},
		{"f-position", instrument.Keyboard, "", "F G A B|c4", "without B flat"},
		{"ledger-lines", instrument.Keyboard, "", "C D E F|G4\nC,4|E,4", "in the bass clef they lie on the staff"},
		{"slur-two", instrument.Keyboard, "", "C D E F-|(F F) E2", "one of the two is tied"},

		{"stepping-fingers", instrument.Bowed, "K:C bass\n", "D, E, D, E,|D,4", "from the open string"},
		{"stepping-fingers", instrument.Bowed, "K:C bass\n", "E, E, E, E,|E,4", "the same finger"},
		{"stepping-fingers", instrument.Bowed, "K:C bass\n", "E, B, E, B,|E,4", "on two strings"},
		{"string-levels", instrument.Bowed, "K:C bass\n", "E, F, E, F,|E,4", "one string"},
		{"quick-crossings", instrument.Bowed, "K:C bass\n", "D,/A,/ D, D,2|D,4", "only two"},
		{"quick-crossings", instrument.Bowed, "K:C bass\n", "D, A,/D,/ A,2|D,4", "the first slow"},
		{"shift-up", instrument.Bowed, "K:C bass\n", "D, E, F, G,|A,4", "in first position"},
		{"pinch", instrument.Plucked, "", "G B e B|[E,B,EG]4", "four strings at once"},
		{"chord-two-finger", instrument.Plucked, "", "G B e B|[A,c]4", "two strings"},
		{"chord-change", instrument.Plucked, "", "[CEGce]4|G B e2", "into single notes"},
		{"strum", instrument.Plucked, "", "G B e B|[GBe]4", "three strings"},
		{"hammer", instrument.Plucked, "", "e f g2|(g e) g2", "downwards"},
		{"hammer", instrument.Plucked, "", "e f g2|(B f) g2", "from another string"},
		{"pull", instrument.Plucked, "", "e f g2|(e f) g2", "upwards"},
		{"tune-and-bass", instrument.Plucked, "", "G B e B|[ce]4", "two fingers"},
		{"open-strings", instrument.Bowed, "K:C bass\n", "E, F, E, F,|E,4", "all stopped"},
		{"slur-two-notes", instrument.Bowed, "K:C bass\n", "D, E, F, G,|D, E, F,2", "a bow each"},
		{"slur-three", instrument.Bowed, "K:C bass\n", "D, E, F, G,|(D, E,) F,2", "two"},
		{"slur-crossing", instrument.Bowed, "K:C bass\n", "D, E, F, G,|(D, E,) F,2", "on one string"},
		{"double-open", instrument.Bowed, "K:C bass\n", "D, E, F, G,|[G,,E,]4", "one is stopped"},
		{"double-notes", instrument.Bowed, "K:C bass\n", "D, E, F, G,|[G,,D,]4", "both are open"},
		{"quick-crossings", instrument.Bowed, "K:C bass\n", "D, A, D, A,|D,2 A,2", "slow ones"},

		{"alternating-bass", instrument.Plucked, "", "G B e B|E, B E, B", "the thumb stays on its string"},
		{"alternating-bass", instrument.Plucked, "", "G B e B|[E,B] [A,B] z2", "with a finger at the same moment"},
		{"pinch", instrument.Plucked, "", "G B e B|E,2 e2", "one after the other"},
		{"strum", instrument.Plucked, "", "G B e B|[A,c]4", "two strings"},
		{"chord-three-finger", instrument.Plucked, "", "G B e B|[E,B,EGBe]4", "two are stopped"},
		{"chord-change", instrument.Plucked, "", "[CEGce]4|[CEGce]4", "the same again"},
		{"tune-and-bass", instrument.Plucked, "", "G B e B|c2 A,2", "one after the other"},
	} {
		for _, d := range written(t, c.plays, c.head, c.bars).Demands() {
			assert.NotEqual(t, c.skill, d.Skill, "%s in %q on %s: %s", c.skill, c.bars, c.plays, c.why)
		}
	}
}

func TestLengthsOfABeat(t *testing.T) {
	for _, c := range []struct {
		meter    score.Meter
		beat     score.Time
		compound bool
	}{
		{score.Meter{Beats: 4, BeatType: 4}, score.Quarters(1), false}, {score.Meter{Beats: 2, BeatType: 2}, score.Quarters(2), false}, {score.Meter{Beats: 3, BeatType: 8}, score.Frac(1, 2), false},
		{score.Meter{Beats: 6, BeatType: 8}, score.Frac(3, 2), true}, {score.Meter{Beats: 9, BeatType: 16}, score.Frac(3, 4), true}, {score.Meter{Beats: 7, BeatType: 8}, score.Frac(1, 2), false}, {score.Meter{Beats: 6, BeatType: 4}, score.Quarters(1), false},
	} {
		beat, compound := beatOf(c.meter)
		assert.Equal(t, c.beat, beat, "%v", c.meter)
		assert.Equal(t, c.compound, compound, "%v", c.meter)
	}
}

func TestLettersOfFigures(t *testing.T) {
	for n, want := range map[int]string{0: "A", 25: "Z", 26: "AA", 27: "AB", 51: "AZ", 52: "BA"} {
		assert.Equal(t, want, letter(n), n)
	}
}

// What phrases cost by their length in bars: a table of a judgement, so that it is noticed when it moves.
func TestPhrasesOfOddLengths(t *testing.T) {
	odd1, two := judgement.PhraseOdd, judgement.PhraseTwo
	for bars, want := range map[float64]float64{
		4: 0, 2: two, 3: odd1, 5: odd1, 8: 2 * odd1, 1: 3 * odd1, 0: 3 * odd1, 6: 2.5 * odd1, 7: 2.5 * odd1, 9: 2.5 * odd1,
		3.875: odd1 / 4, 4.25: odd1 / 2, 4.375: odd1 / 2,
	} {
		assert.InDelta(t, want, odd(bars), 1e-9, "%g bars", bars)
	}
}

// Words for a rhythm have sixty letters at most, and are not only blanks.
func TestHowLongWordsMayBe(t *testing.T) {
	assert.NoError(t, Words{"1": strings.Repeat("a", 60)}.Check())
	assert.ErrorContains(t, Words{"1": strings.Repeat("a", 61)}.Check(), "at most 60 letters")
	assert.NoError(t, Words{"4": "la"}.Check())
	assert.NoError(t, Words{"1 r1 2": "la"}.Check())
}

// How a piece goes by what is written: common practice, no source, with the two speeds a judgement.
func TestHowAPieceIsMarked(t *testing.T) {
	for _, c := range []struct{ head, bars, want string }{
		{fmt.Sprintf("Q:1/4=%d\n", livelyFrom), ".C .D E F|G4", "lively"},
		{fmt.Sprintf("Q:1/4=%d\n", livelyFrom-1), ".C .D E F|G4", ""},
		{fmt.Sprintf("Q:1/4=%d\n", livelyFrom), "(C D) E F|G4", ""},
		{fmt.Sprintf("Q:1/4=%d\n", lyricalTo), "(C D) E F|G4", "lyrical"},
		{fmt.Sprintf("Q:1/4=%d\n", lyricalTo+1), "(C D) E F|G4", ""},
		{fmt.Sprintf("Q:1/4=%d\n", lyricalTo), ".C (D E) F|G4", "lyrical"},
		{fmt.Sprintf("Q:1/4=%d\n", lyricalTo), ".C .D (E F)|G4", ""},
		{"", ".C .D .E F|G4", "lively"},
		{"", ".C .D E F|G4", ""},
		{"", "(C D) E F|G4", ""},
	} {
		assert.Equal(t, c.want, written(t, instrument.Keyboard, c.head, c.bars).taste(), "%q in %q", c.bars, c.head)
	}
}

// A line goes on by step across the thumb: away from it, it passes under the third or fourth finger;
// towards it, they go over. Common practice, no source.
func TestTheUsualCrossings(t *testing.T) {
	up, down := line(t, "E F"), line(t, "F E")
	e, f := up[0].Top().Line(), up[1].Top().Line()
	for _, c := range []struct {
		says      string
		line      []Chord
		was, then int // lowest key of the hand
		hand      Hand
		usual     bool
	}{
		{"right hand up: the thumb under the third", up, e - 2, f, Right, true},
		{"under the fourth", up, e - 3, f, Right, true},
		{"not under the second", up, e - 1, f, Right, false},
		{"nor the fifth", up, e - 4, f, Right, false},
		{"right hand down: the third over the thumb", down, f, e - 2, Right, true},
		{"the fourth over the thumb", down, f, e - 3, Right, true},
		{"not the second", down, f, e - 1, Right, false},
		{"left hand up: the third over the thumb", up, e - 4, f - 2, Left, true},
		{"left hand down: the thumb under the third", down, f - 2, e - 4, Left, true},
		{"left hand up with the thumb: no", up, e - 2, f - 4, Left, false},
	} {
		cost := awkward(c.line[0].Top().Line(), c.line[1].Top().Line(), c.was, c.then, c.hand)
		assert.Equal(t, c.usual, cost == 0, c.says)
	}
}

// A written finger says where the hand lies, in either hand; two that disagree do not.
func TestWhereAWrittenFingerPutsTheHand(t *testing.T) {
	for _, c := range []struct {
		bars string
		hand Hand
		low  string // of the five keys; empty where any will do
	}{
		{"!1!E", Right, "E"}, {"!3!E", Right, "C"}, {"!5!G", Right, "C"},
		{"!5!E", Left, "E"}, {"!1!G", Left, "C"}, {"!3!E", Left, "C"},
		{"[!1!C!3!E]", Right, "C"}, {"[!1!C!2!E]", Right, "C"}, {"[!2!C!5!E]", Right, "C"},
		{"E", Right, ""}, {"[CA]", Right, "C"}, {"[CG]", Right, ""},
	} {
		l := line(t, c.bars)
		low, one := l[0].fixed(c.hand)
		assert.Equal(t, c.low != "", one, c.bars)
		if c.low != "" {
			assert.Equal(t, line(t, c.low)[0].Top().Line(), low, "%s %s", c.bars, c.hand)
		}
	}
}

// Chunks of several levels: the smallest have numbers and one of two grounds, their joins none.
func TestLevelsOfChunks(t *testing.T) {
	l, _ := written(t, instrument.Keyboard, "", "C D E F|G F E D|C E G E|C4").Layer("chunks", Ask{Size: 4})
	var got []string
	for _, s := range l.Spans {
		got = append(got, fmt.Sprintf("%s/%d/%d", s.Text, s.Hue, s.Level))
	}
	assert.Equal(t, []string{"1/0/0", "2/1/0", "/0/1", "3/0/0", "/0/2"}, got)
}

// What speaks for a phrase to begin with a note, in the names of what is judged.
func TestWhatSpeaksForAPhrase(t *testing.T) {
	base, rest, long, breath, bar, upbeat := judgement.PhraseBase, judgement.PhraseRest, judgement.PhraseLong, judgement.PhraseBreath, judgement.PhraseBar, judgement.PhraseUpbeat
	for _, c := range []struct {
		says string
		bars string
		note int // from 0
		want float64
	}{
		{"within a bar nothing does", "C D E F|G A B c|A4", 2, -base - bar},
		{"a bar line", "C D E F|G A B c|A4", 4, -base + bar},
		{"a rest at the bar line", "C D E z|G A B c|A4", 3, -base + rest + long + bar},
		{"a rest within the bar", "C z E F|G A B c|A4", 1, -base + rest + long},
		{"a note twice as long as most, before a bar line", "C D E2|G A B c|A4", 3, -base + long + bar},
		{"four times as long as most", "C D E F|A4|G A B c", 5, -base + 2*long + bar},
		{"one half as long again as most is not long", "C D E3/2F/|G A B c|A4", 3, -base - bar},
		{"a long one before one as long is not", "C D E F|A2 A2|G A B c", 5, -base},
		{"the end of a slur", "(C D E F)|G A B c|A4", 4, -base + breath + bar},
		{"an upbeat as long as the first", "G|C D E F|G2 A B|c3", 7, -base + upbeat},
		{"a bar line in a piece with an upbeat", "G|C D E F|G2 A B|c3", 5, -base + bar},
	} {
		page := written(t, instrument.Keyboard, "", c.bars)
		weights, _ := page.breaths(page.Staves[0], 4)
		assert.InDelta(t, c.want, weights[c.note], 1e-9, c.says)
	}
}

// A score names strings by its clef or at a note.
func TestWhatIsTablature(t *testing.T) {
	of := func(b score.Bar) score.Score { return score.Score{Parts: []score.Part{{Bars: []score.Bar{{}, b}}}} }
	assert.True(t, Tablature(of(score.Bar{Clefs: []score.Clef{{Sign: "TAB"}}})))
	assert.True(t, Tablature(of(score.Bar{Notes: []score.Note{{String: 1}}})))
	assert.False(t, Tablature(of(score.Bar{Clefs: []score.Clef{{Sign: "G"}}, Notes: []score.Note{{Fret: 3}}})))
}

// Intervals have a number by the lines and a quality by the half steps; which of the two is named
// first does not matter. Facts of the trade, common practice, no source.
func TestIntervalsEitherWay(t *testing.T) {
	for _, c := range []struct{ a, b, want string }{
		{"C4", "C4", "P1"}, {"C4", "C#4", "A1"}, {"Cb4", "C4", "A1"}, {"C4", "Db4", "m2"}, {"C4", "D4", "M2"}, {"C4", "D#4", "A2"}, {"C#4", "Db4", "d2"}, {"C4", "F4", "P4"}, {"C4", "F#4", "A4"}, {"C4", "Gb4", "d5"},
		{"C4", "Bb4", "m7"}, {"C#4", "Bb4", "d7"}, {"C4", "C5", "P8"}, {"C4", "E5", "M10"}, {"Cb4", "F#4", "AA4"}, {"C#4", "Fb4", "dd4"}, {"C#4", "Ebb4", "dd3"},
	} {
		a, b := pitch.MustParseAll(c.a)[0], pitch.MustParseAll(c.b)[0]
		assert.Equal(t, c.want, Between(a, b).String(), "%s %s", c.a, c.b)
		assert.Equal(t, c.want, Between(b, a).String(), "%s %s", c.b, c.a)
	}
}

// Demands stand in the order in which the page asks.
func TestDemandsInOrder(t *testing.T) {
	demands := written(t, instrument.Keyboard, "", "C D E F|G/A/ G E2|!trill!C4|^F G3/2 A/ z|c4").Demands()
	assert.Greater(t, len(demands), 4)
	for i := 1; i < len(demands); i++ {
		a, b := demands[i-1], demands[i]
		assert.True(t, a.Bar < b.Bar || a.Bar == b.Bar && !b.Beat.Less(a.Beat), "%s before %s", a.Skill, b.Skill)
	}
}

// A chunk says where it is and how the hand begins.
func TestWhatAChunkSays(t *testing.T) {
	for want, c := range map[string]Chunk{
		"bar 2: right hand, finger 1 on C": {From: Place{Bar: 2}, To: Place{Bar: 2}, Hand: Right, Start: StartOf{"1", "C4"}},
		"bars 2-4: begins on G":            {From: Place{Bar: 2}, To: Place{Bar: 4}, Start: StartOf{"", "G"}},
	} {
		assert.Equal(t, want, catalogue.In(catalogue.Reader{}).Label(c.says()))
	}
}

// The smallest chunks of one hand know their notes' names and the ways between them; those in which both play do not.
func TestNamesAndWaysOfAChunk(t *testing.T) {
	chunks := func(bars string) (out []string) {
		var walk func(c Chunk)
		walk = func(c Chunk) {
			if len(c.Parts) == 0 {
				out = append(out, strings.Join(c.Names, " ")+strings.Trim(fmt.Sprint(len(c.Ways)), "[]"))
			}
			for _, part := range c.Parts {
				walk(part)
			}
		}
		for _, tree := range written(t, instrument.Keyboard, "", bars).Chunks(4) {
			walk(tree)
		}
		return out
	}
	assert.Equal(t, []string{"C4 D4 E4 F43", "G4 F4 E4 D4 C44"}, chunks("C D E F|G F E D|C4"))
	both := chunks("C D E F|G4\nC,2 D,2|C,4")
	assert.Contains(t, both, "0", "both hands together")
}

// The hands take turns where hardly any moment of the one sounds under the other: one in seven, a judgement.
func TestHowMuchOfATurn(t *testing.T) {
	for _, c := range []struct {
		says, bars string
		want       bool
	}{
		{"bar by bar", "C D E F|z4\nz4|C, D, E, F,", true},
		{"the last of one held under the first of the other", "C D E F-|F z3|z4|C D E F\nz4|C, D, E, F,|C, D, E, F,|z4", true},
		{"one in seven", "C4|z4|C D E F|C D E F\nC, D, E, F,|C, D, E,2|z4|z4", false},
		{"both all the time", "C D E F|G4\nC,4|C,4", false},
		{"one ends as the other begins", "C2 z2|C2 z2\nz2 C,2|z2 C,2", true},
		{"one hand", "C D E F", false},
	} {
		assert.Equal(t, c.want, written(t, instrument.Keyboard, "", c.bars).InTurn(), c.says)
	}
}

// Where it will trip: what weighs enough, at most three bars, in the order of the page; what stands in every bar trips nobody.
func TestWhereItWillTrip(t *testing.T) {
	page := written(t, instrument.Keyboard, "", "C4|C4|C4|C4|C4|C4|C4|C4|C4|C4")
	at := func(demands ...Demand) (out []string) {
		for _, t := range page.trips(demands) {
			out = append(out, fmt.Sprint(t.bar, " ", strings.Join(t.signs, ", ")))
		}
		return out
	}
	ask := func(skill string, bars ...int) Demand {
		return Demand{Skill: skill, Bars: bars, Bar: bars[0]}
	}
	assert.Equal(t, []string{"3 syncopation"}, at(ask("syncopation", 3)))
	assert.Empty(t, at(ask("ties", 3)), "a tie alone does not")
	assert.Equal(t, []string{"3 ties, fourths-fifths"}, at(ask("ties", 3), ask("fourths-fifths", 3, 5)), "with a leap it does")
	assert.Empty(t, at(ask("syncopation", 1, 2, 3, 4, 5, 6, 7, 8, 9, 10)))
	assert.Empty(t, at(ask("steps", 3)), "what weighs nothing")
	assert.Equal(t, []string{"1 syncopation", "4 three-against-four", "8 two-against-three"}, at(ask("syncopation", 1, 2, 9), ask("three-against-four", 4), ask("two-against-three", 8)), "the three that weigh most")
}

// What stands first at the head counts; what is said later in the bar does not say how it goes.
func TestWordsAtTheHead(t *testing.T) {
	s := score.Score{Parts: []score.Part{{}, {Bars: []score.Bar{{Length: score.Quarters(4), Marks: []score.Mark{
		{Onset: score.Quarters(2), Kind: "words", Text: "slowly"}, {Kind: "dynamic", Text: "mf"}, {Kind: "words", Text: " Lively "}, {Kind: "words", Text: "calmly"}}}}}}}
	assert.Equal(t, "Lively", Page{Score: s}.Tempo().Word)
	for qpm, want := range map[float64]string{livelyFrom: "lively", livelyFrom - 1: "walking", lyricalTo: "calm", lyricalTo + 1: "walking"} {
		assert.Equal(t, want, pace(qpm), "%g", qpm)
	}
}

// The lowest notes of the beginning and the end, of all staves that sound as they are written.
func TestTheLowestAtBothEnds(t *testing.T) {
	for _, c := range []struct{ bars, first, last string }{
		{"[CE] D E F|[EG]4", "C4", "E4"},
		{"C D E F|G4\nE,4|G,4", "E3", "G3"},
		{"z C D E|G2 z2\nE,4|G,4", "E3", "G3"},
		{"z2 C2|G4\nz4|z4", "C4", "G4"},
		{"G|C D E F|G3", "C4", "G4"},
		{"C D E F|z2 C2\nE,4|G,2 z2", "E3", "C4"},
	} {
		first, last := written(t, instrument.Keyboard, "", c.bars).lowest()
		assert.Equal(t, []string{c.first, c.last}, []string{first.String(), last.String()}, c.bars)
	}
}
