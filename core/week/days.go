package week

import (
	"maps"
	"slices"
)

// LinesADay returns how many things a day has room for at an age: finding the page and
// setting the hand take time. Common practice, no source.
func LinesADay(age int) int {
	switch {
	case age < 7:
		return 4
	case age < 10:
		return 6
	}
	return 8
}

// most is how many things a day holds: what its age has room for, one less after a thin
// week.
func (w *writer) most() int {
	n := LinesADay(w.Age)
	if w.light {
		n--
	}
	return n
}

// few keeps a day to its things: a piece is one, however many stretches of it are asked.
// A second thing for later goes first, then an old friend that has another day; their
// minutes go to the one before.
func (w *writer) few() {
	turns := map[string]int{} // days of the week, by old friend or head start
	for _, i := range w.days {
		for _, t := range w.sheet.Days[i].Tasks {
			if t.Band != "now" {
				turns[t.Rung+t.Skill]++
			}
		}
	}
	for _, i := range w.days {
		d := &w.sheet.Days[i]
		for {
			things := map[string]bool{}
			goes, into := -1, -1
			before := map[string]int{} // place of the last of a band
			for k, t := range d.Tasks {
				things[t.Rung+" "+t.Skill] = true
				prior, second := before[t.Band]
				if second && (t.Band == "ahead" && (t.Listen || turns[t.Skill] > 1) || t.Band == "upkeep" && turns[t.Rung] > 1 && (goes < 0 || d.Tasks[goes].Band == "upkeep")) {
					goes, into = k, prior
				}
				before[t.Band] = k
			}
			if goes < 0 || len(things) <= w.most() {
				break
			}
			turns[d.Tasks[goes].Rung+d.Tasks[goes].Skill]--
			d.Tasks[into].Minutes += d.Tasks[goes].Minutes
			d.Tasks = slices.Delete(d.Tasks, goes, goes+1)
		}
	}
}

// goOn writes the days after the first week.
func (w *writer) goOn(last int) {
	var old, hand []Task
	ends := map[string][]Task{} // by rung: what its last day of the first week asks of it
	for _, d := range w.sheet.Days {
		on := map[string][]Task{}
		for _, t := range d.Tasks {
			switch t.Band {
			case "upkeep":
				old = appendOnce(old, t)
			case "now":
				on[t.Rung] = append(on[t.Rung], t)
				if t.Spot == "" && (len(t.Plays) > 0 || t.From == 0) {
					hand = appendOnce(hand, t)
				}
			}
		}
		maps.Copy(ends, on)
	}
	turn, light := 0, 0
	for d := practice + 1; d <= last; d++ {
		day := Day{Date: w.From.Add(d), Tasks: []Task{}}
		day.Off = !w.Standing.HomeDays.On(day.Date)
		switch {
		case w.Calendar.Teaching(day.Date):
			day.Again = true
			if !day.Off && len(w.days) > 0 {
				day.Tasks = w.again(w.sheet.Days[w.days[turn%len(w.days)]], ends)
				turn++
			}
		default:
			day.Thin = true
			if !day.Off {
				day.Tasks = w.lighter(old, hand, light)
			}
			light++
		}
		w.sheet.Days = append(w.sheet.Days, day)
	}
}

// again is a day of the first week once more: each piece in hand as it stood on its last
// day, in the minutes that it has.
func (w *writer) again(day Day, ends map[string][]Task) []Task {
	out := []Task{}
	minutes := map[string]int{} // by rung in hand
	for _, t := range day.Tasks {
		if t.Band == "now" && t.Rung != "" {
			minutes[t.Rung] += t.Minutes
		}
	}
	written := map[string]bool{}
	for _, t := range day.Tasks {
		switch {
		case t.Band != "now" || t.Rung == "":
			out = append(out, t)
		case !written[t.Rung]:
			written[t.Rung] = true
			list := slices.Clone(ends[t.Rung])
			if len(list) == 1 {
				list[0].Minutes = minutes[t.Rung]
				list[0].cut()
			} else {
				list = fit(list, minutes[t.Rung])
			}
			out = append(out, list...)
		}
	}
	return out
}

// lighter is a day of the holidays: one old friend, and every second day the newest piece
// in hand as far as it stands, at half the minutes.
func (w *writer) lighter(old, hand []Task, n int) []Task {
	out := []Task{}
	half := max(w.sheet.Budget/2, 2)
	if len(hand) > 0 && (n%2 == 0 || len(old) == 0) {
		out = append(out, hand[n/2%len(hand)])
	}
	if len(old) > 0 {
		out = append(out, old[n%len(old)])
	}
	for i := range out {
		out[i].Minutes = max(half/len(out), 1)
		out[i].cut()
	}
	if first := w.sheet.Days[0].Tasks; len(out) == 0 && len(first) > 0 { // nothing else: something to hear
		out = append(out, first[0])
	}
	return out
}

// appendOnce adds a task whose rung and hands are not there yet.
func appendOnce(list []Task, t Task) []Task {
	if slices.ContainsFunc(list, func(o Task) bool { return o.Rung == t.Rung && o.Hands == t.Hands }) {
		return list
	}
	return append(list, t)
}
