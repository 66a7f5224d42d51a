package studio

import (
	"cmp"
	"context"
	"encoding/json"
	"slices"
	"sort"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/document"
	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/record"
	"patientladder/core/touch"
	"patientladder/core/upkeep"
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
	Student   StudentCard        `json:"student"`
	Footholds int                `json:"footholds"`
	Lessons   int                `json:"lessons"`
	Home      home.Answer        `json:"home" doc:"practice and enjoyment, apart, and what to try"`
	Skills    []upkeep.SkillMark `json:"skills" doc:"those with evidence: in hand, rusty, secure"`
	Foretold  []climb.Foretold   `json:"foretold" doc:"weeks of each finished rung beside what its first lesson foretold, the last first"`
	Kept      int                `json:"kept" doc:"of them, how many came in their weeks"`
	Weeks     []RecordWeek       `json:"weeks" doc:"what was asked at home and what was ticked, the last first"`
	Done      []record.Won       `json:"done" doc:"footholds, the last first"`
	Played    []PlayedSeries     `json:"played" doc:"what was played in from time to time, the last first"`
	Entries   []Entry            `json:"entries" doc:"the last of them"`
	More      int                `json:"more" doc:"entries before those"`
}

// A PlayedSeries is one of them with its title.
type PlayedSeries struct {
	record.Series
	Title string `json:"title"`
}

// played names what was played in.
func (p *pupil) played() []PlayedSeries {
	out := []PlayedSeries{}
	for _, s := range record.Played(p.standing) {
		one := PlayedSeries{s, s.Asked}
		if step, tapped := touch.StepOf(s.Asked); tapped {
			one.Title = step.Name
		} else if spec, err := exercise.Parse(s.Asked); err == nil {
			one.Title = spec.Title()
		}
		if r, placed := p.standing.Rung(s.Rung); placed {
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

// A RecordWeek is a week sheet as it was given last, beside what came back.
type RecordWeek struct {
	Day       calendar.Date `json:"day" doc:"of the lesson"`
	Revisions int           `json:"revisions"`
	Minutes   int           `json:"minutes" doc:"asked for in all"`
	Lines     []AskedLine   `json:"lines"`
}

// An AskedLine is a line of a sheet and how often it was ticked.
type AskedLine struct {
	SheetLine
	Ticked int `json:"ticked"`
}

// weeks lists the sheets that were given, each in its newest revision, with the
// ticks of all of them.
func (p *pupil) weeks(ctx context.Context) ([]RecordWeek, error) {
	docs, err := p.Documents(ctx, p.ID, document.Sheet)
	if err != nil {
		return nil, told(err, "student")
	}
	ticks := map[string]int{} // by document and line
	for _, t := range p.standing.Ticks {
		ticks[t.Document+" "+t.Line]++
	}
	out := []RecordWeek{}
	var ids []string // of the revisions of one day
	for i, d := range docs {
		if ids = append(ids, d.ID); i+1 < len(docs) && docs[i+1].Day == d.Day {
			continue
		}
		var sum SheetSummary
		if err := json.Unmarshal(d.Summary, &sum); err != nil {
			return nil, err
		}
		w := RecordWeek{Day: d.Day, Revisions: d.Revision, Minutes: sum.Minutes, Lines: []AskedLine{}}
		for _, l := range sum.Lines {
			n := 0
			for _, id := range ids {
				n += ticks[id+" "+l.Key]
			}
			w.Lines = append(w.Lines, AskedLine{l, n})
		}
		out, ids = append(out, w), nil
	}
	slices.Reverse(out)
	return out, nil
}

// Record shows what was told of a student: of the entries so many of the last, or a first few
// for 0.
func (a *App) Record(ctx context.Context, who Who, student string, most int) (RecordView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return RecordView{}, err
	}
	v := RecordView{Student: p.card(p.Student, p.standing, p.lessonDay()), Lessons: len(p.standing.Closed), Footholds: len(p.standing.In(ladder.Secure))}
	v.Home, v.Played = p.home(), p.played()
	v.Skills = upkeep.Skills(p.standing, p.graph, p.presumed(p.standing), p.room.now)
	told := slices.DeleteFunc(slices.Clone(p.facts), isRetraction)
	v.More = max(len(told)-min(max(most, fewest), mostEntries), 0)
	v.Entries, v.Done = p.entries(told[v.More:]), record.Footholds(p.standing)
	slices.Reverse(v.Done)
	v.Foretold = list(climb.Foretell(p.asStudent(p.standing, p.Approach, p.room.now)))
	v.Kept = climb.Kept(v.Foretold)
	if v.Weeks, err = p.weeks(ctx); err != nil {
		return RecordView{}, err
	}
	sort.SliceStable(v.Entries, func(i, j int) bool { return v.Entries[i].Fact.At.After(v.Entries[j].Fact.At) })
	return v, nil
}

// named says what facts about no rung speak of: an activity, a probe, a fault, a
// skill.
func (p *pupil) named(b fact.Body) (title, point string) {
	game := func(id string) string {
		for _, a := range slices.Concat(activity.Bank(), p.own) {
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
			return p.graph.Name(b.Probe), ""
		}
	case fact.Seen:
		if x, ok := fault.Named(b.Fault); ok {
			return "", x.Seen
		}
	case fact.Prepared:
		return "", p.graph.Name(b.Skill)
	case fact.Echoed:
		return "", p.graph.Name(b.Skill)
	case fact.PlayedIn:
		if b.Finger != "" {
			return "", touch.FingerName(b.Hand, b.Finger)
		}
	}
	return "", ""
}

// entries names what facts speak of. Retractions show as marks on what they
// took back.
func (p *pupil) entries(facts []fact.Fact) []Entry {
	back := ladder.TakenBack(p.facts)
	list := []Entry{}
	for _, f := range facts {
		if isRetraction(f) {
			continue
		}
		retraction, gone := back[f.ID]
		e := Entry{Fact: f, Back: gone, Undo: fact.Bodies{fact.Retracted{Ref: cmp.Or(retraction, f.ID)}}}
		e.Title, e.Point = p.named(f.Body)
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
		if r, ok := p.standing.Rung(id); ok {
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
