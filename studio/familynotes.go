package studio

import (
	"context"
	"slices"

	"patientladder/core/card"
	"patientladder/core/exercise"
	"patientladder/core/notation"
	"patientladder/core/notation/abc"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/core/week"
)

// heard are the lines of a sheet that have notes to hear and to see, by key.
func (p *pupil) heard(sheet week.Sheet) []string {
	out := []string{}
	for _, d := range sheet.Days {
		for _, t := range d.Tasks {
			if !slices.Contains(out, t.Key) && (len(t.Plays) > 0 || p.itemOf(t).HasScore) {
				out = append(out, t.Key)
			}
		}
	}
	return out
}

// line lets a family in to a line of its own sheet.
func (a *App) line(ctx context.Context, token, key string) (guest, week.Task, error) {
	p, err := a.family(ctx, token)
	if err != nil {
		return p, week.Task{}, err
	}
	_, sheet, err := p.sheetOf(ctx, "", 0)
	if err != nil {
		return p, week.Task{}, err
	}
	if sheet != nil {
		if t, there := sheet.Line(key); there && (len(t.Cards) > 0 || slices.Contains(p.heard(*sheet), key)) {
			return p, t, nil
		}
	}
	return p, week.Task{}, &Error{Kind: Missing, Says: "This line is not on the week's sheet, or has no notes."}
}

// FamilyModel lets a family hear a line of its own sheet.
func (a *App) FamilyModel(ctx context.Context, token, line string) (Model, error) {
	p, t, err := a.line(ctx, token, line)
	if err != nil {
		return Model{}, err
	}
	sc, err := p.notes(ctx, t)
	return model(reading.Read(sc, p.plays)), err
}

// notes are those of a task: of an exercise as it is this week, else of its piece.
func (p *pupil) notes(ctx context.Context, t week.Task) (score.Score, error) {
	if len(t.Plays) > 0 {
		if spec, err := exercise.Parse(t.Plays[0].Exercise); err == nil {
			if sc, err := exercise.Make(spec, p.plays); err == nil {
				return sc, nil
			}
		}
	}
	file, err := p.Score(ctx, p.itemOf(t).ID)
	if err != nil {
		return score.Score{}, told(err, "score")
	}
	return notation.Read(file.Name, file.Data) // it was read when it came onto the shelf
}

// FamilyNotes are the notes of a line of the sheet: of a piece its bars, of cards what each
// shows.
type FamilyNotes struct {
	Drawn []DrawnNotes `json:"drawn"`
}

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

// FamilyNotes lets a family see the notes of a line of its own sheet.
func (a *App) FamilyNotes(ctx context.Context, token, line string) (FamilyNotes, error) {
	p, t, err := a.line(ctx, token, line)
	if err != nil {
		return FamilyNotes{}, err
	}
	out := FamilyNotes{[]DrawnNotes{}}
	for _, c := range p.cardsAsked(t) {
		d, err := drawn(c.Score)
		if len(c.Stops) > 0 {
			d = DrawnNotes{Voices: []DrawnVoice{}, Bracket: []string{}, Stops: c.Stops, Strings: len(p.plays.Strings)}
		} else if err != nil {
			return out, err
		}
		d.Card = c.ID
		out.Drawn = append(out.Drawn, d)
	}
	if len(t.Cards) > 0 {
		return out, nil
	}
	sc, err := p.notes(ctx, t)
	if err != nil {
		return out, err
	}
	if t.From == 0 {
		d, err := drawn(sc)
		out.Drawn = append(out.Drawn, d)
		return out, err
	}
	d, err := drawn(sc.Cut(t.From, t.To))
	if t.Start != nil {
		d.Says, d.Bracket = t.Says.Mark, reading.Read(sc, p.plays).Between(t.Start.From, t.Start.To, reading.Hand(t.Start.Hand))
	}
	out.Drawn = append(out.Drawn, d)
	return out, err
}

func drawn(sc score.Score) (DrawnNotes, error) {
	d, err := abc.Draw(sc)
	out := DrawnNotes{ABC: d.Text, Voices: []DrawnVoice{}, Bracket: []string{}, Stops: []card.Stop{}}
	for _, v := range d.Voices {
		out.Voices = append(out.Voices, DrawnVoice{list(v.Chords)})
	}
	return out, err
}
