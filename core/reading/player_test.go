package reading

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Of a song, a trio, a band: which the student plays. Two single staves on a keyboard are its
// hands, and nothing is asked.
func TestWhichPartIsTheStudents(t *testing.T) {
	part := func(name string, staves int) score.Part {
		return score.Part{Name: name, Staves: staves, Bars: []score.Bar{{Length: score.Quarters(1), Notes: []score.Note{{Duration: score.Quarters(1), Pitch: pitch.MustParse("C4"), Staff: 1, Voice: 1}}}}}
	}
	silent := score.Part{Name: "Tacet", Staves: 1, Bars: []score.Bar{{Notes: []score.Note{{Rest: true}}}}}
	for _, c := range []struct {
		name  string
		on    instrument.ID
		parts []score.Part
		ask   bool
		plays string
	}{
		{"one", "piano", []score.Part{part("Piano", 2)}, false, ""},
		{"a song for piano", "piano", []score.Part{part("Voice", 1), part("Piano", 2)}, true, "Piano"},
		{"two hands in two parts", "piano", []score.Part{part("", 1), part("", 1)}, false, ""},
		{"the same for a cello", "cello", []score.Part{part("Violin", 1), part("Violoncello", 1)}, true, "Violoncello"},
		{"a trio for a violin", "violin", []score.Part{part("Piano", 2), part("Violin I", 1), part("Violin II", 1)}, true, "Violin I"},
		{"nobody of that name", "guitar", []score.Part{part("Flute", 1), part("Oboe", 1)}, true, "Flute"},
		{"one of them rests all the time", "cello", []score.Part{silent, part("Violoncello", 1)}, false, ""},
		{"four voices for a piano", "piano", []score.Part{part("S", 1), part("A", 1), part("T", 1), part("B", 1)}, true, "S"},
	} {
		list, ask := Players(score.Score{Parts: c.parts}, instrument.Shipped.Of(c.on))
		assert.Equal(t, c.ask, ask, c.name)
		plays := ""
		for _, p := range list {
			if p.Likely {
				plays += p.Name
			}
		}
		assert.Equal(t, c.plays, plays, c.name)
	}
	s := score.Score{Parts: []score.Part{part("Voice", 1), part("Piano", 2), part("Bass", 1)}}
	s.Finish()
	only := s.Only([]int{2, 3})
	assert.Equal(t, "Piano Bass", fmt.Sprint(only.Parts[0].Name, " ", only.Parts[1].Name))
	assert.Equal(t, "p1b1n1", only.Parts[0].Bars[0].Notes[0].ID, "its notes are named anew")
	assert.Equal(t, "p2b1n1", s.Parts[1].Bars[0].Notes[0].ID, "those of the whole are not")
	assert.Equal(t, []score.Unread{{What: "parts of other players", Count: 1}}, only.Unread)
}
