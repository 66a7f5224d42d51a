package shelf

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
)

// What a home keyboard can do: common layouts, common practice, no source.
func TestWhatAHomeInstrumentCanDo(t *testing.T) {
	soft := Item{Title: "Near and Far", Instrument: "piano", Brings: []string{"loud-soft"}}
	pedal := Item{Title: "Night Crossing", Instrument: "piano", Asks: []string{"pedals"}}
	wide := Item{Title: "Long Ladder", Instrument: "piano", Low: 33, High: 90}
	plain := Item{Title: "Rope Walk", Instrument: "piano", Low: 60, High: 67}
	cello := Item{Title: "Lamp Room", Instrument: "cello", Brings: []string{"loud-soft"}, Low: 36, High: 100}
	for _, c := range []struct {
		name  string
		home  Home
		it    Item
		lacks string
	}{
		{"a full piano", Home{}, wide, ""},
		{"88 keys", Home{Keys: 88}, wide, ""},
		{"76 keys from E", Home{Keys: 76}, wide, ""},
		{"61 keys are too few", Home{Keys: 61}, wide, "keys"},
		{"49 keys hold five fingers", Home{Keys: 49}, plain, ""},
		{"a toy keyboard too", Home{Keys: 25}, plain, ""},
		{"no soft and loud without touch", Home{Keys: 61, NoTouch: true}, soft, "touch"},
		{"no pedal", Home{NoPedals: true}, pedal, "pedals"},
		{"only keyboards are asked", Home{Keys: 25, NoTouch: true}, cello, ""},
	} {
		why := c.home.Lacks(instrument.Shipped.Of(c.it.Instrument), c.it)
		if c.lacks == "" {
			assert.Nil(t, why, c.name)
		} else if assert.NotNil(t, why, c.name) {
			assert.Equal(t, c.lacks, why.Args["what"], c.name)
		}
	}
	assert.NoError(t, Home{Keys: 61}.Check())
	assert.ErrorContains(t, Home{Keys: 12}.Check(), "25 to 97")
}
