package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"

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
	Notes     []readNote          `json:"notes"`
	Direction []reading.Direction `json:"direction"`
	Intervals []reading.Interval  `json:"intervals"`
	Landmarks []readLandmark      `json:"landmarks"`
	Positions []reading.Position  `json:"positions"`
}

type readScore struct {
	Title        string           `json:"title"`
	Bars         int              `json:"bars"`
	DistinctBars int              `json:"distinctBars"`
	Patterns     []reading.Figure `json:"patterns"`
	Parts        []readPart       `json:"parts"`
	Chunks       []reading.Chunk  `json:"chunks"`
	Unread       []score.Unread   `json:"unread"`
}

// usualAge is the age that chunks are cut for when none is given.
const usualAge = 6

// readCommand prints a score and what a teacher reads off it: a part entry for
// each staff, ties joined, times in quarter notes from the start of the piece.
func readCommand(args []string, out io.Writer) error {
	name, played, age := "", false, usualAge
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
		case name == "":
			name = a
		default:
			return fmt.Errorf("read takes one file, --played and --for AGE, not also %q", a)
		}
	}
	if name == "" {
		return errors.New("read needs a score file: ladder read FILE [--played] [--for AGE]")
	}
	info, err := os.Stat(name)
	switch {
	case err != nil:
		return fmt.Errorf("%s cannot be opened: %w", name, errors.Unwrap(err))
	case info.IsDir():
		return fmt.Errorf("%s is a folder, not a score file", name)
	case info.Size() > notation.MaxFile:
		return fmt.Errorf("%s is larger than %d MB", name, notation.MaxFile>>20)
	}
	data, err := os.ReadFile(name)
	if err != nil {
		return fmt.Errorf("%s cannot be read: %w", name, errors.Unwrap(err))
	}
	s, err := notation.Read(filepath.Base(name), data)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	return json.NewEncoder(out).Encode(shown(s, played, age))
}

func shown(s score.Score, played bool, age int) readScore {
	order := s.Written()
	if played {
		order = s.Played()
	}
	r := readScore{Title: s.Title, Bars: len(order), DistinctBars: reading.Distinct(s), Patterns: append([]reading.Figure{}, reading.Figures(s)...),
		Parts: []readPart{}, Chunks: []reading.Chunk{}, Unread: append([]score.Unread{}, s.Unread...)}
	for _, p := range s.Parts {
		for staff := 1; staff <= p.Staves; staff++ {
			rp := readPart{Name: p.Name, Staff: staff, Notes: []readNote{}}
			line := reading.Line(p, staff, s.Written())
			hand := reading.Right
			if staff > 1 {
				hand = reading.Left
			}
			top, _ := reading.Directions(line)
			rp.Direction = append([]reading.Direction{}, top...)
			rp.Intervals = append([]reading.Interval{}, reading.Melodic(line)...)
			rp.Landmarks = []readLandmark{}
			for _, c := range line {
				note, steps, _ := reading.Nearest(c.Top(), reading.Landmarks)
				rp.Landmarks = append(rp.Landmarks, readLandmark{note, steps, c.Harmonic()})
			}
			rp.Positions = append([]reading.Position{}, reading.Positions(line, hand)...)
			if whole, any := reading.Chunks(line, rp.Positions, hand, reading.Size(age, age >= 8)); any {
				r.Chunks = append(r.Chunks, whole)
			}
			for _, n := range p.Sounding(staff, order) {
				rp.Notes = append(rp.Notes, readNote{n.Pitch, n.Onset, n.Duration})
			}
			r.Parts = append(r.Parts, rp)
		}
	}
	return r
}
