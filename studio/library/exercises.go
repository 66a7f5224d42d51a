package library

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/exercise"
	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/notation/musicxml"
	"patientladder/core/phrase"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/notes"
)

// scoreOf makes the score file of an item whose notes are made by rule; nil for another.
func scoreOf(r studio.Room, it shelf.Item) (*store.ScoreFile, error) {
	if it.Exercise == "" {
		return nil, nil
	}
	spec, err := exercise.Parse(it.Exercise)
	if err != nil {
		return nil, err
	}
	s, err := exercise.Make(spec, r.Instruments.Of(it.Instrument))
	if err != nil {
		return nil, err
	}
	return &store.ScoreFile{Name: strings.ReplaceAll(spec.String(), " ", "-") + ".musicxml", Data: musicxml.Write(s)}, nil
}

// remake gives items the notes of the exercises that they name, where those are others
// than before.
func remake(ctx context.Context, r studio.Room, before, after []shelf.Item) error {
	was := studio.ByID(before)
	for _, it := range after {
		if it.Exercise == "" || it.Exercise == was[it.ID].Exercise && was[it.ID].HasScore {
			continue
		}
		file, err := scoreOf(r, it)
		if err != nil {
			return studio.Refuse("The notes of %q cannot be made: %v.", it.Title, err)
		}
		read, err := shelf.Read(file.Name, file.Data, r.Instruments.Of(it.Instrument))
		if err != nil {
			return err
		}
		it.Take(read)
		if err := r.SetScore(ctx, it, *file); err != nil {
			return studio.Failed(err, "item")
		}
	}
	return nil
}

// An ExerciseAsk is an exercise that is tried out.
type ExerciseAsk struct {
	Exercise   string        `json:"exercise" maxLength:"80" doc:"its specification, as scale Eb major both 2"`
	Instrument instrument.ID `json:"instrument" maxLength:"40"`
}

// Chosen are the parts of a specification.
type Chosen struct {
	Kind    exercise.Kind  `json:"kind"`
	Tonic   string         `json:"tonic"`
	Form    exercise.Form  `json:"form" enum:"major,natural,harmonic,melodic"`
	Hands   exercise.Hands `json:"hands" enum:"right,left,both,mirrored"`
	Octaves int            `json:"octaves"`
	Pick    string         `json:"pick"`
}

// An ExerciseView is an exercise made by rule: drawn, heard, and where its hands meet.
type ExerciseView struct {
	notes.Model
	Exercise string             `json:"exercise" doc:"the specification, with what was left out"`
	Title    string             `json:"title"`
	Chosen   Chosen             `json:"chosen" doc:"what the specification chooses"`
	Who      string             `json:"who" doc:"the hands that play, in words; empty where hands do not play alone"`
	How      reason.Label       `json:"how"`
	XML      string             `json:"xml" doc:"MusicXML that draws it, with its fingers"`
	Minute   []reason.Reason    `json:"minute"`
	Meetings []exercise.Meeting `json:"meetings" doc:"of a scale for both hands: where they meet"`
	Thumbs   []int              `json:"thumbs" doc:"of a scale: the degrees, from 1, on which the right hand's thumb falls, or the left's where it plays alone"`
	Grid     *exercise.Grid     `json:"grid,omitempty" doc:"of a cross-rhythm"`
	Letters  map[string]string  `json:"letters" doc:"of a roll: the plucking finger of each note, by its id"`
	Wrong    string             `json:"wrong" doc:"why it cannot be made; empty when it can"`
}

// Exercise makes an exercise and keeps nothing.
func Exercise(ctx context.Context, a *studio.App, who studio.Who, in ExerciseAsk) (ExerciseView, error) {
	v := ExerciseView{Model: notes.ModelOf(reading.Page{}), Minute: []reason.Reason{}, Meetings: []exercise.Meeting{}, Thumbs: []int{}, Letters: map[string]string{}}
	r, err := a.Enter(ctx, who)
	if err != nil {
		return v, err
	}
	spec, err := exercise.Parse(in.Exercise)
	if err != nil {
		v.Wrong = phrase.Begin(err.Error()) + "."
		return v, nil
	}
	on := r.Instruments.Of(in.Instrument)
	u := spec.Usual()
	v.Exercise, v.Title, v.How = spec.String(), r.In.Label(spec.Name()), spec.How()
	v.Chosen = Chosen{u.Kind, u.Tonic, u.Form, u.Hands, u.Octaves, u.Pick}
	if offer, ok := spec.Offer(on); ok && slices.Contains(offer.Asks, "hands") {
		v.Who = r.In.Label(reason.Said("hands." + string(u.Hands)))
	}
	s, err := exercise.Make(spec, on)
	if err != nil {
		v.Wrong = phrase.Begin(err.Error()) + "."
		return v, nil
	}
	s.Title = v.Title
	file := musicxml.Write(s)
	if s, err = notation.Read("exercise.musicxml", file); err != nil { // the ids are those that are drawn
		return v, err
	}
	page := reading.Read(s, on)
	shown := s
	if tab, drawn := page.Tablature(false); on.Fretted() && drawn {
		shown = tab
		v.Letters = notes.Letters(s)
	} else if len(on.Strings) > 0 {
		shown = page.Annotated([]string{"fingers"}, reading.Ask{Size: 4, Known: reading.Landmarks, Words: reading.OwnWords})
	}
	v.Model, v.XML, v.Minute = notes.ModelOf(page), string(musicxml.Write(shown)), page.Minute(page.Demands())
	v.Grid = spec.Grid()
	if on.Family == instrument.Keyboard {
		v.Meetings, v.Thumbs = studio.List(exercise.Meetings(spec)), studio.List(exercise.Thumbs(spec))
	}
	return v, nil
}

// KeepExercise puts an exercise on the shelf, in the book of exercises, and returns its
// item; one that stands there already is that item.
func KeepExercise(ctx context.Context, a *studio.App, who studio.Who, id string, in ExerciseAsk) (shelf.Item, error) {
	r, items, err := Shelved(ctx, a, who)
	if err != nil {
		return shelf.Item{}, err
	}
	spec, err := exercise.Parse(in.Exercise)
	if err != nil {
		return shelf.Item{}, studio.Refuse("The exercise cannot be kept: %v.", err)
	}
	for _, it := range items {
		if it.Exercise == spec.String() && it.Instrument == in.Instrument && it.Book == exerciseBook {
			return it, nil
		}
	}
	on := r.Instruments.Of(in.Instrument)
	it := shelf.Item{ID: id, Title: r.In.Label(spec.Name()), Instrument: in.Instrument, Strand: shelf.Technique, Book: exerciseBook, Exercise: spec.String(),
		Brings: spec.Skills(on), Needs: []string{}, Revisits: []string{}, Parts: shelf.Parts{}, Points: shelf.PointsOf("Quiet idle fingers", "Even")}
	ready := []store.NewItem{{Item: it}}
	if err := AddItems(ctx, a, who, ready); err != nil {
		return shelf.Item{}, err
	}
	kept, err := r.Item(ctx, id)
	return kept, studio.Failed(err, "item")
}

// exerciseBook is the book in which exercises stand that were made at the workbench.
const exerciseBook = "Exercises"
