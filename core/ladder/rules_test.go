package ladder

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/shelf"
	"patientladder/words"
)

// One piece with its points tone and tuning, taught; what is told then, in order, and
// what stands after.
func TestWhatMarksDoToAPiece(t *testing.T) {
	type told = fact.Body
	point := func(key, state string) func(r string) told {
		return func(r string) told { return fact.PointMarked{Rung: r, Point: key, State: state} }
	}
	hold := func(key string) func(r string) told {
		return func(r string) told { return fact.PointHeld{Rung: r, Point: key} }
	}
	trip := func(where string) func(r string) told {
		return func(r string) told { return fact.Tripped{Rung: r, Where: where} }
	}
	grant := func(r string) told { return fact.FootholdTried{Rung: r, Outcome: "granted"} }
	for _, c := range []struct {
		name  string
		facts []func(r string) told
		is    func(r Rung) bool
	}{
		{"two points met at one time: the best is two", []func(string) told{point("tone", "met"), point("tuning", "met")}, func(r Rung) bool { return r.Best == 2 }},
		{"one opens again: the best was two all the same", []func(string) told{point("tone", "met"), point("tuning", "met"), point("tone", "open")}, func(r Rung) bool { return r.Best == 2 && r.MetPoints() == 1 }},
		{"one after the other: the best is one", []func(string) told{point("tone", "met"), point("tone", "open"), point("tuning", "met")}, func(r Rung) bool { return r.Best == 1 }},
		{"a held point that is met is let go", []func(string) told{hold("tone"), point("tone", "met")}, func(r Rung) bool { return r.Held == "" }},
		{"a held point that is not yet met stays in mind", []func(string) told{hold("tone"), point("tone", "open")}, func(r Rung) bool { return r.Held == "tone" }},
		{"another point met leaves it in mind", []func(string) told{hold("tone"), point("tuning", "met")}, func(r Rung) bool { return r.Held == "tone" }},
		{"the last held counts", []func(string) told{hold("tone"), hold("tuning")}, func(r Rung) bool { return r.Held == "tuning" }},
		{"a place that tripped at home is a spot, five in a row", []func(string) told{trip("bar 7")}, func(r Rung) bool { return len(r.Spots) == 1 && r.Spots[0].Goal == 5 && r.Spots[0].Done == 0 }},
		{"it is one however often it tripped", []func(string) told{trip("bar 7"), trip("bar 7"), trip("bar 8")}, func(r Rung) bool { return len(r.Spots) == 2 }},
		{"a trip in a secure piece makes no spot", []func(string) told{grant, trip("bar 7")}, func(r Rung) bool { return len(r.Spots) == 0 }},
		{"a tick of a piece in hand is no playing of an old one", []func(string) told{func(r string) told { return fact.Ticked{Day: "2026-11-18", Line: "x", Rung: r} }}, func(r Rung) bool { return len(r.Home) == 0 }},
		{"a tick of a secure piece is", []func(string) told{grant, func(r string) told { return fact.Ticked{Day: "2026-11-18", Line: "x", Rung: r} }}, func(r Rung) bool { return len(r.Home) == 1 }},
		{"polished before its foothold is not polished", []func(string) told{func(r string) told { return fact.Polished{Rung: r} }}, func(r Rung) bool { return !r.Polished }},
		{"polished after it is", []func(string) told{grant, func(r string) told { return fact.Polished{Rung: r} }}, func(r Rung) bool { return r.Polished }},
		{"placed aside", nil, func(r Rung) bool { return !r.Parked }},
	} {
		s := &story{}
		id := s.add("lamp", fact.Top)
		s.tell(fact.Taught{Rung: id})
		for _, f := range c.facts {
			s.tell(f(id))
		}
		assert.True(t, c.is(s.rung(t, id)), c.name)
	}
	s := &story{}
	id := s.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top, Parked: true})
	assert.True(t, s.rung(t, id).Parked, "left out at once")
}

func TestHeadStartsAreNotTakenBack(t *testing.T) {
	for _, c := range []struct {
		name  string
		steps []int
		done  int
	}{
		{"the first step", []int{1}, 1}, {"one after the other", []int{1, 2, 3}, 3}, {"an earlier one again", []int{1, 2, 1}, 2}, {"one left out", []int{1, 3}, 3},
	} {
		s := &story{}
		for _, n := range c.steps {
			s.tell(fact.Prepared{Skill: "reach-back", Step: n})
		}
		h := s.standing().Prepared["reach-back"]
		assert.Equal(t, c.done, h.Done, c.name)
		assert.Equal(t, s.facts[len(s.facts)-1].At, h.Last, c.name)
	}
}

func TestReadyAndMissing(t *testing.T) {
	s := &story{}
	id := s.add("lamp", fact.Top)
	for _, key := range []string{"tone", "tuning"} {
		s.tell(fact.PointMarked{Rung: id, Point: key, State: fact.Met})
	}
	assert.False(t, s.rung(t, id).Ready(), "all points met, but never taught")
	s.tell(fact.Taught{Rung: id})
	assert.True(t, s.rung(t, id).Ready())
	assert.Empty(t, s.rung(t, id).Holding(), "nothing is left to hold")
	bare := s.tell(fact.RungAdded{Item: "bare", Strand: "book", After: fact.Top})
	s.tell(fact.Taught{Rung: bare})
	r, _ := Fold(s.facts, map[string]shelf.Item{"bare": {ID: "bare"}, "lamp": items["lamp"]}).Rung(bare)
	assert.False(t, r.Ready(), "a piece without points is not ready by itself")
}

// A try that fails counts towards the failures in a row, up to the last that was
// granted; one turned back counts too.
func TestFailuresInARow(t *testing.T) {
	for _, c := range []struct {
		name string
		out  []string
		n    int
	}{
		{"none", nil, 0}, {"one", []string{"not-yet"}, 1}, {"three", []string{"not-yet", "not-yet", "not-yet"}, 3}, {"after a part was granted", []string{"not-yet", "granted", "not-yet"}, 1}, {"granted last", []string{"not-yet", "granted"}, 0},
	} {
		s := &story{}
		id := s.add("tower", fact.Top)
		s.tell(fact.Taught{Rung: id})
		for _, o := range c.out {
			s.tell(fact.FootholdTried{Rung: id, Part: "one", Outcome: o})
		}
		assert.Equal(t, c.n, s.rung(t, id).Failed(), c.name)
	}
}

// A suggestion put off stays away two weeks, one turned down for good.
func TestSuggestionsThatWereTurnedDown(t *testing.T) {
	s := &story{}
	s.tell(fact.Overruled{Suggestion: "later", Until: "later"})
	s.tell(fact.Overruled{Suggestion: "never", Until: "never"})
	st := s.standing()
	off := st.Overruled["later"].At
	for _, c := range []struct {
		name string
		key  string
		at   time.Time
		want bool
	}{
		{"nobody spoke of it", "other", off, false},
		{"put off, the same day", "later", off, true},
		{"a second before two weeks", "later", off.Add(14*24*time.Hour - time.Second), true},
		{"two weeks on", "later", off.Add(14 * 24 * time.Hour), false},
		{"turned down, a year on", "never", off.AddDate(1, 0, 0), true},
	} {
		assert.Equal(t, c.want, st.Refused(c.key, c.at), c.name)
	}
}

// The standing points of a student: written on what is in hand, not on what was secure
// already.
func TestOwnPointsAreWrittenOnWhatIsInHand(t *testing.T) {
	s := &story{}
	secure, current := s.add("jig", fact.Top), s.add("lamp", fact.Top)
	s.tell(fact.Taught{Rung: secure})
	s.tell(fact.FootholdTried{Rung: secure, Outcome: "granted"})
	own := OwnKey(s.tell(fact.OwnPoint{Name: "Elbow free"}))
	has := func(id string) bool {
		for _, p := range s.rung(t, id).Points {
			if p.Key == own {
				return p.Own && p.State == Unmarked
			}
		}
		return false
	}
	cards := s.tell(fact.RungAdded{Item: "jig", Strand: "reading", After: fact.Top})
	scale := s.tell(fact.RungAdded{Item: "jig", Strand: "technique", After: fact.Top})
	assert.True(t, has(current))
	assert.True(t, has(scale))
	assert.False(t, has(secure))
	assert.False(t, has(cards), "no hand is at work on a card")
}

// Between a pain and the day it is cleared no lesson counts; the lesson in which it was
// told still does.
func TestRestsForPain(t *testing.T) {
	s := &story{}
	s.tell(fact.Pained{Side: "right", Where: "wrist"})
	day := calendar.On(s.facts[0].At)
	st := s.standing()
	assert.False(t, st.Ached(day))
	assert.True(t, st.Ached(day.Add(1)))
	assert.True(t, st.Ached(day.Add(300)), "until it is cleared")
	s.tell(fact.Pained{Side: "right", Where: "arm"})
	s.tell(fact.PainCleared{})
	s.tell(fact.PainCleared{})
	st = s.standing()
	assert.Len(t, st.Rests, 1, "told twice, cleared twice: one rest")
	end := st.Rests[0].To
	assert.True(t, end == day || st.Ached(end))
	assert.False(t, st.Ached(end.Add(1)))
}

// Each key of a cycle opens its own aims; a point of the student's own goes on. Of an item
// in other parts the points hold.
func TestAKeyOpensItsAims(t *testing.T) {
	for _, c := range []struct {
		exercise string
		want     PointState
	}{{"cycle right", Unmarked}, {"", Met}} {
		s := &story{}
		own := s.tell(fact.OwnPoint{Name: "Elbow free"})
		id := s.tell(fact.RungAdded{Item: "keys" + c.exercise, Strand: "technique", After: fact.Top})
		s.tell(fact.Taught{Rung: id})
		s.tell(fact.PointMarked{Rung: id, Point: "thumb-early", State: "met"})
		s.tell(fact.PointMarked{Rung: id, Point: OwnKey(own), State: "met"})
		items := map[string]shelf.Item{"keys" + c.exercise: {ID: "keys", Exercise: c.exercise, Points: shelf.PointsOf("Thumb early"), Parts: shelf.PartsOf("C", "G")}}
		s.tell(fact.FootholdTried{Rung: id, Part: "C", Outcome: "granted"})
		r, _ := Fold(s.facts, items).Rung(id)
		assert.NotNil(t, r.Parts[0].Foothold)
		assert.Equal(t, c.want, r.Points[0].State, c.exercise)
		assert.Equal(t, Met, r.Points[1].State, "the student's own")
		s.tell(fact.FootholdTried{Rung: id, Part: "G", Outcome: "granted"})
		r, _ = Fold(s.facts, items).Rung(id)
		assert.NotNil(t, r.Foothold, "all keys, all of it")
	}
}

// The part that is learnt now, in the order of the student's school; and what is
// practised of it.
func TestWhatIsPractisedOfACycle(t *testing.T) {
	day := time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	r := Rung{Taught: &day, Item: shelf.Item{Exercise: "cycle right", Parts: shelf.PartsOf("C", "G", "D", "A", "E", "B", "F sharp", "D flat", "A flat", "E flat", "B flat", "F")}}
	for _, p := range r.Item.Parts {
		r.Parts = append(r.Parts, Part{ID: p.ID, Name: p.Name})
	}
	week := approach.Approach{approach.ScaleHands: approach.OneHandAWeek}
	blacks := week.With(approach.Approach{approach.ScaleKey: approach.FiveBlacks})
	spoken := func(a approach.Approach) string {
		one := r.Exercises(a)[0]
		return words.In(words.Reader{}).Label(one.Name()) + " " + string(one.Hands)
	}
	assert.Equal(t, 0, r.DuePart(week))
	assert.Equal(t, 5, r.DuePart(blacks), "B")
	assert.Equal(t, "C major right", spoken(week))
	r.Worked = []calendar.Date{"2026-09-02", "2026-09-09", "2026-09-16"}
	assert.Equal(t, 2, r.LessonsOn(day), "since then")
	assert.Equal(t, 1, Rung{}.LessonsOn(day), "at least that one")
	assert.Equal(t, "C major left", spoken(week), "the other hand in its second week")
	granted := day.AddDate(0, 0, 7)
	r.Parts[0].Foothold = &granted
	assert.Equal(t, 1, r.DuePart(week))
	assert.Equal(t, "G major right", spoken(week), "a new key begins with the right hand")
	for i := range r.Parts {
		r.Parts[i].Foothold = &granted
	}
	assert.Equal(t, -1, r.DuePart(week))
	assert.Empty(t, Rung{Item: shelf.Item{Exercise: "nonsense"}}.Exercises(week))
	assert.Equal(t, []int{0, 1}, Rung{Parts: make([]Part, 2)}.InTurn(blacks), "of what is no cycle, as it stands")
}

// A cycle in hand blocks nothing beside it: the next of its lane is current too.
func TestACycleBlocksNothing(t *testing.T) {
	keys := shelf.Item{Exercise: "cycle right", Parts: shelf.PartsOf("C", "G")}
	day := time.Date(2026, 9, 9, 16, 0, 0, 0, time.UTC)
	for _, c := range []struct {
		name   string
		item   shelf.Item
		taught *time.Time
		want   State
	}{{"beside a cycle in hand", keys, &day, Current}, {"a cycle not begun comes first", keys, nil, Ahead}, {"beside another exercise it waits", shelf.Item{Exercise: "scale C"}, &day, Ahead}} {
		s := Standing{Rungs: []Rung{{ID: "one", Strand: shelf.Technique, Item: c.item, Taught: c.taught}, {ID: "two", Strand: shelf.Technique}, {ID: "three", Strand: shelf.Technique}}}
		assert.Equal(t, c.want, s.State(s.Rungs[1]), c.name)
		assert.Equal(t, Ahead, s.State(s.Rungs[2]), "one at a time beside it")
	}
}

// What a mark tells of the lessons in which a piece was worked on: days, each once; moving
// it on the ladder, or playing at home, is no work on it.
func TestDaysOfWork(t *testing.T) {
	s := &story{}
	id := s.add("lamp", fact.Top)
	s.tell(fact.Taught{Rung: id})
	s.tell(fact.PointMarked{Rung: id, Point: "tone", State: "met"})
	assert.Len(t, s.rung(t, id).Worked, 1, "one lesson, one day")
	s.tell(fact.TargetSet{Rung: id, Day: "2026-12-18"})
	s.tell(fact.Played{Rung: id, Day: "2026-11-18"})
	assert.Len(t, s.rung(t, id).Worked, 1)
}

func TestWhoReadsSolidly(t *testing.T) {
	sight := Rung{ID: "s", Item: shelf.Item{Brings: []string{"steps", "sight-four-bars"}}}
	done := time.Date(2026, 11, 4, 16, 0, 0, 0, time.UTC)
	secure := sight
	secure.Taught, secure.Foothold = &done, &done
	other := secure
	other.Item = shelf.Item{Brings: []string{"steps"}}
	assert.True(t, Standing{Rungs: []Rung{other, secure}}.ReadsSolidly())
	assert.False(t, Standing{Rungs: []Rung{other}}.ReadsSolidly(), "another skill")
	sight.Taught = &done
	assert.False(t, Standing{Rungs: []Rung{sight}}.ReadsSolidly(), "it is being learnt")
}

func TestARungMovesIntoAnotherLane(t *testing.T) {
	s := &story{}
	lamp, slip := s.add("lamp", fact.Top), s.add("jig", fact.Top)
	s.tell(fact.Taught{Rung: lamp})
	s.tell(fact.RungMoved{Rung: lamp, After: fact.Top, Strand: "repertoire"})
	now := s.standing()
	var lanes []string
	for _, r := range now.Rungs {
		lanes = append(lanes, string(r.Strand)+" "+r.ID)
	}
	assert.Equal(t, []string{"book " + slip, "repertoire " + lamp}, lanes)
	assert.NotNil(t, s.rung(t, lamp).Taught, "its marks stay")
	s.tell(fact.RungMoved{Rung: lamp, After: ""})
	assert.EqualValues(t, "repertoire", s.rung(t, lamp).Strand, "without a lane it stays in its own")
}
