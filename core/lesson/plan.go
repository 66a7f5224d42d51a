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
	"slices"
	"sort"
	"strconv"
	"time"

	"patientladder/core/approach"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
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
	Open      Kind = "open" // nothing is placed yet
	Close     Kind = "close"
	Home      Kind = "home"
)

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
	Ahead:     {6, 1, 0.5, 1, "ahead"},
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

// Make plans a lesson of the given minutes for a student of the given age.
// today is the day of the lesson.
func Make(s ladder.Standing, a approach.Approach, age, minutes int, today time.Time) Plan {
	blocks := due(s, a, today)
	p := Plan{Minutes: minutes, LeftOut: []reason.Reason{}}
	for total(blocks) > minutes {
		i := firstToGo(blocks)
		if i < 0 {
			break
		}
		p.LeftOut = append(p.LeftOut, reason.Of("too-short-for", "kind", string(blocks[i].Kind), "title", blocks[i].Title))
		blocks = slices.Delete(blocks, i, i+1)
	}
	divide(blocks, a, age, minutes)
	at := 0
	for i := range blocks {
		blocks[i].Start = at
		at += blocks[i].Minutes
	}
	p.Blocks = blocks
	return p
}

// due lists what the lesson should hold, each at its least minutes, in order.
func due(s ladder.Standing, a approach.Approach, today time.Time) []Block {
	blocks := []Block{block(SetUp, nil), block(Close, nil), block(Home, nil)}
	for _, r := range s.In(ladder.Current) {
		kind := Current
		switch r.Strand {
		case shelf.Technique:
			kind = Technique
		case shelf.Reading:
			kind = Reading
		}
		b := block(kind, &r)
		switch {
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
	secure := s.In(ladder.Secure)
	sort.SliceStable(secure, func(i, j int) bool { return upkeep.Recall(secure[i], today) < upkeep.Recall(secure[j], today) })
	if n := len(secure); n > 0 {
		opener := secure[n-1] // the best remembered is what the student plays well
		b := block(Opener, &opener)
		b.Why = append(b.Why, reason.Of("plays-well", "title", opener.Item.Title))
		blocks = append(blocks, b)
		wanted := 1
		if a.UpkeepShare() >= 0.75 {
			wanted = 2
		}
		for _, r := range secure[:min(wanted, n-1)] {
			b := block(Upkeep, &r)
			b.Why = append(b.Why, reason.Of("fading", "recall", strconv.Itoa(int(100*upkeep.Recall(r, today))),
				"days", strconv.Itoa(int(today.Sub(r.LastHeard()).Hours()/24))))
			blocks = append(blocks, b)
		}
	}
	if ahead := s.In(ladder.Ahead); len(ahead) > 0 {
		b := block(Ahead, &ahead[0])
		b.Why = append(b.Why, reason.Of("comes-next", "title", ahead[0].Item.Title))
		blocks = append(blocks, b)
	}
	if len(s.In(ladder.Current)) == 0 {
		b := block(Open, nil)
		b.Why = append(b.Why, reason.Of("nothing-placed"))
		blocks = append(blocks, b)
	}
	slices.SortStableFunc(blocks, func(x, y Block) int { return shapes[x.Kind].place - shapes[y.Kind].place })
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
