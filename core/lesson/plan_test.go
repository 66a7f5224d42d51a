package lesson

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

var today = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)

func ago(days int) *time.Time { t := today.AddDate(0, 0, -days); return &t }

func rung(id string, strand shelf.Strand, taught, foothold *time.Time) ladder.Rung {
	return ladder.Rung{ID: id, Item: shelf.Item{Title: "T " + id}, Strand: strand, Taught: taught, Foothold: foothold,
		Points: []ladder.Point{{Key: "tone", Name: "Tone"}}}
}

var usual = ladder.Standing{Rungs: []ladder.Rung{
	rung("old", shelf.Book, ago(80), ago(40)),
	rung("fresh", shelf.Book, ago(30), ago(7)),
	rung("now", shelf.Book, ago(14), nil),
	rung("later", shelf.Book, nil, nil),
	rung("scale", shelf.Technique, ago(7), nil),
	rung("notes", shelf.Reading, nil, nil),
}}

// asking is what a student's lesson is planned from, with the path reckoned here.
func asking(s ladder.Standing, a approach.Approach, age, minutes int, at time.Time) Ask {
	g := english.Skills("")
	slot := calendar.Slot{Weekday: at.Weekday(), Start: "16:00", Minutes: minutes}
	p := climb.Reckon(climb.Student{Standing: s, Graph: g, Approach: a, Plays: instrument.Shipped.Of("piano"), Slot: slot, Now: at})
	return Ask{Standing: s, Graph: g, Bank: english.Games(), Path: p, Ahead: ahead.Plan(s, g, p, a.HeadStarts(), at), Approach: a, Plays: instrument.Shipped.Of("piano"), Age: age, Minutes: minutes, Day: calendar.On(at), At: at}.ready()
}

func plan(s ladder.Standing, a approach.Approach, age, minutes int, at time.Time) Plan {
	return Make(asking(s, a, age, minutes, at))
}

func kinds(p Plan) (out []Kind) {
	for _, b := range p.Blocks {
		out = append(out, b.Kind)
	}
	return
}

func TestAHalfHour(t *testing.T) {
	p := plan(usual, approach.Default(9), 9, 30, today)
	assert.Equal(t, []Kind{SetUp, Opener, Technique, Current, Reading, Upkeep, Ahead, Close, Home}, kinds(p))
	assert.Equal(t, "fresh", p.Blocks[1].Rung, "opens with what is played well")
	assert.Equal(t, "old", p.Blocks[5].Rung, "upkeep brings back what is most nearly forgotten")
	assert.Equal(t, "40", p.Blocks[5].Why[0].Args["days"])
	assert.Equal(t, "fading", p.Blocks[5].Why[0].Code)
	assert.Equal(t, "later", p.Blocks[6].Rung)
	most := 0
	for _, b := range p.Blocks {
		most = max(most, b.Minutes)
	}
	assert.Equal(t, most, p.Blocks[3].Minutes, "the current piece has the most")
}

// Technique that cannot have calm minutes is left out: common practice, no
// source.
func TestAShortLessonLeavesOut(t *testing.T) {
	p := plan(usual, approach.Default(9), 9, 10, today)
	for _, k := range []Kind{SetUp, Current, Close, Home} {
		assert.Contains(t, kinds(p), k)
	}
	assert.NotContains(t, kinds(p), Technique, "left out rather than rushed")
	kept := false
	for _, b := range p.Blocks {
		kept = kept || b.Band == "upkeep"
	}
	assert.True(t, kept, "upkeep is never dropped")
	assert.NotEmpty(t, p.LeftOut)
}

func TestNothingPlacedYet(t *testing.T) {
	p := plan(ladder.Standing{}, approach.Default(34), 34, 45, today)
	assert.Equal(t, []Kind{SetUp, Probe, Probe, Probe, Probe, Probe, Open, Close, Home}, kinds(p), "a first meeting: a few questions, then getting to know each other")
	assert.Equal(t, "first", p.Mode)
}

func TestUpkeepBySchool(t *testing.T) {
	minutes := func(a approach.Approach) (n int) {
		for _, b := range plan(usual, a, 9, 45, today).Blocks {
			if b.Band == "upkeep" {
				n += b.Minutes
			}
		}
		return
	}
	third := approach.Default(9)
	third["upkeep"] = "third"
	assert.Greater(t, minutes(approach.EarFirst(9)), minutes(approach.Default(9)))
	assert.Greater(t, minutes(approach.Default(9)), minutes(third))
}

// Minutes at each age: common practice, no source.
func TestLongestActivity(t *testing.T) {
	for age, want := range map[int]int{3: 3, 4: 3, 5: 5, 6: 5, 7: 8, 9: 8, 10: 12, 13: 12, 14: 15, 60: 15} {
		assert.Equal(t, want, Longest(age), "at %d", age)
	}
	for _, b := range plan(usual, approach.Default(6), 6, 30, today).Blocks {
		assert.LessOrEqual(t, b.Minutes, 5)
	}
	short := ladder.Standing{Rungs: []ladder.Rung{rung("now", shelf.Book, ago(3), nil)}}
	for _, b := range plan(short, approach.Default(6), 6, 30, today).Blocks {
		if b.Minutes > 5 {
			assert.Equal(t, "stretched", b.Why[len(b.Why)-1].Code, "what must fill the lesson says so")
		}
	}
}

func TestMinutesAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var s ladder.Standing
		for i := range rapid.IntRange(0, 12).Draw(t, "rungs") {
			r := rung(fmt.Sprint(i), rapid.SampledFrom(shelf.Strands).Draw(t, "strand"), nil, nil)
			if rapid.Bool().Draw(t, "taught") {
				r.Taught = ago(50)
				if rapid.Bool().Draw(t, "secure") {
					r.Foothold = ago(rapid.IntRange(1, 49).Draw(t, "since"))
				}
			}
			s.Rungs = append(s.Rungs, r)
		}
		age := rapid.IntRange(3, 80).Draw(t, "age")
		length := rapid.IntRange(10, 90).Draw(t, "length")
		p := plan(s, approach.Default(age), age, length, today)
		assert.Equal(t, SetUp, p.Blocks[0].Kind, "set-up first")
		assert.Equal(t, Home, p.Blocks[len(p.Blocks)-1].Kind, "what to do at home last")
		assert.Contains(t, kinds(p), Close, "a close always")
		at, keys := 0, map[string]bool{}
		for _, b := range p.Blocks {
			assert.Equal(t, at, b.Start)
			assert.False(t, keys[b.Key], "%s stands once", b.Key)
			keys[b.Key] = true
			assert.GreaterOrEqual(t, b.Minutes, b.want.least)
			over := len(b.Why) > 0 && b.Why[len(b.Why)-1].Code == "stretched"
			assert.True(t, b.Minutes <= b.want.most || over, "no cap is broken without a word")
			for _, c := range b.Choices {
				assert.NotEmpty(t, c.Title)
			}
			at += b.Minutes
		}
		assert.Equal(t, length, at)
	})
}

// A step of a head start has its minutes as late as it may; one that is done comes again
// after two weeks, until its piece.
func TestHeadStartsHaveTheirMinutes(t *testing.T) {
	s := ladder.Standing{Rungs: append([]ladder.Rung{}, usual.Rungs...)}
	jig := rung("jig", shelf.Book, nil, nil)
	jig.Item.Brings = []string{"six-eight"}
	s.Rungs = append(s.Rungs, jig)
	block := func(h ladder.HeadStart) Block {
		s.Prepared = map[string]ladder.HeadStart{"six-eight": h}
		for _, b := range plan(s, approach.Default(8), 8, 30, today).Blocks {
			if b.Kind == Ahead {
				return b
			}
		}
		return Block{}
	}
	assert.Equal(t, "T later", block(ladder.HeadStart{}).Title, "its piece is far off")
	warm := block(ladder.HeadStart{Done: 2, Last: *ago(14)})
	assert.Equal(t, []any{2, "Clap a jig line from the page."}, []any{warm.Step, warm.Cue})
	assert.Equal(t, "T later", block(ladder.HeadStart{Done: 2, Last: *ago(7)}).Title, "shown a week ago: a first taste of what comes")
}

// Old songs first, then the new piece: common practice, no source.
func TestAfterABreak(t *testing.T) {
	s := ladder.Standing{Rungs: usual.Rungs, Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{calendar.On(*ago(40)): *ago(40)}}}
	p := plan(s, approach.Default(8), 8, 30, today)
	assert.Equal(t, []Kind{SetUp, Opener, Upkeep, Technique, Current, Close, Home}, kinds(p), "what is secure first, nothing begun, nothing ahead")
	assert.Equal(t, "break", p.Mode)
	assert.Equal(t, "after-break", p.Blocks[2].Why[0].Code)
}

func TestBeforeTheFirstBook(t *testing.T) {
	s := ladder.Standing{BeforeBook: true}
	for i, id := range []string{"steady-beat", "left-right", "higher-lower", "steps", "loud-soft", "direction", "one-finger"} {
		r := rung(id, shelf.Reading, nil, nil)
		r.Item.Brings = []string{id}
		if i < 2 {
			r.Taught, r.Foothold = ago(30), ago(7-i)
		}
		s.Rungs = append(s.Rungs, r)
	}
	p := plan(s, approach.Default(4), 4, 15, today)
	assert.Equal(t, SetUp, p.Blocks[0].Kind)
	assert.Equal(t, Opener, p.Blocks[1].Kind)
	assert.Equal(t, "goes-already", p.Blocks[1].Why[0].Code, "a success to begin with")
	assert.Contains(t, kinds(p), Mixture)
	assert.Contains(t, kinds(p), Probe, "an aim left over from the first meeting")
	for _, b := range p.Blocks {
		assert.LessOrEqual(t, b.Minutes, 3)
	}
}

func TestTheApproachSpeaksInTheBlocks(t *testing.T) {
	cues := func(a approach.Approach) []reason.Label { return plan(usual, a, 8, 30, today).Blocks[0].Schools }
	assert.Contains(t, cues(approach.Default(8)), reason.Said("approach.hand-image-hanging-cue"))
	assert.Contains(t, cues(approach.Default(8).With(approach.Approach{"hand-image": "round"})), reason.Said("approach.hand-image-round-cue"))
}
