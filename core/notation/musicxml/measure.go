package musicxml

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/score"
)

// measure reads one bar; cursor is where the next note begins.
type measure struct {
	p       *part
	bar     score.Bar
	cursor  score.Time
	filled  score.Time
	lastOn  score.Time // onset of the note before, for chords
	hasLast bool
	closing bool         // the open ending ends with this bar
	codas   []score.Time // where coda signs stand
	tag     int64        // where the tag of the note being read ends
	tags    []int64      // beside the bar's notes
}

func (m *measure) finish() score.Bar {
	m.bar.Repeat.Endings = m.p.endings
	if m.closing {
		m.p.endings = nil
	}
	if !m.bar.Jumps(score.ToCoda) {
		for _, at := range m.codas { // one that a <sound> explains is no other
			m.jump(score.Coda, at)
		}
	}
	m.bar.Length = m.filled
	if m.filled.Sign() == 0 && m.p.meter.BeatType > 0 {
		m.bar.Length = m.p.meter.Length()
	}
	m.p.sort(m.bar.Notes, m.tags)
	return m.bar
}

// layout names children of a measure or a note that only concern the page.
var layout = map[string]bool{
	"print": true, "stem": true, "beam": true, "accidental": true, "instrument": true, "notehead": true,
	"staff-layout": true, "footnote": true, "level": true, "listen": true, "sound": true, "bar-style": true,
	"offset": true, "staff-lines": true, "part-symbol": true, "bookmark": true, "link": true, "instruments": true,
	"play": true,
}

func (m *measure) unread(name string) {
	if !layout[name] {
		m.p.r.s.Note(name, m.p.r.bar)
	}
}

func (m *measure) child(e element) error {
	m.tag = int64(m.p.r.d.at)
	if err := m.p.r.d.fill(); err != nil {
		return err
	}
	switch e.name() {
	case "attributes":
		return m.attributes(e)
	case "note":
		return m.note(e)
	case "backup", "forward":
		t, err := m.time(e.child("duration").text())
		if err != nil {
			return err
		}
		m.hasLast = false
		if e.name() == "forward" {
			m.move(t)
		} else if m.cursor = m.cursor.Sub(t); m.cursor.Less(score.Time{}.Sub(slack)) {
			return fmt.Errorf("the music is backed up to before the bar begins")
		} else if m.cursor.Sign() < 0 { // a program rounded the notes of a tuplet
			m.p.r.s.Note("lengths that do not fill their tuplet", m.p.r.bar)
			m.cursor = score.Time{}
		}
	case "direction":
		m.direction(e)
	case "barline":
		m.barline(e)
	case "sound":
		m.sound(e, m.cursor)
	case "harmony":
		m.harmony(e)
	default:
		m.unread(e.name())
	}
	return nil
}

// slack is how far behind the beginning of a bar rounded lengths may lead. A judgement.
var slack = score.Frac(1, 32)

func (m *measure) move(t score.Time) {
	m.cursor = m.cursor.Add(t)
	if m.filled.Less(m.cursor) {
		m.filled = m.cursor
	}
}

// time reads a number of divisions, which may have a fraction.
func (m *measure) time(s string) (score.Time, error) {
	if s != "" && s == m.p.lasts {
		return m.p.lasting, nil
	}
	whole, frac, _ := strings.Cut(s, ".")
	if len(frac) > 6 {
		return score.Time{}, fmt.Errorf("the duration %q is too fine", s)
	}
	num, err := strconv.ParseInt(whole+frac, 10, 64)
	if err != nil || num < 0 || num > 1<<40 {
		return score.Time{}, fmt.Errorf("%q is not a duration", s)
	}
	den := int64(1)
	for range frac {
		den *= 10
	}
	if m.p.divisions == 0 {
		return score.Time{}, fmt.Errorf("a duration stands before <divisions> says what it counts")
	}
	t, err := score.NewTime(num, den*m.p.divisions)
	if err == nil {
		m.p.lasts, m.p.lasting = s, t
	}
	return t, err
}
