package touch

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"

	"patientladder/core/judgement"
	"patientladder/core/reason"
)

// A TapStep is one on the way to a cross-rhythm, tapped with a finger of each hand. Its onsets are
// pulses: a quarter note is a pulse.
type TapStep struct {
	Key   string       `json:"key" doc:"as tap 3:2 switch"`
	Name  reason.Label `json:"name"`
	Why   reason.Label `json:"why" doc:"what it is for"`
	Holds bool         `json:"holds" doc:"it held when it was tapped last"`
	Pulse float64      `json:"pulse" doc:"milliseconds, to begin with"`
	kind  string
	right int
	left  int
}

var stepKey = regexp.MustCompile(`^tap ([2-5]):([2-5]) (pulse|right|left|switch|apart|together)$`)

// Steps is the chain to a cross-rhythm of so many notes in the right hand against so many in the left:
// a steady pulse, each by itself, the two switched at one pulse, different touches in the hands, then
// both away from the instrument. Common practice, no source.
func Steps(right, left int) []TapStep {
	list := []TapStep{{kind: "pulse"}, {kind: "right"}, {kind: "left"}, {kind: "switch"}, {kind: "apart"}, {kind: "together"}}
	for i := range list {
		s := &list[i]
		s.right, s.left, s.Pulse = right, left, 1600
		s.Key = fmt.Sprintf("tap %d:%d %s", right, left, s.kind)
		s.Name = reason.SaidOf("tap."+s.kind, "right", strconv.Itoa(right), "left", strconv.Itoa(left))
		s.Why = reason.Said("tap." + s.kind + "-why")
	}
	return list
}

// StepOf finds a step by its key.
func StepOf(key string) (TapStep, bool) {
	m := stepKey.FindStringSubmatch(key)
	if m == nil {
		return TapStep{}, false
	}
	list := Steps(int(m[1][0]-'0'), int(m[2][0]-'0'))
	i := slices.IndexFunc(list, func(s TapStep) bool { return s.kind == m[3] })
	return list[i], true
}

// pulses is how long a step is tapped.
const pulses = 4

// Dues are the strokes of a step.
func (s TapStep) Dues() []Due {
	var out []Due
	for p := range pulses {
		hand := func(name string, parts int) {
			for i := range parts {
				out = append(out, Due{ID: fmt.Sprintf("%s-%d-%d", name, p, i), Onset: float64(p) + float64(i)/float64(parts), Length: 1 / float64(parts), Hand: name})
			}
		}
		switch {
		case s.kind == "pulse":
			hand("right", 1)
		case s.kind == "right", s.kind == "switch" && p%2 == 0:
			hand("right", s.right)
		case s.kind == "left", s.kind == "switch":
			hand("left", s.left)
		case s.kind == "apart":
			hand("right", s.right)
			hand("left", 1)
		default:
			hand("right", s.right)
			hand("left", s.left)
		}
	}
	return out
}

// Held reports whether a step was tapped as it should be: every stroke, and each hand on its line
// within a part of its own interval.
func (s TapStep) Held(m Measured) bool {
	if m.Wrong+m.Missing+m.Extra+m.Stops > 0 {
		return false
	}
	for _, h := range m.Hands {
		parts := s.right
		switch {
		case s.kind == "pulse", s.kind == "apart" && h.Hand == "left":
			parts = 1
		case h.Hand == "left":
			parts = s.left
		}
		if h.Off > judgement.TapOff*m.Beat/float64(parts) {
			return false
		}
	}
	return true
}

// Worst is the hand that is furthest off the line, in milliseconds.
func (m Measured) Worst() float64 {
	off := 0.0
	for _, h := range m.Hands {
		off = math.Max(off, h.Off)
	}
	return off
}
