package main

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/reading"
)

// convertCommand reads a score file and writes it in the format that the other
// file's name asks for. What is lost on the way is listed, a line each.
func convertCommand(args []string, out io.Writer) error {
	annotated, names := false, []string(nil)
	var plays instrument.Profile
	for i := 0; i < len(args); i++ {
		switch a := args[i]; a {
		case "--annotated":
			annotated = true
		case "--on":
			var err error
			i++
			if plays, err = on(args, i); err != nil {
				return err
			}
		default:
			names = append(names, a)
		}
	}
	if len(names) != 2 {
		return errors.New("convert needs two files: ladder convert IN OUT [--annotated [--on INSTRUMENT]]")
	}
	f, known := notation.Named(names[1])
	if !known {
		return fmt.Errorf("%s is none of the formats that are written: .musicxml, .xml, .mxl, .abc, .mid", names[1])
	}
	s, err := readFile(names[0], 1)
	if err != nil {
		return err
	}
	for _, u := range s.Unread {
		fmt.Fprintf(out, "not kept from %s: %s (first in bar %d, %d in all)\n", filepath.Base(names[0]), u.What, u.Bar, u.Count)
	}
	if annotated {
		if plays.Family == "" {
			plays = reading.Guess(s)
		}
		s = reading.Read(s, plays).Annotated([]string{"direction", "fingers", "positions", "patterns", "tablature"},
			reading.Ask{Size: reading.Size(usualAge, false), Known: reading.Landmarks, Words: reading.OwnWords})
	}
	for _, u := range notation.Losses(f, s) {
		fmt.Fprintf(out, "not held by %s: %s (first in bar %d, %d in all)\n", f, u.What, u.Bar, u.Count)
	}
	data, err := notation.Write(f, s)
	if err != nil {
		return fmt.Errorf("%s cannot be written: %w", names[1], err)
	}
	return writeWhole(names[1], data)
}

// writeWhole writes a file so that it is there whole or not at all.
func writeWhole(name string, data []byte) error {
	tmp, err := os.CreateTemp(filepath.Dir(name), ".writing-*")
	if err != nil {
		return fmt.Errorf("%s cannot be written: %w", name, err)
	}
	defer os.Remove(tmp.Name()) // gone already when it was renamed
	_, err = tmp.Write(data)
	if err = errors.Join(err, tmp.Chmod(0o644), tmp.Close()); err != nil {
		return fmt.Errorf("%s cannot be written: %w", name, err)
	}
	if err := os.Rename(tmp.Name(), name); err != nil {
		return fmt.Errorf("%s cannot be written: %w", name, err)
	}
	return nil
}
