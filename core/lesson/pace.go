package lesson

import (
	"slices"
	"strconv"

	"patientladder/core/reason"
)

// A Pace is what the rest of a lesson comes to when it runs over.
type Pace struct {
	Over   int             `json:"over" doc:"minutes behind the plan; negative ahead of it"`
	Blocks []PaceBlock     `json:"blocks" doc:"those still to come, with what is left for them; 0 for dropped"`
	Says   []reason.Reason `json:"says"`
}

// A PaceBlock is a block still to come.
type PaceBlock struct {
	Key     string `json:"key"`
	Minutes int    `json:"minutes"`
}

// Pace says what follows when, at a minute of the lesson, a block is in hand: how
// the rest is divided, which blocks drop to what, and which fall out.
func (p Plan) Pace(key string, minute int, ask Ask) Pace {
	out := Pace{Blocks: []PaceBlock{}, Says: []reason.Reason{}}
	at := slices.IndexFunc(p.Blocks, func(b Block) bool { return b.Key == key })
	if at < 0 {
		return out
	}
	end := p.Blocks[at].Start + p.Blocks[at].Minutes
	if out.Over = minute - end; out.Over <= 0 {
		return out
	}
	rest := p.Blocks[at+1:]
	wants := make([]want, len(rest))
	for i, b := range rest {
		wants[i] = ask.block(b.Kind, nil).want // of a plan that was kept, only the blocks are known
		if b.Pinned {
			wants[i].least, wants[i].best, wants[i].most, wants[i].must, wants[i].fixed = b.Minutes, b.Minutes, b.Minutes, true, true
		}
		wants[i].most = min(wants[i].most, b.Minutes) // nothing grows when time is short
		wants[i].best = min(wants[i].best, wants[i].most)
		wants[i].least = min(wants[i].least, b.Minutes)
	}
	left := max(p.Minutes-minute, 0)
	given, _ := divide(wants, left, ask.upkeepShare())
	out.Says = append(out.Says, reason.Of("over", "minutes", strconv.Itoa(out.Over)))
	for i, b := range rest {
		out.Blocks = append(out.Blocks, PaceBlock{b.Key, given[i]})
		switch {
		case given[i] == 0:
			out.Says = append(out.Says, reason.Of("drops-out", "title", b.Title, "kind", string(b.Kind)))
		case given[i] < b.Minutes:
			out.Says = append(out.Says, reason.Of("drops-to", "title", b.Title, "kind", string(b.Kind), "minutes", strconv.Itoa(given[i])))
		}
	}
	return out
}

// stop ends the playing at the minute in which a pain was told: what was given
// stays, and the rest of the lesson is what can be done without playing.
func (p *Plan) stop(ask Ask) {
	var done []Block
	at := 0
	for _, b := range p.Blocks {
		if at >= ask.Stopped || b.Kind == Home {
			break
		}
		b.Minutes = min(b.Minutes, ask.Stopped-at)
		at += b.Minutes
		done = append(done, b)
	}
	rest := Plan{LeftOut: []reason.Reason{}}
	var blocks []Block
	for _, b := range ask.due() {
		given := slices.ContainsFunc(done, func(d Block) bool { return d.Key == b.Key })
		if b.Kind != SetUp && !given {
			blocks = append(blocks, b)
		}
	}
	rest.share(ask, blocks, max(ask.Minutes-at, 0))
	p.Blocks, p.LeftOut = append(done, rest.Blocks...), []reason.Reason{}
}
