// Package climb forecasts how long rungs take.
//
// Weeks from first taught to foothold are taken as log-normal, with a
// conjugate normal-inverse-gamma prior on their logarithm; a prediction is
// then a Student t (Gelman et al., Bayesian Data Analysis, ch. 3). Weeks are
// taught weeks: weeks without a lesson do not count.
package climb

import (
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// A Pace is what is believed of a student's weeks to a foothold: mean of
// ln(weeks) Mu held as firmly as Kappa rungs, and its variance by Alpha, Beta.
type Pace struct{ Mu, Kappa, Alpha, Beta float64 }

// Prior is the pace of a student who has not finished a rung here. Its middle
// eight in ten run from 1 to 10 weeks: the range is common practice, no
// source; how firmly it is held (Kappa, Alpha) is our judgement, and a larger
// value would let a student's own rungs count for less.
var Prior = Pace{Mu: math.Log(10) / 2, Kappa: 2, Alpha: 3, Beta: 1.28}

// Learn returns the prior after the given finished rungs, in weeks each.
func (p Pace) Learn(weeks []float64) Pace {
	n := float64(len(weeks))
	if n == 0 {
		return p
	}
	mean := 0.0
	for _, w := range weeks {
		mean += math.Log(w) / n
	}
	spread := 0.0
	for _, w := range weeks {
		spread += (math.Log(w) - mean) * (math.Log(w) - mean)
	}
	return Pace{
		Mu:    (p.Kappa*p.Mu + n*mean) / (p.Kappa + n),
		Kappa: p.Kappa + n,
		Alpha: p.Alpha + n/2,
		Beta:  p.Beta + spread/2 + p.Kappa*n*(mean-p.Mu)*(mean-p.Mu)/(2*(p.Kappa+n)),
	}
}

// A Range is an 80 % range of weeks and its middle.
type Range struct {
	Low  float64 `json:"low"`
	Mid  float64 `json:"mid"`
	High float64 `json:"high"`
}

// Range returns the weeks from first taught to foothold for a rung that has
// already taken spent weeks (0 for one not begun).
func (p Pace) Range(spent float64) Range {
	t := distuv.StudentsT{Mu: p.Mu, Sigma: math.Sqrt(p.Beta * (p.Kappa + 1) / (p.Alpha * p.Kappa)), Nu: 2 * p.Alpha}
	done := 0.0
	if spent > 0 {
		done = math.Min(t.CDF(math.Log(spent)), 1-1e-9)
	}
	at := func(q float64) float64 { return math.Exp(t.Quantile(done + q*(1-done))) }
	return Range{at(0.1), at(0.5), at(0.9)}
}

// Expected is when a rung should have its foothold: weeks from now, and the
// lesson days they fall on. Days past the calendar's last term are empty.
type Expected struct {
	Rung   string        `json:"rung"`
	Spent  float64       `json:"spent" doc:"taught weeks so far"`
	Past   bool          `json:"past" doc:"longer in hand than eight in ten would be"`
	Whole  Range         `json:"whole" doc:"weeks from first taught to foothold"`
	FromIn float64       `json:"fromIn" doc:"weeks from now until it begins"`
	In     Range         `json:"in" doc:"weeks from now to the foothold"`
	Low    calendar.Date `json:"low"`
	Mid    calendar.Date `json:"mid"`
	High   calendar.Date `json:"high"`
}

// Weeks counts the taught weeks between two days: at least half a week, for a
// foothold in the very lesson.
func Weeks(c calendar.Calendar, slot calendar.Slot, from, to calendar.Date) float64 {
	return math.Max(0.5, float64(len(c.Lessons(slot, from.Add(1), to))))
}

// Of returns a student's pace, learnt from the finished rungs of a standing. A
// rung in parts counts by the part.
func Of(s ladder.Standing, c calendar.Calendar, slot calendar.Slot) Pace {
	var weeks []float64
	for _, r := range s.Rungs {
		if r.Taught != nil && r.Foothold != nil {
			whole := Weeks(c, slot, calendar.On(*r.Taught), calendar.On(*r.Foothold))
			weeks = append(weeks, whole/math.Max(1, float64(len(r.Parts))))
		}
	}
	return Prior.Learn(weeks)
}

// Forecast returns, lane by lane from the foot up, when each current and
// future rung should have its foothold. Within a lane a rung begins at the
// middle of the range of the rung below.
func Forecast(s ladder.Standing, c calendar.Calendar, slot calendar.Slot, today calendar.Date) []Expected {
	pace := Of(s, c, slot)
	var out []Expected
	for _, strand := range shelf.Strands {
		begins := 0.0
		for _, r := range s.Rungs {
			state := s.State(r)
			if r.Strand != strand || state == ladder.Secure || state == ladder.Parked {
				continue
			}
			e := Expected{Rung: r.ID, FromIn: begins}
			if r.Taught != nil {
				e.Spent = Weeks(c, slot, calendar.On(*r.Taught), today)
				e.FromIn = 0
			}
			if len(r.Parts) > 0 {
				e.Whole, e.Past = inParts(r, pace, c, slot, today, e.Spent)
			} else {
				e.Whole, e.Past = pace.Range(e.Spent), e.Spent > pace.Range(0).High
			}
			shift := e.FromIn - e.Spent
			e.In = Range{math.Max(e.Whole.Low+shift, 0), math.Max(e.Whole.Mid+shift, 0.2), e.Whole.High + shift}
			e.Low, e.Mid, e.High = c.AfterWeeks(slot, today, e.In.Low), c.AfterWeeks(slot, today, e.In.Mid), c.AfterWeeks(slot, today, e.In.High)
			begins = math.Max(begins, e.In.Mid)
			out = append(out, e)
		}
	}
	return out
}

// inParts returns the weeks from first taught to the last part's foothold. The
// pace of a part is learnt from the parts done here; the spread of a sum of k
// parts, relative to its middle, is that of one part shrunk by the root of k.
// It is past when the part in hand alone takes longer than parts do.
func inParts(r ladder.Rung, pace Pace, c calendar.Calendar, slot calendar.Slot, today calendar.Date, spent float64) (whole Range, past bool) {
	var done []time.Time
	for _, p := range r.Parts {
		if p.Foothold != nil {
			done = append(done, *p.Foothold)
		}
	}
	slices.SortFunc(done, time.Time.Compare)
	last := today
	if r.Taught != nil {
		last = calendar.On(*r.Taught)
	}
	var weeks []float64
	for _, at := range done {
		weeks = append(weeks, Weeks(c, slot, last, calendar.On(at)))
		last = calendar.On(at)
	}
	part := pace.Learn(weeks).Range(0)
	left := float64(len(r.Parts) - len(done))
	root := math.Sqrt(math.Max(left, 1))
	middle := left * part.Mid
	return Range{
		Low:  spent + middle*math.Pow(part.Low/part.Mid, 1/root),
		Mid:  spent + middle,
		High: spent + middle*math.Pow(part.High/part.Mid, 1/root),
	}, r.Taught != nil && Weeks(c, slot, last, today) > part.High
}
