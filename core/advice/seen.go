package advice

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/fault"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
)

// A Sighting is a fault with how often it was seen lately.
type Sighting struct {
	fault.Fault
	Times int
	Last  *time.Time // nil where it was not seen
}

// Seen puts the faults of an instrument in the order in which they are looked for: what
// was seen lately first, the most often first, then the rest in the order given.
func Seen(faults []fault.Fault, s ladder.Standing, now time.Time) []Sighting {
	out := make([]Sighting, 0, len(faults))
	for _, f := range faults {
		one := Sighting{Fault: f}
		for _, seen := range s.Seen {
			if seen.Fault == f.Key && now.Sub(seen.At) < time.Duration(judgement.FaultWeeks*7*24)*time.Hour {
				at := seen.At
				one.Last, one.Times = &at, one.Times+1
			}
		}
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b Sighting) int { return cmp.Compare(b.Times, a.Times) })
	return out
}
