// Package placement finds out what a student from elsewhere can do, by few questions.
//
// Skills rest on each other, so that each answer speaks for many: a knowledge state is a set of
// skills that holds, with each skill, all that it rests on (Doignon and Falmagne, *Knowledge
// Spaces*, 1999). What is asked next is what tells most, their informative questioning rule: at
// first it halves the way. Who can do a thing may slip, and who cannot may be lucky. States are too
// many to list, so that their probabilities are weighed from many made-up students, the same for
// the same answers.
package placement

import (
	"math"
	"math/rand/v2"
	"slices"

	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/skill"
)

// Ask is what is known of a student before the next question.
type Ask struct {
	Graph   skill.Graph
	Order   []string          // the skills in question, as they are taught
	Answers map[string]string // outcomes of probes, by skill; what was skipped has none
	Heard   []string          // skills that secure pieces carry, remembered: each counts as a pass
	Once    []string          // skills that were secure before, and are forgotten or long not heard
}

// A Belief is how likely a student has each skill.
type Belief struct {
	Order []string
	Known []float64 // beside Order
	Level []float64 // how likely the student has come how far, in equal parts of the way

	both [][]float64 // by level: how likely it is together with each skill
}

// Levels is into how many parts the way from the first skill to the last is cut.
const Levels = 40

// likelihood is how likely an answer is from somebody who has the skill and who has it not.
func likelihood(outcome string) (has, lacks float64) {
	switch outcome {
	case fact.Pass:
		return 1 - judgement.ProbeCareless - judgement.ProbeNearly, judgement.ProbeLucky
	case fact.Nearly:
		return judgement.ProbeNearly, judgement.ProbeNearly
	case fact.NotYet:
		return judgement.ProbeCareless, 1 - judgement.ProbeLucky - judgement.ProbeNearly
	}
	return 1, 1
}

// A belief is weighed from so many made-up students: as many of each of several levels.
const (
	steps = 10 * Levels
	each  = 32
)

// unlike is how unlikely the answers must be from a made-up student, beside one who gives the
// likeliest of all, to be counted as not possible.
const unlike = 1e-9

// Believe returns how likely each skill is known. It makes up students of all levels: each has
// each skill, as they are taught, with a chance of its own if all is there that it rests on; near
// one below the level, near none above. Each counts as likely as the answers are from such a one.
// O(made-up students × (skills + what they rest on)).
func Believe(ask Ask) Belief {
	n := len(ask.Order)
	out := Belief{Order: ask.Order, Known: make([]float64, n), Level: make([]float64, Levels), both: make([][]float64, Levels)}
	for l := range out.both {
		out.both[l] = make([]float64, n)
	}
	below, has, lacks := ask.space()
	rng := rand.New(rand.NewPCG(uint64(n), 7))
	state, chances, sum := make([]bool, n), make([]float64, n), 0.0
	for k := range steps * each {
		if k%each == 0 {
			for i := range chances {
				chances[i] = chance(i, n, (float64(k/each)+0.5)/steps)
			}
		}
		weight := 1.0
		for i := 0; i < n && weight > unlike; i++ {
			state[i] = true
			for _, j := range below[i] {
				state[i] = state[i] && state[j]
			}
			if state[i] = state[i] && rng.Float64() < chances[i]; state[i] {
				weight *= has[i]
			} else {
				weight *= lacks[i]
			}
		}
		sum += weight
		if weight <= unlike {
			continue
		}
		level := k / each * Levels / steps
		out.Level[level] += weight / (steps * each)
		for i, h := range state {
			if h {
				out.both[level][i] += weight / (steps * each)
			}
		}
	}
	sum /= steps * each
	for l, list := range out.both {
		out.Level[l] /= sum
		for i := range list {
			list[i] /= sum
			out.Known[i] += list[i]
		}
	}
	return out
}

// space returns for each skill which it rests on, by number, and how likely its answer and its
// past are from who has it and who has it not. What was once secure is kept or lost together: the
// whole of it counts, not each, and of who had some of the order the rest was not there.
func (ask Ask) space() (below [][]int, has, lacks []float64) {
	at := make(map[string]int, len(ask.Order))
	for i, id := range ask.Order {
		at[id] = i
	}
	was := 1.0 // what each skill's past counts
	if n := len(ask.Once); n > 0 {
		was = math.Pow(judgement.PlacementOnce, 1/float64(n))
	}
	not := 1.0
	if past := len(ask.Once) + len(ask.Heard); past > 0 && past < len(ask.Order) {
		n := len(ask.Order) - past
		not = math.Pow(judgement.PlacementOnce, 1/float64(n))
	}
	for _, id := range ask.Order {
		var rests []int
		for _, b := range ask.Graph[id].RestsOn {
			if j, there := at[b]; there {
				rests = append(rests, j)
			}
		}
		outcome := ask.Answers[id]
		if outcome == "" && slices.Contains(ask.Heard, id) {
			outcome = fact.Pass
		}
		h, l := likelihood(outcome)
		switch {
		case slices.Contains(ask.Once, id):
			h *= was
		case !slices.Contains(ask.Heard, id):
			l *= not
		}
		most := math.Max(h, l)
		below, has, lacks = append(below, rests), append(has, h/most), append(lacks, l/most)
	}
	return below, has, lacks
}

// chance is how likely a student of a level, from 0 to 1, has a skill of so many: gaps below the
// level and gifts above it, with a blurred edge.
func chance(i, of int, level float64) float64 {
	over := level*float64(of) - float64(i) - 0.5
	return judgement.PlacementGap + (1-2*judgement.PlacementGap)/(1+math.Exp(-over/math.Max(0.5, judgement.PlacementEdge*float64(of))))
}

// Next returns the skill to ask after next among those that can be asked: the one whose answer is
// expected to tell most about how far the student has come, of several the first to be taught;
// false where none tells enough.
func (b Belief) Next(can func(skill string) bool) (skill string, ok bool) {
	most := judgement.PlacementTells
	for i, id := range b.Order {
		if tells := b.tells(i); tells > most && can(id) {
			skill, most, ok = id, tells, true
		}
	}
	return skill, ok
}

// tells is how much an answer about a skill is expected to tell about the level, in nats.
func (b Belief) tells(i int) (sum float64) {
	for _, o := range []string{fact.Pass, fact.Nearly, fact.NotYet} {
		has, lacks := likelihood(o)
		all := b.Known[i]*has + (1-b.Known[i])*lacks
		for l, p := range b.Level {
			if p > 0 {
				with := b.both[l][i] / p
				here := with*has + (1-with)*lacks
				sum += p * here * math.Log(here/all)
			}
		}
	}
	return sum
}

// Unsure lists the skills that are neither known nor missing for sure, as they are taught.
func (b Belief) Unsure() []string {
	var out []string
	for i, id := range b.Order {
		if math.Abs(b.Known[i]-0.5) < 0.5-judgement.PlacementSure {
			out = append(out, id)
		}
	}
	return out
}

// Reached returns how many skills of the order the student has come through, gaps aside: so many
// that the chance of having come so far is as great as doubt asks; the greater, the fewer.
func (b Belief) Reached(doubt float64) int {
	sum := 0.0
	for l := Levels - 1; l >= 0; l-- {
		if sum += b.Level[l]; sum >= doubt {
			return l * len(b.Order) / Levels
		}
	}
	return 0
}
