package climb

import (
	"math"
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
)

// A Foretold is what was expected of a rung at its first lesson, beside what came.
type Foretold struct {
	Rung  string  `json:"rung"`
	Title string  `json:"title"`
	Weeks float64 `json:"weeks" doc:"taught weeks that it took"`
	Usual Range   `json:"usual" doc:"as it was foretold"`
	In    float64 `json:"in" doc:"part of the week in which it came that lies in the range, 0 to 1"`

	at time.Time // of the foothold
}

// Foretell goes back through a student's finished rungs and says of each what would have
// been told at its first lesson, from nothing but what was finished by then. Rungs in parts
// are told part by part and stand aside.
//
// Lessons come once a week, so that weeks are whole numbers and a range seldom ends between
// them: a week counts by the part of it that lies in the range, so that a true range of
// 80 % is scored 80 % (the randomised probability integral transform of Czado, Gneiting
// and Held, Predictive Model Assessment for Count Data, Biometrics 65, 2009).
func Foretell(st Student) []Foretold {
	s := st.Standing
	loads, _ := begun(s, st.Graph, st.Presumed)
	done := slices.DeleteFunc(slices.Clone(s.Rungs), func(r ladder.Rung) bool { return r.Taught == nil || r.Foothold == nil || len(r.Parts) > 0 })
	if len(done) == 0 {
		return nil
	}
	slices.SortStableFunc(done, func(a, b ladder.Rung) int { return a.Taught.Compare(*b.Taught) })
	lessons := st.given(calendar.On(*done[0].Taught))
	took := make([]float64, len(done))
	for i, r := range done {
		took[i] = lessons.Weeks(calendar.On(*r.Taught), calendar.On(*r.Foothold))
	}
	prior := Prior.Among(st.Among)
	out := make([]Foretold, len(done))
	for i, r := range done {
		usual, n := judgement.UsualLoad*judgement.UsualLoadHeld, judgement.UsualLoadHeld
		var before []int // finished by then
		for k := range done {
			if k != i && !done[k].Foothold.After(*r.Taught) {
				usual, n = usual+loads[done[k].ID], n+1
				before = append(before, k)
			}
		}
		usual /= n
		past := make([]float64, len(before))
		for k, o := range before {
			past[k] = took[o] / Effort(loads[done[o].ID], usual)
		}
		f := Foretold{Rung: r.ID, Title: r.Item.Title, Weeks: took[i], Usual: prior.Learn(past).Range().times(Effort(loads[r.ID], usual)), at: *r.Foothold}
		f.In = math.Max(0, math.Min(f.Weeks+0.5, f.Usual.High)-math.Max(f.Weeks-0.5, f.Usual.Low))
		out[i] = f
	}
	slices.SortStableFunc(out, func(a, b Foretold) int { return b.at.Compare(a.at) })
	return out
}

// Kept counts how many of some forecasts held, to the nearest one.
func Kept(list []Foretold) int {
	sum := 0.0
	for _, f := range list {
		sum += f.In
	}
	return int(math.Round(sum))
}

// known is from how many finished rungs on a student's pace says something of a studio. A
// judgement.
const known = 3

// Middle returns the mean of ln(weeks) of a student's finished rungs, by the lessons that
// were given; false where there are too few.
func Middle(s ladder.Standing) (mean float64, ok bool) {
	n := 0
	for _, r := range s.Rungs {
		if r.Taught == nil || r.Foothold == nil || len(r.Parts) > 0 {
			continue
		}
		weeks := 0.0
		for day := range s.Closed {
			if day > calendar.On(*r.Taught) && day <= calendar.On(*r.Foothold) {
				weeks++
			}
		}
		mean += math.Log(math.Max(weeks, 0.5))
		n++
	}
	return mean / float64(max(n, 1)), n >= known
}

// Among returns the prior of a student in a studio whose other students have these means of
// ln(weeks): its middle is drawn towards theirs as far as they are many. It is shrinkage to
// a common mean (Gelman et al., Bayesian Data Analysis, ch. 5), with the weight of the
// common range as a judgement.
func (p Pace) Among(others []float64) Pace {
	sum := p.Mu * judgement.StudioHeld
	for _, m := range others {
		sum += m
	}
	p.Mu = sum / (judgement.StudioHeld + float64(len(others)))
	return p
}
