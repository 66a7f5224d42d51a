package advice

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
)

// A Habit is what the teacher does to sheet after sheet: kept already, or offered to be.
type Habit struct {
	Says reason.Reason `json:"says"`
	Acts []fact.Act    `json:"acts" doc:"keep, draft-again or let-go"`
}

// Habits lists what was struck from so many sheets, or left out of so many lessons, that it is no
// longer drafted, how long blocks of lessons are made, what was changed on sheets in the same way
// as often, and which times are kept so.
func Habits(s ladder.Standing, a approach.Approach) []Habit {
	out := []Habit{}
	for _, sort := range slices.Sorted(maps.Keys(s.Struck)) {
		if s.Strikes(sort) < int(judgement.StruckOften) {
			continue
		}
		says := reason.Of("habit-sort", "sort", sort)
		if kind, is := strings.CutPrefix(sort, ladder.LeftOut("")); is {
			says = reason.Of("habit-block", "kind", kind)
		} else if id, is := strings.CutPrefix(sort, "rung "); is {
			r, _ := s.Rung(id)
			says = reason.Of("habit-struck", "title", r.Item.Title)
		}
		out = append(out, Habit{says, []fact.Act{fact.Do("draft-again", "", fact.SortKept{Sort: sort})}})
	}
	for _, kind := range lesson.Kinds {
		if n := s.Usual(string(kind)); n > 0 {
			out = append(out, Habit{reason.Of("habit-length", "kind", string(kind), "minutes", strconv.Itoa(n)), []fact.Act{fact.Do("let-go", "", fact.SortKept{Sort: ladder.Timed(string(kind))})}})
		}
	}
	for _, sort := range []string{"piece", "scale", "pattern"} {
		kept, is := s.Counts[sort]
		if is {
			out = append(out, Habit{reason.Of("habit-count-kept", "sort", sort, "count", strconv.Itoa(kept.Times)), []fact.Act{fact.Do("let-go", "", fact.Retracted{Ref: kept.Fact})}})
		}
		if n := often(s.Changed, func(c ladder.Change) int { return of(c.Sort == sort, c.Count) }); n > 0 && n != kept.Times {
			out = append(out, Habit{reason.Of("habit-count", "sort", sort, "count", strconv.Itoa(n)), []fact.Act{fact.Do("keep", "", fact.CountKept{Sort: sort, Count: n})}})
		}
	}
	if together := often(s.Changed, func(c ladder.Change) int { return of(c.Hands == "together", 1) }); together > 0 && a[approach.Hands] != approach.Together {
		out = append(out, Habit{reason.Of("habit-hands"), []fact.Act{fact.Do("keep", "", fact.ApproachSet{Question: string(approach.Hands), School: string(approach.Together)})}})
	}
	return out
}

func of(is bool, n int) int {
	if is {
		return n
	}
	return 0
}

// often returns what changes came to on enough sheets, the newest first; 0 for nothing.
func often(changes []ladder.Change, to func(ladder.Change) int) int {
	days := map[int][]calendar.Date{}
	for _, c := range slices.Backward(changes) {
		n := to(c)
		if n == 0 || slices.Contains(days[n], c.Day) {
			continue
		}
		if days[n] = append(days[n], c.Day); len(days[n]) >= int(judgement.StruckOften) {
			return n
		}
	}
	return 0
}
