package year

import (
	"fmt"
	"slices"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/studio/places"
)

// soon is within how many lessons what a student from elsewhere lacks is found, and patient within
// how many it is closed.
const (
	soon    = 3
	patient = 12
)

// tick is a teacher's way through what is taken for granted of a new student: a part of the list in
// each of the first lessons, as it is heard.
func (r *run) tick(view places.LessonView) {
	if r.policy != ByPath || r.seen.lessons >= soon {
		return
	}
	left := len(view.Granted) / (soon - r.seen.lessons)
	if r.seen.lessons == soon-1 {
		left = len(view.Granted)
	}
	for _, m := range view.Granted[:left] {
		outcome := fact.Pass
		if !r.mind.knows[m.Skill] && !r.seen.passed[m.Skill] {
			outcome = fact.NotYet
			r.seen.gaps[m.Skill] = true
		}
		r.say(fact.Probed{Probe: m.Skill, Outcome: outcome})
	}
}

// closes is a task of a gap done: when all are, the student has the skill and is asked again.
func (r *run) closes(skill string) {
	if r.seen.gaps[skill] && r.mind.prepared(skill) >= 1 {
		r.mind.learn(skill)
		r.say(fact.Probed{Probe: skill, Outcome: fact.Pass})
		r.seen.gaps[skill] = false
	}
}

// played is a piece that stands: what it asks for is there now, whatever was missing before.
func (r *run) played(p *piece) {
	for _, id := range p.item.Skills() {
		if r.seen.gaps[id] {
			r.mind.learn(id)
			r.seen.gaps[id] = false
		}
	}
}

// onGaps holds what a student from elsewhere lacks against the rules: it is found within three
// lessons, and within twelve closed or brought by what is in hand.
func (r *run) onGaps(view places.LessonView) {
	if r.policy != ByPath || len(r.life.lacks) == 0 {
		return
	}
	for _, id := range r.life.lacks {
		open, found := r.seen.gaps[id]
		switch {
		case r.seen.lessons == soon:
			r.ledger.hold("21 found", found, func() string { return fmt.Sprintf("%s lacks %s, and nothing asked after it", r.life.name, id) })
		case r.seen.lessons == patient:
			inHand := slices.ContainsFunc(view.Rungs, func(v places.RungView) bool {
				return v.State == ladder.Current && slices.Contains(r.items[v.Item].Brings, id)
			})
			r.ledger.hold("21 closed", !open || inHand, func() string { return fmt.Sprintf("%s still lacks %s after %d lessons", r.life.name, id, patient) })
		}
	}
}
