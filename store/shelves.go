package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"sync"

	"patientladder/core/shelf"
)

// shelves keeps the items of studios as they were last read, each with the
// version that the database gave it. What is kept is used only while the
// database still tells that version, so that several copies of the app may
// run.
type shelves struct {
	mu   sync.Mutex
	kept map[string]keptShelf
}

type keptShelf struct {
	version int64
	Shelf
}

// A Shelf is a studio's items. They are shared: they must not be changed.
type Shelf struct {
	Items []shelf.Item // in order
	By    map[string]shelf.Item
}

func newShelf(items []shelf.Item) Shelf {
	s := Shelf{items, make(map[string]shelf.Item, len(items))}
	for _, it := range items {
		s.By[it.ID] = it
	}
	return s
}

// mostShelves is how many studios' items are kept; past it all are read anew.
const mostShelves = 256

func (s *shelves) get(studio string, version int64) (Shelf, bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	k, there := s.kept[studio]
	return k.Shelf, there && k.version == version
}

func (s *shelves) put(studio string, version int64, of Shelf) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.kept == nil || len(s.kept) >= mostShelves {
		s.kept = map[string]keptShelf{}
	}
	s.kept[studio] = keptShelf{version, of}
}

// Items returns the whole shelf in order. The items are shared: they must not
// be changed.
func (s Studio) Items(ctx context.Context) ([]shelf.Item, error) {
	of, err := s.shelf(ctx)
	return of.Items, err
}

// ItemsNow returns the same by id.
func (s Studio) ItemsNow(ctx context.Context) (map[string]shelf.Item, error) {
	of, err := s.shelf(ctx)
	return of.By, err
}

func (s Studio) shelf(ctx context.Context) (Shelf, error) {
	var version int64
	if err := s.db.QueryRowContext(ctx, `SELECT shelf_version FROM studios WHERE id = ?`, s.id).Scan(&version); err != nil {
		return Shelf{}, classify(err)
	}
	return s.ShelfAt(ctx, version)
}

// ShelfAt returns the shelf of a version, which the studio's row tells.
func (s Studio) ShelfAt(ctx context.Context, version int64) (Shelf, error) {
	if of, there := s.shelves.get(s.id, version); there {
		return of, nil
	}
	items, unread, err := s.readItems(ctx, `ORDER BY i.place, i.id`)
	of := newShelf(items)
	if err == nil && unread == 0 {
		s.shelves.put(s.id, version, of)
	}
	return of, err
}

// Item returns one item.
func (s Studio) Item(ctx context.Context, id string) (shelf.Item, error) {
	items, err := s.ItemsNow(ctx)
	if err != nil {
		return shelf.Item{}, err
	}
	it, there := items[id]
	if !there {
		return shelf.Item{}, ErrNotFound
	}
	return it, nil
}

// Listed returns an item's own words, also of one that is the same as another.
func (s Studio) Listed(ctx context.Context, id string) (shelf.Item, error) {
	var detail []byte
	if err := s.db.QueryRowContext(ctx, `SELECT detail FROM items WHERE studio_id = ? AND id = ?`, s.id, id).Scan(&detail); err != nil {
		return shelf.Item{}, classify(err)
	}
	var it shelf.Item
	err := json.Unmarshal(detail, &it)
	it.ID = id
	return it, err
}

// ItemsAtHand returns the shelf as it was last read, which may be an older one, without
// asking the database; where nothing was read yet, Items.
func (s Studio) ItemsAtHand(ctx context.Context) (map[string]shelf.Item, error) {
	s.shelves.mu.Lock()
	k, there := s.shelves.kept[s.id]
	s.shelves.mu.Unlock()
	if there {
		return k.By, nil
	}
	return s.ItemsNow(ctx)
}

// changeShelf changes a shelf in a transaction.
func (s Studio) changeShelf(ctx context.Context, change func(*sql.Tx) error) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		if err := s.shelfChanged(ctx, tx); err != nil {
			return err
		}
		return change(tx)
	})
}

// shelfChanged gives the shelf a new version, in the transaction that changes it.
func (s Studio) shelfChanged(ctx context.Context, tx *sql.Tx) error {
	_, err := tx.ExecContext(ctx, `UPDATE studios SET shelf_version = shelf_version + 1 WHERE id = ?`, s.id)
	return err
}
