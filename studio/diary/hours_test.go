package diary_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/gather"
	"patientladder/studio"
	"patientladder/studio/diary"
	"patientladder/studio/roster"
	"patientladder/studio/studiotest"
)

// An hour that several share: planned, handed on, kept, and without one who is deleted.
func TestASharedHour(t *testing.T) {
	r := studiotest.New(t)
	lamp := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: lamp})
	r.Tell(fact.FootholdTried{Rung: lamp, Outcome: "granted"})
	emil := r.Student
	bea := studiotest.Newcomer(func(n *roster.NewStudent) {
		n.FirstName, n.Instrument, n.Books = "Bea", "cello", nil
	})
	_, err := roster.AddStudent(ctx, r.App, r.Who, bea)
	require.NoError(t, err)
	r.Student = bea.ID
	hers := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: hers})
	h := gather.Hour{ID: studio.NewID(), Name: "Two cellos", Day: "2026-11-18", Minutes: 45, Students: []string{emil, bea.ID}}
	require.NoError(t, diary.KeepHour(ctx, r.App, r.Who, h.ID, studio.Set(h)))
	v, err := diary.Hour(ctx, r.App, r.Who, h.ID)
	require.NoError(t, err)
	assert.Empty(t, v.Tunes, "Bea has it in hand, not secure")
	assert.Nil(t, v.Schedule)
	duets, err := diary.Duets(ctx, r.App, r.Who, bea.ID)
	require.NoError(t, err)
	require.Len(t, duets, 1)
	assert.Equal(t, "lead", duets[0].With[0].How, "Emil leads")

	r.Tell(fact.FootholdTried{Rung: hers, Outcome: "granted"})
	v, err = diary.Hour(ctx, r.App, r.Who, h.ID)
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
	require.NoError(t, diary.KeepHour(ctx, r.App, r.Who, h.ID, studio.Set(h)))
	v, err = diary.Hour(ctx, r.App, r.Who, h.ID)
	require.NoError(t, err)
	if v.Schedule == nil {
		assert.Contains(t, v.Trouble, "cannot be handed on every 64 beats")
	}

	views, err := diary.Hours(ctx, r.App, r.Who)
	require.NoError(t, err)
	require.Len(t, views.Hours, 1)
	assert.NotEmpty(t, views.Groups)

	whole, err := roster.ExportStudio(ctx, r.App, r.Who)
	require.NoError(t, err)
	assert.Len(t, whole.Hours, 1)

	_, err = roster.EraseStudent(ctx, r.App, r.Who, bea.ID, "Bea")
	require.NoError(t, err)
	v, err = diary.Hour(ctx, r.App, r.Who, h.ID)
	require.NoError(t, err)
	assert.Len(t, v.Players, 1, "of one that was deleted nothing is told")
	assert.ErrorContains(t, diary.KeepHour(ctx, r.App, r.Who, h.ID, studio.Set(h)), "not in the studio any more")
	h.Students = []string{emil}
	assert.ErrorContains(t, diary.KeepHour(ctx, r.App, r.Who, h.ID, studio.Set(h)), "at least two")
	require.NoError(t, diary.DropHour(ctx, r.App, r.Who, h.ID, nil))
	_, err = diary.Hour(ctx, r.App, r.Who, h.ID)
	assert.ErrorContains(t, err, "no such hour")
}
