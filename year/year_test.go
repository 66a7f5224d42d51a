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

// TestAYear lives four students for twenty weeks; LADDER_YEARS sets how many seeds of all
// twelve are lived for forty. LADDER_NAMES and LADDER_SEED choose whom and from which seed;
// LADDER_SHOW prints every plan and sheet.
func TestAYear(t *testing.T) {
	names, seeds, weeks, first := []string{"Ada", "Bo", "Cy", "Dag"}, 1, 20, 1
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
					l, err := Live(context.Background(), storetest.New(t), name, uint64(first+seed), weeks)
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
}
