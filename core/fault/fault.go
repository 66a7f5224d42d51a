// Package fault names what goes wrong with body and hand at an instrument, what
// to try and why. One, at most two, are spoken of at a time. All of it is common
// practice, no source.
package fault

import (
	"slices"

	"patientladder/core/instrument"
)

// A Fault is one of them.
type Fault struct {
	Key    string            `json:"key"`
	Seen   string            `json:"seen"`
	Try    string            `json:"try"`
	Why    string            `json:"why"`
	Family instrument.Family `json:"family" enum:"shared,keyboard,bowed,plucked"`
	Hands  bool              `json:"hands" doc:"the adult touches the student's hand: ask first, every time"`
}

// All lists the faults, those seen most often first.
var All = []Fault{
	{"joints-cave", "end joints cave in", "lighter arm, one finger at a time, a fingertip of yours behind the joint", "slips, slow, strain", instrument.Keyboard, true},
	{"thumb-squeezes", "left thumb squeezes", "slide the thumb, tap it", "shifts stick, cramps", instrument.Bowed, false},
	{"bow-drifts", "bow drifts, bow not straight", "mirror; half bows", "scratch", instrument.Bowed, false},
	{"wrist-sideways", "plucking wrist bent sideways", "bend it up instead; let the hand fall naturally", "scrapes, strain", instrument.Plucked, false},
	{"shoulders-up", "shoulders up, neck stiff, breath held", "stop, breathe, shake out, smaller task", "the body tightens while thinking", instrument.Shared, false},
	{"wrist-low", "wrist under the keys, or resting on the edge", "seat height; let the wrist float", "blocked fingers", instrument.Keyboard, false},
	{"little-flat", "little finger lies flat", "turn the hands slightly inward, play on its tip", "weak tone, the wrist follows", instrument.Keyboard, false},
	{"thumb-flat", "thumb lies on its length", "corner of the thumb, wrist a little higher", "strikes two keys, stalls crossings", instrument.Keyboard, false},
	{"idle-fingers", "idle fingers stick out or curl away", "rest them where they play next; slow", "tension, late arrivals", instrument.Shared, false},
	{"claw", "claw from a round hand", "drop the image; a hanging hand", "tension", instrument.Shared, false},
	{"fingers-lifted", "fingers lifted high, arm asleep", "drop the arm's weight on one finger", "weak sound, tired hand", instrument.Keyboard, false},
	{"wrist-high", "wrist very high", "seat height; let it sink", "thin sound", instrument.Keyboard, false},
	{"wrist-pumps", "wrist pumps at each note", "one movement a group", "noise, fatigue", instrument.Keyboard, false},
	{"hand-twists", "hand twists at a thumb crossing", "thumb starts early from its base, the arm glides", "bump in the line", instrument.Keyboard, false},
	{"hand-drifts", "hand drifts while eyes are on the page", "one finger a key, start position again, shorter chunk", "wrong notes", instrument.Keyboard, false},
	{"arm-dragged", "whole arm dragged down after the thumb", "keep the arch", "the hand loses its place", instrument.Keyboard, false},
	{"sits-back", "sits back, leans on the backrest, too near", "front of the seat", "no weight into the sound", instrument.Shared, false},
	{"plucks-far", "plucking too far from the bridge", "move back", "dull", instrument.Plucked, false},
	{"too-fast", "too fast for the hand", "half the speed, one aim", "what is smooth to see is smooth to hear", instrument.Shared, false},
}

// For returns the faults of a family's instruments: its own before the shared.
func For(f instrument.Family) []Fault {
	var own, shared []Fault
	for _, x := range All {
		switch x.Family {
		case f:
			own = append(own, x)
		case instrument.Shared:
			shared = append(shared, x)
		}
	}
	return slices.Concat(own, shared)
}

// Named finds a fault by key.
func Named(key string) (Fault, bool) {
	i := slices.IndexFunc(All, func(x Fault) bool { return x.Key == key })
	if i < 0 {
		return Fault{}, false
	}
	return All[i], true
}
