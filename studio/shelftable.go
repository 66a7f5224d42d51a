package studio

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/score"
	"patientladder/core/shelf"
	"patientladder/core/table"
)

// A FaultsView is what is wrong with an item.
type FaultsView struct {
	Faults []shelf.Fault `json:"faults"`
}

// CheckItem says what is wrong with an item as it is being edited: faults with
// the skill graph, none when it is in order. It keeps nothing.
func (a *App) CheckItem(ctx context.Context, who Who, it shelf.Item) (FaultsView, error) {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return FaultsView{}, err
	}
	brought := map[string]bool{}
	for _, other := range items {
		if r.instruments.Together(other.Instrument, it.Instrument) && other.ID != it.ID {
			for _, id := range other.Brings {
				brought[id] = true
			}
		}
	}
	return FaultsView{append([]shelf.Fault{}, shelf.FaultsOf(r.graph, r.instruments.Of(it.Instrument), it, brought)...)}, nil
}

// SaveItem keeps an item edited by hand, or puts a new one on the shelf. What
// its score tells is not changed.
func (a *App) SaveItem(ctx context.Context, who Who, it shelf.Item) error {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
	if err := it.Check(r.instruments); err != nil {
		return invalid("%q cannot be kept: %v.", it.Title, err)
	}
	if unknown := r.unknownSkill(it); unknown != "" {
		return invalid("%q cannot be kept: %q is not a skill of the graph.", it.Title, unknown)
	}
	succeeds := shelf.Item{}
	for _, was := range items {
		if was.ID != it.ID {
			continue
		}
		if was.SameAs != "" {
			return invalid("%q is the same as another item; edit that one.", was.Title)
		}
		succeeds, it.HasScore = was, was.HasScore
	}
	it.Succeed(succeeds)
	if err := r.keep(ctx, items, []shelf.Item{it}); err != nil {
		return err
	}
	return r.remake(ctx, items, []shelf.Item{it})
}

// shelved is a studio and all that is on its shelf.
func (a *App) shelved(ctx context.Context, who Who) (room, []shelf.Item, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return r, nil, err
	}
	items, err := r.Items(ctx)
	return r, items, told(err, "shelf")
}

// keep saves changed and new items of a shelf; a book all of whose items have another
// title now goes on being the one that students chose.
func (r room) keep(ctx context.Context, shelved, changed []shelf.Item) error {
	changed = shown(changed) // the others have the words of what they are the same as
	after := slices.Clone(shelved)
	for _, it := range changed {
		if i := slices.IndexFunc(after, func(was shelf.Item) bool { return was.ID == it.ID }); i >= 0 {
			after[i] = it
		} else {
			after = append(after, it)
		}
	}
	return told(r.SetItems(ctx, changed, r.row.Titles.With(shelved, after)), "studio")
}

// RenameBook gives a book of the shelf another title, or one of its units when a unit
// is named. What students chose and learnt of it stays theirs.
func (a *App) RenameBook(ctx context.Context, who Who, book, unit, title string) error {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return err
	}
	var changed []shelf.Item
	if unit == "" {
		changed, err = shelf.Rename(items, book, title)
	} else {
		changed, err = shelf.RenameUnit(items, book, unit, title)
	}
	if err != nil {
		return invalid("It cannot be named so: %v.", err)
	}
	return r.keep(ctx, items, changed)
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
func (a *App) Table(ctx context.Context, who Who, data []byte, save, twins bool) (TableView, error) {
	r, items, err := a.shelved(ctx, who)
	if err != nil {
		return TableView{}, err
	}
	changes, same, bad, err := shelf.Merge(shown(items), r.instruments, data, NewID)
	if err != nil {
		return TableView{}, invalid("The table cannot be read: %v.", err)
	}
	v := TableView{Changes: []shelf.Change{}, Same: same, Bad: append([]table.Bad{}, bad...)}
	var keep []shelf.Item
	for _, c := range changes {
		if unknown := r.unknownSkill(c.Item); unknown != "" {
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
		keep = append(keep, c.Item)
	}
	if save && len(keep) > 0 {
		if err := r.keep(ctx, items, keep); err != nil {
			return v, err
		}
		if err := r.remake(ctx, items, keep); err != nil {
			return v, err
		}
		v.Saved = true
	}
	return v, nil
}

func (r room) unknownSkill(it shelf.Item) string {
	for _, id := range it.Skills() {
		if _, known := r.graph[id]; !known {
			return id
		}
	}
	return ""
}

// ShelfTable writes the whole shelf as a table.
func (a *App) ShelfTable(ctx context.Context, who Who) (Archive, error) {
	items, err := a.store.In(who.Studio).Items(ctx)
	return Archive{"shelf.csv", shelf.Table(shown(items))}, told(err, "shelf")
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
func (a *App) AddTitles(ctx context.Context, who Who, in TitleList) (Imported, error) {
	out := Imported{Items: []shelf.Item{}, Unread: []score.Unread{}, Twins: []Twin{}}
	r, shelved, err := a.shelved(ctx, who)
	if err != nil {
		return out, err
	}
	in.Book = strings.TrimSpace(in.Book)
	items := shelf.FromTitles(in.Titles, in.Book, in.Instrument, in.Strand, NewID)
	switch {
	case in.Book == "":
		return out, invalid("The book needs a title.")
	case len(items) == 0:
		return out, invalid("There is no title in the list: write one on each line.")
	case len(items) > mostTitles:
		return out, invalid("%d titles at once; bring in at most %d.", len(items), mostTitles)
	}
	for _, it := range items {
		if twin, there := shelf.Twin(shelved, it); there {
			out.Twins = append(out.Twins, Twin{twin.ID, twin.Title, twin.Book})
			continue
		}
		if err := it.Check(r.instruments); err != nil {
			return out, invalid("%q cannot go on the shelf: %v.", it.Title, err)
		}
		out.Items = append(out.Items, it)
	}
	return out, r.keep(ctx, shelved, out.Items)
}
