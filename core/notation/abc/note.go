package abc

import (
	"cmp"
	"fmt"
	"math"
	"strconv"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// pitch reads accidental, letter and octave marks: sections 4.1 and 4.2.
func (r *reader) pitch(s *scanner) (pitch.Pitch, error) {
	acc := s.take("^_=")
	if share := s.take("0123456789/"); acc != "" && share != "" {
		r.s.Note("microtones, played as the nearest half step", len(r.v.bars)+1)
		acc = nearest(acc, share)
	}
	letter := s.peek(0)
	if strings.IndexByte(noteLetters, letter) < 0 || letter == 0 {
		return pitch.Pitch{}, fmt.Errorf("an accidental with no note behind it")
	}
	s.pos++
	octave := 4
	if letter >= 'a' {
		octave, letter = 5, letter-'a'+'A'
	}
	for _, m := range s.take("',") {
		if m == '\'' {
			octave++
		} else {
			octave--
		}
	}
	v := r.v
	octave += v.octave
	alter, kept := v.accidentals[letter]
	if !kept {
		alter = v.key.Alter(letter)
	}
	if acc != "" {
		a, ok := alterOf(acc)
		if !ok {
			return pitch.Pitch{}, fmt.Errorf("%q is not an accidental", acc)
		}
		alter = a
		if v.accidentals == nil {
			v.accidentals = map[byte]int{}
		}
		v.accidentals[letter] = a
	}
	p, err := pitch.New(letter, alter, octave)
	if err != nil || acc != "" || !v.tied {
		return p, err
	}
	// a tie carries the accidental of the note before over the bar line
	for _, t := range v.tiedNotes {
		if t.Step() == p.Step() && t.Octave() == p.Octave() {
			return t, nil
		}
	}
	return p, nil
}

// nearest is the accidental next to a share of one, "^3/2" being one and a half; of two
// that are as near the lesser.
func nearest(acc, share string) string {
	top, bottom, _ := strings.Cut(share, "/")
	n, err1 := strconv.ParseFloat(cmp.Or(top, "1"), 64)
	d, err2 := strconv.ParseFloat(cmp.Or(bottom, "2"), 64)
	if err1 != nil || err2 != nil || d == 0 {
		return acc
	}
	half := min(int(math.Ceil(n/d*float64(len(acc))-0.5)), 2)
	if half <= 0 {
		return "="
	}
	return strings.Repeat(acc[:1], half)
}

// length reads 3, /2, 3/2, // after a note: section 4.3.
func (s *scanner) length() (num, den int64, err error) {
	num, den = 1, 1
	if digits := s.take("0123456789"); digits != "" {
		if num, err = strconv.ParseInt(digits, 10, 32); err != nil || num == 0 || num > 1024 {
			return 0, 0, fmt.Errorf("%q is not a note length", digits)
		}
	}
	for s.peek(0) == '/' {
		s.pos++
		digits := s.take("0123456789")
		n := int64(2)
		if digits != "" {
			if n, err = strconv.ParseInt(digits, 10, 32); err != nil || n == 0 {
				return 0, 0, fmt.Errorf("%q is not a note length", "/"+digits)
			}
		}
		if den *= n; den > 1024 {
			return 0, 0, fmt.Errorf("a note shorter than a 1024th of the unit")
		}
	}
	return num, den, nil
}

func (r *reader) note(s *scanner) error {
	p, err := r.pitch(s)
	if err != nil {
		return err
	}
	num, den, err := s.length()
	if err != nil {
		return err
	}
	return r.sound([]score.Note{{Pitch: p}}, num, den)
}

func (r *reader) chord(s *scanner) error {
	s.pos++
	var notes []score.Note
	var num, den int64
	for s.peek(0) != ']' {
		switch c := s.peek(0); {
		case c == 0:
			return fmt.Errorf("a ']' is missing")
		case c == '!':
			s.pos++
			name, err := s.until('!')
			if err != nil {
				return err
			}
			r.decoration(name)
		case c == '-':
			s.pos++
			if len(notes) > 0 {
				notes[len(notes)-1].TieTo = true
			}
		case (c == '\'' || c == ',') && len(notes) > 0: // an octave behind a tie, as some programs write it
			s.pos++
			n := &notes[len(notes)-1]
			octave := n.Pitch.Octave() + 1
			if c == ',' {
				octave -= 2
			}
			p, err := pitch.New(n.Pitch.Step(), n.Pitch.Alter(), octave)
			if err != nil {
				return err
			}
			n.Pitch = p
		case c == '"':
			if err := r.v.quoted(s); err != nil {
				return err
			}
		case c == '(' || c == ')':
			s.pos++
			r.s.Note("slur inside a chord", len(r.v.bars)+1)
		case c == '.', isLetter(c) && !isNoteStart(c):
			s.pos++
			r.letter(c)
		case c == ' ':
			s.pos++
		case isNoteStart(c):
			p, err := r.pitch(s)
			if err != nil {
				return err
			}
			n, d, err := s.length()
			if err != nil {
				return err
			}
			if len(notes) == 0 {
				num, den = n, d // section 4.17: the first note gives the chord's length
			}
			note := score.Note{Pitch: p, Fingers: r.v.pending.fingers}
			r.v.pending.fingers = nil
			notes = append(notes, note)
		default:
			return fmt.Errorf("%q stands inside a chord", c)
		}
	}
	s.pos++
	if len(notes) == 0 {
		return fmt.Errorf("an empty chord")
	}
	n, d, err := s.length()
	if err != nil {
		return err
	}
	return r.sound(notes, num*n, den*d)
}

func (r *reader) silence(s *scanner) error {
	c := s.peek(0)
	s.pos++
	num, den, err := s.length()
	if err != nil {
		return err
	}
	if r.v.grace {
		r.s.Note("rests among grace notes", len(r.v.bars)+1)
		return nil
	}
	if c == 'z' || c == 'x' {
		return r.sound([]score.Note{{Rest: true}}, num, den)
	}
	v := r.v
	if v.meter == nil || den != 1 || num > 200 {
		return fmt.Errorf("whole-bar rests need a meter and a number of bars up to 200")
	}
	for i := range num {
		if i > 0 {
			v.close()
		}
		v.bar.Notes = append(v.bar.Notes, score.Note{Onset: v.cursor, Duration: v.meter.Length(), Rest: true, Voice: v.layer})
		v.cursor = v.cursor.Add(v.meter.Length())
	}
	return nil
}

// sound places notes of one onset; num/den counts unit lengths.
func (r *reader) sound(notes []score.Note, num, den int64) error {
	v := r.v
	d, err := r.unit.Scaled(num, den)
	if err != nil {
		return err
	}
	if v.grace {
		for i := range notes {
			notes[i].Grace, notes[i].Onset, notes[i].Voice = true, v.cursor, v.layer
		}
		r.s.Note("time of grace notes", len(v.bars)+1)
		v.append(notes)
		return nil
	}
	if v.broken.Sign() > 0 {
		n, dd := v.broken.Fraction()
		if d, err = d.Scaled(n, dd); err != nil {
			return err
		}
		v.broken = score.Time{}
	}
	var tup *score.Tuplet
	if v.tuplet.left > 0 {
		tup = &score.Tuplet{Actual: v.tuplet.actual, Normal: v.tuplet.normal}
		if d, err = d.Scaled(int64(tup.Normal), int64(tup.Actual)); err != nil {
			return err
		}
		v.tuplet.left--
	}
	var ties []pitch.Pitch
	for i := range notes {
		n := &notes[i]
		n.Onset, n.Duration, n.Tuplet, n.Voice = v.cursor, d, tup, v.layer
		if !n.Rest && v.tied {
			for _, t := range v.tiedNotes {
				n.TieFrom = n.TieFrom || t == n.Pitch
			}
		}
		if n.TieTo {
			ties = append(ties, n.Pitch)
		}
		if i > 0 {
			continue
		}
		if !n.Rest {
			n.SlurStarts, v.slurs = v.slurs, 0
			v.open += n.SlurStarts
		}
		n.Fingers = append(n.Fingers, v.pending.fingers...)
		n.Articulations = v.pending.articulations
		v.pending = pending{}
	}
	v.tied, v.tiedNotes = len(ties) > 0, ties
	if v.cursor = v.cursor.Add(d); score.Quarters(4096).Less(v.cursor) {
		return fmt.Errorf("a bar longer than a thousand whole notes")
	}
	v.append(notes)
	return nil
}

// append puts notes of one onset into the bar being filled.
func (v *voice) append(notes []score.Note) {
	if !notes[0].Rest {
		v.heard = &index{len(v.bars), len(v.bar.Notes)}
	}
	v.bar.Notes = append(v.bar.Notes, notes...)
}

// endSlur ends a slur at the latest note. It may end one and begin the next,
// "(c d (e) f g a)": section 4.11 of the standard. A slur over one note is none.
func (r *reader) endSlur() {
	v := r.v
	if v.slurs > 0 {
		v.slurs--
		return
	}
	if v.open == 0 {
		r.s.Note("slur that never began", len(v.bars)+1)
		return
	}
	v.open--
	if n := v.at(*v.heard); v.open < n.SlurStarts {
		n.SlurStarts--
	} else {
		n.SlurEnds++
	}
}

// newest returns the note or chord that ends at the cursor, which may be the last
// of the bar before.
func (v *voice) newest() []*score.Note {
	list := v.bar.Notes
	if n := len(v.bars); len(list) == 0 && n > 0 {
		list = v.bars[n-1].Notes
	}
	var out []*score.Note
	last := len(list) - 1
	for last > 0 && list[last].Voice != v.layer { // of a bar with an overlay
		last--
	}
	for i := last; i >= 0 && list[i].Onset == list[last].Onset && list[i].Voice == list[last].Voice && !list[i].Grace; i-- {
		out = append(out, &list[i])
	}
	return out
}

func (v *voice) tie() {
	for _, n := range v.newest() {
		if !n.Rest {
			n.TieTo = true
			v.tied = true
			v.tiedNotes = append(v.tiedNotes, n.Pitch)
		}
	}
}

// breakRhythm is section 4.4: > lengthens the note before and shortens the next.
func (v *voice) breakRhythm(signs string) error {
	if len(signs) > 3 || strings.Count(signs, signs[:1]) != len(signs) {
		return fmt.Errorf("%q is not a broken rhythm", signs)
	}
	whole := int64(1) << len(signs)
	long, short := score.Frac(2*whole-1, whole), score.Frac(1, whole)
	before := v.newest()
	if len(v.bar.Notes) == 0 || len(before) == 0 {
		return fmt.Errorf("a %q with no note before it", signs)
	}
	factor := long
	v.broken = short
	if signs[0] == '<' {
		factor, v.broken = short, long
	}
	num, den := factor.Fraction()
	for i, n := range before {
		d, err := n.Duration.Scaled(num, den)
		if err != nil {
			return err
		}
		if i == 0 {
			v.cursor = v.cursor.Add(d).Sub(n.Duration)
		}
		n.Duration = d
	}
	return nil
}

// openTuplet is section 4.13: (p:q:r with the stated defaults.
func (r *reader) openTuplet(s *scanner) error {
	s.pos++
	num := func() int {
		n, err := strconv.Atoi(s.take("0123456789"))
		if err != nil {
			return 0
		}
		return n
	}
	p, q, n := num(), 0, 0
	if s.peek(0) == ':' {
		s.pos++
		q = num()
		if s.peek(0) == ':' {
			s.pos++
			n = num()
		}
	}
	if p < 2 || p > 15 || q > 15 || n > 64 {
		return fmt.Errorf("a tuplet of %d", p)
	}
	if q == 0 {
		switch p {
		case 3, 6:
			q = 2
		case 2, 4, 8:
			q = 3
		default:
			q = 2
			if m := r.v.meter; m != nil && m.BeatType == 8 && m.Beats%3 == 0 && m.Beats > 3 {
				q = 3
			}
		}
	}
	if n == 0 {
		n = p
	}
	r.v.tuplet = tuplet{p, q, n}
	return nil
}
