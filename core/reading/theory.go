package reading

import (
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Theory is what a teacher would ask about a page.
type Theory struct {
	Key      string `json:"key" doc:"tonic and mode, such as G major"`
	Sure     bool   `json:"sure" doc:"the file names the mode; else it is told from the last and the raised notes"`
	Half     []int  `json:"half" doc:"bars in which the tune moves by half steps"`
	Tonic    []int  `json:"tonic" doc:"bars that sound the chord of the first degree"`
	Dominant []int  `json:"dominant" doc:"bars that sound the chord of the fifth degree, with or without its seventh"`
	Whole    int    `json:"whole" doc:"how often the tune moves by a whole step"`
}

// shareOfChord is how much of a bar's sounding time must belong to a chord for
// the bar to be told as that chord. A judgement.
const shareOfChord = 0.8

// Theory reads key, steps and the two chords that every beginner meets. A minor
// key counts when the file says so, or when the mode is not stated as another
// and the piece ends on the minor's tonic in its lowest voice, or raises its
// leading note there. Common practice, no source.
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

// Key returns the key and whether the file names its mode.
func (p Page) Key() (pitch.Key, bool) {
	k := pitch.Key{}
	for _, part := range p.Score.Parts {
		if len(part.Bars) > 0 && part.Bars[0].Key != nil {
			k = *part.Bars[0].Key
			break
		}
	}
	if k.Mode != "" {
		return k, true
	}
	k.Mode = "major"
	asMinor := pitch.Key{Fifths: k.Fifths, Mode: "minor"}
	last, at := pitch.Pitch{}, score.Time{}
	for _, st := range p.Staves {
		c := st.Line[len(st.Line)-1]
		if !last.Valid() || at.Less(c.Onset) || at == c.Onset && c.Notes[0].MIDI() < last.MIDI() {
			last, at = c.Notes[0], c.Onset
		}
	}
	if last.Valid() && last.MIDI()%12 == asMinor.Tonic() {
		return asMinor, false
	}
	return k, false
}
