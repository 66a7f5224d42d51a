package musicxml

import (
	"errors"
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// attributes reads an <attributes>: MusicXML 4.0, "The <attributes> element".
func (m *measure) attributes(e element) error {
	for c := e.first(); c.here(); c = c.next() {
		if err := m.attribute(c); err != nil {
			return err
		}
	}
	return nil
}

func (m *measure) attribute(e element) error {
	switch e.name() {
	case "divisions":
		n, err := strconv.ParseInt(e.text(), 10, 64)
		if err != nil || n <= 0 || n > score.Grid {
			return fmt.Errorf("<divisions> is %q; it must be a positive whole number", e.text())
		}
		m.p.divisions, m.p.lasts = n, ""
	case "staves":
		n, err := strconv.Atoi(e.text())
		if err != nil || n < 1 || n > 8 {
			return fmt.Errorf("%q staves in one part", e.text())
		}
		m.p.part.Staves = max(m.p.part.Staves, n)
	case "key":
		fifths := e.child("fifths").text()
		if fifths == "" {
			m.unread("key without fifths")
			return nil
		}
		n, err := strconv.Atoi(fifths)
		if err != nil || n < -7 || n > 7 {
			return fmt.Errorf("a key of %q fifths", fifths)
		}
		m.bar.Key = &pitch.Key{Fifths: n, Mode: knownMode(e.child("mode").text())}
	case "time":
		return m.meter(e)
	case "clef":
		line, err1 := e.child("line").number()
		octave, err2 := e.child("clef-octave-change").number()
		if err := errors.Join(err1, err2); err != nil {
			return err
		}
		staff, _ := strconv.Atoi(e.attr("number")) // none is written where there is one staff
		m.bar.Clefs = append(m.bar.Clefs, score.Clef{Onset: m.cursor, Staff: max(staff, 1), Sign: e.child("sign").text(), Line: line, Octave: min(max(octave, -2), 2)})
	case "staff-details":
		return m.tuning(e)
	case "transpose":
		if n, err := e.child("chromatic").number(); err == nil && n%12 != 0 {
			m.p.part.Elsewhere = true
		}
		m.unread("transposing instrument (notes kept as written)")
	default:
		m.unread(e.name())
	}
	return nil
}

// tuning reads what a <staff-details> says of strings: line 1 is the lowest. The capo raises
// what is played, and frets count from it.
func (m *measure) tuning(e element) error {
	capo, err := e.child("capo").number()
	if err != nil || capo < 0 || capo > 24 {
		return fmt.Errorf("a capo on fret %q", e.child("capo").text())
	}
	var open []pitch.Pitch
	for c := e.first(); c.here(); c = c.next() {
		if c.name() != "staff-tuning" {
			continue
		}
		alter, err1 := c.child("tuning-alter").number()
		octave, err2 := c.child("tuning-octave").number()
		step := c.child("tuning-step").text()
		if err := errors.Join(err1, err2); err != nil || len(step) != 1 {
			return fmt.Errorf("a string tuned to %q", step)
		}
		p, err := pitch.New(step[0], alter, octave)
		if err != nil {
			return err
		}
		open = append([]pitch.Pitch{pitch.Key{}.Spell(p.MIDI() + capo)}, open...)
	}
	if len(open) > 0 || capo > 0 {
		m.p.part.Tuning, m.p.part.Capo = open, capo
	}
	return nil
}

// meter reads a <time>, of which the first of several meters is kept.
func (m *measure) meter(e element) error {
	var beats, beatType element
	for c := e.first(); c.here(); c = c.next() {
		switch {
		case c.name() == "beats" && beats.here():
			m.unread("further meters at once")
		case c.name() == "beats":
			beats = c
		case c.name() == "beat-type" && !beatType.here():
			beatType = c
		}
	}
	if !beats.here() || e.child("senza-misura").here() {
		m.unread("senza-misura")
		return nil
	}
	of := ""
	if beatType.here() {
		of = beatType.text()
	}
	meter, err := readMeter(beats.text(), of)
	if err != nil {
		return err
	}
	m.bar.Meter, m.p.meter = &meter, meter
	return nil
}

func knownMode(s string) string {
	s = strings.ToLower(strings.TrimSpace(s))
	if _, err := pitch.KeyOf("C", s); err != nil {
		return ""
	}
	return s
}

func readMeter(beats, beatType string) (score.Meter, error) {
	m := score.Meter{}
	for part := range strings.SplitSeq(beats, "+") {
		n, err := strconv.Atoi(strings.TrimSpace(part))
		if err != nil || n < 1 || n > 64 {
			return m, fmt.Errorf("a meter of %q over %q", beats, beatType)
		}
		m.Beats += n
	}
	n, err := strconv.Atoi(strings.TrimSpace(beatType))
	if err != nil || n < 1 || n > 64 || n&(n-1) != 0 {
		return m, fmt.Errorf("a meter of %q over %q", beats, beatType)
	}
	m.BeatType = n
	return m, nil
}
