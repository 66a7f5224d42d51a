package reading

import (
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/score"
)

// A PlayerPart is a part of a score that somebody plays or sings.
type PlayerPart struct {
	Part   int    `json:"part" doc:"from 1"`
	Name   string `json:"name" doc:"as the score has it; empty where it has none"`
	Staves int    `json:"staves"`
	Notes  int    `json:"notes"`
	Likely bool   `json:"likely" doc:"the one that a student of the instrument most likely plays"`
}

// Players lists the parts with notes, and says whether it must be asked which of them the
// student plays: not of one, nor of two single staves on a keyboard, which are its two hands.
// Likely is on a keyboard the first part of two staves, on another instrument the first that bears
// its name, else the first of all. Common practice, no source.
func Players(s score.Score, on instrument.Profile) (list []PlayerPart, ask bool) {
	staves := 0
	for i, p := range s.Parts {
		notes := 0
		for _, b := range p.Bars {
			for _, n := range b.Notes {
				if !n.Rest {
					notes++
				}
			}
		}
		if notes > 0 {
			list = append(list, PlayerPart{Part: i + 1, Name: p.Name, Staves: p.Staves, Notes: notes})
			staves = max(staves, p.Staves)
		}
	}
	if len(list) < 2 || on.Family == instrument.Keyboard && len(list) == 2 && staves == 1 {
		return list, false
	}
	likely := 0
	for i, p := range list {
		theirs := strings.Contains(strings.ToLower(p.Name), strings.ToLower(on.Name))
		if on.Family == instrument.Keyboard {
			theirs = p.Staves == 2
		}
		if theirs {
			likely = i
			break
		}
	}
	list[likely].Likely = true
	return list, true
}
