package shelf

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
)

func ids(list []Named) (out []string) {
	for _, n := range list {
		out = append(out, n.ID)
	}
	return out
}

// What a table's cell does to the points of an item that has tone, tuning and spots.
func TestPointsByTheirNames(t *testing.T) {
	before := PointsOf("Tone", "Tuning", "Spots")
	for _, c := range []struct {
		name string
		to   []string
		want []string
	}{
		{"as it was", []string{"Tone", "Tuning", "Spots"}, []string{"tone", "tuning", "spots"}},
		{"in another order", []string{"Spots", "Tone", "Tuning"}, []string{"spots", "tone", "tuning"}},
		{"a spelling put right", []string{"Tone", "Intonation", "Spots"}, []string{"tone", "tuning", "spots"}},
		{"all named anew", []string{"Klang", "Stimmung", "Stellen"}, []string{"tone", "tuning", "spots"}},
		{"one more", []string{"Tone", "Tuning", "Spots", "Bow hold"}, []string{"tone", "tuning", "spots", "bow-hold"}},
		{"one taken off", []string{"Tone", "Spots"}, []string{"tone", "spots"}},
		{"one taken off, one put in its place", []string{"Tone", "Bow hold", "Spots"}, []string{"tone", "tuning", "spots"}},
		{"one put in between", []string{"Tone", "Bow hold", "Tuning", "Spots"}, []string{"tone", "bow-hold", "tuning", "spots"}},
		{"none", []string{}, nil},
	} {
		assert.Equal(t, c.want, ids(renamed(before, c.to, PointKey)), c.name)
	}
	assert.Equal(t, []string{"tone", "tone-2"}, ids(renamed(nil, []string{"Tone", "tone"}, PointKey)), "each once")
}

func TestPointsAsTheyWereFirstKept(t *testing.T) {
	var it Item
	require.NoError(t, json.Unmarshal([]byte(`{"id":"lamp","points":["Idle fingers quiet","Spots"],"parts":["F sharp"]}`), &it))
	assert.Equal(t, Points{{"idle-fingers-quiet", "Idle fingers quiet"}, {"spots", "Spots"}}, it.Points, "the ids that marks of then name")
	assert.Equal(t, Parts{{"F sharp", "F sharp"}}, it.Parts)
	raw, err := json.Marshal(it)
	require.NoError(t, err)
	var again Item
	require.NoError(t, json.Unmarshal(raw, &again))
	assert.Equal(t, it.Points, again.Points)
	raw, err = json.Marshal(Item{})
	require.NoError(t, err)
	assert.Contains(t, string(raw), `"parts":[],"points":[]`)
}

func TestRevisionsOfAnItem(t *testing.T) {
	was := Item{ID: "lamp", Points: PointsOf("Tone", "Tuning"), Parts: PartsOf("one")}
	it := was
	it.Title, it.Points = "Lamp", Points{{"tone", "Klang"}, {"tuning", "Tuning"}}
	it.Succeed(was)
	assert.Zero(t, it.Revision, "a name alone makes no revision")
	assert.Empty(t, it.Past)

	more := it
	more.Points = append(Points{{"", "Tone"}}, it.Points...)
	more.Parts = Parts{{"one", "one"}, {"", "two"}}
	more.Succeed(it)
	assert.Equal(t, 1, more.Revision)
	assert.Equal(t, []string{"tone-2", "tone", "tuning"}, ids(more.Points), "a new one never gets the id of another")
	points, parts := more.At(0)
	assert.Equal(t, []string{"Klang", "Tuning"}, points.Names(), "what a rung of before was placed with, by today's names")
	assert.Equal(t, []string{"one"}, ids(parts))
	points, _ = more.At(1)
	assert.Len(t, points, 3)

	less := more
	less.Points = Points{{"tuning", "Tuning"}}
	less.Succeed(more)
	assert.Equal(t, 2, less.Revision)
	again := less
	again.Points = Points{{"tuning", "Tuning"}, {"", "Tone"}}
	again.Succeed(less)
	assert.Equal(t, []string{"tuning", "tone-3"}, ids(again.Points), "nor that of one that was there before")
	turned := again
	turned.Points = Points{again.Points[1], again.Points[0]}
	turned.Succeed(again)
	assert.Equal(t, again.Revision, turned.Revision, "another order is no revision")
	assert.ErrorContains(t, Item{Title: "x", Instrument: "cello", Strand: Book, Points: Points{{"a", "Tone"}, {"b", "tone "}}}.Check(instrument.Shipped), "stands twice")
	assert.ErrorContains(t, Item{Title: "x", Instrument: "cello", Strand: Book, Parts: Parts{{"a", "one"}, {"a", "two"}}}.Check(instrument.Shipped), "stands twice")
}
