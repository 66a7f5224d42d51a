package week

import (
	"slices"

	"patientladder/core/calendar"
)

// longest is the most days that a sheet runs on, where the next lesson is far off.
const longest = 42

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

// thin writes the days after the first week of a longer time: one old friend, and every
// second day the newest piece in hand as far as it stands, at half the minutes.
func (w *writer) thin(last int) {
	var old, hand []Task
	for _, d := range w.sheet.Days {
		for _, t := range d.Tasks {
			switch t.Band {
			case "upkeep":
				old = appendOnce(old, t)
			case "now":
				if t.Spot == "" && (len(t.Plays) > 0 || t.From == 0) {
					hand = appendOnce(hand, t)
				}
			}
		}
	}
	half := max(w.sheet.Budget/2, 2)
	for d := practice + 1; d <= last; d++ {
		day := Day{Date: w.From.Add(d), Tasks: []Task{}, Thin: true}
		day.Off = !w.Standing.HomeDays.On(day.Date)
		n := d - practice - 1
		if !day.Off && len(hand) > 0 && (n%2 == 0 || len(old) == 0) {
			day.Tasks = append(day.Tasks, hand[n/2%len(hand)])
		}
		if !day.Off && len(old) > 0 {
			day.Tasks = append(day.Tasks, old[n%len(old)])
		}
		for i := range day.Tasks {
			day.Tasks[i].Minutes = max(half/len(day.Tasks), 1)
			day.Tasks[i].cut()
		}
		if !day.Off && len(day.Tasks) == 0 && len(w.sheet.Days[0].Tasks) > 0 { // nothing else: something to hear
			day.Tasks = append(day.Tasks, w.sheet.Days[0].Tasks[0])
		}
		w.sheet.Days = append(w.sheet.Days, day)
	}
}

// A Later is what the days after the first week hold, in short.
type Later struct {
	From, To calendar.Date
	Titles   []string
}

// Later sums up the thin days of a sheet; nil where there are none.
func (sh Sheet) Later() *Later {
	var out *Later
	for _, d := range sh.Days {
		if !d.Thin {
			continue
		}
		if out == nil {
			out = &Later{From: d.Date}
		}
		out.To = d.Date
		for _, t := range d.Tasks {
			if !slices.Contains(out.Titles, t.Title) {
				out.Titles = append(out.Titles, t.Title)
			}
		}
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
