package shelf

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func books(titles ...string) (out []Item) {
	for i, t := range titles {
		out = append(out, Item{ID: string(rune('a' + i)), Book: t, Unit: "1"})
	}
	return out
}

func TestBooksThatAreRenamed(t *testing.T) {
	for _, c := range []struct {
		name          string
		before, after []Item
		was, want     Titles
	}{
		{"nothing", books("Shore", "Shore"), books("Shore", "Shore"), nil, Titles{}},
		{"renamed", books("Shore", "Shore", "Harbour"), books("Strand", "Strand", "Harbour"), nil, Titles{"Shore": "Strand"}},
		{"one item moved", books("Shore", "Shore"), books("Strand", "Shore"), nil, Titles{}},
		{"parted in two", books("Shore", "Shore"), books("One", "Two"), nil, Titles{}},
		{"put into another book", books("Shore", "Harbour"), books("Harbour", "Harbour"), nil, Titles{}},
		{"taken out of any book", books("Shore"), books(""), nil, Titles{}},
		{"renamed again", books("Strand"), books("Beach"), Titles{"Shore": "Strand"}, Titles{"Shore": "Beach", "Strand": "Beach"}},
		{"and back to the first", books("Strand"), books("Shore"), Titles{"Shore": "Strand"}, Titles{"Strand": "Shore"}},
	} {
		got := c.was.With(c.before, c.after)
		assert.Equal(t, c.want, got, c.name)
	}
	assert.Equal(t, "Beach", Titles{"Shore": "Beach"}.Now("Shore"))
	assert.Equal(t, "Harbour", Titles{"Shore": "Beach"}.Now("Harbour"))
}

func TestRenaming(t *testing.T) {
	items := books("Shore", "Harbour", "Shore")
	items[2].Unit = "2"
	out, err := Rename(items, "Shore", " Strand ")
	require.NoError(t, err)
	assert.Equal(t, []string{"a Strand", "c Strand"}, []string{out[0].ID + " " + out[0].Book, out[1].ID + " " + out[1].Book})
	_, err = Rename(items, "Shore", "Harbour")
	assert.ErrorContains(t, err, "there is a book")
	_, err = Rename(items, "Sea", "Ocean")
	assert.ErrorContains(t, err, "there is no book")
	_, err = Rename(items, "Shore", " ")
	assert.ErrorContains(t, err, "from 1 to 200")

	out, err = RenameUnit(items, "Shore", "1", "First steps")
	require.NoError(t, err)
	assert.Len(t, out, 1)
	assert.Equal(t, "First steps", out[0].Unit)
	_, err = RenameUnit(items, "Shore", "1", "2")
	assert.ErrorContains(t, err, "already")
	_, err = RenameUnit(items, "Shore", "3", "x")
	assert.ErrorContains(t, err, "there is no unit")
	_, err = RenameUnit(items, "Shore", BeforeBook, "x")
	assert.Error(t, err)
	_, err = RenameUnit(items, "Shore", "1", "")
	assert.Error(t, err)
}
