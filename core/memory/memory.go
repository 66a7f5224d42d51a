// Package memory models how what was learnt is remembered, of a piece or of a card.
//
// A memory is a stability in days and a difficulty from 1 to 10, by the formulas and
// default weights of FSRS-6 (Free Spaced Repetition Scheduler, version 6, published by
// its authors, Open Spaced Repetition). Each hearing is a review.
package memory

import "math"

// A Grade is how a hearing went, 1 to 4.
type Grade int

// The grades, as a teacher names them.
const (
	FellApart Grade = iota + 1
	Rough
	Fine
	Easily
)

// w are the default weights of FSRS-6.
var w = [21]float64{0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796, 1.4835, 0.0614, 0.2629,
	1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542}

const (
	leastStability = 0.001 // days
	mostStability  = 36500
)

// What the formulas raise from the weights alone, reckoned once.
var (
	growth    = math.Exp(w[8])
	sameDay   = math.Exp(w[17] * w[18])
	easyStart = firstDifficulty(Easily)
)

// factor makes a memory of stability S days recalled with 90 % after S days.
var factor = math.Pow(0.9, -1/w[20]) - 1

// A Memory is what is left of a piece between hearings. The zero Memory is of
// a piece never heard.
type Memory struct {
	Stability  float64 // days until it would be recalled nine times in ten
	Difficulty float64 // 1 to 10
}

// Recall returns the retrievability after some days, from 1 down to 0:
// R = (1 + factor·t/S)^-w20. A piece never heard has 0.
func (m Memory) Recall(days float64) float64 {
	if m.Stability == 0 {
		return 0
	}
	return math.Pow(1+factor*days/m.Stability, -w[20])
}

// Heard returns the memory after a hearing, days after the one before.
func (m Memory) Heard(days float64, g Grade) Memory {
	if m.Stability == 0 {
		return Memory{Stability: w[g-1], Difficulty: clamp(firstDifficulty(g), 1, 10)}
	}
	s, d := m.Stability, m.Difficulty
	switch r := m.Recall(days); {
	case days == 0: // again on the same day
		inc := math.Pow(s, -w[19]) * math.Exp(w[17]*(float64(g)-3+w[18]))
		if g > FellApart {
			inc = math.Max(inc, 1)
		}
		s *= inc
	case g == FellApart:
		forgotten := w[11] * math.Pow(d, -w[12]) * (math.Pow(s+1, w[13]) - 1) * math.Exp((1-r)*w[14])
		s = math.Min(s/sameDay, clamp(forgotten, leastStability, mostStability))
	default:
		gain := growth * (11 - d) * math.Pow(s, -w[9]) * (math.Exp((1-r)*w[10]) - 1)
		if g == Rough {
			gain *= w[15]
		}
		if g == Easily {
			gain *= w[16]
		}
		s *= 1 + gain
	}
	step := -w[6] * (float64(g) - 3)
	next := d + step*(10-d)/9
	return Memory{
		Stability:  clamp(s, leastStability, mostStability),
		Difficulty: clamp(w[7]*easyStart+(1-w[7])*next, 1, 10),
	}
}

func firstDifficulty(g Grade) float64 { return w[4] - math.Exp(w[5]*(float64(g)-1)) + 1 }

func clamp(x, low, high float64) float64 { return math.Min(math.Max(x, low), high) }
