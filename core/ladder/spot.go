package ladder

import (
	"regexp"
	"strconv"
)

// inBars is how a place is told by its bars.
var inBars = regexp.MustCompile(`(?i)\bbars? (\d{1,4})(?:(?: to |\s?[-–]\s?| and )(\d{1,4}))?`)

// Bars returns the bars that a spot's place names, 0, 0 where it names none.
func (s Spot) Bars() (from, to int) {
	m := inBars.FindStringSubmatch(s.Where)
	if m == nil {
		return 0, 0
	}
	from, _ = strconv.Atoi(m[1]) // figures only
	to, _ = strconv.Atoi(m[2])
	return from, max(from, to)
}
