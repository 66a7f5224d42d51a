package skill

import "patientladder/core/instrument"

// bowed are the skills of bowed strings.
var bowed = []row{
	{"cello-seat", instrument.Bowed, Posture, 0.7, nil, chain{{1, 1, "", ""}}},
	{"shoulder-hold", instrument.Bowed, Posture, 0.8, nil, chain{{1, 1, "", ""}}},
	{"bass-stand", instrument.Bowed, Posture, 0.7, nil, chain{{1, 1, "", ""}}},
	{"bow-hold", instrument.Bowed, Hands, 1, nil, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"open-strings", instrument.Bowed, Reading, 0.6, nil, chain{{1, 1, "", ""}}},
	{"long-bows", instrument.Bowed, Hands, 1, rests{"bow-hold"}, chain{{1, 1, "", ""}, {1, 1, "", "bows"}}},
	{"slow-bows", instrument.Bowed, Hands, 1, rests{"long-bows"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"quick-bows", instrument.Bowed, Hands, 1, rests{"long-bows"}, chain{{1, 1, "", "divide"}}},
	{"string-levels", instrument.Bowed, Hands, 0.9, rests{"bow-hold"}, chain{{1, 1, "", ""}}},
	{"quick-crossings", instrument.Bowed, Hands, 1.2, rests{"string-levels"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"slur-two-notes", instrument.Bowed, Hands, 0.8, rests{"long-bows"}, chain{{1, 1, "", ""}}},
	{"slur-three", instrument.Bowed, Hands, 0.9, rests{"long-bows", "stepping-fingers"}, chain{{1, 1, "", ""}}},
	{"slur-crossing", instrument.Bowed, Hands, 1.1, rests{"slur-two-notes", "string-levels"}, chain{{1, 1, "", ""}}},
	{"bow-short", instrument.Bowed, Hands, 0.9, rests{"long-bows"}, chain{{1, 1, "", ""}}},
	{"bow-bounce", instrument.Bowed, Hands, 1.4, rests{"bow-short"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"pluck-hand", instrument.Bowed, Hands, 0.6, rests{"open-strings"}, chain{{1, 1, "", ""}}},
	{"first-finger", instrument.Bowed, Hands, 1, nil, chain{{1, 1, "", ""}}},
	{"block-fingers", instrument.Bowed, Hands, 1, rests{"first-finger"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"stepping-fingers", instrument.Bowed, Hands, 1.1, rests{"block-fingers"}, chain{{1, 1, "", "scale D"}, {1, 1, OldSame, ""}}},
	{"second-finger", instrument.Bowed, Hands, 1.1, rests{"stepping-fingers"}, chain{{1, 1, "", ""}, {1, 1, "", ""}, {1, 1, OldMinor, ""}}},
	{"new-string", instrument.Bowed, Hands, 0.9, rests{"stepping-fingers", "string-levels"}, chain{{1, 1, "", ""}}},
	{"scale-bowed", instrument.Bowed, Hands, 1, rests{"stepping-fingers", "string-levels"}, chain{{1, 1, "", "scale D"}}},
	{"scale-bowed-two", instrument.Bowed, Hands, 1.2, rests{"scale-bowed", "new-string"}, chain{{1, 1, "", ""}}},
	{"reach-back", instrument.Bowed, Hands, 1.3, rests{"stepping-fingers"}, chain{
		{1, 1, "", ""}, {1, 1, "", ""}, {1, 1, "", ""}, {1, 1, OldMinor, ""}}},
	{"reach-forward", instrument.Bowed, Hands, 1.3, rests{"reach-back"}, chain{{1, 1, "", ""}, {1, 1, "", ""}}},
	{"light-thumb", instrument.Bowed, Posture, 0.7, rests{"first-finger"}, chain{{1, 1, "", ""}}},
	{"shift-up", instrument.Bowed, Hands, 1.5, rests{"stepping-fingers", "light-thumb"}, chain{{1, 1, "", ""}, {1, 1, "", "shift"}, {1, 1, OldSame, ""}}},
	{"double-open", instrument.Bowed, Hands, 0.9, rests{"string-levels"}, chain{{1, 1, "", "double-open"}}},
	{"double-notes", instrument.Bowed, Hands, 1.7, rests{"double-open", "stepping-fingers"}, chain{
		{1, 1, "", "double-open"}, {1, 1, "", "double-near"},
		{1, 1, "", ""}, {1, 1, "", ""}}},
	{"vibrato", instrument.Bowed, Hands, 1.6, rests{"light-thumb", "slow-bows"}, chain{{1, 1, "", ""}, {1, 2, "", ""}, {1, 2, "", ""}}},
	{"tune-string", instrument.Bowed, Ear, 0.8, rests{"higher-lower"}, chain{{1, 1, "", ""}}},
	{"bow-levels", instrument.Bowed, Expression, 1, rests{"slow-bows", "loud-soft"}, chain{{1, 1, "", ""}}},
}
