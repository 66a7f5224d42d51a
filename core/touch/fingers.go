package touch

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"patientladder/core/judgement"
)

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
