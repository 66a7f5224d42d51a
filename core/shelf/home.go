package shelf

import (
	"fmt"
	"slices"

	"patientladder/core/instrument"
	"patientladder/core/reason"
)

// A Home is the profile of the instrument a student practises on, or the
// studio's: what can be asked of it. The zero Home can do everything.
type Home struct {
	Keys      int  `json:"keys" doc:"of a keyboard: 25 to 97; 0 for a full one or another instrument"`
	NoTouch   bool `json:"noTouch" doc:"the keys do not answer to touch"`
	NoPedals  bool `json:"noPedals"`
	SmallSize bool `json:"smallSize" doc:"a half- or three-quarter-size instrument"`

	// Where one sits, in cm; 0 for what is not known.
	KeyTops   float64 `json:"keyTops" minimum:"0" maximum:"150" doc:"cm from the floor to the tops of the white keys"`
	BenchLow  float64 `json:"benchLow" minimum:"0" maximum:"150" doc:"cm of the seat at its lowest setting"`
	BenchHigh float64 `json:"benchHigh" minimum:"0" maximum:"150" doc:"cm of the seat at its highest setting; the same where it cannot be set"`
	Tile      float64 `json:"tile" minimum:"0" maximum:"20" doc:"cm that one firm tile adds"`
}

// things are what an item may ask of an instrument.
var things = []string{"touch", "pedals"}

// touch and pedal list the skills that need what not every keyboard has.
var (
	touch = []string{"loud-soft", "six-levels", "swell", "accents", "voicing", "tune-changes-hand", "voice-in-hand"}
	pedal = []string{"pedal-joined"}
)

// Check says what is wrong with a profile.
func (h Home) Check() error {
	if h.Keys != 0 && (h.Keys < 25 || h.Keys > 97) {
		return fmt.Errorf("a keyboard has 25 to 97 keys, not %d", h.Keys)
	}
	return nil
}

// Lacks returns why an item cannot be practised there on an instrument, or nil.
func (h Home) Lacks(plays instrument.Profile, it Item) *reason.Reason {
	if plays.Family != instrument.Keyboard {
		return nil
	}
	if h.Keys == 0 {
		h.Keys = plays.Keys
	}
	no := func(what string) *reason.Reason {
		r := reason.Of("home-lacks", "title", it.Title, "what", what)
		return &r
	}
	asks := func(what string, skills []string) bool {
		return slices.Contains(it.Asks, what) || slices.ContainsFunc(it.Brings, func(id string) bool { return slices.Contains(skills, id) })
	}
	if h.NoTouch && asks("touch", touch) {
		return no("touch")
	}
	if h.NoPedals && asks("pedals", pedal) {
		return no("pedals")
	}
	if low, high := instrument.Compass(h.Keys); it.High > 0 && (it.Low < low || it.High > high) {
		return no("keys")
	}
	return nil
}
