package lesson

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
)

func of(p Plan, k Kind) (out []Block) {
	for _, b := range p.Blocks {
		if b.Kind == k {
			out = append(out, b)
		}
	}
	return
}

// A first meeting at three: about 15 minutes, four to six aims, the first round
// of each short, more prepared than fits. Common practice, no source.
func TestAFirstMeetingAtThree(t *testing.T) {
	ask := asking(ladder.Standing{BeforeBook: true}, approach.Default(3), 3, 15, today)
	p := Make(ask)
	assert.Equal(t, "first", p.Mode)
	games := of(p, Probe)
	require.Len(t, games, 5)
	for _, b := range games {
		assert.LessOrEqual(t, b.Minutes, 3, b.Title)
		assert.GreaterOrEqual(t, len(b.Choices), 2, "several games for %s", b.Aim)
		assert.Equal(t, 1, b.Level)
		assert.True(t, b.Activity.Fits(3, instrument.Keyboard))
	}
	assert.NotEmpty(t, p.LeftOut, "what does not fit is carried over")
	assert.LessOrEqual(t, sat(p.Blocks), 3*Longest(3), "sitting is broken by moving")

	// one is stretched: the rest answers, and something waits for next time
	ask.Changes = []fact.Body{fact.BlockTimed{Block: games[0].Key, Minutes: 5}}
	stretched := Make(ask)
	assert.Equal(t, 5, of(stretched, Probe)[0].Minutes)
	assert.True(t, of(stretched, Probe)[0].Pinned)
	sum := 0
	for _, b := range stretched.Blocks {
		sum += b.Minutes
	}
	assert.Equal(t, 15, sum)

	// a passed exit test retires the games of its aim; what is left returns in order
	day := calendar.On(today)
	s := ladder.Standing{BeforeBook: true, Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{day: today}},
		Probes: map[string]ladder.Probe{"left-right": {Outcome: "pass", At: today}, "high-low": {Outcome: "not-yet", At: today}}}
	next := Make(asking(s, approach.Default(3), 3, 15, today.AddDate(0, 0, 7)))
	var aims []string
	for _, b := range of(next, Probe) {
		aims = append(aims, b.Aim)
	}
	assert.Len(t, aims, 2)
	assert.NotContains(t, aims, "left-right")
	assert.Equal(t, []string{"hand-swap", "key-groups"}, aims)
}

// What is asked in a first meeting, and what of it is asked again. Common practice, no source.
func TestWhatAMeetingAsks(t *testing.T) {
	lessons := func(n int) ladder.Lessons {
		l := ladder.Lessons{Closed: map[calendar.Date]time.Time{}}
		for i := range n {
			l.Closed[calendar.On(*ago(7 * (i + 1)))] = *ago(7 * (i + 1))
		}
		return l
	}
	passed := func(outcome string, keys ...string) map[string]ladder.Probe {
		out := map[string]ladder.Probe{}
		for _, k := range keys {
			out[k] = ladder.Probe{Outcome: outcome, At: *ago(7)}
		}
		return out
	}
	book := []ladder.Rung{rung("one", shelf.Book, ago(7), nil)}
	for _, c := range []struct {
		name string
		age  int
		s    ladder.Standing
		says approach.School
		want []string
	}{
		{"at four", 4, ladder.Standing{BeforeBook: true}, "", []string{"left-right", "hand-swap", "high-low", "key-groups", "steady-beat"}},
		{"at six", 6, ladder.Standing{BeforeBook: true}, "", []string{"sing-back", "find-by-ear", "echo-rhythm", "seat", "rote-tune", "hand-shape"}},
		{"at six, rhythm first", 6, ladder.Standing{BeforeBook: true}, "rhythm", []string{"steady-beat", "echo-rhythm", "sing-back", "find-by-ear", "seat", "rote-tune"}},
		{"at forty", 40, ladder.Standing{}, "", []string{"seat", "hand-shape", "finger-numbers", "landmarks", "five-fingers"}},
		{"at forty, numbers first", 40, ladder.Standing{}, "numbers", []string{"finger-numbers", "seat", "hand-shape", "landmarks", "five-fingers"}},
		{"later, before the book", 6, ladder.Standing{BeforeBook: true, Lessons: lessons(1), Probes: passed(fact.Pass, "sing-back", "find-by-ear", "seat")}, "", []string{"echo-rhythm", "rote-tune"}},
		{"what did not go comes in its place", 6, ladder.Standing{BeforeBook: true, Lessons: lessons(1), Probes: passed(fact.NotYet, "sing-back")}, "ear", []string{"sing-back", "find-by-ear"}},
		{"beside a book, one", 6, ladder.Standing{Rungs: book, Lessons: lessons(2), Probes: passed(fact.Nearly, "echo-rhythm")}, "ear", []string{"sing-back"}},
		{"beside a book, all that is known passed", 40, ladder.Standing{Rungs: book, Lessons: lessons(2), Probes: passed(fact.Pass, "seat", "hand-shape", "finger-numbers", "landmarks", "steady-beat", "echo-rhythm", "one-finger")}, "", []string{"five-fingers"}},
		{"who never had a first meeting is asked nothing", 40, ladder.Standing{Rungs: book, Lessons: lessons(2)}, "", nil},
	} {
		a := approach.Default(c.age)
		if c.says != "" {
			a = a.With(approach.Approach{approach.First: c.says})
		}
		ask := asking(c.s, a, c.age, 45, today)
		kept, _ := ask.ready().atOnce(ask.ready().probes())
		var got []string
		for _, b := range kept {
			got = append(got, b.Aim)
		}
		if c.age == 4 {
			slices.Sort(got)
			slices.Sort(c.want)
		}
		assert.Equal(t, c.want, got, c.name)
	}
}

// What is secure by now, through its small piece, is not asked any more; what was played in both of
// the last two lessons lets others pass.
func TestWhatIsNotAskedAgain(t *testing.T) {
	days := map[calendar.Date]time.Time{calendar.On(*ago(7)): *ago(7), calendar.On(*ago(14)): *ago(14)}
	s := ladder.Standing{BeforeBook: true, Lessons: ladder.Lessons{Closed: days}, Probes: map[string]ladder.Probe{"sing-back": {Outcome: fact.NotYet, At: *ago(7)}}, Activities: map[string]ladder.ActivityMark{}}
	aims := func() (out []string) {
		ask := asking(s, approach.Default(6), 6, 30, today).ready()
		for _, p := range ask.open() {
			out = append(out, p.Key)
		}
		return out
	}
	assert.Equal(t, "sing-back", aims()[0])
	s.Activities["sing-gull"] = ladder.ActivityMark{Days: []calendar.Date{calendar.On(*ago(14))}}
	s.Activities["sing-name"] = ladder.ActivityMark{Days: []calendar.Date{calendar.On(*ago(7))}}
	assert.Equal(t, "find-by-ear", aims()[0])
	assert.Equal(t, "sing-back", aims()[len(aims())-1])
	for _, c := range []struct {
		name     string
		state    upkeep.SkillState
		presumed []string
		asked    bool
	}{
		{"in hand", upkeep.Learning, nil, true}, {"secure", upkeep.Secure, nil, false}, {"secure once", upkeep.Rusty, nil, false},
		{"taken for granted by a first book", upkeep.Secure, []string{"echo-rhythm", "pickup"}, true},
		{"taken for granted of who comes from elsewhere", upkeep.Secure, []string{"echo-rhythm", "dotted", "skips"}, false},
	} {
		ask := asking(s, approach.Default(6), 6, 30, today).ready()
		ask.Path.Known.State, ask.Presumed = map[string]upkeep.SkillState{"echo-rhythm": c.state}, c.presumed
		assert.Equal(t, c.asked, slices.ContainsFunc(ask.open(), func(p activity.Probe) bool { return p.Key == "echo-rhythm" }), c.name)
	}
}

// A first meeting of five to seven ends with guessing who walks in the music.
func TestHowAFirstMeetingEnds(t *testing.T) {
	for age, want := range map[int]string{4: "improvise", 5: "listen", 7: "listen", 8: "improvise"} {
		p := Make(asking(ladder.Standing{}, approach.Default(age), age, 30, today))
		assert.Equal(t, want, of(p, Close)[0].Activity.Aim, "at %d", age)
		assert.Equal(t, age < 8, slices.ContainsFunc(p.Says, func(r reason.Reason) bool { return r.Code == "child-teaches" }), "at %d", age)
	}
}

func TestAFirstMeetingOfOthers(t *testing.T) {
	six := Make(asking(ladder.Standing{}, approach.Default(6), 6, 30, today))
	assert.Contains(t, kinds(six), Probe)
	for _, b := range of(six, Probe) {
		assert.GreaterOrEqual(t, b.Minutes, 2)
	}
	grown := Make(asking(ladder.Standing{Rungs: []ladder.Rung{rung("one", shelf.Book, nil, nil)}}, approach.Default(34), 34, 45, today))
	assert.Contains(t, kinds(grown), Current, "an older beginner begins with the first rung too")
}

// The same activity three weeks running bores, unless it was asked for: common
// practice, no source.
func TestNothingThreeWeeksRunning(t *testing.T) {
	s := ladder.Standing{Rungs: usual.Rungs, Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}, Activities: map[string]ladder.ActivityMark{}}
	var two []calendar.Date
	for _, n := range []int{14, 7} {
		day := calendar.On(*ago(n))
		s.Closed[day] = *ago(n)
		two = append(two, day)
	}
	ask := asking(s, approach.Default(6), 6, 30, today)
	a := ask.ranked()[0]
	s.Activities[a.ID] = ladder.ActivityMark{Days: two, Level: 2, Outcome: "nearly"}
	again := asking(s, approach.Default(6), 6, 30, today)
	assert.False(t, slices.ContainsFunc(again.ranked(), func(b activity.Activity) bool { return b.ID == a.ID }))
	again.Standing.Asked = map[string]time.Time{a.ID: *ago(2)}
	assert.True(t, slices.ContainsFunc(again.ranked(), func(b activity.Activity) bool { return b.ID == a.ID }), "asked for")
	assert.Equal(t, 3, again.level(a), "a level higher each time")
	s.Activities[a.ID] = ladder.ActivityMark{Days: two, Level: 2, Outcome: "not-yet"}
	assert.Equal(t, 2, again.level(a), "the same level after a not yet")
}

// At the very beginning a lesson begins one new piece; later more than one may. Common
// practice, no source.
func TestOneNewPieceAtTheBeginning(t *testing.T) {
	for _, c := range []struct {
		secure, want int
	}{{0, 1}, {2, 1}, {3, 2}} {
		s := ladder.Standing{}
		for i := range c.secure {
			s.Rungs = append(s.Rungs, rung(string(rune('a'+i)), shelf.Book, ago(40), ago(20)))
		}
		s.Rungs = append(s.Rungs, rung("new", shelf.Book, nil, nil), rung("song", shelf.Repertoire, nil, nil))
		assert.Len(t, of(Make(asking(s, approach.Default(9), 9, 45, today)), Current), c.want, "%d pieces are secure", c.secure)
	}
}

// In the first lesson after a break nothing new begins; in the second it does. Common
// practice, no source.
func TestWhatBeginsAfterABreak(t *testing.T) {
	for _, c := range []struct {
		name   string
		closed []int // days ago
		want   int
	}{{"no break", []int{14, 7}, 1}, {"the first lesson back", []int{60}, 0}, {"the second", []int{60, 7}, 1}} {
		s := ladder.Standing{Rungs: []ladder.Rung{rung("old", shelf.Book, ago(200), ago(150)), rung("new", shelf.Book, nil, nil)}, Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
		for _, n := range c.closed {
			s.Closed[calendar.On(*ago(n))] = *ago(n)
		}
		assert.Len(t, of(Make(asking(s, approach.Default(9), 9, 30, today)), Current), c.want, c.name)
	}
}

// What opens a lesson changes: what opened the last lessons least comes first, and after
// three lessons running another, though it is worse remembered. Common practice, no source.
func TestTheOpenerChanges(t *testing.T) {
	lessons := map[calendar.Date]time.Time{}
	for _, n := range []int{21, 14, 7} {
		lessons[calendar.On(*ago(n))] = *ago(n)
	}
	play := func(id string, foothold int, heard ...time.Time) ladder.Rung {
		r := rung(id, shelf.Book, ago(foothold+30), ago(foothold))
		for _, at := range heard {
			r.Heard = append(r.Heard, ladder.Hearing{Grade: "easily", At: at})
		}
		return r
	}
	opens := func(rungs ...ladder.Rung) string {
		s := ladder.Standing{Rungs: rungs, Lessons: ladder.Lessons{Closed: lessons}}
		return of(Make(asking(s, approach.Default(9), 9, 30, today)), Opener)[0].Rung
	}
	later := func(n int) time.Time { return ago(n).Add(10 * time.Minute) }
	first := play("first", 60, *ago(21), *ago(14), *ago(7))
	assert.Equal(t, "second", opens(first, play("second", 60, later(21), later(14), later(7))), "both were heard each time; one of them opened")
	assert.Equal(t, "old", opens(first, play("old", 300)), "faded, but the other opened three times running")
	twice := play("twice", 60, *ago(21), *ago(14))
	twice.Heard = append(twice.Heard, ladder.Hearing{Grade: "easily", At: later(7)})
	old := play("old", 300)
	old.Heard = []ladder.Hearing{{Grade: "fell-apart", At: *ago(7)}}
	assert.Equal(t, "twice", opens(twice, old), "twice is not yet too often")
}

// A piece that a remedy brings back stands in the plan as an old friend, once.
func TestARungIsPutIntoThePlan(t *testing.T) {
	s := ladder.Standing{Rungs: append(slices.Clone(usual.Rungs), rung("older", shelf.Book, ago(200), ago(150)), rung("oldest", shelf.Book, ago(300), ago(250)))}
	for _, id := range []string{"older", "oldest", "old", "now"} {
		ask := asking(s, approach.Default(9), 9, 30, today)
		ask.Changes = []fact.Body{fact.BlockAdded{Day: ask.Day, Into: id}, fact.BlockAdded{Day: ask.Day, Into: id}}
		n := 0
		for _, b := range Make(ask).Blocks {
			if b.Rung == id {
				n++
				assert.Contains(t, []Kind{Upkeep, Current}, b.Kind)
			}
		}
		assert.Equal(t, 1, n, id)
	}
}

func TestTheTeachersChanges(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	p := Make(ask)
	opener := of(p, Opener)[0]
	require.NotEmpty(t, opener.Choices)
	key := func(k Kind) string { return of(p, k)[0].Key }
	ask.Changes = []fact.Body{
		fact.BlockSwapped{Block: opener.Key, Into: opener.Choices[0].Into},
		fact.BlockTimed{Block: key(Current), Minutes: 11},
		fact.BlockDropped{Block: key(Ahead)},
		fact.BlockDropped{Block: "set-up"},
		fact.BlockMoved{Block: key(Reading), After: "set-up"},
		fact.BlockMoved{Block: "home", After: "set-up"},
		fact.BlockSwapped{Block: "gone", Into: "old"},
		fact.BlockAdded{Into: "storm"},
	}
	q := Make(ask)
	assert.Equal(t, opener.Choices[0].Title, of(q, Opener)[0].Title)
	assert.Equal(t, "chosen", of(q, Opener)[0].Why[0].Code)
	assert.Equal(t, opener.Rung, of(q, Opener)[0].Choices[0].Into, "and back again")
	assert.Equal(t, 11, of(q, Current)[0].Minutes)
	assert.Empty(t, of(q, Ahead))
	assert.Equal(t, SetUp, q.Blocks[0].Kind, "a lesson is not without it")
	assert.Equal(t, Reading, q.Blocks[1].Kind, "moved to the front")
	assert.Equal(t, Home, q.Blocks[len(q.Blocks)-1].Kind, "what to do at home stays last")
	require.NotEmpty(t, of(q, Activity))
	assert.Equal(t, "storm", of(q, Activity)[0].Activity.ID)
	sum := 0
	for _, b := range q.Blocks {
		sum += b.Minutes
	}
	assert.Equal(t, 30, sum)
}

func TestRunningOver(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	p := Make(ask)
	now := of(p, Current)[0]
	assert.Empty(t, p.Pace(now.Key, now.Start+1, ask).Says, "in time")
	late := p.Pace(now.Key, now.Start+now.Minutes+3, ask)
	assert.Equal(t, 3, late.Over)
	assert.Equal(t, "over", late.Says[0].Code)
	assert.Greater(t, len(late.Says), 1, "it says what gives")
	sum := 0
	for _, b := range late.Blocks {
		sum += b.Minutes
	}
	assert.Equal(t, 30-(now.Start+now.Minutes+3), sum, "the rest ends with the lesson")
	last := late.Blocks[len(late.Blocks)-1]
	assert.Equal(t, "home", last.Key)
	assert.Positive(t, last.Minutes, "what to do at home is never dropped")
	assert.Empty(t, p.Pace("gone", 10, ask).Says)
}

// Pain, numbness or tingling: playing stops that day. Common practice, no source.
func TestPainStopsThePlaying(t *testing.T) {
	ask := asking(usual, approach.Default(9), 9, 30, today)
	ask.Ache = &ladder.Ache{Side: "right", Where: "wrist", At: today}
	ask.Stopped = 12
	p := Make(ask)
	assert.Equal(t, "pain", p.Mode)
	assert.Equal(t, "pain-stop", p.Says[0].Code)
	sum := 0
	for _, b := range p.Blocks {
		if b.Start >= 12 {
			assert.False(t, plays(b), "%s is played after the pain was told", b.Title)
		}
		sum += b.Minutes
	}
	assert.Equal(t, 30, sum, "the lesson goes on without playing")
	assert.Equal(t, Home, p.Blocks[len(p.Blocks)-1].Kind)
	assert.Contains(t, kinds(p), Close)

	// a week later it is not cleared: on keys the other hand, nothing new
	later := asking(usual, approach.Default(9), 9, 30, today.AddDate(0, 0, 7))
	later.Ache = ask.Ache
	q := Make(later)
	assert.Empty(t, of(q, Technique))
	for _, b := range of(q, Current) {
		assert.Equal(t, "left", b.Why[0].Args["hand"])
	}
	both := later
	both.Ache = &ladder.Ache{Side: "both", At: today}
	assert.Empty(t, of(Make(both), Current))
	cello := later
	cello.Plays = instrument.Shipped.Of("cello")
	assert.Empty(t, of(Make(cello), Current), "strings need both hands")
}

func TestALessonFromAfar(t *testing.T) {
	ask := asking(ladder.Standing{BeforeBook: true}, approach.Default(5), 5, 20, today)
	ask.Remote = true
	p := Make(ask)
	assert.Equal(t, "remote", p.Mode)
	assert.Equal(t, "remote-lesson", p.Says[0].Code)
	for _, b := range p.Blocks {
		if b.Activity != nil {
			assert.False(t, b.Activity.InRoom(), "%s needs both in one room", b.Title)
		}
	}
}

// Below eight sitting and moving alternate: common practice, no source.
func TestSittingAndMoving(t *testing.T) {
	for _, c := range []struct{ age, minutes int }{{4, 15}, {5, 20}, {6, 30}, {7, 30}} {
		p := plan(usual, approach.Default(c.age), c.age, c.minutes, today)
		assert.LessOrEqual(t, sat(p.Blocks), 3*Longest(c.age)+Longest(c.age), "at %d", c.age)
		assert.True(t, slices.ContainsFunc(p.Blocks, func(b Block) bool { return b.Moving }), "at %d in %d minutes something moves", c.age, c.minutes)
	}
	for _, b := range plan(usual, approach.Default(12), 12, 45, today).Blocks {
		assert.False(t, b.Kind == Activity && b.Moving && b.want.must, "older students are not made to")
	}
}

// Finger numbers are asked for from four on, or first of all where that is the school.
func TestWhenFingerNumbersAreAsked(t *testing.T) {
	for _, c := range []struct {
		age  int
		says approach.School
		want int // place among the aims, -1 for none
	}{{3, approach.FromFour, -1}, {3, approach.DayOne, 0}, {9, approach.DayOne, 0}} {
		a := approach.Default(c.age).With(approach.Approach{approach.Numbers: c.says})
		var aims []string
		for _, b := range of(Make(asking(ladder.Standing{BeforeBook: c.age < 5}, a, c.age, 30, today)), Probe) {
			aims = append(aims, b.Aim)
		}
		assert.Equal(t, c.want, slices.Index(aims, activity.FingerNumbers), "%d years, %s", c.age, c.says)
	}
}
