package reading

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

func tune(t *testing.T, bars string) score.Score {
	s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\nK:C\n"+bars+"\n"))
	require.NoError(t, err)
	return s
}

func line(t *testing.T, bars string) []Chord {
	s := tune(t, bars)
	return Line(s.Parts[0], 1, s.Written())
}

func TestDirections(t *testing.T) {
	for _, c := range []struct{ name, bars, want string }{
		{"a walk", "C D E D", "start up up down"},
		{"same across a bar line", "C D E E|E D C2", "start up up same same down down"},
		{"same across a rest", "C z C D", "start same up"},
		{"a tie is one note", "C2-C2|D4", "start up"},
		{"a sharp is up", "C ^C =C C", "start up down same"},
	} {
		top, _ := Directions(line(t, c.bars))
		assert.Equal(t, c.want, strings.Trim(fmt.Sprint(top), "[]"), c.name)
	}
	top, bottom := Directions(line(t, "[CE][CG][DG]"))
	assert.Equal(t, []Direction{Start, Up, Same}, top, "chords by the top note")
	assert.Equal(t, []Direction{Start, Same, Up}, bottom, "and by the bottom note")
	none, _ := Directions(nil)
	assert.Empty(t, none)
}

// Intervals as the npm library teoria names them, for notes up to an octave
// apart and at most one sharp or flat each.
func TestIntervalsAgainstAnotherLibrary(t *testing.T) {
	var pairs [][2]string
	var ours []string
	for line := range 14 {
		for width := range 8 {
			for _, alters := range [][2]int{{0, 0}, {1, 0}, {0, 1}, {-1, 0}, {0, -1}, {1, 1}, {-1, -1}} {
				a, err := pitch.New("CDEFGAB"[line%7], alters[0], 4+line/7)
				require.NoError(t, err)
				b, err := pitch.New("CDEFGAB"[(line+width)%7], alters[1], 4+(line+width)/7)
				require.NoError(t, err)
				if b.MIDI() < a.MIDI() || width == 0 && b.MIDI() != a.MIDI() {
					continue
				}
				i := Between(a, b)
				if len(i.Quality) > 1 {
					continue
				}
				pairs, ours = append(pairs, [2]string{a.String(), b.String()}), append(ours, i.String())
			}
		}
	}
	in, err := json.Marshal(pairs)
	require.NoError(t, err)
	cmd := exec.Command("node", "../../web/checks/intervals.mjs")
	cmd.Stdin = bytes.NewReader(in)
	out, err := cmd.Output()
	require.NoError(t, err, "the check needs the packages of web/: run npm ci there")
	var theirs []string
	require.NoError(t, json.Unmarshal(out, &theirs))
	require.Greater(t, len(pairs), 500)
	for i := range pairs {
		// teoria writes the number first after the quality, like us
		require.Equal(t, theirs[i], ours[i], "%v", pairs[i])
	}
}

func TestIntervalNames(t *testing.T) {
	var got []string
	for _, i := range Melodic(line(t, "C C D F|C G C A|C B C c|C d")) {
		got = append(got, i.Name)
	}
	assert.Equal(t, []string{"same", "step", "skip", "fourth", "fifth", "fifth", "sixth", "sixth", "seventh", "seventh", "octave", "octave", "wider"}, got)
	assert.Equal(t, "[M3 P5]", fmt.Sprint(line(t, "[CEG]4")[0].Harmonic()))
}

func TestNearestLandmark(t *testing.T) {
	note := func(s string) pitch.Pitch { p, err := pitch.Parse(s); require.NoError(t, err); return p }
	known := []pitch.Pitch{note("C4"), note("G4")}
	for name, want := range map[string]string{"D4": "C4 +1", "F4": "G4 -1", "E4": "C4 +2", "A4": "G4 +1", "B3": "C4 -1", "C4": "C4 +0"} {
		landmark, steps, ok := Nearest(note(name), known)
		require.True(t, ok)
		assert.Equal(t, want, fmt.Sprintf("%v %+d", landmark, steps), name)
	}
	_, _, ok := Nearest(note("D4"), nil)
	assert.False(t, ok)
}

func lows(positions []Position) (out []string) {
	for _, p := range positions {
		out = append(out, fmt.Sprintf("%d.%v %s %s%s", p.Bar, p.Beat, p.Low, strings.Join(p.Fingers, ""), p.Move))
	}
	return
}

// The scale's fingers are those of Hanon, The Virtuoso Pianist (1873), No. 39,
// C major over one octave.
func TestPositions(t *testing.T) {
	for _, c := range []struct {
		name, bars string
		hand       Hand
		want       []string
	}{
		{"five fingers on C", "C D E F|G F E D", Right, []string{"1.0 C4 12345432"}},
		{"the same, left hand", "C D E F|G F E D", Left, []string{"1.0 C4 54321234"}},
		{"two positions and a jump", "C E G z|z c e g", Right, []string{"1.0 C4 135", "2.1 C5 135jump"}},
		{"a scale passes the thumb under", "C D E F|G A B c", Right, []string{"1.0 C4 123", "1.3 F4 12345crossing"}},
		{"coming down the third finger goes over", "c B A G|F E D C", Right, []string{"1.0 F4 54321", "2.1 C4 321crossing"}},
		{"the left hand up: the third goes over", "C D E F|G A B c", Left, []string{"1.0 C4 54321", "2.1 F4 321crossing"}},
		{"a written finger moves the hand", "!1!C D !1!E F", Right, []string{"1.0 C4 12", "1.2 E4 12crossing"}},
		{"a chord too wide stands by itself", "[Cc]4", Right, []string{"1.0 C4 5"}},
		{"one note beyond the five: the hand opens", "C E G A|G E C2", Right, []string{"1.0 D4 1245421"}},
		{"or below, whichever saves a finger", "D F A C|D F A2", Right, []string{"1.0 C4 2451245"}},
		{"three of them: the hand goes there", "C E G A|B A G A|G E C2", Right, []string{"1.0 C4 1", "1.1 E4 134543431jump", "3.2 C4 1jump"}},
		{"a neighbour on the same letter has a finger of its own", "e _e =e _e|=e B =d c|A4", Right, []string{"1.0 A4 545452431"}},
		{"a change at the long note, not at the repeated one", "C2 D2|G G c d|e4", Right, []string{"1.0 C4 1255", "2.2 C5 123jump"}},
		{"a hand once open stays open", "C E G2|A A A A|G E C2", Right, []string{"1.0 D4 1245555421"}},
		{"the same run has the same fingers", "C D E F|G F E D|E G c e|C D E F|G F E D|C4", Right, []string{"1.0 C4 1234543235", "3.2 C5 13jump", "4.0 C4 123454321jump"}},
	} {
		assert.Equal(t, c.want, lows(Positions(line(t, c.bars), c.hand, false)), c.name)
	}
	assert.Equal(t, []string{"1.0 C4 1", "1.1 D4 24542jump", "2.2 C4 1jump"}, lows(Positions(line(t, "C E G A|G E C2"), Right, true)), "a small hand moves instead")
	assert.Empty(t, Positions(nil, Right, false))
}

// The least that positions cost, by trying every way to place each note: changes, and notes for
// which the hand opens.
func fewest(chords []Chord, hand Hand) float64 {
	var lows []int
	for low := 14; low < 50; low++ {
		lows = append(lows, low)
	}
	best := math.Inf(1)
	var try func(i, at int, cost float64)
	try = func(i, at int, cost float64) {
		if cost >= best {
			return
		}
		if i == len(chords) {
			best = cost
			return
		}
		c := &chords[i]
		for _, low := range lows {
			if fixed, one := c.fixed(hand); one && low != fixed || !one && !inside(c, low) && openedFor(c.Notes[0].Line(), c.Top().Line(), low) == "" {
				continue
			}
			try(i+1, low, cost+costOf(chords, i, at, low, hand))
		}
	}
	try(0, 0, 0)
	return best
}

// costOf is what it costs to play a note from one position after another.
func costOf(chords []Chord, i, before, low int, hand Hand) (sum float64) {
	c := &chords[i]
	opens := openedFor(c.Notes[0].Line(), c.Top().Line(), low) != ""
	if opens {
		sum += costOpened
	}
	if i == 0 {
		return sum
	}
	last := &chords[i-1]
	if low != before {
		sum += change(last, c)
		if joined(chords, i) && contrary(last.Top().Line(), c.Top().Line(), before, low, hand) {
			sum += costContrary
		}
		return sum
	}
	if opens && last.Top() == c.Top() {
		sum -= costOpened
	}
	if abs(c.Top().Line()-last.Top().Line()) == 1 && finger(last, low, hand) == finger(c, low, hand) {
		sum += costSlide
	}
	return sum
}

// cost is what positions cost by the same count.
func cost(chords []Chord, got []Position, hand Hand) (sum float64) {
	i, before := 0, 0
	for _, p := range got {
		for range p.Fingers {
			sum += costOf(chords, i, before, p.line(), hand)
			before = p.line()
			i++
		}
	}
	return sum
}

func TestPositionsAreTheFewest(t *testing.T) {
	rng := rand.New(rand.NewPCG(2, 4))
	for range 200 {
		var bars strings.Builder
		for i := range 1 + rng.IntN(8) {
			if i > 0 && i%4 == 0 {
				bars.WriteString("|")
			}
			if rng.IntN(4) == 0 {
				fmt.Fprintf(&bars, "!%d!", 1+rng.IntN(5))
			}
			bars.WriteByte("CDEFGABcdefgab"[rng.IntN(14)])
		}
		chords := line(t, bars.String())
		hand := []Hand{Right, Left}[rng.IntN(2)]
		got := Positions(chords, hand, false)
		require.Equal(t, fewest(chords, hand), cost(chords, got, hand), bars.String())
		n := 0
		for _, p := range got {
			n += len(p.Fingers)
		}
		require.Equal(t, len(chords), n, "every chord has its finger")
	}
}

func kindsOf(figures []Figure) (out []string) {
	for _, f := range figures {
		out = append(out, f.ID+" "+string(f.Kind))
	}
	return
}

func TestThreeKindsOfRepetition(t *testing.T) {
	s := tune(t, "C D E2|C D E2|C/D/E3|D E F2|G A B2|E C D2")
	assert.Equal(t, []string{"A first", "A again", "A newRhythm", "A moved", "A moved", "B first"}, kindsOf(Bars(s)))
	assert.False(t, Bars(s)[3].Exact, "the same steps, other semitones")
	assert.True(t, Bars(s)[4].Exact)
	assert.Equal(t, 5, Distinct(s))
	assert.Empty(t, Bars(tune(t, "C4|z4"))[1:], "a bar of rests is not a figure")

	phrases := tune(t, "C E G D|G2 A B|C E G D|G2 A B")
	assert.Equal(t, []string{"A first", "A again"}, kindsOf(Figures(phrases)), "what returns is told at once")
	assert.Equal(t, score.Quarters(8), Figures(phrases)[1].Length)
	halves := tune(t, "C D C D|C D C D|C D C D")
	assert.Equal(t, 1, ToLearn(Figures(halves)))
	assert.Equal(t, score.Quarters(2), Figures(halves)[0].Length)
	held := tune(t, "C D2 E|C D2 E")
	assert.Equal(t, score.Quarters(4), Figures(held)[0].Length, "no cut through a held note")
	assert.Empty(t, Figures(score.Score{}))
}

// A twenty-bar study built from seven figures, ours, some of them moved or in a
// new rhythm: common practice, no source.
func TestTwentyBarsSevenFigures(t *testing.T) {
	figures := []string{"C D E G", "E2 D2", "G F E D", "C E G E", "A2 G F", "D3 B,", "C4"}
	order := []int{0, 1, 0, 2, 3, 1, 3, 5, 0, 4, 2, 5, 3, 4, 0, 1, 2, 4, 5, 6}
	var bars []string
	for _, f := range order {
		bars = append(bars, figures[f])
	}
	bars[12], bars[14] = "D F A F", "D E F A" // the same shapes, a step up
	s := tune(t, strings.Join(bars, "|"))
	assert.Equal(t, 20, s.Bars())
	assert.Equal(t, 7, ToLearn(Figures(s)))
	assert.Equal(t, 7, ToLearn(Bars(s)))
}

// The shortest telling by trying every unit, and for each stretch every reference to an
// earlier one; a letter is always of one length.
func TestFiguresAreTheShortestTelling(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 1))
	cells := []string{"CDE2", "DEF2", "C2DE", "E4", "GAB2", "EDC2", "CDCD", "z4"}
	for range 300 {
		var bars []string
		for range 2 + rng.IntN(7) {
			bars = append(bars, cells[rng.IntN(len(cells))])
		}
		s := tune(t, strings.Join(append(bars, "C4"), "|"))
		all := barCells(s, scope{})
		least, shortest := math.Inf(1), []Figure{}
		for _, list := range [][]window{halves(s, scope{}, all), stretches(s, all, 4), stretches(s, all, 2), stretches(s, all, 1)} {
			sum := 0.0
			for i, w := range list {
				cost := 1 + float64(w.notes)
				for _, b := range list[:i] {
					if kind, _, known := relate(&b, &w); kind != First {
						cost = min(cost, known)
					}
				}
				if w.notes > 0 {
					sum += cost
				}
			}
			told := tell(list)
			require.InDelta(t, sum, told.cost, 1e-9, bars)
			named := told.figures()
			require.Equal(t, ToLearn(named) < len(named), told.returns(), bars)
			if whole := len(list) > s.Bars()/2+1; (whole || told.returns()) && told.cost <= least {
				least, shortest = told.cost, named
			}
		}
		require.Equal(t, shortest, Figures(s), bars)
		lengths := map[string]score.Time{}
		for _, f := range Figures(s) {
			if was, met := lengths[f.ID]; met {
				require.Equal(t, was, f.Length, bars)
			}
			lengths[f.ID] = f.Length
		}
	}
}

// Lines of a song are named as a teacher says them: line three is line one. Common practice,
// no source.
func TestFiguresAPhraseAtATime(t *testing.T) {
	one, two := "C E G E|F D F D|G E D2|C4", "G G A G|F2 D2|A A B A|G4"
	for _, c := range []struct{ song, abc, figures string }{
		{"two lines, each twice", strings.Join([]string{one, two, one, two}, "|"), "A1 B5 A9= B13="},
		{"line four is line one", strings.Join([]string{one, one, two, one}, "|"), "A1 A5= B9 A13="},
		{"with another ending", strings.Join([]string{one, two, "C E G E|F D F D|G E D2|E4"}, "|"), "A1 B5 A9′"},
		{"half of it is the same", strings.Join([]string{one, two, "C E G E|F D F D|E E D2|C4"}, "|"), "A1 B5 A9′"},
		{"a bar of four is", strings.Join([]string{one, one, "C E G E|F2 D2|E E D2|C4"}, "|"), "A1 A5= B9"},
		{"a step up", strings.Join([]string{one, two, "D F A F|G E G E|A F E2|D4"}, "|"), "A1 B5 A9→"},
		{"from an upbeat, both times", "G|C E G E|F D F D|G E D2|C3 G|C E G E|F D F D|G E D2|C3", "A1 A5="},
		{"two lines of two bars, the second ends otherwise", "C D E2|F G A2|C D E2|G4", "A1 A3′"},
		{"no line comes back: bar by bar", "C D E2|D E F2|E F G2|C4", "A1 A2→ A3→ B4"},
	} {
		var got []string
		for _, f := range Read(tune(t, c.abc), instrument.Shipped.Of("piano")).Figures {
			got = append(got, f.ID+strconv.Itoa(f.Bar)+kinds[f.Kind])
		}
		assert.Equal(t, c.figures, strings.Join(got, " "), c.song)
	}
}

// walk visits the smallest chunks in order.
func walk(c Chunk, visit func(Chunk)) {
	if len(c.Parts) == 0 {
		visit(c)
	}
	for _, p := range c.Parts {
		walk(p, visit)
	}
}

func TestChunksAreJoinedToTheWhole(t *testing.T) {
	page := Read(tune(t, "C D E D|C D E2|E F G F|E D C2|C D E D|C D E2|E F G F|E D C2"), usual[instrument.Keyboard])
	trees := page.Chunks(Size(5, false))
	require.Len(t, trees, 1)
	whole := trees[0]
	assert.Equal(t, []int{1, 8}, []int{whole.From.Bar, whole.To.Bar})
	require.Len(t, whole.Parts, 2)
	assert.Equal(t, []int{1, 4}, []int{whole.Parts[0].From.Bar, whole.Parts[0].To.Bar}, "cut at the phrase")
	assert.Equal(t, StartOf{"3", "E4"}, whole.Parts[0].Parts[1].Start, "every chunk has its finger and key")
	bars := []int{}
	walk(whole, func(c Chunk) {
		bars = append(bars, c.From.Bar)
		assert.Equal(t, Right, c.Hand)
	})
	assert.Equal(t, []int{1, 2, 3, 4, 5, 6, 7, 8}, bars, "a bar each, in order, nothing left out")

	leaves := 0
	walk(page.Chunks(Size(9, true))[0], func(Chunk) { leaves++ })
	assert.Equal(t, 4, leaves, "from eight and reading solidly the pair is begun with")
	assert.Empty(t, Read(score.Score{}, usual[instrument.Keyboard]).Chunks(4))
}

func cuts(t *testing.T, bars string, size int) (out []string) {
	walk(Read(tune(t, bars), usual[instrument.Keyboard]).Chunks(size)[0], func(c Chunk) {
		out = append(out, fmt.Sprintf("%d.%v:%d", c.From.Bar, c.From.Beat, c.Notes))
	})
	return
}

// Where a line is cut: common practice, no source.
func TestWhereALineIsCut(t *testing.T) {
	for _, c := range []struct {
		name, bars string
		want       []string
	}{
		{"a full bar in two", "C/D/E/F/ G/F/E/D/", []string{"1.0:4", "1.2:4"}},
		{"at a rest rather than at the bar line", "C D E z|F E D C", []string{"1.0:3", "2.0:4"}},
		{"at the end of a slur, and where the thumb passes", "(C D E F|G A) (A G|F E) z2", []string{"1.0:2", "1.2:4", "2.2:4"}},
		{"where the hand moves", "C D E F G|c d e", []string{"1.0:5", "2.0:3"}},
		{"never to one note alone, and after four bars rather than three", "C4|D4|E4|F4|G4|A4|B4", []string{"1.0:4", "5.0:3"}},
	} {
		assert.Equal(t, c.want, cuts(t, c.bars, 4), c.name)
	}
}

// Chunks tile their whole, keep to their size, and are at least two notes.
func TestChunksTileTheLine(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 3))
	for range 200 {
		var bars strings.Builder
		for i := range 2 + rng.IntN(40) {
			if i > 0 && i%4 == 0 {
				bars.WriteString("|")
			}
			bars.WriteByte("CDEFGABcdefgabz"[rng.IntN(15)])
		}
		page := Read(tune(t, bars.String()+"C"), usual[instrument.Keyboard])
		size := 3 + rng.IntN(5)
		var check func(c Chunk) int
		check = func(c Chunk) int {
			if len(c.Parts) == 0 {
				require.LessOrEqual(t, c.Notes, max(size+1, 3))
				return c.Notes
			}
			require.Len(t, c.Parts, 2)
			require.Equal(t, c.From, c.Parts[0].From)
			require.Equal(t, c.To, c.Parts[1].To)
			require.GreaterOrEqual(t, min(c.Parts[0].Notes, c.Parts[1].Notes), 2)
			sum := check(c.Parts[0]) + check(c.Parts[1])
			require.Equal(t, c.Notes, sum)
			return sum
		}
		whole := page.Chunks(size)[0]
		require.Equal(t, len(page.Staves[0].Line), check(whole))
	}
}

func TestHandsTogetherHaveATreeOfTheirOwn(t *testing.T) {
	s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\n%%score {1 2}\nV:1\nV:2 clef=bass\nK:C\nV:1\nC D E F|G4|\nV:2\nC,4|E, D, C,2|\n"))
	require.NoError(t, err)
	trees := Read(s, usual[instrument.Keyboard]).Chunks(4)
	require.Len(t, trees, 3)
	assert.Equal(t, []Hand{Right, Left, Both}, []Hand{trees[0].Hand, trees[1].Hand, trees[2].Hand})
	assert.Equal(t, []int{5, 4, 7}, []int{trees[0].Notes, trees[1].Notes, trees[2].Notes})
	assert.Equal(t, StartOf{"1", "C4"}, trees[2].Start)
	assert.Equal(t, []HandStart{{Right, StartOf{"1", "C4"}}, {Left, StartOf{"5", "C3"}}}, trees[2].Starts, "each hand has its finger and key")
	require.Len(t, trees[2].Parts, 2)
	assert.Equal(t, []HandStart{{Right, StartOf{"1", "C4"}}, {Left, StartOf{"5", "C3"}}}, trees[2].Parts[0].Starts)
	assert.Equal(t, []HandStart{{Right, StartOf{"5", "G4"}}, {Left, StartOf{"3", "E3"}}}, trees[2].Parts[1].Starts)
	assert.Empty(t, trees[0].Starts, "one hand has one start")
}

func TestTheTeachersMinute(t *testing.T) {
	page := Read(tune(t, "C D E F|G A B c|C c G2|z C c2"), usual[instrument.Keyboard])
	var says []string
	for _, r := range page.Minute(page.Demands()) {
		says = append(says, strings.TrimPrefix(r.Code, "minute-")+" "+r.Args["figures"]+r.Args["finger"]+r.Args["key"]+r.Args["bars"]+r.Args["leap"]+r.Args["bar"])
	}
	assert.Equal(t, []string{"figures 34", "start-hand 1C4", "crossing 1", "jump 3, 4", "leap octave3", "trip 1", "trip 3", "trip 4", "theory C major"}, says)
	s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\n%%score {1 2}\nV:1\nV:2 clef=bass\nK:C\nV:1\nA2cB|A2E2|FAGF|E4|A2cB|d2c2|BGAB|A4|]\nV:2\n[A,,E,]4|[A,,E,]4|[D,A,]4|[E,,B,,]4|[A,,E,]4|[D,A,]4|[E,,B,,]4|[A,,E,]4|]\n"))
	require.NoError(t, err)
	var hands []string
	for _, r := range Read(s, usual[instrument.Keyboard]).Minute(nil) {
		if figures := r.Args["figures"]; figures != "" {
			hands = append(hands, r.Args["hand"]+" "+figures)
		}
	}
	var at []string
	for _, r := range Read(s, usual[instrument.Keyboard]).Minute(nil) {
		if r.Code == "minute-together" {
			at = append(at, r.Args["hand"]+" "+r.Args["intervals"]+" "+r.Args["bars"])
		}
	}
	assert.Equal(t, []string{"left open-fifth 1, 2, 3, 4, 5, 6, 7, 8"}, at)
	atOnce := func(bars string) (out []string) {
		for _, r := range Read(tune(t, bars), usual[instrument.Keyboard]).Minute(nil) {
			if r.Code == "minute-together" {
				out = append(out, r.Args["intervals"]+" "+r.Args["bars"])
			}
		}
		return out
	}
	assert.Empty(t, atOnce("[CG]4|C4"), "once is no habit")
	assert.Equal(t, []string{"open-fifth 1"}, atOnce("[CG]2 [CG]2|[CEG]4|[CE]4"))
	assert.Equal(t, []string{"third 1", "sixth 2"}, atOnce("[CE] [CE] [DF] C|[CA] [CA] C2|[CG] C [CG] C"), "two of them, the usual first")
	assert.Equal(t, []string{" 3", "left 1"}, hands, "a hand is told where it alone has less to learn")
	lines := Read(tune(t, "C E G E|F D F D|G E D2|C4|G G A G|F2 D2|A A B A|G4|C E G E|F D F D|G E D2|C4|G G A G|F2 D2|A A B A|c4"), usual[instrument.Keyboard])
	var back []string
	for _, r := range lines.Minute(nil) {
		if r.Code == "minute-return" {
			back = append(back, r.Args["bars"]+" "+r.Args["kind"]+" "+r.Args["as"])
		}
	}
	assert.Equal(t, []string{"9–12 again 1–4", "13–16 ending 5–8"}, back)
	begins := func(bars string) (out []string) {
		for _, r := range Read(tune(t, bars), usual[instrument.Keyboard]).Minute(nil) {
			if strings.HasPrefix(r.Code, "minute-start") {
				out = append(out, r.Args["finger"]+r.Args["fingers"]+" on "+r.Args["key"]+r.Args["keys"])
			}
		}
		return out
	}
	assert.Equal(t, []string{"1 3 5 on C4 E4 G4"}, begins("[CEG]4|C4"), "a chord is placed with all its fingers")
	assert.Equal(t, []string{"1 5 on C4 C5"}, begins("[CEc]4|C4"), "a wide one with the outer ones")
	cello := Read(page.Score, usual[instrument.Bowed])
	assert.Equal(t, "minute-start-string", cello.Minute(cello.Demands())[1].Code)
	assert.Len(t, Read(score.Score{}, usual[instrument.Keyboard]).Minute(nil), 2)
}
