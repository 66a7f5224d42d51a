package record

import (
	"math"
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// A BookEnd says how far a student has come through a book, and when it will be used up.
type BookEnd struct {
	Book string        `json:"book"`
	Done int           `json:"done" doc:"pieces that are secure, or lie before where the student began"`
	Left int           `json:"left" doc:"0 of a book that is used up"`
	By   calendar.Date `json:"by" doc:"when it will be, at the pace of the last half year; empty where there was none, or where it lies far off"`
	Far  bool          `json:"far,omitempty" doc:"in more than two years"`
}

// pacedBy is how many weeks back the pace through books is taken from.
const pacedBy = 26

// Books tells the books of a student that are begun, what will be used up first in front. Items are
// those of the shelf, in its order.
func Books(s ladder.Standing, items []shelf.Item, today calendar.Date) []BookEnd {
	secure, lately := map[string]bool{}, 0
	for _, r := range s.Rungs {
		if r.Foothold == nil {
			continue
		}
		secure[r.Item.ID] = true
		if r.Strand == shelf.Book && calendar.On(*r.Foothold) > today.Add(-7*pacedBy) {
			lately++
		}
	}
	began := slices.IndexFunc(items, func(it shelf.Item) bool { return it.ID == s.Began })
	var out []BookEnd
	for _, book := range s.Books {
		e := BookEnd{Book: book}
		for i, it := range items {
			switch {
			case it.Book != book || it.Strand != shelf.Book:
			case secure[it.ID] || began >= 0 && items[began].Book == book && i < began:
				e.Done++
			default:
				e.Left++
			}
		}
		if e.Done == 0 || e.Done+e.Left == 0 {
			continue
		}
		if e.Left > 0 && lately > 0 {
			if e.By = today.Add(7 * int(math.Ceil(float64(e.Left)*pacedBy/float64(lately)))); e.By.Beyond(today) {
				e.By, e.Far = "", true
			}
		}
		out = append(out, e)
	}
	slices.SortStableFunc(out, Sooner)
	return out
}

// Sooner sorts books by when they are used up.
func Sooner(a, b BookEnd) int { return strings.Compare(when(a), when(b)) }

// when sorts books: used up first, then by their day, those without one last.
func when(e BookEnd) string {
	switch {
	case e.Left == 0:
		return ""
	case e.Far:
		return "9998"
	case e.By == "":
		return "9999"
	}
	return string(e.By)
}
