package touch

import (
	"math"
	"slices"
)

// normal turns a median absolute deviation into a standard deviation, of what is normally distributed.
const normal = 1.4826

func median(list []float64) float64 {
	n := len(list)
	switch n {
	case 0:
		return 0
	case 1:
		return list[0]
	}
	s := slices.Clone(list)
	upper := nth(s, n/2)
	if n%2 == 1 {
		return upper
	}
	return (slices.Max(s[:n/2]) + upper) / 2
}

// nth finds what would stand at a place in order, and puts nothing greater before it (Hoare, Find,
// Communications of the ACM 4, 1961).
func nth(s []float64, k int) float64 {
	for lo, hi := 0, len(s)-1; lo < hi; {
		at, i, j := s[k], lo, hi
		for i <= j {
			for s[i] < at {
				i++
			}
			for at < s[j] {
				j--
			}
			if i <= j {
				s[i], s[j] = s[j], s[i]
				i, j = i+1, j-1
			}
		}
		if j < k {
			lo = i
		}
		if k < i {
			hi = j
		}
	}
	return s[k]
}

// spread is the robust standard deviation about the median.
func spread(list []float64) float64 {
	mid := median(list)
	off := make([]float64, len(list))
	for i, x := range list {
		off[i] = math.Abs(x - mid)
	}
	return normal * median(off)
}

// errorOf is the standard error of a median.
func errorOf(sd float64, n int) float64 { return math.Sqrt(math.Pi/2) * sd / math.Sqrt(float64(n)) }
