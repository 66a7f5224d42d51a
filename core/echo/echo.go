// Package echo is listening and answering: what is heard is held, and given back by taps, on keys, in a
// word, or sung for the teacher to judge.
//
// Each skill of hearing and of pulse has a trial, in levels (trials.go); a skill whose task plays an
// exercise is tried by playing that in. A level holds until so many answers running are right; after the
// last the exit test is passed. Hear all of it, hold it, then answer: an answer before the end adds
// claps. Common practice, no source. What is asked is made by rule from a seed, and the same seed asks
// the same.
package echo

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strconv"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/reason"
	"patientladder/core/skill"
	"patientladder/core/touch"
)

// A Kind is how a trial is answered.
type Kind string

// The kinds.
const (
	Tap    Kind = "tap"    // with one finger
	Hands  Kind = "hands"  // with a finger of each hand
	Choose Kind = "choose" // by a word
	Keys   Kind = "keys"   // on keys that are shown
	Sing   Kind = "sing"   // aloud: the teacher judges
	PlayIn Kind = "play"   // on the instrument: it is measured
)

// A Trial is a way to try a skill.
type Trial struct {
	Skill    string         `json:"skill"`
	Kind     Kind           `json:"kind" enum:"tap,hands,choose,keys,sing,play"`
	Says     reason.Label   `json:"says" doc:"what is to be done"`
	Levels   []reason.Label `json:"levels" doc:"what each asks, easiest first"`
	Exercise string         `json:"exercise,omitempty" doc:"of what is played in: its specification"`
	family   instrument.Family
	ask      func(level int, r *rand.Rand) Call
}

// A Tone is a tone or a click of a question.
type Tone struct {
	Onset  float64 `json:"onset" doc:"quarter notes"`
	Length float64 `json:"length" doc:"quarter notes"`
	Key    float64 `json:"key" doc:"MIDI number, with parts of a semitone where a string is not in tune"`
	Click  bool    `json:"click,omitempty"`
	Hand   string  `json:"hand,omitempty"`
}

// A Word is an answer to choose.
type Word struct {
	Key  string       `json:"key"`
	Says reason.Label `json:"says"`
}

// A Call is what is asked once.
type Call struct {
	Says   reason.Label `json:"says" doc:"what to do now"`
	Sounds []Tone       `json:"sounds"`
	Length float64      `json:"length" doc:"quarter notes until it may be answered"`
	Beat   float64      `json:"beat" doc:"milliseconds of a quarter note"`
	Pulse  float64      `json:"pulse" doc:"quarter notes of a pulse, which goes on as a click while the answer is held; 0 for none"`
	Words  []Word       `json:"words" doc:"to choose from"`
	Keys   []float64    `json:"keys" doc:"to find the answer on, from the lowest"`
	Find   int          `json:"find" doc:"how many keys the answer has; 0 for none"`
	right  []float64    // keys, in order
	word   string
	dues   []touch.Due
}

// An Reply is what came back.
type Reply struct {
	Taps   []touch.Stroke `json:"taps,omitempty" maxItems:"400" doc:"from the moment at which it may be answered"`
	Early  int            `json:"early,omitempty" minimum:"0" maximum:"400" doc:"taps before that"`
	Word   string         `json:"word,omitempty" maxLength:"40"`
	Keys   []float64      `json:"keys,omitempty" maxItems:"40"`
	Judged string         `json:"judged,omitempty" enum:"right,wrong" doc:"by the teacher, of what was sung"`
}

// A Verdict says how an answer was.
type Verdict struct {
	Right bool         `json:"right"`
	Says  reason.Label `json:"says"`
	Off   float64      `json:"off" doc:"of taps: milliseconds off the steady line"`
}

// A Bout is how far a round of questions is.
type Bout struct {
	Level   int  `json:"level" minimum:"1" maximum:"20"`
	Running int  `json:"running" minimum:"0" maximum:"1000" doc:"right answers running at this level"`
	Asked   int  `json:"asked" minimum:"0" maximum:"1000"`
	Right   int  `json:"right" minimum:"0" maximum:"1000"`
	Passed  bool `json:"passed" doc:"the exit test"`
}

// Of finds the trial of a skill in a graph; false for a skill that is tried otherwise.
func Of(g skill.Graph, id string) (Trial, bool) {
	s, known := g[id]
	if !known {
		return Trial{}, false
	}
	if i := slices.IndexFunc(trials, func(t Trial) bool { return t.Skill == id }); i >= 0 {
		t := trials[i]
		t.family, t.Says = s.Family, reason.Said("trial."+id)
		for level := range levels {
			t.Levels = append(t.Levels, reason.Said(fmt.Sprintf("trial.%s-level-%d", id, level+1)))
		}
		return t, true
	}
	played := evenly[id]
	for _, l := range s.Chain {
		if l.Notes != "" {
			played = l.Notes
		}
	}
	if played == "" {
		return Trial{}, false
	}
	return Trial{Skill: id, Kind: PlayIn, Says: reason.Said("hear.play-in"), Levels: []reason.Label{reason.Said("hear.as-written")}, Exercise: played, family: s.Family}, true
}

// All lists the trials of a graph: those of hearing and pulse in the order in which they are usually
// met, then what is played in, by name.
func All(g skill.Graph) []Trial {
	var out []Trial
	for _, t := range trials {
		if t, known := Of(g, t.Skill); known {
			out = append(out, t)
		}
	}
	for _, s := range g.Sorted() {
		if t, known := Of(g, s.ID); known && t.Kind == PlayIn {
			out = append(out, t)
		}
	}
	return out
}

// Ask makes a question of a level, counted from 1. What is played in asks none.
func (t Trial) Ask(level int, seed uint64) Call {
	if t.ask == nil {
		return Call{}
	}
	q := t.ask(min(max(level, 1), len(t.Levels)), rand.New(rand.NewPCG(seed, uint64(level))))
	q.Find = len(q.right)
	if q.Words == nil {
		q.Words = []Word{}
	}
	if q.Keys == nil {
		q.Keys = []float64{}
	}
	return q
}

// Judge judges an answer.
func (t Trial) Judge(q Call, a Reply) (Verdict, error) {
	switch t.Kind {
	case Tap, Hands:
		return q.tapped(a)
	case Choose:
		if a.Word == q.word {
			return Verdict{Right: true, Says: reason.SaidOf("verdict.yes", "word", q.word)}, nil
		}
		return Verdict{Says: reason.SaidOf("verdict.no", "word", q.word)}, nil
	case Keys:
		if slices.Equal(a.Keys, q.right) {
			return Verdict{Right: true, Says: reason.Said("verdict.found")}, nil
		}
		return Verdict{Says: reason.Said("verdict.not-there")}, nil
	case Sing:
		if a.Judged == "right" {
			return Verdict{Right: true, Says: reason.Said("verdict.sung")}, nil
		}
		return Verdict{Says: reason.Said("verdict.once-more")}, nil
	}
	return Verdict{}, fmt.Errorf("what is played in is measured, not judged")
}

// tapped judges taps: each there, none too many, none before the end, all in time.
func (q Call) tapped(a Reply) (Verdict, error) {
	if a.Early > 0 {
		return Verdict{Says: reason.Said("verdict.early")}, nil
	}
	m, err := touch.Read(q.dues, a.Taps, q.Beat)
	if err != nil {
		return Verdict{}, err
	}
	v := Verdict{Off: m.Worst()}
	shortest := math.Inf(1)
	hands := map[string]float64{}
	for _, d := range q.dues {
		if before, had := hands[d.Hand]; had {
			shortest = min(shortest, d.Onset-before)
		}
		hands[d.Hand] = d.Onset
	}
	ms := strconv.Itoa(int(math.Round(v.Off)))
	switch n := len(a.Taps) - len(q.dues); {
	case n > 0:
		v.Says = reason.SaidOf("verdict.too-many", "n", strconv.Itoa(n))
	case n < 0:
		v.Says = reason.SaidOf("verdict.missing", "n", strconv.Itoa(-n))
	case m.Wrong+m.Missing+m.Extra+m.Stops > 0:
		v.Says = reason.Said("verdict.another-rhythm")
	case v.Off > judgement.EchoOff*shortest*q.Beat && !math.IsInf(shortest, 1):
		v.Says = reason.SaidOf("verdict.nearly", "ms", ms)
	default:
		v.Right, v.Says = true, reason.SaidOf("verdict.right", "ms", ms)
	}
	return v, nil
}

// After is a run after an answer.
func (t Trial) After(r Bout, right bool) Bout {
	r.Asked++
	if !right {
		r.Running = 0
		return r
	}
	r.Right, r.Running = r.Right+1, r.Running+1
	if r.Running >= int(judgement.EchoRun) {
		if r.Level < len(t.Levels) {
			r.Level, r.Running = r.Level+1, 0
		} else {
			r.Passed = true
		}
	}
	return r
}

// Fits reports whether a trial is one for an instrument of a family.
func (t Trial) Fits(f instrument.Family) bool {
	return t.family == instrument.Shared || t.family == f
}

// Next is the trial that comes next of a graph, in the order of the list: the first not passed that
// rests on nothing that has a trial and is not passed; false for none.
func Next(g skill.Graph, f instrument.Family, passed func(skill string) bool) (Trial, bool) {
	for _, t := range trials {
		s, known := g[t.Skill]
		if !known || passed(t.Skill) || s.Family != instrument.Shared && s.Family != f {
			continue
		}
		open := slices.ContainsFunc(s.RestsOn, func(id string) bool {
			return slices.ContainsFunc(trials, func(t Trial) bool { return t.Skill == id }) && !passed(id)
		})
		if !open {
			return Of(g, t.Skill)
		}
	}
	return Trial{}, false
}
