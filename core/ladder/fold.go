// Package ladder turns facts into a standing.
//
// Fold reads a student's facts, in whatever order and however often they
// arrive, and gives the standing: the state of every rung, point, spot and
// secure piece. Same facts, same standing: there is no clock here.
package ladder

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/card"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/shelf"
)

// dropAfter is how many rungs in a row an own point must be met at first
// before it is no longer written on the next. Common practice, no source.
const dropAfter = 3

// Fold reads facts into a standing. Items are by id; a rung whose item is
// missing is left out and its facts are Unplaced.
func Fold(facts []fact.Fact, items map[string]shelf.Item) Standing {
	f := &fold{items: items, lanes: map[shelf.Strand][]*Rung{}, rungs: map[string]*Rung{}}
	f.s.Lessons = newLessons()
	f.s.Probes, f.s.Prepared = map[string]Probe{}, map[string]HeadStart{}
	f.s.Approach, f.s.Overruled = approach.Approach{}, map[string]Overrule{}
	f.s.Struck = map[string][]calendar.Date{}
	f.s.Activities, f.s.Asked = map[string]ActivityMark{}, map[string]time.Time{}
	InOrder(facts, f.apply)
	for _, strand := range shelf.Strands {
		for _, r := range f.lanes[strand] {
			f.s.Rungs = append(f.s.Rungs, f.written(*r))
		}
	}
	return f.s
}

// Order puts facts by time and then id.
func Order(a, b fact.Fact) int {
	if c := a.At.Compare(b.At); c != 0 {
		return c
	}
	return strings.Compare(a.ID, b.ID)
}

// InOrder calls tell with the facts in order, each once, without those taken back.
func InOrder(facts []fact.Fact, tell func(fact.Fact)) {
	if !slices.IsSortedFunc(facts, Order) { // as the store gives them, they are
		facts = slices.Clone(facts)
		slices.SortStableFunc(facts, Order)
	}
	gone := TakenBack(facts)
	for i, f := range facts {
		again := i > 0 && facts[i-1].ID == f.ID // the same fact has the same time
		if _, back := gone[f.ID]; !again && !back {
			tell(f)
		}
	}
}

// TakenBack returns the facts that are taken back, each with the retraction that did
// it last. A retraction that is taken back itself takes nothing back.
func TakenBack(facts []fact.Fact) map[string]string {
	by := map[string][]string{} // retractions by what they take back
	for _, f := range facts {
		if r, is := f.Body.(fact.Retracted); is {
			by[r.Ref] = append(by[r.Ref], f.ID)
		}
	}
	seen := make(map[string]string, len(by)) // empty of what stands
	var look func(id string, depth int) string
	look = func(id string, depth int) string {
		if known, looked := seen[id]; looked {
			return known
		}
		out := ""
		for _, r := range by[id] {
			// retractions refer to what was told before, so that a ring of them can only be forged
			if depth < len(by) && look(r, depth+1) == "" {
				out = max(out, r)
			}
		}
		seen[id] = out
		return out
	}
	gone := make(map[string]string, len(by))
	for id := range by {
		if r := look(id, 0); r != "" {
			gone[id] = r
		}
	}
	return gone
}

type fold struct {
	s     Standing
	items map[string]shelf.Item
	lanes map[shelf.Strand][]*Rung
	rungs map[string]*Rung

	midnight int64 // days since 1970, on the clock of the last fact, and that day
	date     calendar.Date
}

// day is the day of a fact; most come on the day of the one before.
func (f *fold) day(t fact.Fact) calendar.Date {
	_, offset := t.At.Zone()
	if n := (t.At.Unix() + int64(offset)) / 86400; f.date == "" || n != f.midnight {
		f.midnight, f.date = n, t.Day()
	}
	return f.date
}

// apply does to the standing what a fact tells.
func (f *fold) apply(t fact.Fact) {
	switch b := t.Body.(type) {
	case fact.RungAdded:
		f.rungAdded(t, b)
	case fact.RungRevised:
		f.onRung(t, b.Rung, func(r *Rung) { r.revise(b.Revision) })
	case fact.RungMoved:
		f.onRung(t, b.Rung, func(r *Rung) {
			lane := f.lanes[r.Strand]
			i := slices.Index(lane, r)
			f.lanes[r.Strand] = slices.Delete(lane, i, i+1)
			r.Strand = cmp.Or(shelf.Strand(b.Strand), r.Strand)
			f.place(r, b.After)
		})
	case fact.RungParked:
		f.onRung(t, b.Rung, func(r *Rung) { r.Parked = true })
	case fact.RungResumed:
		f.onRung(t, b.Rung, func(r *Rung) { r.Parked = false })
	case fact.Taught:
		f.onRung(t, b.Rung, func(r *Rung) {
			if r.Taught == nil {
				r.Taught = &t.At
			}
		})
	case fact.PointHeld:
		f.onRung(t, b.Rung, func(r *Rung) { r.Held = b.Point })
	case fact.PointMarked:
		f.onRung(t, b.Rung, func(r *Rung) { f.pointMarked(t, r, b) })
	case fact.SelfJudged:
		f.onRung(t, b.Rung, func(r *Rung) { r.Judged = append(r.Judged, Judgement{b.Point, b.Says, t.At}) })
	case fact.OwnPoint:
		f.s.Own = append(f.s.Own, OwnMark{Key: OwnKey(t.ID), Name: b.Name, Since: t.At})
	case fact.SpotNoted:
		f.onRung(t, b.Rung, func(r *Rung) { r.Spots = append(r.Spots, Spot{ID: t.ID, Where: b.Where, Goal: b.Goal}) })
	case fact.SpotDrilled:
		f.onRung(t, b.Rung, func(r *Rung) { f.spotDrilled(t, r, b) })
	case fact.CardAnswered:
		f.onRung(t, b.Rung, func(r *Rung) {
			r.Answered = append(r.Answered, card.Answer{Card: b.Card, Outcome: b.Outcome, At: t.At})
		})
	case fact.FootholdTried:
		f.onRung(t, b.Rung, func(r *Rung) { r.tried(t.At, b) })
	case fact.Polished:
		f.onRung(t, b.Rung, func(r *Rung) { r.Polished = r.Foothold != nil })
	case fact.Heard:
		f.onRung(t, b.Rung, func(r *Rung) { r.Heard = append(r.Heard, Hearing{b.Grade, t.At}) })
	case fact.OpenedWith:
		f.onRung(t, b.Rung, func(r *Rung) { r.Opened++ })
	case fact.TargetSet:
		f.onRung(t, b.Rung, func(r *Rung) { r.Target = b.Day })
	case fact.TargetDropped:
		f.onRung(t, b.Rung, func(r *Rung) { r.Target = "" })
	case fact.Played:
		f.onRung(t, b.Rung, func(r *Rung) { r.Home = append(r.Home, t.At) })
	case fact.Ticked:
		f.s.Ticks = append(f.s.Ticks, Tick{ID: t.ID, Day: b.Day, Document: b.Document, Line: b.Line})
		if r := f.rungs[b.Rung]; r != nil && r.Foothold != nil { // an old piece was played
			r.Home = append(r.Home, t.At)
		}
	case fact.Tripped:
		f.tripped(t, b)
	default:
		f.student(t)
	}
}

// student does what a fact tells of the student and the home.
func (f *fold) student(t fact.Fact) {
	switch b := t.Body.(type) {
	case fact.Practised:
		f.s.Practice = append(f.s.Practice, Practice{t.ID, b.Day, b.Minutes, b.Felt})
	case fact.Prepared:
		f.s.Prepared[b.Skill] = HeadStart{max(f.s.Prepared[b.Skill].Done, b.Step), t.At}
	case fact.Probed:
		f.probed(b.Probe, b.Outcome, t.At)
	case fact.BeforeBook:
		f.s.BeforeBook = true
	case fact.BookChosen:
		f.s.Books = append(without(f.s.Books, b.Book), b.Book)
		if b.From != "" {
			f.s.Began = b.From
		}
	case fact.BookDropped:
		f.s.Books = without(f.s.Books, b.Book)
	case fact.TasteAsked:
		f.s.Taste = shelf.Taste(b.Taste)
	case fact.ApproachSet:
		f.s.Approach[approach.Question(b.Question)] = approach.School(b.School)
	case fact.Overruled:
		f.s.Overruled[b.Suggestion] = Overrule{t.ID, b.Until, t.At}
	case fact.Seen:
		f.s.Seen = append(f.s.Seen, Sight{b.Fault, t.At})
	case fact.SeatMeasured:
		f.s.Body = Body{t.At, b}
	case fact.MoodSeen:
		f.s.Mood = b.Mood
	case fact.PlayedIn:
		f.s.Takes = append(f.s.Takes, Take{t.At, b})
	case fact.Echoed:
		f.echoed(t, b)
	case fact.Talked:
		f.s.Talks = append(f.s.Talks, Talk{t.At, b.With, strings.TrimSpace(b.Agreed)})
	case fact.Pained:
		if f.s.Ache == nil {
			f.s.Rests = append(f.s.Rests, calendar.Span{From: t.Day()})
		}
		f.s.Ache = &Ache{b.Side, b.Where, t.At}
	case fact.PainCleared:
		if f.s.Ache != nil {
			f.s.Rests[len(f.s.Rests)-1].To = t.Day()
		}
		f.s.Ache = nil
	case fact.DaysSet:
		f.s.HomeDays = homeDays(b)
	case fact.QuestionAsked:
		f.s.Questions = append(f.s.Questions, Question{t.ID, b.Text, t.At})
	case fact.QuestionAnswered:
		f.s.Questions = slices.DeleteFunc(f.s.Questions, func(q Question) bool { return q.ID == b.Question })
	case fact.TreatSet:
		f.s.Treat = &Treat{b.Name, b.Counts, b.Goal, t.At}
	case fact.TreatDropped:
		f.s.Treat = nil
	case fact.LinePinned:
		if f.s.Pinned == nil {
			f.s.Pinned = map[string]Pin{}
		}
		f.s.Pinned[b.Line] = Pin{t.ID, b.Document}
	case fact.LineStruck:
		f.struck(sortOf(b.Sort), b.Day)
	case fact.LineChanged:
		f.lineChanged(b)
	case fact.CountKept:
		if f.s.Counts == nil {
			f.s.Counts = map[string]Count{}
		}
		f.s.Counts[b.Sort] = Count{t.ID, b.Count}
	case fact.SortKept:
		delete(f.s.Struck, sortOf(b.Sort))
		f.s.Lengths = slices.DeleteFunc(f.s.Lengths, func(l Length) bool { return Timed(l.Kind) == b.Sort })
	case fact.ActivityDone:
		f.activityDone(t, b)
	case fact.ActivityAsked:
		f.s.Asked[b.Activity] = t.At
	default:
		switch b := t.Body.(type) {
		case fact.BlockDropped:
			if b.Sort != "" {
				f.struck(LeftOut(b.Sort), b.Day)
			}
		case fact.BlockTimed:
			f.timed(b)
		}
		f.s.Lessons.tell(t)
	}
}

// struck notes that a sort was struck from a sheet, or left out of a lesson, once a day.
func (f *fold) struck(sort string, day calendar.Date) {
	if !slices.Contains(f.s.Struck[sort], day) {
		f.s.Struck[sort] = append(f.s.Struck[sort], day)
	}
}

// sortOf is a sort of lines as it is told today: head starts of each skill and games of each name were sorts of
// their own.
func sortOf(told string) string {
	switch {
	case strings.HasPrefix(told, "head-start "):
		return "head-start"
	case told == "rung ":
		return "game"
	}
	return told
}

// timed notes how long a block was made in the end.
func (f *fold) timed(b fact.BlockTimed) {
	if b.Sort == "" || b.Was == 0 {
		return
	}
	i := slices.IndexFunc(f.s.Lengths, func(l Length) bool { return l.Day == b.Day && l.Block == b.Block })
	if i < 0 {
		f.s.Lengths = append(f.s.Lengths, Length{Day: b.Day, Block: b.Block, Kind: b.Sort, Was: b.Was, Is: b.Minutes})
		return
	}
	f.s.Lengths[i].Is = b.Minutes
}

// lineChanged notes what a line of a sheet came to.
func (f *fold) lineChanged(b fact.LineChanged) {
	if b.Sort == "" {
		return
	}
	i := slices.IndexFunc(f.s.Changed, func(c Change) bool { return c.Day == b.Day && c.Line == b.Line })
	if i < 0 {
		f.s.Changed, i = append(f.s.Changed, Change{Day: b.Day, Line: b.Line, Sort: b.Sort}), len(f.s.Changed)
	}
	c := &f.s.Changed[i]
	c.Count, c.Hands = cmp.Or(b.Count, c.Count), cmp.Or(b.Hands, c.Hands)
}

// unplaced keeps a fact aside that speaks of what is not here.
func (f *fold) unplaced(t fact.Fact) { f.s.Unplaced = append(f.s.Unplaced, t.ID) }

// onRung does something to a rung, or puts the fact aside when there is none.
func (f *fold) onRung(t fact.Fact, id string, do func(*Rung)) {
	if r := f.rungs[id]; r != nil {
		do(r)
		if works(t.Body) {
			if day := f.day(t); !slices.Contains(r.Worked, day) {
				r.Worked = append(r.Worked, day)
			}
		}
		return
	}
	f.unplaced(t)
}

// works reports whether a fact tells that a rung was worked on in a lesson.
func works(b fact.Body) bool {
	switch b.(type) {
	case fact.Taught, fact.PointHeld, fact.PointMarked, fact.SelfJudged, fact.SpotNoted, fact.SpotDrilled, fact.CardAnswered, fact.FootholdTried:
		return true
	}
	return false
}

func (f *fold) rungAdded(t fact.Fact, b fact.RungAdded) {
	item, ok := f.items[b.Item]
	if !ok {
		f.unplaced(t)
		return
	}
	r := &Rung{ID: t.ID, Item: item, Strand: shelf.Strand(b.Strand), Added: t.At, Parked: b.Parked, firstMark: map[string]string{}}
	r.revise(b.Revision)
	f.rungs[r.ID] = r
	f.place(r, b.After)
}

// revise gives a rung the points and parts of a revision of its item; marks of those
// that go on hold.
func (r *Rung) revise(revision int) {
	points, parts := r.Item.At(revision)
	r.Revision = revision
	var marked []Point
	for _, p := range points {
		point := Point{Key: p.ID, Name: p.Name, State: Unmarked}
		if i := slices.IndexFunc(r.Points, func(q Point) bool { return q.Key == p.ID }); i >= 0 {
			point.State, point.Since = r.Points[i].State, r.Points[i].Since
		}
		marked = append(marked, point)
	}
	for _, p := range r.Points {
		if p.Own {
			marked = append(marked, p)
		}
	}
	var kept []Part
	for _, p := range parts {
		part := Part{ID: p.ID, Name: p.Name}
		if i := slices.IndexFunc(r.Parts, func(q Part) bool { return q.ID == p.ID }); i >= 0 {
			part.Foothold = r.Parts[i].Foothold
		}
		kept = append(kept, part)
		if part.Foothold == nil && r.Foothold != nil {
			r.Foothold = nil // a part that is new is still to be learnt
		}
	}
	r.Points, r.Parts = marked, kept
}

// place puts a rung into its lane above another; a rung that is gone from the
// lane counts as the top.
func (f *fold) place(r *Rung, after string) {
	lane := f.lanes[r.Strand]
	at := len(lane)
	if after == "" {
		at = 0
	}
	for i, other := range lane {
		if other.ID == after {
			at = i + 1
		}
	}
	f.lanes[r.Strand] = slices.Insert(lane, at, r)
}

// OwnKey is the key of the student's own point that a fact made.
func OwnKey(fact string) string { return "own-" + fact }

func (f *fold) pointMarked(t fact.Fact, r *Rung, b fact.PointMarked) {
	for i := range f.s.Own {
		own := &f.s.Own[i]
		if own.Key != b.Point {
			continue
		}
		if _, marked := r.firstMark[own.Key]; !marked {
			r.firstMark[own.Key] = b.State
			if own.Run++; b.State == fact.Open {
				own.Run = 0
			}
			own.Gone = own.Gone || own.Run >= dropAfter
		}
		if !slices.ContainsFunc(r.Points, func(p Point) bool { return p.Key == own.Key }) {
			r.Points = append(r.Points, Point{Key: own.Key, Name: own.Name, Own: true})
		}
	}
	i := slices.IndexFunc(r.Points, func(p Point) bool { return p.Key == b.Point })
	if i < 0 {
		f.unplaced(t)
		return
	}
	p := &r.Points[i]
	p.State, p.Since = PointState(b.State), &t.At
	if r.Held == p.Key && p.State == Met {
		r.Held = ""
	}
	r.Best = max(r.Best, r.MetPoints())
}

func (f *fold) spotDrilled(t fact.Fact, r *Rung, b fact.SpotDrilled) {
	i := slices.IndexFunc(r.Spots, func(s Spot) bool { return s.ID == b.Spot })
	if i < 0 {
		f.unplaced(t)
		return
	}
	r.Spots[i].Done = max(r.Spots[i].Done, b.Run)
}

// tried judges a try: one that comes before the piece had its lesson is turned
// back, whatever its outcome was meant to be.
func (r *Rung) tried(at time.Time, b fact.FootholdTried) {
	try := Try{Part: b.Part, At: at, Outcome: b.Outcome}
	if why := r.Refusal(); why != nil {
		try.Outcome, try.Why = Refused, why
	}
	r.Tries = append(r.Tries, try)
	if try.Outcome != fact.Granted {
		return
	}
	all := true
	for i := range r.Parts {
		p := &r.Parts[i]
		if p.Foothold == nil && (b.Part == "" || b.Part == p.ID) {
			p.Foothold = &at
		}
		all = all && p.Foothold != nil
	}
	switch {
	case all && r.Foothold == nil:
		r.Foothold = &at
	case !all && r.Item.Cycle(): // each key has its own aims
		for i := range r.Points {
			if p := &r.Points[i]; !p.Own {
				p.State, p.Since = Unmarked, nil
			}
		}
	}
}

func (f *fold) probed(probe, outcome string, at time.Time) {
	f.s.Probes[probe] = Probe{outcome, at}
	if probe == fact.FirstBook && outcome == fact.Pass {
		f.s.BeforeBook = false
	}
}

// activityDone keeps how an activity went. A pass of its exit test answers the
// probe of its aim.
func (f *fold) activityDone(t fact.Fact, b fact.ActivityDone) {
	m := f.s.Activities[b.Activity]
	if day := f.day(t); len(m.Days) == 0 || m.Days[len(m.Days)-1] != day {
		m.Days = append(m.Days, day)
	}
	m.Level, m.Outcome = b.Level, b.Outcome
	f.s.Activities[b.Activity] = m
	if b.Aim != "" {
		f.probed(b.Aim, b.Outcome, t.At)
	}
}

func homeDays(b fact.DaysSet) HomeDays {
	h := HomeDays{Minutes: b.Minutes}
	for _, d := range b.Weekdays {
		h.Days = append(h.Days, time.Weekday(d))
	}
	return h
}

// tripped makes a place that tripped at home a spot of its piece, when that is in
// hand.
func (f *fold) tripped(t fact.Fact, b fact.Tripped) {
	if r := f.rungs[b.Rung]; r != nil && r.Foothold == nil && !slices.ContainsFunc(r.Spots, func(s Spot) bool { return s.Where == b.Where }) {
		r.Spots = append(r.Spots, Spot{ID: t.ID, Where: b.Where, Goal: int(judgement.SpotGoal)})
	}
}

func without(list []string, x string) []string {
	return slices.DeleteFunc(list, func(s string) bool { return s == x })
}

// written finishes a rung: the student's own points that still stand are
// written on what is played, and the point "spots" follows from the spots; without any it
// is left out.
func (f *fold) written(r Rung) Rung {
	r.Points = slices.Clone(r.Points)
	for _, own := range f.s.Own {
		there := slices.ContainsFunc(r.Points, func(p Point) bool { return p.Key == own.Key })
		if !there && !own.Gone && r.Foothold == nil && r.Strand != shelf.Reading {
			r.Points = append(r.Points, Point{Key: own.Key, Name: own.Name, Own: true, State: Unmarked})
		}
	}
	if len(r.Spots) == 0 { // no spot noted, no point to meet
		r.Points = slices.DeleteFunc(r.Points, func(p Point) bool { return p.Key == shelf.Spots })
		return r
	}
	state := Met
	for _, s := range r.Spots {
		if !s.Met() {
			state = Open
		}
	}
	i := slices.IndexFunc(r.Points, func(p Point) bool { return p.Key == shelf.Spots })
	if i < 0 {
		r.Points = append(r.Points, Point{Key: shelf.Spots, Name: "Spots"})
		i = len(r.Points) - 1
	}
	r.Points[i].State = state
	return r
}
