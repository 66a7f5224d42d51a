package reading

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
	"patientladder/core/score"
)

// A Layer is one kind of annotation on the page.
type Layer struct {
	Name   string    `json:"name" enum:"direction,landmarks,intervals,names,fingers,positions,patterns,chunks,tablature,rhythm"`
	Labels []Label   `json:"labels" doc:"at notes"`
	Spans  []Stretch `json:"spans" doc:"over stretches"`
}

// A Label stands at a note.
type Label struct {
	ID   string `json:"id" doc:"of the note in the score"`
	Text string `json:"text"`
}

// A Stretch stands over the notes of a staff from one to another.
type Stretch struct {
	From  string       `json:"from" doc:"id of the first note"`
	To    string       `json:"to" doc:"id of the last"`
	Text  string       `json:"text" doc:"a letter or number, so that no meaning rests on colour alone"`
	Says  reason.Label `json:"says" doc:"the same in words"`
	Hue   int          `json:"hue" doc:"spans of one number belong together"`
	Level int          `json:"level" doc:"0 for the smallest; wider ones stand above"`
	Staff int          `json:"staff" doc:"index of the staff with notes, from 0"`
}

// Ask says for whom layers are drawn.
type Ask struct {
	Size  int           // of a first chunk, in notes
	Known []pitch.Pitch // landmarks
	Words Words         // for rhythms
}

// layers are all kinds of annotation, in the order in which they stand.
var layers = []struct {
	name string
	on   []instrument.Family // empty for all
	draw func(Page, Ask) Layer
}{
	{"direction", nil, labelled(func(p Page, _ Ask, st Staff, i int) string {
		return map[Direction]string{Start: "●", Up: "↑", Down: "↓", Same: "="}[st.Top[i]]
	})},
	{"landmarks", nil, labelled(func(_ Page, a Ask, st Staff, i int) string {
		landmark, steps, ok := Nearest(st.Line[i].Top(), a.Known)
		switch {
		case !ok:
			return ""
		case steps == 0:
			return letterOf(landmark)
		}
		return fmt.Sprintf("%s%+d", letterOf(landmark), steps)
	})},
	{"intervals", nil, labelled(func(_ Page, _ Ask, st Staff, i int) string {
		var says []string
		if i > 0 {
			says = append(says, strconv.Itoa(st.Intervals[i-1].Number))
		}
		if len(st.Line[i].Notes) == 2 { // two at once
			says = append(says, "["+strconv.Itoa(st.Line[i].Harmonic()[0].Number)+"]")
		}
		return strings.Join(says, " ")
	})},
	{"names", nil, labelled(func(_ Page, _ Ask, st Staff, i int) string {
		var names []string
		for _, n := range st.Line[i].Notes {
			names = append(names, letterOf(n))
		}
		return strings.Join(names, " ")
	})},
	{"fingers", nil, fingerLayer},
	{"positions", nil, positionLayer},
	{"patterns", nil, patternLayer},
	{"chunks", nil, chunkLayer},
	{"tablature", []instrument.Family{instrument.Bowed, instrument.Plucked}, labelled(func(_ Page, _ Ask, st Staff, i int) string {
		var stops []string
		for _, s := range st.Stops[i] {
			if s.String > 0 {
				stops = append(stops, fmt.Sprintf("%d·%d", s.String, s.Fret))
			}
		}
		return strings.Join(stops, " ")
	})},
	{"rhythm", nil, func(p Page, a Ask) Layer {
		out := Layer{Labels: []Label{}, Spans: []Stretch{}}
		for _, r := range p.Rhythms(a.Words) {
			for _, id := range r.IDs {
				if r.Say != "" {
					out.Labels = append(out.Labels, Label{id, r.Say})
				}
			}
		}
		return out
	}},
}

// LayerNames lists the kinds of annotation that the instrument has, in the order in which they
// stand.
func (p Page) LayerNames() []string {
	out := []string{}
	for _, l := range layers {
		if len(l.on) == 0 || slices.Contains(l.on, p.On.Family) {
			out = append(out, l.name)
		}
	}
	return out
}

// Layer draws one kind of annotation, false for one that the instrument has not.
func (p Page) Layer(name string, ask Ask) (Layer, bool) {
	for _, l := range layers {
		if l.name == name && slices.Contains(p.LayerNames(), name) {
			drawn := l.draw(p, ask)
			drawn.Name = name
			return drawn, true
		}
	}
	return Layer{}, false
}

// letterOf writes a note's letter with its sign.
func letterOf(p pitch.Pitch) string {
	return string(p.Step()) + map[int]string{-2: "𝄫", -1: "♭", 1: "♯", 2: "𝄪"}[p.Alter()]
}

// labelled makes a layer with a text at each moment of each staff.
func labelled(text func(p Page, a Ask, st Staff, i int) string) func(Page, Ask) Layer {
	return func(p Page, a Ask) Layer {
		out := Layer{Labels: []Label{}, Spans: []Stretch{}}
		for _, st := range p.Staves {
			for i, c := range st.Line {
				if t := text(p, a, st, i); t != "" {
					out.Labels = append(out.Labels, Label{c.IDs[len(c.IDs)-1], t})
				}
			}
		}
		return out
	}
}

// fingerLayer labels chords with their fingers, from the lowest note; those of a
// plucking hand stand without spaces, as they are written.
func fingerLayer(p Page, _ Ask) Layer {
	out := Layer{Labels: []Label{}, Spans: []Stretch{}}
	between := " "
	if p.On.Family == instrument.Plucked {
		between = ""
	}
	for _, st := range p.Staves {
		for i, fingers := range p.chordFingers(st) {
			known := slices.DeleteFunc(fingers, func(f string) bool { return f == "" })
			if ids := st.Line[i].IDs; len(known) > 0 {
				out.Labels = append(out.Labels, Label{ids[len(ids)-1], strings.Join(known, between)})
			}
		}
	}
	return out
}

func positionLayer(p Page, _ Ask) Layer {
	out := Layer{Labels: []Label{}, Spans: []Stretch{}}
	for si, st := range p.Staves {
		at := 0
		hues := map[string]int{}
		for _, pos := range st.Positions {
			name, says := pos.Low+pos.High, reason.SaidOf("over.keys", "low", pos.Low, "high", pos.High, "move", string(pos.Move))
			text := strings.TrimRight(pos.Low, "0123456789")
			if pos.Place != "" {
				name, text, says = pos.Place, places[pos.Place], reason.SaidOf("over.place", "place", pos.Place, "move", string(pos.Move))
				if text == "" {
					text = strings.TrimPrefix(pos.Place, "fret ")
				}
			}
			if _, met := hues[name]; !met {
				hues[name] = len(hues)
			}
			last := at + len(pos.Fingers) - 1
			out.Labels = append(out.Labels, Label{st.Line[at].IDs[0], text})
			out.Spans = append(out.Spans, Stretch{From: st.Line[at].IDs[0], To: st.Line[last].IDs[0], Text: text, Says: says, Hue: hues[name], Staff: si})
			at = last + 1
		}
	}
	return out
}

// places are places of the hand on strings as they are written over notes. Common practice, no source.
var places = map[string]string{"half": "½", "first": "1", "second": "2", "second-and-half": "2½", "third": "3", "third-and-half": "3½", "fourth": "4", "fifth": "5",
	"fifth-and-half": "5½", "sixth": "6", "sixth-and-half": "6½", "seventh": "7", "thumb": "ϙ", "high": "8+"}

// kinds are signs of how a figure relates to the one that it repeats.
var kinds = map[Kind]string{First: "", Again: "=", NewRhythm: "~", Moved: "→", Ending: "′"}

func patternLayer(p Page, _ Ask) Layer {
	out := Layer{Labels: []Label{}, Spans: []Stretch{}}
	for si, st := range p.Staves {
		hues := map[string]int{}
		for _, f := range st.Figures {
			from, to := p.stretch(st, f.Bar, f.Beat, f.Length)
			if from < 0 {
				continue
			}
			if _, met := hues[f.ID]; !met {
				hues[f.ID] = len(hues)
			}
			out.Spans = append(out.Spans, Stretch{From: st.Line[from].IDs[0], To: st.Line[to].IDs[0], Text: f.ID + kinds[f.Kind],
				Says: reason.SaidOf("figure."+string(f.Kind), "id", f.ID), Hue: hues[f.ID], Staff: si})
		}
	}
	return out
}

// stretch returns the first and last chord of a line that begin within a length
// from a place; -1 where none does.
func (p Page) stretch(st Staff, bar int, beat, length score.Time) (from, to int) {
	start := p.Score.Parts[st.Part].Bars[bar-1].Start.Add(beat)
	end := start.Add(length)
	from, _ = slices.BinarySearchFunc(st.Line, start, func(c Chord, t score.Time) int { return c.Onset.Cmp(t) })
	to, _ = slices.BinarySearchFunc(st.Line, end, func(c Chord, t score.Time) int { return c.Onset.Cmp(t) })
	if from == to {
		return -1, -1
	}
	return from, to - 1
}

func chunkLayer(p Page, a Ask) Layer {
	out := Layer{Labels: []Label{}, Spans: []Stretch{}}
	for si, tree := range p.Chunks(a.Size) {
		if tree.Hand == Both {
			continue // its stretches stand over both hands' own
		}
		n := 0
		var walk func(c Chunk) int
		walk = func(c Chunk) (level int) {
			for _, part := range c.Parts {
				level = max(level, walk(part)+1)
			}
			text, hue := "", 0
			if level == 0 {
				n++
				text, hue = strconv.Itoa(n), (n-1)%2
			}
			out.Spans = append(out.Spans, Stretch{From: c.FromID, To: c.ToID, Text: text, Says: c.says(), Hue: hue, Level: level, Staff: si})
			return level
		}
		walk(tree)
	}
	return out
}

func (c Chunk) says() reason.Label {
	bars := strconv.Itoa(c.From.Bar)
	if c.To.Bar > c.From.Bar {
		bars += "-" + strconv.Itoa(c.To.Bar)
	}
	if c.Start.Finger != "" {
		return reason.SaidOf("over.chunk-hand", "bars", bars, "hand", string(c.Hand), "finger", c.Start.Finger, "key", c.Start.Key)
	}
	return reason.SaidOf("over.chunk", "bars", bars, "key", c.Start.Key)
}

// Annotated returns a copy of the score with some layers written into it: what
// stands at notes as words to sing, fingers as fingers, strings and frets as
// tablature, and what spans notes as words above its beginning.
func (p Page) Annotated(names []string, ask Ask) score.Score {
	at := map[string]string{}
	above := map[string]string{}
	fingers := map[string]string{}
	stops := map[string]Stop{}
	for _, name := range p.LayerNames() {
		if !slices.Contains(names, name) {
			continue
		}
		l, _ := p.Layer(name, ask)
		for _, label := range l.Labels {
			switch l.Name {
			case "fingers", "tablature", "positions": // fields of a note, and words above the staff
			default:
				at[label.ID] = strings.TrimSpace(at[label.ID] + " " + label.Text)
			}
		}
		for _, s := range l.Spans {
			if s.Text != "" {
				above[s.From] = strings.TrimSpace(above[s.From] + " " + s.Text)
			}
		}
	}
	if slices.Contains(names, "fingers") {
		fingers = p.fingers()
	}
	if slices.Contains(names, "tablature") {
		stops = p.stops()
	}
	out := p.Score
	out.Parts = slices.Clone(out.Parts)
	for pi := range out.Parts {
		out.Parts[pi].Bars = slices.Clone(out.Parts[pi].Bars)
		for bi := range out.Parts[pi].Bars {
			b := &out.Parts[pi].Bars[bi]
			b.Notes, b.Marks = slices.Clone(b.Notes), slices.Clone(b.Marks)
			for i := range b.Notes {
				n := &b.Notes[i]
				if text := at[n.ID]; text != "" {
					n.Lyric = strings.TrimSpace(n.Lyric + " " + text)
				}
				if f := fingers[n.ID]; f != "" && len(n.Fingers) == 0 {
					n.Fingers = []string{f}
				}
				if s := stops[n.ID]; s.String > 0 {
					n.String, n.Fret = s.String, s.Fret
				}
				if text := above[n.ID]; text != "" {
					b.Marks = append(b.Marks, score.Mark{Onset: n.Onset, Kind: "words", Text: text})
				}
			}
			slices.SortStableFunc(b.Marks, func(a, c score.Mark) int { return a.Onset.Cmp(c.Onset) })
		}
	}
	return out
}

// stops returns where notes are stopped, by their ids.
func (p Page) stops() map[string]Stop {
	out := map[string]Stop{}
	for _, st := range p.Staves {
		for i, list := range st.Stops {
			for j, s := range list {
				out[st.Line[i].IDs[j]] = s
			}
		}
	}
	return out
}

// Tablature returns the score with its strings and frets on staves of six lines,
// under the staff or instead of it. Notes that lie off the instrument are left
// out of it. It returns false for an instrument without frets.
func (p Page) Tablature(instead bool) (score.Score, bool) {
	if p.On.Family != instrument.Plucked {
		return score.Score{}, false
	}
	stops := p.stops()
	out := p.Score
	out.Parts = slices.Clone(out.Parts)
	for pi, part := range p.Score.Parts {
		if part.Staves > 1 {
			return score.Score{}, false // it has a staff of its own already
		}
		bars := make([]score.Bar, len(part.Bars))
		begun := map[pitch.Pitch]Stop{} // a tied note stands on the string it began on
		for bi, b := range part.Bars {
			bars[bi] = b
			tab := score.Clef{Staff: 2, Sign: "TAB", Line: 5}
			if instead {
				bars[bi].Notes, bars[bi].Clefs = nil, nil
				tab.Staff = 1
			}
			bars[bi].Notes, bars[bi].Clefs = slices.Clone(bars[bi].Notes), slices.Clone(bars[bi].Clefs)
			if bi == 0 {
				bars[bi].Clefs = append(bars[bi].Clefs, tab)
			}
			for _, n := range b.Notes {
				s, found := stops[n.ID]
				if !found && n.TieFrom {
					s = begun[n.Pitch]
				}
				begun[n.Pitch] = s
				if n.Grace || !n.Rest && s.String == 0 {
					continue
				}
				n.Staff, n.String, n.Fret = tab.Staff, s.String, s.Fret
				n.Fingers, n.Articulations, n.Lyric, n.SlurStarts, n.SlurEnds = nil, nil, "", 0, 0
				if !instead {
					n.Voice += 8
					n.ID += "t"
				}
				bars[bi].Notes = append(bars[bi].Notes, n)
			}
			slices.SortStableFunc(bars[bi].Notes, func(a, c score.Note) int { return a.Onset.Cmp(c.Onset) })
		}
		out.Parts[pi].Bars = bars
		if !instead {
			out.Parts[pi].Staves = 2
		}
	}
	return out, true
}
