package main

import (
	"bufio"
	"math"
	"os"
	"strconv"
	"strings"
)

// memoryLimit is how much memory the program takes before it collects its garbage at any cost: six tenths of
// what the machine, or the group of processes that it is in, has. The rest is for the database and the
// system beside it.
func memoryLimit() int64 {
	most := uint64(math.MaxInt64)
	if f, err := os.Open("/proc/meminfo"); err == nil {
		defer f.Close()
		for lines := bufio.NewScanner(f); lines.Scan(); {
			if kb, is := strings.CutPrefix(lines.Text(), "MemTotal:"); is {
				if n, err := strconv.ParseUint(strings.TrimSuffix(strings.TrimSpace(kb), " kB"), 10, 54); err == nil {
					most = n << 10
				}
			}
		}
	}
	if b, err := os.ReadFile("/sys/fs/cgroup/memory.max"); err == nil {
		if n, err := strconv.ParseUint(strings.TrimSpace(string(b)), 10, 63); err == nil {
			most = min(most, n)
		}
	}
	return int64(most / 10 * 6)
}
