package notes_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/touch"
	"patientladder/studio/notes"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
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
	r := studiotest.Furnished(t)
	roll := notes.PlayedAsk{Exercise: "roll pima", Instrument: "guitar", From: "simulated", Simulated: &touch.Setting{Beat: 800, Thumb: 20}}
	v, err := notes.Played(ctx, r.App, r.Who, roll)
	require.NoError(t, err)
	assert.Equal(t, []string{"strong"}, kinds(v.Said))
	assert.Equal(t, map[string]string{"by": "20", "finger": "p"}, v.Why[0].Args, "a plucking finger is of no hand by name")
	assert.Equal(t, "Roll p i m a", v.Title)
	assert.NotEmpty(t, v.Notes[0].ID, "the notes are those that are drawn")

	scale := notes.PlayedAsk{Exercise: "scale C major both", Instrument: "piano", From: "simulated", Simulated: &touch.Setting{Beat: 600, Lope: 1.4}}
	v, err = notes.Played(ctx, r.App, r.Who, scale)
	require.NoError(t, err)
	assert.Equal(t, []string{"lope"}, kinds(v.Said))
	assert.Len(t, v.Hands, 2)

	// the first two bars of a piece: what else is asked is not asked here
	read, err := notes.Reading(ctx, r.App, r.Who, "harbour-wall", "")
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
	v, err = notes.Played(ctx, r.App, r.Who, ask)
	require.NoError(t, err)
	assert.Equal(t, n, v.Asked)
	assert.Equal(t, n, v.Right)
	ask.Hand = "left"
	v, err = notes.Played(ctx, r.App, r.Who, ask)
	require.NoError(t, err)
	assert.Less(t, v.Asked, n)

	// a file of the whole piece, as this program writes it
	f, err := notes.Convert(ctx, r.App, r.Who, "harbour-wall", "midi", nil, "")
	require.NoError(t, err)
	v, err = notes.Played(ctx, r.App, r.Who, notes.PlayedAsk{Item: "harbour-wall", Instrument: "piano", From: "file", MIDI: f.Data})
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
		_, err := notes.Played(ctx, r.App, r.Who, bad.in)
		assert.ErrorContains(t, err, bad.says, "%+v", bad.in)
	}
}

// A take is kept when the teacher says so: it stands on the record, and the sheet thinks of it.
func TestATakeIsKept(t *testing.T) {
	r := studiotest.Furnished(t)
	in := studiotest.Newcomer(func(n *roster.NewStudent) { n.Instrument, n.Books, n.Slot.Weekday = "guitar", []string{"Low Water"}, 3 })
	r.Student = in.ID
	_, err := roster.AddStudent(ctx, r.App, r.Who, in)
	require.NoError(t, err)
	rung := r.Tell(fact.RungAdded{Item: "low-t1", Strand: "technique", After: fact.Top})
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	r.Tell(fact.Taught{Rung: rung})
	take := func(thumb float64, beat float64) {
		v, err := notes.Played(ctx, r.App, r.Who, notes.PlayedAsk{Exercise: "roll pima", Instrument: "guitar", Rung: rung, From: "simulated", Simulated: &touch.Setting{Beat: beat, Thumb: thumb}})
		require.NoError(t, err)
		r.Tell(v.Keep[0])
	}
	take(20, 800)
	take(12, 800)
	record, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
	require.NoError(t, err)
	require.Len(t, record.Played, 1)
	assert.Equal(t, "p i m a on open strings", record.Played[0].Title)
	assert.Equal(t, "p", record.Played[0].Finger.Args["finger"])
	assert.InDelta(t, 20, record.Played[0].Takes[0].Value, 1)
	assert.InDelta(t, 12, record.Played[0].Takes[1].Value, 1)
	says := func() (out string) {
		v, err := places.Week(ctx, r.App, r.Who, r.Student, "", 0)
		require.NoError(t, err)
		for _, d := range v.Sheet.Days {
			for _, task := range d.Tasks {
				out += task.Says.What + "\n"
			}
		}
		return
	}
	r.Tell(fact.LessonClosed{Day: "2026-11-18"})
	assert.Contains(t, says(), "Think of the thumb: as light as the others")
	r.Now = r.Now.AddDate(0, 0, 7)
	r.Tell(fact.LessonOpened{Day: "2026-11-25"})
	take(0, 800)
	r.Tell(fact.LessonClosed{Day: "2026-11-25"})
	assert.NotContains(t, says(), "Think of", "it was even")
}

// The steps to a cross-rhythm hold as they were tapped last.
func TestStepsThatHold(t *testing.T) {
	r := studiotest.New(t)
	steps := touch.Steps(3, 2)
	tap := func(step touch.TapStep, set touch.Setting) {
		set.Beat = 1500
		v, err := notes.Played(ctx, r.App, r.Who, notes.PlayedAsk{Tap: step.Key, Instrument: "piano", From: "taps", Strokes: touch.Simulate(step.Dues(), set)})
		require.NoError(t, err)
		r.Tell(v.Keep[0])
	}
	v, err := notes.Taps(ctx, r.App, r.Who, 3, 2, r.Student)
	require.NoError(t, err)
	assert.Equal(t, steps[0].Key, v.Next)
	tap(steps[0], touch.Setting{})
	tap(steps[1], touch.Setting{Slips: 50, Seed: 1})
	v, err = notes.Taps(ctx, r.App, r.Who, 3, 2, r.Student)
	require.NoError(t, err)
	assert.True(t, v.Steps[0].Holds)
	assert.Equal(t, steps[1].Key, v.Next, "what slipped does not hold")
	for _, s := range steps {
		tap(s, touch.Setting{})
	}
	v, err = notes.Taps(ctx, r.App, r.Who, 3, 2, r.Student)
	require.NoError(t, err)
	assert.Empty(t, v.Next, "all hold")
	anybody, err := notes.Taps(ctx, r.App, r.Who, 3, 2, "")
	require.NoError(t, err)
	assert.Equal(t, steps[0].Key, anybody.Next)
}
