package midifile

import (
	"cmp"
	"slices"

	"patientladder/core/score"
)

// A Played is a key as it was pressed.
type Played struct {
	At, Length float64 // milliseconds; from the beginning of the file
	Key        int     // MIDI number
	Velocity   int     // 1 to 127
}

// Performance reads a file as it was played: every key with its time and its strength, nothing put on a
// grid. Errors are *score.SyntaxError.
func Performance(data []byte) ([]Played, error) {
	f, err := parse(data)
	if err != nil {
		return nil, &score.SyntaxError{Msg: err.Error()}
	}
	ms := f.clock()
	var out []Played
	for _, t := range f.tracks {
		for _, n := range t.notes {
			at := ms(n.on)
			out = append(out, Played{at, ms(max(n.off, n.on)) - at, n.key, n.velocity})
		}
	}
	slices.SortStableFunc(out, func(a, b Played) int { return cmp.Compare(a.At, b.At) })
	return out, nil
}

// usualTempo is that of a file before its first, in milliseconds of a quarter note (section 3.1 of the
// standard: 120 quarter notes a minute).
const usualTempo = 500.0

// clock turns ticks into milliseconds by the tempos of a file.
func (f *file) clock() func(tick int64) float64 {
	tempos := slices.Clone(f.tempos)
	slices.SortStableFunc(tempos, func(a, b at[float64]) int { return cmp.Compare(a.tick, b.tick) })
	return func(tick int64) float64 {
		ms, last, quarter := 0.0, int64(0), usualTempo
		for _, t := range tempos {
			if t.tick >= tick {
				break
			}
			ms += float64(t.tick-last) / float64(f.division) * quarter
			last, quarter = t.tick, 60000/t.is
		}
		return ms + float64(tick-last)/float64(f.division)*quarter
	}
}
