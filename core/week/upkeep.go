package week

import (
	"slices"
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/upkeep"
)

// upkeep chooses the secure pieces of the week for the minutes that are left
// and rotates them through the days, the newest more often.
func (w *writer) upkeep() {
	pieces := upkeep.Pieces(w.Standing, w.Path.Known, w.At, upkeep.Once(w.Age))
	secure := make(map[string]*ladder.Rung, len(pieces))
	for i := range w.Standing.Rungs {
		secure[w.Standing.Rungs[i].ID] = &w.Standing.Rungs[i]
	}
	pieces = slices.DeleteFunc(pieces, func(p upkeep.Piece) bool { return !w.fits(*secure[p.ID]) })
	if len(pieces) == 0 || w.spare < 1 {
		return
	}
	pieces = w.nearing(pieces, secure)
	if len(pieces) == 0 {
		return
	}
	spare, owed := 0, 0 // minutes of the week, and of what has not had its turn in it
	for day := 1; day <= len(w.days); day++ {
		spare += w.left(day)
	}
	chosen := upkeep.Choose(pieces, max(spare, 1))
	if len(chosen) == 0 {
		chosen = pieces[:1]
	}
	newest := map[string]int{}
	for i, p := range pieces {
		newest[p.ID] = i
	}
	// the two newest, then those that were silent longest, of which none goes without
	slices.SortStableFunc(chosen, func(a, b upkeep.Piece) int {
		if a, b := newest[a.ID] < 2, newest[b.ID] < 2; a != b {
			return map[bool]int{true: -1, false: 1}[a]
		}
		return b.Silent - a.Silent
	})
	chosen = chosen[:min(len(chosen), max(w.slots(), 1))]
	turn := rotation(len(chosen))
	at := 0
	for _, p := range chosen {
		owed += p.Minutes
	}
	played := make([]bool, len(chosen))
	waiting, slots := len(chosen), w.slots() // that had no turn yet, and turns that are left
	for day := 1; day <= len(w.days); day++ {
		left := w.left(day)
		today, room := map[int]bool{}, max(w.room(day), 1)
		for passed := 0; left >= 1 && passed < len(turn) && len(today) < room; {
			i := turn[at%len(turn)]
			at++
			p := chosen[i]
			if today[i] || played[i] && (spare-p.Minutes < owed || slots <= waiting) {
				passed++
				continue
			}
			passed, today[i] = 0, true
			m := min(max(p.Minutes, left/(len(chosen)-len(today)+1)), left) // few pieces: longer with each
			if left-m < 2 || len(today) == room {
				m = left // what is left of the day goes to its last piece
			}
			left, spare = left-m, spare-m
			if slots--; !played[i] {
				played[i], owed = true, owed-p.Minutes
				waiting--
			}
			title := secure[p.ID].Item.Title
			w.put(day, Task{Band: "upkeep", Rung: p.ID, Title: title, Count: max(m/max(p.Minutes, 1), 1), Minutes: m, Why: w.kept(*secure[p.ID], p, newest[p.ID])})
		}
	}
}

// nearing puts what has its day in the next weeks on every day, whole, and returns the
// pieces that are left to choose from. Common practice, no source.
func (w *writer) nearing(pieces []upkeep.Piece, secure map[string]*ladder.Rung) []upkeep.Piece {
	return slices.DeleteFunc(pieces, func(p upkeep.Piece) bool {
		r := secure[p.ID]
		if !r.Nearing(w.From) {
			return false
		}
		for day := 1; day <= len(w.days); day++ {
			date := w.sheet.Days[w.days[day-1]].Date
			if left := w.left(day); left >= 1 && date <= r.Target && w.room(day) > 0 {
				w.put(day, Task{Band: "upkeep", Rung: p.ID, Title: r.Item.Title, Count: 1, Minutes: min(p.Minutes, left),
					Why: reason.Of("polish-for", "title", r.Item.Title, "day", string(r.Target), "days", strconv.Itoa(r.Target.Sub(date)))})
			}
		}
		return true
	})
}

// left is how many minutes of a day nothing holds yet.
func (w *writer) left(day int) int {
	n := w.sheet.Budget - w.early[day] - w.inHand(day)
	for _, t := range w.sheet.Days[w.days[day-1]].Tasks {
		if t.Band == "upkeep" {
			n -= t.Minutes
		}
	}
	return n
}

// room is how many things a day, counted from 1, has room for beside what is in hand and
// what comes later; slots is that of all days.
func (w *writer) room(day int) int {
	things := map[string]bool{}
	for _, t := range w.sheet.Days[w.days[day-1]].Tasks {
		things[t.Rung+" "+t.Skill] = true
	}
	return max(w.most()-len(things), 0)
}

func (w *writer) slots() int {
	n := 0
	for day := range w.days {
		n += w.room(day + 1)
	}
	return n
}

// inHand sums the minutes of a day that went to the rungs in hand.
func (w *writer) inHand(day int) int {
	n := 0
	for _, t := range w.sheet.Days[w.days[day-1]].Tasks {
		if t.Band == "now" {
			n += t.Minutes
		}
	}
	return n
}

// newly is for how many days a piece is newly secure. A judgement.
const newly = 42

func (w *writer) kept(r ladder.Rung, p upkeep.Piece, place int) reason.Reason {
	title := r.Item.Title
	switch {
	case place < 2 && w.From.Sub(calendar.On(*r.Foothold)) <= newly:
		return reason.Of("newest-kept", "title", title)
	case len(p.Carries) > 0:
		return reason.Of("carries", "title", title, "skill", w.Graph.Name(p.Carries[0]))
	}
	return reason.Of("keep-alive", "title", title)
}

// rotation is an order of turns among n pieces, newest first, in which the two
// newest come more often than the others, spread apart.
func rotation(n int) []int {
	if n <= 2 {
		return []int{0, 1}[:n]
	}
	var turns []int
	for i := 2; i < n; i++ {
		turns = append(turns, i%2, i)
	}
	return append(turns, n%2)
}
