package week

import (
	"patientladder/core/reading"
)

// A bit is one chunk of a piece on one day.
type bit struct {
	chunk  reading.Chunk
	bars   [2]int // first and last, 0 for the whole
	joined bool
	whole  bool
	way    string // how the whole is played
}

// nodes lists a tree's chunks, each after its parts, the whole last.
func nodes(tree reading.Chunk) []reading.Chunk {
	out := make([]reading.Chunk, 0, count(tree))
	var add func(c reading.Chunk)
	add = func(c reading.Chunk) {
		for i := range c.Parts {
			add(c.Parts[i])
		}
		out = append(out, c)
	}
	add(tree)
	return out
}

// count is how many chunks a tree has.
func count(tree reading.Chunk) int {
	n := 1
	for i := range tree.Parts {
		n += count(tree.Parts[i])
	}
	return n
}

// coarse cuts the smallest chunks off a tree until it has at most room chunks.
func coarse(tree reading.Chunk, room int) reading.Chunk {
	for depth := height(tree); count(tree) > max(room, 1); depth-- {
		tree = cutAt(tree, depth-1)
	}
	return tree
}

func height(tree reading.Chunk) int {
	most := 0
	for _, part := range tree.Parts {
		most = max(most, height(part)+1)
	}
	return most
}

// cutAt returns the tree without what lies deeper than a depth.
func cutAt(tree reading.Chunk, depth int) reading.Chunk {
	if depth <= 0 {
		tree.Parts = nil
		return tree
	}
	parts := make([]reading.Chunk, len(tree.Parts))
	for i, part := range tree.Parts {
		parts[i] = cutAt(part, depth-1)
	}
	tree.Parts = parts
	return tree
}

// spread gives each of a week's turns its chunks: each after its parts, as evenly
// as can be, and on the last turns the whole. Of one or two turns the last is
// whole, of three or more the last two, where there are chunks to build.
func spread(tree reading.Chunk, turns int) [][]reading.Chunk {
	list := nodes(tree)
	out := make([][]reading.Chunk, turns)
	build := min(building(turns), len(list))
	for d := range turns {
		if d >= build {
			out[d] = []reading.Chunk{tree}
			continue
		}
		out[d] = list[d*len(list)/build : (d+1)*len(list)/build]
	}
	return out
}

// building is how many of a week's turns build; the others are whole.
func building(turns int) int {
	if turns >= 3 {
		return turns - 2
	}
	return max(turns-1, 0)
}

// inAWeek builds a hand that has one week only: in larger chunks where it is long, joined
// through the week, whole on its last turns.
func inAWeek(tree reading.Chunk, turns, room int) [][]bit {
	part := coarse(tree, max(building(turns), 1)*max(room, 1))
	out := make([][]bit, turns)
	for d, chunks := range spread(part, turns) {
		for _, c := range chunks {
			b := bit{chunk: c, bars: [2]int{c.From.Bar, c.To.Bar}, joined: len(c.Parts) > 0}
			b.whole = c.FromID == tree.FromID && c.ToID == tree.ToID
			out[d] = append(out[d], b)
		}
	}
	return out
}
