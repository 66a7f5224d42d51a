package card

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
	"patientladder/core/score"
)

// ways are what a card of direction plays from a landmark, as letters away; the same first.
var ways = [][]int{{0, 0, 1}, {0, 1, 1}, {0, -1, -1}, {0, 1, 2}, {0, -1, -2}, {0, 1, 0}, {0, -1, 0}, {0, 0, -1}, {0, 2, 1, 1}, {0, -1, 1, 1}}

func directions(t table) []Card {
	var out []Card
	at := t.landmarks[min(1, len(t.landmarks)-1)]
	for _, w := range ways {
		var notes []pitch.Pitch
		var says []string
		for i, by := range w {
			notes = append(notes, natural(at.Line()+by))
			if i > 0 {
				says = append(says, map[int]string{-1: "down", 0: "same", 1: "up"}[sign(by-w[i-1])])
			}
		}
		out = append(out, Card{ID: strings.Join(says, "-"), Score: shown(t.clefFor(at), pitch.Key{}, notes...), Shown: listed(notes),
			Asks: reason.Of("card-ways"), Right: reason.Of("card-ways-right", "ways", strings.Join(says, ","))})
	}
	return out
}

func sign(n int) int { return min(max(n, -1), 1) }

// named is a card that shows one note and asks which it is and where it lies.
func (t table) named(p pitch.Pitch, clef score.Clef, asks string) Card {
	return Card{ID: p.String(), Score: shown(clef, pitch.Key{}, p), Shown: spot(clef, p), Asks: reason.Of(asks), Right: reason.Of("card-note-right", "note", name(p), "where", t.where(p))}
}

func landmarks(t table) []Card {
	var out []Card
	for _, p := range t.landmarks {
		out = append(out, t.named(p, t.clefFor(p), "card-landmark"))
	}
	return out
}

// between are the notes that are no landmarks, the nearest to one first.
func between(t table) []Card {
	var out []Card
	for away := 1; away <= 3; away++ {
		for _, p := range t.landmarks {
			for _, by := range []int{away, -away} {
				note := natural(p.Line() + by)
				known := slices.Contains(t.landmarks, note) || slices.ContainsFunc(out, func(c Card) bool { return c.ID == note.String() })
				if !known && t.plays(note) {
					out = append(out, t.named(note, t.clefFor(note), "card-note"))
				}
			}
		}
	}
	return out
}

// plays reports whether a note lies in the compass that cards use.
func (t table) plays(p pitch.Pitch) bool {
	if t.on.Family == instrument.Keyboard {
		return p.Line() >= pitch.MustParse("C3").Line() && p.Line() <= pitch.MustParse("C6").Line()
	}
	return p.Line() >= t.low.Line() && p.Line() <= t.high.Line()
}

// distances are pairs from a landmark: which way, how far, which note.
func distances(letters ...int) maker {
	return func(t table) []Card {
		var out []Card
		for _, p := range t.landmarks {
			for _, n := range letters {
				for _, by := range []int{n, -n} {
					to := natural(p.Line() + by)
					if !t.plays(to) {
						continue
					}
					way := "up"
					if by < 0 {
						way = "down"
					}
					out = append(out, Card{ID: fmt.Sprintf("%s %s", p, to), Score: shown(t.clefFor(p), pitch.Key{}, p, to),
						Shown: spot(t.clefFor(p), to), Asks: reason.Of("card-distance", "from", name(p)),
						Right: reason.Of("card-distance-right", "far", strconv.Itoa(n+1), "way", way, "note", name(to))})
				}
			}
		}
		return out
	}
}

// ledger are the notes on and around the first two ledger lines.
func ledger(t table) []Card {
	clefs := []score.Clef{t.clef}
	if t.on.Family == instrument.Keyboard {
		clefs = append(clefs, clefNamed("F4"))
	}
	var out []Card
	for _, clef := range clefs {
		bottom := staffs[clef.Sign+strconv.Itoa(clef.Line)].Line()
		for _, above := range []int{10, -2, 11, -3, 12, -4, 9, -1} {
			p := natural(bottom + above)
			if t.on.Family == instrument.Keyboard || t.plays(p) {
				c := t.named(p, clef, "card-note")
				c.ID = clef.Sign + " " + c.ID
				out = append(out, c)
			}
		}
	}
	return out
}

func accidentals(t table) []Card {
	var out []Card
	for _, n := range []string{"F#", "Bb", "C#", "Eb", "G#", "Ab"} {
		p := pitch.MustParse(n + strconv.Itoa(t.landmarks[0].Octave()))
		for !t.plays(p) && p.Line() < t.low.Line() {
			p = p.Octaves(1)
		}
		right := reason.Of("card-note-right", "note", name(p), "where", t.where(p))
		if t.on.Family == instrument.Keyboard {
			side := "right"
			if p.Alter() < 0 {
				side = "left"
			}
			right = reason.Of("card-black-right", "note", name(p), "side", side, "of", string(p.Step()))
		}
		out = append(out, Card{ID: n, Score: shown(t.clefFor(p), pitch.Key{}, p), Shown: spot(t.clefFor(p), p), Asks: reason.Of("card-accidental"), Right: right})
	}
	return out
}

// staves show a note on each of two staves, which only keyboards have.
func staves(t table) []Card {
	if t.on.Family != instrument.Keyboard {
		return nil
	}
	var out []Card
	for _, pair := range [][2]string{{"C4", "C3"}, {"G4", "C3"}, {"C4", "F3"}, {"E4", "C3"}, {"D4", "G3"}, {"F4", "D3"}, {"A4", "F3"}, {"C5", "E3"}} {
		high, low := pitch.MustParse(pair[0]), pitch.MustParse(pair[1])
		bar := score.Bar{Length: score.Quarters(1), Key: &pitch.Key{}, Clefs: []score.Clef{{Staff: 1, Sign: "G", Line: 2}, {Staff: 2, Sign: "F", Line: 4}}}
		for i, p := range []pitch.Pitch{high, low} {
			bar.Notes = append(bar.Notes, score.Note{Duration: score.Quarters(1), Pitch: p, Voice: i + 1, Staff: i + 1})
		}
		s := score.Score{Parts: []score.Part{{Staves: 2, Bars: []score.Bar{bar}}}}
		s.Finish()
		out = append(out, Card{ID: pair[0] + " " + pair[1], Score: s, Shown: reason.Of("card-shown-both", "low", place(clefNamed("F4"), low), "high", place(clefNamed("G2"), high)), Asks: reason.Of("card-staves"), Right: reason.Of("card-staves-right", "low", name(low), "high", name(high))})
	}
	return out
}

// otherClef are notes in the clef that an instrument reads beside its own: the bass clef
// reads the tenor's, others the G clef, and the G clef the bass's.
func otherClef(t table) []Card {
	other := "G2"
	switch {
	case t.on.Family == instrument.Bowed && t.clef.Sign == "F":
		other = "C4"
	case t.clef.Sign == "G":
		other = "F4"
	}
	var out []Card
	bottom := staffs[other].Line()
	for _, above := range []int{6, 4, 2, 8, 0, 5, 3, 7} {
		p := natural(bottom + above)
		if len(t.on.Strings) > 0 && t.where(p) == "" {
			continue // it lies off the instrument
		}
		out = append(out, t.named(p, clefNamed(other), "card-note"))
	}
	return out
}

// The rhythms that cards have said, in quarters; a minus is a silence.
var (
	plainRhythms = [][]float64{{1, 1, 2}, {2, 1, 1}, {1, 0.5, 0.5, 2}, {0.5, 0.5, 1, 2}, {1.5, 0.5, 2}, {3, 1}, {0.5, 0.5, 0.5, 0.5, 2}, {0.5, 1, 0.5, 2}, {1, 1.5, 0.5, 1}}
	restRhythms  = [][]float64{{1, -1, 2}, {1, 1, -1, 1}, {-1, 1, 2}, {2, -2}, {-1, 1, -1, 1}, {1, -0.5, 0.5, 2}, {-0.5, 0.5, 1, 2}}
)

// rhythms are bars of four to be said: a number where a note begins on a beat, "and"
// between, a hush on a silence.
func rhythms(bars [][]float64) maker {
	return func(t table) []Card {
		var out []Card
		at := t.landmarks[min(1, len(t.landmarks)-1)]
		for _, b := range bars {
			bar := score.Bar{Length: score.Quarters(4), Clefs: []score.Clef{t.clefFor(at)}, Key: &pitch.Key{}, Meter: &score.Meter{Beats: 4, BeatType: 4}}
			var says, id []string
			beat := 0.0
			for _, long := range b {
				n := score.Note{Onset: score.Frac(int64(2*beat), 2), Duration: score.Frac(int64(2*max(long, -long)), 2), Pitch: at, Voice: 1, Staff: 1, Rest: long < 0}
				if long == 1.5 || long == 3 {
					n.Dots = 1
				}
				bar.Notes = append(bar.Notes, n)
				word := strconv.Itoa(int(beat) + 1)
				switch {
				case long < 0:
					word = "hush"
				case beat != float64(int(beat)):
					word = "and"
				}
				says, id = append(says, word), append(id, strconv.FormatFloat(long, 'g', -1, 64))
				beat += max(long, -long)
			}
			s := score.Score{Parts: []score.Part{{Staves: 1, Bars: []score.Bar{bar}}}}
			s.Finish()
			out = append(out, Card{ID: strings.Join(id, " "), Score: s, Shown: reason.Of("card-shown-rhythm", "lengths", strings.Join(id, ",")), Asks: reason.Of("card-rhythm"), Right: reason.Of("card-rhythm-right", "says", strings.Join(says, ","))})
		}
		return out
	}
}

// place is the place of a note on its staff: line-2, space-1, or beside it.
func place(clef score.Clef, p pitch.Pitch) string {
	from := p.Line() - staffs[clef.Sign+strconv.Itoa(clef.Line)].Line()
	switch {
	case from == -2:
		return "line-below"
	case from == 10:
		return "line-above"
	case from == -1:
		return "under"
	case from%2 == 0:
		return "line-" + strconv.Itoa(from/2+1)
	}
	return "space-" + strconv.Itoa(from/2+1)
}

func signatures(t table) []Card {
	var out []Card
	for _, fifths := range []int{0, 1, -1, 2, -2, 3, -3, 4, -4} {
		key := pitch.Key{Fifths: fifths, Mode: "major"}
		minor := pitch.Key{Fifths: fifths, Mode: "minor"}
		out = append(out, Card{ID: strconv.Itoa(fifths), Score: shown(t.clef, key, t.home(key)), Shown: reason.Of("card-shown-signature", "fifths", strconv.Itoa(fifths)), Asks: reason.Of("card-signature"),
			Right: reason.Of("card-signature-right", "major", key.String(), "minor", minor.String())})
	}
	return out
}

// home is a key's tonic on the staff.
func (t table) home(k pitch.Key) pitch.Pitch {
	bottom := staffs[t.clef.Sign+strconv.Itoa(t.clef.Line)]
	for midi := bottom.MIDI(); ; midi++ {
		if midi%12 == k.Tonic() {
			return k.Spell(midi)
		}
	}
}

func halfWhole(t table) []Card {
	var out []Card
	for _, from := range []string{"E", "C", "B", "D", "F", "G", "A"} {
		p := t.onStaff(from)
		to := natural(p.Line() + 1)
		code := "card-whole"
		if to.MIDI()-p.MIDI() == 1 {
			code = "card-half"
		}
		out = append(out, Card{ID: from, Score: shown(t.clef, pitch.Key{}, p, to), Shown: listed([]pitch.Pitch{p, to}), Asks: reason.Of("card-half-or-whole"), Right: reason.Of(code)})
	}
	return out
}

// onStaff is the lowest note of a letter on the staff.
func (t table) onStaff(letter string) pitch.Pitch {
	bottom := staffs[t.clef.Sign+strconv.Itoa(t.clef.Line)].Line()
	for line := bottom; ; line++ {
		if p := natural(line); p.Step() == letter[0] {
			return p
		}
	}
}

// fives show five neighbours: major, or minor beside the major of the same tonic.
func fives(major bool) maker {
	return func(t table) []Card {
		var out []Card
		for _, tonic := range []string{"C", "G", "D", "F", "A", "E"} {
			for _, mode := range []string{"major", "minor"} {
				if major && mode == "minor" {
					continue
				}
				key, err := pitch.KeyOf(tonic, mode)
				if err != nil {
					continue
				}
				from := t.onStaff(tonic)
				var notes []pitch.Pitch
				for i := range 5 {
					n := natural(from.Line() + i)
					if p, err := pitch.New(n.Step(), key.Alter(n.Step()), n.Octave()); err == nil {
						n = p
					}
					notes = append(notes, n)
				}
				asks, right := reason.Of("card-five"), reason.Of("card-five-right", "key", tonic+" "+mode)
				if major {
					asks, right = reason.Of("card-five-steps"), reason.Of("card-five-steps-right", "half", name(notes[2]), "next", name(notes[3]))
				}
				out = append(out, Card{ID: tonic + " " + mode, Score: shown(t.clef, pitch.Key{}, notes...), Shown: listed(notes), Asks: asks, Right: right})
			}
		}
		return out
	}
}

// chords show triads of a key: which, and home or away.
func chords(t table) []Card {
	var out []Card
	for _, tonic := range []string{"C", "G", "F", "D"} {
		key, err := pitch.KeyOf(tonic, "major")
		if err != nil {
			continue
		}
		for _, degree := range []int{0, 4, 3} {
			from := t.onStaff(tonic).Line() + degree
			var notes []score.Note
			var tones []pitch.Pitch
			root := ""
			for _, up := range []int{0, 2, 4} {
				n := natural(from + up)
				if p, err := pitch.New(n.Step(), key.Alter(n.Step()), n.Octave()); err == nil {
					n = p
				}
				if up == 0 {
					root = name(n)
				}
				notes = append(notes, score.Note{Duration: score.Quarters(4), Pitch: n, Voice: 1, Staff: 1})
				tones = append(tones, n)
			}
			s := score.Score{Parts: []score.Part{{Staves: 1, Bars: []score.Bar{{Length: score.Quarters(4), Clefs: []score.Clef{t.clef}, Key: &key, Notes: notes}}}}}
			s.Finish()
			code := map[int]string{0: "card-home", 4: "card-away", 3: "card-aside"}[degree]
			out = append(out, Card{ID: fmt.Sprintf("%s %d", tonic, degree+1), Score: s, Shown: listed(tones), Asks: reason.Of("card-chord", "key", key.String()), Right: reason.Of(code, "root", root)})
		}
	}
	return out
}

// byString shows open strings: number and name, and whose finger plucks it.
func byString(t table) []Card {
	var out []Card
	for i, p := range t.open {
		who := ""
		if i < len(t.on.Roll) {
			who = t.on.Roll[i]
		}
		out = append(out, Card{ID: strconv.Itoa(i + 1), Score: shown(t.clef, pitch.Key{}, p), Shown: spot(t.clef, p), Asks: reason.Of("card-string"),
			Right: reason.Of("card-string-right", "string", strconv.Itoa(i+1), "note", name(p), "finger", who)})
	}
	return out
}

// tablature shows one sign: which note it is.
func tablature(t table) []Card {
	if !t.on.Fretted() {
		return nil
	}
	var out []Card
	for fret := range 4 {
		for i, open := range t.open {
			p := (pitch.Key{}).Spell(open.MIDI() + fret)
			if i+1 == t.on.Drone && fret > 0 || p.Alter() != 0 {
				continue
			}
			out = append(out, Card{ID: fmt.Sprintf("%d %d", i+1, fret), Stops: []Stop{{i + 1, fret}}, Shown: reason.Of("card-shown-tab", "string", strconv.Itoa(i+1), "fret", strconv.Itoa(fret)), Asks: reason.Of("card-tab"),
				Right: reason.Of("card-tab-right", "note", name(p), "string", strconv.Itoa(i+1), "fret", strconv.Itoa(fret))})
		}
	}
	return out
}
