package week

import (
	"strings"

	"patientladder/core/ladder"
)

// fromBars writes a rung without a score by its bars alone.
// A day that has no room for two chunks takes a half.
func (w *writer) fromBars(r ladder.Rung, t Task, day, turn, total, room int) []Task {
	n := w.lessons(r)
	whole := w.wholes(r)
	if w.Stuck[r.ID] && whole > 0 && !r.Ready() { // small again
		n = 1
	}
	chunks := build(r.Item.Bars, day, n)
	if total < practice || room < 2 {
		chunks = halves(r.Item.Bars, turn, total, n)
	}
	if nearly(r) {
		chunks = []chunk{{}}
	}
	var out []Task
	for _, c := range chunks {
		task := t
		if c.from == 0 && whole >= alike {
			task.Way = ways[(whole-alike)%len(ways)]
		}
		task.From, task.To = c.from, c.to
		task.Why = w.whyChunk(r, c.from == 0, c.joined)
		out = append(out, task)
	}
	return out
}

// wholes counts the sheets running, up to the last, that asked for nothing but the whole of
// a rung without a score.
func (w *writer) wholes(r ladder.Rung) int {
	n := 0
	for _, past := range w.Past {
		on, only := false, true
		for key := range past.Ticked {
			part := strings.Split(key, " ")
			if len(part) < 7 || part[0] != "now" || part[1] != r.ID || part[4] != "" {
				continue
			}
			on, only = true, only && part[len(part)-1] == "0"
		}
		if on {
			if n++; !only {
				n = 0
			}
		}
	}
	return n
}

type chunk struct {
	from, to int // bars; 0, 0 for the whole
	joined   bool
}

// build returns the chunks of a day from 1 to 6. In a rung's first two weeks
// up to four chunks are learnt in pairs, the pairs joined, and the whole played
// on the last two days; after that it is whole every day.
func build(bars, day, lessons int) []chunk {
	whole := []chunk{{}}
	k := min(4, (bars+3)/4)
	if k < 2 || lessons > 2 || day >= practice-1 {
		return whole
	}
	cut := func(i int) int { return i * bars / k }
	one := func(i int) chunk { return chunk{from: cut(i) + 1, to: cut(i + 1)} }
	join := func(i, j int) chunk { return chunk{cut(i) + 1, cut(j + 1), true} }
	days := map[int][4][]chunk{
		2: {{one(0)}, {one(1)}, {one(0), one(1)}, {join(0, 1)}},
		3: {{one(0), one(1)}, {one(2)}, {join(0, 1)}, {join(1, 2)}},
		4: {{one(0), one(1)}, {one(2), one(3)}, {join(0, 1)}, {join(2, 3)}},
	}
	return days[k][day-1]
}

// halves returns the chunks of one turn of a rung that is not practised every
// day: with three turns or more, each half once, then the whole.
func halves(bars, turn, total, lessons int) []chunk {
	middle := bars / 2
	switch {
	case bars < 5 || lessons > 2 || total < 3 || turn > 2:
		return []chunk{{}}
	case turn == 1:
		return []chunk{{from: 1, to: middle}}
	}
	return []chunk{{from: middle + 1, to: bars}}
}
