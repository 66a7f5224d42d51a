// Package library keeps a studio's shelf: items, books and tables, the exercises, instruments, skills and
// activities that are its own.
package library

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"path"
	"slices"
	"strings"

	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/phrase"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/score"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
)

// A ShelfView is all materials, in order, with what each weighs.
type ShelfView struct {
	Items    []shelf.Item          `json:"items"`
	Loads    map[string]climb.Load `json:"loads" doc:"by item: for the student asked for, else for a typical one who takes each instrument's books in order"`
	Faults   []shelf.Fault         `json:"faults" doc:"between the shelf and the skills"`
	Usual    map[string]float64    `json:"usual" doc:"load of a usual item, by instrument"`
	Disagree []shelf.Disagreement  `json:"disagree" doc:"where tags and scores disagree"`
	More     int                   `json:"more" doc:"faults and disagreements beyond those told"`
	Next     int                   `json:"next" doc:"from where the next part is asked for; 0 after the last"`
	Reads    []string              `json:"reads" doc:"endings of the score files that can be brought in"`
}

// shelfPart is how many items are sent at once, and mostFaults how many faults are told.
const (
	shelfPart  = 1000
	mostFaults = 200
)

// Shelf shows the materials from a place on, with their loads for a student; the empty
// student is a typical one. A long shelf comes in parts.
func Shelf(ctx context.Context, a *studio.App, who studio.Who, student string, from int) (ShelfView, error) {
	v, err := wholeShelf(ctx, a, who, student)
	if err != nil {
		return v, err
	}
	return v.part(from), nil
}

// part is what is sent of a shelf from a place on. What is out of order is told once.
func (v ShelfView) part(from int) ShelfView {
	all, loads := v.Items, v.Loads
	from = min(max(from, 0), len(all))
	to := min(from+shelfPart, len(all))
	v.Items, v.Loads = all[from:to], make(map[string]climb.Load, to-from)
	for _, it := range v.Items {
		if l, there := loads[it.ID]; there {
			v.Loads[it.ID] = l
		}
	}
	if to < len(all) {
		v.Next = to
	}
	v.More = max(len(v.Faults)+len(v.Disagree)-mostFaults, 0)
	v.Faults = v.Faults[:min(len(v.Faults), mostFaults)]
	v.Disagree = v.Disagree[:min(len(v.Disagree), mostFaults-len(v.Faults))]
	if from > 0 {
		v.Faults, v.Disagree, v.More = []shelf.Fault{}, []shelf.Disagreement{}, 0
	}
	return v
}

func wholeShelf(ctx context.Context, a *studio.App, who studio.Who, student string) (ShelfView, error) {
	if student == "" {
		r, items, err := Shelved(ctx, a, who)
		if err != nil {
			return ShelfView{}, err
		}
		v := shelfView(r, Shown(items))
		for _, plays := range r.Instruments.Shelves() {
			v.along(r.Instruments, climb.Begin(r.Graph, nil), plays)
		}
		return v, nil
	}
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return ShelfView{}, err
	}
	v := shelfView(p.Room, Shown(p.Shelved))
	w := p.WayNow()
	v.Usual[string(p.Plays.Shelf())] = w.Usual
	knows := w.Knows()
	for _, it := range v.Items { // each as if it were begun today, as its own page weighs it
		if p.Instruments.Of(it.Instrument).Shelf() == p.Plays.Shelf() {
			v.Loads[it.ID] = knows.Weigh(it)
		}
	}
	return v, nil
}

// Shown leaves out items that are the same as others.
func Shown(items []shelf.Item) []shelf.Item {
	return slices.DeleteFunc(slices.Clone(items), func(it shelf.Item) bool { return it.SameAs != "" })
}

func shelfView(r studio.Room, items []shelf.Item) ShelfView {
	return ShelfView{Items: items, Loads: map[string]climb.Load{}, Faults: append([]shelf.Fault{}, shelf.Faults(r.Graph, r.Instruments, items)...), Usual: map[string]float64{}, Disagree: shelf.Disagreements(r.Graph, r.Instruments, items), Reads: notation.Endings()}
}

// along weighs the items of an instrument for nobody: books one after another, other
// pieces each by itself after them. What is usual is the books' own mean.
func (v *ShelfView) along(all instrument.Set, k climb.Knows, plays instrument.ID) {
	var books, loose []shelf.Item
	for _, it := range v.Items {
		switch {
		case all.Of(it.Instrument).Shelf() != plays:
		case it.Strand == shelf.Repertoire:
			loose = append(loose, it)
		default:
			books = append(books, it)
		}
	}
	usual := 0.0
	for _, l := range climb.Along(k, books) {
		usual += l.Total / float64(len(books))
	}
	k.Usual = usual
	v.Usual[string(plays)] = usual
	for i, l := range climb.Along(k, books) {
		v.Loads[books[i].ID] = l
	}
	for _, it := range books {
		k.Learn(it)
	}
	for _, it := range loose {
		v.Loads[it.ID] = k.Weigh(it)
	}
}

// An ItemView is one item with the names of its skills.
type ItemView struct {
	Item     shelf.Item     `json:"item"`
	Brings   []string       `json:"brings"`
	Needs    []string       `json:"needs"`
	Revisits []string       `json:"revisits"`
	File     string         `json:"file" doc:"name of the score file"`
	Key      reason.Label   `json:"key"`
	Lowest   string         `json:"lowest"`
	Highest  string         `json:"highest"`
	Unread   []score.Unread `json:"unread" doc:"what the reader met and did not keep"`
	Players  []PlayedBy     `json:"players" doc:"who plays it or played it, those who play it first"`
}

// Item shows one item and what is read from its score.
func Item(ctx context.Context, a *studio.App, who studio.Who, id string) (ItemView, error) {
	st, err := a.Enter(ctx, who)
	if err != nil {
		return ItemView{}, err
	}
	it, err := st.Item(ctx, id)
	if err != nil {
		return ItemView{}, studio.Failed(err, "item")
	}
	v := ItemView{Item: it, Brings: st.Graph.Names(it.Brings), Needs: st.Graph.Names(it.Needs), Revisits: st.Graph.Names(it.Revisits), Unread: []score.Unread{}}
	if v.Players, err = players(ctx, st, id); err != nil {
		return ItemView{}, err
	}
	if !it.HasScore {
		return v, nil
	}
	file, err := st.Score(ctx, id)
	if err != nil {
		return v, studio.Failed(err, "score")
	}
	s, err := notation.Read(file.Name, file.Data)
	if err != nil {
		return v, err
	}
	v.File = file.Name
	v.Unread = append(v.Unread, s.Unread...)
	describe(&v, s)
	return v, nil
}

func describe(v *ItemView, s score.Score) {
	low, high := 1000, -1
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			if b.Key != nil && v.Key.Key == "" {
				v.Key = reason.SaidOf("list.key", "key", b.Key.String())
			}
			for _, n := range b.Notes {
				if n.Rest {
					continue
				}
				if m := n.Pitch.MIDI(); m < low {
					low, v.Lowest = m, n.Pitch.String()
				}
				if m := n.Pitch.MIDI(); m > high {
					high, v.Highest = m, n.Pitch.String()
				}
			}
		}
	}
}

// An Import is a score file and where it goes on the shelf.
type Import struct {
	ID         string // made by the client: a ULID
	FileName   string
	Data       []byte
	Book, Unit string
	Instrument instrument.ID
	Strand     shelf.Strand
	Again      bool  // though the same file is there
	Parts      []int // that the student plays, from 1, of a score for several; none while nobody was asked
}

// A Twin is an item that is there already and seems to be what is brought in.
type Twin struct {
	Item  string `json:"item"`
	Title string `json:"title"`
	Book  string `json:"book"`
}

// An Imported is what came of a file.
type Imported struct {
	Items  []shelf.Item         `json:"items"`
	Left   []LeftTune           `json:"left" doc:"tunes of the file that could not be read; the others were"`
	Unread []score.Unread       `json:"unread"`
	Parts  []reading.PlayerPart `json:"parts" doc:"of a score for several players: nothing was put on the shelf until it is said which the student plays"`
	Twins  []Twin               `json:"twins" doc:"items with the same file: nothing was put on the shelf until it is asked for again"`
}

// A LeftTune is a tune of a file that could not be read.
type LeftTune struct {
	Tune int    `json:"tune" doc:"from 1, in the order of the file"`
	Says string `json:"says" doc:"what is wrong, by the lines of the file"`
}

// BringIn reads a score file and puts it on the shelf: a tune file with several
// tunes becomes several items. The same id twice adds nothing; a file that is there
// already is asked about.
func BringIn(ctx context.Context, a *studio.App, who studio.Who, in Import) (Imported, error) {
	out := Imported{Items: []shelf.Item{}, Left: []LeftTune{}, Unread: []score.Unread{}, Parts: []reading.PlayerPart{}, Twins: []Twin{}}
	tunes, err := notation.Split(in.FileName, in.Data)
	if err != nil {
		return Imported{}, unreadable(in.FileName, err)
	}
	r, shelved, err := Shelved(ctx, a, who)
	if err != nil {
		return Imported{}, err
	}
	files := make([][]byte, len(tunes))
	for i, t := range tunes {
		files[i] = t.Data
	}
	if out.Twins, err = twins(ctx, r, in, shelved, files...); err != nil || len(out.Twins) > 0 {
		return out, err
	}
	on := r.Instruments.Of(in.Instrument)
	var ready []store.NewItem
	for i, tune := range tunes {
		s, err := tune.Read(in.FileName)
		var wrong *score.SyntaxError
		if len(tunes) > 1 && errors.As(err, &wrong) {
			out.Left = append(out.Left, LeftTune{i + 1, phrase.Begin(wrong.Error())})
			continue
		}
		if err != nil {
			return Imported{}, unreadable(in.FileName, err)
		}
		file := &store.ScoreFile{Name: in.FileName, Data: tune.Data}
		if players, ask := reading.Players(s, on); len(in.Parts) > 0 {
			if s, file, err = onlyParts(s, file, in.Parts); err != nil {
				return Imported{}, err
			}
			if out.Twins, err = twins(ctx, r, in, shelved, file.Data); err != nil || len(out.Twins) > 0 {
				return out, err
			}
		} else if ask && len(tunes) == 1 {
			out.Parts = players
			return out, nil
		}
		id := in.ID
		if i > 0 {
			id = fmt.Sprintf("%s-%d", in.ID, i+1)
		}
		it := shelf.Item{ID: id, Title: s.Title, Composer: s.Composer, Instrument: in.Instrument, Strand: in.Strand, Unit: in.Unit, Book: in.Book,
			Brings: []string{}, Needs: []string{}, Revisits: []string{}, Parts: shelf.Parts{}, Points: shelf.UsualPoints(on, s)}
		if it.Title == "" {
			it.Title = strings.TrimSuffix(path.Base(in.FileName), path.Ext(in.FileName))
		}
		if it.Book == "" {
			it.Book = "Loose sheets"
		}
		it.Take(shelf.PrintedOf(s, on))
		it.Tag(r.Graph, r.Instruments, shelved)
		if err := it.Check(r.Instruments); err != nil {
			return Imported{}, studio.Refuse("%s cannot go on the shelf: %v.", in.FileName, err)
		}
		ready = append(ready, store.NewItem{Item: it, File: file})
		out.Unread = append(out.Unread, s.Unread...)
	}
	if len(ready) == 0 {
		return Imported{}, studio.Refuse("None of the %d tunes of %s could be read. Of the first: %s. Nothing of it was put on the shelf.", len(tunes), in.FileName, out.Left[0].Says)
	}
	if err := a.Store.In(who.Studio).AddItems(ctx, ready); err != nil {
		return Imported{}, studio.Failed(err, "studio")
	}
	for _, o := range ready {
		out.Items = append(out.Items, o.Item)
	}
	return out, nil
}

// twins are items that hold one of some files already; none where they are wanted again.
func twins(ctx context.Context, r studio.Room, in Import, shelved []shelf.Item, files ...[]byte) ([]Twin, error) {
	out := []Twin{}
	if in.Again {
		return out, nil
	}
	holders, err := r.HoldersOf(ctx, files...)
	if err != nil {
		return out, studio.Failed(err, "shelf")
	}
	for _, it := range shelved {
		if slices.Contains(holders, it.ID) && !strings.HasPrefix(it.ID, in.ID) {
			out = append(out, Twin{it.ID, it.Title, it.Book})
		}
	}
	return out, nil
}

// onlyParts is a score with the parts that a student plays, as a file of its own.
func onlyParts(s score.Score, file *store.ScoreFile, parts []int) (score.Score, *store.ScoreFile, error) {
	for _, p := range parts {
		if p < 1 || p > len(s.Parts) {
			return s, nil, studio.Refuse("%s has %d parts, and none with the number %d.", file.Name, len(s.Parts), p)
		}
	}
	if len(parts) == len(s.Parts) {
		return s, file, nil
	}
	only := s.Only(parts)
	data, err := notation.Write(notation.MusicXML, only)
	if err != nil {
		return s, nil, err
	}
	name := strings.TrimSuffix(file.Name, path.Ext(file.Name)) + notation.MusicXML.Ending()
	return only, &store.ScoreFile{Name: name, Data: data}, nil
}

func unreadable(name string, err error) error {
	var at *score.SyntaxError
	if errors.As(err, &at) {
		return &studio.Error{Kind: studio.Invalid, Says: fmt.Sprintf("%s could not be read. %s. Nothing of it was put on the shelf.", name, phrase.Begin(at.Error()))}
	}
	return err
}

// AddItems puts items on the shelf, all or none; what their scores tell is
// filled in.
func AddItems(ctx context.Context, a *studio.App, who studio.Who, items []store.NewItem) error {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return err
	}
	for i := range items {
		in := &items[i]
		if err := in.Item.Check(r.Instruments); err != nil {
			return studio.Refuse("%q cannot go on the shelf: %v.", in.Item.Title, err)
		}
		if in.File == nil {
			if in.File, err = scoreOf(r, in.Item); err != nil {
				return studio.Refuse("The notes of %q cannot be made: %v.", in.Item.Title, err)
			}
		}
		if in.File != nil {
			s, err := notation.Read(in.File.Name, in.File.Data)
			if err != nil {
				return unreadable(in.File.Name, err)
			}
			in.Item.Take(shelf.PrintedOf(s, r.Instruments.Of(in.Item.Instrument)))
			in.Item.Composer = cmp.Or(in.Item.Composer, s.Composer)
		}
	}
	return studio.Failed(a.Store.In(who.Studio).AddItems(ctx, items), "studio")
}
