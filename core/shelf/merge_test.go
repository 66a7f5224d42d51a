package shelf

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
)

func TestOneOfTwo(t *testing.T) {
	items := []Item{
		{ID: "a", Title: "Oars", Book: "Old", Instrument: "piano", Strand: Book, Points: PointsOf("Tone"), Revision: 2, HasScore: true, Bars: 8, Staves: 2},
		{ID: "b", Title: "Two Oars", Book: "Shore", Instrument: "piano", Strand: Book, Brings: []string{"steps"}, Points: PointsOf("Line"), HasScore: true, Bars: 16},
		{ID: "cello", Title: "Oars", Instrument: "cello", Strand: Book}, {ID: "scale", Title: "Scale", Instrument: "keyboard-61", Strand: Technique},
		{ID: "gone", Title: "Gone", Instrument: "piano", Strand: Book, SameAs: "cello"},
	}
	for _, c := range []struct{ id, as, says string }{
		{"a", "a", "itself already"}, {"a", "nowhere", "not on the shelf"}, {"nowhere", "a", "not on the shelf"},
		{"a", "gone", "choose that one"}, {"cello", "a", "part them first"}, {"a", "cello", "different instruments"}, {"a", "scale", "different areas"},
	} {
		_, err := Same(instrument.Shipped, items, c.id, c.as)
		assert.ErrorContains(t, err, c.says, "%s as %s", c.id, c.as)
	}
	one, err := Same(instrument.Shipped, items, "a", "b")
	require.NoError(t, err)
	items[0] = one
	Resolve(items)
	got := items[0]
	assert.Equal(t, []any{"a", "b", "b", "Two Oars", "Shore", 2, true}, []any{got.ID, got.SameAs, got.Is(), got.Title, got.Book, got.Revision, got.Archived})
	assert.Equal(t, PointsOf("Tone"), got.Points, "marks hold on to the points that were there")
	assert.Equal(t, []string{"steps"}, got.Brings)
	assert.Equal(t, []any{true, 8, 2}, []any{got.HasScore, got.Bars, got.Staves}, "each keeps its own file")
	assert.Equal(t, "b", items[1].Is())
	assert.False(t, items[1].Archived)
	bare := []Item{{ID: "x", SameAs: "b", Title: "X"}, items[1], {ID: "lost", SameAs: "nowhere", Title: "Lost"}}
	Resolve(bare)
	assert.False(t, bare[0].HasScore, "a score that it has not is not told")
	assert.Equal(t, "Lost", bare[2].Title)
}

func TestTwins(t *testing.T) {
	items := []Item{{ID: "a", Title: "Oars", Book: "Shore", Instrument: "piano"}, {ID: "m", Title: "Kelp", Book: "Shore", Instrument: "piano", SameAs: "a"}}
	for _, c := range []struct {
		it   Item
		want bool
	}{
		{Item{ID: "new", Title: " oars", Book: "SHORE ", Instrument: "piano"}, true}, {Item{ID: "a", Title: "Oars", Book: "Shore", Instrument: "piano"}, false},
		{Item{ID: "new", Title: "Oars", Book: "Other", Instrument: "piano"}, false}, {Item{ID: "new", Title: "Oars", Book: "Shore", Instrument: "cello"}, false},
		{Item{ID: "new", Title: "Oar", Book: "Shore", Instrument: "piano"}, false}, {Item{ID: "new", Title: "Kelp", Book: "Shore", Instrument: "piano"}, false},
	} {
		_, there := Twin(items, c.it)
		assert.Equal(t, c.want, there, "%+v", c.it)
	}
	changes, _, _, err := Merge(items, instrument.Shipped, []byte("title,book,instrument,strand\nOars,Shore,piano,book\nNew,Shore,piano,book\n"), newIDs())
	require.NoError(t, err)
	assert.Equal(t, []string{"a", ""}, []string{changes[0].Twin, changes[1].Twin})
}

// All that a score tells reaches the item, and leaves it where it is kept.
func TestWhatAScoreTells(t *testing.T) {
	var told Printed
	v := reflect.ValueOf(&told).Elem()
	for i := range v.NumField() {
		switch f := v.Field(i); f.Kind() {
		case reflect.Int:
			f.SetInt(int64(i + 1))
		case reflect.Float64:
			f.SetFloat(1.5)
		case reflect.String:
			f.SetString("C major")
		default:
			f.Set(reflect.ValueOf([]string{"steps"}))
		}
	}
	it := Item{ID: "a", Title: "Oars"}
	it.Take(told)
	assert.True(t, it.HasScore)
	assert.Equal(t, told, it.Printed())
	for i := range v.NumField() {
		name := v.Type().Field(i).Name
		assert.Equal(t, v.Field(i).Interface(), reflect.ValueOf(it).FieldByName(name).Interface(), name)
		assert.True(t, reflect.ValueOf(it.Listing()).FieldByName(name).IsZero(), "%s is not kept in the item", name)
	}
	assert.Equal(t, Item{ID: "a", Title: "Oars"}, it.Listing())
	by := Item{Title: "Told", Bars: 12}
	assert.Equal(t, 12, by.Listing().Bars, "bars that a person told stay")
	_, err := Read("x.abc", []byte("nothing"), instrument.Shipped.Of("piano"))
	assert.Error(t, err)
}
