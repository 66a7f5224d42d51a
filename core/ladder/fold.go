package ladder

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/shelf"
)

// dropAfter is how many rungs in a row an own point must be met at first
// before it is no longer written on the next. Common practice, no source.
const dropAfter = 3

// Fold reads facts into a standing. Items are by id; a rung whose item is
// missing is left out and its facts are Unplaced.
func Fold(facts []Fact, items map[string]shelf.Item) Standing {
	f := &fold{items: items, lanes: map[shelf.Strand][]*Rung{}, rungs: map[string]*Rung{}}
	f.s.Opened, f.s.Closed = map[calendar.Date]time.Time{}, map[calendar.Date]time.Time{}
	f.s.Probes, f.s.Prepared = map[string]Probe{}, map[string]HeadStart{}
	f.s.Approach, f.s.Overruled = map[string]string{}, map[string]Overrule{}
	f.s.Missed, f.s.Extra, f.s.Remote = map[calendar.Date]string{}, map[calendar.Date]string{}, map[calendar.Date]bool{}
	f.s.Changes, f.s.Activities, f.s.Asked = map[calendar.Date][]Fact{}, map[string]ActivityMark{}, map[string]time.Time{}
	inOrder(facts, func(fact *Fact) {
		if k, ok := kinds[fact.Kind]; ok {
			k.apply(f, *fact)
		}
	})
	for _, strand := range shelf.Strands {
		for _, r := range f.lanes[strand] {
			f.s.Rungs = append(f.s.Rungs, f.written(*r))
		}
	}
	return f.s
}

type fold struct {
	s     Standing
	items map[string]shelf.Item
	lanes map[shelf.Strand][]*Rung
	rungs map[string]*Rung
}

func nothing(*fold, Fact) {}

// onRung applies a fact to its rung, or puts it aside when there is none.
func onRung(apply func(*Rung, Fact)) func(*fold, Fact) {
	return func(f *fold, fact Fact) {
		if r := f.rungs[fact.Rung]; r != nil {
			apply(r, fact)
		} else {
			f.s.Unplaced = append(f.s.Unplaced, fact.ID)
		}
	}
}

func (f *fold) rungAdded(fact Fact) {
	item, ok := f.items[fact.Item]
	if !ok {
		f.s.Unplaced = append(f.s.Unplaced, fact.ID)
		return
	}
	r := &Rung{ID: fact.ID, Item: item, Strand: fact.Strand, Added: fact.At, firstMark: map[string]string{}}
	for _, p := range item.Parts {
		r.Parts = append(r.Parts, Part{Name: p})
	}
	for _, name := range item.Points {
		r.Points = append(r.Points, Point{Key: shelf.PointKey(name), Name: name, State: Unmarked})
	}
	f.rungs[r.ID] = r
	f.place(r, fact.After)
}

func (f *fold) rungMoved(fact Fact) {
	r := f.rungs[fact.Rung]
	if r == nil {
		f.s.Unplaced = append(f.s.Unplaced, fact.ID)
		return
	}
	lane := f.lanes[r.Strand]
	i := slices.Index(lane, r)
	f.lanes[r.Strand] = slices.Delete(lane, i, i+1)
	f.place(r, fact.After)
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

func (r *Rung) taught(f Fact) {
	if r.Taught == nil {
		at := f.At
		r.Taught = &at
	}
}

func (f *fold) ownPoint(fact Fact) {
	f.s.Own = append(f.s.Own, OwnMark{Key: "own-" + fact.ID, Name: fact.Text, Since: fact.At})
}

func (f *fold) pointMarked(fact Fact) {
	r := f.rungs[fact.Rung]
	if r == nil {
		f.s.Unplaced = append(f.s.Unplaced, fact.ID)
		return
	}
	state := Open
	if fact.Kind == PointMet {
		state = Met
	}
	for i := range f.s.Own {
		own := &f.s.Own[i]
		if own.Key != fact.Point {
			continue
		}
		if _, marked := r.firstMark[own.Key]; !marked {
			r.firstMark[own.Key] = string(state)
			if own.Run++; state == Open {
				own.Run = 0
			}
			own.Gone = own.Gone || own.Run >= dropAfter
		}
		if j := slices.IndexFunc(r.Points, func(p Point) bool { return p.Key == own.Key }); j < 0 {
			r.Points = append(r.Points, Point{Key: own.Key, Name: own.Name, Own: true})
		}
	}
	for i := range r.Points {
		if p := &r.Points[i]; p.Key == fact.Point {
			at := fact.At
			p.State, p.Since = state, &at
			if r.Held == p.Key && state == Met {
				r.Held = ""
			}
		}
	}
	r.Best = max(r.Best, r.MetPoints())
}

func (f *fold) prepared(fact Fact) {
	h := f.s.Prepared[fact.Skill]
	f.s.Prepared[fact.Skill] = HeadStart{max(h.Done, fact.Count), fact.At}
}

func (f *fold) probed(fact Fact) {
	f.s.Probes[fact.Text] = Probe{fact.Outcome, fact.At}
	if fact.Text == FirstBook && fact.Outcome == "pass" {
		f.s.BeforeBook = false
	}
}

// lessonMoved takes a lesson off its day and gives it another.
func (f *fold) lessonMoved(fact Fact) {
	f.s.Missed[fact.Day] = ""
	delete(f.s.Missed, fact.To)
	f.s.Extra[fact.To] = fact.Text
}

// activityDone keeps how an activity went. A pass of its exit test answers the
// probe of its aim, which stands in the fact's point.
func (f *fold) activityDone(fact Fact) {
	m := f.s.Activities[fact.Text]
	if day := calendar.On(fact.At); len(m.Days) == 0 || m.Days[len(m.Days)-1] != day {
		m.Days = append(m.Days, day)
	}
	m.Level, m.Outcome = fact.Count, fact.Outcome
	f.s.Activities[fact.Text] = m
	if fact.Point != "" {
		f.probed(Fact{Text: fact.Point, Outcome: fact.Outcome, At: fact.At})
	}
}

// weekdays reads days written as 0 for Sunday to 6, such as "1 3 5"; what is no
// day is passed over.
func weekdays(text string) []time.Weekday {
	var out []time.Weekday
	for _, d := range strings.Fields(text) {
		if len(d) == 1 && d[0] >= '0' && d[0] <= '6' && !slices.Contains(out, time.Weekday(d[0]-'0')) {
			out = append(out, time.Weekday(d[0]-'0'))
		}
	}
	return out
}

func (f *fold) answered(fact Fact) {
	f.s.Questions = slices.DeleteFunc(f.s.Questions, func(q Question) bool { return q.ID == fact.Into })
}

// tripped makes a place that tripped at home a spot of its piece, when that is in
// hand.
func (f *fold) tripped(fact Fact) {
	if r := f.rungs[fact.Rung]; r != nil && r.Foothold == nil && !slices.ContainsFunc(r.Spots, func(s Spot) bool { return s.Where == fact.Text }) {
		r.Spots = append(r.Spots, Spot{ID: fact.ID, Where: fact.Text, Goal: 5})
	}
}

func (f *fold) bookChosen(fact Fact) {
	f.s.Books = slices.DeleteFunc(f.s.Books, func(b string) bool { return b == fact.Text })
	if fact.Kind == BookChosen {
		f.s.Books = append(f.s.Books, fact.Text)
		if fact.Item != "" {
			f.s.Began = fact.Item
		}
	}
}

func (r *Rung) spotDrilled(f Fact) {
	for i := range r.Spots {
		if s := &r.Spots[i]; s.ID == f.Spot {
			s.Done = max(s.Done, f.Count)
		}
	}
}

// tried judges a try: one that comes before the piece had its lesson is turned
// back, whatever its outcome was meant to be.
func (f *fold) tried(fact Fact) {
	r := f.rungs[fact.Rung]
	if r == nil {
		f.s.Unplaced = append(f.s.Unplaced, fact.ID)
		return
	}
	try := Try{Part: fact.Part, At: fact.At, Outcome: fact.Outcome}
	if why := r.Refusal(); why != nil {
		try.Outcome, try.Why = "refused", why
	}
	r.Tries = append(r.Tries, try)
	if try.Outcome != "granted" {
		return
	}
	at := fact.At
	all := true
	for i := range r.Parts {
		p := &r.Parts[i]
		if p.Foothold == nil && (fact.Part == "" || fact.Part == p.Name) {
			p.Foothold = &at
		}
		all = all && p.Foothold != nil
	}
	if all && r.Foothold == nil {
		r.Foothold = &at
	}
}

func (f *fold) practised(fact Fact) {
	if r := f.rungs[fact.Rung]; r != nil {
		r.Home = append(r.Home, fact.At)
		return
	}
	f.s.Practice = append(f.s.Practice, Practice{fact.ID, fact.Day, fact.Minutes, fact.Text})
}

// ticked keeps a tick of a task; where it names a secure piece, that was played.
func (f *fold) ticked(fact Fact) {
	f.s.Ticks = append(f.s.Ticks, Tick{fact.ID, fact.Day, fact.Text})
	if r := f.rungs[fact.Rung]; r != nil && r.Foothold != nil {
		r.Home = append(r.Home, fact.At)
	}
}

func (f *fold) lesson(fact Fact) {
	into := f.s.Opened
	if fact.Kind == LessonClosed {
		into = f.s.Closed
	}
	if _, told := into[fact.Day]; !told {
		into[fact.Day] = fact.At
	}
}

// written finishes a rung: the student's own points that still stand are
// written on it, and the point "spots" follows from the spots; without any it
// is left out.
func (f *fold) written(r Rung) Rung {
	r.Points = slices.Clone(r.Points)
	for _, own := range f.s.Own {
		there := slices.ContainsFunc(r.Points, func(p Point) bool { return p.Key == own.Key })
		secured := r.Foothold != nil && r.Foothold.Before(own.Since)
		if !there && !own.Gone && !secured && r.Foothold == nil {
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
