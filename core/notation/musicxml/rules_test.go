package musicxml

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// partwise is a score of one part with a bar each of what is given; a quarter note has two divisions.
func partwise(bars ...string) []byte {
	text := `<score-partwise><part-list><score-part id="A"/></part-list><part id="A">`
	for i, b := range bars {
		if i == 0 {
			b = "<attributes><divisions>2</divisions></attributes>" + b
		}
		text += "<measure>" + b + "</measure>"
	}
	return []byte(text + "</part></score-partwise>")
}

func bar(t *testing.T, inside string) score.Bar {
	s, err := Read(partwise(inside+quarter("C", ""), quarter("D", "")))
	require.NoError(t, err, inside)
	return s.Parts[0].Bars[0]
}

// MusicXML 4.0, <beats> and <beat-type>: sums are counted together; what is no meter is refused.
func TestMeters(t *testing.T) {
	for _, c := range []struct {
		beats, of string
		want      string // empty where it is none
	}{
		{"4", "4", "4/4"}, {"3+2", "8", "5/8"}, {" 2 + 2 + 3 ", " 8 ", "7/8"}, {"1", "1", "1/1"}, {"64", "64", "64/64"},
		{"0", "4", ""}, {"65", "4", ""}, {"4", "0", ""}, {"4", "3", ""}, {"4", "128", ""}, {"x", "4", ""}, {"4", "x", ""}, {"-1", "4", ""},
	} {
		s, err := Read(partwise("<attributes><time><beats>" + c.beats + "</beats><beat-type>" + c.of + "</beat-type></time></attributes>" + quarter("C", "")))
		if c.want == "" {
			assert.ErrorContains(t, err, "a meter of", "%s over %s", c.beats, c.of)
			continue
		}
		require.NoError(t, err)
		m := s.Parts[0].Bars[0].Meter
		assert.Equal(t, c.want, fmt.Sprintf("%d/%d", m.Beats, m.BeatType))
	}
}

// MusicXML 4.0, <barline>: how often, and which lines end a passage.
func TestBarLines(t *testing.T) {
	for inside, want := range map[string]struct {
		ends   int
		double bool
	}{
		`<barline location="right"><repeat direction="backward"/></barline>`:            {2, false},
		`<barline location="right"><repeat direction="backward" times="1"/></barline>`:  {2, false},
		`<barline location="right"><repeat direction="backward" times="3"/></barline>`:  {3, false},
		`<barline location="right"><repeat direction="backward" times="99"/></barline>`: {16, false},
		`<barline location="right"><bar-style>light-light</bar-style></barline>`:        {0, true},
		`<barline location="right"><bar-style>light-heavy</bar-style></barline>`:        {0, true},
		`<barline><bar-style>light-light</bar-style></barline>`:                         {0, true},
		`<barline location="left"><bar-style>light-light</bar-style></barline>`:         {0, false},
		`<barline location="right"><bar-style>regular</bar-style></barline>`:            {0, false},
	} {
		b := bar(t, inside)
		assert.Equal(t, want.ends, b.Repeat.Ends, inside)
		assert.Equal(t, want.double, b.Double, inside)
	}
	assert.True(t, bar(t, `<barline location="left"><repeat direction="forward"/></barline>`).Repeat.Starts)
}

// A tempo that a <sound> tells counts where no mark has told one; one that no music has does not.
func TestTemposThatSound(t *testing.T) {
	mark := func(unit, per, dot string) string {
		return "<direction><direction-type><metronome><beat-unit>" + unit + "</beat-unit>" + dot + "<per-minute>" + per + "</per-minute></metronome></direction-type></direction>"
	}
	sound := func(qpm string) string { return `<direction><sound tempo="` + qpm + `"/></direction>` }
	for _, c := range []struct {
		inside string
		want   []float64
	}{
		{sound("96"), []float64{96}}, {sound("0"), nil}, {sound("-5"), nil}, {sound("2000"), []float64{2000}}, {sound("2000.5"), nil}, {sound("fast"), nil},
		{mark("quarter", "60", "") + sound("61"), []float64{60}}, {sound("61") + sound("90"), []float64{61}},
		{mark("half", "60", ""), []float64{120}}, {mark("eighth", "60", ""), []float64{30}}, {mark("quarter", "60", "<beat-unit-dot/>"), []float64{90}}, {mark("half", "40", "<beat-unit-dot/>"), []float64{120}},
		{mark("quarter", "0", ""), nil}, {mark("quarter", "2000", ""), []float64{2000}}, {mark("quarter", "2001", ""), nil}, {mark("longa", "60", ""), nil},
	} {
		var got []float64
		for _, m := range bar(t, c.inside).Marks {
			if m.Kind == "tempo" {
				got = append(got, m.QPM)
			}
		}
		assert.Equal(t, c.want, got, c.inside)
	}
	assert.Equal(t, score.Frac(3, 2), bar(t, mark("quarter", "60", "<beat-unit-dot/>")).Marks[0].Beat)
}

// MusicXML 4.0, <duration>: a positive number of divisions, which may have a fraction.
func TestDurations(t *testing.T) {
	for text, want := range map[string]string{"2": "1", "1.5": "3/4", "0.125": "1/16", "3.000000": "3/2"} {
		s, err := Read(partwise("<note><rest/><duration>" + text + "</duration></note>" + quarter("C", "")))
		require.NoError(t, err, text)
		assert.Equal(t, want, s.Parts[0].Bars[0].Notes[0].Duration.String(), text)
	}
	for text, says := range map[string]string{"1.0000000": "too fine", "-1": "not a duration", "x": "not a duration", "9999999999999": "not a duration"} {
		_, err := Read(partwise("<note><rest/><duration>" + text + "</duration></note>"))
		assert.ErrorContains(t, err, says, text)
	}
}

// MusicXML 4.0, <string>, <fret> and <time-modification>.
func TestStringsFretsAndTuplets(t *testing.T) {
	technical := func(name, n string) string {
		return quarter("E", "<notations><technical><"+name+">"+n+"</"+name+"></technical></notations>")
	}
	for _, c := range []struct {
		name, n      string
		string, fret int
		told         bool
	}{
		{"string", "1", 1, 0, false}, {"string", "12", 12, 0, false}, {"string", "13", 0, 0, true}, {"string", "-1", 0, 0, true}, {"string", "x", 0, 0, true},
		{"fret", "0", 0, 0, false}, {"fret", "13", 0, 13, false}, {"fret", "36", 0, 36, false}, {"fret", "37", 0, 0, true},
	} {
		s, err := Read(partwise(technical(c.name, c.n)))
		require.NoError(t, err)
		n := s.Parts[0].Bars[0].Notes[0]
		assert.Equal(t, []int{c.string, c.fret}, []int{n.String, n.Fret}, "%s %s", c.name, c.n)
		assert.Equal(t, c.told, len(s.Unread) > 0, "%s %s", c.name, c.n)
	}
	for _, c := range []struct {
		actual, normal string
		want           *score.Tuplet
	}{{"3", "2", &score.Tuplet{Actual: 3, Normal: 2}}, {"0", "2", nil}, {"3", "0", nil}, {"1", "1", &score.Tuplet{Actual: 1, Normal: 1}}} {
		b := bar(t, quarter("E", "<time-modification><actual-notes>"+c.actual+"</actual-notes><normal-notes>"+c.normal+"</normal-notes></time-modification>"))
		assert.Equal(t, c.want, b.Notes[0].Tuplet, "%s in the time of %s", c.actual, c.normal)
	}
}

// What is well-formed by XML 1.0, and what is not (sections 2.3, 2.8, 3.1).
func TestWellFormed(t *testing.T) {
	good := string(partwise(quarter("C", "")))
	for _, c := range []struct {
		says, text string
		taken      bool
	}{
		{"a document type with a quoted mark", `<!DOCTYPE a SYSTEM "a>b">` + good, true},
		{"with brackets", `<!DOCTYPE a [<!ELEMENT a ANY>]>` + good, true},
		{"that never ends", `<!DOCTYPE a "` + good, false},
		{"a comment and an instruction", "<!-- > --><?x >?>" + good, true},
		{"a comment that never ends", "<!-- " + good, false},
		{"text that is no markup", strings.Replace(good, "<measure>", "<measure><![CDATA[<x>]]>", 1), true},
		{"an empty tag with a blank", strings.Replace(good, "<measure>", `<measure><print />`, 1), true},
		{"a stray slash", strings.Replace(good, "<measure>", "<measure><print / >", 1), false},
		{"an attribute of no value", strings.Replace(good, "<measure>", "<measure><print new>", 1), false},
		{"a name that begins with a figure", strings.Replace(good, "<measure>", "<measure><1/>", 1), false},
		{"or a hyphen", strings.Replace(good, "<measure>", "<measure><-a/>", 1), false},
		{"or a point", strings.Replace(good, "<measure>", "<measure><.a/>", 1), false},
		{"a prefix", strings.Replace(good, "<measure>", "<measure><x:print/>", 1), true},
		{"an end that ends nothing", "</a>" + good, false},
		{"two ends turned round", strings.Replace(good, "<measure>", "<measure><print><b></print></b>", 1), false},
		{"a tag that the file breaks off in", good[:len(good)-3], false},
		{"one within a name", `<score-partwise><part-li`, false},
		{"one after a slash", `<score-partwise/`, false},
	} {
		_, err := Read([]byte(c.text))
		assert.Equal(t, c.taken, err == nil, "%s: %v", c.says, err)
	}
}

// What we write of a bar that a reader of the file would see.
func TestHowBarsAreWritten(t *testing.T) {
	c := pitch.MustParseAll("C4")[0]
	whole := func(change func(*score.Note)) score.Note {
		n := score.Note{Pitch: c, Duration: score.Quarters(4), Voice: 1, Staff: 1}
		change(&n)
		return n
	}
	plain := whole(func(*score.Note) {})
	s := score.Score{Parts: []score.Part{{Bars: []score.Bar{
		{Length: score.Quarters(4), Key: &pitch.Key{}, Meter: &score.Meter{Beats: 4, BeatType: 4}, Clefs: []score.Clef{{Staff: 1, Sign: "G", Line: 2}}, Notes: []score.Note{plain}},
		{Length: score.Quarters(4), Notes: []score.Note{plain}, Marks: []score.Mark{score.Jump(score.Fine, score.Quarters(4)), {Kind: "dynamic", Text: "mf"}, {Kind: "words", Text: "gently"}}},
		{Length: score.Quarters(4), Notes: []score.Note{whole(func(n *score.Note) { n.Rest = true })}, Key: &pitch.Key{Fifths: 2, Mode: "minor"}},
		{Length: score.Quarters(4), Notes: []score.Note{plain}, Clefs: []score.Clef{{Staff: 1, Sign: "F", Line: 4}}},
		{Length: score.Quarters(4), Notes: []score.Note{whole(func(n *score.Note) { n.Fingers = []string{"2"} })}, Marks: []score.Mark{score.Jump(score.DalSegno, score.Quarters(4)), {Onset: score.Quarters(4), Kind: "words", Text: "D.S. al Fine"}}},
	}}}}
	s.Finish()
	bars := strings.Split(string(Write(s)), "<measure ")[1:]
	require.Len(t, bars, 5)
	for i, want := range [][]string{
		{`number="1"`, "<divisions>", "<fifths>0</fifths>", "<beats>4</beats>"},
		{`number="2"`, `placement="below"`, "<mf/>", `placement="above"`, "gently", `<words>Fine</words></direction-type><sound fine="yes"/>`},
		{`number="3"`, "<fifths>2</fifths><mode>minor</mode>", `<rest measure="yes"/>`},
		{`number="4"`, "<sign>F</sign>"},
		{`number="5"`, "<technical><fingering>2</fingering></technical>", "D.S. al Fine", `<sound dalsegno="yes"/>`},
	} {
		for _, w := range want {
			assert.Contains(t, bars[i], w, "bar %d", i+1)
		}
	}
	for i, not := range [][]string{
		{"<technical>", "<mode>"}, {"<attributes>", "<technical>"}, {"<divisions>", "<beats>"}, {"<key>"}, {"<words>D.S.</words>", "<attributes>", "<ornaments>", "<articulations>"},
	} {
		for _, w := range not {
			assert.NotContains(t, bars[i], w, "bar %d", i+1)
		}
	}
}

// MusicXML 4.0, "Compressed .MXL files": the kind of file stands first, as it is; the container names the score.
func TestWhatIsPacked(t *testing.T) {
	data, err := Compress([]byte("<x/>"))
	require.NoError(t, err)
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
		in, err := f.Open()
		require.NoError(t, err)
		text, err := io.ReadAll(in)
		require.NoError(t, err)
		assert.NotEmpty(t, text, f.Name)
	}
	assert.Equal(t, []string{"mimetype", "META-INF/container.xml", "score.musicxml"}, names)
	assert.Equal(t, zip.Store, z.File[0].Method)
	text, err := Text(data)
	require.NoError(t, err)
	assert.Equal(t, "<x/>", string(text))
}
