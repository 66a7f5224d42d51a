package record

import (
	"slices"
	"time"

	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/touch"
)

// A Series is one thing played in from time to time, and the figure that was named most often of it.
type Series struct {
	Asked  string       `json:"asked" doc:"what was asked"`
	Rung   string       `json:"rung"`
	Figure string       `json:"figure" enum:"heft,late,lope,drift,spread,apart,slips,off"`
	Finger reason.Label `json:"finger" doc:"in words; empty where the figure is of none"`
	Takes  []TakenAt    `json:"takes" doc:"in order of time"`
}

// A TakenAt is one take of a series.
type TakenAt struct {
	At    time.Time     `json:"at"`
	Value float64       `json:"value" doc:"of the figure: strength, milliseconds, a ratio, a part, or notes"`
	Why   reason.Reason `json:"why" doc:"what was said first"`
	Even  bool          `json:"even" doc:"nothing was said"`
}

// followed is which figure tells how what was said goes on.
var followed = map[string]string{touch.Strong: "heft", touch.Weak: "heft", touch.Late: "late", touch.Early: "late", touch.Lope: "lope", touch.Drift: "drift",
	touch.Spread: "spread", touch.Apart: "apart", touch.Scatter: "apart", touch.Slips: "slips", touch.Stops: "slips"}

// Played follows what was played in: by what was asked, the last played first, each by the figure and
// the finger that were named most often, the first of those that were named as often.
func Played(s ladder.Standing) []Series {
	of := func(t ladder.Take) string { return t.Rung + " " + t.Asked }
	var order []string
	takes := map[string][]ladder.Take{}
	for _, t := range s.Takes {
		order = append(slices.DeleteFunc(order, func(k string) bool { return k == of(t) }), of(t))
		takes[of(t)] = append(takes[of(t)], t)
	}
	out := []Series{}
	for _, k := range slices.Backward(order) {
		list := takes[k]
		type named struct{ figure, hand, finger string }
		most, best, count := named{figure: "spread"}, 0, map[named]int{}
		if _, tapped := touch.StepOf(list[0].Asked); tapped {
			most.figure = "off"
		} else {
			for _, t := range list {
				if figure, said := followed[t.Figure]; said {
					count[named{figure, t.Hand, t.Finger}]++
				}
			}
			for _, t := range list {
				n := named{followed[t.Figure], t.Hand, t.Finger}
				if count[n] > best {
					most, best = n, count[n]
				}
			}
		}
		one := Series{Asked: list[0].Asked, Rung: list[0].Rung, Figure: most.figure}
		if most.finger != "" {
			one.Finger = reason.SaidOf("list.finger", "finger", touch.Finger(most.hand, most.finger))
		}
		for _, t := range list {
			one.Takes = append(one.Takes, TakenAt{t.At, valueOf(t, most.figure, most.hand, most.finger), t.Said().Why(), t.Figure == ladder.Even})
		}
		out = append(out, one)
	}
	return out
}

func valueOf(t ladder.Take, figure, hand, finger string) float64 {
	switch figure {
	case "heft", "late":
		for _, f := range t.Fingers {
			if f.Hand == hand && f.Finger == finger {
				if figure == "heft" {
					return f.Heft
				}
				return f.Late
			}
		}
		return 0
	case "lope":
		return t.Lope
	case "drift":
		return t.Drift
	case "apart":
		return t.Size
	case "slips":
		return float64(t.Slips)
	case "off":
		return t.Off
	}
	return t.Spread
}
