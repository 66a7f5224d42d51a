package upkeep

import (
	"sort"
	"time"

	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A SkillState says how a skill stands.
type SkillState string

// The states of a skill, as far as rungs tell: none of the first is listed.
const (
	Unknown  SkillState = "unknown"
	Learning SkillState = "learning" // a rung in hand brings or asks for it
	Secure   SkillState = "secure"   // a secure rung carries it and is remembered
	Rusty    SkillState = "rusty"    // secure once, but every rung that carries it has faded
)

// Faded is the recall below which a piece counts as fading: FSRS-6 aims at
// nine in ten; a little less is our judgement, and a higher figure would bring
// pieces back sooner and call more skills rusty.
const Faded = 0.85

// Evidence is a rung that speaks for a skill's state.
type Evidence struct {
	Title string    `json:"title"`
	Kind  string    `json:"kind" enum:"foothold,taught" doc:"what happened"`
	At    time.Time `json:"at"`
}

// A SkillMark is a skill and how it stands, with its evidence, newest first.
type SkillMark struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	State    SkillState `json:"state" enum:"learning,secure,rusty"`
	Evidence []Evidence `json:"evidence" nullable:"false"`
}

// Skills returns the skills that a standing has evidence for at a moment, by
// state and name. A skill that secure skills rest on is not assumed: only what
// was played counts.
func Skills(s ladder.Standing, g skill.Graph, at time.Time) []SkillMark {
	marks := map[string]*SkillMark{}
	fresh := map[string]bool{}
	for _, r := range s.Rungs {
		state, e := Unknown, Evidence{Title: r.Item.Title}
		switch {
		case r.Foothold != nil:
			state, e.Kind, e.At = Secure, "foothold", *r.Foothold
		case r.Taught != nil:
			state, e.Kind, e.At = Learning, "taught", *r.Taught
		default:
			continue
		}
		for _, id := range carried(r.Item) {
			m := marks[id]
			if m == nil {
				m = &SkillMark{ID: id, Name: g.Name(id), State: state}
				marks[id] = m
			}
			if state == Secure {
				m.State = Secure
				fresh[id] = fresh[id] || Recall(r, at) >= Faded
			}
			m.Evidence = append(m.Evidence, e)
		}
	}
	list := make([]SkillMark, 0, len(marks))
	for id, m := range marks {
		if m.State == Secure && !fresh[id] {
			m.State = Rusty
		}
		sort.SliceStable(m.Evidence, func(i, j int) bool { return m.Evidence[i].At.After(m.Evidence[j].At) })
		list = append(list, *m)
	}
	order := map[SkillState]int{Learning: 0, Rusty: 1, Secure: 2}
	sort.Slice(list, func(i, j int) bool {
		if list[i].State != list[j].State {
			return order[list[i].State] < order[list[j].State]
		}
		return list[i].Name < list[j].Name
	})
	return list
}

// carried lists each skill that an item brings, needs or revisits, once.
func carried(it shelf.Item) []string {
	var ids []string
	seen := map[string]bool{}
	for _, list := range [][]string{it.Brings, it.Needs, it.Revisits} {
		for _, id := range list {
			if !seen[id] {
				seen[id] = true
				ids = append(ids, id)
			}
		}
	}
	return ids
}
