package climb

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/home"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
)

// A Stuck is a rung in hand that does not move: by what sign, and what could
// be done, the likeliest first.
type Stuck struct {
	Rung     string          `json:"rung"`
	Signs    []reason.Reason `json:"signs"`
	Remedies []Remedy        `json:"remedies"`
}

// A Remedy is one thing to do about it.
type Remedy struct {
	Do     string        `json:"do" enum:"prerequisite,split,seat-and-hand,easier,fewer-points,ask"`
	Why    reason.Reason `json:"why"`
	Item   string        `json:"item,omitempty" doc:"of the shelf, for an easier piece"`
	Rung   string        `json:"rung,omitempty" doc:"a secure rung to bring back"`
	weight float64
}

// StuckRungs lists the rungs in hand that are past their range, had three
// failing tries in a row, or lost points they had, with the remedies of the
// trade (common practice, no source), ranked by what the facts say.
func (p Path) StuckRungs(st Student) []Stuck {
	var out []Stuck
	for _, r := range st.Standing.In(ladder.Current) {
		if r.Taught == nil {
			continue
		}
		var signs []reason.Reason
		e, _ := p.Expect(r.ID)
		if e.Past {
			signs = append(signs, reason.Of("past-its-range", "title", r.Item.Title, "weeks", strconv.Itoa(int(e.Spent+0.5)), "usual", strconv.Itoa(max(int(e.Usual.High+0.5), 1))))
		}
		if n := r.Failed(); n >= int(judgement.StuckTries) {
			signs = append(signs, reason.Of("tries-failed", "title", r.Item.Title, "tries", strconv.Itoa(n)))
		}
		if lost := r.Best - r.MetPoints(); lost >= int(judgement.StuckFalling) {
			signs = append(signs, reason.Of("points-lost", "title", r.Item.Title, "points", strconv.Itoa(lost)))
		}
		if len(signs) > 0 {
			out = append(out, Stuck{r.ID, signs, p.remedies(st, r)})
		}
	}
	return out
}

func (p Path) remedies(st Student, r ladder.Rung) []Remedy {
	var out []Remedy
	// a needed skill that is not in order comes before all else
	for _, id := range r.Item.Needs {
		state := p.Known.State[id]
		if state == upkeep.Secure || state == upkeep.Learning && slices.Contains(r.Item.Brings, id) {
			continue
		}
		m := Remedy{Do: "prerequisite", weight: judgement.RemedyNeeded * st.Graph[id].Weight, Why: reason.Of("remedy-prerequisite-unmet", "skill", st.Graph.Name(id))}
		if carrier, ok := carrier(st.Standing, id); ok {
			m.Rung = carrier.ID
			m.Why = reason.Of("remedy-prerequisite", "skill", st.Graph.Name(id), "piece", carrier.Item.Title)
		}
		if state == upkeep.Learning {
			m.weight *= judgement.RemedyLearning
		}
		out = append(out, m)
	}
	open := r.Missing()
	if n := int(material(r.Item)); n > 4 {
		out = append(out, Remedy{Do: "split", weight: judgement.RemedySplit + judgement.RemedySplitBars*float64(n), Why: reason.Of("remedy-split", "bars", strconv.Itoa(n), "pieces", strconv.Itoa((n+3)/4))})
	}
	bodily := []string{"tone", "even", "fingering", "hand", "bow", "tuning", "quiet-idle-fingers"}
	hand := Remedy{Do: "seat-and-hand", weight: judgement.RemedyHand, Why: reason.Of("remedy-seat")}
	for _, pt := range r.Points {
		if pt.State != ladder.Met && (pt.Own || slices.ContainsFunc(bodily, func(b string) bool { return strings.Contains(pt.Key, b) })) {
			hand.weight, hand.Why = judgement.RemedyHandPoint, reason.Of("remedy-seat-point", "point", pt.Name)
		}
	}
	out = append(out, hand)
	if it, ok := p.easier(st, r); ok {
		weight := judgement.RemedyEasier
		if l := p.Loads[r.ID]; l.Total > p.Usual {
			weight = judgement.RemedyHeavy
		}
		out = append(out, Remedy{Do: "easier", weight: weight, Item: it.ID, Why: reason.Of("remedy-easier", "piece", it.Title, "book", it.Book)})
	}
	if len(open) >= 3 {
		out = append(out, Remedy{Do: "fewer-points", weight: judgement.RemedyFewer + judgement.RemedyFewerEach*float64(len(open)), Why: reason.Of("remedy-fewer", "open", strconv.Itoa(len(open)), "hold", open[0])})
	}
	ask := Remedy{Do: "ask", weight: judgement.RemedyAsk, Why: reason.Of("remedy-ask", "title", r.Item.Title)}
	if words, joy := home.Feelings(st.Standing, st.Today()); joy == home.Little {
		days := 0
		for _, n := range words {
			days += n
		}
		ask.weight, ask.Why = judgement.RemedyAskDull, reason.Of("remedy-ask-dull", "title", r.Item.Title, "dull", strconv.Itoa(words["dull"]), "days", strconv.Itoa(days))
	}
	out = append(out, ask)
	slices.SortStableFunc(out, func(a, b Remedy) int { return cmp.Compare(b.weight, a.weight) })
	return out
}

// carrier finds the secure rung, newest first, that carries a skill.
func carrier(s ladder.Standing, id string) (ladder.Rung, bool) {
	var best ladder.Rung
	for _, r := range s.Rungs {
		if r.Foothold != nil && slices.Contains(r.Item.Skills(), id) && (best.Foothold == nil || r.Foothold.After(*best.Foothold)) {
			best = r
		}
	}
	return best, best.Foothold != nil
}

// easier finds the item of the shelf, not on the ladder, that shares most with
// a rung and is a landing for the student.
func (p Path) easier(st Student, r ladder.Rung) (shelf.Item, bool) {
	on := onLadder(st.Standing.Rungs)
	var best shelf.Item
	most := 0
	for _, it := range st.Shelf {
		if !it.Strand.Piece() || !st.offers(it, on) {
			continue
		}
		shared := 0
		for _, id := range it.Skills() {
			if slices.Contains(r.Item.Skills(), id) {
				shared++
			}
		}
		if shared > most && p.now.Total(it) <= p.Usual-judgement.Landing {
			best, most = it, shared
		}
	}
	return best, most > 0
}
