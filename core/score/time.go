package score

import (
	"cmp"
	"fmt"
	"math"
	"math/bits"
	"strconv"
	"strings"
)

// A Time is an exact number of quarter notes: a moment from the start of a
// piece, or a duration. The zero Time is nought. Times compare with ==.
//
// The denominator is kept less one so that the zero value is 0/1 and equal
// times are equal structs.
type Time struct {
	num int64
	den int64 // denominator - 1, in lowest terms
}

// Grid is the finest division of a quarter note that a score may use: every
// denominator divides it, so that sums of any length stay exact in 64 bits.
// It holds 1024th notes and tuplets of 3, 5, 7, 9, 11, 13, 25 and 27.
const Grid = 1 << 10 * 27 * 25 * 7 * 11 * 13

// longest keeps sums far from the edge of 64 bits.
const longest = 1 << 20

// NewTime returns num/den quarter notes. It fails when den is not positive,
// when the reduced denominator does not divide Grid, or when the time is
// longer than about a million quarter notes.
func NewTime(num, den int64) (Time, error) {
	if den <= 0 {
		return Time{}, fmt.Errorf("%d/%d is not a length", num, den)
	}
	g := gcd(num, den)
	num, den = num/g, den/g
	if Grid%den != 0 {
		return Time{}, fmt.Errorf("a length of %d/%d of a quarter note is finer than scores are kept", num, den)
	}
	if num/den > longest || num/den < -longest {
		return Time{}, fmt.Errorf("a length of %d quarter notes is longer than any piece", num/den)
	}
	return Time{num, den - 1}, nil
}

// Quarters returns n quarter notes.
func Quarters(n int) Time { return Time{num: int64(n)} }

// Frac returns num/den quarter notes for constants known to fit; it panics
// when they do not.
func Frac(num, den int64) Time {
	t, err := NewTime(num, den)
	if err != nil {
		panic(err)
	}
	return t
}

// ParseTime reads the form String writes: "3" or "3/2".
func ParseTime(s string) (Time, error) {
	n, d, found := strings.Cut(s, "/")
	num, err := strconv.ParseInt(n, 10, 64)
	den := int64(1)
	if err == nil && found {
		den, err = strconv.ParseInt(d, 10, 64)
	}
	if err != nil {
		return Time{}, fmt.Errorf("%q is not a number of quarter notes such as 3/2", s)
	}
	return NewTime(num, den)
}

// String writes an integer or a fraction in lowest terms.
func (t Time) String() string { return string(t.append(nil)) }

func (t Time) append(b []byte) []byte {
	if b = strconv.AppendInt(b, t.num, 10); t.den == 0 {
		return b
	}
	return strconv.AppendInt(append(b, '/'), t.den+1, 10)
}

// AppendText appends the form String writes.
func (t Time) AppendText(b []byte) ([]byte, error) { return t.append(b), nil }

// MarshalText writes the form String writes.
func (t Time) MarshalText() ([]byte, error) { return t.append(nil), nil }

// UnmarshalText reads the form String writes.
func (t *Time) UnmarshalText(b []byte) (err error) {
	*t, err = ParseTime(string(b))
	return err
}

// Add returns t + u.
func (t Time) Add(u Time) Time {
	a, b := t.den+1, u.den+1
	switch {
	case a == b && a == 1:
		return Time{num: t.num + u.num}
	case a == b:
		return reduced(t.num+u.num, a)
	case a == 1: // a whole number added leaves lowest terms as they are
		return Time{t.num*b + u.num, u.den}
	case b == 1:
		return Time{t.num + u.num*a, t.den}
	}
	l := a / gcd(a, b) * b
	return reduced(t.num*(l/a)+u.num*(l/b), l)
}

// Sub returns t - u.
func (t Time) Sub(u Time) Time {
	u.num = -u.num
	return t.Add(u)
}

// Scaled returns t × num/den, or an error when the result is not on the grid.
func (t Time) Scaled(num, den int64) (Time, error) {
	if abs := max(num, -num); abs > 1<<16 || den > 1<<16 || den <= 0 || t.num > math.MaxInt64>>17 || t.num < -math.MaxInt64>>17 {
		return Time{}, fmt.Errorf("%s times %d/%d is not a length", t, num, den)
	}
	switch num {
	case 0:
		return Time{}, nil
	case den:
		return t, nil
	}
	g := gcd(t.num, den)
	h := gcd(num, t.den+1)
	return NewTime((t.num/g)*(num/h), (den/g)*((t.den+1)/h))
}

// Fractional returns the part of t beyond whole quarter notes, of the sign of t.
func (t Time) Fractional() Time { return Time{t.num % (t.den + 1), t.den} }

// Cmp returns -1, 0 or 1 as t is before, at or after u.
func (t Time) Cmp(u Time) int {
	if t.den == u.den {
		return cmp.Compare(t.num, u.num)
	}
	if max(t.num, -t.num, u.num, -u.num, t.den, u.den) < 1<<31 {
		return cmp.Compare(t.num*(u.den+1), u.num*(t.den+1))
	}
	return t.Sub(u).Sign()
}

// Less reports whether t comes before u.
func (t Time) Less(u Time) bool { return t.Cmp(u) < 0 }

// Sign returns -1, 0 or 1.
func (t Time) Sign() int { return cmp.Compare(t.num, 0) }

// Float returns the nearest float, for drawing and sound only.
func (t Time) Float() float64 { return float64(t.num) / float64(t.den+1) }

// Fraction returns numerator and denominator in lowest terms.
func (t Time) Fraction() (num, den int64) { return t.num, t.den + 1 }

func reduced(num, den int64) Time {
	if den&(den-1) == 0 { // halves, quarters, eighths, of which the division is a shift
		by := min(bits.TrailingZeros64(uint64(num)), bits.TrailingZeros64(uint64(den)))
		return Time{num >> by, den>>by - 1}
	}
	g := gcd(num, den)
	return Time{num / g, den/g - 1}
}

func gcd(a, b int64) int64 {
	if a < 0 {
		a = -a
	}
	for b != 0 {
		a, b = b, a%b
	}
	return max(a, 1)
}
