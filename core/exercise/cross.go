package exercise

import (
	"fmt"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A Grid is the common grid of a cross-rhythm: as many cells in a bar as both hands'
// notes have in common, who plays in each, and a phrase spoken on what sounds.
type Grid struct {
	Cells int    `json:"cells" doc:"in a bar: the least common multiple of both"`
	Right []int  `json:"right" doc:"cells, from 0, in which the right hand plays"`
	Left  []int  `json:"left"`
	Says  []Said `json:"says" doc:"a syllable on each cell in which something sounds"`
}

// A Said is a syllable and the cell it falls on.
type Said struct {
	Cell int    `json:"cell"`
	Word string `json:"word"`
}

// phrases are spoken on what sounds of a cross-rhythm, by the smaller and the greater
// number: a syllable a stroke, longer where the pause is. Our own.
var phrases = map[string]string{
	"2:3": "Sea, salt and sand",
	"3:4": "Pull the wet rope in now",
	"2:5": "Gulls ride o- ver grey waves",
	"3:5": "Down by the quay a bell rings",
	"4:5": "Fog on grey wa- ter hides the shore",
	"2:4": "Walk, and walk on",
}

// Grid returns the grid of a cross-rhythm; nil for another exercise.
func (s Spec) Grid() *Grid {
	s = s.Usual()
	if s.Kind != Cross || s.Check() != nil {
		return nil
	}
	right, left := int(s.Pick[0]-'0'), int(s.Pick[2]-'0')
	g := &Grid{Cells: right * left / common(right, left)}
	for i := range right {
		g.Right = append(g.Right, i*g.Cells/right)
	}
	for i := range left {
		g.Left = append(g.Left, i*g.Cells/left)
	}
	words := strings.Fields(phrases[fmt.Sprintf("%d:%d", min(right, left), max(right, left))])
	for cell := range g.Cells {
		if (cell*right%g.Cells == 0 || cell*left%g.Cells == 0) && len(words) > 0 {
			g.Says = append(g.Says, Said{cell, words[0]})
			words = words[1:]
		}
	}
	return g
}

// common is the greatest common divisor.
func common(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// cross plays each hand alone for a bar, then both together for two: the left hand beats
// quarters, the right one fits its notes into the same bar.
func cross(s Spec, on instrument.Profile) (score.Score, error) {
	if on.Family != instrument.Keyboard {
		return score.Score{}, fmt.Errorf("%q is not an exercise of the %s", s.Kind, on)
	}
	right, left := int(s.Pick[0]-'0'), int(s.Pick[2]-'0')
	meter := score.Meter{Beats: left, BeatType: 4}
	key, err := s.key()
	if err != nil {
		return score.Score{}, err
	}
	low := s.tonicFrom(pitch.MustParse("C3"))
	high := s.degrees(low.Octaves(1), 4, false)[4]
	part := score.Part{Staves: 2}
	for bar := range 4 {
		b := score.Bar{Length: meter.Length()}
		hand := func(staff, notes int, p pitch.Pitch, plays bool) {
			if !plays {
				b.Notes = append(b.Notes, score.Note{Rest: true, Duration: meter.Length(), Voice: staff, Staff: staff})
				return
			}
			for i := range notes {
				n := score.Note{Onset: score.Frac(int64(i*left), int64(notes)), Duration: score.Frac(int64(left), int64(notes)), Pitch: p, Voice: staff, Staff: staff, Fingers: []string{"3"}}
				if notes != left {
					n.Tuplet = &score.Tuplet{Actual: notes, Normal: left}
				}
				b.Notes = append(b.Notes, n)
			}
		}
		hand(1, right, high, bar != 1)
		hand(2, left, low, bar != 0)
		part.Bars = append(part.Bars, b)
	}
	first := &part.Bars[0]
	first.Key, first.Meter = &key, &meter
	first.Clefs = []score.Clef{{Staff: 1, Sign: "G", Line: 2}, {Staff: 2, Sign: "F", Line: 4}}
	sc := score.Score{Parts: []score.Part{part}}
	sc.Finish()
	return sc, nil
}
