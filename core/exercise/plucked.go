package exercise

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
)

// roll plays a fixed order of plucking fingers over open strings: those that are told, or
// two bars a bass with the thumb on the low strings in turn, each finger on its own. A
// drone has its thumb too.
func roll(s Spec, on instrument.Profile) ([]line, error) {
	if len(on.Roll) == 0 {
		return nil, fmt.Errorf("the %s is played with a plectrum; rolls are for fingers", on)
	}
	tuned := open(on)
	own := map[string]int{} // the string of each finger, from 1
	var basses []int
	for i, finger := range on.Roll {
		if finger == on.Thumb() {
			basses = append(basses, i+1)
		} else if own[finger] == 0 {
			own[finger] = i + 1
		}
	}
	slices.Reverse(basses)
	if len(basses) == 0 {
		return nil, fmt.Errorf("no string of the %s is the thumb's", on)
	}
	order := []string{}
	for _, f := range s.Pick {
		if f == 'p' {
			order = append(order, on.Thumb())
		} else if own[string(f)] > 0 {
			order = append(order, string(f))
		} else {
			return nil, fmt.Errorf("no string of the %s is for the finger %c", on, f)
		}
	}
	if s.Strings != "" {
		basses = basses[:1]
	}
	var steps []step
	for _, low := range basses {
		for beat := range max(8, len(s.Strings)) {
			finger := order[beat%len(order)]
			at := own[finger]
			switch {
			case s.Strings != "":
				at = int(s.Strings[beat%len(s.Strings)] - '0')
			case finger == on.Thumb():
				at = low
			}
			if at > len(tuned) {
				return nil, fmt.Errorf("the %s has no string %d", on, at)
			}
			steps = append(steps, step{notes: []pitch.Pitch{tuned[at-1]}, long: quarter, fingers: []string{finger}, stops: []stop{{at, 0}}})
		}
	}
	return []line{{clefOf(on), steps}}, nil
}

// on returns the note of a stop, as a MIDI number.
func (at stop) on(tuned []pitch.Pitch) int { return tuned[at.at-1].MIDI() + at.fret }

// plucked makes a step of notes on strings, in a key; the drone is left alone.
func plucked(key pitch.Key, tuned []pitch.Pitch, long int, at ...stop) step {
	st := step{long: long, stops: at}
	for _, s := range at {
		p := tuned[s.at-1]
		if s.fret > 0 {
			p = key.Spell(s.on(tuned))
		}
		st.notes = append(st.notes, p)
	}
	return st
}

// usable lists the numbers of the strings that are stopped, the lowest-sounding first.
func usable(on instrument.Profile) []int {
	var out []int
	for i := range on.Strings {
		if i+1 != on.Drone {
			out = append(out, i+1)
		}
	}
	slices.SortStableFunc(out, func(a, b int) int { return on.Strings[a-1].MIDI() - on.Strings[b-1].MIDI() })
	return out
}

// frets is how many neighbouring frets lie under the hand, and farthest the highest fret
// of its first finger for a shape.
const (
	frets    = 4
	farthest = 8
)

// shape plays a scale of an octave under one place of the hand, without open strings, so
// that the same shape gives every key: from the lowest string whose place holds it.
func shape(s Spec, on instrument.Profile) ([]line, error) {
	if !on.Fretted() {
		return nil, fmt.Errorf("the %s has no frets", on)
	}
	key, _ := s.key()
	tuned, order := open(on), usable(on)
	for _, low := range order[:len(order)-1] {
		for place := 1; place <= farthest; place++ {
			from := s.tonicFrom(tuned[low-1])
			if fret := from.MIDI() - tuned[low-1].MIDI(); fret < place || fret >= place+frets {
				continue
			}
			up, fits := placed(s.degrees(from, 7, false), tuned, order, place)
			down, fitsToo := placed(s.degrees(from, 7, true), tuned, order, place)
			if !fits || !fitsToo {
				continue
			}
			var steps []step
			for _, at := range slices.Concat(up, back(down)) {
				steps = append(steps, plucked(key, tuned, quarter, at))
			}
			return []line{{clefOf(on), steps}}, nil
		}
	}
	return nil, fmt.Errorf("no place of the hand on the %s holds an octave from %s", on, s.Tonic)
}

// placed places notes on strings within the frets of one place, each on the lowest string
// that has it.
func placed(notes []pitch.Pitch, tuned []pitch.Pitch, order []int, place int) ([]stop, bool) {
	var out []stop
	for _, p := range notes {
		i := slices.IndexFunc(order, func(at int) bool {
			fret := p.MIDI() - tuned[at-1].MIDI()
			return fret >= place && fret < place+frets
		})
		if i < 0 {
			return nil, false
		}
		out = append(out, stop{order[i], p.MIDI() - tuned[order[i]-1].MIDI()})
	}
	return out, true
}

// A grip is how a chord is held: a fret a string, -1 for one that stays silent.
type grip []int

// fingersOf counts the fingers of a grip.
func (g grip) fingersOf() int {
	n := 0
	for _, fret := range g {
		if fret > 0 {
			n++
		}
	}
	return n
}

// reachOf is how many frets apart the outermost fingers stand.
func (g grip) reachOf() int {
	low, high := 99, 0
	for _, fret := range g {
		if fret > 0 {
			low, high = min(low, fret), max(high, fret)
		}
	}
	return max(high-low, 0)
}

// gripFor returns how a triad is held near the nut: its root lowest where the strings go
// down that far, all three notes there, three fingers, or four where three are too few; the
// most strings first, then the fewest fingers, then the lowest frets. False where there is
// none.
func gripFor(root int, form Form, tuned []pitch.Pitch, order []int) (grip, bool) {
	third := 3
	if form == Major {
		third = 4
	}
	classes := []int{root % 12, (root + third) % 12, (root + 7) % 12}
	anyBass := len(order) <= 4 // too few strings to ask for the root below
	var best grip
	bestCost := 1 << 20
	g := make(grip, len(order)) // by place in order, lowest first
	var try func(i int, began bool)
	try = func(i int, began bool) {
		if i == len(order) {
			found := map[int]bool{}
			silent, frets := 0, 0
			for j, fret := range g {
				if fret < 0 {
					silent++
					continue
				}
				found[(tuned[order[j]-1].MIDI()+fret)%12] = true
				frets += fret
			}
			cost := 100*max(g.fingersOf()-3, 0) + 20*silent + 8*g.fingersOf() + frets
			if len(found) == 3 && g.fingersOf() <= 4 && g.reachOf() <= 2 && cost < bestCost {
				best, bestCost = slices.Clone(g), cost
			}
			return
		}
		if !began {
			g[i] = -1
			try(i+1, false)
		}
		for fret := range frets {
			class := (tuned[order[i]-1].MIDI() + fret) % 12
			if slices.Contains(classes, class) && (began || anyBass || class == classes[0]) {
				g[i] = fret
				try(i+1, true)
			}
		}
	}
	try(0, false)
	return best, best != nil
}

// change strokes two chords in turn, with a rest in which the hand changes: that of the
// tonic and that of the fifth, or of the fourth where the fifth does not lie near the nut.
func change(s Spec, on instrument.Profile) ([]line, error) {
	if !on.Fretted() {
		return nil, fmt.Errorf("the %s has no frets", on)
	}
	tuned, order := open(on), usable(on)
	scale := s.degrees(s.tonicFrom(pitch.MustParse("C4")), 4, false)
	home, fits := stroke(scale[0], s.Form, tuned, order)
	away, fitsToo := stroke(scale[4], Major, tuned, order)
	if !fitsToo {
		away, fitsToo = stroke(scale[3], s.Form, tuned, order)
	}
	if !fits || !fitsToo {
		return nil, fmt.Errorf("the chords of %s %s do not lie under four fingers near the nut of the %s", s.Tonic, s.Form, on)
	}
	var steps []step
	for range 4 {
		steps = append(steps, home, step{long: quarter}, away, step{long: quarter})
	}
	home.long = whole
	return []line{{clefOf(on), append(steps, home)}}, nil
}

// stroke is a chord as it is held and called: "Am".
func stroke(root pitch.Pitch, form Form, tuned []pitch.Pitch, order []int) (step, bool) {
	mode, name := "major", strings.TrimRight(root.String(), "0123456789")
	if form != Major {
		mode = "minor"
	}
	key, err := pitch.KeyOf(name, mode)
	g, found := gripFor(root.MIDI(), form, tuned, order)
	if err != nil || !found {
		return step{}, false
	}
	var at []stop
	for i, fret := range g {
		if fret >= 0 {
			at = append(at, stop{order[i], fret})
		}
	}
	st := plucked(key, tuned, half+quarter, at...)
	st.words = name
	if form != Major {
		st.words += "m"
	}
	return st, true
}

// thumbTune plays the notes of a scale on the two highest strings, one a beat, while the
// thumb takes the lower open strings in turn on the first and third.
func thumbTune(s Spec, on instrument.Profile) ([]line, error) {
	key, _ := s.key()
	tuned, order := open(on), usable(on)
	if len(order) < 3 || len(on.Roll) == 0 {
		return nil, fmt.Errorf("a tune over the thumb needs three strings and fingers; the %s has not both", on)
	}
	high := order[len(order)-2:]
	var tune []stop
	for _, at := range high {
		for fret := range frets {
			p := tuned[at-1].MIDI() + fret
			spelled := key.Spell(p)
			belongs := key.Alter(spelled.Step()) == spelled.Alter()
			if belongs && (len(tune) == 0 || p > tune[len(tune)-1].on(tuned)) {
				tune = append(tune, stop{at, fret})
			}
		}
	}
	basses := order[:len(order)-2]
	basses = basses[max(0, len(basses)-2):]
	var steps []step
	for i, at := range slices.Concat(tune, back(tune)) {
		all := []stop{at}
		if i%2 == 0 {
			all = []stop{{basses[i/2%len(basses)], 0}, at}
		}
		steps = append(steps, plucked(key, tuned, quarter, all...))
	}
	return []line{{clefOf(on), steps}}, nil
}

// back is a run the other way, without its last.
func back(run []stop) []stop {
	out := slices.Clone(run[:len(run)-1])
	slices.Reverse(out)
	return out
}

// hammer sounds the second fret of each of the three highest strings from the open one by
// a falling finger, then the open one from the fret by pulling.
func hammer(_ Spec, on instrument.Profile) ([]line, error) {
	return pairs(on, [][2]int{{0, 2}, {2, 0}}, []string{"hammer", "pull"})
}

// slide glides from the second fret to the fourth and back on each of those strings.
func slide(_ Spec, on instrument.Profile) ([]line, error) {
	return pairs(on, [][2]int{{2, 4}, {4, 2}}, []string{"slide up", "slide back"})
}

// pairs slurs two frets of a string, twice a bar, on the three highest strings.
func pairs(on instrument.Profile, moves [][2]int, words []string) ([]line, error) {
	if !on.Fretted() {
		return nil, fmt.Errorf("the %s has no frets", on)
	}
	tuned, order := open(on), usable(on)
	var steps []step
	for _, at := range slices.Backward(order[max(0, len(order)-3):]) {
		for i, move := range moves {
			for n := range 2 {
				from, to := plucked(pitch.Key{}, tuned, quarter, stop{at, move[0]}), plucked(pitch.Key{}, tuned, quarter, stop{at, move[1]})
				from.slur = true
				if n == 0 {
					from.words = words[i]
				}
				steps = append(steps, from, to)
			}
		}
	}
	return []line{{clefOf(on), steps}}, nil
}
