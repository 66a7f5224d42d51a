// Package approach holds a student's settings where teachers disagree.
//
// Each setting names the schools it chooses among; Default gives the usual
// choice for an age. The figures are common practice, no source.
package approach

import "fmt"

// An Approach is one student's settings.
type Approach struct {
	Reading string `json:"reading" enum:"direction,landmarks,names,ear,tablature" doc:"how notes are read at first"`
	Upkeep  string `json:"upkeep" enum:"three-quarters,half,third" doc:"share of practice given to secure pieces"`
	Hands   string `json:"hands" enum:"week-each,together" doc:"how a two-hand piece is begun"`
	Counts  string `json:"counts" enum:"by-age,correct-only,quality" doc:"how repetitions are asked for"`
}

// Default returns the usual approach for an age in years.
func Default(age int) Approach {
	a := Approach{Reading: "landmarks", Upkeep: "half", Hands: "week-each", Counts: "by-age"}
	if age < 8 {
		a.Reading = "direction"
	}
	return a
}

// EarFirst returns the default of an ear-led start: three quarters upkeep.
func EarFirst(age int) Approach {
	a := Default(age)
	a.Reading, a.Upkeep = "ear", "three-quarters"
	return a
}

// UpkeepShare returns the share of practice minutes for secure pieces.
func (a Approach) UpkeepShare() float64 {
	switch a.Upkeep {
	case "three-quarters":
		return 0.75
	case "third":
		return 1.0 / 3
	}
	return 0.5
}

// Check refuses a setting that names no school.
func (a Approach) Check() error {
	for _, s := range []struct {
		name, value string
		schools     []string
	}{
		{"reading", a.Reading, []string{"direction", "landmarks", "names", "ear", "tablature"}},
		{"upkeep", a.Upkeep, []string{"three-quarters", "half", "third"}},
		{"hands", a.Hands, []string{"week-each", "together"}},
		{"counts", a.Counts, []string{"by-age", "correct-only", "quality"}},
	} {
		known := false
		for _, school := range s.schools {
			known = known || school == s.value
		}
		if !known {
			return fmt.Errorf("%q is not a choice for %s; choose one of %v", s.value, s.name, s.schools)
		}
	}
	return nil
}
