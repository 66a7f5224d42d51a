package shelf

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/pitch"
	"patientladder/core/score"
	"patientladder/core/skill"
)

// piece is a piece of the first book; demands are what its score asks for.
func piece(id string, strand Strand, book string, brings string, demands string) Item {
	return Item{ID: id, Title: id, Instrument: "piano", Strand: strand, Book: book, Brings: strings.Fields(brings), HasScore: true, Demanded: append([]string{}, strings.Fields(demands)...)}
}

func told(list []Disagreement) (out []string) {
	for _, d := range list {
		what := d.Tagged
		if d.Asked {
			what = "asked"
		}
		out = append(out, d.Item+": "+what+" "+d.Skill)
	}
	return out
}

// Where tags and notes disagree: what the score asks and no tag names, what a tag names
// and the page does not show; each settled, granted or certain on its own.
func TestTagsAgainstNotes(t *testing.T) {
	g := skill.Catalogue()
	for _, c := range []struct {
		name  string
		items []Item
		want  []string
	}{
		{"agreed", []Item{piece("a", Book, "One", "dotted", "dotted")}, nil},
		{"the notes ask, no tag says so", []Item{piece("a", Book, "One", "", "dotted")}, []string{"a: asked dotted"}},
		{"a tag says so, the page does not show it", []Item{piece("a", Book, "One", "dotted", "")}, []string{"a: brings dotted"}},
		{"granted by an earlier piece", []Item{piece("a", Book, "One", "dotted", "dotted"), piece("b", Book, "One", "", "dotted")}, nil},
		{"not by a later one", []Item{piece("b", Book, "One", "", "dotted"), piece("a", Book, "One", "dotted", "dotted")}, []string{"b: asked dotted"}},
		{"nor by another instrument's", []Item{func() Item { it := piece("a", Book, "One", "dotted", "dotted"); it.Instrument = "cello"; return it }(), piece("b", Book, "One", "", "dotted")}, []string{"b: asked dotted"}},
		{"a keyboard of 61 keys plays from the piano's shelf", []Item{func() Item {
			it := piece("a", Book, "One", "dotted", "dotted")
			it.Instrument = "keyboard-61"
			return it
		}(), piece("b", Book, "One", "", "dotted")}, nil},
		{"nor by what comes before the book", []Item{func() Item { it := piece("a", Book, "One", "dotted", "dotted"); it.Unit = BeforeBook; return it }(), piece("b", Book, "One", "", "dotted")}, []string{"b: asked dotted"}},
		{"repertoire comes after the first book", []Item{piece("r", Repertoire, "Pool", "", "dotted"), piece("a", Book, "One", "dotted", "dotted")}, nil},
		{"and not after the second", []Item{piece("r", Repertoire, "Pool", "", "dotted"), piece("x", Book, "One", "", ""), piece("a", Book, "Two", "dotted", "dotted")}, []string{"r: asked dotted"}},
		{"repertoire grants nothing", []Item{piece("r", Repertoire, "Pool", "dotted", "dotted"), piece("a", Book, "One", "", "dotted")}, []string{"a: asked dotted"}},
		{"settled by the teacher", []Item{func() Item { it := piece("a", Book, "One", "", "dotted"); it.Settled = []string{"dotted"}; return it }()}, nil},
		{"a tag settled too", []Item{func() Item { it := piece("a", Book, "One", "dotted", ""); it.Settled = []string{"dotted"}; return it }()}, nil},
		{"without a score nothing is told", []Item{func() Item { it := piece("a", Book, "One", "dotted", ""); it.HasScore = false; return it }()}, nil},
		{"nor where it was never read", []Item{func() Item { it := piece("a", Book, "One", "dotted", ""); it.Demanded = nil; return it }()}, nil},
		{"in the order of the shelf", []Item{piece("r", Repertoire, "Pool", "", "dotted"), piece("a", Book, "One", "", "dotted")}, []string{"r: asked dotted", "a: asked dotted"}},
		{"needed and revisited tags count", []Item{func() Item {
			it := piece("a", Book, "One", "", "")
			it.Needs, it.Revisits = []string{"dotted"}, []string{"accidentals"}
			return it
		}()}, []string{"a: needs dotted", "a: revisits accidentals"}},
	} {
		assert.Equal(t, c.want, told(Disagreements(g, instrument.Shipped, c.items)), c.name)
	}
}

// A new piece brings what no other of its instrument brings, and needs what one does;
// what its other demands rest on goes without saying.
func TestTagsFromNotes(t *testing.T) {
	g := skill.Catalogue()
	it := Item{ID: "new", Instrument: "piano", Demanded: []string{"dotted", "accidentals", "no-such"}}
	it.Tag(g, instrument.Shipped, []Item{piece("a", Book, "One", "dotted", ""), func() Item { c := piece("c", Book, "One", "accidentals", ""); c.Instrument = "cello"; return c }(), {ID: "new", Instrument: "piano", Brings: []string{"accidentals"}}})
	assert.Equal(t, []string{"accidentals"}, it.Brings)
	assert.Equal(t, []string{"dotted"}, it.Needs)
	over := Item{ID: "x", Instrument: "piano", Demanded: []string{"steps", "skips"}}
	over.Tag(g, instrument.Shipped, nil)
	assert.Len(t, over.Brings, len(over.Demanded)-restsAmong(g, over.Demanded))
}

func restsAmong(g skill.Graph, ids []string) (n int) {
	for _, id := range ids {
		for _, over := range ids {
			if over != id && under(g, over, id) {
				n++
				break
			}
		}
	}
	return n
}

// The compass of keyboards, to the key: common practice, no source.
func TestKeysOfAKeyboard(t *testing.T) {
	for _, c := range []struct{ keys, low, high int }{
		{0, 21, 108}, {88, 21, 108}, {97, 21, 108}, {87, 28, 114}, {76, 28, 103}, {73, 28, 100}, {72, 36, 107}, {61, 36, 96}, {49, 36, 84}, {48, 48, 95}, {25, 48, 72},
	} {
		low, high := instrument.Compass(c.keys)
		assert.Equal(t, []int{c.low, c.high}, []int{low, high}, "%d keys", c.keys)
		at := func(l, h int) bool {
			return Home{Keys: c.keys}.Lacks(instrument.Shipped.Of("piano"), Item{Low: l, High: h}) == nil
		}
		assert.True(t, at(c.low, c.high), "%d keys to the edges", c.keys)
		assert.False(t, at(c.low-1, c.high))
		assert.False(t, at(c.low, c.high+1))
	}
	assert.NotNil(t, Home{}.Lacks(instrument.Shipped.Of("keyboard-49"), Item{Low: 30, High: 60}), "the instrument's own keys count where the home's are not told")
	assert.Nil(t, Home{Keys: 25}.Lacks(instrument.Shipped.Of("piano"), Item{}), "without a score there is nothing to reach")
	for keys, fits := range map[int]bool{0: true, 24: false, 25: true, 97: true, 98: false} {
		assert.Equal(t, fits, Home{Keys: keys}.Check() == nil, "%d keys", keys)
	}
}

// What a score tells: its compass over rests and parts, its first tempo, its staves.
func TestWhatIsRead(t *testing.T) {
	s, err := notation.Read("x.abc", []byte("X:1\nT:T\nM:4/4\nL:1/4\nQ:1/4=72\nK:C\nE z C G|[M:3/4]\"^Fast\"[Q:1/4=120]E z C|\n"))
	require.NoError(t, err)
	p := PrintedOf(s, instrument.Shipped.Of("piano"))
	assert.Equal(t, []any{2, 2, 1, 72.0, 60, 67}, []any{p.Bars, p.Different, p.Staves, p.Tempo, p.Low, p.High})
	assert.Equal(t, "4/4", p.Meter, "the one that it begins in")
	assert.NotNil(t, p.Demanded)
	two := score.Score{Parts: []score.Part{{Staves: 2, Bars: []score.Bar{{Notes: []score.Note{{Pitch: pitch.MustParse("C4")}, {Rest: true, Pitch: pitch.MustParse("C1")}}}}}, {Staves: 1, Bars: []score.Bar{{Notes: []score.Note{{Pitch: pitch.MustParse("C6")}}}}}}}
	p = PrintedOf(two, instrument.Shipped.Of("cello"))
	assert.Equal(t, []int{2, 60, 84}, []int{p.Staves, p.Low, p.High})
	empty := PrintedOf(score.Score{}, instrument.Shipped.Of("cello"))
	assert.Zero(t, empty.Low)
	assert.Empty(t, empty.Meter)
}

// What may be offered: what stands on the instrument's shelf and is not laid away.
func TestWhatIsOffered(t *testing.T) {
	items := []Item{{ID: "p", Instrument: "piano"}, {ID: "k", Instrument: "keyboard-61"}, {ID: "c", Instrument: "cello"}, {ID: "away", Instrument: "piano", Archived: true}, {ID: "own", Instrument: "drop"}}
	all := instrument.Shipped.With([]instrument.Profile{{ID: "drop", Name: "guitar in D", Family: instrument.Plucked, Kin: "guitar"}})
	for plays, want := range map[instrument.ID]string{"piano": "p k", "keyboard-49": "p k", "cello": "c", "guitar": "own", "drop": "own", "violin": ""} {
		var ids []string
		for _, it := range Offered(items, all, all.Of(plays)) {
			ids = append(ids, it.ID)
		}
		assert.Equal(t, want, strings.Join(ids, " "), plays)
	}
	assert.Equal(t, []string{"a", "b", "c"}, Item{Brings: []string{"a", "b"}, Needs: []string{"b", "c"}, Revisits: []string{"a"}}.Skills(), "each once")
}

// Both sides of each bound of an item, a table's bars and a title.
func TestTheEndsOfAnItem(t *testing.T) {
	it := Item{Title: strings.Repeat("x", 200), Instrument: "piano", Strand: Book}
	assert.NoError(t, it.Check(instrument.Shipped))
	it.Title += "x"
	assert.Error(t, it.Check(instrument.Shipped))
	it.Title, it.Exercise = "x", "scale C"
	assert.NoError(t, it.Check(instrument.Shipped))
	it.Exercise = "dance C"
	assert.ErrorContains(t, it.Check(instrument.Shipped), "not a kind of exercise")
	for bars, fits := range map[string]bool{"-1": false, "0": true, "10000": true, "10001": false} {
		_, _, bad, err := Merge(nil, instrument.Shipped, []byte("title,instrument,strand,bars\nT,piano,book,"+bars+"\n"), newIDs())
		require.NoError(t, err)
		assert.Equal(t, fits, len(bad) == 0, "%s bars", bars)
	}
	for n, fits := range map[int]bool{60: true, 61: false} {
		_, _, bad, err := Merge(nil, instrument.Shipped, []byte("id,title,instrument,strand\n"+strings.Repeat("i", n)+",T,piano,book\n"), newIDs())
		require.NoError(t, err)
		assert.Equal(t, fits, len(bad) == 0, "an id of %d", n)
	}
	for n, fits := range map[int]bool{200: true, 201: false} {
		_, err := Rename([]Item{{Book: "A"}}, "A", strings.Repeat("x", n))
		assert.Equal(t, fits, err == nil, "a title of %d", n)
	}
	was := Item{ID: "x", Points: PointsOf("Tone"), Past: []Past{{Revision: 0, Points: PointsOf("Old")}}, Revision: 1}
	points, _ := was.At(0)
	assert.Equal(t, []string{"Old"}, points.Names())
	points, _ = was.At(7)
	assert.Equal(t, []string{"Tone"}, points.Names(), "a revision that is not kept reads as today's")
	was.Points = append(was.Points, Named{ID: "old", Name: "Renamed"})
	points, _ = was.At(0)
	assert.Equal(t, []string{"Renamed"}, points.Names(), "by the name that it has now")
}
