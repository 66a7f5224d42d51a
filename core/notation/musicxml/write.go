package musicxml

import (
	"bytes"
	"cmp"
	"encoding/xml"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Write writes a score as an uncompressed MusicXML 4.0 document. Each note
// carries its score id. Values that no single note sign can show are written
// with their duration only.
func Write(s score.Score) []byte {
	w := &writer{}
	w.line(`<?xml version="1.0" encoding="UTF-8"?>`)
	w.line(`<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">`)
	w.line(`<score-partwise version="4.0">`)
	if s.Title != "" {
		w.line("<work><work-title>%s</work-title></work>", esc(s.Title))
	}
	if s.Composer != "" {
		w.line(`<identification><creator type="composer">%s</creator></identification>`, esc(s.Composer))
	}
	w.line("<part-list>")
	for i, p := range s.Parts {
		w.line(`<score-part id="P%d"><part-name>%s</part-name></score-part>`, i+1, esc(p.Name))
	}
	w.line("</part-list>")
	for i, p := range s.Parts {
		w.part(i+1, p)
	}
	w.line("</score-partwise>")
	return w.out.Bytes()
}

type writer struct {
	out       bytes.Buffer
	divisions int64
	meter     score.Meter
	signs     map[string]int     // accidentals by note id
	beams     map[string]string  // by note id
	tuplets   map[string]string  // by note id
	within    score.Bar          // that is being written
	inWord    map[[2]int]bool    // by staff and voice: the syllable before goes on
	slurs     map[int][]int      // numbers of the slurs that are open, by voice
	slurring  [mostSlurs + 1]int // how many are open, by number
}

func (w *writer) line(format string, a ...any) {
	if len(a) == 0 {
		w.out.WriteString(format)
	} else {
		fmt.Fprintf(&w.out, format, a...)
	}
	w.out.WriteByte('\n')
}

func esc(s string) string {
	var b bytes.Buffer
	xml.EscapeText(&b, []byte(s)) // a bytes.Buffer never fails
	return b.String()
}

func (w *writer) part(n int, p score.Part) {
	w.divisions, w.signs = 1, p.Accidentals()
	w.inWord, w.slurs, w.slurring = map[[2]int]bool{}, map[int][]int{}, [mostSlurs + 1]int{}
	for _, b := range p.Bars {
		for _, note := range b.Notes {
			for _, t := range []score.Time{note.Onset, note.Duration} {
				_, den := t.Fraction()
				w.divisions = lcm(w.divisions, den)
			}
		}
		for _, m := range b.Marks {
			_, den := m.Onset.Fraction()
			w.divisions = lcm(w.divisions, den)
		}
		_, den := b.Length.Fraction()
		w.divisions = lcm(w.divisions, den)
	}
	w.line(`<part id="P%d">`, n)
	var endings []int
	for i, b := range p.Bars {
		next := score.Repeat{}
		if i+1 < len(p.Bars) {
			next = p.Bars[i+1].Repeat
		}
		w.line(`<measure number="%d" id="p%db%d">`, i+1, n, i+1)
		w.attributes(i == 0, p, b)
		opens := len(b.Repeat.Endings) > 0 && !slices.Equal(endings, b.Repeat.Endings)
		if b.Repeat.Starts || opens {
			w.line(`<barline location="left">`)
			if opens {
				w.line(`<ending number="%s" type="start"/>`, numbers(b.Repeat.Endings))
			}
			if b.Repeat.Starts {
				w.line(`<repeat direction="forward"/>`)
			}
			w.line(`</barline>`)
		}
		w.bar(p, b)
		endings = b.Repeat.Endings
		closes := len(endings) > 0 && (!slices.Equal(endings, next.Endings) || b.Repeat.Ends > 0)
		last := i+1 == len(p.Bars)
		if b.Repeat.Ends > 0 || closes || last || b.Double {
			w.line(`<barline location="right">`)
			switch {
			case last:
				w.line(`<bar-style>light-heavy</bar-style>`)
			case b.Double:
				w.line(`<bar-style>light-light</bar-style>`)
			}
			if closes {
				w.line(`<ending number="%s" type="stop"/>`, numbers(endings))
				endings = nil
			}
			if b.Repeat.Ends > 0 {
				w.line(`<repeat direction="backward" times="%d"/>`, b.Repeat.Ends)
			}
			w.line(`</barline>`)
		}
		w.line(`</measure>`)
	}
	w.line("</part>")
}

func (w *writer) attributes(first bool, p score.Part, b score.Bar) {
	clefs := slices.DeleteFunc(slices.Clone(b.Clefs), func(c score.Clef) bool { return c.Onset.Sign() > 0 })
	if !first && b.Key == nil && b.Meter == nil && len(clefs) == 0 {
		return
	}
	w.line("<attributes>")
	if first {
		w.line("<divisions>%d</divisions>", w.divisions)
	}
	if b.Key != nil {
		mode := ""
		if b.Key.Mode != "" {
			mode = "<mode>" + b.Key.Mode + "</mode>"
		}
		w.line("<key><fifths>%d</fifths>%s</key>", b.Key.Fifths, mode)
	}
	if b.Meter != nil {
		w.meter = *b.Meter
		w.line("<time><beats>%d</beats><beat-type>%d</beat-type></time>", b.Meter.Beats, b.Meter.BeatType)
	}
	if first && p.Staves > 1 {
		w.line("<staves>%d</staves>", p.Staves)
	}
	for _, c := range clefs {
		w.clef(c)
	}
	told := !first || len(p.Tuning) == 0 && p.Capo == 0
	for _, c := range clefs {
		if c.Sign == "TAB" {
			w.strings(p, c.Staff, !told)
			told = true
		}
	}
	if !told {
		w.strings(p, 1, true)
	}
	w.line("</attributes>")
}

func (w *writer) clef(c score.Clef) {
	line := ""
	if c.Line > 0 {
		line = fmt.Sprintf("<line>%d</line>", c.Line)
	}
	if c.Octave != 0 {
		line += fmt.Sprintf("<clef-octave-change>%d</clef-octave-change>", c.Octave)
	}
	w.line(`<clef number="%d"><sign>%s</sign>%s</clef>`, c.Staff, esc(c.Sign), line)
}

// strings writes of a staff of tablature its lines, and the tuning where the part has one.
func (w *writer) strings(p score.Part, staff int, tuned bool) {
	if !tuned {
		w.line(`<staff-details number="%d"><staff-lines>6</staff-lines></staff-details>`, staff)
		return
	}
	w.line(`<staff-details number="%d"><staff-lines>%d</staff-lines>`, staff, cmp.Or(len(p.Tuning), 6))
	for i, open := range slices.Backward(p.Tuning) {
		open = pitch.Key{}.Spell(open.MIDI() - p.Capo)
		w.line(`<staff-tuning line="%d"><tuning-step>%c</tuning-step><tuning-alter>%d</tuning-alter><tuning-octave>%d</tuning-octave></staff-tuning>`,
			len(p.Tuning)-i, open.Step(), open.Alter(), open.Octave())
	}
	if p.Capo > 0 {
		w.line(`<capo>%d</capo>`, p.Capo)
	}
	w.line(`</staff-details>`)
}

// bar writes the voices one after another, each backed up to the start.
func (w *writer) bar(p score.Part, b score.Bar) {
	w.beams, w.tuplets, w.within = beams(b, w.meter), tuplets(b), b
	marks := slices.Clone(b.Marks)
	for i, c := range b.Clefs {
		if c.Onset.Sign() > 0 {
			marks = append(marks, score.Mark{Onset: c.Onset, Kind: "clef", Text: strconv.Itoa(i)})
		}
	}
	slices.SortStableFunc(marks, func(a, b score.Mark) int { return a.Onset.Cmp(b.Onset) })
	var voices []int
	for _, n := range b.Notes {
		if !slices.Contains(voices, n.Voice) {
			voices = append(voices, n.Voice)
		}
	}
	cursor := score.Time{}
	shift := func(to score.Time) {
		switch d := to.Sub(cursor); d.Sign() {
		case 1:
			w.line("<forward><duration>%d</duration></forward>", w.divs(d))
		case -1:
			w.line("<backup><duration>%d</duration></backup>", w.divs(score.Time{}.Sub(d)))
		}
		cursor = to
	}
	for vi, v := range voices {
		shift(score.Time{})
		onset, open := score.Time{}, false
		for _, n := range b.Notes {
			if n.Voice != v {
				continue
			}
			if vi == 0 {
				for len(marks) > 0 && !n.Onset.Less(marks[0].Onset) {
					shift(marks[0].Onset)
					w.mark(p, marks[0])
					marks = marks[1:]
				}
			}
			chord := open && n.Onset == onset && !n.Grace
			if !chord {
				shift(n.Onset)
			}
			w.note(p, n, chord)
			if !chord {
				cursor = cursor.Add(n.Duration)
			}
			onset, open = n.Onset, !n.Grace
		}
	}
	for _, m := range marks {
		shift(m.Onset)
		w.mark(p, m)
	}
	shift(b.Length)
}

func (w *writer) divs(t score.Time) int64 {
	num, den := t.Fraction()
	return num * (w.divisions / den)
}

func (w *writer) mark(p score.Part, m score.Mark) {
	switch m.Kind {
	case "chord":
		w.harmony(p, m)
		return
	case "jump":
		w.jump(m)
		return
	case "clef":
		i, _ := strconv.Atoi(m.Text) // bar wrote it
		w.line("<attributes>")
		w.clef(w.within.Clefs[i])
		w.line("</attributes>")
		return
	}
	place := "below"
	if m.Kind != "dynamic" && m.Kind != "pedal" {
		place = "above"
	}
	w.out.WriteString(`<direction placement="` + place + `"><direction-type>`)
	switch {
	case m.Kind == "tempo":
		unit, dots, ok := sign(m.Beat)
		per := m.QPM
		if ok && m.Beat.Sign() > 0 {
			per /= m.Beat.Float()
		} else {
			unit, dots = "quarter", 0
		}
		fmt.Fprintf(&w.out, "<metronome><beat-unit>%s</beat-unit>%s<per-minute>%g</per-minute></metronome>", unit, strings.Repeat("<beat-unit-dot/>", dots), per)
	case m.Kind == "words":
		fmt.Fprintf(&w.out, "<words>%s</words>", esc(m.Text))
	case m.Kind == "pedal":
		fmt.Fprintf(&w.out, `<pedal type="%s" line="no"/>`, m.Text)
	case m.Text == "crescendo" || m.Text == "diminuendo" || m.Text == "stop":
		fmt.Fprintf(&w.out, `<wedge type="%s"/>`, m.Text)
	default:
		fmt.Fprintf(&w.out, "<dynamics><%s/></dynamics>", m.Text)
	}
	w.out.WriteString("</direction-type>")
	if m.Kind == "pedal" && p.Staves > 1 {
		fmt.Fprintf(&w.out, "<staff>%d</staff>", p.Staves)
	}
	w.line("</direction>")
}

// usualWords are written over a jump that the score has no words for.
var usualWords = map[string]string{score.DaCapo: "D.C.", score.DalSegno: "D.S.", score.Fine: "Fine", score.ToCoda: "To Coda"}

// jump writes where the playing goes, with its sign or its words unless those stand there.
func (w *writer) jump(m score.Mark) {
	sound := ""
	for _, s := range soundJumps {
		if s.jump == m.Text {
			sound = fmt.Sprintf(`<sound %s="yes"/>`, s.attr)
		}
	}
	words := usualWords[m.Text]
	switch {
	case words == "":
		w.line(`<direction placement="above"><direction-type><%s/></direction-type>%s</direction>`, m.Text, sound)
	case w.within.Says(m.Text) != "":
		w.line("%s", sound)
	default:
		w.line(`<direction placement="above"><direction-type><words>%s</words></direction-type>%s</direction>`, words, sound)
	}
}

// harmony writes a chord symbol; other text is written as words.
func (w *writer) harmony(p score.Part, m score.Mark) {
	symbol, err := score.ParseChordSymbol(m.Text)
	if err != nil {
		w.mark(p, score.Mark{Onset: m.Onset, Kind: "words", Text: m.Text})
		return
	}
	name := func(at, root string) string {
		out := fmt.Sprintf("<%s><%s-step>%c</%s-step>", at, at, root[0], at)
		if sign := root[1:]; sign != "" {
			out += fmt.Sprintf("<%s-alter>%d</%s-alter>", at, map[string]int{"#": 1, "b": -1}[sign], at)
		}
		return out + "</" + at + ">"
	}
	bass := ""
	if symbol.Bass != "" {
		bass = name("bass", symbol.Bass)
	}
	w.line(`<harmony>%s<kind text="%s">%s</kind>%s</harmony>`, name("root", symbol.Root), esc(symbol.Suffix), symbol.Kind, bass)
}

func (w *writer) note(p score.Part, n score.Note, chord bool) {
	w.out.WriteString(`<note id="` + n.ID + `">`)
	if n.Grace {
		w.out.WriteString("<grace/>")
	}
	if chord {
		w.out.WriteString("<chord/>")
	}
	switch {
	case w.restsABar(n):
		w.out.WriteString(`<rest measure="yes"/>`)
	case n.Rest:
		w.out.WriteString("<rest/>")
	default:
		fmt.Fprintf(&w.out, "<pitch><step>%c</step>", n.Pitch.Step())
		if n.Pitch.Alter() != 0 {
			fmt.Fprintf(&w.out, "<alter>%d</alter>", n.Pitch.Alter())
		}
		fmt.Fprintf(&w.out, "<octave>%d</octave></pitch>", n.Pitch.Octave())
	}
	if !n.Grace {
		fmt.Fprintf(&w.out, "<duration>%d</duration>", w.divs(n.Duration))
	}
	var ties string
	if n.TieFrom {
		w.out.WriteString(`<tie type="stop"/>`)
		ties += `<tied type="stop"/>`
	}
	if n.TieTo {
		w.out.WriteString(`<tie type="start"/>`)
		ties += `<tied type="start"/>`
	}
	fmt.Fprintf(&w.out, "<voice>%d</voice>", n.Voice)
	w.value(n)
	if p.Staves > 1 {
		fmt.Fprintf(&w.out, "<staff>%d</staff>", n.Staff)
	}
	if !chord {
		w.out.WriteString(w.beams[n.ID])
	}
	w.notations(n, ties)
	w.lyric(n)
	w.line("</note>")
}

// lyric writes a syllable, and whether its word began before and goes on.
func (w *writer) lyric(n score.Note) {
	if n.Lyric == "" {
		return
	}
	text, goesOn := strings.CutSuffix(n.Lyric, "-")
	if text == "" {
		text, goesOn = n.Lyric, false
	}
	at := [2]int{n.Staff, n.Voice}
	kind := map[[2]bool]string{{false, true}: "begin", {true, true}: "middle", {true, false}: "end"}[[2]bool{w.inWord[at], goesOn}]
	if w.inWord[at] = goesOn; kind != "" {
		kind = "<syllabic>" + kind + "</syllabic>"
	}
	fmt.Fprintf(&w.out, "<lyric>%s<text>%s</text></lyric>", kind, esc(text))
}

// restsABar reports whether a rest fills a full bar: one sign stands for it in
// every meter.
func (w *writer) restsABar(n score.Note) bool {
	return n.Rest && w.meter.BeatType > 0 && n.Duration == w.meter.Length()
}

// accidentals are the values of <accidental>, by semitones.
var accidentals = map[int]string{-2: "flat-flat", -1: "flat", 0: "natural", 1: "sharp", 2: "double-sharp"}

// value writes type, dots and tuplet ratio where one sign shows the duration,
// and the accidental, which stands among them.
func (w *writer) value(n score.Note) {
	accidental := ""
	if alter, signed := w.signs[n.ID]; signed {
		accidental = "<accidental>" + accidentals[alter] + "</accidental>"
	}
	name, dots, ok := shownAs(n)
	if ok {
		w.out.WriteString("<type>" + name + "</type>" + strings.Repeat("<dot/>", dots))
	}
	w.out.WriteString(accidental)
	if ok && n.Tuplet != nil && !n.Grace {
		fmt.Fprintf(&w.out, "<time-modification><actual-notes>%d</actual-notes><normal-notes>%d</normal-notes></time-modification>",
			n.Tuplet.Actual, n.Tuplet.Normal)
	}
}

// shownAs returns the sign and dots of a note, if one sign can show it.
func shownAs(n score.Note) (name string, dots int, ok bool) {
	if n.Grace {
		return "eighth", 0, true
	}
	shown, err := n.Shown()
	if err != nil {
		return "", 0, false
	}
	return sign(shown)
}

// sign returns the note sign and dots that show a length, if one sign can.
func sign(length score.Time) (name string, dots int, ok bool) {
	for _, t := range noteTypes {
		base := score.Frac(t.num, t.den)
		for dots := range 3 {
			// each dot adds half of what the one before added
			if scaled, err := base.Scaled(int64(2<<dots)-1, 1<<dots); err == nil && scaled == length {
				return t.name, dots, true
			}
		}
	}
	return "", 0, false
}

func (w *writer) notations(n score.Note, ties string) {
	var tech, art, orn, after strings.Builder
	for _, f := range n.Fingers {
		if strings.ContainsAny(f, "pima") {
			tech.WriteString("<pluck>" + esc(f) + "</pluck>")
		} else {
			tech.WriteString("<fingering>" + esc(f) + "</fingering>")
		}
	}
	if n.String > 0 {
		fmt.Fprintf(&tech, "<string>%d</string><fret>%d</fret>", n.String, n.Fret)
	}
	for _, a := range n.Articulations {
		switch a {
		case "up-bow", "down-bow":
			tech.WriteString("<" + a + "/>")
		case "fermata":
			after.WriteString("<fermata/>")
		case "trill-mark", "mordent", "inverted-mordent", "turn":
			orn.WriteString("<" + a + "/>")
		default:
			art.WriteString("<" + a + "/>")
		}
	}
	var b strings.Builder
	b.WriteString(ties + w.tuplets[n.ID])
	for range n.SlurEnds {
		fmt.Fprintf(&b, `<slur type="stop" number="%d"/>`, w.endSlur(n.Voice))
	}
	for range n.SlurStarts {
		fmt.Fprintf(&b, `<slur type="start" number="%d"/>`, w.startSlur(n.Voice))
	}
	if orn.Len() > 0 {
		b.WriteString("<ornaments>" + orn.String() + "</ornaments>")
	}
	if tech.Len() > 0 {
		b.WriteString("<technical>" + tech.String() + "</technical>")
	}
	if art.Len() > 0 {
		b.WriteString("<articulations>" + art.String() + "</articulations>")
	}
	b.WriteString(after.String())
	if b.Len() > 0 {
		w.out.WriteString("<notations>" + b.String() + "</notations>")
	}
}

func numbers(list []int) string {
	return strings.Trim(strings.ReplaceAll(fmt.Sprint(list), " ", ","), "[]")
}

func lcm(a, b int64) int64 {
	x, y := a, b
	for y != 0 {
		x, y = y, x%y
	}
	return a / x * b
}
