package score

// Cut returns some bars of a score, counted from 1, as a score of their own: the key, meter
// and clefs that hold at its first bar stand there, and repeats are left out. Notes keep
// their ids.
func (s Score) Cut(from, to int) Score {
	from, to = max(from, 1), min(to, s.Bars())
	if from > to || from == 1 && to == s.Bars() {
		return s
	}
	out := s
	out.Parts = make([]Part, len(s.Parts))
	for i, p := range s.Parts {
		head := Bar{}
		clefs := map[int]Clef{} // by staff
		later := []Clef{}       // in the first bar of the cut
		for i, b := range p.Bars[:from] {
			if b.Key != nil {
				head.Key = b.Key
			}
			if b.Meter != nil {
				head.Meter = b.Meter
			}
			for _, c := range b.Clefs {
				if i == from-1 && c.Onset.Sign() > 0 {
					later = append(later, c)
					continue
				}
				c.Onset = Time{}
				clefs[c.Staff] = c
			}
		}
		p.Bars = append([]Bar{}, p.Bars[from-1:to]...)
		first := &p.Bars[0]
		first.Key, first.Meter, first.Clefs = head.Key, head.Meter, nil
		for staff := 1; staff <= max(p.Staves, 1); staff++ {
			if c, ok := clefs[staff]; ok {
				first.Clefs = append(first.Clefs, c)
			}
		}
		first.Clefs = append(first.Clefs, later...)
		for n := range p.Bars {
			p.Bars[n].Repeat = Repeat{}
		}
		out.Parts[i] = p
	}
	return out
}
