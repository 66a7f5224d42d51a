package reading

import (
	"slices"

	"patientladder/core/score"
)

// A Kind says how a figure relates to one that came before.
type Kind string

// The kinds: new, the three kinds of repetition, and a stretch that ends otherwise.
const (
	First     Kind = "first"
	Again     Kind = "again"     // the same again
	NewRhythm Kind = "newRhythm" // the same notes in a new rhythm
	Moved     Kind = "moved"     // the same shape and rhythm from another note
	Ending    Kind = "ending"    // the same from its beginning to the middle or further
)

// A Figure is a stretch of the piece and what it is built from.
type Figure struct {
	ID     string     `json:"id" doc:"letter of the figure it is, or is built from"`
	Kind   Kind       `json:"kind" enum:"first,again,newRhythm,moved,ending"`
	Exact  bool       `json:"exact,omitempty" doc:"of a moved one: by the same semitones too, not only the same steps"`
	Bar    int        `json:"bar"`
	Beat   score.Time `json:"beat"`
	Length score.Time `json:"length" doc:"quarter notes"`
}

// What it costs to learn a figure: a new one its notes and one to find it; one
// heard before less, the less the more of it is known. A judgement: it decides
// which size of figure tells the piece in the fewest words.
const (
	costAgain     = 0.5
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

// A window is a stretch of all staves: a cell, or the cells of a few bars or of a phrase.
type window struct {
	bar    int // of its beginning, from 1
	beat   score.Time
	length score.Time
	cells  []cell
	notes  int
}

// units are the lengths of stretches that a piece may be cut into, in bars.
var units = []int{4, 2, 1}

// Figures returns the figures that build the piece in the shortest telling: the piece is cut
// into half bars, bars, twos or fours of bars, into one of these throughout, so that a letter
// is always of one length; each stretch is new or refers to an earlier one; twos and fours
// only where any returns. O(n) in the notes. Stretches without a note are left out.
func Figures(s score.Score) []Figure { return figures(s, scope{}) }

// A scope is what figures are looked for in: one staff of one part, or with no
// staff everything.
type scope struct{ part, staff int }

func (sc scope) holds(part, staff int) bool { return sc.staff == 0 || sc == scope{part, staff} }

func figures(s score.Score, in scope) []Figure {
	if s.Bars() == 0 {
		return nil
	}
	bars := barCells(s, in)
	best := tell(halves(s, in, bars))
	for _, unit := range units {
		t := tell(stretches(s, bars, unit))
		if unit > 1 && !t.returns() {
			continue // more than a bar is a figure only if it returns
		}
		if t.cost <= best.cost {
			best = t
		}
	}
	return best.figures()
}

// named returns the figures of a staff, or of all, a phrase at a time, where any phrase comes
// back: "line three is line one". Where none does, it returns what the piece is built from.
func (p Page) named(in scope, built []Figure) []Figure {
	if told := tell(p.lines(in)); told.returns() {
		return told.figures()
	}
	return built
}

// lines returns the piece phrase by phrase. The end of the last bar of each is left open: what
// follows may begin with an upbeat or not.
func (p Page) lines(in scope) []window {
	var out []window
	var room []heard // of all cells, side by side
	for i, ph := range p.cuts {
		to := Place{Bar: p.Score.Bars() + 1}
		if i+1 < len(p.cuts) {
			to = p.cuts[i+1].at
		}
		w := window{bar: ph.at.Bar, beat: ph.at.Beat, cells: make([]cell, 0, to.Bar-ph.at.Bar+1)}
		for b := ph.at.Bar - 1; b < min(to.Bar, p.Score.Bars()); b++ {
			begins, ends := score.Time{}, p.Score.Parts[0].Bars[b].Length
			if b+1 == ph.at.Bar {
				begins = ph.at.Beat
			}
			if b+1 == to.Bar {
				ends = to.Beat
			}
			if !begins.Less(ends) {
				continue
			}
			c := cellOf(p.Score, in, b, begins, ends, &room)
			w.length = w.length.Add(c.length)
			w.cells = append(w.cells, c)
			w.notes += len(c.notes)
		}
		w.cells[len(w.cells)-1].length = score.Time{}
		out = append(out, w)
	}
	return out
}

// A telling is windows that follow each other, each told by an earlier one or as new, and what it costs to
// learn them.
type telling struct {
	list []window
	as   []reference // of each window
	cost float64
}

func tell(list []window) telling {
	t := telling{list: list, as: refer(list)}
	for _, r := range t.as {
		t.cost += r.cost
	}
	return t
}

// returns reports whether any window is told by an earlier one.
func (t telling) returns() bool {
	return slices.ContainsFunc(t.as, func(r reference) bool { return r.kind != First })
}

// figures names the windows; those without a note are left out.
func (t telling) figures() []Figure {
	told, letters, fresh := make([]Figure, 0, len(t.list)), make([]string, len(t.list)), 0
	for i, r := range t.as {
		w := &t.list[i]
		if w.notes == 0 {
			continue
		}
		if r.kind == First {
			letters[i] = letter(fresh)
			fresh++
		} else {
			letters[i] = letters[r.to]
		}
		told = append(told, Figure{ID: letters[i], Kind: r.kind, Exact: r.exact, Bar: w.bar, Beat: w.beat, Length: w.length})
	}
	return told
}

// A reference tells a stretch by an earlier one, or as new.
type reference struct {
	kind  Kind
	exact bool
	cost  float64
	to    int // index of the earlier stretch
}

// refer tells each stretch by the earlier one that tells it cheapest. Stretches are looked up
// by what they would share.
func refer(list []window) []reference {
	out := make([]reference, len(list))
	first := make(map[mix]int, len(list))
	for i := range list {
		w := &list[i]
		out[i] = reference{kind: First, cost: 1 + float64(w.notes)}
		if w.notes == 0 {
			out[i].cost = 0
			continue
		}
		for _, shared := range w.shared() {
			at, before := first[shared]
			if !before {
				first[shared] = i
				continue
			}
			if out[i].kind == Again {
				break
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
		out[b] = cellOf(s, in, b, score.Time{}, s.Parts[0].Bars[b].Length, &room)
	}
	return out
}

// cellOf makes a cell of a bar, from one beat up to another, in the room of the cells before it.
func cellOf(s score.Score, in scope, b int, from, to score.Time, room *[]heard) cell {
	c := cell{notes: (*room)[len(*room):], length: to.Sub(from)}
	for pi := range s.Parts {
		c.add(&s.Parts[pi].Bars[b], pi, in, from, to)
	}
	*room = c.closed()
	return c
}

// stretches cuts bars into windows of some each, after a pickup; the last may be shorter.
func stretches(s score.Score, bars []cell, unit int) []window {
	out := make([]window, 0, len(bars)/unit+2)
	for from := 0; from < len(bars); {
		to := min(from+unit, len(bars))
		if from == 0 && s.Parts[0].Pickup() {
			to = 1
		}
		w := window{bar: from + 1, cells: bars[from:to]}
		for i := range w.cells {
			w.length = w.length.Add(w.cells[i].length)
			w.notes += len(w.cells[i].notes)
		}
		out, from = append(out, w), to
	}
	return out
}

// Bars returns the figures bar by bar.
func Bars(s score.Score) []Figure {
	return tell(stretches(s, barCells(s, scope{}), 1)).figures()
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

// half is how many cells at the beginning have to be alike where only the end is another.
func (w *window) half() int { return (len(w.cells) + 1) / 2 }

// shared returns hashes of what a window would share with one that it repeats: notes and
// rhythm, shape and rhythm, the notes, or the first half, each with its kind. Windows that
// share by chance only are told apart by relate.
func (w *window) shared() [4]mix {
	var rhythm, pitch, shape, head mix
	from, begun := int16(0), false
	for i := range w.cells {
		c := &w.cells[i]
		if i == w.half() {
			head = rhythm
			head.add(uint64(pitch))
		}
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
	out := [4]mix{again, moved, pitch, head}
	for kind := range out {
		out[kind].add(uint64(kind))
	}
	return out
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
	if len(a.cells) != len(b.cells) {
		return First, false, 0
	}
	same := like{notes: true, rhythm: true, shape: true, sound: true}
	begins, other := same, 0.0 // the first half, and the notes that are other after it
	for i := range a.cells {
		if i == a.half() {
			begins = same
		}
		same.cell(&a.cells[i], &b.cells[i])
		if !same.notes || !same.rhythm {
			other += float64(len(b.cells[i].notes))
		}
	}
	switch notes := float64(b.notes); {
	case same.notes && same.rhythm:
		return Again, false, costAgain
	case same.shape && same.rhythm && notes > 1:
		return Moved, same.sound, costMoved
	case len(a.cells) > 1 && begins.notes && begins.rhythm && other < notes:
		return Ending, false, 1 + other
	case same.notes && notes > 1:
		return NewRhythm, false, 1 + costNewRhythm*notes
	}
	return First, false, 0
}

// like says what two windows have in common so far.
type like struct {
	notes, rhythm, shape, sound bool
	begun                       bool
	line, key                   int16 // how far the second is moved
}

func (l *like) cell(c, d *cell) {
	if c.length != d.length || len(c.notes) != len(d.notes) {
		*l = like{}
		return
	}
	for j := range c.notes {
		p, q := &c.notes[j], &d.notes[j]
		if !l.begun {
			l.line, l.key, l.begun = q.line-p.line, q.key-p.key, true
		}
		there := p.staff == q.staff
		l.notes = l.notes && there && p.key == q.key && p.line == q.line
		l.rhythm = l.rhythm && there && p.at == q.at && p.to == q.to
		l.shape = l.shape && there && q.line-p.line == l.line
		l.sound = l.sound && q.key-p.key == l.key
	}
}

// halves cuts each bar in two where no note is held over its middle; else it stays whole.
func halves(s score.Score, in scope, bars []cell) []window {
	out, cells := make([]window, 0, 2*len(bars)), make([]cell, 0, 2*len(bars))
	var room []heard
	for b := range bars {
		length := bars[b].length
		middle, err := length.Scaled(1, 2)
		if err != nil || crossed(s, in, b, middle) {
			out = append(out, window{bar: b + 1, length: length, cells: bars[b : b+1], notes: len(bars[b].notes)})
			continue
		}
		for _, half := range [][2]score.Time{{{}, middle}, {middle, length}} {
			c := cellOf(s, in, b, half[0], half[1], &room)
			cells = append(cells, c)
			out = append(out, window{bar: b + 1, beat: half[0], length: middle, cells: cells[len(cells)-1:], notes: len(c.notes)})
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
