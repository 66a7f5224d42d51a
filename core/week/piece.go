package week

import (
	"slices"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/reason"
)

// aDay is how many chunks of one piece a day holds: up to two pairs. Common
// practice, no source.
const aDay = 4

// fromScore writes the chunks that were read off a rung's score.
func (w *writer) fromScore(r ladder.Rung, t Task, trees []reading.Chunk, turn, total, room int) []Task {
	which := trees[0]
	for _, c := range trees {
		if hand := map[string]reading.Hand{"right": reading.Right, "left": reading.Left, "together": reading.Both}[t.Hands]; c.Hand == hand {
			which = c
		}
	}
	plan, planned := w.plans[r.ID]
	if !planned {
		if t.Hands == "right" || t.Hands == "left" {
			plan = inAWeek(which, total, min(chunks(r, which, room), aDay))
			if p := w.learnt(r, which); p.sheets >= alike { // its lesson has not come on: from the end, whole, and as before
				switch p.sheets % 3 {
				case 0:
					plan = backwards(which, total)
				case 2:
					p.wholes = alike + p.sheets/3
					plan = p.entire(which, total)
				}
			}
		} else {
			plan = w.learn(r, which, total, min(chunks(r, which, room), aDay))
		}
		w.plans[r.ID] = plan
	}
	var out []Task
	for _, b := range plan[turn-1] {
		task := t
		task.Start = &Start{From: b.chunk.FromID, To: b.chunk.ToID, Hand: string(b.chunk.Hand), StartOf: b.chunk.Start, Starts: b.chunk.Starts, Notes: b.chunk.Notes, Level: height(b.chunk), Keys: w.onKeys(), Draw: w.drawn(), Label: w.labelled(), Say: w.script(b.chunk), Rhythm: w.rhythm(b.chunk)}
		if !b.whole {
			task.From, task.To = b.bars[0], b.bars[1]
		}
		task.Way, task.lasts, task.fresh = b.way, slowly(r.Item, b.chunk.Lasts), !b.joined && !b.whole
		task.Why = w.whyChunk(r, b.whole, b.joined)
		out = append(out, task)
	}
	return out
}

func (w *writer) whyChunk(r ladder.Rung, whole, joined bool) reason.Reason {
	switch {
	case w.Stuck[r.ID] && !whole:
		return reason.Of("stuck-small", "title", r.Item.Title)
	case whole && len(r.Missing()) > 0:
		return reason.Of("hold-this", "point", r.Missing()[0])
	case whole && r.Ready() && w.Standing.Ache == nil:
		return reason.Of("ready-to-try", "title", r.Item.Title)
	case whole:
		return reason.Of("whole-piece", "title", r.Item.Title)
	case joined:
		return reason.Of("join-two")
	}
	return reason.Of("small-first")
}

// lessons counts the closed lessons since a rung's first, that one included.
func (w *writer) lessons(r ladder.Rung) int {
	n := 1
	taught := calendar.On(*r.Taught)
	for day := range w.Standing.Closed {
		if day > taught {
			n++
		}
	}
	return n
}

// oneHanded reports whether the hand that may play has something to play in a rung: a hand of a
// two-hand piece that the lessons worked on since the pain.
func (w *writer) oneHanded(r ladder.Rung) bool {
	since := calendar.On(w.Standing.Ache.At)
	return r.Item.Staves > 1 && slices.ContainsFunc(r.Worked, func(d calendar.Date) bool { return d >= since }) && !w.InTurn[r.ID]
}

// aHandsWeek is after how many days of one hand a piece that a lesson left out goes on all the
// same. Common practice, no source.
const aHandsWeek = 6

// leftHad reports whether the left hand of a rung has had its week at home.
func (w *writer) leftHad(r ladder.Rung) bool {
	return slices.ContainsFunc(w.Past, func(p Past) bool {
		if w.From.Sub(p.Day) < aHandsWeek || p.Day < calendar.On(*r.Taught) {
			return false
		}
		for key := range p.Ticked {
			if rung, s, ok := stretchOf(key); ok && rung == r.ID && s.hand == "left" {
				return true
			}
		}
		return false
	})
}

// hands is the rule of a two-hand piece: right hand for the week of its first lesson, left
// hand after the next in which it was worked on, then together, unless the approach begins
// together. Both hands were shown by then, so the last step waits for no lesson. Hands that
// take turns are one line from the beginning.
func (w *writer) hands(r ladder.Rung) string {
	if hand := w.allowed(); hand != "" {
		return hand
	}
	if r.Item.Staves < 2 {
		return ""
	}
	if w.InTurn[r.ID] {
		return "together"
	}
	n := r.LessonsOn(*r.Taught)
	for _, day := range r.Worked { // in a lesson of rest nothing was shown
		if n > 1 && day >= calendar.On(*r.Taught) && w.Standing.Ached(day) {
			n--
		}
	}
	switch {
	case w.Approach[approach.Hands] == approach.Together || n > 2 || r.Ready():
		return "together"
	case n == 2 && w.leftHad(r):
		return "together"
	case n == 2:
		return "left"
	}
	return "right"
}
