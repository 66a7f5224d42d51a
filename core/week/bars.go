package week

import "patientladder/core/ladder"

// fromBars writes a rung without a score by its bars alone.
func (w *writer) fromBars(r ladder.Rung, t Task, day, turn, total int) []Task {
	chunks := build(r.Item.Bars, day, w.lessons(r))
	if total < practice {
		chunks = halves(r.Item.Bars, turn, total, w.lessons(r))
	}
	var out []Task
	for _, c := range chunks {
		task := t
		task.From, task.To = c.from, c.to
		task.Why = w.whyChunk(r, c.from == 0, c.joined)
		out = append(out, task)
	}
	return out
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
