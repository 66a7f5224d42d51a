package library

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/score"
	"patientladder/core/shelf"
	"patientladder/core/table"
	"patientladder/studio"
)

// A FaultsView is what is wrong with an item.
type FaultsView struct {
	Faults []shelf.Fault `json:"faults"`
}

// CheckItem says what is wrong with an item as it is being edited: faults with
// the skill graph, none when it is in order. It keeps nothing.
func CheckItem(ctx context.Context, a *studio.App, who studio.Who, it shelf.Item) (FaultsView, error) {
	r, items, err := Shelved(ctx, a, who)
	if err != nil {
		return FaultsView{}, err
	}
	brought := map[string]bool{}
	for _, other := range items {
		if r.Instruments.Together(other.Instrument, it.Instrument) && other.ID != it.ID {
			for _, id := range other.Brings {
				brought[id] = true
			}
		}
	}
	return FaultsView{append([]shelf.Fault{}, shelf.FaultsOf(r.Graph, r.Instruments.Of(it.Instrument), it, brought)...)}, nil
}

// SaveItem keeps an item edited by hand, or puts a new one on the shelf. What
// its score tells is not changed.
func SaveItem(ctx context.Context, a *studio.App, who studio.Who, id string, c studio.Change[shelf.Item]) error {
	c.Now.ID = id
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) error {
		was := studio.Find(items, func(it shelf.Item) bool { return it.ID == id })
		it, err := c.Onto(was)
		if err != nil {
			return err
		}
		it.SameAs = "" // that is told by SameItem alone
		if err := it.Check(r.Instruments); err != nil {
			return studio.Refuse("%q cannot be kept: %v.", it.Title, err)
		}
		if unknown := unknownSkill(r, it); unknown != "" {
			return studio.Refuse("%q cannot be kept: %q is not a skill of the graph.", it.Title, unknown)
		}
		if was == nil {
			was = &shelf.Item{}
		} else {
			it.HasScore = was.HasScore
		}
		if was.SameAs != "" {
			return studio.Refuse("%q is the same as another item; edit that one.", was.Title)
		}
		it.Succeed(*was)
		if err := keep(ctx, r, items, []shelf.Item{it}); err != nil {
			return err
		}
		return remake(ctx, r, items, []shelf.Item{it})
	})
}

// Shelved is a studio and all that is on its shelf.
func Shelved(ctx context.Context, a *studio.App, who studio.Who) (studio.Room, []shelf.Item, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return r, nil, err
	}
	items, err := r.Items(ctx)
	return r, items, studio.Failed(err, "shelf")
}

// keep saves changed and new items of a shelf; a book all of whose items have another
// title now goes on being the one that students chose.
func keep(ctx context.Context, r studio.Room, shelved, changed []shelf.Item) error {
	changed = Shown(changed) // the others have the words of what they are the same as
	after := slices.Clone(shelved)
	for _, it := range changed {
		if i := slices.IndexFunc(after, func(was shelf.Item) bool { return was.ID == it.ID }); i >= 0 {
			after[i] = it
		} else {
			after = append(after, it)
		}
	}
	return studio.Failed(r.SetItems(ctx, changed, r.Row.Titles.With(shelved, after)), "studio")
}

// RenameBook gives a book of the shelf another title, or one of its units when a unit
// is named. What students chose and learnt of it stays theirs.
func RenameBook(ctx context.Context, a *studio.App, who studio.Who, book, unit, title string) error {
	return editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) (err error) {
		var changed []shelf.Item
		if unit == "" {
			changed, err = shelf.Rename(items, book, title)
		} else {
			changed, err = shelf.RenameUnit(items, book, unit, title)
		}
		if err != nil {
			return studio.Refuse("It cannot be named so: %v.", err)
		}
		return keep(ctx, r, items, changed)
	})
}

// A TableView is what a table would do, or did, to the shelf.
type TableView struct {
	Changes []shelf.Change `json:"changes"`
	Same    int            `json:"same" doc:"rows that change nothing"`
	Bad     []table.Bad    `json:"bad" doc:"rows that cannot be taken, by line"`
	Twins   int            `json:"twins" doc:"new items of the same title, book and instrument as one that is there: not kept unless asked for"`
	Saved   bool           `json:"saved"`
}

// Table reads a table of items against the shelf and, when it is to be saved,
// keeps the rows that can be taken; those of new items that seem to stand there already
// only when that is asked for.
func Table(ctx context.Context, a *studio.App, who studio.Who, data []byte, save, twins bool) (TableView, error) {
	var v TableView
	err := editShelf(ctx, a, who, func(r studio.Room, items []shelf.Item) (err error) {
		v, err = merged(ctx, r, items, data, save, twins)
		return err
	})
	return v, err
}

// merged reads a table against a shelf, and keeps what it would change where it shall.
func merged(ctx context.Context, r studio.Room, items []shelf.Item, data []byte, save, twins bool) (TableView, error) {
	changes, same, bad, err := shelf.Merge(Shown(items), r.Instruments, data, studio.NewID)
	if err != nil {
		return TableView{}, studio.Refuse("The table cannot be read: %v.", err)
	}
	v := TableView{Changes: []shelf.Change{}, Same: same, Bad: append([]table.Bad{}, bad...)}
	var taken []shelf.Item
	for _, c := range changes {
		if unknown := unknownSkill(r, c.Item); unknown != "" {
			v.Bad = append(v.Bad, table.Bad{Line: c.Line, Says: "\"" + unknown + "\" is not a skill of the graph"})
			continue
		}
		if c.Twin != "" && !twins {
			v.Twins++
			if save {
				continue
			}
		}
		v.Changes = append(v.Changes, c)
		taken = append(taken, c.Item)
	}
	if save && len(taken) > 0 {
		if err := keep(ctx, r, items, taken); err != nil {
			return v, err
		}
		if err := remake(ctx, r, items, taken); err != nil {
			return v, err
		}
		v.Saved = true
	}
	return v, nil
}

func unknownSkill(r studio.Room, it shelf.Item) string {
	for _, id := range it.Skills() {
		if _, known := r.Graph[id]; !known {
			return id
		}
	}
	return ""
}

// ShelfTable writes the whole shelf as a table.
func ShelfTable(ctx context.Context, a *studio.App, who studio.Who) (studio.Archive, error) {
	items, err := a.Store.In(who.Studio).Items(ctx)
	return studio.Archive{Name: "shelf.csv", Data: shelf.Table(Shown(items))}, studio.Failed(err, "shelf")
}

// A TitleList is a book as a list of its titles.
type TitleList struct {
	Book       string        `json:"book" maxLength:"200"`
	Instrument instrument.ID `json:"instrument"`
	Strand     shelf.Strand  `json:"strand" enum:"book,technique,reading,repertoire"`
	Titles     string        `json:"titles" maxLength:"20000" doc:"a line each; a line that ends with a colon begins a unit"`
}

// mostTitles is how many titles one list holds.
const mostTitles = 300

// AddTitles puts a book on the shelf from a list of its titles. Those of which the book holds
// one already are told, and not put there twice.
func AddTitles(ctx context.Context, a *studio.App, who studio.Who, in TitleList) (Imported, error) {
	out := Imported{Items: []shelf.Item{}, Unread: []score.Unread{}, Twins: []Twin{}}
	r, shelved, err := Shelved(ctx, a, who)
	if err != nil {
		return out, err
	}
	in.Book = strings.TrimSpace(in.Book)
	items := shelf.FromTitles(in.Titles, in.Book, in.Instrument, in.Strand, studio.NewID)
	switch {
	case in.Book == "":
		return out, studio.Refuse("The book needs a title.")
	case len(items) == 0:
		return out, studio.Refuse("There is no title in the list: write one on each line.")
	case len(items) > mostTitles:
		return out, studio.Refuse("%d titles at once; import at most %d.", len(items), mostTitles)
	}
	for _, it := range items {
		if twin, there := shelf.Twin(shelved, it); there {
			out.Twins = append(out.Twins, Twin{twin.ID, twin.Title, twin.Book})
			continue
		}
		if err := it.Check(r.Instruments); err != nil {
			return out, studio.Refuse("%q cannot go on the shelf: %v.", it.Title, err)
		}
		out.Items = append(out.Items, it)
	}
	return out, keep(ctx, r, shelved, out.Items)
}
