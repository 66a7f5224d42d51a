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
		m.p.divisions = n
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
		if m.cursor.Sign() > 0 {
			m.unread("clef change inside a bar")
			return nil
		}
		m.bar.Clefs = append(m.bar.Clefs, score.Clef{Staff: max(staff, 1), Sign: e.child("sign").text(), Line: line, Octave: min(max(octave, -2), 2)})
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
