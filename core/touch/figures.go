package touch

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"

	"gonum.org/v1/gonum/stat"

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

// late measures how late each finger of a hand comes, from the intervals before and after it, and
// returns it in milliseconds by finger.
func (m *meter) late(hand string, list []interval, straight []float64, lope float64) map[string]float64 {
	a := m.a
	var names []string
	number := map[string]int{}
	of := func(note int) int {
		f := a.asked[note].Finger
		n, had := number[f]
		if !had {
			n = len(names)
			names, number[f] = append(names, f), n
		}
		return n
	}
	// a note beside the line through its neighbours, which hold a part each
	type place struct {
		off, part    float64
		before, next int
	}
	by := [][]place{}
	for k := 0; k+1 < len(list); k++ {
		u, v := list[k], list[k+1]
		if u.to != v.from {
			continue
		}
		before := u.asked * m.Beat * math.Exp(straight[k]-parity(a, u)*math.Log(lope)/2)
		after := v.asked * m.Beat * math.Exp(straight[k+1]-parity(a, v)*math.Log(lope)/2)
		p := place{(before*v.asked - after*u.asked) / (u.asked + v.asked), v.asked / (u.asked + v.asked), of(u.from), of(v.to)}
		m.Notes[u.to].Off = p.off
		f := of(u.to)
		for len(by) < len(names) {
			by = append(by, nil)
		}
		by[f] = append(by[f], p)
	}
	// A note late by one makes its neighbours seem early by a half: a finger's own part is found by
	// taking out, in turn, what the others were found to be.
	late, errs := make([]float64, len(names)), make([]float64, len(names))
	notes := make([]int, len(by))
	for f, places := range by {
		notes[f] = len(places)
		by[f] = thinned(places, enough)
	}
	for round := range settling {
		for f, places := range by {
			own := make([]float64, len(places))
			for i, p := range places {
				own[i] = p.off + p.part*late[p.before] + (1-p.part)*late[p.next]
			}
			late[f] = (late[f] + median(own)) / 2
			if round == settling-1 {
				errs[f] = errorOf(spread(own), max(len(own), 1))
			}
		}
		zero := median(late)
		for f := range late {
			late[f] -= zero
		}
	}
	out := map[string]float64{}
	for _, name := range slices.Sorted(slices.Values(names)) {
		f := number[name]
		if name == "" || f >= len(by) || notes[f] < fewest || len(names) < 2 {
			continue
		}
		out[name] = late[f]
		m.finger(hand, name).Notes, m.finger(hand, name).Late = notes[f], late[f]
		figure := Late
		if late[f] < 0 {
			figure = Early
		}
		noticed := m.Heard * m.Interval
		if size := math.Abs(late[f]); size > noticed && size > surer*errs[f] {
			m.Said = append(m.Said, Saying{figure, hand, name, size, size / noticed})
		}
	}
	return out
}

// thinned keeps at most so many of a list, evenly taken.
func thinned[T any](list []T, most int) []T {
	if len(list) <= most {
		return list
	}
	out := make([]T, most)
	for i := range out {
		out[i] = list[i*len(list)/most]
	}
	return out
}

// finger is the entry of a finger, made where there is none.
func (m *meter) finger(hand, finger string) *FingerPlayed {
	i := slices.IndexFunc(m.Fingers, func(f FingerPlayed) bool { return f.Hand == hand && f.Finger == finger })
	if i < 0 {
		i = len(m.Fingers)
		m.Fingers = append(m.Fingers, FingerPlayed{Hand: hand, Finger: finger})
	}
	return &m.Fingers[i]
}

// together measures how far the hands are apart where they meet, and each hand's distance from the
// line that both keep.
func (m *meter) together() {
	a := m.a
	var apart []float64
	off := map[string][]float64{}
	base := m.line()
	for i, mo := range a.moments {
		l, r := math.NaN(), math.NaN()
		for _, d := range mo.dues {
			if s := a.stroke[d]; s >= 0 {
				at := a.played[s].At
				switch {
				case a.asked[d].Hand == "left" && math.IsNaN(l):
					l = at
				case a.asked[d].Hand == "right" && math.IsNaN(r):
					r = at
				}
				off[a.asked[d].Hand] = append(off[a.asked[d].Hand], math.Abs(at-base[i]))
			}
		}
		if d := l - r; !math.IsNaN(d) {
			apart = append(apart, d)
		}
	}
	for _, h := range slices.Sorted(maps.Keys(off)) {
		m.Hands = append(m.Hands, HandPlayed{Hand: h, Notes: len(off[h]), Off: stat.Mean(off[h], nil)})
	}
	if len(apart) < fewest {
		return
	}
	m.Apart, m.Scatter = median(apart), spread(apart)
	if size := math.Abs(m.Apart); size > ordered && size > sure*errorOf(m.Scatter, len(apart)) {
		hand := "left"
		if m.Apart < 0 {
			hand = "right"
		}
		m.Said = append(m.Said, Saying{Figure: Apart, Hand: hand, Size: size, Times: size / ordered})
	}
	if n := len(apart); m.Scatter-sure*m.Scatter/math.Sqrt(2*float64(n)) > ordered {
		m.Said = append(m.Said, Saying{Figure: Scatter, Size: m.Scatter, Times: m.Scatter / ordered})
	}
}

// line is where each moment would stand on the steady line that a take keeps: its tempo, with the
// middle of the nearest moments as they were played. NaN for what was not played.
func (m *meter) line() []float64 {
	a := m.a
	steady := func(onset float64) float64 { // milliseconds, from any zero
		if math.Abs(m.slope) < 1e-9 {
			return m.Beat * onset
		}
		mid := (a.moments[len(a.moments)-1].onset + m.begin) / 2
		return m.Beat * math.Expm1(m.slope*(onset-mid)) / m.slope
	}
	out := make([]float64, len(a.moments))
	var at []int
	var off, list []float64
	for i := range a.moments {
		out[i] = math.NaN()
		list = list[:0]
		for _, d := range a.moments[i].dues {
			if s := a.stroke[d]; s >= 0 {
				list = append(list, a.played[s].At)
			}
		}
		if len(list) > 0 {
			at, off = append(at, i), append(off, median(list)-steady(a.moments[i].onset))
		}
	}
	for k, i := range at {
		lo, hi := max(0, k-window/2), min(len(at), k+window/2+1)
		out[i] = steady(a.moments[i].onset) + median(off[lo:hi])
	}
	return out
}

// touches measures strength, hand by hand and finger by finger.
func (m *meter) touches() {
	a := m.a
	type of struct{ hand, finger string }
	by, hands := map[of][]float64{}, map[string][]float64{}
	for i, d := range a.asked {
		if s := a.stroke[i]; s >= 0 && a.played[s].Strength > 0 {
			x := float64(a.played[s].Strength)
			hands[d.Hand] = append(hands[d.Hand], x)
			if d.Finger != "" {
				by[of{d.Hand, d.Finger}] = append(by[of{d.Hand, d.Finger}], x)
			}
		}
	}
	usual := map[string]float64{}
	for h, list := range hands {
		usual[h] = median(list)
	}
	for i, d := range a.asked {
		if s := a.stroke[i]; s >= 0 && a.played[s].Strength > 0 {
			m.Notes[i].Heft = a.played[s].Strength - int(math.Round(usual[d.Hand]))
		}
	}
	for i := range m.Hands {
		m.Hands[i].Strength = usual[m.Hands[i].Hand]
	}
	keys := slices.SortedFunc(maps.Keys(by), func(x, y of) int { return cmp.Or(cmp.Compare(x.hand, y.hand), cmp.Compare(x.finger, y.finger)) })
	for _, k := range keys {
		n := len(by[k])
		var others []float64
		for _, o := range keys {
			if o.hand == k.hand && o.finger != k.finger && len(by[o]) >= fewest {
				others = append(others, median(by[o]))
			}
		}
		if n < fewest || len(others) == 0 {
			continue
		}
		heft := median(by[k]) - median(others)
		f := m.finger(k.hand, k.finger)
		f.Notes, f.Heft = n, heft
		figure := Strong
		if heft < 0 {
			figure = Weak
		}
		if size := math.Abs(heft); size >= judgement.TouchStrength && size > surer*errorOf(spread(by[k]), n) {
			m.Said = append(m.Said, Saying{figure, k.hand, k.finger, size, size / judgement.TouchStrength})
		}
	}
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
