package week

import (
	"strconv"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reading"
)

// A Past is a sheet that was given before: its lines, with how often each was ticked.
type Past struct {
	Day    calendar.Date // of the lesson that gave it
	Ticked map[string]int
	First  map[string]calendar.Date // on which each line stands first; empty of sheets from before that was kept
}

// lived returns sheets without the lines that nobody came to: those that were not ticked
// and stood only on days from the next lesson on, or from a day.
func lived(list []Past, until calendar.Date) []Past {
	out := make([]Past, len(list))
	for i, p := range list {
		next := until
		if i+1 < len(list) {
			next = list[i+1].Day
		}
		out[i] = Past{Day: p.Day, Ticked: map[string]int{}}
		for key, n := range p.Ticked {
			if first := p.First[key]; n > 0 || first == "" || first < next {
				out[i].Ticked[key] = n
			}
		}
	}
	return out
}

// A stretch is what a line of a past sheet asked of a piece.
type stretch struct {
	hand     string
	from, to string // ids of notes
	bars     [2]int // 0 for the whole
}

// stretchOf reads the key of a line: which rung it is about and which stretch of it; false
// for a line that asks none.
func stretchOf(key string) (rung string, s stretch, ok bool) {
	part := strings.Split(key, " ")
	if len(part) != 10 || part[0] != "now" || part[4] != "" {
		return "", s, false
	}
	from, err1 := strconv.Atoi(part[8])
	to, err2 := strconv.Atoi(part[9])
	return part[1], stretch{part[5], part[6], part[7], [2]int{from, to}}, err1 == nil && err2 == nil
}

// leaves lists the smallest chunks of a tree, in order.
func leaves(tree reading.Chunk) []reading.Chunk {
	if len(tree.Parts) == 0 {
		return []reading.Chunk{tree}
	}
	var out []reading.Chunk
	for _, p := range tree.Parts {
		out = append(out, leaves(p)...)
	}
	return out
}

// covers reports which of a tree's leaves a stretch held, from one up to another.
func (s stretch) covers(list []reading.Chunk) (from, to int) {
	if s.bars == [2]int{} {
		return 0, len(list)
	}
	from, to = -1, -1
	for i, l := range list {
		if l.FromID == s.from && from < 0 {
			from = i
		}
		if l.ToID == s.to {
			to = i + 1
		}
	}
	if from >= 0 && to > from {
		return from, to
	}
	from, to = len(list), 0 // the piece was cut otherwise then: by its bars
	for i, l := range list {
		if l.From.Bar >= s.bars[0] && l.To.Bar <= s.bars[1] {
			from, to = min(from, i), max(to, i+1)
		}
	}
	return from, max(to, from)
}

// A piece is how far the learning of a tree is.
type piece struct {
	leaves []reading.Chunk
	twin   []int  // of each leaf the first that is the same
	known  []bool // by leaf, of first ones
	whole  bool   // the whole was asked before
	wholes int    // sheets running, up to the last, that asked for nothing but the whole
	sheets int    // that asked for the piece with the hands of the tree
	ever   int    // that asked for it with any
}

// ways are how the whole may be played, where it has been asked for twice: the same lines
// for weeks are a fault. Common practice, no source.
var ways = []string{"own-tempo", "by-heart", "to-someone"}

// alike is how many sheets running may hold the same lines of a piece.
const alike = 2

// learnt reads off past sheets what of a tree was done: what was ticked, or asked where the
// family ticks nothing, or asked twice. What is the same again is learnt with the first.
func (w *writer) learnt(r ladder.Rung, tree reading.Chunk) piece {
	p := piece{leaves: leaves(tree)}
	p.known = make([]bool, len(p.leaves))
	first := map[string]int{}
	for i, l := range p.leaves {
		at, again := first[l.Like]
		if !again || l.Like == "" {
			at = i
			first[l.Like] = i
		}
		p.twin = append(p.twin, at)
	}
	asked := make([]int, len(p.leaves))
	for _, past := range w.Past {
		any := 0
		for _, n := range past.Ticked {
			any += n
		}
		once := map[int]bool{} // a sheet asks a leaf once, on however many days
		on, only, ever := false, true, false
		for key, n := range past.Ticked {
			rung, s, ok := stretchOf(key)
			if !ok || rung != r.ID {
				continue
			}
			if ever = true; s.hand != string(tree.Hand) {
				continue
			}
			from, to := s.covers(p.leaves)
			on, only = true, only && s.bars == [2]int{}
			p.whole = p.whole || from == 0 && to == len(p.leaves)
			for i := from; i < to; i++ {
				once[i] = true
				if n > 0 || any == 0 {
					p.known[p.twin[i]] = true
				}
			}
		}
		if ever {
			p.ever++
		}
		if on {
			p.sheets++
			p.wholes++
			if !only {
				p.wholes = 0
			}
		}
		for i := range once {
			if asked[i]++; asked[i] > 1 {
				p.known[p.twin[i]] = true
			}
		}
	}
	return p
}

// fresh lists the leaves that are still to be learnt, each once.
func (p piece) fresh() []int {
	var out []int
	for i := range p.leaves {
		if p.twin[i] == i && !p.known[i] {
			out = append(out, i)
		}
	}
	return out
}

// joined lists the largest chunks of a tree of which all is known, in order; at is the
// place of the tree's first leaf.
func (p piece) joined(tree reading.Chunk, at int) []reading.Chunk {
	n := len(leaves(tree))
	all := true
	for i := at; i < at+n; i++ {
		all = all && p.known[p.twin[i]]
	}
	if all {
		return []reading.Chunk{tree}
	}
	var out []reading.Chunk
	for _, part := range tree.Parts {
		out = append(out, p.joined(part, at)...)
		at += len(leaves(part))
	}
	return out
}

// sounds tells what a chunk of the piece sounds like: the first of each of its leaves that
// is the same, so that a stretch that comes back is known again.
func (p piece) sounds(c reading.Chunk) string {
	var b strings.Builder
	in := false
	for i, l := range p.leaves {
		in = in || l.FromID == c.FromID
		if in {
			b.WriteString(strconv.Itoa(p.twin[i]) + " ")
		}
		in = in && l.ToID != c.ToID
	}
	return b.String()
}

// learn plans a piece through a week's turns: what is different is learnt first, a few
// chunks a turn in order; two that are known are joined; what stands so far is played
// together on the last turns, and once all of it is known the whole. It goes on after what
// was really done, so that no bar is skipped however a week is divided. A piece that sticks
// is taken small again. Common practice, no source.
func (w *writer) learn(r ladder.Rung, tree reading.Chunk, turns, room int) [][]bit {
	out := make([][]bit, turns)
	p := w.learnt(r, tree)
	put := func(d int, c reading.Chunk) {
		b := bit{chunk: c, bars: [2]int{c.From.Bar, c.To.Bar}, joined: len(c.Parts) > 0}
		b.whole = c.FromID == tree.FromID && c.ToID == tree.ToID
		out[d] = append(out[d], b)
	}
	build := max(building(turns), 1)
	fresh := p.fresh()
	switch {
	case r.Ready():
		if w.Stuck[r.ID] { // not the same again
			p.wholes = max(p.wholes, alike+p.sheets)
		}
		return p.entire(tree, turns)
	case w.Stuck[r.ID]: // small again, in another cut each sheet
		switch {
		case len(p.leaves) == 1 || len(p.leaves) == 2 && p.sheets%2 == 1:
			p.wholes = max(p.wholes, alike+p.sheets)
			return p.entire(tree, turns)
		case p.sheets%2 == 1:
			return backwards(tree, turns)
		}
		for d := range out { // two neighbours a turn
			i := (2*d + p.sheets) % len(p.leaves)
			put(d, p.leaves[i])
			if j := i + 1; j < len(p.leaves) && min(room, aDay) > 1 {
				put(d, p.leaves[j])
			}
		}
		if turns > 2 && (len(p.leaves) <= aDay || w.soon(r, p.ever)) { // a short piece, or one that may be done soon, is played once as it stands
			out[turns-1] = nil
			put(turns-1, tree)
		}
		return out
	case p.wholes >= alike && len(tree.Parts) > 0:
		return backwards(tree, turns)
	case nearly(r) || len(fresh) == 0 && (p.whole || len(tree.Parts) == 0):
		return p.entire(tree, turns)
	case len(fresh) == 0: // all its chunks are known: its halves, then the whole
		for d := range out {
			if d < build && turns > 1 {
				put(d, tree.Parts[d%len(tree.Parts)])
				continue
			}
			put(d, tree)
		}
		return out
	}
	a := min(room, aDay)
	each := min(max((len(fresh)+build-1)/build, 1), max(a, 1))
	before := map[string]bool{}
	for _, c := range p.joined(tree, 0) {
		before[p.sounds(c)] = true
	}
	for d := range turns {
		today := map[string]bool{}
		if d < build {
			for range min(each, len(fresh)) {
				put(d, p.leaves[fresh[0]])
				p.known[fresh[0]] = true
				fresh = fresh[1:]
			}
		}
		for _, c := range p.joined(tree, 0) { // what the new ones make whole
			last := d >= build
			sounds := p.sounds(c)
			if len(out[d]) >= max(a, 1) || len(c.Parts) == 0 && !(last && len(out[d]) == 0) || before[sounds] && !last || today[sounds] {
				continue
			}
			put(d, c)
			before[sounds], today[sounds] = true, true
		}
		if d == turns-1 && (turns > 1 || p.sheets > 0) && w.soon(r, p.ever) {
			out[d] = nil // it may be done by the next lesson: the whole once before
			put(d, tree)
		}
		if len(out[d]) == 0 { // fewer new chunks than days: what is known, again
			known := p.joined(tree, 0)
			put(d, known[d%len(known)])
		}
	}
	return out
}

// long is after how many days to the next lesson a piece may have come together by itself.
// A judgement.
const long = 14

// soon reports whether a piece that stood on some sheets may get its foothold in the next
// lesson: half its points are met, or its usual weeks begin; after its first sheet a week
// sooner, for those who are quick; or the next lesson is far off.
func (w *writer) soon(r ladder.Rung, sheets int) bool {
	e, told := w.Path.Expect(r.ID)
	weeks := 1.0
	if sheets > 0 {
		weeks++
	}
	return len(r.Points) > 0 && 2*r.MetPoints() >= len(r.Points) || told && e.In.Low <= weeks || w.Next.Sub(w.From) > long
}

// entire asks for the whole on every turn; where it was asked for long enough, otherwise.
func (p piece) entire(tree reading.Chunk, turns int) [][]bit {
	way := ""
	if p.wholes >= alike {
		way = ways[(p.wholes-alike)%len(ways)]
	}
	out := make([][]bit, turns)
	for d := range out {
		out[d] = []bit{{chunk: tree, whole: true, joined: len(tree.Parts) > 0, way: way}}
	}
	return out
}

// backwards takes a piece from its end: the second half, the first, then the whole.
func backwards(tree reading.Chunk, turns int) [][]bit {
	out := make([][]bit, turns)
	for d := range out {
		c := tree
		if n := len(tree.Parts); n > 0 && d < max(building(turns), 1) {
			c = tree.Parts[n-1-d%n]
		}
		out[d] = []bit{{chunk: c, bars: [2]int{c.From.Bar, c.To.Bar}, joined: len(c.Parts) > 0, whole: c.FromID == tree.FromID && c.ToID == tree.ToID}}
	}
	return out
}

// nearly reports whether a piece has all its points but one, so that it is played whole.
func nearly(r ladder.Rung) bool {
	met, all := r.MetPoints(), len(r.Points)
	return r.Ready() || all > 1 && met >= all-1
}
