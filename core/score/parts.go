package score

import "slices"

// Only returns the score with some of its parts, counted from 1, in their order. The other
// parts are told as left out.
func (s Score) Only(parts []int) Score {
	out := s
	out.Parts, out.Unread = nil, slices.Clone(s.Unread)
	for i, p := range s.Parts {
		if !slices.Contains(parts, i+1) {
			out.Note("parts of other players", 0)
			continue
		}
		p.Bars = slices.Clone(p.Bars)
		for b := range p.Bars {
			p.Bars[b].Notes = slices.Clone(p.Bars[b].Notes)
			p.Bars[b].Marks = slices.Clone(p.Bars[b].Marks)
		}
		out.Parts = append(out.Parts, p)
	}
	out.Finish()
	return out
}
