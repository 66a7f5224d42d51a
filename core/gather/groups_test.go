package gather

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
)

func TestWhoMightShareAnHour(t *testing.T) {
	at := func(day time.Weekday, start string) calendar.Slot {
		return calendar.Slot{Weekday: day, Start: start, Minutes: 30}
	}
	got := Groups([]Attends{
		{"c", "Cole", "cole@x", "cello", at(time.Wednesday, "17:00")},
		{"a", "Abel", "home@x", "piano", at(time.Wednesday, "15:00")},
		{"b", "Baker", "home@x", "piano", at(time.Wednesday, "15:45")}, // 15 minutes after
		{"d", "Dunn", "", "piano", at(time.Wednesday, "17:46")},        // 16 minutes after
		{"e", "Dunn", "", "flute", at(time.Friday, "15:00")},
	})
	assert.Equal(t, []Group{
		{"neighbours", "Wednesday", []string{"a", "b"}},
		{"family", "Baker", []string{"a", "b"}}, // one mail for both
		{"family", "Dunn", []string{"d", "e"}},
		{"instrument", "piano", []string{"a", "b", "d"}},
	}, got)
	var many []Attends
	for _, start := range []string{"14:00", "14:30", "15:00", "15:30", "16:00", "16:30", "17:00", "17:30"} {
		many = append(many, Attends{ID: start, Contact: start, Plays: start, Slot: at(time.Monday, start)})
	}
	got = Groups(many)
	assert.Len(t, got, 2)
	assert.Len(t, got[0].Students, 6, "no more at once than a room holds")
	assert.Len(t, got[1].Students, 2)
	assert.Empty(t, Groups(nil))
}
