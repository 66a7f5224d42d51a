package lesson

import (
	"slices"
	"strconv"

	"patientladder/core/home"
	"patientladder/core/reason"
)

// sitting is how many minutes at most are played at a stretch in the weeks after a pain: several
// short sittings. A judgement.
const sitting = 5

// back is how much of a lesson is played in the weeks after a pain, in minutes; 0 for no limit.
func (ask Ask) back() int {
	if ask.Ache != nil {
		return 0
	}
	if r := home.Back(ask.Standing, ask.Day, ask.Minutes); r.On() {
		return max(int(r.Share*float64(ask.Minutes)), 1)
	}
	return 0
}

// eased keeps what is played to so many minutes of a lesson in all and to short stretches, the least
// weighty left out first, and fills the rest with what needs no playing.
func (ask Ask) eased(blocks []Block, minutes int) []Block {
	for i := range blocks {
		if w := &blocks[i].want; plays(blocks[i]) && !w.fixed {
			w.least = min(w.least, sitting)
			w.most = max(min(w.most, sitting), w.least)
			w.best = min(w.best, w.most)
		}
	}
	for {
		sum, longest, weakest := 0, -1, -1
		for i, b := range blocks {
			if !plays(b) {
				continue
			}
			sum += b.want.most
			if b.want.most > b.want.least && (longest < 0 || b.want.most > blocks[longest].want.most) {
				longest = i
			}
			if !b.want.must && (weakest < 0 || b.want.weight < blocks[weakest].want.weight) {
				weakest = i
			}
		}
		switch {
		case sum <= minutes || longest < 0 && weakest < 0:
			return append(blocks, ask.restful(blocks)...)
		case longest >= 0:
			w := &blocks[longest].want
			w.most--
			w.best = min(w.best, w.most)
		default:
			blocks = slices.Delete(blocks, weakest, weakest+1)
		}
	}
}

// coming says that a lesson comes back slowly.
func (ask Ask) coming() []reason.Reason {
	if minutes := ask.back(); minutes > 0 {
		return []reason.Reason{reason.Of("coming-back-lesson", "minutes", strconv.Itoa(minutes))}
	}
	return nil
}
