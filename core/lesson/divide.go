package lesson

import (
	"math"

	"patientladder/core/judgement"
)

// A want is what a block would have of the minutes.
type want struct {
	least, best, most int
	weight            float64
	band              string // upkeep and now share by the approach
	must              bool
	fixed             bool // the teacher set its minutes
	capped            bool // it has no more than its most, however long the lesson
}

// A Part is a stretch of a plan that is not a lesson's, with what it would have of the minutes.
type Part struct {
	Least, Best, Most int
	Weight            float64
	Must              bool
}

// Share gives out minutes among parts as a lesson's are given out: none to what has no room.
func Share(parts []Part, minutes int) []int {
	wants := make([]want, len(parts))
	for i, p := range parts {
		wants[i] = want{least: p.Least, best: p.Best, most: p.Most, weight: p.Weight, must: p.Must}
	}
	given, _ := divide(wants, minutes, 0)
	return given
}

// worth is what m minutes of a block are worth: nothing for none; else a share
// for being there, and for each minute less than for the one before, far less
// past the best. It is concave from its least minutes on.
func (w want) worth(m int) float64 {
	switch {
	case m == 0 && !w.must:
		return 0
	case m < w.least || m > w.most:
		return math.Inf(-1)
	}
	sum := judgement.LessonFit
	for k := 1; k <= m; k++ {
		part := 1.0
		if k > w.best {
			part = judgement.LessonStretch
		}
		sum += part / float64(k)
	}
	return w.weight * sum
}

// divide gives out the minutes so that they are worth most, each want none or
// from its least to its most, all minutes used, and upkeep at least a share of
// upkeep and now together where that can be. Where the mosts do not add up to
// the lesson they are raised together until they do, what is brief and then what
// the teacher set only when nothing else helps, and over says so; where the
// musts do not fit, they are squeezed first.
//
// Method: an exact dynamic programme over minutes for each band by itself, then
// every way to share the lesson among the three: O(n·L² + L²) for n wants and L
// minutes.
func divide(wants []want, minutes int, share float64) (given []int, over bool) {
	given = make([]int, len(wants))
	wants = squeezed(wants, minutes)
	if musts := count(wants, func(w want) bool { return w.must }); musts > minutes {
		for i, w := range wants {
			if w.must && minutes > 0 {
				given[i] = 1
				minutes--
			}
		}
		return given, false
	}
	for _, raised := range []func(want) bool{func(w want) bool { return !brief(w) && !w.capped }, func(w want) bool { return !w.fixed && !w.capped }, func(w want) bool { return !w.capped }} {
		for n := 0; n < minutes && count(wants, raised) > 0 && !fills(wants, minutes); n++ {
			over = true
			for i := range wants {
				if raised(wants[i]) {
					wants[i].most++
				}
			}
		}
	}
	var tables [3]table
	most := 0 // of upkeep
	for i, w := range wants {
		k := groupOf(w.band)
		tables[k].add(i, w, minutes)
		if k == 0 {
			most += w.most
		}
	}
	best, short := math.Inf(-1), math.Inf(1)
	var at [3]int
	for kept := 0; kept <= minutes; kept++ {
		for now := 0; kept+now <= minutes; now++ {
			rest := minutes - kept - now
			sum := tables[0].best(kept) + tables[1].best(now) + tables[2].best(rest)
			if math.IsInf(sum, -1) {
				continue
			}
			wanted := math.Min(math.Ceil(share*float64(kept+now)-1e-9), float64(most))
			lacks := math.Max(wanted-float64(kept), 0)
			if lacks < short || lacks == short && sum > best+1e-12 {
				short, best, at = lacks, sum, [3]int{kept, now, rest}
			}
		}
	}
	for k := range tables {
		tables[k].trace(at[k], given)
	}
	return given, over
}

// squeezed makes room where what must be there asks for more than the lesson has:
// what the teacher set keeps its minutes as long as all else can have its least,
// then a minute, beside it; past that it gives way in proportion.
func squeezed(wants []want, minutes int) []want {
	wants = append([]want{}, wants...)
	fixed, rest, few := 0, 0, 0 // minutes of the set ones and of the other musts, and how many those are
	for _, w := range wants {
		switch {
		case w.fixed:
			fixed += w.least
		case w.must:
			rest, few = rest+w.least, few+1
		}
	}
	if fixed+rest <= minutes {
		return wants
	}
	pins := count(wants, set)
	room := max(minutes-few, pins)
	before, after := 0, 0 // running sums past a minute each, as told and as cut
	for i := range wants {
		w := &wants[i]
		switch {
		case w.fixed && fixed > room:
			before += w.least - 1
			n := before*(room-pins)/(fixed-pins) - after
			after += n
			w.least, w.best, w.most = 1+n, 1+n, 1+n
		case w.must && !w.fixed:
			w.least = 1
		}
	}
	return wants
}

func groupOf(band string) int {
	switch band {
	case "upkeep":
		return 0
	case "now":
		return 1
	}
	return 2
}

// brief reports whether a block stays as short as it is, whatever the lesson.
func brief(w want) bool { return w.most <= 4 && w.weight < 1 || w.fixed }

// set reports whether the teacher set a block's minutes.
func set(w want) bool { return w.fixed }

func count(wants []want, is func(want) bool) (n int) {
	for _, w := range wants {
		if is(w) {
			n++
		}
	}
	return n
}

// fills reports whether the wants can use all minutes.
func fills(wants []want, minutes int) bool {
	sum := 0
	for _, w := range wants {
		sum += w.most
	}
	if sum < minutes {
		return false
	}
	can := make([]bool, minutes+1) // sums that some choice of minutes makes
	can[0] = true
	for _, w := range wants {
		next := make([]bool, minutes+1)
		for m, ok := range can {
			if !ok {
				continue
			}
			if !w.must {
				next[m] = true
			}
			for n := w.least; n <= w.most && m+n <= minutes; n++ {
				next[m+n] = true
			}
		}
		can = next
	}
	return can[minutes]
}

// A table is the dynamic programme of one band: rows[j][m] is the most that the
// first j wants are worth with m minutes in all.
type table struct {
	ids  []int
	rows [][]float64
	from [][]int // minutes that the last of them has
}

func (t *table) add(id int, w want, minutes int) {
	if len(t.rows) == 0 {
		first := make([]float64, minutes+1)
		for m := range first {
			first[m] = math.Inf(-1)
		}
		first[0] = 0
		t.rows = [][]float64{first}
	}
	worth := make([]float64, w.most+1)
	for n := range worth {
		worth[n] = w.worth(n)
	}
	before := t.rows[len(t.rows)-1]
	row, from := make([]float64, minutes+1), make([]int, minutes+1)
	for m := range row {
		row[m] = math.Inf(-1)
		for n := 0; n <= min(m, w.most); n++ {
			if sum := before[m-n] + worth[n]; sum > row[m] {
				row[m], from[m] = sum, n
			}
		}
	}
	t.ids, t.rows, t.from = append(t.ids, id), append(t.rows, row), append(t.from, from)
}

// best is the most that a band is worth with m minutes; a band without wants has
// none.
func (t *table) best(m int) float64 {
	switch {
	case len(t.rows) > 0:
		return t.rows[len(t.rows)-1][m]
	case m == 0:
		return 0
	}
	return math.Inf(-1)
}

func (t *table) trace(m int, given []int) {
	for j := len(t.ids) - 1; j >= 0; j-- {
		n := t.from[j][m]
		given[t.ids[j]] = n
		m -= n
	}
}
