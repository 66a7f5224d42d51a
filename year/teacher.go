package year

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/shelf"
	"patientladder/studio/places"
)

// block gives one block of a lesson as a teacher would mark it.
func (r *run) block(b lesson.Block, view places.LessonView, day calendar.Date, worked map[string]bool) {
	var rung places.RungView
	if i := slices.IndexFunc(view.Rungs, func(v places.RungView) bool { return v.ID == b.Rung }); i >= 0 {
		rung = view.Rungs[i]
	}
	switch b.Kind {
	case lesson.Opener, lesson.Upkeep:
		p := r.piece(b.Rung, rung.Item)
		if b.Kind == lesson.Opener && r.mind.chance(0.3) { // the student chose it
			r.say(fact.OpenedWith{Rung: b.Rung})
		}
		r.say(fact.Heard{Rung: b.Rung, Grade: r.mind.grade(p, day)})
		p.again(day)
		r.seen.heard[b.Rung] = day
	case lesson.Current, lesson.Technique, lesson.Reading, lesson.Mixture:
		if b.Rung != "" && rung.State == ladder.Current {
			r.work(rung, day)
			worked[b.Rung] = true
		}
	case lesson.Ahead:
		if b.Skill != "" && r.policy == ByPath {
			r.mind.prepares(b.Skill)
			r.say(fact.Prepared{Skill: b.Skill, Step: b.Step})
			r.seen.shown(b.Skill, b.Cue, day)
			r.closes(b.Skill)
		}
	case lesson.Probe:
		outcome := "pass"
		if r.mind.chance(0.4) {
			outcome = "nearly"
		}
		r.say(fact.Probed{Probe: b.Aim, Outcome: outcome})
		if outcome == "pass" {
			r.seen.passed[b.Aim] = true
		}
	case lesson.Activity:
		if b.Activity != nil {
			r.say(fact.ActivityDone{Activity: b.Activity.ID, Outcome: []string{"pass", "nearly", "not-yet"}[r.rng.IntN(3)], Level: b.Level})
		}
	}
}

// longInHand is after how many lessons a piece is stuck, whatever the app says of it.
const longInHand = 6

// work is what a lesson does for a rung in hand, and what the teacher marks of it.
func (r *run) work(v places.RungView, day calendar.Date) {
	p := r.piece(v.ID, v.Item)
	if v.Taught == nil {
		r.say(fact.Taught{Rung: v.ID})
	}
	if !p.begun {
		r.mind.begin(p)
		r.seen.begun[v.ID] = day
	}
	if r.seen.ache { // nothing is played
		return
	}
	p.lessons++
	if playing := v.Strand.Piece(); playing && p.lessons > longInHand {
		r.ledger.Count("weeks stuck", 1)
	}
	p.works(0.5)
	if v.Deck != nil {
		for _, c := range v.Deck.Cards {
			r.say(fact.CardAnswered{Rung: v.ID, Card: c.ID, Outcome: []string{"pass", "pass", "pass", "nearly", "not-yet"}[r.rng.IntN(5)]})
		}
	}
	for _, part := range v.Parts {
		if part.Due && p.share() >= float64(done(v)+1)/float64(len(v.Parts)) {
			r.say(fact.FootholdTried{Rung: v.ID, Part: part.ID, Outcome: "granted"})
			if done(v)+1 == len(v.Parts) {
				r.grant(v, p, day)
				return
			}
			return
		}
	}
	if len(v.Parts) > 0 {
		return
	}
	if r.life.unmarked {
		if p.share() >= 1 {
			r.say(fact.FootholdTried{Rung: v.ID, Outcome: "granted"})
			r.grant(v, p, day)
		}
		return
	}
	for _, pt := range v.Points { // the one to hold in mind
		if pt.State != ladder.Met && pt.Key != shelf.Spots {
			r.say(fact.PointHeld{Rung: v.ID, Point: pt.Key})
			break
		}
	}
	share := p.share()
	for i, pt := range v.Points {
		switch want := float64(i+1) / float64(len(v.Points)+1); {
		case pt.Key == shelf.Spots:
		case share >= 1 && pt.State != ladder.Met, share > want && pt.State != ladder.Met && r.mind.chance(0.8):
			r.say(fact.PointMarked{Rung: v.ID, Point: pt.Key, State: fact.Met})
		case share < want && pt.State == ladder.Unmarked && r.mind.chance(0.3):
			r.say(fact.PointMarked{Rung: v.ID, Point: pt.Key, State: fact.Open})
		}
	}
	for _, s := range v.Spots {
		if run := min(int(share*float64(s.Goal))+1, s.Goal); share > 0.3 && run > s.Done {
			r.say(fact.SpotDrilled{Rung: v.ID, Spot: s.ID, Run: run})
		}
	}
	playing := v.Strand.Piece()
	if playing && len(v.Spots) == 0 && p.lessons == 2 && share < 0.8 && r.mind.chance(0.5) {
		r.say(fact.SpotNoted{Rung: v.ID, Where: fmt.Sprintf("bar %d", 1+r.rng.IntN(max(v.Bars, 4))), Goal: 5})
	}
	if heard := v.Bars == 0 || r.items[v.Item].Staves < 2 || p.lessons > 3; heard && share >= 1 && !slices.ContainsFunc(v.Spots, func(s places.SpotView) bool { return s.Done < s.Goal && share <= 0.3 }) {
		r.say(fact.FootholdTried{Rung: v.ID, Outcome: "granted"})
		r.grant(v, p, day)
	}
}

func done(v places.RungView) int {
	n := 0
	for _, p := range v.Parts {
		if p.Done {
			n++
		}
	}
	return n
}

// grant books a foothold.
func (r *run) grant(v places.RungView, p *piece, day calendar.Date) {
	r.mind.secured(p, day)
	r.secured(v, p, day)
	r.played(p)
}

// afterwards counts the lessons that left a rung in hand out; those in which playing was
// forbidden do not count.
func (r *run) afterwards(worked map[string]bool) {
	if r.seen.ache {
		return
	}
	for id, p := range r.mind.pieces {
		if p.begun && !p.secure {
			if p.silent++; worked[id] {
				p.silent = 0
			} else {
				p.lessons++
			}
		}
	}
}

// after is what a teacher does when a lesson is over: reads the sheet, sees to it, sends
// it, and looks at the ladder.
func (r *run) after(k int, day calendar.Date) error {
	v, err := places.Week(r.ctx, r.app, r.who, r.id, "", 0)
	if err != nil {
		return err
	}
	if v.Sheet == nil {
		return fmt.Errorf("no sheet after the lesson")
	}
	lv, err := places.Ladder(r.ctx, r.app, r.who, r.id)
	if err != nil {
		return err
	}
	r.onSheet(k, v, lv)
	r.onSheetEdges(v, lv)
	r.edit(k, v)
	if err := r.deliver(fact.Teacher); err != nil {
		return err
	}
	r.onLadder(lv)
	if err := r.suggested(lv); err != nil {
		return err
	}
	if r.has(k, stuck) {
		for _, p := range r.mind.pieces {
			if p.begun && !p.secure && (p.item.Strand == shelf.Book) {
				p.weeks += 6
			}
		}
	}
	if r.has(k, dated) {
		for _, rung := range lv.Rungs {
			if rung.State == ladder.Current && rung.Strand == shelf.Repertoire {
				r.say(fact.TargetSet{Rung: rung.ID, Day: day.Add(84)})
				break
			}
		}
	}
	if r.has(k, otherwise) {
		r.say(fact.ApproachSet{Question: "counts", School: "quality"})
	}
	return r.deliver(fact.Teacher)
}

// edit is the teacher's word on a sheet.
func (r *run) edit(k int, v places.WeekView) {
	r.at = r.at.Add(time.Minute)
	day := v.Sheet.From
	if len(v.Lines) == 0 {
		return
	}
	line := v.Lines[len(v.Lines)-1]
	switch {
	case r.has(k, struck):
		for id, past := range r.seen.lines { // the family does not get it
			if n := len(past); n > 0 && strings.Contains(line.Key, id) {
				past[n-1] += " (struck)"
			}
		}
		task, _ := v.Sheet.Line(line.Key)
		r.say(fact.LineStruck{Day: day, Document: v.Document.ID, Line: line.Key, Sort: task.Sort()})
	case r.has(k, changed):
		r.say(fact.LineChanged{Day: day, Document: v.Document.ID, Line: v.Lines[0].Key, Count: 4})
	case r.has(k, added):
		r.say(fact.LineAdded{Day: day, Text: "Draw the two gulls for the first page.", Minutes: 2})
	}
}

// suggested takes up, turns down or leaves what the ladder suggests.
func (r *run) suggested(lv places.LadderView) error {
	r.at = r.at.Add(time.Minute)
	if r.policy != ByPath && r.queue != nil {
		return r.topUp()
	}
	tell := func(bodies fact.Bodies) {
		for _, b := range bodies {
			r.say(b)
		}
	}
	filled := false
	for _, s := range lv.Suggestions {
		switch {
		case s.Why.Code == "fill-ladder":
			if !filled && r.rng.IntN(4) > 0 {
				tell(s.Accept)
				filled = true
			}
		case len(s.Accept) > 0 && (s.Why.Code == "head-start" || s.Why.Code == "head-start-late"), s.Why.Code == "gap": // in the lesson
		case len(s.Accept) > 0 && r.mind.chance(0.4):
			tell(s.Accept)
		case s.Key != "" && r.mind.chance(0.1):
			r.say(fact.Overruled{Suggestion: s.Key, Until: "later"})
			r.seen.refused++
		case len(s.Remedies) > 0:
			if i := slices.IndexFunc(s.Remedies, func(m advice.Remedy) bool { return len(m.Accept) > 0 }); i >= 0 && r.mind.chance(0.5) {
				tell(s.Remedies[i].Accept)
			}
		}
	}
	return r.deliver(fact.Teacher)
}
