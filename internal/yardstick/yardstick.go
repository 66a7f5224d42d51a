// Package yardstick measures our code against something plain in the same run,
// so that a speed means the same on any machine.
package yardstick

import (
	"fmt"
	"math"
	"sort"
	"time"
)

// Print runs ours and theirs in turn, rounds times each, and prints the ratio
// of the median times as one line.
func Print(name string, rounds int, ours, theirs func(), what string) {
	var a, b []float64
	for range rounds {
		a = append(a, Took(ours))
		b = append(b, Took(theirs))
	}
	fmt.Printf("%s ratio %.2f (ours %.2f ms, yardstick %.2f ms: %s)\n", name, Median(a)/Median(b), Median(a), Median(b), what)
}

// Took returns how long f took, in milliseconds.
func Took(f func()) float64 {
	start := time.Now()
	f()
	return float64(time.Since(start).Microseconds()) / 1000
}

// Median returns the middle of a list, which it sorts.
func Median(list []float64) float64 {
	sort.Float64s(list)
	return list[len(list)/2]
}

// Exponent returns the power by which times grow with sizes: the slope of the
// straight line through their logarithms, by least squares.
func Exponent(sizes, times []float64) float64 {
	n := float64(len(sizes))
	var sx, sy, sxx, sxy float64
	for i := range sizes {
		x, y := math.Log(sizes[i]), math.Log(times[i])
		sx, sy, sxx, sxy = sx+x, sy+y, sxx+x*x, sxy+x*y
	}
	return (n*sxy - sx*sy) / (n*sxx - sx*sx)
}
