package week

import (
	"slices"

	"patientladder/core/activity"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/shelf"
)

// How long a playing takes at home: at three fifths of the tempo, with a pause before the
// next to look and set the hand. A tempo that is not written is taken to be moderate.
// Common practice, no source; the figures are a judgement.
const (
	slow     = 0.6
	pause    = 2  // seconds
	moderate = 80 // quarter notes a minute
)

// slowly returns the seconds of one playing of so many quarter notes of an item.
func slowly(it shelf.Item, quarters float64) float64 {
	tempo := it.Tempo
	if tempo <= 0 {
		tempo = moderate
	}
	return quarters*60/(slow*tempo) + pause
}

// chunks is how many small chunks of a tree a day has time for in so many minutes, each
// twice.
func chunks(r ladder.Rung, tree reading.Chunk, minutes int) int {
	list := leaves(tree)
	return max(min(int(60*float64(minutes)/(2*slowly(r.Item, tree.Lasts/float64(len(list))))), minutes), 1)
}

// fewest is how often at least a stretch is asked for on a day: twice, the whole once.
func (t *Task) fewest() int {
	if t.From == 0 || t.Count < 2 {
		return 1
	}
	return 2
}

// takes returns the minutes that a task wants for its count, at least one.
func (t *Task) takes(count int) float64 { return max(t.lasts*float64(count)/60, 1) }

// fit gives the tasks of a rung their minutes of a day: each what it takes, counts cut to
// what there is time for. What does not fit even so waits for another day.
func fit(tasks []Task, minutes int) []Task {
	minutes = max(minutes, 1)
	least := func() (sum float64) {
		for i := range tasks {
			sum += tasks[i].takes(tasks[i].fewest())
		}
		return sum
	}
	for len(tasks) > 1 && least() > float64(minutes) { // what is known waits before what is new
		last := len(tasks) - 1
		for i := last; i >= 0; i-- {
			if !tasks[i].fresh && tasks[i].Spot == "" {
				last = i
				break
			}
		}
		tasks = slices.Delete(tasks, last, last+1)
	}
	if len(tasks) == 0 {
		return tasks
	}
	given := make([]int, len(tasks))
	left := minutes
	for i := range tasks {
		given[i] = min(int(tasks[i].takes(tasks[i].fewest())+0.99), max(left-(len(tasks)-1-i), 1))
		left -= given[i]
	}
	for left > 0 { // to the one that lacks most
		most := 0
		for i := range tasks {
			if tasks[i].takes(tasks[i].Count)-float64(given[i]) > tasks[most].takes(tasks[most].Count)-float64(given[most]) {
				most = i
			}
		}
		given[most]++
		left--
	}
	for i := range tasks {
		tasks[i].Minutes = given[i]
		tasks[i].cut()
	}
	return tasks
}

// cut lowers a count to what its minutes hold.
func (t *Task) cut() {
	if t.lasts > 0 && !t.InRow {
		t.Count = max(min(t.Count, int((60*float64(t.Minutes)+pause)/t.lasts)), 1)
	}
}

// atPlay is how many games a day holds at home, where nothing else is in hand, and how
// many minutes each. Common practice, no source.
const (
	atPlay    = 2
	playsLong = 2
)

// games sends home what was played in the lesson, where the student has no piece in hand
// yet: one or two games a day, a tune that was learnt without a page before others, in turn, as
// they were done. After the first meeting they go home beside a piece too, one a day.
func (w *writer) games() {
	games := w.goHome()
	tune := func(a activity.Activity) bool { return a.Aim == activity.RoteTune }
	tunes, others := keep(games, tune), keep(games, func(a activity.Activity) bool { return !tune(a) })
	for day := range w.days {
		most := min(atPlay, len(games))
		if w.inHand(day+1) > 0 {
			if !w.meeting() {
				continue
			}
			most = min(1, len(games))
		}
		turn := day * atPlay
		if len(tunes) > 0 {
			turn = day
			w.atHome(day+1, tunes[day%len(tunes)])
			most--
		}
		for n := range min(most, len(others)) {
			w.atHome(day+1, others[(turn+n)%len(others)])
		}
	}
}

// keep lists the activities of which something holds.
func keep(list []activity.Activity, holds func(activity.Activity) bool) []activity.Activity {
	return slices.DeleteFunc(slices.Clone(list), func(a activity.Activity) bool { return !holds(a) })
}

func (w *writer) atHome(day int, a activity.Activity) {
	w.put(day, w.play(Task{Band: "now", Minutes: min(playsLong, w.sheet.Budget)}, a))
}

// goHome are the games that go home. A child's that are passed have stopped, tunes aside; a grown-up
// keeps them up. After the first meeting the first games of aims that nobody told of follow, where
// there is nothing else; a child that passed all of it goes on with the aims of the next.
func (w *writer) goHome() []activity.Activity {
	over := func(a activity.Activity) bool {
		return w.sheet.Reader == "parent" && a.Aim != activity.RoteTune && w.Standing.Probes[a.Aim].Outcome == fact.Pass
	}
	out := keep(w.Games, func(a activity.Activity) bool { return !over(a) })
	if w.meeting() && !w.anything() && !w.Beyond {
		untold := func(a activity.Activity) bool {
			return !over(a) && !slices.ContainsFunc(w.Games, func(g activity.Activity) bool { return g.Aim == a.Aim })
		}
		out = append(out, keep(activity.Firsts(w.Bank, w.Age, w.Plays.Family, func(string) bool { return false }), untold)...)
		if len(out) == 0 {
			out = activity.Firsts(w.Bank, w.Age, w.Plays.Family, func(aim string) bool { return over(activity.Activity{Aim: aim}) })
		}
	}
	return out
}

// meeting reports whether the sheet follows the first lesson of all.
func (w *writer) meeting() bool {
	_, closed := w.Standing.Closed[w.From]
	return closed && len(w.Standing.Closed) == 1 && len(w.in(ladder.Secure)) == 0
}
