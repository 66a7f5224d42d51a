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
	if err := w.write(s); err != nil {
		return nil, err
	}
	return []byte(w.out.String()), nil
}

// A Drawing is a score as ABC for an engraver that numbers the notes of each voice.
type Drawing struct {
	Text   string
	Voices []Voice // in the order of the text
}

// A Voice is what stands in a voice of a Drawing.
type Voice struct {
	Chords []string // ids of the notes of each, parted by spaces
}

// narrow is how many moments at most stand in a line of a Drawing, of which it has one bar
// at least: what a phone held upright shows at a size that is read from a stand.
const narrow = 12

// Draw writes a score without title and composer, in short lines.
func Draw(s score.Score) (Drawing, error) {
	s.Title, s.Composer = "", ""
	w := &writer{narrow: narrow}
	if err := w.write(s); err != nil {
		return Drawing{}, err
	}
	d := Drawing{Text: w.out.String()}
	for _, v := range w.staves {
		d.Voices = append(d.Voices, Voice{v.chords})
	}
	return d, nil
}

func (w *writer) write(s score.Score) error {
	w.field("X", "1")
	w.field("T", s.Title)
	w.field("C", s.Composer)
	w.voices(s)
	if len(s.Parts) == 0 || len(w.staves) == 0 || s.Bars() == 0 {
		return fmt.Errorf("there is no music to write")
	}
	if len(w.staves) > maxVoices {
		return fmt.Errorf("the score has %d voices; at most %d can be written and read again", len(w.staves), maxVoices)
	}
	head := w.staves[0].part.Bars[0]
	if head.Meter != nil {
		w.field("M", head.Meter.String())
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
	for from := 0; from < s.Bars(); {
		to := w.lineEnd(s, from)
		for _, v := range w.staves {
			if len(w.staves) > 1 {
				w.field("V", fmt.Sprint(v.id))
			}
			if from == 0 {
				v.key = key
				if head.Meter != nil {
					v.meter = *head.Meter
				}
			}
			if err := w.line(v, from, to); err != nil {
				return err
			}
		}
		from = to
	}
	return nil
}

// lineEnd returns where the line of music that begins at a bar ends.
func (w *writer) lineEnd(s score.Score, from int) int {
	to := min(from+barsALine, s.Bars())
	for moments := 0; w.narrow > 0 && from < to; from++ {
		at := map[score.Time]bool{}
		for _, p := range s.Parts {
			for _, n := range p.Bars[from].Notes {
				at[n.Onset] = true
			}
		}
		if moments += len(at); moments > w.narrow && moments > len(at) {
			return from
		}
	}
	return to
}

// A lane is one voice on one staff of one part.
type lane struct {
	id           int
	part         score.Part
	staff, voice int
	clef         score.Clef
	key          pitch.Key
	meter        score.Meter
	first        bool // of its part: it carries the marks that stand at no note
	tied         bool // the note before ends in a tie
	chords       []string
}

type writer struct {
	out    strings.Builder
	staves []*lane
	narrow int // moments in a line at most; 0 for barsALine
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
	any := false
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
		w.jumps(v, b, score.Segno, score.Coda)
		more, err := w.bar(v, b)
		if err != nil {
			return fmt.Errorf("bar %d: %w", i+1, err)
		}
		for _, m := range more {
			any = any || m != "*"
		}
		words = append(words, more...)
		w.jumps(v, b, score.ToCoda, score.Fine, score.DaCapo, score.DalSegno)
		w.closing(b, next, i+1 == len(v.part.Bars))
	}
	w.out.WriteByte('\n')
	if any {
		w.out.WriteString("w: " + sung(words) + "\n")
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

// jumps writes those of some that a bar has, in the first voice.
func (w *writer) jumps(v *lane, b score.Bar, some ...string) {
	for _, m := range b.Marks {
		if m.Kind != "jump" || !v.first || !slices.Contains(some, m.Text) {
			continue
		}
		says := b.Says(m.Text)
		at := slices.IndexFunc(jumps, func(j jump) bool { return j.to == m.Text && j.says == says })
		if at < 0 {
			at = slices.IndexFunc(jumps, func(j jump) bool { return j.to == m.Text })
		}
		w.out.WriteString("!" + jumps[at].name + "!")
	}
}

func (w *writer) closing(b score.Bar, next score.Repeat, last bool) {
	r := b.Repeat
	switch {
	case r.Ends > 0:
		w.out.WriteString(strings.Repeat(":", min(r.Ends, 16)-1) + "| ")
	case last:
		w.out.WriteString("|]")
	case b.Double, len(r.Endings) > 0 && !slices.Equal(r.Endings, next.Endings):
		w.out.WriteString("|| ")
	default:
		w.out.WriteString("| ")
	}
}

// changes writes a new key, meter or clef at the head of a bar.
func (w *writer) changes(v *lane, b score.Bar, head bool) {
	if !head && b.Meter != nil {
		v.meter = *b.Meter
		fmt.Fprintf(&w.out, "[M:%s]", b.Meter)
	}
	clef := ""
	for _, c := range b.Clefs {
		if c.Staff == v.staff && c.Onset.Sign() == 0 && clefName(c) != clefName(v.clef) {
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
