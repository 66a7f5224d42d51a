// Package yardstick measures our code against something plain in the same run,
// so that a speed means the same on any machine.
package yardstick

import (
	"fmt"
	"sort"
	"time"
)

// Print runs ours and theirs in turn, rounds times each, and prints the ratio
// of the median times as one line.
func Print(name string, rounds int, ours, theirs func(), what string) {
	var a, b []float64
	for range rounds {
		a = append(a, took(ours))
		b = append(b, took(theirs))
	}
	fmt.Printf("%s ratio %.2f (ours %.2f ms, yardstick %.2f ms: %s)\n", name, median(a)/median(b), median(a), median(b), what)
}

func took(f func()) float64 {
	start := time.Now()
	f()
	return float64(time.Since(start).Microseconds()) / 1000
}

func median(list []float64) float64 {
	sort.Float64s(list)
	return list[len(list)/2]
}
