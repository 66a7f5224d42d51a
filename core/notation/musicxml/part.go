package musicxml

import (
	"fmt"
	"slices"

	"patientladder/core/score"
)

// A part gathers the bars of one part, and what carries from one to the next.
type part struct {
	r         *reader
	id        string
	part      score.Part
	tags      [][]int64 // where the tag of each note ends, by bar and place
	divisions int64
	lasts     string // the duration read last, which mostly comes again
	lasting   score.Time
	meter     score.Meter
	voices    map[string]int
	endings   []int // passes of the ending that is open

	// room for reading a bar and for sorting it
	notes   []score.Note
	ends    []int64 // of the notes' tags
	order   []int
	was     []score.Note
	wasEnds []int64
}

// find returns the part with an id, nil where none has begun.
func (r *reader) find(id string) *part {
	for _, p := range r.parts {
		if p.id == id {
			return p
		}
	}
	return nil
}

func (r *reader) begin(id string) (*part, error) {
	name, listed := r.names[id]
	switch {
	case len(r.parts) == maxParts:
		return nil, fmt.Errorf("more than %d parts", maxParts)
	case !listed:
		return nil, fmt.Errorf("the part %q is not in the part list", id)
	}
	p := &part{r: r, id: id, part: score.Part{Name: name, Staves: 1}, voices: map[string]int{}}
	r.parts = append(r.parts, p)
	return p, nil
}

// partwise reads a <part> of bars.
func (r *reader) partwise(e element) error {
	id := e.attr("id")
	if r.find(id) != nil {
		return fmt.Errorf("the part %q stands twice", id)
	}
	p, err := r.begin(id)
	if err != nil {
		return err
	}
	r.bar = 0
	return r.children(func(e element) error {
		if e.name() != "measure" {
			return r.d.pass()
		}
		return p.measure()
	})
}

// acrossParts reads a <measure> of parts: MusicXML 4.0, "The <score-timewise>
// element". A part that the bar leaves out rests.
func (r *reader) acrossParts(element) error {
	if r.across++; r.across > maxBars {
		return fmt.Errorf("more than %d bars", maxBars)
	}
	return r.children(func(e element) error {
		if e.name() != "part" {
			return r.d.pass()
		}
		id := e.attr("id")
		p := r.find(id)
		if p == nil {
			var err error
			if p, err = r.begin(id); err != nil {
				return err
			}
		}
		if len(p.part.Bars) == r.across {
			return fmt.Errorf("the part %q stands twice in a bar", id)
		}
		for len(p.part.Bars) < r.across-1 {
			p.part.Bars, p.tags = append(p.part.Bars, score.Bar{}), append(p.tags, nil)
		}
		return p.measure()
	})
}

func (p *part) measure() error {
	if len(p.part.Bars) == maxBars {
		return fmt.Errorf("more than %d bars", maxBars)
	}
	p.r.bar = len(p.part.Bars) + 1
	m := measure{p: p, tags: p.ends[:0]}
	m.bar.Notes = p.notes[:0]
	if err := p.r.children(m.child); err != nil {
		return err
	}
	bar := m.finish()
	p.notes, p.ends = bar.Notes, m.tags
	bar.Notes = slices.Clone(bar.Notes)
	p.part.Bars, p.tags = append(p.part.Bars, bar), append(p.tags, slices.Clone(m.tags))
	return nil
}

// sort puts notes in order of onset, each voice in its own order: voices are
// written one after another. Their tags go with them.
func (p *part) sort(notes []score.Note, tags []int64) {
	p.order = p.order[:0]
	sorted := true
	for i := range notes {
		p.order = append(p.order, i)
		sorted = sorted && (i == 0 || !notes[i].Onset.Less(notes[i-1].Onset))
	}
	if sorted {
		return
	}
	slices.SortStableFunc(p.order, func(a, b int) int { return notes[a].Onset.Cmp(notes[b].Onset) })
	p.was, p.wasEnds = append(p.was[:0], notes...), append(p.wasEnds[:0], tags...)
	for i, from := range p.order {
		notes[i], tags[i] = p.was[from], p.wasEnds[from]
	}
}
