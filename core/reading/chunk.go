package reading

import (
	"math"
	"slices"
	"sort"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/score"
)

// A Place is a moment of the written piece.
type Place struct {
	Bar  int        `json:"bar"`
	Beat score.Time `json:"beat"`
}

// A StartOf tells where a chunk begins under the hand.
type StartOf struct {
	Finger string `json:"finger" doc:"1 for the thumb on keys, 0 for an open string; empty where no position holds it"`
	Key    string `json:"key"`
}

// A HandStart tells where one hand begins a chunk of both.
type HandStart struct {
	Hand Hand `json:"hand" enum:",right,left"`
	StartOf
}

// Both hands play a chunk that is joined from each hand's.
const Both Hand = "both"

// A Chunk is a stretch of one hand or of both, learnt by itself and joined from
// its parts.
type Chunk struct {
	From   Place       `json:"from"`
	To     Place       `json:"to" doc:"where its last note begins"`
	Hand   Hand        `json:"hand" enum:",right,left,both" doc:"empty where no hand has it to itself"`
	Start  StartOf     `json:"start" doc:"of its first note; where both hands begin at once, the right hand's"`
	Starts []HandStart `json:"starts,omitempty" doc:"of both hands: of each that plays in it, the upper staff's first"`
	Like   string      `json:"-"` // of a smallest: the same as of another that sounds the same
	Ways   []Direction `json:"-"` // of a smallest of one hand: where each note goes from the one before, but for the first
	Names  []string    `json:"-"` // and its top notes
	Rhythm []string    `json:"-"` // of a smallest of the tune: its rhythms, as words are kept for
	Lasts  float64     `json:"-"` // quarter notes, from its first note to the end of its last
	Notes  int         `json:"notes" doc:"how many moments with a note it holds"`
	FromID string      `json:"fromId" doc:"of its first note in the score"`
	ToID   string      `json:"toId" doc:"of its last"`
	Parts  []Chunk     `json:"parts" doc:"two chunks that are joined to it; none of a smallest"`
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

// Chunks returns each hand's tree of chunks, the whole at its root, and for two
// hands a third of both together. The piece is cut in two again and again between its
// phrases, where a strain ends first; and each phrase where a figure, a position or a bar
// ends, near the middle, down to chunks of at most size notes, never to one note alone.
func (p Page) Chunks(size int) []Chunk {
	trees := len(p.Staves)
	if trees == 2 && p.On.Family == instrument.Keyboard {
		trees++
	}
	out := make([]Chunk, trees)
	var motifs []motif
	beside(1+trees, func(task int) {
		if task == 0 {
			motifs = p.motifs()
			return
		}
		i := task - 1
		if i == len(p.Staves) { // the longest stands last, which is begun first
			line, fingers := p.together()
			out[i] = (&cutter{line, fingers, Both, p.borders(line, p.Staves), size}).tree(p.cuts)
			starter{p.Staves, [][]string{p.Staves[0].Fingers(), p.Staves[1].Fingers()}}.tell(&out[i])
			alike(&out[i], p.Staves)
			return
		}
		st := p.Staves[i]
		line := make([]*Chord, len(st.Line))
		for ci := range st.Line {
			line[ci] = &st.Line[ci]
		}
		out[i] = (&cutter{line, st.Fingers(), st.Hand, p.borders(line, []Staff{st}), size}).tree(p.cuts)
		alike(&out[i], []Staff{st})
	})
	if len(out) > 0 {
		spoken(&out[0], motifs)
	}
	return out
}

// turnsOver is the most of one hand's moments that the other may sound under where the hands
// take turns. A judgement.
const turnsOver = 0.15

// InTurn reports whether the hands of a piece on two staves take turns, one silent while
// the other plays, so that the order of the music rules and not the hand.
func (p Page) InTurn() bool {
	if len(p.Staves) != 2 {
		return false
	}
	a, b := p.Staves[0].Line, p.Staves[1].Line
	if len(b) < len(a) {
		a, b = b, a
	}
	under, k := 0, 0
	for i := range a {
		ends := a[i].Onset.Add(a[i].Duration)
		for k < len(b) && !a[i].Onset.Less(b[k].Onset.Add(b[k].Duration)) {
			k++
		}
		if k < len(b) && b[k].Onset.Less(ends) {
			under++
		}
	}
	return len(a) > 0 && float64(under) <= turnsOver*float64(len(a))
}

type starter struct {
	staves  []Staff
	fingers [][]string // of each staff's line
}

// tell tells of a chunk of both hands and of its parts how each hand begins it.
func (s starter) tell(c *Chunk) {
	c.Starts = make([]HandStart, 0, len(s.staves))
	for i := range s.staves {
		line := s.staves[i].Line
		first := sort.Search(len(line), func(n int) bool { return !line[n].at().before(c.From) })
		if first == len(line) || c.To.before(line[first].at()) {
			continue // it is silent here
		}
		c.Starts = append(c.Starts, HandStart{s.staves[i].Hand, StartOf{s.fingers[i][first], line[first].Top().String()}})
	}
	for i := range c.Parts {
		s.tell(&c.Parts[i])
	}
}

// A likener tells of each smallest chunk what sounds in it, so that one that comes back is
// known again: on which staff, how far from its beginning, how long, which notes.
type likener struct {
	staves []Staff
	names  [][]string // of each staff's top notes
	text   []byte     // room for it
	first  []int      // of each staff, the first chord in the chunk
}

func alike(c *Chunk, staves []Staff) {
	l := likener{staves: staves, names: make([][]string, len(staves)), first: make([]int, len(staves))}
	for i, st := range staves {
		l.names[i] = make([]string, len(st.Line))
		for n := range st.Line {
			l.names[i][n] = st.Line[n].Top().String()
		}
	}
	l.tell(c)
}

func (l *likener) tell(c *Chunk) {
	for i := range c.Parts {
		l.tell(&c.Parts[i])
	}
	if len(c.Parts) > 0 {
		return
	}
	l.text = l.text[:0]
	begins := score.Time{}
	for i := range l.staves {
		line := l.staves[i].Line
		first := sort.Search(len(line), func(n int) bool { return !line[n].at().before(c.From) })
		if l.first[i] = first; first < len(line) && line[first].at() == c.From {
			begins = line[first].Onset
		}
	}
	playing, alone, last := 0, 0, 0
	for i := range l.staves {
		line, n := l.staves[i].Line, l.first[i]
		for ; n < len(line) && !c.To.before(line[n].at()); n++ {
			l.number(int64(i))
			l.length(line[n].Onset.Sub(begins))
			l.length(line[n].Duration)
			for _, note := range line[n].Notes {
				l.number(int64(note.Line()))
				l.number(int64(note.MIDI()))
			}
			l.text = append(l.text, ';')
		}
		if n > l.first[i] {
			playing, alone, last = playing+1, i, n
		}
	}
	if playing == 1 {
		first := l.first[alone]
		c.Names = l.names[alone][first:last:last]
		if last > first+1 {
			c.Ways = l.staves[alone].Top[first+1 : last : last]
		}
	}
	c.Like = string(l.text)
}

func (l *likener) number(n int64) { l.text = append(strconv.AppendInt(l.text, n, 10), ' ') }

func (l *likener) length(t score.Time) {
	num, den := t.Fraction()
	l.number(num)
	l.number(den)
}

func (c *Chord) at() Place { return Place{c.Bar, c.Beat} }

func (p Place) before(q Place) bool {
	return p.Bar < q.Bar || p.Bar == q.Bar && p.Beat.Less(q.Beat)
}

// together merges both hands' lines into the moments at which either plays; the
// finger is that of the first staff's note, else of the second's.
func (p Page) together() (line []*Chord, fingers []string) {
	a, b := &p.Staves[0], &p.Staves[1]
	fa, fb := a.Fingers(), b.Fingers()
	line, fingers = make([]*Chord, 0, len(a.Line)+len(b.Line)), make([]string, 0, len(a.Line)+len(b.Line))
	i, j := 0, 0
	for i < len(a.Line) || j < len(b.Line) {
		switch {
		case j == len(b.Line) || i < len(a.Line) && !b.Line[j].Onset.Less(a.Line[i].Onset):
			if j < len(b.Line) && b.Line[j].Onset == a.Line[i].Onset {
				j++
			}
			line, fingers = append(line, &a.Line[i]), append(fingers, fa[i])
			i++
		default:
			line, fingers = append(line, &b.Line[j]), append(fingers, fb[j])
			j++
		}
	}
	return line, fingers
}

// borders weighs how strongly a line may be cut before each of its moments.
func (p Page) borders(line []*Chord, staves []Staff) []float64 {
	out := make([]float64, len(line))
	ends := map[score.Time]bool{}
	figures, moves := make([]bool, len(line)), make([]bool, len(line))
	for _, st := range staves {
		i := 0 // both lists are in order, as the line is
		for _, f := range st.built {
			i = tick(line, i, Place{f.Bar, f.Beat}, figures)
		}
		i = 0
		for _, pos := range st.Positions {
			if pos.Move != "" {
				i = tick(line, i, Place{pos.Bar, pos.Beat}, moves)
			}
		}
		for onset := range p.phraseEnds(st) {
			ends[onset] = true
		}
	}
	pickup := 0
	if p.Score.Parts[staves[0].Part].Pickup() {
		pickup = 1
	}
	for i := 1; i < len(line); i++ {
		c, before := line[i], line[i-1]
		if before.Onset.Add(before.Duration).Less(c.Onset) || ends[before.Onset] {
			out[i] += judgement.CutPhrase
		}
		if figures[i] {
			out[i] += judgement.CutFigure
		}
		if moves[i] {
			out[i] += judgement.CutPosition
		}
		switch _, den := c.Beat.Fraction(); {
		case c.Bar != before.Bar:
			out[i] += judgement.CutBar
			// lines are mostly built in pairs and fours of bars
			for of := 2; of <= 4; of *= 2 {
				if (c.Bar-1-pickup)%of == 0 {
					out[i] += judgement.CutBeat
				}
			}
		case den == 1:
			out[i] += judgement.CutBeat
		}
	}
	return out
}

// tick marks the moment of a line that stands at a place, looked for from one on, and returns where it is or would be.
func tick(line []*Chord, from int, at Place, marks []bool) int {
	for from < len(line) && line[from].at().before(at) {
		from++
	}
	if from < len(line) && line[from].at() == at {
		marks[from] = true
	}
	return from
}

// phraseEnds returns the onsets of notes after which a staff breathes: the end
// of a slur over more than two notes, a breath mark or a fermata.
func (p Page) phraseEnds(st Staff) map[score.Time]bool {
	out := map[score.Time]bool{}
	open := 0 // notes under the slur that is open
	for _, b := range p.Score.Parts[st.Part].Bars {
		for _, n := range b.Notes {
			if n.Staff != st.Staff || n.Rest || n.Grace {
				continue
			}
			if n.SlurStarts > 0 {
				open = 0
			}
			open++
			if n.SlurEnds > 0 && open > 2 || slices.Contains(n.Articulations, "breath-mark") || slices.Contains(n.Articulations, "fermata") {
				out[b.Start.Add(n.Onset)] = true
			}
		}
	}
	return out
}

type cutter struct {
	line    []*Chord
	fingers []string
	hand    Hand
	borders []float64
	size    int
}

// A border is where a phrase begins in a line.
type border struct {
	index int
	phrase
}

// tree makes the chunk of the whole line, of phrases down to those of a few notes.
func (c *cutter) tree(phrases []phrase) (out Chunk) {
	list := make([]border, 0, len(phrases))
	before := 0 // where the phrase before begins
	for _, ph := range phrases {
		at := sort.Search(len(c.line), func(i int) bool { return !c.line[i].at().before(ph.at) })
		if at-before >= 2 && len(c.line)-at >= 2 {
			list = append(list, border{at, ph})
			before = at
		}
	}
	c.join(&out, 0, len(c.line), list)
	return out
}

// join makes the chunk of the phrases from one chord up to another, whose borders lie between.
func (c *cutter) join(out *Chunk, from, to int, between []border) {
	if len(between) == 0 {
		c.cut(out, from, to)
		return
	}
	best, at := math.Inf(-1), 0
	for k, b := range between {
		off := math.Abs(float64(b.index-from)-float64(to-b.index)) / float64(to-from)
		worth := b.worth - judgement.CutMiddle*off
		switch {
		case b.strain:
			worth += judgement.CutStrain
		case b.four:
			worth += judgement.CutFour
		}
		if worth > best {
			best, at = worth, k
		}
	}
	c.whole(out, from, to)
	mid := between[at].index
	out.Parts = make([]Chunk, 2)
	c.join(&out.Parts[0], from, mid, between[:at])
	c.join(&out.Parts[1], mid, to, between[at+1:])
}

// whole is the chunk of chords from one up to another, with no parts.
func (c *cutter) whole(out *Chunk, from, to int) {
	first, last := c.line[from], c.line[to-1]
	*out = Chunk{From: Place{first.Bar, first.Beat}, To: Place{last.Bar, last.Beat}, Hand: c.hand, Notes: to - from,
		Start: StartOf{c.fingers[from], first.Top().String()}, FromID: first.IDs[0], ToID: last.IDs[0], Lasts: last.Onset.Add(last.Duration).Sub(first.Onset).Float(), Parts: []Chunk{}}
}

// cut makes the chunk of chords from one up to another.
func (c *cutter) cut(out *Chunk, from, to int) {
	c.whole(out, from, to)
	best, at := math.Inf(-1), 0
	for i := from + 2; i <= to-2; i++ {
		off := math.Abs(float64(i-from)-float64(to-i)) / float64(to-from)
		if worth := c.borders[i] - judgement.CutMiddle*off; worth > best {
			best, at = worth, i
		}
	}
	// one note more than a chunk is kept where nothing parts it
	if to-from <= c.size || at == 0 || to-from == c.size+1 && c.borders[at] < judgement.CutBar {
		return
	}
	out.Parts = make([]Chunk, 2)
	c.cut(&out.Parts[0], from, at)
	c.cut(&out.Parts[1], at, to)
}
