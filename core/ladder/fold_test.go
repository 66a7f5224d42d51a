package ladder

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/shelf"
)

var day0 = time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)

var items = map[string]shelf.Item{
	"lamp":  {ID: "lamp", Title: "Lamp Room", Points: shelf.PointsOf("Tone", "Tuning", "Spots")},
	"jig":   {ID: "jig", Title: "The Cooper's Jig", Points: shelf.PointsOf("Tone")},
	"tower": {ID: "tower", Title: "Tower of Parts", Parts: shelf.PartsOf("one", "two"), Points: shelf.PointsOf("Tone")},
}

// story writes facts as a teacher would tell them, minute by minute.
type story struct {
	facts []fact.Fact
	n     int
}

func (s *story) tell(b fact.Body) string {
	s.n++
	f := fact.Fact{ID: fmt.Sprintf("01FACT%020d", s.n), At: day0.Add(time.Duration(s.n) * time.Minute), Body: b}
	s.facts = append(s.facts, f)
	return f.ID
}

func (s *story) add(item, after string) string {
	return s.tell(fact.RungAdded{Item: item, Strand: "book", After: after})
}

func (s *story) standing() Standing { return Fold(s.facts, items) }

func (s *story) rung(t *testing.T, id string) Rung {
	r, ok := s.standing().Rung(id)
	require.True(t, ok)
	return r
}

func TestATryBeforeItsLessonIsTurnedBack(t *testing.T) {
	s := &story{}
	lamp, jig := s.add("lamp", fact.Top), ""
	jig = s.add("jig", fact.Top)
	s.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	r := s.rung(t, lamp)
	assert.Nil(t, r.Foothold)
	require.Len(t, r.Tries, 1)
	assert.Equal(t, "refused", r.Tries[0].Outcome)
	assert.Equal(t, "not-taught", r.Tries[0].Why.Code)
	assert.Equal(t, []string{"Tone", "Tuning"}, r.Missing(), "the list to work for")

	s.tell(fact.Taught{Rung: lamp})
	s.tell(fact.FootholdTried{Rung: lamp, Outcome: "not-yet"})
	assert.Equal(t, Current, s.standing().State(s.rung(t, lamp)))
	assert.Equal(t, Ahead, s.standing().State(s.rung(t, jig)))

	granted := s.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	assert.Equal(t, Secure, s.standing().State(s.rung(t, lamp)))
	assert.Equal(t, Current, s.standing().State(s.rung(t, jig)), "the next rung becomes current")

	back := s.tell(fact.Retracted{Ref: granted})
	assert.Equal(t, Current, s.standing().State(s.rung(t, lamp)), "taken back")
	assert.Equal(t, Ahead, s.standing().State(s.rung(t, jig)))
	again := s.tell(fact.Retracted{Ref: back})
	assert.Equal(t, Secure, s.standing().State(s.rung(t, lamp)), "the take-back taken back")
	s.tell(fact.Retracted{Ref: again})
	assert.Equal(t, Current, s.standing().State(s.rung(t, lamp)), "and that one too")
}

func TestAPartEach(t *testing.T) {
	s := &story{}
	id := s.add("tower", fact.Top)
	s.tell(fact.Taught{Rung: id})
	s.tell(fact.FootholdTried{Rung: id, Part: "two", Outcome: "granted"})
	r := s.rung(t, id)
	assert.Nil(t, r.Parts[0].Foothold)
	assert.NotNil(t, r.Parts[1].Foothold)
	assert.Nil(t, r.Foothold, "the whole waits for both parts")
	s.tell(fact.FootholdTried{Rung: id, Part: "one", Outcome: "granted"})
	assert.NotNil(t, s.rung(t, id).Foothold)
}

func TestSpotsMakeTheirPoint(t *testing.T) {
	s := &story{}
	id := s.add("lamp", fact.Top)
	s.tell(fact.Taught{Rung: id})
	a := s.tell(fact.SpotNoted{Rung: id, Where: "bar 11", Goal: 5})
	b := s.tell(fact.SpotNoted{Rung: id, Where: "bar 3", Goal: 3})
	s.tell(fact.SpotDrilled{Rung: id, Spot: a, Run: 5})
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
	s.tell(fact.SpotDrilled{Rung: id, Spot: b, Run: 2})
	s.tell(fact.SpotDrilled{Rung: id, Spot: b, Run: 3})
	s.tell(fact.SpotDrilled{Rung: id, Spot: b, Run: 1})
	assert.Equal(t, Met, point(), "a worse run later takes nothing away")
	assert.False(t, s.rung(t, id).Ready())
	s.tell(fact.PointMarked{Rung: id, Point: "tone", State: fact.Met})
	s.tell(fact.PointMarked{Rung: id, Point: "tuning", State: fact.Met})
	assert.True(t, s.rung(t, id).Ready(), "all points met is the sign to try")
	s.tell(fact.PointMarked{Rung: id, Point: "tone", State: fact.Open})
	assert.False(t, s.rung(t, id).Ready(), "a point can open again")
}

// A standing point is written on every piece until met first time in several
// running: common practice, no source.
func TestOwnPointFollowsUntilItHolds(t *testing.T) {
	s := &story{}
	own := "own-" + s.tell(fact.OwnPoint{Name: "Left thumb loose"})
	has := func(id string) bool {
		for _, p := range s.rung(t, id).Points {
			if p.Key == own {
				return true
			}
		}
		return false
	}
	for i, state := range []string{fact.Met, fact.Open, fact.Met, fact.Met, fact.Met} {
		id := s.add("jig", fact.Top)
		s.tell(fact.Taught{Rung: id})
		assert.True(t, has(id), "piece %d", i)
		s.tell(fact.PointMarked{Rung: id, Point: own, State: state})
		s.tell(fact.PointMarked{Rung: id, Point: own, State: fact.Met})
		s.tell(fact.FootholdTried{Rung: id, Outcome: "granted"})
		assert.True(t, has(id), "the mark stays on the rung where it was made")
	}
	assert.False(t, has(s.add("lamp", fact.Top)), "met at first three times running: dropped")
	assert.True(t, s.standing().Own[0].Gone)
}

func TestOrderOfALane(t *testing.T) {
	s := &story{}
	a := s.add("lamp", fact.Top)
	b := s.add("jig", fact.Top)
	c := s.add("tower", a)
	ids := func() (out []string) {
		for _, r := range s.standing().Rungs {
			out = append(out, r.ID)
		}
		return
	}
	assert.Equal(t, []string{a, c, b}, ids())
	s.tell(fact.RungMoved{Rung: b})
	assert.Equal(t, []string{b, a, c}, ids(), "to the foot of the lane")
	s.tell(fact.RungMoved{Rung: b, After: c})
	assert.Equal(t, []string{a, c, b}, ids())
	s.tell(fact.RungParked{Rung: a})
	assert.Equal(t, Current, s.standing().State(s.rung(t, c)), "a parked rung lets the next one through")
	assert.Equal(t, Parked, s.standing().State(s.rung(t, a)))
	s.tell(fact.RungResumed{Rung: a})
	assert.Equal(t, Current, s.standing().State(s.rung(t, a)))
}

func TestFactsAboutWhatIsNotHere(t *testing.T) {
	s := &story{}
	s.add("unknown item", fact.Top)
	s.tell(fact.Taught{Rung: "01NOSUCHRUNG"})
	s.tell(fact.PointMarked{Rung: "01NOSUCHRUNG", Point: "tone", State: fact.Met})
	lamp := s.add("lamp", fact.Top)
	s.tell(fact.PointMarked{Rung: lamp, Point: "no-such-point", State: fact.Met})
	s.tell(fact.SpotDrilled{Rung: lamp, Spot: "01NOSUCHSPOT", Run: 2})
	assert.Len(t, s.standing().Unplaced, 5, "kept aside, not lost")
}

// random draws a student's facts of every kind, some of them taken back, some at
// the same moment, some about what does not exist.
func random(t *rapid.T) []fact.Fact {
	s := &story{}
	had := map[string][]string{"item": {"lamp", "jig", "tower", "gone"}, "point": {"tone"}}
	types := fact.Types()
	often := []reflect.Type{reflect.TypeFor[fact.RungAdded](), reflect.TypeFor[fact.Taught](), reflect.TypeFor[fact.FootholdTried](), reflect.TypeFor[fact.PointMarked]()}
	for range rapid.IntRange(1, 40).Draw(t, "facts") {
		v := reflect.New(rapid.SampledFrom(append(often, types...)).Draw(t, "kind")).Elem()
		for i := range v.NumField() {
			field, name := v.Type().Field(i), v.Type().Field(i).Name
			switch enum, ref := field.Tag.Get("enum"), field.Tag.Get("ref"); {
			case enum != "":
				v.Field(i).SetString(rapid.SampledFrom(strings.Split(enum, ",")).Draw(t, name))
			case name == "After":
				v.Field(i).SetString(rapid.SampledFrom(append([]string{"", fact.Top}, had["rung"]...)).Draw(t, name))
			case name == "Part":
				v.Field(i).SetString(rapid.SampledFrom([]string{"", "one", "two"}).Draw(t, name))
			case ref != "":
				v.Field(i).SetString(rapid.SampledFrom(append([]string{"01NOTHING"}, had[ref]...)).Draw(t, name))
			case field.Type == reflect.TypeFor[calendar.Date]():
				v.Field(i).SetString("2026-11-18")
			case field.Type.Kind() == reflect.String:
				v.Field(i).SetString("x")
			case field.Type.Kind() == reflect.Int:
				v.Field(i).SetInt(3)
			}
		}
		id := s.tell(v.Interface().(fact.Body))
		had["fact"] = append(had["fact"], id)
		switch v.Interface().(type) {
		case fact.RungAdded:
			had["rung"] = append(had["rung"], id)
		case fact.SpotNoted:
			had["spot"] = append(had["spot"], id)
		case fact.OwnPoint:
			had["point"] = append(had["point"], OwnKey(id))
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

// Renaming a piece's points or parts loses no mark; what is added to a piece reaches
// a rung that stands when that takes it over, and not before.
func TestAPieceThatIsEditedUnderALadder(t *testing.T) {
	s := &story{}
	id := s.add("tower", fact.Top)
	s.tell(fact.Taught{Rung: id})
	s.tell(fact.PointMarked{Rung: id, Point: "tone", State: fact.Met})
	for _, part := range []string{"one", "two"} {
		s.tell(fact.FootholdTried{Rung: id, Part: part, Outcome: "granted"})
	}
	was := items["tower"]
	renamed := was
	renamed.Points, renamed.Parts = shelf.Points{{ID: "tone", Name: "Klang"}}, shelf.Parts{{ID: "one", Name: "First half"}, {ID: "two", Name: "Second half"}}
	renamed.Succeed(was)
	rung := func(it shelf.Item) Rung {
		r, ok := Fold(s.facts, map[string]shelf.Item{"tower": it}).Rung(id)
		require.True(t, ok)
		return r
	}
	r := rung(renamed)
	assert.Equal(t, "Klang", r.Points[0].Name)
	assert.Equal(t, Met, r.Points[0].State)
	assert.NotNil(t, r.Foothold)

	more := renamed
	more.Points, more.Parts = append(more.Points, shelf.Named{Name: "Tuning"}), append(more.Parts, shelf.Named{Name: "Coda"})
	more.Succeed(renamed)
	r = rung(more)
	assert.NotNil(t, r.Foothold, "what is secure stays so")
	assert.Len(t, r.Parts, 2)
	assert.Less(t, r.Revision, r.Item.Revision, "a newer revision is there to take over")
	s.tell(fact.RungRevised{Rung: id, Revision: 1})
	r = rung(more)
	assert.Nil(t, r.Foothold, "a part that is new is still to be learnt")
	assert.Len(t, r.Parts, 3)
	assert.NotNil(t, r.Parts[1].Foothold)
	assert.Equal(t, []PointState{Met, Unmarked}, []PointState{r.Points[0].State, r.Points[1].State})
	s.tell(fact.FootholdTried{Rung: id, Part: "Coda", Outcome: "granted"})
	assert.NotNil(t, rung(more).Foothold)
}
