package musicxml

import (
	"strconv"

	"patientladder/core/score"
)

// noteTypes gives each note value's length in quarter notes, as a fraction.
var noteTypes = []struct {
	name     string
	num, den int64
}{
	{"breve", 8, 1}, {"whole", 4, 1}, {"half", 2, 1}, {"quarter", 1, 1}, {"eighth", 1, 2},
	{"16th", 1, 4}, {"32nd", 1, 8}, {"64th", 1, 16}, {"128th", 1, 32}, {"256th", 1, 64},
}

// fastest is the quickest tempo that is believed, a minute.
const fastest = 2000

// tempo returns quarter notes a minute and the note value counted of a
// <metronome>.
func tempo(e element) (qpm float64, beat score.Time, ok bool) {
	per, err := strconv.ParseFloat(e.child("per-minute").text(), 64)
	if err != nil || per <= 0 || per > fastest {
		return 0, beat, false
	}
	unit := e.child("beat-unit").text()
	for _, t := range noteTypes {
		if t.name == unit {
			beat = score.Frac(t.num, t.den)
			if e.child("beat-unit-dot").here() {
				beat = score.Frac(3*t.num, 2*t.den)
			}
			return per * beat.Float(), beat, true
		}
	}
	return 0, beat, false
}
