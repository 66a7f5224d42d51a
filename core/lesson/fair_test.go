package lesson

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// given are closed lessons of the last weeks, the last a week ago.
func given(weeks int) ladder.Lessons {
	l := ladder.Lessons{Closed: map[calendar.Date]time.Time{}}
	for w := 1; w <= weeks; w++ {
		l.Closed[calendar.On(*ago(7 * w))] = *ago(7 * w)
	}
	return l
}

// In how many lessons a rung in hand had no part.
func TestHowLongARungWaits(t *testing.T) {
	at := func(r ladder.Rung, worked ...int) ladder.Rung {
		for _, days := range worked {
			r.Worked = append(r.Worked, calendar.On(*ago(days)))
		}
		return r
	}
	added := func(r ladder.Rung, days int) ladder.Rung { r.Added = *ago(days); return r }
	for _, c := range []struct {
		says  string
		rungs []ladder.Rung // the last is asked after
		rests []calendar.Span
		want  int
	}{
		{"placed today", []ladder.Rung{added(rung("a", shelf.Technique, nil, nil), 0)}, nil, 0},
		{"placed in the last lesson", []ladder.Rung{added(rung("a", shelf.Technique, nil, nil), 7)}, nil, 0},
		{"placed before it", []ladder.Rung{added(rung("a", shelf.Technique, nil, nil), 8)}, nil, 1},
		{"three lessons ago", []ladder.Rung{added(rung("a", shelf.Technique, nil, nil), 27)}, nil, 3},
		{"worked on in the last", []ladder.Rung{at(added(rung("a", shelf.Technique, ago(21), nil), 40), 21, 7)}, nil, 0},
		{"worked on in the one before", []ladder.Rung{at(added(rung("a", shelf.Technique, ago(21), nil), 40), 21, 14)}, nil, 1},
		{"what is below it was finished a fortnight ago", []ladder.Rung{rung("below", shelf.Technique, ago(40), ago(14)), added(rung("a", shelf.Technique, nil, nil), 60)}, nil, 1},
		{"what stands in another lane is nothing to it", []ladder.Rung{rung("below", shelf.Reading, ago(40), ago(7)), added(rung("a", shelf.Technique, nil, nil), 22)}, nil, 3},
		{"lessons of a pain do not count", []ladder.Rung{added(rung("a", shelf.Technique, nil, nil), 27)}, []calendar.Span{{From: calendar.On(*ago(15)), To: calendar.On(*ago(1))}}, 1},
	} {
		s := ladder.Standing{Rungs: c.rungs, Rests: c.rests, Lessons: given(6)}
		assert.Equal(t, c.want, s.Waits(c.rungs[len(c.rungs)-1], calendar.On(today)), c.says)
	}
}

// A lesson of twenty minutes cannot hold all that is in hand; over the weeks each has its turn, and none waits for
// more than three lessons.
func TestShortLessonsAreFair(t *testing.T) {
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
	for _, r := range []struct {
		id     string
		strand shelf.Strand
	}{{"book", shelf.Book}, {"scale", shelf.Technique}, {"notes", shelf.Reading}, {"song", shelf.Repertoire}, {"old", shelf.Book}, {"older", shelf.Book}} {
		one := rung(r.id, r.strand, nil, nil)
		one.Added = *ago(1)
		if r.id == "old" || r.id == "older" {
			one.Taught, one.Foothold = ago(90), ago(60)
		}
		s.Rungs = append(s.Rungs, one)
	}
	waited := map[string]int{}
	for week := range 12 {
		at := today.AddDate(0, 0, 7*week)
		p := plan(s, approach.Default(9), 9, 20, at)
		in := map[string]bool{}
		for _, b := range p.Blocks {
			in[b.Rung] = true
			if b.Kind == Technique || b.Kind == Reading || b.Kind == Current {
				assert.Greater(t, b.Minutes, 1, "nothing is done in a minute")
			}
		}
		for i := range s.Rungs {
			r := &s.Rungs[i]
			if r.Foothold != nil {
				continue
			}
			if in[r.ID] {
				waited[r.ID] = 0
				if r.Taught == nil {
					r.Taught = &at
				}
				r.Worked = append(r.Worked, calendar.On(at))
				continue
			}
			waited[r.ID]++
			assert.LessOrEqual(t, waited[r.ID], 3, "%s in week %d", r.ID, week)
		}
		s.Closed[calendar.On(at)] = at
	}
}

// What the teacher leaves out of three lessons is no longer planned, and a block that is made longer in three is
// planned as long.
func TestALessonLearnsFromTheTeacher(t *testing.T) {
	s := usual
	long := func(p Plan, k Kind) int {
		for _, b := range p.Blocks {
			if b.Kind == k {
				return b.Minutes
			}
		}
		return 0
	}
	before := plan(s, approach.Default(9), 9, 45, today)
	assert.Contains(t, kinds(before), Ahead)
	for n, there := range map[int]bool{2: true, 3: false} {
		s.Struck = map[string][]calendar.Date{ladder.LeftOut("ahead"): make([]calendar.Date, n), ladder.LeftOut("home"): make([]calendar.Date, n)}
		p := plan(s, approach.Default(9), 9, 45, today)
		assert.Equal(t, there, slices.Contains(kinds(p), Ahead), "left out of %d lessons", n)
		assert.Contains(t, kinds(p), Home, "no lesson is without it")
	}
	s = usual
	was := long(before, Technique)
	for i, days := range []int{21, 14, 7} {
		assert.Equal(t, was, long(plan(s, approach.Default(9), 9, 45, today), Technique), "after %d", i)
		s.Lengths = append(s.Lengths, ladder.Length{Day: calendar.On(*ago(days)), Block: "technique:scale", Kind: "technique", Was: was, Is: was + 4})
	}
	assert.Greater(t, long(plan(s, approach.Default(9), 9, 45, today), Technique), was)
}

// How blocks are cut for a lesson of so few minutes of playing: the longest gives way first, then what weighs least
// is left out; what must be there and what needs no playing stays.
func TestHowALessonIsEased(t *testing.T) {
	block := func(k Kind, least, most int, weight float64, must bool) Block {
		return Block{Kind: k, Title: string(k), want: want{least: least, best: most, most: most, weight: weight, must: must}}
	}
	for _, c := range []struct {
		says    string
		blocks  []Block
		minutes int
		want    []int // the most of each that is left
	}{
		{"short stretches", []Block{block(Current, 6, 12, 2, true), block(SetUp, 1, 3, 1, true)}, 10, []int{5, 3}},
		{"they fit to the minute", []Block{block(Current, 2, 5, 2, false), block(Upkeep, 2, 5, 1, false)}, 10, []int{5, 5}},
		{"a minute too much", []Block{block(Current, 2, 5, 2, false), block(Upkeep, 2, 5, 1, false)}, 9, []int{4, 5}},
		{"the longest gives way", []Block{block(Current, 2, 3, 2, false), block(Upkeep, 2, 5, 1, false)}, 6, []int{3, 3}},
		{"down to the least", []Block{block(Current, 2, 5, 2, false), block(Upkeep, 3, 5, 1, false)}, 5, []int{2, 3}},
		{"then the lightest goes", []Block{block(Current, 2, 5, 2, false), block(Upkeep, 3, 5, 1, false)}, 4, []int{2}},
		{"what must be there stays, though it is too much", []Block{block(Current, 4, 5, 2, true)}, 2, []int{4}},
	} {
		ask := asking(usual, approach.Default(9), 9, 30, today)
		ask.Bank = nil
		var got []int
		for _, b := range ask.eased(c.blocks, c.minutes) {
			got = append(got, b.want.most)
			assert.LessOrEqual(t, b.want.best, b.want.most, c.says)
		}
		assert.Equal(t, c.want, got, c.says)
	}
}

// In the weeks after a pain little of a lesson is played, in short stretches.
func TestALessonComesBackSlowly(t *testing.T) {
	for _, c := range []struct {
		says   string
		weeks  int
		played float64 // of the lesson at most
		said   bool
	}{{"the day it is cleared", 0, 0.5, true}, {"a week on", 1, 2.0 / 3, true}, {"a fortnight on", 2, 0.889, true}, {"three weeks on", 3, 1, false}} {
		s := usual
		cleared := calendar.On(*ago(7 * c.weeks))
		s.Rests = []calendar.Span{{From: cleared.Add(-30), To: cleared}}
		p := plan(s, approach.Default(9), 9, 30, today)
		sum, all := 0, 0
		for _, b := range p.Blocks {
			all += b.Minutes
			if plays(b) {
				sum += b.Minutes
				assert.True(t, !c.said || b.Minutes <= sitting, "%s: %s for %d", c.says, b.Title, b.Minutes)
			}
		}
		assert.Equal(t, 30, all, c.says)
		assert.LessOrEqual(t, float64(sum), c.played*30, c.says)
		assert.Equal(t, c.said, slices.ContainsFunc(p.Says, func(r reason.Reason) bool { return r.Code == "coming-back-lesson" }), c.says)
	}
}
