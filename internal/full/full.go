// Package full says how much of a large check is run: a fixed sample that every change can
// wait for, or all of it.
package full

import (
	"os"
	"testing"
)

// Run reports whether everything is to be run: LADDER_FULL is set, as "make full" does.
func Run() bool { return os.Getenv("LADDER_FULL") != "" }

// Or returns all where everything is run, else the sample.
func Or[T any](sample, all T) T {
	if Run() {
		return all
	}
	return sample
}

// Only leaves a test to "make full". It says what stands in its place until then.
func Only(t testing.TB, meanwhile string) {
	t.Helper()
	if !Run() {
		t.Skip("runs in make full; meanwhile: " + meanwhile)
	}
}
