package shelf

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/instrument"
	"patientladder/core/score"
)

func TestItemsThatCannotStandOnAShelf(t *testing.T) {
	good := Item{Title: "Rope Walk", Instrument: "piano", Strand: Book, Points: PointsOf("Tone", "Loud and soft")}
	assert.NoError(t, good.Check(instrument.Shipped))
	for _, c := range []struct {
		says   string
		change func(*Item)
	}{
		{"title", func(it *Item) { it.Title = "  " }},
		{"instrument", func(it *Item) { it.Instrument = "kazoo" }},
		{"area", func(it *Item) { it.Strand = "fun" }},
		{"twice", func(it *Item) { it.Points = PointsOf("Tone", "tone ") }},
	} {
		it := good
		c.change(&it)
		assert.ErrorContains(t, it.Check(instrument.Shipped), c.says)
	}
	assert.Equal(t, "loud-and-soft", PointKey(" Loud  and soft"))
}

func TestUsualPoints(t *testing.T) {
	plain := score.Score{Parts: []score.Part{{Staves: 2, Bars: []score.Bar{{}, {}}}}}
	loud := score.Score{Parts: []score.Part{{Bars: []score.Bar{{Marks: []score.Mark{{Kind: "dynamic", Text: "f"}}}}}}}
	assert.Equal(t, []string{"Rhythm", "Tone", "Fingering", "Spots"}, UsualPoints(instrument.Shipped.Of("piano"), plain).Names())
	assert.Equal(t, []string{"Rhythm", "Tone", "Tuning", "Loud and soft", "Spots"}, UsualPoints(instrument.Shipped.Of("cello"), loud).Names())
	it := Item{}
	it.Take(PrintedOf(plain, instrument.Shipped.Of("piano")))
	assert.Equal(t, 2, it.Staves)
	assert.Equal(t, 2, it.Bars)
	assert.True(t, it.HasScore)
}
