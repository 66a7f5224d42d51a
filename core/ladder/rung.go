package ladder

import (
	"slices"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/card"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A Rung is an item on this student's ladder.
type Rung struct {
	ID       string
	Item     shelf.Item
	Strand   shelf.Strand
	Added    time.Time
	Revision int // of the item, that it was placed with or has taken over
	Parked   bool
	Taught   *time.Time // when its first lesson was
	Foothold *time.Time
	Polished bool
	Parts    []Part
	Points   []Point
	Held     string // key of the point held in mind, or empty
	Spots    []Spot
	Tries    []Try
	Heard    []Hearing
	Judged   []Judgement
	Answered []card.Answer   // of the item's decks, in order
	Worked   []calendar.Date // days on which it was worked on in a lesson, in order
	Opened   int             // lessons that the student opened with it
	Home     []time.Time     // when it was played at home, as told
	Target   calendar.Date   // the day it should be polished by; empty for none
	Best     int             // the most points that were met at one time

	firstMark map[string]string // first mark of each own point here: met or open
}

// A Part is one part of an item with a foothold of its own.
type Part struct {
	ID       string
	Name     string
	Foothold *time.Time
}

// A Point is a focus point of a rung.
type Point struct {
	Key   string
	Name  string
	Own   bool // the student's, not the piece's
	State PointState
	Since *time.Time // of the present mark
}

// A PointState says how a focus point stands.
type PointState string

// The states of a point.
const (
	Unmarked PointState = "unmarked"
	Met      PointState = fact.Met
	Open     PointState = fact.Open
)

// A Spot is a short hard place with a drill and a count.
type Spot struct {
	ID    string
	Where string
	Goal  int
	Done  int // the best run so far
}

// Met reports whether the spot reached its count.
func (s Spot) Met() bool { return s.Done >= s.Goal }

// Refused is the outcome of a try that came before its lesson.
const Refused = "refused"

// A Try is one try for a foothold.
type Try struct {
	Part    string
	At      time.Time
	Outcome string         // granted, not-yet or refused
	Why     *reason.Reason // of a refusal
}

// A Hearing is a secure piece heard again.
type Hearing struct {
	Grade string
	At    time.Time
}

// A Judgement is what the student said before the teacher did.
type Judgement struct {
	Point   string
	Outcome string
	At      time.Time
}

// An OwnMark is a standing point that follows the student from rung to rung.
type OwnMark struct {
	Key   string
	Name  string
	Since time.Time
	Run   int // rungs in a row on which it was met at first
	Gone  bool
}

// State says where a rung stands on the ladder.
type State string

// The states of a rung.
const (
	Ahead   State = "ahead"
	Current State = "current"
	Secure  State = "secure"
	Parked  State = "parked"
)

// MetPoints counts the points that are met.
func (r Rung) MetPoints() int {
	n := 0
	for _, p := range r.Points {
		if p.State == Met {
			n++
		}
	}
	return n
}

// Failed counts the tries in a row, up to the last, that brought no foothold.
func (r Rung) Failed() int {
	n := 0
	for _, t := range slices.Backward(r.Tries) {
		if t.Outcome == fact.Granted {
			break
		}
		n++
	}
	return n
}

// Refusal returns why a try for a foothold would be turned back, or nil.
func (r Rung) Refusal() *reason.Reason {
	if r.Taught == nil {
		why := reason.Of("not-taught", "title", r.Item.Title)
		return &why
	}
	return nil
}

// Ready reports whether a current rung is ready to try: it has had its lesson
// and every point is met.
func (r Rung) Ready() bool {
	if r.Taught == nil || r.Foothold != nil {
		return false
	}
	for _, p := range r.Points {
		if p.State != Met {
			return false
		}
	}
	return len(r.Points) > 0
}

// Holding returns the key of the point to hold in mind: the one that was
// chosen, else the first that is not met; empty when all are.
func (r Rung) Holding() string {
	if r.Held != "" {
		return r.Held
	}
	for _, p := range r.Points {
		if p.State != Met && p.Key != shelf.Spots {
			return p.Key
		}
	}
	return ""
}

// Missing lists the names of points that are not met, and of spots by place.
func (r Rung) Missing() []string {
	var out []string
	for _, p := range r.Points {
		if p.State != Met && p.Key != shelf.Spots {
			out = append(out, p.Name)
		}
	}
	for _, s := range r.Spots {
		if !s.Met() {
			out = append(out, s.Where)
		}
	}
	return out
}

// LessonsOn counts the lessons in which a rung was worked on since a moment; at least that
// one.
func (r Rung) LessonsOn(since time.Time) int {
	n, from := 0, calendar.On(since)
	for _, day := range r.Worked {
		if day >= from {
			n++
		}
	}
	return max(n, 1)
}

// Nearing reports whether a secure rung has a day in its last weeks to come, in which it is
// kept ready to perform.
func (r Rung) Nearing(today calendar.Date) bool {
	return r.Foothold != nil && r.Target >= today && r.Target != "" && float64(r.Target.Sub(today)) <= 7*judgement.PolishLast
}

// Past reports whether the day of a secure rung was, and how it went is not told yet.
func (r Rung) Past(today calendar.Date) bool {
	return r.Foothold != nil && r.Target != "" && r.Target <= today && float64(today.Sub(r.Target)) <= judgement.WentAsked
}
