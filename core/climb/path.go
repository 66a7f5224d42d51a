package climb

import (
	"math"
	"slices"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// A Student is all that a path is reckoned from.
type Student struct {
	Standing ladder.Standing
	Graph    skill.Graph
	Shelf    []shelf.Item // what may be offered on the instrument, in order
	Presumed []string     // skills taken for granted from where the student began
	Approach approach.Approach
	Home     shelf.Home // what the student practises on
	Studio   shelf.Home // what the studio teaches on
	Plays    instrument.Profile
	Calendar calendar.Calendar
	Slot     calendar.Slot
	Among    []float64 // means of ln(weeks) of the studio's other students
	Now      time.Time // by the studio's clock
}

// Can reports whether both instruments can do an item.
func (s Student) Can(it shelf.Item) bool {
	return s.Home.Lacks(s.Plays, it) == nil && s.Studio.Lacks(s.Plays, it) == nil
}

// offers reports whether an item may be offered: one that
// both instruments can do, not on the ladder and not from before the first book.
func (s Student) offers(it shelf.Item, on map[string]bool) bool {
	return !on[it.ID] && it.Unit != shelf.BeforeBook && s.Can(it)
}

// onLadder is the set of the items of rungs.
func onLadder(lists ...[]ladder.Rung) map[string]bool {
	on := map[string]bool{}
	for _, rungs := range lists {
		for _, r := range rungs {
			on[r.Item.Is()] = true
		}
	}
	return on
}

// Today returns the day of the reckoning.
func (s Student) Today() calendar.Date { return calendar.On(s.Now) }

// given lists the lessons from a day to today that count as weeks: those of the calendar in
// which something was told, and not those in which playing was forbidden. Where no lesson
// was ever closed, the calendar is believed; today's counts.
func (s Student) given(first calendar.Date) Taught {
	today := s.Today()
	worked := func(d calendar.Date) bool {
		return slices.ContainsFunc(s.Standing.Rungs, func(r ladder.Rung) bool { return slices.Contains(r.Worked, d) })
	}
	return s.Slot.Weeks(slices.DeleteFunc(s.Calendar.Lessons(s.Slot, first, today), func(d calendar.Date) bool {
		_, closed := s.Standing.Closed[d]
		return len(s.Standing.Closed) > 0 && d != today && !closed && !worked(d) || s.Standing.Ached(d)
	}))
}

// A Path is a student's way on: the rungs in hand and ahead with their loads,
// what would come after them, when, and where a jump is too steep.
type Path struct {
	Known     upkeep.Known
	Pace      Pace
	Usual     float64         // load
	Lessons   Taught          // from the first taught rung to today
	Loads     map[string]Load // of rungs in hand and ahead, and of proposals, by rung id
	Proposals []Proposal
	Dry       []Dry         // lanes with nothing to come
	Rungs     []ladder.Rung // in hand and ahead, then proposals with their item's id
	Expected  []Expected    // of Rungs
	Jumps     []Jump
	Moves     []Move
	Break     Break
	now       Knows // what is known today
}

// Reckon works out a student's path.
func Reckon(st Student) Path { return reckon(st, true) }

// Foresee works out only the forecast of the rungs that are placed: no
// proposals, jumps or moves.
func Foresee(st Student) Path { return reckon(st, false) }

func reckon(st Student, whole bool) Path {
	s := st.Standing
	p := Path{Known: upkeep.Know(s, st.Presumed, st.Now), Break: breakOf(s, st.Today())}
	loads, usual := begun(s, st.Graph, st.Presumed)
	p.Usual = usual
	first := st.Today()
	for _, r := range s.Rungs {
		if r.Taught != nil {
			first = min(first, calendar.On(*r.Taught))
		}
	}
	p.Lessons = st.given(first)
	p.Pace = paceOf(s, st.Among, p.Lessons, loads, usual, nil)
	p.now = p.knows(st)

	var placed, coming []ladder.Rung
	for _, r := range s.Rungs {
		if r.Foothold != nil {
			continue
		}
		switch s.State(r) {
		case ladder.Current:
			placed = append(placed, r)
		case ladder.Ahead:
			placed, coming = append(placed, r), append(coming, r)
		}
	}
	k := p.now.Clone()
	p.Loads = make(map[string]Load, len(placed)+rungsAhead)
	for _, r := range placed {
		if r.Taught != nil {
			p.Loads[r.ID] = p.now.Weigh(r.Item)
			k.Learn(r.Item)
		}
	}
	last := 0.0
	for _, r := range inTurn(placed) {
		if r.Taught == nil {
			l := k.Weigh(r.Item)
			p.Loads[r.ID], last = l, l.Total
			k.Learn(r.Item)
		}
	}
	p.Rungs = placed
	whole = whole && !s.BeforeBook
	if whole {
		p.propose(st, k, coming, last)
		p.dry(st)
	}
	weigh := make(map[string]float64, len(p.Loads))
	for id, l := range p.Loads {
		weigh[id] = l.Total
	}
	for id, l := range loads { // a rung in hand is as heavy as when it began
		if _, open := weigh[id]; open {
			weigh[id] = l
		}
	}
	p.Expected = forecast(p.Rungs, p.Pace, weigh, usual, p.Lessons, st.Calendar, st.Slot, st.Today())
	p.asItBegan(s, st.Among, loads)
	if s.Ache != nil { // a day that moves with each week of rest says nothing
		for i := range p.Expected {
			e := &p.Expected[i]
			e.Past, e.Low, e.Mid, e.High = false, "", "", ""
		}
	}
	if whole {
		p.jumps(st)
		p.moves(st, coming)
	}
	return p
}

// asItBegan has the usual weeks of each rung in hand be those that were expected when it began: by the
// rungs that were finished then. What sticks is measured by them.
func (p *Path) asItBegan(s ladder.Standing, among []float64, loads map[string]float64) {
	for i := range p.Expected {
		e := &p.Expected[i]
		r, there := s.Rung(e.Rung)
		if !there || r.Taught == nil || len(r.Parts) > 0 {
			continue
		}
		usual := usualLoad(s, loads, r.Taught)
		e.Usual = paceOf(s, among, p.Lessons, loads, usual, r.Taught).Range().times(Effort(loads[r.ID], usual))
		e.Past = e.Spent >= e.Usual.High+judgement.StuckPatience
	}
}

// knows returns what a student can build on today.
func (p *Path) knows(st Student) Knows {
	k := Begin(st.Graph, nil)
	k.Usual = p.Usual
	for id, state := range p.Known.State {
		if state == upkeep.Secure || state == upkeep.Rusty {
			k.know(id) // with what it rests on
		}
	}
	for id, state := range p.Known.State {
		if state != upkeep.Secure {
			k.state[id] = state
		}
	}
	for id, h := range st.Standing.Prepared {
		if n := len(st.Graph[id].Chain); n > 0 {
			k.prepared[id] = math.Min(float64(h.Done)/float64(n), 1)
		}
	}
	var secure []*ladder.Rung
	for i := range st.Standing.Rungs {
		if r := &st.Standing.Rungs[i]; r.Foothold != nil {
			secure = append(secure, r)
		}
	}
	slices.SortStableFunc(secure, func(a, b *ladder.Rung) int { return a.Foothold.Compare(*b.Foothold) })
	for _, r := range secure {
		if n := material(r.Item); n > 0 && r.Item.Strand.Piece() {
			k.bars = append(k.bars, n)
		}
		k.twoHands = k.twoHands || r.Item.Staves > 1
		k.fastest = math.Max(k.fastest, r.Item.Tempo)
	}
	k.bars = k.bars[max(0, len(k.bars)-recent):]
	return k
}

// Knows returns what the student can build on today.
func (p Path) Knows() Knows { return p.now }

// Foresee returns the weeks from first taught to foothold of an item that is not
// on the ladder, if it were begun today.
func (p Path) Foresee(it shelf.Item) Range {
	return p.Pace.Range().times(Effort(p.now.Total(it), p.Usual))
}

// inTurn merges the lanes: the first of each, then the second of each.
func inTurn(rungs []ladder.Rung) []ladder.Rung {
	count := map[shelf.Strand]int{}
	turn := make(map[string]int, len(rungs))
	for _, r := range rungs {
		turn[r.ID] = count[r.Strand]
		count[r.Strand]++
	}
	out := slices.Clone(rungs)
	slices.SortStableFunc(out, func(a, b ladder.Rung) int { return turn[a.ID] - turn[b.ID] })
	return out
}

// Expect finds what is expected of a rung.
func (p Path) Expect(rung string) (Expected, bool) {
	i := slices.IndexFunc(p.Expected, func(e Expected) bool { return e.Rung == rung })
	if i < 0 {
		return Expected{}, false
	}
	return p.Expected[i], true
}
