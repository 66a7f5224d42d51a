package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/pitch"
	"patientladder/core/reading"
	"patientladder/core/score"
)

type readNote struct {
	Pitch    pitch.Pitch `json:"pitch"`
	Onset    score.Time  `json:"onset"`
	Duration score.Time  `json:"duration"`
}

// A readLandmark is the landmark nearest to a chord's top note, and the
// intervals inside the chord.
type readLandmark struct {
	Note     pitch.Pitch        `json:"note"`
	Steps    int                `json:"steps"`
	Harmonic []reading.Interval `json:"harmonic,omitempty"`
}

type readPart struct {
	Name      string              `json:"name"`
	Staff     int                 `json:"staff"`
	Hand      reading.Hand        `json:"hand"`
	Notes     []readNote          `json:"notes"`
	Direction []reading.Direction `json:"direction"`
	Bottom    []reading.Direction `json:"directionOfBottom"`
	Intervals []reading.Interval  `json:"intervals"`
	Landmarks []readLandmark      `json:"landmarks"`
	Positions []reading.Position  `json:"positions"`
	Stops     [][]reading.Stop    `json:"stops,omitempty"`
}

type readScore struct {
	Title        string           `json:"title"`
	Bars         int              `json:"bars"`
	DistinctBars int              `json:"distinctBars"`
	Patterns     []reading.Figure `json:"patterns"`
	Parts        []readPart       `json:"parts"`
	Chunks       []reading.Chunk  `json:"chunks"`
	Demands      []reading.Demand `json:"demands"`
	Theory       reading.Theory   `json:"theory"`
	Rhythms      []reading.Spoken `json:"rhythms"`
	Unread       []score.Unread   `json:"unread"`
}

// usualAge is the age that chunks are cut for when none is given.
const usualAge = 6

// on finds the instrument that the argument after --on names among the program's.
func on(args []string, i int) (instrument.Profile, error) {
	if i < len(args) {
		if p, known := instrument.Shipped.Named(args[i]); known {
			return p, nil
		}
	}
	return instrument.Profile{}, fmt.Errorf("--on needs an instrument: %s", instrument.Shipped.Names())
}

// readCommand prints a score and what a teacher reads off it: a part entry for
// each staff, ties joined, times in quarter notes from the start of the piece.
func readCommand(args []string, out io.Writer) error {
	name, played, age, tune := "", false, usualAge, 1
	var plays instrument.Profile
	for i := 0; i < len(args); i++ {
		switch a := args[i]; {
		case a == "--played":
			played = true
		case a == "--for":
			if i++; i < len(args) {
				age, _ = strconv.Atoi(args[i]) // 0 when it is no number
			}
			if i == len(args) || age < 2 || age > 110 {
				return errors.New("--for needs an age in years: ladder read FILE --for 6")
			}
		case a == "--tune":
			if i++; i < len(args) {
				tune, _ = strconv.Atoi(args[i])
			}
			if i == len(args) || tune < 1 {
				return errors.New("--tune needs a number from 1: ladder read BOOK.abc --tune 7")
			}
		case a == "--on":
			var err error
			i++
			if plays, err = on(args, i); err != nil {
				return err
			}
		case name == "":
			name = a
		default:
			return fmt.Errorf("read takes one file, --tune N, --played, --for AGE and --on INSTRUMENT, not also %q", a)
		}
	}
	if name == "" {
		return errors.New("read needs a score file: ladder read FILE [--tune N] [--played] [--for AGE] [--on INSTRUMENT]")
	}
	s, err := readFile(name, tune)
	if err != nil {
		return err
	}
	if plays.Family == "" {
		plays = reading.Guess(s)
	}
	return json.NewEncoder(out).Encode(shown(reading.Read(s, plays), played, age))
}

// readFile reads a score file of any format, of several tunes the one with a number.
func readFile(name string, tune int) (score.Score, error) {
	info, err := os.Stat(name)
	switch {
	case err != nil:
		return score.Score{}, fmt.Errorf("%s cannot be opened: %w", name, errors.Unwrap(err))
	case info.IsDir():
		return score.Score{}, fmt.Errorf("%s is a folder, not a score file", name)
	case info.Size() > notation.MaxFile:
		return score.Score{}, fmt.Errorf("%s is larger than %d MB", name, notation.MaxFile>>20)
	}
	data, err := os.ReadFile(name)
	if err != nil {
		return score.Score{}, fmt.Errorf("%s cannot be read: %w", name, errors.Unwrap(err))
	}
	tunes, err := notation.Split(filepath.Base(name), data)
	if err != nil {
		return score.Score{}, fmt.Errorf("%s: %w", name, err)
	}
	if tune > len(tunes) {
		return score.Score{}, fmt.Errorf("%s has %d tunes, and none with the number %d", name, len(tunes), tune)
	}
	s, err := tunes[tune-1].Read(filepath.Base(name))
	if err != nil {
		return score.Score{}, fmt.Errorf("%s: %w", name, err)
	}
	return s, nil
}

func shown(p reading.Page, played bool, age int) readScore {
	s := p.Score
	order := s.Written()
	if played {
		order = s.Played()
	}
	r := readScore{Title: s.Title, Bars: len(order), DistinctBars: reading.Distinct(s), Patterns: append([]reading.Figure{}, p.Figures...), Parts: []readPart{},
		Chunks: p.Chunks(reading.Size(age, age >= 8)), Demands: p.Demands(), Theory: p.Theory(), Rhythms: p.Rhythms(reading.OwnWords), Unread: append([]score.Unread{}, s.Unread...)}
	for _, st := range p.Staves {
		part := s.Parts[st.Part]
		rp := readPart{Name: part.Name, Staff: st.Staff, Hand: st.Hand, Notes: []readNote{}, Direction: st.Top, Bottom: st.Bottom, Intervals: append([]reading.Interval{}, st.Intervals...),
			Landmarks: []readLandmark{}, Positions: append([]reading.Position{}, st.Positions...), Stops: st.Stops}
		for _, c := range st.Line {
			note, steps, _ := reading.Nearest(c.Top(), reading.Landmarks)
			rp.Landmarks = append(rp.Landmarks, readLandmark{note, steps, c.Harmonic()})
		}
		for _, n := range part.Sounding(st.Staff, order) {
			rp.Notes = append(rp.Notes, readNote{n.Pitch, n.Onset, n.Duration})
		}
		r.Parts = append(r.Parts, rp)
	}
	return r
}
