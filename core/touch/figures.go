package touch

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"

	"patientladder/core/judgement"
)

// Figures are what was measured of a take.
type Figures struct {
	Asked    int            `json:"asked" doc:"notes"`
	Right    int            `json:"right"`
	Wrong    int            `json:"wrong"`
	Missing  int            `json:"missing"`
	Extra    int            `json:"extra" doc:"strokes that were not asked"`
	Stops    int            `json:"stops" doc:"places at which the thread was lost for a moment"`
	Beat     float64        `json:"beat" doc:"milliseconds of a quarter note"`
	Interval float64        `json:"interval" doc:"milliseconds from note to note, the usual"`
	Heard    float64        `json:"heard" doc:"what listeners notice of such an interval, as a part of it (Friberg & Sundberg 1995)"`
	Spread   float64        `json:"spread" doc:"of the intervals, as a part of them, when drift, lope and fingers are taken out: a robust standard deviation"`
	Lope     float64        `json:"lope" doc:"how long the first of two is beside the second; 1 for even"`
	Drift    float64        `json:"drift" doc:"how much longer the last interval is than the first, as a part of it; below nought: quicker"`
	Apart    float64        `json:"apart" doc:"milliseconds that the left hand comes after the right; 0 where hands do not meet"`
	Scatter  float64        `json:"scatter" doc:"milliseconds of a robust standard deviation of the same"`
	Hands    []HandPlayed   `json:"hands"`
	Fingers  []FingerPlayed `json:"fingers"`
	Said     []Saying       `json:"said" doc:"what can be heard and is more than chance, the first to be thought of first; none for even"`
}

// A HandPlayed is what was measured of a hand.
type HandPlayed struct {
	Hand     string  `json:"hand"`
	Notes    int     `json:"notes" doc:"played"`
	Off      float64 `json:"off" doc:"milliseconds off the steady line, before or after, the mean"`
	Strength float64 `json:"strength" doc:"the usual; 0 for not known"`
}

// A FingerPlayed is what was measured of a finger of a hand.
type FingerPlayed struct {
	Hand   string  `json:"hand"`
	Finger string  `json:"finger"`
	Notes  int     `json:"notes"`
	Late   float64 `json:"late" doc:"milliseconds after the other fingers; below nought before"`
	Heft   float64 `json:"heft" doc:"strength over that of the others"`
}

// What a saying is about.
const (
	Slips   = "slips"
	Stops   = "stops"
	Lope    = "lope"
	Drift   = "drift"
	Spread  = "spread"
	Late    = "late"
	Early   = "early"
	Strong  = "strong"
	Weak    = "weak"
	Apart   = "apart"
	Scatter = "scatter"
)

// A Saying is one figure worth thinking of, and the finger where it is one.
type Saying struct {
	Figure string  `json:"figure" enum:"slips,stops,lope,drift,spread,late,early,strong,weak,apart,scatter"`
	Hand   string  `json:"hand,omitempty"`
	Finger string  `json:"finger,omitempty"`
	Size   float64 `json:"size" doc:"notes, a ratio, a part, milliseconds or strength, as the figure has it"`
	Times  float64 `json:"times" doc:"how many times what is noticed"`
}

// Noticed is the part of an interval by which one tone may be off before listeners notice:
// 2.5 %, or 6 ms of an interval below 240 ms (Friberg & Sundberg 1995).
func Noticed(interval float64) float64 {
	if interval < shortInterval {
		return noticedMs / max(interval, 1)
	}
	return noticedPart
}

const (
	noticedMs     = 6.0
	noticedPart   = 0.025
	shortInterval = 240.0
	ordered       = 20.0 // milliseconds from which the ear tells which came first (Hirsh 1959)
)

// sure is how many standard errors a figure lies from nought before it is more than chance; a finger
// is one of many that might have stood out, so it has to lie further off.
const (
	sure      = 3.0
	surer     = 5.0
	fewest    = 4   // notes of a finger, or intervals, from which anything is said
	window    = 9   // notes over which the steady line follows what was played
	mostSlips = 0.4 // part of the notes beyond which nothing is said of their time
	enough    = 400 // notes of a finger from which its time is found; of more every so manieth
	settling  = 12  // rounds in which the parts of fingers are told apart
)

// An interval lies between two notes of a hand that follow each other.
type interval struct {
	from, to int     // notes that were asked
	asked    float64 // quarter notes
	log      float64 // of the milliseconds of a quarter note that it was played at
}

// A meter takes the figures of an alignment.
type meter struct {
	Measured
	a            alignment
	slope, begin float64 // of the logarithm of the beat, a quarter note; where the first interval begins
}

// measure takes the figures of an alignment.
func measure(a alignment) Measured {
	f := Figures{Asked: len(a.asked), Lope: 1, Hands: []HandPlayed{}, Fingers: []FingerPlayed{}, Said: []Saying{}}
	used := make([]bool, len(a.played))
	for i, s := range a.stroke {
		switch {
		case s < 0:
			f.Missing++
		case a.right[i]:
			f.Right++
		default:
			f.Wrong++
		}
		if s >= 0 {
			used[s] = true
		}
	}
	for _, u := range used {
		if !u {
			f.Extra++
		}
	}
	m := meter{Measured: Measured{Figures: f, Notes: make([]NoteWent, len(a.asked))}, a: a}
	for i, d := range a.asked {
		m.Notes[i] = NoteWent{ID: d.ID, Went: went(a, i)}
	}
	if slips := f.Wrong + f.Missing + f.Extra; float64(slips) > mostSlips*float64(f.Asked) {
		m.Said = []Saying{{Figure: Slips, Size: float64(slips), Times: float64(slips)}}
		return m.Measured // too little of it is there for anything to be said of its time
	}
	m.times()
	m.touches()
	slices.SortStableFunc(m.Fingers, func(x, y FingerPlayed) int {
		return cmp.Or(cmp.Compare(x.Hand, y.Hand), cmp.Compare(strings.Index(fingers, x.Finger), strings.Index(fingers, y.Finger)))
	})
	m.order()
	return m.Measured
}

// fingers in their order, from the thumb.
const fingers = "pima012345"

func went(a alignment, note int) string {
	switch {
	case a.stroke[note] < 0:
		return "missing"
	case a.right[note]:
		return "right"
	}
	return "wrong"
}

// lines are the notes of each hand in order, one a moment; without hands all are one.
func lines(a alignment) map[string][]int {
	out := map[string][]int{}
	for _, m := range a.moments {
		had := map[string]bool{}
		for _, d := range m.dues {
			if h := a.asked[d].Hand; !had[h] {
				had[h] = true
				out[h] = append(out[h], d)
			}
		}
	}
	return out
}

// intervals are those of a line between notes that were both played, and how often the thread was
// lost between two.
func (m *meter) intervals(line []int) []interval {
	a := m.a
	out := make([]interval, 0, len(line))
	for k := 1; k < len(line); k++ {
		from, to := line[k-1], line[k]
		if a.stroke[from] < 0 || a.stroke[to] < 0 {
			continue
		}
		asked := a.asked[to].Onset - a.asked[from].Onset
		played := a.played[a.stroke[to]].At - a.played[a.stroke[from]].At
		if played <= 0 || stretch(asked, played, a.beat) >= lost {
			m.Stops++
			continue
		}
		out = append(out, interval{from, to, asked, math.Log(played / asked)})
	}
	return out
}

// times measures drift, lope, spread, fingers and hands in time.
func (m *meter) times() {
	if m.a.beat == 0 {
		m.a.beat = m.a.usual()
	}
	a, all := m.a, map[string][]interval{}
	hands := lines(a)
	var rest []float64
	for _, h := range slices.Sorted(maps.Keys(hands)) {
		all[h] = m.intervals(hands[h])
	}
	m.drift(all)
	var usual, beats []float64
	for _, h := range slices.Sorted(maps.Keys(hands)) {
		for _, v := range all[h] {
			usual = append(usual, v.asked*math.Exp(v.log))
			beats = append(beats, math.Exp(v.log))
		}
	}
	if len(usual) == 0 {
		return
	}
	m.Interval, m.Beat = median(usual), median(beats)
	m.Heard = Noticed(m.Interval)
	for _, h := range slices.Sorted(maps.Keys(hands)) {
		list := all[h]
		straight := m.straight(list)
		lope, sure := loping(a, list, straight)
		if math.Abs(math.Log(lope)) > math.Abs(math.Log(m.Lope)) {
			m.Lope = lope
			if part := math.Abs(lope-1) / (lope + 1); sure && part > m.Heard {
				m.Said = slices.DeleteFunc(m.Said, func(s Saying) bool { return s.Figure == Lope })
				m.Said = append(m.Said, Saying{Figure: Lope, Hand: h, Size: lope, Times: part / m.Heard})
			}
		}
		late := m.late(h, list, straight, lope)
		for k, v := range list {
			off := straight[k] - parity(a, v)*math.Log(lope)/2
			off -= math.Log1p((late[a.asked[v.to].Finger] - late[a.asked[v.from].Finger]) / (v.asked * m.Beat))
			rest = append(rest, off)
		}
	}
	m.Spread = spread(rest)
	if n := len(rest); n >= fewest && m.Spread > m.Heard && m.Spread-sure*m.Spread/math.Sqrt(2*float64(n)) > m.Heard {
		m.Said = append(m.Said, Saying{Figure: Spread, Size: m.Spread, Times: m.Spread / m.Heard})
	}
	m.together()
}

// drift measures how the beat changes from the beginning to the end: the median of the slopes between
// intervals of the first and the last half (Theil 1950, thinned), in the logarithm.
func (m *meter) drift(all map[string][]interval) {
	a := m.a
	type point struct{ at, log float64 }
	var list []point
	for _, h := range all {
		for _, v := range h {
			list = append(list, point{a.asked[v.from].Onset, v.log})
		}
	}
	slices.SortFunc(list, func(x, y point) int { return cmp.Or(cmp.Compare(x.at, y.at), cmp.Compare(x.log, y.log)) })
	if len(list) < 2*fewest {
		return
	}
	// at most so many blocks of neighbours, each by its median: a lope within a block cancels
	const blocks = 100
	size := 2 * max(1, (len(list)+2*blocks-1)/(2*blocks))
	var thin []point
	for k := 0; k+size <= len(list); k += size {
		var at, logs []float64
		for _, p := range list[k : k+size] {
			at, logs = append(at, p.at), append(logs, p.log)
		}
		thin = append(thin, point{median(at), median(logs)})
	}
	var slopes []float64
	for i := range thin {
		for j := i + 1; j < len(thin); j++ {
			if d := thin[j].at - thin[i].at; d > 0 {
				slopes = append(slopes, (thin[j].log-thin[i].log)/d)
			}
		}
	}
	slope := median(slopes)
	m.slope, m.begin = slope, list[0].at
	long := list[len(list)-1].at - list[0].at
	m.Drift = math.Expm1(slope * long)
	var rest []float64
	for _, p := range thin {
		rest = append(rest, p.log-slope*p.at)
	}
	se := math.Sqrt(12) * spread(rest) / math.Sqrt(float64(len(thin)))
	usual := make([]float64, len(list))
	for i, p := range list {
		usual[i] = math.Exp(p.log)
	}
	noticed := Noticed(median(usual) * a.shortest())
	if off := math.Abs(m.Drift); off > noticed && off > sure*se {
		m.Said = append(m.Said, Saying{Figure: Drift, Size: m.Drift, Times: off / noticed})
	}
}

// shortest is the usual interval that was asked, in quarter notes.
func (a alignment) shortest() float64 {
	var list []float64
	for i := 1; i < len(a.moments); i++ {
		list = append(list, a.moments[i].onset-a.moments[i-1].onset)
	}
	return median(list)
}

// straight are the logarithms of intervals with their drift and their middle taken out.
func (m *meter) straight(list []interval) []float64 {
	a := m.a
	out := make([]float64, len(list))
	for k, v := range list {
		out[k] = v.log - m.slope*(a.asked[v.from].Onset-m.begin)
	}
	mid := median(out)
	for k := range out {
		out[k] -= mid
	}
	return out
}

// parity is +1 for the first of two intervals, -1 for the second, 0 for what is no half of two.
func parity(a alignment, v interval) float64 {
	n := a.asked[v.from].Onset / v.asked
	if r := math.Round(n); math.Abs(n-r) < 1e-3 {
		return float64(1 - 2*(int(r)&1))
	}
	return 0
}

// loping is how long the first of two intervals is beside the second, and whether that is more than
// chance. It is one only where it holds whichever finger plays the second: a single finger that is late
// does not lope.
func loping(a alignment, list []interval, straight []float64) (ratio float64, beyond bool) {
	by := map[string][]float64{}
	for k := 0; k+1 < len(list); k++ {
		u, v := list[k], list[k+1]
		if u.to != v.from || math.Abs(u.asked-v.asked) > 1e-6 || parity(a, u) != 1 {
			continue
		}
		finger := a.asked[u.to].Finger
		by[finger] = append(by[finger], straight[k]-straight[k+1])
	}
	var mids, errs []float64
	n := 0
	for _, f := range slices.Sorted(maps.Keys(by)) {
		if len(by[f]) < fewest/2 {
			continue
		}
		n += len(by[f])
		mids = append(mids, median(by[f]))
		errs = append(errs, errorOf(spread(by[f]), len(by[f])))
	}
	if n < fewest {
		return 1, false
	}
	log := median(mids)
	if len(mids) == 2 {
		switch {
		case mids[0]*mids[1] <= 0:
			log = 0
		case math.Abs(mids[0]) < math.Abs(mids[1]):
			log = mids[0]
		default:
			log = mids[1]
		}
	}
	return math.Exp(log), math.Abs(log) > sure*median(errs)/math.Sqrt(float64(len(errs)))
}

// order puts what is said in order: what stands in the way of everything else first, then by how many
// times what is noticed.
func (m *meter) order() {
	if slips := m.Wrong + m.Missing + m.Extra; slips > 0 {
		m.Said = append(m.Said, Saying{Figure: Slips, Size: float64(slips), Times: float64(slips) / float64(m.Asked) / judgement.TouchSlips})
	}
	if m.Stops > 0 {
		m.Said = append(m.Said, Saying{Figure: Stops, Size: float64(m.Stops), Times: float64(m.Stops)})
	}
	rank := func(s Saying) int {
		switch {
		case (s.Figure == Slips || s.Figure == Stops) && s.Times > 1:
			return 0
		case s.Figure == Slips || s.Figure == Stops:
			return 2
		}
		return 1
	}
	slices.SortStableFunc(m.Said, func(x, y Saying) int { return cmp.Or(cmp.Compare(rank(x), rank(y)), cmp.Compare(y.Times, x.Times)) })
}
