package shelf

import (
	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/score"
)

// A Printed is what a score tells of its item to a player of an instrument. Nobody
// writes it: it is made from the file by a version of the reader (reading.Version) and
// made anew by a better one, so that it is kept beside the item and not in it.
type Printed struct {
	Bars      int      `json:"bars"`
	Different int      `json:"different"`
	Staves    int      `json:"staves"`
	Tempo     float64  `json:"tempo"`
	Low       int      `json:"low"`
	High      int      `json:"high"`
	Key       string   `json:"key"`
	Meter     string   `json:"meter"`
	Demanded  []string `json:"demanded"`
}

// Read reads a score file for an instrument; errors are those of notation.Read.
func Read(name string, data []byte, on instrument.Profile) (Printed, error) {
	s, err := notation.Read(name, data)
	if err != nil {
		return Printed{}, err
	}
	return PrintedOf(s, on), nil
}

// PrintedOf returns what a score tells to a player of an instrument.
func PrintedOf(s score.Score, on instrument.Profile) Printed {
	r := Printed{Bars: s.Bars(), Different: reading.Distinct(s), Demanded: []string{}}
	page := reading.Read(s, on)
	r.Key = page.Theory().Key
	for _, d := range page.Demands() {
		r.Demanded = append(r.Demanded, d.Skill)
	}
	if len(s.Parts) > 0 {
		r.Staves = s.Parts[0].Staves
	}
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			if b.Meter != nil && r.Meter == "" {
				r.Meter = b.Meter.String()
			}
			for _, m := range b.Marks {
				if m.QPM > 0 && r.Tempo == 0 {
					r.Tempo = m.QPM
				}
			}
			for _, n := range b.Notes {
				if n.Rest {
					continue
				}
				if m := n.Pitch.MIDI(); r.Low == 0 || m < r.Low {
					r.Low = m
				}
				r.High = max(r.High, n.Pitch.MIDI())
			}
		}
	}
	return r
}

// Take gives an item what its score tells.
func (it *Item) Take(r Printed) {
	it.HasScore = true
	it.Bars, it.Different, it.Staves, it.Tempo, it.Low, it.High, it.Key, it.Meter, it.Demanded = r.Bars, r.Different, r.Staves, r.Tempo, r.Low, r.High, r.Key, r.Meter, r.Demanded
}

// Printed returns what an item's score told, as Take gave it.
func (it Item) Printed() Printed {
	return Printed{it.Bars, it.Different, it.Staves, it.Tempo, it.Low, it.High, it.Key, it.Meter, it.Demanded}
}

// Listing returns what a person says of an item, without what its score tells: as it
// is kept.
func (it Item) Listing() Item {
	if it.HasScore {
		bare := it
		bare.Take(Printed{})
		it = bare
	}
	it.HasScore = false
	return it
}
