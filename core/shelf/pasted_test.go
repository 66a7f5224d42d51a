package shelf

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTitlesAsTheyArePasted(t *testing.T) {
	items := FromTitles("First unit:\n1. Rope Walk\n2) Slack Water\n\n - Gull and Post\nSecond unit :\n10 Little Boats\n7 Bells\n* 3/4 Rhyme\n  Plain  \n", "Harbour", "cello", Book, newIDs())
	var got [][2]string
	for _, it := range items {
		got = append(got, [2]string{it.Unit, it.Title})
		assert.Equal(t, "Harbour", it.Book)
		assert.EqualValues(t, "cello", it.Instrument)
	}
	assert.Equal(t, [][2]string{{"First unit", "Rope Walk"}, {"First unit", "Slack Water"}, {"First unit", "Gull and Post"},
		{"Second unit", "10 Little Boats"}, {"Second unit", "7 Bells"}, {"Second unit", "3/4 Rhyme"}, {"Second unit", "Plain"}}, got, "a number without a mark is part of the title")
	assert.Empty(t, FromTitles(" \n\n", "Harbour", "cello", Book, newIDs()))
}
