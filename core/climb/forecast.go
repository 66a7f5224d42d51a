// Package climb reckons how heavy rungs are for a student, how long they take,
// in what order they are best taken, and what to do when one does not move.
//
// Weeks from first taught to foothold are taken as log-normal round an effort
// that grows with the load, with a conjugate normal-inverse-gamma prior; a
// prediction is then a Student t of ln(weeks) (Gelman et al., Bayesian Data
// Analysis, ch. 3). Weeks are taught weeks: weeks without a lesson do not
// count.
package climb

import (
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// A Pace is what is believed of a student's weeks to a foothold at the usual
// load: mean of ln(weeks) Mu held as firmly as Kappa rungs, and its variance by
// Alpha, Beta.
type Pace struct{ Mu, Kappa, Alpha, Beta float64 }

// Prior is the pace of a student who has not finished a rung here. Its middle
// eight in ten run from 1 to 10 weeks: the range is common practice, no source.
var Prior = Pace{Mu: math.Log(10) / 2, Kappa: judgement.PaceHeld, Alpha: judgement.PaceShape, Beta: judgement.PaceScale}

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

func (r Range) times(f float64) Range { return Range{r.Low * f, r.Mid * f, r.High * f} }

// weeks is the Student t of ln(weeks).
func (p Pace) weeks() distuv.StudentsT {
	return distuv.StudentsT{Mu: p.Mu, Sigma: math.Sqrt(p.Beta * (p.Kappa + 1) / (p.Alpha * p.Kappa)), Nu: 2 * p.Alpha}
}

// Range returns the weeks from first taught to foothold for a rung not begun.
func (p Pace) Range() Range {
	t := p.weeks()
	at := func(q float64) float64 { return math.Exp(t.Quantile(q)) }
	return Range{at(0.1), at(0.5), at(0.9)}
}

// grid is how many values of ln(weeks) a conditional range is summed over.
const grid = 96

// Given returns the weeks from first taught to foothold for a rung that has
// already taken spent weeks and has met of its points met. With T for the
// whole, each point is met at a time anywhere in it, so that
//
//	P(T | spent, met) ∝ t(ln T) · (spent/T)^met · (1 − spent/T)^(points − met),  T > spent
func (p Pace) Given(spent float64, met, points int) Range {
	if spent <= 0 {
		return p.Range()
	}
	t := p.weeks()
	low := math.Log(spent)
	high := math.Max(low, p.Mu) + 6*t.Sigma
	step := (high - low) / grid
	var mass [grid]float64
	total := 0.0
	m, open := float64(met), float64(points-met)
	for i := range mass {
		x := low + (float64(i)+0.5)*step
		share := math.Exp(low - x)
		u := (x - t.Mu) / t.Sigma
		weight := math.Exp(-(t.Nu + 1) / 2 * math.Log1p(u*u/t.Nu))
		if points > 0 {
			weight *= math.Exp(m*math.Log(share) + open*math.Log1p(-share))
		}
		mass[i] = weight
		total += weight
	}
	at := func(q float64) float64 {
		sum := 0.0
		for i, w := range mass {
			if sum+w >= q*total {
				return math.Exp(low + (float64(i)+(q*total-sum)/w)*step)
			}
			sum += w
		}
		return math.Exp(high)
	}
	return Range{at(0.1), at(0.5), at(0.9)}
}

// Effort is how much longer than the usual a load takes: a power of it, 1 at
// the usual load.
func Effort(load, usual float64) float64 {
	return math.Pow((1+math.Max(load, 0))/(1+usual), judgement.PaceEffort)
}

// Expected is when a rung should have its foothold: weeks from now, and the
// lesson days they fall on. Days past the calendar's last term are empty.
type Expected struct {
	Rung   string        `json:"rung"`
	Spent  float64       `json:"spent" doc:"taught weeks so far"`
	Past   bool          `json:"past" doc:"longer in hand than eight in ten would be"`
	Whole  Range         `json:"whole" doc:"weeks from first taught to foothold"`
	Usual  Range         `json:"usual" doc:"the same as it was when it began"`
	FromIn float64       `json:"fromIn" doc:"weeks from now until it begins"`
	In     Range         `json:"in" doc:"weeks from now to the foothold"`
	Low    calendar.Date `json:"low"`
	Mid    calendar.Date `json:"mid"`
	High   calendar.Date `json:"high"`
	Far    bool          `json:"far,omitempty" doc:"it may take more than two years: the days that lie beyond are empty"`
}

// Taught is the days on which a student's lessons were or are.
type Taught []calendar.Date

// Weeks counts the taught weeks between two days: at least half a week, for a
// foothold in the very lesson.
func (t Taught) Weeks(from, to calendar.Date) float64 {
	after := func(d calendar.Date) int {
		i, there := slices.BinarySearch(t, d)
		if there {
			i++
		}
		return i
	}
	return math.Max(0.5, float64(after(to)-after(from)))
}

// paceOf returns a student's pace, learnt from the finished rungs of a
// standing by a moment, nil for by now, each by its effort. A rung in parts counts by the part.
func paceOf(s ladder.Standing, among []float64, lessons Taught, loads map[string]float64, usual float64, by *time.Time) Pace {
	var weeks []float64
	for _, r := range s.Rungs {
		if r.Taught != nil && r.Foothold != nil && (by == nil || !r.Foothold.After(*by)) {
			whole := lessons.Weeks(calendar.On(*r.Taught), calendar.On(*r.Foothold))
			if n := len(r.Parts); n > 0 {
				weeks = append(weeks, whole/float64(n))
			} else {
				weeks = append(weeks, whole/Effort(loads[r.ID], usual))
			}
		}
	}
	return Prior.Among(among).Learn(weeks)
}

// forecast returns, lane by lane from the foot up, when each current and
// future rung should have its foothold. Within a lane a rung begins at the
// middle of the range of the rung below.
func forecast(path []ladder.Rung, pace Pace, loads map[string]float64, usual float64, lessons Taught, c calendar.Calendar, slot calendar.Slot, today calendar.Date) []Expected {
	fresh := pace.Range()
	days := lessonDays{c: c, slot: slot, day: today}
	out := make([]Expected, 0, len(path))
	for _, strand := range shelf.Strands {
		begins := 0.0
		for _, r := range path {
			if r.Strand != strand {
				continue
			}
			e := Expected{Rung: r.ID, FromIn: begins}
			effort := Effort(loads[r.ID], usual)
			e.Usual = fresh.times(effort)
			if r.Taught != nil {
				e.Spent = lessons.Weeks(calendar.On(*r.Taught), today)
				e.FromIn = 0
			}
			switch {
			case len(r.Parts) > 0:
				e.Whole, e.Past = inParts(r, pace, lessons, today, e.Spent)
				e.Usual = e.Whole
			case r.Taught != nil:
				e.Whole = pace.Given(e.Spent/effort, r.MetPoints(), len(r.Points)).times(effort)
			default:
				e.Whole = e.Usual
			}
			shift := e.FromIn - e.Spent
			e.In = Range{math.Max(e.Whole.Low+shift, 0), math.Max(e.Whole.Mid+shift, 0.2), e.Whole.High + shift}
			e.Low, e.Mid, e.High = days.after(e.In.Low), days.after(e.In.Mid), days.after(e.In.High)
			for _, day := range []*calendar.Date{&e.Low, &e.Mid, &e.High} {
				if *day != "" && day.Beyond(today) {
					*day, e.Far = "", true
				}
			}
			if !r.Item.Cycle() || r.Taught == nil { // what stands beside a cycle does not wait for it
				begins = math.Max(begins, e.In.Mid)
			}
			out = append(out, e)
		}
	}
	return out
}

// lessonDays finds the day of the lesson some taught weeks on, looking each
// lesson up once.
type lessonDays struct {
	c    calendar.Calendar
	slot calendar.Slot
	day  calendar.Date
	next []calendar.Date
}

func (l *lessonDays) after(weeks float64) calendar.Date {
	n := max(int(weeks+0.999), 1)
	for len(l.next) < n {
		if l.day != "" {
			l.day = l.c.NextWeek(l.slot, l.day)
		}
		if l.day == "" {
			return ""
		}
		l.next = append(l.next, l.day)
	}
	return l.next[n-1]
}

// inParts returns the weeks from first taught to the last part's foothold. The
// pace of a part is learnt from the parts done here; the spread of a sum of k
// parts, relative to its middle, is that of one part shrunk by the root of k.
// It is past when the part in hand alone takes longer than parts do.
func inParts(r ladder.Rung, pace Pace, lessons Taught, today calendar.Date, spent float64) (whole Range, past bool) {
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
		weeks = append(weeks, lessons.Weeks(last, calendar.On(at)))
		last = calendar.On(at)
	}
	part := pace.Learn(weeks).Range()
	left := float64(len(r.Parts) - len(done))
	root := math.Sqrt(math.Max(left, 1))
	middle := left * part.Mid
	return Range{
		Low:  spent + middle*math.Pow(part.Low/part.Mid, 1/root),
		Mid:  spent + middle,
		High: spent + middle*math.Pow(part.High/part.Mid, 1/root),
	}, r.Taught != nil && lessons.Weeks(last, today) > part.High
}
