package ladder

import (
	"slices"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/shelf"
)

// A Talk is a check-in with the family.
type Talk struct {
	At     time.Time
	With   string // family, student or both
	Agreed string
}

// A Standing is what the facts of one student add up to.
type Standing struct {
	Rungs    []Rung     // lane by lane in the order of shelf.Strands, from the foot up
	Own      []OwnMark  // the student's standing points, oldest first
	Practice []Practice // by day reported
	Lessons
	Unplaced []string // ids of facts about rungs that are not here

	Books      []string             // books and pools chosen, in the order of choosing
	Began      string               // the item at which the student began; empty for the foot of the first book
	BeforeBook bool                 // has not begun the first book
	Probes     map[string]Probe     // the last outcome of each
	Prepared   map[string]HeadStart // by skill
	Taste      shelf.Taste          // as asked; empty when never asked
	Approach   approach.Approach    // questions answered otherwise since the student came
	Overruled  map[string]Overrule  // suggestions, by their key

	Activities map[string]ActivityMark // by id
	Asked      map[string]time.Time    // activities that were asked for again, by id
	Seen       []Sight                 // faults of body and hand, in order
	Body       Body                    // as last measured
	Mood       string                  // as last seen
	Talks      []Talk                  // with the family, in order
	Takes      []Take                  // that were measured and kept, in order
	Echoes     map[string]Echo         // rounds of listening and answering, by skill
	Ache       *Ache                   // a pain told and not cleared since
	Rests      []calendar.Span         // from each pain to the day on which it was cleared; the last without an end while it lasts
	HomeDays   HomeDays                // when the family practises
	Questions  []Question              // of the family, not answered yet
	Ticks      []Tick                  // of tasks done at home, in order
	Treat      *Treat                  // that the family counts towards; nil for none

	Pinned  map[string]Pin             // lines that go on, by key
	Changed []Change                   // what the teacher changed on sheets, each line of each sheet as it came to stand
	Counts  map[string]Count           // times that a sort of line asks for by the teacher's word
	Struck  map[string][]calendar.Date // sorts of lines that were struck from sheets, with the lessons that gave those; and of blocks that were left out of lessons
	Lengths []Length                   // that blocks of lessons were given, each block of each lesson as it came to stand, in order
}

// A Length is how long the teacher made a block of a lesson.
type Length struct {
	Day   calendar.Date
	Block string // its key
	Kind  string
	Was   int // minutes before the first touch
	Is    int
}

// LeftOut is the sort of the blocks of a kind, for what is left out of lesson after lesson.
func LeftOut(kind string) string { return "block " + kind }

// Timed is the sort of the lengths of a kind of block.
func Timed(kind string) string { return "length " + kind }

// Usual returns the minutes that the teacher gives a kind of block: the mean of the last lessons, where in all of
// them it was made longer, or in all of them shorter; 0 where nothing is learnt.
func (s Standing) Usual(kind string) int {
	var days []calendar.Date
	sum, n, longer, shorter := 0, 0, true, true
	for _, l := range slices.Backward(s.Lengths) {
		if l.Kind != kind {
			continue
		}
		if !slices.Contains(days, l.Day) {
			if len(days) == int(judgement.StruckOften) {
				break
			}
			days = append(days, l.Day)
		}
		sum, n = sum+l.Is, n+1
		longer, shorter = longer && l.Is > l.Was, shorter && l.Is < l.Was
	}
	if len(days) < int(judgement.StruckOften) || !longer && !shorter {
		return 0
	}
	return (sum + n/2) / n
}

// Waits counts the lessons before a day in which a rung in hand had no part, up to the last: since it was
// worked on, or since it came into hand. Lessons in which playing was forbidden do not count.
func (s Standing) Waits(r Rung, day calendar.Date) int {
	since := calendar.On(r.Added)
	for i := range s.Rungs {
		if below := &s.Rungs[i]; below.Strand == r.Strand {
			if below.ID == r.ID {
				break
			}
			if below.Foothold != nil {
				since = max(since, calendar.On(*below.Foothold))
			}
		}
	}
	for _, d := range r.Worked {
		since = max(since, d)
	}
	n := 0
	for d := range s.Closed {
		if d > since && d < day && !s.Ached(d) {
			n++
		}
	}
	return n
}

// Ached reports whether a pain that was told before a day was not cleared on it.
func (s Standing) Ached(d calendar.Date) bool {
	return slices.ContainsFunc(s.Rests, func(r calendar.Span) bool { return d > r.From && (r.To == "" || d <= r.To) })
}

// Resting reports whether a day lies between a pain and the day on which it was cleared, both
// of them too.
func (s Standing) Resting(d calendar.Date) bool {
	return slices.ContainsFunc(s.Rests, func(r calendar.Span) bool { return d >= r.From && (r.To == "" || d <= r.To) })
}

// A Change is what the teacher made of a line of the sheet that the lesson of a day gave.
type Change struct {
	Day   calendar.Date
	Line  string
	Sort  string
	Count int    // 0 where it was left
	Hands string // empty where they were left
}

// A Count is how many times a sort of line asks for, and the fact that said so.
type Count struct {
	Fact  string
	Times int
}

// Strikes counts the sheets from which a sort of line was struck since it was last wanted.
func (s Standing) Strikes(sort string) int { return len(s.Struck[sort]) }

// HomeDays are the days on which a family practises; the zero HomeDays is every
// day, the usual minutes.
type HomeDays struct {
	Days    []time.Weekday
	Minutes int // a day; 0 for the usual of the age
}

// On reports whether a day is one of them.
func (h HomeDays) On(d calendar.Date) bool {
	return len(h.Days) == 0 || slices.Contains(h.Days, d.Weekday())
}

// A Pin is the fact that had a line go on, and the sheet that it stands on.
type Pin struct{ Fact, Document string }

// A Question is what a family asks the teacher.
type Question struct {
	ID   string // of the fact that asked it
	Text string
	At   time.Time
}

// A Tick is a task of a week sheet that was done at home.
type Tick struct {
	ID       string // of the fact that ticked it
	Day      calendar.Date
	Document string // the sheet; empty of ticks from before sheets were kept
	Line     string // of that sheet
}

// An ActivityMark is how an activity went.
type ActivityMark struct {
	Days    []calendar.Date // on which it was done, in order
	Level   int             // of the last time, from 1
	Outcome string          // of the last time: pass, nearly or not-yet
}

// A Sight is a fault seen, by its key.
type Sight struct {
	Fault string
	At    time.Time
}

// A Body is what was measured of a player, in cm; a zero At for never.
type Body struct {
	At time.Time
	CM fact.SeatMeasured
}

// A Treat is what a family has named to count towards, by its own choice. The
// program counts and buys nothing.
type Treat struct {
	Name   string
	Counts string // fact.Footholds or fact.KeptDays
	Goal   int
	Since  time.Time
}

// An Ache is a pain that was told.
type Ache struct {
	Side  string // right, left or both
	Where string
	At    time.Time
}

// A Probe is how a probe was last answered.
type Probe struct {
	Outcome string
	At      time.Time
}

// later is how long a suggestion that was put off stays away.
const later = 14 * 24 * time.Hour

// Refused reports whether a suggestion was turned down for good, or put off
// within the last two weeks.
func (s Standing) Refused(key string, now time.Time) bool {
	o, there := s.Overruled[key]
	return there && (o.Outcome == "never" || now.Sub(o.At) < later)
}

// Until returns the day on which a suggestion that was put off comes again; empty of one
// that was turned down for good.
func (o Overrule) Until() calendar.Date {
	if o.Outcome == "never" {
		return ""
	}
	return calendar.On(o.At.Add(later))
}

// A HeadStart is how far the preparation chain of a skill was followed.
type HeadStart struct {
	Done int // tasks
	Last time.Time
}

// An Overrule is a suggestion turned down: for now, or for good.
type Overrule struct {
	Fact    string // that told it
	Outcome string // later or never
	At      time.Time
}

// Practice is one day at home as told.
type Practice struct {
	ID      string // of the fact that told it
	Day     calendar.Date
	Minutes int
	Feel    string
}

// State returns where a rung stands: the lowest rung of each lane that is
// neither secure nor parked is current, and so is any that has been taught; a cycle of
// keys in hand blocks nothing beside it.
// Before the first book there is no order: all that is not secure is current.
func (s Standing) State(r Rung) State { return s.state(&r) }

func (s *Standing) state(r *Rung) State {
	switch {
	case r.Foothold != nil:
		return Secure
	case r.Parked:
		return Parked
	case r.Taught != nil || s.BeforeBook:
		return Current
	}
	for i := range s.Rungs {
		other := &s.Rungs[i]
		if other.Strand == r.Strand && other.Foothold == nil && !other.Parked && !(other.Taught != nil && other.Item.Cycle()) {
			if other.ID == r.ID {
				return Current
			}
			break
		}
	}
	return Ahead
}

// In returns the rungs in a state, lane by lane.
func (s Standing) In(state State) []Rung {
	var which []int
	for i := range s.Rungs {
		if s.state(&s.Rungs[i]) == state {
			which = append(which, i)
		}
	}
	out := make([]Rung, len(which))
	for k, i := range which {
		out[k] = s.Rungs[i]
	}
	return out
}

// Rung finds a rung by id.
func (s Standing) Rung(id string) (Rung, bool) {
	for _, r := range s.Rungs {
		if r.ID == id {
			return r, true
		}
	}
	return Rung{}, false
}

// sight is the skill that says that somebody reads solidly.
const sight = "sight-four-bars"

// ReadsSolidly reports whether something secure brought four bars at first sight.
func (s Standing) ReadsSolidly() bool {
	return slices.ContainsFunc(s.Rungs, func(r Rung) bool { return slices.Contains(r.Item.Brings, sight) && s.state(&r) == Secure })
}
