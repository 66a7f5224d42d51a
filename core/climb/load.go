package climb

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"time"

	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// A Term is one part of a load.
type Term struct {
	Why    reason.Reason `json:"why"`
	Amount float64       `json:"amount"`
}

// A Load is how much is new in an item for a student: a sum whose terms are
// shown, largest first.
type Load struct {
	Total float64  `json:"total"`
	Terms []Term   `json:"terms"`
	New   []string `json:"new" doc:"ids of skills that are new to the student here"`
	Slope Slope    `json:"slope" enum:"climb,step,landing"`
}

// A Slope says how a load compares with the student's usual.
type Slope string

// The slopes.
const (
	Climb   Slope = "climb"
	Step    Slope = "step"
	Landing Slope = "landing"
)

// Knows is what loads are reckoned against: what a student can do at a point
// of the path.
type Knows struct {
	graph    skill.Graph
	state    map[string]upkeep.SkillState
	prepared map[string]float64 // share of a chain that was followed
	bars     []float64          // different bars of the latest pieces, newest last
	fastest  float64            // quarter notes a minute of a secure piece
	twoHands bool
	Usual    float64 // load of the student's usual rung
}

// recent is how many of the latest pieces count as recent.
const recent = 5

// Clone returns a copy that can go on by itself.
func (k Knows) Clone() Knows {
	state := make(map[string]upkeep.SkillState, len(k.state)+8)
	for id, s := range k.state {
		state[id] = s
	}
	k.state, k.bars = state, slices.Clone(k.bars)
	return k
}

// Learn goes on past an item: what it brings is known from then on. What it takes for
// granted it does not teach.
func (k *Knows) Learn(it shelf.Item) {
	for _, id := range it.Brings {
		k.know(id)
	}
	if n := material(it); n > 0 && it.Strand.Piece() {
		if k.bars = append(k.bars, n); len(k.bars) > recent {
			k.bars = k.bars[1:]
		}
	}
	k.twoHands = k.twoHands || it.Staves > 1
	k.fastest = math.Max(k.fastest, it.Tempo)
}

// know marks a skill secure and, with it, all it rests on.
func (k *Knows) know(id string) {
	if k.state[id] == upkeep.Secure {
		return
	}
	k.state[id] = upkeep.Secure
	for _, below := range k.graph[id].RestsOn {
		if k.state[below].Unmet() {
			k.know(below)
		}
	}
}

// material is the different bars of an item; all of them when no score tells.
func material(it shelf.Item) float64 {
	if it.Different > 0 && it.Exercise != "" && len(it.Parts) > 1 { // a cycle is learnt a key at a time
		return float64(it.Different) / float64(len(it.Parts))
	}
	if it.Different > 0 {
		return float64(it.Different)
	}
	return float64(it.Bars)
}

// Total returns the load of an item without its terms.
func (k Knows) Total(it shelf.Item) float64 {
	total := 0.0
	k.terms(it, func(amount float64, _ string, _ string, _ float64) { total += amount })
	return total
}

// Weigh returns the load of an item.
func (k Knows) Weigh(it shelf.Item) Load {
	l := Load{Terms: []Term{}, New: []string{}}
	k.terms(it, func(amount float64, code, id string, n float64) {
		l.Total += amount
		l.Terms = append(l.Terms, Term{reason.Of(code, "skill", k.graph.Name(id), "n", strconv.Itoa(int(math.Round(n)))), amount})
		if code == "load-new" || code == "load-prepared" {
			l.New = append(l.New, id)
		}
	})
	slices.SortStableFunc(l.Terms, func(a, b Term) int { return cmp.Compare(b.Amount, a.Amount) })
	l.Slope = k.slope(l.Total)
	return l
}

// Has reports whether a skill is met: being learnt, secure or gone rusty.
func (k Knows) Has(skill string) bool { return !k.state[skill].Unmet() }

func (k Knows) slope(total float64) Slope {
	switch {
	case total >= k.Usual+judgement.Climb:
		return Climb
	case total <= k.Usual-judgement.Landing:
		return Landing
	}
	return Step
}

// terms reckons each part of the load: new skills by weight, less for what was
// prepared; needs that are shaky; different bars over the recent pieces'; both
// hands; tempo. add gets the amount, the code of its sentence, the skill, and
// a number for the sentence.
func (k Knows) terms(it shelf.Item, add func(amount float64, code, skill string, n float64)) {
	for _, id := range it.Brings {
		w, p := k.graph[id].Weight, k.prepared[id]
		switch {
		case !k.state[id].Unmet():
			k.shaky(id, add)
		case p > 0:
			add(w*(1-judgement.LoadPrepared*p), "load-prepared", id, 100*p)
		default:
			add(w, "load-new", id, 0)
		}
	}
	for _, id := range it.Needs {
		if w := k.graph[id].Weight; !k.state[id].Unmet() {
			k.shaky(id, add)
		} else if w > 0 {
			add(w*judgement.LoadUnknown, "load-unknown", id, 0)
		}
	}
	if n := material(it); n > 0 && it.Strand.Piece() && len(k.bars) > 0 {
		if over := math.Log2(n / median(k.bars)); over > 0 {
			add(judgement.LoadMaterial*over, "load-material", "", n)
		}
	}
	if it.Staves > 1 && !k.twoHands {
		add(judgement.LoadHands, "load-hands", "", 0)
	}
	if it.Tempo > 0 && k.fastest > 0 {
		if over := math.Log(it.Tempo/k.fastest) / math.Log(1.2); over > 0 {
			add(judgement.LoadTempo*over, "load-tempo", "", it.Tempo)
		}
	}
}

// shaky adds what a skill weighs that was met but is not settled.
func (k Knows) shaky(id string, add func(amount float64, code, skill string, n float64)) {
	switch w := k.graph[id].Weight; k.state[id] {
	case upkeep.Learning:
		add(w*judgement.LoadLearning, "load-learning", id, 0)
	case upkeep.Rusty:
		add(w*judgement.LoadRusty, "load-rusty", id, 0)
	}
}

func median(list []float64) float64 {
	var sorted [recent]float64
	n := copy(sorted[:], list)
	slices.Sort(sorted[:n])
	return math.Max(sorted[n/2], 1)
}

// Begin returns what a student knows before any rung.
func Begin(g skill.Graph, presumed []string) Knows {
	k := Knows{graph: g, state: make(map[string]upkeep.SkillState, 128), prepared: map[string]float64{}, Usual: judgement.UsualLoad}
	for _, id := range presumed {
		k.know(id)
	}
	return k
}

// Along returns the load of each item when they are learnt in order.
func Along(k Knows, items []shelf.Item) []Load {
	k = k.Clone()
	out := make([]Load, len(items))
	for i, it := range items {
		out[i] = k.Weigh(it)
		k.Learn(it)
	}
	return out
}

// begun goes through the rungs as they were first taught and returns the load
// that each had then, by id, and what was usual.
func begun(s ladder.Standing, g skill.Graph, presumed []string) (loads map[string]float64, usual float64) {
	taught := make([]*ladder.Rung, 0, len(s.Rungs))
	for i := range s.Rungs {
		if s.Rungs[i].Taught != nil {
			taught = append(taught, &s.Rungs[i])
		}
	}
	slices.SortStableFunc(taught, func(a, b *ladder.Rung) int { return a.Taught.Compare(*b.Taught) })
	k := Begin(g, presumed)
	loads = make(map[string]float64, len(taught))
	for _, r := range taught {
		loads[r.ID] = k.Total(r.Item)
		k.Learn(r.Item)
	}
	return loads, usualLoad(s, loads, nil)
}

// usualLoad is the usual load of the rungs that were finished by a moment; nil for by now.
func usualLoad(s ladder.Standing, loads map[string]float64, by *time.Time) float64 {
	sum, n := judgement.UsualLoad*judgement.UsualLoadHeld, judgement.UsualLoadHeld
	for i := range s.Rungs {
		r := &s.Rungs[i]
		if load, taught := loads[r.ID]; taught && r.Foothold != nil && len(r.Parts) == 0 && (by == nil || !r.Foothold.After(*by)) {
			sum, n = sum+load, n+1
		}
	}
	return sum / n
}
