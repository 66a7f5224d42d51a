package musicxml

import (
	"strconv"
	"strings"

	"patientladder/core/score"
)

// direction reads a <direction>: MusicXML 4.0, "The <direction> element".
func (m *measure) direction(e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "direction-type":
			for one := c.first(); one.here(); one = one.next() {
				m.mark(one)
			}
		case "sound":
			m.sound(c)
		case "staff", "voice":
		default:
			m.unread(c.name())
		}
	}
}

// sound reads a <sound>: its tempo where no mark has told one yet. That the playing
// goes elsewhere is not kept.
func (m *measure) sound(e element) {
	for _, jump := range []string{"dacapo", "dalsegno", "tocoda", "fine"} {
		if e.attr(jump) != "" {
			m.unread("jump (da capo, segno, coda)")
		}
	}
	if qpm, err := strconv.ParseFloat(e.attr("tempo"), 64); err == nil && qpm > 0 && qpm <= fastest && !m.r.paced {
		m.tempo(qpm, score.Quarters(1))
	}
}

func (m *measure) tempo(qpm float64, beat score.Time) {
	m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: "tempo", QPM: qpm, Beat: beat})
	m.r.paced = true
}

// mark reads what a direction says at the moment that the bar has come to.
func (m *measure) mark(e element) {
	add := func(kind, text string) {
		m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.cursor, Kind: kind, Text: text})
	}
	switch e.name() {
	case "dynamics":
		for one := e.first(); one.here(); one = one.next() {
			add("dynamic", one.name())
		}
	case "words":
		if text := e.text(); text != "" {
			add("words", text)
		}
	case "metronome":
		if qpm, beat, ok := tempo(e); ok {
			m.tempo(qpm, beat)
		} else {
			m.unread("metronome mark")
		}
	case "wedge":
		add("dynamic", e.attr("type"))
	case "pedal":
		if t := e.attr("type"); t == "start" || t == "stop" || t == "change" {
			add("pedal", t)
		}
	default:
		m.unread(e.name())
	}
}

// barline reads a <barline>: its repeat and its ending.
func (m *measure) barline(e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "ending":
			switch c.attr("type") {
			case "start":
				m.endings = nil
				for f := range strings.FieldsFuncSeq(c.attr("number"), func(r rune) bool { return r == ',' || r == ' ' || r == '.' }) {
					if n, err := strconv.Atoi(f); err == nil && n > 0 && n < 16 {
						m.endings = append(m.endings, n)
					}
				}
			case "stop", "discontinue":
				m.closing = true
			}
		case "repeat":
			if c.attr("direction") == "forward" {
				m.bar.Repeat.Starts = true
				continue
			}
			times, _ := strconv.Atoi(c.attr("times")) // twice where it does not say
			m.bar.Repeat.Ends = min(max(times, 2), 16)
		default:
			m.unread(c.name())
		}
	}
}
