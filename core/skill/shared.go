package skill

import "patientladder/core/instrument"

// shared are the skills of every instrument.
var shared = []Skill{
	{"seat", "Feet carried, front of the seat", instrument.Shared, Posture, 0.5, nil, chain{{"Find the sitting place: feet first, then the seat", 1, 1, "", ""}}},
	{"free-shoulders", "Shoulders down, breath going", instrument.Shared, Posture, 0.7, rests{"seat"}, chain{{"Breathe out, let both arms hang, lift one by itself", 1, 1, "", ""}}},
	{"own-check", "Checks the own hand against a picture", instrument.Shared, Posture, 0.6, rests{"seat"}, chain{{"Compare one fault picture with the hand, say what differs", 1, 1, "", ""}}},
	{"left-right", "Which hand is which", instrument.Shared, Posture, 0.5, nil, chain{{"Palm taps face to face, naming the hand", 1, 1, "", ""}, {"Name the hand on mixed drawings", 1, 1, "", ""}}},
	{"finger-numbers", "Fingers by number", instrument.Shared, Posture, 0.5, rests{"left-right"}, chain{{"Tap the finger that is called", 1, 1, "", ""}}},
	{"hand-swap", "Swap hands on a cue word", instrument.Shared, Posture, 0.5, rests{"left-right"}, chain{{"Swap when the word comes in a spoken list", 1, 1, "", ""}}},

	{"steady-beat", "Steady beat", instrument.Shared, Rhythm, 1, nil, chain{{"Copy four on knees, then on the table", 1, 1, "", ""}, {"March to recorded music", 2, 1, "", ""}}},
	{"echo-rhythm", "Echo of a four-beat rhythm", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Hear all of it, hold it, answer", 1, 1, "", ""}}},
	{"rests", "Silences counted", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Say the silences aloud while clapping", 1, 1, "", ""}}},
	{"long-notes", "Notes of two and four beats", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Slide the palms apart for as long as the note lasts", 1, 1, "", ""}}},
	{"halves", "Two to a beat", instrument.Shared, Rhythm, 1, rests{"steady-beat"}, chain{{"Say a two-part word to each step while walking", 1, 1, "", ""}, {"Clap it from cards, beat in the feet", 1, 1, "", ""}}},
	{"thirds", "Three to a beat", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{"Say a three-part word to a steady step", 1, 1, "", ""}, {"Switch between two-part and three-part words at one pulse", 2, 1, "", ""}}},
	{"quarters-of-beat", "Four to a beat", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{"Say a four-part word to a slow step", 1, 1, "", ""}, {"Clap a line that mixes one, two and four", 2, 1, "", ""}}},
	{"dotted", "Dotted rhythm", instrument.Shared, Rhythm, 1.2, rests{"halves"}, chain{{"Say it on one word that limps", 1, 1, "", ""}, {"Clap it against a walking beat", 1, 1, "", ""}}},
	{"syncopation", "Notes between the beats", instrument.Shared, Rhythm, 1.3, rests{"halves", "ties"}, chain{{"Clap off the beat while the feet keep it", 1, 1, "", ""}, {"Say the line on one tone first", 1, 1, "", ""}}},
	{"three-time", "Three beats in a bar", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Sway and pat: strong, light, light", 1, 1, "", ""}}},
	{"six-eight", "Swings of three", instrument.Shared, Rhythm, 1.1, rests{"halves", "three-time"}, chain{{"Rock from foot to foot, three words to a rock", 1, 1, "", ""}, {"Clap a jig line from the page", 1, 1, "", ""}}},
	{"pickup", "Beginning before the bar", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Count in aloud and come in on the last beat", 1, 1, "", ""}}},
	{"ties", "Tied notes", instrument.Shared, Rhythm, 0.7, rests{"long-notes"}, chain{{"Trace the tie with a finger while holding the tone", 1, 1, "", ""}}},
	{"changing-meter", "Changing meter", instrument.Shared, Rhythm, 1.3, rests{"three-time", "halves"}, chain{{"Walk bars of three and four in turn", 2, 1, "", ""}}},
	{"metronome", "With a metronome", instrument.Shared, Rhythm, 0.7, rests{"steady-beat"}, chain{{"Clap so that the click disappears", 1, 1, "", ""}}},
	{"two-against-three", "Two against three", instrument.Shared, Rhythm, 2.2, rests{"thirds", "hands-apart"}, chain{
		{"Halves, then thirds, on the lap at one pulse", 1, 1, "", ""}, {"Switch halves and thirds every bar, each hand in turn", 1, 2, "", ""},
		{"Both on the lap: one hand in two, the other in three, slowly", 1, 2, "", "cross 3:2"}, {"The same on one key in each hand, then on a five-finger pattern", 2, 2, "", "cross 3:2"}}},
	{"three-against-four", "Three against four", instrument.Shared, Rhythm, 2.5, rests{"two-against-three", "quarters-of-beat"}, chain{
		{"A spoken phrase carries it, on the lap", 1, 2, "", "cross 4:3"}, {"One key in each hand, slowly", 2, 2, "", "cross 4:3"}, {"Hands swapped", 2, 2, "", "cross 3:4"}}},
	{"hands-apart", "Two touches or rhythms at once, away from the instrument", instrument.Shared, Rhythm, 1.2, rests{"halves", "left-right"}, chain{
		{"One hand pats the beat, the other rubs a circle", 1, 1, "", ""}, {"One hand halves, the other the beat; swap", 1, 1, "", ""}}},

	{"direction", "Up, down, same on the page", instrument.Shared, Reading, 0.8, nil, chain{{"Follow a line of dots with the finger: up, down, same", 1, 1, "", ""}, {"Draw the tune that is sung", 1, 1, "", ""}}},
	{"high-low", "Which end is high", instrument.Shared, Reading, 0.5, nil, chain{{"An object at each end; walk to the high one", 1, 1, "", ""}}},
	{"steps", "Steps", instrument.Shared, Reading, 0.7, rests{"direction"}, chain{{"Walk line, space, line on a floor staff", 1, 1, "", ""}}},
	{"skips", "Skips", instrument.Shared, Reading, 0.8, rests{"steps"}, chain{{"Hop line to line on the floor staff", 1, 1, "", ""}}},
	{"fourths-fifths", "Fourths and fifths by sight", instrument.Shared, Reading, 1, rests{"skips"}, chain{{"Sort cards: line to space, line to line", 1, 1, "", ""}, {"Name the distance before playing it", 1, 1, "", ""}}},
	{"wide-leaps", "Sixths to octaves by sight", instrument.Shared, Reading, 1.1, rests{"fourths-fifths"}, chain{{"Find the landing note with the eye before the hand goes", 1, 1, "", ""}}},
	{"landmarks", "Landmark notes", instrument.Shared, Reading, 1, rests{"direction"}, chain{{"Find two notes cold, from cards, three times a day", 1, 1, "", ""}, {"Count from the nearest of them", 1, 1, "", ""}}},
	{"note-names", "Notes by name", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{"Name five cards, then the same five mixed", 1, 1, "", ""}}},
	{"two-staves", "Two staves at once", instrument.Shared, Reading, 1.2, rests{"landmarks"}, chain{{"Read down through a beat before along the line", 1, 1, "", ""}, {"Point while another plays", 1, 1, "", ""}}},
	{"ledger-lines", "Ledger lines", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{"Two new landmarks above and below the staff", 1, 1, "", ""}}},
	{"second-clef", "A second clef", instrument.Shared, Reading, 1.5, rests{"landmarks"}, chain{{"Three landmarks in the new clef", 1, 1, "", ""}, {"A known tune written in it", 1, 1, "", ""}}},
	{"accidentals", "Sharps and flats on the way", instrument.Shared, Reading, 0.9, rests{"landmarks"}, chain{{"Find the neighbour key or fret of five notes", 1, 1, "", ""}}},
	{"key-signature", "Key signature kept in mind", instrument.Shared, Reading, 1, rests{"accidentals"}, chain{{"Ring every note the signature changes, then play only those", 1, 1, "", ""}}},
	{"key-change", "The key changes on the way", instrument.Shared, Reading, 0.9, rests{"key-signature"}, chain{{"Point at the new signature, say what changes, play the bar before and the bar after", 1, 1, "", ""}}},
	{"sight-four-bars", "Four bars at first sight", instrument.Shared, Reading, 1, rests{"steps", "long-notes"}, chain{{"One new line a day, looked at for a minute, played once", 2, 1, "", ""}}},
	{"tablature", "Tablature with its rhythm", instrument.Shared, Reading, 0.8, rests{"long-notes"}, chain{{"Name string and fret, then clap the rhythm under it", 1, 1, "", ""}}},
	{"count-different", "Counts what is different before playing", instrument.Shared, Reading, 0.7, rests{"direction"}, chain{{"Mark every bar that comes back", 1, 1, "", ""}}},

	{"half-whole", "Half and whole steps", instrument.Shared, Theory, 0.8, rests{"steps"}, chain{{"Find neighbours with and without a key between", 1, 1, "", ""}}},
	{"major-five", "The five notes of major", instrument.Shared, Theory, 0.8, rests{"half-whole"}, chain{{"Whole, whole, half, whole from three starting notes", 1, 1, "", "five C right"}}},
	{"minor-five", "The five notes of minor", instrument.Shared, Theory, 0.9, rests{"major-five"}, chain{{"Lower the third of a known five and sing both", 1, 1, "", "five C natural right"}, {"An old tune in its minor form", 1, 1, OldMinor, ""}}},
	{"tonic-dominant", "Tonic and dominant", instrument.Shared, Theory, 1, rests{"major-five"}, chain{{"Sing home and away under a known tune", 1, 1, "", ""}, {"Match one of two chords to each bar", 1, 1, "", ""}}},
	{"key-from-hands", "Key from where the hands lie", instrument.Shared, Theory, 0.8, rests{"key-signature"}, chain{{"Say the key of three old pieces from the first and last note", 1, 1, "", ""}}},
	{"scale-build", "How a scale is built", instrument.Shared, Theory, 0.9, rests{"half-whole"}, chain{{"Two like halves a step apart, found by ear", 1, 1, "", ""}}},
	{"chords-three", "Chords of three notes", instrument.Shared, Theory, 1, rests{"skips", "tonic-dominant"}, chain{{"Stack skips from four roots", 1, 1, "", ""}}},
	{"relative-minor", "Major and its minor neighbour", instrument.Shared, Theory, 1, rests{"scale-build", "minor-five"}, chain{{"Find the shared notes of C major and A minor", 1, 1, "", ""}}},
	{"modes", "A tune that is neither major nor minor", instrument.Shared, Theory, 0.8, rests{"scale-build"}, chain{{"Its scale from its home note up and down, and what is other than in major", 1, 1, "", ""}}},
	{"form", "Says how a piece is built", instrument.Shared, Theory, 0.6, rests{"count-different"}, chain{{"Colour the parts that return", 1, 1, "", ""}}},
	{"transpose", "A tune from another note", instrument.Shared, Theory, 1.1, rests{"major-five"}, chain{{"A three-note tune from three starting notes", 1, 1, "", ""}, {"A known song one step higher", 1, 1, "", ""}}},

	{"higher-lower", "Hears higher from lower", instrument.Shared, Ear, 0.6, nil, chain{{"Stand or crouch to two tones far apart, then nearer", 1, 1, "", ""}}},
	{"sing-back", "Sings back three tones", instrument.Shared, Ear, 0.7, rests{"higher-lower"}, chain{{"One tone, then two, then three", 1, 1, "", ""}}},
	{"find-by-ear", "Finds a heard note", instrument.Shared, Ear, 0.9, rests{"sing-back"}, chain{{"Sing it first, then match it", 1, 1, "", ""}}},
	{"tune-by-ear", "A known tune by ear", instrument.Shared, Ear, 1.2, rests{"find-by-ear"}, chain{{"Listen daily for a week", 2, 1, "", ""}, {"Find its first four notes", 1, 1, "", ""}}},
	{"major-minor-ear", "Hears major from minor", instrument.Shared, Ear, 0.8, rests{"sing-back"}, chain{{"Sunny or cloudy: the same tune both ways", 1, 1, "", ""}}},
	{"chord-ear", "Hears home and away", instrument.Shared, Ear, 0.9, rests{"sing-back"}, chain{{"Lift a hand when the chord leaves home", 1, 1, "", ""}}},

	{"loud-soft", "Loud against soft", instrument.Shared, Expression, 0.8, nil, chain{{"Near and far: one tone, two distances", 1, 1, "", ""}}},
	{"six-levels", "Six levels from pp to ff", instrument.Shared, Expression, 1.1, rests{"loud-soft"}, chain{
		{"A five-note pattern at each of the six levels", 1, 1, "", "levels C right"}, {"The same on its skips, then on its chord", 1, 1, "", "levels C right"}}},
	{"swell", "Growing and fading", instrument.Shared, Expression, 0.9, rests{"loud-soft"}, chain{{"Rising grows, falling fades, on five notes", 1, 1, "", "five C right"}, {"A long broken chord from pp to ff and back", 1, 1, "", "shaped C right"}}},
	{"phrase-breath", "A breath between phrases", instrument.Shared, Expression, 0.7, rests{"free-shoulders"}, chain{{"Sing the phrase, breathe where the song does", 1, 1, "", ""}}},
	{"accents", "Accents", instrument.Shared, Expression, 0.7, rests{"loud-soft"}, chain{{"One strong word in a spoken line, then on one tone", 1, 1, "", ""}}},
	{"tempo-change", "Slowing and picking up again", instrument.Shared, Expression, 0.8, rests{"metronome"}, chain{{"Walk to a stop together and start again", 1, 1, "", ""}}},
	{"character", "Names the character and shows it", instrument.Shared, Expression, 0.6, rests{"loud-soft"}, chain{{"The same line as two different people would say it", 1, 1, "", ""}}},
	{"silent-tempo", "Sets the tempo silently", instrument.Shared, Expression, 0.6, rests{"steady-beat"}, chain{{"Hear two bars inside, then begin", 1, 1, "", ""}}},
	{"perform", "Plays through for others", instrument.Shared, Expression, 0.9, rests{"silent-tempo"}, chain{{"Walk on, sit, breathe, play, bow: at home first", 2, 1, "", ""}}},
}
