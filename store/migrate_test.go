package store_test

import (
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/full"
	"patientladder/store"
	"patientladder/store/storetest"
)

// migrateThis names the database that this test program, started again by a test,
// brings up to date instead of testing.
const migrateThis = "LADDER_TEST_MIGRATE"

func TestMain(m *testing.M) {
	if dsn := os.Getenv(migrateThis); dsn != "" {
		s, err := store.Open(ctx, dsn, time.Second)
		if err == nil {
			_, err = s.Migrate(ctx)
		}
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		os.Exit(0)
	}
	storetest.Main(m)
}

func migrator(dsn string) *exec.Cmd {
	cmd := exec.Command(os.Args[0])
	cmd.Env = append(os.Environ(), migrateThis+"="+dsn)
	return cmd
}

// schema is every column and index of a database.
func schema(t *testing.T, dsn string) (out []string) {
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	defer db.Close()
	for _, query := range []string{
		`SELECT CONCAT_WS(' ', table_name, column_name, column_type, is_nullable, column_default, column_comment) FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, ordinal_position`,
		`SELECT CONCAT_WS(' ', table_name, index_name, seq_in_index, column_name, non_unique) FROM information_schema.statistics WHERE table_schema = DATABASE() ORDER BY 1`,
		`SELECT CONCAT_WS(' ', version_id, COUNT(*)) FROM goose_db_version GROUP BY version_id ORDER BY version_id`,
	} {
		rows, err := db.Query(query)
		require.NoError(t, err)
		for rows.Next() {
			var line string
			require.NoError(t, rows.Scan(&line))
			out = append(out, line)
		}
		require.NoError(t, rows.Err())
		rows.Close()
	}
	return out
}

// A start that is killed leaves a database that the next start brings up to date,
// wherever it was cut.
func TestMigrationsThatAreCutOff(t *testing.T) {
	whole := storetest.DSN(t)
	began := time.Now()
	require.NoError(t, migrator(whole).Run())
	long := time.Since(began)
	want := schema(t, whole)
	rng := rand.New(rand.NewPCG(1, 2))
	for kills := 0; kills < full.Or(25, 200); {
		dsn := storetest.DSN(t)
		for done := false; !done; {
			cmd := migrator(dsn)
			var says []byte
			require.NoError(t, cmd.Start())
			timer := time.AfterFunc(time.Duration(rng.Int64N(int64(long))), func() { cmd.Process.Kill() })
			err := cmd.Wait()
			timer.Stop()
			var exit *exec.ExitError
			switch {
			case err == nil:
				done = true
			case errors.As(err, &exit) && exit.ExitCode() == -1:
				kills++ // by the signal
			default:
				require.NoError(t, err, "%s", says)
			}
		}
		require.Equal(t, want, schema(t, dsn))
	}
}

func TestFourCopiesStartTogether(t *testing.T) {
	whole := storetest.DSN(t)
	require.NoError(t, migrator(whole).Run())
	want := schema(t, whole)
	for range 4 {
		dsn := storetest.DSN(t)
		var all sync.WaitGroup
		for range 4 {
			all.Go(func() {
				says, err := migrator(dsn).CombinedOutput()
				assert.NoError(t, err, "%s", says)
			})
		}
		all.Wait()
		require.Equal(t, want, schema(t, dsn))
	}
}

func TestATableOfVersionsWithoutARow(t *testing.T) {
	dsn := storetest.DSN(t)
	require.NoError(t, migrator(dsn).Run())
	want := schema(t, dsn)
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec("DELETE FROM goose_db_version")
	require.NoError(t, err)
	says, err := migrator(dsn).CombinedOutput()
	require.NoError(t, err, "%s", says)
	assert.Equal(t, want, schema(t, dsn), "every statement has met its own work")
}

func TestAnOlderProgramLeavesNewerTablesAlone(t *testing.T) {
	s := storetest.New(t)
	_, err := s.DB().Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, TRUE)")
	require.NoError(t, err)
	_, err = s.Migrate(ctx)
	assert.ErrorIs(t, err, store.ErrNewer)
	assert.ErrorContains(t, err, "version 99")
}
