package reading

import (
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// keyboardSigns stand on the pages of keyboards.
var keyboardSigns = []sign{
	{"two-staves", false, bars(func(a, b *inBar) bool { return overlap(a, b) })},
	{"hands-in-turn", false, inTurn},
	{"held-left-hand", true, bars(func(a, b *inBar) bool {
		return holding(a, b) || holding(b, a)
	})},
	{"hands-together", true, bars(func(a, b *inBar) bool { return moving(a) && moving(b) })},
	{"parallel-hands", false, alongside(func(a, b Direction) bool { return a == b && a != Same })},
	{"mirrored-hands", false, alongside(func(a, b Direction) bool { return a == Up && b == Down || a == Down && b == Up })},
	{"g-position", false, from('G')},
	{"f-position", false, from('F')},
	{"any-position", false, from('A', 'B', 'D', 'E')},
	{"position-move", false, moved(func(st *Staff, i int) bool { return st.Positions[i].Move == Jump })},
	{"thumb-under", false, moved(func(st *Staff, i int) bool { return st.Positions[i].Move == Crossing && away(st, i) })},
	{"finger-over", false, moved(func(st *Staff, i int) bool { return st.Positions[i].Move == Crossing && !away(st, i) })},
	{"extend", false, opening},
	{"octaves", true, chords(func(st *Staff, i int) bool { return width(&st.Line[i]) == 8 })},
	{"chord-block", true, chords(func(st *Staff, i int) bool { return len(st.Line[i].Notes) >= 3 })},
	{"bass-chord", true, chords(func(st *Staff, i int) bool {
		if i == 0 || st.Hand != Left || len(st.Line[i-1].Notes) > 1 || len(st.Line[i].Notes) < 2 {
			return false
		}
		return st.Line[i].Notes[0].Line()-st.Line[i-1].Top().Line() >= 2 && joined(st.Line, i)
	})},
	{"chord-broken", false, broken(false)},
	{"rocking-bass", false, broken(true)},
	{"arpeggio", false, chords(spread)},
	{"touch-joined", false, slurred(2, many, nil)},
	{"slur-two", false, slurred(2, 2, nil)},
	{"slur-long", false, slurred(8, many, nil)},
	{"touch-detached", false, articulated("staccato", "staccatissimo")},
	{"two-touches", false, bars(func(a, b *inBar) bool {
		return a.slurred && b.detached || b.slurred && a.detached
	})},
	{"repeated-notes", false, chords(func(st *Staff, i int) bool {
		if i < 2 {
			return false
		}
		for _, c := range st.Line[i-2 : i+1] {
			if c.Top() != st.Line[i].Top() || half.Less(c.Duration) {
				return false
			}
		}
		return true
	})},
	{"voice-in-hand", true, voices},
	{"trill", true, articulated("trill-mark", "mordent", "inverted-mordent", "turn")},
	{"pedal-joined", true, marks(func(m score.Mark) bool { return m.Kind == "pedal" || words("ped.")(m) })},
}

// An inBar is what one staff does in one bar.
type inBar struct {
	place    Place
	onsets   []score.Time
	ends     []score.Time
	beat     score.Time
	slurred  bool
	detached bool
}

// bars finds bars in which two hands satisfy a condition.
func bars(is func(a, b *inBar) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		if len(s.Staves) < 2 {
			return nil
		}
		var out []Place
		for bar := 1; bar <= s.Score.Bars(); bar++ {
			a, b := &s.bars[0][bar-1], &s.bars[1][bar-1]
			if len(a.onsets) > 0 && len(b.onsets) > 0 && is(a, b) {
				at := a.place
				if b.place.Beat.Less(at.Beat) {
					at = b.place
				}
				out = append(out, at)
			}
		}
		return out
	}
}

// inBars gathers what a staff does in each bar.
func inBars(list []*seen, bars int) []inBar {
	all := make([]inBar, bars)
	// the onsets of all bars stand side by side, and the ends
	onsets, ends := make([]score.Time, 0, len(list)), make([]score.Time, 0, len(list))
	for _, n := range list {
		if n.Rest {
			continue
		}
		out := &all[n.bar-1]
		if len(out.onsets) == 0 {
			out.place, out.beat = n.place(), n.beat
		}
		if last := len(out.onsets) - 1; last < 0 || out.onsets[last] != n.Onset {
			onsets, ends = append(onsets, n.Onset), append(ends, n.Onset.Add(n.Duration))
			from, to := len(onsets)-len(out.onsets)-1, len(onsets)
			out.onsets, out.ends = onsets[from:to:to], ends[from:to:to]
		}
		out.slurred = out.slurred || n.SlurStarts > 0
		out.detached = out.detached || slices.Contains(n.Articulations, "staccato")
	}
	return all
}

func overlap(a, b *inBar) bool {
	for i, on := range a.onsets {
		for j, other := range b.onsets {
			if on.Less(b.ends[j]) && other.Less(a.ends[i]) {
				return true
			}
		}
	}
	return false
}

// holding reports whether one hand holds a note of two beats or more while the
// other begins two notes or more.
func holding(a, b *inBar) bool {
	for i, on := range a.onsets {
		if a.ends[i].Sub(on).Less(a.beat.Add(a.beat)) {
			continue
		}
		under := 0
		for _, other := range b.onsets {
			if !other.Less(on) && other.Less(a.ends[i]) {
				under++
			}
		}
		if under >= 2 {
			return true
		}
	}
	return false
}

// moving reports whether a hand begins two notes or more.
func moving(a *inBar) bool { return len(a.onsets) >= 2 }

// inTurn finds bars in which only one hand plays, when each does so somewhere.
func inTurn(s *sight) []Place {
	if len(s.Staves) < 2 {
		return nil
	}
	var out []Place
	alone := [2]bool{}
	for bar := 1; bar <= s.Score.Bars(); bar++ {
		a, b := &s.bars[0][bar-1], &s.bars[1][bar-1]
		switch {
		case len(a.onsets) > 0 && len(b.onsets) == 0:
			alone[0] = true
			out = append(out, a.place)
		case len(b.onsets) > 0 && len(a.onsets) == 0:
			alone[1] = true
			out = append(out, b.place)
		}
	}
	if !alone[0] || !alone[1] {
		return nil
	}
	return out
}

// alongside finds where both hands strike together three times running and go a
// certain way.
func alongside(is func(a, b Direction) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		if len(s.Staves) < 2 {
			return nil
		}
		a, b := s.Staves[0], s.Staves[1]
		var out []Place
		run, i, j := 0, 0, 0
		for i < len(a.Line) && j < len(b.Line) {
			switch c := a.Line[i].Onset.Cmp(b.Line[j].Onset); {
			case c == 0 && i > 0 && j > 0 && is(a.Top[i], b.Top[j]):
				if run++; run == 2 {
					out = append(out, Place{a.Line[i].Bar, a.Line[i].Beat})
				}
				i, j = i+1, j+1
			case c == 0:
				run, i, j = 0, i+1, j+1
			case c < 0:
				run, i = 0, i+1
			default:
				run, j = 0, j+1
			}
		}
		return out
	}
}

// from finds positions of which the lowest key is played, has one of some
// letters, and of which four keys or more are in use.
func from(letters ...byte) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for _, st := range s.Staves {
			at := 0
			for _, p := range st.Positions {
				low, high, flat, sharp := 1000, -1, false, false
				for _, c := range st.Line[at : at+len(p.Fingers)] {
					low, high = min(low, c.Notes[0].Line()), max(high, c.Top().Line())
					for _, n := range c.Notes {
						flat = flat || n.Step() == 'B' && n.Alter() == -1
						sharp = sharp || n.Step() == 'F' && n.Alter() != 0
					}
				}
				at += len(p.Fingers)
				if high-low >= 3 && high-low < reach && slices.Contains(letters, p.Low[0]) && p.Low == natural(low).String() && (p.Low[0] != 'F' || flat && !sharp) {
					out = append(out, Place{p.Bar, p.Beat})
				}
			}
		}
		return out
	}
}

// moved finds positions that satisfy a condition.
func moved(is func(st *Staff, position int) bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for si := range s.Staves {
			st := &s.Staves[si]
			for i, p := range st.Positions {
				if is(st, i) {
					out = append(out, Place{p.Bar, p.Beat})
				}
			}
		}
		return out
	}
}

// opening finds where a hand opens by a key, or strikes a sixth.
func opening(s *sight) []Place {
	return append(chords(func(st *Staff, i int) bool { return width(&st.Line[i]) == 6 })(s), moved(func(st *Staff, i int) bool { return len(st.Positions[i].Opened) > 0 })(s)...)
}

// away reports whether a hand crosses away from its thumb: upwards for the
// right, downwards for the left.
func away(st *Staff, position int) bool {
	up := st.Positions[position].line() > st.Positions[position-1].line()
	return up == (st.Hand == Right)
}

// line is the place on the staff of the position's lowest key.
func (p Position) line() int { return pitch.MustParseAll(p.Low)[0].Line() }

// width is the interval's number from the lowest to the highest note of a chord.
func width(c *Chord) int { return c.Top().Line() - c.Notes[0].Line() + 1 }

func joined(line []Chord, i int) bool {
	return line[i-1].Onset.Add(line[i-1].Duration) == line[i].Onset
}

// broken finds bars in which a hand plays three notes or more one after another,
// none by step, of at least three keys; under asks that the other hand plays
// too, and that it is the left.
func broken(under bool) func(*sight) []Place {
	return func(s *sight) []Place {
		var out []Place
		for si, st := range s.Staves {
			for i := 0; i < len(st.Line); {
				j := i
				keys := map[int]bool{}
				skips := true
				for ; j < len(st.Line) && st.Line[j].Bar == st.Line[i].Bar; j++ {
					keys[st.Line[j].Top().Line()%7] = true
					skips = skips && len(st.Line[j].Notes) == 1 && (j == i || st.Intervals[j-1].Number > 2)
				}
				if skips && j-i >= 3 && len(keys) == 3 {
					other := false
					for oi := range s.Staves {
						other = other || oi != si && len(s.bars[oi][st.Line[i].Bar-1].onsets) > 0
					}
					if !under || other && st.Hand == Left {
						out = append(out, Place{st.Line[i].Bar, st.Line[i].Beat})
					}
				}
				i = j
			}
		}
		return out
	}
}

// spread reports whether the four notes up to one go by skips one way beyond an
// octave.
func spread(st *Staff, i int) bool {
	if i < 3 {
		return false
	}
	for j := i - 2; j <= i; j++ {
		if st.Top[j] != st.Top[i] || st.Intervals[j-1].Number < 3 || st.Top[i] == Same {
			return false
		}
	}
	return abs(st.Line[i].Top().Line()-st.Line[i-3].Top().Line()) >= 7
}

// voices finds where two voices of one staff sound together and do not begin and
// end alike.
func voices(s *sight) []Place {
	var out []Place
	for _, list := range s.notes {
		for i := 1; i < len(list); i++ {
			a, b := list[i-1], list[i]
			if a.bar == b.bar && a.Voice != b.Voice && !a.Rest && !b.Rest && a.Duration != b.Duration && b.Onset.Less(a.Onset.Add(a.Duration)) {
				out = append(out, b.place())
			}
		}
	}
	return out
}
