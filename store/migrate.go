package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNewer is a database that a newer program has brought up to date.
var ErrNewer = errors.New("the database belongs to a newer program")

// migrating is how long a copy of the program waits for another that brings the
// database up to date.
const migrating = 2 * time.Minute

// Migrate brings the tables up to date and returns the version. Copies that start
// together take turns. What a cut left half done is done again: a statement of a
// definition commits by itself, before goose has noted it, so each is written to
// find its own work there. ErrNewer, and nothing changed, where the tables are
// newer than this program.
func (s *Store) Migrate(ctx context.Context) (int64, error) {
	patient := s.config.Clone()
	patient.Params = nil // a table of millions of rows takes its time
	connector, err := mysql.NewConnector(patient)
	if err != nil {
		return 0, err
	}
	db := sql.OpenDB(connector)
	defer db.Close()
	turn, err := db.Conn(ctx)
	if err != nil {
		return 0, classify(err)
	}
	defer turn.Close() // ends the lock with the connection, however this ends
	const lock = `CONCAT('ladder.migrate.', DATABASE())`
	var mine sql.NullBool
	if err := turn.QueryRowContext(ctx, `SELECT GET_LOCK(`+lock+`, ?)`, int(migrating.Seconds())).Scan(&mine); err != nil {
		return 0, classify(err)
	}
	if !mine.Bool {
		return 0, fmt.Errorf("%w: another copy of the program has been bringing it up to date for %s; try again when it is done", ErrUnavailable, migrating)
	}
	defer turn.ExecContext(context.WithoutCancel(ctx), `DO RELEASE_LOCK(`+lock+`)`)
	version, err := migrate(ctx, db)
	if err != nil {
		return 0, fmt.Errorf("bring the database up to date: %w", classify(err))
	}
	return version, nil
}

func migrate(ctx context.Context, db *sql.DB) (int64, error) {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return 0, err
	}
	p, err := goose.NewProvider(goose.DialectMySQL, db, sub)
	if err != nil {
		return 0, err
	}
	there, err := noted(ctx, db)
	if err != nil {
		return 0, err
	}
	sources := p.ListSources()
	if known := sources[len(sources)-1].Version; there > known {
		return 0, fmt.Errorf("%w: its tables are of version %d and this program knows %d; start the newer program, or go back to a backup from before it", ErrNewer, there, known)
	}
	if _, err := p.Up(ctx); err != nil {
		return 0, err
	}
	// the last statement of a copy that was killed may have ended after its lock, and noted a version too
	if _, err := db.ExecContext(ctx, `DELETE a FROM goose_db_version a JOIN goose_db_version b ON a.version_id = b.version_id AND a.id > b.id`); err != nil {
		return 0, err
	}
	return p.GetDBVersion(ctx)
}

// noted returns the version that goose has noted, 0 in a new database. A table of
// versions that was cut off before its first row is taken away, so that goose
// makes it anew.
func noted(ctx context.Context, db *sql.DB) (int64, error) {
	const table = "goose_db_version"
	var tables int
	err := db.QueryRowContext(ctx, `SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = ?`, table).Scan(&tables)
	if err != nil || tables == 0 {
		return 0, err
	}
	var version sql.NullInt64
	if err := db.QueryRowContext(ctx, `SELECT MAX(version_id) FROM `+table).Scan(&version); err != nil {
		return 0, err
	}
	if !version.Valid {
		_, err = db.ExecContext(ctx, `DROP TABLE `+table)
	}
	return version.Int64, err
}
