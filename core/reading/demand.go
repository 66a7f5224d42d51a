package reading

import (
	"slices"
	"strings"
	"sync/atomic"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
	"patientladder/core/score"
)

// A Demand is a skill that the page asks for, and where.
type Demand struct {
	Skill string       `json:"skill" doc:"id in the graph of skills"`
	Bar   int          `json:"bar" doc:"where first asked"`
	Beat  score.Time   `json:"beat"`
	Why   reason.Label `json:"why" doc:"what stands there, as a teacher says it"`
	Bars  []int        `json:"bars" doc:"all bars that ask it"`
}

// A sign is one thing to look for on a page: the skill it asks for, and where it
// stands. A certain sign stands wherever the skill is
// asked, so that a page without it does not ask; others may be missed.
type sign struct {
	skill   string
	certain bool
	find    func(*sight) []Place
}

// Certain reports whether a page that does not demand a skill does not ask for
// it: the skill stands on the page or is not there.
func Certain(skill string, plays instrument.Family) bool {
	return slices.ContainsFunc(signs(plays), func(s sign) bool { return s.skill == skill && s.certain })
}

// Readable reports whether a skill can be read off a page at all.
func Readable(skill string, plays instrument.Family) bool {
	return slices.ContainsFunc(signs(plays), func(s sign) bool { return s.skill == skill })
}

// signs are those of every instrument and those of one family.
func signs(plays instrument.Family) []sign { return slices.Concat(sharedSigns, ownSigns[plays]) }

var ownSigns = map[instrument.Family][]sign{instrument.Keyboard: keyboardSigns, instrument.Bowed: bowedSigns, instrument.Plucked: pluckedSigns}

// workers is among how many the signs are shared out.
const workers = 2

// Demands returns what the page asks for, by where it is first asked and then by
// the order of the signs.
func (p Page) Demands() []Demand {
	s := see(p)
	out := []Demand{}
	all := signs(p.On.Family)
	found := make([][]Place, len(all))
	var next atomic.Int64
	beside(workers, func(int) {
		for i := next.Add(1) - 1; i < int64(len(all)); i = next.Add(1) - 1 {
			found[i] = all[i].find(s)
		}
	})
	for i, places := range found {
		look := all[i]
		if len(places) == 0 {
			continue
		}
		d := Demand{Skill: look.skill, Bar: places[0].Bar, Beat: places[0].Beat, Why: reason.Said("on-page." + look.skill)}
		for _, at := range places {
			if at.Bar < d.Bar || at.Bar == d.Bar && at.Beat.Less(d.Beat) {
				d.Bar, d.Beat = at.Bar, at.Beat
			}
			d.Bars = append(d.Bars, at.Bar)
		}
		slices.Sort(d.Bars)
		d.Bars = slices.Compact(d.Bars)
		out = append(out, d)
	}
	slices.SortStableFunc(out, func(a, b Demand) int {
		if a.Bar != b.Bar {
			return a.Bar - b.Bar
		}
		return a.Beat.Cmp(b.Beat)
	})
	return out
}

// A seen note is a written note with what holds where it stands.
type seen struct {
	*score.Note
	*heading
	beats  score.Time // how long, in beats
	inBeat score.Time // where in its beat it begins, in beats, 0 up to 1
}

// A heading is what holds on one staff in one bar.
type heading struct {
	staff    int // index in the page's staves
	bar      int // from 1
	key      pitch.Key
	beat     score.Time // the length of a beat
	compound bool       // beats of three
	four     bool       // four beats in the bar
	clef     score.Clef
}

func (n *seen) place() Place { return Place{n.bar, n.Onset} }

// reckon fills in what is counted in beats; nought where it cannot be told.
func (n *seen) reckon() {
	num, den := n.beat.Fraction()
	beats, err1 := n.Duration.Scaled(den, num)
	at, err2 := n.Onset.Scaled(den, num)
	if err1 == nil && err2 == nil {
		n.beats, n.inBeat = beats, at.Fractional()
	}
}

// A sight is a page made ready for looking: its written notes staff by staff in
// order, and the slurs over them.
type sight struct {
	Page
	notes [][]*seen  // by staff, rests included, grace notes left out
	bars  [][]inBar  // by staff, one a bar
	slurs [][][2]int // by staff: indices of first and last note
}

func see(p Page) *sight {
	n := len(p.Staves)
	s := &sight{Page: p, notes: make([][]*seen, n), slurs: make([][][2]int, n), bars: make([][]inBar, n)}
	beside(n, func(i int) {
		st := &p.Staves[i]
		written := 0
		bars := p.Score.Parts[st.Part].Bars
		for bi := range bars {
			for ni := range bars[bi].Notes {
				if n := &bars[bi].Notes[ni]; n.Staff == st.Staff && !n.Grace {
					written++
				}
			}
		}
		room, list := make([]seen, written), make([]*seen, 0, written)
		var slurs [][2]int
		var open []int
		key, clef := pitch.Key{}, score.Clef{Sign: "G", Line: 2}
		if st.Staff > 1 {
			clef = score.Clef{Sign: "F", Line: 4}
		}
		meter := score.Meter{Beats: 4, BeatType: 4}
		headings := make([]heading, len(bars))
		for bi := range bars {
			b := &bars[bi]
			if b.Key != nil {
				key = *b.Key
			}
			if b.Meter != nil {
				meter = *b.Meter
			}
			for _, c := range b.Clefs {
				if c.Staff == st.Staff {
					clef = c
				}
			}
			beat, compound := beatOf(meter)
			holds := &headings[bi]
			*holds = heading{staff: i, bar: bi + 1, key: key, beat: beat, compound: compound, four: meter.Beats == 4, clef: clef}
			for ni := range b.Notes {
				n := &b.Notes[ni]
				if n.Staff != st.Staff || n.Grace {
					continue
				}
				for range n.SlurStarts {
					open = append(open, len(list))
				}
				note := &room[len(list)]
				note.Note, note.heading = n, holds
				note.reckon()
				list = append(list, note)
				for range n.SlurEnds {
					if len(open) > 0 {
						slurs = append(slurs, [2]int{open[len(open)-1], len(list) - 1})
						open = open[:len(open)-1]
					}
				}
			}
		}
		s.notes[i], s.slurs[i], s.bars[i] = list, slurs, inBars(list, p.Score.Bars())
	})
	return s
}

// Beats is how many beats a bar of a meter has: two of three eighths in 6/8.
func Beats(m score.Meter) int {
	if _, compound := beatOf(m); compound {
		return m.Beats / 3
	}
	return m.Beats
}

// beatOf returns the length of a beat: three eighths where the meter counts in
// threes of them, else the note that the meter counts.
func beatOf(m score.Meter) (beat score.Time, compound bool) {
	if m.BeatType >= 8 && m.Beats%3 == 0 && m.Beats > 3 {
		return score.Frac(12, int64(m.BeatType)), true
	}
	return score.Frac(4, int64(m.BeatType)), false
}

// Beat returns the length of a beat in a meter, in quarter notes.
func Beat(m score.Meter) score.Time {
	beat, _ := beatOf(m)
	return beat
}

// Some lengths, in beats or quarter notes.
var half, quarter, threeQuarters, oneAndHalf = score.Frac(1, 2), score.Frac(1, 4), score.Frac(3, 4), score.Frac(3, 2)

// each returns where notes are that satisfy a condition; rests are left out.
func each(is func(*seen) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for _, list := range s.notes {
			for _, n := range list {
				if !n.Rest && is(n) {
					out = append(out, n.place())
				}
			}
		}
		return out
	}
}

// chords returns where chords of a line are that satisfy a condition.
func chords(is func(st *Staff, i int) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for si := range s.Staves {
			st := &s.Staves[si]
			for i := range st.Line {
				if is(st, i) {
					out = append(out, Place{st.Line[i].Bar, st.Line[i].Beat})
				}
			}
		}
		return out
	}
}

// leap finds intervals of some widths between neighbours of a line.
func leap(from, to int) func(*sight) []Place {
	return chords(func(st *Staff, i int) bool {
		return i > 0 && st.Intervals[i-1].Number >= from && st.Intervals[i-1].Number <= to
	})
}

// slurred finds slurs over some number of notes.
func slurred(from, to int, also func(s *sight, staff int, slur [2]int) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for i, list := range s.slurs {
			for _, sl := range list {
				count, last := 0, score.Quarters(-1)
				bar := 0
				for _, n := range s.notes[i][sl[0] : sl[1]+1] {
					if !n.Rest && !n.TieFrom && (n.Onset != last || n.bar != bar) {
						count, last, bar = count+1, n.Onset, n.bar
					}
				}
				if count >= from && count <= to && (also == nil || also(s, i, sl)) {
					out = append(out, s.notes[i][sl[0]].place())
				}
			}
		}
		return out
	}
}

const many = 1 << 20 // more notes than a slur has

func articulated(names ...string) func(*sight) []Place {
	return each(func(n *seen) bool {
		return slices.ContainsFunc(n.Articulations, func(a string) bool { return slices.Contains(names, a) })
	})
}

// marks finds marks of the score that satisfy a condition.
func marks(is func(score.Mark) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for _, p := range s.Score.Parts {
			for bi, b := range p.Bars {
				for _, m := range b.Marks {
					if is(m) {
						out = append(out, Place{bi + 1, m.Onset})
					}
				}
			}
		}
		return out
	}
}

// levels finds where the loudness is set, when it is set to several levels.
func levels(least int) func(*sight) []Place {
	loud := []string{"pppp", "ppp", "pp", "p", "mp", "mf", "f", "ff", "fff", "ffff"}
	find := marks(func(m score.Mark) bool { return m.Kind == "dynamic" && slices.Contains(loud, m.Text) })
	return func(s *sight) []Place {
		found := map[string]bool{}
		for _, p := range s.Score.Parts {
			for _, b := range p.Bars {
				for _, m := range b.Marks {
					if slices.Contains(loud, m.Text) {
						found[m.Text] = true
					}
				}
			}
		}
		if len(found) < least {
			return nil
		}
		return find(s)
	}
}

// meters finds bars whose meter, where it is set, satisfies a condition.
func meters(is func(score.Meter) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for _, p := range s.Score.Parts {
			for bi, b := range p.Bars {
				if b.Meter != nil && is(*b.Meter) {
					out = append(out, Place{Bar: bi + 1})
				}
			}
		}
		return out
	}
}

// changes finds bars in which what holds from its sign on becomes another; the same told again is none.
func changes[T comparable](told func(score.Bar) *T) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for _, st := range s.Staves {
			var now *T
			for bi, b := range s.Score.Parts[st.Part].Bars {
				t := told(b)
				if t == nil {
					continue
				}
				if now != nil && *t != *now {
					out = append(out, Place{Bar: bi + 1})
				}
				now = t
			}
		}
		return out
	}
}

// words reports whether a mark says one of some words.
func words(list ...string) func(score.Mark) bool {
	return func(m score.Mark) bool {
		text := strings.ToLower(m.Text)
		return m.Kind == "words" && slices.ContainsFunc(list, func(w string) bool { return strings.Contains(text, w) })
	}
}

// sharedSigns stand on the pages of every instrument.
var sharedSigns = []sign{
	{"long-notes", true, each(func(n *seen) bool { return !n.beats.Less(score.Quarters(2)) })},
	{"rests", true, silences},
	{"halves", true, each(func(n *seen) bool { return !n.compound && n.beats == half })},
	{"thirds", true, each(func(n *seen) bool { return n.Tuplet != nil && n.Tuplet.Actual == 3 })},
	{"quarters-of-beat", true, each(func(n *seen) bool { return !n.compound && n.beats == quarter })},
	{"dotted", true, each(func(n *seen) bool {
		return !n.compound && (n.beats == oneAndHalf || n.beats == threeQuarters) || n.compound && n.beats == half
	})},
	{"syncopation", true, each(func(n *seen) bool {
		if n.compound {
			return false
		}
		// in four time a half note on the second beat sounds through the middle
		middle := n.beat.Add(n.beat)
		return n.inBeat == half && !n.beats.Less(score.Quarters(1)) || n.four && n.Onset == n.beat && n.Duration == middle
	})},
	{"three-time", true, meters(func(m score.Meter) bool { return m.Beats == 3 })},
	{"six-eight", true, meters(func(m score.Meter) bool { _, c := beatOf(m); return c })},
	{"pickup", true, pickups},
	{"ties", true, each(func(n *seen) bool { return n.TieTo })},
	{"changing-meter", true, changes(func(b score.Bar) *score.Meter { return b.Meter })},
	{"two-against-three", true, against(2)},
	{"three-against-four", true, against(4)},
	{"steps", false, leap(2, 2)},
	{"skips", false, leap(3, 3)},
	{"fourths-fifths", false, leap(4, 5)},
	{"wide-leaps", false, leap(6, 99)},
	{"accidentals", true, each(func(n *seen) bool { return n.Pitch.Alter() != n.key.Alter(n.Pitch.Step()) })},
	{"key-signature", false, each(func(n *seen) bool {
		return n.Pitch.Alter() != 0 && n.Pitch.Alter() == n.key.Alter(n.Pitch.Step())
	})},
	{"key-change", true, changes(func(b score.Bar) *int {
		switch {
		case b.Key != nil:
			return &b.Key.Fifths
		case b.Start.Sign() == 0:
			return new(int) // begins without a signature
		}
		return nil
	})},
	{"modes", false, func(s *sight) []Place {
		if k, _ := s.Key(); !slices.Contains([]string{"major", "minor", "ionian", "aeolian"}, k.Mode) {
			return []Place{{Bar: 1}}
		}
		return nil
	}},
	{"second-clef", true, func(s *sight) []Place {
		var out []Place
		for _, p := range s.Score.Parts {
			for bi, b := range p.Bars {
				if bi > 0 && len(b.Clefs) > 0 {
					out = append(out, Place{Bar: bi + 1, Beat: b.Clefs[0].Onset})
				}
			}
		}
		return out
	}},
	{"loud-soft", true, levels(2)},
	{"six-levels", false, levels(4)},
	{"swell", true, marks(func(m score.Mark) bool {
		return m.Kind == "dynamic" && (m.Text == "crescendo" || m.Text == "diminuendo") || words("cresc", "dim.", "decresc")(m)
	})},
	{"accents", true, articulated("accent", "strong-accent")},
	{"phrase-breath", false, articulated("breath-mark", "caesura")},
	{"tempo-change", true, marks(words("rit", "rall", "accel", "a tempo", "slowing", "slower", "faster"))},
}

// silences finds the rests of a hand in bars in which it also plays, and where
// nothing sounds at all before the piece goes on.
func silences(s *sight) []Place {
	type moment struct{ on, off score.Time }
	var out []Place
	var all []moment
	for i := range s.Staves {
		line, plays := s.Staves[i].Line, make([]bool, s.Score.Bars()+1)
		own := make([]moment, len(line))
		for ci := range line {
			c := &line[ci]
			own[ci] = moment{c.Onset, c.Onset.Add(c.Duration)}
			plays[c.Bar] = true
		}
		all = merged(all, own, func(a, b moment) bool { return a.on.Less(b.on) })
		for _, n := range s.notes[i] {
			if n.Rest && plays[n.bar] {
				out = append(out, n.place())
			}
		}
	}
	end := score.Time{}
	for i, m := range all {
		if i > 0 && end.Less(m.on) {
			out = append(out, s.at(end))
		}
		if end.Less(m.off) {
			end = m.off
		}
	}
	return out
}

// merged makes one list of two that are in order.
func merged[T any](a, b []T, less func(T, T) bool) []T {
	if len(a) == 0 {
		return b
	}
	out := make([]T, 0, len(a)+len(b))
	for len(a) > 0 && len(b) > 0 {
		if less(b[0], a[0]) {
			out, b = append(out, b[0]), b[1:]
		} else {
			out, a = append(out, a[0]), a[1:]
		}
	}
	return append(append(out, a...), b...)
}

// at returns the place of a moment of the piece.
func (s *sight) at(t score.Time) Place {
	bars := s.Score.Parts[0].Bars
	i, begins := slices.BinarySearchFunc(bars, t, func(b score.Bar, t score.Time) int { return b.Start.Cmp(t) })
	if !begins {
		i--
	}
	return Place{i + 1, t.Sub(bars[i].Start)}
}

func pickups(s *sight) []Place {
	for _, p := range s.Score.Parts {
		if len(p.Bars) > 1 && p.Bars[0].Meter != nil && p.Bars[0].Length.Less(p.Bars[0].Meter.Length()) {
			return []Place{{Bar: 1}}
		}
	}
	return nil
}

// against finds beats and bars that one staff divides in three and another in
// some other number, each with strokes where the other has none.
func against(parts int64) func(*sight) []Place {
	return func(s *sight) []Place {
		if len(s.Staves) < 2 {
			return nil
		}
		var out []Place
		var beat, whole division
		for bar := 1; bar <= s.Score.Bars(); bar++ {
			a, b := &s.bars[0][bar-1], &s.bars[1][bar-1]
			if len(a.onsets) == 0 || len(b.onsets) == 0 {
				continue
			}
			length := s.Score.Parts[s.Staves[0].Part].Bars[bar-1].Length
			beat.of(a.beat, parts)
			whole.of(length, parts)
			for at := (score.Time{}); at.Less(length); at = at.Add(a.beat) {
				if beat.crossed(a, b, at) || beat.crossed(b, a, at) {
					out = append(out, Place{bar, at})
				}
			}
			if whole.crossed(a, b, score.Time{}) || whole.crossed(b, a, score.Time{}) {
				out = append(out, Place{Bar: bar})
			}
		}
		return out
	}
}

// A division is a stretch cut in three and in some other number: where the parts
// begin but for the first; without parts where they cannot be told.
type division struct {
	length       score.Time
	three, other []score.Time
}

func (d *division) of(length score.Time, n int64) {
	if d.length == length {
		return
	}
	d.length, d.three, d.other = length, cutInto(length, 3), cutInto(length, n)
}

func cutInto(length score.Time, n int64) []score.Time {
	out := make([]score.Time, 0, n-1)
	for k := int64(1); k < n; k++ {
		part, err := length.Scaled(k, n)
		if err != nil {
			return nil
		}
		out = append(out, part)
	}
	return out
}

// crossed reports whether one staff divides the stretch from a moment in three and
// another in the other number, neither striking where only the other does.
func (d *division) crossed(three, other *inBar, from score.Time) bool {
	return strikes(three, from, d.three) && strikes(other, from, d.other) && !touches(three, from, d.other) && !touches(other, from, d.three)
}

// strikes reports whether a staff begins a note at a moment and at each part after
// it.
func strikes(b *inBar, from score.Time, parts []score.Time) bool {
	for _, part := range parts {
		if !slices.Contains(b.onsets, from.Add(part)) {
			return false
		}
	}
	return len(parts) > 0 && slices.Contains(b.onsets, from)
}

// touches reports whether a staff begins a note at any part after a moment.
func touches(b *inBar, from score.Time, parts []score.Time) bool {
	return slices.ContainsFunc(parts, func(part score.Time) bool { return slices.Contains(b.onsets, from.Add(part)) })
}
