package touch

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// A Setting says how the simulated keyboard plays: nought throughout is even, in time and in strength.
type Setting struct {
	Spread float64 `json:"spread,omitempty" minimum:"0" maximum:"30" doc:"standard deviation of the intervals, in per cent of them"`
	Lope   float64 `json:"lope,omitempty" minimum:"0" maximum:"3" doc:"how long the first of two is beside the second; 0 and 1 for even"`
	Drift  float64 `json:"drift,omitempty" minimum:"-50" maximum:"50" doc:"per cent by which the last interval is longer than the first"`
	Thumb  float64 `json:"thumb,omitempty" minimum:"-60" maximum:"60" doc:"strength of the thumb over the others"`
	Fourth float64 `json:"fourth,omitempty" minimum:"-60" maximum:"60" doc:"strength of the fourth finger, the ring finger, over the others"`
	Late   float64 `json:"late,omitempty" minimum:"-200" maximum:"200" doc:"milliseconds that the fourth finger comes late"`
	Apart  float64 `json:"apart,omitempty" minimum:"-200" maximum:"200" doc:"milliseconds that the left hand comes after the right"`
	Slips  float64 `json:"slips,omitempty" minimum:"0" maximum:"50" doc:"per cent of the notes that are wrong, missing or one too many"`
	Beat   float64 `json:"beat" minimum:"100" maximum:"5000" doc:"milliseconds of a quarter note"`
	Seed   uint64  `json:"seed,omitempty" maximum:"9007199254740991" doc:"the same seed plays the same"`
}

// level is the strength at which the simulated keyboard plays.
const level = 64

// Simulate plays what is asked as a setting has it.
func Simulate(asked []Due, set Setting) []Stroke {
	asked = sorted(asked)
	list := moments(asked)
	random := rand.New(rand.NewPCG(set.Seed, 7))
	lope := cmp.Or(set.Lope, 1)
	at, off := 0.0, 0.0 // each interval is off by itself: what comes early now is not made good later
	var out []Stroke
	for i, m := range list {
		late := 0.0
		if i > 0 {
			step := m.onset - list[i-1].onset
			beat := set.Beat * math.Pow(1+set.Drift/100, (list[i-1].onset-list[0].onset)/(list[len(list)-1].onset-list[0].onset))
			at += step * beat
			off += random.NormFloat64() * set.Spread / 100 * step * beat
			if n := m.onset / step; math.Abs(n-math.Round(n)) < 1e-3 && math.Mod(math.Round(n), 2) == 1 {
				late = (lope - 1) / (lope + 1) * step * beat // the second of two; the next first is in time again
			}
		}
		for _, d := range m.dues {
			s := set.touch(asked[d], random)
			s.At += at + off + late
			out = append(out, slip(s, set, random)...)
		}
	}
	slices.SortStableFunc(out, func(a, b Stroke) int { return cmp.Compare(a.At, b.At) })
	for i := len(out) - 1; i >= 0; i-- {
		out[i].At -= min(0, out[0].At)
	}
	return out
}

// touch is a note as its finger plays it, beside the moment at which it is due.
func (set Setting) touch(d Due, random *rand.Rand) Stroke {
	s := Stroke{Length: d.Length * set.Beat * 0.9, Key: d.Key}
	if s.Key == 0 {
		s.Hand = d.Hand
	}
	strength := level + random.NormFloat64()*set.Spread/2
	switch d.Finger {
	case "1", "p":
		strength += set.Thumb
	case "4", "a":
		strength += set.Fourth
		s.At += set.Late
	}
	if d.Hand == "left" {
		s.At += set.Apart
	}
	s.Strength = int(math.Round(min(max(strength, 1), 127)))
	return s
}

// slip lets some strokes be wrong, missing or one too many.
func slip(s Stroke, set Setting, random *rand.Rand) []Stroke {
	if random.Float64() >= set.Slips/100 {
		return []Stroke{s}
	}
	next := s
	if s.Key > 0 {
		next.Key = min(s.Key+1, 127)
	}
	switch random.IntN(3) {
	case 0:
		return nil
	case 1:
		return []Stroke{next}
	}
	next.At += set.Beat / 8
	return []Stroke{s, next}
}
