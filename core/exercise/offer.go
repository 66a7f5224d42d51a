package exercise

import (
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
)

// An Offer is a kind of exercise as it may be chosen on an instrument.
type Offer struct {
	Kind  Kind         `json:"kind"`
	Name  reason.Label `json:"name"`
	Group reason.Label `json:"group" doc:"under which it stands"`
	// Asks are what may be chosen of it.
	Asks  []string `json:"asks" doc:"what may be chosen: tonic, form, hands, octaves or pick"`
	Picks []string `json:"picks" doc:"of a roll, a figure or a cross-rhythm: those to choose from"`
}

// The groups under which kinds stand.
var (
	scales   = reason.Said("exercise-group.scales")
	patterns = reason.Said("exercise-group.patterns")
	chords   = reason.Said("exercise-group.chords")
	loud     = reason.Said("exercise-group.loudness")
	against  = reason.Said("exercise-group.cross-rhythms")
	bow      = reason.Said("exercise-group.bow")
	leftHand = reason.Said("exercise-group.left-hand")
	doubled  = reason.Said("exercise-group.two-strings")
	plucking = reason.Said("exercise-group.rolls")
)

// What kinds let one choose.
var (
	inKey   = []string{"tonic", "form"}
	byHand  = []string{"tonic", "form", "hands"}
	handled = []string{"tonic", "form", "hands", "octaves"}
	ranged  = []string{"tonic", "form", "octaves"}
	picked  = []string{"pick"}
)

// usualPicks are those that are offered, by kind. Common practice, no source.
var usualPicks = map[Kind][]string{
	Roll:   {"pima", "pami", "pimami", "pim", "pmi", "pimi"},
	Figure: {"14253524", "1353", "125343"},
	Cross:  {"2:3", "3:2", "3:4", "4:3", "2:5", "5:2", "3:5", "5:3", "4:5", "5:4"},
}

// offers are the kinds by family, in the order in which they are shown.
var offers = map[instrument.Family][]Offer{
	instrument.Keyboard: {
		offered(Scale, scales, handled...), offered(Half, scales, byHand...), offered(Duet, scales, byHand...),
		offered(MeetOnly, scales, ranged...), offered(Cycle, scales, "form", "hands"), offered(Chromatic, scales, "tonic", "hands", "octaves"),
		offered(Five, patterns, byHand...), offered(Skips, patterns, byHand...), offered(Figure, patterns, "pick", "tonic", "form", "hands"),
		offered(Thirds, patterns, byHand...), offered(Sixths, patterns, byHand...),
		offered(Chord, chords, byHand...), offered(Arpeggio, chords, handled...),
		offered(Levels, loud, byHand...), offered(Shaped, loud, byHand...), offered(Voicing, loud, inKey...),
		offered(Cross, against, "pick", "tonic"),
	},
	instrument.Bowed: {
		offered(Bows, bow), offered(Divide, bow),
		offered(Scale, scales, ranged...), offered(Arpeggio, scales, ranged...),
		offered(Pattern, leftHand, inKey...), offered(Shift, leftHand),
		offered(DoubleOpen, doubled), offered(DoubleNear, doubled),
	},
	instrument.Plucked: {
		offered(Roll, plucking, picked...), offered(ThumbTune, plucking, inKey...),
		offered(Scale, scales, ranged...), offered(Shape, scales, inKey...), offered(Arpeggio, scales, ranged...),
		offered(Change, chords, inKey...),
		offered(Hammer, leftHand), offered(Slide, leftHand),
	},
	instrument.Other: {offered(Scale, scales, ranged...), offered(Arpeggio, scales, ranged...)},
}

// offered is a kind with what may be chosen of it; nothing where it is one alone.
func offered(k Kind, group reason.Label, asks ...string) Offer {
	return Offer{k, reason.Said("exercise-kind." + string(k)), group, append([]string{}, asks...), nil}
}

// For lists what may be made for an instrument: a kind of which nothing lies on it is
// not offered.
func For(on instrument.Profile) []Offer {
	var out []Offer
	for _, o := range offers[on.Family] {
		o.Picks = slices.DeleteFunc(slices.Clone(usualPicks[o.Kind]), func(pick string) bool { return !o.lies(pick, on) })
		if o.Picks == nil {
			o.Picks = []string{}
		}
		if len(o.Picks) > 0 || len(usualPicks[o.Kind]) == 0 && (on.Family == instrument.Keyboard || o.lies("", on)) {
			out = append(out, o)
		}
	}
	return out
}

// Offer returns how an exercise is offered on an instrument; false where it is not.
func (s Spec) Offer(on instrument.Profile) (Offer, bool) {
	i := slices.IndexFunc(offers[on.Family], func(o Offer) bool { return o.Kind == s.Kind })
	if i < 0 {
		return Offer{}, false
	}
	return offers[on.Family][i], true
}

// All lists what may be made for an instrument in every key, major and harmonic minor, of one
// and of two octaves, both hands where there are two; not all of it lies on every string.
func All(on instrument.Profile) []Spec {
	var out []Spec
	for _, o := range offers[on.Family] {
		specs := []Spec{{Kind: o.Kind}}
		choose := func(ask string, set func(Spec, string) Spec, from ...string) {
			if !slices.Contains(o.Asks, ask) {
				return
			}
			var more []Spec
			for _, s := range specs {
				for _, one := range from {
					more = append(more, set(s, one))
				}
			}
			specs = more
		}
		choose("form", func(s Spec, f string) Spec { s.Form = Form(f); return s }, string(Major), string(Harmonic))
		choose("hands", func(s Spec, h string) Spec { s.Hands = Hands(h); return s }, string(Both))
		choose("pick", func(s Spec, p string) Spec { s.Pick = p; return s }, usualPicks[o.Kind]...)
		choose("octaves", func(s Spec, n string) Spec { s.Octaves, _ = strconv.Atoi(n); return s }, "1", "2")
		if !slices.Contains(o.Asks, "tonic") {
			out = append(out, specs...)
			continue
		}
		for _, s := range specs {
			for _, tonic := range Tonics(s.Usual().Form) {
				s.Tonic = tonic
				out = append(out, s)
			}
		}
	}
	return out
}

// lies reports whether a kind can be made on an instrument, in some key.
func (o Offer) lies(pick string, on instrument.Profile) bool {
	return slices.ContainsFunc(Tonics(Major), func(tonic string) bool {
		_, err := Make(Spec{Kind: o.Kind, Tonic: tonic, Pick: pick}, on)
		return err == nil
	})
}

// Tonics lists the tonics of a form as they are usually written, by semitone from C.
// Common practice, no source.
func Tonics(f Form) []string {
	if f == Major {
		return []string{"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"}
	}
	return []string{"C", "C#", "D", "Eb", "E", "F", "F#", "G", "G#", "A", "Bb", "B"}
}

// A carry is what a kind brings or asks for, by the ids of the skill graph: the least
// that the kind says.
type carry func(Spec) string

func always(skill string) carry { return func(Spec) string { return skill } }

// inHands is the skill of a pattern in one hand, in both, and mirrored.
func inHands(s Spec) string {
	switch s.Hands {
	case Both:
		return "parallel-hands"
	case Mirrored:
		return "mirrored-hands"
	}
	return "five-fingers"
}

var carries = map[instrument.Family]map[Kind]carry{
	instrument.Keyboard: {
		Scale: func(s Spec) string {
			switch {
			case s.Octaves > 1:
				return "scale-two"
			case s.Form != Major:
				return "scale-minor"
			case black(s.tonicFrom(pitch.MustParse("C4"))):
				return "scale-black"
			}
			return "scale-white"
		},
		Five: inHands, Skips: inHands,
		Half: always("scale-halves"), Duet: always("scale-halves"), MeetOnly: always("meeting-points"), Cycle: always("scale-black"),
		Figure: always("figure-drill"), Chord: always("chord-broken"), Arpeggio: always("arpeggio"),
		Levels: always("six-levels"), Shaped: always("swell"), Voicing: always("voicing"),
		Cross: func(s Spec) string {
			switch s.Pick {
			case "2:3", "3:2":
				return "two-against-three"
			case "3:4", "4:3":
				return "three-against-four"
			}
			return ""
		},
	},
	instrument.Bowed: {
		Scale: func(s Spec) string {
			if s.Octaves > 1 {
				return "scale-bowed-two"
			}
			return "scale-bowed"
		},
		Bows: always("long-bows"), Divide: always("quick-bows"), Pattern: always("stepping-fingers"), Shift: always("shift-up"),
		DoubleOpen: always("double-open"), DoubleNear: always("double-notes"),
	},
	instrument.Plucked: {
		Scale: always("scale-plucked"), Change: always("chord-change"), ThumbTune: always("tune-and-bass"), Hammer: always("hammer"), Slide: always("slide"), Shape: always("shift-neck"),
		Roll: func(s Spec) string {
			switch s.Pick {
			case "pima", "pami":
				return s.Pick
			case "pimami":
				return "six-pattern"
			}
			return ""
		},
	},
}

// Skills are what an exercise brings or asks for of a student.
func (s Spec) Skills(on instrument.Profile) []string {
	s = s.Usual()
	if of, told := carries[on.Family][s.Kind]; told {
		if skill := of(s); skill != "" {
			return []string{skill}
		}
	}
	return []string{}
}
