package echo

import (
	"math/rand/v2"
	"slices"

	"patientladder/core/reason"
	"patientladder/core/touch"
)

// Cells of a beat, or of more, in quarter notes; what is negative is silent.
var (
	one     = []float64{1}
	two     = []float64{2}
	four    = []float64{4}
	hush    = []float64{-1}
	halves  = []float64{0.5, 0.5}
	thirds  = []float64{1.0 / 3, 1.0 / 3, 1.0 / 3}
	fourths = []float64{0.25, 0.25, 0.25, 0.25}
	dotted  = []float64{1.5, 0.5}
	off     = []float64{0.5, 1, 0.5}
	tied    = []float64{3, 1}
	swing   = []float64{0.5, 0.5, 0.5}
	rock    = []float64{1, 0.5}
	long3   = []float64{1.5}
)

// rhythm asks for a rhythm of cells: of so many beats, with at least so many of the cells that the level
// is about.
func rhythm(beat, pulse float64, of ...rhythmLevel) func(int, *rand.Rand) Call {
	return func(level int, r *rand.Rand) Call {
		l := of[level-1]
		var cells [][]float64
		left := l.beats
		for range l.must {
			c := l.about[r.IntN(len(l.about))]
			cells, left = append(cells, c), left-length(c)
		}
		for left > 1e-9 {
			var fit [][]float64
			for _, c := range l.beside {
				if length(c) <= left+1e-9 {
					fit = append(fit, c)
				}
			}
			c := fit[r.IntN(len(fit))]
			cells, left = append(cells, c), left-length(c)
		}
		r.Shuffle(len(cells), func(i, j int) { cells[i], cells[j] = cells[j], cells[i] })
		if sounding := slices.IndexFunc(cells, func(c []float64) bool { return c[0] > 0 }); sounding > 0 {
			cells[0], cells[sounding] = cells[sounding], cells[0] // it begins with a sound
		}
		return tapped("tap", beat, pulse, l.lead, slices.Concat(cells...))
	}
}

// A rhythmLevel is what a level of a rhythm is made of.
type rhythmLevel struct {
	beats  float64
	about  [][]float64
	must   int
	beside [][]float64
	lead   float64 // beats before the first bar, of what begins there
}

func length(cell []float64) float64 {
	sum := 0.0
	for _, n := range cell {
		sum += max(n, -n)
	}
	return sum
}

// tapped is a question that is answered by tapping what was heard, after a count of four pulses.
func tapped(says string, beat, pulse, lead float64, notes []float64) Call {
	q := Call{Says: reason.Said("hear." + says), Beat: beat, Pulse: pulse}
	count := 4*pulse - lead
	for i := range 4 {
		if at := float64(i) * pulse; at < count-1e-9 {
			q.Sounds = append(q.Sounds, Tone{Onset: at, Length: 0.1, Key: 91, Click: true})
		}
	}
	at := count
	for _, n := range notes {
		if n > 0 {
			q.Sounds = append(q.Sounds, Tone{Onset: at, Length: n * 0.9, Key: 67})
			q.dues = append(q.dues, touch.Due{Onset: at - count, Length: n})
		}
		at += max(n, -n)
	}
	q.Length = at
	return q
}

// steady asks for beats that go on: heard for some, tapped through as many silent ones.
func steady(of ...struct {
	beat   float64
	silent int
}) func(int, *rand.Rand) Call {
	return func(level int, _ *rand.Rand) Call {
		l := of[level-1]
		notes := slices.Repeat([]float64{1}, l.silent)
		q := tapped("go-on", l.beat, 1, 0, notes)
		q.Sounds, q.Length, q.Pulse = q.Sounds[:4], 4, 0
		return q
	}
}

// bars asks for bars of changing length, the first beat of each louder.
func bars(of ...[]int) func(int, *rand.Rand) Call {
	return func(level int, r *rand.Rand) Call {
		list := slices.Clone(of[level-1])
		r.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
		var notes []float64
		for _, n := range list {
			notes = append(notes, 2) // the first beat is held, so that it is heard
			notes = append(notes, slices.Repeat([]float64{1}, n-2)...)
		}
		return tapped("bars", 600, 1, 0, notes)
	}
}

// both asks for both hands: so many strokes of each to a pulse.
func both(pulse float64, of ...[2]int) func(int, *rand.Rand) Call {
	return func(level int, _ *rand.Rand) Call {
		l := of[level-1]
		q := Call{Says: reason.Said("hear.both"), Beat: pulse, Pulse: 1, Length: 3}
		q.Sounds = append(q.Sounds, Tone{Onset: 0, Length: 0.05, Key: 91, Click: true})
		for i, hand := range []string{"right", "left"} {
			for p := range 2 {
				for k := range l[i] {
					at := float64(p) + float64(k)/float64(l[i])
					q.Sounds = append(q.Sounds, Tone{Onset: 1 + at, Length: 0.8 / float64(l[i]), Key: []float64{72, 55}[i], Hand: hand})
					q.dues = append(q.dues, touch.Due{Onset: at, Length: 1 / float64(l[i]), Hand: hand})
				}
			}
		}
		return q
	}
}

// row is tones one after another.
func row(length float64, keys ...float64) []Tone {
	var out []Tone
	for i, k := range keys {
		out = append(out, Tone{Onset: float64(i) * length, Length: length * 0.9, Key: k})
	}
	return out
}

// chord is tones at once.
func chord(at, length float64, keys ...float64) []Tone {
	var out []Tone
	for _, k := range keys {
		out = append(out, Tone{Onset: at, Length: length * 0.9, Key: k})
	}
	return out
}

// choose is a question that is answered by a word.
func choose(says string, sounds []Tone, right string, words ...string) Call {
	q := Call{Says: reason.Said("hear." + says), Sounds: sounds, Beat: 700, word: right}
	for _, w := range words {
		q.Words = append(q.Words, Word{w, reason.Said("heard." + w)})
	}
	for _, s := range sounds {
		q.Length = max(q.Length, s.Onset+s.Length)
	}
	return q
}

// higher asks which way the second of two tones lies, so many semitones apart at each level.
func higher(level int, r *rand.Rand) Call {
	apart := [][2]int{{7, 12}, {3, 5}, {1, 2}}[level-1]
	by := float64(apart[0] + r.IntN(apart[1]-apart[0]+1))
	from := float64(57 + r.IntN(12))
	if r.IntN(2) == 0 {
		return choose("higher-or-lower", row(1.2, from, from+by), "higher", "higher", "lower")
	}
	return choose("higher-or-lower", row(1.2, from, from-by), "lower", "higher", "lower")
}

// sunny asks for major or minor: a chord broken, at once, and a short tune.
func sunny(level int, r *rand.Rand) Call {
	root, third, word := float64(57+r.IntN(8)), 4.0, "sunny"
	if r.IntN(2) == 0 {
		third, word = 3, "cloudy"
	}
	sounds := row(0.8, root, root+third, root+7, root+third, root)
	switch level {
	case 2:
		sounds = chord(0, 2.5, root, root+third, root+7)
	case 3:
		sounds = row(0.7, root+7, root+third+2-(4-third), root+third, root+2, root, root+7, root+third, root)
		sounds[1].Key = root + 5
	}
	return choose("sunny-or-cloudy", sounds, word, "sunny", "cloudy")
}

// homeAway asks whether the last chord is home (the first degree) or away (the fifth, or the fourth).
func homeAway(level int, r *rand.Rand) Call {
	root, word := float64(55+r.IntN(6)), "home"
	home := []float64{root, root + 4, root + 7}
	last := home
	if r.IntN(2) == 0 {
		word, last = "away", []float64{root - 1, root + 2, root + 7}
		if level == 3 {
			last = []float64{root, root + 5, root + 9}
		}
	}
	sounds := chord(0, 1.5, home...)
	if level > 1 {
		sounds = append(sounds, chord(1.5, 1, root-1, root+2, root+7)...)
		sounds = append(sounds, chord(2.5, 1, home...)...)
	}
	end := sounds[len(sounds)-1]
	return choose("home-or-away", append(sounds, chord(end.Onset+end.Length/0.9, 2, last...)...), word, "home", "away")
}

// tuned asks whether a second tone is below, above or at the first, by parts of a semitone.
func tuned(level int, r *rand.Rand) Call {
	cents := []float64{0.6, 0.3, 0.15}[level-1]
	string_ := []float64{43, 50, 55, 57, 59}[r.IntN(5)]
	k := r.IntN(3)
	return choose("in-tune", row(2, string_, string_+[]float64{-cents, 0, cents}[k]),
		[]string{"low", "right", "high"}[k], "low", "right", "high")
}

// found asks for a tone among keys that are shown.
func found(level int, r *rand.Rand) Call {
	five := []float64{60, 62, 64, 65, 67}
	keys := five
	if level == 1 {
		keys = []float64{60, 64, 67}
	}
	right := keys[r.IntN(len(keys))]
	q := choose("find", row(1.5, right), "")
	q.Words, q.Keys, q.right = nil, keys, []float64{right}
	if level == 3 {
		q.Sounds = append(q.Sounds, Tone{Onset: 0, Length: 1.5, Key: 48})
	}
	return q
}

// Openings of tunes that many know, as degrees of the scale from 0: folk tunes, long in the public
// domain, from memory.
var openings = []struct {
	name    string
	degrees []int
}{
	{"Frère Jacques", []int{0, 1, 2, 0}},
	{"Oh! When the Saints", []int{0, 2, 3, 4}},
	{"Alouette", []int{0, 1, 2, 2}},
	{"Au clair de la lune", []int{0, 0, 0, 1}},
}

// byEar asks for the first notes of a known tune on keys.
func byEar(level int, r *rand.Rand) Call {
	tune := openings[r.IntN(len(openings))]
	scale := []float64{60, 62, 64, 65, 67, 69, 71, 72}
	n := []int{2, 3, 4}[level-1]
	q := Call{Says: reason.SaidOf("hear.beginning", "tune", tune.name), Beat: 600, Keys: scale[:5]}
	for _, d := range tune.degrees[:n] {
		q.right = append(q.right, scale[d])
	}
	q.Sounds = row(1, q.right...)
	q.Length = float64(n)
	return q
}

// sung asks for tones to be sung back.
func sung(level int, r *rand.Rand) Call {
	five := []float64{60, 62, 64, 65, 67}
	at := r.IntN(len(five))
	var keys []float64
	for range level {
		keys = append(keys, five[at])
		at = min(max(at+r.IntN(5)-2, 0), len(five)-1)
	}
	q := choose("sing", row(1.2, keys...), "")
	q.Words = nil
	return q
}

// levels is how many each has.
const levels = 3

// trials are those of the skills of hearing and of pulse, in the order in which they are usually met.
var trials = []Trial{
	{Skill: "higher-lower", Kind: Choose, ask: higher},
	{Skill: "steady-beat", Kind: Tap,
		ask: steady([]struct {
			beat   float64
			silent int
		}{{600, 4}, {600, 8}, {900, 8}}...)},
	{Skill: "sing-back", Kind: Sing, ask: sung},
	{Skill: "echo-rhythm", Kind: Tap,
		ask: rhythm(600, 1, rhythmLevel{4, [][]float64{hush}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{halves}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{halves, hush}, 2, [][]float64{one}, 0})},
	{Skill: "find-by-ear", Kind: Keys, ask: found},
	{Skill: "rests", Kind: Tap,
		ask: rhythm(600, 1, rhythmLevel{4, [][]float64{hush}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{hush}, 2, [][]float64{one, halves}, 0}, rhythmLevel{8, [][]float64{hush}, 3, [][]float64{one, halves}, 0})},
	{Skill: "long-notes", Kind: Tap,
		ask: rhythm(600, 1, rhythmLevel{4, [][]float64{two}, 1, [][]float64{one}, 0}, rhythmLevel{8, [][]float64{two}, 2, [][]float64{one}, 0}, rhythmLevel{8, [][]float64{two, four}, 2, [][]float64{one}, 0})},
	{Skill: "halves", Kind: Tap,
		ask: rhythm(650, 1, rhythmLevel{4, [][]float64{halves}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{halves}, 2, [][]float64{one}, 0}, rhythmLevel{8, [][]float64{halves}, 4, [][]float64{one, two}, 0})},
	{Skill: "three-time", Kind: Tap,
		ask: rhythm(550, 1, rhythmLevel{3, [][]float64{one, two}, 1, [][]float64{one}, 0}, rhythmLevel{6, [][]float64{two}, 1, [][]float64{one}, 0}, rhythmLevel{6, [][]float64{halves}, 2, [][]float64{one, two}, 0})},
	{Skill: "pickup", Kind: Tap,
		ask: rhythm(600, 1, rhythmLevel{5, [][]float64{one}, 3, [][]float64{one, two}, 1}, rhythmLevel{5, [][]float64{halves}, 1, [][]float64{one, two}, 1}, rhythmLevel{5, [][]float64{halves}, 2, [][]float64{one}, 1})},
	{Skill: "metronome", Kind: Tap,
		ask: steady([]struct {
			beat   float64
			silent int
		}{{700, 4}, {700, 8}, {700, 16}}...)},
	{Skill: "major-minor-ear", Kind: Choose, ask: sunny},
	{Skill: "tune-by-ear", Kind: Keys, ask: byEar},
	{Skill: "chord-ear", Kind: Choose, ask: homeAway},
	{Skill: "tune-string", Kind: Choose, ask: tuned},
	{Skill: "tune-guitar", Kind: Choose, ask: tuned},
	{Skill: "ties", Kind: Tap,
		ask: rhythm(600, 1, rhythmLevel{4, [][]float64{tied}, 1, [][]float64{one}, 0}, rhythmLevel{6, [][]float64{tied}, 1, [][]float64{one, halves}, 0}, rhythmLevel{8, [][]float64{tied}, 1, [][]float64{one, halves}, 0})},
	{Skill: "dotted", Kind: Tap,
		ask: rhythm(650, 1, rhythmLevel{4, [][]float64{dotted}, 1, [][]float64{one}, 0}, rhythmLevel{6, [][]float64{dotted}, 2, [][]float64{one}, 0}, rhythmLevel{8, [][]float64{dotted}, 2, [][]float64{one, halves}, 0})},
	{Skill: "thirds", Kind: Tap,
		ask: rhythm(750, 1, rhythmLevel{4, [][]float64{thirds}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{thirds}, 2, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{thirds}, 2, [][]float64{halves}, 0})},
	{Skill: "six-eight", Kind: Tap,
		ask: rhythm(450, 1.5, rhythmLevel{6, [][]float64{rock}, 2, [][]float64{long3}, 0}, rhythmLevel{6, [][]float64{rock, swing}, 2, [][]float64{long3}, 0}, rhythmLevel{6, [][]float64{rock, swing}, 3, [][]float64{long3, rock}, 0})},
	{Skill: "quarters-of-beat", Kind: Tap,
		ask: rhythm(800, 1, rhythmLevel{4, [][]float64{fourths}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{fourths}, 2, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{fourths}, 2, [][]float64{halves}, 0})},
	{Skill: "syncopation", Kind: Tap,
		ask: rhythm(700, 1, rhythmLevel{4, [][]float64{off}, 1, [][]float64{one}, 0}, rhythmLevel{4, [][]float64{off}, 2, [][]float64{one}, 0}, rhythmLevel{6, [][]float64{off}, 2, [][]float64{halves, one}, 0})},
	{Skill: "changing-meter", Kind: Tap, ask: bars([]int{3, 4}, []int{3, 4, 3}, []int{3, 4, 5})},
	{Skill: "hands-apart", Kind: Hands, ask: both(1200, [2]int{2, 1}, [2]int{1, 2}, [2]int{3, 1})},
	{Skill: "two-against-three", Kind: Hands, ask: func(l int, r *rand.Rand) Call {
		return both([]float64{1800, 1800, 1300}[l-1], [2]int{3, 2}, [2]int{2, 3}, [2]int{3, 2})(l, r)
	}},
	{Skill: "three-against-four", Kind: Hands, ask: func(l int, r *rand.Rand) Call {
		return both([]float64{2400, 2400, 1800}[l-1], [2]int{4, 3}, [2]int{3, 4}, [2]int{4, 3})(l, r)
	}},
}

// evenly are exercises of skills of evenness whose tasks play none.
var evenly = map[string]string{"alternating": "roll imim 2222"}
