package reading

import (
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Theory is what a teacher would ask about a page.
type Theory struct {
	Key      string `json:"key" doc:"tonic and mode, such as G major"`
	Sure     bool   `json:"sure" doc:"a person wrote the mode, or the first, the last and the raised notes speak for one key and none for another"`
	Half     []int  `json:"half" doc:"bars in which the tune moves by half steps"`
	Tonic    []int  `json:"tonic" doc:"bars that sound the chord of the first degree"`
	Dominant []int  `json:"dominant" doc:"bars that sound the chord of the fifth degree, with or without its seventh"`
	Whole    int    `json:"whole" doc:"how often the tune moves by a whole step"`
}

// shareOfChord is how much of a bar's sounding time must belong to a chord for
// the bar to be told as that chord. A judgement.
const shareOfChord = 0.8

// Theory reads key, steps and the two chords that every beginner meets.
func (p Page) Theory() Theory {
	t := Theory{Half: []int{}, Tonic: []int{}, Dominant: []int{}}
	key, sure := p.Key()
	t.Key, t.Sure = key.String(), sure
	tonic := key.Tonic()
	third := 4
	if minor(key.Mode) {
		third = 3
	}
	chord := func(above ...int) map[int]bool {
		out := map[int]bool{}
		for _, a := range above {
			out[(tonic+a)%12] = true
		}
		return out
	}
	// the dominant of a minor key takes the raised leading note
	home, away := chord(0, third, 7), chord(7, 11, 2, 5)
	for b := range p.Score.Bars() {
		sum, inHome, inAway := 0.0, 0.0, 0.0
		kinds := map[int]bool{}
		for _, st := range p.Staves {
			bars := p.Score.Parts[st.Part].Bars
			for _, n := range bars[b].Notes {
				if n.Rest || n.Grace || n.Staff != st.Staff {
					continue
				}
				class, long := n.Pitch.MIDI()%12, n.Duration.Float()
				sum += long
				kinds[class] = true
				if home[class] {
					inHome += long
				}
				if away[class] {
					inAway += long
				}
			}
		}
		switch {
		case sum == 0 || len(kinds) < 2:
		case inHome >= shareOfChord*sum && inHome >= inAway:
			t.Tonic = append(t.Tonic, b+1)
		case inAway >= shareOfChord*sum:
			t.Dominant = append(t.Dominant, b+1)
		}
	}
	for _, st := range p.Staves {
		for i, interval := range st.Intervals {
			if interval.Number != 2 {
				continue
			}
			bar := st.Line[i+1].Bar
			if interval.Quality == "m" && !slices.Contains(t.Half, bar) {
				t.Half = append(t.Half, bar)
			}
			if interval.Quality == "M" {
				t.Whole++
			}
		}
	}
	slices.Sort(t.Half)
	return t
}

func minor(mode string) bool {
	return mode == "minor" || mode == "aeolian" || mode == "dorian" || mode == "phrygian"
}

// Key returns the key, and whether it is sure. A mode other than major is what somebody wrote;
// that a file says major is no evidence, since most programs write it whatever the key. The
// major of the signature and the minor a third below are weighed: that the lowest voice ends on
// the tonic counts double, that it begins there and that the leading note is raised once each.
// One with nothing against it is sure, the major where it ends on its tonic, the minor where it
// raises its leading note too. Common practice, no source.
func (p Page) Key() (key pitch.Key, sure bool) {
	key = p.signature()
	if key.Mode != "" && key.Mode != "major" && key.Mode != "ionian" {
		return key, true
	}
	major, minor := pitch.Key{Fifths: key.Fifths, Mode: "major"}, pitch.Key{Fifths: key.Fifths, Mode: "minor"}
	first, last := p.lowest()
	if !last.Valid() {
		return major, false
	}
	weigh := func(tonic int) (n int) {
		if last.MIDI()%12 == tonic {
			n += 2
		}
		if first.MIDI()%12 == tonic {
			n++
		}
		return n
	}
	forMajor, forMinor := weigh(major.Tonic()), weigh(minor.Tonic())
	leads := p.sounds((minor.Tonic() + 11) % 12)
	if leads {
		forMinor++
	}
	if forMinor > forMajor && last.MIDI()%12 == minor.Tonic() {
		return minor, leads && forMajor == 0
	}
	return major, forMinor == 0 && last.MIDI()%12 == major.Tonic()
}

// signature is the first that a part has whose notes sound as they are written; of any part
// where none does.
func (p Page) signature() pitch.Key {
	found := pitch.Key{}
	for _, elsewhere := range []bool{false, true} {
		for _, part := range p.Score.Parts {
			if len(part.Bars) > 0 && part.Bars[0].Key != nil && part.Elsewhere == elsewhere {
				return *part.Bars[0].Key
			}
		}
	}
	return found
}

// lowest returns the lowest notes of the first whole bar's beginning and of the end.
func (p Page) lowest() (first, last pitch.Pitch) {
	var begins, ends score.Time
	for _, st := range p.Staves {
		if p.Score.Parts[st.Part].Elsewhere && len(p.Score.Parts) > 1 {
			continue
		}
		bars := p.Score.Parts[st.Part].Bars
		from := score.Time{}
		if p.Score.Parts[st.Part].Pickup() {
			from = bars[1].Start // past a pickup
		}
		i := slices.IndexFunc(st.Line, func(c Chord) bool { return !c.Onset.Less(from) })
		if i < 0 {
			i = 0
		}
		if c := st.Line[i]; !first.Valid() || c.Onset.Less(begins) || c.Onset == begins && c.Notes[0].MIDI() < first.MIDI() {
			first, begins = c.Notes[0], c.Onset
		}
		if c := st.Line[len(st.Line)-1]; !last.Valid() || ends.Less(c.Onset) || c.Onset == ends && c.Notes[0].MIDI() < last.MIDI() {
			last, ends = c.Notes[0], c.Onset
		}
	}
	return first, last
}

// sounds reports whether a note of one of the twelve sounds anywhere.
func (p Page) sounds(class int) bool {
	for _, st := range p.Staves {
		if p.Score.Parts[st.Part].Elsewhere {
			continue
		}
		for _, c := range st.Line {
			if slices.ContainsFunc(c.Notes, func(n pitch.Pitch) bool { return n.MIDI()%12 == class }) {
				return true
			}
		}
	}
	return false
}
