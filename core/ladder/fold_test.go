package ladder

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/calendar"
	"patientladder/core/shelf"
)

var day0 = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)

var items = map[string]shelf.Item{
	"lamp":  {ID: "lamp", Title: "Lamp Room", Points: []string{"Tone", "Tuning", "Spots"}},
	"jig":   {ID: "jig", Title: "The Cooper's Jig", Points: []string{"Tone"}},
	"tower": {ID: "tower", Title: "Tower of Parts", Parts: []string{"one", "two"}, Points: []string{"Tone"}},
}

// story writes facts as a teacher would tell them, minute by minute.
type story struct {
	facts []Fact
	n     int
}

func (s *story) tell(f Fact) string {
	s.n++
	f.ID = fmt.Sprintf("01FACT%020d", s.n)
	f.At = day0.Add(time.Duration(s.n) * time.Minute)
	s.facts = append(s.facts, f)
	return f.ID
}

func (s *story) add(item, after string) string {
	return s.tell(Fact{Kind: RungAdded, Item: item, Strand: shelf.Book, After: after})
}

func (s *story) standing() Standing { return Fold(s.facts, items) }

func (s *story) rung(t *testing.T, id string) Rung {
	r, ok := s.standing().Rung(id)
	require.True(t, ok)
	return r
}

func TestATryBeforeItsLessonIsTurnedBack(t *testing.T) {
	s := &story{}
	lamp, jig := s.add("lamp", Top), ""
	jig = s.add("jig", Top)
	s.tell(Fact{Kind: FootholdTried, Rung: lamp, Outcome: "granted"})
	r := s.rung(t, lamp)
	assert.Nil(t, r.Foothold)
	require.Len(t, r.Tries, 1)
	assert.Equal(t, "refused", r.Tries[0].Outcome)
	assert.Equal(t, "not-taught", r.Tries[0].Why.Code)
	assert.Equal(t, []string{"Tone", "Tuning"}, r.Missing(), "the list to work for")

	s.tell(Fact{Kind: Taught, Rung: lamp})
	s.tell(Fact{Kind: FootholdTried, Rung: lamp, Outcome: "not-yet"})
	assert.Equal(t, Current, s.standing().State(s.rung(t, lamp)))
	assert.Equal(t, Ahead, s.standing().State(s.rung(t, jig)))

	granted := s.tell(Fact{Kind: FootholdTried, Rung: lamp, Outcome: "granted"})
	assert.Equal(t, Secure, s.standing().State(s.rung(t, lamp)))
	assert.Equal(t, Current, s.standing().State(s.rung(t, jig)), "the next rung becomes current")

	s.tell(Fact{Kind: Retracted, Ref: granted})
	assert.Equal(t, Current, s.standing().State(s.rung(t, lamp)), "taken back")
	assert.Equal(t, Ahead, s.standing().State(s.rung(t, jig)))
}

func TestAPartEach(t *testing.T) {
	s := &story{}
	id := s.add("tower", Top)
	s.tell(Fact{Kind: Taught, Rung: id})
	s.tell(Fact{Kind: FootholdTried, Rung: id, Part: "two", Outcome: "granted"})
	r := s.rung(t, id)
	assert.Nil(t, r.Parts[0].Foothold)
	assert.NotNil(t, r.Parts[1].Foothold)
	assert.Nil(t, r.Foothold, "the whole waits for both parts")
	s.tell(Fact{Kind: FootholdTried, Rung: id, Part: "one", Outcome: "granted"})
	assert.NotNil(t, s.rung(t, id).Foothold)
}

func TestSpotsMakeTheirPoint(t *testing.T) {
	s := &story{}
	id := s.add("lamp", Top)
	s.tell(Fact{Kind: Taught, Rung: id})
	a := s.tell(Fact{Kind: SpotNoted, Rung: id, Text: "bar 11", Count: 5})
	b := s.tell(Fact{Kind: SpotNoted, Rung: id, Text: "bar 3", Count: 3})
	s.tell(Fact{Kind: SpotDrilled, Rung: id, Spot: a, Count: 5})
	point := func() PointState {
		for _, p := range s.rung(t, id).Points {
			if p.Key == shelf.Spots {
				return p.State
			}
		}
		return ""
	}
	assert.Equal(t, Open, point())
	assert.Equal(t, []string{"Tone", "Tuning", "bar 3"}, s.rung(t, id).Missing())
	s.tell(Fact{Kind: SpotDrilled, Rung: id, Spot: b, Count: 2})
	s.tell(Fact{Kind: SpotDrilled, Rung: id, Spot: b, Count: 3})
	s.tell(Fact{Kind: SpotDrilled, Rung: id, Spot: b, Count: 1})
	assert.Equal(t, Met, point(), "a worse run later takes nothing away")
	assert.False(t, s.rung(t, id).Ready())
	s.tell(Fact{Kind: PointMet, Rung: id, Point: "tone"})
	s.tell(Fact{Kind: PointMet, Rung: id, Point: "tuning"})
	assert.True(t, s.rung(t, id).Ready(), "all points met is the sign to try")
	s.tell(Fact{Kind: PointOpen, Rung: id, Point: "tone"})
	assert.False(t, s.rung(t, id).Ready(), "a point can open again")
}

// A standing point is written on every piece until met first time in several
// running: common practice, no source.
func TestOwnPointFollowsUntilItHolds(t *testing.T) {
	s := &story{}
	own := "own-" + s.tell(Fact{Kind: OwnPoint, Text: "Left thumb loose"})
	has := func(id string) bool {
		for _, p := range s.rung(t, id).Points {
			if p.Key == own {
				return true
			}
		}
		return false
	}
	for i, kind := range []Kind{PointMet, PointOpen, PointMet, PointMet, PointMet} {
		id := s.add("jig", Top)
		s.tell(Fact{Kind: Taught, Rung: id})
		assert.True(t, has(id), "piece %d", i)
		s.tell(Fact{Kind: kind, Rung: id, Point: own})
		s.tell(Fact{Kind: PointMet, Rung: id, Point: own})
		s.tell(Fact{Kind: FootholdTried, Rung: id, Outcome: "granted"})
		assert.True(t, has(id), "the mark stays on the rung where it was made")
	}
	assert.False(t, has(s.add("lamp", Top)), "met at first three times running: dropped")
	assert.True(t, s.standing().Own[0].Gone)
}

func TestOrderOfALane(t *testing.T) {
	s := &story{}
	a := s.add("lamp", Top)
	b := s.add("jig", Top)
	c := s.add("tower", a)
	ids := func() (out []string) {
		for _, r := range s.standing().Rungs {
			out = append(out, r.ID)
		}
		return
	}
	assert.Equal(t, []string{a, c, b}, ids())
	s.tell(Fact{Kind: RungMoved, Rung: b})
	assert.Equal(t, []string{b, a, c}, ids(), "to the foot of the lane")
	s.tell(Fact{Kind: RungMoved, Rung: b, After: c})
	assert.Equal(t, []string{a, c, b}, ids())
	s.tell(Fact{Kind: RungParked, Rung: a})
	assert.Equal(t, Current, s.standing().State(s.rung(t, c)), "a parked rung lets the next one through")
	assert.Equal(t, Parked, s.standing().State(s.rung(t, a)))
	s.tell(Fact{Kind: RungResumed, Rung: a})
	assert.Equal(t, Current, s.standing().State(s.rung(t, a)))
}

func TestFactsAboutWhatIsNotHere(t *testing.T) {
	s := &story{}
	s.add("unknown item", Top)
	s.tell(Fact{Kind: Taught, Rung: "01NOSUCHRUNG"})
	s.tell(Fact{Kind: PointMet, Rung: "01NOSUCHRUNG", Point: "tone"})
	assert.Len(t, s.standing().Unplaced, 3, "kept aside, not lost")
}

func TestFormOfFacts(t *testing.T) {
	good := Fact{ID: "01JAAAAAAAAAAAAAAAAAAAAAAA", At: day0, Kind: FootholdTried, Rung: "r", Outcome: "granted"}
	require.NoError(t, good.Check())
	for _, c := range []struct {
		says   string
		change func(*Fact)
	}{
		{"not a kind", func(f *Fact) { f.Kind = "danced" }},
		{"ULID", func(f *Fact) { f.ID = "1" }},
		{"no time", func(f *Fact) { f.At = time.Time{} }},
		{"needs its rung", func(f *Fact) { f.Rung = "" }},
		{"outcome", func(f *Fact) { f.Outcome = "maybe" }},
		{"range", func(f *Fact) { f.Count = -1 }},
		{"strand", func(f *Fact) { f.Kind, f.Item = RungAdded, "lamp" }},
		{"not a day", func(f *Fact) { f.Kind, f.Day = LessonClosed, "yesterday" }},
		{"2000", func(f *Fact) { f.Text = string(make([]byte, 2001)) }},
	} {
		f := good
		c.change(&f)
		assert.ErrorContains(t, f.Check(), c.says)
	}
}

// random draws a student's facts, some of them taken back, some at the same
// moment, some about rungs that do not exist.
func random(t *rapid.T) []Fact {
	s := &story{}
	var rungs, spots, told []string
	pick := func(list []string, label string) string {
		if len(list) == 0 {
			return "01NOTHING"
		}
		return rapid.SampledFrom(list).Draw(t, label)
	}
	own := []string{"tone"}
	for range rapid.IntRange(1, 40).Draw(t, "facts") {
		kind := rapid.SampledFrom(append(slices.Sorted(maps.Keys(kinds)), RungAdded, Taught, FootholdTried, PointMet)).Draw(t, "kind")
		f := Fact{Kind: kind, Rung: pick(rungs, "rung"), Point: pick(own, "point"), Count: 3, Text: "x", Day: "2026-11-18"}
		switch kind {
		case RungAdded:
			f.Item, f.Strand = rapid.SampledFrom([]string{"lamp", "jig", "tower", "gone"}).Draw(t, "item"), shelf.Book
			f.After = rapid.SampledFrom(append([]string{"", Top}, rungs...)).Draw(t, "after")
		case RungMoved:
			f.After = rapid.SampledFrom(append([]string{"", Top}, rungs...)).Draw(t, "after")
		case FootholdTried:
			f.Outcome = rapid.SampledFrom(tries).Draw(t, "outcome")
			f.Part = rapid.SampledFrom([]string{"", "one", "two"}).Draw(t, "part")
		case Heard:
			f.Outcome = rapid.SampledFrom(hearings).Draw(t, "grade")
		case SpotDrilled:
			f.Spot = pick(spots, "spot")
		case Retracted:
			f.Ref = pick(told, "ref")
		}
		id := s.tell(f)
		told = append(told, id)
		switch kind {
		case RungAdded:
			rungs = append(rungs, id)
		case SpotNoted:
			spots = append(spots, id)
		case OwnPoint:
			own = append(own, "own-"+id)
		}
		if rapid.IntRange(0, 4).Draw(t, "same moment") == 0 {
			s.facts[len(s.facts)-1].At = s.facts[0].At
		}
	}
	return s.facts
}

func TestAnyOrderOfArrivalGivesTheSameStanding(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		facts := random(t)
		want := Fold(facts, items)
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		r.Shuffle(len(facts), func(i, j int) { facts[i], facts[j] = facts[j], facts[i] })
		assert.Equal(t, want, Fold(facts, items))
	})
}

func TestRepeatedDeliveryChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		facts := random(t)
		want := Fold(facts, items)
		for range rapid.IntRange(1, 10).Draw(t, "repeats") {
			facts = append(facts, rapid.SampledFrom(facts).Draw(t, "again"))
		}
		assert.Equal(t, want, Fold(facts, items))
	})
}

// A treat counts from when the family named it; a tick of an old piece is a
// playing of it.
func TestTreatsAndTicks(t *testing.T) {
	day := calendar.Date("2026-11-18")
	s := Standing{Practice: []Practice{{Day: day.Add(-1)}, {Day: day.Add(1)}}, Ticks: []Tick{{Day: day}, {Day: day.Add(1)}},
		Rungs: []Rung{{Foothold: at(day.Add(-3))}, {Foothold: at(day.Add(3))}, {}}}
	assert.Equal(t, 2, Treat{Counts: KeptDays, Goal: 5, Since: day.Time()}.Done(s), "a day ticked and told is one")
	assert.Equal(t, 1, Treat{Counts: Footholds, Goal: 5, Since: day.Time()}.Done(s))
}

func at(d calendar.Date) *time.Time { t := d.Time(); return &t }
