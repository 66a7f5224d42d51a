package activity

import (
	"slices"

	"patientladder/core/instrument"
)

// A Probe is a question of the first meetings, answered pass, nearly or not yet.
// Its games are the activities with its aim; a pass retires them.
type Probe struct {
	Key  string `json:"key" doc:"the aim"`
	Asks string `json:"asks" doc:"what the teacher finds out"`
	Exit string `json:"exit" doc:"when it is passed"`
	only instrument.Family
	from int // youngest age it is asked at
	to   int // oldest; 0 for any
}

// FingerNumbers is the aim that waits for its age by the approach.
const FingerNumbers = "finger-numbers"

// probes are asked in this order: aims of the first meetings by age. Common
// practice, no source.
var probes = []Probe{
	{"left-right", "Which hand is which?", "names the hand on six mixed pictures", "", 3, 7},
	{"hand-swap", "Swaps hands on a cue word?", "swaps within a beat, five plain words running", "", 3, 5},
	{"key-groups", "Finds the groups of black keys?", "finds every pair going up", instrument.Keyboard, 3, 7},
	{"open-strings", "Knows the open strings?", "plucks five called strings", instrument.Bowed, 3, 9},
	{"thumb-bass", "Finds a called string?", "lands on six called strings", instrument.Plucked, 4, 9},
	{"high-low", "Which end is high?", "stands at the right end five times running", "", 3, 7},
	{"steady-beat", "Keeps four steady beats?", "keeps two fours in a row, no gap and no hurry", "", 3, 0},
	{"echo-rhythm", "Echoes a rhythm of four beats?", "answers three echoes, none begun early", "", 5, 0},
	{"sing-back", "Sings back one, two, three pitches?", "sings three tones, twice", "", 4, 12},
	{"higher-lower", "Hears higher from lower?", "is right in five of six", "", 4, 9},
	{"find-by-ear", "Finds a heard note?", "finds three of three, singing first", "", 5, 12},
	{"one-finger", "One finger at a time?", "moves each finger alone, neighbours quiet", instrument.Keyboard, 4, 0},
	{"first-finger", "One finger in its place?", "lands there four times out of five", instrument.Bowed, 5, 0},
	{"flush-stroke", "One string met flush?", "plucks four of one sound", instrument.Plucked, 5, 0},
	{FingerNumbers, "Knows fingers by number?", "lifts six called fingers, the others resting", "", 3, 0},
	{"leading-hand", "Which hand leads?", "begins three tasks of four with the same hand", "", 3, 9},
	{"seat", "Sits with feet carried?", "sets feet and seat without help", "", 5, 0},
}

// Probes returns what is asked at an age on a family of instruments, in order.
func Probes(age int, f instrument.Family) []Probe {
	var out []Probe
	for _, p := range probes {
		if age >= p.from && (p.to == 0 || age <= p.to) && (p.only == "" || p.only == f) {
			out = append(out, p)
		}
	}
	return out
}

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
