// Package lesson plans the minutes of a lesson.
//
// A plan is a list of blocks in the order they are given, whole minutes each,
// that add up to the length of the lesson. What fills a block is what is due:
// current rungs, the secure piece most nearly forgotten, the next rung ahead.
//
// Minutes are given one at a time to the block that gains most by another; as
// every block's gain falls with each minute, this is the best division for the
// blocks chosen. Weights and least minutes are ours, a judgement, in the table
// shapes; a larger weight gives that kind more of the lesson.
package lesson

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/mixture"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

// A Kind is what a block is for.
type Kind string

// The kinds of blocks.
const (
	SetUp     Kind = "set-up"
	Opener    Kind = "opener"
	Technique Kind = "technique"
	Current   Kind = "current"
	Reading   Kind = "reading"
	Upkeep    Kind = "upkeep"
	Ahead     Kind = "ahead"
	Mixture   Kind = "mixture" // a small thing before the first book
	Open      Kind = "open"    // nothing is placed yet
	Close     Kind = "close"
	Home      Kind = "home"
)

// Kinds lists them in the order of a lesson.
var Kinds = []Kind{SetUp, Opener, Technique, Current, Mixture, Reading, Upkeep, Ahead, Open, Close, Home}

// shapes holds for each kind its place in the lesson, its least minutes, its
// weight, the order in which it is left out when minutes are short (0: never)
// and its band.
var shapes = map[Kind]struct {
	place, least int
	weight       float64
	dropped      int
	band         string
}{
	SetUp:     {0, 1, 0.8, 0, ""},
	Opener:    {1, 2, 1, 5, "upkeep"},
	Technique: {2, 3, 1.3, 4, "now"}, // calm minutes or none
	Current:   {3, 4, 2.4, 6, "now"},
	Reading:   {4, 2, 1, 3, "now"},
	Upkeep:    {5, 2, 1, 2, "upkeep"},
	Ahead:     {6, 2, 0.5, 1, "ahead"},
	Mixture:   {4, 1, 1.2, 2, "now"},
	Open:      {7, 1, 2, 0, ""},
	Close:     {8, 1, 0.8, 0, ""},
	Home:      {9, 1, 0.8, 0, ""},
}

// brief holds kinds that stay short whatever the age, in minutes.
var brief = map[Kind]int{SetUp: 3, Ahead: 3, Close: 4, Home: 4}

// A Block is a stretch of minutes.
type Block struct {
	Kind    Kind            `json:"kind"`
	Band    string          `json:"band" doc:"ahead, now, upkeep or empty"`
	Title   string          `json:"title" doc:"of the item; empty where there is none"`
	Rung    string          `json:"rung,omitempty"`
	Skill   string          `json:"skill,omitempty" doc:"of a head start"`
	Step    int             `json:"step,omitempty" doc:"which task of its chain, from 1"`
	Start   int             `json:"start" doc:"minutes from the start of the lesson"`
	Minutes int             `json:"minutes"`
	Cue     string          `json:"cue,omitempty" doc:"the item's own cue words"`
	Why     []reason.Reason `json:"why" nullable:"false"`
}

// A Plan is a lesson to the minute.
type Plan struct {
	Minutes int             `json:"minutes"`
	Blocks  []Block         `json:"blocks" nullable:"false"`
	LeftOut []reason.Reason `json:"leftOut" nullable:"false" doc:"what did not fit"`
}

// Longest returns the usual longest single activity at an age, in minutes, the
// first time it is met. A guide that an absorbed student stretches. Common
// practice, no source.
func Longest(age int) int {
	switch {
	case age <= 4:
		return 3
	case age <= 6:
		return 5
	case age <= 9:
		return 8
	case age <= 13:
		return 12
	}
	return 15
}

// An Ask is what a lesson is planned from.
type Ask struct {
	Standing ladder.Standing
	Graph    skill.Graph
	Path     climb.Path
	Ahead    []ahead.HeadStart
	Approach approach.Approach
	Plays    shelf.Instrument
	Age      int // years
	Minutes  int
	At       time.Time // of the lesson
}

// Make plans a lesson.
func Make(ask Ask) Plan {
	blocks := due(ask)
	p := Plan{Minutes: ask.Minutes, LeftOut: []reason.Reason{}}
	for total(blocks) > ask.Minutes {
		i := firstToGo(blocks)
		if i < 0 {
			break
		}
		p.LeftOut = append(p.LeftOut, reason.Of("too-short-for", "kind", string(blocks[i].Kind), "title", blocks[i].Title))
		blocks = slices.Delete(blocks, i, i+1)
	}
	divide(blocks, ask.Approach, ask.Age, ask.Minutes)
	at := 0
	for i := range blocks {
		b := &blocks[i]
		b.Start = at
		at += b.Minutes
		if cue := ask.Approach.Cues(string(b.Kind), string(ask.Plays)); cue != "" {
			b.Cue = strings.TrimSpace(b.Cue + " " + cue)
		}
	}
	p.Blocks = blocks
	return p
}

// due lists what the lesson should hold, each at its least minutes, in order.
func due(ask Ask) []Block {
	blocks := []Block{block(SetUp, nil), block(Close, nil), block(Home, nil)}
	switch {
	case ask.Standing.BeforeBook:
		blocks = append(blocks, mixed(ask)...)
	default:
		blocks = append(blocks, current(ask)...)
		blocks = append(blocks, secure(ask)...)
		blocks = append(blocks, headStarts(ask)...)
	}
	slices.SortStableFunc(blocks, func(x, y Block) int { return shapes[x.Kind].place - shapes[y.Kind].place })
	if ask.Path.Break.Light() { // old songs first, then the pieces in hand
		slices.SortStableFunc(blocks, func(x, y Block) int { return easing(x.Kind) - easing(y.Kind) })
	}
	return blocks
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

// mixed gives a block to each small thing of the mixture.
func mixed(ask Ask) []Block {
	var blocks []Block
	for _, bit := range mixture.Of(ask.Standing, ask.Graph, ask.Path.Known) {
		r, _ := ask.Standing.Rung(bit.Rung)
		kind := Mixture
		if r.Foothold != nil {
			kind = Opener
		}
		b := block(kind, &r)
		b.Why = append(b.Why, bit.Why)
		blocks = append(blocks, b)
	}
	return blocks
}

// current gives a block to each rung in hand. After a break nothing new begins.
func current(ask Ask) []Block {
	var blocks []Block
	all := ask.Standing.In(ladder.Current)
	for _, r := range all {
		kind := Current
		switch r.Strand {
		case shelf.Technique:
			kind = Technique
		case shelf.Reading:
			kind = Reading
		}
		b := block(kind, &r)
		switch {
		case r.Taught == nil && ask.Path.Break.Light():
			continue
		case r.Taught == nil:
			b.Why = append(b.Why, reason.Of("first-lesson", "title", r.Item.Title))
		case r.Ready():
			b.Why = append(b.Why, reason.Of("ready-to-try", "title", r.Item.Title))
		default:
			missing := r.Missing()
			b.Why = append(b.Why, reason.Of("still-open", "count", strconv.Itoa(len(missing)), "first", first(missing)))
		}
		blocks = append(blocks, b)
	}
	if len(all) == 0 {
		b := block(Open, nil)
		b.Why = append(b.Why, reason.Of("nothing-placed"))
		blocks = append(blocks, b)
	}
	return blocks
}

// secure gives a block to the piece that opens the lesson, the best
// remembered, and to what the week's upkeep puts first.
func secure(ask Ask) []Block {
	pieces := upkeep.Pieces(ask.Standing, ask.Path.Known, ask.At, upkeep.Once(ask.Age))
	n := len(pieces)
	if n == 0 {
		return nil
	}
	best := slices.MaxFunc(pieces, func(a, b upkeep.Piece) int { return cmp.Compare(a.Recall, b.Recall) })
	opener, _ := ask.Standing.Rung(best.ID)
	b := block(Opener, &opener)
	b.Why = append(b.Why, reason.Of("plays-well", "title", opener.Item.Title))
	blocks := []Block{b}
	wanted := 1
	if ask.Approach.UpkeepShare() >= 0.75 {
		wanted++
	}
	if ask.Path.Break.Light() {
		wanted++
	}
	pieces = slices.DeleteFunc(pieces, func(p upkeep.Piece) bool { return p.ID == best.ID })
	minutes := 0
	for _, p := range pieces {
		minutes = max(minutes, wanted*p.Minutes)
	}
	chosen := upkeep.Choose(pieces, minutes)
	for _, p := range chosen[:min(wanted, len(chosen))] {
		r, _ := ask.Standing.Rung(p.ID)
		b := block(Upkeep, &r)
		switch {
		case ask.Path.Break.Light():
			b.Why = append(b.Why, reason.Of("after-break", "days", strconv.Itoa(ask.Path.Break.Days)))
		case len(p.Carries) > 0:
			b.Why = append(b.Why, reason.Of("carries", "skill", ask.Graph.Name(p.Carries[0])))
		case p.Recall >= upkeep.Faded:
			b.Why = append(b.Why, reason.Of("due-again", "days", strconv.Itoa(p.Silent)))
		default:
			b.Why = append(b.Why, reason.Of("fading", "recall", strconv.Itoa(int(100*p.Recall)), "days", strconv.Itoa(p.Silent)))
		}
		blocks = append(blocks, b)
	}
	return blocks
}

// headStarts gives a block to each skill that is prepared this week, or a first
// taste of the next rung when none is. After a break there is none.
func headStarts(ask Ask) []Block {
	if ask.Path.Break.Light() {
		return nil
	}
	var blocks []Block
	for _, h := range ask.Ahead {
		if task, now := h.Now(); now {
			b := block(Ahead, nil)
			b.Title, b.Skill, b.Step, b.Cue = h.Name, h.Skill, h.Done+1, task.Do+"."
			b.Why = append(b.Why, h.Why(ask.Path, ask.Graph))
			blocks = append(blocks, b)
		}
	}
	if next := ask.Standing.In(ladder.Ahead); len(blocks) == 0 && len(next) > 0 {
		b := block(Ahead, &next[0])
		b.Why = append(b.Why, reason.Of("comes-next", "title", next[0].Item.Title))
		blocks = append(blocks, b)
	}
	return blocks
}

func block(k Kind, r *ladder.Rung) Block {
	b := Block{Kind: k, Band: shapes[k].band, Minutes: shapes[k].least, Why: []reason.Reason{}}
	if r != nil {
		b.Title, b.Rung, b.Cue = r.Item.Title, r.ID, r.Item.Cue
	}
	return b
}

// firstToGo returns the block that is left out first; the last of its kind
// goes before the first.
func firstToGo(blocks []Block) int {
	best := -1
	for i, b := range blocks {
		if d := shapes[b.Kind].dropped; d > 0 && (best < 0 || d <= shapes[blocks[best].Kind].dropped) {
			best = i
		}
	}
	return best
}

// divide gives out the minutes left over. A block takes more than the longest
// usual activity only when every other has reached its own.
func divide(blocks []Block, a approach.Approach, age, minutes int) {
	gain := func(b Block) float64 {
		w := shapes[b.Kind].weight
		if b.Band == "upkeep" {
			w *= 2 * a.UpkeepShare()
		}
		return w / float64(b.Minutes)
	}
	limit := func(b Block) int {
		if n, ok := brief[b.Kind]; ok {
			return n
		}
		if b.Kind == Open {
			return minutes
		}
		return Longest(age)
	}
	for total(blocks) < minutes {
		best := -1
		for i, b := range blocks {
			if b.Minutes < limit(b) && (best < 0 || gain(b) > gain(blocks[best])) {
				best = i
			}
		}
		if best < 0 {
			for i, b := range blocks {
				if _, short := brief[b.Kind]; !short && (best < 0 || gain(b) > gain(blocks[best])) {
					best = i
				}
			}
			if !slices.ContainsFunc(blocks[best].Why, func(r reason.Reason) bool { return r.Code == "stretched" }) {
				blocks[best].Why = append(blocks[best].Why, reason.Of("stretched", "usual", strconv.Itoa(limit(blocks[best]))))
			}
		}
		blocks[best].Minutes++
	}
}

func total(blocks []Block) int {
	n := 0
	for _, b := range blocks {
		n += b.Minutes
	}
	return n
}

func first(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return list[0]
}
