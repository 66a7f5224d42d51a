package year

import (
	"context"
	"fmt"
	"os"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// TestAYear lives ten students for twenty weeks; LADDER_YEARS sets how many seeds of
// everybody are lived for forty weeks. LADDER_NAMES and LADDER_SEED choose whom and from which seed;
// LADDER_SHOW prints every plan and sheet.
func TestAYear(t *testing.T) {
	names, seeds, weeks, first := []string{"Ada", "Bo", "Cy", "Dag", "Eve", "Orla", "Siv", "Ivo", "Runa", "Veit"}, 1, 20, 1
	if n, err := strconv.Atoi(os.Getenv("LADDER_YEARS")); err == nil {
		names, seeds, weeks = Names(), n, 40
	}
	if only := os.Getenv("LADDER_NAMES"); only != "" {
		names = strings.Split(only, ",")
	}
	if n, err := strconv.Atoi(os.Getenv("LADDER_SEED")); err == nil {
		first = n
	}
	var all Ledger
	var mu sync.Mutex
	t.Run("lives", func(t *testing.T) { // side by side, as many as the machine has cores
		for _, name := range names {
			for seed := range seeds {
				t.Run(fmt.Sprintf("%s %d", name, first+seed), func(t *testing.T) {
					t.Parallel()
					l, err := Live(context.Background(), storetest.New(t), name, uint64(first+seed), weeks, ByPath)
					require.NoError(t, err)
					mu.Lock()
					defer mu.Unlock()
					all.Add(l)
				})
			}
		}
	})
	all.Print(os.Stdout)
	broken := 0
	for _, r := range all.Rules {
		broken += r.Broken
	}
	require.Zero(t, broken, fmt.Sprintf("%d breaks", broken))
	if all.Told > 500 { // of fewer the share says little
		require.InDelta(t, 0.8, all.Range/float64(all.Told), 0.04, "80 % ranges")
	}
}

// TestPolicies lives the same students, with the same seeds, by the app's path and by two
// plain orders. What comes out are statements about this model.
func TestPolicies(t *testing.T) {
	seeds, err := strconv.Atoi(os.Getenv("LADDER_YEARS"))
	if err != nil {
		t.Skip("LADDER_YEARS says how many seeds")
	}
	policies := []Policy{ByPath, ByBook, ByLoad}
	ledgers := map[Policy]*Ledger{}
	for _, p := range policies {
		ledgers[p] = &Ledger{}
	}
	first := 1
	if n, err := strconv.Atoi(os.Getenv("LADDER_SEED")); err == nil {
		first = n
	}
	var mu sync.Mutex
	t.Run("lives", func(t *testing.T) {
		for _, name := range Names() {
			if name == "Odo" { // before the first book there is no order
				continue
			}
			for seed := range seeds {
				for _, by := range policies {
					t.Run(fmt.Sprintf("%s %d by %s", name, first+seed, by), func(t *testing.T) {
						t.Parallel()
						l, err := Live(context.Background(), storetest.New(t), name, uint64(first+seed), 40, by)
						require.NoError(t, err)
						mu.Lock()
						defer mu.Unlock()
						ledgers[by].Add(l)
					})
				}
			}
		}
	})
	fmt.Printf("%-40s %10s %10s %10s\n", "in a year, of a student", policies[0], policies[1], policies[2])
	lives := float64(seeds * (len(Names()) - 1))
	for _, k := range []string{"pieces secure", "pieces alive at the end", "weeks stuck", "met unprepared", "minutes asked", "minutes practised"} {
		fmt.Printf("%-40s", k)
		for _, p := range policies {
			fmt.Printf(" %10.1f", ledgers[p].Figure[k]/lives)
		}
		fmt.Println()
	}
	path := ledgers[ByPath].Figure
	for _, plain := range policies[1:] {
		f := ledgers[plain].Figure
		require.Greater(t, path["pieces alive at the end"], f["pieces alive at the end"], "alive, against %s", plain)
		require.Less(t, path["weeks stuck"], f["weeks stuck"], "stuck, against %s", plain)
		require.Less(t, path["met unprepared"], f["met unprepared"], "unprepared, against %s", plain)
	}
}
