package family_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/echo"
	"patientladder/core/fact"
	"patientladder/core/touch"
	"patientladder/studio"
	"patientladder/studio/family"
	"patientladder/studio/studiotest"
)

// Listening and answering, in a lesson and at home.
func TestListeningAndAnswering(t *testing.T) {
	r := studiotest.New(t)
	v, err := family.Listening(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	assert.Equal(t, "Emil", v.Student)
	find := func(v family.ListenView, skill string) *family.TrialView {
		for i := range v.Trials {
			if v.Trials[i].Skill == skill {
				return &v.Trials[i]
			}
		}
		return nil
	}
	require.NotNil(t, find(v, "tune-string"), "of a cello")
	assert.Nil(t, find(v, "tune-guitar"))
	assert.Equal(t, "higher-lower", v.Next)
	anybody, err := family.Listening(ctx, r.App, r.Who, "")
	require.NoError(t, err)
	require.NotNil(t, find(anybody, "halves"))
	assert.Nil(t, find(anybody, "tune-string"), "of one instrument")

	bout := echo.Bout{Level: 1}
	var keep fact.Bodies
	for seed := uint64(1); !bout.Passed && seed < 60; seed++ {
		ask := family.CallAsk{Skill: "higher-lower", Bout: bout, Seed: seed}
		q, err := family.Call(ctx, r.App, r.Who, ask)
		require.NoError(t, err)
		word := "lower"
		if q.Sounds[1].Key > q.Sounds[0].Key {
			word = "higher"
		}
		got, err := family.Reply(ctx, r.App, r.Who, family.ReplyAsk{CallAsk: ask, Reply: echo.Reply{Word: word}})
		require.NoError(t, err)
		require.True(t, got.Verdict.Right)
		bout, keep = got.Bout, got.Keep
	}
	require.True(t, bout.Passed)
	r.Tell(keep[0])
	v, err = family.Listening(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	assert.True(t, find(v, "higher-lower").Passed)
	assert.NotEqual(t, "higher-lower", v.Next)

	link, err := family.MakeLink(ctx, r.App, r.Who, r.Student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	home, err := family.FamilyListening(ctx, r.App, token)
	require.NoError(t, err)
	assert.Nil(t, find(home, "sing-back"), "nobody is there who judges")
	ask := family.CallAsk{Skill: "halves", Bout: echo.Bout{Level: 3, Running: 2, Asked: 8, Right: 8}, Seed: 5}
	q, err := family.FamilyCall(ctx, r.App, token, ask)
	require.NoError(t, err)
	var taps []touch.Stroke
	for _, s := range q.Sounds {
		if !s.Click {
			taps = append(taps, touch.Stroke{At: 100 + (s.Onset-4)*q.Beat})
		}
	}
	got, err := family.FamilyReply(ctx, r.App, token, family.ReplyAsk{CallAsk: ask, Reply: echo.Reply{Taps: taps}})
	require.NoError(t, err)
	require.True(t, got.Bout.Passed, got.Verdict.Says)
	require.NoError(t, family.Tell(ctx, r.App, token, []fact.Fact{{ID: studio.NewID(), Student: r.Student, At: r.Now, Body: got.Keep[0]}}))
	v, err = family.Listening(ctx, r.App, r.Who, r.Student)
	require.NoError(t, err)
	assert.Equal(t, 3, find(v, "halves").Level)
	assert.False(t, find(v, "halves").Passed, "at home; it is shown in a lesson")

	for _, skill := range []string{"scale-white", "no-such-skill"} {
		_, err := family.Call(ctx, r.App, r.Who, family.CallAsk{Skill: skill, Bout: bout})
		assert.ErrorContains(t, err, "nothing to listen to", skill)
	}
	_, err = family.FamilyCall(ctx, r.App, "nonsense", ask)
	assert.Error(t, err)
}
