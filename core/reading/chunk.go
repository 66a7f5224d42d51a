package reading

import "patientladder/core/score"

// A Place is a moment of the written piece.
type Place struct {
	Bar  int        `json:"bar"`
	Beat score.Time `json:"beat"`
}

// A StartOf tells where a chunk begins under the hand.
type StartOf struct {
	Finger string `json:"finger" doc:"1 for the thumb; empty where no position holds it"`
	Key    string `json:"key"`
}

// A Chunk is a stretch of one hand, learnt by itself and joined from its parts.
type Chunk struct {
	From  Place   `json:"from"`
	To    Place   `json:"to" doc:"where its last note begins"`
	Hand  Hand    `json:"hand" enum:"right,left"`
	Start StartOf `json:"start"`
	Parts []Chunk `json:"parts" nullable:"false" doc:"two chunks that are joined to it; none of a smallest"`
}

// Size returns how many notes a first chunk holds at an age: three or four
// notes under seven; from seven or eight and reading solidly, the pair is begun
// with. Common practice, no source.
func Size(age int, solid bool) int {
	if age >= 7 && solid {
		return 8
	}
	return 4
}

// Chunks cuts a line into a tree: the whole into phrases of eight, four, two
// bars and one, and a bar that holds more than size notes into halves. What
// holds at most size notes is not cut further. It returns false for an empty
// line.
func Chunks(line []Chord, positions []Position, hand Hand, size int) (Chunk, bool) {
	if len(line) == 0 {
		return Chunk{}, false
	}
	c := cutter{line, fingersOf(line, positions), hand, size}
	first, last := line[0].Bar, line[len(line)-1].Bar
	return c.cut(0, len(line), first, last-first+1), true
}

type cutter struct {
	line    []Chord
	fingers []string
	hand    Hand
	size    int
}

// cut makes the chunk of chords from one up to another, which stand in some
// bars from a bar on.
func (c cutter) cut(from, to, bar, bars int) Chunk {
	first, last := c.line[from], c.line[to-1]
	out := Chunk{From: Place{first.Bar, first.Beat}, To: Place{last.Bar, last.Beat}, Hand: c.hand, Start: StartOf{c.fingers[from], first.Top().String()}, Parts: []Chunk{}}
	if to-from <= c.size {
		return out
	}
	if bars == 1 {
		middle := (from + to) / 2
		out.Parts = append(out.Parts, c.cut(from, middle, bar, 1), c.cut(middle, to, bar, 1))
		return out
	}
	phrase := 1
	for 2*phrase < bars {
		phrase *= 2
	}
	middle := from
	for middle < to && c.line[middle].Bar < bar+phrase {
		middle++
	}
	switch middle {
	case from:
		return c.cut(from, to, bar+phrase, bars-phrase)
	case to:
		return c.cut(from, to, bar, phrase)
	}
	out.Parts = append(out.Parts, c.cut(from, middle, bar, phrase), c.cut(middle, to, bar+phrase, bars-phrase))
	return out
}

// fingersOf returns the finger of each chord's top note.
func fingersOf(line []Chord, positions []Position) []string {
	fingers := make([]string, 0, len(line))
	for _, p := range positions {
		fingers = append(fingers, p.Fingers...)
	}
	for len(fingers) < len(line) { // no positions: the instrument has none
		fingers = append(fingers, "")
	}
	return fingers
}
