package places_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/studio"
	"patientladder/studio/places"
	"patientladder/studio/studiotest"
)

// A record of ten years opens with its last entries; the others come when they are asked for,
// and every foothold is there at once.
func TestALongRecordComesInParts(t *testing.T) {
	r := studiotest.New(t)
	rung := r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top})
	r.Tell(fact.Taught{Rung: rung})
	r.Now = r.Now.Add(8 * 24 * time.Hour)
	r.Tell(fact.FootholdTried{Rung: rung, Outcome: "granted"})
	var facts []fact.Fact
	for i := range 450 {
		facts = append(facts, fact.Fact{ID: studio.NewID(), Student: r.Student, At: r.Now.Add(time.Duration(i) * time.Second), Body: fact.Noted{Text: "note"}})
	}
	require.NoError(t, r.App.Tell(ctx, r.Who, facts))
	r.Now = r.Now.Add(time.Hour)
	v, err := places.Record(ctx, r.App, r.Who, r.Student, 0)
	require.NoError(t, err)
	assert.Len(t, v.Entries, 400)
	assert.Equal(t, 53, v.More)
	require.Len(t, v.Done, 1)
	assert.Equal(t, "Lamp Room", v.Done[0].Title)
	v, err = places.Record(ctx, r.App, r.Who, r.Student, 2400)
	require.NoError(t, err)
	assert.Len(t, v.Entries, 453)
	assert.Zero(t, v.More)
}
