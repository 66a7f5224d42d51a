package year

import (
	"cmp"
	"slices"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/studio/library"
	"patientladder/studio/places"
)

// A Policy is how the rungs of a life are put in order and prepared.
type Policy string

// The app's path, with its head starts, and two plain orders without: the book as it
// stands, and all that the books hold by how heavy it is when the student begins. Sheets,
// upkeep and lessons are the app's in all three.
const (
	ByPath Policy = "path"
	ByBook Policy = "book"
	ByLoad Policy = "load"
)

// abreast is how many rungs ahead a plain order keeps in a lane.
const abreast = 3

// plainly takes the proposals of the first day off the ladder again and lists what comes
// instead, lane by lane.
func (r *run) plainly(items []shelf.Item) error {
	loads, err := library.Shelf(r.ctx, r.app, r.who, r.id, 0)
	if err != nil {
		return err
	}
	r.queue = map[shelf.Strand][]shelf.Item{}
	begun := r.life.begin == ""
	for _, it := range items { // as they stand on the shelf
		begun = begun || it.ID == r.life.begin
		if slices.Contains(r.life.books, it.Book) && (begun || it.Strand == shelf.Repertoire) {
			r.queue[it.Strand] = append(r.queue[it.Strand], it)
		}
	}
	if r.policy == ByLoad {
		for _, list := range r.queue {
			slices.SortStableFunc(list, func(a, b shelf.Item) int { return cmp.Compare(loads.Loads[a.ID].Total, loads.Loads[b.ID].Total) })
		}
	}
	lv, err := places.Ladder(r.ctx, r.app, r.who, r.id)
	if err != nil {
		return err
	}
	for _, rv := range lv.Rungs {
		if rv.State != "proposed" {
			r.say(fact.Retracted{Ref: rv.ID})
		}
	}
	if err := r.deliver(fact.Teacher); err != nil {
		return err
	}
	return r.topUp()
}

// topUp adds to each lane what comes next in a plain order.
func (r *run) topUp() error {
	lv, err := places.Ladder(r.ctx, r.app, r.who, r.id)
	if err != nil {
		return err
	}
	ahead := map[shelf.Strand]int{}
	for _, rv := range lv.Rungs {
		if rv.State == ladder.Ahead || rv.State == ladder.Current && rv.Taught == nil {
			ahead[rv.Strand]++
		}
	}
	r.at = r.at.Add(1e9)
	for _, lane := range shelf.Strands {
		for ahead[lane] < abreast && len(r.queue[lane]) > 0 {
			it := r.queue[lane][0]
			r.queue[lane] = r.queue[lane][1:]
			r.say(fact.RungAdded{Item: it.ID, Strand: string(lane), After: fact.Top, Revision: it.Revision})
			ahead[lane]++
		}
	}
	return r.deliver(fact.Teacher)
}
