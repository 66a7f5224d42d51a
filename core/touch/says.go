package touch

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"patientladder/core/reason"
)

// fingerNames are fingers as they are said; what is none of them is said as it is written.
var fingerNames = map[string]string{"1": "thumb", "2": "second finger", "3": "third finger", "4": "fourth finger", "5": "little finger",
	"p": "thumb", "i": "index finger", "m": "middle finger", "a": "ring finger"}

// FingerName says a finger of a hand: right thumb, or ring finger where the hand needs no name.
func FingerName(hand, finger string) string {
	name, known := fingerNames[finger]
	if !known {
		name = "finger " + finger
	}
	if strings.Trim(finger, "pima") == "" {
		return name // plucking fingers are those of one hand
	}
	return strings.TrimSpace(hand + " " + name)
}

// Why says what was measured; even where there is nothing to say.
func (s Saying) Why() reason.Reason { return s.reason("take-") }

// Think says the one thing to think of.
func (s Saying) Think() reason.Reason { return s.reason("think-") }

func (s Saying) reason(code string) reason.Reason {
	args := []string{}
	add := func(name, value string) { args = append(args, name, value) }
	part := func(x float64) string { return strconv.Itoa(int(math.Round(100 * math.Abs(x)))) }
	whole := func(x float64) string { return strconv.Itoa(int(math.Round(math.Abs(x)))) }
	figure := s.Figure
	switch s.Figure {
	case "", "even":
		figure = "even"
	case Lope:
		if add("ratio", fmt.Sprintf("%.2f", max(s.Size, 1/s.Size))); s.Size < 1 {
			figure = "lope-short"
		}
	case Drift:
		add("part", part(s.Size))
		if figure = "slower"; s.Size < 0 {
			figure = "quicker"
		}
	case Spread:
		add("part", part(s.Size))
	case Slips, Stops:
		add("n", whole(s.Size))
	case Late, Early, Apart, Scatter:
		add("ms", whole(s.Size))
	case Strong, Weak:
		add("by", whole(s.Size))
	}
	if s.Finger != "" {
		add("finger", FingerName(s.Hand, s.Finger))
	}
	if s.Hand != "" {
		add("hand", s.Hand)
	}
	return reason.Of(code+figure, args...)
}
