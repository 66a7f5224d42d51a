// Package touch measures what was played in: how even it was in time and in strength, hand by hand
// and finger by finger, and says one figure and one finger to think of.
//
// What was played is aligned to what was asked (align.go), which bears wrong, missing and further
// notes; the figures (figures.go) are robust statistics of what is left. A figure is said only where
// it can be heard and is more than chance: what listeners notice in the time of a tone is 2.5 % of the
// interval, or 6 ms in intervals below 240 ms (Friberg & Sundberg, "Time discrimination in a
// monotonic, isochronous sequence", Journal of the Acoustical Society of America 98, 1995). Of two hands the
// ear tells which comes first from about 20 ms (Hirsh, "Auditory perception of temporal order",
// Journal of the Acoustical Society of America 31, 1959, from memory).
//
// Times are milliseconds, onsets quarter notes, strengths the velocities of MIDI 1.0, 1 to 127.
package touch

import (
	"cmp"
	"fmt"
	"math"
	"slices"
)

// MostStrokes is the longest take.
const MostStrokes = 20000

// A Stroke is a note as it was played: a key, or a tap without a pitch.
type Stroke struct {
	At       float64 `json:"at" minimum:"0" maximum:"86400000" doc:"milliseconds from the beginning of the take"`
	Length   float64 `json:"length,omitempty" minimum:"0" maximum:"86400000" doc:"milliseconds it was held; 0 for not known"`
	Key      int     `json:"key,omitempty" minimum:"0" maximum:"127" doc:"MIDI number; 0 for a tap"`
	Hand     string  `json:"hand,omitempty" enum:"left,right" doc:"of a tap, where each hand has its own place"`
	Strength int     `json:"strength,omitempty" minimum:"0" maximum:"127" doc:"MIDI velocity; 0 for not known"`
}

// A Due is a note that was asked for.
type Due struct {
	ID     string
	Onset  float64 // quarter notes
	Length float64 // quarter notes
	Key    int     // MIDI number; 0 for any
	Hand   string  // left, right, or empty where hands are not told apart
	Finger string  // empty for not known
}

// Check says what is wrong with a take.
func Check(played []Stroke) error {
	if len(played) > MostStrokes {
		return fmt.Errorf("a take of %d notes; %d is the longest", len(played), MostStrokes)
	}
	for i, s := range played {
		switch {
		case !(s.At >= 0 && s.At <= 24*3600e3):
			return fmt.Errorf("note %d begins at %v ms", i+1, s.At)
		case s.Key < 0 || s.Key > 127 || s.Strength < 0 || s.Strength > 127:
			return fmt.Errorf("note %d is none of MIDI: key %d, strength %d", i+1, s.Key, s.Strength)
		}
	}
	return nil
}

// A Measured is a take beside what was asked.
type Measured struct {
	Figures
	Notes []NoteWent `json:"notes" doc:"what was asked, note by note, in order"`
}

// A NoteWent is a note that was asked for, as it was played.
type NoteWent struct {
	ID   string  `json:"id"`
	Went string  `json:"went" enum:"right,wrong,missing"`
	Off  float64 `json:"off" doc:"milliseconds after the steady line; below nought before it"`
	Heft int     `json:"heft" doc:"strength over the usual of its hand; 0 where none is known"`
}

// Read measures a take beside what was asked, in any order of either. The beat is the milliseconds of
// a quarter note that was given, by a count or a click; 0 for none. An exercise that was played several
// times over is taken as often. O(n) in the notes where few of them are wrong, O(n²) at worst, within
// the bounds of a take.
func Read(asked []Due, played []Stroke, beat float64) (Measured, error) {
	if err := Check(played); err != nil {
		return Measured{}, err
	}
	if len(asked) == 0 {
		return Measured{}, fmt.Errorf("nothing was asked")
	}
	if len(asked) > MostStrokes {
		return Measured{}, fmt.Errorf("%d notes were asked; %d are the most", len(asked), MostStrokes)
	}
	played = slices.Clone(played)
	slices.SortStableFunc(played, func(a, b Stroke) int { return cmp.Compare(a.At, b.At) })
	asked = rounds(asked, len(played))
	shift(asked, played)
	a := align(asked, played, beat)
	return measure(a), nil
}

// mostRounds is how often an exercise may be played over in one take.
const mostRounds = 64

// rounds repeats what was asked as often as what was played holds it, whole beats apart, and puts it
// in order.
func rounds(asked []Due, played int) []Due {
	times := min(max(1, int(math.Round(float64(played)/float64(len(asked))))), mostRounds, MostStrokes/len(asked))
	end := 0.0
	for _, d := range asked {
		end = max(end, d.Onset+d.Length)
	}
	out := make([]Due, 0, times*len(asked))
	for k := range times {
		for _, d := range asked {
			d.Onset += float64(k) * math.Ceil(end)
			out = append(out, d)
		}
	}
	return sorted(out)
}

// sorted puts notes in order of time, and of height at one time.
func sorted(asked []Due) []Due {
	before := func(a, b Due) int {
		return cmp.Or(cmp.Compare(a.Onset, b.Onset), cmp.Compare(a.Key, b.Key))
	}
	if slices.IsSortedFunc(asked, before) {
		return asked
	}
	return slices.SortedStableFunc(slices.Values(asked), before)
}

// shift moves what was asked by the whole octaves in which most of it was played: a small keyboard has
// no other place for it.
func shift(asked []Due, played []Stroke) {
	var want, got [128]int
	for _, d := range asked {
		want[d.Key]++
	}
	for _, s := range played {
		got[s.Key]++
	}
	best, most := 0, 0
	for _, by := range []int{0, 12, -12, 24, -24, 36, -36} {
		same := 0
		for key := 1; key < 128; key++ {
			if to := key + by; to > 0 && to < 128 {
				same += min(want[key], got[to])
			}
		}
		if same > most {
			best, most = by, same
		}
	}
	for i := range asked {
		if k := asked[i].Key; k > 0 && k+best > 0 && k+best < 128 {
			asked[i].Key = k + best
		}
	}
}
