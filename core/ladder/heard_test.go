package ladder

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/fact"
	"patientladder/core/judgement"
)

func TestTakesThatASheetThinksOf(t *testing.T) {
	s := &story{}
	id := s.add("lamp", fact.Top)
	s.tell(fact.PlayedIn{Rung: id, Asked: "roll pima", From: "keys", Notes: 32, Figure: "strong", Hand: "right", Finger: "p", Size: 20})
	s.tell(fact.PlayedIn{Asked: "scale C", From: "keys", Notes: 8, Figure: "drift", Size: 0.1, Drift: -0.1})
	st := s.standing()
	at := st.Takes[0].At
	fresh := time.Duration(24 * judgement.TakeFresh * float64(time.Hour))
	take, ok := st.LastTake(id, at.Add(fresh))
	assert.True(t, ok, "on its last day")
	assert.Equal(t, map[string]string{"by": "20", "finger": "p", "hand": "right"}, take.Said().Think().Args)
	_, ok = st.LastTake(id, at.Add(fresh+time.Minute))
	assert.False(t, ok, "a day later")
	_, ok = st.LastTake("another", at)
	assert.False(t, ok, "of another rung")
	assert.Equal(t, "take-quicker", st.Takes[1].Said().Why().Code, "which way it drifts is told by its sign")
}

func TestEvennessIsBelievedAfterSomeDays(t *testing.T) {
	const n = 2 // judgement.TakesEven, said again so that it is noticed when it changes
	assert.EqualValues(t, n, judgement.TakesEven)
	type take struct {
		days   int // before
		figure string
	}
	for _, c := range []struct {
		name  string
		takes []take
		want  bool
	}{
		{"none", nil, false},
		{"one even", []take{{0, "even"}}, false},
		{"two on one day", []take{{0, "even"}, {0, "even"}}, false},
		{"on two days", []take{{7, "even"}, {0, "even"}}, true},
		{"on two days, uneven before", []take{{14, "lope"}, {7, "even"}, {0, "even"}}, true},
		{"uneven between", []take{{7, "even"}, {3, "lope"}, {0, "even"}}, false},
		{"uneven at last", []take{{7, "even"}, {3, "even"}, {0, "weak"}}, false},
		{"the first three weeks ago", []take{{21, "even"}, {0, "even"}}, true},
		{"the first too long ago", []take{{22, "even"}, {0, "even"}}, false},
	} {
		now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
		var st Standing
		for _, k := range c.takes {
			st.Takes = append(st.Takes, Take{now.AddDate(0, 0, -k.days), fact.PlayedIn{Rung: "r", Figure: k.figure}})
		}
		assert.Equal(t, c.want, st.Evened("r", now), c.name)
	}
}

func TestPointsOfEvenness(t *testing.T) {
	r := Rung{Points: []Point{{Key: "a", Name: "Even in time"}, {Key: "b", Name: "Even", State: Met}, {Key: "c", Name: "Evening boats"}, {Key: "d", Name: "Tone"}, {Key: "e", Name: "even strokes", State: Open}}}
	var got []string
	for _, p := range r.OfEvenness() {
		got = append(got, p.Key)
	}
	assert.Equal(t, []string{"a", "e"}, got)
}

func TestWhatIsPassedAtHomeIsShownInALesson(t *testing.T) {
	for _, c := range []struct {
		name   string
		by     fact.Author
		passed bool
		want   bool
	}{
		{"passed in a lesson", fact.Teacher, true, true},
		{"passed at home", fact.Family, true, false},
		{"a round in a lesson, not passed", fact.Teacher, false, false},
	} {
		s := &story{}
		s.tell(fact.Echoed{Skill: "halves", Level: 2, Asked: 6, Right: 4})
		s.tell(fact.Echoed{Skill: "halves", Level: 1, Asked: 3, Right: 3, Passed: c.passed})
		s.facts[len(s.facts)-1].By = c.by
		st := s.standing()
		e := st.Echoes["halves"]
		assert.Equal(t, c.want, e.Passed, c.name)
		assert.Equal(t, 2, e.Level, c.name)
		assert.Equal(t, 2, e.Rounds, c.name)
		assert.Equal(t, c.want, st.Probes["halves"].Outcome == fact.Pass, c.name)
	}
}
