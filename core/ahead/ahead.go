// Package ahead plans head starts: the preparation chain of each skill to
// come, week by week, so that it is ready before the rung that needs it.
//
// A chain is a run of weeks of work, one after another; a week holds as many
// skills as the approach prepares at once; a chain is due when its rung
// begins. These are unit jobs with chains and due dates on identical machines.
// The least greatest lateness is found by modified due dates and list
// scheduling (Brucker, Garey and Johnson, "Scheduling equal-length tasks under
// treelike precedence constraints to minimize maximum lateness", Mathematics of
// Operations Research 2, 1977): each week's due date is lowered to one less
// than that of the week after it, and each week takes the ready work that is
// due first.
package ahead

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// A Chain is weeks of work that must follow each other.
type Chain struct {
	Length int // weeks
	Due    int // weeks from now in which it should be finished; 0 or less is already late
}

// A Slot is where a week of a chain was put.
type Slot struct{ Chain, Step, Week int } // Step and Week from 0

// Schedule puts the weeks of chains into weeks from 0, at most machines in one,
// with the least greatest lateness. It returns the slots in order and the
// greatest lateness in weeks, which is negative when all are early. It costs
// O(n log n) comparisons a week for n chains.
func Schedule(chains []Chain, machines int) ([]Slot, int) {
	// Within a chain the modified due date of step i is Due − (Length−1−i), so
	// that the ready step of a chain is always its earliest open one.
	done := make([]int, len(chains))
	left := 0
	for _, c := range chains {
		left += c.Length
	}
	order := make([]int, len(chains))
	for i := range order {
		order[i] = i
	}
	var slots []Slot
	late := math.MinInt
	for week := 0; left > 0; week++ {
		slices.SortStableFunc(order, func(a, b int) int {
			return cmp.Compare(chains[a].Due-chains[a].Length+done[a], chains[b].Due-chains[b].Length+done[b])
		})
		room := machines
		for _, i := range order {
			if room == 0 {
				break
			}
			if done[i] == chains[i].Length {
				continue
			}
			slots = append(slots, Slot{i, done[i], week})
			done[i]++
			if done[i] == chains[i].Length {
				late = max(late, week+1-chains[i].Due)
			}
			room--
			left--
		}
	}
	return slots, late
}

// gap is the most weeks between two tasks of a chain: about one every couple of rungs.
// Common practice, no source.
const gap = 4

// Latest puts the weeks of chains as late as may be, each chain ready a week before it is
// due and its weeks spread towards that, and returns for each chain the week in which it
// begins; false where they do not all fit so. It fills the weeks from the last backwards with the chain that has least room
// left before it, which is list scheduling with time turned round.
func Latest(chains []Chain, machines int) (begins []int, ok bool) {
	for _, spare := range []int{1, 0} {
		for widest := gap; widest > 0; widest-- {
			if begins, ok = latest(chains, machines, widest, spare); ok {
				return begins, true
			}
		}
	}
	return begins, false
}

func latest(chains []Chain, machines, widest, spare int) ([]int, bool) {
	begins, left, last := make([]int, len(chains)), make([]int, len(chains)), make([]int, len(chains))
	end := 0
	for i, c := range chains {
		left[i], last[i] = c.Length, math.MaxInt32
		end = max(end, c.Due)
	}
	step := func(c Chain) int { return max(min((c.Due-1)/c.Length, widest), 1) }
	for week := end - 1; week >= 0; week-- {
		var fit []int
		for i, c := range chains {
			ready := c.Due - spare // a week to spare, where there is one
			if c.Due <= c.Length {
				ready = c.Due
			}
			if left[i] > 0 && week < ready && last[i]-week >= step(c) {
				fit = append(fit, i)
			}
		}
		slices.SortStableFunc(fit, func(a, b int) int { return cmp.Compare(week-left[a]*step(chains[a]), week-left[b]*step(chains[b])) })
		for _, i := range fit[:min(len(fit), machines)] {
			left[i]--
			last[i], begins[i] = week, week
		}
	}
	return begins, !slices.ContainsFunc(left, func(n int) bool { return n > 0 })
}

// A HeadStart is the plan for one skill to come.
type HeadStart struct {
	Skill string       `json:"skill"`
	Name  string       `json:"name"`
	Rung  string       `json:"rung" doc:"the first rung that brings it; an item's id for a proposal"`
	Title string       `json:"title" doc:"of that rung"`
	Rungs int          `json:"rungs" doc:"how many rungs of its lane away it is; 1 is the next"`
	Due   int          `json:"due" doc:"weeks from now until that rung begins"`
	Tasks []skill.Link `json:"tasks" doc:"the whole chain"`
	Done  int          `json:"done" doc:"tasks done so far"`
	Last  time.Time    `json:"-"` // when one was shown last; zero for none
	Start int          `json:"start" doc:"week from now in which the next task begins"`
	Ready int          `json:"ready" doc:"week from now by which it is ready"`
	State State        `json:"state" enum:"ready,running,waiting,late"`
	Gap   bool         `json:"gap,omitempty" doc:"it closes a gap: the skill was missing when it was asked after"`
	Tune  string       `json:"tune,omitempty" doc:"item of the old tune that this week's task is made from"`
	Fixes []Fix        `json:"fixes" doc:"what to do when it cannot be ready"`
}

// A State says how a head start stands.
type State string

// The states of a head start.
const (
	Ready   State = "ready"   // the chain is done
	Running State = "running" // this week has a task
	Waiting State = "waiting" // planned for later
	Late    State = "late"    // it cannot be ready in time: an open end
)

// A Fix is a way to make a late head start ready.
type Fix struct {
	Do  string        `json:"do" enum:"landing,delay,drop"`
	Why reason.Reason `json:"why"`
}

// far is how many weeks ahead head starts are planned.
const far = 26

// Key is the name of the suggestion to begin a head start, by which a teacher
// turns it down.
func Key(skill string) string { return "head-start:" + skill }

// Plan plans the head starts of a path, the most urgent first. A skill is to
// come when a rung ahead brings it, or takes it for granted, and the student has not
// begun to learn it; one whose head start was turned down is left out.
func Plan(s ladder.Standing, g skill.Graph, p climb.Path, atOnce int, now time.Time) []HeadStart {
	starts := slices.DeleteFunc(coming(s, g, p), func(h HeadStart) bool { return s.Refused(Key(h.Skill), now) })
	var chains []Chain
	var of []int
	for i := range starts {
		h := &starts[i]
		weeks := h.left()
		if weeks == 0 {
			h.State = Ready
			continue
		}
		chains, of = append(chains, Chain{weeks, h.Due}), append(of, i)
	}
	slots, _ := Schedule(chains, atOnce)
	for i := range starts {
		starts[i].Start = far
	}
	for _, slot := range slots {
		h := &starts[of[slot.Chain]]
		h.Start = min(h.Start, slot.Week)
		h.Ready = max(h.Ready, slot.Week+1)
	}
	var early []Chain // there is time: towards its rung, not at once
	var at []int
	for i, c := range chains {
		if h := starts[of[i]]; h.Ready <= h.Due {
			early, at = append(early, c), append(at, of[i])
		}
	}
	if spread, fits := Latest(early, atOnce); fits {
		for i, begins := range spread {
			h := &starts[at[i]]
			h.Start, h.Ready = begins, max(h.Ready, h.Due-1)
		}
	}
	for i := range starts {
		h := &starts[i]
		if h.Gap { // it was wanted long ago
			h.Due = max(h.Due, h.Ready)
		}
		switch {
		case h.State == Ready:
			h.Start = 0
		case h.Ready > h.Due:
			h.State = Late
			h.Fixes = fixes(*h, starts)
		case h.Start == 0 || h.Done > 0:
			h.State = Running
		default:
			h.State = Waiting
		}
		h.Tasks, h.Tune = slices.Clone(h.Tasks), ""
		if h.Done > 0 {
			h.name(h.Done-1, s, h.Last)
		}
		if h.Done < len(h.Tasks) {
			h.Tune = h.name(h.Done, s, now)
		}
	}
	return starts
}

// longest is how many bars an old tune has that serves a head start. A judgement.
const longest = 20

// name names the old tune of a task that is made from one, as it was on a day: the
// secure piece that was newest before it, short, on one staff where hands are no matter of the task,
// and for a minor form in a major key. It returns the item.
func (h *HeadStart) name(n int, s ladder.Standing, at time.Time) (tune string) {
	task := h.Tasks[n]
	if task.Old == "" {
		return ""
	}
	var best ladder.Rung
	for _, r := range s.In(ladder.Secure) {
		it := r.Item
		fits := r.Strand.Piece() && it.HasScore && it.Staves == 1 && it.Bars <= longest && calendar.On(*r.Foothold) < calendar.On(at)
		if task.Old == skill.OldMinor && !strings.HasSuffix(it.Key, " major") || !fits || best.Foothold != nil && !r.Foothold.After(*best.Foothold) {
			continue
		}
		best = r
	}
	if best.Foothold == nil {
		return ""
	}
	h.Tasks[n].Do += ": " + best.Item.Title
	return best.Item.ID
}

// coming lists the skills to come with their first rung, by when it begins. What
// a technique or reading page brings needs no head start: the page is one.
func coming(s ladder.Standing, g skill.Graph, p climb.Path) []HeadStart {
	if s.BeforeBook {
		return nil
	}
	begins := make(map[string]float64, len(p.Expected))
	for _, e := range p.Expected {
		begins[e.Rung] = e.FromIn
	}
	away := map[string]int{}
	inLane := map[shelf.Strand]int{}
	for _, r := range p.Rungs {
		if r.Taught == nil {
			inLane[r.Strand]++
			away[r.ID] = inLane[r.Strand]
		}
	}
	rungs := slices.Clone(p.Rungs)
	slices.SortStableFunc(rungs, func(a, b ladder.Rung) int { return cmp.Compare(begins[a.ID], begins[b.ID]) })
	seen := map[string]bool{}
	var out []HeadStart
	for _, sk := range gaps(g, p.Known) { // at once, whatever comes
		seen[sk.ID] = true
		h := start(s, sk)
		h.Gap, h.Due = true, h.left()
		out = append(out, h)
	}
	for _, r := range rungs {
		for _, id := range slices.Concat(r.Item.Brings, r.Item.Needs) {
			sk, known := g[id]
			if seen[id] || !known || !p.Known.State[id].Unmet() {
				continue
			}
			seen[id] = true
			if r.Strand == shelf.Technique || r.Strand == shelf.Reading || r.Taught != nil || begins[r.ID] < 0.5 || begins[r.ID] > far {
				continue // it is being learnt now, or too far off to plan
			}
			h := start(s, sk)
			h.Rung, h.Title, h.Rungs, h.Due = r.ID, r.Item.Title, away[r.ID], int(begins[r.ID])
			out = append(out, h)
		}
	}
	return out
}

// start is the head start of a skill as far as it was made.
func start(s ladder.Standing, sk skill.Skill) HeadStart {
	return HeadStart{Skill: sk.ID, Name: sk.Name, Tasks: sk.Chain, Done: min(s.Prepared[sk.ID].Done, len(sk.Chain)), Last: s.Prepared[sk.ID].Last, Fixes: []Fix{}}
}

// left is how many weeks the tasks take that were not done.
func (h HeadStart) left() (weeks int) {
	for _, t := range h.Tasks[h.Done:] {
		weeks += t.Weeks
	}
	return weeks
}

// gaps lists the skills that were found missing, in the order to close them: what others rest on
// first, then the lightest.
func gaps(g skill.Graph, known upkeep.Known) []skill.Skill {
	var out []skill.Skill
	for _, sk := range g.Sorted() {
		if known.State[sk.ID] == upkeep.Missing {
			out = append(out, sk)
		}
	}
	depth := func(sk skill.Skill) int {
		under := map[string]bool{}
		g.Under(sk.ID, under)
		n := 0
		for _, other := range out {
			if under[other.ID] {
				n++
			}
		}
		return n
	}
	slices.SortStableFunc(out, func(a, b skill.Skill) int {
		return cmp.Or(depth(a)-depth(b), cmp.Compare(a.Weight, b.Weight))
	})
	return out
}

// fixes says what would make a late head start ready: easier rungs before its
// rung, the rung begun later, or another head start dropped.
func fixes(h HeadStart, all []HeadStart) []Fix {
	short := strconv.Itoa(h.Ready - h.Due)
	out := []Fix{
		{"landing", reason.Of("fix-landing", "title", h.Title, "weeks", short)},
		{"delay", reason.Of("fix-delay", "title", h.Title, "weeks", short)},
	}
	for _, other := range all {
		if other.Skill != h.Skill && other.State != Ready && other.Start < h.Ready {
			return append(out, Fix{"drop", reason.Of("fix-drop", "skill", other.Name, "title", other.Title)})
		}
	}
	return out
}

// Now returns the task of a head start that is this week's.
func (h HeadStart) Now() (skill.Link, bool) {
	if h.State == Ready || h.Start > 0 || h.Done >= len(h.Tasks) {
		return skill.Link{}, false
	}
	return h.Tasks[h.Done], true
}

// On returns the head start of a skill as far as it was shown, whatever its rung does now;
// false where nothing of it was shown.
func On(s ladder.Standing, g skill.Graph, id string) (HeadStart, bool) {
	was, sk := s.Prepared[id], g[id]
	if was.Done == 0 || len(sk.Chain) == 0 {
		return HeadStart{}, false
	}
	h := start(s, sk)
	h.Tasks = slices.Clone(h.Tasks)
	h.name(h.Done-1, s, h.Last)
	return h, true
}

// Shown returns the task that was shown last: what may be done at home. Of a chain that is
// done it is the last task, which is kept warm until the rung comes. False for none.
func (h HeadStart) Shown() (skill.Link, bool) {
	if h.Done == 0 {
		return skill.Link{}, false
	}
	return h.Tasks[h.Done-1], true
}

// Warm reports whether the last task of a chain that is done should come again: it was not
// shown for two weeks, and the rung has not begun. Common practice, no source.
func (h HeadStart) Warm(now time.Time) bool {
	return h.State == Ready && h.Done > 0 && now.Sub(h.Last) >= 14*24*time.Hour
}

// Again returns the task that was shown last as it is shown anew on a day, with the item of
// the old tune that it is made from: a newer one by then.
func (h HeadStart) Again(s ladder.Standing, g skill.Graph, at time.Time) (task skill.Link, tune string) {
	now := HeadStart{Tasks: []skill.Link{g[h.Skill].Chain[h.Done-1]}}
	tune = now.name(0, s, at)
	return now.Tasks[0], tune
}

// Why says why it is begun: how far off its rung is, and with what it comes
// together there.
func (h HeadStart) Why(path climb.Path, g skill.Graph) reason.Reason {
	var with []string
	for _, r := range path.Rungs {
		if r.ID != h.Rung {
			continue
		}
		for _, id := range r.Item.Brings {
			if id != h.Skill {
				with = append(with, g.Name(id))
			}
		}
	}
	args := []string{"skill", h.Name, "title", h.Title, "rungs", strconv.Itoa(h.Rungs), "weeks", strconv.Itoa(h.Due),
		"tasks", strconv.Itoa(len(h.Tasks) - h.Done), "done", strconv.Itoa(h.Done), "of", strconv.Itoa(len(h.Tasks)), "ready", strconv.Itoa(h.Ready)}
	if h.Gap {
		return reason.Of("gap", args...)
	}
	if h.Title == "" {
		return reason.Of("head-start-shown", "skill", h.Name)
	}
	if len(with) > 0 {
		args = append(args, "with", with[0])
	}
	if h.State == Late {
		return reason.Of("head-start-late", args...)
	}
	return reason.Of("head-start", args...)
}
