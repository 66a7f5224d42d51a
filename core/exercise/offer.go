package exercise

import (
	"patientladder/core/instrument"
	"patientladder/core/pitch"
)

// An Offer is a kind of exercise as it may be chosen on an instrument.
type Offer struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
	// Asks are what may be chosen of it: tonic, form, hands, octaves, fingers.
	Asks  []string `json:"asks" nullable:"false" doc:"what may be chosen: tonic, form, hands, octaves or fingers"`
	Rolls []string `json:"rolls" nullable:"false" doc:"of a roll: the orders of fingers to choose from"`
}

// rolls are usual orders of plucking fingers. Common practice, no source.
var rolls = []string{"pima", "pami", "pimami", "pim", "pmi", "pimi"}

// offers are the kinds by family, in the order in which they are shown.
var offers = map[instrument.Family][]Offer{
	instrument.Keyboard: {
		{Five, "Five fingers", []string{"tonic", "form", "hands"}, nil},
		{Skips, "Skips and chord", []string{"tonic", "form", "hands"}, nil},
		{Half, "Half a scale", []string{"tonic", "form", "hands"}, nil},
		{Scale, "Scale", []string{"tonic", "form", "hands", "octaves"}, nil},
		{Cycle, "Twelve keys", []string{"form", "hands"}, nil},
		{Chord, "Chord", []string{"tonic", "form", "hands"}, nil},
		{Chromatic, "Chromatic", []string{"tonic", "hands", "octaves"}, nil},
		{Levels, "Six levels", []string{"tonic", "form", "hands"}, nil},
	},
	instrument.Bowed: {
		{Bows, "Long bows", []string{}, nil},
		{Pattern, "Fingers by string", []string{"tonic", "form"}, nil},
		{Scale, "Scale", []string{"tonic", "form", "octaves"}, nil},
		{DoubleOpen, "Two open strings", []string{}, nil},
	},
	instrument.Plucked: {
		{Roll, "Roll", []string{"fingers"}, nil},
		{Scale, "Scale", []string{"tonic", "form", "octaves"}, nil},
	},
	instrument.Other: {{Scale, "Scale", []string{"tonic", "form", "octaves"}, nil}},
}

// For lists what may be made for an instrument.
func For(on instrument.Profile) []Offer {
	var out []Offer
	for _, o := range offers[on.Family] {
		o.Rolls = []string{}
		if o.Kind == Roll {
			for _, fingers := range rolls {
				if _, err := roll(Spec{Fingers: fingers}, on); err == nil {
					o.Rolls = append(o.Rolls, fingers)
				}
			}
			if len(o.Rolls) == 0 {
				continue
			}
		}
		out = append(out, o)
	}
	return out
}

// Tonics lists the tonics of a form as they are usually written, by semitone from C.
// Common practice, no source.
func Tonics(f Form) []string {
	if f == Major {
		return []string{"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"}
	}
	return []string{"C", "C#", "D", "Eb", "E", "F", "F#", "G", "G#", "A", "Bb", "B"}
}

// Skills are what an exercise brings or asks for of a student, by the ids of the skill
// graph: the least that its kind says.
func (s Spec) Skills(on instrument.Profile) []string {
	s = s.usual()
	tonic := s.tonicFrom(pitch.MustParse("C4"))
	switch {
	case on.Family == instrument.Keyboard:
		switch s.Kind {
		case Scale:
			switch {
			case s.Octaves > 1:
				return []string{"scale-two"}
			case s.Form != Major:
				return []string{"scale-minor"}
			case black(tonic):
				return []string{"scale-black"}
			}
			return []string{"scale-white"}
		case Five, Skips, Half:
			switch s.Hands {
			case Both:
				return []string{"parallel-hands"}
			case Mirrored:
				return []string{"mirrored-hands"}
			}
			return []string{"five-fingers"}
		case Chord:
			return []string{"chord-broken"}
		case Levels:
			return []string{"six-levels"}
		}
	case on.Family == instrument.Bowed:
		switch s.Kind {
		case Scale:
			if s.Octaves > 1 {
				return []string{"scale-bowed-two"}
			}
			return []string{"scale-bowed"}
		case Bows:
			return []string{"long-bows"}
		case Pattern:
			return []string{"stepping-fingers"}
		case DoubleOpen:
			return []string{"double-open"}
		}
	case on.Family == instrument.Plucked:
		switch {
		case s.Kind == Scale:
			return []string{"scale-plucked"}
		case s.Fingers == "pima" || s.Fingers == "pami":
			return []string{s.Fingers}
		}
	}
	return []string{}
}
