package reading

import (
	"encoding/binary"
	"math"
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
	bars   int // how many it is in
	beat   score.Time
	length score.Time
	notes  []heard
}

// sizes are the lengths of stretches that may repeat, in bars; a half bar and a
// bar may also be new.
var sizes = []int{4, 2, 1}

// Figures returns the figures that build the piece in the shortest telling: the
// piece is cut into half bars, bars, and phrases of two and of four bars. A half
// bar or a bar is new or refers to an earlier stretch of its size; a phrase can
// only refer to one. Since a stretch may refer to any before it, the costs add
// up, and a dynamic programme over bars finds the least: O(n) in the notes.
// Stretches without a note are left out.
func Figures(s score.Score) []Figure {
	n := s.Bars()
	if n == 0 {
		return nil
	}
	told := map[int][]reference{}
	for _, size := range sizes {
		told[size] = refer(stretches(s, size))
	}
	parts := halves(s)
	inHalf := refer(parts)
	type step struct {
		cost   float64
		size   int // bars; 0 for two halves
		before int
	}
	best := make([]step, n+1)
	for b := 1; b <= n; b++ {
		best[b].cost = math.Inf(1)
		for _, size := range sizes {
			if size > b || size > 1 && told[size][b-size].kind == First {
				continue
			}
			if cost := best[b-size].cost + told[size][b-size].cost; cost < best[b].cost {
				best[b] = step{cost, size, b - size}
			}
		}
		if parts[2*b-1].length.Sign() > 0 {
			if cost := best[b-1].cost + inHalf[2*b-2].cost + inHalf[2*b-1].cost; cost < best[b].cost {
				best[b] = step{cost, 0, b - 1}
			}
		}
	}
	var steps []step
	for b := n; b > 0; b = best[b].before {
		steps = append(steps, best[b])
	}
	slices.Reverse(steps)
	w := writing{letters: make([]string, 2*n)}
	for _, st := range steps {
		if st.size == 0 {
			w.add(parts[2*st.before], inHalf[2*st.before], 2*st.before, 1, 1)
			w.add(parts[2*st.before+1], inHalf[2*st.before+1], 2*st.before+1, 1, 1)
			continue
		}
		w.add(stretch(s, st.before, st.size), told[st.size][st.before], 2*st.before, 2*st.size, 2)
	}
	return w.figures
}

// A reference tells a stretch by an earlier one of its size, or as new.
type reference struct {
	kind  Kind
	exact bool
	cost  float64
	to    int // index of the earlier stretch
}

// writing gathers figures; letters holds the figure that each half bar belongs to.
type writing struct {
	figures []Figure
	letters []string
	new     int
}

// add writes a stretch that begins at a half bar and lasts some of them; unit is
// how many half bars its references count in.
func (w *writing) add(in window, r reference, at, lasts, unit int) {
	if len(in.notes) == 0 {
		return
	}
	f := Figure{ID: letter(w.new), Kind: r.kind, Exact: r.exact, Bar: in.bar, Beat: in.beat, Length: in.length, cost: r.cost}
	if r.kind == First {
		w.new++
		for i := range lasts {
			w.letters[at+i] = f.ID
		}
	} else {
		from := r.to * unit
		for f.ID = ""; f.ID == "" && from < len(w.letters); from++ { // a stretch may begin with a silent bar
			f.ID = w.letters[from]
		}
		copy(w.letters[at:at+lasts], w.letters[r.to*unit:])
	}
	w.figures = append(w.figures, f)
}

// refer tells each stretch by the earlier one that tells it cheapest and does not
// overlap it. Stretches are looked up by what they would share.
func refer(list []window) []reference {
	out := make([]reference, len(list))
	first := map[string]int{}
	for i, w := range list {
		out[i] = reference{kind: First, cost: 1 + float64(len(w.notes))}
		if len(w.notes) == 0 {
			out[i].cost = 0
			continue
		}
		for _, shared := range w.shares() {
			at, before := first[shared]
			if !before {
				first[shared] = i
				continue
			}
			if list[at].bar+list[at].bars > w.bar && w.bars > 1 {
				continue
			}
			if kind, exact, cost := relate(list[at], w); kind != First && cost < out[i].cost {
				out[i] = reference{kind, exact, cost, at}
			}
		}
	}
	return out
}

// stretches returns the windows of some bars that begin at each bar; those that
// would reach beyond the end are left out.
func stretches(s score.Score, size int) []window {
	var out []window
	for b := 0; b+size <= s.Bars(); b++ {
		out = append(out, stretch(s, b, size))
	}
	return out
}

// stretch returns the window of some bars from one on, counted from 0.
func stretch(s score.Score, from, size int) window {
	w := window{bar: from + 1, bars: size}
	for b := from; b < from+size; b++ {
		for pi, p := range s.Parts {
			w.add(p.Bars[b], pi, w.length, score.Time{}, p.Bars[b].Length)
		}
		w.length = w.length.Add(s.Parts[0].Bars[b].Length)
	}
	return w
}

// Bars returns the figures bar by bar.
func Bars(s score.Score) []Figure {
	list := stretches(s, 1)
	w := writing{letters: make([]string, 2*len(list))}
	for i, r := range refer(list) {
		w.add(list[i], r, 2*i, 2, 2)
	}
	return w.figures
}

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

// halves cuts each bar in two where no note is held over its middle; the second
// half of a bar that is not cut has no length.
func halves(s score.Score) []window {
	out := make([]window, 2*s.Bars())
	for b := range s.Bars() {
		length := s.Parts[0].Bars[b].Length
		middle, err := length.Scaled(1, 2)
		if err != nil || crossed(s, b, middle) {
			continue
		}
		for i, half := range [][2]score.Time{{{}, middle}, {middle, length}} {
			w := window{bar: b + 1, bars: 1, beat: half[0], length: middle}
			for pi, p := range s.Parts {
				w.add(p.Bars[b], pi, score.Time{}, half[0], half[1])
			}
			out[2*b+i] = w
		}
	}
	return out
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
