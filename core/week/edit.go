package week

import (
	"slices"
	"strings"

	"patientladder/core/fact"
)

// A Gone is a line that the teacher struck.
type Gone struct {
	Fact  string `json:"fact" doc:"that struck it, to be taken back"`
	Title string `json:"title"`
	Says  string `json:"says"`
}

// OwnLine is the key of a line that a fact added.
func OwnLine(fact string) string { return "own " + fact }

// Sort says what sort of line a task is, for what is struck again and again: hearing,
// head starts, cards, games, or the lines of one rung.
func (t Task) Sort() string {
	switch {
	case t.Listen:
		return "listen"
	case t.Skill != "":
		return "head-start"
	case len(t.Cards) > 0:
		return "cards"
	case t.Game != "":
		return "game"
	}
	return "rung " + t.Rung
}

// Counted says what sort of line a task is, of which the times may be kept: piece, scale or
// pattern; empty of others.
func (t Task) Counted() string {
	switch {
	case t.Band != "now" || t.Spot != "" || t.Rung == "" || len(t.Cards) > 0 || len(t.Steps) > 0:
		return ""
	case len(t.Plays) == 0:
		return "piece"
	case t.InRow:
		return "pattern"
	}
	return "scale"
}

// Edit returns a sheet with the teacher's word on it and nothing else said before: the
// facts in order, without what was taken back, on the days as they were drafted.
func Edit(sh Sheet, facts []fact.Fact, adds Adds) Sheet {
	if len(sh.Drafted) > 0 {
		sh.Days = sh.Drafted
	}
	sh.Drafted, sh.Word, sh.Gone = nil, "", nil
	if len(facts) > 0 {
		sh.Drafted = sh.Days
		sh.Days = make([]Day, len(sh.Drafted))
		for i, d := range sh.Drafted {
			d.Tasks = slices.Clone(d.Tasks)
			sh.Days[i] = d
		}
	}
	for _, f := range facts {
		switch b := f.Body.(type) {
		case fact.LineStruck:
			sh.strike(f.ID, b.Line)
		case fact.LineChanged:
			sh.change(b, adds.Voice)
		case fact.LineMoved:
			sh.move(b)
		case fact.LineAdded:
			sh.add(adds.line(&sh, f.ID, b), b.Weekdays)
		case fact.SheetNoted:
			sh.Word = strings.TrimSpace(b.Text)
		}
	}
	sh.share()
	return sh
}

// Line returns the line of a key as it stands on its first day.
func (sh Sheet) Line(key string) (Task, bool) {
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if t.Key == key {
				return t, true
			}
		}
	}
	return Task{}, false
}

func (sh *Sheet) strike(id, line string) {
	for i := range sh.Days {
		sh.Days[i].Tasks = slices.DeleteFunc(sh.Days[i].Tasks, func(t Task) bool {
			if t.Key != line {
				return false
			}
			if !slices.ContainsFunc(sh.Gone, func(g Gone) bool { return g.Fact == id }) {
				sh.Gone = append(sh.Gone, Gone{id, t.Title, t.Says.What})
			}
			return true
		})
	}
}

// change gives a line what is told of it and its words anew; its key stays, so that ticks
// find it.
func (sh *Sheet) change(b fact.LineChanged, v Voice) {
	var line *Task
	for i := range sh.Days {
		d := &sh.Days[i]
		for k := range d.Tasks {
			t := &d.Tasks[k]
			if t.Key != b.Line {
				continue
			}
			if b.Count > 0 {
				t.Count = b.Count
			}
			if b.Hands != "" {
				t.Hands = b.Hands
			}
			if b.From > 0 {
				t.From, t.To, t.Start = b.From, max(b.To, b.From), nil
			}
			t.Says = t.words(teller{v, sh.Reader})
			copied := *t
			line = &copied
		}
	}
	if line == nil || len(b.Weekdays) == 0 {
		return
	}
	for i := range sh.Days {
		d := &sh.Days[i]
		there := slices.ContainsFunc(d.Tasks, func(t Task) bool { return t.Key == b.Line })
		wanted := slices.Contains(b.Weekdays, int(d.Date.Weekday())) && !d.Lesson && !d.Off
		switch {
		case wanted && !there:
			d.Tasks = append(d.Tasks, *line)
		case there && !wanted:
			d.Tasks = slices.DeleteFunc(d.Tasks, func(t Task) bool { return t.Key == b.Line })
		}
	}
}

// move takes a line past its neighbour on each day that has both.
func (sh *Sheet) move(b fact.LineMoved) {
	by := 1
	if b.To == "up" {
		by = -1
	}
	for i := range sh.Days {
		list := sh.Days[i].Tasks
		k := slices.IndexFunc(list, func(t Task) bool { return t.Key == b.Line })
		if to := k + by; k >= 0 && to >= 0 && to < len(list) {
			list[k], list[to] = list[to], list[k]
		}
	}
}

// add puts a line on the days of practice, or on some weekdays of them.
func (sh *Sheet) add(t Task, weekdays []int) {
	for i := range sh.Days {
		d := &sh.Days[i]
		if !d.Lesson && !d.Off && (len(weekdays) == 0 || slices.Contains(weekdays, int(d.Date.Weekday()))) {
			d.Tasks = append(d.Tasks, t)
		}
	}
}

// share reckons how much of the minutes is upkeep.
func (sh *Sheet) share() {
	now, kept := 0, 0
	for _, d := range sh.Days {
		if d.Lesson {
			continue
		}
		for _, t := range d.Tasks {
			switch t.Band {
			case "now":
				now += t.Minutes
			case "upkeep":
				kept += t.Minutes
			}
		}
	}
	sh.Share = 0
	if now+kept > 0 {
		sh.Share = float64(kept) / float64(now+kept)
	}
}
