package lesson

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// Both sides of the bounds of a lesson's rules.

// How many moving games break up the sitting. Common practice, no source.
func TestHowOftenAYoungOneMoves(t *testing.T) {
	for _, c := range []struct{ age, minutes, want int }{
		{3, 9, 0}, {3, 10, 1}, {3, 15, 1}, {3, 19, 2}, {6, 15, 0}, {6, 16, 1}, {6, 30, 1}, {6, 31, 2}, {7, 24, 0}, {7, 25, 1}, {8, 60, 0}, {40, 60, 0},
	} {
		assert.Equal(t, c.want, movers(c.age, c.minutes), "%d years, %d minutes", c.age, c.minutes)
	}
}

// What moves stands where the longest sitting is shortest, never first nor last.
func TestWhereAYoungOneMoves(t *testing.T) {
	block := func(key string, minutes int, moving bool) Block {
		return Block{Key: key, Minutes: minutes, Moving: moving}
	}
	still := []Block{block("set-up", 1, false), block("a", 4, false), block("b", 4, false), block("c", 4, false), block("home", 1, false)}
	keys := func(list []Block) (out string) {
		for _, b := range list {
			out += b.Key + " "
		}
		return strings.TrimSpace(out)
	}
	one, two := block("jump", 2, true), block("march", 2, true)
	assert.Equal(t, "set-up a jump b c home", keys(alternated(append(still[:5:5], one), 7)))
	assert.Equal(t, "set-up a jump b march c home", keys(alternated(append(still[:5:5], one, two), 7)))
	assert.Equal(t, "set-up a b c home jump", keys(alternated(append(still[:5:5], one), 8)), "older ones as it comes")
	assert.Equal(t, "set-up jump", keys(alternated([]Block{one, still[0]}, 7)), "nowhere but at the end")
	assert.Equal(t, 9, sat(alternated(append(still[:5:5], one), 7)))
	assert.Equal(t, 14, sat(still))
	assert.Zero(t, sat([]Block{one, two}))
}

// Where the teacher moves a block, and what may be done to each.
func TestMovingBlocks(t *testing.T) {
	blocks := []Block{{Key: "set-up", Kind: SetUp}, {Key: "a", Kind: Opener}, {Key: "b", Kind: Current}, {Key: "close", Kind: Close}, {Key: "home", Kind: Home}}
	order := func(changes ...fact.Body) (out string) {
		for _, b := range (Ask{Changes: changes}).moved(blocks) {
			out += b.Key + " "
		}
		return strings.TrimSpace(out)
	}
	const asIs = "set-up a b close home"
	for _, c := range []struct{ block, after, want string }{
		{"b", "set-up", "set-up b a close home"}, {"a", "b", "set-up b a close home"}, {"a", "close", "set-up b close a home"},
		{"a", "home", asIs}, {"set-up", "a", asIs}, {"home", "set-up", asIs}, {"gone", "a", asIs}, {"a", "gone", asIs}, {"a", "a", asIs},
	} {
		assert.Equal(t, c.want, order(fact.BlockMoved{Block: c.block, After: c.after}), "%s after %s", c.block, c.after)
	}
	p := Plan{Minutes: 30, Blocks: blocks}
	p.Offer("2026-11-18")
	for i, want := range []string{"", "later", "earlier later drop", "earlier", ""} {
		b := p.Blocks[i]
		var acts []string
		for _, a := range b.Acts {
			acts = append(acts, a.Do)
		}
		if b.Kind == Opener {
			want = "later drop"
		}
		assert.Equal(t, want, strings.Join(acts, " "), b.Key)
		assert.Equal(t, []int{1, 30}, []int{b.Least, b.Most})
	}
	act := func(i, k int) fact.Body { return p.Blocks[i].Acts[k].Tell[0] }
	assert.Equal(t, fact.BlockMoved{Day: "2026-11-18", Block: "b", After: "set-up"}, act(2, 0))
	assert.Equal(t, fact.BlockMoved{Day: "2026-11-18", Block: "b", After: "close"}, act(2, 1))
	assert.Equal(t, fact.BlockMoved{Day: "2026-11-18", Block: "a", After: "b"}, act(1, 0))
}

// Minutes that are set, and a lesson of another length.
func TestMinutesThatAreSet(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	minutes := func(p Plan, key string) (at int, pinned bool) {
		for _, b := range p.Blocks {
			if b.Key == key {
				return b.Minutes, b.Pinned
			}
		}
		return 0, false
	}
	with := func(changes ...fact.Body) Plan {
		asked := ask
		asked.Changes = changes
		return Make(asked)
	}
	for set, want := range map[int]int{5: 5, 30: 0} {
		at, pinned := minutes(with(fact.BlockTimed{Block: "set-up", Minutes: set}), "set-up")
		assert.True(t, pinned)
		if want > 0 {
			assert.Equal(t, want, at)
		}
	}
	_, pinned := minutes(with(fact.BlockTimed{Block: "set-up"}), "set-up")
	assert.False(t, pinned, "no minutes are no setting")
	assert.Equal(t, 20, with(fact.LessonLength{Minutes: 20}).Minutes)
	assert.Equal(t, 30, with(fact.LessonLength{}).Minutes)
	squeezed := with(fact.BlockTimed{Block: "set-up", Minutes: 20}, fact.BlockTimed{Block: "home", Minutes: 20})
	said := 0
	for _, b := range squeezed.Blocks {
		for _, w := range b.Why {
			if w.Code == "squeezed" {
				said++
			}
		}
	}
	assert.Equal(t, 2, said, "what could not be kept says so")
	for _, b := range with(fact.BlockTimed{Block: "set-up", Minutes: 5}).Blocks {
		for _, w := range b.Why {
			assert.NotEqual(t, "squeezed", w.Code)
		}
	}
}

// The least minutes of technique and of pieces grow with the age.
func TestLeastMinutesByAge(t *testing.T) {
	for _, c := range []struct {
		kind             Kind
		age, least, best int
	}{
		{Technique, 9, 3, 6}, {Technique, 10, 4, 6}, {Current, 9, 4, 8}, {Current, 10, 6, 9}, {Reading, 10, 2, 5}, {Current, 4, 4, 3}, {SetUp, 10, 1, 2},
	} {
		s := shapeFor(c.kind, c.age)
		assert.Equal(t, []int{c.least, c.best}, []int{s.least, s.best}, "%s at %d", c.kind, c.age)
	}
}

// A lesson that runs over: from which minute, what is left, and what is said.
func TestHowALessonRunsOver(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	p := Make(ask)
	first := p.Blocks[0]
	in := p.Pace(first.Key, first.Minutes, ask)
	assert.Zero(t, in.Over)
	assert.Empty(t, in.Blocks)
	over := p.Pace(first.Key, first.Minutes+1, ask)
	assert.Equal(t, 1, over.Over)
	assert.Len(t, over.Blocks, len(p.Blocks)-1, "the set-up itself is no rest")
	assert.Equal(t, -1, p.Pace(first.Key, first.Minutes-1, ask).Over)
	gone := p.Pace(first.Key, 40, ask)
	for i, b := range gone.Blocks {
		assert.Zero(t, b.Minutes)
		assert.Equal(t, "drops-out", gone.Says[i+1].Code)
	}
	some := p.Pace(first.Key, 15, ask)
	dropped, less, kept := 0, 0, 0
	for i, b := range some.Blocks {
		was := p.Blocks[i+1].Minutes
		switch {
		case b.Minutes == 0:
			dropped++
		case b.Minutes < was:
			less++
		default:
			kept++
		}
		assert.LessOrEqual(t, b.Minutes, was, "nothing grows")
	}
	counts := map[string]int{}
	for _, s := range some.Says {
		counts[s.Code]++
	}
	assert.Equal(t, map[string]int{"over": 1, "drops-out": dropped, "drops-to": less}, counts)
	pinned := p
	pinned.Blocks = append([]Block{}, p.Blocks...)
	last := len(pinned.Blocks) - 1
	pinned.Blocks[last].Pinned, pinned.Blocks[last].Minutes = true, 3
	assert.Equal(t, 3, pinned.Pace(first.Key, 15, ask).Blocks[last-1].Minutes, "what the teacher set keeps its minutes")
}

// Playing ends at the minute of a pain, wherever that falls.
func TestThePlayingEnds(t *testing.T) {
	for _, minute := range []int{1, 2, 3, 12, 29} {
		ask := asking(usual, approach.Default(9), 9, 30, today)
		ask.Ache, ask.Stopped = &ladder.Ache{Side: "right", At: today}, minute
		p := Make(ask)
		sum, keys := 0, map[string]int{}
		for _, b := range p.Blocks {
			if plays(b) {
				assert.LessOrEqual(t, b.Start+b.Minutes, minute, "%s at %d", b.Key, minute)
			}
			sum += b.Minutes
			keys[b.Key]++
		}
		assert.Equal(t, 30, sum)
		assert.Equal(t, 1, keys["set-up"])
		assert.Equal(t, 1, keys["home"])
	}
}

// What else a block in hand could hold: others in hand of its kind, then what comes next in
// its lane, three at most.
func TestWhatElseABlockCouldHold(t *testing.T) {
	choices := func(s ladder.Standing, of string) (out []string) {
		ask := asking(s, approach.Default(9), 9, 60, today)
		for _, b := range ask.current() {
			if b.Rung == of {
				for _, c := range b.Choices {
					out = append(out, c.Into+" "+c.Why.Code)
				}
			}
		}
		return out
	}
	s := ladder.Standing{Rungs: []ladder.Rung{rung("a", shelf.Book, ago(7), nil), rung("tune", shelf.Repertoire, ago(7), nil), rung("s", shelf.Technique, ago(7), nil),
		rung("n1", shelf.Book, nil, nil), rung("n2", shelf.Book, nil, nil), rung("n3", shelf.Book, nil, nil), rung("t1", shelf.Technique, nil, nil)}}
	assert.Equal(t, []string{"tune still-open", "n1 comes-next", "n2 comes-next"}, choices(s, "a"))
	assert.Equal(t, []string{"a still-open"}, choices(s, "tune"), "what comes in another lane is none")
	assert.Equal(t, []string{"t1 comes-next"}, choices(s, "s"))
}

// No lesson is without a piece: the one that waits for its first lesson, or the first.
func TestThePieceOfALesson(t *testing.T) {
	first, open := reason.Of("first-lesson"), reason.Of("still-open")
	for _, c := range []struct {
		why  []reason.Reason
		want int
	}{{[]reason.Reason{open, open}, 0}, {[]reason.Reason{open, first}, 1}, {[]reason.Reason{first, open}, 0}, {[]reason.Reason{first, first}, 0}, {[]reason.Reason{open, first, first}, 1}} {
		for minutes, least := range map[int]int{short - 1: 3, short: 6} {
			blocks := []Block{{Kind: Technique, want: want{least: 4}}}
			for _, w := range c.why {
				blocks = append(blocks, Block{Kind: Current, Why: []reason.Reason{w}, want: want{least: 6}})
			}
			Ask{Minutes: minutes}.piece(blocks)
			for i, b := range blocks[1:] {
				assert.Equal(t, i == c.want, b.want.must, "%v", c.why)
				assert.Equal(t, least, b.want.least)
			}
			assert.False(t, blocks[0].want.must)
			assert.Equal(t, 4, blocks[0].want.least)
		}
	}
	assert.Equal(t, "first-lesson", whyCurrent(rung("r", shelf.Book, nil, nil)).Code)
	ready := rung("r", shelf.Book, ago(7), nil)
	assert.Equal(t, []string{"1", "Tone"}, []string{whyCurrent(ready).Args["count"], whyCurrent(ready).Args["first"]})
	ready.Points[0].State = ladder.Met
	assert.Equal(t, "ready-to-try", whyCurrent(ready).Code)
	assert.Empty(t, first.Args["x"])
}

// The most of something, the most first; between equals the newer.
func TestTheBestFew(t *testing.T) {
	var pieces []upkeep.Piece
	for i, n := range []int{3, 7, 7, 1, 9} {
		pieces = append(pieces, upkeep.Piece{ID: string(rune('a' + i)), Silent: n})
	}
	for n, want := range map[int]string{0: "", 1: "e", 2: "eb", 3: "ebc", 5: "ebcad", 9: "ebcad"} {
		got := ""
		for _, p := range best(pieces, n, func(p *upkeep.Piece) float64 { return float64(p.Silent) }) {
			got += p.ID
		}
		assert.Equal(t, want, got, "%d", n)
	}
}

// What may open a lesson: nothing much worse remembered than the best, unless that opened
// three times running; the fewest openings first, then the fewest hearings.
func TestWhatMayOpen(t *testing.T) {
	pieces := []upkeep.Piece{{ID: "best", Recall: 0.95}, {ID: "near", Recall: 0.95 - opens}, {ID: "far", Recall: 0.94 - opens}}
	ids := func(ask Ask) (out string) {
		for _, p := range ask.opener(pieces) {
			out += p.ID + " "
		}
		return strings.TrimSpace(out)
	}
	assert.Equal(t, "best near", ids(Ask{}))
	assert.Equal(t, "near best", ids(Ask{opened: map[string]int{"best": 1}}))
	assert.Equal(t, "near best", ids(Ask{heard: map[string]int{"best": 1}}))
	assert.Equal(t, "best near", ids(Ask{opened: map[string]int{"near": 1}, heard: map[string]int{"best": 2}}))
	assert.Equal(t, "best near", ids(Ask{opened: map[string]int{"best": lessonsBack - 1, "near": lessonsBack - 1}}))
	assert.Equal(t, "near far best", ids(Ask{opened: map[string]int{"best": lessonsBack}}))
}

// How many old pieces a lesson hears, by its length, the school and a break.
func TestHowManyOldPieces(t *testing.T) {
	s := ladder.Standing{Rungs: []ladder.Rung{rung("now", shelf.Book, ago(7), nil)}}
	for i := range 12 {
		s.Rungs = append(s.Rungs, rung(fmt.Sprintf("old%d", i), shelf.Book, ago(200), ago(60+i)))
	}
	n := int(judgement.LessonOldPieces)
	for _, c := range []struct {
		minutes int
		school  approach.School
		rest    int // days of a break
		want    int
	}{
		{n, "half", 0, 1}, {n + 1, "half", 0, 2}, {2 * n, "half", 0, 2}, {2*n + 1, "half", 0, 3}, {n, approach.ThreeQuarters, 0, 2}, {n, approach.Third, 0, 1}, {n, "half", 30, 2}, {n, approach.ThreeQuarters, 30, 3},
	} {
		ask := asking(s, approach.Default(9).With(approach.Approach{approach.Upkeep: c.school}), 9, c.minutes, today)
		ask.Path.Break = climb.Break{Days: c.rest}
		kept := 0
		for _, b := range ask.secure() {
			if b.Kind == Upkeep {
				kept++
				assert.LessOrEqual(t, len(b.Choices), choices)
			} else {
				assert.Len(t, b.Choices, choices, "what could open it instead")
			}
		}
		assert.Equal(t, c.want, kept, "%+v", c)
	}
	few := ladder.Standing{Rungs: s.Rungs[:3]}
	var blocks []string
	for _, b := range asking(few, approach.Default(9), 9, 60, today).secure() {
		blocks = append(blocks, string(b.Kind)+" "+b.Rung)
	}
	assert.Equal(t, []string{"opener old0", "upkeep old1"}, blocks, "each once")
	assert.Empty(t, asking(ladder.Standing{Rungs: s.Rungs[:1]}, approach.Default(9), 9, 60, today).secure())
}

// Why an old piece is heard.
func TestWhyAnOldPieceIsHeard(t *testing.T) {
	dated := rung("dated", shelf.Book, ago(90), ago(60))
	dated.Target = calendar.On(today).Add(7)
	ask := asking(ladder.Standing{Rungs: []ladder.Rung{dated, rung("plain", shelf.Book, ago(90), ago(60))}}, approach.Default(9), 9, 30, today)
	why := func(p upkeep.Piece) string { return ask.whyKept(p).Code }
	assert.Equal(t, "polish-for", why(upkeep.Piece{ID: "dated"}))
	assert.Equal(t, "carries", why(upkeep.Piece{ID: "plain", Carries: []string{"rests"}}))
	assert.Equal(t, "due-again", why(upkeep.Piece{ID: "plain", Recall: float64(upkeep.Faded)}))
	assert.Equal(t, "fading", why(upkeep.Piece{ID: "plain", Recall: float64(upkeep.Faded) - 0.01}))
	assert.Equal(t, "79", ask.whyKept(upkeep.Piece{ID: "plain", Recall: 0.79, Silent: 3}).Args["recall"])
	ask.Path.Break = climb.Break{Days: 20}
	assert.Equal(t, "after-break", why(upkeep.Piece{ID: "plain", Carries: []string{"rests"}}))
}

// What was heard in the last lessons, and what opened them.
func TestWhatWasHeardLately(t *testing.T) {
	play := func(id string, at ...time.Time) ladder.Rung {
		r := rung(id, shelf.Book, ago(90), ago(60))
		for _, h := range at {
			r.Heard = append(r.Heard, ladder.Hearing{Grade: "fine", At: h})
		}
		return r
	}
	ask := Ask{Standing: ladder.Standing{Rungs: []ladder.Rung{
		play("a", *ago(35), *ago(21), ago(21).Add(time.Minute), *ago(14)), play("b", *ago(21), ago(14).Add(-time.Minute), *ago(10), *ago(7)), play("c")}},
		before: []calendar.Date{calendar.On(*ago(7)), calendar.On(*ago(14)), calendar.On(*ago(21))}}
	heard, opened := ask.hearings()
	assert.Equal(t, map[string]int{"a": 2, "b": 3}, heard, "each lesson once, and no day between")
	assert.Equal(t, map[string]int{"a": 1, "b": 2}, opened)
	ask.before = nil
	heard, opened = ask.hearings()
	assert.Empty(t, heard)
	assert.Empty(t, opened)
}

// How many head starts a lesson has, and what stands there without one.
func TestHeadStartsOfALesson(t *testing.T) {
	s := ladder.Standing{Rungs: append([]ladder.Rung{rung("one", shelf.Book, ago(9), nil)}, rung("n1", shelf.Book, nil, nil), rung("n2", shelf.Book, nil, nil), rung("n3", shelf.Book, nil, nil), rung("n4", shelf.Book, nil, nil), rung("n5", shelf.Book, nil, nil))}
	start := func(id string) ahead.HeadStart {
		return ahead.HeadStart{Skill: id, Name: id, Rung: "n5", State: ahead.Running, Tasks: []skill.Link{{Do: "Do it", Weeks: 1}, {Do: "Again", Weeks: 1}}}
	}
	blocks := func(minutes, starts, rest int) (out []string) {
		ask := asking(s, approach.Default(9), 9, minutes, today)
		ask.Ahead = nil
		for i := range starts {
			ask.Ahead = append(ask.Ahead, start([]string{"dotted", "rests", "skips"}[i]))
		}
		ask.Path.Break = climb.Break{Days: rest}
		for _, b := range ask.headStarts() {
			out = append(out, fmt.Sprint(b.Key, " ", len(b.Choices)))
		}
		return out
	}
	assert.Equal(t, []string{"ahead:dotted 0"}, blocks(long-1, 2, 0))
	assert.Equal(t, []string{"ahead:dotted 0", "ahead:rests 0"}, blocks(long, 3, 0), "two where there is time, never three")
	assert.Equal(t, []string{"ahead:n1 3"}, blocks(30, 0, 0), "a first taste of what comes next")
	assert.Empty(t, blocks(30, 2, 20), "none after a break")
}

// What a changed block could go back to.
func TestTheWayBack(t *testing.T) {
	c := func(ids ...string) (out []Choice) {
		for _, id := range ids {
			out = append(out, Choice{Into: id})
		}
		return out
	}
	ids := func(list []Choice) (out string) {
		for _, x := range list {
			out += x.Into + " "
		}
		return strings.TrimSpace(out)
	}
	why := []reason.Reason{reason.Of("chosen")}
	assert.Equal(t, "was a c", ids(otherwise(Block{Rung: "was", Why: why, Choices: c("a", "b", "c", "d")}, "b")))
	assert.Equal(t, "a b c", ids(otherwise(Block{Choices: c("a", "b", "c", "d")}, "x")), "what was put in goes back to nothing")
	assert.Equal(t, "game a", ids(otherwise(Block{Rung: "r", Activity: &activity.Activity{ID: "game"}, Why: why, Choices: c("a")}, "x")))
	assert.Equal(t, "a", ids(otherwise(Block{Rung: "was", Choices: c("a")}, "x")))
}

// Aims of first meetings: what was not asked yet, then what did not go; five in the first
// lesson, two later; what does not fit is carried over.
func TestAimsInTheirOrder(t *testing.T) {
	probe := Block{Kind: Probe, Title: "P"}
	for _, c := range []struct {
		first        bool
		n, kept, out int
	}{{true, 5, 5, 0}, {true, 6, 5, 1}, {false, 2, 2, 0}, {false, 3, 2, 1}} {
		s := ladder.Standing{BeforeBook: true}
		if !c.first {
			s.Closed = map[calendar.Date]time.Time{calendar.On(*ago(7)): *ago(7)}
		}
		ask := asking(s, approach.Default(4), 4, 15, today)
		var blocks []Block
		for range c.n {
			blocks = append(blocks, probe, Block{Kind: Mixture})
		}
		kept, carried := ask.atOnce(blocks)
		assert.Len(t, kept, c.kept+c.n)
		assert.Len(t, carried, c.out)
	}
	day := calendar.On(today)
	assert.True(t, asking(ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{day: today}}}, approach.Default(4), 4, 15, today).first(), "closed today it is still the first")
	assert.False(t, asking(ladder.Standing{Rungs: []ladder.Rung{rung("r", shelf.Book, ago(7), nil)}}, approach.Default(9), 9, 30, today).first(), "something was taught")
	assert.True(t, asking(ladder.Standing{Rungs: []ladder.Rung{rung("r", shelf.Book, nil, nil)}}, approach.Default(9), 9, 30, today).first())
	assert.False(t, asking(ladder.Standing{Rungs: []ladder.Rung{rung("r", shelf.Book, nil, ago(7))}}, approach.Default(9), 9, 30, today).first())
}

// The first round of a game is as long as its age takes it.
func TestMinutesOfAProbe(t *testing.T) {
	for age, want := range map[int][2]int{4: {int(judgement.LessonFirstGame), 0}, 5: {2, 3}} {
		for _, b := range asking(ladder.Standing{BeforeBook: true}, approach.Default(age), age, 15, today).probes() {
			assert.GreaterOrEqual(t, b.want.least, want[0], "at %d", age)
			assert.GreaterOrEqual(t, b.want.best, max(want[1], b.want.least))
		}
	}
}

// Which level of a game comes, and when it was last done.
func TestTheLevelOfAGame(t *testing.T) {
	game := activity.Activity{ID: "g", Levels: []string{"one", "two", "three"}}
	for _, c := range []struct {
		mark *ladder.ActivityMark
		want int
	}{
		{nil, 1}, {&ladder.ActivityMark{Level: 1, Outcome: "pass"}, 2}, {&ladder.ActivityMark{Level: 2, Outcome: "nearly"}, 3}, {&ladder.ActivityMark{Level: 3, Outcome: "pass"}, 3},
		{&ladder.ActivityMark{Level: 2, Outcome: "not-yet"}, 2}, {&ladder.ActivityMark{Outcome: "not-yet"}, 1}, {&ladder.ActivityMark{Level: 9, Outcome: "not-yet"}, 3},
	} {
		ask := Ask{Standing: ladder.Standing{Activities: map[string]ladder.ActivityMark{}}}
		if c.mark != nil {
			ask.Standing.Activities["g"] = *c.mark
		}
		assert.Equal(t, c.want, ask.level(game), "%+v", c.mark)
	}
	ask := Ask{Standing: ladder.Standing{Activities: map[string]ladder.ActivityMark{"g": {Days: []calendar.Date{"2026-11-04", "2026-11-11"}}}}}
	assert.Equal(t, calendar.Date("2026-11-11"), ask.lastDone("g"))
	assert.Empty(t, ask.lastDone("other"))
}

// The same game in two lessons running is enough, unless it was asked for since.
func TestTwiceRunningIsEnough(t *testing.T) {
	game := activity.Activity{ID: "g", From: 2, Family: instrument.Shared}
	last, before, third := calendar.On(*ago(7)), calendar.On(*ago(14)), calendar.On(*ago(21))
	for _, c := range []struct {
		days   []calendar.Date
		before []calendar.Date
		asked  *time.Time
		may    bool
	}{
		{nil, []calendar.Date{last, before}, nil, true}, {[]calendar.Date{before, last}, []calendar.Date{last, before}, nil, false}, {[]calendar.Date{last}, []calendar.Date{last, before}, nil, true},
		{[]calendar.Date{before}, []calendar.Date{last, before}, nil, true}, {[]calendar.Date{last}, []calendar.Date{last}, nil, true}, {[]calendar.Date{third, before}, []calendar.Date{last, before, third}, nil, true},
		{[]calendar.Date{before, last}, []calendar.Date{last, before}, ago(7), true}, {[]calendar.Date{before, last}, []calendar.Date{last, before}, ago(8), false},
	} {
		ask := Ask{Age: 6, before: c.before, Standing: ladder.Standing{Activities: map[string]ladder.ActivityMark{"g": {Days: c.days}}, Asked: map[string]time.Time{}}}
		if c.asked != nil {
			ask.Standing.Asked["g"] = *c.asked
		}
		assert.Equal(t, c.may, ask.may(game), "%+v", c)
	}
	closed := map[calendar.Date]time.Time{last: today, before: today, third: today, calendar.On(today): today}
	assert.Equal(t, []calendar.Date{last, before}, Ask{Day: calendar.On(today), Standing: ladder.Standing{Lessons: ladder.Lessons{Closed: closed}}}.lately(2), "not today's own")
	assert.Equal(t, []calendar.Date{calendar.On(today), last}, Ask{Standing: ladder.Standing{Lessons: ladder.Lessons{Closed: closed}}}.lately(2))
}

// Which games come first: for what is learnt, asked for, not done last time, not secure.
func TestWhichGamesComeFirst(t *testing.T) {
	bank := []activity.Activity{{ID: "plain", Aim: "rests"}, {ID: "other", Aim: "skips"}, {ID: "made", Aim: "improvise"}, {ID: "heard", Aim: "listen"}}
	for i := range bank {
		bank[i].From, bank[i].Family, bank[i].Levels = 2, instrument.Shared, []string{"x"}
	}
	order := func(change func(*Ask)) (out string) {
		ask := Ask{Bank: bank, Age: 9, needs: map[string]float64{}, Standing: ladder.Standing{Activities: map[string]ladder.ActivityMark{}, Probes: map[string]ladder.Probe{}, Asked: map[string]time.Time{}}}
		ask.Path.Known.State = map[string]upkeep.SkillState{}
		change(&ask)
		for _, a := range ask.ranked() {
			out += a.ID + " "
		}
		return strings.TrimSpace(out)
	}
	assert.Equal(t, "other plain", order(func(a *Ask) { a.needs["skips"] = 0.1 }))
	assert.Equal(t, "plain other", order(func(a *Ask) { a.needs["rests"] = 0.1 }))
	assert.Equal(t, "other plain", order(func(a *Ask) { a.Path.Known.State["rests"] = upkeep.Secure }))
	assert.Equal(t, "plain other", order(func(a *Ask) { a.Path.Known.State["skips"] = upkeep.Secure }))
	assert.Equal(t, "other plain", order(func(a *Ask) { a.Standing.Asked["other"] = today }))
	assert.Equal(t, "other", order(func(a *Ask) { a.Standing.Probes["rests"] = ladder.Probe{Outcome: "pass"} }), "its games have stopped")
	last := calendar.Date("2026-11-11")
	for _, id := range []string{"plain", "other"} {
		got := order(func(a *Ask) {
			a.before = []calendar.Date{last}
			a.Standing.Activities[id] = ladder.ActivityMark{Days: []calendar.Date{last}}
		})
		assert.True(t, strings.HasSuffix(got, id), "%s was done last time: %s", id, got)
	}
	tried := []activity.Activity{{ID: "a", Aim: "high-low", From: 2, Family: instrument.Shared}, {ID: "b", Aim: "steady-beat", From: 2, Family: instrument.Shared}}
	for i, probe := range []string{"high-low", "steady-beat"} {
		got := order(func(a *Ask) { a.Bank, a.Standing.Probes[probe] = tried, ladder.Probe{Outcome: "not-yet"} })
		if activity.IsProbe(probe) {
			assert.Equal(t, tried[i].ID, strings.Fields(got)[0], "what did not go comes first")
		}
	}
}

// How much each skill is being learnt, and what is said of a game for it.
func TestWhatGamesAreFor(t *testing.T) {
	hand := rung("hand", shelf.Book, ago(7), nil)
	hand.Item.Brings, hand.Item.Needs = []string{"rests"}, []string{"skips", "steps"}
	ask := asking(ladder.Standing{Rungs: []ladder.Rung{hand}}, approach.Default(9), 9, 30, today)
	ask.Path.Known.State["steps"] = upkeep.Secure
	ask.Ahead = []ahead.HeadStart{{Skill: "dotted", State: ahead.Running, Tasks: []skill.Link{{Do: "x"}}}, {Skill: "waits", State: ahead.Waiting, Start: 1, Tasks: []skill.Link{{Do: "x"}}}}
	assert.Equal(t, map[string]float64{"rests": 3, "skips": 2, "dotted": 2}, ask.learning())
	for _, c := range []struct {
		needs  float64
		moving bool
		age    int
		want   string
	}{{3, true, 6, "game-learning"}, {2.9, true, 6, "game-prepares"}, {0.1, false, 6, "game-prepares"}, {0, true, 7, "game-moves"}, {0, true, 8, "game-refreshes"}, {0, false, 6, "game-refreshes"}} {
		a := Ask{Age: c.age, needs: map[string]float64{"rests": c.needs}, Graph: skill.Catalogue()}
		assert.Equal(t, c.want, a.whyActivity(activity.Activity{Aim: "rests", Moving: c.moving}).Code, "%+v", c)
	}
}

// When a game stands in a lesson beside what moves.
func TestWhenAGameStandsInALesson(t *testing.T) {
	bank := []activity.Activity{{ID: "still", Aim: "rests"}, {ID: "same", Aim: "rests"}, {ID: "jump", Aim: "steady-beat", Moving: true}, {ID: "march", Aim: "skips", Moving: true}}
	for i := range bank {
		bank[i].From, bank[i].Family, bank[i].Levels, bank[i].Title = 2, instrument.Shared, []string{"x"}, bank[i].ID
	}
	games := func(age, minutes int, needs float64, first bool, blocks ...Block) (out string) {
		ask := Ask{Bank: bank, Age: age, Minutes: minutes, Day: "2026-11-18", needs: map[string]float64{"rests": needs}, Graph: skill.Catalogue(), Approach: approach.Default(age), Standing: usual}
		if first {
			ask.Standing = ladder.Standing{}
		}
		for _, b := range ask.activities(blocks) {
			out += fmt.Sprintf("%s(%d) ", b.Activity.ID, len(b.Choices))
			if b.want.must {
				out += "! "
			}
		}
		return strings.TrimSpace(out)
	}
	count := func(s string) int { return len(strings.Fields(strings.ReplaceAll(s, " !", ""))) }
	assert.Equal(t, 1, count(games(6, 30, 0, false)), "one that moves")
	assert.Contains(t, games(6, 30, 0, false), "!")
	assert.NotContains(t, games(3, 11, 0, false), "!", "too short to insist")
	assert.Contains(t, games(3, 12, 0, false), "!")
	assert.Empty(t, games(6, 15, 0, true), "a first meeting has its own")
	assert.Equal(t, "still(3)", games(6, 15, 1, false), "a game for what is learnt")
	assert.Empty(t, games(8, long-1, 1, false))
	assert.Equal(t, "still(3)", games(8, long, 1, false), "a study for the older, where there is time")
	assert.Empty(t, games(8, long, 0, false), "and something to study")
	assert.Equal(t, 0, count(games(6, 30, 0, true, Block{Moving: true})), "something moves already")
	assert.NotContains(t, games(6, 15, 1, false, Block{Activity: &activity.Activity{Aim: "rests"}}), "still", "its aim stands there already")
}

// How a lesson ends: something made up or heard, another each time.
func TestHowALessonEnds(t *testing.T) {
	game := func(id, aim string) activity.Activity {
		return activity.Activity{ID: id, Aim: aim, Title: id, From: 2, Family: instrument.Shared, Levels: []string{"x"}}
	}
	ends := func(bank []activity.Activity, closed int, ache bool) string {
		ask := Ask{Bank: bank, Age: 9, Graph: skill.Catalogue(), Approach: approach.Default(9), Standing: ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}}
		for i := range closed {
			ask.Standing.Closed[calendar.Date("2026-01-01").Add(7*i)] = today
		}
		if ache {
			ask.Ache = &ladder.Ache{}
		}
		b := ask.close()
		assert.Equal(t, "close", b.Key)
		if b.Activity == nil {
			return ""
		}
		assert.Equal(t, 1, b.want.least)
		return fmt.Sprint(b.Activity.ID, " ", b.Why[0].Code, " ", len(b.Choices))
	}
	made, heard, more := game("made", "improvise"), game("heard", "listen"), game("more", "listen")
	all := []activity.Activity{game("else", "rests"), made, heard, more}
	for n, want := range []string{"made close-made-up 2", "heard close-heard 2", "more close-heard 2", "made close-made-up 2"} {
		assert.Equal(t, want, ends(all, n, false), "after %d lessons", n)
	}
	assert.Equal(t, "heard close-heard 1", ends(all, 0, true), "nothing is made up with a hand that hurts")
	one := []activity.Activity{made}
	for n, want := range []string{"made close-made-up 0", "", "made close-made-up 0", ""} {
		assert.Equal(t, want, ends(one, n, false), "one alone rests each second time: %d", n)
	}
	assert.Empty(t, ends(all[:1], 0, false))
	five := []activity.Activity{made, heard, more, game("four", "listen"), game("five", "listen")}
	assert.Equal(t, "made close-made-up 3", ends(five, 0, false))
}

// What can be done with a hand that hurts: a few things at a time, none twice, whatever the age.
func TestWhatRestsTheHands(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	all := ask.restful(nil)
	require.Len(t, all, restfuls)
	for _, b := range all {
		assert.True(t, quiet(*b.Activity))
		assert.Equal(t, []int{Longest(9), 4}, []int{b.want.most, b.want.best})
	}
	but := ask.restful(all[:1])
	for _, b := range but {
		assert.NotEqual(t, all[0].Activity.ID, b.Activity.ID)
	}
}

// Old pieces that were heard in the last lessons rest where there are others.
func TestOldPiecesRest(t *testing.T) {
	lessons := map[calendar.Date]time.Time{}
	for _, n := range []int{7, 14, 21} {
		lessons[calendar.On(*ago(n))] = *ago(n)
	}
	kept := func(minutes int, heard map[string][]int) (out []string) {
		s := ladder.Standing{Lessons: ladder.Lessons{Closed: lessons}}
		for i := range 5 {
			r := rung(fmt.Sprint("old", i), shelf.Book, ago(200), ago(60+i))
			for _, n := range heard[r.ID] {
				r.Heard = append(r.Heard, ladder.Hearing{Grade: "fine", At: *ago(n)})
			}
			s.Rungs = append(s.Rungs, r)
		}
		for _, b := range asking(s, approach.Default(9), 9, minutes, today).secure() {
			if b.Kind == Upkeep {
				out = append(out, b.Rung)
			} else {
				out = append(out, "("+b.Rung+")")
			}
		}
		return out
	}
	all := func(n int) map[string][]int {
		return map[string][]int{"old0": {7}, "old1": {7}, "old2": {7}, "old3": {7}, "old4": {n}}
	}
	assert.Equal(t, "old4", kept(30, all(21))[1], "heard once, three weeks ago, when all others were heard last time: it is still the most silent")
	rested := kept(30, map[string][]int{"old0": {7}, "old1": {14, 7}, "old2": {14, 7}, "old3": {14, 7}, "old4": {21, 14, 7}})
	assert.NotContains(t, rested, "old4", "three lessons running is enough")
	two := kept(60, map[string][]int{"old0": {7}, "old1": {7}, "old2": {7}})
	assert.Equal(t, []string{"old3", "old4"}, func() []string {
		a := append([]string{}, two[1:]...)
		if a[0] > a[1] {
			a[0], a[1] = a[1], a[0]
		}
		return a
	}(), "those that were not heard")
}

// What else an old friend's block could hold: no piece twice, three at the first, one more at
// the others that were also thought of.
func TestWhatElseAnOldFriendCouldBe(t *testing.T) {
	s := ladder.Standing{}
	for i := range 9 {
		s.Rungs = append(s.Rungs, rung(fmt.Sprint("old", i), shelf.Book, ago(200), ago(60+i)))
	}
	blocks := asking(s, approach.Default(9), 9, 60, today).secure()
	taken := map[string]bool{}
	for _, b := range blocks[1:] {
		taken[b.Rung] = true
	}
	for _, b := range blocks[1:] {
		assert.Len(t, b.Choices, choices, b.Rung)
		seen := map[string]bool{}
		for _, c := range b.Choices {
			assert.False(t, taken[c.Into], "%s stands in the lesson already", c.Into)
			assert.False(t, seen[c.Into], "%s is offered twice", c.Into)
			seen[c.Into] = true
		}
	}
}

// The step of a head start, and the notes of its task where they lie on the instrument.
func TestTheStepOfAHeadStart(t *testing.T) {
	s := ladder.Standing{Rungs: []ladder.Rung{rung("one", shelf.Book, ago(9), nil), rung("next", shelf.Book, nil, nil)}}
	block := func(done int, notes string) Block {
		ask := asking(s, approach.Default(9), 9, 30, today)
		ask.Ahead = []ahead.HeadStart{{Skill: "dotted", Rung: "next", State: ahead.Running, Done: done, Tasks: []skill.Link{{Do: "a", Notes: notes}, {Do: "b", Notes: notes}}}}
		return ask.headStarts()[0]
	}
	for done, do := range map[int]string{0: "a.", 1: "b."} {
		b := block(done, "")
		assert.Equal(t, []any{done + 1, do}, []any{b.Step, b.Cue})
		assert.Empty(t, b.Exercise)
	}
	assert.Equal(t, "scale Eb major both", block(0, "scale Eb major both").Exercise)
	assert.Empty(t, block(0, "bows").Exercise, "no bows on keys")
	assert.Empty(t, block(0, "no such thing").Exercise)
}
