package lesson

import (
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

// sitsStill is under what age sitting and moving alternate. Common practice, no
// source.
const sitsStill = 8

// movers returns how many moving activities break up a lesson for a child, so
// that no more than about three activities' worth is sat through in a row.
func movers(age, minutes int) int {
	if age >= sitsStill {
		return 0
	}
	return (minutes - 1) / (3 * Longest(age))
}

// alternated puts blocks in order: by their place, and under eight what moves
// where it makes the longest sitting shortest.
func alternated(blocks []Block, age int) []Block {
	if age >= sitsStill {
		return blocks
	}
	var still, moving []Block
	for _, b := range blocks {
		if b.Moving {
			moving = append(moving, b)
		} else {
			still = append(still, b)
		}
	}
	for _, m := range moving {
		at, least := len(still), 1<<20
		for i := 1; i < len(still); i++ { // never before the set-up nor after what to do at home
			if n := sat(slices.Insert(slices.Clone(still), i, m)); n < least {
				at, least = i, n
			}
		}
		still = slices.Insert(still, min(at, len(still)), m)
	}
	return still
}

// sat returns the longest stretch of sitting, in minutes.
func sat(blocks []Block) int {
	most, run := 0, 0
	for _, b := range blocks {
		if run += b.Minutes; b.Moving {
			run = 0
		}
		most = max(most, run)
	}
	return most
}

// moved puts blocks where the teacher moved them: each after another by key. The
// set-up stays first, what to do at home last.
func (ask Ask) moved(blocks []Block) []Block {
	for _, change := range ask.Changes {
		c, is := change.(fact.BlockMoved)
		if !is {
			continue
		}
		i := slices.IndexFunc(blocks, func(b Block) bool { return b.Key == c.Block })
		if i < 0 || fixed(blocks[i].Kind) {
			continue
		}
		b := blocks[i]
		rest := slices.Delete(slices.Clone(blocks), i, i+1)
		at := slices.IndexFunc(rest, func(b Block) bool { return b.Key == c.After })
		if at < 0 || rest[at].Kind == Home {
			continue
		}
		blocks = slices.Insert(rest, at+1, b)
	}
	return blocks
}

// Offer adds what the teacher may do to each block of the plan of a day: the set-up
// stays first and what to do at home last, and no lesson is without its musts.
func (p *Plan) Offer(day calendar.Date) {
	for i := range p.Blocks {
		b := &p.Blocks[i]
		b.Acts, b.Least, b.Most = []fact.Act{}, 1, p.Minutes
		if fixed(b.Kind) {
			continue
		}
		if i > 1 {
			b.Acts = append(b.Acts, fact.Do("earlier", "[", fact.BlockMoved{Day: day, Block: b.Key, After: p.Blocks[i-2].Key}))
		}
		if i+1 < len(p.Blocks) && !fixed(p.Blocks[i+1].Kind) {
			b.Acts = append(b.Acts, fact.Do("later", "]", fact.BlockMoved{Day: day, Block: b.Key, After: p.Blocks[i+1].Key}))
		}
		if !shapes[b.Kind].must {
			b.Acts = append(b.Acts, fact.Do("drop", "x", fact.BlockDropped{Day: day, Block: b.Key, Sort: string(b.Kind)}))
		}
	}
}

func fixed(k Kind) bool { return k == SetUp || k == Home }

// changed applies the teacher's changes to what is due: another thing in a
// block, minutes that are set, a block left out or put in.
func (ask Ask) changed(blocks []Block) []Block {
	find := func(key string) int {
		return slices.IndexFunc(blocks, func(b Block) bool { return b.Key == key })
	}
	for _, change := range ask.Changes {
		switch c := change.(type) {
		case fact.BlockSwapped:
			i := find(c.Block)
			if i < 0 || find(c.Into) >= 0 {
				continue
			}
			if b, ok := ask.into(blocks[i].Kind, c.Into, blocks[i]); ok {
				blocks[i] = b
			}
		case fact.BlockTimed:
			if i := find(c.Block); i >= 0 && c.Minutes > 0 {
				ask.pin(&blocks[i], c.Minutes)
			}
		case fact.BlockDropped:
			if i := find(c.Block); i >= 0 && !shapes[blocks[i].Kind].must {
				blocks = slices.Delete(blocks, i, i+1)
			}
		case fact.BlockAdded:
			if find(c.Into) >= 0 {
				continue
			}
			kind := Activity
			if r, is := ask.Standing.Rung(c.Into); is {
				if kind = kindOf(r); r.Foothold != nil {
					kind = Upkeep
				}
				if find(string(kind)+":"+r.ID) >= 0 {
					continue
				}
			}
			if b, ok := ask.into(kind, c.Into, Block{}); ok {
				b.want.must = true
				blocks = append(blocks, b)
				slices.SortStableFunc(blocks, byPlace)
			}
		}
	}
	return blocks
}

// pin gives a block the minutes that the teacher set.
func (ask Ask) pin(b *Block, minutes int) {
	n := min(minutes, ask.Minutes)
	b.Pinned = true
	b.want.least, b.want.best, b.want.most, b.want.must, b.want.fixed = n, n, n, true, true
}

func byPlace(x, y Block) int { return shapes[x.Kind].place - shapes[y.Kind].place }
