package week

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/shelf"
)

// drafted is a sheet of two pieces in hand and one that is kept alive.
func drafted() Sheet {
	return sheet(only(rung("one", 8, 1, at(from), nil), rung("two", 8, 2, at(from), nil), rung("old", 8, 1, at(from.Add(-60)), at(from.Add(-30)))), approach.Default(9), 9, from, next)
}

// days returns the days on which a line stands.
func days(sh Sheet, key string) (out []calendar.Date) {
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			if t.Key == key {
				out = append(out, d.Date)
			}
		}
	}
	return out
}

func task(t *testing.T, sh Sheet, key string) Task {
	t.Helper()
	line, there := sh.Line(key)
	require.True(t, there, "no such line: %s", key)
	return line
}

// A line goes past its neighbour on each day that has both; at the end of a day it stays.
func TestALineIsMoved(t *testing.T) {
	sh := drafted()
	keys := func(sh Sheet, day int) (out []string) {
		for _, t := range sh.Days[day].Tasks {
			out = append(out, t.Key)
		}
		return out
	}
	day := 1
	before := keys(sh, day)
	require.GreaterOrEqual(t, len(before), 3)
	move := func(line, to string) []string {
		return keys(Edit(sh, []fact.Fact{{ID: "m", Body: fact.LineMoved{Line: line, To: to}}}, Adds{Ask: Ask{Voice: english}}), day)
	}
	assert.Equal(t, []string{before[1], before[0], before[2]}, move(before[1], "up")[:3])
	assert.Equal(t, []string{before[1], before[0], before[2]}, move(before[0], "down")[:3])
	assert.Equal(t, before, move(before[0], "up"), "it is the first")
	assert.Equal(t, before, move(before[len(before)-1], "down"), "it is the last")
	assert.Equal(t, before, move("no such line", "up"))
}

// A pinned line stands on every day of its piece as it was, instead of what would be asked;
// it keeps its key, so that the pin can be taken out of it.
func TestAPinnedLineGoesOn(t *testing.T) {
	asked := ask(only(rung("new", 16, 1, at(from), nil)), approach.Default(9), 9, from, next)
	pin := Task{Key: "now new of before", Band: "now", Rung: "new", Title: "T new", From: 3, To: 4, Hands: "left", Count: 2}
	asked.Pinned = map[string][]Task{"new": {pin}, "gone": {{Key: "x", Rung: "gone"}}}
	for _, d := range Make(asked).Days[1:] {
		for _, task := range d.Tasks {
			if task.Band == "now" {
				assert.Equal(t, []any{"now new of before", 3, 4, "left", "pinned"}, []any{task.Key, task.From, task.To, task.Hands, task.Why.Code})
			}
		}
	}
	assert.Len(t, days(Make(asked), pin.Key), 6)
	assert.Equal(t, "bars 3–4, left hand, 2 times", task(t, Make(asked), pin.Key).Says.What)
}

// What a teacher's word does to a sheet, a touch at a time.
func TestTheTeachersWord(t *testing.T) {
	sh := drafted()
	var line, two Task
	for _, d := range sh.Days {
		for _, task := range d.Tasks {
			switch {
			case task.Rung == "one" && line.Key == "":
				line = task
			case task.Rung == "two" && two.Key == "":
				two = task
			}
		}
	}
	told := func(id string, b fact.Body) fact.Fact { return fact.Fact{ID: id, Body: b} }
	edit := func(bodies ...fact.Fact) Sheet {
		return Edit(sh, bodies, Adds{Ask: Ask{Voice: english}, Titles: map[string]string{"one": "T one"}})
	}

	struck := edit(told("f1", fact.LineStruck{Line: line.Key}))
	assert.Empty(t, days(struck, line.Key))
	assert.Equal(t, []Gone{{"f1", line.Title, line.Says.What}}, struck.Gone, "it says what went, once")
	assert.NotEmpty(t, days(sh, line.Key), "the draft stays")
	assert.Equal(t, sh.Days, struck.Drafted)

	changed := edit(told("f1", fact.LineChanged{Line: line.Key, Count: 7}))
	assert.Equal(t, 7, task(t, changed, line.Key).Count)
	assert.Contains(t, task(t, changed, line.Key).Says.What, "7 times", "its words with it")
	assert.Equal(t, days(sh, line.Key), days(changed, line.Key))

	hand := edit(told("f1", fact.LineChanged{Line: two.Key, Hands: "left"}))
	assert.Contains(t, task(t, hand, two.Key).Says.What, "left hand")
	bars := edit(told("f1", fact.LineChanged{Line: line.Key, From: 5, To: 6}))
	assert.Contains(t, task(t, bars, line.Key).Says.What, "bars 5–6")
	single := edit(told("f1", fact.LineChanged{Line: line.Key, From: 5}))
	assert.Contains(t, task(t, single, line.Key).Says.What, "bar 5,", "one bar")

	weekdays := edit(told("f1", fact.LineChanged{Line: line.Key, Weekdays: []int{1, 5}})) // Monday and Friday
	assert.ElementsMatch(t, []calendar.Date{"2026-11-20", "2026-11-23"}, days(weekdays, line.Key))

	own := edit(told("f1", fact.LineAdded{Rung: "one", Text: " Sing it first. ", Minutes: 3}))
	assert.Len(t, days(own, OwnLine("f1")), 6, "every day of practice, not the lesson's own")
	assert.Equal(t, "Sing it first.", task(t, own, OwnLine("f1")).Says.What)
	assert.Equal(t, "T one", task(t, own, OwnLine("f1")).Title)
	friday := edit(told("f1", fact.LineAdded{Text: "Draw the two animals.", Weekdays: []int{5}}))
	assert.Equal(t, []calendar.Date{"2026-11-20"}, days(friday, OwnLine("f1")))
	assert.Equal(t, "Also", task(t, friday, OwnLine("f1")).Title)
	assert.Empty(t, days(edit(told("f1", fact.LineAdded{Text: "x"}), told("f2", fact.LineStruck{Line: OwnLine("f1")})), OwnLine("f1")), "an own line is struck like any")

	noted := edit(told("f1", fact.SheetNoted{Text: "first"}), told("f2", fact.SheetNoted{Text: " Well done, all of you. "}))
	assert.Equal(t, "Well done, all of you.", noted.Word, "the last counts")

	again := Edit(struck, nil, Adds{Ask: Ask{Voice: english}})
	assert.Equal(t, sh.Days, again.Days, "all taken back, it reads as it was drafted")
	assert.Empty(t, again.Gone)
	assert.Empty(t, again.Drafted)
	twice := Edit(Edit(sh, []fact.Fact{told("f1", fact.LineAdded{Text: "x"})}, Adds{Ask: Ask{Voice: english}}), []fact.Fact{told("f1", fact.LineAdded{Text: "x"})}, Adds{Ask: Ask{Voice: english}})
	assert.Len(t, days(twice, OwnLine("f1")), 6, "the same word twice is one word")
	kept := 0
	for _, d := range edit(told("f1", fact.LineStruck{Line: line.Key})).Days[1:] {
		for _, task := range d.Tasks {
			if task.Band == "upkeep" {
				kept += task.Minutes
			}
		}
	}
	assert.Positive(t, kept)
	assert.Greater(t, struck.Share, sh.Share, "fewer minutes of new work, a greater share of upkeep")
}

// What is struck from three sheets is no longer drafted, and that is said.
func TestStruckAgainAndAgain(t *testing.T) {
	for _, c := range []struct {
		sheets int
		there  bool
	}{{2, true}, {3, false}} {
		s := only(rung("one", 8, 1, at(from), nil))
		s.Struck = map[string][]calendar.Date{"rung one": make([]calendar.Date, c.sheets)}
		sh := sheet(s, approach.Default(9), 9, from, next)
		there := len(sh.Keys()) > 0
		assert.Equal(t, c.there, there, "struck from %d sheets", c.sheets)
		said := 0
		for _, r := range sh.LeftOut {
			if r.Code == "struck-often" {
				said++
			}
		}
		assert.Equal(t, !c.there, said == 1)
	}
	assert.Equal(t, "listen", Task{Rung: "r", Listen: true}.Sort())
	assert.Equal(t, "head-start", Task{Skill: "reach-back"}.Sort())
	assert.Equal(t, "cards", Task{Rung: "r", Cards: []CardLine{{}}}.Sort(), "a sort is learnt, not a card")
	assert.Equal(t, "game", Task{Game: "fog"}.Sort())
	assert.Equal(t, "rung r", Task{Rung: "r", Start: &Start{StartOf: reading.StartOf{}}}.Sort())
}

// What the teacher keeps so stands on the sheets to come.
func TestTimesThatAreKept(t *testing.T) {
	for sort, want := range map[string]int{"piece": 5, "scale": 3} {
		s := only(rung("one", 8, 1, at(from), nil))
		s.Counts = map[string]ladder.Count{sort: {Fact: "f", Times: 5}}
		sh := sheet(s, approach.Default(9), 9, from, next)
		for _, task := range sh.Days[1].Tasks {
			if task.Band == "now" {
				assert.Equal(t, want, task.Count, "%s: %s", sort, task.Says.What)
			}
		}
	}
	for _, c := range []struct {
		is   Task
		want string
	}{
		{Task{Band: "now", Rung: "r"}, "piece"}, {Task{Band: "now", Rung: "r", Plays: []Play{{}}}, "scale"}, {Task{Band: "now", Rung: "r", Plays: []Play{{}}, InRow: true}, "pattern"},
		{Task{Band: "upkeep", Rung: "r"}, ""}, {Task{Band: "now", Rung: "r", Spot: "bar 3", InRow: true}, ""}, {Task{Band: "now", Rung: "r", Cards: []CardLine{{}}}, ""}, {Task{Band: "now", Rung: "r", Steps: []string{"x"}}, ""}, {Task{Band: "now"}, ""},
	} {
		assert.Equal(t, c.want, c.is.Counted(), "%+v", c.is)
	}
}

// A teacher puts something of the shelf, an exercise, cards or a game on the sheet: it reads
// as the sheet would write it, with the teacher's words behind it.
func TestALineFromTheShelf(t *testing.T) {
	sh := drafted()
	adds := Adds{
		Ask:   Ask{Voice: english, Plays: instrument.Shipped.Of("piano"), Approach: approach.Default(9), Age: 9, At: from.Time()},
		Items: map[string]shelf.Item{"gulls": {ID: "gulls", Title: "Gulls on the Slipway", Strand: shelf.Book, HasScore: true, Bars: 8}, "marks": {ID: "marks", Title: "Landmarks", Strand: shelf.Reading, Cards: "landmarks"}},
		All:   []activity.Activity{{ID: "fog", Title: "Fog horns", Levels: []string{"One low, one high."}, Exit: "five right"}},
	}
	for _, c := range []struct {
		says       fact.LineAdded
		title      string
		what, also string // in its words
		item       string
	}{
		{fact.LineAdded{Item: "gulls"}, "Gulls on the Slipway", "whole, 1 time", "", "gulls"},
		{fact.LineAdded{Item: "gulls", Text: "Only the last line."}, "Gulls on the Slipway", "whole, 1 time", ". Only the last line.", "gulls"},
		{fact.LineAdded{Item: "marks"}, "Landmarks", "→", "", "marks"},
		{fact.LineAdded{Exercise: "scale Eb major both 2"}, "E flat major, two octaves", "right hand", "3 times", ""},
		{fact.LineAdded{Game: "fog"}, "Fog horns", "One low, one high. It is right when: five right", "", ""},
		{fact.LineAdded{Text: "Clap it."}, "Also", "Clap it.", "", ""},
		{fact.LineAdded{Game: "gone"}, "Also", "", "", ""},
	} {
		c.says.Day = from
		line := task(t, Edit(sh, []fact.Fact{{ID: "f1", Body: c.says}}, adds), OwnLine("f1"))
		assert.Equal(t, c.title, line.Title)
		assert.Contains(t, line.Says.What, c.what, c.title)
		assert.Contains(t, line.Says.What, c.also, c.title)
		assert.Equal(t, c.item, line.Item)
	}
}
