package abc

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// barsALine is how many bars stand in a line of music.
const barsALine = 4

// Write writes a score as one ABC tune; the unit length is an eighth. What ABC
// cannot hold is left out: Losses names it. It fails on a length that cannot
// be written.
func Write(s score.Score) ([]byte, error) {
	w := &writer{}
	w.field("X", "1")
	w.field("T", s.Title)
	w.field("C", s.Composer)
	w.voices(s)
	if len(s.Parts) == 0 || len(w.staves) == 0 || s.Bars() == 0 {
		return nil, fmt.Errorf("there is no music to write")
	}
	head := w.staves[0].part.Bars[0]
	if head.Meter != nil {
		w.field("M", fmt.Sprintf("%d/%d", head.Meter.Beats, head.Meter.BeatType))
	}
	w.field("L", "1/8")
	if len(w.staves) > 1 {
		w.out.WriteString("%%score " + w.layout(s) + "\n")
		for _, v := range w.staves {
			name := ""
			if n := text(v.part.Name); n != "" {
				name = ` name="` + n + `"`
			}
			fmt.Fprintf(&w.out, "V:%d clef=%s%s\n", v.id, clefName(v.clef), name)
		}
	}
	key := pitch.Key{Mode: "major"}
	if head.Key != nil {
		key = *head.Key
	}
	clef := ""
	if len(w.staves) == 1 {
		clef = " clef=" + clefName(w.staves[0].clef)
	}
	w.field("K", keyName(key)+clef)
	for from := 0; from < s.Bars(); from += barsALine {
		for _, v := range w.staves {
			if len(w.staves) > 1 {
				w.field("V", fmt.Sprint(v.id))
			}
			if from == 0 {
				v.key = key
			}
			if err := w.line(v, from, min(from+barsALine, s.Bars())); err != nil {
				return nil, err
			}
		}
	}
	return []byte(w.out.String()), nil
}

// A lane is one voice on one staff of one part.
type lane struct {
	id           int
	part         score.Part
	staff, voice int
	clef         score.Clef
	key          pitch.Key
	first        bool // of its part: it carries the marks
	tied         bool // the note before ends in a tie
}

type writer struct {
	out    strings.Builder
	staves []*lane
}

func (w *writer) field(name, value string) {
	if value = text(value); value != "" {
		w.out.WriteString(name + ":" + value + "\n")
	}
}

// text makes a string safe inside a field or a quotation.
func text(s string) string {
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		switch {
		case r == '"':
			return '\''
		case r == '%' || r == '\\' || r == ']':
			return -1
		case r < ' ':
			return ' '
		}
		return r
	}, s))
}

// voices finds what has to be written as a voice of its own: each voice of each
// staff, and a staff without notes.
func (w *writer) voices(s score.Score) {
	for _, p := range s.Parts {
		first := true
		for staff := 1; staff <= max(p.Staves, 1); staff++ {
			clef := score.Clef{Sign: "G", Line: 2}
			if staff > 1 {
				clef = score.Clef{Sign: "F", Line: 4}
			}
			var found []int
			for bi, b := range p.Bars {
				for _, c := range b.Clefs {
					if bi == 0 && c.Staff == staff {
						clef = c
					}
				}
				for _, n := range b.Notes {
					if n.Staff == staff && !slices.Contains(found, n.Voice) {
						found = append(found, n.Voice)
					}
				}
			}
			if len(found) == 0 {
				found = []int{0}
			}
			slices.Sort(found)
			for _, voice := range found {
				w.staves = append(w.staves, &lane{id: len(w.staves) + 1, part: p, staff: staff, voice: voice, clef: clef, first: first})
				first = false
			}
		}
	}
}

// layout writes the %%score line.
func (w *writer) layout(s score.Score) string {
	var b strings.Builder
	at := 0
	for _, p := range s.Parts {
		if p.Staves > 1 {
			b.WriteString("{ ")
		}
		for staff := 1; staff <= max(p.Staves, 1); staff++ {
			from := at
			for at < len(w.staves) && w.staves[at].staff == staff && (at == from || !w.staves[at].first) {
				at++
			}
			if at-from > 1 {
				b.WriteString("( ")
			}
			for _, v := range w.staves[from:at] {
				fmt.Fprintf(&b, "%d ", v.id)
			}
			if at-from > 1 {
				b.WriteString(") ")
			}
		}
		if p.Staves > 1 {
			b.WriteString("} ")
		}
	}
	return strings.TrimSpace(b.String())
}

func clefName(c score.Clef) string {
	for _, name := range []string{"treble", "bass", "alto", "tenor", "perc"} {
		if k := clefs[name]; k.Sign == c.Sign && (k.Line == c.Line || c.Line == 0) {
			switch c.Octave {
			case -1:
				return name + "-8"
			case 1:
				return name + "+8"
			}
			return name
		}
	}
	return "treble"
}

func keyName(k pitch.Key) string {
	tonic, mode, _ := strings.Cut(k.String(), " ")
	return tonic + mode[:3]
}

// line writes some bars of one voice, and the words under them.
func (w *writer) line(v *lane, from, to int) error {
	var words []string
	sung := false
	for i := from; i < to; i++ {
		b, next := v.part.Bars[i], score.Repeat{}
		if i+1 < len(v.part.Bars) {
			next = v.part.Bars[i+1].Repeat
		}
		if before := (score.Repeat{}); i > 0 {
			before = v.part.Bars[i-1].Repeat
			w.opening(b.Repeat, before)
		} else {
			w.opening(b.Repeat, before)
		}
		w.changes(v, b, i == 0)
		more, err := w.bar(v, b)
		if err != nil {
			return fmt.Errorf("bar %d: %w", i+1, err)
		}
		for _, m := range more {
			sung = sung || m != "*"
		}
		words = append(words, more...)
		w.closing(b.Repeat, next, i+1 == len(v.part.Bars))
	}
	w.out.WriteByte('\n')
	if sung {
		w.out.WriteString("w: " + strings.Join(words, " ") + "\n")
	}
	return nil
}

func (w *writer) opening(r, before score.Repeat) {
	if r.Starts {
		w.out.WriteString("|:")
	}
	if len(r.Endings) > 0 && (before.Ends > 0 || !slices.Equal(r.Endings, before.Endings)) {
		w.out.WriteString("[" + strings.Trim(strings.ReplaceAll(fmt.Sprint(r.Endings), " ", ","), "[]") + " ")
	}
}

func (w *writer) closing(r, next score.Repeat, last bool) {
	switch {
	case r.Ends > 0:
		w.out.WriteString(strings.Repeat(":", min(r.Ends, 16)-1) + "| ")
	case last:
		w.out.WriteString("|]")
	case len(r.Endings) > 0 && !slices.Equal(r.Endings, next.Endings):
		w.out.WriteString("|| ")
	default:
		w.out.WriteString("| ")
	}
}

// changes writes a new key, meter or clef at the head of a bar.
func (w *writer) changes(v *lane, b score.Bar, head bool) {
	if !head && b.Meter != nil {
		fmt.Fprintf(&w.out, "[M:%d/%d]", b.Meter.Beats, b.Meter.BeatType)
	}
	clef := ""
	for _, c := range b.Clefs {
		if c.Staff == v.staff && clefName(c) != clefName(v.clef) {
			v.clef, clef = c, " clef="+clefName(c)
		}
	}
	if b.Key != nil && !head || clef != "" {
		if b.Key != nil {
			v.key = *b.Key
		}
		w.out.WriteString("[K:" + keyName(v.key) + clef + "]")
	}
}

// accidentals are the letters altered since the bar line, read both ways that
// section 11.3 allows: for all octaves, and for one.
type accidentals struct {
	key    pitch.Key
	all    map[byte]int
	octave map[[2]int]int
}

// sign returns the accidental that a note needs so that it is read right
// either way.
func (a *accidentals) sign(p pitch.Pitch, always bool) string {
	at := [2]int{int(p.Step()), p.Octave()}
	inAll, ok := a.all[p.Step()]
	if !ok {
		inAll = a.key.Alter(p.Step())
	}
	inOctave, ok := a.octave[at]
	if !ok {
		inOctave = a.key.Alter(p.Step())
	}
	if !always && inAll == p.Alter() && inOctave == p.Alter() {
		return ""
	}
	a.all[p.Step()], a.octave[at] = p.Alter(), p.Alter()
	return map[int]string{0: "=", 1: "^", 2: "^^", -1: "_", -2: "__"}[p.Alter()]
}

// bar writes one voice of one bar and returns the words under its notes.
func (w *writer) bar(v *lane, b score.Bar) ([]string, error) {
	var words []string
	marks := b.Marks
	if !v.first {
		marks = nil
	}
	acc := &accidentals{v.key, map[byte]int{}, map[[2]int]int{}}
	cursor := score.Time{}
	chords := chordsOf(b, v)
	left := 0 // notes still in the tuplet that is open
	for i, c := range chords {
		n := c[0]
		if n.Grace {
			w.out.WriteString("{")
			for _, g := range c {
				w.out.WriteString(acc.sign(g.Pitch, v.tied) + letterOf(g.Pitch, v.clef))
			}
			w.out.WriteString("}")
			continue
		}
		if n.Onset.Less(cursor) {
			continue // it overlaps the note before in its own voice: Losses says so
		}
		if gap := n.Onset.Sub(cursor); gap.Sign() > 0 {
			if err := w.silence("x", gap); err != nil {
				return nil, err
			}
		}
		for len(marks) > 0 && !n.Onset.Less(marks[0].Onset) {
			w.mark(marks[0])
			marks = marks[1:]
		}
		if left == 0 && n.Tuplet != nil {
			left = w.tuplet(chords[i:])
		}
		length, err := lengthOf(n, left > 0)
		if err != nil {
			return nil, err
		}
		left = max(left-1, 0)
		w.sound(v, acc, c, length)
		cursor = n.Onset.Add(n.Duration)
		if !n.Rest {
			words = append(words, syllable(n.Lyric))
		}
	}
	if rest := b.Length.Sub(cursor); rest.Sign() > 0 {
		if err := w.silence("x", rest); err != nil {
			return nil, err
		}
	}
	for _, m := range marks {
		w.mark(m)
	}
	return words, nil
}

// chordsOf groups the notes of a voice by onset; grace notes stand alone.
func chordsOf(b score.Bar, v *lane) [][]score.Note {
	var out [][]score.Note
	for _, n := range b.Notes {
		if n.Staff != v.staff || n.Voice != v.voice {
			continue
		}
		if last := len(out) - 1; last >= 0 && !n.Rest && !n.Grace && !out[last][0].Grace && !out[last][0].Rest && out[last][0].Onset == n.Onset {
			out[last] = append(out[last], n)
			continue
		}
		out = append(out, []score.Note{n})
	}
	return out
}

// tuplet opens a tuplet over the notes that follow one another with the same
// ratio and returns how many they are; 0 when the ratio cannot be written.
func (w *writer) tuplet(chords [][]score.Note) int {
	t := *chords[0][0].Tuplet
	if t.Actual < 2 || t.Actual > 15 || t.Normal < 1 || t.Normal > 15 {
		return 0
	}
	n := 0
	for _, c := range chords {
		switch {
		case c[0].Grace:
			continue
		case c[0].Tuplet == nil, *c[0].Tuplet != t, n > 0 && n%t.Actual == 0, n > 0 && c[0].Onset != end(chords[:n]):
			fmt.Fprintf(&w.out, "(%d:%d:%d", t.Actual, t.Normal, n)
			return n
		}
		n++
	}
	fmt.Fprintf(&w.out, "(%d:%d:%d", t.Actual, t.Normal, n)
	return n
}

func end(chords [][]score.Note) score.Time {
	last := chords[len(chords)-1][0]
	return last.Onset.Add(last.Duration)
}

// lengthOf writes a duration against the unit; inside a tuplet the value
// before it was squeezed.
func lengthOf(n score.Note, squeezed bool) (string, error) {
	d := n.Duration
	if squeezed {
		var err error
		if d, err = d.Scaled(int64(n.Tuplet.Actual), int64(n.Tuplet.Normal)); err != nil {
			return "", err
		}
	}
	return units(d)
}

func units(d score.Time) (string, error) {
	num, den := d.Fraction()
	if num *= 2; den%2 == 0 {
		num, den = num/2, den/2
	}
	switch {
	case num <= 0 || num > 1024 || den > 1024:
		return "", fmt.Errorf("a length of %s quarter notes cannot be written as ABC", d)
	case den == 1 && num == 1:
		return "", nil
	case den == 1:
		return fmt.Sprint(num), nil
	case num == 1:
		return fmt.Sprintf("/%d", den), nil
	}
	return fmt.Sprintf("%d/%d", num, den), nil
}

func (w *writer) silence(sign string, d score.Time) error {
	length, err := units(d)
	w.out.WriteString(sign + length + " ")
	return err
}

func (w *writer) sound(v *lane, acc *accidentals, c []score.Note, length string) {
	n := c[0]
	w.out.WriteString(strings.Repeat("(", n.SlurStarts))
	if n.Rest {
		w.signs(n)
		w.out.WriteString("z" + length)
		v.tied = false
	} else {
		if len(c) == 1 {
			w.fingers(n)
		}
		w.signs(n)
		if len(c) > 1 {
			w.out.WriteString("[")
		}
		tied := false
		for _, one := range c {
			if len(c) > 1 {
				w.fingers(one)
			}
			w.out.WriteString(acc.sign(one.Pitch, v.tied) + letterOf(one.Pitch, v.clef))
			if len(c) == 1 {
				w.out.WriteString(length)
			}
			if one.TieTo {
				w.out.WriteString("-")
				tied = true
			}
		}
		if len(c) > 1 {
			w.out.WriteString("]" + length)
		}
		v.tied = tied
	}
	for _, one := range c {
		w.out.WriteString(strings.Repeat(")", one.SlurEnds))
	}
	w.out.WriteString(" ")
}

func (w *writer) fingers(n score.Note) {
	for _, f := range n.Fingers {
		if len(f) == 1 && f[0] >= '0' && f[0] <= '5' {
			w.out.WriteString("!" + f + "!")
		}
	}
}

// decorations maps the score's words back to section 4.14.
var decorations = map[string]string{
	"staccato": ".", "accent": "!accent!", "tenuto": "!tenuto!", "fermata": "!fermata!",
	"trill-mark": "!trill!", "mordent": "!lowermordent!", "inverted-mordent": "!uppermordent!", "turn": "!turn!",
	"up-bow": "u", "down-bow": "v", "breath-mark": "!breath!", "staccatissimo": "!wedge!",
}

func (w *writer) signs(n score.Note) {
	for _, a := range n.Articulations {
		w.out.WriteString(decorations[a])
	}
}

// swells maps growing and fading, which ABC opens and closes by name.
var swells = map[string]string{"crescendo": "<(", "diminuendo": ">(", "stop": "<)"}

func (w *writer) mark(m score.Mark) {
	switch {
	case m.Kind == "tempo" && m.Beat.Sign() > 0:
		if beat, err := m.Beat.Scaled(1, 4); err == nil {
			fmt.Fprintf(&w.out, "[Q:%s=%g]", beat, m.QPM/m.Beat.Float())
		}
	case m.Kind == "words":
		if t := text(m.Text); t != "" {
			w.out.WriteString(`"^` + t + `"`)
		}
	case m.Kind == "dynamic" && swells[m.Text] != "":
		w.out.WriteString("!" + swells[m.Text] + "!")
	case m.Kind == "dynamic" && dynamics[m.Text] != "":
		w.out.WriteString("!" + m.Text + "!")
	}
}

// letterOf writes letter and octave, as the clef has them read.
func letterOf(p pitch.Pitch, c score.Clef) string {
	octave := p.Octave() - c.Octave
	if octave >= 5 {
		return strings.ToLower(string(p.Step())) + strings.Repeat("'", octave-5)
	}
	return string(p.Step()) + strings.Repeat(",", 4-octave)
}

func syllable(s string) string {
	s = strings.Map(func(r rune) rune {
		if strings.ContainsRune("-_*|%\\ \t", r) {
			return '~'
		}
		return r
	}, s)
	if s == "" {
		return "*"
	}
	return s
}

// Losses lists what an ABC tune cannot hold of a score, each with the first bar
// in which it stands.
func Losses(s score.Score) []score.Unread {
	lost := score.Score{}
	for _, p := range s.Parts {
		for bi, b := range p.Bars {
			for i, n := range b.Notes {
				if n.String > 0 {
					lost.Note("strings and frets", bi+1)
				}
				for _, f := range n.Fingers {
					if len(f) != 1 || f[0] < '0' || f[0] > '5' {
						lost.Note("plucking fingers", bi+1)
					}
				}
				for _, a := range n.Articulations {
					if decorations[a] == "" {
						lost.Note("the sign "+a, bi+1)
					}
				}
				for _, before := range b.Notes[:i] {
					if before.Voice != n.Voice || before.Staff != n.Staff || n.Rest || before.Rest || n.Grace || before.Grace {
						continue
					}
					if before.Onset == n.Onset && before.Duration != n.Duration {
						lost.Note("notes of a chord that end at different times", bi+1)
					} else if before.Onset.Less(n.Onset) && n.Onset.Less(before.Onset.Add(before.Duration)) {
						lost.Note("notes that overlap in one voice", bi+1)
					}
				}
			}
			for _, m := range b.Marks {
				if m.Kind == "pedal" {
					lost.Note("pedal", bi+1)
				}
				if m.Kind == "dynamic" && dynamics[m.Text] == "" && swells[m.Text] == "" {
					lost.Note("the loudness "+m.Text, bi+1)
				}
			}
		}
	}
	return lost.Unread
}
