package skill

import "patientladder/core/instrument"

// bowed are the skills of bowed strings.
var bowed = []Skill{
	{"cello-seat", "Instrument against the chest, knees free", instrument.Bowed, Posture, 0.7, nil, chain{{"Hug the instrument, let the hands go, it stays", 1, 1, "", ""}}},
	{"shoulder-hold", "Instrument on the shoulder, left hand free", instrument.Bowed, Posture, 0.8, nil, chain{{"Hold it without the hand while you count to ten", 1, 1, "", ""}}},
	{"bass-stand", "Stands to the instrument, it leans by itself", instrument.Bowed, Posture, 0.7, nil, chain{{"Let the hands go, it stays against the body", 1, 1, "", ""}}},
	{"bow-hold", "Bow hold", instrument.Bowed, Hands, 1, nil, chain{{"The hold on a pencil", 1, 1, "", ""}, {"Up and down like a rocket, no string", 1, 1, "", ""}}},
	{"open-strings", "Open strings by name", instrument.Bowed, Reading, 0.6, nil, chain{{"Pluck the string that is called", 1, 1, "", ""}}},
	{"long-bows", "Long straight bows", instrument.Bowed, Hands, 1, rests{"bow-hold"}, chain{{"Half bows in a mirror", 1, 1, "", ""}, {"Whole bows, counted to four", 1, 1, "", "bows"}}},
	{"slow-bows", "Long slow bows", instrument.Bowed, Hands, 1, rests{"long-bows"}, chain{{"One bow as long as a breath, then longer", 1, 1, "", ""}, {"Eight counts on each open string", 1, 1, "", ""}}},
	{"quick-bows", "Quick bows that keep their length", instrument.Bowed, Hands, 1, rests{"long-bows"}, chain{{"Slow first; then the same length twice as fast", 1, 1, "", "divide"}}},
	{"string-levels", "Arm at each string's level", instrument.Bowed, Hands, 0.9, rests{"bow-hold"}, chain{{"Rest the bow on each string in turn, silently", 1, 1, "", ""}}},
	{"quick-crossings", "Quick string crossings", instrument.Bowed, Hands, 1.2, rests{"string-levels"}, chain{{"Two open strings, one bow each, silently", 1, 1, "", ""}, {"The same with sound, slowly then in time", 1, 1, "", ""}}},
	{"slur-two-notes", "Two notes in a bow", instrument.Bowed, Hands, 0.8, rests{"long-bows"}, chain{{"The bow goes on while one finger falls", 1, 1, "", ""}}},
	{"slur-three", "Three notes in a bow", instrument.Bowed, Hands, 0.9, rests{"long-bows", "stepping-fingers"}, chain{{"One bow, three fingers, no hurry", 1, 1, "", ""}}},
	{"slur-crossing", "A slur over two strings", instrument.Bowed, Hands, 1.1, rests{"slur-two-notes", "string-levels"}, chain{{"Open string to open string in one bow", 1, 1, "", ""}}},
	{"bow-short", "Short stopped bows", instrument.Bowed, Hands, 0.9, rests{"long-bows"}, chain{{"Start and stop, the bow stays on the string", 1, 1, "", ""}}},
	{"bow-bounce", "Bow that springs", instrument.Bowed, Hands, 1.4, rests{"bow-short"}, chain{{"Drop and catch on an open string", 1, 1, "", ""}, {"Four in a row, near the middle", 1, 1, "", ""}}},
	{"pluck-hand", "Plucked notes in between", instrument.Bowed, Hands, 0.6, rests{"open-strings"}, chain{{"Pluck with the bow held in the hand", 1, 1, "", ""}}},
	{"first-finger", "First finger in place", instrument.Bowed, Hands, 1, nil, chain{{"Tap the first dot on the lap, then on the string", 1, 1, "", ""}}},
	{"block-fingers", "Fingers set as a block", instrument.Bowed, Hands, 1, rests{"first-finger"}, chain{{"Set the block, pause, lift; no bow", 1, 1, "", ""}, {"Place one finger by itself", 1, 1, "", ""}}},
	{"stepping-fingers", "Fingers stepping one by one", instrument.Bowed, Hands, 1.1, rests{"block-fingers"}, chain{{"Step down a scale, finger after finger", 1, 1, "", "scale D"}, {"An old tune, finger after finger", 1, 1, OldSame, ""}}},
	{"second-finger", "Second finger next to the first", instrument.Bowed, Hands, 1.1, rests{"stepping-fingers"}, chain{{"The new spacing on dots on the lap", 1, 1, "", ""}, {"March it on one string", 1, 1, "", ""}, {"An old tune in its minor form", 1, 1, OldMinor, ""}}},
	{"new-string", "Finger pattern on a new string", instrument.Bowed, Hands, 0.9, rests{"stepping-fingers", "string-levels"}, chain{{"A small tune moved to the new string", 1, 1, "", ""}}},
	{"scale-bowed", "One-octave scale", instrument.Bowed, Hands, 1, rests{"stepping-fingers", "string-levels"}, chain{{"Each string's half by itself", 1, 1, "", "scale D"}}},
	{"scale-bowed-two", "Two-octave scale", instrument.Bowed, Hands, 1.2, rests{"scale-bowed", "new-string"}, chain{{"Low octave, then high, then joined", 1, 1, "", ""}}},
	{"reach-back", "First finger reached back", instrument.Bowed, Hands, 1.3, rests{"stepping-fingers"}, chain{
		{"The shape on the shoulder, then on the lap", 1, 1, "", ""}, {"March it on one string, no bow", 1, 1, "", ""}, {"A scale with the finger back", 1, 1, "", ""}, {"An old tune in its minor form", 1, 1, OldMinor, ""}}},
	{"reach-forward", "Hand opened forward", instrument.Bowed, Hands, 1.3, rests{"reach-back"}, chain{{"Thumb comes along: the shape on the lap", 1, 1, "", ""}, {"A scale with the hand open", 1, 1, "", ""}}},
	{"light-thumb", "Left thumb slides and taps", instrument.Bowed, Posture, 0.7, rests{"first-finger"}, chain{{"Tap the thumb while the fingers hold a note", 1, 1, "", ""}}},
	{"shift-up", "First shift along the string", instrument.Bowed, Hands, 1.5, rests{"stepping-fingers", "light-thumb"}, chain{{"Glide like on ice, no note asked", 1, 1, "", ""}, {"From first finger to first finger", 1, 1, "", "shift"}, {"Two bars of an old tune up there", 1, 1, OldSame, ""}}},
	{"double-open", "Two open strings at once", instrument.Bowed, Hands, 0.9, rests{"string-levels"}, chain{{"One after the other, then the bow between", 1, 1, "", "double-open"}}},
	{"double-notes", "Double notes", instrument.Bowed, Hands, 1.7, rests{"double-open", "stepping-fingers"}, chain{
		{"One after the other, slowly enough to hear both", 1, 1, "", "double-open"}, {"A finger a semitone from the open string, together", 1, 1, "", "double-near"},
		{"Two fingers a semitone apart, together", 1, 1, "", ""}, {"Two chords joined", 1, 1, "", ""}}},
	{"vibrato", "Vibrato", instrument.Bowed, Hands, 1.6, rests{"light-thumb", "slow-bows"}, chain{{"Polish the string with one finger, no bow", 1, 1, "", ""}, {"Wide and slow with the bow", 1, 2, "", ""}, {"On each finger", 1, 2, "", ""}}},
	{"tune-string", "Hears whether a string is in tune", instrument.Bowed, Ear, 0.8, rests{"higher-lower"}, chain{{"Up, down or right: the teacher turns the peg", 1, 1, "", ""}}},
	{"bow-levels", "Near the bridge or far from it", instrument.Bowed, Expression, 1, rests{"slow-bows", "loud-soft"}, chain{{"One long bow in three lanes", 1, 1, "", ""}}},
}
