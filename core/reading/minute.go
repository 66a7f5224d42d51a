package reading

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/reason"
	"patientladder/core/score"
)

func longest(figures []Figure) (length score.Time) {
	for _, f := range figures {
		if length.Less(f.Length) {
			length = f.Length
		}
	}
	return length
}

// Minute returns what a teacher reads off a page in a minute: how much there is
// to learn, where each hand starts, where it moves and leaps, where it will
// trip, key and chords, and which taste it has. Demands are those of the page.
func (p Page) Minute(demands []Demand) []reason.Reason {
	var out []reason.Reason
	say := func(code string, pairs ...string) { out = append(out, reason.Of(code, pairs...)) }
	figures := ToLearn(p.Figures)
	say("minute-figures", "bars", strconv.Itoa(p.Score.Bars()), "figures", strconv.Itoa(figures))
	for _, r := range p.returns() {
		say("minute-return", "as", r.as, "bars", strings.Join(r.bars, ", "), "kind", string(r.kind))
	}
	for _, st := range p.Staves {
		hand, start := string(st.Hand), st.Line[0].Top().String()
		// fewer figures because they are longer are no news
		if n := ToLearn(st.Figures); len(p.Staves) > 1 && p.On.Family == instrument.Keyboard && n < figures && !longest(p.Figures).Less(longest(st.Figures)) {
			say("minute-hand-figures", "hand", hand, "figures", strconv.Itoa(n))
		}
		switch {
		case p.On.Family == instrument.Keyboard && len(st.Line[0].Notes) > 1:
			fingers, keys := []string{}, []string{}
			for n, f := range st.Line[0].from(st.Positions[0], st.Hand) {
				if f != "" {
					fingers, keys = append(fingers, f), append(keys, st.Line[0].Notes[n].String())
				}
			}
			say("minute-start-chord", "hand", hand, "fingers", strings.Join(fingers, " "), "keys", strings.Join(keys, " "))
		case p.On.Family == instrument.Keyboard:
			say("minute-start-hand", "hand", hand, "finger", st.Positions[0].Fingers[0], "key", start)
		case len(st.Stops) == 0 || st.Stops[0][len(st.Stops[0])-1].String == 0:
			say("minute-start", "key", start)
		default:
			stop := st.Stops[0][len(st.Stops[0])-1]
			say("minute-start-string", "finger", stop.Finger, "string", strconv.Itoa(stop.String), "key", start, "place", st.Positions[0].Place)
		}
		for _, m := range []Move{Crossing, Jump, Shift} {
			if bars := barsOf(st.Positions, m); bars != "" {
				say("minute-"+string(m), "hand", hand, "bars", bars)
			}
		}
		if p.On.Family != instrument.Plucked {
			for _, two := range pairings(st) {
				say("minute-together", "hand", hand, "intervals", two.name, "bars", list(two.bars))
			}
		}
		if at, leap := widest(st); leap.Number >= 5 {
			say("minute-leap", "hand", hand, "bar", strconv.Itoa(at.Bar), "leap", leap.Name)
		}
	}
	for _, t := range p.trips(demands) {
		say("minute-trip", "bar", strconv.Itoa(t.bar), "signs", strings.Join(t.signs, ","))
	}
	t := p.Theory()
	likely := ""
	if !t.Sure {
		likely = "likely"
	}
	if len(t.Tonic) > 0 {
		say("minute-theory", "key", t.Key, "likely", likely, "tonic", list(t.Tonic), "dominant", list(t.Dominant), "half", list(t.Half))
	} else {
		say("minute-key", "key", t.Key, "likely", likely, "half", list(t.Half))
	}
	if taste := p.taste(); taste != "" {
		say("minute-taste", "taste", taste)
	}
	return out
}

// A comeback is lines of the piece that are an earlier one once more: "line three is line one".
type comeback struct {
	as   string // the earlier bars: "1–4"
	kind Kind
	bars []string
}

// returns lists what comes back and is longer than a bar, in the order of the page, at most
// three.
func (p Page) returns() []comeback {
	const most = 3
	first, out := map[string]string{}, []comeback{}
	for _, f := range p.Figures {
		from, to := p.stretch(p.Staves[0], f.Bar, f.Beat, f.Length)
		if from < 0 || p.Staves[0].Line[to].Bar == f.Bar {
			continue
		}
		bars := strconv.Itoa(f.Bar) + "–" + strconv.Itoa(p.Staves[0].Line[to].Bar)
		as, met := first[f.ID]
		if !met {
			first[f.ID] = bars
			continue
		}
		at := slices.IndexFunc(out, func(c comeback) bool { return c.as == as && c.kind == f.Kind })
		if at < 0 {
			at, out = len(out), append(out, comeback{as: as, kind: f.Kind})
		}
		out[at].bars = append(out[at].bars, bars)
	}
	return out[:min(len(out), most)]
}

func list(bars []int) string {
	var out []string
	for _, b := range bars {
		out = append(out, strconv.Itoa(b))
	}
	return strings.Join(out, ", ")
}

// barsOf lists the bars in which the hand moves in one way, each once.
func barsOf(positions []Position, m Move) string {
	var bars []int
	for _, p := range positions {
		if p.Move == m && !slices.Contains(bars, p.Bar) {
			bars = append(bars, p.Bar)
		}
	}
	return list(bars)
}

// A pairing is an interval that a hand plays at once.
type pairing struct {
	name  string // open-fifth
	bars  []int
	times int
}

// pairings names the intervals that a hand plays again and again as two notes at once, the
// usual ones first, at most two. A fifth without a third is called open.
func pairings(st Staff) []pairing {
	const often, most = 2, 2
	var out []pairing
	for _, c := range st.Line {
		if len(c.Notes) != 2 {
			continue
		}
		name := atOnce(c.Harmonic()[0])
		at := slices.IndexFunc(out, func(t pairing) bool { return t.name == name })
		if at < 0 {
			at, out = len(out), append(out, pairing{name: name})
		}
		out[at].times++
		if !slices.Contains(out[at].bars, c.Bar) {
			out[at].bars = append(out[at].bars, c.Bar)
		}
	}
	out = slices.DeleteFunc(out, func(t pairing) bool { return t.times < often })
	slices.SortStableFunc(out, func(a, b pairing) int { return b.times - a.times })
	return out[:min(len(out), most)]
}

// atOnce names an interval of two notes that sound together.
func atOnce(i Interval) string {
	names := []string{"unison", "second", "third", "fourth", "fifth", "sixth", "seventh", "octave", "ninth", "tenth"}
	switch {
	case i.String() == "P5":
		return "open-fifth"
	case i.Number <= len(names):
		return names[i.Number-1]
	}
	return "wider"
}

// widest returns the chord after the widest melodic interval, the first of
// several as wide.
func widest(st Staff) (at Chord, leap Interval) {
	for i, interval := range st.Intervals {
		if interval.Number > leap.Number {
			at, leap = st.Line[i+1], interval
		}
	}
	return at, leap
}

// tripping weighs what makes a bar one where a student trips. A judgement: it
// orders bars and names at most three.
var tripping = map[string]float64{
	"position-move": 2, "thumb-under": 2, "finger-over": 2, "shift-up": 3, "shift-neck": 3, "wide-leaps": 2, "accidentals": 1.5,
	"dotted": 1.5, "syncopation": 2, "thirds": 1.5, "quarters-of-beat": 1.5, "two-against-three": 4, "three-against-four": 4,
	"hands-together": 1.5, "reach-back": 2, "reach-forward": 2, "quick-crossings": 2, "double-notes": 2, "chord-change": 2, "ledger-lines": 1,
	"second-clef": 2, "changing-meter": 2, "bass-chord": 1.5, "fourths-fifths": 1, "ties": 1,
}

// leastTrip is the weight from which a bar is named.
const leastTrip = 1.4

type trip struct {
	bar   int
	worth float64
	signs []string
}

// trips returns at most three bars where it will trip, in order: what is asked
// there and in few other bars weighs most.
func (p Page) trips(demands []Demand) []trip {
	weigh := func(d Demand) float64 {
		return tripping[d.Skill] * (1 - float64(len(d.Bars))/float64(max(p.Score.Bars(), 1)))
	}
	worth := make([]float64, p.Score.Bars()+1)
	for _, d := range demands {
		if weight := weigh(d); weight > 0 {
			for _, b := range d.Bars {
				worth[b] += weight
			}
		}
	}
	var out []trip
	for b, w := range worth {
		if w >= leastTrip {
			out = append(out, trip{bar: b, worth: w})
		}
	}
	slices.SortFunc(out, func(a, b trip) int { return cmp.Or(cmp.Compare(b.worth, a.worth), a.bar-b.bar) })
	out = out[:min(len(out), 3)]
	slices.SortFunc(out, func(a, b trip) int { return a.bar - b.bar })
	for i := range out {
		for _, d := range demands {
			if weigh(d) > 0 && slices.Contains(d.Bars, out[i].bar) {
				out[i].signs = append(out[i].signs, d.Skill)
			}
		}
	}
	return out
}

// The tempos, in quarter notes a minute, from which detached playing is
// lively and up to which joined playing is lyrical. A judgement.
const (
	livelyFrom = 108
	lyricalTo  = 84
)

// taste tells lively from lyrical by tempo and touch; empty where neither is
// plain. Whether a tune is familiar stands on no page.
func (p Page) taste() string {
	qpm, joined, detached := 0.0, 0, 0
	for _, part := range p.Score.Parts {
		for _, b := range part.Bars {
			for _, m := range b.Marks {
				if m.QPM > 0 && qpm == 0 {
					qpm = m.QPM
				}
			}
			for _, n := range b.Notes {
				joined += n.SlurStarts
				if slices.Contains(n.Articulations, "staccato") {
					detached++
				}
			}
		}
	}
	switch {
	case qpm >= livelyFrom && detached >= joined, detached > p.Score.Bars():
		return "lively"
	case qpm > 0 && qpm <= lyricalTo && joined >= detached:
		return "lyrical"
	}
	return ""
}

// New returns what is new on a page for a reader: skills that the page asks for
// and the reader has not, and notes not yet met, by bar. With no note met nothing
// is said of notes.
func (p Page) New(demands []Demand, has func(skill string) bool, met map[pitch.Pitch]bool, name func(skill string) string) []reason.Reason {
	type first struct {
		Place
		why reason.Reason
	}
	var found []first
	for _, d := range demands {
		if !has(d.Skill) {
			found = append(found, first{Place{d.Bar, d.Beat}, reason.Of("new-skill", "skill", d.Skill, "name", name(d.Skill), "bar", strconv.Itoa(d.Bar))})
		}
	}
	said := map[pitch.Pitch]bool{}
	var notes, bars, ids []string
	var at Place
	for _, st := range p.Staves {
		for _, c := range st.Line {
			for i, n := range c.Notes {
				if len(met) == 0 || met[n] || said[n] {
					continue
				}
				if said[n] = true; len(notes) == 0 {
					at = Place{c.Bar, c.Beat}
				}
				notes, bars, ids = append(notes, n.String()), append(bars, strconv.Itoa(c.Bar)), append(ids, c.IDs[i])
			}
		}
	}
	if len(notes) > 0 {
		found = append(found, first{at, reason.Of("new-notes", "notes", strings.Join(notes, ","), "bars", strings.Join(bars, ","), "ids", strings.Join(ids, ","))})
	}
	slices.SortStableFunc(found, func(a, b first) int { return cmp.Or(a.Bar-b.Bar, a.Beat.Cmp(b.Beat)) })
	out := []reason.Reason{}
	for _, f := range found {
		out = append(out, f.why)
	}
	return out
}
