package abc

import "patientladder/core/score"

// Losses lists what an ABC tune cannot hold of a score, each with the first bar
// in which it stands.
func Losses(s score.Score) []score.Unread {
	lost := score.Score{}
	for _, p := range s.Parts {
		for bi, b := range p.Bars {
			for i, n := range b.Notes {
				if n.String > 0 {
					lost.Note("strings and frets", bi+1)
				}
				for _, f := range n.Fingers {
					if len(f) != 1 || f[0] < '0' || f[0] > '5' {
						lost.Note("plucking fingers", bi+1)
					}
				}
				for _, a := range n.Articulations {
					if decorations[a] == "" {
						lost.Note("the sign "+a, bi+1)
					}
				}
				for _, before := range b.Notes[:i] {
					if before.Voice != n.Voice || before.Staff != n.Staff || n.Rest || before.Rest || n.Grace || before.Grace {
						continue
					}
					if before.Onset == n.Onset && before.Duration != n.Duration {
						lost.Note("notes of a chord that end at different times", bi+1)
					} else if before.Onset.Less(n.Onset) && n.Onset.Less(before.Onset.Add(before.Duration)) {
						lost.Note("notes that overlap in one voice", bi+1)
					}
				}
			}
			for _, c := range b.Clefs {
				if c.Onset.Sign() > 0 {
					lost.Note("another clef inside a bar", bi+1)
				}
			}
			begin := begins(b)
			for _, m := range b.Marks {
				if _, any := begin[m.Onset]; !any && m.Onset != b.Length {
					lost.Note("signs in the middle of a note (set at the next)", bi+1)
				}
				if m.Kind == "pedal" {
					lost.Note("pedal", bi+1)
				}
				if m.Kind == "dynamic" && dynamics[m.Text] == "" && swells[m.Text] == "" {
					lost.Note("the loudness "+m.Text, bi+1)
				}
			}
		}
	}
	return lost.Unread
}
