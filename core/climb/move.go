package climb

import (
	"slices"
	"strconv"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A Move is a rung ahead that would better stand elsewhere in its lane.
type Move struct {
	Rung  ladder.Rung
	After string // the rung it would stand above; empty for the lowest place ahead
	Why   reason.Reason
}

// moves compares the rungs placed ahead with the best order of the same rungs
// and names the first change of a lane, when it is worth a suggestion, and every
// rung that comes too late for its date.
func (p *Path) moves(st Student, coming []ladder.Rung) {
	if len(coming) < 2 || len(coming) > rungsAhead+4 {
		return
	}
	coming = inTurn(coming)
	items := make([]shelf.Item, len(coming))
	wish := Wish{Want: len(coming), NewSkills: st.Approach.NewSkills(), Graded: st.Approach[approach.Slope] == approach.Graded, KeepLanes: true, Due: map[string]int{}}
	asIs := make([]int, len(coming))
	for i, r := range coming {
		items[i], asIs[i] = r.Item, i
		if place, dated := p.due(r, st.Today()); dated {
			wish.Due[r.Item.ID] = place
		}
	}
	k := p.now.Clone()
	for _, r := range st.Standing.In(ladder.Current) {
		k.Learn(r.Item)
	}
	now := newOrdering(k, items, wish).costOf(asIs)
	if now < judgement.OrderWorth { // no order costs less than nothing
		return
	}
	best, cost := Order(k, items, wish)
	if now-cost < judgement.OrderWorth {
		return
	}
	for _, strand := range shelf.Strands {
		var now, then []ladder.Rung
		for _, r := range coming {
			if r.Strand == strand {
				now = append(now, r)
			}
		}
		for _, c := range best {
			if coming[c.Index].Strand == strand {
				then = append(then, coming[c.Index])
			}
		}
		for i := range now {
			if now[i].ID == then[i].ID {
				continue
			}
			m := Move{Rung: then[i], Why: p.whyMove(then[i], now[i], wish)}
			if i > 0 {
				m.After = now[i-1].ID
			}
			p.Moves = append(p.Moves, m)
			break
		}
	}
}

// due returns the place from 1 at which a rung with a date must begin at the
// latest, so that it has its foothold and its weeks to be polished.
func (p *Path) due(r ladder.Rung, today calendar.Date) (int, bool) {
	if r.Target == "" {
		return 0, false
	}
	e, _ := p.Expect(r.ID)
	start := float64(r.Target.Sub(today))/7 - judgement.PolishWeeks - e.Whole.Mid
	place := 1
	for _, other := range p.Expected {
		if other.FromIn > 0 && other.FromIn < start && other.Rung != r.ID {
			place++
		}
	}
	return place, true
}

func (p *Path) whyMove(sooner, later ladder.Rung, wish Wish) reason.Reason {
	args := []string{"title", sooner.Item.Title, "before", later.Item.Title}
	if place := wish.Due[sooner.Item.ID]; place > 0 {
		return reason.Of("move-for-date", append(args, "day", string(sooner.Target))...)
	}
	for _, id := range sooner.Item.Brings {
		if slices.Contains(later.Item.Needs, id) {
			return reason.Of("move-brings", append(args, "skill", p.now.graph.Name(id))...)
		}
	}
	a, b := p.Loads[sooner.ID], p.Loads[later.ID]
	if a.Total < b.Total {
		return reason.Of("move-landing", append(args, "load", strconv.FormatFloat(a.Total, 'f', 1, 64), "than", strconv.FormatFloat(b.Total, 'f', 1, 64))...)
	}
	return reason.Of("move-better", args...)
}
