package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/reading"
	"patientladder/core/shelf"
)

// mostReadings is how many scores are read anew at once when a better reader has come;
// until it is their turn the others show what was read before.
const mostReadings = 60

// listed is an item as it is kept, with its score file and what was last read from it.
type listed struct {
	shelf.Item
	hash    []byte // of the score; nil where there is none
	reader  int    // version that read it; 0 where it was not read
	reading shelf.Printed
}

func scanListed(row interface{ Scan(...any) error }) (listed, error) {
	var l listed
	var id string
	var detail, read []byte
	var reader sql.NullInt64
	if err := row.Scan(&id, &detail, &l.hash, &reader, &read); err != nil {
		return l, err
	}
	err := json.Unmarshal(detail, &l.Item)
	if read != nil {
		l.reader = int(reader.Int64)
		err = errors.Join(err, json.Unmarshal(read, &l.reading))
	}
	l.ID = id
	return l, err
}

// readItems loads items with what their scores tell, and reads again what an older
// reader read; unread is how many of them wait for their turn.
func (s Studio) readItems(ctx context.Context, where string, args ...any) (items []shelf.Item, unread int, err error) {
	rows, err := s.db.QueryContext(ctx, `SELECT i.id, i.detail, s.hash, r.reader, r.detail FROM items i
		LEFT JOIN scores s ON s.studio_id = i.studio_id AND s.item_id = i.id
		LEFT JOIN readings r ON r.studio_id = s.studio_id AND r.hash = s.hash AND r.plays = JSON_VALUE(i.detail, '$.instrument')
		WHERE i.studio_id = ? `+where, append([]any{s.id}, args...)...)
	list, err := collect(rows, err, scanListed)
	if err != nil {
		return nil, 0, err
	}
	var stale []int
	items = make([]shelf.Item, len(list))
	for i, l := range list {
		items[i] = l.Item
		items[i].HasScore = l.hash != nil
		if l.reader > 0 { // else what the item was kept with before readings were
			items[i].Take(l.reading)
		}
		if l.hash != nil && l.reader < reading.Version {
			stale = append(stale, i)
		}
	}
	if len(stale) == 0 {
		shelf.Resolve(items)
		return items, 0, nil
	}
	row, err := s.Row(ctx)
	if err != nil {
		return nil, 0, err
	}
	all := instrument.Shipped.With(row.Instruments)
	for n, i := range stale {
		if n == mostReadings {
			shelf.Resolve(items)
			return items, len(stale) - n, nil
		}
		file, err := s.Score(ctx, items[i].ID)
		if err != nil {
			return nil, 0, err
		}
		read, err := shelf.Read(file.Name, file.Data, all.Of(items[i].Instrument))
		if err != nil {
			continue // it could be read once: what was read then stays
		}
		items[i].Take(read)
		if err := s.addReading(ctx, s.db, items[i], file.Data); err != nil {
			return nil, 0, err
		}
	}
	shelf.Resolve(items)
	return items, 0, nil
}

// addReading keeps what an item's score tells.
func (s Studio) addReading(ctx context.Context, db executor, it shelf.Item, data []byte) error {
	detail, err := json.Marshal(it.Printed())
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `INSERT INTO readings (studio_id, hash, plays, reader, detail) VALUES (?, ?, ?, ?, ?)
		ON DUPLICATE KEY UPDATE reader = VALUES(reader), detail = VALUES(detail)`, s.id, hashOf(data), string(it.Instrument), reading.Version, detail)
	return classify(err)
}

func hashOf(data []byte) []byte {
	sum := sha256.Sum256(data)
	return sum[:]
}

// HoldersOf returns the items whose score is one of some files, to the byte.
func (s Studio) HoldersOf(ctx context.Context, files ...[]byte) ([]string, error) {
	args := []any{s.id}
	for _, data := range files {
		args = append(args, hashOf(data))
	}
	rows, err := s.db.QueryContext(ctx, `SELECT item_id FROM scores WHERE studio_id = ? AND hash IN (?`+strings.Repeat(", ?", len(files)-1)+`) ORDER BY item_id`, args...)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (id string, err error) { return id, row.Scan(&id) })
}
