package family

import (
	"context"
	"slices"

	"patientladder/core/exercise"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/core/week"
	"patientladder/studio"
	"patientladder/studio/notes"
	"patientladder/studio/places"
)

// heard are the lines of a sheet that have notes to hear and to see, by key.
func heard(p *studio.Pupil, sheet week.Sheet) []string {
	out := []string{}
	for _, d := range sheet.Days {
		for _, t := range d.Tasks {
			if !slices.Contains(out, t.Key) && (len(t.Plays) > 0 || places.ItemOf(p, t).HasScore) {
				out = append(out, t.Key)
			}
		}
	}
	return out
}

// lineOf lets a family in to a line of its own sheet.
func lineOf(ctx context.Context, a *studio.App, token, key string) (guest, week.Task, error) {
	p, err := Enter(ctx, a, token)
	if err != nil {
		return p, week.Task{}, err
	}
	_, sheet, err := p.SheetOf(ctx, "", 0)
	if err != nil {
		return p, week.Task{}, err
	}
	if sheet != nil {
		if t, there := sheet.Line(key); there && (len(t.Cards) > 0 || slices.Contains(heard(&p.Pupil, *sheet), key)) {
			return p, t, nil
		}
	}
	return p, week.Task{}, &studio.Error{Kind: studio.Missing, Says: "This line is not on the week's sheet, or has no notes."}
}

// Model lets a family hear a line of its own sheet.
func Model(ctx context.Context, a *studio.App, token, line string) (notes.Model, error) {
	p, t, err := lineOf(ctx, a, token, line)
	if err != nil {
		return notes.Model{}, err
	}
	sc, err := scoreOf(ctx, &p.Pupil, t)
	return notes.ModelOf(reading.Read(sc, p.Plays)), err
}

// scoreOf gives the notes of a task: of an exercise as it is this week, else of its piece.
func scoreOf(ctx context.Context, p *studio.Pupil, t week.Task) (score.Score, error) {
	if len(t.Plays) > 0 {
		if spec, err := exercise.Parse(t.Plays[0].Exercise); err == nil {
			if sc, err := exercise.Make(spec, p.Plays); err == nil {
				return sc, nil
			}
		}
	}
	file, err := p.Score(ctx, places.ItemOf(p, t).ID)
	if err != nil {
		return score.Score{}, studio.Failed(err, "score")
	}
	return notation.Read(file.Name, file.Data) // it was read when it came onto the shelf
}

// FamilyNotes are the notes of a line of the sheet: of a piece its bars, of cards what each
// shows.
type FamilyNotes struct {
	Drawn []notes.DrawnNotes `json:"drawn"`
}

// Notes lets a family see the notes of a line of its own sheet.
func Notes(ctx context.Context, a *studio.App, token, line string) (FamilyNotes, error) {
	p, t, err := lineOf(ctx, a, token, line)
	if err != nil {
		return FamilyNotes{}, err
	}
	out := FamilyNotes{[]notes.DrawnNotes{}}
	for _, c := range places.CardsAsked(&p.Pupil, t) {
		d, err := notes.Drawn(c.Score)
		if len(c.Stops) > 0 {
			d = notes.DrawnNotes{Voices: []notes.DrawnVoice{}, Bracket: []string{}, Stops: c.Stops, Strings: len(p.Plays.Strings)}
		} else if err != nil {
			return out, err
		}
		d.Card = c.ID
		out.Drawn = append(out.Drawn, d)
	}
	if len(t.Cards) > 0 {
		return out, nil
	}
	sc, err := scoreOf(ctx, &p.Pupil, t)
	if err != nil {
		return out, err
	}
	if t.From == 0 {
		d, err := notes.Drawn(sc)
		out.Drawn = append(out.Drawn, d)
		return out, err
	}
	d, err := notes.Drawn(sc.Cut(t.From, t.To))
	if t.Start != nil {
		d.Says, d.Bracket = t.Says.Mark, reading.Read(sc, p.Plays).Between(t.Start.From, t.Start.To, reading.Hand(t.Start.Hand))
	}
	out.Drawn = append(out.Drawn, d)
	return out, err
}
