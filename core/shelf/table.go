package shelf

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/table"
)

// columns are the columns of the shelf's table. Lists are separated by semicolons.
var columns = []table.Column[Item]{
	table.Field("id", func(it Item) string { return it.ID }, func(it *Item, s string) error { it.ID = s; return nil }),
	table.Field("title", func(it Item) string { return it.Title }, func(it *Item, s string) error { it.Title = s; return nil }),
	table.Field("composer", func(it Item) string { return it.Composer }, func(it *Item, s string) error { it.Composer = s; return nil }),
	table.Field("instrument", func(it Item) string { return string(it.Instrument) }, func(it *Item, s string) error { it.Instrument = instrument.ID(s); return nil }),
	table.Field("strand", func(it Item) string { return string(it.Strand) }, func(it *Item, s string) error { it.Strand = Strand(s); return nil }),
	table.Field("book", func(it Item) string { return it.Book }, func(it *Item, s string) error { it.Book = s; return nil }),
	table.Field("unit", func(it Item) string { return it.Unit }, func(it *Item, s string) error { it.Unit = s; return nil }),
	table.Field("brings", func(it Item) string { return list(it.Brings) }, func(it *Item, s string) error { it.Brings = split(s); return nil }),
	table.Field("needs", func(it Item) string { return list(it.Needs) }, func(it *Item, s string) error { it.Needs = split(s); return nil }),
	table.Field("revisits", func(it Item) string { return list(it.Revisits) }, func(it *Item, s string) error { it.Revisits = split(s); return nil }),
	table.Field("parts", func(it Item) string { return list(it.Parts.Names()) }, func(it *Item, s string) error { it.Parts = renamed(it.Parts, split(s), partKey); return nil }),
	table.Field("exercise", func(it Item) string { return it.Exercise }, func(it *Item, s string) error { it.Exercise = s; return nil }),
	table.Field("cards", func(it Item) string { return it.Cards }, func(it *Item, s string) error { it.Cards = s; return nil }),
	table.Field("steps", func(it Item) string { return list(it.Steps) }, func(it *Item, s string) error { it.Steps = split(s); return nil }),
	table.Field("points", func(it Item) string { return list(it.Points.Names()) }, func(it *Item, s string) error { it.Points = renamed(it.Points, split(s), PointKey); return nil }),
	table.Field("cue", func(it Item) string { return it.Cue }, func(it *Item, s string) error { it.Cue = s; return nil }),
	table.Field("taste", func(it Item) string { return string(it.Taste) }, func(it *Item, s string) error { it.Taste = Taste(s); return nil }),
	table.Field("asks", func(it Item) string { return list(it.Asks) }, func(it *Item, s string) error { it.Asks = split(s); return nil }),
	table.Field("settled", func(it Item) string { return list(it.Settled) }, func(it *Item, s string) error { it.Settled = split(s); return nil }),
	table.Field("bars", func(it Item) string { return strconv.Itoa(it.Bars) }, func(it *Item, s string) error {
		n, err := strconv.Atoi(s)
		if err != nil || n < 0 || n > 10000 {
			return fmt.Errorf("%q is not a number of bars", s)
		}
		if !it.HasScore { // a score knows better
			it.Bars = n
		}
		return nil
	}),
}

func list(l []string) string { return strings.Join(l, "; ") }

func split(s string) []string {
	out := []string{}
	for part := range strings.SplitSeq(s, ";") {
		if part = strings.TrimSpace(part); part != "" {
			out = append(out, part)
		}
	}
	return out
}

// Table writes items as a table with a head line.
func Table(items []Item) []byte { return table.Of(columns, items) }

// A Change is what a table would do to one item.
type Change struct {
	Line   int      `json:"line"`
	Item   Item     `json:"item" doc:"as it would be"`
	New    bool     `json:"new"`
	Twin   string   `json:"twin,omitempty" doc:"of a new item: the id of one of the same title, book and instrument that stands there already"`
	Fields []string `json:"fields" doc:"columns that differ from what is on the shelf"`
}

// Merge reads a table against the shelf: the changes it asks for, the rows that
// change nothing counted, and the rows that cannot be taken, by line. Columns
// that are left out keep what stands; a row without an id is a new item, whose
// id newID makes. An error means that the table as a whole cannot be read.
func Merge(shelf []Item, all instrument.Set, data []byte, newID func() string) (changes []Change, same int, bad []table.Bad, err error) {
	t, err := table.Read(data)
	if err != nil {
		return nil, 0, nil, err
	}
	head, err := table.Columns(t, columns)
	if err != nil {
		return nil, 0, nil, err
	}
	bad = t.Bad
	known, seen := map[string]Item{}, map[string]int{}
	for _, it := range shelf {
		known[it.ID] = it
	}
	for _, r := range t.Rows {
		line, row := r.Line, r.Cells
		change, err := merged(known, all, head, row, newID)
		if err == nil && seen[change.Item.ID] > 0 {
			err = fmt.Errorf("the id %q stood in line %d already", change.Item.ID, seen[change.Item.ID])
		}
		switch {
		case err != nil:
			bad = append(bad, table.Bad{Line: line, Says: err.Error()})
			continue
		case !change.New && len(change.Fields) == 0:
			same++
		default:
			change.Line = line
			if twin, there := Twin(shelf, change.Item); there && change.New {
				change.Twin = twin.ID
			}
			changes = append(changes, change)
		}
		seen[change.Item.ID] = line
	}
	slices.SortFunc(bad, func(a, b table.Bad) int { return a.Line - b.Line })
	return changes, same, bad, nil
}

// merged applies one row.
func merged(known map[string]Item, all instrument.Set, head []table.Column[Item], row []string, newID func() string) (Change, error) {
	id := ""
	for i, c := range head {
		if c.Name == "id" {
			id = row[i]
		}
	}
	was, there := known[id]
	it := was
	if !there {
		it = Item{Brings: []string{}, Needs: []string{}, Revisits: []string{}, Parts: Parts{}, Points: Points{}}
	}
	for i, c := range head {
		if row[i] == "" && c.Name == "bars" {
			continue
		}
		if err := c.Read(&it, row[i]); err != nil {
			return Change{}, err
		}
	}
	if it.ID == "" {
		it.ID = newID()
	}
	if len(it.ID) > 60 {
		return Change{}, fmt.Errorf("the id is longer than 60 characters")
	}
	if p, there := all.Named(string(it.Instrument)); there {
		it.Instrument = p.ID // a table may say the name
	}
	if err := it.Check(all); err != nil {
		return Change{}, err
	}
	it.Succeed(was)
	change := Change{Item: it, New: !there, Fields: []string{}}
	for _, c := range columns {
		if there && c.Write(was) != c.Write(it) {
			change.Fields = append(change.Fields, c.Name)
		}
	}
	return change, nil
}
