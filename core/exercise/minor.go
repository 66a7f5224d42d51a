package exercise

import (
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Minor returns a piece of a major key in its minor form: the third and the sixth of the
// key a semitone lower, the seventh as it was, so that it still leads home. It returns
// false for what is in no major key, and where a note could not be written so.
func Minor(s score.Score, major pitch.Key) (score.Score, bool) {
	if major.Mode != "major" || major.Fifths < -4 {
		return s, false
	}
	minor := pitch.Key{Fifths: major.Fifths - 3, Mode: "minor"}
	tonic := major.Tonic()
	out := s
	out.Parts = slices.Clone(s.Parts)
	for pi := range out.Parts {
		out.Parts[pi].Bars = slices.Clone(out.Parts[pi].Bars)
		for bi := range out.Parts[pi].Bars {
			b := &out.Parts[pi].Bars[bi]
			b.Notes = slices.Clone(b.Notes)
			if b.Key != nil {
				b.Key = &minor
			}
			for ni := range b.Notes {
				n := &b.Notes[ni]
				if above := ((n.Pitch.MIDI()-tonic)%12 + 12) % 12; n.Rest || above != 4 && above != 9 {
					continue
				}
				lower, err := pitch.New(n.Pitch.Step(), n.Pitch.Alter()-1, n.Pitch.Octave())
				if err != nil {
					return s, false
				}
				n.Pitch = lower
			}
		}
	}
	return out, true
}
