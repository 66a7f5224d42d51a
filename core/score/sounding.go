package score

import (
	"slices"
	"sort"

	"patientladder/core/pitch"
)

// A Sound is a note as heard: ties joined, rests and grace notes left out.
type Sound struct {
	Pitch    pitch.Pitch
	Onset    Time // from the start of the piece, written or played
	Duration Time
	Bar      int  // written bar in which it begins, from 1
	Beat     Time // from the start of that bar
	Voice    int
	Finger   string // as written; empty for none
	String   int    // as written in tablature, 1 the highest-sounding; 0 for none
	Fret     int
	ID       string // of the note, or of the first of tied notes
}

// Written returns the order of bars as written: 1, 2, 3 and so on.
func (s Score) Written() []int {
	order := make([]int, s.Bars())
	for i := range order {
		order[i] = i + 1
	}
	return order
}

// laterPass reports whether the closing bar leads back: always, unless it
// belongs to an ending and some pass is still to come elsewhere.
func laterPass(r Repeat, pass int) bool {
	return len(r.Endings) == 0 || slices.Contains(r.Endings, pass)
}

// last returns the number of passes that the endings following bar i ask for.
func last(rep []Repeat, i int) int {
	most := 0
	for j := i; j < len(rep) && len(rep[j].Endings) > 0; j++ {
		if j > i && rep[j].Starts {
			break
		}
		for _, e := range rep[j].Endings {
			most = max(most, e)
		}
	}
	return most
}

func finger(n *Note) string {
	if len(n.Fingers) == 0 {
		return ""
	}
	return n.Fingers[0]
}

// Sounding returns the notes of one staff of one part in the given order of
// bars, ties joined, by onset and then from low to high.
func (p Part) Sounding(staff int, order []int) []Sound {
	count := 0
	for _, b := range order {
		if b <= len(p.Bars) {
			notes := p.Bars[b-1].Notes
			for i := range notes {
				if notes[i].Staff == staff && !notes[i].Rest {
					count++
				}
			}
		}
	}
	if count == 0 {
		return nil
	}
	out := make([]Sound, 0, count)
	type key struct {
		pitch pitch.Pitch
		voice int
	}
	held := map[key]int{} // index in out of a note that is tied on
	at := Time{}
	for _, b := range order {
		if b > len(p.Bars) {
			continue
		}
		bar := &p.Bars[b-1]
		for ni := range bar.Notes {
			n := &bar.Notes[ni]
			if n.Staff != staff || n.Rest || n.Grace {
				continue
			}
			k := key{n.Pitch, n.Voice}
			onset := at.Add(n.Onset)
			if len(held) > 0 {
				// a note that is tied on goes into the next of its pitch, whatever that says
				if i, ok := held[k]; ok && out[i].Onset.Add(out[i].Duration) == onset {
					out[i].Duration = out[i].Duration.Add(n.Duration)
					if !n.TieTo {
						delete(held, k)
					}
					continue
				}
				delete(held, k)
			}
			out = append(out, Sound{n.Pitch, onset, n.Duration, b, n.Onset, n.Voice, finger(n), n.String, n.Fret, n.ID})
			if n.TieTo {
				held[k] = len(out) - 1
			}
		}
		at = at.Add(bar.Length)
	}
	earlier := func(i, j int) bool {
		if c := out[i].Onset.Cmp(out[j].Onset); c != 0 {
			return c < 0
		}
		return out[i].Pitch.MIDI() < out[j].Pitch.MIDI()
	}
	if !sort.SliceIsSorted(out, earlier) { // a line of one voice mostly is
		sort.SliceStable(out, earlier)
	}
	return out
}
