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
	{Key: "joints-cave", Family: instrument.Keyboard, Hands: true},
	{Key: "thumb-squeezes", Family: instrument.Bowed},
	{Key: "bow-drifts", Family: instrument.Bowed},
	{Key: "wrist-sideways", Family: instrument.Plucked},
	{Key: "shoulders-up", Family: instrument.Shared},
	{Key: "wrist-low", Family: instrument.Keyboard},
	{Key: "little-flat", Family: instrument.Keyboard},
	{Key: "thumb-flat", Family: instrument.Keyboard},
	{Key: "idle-fingers", Family: instrument.Shared},
	{Key: "claw", Family: instrument.Shared},
	{Key: "fingers-lifted", Family: instrument.Keyboard},
	{Key: "wrist-high", Family: instrument.Keyboard},
	{Key: "wrist-pumps", Family: instrument.Keyboard},
	{Key: "hand-twists", Family: instrument.Keyboard},
	{Key: "hand-drifts", Family: instrument.Keyboard},
	{Key: "arm-dragged", Family: instrument.Keyboard},
	{Key: "sits-back", Family: instrument.Shared},
	{Key: "plucks-far", Family: instrument.Plucked},
	{Key: "too-fast", Family: instrument.Shared},
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
