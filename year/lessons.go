package year

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/studio/places"
)

// onPlan holds the plan of a lesson that is about to begin against the rules of lessons.
func (r *run) onPlan(v places.LessonView) {
	name := fmt.Sprintf("%s, lesson of %s", r.life.name, v.Day)
	if r.show {
		text := name + " " + v.Plan.Mode
		for _, b := range v.Plan.Blocks {
			text += fmt.Sprintf("\n   %2d %s %s", b.Minutes, b.Kind, b.Title)
		}
		for _, o := range v.Plan.LeftOut {
			text += fmt.Sprintf("\n   out %v", o)
		}
		fmt.Println(text)
	}
	sum := 0
	for _, b := range v.Plan.Blocks {
		sum += b.Minutes
		for _, text := range []string{b.Cue, b.Title} {
			w := wrong(r.life, text)
			r.ledger.hold("01 words", w == "", func() string { return fmt.Sprintf("%s: %q in %q", name, w, text) })
		}
	}
	r.ledger.hold("10 minutes", sum == v.Plan.Minutes, func() string { return fmt.Sprintf("%s: %d of %d", name, sum, v.Plan.Minutes) })
	pieces := 0
	strand := map[string]shelf.Strand{}
	silent, near := map[string]int{}, map[string]bool{}
	for _, rv := range v.Rungs {
		silent[rv.ID] = rv.Silent
		near[rv.Title] = rv.Foothold != nil && rv.Target >= v.Day // it is heard in every lesson before its day
		strand[rv.ID] = rv.Strand
		if rv.State == ladder.Secure && rv.Strand.Piece() {
			pieces++
		}
	}
	now := map[string]bool{}
	isPiece := func(rung string) bool { return strand[rung].Piece() }
	before := r.seen.mixture
	for _, b := range v.Plan.Blocks {
		switch b.Kind {
		case lesson.Opener:
			r.seen.openers = append(r.seen.openers, b.Title)
			if n := len(r.seen.openers); n >= 4 && pieces > 2 && !r.seen.chosen[v.Day] {
				last := r.seen.openers[n-4:]
				r.ledger.hold("11 opener", !(last[0] == last[1] && last[1] == last[2] && last[2] == last[3]), func() string { return fmt.Sprintf("%s opens with %s for the fourth time", name, b.Title) })
			}
			if !before && pieces > 0 {
				r.ledger.hold("11 opener", isPiece(b.Rung), func() string { return fmt.Sprintf("%s opens with %s, a card or drill", name, b.Title) })
			}
		case lesson.Upkeep:
			now[b.Title] = true
			for _, w := range b.Why {
				if days := w.Args["days"]; w.Code == "fading" || w.Code == "due-again" {
					r.ledger.hold("18 silence", days == strconv.Itoa(silent[b.Rung]), func() string {
						return fmt.Sprintf("%s: %s silent for %s days, on the ladder for %d", name, b.Title, days, silent[b.Rung])
					})
				}
			}
			if chosen := slices.ContainsFunc(b.Why, func(w reason.Reason) bool { return w.Code == "chosen" }); pieces > 1 && !chosen {
				r.ledger.hold("11 opener", isPiece(b.Rung), func() string { return fmt.Sprintf("%s keeps %s alive, a card or drill", name, b.Title) })
			}
		case lesson.Activity, lesson.Close:
			if b.Activity != nil {
				now[b.Activity.Title] = true
			}
		case lesson.Probe:
			r.ledger.hold("13 passed", !r.seen.passed[b.Aim], func() string { return fmt.Sprintf("%s asks %s again, which was passed", name, b.Title) })
		}
	}
	for t := range r.seen.runs {
		if !now[t] {
			delete(r.seen.runs, t)
		}
	}
	for t := range now {
		r.seen.runs[t]++
		if (pieces > 4 || r.life.begin == "before") && !near[t] {
			r.ledger.hold("11 again", r.seen.runs[t] < 4, func() string { return fmt.Sprintf("%s has %s for the fourth time running", name, t) })
		}
	}
	r.begins(name, v)
}

// begins: a new piece comes soon after a break, and after a foothold.
func (r *run) begins(name string, v places.LessonView) {
	fresh := false // a piece that has not had its lesson waits, and is in the plan
	waits := map[shelf.Strand]string{}
	hand := map[shelf.Strand]bool{}
	for _, rv := range v.Rungs {
		if rv.State != ladder.Current {
			continue
		}
		if rv.Taught == nil {
			waits[rv.Strand] = rv.Title
		} else {
			hand[rv.Strand] = true
		}
	}
	planned := map[string]bool{}
	for _, b := range v.Plan.Blocks {
		planned[b.Title] = true
		for _, title := range waits {
			fresh = fresh || b.Title == title
		}
	}
	if v.Plan.Mode == "break" && len(waits) > 0 && !hand[shelf.Book] && waits[shelf.Book] != "" {
		if fresh {
			r.seen.noNew = 0
		} else {
			r.seen.noNew++
		}
		r.ledger.hold("12 break", r.seen.noNew < 2, func() string {
			return fmt.Sprintf("%s is the second after a break without %s", name, waits[shelf.Book])
		})
	} else {
		r.seen.noNew = 0
	}
	if v.Plan.Mode != "" {
		return
	}
	for _, strand := range []shelf.Strand{shelf.Book, shelf.Technique, shelf.Reading, shelf.Repertoire} {
		title, waiting := waits[strand]
		if !waiting || planned[title] {
			r.seen.free[strand] = 0
			continue
		}
		r.seen.free[strand]++
		if strand == shelf.Book {
			r.ledger.hold("12 next", r.seen.free[strand] < 3, func() string { return fmt.Sprintf("%s leaves %s waiting for the third lesson", name, title) })
		}
	}
}

// secured holds a foothold against what was asked for and foretold.
func (r *run) secured(v places.RungView, p *piece, day calendar.Date) {
	name := fmt.Sprintf("%s, %s, foothold of %s", r.life.name, day, v.Title)
	playing := v.Strand.Piece()
	if told := r.seen.told[v.ID]; playing && v.HasScore && (r.seen.sheets[v.ID] > 1 || r.seen.sheets[v.ID] == 1 && told.Whole.Low <= 1) { // quicker than nine in ten would be, after one
		r.ledger.hold("06 whole", r.seen.whole[v.ID], func() string {
			return fmt.Sprintf("%s after %d sheets: %v", name, r.seen.sheets[v.ID], r.seen.lines[v.ID])
		})
	}
	if e, told := r.seen.told[v.ID]; told {
		weeks := max(float64(p.lessons-1), 0.5)
		// weeks are whole: the part of the week that lies in the range
		in := math.Max(0, math.Min(weeks+0.5, e.Whole.High)-math.Max(weeks-0.5, e.Whole.Low))
		r.ledger.Range += in
		r.ledger.Told++
		r.ledger.Count("weeks to a foothold", weeks)
		r.ledger.Count("footholds", 1)
	}
}
