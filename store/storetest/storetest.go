// Package storetest gives tests a real MariaDB: one server for all packages that are
// tested together, or one for a package that is tested alone, and a database for each
// test.
//
// A new database is a copy of a template, made once a server with all migrations.
package storetest

import (
	"cmp"
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/require"

	"patientladder/store"
	"patientladder/store/mariadb"
)

// Address names the environment's variable that holds the data source name of a server
// that runs already.
const Address = "LADDER_TEST_SERVER"

var (
	server    string // its data source name, without a database
	databases atomic.Int64
)

// Main runs a package's tests with a server beside them: call it from TestMain.
func Main(m *testing.M) {
	os.Exit(Run(m))
}

// Run runs a package's tests with a server beside them and returns the exit code.
func Run(m *testing.M) int {
	if server = os.Getenv(Address); server != "" {
		return m.Run()
	}
	dir, err := Folder()
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	own, err := mariadb.StartTied(context.Background(), filepath.Join(dir, "db"), mariadb.Fast...)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer End(own)
	server = own.DSN("")
	return m.Run()
}

// End ends a server whose data is thrown away: there is nothing to put in order first.
func End(s *mariadb.Server) {
	syscall.Kill(s.Pid(), syscall.SIGKILL)
	<-s.Done()
}

// folders is how the folders of Folder begin; the id of their process follows.
const folders = "ladder-test-"

// Folder makes a folder for what tests may lose. Folders of processes that were killed
// are removed.
func Folder() (string, error) {
	room := Room()
	old, err := filepath.Glob(filepath.Join(cmp.Or(room, os.TempDir()), folders+"*"))
	if err != nil {
		return "", err
	}
	for _, dir := range old {
		id, _, ours := strings.Cut(strings.TrimPrefix(filepath.Base(dir), folders), "-")
		if pid, err := strconv.Atoi(id); ours && err == nil && syscall.Kill(pid, 0) == syscall.ESRCH {
			os.RemoveAll(dir)
		}
	}
	return os.MkdirTemp(room, fmt.Sprintf("%s%d-", folders, os.Getpid()))
}

// Room returns where tests keep what may be lost: in memory where the machine lends two
// gigabytes of it, else "", the usual place. A slow disk then holds no test up.
func Room() string {
	const shared, enough = "/dev/shm", 2 << 30
	var room syscall.Statfs_t
	if syscall.Statfs(shared, &room) != nil || room.Bavail*uint64(room.Bsize) < enough {
		return ""
	}
	return shared
}

// DSN returns the address of a new, empty database, which is dropped at the end of the
// test.
func DSN(t testing.TB) string {
	name, err := newDatabase()
	require.NoError(t, err)
	t.Cleanup(func() { drop(name) })
	return server + name
}

func newDatabase() (name string, err error) {
	name = fmt.Sprintf("test_%d_%d", os.Getpid(), databases.Add(1))
	return name, do("CREATE DATABASE " + name + " CHARACTER SET utf8mb4")
}

func drop(name string) { _ = do("DROP DATABASE IF EXISTS " + name) } // the server may have ended

// do sends statements to the server, all at once.
func do(statements ...string) error {
	config, err := mysql.ParseDSN(server)
	if err != nil {
		return err
	}
	config.MultiStatements = true
	connector, err := mysql.NewConnector(config)
	if err != nil {
		return err
	}
	db := sql.OpenDB(connector)
	defer db.Close()
	_, err = db.Exec(strings.Join(statements, ";\n"))
	return err
}

// once makes a database that every package of a run may copy from: whoever wants it first
// fills it, the others wait. One that was filled by halves is begun again.
func once(name string, fill func(dsn string) error) error {
	db, err := sql.Open("mysql", server)
	if err != nil {
		return err
	}
	defer db.Close()
	ctx := context.Background()
	turn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer turn.Close()
	var mine bool
	if err := turn.QueryRowContext(ctx, "SELECT GET_LOCK(?, 600)", "storetest."+name).Scan(&mine); err != nil || !mine {
		return fmt.Errorf("wait for the database %s: %v, %w", name, mine, err)
	}
	defer turn.ExecContext(ctx, "DO RELEASE_LOCK(?)", "storetest."+name)
	var filled int
	if err := turn.QueryRowContext(ctx, "SELECT COUNT(*) FROM information_schema.schemata WHERE schema_name = ?", name+"_filled").Scan(&filled); err != nil || filled == 1 {
		return err
	}
	if err := do("DROP DATABASE IF EXISTS "+name, "CREATE DATABASE "+name+" CHARACTER SET utf8mb4"); err != nil {
		return err
	}
	if err := fill(server + name); err != nil {
		return err
	}
	return do("CREATE DATABASE " + name + "_filled")
}

const template = "template"

// tables are the statements that make every table of the template anew.
var tables = sync.OnceValues(func() (string, error) {
	err := once(template, func(dsn string) error {
		s, err := store.Open(context.Background(), dsn, 5*time.Second)
		if err != nil {
			return err
		}
		defer s.Close()
		_, err = s.Migrate(context.Background())
		return err
	})
	if err != nil {
		return "", err
	}
	db, err := sql.Open("mysql", server+template)
	if err != nil {
		return "", err
	}
	defer db.Close()
	names, err := column(db, "SHOW TABLES")
	if err != nil {
		return "", err
	}
	out := []string{"SET foreign_key_checks = 0"}
	for _, name := range names {
		var create string
		if err := db.QueryRow("SHOW CREATE TABLE "+name).Scan(new(string), &create); err != nil {
			return "", err
		}
		out = append(out, create)
	}
	return strings.Join(append(out, "INSERT INTO goose_db_version SELECT * FROM "+template+".goose_db_version"), ";\n"), nil
})

// column reads the first column of a query.
func column(db *sql.DB, query string) ([]string, error) {
	rows, err := db.Query(query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []string
	for rows.Next() {
		var one string
		if err := rows.Scan(&one); err != nil {
			return nil, err
		}
		out = append(out, one)
	}
	return out, rows.Err()
}

// open returns a store on a new database with all tables and the rows of another
// database, none of "".
func open(from string) (s *store.Store, name string, err error) {
	statements, err := tables()
	if err != nil {
		return nil, "", err
	}
	if name, err = newDatabase(); err != nil {
		return nil, "", err
	}
	all := []string{"USE " + name, statements}
	if from != "" {
		db, err := sql.Open("mysql", server+from)
		if err != nil {
			return nil, "", err
		}
		defer db.Close()
		names, err := column(db, "SHOW TABLES")
		if err != nil {
			return nil, "", err
		}
		for _, table := range names {
			if table != "goose_db_version" {
				all = append(all, fmt.Sprintf("INSERT INTO %s SELECT * FROM %s.%[1]s", table, from))
			}
		}
	}
	if err := do(all...); err != nil {
		return nil, "", err
	}
	s, err = store.Open(context.Background(), server+name, 5*time.Second)
	return s, name, err
}

// New returns a store on a new database with all tables, which lasts as long as the
// test.
func New(t testing.TB) *store.Store { return copied(t, "") }

// Copy returns a store on a new database with the rows of one that is filled once for all
// packages that are tested together.
func Copy(t testing.TB, name string, fill func(*store.Store) error) *store.Store {
	require.NoError(t, once(name, func(dsn string) error {
		if _, err := tables(); err != nil {
			return err
		}
		s, err := store.Open(context.Background(), dsn, 5*time.Second)
		if err != nil {
			return err
		}
		defer s.Close()
		if _, err := s.Migrate(context.Background()); err != nil {
			return err
		}
		return fill(s)
	}))
	return copied(t, name)
}

func copied(t testing.TB, from string) *store.Store {
	s, name, err := open(from)
	require.NoError(t, err)
	t.Cleanup(func() {
		s.Close()
		drop(name)
	})
	return s
}
