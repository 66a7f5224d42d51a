package shelf

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
)

func newIDs() func() string {
	n := 0
	return func() string { n++; return fmt.Sprintf("new%d", n) }
}

var onTheShelf = []Item{
	{ID: "walk", Title: "Rope Walk", Instrument: "piano", Strand: Book, Book: "Shore", Unit: "1", Brings: []string{"steps"}, Needs: []string{}, Revisits: []string{}, Parts: PartsOf(), Points: PointsOf("Tone", "Spots"), Bars: 4, HasScore: true},
	{ID: "odd", Title: "=1+1, \"quoted\"", Instrument: "cello", Strand: Repertoire, Book: "Pool", Cue: "two\nlines", Brings: []string{}, Needs: []string{"steps", "skips"}, Revisits: []string{}, Parts: PartsOf("A", "B"), Points: PointsOf(), Taste: Lively, Steps: []string{}, Asks: []string{}, Settled: []string{"ties"}, Bars: 16},
}

func TestTheTableGoesOutAndComesBack(t *testing.T) {
	table := Table(onTheShelf)
	assert.Contains(t, string(table), `'=1+1`, "no spreadsheet takes a title for a formula")
	changes, same, bad, err := Merge(onTheShelf, instrument.Shipped, table, newIDs())
	require.NoError(t, err)
	assert.Empty(t, changes)
	assert.Empty(t, bad)
	assert.Equal(t, 2, same)
	again, _, _, err := Merge(nil, instrument.Shipped, table, newIDs())
	require.NoError(t, err)
	require.Len(t, again, 2)
	back := again[1].Item
	back.HasScore = false
	assert.Equal(t, onTheShelf[1], back)
	withMark := append([]byte("\xef\xbb\xbf"), table...)
	_, same, _, err = Merge(onTheShelf, instrument.Shipped, withMark, newIDs())
	require.NoError(t, err)
	assert.Equal(t, 2, same, "with a byte order mark, as spreadsheets write it")
}

func TestWhatATableWouldChange(t *testing.T) {
	table := strings.Join([]string{
		"id,title,instrument,strand,bars,taste",
		"walk,Rope Walking,piano,book,99,",
		",New Tune,guitar,book,12,lyrical",
		"bad1,No Instrument,kazoo,book,1,",
		"bad2,Too,few",
		"walk,Twice,piano,book,4,",
		"bad3,Bars,piano,book,many,",
		`bad4,"Open quote,piano,book,1,`,
	}, "\n")
	changes, same, bad, err := Merge(onTheShelf, instrument.Shipped, []byte(table), newIDs())
	require.NoError(t, err)
	require.Len(t, changes, 2)
	assert.Equal(t, Change{Line: 2, Fields: []string{"title"}, Item: changes[0].Item}, changes[0])
	assert.Equal(t, 4, changes[0].Item.Bars, "the score knows its bars better")
	assert.Equal(t, []string{"steps"}, changes[0].Item.Brings, "columns that are left out keep what stands")
	assert.True(t, changes[1].New)
	assert.Equal(t, "new1", changes[1].Item.ID)
	assert.Zero(t, same)
	var says []string
	for _, b := range bad {
		says = append(says, fmt.Sprintf("%d: %s", b.Line, b.Says))
	}
	assert.Equal(t, []string{
		`4: "kazoo" is not an instrument here: ` + instrument.Shipped.Names() + ", or add it to the studio",
		"5: 3 cells where the head line has 6",
		`6: the id "walk" stood in line 2 already`,
		`7: "many" is not a number of bars`,
		`8: extraneous or missing " in quoted-field`,
	}, says)
}

func TestATableThatCannotBeRead(t *testing.T) {
	for says, table := range map[string]string{
		"no head line":                    "",
		`there is no column "colour"`:     "id,title,colour\n",
		`the column "title" stands twice`: "title,Title\n",
	} {
		_, _, _, err := Merge(nil, instrument.Shipped, []byte(table), newIDs())
		assert.ErrorContains(t, err, says)
	}
}
