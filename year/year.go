// Package year lives students through forty weeks by the program's own use cases and
// holds every plan, sheet and forecast on the way against the rules that a year must keep.
//
// A life (lives.go) says who is lived and what befalls them. A mind (model.go) is what the
// student really can, drawn at random: the program never sees it, so that what it foretells
// can be scored. The rules (sheets.go, lessons.go, ladders.go) read what a teacher or a
// family would read. What comes out are statements about this model, not about children.
package year

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/studio"
)

const zone = "Europe/London"

// Names lists the students who can be lived.
func Names() []string {
	var out []string
	for _, l := range lives {
		out = append(out, l.name)
	}
	return out
}

// Live lives one student for some weeks of lessons in a studio of its own, and counts the
// rules.
func Live(ctx context.Context, s *store.Store, name string, seed uint64, weeks int, by Policy) (Ledger, error) {
	i := slices.IndexFunc(lives, func(l life) bool { return l.name == name })
	if i < 0 {
		return Ledger{}, fmt.Errorf("nobody is called %s", name)
	}
	l := lives[i]
	clock := terms.Terms[0].From.Time()
	app := studio.New(s, func() time.Time { return clock })
	who, err := app.SignUp(ctx, studio.SignUp{Name: "Ines Falk", Email: studio.NewID() + "@year.example", Password: "four-lanterns-north", Studio: "The Net Loft", Zone: zone, Calendar: terms})
	if err != nil {
		return Ledger{}, err
	}
	if err := demo.OwnBooks(ctx, app, who); err != nil {
		return Ledger{}, err
	}
	if l.instrument == "violin" {
		if err := app.AddItems(ctx, who, violin()); err != nil {
			return Ledger{}, err
		}
	}
	r := &run{ctx: ctx, app: app, who: who, clock: &clock, life: l, rng: rand.New(rand.NewPCG(seed, 7)), ledger: &Ledger{Of: fmt.Sprintf("seed %d: ", seed)}, seen: newSeen(), policy: by, show: os.Getenv("LADDER_SHOW") != ""}
	if r.place, err = time.LoadLocation(zone); err != nil {
		return Ledger{}, err
	}
	if err := r.begin(seed); err != nil {
		return *r.ledger, fmt.Errorf("%s: %w", l.name, err)
	}
	for k := range weeks {
		if err := r.week(k); err != nil {
			return *r.ledger, fmt.Errorf("%s, lesson %d, %s: %w", l.name, k+1, r.day, err)
		}
	}
	return *r.ledger, r.end()
}

// A run is one life as it goes.
type run struct {
	ctx    context.Context
	app    *studio.App
	who    studio.Who
	clock  *time.Time
	place  *time.Location
	life   life
	rng    *rand.Rand
	mind   *mind
	items  map[string]shelf.Item
	id     string
	at     time.Time
	facts  []fact.Fact
	day    calendar.Date // of the lesson in hand
	ledger *Ledger
	seen   seen
	policy Policy
	queue  map[shelf.Strand][]shelf.Item // what comes in a plain order
	show   bool                          // print each plan and sheet
}

func (r *run) newID() string {
	var entropy [10]byte
	for i := range entropy {
		entropy[i] = byte(r.rng.UintN(256))
	}
	var id ulid.ULID
	_ = id.SetTime(ulid.Timestamp(r.at)) // neither can fail: the time is in range, the entropy ten bytes
	_ = id.SetEntropy(entropy[:])
	return id.String()
}

// say tells a fact, a few seconds after the one before.
func (r *run) say(b fact.Body) string {
	r.at = r.at.Add(5 * time.Second)
	f := fact.Fact{ID: r.newID(), Student: r.id, At: r.at.UTC(), Body: b}
	r.facts = append(r.facts, f)
	return f.ID
}

func (r *run) deliver(by fact.Author) error {
	if len(r.facts) == 0 {
		return nil
	}
	*r.clock = r.at.Add(time.Second)
	err := r.app.TellAs(r.ctx, r.who, by, r.facts)
	r.facts = nil
	return err
}

// begin takes the student on before the first lesson.
func (r *run) begin(seed uint64) error {
	v, err := r.app.Shelf(r.ctx, r.who, "", 0)
	if err != nil {
		return err
	}
	r.items = map[string]shelf.Item{}
	var books []shelf.Item
	for {
		for _, it := range v.Items {
			r.items[it.ID] = it
			if it.Instrument == r.life.instrument {
				books = append(books, it)
			}
		}
		if v.Next == 0 {
			break
		}
		if v, err = r.app.Shelf(r.ctx, r.who, "", v.Next); err != nil {
			return err
		}
	}
	r.seen.mixture = r.life.begin == "before"
	r.mind = newMind(r.life, seed, books)
	r.day = terms.Lessons(r.life.slot, terms.Terms[0].From, terms.Terms[0].To)[0]
	r.at = r.life.slot.On(r.day, r.place).Add(-2 * time.Hour)
	*r.clock = r.at
	r.id = r.newID()
	_, err = r.app.AddStudent(r.ctx, r.who, studio.NewStudent{ID: r.id, FirstName: r.life.name, FamilyName: "Falk", BirthYear: 2026 - r.life.age, BirthMonth: 3,
		Instrument: r.life.instrument, Slot: r.life.slot, Approach: r.life.approach, Home: r.life.home, Books: r.life.books, Begin: r.life.begin})
	if err == nil && r.life.own != "" {
		r.say(fact.OwnPoint{Name: r.life.own})
		err = r.deliver(fact.Teacher)
	}
	if err == nil && r.policy != ByPath && r.life.begin != "before" {
		err = r.plainly(books)
	}
	return err
}

func (r *run) has(k int, e event) bool { return slices.Contains(r.life.events[k], e) }

// week lives one lesson of the slot and the days up to the next.
func (r *run) week(k int) error {
	slot := r.day
	day, start := slot, r.life.slot.On(slot, r.place)
	defer func() { r.day = terms.Next(r.life.slot, slot.Add(1)) }()
	switch {
	case r.has(k, missed):
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonMissed{Day: slot, Why: "ill"})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		return r.home(k, slot, terms.Next(r.life.slot, slot.Add(1)))
	case r.has(k, moved):
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonMoved{Day: slot, To: slot.Add(1)})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		day = slot.Add(1)
		start = r.life.slot.On(day, r.place)
	}
	next := terms.Next(r.life.slot, slot.Add(1))
	if r.has(k, extra) {
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonExtra{Day: day.Add(3)})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		if err := r.given(k, day, start); err != nil {
			return err
		}
		if err := r.after(k, day); err != nil {
			return err
		}
		if err := r.home(k, day, day.Add(3)); err != nil {
			return err
		}
		day = day.Add(3)
		start = r.life.slot.On(day, r.place)
	}
	if err := r.given(k, day, start); err != nil {
		return err
	}
	if err := r.after(k, day); err != nil {
		return err
	}
	return r.home(k, day, next)
}

// given gives a lesson by the plan as it is offered.
func (r *run) given(k int, day calendar.Date, start time.Time) error {
	*r.clock, r.at = start, start
	if r.has(k, remote) {
		r.say(fact.LessonRemote{Day: day, Remote: true})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
	}
	r.at = start
	if r.has(k, short) {
		r.say(fact.LessonLength{Day: day, Minutes: r.life.slot.Minutes * 2 / 3})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
	}
	*r.clock = r.at
	view, err := r.app.Lesson(r.ctx, r.who, r.id, day)
	if err != nil {
		return err
	}
	if view.Day != day {
		return fmt.Errorf("the lesson shown is of %s", view.Day)
	}
	if done, err := r.planned(k, day, view.Plan); err != nil || done {
		if err != nil {
			return err
		}
		if view, err = r.app.Lesson(r.ctx, r.who, r.id, day); err != nil {
			return err
		}
	}
	r.onPlan(view)
	r.say(fact.LessonOpened{Day: day})
	worked := map[string]bool{}
	for _, b := range view.Plan.Blocks {
		r.block(b, view, day, worked)
	}
	r.afterwards(worked)
	if r.has(k, fault) {
		r.say(fact.Seen{Fault: view.Faults[r.rng.IntN(len(view.Faults))].Key})
		r.seen.faulted = day
	}
	r.at = start.Add(time.Duration(view.Plan.Minutes) * time.Minute)
	r.say(fact.LessonClosed{Day: day})
	if r.has(k, pained) {
		r.say(fact.Pained{Side: "right", Where: "wrist"})
		r.seen.ache = true
	}
	if r.has(k, cleared) {
		r.say(fact.PainCleared{})
		r.seen.ache = false
	}
	r.seen.lessons++
	r.seen.before, r.seen.lesson = r.seen.lesson, day
	return r.deliver(fact.Teacher)
}

// planned does to the plan what befalls it; it reports whether anything was changed.
func (r *run) planned(k int, day calendar.Date, plan lesson.Plan) (bool, error) {
	for _, b := range plan.Blocks {
		switch {
		case r.has(k, swapped) && len(b.Choices) > 0 && b.Kind != lesson.Current:
			r.say(fact.BlockSwapped{Day: day, Block: b.Key, Into: b.Choices[0].Into})
			r.seen.chosen[day] = true
		case r.has(k, skipped) && b.Kind == lesson.Upkeep:
			r.say(fact.BlockDropped{Day: day, Block: b.Key})
		case r.has(k, stretched) && b.Kind == lesson.Current:
			r.say(fact.BlockTimed{Day: day, Block: b.Key, Minutes: min(b.Minutes+5, b.Most)})
		default:
			continue
		}
		return true, r.deliver(fact.Teacher)
	}
	return false, nil
}

// age is how old the student is on a day.
func (r *run) age(d calendar.Date) int {
	age := r.life.age + d.Time().Year() - 2026
	if d.Time().Month() < time.March {
		age--
	}
	return age
}

// piece is what the student knows of a rung.
func (r *run) piece(rung, item string) *piece {
	p := r.mind.pieces[rung]
	if p == nil {
		p = &piece{item: r.items[item]}
		r.mind.pieces[rung] = p
	}
	return p
}

// block gives one block of a lesson as a teacher would mark it.
func (r *run) block(b lesson.Block, view studio.LessonView, day calendar.Date, worked map[string]bool) {
	var rung studio.RungView
	if i := slices.IndexFunc(view.Rungs, func(v studio.RungView) bool { return v.ID == b.Rung }); i >= 0 {
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
func (r *run) work(v studio.RungView, day calendar.Date) {
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
	if playing := v.Strand == shelf.Book || v.Strand == shelf.Repertoire; playing && p.lessons > longInHand {
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
	playing := v.Strand == shelf.Book || v.Strand == shelf.Repertoire
	if playing && len(v.Spots) == 0 && p.lessons == 2 && share < 0.8 && r.mind.chance(0.5) {
		r.say(fact.SpotNoted{Rung: v.ID, Where: fmt.Sprintf("bar %d", 1+r.rng.IntN(max(v.Bars, 4))), Goal: 5})
	}
	if heard := v.Bars == 0 || r.items[v.Item].Staves < 2 || p.lessons > 3; heard && share >= 1 && !slices.ContainsFunc(v.Spots, func(s studio.SpotView) bool { return s.Done < s.Goal && share <= 0.3 }) {
		r.say(fact.FootholdTried{Rung: v.ID, Outcome: "granted"})
		r.grant(v, p, day)
	}
}

func done(v studio.RungView) int {
	n := 0
	for _, p := range v.Parts {
		if p.Done {
			n++
		}
	}
	return n
}

// grant books a foothold.
func (r *run) grant(v studio.RungView, p *piece, day calendar.Date) {
	r.mind.secured(p, day)
	r.secured(v, p, day)
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
	v, err := r.app.Week(r.ctx, r.who, r.id, "", 0)
	if err != nil {
		return err
	}
	if v.Sheet == nil {
		return fmt.Errorf("no sheet after the lesson")
	}
	lv, err := r.app.Ladder(r.ctx, r.who, r.id)
	if err != nil {
		return err
	}
	r.onSheet(k, v, lv)
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
func (r *run) edit(k int, v studio.WeekView) {
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
		r.say(fact.LineStruck{Day: day, Document: v.Document.ID, Line: line.Key, Sort: sortOf(*v.Sheet, line.Key)})
	case r.has(k, changed):
		r.say(fact.LineChanged{Day: day, Document: v.Document.ID, Line: v.Lines[0].Key, Count: 4})
	case r.has(k, added):
		r.say(fact.LineAdded{Day: day, Text: "Draw the two gulls for the first page.", Minutes: 2})
	}
}

func sortOf(sh week.Sheet, key string) string {
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if t.Key == key {
				return t.Sort()
			}
		}
	}
	return ""
}

// suggested takes up, turns down or leaves what the ladder suggests.
func (r *run) suggested(lv studio.LadderView) error {
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
		case len(s.Accept) > 0 && (s.Why.Code == "head-start" || s.Why.Code == "head-start-late"):
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

// home lives the days after a lesson up to the next.
func (r *run) home(k int, after, next calendar.Date) error {
	v, err := r.app.Week(r.ctx, r.who, r.id, "", 0)
	if err != nil {
		return err
	}
	if next == "" {
		next = after.Add(7)
	}
	share := r.life.days
	practised := 0
	for d := after.Add(1); d < next; d = d.Add(1) {
		if r.has(k, idle) || r.has(k, thin) && practised > 0 || r.seen.ache || !r.mind.chance(share) {
			continue
		}
		var tasks []week.Task
		asked := false
		if v.Sheet != nil {
			for _, sd := range v.Sheet.Days {
				if sd.Date == d {
					tasks, asked = sd.Tasks, !sd.Off
				}
			}
		}
		if !asked && !r.mind.chance(0.3) {
			continue
		}
		practised++
		r.at = d.Midnight(r.place).Add(18 * time.Hour)
		*r.clock = r.at
		minutes := 0
		for _, t := range tasks {
			minutes += t.Minutes
		}
		r.say(fact.Practised{Day: d, Minutes: max(minutes, 5), Felt: r.life.feel[r.rng.IntN(len(r.life.feel))]})
		r.ledger.Count("minutes practised", float64(max(minutes, 5)))
		for _, t := range tasks {
			if t.Rung != "" && !t.Listen {
				if p := r.mind.pieces[t.Rung]; p != nil && p.secure {
					p.again(d)
				} else if p != nil && p.begun {
					p.works(0.5 / 4.5 / float64(times(tasks, t.Rung)))
				}
			}
			if r.mind.chance(0.7) {
				r.say(fact.Ticked{Day: d, Document: v.Document.ID, Line: t.Key, Rung: t.Rung})
				r.seen.ticked[[2]string{v.Document.ID, t.Key}] = true
			}
		}
		if err := r.deliver(fact.Family); err != nil {
			return err
		}
	}
	r.seen.practised = append(r.seen.practised, practised)
	return nil
}

// times is how many tasks of a day are about a rung.
func times(tasks []week.Task, rung string) int {
	n := 0
	for _, t := range tasks {
		if t.Rung == rung {
			n++
		}
	}
	return n
}
