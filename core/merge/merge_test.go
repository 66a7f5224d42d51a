package merge

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A concert stands for every thing that is kept: plain fields, names in a list, entries that
// have an id.
type concert struct {
	Name    string   `json:"name"`
	Place   string   `json:"place,omitempty"`
	Free    []string `json:"free,omitempty"`
	Entries []entry  `json:"entries"`
}

type entry struct {
	Rung    string `json:"rung"`
	Seconds int    `json:"seconds,omitempty"`
}

func TestTwoChangesOfOneThing(t *testing.T) {
	was := concert{"Winter", "Loft", []string{"Mon", "Tue"}, []entry{{"a", 60}, {"b", 90}}}
	to := func(change func(*concert)) concert {
		c := was
		c.Free, c.Entries = slices.Clone(c.Free), slices.Clone(c.Entries)
		change(&c)
		return c
	}
	for _, c := range []struct {
		says               string
		mine, theirs, want concert
		clashes            []string
	}{
		{"nobody changed it", was, was, was, nil},
		{"only I did", to(func(c *concert) { c.Name = "Spring" }), was, to(func(c *concert) { c.Name = "Spring" }), nil},
		{"only they did", was, to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Name = "Spring" }), nil},
		{"both the same", to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Name = "Spring" }), nil},
		{"two fields", to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Place = "Hall" }), to(func(c *concert) { c.Name, c.Place = "Spring", "Hall" }), nil},
		{"one field", to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Name = "May" }), to(func(c *concert) { c.Name = "Spring" }), []string{"name"}},
		{"one field emptied", to(func(c *concert) { c.Place = "" }), to(func(c *concert) { c.Place = "Hall" }), to(func(c *concert) { c.Place = "" }), []string{"place"}},
		{"two free days", to(func(c *concert) { c.Free = append(c.Free, "Wed") }), to(func(c *concert) { c.Free = append(c.Free, "Thu") }), to(func(c *concert) { c.Free = []string{"Mon", "Tue", "Wed", "Thu"} }), nil},
		{"one comes, one goes", to(func(c *concert) { c.Free = []string{"Mon", "Tue", "Wed"} }), to(func(c *concert) { c.Free = []string{"Tue"} }), to(func(c *concert) { c.Free = []string{"Tue", "Wed"} }), nil},
		{"all go, one comes", to(func(c *concert) { c.Free = nil }), to(func(c *concert) { c.Free = append(c.Free, "Thu") }), to(func(c *concert) { c.Free = []string{"Thu"} }), nil},
		{"a piece more, another shorter", to(func(c *concert) { c.Entries = append(c.Entries, entry{"c", 0}) }), to(func(c *concert) { c.Entries[0].Seconds = 50 }), to(func(c *concert) { c.Entries = []entry{{"a", 50}, {"b", 90}, {"c", 0}} }), nil},
		{"one piece's length by both", to(func(c *concert) { c.Entries[0].Seconds = 40 }), to(func(c *concert) { c.Entries[0].Seconds = 50 }), to(func(c *concert) { c.Entries[0].Seconds = 40 }), []string{"entries"}},
		{"I take out what they changed", to(func(c *concert) { c.Entries = c.Entries[1:] }), to(func(c *concert) { c.Entries[0].Seconds = 50 }), to(func(c *concert) { c.Entries = c.Entries[1:] }), []string{"entries"}},
		{"they take out what I changed", to(func(c *concert) { c.Entries[0].Seconds = 50 }), to(func(c *concert) { c.Entries = c.Entries[1:] }), to(func(c *concert) { c.Entries[0].Seconds = 50 }), []string{"entries"}},
		{"another order, and one more", to(func(c *concert) { c.Entries = []entry{{"b", 90}, {"a", 60}} }), to(func(c *concert) { c.Entries = append(c.Entries, entry{"c", 0}) }), to(func(c *concert) { c.Entries = []entry{{"b", 90}, {"a", 60}, {"c", 0}} }), nil},
		{"the same new order by both, one piece less by each", to(func(c *concert) { c.Free = []string{"Tue"}; c.Entries = []entry{{"b", 90}, {"a", 60}} }), to(func(c *concert) { c.Entries = []entry{{"b", 90}, {"a", 60}, {"c", 0}} }), to(func(c *concert) { c.Free = []string{"Tue"}; c.Entries = []entry{{"b", 90}, {"a", 60}, {"c", 0}} }), nil},
		{"two new orders", to(func(c *concert) { c.Free = []string{"Tue", "Mon"} }), to(func(c *concert) { c.Free = []string{"Tue", "Mon", "Wed"} }), to(func(c *concert) { c.Free = []string{"Tue", "Mon", "Wed"} }), nil},
		{"first of all, while another goes", to(func(c *concert) { c.Entries = []entry{{"c", 0}, {"a", 60}, {"b", 90}} }), to(func(c *concert) { c.Entries = c.Entries[:1] }), to(func(c *concert) { c.Entries = []entry{{"c", 0}, {"a", 60}} }), nil},
		{"no list is an empty list", to(func(c *concert) { c.Entries = nil }), to(func(c *concert) { c.Entries = []entry{} }), to(func(c *concert) { c.Entries = nil }), nil},
		{"an empty list stays one", to(func(c *concert) { c.Entries = []entry{} }), to(func(c *concert) { c.Name = "Spring" }), to(func(c *concert) { c.Name, c.Entries = "Spring", []entry{} }), nil},
		{"the same day twice", to(func(c *concert) { c.Free = []string{"Mon", "Mon"} }), to(func(c *concert) { c.Free = []string{"Wed"} }), to(func(c *concert) { c.Free = []string{"Mon", "Mon"} }), []string{"free"}},
	} {
		got, clashes, err := Things(was, c.mine, c.theirs)
		require.NoError(t, err, c.says)
		assert.Equal(t, c.want, got, c.says)
		var fields []string
		for _, one := range clashes {
			fields = append(fields, one.Field)
		}
		assert.Equal(t, c.clashes, fields, c.says)
	}
}

// Whatever two change in a list, nothing that either added is lost, nothing that either took out
// stays, and it does not matter who was first.
func TestListsLoseNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	all := []string{"a", "b", "c", "d", "e", "f", "g", "h"}
	some := func(from []string) (out []string) {
		for _, s := range from {
			if r.IntN(2) == 0 {
				out = append(out, s)
			}
		}
		return out
	}
	for range 5000 {
		was, more := some(all[:5]), slices.Clone(all[5:])
		r.Shuffle(len(more), func(i, j int) { more[i], more[j] = more[j], more[i] })
		mine, theirs := append(some(was), some(more)...), append(some(was), some(more)...)
		one, clashes, err := Things(concert{Free: was}, concert{Free: mine}, concert{Free: theirs})
		require.NoError(t, err)
		other, _, err := Things(concert{Free: was}, concert{Free: theirs}, concert{Free: mine})
		require.NoError(t, err)
		if len(clashes) > 0 { // only of what both added in two orders
			continue
		}
		for _, day := range all {
			had, by1, by2 := slices.Contains(was, day), slices.Contains(mine, day), slices.Contains(theirs, day)
			want := had && by1 && by2 || !had && (by1 || by2)
			assert.Equal(t, want, slices.Contains(one.Free, day), "%s of %v: %v and %v", day, was, mine, theirs)
			assert.Equal(t, want, slices.Contains(other.Free, day))
		}
	}
}

func TestWhatIsNoThing(t *testing.T) {
	_, _, err := Things("a", "b", "c")
	assert.Error(t, err)
}
