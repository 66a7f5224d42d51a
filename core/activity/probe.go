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
	Key      string `json:"key" doc:"the aim"`
	only     instrument.Family
	from     int  // youngest age it is asked at
	to       int  // oldest; 0 for any
	reasoned bool // who wants reasons is told what it is for, and how it is checked alone
}

// FingerNumbers is the aim that waits for its age by the approach.
const FingerNumbers = "finger-numbers"

// RoteTune is the aim of small tunes that are learnt without a page.
const RoteTune = "rote-tune"

// probes are the aims of first meetings. Common practice, no source.
var probes = []Probe{
	{Key: "left-right", from: 3, to: 7},
	{Key: "hand-swap", from: 3, to: 5},
	{Key: "key-groups", only: instrument.Keyboard, from: 3, to: 7},
	{Key: "open-strings", only: instrument.Bowed, from: 3, to: 9},
	{Key: "thumb-bass", only: instrument.Plucked, from: 4, to: 9},
	{Key: "high-low", from: 3, to: 7},
	{Key: "steady-beat", from: 3, reasoned: true},
	{Key: "echo-rhythm", from: 5, reasoned: true},
	{Key: "sing-back", from: 4, to: 12},
	{Key: "higher-lower", from: 4, to: 9},
	{Key: "find-by-ear", from: 5, to: 12},
	{Key: RoteTune, from: 5, to: 7},
	{Key: "one-finger", only: instrument.Keyboard, from: 4, reasoned: true},
	{Key: "first-finger", only: instrument.Bowed, from: 5, reasoned: true},
	{Key: "flush-stroke", only: instrument.Plucked, from: 5, reasoned: true},
	{Key: FingerNumbers, from: 3, reasoned: true},
	{Key: "leading-hand", from: 3, to: 9},
	{Key: "seat", from: 5, reasoned: true},
	{Key: "hand-shape", only: instrument.Keyboard, from: 5, reasoned: true},
	{Key: "bow-hold", only: instrument.Bowed, from: 5, reasoned: true},
	{Key: "resting-hand", only: instrument.Plucked, from: 5, reasoned: true},
	{Key: "landmarks", from: 8, reasoned: true},
	{Key: "five-fingers", only: instrument.Keyboard, from: 8, reasoned: true},
	{Key: "block-fingers", only: instrument.Bowed, from: 8, reasoned: true},
	{Key: "first-position", only: instrument.Plucked, from: 8, reasoned: true},
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

// Firsts returns the first game of a bank for each aim of a first meeting but some, in order, five at
// most: what goes home where nobody told what was played, or all of that is over.
func Firsts(bank []Activity, age int, f instrument.Family, but func(aim string) bool) []Activity {
	var out []Activity
	for _, p := range Probes(age, f) {
		if but(p.Key) {
			continue
		}
		if i := slices.IndexFunc(bank, func(a Activity) bool { return a.Aim == p.Key && a.Fits(age, f) }); i >= 0 && len(out) < 5 {
			out = append(out, bank[i])
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

// Reasoned reports whether somebody of an age is told what an aim is for, and how it is checked alone.
func Reasoned(aim string, age int) bool {
	return age >= grownUp && slices.ContainsFunc(probes, func(p Probe) bool { return p.Key == aim && p.reasoned })
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
