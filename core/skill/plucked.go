package skill

import "patientladder/core/instrument"

// plucked are the skills of plucked strings.
var plucked = []row{
	{"guitar-seat", instrument.Plucked, Posture, 0.7, nil, chain{{1, 1, "", ""}}},
	{"resting-hand", instrument.Plucked, Hands, 0.8, nil, chain{{1, 1, "", ""}}},
	{"flush-stroke", instrument.Plucked, Hands, 0.8, rests{"resting-hand"}, chain{{1, 1, "", ""}}},
	{"alternating", instrument.Plucked, Hands, 1, rests{"resting-hand"}, chain{{1, 1, "", ""}}},
	{"thumb-bass", instrument.Plucked, Hands, 0.9, rests{"resting-hand"}, chain{{1, 1, "", ""}}},
	{"thumb-quiet", instrument.Plucked, Hands, 1, rests{"thumb-bass", "loud-soft"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"pima", instrument.Plucked, Hands, 1.2, rests{"thumb-bass", "alternating"}, chain{{1, 1, "", ""}, {2, 1, "", "roll pima"}, {2, 1, "", "roll pima"}}},
	{"pami", instrument.Plucked, Hands, 1, rests{"pima"}, chain{{1, 1, "", "roll pami"}}},
	{"six-pattern", instrument.Plucked, Hands, 1.2, rests{"pima"}, chain{{1, 1, "", ""}, {2, 1, "", "roll pimami 632123"}}},
	{"alternating-bass", instrument.Plucked, Hands, 1.2, rests{"thumb-bass", "pima"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"pinch", instrument.Plucked, Hands, 0.8, rests{"thumb-bass", "flush-stroke"}, chain{{1, 1, "", ""}}},
	{"strum", instrument.Plucked, Hands, 0.7, rests{"resting-hand"}, chain{{1, 1, "", ""}}},
	{"first-position", instrument.Plucked, Hands, 1, nil, chain{{1, 1, "", ""}}},
	{"chord-two-finger", instrument.Plucked, Hands, 0.9, rests{"first-position"}, chain{{1, 1, "", ""}}},
	{"chord-three-finger", instrument.Plucked, Hands, 1.1, rests{"chord-two-finger"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"chord-change", instrument.Plucked, Hands, 1.2, rests{"chord-two-finger", "steady-beat"}, chain{{1, 1, "", "change G"}, {1, 1, "", "change G"}}},
	{"held-chord", instrument.Plucked, Hands, 1, rests{"first-position"}, chain{{1, 1, "", ""}}},
	{"small-barre", instrument.Plucked, Hands, 1.3, rests{"chord-three-finger"}, chain{{1, 1, "", ""}}},
	{"slide", instrument.Plucked, Hands, 0.9, rests{"first-position"}, chain{{1, 1, "", "slide"}}},
	{"hammer", instrument.Plucked, Hands, 1, rests{"first-position"}, chain{{1, 1, "", "hammer"}, {1, 1, "", ""}}},
	{"pull", instrument.Plucked, Hands, 1, rests{"hammer"}, chain{{1, 1, "", "hammer"}, {1, 1, "", ""}}},
	{"scale-plucked", instrument.Plucked, Hands, 1, rests{"first-position", "alternating"}, chain{{1, 1, "", "scale C"}}},
	{"tune-and-bass", instrument.Plucked, Hands, 1.3, rests{"pinch", "first-position"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"shift-neck", instrument.Plucked, Hands, 1.3, rests{"scale-plucked"}, chain{{1, 1, "", ""}}},
	{"tune-guitar", instrument.Plucked, Ear, 0.8, rests{"higher-lower"}, chain{{1, 1, "", ""}}},
	{"tone-colour", instrument.Plucked, Expression, 0.7, rests{"flush-stroke", "loud-soft"}, chain{{1, 1, "", ""}}},
}
