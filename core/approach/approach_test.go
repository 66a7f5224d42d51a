package approach

import (
	"patientladder/core/instrument"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The usual answers by age: common practice, no source.
func TestDefaultsByAge(t *testing.T) {
	for _, c := range []struct {
		ask      string
		age      int
		schooled string
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
	seen := map[string]bool{}
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
	assert.Equal(t, "two", a["new-skills"], "the first approach is not changed")
	assert.Contains(t, a.Cues("technique", instrument.Plucked), "Even in time first")
	assert.NotContains(t, a.Cues("technique", instrument.Keyboard), "Even in time first")
	assert.Empty(t, a.Cues("ahead", instrument.Keyboard))
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
		assert.Equal(t, c.first, FromProbes(c.probes)["first"], name)
		assert.NoError(t, FromProbes(c.probes).Check(), name)
	}
}
