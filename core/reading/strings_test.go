package reading

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/score"
)

// usual are the instruments that tests read for.
var usual = map[instrument.Family]instrument.Profile{
	instrument.Keyboard: instrument.Shipped.Of("piano"), instrument.Bowed: instrument.Shipped.Of("cello"), instrument.Plucked: instrument.Shipped.Of("guitar"),
}

// on reads bars for an instrument of strings.
func on(t *testing.T, plays instrument.Family, key, bars string) Page {
	s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\nK:"+key+"\n"+bars+"\n"))
	require.NoError(t, err)
	return Read(s, usual[plays])
}

// stopsOf writes each moment as string.finger, chords joined by +.
func stopsOf(st Staff) (out []string) {
	for _, chord := range st.Stops {
		var all []string
		for _, s := range chord {
			all = append(all, fmt.Sprintf("%d.%s", s.String, s.Finger))
		}
		out = append(out, strings.Join(all, "+"))
	}
	return
}

// Tablature sounds where it sounds: C3, E3, G3 and B3 as a file of tablature has them, with its
// strings and frets; with the same notes under a clef of music, an octave up, they read the same.
func TestTablatureLiesWhereItIsWritten(t *testing.T) {
	tab := func(clef string, octave int, written bool) string {
		text := `<score-partwise><part-list><score-part id="P"/></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions>` + clef + `</attributes>`
		for i, n := range []string{"C3", "E3", "G3", "B3"} {
			at := ""
			if written {
				at = fmt.Sprintf(`<notations><technical><string>%d</string><fret>%d</fret></technical></notations>`, []int{5, 4, 3, 2}[i], []int{3, 2, 0, 0}[i])
			}
			text += fmt.Sprintf(`<note><pitch><step>%c</step><octave>%d</octave></pitch><duration>1</duration>%s</note>`, n[0], int(n[1]-'0')+octave, at)
		}
		return text + `</measure></part></score-partwise>`
	}
	for name, file := range map[string]string{
		"tablature with strings":             tab(`<clef><sign>TAB</sign><line>5</line></clef>`, 0, true),
		"tablature without":                  tab(`<clef><sign>TAB</sign><line>5</line></clef>`, 0, false),
		"written music with strings":         tab(`<clef><sign>G</sign><line>2</line></clef>`, 1, true),
		"written music without":              tab(`<clef><sign>G</sign><line>2</line></clef>`, 1, false),
		"music as it sounds, strings settle": tab(`<clef><sign>G</sign><line>2</line></clef>`, 0, true),
		"under a clef with a small 8":        tab(`<clef><sign>G</sign><line>2</line><clef-octave-change>-1</clef-octave-change></clef>`, 0, false),
	} {
		s, err := notation.Read("t.xml", []byte(file))
		require.NoError(t, err)
		var got []string
		for _, c := range Read(s, usual[instrument.Plucked]).Staves[0].Stops {
			got = append(got, fmt.Sprintf("%d/%d", c[0].String, c[0].Fret))
		}
		assert.Equal(t, []string{"5/3", "4/2", "3/0", "2/0"}, got, name)
	}
}

// Where notes lie on a cello in first and other positions, as string and finger:
// common practice, no source.
func TestCelloFingers(t *testing.T) {
	for _, c := range []struct {
		name, key, bars, want, places, opened string
	}{
		{"open strings from the top", "C bass", "A, D, G,, C,,", "1.0 2.0 3.0 4.0", "first", ""},
		{"D major: the third and fourth fingers are a half step apart", "D bass", "D, E, F, G,|A, B, C D", "2.0 2.1 2.3 2.4 1.0 1.1 1.3 1.4", "first", ""},
		{"F natural takes the second finger", "C bass", "D, E, F, G,", "2.0 2.1 2.2 2.4", "first", ""},
		{"E flat: the first finger reaches back", "C bass", "D, _E, F, G,", "2.0 2.1 2.2 2.4", "first", "back"},
		{"G sharp: the hand opens forward", "C bass", "E, ^F, ^G, A,", "2.1 2.2 2.4 1.0", "first", "forward"},
		{"E on the A string lies above first position", "C bass", "A, D E D", "1.0 1.2 1.4 1.2", "second", ""},
		{"two open strings at once", "C bass", "[G,,D,]4", "3.0+2.0", "first", ""},
		{"a written finger is honoured", "C bass", "!4!A,4", "2.4", "second", ""},
	} {
		st := on(t, instrument.Bowed, c.key, c.bars).Staves[0]
		var places, opened []string
		for _, p := range st.Positions {
			places, opened = append(places, p.Place), append(opened, p.Opened...)
		}
		assert.Equal(t, c.want, strings.Join(stopsOf(st), " "), c.name)
		assert.Equal(t, c.places, strings.Join(places, ","), c.name)
		assert.Equal(t, c.opened, strings.Join(opened, ","), c.name)
	}
}

// Frets and plucking fingers of a guitar: common practice, no source.
func TestGuitarStopsAndRolls(t *testing.T) {
	for _, c := range []struct{ name, bars, stops, plucks, places string }{
		{"open strings, lowest first", "E, A, D G|B e z2", "6.0 5.0 4.0 3.0 2.0 1.0", "p p p i m a", "first"},
		{"C major in first position", "C D E F|G A B c", "5.3 4.0 4.2 4.3 3.0 3.2 2.0 2.1", "p p p p i m i m", "first"},
		{"a roll over a held chord", "C G c e", "5.3 3.0 2.1 1.0", "p i m a", "first"},
		{"the fourth finger stretched to the fifth fret", "e f a g", "1.0 1.1 1.5 1.3", "i m i m", "first"},
	} {
		st := on(t, instrument.Plucked, "C", c.bars).Staves[0]
		var frets, plucks, places []string
		for _, chord := range st.Stops {
			frets, plucks = append(frets, fmt.Sprintf("%d.%d", chord[0].String, chord[0].Fret)), append(plucks, chord[0].Pluck)
		}
		for _, p := range st.Positions {
			places = append(places, p.Place)
		}
		assert.Equal(t, c.stops, strings.Join(frets, " "), c.name)
		assert.Equal(t, c.plucks, strings.Join(plucks, " "), c.name)
		assert.Equal(t, c.places, strings.Join(places, ","), c.name)
	}
}

func TestWrittenFretsAreKept(t *testing.T) {
	page := on(t, instrument.Plucked, "C", "E e C, E")
	n := &page.Score.Parts[0].Bars[0].Notes[1]
	n.String, n.Fret = 2, 5
	stops := Read(page.Score, usual[instrument.Plucked]).Staves[0].Stops
	assert.Equal(t, []int{2, 5}, []int{stops[1][0].String, stops[1][0].Fret}, "as written, though the first string is open")
	assert.Zero(t, stops[2][0], "a note below the lowest string")
}

// The fewest changes of position, and notes stopped away from first position that
// it holds, by trying every hold of every note.
func TestPositionsOnStringsAreTheFewest(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 12))
	names := strings.Fields("C, D, E, F, G, A, B, C D E F G A B c d e f g a")
	for range 300 {
		var bars []string
		for range 1 + rng.IntN(5) {
			bars = append(bars, names[rng.IntN(len(names))])
		}
		for _, plays := range []instrument.Family{instrument.Bowed, instrument.Plucked} {
			s := StringsOf(score.Part{}, usual[plays])
			st := on(t, plays, "C", strings.Join(bars, " ")).Staves[0]
			var ways [][]hold
			away := make([]int, len(st.Line)) // 1 where first position holds it
			for i, c := range st.Line {
				ways = append(ways, s.holds(c, s.highest(st.Line)))
				if slices.ContainsFunc(ways[i], func(h hold) bool { return h.hand.at == s.on.Frame.Home }) {
					away[i] = 1
				}
			}
			best := 100
			var try func(i, at, sum int)
			try = func(i, at, sum int) {
				if i == len(st.Line) {
					best = min(best, sum)
					return
				}
				for _, h := range ways[i] {
					more := sum
					if h.hand.at != s.on.Frame.Home && h.stops[0].Fret > 0 {
						more += away[i]
					}
					if i > 0 && h.hand.at != at {
						more++
					}
					if more < best {
						try(i+1, h.hand.at, more)
					}
				}
			}
			try(0, 0, 0)
			got, i := len(st.Positions)-1, 0
			for _, p := range st.Positions {
				for range p.Fingers {
					if p.Place != "first" && st.Stops[i][0].Fret > 0 {
						got += away[i]
					}
					i++
				}
			}
			require.Equal(t, best, got, "%s: %v: %v", plays, bars, st.Stops)
		}
	}
}

func TestTablature(t *testing.T) {
	page := on(t, instrument.Plucked, "C", "C2- C E|(G c) [CGc]2")
	under, ok := page.Tablature(false)
	require.True(t, ok)
	assert.Equal(t, 2, under.Parts[0].Staves)
	instead, ok := page.Tablature(true)
	require.True(t, ok)
	assert.Equal(t, 1, instead.Parts[0].Staves)
	var frets []string
	for _, b := range instead.Parts[0].Bars {
		for _, n := range b.Notes {
			frets = append(frets, fmt.Sprintf("%d.%d", n.String, n.Fret))
		}
	}
	assert.Equal(t, []string{"5.3", "5.3", "4.2", "3.0", "2.1", "5.3", "3.0", "2.1"}, frets)
	// kept through MusicXML
	file, err := notation.Write(notation.MusicXML, instead)
	require.NoError(t, err)
	again, err := notation.Read("x.musicxml", file)
	require.NoError(t, err)
	assert.Equal(t, "TAB", again.Parts[0].Bars[0].Clefs[0].Sign)
	assert.True(t, Tablature(again))
	for bi, b := range again.Parts[0].Bars {
		for i, n := range b.Notes {
			want := instead.Parts[0].Bars[bi].Notes[i]
			assert.Equal(t, []int{want.String, want.Fret}, []int{n.String, n.Fret})
		}
	}
	_, ok = on(t, instrument.Keyboard, "C", "C4").Tablature(true)
	assert.False(t, ok, "keys have no frets")
	_, ok = Read(score.Score{Parts: []score.Part{{Staves: 2}}}, usual[instrument.Plucked]).Tablature(true)
	assert.False(t, ok, "a part of two staves has its own")
}

// Scales as they are first taught in first position, string.finger, on other
// instruments of known families; on a violin each finger has its letters, so that E
// flat over A is a low fourth finger and D sharp a high third. Common practice, no
// source.
func TestFirstPositionOfOtherStrings(t *testing.T) {
	for _, c := range []struct{ name, plays, key, bars, want string }{
		{"G major of two octaves", "violin", "G", "G,A,B,C|DEFG|ABcd|efg2", "4.0 4.1 4.2 4.3 3.0 3.1 3.2 3.3 2.0 2.1 2.2 2.3 1.0 1.1 1.2"},
		{"B flat over A, E flat", "violin", "Bb", "ABcd|e2", "2.0 2.1 2.2 2.3 2.4"},
		{"D sharp is a high third", "violin", "E", "ABcd|e2", "2.0 2.1 2.2 2.3 1.0"},
		{"C major", "viola", "C alto", "C,D,E,F,|G,A,B,C", "4.0 4.1 4.2 4.3 3.0 3.1 3.2 3.3"},
		{"G major: one, two and four", "double-bass", "G bass", "G,,A,,B,,C,|D,E,F,G,", "4.2 3.0 3.1 3.2 2.0 2.1 2.4 1.0"},
		{"G major", "mandolin", "G", "G,A,B,C|DEFG", "4.0 4.1 4.2 4.3 3.0 3.1 3.2 3.3"},
		{"C major", "ukulele", "C", "CDEF|GABc", "3.0 3.2 2.0 2.1 2.3 1.0 1.2 1.3"},
		{"G major: a finger a fret", "bass-guitar", "G bass", "G,,A,,B,,C,|D,E,F,G,", "4.3 3.0 3.2 3.3 2.0 2.2 2.4 1.0"},
		{"the drone is only plucked open", "five-string", "G", "g d B e", "5.0 1.0 2.0 1.2"},
	} {
		s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\nK:"+c.key+"\n"+c.bars+"\n"))
		require.NoError(t, err)
		plays := instrument.Shipped.Of(instrument.ID(c.plays))
		st := Read(s, plays).Staves[0]
		assert.Equal(t, c.want, strings.Join(stopsOf(st), " "), "%s on the %s", c.name, c.plays)
		assert.Equal(t, "first", st.Positions[0].Place, c.name)
	}
}

func TestAnotherInstrument(t *testing.T) {
	s, err := notation.Read("t.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\nK:C\nCDEF|c'2 C2\n"))
	require.NoError(t, err)
	whistle := instrument.Profile{ID: "whistle", Name: "whistle", Family: instrument.Other}
	page := Read(s, whistle)
	assert.Empty(t, page.Staves[0].Hand)
	assert.Empty(t, page.Staves[0].Stops)
	assert.Empty(t, page.Staves[0].Positions)
	for _, d := range page.Demands() {
		assert.True(t, slices.ContainsFunc(sharedSigns, func(s sign) bool { return s.skill == d.Skill }), "%s belongs to every instrument", d.Skill)
	}
	assert.NotEmpty(t, page.Chunks(4))
	assert.NotEmpty(t, page.Minute(page.Demands()))
	clarinet := instrument.Profile{Family: instrument.Other, Written: 2}
	assert.Equal(t, 2, Lowered(score.Part{}, clarinet))
	assert.Zero(t, Lowered(score.Part{Bars: []score.Bar{{Clefs: []score.Clef{{Octave: -1}}}}}, instrument.Shipped.Of("guitar")), "a clef with an 8 is read as it sounds")
}

// A melody on the low strings is no bass.
func TestATuneOnLowStringsIsNoBass(t *testing.T) {
	for bars, want := range map[string]bool{"C D E F|G F E D|C D E C|C4": false, "E, B G B|E, B G B": true, "E, [GB] A, [GB]|E, [GB] A, [GB]": true} {
		bass := false
		for _, d := range on(t, instrument.Plucked, "C", bars).Demands() {
			bass = bass || d.Skill == "thumb-bass" || d.Skill == "alternating-bass"
		}
		assert.Equal(t, want, bass, bars)
	}
}
