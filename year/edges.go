package year

import (
	"fmt"
	"math"
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/studio/places"
)

// The rules of what a real year brings besides usual weeks: lessons that fall out, pains, short
// lessons, pieces without notes, a teacher who overrules.

// covered holds that on each day of term from one to another, both among them, the family has a
// sheet with something on it, as it looks on the last of them.
func (r *run) covered(from, to calendar.Date) error {
	if to < from {
		return nil
	}
	*r.clock = to.Midnight(r.place).Add(12 * time.Hour)
	v, err := places.Week(r.ctx, r.app, r.who, r.id, "", 0)
	if err != nil || v.Sheet == nil {
		return err
	}
	on := map[calendar.Date]week.Day{}
	for _, d := range v.Sheet.Days {
		on[d.Date] = d
	}
	for d := max(from, v.Sheet.From.Add(1)); d <= to; d = d.Add(1) {
		if !terms.Teaching(d) {
			continue
		}
		day, there := on[d]
		r.ledger.hold("22 sheet", there && (day.Off || len(day.Tasks) > 0), func() string {
			return fmt.Sprintf("%s has no sheet on %s; the last lesson was on %s", r.life.name, d, v.Sheet.From)
		})
	}
	return nil
}

// A hurt is a pain as it was lived.
type hurt struct {
	on       bool
	before   float64       // minutes a day before it
	since    calendar.Date // it was told
	cleared  calendar.Date // empty before the first was
	forecast map[string]calendar.Date
}

// pains follows a pain: what was practised before it, when it was cleared.
func (r *run) pains(k int, day calendar.Date) {
	if r.has(k, pained) {
		sum, n := 0, 0
		for _, m := range r.seen.told3 {
			if day.Sub(m.day) < 21 {
				sum, n = sum+m.minutes, n+1
			}
		}
		before := float64(r.seen.budget)
		if n >= 4 {
			before = float64(sum) / float64(n)
		}
		r.seen.hurt = hurt{on: true, before: before, since: day, forecast: map[string]calendar.Date{}}
	}
	if r.has(k, cleared) {
		r.seen.hurt.on, r.seen.hurt.cleared = false, day
	}
}

// forbidden are the reasons that nobody in pain is given.
var forbidden = []string{"thin-week", "ready-to-try", "home-habit", "home-smaller", "home-silent", "practises-little", "past-its-range"}

// onHurt holds a sheet and what stands beside it against the rules of pain.
func (r *run) onHurt(name string, v places.WeekView, lv places.LadderView) {
	h := r.seen.hurt
	if h.on && v.Sheet.From > h.since {
		bad := func(code string) bool { return slices.Contains(forbidden, code) }
		var found []string
		for _, o := range v.Sheet.LeftOut {
			if bad(o.Code) {
				found = append(found, o.Code)
			}
		}
		for _, t := range v.Home.Try {
			if bad(t.Code) {
				found = append(found, t.Code)
			}
		}
		for _, s := range lv.Suggestions {
			if bad(s.Why.Code) {
				found = append(found, s.Why.Code)
			}
		}
		for _, d := range v.Sheet.Days {
			for _, t := range d.Tasks {
				if bad(t.Why.Code) {
					found = append(found, t.Why.Code)
				}
			}
		}
		r.ledger.hold("25 pain", len(found) == 0, func() string { return fmt.Sprintf("%s, in pain: %v", name, found) })
		for _, rv := range lv.Rungs {
			if e := rv.Expected; e != nil && e.Mid != "" {
				was, told := h.forecast[rv.ID]
				r.ledger.hold("25 pain", !told || was == e.Mid, func() string {
					return fmt.Sprintf("%s, in pain: %s was foretold for %s, and for %s now", name, rv.Title, was, e.Mid)
				})
				h.forecast[rv.ID] = e.Mid
			}
		}
	}
	if h.cleared != "" && v.Sheet.From >= h.cleared && h.before > 0 {
		weeks := v.Sheet.From.Sub(h.cleared) / 7
		most := h.before / 2 * math.Pow(4.0/3, float64(weeks))
		if most < h.before {
			r.ledger.hold("25 back", float64(v.Sheet.Budget) <= math.Max(most, 1)+1e-9, func() string {
				return fmt.Sprintf("%s: %d minutes a day in week %d after a pain, %.0f before it", name, v.Sheet.Budget, weeks+1, h.before)
			})
		}
	}
}

// onWords holds the lines of a sheet: each has its reason and words, none reads as another of its
// day, and what is newly secure is.
func (r *run) onWords(name string, v places.WeekView, rungs map[string]places.RungView) {
	for _, l := range v.Sheet.Lines {
		r.ledger.hold("27 words", l.Says != "", func() string { return fmt.Sprintf("%s: %s has no words", name, l.Code) })
	}
	for _, d := range v.Sheet.Days {
		lines := map[string]bool{}
		for _, t := range d.Tasks {
			own := t.Why.Code == "" // the teacher's own line says itself
			r.ledger.hold("27 words", own || t.Says.Why != "", func() string { return fmt.Sprintf("%s: %s has no words for %s", name, t.Title, t.Why.Code) })
			if t.Start == nil || t.From == 0 { // stretches of one bar are told apart by their brackets
				line := t.Title + ": " + t.Says.What
				r.ledger.hold("28 twice", !lines[line], func() string { return fmt.Sprintf("%s, %s: %s stands twice", name, d.Date, line) })
				lines[line] = true
			}
			rv := rungs[t.Rung]
			if t.Why.Code == "newest-kept" && rv.Foothold != nil {
				weeks := float64(v.Sheet.From.Sub(calendar.On(*rv.Foothold))) / 7
				r.ledger.hold("26 newly", weeks <= 6, func() string { return fmt.Sprintf("%s: %s is newly secure after %.0f weeks", name, t.Title, weeks) })
			}
			if t.Why.Code == "ready-to-try" {
				r.ledger.hold("26 points", met(rv), func() string { return fmt.Sprintf("%s: %s has not all its points, or none", name, t.Title) })
			}
		}
	}
}

// met reports whether a rung has points, and all are met.
func met(rv places.RungView) bool {
	return len(rv.Points) > 0 && !slices.ContainsFunc(rv.Points, func(p places.PointView) bool { return p.State != ladder.Met })
}

// onWaits holds that no area waits for more than three lessons for the first of what is in hand,
// unless the ladder says so.
func (r *run) onWaits(lv places.LadderView) {
	said := map[string]bool{}
	for _, s := range lv.Suggestions {
		if s.Why.Code == "waits-long" {
			said[s.Rung] = true
		}
	}
	for _, rv := range lv.Rungs {
		if rv.State != ladder.Current || rv.Taught != nil || r.seen.mixture || r.seen.ache {
			delete(r.seen.waits, rv.ID)
			continue
		}
		r.seen.waits[rv.ID]++
		r.ledger.hold("24 waits", r.seen.waits[rv.ID] <= 4 || said[rv.ID] || r.seen.refused > 0, func() string {
			return fmt.Sprintf("%s, %s: %s has waited %d lessons for its first, and nothing says so", r.life.name, lv.Today, rv.Title, r.seen.waits[rv.ID]-1)
		})
	}
}

// onGames holds that no game is played four lessons running.
func (r *run) onGames(name string, plan lesson.Plan) {
	now := map[string]bool{}
	for _, b := range plan.Blocks {
		if b.Activity != nil && b.Kind != lesson.Probe {
			now[b.Activity.ID] = true
		}
	}
	for id := range r.seen.games {
		if !now[id] {
			delete(r.seen.games, id)
		}
	}
	for id := range now {
		r.seen.games[id]++
		r.ledger.hold("29 games", r.seen.games[id] < 4, func() string { return fmt.Sprintf("%s plays %s for the fourth time running", name, id) })
	}
}

// overrules is a teacher who has no use for games and wants pieces longer: the plan learns it.
func (r *run) overrules(day calendar.Date, plan lesson.Plan) bool {
	if !r.life.overrules {
		return false
	}
	did := false
	for _, b := range plan.Blocks {
		switch {
		case b.Kind == lesson.Activity && slices.ContainsFunc(b.Acts, func(a fact.Act) bool { return a.Do == "drop" }):
			r.ledger.hold("30 learns", r.seen.dropped < 3, func() string {
				return fmt.Sprintf("%s, lesson of %s: a game again after it was left out of %d lessons", r.life.name, day, r.seen.dropped)
			})
			r.say(fact.BlockDropped{Day: day, Block: b.Key, Sort: string(b.Kind)})
			r.seen.drops, did = day, true
		case b.Kind == lesson.Current && b.Minutes+3 <= b.Most && r.seen.longer < 3:
			r.say(fact.BlockTimed{Day: day, Block: b.Key, Minutes: b.Minutes + 3, Sort: string(b.Kind), Was: b.Minutes})
			did = true
		}
	}
	if r.seen.drops == day {
		r.seen.dropped++
	}
	if did {
		r.seen.longer++
	}
	return did
}

// titles is a book of our own of which nobody has the notes: titles and nothing else.
func titles() []shelf.Item {
	var out []shelf.Item
	for i, name := range []string{"Salt Road", "Old Tar", "Netting", "The Bell Buoy", "Two Oars", "Slow Tide", "Harbour Dog", "Fog on the Pier", "Windlass", "Seven Ropes", "The Late Boat", "Grey Morning"} {
		out = append(out, shelf.Item{ID: fmt.Sprintf("title-%d", i+1), Title: name, Instrument: "viola", Strand: shelf.Book, Book: titleBook, Unit: fmt.Sprint(1 + i/4)})
	}
	return out
}

// onSheetEdges holds a sheet, just given, against these rules.
func (r *run) onSheetEdges(v places.WeekView, lv places.LadderView) {
	name := fmt.Sprintf("%s, sheet of %s", r.life.name, v.Sheet.From)
	rungs := map[string]places.RungView{}
	for _, rv := range lv.Rungs {
		rungs[rv.ID] = rv
	}
	r.onHurt(name, v, lv)
	r.onWords(name, v, rungs)
	r.onWaits(lv)
	r.seen.budget = v.Sheet.Budget
	r.truths("sheet", v.Sheet.LeftOut, lv.Rungs, v.Sheet.From)
	for _, d := range v.Sheet.Days {
		for _, t := range d.Tasks {
			if t.Why.Code != "" {
				r.truths("task", []reason.Reason{t.Why}, about(lv.Rungs, t.Rung), v.Sheet.From)
			}
		}
	}
	for _, s := range lv.Suggestions {
		r.truths("suggestion", []reason.Reason{s.Why}, about(lv.Rungs, s.Rung), v.Sheet.From)
	}
	r.truths("home", v.Home.Try, lv.Rungs, v.Sheet.From)
}

// about is the rung that a reason is given beside, or all where it is beside none.
func about(rungs []places.RungView, id string) []places.RungView {
	if i := slices.IndexFunc(rungs, func(v places.RungView) bool { return v.ID == id }); i >= 0 {
		return rungs[i : i+1]
	}
	return rungs
}
