package reading

import (
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
	at, to score.Time
	staff  int32
	line   int16 // place on the staff
	key    int16 // MIDI number
}

// A cell is a bar or half of one: its notes, and hashes of what may repeat.
type cell struct {
	notes                []heard // times from the start of the cell
	length               score.Time
	rhythm, pitch, shape mix
}

// A window is a stretch of all staves: a cell, or the cells of a few bars.
type window struct {
	bar    int // of its beginning, from 1
	beat   score.Time
	length score.Time
	cells  []cell
	notes  int
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
func Figures(s score.Score) []Figure { return figures(s, scope{}) }

// A scope is what figures are looked for in: one staff of one part, or with no
// staff everything.
type scope struct{ part, staff int }

func (sc scope) holds(part, staff int) bool { return sc.staff == 0 || sc == scope{part, staff} }

func figures(s score.Score, in scope) []Figure {
	n := s.Bars()
	if n == 0 {
		return nil
	}
	told, lists := map[int][]reference{}, map[int][]window{}
	bars := barCells(s, in)
	for _, size := range sizes {
		lists[size] = stretches(bars, size)
		told[size] = refer(lists[size])
	}
	parts := halves(s, in)
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
			w.add(&parts[2*st.before], inHalf[2*st.before], 2*st.before, 1, 1)
			w.add(&parts[2*st.before+1], inHalf[2*st.before+1], 2*st.before+1, 1, 1)
			continue
		}
		w.add(&lists[st.size][st.before], told[st.size][st.before], 2*st.before, 2*st.size, 2)
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
func (w *writing) add(in *window, r reference, at, lasts, unit int) {
	if in.notes == 0 {
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
	first := make(map[share]int, len(list))
	for i := range list {
		w := &list[i]
		out[i] = reference{kind: First, cost: 1 + float64(w.notes)}
		if w.notes == 0 {
			out[i].cost = 0
			continue
		}
		for _, shared := range w.shares() {
			at, before := first[shared]
			if !before {
				first[shared] = i
				continue
			}
			if n := len(w.cells); n > 1 && list[at].bar+n > w.bar || out[i].kind == Again {
				continue
			}
			if kind, exact, cost := relate(&list[at], w); kind != First && cost < out[i].cost {
				out[i] = reference{kind, exact, cost, at}
			}
		}
	}
	return out
}

// barCells makes a cell of each bar.
func barCells(s score.Score, in scope) []cell {
	out := make([]cell, s.Bars())
	var room []heard // of all cells, side by side
	for b := range out {
		c := &out[b]
		c.notes, c.length = room[len(room):], s.Parts[0].Bars[b].Length
		for pi := range s.Parts {
			bar := &s.Parts[pi].Bars[b]
			c.add(bar, pi, in, score.Time{}, bar.Length)
		}
		room = c.closed()
	}
	return out
}

// stretches returns the windows of some bars that begin at each bar; those that
// would reach beyond the end are left out.
func stretches(bars []cell, size int) []window {
	out := make([]window, max(len(bars)-size+1, 0))
	for b := range out {
		w := &out[b]
		w.bar, w.cells = b+1, bars[b:b+size]
		for i := range w.cells {
			w.length = w.length.Add(w.cells[i].length)
			w.notes += len(w.cells[i].notes)
		}
	}
	return out
}

// Bars returns the figures bar by bar.
func Bars(s score.Score) []Figure {
	list := stretches(barCells(s, scope{}), 1)
	w := writing{letters: make([]string, 2*len(list))}
	for i, r := range refer(list) {
		w.add(&list[i], r, 2*i, 2, 2)
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

// A share is what a window may have in common with one that it repeats: a kind of
// repetition, and a hash of what must be alike for it.
type share struct {
	kind Kind
	hash uint64
}

// shares returns what a window would share with one that it repeats: notes and
// rhythm, shape and rhythm, or the notes. Windows that share by chance only are
// told apart by relate.
func (w *window) shares() [3]share {
	var rhythm, pitch, shape mix
	from, begun := int16(0), false
	for i := range w.cells {
		c := &w.cells[i]
		rhythm.time(c.length)
		rhythm.add(uint64(c.rhythm))
		pitch.add(uint64(c.pitch))
		shape.add(uint64(c.shape))
		if len(c.notes) > 0 {
			if !begun {
				from, begun = c.notes[0].line, true
			}
			shape.add(uint64(c.notes[0].line - from))
		}
	}
	again, moved := rhythm, rhythm
	again.add(uint64(pitch))
	moved.add(uint64(shape))
	return [3]share{{Again, uint64(again)}, {Moved, uint64(moved)}, {NewRhythm, uint64(pitch)}}
}

// closed reckons what a cell may share and returns what it has grown into, for the
// next cell to go on in.
func (c *cell) closed() []heard {
	for i := range c.notes {
		n := &c.notes[i]
		c.rhythm.add(uint64(n.staff))
		c.rhythm.time(n.at)
		c.rhythm.time(n.to)
		c.pitch.add(uint64(n.staff)<<32 | uint64(n.line)<<16 | uint64(n.key))
		c.shape.add(uint64(n.line - c.notes[0].line))
	}
	room := c.notes
	c.notes = room[:len(room):len(room)]
	return room
}

// A mix is a hash in the making: each word is multiplied in, and high bits are
// folded over low ones.
type mix uint64

func (m *mix) add(word uint64) {
	h := (uint64(*m) ^ word) * 0x9E3779B97F4A7C15
	*m = mix(h ^ h>>29)
}

func (m *mix) time(t score.Time) {
	num, den := t.Fraction()
	m.add(uint64(num))
	m.add(uint64(den))
}

// relate says how a window repeats an earlier one of as many cells.
func relate(a, b *window) (kind Kind, exact bool, cost float64) {
	if a.notes != b.notes {
		return First, false, 0
	}
	notes, rhythm, shape, sound := true, true, true, true
	line, key, begun := int16(0), int16(0), false // how far it is moved
	for i := range a.cells {
		c, d := &a.cells[i], &b.cells[i]
		if c.length != d.length || len(c.notes) != len(d.notes) {
			return First, false, 0
		}
		for j := range c.notes {
			p, q := &c.notes[j], &d.notes[j]
			if p.staff != q.staff {
				return First, false, 0
			}
			if !begun {
				line, key, begun = q.line-p.line, q.key-p.key, true
			}
			notes = notes && p.key == q.key && p.line == q.line
			rhythm = rhythm && p.at == q.at && p.to == q.to
			shape = shape && q.line-p.line == line
			sound = sound && q.key-p.key == key
		}
	}
	switch {
	case notes && rhythm:
		return Again, false, costAgain
	case shape && rhythm && a.notes > 1:
		return Moved, sound, costMoved
	case notes && a.notes > 1:
		return NewRhythm, false, 1 + costNewRhythm*float64(a.notes)
	}
	return First, false, 0
}

// halves cuts each bar in two where no note is held over its middle; the second
// half of a bar that is not cut has no length.
func halves(s score.Score, in scope) []window {
	out, cells := make([]window, 2*s.Bars()), make([]cell, 2*s.Bars())
	var room []heard
	for b := range s.Bars() {
		length := s.Parts[0].Bars[b].Length
		middle, err := length.Scaled(1, 2)
		if err != nil || crossed(s, in, b, middle) {
			continue
		}
		for i, half := range [][2]score.Time{{{}, middle}, {middle, length}} {
			c := &cells[2*b+i]
			c.notes, c.length = room[len(room):], middle
			for pi := range s.Parts {
				c.add(&s.Parts[pi].Bars[b], pi, in, half[0], half[1])
			}
			room = c.closed()
			out[2*b+i] = window{bar: b + 1, beat: half[0], length: middle, cells: cells[2*b+i : 2*b+i+1], notes: len(c.notes)}
		}
	}
	return out
}

func crossed(s score.Score, in scope, b int, middle score.Time) bool {
	for pi := range s.Parts {
		notes := s.Parts[pi].Bars[b].Notes
		for i := range notes {
			n := &notes[i]
			if in.holds(pi, n.Staff) && n.Onset.Less(middle) && middle.Less(n.Onset.Add(n.Duration)) {
				return true
			}
		}
	}
	return false
}

// add takes in the notes of a bar that begin from one beat up to another.
func (c *cell) add(b *score.Bar, part int, in scope, from, to score.Time) {
	if cap(c.notes)-len(c.notes) < len(b.Notes) { // what stands in the full room stays there
		c.notes = append(make([]heard, 0, max(512, 2*len(b.Notes))), c.notes...)
	}
	for i := range b.Notes {
		n := &b.Notes[i]
		if n.Rest || n.Grace || !in.holds(part, n.Staff) || n.Onset.Less(from) || !n.Onset.Less(to) {
			continue
		}
		at := n.Onset.Sub(from)
		c.notes = append(c.notes, heard{at, at.Add(n.Duration), int32(100*part + n.Staff), int16(n.Pitch.Line()), int16(n.Pitch.MIDI())})
	}
}

// letter numbers figures A to Z, then AA.
func letter(n int) string {
	if n < 26 {
		return string(rune('A' + n))
	}
	return letter(n/26-1) + letter(n%26)
}
