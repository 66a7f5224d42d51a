package reading

import (
	"slices"
	"strings"

	"patientladder/core/score"
)

// bowedSigns stand on the pages of bowed strings.
var bowedSigns = []sign{
	{"open-strings", false, stops(func(st []Stop) bool { return len(st) == 1 && st[0].Finger == "0" })},
	{"first-finger", false, fingered("1")},
	{"second-finger", true, fingered("2")},
	{"stepping-fingers", false, chords(func(st *Staff, i int) bool {
		a, b, ok := pair(st, i)
		return ok && a.String == b.String && a.Finger != b.Finger && a.Finger != "0" && b.Finger != "0"
	})},
	{"string-levels", false, chords(func(st *Staff, i int) bool {
		a, b, ok := pair(st, i)
		return ok && a.String != b.String
	})},
	{"quick-crossings", false, chords(func(st *Staff, i int) bool {
		for j := i - 2; j <= i; j++ {
			a, b, ok := pair(st, j)
			if !ok || a.String == b.String || half.Less(st.Line[j-1].Duration) {
				return false
			}
		}
		return true
	})},
	{"slur-two-notes", true, slurred(2, 2, nil)},
	{"slur-three", true, slurred(3, many, nil)},
	{"slur-crossing", true, slurred(2, many, func(s *sight, staff int, slur [2]int) bool {
		on := s.strings(staff, slur)
		return len(on) > 1 && slices.Min(on) != slices.Max(on)
	})},
	{"slow-bows", false, each(func(n *seen) bool { return !n.Duration.Less(score.Quarters(4)) })},
	{"bow-short", false, articulated("staccato", "staccatissimo")},
	{"pluck-hand", false, marks(words("pizz", "pluck"))},
	{"reach-back", true, opened("back")},
	{"reach-forward", true, opened("forward")},
	{"shift-up", true, moved(func(st *Staff, i int) bool { return st.Positions[i].Move == Shift })},
	{"double-open", false, stops(func(st []Stop) bool { return len(st) > 1 && stopped(st) == 0 })},
	{"double-notes", true, stops(func(st []Stop) bool { return len(st) > 1 && stopped(st) > 0 })},
	{"ledger-lines", false, farAbove},
}

// pluckedSigns stand on the pages of plucked strings.
var pluckedSigns = []sign{
	{"tablature", true, func(s *sight) []Place {
		if !Tablature(s.Score) {
			return nil
		}
		return []Place{{Bar: 1}}
	}},
	{"first-position", false, fingered("1", "2", "3")},
	{"thumb-bass", false, under(plucked("p"))},
	{"alternating", false, plucked("i", "m", "i")},
	{"pima", false, plucked("p", "i", "m", "a")},
	{"pami", false, plucked("p", "a", "m", "i")},
	{"six-pattern", false, plucked("p", "i", "m", "a", "m", "i")},
	{"alternating-bass", false, under(chords(func(st *Staff, i int) bool {
		a, b := thumb(st, i), 0
		for j := i - 1; j >= max(0, i-3) && b == 0; j-- {
			b = thumb(st, j)
		}
		return a > 0 && b > 0 && a != b && len(st.Line[i].Notes) == 1
	}))},
	{"pinch", false, stops(func(st []Stop) bool { return len(st) == 2 || len(st) == 3 })},
	{"tune-and-bass", false, stops(func(st []Stop) bool { return len(st) > 1 && isThumb(st[0]) && !isThumb(st[len(st)-1]) })},
	{"strum", false, stops(func(st []Stop) bool { return len(st) >= 4 })},
	{"chord-two-finger", false, stops(func(st []Stop) bool { return stopped(st) == 2 && len(st) > 2 })},
	{"chord-three-finger", false, stops(func(st []Stop) bool { return stopped(st) >= 3 })},
	{"chord-change", false, chords(func(st *Staff, i int) bool {
		return i > 0 && stopped(st.Stops[i]) >= 2 && stopped(st.Stops[i-1]) >= 2 && !slices.Equal(st.Stops[i], st.Stops[i-1])
	})},
	{"small-barre", false, stops(func(st []Stop) bool {
		for i, a := range st {
			for _, b := range st[:i] {
				if a.Finger != "" && a.Finger != "0" && a.Finger == b.Finger && a.Fret == b.Fret {
					return true
				}
			}
		}
		return false
	})},
	{"shift-neck", true, moved(func(st *Staff, i int) bool { return st.Positions[i].Move == Shift })},
	{"hammer", true, slurred(2, many, onOneString(Up))},
	{"pull", true, slurred(2, many, onOneString(Down))},
	{"ledger-lines", false, farAbove},
}

// pair returns the stops of a chord's top note and of the one before it.
func pair(st *Staff, i int) (a, b Stop, ok bool) {
	if i < 1 {
		return a, b, false
	}
	a, b = st.Stops[i-1][len(st.Stops[i-1])-1], st.Stops[i][len(st.Stops[i])-1]
	return a, b, a.String > 0 && b.String > 0
}

// under finds what lies under a tune: nothing where there is only a tune, one note at a time and
// mostly by step. Common practice, no source.
func under(find func(*sight) []Place) func(*sight) []Place {
	return func(s *sight) []Place {
		for _, st := range s.Staves {
			steps := 0
			for i, interval := range st.Intervals {
				if len(st.Line[i].Notes) > 1 {
					return find(s)
				}
				if interval.Number <= 2 {
					steps++
				}
			}
			if 2*steps < len(st.Intervals) || len(st.Intervals) == 0 {
				return find(s)
			}
		}
		return nil
	}
}

// stops finds chords whose stops satisfy a condition.
func stops(is func([]Stop) bool) func(*sight) []Place {
	return chords(func(st *Staff, i int) bool { return is(st.Stops[i]) })
}

// stopped counts the stops of a chord that are not open.
func stopped(st []Stop) int {
	n := 0
	for _, s := range st {
		if s.Fret > 0 {
			n++
		}
	}
	return n
}

func fingered(fingers ...string) func(*sight) []Place {
	return stops(func(st []Stop) bool {
		return slices.ContainsFunc(st, func(s Stop) bool { return slices.Contains(fingers, s.Finger) })
	})
}

// opened finds where the hand opens one way.
func opened(way string) func(*sight) []Place {
	return stops(func(st []Stop) bool { return st[0].Reach == way })
}

// plucked finds single notes plucked by these fingers one after another.
func plucked(fingers ...string) func(*sight) []Place {
	want := strings.Join(fingers, "")
	return chords(func(st *Staff, i int) bool {
		if i+1 < len(fingers) {
			return false
		}
		got := ""
		for j := i + 1 - len(fingers); j <= i; j++ {
			if len(st.Stops[j]) > 1 {
				return false
			}
			got += st.Stops[j][0].Pluck
		}
		return got == want
	})
}

// thumb returns the string that the thumb plays in a chord, 0 for none.
func thumb(st *Staff, i int) int {
	for _, s := range st.Stops[i] {
		if isThumb(s) {
			return s.String
		}
	}
	return 0
}

func isThumb(s Stop) bool { return s.Pluck == "p" || s.Pluck == "t" }

// farAbove finds notes far above the instrument's staff.
func farAbove(s *sight) []Place {
	high := s.On.Ledger()
	return each(func(n *seen) bool { return n.Pitch.Line() >= high })(s)
}

// strings lists the strings of the notes under a slur.
func (s *sight) strings(staff int, slur [2]int) []int {
	st := s.Staves[staff]
	under := map[string]bool{}
	for _, n := range s.notes[staff][slur[0] : slur[1]+1] {
		under[n.ID] = true
	}
	var out []int
	from := s.notes[staff][slur[0]]
	at, _ := slices.BinarySearchFunc(st.Line, from.bar, func(c Chord, bar int) int { return c.Bar - bar })
	for i := at; i < len(st.Line) && len(out) < len(under); i++ {
		if under[st.Line[i].IDs[0]] {
			out = append(out, st.Stops[i][len(st.Stops[i])-1].String)
		}
	}
	return out
}

// onOneString reports whether a slur stays on a string and ends higher or lower
// than it began.
func onOneString(way Direction) func(s *sight, staff int, slur [2]int) bool {
	return func(s *sight, staff int, slur [2]int) bool {
		on := s.strings(staff, slur)
		if len(on) < 2 || slices.Min(on) != slices.Max(on) {
			return false
		}
		from, to := s.notes[staff][slur[0]], s.notes[staff][slur[1]]
		return !from.Rest && !to.Rest && (way == Up) == (from.Pitch.MIDI() < to.Pitch.MIDI())
	}
}
