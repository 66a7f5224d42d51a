package home

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
)

// When the next check-in is due, with whom and about what. Common practice, no source.
func TestCheckInsArePlanned(t *testing.T) {
	day := calendar.Date("2026-09-09")
	s := ladder.Standing{Lessons: ladder.Lessons{Closed: map[calendar.Date]time.Time{day.Add(7): day.Add(7).Time(), day: day.Time()}}}
	usual := approach.Default(9)
	half := int(7 * judgement.HalfTerm)
	for _, c := range []struct {
		after int
		over  bool
	}{{half - 1, false}, {half, true}} {
		got := Next(s, usual, day.Add(c.after), 9)
		assert.Equal(t, day.Add(half), got.Due, "half a term after the first lesson")
		assert.Equal(t, c.over, got.Over, "%d days after it", c.after)
	}
	assert.Equal(t, day.Add(int(7*judgement.WholeTerm)), Next(s, usual.With(approach.Approach{approach.Talks: approach.EachTerm}), day, 9).Due)
	assert.Empty(t, Next(s, usual.With(approach.Approach{approach.Talks: approach.AsNeeded}), day, 9).Due)
	assert.Empty(t, Next(ladder.Standing{}, usual, day, 9).Due, "before the first lesson")
	for age, with := range map[int]string{12: "family", 13: "both", 17: "both", 18: "student"} {
		assert.Equal(t, with, Next(s, usual, day, age).With, "at %d", age)
	}
	codes := func(t Talk) (out []string) {
		for _, r := range t.About {
			out = append(out, r.Code)
		}
		return out
	}
	assert.Equal(t, "talk-goals", codes(Next(s, usual, day, 9))[0])
	assert.NotContains(t, codes(Next(s, usual, day, 12)), "talk-three-way")
	assert.Contains(t, codes(Next(s, usual, day, 13)), "talk-three-way")

	s.Talks = []ladder.Talk{{At: day.Add(40).Time(), With: "family", Agreed: "after breakfast"}, {At: day.Add(60).Time(), With: "both"}}
	for d := 41; d <= 60; d += 2 {
		s.Practice = append(s.Practice, ladder.Practice{Day: day.Add(d)})
	}
	got := Next(s, usual, day.Add(70), 9)
	assert.Equal(t, day.Add(60+half), got.Due, "counted from the last")
	require.Len(t, got.Agreed, 2)
	assert.Equal(t, []string{"", "after breakfast"}, []string{got.Agreed[0].Text, got.Agreed[1].Text}, "the last first")
	assert.NotContains(t, codes(got), "talk-agreed", "nothing was agreed at the last")
	assert.Zero(t, got.Agreed[1].Before)
	assert.InDelta(t, 10*7/28.0, got.Agreed[1].After, 1e-9, "ten days in the four weeks after it")
	assert.Zero(t, got.Agreed[0].After)
	assert.EqualValues(t, -1, Next(s, usual, day.Add(66), 9).Agreed[0].After, "a week has not passed")
}

// Who may be about to lose heart, against the own past: two signs at least.
func TestLosingHeart(t *testing.T) {
	today := calendar.Date("2026-11-18")
	practised := func(now, before int) (out []ladder.Practice) {
		for i := range now {
			out = append(out, ladder.Practice{Day: today.Add(-i)})
		}
		for i := range before {
			out = append(out, ladder.Practice{Day: today.Add(-Window - i)})
		}
		return out
	}
	codes := func(s ladder.Standing, stuck string) (out []string) {
		for _, r := range Heart(s, today, stuck) {
			out = append(out, r.Code)
		}
		return out
	}
	// twenty days in eight weeks before are ten in four
	assert.Equal(t, []string{"heart-days", "heart-stuck"}, codes(ladder.Standing{Practice: practised(5, 20)}, "Weather Glass"))
	assert.Empty(t, codes(ladder.Standing{Practice: practised(6, 20)}, "Weather Glass"), "six of ten are not a fall")
	assert.Empty(t, codes(ladder.Standing{Practice: practised(5, 20)}, ""), "one sign is no opinion")
	assert.Empty(t, codes(ladder.Standing{Practice: practised(0, 0)}, "Weather Glass"), "who never told has not fallen")
	dull := practised(3, 20)
	for i := range dull[:3] {
		dull[i].Feel = "dull"
	}
	assert.Equal(t, []string{"heart-days", "heart-dull"}, codes(ladder.Standing{Practice: dull}, ""))
}
