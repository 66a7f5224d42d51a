package midifile

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// How well each degree above the tonic fits a key, as listeners judged it.
//
// Source: Krumhansl and Kessler, Tracing the dynamic changes in perceived tonal organization in
// a spatial representation of musical keys, Psychological Review 89 (1982), from memory.
var (
	inMajor = []float64{6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88}
	inMinor = []float64{6.33, 2.68, 3.52, 5.38, 2.60, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17}
)

// plainly is by how much a key must fit better than the one that a file names, before the
// name is taken for one that a program put there unasked. A judgement.
const plainly = 0.1

// settleKey tells the key from the notes where the file names none, or C major though another
// fits plainly better, as programs write that know no key.
func (f *file) settleKey() {
	named := len(f.keys) > 0
	if len(f.keys) > 1 || named && f.keys[0].is != (pitch.Key{Mode: "major"}) {
		return
	}
	held := make([]float64, 12)
	for _, t := range f.tracks {
		for _, n := range t.notes {
			held[n.key%12] += float64(n.off - n.on)
		}
	}
	fits := func(fifths int) float64 {
		tonic := (7*fifths%12 + 12) % 12
		from := func(tonic int) []float64 { return slices.Concat(held[tonic:], held[:tonic]) }
		return math.Max(stat.Correlation(from(tonic), inMajor, nil), stat.Correlation(from((tonic+9)%12), inMinor, nil))
	}
	best := 0
	for fifths := -5; fifths <= 6; fifths++ {
		if fits(fifths) > fits(best) {
			best = fifths
		}
	}
	if best == 0 || named && fits(best) < fits(0)+plainly {
		return
	}
	f.keys = []at[pitch.Key]{{is: pitch.Key{Fifths: best}}}
	f.unread.Note("key, told from the notes", 0)
}

// respell gives the notes that the key does not hold the letters that they have by where they
// go: a half step up is the letter below, raised; down the letter above, lowered. Common
// practice, no source.
func respell(bars []score.Bar, frames []frame) {
	type last struct {
		note *score.Note
		key  pitch.Key
	}
	before := map[[2]int]last{}
	for bi := range bars {
		key := frames[bi].now
		for ni := range bars[bi].Notes {
			n := &bars[bi].Notes[ni]
			if n.Rest {
				continue
			}
			voice := [2]int{n.Staff, n.Voice}
			if b, any := before[voice]; any && !n.TieFrom && b.note.Onset != n.Onset {
				lead(b.note, *n, b.key)
			}
			before[voice] = last{n, key}
		}
	}
}

func lead(n *score.Note, to score.Note, key pitch.Key) {
	if n.TieFrom || n.TieTo || n.Pitch.Alter() == key.Alter(n.Pitch.Step()) || to.Pitch.Alter() != key.Alter(to.Pitch.Step()) {
		return
	}
	line := to.Pitch.Line() - 1
	switch to.Pitch.MIDI() - n.Pitch.MIDI() {
	case 1:
	case -1:
		line = to.Pitch.Line() + 1
	default:
		return
	}
	step, octave := "CDEFGAB"[(line%7+7)%7], line/7
	bare, err := pitch.New(step, 0, octave)
	if err != nil {
		return
	}
	alter := n.Pitch.MIDI() - bare.MIDI()
	if p, err := pitch.New(step, alter, octave); err == nil && max(alter, -alter) <= 1 {
		n.Pitch = p
	}
}
