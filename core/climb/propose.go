package climb

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// FillKey is the name of the suggestion to fill the ladder, by which a teacher
// turns all proposals down.
const FillKey = "proposals"

// rungsAhead is how many rungs a ladder looks ahead.
const rungsAhead = 12

// A Proposal is a rung that is not on the ladder yet, and why it would come.
type Proposal struct {
	Item shelf.Item
	Why  []reason.Reason
}

// propose fills the ladder up to twelve rungs ahead from the books and pools
// chosen for the student.
func (p *Path) propose(st Student, k Knows, coming []ladder.Rung, last float64) {
	wish := Wish{Want: rungsAhead - len(coming), NewSkills: st.Approach.NewSkills(), Graded: st.Approach[approach.Slope] == approach.Graded,
		Taste: TasteOf(st.Standing), Ahead: map[shelf.Strand]int{}, Last: last}
	for _, r := range coming {
		wish.Ahead[r.Strand]++
	}
	if wish.Want <= 0 || len(st.Standing.Books) == 0 || st.Standing.Refused(FillKey, st.Now) {
		return
	}
	for _, q := range choose(k, candidates(st, k), wish) {
		it := q.Item
		if k.unknown(it) >= tooMany || k.below(it) {
			continue
		}
		p.Proposals = append(p.Proposals, q)
		p.Loads[it.ID] = k.Weigh(it)
		k.Learn(it)
		p.Rungs = append(p.Rungs, ladder.Rung{ID: it.ID, Item: it, Strand: it.Strand})
	}
}

// A Dry lane has nothing in hand, ahead or proposed.
type Dry struct {
	Strand shelf.Strand
	Why    reason.Reason
}

// dry finds the lanes that ran dry, and why: the chosen books have nothing for them, or all
// of it is on the ladder, or what is left is too far off.
func (p *Path) dry(st Student) {
	if len(st.Standing.Books) == 0 || len(p.Rungs) == 0 {
		return
	}
	on := onLadder(st.Standing.Rungs)
	for _, lane := range shelf.Strands {
		if slices.ContainsFunc(p.Rungs, func(r ladder.Rung) bool { return r.Strand == lane }) {
			continue
		}
		code := "lane-none"
		for _, it := range st.Shelf {
			if it.Strand != lane || !slices.Contains(st.Standing.Books, it.Book) {
				continue
			}
			if code == "lane-none" {
				code = "lane-done"
			}
			if !on[it.ID] && st.offers(it, on) {
				code = "lane-waits"
			}
		}
		p.Dry = append(p.Dry, Dry{lane, reason.Of(code, "lane", string(lane), "books", strings.Join(st.Standing.Books, ", "))})
	}
}

// tooMany is how many things that a piece takes for granted may be unknown for it not to be
// offered. Common practice, no source.
const tooMany = 3

// unknown counts what an item takes for granted and the student has not met.
func (k Knows) unknown(it shelf.Item) int {
	n := 0
	for _, id := range it.Needs {
		if k.state[id].Unmet() && k.graph[id].Weight > 0 {
			n++
		}
	}
	return n
}

// farBelow is how many times shorter than the latest pieces repertoire is that is far below
// the student, where nothing in it is new. A judgement.
const farBelow = 2.5

// below reports whether repertoire is far below the student: all it asks for is secure, and
// there is much less of it than of the latest pieces.
func (k Knows) below(it shelf.Item) bool {
	if it.Strand != shelf.Repertoire || len(k.bars) < recent {
		return false
	}
	for _, id := range it.Skills() {
		if k.state[id] != upkeep.Secure {
			return false
		}
	}
	usual := slices.Sorted(slices.Values(k.bars))[recent/2]
	return material(it) > 0 && farBelow*material(it) < usual
}

// choose orders the candidates and says why each comes where it does.
func choose(k Knows, items []shelf.Item, wish Wish) []Proposal {
	order, _ := Order(k, items, wish)
	out := make([]Proposal, 0, len(order))
	for _, c := range order {
		it := items[c.Index]
		var why []reason.Reason
		say := func(code string, pairs ...string) {
			why = append(why, reason.Of(code, append([]string{"title", it.Title}, pairs...)...))
		}
		switch {
		case c.AfterClimb && c.Load <= k.Usual:
			say("landing-after-climb")
		case len(c.Passed) > 0:
			say("before-in-book", "passed", items[c.Passed[0]].Title, "book", it.Book)
		case it.Strand == shelf.Repertoire && it.Taste != "" && wish.Taste[it.Taste] >= 0.5:
			say("to-taste", "taste", string(it.Taste))
		default:
			say("next-in-book", "book", it.Book)
		}
		if c.Load >= k.Usual+judgement.Climb {
			say("a-climb", "load", strconv.FormatFloat(c.Load, 'f', 1, 64))
		}
		out = append(out, Proposal{it, why})
	}
	return out
}

// songs is how many pieces of repertoire are weighed against each other.
const songs = 8

// candidates lists the next items of each chosen book and pool, lane by lane,
// that may be offered; of repertoire, which has no order, those whose load is nearest to
// what is usual for the student.
func candidates(st Student, k Knows) []shelf.Item {
	chosen := map[string]bool{}
	for _, b := range st.Standing.Books {
		chosen[b] = true
	}
	on := onLadder(st.Standing.Rungs)
	room := map[shelf.Strand]int{shelf.Book: 9, shelf.Technique: 5, shelf.Reading: 4, shelf.Repertoire: len(st.Shelf)}
	from := starts(st, chosen)
	var out []shelf.Item
	for i, it := range st.Shelf {
		if !chosen[it.Book] || room[it.Strand] == 0 || !st.offers(it, on) {
			continue
		}
		if it.Strand != shelf.Repertoire && i < from[it.Strand] {
			continue // below where the student stands or began
		}
		room[it.Strand]--
		out = append(out, it)
	}
	return nearest(out, k)
}

// nearest keeps of the repertoire among some items the songs that fit, in their order.
func nearest(list []shelf.Item, k Knows) []shelf.Item {
	type song struct {
		at  int
		off float64 // from what is usual
	}
	var loose []song
	for i, it := range list {
		if it.Strand == shelf.Repertoire && k.unknown(it) < tooMany && !k.below(it) {
			loose = append(loose, song{i, math.Abs(k.Total(it) - k.Usual)})
		}
	}
	slices.SortStableFunc(loose, func(a, b song) int { return cmp.Compare(a.off, b.off) })
	kept := map[int]bool{}
	for _, s := range loose[:min(len(loose), songs)] {
		kept[s.at] = true
	}
	var out []shelf.Item
	for i, it := range list {
		if it.Strand != shelf.Repertoire || kept[i] {
			out = append(out, it)
		}
	}
	return out
}

// starts returns for each lane the place on the shelf from which items are
// offered: after the last of a chosen book that is on the ladder; where the lane
// has none, the unit of the lowest rung of any lane; on an empty ladder, the
// unit at which the student began.
func starts(st Student, chosen map[string]bool) map[shelf.Strand]int {
	place := map[string]int{}
	for i, it := range st.Shelf {
		place[it.ID] = i
	}
	lane := map[shelf.Strand]int{}
	least, found := place[st.Standing.Began]
	for _, r := range st.Standing.Rungs {
		i, there := place[r.Item.ID]
		if !there || !chosen[r.Item.Book] || r.Strand == shelf.Repertoire {
			continue
		}
		if len(lane) == 0 {
			least, found = i, true
		}
		lane[r.Strand] = max(lane[r.Strand], i+1)
		least = min(least, i)
	}
	for _, s := range shelf.Strands {
		if lane[s] == 0 && found {
			lane[s] = unitOf(st.Shelf, least)
		}
	}
	return lane
}

// unitOf returns the place of the first item of the unit that an item is in.
func unitOf(items []shelf.Item, at int) int {
	for at > 0 && items[at-1].Unit == items[at].Unit && items[at-1].Book == items[at].Book {
		at--
	}
	return at
}

// TasteOf returns how well each taste suits, 0 to 1: as asked, and as seen in
// what the student opens with. It is empty when nothing tells.
func TasteOf(s ladder.Standing) map[shelf.Taste]float64 {
	seen, total := map[shelf.Taste]float64{}, 0.0
	if s.Taste != "" {
		seen[s.Taste], total = 4, 4
	}
	for _, r := range s.Rungs {
		if r.Item.Taste != "" && r.Opened > 0 {
			n := math.Min(float64(r.Opened), 5)
			seen[r.Item.Taste] += n
			total += n
		}
	}
	out := map[shelf.Taste]float64{}
	for t, n := range seen {
		out[t] = n / total
	}
	return out
}

// Presumed returns the skills taken for granted of a student who begins at an
// item: what the units before it in its book carry, and what the rest of the
// book needs, or comes back to, and does not bring itself; and with each skill what it rests on.
func Presumed(g skill.Graph, items []shelf.Item, began string) []string {
	at := slices.IndexFunc(items, func(it shelf.Item) bool { return it.ID == began })
	if at < 0 {
		return nil
	}
	at = unitOf(items, at)
	book := func(it shelf.Item) bool {
		return it.Book == items[at].Book && it.Instrument == items[at].Instrument && it.Strand != shelf.Repertoire
	}
	brought := map[string]bool{}
	for _, it := range items[at:] {
		if book(it) {
			for _, id := range it.Brings {
				brought[id] = true
			}
		}
	}
	var out []string
	var take func(ids []string, but map[string]bool)
	take = func(ids []string, but map[string]bool) {
		for _, id := range ids {
			if !but[id] && !slices.Contains(out, id) {
				out = append(out, id)
				take(g[id].RestsOn, brought)
			}
		}
	}
	for i, it := range items {
		switch {
		case !book(it):
		case i < at:
			take(it.Skills(), nil)
		default:
			take(slices.Concat(it.Needs, it.Revisits), brought)
		}
	}
	return out
}
