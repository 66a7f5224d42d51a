package lesson

import (
	"cmp"
	"slices"
	"strconv"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/exercise"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/mixture"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
)

// due lists what the lesson might hold, in order of place.
func (ask Ask) due() []Block {
	blocks := []Block{ask.block(SetUp, nil)}
	switch {
	case ask.first():
		blocks = append(blocks, ask.probes()...)
		if !ask.Standing.BeforeBook {
			blocks = append(blocks, ask.current()...)
		}
	case ask.Standing.BeforeBook:
		blocks = append(blocks, ask.probes()...)
		blocks = append(blocks, ask.mixed()...)
	default:
		blocks = append(blocks, ask.current()...)
		blocks = append(blocks, ask.probes()...)
		blocks = append(blocks, ask.secure()...)
		blocks = append(blocks, ask.headStarts()...)
	}
	blocks = append(blocks, ask.activities(blocks)...)
	blocks = append(blocks, ask.close(), ask.block(Home, nil))
	blocks = slices.DeleteFunc(blocks, func(b Block) bool { return ask.unwanted(b.Kind) })
	if ask.Ache != nil {
		blocks = ask.spared(blocks)
	}
	if minutes := ask.back(); minutes > 0 {
		blocks = ask.eased(blocks, minutes)
	}
	slices.SortStableFunc(blocks, byPlace)
	if ask.Path.Break.Light() { // old songs first, then the pieces in hand
		slices.SortStableFunc(blocks, func(x, y Block) int { return easing(x.Kind) - easing(y.Kind) })
	}
	return blocks
}

// unwanted reports whether the teacher left a kind of block out of lesson after lesson, so that it is no
// longer drafted.
func (ask Ask) unwanted(k Kind) bool {
	return ask.Standing.Strikes(ladder.LeftOut(string(k))) >= int(judgement.StruckOften) && !shapes[k].must
}

// easing is the place of a kind after a break.
func easing(k Kind) int {
	switch k {
	case SetUp:
		return 0
	case Opener, Upkeep:
		return 1
	case Close, Home:
		return 3
	}
	return 2
}

// upkeepShare is the least part of upkeep in the lesson.
func (ask Ask) upkeepShare() float64 { return judgement.LessonUpkeep * ask.Approach.UpkeepShare() }

// block makes a block of a kind, about a rung or about nothing.
func (ask Ask) block(k Kind, r *ladder.Rung) Block {
	s := shapeFor(k, ask.Age)
	b := Block{Key: string(k), Kind: k, Band: s.band, Why: []reason.Reason{}, Choices: []Choice{}, Schools: ask.Approach.Cues(string(k), ask.Plays)}
	b.want = want{least: s.least, best: s.best, most: s.most, weight: s.weight, band: s.band, must: s.must}
	if n := ask.Standing.Usual(string(k)); n > 0 { // as long as the teacher makes it
		b.want.best, b.want.most, b.want.least = n, max(n, b.want.most), min(n, b.want.least)
	}
	if s.band == "upkeep" {
		b.want.weight *= 2 * ask.Approach.UpkeepShare()
	}
	if r != nil {
		b.Key, b.Title, b.Rung, b.Cue = string(k)+":"+r.ID, r.Item.Title, r.ID, r.Item.Cue
	}
	return b
}

// mixed gives a block to each small thing of the mixture.
func (ask Ask) mixed() []Block {
	var blocks []Block
	asked := map[string]bool{} // what a question of the same lesson is about
	for _, p := range ask.open() {
		asked[p.Key] = true
	}
	for _, bit := range mixture.Of(ask.Standing, ask.Graph, ask.Path.Known) {
		r, _ := ask.Standing.Rung(bit.Rung)
		if r.Foothold == nil && len(r.Item.Brings) == 1 && asked[r.Item.Brings[0]] {
			continue
		}
		kind := Mixture
		if r.Foothold != nil {
			kind = Opener
		}
		b := ask.block(kind, &r)
		b.Why = append(b.Why, bit.Why)
		blocks = append(blocks, b)
	}
	return blocks
}

// kindOf is the kind of block that a current rung has.
func kindOf(r ladder.Rung) Kind {
	switch r.Strand {
	case shelf.Technique:
		return Technique
	case shelf.Reading:
		return Reading
	}
	return Current
}

// current gives a block to each rung in hand. In the first lesson after a break nothing
// new begins.
func (ask Ask) current() []Block {
	var blocks []Block
	all := ask.Standing.In(ladder.Current)
	begun := false // a new piece
	for _, r := range all {
		if r.Taught == nil && ask.Path.Break.First() {
			continue
		}
		if r.Taught == nil && kindOf(r) == Current {
			if begun && ask.begins() {
				continue
			}
			begun = true
		}
		b := ask.block(kindOf(r), &r)
		b.Why = append(b.Why, whyCurrent(r))
		if n := ask.Standing.Waits(r, ask.Day); n > 0 && !ask.Path.Break.Light() {
			b.waits = n
			b.want.weight *= 1 + float64(min(n, mostWaits))
			b.Why = append(b.Why, reason.Of("left-out-last", "title", r.Item.Title, "lessons", strconv.Itoa(n)))
		}
		for _, other := range all {
			if other.ID != r.ID && kindOf(other) == b.Kind {
				b.Choices = append(b.Choices, Choice{other.ID, other.Item.Title, whyCurrent(other)})
			}
		}
		for _, next := range ask.Standing.In(ladder.Ahead) {
			if kindOf(next) == b.Kind && len(b.Choices) < choices && next.Strand == r.Strand {
				b.Choices = append(b.Choices, Choice{next.ID, next.Item.Title, reason.Of("comes-next", "title", next.Item.Title)})
			}
		}
		b.Choices = b.Choices[:min(len(b.Choices), choices)]
		blocks = append(blocks, b)
	}
	ask.piece(blocks)
	ask.longest(blocks)
	if len(all) == 0 {
		b := ask.block(Open, nil)
		b.want.most = ask.Minutes
		b.Why = append(b.Why, reason.Of("nothing-placed"))
		blocks = append(blocks, b)
	}
	return blocks
}

// beginner is with fewer than how many secure pieces a lesson begins one new piece at most.
// Common practice, no source.
const beginner = 3

// begins reports whether the student is at the very beginning.
func (ask Ask) begins() bool {
	n := 0
	for _, r := range ask.Standing.In(ladder.Secure) {
		if r.Strand.Piece() {
			n++
		}
	}
	return n < beginner
}

// short is up to how many minutes a lesson is so short that a piece takes fewer of them.
const short = 20

// piece has no lesson without a piece in hand: the one that waits for its first lesson, or
// else the first. Common practice, no source.
func (ask Ask) piece(blocks []Block) {
	at := -1
	for i := range blocks {
		if blocks[i].Kind != Current {
			continue
		}
		if ask.Minutes < short {
			blocks[i].want.least = min(blocks[i].want.least, 3)
		}
		if first := blocks[i].Why[0].Code == "first-lesson"; at < 0 || first && blocks[at].Why[0].Code != "first-lesson" {
			at = i
		}
	}
	if at >= 0 {
		blocks[at].want.must = true
	}
}

// mostWaits is how many lessons of waiting add to the weight of a block. A judgement.
const mostWaits = 3

// longest has the lesson hold what was left out of the last lessons for longest, where its least minutes fit beside
// what must be there: an area that was left out comes first the next time.
func (ask Ask) longest(blocks []Block) {
	musts := shapes[SetUp].least + shapes[Close].least + shapes[Home].least
	at := -1
	for i, b := range blocks {
		if b.want.must {
			musts += b.want.least
		} else if b.waits > 0 && (at < 0 || b.waits > blocks[at].waits) {
			at = i
		}
	}
	if at >= 0 && musts+blocks[at].want.least <= ask.Minutes {
		blocks[at].want.must = true
	}
}

// choices is how many other things a block offers.
const choices = 3

func whyCurrent(r ladder.Rung) reason.Reason {
	switch {
	case r.Taught == nil:
		return reason.Of("first-lesson", "title", r.Item.Title)
	case r.Ready():
		return reason.Of("ready-to-try", "title", r.Item.Title)
	}
	missing := r.Missing()
	if len(missing) == 0 {
		return reason.Of("no-goals", "title", r.Item.Title)
	}
	return reason.Of("still-open", "count", strconv.Itoa(len(missing)), "first", first(missing))
}

// opens is how much worse than the best remembered piece one may be that opens a lesson.
// A judgement.
const opens = 0.2

// opener chooses what opens a lesson: of the pieces that are played well the one that
// opened the fewest of the last lessons, then was heard in the fewest, then the best
// remembered; and what could open it instead.
func (ask Ask) opener(pieces []upkeep.Piece) []upkeep.Piece {
	top := best(pieces, 2+choices, func(p *upkeep.Piece) float64 { return p.Recall })
	least := top[0].Recall - opens
	if ask.opened[top[0].ID] == lessonsBack { // three lessons running: another, though it is worse remembered
		least = 0
	}
	top = slices.DeleteFunc(top, func(p upkeep.Piece) bool { return p.Recall < least })
	slices.SortStableFunc(top, func(a, b upkeep.Piece) int {
		return cmp.Or(ask.opened[a.ID]-ask.opened[b.ID], ask.heard[a.ID]-ask.heard[b.ID])
	})
	return top[:min(len(top), 1+choices)]
}

// hearings counts of each piece in how many of the last lessons it was heard, and how many
// of them it opened: it was heard first.
func (ask Ask) hearings() (heard, opened map[string]int) {
	heard, opened = map[string]int{}, map[string]int{}
	type first struct {
		rung string
		at   time.Time
	}
	openers := map[calendar.Date]first{}
	for i := range ask.Standing.Rungs {
		r := &ask.Standing.Rungs[i]
		last := calendar.Date("")
		for _, h := range slices.Backward(r.Heard) {
			day := calendar.On(h.At)
			if len(ask.before) == 0 || day < ask.before[len(ask.before)-1] {
				break
			}
			if !slices.Contains(ask.before, day) {
				continue
			}
			if day != last {
				heard[r.ID]++
				last = day
			}
			if o, there := openers[day]; !there || h.At.Before(o.at) {
				openers[day] = first{r.ID, h.At}
			}
		}
	}
	for _, o := range openers {
		opened[o.rung]++
	}
	return heard, opened
}

// secure gives a block to the piece that opens the lesson, one that is played well, and to
// what the week's upkeep puts first, of what was not heard in the last lessons where there
// is enough of it.
func (ask Ask) secure() []Block {
	pieces := upkeep.Pieces(ask.Standing, ask.Path.Known, ask.At, upkeep.Once(ask.Age))
	if len(pieces) == 0 {
		return nil
	}
	top := ask.opener(pieces)
	opener, _ := ask.Standing.Rung(top[0].ID)
	b := ask.block(Opener, &opener)
	b.Why = append(b.Why, reason.Of("plays-well", "title", opener.Item.Title))
	for _, p := range top[1:] {
		r, _ := ask.Standing.Rung(p.ID)
		b.Choices = append(b.Choices, Choice{r.ID, r.Item.Title, reason.Of("plays-well-too", "recall", strconv.Itoa(int(100*p.Recall)))})
	}
	blocks := []Block{b}
	wanted := 1 + (ask.Minutes-1)/int(judgement.LessonOldPieces) // two from three quarters of an hour on
	if ask.Approach.UpkeepShare() >= 0.75 {
		wanted++
	}
	if ask.Path.Break.Light() {
		wanted++
	}
	rest := slices.DeleteFunc(slices.Clone(pieces), func(p upkeep.Piece) bool { return p.ID == opener.ID })
	for often := 1; often <= lessonsBack; often++ {
		rested := slices.DeleteFunc(slices.Clone(rest), func(p upkeep.Piece) bool { return ask.heard[p.ID] >= often })
		if len(rested) >= wanted || often == lessonsBack && len(rested) > 0 {
			rest, wanted = rested, min(wanted, len(rested))
			break
		}
	}
	silent := best(rest, wanted+choices, func(p *upkeep.Piece) float64 { return float64(p.Silent) })
	minutes := 0
	for _, p := range rest {
		minutes = max(minutes, wanted*p.Minutes)
	}
	chosen := upkeep.Choose(rest, minutes)
	for _, p := range pieces { // what has its day soon is heard in every lesson
		if r, _ := ask.Standing.Rung(p.ID); r.Nearing(ask.Day) && p.ID != opener.ID {
			chosen = slices.Insert(slices.DeleteFunc(chosen, func(c upkeep.Piece) bool { return c.ID == p.ID }), 0, p)
		}
	}
	for i, p := range chosen[:min(wanted, len(chosen))] {
		r, _ := ask.Standing.Rung(p.ID)
		b := ask.block(Upkeep, &r)
		b.Why = append(b.Why, ask.whyKept(p))
		for _, q := range chosen[min(wanted, len(chosen)):] {
			if len(b.Choices) < choices && i == 0 || len(b.Choices) < 1 {
				other, _ := ask.Standing.Rung(q.ID)
				b.Choices = append(b.Choices, Choice{q.ID, other.Item.Title, ask.whyKept(q)})
			}
		}
		for _, q := range silent {
			taken := slices.ContainsFunc(chosen[:min(wanted, len(chosen))], func(c upkeep.Piece) bool { return c.ID == q.ID }) ||
				slices.ContainsFunc(b.Choices, func(c Choice) bool { return c.Into == q.ID })
			if len(b.Choices) < choices && !taken {
				other, _ := ask.Standing.Rung(q.ID)
				b.Choices = append(b.Choices, Choice{q.ID, other.Item.Title, ask.whyKept(q)})
			}
		}
		blocks = append(blocks, b)
	}
	return blocks
}

// best returns the n pieces that are most of something, the most first; between
// equals the newer.
func best(pieces []upkeep.Piece, n int, of func(*upkeep.Piece) float64) []upkeep.Piece {
	var at []int
	for i := range pieces {
		j := len(at)
		for j > 0 && of(&pieces[i]) > of(&pieces[at[j-1]]) {
			j--
		}
		if j < n {
			at = slices.Insert(at, j, i)
			at = at[:min(len(at), n)]
		}
	}
	out := make([]upkeep.Piece, len(at))
	for i, j := range at {
		out[i] = pieces[j]
	}
	return out
}

// whyKept says why a secure piece is heard.
func (ask Ask) whyKept(p upkeep.Piece) reason.Reason {
	r, _ := ask.Standing.Rung(p.ID)
	switch {
	case r.Nearing(ask.Day):
		return reason.Of("polish-for", "title", r.Item.Title, "day", string(r.Target), "days", strconv.Itoa(r.Target.Sub(ask.Day)))
	case ask.Path.Break.Light():
		return reason.Of("after-break", "days", strconv.Itoa(ask.Path.Break.Days))
	case len(p.Carries) > 0:
		return reason.Of("carries", "skill", ask.Graph.Name(p.Carries[0]))
	case p.Recall >= upkeep.Faded:
		return reason.Of("due-again", "days", strconv.Itoa(p.Silent))
	}
	return reason.Of("fading", "recall", strconv.Itoa(int(100*p.Recall)), "days", strconv.Itoa(p.Silent))
}

// headStarts gives a block to each skill that is prepared this week, or a first
// taste of the next rung when none is. After a break there is none.
func (ask Ask) headStarts() []Block {
	if ask.Path.Break.Light() {
		return nil
	}
	var blocks []Block
	for _, h := range ask.Ahead {
		task, now := h.Now()
		step := h.Done + 1
		if !now && h.Warm(ask.At) {
			now, step = true, h.Done
			task, h.Tune = h.Again(ask.Standing, ask.Graph, ask.At)
		}
		if now && (len(blocks) == 0 || len(blocks) == 1 && ask.Minutes >= long) {
			b := ask.block(Ahead, nil)
			b.Key, b.Title, b.Skill, b.Step, b.Cue = "ahead:"+h.Skill, h.Name, h.Skill, step, task.Do+"."
			b.Tune, b.Old = h.Tune, task.Old
			if exercise.Lies(task.Notes, ask.Plays) {
				b.Exercise = task.Notes
			}
			b.Why = append(b.Why, h.Why(ask.Path, ask.Graph))
			blocks = append(blocks, b)
		}
	}
	next := ask.Standing.In(ladder.Ahead)
	if len(blocks) == 0 && len(next) > 0 {
		b := ask.taste(next[0])
		for _, r := range next[1:min(len(next), 1+choices)] {
			b.Choices = append(b.Choices, Choice{r.ID, r.Item.Title, reason.Of("comes-next", "title", r.Item.Title)})
		}
		blocks = append(blocks, b)
	}
	return blocks
}

// taste is a first taste of a rung to come.
func (ask Ask) taste(r ladder.Rung) Block {
	b := ask.block(Ahead, &r)
	b.Why = append(b.Why, reason.Of("comes-next", "title", r.Item.Title))
	return b
}

// into makes the block of a kind for another thing: a rung or an activity.
func (ask Ask) into(k Kind, id string, was Block) (Block, bool) {
	if r, ok := ask.Standing.Rung(id); ok {
		b := ask.block(k, &r)
		switch k {
		case Opener, Upkeep:
			b.Why = append(b.Why, reason.Of("chosen", "title", r.Item.Title))
		case Ahead:
			b = ask.taste(r)
		default:
			if ask.Standing.State(r) == ladder.Current {
				b.Why = append(b.Why, whyCurrent(r))
			} else { // brought forward
				b.Why = append(b.Why, reason.Of("chosen", "title", r.Item.Title))
			}
		}
		b.Choices = otherwise(was, id)
		return b, true
	}
	for _, a := range ask.Bank {
		if a.ID == id {
			b := ask.game(k, a)
			b.Aim = was.Aim
			b.Why = append(b.Why, reason.Of("chosen", "title", a.Title))
			b.Choices = otherwise(was, id)
			return b, true
		}
	}
	return Block{}, false
}

// otherwise are the choices of a block that was changed: those it had, and what
// it was.
func otherwise(was Block, id string) []Choice {
	out := []Choice{}
	back := was.Rung
	if was.Activity != nil {
		back = was.Activity.ID
	}
	if back != "" && len(was.Why) > 0 {
		out = append(out, Choice{back, was.Title, was.Why[0]})
	}
	for _, c := range was.Choices {
		if c.Into != id && len(out) < choices {
			out = append(out, c)
		}
	}
	return out
}

func first(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return list[0]
}
