package exercise

import (
	"slices"

	"patientladder/core/pitch"
)

// An octave outruns the hand: groups of three and four fingers alternate, so that two
// of the seven notes are the thumb's. Thumbs pass to white keys only. On a white tonic
// the thumb is there, and again a fourth away, or a fifth where the fourth is black;
// on a black one it falls on the white keys beside black ones, which the long fingers
// hold: after them in the hand's own direction (rising for the right hand, falling for
// the left). Common practice, no source; all keys against Hanon (1873), No. 39.
//
// thumbs returns the two degrees (0 to 6) of a scale's seven notes that the thumb of a
// hand plays.
func thumbs(scale []pitch.Pitch, hand Hands) [2]int {
	out, least := [2]int{0, 3}, 100
	for a := range 7 {
		for _, gap := range []int{3, 4} {
			b := (a + gap) % 7
			cost := 0
			for _, thumb := range []int{a, b} {
				if black(scale[thumb]) {
					cost += 10
				}
				beside := scale[(thumb+6)%7]
				if hand == Left {
					beside = scale[(thumb+1)%7]
				}
				if !black(beside) {
					cost++
				}
			}
			if !black(scale[0]) { // the tonic first, then the nearer fourth in the hand's direction
				if a != 0 && b != 0 {
					cost += 5
				}
				other := a + b
				if hand == Right && other != 3 || hand == Left && other != 4 {
					cost += 3
				}
			}
			if cost < least {
				out, least = [2]int{a, b}, cost
			}
		}
	}
	return out
}

// fingering returns the finger of each of a rising scale's notes, from its tonic: the
// thumb on its degrees, the others one after another between. The hand ends on the next
// finger where a thumb would have to pass once more: the right one at the top, the left
// one at the bottom.
func fingering(rising []pitch.Pitch, hand Hands) []int {
	at := thumbs(rising[:7], hand)
	isThumb := func(degree int) bool { degree = ((degree % 7) + 7) % 7; return degree == at[0] || degree == at[1] }
	out := make([]int, len(rising))
	for i := range rising {
		finger, by := 1, -1 // fingers are counted from the thumb below, of the left hand from the one above
		if hand == Left {
			by = 1
		}
		for d := i; !isThumb(d); d += by {
			finger++
		}
		out[i] = finger
	}
	last := len(out) - 1
	if hand == Right && out[last] == 1 {
		out[last] = out[last-1] + 1
	}
	if hand == Left && out[0] == 1 {
		out[0] = out[1] + 1
	}
	return out
}

// chordFingers returns the fingers of a broken chord's rising tones, from its tonic. The
// thumb takes the tonic where that is white or all tones are black, else the first white
// tone from the hand's own side. The finger beyond the second is the third or the fourth:
// of the right hand the fourth over a wide gap, of the left one the third only on a black
// key that lies nearer to the second finger than to the thumb below. Common practice, no
// source; all keys against Hanon (1873), No. 41, from memory.
func chordFingers(tones []pitch.Pitch, hand Hands) []int {
	at := 0
	if black(tones[0]) {
		for _, i := range []int{2, 1} { // the left hand's first white tone is the upper one
			if !black(tones[i]) && (at == 0 || hand == Right) {
				at = i
			}
		}
	}
	gap := func(i int) int { // from a tone of the chord to the next one up
		i %= 3
		return tones[i+1].MIDI() - tones[i].MIDI()
	}
	of := [3]int{} // the finger of each tone of an octave
	second, third := (at+1)%3, (at+2)%3
	of[at], of[second], of[third] = 1, 2, 3
	if hand == Right && gap(second) >= 5 {
		of[third] = 4
	}
	if hand == Left {
		second, third = third, second
		of[second], of[third] = 2, 4
		if black(tones[third]) && gap(third) <= 4 && gap(at) >= 4 {
			of[third] = 3
		}
	}
	out := make([]int, len(tones))
	for i := range tones {
		out[i] = of[i%3]
	}
	if last := len(out) - 1; hand == Right && out[last] == 1 {
		out[last] = 5
	}
	if hand == Left && out[0] == 1 {
		out[0] = 5
	}
	return out
}

// chromaticFingers returns the fingers of a rising run of semitones: the third on black
// keys, the thumb on white ones, the second on the upper white key of the two pairs (the
// lower one for the left hand). Common practice, no source.
func chromaticFingers(run []pitch.Pitch, hand Hands) []int {
	second := map[int]bool{0: true, 5: true} // C and F
	if hand == Left {
		second = map[int]bool{4: true, 11: true} // E and B
	}
	out := make([]int, len(run))
	for i, p := range run {
		switch class := p.MIDI() % 12; {
		case black(p):
			out[i] = 3
		case second[class]:
			out[i] = 2
		default:
			out[i] = 1
		}
	}
	return out
}

// A Meeting is where both hands have the same finger on a note of a scale played in
// parallel, or a pair of fingers crosswise over two neighbours.
type Meeting struct {
	Degrees []int `json:"degrees" doc:"from 1: one where fingers meet, two where they lie crosswise"`
	Fingers []int `json:"fingers" doc:"the finger that meets; or the right hand's two"`
}

// Thumbs lists the degrees, from 1, of a keyboard scale on which the thumb falls: of the
// right hand, or of the left where it plays alone. None for what is no scale.
func Thumbs(s Spec) []int {
	s = s.Usual()
	if s.Kind != Scale && s.Kind != MeetOnly || s.Check() != nil {
		return nil
	}
	hand := Right
	if s.Hands == Left {
		hand = Left
	}
	from, _ := pitch.Parse("C4")
	at := thumbs(s.degrees(s.tonicFrom(from), 6, false), hand)
	slices.Sort(at[:])
	return []int{at[0] + 1, at[1] + 1}
}

// Meetings lists, of one octave inside a longer scale for both hands, where they meet:
// same fingers first, by degree, then the pairs that lie crosswise. They are what the
// student plays first. None for what is no such scale.
func Meetings(s Spec) []Meeting {
	if s.Kind != MeetOnly && (s.Kind != Scale || s.Hands != Both) || s.Check() != nil {
		return nil
	}
	s = s.Usual()
	s.Octaves = 3 // the middle one has neither end
	from, _ := pitch.Parse("C4")
	rising := s.degrees(s.tonicFrom(from), 21, false)
	right, left := fingering(rising, Right)[7:15], fingering(rising, Left)[7:15]
	var out, crossed []Meeting
	for i := range 7 {
		switch {
		case right[i] == left[i]:
			out = append(out, Meeting{[]int{i + 1}, []int{right[i]}})
		case right[i] == left[i+1] && right[i+1] == left[i]:
			crossed = append(crossed, Meeting{[]int{i + 1, i + 2}, []int{right[i], right[i+1]}})
		}
	}
	return append(out, crossed...)
}
