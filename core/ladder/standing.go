package ladder

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A Standing is what the facts of one student add up to.
type Standing struct {
	Rungs    []Rung     // lane by lane in the order of shelf.Strands, from the foot up
	Own      []OwnMark  // the student's standing points, oldest first
	Practice []Practice // by day reported
	Opened   map[calendar.Date]time.Time
	Closed   map[calendar.Date]time.Time
	Unplaced []string // ids of facts about rungs that are not here

	Books      []string             // books and pools chosen, in the order of choosing
	Began      string               // the item at which the student began; empty for the foot of the first book
	BeforeBook bool                 // has not begun the first book
	Probes     map[string]Probe     // the last outcome of each
	Prepared   map[string]HeadStart // by skill
	Taste      shelf.Taste          // as asked; empty when never asked
	Approach   map[string]string    // questions answered otherwise since the student came
	Overruled  map[string]Overrule  // suggestions, by their key

	Missed     map[calendar.Date]string // lessons that were not given, with the reason told
	Extra      map[calendar.Date]string // lessons outside the weekly slot, with their time; empty for the usual
	Remote     map[calendar.Date]bool   // lessons given from afar
	Changes    map[calendar.Date][]Fact // what the teacher did to a lesson's plan, in order
	Activities map[string]ActivityMark  // by id
	Asked      map[string]time.Time     // activities that were asked for again, by id
	Seen       []Sight                  // faults of body and hand, in order
	Body       Body                     // as last measured
	Mood       string                   // as last seen
	Ache       *Ache                    // a pain told and not cleared since
	HomeDays   HomeDays                 // when the family practises
	Questions  []Question               // of the family, not answered yet
	Ticks      []Tick                   // of tasks done at home, in order
	Treat      *Treat                   // that the family counts towards; nil for none
}

// HomeDays are the days on which a family practises; the zero HomeDays is every
// day, the usual minutes.
type HomeDays struct {
	Days    []time.Weekday
	Minutes int // a day; 0 for the usual of the age
}

// On reports whether a day is one of them.
func (h HomeDays) On(d calendar.Date) bool {
	return len(h.Days) == 0 || slices.Contains(h.Days, d.Weekday())
}

// A Question is what a family asks the teacher.
type Question struct {
	ID   string // of the fact that asked it
	Text string
	At   time.Time
}

// A Tick is a task of a week sheet that was done at home.
type Tick struct {
	ID  string // of the fact that ticked it
	Day calendar.Date
	Key string // of the task
}

// An ActivityMark is how an activity went.
type ActivityMark struct {
	Days    []calendar.Date // on which it was done, in order
	Level   int             // of the last time, from 1
	Outcome string          // of the last time: pass, nearly or not-yet
}

// A Sight is a fault seen, by its key.
type Sight struct {
	Fault string
	At    time.Time
}

// A Body is what was measured of a player, in cm by name; a zero At for never.
type Body struct {
	At time.Time
	CM map[string]float64
}

// A Treat is what a family has named to count towards, by its own choice. The
// program counts and buys nothing.
type Treat struct {
	Name   string
	Counts string // Footholds or KeptDays
	Goal   int
	Since  time.Time
}

// Done counts what was reached since the treat was named.
func (t Treat) Done(s Standing) int {
	if t.Counts == Footholds {
		n := 0
		for _, r := range s.Rungs {
			if r.Foothold != nil && !r.Foothold.Before(t.Since) {
				n++
			}
		}
		return n
	}
	from, days := calendar.On(t.Since), map[calendar.Date]bool{}
	for _, p := range s.Practice {
		days[p.Day] = p.Day >= from
	}
	for _, tick := range s.Ticks {
		days[tick.Day] = tick.Day >= from
	}
	n := 0
	for _, since := range days {
		if since {
			n++
		}
	}
	return n
}

// An Ache is a pain that was told.
type Ache struct {
	Side  string // right, left or both
	Where string
	At    time.Time
}

// A Probe is how a probe was last answered.
type Probe struct {
	Outcome string
	At      time.Time
}

// later is how long a suggestion that was put off stays away.
const later = 14 * 24 * time.Hour

// Refused reports whether a suggestion was turned down for good, or put off
// within the last two weeks.
func (s Standing) Refused(key string, now time.Time) bool {
	o, there := s.Overruled[key]
	return there && (o.Outcome == "never" || now.Sub(o.At) < later)
}

// A HeadStart is how far the preparation chain of a skill was followed.
type HeadStart struct {
	Done int // tasks
	Last time.Time
}

// An Overrule is a suggestion turned down: for now, or for good.
type Overrule struct {
	Outcome string // later or never
	At      time.Time
}

// A Rung is an item on this student's ladder.
type Rung struct {
	ID       string
	Item     shelf.Item
	Strand   shelf.Strand
	Added    time.Time
	Parked   bool
	Taught   *time.Time // when its first lesson was
	Foothold *time.Time
	Polished bool
	Parts    []Part
	Points   []Point
	Held     string // key of the point held in mind, or empty
	Spots    []Spot
	Tries    []Try
	Heard    []Hearing
	Judged   []Judgement
	Opened   int           // lessons that the student opened with it
	Home     []time.Time   // when it was played at home, as told
	Target   calendar.Date // the day it should be polished by; empty for none
	Best     int           // the most points that were met at one time

	firstMark map[string]string // first mark of each own point here: met or open
}

// A Part is one part of an item with a foothold of its own.
type Part struct {
	Name     string
	Foothold *time.Time
}

// A Point is a focus point of a rung.
type Point struct {
	Key   string
	Name  string
	Own   bool // the student's, not the piece's
	State PointState
	Since *time.Time // of the present mark
}

// A PointState says how a focus point stands.
type PointState string

// The states of a point.
const (
	Unmarked PointState = "unmarked"
	Met      PointState = "met"
	Open     PointState = "open"
)

// A Spot is a short hard place with a drill and a count.
type Spot struct {
	ID    string
	Where string
	Goal  int
	Done  int // the best run so far
}

// Met reports whether the spot reached its count.
func (s Spot) Met() bool { return s.Done >= s.Goal }

// A Try is one try for a foothold.
type Try struct {
	Part    string
	At      time.Time
	Outcome string         // granted, not-yet or refused
	Why     *reason.Reason // of a refusal
}

// A Hearing is a secure piece heard again.
type Hearing struct {
	Grade string
	At    time.Time
}

// A Judgement is what the student said before the teacher did.
type Judgement struct {
	Point   string
	Outcome string
	At      time.Time
}

// An OwnMark is a standing point that follows the student from rung to rung.
type OwnMark struct {
	Key   string
	Name  string
	Since time.Time
	Run   int // rungs in a row on which it was met at first
	Gone  bool
}

// Practice is one day at home as told.
type Practice struct {
	ID      string // of the fact that told it
	Day     calendar.Date
	Minutes int
	Feel    string
}

// State says where a rung stands on the ladder.
type State string

// The states of a rung.
const (
	Ahead   State = "ahead"
	Current State = "current"
	Secure  State = "secure"
	Parked  State = "parked"
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

// MetPoints counts the points that are met.
func (r Rung) MetPoints() int {
	n := 0
	for _, p := range r.Points {
		if p.State == Met {
			n++
		}
	}
	return n
}

// Failed counts the tries in a row, up to the last, that brought no foothold.
func (r Rung) Failed() int {
	n := 0
	for _, t := range slices.Backward(r.Tries) {
		if t.Outcome == "granted" {
			break
		}
		n++
	}
	return n
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

// Refusal returns why a try for a foothold would be turned back, or nil.
func (r Rung) Refusal() *reason.Reason {
	if r.Taught == nil {
		why := reason.Of("not-taught", "title", r.Item.Title)
		return &why
	}
	return nil
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

// State returns where a rung stands: the lowest rung of each lane that is
// neither secure nor parked is current, and so is any that has been taught.
// Before the first book there is no order: all that is not secure is current.
func (s Standing) State(r Rung) State { return s.state(&r) }

func (s *Standing) state(r *Rung) State {
	switch {
	case r.Foothold != nil:
		return Secure
	case r.Parked:
		return Parked
	case r.Taught != nil || s.BeforeBook:
		return Current
	}
	for i := range s.Rungs {
		other := &s.Rungs[i]
		if other.Strand == r.Strand && other.Foothold == nil && !other.Parked {
			if other.ID == r.ID {
				return Current
			}
			break
		}
	}
	return Ahead
}

// In returns the rungs in a state, lane by lane.
func (s Standing) In(state State) []Rung {
	var which []int
	for i := range s.Rungs {
		if s.state(&s.Rungs[i]) == state {
			which = append(which, i)
		}
	}
	out := make([]Rung, len(which))
	for k, i := range which {
		out[k] = s.Rungs[i]
	}
	return out
}

// Rung finds a rung by id.
func (s Standing) Rung(id string) (Rung, bool) {
	for _, r := range s.Rungs {
		if r.ID == id {
			return r, true
		}
	}
	return Rung{}, false
}

// Ready reports whether a current rung is ready to try: it has had its lesson
// and every point is met.
func (r Rung) Ready() bool {
	if r.Taught == nil || r.Foothold != nil {
		return false
	}
	for _, p := range r.Points {
		if p.State != Met {
			return false
		}
	}
	return len(r.Points) > 0
}

// Holding returns the key of the point to hold in mind: the one that was
// chosen, else the first that is not met; empty when all are.
func (r Rung) Holding() string {
	if r.Held != "" {
		return r.Held
	}
	for _, p := range r.Points {
		if p.State != Met && p.Key != shelf.Spots {
			return p.Key
		}
	}
	return ""
}

// Missing lists the names of points that are not met, and of spots by place.
func (r Rung) Missing() []string {
	var out []string
	for _, p := range r.Points {
		if p.State != Met && p.Key != shelf.Spots {
			out = append(out, p.Name)
		}
	}
	for _, s := range r.Spots {
		if !s.Met() {
			out = append(out, s.Where)
		}
	}
	return out
}

// LastHeard returns when a secure rung was last played for the teacher: its
// last hearing, or its foothold.
func (r Rung) LastHeard() time.Time {
	last := time.Time{}
	if r.Foothold != nil {
		last = *r.Foothold
	}
	for _, h := range r.Heard {
		if h.At.After(last) {
			last = h.At
		}
	}
	return last
}
