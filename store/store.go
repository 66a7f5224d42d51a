// Package store keeps a studio's data in MariaDB. It is the only package that
// knows SQL.
//
// Everything but signing in goes through Studio, whose every query names the
// studio, so that nothing crosses from one to another.
package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"math/rand/v2"
	"net"
	"slices"
	"strconv"
	"sync/atomic"
	"time"

	"github.com/go-sql-driver/mysql"
)

// What can go wrong, for errors.Is.
var (
	ErrNotFound    = errors.New("not found")
	ErrTaken       = errors.New("already taken")
	ErrUnavailable = errors.New("the database cannot be reached")
	ErrFull        = errors.New("the database's disk is full")
)

// A Store is a connection to the database.
type Store struct {
	db      *sql.DB
	config  *mysql.Config
	shelves shelves
	known   known

	begunAgain atomic.Int64
}

// Longest is how long one statement may run. A request waits for less; migrations
// are free of it.
const Longest = 30 * time.Second

// Open connects to the database of a DSN and retries until patience runs out.
func Open(ctx context.Context, dsn string, patience time.Duration) (*Store, error) {
	cfg, err := mysql.ParseDSN(dsn)
	if err != nil {
		return nil, fmt.Errorf("the database address is not one such as user:password@tcp(127.0.0.1:3306)/ladder: %w", err)
	}
	cfg.ParseTime, cfg.Loc, cfg.ClientFoundRows = true, time.UTC, true
	cfg.Collation = "utf8mb4_unicode_520_ci"
	cfg.InterpolateParams = true // one round trip a query
	cfg.Timeout = 5 * time.Second
	if cfg.Params == nil {
		cfg.Params = map[string]string{}
	}
	// the server ends a statement that its asker no longer waits for
	cfg.Params["max_statement_time"] = strconv.Itoa(int(Longest.Seconds()))
	if err := cfg.Apply(mysql.Charset("utf8mb4", cfg.Collation)); err != nil {
		return nil, err
	}
	connector, err := mysql.NewConnector(cfg)
	if err != nil {
		return nil, err
	}
	db := sql.OpenDB(connector)
	db.SetMaxOpenConns(16)
	db.SetMaxIdleConns(16)
	db.SetConnMaxIdleTime(5 * time.Minute)
	deadline := time.Now().Add(patience)
	for {
		err := db.PingContext(ctx)
		if err == nil {
			return &Store{db: db, config: cfg}, nil
		}
		if time.Now().After(deadline) || ctx.Err() != nil {
			db.Close()
			return nil, fmt.Errorf("%w at %s after %s of trying: %w", ErrUnavailable, cfg.Addr, patience, err)
		}
		time.Sleep(200 * time.Millisecond)
	}
}

// Close ends the connection.
func (s *Store) Close() error { return s.db.Close() }

// BegunAgain returns how many changes were begun again because another writer cut them short.
func (s *Store) BegunAgain() int64 { return s.begunAgain.Load() }

// Reach asks the database for nothing; an error tells that it does not answer, or takes no part in its cluster.
func (s *Store) Reach(ctx context.Context) error {
	var any bool
	return classify(s.db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM studios)`).Scan(&any)) // of a table: a node that is out of its cluster refuses just these
}

// DB returns the connection for the session store, which brings its own SQL.
func (s *Store) DB() *sql.DB { return s.db }

// Numbers of server errors: MariaDB, "MariaDB Error Codes".
var numbers = map[uint16]error{
	1062: ErrTaken,       // duplicate entry
	1452: ErrNotFound,    // a row refers to one that is not there
	1021: ErrFull,        // disk full
	1026: ErrFull,        // error writing file
	1041: ErrUnavailable, // out of memory
	1114: ErrFull,        // the table is full
	1053: ErrUnavailable, // shutdown in progress
	1040: ErrUnavailable, // too many connections
	1180: ErrUnavailable, // a commit that the other nodes were not there for
	1047: ErrUnavailable, // a node that has no part in its cluster at this moment
	1205: ErrUnavailable, // waited too long for another writer, again and again
	1213: ErrUnavailable, // parted from another writer, again and again
	1290: ErrUnavailable, // it takes no writes at this moment
	1969: ErrUnavailable, // a statement that took too long
	1927: ErrUnavailable, // connection was killed
}

// classify gives an error of the driver its name among ours.
func classify(err error) error {
	var server *mysql.MySQLError
	var network net.Error
	switch {
	case err == nil:
		return nil
	case errors.Is(err, sql.ErrNoRows):
		return ErrNotFound
	case errors.As(err, &server):
		if name := numbers[server.Number]; name != nil {
			return fmt.Errorf("%w: %w", name, err)
		}
	case errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return err
	case errors.Is(err, driver.ErrBadConn), errors.Is(err, mysql.ErrInvalidConn), errors.As(err, &network):
		return fmt.Errorf("%w: %w", ErrUnavailable, err)
	}
	return err
}

// Two writers that wait for each other are parted by the server: one of them is told to begin again (error
// 1213, 40001; between the nodes of a cluster too), or waited too long for the other (error 1205).
var beginAgain = []uint16{1213, 1205}

const beginnings = 8

// again does something that another writer may cut short, and begins again when one has.
func (s *Store) again(f func() error) error {
	for n := 1; ; n++ {
		err := f()
		var server *mysql.MySQLError
		if n == beginnings || !errors.As(err, &server) || !slices.Contains(beginAgain, server.Number) {
			return err
		}
		s.begunAgain.Add(1)
		time.Sleep(time.Duration(rand.IntN(20*n)) * time.Millisecond)
	}
}

// inTx runs f in a transaction; f may run more than once.
func (s *Store) inTx(ctx context.Context, f func(*sql.Tx) error) error {
	return s.again(func() error { return s.once(ctx, f) })
}

func (s *Store) once(ctx context.Context, f func(*sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return classify(err)
	}
	defer tx.Rollback() // nothing to roll back after a commit
	if err := f(tx); err != nil {
		return classify(err)
	}
	return classify(tx.Commit())
}
