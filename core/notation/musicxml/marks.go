package musicxml

import (
	"strconv"
	"strings"

	"patientladder/core/score"
)

// direction reads a <direction>: MusicXML 4.0, "The <direction> element".
func (m *measure) direction(e element) {
	at := m.offset(e)
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "direction-type":
			for one := c.first(); one.here(); one = one.next() {
				m.mark(one, at)
			}
		case "sound":
			m.sound(c, at)
		case "staff", "voice":
		default:
			m.unread(c.name())
		}
	}
}

// offset is where an element stands: at the moment that the bar has come to,
// moved by its <offset>, in the bar.
func (m *measure) offset(e element) score.Time {
	offset := e.child("offset")
	if !offset.here() {
		return m.cursor
	}
	ahead, back := strings.CutPrefix(offset.text(), "-")
	by, err := m.time(ahead)
	switch {
	case err != nil:
		return m.cursor
	case !back:
		return m.cursor.Add(by)
	case m.cursor.Less(by):
		return score.Time{}
	}
	return m.cursor.Sub(by)
}

// soundJumps are the jumps by the attributes of <sound> that tell them.
var soundJumps = []struct{ attr, jump string }{
	{"segno", score.Segno}, {"coda", score.Coda}, {"tocoda", score.ToCoda}, {"fine", score.Fine}, {"dacapo", score.DaCapo}, {"dalsegno", score.DalSegno},
}

// jump notes where the playing goes, once a bar.
func (m *measure) jump(jump string, at score.Time) {
	if !m.bar.Jumps(jump) {
		m.bar.Marks = append(m.bar.Marks, score.Jump(jump, at))
	}
}

// sound reads a <sound>: where the playing goes, and its tempo where no mark has told one
// yet.
func (m *measure) sound(e element, at score.Time) {
	for _, s := range soundJumps {
		if v := e.attr(s.attr); v != "" && v != "no" {
			m.jump(s.jump, at)
		}
	}
	if qpm, err := strconv.ParseFloat(e.attr("tempo"), 64); err == nil && qpm > 0 && qpm <= fastest && !m.p.r.paced {
		m.tempo(qpm, score.Quarters(1), at)
	}
}

func (m *measure) tempo(qpm float64, beat, at score.Time) {
	m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: at, Kind: "tempo", QPM: qpm, Beat: beat})
	m.p.r.paced = true
}

// mark reads what a direction says at a moment of the bar.
func (m *measure) mark(e element, at score.Time) {
	add := func(kind, text string) {
		m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: at, Kind: kind, Text: text})
	}
	switch e.name() {
	case "dynamics":
		for one := e.first(); one.here(); one = one.next() {
			add("dynamic", one.name())
		}
	case "words":
		text := e.text()
		if jump := score.JumpInWords(text); jump != "" {
			m.jump(jump, at)
		}
		if text != "" {
			add("words", text)
		}
	case "segno":
		m.jump(score.Segno, at)
	case "coda":
		m.codas = append(m.codas, at)
	case "metronome":
		if qpm, beat, ok := tempo(e); ok {
			m.tempo(qpm, beat, at)
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

// alters are the signs of the alterations that a chord's root may have.
var alters = map[string]string{"": "", "0": "", "1": "#", "-1": "b"}

// harmony reads a <harmony>: MusicXML 4.0, "The <harmony> element". Of several
// chords in one the first is kept.
func (m *measure) harmony(e element) {
	name := func(c element, step string) string {
		letter := c.child(step + "-step").text()
		sign, ok := alters[c.child(step+"-alter").text()]
		if letter == "" || !ok {
			return "?" // on which no chord stands
		}
		return letter + sign
	}
	bass := ""
	if c := e.child("bass"); c.here() {
		bass = name(c, "bass")
	}
	if e.child("degree").here() {
		m.unread("chord symbol: added or altered notes")
	}
	if e.child("frame").here() {
		m.unread("chord diagram")
	}
	symbol, err := score.NewChordSymbol(name(e.child("root"), "root"), e.child("kind").text(), bass)
	if err != nil {
		m.unread("chord symbol")
		return
	}
	m.bar.Marks = append(m.bar.Marks, score.Mark{Onset: m.offset(e), Kind: "chord", Text: symbol.String()})
}

// barline reads a <barline>: its repeat and its ending.
func (m *measure) barline(e element) {
	for c := e.first(); c.here(); c = c.next() {
		switch c.name() {
		case "ending":
			switch c.attr("type") {
			case "start":
				m.p.endings = nil
				for f := range strings.FieldsFuncSeq(c.attr("number"), func(r rune) bool { return r == ',' || r == ' ' || r == '.' }) {
					if n, err := strconv.Atoi(f); err == nil && n > 0 && n < 16 {
						m.p.endings = append(m.p.endings, n)
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
		case "bar-style":
			if style := c.text(); e.attr("location") != "left" && (style == "light-light" || style == "light-heavy") {
				m.bar.Double = true
			}
		default:
			m.unread(c.name())
		}
	}
}
