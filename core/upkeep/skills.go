package upkeep

import (
	"slices"
	"sort"
	"time"

	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/memory"
	"patientladder/core/skill"
)

// A SkillState says how a skill stands.
type SkillState string

// The states of a skill. One without evidence is Unknown and is not listed.
const (
	Unknown  SkillState = "unknown"
	Tasted   SkillState = "tasted"   // a head start was made, nothing more
	Learning SkillState = "learning" // a rung in hand brings or asks for it
	Secure   SkillState = "secure"   // a secure rung carries it and is remembered
	Rusty    SkillState = "rusty"    // secure once, but every rung that carries it has faded
	Missing  SkillState = "missing"  // the teacher said so, and nothing has brought it since
)

// Unmet reports whether a skill would be new in a piece: unknown, or tasted at
// most. The zero SkillState is of a skill that nothing is known of.
func (s SkillState) Unmet() bool { return s == "" || s == Unknown || s == Tasted || s == Missing }

// Faded is the recall below which a piece counts as fading: FSRS-6 aims at
// nine in ten; a little less is our judgement.
var Faded = judgement.UpkeepFaded

// Known is what a student's facts say of skills and secure rungs at a moment.
type Known struct {
	State  map[string]SkillState // by skill; a missing one is unknown
	Recall map[string]float64    // of secure rungs, by id
	InHand map[string]bool       // skills that a rung in hand brings or revisits, whatever else carries them
	kept   map[string]kept       // of secure rungs, by id
}

// kept is a secure rung's memory and when it was last played.
type kept struct {
	memory memory.Memory
	last   time.Time
}

// Know reads a standing at a moment. presumed are skills taken for granted
// because of where the student began.
func Know(s ladder.Standing, presumed []string, at time.Time) Known {
	k := Known{make(map[string]SkillState, 64), make(map[string]float64, len(s.Rungs)), map[string]bool{}, make(map[string]kept, len(s.Rungs))}
	for id := range s.Prepared {
		k.State[id] = Tasted
	}
	for _, id := range presumed {
		k.State[id] = Secure
	}
	better := func(id string, to SkillState) {
		if rank[to] > rank[k.State[id]] {
			k.State[id] = to
		}
	}
	said := map[string]time.Time{} // of answers that speak against a skill
	for id, p := range s.Probes {
		switch p.Outcome {
		case fact.Pass:
			k.State[id] = Secure
		case fact.Nearly:
			k.State[id], said[id] = Learning, p.At
		default:
			k.State[id], said[id] = Missing, p.At
		}
	}
	for i := range s.Rungs {
		r := &s.Rungs[i]
		to := Learning
		switch {
		case r.Foothold != nil:
			m, last := Of(*r)
			recall := m.Recall(days(last, at))
			k.Recall[r.ID], k.kept[r.ID] = recall, kept{m, last}
			if to = Rusty; recall >= Faded {
				to = Secure
			}
		case r.Taught == nil:
			continue
		}
		if r.Foothold == nil && !r.Parked {
			for _, id := range slices.Concat(r.Item.Brings, r.Item.Revisits) {
				k.InHand[id] = true
			}
		}
		for n, list := range [][]string{r.Item.Brings, r.Item.Needs, r.Item.Revisits} {
			for _, id := range list {
				// a piece that only asks for what is missing does not bring it by being begun
				if against := said[id]; against.IsZero() || speaks(r).After(against) && (n == 0 || r.Foothold != nil) {
					better(id, to)
				}
			}
		}
	}
	return k
}

// speaks is when a rung began to speak for its skills: at its foothold, else when it was taught.
func speaks(r *ladder.Rung) time.Time {
	if r.Foothold != nil {
		return *r.Foothold
	}
	return *r.Taught
}

// Silent returns the days since a secure rung was last played, in a lesson or at home.
func (k Known) Silent(rung string, at time.Time) int { return int(days(k.kept[rung].last, at)) }

// rank orders the states by how much can be built on them.
var rank = map[SkillState]int{Unknown: 0, Missing: 0, Tasted: 1, Learning: 2, Rusty: 3, Secure: 4}

// Evidence is what speaks for a skill's state.
type Evidence struct {
	Title string    `json:"title" doc:"of the rung, the task of a head start, or how a probe was answered"`
	Kind  string    `json:"kind" enum:"foothold,taught,head-start,probe,presumed" doc:"what happened"`
	At    time.Time `json:"at"`
}

// A SkillMark is a skill and how it stands, with its evidence, newest first.
type SkillMark struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	State    SkillState `json:"state" enum:"missing,tasted,learning,secure,rusty"`
	Evidence []Evidence `json:"evidence"`
}

// Granted are the skills taken for granted because of where the student began, of which nothing
// was heard yet: no piece that carries them has its foothold, and nobody asked after them.
func Granted(s ladder.Standing, presumed []string) []string {
	heard := map[string]bool{}
	for id := range s.Probes {
		heard[id] = true
	}
	for i := range s.Rungs {
		if r := &s.Rungs[i]; r.Foothold != nil {
			for _, id := range r.Item.Skills() {
				heard[id] = true
			}
		}
	}
	return slices.DeleteFunc(slices.Clone(presumed), func(id string) bool { return heard[id] })
}

// ToTick are those that are ticked off in a lesson: of a student whose first lessons these are.
func ToTick(s ladder.Standing, presumed []string) []string {
	if float64(len(s.Opened)) > judgement.TickOff {
		return nil
	}
	return Granted(s, presumed)
}

// Skills returns the skills that there is evidence for at a moment, by state
// and name. A skill that secure skills rest on is not listed for that: only
// what was played, tasted or presumed counts.
func Skills(s ladder.Standing, g skill.Graph, presumed []string, at time.Time) []SkillMark {
	known := Know(s, presumed, at)
	evidence := map[string][]Evidence{}
	for _, r := range s.Rungs {
		e := Evidence{Title: r.Item.Title}
		switch {
		case r.Foothold != nil:
			e.Kind, e.At = "foothold", *r.Foothold
		case r.Taught != nil:
			e.Kind, e.At = "taught", *r.Taught
		default:
			continue
		}
		for _, id := range r.Item.Skills() {
			evidence[id] = append(evidence[id], e)
		}
	}
	for id, h := range s.Prepared {
		if chain := g[id].Chain; h.Done >= 1 && h.Done <= len(chain) {
			evidence[id] = append(evidence[id], Evidence{chain[h.Done-1].Do, "head-start", h.Last})
		}
	}
	for id, p := range s.Probes {
		evidence[id] = append(evidence[id], Evidence{Title: p.Outcome, Kind: "probe", At: p.At})
	}
	for _, id := range presumed {
		if len(evidence[id]) == 0 {
			evidence[id] = append(evidence[id], Evidence{Kind: "presumed"})
		}
	}
	list := make([]SkillMark, 0, len(known.State))
	for id, state := range known.State {
		if _, is := g[id]; !is {
			continue // an aim of the first meetings that is no skill
		}
		e := evidence[id]
		slices.SortStableFunc(e, func(a, b Evidence) int { return b.At.Compare(a.At) })
		list = append(list, SkillMark{id, g.Name(id), state, e})
	}
	order := map[SkillState]int{Missing: 0, Learning: 1, Tasted: 2, Rusty: 3, Secure: 4}
	sort.Slice(list, func(i, j int) bool {
		if list[i].State != list[j].State {
			return order[list[i].State] < order[list[j].State]
		}
		return list[i].Name < list[j].Name
	})
	return list
}
