package reading

import (
	"strconv"
	"strings"

	"patientladder/core/reason"
	"patientladder/core/score"
)

// Minute returns what a teacher reads off a score in a minute: how much there is
// to learn, where each hand starts, where it moves and where it leaps. keyboard
// says whether hands have five-finger positions.
func Minute(s score.Score, keyboard bool) []reason.Reason {
	var out []reason.Reason
	say := func(code string, pairs ...string) { out = append(out, reason.Of(code, pairs...)) }
	say("minute-figures", "bars", strconv.Itoa(s.Bars()), "figures", strconv.Itoa(ToLearn(Figures(s))))
	for _, p := range s.Parts {
		for staff := 1; staff <= p.Staves; staff++ {
			line := Line(p, staff, s.Written())
			if len(line) == 0 {
				continue
			}
			hand := Right
			if staff > 1 {
				hand = Left
			}
			if !keyboard {
				say("minute-start", "key", line[0].Top().String())
			} else {
				positions := Positions(line, hand)
				say("minute-start-hand", "hand", string(hand), "finger", positions[0].Fingers[0], "key", line[0].Top().String())
				for _, m := range []Move{Crossing, Jump} {
					if bars := barsOf(positions, m); bars != "" {
						say("minute-"+string(m), "hand", string(hand), "bars", bars)
					}
				}
			}
			if at, leap := widest(line); leap.Number >= 5 {
				say("minute-leap", "hand", string(hand), "bar", strconv.Itoa(at.Bar), "leap", leap.Name)
			}
		}
	}
	return out
}

// barsOf lists the bars in which the hand moves in one way, each once.
func barsOf(positions []Position, m Move) string {
	var bars []string
	last := 0
	for _, p := range positions {
		if p.Move == m && p.Bar != last {
			bars, last = append(bars, strconv.Itoa(p.Bar)), p.Bar
		}
	}
	return strings.Join(bars, ", ")
}

// widest returns the chord after the widest melodic interval, the first of
// several as wide.
func widest(line []Chord) (at Chord, leap Interval) {
	for i, interval := range Melodic(line) {
		if interval.Number > leap.Number {
			at, leap = line[i+1], interval
		}
	}
	return at, leap
}
