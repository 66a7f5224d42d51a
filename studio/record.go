package studio

import (
	"context"
	"slices"
	"sort"
	"time"

	"patientladder/core/activity"
	"patientladder/core/climb"
	"patientladder/core/fault"
	"patientladder/core/ladder"
	"patientladder/core/practice"
	"patientladder/core/upkeep"
)

// late is how far ahead of the studio's clock a fact may lie: room for a
// device whose clock is wrong, not for a typing error of a year.
const late = 24 * time.Hour

// maxFacts is the most facts taken in one delivery.
const maxFacts = 500

// Tell saves facts: what the teacher said happened. Facts already told change
// nothing. Either all are saved or none.
func (a *App) Tell(ctx context.Context, who Who, facts []ladder.Fact) error {
	r := a.store.In(who.Studio)
	now := a.now()
	if len(facts) > maxFacts {
		return invalid("%d facts at once; send at most %d.", len(facts), maxFacts)
	}
	for i, f := range facts {
		if err := f.Check(); err != nil {
			return invalid("Fact %d of %d cannot be kept: %v.", i+1, len(facts), err)
		}
		if f.At.After(now.Add(late)) { // the studio's clock may be ahead of the machine's
			room, err := a.enter(ctx, who)
			if err != nil {
				return err
			}
			now = room.now
		}
		if f.At.After(now.Add(late)) {
			return invalid("Fact %d of %d lies in the future (%s); check this device's clock.", i+1, len(facts), f.At.Format(time.RFC3339))
		}
		if f.Kind == ladder.RungAdded {
			if _, err := r.Item(ctx, f.Item); err != nil {
				return told(err, "item")
			}
		}
	}
	return told(r.AddFacts(ctx, facts), "student")
}

// An Entry is one line of the record.
type Entry struct {
	Fact  ladder.Fact `json:"fact"`
	Title string      `json:"title" doc:"of the rung's item; empty when there is none"`
	Point string      `json:"point" doc:"name of the focus point or of the skill, or place of the spot"`
	Back  bool        `json:"back" doc:"it was taken back"`
	Note  string      `json:"note" enum:",refused" doc:"refused: a try turned back"`
}

// A RecordView is all that was told of a student, newest first.
type RecordView struct {
	Student   StudentCard        `json:"student"`
	Footholds int                `json:"footholds"`
	Lessons   int                `json:"lessons"`
	Home      practice.Answer    `json:"home" doc:"practice and enjoyment, apart, and what to try"`
	Skills    []upkeep.SkillMark `json:"skills" nullable:"false" doc:"those with evidence: in hand, rusty, secure"`
	Entries   []Entry            `json:"entries" nullable:"false"`
}

// Record shows what was told of a student.
func (a *App) Record(ctx context.Context, who Who, student string) (RecordView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return RecordView{}, err
	}
	v := RecordView{Student: p.card(p.Student, p.lessonDay()), Lessons: len(p.standing.Closed), Footholds: len(p.standing.In(ladder.Secure))}
	v.Home = p.home()
	v.Skills = upkeep.Skills(p.standing, skills, climb.Presumed(p.shelf, p.standing.Began), p.room.now)
	v.Entries = p.entries(p.facts)
	sort.SliceStable(v.Entries, func(i, j int) bool { return v.Entries[i].Fact.At.After(v.Entries[j].Fact.At) })
	return v, nil
}

// named says what facts about no rung speak of: an activity, a probe, a fault.
func (p *pupil) named(f ladder.Fact, point string) (string, string) {
	switch f.Kind {
	case ladder.ActivityDone, ladder.ActivityAsked:
		for _, a := range slices.Concat(activity.Bank(), p.own) {
			if a.ID == f.Text {
				return a.Title, point
			}
		}
		return f.Text, point
	case ladder.Probed:
		if f.Text != ladder.FirstBook {
			return skills.Name(f.Text), point
		}
	case ladder.Seen:
		if x, ok := fault.Named(f.Text); ok {
			return "", x.Seen
		}
	}
	return "", point
}

// entries names what facts speak of. Retractions show as marks on what they
// took back.
func (p *pupil) entries(facts []ladder.Fact) []Entry {
	back := map[string]bool{}
	for _, f := range p.facts {
		if f.Kind == ladder.Retracted {
			back[f.Ref] = true
		}
	}
	list := []Entry{}
	for _, f := range facts {
		if f.Kind == ladder.Retracted {
			continue
		}
		e := Entry{Fact: f, Back: back[f.ID]}
		if f.Skill != "" {
			e.Point = skills.Name(f.Skill)
		}
		e.Title, e.Point = p.named(f, e.Point)
		id := f.Rung
		if f.Kind == ladder.RungAdded {
			id = f.ID
		}
		if r, ok := p.standing.Rung(id); ok {
			e.Title = r.Item.Title
			for _, point := range r.Points {
				if point.Key == f.Point {
					e.Point = point.Name
				}
			}
			for _, s := range r.Spots {
				if s.ID == f.Spot {
					e.Point = s.Where
				}
			}
			for _, try := range r.Tries {
				if f.Kind == ladder.FootholdTried && try.At.Equal(f.At) && try.Outcome == "refused" {
					e.Note = "refused"
				}
			}
		}
		list = append(list, e)
	}
	return list
}
