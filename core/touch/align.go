package touch

import (
	"math"
	"slices"
)

// What an alignment costs. A stroke is at its place when its interval to the one before is near the
// one that was asked; how near costs nothing, so that a tempo may bend, and an interval of double or
// half costs as much as it ever does: then the thread was lost, and taken up again. These are a
// judgement, and hold only against each other.
const (
	wrong = 1.0 // another key
	gone  = 1.0 // a note that was not played, or a stroke that was not asked
	lost  = 0.9 // an interval with no likeness to what was asked
	bends = 0.4 // octaves of time within which an interval is as asked
	reach = 2   // notes and strokes between two of which an interval is still reckoned
)

// free is the quickest interval that is as asked, beside what was asked.
var free = math.Exp2(-bends)

// A moment is what is asked at once.
type moment struct {
	onset float64
	dues  []int // of what was asked
}

// An alignment says which stroke is which note.
type alignment struct {
	asked   []Due
	played  []Stroke
	moments []moment
	stroke  []int // of each note; -1 for missing
	right   []bool
	beat    float64 // milliseconds of a quarter note
	cost    float32
}

func moments(asked []Due) []moment {
	out, each := make([]moment, 0, len(asked)), make([]int, len(asked))
	for i, d := range asked {
		each[i] = i
		if n := len(out); n > 0 && d.Onset-out[n-1].onset < 1e-6 {
			out[n-1].dues = append(out[n-1].dues, i)
			continue
		}
		out = append(out, moment{d.Onset, each[i : i+1 : i+1]})
	}
	return out
}

// fits reports whether a stroke is a note that was asked.
func fits(d Due, s Stroke) bool {
	if s.Key == 0 || d.Key == 0 {
		return s.Hand == "" || d.Hand == "" || s.Hand == d.Hand
	}
	return s.Key == d.Key
}

// pair gives each note of a moment one of the strokes a to b, the fitting ones first; it returns what
// that costs, with the strokes (-1 for none) where they are asked for.
func pair(asked []Due, m moment, played []Stroke, a, b int, into []int) float32 {
	if len(m.dues) == 1 && b-a == 1 && into == nil { // nearly always
		if fits(asked[m.dues[0]], played[a]) {
			return 0
		}
		return wrong
	}
	var used [steps]bool
	left, open := b-a, len(m.dues)
	for k, at := range m.dues {
		if into != nil {
			into[k] = -1
		}
		for s := a; s < b; s++ {
			if !used[s-a] && fits(asked[at], played[s]) {
				used[s-a] = true
				left, open = left-1, open-1
				if into != nil {
					into[k] = s
				}
				break
			}
		}
	}
	for k := range into {
		for s := a; into[k] < 0 && s < b; s++ {
			if !used[s-a] {
				used[s-a], into[k] = true, s
			}
		}
	}
	both := min(left, open)
	return wrong*float32(both) + gone*float32(left-both+open-both)
}

// most is how many strokes a moment may take: its notes, and one that slipped in between several.
func (m moment) most() int {
	if n := len(m.dues); n > 1 {
		return min(n+1, steps)
	}
	return 1
}

// stretch is what an interval costs: between two moments asked some quarter notes apart, played some
// milliseconds apart, at so many milliseconds a quarter note; nothing where no beat is known.
func stretch(asked, played, beat float64) float32 {
	if beat == 0 {
		return 0
	}
	if played <= 0 {
		return lost
	}
	switch is := played / (beat * asked); {
	case is > free && is < 1/free:
		return 0
	case is <= 0.5 || is >= 2:
		return lost
	default:
		return lost * float32((math.Abs(math.Log2(is))-bends)/(1-bends))
	}
}

// align finds the cheapest alignment. The beat is looked for among those that the strokes themselves
// suggest.
func align(asked []Due, played []Stroke, beat float64) alignment {
	a := alignment{asked: asked, played: played, moments: moments(asked)}
	beats := []float64{beat}
	if beat == 0 {
		beats = a.beats()
	}
	best, with := alignment{cost: never}, a.at
	if a.handed() {
		with = a.apart
	}
	for _, b := range beats {
		if one := with(b); one.cost < best.cost {
			best = one
		}
	}
	return best
}

// beats are the lengths of a quarter note that a take may go by. Keys tell by themselves which stroke
// is which; taps suggest several.
func (a alignment) beats() []float64 {
	if len(a.played) < 2 || len(a.moments) < 2 {
		return []float64{0}
	}
	keyed := !slices.ContainsFunc(a.played, func(s Stroke) bool { return s.Key == 0 }) && slices.ContainsFunc(a.asked, func(d Due) bool { return d.Key != a.asked[0].Key })
	if keyed {
		if b := a.begin().usual(); b > 0 {
			return []float64{b}
		}
	}
	var waits, asked []float64
	for i := 1; i < len(a.played); i++ {
		if w := a.played[i].At - a.played[i-1].At; w > 1 {
			waits = append(waits, w)
		}
	}
	for i := 1; i < len(a.moments); i++ {
		asked = append(asked, a.moments[i].onset-a.moments[i-1].onset)
	}
	out := []float64{(a.played[len(a.played)-1].At - a.played[0].At) / (a.moments[len(a.moments)-1].onset - a.moments[0].onset)}
	if len(waits) > 0 {
		out = append(out, median(waits)/median(asked), slices.Max(waits)/slices.Max(asked), slices.Min(waits)/slices.Min(asked))
	}
	if out = slices.DeleteFunc(out, func(b float64) bool { return b < 1 }); len(out) == 0 {
		return []float64{0} // all at once
	}
	return out
}

// begin is the alignment of the beginning of a take, as far as its beat is known from.
func (a alignment) begin() alignment {
	const notes = 400
	a.asked, a.played = a.asked[:min(notes, len(a.asked))], a.played[:min(notes, len(a.played))]
	a.moments = moments(a.asked)
	return a.at(0)
}

// usual is the usual length of a quarter note in what was played; 0 for not known.
func (a alignment) usual() float64 {
	var list []float64
	last := -1
	for i := range a.moments {
		t, played := a.time(i)
		if !played {
			continue
		}
		if last >= 0 {
			before, _ := a.time(last)
			list = append(list, (t-before)/(a.moments[i].onset-a.moments[last].onset))
		}
		last = i
	}
	if len(list) == 0 {
		return 0
	}
	return median(list)
}

// time is when a moment was played: its first stroke; false for not at all.
func (a alignment) time(m int) (float64, bool) {
	at := math.Inf(1)
	for _, d := range a.moments[m].dues {
		if s := a.stroke[d]; s >= 0 {
			at = min(at, a.played[s].At)
		}
	}
	return at, !math.IsInf(at, 1)
}

// widest bounds the band by what it takes of memory: beyond it a take has little in common with what was
// asked.
const widest = 1 << 20

// apart aligns taps that each hand has its own place for, hand by hand: which of two strokes that nearly
// fall together came first says nothing.
func (a alignment) apart(beat float64) alignment {
	a.beat, a.stroke, a.right = beat, make([]int, len(a.asked)), make([]bool, len(a.asked))
	for _, hand := range []string{"left", "right"} {
		var of, at []int
		one := alignment{}
		for i, d := range a.asked {
			if d.Hand == hand {
				of, one.asked = append(of, i), append(one.asked, d)
			}
		}
		for i, s := range a.played {
			if s.Hand == hand {
				at, one.played = append(at, i), append(one.played, s)
			}
		}
		one.moments = moments(one.asked)
		one = one.at(beat)
		a.cost += one.cost
		for k, i := range of {
			a.stroke[i], a.right[i] = one.stroke[k], one.right[k]
			if one.stroke[k] >= 0 {
				a.stroke[i] = at[one.stroke[k]]
			}
		}
	}
	return a
}

// handed reports whether every tap and every note has a hand.
func (a alignment) handed() bool {
	return len(a.played) > 0 && !slices.ContainsFunc(a.played, func(s Stroke) bool { return s.Key > 0 || s.Hand == "" }) &&
		!slices.ContainsFunc(a.asked, func(d Due) bool { return d.Hand == "" })
}

// at aligns by a beat, within a band about the diagonal. Each step away from the diagonal is a note
// missing or a stroke too many, and has to be gone back again: what costs no more than the way out of
// the band and back is the cheapest of all.
func (a alignment) at(beat float64) alignment {
	a.beat = beat
	apart := len(a.played) - len(a.asked)
	apart = max(apart, -apart)
	one := a.within(apart+narrow, never)
	if need := int(math.Ceil((float64(one.cost)+float64(apart))/2)) - 1; need > apart+narrow {
		one = a.within(min(need, max(apart+narrow, widest/max(1, len(a.moments)))), one.cost)
	}
	return one
}

// narrow is the band in which an alignment is looked for first.
const narrow = 1

// A table holds, for each moment and each number of strokes before its end within the band, what the
// cheapest way costs on which it is played by its last so many strokes, and the cheapest way without a
// reference to what was before; and by which step each was reached.
type table struct {
	a          alignment
	before     []int // notes asked before each moment
	band       int
	width      int
	most       int
	played     []float32 // moment, strokes, how many: it ends with a match
	free       []float32 // moment, strokes: the thread is lost, or not yet taken up
	stepPlayed []step
	stepFree   []step
}

// A step says how a place was reached. Of a match: from a place with no reference, or from a match some
// moments and some strokes before that took so many. Of a place with no reference: past a note, past a
// stroke, or from a match that ends here and took so many.
type step uint8

const (
	pastNote   step = 0
	pastStroke step = 1
	loosely    step = 0
	steps           = 16 // strokes that a moment takes, at most
)

// after is the step from a match.
func after(back, between, took int) step {
	return step(1 + (back*(reach+1)+between)*steps + took - 1)
}

// from takes a step after a match apart.
func (s step) from() (back, between, took int) {
	n := int(s) - 1
	return n / steps / (reach + 1), n / steps % (reach + 1), n%steps + 1
}

func (t *table) lo(m int) int { return max(0, t.before[m]-t.band) }
func (t *table) hi(m int) int { return min(len(t.a.played), t.before[m]+t.band) }

// match is the place of a moment that ends after so many strokes and took some; below nought outside
// the band.
func (t *table) match(m, strokes, took int) int {
	if strokes < t.lo(m+1) || strokes > t.hi(m+1) {
		return -1
	}
	return (m*t.width+strokes-t.lo(m+1))*t.most + took - 1
}

// loose is the place with no reference before a moment, after so many strokes; they lie in the band.
func (t *table) loose(m, strokes int) int { return m*t.width + strokes - t.lo(m) }

var never = float32(math.Inf(1))

// within finds the cheapest alignment within a band, of those that cost no more than most; there is one.
func (a alignment) within(band int, most float32) alignment {
	t := &table{a: a, before: make([]int, len(a.moments)+1), band: band, width: min(2*band+1, len(a.played)+1), most: 1}
	for i, m := range a.moments {
		t.before[i+1] = t.before[i] + len(m.dues)
		t.most = max(t.most, m.most())
	}
	t.played, t.stepPlayed = make([]float32, len(a.moments)*t.width*t.most), make([]step, len(a.moments)*t.width*t.most)
	t.free, t.stepFree = make([]float32, (len(a.moments)+1)*t.width), make([]step, (len(a.moments)+1)*t.width)
	apart := len(a.played) - len(a.asked)
	var rows [reach + 1]row
	for m := 0; m <= len(a.moments); m++ {
		if m < len(a.moments) {
			t.rows(m, &rows)
			for i := range t.width * t.most {
				t.played[m*t.width*t.most+i] = never
			}
		}
		for s := t.lo(m); s <= t.hi(m); s++ {
			t.loosen(m, s)
			back := s - t.before[m] - apart // what is still to be gone back to the end
			if m == len(a.moments) || t.free[t.loose(m, s)]+float32(max(back, -back))*gone > most {
				continue // no way from here is among the cheapest: nothing reaches this place for less
			}
			for took := 1; took <= a.moments[m].most() && s+took <= len(a.played); took++ {
				t.take(m, s, took, &rows)
			}
		}
	}
	return t.trace()
}

// A row is the matches of a moment before another.
type row struct {
	costs   []float32
	lo, hi  int // strokes after which it may end
	most    int // strokes that it may take
	asked   float64
	skipped float32 // what it costs to pass over those between
}

// rows are those of the moments from which an interval to a moment is reckoned; without costs where there
// is none.
func (t *table) rows(m int, into *[reach + 1]row) {
	skipped := float32(0)
	for k := range into {
		into[k] = row{}
		at := m - 1 - k
		if at < 0 {
			continue
		}
		was := t.a.moments[at]
		into[k] = row{t.played[at*t.width*t.most : (at+1)*t.width*t.most], t.lo(at + 1), t.hi(at + 1), was.most(), t.a.moments[m].onset - was.onset, skipped}
		skipped += gone * float32(len(was.dues))
	}
}

// loosen finds the cheapest way to a place with no reference. Of two that cost the same, that on
// which nothing was played yet comes first.
func (t *table) loosen(m, s int) {
	cost, by := never, pastNote
	if m == 0 && s == 0 {
		cost = 0
	}
	if m > 0 && s >= t.lo(m-1) && s <= t.hi(m-1) {
		cost = t.free[t.loose(m-1, s)] + gone*float32(len(t.a.moments[m-1].dues))
	}
	here := t.loose(m, s)
	if s > t.lo(m) && t.free[here-1]+gone < cost {
		cost, by = t.free[here-1]+gone, pastStroke
	}
	if m > 0 {
		ends := t.played[((m-1)*t.width+s-t.lo(m))*t.most:]
		for took := 1; took <= min(t.a.moments[m-1].most(), s); took++ {
			if ends[took-1] < cost {
				cost, by = ends[took-1], step(took+1)
			}
		}
	}
	t.free[here], t.stepFree[here] = cost, by
}

// take finds the cheapest way on which a moment is played by the strokes s to s+took.
func (t *table) take(m, s, took int, rows *[reach + 1]row) {
	into := t.match(m, s+took, took)
	if into < 0 {
		return
	}
	a := &t.a
	free := t.free[t.loose(m, s)]
	best, by := free+lost, loosely
	if free == t.passed(m, s) {
		best = free // nothing was played before: there is no thread to lose
	}
	for back := range rows {
		r := &rows[back]
		for end := min(s, r.hi); end >= max(s-reach, r.lo, 1) && r.costs != nil; end-- {
			if best <= free {
				break // whatever ends here costs at least what is free of a reference
			}
			so := r.skipped + gone*float32(s-end)
			for took := 1; took <= min(r.most, end); took++ {
				cost := r.costs[(end-r.lo)*t.most+took-1] + so
				if cost >= best {
					continue
				}
				if cost += stretch(r.asked, a.played[s].At-a.played[end-took].At, a.beat); cost < best {
					best, by = cost, after(back, s-end, took)
				}
			}
		}
	}
	t.played[into], t.stepPlayed[into] = best+pair(a.asked, a.moments[m], a.played, s, s+took, nil), by
}

// passed is what it costs to have played nothing of some moments, in so many strokes.
func (t *table) passed(m, s int) float32 { return gone * float32(t.before[m]+s) }

// trace goes back over the cheapest way.
func (t *table) trace() alignment {
	a := t.a
	a.stroke, a.right = make([]int, len(a.asked)), make([]bool, len(a.asked))
	for i := range a.stroke {
		a.stroke[i] = -1
	}
	m, s := len(a.moments), len(a.played)
	a.cost = t.free[t.loose(m, s)]
	for m > 0 || s > 0 {
		by := t.stepFree[t.loose(m, s)]
		switch by {
		case pastNote:
			m--
			continue
		case pastStroke:
			s--
			continue
		}
		for took := int(by) - 1; ; { // matches that follow each other
			m--
			t.give(&a, m, s-took, s)
			by := t.stepPlayed[t.match(m, s, took)]
			s -= took
			if by == loosely {
				break
			}
			back, between, had := by.from()
			m, s, took = m-back, s-between, had
		}
	}
	return a
}

// give gives the notes of a moment their strokes.
func (t *table) give(a *alignment, m, from, to int) {
	into := make([]int, len(a.moments[m].dues))
	pair(a.asked, a.moments[m], a.played, from, to, into)
	for k, d := range a.moments[m].dues {
		a.stroke[d] = into[k]
		a.right[d] = into[k] >= 0 && fits(a.asked[d], a.played[into[k]])
	}
}
