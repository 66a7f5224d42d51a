package reading

import (
	"encoding/binary"
	"slices"

	"patientladder/core/score"
)

// A Kind says how a figure relates to one that came before.
type Kind string

// The kinds: new, and the three kinds of repetition.
const (
	First     Kind = "first"
	Again     Kind = "again"     // the same again
	NewRhythm Kind = "newRhythm" // the same notes in a new rhythm
	Moved     Kind = "moved"     // the same shape and rhythm from another note
)

// A Figure is a stretch of the piece and what it is built from.
type Figure struct {
	ID     string     `json:"id" doc:"letter of the figure it is, or is built from"`
	Kind   Kind       `json:"kind" enum:"first,again,newRhythm,moved"`
	Exact  bool       `json:"exact,omitempty" doc:"of a moved one: by the same semitones too, not only the same steps"`
	Bar    int        `json:"bar"`
	Beat   score.Time `json:"beat"`
	Length score.Time `json:"length" doc:"quarter notes"`
	cost   float64
}

// What it costs to learn a figure: a new one its notes and one to find it; one
// heard before less, the less the more of it is known. A judgement: it decides
// which size of figure tells the piece in the fewest words.
const (
	costAgain     = 0.25
	costMoved     = 1
	costNewRhythm = 0.5 // a note, and one more
)

// A sound of a window: where in it, how long, which note, on which staff.
type heard struct {
	staff  int
	line   int // place on the staff
	key    int // MIDI number
	at, to score.Time
}

// A window is a stretch of all staves.
type window struct {
	bar    int
	beat   score.Time
	length score.Time
	notes  []heard
}

// Figures returns the figures that build the piece in the shortest telling:
// the piece is cut into half bars, bars, or phrases of two or four bars,
// whichever size costs least, and each stretch refers to the earlier one that
// tells it cheapest. Since a stretch may refer to any before it, that is the
// least for its size. Stretches without a note are left out.
func Figures(s score.Score) []Figure {
	var best []Figure
	for _, cut := range [][]window{halves(s), phrases(s, 1), phrases(s, 2), phrases(s, 4)} {
		if cut == nil {
			continue
		}
		figures := told(cut)
		if best == nil || telling(figures) < telling(best) {
			best = figures
		}
	}
	return best
}

// Bars returns the figures bar by bar.
func Bars(s score.Score) []Figure { return told(phrases(s, 1)) }

// Distinct counts the bars that are not the same again; a bar of rests alone
// is not counted.
func Distinct(s score.Score) int {
	n := 0
	for _, f := range Bars(s) {
		if f.Kind != Again {
			n++
		}
	}
	return n
}

// ToLearn counts the figures that are new.
func ToLearn(figures []Figure) int {
	n := 0
	for _, f := range figures {
		if f.Kind == First {
			n++
		}
	}
	return n
}

func telling(figures []Figure) float64 {
	sum := 0.0
	for _, f := range figures {
		sum += f.cost
	}
	return sum
}

// told refers each window to the earlier one that tells it cheapest. Windows are
// looked up by what they would share, so that it is linear in the notes.
func told(cut []window) []Figure {
	var out []Figure
	var seen []window
	first := map[string]int{} // of windows that share something, the earliest
	for _, w := range cut {
		if len(w.notes) == 0 {
			continue
		}
		f := Figure{ID: letter(ToLearn(out)), Kind: First, Bar: w.bar, Beat: w.beat, Length: w.length, cost: 1 + float64(len(w.notes))}
		for _, shared := range w.shares() {
			i, before := first[shared]
			if !before {
				first[shared] = len(seen)
				continue
			}
			if kind, exact, cost := relate(seen[i], w); kind != First && cost < f.cost {
				f.ID, f.Kind, f.Exact, f.cost = out[i].ID, kind, exact, cost
			}
		}
		out, seen = append(out, f), append(seen, w)
	}
	return out
}

// shares writes what a window has in common with one that it repeats: notes and
// rhythm, shape and rhythm, or the notes.
func (w window) shares() [3]string {
	rhythm, notes, shape := w.length.Append([]byte("r")), w.length.Append([]byte("n")), []byte("s")
	for _, n := range w.notes {
		rhythm = n.to.Append(n.at.Append(binary.AppendVarint(rhythm, int64(n.staff))))
		notes = binary.AppendVarint(binary.AppendVarint(binary.AppendVarint(notes, int64(n.staff)), int64(n.line)), int64(n.key))
		shape = binary.AppendVarint(shape, int64(n.line-w.notes[0].line))
	}
	return [3]string{string(slices.Concat(rhythm, notes)), string(slices.Concat(rhythm, shape)), string(notes)}
}

// relate says how a window repeats an earlier one.
func relate(a, b window) (kind Kind, exact bool, cost float64) {
	if a.length != b.length || len(a.notes) != len(b.notes) {
		return First, false, 0
	}
	notes, rhythm, shape, sound := true, true, true, true
	for i := range a.notes {
		p, q := a.notes[i], b.notes[i]
		if p.staff != q.staff {
			return First, false, 0
		}
		notes = notes && p.key == q.key && p.line == q.line
		rhythm = rhythm && p.at == q.at && p.to == q.to
		shape = shape && q.line-p.line == b.notes[0].line-a.notes[0].line
		sound = sound && q.key-p.key == b.notes[0].key-a.notes[0].key
	}
	switch {
	case notes && rhythm:
		return Again, false, costAgain
	case shape && rhythm && len(a.notes) > 1:
		return Moved, sound, costMoved
	case notes && len(a.notes) > 1:
		return NewRhythm, false, 1 + costNewRhythm*float64(len(a.notes))
	}
	return First, false, 0
}

// phrases cuts the piece every n bars; it returns nil when it is not longer
// than one.
func phrases(s score.Score, n int) []window {
	if s.Bars() <= n && n > 1 {
		return nil
	}
	var cut []window
	for from := 0; from < s.Bars(); from += n {
		w := window{bar: from + 1}
		for b := from; b < min(from+n, s.Bars()); b++ {
			for pi, p := range s.Parts {
				w.add(p.Bars[b], pi, w.length, score.Time{}, p.Bars[b].Length)
			}
			w.length = w.length.Add(s.Parts[0].Bars[b].Length)
		}
		cut = append(cut, w)
	}
	return cut
}

// halves cuts each bar in two where no note is held over its middle, and
// leaves it whole where one is.
func halves(s score.Score) []window {
	var cut []window
	for b := range s.Bars() {
		length := s.Parts[0].Bars[b].Length
		middle, err := length.Scaled(1, 2)
		if err != nil || crossed(s, b, middle) {
			w := window{bar: b + 1, length: length}
			for pi, p := range s.Parts {
				w.add(p.Bars[b], pi, score.Time{}, score.Time{}, length)
			}
			cut = append(cut, w)
			continue
		}
		for _, half := range [][2]score.Time{{{}, middle}, {middle, length}} {
			w := window{bar: b + 1, beat: half[0], length: middle}
			for pi, p := range s.Parts {
				w.add(p.Bars[b], pi, score.Time{}, half[0], half[1])
			}
			cut = append(cut, w)
		}
	}
	return cut
}

func crossed(s score.Score, b int, middle score.Time) bool {
	for _, p := range s.Parts {
		for _, n := range p.Bars[b].Notes {
			if n.Onset.Less(middle) && middle.Less(n.Onset.Add(n.Duration)) {
				return true
			}
		}
	}
	return false
}

// add takes in the notes of a bar that begin from one beat up to another; the
// bar stands at offset inside the window.
func (w *window) add(b score.Bar, part int, offset, from, to score.Time) {
	for _, n := range b.Notes {
		if n.Rest || n.Grace || n.Onset.Less(from) || !n.Onset.Less(to) {
			continue
		}
		at := offset.Add(n.Onset.Sub(from))
		w.notes = append(w.notes, heard{100*part + n.Staff, n.Pitch.Line(), n.Pitch.MIDI(), at, at.Add(n.Duration)})
	}
}

// letter numbers figures A to Z, then AA.
func letter(n int) string {
	if n < 26 {
		return string(rune('A' + n))
	}
	return letter(n/26-1) + letter(n%26)
}
