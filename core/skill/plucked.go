package skill

import "patientladder/core/instrument"

// plucked are the skills of plucked strings.
var plucked = []Skill{
	{"guitar-seat", "Instrument rests by itself", instrument.Plucked, Posture, 0.7, nil, chain{{"Both hands in the air: it stays", 1, 1, "", ""}}},
	{"resting-hand", "Natural hand on the strings", instrument.Plucked, Hands, 0.8, nil, chain{{"Drop the arm, let the hand fall, bring it to the strings unchanged", 1, 1, "", ""}}},
	{"flush-stroke", "String met flush", instrument.Plucked, Hands, 0.8, rests{"resting-hand"}, chain{{"Place, feel the string, then pluck; one finger", 1, 1, "", ""}}},
	{"alternating", "i and m in turn", instrument.Plucked, Hands, 1, rests{"resting-hand"}, chain{{"Walk two fingers on the knee, then on one string", 1, 1, "", ""}}},
	{"thumb-bass", "Thumb on the low strings", instrument.Plucked, Hands, 0.9, rests{"resting-hand"}, chain{{"Thumb alone on 6, 5, 4, resting on the next", 1, 1, "", ""}}},
	{"thumb-quiet", "Thumb under the fingers in strength", instrument.Plucked, Hands, 1, rests{"thumb-bass", "loud-soft"}, chain{{"Thumb so soft that m is heard, on open strings", 1, 1, "", ""}, {"The same in one pattern", 1, 1, "", ""}}},
	{"pima", "p i m a evenly", instrument.Plucked, Hands, 1.2, rests{"thumb-bass", "alternating"}, chain{{"p i m a on the knee, counted", 1, 1, "", ""}, {"On open strings, even in time", 2, 1, "", "roll pima"}, {"Then even in strength", 2, 1, "", "roll pima"}}},
	{"pami", "p a m i and its turns", instrument.Plucked, Hands, 1, rests{"pima"}, chain{{"The pattern backwards, slowly", 1, 1, "", "roll pami"}}},
	{"six-pattern", "p i m a m i over six strokes", instrument.Plucked, Hands, 1.2, rests{"pima"}, chain{{"Say the fingers on the beat of six", 1, 1, "", ""}, {"On strings 6 3 2 1 2 3, even in time", 2, 1, "", "roll pimami 632123"}}},
	{"alternating-bass", "Thumb between two strings", instrument.Plucked, Hands, 1.2, rests{"thumb-bass", "pima"}, chain{{"Thumb alone, two strings, with a click", 1, 1, "", ""}, {"Add one finger on the beat", 1, 1, "", ""}}},
	{"pinch", "Thumb and finger together", instrument.Plucked, Hands, 0.8, rests{"thumb-bass", "flush-stroke"}, chain{{"Close the hand gently on two strings", 1, 1, "", ""}}},
	{"strum", "Strokes over the strings", instrument.Plucked, Hands, 0.7, rests{"resting-hand"}, chain{{"Brush down on muted strings, with the beat", 1, 1, "", ""}}},
	{"first-position", "First position", instrument.Plucked, Hands, 1, nil, chain{{"A finger a fret, silently, on one string", 1, 1, "", ""}}},
	{"chord-two-finger", "Chords of two fingers", instrument.Plucked, Hands, 0.9, rests{"first-position"}, chain{{"Set both fingers at once, lift, set again", 1, 1, "", ""}}},
	{"chord-three-finger", "Chords of three fingers", instrument.Plucked, Hands, 1.1, rests{"chord-two-finger"}, chain{{"The shape on the arm, then on the strings", 1, 1, "", ""}, {"Three settings in a row without looking", 1, 1, "", ""}}},
	{"chord-change", "Chord changes in time", instrument.Plucked, Hands, 1.2, rests{"chord-two-finger", "steady-beat"}, chain{{"The finger that can stay, stays: two chords", 1, 1, "", "change G"}, {"One stroke a bar, change in the rest", 1, 1, "", "change G"}}},
	{"held-chord", "Fingers that stay down", instrument.Plucked, Hands, 1, rests{"first-position"}, chain{{"One finger stays while another moves, silently", 1, 1, "", ""}}},
	{"small-barre", "Two strings under one finger", instrument.Plucked, Hands, 1.3, rests{"chord-three-finger"}, chain{{"First finger flat on two strings, a moment only", 1, 1, "", ""}}},
	{"slide", "Slides", instrument.Plucked, Hands, 0.9, rests{"first-position"}, chain{{"Up two frets on one string, alone", 1, 1, "", "slide"}}},
	{"hammer", "Hammered notes", instrument.Plucked, Hands, 1, rests{"first-position"}, chain{{"One finger falls on an open string, alone", 1, 1, "", "hammer"}, {"One hammered note inside a pattern", 1, 1, "", ""}}},
	{"pull", "Pulled notes", instrument.Plucked, Hands, 1, rests{"hammer"}, chain{{"Pull from first fret to open, alone", 1, 1, "", "hammer"}, {"One pulled note inside a pattern", 1, 1, "", ""}}},
	{"scale-plucked", "One-octave scale", instrument.Plucked, Hands, 1, rests{"first-position", "alternating"}, chain{{"Two strings of it, i and m in turn", 1, 1, "", "scale C"}}},
	{"tune-and-bass", "Tune over a bass", instrument.Plucked, Hands, 1.3, rests{"pinch", "first-position"}, chain{{"Bass alone, tune sung", 1, 1, "", ""}, {"Pinch on the first beat only", 1, 1, "", ""}}},
	{"shift-neck", "First move along the neck", instrument.Plucked, Hands, 1.3, rests{"scale-plucked"}, chain{{"Thumb travels with the hand, one string", 1, 1, "", ""}}},
	{"tune-guitar", "Hears whether a string is in tune", instrument.Plucked, Ear, 0.8, rests{"higher-lower"}, chain{{"Up, down or right: the teacher turns the peg", 1, 1, "", ""}}},
	{"tone-colour", "Near the bridge or over the hole", instrument.Plucked, Expression, 0.7, rests{"flush-stroke", "loud-soft"}, chain{{"One phrase in two colours", 1, 1, "", ""}}},
}
