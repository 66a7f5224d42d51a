package musicxml

import "patientladder/core/score"

// tuplets returns the tuplet elements of a bar's notes by id. A group ends where its
// notes fill a plain length, such as a beat; without these elements no number is
// drawn.
func tuplets(b score.Bar) map[string]string {
	out := map[string]string{}
	type group struct {
		of    score.Tuplet
		first string
		last  string
		ends  score.Time
		long  score.Time
	}
	open := map[int]*group{} // by voice
	end := func(voice int) {
		if g := open[voice]; g != nil && g.first != g.last {
			out[g.first] += `<tuplet type="start"/>`
			out[g.last] += `<tuplet type="stop"/>`
		}
		delete(open, voice)
	}
	for _, n := range b.Notes {
		g := open[n.Voice]
		if n.Grace || g != nil && n.Onset.Less(g.ends) { // a grace note, or one of a chord
			continue
		}
		if g != nil && (n.Tuplet == nil || *n.Tuplet != g.of || n.Onset != g.ends) {
			end(n.Voice)
			g = nil
		}
		if n.Tuplet == nil {
			continue
		}
		if g == nil {
			g = &group{of: *n.Tuplet, first: n.ID, ends: n.Onset}
			open[n.Voice] = g
		}
		g.last, g.ends, g.long = n.ID, g.ends.Add(n.Duration), g.long.Add(n.Duration)
		if _, den := g.long.Fraction(); den&(den-1) == 0 {
			end(n.Voice)
		}
	}
	for voice := range open {
		end(voice)
	}
	return out
}
