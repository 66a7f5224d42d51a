package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"patientladder/core/notation"
	"patientladder/core/pitch"
	"patientladder/core/score"
)

type readNote struct {
	Pitch    pitch.Pitch `json:"pitch"`
	Onset    score.Time  `json:"onset"`
	Duration score.Time  `json:"duration"`
}

type readPart struct {
	Name  string     `json:"name"`
	Staff int        `json:"staff"`
	Notes []readNote `json:"notes"`
}

type readScore struct {
	Title  string         `json:"title"`
	Bars   int            `json:"bars"`
	Parts  []readPart     `json:"parts"`
	Unread []score.Unread `json:"unread"`
}

// readCommand prints a score: a part entry for each staff, ties joined, times
// in quarter notes from the start of the piece.
func readCommand(args []string, out io.Writer) error {
	name, played := "", false
	for _, a := range args {
		switch {
		case a == "--played":
			played = true
		case name == "":
			name = a
		default:
			return fmt.Errorf("read takes one file and --played, not also %q", a)
		}
	}
	if name == "" {
		return errors.New("read needs a score file: ladder read FILE [--played]")
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
	return json.NewEncoder(out).Encode(shown(s, played))
}

func shown(s score.Score, played bool) readScore {
	order := s.Written()
	if played {
		order = s.Played()
	}
	r := readScore{Title: s.Title, Bars: len(order), Parts: []readPart{}, Unread: append([]score.Unread{}, s.Unread...)}
	for _, p := range s.Parts {
		for staff := 1; staff <= p.Staves; staff++ {
			rp := readPart{Name: p.Name, Staff: staff, Notes: []readNote{}}
			for _, n := range p.Sounding(staff, order) {
				rp.Notes = append(rp.Notes, readNote{n.Pitch, n.Onset, n.Duration})
			}
			r.Parts = append(r.Parts, rp)
		}
	}
	return r
}
