package notes

import (
	"patientladder/core/card"
	"patientladder/core/notation/abc"
	"patientladder/core/score"
	"patientladder/studio"
)

// A DrawnNotes is music for a light engraver, with a bracket over what is to be played.
type DrawnNotes struct {
	Card    string       `json:"card" doc:"id of the card; empty of a piece"`
	ABC     string       `json:"abc"`
	Voices  []DrawnVoice `json:"voices" doc:"in the order of the text"`
	Bracket []string     `json:"bracket" doc:"ids of the notes of one staff that the line holds; none where it holds all"`
	Says    string       `json:"says" doc:"what stands on the bracket"`
	Stops   []card.Stop  `json:"stops" doc:"tablature that a card shows"`
	Strings int          `json:"strings" doc:"lines of tablature"`
}

// A DrawnVoice is what stands in a voice, so that what sounds is found on the page.
type DrawnVoice struct {
	Chords []string `json:"chords" doc:"ids of the notes of each, parted by spaces"`
}

// Drawn is a score for the light engraver.
func Drawn(sc score.Score) (DrawnNotes, error) {
	d, err := abc.Draw(sc)
	out := DrawnNotes{ABC: d.Text, Voices: []DrawnVoice{}, Bracket: []string{}, Stops: []card.Stop{}}
	for _, v := range d.Voices {
		out.Voices = append(out.Voices, DrawnVoice{studio.List(v.Chords)})
	}
	return out, err
}
