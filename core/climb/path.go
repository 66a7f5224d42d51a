package climb

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// FillKey is the name of the suggestion to fill the ladder, by which a teacher
// turns all proposals down.
const FillKey = "proposals"

// rungsAhead is how many rungs a ladder looks ahead.
const rungsAhead = 12

// A Student is all that a path is reckoned from.
type Student struct {
	Standing ladder.Standing
	Graph    skill.Graph
	Shelf    []shelf.Item // all of the studio, in order
	Presumed []string     // skills taken for granted from where the student began
	Approach approach.Approach
	Home     shelf.Home // what the student practises on
	Studio   shelf.Home // what the studio teaches on
	Plays    shelf.Instrument
	Calendar calendar.Calendar
	Slot     calendar.Slot
	Now      time.Time // by the studio's clock
}

// Can reports whether both instruments can do an item.
func (s Student) Can(it shelf.Item) bool { return s.Home.Lacks(it) == nil && s.Studio.Lacks(it) == nil }

// Today returns the day of the reckoning.
func (s Student) Today() calendar.Date { return calendar.On(s.Now) }

// A Proposal is a rung that is not on the ladder yet, and why it would come.
type Proposal struct {
	Item shelf.Item
	Why  []reason.Reason
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
	Rungs     []ladder.Rung // in hand and ahead, then proposals with their item's id
	Expected  []Expected    // of Rungs
	Jumps     []Jump
	Moves     []Move
	Break     Break
	now       Knows // what is known today
}

// A Jump is a rung too steep for the student, and an item that would bridge it.
type Jump struct {
	Rung   ladder.Rung
	Load   Load
	Over   float64     // load over the usual
	Bridge *shelf.Item // nil when the shelf has none
	Eases  float64     // how much load the bridge takes off
	Meets  []string    // ids of the new and needed skills that it meets first
	Lacks  []string    // ids of needed skills that are unknown by then
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
	p.Lessons = st.Calendar.Lessons(st.Slot, first, st.Today())
	p.Pace = paceOf(s, p.Lessons, loads, usual)
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
	if whole {
		p.jumps(st)
		p.moves(st, coming)
	}
	return p
}

// A Move is a rung ahead that would better stand elsewhere in its lane.
type Move struct {
	Rung  ladder.Rung
	After string // the rung it would stand above; empty for the lowest place ahead
	Why   reason.Reason
}

// moves compares the rungs placed ahead with the best order of the same rungs
// and names the first change of a lane, when it is worth a suggestion, and every
// rung that comes too late for its date.
func (p *Path) moves(st Student, coming []ladder.Rung) {
	if len(coming) < 2 || len(coming) > rungsAhead+4 {
		return
	}
	coming = inTurn(coming)
	items := make([]shelf.Item, len(coming))
	wish := Wish{Want: len(coming), NewSkills: st.Approach.NewSkills(), Graded: st.Approach["slope"] == "graded", KeepLanes: true, Due: map[string]int{}}
	asIs := make([]int, len(coming))
	for i, r := range coming {
		items[i], asIs[i] = r.Item, i
		if place, dated := p.due(r, st.Today()); dated {
			wish.Due[r.Item.ID] = place
		}
	}
	k := p.now.Clone()
	for _, r := range st.Standing.In(ladder.Current) {
		k.Learn(r.Item)
	}
	now := newOrdering(k, items, wish).costOf(asIs)
	if now < judgement.OrderWorth { // no order costs less than nothing
		return
	}
	best, cost := Order(k, items, wish)
	if now-cost < judgement.OrderWorth {
		return
	}
	for _, strand := range shelf.Strands {
		var now, then []ladder.Rung
		for _, r := range coming {
			if r.Strand == strand {
				now = append(now, r)
			}
		}
		for _, c := range best {
			if coming[c.Index].Strand == strand {
				then = append(then, coming[c.Index])
			}
		}
		for i := range now {
			if now[i].ID == then[i].ID {
				continue
			}
			m := Move{Rung: then[i], Why: p.whyMove(then[i], now[i], wish)}
			if i > 0 {
				m.After = now[i-1].ID
			}
			p.Moves = append(p.Moves, m)
			break
		}
	}
}

// due returns the place from 1 at which a rung with a date must begin at the
// latest, so that it has its foothold and its weeks to be polished.
func (p *Path) due(r ladder.Rung, today calendar.Date) (int, bool) {
	if r.Target == "" {
		return 0, false
	}
	e, _ := p.Expect(r.ID)
	start := float64(r.Target.Sub(today))/7 - judgement.PolishWeeks - e.Whole.Mid
	place := 1
	for _, other := range p.Expected {
		if other.FromIn > 0 && other.FromIn < start && other.Rung != r.ID {
			place++
		}
	}
	return place, true
}

func (p *Path) whyMove(sooner, later ladder.Rung, wish Wish) reason.Reason {
	args := []string{"title", sooner.Item.Title, "before", later.Item.Title}
	if place := wish.Due[sooner.Item.ID]; place > 0 {
		return reason.Of("move-for-date", append(args, "day", string(sooner.Target))...)
	}
	for _, id := range sooner.Item.Brings {
		if slices.Contains(later.Item.Needs, id) {
			return reason.Of("move-brings", append(args, "skill", p.now.graph.Name(id))...)
		}
	}
	a, b := p.Loads[sooner.ID], p.Loads[later.ID]
	if a.Total < b.Total {
		return reason.Of("move-landing", append(args, "load", strconv.FormatFloat(a.Total, 'f', 1, 64), "than", strconv.FormatFloat(b.Total, 'f', 1, 64))...)
	}
	return reason.Of("move-better", args...)
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
		if n := material(r.Item); n > 0 && paged(r.Item) {
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

// propose fills the ladder up to twelve rungs ahead from the books and pools
// chosen for the student.
func (p *Path) propose(st Student, k Knows, coming []ladder.Rung, last float64) {
	on := map[string]bool{}
	for _, r := range st.Standing.Rungs {
		on[r.Item.ID] = true
	}
	wish := Wish{Want: rungsAhead - len(coming), NewSkills: st.Approach.NewSkills(), Graded: st.Approach["slope"] == "graded",
		Taste: TasteOf(st.Standing), Ahead: map[shelf.Strand]int{}, Last: last}
	for _, r := range coming {
		wish.Ahead[r.Strand]++
	}
	if wish.Want <= 0 || len(st.Standing.Books) == 0 || st.Standing.Refused(FillKey, st.Now) {
		return
	}
	choices, _ := p.choose(st, k, candidates(st, on), wish)
	for _, c := range choices {
		it := c.item
		p.Loads[it.ID] = k.Weigh(it)
		k.Learn(it)
		p.Proposals = append(p.Proposals, Proposal{it, c.why})
		p.Rungs = append(p.Rungs, ladder.Rung{ID: it.ID, Item: it, Strand: it.Strand})
	}
}

type proposed struct {
	item shelf.Item
	why  []reason.Reason
}

func (p *Path) choose(st Student, k Knows, items []shelf.Item, wish Wish) ([]proposed, float64) {
	order, cost := Order(k, items, wish)
	out := make([]proposed, 0, len(order))
	for _, c := range order {
		it := items[c.Index]
		var why []reason.Reason
		say := func(code string, pairs ...string) {
			why = append(why, reason.Of(code, append([]string{"title", it.Title}, pairs...)...))
		}
		switch {
		case c.AfterClimb && c.Load <= k.Usual:
			say("landing-after-climb")
		case len(c.Passed) > 0:
			say("before-in-book", "passed", items[c.Passed[0]].Title, "book", it.Book)
		case it.Strand == shelf.Repertoire && it.Taste != "" && wish.Taste[it.Taste] >= 0.5:
			say("to-taste", "taste", string(it.Taste))
		default:
			say("next-in-book", "book", it.Book)
		}
		if c.Load >= k.Usual+judgement.Climb {
			say("a-climb", "load", strconv.FormatFloat(c.Load, 'f', 1, 64))
		}
		out = append(out, proposed{it, why})
	}
	return out, cost
}

// candidates lists the next items of each chosen book and pool, lane by lane,
// that are not on the ladder and that the home instrument can do.
func candidates(st Student, on map[string]bool) []shelf.Item {
	chosen := map[string]bool{}
	for _, b := range st.Standing.Books {
		chosen[b] = true
	}
	room := map[shelf.Strand]int{shelf.Book: 9, shelf.Technique: 5, shelf.Reading: 4, shelf.Repertoire: 8}
	from := starts(st, chosen)
	var out []shelf.Item
	for i, it := range st.Shelf {
		if it.Instrument != st.Plays || !chosen[it.Book] || on[it.ID] || it.Unit == shelf.BeforeBook || room[it.Strand] == 0 || !st.Can(it) {
			continue
		}
		if it.Strand != shelf.Repertoire && i < from[it.Strand] {
			continue // below where the student stands or began
		}
		room[it.Strand]--
		out = append(out, it)
	}
	return out
}

// starts returns for each lane the place on the shelf from which items are
// offered: after the last of a chosen book that is on the ladder; where the lane
// has none, the unit of the lowest rung of any lane; on an empty ladder, the
// unit at which the student began.
func starts(st Student, chosen map[string]bool) map[shelf.Strand]int {
	place := map[string]int{}
	for i, it := range st.Shelf {
		place[it.ID] = i
	}
	lane := map[shelf.Strand]int{}
	least, found := place[st.Standing.Began]
	for _, r := range st.Standing.Rungs {
		i, there := place[r.Item.ID]
		if !there || !chosen[r.Item.Book] || r.Strand == shelf.Repertoire {
			continue
		}
		if len(lane) == 0 {
			least, found = i, true
		}
		lane[r.Strand] = max(lane[r.Strand], i+1)
		least = min(least, i)
	}
	for _, s := range shelf.Strands {
		if lane[s] == 0 && found {
			lane[s] = unitOf(st.Shelf, least)
		}
	}
	return lane
}

// unitOf returns the place of the first item of the unit that an item is in.
func unitOf(items []shelf.Item, at int) int {
	for at > 0 && items[at-1].Unit == items[at].Unit && items[at-1].Book == items[at].Book {
		at--
	}
	return at
}

// TasteOf returns how well each taste suits, 0 to 1: as asked, and as seen in
// what the student opens with. It is empty when nothing tells.
func TasteOf(s ladder.Standing) map[shelf.Taste]float64 {
	seen, total := map[shelf.Taste]float64{}, 0.0
	if s.Taste != "" {
		seen[s.Taste], total = 4, 4
	}
	for _, r := range s.Rungs {
		if r.Item.Taste != "" && r.Opened > 0 {
			n := math.Min(float64(r.Opened), 5)
			seen[r.Item.Taste] += n
			total += n
		}
	}
	out := map[shelf.Taste]float64{}
	for t, n := range seen {
		out[t] = n / total
	}
	return out
}

// Presumed returns the skills of all items that stand on the shelf before the
// one at which a student began, on the same instrument.
func Presumed(items []shelf.Item, plays shelf.Instrument, began string) []string {
	at := slices.IndexFunc(items, func(it shelf.Item) bool { return it.ID == began })
	if at < 0 {
		return nil
	}
	at = unitOf(items, at)
	var out []string
	seen := map[string]bool{}
	for _, it := range items[:at] {
		if it.Instrument != plays || it.Strand == shelf.Repertoire {
			continue
		}
		for _, id := range it.Skills() {
			if !seen[id] {
				seen[id] = true
				out = append(out, id)
			}
		}
	}
	return out
}

// jumps finds rungs ahead that are too steep and, for each, the item of the
// shelf that eases it most without being steep itself.
func (p *Path) jumps(st Student) {
	on := map[string]bool{}
	for _, r := range st.Standing.Rungs {
		on[r.Item.ID] = true
	}
	for _, r := range p.Rungs {
		on[r.Item.ID] = true
	}
	k := p.now.Clone()
	for _, r := range inTurn(p.Rungs) {
		if r.Taught == nil && p.Loads[r.ID].Total > p.Usual+judgement.TooSteep {
			// steep even when all that can be prepared by then is
			e, _ := p.Expect(r.ID)
			then := k.foreseen(r.Item, e.FromIn)
			if load := then.Weigh(r.Item); load.Total > p.Usual+judgement.TooSteep {
				p.Jumps = append(p.Jumps, p.bridge(st, then, on, r, load))
			}
		}
		k.Learn(r.Item)
	}
}

// foreseen returns what is known with the head starts on an item's new skills
// as far on as they can be some weeks from now.
func (k Knows) foreseen(it shelf.Item, weeks float64) Knows {
	prepared := map[string]float64{}
	for id, share := range k.prepared {
		prepared[id] = share
	}
	for _, id := range it.Brings {
		if n := k.graph[id].Weeks(); n > 0 {
			prepared[id] = math.Min(math.Max(prepared[id], math.Floor(weeks)/float64(n)), 1)
		}
	}
	k.prepared = prepared
	return k
}

func (p *Path) bridge(st Student, k Knows, on map[string]bool, r ladder.Rung, load Load) Jump {
	j := Jump{Rung: r, Load: load, Over: load.Total - p.Usual}
	helps := map[string]bool{}
	for _, id := range load.New {
		helps[id] = true
	}
	for _, id := range r.Item.Needs {
		if state := k.state[id]; state == "" || state == upkeep.Unknown || state == upkeep.Tasted {
			helps[id] = true
			j.Lacks = append(j.Lacks, id)
		}
	}
	for i, it := range st.Shelf {
		if it.Instrument != st.Plays || on[it.ID] || it.Unit == shelf.BeforeBook || !st.Can(it) ||
			!slices.ContainsFunc(it.Brings, func(id string) bool { return helps[id] }) &&
				!slices.ContainsFunc(it.Revisits, func(id string) bool { return helps[id] }) {
			continue
		}
		if k.Total(it) > p.Usual+judgement.Climb {
			continue
		}
		after := k.Clone()
		after.Learn(it)
		if eases := load.Total - after.Total(r.Item); eases > j.Eases+1e-9 && eases >= 0.5 {
			j.Bridge, j.Eases, j.Meets = &st.Shelf[i], eases, nil
			for _, id := range slices.Concat(load.New, j.Lacks) {
				if slices.Contains(it.Brings, id) || slices.Contains(it.Revisits, id) {
					j.Meets = append(j.Meets, id)
				}
			}
		}
	}
	return j
}

// Why names the jump: how steep, and what is new in it.
func (j Jump) Why(g skill.Graph) reason.Reason {
	args := []string{"title", j.Rung.Item.Title, "over", strconv.FormatFloat(j.Over, 'f', 1, 64),
		"new", strings.Join(g.Names(j.Load.New), ", "), "count", strconv.Itoa(len(j.Load.New)), "needs", strings.Join(g.Names(j.Lacks), ", ")}
	if j.Bridge == nil {
		return reason.Of("jump-no-bridge", args...)
	}
	return reason.Of("jump-bridge", append(args, "bridge", j.Bridge.Title, "book", j.Bridge.Book, "meets", strings.Join(g.Names(j.Meets), ", "))...)
}

// Expect finds what is expected of a rung.
func (p Path) Expect(rung string) (Expected, bool) {
	i := slices.IndexFunc(p.Expected, func(e Expected) bool { return e.Rung == rung })
	if i < 0 {
		return Expected{}, false
	}
	return p.Expected[i], true
}
