package abc

import (
	"cmp"
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"patientladder/core/score"
)

// field reads an information field, of the head, the body or inline.
func (r *reader) field(name byte, value string) error {
	switch name {
	case 'T':
		if r.s.Title == "" {
			r.s.Title = value
		}
	case 'C':
		if r.s.Composer == "" {
			r.s.Composer = value
		}
	case 'M':
		return r.meterField(value)
	case 'L':
		t, err := fraction(value)
		if err != nil || t.Sign() <= 0 {
			return fmt.Errorf("the unit length %q is not a fraction such as 1/8", value)
		}
		r.unit, err = t.Scaled(4, 1)
		return err
	case 'Q':
		if !r.body {
			r.tempo = value
			return nil
		}
		return r.tempoMark(r.v, value)
	case 'K':
		return r.keyField(value)
	case 'V':
		return r.voiceField(value)
	case 'w':
		if !r.body {
			return fmt.Errorf("words stand before the music they belong to")
		}
		r.v.lyrics(value, func() { r.s.Note("words beyond the notes", max(len(r.v.bars), 1)) })
	case 'U':
		return r.userSign(value)
	case 'P', 'm', 's', 'I', 'd':
		r.s.Note(string(name)+": field", 0)
	}
	return nil // other fields tell about the tune, not how it goes
}

// userSign is section 4.16 of the standard: U: T = !trill! gives a letter to a
// decoration, and to nothing again by !nil! or !none!.
func (r *reader) userSign(value string) error {
	sign, means, eq := strings.Cut(value, "=")
	sign, means = strings.TrimSpace(sign), strings.Trim(strings.TrimSpace(means), "!+\"")
	if !eq || len(sign) != 1 || !isLetter(sign[0]) && sign != "~" {
		r.s.Note("U: field", 0)
		return nil
	}
	if r.signs == nil {
		r.signs = map[byte]string{}
	}
	r.signs[sign[0]] = means
	return nil
}

// meterWritten finds the meter in what stands beside it: "C.C = 4/4", of "2/4 3/4"
// the first, "2" being two halves.
var meterWritten = regexp.MustCompile(`^(?:[^=]*=\s*)?(\(?\d[\d+ ]*\)?)(?:\s*(/)\s*(\d+))?(\s.*)?$`)

func (r *reader) meterField(value string) error {
	var m *score.Meter
	switch value {
	case "C":
		m = &score.Meter{Beats: 4, BeatType: 4}
	case "C|":
		m = &score.Meter{Beats: 2, BeatType: 2}
	case "none", "":
	default:
		top, bottom, ok := strings.Cut(value, "/")
		if found := meterWritten.FindStringSubmatch(value); found != nil && (found[2] == "" || found[4] != "" || strings.Contains(value, "=")) {
			r.s.Note("meter "+value, max(r.bars(), 1))
			top, bottom, ok = found[1], cmp.Or(found[3], "2"), true
		}
		beats := 0
		for part := range strings.SplitSeq(strings.Trim(strings.TrimSpace(top), "()"), "+") {
			n, err := strconv.Atoi(strings.TrimSpace(part))
			ok = ok && err == nil && n > 0 && n <= 64
			beats += n
		}
		bt, err := strconv.Atoi(strings.TrimSpace(bottom))
		if !ok || err != nil || bt < 1 || bt > 64 || bt&(bt-1) != 0 || beats > 64 {
			return fmt.Errorf("the meter %q is not one such as 3/4", value)
		}
		m = &score.Meter{Beats: beats, BeatType: bt}
	}
	if !r.body {
		r.meter = m
		return nil
	}
	r.meter, r.v.meter = m, m
	if m != nil {
		r.v.bar.Meter = m
	}
	return nil
}

// defaultUnit is section 3.1.7 of the standard: sixteenths for meters below
// three quarters of a whole note, else eighths.
func (r *reader) defaultUnit() score.Time {
	if r.meter != nil && r.meter.Length().Less(score.Quarters(3)) {
		return score.Frac(1, 4)
	}
	return score.Frac(1, 2)
}

func (r *reader) keyField(value string) error {
	key, clef, err := parseKey(value, r.s.Note)
	if err != nil {
		return err
	}
	if r.body {
		r.v.key, r.v.bar.Key = key, &key.Key
		if clef != "" {
			r.v.take(clefNamed(clef))
		}
		return nil
	}
	r.key, r.clef, r.body = key, clef, true
	if r.unit.Sign() == 0 {
		r.unit = r.defaultUnit()
	}
	if len(r.voices) == 0 {
		r.voice("1")
	}
	r.v = r.voices[0]
	for _, v := range r.voices {
		r.begin(v)
	}
	if r.tempo != "" {
		return r.tempoMark(r.v, r.tempo)
	}
	return nil
}

// begin gives a voice what the head of the tune says.
func (r *reader) begin(v *voice) {
	key := r.key
	v.key, v.meter, v.bar.Key = key, r.meter, &key.Key
	v.bar.Meter = r.meter
	if v.clef == "" {
		v.clef = r.clef
	}
	if v.clef == "" {
		v.clef = "treble"
	}
	v.take(clefNamed(v.clef))
}

// bars counts the bars of the voice being written.
func (r *reader) bars() int {
	if r.v == nil {
		return 0
	}
	return len(r.v.bars) + 1
}

func knownClef(s string) bool {
	_, ok := clefs[bareClef(s)]
	return ok
}

// bareClef is a clef's name without the line and the small 8 beside it: section 4.6 of
// the standard.
func bareClef(s string) string { return strings.TrimRight(octaves.Replace(s), "12345") }

var clefs = map[string]score.Clef{
	"treble": {Sign: "G", Line: 2}, "bass": {Sign: "F", Line: 4}, "alto": {Sign: "C", Line: 3},
	"tenor": {Sign: "C", Line: 4}, "perc": {Sign: "percussion"}, "none": {Sign: "G", Line: 2},
}

// octaves takes the small 8 off a clef's name: section 4.6 of the standard.
var octaves = strings.NewReplacer("-8", "", "+8", "")

func clefNamed(s string) score.Clef {
	name := octaves.Replace(s)
	c, ok := clefs[bareClef(s)]
	if !ok {
		c = clefs["treble"]
	}
	if line := name[len(bareClef(s)):]; ok && len(line) == 1 && c.Line > 0 {
		c.Line = int(line[0] - '0')
	}
	c.Staff = 1
	switch {
	case strings.HasSuffix(s, "-8"):
		c.Octave = -1
	case strings.HasSuffix(s, "+8"):
		c.Octave = 1
	}
	return c
}

var spokenTempo = regexp.MustCompile(`^\s*([A-Za-z][A-Za-z. ]*?)\s*(\d+(?:\.\d+)?)\s*$`)

// tempoMark reads 1/4=96, "Gently" 1/4=60, or words alone.
func (r *reader) tempoMark(v *voice, value string) error {
	if open := strings.IndexByte(value, '"'); open >= 0 {
		words, after, closed := strings.Cut(value[open+1:], `"`)
		if !closed {
			return fmt.Errorf("the tempo %q opens a quote and does not close it", value)
		}
		v.mark("words", words)
		value = strings.TrimSpace(value[:open] + after)
	}
	if value == "" {
		return nil
	}
	beat, per, ok := strings.Cut(value, "=")
	if !ok {
		beat, per = "1/4", value
	}
	if said := spokenTempo.FindStringSubmatch(per); said != nil { // "ca. 80"
		v.mark("words", said[1])
		per = said[2]
	}
	t, err := fraction(strings.TrimSpace(beat))
	qpm, err2 := strconv.ParseFloat(strings.TrimSpace(per), 64)
	if err != nil || err2 != nil || qpm <= 0 || qpm > 2000 || t.Sign() <= 0 {
		return fmt.Errorf("the tempo %q is not one such as 1/4=96", value)
	}
	counted, err := t.Scaled(4, 1)
	if err != nil {
		return err
	}
	v.bar.Marks = append(v.bar.Marks, score.Mark{Onset: v.cursor, Kind: "tempo", QPM: qpm * counted.Float(), Beat: counted})
	return nil
}

func fraction(s string) (score.Time, error) {
	n, d, slash := strings.Cut(s, "/")
	num, err := strconv.ParseInt(n, 10, 32)
	den := int64(1)
	if err == nil && slash {
		den, err = strconv.ParseInt(d, 10, 32)
	}
	if err != nil {
		return score.Time{}, err
	}
	return score.NewTime(num, den)
}
