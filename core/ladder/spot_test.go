package ladder

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
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

// The last weeks before a day, in which a piece is kept ready, and the days after it, on
// which how it went is asked.
func TestADayOfAPiece(t *testing.T) {
	done := calendar.Date("2026-10-01").Time()
	last, asked := int(7*judgement.PolishLast), int(judgement.WentAsked)
	const today = calendar.Date("2026-11-18")
	for _, c := range []struct {
		in            int // days from today
		secure        bool
		nearing, past bool
	}{
		{last, true, true, false}, {last + 1, true, false, false}, {1, true, true, false}, {0, true, true, true}, {-1, true, false, true}, {-asked, true, false, true}, {-asked - 1, true, false, false},
		{1, false, false, false}, {-1, false, false, false},
	} {
		r := Rung{Target: today.Add(c.in)}
		if c.secure {
			r.Foothold = &done
		}
		assert.Equal(t, c.nearing, r.Nearing(today), "%+v", c)
		assert.Equal(t, c.past, r.Past(today), "%+v", c)
	}
	none := Rung{Foothold: &done}
	assert.False(t, none.Nearing(today) || none.Past(today), "without a day")
}

// A pain counts from the day after it was told to the day on which it was cleared.
func TestDaysOfRest(t *testing.T) {
	s := Standing{Rests: []calendar.Span{{From: "2026-11-01", To: "2026-11-05"}, {From: "2026-11-10"}}}
	for day, ached := range map[calendar.Date]bool{"2026-11-01": false, "2026-11-02": true, "2026-11-05": true, "2026-11-06": false, "2026-11-10": false, "2026-11-11": true, "2027-01-01": true} {
		assert.Equal(t, ached, s.Ached(day), day)
	}
}
