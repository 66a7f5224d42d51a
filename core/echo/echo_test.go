package echo

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/exercise"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/skill"
	"patientladder/core/touch"
)

// perfect answers a question as it should be.
func perfect(q Call) Reply {
	a := Reply{Word: q.word, Keys: q.right, Judged: "right"}
	for _, d := range q.dues {
		a.Taps = append(a.Taps, touch.Stroke{At: 300 + d.Onset*q.Beat, Hand: d.Hand})
	}
	return a
}

func TestEveryTrialAsksAtEachLevelWhatCanBeAnswered(t *testing.T) {
	g := skill.Catalogue()
	for _, trial := range trials {
		trial, known := Of(g, trial.Skill)
		require.True(t, known, trial.Skill)
		require.NotEmpty(t, trial.Levels)
		for level := range len(trial.Levels) {
			seen := map[string]bool{}
			for seed := range uint64(40) {
				q := trial.Ask(level+1, seed)
				what := trial.Levels[level].Key
				require.NotEmpty(t, q.Sounds, what)
				require.NotEmpty(t, q.Says.Key, what)
				require.Positive(t, q.Beat, what)
				for _, s := range q.Sounds {
					require.GreaterOrEqual(t, s.Key, 40.0, what)
					require.LessOrEqual(t, s.Key, 96.0, what)
					require.LessOrEqual(t, s.Onset+s.Length*0.9, q.Length+1e-6, what+": all is heard before it is answered")
				}
				v, err := trial.Judge(q, perfect(q))
				require.NoError(t, err, what)
				require.True(t, v.Right, "%s: %s %+v", what, v.Says.Key, q)
				switch trial.Kind {
				case Tap, Hands:
					early := perfect(q)
					early.Early = 1
					v, _ = trial.Judge(q, early)
					assert.False(t, v.Right, what+", begun early")
					assert.Equal(t, "verdict.early", v.Says.Key)
					less := perfect(q)
					less.Taps = less.Taps[:len(less.Taps)-1]
					v, _ = trial.Judge(q, less)
					assert.False(t, v.Right, what+", one missing")
				case Choose:
					require.True(t, slices.ContainsFunc(q.Words, func(w Word) bool { return w.Key == q.word }), what)
					seen[q.word] = true
					for _, w := range q.Words {
						v, _ = trial.Judge(q, Reply{Word: w.Key})
						assert.Equal(t, w.Key == q.word, v.Right, what)
					}
				case Keys:
					for _, k := range q.right {
						require.Contains(t, q.Keys, k, what)
					}
					v, _ = trial.Judge(q, Reply{Keys: append(slices.Clone(q.right[1:]), 1)})
					assert.False(t, v.Right, what)
				case Sing:
					v, _ = trial.Judge(q, Reply{Judged: "wrong"})
					assert.False(t, v.Right, what)
				}
				assert.Equal(t, q, trial.Ask(level+1, seed), "the same seed asks the same")
			}
			if trial.Kind == Choose {
				q := trial.Ask(level+1, 1)
				assert.Len(t, seen, len(q.Words), "%s: each word is the answer sometimes", trial.Skill)
			}
		}
	}
}

// Another rhythm of as many taps is not the rhythm.
func TestAnotherRhythmIsNotTheRhythm(t *testing.T) {
	trial, _ := Of(skill.Catalogue(), "dotted")
	q := trial.Ask(1, 3)
	even := Reply{}
	last := q.dues[len(q.dues)-1].Onset
	for i := range q.dues {
		even.Taps = append(even.Taps, touch.Stroke{At: last * q.Beat * float64(i) / float64(len(q.dues)-1)})
	}
	v, err := trial.Judge(q, even)
	require.NoError(t, err)
	assert.False(t, v.Right, v.Says.Key)
}

func TestLevelsComeByAnswersRunning(t *testing.T) {
	trial, _ := Of(skill.Catalogue(), "halves")
	r := Bout{Level: 1}
	for range int(judgement.EchoRun) - 1 {
		r = trial.After(r, true)
	}
	assert.Equal(t, 1, r.Level, "one short of a run")
	assert.Equal(t, 0, trial.After(r, false).Running, "a slip begins it anew")
	r = trial.After(r, true)
	assert.Equal(t, Bout{Level: 2, Asked: 3, Right: 3}, r)
	for range 2 * int(judgement.EchoRun) {
		assert.False(t, r.Passed)
		r = trial.After(r, true)
	}
	assert.True(t, r.Passed, "the last level, as often running as it takes")
	assert.Equal(t, 3, r.Level)
}

// No skill of listening, pulse or evenness is without a way to try it.
func TestEverySkillOfListeningPulseAndEvennessCanBeTried(t *testing.T) {
	g := skill.Catalogue()
	n := 0
	for id, s := range g {
		even := slices.ContainsFunc(s.Chain, func(l skill.Link) bool { return l.Notes != "" })
		if s.Area != skill.Ear && s.Area != skill.Rhythm && !even {
			continue
		}
		n++
		trial, ok := Of(g, id)
		if !assert.True(t, ok, "%s: %s", id, s.Name) {
			continue
		}
		if trial.Kind == PlayIn {
			assert.True(t, slices.ContainsFunc(instrument.Shipped, func(p instrument.Profile) bool {
				return exercise.Lies(trial.Exercise, p)
			}), "%s plays %q", id, trial.Exercise)
		}
	}
	assert.Greater(t, n, 40)
	for _, id := range []string{"pima", "six-pattern", "pami", "five-fingers", "scale-white", "alternating"} {
		_, ok := Of(g, id)
		assert.True(t, ok, id)
	}
}

func TestWhatComesNextRestsOnWhatIsPassed(t *testing.T) {
	g := skill.Catalogue()
	passed := map[string]bool{}
	var order []string
	for {
		trial, more := Next(g, instrument.Bowed, func(id string) bool { return passed[id] })
		if !more {
			break
		}
		order = append(order, trial.Skill)
		passed[trial.Skill] = true
	}
	assert.Equal(t, "higher-lower", order[0])
	assert.Contains(t, order, "tune-string")
	assert.NotContains(t, order, "tune-guitar", "of another family")
	assert.Less(t, slices.Index(order, "thirds"), slices.Index(order, "two-against-three"))
	assert.Less(t, slices.Index(order, "two-against-three"), slices.Index(order, "three-against-four"))
	_, known := Of(g, "no-such-skill")
	assert.False(t, known)
}

// An answer is in time up to a fifth of its shortest interval off the line, in the mean; three right running
// make a level.
func TestHowFarOffAnAnswerIsRight(t *testing.T) {
	assert.EqualValues(t, 3, judgement.EchoRun)
	q := Call{Beat: 600, dues: []touch.Due{{Onset: 0}, {Onset: 1}, {Onset: 2}, {Onset: 3}, {Onset: 4}, {Onset: 5}, {Onset: 6}, {Onset: 7}}}
	off := func(ms float64) bool {
		a := perfect(q)
		for i := range a.Taps {
			if i%4 == 1 {
				a.Taps[i].At += ms
			}
			if i%4 == 3 {
				a.Taps[i].At -= ms
			}
		}
		v, err := q.tapped(a)
		require.NoError(t, err)
		return v.Right
	}
	assert.True(t, off(100), "half of the taps 100 ms off: 50 in the mean")
	judged := judgement.EchoOff * 600
	assert.InDelta(t, 120, judged, 1e-9)
	m, err := touch.Read(q.dues, perfect(q).Taps, q.Beat)
	require.NoError(t, err)
	assert.Less(t, m.Worst(), judged)
}
