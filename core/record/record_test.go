package record

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

func on(day calendar.Date) *time.Time {
	at := day.Time().Add(16 * time.Hour)
	return &at
}

func rung(title string, foothold calendar.Date, brings ...string) ladder.Rung {
	r := ladder.Rung{ID: title, Item: shelf.Item{Title: title, Brings: brings}, Strand: shelf.Book}
	if foothold != "" {
		r.Foothold = on(foothold)
	}
	return r
}

// A span counts from its first day to its last, both among them; what was had before is not
// brought again. The skills are made up.
func TestWhatASpanBrought(t *testing.T) {
	g := skill.Graph{}
	for _, id := range []string{"ties", "leaps", "thumb", "dots"} {
		g[id] = skill.Skill{ID: id, Name: "name of " + id}
	}
	parts := rung("Cycle", "2026-09-20", "dots")
	parts.Parts = []ladder.Part{{ID: "c", Name: "C", Foothold: on("2026-08-30")}, {ID: "g", Name: "G", Foothold: on("2026-09-20")}}
	s := ladder.Standing{
		Rungs: []ladder.Rung{
			rung("Last day", "2026-09-30", "leaps", "ties"), rung("Day before", "2026-08-31", "ties"), rung("First day", "2026-09-01", "thumb"),
			rung("Day after", "2026-10-01", "leaps"), rung("In hand", ""), parts,
		},
		Lessons:  ladder.Lessons{Closed: map[calendar.Date]time.Time{"2026-08-31": {}, "2026-09-01": {}, "2026-09-30": {}, "2026-10-01": {}}},
		Practice: []ladder.Practice{{Day: "2026-08-31"}, {Day: "2026-09-01"}, {Day: "2026-09-01"}, {Day: "2026-09-30"}},
	}
	b := Over(s, g, []string{"thumb"}, calendar.Span{From: "2026-09-01", To: "2026-09-30"})
	assert.Equal(t, 2, b.Lessons)
	assert.Equal(t, 2, b.Days, "a day told twice is one")
	assert.Equal(t, 7, b.Asked, "six days after each lesson: one of the day before the span asks too, one of its last day asks after it")
	var won []string
	for _, w := range b.Footholds {
		won = append(won, w.Title+" "+w.Part)
	}
	assert.Equal(t, []string{"First day ", "Cycle G", "Last day "}, won, "in order, a part at its own time, and no whole beside its parts")
	assert.Equal(t, []string{"name of dots", "name of leaps"}, b.Skills, "ties were had, and the thumb was taken for granted")

	later := Over(s, g, nil, calendar.Span{From: "2026-10-01", To: "2026-10-31"})
	assert.Empty(t, later.Skills, "leaps are not brought a second time")
	assert.Len(t, later.Footholds, 1)
}

// A term that has come to its fourth week is held against four weeks of the one before.
func TestATermBesideTheOneBefore(t *testing.T) {
	spring := calendar.Span{Name: "Spring", From: "2026-01-12", To: "2026-03-29"}
	summer := calendar.Span{Name: "Summer", From: "2026-04-20", To: "2026-07-12"}
	autumn := calendar.Span{Name: "Autumn", From: "2026-09-07", To: "2026-12-20"}
	c := calendar.Calendar{Terms: []calendar.Span{summer, autumn, spring}}
	type row struct{ name, soFar, before string }
	say := func(today calendar.Date) (rows []row) {
		for _, t := range Terms(c, today) {
			r := row{t.Name, string(t.SoFar.From) + "/" + string(t.SoFar.To), ""}
			if t.Before != nil {
				r.before = string(t.Before.From) + "/" + string(t.Before.To)
			}
			rows = append(rows, r)
		}
		return rows
	}
	assert.Equal(t, []row{{"Autumn", "2026-09-07/2026-10-04", "2026-04-20/2026-05-17"}, {"Summer", "2026-04-20/2026-07-12", "2026-01-12/2026-03-29"}, {"Spring", "2026-01-12/2026-03-29", ""}}, say("2026-10-04"))
	assert.Equal(t, []row{{"Summer", "2026-04-20/2026-07-12", "2026-01-12/2026-03-29"}, {"Spring", "2026-01-12/2026-03-29", ""}}, say("2026-09-06"), "one that has not begun is none")
	assert.Equal(t, "2026-09-07/2026-12-19", say("2026-12-19")[0].soFar)
	assert.Equal(t, "2026-04-20/2026-07-12", say("2026-12-19")[0].before, "a shorter one ends with its last day")
	assert.Equal(t, "2026-04-20/2026-07-12", say("2026-12-20")[0].before)

	c.Terms = nil
	assert.Equal(t, []row{{"the last twelve weeks", "2026-07-13/2026-10-04", "2026-04-20/2026-07-12"}, {"the twelve weeks before", "2026-04-20/2026-07-12", ""}}, say("2026-10-04"))
	c.Terms = []calendar.Span{autumn}
	assert.Empty(t, say("2026-09-06"))
}
