package reading

import (
	"math"
	"slices"

	"patientladder/core/judgement"
	"patientladder/core/score"
)

// A phrase begins at a moment; strain says that a strain of the piece begins there too: after a
// repeat or a double bar line, at an ending, with another key or meter.
type phrase struct {
	at     Place
	strain bool
	four   bool    // whole fours of bars lie between the beginning of its strain and it
	worth  float64 // of the border before it
}

// phrases parts the piece where its tune breathes, the first phrase at its first note. The tune
// is the upper staff's. Where a strain ends a phrase ends. Else rests, long notes, slurs, breaths
// and fermatas, music that comes back and the habit of four bars are weighed against each
// other, by a dynamic programme over the notes: O(n) times the notes of the longest phrase. An
// upbeat belongs to the phrase that it leads into. Common practice, no source.
func (p Page) phrases() []phrase {
	if len(p.Staves) == 0 {
		return nil
	}
	st := p.Staves[0]
	line := st.Line
	long := p.usualBar(st)
	weights, strains := p.breaths(st, long)
	best, from := make([]float64, len(line)+1), make([]int, len(line)+1)
	bar := make([]float64, len(line)+1) // when each note begins, in usual bars
	for i := range line {
		bar[i] = line[i].Onset.Float() / long
	}
	end := &line[len(line)-1]
	bar[len(line)] = end.Onset.Add(end.Duration).Float() / long
	first := 0 // of the strain that i lies in
	for i := 1; i <= len(line); i++ {
		best[i] = math.Inf(-1)
		for k := i - 1; k >= first; k-- {
			bars := bar[i] - bar[k]
			if (bars > longestPhrase || i-k > mostInPhrase) && k < i-1 {
				break
			}
			worth := best[k]
			if k > 0 {
				worth += weights[k]
			}
			if worth <= best[i] {
				continue // its length can only cost
			}
			worth -= odd(bars)
			if i-k < 2 {
				worth -= lonely
			}
			if worth > best[i] {
				best[i], from[i] = worth, k
			}
		}
		if i < len(line) && strains[i] {
			first = i
		}
	}
	var out []phrase
	for i := len(line); i > 0; i = from[i] {
		k := from[i]
		out = append(out, phrase{at: line[k].at(), strain: strains[k], worth: weights[k]})
	}
	slices.Reverse(out)
	begins, k := bar[0], 0
	for i := range out {
		for line[k].at() != out[i].at {
			k++
		}
		if out[i].strain {
			begins = bar[k]
		}
		out[i].four = i > 0 && math.Mod(bar[k]-begins, 4) == 0
	}
	return out
}

// How phrases are weighed against each other. A judgement.
const (
	longestPhrase = 8   // in bars
	mostInPhrase  = 300 // moments with a note
	lonely        = 20  // cost of a phrase of one note
)

// odd is what a phrase costs by its length in bars: four cost nothing, two a little.
func odd(bars float64) float64 {
	whole := float64(int(bars + 0.5)) // the nearest; much is asked for it
	cost := 0.0
	switch {
	case whole == 4:
	case whole == 2:
		cost = judgement.PhraseTwo
	case whole == 3 || whole == 5:
		cost = judgement.PhraseOdd
	case whole == 8:
		cost = 2 * judgement.PhraseOdd
	case whole < 2:
		cost = 3 * judgement.PhraseOdd
	default:
		cost = 2.5 * judgement.PhraseOdd
	}
	return cost + judgement.PhraseOdd*min(1, math.Abs(bars-whole)*4)/2
}

// usualBar is how long a bar of the piece is, in quarter notes: as its first meter has it, or
// its longest bar.
func (p Page) usualBar(st Staff) float64 {
	bars := p.Score.Parts[st.Part].Bars
	longest := 0.0
	for _, b := range bars {
		if b.Meter != nil {
			return b.Meter.Length().Float()
		}
		longest = math.Max(longest, b.Length.Float())
	}
	return longest
}

// breaths weighs for each note of a staff how well a phrase may begin with it, and says where
// a strain does. A usual bar is so long, in quarter notes.
func (p Page) breaths(st Staff, long float64) (weights []float64, strains []bool) {
	line := st.Line
	weights, strains = make([]float64, len(line)), make([]bool, len(line))
	upbeat := p.upbeat(st)
	ends, begins := p.phraseEnds(st), p.strains()
	back := returns(line, long)
	middle := usualDuration(line)
	for i := 1; i < len(line); i++ {
		c, before := line[i], line[i-1]
		held := before.Duration.Float()
		rests := before.Onset.Add(before.Duration).Less(c.Onset)
		w := -judgement.PhraseBase
		if rests {
			held = c.Onset.Sub(before.Onset).Float()
			w += judgement.PhraseRest
		}
		if held >= 2*middle && held >= 1.5*c.Duration.Float() {
			w += judgement.PhraseLong * math.Min(2, held/(2*middle))
		}
		if ends[before.Onset] {
			w += judgement.PhraseBreath
		}
		w += judgement.PhraseAgain * back[i]
		b := p.Score.Parts[st.Part].Bars[c.Bar-1]
		switch left := b.Length.Sub(c.Beat); {
		case upbeat.Sign() > 0 && left == upbeat:
			w += judgement.PhraseUpbeat
		case c.Bar != before.Bar && c.Beat.Sign() == 0:
			w += judgement.PhraseBar
		case !rests && held < 2*middle:
			w -= judgement.PhraseBar // in the middle of a bar with nothing to breathe at
		}
		weights[i] = w
		for bar := before.Bar + 1; bar <= c.Bar; bar++ { // past rests too
			strains[i] = strains[i] || begins[bar]
		}
	}
	return weights, strains
}

// upbeat is the length of the pickup, nought where there is none.
func (p Page) upbeat(st Staff) score.Time {
	bars := p.Score.Parts[st.Part].Bars
	if len(bars) < 2 || len(st.Line) == 0 || st.Line[0].Bar != 1 {
		return score.Time{}
	}
	if up := bars[0].Length.Sub(st.Line[0].Beat); up.Less(bars[1].Length) {
		return up
	}
	return score.Time{}
}

// strains are the bars with which a strain begins.
func (p Page) strains() map[int]bool {
	out := map[int]bool{}
	for _, part := range p.Score.Parts {
		for i := 1; i < len(part.Bars); i++ {
			b, before := part.Bars[i], part.Bars[i-1]
			ended := before.Repeat.Ends > 0 || before.Double || b.Repeat.Starts
			newly := b.Key != nil || b.Meter != nil
			if ended || newly {
				out[i+1] = true
			}
		}
	}
	return out
}

// usualDuration is the median of a line's durations, in quarter notes.
func usualDuration(line []Chord) float64 {
	all := make([]float64, len(line))
	for i, c := range line {
		all[i] = c.Duration.Float()
	}
	slices.Sort(all)
	return all[len(all)/2]
}

// opens is how many notes must agree for music to be known again.
const opens = 3

// returns says of each note how much of the music that begins there was heard before, or comes
// again: the bars that agree, up to two, where what stands before it does not agree too.
func returns(line []Chord, bar float64) []float64 {
	out := make([]float64, len(line))
	same := func(i, k int) bool {
		return line[i].Duration == line[k].Duration && slices.Equal(line[i].Notes, line[k].Notes)
	}
	heard := make(map[mix]int, len(line)) // where music with these first notes began last, counted from 1
	before := make([]int, len(line))      // where it began before that
	for i := 0; i+opens <= len(line); i++ {
		var begins mix
		begins.time(line[i].Beat)
		for n := range opens {
			begins.add(uint64(line[i+n].Top().Line())<<8 | uint64(line[i+n].Top().MIDI()))
		}
		before[i] = heard[begins]
		heard[begins] = i + 1
		for k, few := before[i]-1, 16; k >= 0 && few > 0; k, few = before[k]-1, few-1 {
			if k > 0 && same(i-1, k-1) {
				continue
			}
			n := 0
			for i+n < len(line) && k+n < i && same(i+n, k+n) {
				n++
			}
			if n < opens {
				continue
			}
			bars := math.Min((line[i+n-1].Onset.Sub(line[i].Onset).Float()+line[i+n-1].Duration.Float())/bar, 2)
			if bars >= 1 {
				out[i] = math.Max(out[i], bars/2)
				out[k] = math.Max(out[k], bars/2)
			}
		}
	}
	return out
}
