package climb

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A Jump is a rung too steep for the student, and an item that would bridge it.
type Jump struct {
	Rung   ladder.Rung
	Load   Load
	Over   float64     // load over the usual
	Bridge *shelf.Item // nil when the shelf has none
	Eases  float64     // how much load the bridge takes off
	Meets  []string    // ids of the new and needed skills that it meets first
	Lacks  []string    // ids of needed skills that are unknown by then
}

// jumps finds rungs ahead that are too steep and, for each, the item of the
// shelf that eases it most without being steep itself.
func (p *Path) jumps(st Student) {
	on := onLadder(st.Standing.Rungs, p.Rungs)
	k := p.now.Clone()
	for _, r := range inTurn(p.Rungs) {
		if r.Taught == nil && p.Loads[r.ID].Total > p.Usual+judgement.TooSteep {
			// steep even when all that can be prepared by then is
			e, _ := p.Expect(r.ID)
			then := k.foreseen(r.Item, e.FromIn)
			if load := then.Weigh(r.Item); load.Total > p.Usual+judgement.TooSteep {
				p.Jumps = append(p.Jumps, p.bridge(st, then, on, r, load))
			}
		}
		k.Learn(r.Item)
	}
}

// foreseen returns what is known with the head starts on an item's new skills
// as far on as they can be some weeks from now.
func (k Knows) foreseen(it shelf.Item, weeks float64) Knows {
	prepared := map[string]float64{}
	for id, share := range k.prepared {
		prepared[id] = share
	}
	for _, id := range it.Brings {
		if n := k.graph[id].Weeks(); n > 0 {
			prepared[id] = math.Min(math.Max(prepared[id], math.Floor(weeks)/float64(n)), 1)
		}
	}
	k.prepared = prepared
	return k
}

func (p *Path) bridge(st Student, k Knows, on map[string]bool, r ladder.Rung, load Load) Jump {
	j := Jump{Rung: r, Load: load, Over: load.Total - p.Usual}
	helps := map[string]bool{}
	for _, id := range load.New {
		helps[id] = true
	}
	for _, id := range r.Item.Needs {
		if k.state[id].Unmet() {
			helps[id] = true
			j.Lacks = append(j.Lacks, id)
		}
	}
	for i, it := range st.Shelf {
		met := slices.Concat(it.Brings, it.Revisits)
		if !slices.ContainsFunc(met, func(id string) bool { return helps[id] }) || !st.offers(it, on) || k.Total(it) > p.Usual+judgement.Climb {
			continue
		}
		after := k.Clone()
		after.Learn(it)
		if eases := load.Total - after.Total(r.Item); eases > j.Eases+1e-9 && eases >= judgement.BridgeEases {
			j.Bridge, j.Eases, j.Meets = &st.Shelf[i], eases, nil
			for _, id := range slices.Concat(load.New, j.Lacks) {
				if slices.Contains(met, id) {
					j.Meets = append(j.Meets, id)
				}
			}
		}
	}
	return j
}

// Why names the jump: how steep, and what is new in it.
func (j Jump) Why(g skill.Graph) reason.Reason {
	args := []string{"title", j.Rung.Item.Title, "over", strconv.FormatFloat(j.Over, 'f', 1, 64),
		"new", strings.Join(g.Names(j.Load.New), ", "), "count", strconv.Itoa(len(j.Load.New)), "needs", strings.Join(g.Names(j.Lacks), ", ")}
	if j.Bridge == nil {
		return reason.Of("jump-no-bridge", args...)
	}
	return reason.Of("jump-bridge", append(args, "bridge", j.Bridge.Title, "book", j.Bridge.Book, "meets", strings.Join(g.Names(j.Meets), ", "))...)
}
