package approach

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
	"patientladder/core/reason"
)

// The usual answers by age: common practice, no source.
var piano, guitar = instrument.Shipped.Of("piano"), instrument.Shipped.Of("guitar")

func TestDefaultsByAge(t *testing.T) {
	for _, c := range []struct {
		ask      Question
		age      int
		schooled School
	}{
		{"reading", 7, "direction"}, {"reading", 8, "landmarks"},
		{"start", 6, "diagram"}, {"start", 7, "page"},
		{"first", 4, "left-right"}, {"first", 6, "ear"}, {"first", 8, "seat-hand"},
		{"scale-hands", 8, "week-each"}, {"scale-hands", 9, "same-week"},
		{"praise", 6, "generous"}, {"praise", 7, "specific"},
		{"numbers", 5, "from-four"}, {"low-seat", 40, "tiles"}, {"new-skills", 9, "two"}, {"slope", 9, "uneven"},
	} {
		assert.Equal(t, c.schooled, Default(c.age)[c.ask], "%s at %d", c.ask, c.age)
	}
	assert.Equal(t, 0.5, Default(9).UpkeepShare())
	assert.Equal(t, 0.75, EarFirst(7).UpkeepShare())
	assert.InDelta(t, 1.0/3, Default(30).With(Approach{"upkeep": "third"}).UpkeepShare(), 1e-12)
	for age := 3; age < 80; age++ {
		assert.NoError(t, Default(age).Check())
		assert.NoError(t, EarFirst(age).Check())
	}
}

func TestEveryQuestionIsAnswered(t *testing.T) {
	seen := map[Question]bool{}
	for _, r := range Rows {
		assert.False(t, seen[r.Key], "%s stands twice", r.Key)
		seen[r.Key] = true
		assert.GreaterOrEqual(t, len(r.Schools), 2, r.Asks)
		_, known := r.School(r.usual(9))
		assert.True(t, known, r.Key)
	}
	assert.ErrorContains(t, Approach{"hands": "three"}.Check(), "choose one of week-each, together")
	assert.ErrorContains(t, Approach{"feet": "bare"}.Check(), "not a question")
}

func TestSchoolsMovePlans(t *testing.T) {
	a := Default(9)
	assert.Equal(t, 2, a.NewSkills())
	one := a.With(Approach{"new-skills": "one"})
	assert.Equal(t, []int{1, 1}, []int{one.NewSkills(), one.HeadStarts()})
	assert.Equal(t, 2, a.With(Approach{"new-skills": "book"}).HeadStarts(), "never more than two at once")
	assert.Equal(t, School("two"), a["new-skills"], "the first approach is not changed")
	assert.Contains(t, a.Cues("technique", guitar), reason.Said("approach.plucked-time-even-cue"))
	assert.NotContains(t, a.Cues("technique", piano), reason.Said("approach.plucked-time-even-cue"))
	assert.Empty(t, a.Cues("ahead", piano))
}

// What first meetings change: common practice, no source.
func TestProbesSetTheDefaults(t *testing.T) {
	for name, c := range map[string]struct {
		probes map[string]string
		first  string
	}{
		"hands first, whatever else is open": {map[string]string{"left-right": "not-yet", "steady-beat": "nearly"}, "left-right"},
		"beat only, no note values":          {map[string]string{"left-right": "pass", "steady-beat": "nearly"}, "rhythm"},
		"ear":                                {map[string]string{"sing-back": "not-yet"}, "ear"},
		"all there":                          {map[string]string{"left-right": "pass", "steady-beat": "pass"}, ""},
		"nothing asked":                      {nil, ""},
	} {
		assert.Equal(t, School(c.first), FromProbes(c.probes)[First], name)
		assert.NoError(t, FromProbes(c.probes).Check(), name)
	}
}

func TestWhoIsAskedWhat(t *testing.T) {
	asked := func(plays instrument.Profile) map[Question]bool {
		out := map[Question]bool{}
		for _, r := range For(plays) {
			out[r.Key] = true
		}
		return out
	}
	violin := instrument.Shipped.Of("violin")
	for _, c := range []struct {
		question Question
		plays    instrument.Profile
		want     bool
	}{
		{Bench, piano, true}, {Bench, guitar, false}, {Hands, piano, true}, {Hands, violin, false},
		{"anchor", guitar, true}, {"anchor", piano, false},
		{"bench-part", piano, true}, {"bench-part", guitar, true}, {"bench-part", violin, false},
		{Upkeep, violin, true}, {First, piano, true}, {ScaleKey, piano, true}, {Start, piano, true}, {Start, violin, false}, {Labels, violin, false}, {LowSeat, guitar, true}, {LowSeat, violin, false},
		{"movement", violin, false}, {"transfers", piano, true},
	} {
		assert.Equal(t, c.want, asked(c.plays)[c.question], "%s of a player of the %s", c.question, c.plays)
	}
	assert.Contains(t, Default(9).Cues("set-up", piano), reason.Said("approach.bench-part-half-cue"))
	assert.NotContains(t, Default(9).Cues("set-up", violin), reason.Said("approach.bench-part-half-cue"), "who stands has none")
	assert.True(t, piano.HandsApart())
}

// Whose word holds: the usual one, then what was seen, then what was chosen when the
// student came, then what was set since.
func TestWhoseWordHolds(t *testing.T) {
	seen := map[string]string{"left-right": "not-yet"}
	for _, c := range []struct {
		name        string
		age         int
		probes      map[string]string
		came, since Approach
		want        School
	}{
		{"nobody has said", 9, nil, nil, nil, "seat-hand"},
		{"it was seen", 9, seen, nil, nil, "left-right"},
		{"what was only usual then gives way", 9, seen, Approach{First: "seat-hand"}, nil, "left-right"},
		{"what was chosen does not", 9, seen, Approach{First: "rhythm"}, nil, "rhythm"},
		{"what was usual at another age was a choice", 9, seen, Approach{First: "ear"}, nil, "ear"},
		{"what was set since", 9, seen, Approach{First: "rhythm"}, Approach{First: "ear"}, "ear"},
	} {
		assert.Equal(t, c.want, Settled(c.age, c.probes, c.came, c.since)[First], c.name)
	}
}

// What rests on what by school; nothing more by the usual ones.
func TestRestsBySchool(t *testing.T) {
	usual := Default(9)
	for _, skill := range []string{"scale-white", "parallel-hands", "steps"} {
		assert.Empty(t, usual.RestsOn(skill), skill)
	}
	late := usual.With(Approach{Scales: AfterReading})
	assert.Equal(t, []string{"sight-four-bars", "two-staves"}, late.RestsOn("scale-halves"))
	assert.Equal(t, []string{"sight-four-bars", "two-staves"}, late.RestsOn("scale-white"))
	assert.Equal(t, []string{"sight-four-bars"}, late.RestsOn("scale-bowed"))
	assert.Equal(t, []string{"sight-four-bars"}, late.RestsOn("scale-plucked"))
	assert.Empty(t, late.RestsOn("parallel-hands"))
	mirrored := usual.With(Approach{Patterns: MirroredFirst})
	assert.Equal(t, []string{"mirrored-hands"}, mirrored.RestsOn("parallel-hands"))
	for age, want := range map[int]bool{3: false, 4: true} {
		assert.Equal(t, want, Default(age).Fingered(age), age)
	}
	assert.True(t, Default(3).With(Approach{Numbers: DayOne}).Fingered(3))
}

// What a school of the first question puts first; where it is the usual one of the age, the
// usual order has it there.
func TestWhatComesFirst(t *testing.T) {
	for _, c := range []struct {
		age  int
		says School
		want []string
	}{
		{4, "left-right", nil}, {6, "ear", nil}, {8, "seat-hand", nil}, {40, "seat-hand", nil},
		{4, "ear", []string{"sing-back", "find-by-ear"}}, {6, "rhythm", []string{"steady-beat", "echo-rhythm"}},
		{6, "left-right", []string{"left-right", "steady-beat"}}, {40, "numbers", []string{"finger-numbers"}},
	} {
		assert.Equal(t, c.want, Default(c.age).With(Approach{First: c.says}).Heads(c.age), "%s at %d", c.says, c.age)
	}
}
