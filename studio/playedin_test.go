package studio_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/echo"
	"patientladder/core/fact"
	"patientladder/core/gather"
	"patientladder/core/touch"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/family"
	"patientladder/studio/notes"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

func kinds(said []touch.Saying) (out []string) {
	for _, s := range said {
		out = append(out, s.Figure)
	}
	return
}

// A take is measured beside an exercise, a passage of a piece, or a step that is tapped; from strokes,
// from a file, or from the simulated keyboard.
func TestWhatIsPlayedIn(t *testing.T) {
	r := furnished(t)
	roll := notes.PlayedAsk{Exercise: "roll pima", Instrument: "guitar", From: "simulated", Simulated: &touch.Setting{Beat: 800, Thumb: 20}}
	v, err := notes.Played(ctx, r.app, r.who, roll)
	require.NoError(t, err)
	assert.Equal(t, []string{"strong"}, kinds(v.Said))
	assert.Equal(t, map[string]string{"by": "20", "finger": "thumb"}, v.Why[0].Args, "a plucking finger is of no hand by name")
	assert.Equal(t, "Roll p i m a", v.Title)
	assert.NotEmpty(t, v.Notes[0].ID, "the notes are those that are drawn")

	scale := notes.PlayedAsk{Exercise: "scale C major both", Instrument: "piano", From: "simulated", Simulated: &touch.Setting{Beat: 600, Lope: 1.4}}
	v, err = notes.Played(ctx, r.app, r.who, scale)
	require.NoError(t, err)
	assert.Equal(t, []string{"lope"}, kinds(v.Said))
	assert.Len(t, v.Hands, 2)

	// the first two bars of a piece: what else is asked is not asked here
	read, err := notes.Reading(ctx, r.app, r.who, "harbour-wall", "")
	require.NoError(t, err)
	inTime := slices.Clone(read.Sounds)
	slices.SortStableFunc(inTime, func(a, b notes.Sound) int { return int(1000 * (a.Onset - b.Onset)) })
	var last notes.Sound
	n := 0
	for _, s := range inTime {
		if s.Onset < read.Bars[2] {
			last, n = s, n+1
		}
	}
	ask := notes.PlayedAsk{Item: "harbour-wall", FromNote: inTime[0].ID, ToNote: last.ID, Instrument: "piano", From: "simulated", Simulated: &touch.Setting{Beat: 600}}
	v, err = notes.Played(ctx, r.app, r.who, ask)
	require.NoError(t, err)
	assert.Equal(t, n, v.Asked)
	assert.Equal(t, n, v.Right)
	ask.Hand = "left"
	v, err = notes.Played(ctx, r.app, r.who, ask)
	require.NoError(t, err)
	assert.Less(t, v.Asked, n)

	// a file of the whole piece, as this program writes it
	f, err := notes.Convert(ctx, r.app, r.who, "harbour-wall", "midi", nil, "")
	require.NoError(t, err)
	v, err = notes.Played(ctx, r.app, r.who, notes.PlayedAsk{Item: "harbour-wall", Instrument: "piano", From: "file", MIDI: f.Data})
	require.NoError(t, err)
	assert.Equal(t, v.Asked, v.Right)
	assert.Empty(t, v.Said)

	for _, bad := range []struct {
		in   notes.PlayedAsk
		says string
	}{
		{notes.PlayedAsk{Exercise: "polka", Instrument: "piano"}, "cannot be made"},
		{notes.PlayedAsk{Exercise: "roll pima", Instrument: "piano"}, "cannot be made"},
		{notes.PlayedAsk{Tap: "tap 9:9 pulse"}, "no step"},
		{notes.PlayedAsk{Item: "nothing", Instrument: "piano"}, "no such"},
		{notes.PlayedAsk{Exercise: "scale C", Instrument: "piano"}, "Nothing was played"},
		{notes.PlayedAsk{Exercise: "scale C", Instrument: "piano", MIDI: []byte("RIFF")}, "not a MIDI file"},
		{notes.PlayedAsk{Exercise: "scale C", Instrument: "piano", Strokes: []touch.Stroke{{At: -1}}}, "cannot be measured"},
	} {
		_, err := notes.Played(ctx, r.app, r.who, bad.in)
		assert.ErrorContains(t, err, bad.says, "%+v", bad.in)
	}
}

// A take is kept when the teacher says so: it stands on the record, and the sheet thinks of it.
func TestATakeIsKept(t *testing.T) {
	r := furnished(t)
	in := newcomer(func(n *roster.NewStudent) { n.Instrument, n.Books, n.Slot.Weekday = "guitar", []string{"Low Water"}, 3 })
	r.student = in.ID
	_, err := roster.AddStudent(ctx, r.app, r.who, in)
	require.NoError(t, err)
	rung := r.tell(fact.RungAdded{Item: "low-t1", Strand: "technique", After: fact.Top})
	r.tell(fact.LessonOpened{Day: "2026-11-18"})
	r.tell(fact.Taught{Rung: rung})
	take := func(thumb float64, beat float64) {
		v, err := notes.Played(ctx, r.app, r.who, notes.PlayedAsk{Exercise: "roll pima", Instrument: "guitar", Rung: rung, From: "simulated", Simulated: &touch.Setting{Beat: beat, Thumb: thumb}})
		require.NoError(t, err)
		r.tell(v.Keep[0])
	}
	take(20, 800)
	take(12, 800)
	record, err := places.Record(ctx, r.app, r.who, r.student, 0)
	require.NoError(t, err)
	require.Len(t, record.Played, 1)
	assert.Equal(t, "p i m a on open strings", record.Played[0].Title)
	assert.Equal(t, "thumb", record.Played[0].Finger)
	assert.InDelta(t, 20, record.Played[0].Takes[0].Value, 1)
	assert.InDelta(t, 12, record.Played[0].Takes[1].Value, 1)
	says := func() (out string) {
		v, err := places.Week(ctx, r.app, r.who, r.student, "", 0)
		require.NoError(t, err)
		for _, d := range v.Sheet.Days {
			for _, task := range d.Tasks {
				out += task.Says.What + "\n"
			}
		}
		return
	}
	r.tell(fact.LessonClosed{Day: "2026-11-18"})
	assert.Contains(t, says(), "Think of the thumb: as light as the others")
	r.now = r.now.AddDate(0, 0, 7)
	r.tell(fact.LessonOpened{Day: "2026-11-25"})
	take(0, 800)
	r.tell(fact.LessonClosed{Day: "2026-11-25"})
	assert.NotContains(t, says(), "Think of", "it was even")
}

// The steps to a cross-rhythm hold as they were tapped last.
func TestStepsThatHold(t *testing.T) {
	r := newRoom(t)
	steps := touch.Steps(3, 2)
	tap := func(step touch.TapStep, set touch.Setting) {
		set.Beat = 1500
		v, err := notes.Played(ctx, r.app, r.who, notes.PlayedAsk{Tap: step.Key, Instrument: "piano", From: "taps", Strokes: touch.Simulate(step.Dues(), set)})
		require.NoError(t, err)
		r.tell(v.Keep[0])
	}
	v, err := notes.Taps(ctx, r.app, r.who, 3, 2, r.student)
	require.NoError(t, err)
	assert.Equal(t, steps[0].Key, v.Next)
	tap(steps[0], touch.Setting{})
	tap(steps[1], touch.Setting{Slips: 50, Seed: 1})
	v, err = notes.Taps(ctx, r.app, r.who, 3, 2, r.student)
	require.NoError(t, err)
	assert.True(t, v.Steps[0].Holds)
	assert.Equal(t, steps[1].Key, v.Next, "what slipped does not hold")
	for _, s := range steps {
		tap(s, touch.Setting{})
	}
	v, err = notes.Taps(ctx, r.app, r.who, 3, 2, r.student)
	require.NoError(t, err)
	assert.Empty(t, v.Next, "all hold")
	anybody, err := notes.Taps(ctx, r.app, r.who, 3, 2, "")
	require.NoError(t, err)
	assert.Equal(t, steps[0].Key, anybody.Next)
}

// Listening and answering, in a lesson and at home.
func TestListeningAndAnswering(t *testing.T) {
	r := newRoom(t)
	v, err := family.Listening(ctx, r.app, r.who, r.student)
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
	anybody, err := family.Listening(ctx, r.app, r.who, "")
	require.NoError(t, err)
	require.NotNil(t, find(anybody, "halves"))
	assert.Nil(t, find(anybody, "tune-string"), "of one instrument")

	bout := echo.Bout{Level: 1}
	var keep fact.Bodies
	for seed := uint64(1); !bout.Passed && seed < 60; seed++ {
		ask := family.CallAsk{Skill: "higher-lower", Bout: bout, Seed: seed}
		q, err := family.Call(ctx, r.app, r.who, ask)
		require.NoError(t, err)
		word := "lower"
		if q.Sounds[1].Key > q.Sounds[0].Key {
			word = "higher"
		}
		got, err := family.Reply(ctx, r.app, r.who, family.ReplyAsk{CallAsk: ask, Reply: echo.Reply{Word: word}})
		require.NoError(t, err)
		require.True(t, got.Verdict.Right)
		bout, keep = got.Bout, got.Keep
	}
	require.True(t, bout.Passed)
	r.tell(keep[0])
	v, err = family.Listening(ctx, r.app, r.who, r.student)
	require.NoError(t, err)
	assert.True(t, find(v, "higher-lower").Passed)
	assert.NotEqual(t, "higher-lower", v.Next)

	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	token := link.Path[len("/family/"):]
	home, err := family.FamilyListening(ctx, r.app, token)
	require.NoError(t, err)
	assert.Nil(t, find(home, "sing-back"), "nobody is there who judges")
	ask := family.CallAsk{Skill: "halves", Bout: echo.Bout{Level: 3, Running: 2, Asked: 8, Right: 8}, Seed: 5}
	q, err := family.FamilyCall(ctx, r.app, token, ask)
	require.NoError(t, err)
	var taps []touch.Stroke
	for _, s := range q.Sounds {
		if !s.Click {
			taps = append(taps, touch.Stroke{At: 100 + (s.Onset-4)*q.Beat})
		}
	}
	got, err := family.FamilyReply(ctx, r.app, token, family.ReplyAsk{CallAsk: ask, Reply: echo.Reply{Taps: taps}})
	require.NoError(t, err)
	require.True(t, got.Bout.Passed, got.Verdict.Says)
	require.NoError(t, family.Tell(ctx, r.app, token, []fact.Fact{{ID: studio.NewID(), Student: r.student, At: r.now, Body: got.Keep[0]}}))
	v, err = family.Listening(ctx, r.app, r.who, r.student)
	require.NoError(t, err)
	assert.Equal(t, 3, find(v, "halves").Level)
	assert.False(t, find(v, "halves").Passed, "at home; it is shown in a lesson")

	for _, skill := range []string{"scale-white", "no-such-skill"} {
		_, err := family.Call(ctx, r.app, r.who, family.CallAsk{Skill: skill, Bout: bout})
		assert.ErrorContains(t, err, "nothing to listen to", skill)
	}
	_, err = family.FamilyCall(ctx, r.app, "nonsense", ask)
	assert.Error(t, err)
}

// An hour that several share: planned, handed on, kept, and without one who is deleted.
func TestASharedHour(t *testing.T) {
	r := newRoom(t)
	lamp := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: lamp})
	r.tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	emil := r.student
	bea := newcomer(func(n *roster.NewStudent) {
		n.FirstName, n.Instrument, n.Books = "Bea", "cello", nil
	})
	_, err := roster.AddStudent(ctx, r.app, r.who, bea)
	require.NoError(t, err)
	r.student = bea.ID
	hers := r.tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.tell(fact.Taught{Rung: hers})
	h := gather.Hour{ID: studio.NewID(), Name: "Two cellos", Day: "2026-11-18", Minutes: 45, Students: []string{emil, bea.ID}}
	require.NoError(t, diary.KeepHour(ctx, r.app, r.who, h))
	v, err := diary.Hour(ctx, r.app, r.who, h.ID)
	require.NoError(t, err)
	assert.Empty(t, v.Tunes, "Bea has it in hand, not secure")
	assert.Nil(t, v.Schedule)
	duets, err := diary.Duets(ctx, r.app, r.who, bea.ID)
	require.NoError(t, err)
	require.Len(t, duets, 1)
	assert.Equal(t, "lead", duets[0].With[0].How, "Emil leads")

	r.tell(fact.FootholdTried{Rung: hers, Outcome: "granted"})
	v, err = diary.Hour(ctx, r.app, r.who, h.ID)
	require.NoError(t, err)
	require.Len(t, v.Tunes, 1, "proposed")
	assert.Empty(t, v.Tunes[0].Missing)
	assert.Equal(t, []string{lamp, hers}, []string{v.Players[0].Rung, v.Players[1].Rung})
	require.NotNil(t, v.Schedule, v.Trouble)
	assert.Equal(t, 2, v.Schedule.Players)
	sum := 0
	for _, b := range v.Plan {
		sum += b.Minutes
	}
	assert.Equal(t, 45, sum)
	h.Each = 64
	require.NoError(t, diary.KeepHour(ctx, r.app, r.who, h))
	v, err = diary.Hour(ctx, r.app, r.who, h.ID)
	require.NoError(t, err)
	if v.Schedule == nil {
		assert.Contains(t, v.Trouble, "cannot be handed on every 64 beats")
	}

	views, err := diary.Hours(ctx, r.app, r.who)
	require.NoError(t, err)
	require.Len(t, views.Hours, 1)
	assert.NotEmpty(t, views.Groups)

	whole, err := roster.ExportStudio(ctx, r.app, r.who)
	require.NoError(t, err)
	assert.Len(t, whole.Hours, 1)

	_, err = roster.EraseStudent(ctx, r.app, r.who, bea.ID, "Bea")
	require.NoError(t, err)
	v, err = diary.Hour(ctx, r.app, r.who, h.ID)
	require.NoError(t, err)
	assert.Len(t, v.Players, 1, "of one that was deleted nothing is told")
	assert.ErrorContains(t, diary.KeepHour(ctx, r.app, r.who, h), "not in the studio any more")
	h.Students = []string{emil}
	assert.ErrorContains(t, diary.KeepHour(ctx, r.app, r.who, h), "at least two")
	require.NoError(t, diary.DropHour(ctx, r.app, r.who, h.ID))
	_, err = diary.Hour(ctx, r.app, r.who, h.ID)
	assert.ErrorContains(t, err, "no such hour")
}

// A family tells up to a thousand facts a day; what is more waits for the next.
func TestHowMuchAFamilyTellsInADay(t *testing.T) {
	r := newRoom(t)
	link, err := family.MakeLink(ctx, r.app, r.who, r.student, false)
	require.NoError(t, err)
	tell := func(n int) error {
		var facts []fact.Fact
		for range n {
			facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.student, At: r.now, Body: fact.QuestionAsked{Text: "why?"}})
		}
		return family.Tell(ctx, r.app, link.Path[len("/family/"):], facts)
	}
	require.NoError(t, tell(500))
	require.NoError(t, tell(500))
	assert.ErrorContains(t, tell(1), "sent tomorrow")
	r.tell(fact.Noted{Text: "the teacher goes on"})
}
