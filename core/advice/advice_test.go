package advice

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/fault"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
)

var (
	terms = calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-18"}, {Name: "spring", From: "2027-01-11", To: "2027-03-26"}}}
	slot  = calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}
	piano = instrument.Shipped.Of("piano")
)

func day(s string) *time.Time { d := calendar.Date(s).Time(); return &d }

// someone is a pianist of nine on a Wednesday of November.
func someone(s ladder.Standing, items ...shelf.Item) Way {
	return Reckon(climb.Student{Standing: s, Graph: skill.Catalogue(), Shelf: items, Approach: approach.Default(9), Plays: piano,
		Calendar: terms, Slot: slot, Now: calendar.Date("2026-11-18").Time().Add(15 * time.Hour)}, 9)
}

func rung(id string, strand shelf.Strand, taught, foothold string, skills ...string) ladder.Rung {
	r := ladder.Rung{ID: id, Strand: strand, Item: shelf.Item{ID: "item-" + id, Title: "The " + id, Instrument: "piano", Strand: strand, Brings: skills, Different: 8},
		Points: []ladder.Point{{Key: "tone", Name: "Tone"}, {Key: "rhythm", Name: "Rhythm"}}}
	if taught != "" {
		r.Taught = day(taught)
	}
	if foothold != "" {
		r.Foothold = day(foothold)
	}
	return r
}

func reasons(list []Suggestion) (codes []string) {
	for _, s := range list {
		codes = append(codes, s.Why.Code)
	}
	return codes
}

func find(t *testing.T, list []Suggestion, code string) Suggestion {
	for _, s := range list {
		if s.Why.Code == code {
			return s
		}
	}
	require.Fail(t, "not suggested: "+code, "%v", reasons(list))
	return Suggestion{}
}

func codesOf(list []reason.Reason) (codes []string) {
	for _, r := range list {
		codes = append(codes, r.Code+" "+r.Args["more"]+r.Args["title"])
	}
	return codes
}

// What stands on a ladder in hand is said in the order of what presses most.
func TestWhatIsSuggestedOfPieces(t *testing.T) {
	ready := rung("ready", shelf.Book, "2026-11-04", "")
	ready.Points[0].State, ready.Points[1].State = ladder.Met, ladder.Met
	hand := rung("hand", shelf.Technique, "2026-11-11", "")
	waiting := rung("waiting", shelf.Reading, "", "")
	got := someone(ladder.Standing{Rungs: []ladder.Rung{ready, hand, waiting}}).Suggestions()
	assert.Equal(t, []string{"ready-to-try", "first-lesson", "in-hand"}, reasons(got))
	assert.Equal(t, "2", got[0].Why.Args["weeks"])
	assert.Equal(t, "Tone, Rhythm", got[2].Why.Args["missing"])
	assert.Equal(t, []string{"nothing-placed"}, reasons(someone(ladder.Standing{}).Suggestions()))

	s := ladder.Standing{Rungs: []ladder.Rung{hand}}
	w := someone(s)
	w.Approach = w.Approach.With(approach.Approach{approach.NewSkills: approach.OneSkill})
	assert.Equal(t, []string{"load-kept-low", "in-hand"}, reasons(w.Suggestions()))
	for _, sug := range w.Suggestions() {
		assert.NotNil(t, sug.Accept)
		assert.NotNil(t, sug.Remedies)
		assert.NotNil(t, sug.Fixes)
	}
}

// A date that the forecast does not keep is warned of, until it is past.
func TestDatesAtRisk(t *testing.T) {
	for _, c := range []struct {
		target calendar.Date
		warned bool
	}{{"2026-11-25", true}, {"2027-03-24", false}, {"2026-11-18", true}, {"2026-11-17", false}, {"", false}} {
		r := rung("hand", shelf.Book, "2026-11-11", "")
		r.Target = c.target
		got := reasons(someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Suggestions())
		assert.Equal(t, c.warned, len(got) > 0 && got[0] == "date-at-risk", "for %s: %v", c.target, got)
	}
	r := rung("hand", shelf.Book, "2026-11-11", "")
	e, _ := someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Expect("hand")
	for days, warned := range map[int]bool{27: true, 28: false} { // four weeks to polish it
		r.Target = e.High.Add(days)
		got := reasons(someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Suggestions())
		assert.Equal(t, warned, got[0] == "date-at-risk", "%d days after it is likely secure", days)
	}
}

// From its third last week on a secure piece with a day is asked for polished; on the day,
// and for two weeks, how it went. Common practice, no source.
func TestPolishedForADay(t *testing.T) {
	for _, c := range []struct {
		target   calendar.Date
		foothold string
		polished bool
		want     string
	}{
		{"2026-12-09", "2026-11-04", false, "polish-for"}, {"2026-12-10", "2026-11-04", false, ""}, {"2026-12-09", "2026-11-04", true, ""},
		{"2026-11-19", "2026-11-04", false, "polish-for"}, {"2026-11-18", "2026-11-04", true, "how-it-went"}, {"2026-11-04", "2026-11-03", true, "how-it-went"},
		{"2026-11-03", "2026-11-03", false, ""}, {"", "2026-11-04", false, ""}, {"2026-11-19", "", false, "date-at-risk"}, {"2026-11-17", "", false, ""},
	} {
		r := rung("hand", shelf.Repertoire, "2026-10-07", c.foothold)
		r.Target, r.Polished = c.target, c.polished
		got := ""
		for _, s := range someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Suggestions() {
			if s.Why.Code == "polish-for" || s.Why.Code == "how-it-went" || s.Why.Code == "date-at-risk" {
				got = s.Why.Code
			}
		}
		assert.Equal(t, c.want, got, "%+v", c)
	}
	r := rung("hand", shelf.Repertoire, "2026-10-07", "2026-11-04")
	r.Target = "2026-11-18"
	s := find(t, someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Suggestions(), "how-it-went")
	require.Len(t, s.Remedies, 4)
	assert.Equal(t, fact.Bodies{fact.Heard{Rung: "hand", Grade: "easily"}, fact.TargetDropped{Rung: "hand"}}, s.Remedies[0].Accept)
	r.Target = "2026-11-20"
	s = find(t, someone(ladder.Standing{Rungs: []ladder.Rung{r}}).Suggestions(), "polish-for")
	assert.Equal(t, "2", s.Why.Args["days"])
	assert.Equal(t, fact.Bodies{fact.Polished{Rung: "hand"}}, s.Accept)
}

// After a break the first two lessons are lighter, and it is said how many are left.
func TestLighterAfterABreak(t *testing.T) {
	closed := func(days ...calendar.Date) ladder.Standing {
		s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{}}}
		for _, d := range days {
			s.Closed[d] = d.Time()
		}
		return s
	}
	for _, c := range []struct {
		s    ladder.Standing
		left string
	}{{closed("2026-10-28"), "2"}, {closed("2026-10-21", "2026-11-11"), "1"}, {closed("2026-11-11"), ""}} {
		got := someone(c.s).Suggestions()
		if c.left == "" {
			assert.NotContains(t, reasons(got), "after-break")
			continue
		}
		assert.Equal(t, c.left, find(t, got, "after-break").Why.Args["left"])
	}
}

// Each remedy of a rung that is stuck does something, or sends the teacher to the lesson.
func TestRemediesThatDoSomething(t *testing.T) {
	heavy := rung("heavy", shelf.Book, "2026-09-09", "", "two-touches")
	heavy.Item.Different = 24
	heavy.Points = append(heavy.Points, ladder.Point{Key: "fingering", Name: "Fingering"}, ladder.Point{Key: "loud", Name: "Loud and soft"})
	heavy.Tries = []ladder.Try{{Outcome: "not-yet"}, {Outcome: "not-yet"}, {Outcome: "not-yet"}}
	light := shelf.Item{ID: "light", Title: "Light Air", Instrument: "piano", Strand: shelf.Book, Needs: []string{"two-touches"}, Different: 4, Revision: 3}
	below := rung("below", shelf.Book, "2026-08-09", "2026-09-01")
	s := ladder.Standing{Rungs: []ladder.Rung{below, heavy}}
	sug := find(t, someone(s, light).Suggestions(), "past-its-range")
	assert.Equal(t, []string{"stuck:heavy", "warn", "heavy", "The heavy"}, []string{sug.Key, sug.Band, sug.Rung, sug.Title})
	does := map[string]fact.Bodies{}
	for _, m := range sug.Remedies {
		does[m.Do] = m.Accept
	}
	assert.Equal(t, fact.Bodies{fact.RungAdded{Item: "light", Strand: "book", After: "below", Revision: 3}}, does["easier"], "under the rung that sticks")
	assert.Equal(t, fact.Bodies{fact.PointHeld{Rung: "heavy", Point: "tone"}}, does["fewer-points"])
	assert.Equal(t, fact.Bodies{fact.SpotNoted{Rung: "heavy", Where: "1–4", Goal: 5}}, does["split"])
	assert.Equal(t, fact.Bodies{fact.BlockTimed{Day: "2026-11-18", Block: "home", Minutes: 5}}, does["ask"])
	assert.Equal(t, fact.Bodies{fact.BlockTimed{Day: "2026-11-18", Block: "set-up", Minutes: 4}}, does["seat-and-hand"])
	closed := s
	closed.Closed = map[calendar.Date]time.Time{"2026-11-18": *day("2026-11-18")}
	for _, m := range find(t, someone(closed, light).Suggestions(), "tries-failed").Remedies {
		if m.Do == "ask" {
			assert.Equal(t, fact.Bodies{fact.BlockTimed{Day: "2026-11-25", Block: "home", Minutes: 5}}, m.Accept, "today's lesson is over")
		}
	}
	s.Rungs[1].Spots = []ladder.Spot{{ID: "s", Where: "bar 9", Goal: 5}}
	for _, m := range find(t, someone(s, light).Suggestions(), "past-its-range").Remedies {
		if m.Do == "split" {
			assert.Empty(t, m.Accept, "a spot is there already")
		}
	}

	s.Overruled = map[string]ladder.Overrule{"stuck:heavy": {At: *day("2026-11-18")}}
	assert.NotContains(t, reasons(someone(s, light).Suggestions()), "past-its-range", "what was turned down stays away")
}

// The ladder is filled from the books chosen by one touch that places each piece on top.
func TestFillingTheLadder(t *testing.T) {
	books := []shelf.Item{
		{ID: "a", Title: "A", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Different: 4, Revision: 2},
		{ID: "b", Title: "B", Instrument: "piano", Strand: shelf.Book, Book: "Shore", Different: 4},
	}
	got := find(t, someone(ladder.Standing{Books: []string{"Shore"}}, books...).Suggestions(), "fill-ladder")
	assert.Equal(t, []string{climb.FillKey, "A", "2", "Shore"}, []string{got.Key, got.Title, got.Why.Args["count"], got.Why.Args["books"]})
	assert.Equal(t, fact.Bodies{fact.RungAdded{Item: "a", Strand: "book", After: fact.Top, Revision: 2}, fact.RungAdded{Item: "b", Strand: "book", After: fact.Top}}, got.Accept)
}

// An old piece is named when it fades, and when it carries a skill being learnt.
func TestOldPieces(t *testing.T) {
	old := rung("old", shelf.Repertoire, "2026-09-01", "2026-09-20", "dotted")
	now := rung("now", shelf.Book, "2026-11-11", "", "dotted")
	w := someone(ladder.Standing{Rungs: []ladder.Rung{old, now}})
	fading := find(t, w.Suggestions(), "fading")
	assert.Equal(t, []string{"upkeep:old", "upkeep", "old"}, []string{fading.Key, fading.Band, fading.Rung})
	assert.Equal(t, "59", fading.Why.Args["days"])

	fresh := rung("fresh", shelf.Repertoire, "2026-10-01", "2026-11-16", "dotted")
	assert.NotContains(t, reasons(someone(ladder.Standing{Rungs: []ladder.Rung{fresh, now}}).Suggestions()), "fading", "two days old")
	w.Approach = w.Approach.With(approach.Approach{approach.Upkeep: approach.ThreeQuarters})
	assert.Equal(t, "75", find(t, w.Suggestions(), "upkeep-share").Why.Args["share"])
}

// Before the first book there is one question: is it time for the test?
func TestBeforeTheFirstBook(t *testing.T) {
	s := ladder.Standing{BeforeBook: true, Probes: map[string]ladder.Probe{}}
	got := someone(s).Suggestions()
	assert.Equal(t, []string{"before-the-book"}, reasons(got))
	assert.Equal(t, []string{"0", "7"}, []string{got[0].Why.Args["met"], got[0].Why.Args["of"]})
	assert.NotEmpty(t, got[0].Why.Args["missing"])
	for _, aim := range []string{"left-right", "high-low", "steady-beat", "echo-rhythm", "sing-back", "key-groups"} {
		s.Probes[aim] = ladder.Probe{Outcome: "pass"}
	}
	got = someone(s).Suggestions()
	assert.Equal(t, []string{"try-first-book"}, reasons(got))
	assert.Equal(t, fact.Bodies{fact.Probed{Probe: fact.FirstBook, Outcome: "pass"}}, got[0].Accept)
	assert.Equal(t, "6", got[0].Why.Args["met"])
}

// What a lesson's marks changed, and what follows from them.
func TestBetweenTwoStandings(t *testing.T) {
	was := rung("piece", shelf.Book, "", "")
	now := rung("piece", shelf.Book, "2026-11-18", "")
	now.Points[0].State, now.Points[1].State = ladder.Met, ladder.Open
	now.Points = append(now.Points, ladder.Point{Key: shelf.Spots, Name: "Spots", State: ladder.Met})
	now.Spots = []ladder.Spot{{ID: "s", Where: "bar 3", Done: 2, Goal: 5}}
	before := ladder.Standing{Rungs: []ladder.Rung{was}, Probes: map[string]ladder.Probe{"seat": {Outcome: "nearly"}, "high-low": {Outcome: "pass"}}}
	after := ladder.Standing{Rungs: []ladder.Rung{now, rung("new", shelf.Reading, "", "")}, Probes: map[string]ladder.Probe{"seat": {Outcome: "pass"}, "high-low": {Outcome: "pass"}, "left-right": {Outcome: "not-yet"}}}
	changed, follows := Between(before, after, skill.Catalogue())
	assert.Equal(t, []string{"taught The piece", "point-met ToneThe piece", "point-open RhythmThe piece", "spot-count bar 3, 2 of 5 in a rowThe piece", "placed The new", "probe-answered ", "probe-answered "}, codesOf(changed))
	assert.Equal(t, []string{"spot-carried The piece"}, codesOf(follows))

	done := now
	done.Foothold = day("2026-11-18")
	changed, follows = Between(ladder.Standing{Rungs: []ladder.Rung{now, rung("next", shelf.Book, "", "")}}, ladder.Standing{Rungs: []ladder.Rung{done, rung("next", shelf.Book, "", "")}}, nil)
	assert.Equal(t, []string{"foothold The piece"}, codesOf(changed))
	assert.Equal(t, []string{"now-current The next"}, codesOf(follows), "no spot is carried past a foothold")

	same, none := Between(after, after, skill.Catalogue())
	assert.Empty(t, same)
	assert.Equal(t, []string{"spot-carried The piece"}, codesOf(none))
	ready := now
	ready.Spots = nil
	ready.Points = []ladder.Point{{Key: "tone", State: ladder.Met}}
	_, follows = Between(before, ladder.Standing{Rungs: []ladder.Rung{ready}}, nil)
	assert.Equal(t, []string{"ready-to-try The piece"}, codesOf(follows))
}

// What a week brought: footholds, what was taken up, forecasts that moved by more than
// a week and a half, tasks of head starts, and the days practised.
func TestSinceAWeekAgo(t *testing.T) {
	then := *day("2026-11-11")
	was := ladder.Standing{Rungs: []ladder.Rung{rung("a", shelf.Book, "2026-10-21", ""), rung("b", shelf.Book, "", "")}, Prepared: map[string]ladder.HeadStart{"dotted": {Done: 1}}}
	is := ladder.Standing{Rungs: []ladder.Rung{rung("a", shelf.Book, "2026-10-21", "2026-11-18"), rung("b", shelf.Book, "2026-11-18", "")}, Prepared: map[string]ladder.HeadStart{"dotted": {Done: 2}, "accents": {}},
		Practice: []ladder.Practice{{Day: "2026-11-11", Minutes: 60}, {Day: "2026-11-12", Minutes: 20}, {Day: "2026-11-13", Minutes: 25}}, Ticks: []ladder.Tick{{Day: "2026-11-14"}}}
	w := someone(is)
	before := w.Student
	before.Standing, before.Now = was, then
	got := w.Since(before)
	var codes []string
	for _, r := range got {
		codes = append(codes, r.Code)
	}
	assert.Equal(t, []string{"foothold", "taught", "prepared-more", "practised-week"}, codes)
	assert.Equal(t, []string{"3", "45"}, []string{got[3].Args["days"], got[3].Args["minutes"]}, "the day of the week before does not count, a tick does")
	assert.Equal(t, []string{"2", "2"}, []string{got[2].Args["done"], got[2].Args["of"]})

	// a rung in hand that stood still has moved by the week that passed
	stuck := ladder.Standing{Rungs: []ladder.Rung{rung("a", shelf.Book, "2026-06-03", "")}}
	w = someone(stuck)
	before = w.Student
	before.Now = *day("2026-11-11")
	still := codesOf(w.Since(before))
	assert.Equal(t, "practised-week ", still[len(still)-1])
}

func TestFaultsSeenLatelyComeFirst(t *testing.T) {
	now := *day("2026-11-18")
	faults := []fault.Fault{{Key: "a"}, {Key: "b"}, {Key: "c"}, {Key: "d"}}
	weeks := func(n int) time.Time { return now.AddDate(0, 0, -7*n) }
	s := ladder.Standing{Seen: []ladder.Sight{{Fault: "c", At: weeks(7)}, {Fault: "b", At: weeks(2)}, {Fault: "c", At: weeks(1)}, {Fault: "d", At: weeks(8)}}}
	var order []string
	got := Seen(faults, s, now)
	for _, x := range got {
		order = append(order, x.Key)
	}
	assert.Equal(t, []string{"c", "b", "a", "d"}, order, "eight weeks ago is long ago")
	assert.Equal(t, []int{2, 1, 0, 0}, []int{got[0].Times, got[1].Times, got[2].Times, got[3].Times})
	assert.Equal(t, weeks(1), *got[0].Last)
	assert.Nil(t, got[3].Last)
}

func TestWhoCountsTowardsATreat(t *testing.T) {
	for _, c := range []struct {
		school approach.School
		age    int
		want   bool
	}{{"asked", 12, true}, {"asked", 13, false}, {"counted", 13, true}, {"counted", 5, true}, {"music", 5, false}} {
		assert.Equal(t, c.want, Treats(approach.Approach{approach.Rewards: c.school}, c.age), "%s at %d", c.school, c.age)
	}
}

// What another approach would change: one effect a thing that moves, and the word that
// nothing does.
func TestEffects(t *testing.T) {
	block := func(kind lesson.Kind, minutes int, cues ...string) lesson.Block {
		b := lesson.Block{Kind: kind, Minutes: minutes}
		for _, c := range cues {
			b.Schools = append(b.Schools, reason.Said(c))
		}
		return b
	}
	base := Try{Way: Way{Age: 9, Student: climb.Student{Approach: approach.Approach{approach.Rewards: "asked"}}},
		Lesson: lesson.Plan{Blocks: []lesson.Block{block("current", 10, "slowly"), block("current", 5)}},
		Sheet:  week.Sheet{Share: 0.5, Counting: "by-age", Days: []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "right", Skill: "dotted"}}}}}}
	assert.Equal(t, "effect-none", Effects(base, base)[0].Code)
	for _, c := range []struct {
		name, code string
		change     func(*Try)
	}{
		{"minutes of a kind of block", "effect-lesson", func(w *Try) { w.Lesson.Blocks = []lesson.Block{block("current", 14, "slowly")} }},
		{"the same minutes in one block are the same", "effect-none", func(w *Try) { w.Lesson.Blocks = []lesson.Block{block("current", 15, "slowly")} }},
		{"another cue", "effect-cue", func(w *Try) { w.Lesson.Blocks = []lesson.Block{block("current", 15, "quickly")} }},
		{"no cue any more is no news", "effect-none", func(w *Try) { w.Lesson.Blocks = []lesson.Block{block("current", 15)} }},
		{"a share that nobody feels", "effect-none", func(w *Try) { w.Sheet.Share = 0.5 + judgement.ShareShift - 0.001 }},
		{"a share that is felt", "effect-share", func(w *Try) { w.Sheet.Share = 0.53001 }},
		{"the count", "effect-counts", func(w *Try) { w.Sheet.Counting = "quality" }},
		{"the hands", "effect-hands", func(w *Try) {
			w.Sheet.Days = []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "together", Skill: "dotted"}}}}
		}},
		{"head starts", "effect-head-starts", func(w *Try) { w.Sheet.Days = []week.Day{{Tasks: []week.Task{{Title: "A", Hands: "right"}}}} }},
		{"treats", "effect-treats", func(w *Try) { w.Approach = approach.Approach{approach.Rewards: approach.MusicOnly} }},
		{"the next proposals", "effect-order", func(w *Try) { w.Proposals = []climb.Proposal{{Item: shelf.Item{Title: "B"}}} }},
		{"fewer proposals", "effect-none", func(w *Try) { w.Proposals = nil }},
		{"moves", "effect-moves", func(w *Try) { w.Moves = []climb.Move{{}} }},
	} {
		changed := base
		c.change(&changed)
		got := Effects(base, changed)
		assert.Len(t, got, 1, c.name)
		assert.Equal(t, c.code, got[0].Code, c.name)
	}
	longer := base
	longer.Lesson.Blocks = []lesson.Block{block("current", 14, "slowly")}
	got := Effects(base, longer)[0].Args
	assert.Equal(t, []string{"current", "15", "14"}, []string{got["kind"], got["from"], got["to"]})
}

// What was played evenly on enough days may have its points of evenness met, and only those.
func TestEvenTakesOfferTheirPoints(t *testing.T) {
	for _, c := range []struct {
		what   string
		days   []string
		figure string
		want   bool
	}{
		{"even on two days", []string{"2026-11-11", "2026-11-18"}, ladder.Even, true},
		{"even on one day", []string{"2026-11-18"}, ladder.Even, false},
		{"lopes on two days", []string{"2026-11-11", "2026-11-18"}, "lope", false},
	} {
		r := rung("roll", shelf.Technique, "2026-11-04", "")
		r.Points = []ladder.Point{{Key: "time", Name: "Even in time"}, {Key: "idle", Name: "Quiet idle fingers"}, {Key: "met", Name: "Even in strength", State: ladder.Met}}
		s := ladder.Standing{Rungs: []ladder.Rung{r}}
		for _, d := range c.days {
			s.Takes = append(s.Takes, ladder.Take{At: *day(d), PlayedIn: fact.PlayedIn{Rung: "roll", Figure: c.figure}})
		}
		got := someone(s).Suggestions()
		if !c.want {
			assert.NotContains(t, reasons(got), "evened", c.what)
			continue
		}
		assert.Equal(t, fact.Bodies{fact.PointMarked{Rung: "roll", Point: "time", State: fact.Met}}, find(t, got, "evened").Accept, c.what)
	}
}
