package home

import (
	"math"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
)

// A Return is how much is played in a week after a pain: the zero Return is no limit.
type Return struct {
	Week    int     // since playing was cleared, from 0
	Share   float64 // of the minutes before the pain
	Minutes int     // a day at most
}

// On reports whether there is a limit.
func (r Return) On() bool { return r.Share > 0 }

// Back returns the limit of the week around a day after a pain was cleared: at most half of the
// minutes before, then a third more each week, until they are what they were. usual is what is
// practised a day where too little was told to say. A judgement on the side of caution; clinicians'
// advice comes first.
func Back(s ladder.Standing, day calendar.Date, usual int) Return {
	before := func(rest calendar.Span) float64 { // minutes a day before a pain
		if mean, n := Minutes(s, rest.From.Add(1-recent), rest.From); n >= enough {
			return mean
		}
		return float64(usual)
	}
	most, out := math.Inf(1), Return{}
	for i, rest := range s.Rests {
		if rest.To == "" || rest.To > day {
			break
		}
		until := day
		if i+1 < len(s.Rests) && s.Rests[i+1].From <= day { // it came back before this one was over
			until = s.Rests[i+1].From
		}
		week := until.Sub(rest.To) / 7
		share := judgement.BackFirst * math.Pow(judgement.BackGrowth, float64(week))
		base := math.Min(before(rest), most)
		most, out = math.Inf(1), Return{}
		if share < 1 {
			most = base * share
			out = Return{week, share, max(int(most+1e-9), 1)}
		}
	}
	return out
}

// Days whose told minutes say how much is practised, and how many of them are enough to say so.
const (
	recent = 21
	enough = 4
)
