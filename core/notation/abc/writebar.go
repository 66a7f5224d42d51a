package abc

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// accidentals are the letters altered since the bar line, read both ways that
// section 11.3 allows: for all octaves, and for one.
type accidentals struct {
	key    pitch.Key
	all    map[byte]int
	octave map[[2]int]int
}

// sign returns the accidental that a note needs so that it is read right
// either way. After a tie one that the key has not is written anew.
func (a *accidentals) sign(p pitch.Pitch, tied bool) string {
	at := [2]int{int(p.Step()), p.Octave()}
	inAll, ok := a.all[p.Step()]
	if !ok {
		inAll = a.key.Alter(p.Step())
	}
	inOctave, ok := a.octave[at]
	if !ok {
		inOctave = a.key.Alter(p.Step())
	}
	anew := tied && p.Alter() != a.key.Alter(p.Step())
	if !anew && inAll == p.Alter() && inOctave == p.Alter() {
		return ""
	}
	a.all[p.Step()], a.octave[at] = p.Alter(), p.Alter()
	return signs[p.Alter()+2]
}

// signs are the accidentals of section 4.2, from two semitones down to two up.
var signs = []string{"__", "_", "=", "^", "^^"}

// alterOf returns the semitones that an accidental stands for.
func alterOf(sign string) (int, bool) {
	i := slices.Index(signs, sign)
	return i - 2, i >= 0
}

// bar writes one voice of one bar and returns the words under its notes.
func (w *writer) bar(v *lane, b score.Bar) ([]string, error) {
	var words []string
	marks := v.marks(b)
	acc := &accidentals{v.key, map[byte]int{}, map[[2]int]int{}}
	cursor := score.Time{}
	chords := chordsOf(b, v)
	left := 0              // notes still in the tuplet that is open
	var before *score.Note // to which the next may be beamed
	sp := spacing{out: &w.out}
	for i, c := range chords {
		n := c[0]
		if n.Grace {
			sp.grace()
			before = nil
			for _, g := range c {
				w.out.WriteString(acc.sign(g.Pitch, v.tied) + letterOf(g.Pitch, v.clef))
			}
			continue
		}
		glued := sp.endGraces()
		if n.Onset.Less(cursor) {
			continue // it overlaps the note before in its own voice: Losses says so
		}
		if gap := n.Onset.Sub(cursor); gap.Sign() > 0 {
			sp.part()
			glued = false
			if err := w.silence("x", gap); err != nil {
				return nil, err
			}
		}
		if !glued && (before == nil || !beamed(b, v.meter, *before, n)) {
			sp.part()
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
		cursor, before = n.Onset.Add(n.Duration), &c[0]
		if !n.Rest {
			words = append(words, syllable(n.Lyric))
		}
	}
	sp.endGraces()
	if rest := b.Length.Sub(cursor); rest.Sign() > 0 {
		sp.part()
		if err := w.silence("x", rest); err != nil {
			return nil, err
		}
	}
	for _, m := range marks {
		sp.part()
		w.mark(m)
	}
	w.out.WriteByte(' ')
	return words, nil
}

// marks returns those that a voice carries: each stands with the first voice of
// its part that has a note there, else with the first.
func (v *lane) marks(b score.Bar) []score.Mark {
	var out []score.Mark
	begin := begins(b)
	for _, m := range b.Marks {
		if m.Kind == "jump" || m.Kind == "words" && score.JumpInWords(m.Text) != "" {
			continue // written as one at the bar's ends
		}
		if at, any := begin[m.Onset]; any && at == [2]int{v.staff, v.voice} || !any && v.first {
			out = append(out, m)
		}
	}
	return out
}

// begins returns the first staff and voice in which a note or a rest begins, by
// moment of the bar.
func begins(b score.Bar) map[score.Time][2]int {
	out := map[score.Time][2]int{}
	for _, n := range b.Notes {
		at := [2]int{n.Staff, n.Voice}
		if first, any := out[n.Onset]; !n.Grace && (!any || slices.Compare(at[:], first[:]) < 0) {
			out[n.Onset] = at
		}
	}
	return out
}

// spacing parts what stands in a bar.
type spacing struct {
	out    *strings.Builder
	begun  bool
	graced bool // the braces of grace notes are open
}

// part writes a space before what is not beamed to the music before it.
func (s *spacing) part() {
	if s.begun {
		s.out.WriteByte(' ')
	}
	s.begun = true
}

// grace opens braces for grace notes, unless they are open.
func (s *spacing) grace() {
	if !s.graced {
		s.part()
		s.out.WriteByte('{')
	}
	s.graced = true
}

// endGraces closes the braces and reports whether they were open: what follows
// belongs to them.
func (s *spacing) endGraces() bool {
	open := s.graced
	if open {
		s.out.WriteByte('}')
	}
	s.graced = false
	return open
}

// beamed reports whether a note stands under one beam with that before it: in ABC
// no space parts them (section 4.7).
func beamed(b score.Bar, m score.Meter, before, n score.Note) bool {
	for _, x := range []score.Note{before, n} {
		if length, err := x.Shown(); x.Rest || err != nil || !length.Less(score.Quarters(1)) {
			return false
		}
	}
	return before.Onset.Add(before.Duration) == n.Onset && b.Beamed(m, before.Onset) == b.Beamed(m, n.Onset)
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
			w.ratio(t, n)
			return n
		}
		n++
	}
	w.ratio(t, n)
	return n
}

// ratio opens a tuplet of n notes; the usual triplet has a short sign.
func (w *writer) ratio(t score.Tuplet, n int) {
	if t == (score.Tuplet{Actual: 3, Normal: 2}) && n == 3 {
		w.out.WriteString("(3")
		return
	}
	fmt.Fprintf(&w.out, "(%d:%d:%d", t.Actual, t.Normal, n)
}

func end(chords [][]score.Note) score.Time {
	last := chords[len(chords)-1][0]
	return last.Onset.Add(last.Duration)
}

// lengthOf writes a duration against the unit; inside a tuplet the value
// before it was squeezed.
func lengthOf(n score.Note, squeezed bool) (string, error) {
	if !squeezed {
		return units(n.Duration)
	}
	shown, err := n.Shown()
	if err != nil {
		return "", err
	}
	return units(shown)
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
	w.out.WriteString(sign + length)
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
		var ids []string
		for _, one := range c {
			ids = append(ids, one.ID)
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
		v.chords = append(v.chords, strings.Join(ids, " "))
	}
	for _, one := range c {
		w.out.WriteString(strings.Repeat(")", one.SlurEnds))
	}
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
	case m.Kind == "chord":
		w.out.WriteString(`"` + text(m.Text) + `"`)
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

// syllable writes what is sung to one note: section 5.1.
func syllable(s string) string {
	s, goesOn := strings.CutSuffix(s, "-")
	s = strings.Map(func(r rune) rune {
		if strings.ContainsRune("_*|%\\ \t", r) {
			return '~'
		}
		return r
	}, s)
	s = strings.ReplaceAll(s, "-", `\-`)
	switch {
	case s == "":
		return "*"
	case goesOn:
		return s + "-"
	}
	return s
}

// sung joins syllables: no space follows the hyphen of a word that goes on.
func sung(words []string) string {
	var b strings.Builder
	for i, word := range words {
		if i > 0 && (!goesOn(words[i-1]) || word == "*") {
			b.WriteByte(' ')
		}
		b.WriteString(word)
	}
	return b.String()
}

func goesOn(word string) bool {
	return strings.HasSuffix(word, "-") && !strings.HasSuffix(word, `\-`)
}
