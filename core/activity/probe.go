package activity

import (
	"cmp"
	"math"
	"slices"

	"patientladder/core/instrument"
)

// A Probe is a question of the first meetings, answered pass, nearly or not yet.
// Its games are the activities with its aim; a pass retires them.
type Probe struct {
	Key  string `json:"key" doc:"the aim"`
	Asks string `json:"asks" doc:"what the teacher finds out"`
	Exit string `json:"exit" doc:"when it is passed"`
	Why  string `json:"why,omitempty" doc:"for who wants reasons: what it is for, and how it is checked alone"`
	only instrument.Family
	from int // youngest age it is asked at
	to   int // oldest; 0 for any
}

// FingerNumbers is the aim that waits for its age by the approach.
const FingerNumbers = "finger-numbers"

// RoteTune is the aim of small tunes that are learnt without a page.
const RoteTune = "rote-tune"

// probes are the aims of first meetings. Common practice, no source.
var probes = []Probe{
	{Key: "left-right", Asks: "Which hand is which?", Exit: "names the hand on six mixed pictures", from: 3, to: 7},
	{Key: "hand-swap", Asks: "Swaps hands on a cue word?", Exit: "swaps within a beat, five plain words running", from: 3, to: 5},
	{Key: "key-groups", Asks: "Finds the groups of black keys?", Exit: "finds every pair going up", only: instrument.Keyboard, from: 3, to: 7},
	{Key: "open-strings", Asks: "Knows the open strings?", Exit: "plucks five called strings", only: instrument.Bowed, from: 3, to: 9},
	{Key: "thumb-bass", Asks: "Finds a called string?", Exit: "lands on six called strings", only: instrument.Plucked, from: 4, to: 9},
	{Key: "high-low", Asks: "Which end is high?", Exit: "stands at the right end five times running", from: 3, to: 7},
	{Key: "steady-beat", Asks: "Keeps four steady beats?", Exit: "keeps two fours in a row, no gap and no hurry", from: 3,
		Why: "Everything two hands do together hangs on it. A recording of yourself tells what the ear lets pass."},
	{Key: "echo-rhythm", Asks: "Echoes a rhythm of four beats?", Exit: "answers three echoes, none begun early", from: 5,
		Why: "What is heard whole is played whole. Clap it once more before you play: is it the same?"},
	{Key: "sing-back", Asks: "Sings back one, two, three pitches?", Exit: "sings three tones, twice", from: 4, to: 12},
	{Key: "higher-lower", Asks: "Hears higher from lower?", Exit: "is right in five of six", from: 4, to: 9},
	{Key: "find-by-ear", Asks: "Finds a heard note?", Exit: "finds three of three, singing first", from: 5, to: 12},
	{Key: RoteTune, Asks: "Learns a small tune without a page?", Exit: "plays a tune alone, twice", from: 5, to: 7},
	{Key: "one-finger", Asks: "One finger at a time?", Exit: "moves each finger alone, neighbours quiet", only: instrument.Keyboard, from: 4,
		Why: "A neighbour that lifts along is work for nothing. Watch the idle fingers, not the one that plays."},
	{Key: "first-finger", Asks: "One finger in its place?", Exit: "lands there four times out of five", only: instrument.Bowed, from: 5,
		Why: "The first finger places the others. Land it, then pluck the string below: does it agree?"},
	{Key: "flush-stroke", Asks: "One string met flush?", Exit: "plucks four of one sound", only: instrument.Plucked, from: 5,
		Why: "How the string is met decides the tone. Pluck four with eyes shut: four alike?"},
	{Key: FingerNumbers, Asks: "Knows fingers by number?", Exit: "lifts six called fingers, the others resting", from: 3,
		Why: "A fingering on the page is read as numbers. Read out a row of numbers and lift them."},
	{Key: "leading-hand", Asks: "Which hand leads?", Exit: "begins three tasks of four with the same hand", from: 3, to: 9},
	{Key: "seat", Asks: "Sits with feet carried?", Exit: "sets feet and seat without help", from: 5,
		Why: "A seat that is too low bends the wrist, one that is too near locks the elbow. Set it from nothing, then compare with a picture."},
	{Key: "hand-shape", Asks: "A hand that hangs, brought up unchanged?", Exit: "the shape on the keys is the one that hung", only: instrument.Keyboard, from: 5,
		Why: "The shape that hangs tires least. Let the arm drop again: did the hand change?"},
	{Key: "bow-hold", Asks: "Holds a pencil as a bow?", Exit: "ten quiet strokes with the pencil, the thumb still bent", only: instrument.Bowed, from: 5,
		Why: "A bent thumb carries, a straight one grips. Look at the thumb in a mirror after ten strokes."},
	{Key: "resting-hand", Asks: "A hand that rests on the strings?", Exit: "rests for four counts, idle fingers quiet", only: instrument.Plucked, from: 5,
		Why: "A hand that floats works before it plays. Lift one finger: do the others stay?"},
	{Key: "landmarks", Asks: "Finds one landmark note?", Exit: "finds it on the page and the instrument, three times running", from: 8,
		Why: "From one sure note every other is counted. Come back to it cold, from somewhere else."},
	{Key: "five-fingers", Asks: "Five notes up and down?", Exit: "each hand alone, then together, then one key higher", only: instrument.Keyboard, from: 8,
		Why: "Alone, a hand shows which finger comes late; together the other hides it. One key higher: is the shape still the same?"},
	{Key: "block-fingers", Asks: "Open string and three fingers, up and down?", Exit: "up and down in tune, on two strings", only: instrument.Bowed, from: 8,
		Why: "Fingers that stay down keep the distances. Pluck each again coming down: the same note?"},
	{Key: "first-position", Asks: "A finger a fret, up and down?", Exit: "up and down without a buzz, on two strings", only: instrument.Plucked, from: 8,
		Why: "Close behind the fret half the strength is enough. Press less until it buzzes, then a little more."},
}

// inOrder are the aims by age, up to which age each list holds. Three and four begin with the hands,
// the groups and the beat; five to seven with the ear, the seat and a tune, and go on with
// those; older beginners sit, find the hand, its numbers, one landmark and five notes. Common
// practice, no source.
var inOrder = []struct {
	to   int
	aims []string
}{
	{4, []string{"left-right", "hand-swap", "key-groups", "open-strings", "thumb-bass", "steady-beat", "high-low"}},
	{7, []string{"sing-back", "find-by-ear", "echo-rhythm", "seat", RoteTune, "hand-shape", "bow-hold", "resting-hand",
		"left-right", "steady-beat", "key-groups", "open-strings", "thumb-bass", "high-low", "higher-lower"}},
	{math.MaxInt, []string{"seat", "hand-shape", "bow-hold", "resting-hand", FingerNumbers, "landmarks", "five-fingers", "block-fingers", "first-position", "steady-beat", "echo-rhythm"}},
}

// Probes returns what is asked at an age on a family of instruments, in order; what stands in
// no list of the age comes last.
func Probes(age int, f instrument.Family) []Probe {
	var out []Probe
	for _, p := range probes {
		if age >= p.from && (p.to == 0 || age <= p.to) && (p.only == "" || p.only == f) {
			out = append(out, p)
		}
	}
	aims := inOrder[0].aims
	for _, list := range slices.Backward(inOrder) {
		if age <= list.to {
			aims = list.aims
		}
	}
	// what is in no list has place -1, the largest without a sign
	slices.SortStableFunc(out, func(a, b Probe) int {
		return cmp.Compare(uint(slices.Index(aims, a.Key)), uint(slices.Index(aims, b.Key)))
	})
	return out
}

// Firsts returns the first game of each aim of a first meeting but some, in order, five at most:
// what goes home where nobody told what was played, or all of that is over.
func Firsts(age int, f instrument.Family, but func(aim string) bool) []Activity {
	var out []Activity
	for _, p := range Probes(age, f) {
		if but(p.Key) {
			continue
		}
		if i := slices.IndexFunc(Bank(), func(a Activity) bool { return a.Aim == p.Key && a.Fits(age, f) }); i >= 0 && len(out) < 5 {
			out = append(out, Bank()[i])
		}
	}
	return out
}

// Beyond reports whether more is taken for granted of a student than first meetings bring: one who was placed
// beyond the first book, and is not asked after what everybody knows there.
func Beyond(presumed []string) bool {
	brought := 0
	for _, id := range presumed {
		if IsProbe(id) {
			brought++
		}
	}
	return len(presumed) > 2*brought
}

// WhyFor is what an aim is for and how it is checked alone, for who is old enough to want
// reasons; empty for others.
func WhyFor(aim string, age int) string {
	i := slices.IndexFunc(probes, func(p Probe) bool { return p.Key == aim })
	if i < 0 || age < grownUp {
		return ""
	}
	return probes[i].Why
}

// Young reports whether an age has the first meetings of the very young: games of a minute, the
// child as teacher.
func Young(age int) bool { return age <= inOrder[0].to }

// IsProbe reports whether an aim is asked in first meetings at some age.
func IsProbe(aim string) bool {
	return slices.ContainsFunc(probes, func(p Probe) bool { return p.Key == aim })
}

// Played returns the activities of a bank that were done in a lesson: those named by id, and
// of an aim that was tried the first that fits; each once, in the bank's order.
func Played(bank []Activity, done []string, age int, f instrument.Family) []Activity {
	var out []Activity
	aims := map[string]bool{}
	for _, a := range bank {
		byAim := slices.Contains(done, a.Aim) && !aims[a.Aim] && a.Fits(age, f)
		if slices.Contains(done, a.ID) || byAim {
			out = append(out, a)
			aims[a.Aim] = true
		}
	}
	return out
}
