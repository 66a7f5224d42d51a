package store

import (
	"bufio"
	"compress/gzip"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/go-sql-driver/mysql"
)

// A backup is gzip of JSON lines: first a head, then each row, table after table.
type backupHead struct {
	Format  string `json:"format"`  // backupFormat
	Version int64  `json:"version"` // of the tables
	Rows    int64  `json:"rows"`
}

type backupRow struct {
	Table  string            `json:"table"`
	Fields map[string][]byte `json:"fields"` // as the database writes them; null where it is null
}

const backupFormat = "patient-ladder backup 1"

// passing are tables that are not kept: what they hold ends by itself.
var passing = []string{"sessions", "sign_ins", "resets", "sign_ups"}

// plainly is a connection that gives and takes values as the database writes them.
func (s *Store) plainly() (*sql.DB, error) {
	cfg := s.config.Clone()
	cfg.ParseTime, cfg.Params = false, nil // a large table takes its time
	connector, err := mysql.NewConnector(cfg)
	if err != nil {
		return nil, err
	}
	return sql.OpenDB(connector), nil
}

// tables lists those that are kept.
func tables(ctx context.Context, tx *sql.Tx) ([]string, error) {
	rows, err := tx.QueryContext(ctx, `SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' ORDER BY table_name`)
	list, err := collect(rows, err, func(row interface{ Scan(...any) error }) (name string, err error) { return name, row.Scan(&name) })
	return slices.DeleteFunc(list, func(name string) bool { return name == "goose_db_version" || slices.Contains(passing, name) }), err
}

// Backup writes the whole database as it is at one moment, while the program goes on. It
// returns how many rows there are.
func (s *Store) Backup(ctx context.Context, to io.Writer) (int64, error) {
	db, err := s.plainly()
	if err != nil {
		return 0, err
	}
	defer db.Close()
	tx, err := db.BeginTx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return 0, classify(err)
	}
	defer tx.Rollback()
	names, err := tables(ctx, tx)
	if err != nil {
		return 0, err
	}
	head := backupHead{Format: backupFormat}
	if head.Version, err = noted(ctx, db); err != nil {
		return 0, err
	}
	for _, name := range names {
		var n int64
		if err := tx.QueryRowContext(ctx, "SELECT COUNT(*) FROM `"+name+"`").Scan(&n); err != nil {
			return 0, classify(err)
		}
		head.Rows += n
	}
	zip := gzip.NewWriter(to)
	out := json.NewEncoder(zip)
	if err := out.Encode(head); err != nil {
		return 0, err
	}
	for _, name := range names {
		if err := backupTable(ctx, tx, name, out); err != nil {
			return 0, fmt.Errorf("back up %s: %w", name, err)
		}
	}
	return head.Rows, zip.Close()
}

func backupTable(ctx context.Context, tx *sql.Tx, name string, out *json.Encoder) error {
	rows, err := tx.QueryContext(ctx, "SELECT * FROM `"+name+"`")
	if err != nil {
		return classify(err)
	}
	defer rows.Close()
	columns, err := rows.Columns()
	if err != nil {
		return err
	}
	values, into := make([]sql.RawBytes, len(columns)), make([]any, len(columns))
	for i := range values {
		into[i] = &values[i]
	}
	for rows.Next() {
		if err := rows.Scan(into...); err != nil {
			return err
		}
		row := backupRow{name, make(map[string][]byte, len(columns))}
		for i, c := range columns {
			row.Fields[c] = values[i]
		}
		if err := out.Encode(row); err != nil {
			return err
		}
	}
	return classify(rows.Err())
}

// ErrNotEmpty is a database that holds a studio already.
var ErrNotEmpty = errors.New("the database holds a studio already")

// Restore brings what Backup wrote into a database that holds no studio, all or nothing, and
// brings it up to date.
func (s *Store) Restore(ctx context.Context, from io.Reader) (int64, error) {
	zip, err := gzip.NewReader(bufio.NewReader(from))
	if err != nil {
		return 0, fmt.Errorf("this is no backup: %w", err)
	}
	in := json.NewDecoder(zip)
	var head backupHead
	if err := in.Decode(&head); err != nil || head.Format != backupFormat {
		return 0, fmt.Errorf("this is no backup of Patient Ladder")
	}
	there, err := s.Migrate(ctx)
	if err != nil {
		return 0, err
	}
	if head.Version > there {
		return 0, fmt.Errorf("%w: the backup is of version %d and this program knows %d", ErrNewer, head.Version, there)
	}
	var studios int
	if err := s.db.QueryRowContext(ctx, `SELECT COUNT(*) FROM studios`).Scan(&studios); err != nil {
		return 0, classify(err)
	}
	if studios > 0 {
		return 0, ErrNotEmpty
	}
	db, err := s.plainly()
	if err != nil {
		return 0, err
	}
	defer db.Close()
	conn, err := db.Conn(ctx)
	if err != nil {
		return 0, classify(err)
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, `SET foreign_key_checks = 0`); err != nil { // rows come in the order of tables' names
		return 0, classify(err)
	}
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return 0, classify(err)
	}
	defer tx.Rollback()
	known, err := tables(ctx, tx)
	if err != nil {
		return 0, err
	}
	var n int64
	for ; ; n++ {
		var row backupRow
		if err := in.Decode(&row); errors.Is(err, io.EOF) {
			break
		} else if err != nil {
			return 0, fmt.Errorf("the backup is damaged after row %d: %w", n, err)
		}
		if !slices.Contains(known, row.Table) {
			return 0, fmt.Errorf("the backup is damaged: there is no table %q", row.Table)
		}
		if err := restoreRow(ctx, tx, row); err != nil {
			return 0, fmt.Errorf("restore a row of %s: %w", row.Table, err)
		}
	}
	if n != head.Rows {
		return 0, fmt.Errorf("the backup is damaged: it should hold %d rows and holds %d", head.Rows, n)
	}
	return n, classify(tx.Commit())
}

func restoreRow(ctx context.Context, tx *sql.Tx, row backupRow) error {
	var columns []string
	var args []any
	for name, value := range row.Fields {
		if strings.ContainsAny(name, "`\\") {
			return fmt.Errorf("%q is no column", name)
		}
		columns = append(columns, "`"+name+"`")
		if value == nil {
			args = append(args, nil)
		} else {
			args = append(args, value)
		}
	}
	_, err := tx.ExecContext(ctx, "INSERT INTO `"+row.Table+"` ("+strings.Join(columns, ", ")+") VALUES (?"+strings.Repeat(", ?", len(columns)-1)+")", args...)
	return classify(err)
}
