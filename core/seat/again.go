package seat

import (
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/reason"
)

// growth is how many centimetres a year a child grows at an age. Common practice,
// no source.
func growth(age int) float64 {
	switch {
	case age < 3:
		return 9
	case age < 10:
		return 6
	case age < 15:
		return 6.5
	case age < 18:
		return 2
	}
	return 0
}

// A term of weeks after which a child is measured again, and the growth after
// which it is wanted sooner. Common practice, no source.
const (
	termDays  = 14 * 7
	grownMuch = 3.0
)

// Again returns why a player should be measured again, or nil: never measured, a
// term ago, or grown by about 3 cm since. Grown-ups are measured once.
func Again(measured, today calendar.Date, age int) *reason.Reason {
	if measured == "" {
		r := reason.Of("measure-first")
		return &r
	}
	days := today.Sub(measured)
	if rate := growth(age); rate > 0 {
		if grown := rate * float64(days) / 365; grown >= grownMuch {
			r := reason.Of("measure-grown", "cm", cm(grown), "days", strconv.Itoa(days))
			return &r
		}
		if days > termDays {
			r := reason.Of("measure-term", "weeks", strconv.Itoa(days/7))
			return &r
		}
	}
	return nil
}

// A Look is what a wrong seat looks like, and what to do.
type Look struct {
	Wrong string       `json:"wrong" enum:"low,high,near,far,pedals"`
	Seen  reason.Label `json:"seen"`
	Try   reason.Label `json:"try"`
}

// Looks lists what is seen when a seat is wrong. Common practice, no source.
func Looks() []Look {
	var out []Look
	for _, wrong := range []string{"low", "high", "near", "far", "pedals"} {
		out = append(out, Look{wrong, reason.Said("seat-look." + wrong), reason.Said("seat-look." + wrong + "-try")})
	}
	return out
}
