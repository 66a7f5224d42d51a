package places

import (
	"cmp"
	"context"
	"slices"
	"sort"

	"patientladder/core/climb"
	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/record"
	"patientladder/core/touch"
	"patientladder/core/upkeep"
	"patientladder/studio"
)

// An Entry is one line of the record.
type Entry struct {
	Fact  fact.Fact   `json:"fact"`
	Title string      `json:"title" doc:"of the rung's item; empty when there is none"`
	Point string      `json:"point" doc:"name of the focus point or of the skill, or place of the spot"`
	Back  bool        `json:"back" doc:"it was taken back"`
	Undo  fact.Bodies `json:"undo" doc:"to tell so that it is taken back, or stands again"`
	Note  string      `json:"note" enum:",refused" doc:"refused: a try turned back"`
}

// A RecordView is all that was told of a student, newest first.
type RecordView struct {
	Student   studio.StudentCard  `json:"student"`
	Footholds int                 `json:"footholds"`
	Lessons   int                 `json:"lessons"`
	Home      home.Answer         `json:"home" doc:"practice and enjoyment, apart, and what to try"`
	Skills    []upkeep.SkillMark  `json:"skills" doc:"those with evidence: in hand, rusty, secure"`
	Foretold  []climb.Foretold    `json:"foretold" doc:"weeks of each finished rung beside what its first lesson foretold, the last first"`
	Kept      int                 `json:"kept" doc:"of them, how many came in their weeks"`
	Weeks     []studio.RecordWeek `json:"weeks" doc:"what was asked at home and what was ticked, the last first"`
	Done      []record.Won        `json:"done" doc:"footholds, the last first"`
	Played    []PlayedSeries      `json:"played" doc:"what was played in from time to time, the last first"`
	Entries   []Entry             `json:"entries" doc:"the last of them"`
	More      int                 `json:"more" doc:"entries before those"`
}

// A PlayedSeries is one of them with its title.
type PlayedSeries struct {
	record.Series
	Title string `json:"title"`
}

// played names what was played in.
func played(p *studio.Pupil) []PlayedSeries {
	out := []PlayedSeries{}
	for _, s := range record.Played(p.Standing) {
		one := PlayedSeries{s, s.Asked}
		if step, tapped := touch.StepOf(s.Asked); tapped {
			one.Title = p.In.Label(step.Name)
		} else if spec, err := exercise.Parse(s.Asked); err == nil {
			one.Title = p.In.Label(spec.Name())
		}
		if r, placed := p.Standing.Rung(s.Rung); placed {
			one.Title = r.Item.Title
		}
		out = append(out, one)
	}
	return out
}

// fewest is how many entries of a record are sent at first, and mostEntries at once.
const (
	fewest      = 400
	mostEntries = 50_000
)

// Record shows what was told of a student: of the entries so many of the last, or a first few
// for 0.
func Record(ctx context.Context, a *studio.App, who studio.Who, student string, most int) (RecordView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return RecordView{}, err
	}
	v := RecordView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Lessons: len(p.Standing.Closed), Footholds: len(p.Standing.In(ladder.Secure))}
	v.Home, v.Played = p.FromHome(), played(&p)
	v.Skills = upkeep.Skills(p.Standing, p.Graph, p.Presumed(p.Standing), p.Room.Now)
	told := slices.DeleteFunc(slices.Clone(p.Facts), studio.IsRetraction)
	v.More = max(len(told)-min(max(most, fewest), mostEntries), 0)
	v.Entries, v.Done = Entries(&p, told[v.More:]), record.Footholds(p.Standing)
	slices.Reverse(v.Done)
	v.Foretold = studio.List(climb.Foretell(p.AsStudent(p.Standing, p.Approach, p.Room.Now)))
	v.Kept = climb.Kept(v.Foretold)
	if v.Weeks, err = p.Weeks(ctx); err != nil {
		return RecordView{}, err
	}
	sort.SliceStable(v.Entries, func(i, j int) bool { return v.Entries[i].Fact.At.After(v.Entries[j].Fact.At) })
	return v, nil
}

// Named says what facts about no rung speak of: an activity, a probe, a fault, a
// skill.
func Named(p *studio.Pupil, b fact.Body) (title, point string) {
	game := func(id string) string {
		for _, a := range slices.Concat(p.In.Games(), p.Own) {
			if a.ID == id {
				return a.Title
			}
		}
		return id
	}
	switch b := b.(type) {
	case fact.ActivityDone:
		return game(b.Activity), ""
	case fact.ActivityAsked:
		return game(b.Activity), ""
	case fact.Probed:
		if b.Probe != fact.FirstBook {
			return p.Graph.Name(b.Probe), ""
		}
	case fact.Seen:
		if x, ok := fault.Named(b.Fault); ok {
			return "", p.In.Word("fault", x.Key+".seen")
		}
	case fact.Prepared:
		return "", p.Graph.Name(b.Skill)
	case fact.Echoed:
		return "", p.Graph.Name(b.Skill)
	case fact.PlayedIn:
		if b.Finger != "" {
			return "", p.In.Text("list.finger", map[string]string{"finger": touch.Finger(b.Hand, b.Finger)})
		}
	}
	return "", ""
}

// Entries names what facts speak of. Retractions show as marks on what they
// took back.
func Entries(p *studio.Pupil, facts []fact.Fact) []Entry {
	back := ladder.TakenBack(p.Facts)
	list := []Entry{}
	for _, f := range facts {
		if studio.IsRetraction(f) {
			continue
		}
		retraction, gone := back[f.ID]
		e := Entry{Fact: f, Back: gone, Undo: fact.Bodies{fact.Retracted{Ref: cmp.Or(retraction, f.ID)}}}
		e.Title, e.Point = Named(p, f.Body)
		id, point, spot := f.ID, "", ""
		for _, ref := range fact.Refs(f.Body) {
			switch ref.To {
			case "rung":
				id = ref.ID
			case "point":
				point = ref.ID
			case "spot":
				spot = ref.ID
			}
		}
		if r, ok := p.Standing.Rung(id); ok {
			e.Title = r.Item.Title
			for _, q := range r.Points {
				if q.Key == point {
					e.Point = q.Name
				}
			}
			for _, s := range r.Spots {
				if s.ID == spot {
					e.Point = s.Where
				}
			}
			if _, try := f.Body.(fact.FootholdTried); try {
				for _, t := range r.Tries {
					if t.At.Equal(f.At) && t.Outcome == ladder.Refused {
						e.Note = ladder.Refused
					}
				}
			}
		}
		list = append(list, e)
	}
	return list
}
