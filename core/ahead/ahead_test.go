package ahead

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// leastLateness tries every way of filling the weeks.
func leastLateness(chains []Chain, machines int) int {
	best := 1 << 30
	var week func(done []int, w, late int)
	week = func(done []int, w, late int) {
		open := []int{}
		for i, c := range chains {
			if done[i] < c.Length {
				open = append(open, i)
			}
		}
		if len(open) == 0 {
			best = min(best, late)
			return
		}
		for set := 1; set < 1<<len(open); set++ {
			next, n, l := append([]int{}, done...), 0, late
			for j, i := range open {
				if set&(1<<j) != 0 {
					next[i]++
					n++
					if next[i] == chains[i].Length {
						l = max(l, w+1-chains[i].Due)
					}
				}
			}
			if n <= machines && l < best {
				week(next, w+1, l)
			}
		}
	}
	week(make([]int, len(chains)), 0, -1<<30)
	return best
}

func TestScheduleIsOptimal(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 9))
	for n := range 400 {
		chains := make([]Chain, 1+rng.IntN(4))
		for i := range chains {
			chains[i] = Chain{1 + rng.IntN(3), rng.IntN(8) - 1}
		}
		machines := 1 + rng.IntN(2)
		slots, late := Schedule(chains, machines)
		require.Equal(t, leastLateness(chains, machines), late, "case %d: %v on %d", n, chains, machines)
		perWeek, step := map[int]int{}, map[int]int{}
		last := map[int]int{}
		for _, s := range slots {
			perWeek[s.Week]++
			require.LessOrEqual(t, perWeek[s.Week], machines)
			require.Equal(t, step[s.Chain], s.Step, "one step after another")
			if s.Step > 0 {
				require.Greater(t, s.Week, last[s.Chain])
			}
			step[s.Chain]++
			last[s.Chain] = s.Week
		}
	}
}

var (
	graph  = skill.Catalogue()
	monday = time.Date(2026, 11, 16, 0, 0, 0, 0, time.UTC)
)

// emil is four rungs below a jig that brings two skills.
func emil(prepared map[string]ladder.HeadStart) (ladder.Standing, climb.Path) {
	at := time.Date(2026, 11, 11, 16, 0, 0, 0, time.UTC)
	piece := func(id string, brings ...string) ladder.Rung {
		return ladder.Rung{ID: id, Strand: shelf.Book, Item: shelf.Item{ID: id, Title: id, Instrument: "cello", Strand: shelf.Book, Brings: brings}}
	}
	lamp := piece("Lamp Room", "halves")
	lamp.Taught = &at
	s := ladder.Standing{Prepared: prepared, Rungs: []ladder.Rung{lamp, piece("Slipway Song"), piece("Half Tide"), piece("Reel"), piece("Jig", "reach-back", "quick-crossings")}}
	p := climb.Reckon(climb.Student{Standing: s, Graph: graph, Approach: approach.Default(8), Plays: instrument.Shipped.Of("cello"), Slot: calendar.Slot{Weekday: time.Wednesday, Start: "16:00", Minutes: 30}, Now: at.AddDate(0, 0, 7)})
	return s, p
}

func TestAHeadStartFourRungsAway(t *testing.T) {
	s, p := emil(nil)
	got := Plan(s, graph, p, 2, monday)
	require.Len(t, got, 2)
	h := got[0]
	assert.Equal(t, "reach-back", h.Skill)
	assert.Equal(t, 4, h.Rungs)
	assert.Len(t, h.Tasks, 4)
	assert.LessOrEqual(t, h.Ready, h.Due)
	assert.Contains(t, []State{Running, Waiting}, h.State)
	why := h.Why(p, graph)
	assert.Equal(t, []string{"head-start", "Jig", "quick-crossings"}, []string{why.Code, why.Args["title"], why.Args["with"]})

	s, p = emil(map[string]ladder.HeadStart{"reach-back": {Done: 4}, "quick-crossings": {Done: 1}})
	got = Plan(s, graph, p, 2, monday)
	assert.Equal(t, Ready, got[0].State)
	_, more := got[0].Now()
	assert.False(t, more)
	assert.Equal(t, 1, got[1].Done)
}

func TestWhatCannotBeReadySaysWhatToDo(t *testing.T) {
	s, p := emil(nil)
	for i := range p.Expected {
		if p.Expected[i].Rung == "Jig" {
			p.Expected[i].FromIn = 2
		}
	}
	got := Plan(s, graph, p, 1, monday)
	late := got[0]
	if late.State != Late {
		late = got[1]
	}
	require.Equal(t, Late, late.State)
	var fixes []string
	for _, f := range late.Fixes {
		fixes = append(fixes, f.Do)
	}
	assert.Equal(t, []string{"landing", "delay", "drop"}, fixes)
	assert.Equal(t, "head-start-late", late.Why(p, graph).Code)
	task, now := got[0].Now()
	assert.True(t, now)
	assert.Positive(t, task.Minutes)
}
