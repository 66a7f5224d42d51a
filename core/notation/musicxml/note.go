package musicxml

import (
	"errors"
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// note reads a <note>: MusicXML 4.0, "The <note> element".
func (m *measure) note(e element) error {
	n := score.Note{Staff: 1}
	var cue, chord, sounds bool
	var duration, voice, verse string
	for c := e.first(); c.here(); c = c.next() {
		switch name := c.name(); name {
		case "grace":
			n.Grace = true
		case "cue":
			cue = true
		case "chord":
			chord = true
		case "rest":
			n.Rest, sounds = true, true
		case "unpitched":
			m.unread("unpitched note")
			n.Rest, sounds = true, true
		case "pitch":
			p, err := readPitch(c)
			if err != nil {
				return err
			}
			n.Pitch, sounds = p, true
		case "duration":
			duration = c.text()
		case "voice":
			voice = c.text()
		case "staff":
			staff, err := c.number()
			if err != nil {
				return err
			}
			if n.Staff = max(staff, 1); n.Staff > 8 {
				return fmt.Errorf("a note on staff %d", n.Staff)
			}
		case "dot":
			n.Dots++
		case "tie":
			tie(&n, c)
		case "time-modification":
			actual, err1 := c.child("actual-notes").number()
			normal, err2 := c.child("normal-notes").number()
			if err := errors.Join(err1, err2); err != nil {
				return err
			}
			if actual > 0 && normal > 0 {
				n.Tuplet = &score.Tuplet{Actual: actual, Normal: normal}
			}
		case "notations":
			m.notations(&n, c)
		case "lyric":
			if text := syllable(c); text != "" && verse != "" {
				m.unread("second verse")
			} else if text != "" {
				verse = text
			}
		case "type":
		default:
			m.unread(name)
		}
	}
	if cue {
		m.unread("cue note")
		if t, err := m.time(duration); err == nil && !chord {
			m.move(t)
		}
		return nil
	}
	if !sounds {
		return fmt.Errorf("a note with neither pitch nor rest")
	}
	if n.Rest {
		if n.Pitch = (pitch.Pitch{}); n.Grace {
			m.unread("rests among grace notes")
			return nil
		}
	}
	n.Lyric = verse
	m.p.part.Staves = max(m.p.part.Staves, n.Staff)
	known := false
	if n.Voice, known = m.p.voices[voice]; !known {
		n.Voice = len(m.p.voices) + 1
		m.p.voices[voice] = n.Voice
	}
	if n.Grace {
		m.unread("time of grace notes")
	} else {
		t, err := m.time(duration)
		if err != nil {
			return err
		}
		n.Duration = t
	}
	if chord {
		if !m.hasLast {
			return fmt.Errorf("a chord note with no note before it")
		}
		n.Onset = m.lastOn
	} else {
		n.Onset = m.cursor
		m.lastOn, m.hasLast = m.cursor, true
		m.move(n.Duration)
	}
	m.bar.Notes, m.tags = append(m.bar.Notes, n), append(m.tags, m.tag)
	return nil
}

// tie reads a <tie> or a <tied>.
func tie(n *score.Note, e element) {
	n.TieTo = n.TieTo || e.attr("type") == "start"
	n.TieFrom = n.TieFrom || e.attr("type") == "stop"
}

// syllable reads a <lyric>; a hyphen stands at its end where the word goes on.
func syllable(e element) string {
	text, hyphen := "", ""
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "text":
			text += c.d.nodes[c.i].text
		case "syllabic":
			hyphen = map[string]string{"begin": "-", "middle": "-"}[c.text()]
		}
	}
	text = strings.TrimSpace(text)
	if text == "" || strings.HasSuffix(text, "-") { // some write the hyphen out
		return text
	}
	return text + hyphen
}

func readPitch(e element) (pitch.Pitch, error) {
	var step, alter, octave string
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "step":
			step = c.text()
		case "alter":
			alter = c.text()
		case "octave":
			octave = c.text()
		}
	}
	by := 0.0
	oct, err := strconv.Atoi(octave)
	if err == nil && alter != "" {
		by, err = strconv.ParseFloat(alter, 64)
	}
	if err != nil || len(step) != 1 {
		return pitch.Pitch{}, fmt.Errorf("a pitch of step %q, alter %q, octave %q", step, alter, octave)
	}
	if by != float64(int(by)) {
		return pitch.Pitch{}, fmt.Errorf("a quarter-tone alteration of %s", alter)
	}
	return pitch.New(step[0], int(by), oct)
}

func (m *measure) notations(n *score.Note, e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "slur":
			switch c.attr("type") {
			case "start":
				n.SlurStarts++
			case "stop":
				n.SlurEnds++
			}
		case "articulations":
			for one := c.first(); one.here(); one = one.next() {
				n.Articulations = append(n.Articulations, one.name())
			}
		case "ornaments":
			for one := c.first(); one.here(); one = one.next() {
				if ornaments[one.name()] {
					n.Articulations = append(n.Articulations, one.name())
				} else {
					m.unread(one.name())
				}
			}
		case "fermata":
			n.Articulations = append(n.Articulations, "fermata")
		case "technical":
			for one := c.first(); one.here(); one = one.next() {
				switch one.name() {
				case "fingering", "pluck":
					n.Fingers = append(n.Fingers, one.text())
				case "up-bow", "down-bow":
					n.Articulations = append(n.Articulations, one.name())
				case "string", "fret":
					m.tablature(n, one)
				default:
					m.unread(one.name())
				}
			}
		case "tied": // some write only this
			tie(n, c)
		case "tuplet":
		default:
			m.unread(c.name())
		}
	}
}

// ornaments are those kept with a note.
var ornaments = map[string]bool{"trill-mark": true, "mordent": true, "inverted-mordent": true, "turn": true}

// tablature keeps a string or a fret where it is a small number.
func (m *measure) tablature(n *score.Note, e element) {
	at, err := strconv.Atoi(e.text())
	switch {
	case err != nil || at < 0 || at > 36 || at > 12 && e.name() == "string":
		m.unread(e.name())
	case e.name() == "string":
		n.String = at
	default:
		n.Fret = at
	}
}
