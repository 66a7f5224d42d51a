package week

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

const from, next = calendar.Date("2026-11-18"), calendar.Date("2026-11-25")

func at(d calendar.Date) *time.Time { t := d.Time(); return &t }

func rung(id string, bars, staves int, taught, foothold *time.Time) ladder.Rung {
	return ladder.Rung{ID: id, Strand: shelf.Book, Taught: taught, Foothold: foothold,
		Item:   shelf.Item{Title: "T " + id, Bars: bars, Staves: staves},
		Points: []ladder.Point{{Key: "tone", Name: "Tone"}}}
}

func only(rungs ...ladder.Rung) ladder.Standing {
	return ladder.Standing{Rungs: rungs, Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{from: from.Time()}}}
}

// sheet writes the sheet of a student whose path is reckoned here too.
func sheet(s ladder.Standing, a approach.Approach, age int, from, next calendar.Date) Sheet {
	return Make(ask(s, a, age, from, next))
}

func ask(s ladder.Standing, a approach.Approach, age int, from, next calendar.Date) Ask {
	g := english.SkillsAtHome("")
	p := climb.Reckon(climb.Student{Standing: s, Graph: g, Approach: a, Plays: instrument.Shipped.Of("piano"), Slot: calendar.Slot{Weekday: from.Weekday(), Start: "16:00", Minutes: 30}, Now: from.Time()})
	return Ask{Voice: english, Standing: s, Graph: g, Path: p, Ahead: ahead.Plan(s, g, p, a.HeadStarts(), from.Time()), Approach: a, Plays: instrument.Shipped.Of("piano"), Age: age, From: from, Next: next, Through: next.Add(-1), At: from.Time()}
}

func bars(d Day) (out []string) {
	for _, t := range d.Tasks {
		if t.Band == "now" {
			out = append(out, fmt.Sprintf("%d-%d", t.From, t.To))
		}
	}
	return
}

func TestChunksAreJoinedThroughTheWeek(t *testing.T) {
	sh := sheet(only(rung("new", 16, 1, at(from), nil)), approach.Default(6), 6, from, next)
	require.Len(t, sh.Days, 7)
	assert.True(t, sh.Days[0].Lesson)
	var got [][]string
	for _, d := range sh.Days[1:] {
		got = append(got, bars(d))
	}
	assert.Equal(t, [][]string{{"1-4", "5-8"}, {"9-12", "13-16"}, {"1-8"}, {"9-16"}, {"0-0"}, {"0-0"}}, got)
	assert.Equal(t, 6, sh.Days[1].Tasks[0].Count, "as many times as the child has years")
	assert.Equal(t, "small-first", sh.Days[1].Tasks[0].Why.Code)
	assert.Equal(t, "join-two", sh.Days[3].Tasks[0].Why.Code)
	assert.Equal(t, map[string]string{"point": "Tone"}, sh.Days[5].Tasks[0].Why.Args, "one point to hold")
}

func TestHandsRule(t *testing.T) {
	for _, c := range []struct {
		name   string
		worked []calendar.Date
		a      approach.Approach
		staves int
		want   string
	}{
		{"a lesson that did not come to it is no lesson of it", nil, approach.Default(9), 2, "right"},
		{"first week: right hand", []calendar.Date{"2026-11-18"}, approach.Default(9), 2, "right"},
		{"second week: left hand", []calendar.Date{"2026-11-18", "2026-11-25"}, approach.Default(9), 2, "left"},
		{"third week: together", []calendar.Date{"2026-11-18", "2026-11-25", "2026-12-02"}, approach.Default(9), 2, "together"},
		{"a school that begins together", []calendar.Date{"2026-11-18"}, approach.Default(9).With(approach.Approach{"hands": "together"}), 2, "together"},
		{"one staff has no hands rule", []calendar.Date{"2026-11-18"}, approach.Default(9), 1, ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			s := only(rung("duet", 8, c.staves, at("2026-11-18"), nil))
			s.Closed = map[calendar.Date]time.Time{}
			s.Rungs[0].Worked = c.worked
			for _, d := range []calendar.Date{"2026-11-18", "2026-11-25", "2026-12-02"} {
				s.Closed[d] = d.Time()
			}
			sh := sheet(s, c.a, 9, "2026-12-02", "2026-12-09")
			for _, d := range sh.Days[1:] {
				for _, task := range d.Tasks {
					assert.Equal(t, c.want, task.Hands)
				}
			}
		})
	}
	a := ask(only(rung("turns", 8, 2, at(from), nil)), approach.Default(9), 9, from, next)
	a.InTurn = map[string]bool{"turns": true}
	assert.Equal(t, "together", Make(a).Days[1].Tasks[0].Hands, "hands that take turns are one line")
}

func TestOnlyWhatWasShown(t *testing.T) {
	sh := sheet(only(rung("shown", 8, 1, at(from), nil), rung("not shown", 8, 1, nil, nil)), approach.Default(10), 10, from, next)
	for _, d := range sh.Days {
		for _, task := range d.Tasks {
			if task.Rung == "not shown" {
				assert.True(t, task.Listen)
			}
		}
	}
}

func TestSpotsComeFirst(t *testing.T) {
	r := rung("spotty", 16, 1, at("2026-10-01"), nil)
	r.Spots = []ladder.Spot{{ID: "a", Where: "bar 11", Goal: 5, Done: 2}, {ID: "b", Where: "bar 3", Goal: 3, Done: 3}}
	s := only(r)
	for i := range 6 {
		d := calendar.Date("2026-10-07").Add(7 * i)
		s.Closed[d] = d.Time()
	}
	day := sheet(s, approach.Default(12), 12, from, next).Days[1]
	require.Len(t, day.Tasks, 2)
	assert.Equal(t, "bar 11", day.Tasks[0].Spot)
	assert.Equal(t, 5, day.Tasks[0].Count)
	assert.True(t, day.Tasks[0].InRow)
	assert.Zero(t, day.Tasks[1].From, "then the whole")
}

// About twice the age for the young, 20 to 30 at nine to twelve, 30 to 60
// beyond; as many times as a young child has years: common practice, no source.
func TestMinutesAndTimes(t *testing.T) {
	for age, want := range map[int][2]int{3: {6, 3}, 5: {10, 5}, 8: {16, 8}, 9: {25, 3}, 12: {25, 3}, 15: {40, 3}, 46: {30, 3}} {
		assert.Equal(t, want, [2]int{Budget(age), Times(age)}, "at %d", age)
	}
}

func TestUpkeepShareBySchool(t *testing.T) {
	s := only(rung("now", 8, 1, at(from), nil), rung("a", 8, 1, at("2026-09-01"), at("2026-10-01")),
		rung("b", 8, 1, at("2026-09-01"), at("2026-10-08")), rung("c", 8, 1, at("2026-09-01"), at("2026-10-15")),
		rung("d", 8, 1, at("2026-09-01"), at("2026-10-22")))
	for _, upkeep := range []approach.School{"three-quarters", "half", "third"} {
		a := approach.Default(12)
		a["upkeep"] = upkeep
		sh := sheet(s, a, 12, from, next)
		assert.InDelta(t, a.UpkeepShare(), sh.Share, 0.05, upkeep)
		heard := map[string]int{}
		for _, d := range sh.Days {
			for _, task := range d.Tasks {
				if task.Band == "upkeep" {
					heard[task.Rung]++
				}
			}
		}
		assert.Len(t, heard, 4, "each secure piece has its turn")
		assert.GreaterOrEqual(t, heard["d"], heard["a"], "the newest at least as often")
	}
}

func TestRotation(t *testing.T) {
	for n := 1; n < 12; n++ {
		seen := map[int]int{}
		for _, i := range rotation(n) {
			seen[i]++
		}
		assert.Len(t, seen, n)
	}
}

// Ear first leaves few minutes for new work: the piece of the book still comes
// every day, and everything else that was taught has its turn.
func TestManyRungsFewMinutes(t *testing.T) {
	scale, notes := rung("scale", 0, 1, at("2026-11-04"), nil), rung("notes", 0, 1, at(from), nil)
	scale.Strand, notes.Strand = shelf.Technique, shelf.Reading
	tune := rung("tune", 12, 1, at("2026-11-11"), nil)
	tune.Strand = shelf.Repertoire
	s := only(rung("lamp", 16, 1, at("2026-11-04"), nil), scale, notes, tune,
		rung("old", 8, 1, at("2026-09-01"), at("2026-10-01")), rung("older", 8, 1, at("2026-09-01"), at("2026-09-20")))
	sh := sheet(s, approach.EarFirst(8), 8, from, next)
	days := map[string]int{}
	for _, d := range sh.Days {
		today := map[string]bool{}
		for _, task := range d.Tasks {
			today[task.Rung] = true
		}
		for id := range today {
			days[id]++
		}
	}
	assert.Equal(t, 6, days["lamp"])
	for _, id := range []string{"scale", "notes", "tune"} {
		assert.Equal(t, 2, days[id], id)
	}
	assert.Empty(t, sh.LeftOut)
	assert.InDelta(t, 0.75, sh.Share, 0.05)
}

func TestTurns(t *testing.T) {
	for _, c := range []struct {
		name    string
		n, room int
		want    [][]int
	}{
		{"all fit", 2, 3, [][]int{{0, 1}, {0, 1}, {0, 1}, {0, 1}, {0, 1}, {0, 1}}},
		{"one by one", 3, 1, [][]int{{0}, {1}, {0}, {2}, {0}, {1}}},
		{"first daily, others in turn", 4, 2, [][]int{{0, 1}, {0, 2}, {0, 3}, {0, 1}, {0, 2}, {0, 3}}},
		{"only one", 1, 1, [][]int{{0}, {0}, {0}, {0}, {0}, {0}}},
	} {
		assert.Equal(t, c.want, turns(c.n, c.room, practice), c.name)
	}
}

func TestHalvesWhenNotEveryDay(t *testing.T) {
	var got [][]chunk
	for turn := 1; turn <= 3; turn++ {
		got = append(got, halves(9, turn, 3, 1))
	}
	assert.Equal(t, [][]chunk{{{from: 1, to: 4}}, {{from: 5, to: 9}}, {{}}}, got)
	assert.Equal(t, []chunk{{}}, halves(9, 1, 2, 1), "two turns: whole each time")
	assert.Equal(t, []chunk{{}}, halves(9, 1, 3, 5), "long in hand")
}

func TestEveryWeek(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var rungs []ladder.Rung
		for i := range rapid.IntRange(0, 14).Draw(t, "rungs") {
			var taught, done *time.Time
			if rapid.Bool().Draw(t, "taught") {
				taught = at(from.Add(-7 * rapid.IntRange(0, 6).Draw(t, "weeks")))
				if rapid.Bool().Draw(t, "secure") {
					done = at(from)
				}
			}
			r := rung(fmt.Sprint(i), rapid.IntRange(0, 64).Draw(t, "bars"), rapid.IntRange(1, 2).Draw(t, "staves"), taught, done)
			r.Strand = rapid.SampledFrom(shelf.Strands).Draw(t, "strand")
			rungs = append(rungs, r)
		}
		age := rapid.IntRange(3, 80).Draw(t, "age")
		a := approach.Default(age)
		a["upkeep"] = rapid.SampledFrom([]approach.School{"three-quarters", "half", "third"}).Draw(t, "upkeep")
		sh := sheet(only(rungs...), a, age, from, next)
		learnt := map[string]map[int]bool{} // bars met so far, by rung
		for i, d := range sh.Days {
			assert.Equal(t, from.Add(i), d.Date)
			sum := 0
			keys := map[string]bool{}
			for k, task := range d.Tasks {
				assert.True(t, k == 0 || slices.Index(bands, d.Tasks[k-1].Band) <= slices.Index(bands, task.Band), "new work first, while fresh")
				assert.False(t, keys[task.Key], "two tasks of %s are ticked as one", d.Date)
				keys[task.Key] = true
				sum += task.Minutes
				assert.Positive(t, task.Minutes)
				assert.Positive(t, task.Count)
				assert.NotEmpty(t, task.Says.Why, "no task without a reason in words: %s", task.Why.Code)
				assert.NotContains(t, task.Says.Why, "{")
				assert.NotEmpty(t, task.Says.What)
				if task.Band != "now" || task.From == 0 {
					continue
				}
				assert.Less(t, i, 5, "whole on the last two days")
				assert.True(t, 1 <= task.From && task.From <= task.To)
				if learnt[task.Rung] == nil {
					learnt[task.Rung] = map[int]bool{}
				}
				for b := task.From; b <= task.To; b++ {
					if task.Why.Code == "join-two" {
						assert.True(t, learnt[task.Rung][b], "bar %d is joined before it was learnt", b)
					}
					learnt[task.Rung][b] = true
				}
			}
			assert.True(t, sum <= sh.Budget || i == 0, "day %d", i)
		}
		for _, line := range sh.Lines {
			assert.NotEmpty(t, line.Says, line.Code)
			assert.NotContains(t, line.Says, "{")
		}
	})
}

func TestHeadStartsStandOnTheSheet(t *testing.T) {
	jig := rung("jig", 8, 1, nil, nil)
	jig.Item.Brings = []string{"dotted"}
	s := only(rung("now", 8, 1, at(from), nil), rung("between", 8, 1, nil, nil), jig)
	for _, d := range sheet(s, approach.Default(10), 10, from, next).Days {
		for _, task := range d.Tasks {
			assert.Empty(t, task.Skill, "nothing was shown of it")
		}
	}
	s.Prepared = map[string]ladder.HeadStart{"dotted": {Done: 1, Last: calendar.Date(from).Time()}}
	sh := sheet(s, approach.Default(10), 10, from, next)
	days := 0
	for _, d := range sh.Days {
		for _, task := range d.Tasks {
			if task.Skill == "dotted" {
				days++
				assert.Equal(t, "Say a long-short word over and over, in time", task.Do)
				assert.Equal(t, "head-start", task.Why.Code)
			}
		}
	}
	assert.Equal(t, 3, days, "every other day")
}

func TestOnlyWhatTheHomeInstrumentCanDo(t *testing.T) {
	soft := rung("soft", 8, 1, at(from), nil)
	soft.Item.Instrument, soft.Item.Brings = "piano", []string{"loud-soft"}
	in := ask(only(soft, rung("plain", 8, 1, at(from), nil)), approach.Default(9), 9, from, next)
	in.Home = shelf.Home{Keys: 61, NoTouch: true}
	sh := Make(in)
	for _, d := range sh.Days {
		for _, task := range d.Tasks {
			assert.NotEqual(t, "soft", task.Rung)
		}
	}
	require.Len(t, sh.LeftOut, 1)
	assert.Equal(t, "home-lacks", sh.LeftOut[0].Code)
}

func TestAfterABreakTheSheetIsLighter(t *testing.T) {
	s := only(rung("now", 8, 1, at("2026-06-03"), nil), rung("old", 8, 1, at("2026-05-01"), at("2026-06-01")))
	s.Closed["2026-07-01"] = calendar.Date("2026-07-01").Time()
	sh := sheet(s, approach.Default(10), 10, from, next)
	assert.Equal(t, 18, sh.Budget)
	assert.Equal(t, "after-break", sh.LeftOut[0].Code)
}
