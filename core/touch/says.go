package touch

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"patientladder/core/reason"
)

// Finger is a finger of a hand as catalogues name it: right-2, or a where the hand needs no name.
func Finger(hand, finger string) string {
	if hand == "" || strings.Trim(finger, "pima") == "" {
		return finger // plucking fingers are those of one hand
	}
	return hand + "-" + finger
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
		add("finger", Finger(s.Hand, s.Finger))
	}
	if s.Hand != "" {
		add("hand", s.Hand)
	}
	return reason.Of(code+figure, args...)
}
