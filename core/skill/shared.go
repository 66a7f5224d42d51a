package skill

import "patientladder/core/instrument"

// shared are the skills of every instrument.
var shared = []row{
	{"seat", instrument.Shared, Posture, 0.5, nil, chain{{1, 1, "", ""}}},
	{"free-shoulders", instrument.Shared, Posture, 0.7, rests{"seat"}, chain{{1, 1, "", ""}}},
	{"own-check", instrument.Shared, Posture, 0.6, rests{"seat"}, chain{{1, 1, "", ""}}},
	{"left-right", instrument.Shared, Posture, 0.5, nil, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"finger-numbers", instrument.Shared, Posture, 0.5, rests{"left-right"}, chain{{1, 1, "", ""}}},
	{"hand-swap", instrument.Shared, Posture, 0.5, rests{"left-right"}, chain{{1, 1, "", ""}}},

	{"steady-beat", instrument.Shared, Rhythm, 1, nil, chain{{1, 1, "", ""}, {2, 1, "", ""}}},
	{"echo-rhythm", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"rests", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"long-notes", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"halves", instrument.Shared, Rhythm, 1, rests{"steady-beat"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"thirds", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{1, 1, "", ""}, {2, 1, "", ""}}},
	{"quarters-of-beat", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{1, 1, "", ""}, {2, 1, "", ""}}},
	{"dotted", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"syncopation", instrument.Shared, Rhythm, 1.3, rests{"halves", "ties"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"three-time", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"six-eight", instrument.Shared, Rhythm, 1.1, rests{"halves", "three-time"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"pickup", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"ties", instrument.Shared, Rhythm, 0.7, rests{"long-notes"}, chain{{1, 1, "", ""}}},
	{"changing-meter", instrument.Shared, Rhythm, 1.3, rests{"three-time", "halves"}, chain{{2, 1, "", ""}}},
	{"metronome", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"two-against-three", instrument.Shared, Rhythm, 2.2, rests{"thirds", "hands-apart"}, chain{
		{1, 1, "", ""}, {1, 2, "", ""},
		{1, 2, "", "cross 3:2"}, {2, 2, "", "cross 3:2"}}},
	{"three-against-four", instrument.Shared, Rhythm, 2.5, rests{"two-against-three", "quarters-of-beat"}, chain{
		{1, 2, "", "cross 4:3"}, {2, 2, "", "cross 4:3"}, {2, 2, "", "cross 3:4"}}},
	{"hands-apart", instrument.Shared, Rhythm, 1.2, rests{"halves", "left-right"}, chain{
		{1, 1, "", ""}, {1, 1, "", ""}}},

	{"direction", instrument.Shared, Reading, 0.8, nil, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"high-low", instrument.Shared, Reading, 0.5, nil, chain{{1, 1, "", ""}}},
	{"steps", instrument.Shared, Reading, 0.7, rests{"direction"}, chain{{1, 1, "", ""}}},
	{"skips", instrument.Shared, Reading, 0.8, rests{"steps"}, chain{{1, 1, "", ""}}},
	{"fourths-fifths", instrument.Shared, Reading, 1, rests{"skips"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"wide-leaps", instrument.Shared, Reading, 1.1, rests{"fourths-fifths"}, chain{{1, 1, "", ""}}},
	{"landmarks", instrument.Shared, Reading, 1, rests{"direction"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"note-names", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{1, 1, "", ""}}},
	{"two-staves", instrument.Shared, Reading, 1.2, rests{"landmarks"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"ledger-lines", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{1, 1, "", ""}}},
	{"second-clef", instrument.Shared, Reading, 1.5, rests{"landmarks"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"accidentals", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{1, 1, "", ""}}},
	{"key-signature", instrument.Shared, Reading, 1, rests{"accidentals"}, chain{{1, 1, "", ""}}},
	{"key-change", instrument.Shared, Reading, 0.9, rests{"key-signature"}, chain{{1, 1, "", ""}}},
	{"sight-four-bars", instrument.Shared, Reading, 1, rests{"steps", "long-notes"}, chain{{2, 1, "", ""}}},
	{"tablature", instrument.Shared, Reading, 0.8, rests{"long-notes"}, chain{{1, 1, "", ""}}},
	{"count-different", instrument.Shared, Reading, 0.7, rests{"direction"}, chain{{1, 1, "", ""}}},

	{"half-whole", instrument.Shared, Theory, 0.8, rests{"steps"}, chain{{1, 1, "", ""}}},
	{"major-five", instrument.Shared, Theory, 0.8, rests{"half-whole"}, chain{{1, 1, "", "five C right"}}},
	{"minor-five", instrument.Shared, Theory, 0.9, rests{"major-five"}, chain{{1, 1, "", "five C natural right"}, {1, 1, OldMinor, ""}}},
	{"tonic-dominant", instrument.Shared, Theory, 1, rests{"major-five"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"key-from-hands", instrument.Shared, Theory, 0.8, rests{"key-signature"}, chain{{1, 1, "", ""}}},
	{"scale-build", instrument.Shared, Theory, 0.9, rests{"half-whole"}, chain{{1, 1, "", ""}}},
	{"chords-three", instrument.Shared, Theory, 1, rests{"skips", "tonic-dominant"}, chain{{1, 1, "", ""}}},
	{"relative-minor", instrument.Shared, Theory, 1, rests{"scale-build", "minor-five"}, chain{{1, 1, "", ""}}},
	{"modes", instrument.Shared, Theory, 0.8, rests{"scale-build"}, chain{{1, 1, "", ""}}},
	{"form", instrument.Shared, Theory, 0.6, rests{"count-different"}, chain{{1, 1, "", ""}}},
	{"transpose", instrument.Shared, Theory, 1.1, rests{"major-five"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},

	{"higher-lower", instrument.Shared, Ear, 0.6, nil, chain{{1, 1, "", ""}}},
	{"sing-back", instrument.Shared, Ear, 0.7, rests{"higher-lower"}, chain{{1, 1, "", ""}}},
	{"find-by-ear", instrument.Shared, Ear, 0.9, rests{"sing-back"}, chain{{1, 1, "", ""}}},
	{"tune-by-ear", instrument.Shared, Ear, 1.2, rests{"find-by-ear"}, chain{{2, 1, "", ""}, {1, 1, "", ""}}},
	{"major-minor-ear", instrument.Shared, Ear, 0.8, rests{"sing-back"}, chain{{1, 1, "", ""}}},
	{"chord-ear", instrument.Shared, Ear, 0.9, rests{"sing-back"}, chain{{1, 1, "", ""}}},

	{"loud-soft", instrument.Shared, Expression, 0.8, nil, chain{{1, 1, "", ""}}},
	{"six-levels", instrument.Shared, Expression, 1.1, rests{"loud-soft"}, chain{
		{1, 1, "", "levels C right"}, {1, 1, "", "levels C right"}}},
	{"swell", instrument.Shared, Expression, 0.9, rests{"loud-soft"}, chain{{1, 1, "", "five C right"}, {1, 1, "", "shaped C right"}}},
	{"phrase-breath", instrument.Shared, Expression, 0.7, rests{"free-shoulders"}, chain{{1, 1, "", ""}}},
	{"accents", instrument.Shared, Expression, 0.7, rests{"loud-soft"}, chain{{1, 1, "", ""}}},
	{"tempo-change", instrument.Shared, Expression, 0.8, rests{"metronome"}, chain{{1, 1, "", ""}}},
	{"character", instrument.Shared, Expression, 0.6, rests{"loud-soft"}, chain{{1, 1, "", ""}}},
	{"silent-tempo", instrument.Shared, Expression, 0.6, rests{"steady-beat"}, chain{{1, 1, "", ""}}},
	{"perform", instrument.Shared, Expression, 0.9, rests{"silent-tempo"}, chain{{2, 1, "", ""}}},
}
