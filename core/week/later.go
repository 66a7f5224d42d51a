package week

import (
	"maps"
	"math"
	"slices"

	"patientladder/core/ahead"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// least is the budget below which a day has no minute for what comes later.
const least = 8

// ahead gives a minute or two on alternate days to the head starts as they were shown,
// those of today's lesson first, or else to hearing what comes next, which also stands on
// the lesson's own day.
func (w *writer) ahead() {
	w.spare = w.sheet.Budget
	w.early = map[int]int{}
	put := func(day int, t Task) {
		if w.put(day, t) && day > 0 {
			w.early[day] += t.Minutes
		}
	}
	next, far := w.heard()
	var hear Task
	if next != nil {
		hear = Task{Band: "ahead", Rung: next.ID, Title: next.Item.Title, Count: 1, Listen: true, Minutes: 1, Why: reason.Of("hear-it-early", "title", next.Item.Title)}
		put(0, hear)
		if w.sheet.Budget < least {
			w.sheet.LeftOut = append(w.sheet.LeftOut, reason.Of("no-room-for", "title", next.Item.Title))
		}
	}
	if far != nil {
		put(0, Task{Band: "ahead", Rung: far.ID, Title: far.Item.Title, Count: 1, Listen: true, Minutes: 1, Why: reason.Of("hear-far-ahead", "title", far.Item.Title)})
	}
	if w.sheet.Budget < least || w.Path.Break.Light() {
		return
	}
	any := false
	for i, h := range w.shown() {
		task, _ := h.Shown()
		any = true
		t := Task{Band: "ahead", Title: h.Name, Skill: h.Skill, Do: task.Do, Count: 1, Minutes: min(task.Minutes, max(w.sheet.Budget/6, 1)), Why: h.Why(w.Path, w.Graph)}
		for d := 1 + i%2; d <= len(w.days); d += 2 {
			put(d, t)
		}
	}
	if !any && next != nil {
		for d := 2; d <= len(w.days); d += 2 {
			put(d, hear)
		}
	}
	all := 0
	for _, m := range w.early {
		all += m
	}
	w.later = float64(all) / float64(max(len(w.days), 1))
	w.spare -= int(math.Round(w.later))
}

// atHome is how many head starts go home at once, and kept for how many days one goes on
// after it was shown. A judgement.
const (
	atHome = 2
	kept   = 28
)

// shown are the head starts that were shown lately and whose rung has not begun, the last
// shown first.
func (w *writer) shown() []ahead.HeadStart {
	var out []ahead.HeadStart
	for _, h := range w.Ahead {
		if _, was := h.Shown(); was && w.From.Sub(calendar.On(h.Last)) <= kept {
			out = append(out, h)
		}
	}
	for _, id := range slices.Sorted(maps.Keys(w.Standing.Prepared)) { // shown today, though it is no longer planned
		h, was := ahead.On(w.Standing, w.Graph, id)
		if was && calendar.On(h.Last) == w.From && !slices.ContainsFunc(out, func(o ahead.HeadStart) bool { return o.Skill == id }) {
			out = append(out, h)
		}
	}
	slices.SortStableFunc(out, func(a, b ahead.HeadStart) int { return b.Last.Compare(a.Last) })
	return out[:min(len(out), atHome)]
}

// heard finds what can be listened to: the rung that comes next of those with notes, and
// the one that begins last, where it is not the next of its lane.
func (w *writer) heard() (next, far *ladder.Rung) {
	begins := map[string]float64{}
	for _, e := range w.Path.Expected {
		begins[e.Rung] = e.FromIn
	}
	coming := w.in(ladder.Ahead)
	first := map[shelf.Strand]bool{}
	for i := range coming {
		r := &coming[i]
		inLane := first[r.Strand]
		first[r.Strand] = true
		if !isPiece(r.Item) || w.Home.Lacks(w.Plays, r.Item) != nil {
			continue
		}
		if next == nil || begins[r.ID] < begins[next.ID] {
			next = r
		}
		if inLane && (far == nil || begins[r.ID] > begins[far.ID]) {
			far = r
		}
	}
	if far == next {
		far = nil
	}
	return next, far
}
