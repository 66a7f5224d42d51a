package record

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

func TestWhenABookIsUsedUp(t *testing.T) {
	today := calendar.Date("2026-11-18")
	var items []shelf.Item
	for _, id := range []string{"a1", "a2", "a3", "a4"} {
		items = append(items, shelf.Item{ID: id, Book: "A", Strand: shelf.Book})
	}
	items = append(items, shelf.Item{ID: "a5", Book: "A", Strand: shelf.Technique}, shelf.Item{ID: "b1", Book: "B", Strand: shelf.Book}, shelf.Item{ID: "c1", Book: "C", Strand: shelf.Book})
	won := func(id string, ago int) ladder.Rung {
		at := today.Add(-ago).Time().Add(time.Hour)
		return ladder.Rung{Item: items[0], Strand: shelf.Book, Foothold: &at, ID: id}
	}
	rung := func(i, ago int) ladder.Rung {
		r := won(items[i].ID, ago)
		r.Item = items[i]
		return r
	}
	s := ladder.Standing{Books: []string{"A", "B", "C"}, Rungs: []ladder.Rung{rung(0, 30), rung(1, 60), rung(5, 400)}}
	assert.Equal(t, []BookEnd{{Book: "B", Done: 1}, {Book: "A", Done: 2, Left: 2, By: today.Add(7 * 26)}}, Books(s, items, today), "two in half a year, two left: half a year; one that is used up comes first, one that was not begun is left out")
	s.Rungs = s.Rungs[2:]
	s.Began = "a3"
	assert.Equal(t, []BookEnd{{Book: "B", Done: 1}, {Book: "A", Done: 2, Left: 2}}, Books(s, items, today), "what lies before the beginning is done; without a pace no day is told")
	edge := ladder.Standing{Books: []string{"A"}, Rungs: []ladder.Rung{rung(0, 7*26-1), rung(1, 7*26)}}
	assert.Equal(t, today.Add(7*2*26), Books(edge, items, today)[0].By, "one of them lies within the half year")
	slow := Books(ladder.Standing{Books: []string{"A"}, Rungs: edge.Rungs}, many(items, 300), today)
	assert.Equal(t, []any{calendar.Date(""), true}, []any{slow[0].By, slow[0].Far}, "no day in years to come")
}

// many is a shelf whose book A has so many pieces more.
func many(items []shelf.Item, n int) []shelf.Item {
	for i := range n {
		items = append(items, shelf.Item{ID: fmt.Sprint("more", i), Book: "A", Strand: shelf.Book})
	}
	return items
}
