package exercise

import (
	"slices"

	"patientladder/core/approach"
)

// order returns the places of the twelve keys in the order of a school: by fifths from C;
// from the scale of five black keys; with a sharp and a flat more in turn; or by semitone.
// Common practice, no source.
func order(school approach.School) []int {
	out := make([]int, len(fifths[true]))
	for i := range out {
		switch school {
		case approach.FiveBlacks:
			out[i] = (i + 5) % 12 // B
		case approach.ByFifths:
			out[i] = (i + 1) / 2
			if i%2 == 0 {
				out[i] = (12 - i/2) % 12
			}
		case approach.BySemitone:
			out[i] = 7 * i % 12
		default:
			out[i] = i
		}
	}
	return out
}

// Order returns the places of a cycle's keys in the order in which a student learns them:
// that of the school for the twelve, the teacher's own for another list.
func (s Spec) Order(a approach.Approach) []int {
	if s.Pick == "" {
		return order(a[approach.ScaleKey])
	}
	out := make([]int, len(s.keys()))
	for i := range out {
		out[i] = i
	}
	return out
}

// firstKey is the tonic of a student's first scale.
func firstKey(school approach.School) string {
	if school == approach.FiveBlacks {
		return "B"
	}
	return "C"
}

// A Stage is how far a student is with an exercise.
type Stage struct {
	Done []int // places of a cycle's keys that are learnt
	Week int   // lessons since the exercise, or its key, was begun, that one included
}

// Due returns the place of the key of a cycle that is learnt now; false when all are, or
// of an exercise that is no cycle.
func (s Spec) Due(a approach.Approach, at Stage) (int, bool) {
	if s.Kind != Cycle {
		return 0, false
	}
	for _, place := range s.Order(a) {
		if !slices.Contains(at.Done, place) {
			return place, true
		}
	}
	return 0, false
}

// Fit returns what a student practises of an exercise now, by the schools chosen: of a
// cycle the key that is due; the first scale in the first key; and of a scale that is
// written for one hand each hand by itself in the same week, one hand a week, or both from
// where they meet.
func (s Spec) Fit(a approach.Approach, at Stage) []Spec {
	s = s.Usual()
	if place, due := s.Due(a, at); due {
		s, _ = s.Part(place)
	}
	alone := s.Hands == Right && s.Octaves == 1 && (s.Kind == Scale || s.Kind == Half)
	if !alone {
		return []Spec{s}
	}
	if s.Tonic == "C" && s.Form == Major {
		s.Tonic = firstKey(a[approach.ScaleKey])
	}
	other := s
	other.Hands = Left
	switch a[approach.ScaleHands] {
	case approach.OneHandAWeek:
		if at.Week%2 == 0 {
			return []Spec{other}
		}
		return []Spec{s}
	case approach.ByMeeting:
		if s.Kind == Scale {
			s.Kind = MeetOnly
			return []Spec{s}
		}
	}
	return []Spec{s, other}
}
