package places

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/store"
)

// A Sending is how a week sheet's mail fared.
type Sending struct {
	ID      string    `json:"id"`
	Address string    `json:"address"`
	State   string    `json:"state" enum:"waiting,sending,sent,failed,refused,bounced,undone"`
	Says    string    `json:"says" doc:"why it was not delivered"`
	At      time.Time `json:"at"`
}

// LastOf is the newest sending of a student's sheet of a day.
func LastOf(sent []store.Mailing, student string, day calendar.Date) *Sending {
	for _, m := range sent { // newest first
		if m.Student == student && m.Day == day {
			s := Together(sent, func(o store.Mailing) bool { return Twins(o.ID, m.ID) })
			return &s
		}
	}
	return nil
}

// idLetters are those of an id, in order.
const idLetters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"

// Twin is the id of the letter to one of a family's addresses, so that asking twice sends
// each once: it differs from the first in its last letter.
func Twin(id string, i int) string {
	if i == 0 || id == "" {
		return id
	}
	last := len(id) - 1
	return id[:last] + string(idLetters[(strings.IndexByte(idLetters, id[last])+i)%len(idLetters)])
}

// Twins reports whether two letters went out together.
func Twins(a, b string) bool { return len(a) == len(b) && len(a) > 0 && a[:len(a)-1] == b[:len(b)-1] }

// worse orders how letters fared, the best first.
var worse = []string{store.Sent, store.Undone, store.Sending, store.Waiting, store.Failed, store.Refused, store.Bounced}

// Together tells how the letters of one sending fared: all addresses, and the worst.
func Together(sent []store.Mailing, of func(store.Mailing) bool) Sending {
	var list []*Sending
	for _, m := range sent {
		if of(m) {
			list = append(list, &Sending{m.ID, m.Address, m.State, m.Says, m.At})
		}
	}
	if len(list) == 0 {
		return Sending{}
	}
	slices.SortFunc(list, func(a, b *Sending) int { return strings.Compare(a.Address, b.Address) })
	out := *slices.MaxFunc(list, func(a, b *Sending) int { return slices.Index(worse, a.State) - slices.Index(worse, b.State) })
	if len(list) > 1 {
		if out.Says != "" {
			out.Says = out.Address + ": " + out.Says
		}
		var all []string
		for _, one := range list {
			all = append(all, one.Address)
		}
		out.Address = strings.Join(all, ", ")
	}
	return out
}
