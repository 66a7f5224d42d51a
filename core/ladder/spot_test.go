package ladder

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestThePlaceOfASpot(t *testing.T) {
	for where, want := range map[string][2]int{
		"bar 7": {7, 7}, "Bars 5 to 6": {5, 6}, "bars 5–6": {5, 6}, "bars 5 - 6, left hand": {5, 6}, "bars 3 and 4": {3, 4}, "the jump in bar 12": {12, 12},
		"the last line": {}, "the crowbar 3": {}, "bar": {}, "bars 6 to 5": {6, 6}, "": {},
	} {
		from, to := Spot{Where: where}.Bars()
		assert.Equal(t, want, [2]int{from, to}, where)
	}
}
